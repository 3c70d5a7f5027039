//! One line of a list: its sizes, how many of each, what they are called. What can be read in two ways is asked, and
//! nothing in it is left out without a word.

use super::beside::{Named, Several, Words, is_opposite, several};
use super::doubt::{doubts, range};
use super::tokens::{Kind, Token, tokens};
use super::words::{self, Shape, bought, is_idle, part_of};
use bofta_core::bag::{Bought, Row, RowShape};
use bofta_core::measure::{Length, System, parse_length};
use bofta_core::name::{self, MOST_LETTERS};
use bofta_core::piece::Part;
use std::ops::Range;

/// What a line was read as.
#[derive(Clone, Debug, Default)]
pub(super) struct Line {
    pub rows: Vec<RowRead>,
    /// What it names that is bought.
    pub bought: Option<Bought>,
    /// Why it, or a part of it, is no row.
    pub unread: Option<String>,
    /// What of it is taken for a remark, as sentences.
    pub notes: Vec<String>,
}

/// A row and what is asked about it.
#[derive(Clone, Debug)]
pub(super) struct RowRead {
    pub row: Row,
    /// It said which side is which.
    pub labelled: bool,
    /// It said how many.
    pub counted: bool,
    /// What it was not sure of, as a question.
    pub asks: Option<String>,
    /// Other ways to read it.
    pub others: Vec<Row>,
}

/// One measure: a number with its unit, or the width of the cloth.
#[derive(Clone, Copy, Debug)]
struct Measure {
    /// The first and the last of its tokens.
    from: usize,
    to: usize,
    whole: bool,
    side: Option<Side>,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Side {
    Across,
    Up,
    Deep,
    Long,
}

fn side_word(word: &str) -> Option<Side> {
    Some(match word {
        "wide" | "width" | "w" => Side::Across,
        "tall" | "high" | "height" | "h" => Side::Up,
        "deep" | "depth" | "d" => Side::Deep,
        "long" | "length" | "l" => Side::Long,
        _ => return None,
    })
}

/// Measures with × between them.
#[derive(Clone, Debug)]
struct Chain {
    measures: Vec<Measure>,
    /// The count written before it, as `4x`.
    count: Option<u32>,
    /// It could be a size of three sides, or a count and a size.
    three: bool,
    /// What is cut out of its corners.
    corners: Option<(Measure, Measure)>,
}

impl Chain {
    fn from(&self) -> usize {
        self.measures[0].from
    }

    fn to(&self) -> usize {
        self.measures[self.measures.len() - 1].to
    }
}

struct Reader<'a> {
    text: &'a str,
    tokens: Vec<Token>,
    system: System,
    used: Vec<bool>,
}

/// The number a line begins with, as it is written before the lines of a numbered list, and the sign after it.
pub(super) fn item_number(text: &str) -> Option<(u32, char)> {
    let text = text.trim_start();
    let end = text.find(|c: char| !c.is_ascii_digit()).filter(|end| (1..3).contains(end))?;
    let sign = text[end..].chars().next().filter(|c| matches!(c, '.' | ')' | ':'))?;
    text[end + 1..].starts_with(' ').then_some(())?;
    Some((text[..end].parse().ok()?, sign))
}

/// Reads one line; a number without a unit is in `system`'s, a piece whose part is not named belongs to `heading`. In a list
/// that is `numbered` the number a line begins with is no count.
pub(super) fn read(text: &str, heading: Option<Part>, numbered: bool, system: System) -> Line {
    let number = item_number(text).filter(|(n, _)| *n > 0);
    let bare = match number {
        Some(_) => text.trim_start().trim_start_matches(|c: char| c.is_ascii_digit())[1..].trim_start(),
        None => lettered(text),
    };
    let mut line = reader(bare, system).line(heading);
    // Before a full stop it numbers the line; before a bracket or a colon it may count, where nothing else does.
    let asked = number.filter(|(n, sign)| !numbered && *sign != '.' && *n > 1);
    if let (Some((n, _)), [only]) = (asked, &mut line.rows[..])
        && only.row.count == 1
        && !only.counted
    {
        let ask = format!("Is {n} the number of the line, or are there {n} of them?");
        only.asks = Some(only.asks.take().map_or(ask.clone(), |other| format!("{ask} {other}")));
        only.others.push(Row { count: n, ..only.row.clone() });
    }
    line
}

/// The line without the letter before it: `A) Front`, `b. Back`.
fn lettered(text: &str) -> &str {
    let mut signs = text.trim_start().chars();
    match (signs.next(), signs.next(), signs.next()) {
        (Some(letter), Some(')' | '.'), Some(' ')) if letter.is_ascii_alphabetic() => signs.as_str(),
        _ => text,
    }
}

impl Reader<'_> {
    fn line(mut self, heading: Option<Part>) -> Line {
        let chains = self.chains();
        let words: Vec<&str> = self.tokens.iter().filter_map(Token::word).collect();
        if let Some(what) = bought(&words).map(str::to_owned) {
            self.label_numbers(&(usize::MAX..usize::MAX), 0, self.tokens.len());
            return match self.bought(&what) {
                Ok(bought) => Line { bought: Some(bought), ..Line::default() },
                Err(why) => Line { unread: Some(why), ..Line::default() },
            };
        }
        let chains: Vec<Chain> = chains.into_iter().filter(|c| c.measures.len() > 1).collect();
        let (chains, notes) = self.without_remarks(chains);
        let chains = if chains.is_empty() { self.both_sides().into_iter().collect() } else { chains };
        if chains.is_empty() {
            return self.single(heading);
        }
        if let Some(long) = chains.iter().find(|c| c.measures.len() > 3) {
            let why = format!("there are {} sizes in a row. Write the count, then width × height", long.measures.len());
            return Line { unread: Some(why), ..Line::default() };
        }
        // Every size of the line is a row; what stands between two belongs to the second, from the last `and` or comma on.
        let mut parts = Vec::new();
        let mut from = 0;
        for (i, chain) in chains.iter().enumerate() {
            let (first, last) = (chains[0].from(), chains[chains.len() - 1].to() + 1);
            let to = chains
                .get(i + 1)
                .map_or(self.tokens.len(), |next| self.parting((chain.to() + 1, next.from()), first, last));
            parts.push((from, to));
            from = to;
        }
        let label = self.label(chains[0].from());
        let mut line = Line { notes, ..Line::default() };
        for (i, (chain, (from, to))) in chains.iter().zip(parts).enumerate() {
            match self.rows(chain, from, to, (i > 0).then_some(&label[..]), heading) {
                Ok(read) => line.rows.extend(read),
                Err(why) => line.unread = Some(why),
            }
        }
        // `9 x 11 or 10 x 12` is one piece, and so is `229 x 292 mm (10 x 11 in)`, whichever is right.
        if let ([one, two], [first, second]) = (&mut line.rows[..], &chains[..])
            && let or = (first.to() + 1..second.from()).any(|i| self.tokens[i].word() == Some("or"))
            && (or || self.is_in_other_units(first, second))
        {
            let mut other = two.row.clone();
            (other.name, other.part, other.count) = (one.row.name.clone(), one.row.part, one.row.count);
            let ask = if or {
                "The line says “or”. Which of the two do you want?"
            } else {
                "The size in brackets is another one. Which is right?"
            };
            one.asks = Some(ask.into());
            one.others = vec![other];
            line.rows.truncate(1);
        }
        line
    }

    /// Sizes that say what a piece becomes, `(folded to 6 x 10)`, or say the same in other units, `(23 x 28 cm)`, are no
    /// pieces: what is left, and a sentence for each of them.
    fn without_remarks(&mut self, chains: Vec<Chain>) -> (Vec<Chain>, Vec<String>) {
        const BECOMES: [&str; 15] = [
            "finished", "finishes", "finish", "folded", "folds", "fold", "trimmed", "trim", "trims", "becomes",
            "makes", "sewn", "measures", "before", "after",
        ];
        let mut kept: Vec<Chain> = Vec::new();
        let mut notes = Vec::new();
        let is_cut = |tokens: &[Token], mut range: Range<usize>| range.any(|i| tokens[i].word() == Some("cut"));
        let becomes = |tokens: &[Token], range: Range<usize>| {
            range.filter(|&i| tokens[i].word().is_some_and(|w| BECOMES.contains(&w))).collect::<Vec<usize>>()
        };
        let several = chains.len() > 1;
        let corner = |range: Range<usize>| {
            range.into_iter().any(|i| {
                self.tokens.get(i).and_then(Token::word).is_some_and(|w| {
                    matches!(
                        w,
                        "corner" | "corners" | "notch" | "notches" | "notched" | "cutout" | "cutouts" | "cut-outs"
                    )
                })
            })
        };
        let corners: Vec<bool> = (0..chains.len())
            .map(|n| {
                let gap = n.checked_sub(1).map_or(0, |before| chains[before].to() + 1)..chains[n].from();
                let after = chains[n].to() + 1
                    ..chains.get(n + 1).map_or(self.tokens.len(), Chain::from).min(chains[n].to() + 4);
                corner(gap) || corner(after)
            })
            .collect();
        for (n, chain) in chains.iter().enumerate() {
            let gap = n.checked_sub(1).map_or(0, |before| chains[before].to() + 1)..chain.from();
            let words = becomes(&self.tokens, gap.clone());
            // The first says so only where another one is said to be cut.
            let other_is_cut = chains[n + 1..].iter().any(|other| is_cut(&self.tokens, chain.to() + 1..other.from()));
            let remark = match kept.last() {
                Some(_) => !words.is_empty() && !is_cut(&self.tokens, gap.clone()),
                None => several && !words.is_empty() && other_is_cut,
            };
            if let Some(before) = kept.last_mut().filter(|_| corners[n] && chain.measures.len() == 2) {
                let end = (chain.to() + 4).min(self.tokens.len());
                let gap_words = gap.clone().filter(|&i| {
                    self.tokens[i].word().is_some_and(|w| {
                        matches!(w, "cut" | "out" | "with" | "notch" | "notched" | "corner" | "corners")
                    })
                });
                let after = (chain.to() + 1..end).take_while(|&i| self.tokens[i].word().is_some());
                let read: Vec<usize> = gap_words.chain(chain.from()..=chain.to()).chain(after).collect();
                read.into_iter().for_each(|i| self.used[i] = true);
                before.corners = Some((chain.measures[0], chain.measures[1]));
                continue;
            }
            let same = kept.last().is_some_and(|before| self.says_the_same(before, chain));
            if !remark && !same {
                kept.push(chain.clone());
                continue;
            }
            let from = words.first().copied().filter(|_| remark).unwrap_or(chain.from());
            (from..=chain.to()).for_each(|i| self.used[i] = true);
            let end = self.tokens[chain.to()].to;
            let said = self.text[self.tokens[from].from..end].trim();
            notes.push(if remark {
                format!("“{said}” says what the piece becomes. It is not another piece.")
            } else {
                format!("“{said}” says the same size again.")
            });
        }
        (kept, notes)
    }

    /// Whether `other` stands in brackets and in another unit than `one`.
    fn is_in_other_units(&self, one: &Chain, other: &Chain) -> bool {
        let bracket = other.from().checked_sub(1).is_some_and(|i| self.tokens[i].kind == Kind::Open);
        let unit = |chain: &Chain| chain.measures.iter().find_map(|m| self.number(m.from).and_then(|(_, unit)| unit));
        bracket && unit(other).is_some() && unit(one) != unit(other)
    }

    /// Whether a size in brackets is the one before in other units; patterns round them, by up to a thirtieth.
    fn says_the_same(&self, one: &Chain, other: &Chain) -> bool {
        let size = |chain: &Chain| -> Option<Vec<Length>> {
            let last = chain.measures.last();
            chain.measures.iter().map(|m| self.length(m, last).ok()).collect()
        };
        let (Some(a), Some(b)) = (size(one), size(other)) else { return false };
        self.is_in_other_units(one, other) && a.len() == b.len() && a.iter().zip(&b).all(|(a, b)| is_about(*a, *b))
    }

    /// What the line says of `what`, which is bought: how many, how long or large, how wide. A number that could be a count
    /// or a size is not guessed.
    fn bought(&self, what: &str) -> Result<Bought, String> {
        let kind = words::sold_by_the_length(what);
        let unsure = || match kind {
            Some(_) => format!(
                "“{what}” is bought: say how many, how wide and how long, such as “2 {what}, 1 in wide, 24 in long”, or name the piece of cloth it goes into"
            ),
            None => format!(
                "“{what}” is bought: say how many, and its size with a unit, as in “2 {what}, 1 in”, or name the piece of cloth it goes into"
            ),
        };
        let named = (0..self.tokens.len()).find(|&i| self.tokens[i].word() == Some(what)).unwrap_or(0);
        let mut measures: Vec<Measure> =
            (0..self.tokens.len()).filter(|i| !self.used[*i]).filter_map(|i| self.measure_at(i)).collect();
        if measures.iter().any(|m| m.whole) {
            return Err(unsure());
        }
        // Before another word `in` is not read as a unit, since `4 in lining` is four; of what is bought it is one.
        let inches = |m: &Measure| self.tokens.get(m.to + 1).and_then(Token::word) == Some("in");
        let plain = |m: &Measure| self.plain_count(m).filter(|_| m.side.is_none() && !inches(m));
        let length = |m: &Measure, other: Option<&Measure>| match self.number(m.from) {
            Some((figures, None)) if inches(m) => {
                parse_length(&format!("{figures} in"), self.system).map_err(|e| e.to_string())
            }
            _ => self.length(m, other),
        };
        let times = self.tokens.iter().filter(|t| t.kind == Kind::Times).count();
        // A number before all else counts: `2 D-rings 1 in`, `2 webbing 1 x 24`. A word counts too: `two cords`.
        let more = measures.len() > 1 || kind.is_none();
        let leading = measures.first().and_then(plain).filter(|_| more && measures[0].from < named);
        let counted = leading.filter(|_| !self.tokens.get(measures[0].to + 1).is_some_and(|t| t.kind == Kind::Times));
        let spoken = (0..named).find_map(|i| self.tokens[i].word().and_then(words::count));
        if counted.is_some() {
            measures.remove(0);
        }
        let (size, width) = match &measures[..] {
            // `7 zip` may be seven of them or one of 7 in.
            [] if matches!(what, "zip" | "zipper") && counted.is_some_and(|n| n > 1) => return Err(unsure()),
            [] if kind.is_none() => (None, None),
            [one] if times == 0 && plain(one).is_none() => (Some(length(one, None)?), None),
            [one] if times == 0 && counted.or(spoken).is_some() => (Some(length(one, None)?), None),
            [a, b] if kind.is_some() && Self::is_size(a, b, times, plain(a).is_none() || counted.is_some()) => {
                let (one, other) = (length(a, Some(b))?, length(b, Some(a))?);
                let across = |m: &Measure| m.side == Some(Side::Across);
                match (across(a), across(b)) {
                    (true, false) => (Some(other), Some(one)),
                    (false, true) => (Some(one), Some(other)),
                    _ => (Some(one.max(other)), Some(one.min(other))),
                }
            }
            _ => return Err(unsure()),
        };
        let said: Vec<&str> = self
            .tokens
            .iter()
            .filter_map(Token::word)
            .filter(|w| !is_idle(w) && words::count(w).is_none() && side_word(w).is_none())
            .collect();
        let name: String = said.join(" ").chars().take(MOST_LETTERS).collect();
        let mut letters = name.chars();
        let name = letters.next().map(|c| c.to_uppercase().chain(letters).collect()).unwrap_or_default();
        Ok(Bought { name, count: counted.or(spoken).unwrap_or(1), kind, size, width })
    }

    /// Two measures that are a width and a length: with one sign between them and no doubt that the first is a measure, or
    /// both saying which they are.
    fn is_size(a: &Measure, b: &Measure, times: usize, is_measure: bool) -> bool {
        (times == 1 && is_measure) || (a.side.is_some() && b.side.is_some())
    }

    /// A size whose sides stand apart, each saying which it is: `5 in wide, 12 in tall`.
    fn both_sides(&self) -> Option<Chain> {
        let all: Vec<Measure> = (0..self.tokens.len()).filter_map(|i| self.measure_at(i)).collect();
        let with = |sides: &[Side]| {
            let mut found = all.iter().filter(|m| m.side.is_some_and(|s| sides.contains(&s)));
            found.next().copied().filter(|_| found.next().is_none())
        };
        let (across, up) = (with(&[Side::Across])?, with(&[Side::Up, Side::Long])?);
        let measures = if across.from < up.from { vec![across, up] } else { vec![up, across] };
        Some(Chain { measures, count: None, three: false, corners: None })
    }

    /// Where the words of the next size begin: at a semicolon, else at an `and`, else at the last comma, else right after
    /// the size before.
    fn parting(&self, (from, to): (usize, usize), first: usize, last: usize) -> usize {
        let sign = |i: usize| &self.text[self.tokens[i].from..self.tokens[i].to];
        // Where sizes stand before their names, the words after a size are its own: `9 x 11 (outer) 9 x 10 (lining)`.
        let word = |i: usize| self.tokens[i].word().is_some_and(|w| !is_idle(w) && words::count(w).is_none());
        let trails = !(0..first).any(word) && (last..self.tokens.len()).any(word);
        let semicolon = (from..to).find(|&i| sign(i) == ";");
        let and = || (from..to).find(|&i| matches!(sign(i).to_lowercase().as_str(), "and" | "plus" | "&" | "+" | "/"));
        let comma = || (from..to).rfind(|&i| self.tokens[i].kind == Kind::Comma);
        semicolon.or_else(and).or_else(comma).unwrap_or(if trails { to } else { from })
    }

    /// The words before a colon, or before the first size.
    fn label(&self, before: usize) -> String {
        let end = (0..before).find(|&i| self.tokens[i].kind == Kind::Colon).unwrap_or(before);
        let words: Vec<&str> = self.tokens[..end]
            .iter()
            .filter_map(Token::word)
            .filter(|w| !is_idle(w) && words::count(w).is_none())
            .collect();
        words.join(" ")
    }

    fn number(&self, at: usize) -> Option<(&str, Option<&'static str>)> {
        match &self.tokens.get(at)?.kind {
            Kind::Number { figures, unit } => Some((figures, *unit)),
            _ => None,
        }
    }

    /// A whole number without a unit.
    fn count_at(&self, at: usize) -> Option<u32> {
        match self.number(at) {
            Some((figures, None)) => figures.parse().ok().filter(|n| *n > 0),
            Some(_) => None,
            None => self.tokens.get(at)?.word().and_then(words::count),
        }
    }

    fn measure_at(&self, at: usize) -> Option<Measure> {
        let word = |i: usize| self.tokens.get(i).and_then(Token::word);
        let mut to = at;
        let whole = match word(at) {
            Some("wof") => true,
            Some("width") if word(at + 1) == Some("of") => {
                to = (at + 2..at + 4).find(|&i| matches!(word(i), Some("fabric" | "cloth" | "material")))?;
                true
            }
            _ => false,
        };
        if !whole && self.number(at).is_none() {
            return None;
        }
        let mut side = None;
        let bracket = usize::from(self.tokens.get(to + 1).is_some_and(|t| t.kind == Kind::Open));
        if let Some(found) = word(to + 1 + bracket).and_then(side_word) {
            let closed = self.tokens.get(to + 3).is_some_and(|t| t.kind == Kind::Close);
            if bracket == 0 || closed {
                side = Some(found);
                to += 1 + 2 * bracket;
            }
        }
        // `23 cm (9")`: the same in another unit.
        let kind = |i: usize| self.tokens.get(i).map(|t| &t.kind);
        if !whole
            && (kind(to + 1), kind(to + 3)) == (Some(&Kind::Open), Some(&Kind::Close))
            && self.number(to + 2).is_some_and(|(_, unit)| unit.is_some())
        {
            let plain = |i: usize| self.length(&Measure { from: i, to: i, whole: false, side: None }, None);
            if let (Ok(one), Ok(other)) = (plain(at), plain(to + 2))
                && is_about(one, other)
            {
                to += 3;
            }
        }
        Some(Measure { from: at, to, whole, side })
    }

    /// A size whose sides are lettered before their numbers: `W9 x H11`, `width 9, height 11`.
    fn lettered_sides(&self) -> Vec<Measure> {
        let side_at = |i: usize| -> Option<Measure> {
            let side = self.tokens[i].word().and_then(side_word)?;
            let colon = usize::from(self.tokens.get(i + 1).is_some_and(|t| t.kind == Kind::Colon));
            let at = i + 1 + colon;
            self.number(at)?;
            Some(Measure { from: at, to: at, whole: false, side: Some(side) })
        };
        let sides: Vec<Measure> = (0..self.tokens.len()).filter_map(side_at).collect();
        let [one, two] = sides[..] else { return vec![] };
        let is_size = matches!(
            (one.side, two.side),
            (Some(Side::Across), Some(Side::Up | Side::Long)) | (Some(Side::Up | Side::Long), Some(Side::Across))
        );
        if is_size { sides } else { vec![] }
    }

    fn chains(&mut self) -> Vec<Chain> {
        let measures = self.lettered_sides();
        if !measures.is_empty() {
            for m in &measures {
                let colon = usize::from(self.tokens[m.from - 1].kind == Kind::Colon);
                self.used[m.from - 1 - colon] = true;
            }
            return vec![Chain { measures, count: None, three: false, corners: None }];
        }
        let mut chains: Vec<Chain> = Vec::new();
        let mut at = 0;
        while at < self.tokens.len() {
            let Some(first) = self.measure_at(at) else {
                at += 1;
                continue;
            };
            let mut measures = vec![first];
            let mut end = first.to;
            while self.tokens.get(end + 1).is_some_and(|t| t.kind == Kind::Times)
                && let Some(next) = self.measure_at(end + 2)
            {
                end = next.to;
                measures.push(next);
            }
            let mut chain = Chain { measures, count: None, three: false, corners: None };
            if chain.measures.len() == 3 {
                chain.three = true;
                let (last, signs) = (chain.measures[2], [first.to + 1, chain.measures[1].to + 1]);
                // `4x 9 x 12`: close to the count, apart from the size; `9 x 12 x4` the other way round.
                let tight = |sign: usize| {
                    let (before, t, after) = (&self.tokens[sign - 1], &self.tokens[sign], &self.tokens[sign + 1]);
                    (t.from == before.to, t.to == after.from)
                };
                let leads = tight(signs[0]) == (true, false) && tight(signs[1]) != (true, false);
                let ends = tight(signs[1]) == (false, true) && tight(signs[0]) != (false, true);
                let (front, back) =
                    (self.plain_count(&first).filter(|_| leads), self.plain_count(&last).filter(|_| ends));
                let kept = match (front, back) {
                    (Some(_), None) => Some((front, 1..3, [first.from, signs[0]])),
                    (None, Some(_)) => Some((back, 0..2, [last.from, signs[1]])),
                    _ => None,
                };
                if let Some((count, sizes, used)) = kept {
                    used.into_iter().for_each(|i| self.used[i] = true);
                    chain = Chain { measures: chain.measures[sizes].to_vec(), count, three: false, corners: None };
                }
            }
            at = end + 1;
            chains.push(chain);
        }
        chains
    }

    fn length(&self, measure: &Measure, other: Option<&Measure>) -> Result<Length, String> {
        // `2 x 4'` is 2 inches by 4 feet: a unit for long lengths is not lent.
        let unit_of = |m: &Measure| self.number(m.from).and_then(|(_, unit)| unit).filter(|unit| !is_long(unit));
        let (figures, unit) = self.number(measure.from).ok_or("a size is missing")?;
        let unit = unit.or_else(|| other.and_then(unit_of)).unwrap_or("");
        let typed = format!("{figures} {unit}");
        match parse_length(&typed, self.system) {
            Ok(length) if length > Length::ZERO => Ok(length),
            Ok(_) => Err(format!("“{}” is not a size. A piece is larger than 0", typed.trim())),
            Err(e) => Err(e.to_string()),
        }
    }

    /// The rows of one size, from what stands beside it: one, unless several pieces are named.
    fn rows(
        &mut self,
        chain: &Chain,
        from: usize,
        to: usize,
        label: Option<&str>,
        heading: Option<Part>,
    ) -> Result<Vec<RowRead>, String> {
        let mut asks: Vec<String> = Vec::new();
        let mut others: Vec<Row> = Vec::new();
        let mut chain = chain.clone();
        let all = chain.three.then(|| chain.measures.clone());
        let mut is_sure = true;
        if chain.three {
            (chain, is_sure) = self.of_three(&chain);
        }
        let (one, two) = (chain.measures[0], chain.measures[1]);
        let swapped = one.side == Some(Side::Up)
            || (one.side == Some(Side::Long) && two.side == Some(Side::Across))
            || two.side == Some(Side::Across)
            || (two.whole && !one.whole);
        let (across, up) = if swapped { (two, one) } else { (one, two) };
        if up.whole {
            return Err("the width of the cloth is given twice. How long is the piece?".into());
        }
        let height = self.length(&up, Some(&across))?;
        let width = if across.whole { None } else { Some(self.length(&across, Some(&up))?) };
        for m in &chain.measures {
            (m.from..=m.to).for_each(|i| self.used[i] = true);
        }
        (chain.from()..chain.to()).for_each(|i| self.used[i] |= matches!(self.tokens[i].kind, Kind::Times));
        self.label_numbers(&(chain.from()..chain.to() + 1), from, to);
        // The first number of a range is no count.
        if let Some(at) = range(&self.tokens, from..to) {
            self.used[at] |= !(chain.from()..=chain.to()).contains(&at);
        }
        let mut row = Row::new("", Part::Outer, 1, Length::ZERO, height);
        row.width = width;
        row.seam = self.seam_to_add(from, to);
        if let Some((across, up)) = chain.corners {
            let (across, up) = (self.length(&across, Some(&up))?, self.length(&up, Some(&across))?);
            if width.is_some_and(|width| across * 2 >= width) || up >= height {
                return Err("what is cut out of its corners leaves nothing of the piece".into());
            }
            row.shape = RowShape::Notched { across, up };
            if (from..to).any(|i| self.tokens[i].word().is_some_and(|w| matches!(w, "all" | "four" | "top" | "upper")))
            {
                asks.push("Bofta cuts out the lower corners only. Is that right?".into());
            }
        }
        let line = Words { text: self.text, tokens: &self.tokens, used: &self.used };
        let named = several(&line, from..to, chain.from()..chain.to() + 1, chain.count);
        let mut called: Option<String> = None;
        let mut maybe: Vec<Part> = Vec::new();
        let mut counts: Vec<u32> = Vec::new();
        match named {
            Some((Several::Rows { each, doubt }, at)) => {
                at.into_iter().for_each(|i| self.used[i] = true);
                return Ok(self.rows_of_each(&row, &chain, (from, to), each, doubt, heading));
            }
            Some((Several::One { names, count, other }, at)) => {
                at.into_iter().for_each(|i| self.used[i] = true);
                row.count = count;
                counts.push(count);
                called = Some(names.iter().map(|words| self.spoken(words)).collect::<Vec<_>>().join(" and "));
                if let Some(other) = other {
                    asks.push(format!("is it {count} of them, or {other}?"));
                    others.push(Row { count: other, ..row.clone() });
                }
            }
            Some((Several::Some(mut some), _)) => {
                some.sort_unstable();
                some.iter().for_each(|i| self.used[*i] = true);
                if let (Some(first), Some(last)) = (some.first(), some.last()) {
                    let said = &self.text[self.tokens[*first].from..self.tokens[*last].to];
                    asks.push(format!("what does “{said}” say? It was left out."));
                }
                counts = self.counts(&chain, from, to);
            }
            Some((Several::Parts(parts), _)) => {
                counts = self.counts(&chain, from, to);
                row.count = chain.count.or_else(|| counts.first().copied()).unwrap_or(1);
                asks.push(
                    "the line names two cloths. Which is this one from? Add a line if you need one from each.".into(),
                );
                maybe = parts;
            }
            None => counts = self.counts(&chain, from, to),
        }
        let mut counts_said = counts.clone();
        counts_said.dedup();
        // `cut 2 (1 reversed)` says the pair in two ways; `cut 1 and 1 reversed` is a pair.
        let reversed = (from..to).any(|i| {
            self.tokens[i].word().is_some_and(|w| matches!(w, "reversed" | "reverse" | "mirrored" | "flipped"))
        });
        match (&counts[..], reversed) {
            ([all, half], true) if *half * 2 == *all => counts = vec![*all],
            ([one, other], true) if one == other => counts = vec![*one + *other],
            _ => counts = counts_said,
        }
        row.count = chain.count.or_else(|| counts.first().copied()).unwrap_or(1);
        if let Some(n) = self.numbered_name(&chain, from).filter(|n| counts.first() == Some(n)) {
            asks.push(format!("are there {n} of them, or is {n} part of the name?"));
            others.push(Row { count: 1, ..row.clone() });
        }
        if let Some(other) = counts.iter().find(|n| **n != row.count) {
            asks.push(format!("is it {} of them, or {other}?", row.count));
            others.push(Row { count: *other, ..row.clone() });
        }
        if let Some(all) = all.filter(|_| !is_sure) {
            asks.push("there are three numbers. Which of them is the count?".into());
            others.extend(self.readings_of_three(&all, &row));
        }
        self.name(&mut row, from, to, label, heading);
        if let Some(called) = called {
            row.name = titled(&called);
        }
        self.shape_and_fold(&mut row, from, to, &mut asks, &mut others);
        self.ask_units(&row, (&across, &up), &mut asks, &mut others);
        self.ask_long_units(&row, (&across, &up), &mut asks, &mut others);
        asks.extend(doubts(&Words { text: self.text, tokens: &self.tokens, used: &self.used }, from..to));
        self.leftovers(from, to, &mut asks);
        let (name, part, count) = (row.name.clone(), row.part, row.count);
        for other in &mut others {
            (other.name, other.part, other.pairs, other.any_way) = (name.clone(), part, row.pairs, row.any_way);
        }
        others.extend(maybe.into_iter().map(|part| Row { part, ..row.clone() }));
        others.retain(|other| *other != row);
        others.dedup();
        if count > 400 {
            asks.push(format!("are there really {count} of them?"));
        }
        let labelled = one.side.is_some() || two.side.is_some();
        let counted = chain.count.is_some() || !counts.is_empty();
        Ok(vec![RowRead { row, labelled, counted, asks: joined(asks), others }])
    }

    /// One row for each of several pieces of a size.
    fn rows_of_each(
        &mut self,
        like: &Row,
        chain: &Chain,
        (from, to): (usize, usize),
        each: Vec<Named>,
        doubt: Option<u32>,
        heading: Option<Part>,
    ) -> Vec<RowRead> {
        let n = each.len() as u32;
        let alike = each.iter().all(|one| one.count == each[0].count);
        let labelled = chain.measures.iter().any(|m| m.side.is_some());
        let mut first = doubts(&Words { text: self.text, tokens: &self.tokens, used: &self.used }, from..to);
        self.leftovers(from, to, &mut first);
        let mut rows: Vec<RowRead> = Vec::new();
        for one in each {
            let named = self.spoken(&one.words);
            let part = part_of(&named).or(heading).unwrap_or(Part::Outer);
            let mut row = Row { name: titled(&named), part, count: one.count, ..like.clone() };
            let words: Vec<&str> = one.words.iter().filter_map(|&i| self.tokens[i].word()).collect();
            let (mut asks, mut others) = (std::mem::take(&mut first), Vec::new());
            self.shape_and_fold(&mut row, from, to, &mut asks, &mut others);
            match doubt {
                Some(all) if alike && all % n == 0 && one.count == all => {
                    asks.push(format!("are there {all} of each, or {all} altogether?"));
                    others.push(Row { count: all / n, ..row.clone() });
                }
                Some(all) => asks.push(format!("the line says {all} altogether. Is {} right here?", one.count)),
                None => {}
            }
            // Two cloths that are both read as outer: `2 canvas and 2 ticking`.
            let unnamed = part_of(&named).is_none() && heading.is_none() && !words.iter().any(|w| is_opposite(w));
            if unnamed && rows.iter().any(|before| before.row.part == part) {
                asks.push(format!("“{}” goes to the outer. Is that right?", words.join(" ")));
                others.extend([Part::Lining, Part::Contrast].map(|part| Row { part, ..row.clone() }));
            }
            rows.push(RowRead { row, labelled, counted: true, asks: joined(asks), others });
        }
        rows
    }

    /// The words of these tokens as they are written.
    fn spoken(&self, words: &[usize]) -> String {
        words.iter().map(|&i| &self.text[self.tokens[i].from..self.tokens[i].to]).collect::<Vec<_>>().join(" ")
    }

    /// `piece 3: …`, `step 2`, `no. 4`, `#4`: numbers that name something, and count nothing.
    fn label_numbers(&mut self, size: &Range<usize>, from: usize, to: usize) {
        const LABELS: [&str; 15] = [
            "page", "step", "fig", "figure", "diagram", "template", "pattern", "piece", "part", "number", "nr", "no",
            "size", "rounded", "radius",
        ];
        for at in from..to {
            if self.count_at(at).is_none() || self.number(at).is_none() || size.contains(&at) {
                continue;
            }
            let before = (at > 0).then(|| at - 1);
            let stop = before.filter(|&b| &self.text[self.tokens[b].from..self.tokens[b].to] == ".");
            let label = stop.map_or(before, |b| b.checked_sub(1));
            let named = label.is_some_and(|b| {
                let counted = b.checked_sub(1).is_some_and(|i| self.count_at(i).is_some());
                let hash = &self.text[self.tokens[b].from..self.tokens[b].to] == "#";
                hash || (!counted && self.tokens[b].word().is_some_and(|w| LABELS.contains(&w)))
            });
            // `12 oz canvas`, `100 % cotton`: what the cloth is.
            let weight = self.tokens.get(at + 1).is_some_and(|t| {
                &self.text[t.from..t.to] == "%"
                    || t.word().is_some_and(|w| matches!(w, "oz" | "ounce" | "gsm" | "g" | "percent"))
            });
            self.used[at] |= named || weight;
        }
    }

    /// A number that stands right after a name: `Pocket 2: 6 x 8` may be the second pocket.
    fn numbered_name(&self, chain: &Chain, from: usize) -> Option<u32> {
        (from + 1..chain.from()).find_map(|at| {
            let n = self.count_at(at).filter(|n| *n > 1 && self.number(at).is_some())?;
            let named = self.tokens[at - 1].word().is_some_and(|w| !is_idle(w) && words::count(w).is_none());
            let pair = self.tokens[at - 1].word().is_some_and(|w| matches!(w, "need" | "pair" | "pairs"));
            let ends = at + 1 == chain.from() || matches!(self.tokens[at + 1].kind, Kind::Colon | Kind::Dash);
            (named && !pair && ends).then_some(n)
        })
    }

    /// A seam allowance that the line says is still to be added: `plus 1/2 in seam allowance`. One that is included is read
    /// and needs nothing.
    fn seam_to_add(&mut self, from: usize, to: usize) -> Length {
        let word = |i: usize| self.tokens[i].word().unwrap_or_default();
        let is_seam = |w: &str| matches!(w, "seam" | "seams" | "allowance" | "allowances" | "sa");
        let Some(at) = (from..to).find(|&at| {
            !self.used[at] && self.number(at).is_some() && (at + 1..to.min(at + 3)).any(|i| is_seam(word(i)))
        }) else {
            return Length::ZERO;
        };
        let near = at.saturating_sub(2).max(from)..to.min(at + 5);
        let says = |known: &[&str]| near.clone().any(|i| known.contains(&word(i)));
        let plus = at > from && &self.text[self.tokens[at - 1].from..self.tokens[at - 1].to] == "+";
        let adds = plus || says(&["plus", "add", "adding"]);
        let included = says(&["include", "includes", "included", "including", "incl"]) && !says(&["not", "excluding"]);
        let seam = self.length(&Measure { from: at, to: at, whole: false, side: None }, None).unwrap_or_default();
        if adds == included {
            return Length::ZERO;
        }
        // Read with its words, so that nobody is asked about them.
        let read: Vec<usize> = (at.saturating_sub(2).max(from)..to)
            .filter(|&i| {
                i == at || is_seam(word(i)) || i < at && (plus || word(i) == "plus") || word(i).starts_with("incl")
            })
            .collect();
        read.into_iter().for_each(|i| self.used[i] = true);
        if adds { seam } else { Length::ZERO }
    }

    /// `2 x 4'`: whether the bare side is in feet as well is not said.
    fn ask_long_units(
        &self,
        row: &Row,
        (across, up): (&Measure, &Measure),
        asks: &mut Vec<String>,
        others: &mut Vec<Row>,
    ) {
        let (Some((wide, wide_unit)), Some((tall, tall_unit))) = (self.number(across.from), self.number(up.from))
        else {
            return;
        };
        let lent = |figures: &str, unit: &str| parse_length(&format!("{figures} {unit}"), self.system).ok();
        let (bare, unit, other) = match (wide_unit, tall_unit) {
            (None, Some(unit)) if is_long(unit) => {
                (wide, unit, lent(wide, unit).map(|width| Row { width: Some(width), ..row.clone() }))
            }
            (Some(unit), None) if is_long(unit) => {
                (tall, unit, lent(tall, unit).map(|height| Row { height, ..row.clone() }))
            }
            _ => return,
        };
        asks.push(format!("is “{bare}” in {} or in {unit}?", self.system.symbol()));
        others.extend(other);
    }

    /// Bare numbers too large for a bag are likely in millimetres.
    fn ask_units(&self, row: &Row, (across, up): (&Measure, &Measure), asks: &mut Vec<String>, others: &mut Vec<Row>) {
        let bare = |m: &Measure| self.number(m.from).filter(|(_, unit)| unit.is_none()).map(|(figures, _)| figures);
        let (Some(width), Some(wide), Some(tall)) = (row.width, bare(across), bare(up)) else { return };
        if width.min(row.height) < LARGE {
            return;
        }
        let in_mm = |figures: &str| parse_length(&format!("{figures} mm"), self.system).ok();
        if let (Some(width), Some(height)) = (in_mm(wide), in_mm(tall)) {
            asks.push("is that in millimetres?".into());
            others.push(Row { width: Some(width), height, ..row.clone() });
        }
    }

    /// Of three numbers in a row the likeliest count and size, and whether that is sure.
    fn of_three(&mut self, chain: &Chain) -> (Chain, bool) {
        let all = &chain.measures;
        let size = |m: &Measure| self.length(m, None).unwrap_or_default();
        let told = |m: &Measure| m.side.is_some() || self.number(m.from).is_some_and(|(_, unit)| unit.is_some());
        let (first, last) = (self.plain_count(&all[0]), self.plain_count(&all[2]));
        let leads = (0..chain.from()).all(|i| self.tokens[i].word().is_none_or(is_idle))
            || chain.from().checked_sub(1).is_some_and(|i| self.tokens[i].kind == Kind::Colon);
        let smallest = size(&all[0]) <= size(&all[1]).min(size(&all[2]));
        // Both sides of the size say what they are, and the count does not.
        // `2 1/2 x WOF x 3`: what is no whole number is no count.
        let whole = all.iter().any(|m| m.whole) && all.iter().filter(|m| self.plain_count(m).is_some()).count() == 1;
        let after = last.is_some() && ((told(&all[0]) && told(&all[1])) || whole);
        let before = first.is_some() && told(&all[1]) && told(&all[2]);
        let is_sure = before || after || (first.is_some() && leads && smallest);
        let (count, sizes) = match (first, last) {
            (_, Some(n)) if after => (n, 0..2),
            (Some(n), _) if before || smallest => (n, 1..3),
            (_, Some(n)) if size(&all[2]) <= size(&all[0]).min(size(&all[1])) => (n, 0..2),
            (Some(n), None) => (n, 1..3),
            _ => (1, 0..2),
        };
        let taken = Chain { count: Some(count), measures: all[sizes].to_vec(), three: false, corners: None };
        all.iter().for_each(|m| (m.from..=m.to).for_each(|i| self.used[i] = true));
        (taken, is_sure)
    }

    /// Every way to read three numbers: a count before, a count after, or wide, tall and deep.
    fn readings_of_three(&self, all: &[Measure], row: &Row) -> Vec<Row> {
        let of = |count: Option<u32>, w: &Measure, h: &Measure| -> Option<Row> {
            let (width, height) = (self.length(w, Some(h)).ok()?, self.length(h, Some(w)).ok()?);
            Some(Row { count: count?, width: Some(width), height, ..row.clone() })
        };
        let (first, last) = (self.plain_count(&all[0]), self.plain_count(&all[2]));
        let readings = [of(first, &all[1], &all[2]), of(last, &all[0], &all[1]), of(Some(1), &all[0], &all[1])];
        readings.into_iter().flatten().collect()
    }

    /// A whole number that says neither a unit nor a side.
    fn plain_count(&self, m: &Measure) -> Option<u32> {
        self.count_at(m.from).filter(|_| m.side.is_none() && !m.whole)
    }

    /// Counts that stand between `from` and `to` beside the size.
    fn counts(&mut self, chain: &Chain, from: usize, to: usize) -> Vec<u32> {
        let mut found = Vec::new();
        let is = |t: Option<&Token>, kind: &Kind| t.is_some_and(|t| t.kind == *kind);
        let word = |i: usize| self.tokens.get(i).and_then(Token::word);
        let mut taken = Vec::new();
        for at in from..to {
            if self.used[at] {
                continue;
            }
            if let Some(w) = word(at) {
                let pair = match w {
                    "pair" | "pairs" => at.checked_sub(1).and_then(|b| self.count_at(b)).unwrap_or(1).checked_mul(2),
                    "couple" => Some(2),
                    "dozen" if at.checked_sub(1).is_some_and(|b| self.count_at(b).is_some()) => continue,
                    "dozen" => {
                        let half = [1, 2].into_iter().find(|back| at.checked_sub(*back).and_then(word) == Some("half"));
                        taken.extend(half.into_iter().flat_map(|back| at - back..at));
                        Some(if half.is_some() { 6 } else { 12 })
                    }
                    _ => None,
                };
                if let Some(n) = pair {
                    found.push(n);
                    taken.push(at);
                    taken.extend(at.checked_sub(1).filter(|&b| self.count_at(b).is_some()));
                    continue;
                }
            }
            let Some(mut n) = self.count_at(at) else { continue };
            // `two dozen`.
            if word(at + 1) == Some("dozen") {
                n = n.saturating_mul(12);
                taken.push(at + 1);
                found.push(n);
                taken.push(at);
                continue;
            }
            if word(at + 1).is_some_and(|w| matches!(w, "pair" | "pairs")) {
                continue;
            }
            let before = at.checked_sub(1);
            let after = self.tokens.get(at + 1);
            let counted =
                |w: &str| matches!(w, "pcs" | "pc" | "piece" | "pieces" | "off" | "no" | "nos" | "nr" | "times" | "of");
            let led = before.is_some_and(|b| {
                word(b).is_some_and(|w| {
                    matches!(w, "cut" | "make" | "qty" | "quantity" | "count" | "need" | "of" | "and" | "plus")
                }) || matches!(self.tokens[b].kind, Kind::Times | Kind::Open | Kind::Colon | Kind::Dash | Kind::Comma)
            });
            let followed = after.is_some_and(|t| {
                matches!(t.kind, Kind::At | Kind::Times | Kind::Comma | Kind::Colon | Kind::Close)
                    || t.word().is_some_and(counted)
            });
            // First in its part of the line, in words, or right beside the size.
            let leads = at == from || self.tokens[at].word().is_some();
            let beside_size = at + 1 == chain.from() || after.is_none();
            if led || followed || leads || beside_size {
                found.push(n);
                taken.push(at);
                taken.extend(
                    (at + 1 < to).then_some(at + 1).filter(|&i| matches!(self.tokens[i].kind, Kind::Times | Kind::At)),
                );
                taken.extend(
                    before.filter(|&b| matches!(self.tokens[b].kind, Kind::Times) || is(self.tokens.get(b), &Kind::At)),
                );
            }
        }
        taken.into_iter().for_each(|i| self.used[i] = true);
        found
    }

    /// Name and part from the words that are left.
    fn name(&mut self, row: &mut Row, from: usize, to: usize, label: Option<&str>, heading: Option<Part>) {
        let spoken: Vec<&str> = (from..to)
            .filter(|&i| !self.used[i])
            .filter_map(|i| self.tokens[i].word().map(|_| &self.text[self.tokens[i].from..self.tokens[i].to]))
            .collect();
        let lower = spoken.join(" ").to_lowercase();
        let kept: Vec<&str> = spoken.into_iter().filter(|w| !is_idle(&w.to_lowercase())).collect();
        let own = kept.join(" ");
        let named = if own.is_empty() { label.unwrap_or_default().to_owned() } else { own };
        row.part = part_of(&named).or_else(|| label.and_then(part_of)).or(heading).unwrap_or(Part::Outer);
        row.name = titled(&named);
        if row.name.is_empty() {
            row.name = row.part.name().to_owned();
        }
        row.pairs = ["mirror", "revers", "flipped"].iter().any(|w| lower.contains(w));
        row.any_way = lower.contains("any way") || lower.contains("any direction");
    }

    fn shape_and_fold(&self, row: &mut Row, from: usize, to: usize, asks: &mut Vec<String>, others: &mut Vec<Row>) {
        let words: Vec<&str> = (from..to).filter_map(|i| self.tokens[i].word()).collect();
        let shape = words::shape(&words).map(|(shape, _)| shape);
        match shape {
            Some(Shape::HalfRound) => row.shape = RowShape::HalfRound,
            Some(Shape::Circle) if row.width == Some(row.height) => row.shape = RowShape::Circle,
            Some(Shape::Square | Shape::Circle) if row.width.is_some_and(|w| w != row.height) => {
                let (width, height) = (row.width.unwrap_or_default(), row.height);
                let round = shape == Some(Shape::Circle);
                asks.push(format!(
                    "a {} is as wide as it is tall. Is this one?",
                    if round { "circle" } else { "square" }
                ));
                // `square 12 cm x 4` may be four of them.
                let unit = match self.system {
                    System::Inches => Length::INCH,
                    System::Centimetres => Length::CENTIMETRE,
                };
                let copies = u32::try_from(height.0 / unit.0).unwrap_or(0);
                if row.count == 1 && height.0 % unit.0 == 0 && (1..=100).contains(&copies) {
                    let shape = if round { RowShape::Circle } else { RowShape::Rectangle };
                    others.push(Row { count: copies, height: width, shape, ..row.clone() });
                }
            }
            _ => {}
        }
        let on_fold = words.windows(2).any(|w| matches!(w[0], "on" | "the") && w[1] == "fold");
        if on_fold && let Some(width) = row.width {
            // Half a piece: it opens along one of its sides, which is not said.
            let half = row.clone();
            row.width = Some(width * 2);
            asks.push(
                "it is cut on the fold, so the size may be half the piece. Is the piece twice as wide, twice as tall, or is this the whole size?"
                    .into(),
            );
            others.push(Row { height: half.height * 2, ..half.clone() });
            others.push(half);
        }
    }

    /// Figures that were not used are asked about.
    fn leftovers(&self, from: usize, to: usize, asks: &mut Vec<String>) {
        let left: Vec<&str> = (from..to)
            .filter(|&i| !self.used[i] && self.number(i).is_some())
            .map(|i| self.text[self.tokens[i].from..self.tokens[i].to].trim())
            .collect();
        if !left.is_empty() {
            asks.push(format!(
                "what does {} say? It was left out",
                left.iter().map(|n| format!("“{n}”")).collect::<Vec<_>>().join(" and ")
            ));
        }
    }

    /// A line with one measure: a circle, a square, or no row.
    fn single(mut self, heading: Option<Part>) -> Line {
        let none = || Line {
            unread: Some("it has no size, such as 9 1/2 x 12. Add a size, or leave the line out".into()),
            ..Line::default()
        };
        let words: Vec<&str> = self.tokens.iter().filter_map(Token::word).collect();
        let named = words::shape(&words).map(|(shape, _)| shape);
        let round = words.contains(&"round").then_some(Shape::Circle);
        let Some(shape) = named.or(round) else { return none() };
        let numbers: Vec<usize> = (0..self.tokens.len()).filter(|&i| self.number(i).is_some()).collect();
        // A number with a unit, else the one beside the shape's word, else the last: `1 circle` is a count.
        let with_unit = numbers.iter().copied().find(|&i| self.number(i).is_some_and(|(_, unit)| unit.is_some()));
        let at_word = |i: usize| self.tokens.get(i).and_then(Token::word).is_some_and(|w| words::shape(&[w]).is_some());
        let after = numbers.iter().copied().find(|&i| i.checked_sub(1).is_some_and(at_word));
        let Some(at) = with_unit.or(after).or(numbers.last().copied()) else { return none() };
        let measure = Measure { from: at, to: at, whole: false, side: None };
        let mut across = match self.length(&measure, None) {
            Ok(across) => across,
            Err(why) => return Line { unread: Some(why), ..Line::default() },
        };
        let radius: Vec<usize> = (0..self.tokens.len())
            .filter(|&i| self.tokens[i].word().is_some_and(|w| matches!(w, "radius" | "rad" | "r")))
            .collect();
        let mut notes = Vec::new();
        if !radius.is_empty() && shape != Shape::Square {
            across = across * 2;
            radius.into_iter().for_each(|i| self.used[i] = true);
            notes.push("Bofta takes the radius as half the width.".to_owned());
        }
        if with_unit.is_none()
            && numbers.len() == 1
            && self.count_at(at).is_some()
            && after.is_none()
            && !matches!(shape, Shape::Square)
            && at == 0
        {
            return none();
        }
        self.used[at] = true;
        let to = self.tokens.len();
        let line = Words { text: self.text, tokens: &self.tokens, used: &self.used };
        if let (Shape::Circle | Shape::Square, Some((Several::Rows { each, doubt }, counted))) =
            (shape, several(&line, 0..to, at..at + 1, None))
        {
            counted.into_iter().for_each(|i| self.used[i] = true);
            let chain = Chain { measures: vec![measure], count: None, three: false, corners: None };
            let mut like = Row::new("", Part::Outer, 1, across, across);
            like.shape = if shape == Shape::Circle { RowShape::Circle } else { RowShape::Rectangle };
            let rows = self.rows_of_each(&like, &chain, (0, to), each, doubt, heading);
            return Line { rows, notes, ..Line::default() };
        }
        let chain = Chain { measures: vec![measure], count: None, three: false, corners: None };
        let counts = self.counts(&chain, 0, self.tokens.len());
        let mut asks = Vec::new();
        let mut row = Row::new("", Part::Outer, counts.first().copied().unwrap_or(1), across, across);
        match shape {
            Shape::Circle => row.shape = RowShape::Circle,
            Shape::Square => {}
            Shape::HalfRound => {
                row.shape = RowShape::HalfRound;
                row.height = across / 2;
                asks.push("only the width is given. Is the half-round half as tall?".into());
            }
        }
        self.name(&mut row, 0, to, None, heading);
        asks.extend(doubts(&Words { text: self.text, tokens: &self.tokens, used: &self.used }, 0..to));
        self.leftovers(0, to, &mut asks);
        let counted = !counts.is_empty();
        let read = RowRead { row, labelled: true, counted, asks: joined(asks), others: vec![] };
        Line { rows: vec![read], notes, ..Line::default() }
    }
}

/// The least side of a piece that is taken for one in millimetres, where no unit is said.
const LARGE: Length = Length(60 * Length::INCH.0);

/// Units that are said of one side alone.
fn is_long(unit: &str) -> bool {
    matches!(unit, "ft" | "yd" | "m")
}

/// Whether two lengths differ by no more than a pattern rounds where it says both systems: a thirtieth, or 2 mm.
fn is_about(one: Length, other: Length) -> bool {
    let apart = (one.0 - other.0).abs();
    apart <= (one.0 / 30).max(Length::MILLIMETRE.0 * 2)
}

/// Whether there is a size of two sides in `text`.
pub(super) fn has_size(text: &str) -> bool {
    reader(text, System::Inches).chains().iter().any(|c| c.measures.len() > 1)
}

/// The first measure of a line, in whatever words it stands.
pub(super) fn only_measure(text: &str, system: System) -> Option<Length> {
    let reader = reader(text, system);
    let at = (0..reader.tokens.len()).find(|&i| reader.number(i).is_some())?;
    reader.length(&Measure { from: at, to: at, whole: false, side: None }, None).ok()
}

/// A finished size: wide, tall, and deep where it is.
pub(super) fn stated(text: &str, system: System) -> Option<(Length, Length, Length)> {
    let mut reader = reader(text, system);
    let chain = reader.chains().into_iter().find(|c| (2..4).contains(&c.measures.len()))?;
    let last = chain.measures.last().copied();
    let length = |m: &Measure| reader.length(m, last.as_ref()).ok();
    let sizes: Vec<Length> = chain.measures.iter().map(length).collect::<Option<_>>()?;
    // As it is said, else in the order people write it: wide, tall, deep.
    let said = |side: Side| chain.measures.iter().position(|m| m.side == Some(side));
    let wide = said(Side::Across).unwrap_or(if said(Side::Up) == Some(0) { 1 } else { 0 });
    let tall = said(Side::Up).unwrap_or(if wide == 1 { 0 } else { 1 });
    let deep = (0..sizes.len()).find(|i| *i != wide && *i != tall);
    (wide != tall).then(|| (sizes[wide], sizes[tall], deep.map_or(Length::ZERO, |i| sizes[i])))
}

fn reader(text: &str, system: System) -> Reader<'_> {
    let tokens = tokens(text);
    Reader { text, used: vec![false; tokens.len()], tokens, system }
}

/// Questions as one sentence that begins with a capital letter.
fn joined(asks: Vec<String>) -> Option<String> {
    let text = asks.iter().map(|ask| titled_first(ask)).collect::<Vec<_>>().join(" ");
    (!text.is_empty()).then(|| if text.ends_with(['?', '.']) { text } else { format!("{text}.") })
}

fn titled_first(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map(|c| c.to_uppercase().chain(chars).collect()).unwrap_or_default()
}

/// A name as rows have it: cleaned, a capital letter first, not too long.
fn titled(words: &str) -> String {
    let name = name::clean(words);
    let name = name.trim_matches(|c: char| !c.is_alphanumeric());
    titled_first(name).chars().take(name::MOST_LETTERS).collect()
}
