//! A piece of the cut list.

use super::{Dimension, Grain, Mark, Mirror, PrintRule};
use crate::measure::{Length, Ruler};
use crate::shape::{Outline, Point};
use serde::{Deserialize, Serialize};
use std::borrow::Cow;

/// The part of the bag a piece belongs to; decides which cloth it is cut from and which bundle it is pinned in.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum Part {
    /// What is seen from outside.
    Outer,
    /// A second cloth seen from outside: patches, bands, bases.
    Contrast,
    /// A base of another cloth, as of faux leather.
    Base,
    /// The inside.
    Lining,
    /// Pockets.
    Pocket,
    /// Handles, straps and tabs.
    Straps,
    /// Strips that bind raw edges.
    Binding,
    /// Fleece or batting behind the outer.
    Backing,
    /// Fusible or sewn-in interfacing, light to medium.
    Interfacing,
    /// Firm interfacing, stabiliser.
    Stabiliser,
}

impl Part {
    /// All parts, in the order they are shown.
    pub const ALL: [Self; 10] = [
        Self::Outer,
        Self::Contrast,
        Self::Base,
        Self::Lining,
        Self::Pocket,
        Self::Straps,
        Self::Binding,
        Self::Backing,
        Self::Interfacing,
        Self::Stabiliser,
    ];

    /// The part's name.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Outer => "Outer",
            Self::Contrast => "Contrast",
            Self::Base => "Base",
            Self::Lining => "Lining",
            Self::Pocket => "Pocket",
            Self::Straps => "Straps",
            Self::Binding => "Binding",
            Self::Backing => "Fleece",
            Self::Interfacing => "Interfacing",
            Self::Stabiliser => "Firm stabiliser",
        }
    }

    /// Whether it is seen on the finished bag without looking into it.
    pub const fn shows(self) -> bool {
        matches!(self, Self::Outer | Self::Contrast | Self::Base | Self::Straps | Self::Binding)
    }

    /// The key used in documents and links.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Outer => "outer",
            Self::Contrast => "contrast",
            Self::Base => "base",
            Self::Lining => "lining",
            Self::Pocket => "pocket",
            Self::Straps => "straps",
            Self::Binding => "binding",
            Self::Backing => "backing",
            Self::Interfacing => "interfacing",
            Self::Stabiliser => "stabiliser",
        }
    }

    /// Whether it is never seen and wants a backing cloth, not a woven one.
    pub const fn is_backing(self) -> bool {
        matches!(self, Self::Backing | Self::Interfacing | Self::Stabiliser)
    }
}

/// What a piece looks like within its width and height.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub enum Figure {
    /// All of it.
    Rectangle,
    /// Both lower corners cut out at the table, measured from the raw edges.
    CutOut {
        /// In from the side.
        across: Dimension,
        /// Up from the base.
        up: Dimension,
    },
    /// A notch in the middle of both sides, where the base is a fold.
    CutAtFold {
        /// In from the side.
        across: Dimension,
        /// Up and down from the fold.
        up: Dimension,
    },
    /// A circle.
    Circle,
    /// A straight edge at the top, the rest half a circle; deeper than half the width, the sides run straight first.
    HalfRound,
    /// Both lower corners rounded.
    Rounded(Length),
    /// Both upper corners rounded; by half the width, it is half-round above.
    RoundedAbove(Length),
    /// Narrower at the top by so much on each side; where it is less than nothing, at the base.
    Tapered(Length),
    /// As its corners say.
    Free(Vec<Point>),
}

/// How patches lie in a panel.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub enum Patches {
    /// So many across and up, by turns of two cloths.
    Grid(u32, u32),
    /// The same, each halved from corner to corner.
    Triangles(u32, u32),
    /// As they come.
    Crazy,
    /// Bands, at the seams that are marked on the panel.
    Bands,
}

/// When a piece is cut to its size.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub enum When {
    /// At the table, with the others.
    Now,
    /// Cut over by so much in each direction, then pieced, fused or quilted, then trimmed.
    OverAndTrimmed(Length),
    /// Cut to a size measured on what is already made; its cloth is kept for it.
    Measured,
    /// Made up of patches, which are laid in its place, then trimmed to this size.
    Pieced(Patches),
    /// Cut from a block of cloth that was fused to its backing first; the block is laid in its place.
    FromBlock,
}

impl When {
    /// Whether it is laid on cloth itself, not what it is made from.
    pub const fn is_laid(self) -> bool {
        !matches!(self, Self::Pieced(_) | Self::FromBlock)
    }

    /// In the maker's words; nothing of what is cut at the table with the others.
    pub fn describe(self, ruler: Ruler) -> Option<String> {
        match self {
            Self::Now => None,
            Self::OverAndTrimmed(over) => Some(format!("cut {} over, then trimmed", ruler.show(over).text)),
            Self::Measured => Some("cut to what is made: measure first".to_owned()),
            Self::Pieced(Patches::Bands) => Some("made of its parts, then trimmed to this size".to_owned()),
            Self::Pieced(_) => Some("pieced from patches, then trimmed to this size".to_owned()),
            Self::FromBlock => Some("cut from its fused block, backing and all".to_owned()),
        }
    }
}

/// One kind of piece, `count` of them alike.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Piece {
    /// Key within the project: `outer-panel`.
    pub id: Cow<'static, str>,
    /// What the label says.
    pub name: Cow<'static, str>,
    /// What it is part of.
    pub part: Part,
    /// How many.
    pub count: u32,
    /// Across, as it stands on the bag.
    pub width: Dimension,
    /// Up, as it stands on the bag.
    pub height: Dimension,
    /// What it looks like within them.
    pub figure: Figure,
    /// Of a piece that is cut over: what it looks like once it is trimmed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub trimmed: Option<Figure>,
    /// It goes right across the cloth: the width is the cloth's own.
    pub spans: bool,
    /// When it is cut to size.
    pub when: When,
    /// Its grain.
    pub grain: Grain,
    /// Its print.
    pub print: PrintRule,
    /// Its mirror images.
    pub mirror: Mirror,
    /// What to mark on it, and where.
    pub marks: Vec<Mark>,
    /// What to know about it, short.
    pub note: Option<Cow<'static, str>>,
    /// It is a block, of cloth or of its backing, that these pieces are cut from once both are fused.
    pub block_of: Vec<Cow<'static, str>>,
    /// It is longer than its cloth: these are strips that are joined end to end.
    pub joined: bool,
    /// The panel it is a patch of.
    pub patch_of: Option<Cow<'static, str>>,
    /// The piece it is fused or sewn behind.
    pub backs: Option<Cow<'static, str>>,
}

impl Piece {
    /// One rectangle of `part`, cut now, standing along the grain and as printed, with no marks.
    pub fn new(
        id: impl Into<Cow<'static, str>>,
        name: impl Into<Cow<'static, str>>,
        part: Part,
        width: Dimension,
        height: Dimension,
    ) -> Self {
        Self {
            id: id.into(),
            name: name.into(),
            part,
            count: 1,
            width,
            height,
            figure: Figure::Rectangle,
            trimmed: None,
            spans: false,
            when: When::Now,
            grain: Grain::Length,
            print: PrintRule::Upright,
            mirror: Mirror::No,
            marks: vec![],
            note: None,
            block_of: vec![],
            joined: false,
            patch_of: None,
            backs: None,
        }
    }

    /// `count` of it.
    #[must_use]
    pub fn times(self, count: u32) -> Self {
        Self { count, ..self }
    }

    /// Shaped as `figure`.
    #[must_use]
    pub fn shaped(self, figure: Figure) -> Self {
        Self { figure, ..self }
    }

    /// Lying any way: backings, tabs, straps that nobody reads.
    #[must_use]
    pub fn lying(self, grain: Grain) -> Self {
        Self { grain, print: PrintRule::Ignore, ..self }
    }

    /// With marks.
    #[must_use]
    pub fn marked(mut self, marks: impl IntoIterator<Item = Mark>) -> Self {
        self.marks.extend(marks);
        self
    }

    /// With something to know about it.
    #[must_use]
    pub fn noted(self, note: impl Into<Cow<'static, str>>) -> Self {
        Self { note: Some(note.into()), ..self }
    }

    /// Cut to size at another time.
    #[must_use]
    pub fn cut(self, when: When) -> Self {
        Self { when, ..self }
    }

    /// Whether it leaves the table as a piece of the bag: a block does not, nor what is only made up of patches later.
    pub fn is_bundled(&self) -> bool {
        self.block_of.is_empty() && !matches!(self.when, When::Pieced(_))
    }

    /// The rectangle it is cut from. The lay places it, and corners are cut out afterwards through all panels at once;
    /// unless the maker wants small pieces in the corners, then the lay places the outline.
    pub fn size(&self) -> (Length, Length) {
        (self.width.size, self.height.size)
    }

    /// Whether it comes off the cloth as a rectangle, whatever is cut out of it later.
    pub fn is_square_cut(&self) -> bool {
        matches!(self.figure, Figure::Rectangle | Figure::CutOut { .. } | Figure::CutAtFold { .. })
    }

    /// At another width and height: an outline by its corners is drawn apart in its middle, so that what is cut out of its
    /// corners stays as it is.
    pub fn resize(&mut self, width: Dimension, height: Dimension) {
        let (was, more) = (self.size(), (width.size - self.width.size, height.size - self.height.size));
        if let Figure::Free(corners) = &mut self.figure {
            for p in corners {
                p.x = if p.x * 2 > was.0 { p.x + more.0 } else { p.x };
                p.y = if p.y * 2 > was.1 { p.y + more.1 } else { p.y };
            }
        }
        let now = (width.size, height.size);
        self.marks.iter_mut().for_each(|mark| mark.follow(was, now));
        (self.width, self.height) = (width, height);
    }

    /// It is larger than nothing, and what is cut out of it and marked on it has room there.
    pub fn can_be_cut(&self) -> bool {
        let (width, height) = self.size();
        let within = |p: &Point| p.x >= Length::ZERO && p.x <= width && p.y >= Length::ZERO && p.y <= height;
        let holds = match &self.figure {
            Figure::CutOut { across, up } => across.size * 2 < width && up.size < height,
            Figure::CutAtFold { across, up } => across.size * 2 < width && up.size * 2 < height,
            Figure::Tapered(by) => Length(by.0.abs()) * 2 < width,
            Figure::Rounded(radius) | Figure::RoundedAbove(radius) => *radius * 2 <= width && *radius <= height,
            Figure::HalfRound => height * 2 >= width,
            Figure::Rectangle | Figure::Circle | Figure::Free(_) => true,
        };
        width > Length::ZERO
            && height > Length::ZERO
            && holds
            && self.outline().corners().iter().all(within)
            && self.marks.iter().all(|mark| mark.lies_on((width, height)))
    }

    /// As it is once it is trimmed: a piece that is not cut over is that already.
    #[must_use]
    pub fn as_trimmed(&self) -> Self {
        let When::OverAndTrimmed(over) = self.when else { return self.clone() };
        let less = |d: &Dimension| Dimension { size: d.size - over, ..d.clone() };
        let figure = self.trimmed.clone().unwrap_or_else(|| self.figure.clone());
        Self { width: less(&self.width), height: less(&self.height), figure, when: When::Now, ..self.clone() }
    }

    /// Its outline when cut.
    pub fn outline(&self) -> Outline {
        let (width, height) = self.size();
        match &self.figure {
            Figure::Rectangle => Outline::Rect(width, height),
            Figure::CutOut { across, up } => Outline::notched(width, height, across.size, up.size),
            Figure::CutAtFold { across, up } => Outline::notched_at_sides(width, height, across.size, up.size),
            Figure::Circle => Outline::Circle(width),
            Figure::HalfRound => Outline::half_round(width, height),
            Figure::RoundedAbove(radius) => Outline::rounded_above(width, height, *radius),
            Figure::Rounded(radius) => Outline::rounded(width, height, *radius),
            Figure::Tapered(by) => {
                let (top, base) = ((*by).max(Length::ZERO), (-*by).max(Length::ZERO));
                Outline::Polygon(vec![
                    Point::new(base, Length::ZERO),
                    Point::new(width - base, Length::ZERO),
                    Point::new(width - top, height),
                    Point::new(top, height),
                ])
            }
            Figure::Free(corners) => Outline::Polygon(corners.clone()),
        }
    }
}
