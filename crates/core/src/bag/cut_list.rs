//! One's own cut list: rows as they were typed, pasted or read from a file, and what does not agree among them.

use super::Design;
use super::draft::{Draft, Finished, Good, GoodKind, Hardware, Notice, Severity, Stage};
use super::field::{Choice, Field, Group};
use super::problems::Problems;
use super::solid::Solid;
use super::strap::{Strap, StrapMake};
use crate::FieldProblem;
use crate::measure::{LONGEST, Length, Ruler, System, default_length};
use crate::name::{MOST_LETTERS, clean};
use crate::piece::{Dimension, Figure, Grain, Mirror, Part, Piece, PrintRule, Term};
use crate::shape::{Outline, Point, outset};
use serde::{Deserialize, Serialize};

/// More rows than this are not one bag.
pub const MOST_ROWS: usize = 400;
/// More copies of one row than this are a slip of the finger.
const MOST_COPIES: u32 = 400;
/// More sentences than this about one list are told when the first are put right.
const MOST_TOLD: usize = 40;

/// What a row's piece looks like within its width and height.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case", tag = "shape", deny_unknown_fields)]
pub enum RowShape {
    /// All of it.
    #[default]
    Rectangle,
    /// A circle; the width is its diameter.
    Circle,
    /// Straight at the top, round below.
    HalfRound,
    /// Lower corners rounded.
    Rounded {
        /// The radius.
        radius: Length,
    },
    /// Lower corners cut out.
    Notched {
        /// In from the side.
        across: Length,
        /// Up from the base.
        up: Length,
    },
    /// Narrower at the top.
    Tapered {
        /// By so much on each side.
        by: Length,
    },
    /// Corners, counter-clockwise from anywhere.
    Free {
        /// Across and up.
        corners: Vec<Point>,
    },
}

impl RowShape {
    /// Key and name of every shape, in the order they are offered.
    pub const CHOICES: [(&'static str, &'static str); 7] = [
        ("rectangle", "rectangle"),
        ("notched", "corners out"),
        ("rounded", "rounded"),
        ("tapered", "tapered"),
        ("circle", "circle"),
        ("half-round", "half-round"),
        ("free", "by its corners"),
    ];
}

/// One row of the list.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Row {
    /// What the maker calls it.
    pub name: String,
    /// The part it belongs to, which decides its cloth.
    pub part: Part,
    /// How many.
    pub count: u32,
    /// Across as it stands on the bag; nothing is *width of cloth*: right across.
    pub width: Option<Length>,
    /// Up as it stands on the bag.
    pub height: Length,
    /// What it looks like.
    #[serde(default)]
    pub shape: RowShape,
    /// Half of them are mirror images.
    #[serde(default)]
    pub pairs: bool,
    /// May lie any way.
    #[serde(default)]
    pub any_way: bool,
    /// Seam allowance still to be added all round; 0 where the sizes have it already.
    #[serde(default)]
    pub seam: Length,
    /// Of a strap, how it is folded; nothing until the maker says.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub fold: Option<StrapMake>,
}

impl Row {
    /// A rectangle.
    pub fn new(name: impl Into<String>, part: Part, count: u32, width: Length, height: Length) -> Self {
        Self {
            name: name.into(),
            part,
            count,
            width: Some(width),
            height,
            shape: RowShape::Rectangle,
            pairs: false,
            any_way: false,
            seam: Length::ZERO,
            fold: None,
        }
    }

    /// The row with its seams added to its sizes.
    fn as_cut(&self) -> Self {
        let both = self.seam * 2;
        let (width, height) = (self.width.map(|w| w + both), self.height + both);
        Self { width, height, seam: Length::ZERO, ..self.clone() }
    }

    /// How wide a strap is cut: the shorter side of its row.
    fn strap_width(&self) -> Length {
        self.width.map_or(self.height, |w| w.min(self.height))
    }

    /// What the strap of this row finishes wide by each fold there is, edges turned in by `turn`.
    pub fn folds(&self, turn: Length) -> Vec<(StrapMake, Length)> {
        if self.part != Part::Straps || self.shape != RowShape::Rectangle {
            return vec![];
        }
        let by = |make: &StrapMake| Some((*make, make.finished(self.strap_width() + self.seam * 2, turn)?));
        StrapMake::ALL.iter().filter(|m| **m != StrapMake::Webbing).filter_map(by).collect()
    }

    /// The corners of the outline as listed, no seam added.
    pub fn corners(&self, ruler: Ruler) -> Vec<Point> {
        Self { seam: Length::ZERO, ..self.clone() }.piece(0, Length::ZERO, ruler).outline().corners()
    }

    /// Every size of it by the name of its field.
    fn sizes(&self) -> impl Iterator<Item = (&'static str, Length)> {
        let mut all = vec![("height", self.height), ("seam", self.seam)];
        all.extend(self.width.map(|w| ("width", w)));
        match &self.shape {
            RowShape::Rounded { radius } => all.push(("radius", *radius)),
            RowShape::Notched { across, up } => all.extend([("across", *across), ("up", *up)]),
            RowShape::Tapered { by } => all.push(("by", *by)),
            RowShape::Free { corners } => all.extend(corners.iter().flat_map(|p| [("corners", p.x), ("corners", p.y)])),
            RowShape::Rectangle | RowShape::Circle | RowShape::HalfRound => {}
        }
        all.into_iter()
    }

    /// What cannot stand, its field named `rows[n].…`.
    fn problems(&self, at: usize, problems: &mut Problems) {
        let field = |name: &str| format!("rows[{at}].{name}");
        let row = format!("row {}, “{}”", at + 1, self.name);
        if self.name.chars().count() > MOST_LETTERS || clean(&self.name) != self.name {
            let message = format!(
                "The name of row {} has more than {MOST_LETTERS} letters, or signs that cannot be written.",
                at + 1
            );
            problems.refuse(&field("name"), Length::ZERO, message);
        }
        // Sizes beyond any cloth come first: what follows adds and halves them.
        if self.sizes().any(|(_, size)| size.0.unsigned_abs() > LONGEST.0.unsigned_abs()) {
            for (name, size) in self.sizes().filter(|(_, size)| size.0.unsigned_abs() > LONGEST.0.unsigned_abs()) {
                problems.refuse(&field(name), size, format!("The {name} of {row} is over 20 m: is the unit right?"));
            }
            return;
        }
        if let Some(width) = self.width {
            problems.size(&field("width"), &format!("width of {row}"), width);
        }
        problems.size(&field("height"), &format!("height of {row}"), self.height);
        if self.count == 0 || self.count > MOST_COPIES {
            let message = format!("{} copies in {row}: from 1 to {MOST_COPIES} are allowed.", self.count);
            problems.refuse(&field("count"), Length::ZERO, message);
        }
        if self.seam != Length::ZERO {
            let most = Length::INCH * 4;
            problems.between(&field("seam"), &format!("seam of {row}"), self.seam, Length::MILLIMETRE, most);
        }
        let width = self.width.unwrap_or(LONGEST);
        let mut between = |name: &str, value: Length, most: Length| {
            problems.between(&field(name), &format!("{name} of {row}"), value, Length::MILLIMETRE, most);
        };
        match &self.shape {
            RowShape::Rounded { radius } => between("radius", *radius, (width / 2).min(self.height)),
            RowShape::Notched { across, up } => {
                between("across", *across, width / 2 - Length::MILLIMETRE);
                between("up", *up, self.height - Length::MILLIMETRE);
            }
            RowShape::Tapered { by } => between("by", *by, width / 2 - Length::MILLIMETRE),
            RowShape::HalfRound if self.height < width / 2 => {
                problems.refuse(
                    &field("height"),
                    self.height,
                    format!("The half-round of {row} is at least half as tall as wide."),
                );
            }
            RowShape::Free { corners } => {
                if let Err(e) = Outline::polygon(corners.clone()) {
                    problems.refuse(
                        &field("corners"),
                        Length::ZERO,
                        format!("The outline of {row} does not hold: {e}."),
                    );
                }
            }
            _ => {}
        }
    }

    fn piece(&self, at: usize, turn: Length, ruler: Ruler) -> Piece {
        let given = |length: Length, field: &'static str| Dimension {
            size: length,
            terms: vec![Term::once("as listed", length, field)],
        };
        let width = match self.width {
            Some(width) => given(width, "rows"),
            None => {
                let nominal = default_length(ruler.system(), 40 * 8, 1060);
                let name = "right across; 40 in (106 cm) until its cloth is chosen";
                Dimension { size: nominal, terms: vec![Term::once(name, nominal, "rows")] }
            }
        };
        let round = |length: Length| Dimension { size: length, terms: vec![Term::once("as listed", length, "rows")] };
        let figure = match &self.shape {
            RowShape::Rectangle => Figure::Rectangle,
            RowShape::Circle => Figure::Circle,
            RowShape::HalfRound => Figure::HalfRound,
            RowShape::Rounded { radius } => Figure::Rounded(*radius),
            RowShape::Notched { across, up } => Figure::CutOut { across: round(*across), up: round(*up) },
            RowShape::Tapered { by } => Figure::Tapered(*by),
            RowShape::Free { corners } => match Outline::polygon(corners.clone()) {
                Ok(Outline::Polygon(points)) => {
                    let left = points.iter().map(|p| p.x).min().unwrap_or_default();
                    let low = points.iter().map(|p| p.y).min().unwrap_or_default();
                    Figure::Free(points.iter().map(|p| Point::new(p.x - left, p.y - low)).collect())
                }
                _ => Figure::Rectangle,
            },
        };
        let height = if self.shape == RowShape::Circle { width.clone() } else { given(self.height, "rows") };
        let (width, height, figure) = self.with_seam(width, height, figure);
        let piece = Piece::new(format!("row-{}", at + 1), self.name.clone(), self.part, width, height)
            .times(self.count)
            .shaped(figure);
        let folded = self.folds(turn).into_iter().find(|(make, _)| Some(*make) == self.fold);
        let piece = match folded {
            Some((make, finished)) => {
                let fold = Strap { make, width: finished, turn };
                let note =
                    format!("{}: {} wide when finished", make.answer().name.to_lowercase(), ruler.show(finished).text);
                // Listed along the cloth its long edges are not its sides.
                let upright = piece.height.size >= piece.width.size;
                piece.marked(if upright { fold.folds() } else { vec![] }).noted(note)
            }
            None => piece,
        };
        let free = self.any_way || self.part.is_backing() || self.part == Part::Straps;
        Piece {
            mirror: if self.pairs { Mirror::Pairs } else { Mirror::No },
            grain: if self.any_way || self.part.is_backing() {
                Grain::Any
            } else if self.part == Part::Straps {
                Grain::Either
            } else {
                Grain::Length
            },
            print: if free { PrintRule::Ignore } else { PrintRule::Upright },
            spans: self.width.is_none(),
            ..piece
        }
    }

    /// The piece with its seam allowance added all round. A rectangle and a circle stay what they are; of any other
    /// outline every edge moves outwards.
    fn with_seam(&self, width: Dimension, height: Dimension, figure: Figure) -> (Dimension, Dimension, Figure) {
        if self.seam == Length::ZERO {
            return (width, height, figure);
        }
        let added = |d: Dimension, size: Length| {
            let mut terms = d.terms;
            terms.push(Term::once("seams, added all round", size - d.size, "rows"));
            Dimension { size, terms }
        };
        let both = self.seam * 2;
        if matches!(figure, Figure::Rectangle | Figure::Circle) {
            let (across, up) = (width.size + both, height.size + both);
            // Right across the cloth there is no more of it.
            let width = if self.width.is_none() { width } else { added(width, across) };
            return (width, added(height, up), figure);
        }
        let listed = Piece::new("row", "row", self.part, width.clone(), height.clone()).shaped(figure.clone());
        let Some(corners) = outset(&listed.outline().corners(), self.seam) else { return (width, height, figure) };
        let far = |of: fn(&Point) -> Length| corners.iter().map(of).max().unwrap_or_default();
        let (across, up) = (far(|p| p.x), far(|p| p.y));
        (added(width, across), added(height, up), Figure::Free(corners))
    }
}

/// Something a list names that is bought, not cut: a length off a reel, or so many of a thing.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Bought {
    /// What the maker calls it.
    pub name: String,
    /// How many.
    pub count: u32,
    /// What it is cut off, if it is sold by the length.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kind: Option<GoodKind>,
    /// How long each length is; of a thing its size, if it has one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub size: Option<Length>,
    /// How wide what is sold by the length is, if that was said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub width: Option<Length>,
}

impl Bought {
    /// What cannot stand, its field named `bought[n].…`.
    fn problems(&self, at: usize, problems: &mut Problems) {
        let field = |name: &str| format!("bought[{at}].{name}");
        if self.count == 0 || self.count > MOST_COPIES {
            let message = format!("{} of {}: from 1 to {MOST_COPIES} are allowed.", self.count, self.name);
            problems.refuse(&field("count"), Length::ZERO, message);
        }
        if self.name.is_empty() || self.name.chars().count() > MOST_LETTERS || clean(&self.name) != self.name {
            let message = format!(
                "What is bought has no name, more than {MOST_LETTERS} letters, or signs that cannot be written."
            );
            problems.refuse(&field("name"), Length::ZERO, message);
        }
        for (name, size) in [("size", self.size), ("width", self.width)] {
            if let Some(size) = size {
                problems.size(&field(name), &format!("{name} of {}", self.name), size);
            }
        }
        if self.kind.is_some() && self.size.is_none() {
            problems.refuse(
                &field("size"),
                Length::ZERO,
                format!("{} is sold by the length: say how long.", self.name),
            );
        }
    }

    fn onto(&self, draft: &mut Draft) {
        match (self.kind, self.size) {
            (Some(kind), Some(long)) => draft.goods.push(Good {
                kind,
                name: self.name.clone().into(),
                count: self.count,
                length: Dimension { size: long, terms: vec![Term::once("as listed", long, "rows")] },
                width: self.width,
            }),
            (_, size) => draft.hardware.push(Hardware {
                name: self.name.clone().into(),
                count: self.count,
                size,
                note: "as listed".into(),
            }),
        }
    }
}

/// A list of rows, and the finished size it states, if it states one.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct CutList {
    /// The rows.
    pub rows: Vec<Row>,
    /// What is bought besides.
    pub bought: Vec<Bought>,
    /// Stated finished width; 0 when none is stated.
    pub width: Length,
    /// Stated finished height.
    pub height: Length,
    /// Stated finished depth.
    pub depth: Length,
    /// Stated seam allowance.
    pub seam_side: Length,
}

impl CutList {
    /// Every length times `percent`/100, brought to `ruler`; what rounding changed, as sentences.
    pub(super) fn scale(&mut self, percent: u32, ruler: Ruler) -> Vec<String> {
        let mut rounded = Vec::new();
        let mut scale = |name: &str, length: &mut Length| {
            let exact = Length(length.0 * i64::from(percent) / 100);
            let shown = exact.round_to(ruler.step()).max(ruler.step());
            if shown != exact {
                rounded.push(format!("{name}: {} brought to {}", ruler.show(exact).text, ruler.show(shown).text));
            }
            *length = shown;
        };
        // Lengths of webbing or cord go with the bag; its width, rings and zips are bought as they are.
        for bought in self.bought.iter_mut().filter(|b| b.kind.is_some()) {
            if let Some(long) = &mut bought.size {
                scale(&bought.name, long);
            }
        }
        for row in &mut self.rows {
            if let Some(width) = &mut row.width {
                scale(&format!("{}, width", row.name), width);
            }
            scale(&format!("{}, height", row.name), &mut row.height);
            match &mut row.shape {
                RowShape::Rounded { radius } => scale(&format!("{}, radius", row.name), radius),
                RowShape::Notched { across, up } => {
                    scale(&format!("{}, notch", row.name), across);
                    scale(&format!("{}, notch", row.name), up);
                }
                RowShape::Tapered { by } => scale(&format!("{}, taper", row.name), by),
                RowShape::Free { corners } => {
                    let scaled = |l: Length| Length(l.0 * i64::from(percent) / 100);
                    for p in corners {
                        *p = Point::new(scaled(p.x), scaled(p.y));
                    }
                }
                RowShape::Rectangle | RowShape::Circle | RowShape::HalfRound => {}
            }
        }
        rounded
    }

    /// What does not agree, each as a sentence (a printed list contradicts itself often).
    pub fn audit(&self, ruler: Ruler) -> Vec<Notice> {
        let mut told = Told { ruler, found: vec![], more: 0 };
        // What is cut, seams that are still to be added included.
        let cut: Vec<Row> = self.rows.iter().map(Row::as_cut).collect();
        let stems: Vec<String> = cut.iter().map(|r| stem(&r.name)).collect();
        compare(&cut, &stems, &mut told);
        lie_behind(&cut, &stems, &mut told);
        self.ask_for_folds(&mut told);
        self.compare_with_finished(&cut, &mut told);
        let wide = self
            .rows
            .iter()
            .filter(|r| !r.any_way)
            .filter_map(|r| Some((r, r.width?.min(r.height))))
            .max_by_key(|(_, l)| *l);
        if let Some((row, least)) = wide
            && least > default_length(ruler.system(), 42 * 8, 1060)
        {
            told.say(format!("{} fits only cloth at least {} wide between the selvedges.", row.name, told.show(least)));
        }
        told.end()
    }

    /// Straps whose row does not say how they are folded.
    fn ask_for_folds(&self, told: &mut Told) {
        for row in self.rows.iter().filter(|r| r.fold.is_none()) {
            let folds: Vec<String> = row
                .folds(self.seam_side)
                .iter()
                .map(|(make, finished)| {
                    format!("{} {}", make.answer().name.to_lowercase(), told.ruler.show(*finished).text)
                })
                .collect();
            if let [first, .., _] = &folds[..] {
                told.say(format!(
                    "{} is cut {} wide, which does not say how wide it finishes: {first}, {}. Say how it is folded.",
                    row.name,
                    told.show(row.strap_width()),
                    folds[1..].join(", ")
                ));
            }
        }
    }

    /// The outer against the finished size that the list states.
    fn compare_with_finished(&self, cut: &[Row], told: &mut Told) {
        let Some(panel) = cut.iter().find(|r| r.part == Part::Outer) else { return };
        let Some(width) = panel.width.filter(|_| self.width > Length::ZERO) else { return };
        let seams = width - self.width - self.depth;
        let (least, most) = (Length::MILLIMETRE * 6, Length::INCH * 2);
        if seams < least || seams > most {
            let deep =
                if self.depth > Length::ZERO { format!(" and {} deep", told.show(self.depth)) } else { String::new() };
            told.say(format!(
                "The list says {} wide{deep} when finished; {} cut {} wide leaves {} for both side seams.",
                told.show(self.width),
                panel.name,
                told.show(width),
                told.show(seams)
            ));
        }
        let gives = panel.height - self.depth / 2;
        if self.height > Length::ZERO && gives < self.height {
            told.say(format!(
                "The list says {} tall when finished; {} cut {} tall gives at most {} even without seams.",
                told.show(self.height),
                panel.name,
                told.show(panel.height),
                told.show(gives)
            ));
        }
    }
}

/// What was found, as sentences. Every pair of four hundred rows can disagree: so many are told, of the others how many
/// there are.
struct Told {
    ruler: Ruler,
    found: Vec<Notice>,
    more: usize,
}

impl Told {
    fn show(&self, length: Length) -> String {
        Problems::new(self.ruler).show(length)
    }

    fn size(&self, row: &Row) -> String {
        let width = row.width.map_or_else(|| "width of cloth".to_owned(), |w| self.ruler.show(w).text);
        format!("{width} × {}", self.show(row.height))
    }

    fn say(&mut self, text: String) {
        if self.found.len() < MOST_TOLD {
            self.found.push(Notice { stage: Stage::Pieces, field: None, severity: Severity::Attention, text });
        } else {
            self.more += 1;
        }
    }

    fn end(mut self) -> Vec<Notice> {
        if self.more > 0 {
            let text =
                format!("{} more things in this list do not agree; put the first right, and they show.", self.more);
            self.found.push(Notice { stage: Stage::Pieces, field: None, severity: Severity::Attention, text });
        }
        self.found
    }
}

/// Whether one is cut in one piece over the base and the other in two halves: half as many, twice as tall less seams and
/// boxing.
fn is_folded(a: &Row, b: &Row) -> bool {
    let (whole, half) = if a.count < b.count { (a, b) } else { (b, a) };
    let room = Length::INCH * 6;
    whole.width == half.width
        && whole.count.checked_mul(2) == Some(half.count)
        && (half.height * 2 - whole.height).0.abs() <= room.0
}

/// A lining is cut smaller by up to so much, so that it lies smooth: common practice.
const SNUG: Length = Length(Length::INCH.0 / 2);

fn is_seen(row: &Row) -> bool {
    matches!(row.part, Part::Outer | Part::Lining | Part::Contrast)
}

/// Rows that are sewn to each other: of one name in two parts, or each the other's size with width and height swapped.
fn compare(cut: &[Row], stems: &[String], told: &mut Told) {
    for (i, a) in cut.iter().enumerate() {
        for (j, b) in cut.iter().enumerate().skip(i + 1) {
            if a.part == b.part {
                continue;
            }
            let meeting = is_seen(a) && is_seen(b);
            let backing = a.part.is_backing() || b.part.is_backing();
            let swapped = a.width == Some(b.height) && b.width == Some(a.height) && a.height != b.height;
            if stems[i] != stems[j] {
                // Of other names only where neither part has a piece of the size that is wanted.
                let wanted = |of: &Row, part: Part| {
                    cut.iter().any(|r| r.part == part && r.width == of.width && r.height == of.height)
                };
                if swapped && meeting && a.count == b.count && !wanted(a, b.part) && !wanted(b, a.part) {
                    told.say(swap(a, b, told));
                }
                continue;
            }
            if (meeting || backing) && is_folded(a, b) {
                continue;
            }
            if swapped && (meeting || backing) {
                told.say(swap(a, b, told));
            } else if meeting && a.width == b.width && a.height != b.height {
                let (taller, shorter) = if a.height > b.height { (a, b) } else { (b, a) };
                if taller.part == Part::Lining {
                    told.say(format!(
                        "{} is {} taller than {}: it bags, or shows as a band of {} at the mouth.",
                        taller.name,
                        told.show(taller.height - shorter.height),
                        shorter.name,
                        told.show((taller.height - shorter.height) / 2)
                    ));
                } else if taller.height - shorter.height > SNUG {
                    told.say(format!(
                        "{} and {} are equally wide, but {} is {} taller. Check both heights, unless a facing, a band or a hem makes up for it.",
                        a.name,
                        b.name,
                        taller.name,
                        told.show(taller.height - shorter.height)
                    ));
                }
            } else if meeting && a.width != b.width {
                told.say(format!("{} and {} do not meet: {} against {}.", a.name, b.name, told.size(a), told.size(b)));
            }
            if (meeting || backing) && a.count != b.count {
                told.say(format!("{} is cut {} times, {} {} times: counts differ.", a.name, a.count, b.name, b.count));
            }
        }
    }
}

fn swap(a: &Row, b: &Row, told: &Told) -> String {
    format!(
        "{} is {} and {} is {}: width and height look swapped in one of them.",
        a.name,
        told.size(a),
        b.name,
        told.size(b)
    )
}

/// Backing that lies behind nothing is a part that is never used, or the list lacks a piece.
fn lie_behind(cut: &[Row], stems: &[String], told: &mut Told) {
    for (i, backing) in cut.iter().enumerate().filter(|(_, r)| r.part.is_backing()) {
        let behind = |j: usize, r: &Row| {
            let room = Length::INCH * 4;
            let near = |a: Length, b: Length| (a - b).0.abs() <= room.0;
            // Behind the whole of it, or behind each half of a panel that is folded at the base.
            let tall = near(backing.height, r.height) || near(backing.height, r.height / 2);
            let sizes = backing.width.zip(r.width).is_none_or(|(a, b)| near(a, b) && tall);
            !r.part.is_backing() && (stems[j] == stems[i] && !stems[j].is_empty() || sizes)
        };
        if cut.len() > 1 && !cut.iter().enumerate().any(|(j, r)| i != j && behind(j, r)) {
            told.say(format!("{} lies behind nothing in the list: no piece has its name or its size.", backing.name));
        }
    }
}

/// A name without the words for its part: `Outer panel` and `Lining panel` are both panels.
fn stem(name: &str) -> String {
    const PARTS: [&str; 14] = [
        "outer",
        "main",
        "exterior",
        "outside",
        "lining",
        "interfacing",
        "fleece",
        "batting",
        "wadding",
        "fabric",
        "cloth",
        "contrast",
        "inner",
        "inside",
    ];
    let lower = name.to_lowercase();
    let words: Vec<&str> = lower
        .split(|c: char| !c.is_alphanumeric())
        .filter(|w| !w.is_empty() && !PARTS.contains(w))
        .map(|w| w.strip_suffix('s').unwrap_or(w))
        .collect();
    words.join(" ")
}

impl Design for CutList {
    fn default_for(system: System) -> Self {
        let zero = Length::ZERO;
        Self {
            rows: vec![],
            bought: vec![],
            width: zero,
            height: zero,
            depth: zero,
            seam_side: default_length(system, 2, 10),
        }
    }

    fn fields(&mut self) -> Vec<Field<'_>> {
        vec![
            Field::size("width", "Stated finished width; 0 for none", Group::Size, &mut self.width).scaling(),
            Field::size("height", "Stated finished height", Group::Size, &mut self.height).scaling(),
            Field::size("depth", "Stated finished depth", Group::Size, &mut self.depth).scaling(),
            Field::seam("seam_side", "Stated seam allowance", &mut self.seam_side),
        ]
    }

    fn draft(&self, ruler: Ruler) -> Result<Draft, Vec<FieldProblem>> {
        let mut problems = Problems::new(ruler);
        if self.rows.len() > MOST_ROWS {
            problems.refuse(
                "rows",
                Length::ZERO,
                format!("{} rows: at most {MOST_ROWS} are allowed.", self.rows.len()),
            );
        } else {
            for (i, row) in self.rows.iter().enumerate() {
                row.problems(i, &mut problems);
            }
        }
        if self.bought.len() > MOST_ROWS {
            let message = format!("{} things to buy: at most {MOST_ROWS} are allowed.", self.bought.len());
            problems.refuse("bought", Length::ZERO, message);
        } else {
            self.bought.iter().enumerate().for_each(|(i, b)| b.problems(i, &mut problems));
        }
        problems.end()?;
        let pieces = self.rows.iter().enumerate().map(|(i, row)| row.piece(i, self.seam_side, ruler)).collect();
        let mut draft = Draft { pieces, notices: self.audit(ruler), ..Draft::default() };
        self.bought.iter().for_each(|bought| bought.onto(&mut draft));
        Ok(draft)
    }

    /// A list says what it says; what it states against its pieces is in the audit.
    fn finished_from_cut(&self, _: &Draft) -> Vec<Finished> {
        vec![]
    }

    /// What a row is sewn to nobody said.
    fn seams(&self, _: Ruler) -> Vec<super::sewn::Seam> {
        vec![]
    }

    fn solid(&self, _: &Draft) -> Solid {
        Solid::default()
    }
}
