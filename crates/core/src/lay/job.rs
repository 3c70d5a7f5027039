//! The problem: pieces, cloths and rules.

use super::answer::{ClothLay, Lay, Placement};
use super::turns::allowed_turns;
use crate::FieldProblem;
use crate::cloth::{Cloth, Form, Money, check_scrap};
use crate::hashed::{HashMap, HashSet};
use crate::measure::{LONGEST, Length, System};
use crate::piece::{Grain, Mirror, PrintRule};
use crate::shape::{Outline, Point, SLIVER, Turn};
use serde::{Deserialize, Serialize};

/// The most pieces, copies counted, that one job may hold.
pub const MOST_PIECES: u64 = 10_000;
/// The most different pieces where outlines, scraps, folded cloth or pins ask for nesting: its tables grow with their
/// square.
pub const MOST_NESTED: usize = 400;
/// The most planners side by side.
pub const MOST_PLANNERS: u32 = 16;
/// The most pieces, copies counted, that have a place on a print.
pub const MOST_ON_PRINT: u32 = 400;
/// The most cloths of a job.
pub const MOST_CLOTHS: usize = 1_000;
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
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
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
    /// None of them is preferred: it lies where it takes least.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub any_cloth: bool,
    /// Where the middle of a motif falls on it, from its own lower left corner as it stands on the bag; on cloth without
    /// a repeat it lies anywhere.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub on_print: Option<Point>,
}

impl JobPiece {
    /// Whether its copies lie right side up (false), wrong side up (true), or either.
    pub const fn faces(&self) -> &'static [bool] {
        match self.mirror {
            Mirror::No => &[false],
            Mirror::Pairs | Mirror::Free => &[false, true],
        }
    }

    /// How many copies `placement` of this piece yields on `cloth`, that one and the following: two on folded cloth,
    /// unless it lies on the fold, or the placement says that its twin is spare, or it is the last copy, or its mirror
    /// image is of no use: its outline is another, or the print stands on its head in the layer below.
    pub fn yielded_by(&self, placement: &Placement, cloth: &Cloth) -> u32 {
        let twice = cloth.layers == 2
            && !placement.on_fold
            && !placement.single
            && placement.copy < self.count
            && (self.mirror != Mirror::No || self.outline.is_symmetric(Turn::NONE))
            && allowed_turns(self.grain, self.print, cloth).turns.contains(&placement.turn.opposite());
        if twice { 2 } else { 1 }
    }
}

/// The rules of the lay.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
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
    /// Searches side by side, each with a seed of its own, that go on from the best of all. The same number gives the
    /// same lay on any machine.
    #[serde(default = "two")]
    pub planners: u32,
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
            planners: two(),
            milliseconds: 5_000,
        }
    }
}

/// As many planners as a small machine has processors.
const fn two() -> u32 {
    2
}

/// A placement that stays where it is.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Pin {
    /// Id of the cloth.
    pub cloth: String,
    /// Which copy of the cloth, from 1.
    pub cloth_copy: u32,
    /// What lies there.
    pub placement: Placement,
}

/// A whole lay problem.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
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
    /// What lies already.
    pub pinned: Vec<Pin>,
}

impl Job {
    /// Works out anew what `lay` of this job costs, for a price that is another by now.
    pub fn reprice(&self, lay: &mut Lay) {
        let of = |c: &ClothLay, length: Length| self.cloth(&c.cloth).map_or(Money(0), |cloth| cloth.cost(length));
        lay.cost = lay.cloths.iter().map(|c| of(c, c.buy_length)).sum();
        // Where there is a choice of cloths or sheets, the lengths say nothing of the least cost.
        let told = lay.bound.length > Length::ZERO && lay.sheets.is_empty();
        lay.bound.cost = if told { lay.cloths.iter().map(|c| of(c, c.bound)).sum() } else { Money(0) };
    }

    /// Length to buy for `lay` of this job, over all cloths that are not owned.
    pub fn bought(&self, lay: &Lay) -> Length {
        let to_buy = |c: &&ClothLay| self.cloth(&c.cloth).is_some_and(|cloth| !cloth.owned);
        lay.cloths.iter().filter(to_buy).map(|c| c.buy_length).sum()
    }

    /// The cloth with `id`.
    pub fn cloth(&self, id: &str) -> Option<&Cloth> {
        self.cloths.iter().find(|c| c.id == id)
    }

    /// The piece with `id`.
    pub fn piece(&self, id: &str) -> Option<&JobPiece> {
        self.pieces.iter().find(|p| p.id == id)
    }

    /// All pieces by their ids, for whoever looks up many: one look is a walk through the list.
    pub fn pieces_by_id(&self) -> HashMap<&str, &JobPiece> {
        self.pieces.iter().map(|p| (p.id.as_str(), p)).collect()
    }

    /// Checks everything that can be said without searching.
    ///
    /// # Errors
    /// The first field that cannot stand: duplicate or unknown ids, counts or sizes of nothing or beyond reason, a
    /// cloth narrower than its selvedges.
    pub fn check(&self) -> Result<(), FieldProblem> {
        if self.cloths.len() > MOST_CLOTHS {
            let message = format!("{} cloths: one job holds at most {MOST_CLOTHS}", self.cloths.len());
            return Err(FieldProblem::new("cloths", self.cloths.len(), message));
        }
        let mut ids = HashSet::default();
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
        if !(1..=MOST_PLANNERS).contains(&self.rules.planners) {
            let n = self.rules.planners;
            let message = format!("{n}: from 1 to {MOST_PLANNERS} planners search side by side");
            return Err(FieldProblem::new("rules.planners", n, message));
        }
        if self.rules.gap < Length::ZERO || self.rules.gap > LONGEST {
            return Err(self.problem("rules.gap", self.rules.gap, "a size here is 0 or more and at most 20 m"));
        }
        if self.pieces.is_empty() {
            return Err(FieldProblem::new("pieces", "[]", "there is nothing to lay: at least one piece is needed"));
        }
        let mut ids = HashSet::default();
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
            let (width, height) = piece.outline.size();
            for size in [width, height] {
                if size <= Length::ZERO || size > LONGEST {
                    return Err(self.problem(&field("outline"), size, "a size here is more than 0 and at most 20 m"));
                }
            }
            if piece.outline.is_sliver() {
                return Err(FieldProblem::new(field("outline"), "", SLIVER));
            }
        }
        self.check_on_print()?;
        self.check_gap()?;
        if self.pieces.len() > MOST_NESTED && self.is_nested() {
            let message = format!(
                "{} different pieces: with outlines, scraps, folded cloth or pins at most {MOST_NESTED} are laid together",
                self.pieces.len()
            );
            return Err(FieldProblem::new("pieces", self.pieces.len(), message));
        }
        for (i, pin) in self.pinned.iter().enumerate() {
            self.check_pin(i, pin).map_err(|p| p.within(&format!("pinned[{i}]")))?;
        }
        Ok(())
    }

    /// Whether anything in it is more than rectangles on a rectangle.
    fn is_nested(&self) -> bool {
        let shaped = |p: &JobPiece| !matches!(p.outline, Outline::Rect(..)) || p.grain == Grain::Bias;
        let edged = |c: &Cloth| c.layers == 2 || matches!(c.form, Form::Scrap { .. });
        !self.pinned.is_empty() || self.pieces.iter().any(shaped) || self.cloths.iter().any(edged)
    }

    /// Whether `piece` has its place on the print of `cloth`.
    pub fn places(&self, piece: &JobPiece, cloth: &Cloth) -> bool {
        piece.on_print.is_some() && cloth.repeat.is_some_and(|r| !r.is_plain())
    }

    /// What has a place on a print lies straight, on single cloth, and there are not too many of it.
    fn check_on_print(&self) -> Result<(), FieldProblem> {
        let mut placed = 0;
        for (i, piece) in self.pieces.iter().enumerate() {
            let field = format!("pieces[{i}].on_print");
            let cloths = || piece.cloths.iter().filter_map(|id| self.cloth(id)).filter(|c| self.places(piece, c));
            if cloths().next().is_none() {
                continue;
            }
            let (width, height) = piece.outline.size();
            let on = |at: Length, size: Length| at >= Length::ZERO && at <= size;
            if !piece.on_print.is_some_and(|p| on(p.x, width) && on(p.y, height)) {
                let message = format!("{}: the middle of its motif would not be on it.", piece.name);
                return Err(FieldProblem::new(field, "", message));
            }
            placed += piece.count;
            if placed > MOST_ON_PRINT {
                let message =
                    format!("{placed} pieces have a place on a print: at most {MOST_ON_PRINT} are laid together.");
                return Err(FieldProblem::new(field, placed, message));
            }
            if piece.grain == Grain::Bias {
                let message = format!("{} lies on the bias: no motif stands upright on it.", piece.name);
                return Err(FieldProblem::new(field, "", message));
            }
            if let Some(folded) = cloths().find(|c| c.layers == 2) {
                let message = format!(
                    "{} has its place on the print, and {} lies folded: below the fold the print is not seen. Lay it single.",
                    piece.name, folded.name
                );
                return Err(FieldProblem::new(field, "", message));
            }
        }
        for (i, cloth) in self.cloths.iter().enumerate() {
            let Some(repeat) = cloth.repeat else { continue };
            let field = |name: &str| format!("cloths[{i}].repeat.{name}");
            for (name, size) in [("across", repeat.across), ("along", repeat.along)] {
                if let Some(size) = size.filter(|s| *s < Length::MILLIMETRE || *s > LONGEST) {
                    return Err(self.problem(&field(name), size, "a repeat is from 1 mm to 20 m"));
                }
            }
            let whole = repeat.along.map_or(Length(1), |along| along);
            if repeat.drop < Length::ZERO || repeat.drop >= whole {
                return Err(self.problem(&field("drop"), repeat.drop, "a drop is 0 or more and less than the repeat"));
            }
            for of in [repeat.at.x, repeat.at.y] {
                if of < -LONGEST || of > LONGEST {
                    return Err(self.problem(&field("at"), of, "a motif lies at most 20 m away"));
                }
            }
        }
        Ok(())
    }

    fn check_gap(&self) -> Result<(), FieldProblem> {
        let widest = self.cloths.iter().map(Cloth::usable_width).max().unwrap_or_default();
        if self.rules.gap > Length::ZERO && self.rules.gap > widest {
            let shown = |l: Length| format!("{} {}", l.in_units(self.units), self.units.symbol());
            let gap = shown(self.rules.gap);
            let message = format!("{gap}: is wider than the widest cloth ({} usable)", shown(widest));
            return Err(FieldProblem::new("rules.gap", &gap, message));
        }
        Ok(())
    }

    /// A pin names what there is, and does not contradict one before it. Whether it lies on the cloth and clear of
    /// the others is [`super::verify`]'s business, asked by `solve`.
    fn check_pin(&self, index: usize, pin: &Pin) -> Result<(), FieldProblem> {
        let p = &pin.placement;
        let Some(cloth) = self.cloth(&pin.cloth) else {
            let message = format!("there is no cloth “{}” in this job", pin.cloth);
            return Err(FieldProblem::new("cloth", &pin.cloth, message));
        };
        if !(1..=cloth.copies()).contains(&pin.cloth_copy) {
            let message = format!("{}: there are {} of “{}”", pin.cloth_copy, cloth.copies(), cloth.id);
            return Err(FieldProblem::new("cloth_copy", pin.cloth_copy, message));
        }
        let Some(piece) = self.piece(&p.piece) else {
            let message = format!("there is no piece “{}” in this job", p.piece);
            return Err(FieldProblem::new("piece", &p.piece, message));
        };
        if !(1..=piece.count).contains(&p.copy) {
            let message = format!("{}: “{}” has copies 1 to {}", p.copy, piece.id, piece.count);
            return Err(FieldProblem::new("copy", p.copy, message));
        }
        if p.on_fold && !(cloth.layers == 2 && piece.outline.is_symmetric(p.turn)) {
            let message = "only a symmetric piece on folded cloth (layers 2) lies on the fold";
            return Err(FieldProblem::new("on_fold", true, message));
        }
        let taken = |other: &Pin| {
            let q = &other.placement;
            let reach = |p: &Placement, c: &Cloth| p.copy..p.copy + piece.yielded_by(p, c);
            let theirs = self.cloth(&other.cloth).map_or(q.copy..q.copy + 1, |c| reach(q, c));
            let ours = reach(p, cloth);
            q.piece == p.piece && ours.start < theirs.end && theirs.start < ours.end
        };
        if let Some(other) = self.pinned[..index].iter().position(taken) {
            let message = format!("copy {} of “{}” is pinned already, by pinned[{other}]", p.copy, p.piece);
            return Err(FieldProblem::new("copy", p.copy, message));
        }
        Ok(())
    }

    fn check_cloth(&self, cloth: &Cloth) -> Result<(), FieldProblem> {
        if let Some(price) = cloth.price {
            if !(0..=DEAREST.0).contains(&price.amount.0) {
                let message = format!("{}: a price is from 0 to {}", price.amount.show(), DEAREST.show());
                return Err(FieldProblem::new("price.amount", price.amount.show(), message));
            }
            if price.per < Length::MILLIMETRE || price.per > LONGEST {
                return Err(self.problem("price.per", price.per, "a size here is from 1 mm to 20 m"));
            }
        }
        let sizes: &[(&str, Length)] = match &cloth.form {
            Form::Roll { width, length: Some(length), .. } => &[("width", *width), ("length", *length)],
            Form::Roll { width, max: Some(max), .. } => &[("width", *width), ("max", *max)],
            Form::Roll { width, .. } => &[("width", *width)],
            Form::Sheet { width, height, count } => {
                if *count == 0 {
                    return Err(FieldProblem::new("count", 0, "0 sheets: a count is 1 or more"));
                }
                &[("rect", *width), ("rect", *height)]
            }
            Form::Scrap { outline, flaws } => {
                check_scrap(outline, flaws)?;
                let (width, height) = outline.size();
                &[("polygon", width), ("polygon", height)]
            }
        };
        for (name, size) in sizes {
            if *size <= Length::ZERO || *size > LONGEST {
                return Err(self.problem(name, *size, "a size here is more than 0 and at most 20 m"));
            }
        }
        for (name, size) in [("selvedge", cloth.selvedge), ("trim", cloth.trim), ("min", cloth.shop.min)] {
            if size < Length::ZERO || size > LONGEST {
                return Err(self.problem(name, size, "a size here is 0 or more and at most 20 m"));
            }
        }
        if let Some(step) = cloth.shop.step.filter(|s| *s <= Length::ZERO) {
            return Err(self.problem("step", step, "a size here is more than 0"));
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
                "it is narrower than its two selvedges: nothing is left to cut from",
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

    /// The numbers of the copies of piece `index` that are not pinned.
    pub(super) fn free_copies(&self, index: usize) -> Vec<u32> {
        let piece = &self.pieces[index];
        let mut free: Vec<u32> = (1..=piece.count).collect();
        for pin in self.pinned.iter().filter(|p| p.placement.piece == piece.id) {
            let yields = self.cloth(&pin.cloth).map_or(1, |c| piece.yielded_by(&pin.placement, c));
            free.retain(|n| !(pin.placement.copy..pin.placement.copy + yields).contains(n));
        }
        free
    }

    /// How many pairs the free copies of piece `index` make on folded cloth: a pair is two numbers that follow each other,
    /// of a piece with mirrored copies an odd one and the next.
    pub(super) fn free_pairs(&self, index: usize) -> u32 {
        let odd_first = self.pieces[index].mirror == Mirror::Pairs;
        let (mut pairs, mut before) = (0, None);
        for n in self.free_copies(index) {
            match before.take() {
                Some(first) if n == first + 1 => pairs += 1,
                _ => before = Some(n).filter(|n| !(odd_first && n.is_multiple_of(2))),
            }
        }
        pairs
    }

    fn problem(&self, field: &str, size: Length, allowed: &str) -> FieldProblem {
        let shown = format!("{} {}", size.in_units(self.units), self.units.symbol());
        FieldProblem::new(field, &shown, format!("{shown}: {allowed}"))
    }
}

/// The dearest a length of cloth can be.
const DEAREST: Money = Money(1_000_000_000);
