//! Edges worth keeping attract the pieces chosen for them: a panel is cut with its top or its base on the hem of a scrap.
//! Where that is, is settled before anything else is laid; the rest is laid round it.

use super::Project;
use super::left_over::thing_of;
use crate::FieldProblem;
use crate::bag::{Draft, Notice, Stage};
use crate::cloth::{Cloth, EdgeKind, Form, HandForm, between};
use crate::lay::{Job, JobPiece, Pin, Placement, allowed_turns, pin_faults};
use crate::measure::Length;
use crate::piece::{Mirror, Piece};
use crate::shape::{Point, Turn};
use serde::{Deserialize, Serialize};

/// Which edge of a piece lies on an edge that is kept.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum PieceEdge {
    /// Its upper one, as at a mouth.
    Top,
    /// Its lower one.
    Base,
}

impl PieceEdge {
    /// In a word.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Top => "top",
            Self::Base => "base",
        }
    }

    /// The turn, counter-clockwise, that brings it down.
    const fn brought_down(self) -> u16 {
        match self {
            Self::Base => 0,
            Self::Top => 180,
        }
    }
}

/// An edge that is off a thread by more than this from end to end is none that a piece is laid along.
const SLANTED: Length = Length(2 * Length::MILLIMETRE.0);

/// Places that are tried along one edge.
const TRIED: i64 = 96;

/// Places that are tried in all: a plan is made with every edit.
const MOST_TRIES: usize = 4_000;

/// One edge of a scrap, as washed.
struct Side {
    kind: EdgeKind,
    /// `A–B`.
    name: String,
    /// Counter-clockwise round the scrap: it lies at the left of the way from the first to the second.
    ends: [Point; 2],
}

/// The edges of `cloth`, a cloth of the project's job, that are kept.
fn sides(project: &Project, cloth: &Cloth) -> Vec<Side> {
    let of = project.cloth(&cloth.id).and_then(|of| thing_of(of, &cloth.id)).map(|t| &t.form);
    let (Some(HandForm::Scrap(scrap)), Form::Scrap { .. }) = (of, &cloth.form) else { return vec![] };
    let corners: Vec<Point> = scrap.corners().into_iter().map(|p| cloth.washed(p)).collect();
    let side = |k: &crate::cloth::KeptEdge| {
        let next = (k.side + 1) % corners.len();
        let ends = [*corners.get(k.side)?, *corners.get(next)?];
        Some(Side { kind: k.kind, name: between(k.side, next), ends })
    };
    scrap.kept.iter().filter_map(side).collect()
}

/// Where along an edge a piece may lie: its turn, and for every try the lower left corner of its box.
fn places(side: &Side, piece: &JobPiece, edge: PieceEdge) -> Option<(Turn, Vec<Point>)> {
    let [a, b] = side.ends;
    let (dx, dy) = (b.x - a.x, b.y - a.y);
    let flat = |off: Length| off.0.abs() <= SLANTED.0;
    // Counter-clockwise to the right the cloth is above: what is brought down lies on it.
    let turned = match (flat(dy), flat(dx)) {
        (true, false) if dx > Length::ZERO => 0,
        (true, false) => 180,
        (false, true) if dy > Length::ZERO => 90,
        (false, true) => 270,
        _ => return None,
    };
    let turn = Turn::new((edge.brought_down() + turned) % 360)?;
    let (width, height) = piece.outline.extent(turn, false);
    let (low_x, high_x) = (a.x.min(b.x), a.x.max(b.x));
    let (low_y, high_y) = (a.y.min(b.y), a.y.max(b.y));
    let along = |low: Length, high: Length, size: Length| -> Vec<Length> {
        let spare = high - low - size;
        if spare < Length::ZERO {
            return vec![];
        }
        (0..=TRIED).map(|k| low + Length(spare.0 * k / TRIED)).collect()
    };
    // An edge that is not quite straight is met where it reaches in furthest.
    let found: Vec<Point> = match turned {
        0 => along(low_x, high_x, width).into_iter().map(|x| Point::new(x, high_y)).collect(),
        180 => along(low_x, high_x, width).into_iter().map(|x| Point::new(x, low_y - height)).collect(),
        90 => along(low_y, high_y, height).into_iter().map(|y| Point::new(low_x - width, y)).collect(),
        _ => along(low_y, high_y, height).into_iter().map(|y| Point::new(high_x, y)).collect(),
    };
    Some((turn, found))
}

/// The first place along `side` where a copy of `piece` can lie beside `pins`; each try is one of those that are `left`.
fn on_side(
    (job, pins): (&Job, &[Pin]),
    (cloth, side): (&Cloth, &Side),
    (piece, copy, edge): (&JobPiece, u32, PieceEdge),
    left: &mut usize,
) -> Option<Pin> {
    let (turn, places) = places(side, piece, edge)?;
    if !allowed_turns(piece.grain, piece.print, cloth).turns.contains(&turn) {
        return None;
    }
    let here: Vec<Pin> = pins.iter().filter(|p| p.cloth == cloth.id).cloned().collect();
    let lies = |id: &str| id == piece.id || here.iter().any(|p| p.placement.piece == id);
    let mut alone = Job {
        name: String::new(),
        units: job.units,
        pieces: job.pieces.iter().filter(|p| lies(&p.id)).cloned().collect(),
        cloths: vec![cloth.clone()],
        rules: job.rules.clone(),
        pinned: here,
    };
    let mirrored = piece.mirror == Mirror::Pairs && copy.is_multiple_of(2);
    for at in places {
        *left = left.checked_sub(1)?;
        let placement = Placement {
            piece: piece.id.clone(),
            copy,
            x: at.x,
            y: at.y,
            turn,
            mirrored,
            on_fold: false,
            single: false,
        };
        let pin = Pin { cloth: cloth.id.clone(), cloth_copy: 1, placement };
        alone.pinned.push(pin.clone());
        if pin_faults(&alone).is_ok() {
            return Some(pin);
        }
        alone.pinned.pop();
    }
    None
}

impl Project {
    /// Says which edge of a piece lies on an edge that is kept, or that it lies anywhere.
    pub(super) fn put_on_edge(&mut self, piece: &str, edge: Option<PieceEdge>) -> Result<String, FieldProblem> {
        let (draft, _) = self.drafted().map_err(|mut all| all.remove(0))?;
        let found = draft.pieces.iter().find(|p| p.id == *piece && p.when.is_laid());
        let Some(edge) = edge else {
            self.on_edge.remove(piece);
            let name = found.map_or("A piece", |p| p.name.as_ref());
            return Ok(format!("{name} on no kept edge"));
        };
        let Some(found) = found else {
            return Err(FieldProblem::new("piece", piece, format!("There is no piece “{piece}” to cut in this bag.")));
        };
        if !self.has_kept_edge(found) {
            let message = format!(
                "No scrap of a cloth that {} comes from has an edge that is kept: mark it where the scrap is drawn.",
                found.name
            );
            return Err(FieldProblem::new("piece", piece, message));
        }
        let told = format!("{}, {} on a kept edge", found.name, edge.name());
        self.on_edge.insert(piece.to_owned(), edge);
        Ok(told)
    }

    /// Whether a scrap that `piece` may come from has an edge that is kept.
    pub fn has_kept_edge(&self, piece: &Piece) -> bool {
        let cloths = self.cloths_for(piece).iter().filter_map(|id| self.cloth(id));
        cloths.flat_map(|c| &c.at_hand).any(|t| matches!(&t.form, HandForm::Scrap(s) if !s.kept.is_empty()))
    }

    /// Where pieces lie that are chosen for kept edges, as far as those hold them; and whether all of them were looked at.
    pub(super) fn pins_on_edges(&self, job: &Job) -> (Vec<Pin>, bool) {
        let (mut pins, mut left): (Vec<Pin>, usize) = (vec![], MOST_TRIES);
        for piece in &job.pieces {
            let Some(edge) = self.on_edge.get(&piece.id) else { continue };
            let cloths = piece.cloths.iter().filter_map(|id| job.cloth(id));
            let mut open: Vec<(&Cloth, Side)> =
                cloths.flat_map(|c| sides(self, c).into_iter().map(move |s| (c, s))).collect();
            for copy in 1..=piece.count {
                // An edge that holds no copy holds no later one either.
                let mut found = None;
                open.retain(|(cloth, side)| {
                    found =
                        found.take().or_else(|| on_side((job, &pins), (cloth, side), (piece, copy, *edge), &mut left));
                    found.is_some()
                });
                pins.extend(found);
            }
        }
        (pins, left > 0)
    }

    /// What of the pieces chosen for kept edges finds no place on one.
    pub(super) fn told_of_edges(&self, draft: &Draft, job: &Job, all_looked_at: bool) -> Vec<Notice> {
        let why = if all_looked_at {
            "none being long enough, straight with the threads and free of flaws"
        } else {
            "as far as they were looked at: there are many"
        };
        let short = |piece: &Piece| {
            let edge = self.on_edge.get(piece.id.as_ref()).filter(|_| piece.when.is_laid())?;
            let placed = job.pinned.iter().filter(|p| p.placement.piece == *piece.id).count() as u32;
            (placed < piece.count).then(|| {
                let left = piece.count - placed;
                let (find, lie) = if left == 1 { ("finds", "It lies") } else { ("find", "They lie") };
                let text = format!(
                    "{}: {left} of {} {find} no kept edge for the {}, {why}. {lie} anywhere.",
                    piece.name,
                    piece.count,
                    edge.name()
                );
                Notice { stage: Stage::Cloth, ..Notice::attention("on_edge", text) }
            })
        };
        draft.pieces.iter().filter_map(short).collect()
    }

    /// What is left uncut of a copy of a piece that lies on a kept edge: `its top is the hem A–B of the scrap`.
    pub fn told_edge(&self, job: &Job, piece: &str, copy: u32) -> Option<String> {
        let edge = self.on_edge.get(piece)?;
        let pin = job.pinned.iter().find(|p| p.placement.piece == piece && p.placement.copy == copy)?;
        let (cloth, laid) = (job.cloth(&pin.cloth)?, job.piece(piece)?);
        let at = Point::new(pin.placement.x, pin.placement.y);
        let on = |side: &Side| {
            places(side, laid, *edge).is_some_and(|(turn, all)| turn == pin.placement.turn && all.contains(&at))
        };
        let side = sides(self, cloth).into_iter().find(on)?;
        Some(format!("Its {} is the {}, side {}: that edge stays as it is.", edge.name(), side.kind.name(), side.name))
    }
}
