//! Changes to the cloths of a project, and what is cut from which.

use super::ClothField;
use super::read::{choice, key_of, price, size, yes_or_no};
use crate::FieldProblem;
use crate::cloth::{
    AtHand, Cloth, HandForm, Material, NotRead, PrintUp, Question, ScrapDraft, free_letters, put, read_at_hand,
    read_of_cloths, scraps,
};
use crate::measure::{LONGEST, Length, Ruler, ShopStep, System};
use crate::name::named;
use crate::piece::Part;
use crate::project::{Look, Pattern, Project, ProjectCloth, Swatch, TestSquare};

/// More pieces of one cloth than these are not planned with.
const MOST_AT_HAND: u64 = 200;

/// Smaller repeats look alike everywhere.
const SMALLEST_REPEAT: Length = Length(2 * Length::MILLIMETRE.0);

/// More cloths than these are a cupboard, not a bag.
const MOST_CLOTHS: usize = 60;

impl Project {
    pub(super) fn edit_cloth(&mut self, cloth: &str, field: ClothField, value: &str) -> Result<String, FieldProblem> {
        let (system, ruler) = (self.system, self.ruler);
        let others: Vec<String> = self.cloths.iter().filter(|c| c.id != *cloth).map(|c| c.name.clone()).collect();
        let priced = self.currency.clone();
        let cloth = self.cloth_mut(cloth)?;
        edit_cloth(cloth, field, value, system, ruler, &others)?;
        let told = format!("{}, {}", cloth.name, key_of(&field).replace('_', " "));
        let typed = match field {
            ClothField::Price if !is_none(field, value) => price("price", value, system)?.1,
            _ => None,
        };
        match (priced, typed) {
            (_, None) => Ok(told),
            (Some(priced), Some(typed)) if priced == typed => Ok(told),
            // The first sign that is typed is the project's.
            (None, Some(typed)) => {
                let told = format!("{told}; prices are in {typed}");
                self.currency = Some(typed);
                Ok(told)
            }
            (Some(priced), Some(typed)) => {
                let message = format!(
                    "Prices in this project are in {priced}, this one is in {typed}: type it without a sign, or change the currency on the Bag stage first."
                );
                Err(FieldProblem::new("price", value, message))
            }
        }
    }

    pub(super) fn edit_look(&mut self, cloth: &str, look: &Look) -> Result<String, FieldProblem> {
        for (field, colour) in [("ground", &look.ground), ("figure", &look.figure)] {
            let is_colour =
                colour.len() == 7 && colour.starts_with('#') && colour[1..].chars().all(|c| c.is_ascii_hexdigit());
            if !is_colour {
                return Err(FieldProblem::new(field, colour, "A colour is written #rrggbb."));
            }
        }
        if let Some(picture) = &look.picture {
            picture.check(self.ruler)?;
        }
        let begun = self.steps_done > 0;
        let cloth = self.cloth_mut(cloth)?;
        if cloth.look.pattern != look.pattern {
            // A border is the one print that lies on its side by itself.
            let up = if cloth.look.pattern == Pattern::Border || look.pattern == Pattern::Border {
                look.pattern.default_up()
            } else {
                cloth.up
            };
            if begun && (cloth.print, cloth.up) != (look.pattern.default_print(), up) {
                let message =
                    "Cutting has begun: a pattern that stands otherwise would change the plan. Its colours may change.";
                return Err(FieldProblem::new("pattern", &cloth.name, message));
            }
            (cloth.print, cloth.up) = (look.pattern.default_print(), up);
        }
        cloth.look = look.clone();
        Ok(format!("Look of {}", cloth.name))
    }

    pub(super) fn add_cloth(&mut self, name: &str, material: &str) -> Result<String, FieldProblem> {
        let name = named("name", name)?;
        let material: Material = choice("material", material)?;
        let mut cloth = ProjectCloth::default_for(String::new(), name, material, self.system);
        cloth.look = self.fresh_look(&cloth.look);
        self.put_cloth(cloth)
    }

    /// Puts `cloth` to the others under a key of its own; parts that have none and suit it are cut from it.
    pub(super) fn put_cloth(&mut self, cloth: ProjectCloth) -> Result<String, FieldProblem> {
        let (name, material) = (named("name", &cloth.name)?, cloth.material);
        if self.cloths.len() >= MOST_CLOTHS {
            let message = format!("There are {MOST_CLOTHS} cloths in this project: no more are planned with.");
            return Err(FieldProblem::new("name", &name, message));
        }
        if self.cloths.iter().any(|c| c.name == name) {
            return Err(FieldProblem::new(
                "name",
                &name,
                format!("There is a cloth “{name}” already: give this one another name."),
            ));
        }
        let id = self.new_id(&name);
        self.cloths.push(ProjectCloth { id: id.clone(), ..cloth });
        for part in Part::ALL {
            if self.cloth_of(part).is_none() && material.suits(part) {
                self.from.insert(part, vec![id.clone()]);
            }
        }
        Ok(format!("Add {name}"))
    }

    pub(super) fn remove_cloth(&mut self, cloth: &str) -> Result<String, FieldProblem> {
        let name = self.cloth_mut(cloth)?.name.clone();
        self.cloths.retain(|c| c.id != *cloth);
        self.dressing.forget(cloth);
        self.from.retain(|_, ids| {
            ids.retain(|id| id != cloth);
            !ids.is_empty()
        });
        Ok(format!("Remove {name}"))
    }

    pub(super) fn lay_down(&mut self, text: &str) -> Result<String, FieldProblem> {
        let key = "at_hand";
        if self.cloths.is_empty() {
            return Err(FieldProblem::new(
                key,
                text,
                "There is no cloth here yet. Add the cloth first, then type how much you have.",
            ));
        }
        let names: Vec<&str> = self.cloths.iter().map(|c| c.name.as_str()).collect();
        let said = read_of_cloths(text, &names, self.system).map_err(|not| not_read(key, text, not))?;
        if said.is_empty() {
            return Err(FieldProblem::new(key, text, "Say what there is: 2 fat quarters, half a yard, 18 x 22."));
        }
        let mut told = Vec::new();
        for (at, thing) in said {
            let cloth = &mut self.cloths[at];
            let thing = put(&mut cloth.at_hand, thing);
            told.push(format!("{} of {}", thing.say(self.system), cloth.name));
            few_enough(key, text, &cloth.name, &cloth.at_hand)?;
            all_usable(cloth, text, (self.system, self.ruler))?;
        }
        Ok(format!("Lay down {}", told.join(", ")))
    }

    pub(super) fn put_right(&mut self, cloth: &str, at: usize, text: &str) -> Result<String, FieldProblem> {
        let (key, by) = ("at_hand", (self.system, self.ruler));
        let cloth = self.cloth_mut(cloth)?;
        let Some(was) = cloth.at_hand.get(at) else {
            let message = format!("That piece of {} is no longer there.", cloth.name);
            return Err(FieldProblem::new("thing", at, message));
        };
        let told = was.say(by.0);
        let said = match text.trim() {
            "" => vec![],
            text => read_at_hand(text, &cloth.name, &cloth.at_hand, by.0).map_err(|not| not_read(key, text, not))?,
        };
        let now = said.iter().map(|t| t.say(by.0)).collect::<Vec<_>>().join(", ");
        // It stays where it lay; what is alike elsewhere is laid to that.
        let mut things: Vec<AtHand> = cloth.at_hand.drain(..).collect();
        let after = things.split_off(at + 1);
        things.pop();
        for thing in said.into_iter().chain(after) {
            put(&mut things, thing);
        }
        cloth.at_hand = things;
        few_enough(key, text, &cloth.name, &cloth.at_hand)?;
        all_usable(cloth, text, by)?;
        let now = if now.is_empty() { "not there".to_owned() } else { now };
        Ok(format!("{told} of {}: {now}", cloth.name))
    }

    pub(super) fn draw_scrap(
        &mut self,
        cloth: &str,
        label: Option<&str>,
        (count, draft): (u32, &ScrapDraft),
    ) -> Result<String, FieldProblem> {
        let by = (self.system, self.ruler);
        let cloth = self.cloth_mut(cloth)?;
        if !(1..=MOST_AT_HAND).contains(&u64::from(count)) {
            let message = format!("{count} alike: 1 to {MOST_AT_HAND} of a cloth are planned with.");
            return Err(FieldProblem::new("count", count, message));
        }
        let is = |t: &AtHand, label: &str| matches!(&t.form, HandForm::Scrap(s) if s.label == label);
        let at = match label {
            Some(label) => match cloth.at_hand.iter().position(|t| is(t, label)) {
                Some(at) => Some(at),
                None => {
                    let message = format!("Scrap {label} of {} is no longer there.", cloth.name);
                    return Err(FieldProblem::new("scrap", label, message));
                }
            },
            None => None,
        };
        let letters =
            label.map_or_else(|| free_letters(scraps(&cloth.at_hand).map(|s| s.label.as_str())), str::to_owned);
        let (scrap, _) = draft.read(letters.clone(), by)?;
        let thing = AtHand { count, ..AtHand::one(HandForm::Scrap(scrap)) };
        match at {
            Some(at) => cloth.at_hand[at] = thing,
            None => cloth.at_hand.push(thing),
        }
        few_enough("count", &count.to_string(), &cloth.name, &cloth.at_hand)?;
        Ok(format!("{} scrap {letters} of {}", if at.is_some() { "Change" } else { "Draw" }, cloth.name))
    }

    pub(super) fn remove_scrap(&mut self, cloth: &str, label: &str) -> Result<String, FieldProblem> {
        let cloth = self.cloth_mut(cloth)?;
        let before = cloth.at_hand.len();
        cloth.at_hand.retain(|t| !matches!(&t.form, HandForm::Scrap(s) if s.label == label));
        if cloth.at_hand.len() == before {
            let message = format!("Scrap {label} of {} is no longer there.", cloth.name);
            return Err(FieldProblem::new("scrap", label, message));
        }
        Ok(format!("Remove scrap {label} of {}", cloth.name))
    }

    pub(super) fn assign(&mut self, part: &str, cloth: &str) -> Result<String, FieldProblem> {
        let part: Part = choice("part", part)?;
        let name = self.cloth_mut(cloth)?.name.clone();
        self.allow(part, cloth);
        self.from.insert(part, vec![cloth.to_owned()]);
        Ok(format!("{} from {name}", part.name()))
    }

    pub(super) fn assign_also(&mut self, part: &str, cloth: &str) -> Result<String, FieldProblem> {
        let part: Part = choice("part", part)?;
        let name = self.cloth_mut(cloth)?.name.clone();
        let from = self.from.entry(part).or_default();
        if from.iter().any(|id| id == cloth) {
            let message = format!("{} is cut from {name} already.", part.name());
            return Err(FieldProblem::new("cloth", cloth, message));
        }
        from.push(cloth.to_owned());
        self.allow(part, cloth);
        Ok(format!("{} from {name} too", part.name()))
    }

    pub(super) fn unassign(&mut self, part: &str, cloth: &str) -> Result<String, FieldProblem> {
        let part: Part = choice("part", part)?;
        let name = self.cloth_mut(cloth)?.name.clone();
        let from = self.from.entry(part).or_default();
        let before = from.len();
        from.retain(|id| id != cloth);
        let gone = from.len() < before;
        if from.is_empty() {
            self.from.remove(&part);
        }
        if !gone {
            let message = format!("{} is not cut from {name}.", part.name());
            return Err(FieldProblem::new("cloth", cloth, message));
        }
        Ok(format!("{} no longer from {name}", part.name()))
    }

    fn cloth_mut(&mut self, id: &str) -> Result<&mut ProjectCloth, FieldProblem> {
        self.cloths
            .iter_mut()
            .find(|c| c.id == id)
            .ok_or_else(|| FieldProblem::new("cloth", id, format!("There is no cloth “{id}” in this project.")))
    }

    /// A look like `usual` in colours no cloth of this project has, as long as there are any.
    fn fresh_look(&self, usual: &Look) -> Look {
        usual.fresh(|ground| self.cloths.iter().any(|c| c.look.ground == ground))
    }

    /// A key made of the name, with a number if it is taken.
    fn new_id(&self, name: &str) -> String {
        let stem = key_from(name);
        std::iter::once(stem.clone())
            .chain((2..).map(|n| format!("{stem}-{n}")))
            .find(|id| self.cloth(id).is_none())
            .unwrap_or(stem)
    }
}

impl Swatch {
    /// # Errors
    /// A size that is no part of a cloth.
    pub fn check_sizes(&self, ruler: Ruler) -> Result<(), FieldProblem> {
        let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
        let (least, most) = Self::SIZES;
        for (field, size) in [("width", self.width), ("height", self.height)] {
            if size < least || size > most {
                let message = format!(
                    "The picture shows {} of the cloth: from {} to {} is allowed.",
                    show(size),
                    show(least),
                    show(most)
                );
                return Err(FieldProblem::new(field, show(size), message));
            }
        }
        Ok(())
    }

    fn check(&self, ruler: Ruler) -> Result<(), FieldProblem> {
        if !Self::is_key(&self.key) {
            return Err(FieldProblem::new("picture", &self.key, "There is no such picture of a cloth."));
        }
        self.check_sizes(ruler)
    }
}

/// A key made of a cloth's name.
fn key_from(name: &str) -> String {
    let plain: String = name.to_lowercase().chars().map(|c| if c.is_alphanumeric() { c } else { '-' }).collect();
    let plain = plain.trim_matches('-');
    if plain.is_empty() { "cloth".to_owned() } else { plain.to_owned() }
}

impl ProjectCloth {
    /// A cloth that comes into a cupboard whose other cloths are called `names`; its key is made of its name.
    ///
    /// # Errors
    /// A name that is none or taken, a material that is not known.
    pub fn new_in_cupboard(name: &str, material: &str, system: System, names: &[&str]) -> Result<Self, FieldProblem> {
        let name = named("name", name)?;
        if names.contains(&name.as_str()) {
            let message = format!("There is a cloth “{name}” already: put it in there, or give this one another name.");
            return Err(FieldProblem::new("name", &name, message));
        }
        let material: Material = choice("material", material)?;
        let mut cloth = Self::default_for(key_from(&name), name, material, system);
        // Neighbours on the shelf are told apart.
        let turn = names.len() % Look::GROUNDS.len();
        let taken: Vec<&str> = Look::GROUNDS[..turn].iter().map(|(ground, _)| *ground).collect();
        cloth.look = cloth.look.fresh(|ground| ground == cloth.look.ground || taken.contains(&ground));
        Ok(cloth)
    }

    /// What is there of it, as typed, in place of what was.
    pub(in crate::project) fn set_at_hand(&mut self, value: &str) -> Result<(), FieldProblem> {
        let system = self.own_system();
        edit_cloth(self, ClothField::AtHand, value, system, Ruler::default_for(system), &[])
    }

    /// Things of it, as typed into the field `key`; where there are none, `none` is told.
    pub(in crate::project) fn read_things(
        &self,
        key: &str,
        value: &str,
        none: &str,
    ) -> Result<Vec<AtHand>, FieldProblem> {
        let read = read_at_hand(value, &self.name, &self.at_hand, self.own_system());
        let things = read.map_err(|not| not_read(key, value, not))?;
        if things.is_empty() { Err(FieldProblem::new(key, value, none)) } else { Ok(things) }
    }

    /// That what is there is not too much to plan with, and that something can be cut from each of it.
    pub(in crate::project) fn has_room_and_use(&self, key: &str, value: &str) -> Result<(), FieldProblem> {
        let system = self.own_system();
        few_enough(key, value, &self.name, &self.at_hand)?;
        all_usable(self, value, (system, Ruler::default_for(system)))
    }
}

/// The things said to be there of `cloth`.
fn at_hand(key: &str, value: &str, cloth: &ProjectCloth, system: System) -> Result<Vec<AtHand>, FieldProblem> {
    let name = &cloth.name;
    let things = read_at_hand(value, name, &cloth.at_hand, system).map_err(|not| not_read(key, value, not))?;
    few_enough(key, value, name, &things)?;
    Ok(things)
}

fn not_read(key: &str, value: &str, not: NotRead) -> FieldProblem {
    match not {
        NotRead::Asked(Question { ask, answers, .. }) => FieldProblem::new(key, value, ask).with_answers(answers),
        unread @ NotRead::Unread { .. } => FieldProblem::new(key, value, unread.to_string()),
    }
}

fn few_enough(key: &str, value: &str, name: &str, things: &[AtHand]) -> Result<(), FieldProblem> {
    let count: u64 = things.iter().map(|t| u64::from(t.count)).sum();
    if count > MOST_AT_HAND {
        let message = format!("{count} pieces of {name}: at most {MOST_AT_HAND} of a cloth are planned with.");
        return Err(FieldProblem::new(key, value, message));
    }
    Ok(())
}

/// That something can be cut from each thing there is of `cloth`.
fn all_usable(cloth: &ProjectCloth, value: &str, (system, ruler): (System, Ruler)) -> Result<(), FieldProblem> {
    let nothing = |c: &Cloth| c.usable_width() <= Length::ZERO || c.usable_length().is_some_and(|l| l <= Length::ZERO);
    let Some(small) = cloth.for_job(system).into_iter().find(nothing) else { return Ok(()) };
    let show = |l: Length| format!("{} {}", ruler.show(l).text, system.symbol());
    if small.layers == 2 && small.whole_length().is_some() {
        let message = format!("{} is too small: {} is cut off beside its seam.", small.name, show(small.selvedge));
        return Err(FieldProblem::new("at_hand", value, message));
    }
    let message = format!(
        "{} is too small: its sides lose {} each to the selvedges, its ends {} each when they are squared.",
        small.name,
        show(cloth.selvedge),
        show(cloth.trim)
    );
    Err(FieldProblem::new("at_hand", value, message))
}

/// Whether `value` takes away what stood in `field`.
fn is_none(field: ClothField, value: &str) -> bool {
    matches!(value.trim(), "" | "none") || (field == ClothField::AtHand && value.trim() == "0")
}

fn edit_cloth(
    cloth: &mut ProjectCloth,
    field: ClothField,
    value: &str,
    system: System,
    ruler: Ruler,
    others: &[String],
) -> Result<(), FieldProblem> {
    let key = key_of(&field);
    let length = || size(&key, value, system);
    let show = |l: Length| format!("{} {}", ruler.show(l).text, system.symbol());
    let none = is_none(field, value);
    match field {
        ClothField::Name => {
            let name = named(&key, value)?;
            if others.contains(&name) {
                return Err(FieldProblem::new(
                    &key,
                    &name,
                    format!("There is a cloth “{name}” already: give this one another name."),
                ));
            }
            cloth.name = name;
        }
        ClothField::Material => cloth.material = choice(&key, value)?,
        ClothField::Width => cloth.width = length()?,
        ClothField::Selvedge => cloth.selvedge = length()?,
        ClothField::Trim => cloth.trim = length()?,
        ClothField::WashFirst => cloth.wash_first = yes_or_no(&key, value)?,
        ClothField::TestSquare | ClothField::TestAlong | ClothField::TestAcross => {
            cloth.tested = test_square(cloth.tested, field, if none { None } else { Some(length()?) }, show, system)?;
        }
        ClothField::Weight => cloth.grams = if none { None } else { Some(weight(value, system)?) },
        ClothField::Step => cloth.shop = ShopStep { step: if none { None } else { Some(length()?) }, ..cloth.shop },
        ClothField::Min => cloth.shop = ShopStep { min: length()?, ..cloth.shop },
        ClothField::Price => cloth.price = if none { None } else { Some(price(&key, value, system)?.0) },
        ClothField::AtHand => cloth.at_hand = at_hand(&key, value, cloth, system)?,
        ClothField::BuyMore => cloth.buy_more = yes_or_no(&key, value)?,
        ClothField::Print => cloth.print = choice(&key, value)?,
        ClothField::Up => cloth.up = choice(&key, value)?,
        ClothField::Nap => cloth.nap = yes_or_no(&key, value)?,
        ClothField::Folded => cloth.folded = yes_or_no(&key, value)?,
        ClothField::Repeat => cloth.repeat = if none { None } else { Some(length()?) },
        ClothField::RepeatWide => cloth.repeat_wide = if none { None } else { Some(length()?) },
        ClothField::HalfDrop => cloth.half_drop = yes_or_no(&key, value)?,
        ClothField::MotifFrom => cloth.motif_from = if none { None } else { Some(length()?) },
    }
    if cloth.width <= Length::ZERO || cloth.width > LONGEST / 4 {
        return Err(FieldProblem::new(
            "width",
            show(cloth.width),
            format!("{} is {} wide: more than 0 and at most 5 m is allowed.", cloth.name, show(cloth.width)),
        ));
    }
    if cloth.roll().usable_width() <= Length::ZERO {
        let field = if field == ClothField::Selvedge { "selvedge" } else { "width" };
        return Err(FieldProblem::new(
            field,
            value,
            format!(
                "{} is {} wide and loses {} at each side: its two selvedges leave nothing to cut from.",
                cloth.name,
                show(cloth.width),
                show(cloth.selvedge)
            ),
        ));
    }
    print_stands(cloth, field, value, show)?;
    all_usable(cloth, value, (system, ruler))?;
    if cloth.shop.step.is_some_and(|s| s <= Length::ZERO) {
        return Err(FieldProblem::new(
            "step",
            value,
            "The shop's step is more than 0; leave it empty if any length is cut.",
        ));
    }
    Ok(())
}

/// No cloth loses more than this in a wash, in hundredths: beyond it a measure is mistyped.
const MOST_SHRINK: i64 = 30;

/// The usual side of a test square: long enough that a line of the ruler is little of it.
fn usual_square(system: System) -> Length {
    match system {
        System::Inches => Length::INCH * 10,
        System::Centimetres => Length::CENTIMETRE * 25,
    }
}

/// The test square with one more measure; nothing where none is left.
fn test_square(
    known: Option<TestSquare>,
    field: ClothField,
    value: Option<Length>,
    show: impl Fn(Length) -> String,
    system: System,
) -> Result<Option<TestSquare>, FieldProblem> {
    let mut square = known.unwrap_or(TestSquare { side: usual_square(system), along: None, across: None });
    match (field, value) {
        (ClothField::TestAlong, value) => square.along = value,
        (ClothField::TestAcross, value) => square.across = value,
        (_, value) => square.side = value.unwrap_or_else(|| usual_square(system)),
    }
    let key = key_of(&field);
    let problem = |value: Length, message: String| Err(FieldProblem::new(&key, show(value), message));
    if square.side < Length::INCH * 2 || square.side > Length::METRE {
        return problem(
            square.side,
            format!("A test square of {}: from 2 in to 1 m is measured well.", show(square.side)),
        );
    }
    for after in [square.along, square.across].into_iter().flatten() {
        if after > square.side {
            let message = format!(
                "It was cut {} and came out {}: cloth that grows in the wash is not planned with.",
                show(square.side),
                show(after)
            );
            return problem(after, message);
        }
        if after.0 * 100 < square.side.0 * (100 - MOST_SHRINK) {
            let message = format!(
                "It was cut {} and came out {}: that is over {MOST_SHRINK} % gone. Is the measure right?",
                show(square.side),
                show(after)
            );
            return problem(after, message);
        }
    }
    let measured = square.along.is_some() || square.across.is_some() || square.side != usual_square(system);
    Ok(measured.then_some(square))
}

/// What a square metre weighs, in grams, of a weight as it is said: `240 g`, `240 gsm`, `7 oz` a square yard; a bare number
/// is in ounces where inches are measured.
fn weight(value: &str, system: System) -> Result<u32, FieldProblem> {
    let said = value.trim().to_lowercase();
    let (figures, unit) = said.split_at(said.find(char::is_alphabetic).unwrap_or(said.len()));
    let (figures, unit) = (figures.trim(), unit.replace(['.', ' '], ""));
    let number = match figures.strip_suffix(['½', '¼', '¾']) {
        Some(whole) => {
            let part = if figures.ends_with('½') {
                0.5
            } else if figures.ends_with('¼') {
                0.25
            } else {
                0.75
            };
            if whole.trim().is_empty() { Some(part) } else { whole.trim().parse::<f64>().ok().map(|n| n + part) }
        }
        None => figures.replace(',', ".").parse::<f64>().ok(),
    };
    // 28.3495 g to an ounce, 0.836127 m² to a square yard.
    let grams = match (unit.as_str(), system) {
        ("g" | "gsm" | "g/m2" | "g/m²" | "gram" | "grams", _) | ("", System::Centimetres) => number,
        ("oz" | "oz/yd2" | "oz/yd²" | "ounces" | "ounce", _) | ("", System::Inches) => number.map(|n| n * 33.9057),
        _ => None,
    };
    match grams.map(f64::round) {
        Some(grams) if (10.0..=2_000.0).contains(&grams) => Ok(grams as u32),
        Some(_) => Err(FieldProblem::new(
            "weight",
            value,
            "Cloth weighs from 10 to 2,000 g a square metre, ⅓ to 59 oz a square yard.",
        )),
        None => Err(FieldProblem::new(
            "weight",
            value,
            "Type the weight as 240 g per square metre, or 7 oz per square yard.",
        )),
    }
}

/// That what is measured of the print can be: the field that was just typed is named, else the width, which all follows.
fn print_stands(
    cloth: &ProjectCloth,
    field: ClothField,
    value: &str,
    show: impl Fn(Length) -> String,
) -> Result<(), FieldProblem> {
    let named = |own: &'static str| if field == ClothField::Width { "width" } else { own };
    // Printed upright a repeat may be taller than the cloth is wide; nobody prints one longer than five metres.
    let most = |wide: bool| match (wide, cloth.up) {
        (true, PrintUp::Length) | (false, PrintUp::Across) => cloth.width,
        _ => LONGEST / 4,
    };
    for (own, is, repeat, most) in
        [("repeat", "tall", cloth.repeat, most(false)), ("repeat_wide", "wide", cloth.repeat_wide, most(true))]
    {
        if let Some(repeat) = repeat.filter(|r| *r < SMALLEST_REPEAT || *r > most) {
            let message = format!(
                "One repeat of {} is {} {is}: from {} to {} is allowed.",
                cloth.name,
                show(repeat),
                show(SMALLEST_REPEAT),
                show(most)
            );
            return Err(FieldProblem::new(named(own), value, message));
        }
    }
    if let Some(from) = cloth.motif_from.filter(|from| *from < Length::ZERO || *from > cloth.width) {
        let message = format!(
            "The first motif of {} stands {} from the edge, and it is {} wide.",
            cloth.name,
            show(from),
            show(cloth.width)
        );
        return Err(FieldProblem::new(named("motif_from"), value, message));
    }
    Ok(())
}
