//! Where the axles stand: centring, thrust, set-back, and the floor under them.

use super::entries::Given;
use super::raw::Raw;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;

/// Plumb lines from the same arch point each side to the tyre: the axle must move by half the difference, to
/// the left when the left distance is larger. The track bar at an angle changes length by shift · cos(angle)
/// (first order: the ride height stays).
pub fn centring(g: &Given) -> Result<Raw, Problem> {
    let (left, right) = (g.num("left")?, g.num("right")?);
    let shift = (left - right) / 2.0;
    let way = if shift > 0.0 { "left" } else { "right" };
    let mut out = Raw::of(shift);
    if shift.abs() > 1e-9 {
        out.notes.push(said("note-move-axle").fine_mm("by", shift.abs()).word("way", way));
    }
    if let Some(a) = g.opt("bar-angle") {
        let bar = shift.abs() * a.to_radians().cos();
        out = out.with("bar_change_mm", said("also-track-bar"), bar);
        if shift.abs() > 1e-9 {
            out.notes.push(said("note-track-bar").word("way", way).fine_mm("by", bar));
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
        Some(t) => out.with("angle_deg", said("also-angle"), (v / t).atan().to_degrees()),
        None => out,
    })
}

/// A drop over a run, positive when it falls to the left.
pub fn floor_slope(g: &Given) -> Result<Raw, Problem> {
    let (drop, run) = (g.num("drop")?, g.num("run")?);
    if run <= 0.0 {
        return Err(Problem::new("run", said("just-mm").fine_mm("value", run), said("run-right")));
    }
    Ok(Raw::of((drop / run).atan().to_degrees()))
}
