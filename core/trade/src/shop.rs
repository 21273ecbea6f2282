//! What a shop types once: its labour rate, its currency, the rule books of the classes it works for.

use crate::part::{ClassRules, rule_books_problems};
use crate::plan::USUAL_RATE;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// Whether the figures of the parts are what the shop pays or what it asks.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Figures {
    /// What the owner of the car pays.
    #[default]
    Price,
    /// What the shop pays.
    Cost,
}

/// Settings of a shop.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct ShopSettings {
    /// An hour of labour, in its currency.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 10_000.0))]
    pub labour_rate: f64,
    /// What stands before or behind an amount of money; nothing when empty.
    pub currency: String,
    /// What the figures of its parts are.
    pub figures: Figures,
    /// Rule books of the classes it works for.
    pub rule_books: Vec<ClassRules>,
}

impl Default for ShopSettings {
    fn default() -> Self {
        Self {
            labour_rate: USUAL_RATE,
            currency: String::new(),
            figures: Figures::default(),
            rule_books: Vec::new(),
        }
    }
}

impl ShopSettings {
    /// What is out of range, by field under `at`.
    #[must_use]
    pub fn problems(&self, at: &str) -> Vec<Problem> {
        let field = |f: &str| format!("{at}{f}");
        let mut out = Vec::new();
        out.extend(in_range(&field("labour_rate"), self.labour_rate, 0.0, 10_000.0, "an hour").err());
        let n = self.currency.chars().count();
        if n > 6 || self.currency.contains('\0') {
            let right = said("fault-characters-right").count("n", 6);
            out.push(Problem::new(field("currency"), said("fault-characters").count("n", n), right));
        }
        out.extend(rule_books_problems(&self.rule_books, &field("rule_books.")));
        out
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::part::Rule;

    #[test]
    fn each_setting_is_checked_at_its_field() {
        assert!(ShopSettings::default().problems("").is_empty());
        let book = |name: &str| ClassRules { name: name.into(), forbid: vec![Rule::Cutting] };
        let s = ShopSettings {
            labour_rate: -1.0,
            currency: "shillings".into(),
            rule_books: vec![book("Street"), book(" Street "), book("")],
            ..ShopSettings::default()
        };
        let fields: Vec<String> = s.problems("settings.").into_iter().map(|p| p.field).collect();
        for f in ["labour_rate", "currency", "rule_books.1.name", "rule_books.2.name"] {
            assert!(fields.contains(&format!("settings.{f}")), "{f}: {fields:?}");
        }
    }
}
