//! Cloth that is there: pre-cuts, lengths and remnants, together with what is bought.
#![allow(missing_docs)]

use bofta_core::buying::{missing, other_widths};
use bofta_core::cloth::{AtHand, Form, HandForm};
use bofta_core::cutting::cut_list;
use bofta_core::lay::{Budget, Job, Lay, Silent, Stop, areas, better, solve, verify};
use bofta_core::ledger::OfBag;
use bofta_core::measure::{Length, System};
use bofta_core::project::{
    ClothField, CutUp, Edit, LeftOver, Project, ProjectCloth, Sized, Tried, bought, bought_text, cut_of_each, cut_up,
    guesses, largest, left_as_planned, left_over, ways_out,
};

fn made(project: &Project, edits: &[Edit]) -> Project {
    edits.iter().fold(project.clone(), |p, e| p.edited(e).unwrap_or_else(|why| panic!("{e:?}: {why:?}")).0)
}

fn of(cloth: &str, field: ClothField, value: &str) -> Edit {
    Edit::Cloth { cloth: cloth.into(), field, value: value.into() }
}

fn add(name: &str) -> Edit {
    Edit::AddCloth { name: name.into(), material: "cotton".into() }
}

fn pouch() -> Project {
    made(&Project::new("Pouch", System::Inches), &[Edit::Family { family: "pouch".into() }, add("Pea stripe")])
}

fn laid(project: &Project) -> (Job, Lay) {
    let planned = project.plan().expect("drafts");
    assert_eq!(planned.problems, []);
    let job = planned.job.expect("a job");
    let lay = solve(&job, Budget::iterations(200), &mut Silent).expect("laid");
    assert_eq!(verify(&job, &lay), vec![]);
    (job, lay)
}

/// By hand: a pouch 8 × 5½ with ⅜ in seams takes two outers and two linings of 8¾ × 6¼ and two tabs of 1¾: three panels
/// stand on a fat quarter, 18 by 21, two across and a third above them; all of it on two.
#[test]
fn a_pouch_from_two_fat_quarters() {
    let project = made(&pouch(), &[of("pea-stripe", ClothField::AtHand, "2 fat quarters")]);
    let (job, lay) = laid(&project);
    assert_eq!(job.cloths.iter().map(|c| c.id.as_str()).collect::<Vec<_>>(), ["pea-stripe#1.1", "pea-stripe#1.2"]);
    assert_eq!(job.cloths[1].name, "Pea stripe, fat quarter 2 of 2");
    assert!(matches!(job.cloths[0].form, Form::Sheet { width, height, count: 1 }
        if (width, height) == (Length::inches(21, 1), Length::inches(18, 1))));
    assert!(lay.complete());
    assert_eq!((bought(&project, &lay), bought_text(&project, &lay)), (Length::ZERO, "no cloth to buy".into()));
    // The same cloth, whichever of its pieces is meant.
    assert_eq!(project.cloth("pea-stripe#1.2").map(|c| c.name.as_str()), Some("Pea stripe"));
}

#[test]
fn what_is_there_and_what_is_bought_share_the_pieces() {
    let tote = made(&Project::new("Tote", System::Inches), &[add("Pea stripe")]);
    let all = bought(&tote, &laid(&tote).1);
    let short = made(&tote, &[of("pea-stripe", ClothField::AtHand, "half a yard, 14 x 20")]);
    let (job, lay) = laid(&short);
    assert!(!lay.complete());
    // More of it is bought off the roll, for what is left out alone.
    let more = short.missing(&job, &lay, &Stop::new()).expect("short").cloths.remove(0);
    let length = more.length.expect("a length");
    assert!(length > Length::ZERO && length < all, "{more:?}");
    assert_eq!((more.name.as_str(), more.cloth.as_str()), ("Pea stripe", "pea-stripe"));

    let priced = made(&short, &[of("pea-stripe", ClothField::Price, "8")]);
    let both = made(&priced, &[of("pea-stripe", ClothField::BuyMore, "yes")]);
    let (job, lay) = laid(&both);
    assert!(lay.complete());
    let on = |id: &str| lay.cloths.iter().filter(|c| c.cloth == id).map(|c| c.placements.len()).sum::<usize>();
    assert!(on("pea-stripe#1.1") > 0 && on("pea-stripe") > 0, "{:?}", lay.cloths);
    assert!(bought(&both, &lay) < all, "{:?} of {all:?}", bought(&both, &lay));
    assert_eq!(lay.cost, both.cloths[0].price.expect("a price").of(bought(&both, &lay)));
    assert_eq!(job.pieces[0].cloths, ["pea-stripe#1.1", "pea-stripe#2.1", "pea-stripe"]);
}

/// What the roll would take in another width depends on what is there: nothing is said of it, not even that it does not fit.
#[test]
fn other_widths_are_not_told_beside_what_is_there() {
    let tote = made(&Project::new("Tote", System::Inches), &[add("Pea stripe")]);
    let widths = |project: &Project| other_widths(&laid(project).0, "pea-stripe", 20, &Stop::new());
    assert!(!widths(&tote).is_empty());
    let both = [of("pea-stripe", ClothField::AtHand, "half a yard"), of("pea-stripe", ClothField::BuyMore, "yes")];
    assert_eq!(widths(&made(&tote, &both)), []);
    // Nor where it takes what another cloth leaves over.
    let second = [
        add("Bean dot"),
        Edit::Assign { part: "lining".into(), cloth: "bean-dot".into() },
        Edit::AssignAlso { part: "lining".into(), cloth: "pea-stripe".into() },
    ];
    assert_eq!(widths(&made(&tote, &second)), []);
}

/// A plan that was begun before has its one length under the cloth's own id: more of it is told on top of what there is.
#[test]
fn a_length_of_before_is_only_lengthened() {
    let tote = made(&Project::new("Tote", System::Inches), &[add("Pea stripe")]);
    let (mut job, _) = laid(&tote);
    job.cloths[0].owned = true;
    job.cloths[0].form = Form::Roll { width: Length::INCH * 44, length: Some(Length::INCH * 20), max: None };
    let lay = solve(&job, Budget::iterations(100), &mut Silent).expect("laid");
    let told = |roll: &dyn Fn(&str) -> Option<bofta_core::cloth::Cloth>| {
        missing(&job, &lay, roll, &Stop::new()).expect("short").cloths[0].length
    };
    assert_eq!(told(&|id| tote.cloth(id).map(|c| c.roll())), told(&|_| None));
    assert!(told(&|_| None).is_some());
}

/// A part may come from several cloths: the first is filled first, the next when it runs short.
#[test]
fn a_part_comes_from_one_cloth_after_the_other() {
    let project = made(
        &pouch(),
        &[
            add("Bean dot"),
            of("pea-stripe", ClothField::AtHand, "9 x 9"),
            of("bean-dot", ClothField::AtHand, "2 fat quarters"),
        ],
    );
    assert!(!laid(&project).1.complete());
    let also = |part: &str| Edit::AssignAlso { part: part.into(), cloth: "bean-dot".into() };
    let project = made(&project, &[also("outer"), also("lining")]);
    let (_, lay) = laid(&project);
    assert!(lay.complete());
    let used: Vec<&str> = lay.cloths.iter().map(|c| c.cloth.as_str()).collect();
    assert!(used.contains(&"pea-stripe#1.1") && used.contains(&"bean-dot#1.1"), "{used:?}");
    let back = made(&project, &[Edit::Unassign { part: "outer".into(), cloth: "pea-stripe".into() }]);
    let outer = bofta_core::piece::Part::Outer;
    assert_eq!(back.from[&outer], ["bean-dot"]);
}

/// Strips come as they are; of a length the selvedges and the squaring of its ends are lost, of a remnant nothing.
#[test]
fn what_can_be_used_of_each_form() {
    let project = made(&pouch(), &[of("pea-stripe", ClothField::AtHand, "12 in, 2 strips of 12 in, 12 x 44")]);
    let usable: Vec<(Length, Option<Length>)> =
        project.cloths[0].for_job(System::Inches).iter().map(|c| (c.usable_width(), c.usable_length())).collect();
    let inch = |n| Length::inches(n, 1);
    let strip = (inch(43), Some(inch(12)));
    assert_eq!(usable, [(inch(43), Some(inch(11))), strip, strip, (inch(44), Some(inch(12)))]);
    assert_eq!(project.cloths[0].widest(), inch(44));
    assert_eq!(project.cloths[0].longest(), Some(inch(12)));
}

/// Documents of before said one length, or none.
#[test]
fn a_length_kept_before_is_there_still() {
    let document = serde_json::to_value(pouch()).expect("kept");
    for (owned, there) in [
        (serde_json::json!(Length::YARD), vec![AtHand::one(HandForm::length(Length::YARD))]),
        (serde_json::Value::Null, vec![]),
    ] {
        let mut before = document.clone();
        let cloth = before["cloths"][0].as_object_mut().expect("a cloth");
        assert!(cloth.remove("at_hand").is_some() && cloth.remove("buy_more").is_some());
        cloth.insert("owned".into(), owned);
        let read: Project = serde_json::from_value(before).expect("read");
        assert_eq!((&read.cloths[0].at_hand, read.cloths[0].buy_more), (&there, false));
    }
}

/// What can be meant in two ways is asked, and every answer is taken as it stands.
#[test]
fn a_question_brings_its_answers() {
    let asked = pouch().edited(&of("pea-stripe", ClothField::AtHand, "a quarter, 24 in")).expect_err("asked");
    assert_eq!((asked[0].field.as_str(), asked[0].answers.len()), ("at_hand", 2));
    for answer in &asked[0].answers {
        let project = made(&pouch(), &[of("pea-stripe", ClothField::AtHand, &answer.text)]);
        assert_eq!(project.cloths[0].at_hand.len(), 2, "{answer:?}");
    }
}

/// As many squares as are planned with, and a bag that takes some of them: still an answer at once.
#[test]
fn two_hundred_squares() {
    let project = made(&pouch(), &[of("pea-stripe", ClothField::AtHand, "200 squares of 10 in")]);
    let (job, lay) = laid(&project);
    assert_eq!(job.cloths.len(), 200);
    assert!(lay.complete() && lay.cloths.len() <= 5, "{}", lay.cloths.len());
}

/// One right way: the lining panels of a pouch, 8¾ × 6¼, do not fit a remnant of 6 × 6, and there is one more cloth.
#[test]
fn the_ways_out_are_tried_by_laying_them() {
    let project = made(
        &pouch(),
        &[
            add("Bean dot"),
            Edit::Assign { part: "lining".into(), cloth: "bean-dot".into() },
            of("bean-dot", ClothField::AtHand, "6 in × 6 in"),
        ],
    );
    let planned = project.plan().expect("drafts");
    let (_, lay) = laid(&project);
    assert!(!lay.complete());
    let ways = ways_out(&project, &planned, &lay);
    let whole: Vec<&str> =
        ways.iter().filter(|way| laid(&made(&project, &way.edits)).1.complete()).map(|way| way.name.as_str()).collect();
    assert_eq!(whole, ["Buy the rest of Bean dot", "Cut the lining from Pea stripe as well"]);
    // Where it shows, that is said; what does not show comes first.
    let outer = made(&project, &[of("pea-stripe", ClothField::AtHand, "4 in × 4 in")]);
    let names: Vec<String> = ways_out(&outer, &outer.plan().expect("drafts"), &laid(&outer).1)
        .into_iter()
        .map(|way| way.name)
        .filter(|name| name.contains(" as well"))
        .collect();
    assert_eq!(
        names,
        ["Cut the lining from Pea stripe as well", "Cut the outer from Bean dot as well, where it shows"]
    );
    assert_eq!(
        ways_out(&outer, &outer.plan().expect("drafts"), &laid(&outer).1)[2].name,
        "Buy the rest of Pea stripe and Bean dot"
    );
}

#[test]
fn the_largest_bag_is_found_by_halving() {
    let up_to = |most: u32| {
        largest(|percent| if percent <= most { Tried::Whole } else { Tried::Short(vec!["Outer panel".into()]) })
    };
    for most in [50, 51, 73, 99, 100, 101, 137, 399] {
        let sized = Sized { percent: most, limits: vec!["Outer panel".into()] };
        assert_eq!(up_to(most), Some(sized), "{most}");
    }
    assert_eq!(up_to(49), None);
    assert_eq!(largest(|_| Tried::Whole), Some(Sized { percent: 400, limits: vec![] }));
    // Below 60 % it is no bag at all: what fits is found all the same, and nothing is said to fit that was not tried.
    let holes = |percent: u32| match percent {
        0..60 => Tried::NoBag,
        60..=80 => Tried::Whole,
        _ => Tried::Short(vec![]),
    };
    assert_eq!(largest(holes).map(|s| s.percent), Some(80));
    assert_eq!(largest(|percent| if percent == 100 { Tried::Short(vec![]) } else { Tried::NoBag }), None);
    assert_eq!(largest(|_| Tried::NoBag), None);
}

/// A guess of which nearly all is needed wants the tape measure; one with room to spare does not, nor what was measured.
#[test]
fn a_tight_guess_is_to_be_measured() {
    // By hand: the lining of a pouch is two panels of 8¾ × 6¼, side by side 17½.
    let told = |there: &str| {
        let cloth = of("bean-dot", ClothField::AtHand, there);
        let project =
            made(&pouch(), &[add("Bean dot"), Edit::Assign { part: "lining".into(), cloth: "bean-dot".into() }, cloth]);
        let (job, lay) = laid(&project);
        assert!(lay.complete(), "{there}");
        guesses(&project, &job, &lay)
    };
    let tight = told("about 13 x 18");
    assert_eq!(tight.len(), 1);
    assert!(tight[0].starts_with("Bean dot, 13 × 18 in is a guess, and the plan leaves only "), "{tight:?}");
    assert_eq!((told("13 x 18"), told("about 30 x 40")), (vec![], vec![]));
}

/// What is owned may be used as it comes: the lay that buys less is the better one, though it takes more in all.
#[test]
fn less_bought_is_better_than_less_taken() {
    let tote = made(&Project::new("Tote", System::Inches), &[add("Pea stripe")]);
    let there = [of("pea-stripe", ClothField::AtHand, "half a yard"), of("pea-stripe", ClothField::BuyMore, "yes")];
    let (job, lay) = laid(&made(&tote, &there));
    let mut wasteful = lay.clone();
    for on in &mut wasteful.cloths {
        on.buy_length =
            if job.cloth(&on.cloth).is_some_and(|c| c.owned) { Length::ZERO } else { on.buy_length + Length::INCH };
    }
    assert!(wasteful.bought() < lay.bought(), "it takes less in all");
    assert!(job.bought(&wasteful) > job.bought(&lay));
    assert!(better(&job, &lay, &wasteful) && !better(&job, &wasteful, &lay));
}

/// The whole project cut to the last step, as the table does it.
fn all_cut(project: &Project) -> Project {
    let (job, lay) = laid(project);
    let planned = project.plan().expect("drafts");
    let steps = cut_list(&job, &lay.cloths, &planned.draft.pieces, &planned.blocks).len() as u32;
    let begun = project.begun(&lay).expect("begun");
    made(&begun, &[Edit::StepsDone { count: steps }])
}

/// By hand: the pouch's lining, two panels 6¼ tall side by side, is cut from 13 in of a 44 in cloth whose ends lose ½ in each:
/// 7¼ are taken, 5¾ of the length are left, which is worth keeping from 5 in on.
#[test]
fn what_is_left_is_told_once_all_is_cut() {
    let lining = [add("Bean dot"), Edit::Assign { part: "lining".into(), cloth: "bean-dot".into() }];
    let project = made(&made(&pouch(), &lining), &[of("bean-dot", ClothField::AtHand, "about 13 in")]);
    assert_eq!(left_over(&project), [], "nothing before the first cut");
    let cut = all_cut(&project);
    let left = left_over(&cut);
    let dot = left.iter().find(|l| l.cut_from == "Bean dot").expect("it is cut into");
    assert_eq!(dot.used, [AtHand { about: true, ..AtHand::one(HandForm::length(Length::INCH * 13)) }]);
    let rest = AtHand::one(HandForm::length(Length::inches(23, 4)));
    assert!(dot.kept.contains(&rest), "{:?}", dot.kept);
    // Of the cloth that is bought only remnants come back.
    let stripe = left.iter().find(|l| l.cut_from == "Pea stripe").expect("bought and cut");
    assert!(stripe.used.is_empty() && !stripe.kept.is_empty());
    // Washed first, what is left is another cloth: washed, and as narrow as that made it.
    let washed = all_cut(&made(&project, &[of("bean-dot", ClothField::WashFirst, "yes")]));
    let dot = left_over(&washed).into_iter().find(|l| l.cut_from == "Bean dot").expect("cut");
    assert_eq!((dot.cloth.name.as_str(), dot.cloth.wash_first), ("Bean dot, washed", false));
    assert!(dot.cloth.width < Length::INCH * 44);
}

/// What became of the cloth: areas told by other means than the account's own. A bag that is not cut to the end has none, and
/// what is kept and what is bag are never more than what was cut.
#[test]
fn what_became_of_the_cloth_adds_up() {
    let lining = [add("Bean dot"), Edit::Assign { part: "lining".into(), cloth: "bean-dot".into() }];
    let project = made(&made(&pouch(), &lining), &[of("bean-dot", ClothField::AtHand, "about 13 in")]);
    let (job, lay) = laid(&project);
    let begun = project.begun(&lay).expect("begun");
    assert_eq!(cut_up(&project).or_else(|| cut_up(&begun)), None, "not cut to the end");
    for wash in ["no", "yes"] {
        let project = made(&project, &[of("bean-dot", ClothField::WashFirst, wash)]);
        let (job, lay) = if wash == "no" { (job.clone(), lay.clone()) } else { laid(&project) };
        let cut = all_cut(&project);
        let became = cut_up(&cut).expect("cut to the end");
        // The lay says of each cloth how much of it is pieces.
        let pieces: i128 = lay
            .cloths
            .iter()
            .flat_map(|c| &c.placements)
            .map(|p| job.piece(&p.piece).expect("known").outline.area().0)
            .sum();
        assert_eq!(became.bag.0, pieces);
        for on in &lay.cloths {
            let (bag, whole) = areas(&job, on).expect("its cloth");
            assert!((bag.share_of(whole) - on.used_share).abs() < 1e-9, "{on:?}");
        }
        let sheets = |l: &LeftOver| -> i128 {
            let area = |t: &AtHand| match t.form {
                HandForm::Sheet { length, width } => (length * width).0 * i128::from(t.count),
                _ => 0,
            };
            l.kept.iter().map(area).sum()
        };
        assert_eq!(became.kept.0, left_over(&cut).iter().map(sheets).sum::<i128>());
        assert!(became.waste().0 > 0 && became.kept.0 > 0 && became.bag.0 > became.waste().0, "{became:?}");
        assert_eq!(became.plus(became).waste().0, became.waste().0 * 2);
    }
}

/// One square yard cut up, a quarter of it bag and half of it kept: a quarter is waste; the same in square metres.
#[test]
fn areas_are_told_in_both_systems() {
    let yard = Length::INCH * 36;
    let became = CutUp { cut: yard * yard, bag: yard / 2 * (yard / 2), kept: yard * (yard / 2), ..CutUp::default() };
    assert_eq!(
        became.tell(System::Inches),
        "You cut up 1.00 sq yd: 0.25 is in the bag, 0.50 is kept and 0.25 is waste (25 %)."
    );
    assert_eq!(
        became.tell(System::Centimetres),
        "You cut up 0.84 m²: 0.21 is in the bag, 0.42 is kept and 0.21 is waste (25 %)."
    );
}

/// What a bag leaves, as it is planned, is cloth for another one: a rectangle and the rest of a length that the lay does not
/// take; taken anew, it is in the place of what was taken before; of the same name, it is called after that bag.
#[test]
fn what_another_bag_leaves_is_cloth() {
    let sack = made(&pouch(), &[of("pea-stripe", ClothField::AtHand, "1 yd")]);
    let left_of = |project: &Project| {
        let job = project.plan().expect("it stands").job.expect("it is laid");
        let lay = solve(&job, Budget::iterations(40), &mut Silent).expect("a sound job");
        left_as_planned(project, &lay).expect("it stands").remove(0)
    };
    let (left, bag) = (left_of(&sack), OfBag { project: "sack".into(), name: "Bean sack".into() });
    let length = |l: &LeftOver| {
        let long =
            l.kept.iter().find_map(|t| if let HandForm::Length { length, .. } = t.form { Some(length) } else { None });
        long.unwrap_or_else(|| panic!("the rest of a yard: {:?}", l.kept))
    };
    let first = length(&left);
    let empty = made(&Project::new("Caddy", System::Inches), &[Edit::Family { family: "pouch".into() }]);
    let (taken, label) = empty.with_left_of(&bag, &left).expect("it is there");
    assert_eq!((label.as_str(), taken.cloths[0].at_hand.as_slice()), ("Add Pea stripe", left.kept.as_slice()));
    assert!(taken.plan().expect("it stands").job.is_some(), "parts without a cloth are cut from it");
    assert_eq!(taken.taken_of("sack", &left).map(|(c, same)| (c.id.as_str(), same)), Some(("pea-stripe", true)));
    assert!(taken.taken_of("tote", &left).is_none());
    // That bag is planned from a longer piece now: it leaves more.
    let longer = left_of(&made(&sack, &[of("pea-stripe", ClothField::AtHand, "1 1/4 yd")]));
    assert!(length(&longer) > first);
    assert_eq!(taken.taken_of("sack", &longer).map(|(_, same)| same), Some(false));
    let (again, label) = taken.with_left_of(&bag, &longer).expect("it is there");
    assert_eq!((again.cloths.len(), label.as_str()), (1, "Pea stripe: as Bean sack leaves it"));
    assert_eq!(again.cloths[0].at_hand, longer.kept);
    // In a bag with a cloth of that name it has a name of its own, and is taken anew under it.
    let (beside, _) = pouch().with_left_of(&bag, &left).expect("it is there");
    assert_eq!(beside.cloths[1].name, "Pea stripe, left of Bean sack");
    assert_eq!(beside.with_left_of(&bag, &longer).expect("it is there").0.cloths.len(), 2);
    // In the cupboard it is cloth as any.
    assert_eq!(beside.cloths[1].clone().put_in_cupboard(1).left_of, None);
    let nothing = LeftOver { kept: vec![], ..left.clone() };
    assert!(empty.with_left_of(&bag, &nothing).expect_err("nothing")[0].message.contains("worth keeping"));
    let long_name = OfBag { name: "A name of eighty letters ".repeat(4).trim().chars().take(80).collect(), ..bag };
    assert_eq!(pouch().with_left_of(&long_name, &left).expect_err("too long")[0].field, "name");
}

/// Two cloths of a bag that come to one of the cupboard are entered together: neither entry undoes the other.
#[test]
fn what_concerns_one_cloth_is_one_entry() {
    let bare = pouch().cloths.remove(0);
    let washed = ProjectCloth { name: "Pea stripe, washed".into(), ..bare.clone() };
    let sheet = |n: i64| AtHand::one(HandForm::Sheet { length: Length::INCH * n, width: Length::INCH * 9 });
    let left = [
        LeftOver {
            cloth: washed.clone(),
            cut_from: bare.name.clone(),
            cut_from_id: bare.id.clone(),
            used: vec![sheet(20)],
            kept: vec![sheet(6)],
        },
        LeftOver {
            cloth: washed.clone(),
            cut_from: washed.name.clone(),
            cut_from_id: washed.id.clone(),
            used: vec![sheet(12)],
            kept: vec![sheet(7)],
        },
    ];
    let told: Vec<_> = cut_of_each(&left).into_iter().map(|e| (e.cloth.name, e.used, e.kept)).collect();
    let both = (washed.name, vec![sheet(12)], vec![sheet(6), sheet(7)]);
    assert_eq!(told, [(bare.name, vec![sheet(20)], vec![]), both]);
}
