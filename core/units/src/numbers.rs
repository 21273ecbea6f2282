//! Numerical tools: roots of one unknown, the edge of where something holds, the least of a hollow. One room for all of them, so
//! that a search for a root reads the same wherever it stands.
//!
//! The methods are those of any textbook (e.g. Press et al., *Numerical Recipes*, chapters 9 and 10). Nothing here knows what
//! its numbers measure.

/// A search by secants: the line through the last two points is followed to where it is zero.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Secant {
    /// A miss that is close enough.
    pub close: f64,
    /// A difference of two misses that gives no slope any more.
    pub flat: f64,
    /// Where the unknown has to stay.
    pub bounds: [f64; 2],
    /// Longest step.
    pub longest: f64,
    /// Most steps.
    pub rounds: usize,
}

/// Where a search ended.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Root<E> {
    /// The unknown.
    pub at: f64,
    /// What is missed there; near zero where a root was found.
    pub miss: f64,
    /// Why the next point could not be looked at, when that ended the search.
    pub stopped: Option<E>,
}

impl Secant {
    /// A search without bounds.
    #[must_use]
    pub const fn to(close: f64, flat: f64, rounds: usize) -> Self {
        Self { close, flat, bounds: [f64::NEG_INFINITY, f64::INFINITY], longest: f64::INFINITY, rounds }
    }

    /// The same inside `[low, high]`.
    #[must_use]
    pub const fn within(mut self, low: f64, high: f64) -> Self {
        self.bounds = [low, high];
        self
    }

    /// The same with no step longer than `longest`.
    #[must_use]
    pub const fn stepping(mut self, longest: f64) -> Self {
        self.longest = longest;
        self
    }

    /// Looks for a root of `miss` from two starts.
    ///
    /// # Errors
    /// That of `miss` at one of the starts; a later one ends the search at the last point that could be looked at.
    pub fn root<E>(
        &self,
        start: [f64; 2],
        mut miss: impl FnMut(f64) -> Result<f64, E>,
    ) -> Result<Root<E>, E> {
        let [mut a, mut b] = start;
        let (mut fa, mut fb) = (miss(a)?, miss(b)?);
        let mut stopped = None;
        for _ in 0..self.rounds {
            if fb.abs() < self.close || (fb - fa).abs() < self.flat {
                break;
            }
            let step = fb * (b - a) / (fb - fa);
            let next = (b - step.clamp(-self.longest, self.longest)).clamp(self.bounds[0], self.bounds[1]);
            match miss(next) {
                Ok(f) => (a, fa, b, fb) = (b, fb, next, f),
                Err(e) => {
                    stopped = Some(e);
                    break;
                }
            }
        }
        Ok(Root { at: b, miss: fb, stopped })
    }
}

/// Newton with a slope by differences. The slope is taken `h` either side, and no step is longer than `longest`; `None` where
/// the slope is under `flat`, the unknown leaves ±`far`, or `rounds` steps do not bring a step under `close`.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Newton {
    /// Half the distance over which the slope is taken.
    pub h: f64,
    /// A step that is close enough.
    pub close: f64,
    /// Smallest slope.
    pub flat: f64,
    /// Longest step.
    pub longest: f64,
    /// How far the unknown may go.
    pub far: f64,
    /// Most steps.
    pub rounds: usize,
}

impl Newton {
    /// The root of `miss` nearest to `start`, when it is found.
    pub fn root(&self, start: f64, miss: impl Fn(f64) -> f64) -> Option<f64> {
        let mut x = start;
        for _ in 0..self.rounds {
            let (f, slope) = (miss(x), (miss(x + self.h) - miss(x - self.h)) / (2.0 * self.h));
            if slope.abs() < self.flat || x.abs() > self.far {
                return None;
            }
            let step = f / slope;
            x -= step.clamp(-self.longest, self.longest);
            if step.abs() < self.close {
                return Some(x);
            }
        }
        None
    }
}

/// Follows what is missed one to one: for an unknown that its measure follows nearly as fast.
#[must_use]
pub fn follow(start: f64, close: f64, rounds: usize, miss: impl Fn(f64) -> f64) -> f64 {
    let mut x = start;
    for _ in 0..rounds {
        let m = miss(x);
        x -= m;
        if m.abs() < close {
            break;
        }
    }
    x
}

/// Halves the way between where something holds and where it does not; gives the last place it held and the first it did not.
#[must_use]
pub fn edge(inside: f64, outside: f64, rounds: usize, mut holds: impl FnMut(f64) -> bool) -> [f64; 2] {
    let (mut inside, mut outside) = (inside, outside);
    for _ in 0..rounds {
        let mid = f64::midpoint(inside, outside);
        if holds(mid) {
            inside = mid;
        } else {
            outside = mid;
        }
    }
    [inside, outside]
}

/// The lowest point of a hollow between two places, by golden section.
#[must_use]
pub fn lowest(low: f64, high: f64, rounds: usize, cost: impl Fn(f64) -> f64) -> f64 {
    let ratio = (5f64.sqrt() - 1.0) / 2.0;
    let (mut a, mut b) = (low, high);
    let (mut x1, mut x2) = (b - ratio * (b - a), a + ratio * (b - a));
    let (mut f1, mut f2) = (cost(x1), cost(x2));
    for _ in 0..rounds {
        if f1 < f2 {
            (b, x2, f2) = (x2, x1, f1);
            x1 = b - ratio * (b - a);
            f1 = cost(x1);
        } else {
            (a, x1, f1) = (x1, x2, f2);
            x2 = a + ratio * (b - a);
            f2 = cost(x2);
        }
    }
    f64::midpoint(a, b)
}

/// Share of a standard normal distribution below `x` (Abramowitz and Stegun, Handbook of Mathematical Functions, 7.1.26, from
/// memory: within 1.5e-7).
#[must_use]
pub fn normal_below(x: f64) -> f64 {
    let z = x.abs() / std::f64::consts::SQRT_2;
    let t = 1.0 / (1.0 + 0.327_591_1 * z);
    let poly = [1.061_405_429, -1.453_152_027, 1.421_413_741, -0.284_496_736, 0.254_829_592];
    let tail = poly.iter().fold(0.0, |sum, c| (sum + c) * t) * (-z * z).exp();
    if x < 0.0 { 0.5 * tail } else { 1.0 - 0.5 * tail }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::convert::Infallible;

    /// Numerical Recipes' example of a smooth function: x³ − 2x − 5 has its root at 2.094 551 481 542 327 (Wallis, 1685).
    const WALLIS: f64 = 2.094_551_481_542_326_5;
    fn wallis(x: f64) -> f64 {
        x * x * x - 2.0 * x - 5.0
    }

    #[test]
    fn every_search_finds_wallis_root() {
        let found =
            Secant::to(1e-13, 1e-16, 30).root([2.0, 2.2], |x| Ok::<_, Infallible>(wallis(x))).unwrap();
        assert!((found.at - WALLIS).abs() < 1e-13 && found.miss.abs() < 1e-12);
        let n = Newton { h: 1e-6, close: 1e-12, flat: 1e-3, longest: 1.0, far: 10.0, rounds: 40 };
        assert!((n.root(2.0, wallis).unwrap() - WALLIS).abs() < 1e-11);
        let [below, above] = edge(2.0, 3.0, 60, |x| wallis(x) < 0.0);
        assert!(below <= WALLIS && WALLIS <= above && above - below < 1e-15 * 4.0);
        // One to one where the slope is one: cos x = x at 0.739 085 133 215 160 6 (Dottie number).
        let dottie = follow(0.7, 1e-14, 200, |x| x - x.cos());
        assert!((dottie - 0.739_085_133_215_160_6).abs() < 1e-13);
    }

    #[test]
    fn the_lowest_point_of_a_hollow_is_found() {
        let at = lowest(-3.0, 5.0, 60, |x| (x - 1.25).powi(2) + 4.0);
        assert!((at - 1.25).abs() < 1e-7, "{at}");
    }

    #[test]
    fn a_search_stays_in_its_bounds_and_says_where_it_was_stopped() {
        let s = Secant::to(1e-12, 1e-15, 20).within(0.0, 2.0);
        let held = s.root([0.5, 1.0], |x| Ok::<_, Infallible>(x - 3.0)).unwrap();
        assert_eq!((held.at, held.miss), (2.0, -1.0));
        let slow = Secant::to(1e-12, 1e-15, 2).stepping(0.25);
        assert_eq!(slow.root([0.0, 1.0], |x| Ok::<_, Infallible>(x - 3.0)).unwrap().at, 1.5);
        let wall = |x: f64| if x > 1.5 { Err("no further") } else { Ok(x - 3.0) };
        let stopped = Secant::to(1e-12, 1e-15, 20).root([0.5, 1.0], wall).unwrap();
        assert_eq!((stopped.at, stopped.stopped), (1.0, Some("no further")));
        assert_eq!(Secant::to(1e-12, 1e-15, 20).root([2.0, 1.0], wall), Err("no further"));
        let flat = Newton { h: 1e-6, close: 1e-12, flat: 1e-3, longest: 1.0, far: 10.0, rounds: 40 };
        assert_eq!(flat.root(1.0, |_| 1.0), None);
    }

    /// Quantiles of the standard normal distribution (NIST/SEMATECH e-Handbook, table 1.3.6.7.1).
    #[test]
    fn the_normal_distribution_is_the_tables() {
        for (x, below) in
            [(0.0, 0.5), (1.0, 0.841_345), (1.645, 0.950_015), (2.326, 0.989_991), (-1.96, 0.024_998)]
        {
            assert!((normal_below(x) - below).abs() < 2e-6, "{x}");
        }
    }
}
