//! Where a planned height cannot be reached, and what stops it.

use bold_stance_kinematics::linkage::Loop;
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// The planned height cannot be reached: the answer is worked out at the last good height instead.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Stop {
    /// The height gain asked for, mm.
    pub asked_mm: f64,
    /// The height gain the answer is for, mm.
    pub used_mm: f64,
    /// Which loop stops, and where.
    pub words: Said,
}

/// Which loop stops, and at which height gain, mm.
pub(crate) fn stopped(blocked: Loop, limit_mm: f64) -> Said {
    said("stop").word("what", blocked.word()).change_mm("at", limit_mm)
}
