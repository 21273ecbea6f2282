//! Where the axles stand: centring, thrust, set-back, and the floor under them.

use super::convert::Raw;
use super::entries::Given;
use crate::problem::Problem;

/// Plumb lines from the same arch point each side to the tyre: the axle must move by half the difference, to
/// the left when the left distance is larger. The track bar at an angle changes length by shift · cos(angle)
/// (first order: the ride height stays).
pub fn centring(g: &Given) -> Result<Raw, Problem> {
    let (left, right) = (g.num("left")?, g.num("right")?);
    let shift = (left - right) / 2.0;
    let way = if shift > 0.0 { "left" } else { "right" };
    let mut out = Raw::of(shift);
    if shift.abs() > 1e-9 {
        out.notes.push(format!("move the axle {:.1} mm to the {way}", shift.abs()));
    }
    if let Some(a) = g.opt("bar-angle") {
        let bar = shift.abs() * a.to_radians().cos();
        out = out.with("bar_change_mm", "track bar, change of length", bar);
        if shift.abs() > 1e-9 {
            out.notes.push(format!(
                "track bar: longer when its axle end is on the {way}, else shorter, by {bar:.1} mm"
            ));
        }
    }
    Ok(out)
}

/// Thrust angle: half of left minus right rear toe, positive to the right of the centre line.
pub fn thrust(g: &Given) -> Result<Raw, Problem> {
    Ok(Raw::of((g.num("rear-toe-left")? - g.num("rear-toe-right")?) / 2.0))
}

/// One line across the frame to both front hubs: left minus right.
pub fn set_back(g: &Given) -> Result<Raw, Problem> {
    let v = g.num("left")? - g.num("right")?;
    let out = Raw::of(v);
    Ok(match g.opt("track") {
        Some(t) => out.with("angle_deg", "as an angle", (v / t).atan().to_degrees()),
        None => out,
    })
}

/// A drop over a run, positive when it falls to the left.
pub fn floor_slope(g: &Given) -> Result<Raw, Problem> {
    let (drop, run) = (g.num("drop")?, g.num("run")?);
    if run <= 0.0 {
        return Err(Problem::new("run", format!("{run} mm"), "the distance between both marks, above 0"));
    }
    Ok(Raw::of((drop / run).atan().to_degrees()))
}
