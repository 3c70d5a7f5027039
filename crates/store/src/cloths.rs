//! The cupboard.

use crate::schema::cloths;
use crate::{Store, StoreError};
use bofta_core::project::ProjectCloth;
use bofta_core::project::kept::{read_cloth, write_cloth};
use diesel::prelude::*;

/// A cloth of the cupboard under its key, or why it cannot be read.
pub type KeptCloth = (String, Result<ProjectCloth, StoreError>);

impl Store {
    /// Key and name of every cloth in the cupboard, by key.
    ///
    /// # Errors
    /// The database.
    pub fn cloth_names(&self) -> Result<Vec<(String, String)>, StoreError> {
        Ok(cloths::table.order(cloths::id.asc()).select((cloths::id, cloths::name)).load(&mut self.connect()?)?)
    }

    /// The cloths with these `ids`, by key; one that cannot be read is an error of its own.
    ///
    /// # Errors
    /// The database.
    pub fn cloths(&self, ids: &[String]) -> Result<Vec<KeptCloth>, StoreError> {
        let rows: Vec<(String, String)> = cloths::table
            .filter(cloths::id.eq_any(ids))
            .order(cloths::id.asc())
            .select((cloths::id, cloths::document))
            .load(&mut self.connect()?)?;
        let read = |(id, document): (String, String)| {
            let cloth = read_cloth(&document).map_err(StoreError::unreadable(&id));
            (id, cloth)
        };
        Ok(rows.into_iter().map(read).collect())
    }

    /// The cloth with this key, if there is one.
    ///
    /// # Errors
    /// The database, or a document that cannot be read.
    pub fn cloth(&self, id: &str) -> Result<Option<ProjectCloth>, StoreError> {
        self.cloths(&[id.to_owned()])?.pop().map(|(_, cloth)| cloth).transpose()
    }

    /// The text a cloth is kept as, to be saved when it cannot be read.
    ///
    /// # Errors
    /// The database.
    pub fn cloth_document(&self, id: &str) -> Result<Option<String>, StoreError> {
        Ok(cloths::table.find(id).select(cloths::document).first(&mut self.connect()?).optional()?)
    }

    /// Puts a cloth into the cupboard, in place of one with the same key.
    ///
    /// # Errors
    /// The database.
    pub fn keep_cloth(&self, cloth: &ProjectCloth) -> Result<(), StoreError> {
        let document = write_cloth(cloth).map_err(StoreError::unreadable(&cloth.id))?;
        let values = (cloths::id.eq(&cloth.id), cloths::name.eq(&cloth.name), cloths::document.eq(document));
        self.write(|c| {
            diesel::replace_into(cloths::table).values(values).execute(c)?;
            Ok(())
        })
    }

    /// Takes a cloth out of the cupboard; projects that use it keep their own copy.
    ///
    /// # Errors
    /// The database.
    pub fn drop_cloth(&self, id: &str) -> Result<(), StoreError> {
        self.write(|c| {
            diesel::delete(cloths::table.find(id)).execute(c)?;
            Ok(())
        })
    }
}
