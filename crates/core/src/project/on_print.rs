//! Pieces that are cut where a print falls right on them: a motif in the middle, stripes at one height on every panel.
//!
//! What is measured of a print is one repeat, and how far from the edge its first motif stands; where the shop cuts in the
//! print nobody knows before. So half a repeat is kept free at each end: wherever the print begins, the whole plan can be
//! moved until the motifs fall right, and that buys the one repeat more that is common practice.

use super::cloth::{Pattern, ProjectCloth};
use super::document::Project;
use crate::FieldProblem;
use crate::bag::{Draft, Notice, Stage};
use crate::cloth::{Cloth, Form, PrintUp, Repeat};
use crate::lay::{Budget, Job, Lay, MOST_ON_PRINT, Silent, Stop, allowed_turns, solve};
use crate::measure::Length;
use crate::piece::{Mirror, Piece};
use crate::shape::{Outline, Point};
use serde::{Deserialize, Serialize};

/// How far from an edge of a piece the middle of a motif falls.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum MotifAt {
    /// In the middle, however large the piece becomes.
    Middle,
    /// So far from its left or lower edge, seams included.
    From(Length),
}

impl MotifAt {
    /// On a piece so wide, or so tall.
    pub const fn on(self, size: Length) -> Length {
        match self {
            Self::Middle => Length(size.0 / 2),
            Self::From(from) => from,
        }
    }
}

/// Where on a piece the middle of a motif falls.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct OnPrint {
    /// From its left edge.
    pub across: MotifAt,
    /// From its lower edge.
    pub up: MotifAt,
}

impl ProjectCloth {
    /// From one motif to the next across the width and along the length, before any wash; nothing along an axis on which
    /// the print does not change or was not measured.
    pub fn repeats(&self) -> (Option<Length>, Option<Length>) {
        let tall = self.repeat.filter(|_| !matches!(self.look.pattern, Pattern::Plain | Pattern::Ticking));
        let wide = self.repeat_wide.filter(|_| self.look.pattern != Pattern::Plain);
        // A border is there once across the cloth.
        if self.has_border() {
            return (self.motif_from.map(|_| self.width), wide);
        }
        match self.up {
            PrintUp::Length => (wide, tall),
            PrintUp::Across => (tall, wide),
        }
    }

    /// A border of its print runs along one selvedge.
    pub fn has_border(&self) -> bool {
        self.look.pattern == Pattern::Border && self.look.picture.is_none() && self.up == PrintUp::Across
    }

    /// Where its motifs lie on something cut of it is seen, not measured: on a scrap, and of a border on whatever is not as
    /// wide as the cloth, since the border may be cut off.
    fn is_placed_by_eye(&self, form: &Form) -> bool {
        match form {
            Form::Scrap { .. } => true,
            Form::Sheet { .. } => self.has_border(),
            Form::Roll { width, .. } => self.has_border() && !self.folded && *width != self.width,
        }
    }

    /// Whether a piece can have a place on its print.
    pub fn has_repeat(&self) -> bool {
        self.repeats() != (None, None)
    }
}

impl Project {
    /// Where a motif falls on `piece`, if it has a place on a print; nothing where the piece has become too small for it.
    pub fn motif_on(&self, piece: &Piece) -> Option<Point> {
        let place = self.on_print.get(piece.id.as_ref())?;
        let (width, height) = piece.size();
        let (x, y) = (place.across.on(width), place.up.on(height));
        let within = |at: Length, size: Length| at >= Length::ZERO && at <= size;
        (within(x, width) && within(y, height)).then_some(Point::new(x, y))
    }

    /// `cloth` as the job knows it, with where the motifs of its print lie if any piece of `draft` has a place on them.
    /// Where that is not measured it is as the largest of these pieces wants it, and half a repeat stays free at each edge.
    pub(super) fn with_print(&self, of: &ProjectCloth, cloth: Cloth, draft: &Draft) -> Cloth {
        let here = |p: &&Piece| p.when.is_laid() && self.cloths_for(p).contains(&of.id);
        let placed = draft.pieces.iter().filter(here).filter_map(|p| Some((p, self.motif_on(p)?)));
        let Some((largest, motif)) = placed.max_by_key(|(p, _)| p.outline().area()) else { return cloth };
        // What is placed is not laid where motifs are not measured from the edges.
        if !of.has_repeat() || of.is_placed_by_eye(&cloth.form) {
            return cloth;
        }
        let shrink = cloth.shrink;
        let (across, along) = of.repeats();
        let (across, along) = (across.map(|l| l.shrunk(shrink.across)), along.map(|l| l.shrunk(shrink.along)));
        let half = |l: Option<Length>| Length((l.unwrap_or_default().0 + 1) / 2);
        let mut cloth = cloth;
        let edge = matches!(cloth.form, Form::Roll { .. });
        let known = of.motif_from.filter(|_| edge).map(|from| from.shrunk(shrink.across));
        if known.is_none() {
            cloth.selvedge += half(across);
        }
        cloth.trim += half(along);
        let turn = allowed_turns(largest.grain, largest.print, &cloth).turns[0];
        let (width, height) = largest.size();
        let on_shape = Outline::Rect(width, height).placed_point(motif, turn, false);
        let corner = cloth.corner();
        let at =
            Point::new(known.unwrap_or(corner.x + cloth.left_edge() + on_shape.x), corner.y + cloth.trim + on_shape.y);
        cloth.repeat = Some(match (across, along) {
            (Some(across), Some(along)) if of.half_drop => match of.up {
                PrintUp::Length => Repeat { across: Some(across), along: Some(along), drop: Length(along.0 / 2), at },
                // The print lies on its side: each next row of motifs stands half a repeat further across.
                PrintUp::Across => {
                    Repeat { across: Some(Length(across.0 / 2)), along: Some(along * 2), drop: along, at }
                }
            },
            _ => Repeat { across, along, drop: Length::ZERO, at },
        });
        cloth
    }

    /// The cloths of the job that `piece` may lie on, of those its part may: nothing on which its place on the print is only
    /// seen.
    pub(super) fn placed_on(&self, piece: &Piece, all: &[Cloth]) -> Vec<String> {
        let placed = self.motif_on(piece).is_some();
        let by_eye =
            |c: &Cloth| placed && self.cloth(&c.id).is_some_and(|of| of.has_repeat() && of.is_placed_by_eye(&c.form));
        all.iter().filter(|c| !by_eye(c)).map(|c| c.id.clone()).collect()
    }

    /// A piece that has its place on a print of which there are only scraps.
    pub(super) fn only_scraps_of_print(&self, draft: &Draft, job: &Job) -> Option<FieldProblem> {
        let none = job.pieces.iter().find(|p| p.cloths.is_empty())?;
        let cloth = draft.piece(&none.id).and_then(|p| self.cloth_for(p))?;
        let message = format!(
            "{} has its place on the print of {}, and there are only {} of it: where its {} on them is not known. Buy the rest, or let it lie anywhere.",
            none.name,
            cloth.name,
            if cloth.has_border() { "pieces that are not as wide as the cloth" } else { "scraps" },
            if cloth.has_border() { "border lies" } else { "motifs lie" },
        );
        Some(FieldProblem::new("on_print", "", message))
    }

    /// That a print comes again so seldom that what is kept free for it leaves nothing to cut from.
    pub(super) fn no_room_for_print(&self, job: &Job) -> Option<FieldProblem> {
        let show = |l: Length| format!("{} {}", self.ruler.show(l).text, self.system.symbol());
        job.cloths.iter().filter(|c| c.repeat.is_some()).find_map(|cloth| {
            let of = self.cloth(&cloth.id)?;
            let (across, along) = of.repeats();
            if cloth.usable_width() <= Length::ZERO {
                let message = format!(
                    "One repeat of {} is {} across: with half of that kept free at each side nothing is left to cut from. Measure how far its first motif stands from the edge.",
                    cloth.name,
                    show(across.unwrap_or_default())
                );
                return Some(FieldProblem::new("motif_from", "", message));
            }
            cloth.usable_length().is_some_and(|l| l <= Length::ZERO).then(|| {
                let message = format!(
                    "One repeat of {} is {} along: with half of that kept free at each end nothing of it is left to cut from.",
                    cloth.name,
                    show(along.unwrap_or_default())
                );
                FieldProblem::new("repeat", "", message)
            })
        })
    }

    /// What follows from places on a print, told where the cloth is chosen.
    pub(super) fn told_of_print(&self, draft: &Draft) -> Vec<Notice> {
        let show = |l: Length| format!("{} {}", self.ruler.show(l).text, self.system.symbol());
        let mut found = Vec::new();
        let mut told: Vec<&str> = vec![];
        for piece in draft.pieces.iter().filter(|p| self.on_print.contains_key(p.id.as_ref())) {
            let Some(cloth) = self.cloth_for(piece) else { continue };
            if !piece.when.is_laid() {
                let text = format!(
                    "{} is not cut straight from {}, but from patches or a block: its place on the print is not kept.",
                    piece.name, cloth.name
                );
                found.push(Notice { stage: Stage::Cloth, field: None, ..Notice::attention("on_print", text) });
                continue;
            }
            if self.motif_on(piece).is_none() {
                let text = format!(
                    "{} has become too small for its place on the print of {}: it is laid anywhere until you place it again.",
                    piece.name, cloth.name
                );
                found.push(Notice { stage: Stage::Cloth, field: None, ..Notice::attention("on_print", text) });
                continue;
            }
            if told.contains(&cloth.id.as_str()) {
                continue;
            }
            told.push(&cloth.id);
            found.push(Notice { stage: Stage::Cloth, field: None, ..self.told_of_cloth(cloth, piece, show) });
        }
        found
    }

    fn told_of_cloth(&self, cloth: &ProjectCloth, piece: &Piece, show: impl Fn(Length) -> String) -> Notice {
        let (across, along) = cloth.repeats();
        if !cloth.has_repeat() {
            let unknown = if cloth.has_border() { "how far its border is from the edge" } else { "one repeat of it" };
            let text = format!(
                "{} has a place on the print of {}, and {unknown} is not measured: it is laid anywhere.",
                piece.name, cloth.name
            );
            return Notice::attention("on_print", text);
        }
        let mut text = format!("{} is cut where its print falls right.", cloth.name);
        if let Some(along) = along {
            let bought = if cloth.is_bought() { " and bought" } else { "" };
            text += &format!(
                " Where it is cut off in the print is not known: one repeat, {}, is planned{bought} more, half at each end.",
                show(along)
            );
        }
        match (across, cloth.motif_from) {
            (Some(across), None) => {
                text += &format!(
                    " Nor is how far from the edge a motif stands: {} is kept free at each side, until you measure that.",
                    show(Length((across.0 + 1) / 2))
                );
            }
            (None, _) if cloth.look.pattern != Pattern::Ticking || cloth.up == PrintUp::Length => {
                text += " How wide one repeat is is not measured: its motifs may fall anywhere across.";
            }
            _ => {}
        }
        let others = self.cloths_for(piece).iter().skip(1).filter_map(|id| self.cloth(id));
        let bare: Vec<&str> = others.filter(|c| !c.has_repeat()).map(|c| c.name.as_str()).collect();
        if !bare.is_empty() {
            text += &format!(" What comes from {} instead lies anywhere on it.", bare.join(" or "));
        }
        let by_eye = cloth.at_hand.iter().any(|t| cloth.is_placed_by_eye(&t.form.for_job(cloth.width)));
        if by_eye {
            let (what, figures) = if cloth.has_border() {
                ("What is not as wide as the cloth is", "its border lies")
            } else {
                ("Its scraps are", "motifs lie")
            };
            text += &format!(" {what} left out for {}: where {figures} on them is seen, not measured.", piece.name);
        }
        Notice::note("on_print", text)
    }
}

/// How many of `piece` the cloth that `lay` of `job` takes would hold, each where its motif falls right and nothing else on
/// it; nothing where it has no place on a print, or in the time there is none were found.
pub fn holds_on_print(job: &Job, lay: &Lay, piece: &str, stop: &Stop) -> Option<u32> {
    let mut alone = job.clone();
    alone.pieces.retain(|p| p.id == piece);
    let of = alone.pieces.first_mut()?;
    of.mirror = Mirror::No;
    alone.pinned.clear();
    let cloths: Vec<Cloth> = job
        .cloths
        .iter()
        .filter(|c| job.piece(piece).is_some_and(|p| job.places(p, c)))
        .filter_map(|c| {
            let used = lay.cloths.iter().find(|l| l.cloth == c.id)?;
            let form = match &c.form {
                Form::Roll { width, .. } => Form::Roll { width: *width, length: Some(used.buy_length), max: None },
                other => other.clone(),
            };
            Some(Cloth { form, owned: true, ..c.clone() })
        })
        .collect();
    let room: i128 =
        cloths.iter().filter_map(|c| Some((c.usable_width() * c.usable_length()?).0 * i128::from(c.copies()))).sum();
    let most = (room / of.outline.area().0.max(1)).clamp(1, i128::from(MOST_ON_PRINT));
    of.count = u32::try_from(most).unwrap_or(1);
    of.cloths = cloths.iter().map(|c| c.id.clone()).collect();
    let asked = of.count;
    alone.cloths = cloths;
    let found = solve(&alone, Budget::iterations(0).until(stop), &mut Silent).ok()?;
    let left: u32 = found.unplaced.iter().map(|u| u.count).sum();
    Some(asked - left)
}
