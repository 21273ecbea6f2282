//! What is fuzzed. Every target takes bytes, makes of them something that is nearly right (a real document with some values
//! changed, a table with cells changed, a number as a hand might type it), and holds what comes out against what must be so
//! whatever came in: no panic, no number that is none, and what is taken comes back the same when it is written and read again.
//!
//! `fuzz/targets` drives them by coverage; the tests of this crate drive them by chance, for a second each.

mod edited;
mod job;
mod linkage;
mod notation;
mod parts;
mod readings;
mod tables;

pub use job::{bundle, plan};
pub use linkage::geometry;
pub use notation::notation;
pub use parts::parts;
pub use readings::readings;
pub use tables::tables;

/// A target by its name.
pub type Target = (&'static str, fn(&[u8]));

/// Every target.
pub const TARGETS: [Target; 7] = [
    ("geometry", geometry),
    ("parts", parts),
    ("plan", plan),
    ("bundle", bundle),
    ("readings", readings),
    ("tables", tables),
    ("notation", notation),
];

#[cfg(test)]
#[allow(clippy::unwrap_used)]
mod tests {
    use super::TARGETS;
    use rand::{Rng, RngCore, SeedableRng};
    use rand_pcg::Pcg64;
    use std::time::{Duration, Instant};

    #[test]
    fn nothing_that_comes_in_by_chance_breaks_a_target() {
        for (name, target) in TARGETS {
            let mut chance = Pcg64::seed_from_u64(1);
            let until = Instant::now() + Duration::from_secs(1);
            let mut tried = 0;
            while Instant::now() < until || tried < 20 {
                let mut bytes = vec![0; chance.random_range(0..400)];
                chance.fill_bytes(&mut bytes);
                target(&bytes);
                tried += 1;
            }
            assert!(tried >= 20, "{name}");
        }
    }
}
