//! Looking for cloth in the cupboard: by words of its name, what it is made of, where it is kept and its colours, and by
//! what can be cut from it: `holds 12 x 9 in, green`.

use crate::FieldProblem;
use crate::cloth::{HandForm, Print, both_sides, sides, unit_of};
use crate::lay::Stop;
use crate::measure::{Length, System};
use crate::problem::Answer;
use crate::project::ProjectCloth;

/// What is looked for: all of it must be true of a cloth.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Wanted {
    /// In lower case.
    pub words: Vec<String>,
    /// Along the threads and across.
    pub size: Option<(Length, Length)>,
}

/// A cloth that was found.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct FoundCloth {
    /// Which of its things hold the size that is looked for; all of them where none is.
    pub things: Vec<usize>,
}

impl Wanted {
    /// Reads what is typed. A size says its unit, since the cupboard has none of its own.
    ///
    /// # Errors
    /// A size without a unit is asked about; one that cannot be read is told.
    pub fn read(text: &str) -> Result<Self, FieldProblem> {
        let lower = text.to_lowercase().replace(['×', '*'], " x ").replace(" by ", " x ");
        let mut wanted = Self::default();
        for part in lower.split([',', ';']).map(str::trim).filter(|p| !p.is_empty()) {
            let said = part.strip_prefix("holds ").or_else(|| part.strip_prefix("hold ")).unwrap_or(part);
            match sides(said) {
                Some(_) if wanted.size.is_some() => {
                    return Err(FieldProblem::new("find", text, "One size at a time is looked for."));
                }
                Some((first, second)) => {
                    if unit_of(&first).is_none() && unit_of(&second).is_none() {
                        let answers = ["in", "cm"].map(|unit| Answer {
                            label: format!("{said} {unit}"),
                            text: text.replacen(
                                text.trim(),
                                &lower.trim().replacen(said, &format!("{said} {unit}"), 1),
                                1,
                            ),
                        });
                        return Err(
                            FieldProblem::new("find", text, "Inches or centimetres?").with_answers(answers.into())
                        );
                    }
                    let size = both_sides(said, System::Centimetres);
                    wanted.size =
                        Some(size.map_err(|why| FieldProblem::new("find", text, format!("“{said}”: {why}")))?);
                }
                None => wanted.words.extend(part.split_whitespace().map(str::to_owned)),
            }
        }
        Ok(wanted)
    }

    /// Whether a cloth is what is looked for. Once `stop` is raised nothing more of it is looked at: then what was found is
    /// not all.
    pub fn of(&self, cloth: &ProjectCloth, stop: &Stop) -> Option<FoundCloth> {
        let colours = cloth.look.colours();
        let known = [cloth.name.to_lowercase(), cloth.material.name().to_lowercase(), cloth.place.to_lowercase()];
        let has = |word: &String| known.iter().any(|k| k.contains(word)) || colours.iter().any(|c| c == word);
        if !self.words.iter().all(has) {
            return None;
        }
        let all = 0..cloth.at_hand.len();
        let Some(size) = self.size else { return Some(FoundCloth { things: all.collect() }) };
        let things: Vec<usize> =
            all.filter(|&n| !stop.asked() && cloth.thing_holds(&cloth.at_hand[n].form, size)).collect();
        (!things.is_empty()).then_some(FoundCloth { things })
    }
}

impl ProjectCloth {
    /// Whether a rectangle so long along the threads and so wide can be cut from one thing of it; turned, too, where its
    /// print and pile allow it.
    pub fn thing_holds(&self, form: &HandForm, (along, across): (Length, Length)) -> bool {
        let turns = self.print == Print::AllOver && !self.nap;
        let holds = |along: Length, across: Length| match form {
            HandForm::Scrap(scrap) => scrap.holds_size(across, along),
            HandForm::Length { .. } | HandForm::Sheet { .. } | HandForm::Tube { .. } => {
                let one = self.thing_for_job(form);
                one.widest_piece() >= across && one.usable_length().is_some_and(|long| long >= along)
            }
        };
        holds(along, across) || (turns && holds(across, along))
    }
}

impl ProjectCloth {
    /// The system its sizes are told in where no project says it: the one its width is whole in.
    pub fn own_system(&self) -> System {
        let eighth = Length::inches(1, 8);
        if self.width.is_multiple_of(eighth) { System::Inches } else { System::Centimetres }
    }
}
