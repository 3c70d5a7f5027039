//! The books of the cupboard over histories with renames, bags begun again from another cloth, things set aside, and cuts
//! entered, entered again and taken back: what there is comes to what a plain count of squares says.

use bofta_core::cloth::{AtHand, HandForm};
use bofta_core::lay::Random;
use bofta_core::ledger::{Goods, OfBag};
use bofta_core::measure::{Length, System};
use bofta_core::project::{LeftOver, ProjectCloth, enter_cuts, put_all_back, take_cuts_back};

const BAGS: usize = 3;

fn squares(count: u32) -> Vec<AtHand> {
    let side = Length::INCH * 10;
    let one = AtHand::one(HandForm::Sheet { length: side, width: side });
    if count == 0 { vec![] } else { vec![AtHand { count, ..one }] }
}

fn halves(count: u32) -> Vec<AtHand> {
    let one = AtHand::one(HandForm::Sheet { length: Length::INCH * 5, width: Length::INCH * 10 });
    if count == 0 { vec![] } else { vec![AtHand { count, ..one }] }
}

fn bag(n: usize) -> OfBag {
    OfBag { project: format!("bag-{n}"), name: format!("Bag {n}") }
}

/// How many there are of a size.
fn many(things: &[AtHand], of: &[AtHand]) -> u32 {
    let form = &of[0].form;
    things.iter().filter(|t| t.form == *form).map(|t| t.count).sum()
}

/// A plain count: what every cloth began with, and what each bag has entered of which cloth.
#[derive(Clone, Default)]
struct Count {
    began: Vec<u32>,
    /// Per bag: the cloth it was cut from, squares used, halves kept.
    entered: [Option<(usize, u32, u32)>; BAGS],
    /// Per bag and cloth, squares set aside.
    aside: [[u32; 3]; BAGS],
}

impl Count {
    fn there(&self, cloth: usize) -> (u32, u32) {
        let of_it = || self.entered.iter().flatten().filter(|e| e.0 == cloth);
        let aside: u32 = self.aside.iter().map(|a| a[cloth]).sum();
        (self.began[cloth] - aside - of_it().map(|e| e.1).sum::<u32>(), of_it().map(|e| e.2).sum())
    }
}

fn cupboard(random: &mut Random) -> (Vec<ProjectCloth>, Count) {
    let mut names: Vec<String> = vec![];
    let mut cloths = vec![];
    let mut count = Count::default();
    for name in ["Moss canvas", "Pea lawn", "Robin check"] {
        let known: Vec<&str> = names.iter().map(String::as_str).collect();
        let mut cloth = ProjectCloth::new_in_cupboard(name, "canvas", System::Inches, &known).expect("a cloth");
        let n = 4 + random.below(8) as u32;
        cloth.at_hand = squares(n);
        cloths.push(cloth.put_in_cupboard(0));
        count.began.push(n);
        names.push(name.into());
    }
    (cloths, count)
}

fn replace(cloths: &mut [ProjectCloth], next: Vec<ProjectCloth>) {
    assert_eq!(next.len(), cloths.len(), "no cloth is split in two");
    for cloth in next {
        let at = cloths.iter().position(|c| c.id == cloth.id).expect("one of them");
        cloths[at] = cloth;
    }
}

#[test]
fn what_there_is_comes_to_a_plain_count() {
    for seed in 0..200 {
        let mut random = Random::new(seed);
        let (mut cloths, mut count) = cupboard(&mut random);
        // What each cloth is called in the bags: they keep the old name when the cupboard's is changed, and the reverse.
        let mut called: Vec<String> = cloths.iter().map(|c| c.name.clone()).collect();
        for at in 1..60 {
            let (n, b) = (random.below(3), random.below(BAGS));
            let of = bag(b);
            match random.below(7) {
                0 => cloths[n].name = format!("{} {at}", ["Moss", "Pea", "Robin"][n]),
                1 => called[n] = format!("Called {n} {at}"),
                2 => {
                    let (there, _) = count.there(n);
                    if count.entered[b].is_none() && there > 0 {
                        cloths[n].lay_with(&of, &squares(1), at).expect("it is there");
                        count.aside[b][n] += 1;
                    }
                }
                3 => {
                    let (next, back) = put_all_back(&cloths, &of, at).expect("put back");
                    replace(&mut cloths, next);
                    assert_eq!(back.len(), count.aside[b].iter().filter(|a| **a > 0).count());
                    count.aside[b] = [0; 3];
                }
                4 | 5 => {
                    // Entered again it may be another cloth, as when the cutting was begun again.
                    let was = count.entered[b];
                    let free = count.there(n).0 + was.filter(|w| w.0 == n).map_or(0, |w| w.1) + count.aside[b][n];
                    if free == 0 {
                        continue;
                    }
                    let (used, kept) = (1 + random.below(free as usize) as u32, random.below(3) as u32);
                    let left = LeftOver {
                        cloth: ProjectCloth { name: called[n].clone(), at_hand: vec![], ..cloths[n].for_project() },
                        cut_from: called[n].clone(),
                        cut_from_id: cloths[n].id.clone(),
                        used: squares(used),
                        kept: halves(kept),
                    };
                    match enter_cuts(&cloths, &[left], &of, at) {
                        Ok((next, missing)) => {
                            assert!(missing.is_empty(), "seed {seed}: {missing:?}");
                            replace(&mut cloths, next);
                            count.entered[b] = Some((n, used, kept));
                            count.aside[b] = [0; 3];
                        }
                        Err(why) => panic!("seed {seed}: {why}"),
                    }
                }
                _ => {
                    let back = take_cuts_back(&cloths, &of.project, at).expect("nothing of it is gone");
                    assert_eq!(
                        back.is_some(),
                        count.entered[b].is_some(),
                        "seed {seed}: it says whether there was one"
                    );
                    if let Some(next) = back {
                        replace(&mut cloths, next);
                        // What had been set aside before it was cut is set aside again.
                        count.entered[b] = None;
                        for (m, cloth) in cloths.iter().enumerate() {
                            count.aside[b][m] = many(cloth.ledger.with_bag(&of.project).all(), &squares(1));
                        }
                    }
                }
            }
            for (n, cloth) in cloths.iter().enumerate() {
                let found = (many(&cloth.at_hand, &squares(1)), many(&cloth.at_hand, &halves(1)));
                assert_eq!(found, count.there(n), "seed {seed}, step {at}: {}", cloth.name);
                let with: u32 =
                    (0..BAGS).map(|b| many(cloth.ledger.with_bag(&bag(b).project).all(), &squares(1))).sum();
                assert_eq!(with, count.aside.iter().map(|a| a[n]).sum::<u32>(), "seed {seed}, step {at}");
                assert!(cloth.ledger.with_bag("nobody").is_none());
            }
        }
    }
}
