//! One line of a list: its sizes, how many of each, what they are called. What can be read in two ways is asked, and
//! nothing in it is left out without a word.

use super::tokens::{Kind, Token, tokens};
use super::words::{self, Shape, bought, is_idle, part_of};
use bofta_core::bag::{Bought, Row, RowShape};
use bofta_core::measure::{Length, System, parse_length};
use bofta_core::name::{self, MOST_LETTERS};
use bofta_core::piece::Part;

/// What a line was read as.
#[derive(Clone, Debug, Default)]
pub(super) struct Line {
    pub rows: Vec<RowRead>,
    /// What it names that is bought.
    pub bought: Option<Bought>,
    /// Why it, or a part of it, is no row.
    pub unread: Option<String>,
}

/// A row and what is asked about it.
#[derive(Clone, Debug)]
pub(super) struct RowRead {
    pub row: Row,
    /// It said which side is which.
    pub labelled: bool,
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

/// Reads one line; a number without a unit is in `system`'s, a piece whose part is not named belongs to `heading`.
pub(super) fn read(text: &str, heading: Option<Part>, system: System) -> Line {
    let mut tokens = tokens(text);
    // A number before a full stop or bracket numbers the line.
    if let [first, second, _, ..] = &tokens[..]
        && matches!(&first.kind, Kind::Number { figures, unit: None } if figures.len() < 3 && figures.parse::<u32>().is_ok())
        && matches!(&text[second.from..second.to], "." | ")")
        && second.from == first.to
        && text[second.to..].starts_with(' ')
    {
        tokens.drain(..2);
    }
    let used = vec![false; tokens.len()];
    Reader { text, tokens, system, used }.line(heading)
}

impl Reader<'_> {
    fn line(mut self, heading: Option<Part>) -> Line {
        let chains = self.chains();
        let words: Vec<&str> = self.tokens.iter().filter_map(Token::word).collect();
        if let Some(what) = bought(&words) {
            return match self.bought(what) {
                Ok(bought) => Line { bought: Some(bought), ..Line::default() },
                Err(why) => Line { unread: Some(why), ..Line::default() },
            };
        }
        let chains: Vec<Chain> = chains.into_iter().filter(|c| c.measures.len() > 1).collect();
        let chains = if chains.is_empty() { self.both_sides().into_iter().collect() } else { chains };
        if chains.is_empty() {
            return self.single(heading);
        }
        if let Some(long) = chains.iter().find(|c| c.measures.len() > 3) {
            let why = format!(
                "{} sizes stand in a row: write width × height, and the count before them",
                long.measures.len()
            );
            return Line { unread: Some(why), ..Line::default() };
        }
        // Every size of the line is a row; what stands between two belongs to the second, from the last `and` or comma on.
        let mut parts = Vec::new();
        let mut from = 0;
        for (i, chain) in chains.iter().enumerate() {
            let to = chains.get(i + 1).map_or(self.tokens.len(), |next| self.parting(chain.to() + 1, next.from()));
            parts.push((from, to));
            from = to;
        }
        let label = self.label(chains[0].from());
        let mut line = Line::default();
        for (i, (chain, (from, to))) in chains.iter().zip(parts).enumerate() {
            match self.row(chain, from, to, (i > 0).then_some(&label[..]), heading) {
                Ok(read) => line.rows.push(read),
                Err(why) => line.unread = Some(why),
            }
        }
        line
    }

    /// What the line says of `what`, which is bought: how many, how long or large, how wide. A number that could be a count
    /// or a size is not guessed.
    fn bought(&self, what: &str) -> Result<Bought, String> {
        let kind = words::sold_by_the_length(what);
        let unsure = || match kind {
            Some(_) => format!(
                "“{what}” is bought: say how many, how wide and how long, as in “2 {what}, 1 in wide, 24 in long”, or name the piece of cloth it goes into"
            ),
            None => format!(
                "“{what}” is bought: say how many, and its size with a unit, as in “2 {what}, 1 in”, or name the piece of cloth it goes into"
            ),
        };
        let named = (0..self.tokens.len()).find(|&i| self.tokens[i].word() == Some(what)).unwrap_or(0);
        let mut measures: Vec<Measure> = (0..self.tokens.len()).filter_map(|i| self.measure_at(i)).collect();
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
        Some(Chain { measures, count: None, three: false })
    }

    /// Where the words of the next size begin: at a semicolon, else at an `and`, else at the last comma, else right after
    /// the size before.
    fn parting(&self, from: usize, to: usize) -> usize {
        let sign = |i: usize| &self.text[self.tokens[i].from..self.tokens[i].to];
        let semicolon = (from..to).find(|&i| sign(i) == ";");
        let and = || (from..to).find(|&i| matches!(sign(i).to_lowercase().as_str(), "and" | "plus" | "&" | "+"));
        let comma = || (from..to).rfind(|&i| self.tokens[i].kind == Kind::Comma);
        semicolon.or_else(and).or_else(comma).unwrap_or(from)
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
        Some(Measure { from: at, to, whole, side })
    }

    fn chains(&mut self) -> Vec<Chain> {
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
            let mut chain = Chain { measures, count: None, three: false };
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
                    chain = Chain { measures: chain.measures[sizes].to_vec(), count, three: false };
                }
            }
            at = end + 1;
            chains.push(chain);
        }
        chains
    }

    fn length(&self, measure: &Measure, other: Option<&Measure>) -> Result<Length, String> {
        let unit_of = |m: &Measure| self.number(m.from).and_then(|(_, unit)| unit);
        let (figures, unit) = self.number(measure.from).ok_or("a size is missing")?;
        let unit = unit.or_else(|| other.and_then(unit_of)).unwrap_or("");
        let typed = format!("{figures} {unit}");
        match parse_length(&typed, self.system) {
            Ok(length) if length > Length::ZERO => Ok(length),
            Ok(_) => Err(format!("“{}” is nothing: a piece has a size", typed.trim())),
            Err(e) => Err(e.to_string()),
        }
    }

    /// The row of one size, from what stands about it.
    fn row(
        &mut self,
        chain: &Chain,
        from: usize,
        to: usize,
        label: Option<&str>,
        heading: Option<Part>,
    ) -> Result<RowRead, String> {
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
            return Err("the width of the cloth stands twice: how long is it cut?".into());
        }
        let height = self.length(&up, Some(&across))?;
        let width = if across.whole { None } else { Some(self.length(&across, Some(&up))?) };
        for m in &chain.measures {
            (m.from..=m.to).for_each(|i| self.used[i] = true);
        }
        (chain.from()..chain.to()).for_each(|i| self.used[i] |= matches!(self.tokens[i].kind, Kind::Times));
        let counts = self.counts(&chain, from, to);
        let mut row = Row::new("", Part::Outer, 1, Length::ZERO, height);
        row.width = width;
        row.count = chain.count.or_else(|| counts.first().copied()).unwrap_or(1);
        if let Some(other) = counts.iter().find(|n| **n != row.count) {
            asks.push(format!("is it {} of them, or {other}?", row.count));
            others.push(Row { count: *other, ..row.clone() });
        }
        if let Some(all) = all.filter(|_| !is_sure) {
            asks.push("three numbers stand in a row: which of them is the count?".into());
            others.extend(self.readings_of_three(&all, &row));
        }
        self.name(&mut row, from, to, label, heading);
        self.shape_and_fold(&mut row, from, to, &mut asks, &mut others);
        self.leftovers(from, to, &mut asks);
        let (name, part, count) = (row.name.clone(), row.part, row.count);
        for other in &mut others {
            (other.name, other.part, other.pairs, other.any_way) = (name.clone(), part, row.pairs, row.any_way);
        }
        others.retain(|other| *other != row);
        others.dedup();
        if count > 400 {
            asks.push(format!("are there really {count} of them?"));
        }
        let labelled = one.side.is_some() || two.side.is_some();
        Ok(RowRead { row, labelled, asks: joined(asks), others })
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
        let after = last.is_some() && told(&all[0]) && told(&all[1]);
        let before = first.is_some() && told(&all[1]) && told(&all[2]);
        let is_sure = before || after || (first.is_some() && leads && smallest);
        let (count, sizes) = match (first, last) {
            (_, Some(n)) if after => (n, 0..2),
            (Some(n), _) if before || smallest => (n, 1..3),
            (_, Some(n)) if size(&all[2]) <= size(&all[0]).min(size(&all[1])) => (n, 0..2),
            (Some(n), None) => (n, 1..3),
            _ => (1, 0..2),
        };
        let taken = Chain { count: Some(count), measures: all[sizes].to_vec(), three: false };
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

    /// Counts that stand between `from` and `to` beside the size, each once.
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
                    "dozen" => Some(12),
                    _ => None,
                };
                if let Some(n) = pair {
                    found.push(n);
                    taken.push(at);
                    taken.extend(at.checked_sub(1).filter(|&b| self.count_at(b).is_some()));
                    continue;
                }
            }
            let Some(n) = self.count_at(at) else { continue };
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
        found.dedup();
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
        row.pairs = lower.contains("mirror");
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
                asks.push(format!("a {} is as wide as it is tall: is this?", if round { "circle" } else { "square" }));
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
                "it lies on the fold, so half of it is given: is it twice as wide, twice as tall, or already whole?"
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
            unread: Some("there is no size in it such as 9 1/2 x 12: add one, or leave the line out".into()),
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
        let across = match self.length(&measure, None) {
            Ok(across) => across,
            Err(why) => return Line { unread: Some(why), ..Line::default() },
        };
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
        let chain = Chain { measures: vec![measure], count: None, three: false };
        let counts = self.counts(&chain, 0, self.tokens.len());
        let mut asks = Vec::new();
        let mut row = Row::new("", Part::Outer, counts.first().copied().unwrap_or(1), across, across);
        match shape {
            Shape::Circle => row.shape = RowShape::Circle,
            Shape::Square => {}
            Shape::HalfRound => {
                row.shape = RowShape::HalfRound;
                row.height = across / 2;
                asks.push("only its width is given: is the half-round as tall as half of that?".into());
            }
        }
        let to = self.tokens.len();
        self.name(&mut row, 0, to, None, heading);
        self.leftovers(0, to, &mut asks);
        Line { rows: vec![RowRead { row, labelled: true, asks: joined(asks), others: vec![] }], ..Line::default() }
    }
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
