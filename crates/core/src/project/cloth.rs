//! A cloth as a project knows it: what the maker measures and sees of it, what of it is there, what is bought.

use super::left_over::Booking;
use crate::cloth::{AtHand, Cloth, Form, HandForm, Material, Price, Print, PrintUp, Shrink, kept};
use crate::measure::{Length, ShopStep, System};
use serde::{Deserialize, Serialize};

/// How a cloth is drawn. Each pattern has a direction of its own, so that upside down is seen.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum Pattern {
    /// A plain weave.
    Plain,
    /// Scattered dots.
    Seeds,
    /// Narrow and wide stripes along the length.
    Ticking,
    /// Crossed stripes.
    Check,
    /// A growing sprig with a flower: one-way.
    Sprig,
    /// Watering cans, all standing: one-way.
    Cans,
    /// Batting or fleece.
    Fleece,
}

impl Pattern {
    /// What it is called.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Plain => "plain",
            Self::Seeds => "dots",
            Self::Ticking => "stripes",
            Self::Check => "check",
            Self::Sprig => "sprigs",
            Self::Cans => "watering cans",
            Self::Fleece => "fleece",
        }
    }

    /// All patterns, in the order they are offered.
    pub const ALL: [Self; 7] =
        [Self::Plain, Self::Seeds, Self::Ticking, Self::Check, Self::Sprig, Self::Cans, Self::Fleece];

    /// The direction a print drawn like this usually has.
    pub const fn default_print(self) -> Print {
        match self {
            Self::Plain | Self::Seeds | Self::Fleece => Print::AllOver,
            Self::Ticking | Self::Check => Print::TwoWay,
            Self::Sprig | Self::Cans => Print::OneWay,
        }
    }
}

/// What a cloth looks like.
#[derive(Clone, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Look {
    /// The weave or print.
    pub pattern: Pattern,
    /// Colour of the ground, `#rrggbb`.
    pub ground: String,
    /// Colour of the figures, `#rrggbb`.
    pub figure: String,
}

impl Look {
    /// Grounds and figures that tell new cloths apart, in the order they are given out.
    pub const GROUNDS: [(&'static str, &'static str); 10] = [
        ("#a9bfa3", "#5d7a58"),
        ("#c98f7a", "#8a4a38"),
        ("#9fb3c8", "#4f6a86"),
        ("#d8c3d0", "#8a5f7a"),
        ("#8f8a5f", "#5a5636"),
        ("#b9a58f", "#6e5a45"),
        ("#7f9c9c", "#3f5f60"),
        ("#d9b25f", "#8f6b1d"),
        ("#8d7a9b", "#55456a"),
        ("#6f7f6a", "#3d4b3a"),
    ];
}

/// A cloth in a project: what a roll of it is like, and what of it is there.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ProjectCloth {
    /// Key within the project.
    pub id: String,
    /// What the maker calls it.
    pub name: String,
    /// What it is made of.
    pub material: Material,
    /// From edge to edge as bought.
    pub width: Length,
    /// Lost at each side.
    pub selvedge: Length,
    /// Lost at each cut end.
    pub trim: Length,
    /// Bought unwashed and washed before cutting: shrinkage is reckoned with.
    pub wash_first: bool,
    /// What the shop cuts.
    pub shop: ShopStep,
    /// Price of a yard or metre, if known.
    pub price: Option<Price>,
    /// What of it is there; nothing when all of it is bought.
    #[serde(default, alias = "owned", deserialize_with = "kept")]
    pub at_hand: Vec<AtHand>,
    /// What is there may be too little: the rest is bought.
    #[serde(default)]
    pub buy_more: bool,
    /// In the cupboard: what bags took of it and left. Empty in a project.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub cut: Vec<Booking>,
    /// The print's direction.
    pub print: Print,
    /// Where the print's up points.
    pub up: PrintUp,
    /// A pile that lies one way.
    pub nap: bool,
    /// How it is drawn.
    pub look: Look,
}

impl ProjectCloth {
    /// A roll to buy with the habits of shops in `system`.
    pub fn default_for(id: String, name: String, material: Material, system: System) -> Self {
        let inches = system == System::Inches;
        let width = match (material, inches) {
            (Material::Cotton, true) => Length::INCH * 44,
            (Material::Cotton, false) => Length::CENTIMETRE * 110,
            (Material::Fleece, true) => Length::INCH * 44,
            (Material::Fleece, false) => Length::CENTIMETRE * 90,
            (Material::Interfacing, true) => Length::INCH * 20,
            (Material::Stabiliser, true) => Length::INCH * 20,
            (Material::Stabiliser, false) => Length::CENTIMETRE * 50,
            (Material::Interfacing, false) => Length::CENTIMETRE * 90,
            (_, true) => Length::INCH * 54,
            (_, false) => Length::CENTIMETRE * 140,
        };
        let woven = !material.is_backing() && material != Material::Vinyl;
        let half_inch = if inches { Length::inches(1, 2) } else { Length::CENTIMETRE };
        let pattern = if material.is_backing() { Pattern::Fleece } else { Pattern::Plain };
        Self {
            id,
            name,
            material,
            width,
            selvedge: if woven { half_inch } else { Length::ZERO },
            trim: if woven { half_inch } else { Length::ZERO },
            wash_first: false,
            shop: ShopStep::default_for(system),
            price: None,
            at_hand: vec![],
            buy_more: false,
            cut: vec![],
            print: pattern.default_print(),
            up: PrintUp::Length,
            nap: false,
            look: Look { pattern, ground: "#c9b48a".into(), figure: "#7d6a43".into() },
        }
    }

    /// The same cloth as shops of `system` sell it: priced by the yard or the metre, to the nearest hundredth, and cut
    /// in their usual steps if it was cut in the usual steps of the other.
    #[must_use]
    pub fn sold_in(mut self, system: System) -> Self {
        let (per, other) = match system {
            System::Inches => (Length::YARD, System::Centimetres),
            System::Centimetres => (Length::METRE, System::Inches),
        };
        self.price = self.price.map(|price| Price { amount: price.of(per), per });
        if self.shop == ShopStep::default_for(other) {
            self.shop = ShopStep::default_for(system);
        }
        self
    }

    /// Shrinkage to reckon with.
    pub fn shrink(&self) -> Shrink {
        if self.wash_first { self.material.default_shrink() } else { Shrink::NONE }
    }

    /// Whether any of it may be bought.
    pub fn is_bought(&self) -> bool {
        self.at_hand.is_empty() || self.buy_more
    }

    /// A roll of it to buy, as a job knows it.
    pub fn roll(&self) -> Cloth {
        Cloth {
            id: self.id.clone(),
            name: self.name.clone(),
            form: Form::Roll { width: self.width, length: None, max: None },
            selvedge: self.selvedge,
            trim: self.trim,
            shrink: self.shrink(),
            shop: self.shop,
            price: self.price,
            owned: false,
            print: self.print,
            up: self.up,
            nap: self.nap,
            layers: 1,
        }
    }

    /// The cloths of a job that it comes to, each copy of what is there by itself, and the roll if any of it is bought.
    /// Their ids begin with its own: see [`Project::cloth`](super::Project::cloth).
    pub fn for_job(&self, system: System) -> Vec<Cloth> {
        let mut found = Vec::new();
        for (n, thing) in self.at_hand.iter().enumerate() {
            for copy in 1..=thing.count {
                let which = if thing.count > 1 { format!(" {copy} of {}", thing.count) } else { String::new() };
                found.push(Cloth {
                    id: format!("{}{AT_HAND}{}.{copy}", self.id, n + 1),
                    name: format!("{}, {}{which}", self.name, thing.form.say(system)),
                    ..self.cut_of(thing.form)
                });
            }
        }
        if self.is_bought() {
            found.push(self.roll());
        }
        found
    }

    /// One thing of it that is there, as a job knows it.
    fn cut_of(&self, form: HandForm) -> Cloth {
        let (selvedge, trim) = match form {
            HandForm::Length { squared: false, .. } => (self.selvedge, self.trim),
            HandForm::Length { squared: true, .. } => (self.selvedge, Length::ZERO),
            // All of it can be used.
            HandForm::Sheet { .. } => (Length::ZERO, Length::ZERO),
        };
        Cloth { form: form.for_job(self.width), selvedge, trim, owned: true, ..self.roll() }
    }

    /// The most that can be used across any of it.
    pub fn widest(&self) -> Length {
        let there = self.at_hand.iter().map(|t| self.cut_of(t.form));
        let roll = self.is_bought().then(|| self.roll());
        there.chain(roll).map(|c| c.usable_width()).max().unwrap_or_default()
    }

    /// The most that can be used along any of it; nothing when it is bought as long as it is needed.
    pub fn longest(&self) -> Option<Length> {
        if self.is_bought() {
            return None;
        }
        self.at_hand.iter().filter_map(|t| self.cut_of(t.form).usable_length()).max()
    }
}

/// Stands between the id of a cloth and which of the things that are there of it is meant; no id of a cloth has it.
pub(super) const AT_HAND: char = '#';
