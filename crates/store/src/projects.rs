//! Projects with their history.

use crate::cut_plans::{cut_plan, forget_unused, keep_cut_plan};
use crate::schema::{projects, states};
use crate::{PutAway, Store, StoreError, now};
use bofta_core::project::Project;
use bofta_core::project::kept::{read_project, write_project};
use diesel::prelude::*;

/// States that can be gone back to.
const HISTORY: i64 = 500;

/// A project as it is kept.
#[derive(Clone, Debug, PartialEq)]
pub struct StoredProject {
    /// Its key.
    pub id: String,
    /// Goes up with every change.
    pub revision: i64,
    /// The document.
    pub project: Project,
    /// What undo would take back.
    pub undo: Option<String>,
    /// What redo would make again.
    pub redo: Option<String>,
}

/// A project as the shelf finds it, without its document.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Named {
    /// Its key.
    pub id: String,
    /// Its revision.
    pub revision: i64,
    /// Milliseconds since 1970.
    pub changed_at: i64,
    /// Its name.
    pub name: String,
}

impl Store {
    /// All projects on the shelf, the one changed last first.
    ///
    /// # Errors
    /// The database.
    pub fn named(&self) -> Result<Vec<Named>, StoreError> {
        let rows: Vec<(String, i64, i64, String)> = projects::table
            .filter(projects::deleted.eq(false))
            .order((projects::changed_at.desc(), projects::id.asc()))
            .select((projects::id, projects::revision, projects::changed_at, projects::name))
            .load(&mut self.connect()?)?;
        let named = |(id, revision, changed_at, name)| Named { id, revision, changed_at, name };
        Ok(rows.into_iter().map(named).collect())
    }

    /// The text a project is kept as, to be saved when it cannot be read.
    ///
    /// # Errors
    /// [`StoreError::NotFound`], or the database.
    pub fn document(&self, id: &str) -> Result<String, StoreError> {
        let found: Option<String> = projects::table
            .inner_join(states::table)
            .filter(projects::id.eq(id))
            .filter(states::position.eq(projects::position))
            .select(states::document)
            .first(&mut self.connect()?)
            .optional()?;
        found.ok_or_else(|| StoreError::NotFound(id.to_owned()))
    }

    /// One project.
    ///
    /// # Errors
    /// [`StoreError::NotFound`], [`StoreError::Unreadable`], or the database.
    pub fn project(&self, id: &str) -> Result<StoredProject, StoreError> {
        let mut connection = self.connect()?;
        read(&mut connection, id)
    }

    /// Keeps a new project under `id`.
    ///
    /// # Errors
    /// The database, as when `id` is taken.
    pub fn create(&self, id: &str, project: &Project) -> Result<StoredProject, StoreError> {
        let document = write_project(project).map_err(StoreError::unreadable(id))?;
        self.write(|c| {
            diesel::insert_into(projects::table)
                .values((
                    projects::id.eq(id),
                    projects::revision.eq(1_i64),
                    projects::position.eq(0_i64),
                    projects::changed_at.eq(now()),
                    projects::deleted.eq(false),
                    projects::name.eq(&project.name),
                ))
                .execute(c)?;
            let plan = keep_cut_plan(c, id, None, project)?;
            insert_state(c, id, 0, "begin", &document, plan)?;
            read(c, id)
        })
    }

    /// Keeps a changed project; what had been undone is forgotten.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when the project is no longer at `based_on`; nothing is kept then.
    pub fn change(&self, id: &str, based_on: i64, label: &str, project: &Project) -> Result<StoredProject, StoreError> {
        let document = write_project(project).map_err(StoreError::unreadable(id))?;
        self.write(|c| {
            let position = at_revision(c, id, based_on)?;
            diesel::delete(states::table.filter(states::project_id.eq(id)).filter(states::position.gt(position)))
                .execute(c)?;
            diesel::delete(
                states::table.filter(states::project_id.eq(id)).filter(states::position.lt(position - HISTORY)),
            )
            .execute(c)?;
            let plan = keep_cut_plan(c, id, Some(position), project)?;
            insert_state(c, id, position + 1, label, &document, plan)?;
            forget_unused(c, id)?;
            move_to(c, id, position + 1)
        })
    }

    /// Takes back the last change.
    ///
    /// # Errors
    /// [`StoreError::Nothing`] at the beginning; a conflict as for [`Store::change`].
    pub fn undo(&self, id: &str, based_on: i64) -> Result<StoredProject, StoreError> {
        self.step(id, based_on, -1, "undo")
    }

    /// Makes the change taken back last again.
    ///
    /// # Errors
    /// [`StoreError::Nothing`] when nothing was taken back; a conflict as for [`Store::change`].
    pub fn redo(&self, id: &str, based_on: i64) -> Result<StoredProject, StoreError> {
        self.step(id, based_on, 1, "redo")
    }

    fn step(&self, id: &str, based_on: i64, by: i64, what: &'static str) -> Result<StoredProject, StoreError> {
        self.write(|c| {
            let to = at_revision(c, id, based_on)? + by;
            let there: i64 = states::table
                .filter(states::project_id.eq(id))
                .filter(states::position.eq(to))
                .count()
                .get_result(c)?;
            if there == 0 {
                return Err(StoreError::Nothing(what));
            }
            move_to(c, id, to)
        })
    }

    /// Takes a project off the shelf; [`Store::restore`] puts it back.
    ///
    /// # Errors
    /// [`StoreError::NotFound`], or the database.
    pub fn archive(&self, id: &str) -> Result<(), StoreError> {
        self.set_deleted(id, true)
    }

    /// Puts a project back on the shelf.
    ///
    /// # Errors
    /// [`StoreError::NotFound`], or the database.
    pub fn restore(&self, id: &str) -> Result<(), StoreError> {
        self.set_deleted(id, false)
    }

    /// The projects in the drawer, the one put away last first.
    ///
    /// # Errors
    /// The database.
    pub fn projects_in_the_drawer(&self) -> Result<Vec<PutAway>, StoreError> {
        let rows: Vec<(String, String, i64)> = projects::table
            .filter(projects::deleted.eq(true))
            .order((projects::changed_at.desc(), projects::id.asc()))
            .select((projects::id, projects::name, projects::changed_at))
            .load(&mut self.connect()?)?;
        Ok(rows.into_iter().map(|(id, name, at)| PutAway { id, name, at }).collect())
    }

    /// Throws a project in the drawer away for good, its history and lays with it.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when it is not in the drawer, or the database.
    pub fn throw_away(&self, id: &str) -> Result<(), StoreError> {
        let thrown = self
            .write(|c| Ok(diesel::delete(projects::table.find(id).filter(projects::deleted.eq(true))).execute(c)?))?;
        if thrown == 0 { Err(StoreError::NotFound(id.to_owned())) } else { Ok(()) }
    }

    fn set_deleted(&self, id: &str, deleted: bool) -> Result<(), StoreError> {
        let changed = self.write(|c| {
            let set = (projects::deleted.eq(deleted), projects::changed_at.eq(now()));
            Ok(diesel::update(projects::table.find(id)).set(set).execute(c)?)
        })?;
        if changed == 0 { Err(StoreError::NotFound(id.to_owned())) } else { Ok(()) }
    }
}

fn read(c: &mut SqliteConnection, id: &str) -> Result<StoredProject, StoreError> {
    let found: Option<(i64, i64)> = projects::table
        .find(id)
        .filter(projects::deleted.eq(false))
        .select((projects::revision, projects::position))
        .first(c)
        .optional()?;
    let (revision, position) = found.ok_or_else(|| StoreError::NotFound(id.to_owned()))?;
    let near: Vec<(i64, String, String, Option<i64>)> = states::table
        .filter(states::project_id.eq(id))
        .filter(states::position.between(position - 1, position + 1))
        .order(states::position.asc())
        .select((states::position, states::label, states::document, states::cut_plan))
        .load(c)?;
    let at = |p: i64| near.iter().find(|(position, ..)| *position == p);
    let (_, label, document, plan) = at(position).ok_or_else(|| StoreError::NotFound(id.to_owned()))?;
    let mut project = read_project(document).map_err(StoreError::unreadable(id))?;
    project.cutting = plan.map(|plan| cut_plan(c, id, plan)).transpose()?;
    if let Some(plan) = project.cutting.as_ref().filter(|plan| plan.is_relisted()) {
        project.steps_done = project.steps_done.min(plan.steps().len() as u32);
    }
    Ok(StoredProject {
        id: id.to_owned(),
        revision,
        project,
        undo: at(position - 1).map(|_| label.clone()),
        redo: at(position + 1).map(|(_, label, ..)| label.clone()),
    })
}

/// Where the history stands, if the project is still at `based_on`.
fn at_revision(c: &mut SqliteConnection, id: &str, based_on: i64) -> Result<i64, StoreError> {
    let there: Option<(i64, i64)> = projects::table
        .find(id)
        .filter(projects::deleted.eq(false))
        .select((projects::revision, projects::position))
        .first(c)
        .optional()?;
    match there {
        None => Err(StoreError::NotFound(id.to_owned())),
        Some((revision, position)) if revision == based_on => Ok(position),
        Some(_) => Err(StoreError::Conflict { based_on, now: Box::new(read(c, id)?) }),
    }
}

fn insert_state(
    c: &mut SqliteConnection,
    id: &str,
    position: i64,
    label: &str,
    document: &str,
    cut_plan: Option<i64>,
) -> Result<(), StoreError> {
    diesel::insert_into(states::table)
        .values((
            states::project_id.eq(id),
            states::position.eq(position),
            states::label.eq(label),
            states::document.eq(document),
            states::cut_plan.eq(cut_plan),
        ))
        .execute(c)?;
    Ok(())
}

fn move_to(c: &mut SqliteConnection, id: &str, position: i64) -> Result<StoredProject, StoreError> {
    diesel::update(projects::table.find(id))
        .set((
            projects::revision.eq(projects::revision + 1),
            projects::position.eq(position),
            projects::changed_at.eq(now()),
        ))
        .execute(c)?;
    let kept = read(c, id)?;
    diesel::update(projects::table.find(id)).set(projects::name.eq(&kept.project.name)).execute(c)?;
    Ok(kept)
}
