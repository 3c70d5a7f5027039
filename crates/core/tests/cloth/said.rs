//! What people say they have of a cloth: every phrase is read right, asked, or refused by name. Readings are common
//! practice; pre-cuts at the sizes that can be used of them.
#![allow(missing_docs)]

use bofta_core::cloth::{AtHand, HandForm, NotRead, OwnCut, PreCut, in_sizes, read_at_hand, read_of_cloths, say_all};
use bofta_core::measure::{Length, System};
use proptest::prelude::*;
use rstest::rstest;

/// Names of the house's own pre-cuts are read as their sizes, before anything else; several, one, in either system.
#[rstest]
#[case("3 swap squares", "3 of 6 in × 6 in")]
#[case("a swap square", "6 in × 6 in")]
#[case("Swap Square", "6 in × 6 in")]
#[case("two swap squares, half a yard and a swap square", "2 of 6 in × 6 in, ½ yd, 6 in × 6 in")]
#[case("about 2 swap squares", "about 2 of 6 in × 6 in")]
#[case("5 swap patches", "5 of 3 in × 4 in")]
#[case("2 fat quarters", "2 of 50 × 53 cm")]
#[case("a fat quarter; 1 swap square; 12 x 9", "50 × 53 cm, 6 in × 6 in, 12 × 9 in")]
#[case("swap squarely", "")]
#[case("3 swap", "")]
#[case("half a swap square", "")]
#[case("1/2 swap square", "")]
#[case("2 1/2 swap squares", "")]
#[case("swap square less a 2 in corner", "")]
#[case("tube of swap square", "")]
#[case("swap square x 2", "")]
#[case("12 swap squares of oat", "12 of 6 in × 6 in")]
#[case("3 x swap squares, a couple of swap squares", "3 of 6 in × 6 in, 2 of 6 in × 6 in")]
fn own_pre_cuts_are_read(#[case] said: &str, #[case] read: &str) {
    let own = [
        OwnCut::read("swap square", "6 x 6", System::Inches),
        OwnCut::read("swap patch", "3 by 4 in", System::Centimetres),
        OwnCut::read("Fat quarter", "50 × 53", System::Centimetres),
    ]
    .map(|cut| cut.expect("it is read"));
    let found = read_at_hand(&in_sizes(said, &own), "Oat", &[], System::Inches);
    match found {
        Ok(things) => assert_eq!(say_all(&things, System::Inches), read),
        Err(why) => assert_eq!(read, "", "{said}: {why}"),
    }
}

#[rstest]
#[case("", "6 x 6", "name")]
#[case("ab", "6 x 6", "name")]
#[case("5 inch square", "6 x 6", "name")]
#[case("yard", "6 x 6", "name")]
#[case("square", "6 x 6", "name")]
#[case("two pieces", "6 x 6", "name")]
#[case("salt and pepper", "6 x 6", "name")]
#[case("swap square", "", "size")]
#[case("swap square", "0 x 6", "size")]
#[case("swap square", "large", "size")]
#[case("swap square", "6 x 6 x 6", "size")]
#[case("swap square", "900 m x 2", "size")]
fn a_pre_cut_that_cannot_be_names_its_field(#[case] name: &str, #[case] size: &str, #[case] field: &str) {
    assert_eq!(OwnCut::read(name, size, System::Inches).expect_err("refused").field, field);
}

proptest! {
    /// What is said without such a name stays as it is, and nothing typed is a fault.
    #[test]
    fn nothing_else_is_changed_by_own_names(text in "\\PC{0,40}", name in "[a-z]{3,8}( [a-zé]{2,8})?") {
        let Ok(cut) = OwnCut::read(&name, "6 x 6", System::Inches) else { return Ok(()) };
        let there = text.to_lowercase().contains(&name);
        let read = in_sizes(&text, &[cut]);
        prop_assert!(there || read == text);
    }
}

/// The phrase, and what it comes to: said back, or after `?` every answer there is, or `!` where it is not understood.
const INCHES: &str = "
2 yd and 5 in | ? 77 in ; 2 yd, 5 in
2 yd and 5 in, 18 x 22 | ? 77 in, 18 × 22 in ; 2 yd, 5 in, 18 × 22 in
half a metre plus 2 fat eighths | 50 cm, 2 fat eighths
9x14 x3 | 3 of 9 × 14 in
9 in x14 | 9 × 14 in
30 swap squares 6\" | 30 of 6 in × 6 in
30 half squares 6\" | !
A3 | 42 × 29.7 cm
2 A4 sheets | 2 of 29.7 × 21 cm
two F8 | 2 fat eighths
half a centimetre | 0.5 cm
1/2 yd x 2 | ? 2 lengths of ½ yd ; 18 × 72 in
FQ x3 | 3 fat quarters
1,000 mm | !
5'6\" x 44\" | 66 × 44 in
thirty squares 5 in | 30 of 5 in × 5 in
two remnants | !
two remnants, 14 x 20 and 9 x 12 | !
2 each of 18 x 22 and 9 x 11 | ? 2 of 18 × 22 in, 2 of 9 × 11 in ; 2 of 18 × 22 in, 9 × 11 in
2 yd x 45 in wide | 72 × 45 in
45 in wide x 2 yd long | 72 × 45 in
45 in long x 2 yd long | !
2 fat quarters | 2 fat quarters
two fat quarters | 2 fat quarters
3 FQ | 3 fat quarters
3 FQs | 3 fat quarters
a fat quarter | fat quarter
fat quarter | fat quarter
Fat Quarter | fat quarter
one fat quarter | fat quarter
a dozen fat quarters | 12 fat quarters
2 x fat quarter | 2 fat quarters
2x fat quarters | 2 fat quarters
a couple of fat quarters | 2 fat quarters
18 x 21 | fat quarter
a fat eighth | fat eighth
2 fat eighths | 2 fat eighths
2 fat eighths tall | 2 of 18 × 10½ in
metric fat quarter | 50 × 55 cm
2 metric fat quarters | 2 of 50 × 55 cm
long quarter | ¼ yd
2 long quarters | 2 lengths of ¼ yd
half a fat quarter | ? fat eighth ; 18 × 10½ in
a quarter | ? ¼ yd ; fat quarter
quarter | ? ¼ yd ; fat quarter
half | ? ½ yd
two halves | ? 2 lengths of ½ yd
half a yard | ½ yd
half yard | ½ yd
1/2 yd | ½ yd
½ yard | ½ yd
a yard | 1 yd
yard | 1 yd
1 yd | 1 yd
36 in | 1 yd
36 | 1 yd
36\" | 1 yd
yard and a quarter | 1¼ yd
a yard and a quarter | 1¼ yd
a yard and a half | 1½ yd
one and a half yards | 1½ yd
one and a quarter yards | 1¼ yd
two yards | 2 yd
three quarters of a yard | ¾ yd
quarter yard | ¼ yd
a quarter of a yard | ¼ yd
a quarter yard | ¼ yd
eighth of a yard | ⅛ yd
an eighth of a yard | ⅛ yd
5/8 | ⅝ yd
5/8 yd | ⅝ yd
⅜ | ⅜ yd
1 1/2 | ? 1½ yd ; 1½ in
1½ | ? 1½ yd ; 1½ in
2 | ? 2 yd ; 2 in
2.5 | ? 2½ yd ; 2½ in
1 1/2 yd | 1½ yd
1½ yd | 1½ yd
2 yd | 2 yd
2yd | 2 yd
20 | 20 in
20 in | 20 in
20in | 20 in
20 inches | 20 in
20.5 | 20½ in
20,5 in | 20½ in
60 cm | 60 cm
half a metre | 50 cm
1 m 20 | 1.2 m
1m 20 | 1.2 m
1.2 m | 1.2 m
about half a yard | about ½ yd
nearly a yard | about 1 yd
~20 in | about 20 in
20 in or so | about 20 in
¾ yd, bit short | about ¾ yd
roughly 18 x 20 | about 18 × 20 in
36, 18 | 1 yd, ½ yd
36 and 18 | 1 yd, ½ yd
36 + 18 | 1 yd, ½ yd
36; 18 | 1 yd, ½ yd
half a yard and 60 cm | ½ yd, 60 cm
1.2 m and 60 cm | 1.2 m, 60 cm
2 fat quarters and half a yard | 2 fat quarters, ½ yd
2 fat quarters, half a yard | 2 fat quarters, ½ yd
a yard and a fat quarter | 1 yd, fat quarter
a fat quarter and a yard and a half | fat quarter, 1½ yd
half a yard and a quarter of a yard | ½ yd, ¼ yd
2 lengths of 20 in | 2 lengths of 20 in
three lengths of half a yard | 3 lengths of ½ yd
2 pieces of 20 in | 2 lengths of 20 in
2 cuts of 1 yd | 2 lengths of 1 yd
18 x 22 | 18 × 22 in
18x22 | 18 × 22 in
18 × 22 | 18 × 22 in
18 X 22 | 18 × 22 in
18 by 22 | 18 × 22 in
18*22 | 18 × 22 in
18\" x 22\" | 18 × 22 in
18 x 22 in | 18 × 22 in
18in x 22in | 18 × 22 in
18 inches by 22 inches | 18 × 22 in
14½ x 19 | 14½ × 19 in
14 1/2 x 19 1/4 | 14½ × 19¼ in
30 x 40 cm | 30 × 40 cm
30cm x 40cm | 30 × 40 cm
30cmx40cm | 30 × 40 cm
30 cm x 40 | 30 × 40 cm
9 x 10 in scrap | 9 × 10 in
a remnant 9 x 10 | 9 × 10 in
2 of 18 x 22 | 2 of 18 × 22 in
2 @ 18 x 22 | 2 of 18 × 22 in
2: 18 x 22 | 2 of 18 × 22 in
two 14 x 32 | 2 of 14 × 32 in
3 pieces 10 x 12 | 3 of 10 × 12 in
3 pieces of 10 x 12 | 3 of 10 × 12 in
three scraps 10 x 12 | 3 of 10 × 12 in
10 x 12 each | 10 × 12 in
jeans 14 x 32 | ? 32 × 14 in ; tube of 32 × 14 in ; 32 × 28 in
metric long quarter | 25 cm
2 x 18 x 22 | ? 2 of 18 × 22 in
two trouser legs 14 x 32 | ? 2 of 32 × 14 in ; 2 tubes of 32 × 14 in ; 2 of 32 × 28 in
tube of 32 x 14 | tube of 32 × 14 in
2 tubes of 32 x 14 | 2 tubes of 32 × 14 in
three tubes 30 x 8½ | 3 tubes of 30 × 8½ in
a tube 9 by 20 | tube of 9 × 20 in
a trouser leg 9 x 28 | ? 28 × 9 in ; tube of 28 × 9 in ; 28 × 18 in
two trouser legs 14 x 32 opened | 2 of 14 × 32 in
3 x 20 in | ? 3 lengths of 20 in ; 3 in × 20 in
3 x 20 | ? 3 lengths of 20 in ; 3 in × 20 in
3 half yards | ? 3 lengths of ½ yd ; 1½ yd
2 quarter yards | ? 2 lengths of ¼ yd ; ½ yd
2 1/4 yard cuts | !
FQ x 3 | 3 fat quarters
a fat quarter & a yard | fat quarter, 1 yd
approx. 1 yd | about 1 yd
a pair of 15 x 20 | 2 of 15 × 20 in
15x20 x2 | 2 of 15 × 20 in
3 half yards of pea stripe, 9 x 9 | ? 3 lengths of ½ yd, 9 × 9 in ; 1½ yd, 9 × 9 in
18 x 22 twice | !
18-22 | !
2 x 1 yd | ? 2 lengths of 1 yd ; 2 in × 36 in
8 x 10 in | 8 × 10 in
24 30 | ? 24 × 30 in ; 24 in, 30 in
3 squares of 5 in | 3 of 5 in × 5 in
3 squares of 5 | 3 of 5 in × 5 in
20 5 in squares | 20 of 5 in × 5 in
20 5\" squares | 20 of 5 in × 5 in
ten 6 in squares | 10 of 6 in × 6 in
a 12 in square | 12 × 12 in
a square of 12 in | 12 × 12 in
2 1/2 in squares | !
5 in squares | !
12 squares | !
18 strips of 2 1/2 in | 18 strips of 2½ in
18 2½ in strips | 18 strips of 2½ in
a dozen 1½ in strips | 12 strips of 1½ in
a strip of 3 in | strip of 3 in
9\" WOF | ¼ yd
17 by the width | 17 in
17 x width | 17 in
27 of 60 wide | ¾ yd of 60 in wide
80 cm of 150 cm wide | 80 cm of 150 cm wide
half a yard of pea stripe | ½ yd
half a yard of the stripe | ½ yd
2 fat quarters of pea stripe | 2 fat quarters
18 x 22 of pea stripe | 18 × 22 in
half a yard of canvas | !
2 fat quarters of canvas | !
none | 
0 | 
nothing | 
a bag of crumbs | !
200 g of crumbs | !
L, 20 x 20 less 8 x 8 | ? scrap A ; scrap A ; scrap A ; scrap A
L, 20 x 20 less 8 x 8 far right | scrap A
20 x 20 less 30 x 8 | !
2 fat quarters less 6 | !
half a yard less 6 x 6 | !
wedge 30 to 18, 40 tall | ? scrap A ; scrap A
wedge 18 to 30 x 40 | !
wedge 30 | !
triangle 12 x 9 | ? scrap A ; scrap A
right triangle 12 x 9, even triangle 12 x 9 | scrap A, scrap B
half circle 24 across | scrap A
half circle | !
scrap A | !
2 of scrap B | !
some | !
-3 | !
0 x 5 | !
18 x | !
x 18 | !
18 x 22 x 3 x 4 | !
99999 | !
900 fat quarters | !
fat quarter with a hole | !
0 fat quarters | !
half a dozen | !
a quarter, 24 in | ? ¼ yd, 24 in ; fat quarter, 24 in
24 in, a quarter | ? 24 in, ¼ yd ; 24 in, fat quarter
";

const CENTIMETRES: &str = "
2 fat quarters and half a metre plus 2 fat eighths | 2 fat quarters, 50 cm, 2 fat eighths
60 cm x 2 | ? 2 lengths of 60 cm ; 60 × 2 cm
60 x 80 x2 | 2 of 60 × 80 cm
1 m and 20 cm | ? 1.2 m ; 1 m, 20 cm
1 m 20 cm and 60 cm | 1.2 m, 60 cm
A3 | 42 × 29.7 cm
1.000 mm | !
2 fat quarters | 2 fat quarters
fat quarter | fat quarter
50 x 55 | fat quarter
a fat eighth | fat eighth
long quarter | 25 cm
a quarter | ? 25 cm ; fat quarter
half a metre | 50 cm
half metre | 50 cm
quarter metre | 25 cm
a metre | 1 m
metre | 1 m
a metre and a half | 1.5 m
one and a half metres | 1.5 m
1,5 m | 1.5 m
1.5 m | 1.5 m
1.5 | ? 1.5 m ; 1.5 cm
1,5 | ? 1.5 m ; 1.5 cm
3 | ? 3 m ; 3 cm
120,5 | 1.205 m
120 | 1.2 m
120 cm | 1.2 m
1200 mm | 1.2 m
1 m 20 | 1.2 m
80 of 150 wide | 80 cm of 150 cm wide
0.8m + 35cm | 80 cm, 35 cm
0,8 m + 35 cm | 80 cm, 35 cm
1.2 m and 60 cm | 1.2 m, 60 cm
60, 40 | 60 cm, 40 cm
60,40 | 60.4 cm
32*47 | 32 × 47 cm
0,9 x 1,1 m | 90 × 110 cm
0.9 x 1.1 m | 90 × 110 cm
40 x 60 | 40 × 60 cm
40x60cm | 40 × 60 cm
400 mm x 600 mm | 40 × 60 cm
18 x 22 in | 18 × 22 in
half a yard | ½ yd
3 squares of 12 | 3 of 12 × 12 cm
20 squares of 10 cm | 20 of 10 × 10 cm
10 6 cm strips | 10 strips of 6 cm
3 x 20 cm | ? 3 lengths of 20 cm ; 3 cm × 20 cm
2 x 50 | ? 2 lengths of 50 cm ; 2 cm × 50 cm
2 x 50 x 70 | ? 2 of 50 × 70 cm
24 30 | ? 24 × 30 cm ; 24 cm, 30 cm
nearly a metre | about 1 m
half a yard of pea stripe | ½ yd
two 36 x 80 | 2 of 36 × 80 cm
2 sleeves 20 x 45 | ? 2 of 45 × 20 cm ; 2 tubes of 45 × 20 cm ; 2 of 45 × 40 cm
2 tubes of 45 x 20 | 2 tubes of 45 × 20 cm
half | ? 50 cm
1/2 | 50 cm
3/4 | 75 cm
none | 
25 m | !
";

fn told(phrase: &str, system: System) -> String {
    match read_at_hand(phrase, "Pea stripe", &[], system) {
        Ok(things) => say_all(&things, system),
        Err(NotRead::Asked(question)) => {
            let answers: Vec<String> = question
                .answers
                .iter()
                .map(|a| {
                    // Every answer is read without a further question.
                    let read = read_at_hand(&a.text, "Pea stripe", &[], system);
                    say_all(&read.unwrap_or_else(|e| panic!("{phrase}: {} {e:?}", a.text)), system)
                })
                .collect();
            format!("? {}", answers.join(" ; "))
        }
        Err(NotRead::Unread { why, .. }) => {
            assert!(why.ends_with(['.', '?']) && why.len() > 12, "{phrase}: {why}");
            "!".into()
        }
    }
}

#[test]
fn every_phrase_is_read_asked_or_refused() {
    let mut wrong = vec![];
    let mut read = 0;
    for (table, system) in [(INCHES, System::Inches), (CENTIMETRES, System::Centimetres)] {
        for row in table.lines().filter(|l| !l.trim().is_empty()) {
            let (phrase, wanted) = row.split_once(" | ").unwrap_or_else(|| panic!("{row}"));
            let found = told(phrase, system);
            read += 1;
            if found != wanted.trim() {
                wrong.push(format!("{phrase}: {found} instead of {wanted}"));
            }
        }
    }
    assert!(wrong.is_empty(), "{} of {read}:\n{}", wrong.len(), wrong.join("\n"));
    assert!(read >= 200, "{read} phrases");
}

/// Of several cloths: which one is named, asked or refused.
#[test]
fn a_thing_is_of_the_cloth_that_is_named() {
    let cloths = ["Pea stripe", "Bean stripe", "Moss canvas", "Canvas"];
    let read = |text: &str| {
        read_of_cloths(text, &cloths, System::Inches).map(|things| {
            let each = things.into_iter().map(|(n, t)| format!("{} of {}", t.say(System::Inches), cloths[n]));
            each.collect::<Vec<_>>().join(", ")
        })
    };
    assert_eq!(
        read("2 fat quarters of pea stripe, half a yard of moss canvas"),
        Ok("2 fat quarters of Pea stripe, ½ yd of Moss canvas".into())
    );
    assert_eq!(read("a quarter of a yard of pea stripe"), Ok("¼ yd of Pea stripe".into()));
    assert_eq!(read("2 lengths of 20 in of the bean"), Ok("2 lengths of 20 in of Bean stripe".into()));
    // Called exactly so, it is that one.
    assert_eq!(read("18 x 22 of canvas"), Ok("18 × 22 in of Canvas".into()));
    for (text, ask, answers) in [
        ("half a yard of stripe", "which of them", 2),
        ("half a yard", "of which cloth", 4),
        ("a quarter of pea stripe, 1 yd of canvas", "long, or fat", 2),
        ("1 yd of canvas, a quarter", "long, or fat", 2),
    ] {
        let Err(NotRead::Asked(question)) = read(text) else { panic!("{text} is asked about") };
        assert!(question.ask.contains(ask) && question.answers.len() == answers, "{text}: {question:?}");
        for answer in question.answers {
            // An answer answers: what is asked next is something else.
            match read(&answer.text) {
                Ok(_) => {}
                Err(NotRead::Asked(next)) => assert!(!next.ask.contains(ask), "{text}: {next:?}"),
                Err(other) => panic!("{text}: {other}"),
            }
        }
    }
    let refused = |text: &str| read(text).expect_err("refused").to_string();
    assert!(refused("half a yard of gingham").contains("no cloth called “gingham” here"));
    assert!(refused("some of canvas").contains("not understood"));
    assert_eq!(read_of_cloths("half a yard", &["Canvas"], System::Inches).map(|t| t.len()), Ok(1));
}

fn any_form() -> impl Strategy<Value = HandForm> {
    let size = || {
        (1_i64..3_000, any::<bool>()).prop_map(
            |(n, inches)| {
                if inches { Length::inches(n, 8) } else { Length::MILLIMETRE * n }
            },
        )
    };
    let width = prop::option::of(size());
    prop_oneof![
        (size(), width).prop_map(|(length, width)| HandForm::Length { length, width, squared: false }),
        size().prop_map(|length| HandForm::Length { length, width: None, squared: true }),
        (size(), size()).prop_map(|(length, width)| HandForm::Sheet { length, width }),
        prop::sample::select(PreCut::ALL.to_vec()).prop_map(|cut| {
            let (length, width) = cut.size(System::Inches);
            HandForm::Sheet { length, width }
        }),
    ]
}

proptest! {
    /// What is shown in the field is what is there: it is read back as the same.
    #[test]
    fn what_is_said_is_read_back(
        things in prop::collection::vec((1_u32..40, any_form(), any::<bool>()), 1..6),
        metric in any::<bool>(),
    ) {
        let system = if metric { System::Centimetres } else { System::Inches };
        let things: Vec<AtHand> =
            things.into_iter().map(|(count, form, about)| AtHand { count, form, about }).collect();
        let said = say_all(&things, system);
        prop_assert_eq!(read_at_hand(&said, "Pea stripe", &things, system), Ok(things.clone()), "{}", said);
    }

    /// Whatever is typed, it is an answer and never a fall.
    #[test]
    fn nothing_typed_brings_it_down(text in "[0-9a-zA-Zé½⅝ .,;:x×*@/'\"+\\-]{0,40}", metric in any::<bool>()) {
        let system = if metric { System::Centimetres } else { System::Inches };
        if let Ok(things) = read_at_hand(&text, "Pea stripe", &[], system) {
            let zero = |t: &AtHand| matches!(t.form,
                HandForm::Sheet { length, width } if length <= Length::ZERO || width <= Length::ZERO);
            prop_assert!(!things.iter().any(|t| t.count == 0 || zero(t)), "{}", text);
        }
    }
}
