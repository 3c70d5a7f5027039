//! The walls of a bag: what a body says of itself so that any part can be put on it, whatever the family.

use super::boxing::Named;
use super::draft::Draft;
use super::field::choice;
use crate::measure::Length;
use crate::piece::{Figure, From, Mark, Part, Term};
use crate::shape::{Point, outset};

choice! {
    /// A wall of a bag, seen from where one stands before it.
    Side {
        /// Outside, in front.
        Front = "front", "Front", "";
        /// Outside, behind.
        Back = "back", "Back", "";
        /// Outside, at the left.
        Left = "left", "Left side", "";
        /// Outside, at the right.
        Right = "right", "Right side", "";
        /// On the lining of the front.
        InsideFront = "inside-front", "Inside, front", "";
        /// On the lining of the back.
        InsideBack = "inside-back", "Inside, back", "";
    }
}

impl Side {
    /// In a sentence: `on the front`.
    pub const fn on(self) -> &'static str {
        match self {
            Self::Front => "on the front",
            Self::Back => "on the back",
            Self::Left => "on the left side",
            Self::Right => "on the right side",
            Self::InsideFront => "inside, on the front",
            Self::InsideBack => "inside, on the back",
        }
    }

    /// Before the name of a part: `Front pocket`.
    pub const fn before(self) -> &'static str {
        match self {
            Self::Front => "Front",
            Self::Back => "Back",
            Self::Left => "Left side",
            Self::Right => "Right side",
            Self::InsideFront => "Inside front",
            Self::InsideBack => "Inside back",
        }
    }

    /// The wall across from it.
    pub const fn opposite(self) -> Self {
        match self {
            Self::Front => Self::Back,
            Self::Back => Self::Front,
            Self::Left => Self::Right,
            Self::Right => Self::Left,
            Self::InsideFront => Self::InsideBack,
            Self::InsideBack => Self::InsideFront,
        }
    }

    /// It is on the lining.
    pub const fn is_inside(self) -> bool {
        matches!(self, Self::InsideFront | Self::InsideBack)
    }
}

/// One wall: its finished face, and where that lies on the piece it is cut as.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Wall {
    /// Which one.
    pub side: Side,
    /// The piece it is part of; nothing of a tube that is there already.
    pub piece: Option<&'static str>,
    /// The piece that was split off that one for this wall alone.
    pub split_off: Option<String>,
    /// Finished width of the face; of one that slants, where it is narrowest.
    pub width: Length,
    /// Of one that slants, how wide it is at the base and at the mouth.
    pub slants: Option<[Length; 2]>,
    /// Finished height, from the base to the mouth.
    pub height: Length,
    /// From the raw edge at each side to the face.
    pub beside: Length,
    /// From the raw edge at the mouth down to the finished mouth; less than nothing where a band, a facing or a seam to
    /// another piece takes the upper end of the wall.
    pub top: Length,
    /// What the piece's own edge takes at the mouth before anything of it shows: its seam, hem or turn.
    pub edge: Length,
    /// The mouth is at the piece's lower edge: the back of what is cut in one over the base.
    pub upside_down: bool,
    /// It is made of two halves, one on each of two panels, with a side seam up its middle.
    pub across_a_seam: bool,
    /// What lies below the face down to a base seam, that seam included; nothing where the cloth goes on over the base.
    pub below: Option<Vec<Term>>,
    /// The side seams, where they can catch the edge of a part.
    pub sides: Option<Named>,
    /// What two strap ends take in the mouth; nothing where a zip or a flap closes it.
    pub caught: Option<Vec<Term>>,
    /// The layers of the mouth where it is stitched.
    pub mouth_layers: Vec<(Part, u32)>,
    /// The two straps that run over all of its height, where something may lie under both.
    pub webbing: Option<Webbing>,
}

/// Two straps from the base up over a wall.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Webbing {
    /// From the middle of one to the middle of the other.
    pub apart: Length,
    /// How wide one is.
    pub wide: Length,
}

impl Wall {
    /// A wall `piece` with a face `width` × `height`, `beside` and `top` from its raw edges.
    pub(super) fn new(side: Side, piece: &'static str, face: (Length, Length), beside: Length, top: Length) -> Self {
        Self {
            side,
            piece: Some(piece),
            split_off: None,
            width: face.0,
            slants: None,
            height: face.1,
            beside,
            top,
            edge: top.max(Length::ZERO),
            upside_down: false,
            across_a_seam: false,
            below: None,
            sides: None,
            caught: None,
            mouth_layers: vec![],
            webbing: None,
        }
    }

    /// Ending in a base seam, `half` the depth and `seam` below the face.
    #[must_use]
    pub(super) fn based(self, half: Length, seam: Named) -> Self {
        let below = vec![Term::once("half the depth", half, "depth"), Term::once("base seam", seam.0, seam.1)];
        Self { below: Some(below), ..self }
    }

    /// So wide at the base and at the mouth, where it slants: no straight part can be caught in a seam that does.
    #[must_use]
    pub(super) fn slanting(self, ends: Option<[Length; 2]>) -> Self {
        Self { slants: ends, sides: if ends.is_some() { None } else { self.sides }, ..self }
    }

    /// Between side seams.
    #[must_use]
    pub(super) fn between(self, seam: Named) -> Self {
        Self { sides: Some(seam), ..self }
    }

    /// Open at the mouth, two strap ends taking so much there, between so many layers.
    #[must_use]
    pub(super) fn open(self, caught: Vec<Term>, mouth_layers: Vec<(Part, u32)>) -> Self {
        Self { caught: Some(caught), mouth_layers, ..self }
    }

    /// With what its edge takes at the mouth, of all the terms that make up `top`: those that are taken off it, such as a
    /// band, are none of it.
    #[must_use]
    pub(super) fn edged(self, above: &[Term]) -> Self {
        let edge = above.iter().map(Term::value).filter(|v| *v > Length::ZERO).sum();
        Self { edge, ..self }
    }

    /// The same wall on another side.
    #[must_use]
    pub(super) fn on(&self, side: Side) -> Self {
        Self { side, ..self.clone() }
    }

    /// The same, its mouth at the piece's lower edge, `top` from it.
    #[must_use]
    pub(super) fn turned(self, top: Length) -> Self {
        Self { upside_down: true, top, ..self }
    }

    /// The same, its mouth at the piece's lower edge, as far from it as at the upper.
    #[must_use]
    pub(super) fn turned_over(self) -> Self {
        Self { upside_down: true, ..self }
    }

    /// The piece it is cut as by now.
    pub fn panel(&self) -> Option<&str> {
        self.split_off.as_deref().or(self.piece)
    }

    /// Of a face with a curve, its outline on the seam line: counter-clockwise, from its lower left corner.
    pub fn curve(&self, draft: &Draft) -> Option<Vec<Point>> {
        let piece = draft.piece(self.piece?)?.as_trimmed();
        let curved = matches!(piece.figure, Figure::HalfRound | Figure::RoundedAbove(_) | Figure::Rounded(_));
        let outline = (curved && !self.upside_down).then(|| outset(&piece.outline().corners(), -self.beside))??;
        // It is inset alike all round; at the mouth the seam may be another than at the sides.
        let below = self.height - (piece.height.size - self.top - self.beside);
        Some(outline.into_iter().map(|p| Point::new(p.x, p.y + below)).collect())
    }

    /// From side seam to side seam on the seam lines: half the mouth.
    pub fn across(&self) -> Option<Length> {
        self.sides.map(|(seam, _)| self.width + self.beside * 2 - seam * 2)
    }

    /// What lies below the face down to the base's raw edge.
    pub fn under(&self) -> Length {
        self.below.iter().flatten().map(Term::value).sum()
    }

    /// A mark on its piece: `in_by` from the left of the face, or from each side of it when it stands in the middle, and
    /// `down` from the finished mouth.
    pub(super) fn mark(&self, name: String, at: At, down: Length) -> Mark {
        let edge = if self.upside_down { From::BaseEdge } else { From::TopEdge };
        let (distance, from) = match at {
            At::Middle => (Length::ZERO, From::Middle),
            At::EachSide(in_by) => (self.beside + in_by, From::SideEdges),
            // Seen with its mouth up the piece lies turned round: what is left on the face is at its right edge.
            At::FromLeft { in_by, wide } if self.upside_down => {
                (self.beside + self.width - in_by - wide, From::LeftEdge)
            }
            At::FromLeft { in_by, .. } => (self.beside + in_by, From::LeftEdge),
            At::OfMiddle(apart) => (apart, From::Middle),
        };
        Mark { boxes: false, share: false, name: name.into(), distance, from, and: Some((self.top + down, edge)) }
    }
}

/// How far across a face something stands.
#[derive(Clone, Copy, Debug)]
pub(super) enum At {
    /// Its centre is in the middle.
    Middle,
    /// So far in from each side.
    EachSide(Length),
    /// So far in from the left, and so wide.
    FromLeft { in_by: Length, wide: Length },
    /// So far to each side of the middle.
    OfMiddle(Length),
}

/// What is seen of a part on a face, to be drawn: a rectangle, measured from the left of the face and from the mouth down.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Seen {
    /// The wall it is on.
    pub side: Side,
    /// What it looks like.
    pub looks: Looks,
    /// From the left of the face.
    pub left: Length,
    /// From the mouth down.
    pub down: Length,
    /// How wide.
    pub width: Length,
    /// How tall.
    pub height: Length,
    /// How it is moved.
    pub moves: Moves,
}

impl Seen {
    /// What of its wall it takes: the bag behind a window hangs over more than the window. Nothing of what rises above it.
    pub(super) fn takes(&self) -> Option<[Length; 4]> {
        let hangs = match &self.looks {
            Looks::Patch { .. } | Looks::Work => Length::ZERO,
            Looks::Zip { hangs } | Looks::Welt { hangs, .. } => *hangs,
            Looks::Handle { .. } | Looks::Strip { .. } => return None,
        };
        Some([self.left, self.left + self.width, self.down, self.down + self.height + hangs])
    }

    /// Both lie over each other on one wall.
    pub fn meets(&self, other: &Self) -> bool {
        let (Some(a), Some(b)) = (self.takes(), other.takes()) else { return false };
        self.side == other.side && a[0] < b[1] && b[0] < a[1] && a[2] < b[3] && b[2] < a[3]
    }

    /// How far it stands above the mouth.
    pub fn rises(&self) -> Length {
        match &self.looks {
            Looks::Handle { drop, .. } => *drop,
            _ => Length::ZERO,
        }
    }
}

/// What is seen.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Looks {
    /// A patch of a part's cloth, its lines of division from its left.
    Patch {
        /// Whose cloth.
        cloth: Part,
        /// From its left.
        dividers: Vec<Length>,
    },
    /// A slit with a zip in it, the bag behind it as deep as it hangs.
    Zip {
        /// How far the bag hangs below it.
        hangs: Length,
    },
    /// A slit filled by a welt.
    Welt {
        /// Whose cloth.
        cloth: Part,
        /// How far the bag hangs below it.
        hangs: Length,
    },
    /// Two ends of a handle so far in from left and right, the handle above the mouth.
    Handle {
        /// Whose cloth; nothing for webbing.
        cloth: Option<Part>,
        /// How wide the strap is.
        wide: Length,
        /// How high it rises above the mouth.
        drop: Length,
    },
    /// A small strip that hangs or is stitched down.
    Strip {
        /// Whose cloth.
        cloth: Part,
    },
    /// Needlework, cloth or paint within its margins.
    Work,
}

/// The fields that move a part over its face.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Moves {
    /// The field of how far down it is, and what that is now.
    pub down: Option<(&'static str, Length)>,
    /// The field of how far from the left it is, and what that is now.
    pub across: Option<(&'static str, Length)>,
    /// The choice that lets it stand anywhere across, and its answer.
    pub freely: Option<(&'static str, &'static str)>,
    /// How its two ends are moved, both alike.
    pub ends: Option<Ends>,
}

/// Two ends that are moved apart or together.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Ends {
    /// The field that says where they are.
    pub field: &'static str,
    /// What that is now.
    pub is: Length,
    /// How much the field grows for each unit that one end moves outward: 2 of the distance between them, −1 of the
    /// distance from the edge.
    pub outward: i64,
}
