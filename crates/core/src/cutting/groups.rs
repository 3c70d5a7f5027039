//! Pieces whose boxes overlap, as shaped pieces that nest do, taken together: no straight cut parts them.

use crate::lay::Region;

/// Pieces that share a box. The boxes of two groups do not overlap.
#[derive(Clone, Debug)]
pub(super) struct Group {
    /// The box around all of them.
    pub(super) around: Region,
    /// Their indices, ascending.
    pub(super) pieces: Vec<usize>,
}

/// The groups of `boxes`: those that overlap are joined until no two boxes do.
pub(super) fn groups_of(boxes: &[Region]) -> Vec<Group> {
    let mut groups: Vec<Group> =
        boxes.iter().enumerate().map(|(n, around)| Group { around: *around, pieces: vec![n] }).collect();
    loop {
        let before = groups.len();
        groups = joined(groups);
        if groups.len() == before {
            groups.sort_by_key(|g| g.pieces[0]);
            return groups;
        }
    }
}

/// Each group with the first one it overlaps, swept from the near edge to the far one.
fn joined(mut groups: Vec<Group>) -> Vec<Group> {
    groups.sort_by_key(|g| (g.around.y, g.around.x));
    let mut done: Vec<Group> = Vec::with_capacity(groups.len());
    let mut open: Vec<Group> = vec![];
    for mut group in groups {
        let (mut still_open, mut passed): (Vec<Group>, Vec<Group>) =
            open.into_iter().partition(|o| o.around.top() > group.around.y);
        done.append(&mut passed);
        while let Some(at) = still_open.iter().position(|o| overlap(&o.around, &group.around)) {
            let other = still_open.swap_remove(at);
            group.around = around_both(&group.around, &other.around);
            group.pieces.extend(other.pieces);
            group.pieces.sort_unstable();
        }
        still_open.push(group);
        open = still_open;
    }
    done.append(&mut open);
    done
}

/// Whether two boxes share more than an edge.
pub(super) const fn overlap(a: &Region, b: &Region) -> bool {
    a.x < b.right() && b.x < a.right() && a.y < b.top() && b.y < a.top()
}

fn around_both(a: &Region, b: &Region) -> Region {
    let (x, y) = (a.x.min(b.x), a.y.min(b.y));
    Region { x, y, width: a.right().max(b.right()) - x, height: a.top().max(b.top()) - y }
}
