//! What stands beside a size, taken apart: how many of which pieces. `Body / Contrast: 9 x 10, 2 each` and `2 canvas and 2
//! ticking: 9 x 10` are two pieces of one size.

use super::tokens::{Kind, Token};
use super::words::{self, is_idle, part_of};
use bofta_core::piece::Part;
use std::ops::Range;

/// How a clause is joined to the one before.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Joint {
    /// By `and`, `&`, `+` or `/`: it names one more.
    And,
    /// By a comma: it may say more of the same.
    Beside,
    /// By a colon, a dash, a bracket or the size: what stands before it may name them all.
    Under,
}

/// Some words with the number that belongs to them.
#[derive(Clone, Debug)]
struct Clause {
    joint: Joint,
    /// Tokens of words that name something.
    words: Vec<usize>,
    /// The number, and where it stands.
    count: Option<(u32, Vec<usize>)>,
    /// It says something of pieces named before: `(2 with pocket)`.
    qualifies: bool,
}

/// One of several pieces of a size.
#[derive(Clone, Debug)]
pub(super) struct Named {
    /// Tokens of its name.
    pub words: Vec<usize>,
    pub count: u32,
}

/// Several pieces of one size.
#[derive(Clone, Debug)]
pub(super) enum Several {
    /// One row each. With a number as `doubt` it is not sure whether the counts are of each, or all together so many.
    Rows { each: Vec<Named>, doubt: Option<u32> },
    /// One row of so many, by these names; where it is not sure, how many else there may be.
    One { names: Vec<Vec<usize>>, count: u32, other: Option<u32> },
    /// One row, of which these tokens say something of a few.
    Some(Vec<usize>),
    /// The line names cloths of several parts, and may mean one piece.
    Parts(Vec<Part>),
}

/// Pairs of words that name two pieces of a bag, never one.
const OPPOSITES: [(&str, &str); 5] =
    [("left", "right"), ("front", "back"), ("top", "bottom"), ("upper", "lower"), ("near", "far")];

/// A line, and which of its tokens are read already.
pub(super) struct Words<'a> {
    pub text: &'a str,
    pub tokens: &'a [Token],
    pub used: &'a [bool],
}

/// What is named beside the size at `size`, in the tokens `within`; `said` is the count written at the size itself. Nothing
/// where one piece is named. The tokens of the counts come with it.
pub(super) fn several(
    line: &Words<'_>,
    within: Range<usize>,
    size: Range<usize>,
    said: Option<u32>,
) -> Option<(Several, Vec<usize>)> {
    let tokens = line.tokens;
    let (clauses, each) = clauses(line, within, size);
    let text = |clause: &Clause| -> Vec<&str> { clause.words.iter().filter_map(|&i| tokens[i].word()).collect() };
    let part = |clause: &Clause| part_of(&text(clause).join(" "));
    let named: Vec<&Clause> = clauses.iter().filter(|c| !c.words.is_empty()).collect();
    let alone = clauses.iter().filter(|c| c.words.is_empty()).filter_map(|c| c.count.as_ref().map(|(n, _)| *n));
    let common: Vec<u32> = said.into_iter().chain(alone).collect();
    if let Some(some) = named.iter().find(|c| c.qualifies && c.count.is_some()).filter(|_| named.len() > 1) {
        let counted = some.count.iter().flat_map(|(_, at)| at.clone());
        return Some((Several::Some(some.words.iter().copied().chain(counted).collect()), vec![]));
    }
    if named.len() < 2 {
        return None;
    }
    let parts: Vec<Part> = named.iter().filter_map(|c| part(c)).collect();
    let mut different: Vec<Part> = parts.clone();
    different.sort_by_key(|p| p.key());
    different.dedup();
    if common.len() > 1 {
        return (different.len() > 1).then_some((Several::Parts(different), vec![]));
    }
    let common = common.first().copied();
    let counts: Vec<usize> = clauses.iter().filter_map(|c| c.count.as_ref()).flat_map(|(_, at)| at.clone()).collect();
    let own: Vec<u32> = named.iter().filter_map(|c| c.count.as_ref().map(|(n, _)| *n)).collect();
    let rows = |count: &dyn Fn(&Clause) -> u32| {
        named.iter().map(|c| Named { words: c.words.clone(), count: count(c) }).collect::<Vec<_>>()
    };
    let names = || named.iter().map(|c| c.words.clone()).collect();
    let n = named.len() as u32;
    if own.len() == named.len() {
        let each = rows(&|c| c.count.as_ref().map_or(1, |(n, _)| *n));
        let total: u32 = own.iter().sum();
        // `cut 4 (2 outer, 2 lining)` says the sum, too.
        return Some((Several::Rows { each, doubt: common.filter(|all| *all != total) }, counts));
    }
    // `Pocket: 1 outer + 1 lining`, `pocket (lining and outer)`: the first names them all.
    let listed = own.len() == named.len() - 1 && named[0].count.is_none();
    let under = named[1].joint == Joint::Under && (listed || !names_a_cloth(part(named[0])));
    if named.len() > 2 && under && (listed || named[2].joint == Joint::And) {
        let of_each = |c: &Clause| c.count.as_ref().map(|(n, _)| *n).or(common.filter(|_| each)).unwrap_or(1);
        let label = &named[0].words;
        let rows = named[1..]
            .iter()
            .map(|c| Named { words: label.iter().chain(&c.words).copied().collect(), count: of_each(c) });
        let doubt = common.filter(|_| !each && !listed);
        return Some((Several::Rows { each: rows.collect(), doubt }, counts));
    }
    let joined = named[1..].iter().any(|c| c.joint == Joint::And);
    if !joined {
        let several = different.len() > 1 && parts.len() == named.len() && !each;
        return match (several, each) {
            (true, _) => Some((Several::Parts(parts), vec![])),
            (false, true) if different.len() == named.len() => {
                Some((Several::Rows { each: rows(&|_| common.unwrap_or(1)), doubt: None }, counts))
            }
            _ => None,
        };
    }
    // `interfacing for outer and lining`: what it is for is no piece.
    let serves = named[..named.len() - 1].iter().any(|c| {
        text(c)
            .iter()
            .skip(1)
            .any(|w| matches!(*w, "for" | "behind" | "under" | "inside" | "between" | "on" | "around"))
    });
    let leading = own.first().copied().filter(|_| own.len() == 1);
    let common = common.or(leading);
    let opposite = {
        let has = |clause: &Clause, word: &str| text(clause).contains(&word);
        let is = |(one, other): &(&str, &str)| {
            (has(named[0], one) && has(named[1], other)) || (has(named[0], other) && has(named[1], one))
        };
        named.len() == 2 && !serves && OPPOSITES.iter().any(is)
    };
    // Of parts that are not named one may be left over, which the heading says.
    let apart = !serves && different.len() + 1 >= named.len() && different.len() == parts.len() && !parts.is_empty();
    let read = match (opposite, apart, common, each) {
        (true, _, None, _) => Several::One { names: names(), count: n, other: None },
        (true, _, Some(all), false) if all == n => Several::One { names: names(), count: n, other: None },
        (_, false, Some(all), true) | (true, _, Some(all), true) => {
            Several::One { names: names(), count: all * n, other: None }
        }
        (_, true, Some(all), true) => Several::Rows { each: rows(&|_| all), doubt: None },
        (_, true, None, _) => Several::Rows { each: rows(&|_| 1), doubt: None },
        (false, true, Some(all), false) => Several::Rows { each: rows(&|_| all), doubt: Some(all) },
        (_, _, Some(all), false) => Several::One { names: names(), count: all, other: all.checked_mul(n) },
        (false, false, None, _) => Several::One { names: names(), count: n, other: Some(1) },
    };
    Some((read, counts))
}

/// Whether a word says which of two pieces it is.
pub(super) fn is_opposite(word: &str) -> bool {
    OPPOSITES.iter().any(|(one, other)| word == *one || word == *other)
}

/// Whether a part is named by the cloth a panel is cut from.
const fn names_a_cloth(part: Option<Part>) -> bool {
    matches!(part, Some(Part::Outer | Part::Lining | Part::Interfacing | Part::Backing | Part::Contrast))
}

/// The clauses beside the size, and whether the counts are said to be of each.
fn clauses(line: &Words<'_>, within: Range<usize>, size: Range<usize>) -> (Vec<Clause>, bool) {
    let Words { text, tokens, used } = *line;
    let mut found: Vec<Vec<Item>> = vec![vec![]];
    let mut joints = vec![Joint::Beside];
    let mut each = false;
    let mut part = |joint: Joint, found: &mut Vec<Vec<Item>>| {
        if found.last().is_some_and(Vec::is_empty) {
            let weaker = joints.last().is_none_or(|last| *last == Joint::Beside);
            if joint == Joint::And || (joint == Joint::Under && weaker) {
                joints.pop();
                joints.push(joint);
            }
        } else {
            found.push(vec![]);
            joints.push(joint);
        }
    };
    let mut at = within.start;
    while at < within.end {
        if size.contains(&at) {
            part(Joint::Under, &mut found);
            at = size.end;
            continue;
        }
        if used[at] {
            at += 1;
            continue;
        }
        match &tokens[at].kind {
            Kind::Word(word) => match word.as_str() {
                "and" | "plus" => part(Joint::And, &mut found),
                "each" | "apiece" => each = true,
                "with" | "without" | "has" | "have" | "gets" | "get" | "needs" => {
                    found.last_mut().into_iter().for_each(|last| last.push(Item::Qualifies(at)));
                }
                _ => {
                    let item = match (count_at(tokens, at), is_idle(word)) {
                        (Some((n, to)), _) => Some(Item::Count(n, (at..to).collect())),
                        (None, true) => None,
                        (None, false) => Some(Item::Word(at)),
                    };
                    if let (Some(item), Some(last)) = (item, found.last_mut()) {
                        at = item.end() - 1;
                        last.push(item);
                    }
                }
            },
            Kind::Number { .. } => {
                if let (Some((n, to)), Some(last)) = (count_at(tokens, at), found.last_mut()) {
                    last.push(Item::Count(n, (at..to).collect()));
                    at = to - 1;
                }
            }
            Kind::Comma if &text[tokens[at].from..tokens[at].to] == "+" => part(Joint::And, &mut found),
            Kind::Comma => part(Joint::Beside, &mut found),
            Kind::Dash | Kind::Colon | Kind::Open | Kind::Close => part(Joint::Under, &mut found),
            Kind::Other => part(Joint::And, &mut found),
            Kind::Times | Kind::At => {}
        }
        at += 1;
    }
    let clauses = found.into_iter().zip(joints).flat_map(|(items, joint)| apart(items, joint)).collect();
    (clauses, each)
}

enum Item {
    Word(usize),
    Count(u32, Vec<usize>),
    Qualifies(usize),
}

impl Item {
    /// The token after it.
    fn end(&self) -> usize {
        match self {
            Self::Word(at) | Self::Qualifies(at) => at + 1,
            Self::Count(_, at) => at.last().map_or(0, |last| last + 1),
        }
    }
}

/// A count at `at` and the token after it: `2`, `two`, `two pairs`, `a dozen`, `a couple`.
fn count_at(tokens: &[Token], at: usize) -> Option<(u32, usize)> {
    let word = |i: usize| tokens.get(i).and_then(Token::word);
    let many = |word: &str| match word {
        "pair" | "pairs" | "couple" => Some(2),
        "dozen" => Some(12),
        _ => None,
    };
    if let Some(n) = word(at).and_then(many) {
        return Some((n, at + 1));
    }
    let n = match &tokens[at].kind {
        Kind::Number { figures, unit: None } => figures.parse().ok().filter(|n| *n > 0)?,
        Kind::Word(word) => words::count(word)?,
        _ => return None,
    };
    match word(at + 1).and_then(many) {
        Some(times) => Some((n.checked_mul(times)?, at + 2)),
        None => Some((n, at + 1)),
    }
}

/// A clause with several counts is several clauses: `outer 2 lining 2`, `2 outer 2 lining`.
fn apart(items: Vec<Item>, joint: Joint) -> Vec<Clause> {
    let is_count = |item: &Item| matches!(item, Item::Count(..));
    let counts = items.iter().filter(|i| is_count(i)).count();
    let leads = items.first().is_some_and(is_count);
    let trails = items.last().is_some_and(is_count);
    let mut clauses: Vec<Clause> = Vec::new();
    let empty = |joint: Joint| Clause { joint, words: vec![], count: None, qualifies: false };
    let mut ended = true;
    for item in items {
        let begins = counts > 1 && (leads && is_count(&item) || !leads && trails && ended);
        if clauses.is_empty() || begins {
            clauses.push(empty(if clauses.is_empty() { joint } else { Joint::And }));
        }
        ended = is_count(&item);
        let Some(last) = clauses.last_mut() else { continue };
        match item {
            Item::Word(at) => last.words.push(at),
            Item::Count(n, at) if last.count.is_none() => last.count = Some((n, at)),
            Item::Count(..) => {}
            Item::Qualifies(_) => last.qualifies = true,
        }
    }
    clauses
}
