//! The `bold-stance.settings/1` case of the command line: one corner, a baseline, adjusters, an aim.

use super::bench::{Bench, Sensitivity};
use super::solver::solve;
use crate::aim::Target;
use crate::aim::{Window, window_problem};
use crate::plan::judge::Shortfall;
use bold_stance_car::adjuster::{Adjuster, adjuster_problems, adjusters_not_there};
use bold_stance_car::vehicle::{Attitude, Measured, anchor, anchor_wheel};
use bold_stance_kinematics::Vec3;
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, FORMAT, Geometry, Side, WheelAtDesign};
use bold_stance_kinematics::linkage::{self, Corner, Linkage};
use bold_stance_kinematics::wheel::{Pose, camber, contact_point, toe};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// Windows, degrees; toe per wheel.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct CornerAim {
    /// Top out positive.
    pub camber_deg: Window,
    /// Top rearward positive; left out for a wheel that does not steer.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub caster_deg: Option<Window>,
    /// Toe-in positive.
    pub toe_deg: Window,
}

impl CornerAim {
    /// What is wrong with its windows, at their fields of `aim`.
    pub(crate) fn problems(&self, out: &mut Vec<Problem>) {
        window_problem("aim.camber_deg", self.camber_deg, -20.0, 20.0, out);
        if let Some(w) = self.caster_deg {
            window_problem("aim.caster_deg", w, -20.0, 20.0, out);
        }
        window_problem("aim.toe_deg", self.toe_deg, -10.0, 10.0, out);
    }
}

/// What was read at design height, degrees.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Baseline {
    /// Top out positive.
    pub camber_deg: f64,
    /// Top rearward positive; left out for a wheel that does not steer.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub caster_deg: Option<f64>,
    /// Per wheel, toe-in positive.
    pub toe_deg: f64,
}

/// The case.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct SettingsCase {
    /// Always `bold-stance.settings/1`.
    pub format: String,
    /// The corner.
    pub geometry: Geometry,
    /// Height gained at hub-to-arch, mm; 0 when absent.
    #[serde(default)]
    pub height_change_mm: f64,
    /// What was read at design height.
    pub baseline: Baseline,
    /// What can be turned.
    pub adjusters: Vec<Adjuster>,
    /// What is wanted.
    pub aim: CornerAim,
    /// Free remark.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

/// Angles of a result, degrees, relative to the chassis.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Angles {
    /// Top out positive.
    pub camber_deg: f64,
    /// Top rearward positive; none for a wheel that does not steer.
    pub caster_deg: Option<f64>,
    /// Top inboard positive; none for a wheel that does not steer.
    pub sai_deg: Option<f64>,
    /// Per wheel, toe-in positive.
    pub toe_deg: f64,
}

/// One adjuster of the result.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct AdjusterResult {
    /// Its name.
    pub name: String,
    /// Degrees of a cam, turns of a thread.
    pub position: f64,
    /// From where it stood.
    pub movement: f64,
    /// Movement of the pivot or growth of the link, mm.
    pub movement_mm: f64,
    /// Notches or turns, signed.
    pub steps: f64,
    /// Direction word.
    pub direction: String,
    /// The order in workshop words.
    pub words: Said,
}

/// The answer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct SettingsResult {
    /// Whether every window is met.
    pub reached: bool,
    /// What the setting gives.
    pub angles: Angles,
    /// How far outside, degrees.
    pub shortfall: Shortfall,
    /// Orders.
    pub adjusters: Vec<AdjusterResult>,
    /// What one step of each does.
    pub sensitivity: Vec<Sensitivity>,
    /// The geometry with the setting applied; its design height is the height after the change.
    pub geometry_after: Geometry,
    /// How far the geometry was bent to meet the baseline.
    pub anchor: bold_stance_car::vehicle::Anchor,
}

/// Why a case has no answer.
#[derive(Debug, Clone, thiserror::Error)]
pub enum SettingsError {
    /// The case itself is wrong.
    #[error("{0}")]
    Bad(#[from] Problem),
    /// It is right, but nothing can be posed.
    #[error("no answer: {0}")]
    NoAnswer(String),
}

impl SettingsCase {
    /// Whether the wheel has caster to set.
    fn steers(&self) -> bool {
        self.geometry.axle == Axle::Front && Corner::of(&self.geometry, Side::Left).is_steered()
    }

    /// Everything wrong with the case, by field.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        if self.format != "bold-stance.settings/1" {
            out.push(Problem::new(
                "format",
                said("fault-quoted").name("value", self.format.clone()),
                said("fault-bold-stance-settings-1"),
            ));
        }
        out.extend(linkage::problems(&self.geometry).into_iter().map(|mut p| {
            p.field = format!("geometry.{}", p.field);
            p
        }));
        out.extend(in_range("height_change_mm", self.height_change_mm, -400.0, 400.0, "mm").err());
        let b = &self.baseline;
        for (f, v) in [
            ("camber_deg", b.camber_deg),
            ("caster_deg", b.caster_deg.unwrap_or(0.0)),
            ("toe_deg", b.toe_deg),
        ] {
            out.extend(in_range(&format!("baseline.{f}"), v, -20.0, 20.0, "°").err());
        }
        if out.is_empty() && self.steers() {
            for (f, there) in [
                ("baseline.caster_deg", b.caster_deg.is_some()),
                ("aim.caster_deg", self.aim.caster_deg.is_some()),
            ] {
                if !there {
                    out.push(Problem::new(
                        f,
                        said("fault-left-out-but-this-wheel"),
                        said("fault-degrees-top-rearward-positive"),
                    ));
                }
            }
        }
        out.extend(adjuster_problems(&self.adjusters));
        out.extend(adjusters_not_there(&self.adjusters, &self.geometry.points));
        self.aim.problems(&mut out);
        out
    }
}

/// Solves a case.
///
/// # Errors
/// [`SettingsError::Bad`] names the field; [`SettingsError::NoAnswer`] when the corner cannot be posed.
pub fn run_settings(case: &SettingsCase) -> Result<SettingsResult, SettingsError> {
    if let Some(p) = case.problems().into_iter().next() {
        return Err(p.into());
    }
    let g = &case.geometry;
    let start: Vec<Edit> = case.adjusters.iter().flat_map(|a| a.edits_at(a.position)).collect();
    let b = &case.baseline;
    let anchored = match b.caster_deg.filter(|_| case.steers()) {
        Some(caster_deg) => {
            let read = Measured { camber_deg: b.camber_deg, caster_deg, toe_deg: b.toe_deg };
            anchor(&g.points, &g.wheel, 0.0, &start, &read)
        }
        None => anchor_wheel(&g.points, &g.wheel, 0.0, &start, b.camber_deg, b.toe_deg),
    }
    .map_err(|e| SettingsError::NoAnswer(e.to_string()))?;
    let bench =
        Bench::new(anchored.corner, case.adjusters.clone(), -case.height_change_mm, Attitude::default());
    // A wheel that does not steer has no caster to miss.
    let caster = case.aim.caster_deg.filter(|_| case.steers()).unwrap_or([-90.0, 90.0]);
    let aim = Target { camber: case.aim.camber_deg, caster, toe: case.aim.toe_deg };
    let Some(best) = solve(&bench, &aim).into_iter().next() else {
        let why = bench.angles(&bench.start()).err().map_or("no setting closes".into(), |e| e.to_string());
        return Err(SettingsError::NoAnswer(why));
    };
    let corner = bench.set(&best.positions);
    let pose = corner.pose(bench.travel_mm, 0.0).map_err(|e| SettingsError::NoAnswer(e.to_string()))?;
    let a = best.angles;
    Ok(SettingsResult {
        reached: best.shortfall.worst() < 1e-9,
        angles: Angles {
            camber_deg: a.camber_deg,
            caster_deg: case.steers().then_some(a.caster_deg),
            sai_deg: case.steers().then_some(a.sai_deg),
            toe_deg: a.toe_deg,
        },
        shortfall: best.shortfall,
        adjusters: bench
            .lines(&best.positions)
            .into_iter()
            .map(|l| AdjusterResult {
                name: l.name,
                position: l.position,
                movement: l.movement,
                movement_mm: l.movement_mm,
                steps: l.steps,
                direction: l.direction,
                words: l.words,
            })
            .collect(),
        sensitivity: bench.sensitivity(&best.positions),
        geometry_after: as_geometry(g, &corner, &pose, bench.travel_mm),
        anchor: anchored.anchor,
    })
}

/// The corner at a pose as a geometry file of its own, put down so that the tyre meets z = 0.
pub(crate) fn as_geometry(from: &Geometry, c: &Corner, pose: &Pose, travel: f64) -> Geometry {
    let down = contact_point(&pose.centre, &pose.spin, c.loaded_radius()).z;
    let p = |v: &Vec3| [v.x, v.y, v.z - down];
    let mut points = c.as_points(pose, travel, &from.points);
    for (_, _, q) in points.named_mut() {
        q[2] -= down;
    }
    Geometry {
        format: FORMAT.into(),
        name: format!("{}, as set", from.name),
        axle: from.axle,
        points,
        wheel: WheelAtDesign {
            center: p(&pose.centre),
            camber_deg: camber(&pose.spin).to_degrees(),
            toe_deg: toe(&pose.spin).to_degrees(),
            loaded_radius_mm: c.loaded_radius(),
        },
        right: None,
        note: None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sample::sample;
    use bold_stance_car::adjuster::default_adjusters;

    fn case() -> SettingsCase {
        SettingsCase {
            format: "bold-stance.settings/1".into(),
            geometry: sample(),
            height_change_mm: 40.0,
            baseline: Baseline { camber_deg: 0.3, caster_deg: Some(2.7), toe_deg: 0.05 },
            adjusters: default_adjusters(8.0),
            aim: CornerAim { camber_deg: [-0.3, 0.1], caster_deg: Some([2.5, 3.5]), toe_deg: [0.0, 0.1] },
            note: None,
        }
    }

    #[test]
    fn geometry_after_solves_back_to_the_angles_and_to_the_height_before() {
        let r = run_settings(&case()).unwrap();
        assert!(r.reached, "{:?}", r.shortfall);
        let g = &r.geometry_after;
        assert!(g.problems().is_empty() && g.remarks().is_empty());
        let c = Corner::new(&g.points, &g.wheel);
        let a = c.alignment(0.0, 0.0).unwrap();
        assert!((a.camber_deg - r.angles.camber_deg).abs() < 1e-9);
        assert!((a.caster_deg - r.angles.caster_deg.unwrap()).abs() < 1e-9);
        assert!((a.toe_deg - r.angles.toe_deg).abs() < 1e-9);
        // At travel +h it is the corner at the height before, cams as set.
        let read = Measured { camber_deg: 0.3, caster_deg: 2.7, toe_deg: 0.05 };
        let anchored = anchor(&case().geometry.points, &case().geometry.wheel, 0.0, &[], &read);
        let bench = Bench::new(anchored.unwrap().corner, case().adjusters, 0.0, Attitude::default());
        let p: Vec<f64> = r.adjusters.iter().map(|a| a.position).collect();
        let before = bench.angles(&p).unwrap();
        let back = c.alignment(40.0, 0.0).unwrap();
        assert!((before.camber_deg - back.camber_deg).abs() < 1e-8);
        assert!((before.caster_deg - back.caster_deg).abs() < 1e-8);
    }

    #[test]
    fn a_rear_wheel_is_set_in_camber_and_toe() {
        let g = bold_stance_car::archetype::shipped_archetypes()
            .unwrap()
            .into_iter()
            .find(|a| a.id == "ev_multilink_rear")
            .unwrap()
            .geometry;
        let text = r#"[{"name":"camber arm","kind":"thread","link":"upper_rear","pitch_mm":1.5,"ends":2,"turns":[-3,3]},
            {"name":"toe arm","kind":"thread","link":"toe_link","pitch_mm":1.5,"ends":2,"turns":[-4,4]}]"#;
        let c = SettingsCase {
            geometry: g,
            height_change_mm: -25.0,
            baseline: Baseline { camber_deg: -1.2, caster_deg: None, toe_deg: 0.12 },
            adjusters: serde_json::from_str(text).unwrap(),
            aim: CornerAim { camber_deg: [-1.2, -0.9], caster_deg: None, toe_deg: [0.0, 0.1] },
            ..case()
        };
        let r = run_settings(&c).unwrap();
        assert!(r.reached && r.angles.caster_deg.is_none(), "{:?}", r.shortfall);
        let w = Corner::new(&r.geometry_after.points, &r.geometry_after.wheel).wheel(0.0, 0.0).unwrap();
        assert!(
            (w.camber_deg - r.angles.camber_deg).abs() < 1e-9 && (w.toe_deg - r.angles.toe_deg).abs() < 1e-9
        );
        // A wheel that steers has to say its caster.
        let mut c = case();
        c.baseline.caster_deg = None;
        let Err(SettingsError::Bad(p)) = run_settings(&c) else { panic!() };
        assert_eq!(p.field, "baseline.caster_deg");
    }

    #[test]
    fn an_impossible_height_has_no_answer_and_a_wrong_aim_a_field() {
        let mut c = case();
        c.height_change_mm = 350.0;
        assert!(matches!(run_settings(&c), Err(SettingsError::NoAnswer(_))));
        let mut c = case();
        c.aim.toe_deg = [0.2, 0.1];
        let Err(SettingsError::Bad(p)) = run_settings(&c) else { panic!() };
        assert_eq!(p.field, "aim.toe_deg.1");
    }
}
