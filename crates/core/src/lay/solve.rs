//! From a job to a lay: which piece from which cloth, then the search on each roll in turn, as long as it is let.

use super::answer::{Bound, ClothLay, Lay, Placement, Unplaced};
use super::assign::{assign, search_on};
use super::cut_tree::Region;
use super::job::{Aim, Job};
use super::offcuts::keepable;
use super::search::StripSearch;
use super::turns::allowed_turns;
use crate::FieldProblem;
use crate::cloth::{Form, Money};
use crate::measure::{Area, Length};
use crate::piece::Mirror;
use crate::shape::Outline;
use std::ops::ControlFlow;
use thiserror::Error;

/// How long to search.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Budget {
    /// At most so many iterations; 0 gives the constructors' answer.
    pub iterations: u64,
}

/// Watches a search and may stop it.
pub trait Observer {
    /// Called often, with the iterations run so far; breaking stops the search with the best lay found.
    fn tick(&mut self, iterations: u64) -> ControlFlow<()>;

    /// Called with each better lay, the first included.
    fn better(&mut self, lay: &Lay);
}

/// An observer that lets the budget run out.
pub struct Silent;

impl Observer for Silent {
    fn tick(&mut self, _: u64) -> ControlFlow<()> {
        ControlFlow::Continue(())
    }

    fn better(&mut self, _: &Lay) {}
}

/// Something the open format can say and the engine cannot do yet.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
#[error("{field}: not yet: {what}")]
pub struct NotYet {
    /// The field that asks for it.
    pub field: String,
    /// What it asks for.
    pub what: &'static str,
}

/// Why there is no lay.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum SolveError {
    /// A field of the job cannot stand.
    #[error(transparent)]
    Field(#[from] FieldProblem),
    /// The engine cannot do this yet.
    #[error(transparent)]
    NotYet(#[from] NotYet),
}

/// Lays `job`. Deterministic in job, seed and iterations run.
///
/// # Errors
/// [`SolveError`] when a field of the job cannot stand or asks for what the engine does not do yet. Pieces that fit
/// no cloth are not an error: they are in the lay's `unplaced`.
pub fn solve(job: &Job, budget: Budget, observer: &mut dyn Observer) -> Result<Lay, SolveError> {
    job.check()?;
    check_not_yet(job)?;
    let (assigned, unplaced) = assign(job);
    let mut searches: Vec<StripSearch<'_>> = assigned
        .iter()
        .enumerate()
        .filter(|(_, pieces)| !pieces.is_empty())
        .map(|(c, pieces)| search_on(job, c, pieces))
        .collect();
    let mut iterations = 0;
    observer.better(&lay_of(job, &searches, &unplaced, iterations));
    'search: while iterations < budget.iterations {
        let mut active = false;
        for i in 0..searches.len() {
            if searches[i].finished() || iterations >= budget.iterations {
                continue;
            }
            active = true;
            iterations += 1;
            if searches[i].iterate() {
                observer.better(&lay_of(job, &searches, &unplaced, iterations));
            }
            if observer.tick(iterations).is_break() {
                break 'search;
            }
        }
        if !active {
            break;
        }
    }
    Ok(lay_of(job, &searches, &unplaced, iterations))
}

fn check_not_yet(job: &Job) -> Result<(), NotYet> {
    let not_yet = |field: String, what| Err(NotYet { field, what });
    for (i, cloth) in job.cloths.iter().enumerate() {
        match &cloth.form {
            Form::Roll { .. } => {}
            Form::Sheet { .. } => {
                return not_yet(format!("cloths[{i}].kind"), "sheets such as fat quarters are not laid on; use rolls");
            }
            Form::Scrap { .. } => return not_yet(format!("cloths[{i}].kind"), "scraps are not laid on; use rolls"),
        }
        if cloth.layers != 1 {
            return not_yet(format!("cloths[{i}].layers"), "folded cloth is not laid on; use layers 1");
        }
    }
    for (i, piece) in job.pieces.iter().enumerate() {
        if !matches!(piece.outline, Outline::Rect(..)) {
            return not_yet(format!("pieces[{i}].outline"), "circles and polygons are not nested; give the rectangle");
        }
    }
    if job.rules.aim != Aim::BuyLeast {
        return not_yet("rules.aim".into(), "only buy-least is searched for");
    }
    Ok(())
}

fn lay_of(job: &Job, searches: &[StripSearch<'_>], unplaced: &[Unplaced], iterations: u64) -> Lay {
    let mut copies = vec![0_u32; job.pieces.len()];
    let mut cloths: Vec<ClothLay> = searches.iter().map(|s| cloth_lay(job, s, &mut copies)).collect();
    cloths.sort_by_key(|c| job.cloths.iter().position(|j| j.id == c.cloth));
    let of = |c: &ClothLay, length: Length| job.cloth(&c.cloth).map_or(Money(0), |cloth| cloth.cost(length));
    let cost = cloths.iter().map(|c| of(c, c.buy_length)).sum();
    // With a choice of cloths a bound for one of them says nothing of the whole.
    let choice = job.pieces.iter().any(|p| p.cloths.len() > 1);
    let bound = if choice {
        Bound { cost: Money(0), length: Length::ZERO }
    } else {
        Bound { cost: cloths.iter().map(|c| of(c, c.bound)).sum(), length: cloths.iter().map(|c| c.bound).sum() }
    };
    let proven = !choice && unplaced.is_empty() && cloths.iter().all(ClothLay::proven);
    let warnings = warnings(job, &cloths);
    Lay { job: job.name.clone(), cloths, unplaced: unplaced.to_vec(), cost, bound, proven, warnings, iterations }
}

fn cloth_lay(job: &Job, search: &StripSearch<'_>, copies: &mut [u32]) -> ClothLay {
    let (cloth, strip) = (search.cloth, &search.strip);
    let mut laid = search.tidied();
    laid.sort_by_key(|l| (l.y, l.x));
    let mut area = Area(0);
    let mut regions = Vec::with_capacity(laid.len());
    let placements = laid
        .iter()
        .map(|l| {
            let kind = &strip.kinds[l.kind];
            let piece = &job.pieces[kind.piece];
            copies[kind.piece] += 1;
            let copy = copies[kind.piece];
            area = area + piece.outline.area();
            let (x, y) = (cloth.selvedge + Length(l.x), cloth.trim + Length(l.y));
            let (width, height) = strip.size(l);
            regions.push(Region { x: x.0, y: y.0, width: width - strip.gap, height: height - strip.gap });
            let turn = kind.choices[l.choice].turn;
            let mirrored = piece.mirror == Mirror::Pairs && copy.is_multiple_of(2);
            Placement { piece: piece.id.clone(), copy, x, y, turn, mirrored }
        })
        .collect();
    let needed_length = cloth.needed_length(Length(strip.length(&search.best)));
    let buy_length = cloth.buy_length(needed_length);
    let there = buy_length.shrunk(cloth.shrink.along).max(needed_length);
    let usable =
        Region { x: cloth.selvedge.0, y: cloth.trim.0, width: cloth.usable_width().0, height: (there - cloth.trim).0 };
    ClothLay {
        cloth: cloth.id.clone(),
        copy: 1,
        needed_length,
        buy_length,
        used_share: area.share_of(cloth.washed_width() * there),
        placements,
        offcuts: keepable(usable, &regions, job.rules.keep),
        bound: cloth.buy_length(cloth.needed_length(Length(search.bound))),
        through: search.through(),
    }
}

fn warnings(job: &Job, cloths: &[ClothLay]) -> Vec<String> {
    let mut found = Vec::new();
    for lay in cloths {
        let Some(cloth) = job.cloth(&lay.cloth) else { continue };
        for piece in &job.pieces {
            let here = lay.placements.iter().any(|p| p.piece == piece.id);
            if here && allowed_turns(piece.grain, piece.print, cloth).against_grain {
                found.push(format!(
                    "{} lies against its grain on {}, so that the print stands up.",
                    piece.name, cloth.name
                ));
            }
        }
        let there = lay.buy_length.shrunk(cloth.shrink.along);
        if !cloth.owned && cloth.trim == Length::ZERO && there - lay.needed_length < Length::INCH / 2 {
            found.push(format!(
                "{} is needed to its full length: if the shop cuts it crooked or it shrinks, this lay no longer fits.",
                cloth.name
            ));
        }
    }
    found
}
