//! How good a lay is, by the aim: compared entry by entry, less is better.

use super::answer::Lay;
use super::bin::Bin;
use super::job::{Aim, Job, JobPiece};
use crate::cloth::Cloth;
use crate::measure::Length;

/// What a lay comes to on one bin.
#[derive(Clone, Copy, Debug, Default)]
pub(super) struct Use {
    /// How far up it goes; 0 when nothing lies there.
    pub length: i64,
    /// It cannot be cut edge to edge.
    pub non_guillotine: bool,
    /// Area of the pieces, in square inches.
    pub area: f64,
    /// The largest whole rectangle left, in square inches.
    pub whole_left: f64,
    /// Places down the pieces' lists of cloths, summed over copies: see [`place_in_list`].
    pub down_the_list: u64,
}

/// Less is better.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub(super) struct Rank([i64; 9], bool);

impl Rank {
    /// Worse than any lay.
    pub(super) const WORST: Self = Self([i64::MAX; 9], false);

    /// All lies, and nothing is bought.
    pub(super) fn costs_nothing(&self) -> bool {
        self.1 && self.0[0] == 0
    }

    /// The rank of a lay that uses `bins` as `uses` says and leaves out pieces of area `unplaced` (square inches).
    pub(super) fn of(job: &Job, bins: &[Bin], uses: &[Use], unplaced: f64) -> Self {
        let (mut cost, mut bought, mut needed, mut non_guillotine, mut list) = (0_i64, 0_i64, 0_i64, 0_i64, 0_i64);
        let mut owned_list = 0_i64;
        let (mut on_remnants, mut whole_left, mut opened) = (0.0, 0.0_f64, 0_i64);
        for (bin, used) in bins.iter().zip(uses) {
            if used.length <= 0 {
                // What is not begun stays whole.
                let whole = bin.limit.filter(|_| bin.owned).map_or(0.0, |l| bin.width as f64 * l as f64);
                whole_left = whole_left.max(square_inches(whole));
                continue;
            }
            let cloth = &job.cloths[bin.cloth];
            let length = cloth.needed_length(Length(used.length));
            let buy = cloth.buy_length(length);
            cost += cloth.cost(buy).0;
            if !cloth.owned {
                bought += buy.0;
            }
            // A remnant that is begun is used up for most purposes.
            opened += i64::from(bin.remnant);
            needed += used.length;
            non_guillotine += i64::from(used.non_guillotine);
            if cloth.owned {
                owned_list += used.down_the_list as i64;
            } else {
                list += used.down_the_list as i64;
            }
            if bin.remnant {
                on_remnants += used.area;
            }
            whole_left = whole_left.max(used.whole_left);
        }
        let hundredths = |area: f64| (area * 100.0).ceil() as i64;
        let left = hundredths(unplaced);
        let buy = [cost, bought];
        let rank = match job.rules.aim {
            Aim::BuyLeast => [left, list, buy[0], buy[1], owned_list, opened, non_guillotine, needed, 0],
            Aim::FewCuts => [left, non_guillotine, list, buy[0], buy[1], owned_list, opened, needed, 0],
            Aim::KeepBig => {
                [left, list, buy[0], buy[1], -hundredths(whole_left), owned_list, opened, needed, non_guillotine]
            }
            Aim::ScrapsFirst => {
                [left, -hundredths(on_remnants), list, buy[0], buy[1], owned_list, opened, non_guillotine, needed]
            }
            Aim::FreshCloth => {
                [left, hundredths(on_remnants), list, buy[0], buy[1], owned_list, opened, non_guillotine, needed]
            }
        };
        Self(rank, bought == 0)
    }
}

/// Whether a finished lay of `job` is better than another: more placed, then cheaper, then less bought, then simpler
/// cuts, then shorter.
pub fn better(job: &Job, a: &Lay, b: &Lay) -> bool {
    let rank = |l: &Lay| {
        let left: u32 = l.unplaced.iter().map(|u| u.count).sum();
        let non_guillotine = l.cloths.iter().filter(|c| !c.through).count();
        let needed = l.cloths.iter().map(|c| c.needed_length.0).sum::<i64>();
        (left, l.cost, job.bought(l), non_guillotine, needed)
    };
    rank(a) < rank(b)
}

/// How far down a piece's list `cloth` stands, counted among those that are bought as it is, or owned as it is: what
/// is owned comes before what is bought, and the maker's own order decides among the rest.
pub(super) fn place_in_list(job: &Job, piece: &JobPiece, cloth: &Cloth) -> u64 {
    if piece.any_cloth {
        return 0;
    }
    let alike = |id: &&String| job.cloth(id).is_some_and(|c| c.owned == cloth.owned);
    piece.cloths.iter().filter(alike).position(|id| *id == cloth.id).unwrap_or(0) as u64
}

/// Square inches of an area in square units.
pub(super) fn square_inches(area: f64) -> f64 {
    let inch = Length::INCH.0 as f64;
    area / (inch * inch)
}
