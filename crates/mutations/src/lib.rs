//! Trying readers on what nobody meant to write: sound inputs with bits turned, parts cut out, doubled and moved, and
//! numbers made absurd. For tests only.
//!
//! [`try_all`] runs a reader on so many mutated inputs and fails when it panics or computes for longer than `LONGEST`.
//! `scripts/test` runs `CASES` of each; `scripts/fuzz` sets `BOFTA_CASES` to a million, and `BOFTA_CASE` tries and prints the
//! one case that a failure names.

use std::panic::{AssertUnwindSafe, catch_unwind};
use std::sync::OnceLock;
use std::time::{Duration, Instant};

/// Cases of each reader in an ordinary run.
const CASES: u64 = 5_000;
/// What one case may compute.
const LONGEST: Duration = Duration::from_secs(2);

/// A generator of its own, so that a case can be made again from its number (Steele, Lea and Flood 2014, SplitMix64).
pub struct Dice(u64);

impl Dice {
    /// The dice of case `number`.
    pub const fn new(number: u64) -> Self {
        Self(number.wrapping_mul(0x9E37_79B9_7F4A_7C15))
    }

    fn next(&mut self) -> u64 {
        self.0 = self.0.wrapping_add(0x9E37_79B9_7F4A_7C15);
        let mut z = self.0;
        z = (z ^ (z >> 30)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
        z = (z ^ (z >> 27)).wrapping_mul(0x94D0_49BB_1331_11EB);
        z ^ (z >> 31)
    }

    /// A number below `n`, or 0.
    pub fn below(&mut self, n: usize) -> usize {
        if n == 0 { 0 } else { (self.next() % n as u64) as usize }
    }
}

/// What numbers are replaced by.
const ABSURD: [&str; 16] = [
    "0",
    "-1",
    "1e308",
    "-1e308",
    "NaN",
    "1e-320",
    "9223372036854775807",
    "-9223372036854775808",
    "18446744073709551616",
    "4294967295",
    "0.0000001",
    "99999999999999999999999999",
    "1/0",
    "2147483648",
    "null",
    "\"\"",
];

/// `seed` with one to four changes.
pub fn mutated(seed: &[u8], dice: &mut Dice) -> Vec<u8> {
    let mut bytes = seed.to_vec();
    for _ in 0..1 + dice.below(4) {
        let at = dice.below(bytes.len());
        let most = 1 + dice.below(64);
        let long = 1 + dice.below(most);
        let end = (at + long).min(bytes.len());
        match dice.below(8) {
            0 if !bytes.is_empty() => bytes[at] ^= 1 << dice.below(8),
            1 if !bytes.is_empty() => bytes[at] = dice.below(256) as u8,
            2 => drop(bytes.drain(at..end)),
            3 => {
                let part = bytes[at..end].to_vec();
                let to = dice.below(bytes.len() + 1);
                bytes.splice(to..to, part);
            }
            4 => {
                let part = bytes[at..end].to_vec();
                let times = 1 + dice.below(60);
                bytes.splice(at..at, part.repeat(times));
            }
            5 => bytes.truncate(at),
            // A number somewhere, made absurd.
            _ => {
                let figure = |b: &u8| b.is_ascii_digit() || matches!(b, b'.' | b'-');
                if let Some(start) = bytes[at..].iter().position(figure).map(|i| at + i) {
                    let stop = bytes[start..].iter().position(|b| !figure(b)).map_or(bytes.len(), |i| start + i);
                    bytes.splice(start..stop, ABSURD[dice.below(ABSURD.len())].bytes());
                }
            }
        }
    }
    bytes
}

/// What this thread has computed so far: on a busy machine it may wait for long. Where the system does not tell, the time.
fn time_spent() -> Duration {
    static BEGUN: OnceLock<Instant> = OnceLock::new();
    let told = std::fs::read_to_string("/proc/thread-self/schedstat").ok();
    let computed = told.and_then(|t| t.split_whitespace().next()?.parse().ok().map(Duration::from_nanos));
    computed.unwrap_or_else(|| BEGUN.get_or_init(Instant::now).elapsed())
}

/// How many cases a run tries of each reader.
pub fn cases() -> u64 {
    number_in("BOFTA_CASES").unwrap_or(CASES)
}

fn number_in(variable: &str) -> Option<u64> {
    std::env::var(variable).ok()?.parse().ok()
}

/// Runs `read` on the `seeds` and on mutated ones, all in all [`cases`] of them divided by `share`.
///
/// # Panics
/// At the first input on which `read` panics or takes too long, telling its number and how it begins.
pub fn try_all(name: &str, seeds: &[Vec<u8>], share: u64, read: impl Fn(&[u8])) {
    let cases = (cases() / share).max(1);
    let mut slowest = Duration::ZERO;
    let one = number_in("BOFTA_CASE");
    let numbers = one.map_or(0..cases, |one| one..one.saturating_add(1));
    for number in numbers {
        let mut dice = Dice::new(number);
        let seed = &seeds[dice.below(seeds.len())];
        let input = if number < seeds.len() as u64 { seeds[number as usize].clone() } else { mutated(seed, &mut dice) };
        if one.is_some() {
            println!("{}", String::from_utf8_lossy(&input));
        }
        let begun = time_spent();
        let held = catch_unwind(AssertUnwindSafe(|| read(&input))).is_ok();
        let took = time_spent().saturating_sub(begun);
        slowest = slowest.max(took);
        let start = || String::from_utf8_lossy(&input[..input.len().min(2_000)]).into_owned();
        assert!(held, "{name}, case {number}: the reader panicked on: {}", start());
        assert!(took < LONGEST, "{name}, case {number}: took {took:?} for: {}", start());
    }
    println!("{name}: {cases} cases, slowest {:.0} ms", slowest.as_secs_f64() * 1e3);
}
