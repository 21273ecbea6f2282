//! What can be turned on an axle as found: where each adjuster sits, what one step of it does, what all of them reach, and
//! what nothing turns.

use crate::plan::{Bench, Plane, Reach, Sensitivity, reach};
use bold_stance_car::adjuster::{
    Adjuster, AdjusterKind, FoundAdjuster, Held, Offer, adjusters_not_there, found_problems, offers, spot_of,
};
use bold_stance_car::vehicle::{Attitude, Sides};
use bold_stance_kinematics::geometry::{Geometry, Side};
use bold_stance_kinematics::linkage::{self, Corner};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// An adjuster that moves an angle less than this over its whole range does not set it, degrees: a shop reads no less.
const SETS_DEG: f64 = 0.1;

/// An angle that moves less than this share of the one it moves most is carried along, not set: a rod leans the wheel a
/// little too.
const SETS_SHARE: f64 = 0.15;

/// What is asked.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct TurnableRequest {
    /// The axle.
    pub geometry: Geometry,
    /// What can be turned on it, as far as it was looked at.
    pub adjusters: Vec<FoundAdjuster>,
    /// Whether that is all.
    #[serde(default)]
    pub told: bool,
}

/// How an adjuster stands on one side, and what it does there.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TurnsOn {
    /// Where it stands, in the shop's terms.
    pub stands: Said,
    /// What holds it, or that it turns.
    pub held: Option<Held>,
    /// What one step of it does where it stands; none where the axle does not close.
    pub step: Option<Sensitivity>,
}

/// One adjuster looked at.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TurnableRow {
    /// Where it sits on the left, mm in the geometry's axes.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub spot: Option<[f64; 3]>,
    /// Its size in words.
    pub size: Said,
    /// Each side.
    pub sides: Sides<TurnsOn>,
}

/// What can be turned on an axle.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Turnable {
    /// In the order they were given.
    pub rows: Vec<TurnableRow>,
    /// What this layout can have besides.
    pub offers: Vec<Offer>,
    /// What all of them reach on each side, as they are; none where nothing moves.
    pub reach: Sides<Option<Reach>>,
    /// The same with the tabs out; none where no tabs are in.
    pub tabs_out: Sides<Option<Reach>>,
    /// What nothing turns, in words; empty when everything can be set.
    pub nothing: Option<Said>,
}

/// As many digits as it has, two at most.
fn digits(v: f64) -> u8 {
    [0u8, 1]
        .into_iter()
        .find(|d| (v * 10f64.powi(i32::from(*d)) - (v * 10f64.powi(i32::from(*d))).round()).abs() < 1e-6)
        .unwrap_or(2)
}

/// `8 notches, ±3.2 mm usual`.
fn size(a: &Adjuster) -> Said {
    let known = if a.measured { "measured" } else { "usual" };
    let [low, high] = a.built_range();
    let of = |id| said(id).word("known", known);
    match &a.kind {
        AdjusterKind::Eccentric { eccentricity_mm, notches_per_half_turn: Some(n), .. } => {
            of("size-cam").count("n", *n as usize).fine_mm("throw", *eccentricity_mm)
        }
        AdjusterKind::Eccentric { eccentricity_mm, .. } => {
            of("size-bushing").fine_mm("throw", *eccentricity_mm)
        }
        AdjusterKind::CamBolt { amplitude_deg, .. } => {
            of("size-cam-bolt").plain("deg", *amplitude_deg, digits(*amplitude_deg))
        }
        AdjusterKind::Slide { .. } => of("size-slot").fine_mm("low", low).fine_mm("high", high),
        AdjusterKind::Shims { step_mm, .. } => {
            of("size-shims").fine_mm("low", low).fine_mm("high", high).fine_mm("step", *step_mm)
        }
        AdjusterKind::Thread { pitch_mm, ends, .. } => of("size-thread")
            .plain("pitch", *pitch_mm, digits(*pitch_mm))
            .count("ends", *ends as usize)
            .plain("shorter", -low, digits(low))
            .plain("longer", high, digits(high)),
        AdjusterKind::Tilt { .. } | AdjusterKind::Wedge { .. } => {
            of("size-degrees").plain("low", low, digits(low)).plain("high", high, digits(high))
        }
        AdjusterKind::Sleeve { amount_deg, positions } => {
            of("size-sleeve").plain("deg", *amount_deg, digits(*amount_deg)).count("n", *positions as usize)
        }
    }
}

/// `centre`, `2 out`, `0.5 mm`, `where it is`.
fn stands(a: &Adjuster) -> Said {
    if a.held == Some(Held::NotHere) {
        return said("stands-not-here");
    }
    if a.unseen {
        return said("stands-unseen");
    }
    let counted_from_here = matches!(a.kind, AdjusterKind::Thread { .. } | AdjusterKind::Shims { .. });
    if a.position.abs() < 1e-9 {
        return said(if counted_from_here { "stands-here" } else { "stands-centre" });
    }
    let way = a.direction_word(0.0, a.position);
    match (&a.kind, a.step()) {
        (AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. }, Some(s)) => {
            let n = (a.position / s).abs();
            // Between two notches it is said so.
            let digits = u8::from((n - n.round()).abs() > 0.02);
            said("stands-notches").plain("n", n, digits).word("way", way)
        }
        (AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. } | AdjusterKind::Sleeve { .. }, _) => {
            said("stands-degrees").plain("deg", a.position.abs(), 0).word("way", way)
        }
        (AdjusterKind::Thread { .. }, _) => {
            said("stands-turns").plain("n", a.position.abs(), digits(a.position)).word("way", way)
        }
        (AdjusterKind::Slide { .. } | AdjusterKind::Shims { .. }, _) => {
            said("stands-mm").fine_mm("mm", a.position.abs()).word("way", way)
        }
        (AdjusterKind::Tilt { .. } | AdjusterKind::Wedge { .. }, _) => {
            said("stands-degrees").plain("deg", a.position.abs(), digits(a.position)).word("way", way)
        }
    }
}

/// Angles that no adjuster of either side sets.
fn nothing_turns(benches: &[Bench], plane: Plane, told: bool) -> Option<Said> {
    let moves = |pick: fn(&Sensitivity) -> f64| {
        benches.iter().any(|b| {
            let steps = b.sensitivity(&b.start());
            b.adjusters.iter().filter(|a| !a.is_fixed()).any(|a| {
                let Some(s) = steps.iter().find(|s| s.name == a.name) else { return false };
                let [low, high] = a.built_range().map(|p| a.amount(p));
                let one = a.amount(a.position + unit(a)) - a.amount(a.position);
                let most = s.camber_deg.abs().max(s.caster_deg.abs()).max(s.toe_deg.abs());
                pick(s).abs() > SETS_SHARE * most
                    && (pick(s) * (high - low) / one.abs().max(1e-9)).abs() > SETS_DEG
            })
        })
    };
    let mut none = Vec::new();
    if !moves(|s| s.camber_deg) {
        none.push("camber");
    }
    if plane == Plane::CamberCaster && !moves(|s| s.caster_deg) {
        none.push("caster");
    }
    if !moves(|s| s.toe_deg) {
        none.push("toe");
    }
    if none.is_empty() {
        return None;
    }
    let each = none.into_iter().map(|a| said("angle").word("angle", a)).collect();
    Some(said(if told { "nothing-turns" } else { "nothing-ticked-turns" }).list("each", each))
}

/// The step [`Bench::sensitivity`] counts in.
fn unit(a: &Adjuster) -> f64 {
    match (&a.kind, a.step()) {
        (AdjusterKind::Thread { .. }, _) => 1.0,
        (AdjusterKind::Slide { .. }, None) => 1.0,
        (AdjusterKind::Tilt { .. } | AdjusterKind::Wedge { .. }, None) => 0.25,
        (_, Some(s)) => s,
        (_, None) => 5.0,
    }
}

/// Looks at what can be turned on an axle.
///
/// # Errors
/// Every [`Problem`] by field: of the geometry, of the list, and of what the layout has not.
pub fn turnable(r: &TurnableRequest) -> Result<Turnable, Vec<Problem>> {
    let g = &r.geometry;
    let mut problems: Vec<Problem> = linkage::problems(g)
        .into_iter()
        .map(|p| Problem { field: format!("geometry.{}", p.field), ..p })
        .collect();
    problems.extend(found_problems(&r.adjusters));
    let on = |side| -> Vec<Adjuster> { r.adjusters.iter().map(|f| f.on(side)).collect() };
    if problems.is_empty() {
        problems.extend(adjusters_not_there(&on(Side::Left), &g.points));
    }
    if !problems.is_empty() {
        return Err(problems);
    }
    let plane = if Corner::of(g, Side::Left).is_steered() { Plane::CamberCaster } else { Plane::CamberToe };
    let bench = |side: Side, free: bool| {
        let mut list = on(side);
        if free {
            list.iter_mut().filter(|a| a.held == Some(Held::TabsIn)).for_each(|a| a.held = None);
        }
        Bench::new(Corner::of(g, side), list, 0.0, Attitude::default())
    };
    let benches = Side::BOTH.map(|s| bench(s, false));
    let traced = |b: &Bench| reach(b, &b.start(), plane, true);
    let tabs = |s: Side| on(s).iter().any(|a| a.held == Some(Held::TabsIn));
    let [left, right] = &benches;
    let steps = [left, right].map(|b| b.sensitivity(&b.start()));
    let rows = (0..r.adjusters.len())
        .map(|i| {
            let turns = |k: usize| {
                let a = &benches[k].adjusters[i];
                TurnsOn {
                    stands: stands(a),
                    held: a.held,
                    step: steps[k].iter().find(|s| s.name == a.name).cloned(),
                }
            };
            let a = &benches[0].adjusters[i];
            TurnableRow {
                spot: spot_of(a, &g.points, g.wheel.center),
                size: size(a),
                sides: Sides { left: turns(0), right: turns(1) },
            }
        })
        .collect();
    Ok(Turnable {
        rows,
        offers: offers(&g.points),
        reach: Sides { left: traced(left), right: traced(right) },
        tabs_out: Sides::of(|s| if tabs(s) { traced(&bench(s, true)) } else { None }),
        nothing: nothing_turns(&benches, plane, r.told),
    })
}
