//! Zips: what to ask for in the shop, and how it is brought to length. Common practice.

use super::draft::Hardware;
use super::field::{Field, Group};
use crate::measure::{Length, Ruler, System};

/// Lengths of closed zips that shops keep, by their teeth: whole inches, or whole centimetres. Common practice; named
/// from memory.
const SOLD_INCHES: [i64; 17] = [4, 5, 6, 7, 8, 9, 10, 12, 14, 16, 18, 20, 22, 24, 26, 30, 36];
const SOLD_CENTIMETRES: [i64; 17] = [10, 12, 15, 18, 20, 22, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 80];

/// The shortest zip a shop keeps with at least `teeth`; nothing when it is longer than all of them.
pub fn sold_for(teeth: Length, system: System) -> Option<Length> {
    let (unit, sold) = match system {
        System::Inches => (Length::INCH, &SOLD_INCHES),
        System::Centimetres => (Length::CENTIMETRE, &SOLD_CENTIMETRES),
    };
    sold.iter().map(|n| unit * *n).find(|length| *length >= teeth)
}

/// How many sliders the zip has.
pub(super) fn sliders_field(group: Group, sliders: &mut u32) -> Field<'_> {
    Field::count("zip_sliders", "Sliders on the zip", group, sliders, 1..=2)
}

/// The same with so many `sliders`: two are asked for by name.
pub(super) fn with_sliders(zip: Hardware, sliders: u32) -> Hardware {
    if sliders < 2 {
        return zip;
    }
    let note = format!("{}; two sliders whose heads meet, so that it opens from either end or in the middle", zip.note);
    Hardware { name: format!("{} with two sliders", zip.name).into(), note: note.into(), ..zip }
}

/// A zip with so much of teeth, `why` it is that long.
pub(super) fn zip(name: &'static str, teeth: Length, why: &str, ruler: Ruler) -> Hardware {
    let show = |l: Length| format!("{} {}", ruler.show(l).text, ruler.system().symbol());
    let shop = match sold_for(teeth, ruler.system()) {
        Some(sold) if sold == teeth => "sold in this length".to_owned(),
        Some(sold) => format!(
            "buy {}, shorten by {}: stitch across the teeth and cut {} beyond, never through metal teeth",
            show(sold),
            show(sold - teeth),
            show(match ruler.system() {
                System::Inches => Length::inches(1, 2),
                System::Centimetres => Length::MILLIMETRE * 12,
            })
        ),
        None => "longer than shops keep: buy it by the length, with a slider".to_owned(),
    };
    Hardware {
        name: name.into(),
        count: 1,
        size: Some(teeth),
        note: format!("length of the teeth: {why}; {shop}").into(),
    }
}
