//! How a piece is made up before it is cut to size: any panel of any bag may be pieced of patches, split into bands or
//! quilted, and any piece may be backed by itself.

use super::bands::{Bands, BandsRun};
use super::behind::{BackedWith, PieceBacking, Reaches};
use super::draft::{Draft, Notice};
use super::field::{Choice, Field, Group};
use super::kept::{put_all, values_of};
use super::order::{Phase, Step};
use super::piecing::{Patchwork, Piecing};
use super::problems::Problems;
use super::quilting;
use super::wall::{Looks, Moves, Seen, Wall};
use crate::FieldProblem;
use crate::measure::{Length, Ruler, System, default_length};
use crate::piece::{Dimension, Grain, Part, Piece, Term, When};
use serde::de::Error;
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use serde_json::{Map, Value};

/// How one piece is made up before it is cut to size.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct MadeUp {
    /// Its patches.
    pub patchwork: Patchwork,
    /// Its bands; not where it is in patches.
    pub bands: Bands,
    /// What lies behind it.
    pub backing: PieceBacking,
    /// Quilted: cut over, quilted, trimmed. Not where it is pieced: the patches are.
    pub quilted: bool,
    /// In patches: joined to more than the panel, quilted, trimmed.
    pub quilted_pieced: bool,
}

impl MadeUp {
    /// In one piece; were it pieced, of four by four.
    pub fn plain(system: System) -> Self {
        let patchwork = Patchwork::by_turns(Piecing::Whole, (4, 4), default_length(system, 2, 7));
        Self {
            patchwork,
            bands: Bands::none(),
            backing: PieceBacking::as_bag(system),
            quilted: false,
            quilted_pieced: false,
        }
    }

    /// Nothing is done to it.
    pub fn is_plain(&self) -> bool {
        !self.is_pieced() && !self.quilted && !self.backing.is_own()
    }

    fn in_bands(&self) -> bool {
        self.patchwork.piecing == Piecing::Whole && self.bands.count() > 1
    }

    /// In patches or bands.
    fn is_pieced(&self) -> bool {
        self.patchwork.piecing != Piecing::Whole || self.in_bands()
    }

    /// What stands, in a few words; empty when it is in one piece.
    pub fn summary(&self) -> String {
        let backed = self.backing.is_own().then(|| match self.backing.with {
            BackedWith::Nothing => "not backed".to_owned(),
            with => with.answer().name.to_lowercase(),
        });
        let made = Some(self.made()).filter(|m| !m.is_empty());
        made.into_iter().chain(backed).collect::<Vec<_>>().join("; ")
    }

    fn made(&self) -> String {
        let (columns, rows) = (self.patchwork.columns, self.patchwork.rows);
        let quilted = if self.quilted_pieced { ", quilted" } else { "" };
        match self.patchwork.piecing {
            Piecing::Whole if self.in_bands() => format!("{} bands", self.bands.count()),
            Piecing::Whole if self.quilted => "quilted".to_owned(),
            Piecing::Whole => String::new(),
            Piecing::Grid => format!("{columns} × {rows} squares{quilted}"),
            Piecing::Strips => format!("{columns} strips{quilted}"),
            Piecing::Triangles => format!("{columns} × {rows} triangles{quilted}"),
            Piecing::Crazy => format!("crazy{quilted}"),
        }
    }

    /// Its fields.
    pub fn fields(&mut self) -> Vec<Field<'_>> {
        let (whole, banded) = (self.patchwork.piecing == Piecing::Whole, self.in_bands());
        let (backed, g) = (self.backing.with.part().is_some(), Group::Front);
        let clear = backed && self.backing.reaches == Reaches::Clear;
        let mut all = self.patchwork.fields("How it is made up");
        for field in all.iter_mut().filter(|f| f.key == "patch_seam" && banded) {
            field.idle = false;
        }
        all.extend([
            Field::lengths(
                "bands",
                "Split into bands that show so much, the last takes the rest",
                g,
                &mut self.bands.show,
            )
            .only_if(whole),
            Field::choice("bands_run", "The bands lie", g, &mut self.bands.run).only_if(banded),
            Field::cloths("band_cloths", "Their cloths, in the same order", g, &mut self.bands.cloths).only_if(banded),
            Field::toggle("quilted", "Quilted before it is trimmed", g, &mut self.quilted).only_if(whole && !banded),
            Field::toggle("quilted_pieced", "Quilted once it is pieced, then trimmed", g, &mut self.quilted_pieced)
                .only_if(!whole),
            Field::choice("backed", "Backed with", Group::Backing, &mut self.backing.with),
            Field::choice("backed_reach", "The backing is", Group::Backing, &mut self.backing.reaches).only_if(backed),
            Field::size("backed_clear", "Clear by", Group::Backing, &mut self.backing.clear_by).only_if(clear),
            Field::choice("backed_over", "And over all of it", Group::Backing, &mut self.backing.over).only_if(backed),
        ]);
        all
    }

    /// Sets the field `key` as typed or chosen.
    ///
    /// # Errors
    /// There is no such field, or what was typed cannot be read.
    pub fn set(&mut self, key: &str, value: &str, system: System) -> Result<(), FieldProblem> {
        let before = self.patchwork.clone();
        let mut fields = self.fields();
        let Some(field) = fields.iter_mut().find(|f| f.key == key) else {
            let all: Vec<&str> = fields.iter().map(|f| f.key).collect();
            let message = format!("There is no field “{key}” of how a panel is made up: there is {}.", all.join(", "));
            return Err(FieldProblem::new(key, value, message));
        };
        field.set(value, system)?;
        drop(fields);
        self.patchwork.rearranged(&before);
        Ok(())
    }

    /// Makes the piece `id` of `draft` up; the draft stays as it is when there is no such piece. `walls` say what a panel
    /// has beyond its face.
    ///
    /// # Errors
    /// The seam between patches leaves nothing of them, the bands are more than the panel, or nothing is left of a backing.
    pub fn apply(&self, draft: &mut Draft, id: &str, walls: &[Wall], ruler: Ruler) -> Result<(), FieldProblem> {
        if draft.piece(id).is_some_and(may_be_backed) {
            self.backing.behind(&mut draft.pieces, id, ruler)?;
            if let (true, Some(panel)) = (self.backing.with.part().is_some(), draft.piece(id)) {
                let (with, name) = (self.backing.with.answer().name.to_lowercase(), panel.name.to_lowercase());
                let text = format!(
                    "Lay {with} behind {name}; fuse it or baste it, as the sheet that came with it says. Heat and steam burn."
                );
                draft.add_step(Step::new(Phase::Backed, format!("back-{id}"), text));
            }
        }
        let Some(at) = draft.pieces.iter().position(|p| p.id == id && may_be_made_up(p)) else {
            if let Some(panel) = draft.piece(id).filter(|_| self.is_pieced() || self.quilted) {
                let text = format!(
                    "How {} is made up is kept aside: it is in patches, cut over or cut from a block already.",
                    panel.name.to_lowercase()
                );
                let stage = super::Stage::Pieces;
                draft.notices.push(Notice { stage, ..Notice::attention("made_up", text) });
            }
            return Ok(());
        };
        let panel = draft.pieces[at].clone();
        let name = panel.name.to_lowercase();
        if self.is_pieced() {
            self.seam_stands(&panel, ruler)?;
            if let Some(problem) = self.patchwork.problem(ruler) {
                return Err(problem);
            }
            let seam = Problems::new(ruler).show(self.patchwork.seam);
            let text = format!("Piece {name}, its seams {seam}, and trim it to size.");
            draft.add_step(Step::new(Phase::Bare, format!("piece-{id}"), text));
        }
        if self.in_bands() {
            let wall = walls.iter().find(|w| w.piece == Some(id) && !w.across_a_seam);
            let edge = wall.map_or(Length::ZERO, |w| match self.bands.run {
                BandsRun::Across => w.edge,
                BandsRun::Along => w.beside,
            });
            let pieces = self.bands.of(panel, edge, self.patchwork.seam, ruler)?;
            draft.pieces.splice(at..=at, pieces);
        } else if self.is_pieced() {
            let (pieces, notices) = self.pieced(panel, ruler);
            draft.pieces.splice(at..=at, pieces);
            if self.quilted_pieced {
                let text = format!("Quilt {name} from the middle out, then trim it to size.");
                draft.add_step(Step::new(Phase::Backed, format!("quilt-{id}"), text));
            }
            draft.notices.extend(notices.into_iter().map(|n| Notice { stage: super::Stage::Pieces, ..n }));
        } else if self.quilted {
            let text = format!("Quilt {name} from the middle out, then trim it to size.");
            draft.add_step(Step::new(Phase::Backed, format!("quilt-{id}"), text));
            quilting::quilt(&mut draft.pieces, id, ruler);
        }
        if self.is_pieced() || self.quilted {
            let text = format!(
                "Measure {name} once it is made up and trimmed, and type it: what is still to be cut follows what came out."
            );
            draft.notices.push(Notice { stage: super::Stage::Pieces, ..Notice::note("measured", text) });
        }
        Ok(())
    }

    /// `panel` and its patches, which join to more than it where it is quilted before it is trimmed.
    fn pieced(&self, panel: Piece, ruler: Ruler) -> (Vec<Piece>, Vec<Notice>) {
        if !self.quilted_pieced {
            return self.patchwork.of(panel, ruler);
        }
        let over = |d: &Dimension| {
            let more = Term::once("over, trimmed after quilting", quilting::over(ruler), "quilted_pieced");
            Dimension { size: d.size + more.each, terms: [d.terms.clone(), vec![more]].concat() }
        };
        let larger = Piece { width: over(&panel.width), height: over(&panel.height), ..panel.clone() };
        let (mut pieces, notices) = self.patchwork.of(larger, ruler);
        if let Some(made) = pieces.first_mut() {
            let (whole, when) = (made.size(), made.when);
            let show = |l: Length| ruler.show(l).text;
            let note = format!("pieced {} × {}, quilted, then trimmed to its size", show(whole.0), show(whole.1));
            *made = panel.cut(when).noted(note);
        }
        (pieces, notices)
    }

    /// What is seen of it on `wall`, whose panel is of `part`: its bands, or its patches by turns.
    pub fn seen(&self, wall: &Wall, part: Part) -> Vec<Seen> {
        // Of what is cut in one over the base the back is not told apart; scraps lie as they come.
        if wall.upside_down || wall.across_a_seam {
            return vec![];
        }
        let whole = (wall.width + wall.beside * 2, wall.height + wall.top + wall.under());
        let (top, beside) = (wall.top, wall.beside);
        let within = |at: Length, most: Length| at.max(Length::ZERO).min(most);
        let patch = |cloth, (left, right): (Length, Length), (upper, lower): (Length, Length)| {
            let (left, right) = (within(left - beside, wall.width), within(right - beside, wall.width));
            let (down, foot) = (within(upper - top, wall.height), within(lower - top, wall.height));
            let looks = Looks::Patch { cloth, dividers: vec![] };
            let (width, height) = (right - left, foot - down);
            Seen { side: wall.side, looks, left, down, width, height, moves: Moves::default() }
        };
        let order = self.patchwork.order(part);
        let other = if part == Part::Contrast { Part::Outer } else { Part::Contrast };
        let (columns, rows) = match self.patchwork.piecing {
            Piecing::Whole if self.in_bands() => {
                let across = self.bands.run == BandsRun::Across;
                let (edge, end) = if across { (wall.edge, whole.1) } else { (beside, whole.0) };
                let mut from = Length::ZERO;
                let mut to = edge;
                let band = |n: usize| {
                    to = if n < self.bands.show.len() { to + self.bands.show[n] } else { end };
                    let along = (from, to);
                    from = to;
                    let cloth = self.bands.part(n, part);
                    if across {
                        patch(cloth, (Length::ZERO, whole.0), along)
                    } else {
                        patch(cloth, along, (Length::ZERO, whole.1))
                    }
                };
                return (0..self.bands.count()).map(band).collect();
            }
            Piecing::Whole | Piecing::Crazy => return vec![],
            Piecing::Strips => (i64::from(self.patchwork.columns), 1),
            Piecing::Grid | Piecing::Triangles => (i64::from(self.patchwork.columns), i64::from(self.patchwork.rows)),
        };
        let nth = |n: i64, of: i64, whole: Length| whole * n / of;
        (0..rows)
            .flat_map(|row| (0..columns).map(move |column| (row, column)))
            .map(|(row, column)| {
                // Of triangles each half is a cloth; a unit is drawn in one of them.
                let by_turns = if (row + column) % 2 == 0 { other } else { part };
                let cloth = order.get((row * columns + column) as usize).copied().unwrap_or(by_turns);
                let across = (nth(column, columns, whole.0), nth(column + 1, columns, whole.0));
                patch(cloth, across, (nth(row, rows, whole.1), nth(row + 1, rows, whole.1)))
            })
            .collect()
    }

    fn seam_stands(&self, panel: &Piece, ruler: Ruler) -> Result<(), FieldProblem> {
        let (least, seam) = (panel.width.size.min(panel.height.size), self.patchwork.seam);
        if seam >= Length::MILLIMETRE * 3 && seam < least / 8 {
            return Ok(());
        }
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        let message = format!(
            "The seam between patches of {} is {}: from ⅛ in or 3 mm to less than an eighth of the panel, {}, is allowed.",
            panel.name.to_lowercase(),
            show(seam),
            show(least / 8)
        );
        Err(FieldProblem::new("patch_seam", show(seam), message))
    }
}

/// Whether something may lie behind it: a piece that is cut or pieced, not a patch, nor what is a backing itself.
pub fn may_be_backed(piece: &Piece) -> bool {
    !piece.part.is_backing() && piece.patch_of.is_none() && piece.block_of.is_empty() && piece.when != When::FromBlock
}

/// Whether it is a panel that may be pieced or quilted: cut now, along the grain, of a cloth that is seen.
pub fn may_be_made_up(piece: &Piece) -> bool {
    let seen = matches!(piece.part, Part::Outer | Part::Contrast | Part::Base | Part::Lining | Part::Pocket);
    // A band may be pieced or quilted in its turn; a patch may not.
    let patch = piece.patch_of.is_some() && !piece.id.contains("-band-");
    seen && piece.when == When::Now && !patch && piece.grain == Grain::Length && !piece.spans
}

impl Serialize for MadeUp {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        let mut copy = self.clone();
        values_of(copy.fields()).serialize(serializer)
    }
}

impl<'de> Deserialize<'de> for MadeUp {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let mut kept = Map::<String, Value>::deserialize(deserializer)?;
        let mut made = Self::plain(System::Inches);
        put_all(made.fields(), &mut kept).map_err(D::Error::custom)?;
        match kept.keys().next() {
            Some(unknown) => Err(D::Error::custom(format!("a panel is not made up by “{unknown}”"))),
            None => Ok(made),
        }
    }
}
