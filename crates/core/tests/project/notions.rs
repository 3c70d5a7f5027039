//! What is owned of notions: reading it, what would do for what, and the ledger as properties.
#![allow(missing_docs)]

use bofta_core::bag::{GoodKind, Hardware};
use bofta_core::lay::Random;
use bofta_core::ledger::Entries;
use bofta_core::measure::{Length, System};
use bofta_core::notions::{Amount, Entry, Fits, Kit, Ledger, Need, Notion, OfBag, Why};
use bofta_core::project::kept::{read_ledger, write_entry, write_notion};
use rstest::rstest;

fn inch(eighths: i64) -> Length {
    Length::inches(eighths, 8)
}

fn read(kind: &str, name: &str, size: &str) -> Notion {
    Notion::read(kind, name, size, "", System::Inches).unwrap_or_else(|p| panic!("{p:?}"))
}

fn bag(n: u64) -> OfBag {
    OfBag { project: format!("bag-{n}"), name: format!("Bag {n}") }
}

fn rings() -> Need {
    Need::Pieces { name: "D-ring".into(), size: Some(inch(8)) }
}

fn entry(why: Why, came: Amount, went: Amount) -> Entry {
    Entry { at: 0, why, came, went }
}

fn put_in(amount: Amount) -> Entry {
    entry(Why::PutIn, amount, Amount::default())
}

fn taken(n: u64, amount: Amount) -> Entry {
    entry(Why::Taken { bag: bag(n), need: rings() }, Amount::default(), amount)
}

fn all(ledger: Ledger, entries: impl IntoIterator<Item = Entry>) -> Ledger {
    entries.into_iter().fold(ledger, |l, e| l.with(e.clone()).unwrap_or_else(|p| panic!("{e:?}: {p:?}")))
}

/// 12 came in; 4 lie with one bag and are sewn in, 2 with another, of which 1 comes back; 3 are thrown away: 4 are there.
#[test]
fn an_account_of_rings() {
    let ledger = all(
        Ledger::new(read("piece", "D-rings", "1")),
        [
            put_in(Amount::pieces(12)),
            taken(1, Amount::pieces(4)),
            taken(2, Amount::pieces(2)),
            entry(Why::Used { bag: bag(1) }, Amount::default(), Amount::pieces(4)),
            entry(Why::PutBack { bag: bag(2) }, Amount::pieces(1), Amount::default()),
            entry(Why::ThrownAway, Amount::default(), Amount::pieces(3)),
        ],
    );
    assert_eq!(ledger.entries.there(), Amount::pieces(4));
    assert_eq!(ledger.entries.with_bag("bag-2"), Amount::pieces(1));
    assert!(ledger.entries.with_bag("bag-1").is_none());
    let totals = ledger.totals();
    assert_eq!((totals.came_in, totals.there, totals.with_bags, totals.used, totals.gone), (12, 4, 1, 4, 3));
    let told: Vec<String> = ledger.entries.iter().map(|e| ledger.tell(e)).collect();
    assert_eq!(told[1], "4 set aside for Bag 1");
    assert_eq!(told[3], "4 sewn into Bag 1");
    // No more than is there can go, and a mistake is taken back once.
    let more = ledger.with(taken(3, Amount::pieces(5))).expect_err("only four are there");
    assert!(more.message.contains("You have D-rings, 1 in: 4"), "{}", more.message);
    let back = |l: &Ledger, n| l.with(entry(Why::TakenBack { entry: n }, Amount::default(), Amount::default()));
    let again = back(&ledger, 6).expect("thrown away by mistake");
    assert_eq!(again.entries.there(), Amount::pieces(7));
    assert!(
        back(&again, 6).is_err() && back(&again, 7).is_err() && back(&again, 99).is_err() && back(&again, 0).is_err()
    );
    // What was put in is partly gone: that cannot be unsaid.
    assert!(back(&again, 1).expect_err("some are sewn in").message.contains("is gone"));
}

/// 60 in of webbing laid with a bag whole; 26 + 26 are cut and 8 come back as a length of their own.
#[test]
fn lengths_stay_lengths() {
    let webbing = read("webbing", "", "1");
    assert_eq!(webbing.label(), "Webbing, 1 in wide");
    let long = |n: i64| Amount::lengths(vec![inch(n * 8)]);
    let need = Need::Lengths { kind: GoodKind::Webbing, width: Some(inch(8)) };
    let ledger = all(
        Ledger::new(webbing.clone()),
        [
            put_in(webbing.read_amount("amount", "60, 14 in").expect("read")),
            entry(Why::Taken { bag: bag(1), need: need.clone() }, Amount::default(), long(60)),
        ],
    );
    let kit = Kit::of("bag-1", [&ledger]);
    assert_eq!(kit.lengths(GoodKind::Webbing, Some(inch(8))).collect::<Vec<_>>(), [inch(480)]);
    assert_eq!(kit.lengths(GoodKind::Webbing, Some(inch(12))).count() + kit.pieces().count(), 0);
    // A length that is not there is not cut from two that are.
    assert!(ledger.with(entry(Why::ThrownAway, Amount::default(), long(7))).is_err());
    let sewn = all(ledger, [entry(Why::Used { bag: bag(1) }, long(8), long(60))]);
    assert_eq!(sewn.entries.there(), Amount::lengths(vec![inch(64), inch(112)]));
    assert_eq!(sewn.totals().used, inch(52 * 8).0);
    assert_eq!(sewn.tell(sewn.entries.get(3).expect("sewn")), "60 in cut for Bag 1, 8 in left");
    let counted = sewn.corrected_to(&Amount::lengths(vec![inch(64), inch(96)]), 0).expect("shorter than thought");
    assert_eq!(counted.tell(counted.entries.get(4).expect("counted")), "counted: 12 in instead of 14 in");
    assert!(counted.corrected_to(&counted.entries.there(), 0).is_err(), "nothing changed");
}

/// A length is left of one that lay there, not of two together; and a ledger of a thousand entries is looked through once.
#[test]
fn what_is_left_is_no_longer_than_it_was() {
    let long = |all: &[i64]| Amount::lengths(all.iter().map(|n| inch(n * 8)).collect());
    let ledger = all(Ledger::new(read("cord", "", "")), [put_in(long(&[60, 14])), taken(1, long(&[60, 14]))]);
    let used = |left: &[i64]| ledger.with(entry(Why::Used { bag: bag(1) }, long(left), long(&[60, 14])));
    assert!(used(&[70]).expect_err("no length is so long").message.contains("70 in cannot be left of 60 in, 14 in"));
    assert!(used(&[50, 20]).is_err() && used(&[40, 20, 14]).is_ok() && used(&[60, 15]).is_err());
    let many = Entries::of(vec![put_in(Amount::pieces(1)); 1_000]);
    assert!(many.add_up());
    assert_eq!((many.can_be_taken_back().len(), many.taken_back().len()), (1_000, 0));
    // Sizes and numbers that only a damaged file has end in a word, not in a fault.
    let beyond = all(Ledger::new(read("piece", "Bead", "")), [put_in(Amount::pieces(u32::MAX))]);
    assert!(beyond.with(put_in(Amount::pieces(1))).is_err());
    let endless = Ledger { entries: Entries::of(vec![put_in(Amount::lengths(vec![Length(i64::MAX)]))]), ..ledger };
    assert!(!endless.entries.add_up());
}

/// What is told as “about” on an inch ruler is taken all the same: sent exactly, it is the length that is there.
#[test]
fn metric_lengths_of_an_inch_notion_are_taken() {
    let cord = read("cord", "", "");
    let came = cord.read_amount("amount", "10 m, 25 m, 5/8, 7 1/8").expect("read");
    assert!(came.tell(&cord).contains("about"), "{}", came.tell(&cord));
    assert_eq!(cord.read_amount("amount", &came.exactly(&cord)), Ok(came.clone()));
    let ledger = all(Ledger::new(cord.clone()), [put_in(came.clone())]);
    for length in came.lengths {
        let one = Amount::lengths(vec![length]);
        let sent = cord.read_amount("amount", &one.exactly(&cord)).expect("read");
        assert!(ledger.with(entry(Why::ThrownAway, Amount::default(), sent)).is_ok());
    }
    // A reel is longer than a bag's sizes may be, and not without end.
    assert!(cord.read_amount("amount", "150 m").is_ok());
    assert!(cord.read_amount("amount", "201 m").expect_err("a slip").message.contains("over 200 m"));
    assert!(Notion::read("webbing", "", "21 m", "", System::Inches).expect_err("a slip").message.contains("over 20 m"));
}

/// A closed zip may be longer, since it is shortened; a ring of another size holds no strap: common practice.
#[rstest]
#[case("Zip", "12", "Zip", "12", Some(0))]
#[case("Zip, for the pocket", "7", "Nylon zips", "9", Some(2))]
#[case("Zip", "12", "Zip", "10", None)]
#[case("Zip with two sliders", "12", "Zip", "14", None)]
#[case("Zip with two sliders", "12", "Zip with two sliders", "14", Some(2))]
#[case("D-ring", "1", "d-rings", "1", Some(0))]
#[case("D-ring", "1", "D-ring", "1 1/4", None)]
#[case("Magnetic snap", "", "magnetic snaps", "", Some(0))]
#[case("Magnetic snap", "", "Snap", "", None)]
#[case("Swivel hook", "1", "D-ring", "1", None)]
fn what_would_do(
    #[case] needed: &'static str,
    #[case] size: &str,
    #[case] owned: &str,
    #[case] owned_size: &str,
    #[case] longer: Option<i64>,
) {
    let want = read("piece", needed, size);
    let need = Need::of(&Hardware { name: needed.into(), count: 1, size: want.size, note: "".into() });
    let fits = longer.map(|n| if n == 0 { Fits::Just } else { Fits::Longer(inch(n * 8)) });
    assert_eq!(need.served_by(&read("piece", owned, owned_size)), fits);
}

#[rstest]
#[case("leaf", "D-ring", "1", "", "kind")]
#[case("piece", " ", "1", "", "name")]
#[case("piece", "D-ring", "wide", "", "size")]
#[case("piece", "D-ring", "-1", "", "size")]
#[case("webbing", "", "9 km", "", "size")]
#[case("piece", "D-ring", "1", "in the tin that stands behind the other tin on the shelf above the door", "place")]
fn what_cannot_be_read_is_named(
    #[case] kind: &str,
    #[case] name: &str,
    #[case] size: &str,
    #[case] place: &str,
    #[case] field: &str,
) {
    assert_eq!(Notion::read(kind, name, size, place, System::Inches).expect_err("refused").field, field);
}

#[rstest]
#[case("piece", "12", Some(12))]
#[case("piece", " 3 ", Some(3))]
#[case("piece", "0", None)]
#[case("piece", "-2", None)]
#[case("piece", "a dozen", None)]
#[case("piece", "10001", None)]
#[case("cord", "", None)]
#[case("cord", "60, 0", None)]
#[case("cord", "1 m, 20 in", Some(1))]
fn an_amount_is_read_or_refused(#[case] kind: &str, #[case] typed: &str, #[case] read_as: Option<u32>) {
    let notion = read(kind, "Thing", "");
    let amount = notion.read_amount("amount", typed);
    match read_as {
        None => assert_eq!(amount.expect_err("refused").field, "amount"),
        Some(n) if kind == "piece" => assert_eq!(amount, Ok(Amount::pieces(n))),
        Some(_) => assert_eq!(amount, Ok(Amount::lengths(vec![Length::METRE, inch(160)]))),
    }
}

/// Whatever comes and goes, and is taken back: what came in is what is there, lies with bags, is sewn in and is gone. What is
/// refused changes nothing, and no entry takes more than there is.
#[rstest]
fn nothing_is_lost(#[values(false, true)] lengths: bool) {
    let rounds = std::env::var("BOFTA_HISTORIES").ok().and_then(|n| n.parse().ok()).unwrap_or(300);
    let (mut kept, mut refused, mut undone) = (0, 0, 0);
    for seed in 0..rounds {
        let mut random = Random::new(seed);
        let kind = if lengths { "webbing" } else { "piece" };
        let mut ledger = Ledger::new(read(kind, "Thing", "1"));
        for _ in 0..40 {
            let some = |random: &mut Random| {
                if lengths {
                    let many = 1 + random.below(2);
                    Amount::lengths((0..many).map(|_| inch(8 * (1 + random.below(4) as i64))).collect())
                } else {
                    Amount::pieces(1 + random.below(5) as u32)
                }
            };
            let (n, amount) = (random.below(3) as u64, some(&mut random));
            let none = Amount::default;
            let next = match random.below(7) {
                0 | 1 => ledger.with(put_in(amount)),
                2 => ledger.with(taken(n, amount)),
                3 => ledger.with(entry(Why::PutBack { bag: bag(n) }, amount, none())),
                4 => ledger.with(entry(Why::Used { bag: bag(n) }, none(), ledger.entries.with_bag(&bag(n).project))),
                5 => ledger.corrected_to(&amount, 0),
                _ => {
                    let number = 1 + random.below(ledger.entries.len() + 1) as u32;
                    let back = ledger.with(entry(Why::TakenBack { entry: number }, none(), none()));
                    undone += usize::from(back.is_ok());
                    back
                }
            };
            match next {
                Ok(next) => {
                    ledger = next;
                    kept += 1;
                }
                Err(problem) => {
                    assert!(problem.field == "amount" && problem.message.ends_with('.'), "{problem:?}");
                    refused += 1;
                }
            }
            let t = ledger.totals();
            assert_eq!(t.came_in, t.there + t.with_bags + t.used + t.gone, "{ledger:?}");
            assert!([t.there, t.with_bags, t.used, t.gone].iter().all(|n| *n >= 0) && ledger.entries.add_up());
        }
        let entries: Vec<String> = ledger.entries.iter().map(|e| write_entry(e).expect("kept")).collect();
        let again = read_ledger(&write_notion(&ledger.notion).expect("kept"), &entries).expect("read");
        assert_eq!(again, ledger);
    }
    assert!(kept > rounds * 15 && refused > rounds && undone > rounds as usize, "{kept} {refused} {undone}");
}

/// A file that somebody changed so that more went than came is seen.
#[test]
fn entries_that_do_not_add_up_are_seen() {
    let ledger =
        Ledger { notion: read("piece", "D-ring", "1"), entries: Entries::of(vec![taken(1, Amount::pieces(2))]) };
    assert!(!ledger.entries.add_up() && ledger.entries.there().is_none());
    let entries: Vec<String> = ledger.entries.iter().map(|e| write_entry(e).expect("kept")).collect();
    let damaged = read_ledger(&write_notion(&ledger.notion).expect("kept"), &entries).expect_err("seen");
    assert!(damaged.to_string().contains("do not add up"), "{damaged}");
}
