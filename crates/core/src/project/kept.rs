//! Projects, cloths, notions and plans that are being cut, as they are kept: each document says what it is and in which version, and older versions are
//! brought up to the present one, step by step, when they are read.
//!
//! To change what is kept: raise the version, add the step from the one before, and keep a sample of the old one in
//! `tests/kept/`.

use super::cupboard::with_ledger;
use super::{CutPlan, Project, ProjectCloth};
use crate::cloth::OwnCut;
use crate::ledger::Entries;
use crate::notions::{Entry, Ledger, Notion};
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use thiserror::Error;

/// Why a kept document cannot be read.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum KeptError {
    /// Kept by a later version of the program.
    #[error("it was kept by a newer Bofta: version {found} of its format, of which this one reads up to {newest}")]
    Newer {
        /// Its version.
        found: u32,
        /// The newest that can be read.
        newest: u32,
    },
    /// Not what it should be.
    #[error("its text is damaged: {0}")]
    Damaged(String),
}

/// One step from a version to the next.
type Step = fn(Value) -> Result<Value, KeptError>;

/// What is kept under a format's name.
struct Format {
    name: &'static str,
    /// From version 0, which had no envelope, to 1, and so on.
    steps: &'static [Step],
}

const PROJECT: Format = Format { name: "bofta-project", steps: &[Ok] };
const CLOTH: Format = Format { name: "bofta-cloth", steps: &[Ok, with_ledgers] };
const OWN_CUT: Format = Format { name: "bofta-pre-cut", steps: &[Ok] };
const NOTION: Format = Format { name: "bofta-notion", steps: &[Ok] };
const NOTION_ENTRY: Format = Format { name: "bofta-notion-entry", steps: &[Ok] };
const CUT_PLAN: Format = Format { name: "bofta-cut-plan", steps: &[Ok, relisted] };

/// Version 2 lists the cuts part by part: what was ticked off before has to be checked.
fn relisted(mut plan: Value) -> Result<Value, KeptError> {
    if let Some(plan) = plan.as_object_mut() {
        plan.insert("relisted".into(), Value::Bool(true));
    }
    Ok(plan)
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct Envelope<T> {
    format: String,
    version: u32,
    document: T,
}

/// What an envelope says of itself; the document is passed over.
#[derive(Deserialize)]
struct Head {
    format: Option<String>,
    version: Option<u32>,
}

impl Format {
    fn newest(&self) -> u32 {
        self.steps.len() as u32
    }

    fn write(&self, document: &impl Serialize) -> Result<String, KeptError> {
        let damaged = |e: serde_json::Error| KeptError::Damaged(e.to_string());
        let document = serde_json::to_value(document).map_err(damaged)?;
        let envelope = Envelope { format: self.name.to_owned(), version: self.newest(), document };
        serde_json::to_string(&envelope).map_err(damaged)
    }

    fn read<T: DeserializeOwned>(&self, text: &str) -> Result<T, KeptError> {
        let damaged = |e: serde_json::Error| KeptError::Damaged(e.to_string());
        // In the present form, as nearly all is, it is read at once; anything else is taken apart first.
        let head = serde_json::from_str::<Head>(text).ok();
        if head.is_some_and(|h| h.format.as_deref() == Some(self.name) && h.version == Some(self.newest())) {
            return serde_json::from_str::<Envelope<T>>(text).map(|e| e.document).map_err(damaged);
        }
        let value: Value = serde_json::from_str(text).map_err(damaged)?;
        let (version, mut document) = if value.get("format").is_some() {
            let envelope: Envelope<Value> = serde_json::from_value(value).map_err(damaged)?;
            if envelope.format != self.name {
                return Err(KeptError::Damaged(format!("it is a {}, not a {}", envelope.format, self.name)));
            }
            (envelope.version, envelope.document)
        } else {
            (0, value)
        };
        let Some(steps) = self.steps.get(version as usize..) else {
            return Err(KeptError::Newer { found: version, newest: self.newest() });
        };
        for step in steps {
            document = step(document)?;
        }
        serde_json::from_value(document).map_err(damaged)
    }
}

/// The text a project is kept as.
///
/// # Errors
/// A document that has no JSON form, which is a fault of this program.
pub fn write_project(project: &Project) -> Result<String, KeptError> {
    PROJECT.write(project)
}

/// The project kept as `text`, of this version or an older one.
///
/// # Errors
/// [`KeptError`].
pub fn read_project(text: &str) -> Result<Project, KeptError> {
    PROJECT.read(text)
}

/// The text a pre-cut of one's own is kept as.
///
/// # Errors
/// As [`write_project`].
pub fn write_own_cut(cut: &OwnCut) -> Result<String, KeptError> {
    OWN_CUT.write(cut)
}

/// The pre-cut kept as `text`.
///
/// # Errors
/// [`KeptError`].
pub fn read_own_cut(text: &str) -> Result<OwnCut, KeptError> {
    OWN_CUT.read(text)
}

/// The texts a notion and an entry of its ledger are kept as.
///
/// # Errors
/// As [`write_project`].
pub fn write_notion(notion: &Notion) -> Result<String, KeptError> {
    NOTION.write(notion)
}

/// The text of an entry.
///
/// # Errors
/// As [`write_project`].
pub fn write_entry(entry: &Entry) -> Result<String, KeptError> {
    NOTION_ENTRY.write(entry)
}

/// The ledger kept as the text of its notion and those of its entries, in their order.
///
/// # Errors
/// [`KeptError`]; entries that take more than there was are damaged.
pub fn read_ledger(notion: &str, entries: &[String]) -> Result<Ledger, KeptError> {
    let entries = entries.iter().map(|e| NOTION_ENTRY.read(e)).collect::<Result<_, _>>()?;
    let ledger = Ledger { notion: NOTION.read(notion)?, entries: Entries::of(entries) };
    if ledger.entries.add_up() { Ok(ledger) } else { Err(KeptError::Damaged("its entries do not add up".to_owned())) }
}

/// The text the plan that is being cut is kept as.
///
/// # Errors
/// As [`write_project`].
pub fn write_cut_plan(plan: &CutPlan) -> Result<String, KeptError> {
    CUT_PLAN.write(plan)
}

/// The plan kept as `text`, of this version or an older one.
///
/// # Errors
/// [`KeptError`].
pub fn read_cut_plan(text: &str) -> Result<CutPlan, KeptError> {
    CUT_PLAN.read(text)
}

/// The text a cloth of the cupboard is kept as.
///
/// # Errors
/// As [`write_project`], and where its entries do not come to what is there.
pub fn write_cloth(cloth: &ProjectCloth) -> Result<String, KeptError> {
    if cloth.adds_up() { CLOTH.write(cloth) } else { Err(KeptError::Damaged("its entries do not add up".to_owned())) }
}

/// The cloth kept as `text`, of this version or an older one.
///
/// # Errors
/// [`KeptError`]; entries that do not come to what is there are damaged.
pub fn read_cloth(text: &str) -> Result<ProjectCloth, KeptError> {
    let cloth: ProjectCloth = CLOTH.read(text)?;
    if cloth.adds_up() { Ok(cloth) } else { Err(KeptError::Damaged("its entries do not add up".to_owned())) }
}

/// From version 1 to 2: a ledger in the place of what bags took and left.
fn with_ledgers(document: Value) -> Result<Value, KeptError> {
    with_ledger(document).map_err(|e| KeptError::Damaged(e.to_string()))
}
