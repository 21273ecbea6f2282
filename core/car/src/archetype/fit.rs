//! The most probable shape of an archetype given what the tape said.

use super::{Archetype, Measure};
use crate::fit::estimate::{estimate, expected_spread, jacobian};
use crate::fit::{Knowledge, spreads};
use bold_stance_kinematics::geometry::{Axle, Geometry, Points, WheelAtDesign};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use nalgebra::DVector;
use serde::{Deserialize, Serialize};

/// How far the whole shape may be off in each direction, as a share (judgement, no source).
const SCALE: f64 = 0.10;
/// One measurement as taken.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Taped {
    /// What was measured.
    pub measure: Measure,
    /// mm, or degrees.
    pub value: f64,
}

/// How a measurement came out.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TapedResult {
    /// What was measured.
    pub measure: Measure,
    /// As taken, mm or degrees.
    pub taped: f64,
    /// On the fitted shape.
    pub fitted: f64,
    /// Further off than the tape and the shape allow (more than three standard deviations): measure again.
    pub odd: bool,
}

/// A scaled archetype.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Fitted {
    /// The shape.
    pub geometry: Geometry,
    /// Every measurement against it.
    pub measures: Vec<TapedResult>,
}

/// One direction the shape may move in: a scale or the error of some coordinates.
enum Way {
    Scale(usize),
    Shift(Vec<(usize, [f64; 3])>),
}

struct Shape {
    points: Points,
    wheel: WheelAtDesign,
}

fn ways(points: &Points) -> Vec<(Way, f64)> {
    let mut out: Vec<(Way, f64)> = (0..3).map(|axis| (Way::Scale(axis), SCALE)).collect();
    let mirror = points.mirrors();
    for s in spreads(points, Knowledge::Archetype) {
        let mirrored: Vec<(usize, [f64; 3])> = s
            .points
            .iter()
            .filter_map(|(i, [x, y, z])| Some((mirror.get(*i).copied().flatten()?, [*x, -y, *z])))
            .collect();
        // Each pair once: the tape is read on one side, and both are taken to be alike.
        let first = |list: &[(usize, [f64; 3])]| list.first().map(|(i, _)| *i);
        if first(&mirrored).is_some_and(|m| Some(m) < first(&s.points)) {
            continue;
        }
        out.push((Way::Shift(s.points.into_iter().chain(mirrored).collect()), s.sigma_mm));
    }
    out
}

fn shaped(base: &Shape, ways: &[(Way, f64)], theta: &DVector<f64>) -> Shape {
    let mut points = base.points.clone();
    let mut wheel = base.wheel.clone();
    let centre = base.wheel.center;
    {
        let mut all = points.all_mut();
        for ((way, _), t) in ways.iter().zip(theta.iter()) {
            if let Way::Shift(points) = way {
                for (i, way) in points {
                    if let Some(p) = all.get_mut(*i) {
                        for (c, w) in p.iter_mut().zip(way) {
                            *c += t * w;
                        }
                    }
                }
            }
        }
        for ((way, _), t) in ways.iter().zip(theta.iter()) {
            if let Way::Scale(axis) = way {
                // y about the centre line, x and z about the wheel centre.
                let about = if *axis == 1 { 0.0 } else { centre[*axis] };
                for p in &mut all {
                    p[*axis] = about + (p[*axis] - about) * (1.0 + t);
                }
                if *axis == 1 {
                    wheel.center[1] *= 1.0 + t;
                }
            }
        }
    }
    Shape { points, wheel }
}

/// Fits an archetype to what was taped. `wheelbase_mm` places a rear axle.
///
/// # Errors
/// A [`Problem`] at `taped.N` for a measurement this layout has not or a value far from any car of its kind.
pub fn fit_archetype(a: &Archetype, taped: &[Taped], wheelbase_mm: f64) -> Result<Fitted, Vec<Problem>> {
    let mut problems = Vec::new();
    let own = a.measures();
    for (i, t) in taped.iter().enumerate() {
        let field = format!("taped.{i}.value");
        match own.iter().find(|(m, _)| *m == t.measure) {
            None => problems.push(Problem::new(
                format!("taped.{i}.measure"),
                said("fault-no-measure").name("what", t.measure.words()),
                said("fault-one-measurements-listed-shape"),
            )),
            Some(_) if t.measure.is_angle() => {
                problems
                    .extend(bold_stance_units::problem::in_range(&field, t.value, -45.0, 45.0, "°").err());
            }
            Some((_, v)) => {
                problems.extend(
                    bold_stance_units::problem::in_range(&field, t.value, 0.5 * v, 1.8 * v, "mm").err(),
                );
            }
        }
        if taped.iter().take(i).any(|u| u.measure == t.measure) {
            problems.push(Problem::new(
                field,
                said("fault-measured-twice"),
                said("fault-each-measurement-once-mean-both"),
            ));
        }
    }
    problems.extend(
        bold_stance_units::problem::in_range("wheelbase_mm", wheelbase_mm, 1000.0, 8000.0, "mm").err(),
    );
    if !problems.is_empty() {
        return Err(problems);
    }
    let mut base = Shape { points: a.geometry.points.clone(), wheel: a.geometry.wheel.clone() };
    // A larger tyre lifts the axle and all that hangs on it.
    if let Some(r) = taped.iter().find(|t| t.measure == Measure::WheelRadius) {
        let up = r.value - base.wheel.center[2];
        for p in base.points.all_mut() {
            p[2] += up;
        }
        base.wheel.center[2] = r.value;
        base.wheel.loaded_radius_mm = r.value / base.wheel.camber_deg.to_radians().cos();
    }
    let along = match a.geometry.axle {
        Axle::Front => -base.wheel.center[0],
        Axle::Rear => -wheelbase_mm - base.wheel.center[0],
    };
    for p in base.points.all_mut() {
        p[0] += along;
    }
    base.wheel.center[0] += along;
    if let Points::TwistBeam(b) = &mut base.points
        && let Some(s) = &mut b.shear_center
    {
        s[0] += along;
    }
    let used: Vec<Taped> = taped.iter().copied().filter(|t| t.measure != Measure::WheelRadius).collect();
    let ways = ways(&base.points);
    let sigma: Vec<f64> = ways.iter().map(|(_, s)| *s).collect();
    let noise: Vec<f64> = used.iter().map(|t| t.measure.sigma()).collect();
    let read = |theta: &DVector<f64>| -> Option<DVector<f64>> {
        let s = shaped(&base, &ways, theta);
        let of = |t: &Taped| t.measure.of(&s.points, &s.wheel).unwrap_or(t.value);
        Some(DVector::from_iterator(used.len(), used.iter().map(of)))
    };
    let wanted = DVector::from_iterator(used.len(), used.iter().map(|t| t.value));
    let mut theta = DVector::zeros(ways.len());
    let mut odd = vec![false; used.len()];
    if let Some(here) = read(&theta).filter(|_| !used.is_empty()) {
        if let Some(h) = jacobian(&theta, &sigma, &here, &read) {
            let spread = expected_spread(&h, &sigma, &noise);
            odd = (0..used.len()).map(|i| (wanted[i] - here[i]).abs() > 3.0 * spread[i]).collect();
        }
        if let Some(e) = estimate(&sigma, &noise, &wanted, &read) {
            theta = e.theta;
        }
    }
    let shape = shaped(&base, &ways, &theta);
    let measures = taped
        .iter()
        .map(|t| TapedResult {
            measure: t.measure,
            taped: t.value,
            fitted: t.measure.of(&shape.points, &shape.wheel).unwrap_or(t.value),
            odd: used.iter().zip(&odd).any(|(u, o)| u.measure == t.measure && *o),
        })
        .collect();
    let geometry = Geometry { points: shape.points, wheel: shape.wheel, ..a.geometry.clone() };
    // A tape that contradicts itself can pull the joints of a part together.
    let broken = bold_stance_kinematics::linkage::problems(&geometry);
    if let Some(p) = broken.into_iter().next() {
        return Err(vec![Problem::new(
            "taped",
            said("fit-none-has").say("why", p.wrong),
            said("fault-measurements-marked-odd-taken-again"),
        )]);
    }
    Ok(Fitted { geometry, measures })
}

#[cfg(test)]
mod tests {
    use super::super::shipped_archetypes;
    use super::*;
    use bold_stance_kinematics::geometry::Side;
    use bold_stance_kinematics::linkage::{Corner, Linkage};

    fn arch(id: &str) -> Archetype {
        shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap()
    }

    #[test]
    fn its_own_measurements_leave_a_shape_as_it_is() {
        for a in shipped_archetypes().unwrap() {
            let taped: Vec<Taped> =
                a.measures().into_iter().map(|(measure, value)| Taped { measure, value }).collect();
            let base = -a.geometry.wheel.center[0];
            let f = fit_archetype(&a, &taped, if base > 1000.0 { base } else { 3000.0 }).unwrap();
            for ((_, p), (_, q)) in a.geometry.points.named().iter().zip(f.geometry.points.named()) {
                for i in 0..3 {
                    assert!((p[i] - q[i]).abs() < 1e-3, "{}", a.id);
                }
            }
            assert!(f.measures.iter().all(|m| !m.odd));
        }
    }

    #[test]
    fn a_wider_taller_car_gets_what_was_taped() {
        for id in
            ["half_ton_front", "compact_strut_front", "live_front", "ev_multilink_rear", "twist_beam_rear"]
        {
            let a = arch(id);
            let taped: Vec<Taped> = a
                .measures()
                .into_iter()
                .map(|(measure, v)| Taped {
                    measure,
                    value: if measure.is_angle() { v + 2.0 } else { v * 1.06 },
                })
                .collect();
            let f = fit_archetype(&a, &taped, 3000.0).unwrap();
            for m in &f.measures {
                let tolerance = 2.0 * m.measure.sigma();
                assert!((m.taped - m.fitted).abs() < tolerance, "{id}: {m:?}");
                assert!(!m.odd, "{id}: {m:?}");
            }
            let c = Corner::of(&f.geometry, Side::Left);
            for t in [-60.0, 60.0] {
                c.wheel(t, 0.0).unwrap_or_else(|e| panic!("{id}: {e}"));
            }
            assert!(f.geometry.remarks().is_empty(), "{id}");
        }
    }

    #[test]
    fn a_whole_axle_stays_symmetric() {
        let a = arch("live_front");
        let f = fit_archetype(&a, &[Taped { measure: Measure::LowerLink, value: 900.0 }], 3000.0).unwrap();
        let Points::SolidAxle(p) = &f.geometry.points else { panic!("an axle") };
        let get = |n: &str| p.links.iter().find(|l| l.name == n).unwrap().clone();
        let (l, r) = (get("lower_left"), get("lower_right"));
        assert!((l.axle[1] + r.axle[1]).abs() < 1e-9 && (l.chassis[0] - r.chassis[0]).abs() < 1e-9);
        assert!((l.chassis[0] - a.geometry.points.named()[0].1[0]).abs() > 0.1, "it moved");
    }

    #[test]
    fn a_measurement_off_by_a_foot_is_odd_and_an_unknown_one_refused() {
        let a = arch("half_ton_front");
        let f = fit_archetype(&a, &[Taped { measure: Measure::JointSpacing, value: 180.0 }], 3000.0).unwrap();
        assert!(f.measures[0].odd);
        let p = fit_archetype(&a, &[Taped { measure: Measure::TrackBar, value: 900.0 }], 3000.0).unwrap_err();
        assert_eq!(p[0].field, "taped.0.measure");
        let p = fit_archetype(&a, &[Taped { measure: Measure::Track, value: 16.0 }], 3000.0).unwrap_err();
        assert_eq!(p[0].field, "taped.0.value");
    }

    #[test]
    fn a_rear_axle_stands_at_the_wheelbase() {
        let f = fit_archetype(&arch("leaf_rear"), &[], 3600.0).unwrap();
        assert!((f.geometry.wheel.center[0] + 3600.0).abs() < 1e-9);
    }
}
