//! What is left of a roll in rectangles worth keeping.

use super::answer::Offcut;
use super::cut_tree::Region;
use crate::measure::Length;

/// Between more pieces than this no offcut is looked for, only beyond them: the look is cubic in the pieces.
const MOST_EXAMINED: usize = 200;

/// The largest bare rectangles of `region`, largest first, none overlapping another or a piece, each at least `keep`
/// one way round. Greedy: the largest is taken, then the largest of what remains.
pub(super) fn keepable(region: Region, pieces: &[Region], keep: (Length, Length)) -> Vec<Offcut> {
    let mut taken: Vec<Region> = pieces.to_vec();
    if taken.len() > MOST_EXAMINED {
        let top = taken.iter().map(Region::top).max().unwrap_or(region.y);
        taken = vec![region.split_across(top).0];
    }
    let mut found = Vec::new();
    // A handful of good offcuts is all a maker keeps of one cloth.
    while found.len() < 6 {
        let Some(best) = largest_bare(region, &taken, keep) else { break };
        taken.push(best);
        found.push(Offcut {
            x: Length(best.x),
            y: Length(best.y),
            width: Length(best.width),
            height: Length(best.height),
        });
    }
    found
}

fn worth_keeping(r: &Region, keep: (Length, Length)) -> bool {
    let (a, b) = (keep.0.0, keep.1.0);
    (r.width >= a && r.height >= b) || (r.width >= b && r.height >= a)
}

/// Between any two heights at which something begins or ends, the widest bare stretches over the whole band.
fn largest_bare(region: Region, taken: &[Region], keep: (Length, Length)) -> Option<Region> {
    let mut heights: Vec<i64> = taken.iter().flat_map(|t| [t.y, t.top()]).collect();
    heights.extend([region.y, region.top()]);
    heights.retain(|y| (region.y..=region.top()).contains(y));
    heights.sort_unstable();
    heights.dedup();
    let mut best: Option<Region> = None;
    for (i, &low) in heights.iter().enumerate() {
        for &high in &heights[i + 1..] {
            let mut spans: Vec<(i64, i64)> =
                taken.iter().filter(|t| t.y < high && t.top() > low).map(|t| (t.x, t.right())).collect();
            spans.push((region.right(), region.right()));
            spans.sort_unstable();
            let mut from = region.x;
            for (start, end) in spans {
                let bare = Region { x: from, y: low, width: start - from, height: high - low };
                if bare.width > 0 && worth_keeping(&bare, keep) && best.is_none_or(|b| area(&bare) > area(&b)) {
                    best = Some(bare);
                }
                from = from.max(end);
            }
        }
    }
    best
}

fn area(r: &Region) -> i128 {
    i128::from(r.width) * i128::from(r.height)
}
