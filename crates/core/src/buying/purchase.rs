//! The shopping list.

use crate::cloth::{Cloth, Form, Money};
use crate::lay::{Budget, Job, Lay, Silent, Stop, solve};
use crate::measure::{Length, Ruler, System, show_bought, show_size};

/// One line of the list.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Purchase {
    /// The cloth.
    pub cloth: String,
    /// Unwashed length the lay takes.
    pub needed: Length,
    /// Length to ask for, or taken from what is owned.
    pub length: Length,
    /// Nothing is bought: it is owned.
    pub owned: bool,
    /// What it costs, if there is a price.
    pub cost: Option<Money>,
    /// How much of the bought length the lay does not take.
    pub spare: Length,
    /// No shorter length the shop sells will do.
    pub proven: bool,
}

/// The list for a lay, in the job's order of cloths.
pub fn purchases(job: &Job, lay: &Lay) -> Vec<Purchase> {
    lay.cloths
        .iter()
        .filter_map(|c| {
            let cloth = job.cloth(&c.cloth)?;
            let needed = c.needed_length.before_shrinking(cloth.shrink.along);
            Some(Purchase {
                cloth: cloth.id.clone(),
                needed,
                length: c.buy_length,
                owned: cloth.owned,
                cost: if cloth.owned { None } else { cloth.price.map(|p| p.of(c.buy_length)) },
                spare: c.buy_length - needed,
                proven: c.proven(),
            })
        })
        .collect()
}

/// Widths shops commonly hold (common practice): cotton, furnishing, canvas.
pub fn default_widths(system: System) -> [Length; 3] {
    match system {
        System::Inches => [Length::INCH * 44, Length::INCH * 54, Length::INCH * 60],
        System::Centimetres => [Length::CENTIMETRE * 110, Length::CENTIMETRE * 140, Length::CENTIMETRE * 150],
    }
}

/// What the same pieces take of a cloth of another width.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct OtherWidth {
    /// From edge to edge.
    pub width: Length,
    /// Length to buy, or nothing when a piece does not fit.
    pub length: Option<Length>,
}

/// The usual widths other than its own for the roll `id` of `job`, each searched for `iterations`; those only that were
/// searched before `stop` was asked for. None where its pieces come from other cloth first, such as what is there of it:
/// what is left for the roll then depends on that.
pub fn other_widths(job: &Job, id: &str, iterations: u64, stop: &Stop) -> Vec<OtherWidth> {
    let Some(own) = job.cloth(id).and_then(Cloth::bought_width) else { return vec![] };
    let mut alone = job.clone();
    alone.cloths.retain(|c| c.id == id);
    alone.pinned.clear();
    alone.pieces.retain(|p| p.cloths.first().is_some_and(|c| c == id));
    if job.pieces.iter().any(|p| p.cloths.iter().skip(1).any(|c| c == id)) || alone.pieces.is_empty() {
        return vec![];
    }
    for piece in &mut alone.pieces {
        piece.cloths.truncate(1);
    }
    default_widths(job.units)
        .into_iter()
        .filter(|w| (w.0 - own.0).abs() > Length::INCH.0)
        .map(|w| {
            for cloth in &mut alone.cloths {
                cloth.form = Form::Roll { width: w / i64::from(cloth.layers), length: None, max: None };
                cloth.owned = false;
            }
            let lay = solve(&alone, Budget::iterations(iterations).until(stop), &mut Silent).ok().filter(Lay::complete);
            OtherWidth { width: w, length: lay.map(|l| l.bought()) }
        })
        .take_while(|_| !stop.asked())
        .collect()
}

/// How much of `cloth` is bought or taken, in words: a length as a shop says it, of a sheet its size, along before across,
/// of a scrap how large it is over all.
pub fn said_size(cloth: &Cloth, length: Length, ruler: Ruler) -> String {
    let system = ruler.system();
    let two = |along: Length, across: Length| format!("{} × {}", show_size(along, system), show_size(across, system));
    match (&cloth.form, cloth.whole_length()) {
        (Form::Scrap { outline, .. }, _) => {
            let (across, along) = outline.size();
            let near = |l: Length| ruler.show(l.round_to(ruler.step())).text;
            format!("{} × {} {} over all", near(along), near(across), system.symbol())
        }
        (_, Some(whole)) if cloth.layers == 2 => format!("tube of {}", two(whole, cloth.as_bought_width())),
        (_, Some(whole)) => two(whole, cloth.as_bought_width()),
        (_, None) => show_bought(length, system),
    }
}

/// How wide what is bought or taken of `cloth` is, where [`said_size`] does not say it.
pub fn said_width(cloth: &Cloth, ruler: Ruler) -> Option<String> {
    let width = cloth.bought_width()?;
    Some(format!("{} {} wide", ruler.show(width).text, ruler.system().symbol()))
}
