//! A cloth as a project knows it: what the maker measures and sees of it, what of it is there, what is bought.

use super::cupboard::ClothEntries;
use crate::cloth::{AtHand, Cloth, Form, HandForm, Material, Price, Print, PrintUp, Shrink, kept};
use crate::measure::{Length, Ruler, ShopStep, System};
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
    /// A large flower on its stem, several hands tall: one-way.
    Flower,
    /// A border of leaves along one selvedge, plain beyond it: one-way, its up pointing to the other selvedge.
    Border,
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
            Self::Flower => "a large flower",
            Self::Border => "a border along one edge",
            Self::Fleece => "fleece",
        }
    }

    /// All patterns, in the order they are offered.
    pub const ALL: [Self; 9] = [
        Self::Plain,
        Self::Seeds,
        Self::Ticking,
        Self::Check,
        Self::Sprig,
        Self::Cans,
        Self::Flower,
        Self::Border,
        Self::Fleece,
    ];

    /// The direction a print drawn like this usually has.
    pub const fn default_print(self) -> Print {
        match self {
            Self::Plain | Self::Seeds | Self::Fleece => Print::AllOver,
            Self::Ticking | Self::Check => Print::TwoWay,
            Self::Sprig | Self::Cans | Self::Flower | Self::Border => Print::OneWay,
        }
    }

    /// Where its up usually points.
    pub const fn default_up(self) -> PrintUp {
        match self {
            Self::Border => PrintUp::Across,
            _ => PrintUp::Length,
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
    /// A picture of it, which is drawn in place of the pattern.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub picture: Option<Swatch>,
}

/// A picture of a cloth, and how much of it is seen there. The picture itself is kept beside the documents.
#[derive(Clone, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Swatch {
    /// Its key: 32 hexadecimal digits.
    pub key: String,
    /// How wide what is seen is, the print standing up.
    pub width: Length,
    /// How tall.
    pub height: Length,
    /// What is seen is one repeat of the print, a motif in the middle of it: it is drawn as large as the repeat is.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub one_repeat: bool,
}

impl Swatch {
    /// Digits of a key.
    pub const KEY: usize = 32;

    /// The least and the most of a cloth that one picture shows, either way.
    pub const SIZES: (Length, Length) = (Length(2 * Length::CENTIMETRE.0), Length(2 * Length::METRE.0));

    /// Whether `key` can be one of a picture.
    pub fn is_key(key: &str) -> bool {
        key.len() == Self::KEY && key.bytes().all(|b| matches!(b, b'0'..=b'9' | b'a'..=b'f'))
    }
}

impl Look {
    /// A look that is drawn: its pattern, the colours of its ground and its figures as `#rrggbb`.
    pub fn new(pattern: Pattern, ground: impl Into<String>, figure: impl Into<String>) -> Self {
        Self { pattern, ground: ground.into(), figure: figure.into(), picture: None }
    }

    /// What its ground and its figures are called: `red`, `cream`. By hue, and by how grey and how light they are.
    pub fn colours(&self) -> Vec<&'static str> {
        let mut found: Vec<&'static str> = vec![];
        for hex in [&self.ground, &self.figure] {
            for name in colour_names(hex) {
                if !found.contains(name) {
                    found.push(name);
                }
            }
        }
        found
    }

    /// The same in colours whose ground is not taken, as long as there are any.
    pub(super) fn fresh(&self, taken: impl Fn(&str) -> bool) -> Self {
        let others = Self::GROUNDS.iter().map(|(ground, figure)| (*ground, *figure));
        let all = std::iter::once((self.ground.as_str(), self.figure.as_str())).chain(others);
        let (ground, figure) = all.into_iter().find(|(g, _)| !taken(g)).unwrap_or((&self.ground, &self.figure));
        Self { ground: ground.to_owned(), figure: figure.to_owned(), ..self.clone() }
    }

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

/// A square that was cut of a cloth and washed, to measure what washing takes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct TestSquare {
    /// Each side as it was cut.
    pub side: Length,
    /// Along the selvedge after the wash, where that is measured.
    pub along: Option<Length>,
    /// Across, after the wash.
    pub across: Option<Length>,
}

impl TestSquare {
    /// What the wash took of each direction, in parts per million; `usual` where it is not measured.
    pub fn shrink(&self, usual: Shrink) -> Shrink {
        let of = |after: Option<Length>, usual: u32| {
            let taken = |after: Length| i128::from((self.side - after).0) * 1_000_000 / i128::from(self.side.0.max(1));
            after.map_or(usual, |after| u32::try_from(taken(after)).unwrap_or(0))
        };
        Shrink { along: of(self.along, usual.along), across: of(self.across, usual.across) }
    }
}

/// What a bag leaves of one of its cloths.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct LeftOf {
    /// Id of that bag.
    pub project: String,
    /// What it was called.
    pub name: String,
    /// Of which of its cloths.
    pub cloth: String,
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
    /// A test square of it that was washed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tested: Option<TestSquare>,
    /// What a square metre of it weighs, in grams, where that is known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub grams: Option<u32>,
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
    /// Where it is kept: `blue crate`; empty where that is not said.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub place: String,
    /// What is there of it is what another bag leaves, as that was planned when it was taken.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub left_of: Option<LeftOf>,
    /// In the cupboard: what came and went of it. Empty in a project.
    #[serde(default, skip_serializing_if = "ClothEntries::is_empty")]
    pub ledger: ClothEntries,
    /// The print's direction.
    pub print: Print,
    /// Where the print's up points.
    pub up: PrintUp,
    /// A pile that lies one way.
    pub nap: bool,
    /// What is cut selvedge to selvedge lies folded lengthwise, selvedge on selvedge: two at once.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub folded: bool,
    /// How it is drawn.
    pub look: Look,
    /// How tall one repeat of its print is, where that is measured; nothing draws it at a usual size.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub repeat: Option<Length>,
    /// How wide one repeat is, where that is measured.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub repeat_wide: Option<Length>,
    /// Each next column of motifs stands half a repeat further along.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub half_drop: bool,
    /// How far from the left edge, its selvedge included, the middle of the first motif stands, where that is measured.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub motif_from: Option<Length>,
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
            tested: None,
            grams: None,
            shop: ShopStep::default_for(system),
            price: None,
            at_hand: vec![],
            buy_more: false,
            place: String::new(),
            left_of: None,
            ledger: ClothEntries::default(),
            print: pattern.default_print(),
            up: PrintUp::Length,
            nap: false,
            folded: false,
            look: Look::new(pattern, "#c9b48a", "#7d6a43"),
            repeat: None,
            repeat_wide: None,
            half_drop: false,
            motif_from: None,
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
        if self.wash_first { self.shrinks() } else { Shrink::NONE }
    }

    /// What washing takes: as its own test square says, else as such cloth usually does.
    pub fn shrinks(&self) -> Shrink {
        let usual = self.material.default_shrink();
        self.tested.map_or(usual, |square| square.shrink(usual))
    }

    /// What is lost of a roll of it before anything is cut from it, and why: a sentence each, in the order it is done.
    pub fn taken_off(&self, ruler: Ruler) -> Vec<String> {
        let unit = ruler.system().symbol();
        let show = |l: Length| format!("{} {unit}", ruler.show(l).text);
        let down = |l: Length| show(l.floor_to(ruler.step()));
        let percent = |ppm: u32| format!("{} %", (f64::from(ppm) / 1_000.0).round() / 10.0);
        let (shrink, mut told) = (self.shrink(), vec![]);
        let washed = self.width.shrunk(shrink.across);
        if shrink != Shrink::NONE {
            let (per, name) = match ruler.system() {
                System::Inches => (Length::YARD, "a yard"),
                System::Centimetres => (Length::METRE, "a metre"),
            };
            told.push(format!(
                "Washing shrinks it by {} lengthwise and {} crosswise. A width of {} comes out at {}, {name} at {}.",
                percent(shrink.along),
                percent(shrink.across),
                show(self.width),
                down(washed),
                down(per.shrunk(shrink.along))
            ));
        }
        if self.selvedge > Length::ZERO {
            let left = down(washed - self.selvedge * 2);
            told.push(format!(
                "You lose {} to the selvedge at each side. The usable width is {left}.",
                show(self.selvedge)
            ));
        }
        if self.trim > Length::ZERO {
            told.push(format!("You lose {} at each end when you square up a length.", show(self.trim)));
        }
        if self.folded {
            told.push(format!("Folded it lies {} wide, two layers.", down(self.roll().washed_width())));
        }
        told
    }

    /// Whether any of it may be bought.
    pub fn is_bought(&self) -> bool {
        self.at_hand.is_empty() || self.buy_more
    }

    /// A roll of it to buy, as a job knows it.
    pub fn roll(&self) -> Cloth {
        let roll = Cloth {
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
            repeat: None,
        };
        if self.folded { folded_in_half(roll) } else { roll }
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
                    ..self.thing_for_job(&thing.form)
                });
            }
        }
        if self.is_bought() {
            found.push(self.roll());
        }
        found
    }

    /// One thing of it that is there, as a job knows it.
    pub(super) fn thing_for_job(&self, form: &HandForm) -> Cloth {
        let (selvedge, trim) = match form {
            HandForm::Length { squared: false, .. } => (self.selvedge, self.trim),
            HandForm::Length { squared: true, .. } => (self.selvedge, Length::ZERO),
            // Its seam is cut off, its openings are straight.
            HandForm::Tube { .. } => (self.seam_of_a_tube(), Length::ZERO),
            // All of it can be used.
            HandForm::Sheet { .. } | HandForm::Scrap(_) => (Length::ZERO, Length::ZERO),
        };
        let layers = if matches!(form, HandForm::Tube { .. }) { 2 } else { 1 };
        let flat = Cloth { form: form.for_job(self.width), selvedge, trim, owned: true, layers, ..self.roll() };
        match form {
            HandForm::Length { .. } if self.folded => folded_in_half(flat),
            _ => flat,
        }
    }

    /// Lost beside the seam of a tube that is cut as it lies: ½ in or 1 cm, as wide as such seams are (common practice).
    pub fn seam_of_a_tube(&self) -> Length {
        match self.own_system() {
            System::Inches => Length::inches(1, 2),
            System::Centimetres => Length::CENTIMETRE,
        }
    }

    /// The most that can be used across any of it.
    pub fn widest(&self) -> Length {
        let there = self.at_hand.iter().map(|t| self.thing_for_job(&t.form));
        let roll = self.is_bought().then(|| self.roll());
        there.chain(roll).map(|c| c.widest_piece()).max().unwrap_or_default()
    }

    /// The most that can be used along any of it; nothing when it is bought as long as it is needed.
    pub fn longest(&self) -> Option<Length> {
        if self.is_bought() {
            return None;
        }
        self.at_hand.iter().filter_map(|t| self.thing_for_job(&t.form).usable_length()).max()
    }
}

/// A roll with its selvedges laid on each other.
fn folded_in_half(roll: Cloth) -> Cloth {
    let form = match roll.form {
        Form::Roll { width, length, max } => Form::Roll { width: width / 2, length, max },
        other => other,
    };
    Cloth { form, layers: 2, ..roll }
}

/// Stands between the id of a cloth and which of the things that are there of it is meant; no id of a cloth has it.
pub(super) const AT_HAND: char = '#';

/// What a colour `#rrggbb` may be called; between two names it has both.
fn colour_names(hex: &str) -> &'static [&'static str] {
    let part = |at: usize| hex.get(at..at + 2).and_then(|h| i32::from_str_radix(h, 16).ok());
    let (Some(r), Some(g), Some(b)) = (part(1), part(3), part(5)) else { return &[] };
    let (most, least) = (r.max(g).max(b), r.min(g).min(b));
    let (light, spread) = ((most + least) / 2, most - least);
    if spread < 22 {
        return match light {
            0..50 => &["black"],
            50..205 => &["grey"],
            _ => &["white"],
        };
    }
    // Degrees round the colour circle.
    let hue = match most {
        m if m == r => 60 * (g - b) / spread,
        m if m == g => 120 + 60 * (b - r) / spread,
        _ => 240 + 60 * (r - g) / spread,
    };
    match (hue.rem_euclid(360), light) {
        (15..55, 190..) => &["cream", "beige"],
        (20..48, _) if spread < 90 && light < 190 => &["brown", "beige"],
        (20..45, 0..110) => &["brown"],
        (345.., 175..) | (0..15, 175..) => &["pink"],
        (345.., _) | (0..15, _) => &["red"],
        (15..42, _) => &["orange"],
        (42..68, _) => &["yellow"],
        (68..165, _) => &["green"],
        (165..190, _) => &["green", "blue", "turquoise"],
        (190..255, _) => &["blue"],
        (255..300, _) => &["purple"],
        (300..345, _) => &["pink", "purple"],
        _ => &[],
    }
}
