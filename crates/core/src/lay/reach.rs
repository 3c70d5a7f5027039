//! Which widths the pieces still to be laid can add up to: a place whose width none of them reaches wastes cloth.

/// Sums up to a limit, one bit each, in steps of a common divisor.
#[derive(Clone, Debug, Default)]
pub(in crate::lay) struct Reach {
    bits: Vec<u64>,
    limit: usize,
}

impl Reach {
    /// Starts over with nothing but the sum 0 and sums up to `limit`.
    pub(in crate::lay) fn start(&mut self, limit: usize) {
        self.limit = limit;
        self.bits.clear();
        self.bits.resize(limit / 64 + 1, 0);
        self.bits[0] = 1;
    }

    /// Adds a piece that measures one of `sizes`, or stays out.
    pub(in crate::lay) fn add(&mut self, sizes: &[usize]) {
        for word in (0..self.bits.len()).rev() {
            let mut shifted = 0;
            for &size in sizes {
                let (words, bits) = (size / 64, size % 64);
                if word < words {
                    continue;
                }
                shifted |= self.bits[word - words] << bits;
                if bits > 0 && word > words {
                    shifted |= self.bits[word - words - 1] >> (64 - bits);
                }
            }
            self.bits[word] |= shifted;
        }
    }

    /// Adds a piece that takes anything up to `most`.
    pub(in crate::lay) fn add_up_to(&mut self, most: usize) {
        let mut filled = 0;
        while filled < most {
            let step = (filled + 1).min(most - filled);
            self.add(&[step]);
            filled += step;
        }
    }

    /// The largest sum that is at most `most` (and at most the limit), lengths counted in `step`s.
    pub(in crate::lay) fn largest(&self, most: i64, step: i64) -> i64 {
        let most = ((most / step) as usize).min(self.limit);
        let mut word = most / 64;
        let mut here = self.bits[word] & (u64::MAX >> (63 - most % 64));
        loop {
            if here != 0 {
                return (word * 64 + 63 - here.leading_zeros() as usize) as i64 * step;
            }
            if word == 0 {
                return 0;
            }
            word -= 1;
            here = self.bits[word];
        }
    }

    /// The smallest sum that is at least `least`, if there is one up to the limit.
    pub(in crate::lay) fn smallest(&self, least: i64, step: i64) -> Option<i64> {
        let first = ((least + step - 1) / step) as usize;
        let sum = (first..=self.limit).find(|&n| self.bits[n / 64] >> (n % 64) & 1 == 1)?;
        Some(sum as i64 * step)
    }
}

#[cfg(test)]
mod tests {
    use super::Reach;

    #[test]
    fn sums_are_those_of_some_choice_of_sizes() {
        let mut reach = Reach::default();
        reach.start(200);
        for sizes in [[70, 90].as_slice(), &[5], &[64]] {
            reach.add(sizes);
        }
        let mut sums = vec![];
        for most in 0..=200_i64 {
            if reach.largest(most, 1) == most {
                sums.push(most);
            }
        }
        let upwards: Vec<i64> = (0..=200).filter(|&least| reach.smallest(least, 1) == Some(least)).collect();
        assert_eq!(upwards, sums);
        assert_eq!(sums, [0, 5, 64, 69, 70, 75, 90, 95, 134, 139, 154, 159]);
    }

    #[test]
    fn what_takes_anything_fills_up_to_its_most() {
        let mut reach = Reach::default();
        reach.start(100);
        reach.add(&[40]);
        reach.add_up_to(13);
        let sums: Vec<i64> = (0..=100).filter(|&n| reach.largest(n, 1) == n).collect();
        assert_eq!(sums, (0..=13).chain(40..=53).collect::<Vec<i64>>());
    }
}
