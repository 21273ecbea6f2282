//! What is wrong with an axle that can be seen without moving it.

use super::points::Points;
use super::say::Say;
use super::{Geometry, WheelAtDesign};
use crate::Vec3;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};

/// Problems of one side; `at` is put before every field.
pub(super) fn side_problems(at: &str, points: &Points, w: &WheelAtDesign, out: &mut Vec<Problem>) {
    let before = out.len();
    let whole = points.layout().is_whole_axle();
    let mut check = |r: Result<(), Problem>| out.extend(r.err());
    for (name, v) in points.named() {
        for (axis, c) in ["x", "y", "z"].iter().zip(v) {
            let low = if *axis == "x" || (whole && *axis == "y") { -6000.0 } else { -50.0 };
            check(in_range(&format!("{at}{name}.{axis}"), c, low, 6000.0, "mm"));
        }
    }
    for (axis, c) in ["x", "y", "z"].iter().zip(w.center) {
        let low = if *axis == "x" { -6000.0 } else { 50.0 };
        check(in_range(&format!("{at}wheel.center.{axis}"), c, low, 6000.0, "mm"));
    }
    check(in_range(&format!("{at}wheel.camber_deg"), w.camber_deg, -20.0, 20.0, "°"));
    check(in_range(&format!("{at}wheel.toe_deg"), w.toe_deg, -20.0, 20.0, "°"));
    check(in_range(&format!("{at}wheel.loaded_radius_mm"), w.loaded_radius_mm, 100.0, 1000.0, "mm"));
    for r in points.ranges() {
        check(r);
    }
    if out.len() > before {
        return;
    }
    points.faults(w, &mut Say { at, out });
}

impl Geometry {
    /// A tyre that does not meet z = 0 within 1 mm, as a remark.
    #[must_use]
    pub fn remarks(&self) -> Vec<Said> {
        let w = &self.wheel;
        let spin = crate::wheel::spin_axis(w.camber_deg.to_radians(), w.toe_deg.to_radians());
        let z = crate::wheel::contact_point(&Vec3::from(w.center), &spin, w.loaded_radius_mm).z;
        if z.abs() > 1.0 { vec![said("remark-off-ground").fine_mm("z", z)] } else { Vec::new() }
    }
}
