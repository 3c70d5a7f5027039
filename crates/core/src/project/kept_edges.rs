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
    let (width, height) = piece.outline.extent(turn);
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

    /// Where pieces lie that are chosen for kept edges, as far as those hold them.
    pub(super) fn pins_on_edges(&self, job: &Job) -> Vec<Pin> {
        let mut pins: Vec<Pin> = vec![];
        for piece in &job.pieces {
            let Some(edge) = self.on_edge.get(&piece.id) else { continue };
            for copy in 1..=piece.count {
                let here = piece.cloths.iter().filter_map(|id| job.cloth(id));
                let pin =
                    here.flat_map(|c| sides(self, c).into_iter().map(move |s| (c, s))).find_map(|(cloth, side)| {
                        let (turn, places) = places(&side, piece, *edge)?;
                        if !allowed_turns(piece.grain, piece.print, cloth).turns.contains(&turn) {
                            return None;
                        }
                        places.into_iter().find_map(|at| {
                            let mirrored = piece.mirror == Mirror::Pairs && copy.is_multiple_of(2);
                            let (piece, x, y) = (piece.id.clone(), at.x, at.y);
                            let placement = Placement { piece, copy, x, y, turn, mirrored, on_fold: false };
                            let pin = Pin { cloth: cloth.id.clone(), cloth_copy: 1, placement };
                            let here = |p: &&Pin| p.cloth == cloth.id;
                            let pinned = pins.iter().filter(here).cloned().chain([pin.clone()]).collect();
                            let alone = Job { cloths: vec![cloth.clone()], pinned, ..job.clone() };
                            pin_faults(&alone).is_ok().then_some(pin)
                        })
                    });
                pins.extend(pin);
            }
        }
        pins
    }

    /// What of the pieces chosen for kept edges finds no place on one.
    pub(super) fn told_of_edges(&self, draft: &Draft, job: &Job) -> Vec<Notice> {
        let short = |piece: &Piece| {
            let edge = self.on_edge.get(piece.id.as_ref()).filter(|_| piece.when.is_laid())?;
            let placed = job.pinned.iter().filter(|p| p.placement.piece == *piece.id).count() as u32;
            (placed < piece.count).then(|| {
                let left = piece.count - placed;
                let (find, lie) = if left == 1 { ("finds", "It lies") } else { ("find", "They lie") };
                let text = format!(
                    "{}: {left} of {} {find} no kept edge for the {}, none being long enough, straight with the threads and free of flaws. {lie} anywhere.",
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
