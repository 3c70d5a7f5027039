//! The sentences of a step, the same on the screen, on paper and on the command line: the sheet alone is enough to cut by.

use super::left::LeftPart;
use super::part::{PartName, PartShape};
use super::steps::{Cut, CutKind, Edge, Freed, Kept, Marking, OutlineCut, Side, Step};
use super::{CornerCut, Sight};
use crate::cloth::{Form, letters};
use crate::lay::{ClothLay, Job};
use crate::measure::{Length, Ruler};
use crate::piece::Piece;
use crate::shape::Outline;

/// What is printed of one step.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct StepWords {
    /// What to set or to take up: `5 in`, `template`.
    pub reading: String,
    /// What to do, in whole sentences.
    pub how: String,
    /// What lies there afterwards, a line for each side of the cut: pieces by name, parts by letter and size, waste. Empty
    /// where nothing has changed.
    pub then: Vec<String>,
}

/// The words of `step`. Pieces are named from `pieces`, or from `job` where they are not among them.
pub fn describe(step: &Step, job: &Job, pieces: &[Piece], ruler: Ruler) -> StepWords {
    let words = Words { job, pieces, ruler };
    match step {
        Step::Cut { cut, .. } => words.cut(cut),
        Step::Outline { cut, .. } => words.outline(cut),
        Step::Fuse { .. } => StepWords {
            reading: "iron".into(),
            how: "Fuse it to its backing, from the middle outwards. Let it cool flat.".into(),
            ..StepWords::default()
        },
        Step::Block { step, .. } => describe(step, job, pieces, ruler),
        Step::Corners(corners) => words.corners(corners),
    }
}

/// What lies on the table before the first cut of `lay`.
pub fn opening(job: &Job, lay: &ClothLay, ruler: Ruler) -> String {
    let Some(cloth) = job.cloth(&lay.cloth) else { return String::new() };
    let words = Words { job, pieces: &[], ruler };
    if let Form::Scrap { outline, .. } = &cloth.form {
        let last = letters(outline.corners().len().saturating_sub(1));
        return format!(
            "The letters A to {last} are the corners of the scrap. Draw every piece before you cut the first."
        );
    }
    let size = words.size(cloth.washed_width(), lay.lies(cloth));
    let layers = if cloth.layers == 2 { ", in two layers with the fold at the left" } else { "" };
    format!("A is the whole cloth, {size} {}{layers}.", words.unit())
}

/// `9 × 17`, `2 of 9 × 17`: sizes down to lines of the ruler.
pub fn describe_left(part: &LeftPart, ruler: Ruler) -> String {
    let size = size_down(part.width, part.height, ruler);
    if part.count > 1 { format!("{} of {size}", part.count) } else { size }
}

impl Cut {
    /// The edge the ruler is set against.
    pub fn edge_in_words(&self, ruler: Ruler) -> String {
        let long =
            || format!("{} {}", ruler.show(ruler.finest(Length(self.edge.length()))).text, ruler.system().symbol());
        match (self.from, self.from_inner_edge()) {
            (Edge::Left, false) => "the left edge".into(),
            (Edge::Near, false) => "the edge nearest you".into(),
            (Edge::Left, true) => format!("the inner left edge that is {} long", long()),
            (Edge::Near, true) => format!("the inner near edge that is {} long", long()),
        }
    }
}

struct Words<'a> {
    job: &'a Job,
    pieces: &'a [Piece],
    ruler: Ruler,
}

impl Words<'_> {
    fn unit(&self) -> &'static str {
        self.ruler.system().symbol()
    }

    fn length(&self, length: Length) -> String {
        format!("{} {}", self.ruler.show(self.ruler.finest(length)).text, self.unit())
    }

    /// Cloth is never said to be larger than it is.
    fn size(&self, width: Length, height: Length) -> String {
        size_down(width, height, self.ruler)
    }

    fn part_size(&self, shape: &PartShape) -> String {
        self.size(Length(shape.around.width), Length(shape.around.height))
    }

    fn name(&self, freed: &Freed) -> String {
        let drafted = self.pieces.iter().find(|p| p.id == freed.piece).map(|p| (p.name.to_string(), p.count));
        let laid = || self.job.piece(&freed.piece).map(|p| (p.name.clone(), p.count));
        match drafted.or_else(laid) {
            Some((name, count)) if count > 1 => format!("{name} {} of {count}", freed.copy),
            Some((name, _)) => name,
            None => freed.piece.clone(),
        }
    }

    fn names(&self, those: &[Freed]) -> String {
        those.iter().map(|f| self.name(f)).collect::<Vec<_>>().join(" and ")
    }

    fn cut(&self, cut: &Cut) -> StepWords {
        let part = cut.part;
        let reading = self.length(cut.reads());
        let how = match (cut.kind, cut.motif) {
            (CutKind::SquareEnd, None) => {
                format!("Square up the end of {part}: trim about {reading} off the edge nearest you.")
            }
            (CutKind::SquareEnd, Some(_)) => {
                format!("Square up the end of {part} so that the middle of a motif lies {reading} beyond the cut.")
            }
            (CutKind::Selvedge, None) => format!("Cut the selvedge off {part}, {reading} from the left edge."),
            (CutKind::Selvedge, Some(_)) => {
                format!(
                    "Cut the selvedge off {part} so that the middle of a motif lies {reading} to the right of the cut."
                )
            }
            (CutKind::Fold, _) => {
                format!("Slit the fold of {}, so that the two layers come apart.", self.names(&cut.of))
            }
            (CutKind::Through | CutKind::Stopped, _) => {
                let runs = if cut.from == Edge::Near { "crosswise" } else { "lengthwise" };
                format!("Cut {part} {runs}, {reading} from {}.{}", cut.edge_in_words(self.ruler), self.stretch(cut))
            }
        };
        let reading = if cut.kind == CutKind::Fold { "crease".into() } else { reading };
        StepWords { reading, how, then: self.sides(cut) }
    }

    /// What lies on each side of a cut afterwards.
    fn sides(&self, cut: &Cut) -> Vec<String> {
        let (near, far) = match (cut.kind, cut.from) {
            (CutKind::Fold, _) => return vec![format!("{} come apart", self.names(&cut.of))],
            (CutKind::Stopped, _) => ("corner", "the rest"),
            (_, Edge::Near) => ("near side", "far side"),
            (_, Edge::Left) => ("left side", "right side"),
        };
        let Some(nearer) = &cut.near else {
            // Nothing is parted yet, or only an edge is off.
            let first = matches!(cut.kind, CutKind::SquareEnd | CutKind::Selvedge);
            return if first { cut.far.iter().map(|side| self.side(side, cut.part)).collect() } else { vec![] };
        };
        let line = |place: &str, side: &Side| format!("{place}: {}", self.side(side, cut.part));
        std::iter::once(line(near, nearer)).chain(cut.far.iter().map(|side| line(far, side))).collect()
    }

    fn side(&self, side: &Side, cut: PartName) -> String {
        match side {
            Side::Piece(those) => self.names(those),
            Side::Part(name, shape) => {
                let now = if *name == cut { " is now" } else { "," };
                let corner = match shape.out.len() {
                    0 => "",
                    1 => " with a corner cut out",
                    _ => " with corners cut out",
                };
                format!("{name}{now} {}{corner}", self.part_size(shape))
            }
            Side::Keep(name, kept) => self.kept(*name, kept),
            Side::Waste => "waste".into(),
        }
    }

    /// Where a cut that stops starts and stops.
    fn stretch(&self, cut: &Cut) -> String {
        let Some(long) = cut.stops_after() else { return String::new() };
        let start = match (cut.from, cut.starts_at_outer_edge()) {
            (Edge::Left, true) => "the edge nearest you",
            (Edge::Left, false) => "the inner near edge",
            (Edge::Near, true) => "the left edge",
            (Edge::Near, false) => "the inner left edge",
        };
        let meets = if cut.from == Edge::Near { ", where the cut before ended" } else { "" };
        format!(" Start at {start} and stop after {}{meets}.", self.length(long))
    }

    fn kept(&self, name: PartName, kept: &Kept) -> String {
        match kept {
            Kept::Part(part) => format!("keep {name}, {}", describe_left(part, self.ruler)),
            Kept::Shape(shape) => {
                let (width, height) = shape.size();
                format!("keep {name}, {} over all", self.size(width, height))
            }
        }
    }

    fn outline(&self, cut: &OutlineCut) -> StepWords {
        let names = self.names(&cut.pieces);
        let off = || {
            let kept = cut.keeps.iter().map(|(name, kept)| format!("around it: {}", self.kept(*name, kept)));
            let waste = (cut.last && cut.keeps.is_empty()).then(|| "around it: waste".to_owned());
            std::iter::once(names.clone()).chain(kept).chain(waste).collect::<Vec<_>>()
        };
        if cut.marking == Marking::Cut {
            let how = format!("Cut out {names} along the line you drew.");
            return StepWords { reading: "scissors".into(), how, then: off() };
        }
        let square = cut.pieces.first().and_then(|f| self.job.piece(&f.piece)).and_then(|p| match p.outline {
            Outline::Rect(w, h) => Some((w, h)),
            _ => None,
        });
        let round = cut
            .pieces
            .first()
            .and_then(|f| self.job.piece(&f.piece))
            .is_some_and(|p| matches!(p.outline, Outline::Circle(_)));
        let what = match square {
            Some((w, h)) => format!("Draw {names}, {} wide and {} tall", self.length(w), self.length(h)),
            None => format!("Lay the template for {names}"),
        };
        let place = if cut.sights.is_empty() { self.place(cut) } else { found_by(&cut.sights, self.ruler) };
        let on = if cut.sights.is_empty() { format!(" on {}", cut.part) } else { String::new() };
        let turned = if round { String::new() } else { format!(", {}", lies(cut)) };
        let next = match (cut.marking, square.is_some()) {
            (Marking::Draw, true) => " Do not cut yet.",
            (Marking::Draw, false) => " Draw round it. Do not cut yet.",
            (_, true) => " Cut along the line.",
            (_, false) => " Draw round it and cut along the line.",
        };
        let how = format!("{what}{on}: {place}{turned}.{next}");
        let then = if cut.marking == Marking::Draw { vec![] } else { off() };
        let reading = if square.is_some() { "ruler" } else { "template" };
        StepWords { reading: reading.into(), how, then }
    }

    /// Where the box of a piece lies in its part.
    fn place(&self, cut: &OutlineCut) -> String {
        let (in_from_left, up) = cut.place();
        let left = match (cut.on_fold, in_from_left) {
            (true, _) => "its middle line on the fold".to_owned(),
            (false, Length::ZERO) => "its left side against the left edge".to_owned(),
            (false, far) => format!("its left side {} from the left edge", self.length(far)),
        };
        let near = match up {
            Length::ZERO => "its near side against the edge nearest you".to_owned(),
            far => format!("its near side {} from the edge nearest you", self.length(far)),
        };
        format!("{left}, {near}")
    }

    fn corners(&self, cut: &CornerCut) -> StepWords {
        let name = self.pieces.iter().find(|p| p.id == cut.piece).map_or(cut.piece.as_str(), |p| &p.name);
        let (across, up) = (self.length(cut.across), self.length(cut.up));
        let layers = if cut.layers == 1 { "one layer".to_owned() } else { format!("all {} layers", cut.layers) };
        let how = if cut.at_fold {
            format!(
                "Crease {name} across the middle. Cut a notch into both sides at the crease: {across} in from the side, {up} up and {up} down from the crease, through {layers}."
            )
        } else {
            format!(
                "Cut both lower corners out of {name}: {across} in from the side and {up} up from the base, through {layers}."
            )
        };
        StepWords {
            reading: format!("{} × {}", self.ruler.show(cut.across).text, self.ruler.show(cut.up).text),
            how,
            ..StepWords::default()
        }
    }
}

fn size_down(width: Length, height: Length, ruler: Ruler) -> String {
    let down = |l: Length| ruler.show(l.floor_to(ruler.step())).text;
    format!("{} × {}", down(width), down(height))
}

/// Which way a piece lies: turns are counter-clockwise.
fn lies(cut: &OutlineCut) -> String {
    let top = match cut.turn.degrees() {
        0 => "away from you",
        45 => "towards the far left",
        90 => "to the left",
        135 => "towards the near left",
        180 => "towards you",
        225 => "towards the near right",
        270 => "to the right",
        _ => "towards the far right",
    };
    let face = if cut.mirrored { ", wrong side up" } else { "" };
    format!("its top {top}{face}")
}

/// Where a piece lies on a scrap: two of its corners by their distances from the scrap's.
fn found_by(sights: &[Sight], ruler: Ruler) -> String {
    let show = |l: Length| format!("{} {}", ruler.show(l.round_to(ruler.step())).text, ruler.system().symbol());
    let found = |sight: &Sight| match sight.from.as_slice() {
        [(corner, _)] => format!("in corner {}", letters(*corner)),
        several => {
            let each = several.iter().map(|(corner, far)| format!("{} from corner {}", show(*far), letters(*corner)));
            each.collect::<Vec<_>>().join(" and ")
        }
    };
    match sights {
        [one, other] => format!("one corner {}, the opposite corner {}", found(one), found(other)),
        _ => String::new(),
    }
}
