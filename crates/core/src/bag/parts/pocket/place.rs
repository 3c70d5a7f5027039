//! Where a pocket goes on its wall, and whether it fits there.

use super::AddedPocket;
use crate::bag::parts::Ground;
use crate::bag::problems::Problems;
use crate::bag::wall::{At, Wall};
use crate::measure::Length;
use crate::piece::{From, Mark};

/// Webbing narrower than this does not cover an edge and its stitching: a quarter of an inch to each side. Common practice.
const COVERS: Length = Length::inches(1, 2);

impl AddedPocket {
    /// Where it goes on the wall.
    pub(super) fn wall_marks(&self, wall: &Wall, on: &Ground<'_>) -> Vec<Mark> {
        let (sits, down) = (self.sits(wall), self.down(wall));
        let what = if self.make.is_window() { "window, its top corners" } else { "top corners" };
        let only = if wall.piece.is_some() { format!(", {}", wall.side.on()) } else { String::new() };
        let name = format!("{}, {what}{only}", on.name);
        if self.full_width() {
            let level = format!("{}, its top edge{only}", on.name);
            let edge = wall.mark(level, At::EachSide(Length::ZERO), down);
            let (distance, from) = edge.and.unwrap_or((down, From::TopEdge));
            let mut marks = vec![Mark { distance, from, and: None, ..edge }];
            marks.extend(self.dividers_on(wall, (wall.width - sits) / 2, down, on));
            return marks;
        }
        if wall.across_a_seam {
            // The face is half on each panel; its middle is the side seam.
            let seam = wall.sides.map_or(Length::ZERO, |(seam, _)| seam);
            let half = wall.mark(name, At::Middle, down);
            return vec![Mark { distance: seam + sits / 2, from: From::SideEdges, ..half }];
        }
        let left = self.stands_from_left().unwrap_or((wall.width - sits) / 2);
        let at = match self.stands_from_left() {
            Some(left) => At::FromLeft { in_by: left, wide: sits },
            None => At::EachSide(left),
        };
        let mut marks = vec![wall.mark(name, at, down)];
        marks.extend(self.dividers_on(wall, left, down, on));
        marks
    }

    pub(super) fn dividers_on(&self, wall: &Wall, left: Length, down: Length, on: &Ground<'_>) -> Vec<Mark> {
        let mut at = left;
        let divided = self.divided(self.sits(wall));
        let last = divided.len().saturating_sub(1);
        let divider = |(n, width): (usize, &Length)| {
            at += *width;
            let name = format!("{}, divider {}", on.name, n + 1);
            wall.mark(name, At::FromLeft { in_by: at, wide: Length::ZERO }, down)
        };
        divided.iter().enumerate().take(last).map(divider).collect()
    }

    pub(super) fn fits(&self, wall: &Wall, on: &Ground<'_>, problems: &mut Problems) {
        let sits = self.sits(wall);
        let width = problems.show(wall.width);
        if self.behind_webbing()
            && let Some(webbing) = wall.webbing.filter(|w| w.wide < COVERS)
        {
            let text = format!(
                "{}: webbing {} wide does not hold a raw edge under its middle: at least {} is needed.",
                on.name,
                problems.show(webbing.wide),
                problems.show(COVERS)
            );
            problems.refuse("place", webbing.wide, text);
        }
        if !self.full_width() && sits > wall.width {
            let text = format!("{} is {} wide: the face {} is {width}.", on.name, problems.show(sits), wall.side.on());
            problems.refuse("width", sits, text);
        }
        if let Some(left) = self.stands_from_left()
            && left + sits > wall.width
        {
            let text = format!(
                "{} from the left and {} wide, {} runs over the edge of the face, which is {width}.",
                problems.show(left),
                problems.show(sits),
                on.name
            );
            problems.refuse("from_left", self.from_left, text);
        }
        let tall = self.height + if self.make.is_window() { self.opening } else { Length::ZERO };
        if self.down(wall) + tall > wall.height || self.down(wall) < Length::ZERO {
            let text = format!(
                "{} below the mouth and {} tall, {} runs over the face, which is {}.",
                problems.show(self.down(wall).max(Length::ZERO)),
                problems.show(self.height),
                on.name,
                problems.show(wall.height)
            );
            problems.refuse("height", self.height, text);
        } else if wall.top + self.down(wall) < Length::ZERO {
            let text = format!(
                "{} is {} below the mouth: there a band, a facing or another piece lies; at least {} is needed.",
                on.name,
                problems.show(self.down(wall)),
                problems.show(-wall.top)
            );
            problems.refuse("below", self.below, text);
        }
    }

    pub(super) fn divided_well(&self, sits: Length, problems: &mut Problems) {
        let divided = self.divided(sits);
        if let Some(none) = divided.iter().find(|d| **d <= Length::ZERO) {
            let text = format!("A division is {} wide: each must be more than 0.", problems.show(*none));
            problems.refuse("divisions", *none, text);
        }
        let sum: Length = divided.iter().copied().sum();
        if !self.divisions.is_empty() && sum != sits {
            let text = format!(
                "The divisions come to {}, the pocket sits {} wide: they must be the same.",
                problems.show(sum),
                problems.show(sits)
            );
            problems.refuse("divisions", sum, text);
        }
        if self.fuller.is_empty() {
            return;
        }
        let cut: Length = self.fuller.iter().copied().sum();
        if self.fuller.len() != self.divisions.len() {
            let text = format!(
                "{} come to {}, but there are {} divisions: say one for each, or none.",
                self.fuller.len(),
                problems.show(cut),
                self.divisions.len()
            );
            problems.refuse("fuller", cut, text);
        } else if let Some((q, p)) = self.fuller.iter().zip(&divided).find(|(q, p)| q < p) {
            let text = format!(
                "A division that sits {} wide cannot be cut {}: it is as wide or wider.",
                problems.show(*p),
                problems.show(*q)
            );
            problems.refuse("fuller", *q, text);
        }
    }
}
