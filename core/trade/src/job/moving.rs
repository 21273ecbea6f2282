//! A wheel measured moving: what its readings say of the points, shown before it is saved, and what a plan takes of it.

use crate::plan::AngleName;
use bold_stance_car::fit::{Doubt, FitCase, FitError, Knowledge, SweepReading, fit};
use bold_stance_car::vehicle::{FEWEST_HEIGHTS, Moving};
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// What is asked of a wheel measured moving.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct MovingAsked {
    /// The axle as told.
    pub geometry: Geometry,
    /// How well its points are known.
    #[serde(default)]
    pub knowledge: Knowledge,
    /// Hub-to-arch height at which the points were taken, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 50.0, maximum = 1500.0))]
    pub design_height_mm: f64,
    /// The readings.
    pub moving: Moving,
}

/// One height of the curves.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MovingPoint {
    /// Hub centre to arch lip, mm.
    pub height_mm: f64,
    /// Camber, caster, toe on the points as told, degrees; none where the axle does not close.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub told_deg: Option<[f64; 3]>,
    /// On the points as the readings have them.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub fitted_deg: Option<[f64; 3]>,
    /// Half widths of the 90 % bands of those.
    pub band: Option<Doubt>,
    /// The same before the readings.
    pub before: Option<Doubt>,
}

/// How much narrower an angle's band became, at the height farthest from where the points were taken.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Narrower {
    /// Which angle.
    pub angle: AngleName,
    /// At which height, mm.
    pub height_mm: f64,
    /// Half width before, degrees.
    pub before_deg: f64,
    /// Half width now, degrees.
    pub now_deg: f64,
}

/// What the readings say.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MovingSaid {
    /// Whether readings and points go together; only then a plan takes them.
    pub fits: bool,
    /// The axle with its points as the readings have them; as told where they do not fit.
    pub geometry: Geometry,
    /// Half widths of the 90 % bands of what was read, row by row.
    pub read: Vec<Doubt>,
    /// Over the heights, with room on both sides.
    pub curve: Vec<MovingPoint>,
    /// What improved.
    pub narrower: Vec<Narrower>,
    /// Farthest that any point moved, mm.
    pub moved_mm: f64,
    /// In words: whether it fits, what is odd.
    pub says: Vec<Said>,
    /// What the readings cannot tell and a look under the car can.
    pub unknown: Vec<Said>,
}

/// Readings of a plan's sweep from heights; none of a wheel whose points are the other side's alone.
#[must_use]
pub(super) fn sweep_of(g: &Geometry, design_height_mm: f64, m: &Moving) -> Vec<SweepReading> {
    // The right wheel of a car whose sides are alike says as much of the left one: its angles are told from its own side.
    if m.side == Side::Right && g.right.is_some() || m.rows.len() < FEWEST_HEIGHTS {
        return Vec::new();
    }
    let steers = g.axle == Axle::Front;
    m.rows
        .iter()
        .map(|r| SweepReading {
            travel_mm: design_height_mm - r.height_mm,
            camber_deg: r.camber_deg,
            caster_deg: r.caster_deg.filter(|_| steers),
            toe_deg: r.toe_deg,
            sigma: r.sigma.or_usual(),
        })
        .filter(|r| r.camber_deg.or(r.caster_deg).or(r.toe_deg).is_some())
        .collect()
}

/// Heights of the curves beyond the outermost readings, mm.
const ROOM_MM: f64 = 25.0;
/// Heights of a curve.
const POINTS: usize = 25;

/// What readings of a moving wheel say of the axle's points.
///
/// # Errors
/// Every [`Problem`] by field; too few heights among them.
pub fn moving_said(a: &MovingAsked) -> Result<MovingSaid, Vec<Problem>> {
    let mut wrong = a.moving.problems("moving.");
    wrong.extend(in_range("design_height_mm", a.design_height_mm, 50.0, 1500.0, "mm").err());
    if a.moving.rows.len() < FEWEST_HEIGHTS {
        let right = said("fault-heights-moving")
            .count("few", FEWEST_HEIGHTS)
            .count("most", bold_stance_car::vehicle::MOST_HEIGHTS);
        wrong.push(Problem::new("moving.rows", said("fault-heights").count("n", a.moving.rows.len()), right));
    }
    if a.moving.side == Side::Right && a.geometry.right.is_some() {
        wrong.push(Problem::new("moving.side", said("fault-right-own-points"), said("fault-measure-left")));
    }
    if !wrong.is_empty() {
        return Err(wrong);
    }
    let heights: Vec<f64> = a.moving.rows.iter().map(|r| r.height_mm).collect();
    let (low, high) = heights.iter().fold((f64::MAX, f64::MIN), |(l, h), v| (l.min(*v), h.max(*v)));
    let (low, high) = (low - ROOM_MM, high + ROOM_MM);
    let at: Vec<f64> = (0..POINTS).map(|k| low + (high - low) * k as f64 / (POINTS - 1) as f64).collect();
    let travels: Vec<f64> = at.iter().map(|h| (a.design_height_mm - h).clamp(-400.0, 400.0)).collect();
    let case = FitCase {
        format: "bold-stance.fit/1".into(),
        geometry: a.geometry.clone(),
        knowledge: a.knowledge,
        readings: sweep_of(&a.geometry, a.design_height_mm, &a.moving),
        predict_at_mm: travels.clone(),
        note: None,
    };
    let found = fit(&case).map_err(|e| {
        vec![match e {
            FitError::Bad(p) => Problem { field: p.field.replacen("readings", "moving.rows", 1), ..p },
            FitError::NoAnswer(why) => {
                Problem::new("moving.rows", why, said("fault-heights-at-which-axle-closes"))
            }
        }]
    })?;
    let r = found.result;
    let told = Corner::new(&a.geometry.points, &a.geometry.wheel);
    let curve: Vec<MovingPoint> = at
        .iter()
        .zip(&travels)
        .zip(&r.predictions)
        .map(|((height_mm, travel), p)| MovingPoint {
            height_mm: *height_mm,
            told_deg: told
                .wheel(*travel, 0.0)
                .ok()
                .map(|w| [w.camber_deg, w.steer.map_or(0.0, |s| s.caster_deg), w.toe_deg]),
            fitted_deg: p.camber_deg.zip(p.toe_deg).map(|(c, t)| [c, p.caster_deg.unwrap_or(0.0), t]),
            band: p.band,
            before: p.band_before,
        })
        .collect();
    let fits = r.whole.fits;
    let odd = r.residuals.iter().filter(|x| x.odd).count();
    let mut says = vec![match (fits, odd) {
        (true, _) => said("moving-fits").count("n", a.moving.rows.len()),
        (false, _) => said("moving-does-not-fit"),
    }];
    says.extend(r.notes);
    let narrower =
        if fits { narrower(&curve, a.design_height_mm, a.geometry.axle == Axle::Front) } else { Vec::new() };
    let moved_mm = r.moved_mm.iter().fold(0.0f64, |m, (_, d)| m.max(*d));
    let mut geometry = a.geometry.clone();
    if fits {
        geometry.points = r.geometry.points;
    }
    let read = a.moving.rows.iter().map(|r| r.sigma.or_usual().half_widths()).collect();
    Ok(MovingSaid { fits, geometry, read, curve, narrower, moved_mm, says, unknown: r.questions })
}

/// Each angle's band at the height farthest from where the points were taken that has both.
fn narrower(curve: &[MovingPoint], design_mm: f64, steers: bool) -> Vec<Narrower> {
    let far = curve
        .iter()
        .filter(|p| p.band.is_some() && p.before.is_some())
        .max_by(|a, b| (a.height_mm - design_mm).abs().total_cmp(&(b.height_mm - design_mm).abs()));
    let Some((p, now, before)) = far.and_then(|p| Some((p, p.band?, p.before?))) else { return Vec::new() };
    let mut of = vec![
        (AngleName::Camber, before.camber_deg, now.camber_deg),
        (AngleName::Toe, before.toe_deg, now.toe_deg),
    ];
    if steers {
        of.insert(1, (AngleName::Caster, before.caster_deg, now.caster_deg));
    }
    of.into_iter()
        .map(|(angle, before_deg, now_deg)| Narrower { angle, height_mm: p.height_mm, before_deg, now_deg })
        .collect()
}
