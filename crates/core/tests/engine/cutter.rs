//! Somebody at the table who has only the printed steps: cloth is polygons, every sentence is read word by word, and the
//! figures are carried out with ruler, cutter and templates. It knows nothing of the planner.

use geo::{Area, BooleanOps, BoundingRect, Coord, LineString, MultiPolygon, Polygon, Rect, Scale, Translate};
use std::collections::BTreeMap;

/// In inches or centimetres: places between two lines of a ruler are printed to 1/64 in or 0.1 mm, which is off by half of
/// that at most, twice where two of them add up.
pub const CLOSE: f64 = 0.016;

/// What has come off the table under a piece's label.
#[derive(Clone, Debug)]
pub struct Obtained {
    pub label: String,
    pub cloth: MultiPolygon<f64>,
    /// It lay in two layers that were not parted: opened out it is this and its mirror image.
    pub on_fold: bool,
}

pub struct Cutter {
    /// The parts on the table, by their letters.
    parts: BTreeMap<String, MultiPolygon<f64>>,
    kept: Vec<String>,
    drawn: BTreeMap<String, MultiPolygon<f64>>,
    /// A cut that stopped: across, and from where to where along.
    pending: Option<(String, f64, f64, f64)>,
    pub obtained: Vec<Obtained>,
    folded: bool,
    unit: &'static str,
    /// Smallest line of the ruler in `unit`.
    line: f64,
    /// Outlines of templates by piece, as they stand on the bag.
    templates: BTreeMap<String, Polygon<f64>>,
    /// Corners of a scrap, in the order of their letters.
    corners: Vec<Coord<f64>>,
    /// Selvedge and trimmed end, which a rectangle to keep is stated without.
    edges: (f64, f64),
}

type Told = Result<(), String>;

fn rect(x: f64, y: f64, w: f64, h: f64) -> Polygon<f64> {
    Rect::new((x, y), (x + w, y + h)).to_polygon()
}

/// `18½`, `2³⁄₁₆`, `12.5`: exactly as printed.
pub fn figure(text: &str) -> Result<f64, String> {
    let bad = || format!("not a figure: “{text}”");
    if let Ok(plain) = text.parse::<f64>() {
        return Ok(plain);
    }
    let digits: String = text.chars().take_while(char::is_ascii_digit).collect();
    let whole: f64 = if digits.is_empty() { 0.0 } else { digits.parse().map_err(|_| bad())? };
    let rest = &text[digits.len()..];
    let small = |c: char| "⁰¹²³⁴⁵⁶⁷⁸⁹".chars().chain("₀₁₂₃₄₅₆₇₈₉".chars()).position(|d| d == c).map(|n| n % 10);
    let number = |s: &str| s.chars().try_fold(0.0, |n, c| Some(n * 10.0 + small(c)? as f64));
    let part = match rest {
        "½" => 0.5,
        "¼" => 0.25,
        "¾" => 0.75,
        "⅛" => 0.125,
        "⅜" => 0.375,
        "⅝" => 0.625,
        "⅞" => 0.875,
        other => {
            let (over, under) = other.split_once('⁄').ok_or_else(bad)?;
            number(over).ok_or_else(bad)? / number(under).ok_or_else(bad)?
        }
    };
    Ok(whole + part)
}

impl Cutter {
    /// At the table with a cloth of `size`, or a scrap with `corners`, as it lies there washed and pressed; what the
    /// heading says of it is checked against that.
    pub fn new(
        opening: &str,
        (width, length): (f64, f64),
        corners: Vec<Coord<f64>>,
        (unit, line): (&'static str, f64),
        templates: BTreeMap<String, Polygon<f64>>,
        edges: (f64, f64),
    ) -> Result<Self, String> {
        let folded = opening.contains("in two layers");
        let mut parts = BTreeMap::new();
        if corners.is_empty() {
            let text = opening.strip_prefix("A is the whole cloth, ").ok_or(format!("no size of A: {opening}"))?;
            let (w, h) = sizes(&text[..text.find(unit).ok_or("no unit")?])?;
            let close = |a: f64, b: f64| b - a > -CLOSE && b - a < line + CLOSE;
            if !close(w, width) || !close(h, length) {
                return Err(format!("A is said to be {w} × {h}, and is {width} × {length}"));
            }
            parts.insert("A".to_owned(), rect(0.0, 0.0, width, length).into());
        } else {
            parts.insert("A".to_owned(), Polygon::new(LineString::new(corners.clone()), vec![]).into());
        }
        Ok(Self {
            parts,
            kept: vec![],
            drawn: BTreeMap::new(),
            pending: None,
            obtained: vec![],
            folded,
            unit,
            line,
            templates,
            corners,
            edges,
        })
    }

    /// What lies on the table and is neither kept nor waste.
    pub fn uncut(&self) -> Vec<&String> {
        self.parts.keys().filter(|k| !self.kept.contains(k)).collect()
    }

    /// `5 in from …`: the length, and what follows.
    fn length<'a>(&self, text: &'a str) -> Result<(f64, &'a str), String> {
        let (number, rest) = text.split_once(' ').ok_or(format!("no length in “{text}”"))?;
        let rest = rest.strip_prefix(self.unit).ok_or(format!("not in {}: “{text}”", self.unit))?;
        Ok((figure(number)?, rest))
    }

    fn part(&self, name: &str) -> Result<MultiPolygon<f64>, String> {
        if self.kept.iter().any(|k| k == name) {
            return Err(format!("part {name} is to be kept, and is cut"));
        }
        self.parts.get(name).cloned().ok_or(format!("no part {name} lies on the table"))
    }

    /// Carries out one step.
    pub fn step(&mut self, how: &str, then: &[String]) -> Told {
        // Where a motif decides how much comes off, it is about as much as the plan keeps free.
        if let Some((first, _)) = how.split_once(" so that the middle of a motif lies ") {
            return match first.strip_prefix("Square up the end of ") {
                Some(name) => self.edge_off(name, true, self.edges.1, then),
                None => {
                    let name = first.strip_prefix("Cut the selvedge off ").ok_or("off what?")?;
                    self.edge_off(name, false, self.edges.0, then)
                }
            };
        }
        if let Some(rest) = how.strip_prefix("Square up the end of ") {
            let (name, rest) = rest.split_once(": trim about ").ok_or("no part")?;
            let (off, rest) = self.length(rest)?;
            expect(rest, " off the edge nearest you.")?;
            return self.edge_off(name, true, off, then);
        }
        if let Some(rest) = how.strip_prefix("Cut the selvedge off ") {
            let (name, rest) = rest.split_once(", ").ok_or("no part")?;
            let (off, rest) = self.length(rest)?;
            expect(rest, " from the left edge.")?;
            return self.edge_off(name, false, off, then);
        }
        if let Some(rest) = how.strip_prefix("Slit the fold of ") {
            return self.slit(rest.strip_suffix(", so that the two layers come apart.").ok_or("no end")?);
        }
        if let Some(rest) = how.strip_prefix("Cut out ") {
            let name = rest.strip_suffix(" along the line you drew.").ok_or("no end")?;
            return self.cut_out(name, then);
        }
        if how.starts_with("Lay the template for ") || how.starts_with("Draw ") {
            return self.mark_out(how, then);
        }
        let rest = how.strip_prefix("Cut ").ok_or(format!("not understood: “{how}”"))?;
        self.straight(rest, then)
    }

    fn edge_off(&mut self, name: &str, across: bool, off: f64, then: &[String]) -> Told {
        let part = self.part(name)?;
        let around = part.bounding_rect().ok_or("empty")?;
        let at = if across { around.min().y } else { around.min().x } + off;
        let (_, far) = self.split(&part, across, at);
        let line = then.first().ok_or("nothing is said of what remains")?;
        self.receive(name, line, far)
    }

    /// The two sides of a line across or along a part.
    fn split(&self, part: &MultiPolygon<f64>, across: bool, at: f64) -> (MultiPolygon<f64>, MultiPolygon<f64>) {
        let a = part.bounding_rect().expect("a part has a box");
        let (x, y, w, h) = (a.min().x - 1.0, a.min().y - 1.0, a.width() + 2.0, a.height() + 2.0);
        let near = if across { rect(x, y, w, at - y) } else { rect(x, y, at - x, h) };
        (part.intersection(&MultiPolygon::from(near.clone())), part.difference(&MultiPolygon::from(near)))
    }

    /// `A crosswise, 5 in from the edge nearest you. Start at the left edge and stop after 3 in.`
    fn straight(&mut self, text: &str, then: &[String]) -> Told {
        let (name, rest) = text.split_once(' ').ok_or("no part")?;
        let part = self.part(name)?;
        let (runs, rest) = rest.split_once(", ").ok_or("no direction")?;
        let across = match runs {
            "crosswise" => true,
            "lengthwise" => false,
            other => return Err(format!("neither crosswise nor lengthwise: {other}")),
        };
        let (reading, rest) = self.length(rest)?;
        let rest = rest.strip_prefix(" from ").ok_or("from where?")?;
        let (edge, stretch) = match rest.find(". Start at ") {
            Some(at) => (&rest[..at], &rest[at + 1..]),
            None => (rest.strip_suffix('.').ok_or("no end")?, ""),
        };
        let at = self.edge(&part, edge, across)? + reading;
        if stretch.is_empty() {
            if self.pending.is_some() {
                return Err("a cut that stopped was left hanging".into());
            }
            let (near, far) = self.split(&part, across, at);
            if near.unsigned_area() < 1e-4 || far.unsigned_area() < 1e-4 {
                return Err(format!("the line at {reading} does not cross {name}"));
            }
            let labels = if across { ("near side: ", "far side: ") } else { ("left side: ", "right side: ") };
            return self.both(name, then, labels, near, far);
        }
        let stretch = stretch.strip_prefix(" Start at ").ok_or("where does it start?")?;
        let (start, rest) = stretch.split_once(" and stop after ").ok_or("where does it stop?")?;
        let (long, rest) = self.length(rest)?;
        let begins = self.begins(&part, start, across, at)?;
        match (rest, self.pending.take()) {
            (".", None) if !across => {
                if !then.is_empty() {
                    return Err("the first of two cuts takes nothing off".into());
                }
                self.pending = Some((name.to_owned(), at, begins, begins + long));
                Ok(())
            }
            (", where the cut before ended.", Some((before, x, from, top))) if across => {
                if before != name || (begins + long - x).abs() > CLOSE || (top - at).abs() > CLOSE {
                    return Err(format!("the two cuts do not meet: {x}, {top} and {}, {at}", begins + long));
                }
                let a = part.bounding_rect().ok_or("empty")?;
                let quadrant = rect(a.min().x - 1.0, a.min().y - 1.0, x - a.min().x + 1.0, top - a.min().y + 1.0);
                let corner = part.intersection(&MultiPolygon::from(quadrant.clone()));
                let rest = part.difference(&MultiPolygon::from(quadrant));
                // The two stretches are all that held the corner.
                let held = self.run(&part, false, x, a.min().y, top) + self.run(&part, true, top, a.min().x, x);
                if (held - (top - from) - long).abs() > 4.0 * CLOSE {
                    return Err(format!("the corner still hangs: {held} had to be cut, {} were", top - from + long));
                }
                self.both(name, then, ("corner: ", "the rest: "), corner, rest)
            }
            _ => Err(format!("the cuts that stop do not follow each other: “{text}”")),
        }
    }

    /// How much of a line lies in the part between `from` and `to`.
    fn run(&self, part: &MultiPolygon<f64>, across: bool, at: f64, from: f64, to: f64) -> f64 {
        let thin = 1e-4;
        let strip = if across { rect(from, at, to - from, thin) } else { rect(at, from, thin, to - from) };
        part.intersection(&MultiPolygon::from(strip)).unsigned_area() / thin
    }

    /// The straight edges of a part that face the left (or the maker): where, and how long.
    fn edges(&self, part: &MultiPolygon<f64>, near: bool) -> Vec<(f64, f64)> {
        let mut found: Vec<(f64, f64)> = vec![];
        for polygon in part {
            for line in polygon.exterior().lines() {
                let (dx, dy) = (line.end.x - line.start.x, line.end.y - line.start.y);
                // Counter-clockwise, a left edge runs down and a near edge to the right.
                let wanted = if near { dy.abs() < 1e-5 && dx > CLOSE } else { dx.abs() < 1e-5 && dy < -CLOSE };
                if !wanted {
                    continue;
                }
                let (at, long) = if near { (line.start.y, dx) } else { (line.start.x, -dy) };
                match found.iter_mut().find(|(other, _)| (other - at).abs() < CLOSE) {
                    Some((_, sum)) => *sum += long,
                    None => found.push((at, long)),
                }
            }
        }
        found.sort_by(|a, b| a.0.total_cmp(&b.0));
        found
    }

    /// Where the edge lies that a reading is taken from.
    fn edge(&self, part: &MultiPolygon<f64>, told: &str, near: bool) -> Result<f64, String> {
        let part = oriented(part);
        let edges = self.edges(&part, near);
        let outermost = edges.first().ok_or("no straight edge to measure from")?;
        let inner = |told: &str| -> Result<f64, String> {
            let (long, rest) = self.length(told)?;
            expect(rest, " long")?;
            let there: Vec<_> = edges[1..].iter().filter(|e| (e.1 - long).abs() < self.line / 2.0 + CLOSE).collect();
            match there[..] {
                [only] => Ok(only.0),
                _ => Err(format!("{} inner edges are {long} long: {edges:?}", there.len())),
            }
        };
        match (told, near) {
            ("the left edge", false) | ("the edge nearest you", true) => Ok(outermost.0),
            _ if near => inner(told.strip_prefix("the inner near edge that is ").ok_or(format!("which edge? {told}"))?),
            _ => inner(told.strip_prefix("the inner left edge that is ").ok_or(format!("which edge? {told}"))?),
        }
    }

    /// Where a cut that stops begins: its line enters the part there, at an edge.
    fn begins(&self, part: &MultiPolygon<f64>, told: &str, across: bool, at: f64) -> Result<f64, String> {
        let a = part.bounding_rect().ok_or("empty")?;
        let (low, high) = if across { (a.min().x, a.max().x) } else { (a.min().y, a.max().y) };
        let thin = 1e-4;
        let strip = if across { rect(low, at, high - low, thin) } else { rect(at, low, thin, high - low) };
        let on_line = part.intersection(&MultiPolygon::from(strip));
        let first = on_line.bounding_rect().ok_or("the line does not cross the part")?.min();
        let first = if across { first.x } else { first.y };
        let outer = (first - low).abs() < CLOSE;
        match (told, outer) {
            ("the edge nearest you", true) if !across => Ok(first),
            ("the left edge", true) if across => Ok(first),
            ("the inner near edge", false) if !across => Ok(first),
            ("the inner left edge", false) if across => Ok(first),
            _ => Err(format!("it cannot start at {told}: the line begins {} in", first - low)),
        }
    }

    fn both(
        &mut self,
        name: &str,
        then: &[String],
        labels: (&str, &str),
        near: MultiPolygon<f64>,
        far: MultiPolygon<f64>,
    ) -> Told {
        let [first, second] = then else { return Err(format!("two sides lie there, {} are told", then.len())) };
        let first = first.strip_prefix(labels.0).ok_or(format!("which side is “{first}”?"))?;
        let second = second.strip_prefix(labels.1).ok_or(format!("which side is “{second}”?"))?;
        self.parts.remove(name);
        self.receive(name, first, near)?;
        self.receive(name, second, far)
    }

    /// What lies there is what is told.
    fn receive(&mut self, was: &str, told: &str, cloth: MultiPolygon<f64>) -> Told {
        if told == "waste" {
            return Ok(());
        }
        if let Some(rest) = told.strip_prefix("keep ") {
            let (name, size) = rest.split_once(", ").ok_or("no size")?;
            self.kept.push(name.to_owned());
            let fits = if let Some(size) = size.strip_suffix(" over all") {
                self.is_about(&cloth, sizes(size)?, self.line)
            } else {
                self.holds(&cloth, size)?
            };
            self.parts.insert(name.to_owned(), cloth.clone());
            return if fits {
                Ok(())
            } else {
                Err(format!("{name} is not whole at {size}: {:?}", cloth.bounding_rect()))
            };
        }
        let now = told.split_once(" is now ").filter(|(name, _)| *name == was);
        let new =
            told.split_once(", ").filter(|(name, _)| name.len() < 3 && name.chars().all(|c| c.is_ascii_uppercase()));
        if let Some((name, size)) = now.or(new) {
            let (size, corner) = match size.split_once(" with ") {
                Some((size, _)) => (size, true),
                None => (size, false),
            };
            if !self.is_about(&cloth, sizes(size)?, self.line) {
                return Err(format!("{name} is not {size}: {:?}", cloth.bounding_rect()));
            }
            let around = cloth.bounding_rect().ok_or("empty")?;
            let whole = (around.width() * around.height() - cloth.unsigned_area()).abs()
                < (around.width() + around.height()) * 1e-3;
            if whole == corner {
                return Err(format!("corners of {name} are not as told: {told}"));
            }
            if now.is_none() && self.parts.contains_key(name) {
                return Err(format!("there is a part {name} already"));
            }
            self.parts.insert(name.to_owned(), cloth);
            return Ok(());
        }
        self.obtain(told, cloth);
        Ok(())
    }

    /// A piece, or two where the cloth lies in two layers.
    fn obtain(&mut self, told: &str, cloth: MultiPolygon<f64>) {
        let at_fold = self.folded && self.edges(&oriented(&cloth), false).first().is_some_and(|e| e.0.abs() < CLOSE);
        for label in self.labels(told) {
            self.obtained.push(Obtained { label, cloth: cloth.clone(), on_fold: at_fold });
        }
    }

    /// The pieces that are named: “and” stands between two, and may stand in a name.
    fn labels(&self, told: &str) -> Vec<String> {
        let (mut found, mut label) = (vec![], String::new());
        for word in told.split(" and ") {
            label = if label.is_empty() { word.to_owned() } else { format!("{label} and {word}") };
            if self.known(&label).is_some() {
                found.push(std::mem::take(&mut label));
            }
        }
        if !label.is_empty() {
            found.push(label);
        }
        found
    }

    /// The outline of the piece a label names: `Flap`, `Flap 1 of 2`.
    fn known(&self, label: &str) -> Option<&Polygon<f64>> {
        let counted = |rest: &str| rest.starts_with(|c: char| c.is_ascii_digit()) && rest.contains(" of ");
        let is_it = |name: &str| {
            label.strip_prefix(name).is_some_and(|rest| rest.is_empty() || rest.strip_prefix(' ').is_some_and(counted))
        };
        self.templates.iter().find(|(name, _)| is_it(name)).map(|(_, outline)| outline)
    }

    fn slit(&mut self, names: &str) -> Told {
        for label in self.labels(names) {
            let one = self.obtained.iter_mut().find(|o| o.label == label && o.on_fold);
            one.ok_or(format!("{label} does not lie at the fold"))?.on_fold = false;
        }
        Ok(())
    }

    fn is_about(&self, cloth: &MultiPolygon<f64>, (w, h): (f64, f64), line: f64) -> bool {
        let Some(around) = cloth.bounding_rect() else { return false };
        let about = |told: f64, is: f64| is - told > -CLOSE && is - told < line + CLOSE;
        about(w, around.width()) && about(h, around.height())
    }

    /// Whether a rectangle of that size, or two in two layers, is whole.
    fn holds(&self, cloth: &MultiPolygon<f64>, size: &str) -> Result<bool, String> {
        let (two, size) = size.strip_prefix("2 of ").map_or((false, size), |rest| (true, rest));
        let (w, h) = sizes(size)?;
        let around = cloth.bounding_rect().ok_or("empty")?;
        let whole = (around.width() * around.height() - cloth.unsigned_area()).abs()
            < (around.width() + around.height()) * 1e-3;
        let opened = self.folded && !two;
        let wide = if opened { around.width() * 2.0 } else { around.width() };
        let (selvedge, trim) = self.edges;
        // It may be stated without a selvedge at each side and an end that is not square.
        let losses = 2.0 * selvedge + self.line + CLOSE;
        Ok(whole
            && w <= wide + CLOSE
            && h <= around.height() + CLOSE
            && wide - w <= losses
            && around.height() - h <= trim + self.line + CLOSE)
    }

    /// `Lay the template for Flap 1 of 2 on B: its left side …`, `Draw Base, 4 in wide and 7 in tall on B: …`.
    fn mark_out(&mut self, how: &str, then: &[String]) -> Told {
        let (what, place) = how.split_once(": ").ok_or("no place")?;
        let (label, outline, what) = if let Some(rest) = what.strip_prefix("Lay the template for ") {
            let (label, on) = rest.rsplit_once(" on ").map_or((rest, None), |(l, on)| (l, Some(on)));
            (label.to_owned(), self.template(label)?, on)
        } else {
            let rest = what.strip_prefix("Draw ").ok_or("draw what?")?;
            let (label, rest) = rest.split_once(", ").ok_or("no size")?;
            let (w, rest) = self.length(rest)?;
            let (h, rest) = self.length(rest.strip_prefix(" wide and ").ok_or("no height")?)?;
            let on = rest.strip_prefix(" tall").ok_or("no end")?;
            (label.to_owned(), rect(0.0, 0.0, w, h), on.strip_prefix(" on "))
        };
        let name = what.unwrap_or("A").to_owned();
        let part = self.part(&name)?;
        let (place, rest) = sentence(place);
        let (place, turned) = match place.rsplit_once(", its top ") {
            Some((place, turned)) => (place, turned),
            None => (place, "away from you"),
        };
        let (turned, face_down) = turned.strip_suffix(", wrong side up").map_or((turned, false), |t| (t, true));
        let degrees = match turned {
            "away from you" => 0.0,
            "towards the far left" => 45.0,
            "to the left" => 90.0,
            "towards the near left" => 135.0,
            "towards you" => 180.0,
            "towards the near right" => 225.0,
            "to the right" => 270.0,
            "towards the far right" => 315.0,
            other => return Err(format!("turned how? {other}")),
        };
        let lies = turned_outline(&outline, degrees, face_down);
        let lies =
            if self.corners.is_empty() { self.placed(&part, &lies, place)? } else { self.sighted(&lies, place)? };
        if lies.difference(&part).unsigned_area() > self.slack(&lies) {
            return Err(format!("{label} does not lie on {name}"));
        }
        for (other, there) in &self.drawn {
            if there.intersection(&lies).unsigned_area() > self.slack(&lies) {
                return Err(format!("{label} lies on {other}"));
            }
        }
        self.drawn.insert(label.clone(), lies);
        match rest.trim() {
            "Do not cut yet." | "Draw round it. Do not cut yet." => expect(&then.join(""), ""),
            "Cut along the line." | "Draw round it and cut along the line." => self.cut_out_of(&name, &label, then),
            other => Err(format!("then what? “{other}”")),
        }
    }

    /// How much of two pieces may overlap: on a scrap places are found to a line of the ruler.
    fn slack(&self, piece: &MultiPolygon<f64>) -> f64 {
        let around = piece.bounding_rect().map_or(0.0, |a| a.width() + a.height());
        around * if self.corners.is_empty() { CLOSE } else { self.line * 1.5 }
    }

    fn template(&self, label: &str) -> Result<Polygon<f64>, String> {
        let first = self.labels(label).into_iter().next().unwrap_or_default();
        self.known(&first).cloned().ok_or(format!("no template for {label}"))
    }

    fn placed(
        &self,
        part: &MultiPolygon<f64>,
        lies: &MultiPolygon<f64>,
        place: &str,
    ) -> Result<MultiPolygon<f64>, String> {
        let part = oriented(part);
        let corner =
            |near: bool| self.edges(&part, near).first().map(|e| e.0).ok_or("no straight edge to measure from");
        let (left, near) = place.split_once(", its near side ").ok_or("no near side")?;
        let y = corner(true)?
            + if near == "against the edge nearest you" {
                0.0
            } else {
                let (up, rest) = self.length(near)?;
                expect(rest, " from the edge nearest you")?;
                up
            };
        let around = lies.bounding_rect().ok_or("empty")?;
        if left == "its middle line on the fold" {
            if !self.folded || corner(false)?.abs() > CLOSE {
                return Err("there is no fold".into());
            }
            let moved = lies.translate(-around.center().x, y - around.min().y);
            let right = rect(0.0, around.min().y - 999.0, 9999.0, 9999.0);
            return Ok(moved.intersection(&MultiPolygon::from(right)));
        }
        let left = left.strip_prefix("its left side ").ok_or("no left side")?;
        let x = corner(false)?
            + if left == "against the left edge" {
                0.0
            } else {
                let (over, rest) = self.length(left)?;
                expect(rest, " from the left edge")?;
                over
            };
        Ok(lies.translate(x - around.min().x, y - around.min().y))
    }

    /// Two opposite corners of the piece by their distances from corners of the scrap: the piece is moved so that its two
    /// corners furthest apart come as near to those places as they can.
    fn sighted(&self, lies: &MultiPolygon<f64>, place: &str) -> Result<MultiPolygon<f64>, String> {
        let (one, other) = place.split_once(", the opposite corner ").ok_or("one corner alone")?;
        let one = self.found(one.strip_prefix("one corner ").ok_or("no corner")?)?;
        let other = self.found(other)?;
        let points: Vec<Coord<f64>> = lies.0[0].exterior().coords().copied().collect();
        let mut best: Option<(f64, f64, f64)> = None;
        for a in &points {
            for b in &points {
                for p in &one {
                    for q in &other {
                        let (dx, dy) = ((p.x + q.x - a.x - b.x) / 2.0, (p.y + q.y - a.y - b.y) / 2.0);
                        let off = (a.x + dx - p.x).hypot(a.y + dy - p.y);
                        let moved = lies.translate(dx, dy);
                        let outside = moved.difference(&self.parts["A"]).unsigned_area();
                        let wrong = off + outside;
                        if best.is_none_or(|b| wrong < b.0) {
                            best = Some((wrong, dx, dy));
                        }
                    }
                }
            }
        }
        let (wrong, dx, dy) = best.ok_or("no place")?;
        if wrong > self.slack(lies) {
            return Err(format!("the distances do not meet: off by {wrong}"));
        }
        Ok(lies.translate(dx, dy))
    }

    /// `in corner A`, `12 in from corner B and 5 in from corner C`.
    fn found(&self, told: &str) -> Result<Vec<Coord<f64>>, String> {
        let letter = |l: &str| -> Result<Coord<f64>, String> {
            let n = l.bytes().fold(0usize, |n, b| n * 26 + usize::from(b - b'A') + 1) - 1;
            self.corners.get(n).copied().ok_or(format!("the scrap has no corner {l}"))
        };
        if let Some(l) = told.strip_prefix("in corner ") {
            return Ok(vec![letter(l)?]);
        }
        let (one, other) = told.split_once(" and ").ok_or("one distance alone")?;
        let far = |text: &str| -> Result<(f64, Coord<f64>), String> {
            let (r, rest) = self.length(text)?;
            Ok((r, letter(rest.strip_prefix(" from corner ").ok_or("from where?")?)?))
        };
        let ((r1, a), (r2, b)) = (far(one)?, far(other)?);
        let d = (b.x - a.x).hypot(b.y - a.y);
        let along = (d * d + r1 * r1 - r2 * r2) / (2.0 * d);
        let up = (r1 * r1 - along * along).max(0.0).sqrt();
        let (ux, uy) = ((b.x - a.x) / d, (b.y - a.y) / d);
        let at = |s: f64| Coord { x: a.x + along * ux - s * up * uy, y: a.y + along * uy + s * up * ux };
        Ok(vec![at(1.0), at(-1.0)])
    }

    fn cut_out(&mut self, label: &str, then: &[String]) -> Told {
        let lies = self.drawn.get(label).cloned().ok_or(format!("{label} is not drawn"))?;
        let share = |part: &MultiPolygon<f64>| part.intersection(&lies).unsigned_area();
        let most = self.parts.iter().max_by(|a, b| share(a.1).total_cmp(&share(b.1)));
        let name = most.map(|(name, _)| name.clone()).ok_or("nothing lies on the table")?;
        self.cut_out_of(&name, label, then)
    }

    fn cut_out_of(&mut self, name: &str, label: &str, then: &[String]) -> Told {
        let part = self.part(name)?;
        let lies = self.drawn.remove(label).ok_or(format!("{label} is not drawn"))?;
        if lies.difference(&part).unsigned_area() > self.slack(&lies) {
            return Err(format!("{label} has been cut into"));
        }
        let around = then.strip_prefix(&[label.to_owned()]).ok_or(format!("{label} comes off, told is {then:?}"))?;
        self.obtain(label, lies.clone());
        let left = part.difference(&lies);
        if around.is_empty() {
            self.parts.insert(name.to_owned(), left);
            return Ok(());
        }
        self.parts.remove(name);
        for told in around {
            let told = told.strip_prefix("around it: ").ok_or(format!("where is “{told}”?"))?;
            if told == "waste" {
                continue;
            }
            let (letter, size) = told.strip_prefix("keep ").and_then(|t| t.split_once(", ")).ok_or("no size")?;
            let size = sizes(size.strip_suffix(" over all").ok_or("which size?")?)?;
            // What hangs by a thread where two pieces touch may be one or two: it is never said to be more than there is.
            let holds = |p: &MultiPolygon<f64>| {
                p.bounding_rect().is_some_and(|b| size.0 <= b.width() + CLOSE && size.1 <= b.height() + CLOSE)
            };
            let each = left.iter().map(|p| MultiPolygon::from(p.clone())).chain([left.clone()]);
            let there = each.into_iter().find(holds);
            self.parts.insert(
                letter.to_owned(),
                there.ok_or_else(|| {
                    let boxes: Vec<_> =
                        left.iter().map(|p| p.bounding_rect().map(|b| (b.width(), b.height()))).collect();
                    format!("nothing of {size:?} is left around, but {boxes:?}")
                })?,
            );
            self.kept.push(letter.to_owned());
        }
        Ok(())
    }
}

/// The first sentence and the rest: a full stop inside a figure is none.
fn sentence(text: &str) -> (&str, &str) {
    match text.find(". ") {
        Some(at) => (&text[..at], &text[at + 1..]),
        None => (text.trim_end_matches('.'), ""),
    }
}

fn expect(found: &str, wanted: &str) -> Told {
    if found == wanted { Ok(()) } else { Err(format!("“{found}”, not “{wanted}”")) }
}

/// `42 × 31`.
fn sizes(text: &str) -> Result<(f64, f64), String> {
    let (w, h) = text.trim().split_once(" × ").ok_or(format!("no size: “{text}”"))?;
    Ok((figure(w)?, figure(h)?))
}

fn oriented(part: &MultiPolygon<f64>) -> MultiPolygon<f64> {
    use geo::orient::{Direction, Orient};
    part.orient(Direction::Default)
}

/// Turned counter-clockwise about the origin, face down first if so.
pub fn turned_outline(outline: &Polygon<f64>, degrees: f64, face_down: bool) -> MultiPolygon<f64> {
    use geo::Rotate;
    let flipped = if face_down { outline.scale_xy(-1.0, 1.0) } else { outline.clone() };
    let flipped = MultiPolygon::from(flipped);
    let quarter = (degrees / 90.0).fract() == 0.0;
    if quarter {
        // Exactly, so that edges stay straight.
        use geo::MapCoords;
        return oriented(&flipped.map_coords(|c| match degrees as i64 {
            90 => Coord { x: -c.y, y: c.x },
            180 => Coord { x: -c.x, y: -c.y },
            270 => Coord { x: c.y, y: -c.x },
            _ => c,
        }));
    }
    oriented(&flipped.rotate_around_point(degrees, geo::Point::new(0.0, 0.0)))
}
