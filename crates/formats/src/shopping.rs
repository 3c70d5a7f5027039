//! The shopping list as plain text, to be pasted anywhere: cloth, what is sold by the length, and hardware, with sizes.

use bofta_core::bag::Draft;
use bofta_core::buying::{Missing, purchases, said_size, said_width, washed};
use bofta_core::lay::{Job, Lay};
use bofta_core::measure::{Length, show_bought};
use bofta_core::project::{Project, cost_text};

/// The whole list, a line each: what to buy first, then what is taken from what there is. It says what the plan leaves
/// out, and no total where a price is not known.
pub fn shopping_list(project: &Project, draft: &Draft, job: &Job, lay: &Lay, missing: Option<&Missing>) -> String {
    let show = |l: Length| format!("{} {}", project.ruler.show(l).text, project.system.symbol());
    let mut lines = vec![project.name.clone()];
    if let Some(missing) = missing {
        lines.push(format!("not the whole bag: {}", missing.headline()));
        lines.extend(missing.describe(project.system));
    }
    for p in purchases(job, lay) {
        let Some(cloth) = job.cloth(&p.cloth) else { continue };
        let verb = if p.owned { "have" } else { "buy" };
        let cost = p.cost.map(|c| format!(", {}", project.money(c))).unwrap_or_default();
        let size = said_size(cloth, p.length, project.ruler);
        let wide = said_width(cloth, project.ruler).map(|w| format!(", {w}")).unwrap_or_default();
        lines.push(format!("{verb} {size} of {}{wide}{cost}", cloth.name));
        lines.extend(
            job.cloth(&p.cloth).and_then(|c| washed(c, p.length, project.ruler)).map(|told| format!("  {told}")),
        );
    }
    for reel in project.reels(&draft.goods) {
        let wide = reel.width.map(|w| format!(", {} wide", show(w))).unwrap_or_default();
        let bought = reel.bought();
        if bought > Length::ZERO {
            lines.push(format!("buy {} of {}{wide}", show_bought(bought, project.system), reel.kind.name()));
        }
        lines.extend(reel.from_hand(project.ruler).into_iter().map(|line| format!("{}: {line}", reel.kind.name())));
    }
    for good in &draft.goods {
        let wide = good.width.map(|w| format!(", {} wide", show(w))).unwrap_or_default();
        let length = show(good.length.size);
        lines.push(format!("cut {} × {length} of {}{wide}: {}", good.count, good.kind.name(), good.name));
    }
    for line in project.by_the_piece(&draft.hardware) {
        let part = line.needed;
        let size = part.size.map(|s| format!(", {}", show(s))).unwrap_or_default();
        let note = if part.note.is_empty() { String::new() } else { format!(" ({})", part.note) };
        let said = |verb: &str, count: u32| format!("{verb}{count} × {}{size}{note}", part.name);
        match (line.buy, line.taken) {
            (buy, 0) => lines.push(said("", buy)),
            (0, taken) => lines.push(said("have ", taken)),
            (buy, taken) => lines.extend([said("", buy), said("have ", taken)]),
        }
    }
    let total = cost_text(project, lay);
    if !total.is_empty() {
        lines.push(format!("cloth together {total}"));
    }
    lines.join("\n")
}
