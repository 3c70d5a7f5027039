//! A print that meets at the side seams: the pieces of one cloth that the draft sews side to side are placed on it so that
//! what is at one height on the seam is at one height of the print. Common practice; the seams are those of the draft.

use super::on_print::{MotifAt, OnPrint};
use super::{Pattern, Project};
use crate::FieldProblem;
use crate::bag::sewn::{Edge, Stretch, runs};
use crate::measure::Length;
use crate::piece::Piece;
use std::collections::{BTreeMap, BTreeSet};

impl Project {
    /// Places what is cut from the cloth `id` and sewn side to side so that its print meets there. The largest piece of
    /// those that hang together has a motif in its middle, the others follow.
    ///
    /// # Errors
    /// A cloth whose print is not measured along its up, or of which nothing is sewn side to side.
    pub(super) fn match_print(&mut self, id: &str) -> Result<String, FieldProblem> {
        let Some(cloth) = self.cloths.iter().find(|c| c.id == id).cloned() else {
            return Err(FieldProblem::new("cloth", id, format!("There is no cloth “{id}” in this project.")));
        };
        let changes_upwards = !matches!(cloth.look.pattern, Pattern::Plain | Pattern::Ticking);
        let Some(repeat) = cloth.repeat.filter(|_| changes_upwards) else {
            let message = format!(
                "How tall one repeat of {} is, is not known, or its print is the same all the way up: nothing has to meet.",
                cloth.name
            );
            return Err(FieldProblem::new("repeat", &cloth.name, message));
        };
        let (draft, _) = self.drafted().map_err(|mut all| all.remove(0))?;
        let of_it = |p: &&Piece| p.when.is_laid() && self.cloth_for(p).is_some_and(|c| c.id == id);
        let pieces: BTreeMap<&str, &Piece> = draft.pieces.iter().filter(of_it).map(|p| (p.id.as_ref(), p)).collect();
        // From the foot of one side edge to the foot of the other, by the pieces they are of.
        let mut joined: Vec<(&str, &str, Length)> = vec![];
        let seams = self.bag.seams(self.ruler);
        for seam in &seams {
            let [one, other] = &seam.sides;
            let foot = |s: &Stretch| foot_of_side(pieces.get(s.piece.as_ref())?, s);
            if let (Some(a), Some(b)) = (foot(one), foot(other)) {
                joined.push((one.piece.as_ref(), other.piece.as_ref(), b - a));
            }
        }
        let mut waiting: BTreeSet<&str> = joined.iter().flat_map(|(a, b, _)| [*a, *b]).collect();
        if waiting.is_empty() {
            let message = format!(
                "No two pieces of {} are sewn side to side: there is no seam for its print to meet at.",
                cloth.name
            );
            return Err(FieldProblem::new("cloth", &cloth.name, message));
        }
        let mut told = vec![];
        while let Some(first) = waiting.iter().copied().max_by_key(|id| pieces[id].outline().area()) {
            let mut heights = vec![(first, Length(pieces[first].size().1.0 / 2))];
            waiting.remove(first);
            let mut at = 0;
            while let Some(&(known, height)) = heights.get(at) {
                at += 1;
                for &(a, b, up) in &joined {
                    let next = if a == known { (b, height + up) } else { (a, height - up) };
                    if (a == known || b == known) && waiting.remove(next.0) {
                        heights.push(next);
                    }
                }
            }
            for (piece, height) in heights {
                let tall = pieces[piece].size().1;
                // Any of its motifs is at the same place of the print.
                let height = Length(height.0.rem_euclid(repeat.0));
                let up = if piece == first { MotifAt::Middle } else { MotifAt::From(height) };
                if height > tall && piece != first {
                    let message = format!(
                        "{} is {} {} tall, and no motif falls on it where the seam wants it: one repeat is taller. Place it by hand.",
                        pieces[piece].name,
                        self.ruler.show(tall).text,
                        self.system.symbol()
                    );
                    return Err(FieldProblem::new("piece", piece, message));
                }
                told.push(pieces[piece].name.to_string());
                self.on_print.insert(piece.to_owned(), OnPrint { across: MotifAt::Middle, up });
            }
        }
        Ok(format!("{} meets at the seams: {}", cloth.name, told.join(", ")))
    }
}

/// How far up `piece` the side edge that `stretch` sews begins; nothing of any other edge, or of one that goes on to another.
fn foot_of_side(piece: &Piece, stretch: &Stretch) -> Option<Length> {
    if stretch.edge != Edge::Side || stretch.then.is_some() || piece.size().1 <= Length::ZERO {
        return None;
    }
    runs(piece, Edge::Side).into_iter().flatten().map(|p| p.y).min()
}
