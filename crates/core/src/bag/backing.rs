//! Backing: fleece, interfacing or firm stabiliser behind a panel, by three schools. Common practice.

use super::draft::Draft;
use super::field::choice;
use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, Figure, Grain, Part, Piece, Term, When};

choice! {
    /// How far the backing reaches.
    BackingSchool {
        /// None.
        None = "none", "None", "canvas and faux leather stand by themselves";
        /// Cut like the panel, caught in the seams, the bulk trimmed afterwards.
        FullSize = "full-size", "Full size", "caught in the seams, trimmed after";
        /// Cut clear of the seam allowances all round.
        ClearOfSeams = "clear-of-seams", "Clear of the seams", "inside the allowances all round";
        /// Outer and backing fused as one block, cut once.
        Block = "block", "One block", "fused before it is cut, so that both are cut at once";
        /// Light strips along the edges, a firm centre clear of them.
        TwoStage = "two-stage", "Strips and a firm centre", "patchwork beside faux leather";
    }
}

choice! {
    /// What it is backed with.
    BackingCloth {
        /// Fusible fleece or batting.
        Fleece = "fleece", "Fleece", "soft and padded";
        /// Woven or firm fusible.
        Interfacing = "interfacing", "Interfacing", "body without padding; firm ones clear of the seams";
    }
}

impl BackingCloth {
    /// The part it is cut as.
    pub const fn part(self) -> Part {
        match self {
            Self::Fleece => Part::Backing,
            Self::Interfacing => Part::Interfacing,
        }
    }

    const fn word(self) -> &'static str {
        match self {
            Self::Fleece => "fleece",
            Self::Interfacing => "interfacing",
        }
    }
}

/// Allowances of a panel, each once: left and right are the same.
#[derive(Clone, Copy, Debug)]
pub struct Allowances {
    /// At each side.
    pub side: Length,
    /// At the top.
    pub top: Length,
    /// At the base; nothing where it is a fold.
    pub base: Length,
}

/// Width of the light strips of the two-stage school: an allowance and half an inch.
const STRIP: Length = Length::inches(1, 2);

/// The backing of `panel`, whose allowances are `within`, cut as `school` says; sizes brought up to `ruler`.
pub fn behind(
    panel: &Piece,
    school: BackingSchool,
    cloth: BackingCloth,
    within: Allowances,
    ruler: Ruler,
) -> Vec<Piece> {
    let stem = panel.id.trim_end_matches("-panel").trim_start_matches("outer-").to_owned();
    let stem = if stem == "outer" { "panel".to_owned() } else { stem };
    let (id, word) = (format!("{}-{stem}", cloth.word()), cloth.word());
    let capital = format!("{}{}", word[..1].to_uppercase(), &word[1..]);
    let name = format!("{capital}, {}", panel.name.to_lowercase());
    let piece = |id: String, name: String, width: Dimension, height: Dimension| {
        Piece::new(id, name, cloth.part(), width, height).times(panel.count).lying(Grain::Any)
    };
    let clear = || {
        let less = |name, times: i64, each: Length, field| Term::times(name, -times, each, field);
        let whole = |d: &Dimension, field| Term::once("the panel", d.size, field);
        let width = Dimension::sum(
            vec![whole(&panel.width, "backing"), less("less the side seams", 2, within.side, "seam_side")],
            ruler,
        );
        let height = Dimension::sum(
            vec![
                whole(&panel.height, "backing"),
                less("less the top", 1, within.top, "mouth"),
                less("less the base seam", 1, within.base, "seam_base"),
            ],
            ruler,
        );
        let trimmed = |d: &Dimension, by: Length, field| {
            let left = vec![Term::once("the panel's", d.size, field), less("less the seam", 1, by, field)];
            Dimension::sum(left, ruler)
        };
        let figure = match &panel.figure {
            Figure::CutOut { across, up } => Figure::CutOut {
                across: trimmed(across, within.side, "seam_side"),
                up: trimmed(up, within.base, "seam_base"),
            },
            Figure::CutAtFold { across, up } => {
                Figure::CutAtFold { across: trimmed(across, within.side, "seam_side"), up: up.clone() }
            }
            Figure::Rounded(radius) => Figure::Rounded((*radius - within.side).max(Length::ZERO)),
            // Of what is not a rectangle the scissors decide: cut like the panel, then trimmed by the seam.
            other => other.clone(),
        };
        piece(id.clone(), name.clone(), width, height).shaped(figure).noted("lies inside the seam allowances")
    };
    match school {
        BackingSchool::None => vec![],
        BackingSchool::FullSize => vec![
            piece(id, name, panel.width.clone(), panel.height.clone())
                .shaped(panel.figure.clone())
                .noted("caught in the seams; trim the bulk after sewing"),
        ],
        BackingSchool::Block => {
            let (width, height) = block_size(panel, 1, ruler);
            let block = piece(format!("{id}-block"), format!("{name}, block"), width, height).times(1);
            vec![Piece { block_of: Some(panel.id.clone()), ..block }.noted("fused to its cloth before either is cut")]
        }
        BackingSchool::ClearOfSeams => vec![clear()],
        BackingSchool::TwoStage => {
            let strip = |along: &Dimension, seam: Length, field| {
                let wide = vec![Term::once("seam", seam, field), Term::once("beyond it", STRIP, "backing")];
                (Dimension::sum(wide, ruler), along.clone())
            };
            let (side_w, side_h) = strip(&panel.height, within.side, "seam_side");
            let (end_w, end_h) = strip(&panel.width, within.top.max(within.base), "seam_base");
            vec![
                clear().noted("the firm centre"),
                piece(format!("{id}-sides"), format!("{name}, side strips"), side_w, side_h)
                    .times(panel.count * 2)
                    .noted("light, along the sides"),
                piece(format!("{id}-ends"), format!("{name}, end strips"), end_w, end_h)
                    .times(panel.count * 2)
                    .noted("light, along top and base"),
            ]
        }
    }
}

/// What a block has round the panels: fusing shifts and shrinks a little.
const ROUND_THE_BLOCK: Length = Length::inches(1, 2);

/// The size of a block for all copies of `panel`, so many of them side by side.
pub(crate) fn block_size(panel: &Piece, across: u32, ruler: Ruler) -> (Dimension, Dimension) {
    let side = |name, times: u32, of: &Dimension| {
        let margin = Term::times("to spare, both sides", 2, ROUND_THE_BLOCK, "backing");
        Dimension::sum(vec![Term::times(name, i64::from(times), of.size, "backing"), margin], ruler)
    };
    let rows = panel.count.div_ceil(across.max(1));
    (side("panels side by side", across, &panel.width), side("panels one above the other", rows, &panel.height))
}

/// How many copies of `panel` a block has side by side where cloth and backing are `usable` wide.
pub(crate) fn side_by_side(panel: &Piece, usable: Length) -> u32 {
    let fit = (usable - ROUND_THE_BLOCK * 2).0 / panel.width.size.0.max(1);
    fit.clamp(1, i64::from(panel.count)) as u32
}

/// For every block of backing the block of cloth it is fused to; the panels are cut from it afterwards. What is quilted
/// or pieced is cut over anyway: its backing is cut like it.
pub(super) fn fuse_blocks(draft: &mut Draft) {
    let mut blocks: Vec<Piece> = Vec::new();
    for at in 0..draft.pieces.len() {
        let Some(id) = draft.pieces[at].block_of.clone() else { continue };
        let Some(panel) = draft.pieces.iter_mut().find(|p| p.id == id) else { continue };
        if panel.when != When::Now {
            let (width, height, count) = (panel.width.clone(), panel.height.clone(), panel.count);
            let whole = &mut draft.pieces[at];
            (whole.width, whole.height, whole.count, whole.block_of) = (width, height, count, None);
            continue;
        }
        panel.when = When::FromBlock;
        let name = format!("Block for {}", panel.name.to_lowercase());
        let note = format!(
            "fuse it to its backing, then cut {} × {} from both at once",
            panel.count,
            panel.name.to_lowercase()
        );
        let (part, grain, print) = (panel.part, panel.grain, panel.print);
        let (width, height) = (draft.pieces[at].width.clone(), draft.pieces[at].height.clone());
        let block = Piece::new(format!("{id}-block"), name, part, width, height).noted(note);
        blocks.push(Piece { grain, print, block_of: Some(id), ..block });
    }
    if blocks.is_empty() {
        return;
    }
    draft.pieces.extend(blocks);
    let fuse = "Fuse each block to its backing, from the middle out; let it cool flat, then cut the panels from it. Heat and steam burn: follow the sheet that came with it.";
    draft.steps.retain(|step| !step.starts_with("Fuse the backing"));
    draft.steps.insert(0, fuse.to_owned());
}
