//! The corner file: every whole-car quantity of a job, as it came in and as planned, with what it means.

use super::aids::{Aids, aids};
use super::as_read::{self, Corners};
use super::axle::{AxleMetrics, BodyFacts, axle_metrics};
use super::curves::{AxleCurves, SteerPoint, axle_curves, steer_curve};
use super::live_axle::{LivePoint, live_axle_curve};
use super::page::{CornerFileRequest, CornerQuantity, StateRow, StateWheel};
use super::sentences;
use crate::fit::Doubt;
use crate::vehicle::{
    Attitude, Axles, Car, CarState, Gains, HeightState, Sides, StateKind, TORSION_BOLT, height_states,
    learn_per_turn,
};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage, Unreachable};
use bold_stance_units::Sigma;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// Heights of the curves.
const HEIGHTS: usize = 41;
/// Travel the construction aids are made for, mm either way.
pub const AID_TRAVEL_MM: f64 = 50.0;

/// The whole page.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CornerFile {
    /// Quantities in the order of the page.
    pub quantities: Vec<CornerQuantity>,
    /// Every named height.
    pub states: Vec<StateRow>,
    /// Front axle as it came in.
    pub front: AxleMetrics,
    /// Rear axle as it came in, when it is known.
    pub rear: Option<AxleMetrics>,
    /// Curves of each axle over body height as it came in.
    pub curves: Axles<Option<AxleCurves>>,
    /// The same as the plan sets the axle, when it does.
    pub set_curves: Axles<Option<AxleCurves>>,
    /// Front wheels over steering as it came in.
    pub steer: Vec<SteerPoint>,
    /// The live axle over height, front or rear, when there is one.
    pub live: Vec<LivePoint>,
    /// Construction aids of the front axle.
    pub aids: Aids,
    /// What is worth knowing: bent parts, sides that differ, heights not in one plane.
    pub watch: Vec<Said>,
}

fn body(car: &Car, axle: Axle) -> BodyFacts {
    let f = &car.facts;
    BodyFacts {
        wheelbase_mm: car.wheelbase_mm,
        cg_height_mm: f.cg_height_mm,
        brake_front_share: f.brake_front_share,
        lock_deg: f.lock_deg,
        attitude: Attitude::default(),
        shaft_inner: f.axles[axle].limits.shaft_inner,
    }
}

fn pair(corners: &Corners, axle: Axle) -> Option<[&Corner; 2]> {
    let get = |s| corners.iter().find(|(a, t, _)| *a == axle && *t == s).map(|(_, _, c)| c);
    Some([get(Side::Left)?, get(Side::Right)?])
}

fn state_row(
    r: &CornerFileRequest,
    corners: &Corners,
    state: &HeightState,
    doubts: &[Option<Doubt>],
) -> StateRow {
    let (car, arrived) = (&r.car, &r.arrived);
    let s: CarState = car.state_on_frame(corners, &state.gains, state.tyres, state.body_mm);
    let wheels = s
        .wheels
        .iter()
        .enumerate()
        .map(|(i, w)| StateWheel {
            axle: w.axle,
            side: w.side,
            wheel: w.wheel,
            doubt: doubts.get(i).copied().flatten(),
            read: r.reads(w.axle),
            stops: w.stops.as_ref().map(Unreachable::says),
        })
        .collect();
    let g = &state.gains;
    StateRow {
        kind: state.kind,
        name: state.name.clone(),
        gains: Gains {
            left_front: g.left_front - arrived.left_front,
            right_front: g.right_front - arrived.right_front,
            left_rear: g.left_rear - arrived.left_rear,
            right_rear: g.right_rear - arrived.right_rear,
        },
        band_mm: state.band_mm,
        pitch_deg: s.pitch_deg,
        thrust_deg: s.thrust_deg,
        wheelbase_left_mm: s.wheelbase_left_mm,
        wheels,
    }
}

/// Works the page out.
///
/// # Errors
/// Every [`Problem`] of the document; also where an axle does not close as it stands.
pub fn corner_file(r: &CornerFileRequest) -> Result<CornerFile, Vec<Problem>> {
    let mut problems = r.car.problems();
    for (f, v) in [
        ("left_front", r.arrived.left_front),
        ("right_front", r.arrived.right_front),
        ("left_rear", r.arrived.left_rear),
        ("right_rear", r.arrived.right_rear),
    ] {
        problems.extend(in_range(&format!("arrived.{f}"), v, -400.0, 400.0, "mm").err());
    }
    for (axle, read) in r.read.each() {
        for (side, w) in read.iter().flat_map(Sides::each) {
            for (f, v, low, high) in [
                ("angles.camber_deg", w.angles.camber_deg, -20.0, 20.0),
                ("angles.caster_deg", w.angles.caster_deg, -20.0, 30.0),
                ("angles.toe_deg", w.angles.toe_deg, -10.0, 10.0),
                ("sigma.camber_deg", w.sigma.camber_deg, 0.0, 5.0),
                ("sigma.caster_deg", w.sigma.caster_deg, 0.0, 5.0),
                ("sigma.toe_deg", w.sigma.toe_deg, 0.0, 5.0),
            ] {
                let field = format!("read.{}.{}.{f}", axle.word(), side.word());
                problems.extend(in_range(&field, v, low, high, "°").err());
            }
        }
    }
    for (axle, p) in r.planned.iter().flat_map(|p| p.axles.each()) {
        for (f, v) in [
            ("gain_mm", p.gain_mm),
            ("settle_mm", p.settle_mm),
            ("load_mm", p.load_mm),
            ("trim_mm.left", p.trim_mm.left),
            ("trim_mm.right", p.trim_mm.right),
            ("body_mm", p.body_mm),
        ] {
            let field = format!("planned.axles.{}.{f}", axle.word());
            problems.extend(in_range(&field, v, -400.0, 400.0, "mm").err());
        }
    }
    if !problems.is_empty() {
        for p in problems
            .iter_mut()
            .filter(|p| !["arrived", "planned", "read"].iter().any(|f| p.field.starts_with(f)))
        {
            p.field = format!("car.{}", p.field);
        }
        return Err(problems);
    }
    let car = &r.car;
    let mut watch = Vec::new();
    let mut corners = car.corners();
    as_read::bend_front(r, &mut corners, &mut watch).map_err(|p| vec![p])?;
    as_read::bend_rear(r, &mut corners, &mut watch).map_err(|p| vec![p])?;
    let [corners, set] = as_read::before_and_after(r, &corners);
    let states = height_states(car, &r.arrived, r.planned.as_ref());
    let planned_state = states.iter().find(|s| s.kind == StateKind::Planned);
    let planned = planned_state.map(|s| s.gains);
    let metrics = |axle: Axle, state: &HeightState| -> Option<Result<AxleMetrics, Unreachable>> {
        let g = car.axle(axle)?;
        let stands = if state.kind == StateKind::Arrived { &corners } else { &set };
        let both = pair(stands, axle)?;
        let mut travels = Side::BOTH.map(|s| state.body_mm[axle] - state.gains.at(axle, s));
        let mut body = body(car, axle);
        body.attitude = car.attitude(&state.gains, state.tyres).0;
        if matches!(both[0], Corner::Axle(_)) {
            // One axle has one height, and stays level on its tyres under a body that leans.
            travels = [f64::midpoint(travels[0], travels[1]); 2];
            body.attitude.roll = 0.0;
        }
        let more = state.tyres[axle];
        let [l, r] = both.map(|c| c.on_tyre(c.loaded_radius() + more));
        Some(axle_metrics(g, [&l, &r], travels, &body))
    };
    let stop = |axle: &'static str, e: &Unreachable| {
        vec![Problem::new(
            format!("car.{axle}.{}", e.field()),
            said("fault-open-as-came").word("axle", axle).say("why", e.says()),
            said("fault-measure-joint"),
        )]
    };
    let front = match metrics(Axle::Front, &states[0]) {
        Some(Ok(m)) => m,
        Some(Err(e)) => return Err(stop("front", &e)),
        None => return Err(vec![Problem::new("car.front", said("fault-unknown"), said("fault-geometry"))]),
    };
    let rear = match metrics(Axle::Rear, &states[0]) {
        Some(Ok(m)) => Some(m),
        Some(Err(e)) => return Err(stop("rear", &e)),
        None => None,
    };
    let (mut front_planned, mut rear_planned) = (None, None);
    if let Some(state) = planned_state {
        for (axle, name, slot) in
            [(Axle::Front, "front", &mut front_planned), (Axle::Rear, "rear", &mut rear_planned)]
        {
            match metrics(axle, state) {
                Some(Ok(m)) => *slot = Some(m),
                Some(Err(e)) => watch.push(said("watch-past-travel").word("axle", name).say("why", e.says())),
                None => {}
            }
        }
    }
    let doubts = as_read::doubts(r, &corners, &states);
    let rows: Vec<StateRow> = states
        .iter()
        .enumerate()
        .map(|(i, s)| {
            let at: Vec<Option<Doubt>> = doubts.iter().map(|d| d.get(i).copied().flatten()).collect();
            state_row(r, if s.kind == StateKind::Arrived { &corners } else { &set }, s, &at)
        })
        .collect();
    let heights: Vec<f64> = curve_heights(&states);
    let curves_of =
        |stands: &Corners, axle| Some(axle_curves(car.axle(axle)?, pair(stands, axle)?, &heights));
    let live = [Axle::Front, Axle::Rear]
        .into_iter()
        .find_map(|a| match pair(&corners, a)?[0] {
            Corner::Axle(c) => Some(live_axle_curve(c, &heights, car.facts.steering_ratio)),
            _ => None,
        })
        .unwrap_or_default();
    let travels = Side::BOTH.map(|s| -r.arrived.at(Axle::Front, s));
    let steer = pair(&corners, Axle::Front)
        .map(|c| steer_curve(c, travels, car.facts.lock_deg, car.wheelbase_mm, 24))
        .unwrap_or_default();
    let state_now = car.state(&corners, &r.arrived, Axles::default());
    if state_now.warp_deg.abs() > 0.4 {
        watch.push(said("watch-warped").deg("by", state_now.warp_deg.abs(), 1));
    }
    if !corners.iter().any(|(a, _, _)| *a == Axle::Rear) {
        watch.push(said("watch-no-rear"));
    }
    if !car.facts.turns.is_empty() {
        let records: Vec<(f64, f64)> =
            car.facts.turns.iter().map(|t| (t.turns, t.height_change_mm)).collect();
        let l = learn_per_turn(TORSION_BOLT, &records);
        // Told like every other ±: nine in ten.
        watch.push(
            said("watch-turns")
                .fine_mm("mm", l.mm)
                .fine_mm("band", Sigma(l.sigma_mm).half_width().0)
                .count("n", l.records),
        );
    }
    let input = sentences::Input {
        car,
        front: &front,
        front_planned: front_planned.as_ref(),
        rear: rear.as_ref(),
        rear_planned: rear_planned.as_ref(),
        live: &live,
        live_axle: if matches!(pair(&corners, Axle::Front).map(|c| c[0]), Some(Corner::Axle(_))) {
            Axle::Front
        } else {
            Axle::Rear
        },
        rows: &rows,
        arrived: r.arrived,
        planned,
        axle_offset_mm: r.axle_offset_mm,
        wheelbases_mm: r.wheelbases_mm,
        rear_was_read: r.read.rear.is_some(),
    };
    let quantities = sentences::quantities(&input);
    Ok(CornerFile {
        quantities,
        states: rows,
        curves: Axles::of(|a| curves_of(&corners, a)),
        set_curves: Axles::of(|a| r.set[a].as_ref().and_then(|_| curves_of(&set, a))),
        steer,
        live,
        aids: {
            let (points, wheel) = car.front.side(Side::Left);
            aids(&points, &wheel, AID_TRAVEL_MM, car.facts.lock_deg, car.wheelbase_mm)
        },
        watch,
        front,
        rear,
    })
}

/// Evenly spaced heights that hold every state with room on both sides.
fn curve_heights(states: &[HeightState]) -> Vec<f64> {
    let all = states
        .iter()
        .flat_map(|s| [s.gains.left_front, s.gains.right_front, s.gains.left_rear, s.gains.right_rear]);
    let (low, high) = all.fold((-40.0f64, 40.0f64), |(l, h), v| (l.min(v), h.max(v)));
    let (low, high) = (low - 30.0, high + 30.0);
    (0..HEIGHTS).map(|i| low + (high - low) * i as f64 / (HEIGHTS - 1) as f64).collect()
}
