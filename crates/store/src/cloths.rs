//! The cupboard.

use crate::schema::cloths;
use crate::{Store, StoreError, now};
use bofta_core::project::ProjectCloth;
use bofta_core::project::kept::{read_cloth, write_cloth};
use diesel::prelude::*;

/// A cloth of the cupboard under its key, or why it cannot be read.
pub type StoredCloth = (String, Result<ProjectCloth, StoreError>);

impl Store {
    /// Key and name of every cloth in the cupboard, by key.
    ///
    /// # Errors
    /// The database.
    pub fn cloth_names(&self) -> Result<Vec<(String, String)>, StoreError> {
        Ok(cloths::table
            .filter(cloths::put_away_at.is_null())
            .order(cloths::id.asc())
            .select((cloths::id, cloths::name))
            .load(&mut self.connect()?)?)
    }

    /// The cloths with these `ids`, by key; one that cannot be read is an error of its own.
    ///
    /// # Errors
    /// The database.
    pub fn cloths(&self, ids: &[String]) -> Result<Vec<StoredCloth>, StoreError> {
        let rows: Vec<(String, String)> = cloths::table
            .filter(cloths::id.eq_any(ids))
            .order(cloths::id.asc())
            .select((cloths::id, cloths::document))
            .load(&mut self.connect()?)?;
        Ok(rows.into_iter().map(read).collect())
    }

    /// Every cloth in the cupboard with its name, by key; one that cannot be read is an error of its own.
    ///
    /// # Errors
    /// The database.
    pub fn all_cloths(&self) -> Result<Vec<(String, StoredCloth)>, StoreError> {
        let rows: Vec<(String, String, String)> = cloths::table
            .filter(cloths::put_away_at.is_null())
            .order(cloths::id.asc())
            .select((cloths::name, cloths::id, cloths::document))
            .load(&mut self.connect()?)?;
        Ok(rows.into_iter().map(|(name, id, document)| (name, read((id, document)))).collect())
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
        self.keep_cloths(std::slice::from_ref(cloth))
    }

    /// Keeps several cloths, all or none.
    ///
    /// # Errors
    /// The database; a cloth that cannot be written.
    pub fn keep_cloths(&self, all: &[ProjectCloth]) -> Result<(), StoreError> {
        let written: Vec<(&ProjectCloth, String)> = all
            .iter()
            .map(|cloth| Ok((cloth, write_cloth(cloth).map_err(StoreError::unreadable(&cloth.id))?)))
            .collect::<Result<_, StoreError>>()?;
        self.write(|c| {
            for (cloth, document) in &written {
                let values = (
                    cloths::id.eq(&cloth.id),
                    cloths::name.eq(&cloth.name),
                    cloths::document.eq(document),
                    cloths::put_away_at.eq(None::<i64>),
                );
                diesel::replace_into(cloths::table).values(values).execute(c)?;
            }
            Ok(())
        })
    }

    /// Puts a cloth of the cupboard into the drawer; projects that use it keep their own copy.
    ///
    /// # Errors
    /// The database.
    pub fn archive_cloth(&self, id: &str) -> Result<(), StoreError> {
        self.set_cloth_away(id, Some(now()))
    }

    /// Puts a cloth from the drawer back into the cupboard.
    ///
    /// # Errors
    /// The database.
    pub fn restore_cloth(&self, id: &str) -> Result<(), StoreError> {
        self.set_cloth_away(id, None)
    }

    fn set_cloth_away(&self, id: &str, at: Option<i64>) -> Result<(), StoreError> {
        self.write(|c| {
            diesel::update(cloths::table.find(id)).set(cloths::put_away_at.eq(at)).execute(c)?;
            Ok(())
        })
    }

    /// The cloths in the drawer, the one put away last first.
    ///
    /// # Errors
    /// The database.
    pub fn cloths_in_the_drawer(&self) -> Result<Vec<PutAway>, StoreError> {
        let rows: Vec<(String, String, Option<i64>)> = cloths::table
            .filter(cloths::put_away_at.is_not_null())
            .order((cloths::put_away_at.desc(), cloths::id.asc()))
            .select((cloths::id, cloths::name, cloths::put_away_at))
            .load(&mut self.connect()?)?;
        Ok(rows.into_iter().map(|(id, name, at)| PutAway { id, name, at: at.unwrap_or_default() }).collect())
    }

    /// Throws a cloth in the drawer away for good.
    ///
    /// # Errors
    /// The database.
    pub fn throw_cloth_away(&self, id: &str) -> Result<(), StoreError> {
        self.write(|c| {
            diesel::delete(cloths::table.find(id).filter(cloths::put_away_at.is_not_null())).execute(c)?;
            Ok(())
        })
    }
}

fn read((id, document): (String, String)) -> StoredCloth {
    let cloth = read_cloth(&document).map_err(StoreError::unreadable(&id));
    (id, cloth)
}

/// Something in the drawer.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct PutAway {
    /// Its key.
    pub id: String,
    /// Its name.
    pub name: String,
    /// When it was put away, in milliseconds since 1970.
    pub at: i64,
}
