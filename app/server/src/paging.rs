//! Lists by pages: so many rows behind a key, so that what is added or removed meanwhile moves nothing.

use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::Deserialize;

/// Most rows of a page.
const MOST: u32 = 500;

/// A page of a list.
#[derive(Debug, Default, Deserialize, utoipa::IntoParams)]
#[serde(deny_unknown_fields)]
pub struct KeyPage {
    /// Only what stands behind this one, the last of the page before: the next page.
    pub after: Option<String>,
    /// Rows, at most 500; 500 when absent.
    #[param(minimum = 1, maximum = 500)]
    pub limit: Option<u32>,
}

impl KeyPage {
    /// The page of a list that stands in its own order.
    ///
    /// # Errors
    /// A [`Problem`] at `limit`, or at `after` where nothing has that key.
    pub fn of<'a, T>(&self, all: &'a [T], key: impl Fn(&T) -> &str) -> Result<&'a [T], Problem> {
        let limit = self.limit.unwrap_or(MOST);
        in_range("limit", f64::from(limit), 1.0, f64::from(MOST), "rows")?;
        let start = match &self.after {
            None => 0,
            Some(after) => all.iter().position(|t| key(t) == after).map(|i| i + 1).ok_or_else(|| {
                Problem::new("after", said("fault-key-not-there"), said("fault-key-of-last"))
            })?,
        };
        let end = start.saturating_add(limit as usize).min(all.len());
        Ok(&all[start..end])
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn page(after: Option<&str>, limit: u32) -> KeyPage {
        KeyPage { after: after.map(str::to_owned), limit: Some(limit) }
    }

    #[test]
    fn pages_follow_each_other_and_leave_nothing_out() {
        let all: Vec<String> = (0..7).map(|i| format!("p{i}")).collect();
        let mut seen: Vec<String> = Vec::new();
        loop {
            let p = page(seen.last().map(String::as_str), 3);
            let next = p.of(&all, String::as_str).unwrap();
            if next.is_empty() {
                break;
            }
            seen.extend(next.iter().cloned());
        }
        assert_eq!(seen, all);
    }

    #[test]
    fn a_key_that_is_not_there_and_a_limit_out_of_range_are_named() {
        let all = vec!["a".to_owned()];
        assert_eq!(page(Some("b"), 3).of(&all, String::as_str).unwrap_err().field, "after");
        assert_eq!(page(None, 0).of(&all, String::as_str).unwrap_err().field, "limit");
        assert_eq!(KeyPage::default().of(&all, String::as_str).unwrap().len(), 1);
    }
}
