//! How long a shop waits: for somebody who left the bench, and before what is personal goes.

use bold_stance_units::problem::{Problem, in_range};
use serde::{Deserialize, Serialize};

/// What the owner sets about trust.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct TrustSettings {
    /// Minutes after which the bench locks when nobody touches it.
    #[cfg_attr(feature = "openapi", schema(minimum = 1, maximum = 240))]
    pub lock_minutes: u16,
    /// Months after a job was closed or put away until what is personal of it goes; never when absent.
    #[cfg_attr(feature = "openapi", schema(minimum = 1, maximum = 240))]
    pub keep_months: Option<u16>,
}

impl Default for TrustSettings {
    /// Five minutes (judgement, no source); kept until the owner says otherwise.
    fn default() -> Self {
        Self { lock_minutes: 5, keep_months: None }
    }
}

impl TrustSettings {
    /// What is out of range, by field under `at`.
    #[must_use]
    pub fn problems(&self, at: &str) -> Vec<Problem> {
        let mut out = Vec::new();
        let field = |f: &str| format!("{at}{f}");
        out.extend(
            in_range(&field("lock_minutes"), f64::from(self.lock_minutes), 1.0, 240.0, "minutes").err(),
        );
        if let Some(m) = self.keep_months {
            out.extend(in_range(&field("keep_months"), f64::from(m), 1.0, 240.0, "months").err());
        }
        out
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_is_checked_at_its_field() {
        assert!(TrustSettings::default().problems("").is_empty());
        let t = TrustSettings { lock_minutes: 0, keep_months: Some(999) };
        let fields: Vec<String> = t.problems("trust.").into_iter().map(|p| p.field).collect();
        assert_eq!(fields, ["trust.lock_minutes", "trust.keep_months"]);
    }
}
