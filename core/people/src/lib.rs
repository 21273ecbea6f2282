//! Who works in a shop: roles and what each may do, PINs and passphrases, how long a shop waits for whom.
//!
//! Pure rules: who somebody is is found out elsewhere.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

mod passphrase;
mod pin;
mod role;
mod settings;

pub use passphrase::{LEAST_PASSPHRASE, passphrase_problem};
pub use pin::{LONGEST_PIN, SHORTEST_PIN, pin_problem};
pub use role::{Act, Role};
pub use settings::TrustSettings;

use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;

/// Longest name of a member, of a device or to sign in with, characters.
pub const NAME_LIMIT: usize = 60;

/// What is wrong with a name at `field`: nothing in it, too long, or a character that cannot be kept.
#[must_use]
pub fn name_problem(field: &str, name: &str) -> Option<Problem> {
    let n = name.trim().chars().count();
    if n == 0 {
        return Some(Problem::new(field, said("fault-nobody-named"), said("fault-name-as-called")));
    }
    if n > NAME_LIMIT || name.chars().any(char::is_control) {
        let wrong = said("fault-characters").count("n", n);
        return Some(Problem::new(field, wrong, said("fault-characters-right").count("n", NAME_LIMIT)));
    }
    None
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_name_has_something_in_it() {
        assert!(name_problem("name", "Specialist A").is_none());
        for no in ["", "   ", "a\nb", &"x".repeat(61)] {
            assert_eq!(name_problem("name", no).unwrap().field, "name", "{no:?}");
        }
    }
}
