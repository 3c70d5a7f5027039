//! Scraps: any outline, with flaws, told apart by the letter on their pin.
//!
//! A scrap is drawn by its corners and fixed by what is measured from corner to corner; see [`fit`](self::fit). The
//! threads run up (along y) as they run along the selvedge of a length.

mod check;
mod fit;
mod shapes;

use super::at_hand::exactly;
use super::said::both_sides;
use crate::FieldProblem;
use crate::measure::{LONGEST, Length, Ruler, System, parse_length, show_size};
use crate::problem::as_sentence;
use crate::shape::{Outline, Point, holds_upright, largest_upright, simplified};
pub use check::MOST_FLAWS;
pub(crate) use check::check_scrap;
pub use fit::{Fit, Unfit, fit};
use serde::{Deserialize, Serialize};
pub use shapes::ScrapShape;

/// Corners a scrap is drawn with at most; one that is traced is told by fewer.
pub const MOST_SCRAP_CORNERS: usize = 60;

/// Distances that are taken of a scrap at most.
const MOST_MEASURED: usize = 80;

/// Flaws that are marked on a scrap at most.
const MOST_MARKED: usize = 40;

/// How close an outline of more corners is told.
const CLOSE: Length = Length::MILLIMETRE;

/// What makes a place of no use.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum FlawKind {
    /// Nothing is there.
    Hole,
    /// A stain, a burn, a faded place.
    Stain,
    /// A seam, or the holes of one.
    OldSeam,
    /// Thin or fluffy.
    Worn,
}

impl FlawKind {
    /// All of them, as they are offered.
    pub const ALL: [Self; 4] = [Self::Hole, Self::Stain, Self::OldSeam, Self::Worn];

    /// In a word or two.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Hole => "hole",
            Self::Stain => "stain",
            Self::OldSeam => "old seam",
            Self::Worn => "worn place",
        }
    }
}

/// A place on a scrap that nothing is cut from.
#[derive(Clone, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Flaw {
    /// What it is.
    pub kind: FlawKind,
    /// Its corners, in the scrap's axes.
    pub corners: Vec<Point>,
}

/// What makes an edge of a scrap worth keeping.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum EdgeKind {
    /// Turned and stitched already.
    Hem,
    /// A printed, woven or embroidered border.
    Border,
    /// With belt loops on it.
    Loops,
    /// Fringed.
    Fringe,
}

impl EdgeKind {
    /// All of them, as they are offered.
    pub const ALL: [Self; 4] = [Self::Hem, Self::Border, Self::Loops, Self::Fringe];

    /// In a word or two.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Hem => "hem",
            Self::Border => "border",
            Self::Loops => "belt loops",
            Self::Fringe => "fringe",
        }
    }
}

/// An edge worth keeping: the side from one corner to the next.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct KeptEdge {
    /// What it is.
    pub kind: EdgeKind,
    /// The corner it begins at, counted from 0.
    pub side: usize,
}

/// A distance that was measured, from corner to corner, both counted from 0.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Measured {
    /// From this corner.
    pub from: usize,
    /// To this one.
    pub to: usize,
    /// What the ruler says.
    pub length: Length,
}

/// One scrap. Its lower left corner is the origin; the threads run up.
#[derive(Clone, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Scrap {
    /// The letter on its pin; no other scrap of its cloth has it.
    pub label: String,
    /// Its edge.
    pub outline: Outline,
    /// Places that cannot be used.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub flaws: Vec<Flaw>,
    /// What was measured of it; it may be drawn without.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub measured: Vec<Measured>,
    /// Edges that are worth keeping.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub kept: Vec<KeptEdge>,
}

/// The letters of a corner, counted from 0: A to Z, then AA.
pub fn letters(n: usize) -> String {
    let last = char::from(b'A' + (n % 26) as u8).to_string();
    if n < 26 { last } else { letters(n / 26 - 1) + &last }
}

/// The first letter that is not among `taken`.
pub fn free_letters<'a>(taken: impl Iterator<Item = &'a str> + Clone) -> String {
    (0..).map(letters).find(|l| !taken.clone().any(|t| t == l)).unwrap_or_default()
}

impl Scrap {
    /// Whether it can stand for `other`, whatever its letter and however it was measured.
    pub fn is_like(&self, other: &Self) -> bool {
        (&self.outline, &self.flaws, &self.kept) == (&other.outline, &other.flaws, &other.kept)
    }

    /// Of these corners, moved so that the lower left is the origin.
    ///
    /// # Errors
    /// What is wrong with the outline.
    pub fn of(label: String, corners: Vec<Point>) -> Result<Self, crate::shape::OutlineError> {
        let outline = Outline::polygon(corners)?;
        let mut scrap = Self { label, outline, flaws: vec![], measured: vec![], kept: vec![] };
        scrap.move_to_origin();
        Ok(scrap)
    }

    /// What is left of a cloth within these `corners`, told by fewer where they are more than a scrap has, without a letter yet, those of its `flaws` that are on it, and what is
    /// left of the edges that were `kept`, from point to point. Nothing where the corners are no outline.
    pub(crate) fn remnant(corners: Vec<Point>, flaws: &[Flaw], kept: &[(EdgeKind, [Point; 2])]) -> Option<Self> {
        let few = corners.len() <= MOST_SCRAP_CORNERS;
        let outline = Outline::polygon(if few { corners } else { simplified(&corners, CLOSE) }).ok()?;
        let on_it = |f: &&Flaw| {
            let flaw = Outline::polygon(f.corners.clone());
            flaw.is_ok_and(|flaw| check_scrap(&outline, std::slice::from_ref(&flaw)).is_ok())
        };
        let flaws = flaws.iter().filter(on_it).cloned().collect();
        let corners = outline.corners();
        let still = |side: usize| {
            let [a, b] = [corners[side], corners[(side + 1) % corners.len()]];
            let (kind, _) = kept.iter().find(|(_, edge)| on_side(a, edge) && on_side(b, edge))?;
            Some(KeptEdge { kind: *kind, side })
        };
        let kept = (0..corners.len()).filter_map(still).collect();
        let mut scrap = Self { label: String::new(), outline, flaws, measured: vec![], kept };
        scrap.move_to_origin();
        Some(scrap)
    }

    /// Its corners, in the order of their letters.
    pub fn corners(&self) -> Vec<Point> {
        self.outline.corners()
    }

    /// The draft that comes to it, what is measured as it would be typed.
    pub fn draft(&self, system: System) -> ScrapDraft {
        let own = format!(" {}", system.symbol());
        let said = |length: Length| exactly(length, system, show_size).trim_end_matches(own.as_str()).to_owned();
        let typed = |m: &Measured| TypedDistance { from: m.from, to: m.to, length: said(m.length) };
        ScrapDraft {
            corners: self.corners(),
            measured: self.measured.iter().map(typed).collect(),
            flaws: self.flaws.clone(),
            kept: self.kept.clone(),
            ..ScrapDraft::default()
        }
    }

    /// How far it is from one corner to another, both counted from 0, to the nearest unit.
    pub fn side(&self, from: usize, to: usize) -> Length {
        let corners = self.corners();
        let (a, b) = (corners[from], corners[to]);
        let (dx, dy) = ((a.x - b.x).0 as f64, (a.y - b.y).0 as f64);
        Length((dx * dx + dy * dy).sqrt().round() as i64)
    }

    /// Width and height of the largest upright rectangle found on it, clear of the flaws; nothing where none is.
    pub fn holds(&self) -> Option<(Length, Length)> {
        let holes: Vec<Vec<Point>> = self.flaws.iter().map(|f| f.corners.clone()).collect();
        largest_upright(&self.corners(), &holes).map(|[.., width, height]| (width, height))
    }

    /// Whether an upright rectangle `width` × `height` can be cut from it.
    pub fn holds_size(&self, width: Length, height: Length) -> bool {
        let holes: Vec<Vec<Point>> = self.flaws.iter().map(|f| f.corners.clone()).collect();
        holds_upright(&self.corners(), &holes, width, height)
    }

    /// The outlines of its flaws.
    pub fn flaw_outlines(&self) -> Vec<Outline> {
        self.flaws.iter().filter_map(|f| Outline::polygon(f.corners.clone()).ok()).collect()
    }

    fn move_to_origin(&mut self) {
        let low = |of: fn(&Point) -> Length| self.corners().iter().map(of).min().unwrap_or_default();
        let (x, y) = (low(|p| p.x), low(|p| p.y));
        let moved = |p: &Point| Point::new(p.x - x, p.y - y);
        self.outline = Outline::Polygon(self.corners().iter().map(moved).collect());
        for flaw in &mut self.flaws {
            flaw.corners = flaw.corners.iter().map(moved).collect();
        }
    }
}

/// A distance as it is typed.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct TypedDistance {
    /// From this corner, counted from 0.
    pub from: usize,
    /// To this one.
    pub to: usize,
    /// As typed; empty where it is not measured.
    pub length: String,
}

/// A scrap as it is drawn.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ScrapDraft {
    /// Its corners, either way round, in eighths of a micrometre.
    pub corners: Vec<Point>,
    /// What is measured.
    #[serde(default)]
    pub measured: Vec<TypedDistance>,
    /// What cannot be used.
    #[serde(default)]
    pub flaws: Vec<Flaw>,
    /// Edges that are worth keeping.
    #[serde(default)]
    pub kept: Vec<KeptEdge>,
    /// A line along the threads, from its foot to its head, where they do not run up already.
    #[serde(default)]
    pub threads: Option<ThreadLine>,
    /// A flaw that is to be as large as this.
    #[serde(default)]
    pub flaw_size: Option<TypedFlaw>,
}

/// A line along the threads.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ThreadLine {
    /// Where it begins.
    pub foot: Point,
    /// Where it points.
    pub head: Point,
}

/// How large a flaw is, as it is typed.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct TypedFlaw {
    /// Which of the flaws, counted from 0.
    pub flaw: usize,
    /// Along the threads and across: `2 x 1½`, or one size for both.
    pub size: String,
}

impl ScrapDraft {
    /// The scrap with this letter that the draft comes to, and what its measured distances come to.
    ///
    /// # Errors
    /// The first thing that is wrong: corners, a distance (`measured[2]`), a flaw, the line along the threads.
    pub fn read(&self, label: String, (system, ruler): (System, Ruler)) -> Result<(Scrap, Fit), FieldProblem> {
        self.check_counts()?;
        let measured = self.distances(system)?;
        let found = fit(&self.corners, &measured, ruler.step()).map_err(|unfit| self.unfit(&unfit, ruler))?;
        // The flaws shift with the middle of the scrap.
        let middle = |of: &[Point]| {
            let n = of.len() as i64;
            Point::new(of.iter().map(|p| p.x).sum::<Length>() / n, of.iter().map(|p| p.y).sum::<Length>() / n)
        };
        let (was, is) = (middle(&self.corners), middle(&found.corners));
        let follow = |p: &Point| Point::new(p.x + is.x - was.x, p.y + is.y - was.y);
        let mut flaws = self.sized_flaws(system)?;
        flaws.iter_mut().for_each(|f| f.corners = f.corners.iter().map(follow).collect());
        let mut corners = found.corners.clone();
        if let Some(ThreadLine { foot, head }) = self.threads {
            let turned = upright(foot, head)?;
            corners.iter_mut().for_each(|p| *p = turned(*p));
            flaws.iter_mut().for_each(|f| f.corners.iter_mut().for_each(|p| *p = turned(*p)));
        }
        let outline = Outline::polygon(corners.clone())
            .map_err(|e| FieldProblem::new("corners", "", sentence(&e, self.corners.len())))?;
        // Clockwise corners were turned round; their letters stay where they are.
        if outline.corners() != corners {
            if outline.corners().len() != corners.len() {
                return Err(FieldProblem::new("corners", "", "Two corners lie on one another: move or remove one."));
            }
            let anticlockwise = self.reversed();
            return anticlockwise.read(label, (system, ruler));
        }
        let mut scrap = Scrap { label, outline, flaws, measured, kept: self.kept.clone() };
        scrap.move_to_origin();
        scrap.check(ruler)?;
        let corners = scrap.corners();
        Ok((scrap, Fit { corners, ..found }))
    }

    fn check_counts(&self) -> Result<(), FieldProblem> {
        let n = self.corners.len();
        if !(3..=MOST_SCRAP_CORNERS).contains(&n) {
            let message = format!("{n} corners: a scrap is drawn with 3 to {MOST_SCRAP_CORNERS}.");
            return Err(FieldProblem::new("corners", n, message));
        }
        let reach = |p: &Point| p.x.0.abs() <= LONGEST.0 * 2 && p.y.0.abs() <= LONGEST.0 * 2;
        let places = self.flaws.iter().flat_map(|f| &f.corners).chain(&self.corners);
        let ends = self.threads.iter().flat_map(|t| [&t.foot, &t.head]);
        if let Some(far) = places.chain(ends).find(|p| !reach(p)) {
            return Err(FieldProblem::new("corners", far.x.0, "A corner lies further away than any cloth is long."));
        }
        for (count, most, what) in
            [(self.measured.len(), MOST_MEASURED, "measured"), (self.flaws.len(), MOST_MARKED, "flaws")]
        {
            if count > most {
                return Err(FieldProblem::new(what, count, format!("{count}: at most {most} are taken of a scrap.")));
            }
        }
        for (k, edge) in self.kept.iter().enumerate() {
            let again = self.kept[..k].iter().any(|other| other.side == edge.side);
            if edge.side >= n || again {
                let message = if again { "One edge is kept twice." } else { "There is no such side to keep." };
                return Err(FieldProblem::new(format!("kept[{k}]"), edge.side, message));
            }
        }
        Ok(())
    }

    /// The flaws, the one that was given a size as large as that about the same middle.
    fn sized_flaws(&self, system: System) -> Result<Vec<Flaw>, FieldProblem> {
        let mut flaws = self.flaws.clone();
        let Some(TypedFlaw { flaw, size }) = &self.flaw_size else { return Ok(flaws) };
        let problem = |message: String| FieldProblem::new(format!("flaws[{flaw}]"), size, message);
        let Some(one) = flaws.get_mut(*flaw) else { return Err(problem("There is no such flaw any more.".into())) };
        let (along, across) = both_sides(size, system).map_err(|why| problem(format!("“{size}”: {why}")))?;
        if along > LONGEST || across > LONGEST {
            return Err(problem("A flaw is at most 20 m long.".into()));
        }
        let range = |of: fn(&Point) -> Length| {
            let all = || one.corners.iter().map(of);
            all().min().unwrap_or_default() + all().max().unwrap_or_default()
        };
        let (x, y) = ((range(|p| p.x) - across) / 2, (range(|p| p.y) - along) / 2);
        one.corners = ScrapShape::Rectangle.corners(across, along, None);
        one.corners.iter_mut().for_each(|p| *p = Point::new(p.x + x, p.y + y));
        Ok(flaws)
    }

    fn distances(&self, system: System) -> Result<Vec<Measured>, FieldProblem> {
        let n = self.corners.len();
        let mut found: Vec<Measured> = vec![];
        for (k, typed) in self.measured.iter().enumerate() {
            let problem = |message: String| FieldProblem::new(format!("measured[{k}]"), &typed.length, message);
            if typed.from >= n || typed.to >= n || typed.from == typed.to {
                return Err(problem("It is measured between corners that are not there.".into()));
            }
            if typed.length.trim().is_empty() {
                continue;
            }
            let name = between(typed.from, typed.to);
            let length =
                parse_length(&typed.length, system).map_err(|e| problem(as_sentence(format!("{name}: {e}"))))?;
            if length <= Length::ZERO || length > LONGEST {
                return Err(problem(format!("{name}: a distance here is more than 0 and at most 20 m.")));
            }
            let pair = |m: &Measured| (m.from.min(m.to), m.from.max(m.to));
            let new = Measured { from: typed.from, to: typed.to, length };
            if found.iter().any(|m| pair(m) == pair(&new)) {
                return Err(problem(format!("{name} is measured twice.")));
            }
            found.push(new);
        }
        Ok(found)
    }

    fn unfit(&self, unfit: &Unfit, ruler: Ruler) -> FieldProblem {
        let Measured { from, to, length } = unfit.worst;
        let at = self.measured.iter().position(|m| (m.from, m.to) == (from, to)).unwrap_or_default();
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        let message = format!(
            "These distances cannot all be right: with the others {} comes to {}, not {}. Measure again.",
            between(from, to),
            show(unfit.comes),
            show(length)
        );
        FieldProblem::new(format!("measured[{at}]"), show(length), message)
    }

    /// The same the other way round; every corner keeps what is measured to it.
    fn reversed(&self) -> Self {
        let last = self.corners.len() - 1;
        let mut other = self.clone();
        other.corners.reverse();
        other.measured.iter_mut().for_each(|m| (m.from, m.to) = (last - m.from, last - m.to));
        let n = last + 1;
        other.kept.iter_mut().for_each(|k| k.side = (last + n - (k.side + 1)) % n);
        other
    }
}

impl Scrap {
    fn check(&self, ruler: Ruler) -> Result<(), FieldProblem> {
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        let (width, height) = self.outline.size();
        if width > LONGEST || height > LONGEST {
            let message =
                format!("It is {} × {}: at most {} is planned with.", show(width), show(height), show(LONGEST));
            return Err(FieldProblem::new("corners", "", message));
        }
        for (k, flaw) in self.flaws.iter().enumerate() {
            if let Err(e) = Outline::polygon(flaw.corners.clone()) {
                return Err(FieldProblem::new(
                    format!("flaws[{k}]"),
                    flaw.kind.name(),
                    sentence(&e, flaw.corners.len()),
                ));
            }
        }
        check_scrap(&self.outline, &self.flaw_outlines()).map_err(|e| {
            let flaw = e.field.starts_with("flaws[");
            let said =
                if flaw { "A flaw lies beside the scrap: move it onto it, or remove it." } else { "It is a sliver." };
            FieldProblem { message: said.into(), ..e }
        })?;
        if self.holds().is_none_or(|(w, h)| w < ruler.step() || h < ruler.step()) {
            let flawed =
                if self.flaws.is_empty() { "It is too thin" } else { "Between its flaws and edges it is too thin" };
            return Err(FieldProblem::new("corners", "", format!("{flawed}: nothing can be cut from it.")));
        }
        Ok(())
    }
}

/// Whether `p` lies on the side from one point to the other, to two units, as corners are rounded to.
fn on_side(p: Point, [a, b]: &[Point; 2]) -> bool {
    let f = |l: Length| l.0 as f64;
    let (dx, dy) = (f(b.x - a.x), f(b.y - a.y));
    let long = dx.hypot(dy).max(1.0);
    let along = (f(p.x - a.x) * dx + f(p.y - a.y) * dy) / long;
    let off = (f(p.x - a.x) * dy - f(p.y - a.y) * dx) / long;
    off.abs() <= 2.0 && (-2.0..=long + 2.0).contains(&along)
}

/// `A–C`.
pub fn between(from: usize, to: usize) -> String {
    let (a, b) = (from.min(to), from.max(to));
    // The last side is spoken of on the way round.
    format!("{}–{}", letters(a), letters(b))
}

/// What is wrong with an outline of `n` corners.
fn sentence(error: &crate::shape::OutlineError, n: usize) -> String {
    use crate::shape::OutlineError as E;
    match error {
        E::Crosses(a, b) => {
            let side = |k: usize| between(k - 1, k % n);
            format!("Side {} crosses side {}: move a corner.", side(*a), side(*b))
        }
        E::NoArea => "The corners lie on one line: there is no cloth between them.".into(),
        E::TooFewCorners(_) => "Two corners lie on one another: a scrap has at least three.".into(),
        other => format!("Its outline does not stand: {other}."),
    }
}

/// The turn that makes the line from `foot` to `head` point up.
fn upright(foot: Point, head: Point) -> Result<impl Fn(Point) -> Point, FieldProblem> {
    let (dx, dy) = ((head.x - foot.x).0 as f64, (head.y - foot.y).0 as f64);
    let long = (dx * dx + dy * dy).sqrt();
    if long < Length::MILLIMETRE.0 as f64 {
        return Err(FieldProblem::new("threads", "", "The line along the threads is too short to tell a direction."));
    }
    let (ux, uy) = (dx / long, dy / long);
    let whole = |v: f64| Length(v.round() as i64);
    Ok(move |p: Point| {
        let (x, y) = (p.x.0 as f64, p.y.0 as f64);
        Point::new(whole(x * uy - y * ux), whole(x * ux + y * uy))
    })
}
