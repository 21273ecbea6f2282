//! A PIN: what is typed at the bench, on a device of the shop. Four to eight digits.

use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;

/// Fewest digits.
pub const SHORTEST_PIN: usize = 4;
/// Most digits.
pub const LONGEST_PIN: usize = 8;

/// What is wrong with a PIN at `field`: other than digits, too few, too many, all the same, or counting up or down.
///
/// A device, and a wait after five wrong ones, stand before it (judgement, no source): one in 10 000 is guessed within
/// a working day of 240 tries at most once in forty days; what everybody tries first is refused here.
#[must_use]
pub fn pin_problem(field: &str, pin: &str) -> Option<Problem> {
    let right = || said("fault-pin-right");
    if !pin.bytes().all(|b| b.is_ascii_digit()) {
        return Some(Problem::new(field, said("fault-pin-digits"), right()));
    }
    let n = pin.len();
    if !(SHORTEST_PIN..=LONGEST_PIN).contains(&n) {
        return Some(Problem::new(field, said("fault-pin-length").count("n", n), right()));
    }
    let steps: Vec<i16> = pin.as_bytes().windows(2).map(|w| i16::from(w[1]) - i16::from(w[0])).collect();
    if steps.iter().all(|s| *s == 0) {
        return Some(Problem::new(field, said("fault-pin-same"), right()));
    }
    if steps.iter().all(|s| *s == 1) || steps.iter().all(|s| *s == -1) {
        return Some(Problem::new(field, said("fault-pin-counts"), right()));
    }
    None
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_everybody_tries_first_is_none() {
        for ok in ["4071", "2468", "10204080", "1224"] {
            assert!(pin_problem("pin", ok).is_none(), "{ok}");
        }
        for no in ["", "123", "407a", "٤٠٧١", "0000", "1234", "987654", "123456789", "40 71"] {
            assert_eq!(pin_problem("pin", no).unwrap().field, "pin", "{no}");
        }
    }
}
