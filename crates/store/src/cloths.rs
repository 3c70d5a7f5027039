//! The cupboard.

use crate::schema::cloths;
use crate::{Store, StoreError, now};
use bofta_core::project::ProjectCloth;
use bofta_core::project::kept::{read_cloth, write_cloth};
use diesel::prelude::*;

/// A cloth of the cupboard under its key, or why it cannot be read.
pub type StoredCloth = (String, Result<ProjectCloth, StoreError>);

/// Cloths of the cupboard.
#[derive(Clone, Copy, Debug)]
pub enum Which<'a> {
    /// The one with this key.
    Key(&'a str),
    /// Those in the cupboard with one of these names.
    Called(&'a [&'a str]),
    /// Those a bag has to do with, in the cupboard or in the drawer.
    OfBag(OfBag<'a>),
}

/// What a bag may have to do with: by its own key, which stands in the ledgers whatever a cloth is called by now and
/// wherever it lies, and by keys and names of its cloths.
#[derive(Clone, Copy, Debug)]
pub struct OfBag<'a> {
    /// Key of the project.
    pub project: &'a str,
    /// Keys its cloths have.
    pub keys: &'a [&'a str],
    /// Names its cloths have.
    pub names: &'a [&'a str],
}

/// What became of cloths: those that are kept, or why they cannot be.
pub type Changed<E> = Result<Vec<ProjectCloth>, E>;

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
    /// The database; a cloth that cannot be written.
    pub fn keep_cloth(&self, cloth: &ProjectCloth) -> Result<(), StoreError> {
        self.write(|c| keep(c, cloth))
    }

    /// Changes cloths of the cupboard: what `change` makes of them as they are now is kept, all or none, nobody else
    /// writing meanwhile. One that was none of them is new, and gets a key that no other has.
    ///
    /// # Errors
    /// The database, or a cloth that cannot be read or written.
    pub fn change_cloths<E>(
        &self,
        which: Which<'_>,
        change: impl FnOnce(&[ProjectCloth]) -> Changed<E>,
    ) -> Result<Changed<E>, StoreError> {
        self.write(|c| {
            let before = found(c, which)?;
            let mut next = match change(&before) {
                Ok(next) => next,
                Err(why) => return Ok(Err(why)),
            };
            for cloth in &mut next {
                match before.iter().find(|b| b.id == cloth.id) {
                    Some(same) if same == cloth => continue,
                    Some(_) => {}
                    None => cloth.id = free_key(c, &cloth.id)?,
                }
                keep(c, cloth)?;
            }
            Ok(Ok(next))
        })
    }

    /// The cloths that `which` names, as they are now.
    ///
    /// # Errors
    /// The database, or a cloth that cannot be read.
    pub fn which_cloths(&self, which: Which<'_>) -> Result<Vec<ProjectCloth>, StoreError> {
        found(&mut *self.connect()?, which)
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

fn found(c: &mut SqliteConnection, which: Which<'_>) -> Result<Vec<ProjectCloth>, StoreError> {
    let all = cloths::table.order(cloths::id.asc()).select((cloths::id, cloths::document));
    let rows: Vec<(String, String)> = match which {
        Which::Key(id) => all.filter(cloths::id.eq(id)).load(c)?,
        Which::Called(names) => {
            let of_it = cloths::name.eq_any(names).and(cloths::put_away_at.is_null());
            all.filter(of_it).load(c)?
        }
        Which::OfBag(OfBag { project, keys, names }) => {
            // Keys are plain words, so they stand in a document as they are.
            let entered = format!("%\"project\":\"{project}\"%");
            let known = cloths::id.eq_any(keys).or(cloths::name.eq_any(names)).or(cloths::document.like(entered));
            all.filter(known).load(c)?
        }
    };
    rows.into_iter().map(|row| read(row).1).collect()
}

/// The first of `key`, `key-2`, `key-3` that no cloth has, in the cupboard or in the drawer.
fn free_key(c: &mut SqliteConnection, key: &str) -> Result<String, StoreError> {
    let taken: Vec<String> = cloths::table.filter(cloths::id.like(format!("{key}%"))).select(cloths::id).load(c)?;
    let keys = std::iter::once(key.to_owned()).chain((2..).map(|n| format!("{key}-{n}")));
    Ok(keys.into_iter().find(|k| !taken.contains(k)).unwrap_or_default())
}

fn keep(c: &mut SqliteConnection, cloth: &ProjectCloth) -> Result<(), StoreError> {
    let document = write_cloth(cloth).map_err(StoreError::unreadable(&cloth.id))?;
    let values = (cloths::name.eq(&cloth.name), cloths::document.eq(&document));
    // One in the drawer stays there: only bringing it back brings it out.
    if diesel::update(cloths::table.find(&cloth.id)).set(values).execute(c)? == 0 {
        diesel::insert_into(cloths::table).values((cloths::id.eq(&cloth.id), values.0, values.1)).execute(c)?;
    }
    Ok(())
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
