//! Measures in words, for those who hear the screen: "three and a half inches".

pub(super) const ONES: [&str; 20] = [
    "zero",
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "eleven",
    "twelve",
    "thirteen",
    "fourteen",
    "fifteen",
    "sixteen",
    "seventeen",
    "eighteen",
    "nineteen",
];
pub(super) const TENS: [&str; 10] =
    ["", "", "twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"];

/// A whole number below a thousand in words; figures beyond.
pub(super) fn whole(n: i64) -> String {
    match n {
        0..20 => ONES[n as usize].to_owned(),
        20..100 if n % 10 == 0 => TENS[(n / 10) as usize].to_owned(),
        20..100 => format!("{}-{}", TENS[(n / 10) as usize], ONES[(n % 10) as usize]),
        100..1000 if n % 100 == 0 => format!("{} hundred", ONES[(n / 100) as usize]),
        100..1000 => format!("{} hundred and {}", ONES[(n / 100) as usize], whole(n % 100)),
        _ => n.to_string(),
    }
}

/// A proper fraction with a ruler's denominator in words: "a half", "three quarters", "five eighths".
pub(super) fn fraction(over: i64, under: i64) -> String {
    let name = match under {
        2 => "half",
        4 => "quarter",
        8 => "eighth",
        16 => "sixteenth",
        32 => "thirty-second",
        _ => "sixty-fourth",
    };
    if over == 1 {
        let article = if under == 8 { "an" } else { "a" };
        format!("{article} {name}")
    } else {
        format!("{} {name}s", whole(over))
    }
}
