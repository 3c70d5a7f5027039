//! A cloth and the room there is on it.

use super::{Money, Price, Print, PrintUp, Repeat};
use crate::measure::{Length, ShopStep};
use crate::shape::{Outline, Point};
use serde::{Deserialize, Serialize};

/// Shrinkage in the wash, in parts per million of the bought size.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub struct Shrink {
    /// Of the length.
    pub along: u32,
    /// Of the width.
    pub across: u32,
}

impl Shrink {
    /// Washed already, or never to be.
    pub const NONE: Self = Self { along: 0, across: 0 };
}

/// The form a cloth comes in.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub enum Form {
    /// A width, cut to length.
    Roll {
        /// From edge to edge, selvedges included, as bought.
        width: Length,
        /// What is owned of it; nothing means it is bought.
        length: Option<Length>,
        /// The longest the shop can cut; nothing means as long as needed.
        max: Option<Length>,
    },
    /// A fixed rectangle: a fat quarter, a square.
    Sheet {
        /// Across.
        width: Length,
        /// Along.
        height: Length,
        /// How many alike.
        count: u32,
    },
    /// A remnant of any outline, with places that cannot be used.
    Scrap {
        /// Its edge.
        outline: Outline,
        /// Stains and holes, in the scrap's own axes.
        flaws: Vec<Outline>,
    },
}

/// One cloth of a job. Sizes are as bought; the lay is drawn as washed.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Cloth {
    /// Its key in the job.
    pub id: String,
    /// What the maker calls it.
    pub name: String,
    /// Roll, sheet or scrap.
    pub form: Form,
    /// Lost at each side of a roll.
    pub selvedge: Length,
    /// Lost at each cut end: squaring up costs about 1 in on a roll cut by scissors (common practice).
    pub trim: Length,
    /// Shrinkage before cutting.
    pub shrink: Shrink,
    /// What the shop cuts.
    pub shop: ShopStep,
    /// Its price, if known.
    pub price: Option<Price>,
    /// Costs nothing and is used first.
    pub owned: bool,
    /// The print's direction.
    pub print: Print,
    /// Where the print's up points.
    pub up: PrintUp,
    /// A pile that lies one way; counts as a one-way print.
    pub nap: bool,
    /// 1, or 2 when it lies folded lengthwise.
    pub layers: u8,
    /// Where the motifs of its print lie, for pieces that have a place on the print.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub repeat: Option<Repeat>,
}

impl Cloth {
    /// A roll to buy, all-over, with nothing lost and any length sold; a start for building one.
    pub fn roll(id: impl Into<String>, width: Length) -> Self {
        let id = id.into();
        Self {
            name: id.clone(),
            id,
            form: Form::Roll { width, length: None, max: None },
            selvedge: Length::ZERO,
            trim: Length::ZERO,
            shrink: Shrink::NONE,
            shop: ShopStep { step: None, min: Length::ZERO },
            price: None,
            owned: false,
            print: Print::AllOver,
            up: PrintUp::Length,
            nap: false,
            layers: 1,
            repeat: None,
        }
    }

    /// The print's direction, a nap counted as one-way.
    pub fn direction(&self) -> Print {
        if self.nap { Print::OneWay } else { self.print }
    }

    /// Width of a roll from edge to edge as bought, opened out where it lies folded.
    pub fn bought_width(&self) -> Option<Length> {
        match self.form {
            Form::Roll { width, .. } => Some(width * i64::from(self.layers)),
            Form::Sheet { .. } | Form::Scrap { .. } => None,
        }
    }

    /// Width from edge to edge as it was bought and as it lies, whatever its form.
    pub fn as_bought_width(&self) -> Length {
        match &self.form {
            Form::Roll { width, .. } | Form::Sheet { width, .. } => *width,
            Form::Scrap { outline, .. } => outline.size().0,
        }
    }

    /// Width from edge to edge as washed, as it lies.
    pub fn washed_width(&self) -> Length {
        self.as_bought_width().shrunk(self.shrink.across)
    }

    /// Width between the selvedges as washed; negative when the selvedges eat it all. Folded cloth has its fold at the
    /// left and both selvedges at the right.
    pub fn usable_width(&self) -> Length {
        self.washed_width() - self.selvedge - self.left_edge()
    }

    /// The most that one straight piece may be across: folded, it lies half on the fold.
    pub fn widest_piece(&self) -> Length {
        self.usable_width() * i64::from(self.layers)
    }

    /// Lost at the left: the selvedge, nothing at a fold.
    pub fn left_edge(&self) -> Length {
        if self.layers == 2 { Length::ZERO } else { self.selvedge }
    }

    /// Where a point of the cloth as bought lies after the wash.
    pub fn washed(&self, p: Point) -> Point {
        Point::new(p.x.shrunk(self.shrink.across), p.y.shrunk(self.shrink.along))
    }

    /// The lower left corner of the cloth as washed, in its own axes: a scrap's may lie anywhere.
    pub fn corner(&self) -> Point {
        match &self.form {
            Form::Scrap { outline, .. } => {
                let corners = outline.corners();
                let low = |of: fn(&Point) -> Length| corners.iter().map(of).min().unwrap_or_default();
                self.washed(Point::new(low(|p| p.x), low(|p| p.y)))
            }
            Form::Roll { .. } | Form::Sheet { .. } => Point::new(Length::ZERO, Length::ZERO),
        }
    }

    /// The length there is as bought, if it comes whole: a sheet or a scrap.
    pub fn whole_length(&self) -> Option<Length> {
        match &self.form {
            Form::Roll { .. } => None,
            Form::Sheet { height, .. } => Some(*height),
            Form::Scrap { outline, .. } => Some(outline.size().1),
        }
    }

    /// How many alike there are.
    pub fn copies(&self) -> u32 {
        if let Form::Sheet { count, .. } = &self.form { *count } else { 1 }
    }

    /// The longest run between the trimmed ends as washed, if there is a limit.
    pub fn usable_length(&self) -> Option<Length> {
        let limit = match &self.form {
            Form::Roll { length: Some(owned), .. } => Some(*owned),
            Form::Roll { length: None, max, .. } => *max,
            Form::Sheet { height, .. } => Some(*height),
            Form::Scrap { outline, .. } => Some(outline.size().1),
        };
        limit.map(|length| length.shrunk(self.shrink.along) - self.trim * 2)
    }

    /// The washed length that holds a lay of length `laid`: both ends trimmed; nothing laid needs nothing.
    pub fn needed_length(&self, laid: Length) -> Length {
        if laid <= Length::ZERO { Length::ZERO } else { laid + self.trim * 2 }
    }

    /// What to ask the shop for so that `needed` is there after the wash; what is owned is not bought, and sheets and
    /// scraps are bought whole.
    pub fn buy_length(&self, needed: Length) -> Length {
        if let Some(whole) = self.whole_length().filter(|_| !self.owned && needed > Length::ZERO) {
            return whole;
        }
        if self.owned {
            return needed.before_shrinking(self.shrink.along);
        }
        self.shop.to_buy(needed.before_shrinking(self.shrink.along))
    }

    /// The longest lay that needs less than `bought`, if the shop sells less; of what comes whole there is no less.
    pub fn longest_cheaper(&self, bought: Length) -> Option<Length> {
        if self.whole_length().is_some() {
            return None;
        }
        let less = match self.shop.step {
            Some(step) if !self.owned => bought - step,
            _ => bought - Length(1),
        };
        let laid = self.longest_lay(less);
        (laid > Length::ZERO && (self.owned || less >= self.shop.min)).then_some(laid)
    }

    /// The longest lay on `bought` of this cloth, washed and squared.
    pub fn longest_lay(&self, bought: Length) -> Length {
        bought.shrunk(self.shrink.along) - self.trim * 2
    }

    /// What `bought` costs: nothing when owned or unpriced.
    pub fn cost(&self, bought: Length) -> Money {
        if self.owned { Money(0) } else { self.price.map_or(Money(0), |price| price.of(bought)) }
    }
}
