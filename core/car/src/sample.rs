//! An invented wishbone that unit tests share.

use bold_stance_kinematics::geometry::Geometry;

/// The front axle of the shared case file.
pub(crate) fn sample() -> Geometry {
    Geometry::from_json(include_bytes!("../../kinematics/tests/cases/sample_wishbone.json")).unwrap()
}
