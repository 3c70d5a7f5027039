//! The cloths a bag is dressed in while it is drawn, and its parts in them.

use super::canvas::{Canvas, Style, ink, num};
use super::pattern::paint;
use bofta_core::bag::{Draft, Looks, Seen, Wall};
use bofta_core::measure::Length;
use bofta_core::piece::Part;
use bofta_core::project::Project;
use std::collections::BTreeMap;

/// Webbing as shops have it: undyed.
pub(super) const WEBBING: &str = "#B9A680";

/// What something is painted with: its ground under its figures.
#[derive(Clone)]
pub(super) struct Cloth {
    pub ground: String,
    pub figures: String,
}

impl Cloth {
    pub(super) fn plain(colour: &str) -> Self {
        Self { ground: colour.into(), figures: colour.into() }
    }
}

/// Cloths by the parts they are for; paper where there is none.
pub(super) struct Dress {
    pub cloths: BTreeMap<Part, Cloth>,
    paper: Cloth,
}

impl Dress {
    pub(super) fn new(cloths: BTreeMap<Part, Cloth>) -> Self {
        Self { cloths, paper: Cloth::plain(ink::PAPER) }
    }

    /// The project's cloths, their patterns defined on `canvas` under ids that begin with `prefix`, `scale` pixels to a
    /// unit of length; of the part that `motif` names a motif falls on its point of the drawing.
    pub(super) fn of(
        canvas: &mut Canvas,
        (project, draft): (&Project, &Draft),
        prefix: &str,
        scale: f64,
        motif: Option<(Part, (f64, f64))>,
    ) -> Self {
        let dressed = Part::ALL.into_iter().filter_map(|part| {
            let cloth = project.seen_cloth_of(part, &draft.pieces)?;
            let motif = motif.filter(|(of, _)| *of == part).map(|(_, at)| at);
            let figures = paint(canvas, cloth, &format!("{prefix}-{}", part.key()), (0, scale), motif);
            Some((part, Cloth { ground: cloth.look.ground.clone(), figures }))
        });
        Self::new(dressed.collect())
    }

    pub(super) fn cloth(&self, part: Part) -> &Cloth {
        self.cloths.get(&part).unwrap_or(&self.paper)
    }
}

/// Where a place on a face, from its left and from the mouth down, is seen; and how large a unit of it.
pub(super) struct Onto<'a> {
    pub at: &'a dyn Fn(f64, f64) -> (f64, f64),
    pub scale: f64,
}

impl Onto<'_> {
    fn corners(&self, left: f64, down: f64, width: f64, height: f64) -> [(f64, f64); 4] {
        let (right, foot) = (left + width, down + height);
        [(left, down), (right, down), (right, foot), (left, foot)].map(|(x, y)| (self.at)(x, y))
    }
}

/// What is seen of how the panels are made up.
pub(super) fn made_up(project: &Project, draft: &Draft) -> Vec<Seen> {
    let walls = project.bag.walls(project.ruler);
    let on = |wall: &Wall| {
        let id = wall.piece?;
        let part = draft.pieces.iter().find(|p| p.id == id)?.part;
        Some(project.made_up.get(id)?.seen(wall, part))
    };
    walls.iter().filter_map(on).flatten().collect()
}

/// Where a motif of its print falls on a wall, from the left and down from the mouth, and which part is cut from that
/// print; nothing where its piece has no place on a print.
pub(super) fn motif_on(project: &Project, draft: &Draft, wall: &Wall) -> Option<(Part, (f64, f64))> {
    let piece = draft.pieces.iter().find(|p| Some(p.id.as_ref()) == wall.piece)?;
    let motif = project.motif_on(piece).filter(|_| !wall.across_a_seam)?;
    project.cloth_for(piece).filter(|c| c.has_repeat())?;
    let (width, height) = piece.size();
    // What is cut in one over the base lies on its back upside down.
    let from = if wall.upside_down {
        (width - motif.x - wall.beside, motif.y - wall.top)
    } else {
        (motif.x - wall.beside, height - motif.y - wall.top)
    };
    Some((piece.part, (from.0.0 as f64, from.1.0 as f64)))
}

/// Draws what is seen of a part.
pub(super) fn part(canvas: &mut Canvas, seen: &Seen, dress: &Dress, onto: &Onto<'_>) {
    let f = |l: Length| l.0 as f64;
    let (left, down, width, height) = (f(seen.left), f(seen.down), f(seen.width), f(seen.height));
    let rect = onto.corners(left, down, width, height);
    let edge = |fill: &str| Style::fill(fill).stroke(ink::INDIGO, 1.4);
    let stitch = Style::line(ink::INDIGO, 1.1).dash("2 3");
    let mut line = |a: (f64, f64), b: (f64, f64), style: &Style| canvas.line(a.0, a.1, b.0, b.1, style);
    match &seen.looks {
        Looks::Patch { cloth, dividers } => {
            canvas.polygon(&rect, &edge(&dress.cloth(*cloth).figures));
            for at in dividers {
                let x = left + f(*at);
                let (top, foot) = ((onto.at)(x, down), (onto.at)(x, down + height));
                canvas.line(top.0, top.1, foot.0, foot.1, &stitch);
            }
        }
        Looks::Zip { hangs } | Looks::Welt { hangs, .. } => {
            let bag = onto.corners(left, down, width, height + f(*hangs));
            for n in 0..4 {
                line(bag[n], bag[(n + 1) % 4], &Style::line(ink::PAPER, 1.4).dash("5 4"));
            }
            match &seen.looks {
                Looks::Welt { cloth, .. } => canvas.polygon(&rect, &edge(&dress.cloth(*cloth).figures)),
                _ => {
                    canvas.polygon(&rect, &edge(ink::CALICO));
                    let (a, b) = ((onto.at)(left, down + height / 2.0), (onto.at)(left + width, down + height / 2.0));
                    canvas.line(a.0, a.1, b.0, b.1, &Style::line(ink::INDIGO, 3.4));
                    canvas.line(a.0, a.1, b.0, b.1, &Style::line(ink::TAPE, 2.0).dash("2 2"));
                }
            }
        }
        Looks::Handle { cloth, wide, drop } => {
            let webbing = Cloth::plain(WEBBING);
            let cloth = cloth.map_or(&webbing, |part| dress.cloth(part));
            let half = f(*wide) / 2.0;
            let (one, other) = (left + half, left + width - half);
            let rise = f(*drop) * 1.32;
            let points = [
                (one, down + height),
                (one, down),
                (one, down - rise),
                (other, down - rise),
                (other, down),
                (other, down + height),
            ];
            let p = points.map(|(x, y)| {
                let (x, y) = (onto.at)(x, y);
                format!("{} {}", num(x), num(y))
            });
            let d = format!("M{}L{}C{} {} {}L{}", p[0], p[1], p[2], p[3], p[4], p[5]);
            let thick = (f(*wide) * onto.scale).max(3.0);
            canvas.path(&d, &Style::line(ink::INDIGO, thick + 3.0));
            canvas.path(&d, &Style::line(cloth.ground.clone(), thick));
            canvas.path(&d, &Style::line(cloth.figures.clone(), thick));
        }
        Looks::Strip { cloth } => canvas.polygon(&rect, &edge(&dress.cloth(*cloth).figures)),
        Looks::Work => {
            canvas.polygon(&rect, &Style::fill(ink::PAPER).opacity(0.55));
            for n in 0..4 {
                canvas.line(rect[n].0, rect[n].1, rect[(n + 1) % 4].0, rect[(n + 1) % 4].1, &stitch);
            }
            let (across, up) = (width / 2.0, height / 2.0);
            let ends = [
                ((onto.at)(left + across * 0.7, down + up), (onto.at)(left + across * 1.3, down + up)),
                ((onto.at)(left + across, down + up * 0.7), (onto.at)(left + across, down + up * 1.3)),
            ];
            for (a, b) in ends {
                canvas.line(a.0, a.1, b.0, b.1, &Style::line(ink::INDIGO, 1.4));
            }
        }
    }
}
