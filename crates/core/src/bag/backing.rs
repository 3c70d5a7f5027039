//! Backing: fleece, interfacing or firm stabiliser behind a panel, by three schools. Common practice.

use super::draft::Draft;
use super::field::{Field, Group, choice};
use super::order::{Phase, Step};
use crate::measure::{Length, Ruler};
use crate::piece::{Dimension, Figure, Grain, Part, Piece, Term, When};
use crate::shape::{Point, outset};
use std::borrow::Cow;
use std::collections::BTreeMap;

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

/// The backing of a bag as it is chosen: the fields every family that can be backed has.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct BackingChoice {
    /// How far it reaches.
    pub school: BackingSchool,
    /// What it is.
    pub cloth: BackingCloth,
}

impl BackingChoice {
    /// Its fields; `label` says what it lies behind.
    pub(super) fn fields(&mut self, label: &'static str) -> [Field<'_>; 2] {
        let some = self.is_some();
        [
            Field::choice("backing", label, Group::Backing, &mut self.school),
            Field::choice("backing_cloth", "Backed with", Group::Backing, &mut self.cloth).only_if(some),
        ]
    }

    /// There is one.
    pub fn is_some(&self) -> bool {
        self.school != BackingSchool::None
    }

    /// What lies behind `panel`, whose allowances are `within`; sizes brought up to `ruler`.
    pub(super) fn behind(&self, panel: &Piece, within: Allowances, ruler: Ruler) -> Vec<Piece> {
        behind(panel, self.school, (self.cloth.part(), self.cloth.word()), within, ruler)
    }

    /// What is done with it before anything is sewn.
    pub(super) fn step(&self) -> Option<Step> {
        self.is_some().then(|| Step::new(Phase::Backed, FUSING, FUSE))
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
    /// Across a corner that is cut out.
    pub corner: Length,
}

/// Width of the light strips of the two-stage school: an allowance and half an inch.
const STRIP: Length = Length::inches(1, 2);

/// The backing of `panel`, whose allowances are `within`, cut as `school` says from the cloth of a part that is called
/// so; sizes brought up to `ruler`.
pub(super) fn behind(
    panel: &Piece,
    school: BackingSchool,
    (part, word): (Part, &str),
    within: Allowances,
    ruler: Ruler,
) -> Vec<Piece> {
    let stem = panel.id.trim_end_matches("-panel").trim_start_matches("outer-").to_owned();
    let stem = if stem == "outer" { "panel".to_owned() } else { stem };
    let id = format!("{}-{stem}", word.replace(' ', "-"));
    let capital = format!("{}{}", word[..1].to_uppercase(), &word[1..]);
    let name = format!("{capital}, {}", panel.name.to_lowercase());
    let piece = |id: String, name: String, width: Dimension, height: Dimension| {
        let made = Piece::new(id, name, part, width, height).times(panel.count).lying(Grain::Any);
        Piece { backs: Some(panel.id.clone()), ..made }
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
        // A corner's edge comes in by its own seam, the panel's beside it by theirs.
        let trimmed = |d: &Dimension, by: Length, field| {
            let corner = Term::once("the seam across the corner", within.corner, "backing");
            let left = vec![Term::once("the panel's", d.size, field), less("less the seam", 1, by, field), corner];
            Dimension::sum(left, ruler)
        };
        let figure = match &panel.figure {
            Figure::CutOut { across, up } => Figure::CutOut {
                across: trimmed(across, within.side, "seam_side"),
                up: trimmed(up, within.base, "seam_base"),
            },
            Figure::CutAtFold { across, up } => Figure::CutAtFold {
                across: trimmed(across, within.side, "seam_side"),
                up: trimmed(up, Length::ZERO, "seam_base"),
            },
            Figure::Rounded(radius) => Figure::Rounded((*radius - within.side).max(Length::ZERO)),
            Figure::Circle | Figure::Rectangle => panel.figure.clone(),
            // Every edge of any other outline comes in by the narrowest of the seams.
            Figure::HalfRound | Figure::RoundedAbove(_) | Figure::Tapered(_) | Figure::Free(_) => {
                let seam = [within.side, within.top, within.base].into_iter().filter(|s| *s > Length::ZERO).min();
                let by = seam.unwrap_or_default();
                let Some(corners) = outset(&panel.outline().corners(), -by) else {
                    return piece(id.clone(), name.clone(), panel.width.clone(), panel.height.clone())
                        .shaped(panel.figure.clone())
                        .noted("cut like its panel, then trimmed clear of the seams");
                };
                let side = |d: &Dimension, far: fn(&Point) -> Length| {
                    let size = corners.iter().map(far).max().unwrap_or_default();
                    let less = Term::once("less the seams round it", size - d.size, "seam_side");
                    Dimension::sum(vec![Term::once("the panel", d.size, "backing"), less], ruler)
                };
                let (width, height) = (side(&panel.width, |p| p.x), side(&panel.height, |p| p.y));
                // What the ruler added to its size is added to its outline too.
                let exact = |d: &Dimension| Dimension { size: d.size - d.rounding(), ..d.clone() };
                let mut made = piece(id.clone(), name.clone(), exact(&width), exact(&height));
                made.figure = Figure::Free(corners);
                made.resize(width, height);
                return made.noted("lies inside the seam allowances");
            }
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
            let whole = piece(id, name, panel.width.clone(), panel.height.clone()).shaped(panel.figure.clone());
            vec![Piece { block_of: vec![panel.id.clone()], ..whole }]
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
pub const ROUND_THE_BLOCK: Length = Length::inches(1, 2);

/// Where the copies of one panel lie on a block: rows of so many side by side, rows one above the other.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct BlockRows {
    /// Id of the panel.
    pub panel: Cow<'static, str>,
    /// How many lie side by side in a full row.
    pub across: u32,
    /// How many rows.
    pub rows: u32,
    /// The panel's cut size.
    pub size: (Length, Length),
    /// How many there are.
    pub count: u32,
}

/// The rows of a block for `panels`, as many side by side as `usable` holds.
pub fn block_rows<'a>(panels: impl IntoIterator<Item = &'a Piece>, usable: Length) -> Vec<BlockRows> {
    let rows = |panel: &Piece| {
        let fit = (usable - ROUND_THE_BLOCK * 2).0 / panel.width.size.0.max(1);
        let across = fit.clamp(1, i64::from(panel.count.max(1))) as u32;
        let rows = panel.count.div_ceil(across);
        BlockRows { panel: panel.id.clone(), across, rows, size: panel.size(), count: panel.count }
    };
    panels.into_iter().map(rows).collect()
}

/// The size of a block of these rows.
pub fn block_size(rows: &[BlockRows], ruler: Ruler) -> (Dimension, Dimension) {
    let margin = || Term::times("to spare, both sides", 2, ROUND_THE_BLOCK, "backing");
    let widest = rows.iter().max_by_key(|r| r.size.0 * i64::from(r.across));
    let wide = widest.map(|r| Term::times("side by side", i64::from(r.across), r.size.0, "backing"));
    let tall = rows.iter().map(|r| Term::times("one above the other", i64::from(r.rows), r.size.1, "backing"));
    (
        Dimension::sum(wide.into_iter().chain([margin()]).collect(), ruler),
        Dimension::sum(tall.chain([margin()]).collect(), ruler),
    )
}

/// All panels of one cloth with one backing are cut from one block of both, fused first: the block of cloth and the
/// block of backing take the place of what was drafted for them. What is quilted or pieced is cut over anyway: its
/// backing is cut like it.
pub(super) fn fuse_blocks(draft: &mut Draft, ruler: Ruler) {
    let mut fused: BTreeMap<(Part, Part), Vec<Cow<'static, str>>> = BTreeMap::new();
    for at in 0..draft.pieces.len() {
        let backing = &draft.pieces[at];
        let Some(id) = backing.block_of.first().cloned() else { continue };
        let part = backing.part;
        match draft.pieces.iter_mut().find(|p| p.id == id).filter(|p| p.when == When::Now) {
            Some(panel) => {
                panel.when = When::FromBlock;
                fused.entry((panel.part, part)).or_default().push(id);
            }
            None => draft.pieces[at].block_of.clear(),
        }
    }
    if fused.is_empty() {
        return;
    }
    draft.pieces.retain(|p| p.block_of.is_empty());
    for ((cloth, backing), ids) in fused {
        let of: Vec<&Piece> = draft.pieces.iter().filter(|p| ids.contains(&p.id)).collect();
        let (Some(first), names) = (of.first(), of.iter().map(|p| format!("{} × {}", p.count, p.name.to_lowercase())))
        else {
            continue;
        };
        let names = names.collect::<Vec<_>>().join(", ");
        let (width, height) =
            block_size(&block_rows(of.iter().copied(), first.width.size + ROUND_THE_BLOCK * 2), ruler);
        let (grain, print) = (first.grain, first.print);
        let block = |id: String, name: String, part, note: String| {
            let block = Piece::new(id, name, part, width.clone(), height.clone()).noted(note);
            Piece { block_of: ids.clone(), ..block }
        };
        let (outer, behind) = (cloth.name().to_lowercase(), backing.name().to_lowercase());
        let whole = block(
            format!("{}-block", cloth.key()),
            format!("Block of {outer}"),
            cloth,
            format!("fuse it to its backing, then cut from both at once: {names}"),
        );
        let back = block(
            format!("{}-{}-block", backing.key(), cloth.key()),
            format!("Block of {behind} for the {outer}"),
            backing,
            "fused to its cloth before either is cut".to_owned(),
        );
        draft.pieces.push(Piece { grain, print, ..whole });
        draft.pieces.push(back.lying(Grain::Any));
    }
    draft.steps.retain(|step| step.key != FUSING);
    draft.add_step(Step::new(Phase::Backed, FUSING, FUSE_BLOCKS));
}

/// The step at which backings are fused.
pub const FUSING: &str = "fuse";

const FUSE: &str = "Fuse the backing to its panels. Heat and steam burn: follow the sheet that came with it.";
const FUSE_BLOCKS: &str = "Fuse each block to its backing, from the middle out; let it cool flat, then cut the panels from it. Heat and steam burn: follow the sheet that came with it.";
