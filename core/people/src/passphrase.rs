//! A passphrase: what is typed from anywhere else. Twelve characters or more, none that everybody uses.

use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;

/// Fewest characters.
pub const LEAST_PASSPHRASE: usize = 12;
/// Most characters: more is no passphrase but an attempt at the server's time.
const MOST: usize = 256;

/// Passphrases of twelve characters and more that lists of leaked ones begin with, and words such lists are made of; from
/// memory. Small letters, letters and digits only.
const COMMON: [&str; 46] = [
    "password",
    "passwort",
    "letmein",
    "welcome",
    "qwertyuiop",
    "qwertzuiop",
    "azertyuiop",
    "asdfghjkl",
    "zxcvbnm",
    "qazwsxedc",
    "1q2w3e4r5t6y",
    "1qaz2wsx3edc",
    "iloveyou",
    "administrator",
    "trustno1",
    "sunshine",
    "princess",
    "football",
    "baseball",
    "superman",
    "batman",
    "dragon",
    "monkey",
    "master",
    "shadow",
    "michael",
    "jennifer",
    "charlie",
    "whatever",
    "starwars",
    "computer",
    "internet",
    "samsung",
    "pokemon",
    "cheese",
    "banana",
    "summer",
    "winter",
    "spring",
    "autumn",
    "changeme",
    "secret",
    "correcthorsebatterystaple",
    "boldstance",
    "alignment",
    "camber",
];

/// What is wrong with a passphrase at `field` for somebody who signs in as `login`.
#[must_use]
pub fn passphrase_problem(field: &str, phrase: &str, login: &str) -> Option<Problem> {
    let right = || said("fault-passphrase-right").count("n", LEAST_PASSPHRASE);
    let n = phrase.chars().count();
    if n < LEAST_PASSPHRASE {
        return Some(Problem::new(field, said("fault-passphrase-short").count("n", n), right()));
    }
    if n > MOST || phrase.contains('\0') {
        return Some(Problem::new(field, said("fault-characters").count("n", n), right()));
    }
    let plain = |s: &str| -> String { s.to_lowercase().chars().filter(|c| c.is_alphanumeric()).collect() };
    let mut rest = plain(phrase);
    // What is left when the well-known words, the own name and what is only counted up are taken out has to carry it.
    let own = plain(login);
    for word in COMMON.iter().copied().chain((own.chars().count() > 2).then_some(own.as_str())) {
        rest = rest.replace(word, "");
    }
    let others: std::collections::BTreeSet<char> = rest.chars().filter(|c| !c.is_ascii_digit()).collect();
    if others.len() < 4 {
        return Some(Problem::new(field, said("fault-passphrase-common"), right()));
    }
    None
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn common_ones_and_short_ones_are_refused() {
        for ok in
            ["gravel over the north gate", "seventeen blue trestles", "vB7#qLmm29xTr", "Ölkanne am Fenster 9"]
        {
            assert!(passphrase_problem("p", ok, "owner").is_none(), "{ok}");
        }
        for no in [
            "",
            "shorter one",
            "passwordpassword",
            "Password123456",
            "qwertyuiop12345",
            "aaaaaaaaaaaa",
            "123456789012",
            "specialista2026",
            "letmein letmein",
            "Welcome-2026!",
            "abababababab",
            "correct horse battery staple",
        ] {
            assert_eq!(passphrase_problem("p", no, "Specialist A").unwrap().field, "p", "{no}");
        }
        assert!(passphrase_problem("p", &"long words ".repeat(40), "o").is_some());
    }
}
