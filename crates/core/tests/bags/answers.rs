//! Every answer to every choice of every family, alone and with every other: a bag that drafts is whole, one that does not
//! names a field it has.
#![allow(missing_docs)]

use crate::support;

use bofta_core::bag::{Bag, Family, Slot};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::{Part, Term, When};
use std::collections::BTreeSet;

/// The keys and answers there are, as they are typed.
fn answers(bag: &Bag) -> Vec<(&'static str, Vec<String>)> {
    let mut copy = bag.clone();
    let listed = copy.fields();
    let of = |slot: &Slot<'_>| match slot {
        Slot::Choice(choice) => choice.answers().iter().map(|a| a.key.to_owned()).collect(),
        Slot::Toggle(_) => vec!["yes".to_owned(), "no".to_owned()],
        Slot::Count(_, among) => vec![among.start().to_string(), among.end().to_string()],
        Slot::Length(_) | Slot::Text(_) | Slot::Lengths(_) | Slot::Cloths(_) => vec![],
    };
    listed.iter().map(|f| (f.key, of(&f.slot))).filter(|(_, a)| !a.is_empty()).collect()
}

/// What must hold of any bag, whatever was chosen.
fn check(bag: &Bag, ruler: Ruler, how: &str) {
    let keys: BTreeSet<&str> = bag.clone().fields().iter().map(|f| f.key).collect();
    let draft = match bag.draft(ruler) {
        Ok(draft) => draft,
        Err(problems) => {
            assert!(!problems.is_empty(), "{how}");
            for p in &problems {
                assert!(keys.contains(p.field.as_str()), "{how}: {p:?} names no field of the bag");
                assert!(p.message.ends_with('.') && support::says_its_value(p), "{how}: {p:?}");
            }
            return;
        }
    };
    let ids: BTreeSet<&str> = draft.pieces.iter().map(|p| p.id.as_ref()).collect();
    assert_eq!(ids.len(), draft.pieces.len(), "{how}: two pieces of one id");
    assert!(!draft.steps.is_empty(), "{how}: nothing is said of how it is made");
    for step in &draft.steps {
        assert!(step.text.ends_with('.') && !step.key.is_empty(), "{how}: {step:?}");
    }
    for p in &draft.pieces {
        for (side, d) in [("wide", &p.width), ("tall", &p.height)] {
            assert!(d.size > Length::ZERO, "{how}: {} is {:?} {side}", p.id, d.size);
            let sum: Length = d.terms.iter().map(Term::value).sum();
            assert_eq!(sum, d.size, "{how}: the reason of {} {side} does not add up", p.id);
        }
        assert!(p.count > 0 && !p.name.is_empty(), "{how}: {}", p.id);
        // A block is cut from, a backing lies behind, a patch belongs to something that is there.
        for other in p.block_of.iter().chain(&p.backs).chain(&p.patch_of) {
            assert!(ids.contains(other.as_ref()), "{how}: {} speaks of {other}, which is not there", p.id);
        }
        let (width, height) = p.size();
        for mark in &p.marks {
            let told = mark.describe(ruler, (width, height));
            assert!(!told.is_empty() && mark.distance >= Length::ZERO, "{how}: {} on {}", mark.name, p.id);
            assert!(mark.distance <= width.max(height), "{how}: {told} is off {}", p.id);
        }
        let outline = p.outline();
        let (w, h) = outline.size();
        assert!(w <= width && h <= height, "{how}: the outline of {} is larger than it", p.id);
    }
    for notice in &draft.notices {
        if let Some(field) = notice.field.as_deref() {
            assert!(keys.contains(field), "{how}: “{}” is about {field}, which is no field", notice.text);
        }
    }
    // What stands only beside what is laid is made of something that is laid.
    for p in draft.pieces.iter().filter(|p| p.when == When::FromBlock) {
        assert!(draft.pieces.iter().any(|b| b.block_of.contains(&p.id) && b.part == p.part), "{how}: {}", p.id);
    }
    for p in draft.pieces.iter().filter(|p| matches!(p.when, When::Pieced(_))) {
        assert!(draft.pieces.iter().any(|b| b.patch_of.as_ref() == Some(&p.id) || b.part == Part::Contrast), "{how}");
    }
    for f in bag.finished_from_cut(&draft) {
        let off = f.back - f.asked;
        assert!(off >= -ruler.step() * 2 && off <= ruler.step() * 4, "{how}: {f:?}");
    }
}

fn all_pairs(system: System) {
    let ruler = Ruler::default_for(system);
    for family in Family::ALL.iter().filter(|f| **f != Family::CutList) {
        let usual = family.default_for(system);
        let choices = answers(&usual);
        for (i, (first, firsts)) in choices.iter().enumerate() {
            for a in firsts {
                let mut one = usual.clone();
                one.set(first, a, system).expect("an answer that was listed");
                check(&one, ruler, &format!("{family:?} with {first} {a}"));
                for (second, seconds) in &choices[i + 1..] {
                    for b in seconds {
                        let mut two = one.clone();
                        two.set(second, b, system).expect("an answer that was listed");
                        check(&two, ruler, &format!("{family:?} with {first} {a}, {second} {b}"));
                        let kept = serde_json::to_value(&two).expect("written");
                        assert_eq!(serde_json::from_value::<Bag>(kept).expect("read"), two);
                    }
                }
            }
        }
    }
}

#[test]
fn every_pair_of_answers_in_inches() {
    all_pairs(System::Inches);
}

#[test]
fn every_pair_of_answers_in_centimetres() {
    all_pairs(System::Centimetres);
}
