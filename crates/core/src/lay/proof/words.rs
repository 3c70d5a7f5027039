//! Certificates in a maker's words: why no shorter cut will do, and under which rules that holds.

use super::{Boxes, Certificate, Function, Rule, SheetsNeeded, Tried, Weights};
use crate::cloth::{Cloth, Print};
use crate::lay::answer::ClothLay;
use crate::lay::job::{Cuts, Job, JobPiece};
use crate::lay::turns::allowed_turns;
use crate::measure::{Length, Ruler, System, show_bought};
use crate::piece::{Grain, PrintRule};
use crate::shape::{Outline, Turn};

/// Names told one by one before the rest is counted.
const MOST_NAMED: usize = 3;

/// Why no shorter cut of this cloth holds what lies on it, if that is shown.
pub fn reason(job: &Job, lay: &ClothLay) -> Option<String> {
    let cloth = job.cloth(&lay.cloth)?;
    let Certificate { excluded, by } = lay.proof.as_ref()?;
    let teller = Teller { job, cloth };
    let mut told = teller.tell(by, *excluded);
    let least = *excluded + Length(1);
    let unwashed = cloth.needed_length(least).before_shrinking(cloth.shrink.along);
    if unwashed > least {
        let with = match (cloth.trim > Length::ZERO, cloth.shrink.along > 0) {
            (true, true) => "Add the trimmed ends and the shrinkage:",
            (true, false) => "Add the trimmed ends:",
            (false, _) => "Add the shrinkage:",
        };
        told.push_str(&format!(" {with} you need at least {}.", teller.exact(unwashed)));
    }
    if let Some(step) = cloth.shop.step.filter(|_| !cloth.owned && cloth.whole_length().is_none()) {
        let shorter = lay.buy_length - step;
        if lay.proven() && shorter >= cloth.shop.min && shorter > Length::ZERO {
            told.push_str(&format!(" The next shorter length, {}, is less.", show_bought(shorter, job.units)));
        }
    }
    Some(told)
}

/// Why so many sheets are needed.
pub fn reason_of_sheets(job: &Job, needed: &SheetsNeeded) -> Option<String> {
    let cloth = job.cloth(&needed.cloth)?;
    let fewer = needed.least - 1;
    let sheets = if fewer == 1 { "one sheet".to_owned() } else { format!("{fewer} sheets") };
    Some(match &needed.by {
        Rule::Tried { times, .. } => {
            format!("Every way of sharing the pieces among {sheets} was tried ({times} places): none holds them all.")
        }
        Rule::Weights(w)
            if matches!(
                (w.across, w.along),
                (Function::Share | Function::Threshold(Length(1)), Function::Share | Function::Threshold(Length(1)))
            ) =>
        {
            format!("The pieces cover more than {sheets} of {} have.", cloth.name)
        }
        _ => format!(
            "Counted by how many lie side by side and one behind the other, the pieces do not go on {sheets} of {}.",
            cloth.name
        ),
    })
}

/// The rules of this job that what is shown of `cloth` rests on, each as it would stand in a list; without them less cloth
/// might do.
pub fn conditions(job: &Job, cloth: &Cloth) -> Vec<String> {
    let ruler = Ruler::default_for(job.units);
    let here = || job.pieces.iter().filter(|p| p.cloths.contains(&cloth.id));
    let with = |grain: &dyn Fn(Grain) -> bool| -> Vec<&str> {
        let locked = |p: &&JobPiece| grain(p.grain) && !matches!(p.outline, Outline::Circle(_));
        here().filter(locked).map(|p| p.name.as_str()).collect()
    };
    let mut found = Vec::new();
    let mut tell = |names: Vec<&str>, how: &str| {
        if !names.is_empty() {
            found.push(format!("{} {how}", listed(&names)));
        }
    };
    tell(with(&|g| g == Grain::Length), "along the selvedge");
    tell(with(&|g| g == Grain::Across), "across the cloth");
    tell(with(&|g| g == Grain::Bias), "on the bias");
    if cloth.direction() != Print::AllOver {
        tell(
            here().filter(|p| p.print == PrintRule::Upright).map(|p| p.name.as_str()).collect(),
            "with the print upright",
        );
    }
    if job.rules.cuts == Cuts::Through {
        found.push("every cut from edge to edge".into());
    }
    if job.rules.gap > Length::ZERO {
        found.push(format!("{} {} between pieces", ruler.show(job.rules.gap).text, job.units.symbol()));
    }
    if here().any(|p| job.places(p, cloth)) {
        found.push("so much kept free at its ends that the print can fall right".into());
    }
    if cloth.layers == 2 {
        found.push("the cloth folded lengthwise".into());
    }
    if job.pinned.iter().any(|p| p.cloth == cloth.id) {
        found.push("what is cut or pinned stays where it is".into());
    }
    found
}

struct Teller<'a> {
    job: &'a Job,
    cloth: &'a Cloth,
}

impl Teller<'_> {
    fn length(&self, length: Length) -> String {
        format!("{} {}", Ruler::default_for(self.job.units).show(length).text, self.job.units.symbol())
    }

    /// To 1/64 in or 0.1 mm, rounded up: what decides between two lengths of the shop is never rounded away.
    fn exact(&self, length: Length) -> String {
        let ruler = Ruler::default_for(self.job.units);
        let step = match ruler.system() {
            System::Inches => Length::inches(1, 64),
            System::Centimetres => Length::tenth_mm(1),
        };
        self.length(length.ceil_to(step))
    }

    fn name(&self, piece: usize) -> &str {
        self.job.pieces.get(piece).map_or("a piece", |p| p.name.as_str())
    }

    fn tell(&self, rule: &Rule, excluded: Length) -> String {
        let shorter = self.length(excluded + Length(1));
        match rule {
            Rule::Area { covered } => {
                let unit = self.job.units.unit().0 as f64;
                let area = covered.0 as f64 / (unit * unit);
                let (sign, width) = (self.job.units.symbol(), self.length(self.cloth.usable_width()));
                format!(
                    "The pieces cover {area:.0} square {sign}: on a width of {width} that takes at least {shorter}."
                )
            }
            Rule::Longest { piece } => {
                format!("{} alone takes {shorter}, in every way it may lie.", quoted(self.name(*piece)))
            }
            Rule::Weights(weights) => self.weights(weights, excluded),
            Rule::Sums { from, below, .. } => format!(
                "{} Pieces one behind the other add up to {shorter}, and to nothing from {} to there.",
                self.tell(below, *from - Length(1)),
                self.length(*from)
            ),
            Rule::Slices(slices) => {
                let mut names: Vec<&str> = Vec::new();
                let priced = slices.ways.iter().filter(|w| w.slices.iter().any(|s| s.price > 0));
                for way in priced {
                    let name = self.name(way.piece);
                    if !names.contains(&name) {
                        names.push(name);
                    }
                }
                let across = matches!(slices.lines, super::Lines::Across);
                let (line, fits) = if across { ("across", "width") } else { ("along", "length") };
                format!(
                    "Whatever a line {line} the cloth crosses has to fit its {fits}: {} leave too little of each line for one another, and take at least {shorter}.",
                    listed(&names)
                )
            }
            Rule::Tried { what: Tried::Cuts, times } => {
                format!(
                    "All {times} ways of dividing the pieces by cuts from edge to edge were gone through: none is shorter."
                )
            }
            Rule::Tried { times, .. } => {
                format!(
                    "Every place was tried for every piece that fits it, {times} places in all: nothing shorter holds them."
                )
            }
        }
    }

    fn weights(&self, weights: &Weights, excluded: Length) -> String {
        let shorter = self.length(excluded + Length(1));
        let beside = self.counted(weights.across, weights, true, excluded);
        if !is_share(weights.along) {
            let behind = self.counted(weights.along, weights, false, excluded);
            return match (beside.whole.is_empty(), behind.whole.is_empty()) {
                (false, false) => format!(
                    "{} do not lie side by side, and {} not one behind the other in so short a cut: the rest does not go beside them in less than {shorter}.",
                    listed(&beside.whole),
                    listed(&behind.whole)
                ),
                (true, false) => format!(
                    "{} do not lie one behind the other in a shorter cut; side by side the pieces are wider than the cloth in less than {shorter}.",
                    listed(&behind.whole)
                ),
                _ => format!(
                    "Counted by how many lie side by side and one behind the other, the pieces do not go on less than {shorter}."
                ),
            };
        }
        match weights.across {
            Function::Rounded(k) => {
                let part = self.length(Length(weights.width.0 / (i64::from(k) + 1)));
                let most = if k == 1 { "one piece".to_owned() } else { format!("{k} pieces") };
                let lie = if k == 1 { "lies" } else { "lie" };
                format!(
                    "Of what is wider than {part}, no more than {most} {lie} side by side: that takes at least {shorter}."
                )
            }
            _ if beside.whole.is_empty() => {
                let (fills, there) = (self.length(weights.width), self.length(self.cloth.usable_width()));
                if fills == there {
                    format!("Side by side and one behind the other with nothing wasted, the pieces take {shorter}.")
                } else {
                    format!(
                        "Side by side, pieces fill at most {fills} of the {there} there are: on that width they take {shorter}."
                    )
                }
            }
            _ if beside.part.is_empty() => {
                let copies = beside.copies;
                let names = listed(&beside.whole);
                if copies == 1 {
                    format!("Nothing else that is counted fits beside {names}, which takes {shorter}.")
                } else {
                    format!(
                        "{names}: no two fit side by side. One behind the other, the {copies} of them take {shorter}."
                    )
                }
            }
            _ => format!(
                "No two of {} fit side by side, nor one of them beside {}: these have to lie behind them, which takes at least {shorter}.",
                listed(&beside.whole),
                listed(&beside.part)
            ),
        }
    }

    /// Which pieces a function counts for the whole side, and which for their own share of it.
    fn counted(&self, function: Function, weights: &Weights, across: bool, excluded: Length) -> Counted<'_> {
        let side = if across { weights.width } else { excluded };
        let mut found = Counted::default();
        for (i, piece) in self.job.pieces.iter().enumerate().filter(|(_, p)| p.cloths.contains(&self.cloth.id)) {
            let sizes: Vec<Length> = allowed_turns(piece.grain, piece.print, self.cloth)
                .turns
                .into_iter()
                .filter(|t| piece.outline.extent(*t, false).0 <= self.cloth.usable_width())
                .map(|t| size(&weights.boxes, i, piece, t, across))
                .collect();
            let Some(least) = sizes.into_iter().min() else { continue };
            match function {
                Function::Threshold(e) if least > side - e => {
                    found.whole.push(&piece.name);
                    found.copies += piece.count;
                }
                Function::Threshold(e) if least < e => {}
                _ => found.part.push(&piece.name),
            }
        }
        found
    }
}

#[derive(Default)]
struct Counted<'a> {
    whole: Vec<&'a str>,
    part: Vec<&'a str>,
    /// Copies of those that are counted whole.
    copies: u32,
}

fn is_share(function: Function) -> bool {
    matches!(function, Function::Share | Function::Threshold(Length(1)))
}

fn size(boxes: &Boxes, number: usize, piece: &JobPiece, turn: Turn, across: bool) -> Length {
    let inside = boxes.inside.iter().find(|i| (i.piece, i.turn) == (number, turn.degrees()));
    let (width, height) = inside.map_or_else(|| piece.outline.extent(turn, false), |i| (i.width, i.height));
    if across { width } else { height }
}

/// Names as a list in a sentence; of many the first, and how many more there are.
fn listed(names: &[&str]) -> String {
    let (told, more) = names.split_at(names.len().min(MOST_NAMED));
    match (told, more.len()) {
        ([], _) => "the pieces".into(),
        ([one], _) => quoted(one),
        (several, 0) => {
            let (last, first) = (several[several.len() - 1], &several[..several.len() - 1]);
            format!("{} and {}", all_quoted(first), quoted(last))
        }
        (several, more) => format!("{} and {more} more", all_quoted(several)),
    }
}

fn quoted(name: &str) -> String {
    format!("“{name}”")
}

fn all_quoted(names: &[&str]) -> String {
    names.iter().map(|name| quoted(name)).collect::<Vec<_>>().join(", ")
}
