//! The lay as it is told: what the planner found, with lengths to buy, offcuts, bounds and warnings.

use super::answer::{Bound, ClothLay, Lay, Offcut, Placement, Unplaced};
use super::bin::Bin;
use super::bin_search::{BinSearch, Placed};
use super::guillotine::Region;
use super::job::{Job, JobPiece};
use super::nest::Detail;
use super::offcuts::{Rest, bands, keepable, remaining, rests};
use super::planner::Planner;
use super::proof::{Proof, SheetsNeeded, least_sheets};
use super::share::why_unplaced;
use super::turns::allowed_turns;
use crate::cloth::{Cloth, Form, Money};
use crate::hashed::{HashMap, HashSet};
use crate::measure::{Area, Length};
use crate::piece::Mirror;
use crate::shape::{Point, Turn};

/// Beyond so many placements on one cloth what remains is not told as polygons.
const MOST_OUTLINED: usize = 150;
/// Of more pieces in one part of a cloth it is not told what they leave of it.
const MOST_IN_A_PART: usize = 60;

/// A placement that has no copy number yet.
struct Bare {
    piece: usize,
    x: Length,
    y: Length,
    turn: Turn,
    mirrored: bool,
    on_fold: bool,
    yields: u32,
    /// Over both layers for one copy alone: its twin is spare.
    single: bool,
}

/// Tells the plan. With `whole` what remains is told as polygons too.
pub(super) fn lay_of(job: &Job, planner: &Planner<'_>, iterations: u64, whole: bool) -> Lay {
    let mut numbers = Numbers::new(job);
    let mut order: Vec<&BinSearch<'_>> = planner.searches.iter().collect();
    order.sort_by_key(|s| s.bin);
    // Pairs of folded cloth take their numbers first: theirs follow each other.
    let mut bare: Vec<Vec<Bare>> = order.iter().map(|s| bare_placements(job, planner, s)).collect();
    let mut told: Vec<Vec<Placement>> = bare.iter().map(|_| Vec::new()).collect();
    for twice in [true, false] {
        for (at, all) in bare.iter_mut().enumerate() {
            for b in all.iter().filter(|b| (b.yields == 2) == twice) {
                told[at].push(numbers.placement(job, b));
            }
        }
    }
    let mut left: Vec<(usize, u32)> = planner.unplaced.clone();
    for search in &order {
        left.extend(search.overflow().iter().map(|l| (l.piece, l.copies)));
    }
    let mut cloths: Vec<ClothLay> = Vec::new();
    let mut untold = false;
    for (search, mut placements) in order.iter().zip(told) {
        let bin = &planner.bins[search.bin];
        let id = &job.cloths[bin.cloth].id;
        placements.extend(
            job.pinned.iter().filter(|p| p.cloth == *id && p.cloth_copy == bin.copy).map(|p| p.placement.clone()),
        );
        placements.sort_by_key(|p| (p.y, p.x));
        if !placements.is_empty() {
            let (lay, told) = cloth_lay(job, bin, search, placements, whole);
            cloths.push(lay);
            untold |= !told;
        }
    }
    let of = |c: &ClothLay, length: Length| job.cloth(&c.cloth).map_or(Money(0), |cloth| cloth.cost(length));
    let cost: Money = cloths.iter().map(|c| of(c, c.buy_length)).sum();
    let bought: Length = cloths.iter().filter(|c| is_bought(job, c)).map(|c| c.buy_length).sum();
    // With a choice of cloths a bound for one of them says nothing of the whole.
    let choice = job.pieces.iter().any(|p| p.cloths.len() > 1);
    let unplaced = unplaced(job, &planner.bins, &left);
    let sheets = if choice { vec![] } else { sheets(job, &cloths, whole && unplaced.is_empty()) };
    // Of a cloth sold by the sheet no more count than are needed.
    let before = |at: usize| cloths_like(&cloths[..at], &cloths[at]);
    let counts = |at: &usize| sheets_of(job, &cloths[*at]).is_none() || before(*at) < least_of(&sheets, &cloths[*at]);
    let counted = || (0..cloths.len()).filter(counts).map(|at| &cloths[at]);
    let bound = if choice {
        Bound { cost: Money(0), length: Length::ZERO }
    } else {
        Bound { cost: counted().map(|c| of(c, c.bound)).sum(), length: counted().map(|c| c.bound).sum() }
    };
    let least = if choice {
        bought == Length::ZERO
    } else {
        cloths.iter().all(|c| !is_bought(job, c) || (c.proven() && cloths_like(&cloths, c) <= least_of(&sheets, c)))
    };
    let mut warnings = warnings(job, &cloths);
    warnings.extend(plainer_outlines(&order));
    warnings.extend(
        untold.then(|| "Bofta could not work out the leftovers of this layout that are not rectangles.".to_owned()),
    );
    let undercut = undercut(job, &cloths);
    let proven = unplaced.is_empty() && least && owned_least(job, &cloths, choice) && undercut.is_empty();
    warnings.extend(undercut);
    Lay { job: job.name.clone(), cloths, unplaced, cost, bound, sheets, proven, warnings, iterations }
}

/// How many sheets are needed of each cloth that is sold by the sheet. With `whole` all ways of sharing few pieces are
/// tried, too.
fn sheets(job: &Job, cloths: &[ClothLay], whole: bool) -> Vec<SheetsNeeded> {
    let used = |id: &str| cloths.iter().filter(|c| c.cloth == id).count() as u32;
    job.cloths
        .iter()
        .enumerate()
        .filter(|(_, c)| used(&c.id) > 1)
        .filter_map(|(index, c)| least_sheets(job, index, whole.then(|| used(&c.id))))
        .collect()
}

/// The cloth of a lay, if it is sold by the sheet.
fn sheets_of<'a>(job: &'a Job, lay: &ClothLay) -> Option<&'a Cloth> {
    job.cloth(&lay.cloth).filter(|c| !c.owned && matches!(c.form, Form::Sheet { .. }))
}

/// How many of its sheets are needed; one, where nothing more is known.
fn least_of(sheets: &[SheetsNeeded], lay: &ClothLay) -> u32 {
    sheets.iter().find(|s| s.cloth == lay.cloth).map_or(1, |s| s.least)
}

/// Copies of its cloth among `cloths`.
fn cloths_like(cloths: &[ClothLay], lay: &ClothLay) -> u32 {
    cloths.iter().filter(|c| c.cloth == lay.cloth).count() as u32
}

/// Bounds that a lay undercuts are faults of this program: they are told, and nothing is called proven.
fn undercut(job: &Job, cloths: &[ClothLay]) -> Vec<String> {
    let name = |c: &ClothLay| job.cloth(&c.cloth).map_or_else(String::new, |cloth| cloth.name.clone());
    cloths
        .iter()
        .filter(|c| c.bound > c.buy_length)
        .map(|c| {
            format!(
                "Bofta took it as shown that {} cannot be cut so short, and this lay is: please report it with the job. Nothing is called proven here.",
                name(c)
            )
        })
        .collect()
}

fn is_bought(job: &Job, lay: &ClothLay) -> bool {
    job.cloth(&lay.cloth).is_some_and(|c| !c.owned)
}

/// Without a choice an owned roll is also asked to be used no further than it must.
fn owned_least(job: &Job, cloths: &[ClothLay], choice: bool) -> bool {
    choice
        || cloths
            .iter()
            .all(|c| is_bought(job, c) || c.proven() || job.cloth(&c.cloth).is_some_and(|c| c.whole_length().is_some()))
}

fn unplaced(job: &Job, bins: &[Bin], left: &[(usize, u32)]) -> Vec<Unplaced> {
    let mut together: Vec<(usize, u32)> = Vec::new();
    for &(piece, copies) in left {
        match together.iter_mut().find(|t| t.0 == piece) {
            Some(t) => t.1 += copies,
            None => together.push((piece, copies)),
        }
    }
    together.sort_unstable();
    together.into_iter().map(|(piece, copies)| why_unplaced(job, bins, piece, copies)).collect()
}

fn bare_placements(job: &Job, planner: &Planner<'_>, search: &BinSearch<'_>) -> Vec<Bare> {
    let bin = &planner.bins[search.bin];
    let place = |x: i64, y: i64| (bin.left + Length(x), bin.low + Length(y));
    let mut all: Vec<Bare> = match search.placed() {
        Placed::Strip(lay, strip) => {
            let limit = bin.limit.map_or(i64::MAX, |limit| limit + strip.gap);
            lay.iter()
                .filter(|l| l.y + strip.size(l).1 <= limit)
                .map(|l| {
                    let kind = &strip.kinds[l.kind];
                    let (x, y) = place(l.x, l.y);
                    let turn = kind.choices[l.choice].turn;
                    Bare { piece: kind.piece, x, y, turn, mirrored: false, on_fold: false, yields: 1, single: false }
                })
                .collect()
        }
        Placed::Nest(placements, nest) => placements
            .iter()
            .map(|p| {
                let kind = &nest.kinds[p.kind];
                let (mut x, y) = place(p.x, p.y);
                if p.way.on_fold {
                    let (width, _) = job.pieces[kind.piece].outline.extent(p.way.turn, p.way.mirrored);
                    x -= Length(width.0 / 2);
                }
                let way = p.way;
                Bare {
                    piece: kind.piece,
                    x,
                    y,
                    turn: way.turn,
                    mirrored: way.mirrored,
                    on_fold: way.on_fold,
                    yields: kind.yields,
                    single: bin.folded && !way.on_fold && kind.yields == 1,
                }
            })
            .collect(),
    };
    all.sort_by_key(|b| (b.y, b.x));
    all
}

/// Hands out copy numbers: even ones to flipped copies of pairs, the last ones to placements whose twin is spare.
struct Numbers {
    /// Free numbers of each piece, the lowest last.
    free: Vec<Vec<u32>>,
}

impl Numbers {
    fn new(job: &Job) -> Self {
        let free = (0..job.pieces.len()).map(|p| job.free_copies(p).into_iter().rev().collect()).collect();
        Self { free }
    }

    fn placement(&mut self, job: &Job, bare: &Bare) -> Placement {
        let piece = &job.pieces[bare.piece];
        let free = &mut self.free[bare.piece];
        let pairs = piece.mirror == Mirror::Pairs;
        let asymmetric = !piece.outline.is_symmetric(Turn::NONE);
        let in_pair = |n: &u32| free.contains(&(n + 1)) && !(pairs && n.is_multiple_of(2));
        let wanted = |n: &u32| match (bare.yields, pairs && asymmetric) {
            (2, _) => in_pair(n),
            (_, true) => n.is_multiple_of(2) == bare.mirrored,
            (_, false) => true,
        };
        let found = if bare.single { free.iter().position(wanted) } else { free.iter().rposition(wanted) };
        let at = found.unwrap_or(free.len().saturating_sub(1));
        let copy = if free.is_empty() { 1 } else { free.remove(at) };
        if bare.yields == 2 {
            free.retain(|n| *n != copy + 1);
        }
        let mirrored = if pairs { copy.is_multiple_of(2) } else { bare.mirrored };
        Placement {
            piece: piece.id.clone(),
            copy,
            x: bare.x,
            y: bare.y,
            turn: bare.turn,
            mirrored,
            on_fold: bare.on_fold,
            single: bare.single,
        }
    }
}

/// The lay of one cloth, and whether all that is left of it is told.
fn cloth_lay(
    job: &Job,
    bin: &Bin,
    search: &BinSearch<'_>,
    placements: Vec<Placement>,
    whole: bool,
) -> (ClothLay, bool) {
    let cloth = &job.cloths[bin.cloth];
    let pieces = job.pieces_by_id();
    let known = |p: &Placement| pieces.get(p.piece.as_str()).copied();
    let highest = placements.iter().filter_map(|p| Some(p.y + known(p)?.outline.extent(p.turn, p.mirrored).1)).max();
    let laid = highest.unwrap_or_default() - bin.low;
    let needed_length = cloth.needed_length(laid);
    let buy_length = cloth.buy_length(needed_length);
    let there = match bin.limit {
        Some(limit) if cloth.whole_length().is_some() => Length(limit),
        _ => buy_length.shrunk(cloth.shrink.along).max(needed_length) - cloth.trim,
    };
    let usable = Region { x: bin.left.0, y: bin.low.0, width: bin.width, height: there.0 };
    let outlines: Vec<Vec<Point>> = placements.iter().filter_map(|p| Some(outline_on_cloth(known(p)?, p))).collect();
    let moved = |parts: &[Vec<Point>]| -> Vec<Vec<Point>> {
        let off = Point::new(bin.left, bin.low);
        parts.iter().map(|c| c.iter().map(|p| Point::new(p.x + off.x, p.y + off.y)).collect()).collect()
    };
    let missing = bin.edge.as_ref().map_or_else(Vec::new, |e| moved(&e.missing));
    let beyond = bin.edge.as_ref().map_or_else(Vec::new, |e| moved(&e.beyond));
    let mut taken: Vec<Region> = taken_by(&pieces, &placements);
    taken.extend(missing.iter().chain(&beyond).flat_map(|c| bands(c)));
    let mut offcuts = keepable(usable, &taken, job.rules.keep);
    let mut told = true;
    if whole && placements.len() <= MOST_OUTLINED {
        let around = match &bin.edge {
            Some(edge) => moved(std::slice::from_ref(&edge.hull)),
            None => vec![corners_of(usable)],
        };
        let off: Vec<Vec<Point>> = outlines.iter().chain(&missing).cloned().collect();
        match remaining(&around, &off, &offcuts) {
            Some(rest) => offcuts.extend(rest),
            None => told = false,
        }
    }
    let copies = |p: &Placement| known(p).map_or(1, |piece| piece.yielded_by(p, cloth));
    let area: Area = placements
        .iter()
        .filter_map(|p| Some((p, known(p)?)))
        .fold(Area(0), |sum, (p, piece)| sum + Area(piece.outline.area().0 * i128::from(copies(p))));
    // Of more than lies here nothing is said.
    let proof = if search.over() { Proof::default() } else { search.proof.clone() };
    let lay = ClothLay {
        cloth: cloth.id.clone(),
        copy: bin.copy,
        needed_length,
        buy_length,
        used_share: area.share_of(whole_area(cloth, buy_length.shrunk(cloth.shrink.along).max(needed_length))),
        placements,
        offcuts,
        bound: cloth.buy_length(cloth.needed_length(Length(proof.bound))),
        proof: proof.certificate(),
        through: search.through(),
    };
    (lay, told)
}

/// What the pieces of `on` leave of the scrap it is laid on, as washed: outlines, largest first, crumbs left out. Empty
/// where it is no scrap, or where that cannot be worked out.
pub fn rest_of_scrap(job: &Job, on: &ClothLay) -> Vec<Vec<Point>> {
    let Some(cloth) = job.cloth(&on.cloth) else { return vec![] };
    let Form::Scrap { outline, .. } = &cloth.form else { return vec![] };
    let whole: Vec<Point> = outline.corners().into_iter().map(|p| cloth.washed(p)).collect();
    let pieces = job.pieces_by_id();
    let known = |p: &Placement| pieces.get(p.piece.as_str()).copied();
    let taken: Vec<Vec<Point>> = on.placements.iter().filter_map(|p| Some(outline_on_cloth(known(p)?, p))).collect();
    let left = remaining(&[whole], &taken, &[]).unwrap_or_default();
    left.iter().map(Offcut::corners).collect()
}

/// What the pieces of `on` leave of a part of the cloth: outlines, largest first, crumbs left out. Empty where that cannot
/// be worked out, and where more than 60 pieces lie in the part: it is looked at with every view of the lay.
pub fn rest_of_region(job: &Job, on: &ClothLay, part: Region) -> Vec<Rest> {
    let pieces = job.pieces_by_id();
    let in_it = |p: &Placement| {
        let (width, height) = pieces.get(p.piece.as_str())?.outline.extent(p.turn, p.mirrored);
        let beside = (p.x + width).0 <= part.x || p.x.0 >= part.right();
        let beyond = (p.y + height).0 <= part.y || p.y.0 >= part.top();
        (!beside && !beyond).then(|| pieces.get(p.piece.as_str()).map(|piece| outline_on_cloth(piece, p)))?
    };
    let taken: Vec<Vec<Point>> = on.placements.iter().filter_map(in_it).collect();
    if taken.len() > MOST_IN_A_PART {
        return vec![];
    }
    rests(&corners_of(part), &taken)
}

/// The area of all cloth that lies on the table for `on`, as washed.
pub fn area_on_table(job: &Job, on: &ClothLay) -> Option<Area> {
    let cloth = job.cloth(&on.cloth)?;
    Some(whole_area(cloth, on.lies(cloth)))
}

/// The area of the pieces of `on`, and of the cloth they are cut from, as washed: of a length as much as is bought or used.
pub fn areas(job: &Job, on: &ClothLay) -> Option<(Area, Area)> {
    let cloth = job.cloth(&on.cloth)?;
    let pieces = job.pieces_by_id();
    let area = |p: &Placement| {
        let piece = *pieces.get(p.piece.as_str())?;
        Some(piece.outline.area().0 * i128::from(piece.yielded_by(p, cloth)))
    };
    let there = on.buy_length.shrunk(cloth.shrink.along).max(on.needed_length);
    Some((Area(on.placements.iter().filter_map(area).sum()), whole_area(cloth, there)))
}

/// The area of the cloth, both layers of it.
fn whole_area(cloth: &Cloth, there: Length) -> Area {
    match &cloth.form {
        Form::Scrap { outline, .. } => {
            let left = |ppm: u32| 1.0 - f64::from(ppm) / 1e6;
            Area((outline.area().0 as f64 * left(cloth.shrink.along) * left(cloth.shrink.across)) as i128)
        }
        Form::Sheet { height, .. } => {
            Area((cloth.washed_width() * height.shrunk(cloth.shrink.along)).0 * i128::from(cloth.layers))
        }
        Form::Roll { .. } => Area((cloth.washed_width() * there).0 * i128::from(cloth.layers)),
    }
}

/// The corners of a placed piece on its cloth; of one on the fold only what lies right of it.
pub(crate) fn outline_on_cloth(piece: &JobPiece, p: &Placement) -> Vec<Point> {
    let corners = piece.outline.placed(p.turn, p.mirrored);
    corners.into_iter().map(|c| Point::new(c.x + p.x, c.y + p.y)).collect()
}

/// Boxes that cover the pieces: one for a rectangle, bands of its convex parts otherwise; of pieces that lie alike they
/// are worked out once.
fn taken_by(pieces: &HashMap<&str, &JobPiece>, placements: &[Placement]) -> Vec<Region> {
    let mut known: HashMap<(&str, Turn, bool), Vec<Region>> = HashMap::default();
    let mut taken = Vec::new();
    for p in placements {
        let boxes = known.entry((&p.piece, p.turn, p.mirrored)).or_insert_with(|| {
            let piece = pieces.get(p.piece.as_str());
            let corners = piece.map_or_else(Vec::new, |piece| piece.outline.placed(p.turn, p.mirrored));
            crate::shape::convex_parts(&corners).iter().flat_map(|part| bands(part)).collect()
        });
        taken.extend(boxes.iter().map(|r| Region { x: r.x + p.x.0, y: r.y + p.y.0, ..*r }));
    }
    taken
}

fn corners_of(r: Region) -> Vec<Point> {
    let (x, y, right, top) = (Length(r.x), Length(r.y), Length(r.right()), Length(r.top()));
    vec![Point::new(x, y), Point::new(right, y), Point::new(right, top), Point::new(x, top)]
}

/// Says where outlines were not followed.
fn plainer_outlines(searches: &[&BinSearch<'_>]) -> Option<String> {
    let by = match searches.iter().map(|s| s.detail()).max()? {
        Detail::Exact | Detail::RoundOnce => return None,
        Detail::Hull => "as if bays in their outlines were filled",
        Detail::Boxes => "by the boxes around them",
    };
    Some(format!("There are too many different outlines to nest, so the pieces are placed {by}."))
}

fn warnings(job: &Job, cloths: &[ClothLay]) -> Vec<String> {
    let mut found = Vec::new();
    for lay in cloths {
        let Some(cloth) = job.cloth(&lay.cloth) else { continue };
        let there: HashSet<&str> = lay.placements.iter().map(|p| p.piece.as_str()).collect();
        for piece in &job.pieces {
            if there.contains(piece.id.as_str()) && allowed_turns(piece.grain, piece.print, cloth).against_grain {
                found.push(format!(
                    "{} is turned against the grain on {}, so that the print stands up.",
                    piece.name, cloth.name
                ));
            }
        }
        let there = lay.buy_length.shrunk(cloth.shrink.along);
        let roll = matches!(cloth.form, Form::Roll { .. });
        if roll && !cloth.owned && cloth.trim == Length::ZERO && there - lay.needed_length < Length::INCH / 2 {
            found.push(format!(
                "This layout needs the full length of {}. If the shop cuts the end crooked, or the cloth shrinks, the pieces no longer fit.",
                cloth.name
            ));
        }
        let one_way = cloth.layers == 2
            && cloth.direction() == crate::cloth::Print::OneWay
            && cloth.up == crate::cloth::PrintUp::Across;
        if one_way {
            found.push(format!(
                "{} lies folded lengthwise. Its print stands on its head in the lower layer, so pieces that must stand upright use the upper layer only.",
                cloth.name
            ));
        }
    }
    found.dedup();
    found
}
