//! Depths at which a tyre is done, by region. Data; local law decides.

use bold_stance_units::problem::{Problem, in_range, parse_json};
use serde::{Deserialize, Serialize};

/// A limit to choose.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct TreadLimit {
    /// Id.
    pub id: String,
    /// Region, or whose limit it is.
    pub name: String,
    /// Depth, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.5, maximum = 6.0))]
    pub limit_mm: f64,
    /// Depth that is asked or advised in winter, mm.
    pub winter_mm: f64,
    /// Where it comes from.
    pub law: String,
    /// What to tell the owner.
    pub advice: String,
}

/// The shipped limits.
///
/// # Errors
/// A [`Problem`] of the shipped file.
pub fn shipped_limits() -> Result<Vec<TreadLimit>, Problem> {
    let list: Vec<TreadLimit> = parse_json(include_bytes!("../../../data/tread_limits.json"))?;
    for (i, l) in list.iter().enumerate() {
        in_range(&format!("{i}.limit_mm"), l.limit_mm, 0.5, 6.0, "mm")?;
        in_range(&format!("{i}.winter_mm"), l.winter_mm, l.limit_mm, 8.0, "mm")?;
    }
    Ok(list)
}
