//! The problem: pieces, cloths and rules.

use crate::FieldProblem;
use crate::cloth::{Cloth, Form};
use crate::measure::{LONGEST, Length, System};
use crate::piece::{Grain, Mirror, PrintRule};
use crate::shape::Outline;
use serde::{Deserialize, Serialize};
use std::collections::HashSet;

/// The most pieces, copies counted, that one job may hold.
pub const MOST_PIECES: u64 = 10_000;

/// What is worth most in a lay.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Aim {
    /// Cost, then length bought, then big offcuts, then few cuts.
    #[default]
    BuyLeast,
    /// Few cuts.
    FewCuts,
    /// The largest whole rectangle left.
    KeepBig,
    /// Scraps first.
    ScrapsFirst,
    /// Scraps are kept for patchwork.
    FreshCloth,
}

/// How cuts may run.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Cuts {
    /// Anywhere.
    #[default]
    Free,
    /// Every cut runs edge to edge of what is left, as with ruler and rotary cutter.
    Through,
}

/// One kind of piece and how it may lie.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct JobPiece {
    /// Unique key.
    pub id: String,
    /// The label.
    pub name: String,
    /// How many.
    pub count: u32,
    /// As it stands on the bag.
    pub outline: Outline,
    /// Grain rule.
    pub grain: Grain,
    /// Print rule.
    pub print: PrintRule,
    /// Flipped copies.
    pub mirror: Mirror,
    /// Ids of the cloths it may come from, the first preferred.
    pub cloths: Vec<String>,
}

/// The rules of the lay.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Rules {
    /// Least distance between two pieces.
    pub gap: Length,
    /// How cuts may run.
    pub cuts: Cuts,
    /// Width and height of the smallest offcut worth keeping, either way round.
    pub keep: (Length, Length),
    /// What is worth most.
    pub aim: Aim,
    /// Seed of the search.
    pub seed: u64,
    /// How long the caller should let it run, in thousandths of a second.
    pub milliseconds: u64,
}

impl Default for Rules {
    fn default() -> Self {
        Self {
            gap: Length::ZERO,
            cuts: Cuts::Free,
            keep: (Length::INCH * 5, Length::INCH * 5),
            aim: Aim::BuyLeast,
            seed: 1,
            milliseconds: 5_000,
        }
    }
}

/// A whole lay problem.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Job {
    /// What it is called.
    pub name: String,
    /// The system its maker measures in; all lengths here are exact whatever it is.
    pub units: System,
    /// What to cut.
    pub pieces: Vec<JobPiece>,
    /// What to cut it from.
    pub cloths: Vec<Cloth>,
    /// How.
    pub rules: Rules,
}

impl Job {
    /// The cloth with `id`.
    pub fn cloth(&self, id: &str) -> Option<&Cloth> {
        self.cloths.iter().find(|c| c.id == id)
    }

    /// The piece with `id`.
    pub fn piece(&self, id: &str) -> Option<&JobPiece> {
        self.pieces.iter().find(|p| p.id == id)
    }

    /// Checks everything that can be said without searching.
    ///
    /// # Errors
    /// The first field that cannot stand: duplicate or unknown ids, counts or sizes of nothing or beyond reason, a
    /// cloth narrower than its selvedges.
    pub fn check(&self) -> Result<(), FieldProblem> {
        let mut ids = HashSet::new();
        for (i, cloth) in self.cloths.iter().enumerate() {
            let field = |name: &str| format!("cloths[{i}].{name}");
            if !ids.insert(cloth.id.as_str()) {
                return Err(FieldProblem::new(
                    field("id"),
                    &cloth.id,
                    format!("“{}” is the id of another cloth too: ids are unique", cloth.id),
                ));
            }
            self.check_cloth(cloth).map_err(|p| p.within(&format!("cloths[{i}]")))?;
        }
        if self.rules.gap < Length::ZERO || self.rules.gap > LONGEST {
            return Err(self.problem("rules.gap", self.rules.gap, "is 0 or more and at most 20 m"));
        }
        if self.pieces.is_empty() {
            return Err(FieldProblem::new("pieces", "[]", "there is nothing to lay: at least one piece is needed"));
        }
        let mut ids = HashSet::new();
        let mut total = 0_u64;
        for (i, piece) in self.pieces.iter().enumerate() {
            let field = |name: &str| format!("pieces[{i}].{name}");
            if !ids.insert(piece.id.as_str()) {
                return Err(FieldProblem::new(
                    field("id"),
                    &piece.id,
                    format!("“{}” is the id of another piece too: ids are unique", piece.id),
                ));
            }
            if piece.count == 0 {
                return Err(FieldProblem::new(field("count"), 0, "0 copies: a count is 1 or more"));
            }
            total += u64::from(piece.count);
            if total > MOST_PIECES {
                return Err(FieldProblem::new(
                    field("count"),
                    piece.count,
                    format!("that makes {total} pieces: one job holds at most {MOST_PIECES}"),
                ));
            }
            if piece.cloths.is_empty() {
                return Err(FieldProblem::new(
                    field("cloths"),
                    "[]",
                    "name at least one cloth the piece may come from",
                ));
            }
            if let Some(unknown) = piece.cloths.iter().find(|id| self.cloth(id).is_none()) {
                return Err(FieldProblem::new(
                    field("cloths"),
                    unknown,
                    format!("there is no cloth “{unknown}” in this job"),
                ));
            }
            let (width, height) = piece.outline.extent(crate::shape::Turn::NONE);
            for size in [width, height] {
                if size <= Length::ZERO || size > LONGEST {
                    return Err(self.problem(&field("outline"), size, "is more than 0 and at most 20 m"));
                }
            }
        }
        Ok(())
    }

    fn check_cloth(&self, cloth: &Cloth) -> Result<(), FieldProblem> {
        let sizes: &[(&str, Length)] = match &cloth.form {
            Form::Roll { width, .. } => &[("width", *width)],
            Form::Sheet { width, height, .. } => &[("rect", *width), ("rect", *height)],
            Form::Scrap { .. } => &[],
        };
        for (name, size) in sizes {
            if *size <= Length::ZERO || *size > LONGEST {
                return Err(self.problem(name, *size, "is more than 0 and at most 20 m"));
            }
        }
        for (name, size) in [("selvedge", cloth.selvedge), ("trim", cloth.trim), ("min", cloth.shop.min)] {
            if size < Length::ZERO || size > LONGEST {
                return Err(self.problem(name, size, "is 0 or more and at most 20 m"));
            }
        }
        if let Some(step) = cloth.shop.step.filter(|s| *s <= Length::ZERO) {
            return Err(self.problem("step", step, "is more than 0"));
        }
        for (name, ppm) in [("shrink.along", cloth.shrink.along), ("shrink.across", cloth.shrink.across)] {
            if ppm > 500_000 {
                return Err(FieldProblem::new(
                    name,
                    f64::from(ppm) / 1e6,
                    "cloth that shrinks by more than half (0.5) is not planned for",
                ));
            }
        }
        if cloth.usable_width() <= Length::ZERO {
            return Err(self.problem(
                "width",
                cloth.washed_width(),
                "is narrower than its two selvedges: nothing is left to cut from",
            ));
        }
        if cloth.usable_length().is_some_and(|length| length <= Length::ZERO) {
            return Err(FieldProblem::new(
                "length",
                "",
                "the cloth is shorter than what squaring its two ends takes: nothing is left to cut from",
            ));
        }
        if !(1..=2).contains(&cloth.layers) {
            return Err(FieldProblem::new("layers", cloth.layers, "a cloth lies single (1) or folded (2)"));
        }
        Ok(())
    }

    fn problem(&self, field: &str, size: Length, allowed: &str) -> FieldProblem {
        let shown = format!("{} {}", size.in_units(self.units), self.units.symbol());
        FieldProblem::new(
            field,
            &shown,
            format!("{shown}: a size here {allowed}").replace("a size here is narrower", "it is narrower"),
        )
    }
}
