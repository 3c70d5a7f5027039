//! `bofta draft`.

use super::BAD_INPUT;
use bofta_core::bag::making_up::{may_be_backed, may_be_made_up};
use bofta_core::measure::{Length, Ruler};
use bofta_core::piece::{Dimension, Figure, Piece, PrintedTerm};
use bofta_formats::{Specification, read_bag};
use clap::Args;
use std::path::PathBuf;
use std::process::ExitCode;

/// Exit status when the pieces do not give the finished size.
const WRONG: u8 = 1;

#[derive(Args)]
pub struct DraftArgs {
    /// A bofta-bag file.
    bag: PathBuf,
    /// Work the finished size out back from the cut pieces.
    #[arg(long)]
    back: bool,
    /// Scale all finished sizes to so many hundredths first.
    #[arg(long, value_name = "PERCENT")]
    scale: Option<u32>,
}

/// Reads, drafts and prints; bad input is one line on standard error that names the field.
pub fn draft(args: &DraftArgs) -> ExitCode {
    let refuse = |why: String| {
        eprintln!("bofta: {}: {why}", args.bag.display());
        ExitCode::from(BAD_INPUT)
    };
    let text = match std::fs::read_to_string(&args.bag) {
        Ok(text) => text,
        Err(e) => return refuse(e.to_string()),
    };
    let mut read = match read_bag(&text) {
        Ok(read) => read,
        Err(e) => return refuse(e.to_string()),
    };
    if let Some(percent) = args.scale {
        match read.bag.scaled(percent, read.ruler) {
            Ok((bag, rounded)) => {
                rounded.iter().for_each(|line| say!("{line}"));
                read.bag = bag;
            }
            Err(problems) => return refuse(problems.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ")),
        }
    }
    let draft = match read.bag.draft(read.ruler) {
        Ok(draft) => draft,
        Err(problems) => return refuse(problems.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ")),
    };
    if args.back {
        return finished_from_cut(&read, &draft);
    }
    let mut made = draft;
    for (id, up) in &read.made_up {
        let may = |p: &Piece| may_be_made_up(p) || may_be_backed(p);
        if made.piece(id).is_none_or(|p| !may(p)) {
            let panels: Vec<&str> = made.pieces.iter().filter(|p| may(p)).map(|p| p.id.as_ref()).collect();
            return refuse(format!("panels.{id}: there is no such panel to make up; there is {}", panels.join(", ")));
        }
        if let Err(problem) = up.apply(&mut made, id, &read.bag.walls(read.ruler), read.ruler) {
            return refuse(problem.within(&format!("panels.{id}")).to_string());
        }
    }
    print(&read, &made)
}

fn reason(d: &Dimension, ruler: Ruler) -> String {
    let term = |printed: &PrintedTerm| {
        let t = &printed.term;
        let about = if printed.about { "about " } else { "" };
        let each = format!("{about}{}", ruler.show(Length(t.each.0.abs())).text);
        let sign = if t.value() < Length::ZERO { "− " } else { "" };
        match t.times.abs() {
            1 => format!("{sign}{each} {}", t.name),
            n => format!("{sign}{n} × {each} {}", t.name),
        }
    };
    format!(
        "{} = {}",
        ruler.show(d.size).text,
        d.printed(ruler).iter().map(term).collect::<Vec<_>>().join(" + ").replace("+ −", "−")
    )
}

fn print(read: &Specification, draft: &bofta_core::bag::Draft) -> ExitCode {
    let ruler = read.ruler;
    let show = |l: Length| ruler.show(l).text;
    say!("{}", read.bag.headline(ruler));
    for p in &draft.pieces {
        say!(
            "{} × {} ({}): {} × {}",
            p.count,
            p.name,
            p.part.name().to_lowercase(),
            show(p.width.size),
            show(p.height.size)
        );
        say!("    wide {}", reason(&p.width, ruler));
        say!("    tall {}", reason(&p.height, ruler));
        match &p.figure {
            Figure::Rectangle => {}
            Figure::CutOut { across, up } => {
                say!("    corners out: {} across, {} up", reason(across, ruler), reason(up, ruler))
            }
            Figure::CutAtFold { across, up } => {
                say!("    notches at the fold: {} across, {} up and down", reason(across, ruler), reason(up, ruler));
            }
            Figure::Circle => say!("    a circle"),
            Figure::HalfRound => say!("    half-round below"),
            Figure::RoundedAbove(r) => say!("    upper corners rounded, radius {}", show(*r)),
            Figure::Rounded(r) => say!("    lower corners rounded, radius {}", show(*r)),
            Figure::Tapered(by) => {
                let end = if *by < Length::ZERO { "base" } else { "top" };
                say!("    narrower at the {end} by {} each side", show(Length(by.0.abs())));
            }
            Figure::Free(corners) => say!("    {} corners", corners.len()),
        }
        for m in &p.marks {
            say!("    mark {}", m.describe(ruler, p.size()));
        }
        if let Some(note) = &p.note {
            say!("    {note}");
        }
    }
    for seam in read.bag.seams(ruler) {
        let Some([one, other]) = seam.lengths(draft) else { continue };
        let named = |s: &bofta_core::bag::sewn::Stretch| {
            format!("{} {}", draft.piece(&s.piece).map_or(s.piece.as_ref(), |p| p.name.as_ref()), s.edge.name())
        };
        say!(
            "sewn, {}: {} {} to {} {}",
            seam.name,
            named(&seam.sides[0]),
            show(one.round_to(ruler.step())),
            named(&seam.sides[1]),
            show(other.round_to(ruler.step()))
        );
    }
    for g in &draft.goods {
        say!("{} × {}, {}: {}", g.count, g.kind.name(), g.name, reason(&g.length, ruler));
    }
    for h in &draft.hardware {
        say!("{} × {}{}: {}", h.count, h.name, h.size.map(|s| format!(", {}", show(s))).unwrap_or_default(), h.note);
    }
    let seams = read.bag.seams(ruler);
    for (i, step) in draft.steps.iter().enumerate() {
        say!("{}. {}", i + 1, step.text);
        for seam in seams.iter().filter(|s| s.step == step.key && s.lengths(draft).is_some()) {
            say!("    {}, {} from the edge", seam.name, show(seam.sides[0].seam));
        }
    }
    for n in &draft.notices {
        say!("{}{}", if n.severity == bofta_core::bag::Severity::Attention { "! " } else { "- " }, n.text);
    }
    ExitCode::SUCCESS
}

fn finished_from_cut(read: &Specification, draft: &bofta_core::bag::Draft) -> ExitCode {
    let ruler = read.ruler;
    // Each size is brought up to the ruler in a few places, four lines at most; what a notch adds to the depth it takes
    // off the width, two lines at most.
    let most = ruler.step() * 4;
    let mut right = true;
    for f in read.bag.finished_from_cut(draft) {
        let off = f.back - f.asked;
        let fine = off >= -ruler.step() * 2 && off <= most;
        right &= fine;
        let word = if off == Length::ZERO { "exactly".to_owned() } else { format!("off by {}", ruler.show(off).text) };
        say!("{}: asked {}, the pieces give {}, {word}", f.name, ruler.show(f.asked).text, ruler.show(f.back).text);
    }
    if right { ExitCode::SUCCESS } else { ExitCode::from(WRONG) }
}
