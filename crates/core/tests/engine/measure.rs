//! Typing, showing and buying lengths.
#![allow(missing_docs)]

use bofta_core::cloth::{Money, Price};
use bofta_core::measure::{
    Length, ParseLengthError, Ruler, ShopStep, System, parse_length, show_bought, split_lengths,
};
use proptest::prelude::*;
use rstest::rstest;

/// 1 in = 25.4 mm and 1 yd = 0.9144 m exactly (international yard, 1959; NIST SP 811).
#[test]
fn both_systems_are_exact() {
    assert_eq!(Length::INCH * 10, Length::MILLIMETRE * 254);
    assert_eq!(Length::YARD * 10_000, Length::METRE * 9_144);
    assert_eq!(Length::inches(1, 64) * 64, Length::INCH);
    assert_eq!(Length::tenth_mm(254), Length::INCH);
}

#[rstest]
#[case("18 1/2", System::Inches, Length::inches(37, 2))]
#[case("18-1/2", System::Inches, Length::inches(37, 2))]
#[case("18½", System::Inches, Length::inches(37, 2))]
#[case("18 ½\"", System::Inches, Length::inches(37, 2))]
#[case("18.5 in", System::Centimetres, Length::inches(37, 2))]
#[case("18.5 in.", System::Inches, Length::inches(37, 2))]
#[case("4 7/8\"", System::Centimetres, Length::inches(39, 8))]
#[case("⅜", System::Inches, Length::inches(3, 8))]
#[case(".5", System::Inches, Length::inches(1, 2))]
#[case("47cm", System::Inches, Length::CENTIMETRE * 47)]
#[case("47,5", System::Centimetres, Length::MILLIMETRE * 475)]
#[case("9 mm", System::Inches, Length::MILLIMETRE * 9)]
#[case("1 1/2 yd", System::Inches, Length::inches(54, 1))]
#[case("1 yd 9", System::Inches, Length::INCH * 45)]
#[case("2 ft 3 in", System::Inches, Length::INCH * 27)]
#[case("0.9144 m", System::Inches, Length::YARD)]
#[case("0", System::Inches, Length::ZERO)]
#[case("2³⁄₁₆", System::Inches, Length::inches(35, 16))]
#[case("half a yard", System::Centimetres, Length::INCH * 18)]
#[case("a yard", System::Inches, Length::YARD)]
#[case("Three quarters of a metre", System::Inches, Length::CENTIMETRE * 75)]
#[case("one and a half yards", System::Inches, Length::INCH * 54)]
#[case("a yard and a half", System::Inches, Length::INCH * 54)]
#[case("2 and three-eighths inches", System::Inches, Length::inches(19, 8))]
#[case("1,5 m", System::Inches, Length::CENTIMETRE * 150)]
#[case("1 m 20", System::Inches, Length::CENTIMETRE * 120)]
#[case("1 yd 9", System::Centimetres, Length::INCH * 45)]
#[case("4'", System::Inches, Length::INCH * 48)]
#[case("5’ 6”", System::Centimetres, Length::INCH * 66)]
#[case("half a centimetre", System::Inches, Length::MILLIMETRE * 5)]
#[case("twenty-five", System::Centimetres, Length::CENTIMETRE * 25)]
#[case("twelve inches", System::Centimetres, Length::INCH * 12)]
#[case("9.125", System::Inches, Length::inches(73, 8))]
#[case("9,125", System::Inches, Length::inches(73, 8))]
fn what_people_type_is_read(#[case] text: &str, #[case] system: System, #[case] length: Length) {
    assert_eq!(parse_length(text, system), Ok(length));
}

#[rstest]
#[case("36, 18 1/2", &["36", "18 1/2"])]
#[case("1,5 m; 120,5", &["1,5 m", "120,5"])]
#[case("36 and 18", &["36", "18"])]
#[case("a yard and a half, 9", &["a yard and a half", "9"])]
#[case(" ; ,", &[])]
fn several_lengths_are_told_apart(#[case] text: &str, #[case] parts: &[&str]) {
    assert_eq!(split_lengths(text), parts);
}

#[rstest]
#[case("")]
#[case("  ")]
fn nothing_typed_is_said(#[case] text: &str) {
    assert_eq!(parse_length(text, System::Inches), Err(ParseLengthError::Empty));
}

#[rstest]
#[case("wide")]
#[case("18 1/")]
#[case("18 1/0")]
#[case("18 x 12")]
#[case("3 furlongs")]
#[case("1..5")]
#[case("12345678901234567890")]
#[case("half")]
#[case("a")]
#[case("half a half yard")]
#[case("a bit of a yard")]
#[case("18 12")]
#[case("1 in 2 yd")]
#[case("3 cm 4 in")]
#[case("1 yd 9 3")]
fn what_is_not_a_size_is_refused(#[case] text: &str) {
    assert!(matches!(parse_length(text, System::Inches), Err(ParseLengthError::Unreadable { .. })), "{text}");
}

#[test]
fn negative_and_absurd_sizes_have_their_own_sentence() {
    assert!(matches!(parse_length("-3", System::Inches), Err(ParseLengthError::Negative { .. })));
    assert!(matches!(parse_length("−3", System::Inches), Err(ParseLengthError::Negative { .. })));
    for typed in ["about 18", "ca. 18", "~18", "Nearly 18"] {
        assert!(matches!(parse_length(typed, System::Inches), Err(ParseLengthError::Inexact { .. })), "{typed}");
    }
    for typed in ["1,000 mm", "1.000 mm", "1,250 cm", "1,000"] {
        assert!(matches!(parse_length(typed, System::Inches), Err(ParseLengthError::Thousands { .. })), "{typed}");
    }
    assert!(matches!(parse_length("2001", System::Centimetres), Err(ParseLengthError::TooLong { .. })));
    assert!(parse_length("2000", System::Centimetres).is_ok());
    assert!(matches!(parse_length("999999999999 yd", System::Inches), Err(ParseLengthError::TooLong { .. })));
}

#[rstest]
#[case(Length::inches(37, 2), Ruler::Eighth, "18½", "eighteen and a half inches")]
#[case(Length::INCH, Ruler::Eighth, "1", "one inch")]
#[case(Length::inches(1, 2), Ruler::Eighth, "½", "half an inch")]
#[case(Length::inches(11, 8), Ruler::Eighth, "1⅜", "one and three eighths inches")]
#[case(Length::inches(35, 16), Ruler::Eighth, "2³⁄₁₆", "two and three sixteenths inches")]
#[case(Length::inches(-1, 8), Ruler::Eighth, "−⅛", "minus an eighth inch")]
#[case(Length::MILLIMETRE * 475, Ruler::Millimetre, "47.5", "forty-seven point five centimetres")]
#[case(Length::tenth_mm(2505), Ruler::Millimetre, "25.05", "twenty-five point zero five centimetres")]
#[case(Length::CENTIMETRE * 47, Ruler::Eighth, "about 18½", "about eighteen and a half inches")]
#[case(Length::INCH * 120, Ruler::Eighth, "120", "one hundred and twenty inches")]
fn lengths_are_shown_on_the_ruler(
    #[case] length: Length,
    #[case] ruler: Ruler,
    #[case] text: &str,
    #[case] words: &str,
) {
    let shown = ruler.show(length);
    assert_eq!((shown.text.as_str(), shown.words.as_str()), (text, words));
    assert_eq!(shown.exact, !text.starts_with("about"));
}

/// Common practice: 1/8 yd from 1/4 yd, 10 cm from 20 cm.
#[rstest]
#[case(System::Inches, Length::INCH * 23, "¾ yd")]
#[case(System::Inches, Length::INCH * 27, "¾ yd")]
#[case(System::Inches, Length::INCH * 27 + Length(1), "⅞ yd")]
#[case(System::Inches, Length::INCH, "¼ yd")]
#[case(System::Inches, Length::INCH * 47, "1⅜ yd")]
#[case(System::Centimetres, Length::CENTIMETRE * 61, "70 cm")]
#[case(System::Centimetres, Length::CENTIMETRE * 3, "20 cm")]
#[case(System::Centimetres, Length::CENTIMETRE * 119, "1.2 m")]
fn shops_cut_in_steps(#[case] system: System, #[case] needed: Length, #[case] bought: &str) {
    assert_eq!(show_bought(ShopStep::default_for(system).to_buy(needed), system), bought);
}

#[test]
fn prices_go_by_the_length() {
    let price = Price { amount: Money(1_360), per: Length::YARD };
    assert_eq!(price.of(Length::INCH * 27), Money(1_020));
    assert_eq!(price.of(Length::ZERO), Money(0));
    assert_eq!(Money(1_020).show(), "10.20");
    assert_eq!(Money(-5).show(), "−0.05");
}

proptest! {
    /// What is shown exactly is read back exactly, in words people can type.
    #[test]
    fn shown_lengths_read_back(n in 0_i64..50_000, metric in any::<bool>()) {
        let (length, ruler, system) = if metric {
            (Length::tenth_mm(n), Ruler::Millimetre, System::Centimetres)
        } else {
            (Length::inches(n % 40_000, 64), Ruler::Sixteenth, System::Inches)
        };
        let shown = ruler.show(length);
        prop_assert!(shown.exact);
        prop_assert_eq!(parse_length(&shown.text, system), Ok(length));
    }

    /// Rounding goes up, by less than a step.
    #[test]
    fn rounding_never_makes_smaller(units in 0_i64..10_000_000, ruler in 0..4_usize) {
        let ruler = [Ruler::Eighth, Ruler::Sixteenth, Ruler::Millimetre, Ruler::HalfCentimetre][ruler];
        let up = ruler.up(Length(units));
        prop_assert!(up >= Length(units) && up - Length(units) < ruler.step());
        prop_assert!(up.is_multiple_of(ruler.step()));
    }

    /// Buying before the wash always leaves at least what is needed after it, and no whole unit more.
    #[test]
    fn shrinking_leaves_enough(units in 1_i64..100_000_000, ppm in 0_u32..400_000) {
        let needed = Length(units);
        let bought = needed.before_shrinking(ppm);
        prop_assert!(bought.shrunk(ppm) >= needed);
        prop_assert!((bought - Length(1)).shrunk(ppm) < needed || ppm == 0);
    }

    #[test]
    fn a_step_is_never_short(units in 1_i64..100_000_000) {
        for system in [System::Inches, System::Centimetres] {
            let shop = ShopStep::default_for(system);
            let bought = shop.to_buy(Length(units));
            prop_assert!(bought >= Length(units) && bought >= shop.min);
            let one_less = bought - shop.step.unwrap_or(Length(1));
            prop_assert!(one_less < Length(units) || one_less < shop.min);
        }
    }

    /// Whatever is typed, reading it ends in a length within bounds or in a sentence.
    #[test]
    fn reading_never_fails_badly(text in "\\PC{0,24}") {
        match parse_length(&text, System::Inches) {
            Ok(length) => prop_assert!(length >= Length::ZERO && length <= bofta_core::measure::LONGEST),
            Err(error) => prop_assert!(!error.to_string().is_empty()),
        }
    }
}

/// The ways people write so many sixteenths of an inch.
fn written_inches(n: i64) -> Vec<String> {
    let (whole, part) = (n / 16, n % 16);
    let divisor = |a: i64, b: i64| {
        let (mut a, mut b) = (a, b);
        while b != 0 {
            (a, b) = (b, a % b);
        }
        a
    };
    let common = divisor(part, 16).max(1);
    let (over, under) = (part / common, 16 / common);
    let decimal = format!("{}", n as f64 / 16.0);
    let mut all = vec![
        format!("{decimal} in"),
        format!("{decimal}\""),
        format!("{decimal}in."),
        format!("{} inches", decimal),
        format!("{decimal} inch"),
        format!("  {decimal}   in "),
        format!("{decimal}”"),
        decimal.replace('.', ","),
    ];
    if part != 0 {
        let lead = |between: &str| if whole == 0 { String::new() } else { format!("{whole}{between}") };
        all.extend([
            format!("{}{over}/{under}", lead(" ")),
            format!("{}{over}/{under} in", lead("-")),
            format!("{}{over} / {under}\"", lead(" ")),
            format!("{}{over}⁄{under} in", lead(" ")),
        ]);
        let glyphs = [(1, 2, "½"), (1, 4, "¼"), (3, 4, "¾"), (1, 8, "⅛"), (3, 8, "⅜"), (5, 8, "⅝"), (7, 8, "⅞")];
        if let Some((.., glyph)) = glyphs.iter().find(|g| (g.0, g.1) == (over, under)) {
            all.extend([format!("{}{glyph}", lead("")), format!("{}{glyph} in", lead(" "))]);
        }
    }
    all
}

/// And so many millimetres.
fn written_millimetres(n: i64) -> Vec<String> {
    let cm = format!("{}", n as f64 / 10.0);
    vec![
        format!("{cm} cm"),
        format!("{cm}cm"),
        format!("{} cm", cm.replace('.', ",")),
        format!("{n} mm"),
        format!("{n}mm"),
        format!("{} m", n as f64 / 1000.0),
        format!("{} centimetres", cm),
        format!("{n} millimetres"),
    ]
}

proptest! {
    /// However it is written, it is the same length; a number with its unit in either system, one without in its own.
    #[test]
    fn a_length_is_read_however_it_is_written(n in 1_i64..1_500, millimetres in 1_i64..3_000) {
        for text in written_inches(n) {
            prop_assert_eq!(parse_length(&text, System::Inches), Ok(Length::inches(n, 16)), "{}", text);
            if text.trim_end().ends_with(['n', 's', 'h', '"', '”', '.']) {
                prop_assert_eq!(parse_length(&text, System::Centimetres), Ok(Length::inches(n, 16)), "{} in a metric field", text);
            }
        }
        for text in written_millimetres(millimetres) {
            let length = Length::MILLIMETRE * millimetres;
            for system in [System::Inches, System::Centimetres] {
                prop_assert_eq!(parse_length(&text, system), Ok(length), "{}", text);
            }
        }
    }

    /// Several in one field are the same ones again, whatever stands between them that is no decimal comma.
    #[test]
    fn several_lengths_come_back(all in prop::collection::vec(1_i64..900, 1..6), between in 0..3_usize) {
        let between = [", ", "; ", " and "][between];
        let typed: Vec<String> = all.iter().map(|n| format!("{} {}/8 in", n / 8, n % 8)).collect();
        let text = typed.join(between);
        let parts = split_lengths(&text);
        prop_assert_eq!(parts.len(), all.len(), "{}", text);
        for (part, n) in parts.iter().zip(&all) {
            prop_assert_eq!(parse_length(part, System::Centimetres), Ok(Length::inches(*n, 8)), "{}", part);
        }
    }
}

/// What stands in both systems is said in one; anything else stays.
#[rstest]
#[case(
    "A drop is tight: 5 to 6 in (13 to 15 cm) is usual.",
    "A drop is tight: 5 to 6 in is usual.",
    "A drop is tight: 13 to 15 cm is usual."
)]
#[case("sold 18 to 20 or 58 in (50 or 147 cm) wide", "sold 18 to 20 or 58 in wide", "sold 50 or 147 cm wide")]
#[case("zip box, ⅜ in (1 cm) tall", "zip box, ⅜ in tall", "zip box, 1 cm tall")]
#[case("3 in (7.5 cm) across, 9 in (23 cm) tall", "3 in across, 9 in tall", "7.5 cm across, 23 cm tall")]
#[case(
    "caught in (both) seams, 2 in (twice)",
    "caught in (both) seams, 2 in (twice)",
    "caught in (both) seams, 2 in (twice)"
)]
fn a_sentence_speaks_in_one_system(#[case] text: &str, #[case] inches: &str, #[case] centimetres: &str) {
    assert_eq!(bofta_core::measure::in_system(text, System::Inches), inches);
    assert_eq!(bofta_core::measure::in_system(text, System::Centimetres), centimetres);
}
