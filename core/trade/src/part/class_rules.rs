//! The rule book of a racing class: what may not be moved, cut, welded or made spherical.

use super::{Part, Rule};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// A rule book, as far as parts have to know.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ClassRules {
    /// What the class is called.
    pub name: String,
    /// What it forbids.
    #[serde(default)]
    pub forbid: Vec<Rule>,
}

/// Most rule books of a shop.
const MOST_BOOKS: usize = 40;

impl ClassRules {
    /// The first of its rules that a part breaks.
    #[must_use]
    pub fn broken_by(&self, p: &Part) -> Option<Rule> {
        p.rules.iter().find(|r| self.forbid.contains(r)).copied()
    }

    /// What is wrong with it, by field under `at`.
    #[must_use]
    pub fn problems(&self, at: &str) -> Vec<Problem> {
        let n = self.name.trim().chars().count();
        if (1..=80).contains(&n) {
            return Vec::new();
        }
        let wrong = if n == 0 { said("nothing-entered") } else { said("fault-characters").count("n", n) };
        vec![Problem::new(format!("{at}name"), wrong, said("fault-characters-right").count("n", 80))]
    }
}

/// What is wrong with the rule books of a shop, by field under `at`: each has a name of its own.
#[must_use]
pub fn rule_books_problems(books: &[ClassRules], at: &str) -> Vec<Problem> {
    let mut out = Vec::new();
    for (i, b) in books.iter().enumerate() {
        let own = format!("{at}{i}.");
        out.extend(b.problems(&own));
        if books[..i].iter().any(|a| a.name.trim() == b.name.trim()) {
            let wrong = said("fault-named-twice");
            out.push(Problem::new(format!("{own}name"), wrong, said("fault-another-name")));
        }
    }
    if books.len() > MOST_BOOKS {
        out.push(Problem::new(at.trim_end_matches('.'), said("fault-too-many"), said("fault-shorter-list")));
    }
    out
}
