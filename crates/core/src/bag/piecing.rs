//! Panels pieced from patches: what each patch is cut so that the panel comes out at its size. Common practice; each
//! formula is derived where it stands.

use super::draft::Notice;
use super::field::{Field, Group, choice};
use super::parts::ClothOf;
use crate::FieldProblem;
use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, Grain, Part, Patches, Piece, PrintRule, Term, When};

choice! {
    /// How the front panel is made up.
    Piecing {
        /// In one piece.
        Whole = "whole", "In one piece", "";
        /// A grid of rectangles.
        Grid = "grid", "Squares", "a grid of patches in two cloths by turns";
        /// Upright strips.
        Strips = "strips", "Strips", "upright, in two cloths by turns";
        /// Half-square triangles, made two at a time.
        Triangles = "triangles", "Half-square triangles", "two at a time from squares of two cloths";
        /// Scraps round a centre, trimmed.
        Crazy = "crazy", "Crazy", "scraps sewn round a centre until it covers, then trimmed";
    }
}

/// How many times as much cloth as the panel crazy piecing takes: 30 to 40 % more by area.
const CRAZY: (i64, i64) = (27, 20);

/// A panel in patches.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Patchwork {
    /// How.
    pub piecing: Piecing,
    /// Patches across.
    pub columns: u32,
    /// Patches up.
    pub rows: u32,
    /// Seam between patches.
    pub seam: Length,
    /// Whose cloths they are: one for each patch, row by row from the upper left; or fewer than that, by turns, each row
    /// beginning one further on. None: the contrast and the panel's own by turns.
    pub cloths: Vec<ClothOf>,
    /// Half-square triangles: how much larger their squares are cut, to be trimmed once they are sewn.
    pub over: Length,
}

/// The size n patches of cut size `patch` come to with seams between them: n·q − 2p(n − 1).
pub fn joined(n: u32, patch: Length, seam: Length) -> Length {
    patch * i64::from(n) - seam * (2 * (i64::from(n) - 1))
}

/// What squares are cut for half-square triangles two at a time that finish `finished`: the unit before it is sewn in
/// is finished + 2p; its diagonal seam takes 2p across the diagonal, √2·p along each side. Together finished + (2 + √2)p,
/// rounded up to the unit: + 7/8 in at ¼ in.
pub fn square_for_triangles(finished: Length, seam: Length) -> Length {
    finished + seam * 2 + Length((seam.0 as f64 * std::f64::consts::SQRT_2).ceil() as i64)
}

impl Patchwork {
    /// Its fields, under the keys `front`, `columns`, `rows` and `patch_seam`.
    pub(super) fn fields(&mut self, label: &'static str) -> Vec<Field<'_>> {
        let piecing = self.piecing;
        vec![
            Field::choice("front", label, Group::Front, &mut self.piecing),
            Field::count("columns", "Patches across", Group::Front, &mut self.columns, 1..=20)
                .only_if(!matches!(piecing, Piecing::Whole | Piecing::Crazy)),
            Field::count("rows", "Patches up", Group::Front, &mut self.rows, 1..=20)
                .only_if(matches!(piecing, Piecing::Grid | Piecing::Triangles)),
            Field::size("patch_seam", "Seam between patches", Group::Front, &mut self.seam)
                .only_if(piecing != Piecing::Whole),
            Field::cloths("patch_cloths", "Their cloths", Group::Front, &mut self.cloths)
                .only_if(!matches!(piecing, Piecing::Whole | Piecing::Crazy)),
            Field::size("patch_over", "Squares cut over, to trim the triangles", Group::Front, &mut self.over)
                .only_if(piecing == Piecing::Triangles),
        ]
    }

    /// Of `columns` × `rows` with seams of `seam`, by turns of two cloths.
    pub(super) fn by_turns(piecing: Piecing, (columns, rows): (u32, u32), seam: Length) -> Self {
        Self { piecing, columns, rows, seam, cloths: vec![], over: Length::ZERO }
    }

    /// How many across and up.
    pub fn places(&self) -> (usize, usize) {
        (self.columns as usize, if self.piecing == Piecing::Strips { 1 } else { self.rows as usize })
    }

    /// In patches that are alike.
    pub fn is_even(&self) -> bool {
        !matches!(self.piecing, Piecing::Whole | Piecing::Crazy)
    }

    /// Whose cloth each patch of a panel of `part` is, row by row from the upper left; nothing of what has no such order.
    pub fn order(&self, part: Part) -> Vec<Part> {
        if !matches!(self.piecing, Piecing::Grid | Piecing::Strips) {
            return vec![];
        }
        let (columns, rows) = self.places();
        let named = self.named(part);
        let at = |row: usize, column: usize| match named.len() {
            all if all == columns * rows => named[row * columns + column],
            few => named[(row + column) % few],
        };
        (0..rows).flat_map(|row| (0..columns).map(move |column| (row, column))).map(|(r, c)| at(r, c)).collect()
    }

    /// The cloths by turns: as they are named, or the contrast and the panel's own; of a contrast panel the outer.
    fn named(&self, part: Part) -> Vec<Part> {
        if self.cloths.is_empty() {
            let other = if part == Part::Contrast { Part::Outer } else { Part::Contrast };
            return vec![other, part];
        }
        self.cloths.iter().map(|c| c.part()).collect()
    }

    /// After its columns or rows were others: what was arranged patch by patch stays where it was, a new patch takes the
    /// cloth of the one before it.
    pub(super) fn rearranged(&mut self, before: &Self) {
        let (was, now) = (before.places(), self.places());
        if was == now || self.cloths != before.cloths || before.cloths.len() != was.0 * was.1 || was.0 * was.1 < 2 {
            return;
        }
        let kept = |row: usize, column: usize| before.cloths[row.min(was.1 - 1) * was.0 + column.min(was.0 - 1)];
        self.cloths =
            (0..now.1).flat_map(|row| (0..now.0).map(move |column| (row, column))).map(|(r, c)| kept(r, c)).collect();
    }

    /// What of its own cannot stand, whatever panel it is.
    pub(super) fn problem(&self, ruler: Ruler) -> Option<FieldProblem> {
        let (columns, rows) = self.places();
        let many = self.cloths.len();
        let pieced = !matches!(self.piecing, Piecing::Whole | Piecing::Crazy);
        if self.piecing == Piecing::Triangles && many > 2 {
            let message = format!(
                "{many} cloths will not do: half-square triangles are made of two. Put the patches back to two cloths by turns first."
            );
            return Some(FieldProblem::new("patch_cloths", many, message));
        }
        if pieced && self.piecing != Piecing::Triangles && many > columns.max(2) && many != columns * rows {
            let message = format!(
                "{many} cloths for {columns} × {rows} patches: name at most {}, by turns, or all {} in their order.",
                columns.max(2),
                columns * rows
            );
            return Some(FieldProblem::new("patch_cloths", many, message));
        }
        let most = Length::INCH * 2;
        if self.piecing == Piecing::Triangles && (self.over < Length::ZERO || self.over > most) {
            let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
            let message = format!("Cut {} over: from 0 to {} is allowed.", show(self.over), show(most));
            return Some(FieldProblem::new("patch_over", show(self.over), message));
        }
        None
    }

    /// `panel`, and the patches it is made up of, with what to know about them; the panel alone when it is whole.
    pub fn of(&self, panel: Piece, ruler: Ruler) -> (Vec<Piece>, Vec<Notice>) {
        let (columns, rows) = (self.columns, self.rows);
        let (lie, (patches, notices)) = match self.piecing {
            Piecing::Whole => return (vec![panel], vec![]),
            Piecing::Crazy => (Patches::Crazy, (vec![scraps(&panel, ruler)], vec![])),
            Piecing::Strips => (Patches::Grid(columns, 1), self.patches(&panel, columns, 1, ruler)),
            Piecing::Grid => (Patches::Grid(columns, rows), self.patches(&panel, columns, rows, ruler)),
            Piecing::Triangles => (Patches::Triangles(columns, rows), self.patches(&panel, columns, rows, ruler)),
        };
        let mut pieces = vec![panel.cut(When::Pieced(lie))];
        pieces.extend(patches);
        (pieces, notices)
    }

    fn patches(&self, panel: &Piece, columns: u32, rows: u32, ruler: Ruler) -> (Vec<Piece>, Vec<Notice>) {
        // From n·q − 2p(n − 1) = the panel: what each seam takes of two neighbours is added, then shared out.
        let patch = |side: Length, n: u32, what: &'static str| {
            let share = Length((side.0 + i64::from(n) - 1) / i64::from(n));
            let all = joined(n, share, self.seam);
            let seams = Length(((side - all).0.max(0) + i64::from(n) - 1) / i64::from(n));
            Dimension::sum(
                vec![Term::once(what, share, "columns"), Term::once("share of the seams between", seams, "patch_seam")],
                ruler,
            )
        };
        let width = patch(panel.width.size, columns, "share of the panel's width");
        let height = patch(panel.height.size, rows, "share of the panel's height");
        let all = columns * rows * panel.count;
        let made = (joined(columns, width.size, self.seam), joined(rows, height.size, self.seam));
        let over = (made.0 - panel.width.size, made.1 - panel.height.size);
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        let size = format!("{} × {}", ruler.show(panel.width.size).text, ruler.show(panel.height.size).text);
        let trim = if over == (Length::ZERO, Length::ZERO) {
            format!("The patches join to {size} exactly.")
        } else {
            format!(
                "The patches join to {} × {}: trim to {size} when it is pieced.",
                ruler.show(made.0).text,
                show(made.1)
            )
        };
        let of = panel.name.to_lowercase();
        let cut = |id: &str, name: &str, part: Part, w: Dimension, h: Dimension, count| {
            let patch = Piece::new(format!("{}-{id}", panel.id), format!("{name}, {of}"), part, w, h);
            Piece { print: PrintRule::Upright, grain: Grain::Length, patch_of: Some(panel.id.clone()), ..patch }
                .times(count)
                .noted(trim.clone())
        };
        let pieces = if self.piecing == Piecing::Triangles {
            // Units are square as cut: the larger of the two sides, trimmed to both.
            let finished = (width.size - self.seam * 2).max(height.size - self.seam * 2);
            let exact = square_for_triangles(finished, self.seam);
            let square = Dimension::sum(
                vec![
                    Term::once("finished unit", finished, "columns"),
                    Term::times("seams round it", 2, self.seam, "patch_seam"),
                    Term::once("√2 × the seam, for the diagonal", exact - finished - self.seam * 2, "patch_seam"),
                    Term::once("over, trimmed to the unit", self.over, "patch_over"),
                ],
                ruler,
            );
            // Two units come from a square of each cloth.
            let each = all.div_ceil(2);
            let named = self.named(panel.part);
            let unit = ruler.show(finished + self.seam * 2).text;
            let halves = [("triangle-light", named[0]), ("triangle-dark", named[named.len() - 1])];
            let square = |(id, part)| {
                let piece = cut(id, "Square for triangles", part, square.clone(), square.clone(), each);
                if self.over == Length::ZERO {
                    return piece;
                }
                let trimmed = format!("each unit trimmed to {unit} × {unit} once it is sewn; {trim}");
                piece.noted(trimmed)
            };
            halves.map(square).to_vec()
        } else {
            let name = if self.piecing == Piecing::Strips { "Strip" } else { "Patch" };
            let order = self.order(panel.part);
            let mut parts: Vec<Part> = vec![];
            for part in &order {
                if !parts.contains(part) {
                    parts.push(*part);
                }
            }
            let patch = |(n, part): (usize, &Part)| {
                let count = order.iter().filter(|p| *p == part).count() as u32 * panel.count;
                // By turns of two the first is the light one; of named cloths each is called by its part.
                let id = match (self.cloths.is_empty(), n) {
                    (true, 0) => "patch-light".to_owned(),
                    (true, _) => "patch-dark".to_owned(),
                    _ => format!("patch-{}", part.key()),
                };
                cut(&id, name, *part, width.clone(), height.clone(), count)
            };
            parts.iter().enumerate().map(patch).collect()
        };
        let large = self.seam * 4;
        let small = pieces.iter().any(|p| p.width.size <= large || p.height.size <= large);
        let notices = if small {
            vec![Notice::attention(
                "columns",
                "The patches are hardly wider than their seams: take fewer of them.".to_owned(),
            )]
        } else {
            vec![]
        };
        (pieces, notices)
    }
}

/// Scraps enough to cover the panel, and the panel's size to trim to.
fn scraps(panel: &Piece, ruler: Ruler) -> Piece {
    let more = Length(panel.height.size.0 * (CRAZY.0 - CRAZY.1) / CRAZY.1);
    let width = vec![Term::once("the panel", panel.width.size, "front")];
    let height = vec![
        Term::once("the panel", panel.height.size, "front"),
        Term::once("35 % more, for the seams", more, "front"),
    ];
    Piece::new(
        format!("{}-scraps", panel.id),
        format!("Scraps for the {}", panel.name.to_lowercase()),
        Part::Contrast,
        Dimension::sum(width, ruler),
        Dimension::sum(height, ruler),
    )
    .times(panel.count)
    .lying(Grain::Any)
    .noted("cloth kept for scraps of any shape; sew them round a centre, then trim to the panel")
}
