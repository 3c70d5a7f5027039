//! The cupboard.

use crate::schema::cloths;
use crate::{Store, StoreError};
use bofta_core::project::ProjectCloth;
use diesel::prelude::*;

impl Store {
    /// The cloths in the cupboard, by key.
    ///
    /// # Errors
    /// [`StoreError`] when the database or a document cannot be read.
    pub fn cloths(&self) -> Result<Vec<ProjectCloth>, StoreError> {
        let rows: Vec<String> =
            cloths::table.order(cloths::id.asc()).select(cloths::document).load(&mut self.connect()?)?;
        rows.iter().map(|document| Ok(serde_json::from_str(document)?)).collect()
    }

    /// Puts a cloth into the cupboard, in place of one with the same key.
    ///
    /// # Errors
    /// The database.
    pub fn keep_cloth(&self, cloth: &ProjectCloth) -> Result<(), StoreError> {
        let document = serde_json::to_string(cloth)?;
        diesel::replace_into(cloths::table)
            .values((cloths::id.eq(&cloth.id), cloths::document.eq(document)))
            .execute(&mut self.connect()?)?;
        Ok(())
    }

    /// Takes a cloth out of the cupboard; projects that use it keep their own copy.
    ///
    /// # Errors
    /// The database.
    pub fn drop_cloth(&self, id: &str) -> Result<(), StoreError> {
        diesel::delete(cloths::table.find(id)).execute(&mut self.connect()?)?;
        Ok(())
    }
}
