//! The cut list: every piece with its reasons and its drawing, and the parts.

use super::bag::{FieldView, field_view};
use super::{DimensionView, DrawingView, Measure};
use bofta_core::bag::making_up::{may_be_backed, may_be_made_up};
use bofta_core::bag::piecing::Patchwork;
use bofta_core::bag::{Group, MadeUp};
use bofta_core::measure::Length;
use bofta_core::piece::{Figure, Grain, Part, Piece, PrintRule, When};
use bofta_core::project::{Lies, MotifAt, PieceEdge, Planned, Project, is_measured_later};
use bofta_formats::draw::{Shown, piece};
use serde::Serialize;
use utoipa::ToSchema;

/// A piece of the cut list.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct PieceView {
    pub id: String,
    pub name: String,
    /// Key of the part.
    pub part: String,
    pub bundle: String,
    pub count: u32,
    pub width: DimensionView,
    pub height: DimensionView,
    /// `at the table`, or when else it is cut to size.
    pub when: Option<String>,
    /// Cut out of both lower corners.
    pub corner_across: Option<DimensionView>,
    /// The figures it is cut to within its width and height, in words; nothing of a rectangle.
    pub figures: Option<String>,
    pub corner_up: Option<DimensionView>,
    pub grain: String,
    /// It is cut from a cloth, and so may be turned by hand.
    pub may_turn: bool,
    /// How it lies by hand.
    pub lies: Lies,
    pub print: String,
    /// Its cloth has a print whose repeat is measured, so it may be placed on it.
    pub may_place: bool,
    /// A scrap it may come from has an edge that is kept.
    pub may_be_on_edge: bool,
    /// `top` or `base`, where it lies with that on a kept edge.
    pub on_edge: Option<PieceEdge>,
    /// Where a motif falls on it, in a few words, if it is placed.
    pub placed: Option<String>,
    pub note: Option<String>,
    pub marks: Vec<String>,
    /// It is strips that are joined end to end.
    pub joined: bool,
    /// It is measured once it is made: as it was measured, or as it should come out.
    pub measured: Option<MeasuredView>,
    /// How it may be made up, when it is a panel: its fields, and what stands in a few words.
    pub made_up: Option<MadeUpView>,
    /// Its patches, where it is in patches that are alike.
    pub patches: Option<PatchesView>,
    /// Id of its cloth.
    pub cloth: Option<String>,
    pub drawing: DrawingView,
}

/// A piece that is measured once it is made.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct MeasuredView {
    /// Whether it has been.
    pub is: bool,
    /// Across, seams included.
    pub width: Measure,
    /// Up, seams included.
    pub height: Measure,
}

/// How a panel is made up.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct MadeUpView {
    /// What stands, in a few words; empty when it is in one piece.
    pub summary: String,
    /// It can be pieced and quilted; else only backed.
    pub panel: bool,
    pub fields: Vec<FieldView>,
}

/// The patches of a panel.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct PatchesView {
    pub columns: usize,
    pub rows: usize,
    /// Whose cloth each is, row by row from the upper left; none of half-square triangles.
    pub cloths: Vec<String>,
    /// Their cloths are named, not two by turns.
    pub arranged: bool,
    /// It is arranged by the bag's own field, not by how the panel is made up.
    pub of_bag: bool,
    /// What one shows.
    pub width: Measure,
    pub height: Measure,
}

/// A part of the bag and its cloth.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct PartView {
    pub key: String,
    pub name: String,
    pub pieces: u32,
    /// The cloth it is cut from first.
    pub cloth: Option<String>,
    /// All it may be cut from, in order.
    pub cloths: Vec<String>,
    /// It may come from any of its cloths, whichever takes least.
    pub any: bool,
    /// Ids of the cloths it is never to be cut from.
    pub never: Vec<String>,
    /// The pieces it is cut as.
    pub kinds: Vec<KindView>,
}

/// A piece of a part, and the cloth it is cut from where that is its own.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct KindView {
    pub piece: String,
    pub name: String,
    pub count: u32,
    pub cloth: Option<String>,
}

pub(super) fn pieces(project: &Project, planned: &Planned) -> Vec<PieceView> {
    let all = &planned.draft.pieces;
    // One scale for the whole sheet, so that pieces compare.
    let largest = all.iter().flat_map(|p| [p.width.size.0, p.height.size.0]).max().unwrap_or(1);
    let scale = 250.0 / largest as f64;
    all.iter().map(|p| piece_view(project, p, scale)).collect()
}

fn piece_view(project: &Project, p: &Piece, scale: f64) -> PieceView {
    let ruler = project.ruler;
    let (corner_across, corner_up) = match &p.figure {
        Figure::CutOut { across, up } | Figure::CutAtFold { across, up } => {
            (Some(DimensionView::new(across, ruler)), Some(DimensionView::new(up, ruler)))
        }
        _ => (None, None),
    };
    let cloth = project.cloth_for(p);
    let motif = project.motif_on(p).filter(|_| cloth.is_some_and(|c| c.has_repeat()));
    let patches = project.patchwork_of(&p.id).filter(|_| matches!(p.when, When::Pieced(_)));
    let order: Vec<Part> = patches.as_ref().map(|(patchwork, _)| patchwork.order(p.part)).unwrap_or_default();
    let dressed: Vec<_> = order.iter().map(|part| project.cloth_of(*part)).collect();
    let shown = Shown { marks: true, motif, patches: &dressed, ..Shown::default() };
    let is_measured = project.measured.contains_key(p.id.as_ref());
    PieceView {
        id: p.id.to_string(),
        name: p.name.to_string(),
        part: p.part.key().to_owned(),
        bundle: p.part.name().to_owned(),
        count: p.count,
        width: DimensionView::new(&p.width, ruler),
        height: DimensionView::new(&p.height, ruler),
        corner_across,
        corner_up,
        figures: p.figures(ruler),
        grain: match p.grain {
            Grain::Length => "along the selvedge",
            Grain::Across => "across the width",
            Grain::Either => "along or across",
            Grain::Bias => "on the bias",
            Grain::Any => "any way",
        }
        .to_owned(),
        may_turn: p.when.is_laid() && cloth.is_some(),
        lies: Lies::of(project.turned.get(p.id.as_ref()).copied()),
        print: match p.print {
            PrintRule::Upright => "stands as printed",
            PrintRule::Ignore => "either way up",
        }
        .to_owned(),
        may_place: p.when.is_laid() && cloth.is_some_and(|c| c.has_repeat()),
        may_be_on_edge: p.when.is_laid() && project.has_kept_edge(p),
        on_edge: project.on_edge.get(p.id.as_ref()).copied(),
        placed: placed(project, p),
        note: p.note.as_ref().map(ToString::to_string),
        when: p.when.describe(ruler).filter(|_| p.when != When::Measured || !is_measured),
        marks: p.marks.iter().map(|m| m.describe(ruler, p.size())).collect(),
        joined: p.joined,
        measured: measured_view(project, p),
        made_up: made_up_view(project, p),
        patches: patches.map(|(patchwork, of_bag)| patches_view(project, p, &patchwork, of_bag)),
        cloth: cloth.map(|c| c.id.clone()),
        drawing: piece(p, cloth, ruler, scale, shown).into(),
    }
}

/// Where a motif falls on it: `a motif in the middle`, `a motif 4 from the left, 6 from below`.
fn placed(project: &Project, p: &Piece) -> Option<String> {
    let place = project.on_print.get(p.id.as_ref())?;
    let Some(at) = project.motif_on(p) else { return Some("too small for its place on the print".to_owned()) };
    let show = |l| project.ruler.show(l).text;
    let across = match place.across {
        MotifAt::Middle => "in the middle".to_owned(),
        MotifAt::From(_) => format!("{} from the left", show(at.x)),
    };
    Some(match place.up {
        MotifAt::Middle if place.across == MotifAt::Middle => "a motif in the middle".to_owned(),
        MotifAt::Middle => format!("a motif {across}, half way up"),
        MotifAt::From(_) => format!("a motif {across}, {} from below", show(at.y)),
    })
}

fn measured_view(project: &Project, p: &Piece) -> Option<MeasuredView> {
    if !is_measured_later(p) {
        return None;
    }
    let over = match p.when {
        When::OverAndTrimmed(over) => over,
        _ => Length::ZERO,
    };
    let known = project.measured.get(p.id.as_ref());
    let (width, height) = known.map_or((p.width.size - over, p.height.size - over), |m| (m.width, m.height));
    let measure = |l| Measure::new(l, project.ruler);
    Some(MeasuredView { is: known.is_some(), width: measure(width), height: measure(height) })
}

fn made_up_view(project: &Project, p: &Piece) -> Option<MadeUpView> {
    let known = project.made_up.get(p.id.as_ref()).cloned();
    // What is cut from a block is in one piece, whatever was chosen before the block was.
    let made = known.is_some() && matches!(p.when, When::OverAndTrimmed(_) | When::Pieced(_));
    let panel = may_be_made_up(p) || made;
    if p.when == When::FromBlock || (known.is_none() && !may_be_made_up(p) && !may_be_backed(p)) {
        return None;
    }
    let mut made = known.unwrap_or_else(|| MadeUp::plain(project.system));
    let summary = made.summary();
    let fields = made.fields();
    // A strap is backed, never pieced.
    let fields = fields.iter().filter(|f| panel || f.group == Group::Backing).map(|f| field_view(f, project)).collect();
    Some(MadeUpView { summary, panel, fields })
}

fn patches_view(project: &Project, p: &Piece, patchwork: &Patchwork, of_bag: bool) -> PatchesView {
    let (columns, rows) = patchwork.places();
    // Each edge of the panel goes into a seam of its own.
    let shows = |side: Length, n: usize| {
        let each = (side - patchwork.seam * 2) / n as i64;
        Measure::new(each.round_to(project.ruler.step()), project.ruler)
    };
    PatchesView {
        columns,
        rows,
        cloths: patchwork.order(p.part).iter().map(|part| part.key().to_owned()).collect(),
        arranged: !patchwork.cloths.is_empty(),
        of_bag,
        width: shows(p.width.size, columns),
        height: shows(p.height.size, rows),
    }
}

fn kinds(project: &Project, planned: &Planned, part: Part) -> Vec<KindView> {
    let of_it = planned.draft.pieces.iter().filter(|p| p.part == part && p.when.is_laid());
    let kind = |p: &Piece| KindView {
        piece: p.id.to_string(),
        name: p.name.to_string(),
        count: p.count,
        cloth: project.dressing.own.get(p.id.as_ref()).and_then(|ids| ids.first().cloned()),
    };
    of_it.map(kind).collect()
}

pub(super) fn parts(project: &Project, planned: &Planned) -> Vec<PartView> {
    Part::ALL
        .into_iter()
        .filter_map(|part| {
            let count: u32 =
                planned.draft.pieces.iter().filter(|p| p.part == part && p.when.is_laid()).map(|p| p.count).sum();
            (count > 0).then(|| PartView {
                key: part.key().to_owned(),
                name: part.name().to_owned(),
                pieces: count,
                cloth: project.cloth_of(part).map(|c| c.id.clone()),
                cloths: project.from.get(&part).cloned().unwrap_or_default(),
                any: project.dressing.any.contains(&part),
                never: project.dressing.never.get(&part).map(|ids| ids.iter().cloned().collect()).unwrap_or_default(),
                kinds: kinds(project, planned, part),
            })
        })
        .collect()
}
