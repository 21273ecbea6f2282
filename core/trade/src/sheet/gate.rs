//! What a gate makes of its readings: each angle, height and left-to-right difference held against what was expected
//! and against the aim. Facts only; the words are the screen's.

use super::ids::StepId;
use super::step::{GateReading, SheetStep};
use crate::aim::off_window;
use crate::plan::{
    AngleName, CENTRE_MM, CarAnswer, CarInput, PlanInput, PlanResult, READABLE_DEG, READABLE_TOE_DEG,
    SQUARE_MM, SidePlan,
};
use bold_stance_car::vehicle::{Axles, Sides, StateKind};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::said::Said;
use bold_stance_units::{HalfWidth, Sigma};
use serde::{Deserialize, Serialize};

/// Height off its plan, or sides apart from their plan, that a gate names, mm (common practice, no source: what a tape
/// at the arch tells for certain).
pub(crate) const HEIGHT_MM: f64 = 5.0;
/// Toe after the rods were turned by what was read, 90 % half width, degrees of one wheel: the model's own doubt is out
/// of it, what a tape or string at the rim leaves is in (standard deviation 0.05°, common practice, no source).
pub const TOE_SET_BAND_DEG: f64 = Sigma(0.05).half_width().0;
/// Least band of a comparison with what was expected, degrees: camber, caster, toe of one wheel.
const LEAST_BAND_DEG: [f64; 3] = [0.1, 0.2, 0.1];

/// One reading at a gate.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct GateRead {
    /// mm or degrees.
    pub value: f64,
    /// Standard deviation, mm or degrees.
    pub sigma: f64,
    /// Taken before something was turned that the gate stands behind.
    #[serde(default)]
    pub stale: bool,
}

/// What was read on one side at a gate.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields, default)]
pub struct GateSide {
    /// Hub to arch, mm.
    pub height: Option<GateRead>,
    /// Degrees, top out positive.
    pub camber: Option<GateRead>,
    /// Degrees, top rearward positive.
    pub caster: Option<GateRead>,
    /// Degrees of one wheel, toe-in positive.
    pub toe: Option<GateRead>,
    /// Hub to hub of this side, mm.
    pub wheelbase: Option<GateRead>,
    /// How far a live axle has to go to the left to stand central, mm; the same at both wheels.
    pub centre: Option<GateRead>,
}

impl GateSide {
    /// The reading of a quantity, if it was taken.
    #[must_use]
    pub fn of(&self, q: GateReading) -> Option<GateRead> {
        match q {
            GateReading::Height => self.height,
            GateReading::Camber => self.camber,
            GateReading::Caster => self.caster,
            GateReading::Toe => self.toe,
            GateReading::Wheelbase => self.wheelbase,
            GateReading::Centre => self.centre,
        }
    }
}

/// What is off.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum GateAbout {
    /// Height of one side, mm.
    Height,
    /// Left minus right height, mm.
    HeightApart,
    /// Camber of one side, degrees.
    Camber,
    /// Caster of one side, degrees.
    Caster,
    /// Toe of one wheel, degrees.
    Toe,
    /// Toe of both wheels, degrees.
    TotalToe,
    /// Left minus right camber, degrees.
    CrossCamber,
    /// Left minus right caster, degrees.
    CrossCaster,
    /// Left minus right wheelbase, mm: the axle is askew.
    Askew,
    /// How far a live axle has to go to the left to stand central, mm.
    OffCentre,
    /// Something meets something: `what` says it.
    Foul,
}

/// One thing that keeps a gate shut.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct GateFinding {
    /// What it is about.
    pub about: GateAbout,
    /// Which axle; none in records that knew the front alone.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub axle: Option<Axle>,
    /// Which side; none where it is about both.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// As read, mm or degrees.
    pub read: f64,
    /// As expected, mm or degrees.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub expected: Option<f64>,
    /// 90 % half width of expecting and reading together (heights: the tolerance), mm or degrees.
    pub band: f64,
    /// Aim as it stands at this height, low and high end.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub aim: Option<[f64; 2]>,
    /// How far outside what was expected, signed; 0 inside the band.
    pub off_expected: f64,
    /// How far outside the aim, signed; 0 inside.
    pub off_aim: f64,
    /// Read before the work it is to judge.
    pub stale: bool,
    /// What fouls, where something does.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub what: Option<Said>,
}

/// What was read at a gate, by axle and side.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields, default)]
pub struct CarRead {
    /// Front wheels.
    pub front: Sides<GateSide>,
    /// Rear wheels.
    pub rear: Sides<GateSide>,
}

impl CarRead {
    /// What was read on an axle.
    #[must_use]
    pub fn axle(&self, axle: Axle) -> Sides<GateSide> {
        match axle {
            Axle::Front => self.front,
            Axle::Rear => self.rear,
        }
    }
}

/// What fouls on a car's plan: figures measured on this car that do not hold, rear first, with their side; and parts that
/// cannot stand together, have no place on this car or are forbidden by its class.
#[must_use]
pub fn fouls(answer: &CarAnswer) -> Vec<GateFinding> {
    let of = |axle: Axle, side: Side, p: &SidePlan| -> Vec<GateFinding> {
        p.checks
            .iter()
            .filter(|c| c.fouls())
            .map(|c| GateFinding {
                about: GateAbout::Foul,
                axle: Some(axle),
                side: Some(side),
                read: c.value,
                expected: None,
                band: 0.0,
                aim: Some([c.limit, c.limit]),
                off_expected: 0.0,
                off_aim: c.value - c.limit,
                stale: false,
                what: Some(c.words.clone()),
            })
            .collect()
    };
    let mut out = Vec::new();
    for (axle, r) in answer.axles.rear_first() {
        if let Some(r) = r {
            out.extend(of(axle, Side::Left, &r.left));
            out.extend(of(axle, Side::Right, &r.right));
            out.extend(r.misfits.iter().map(|m| GateFinding {
                about: GateAbout::Foul,
                axle: Some(axle),
                side: None,
                read: 0.0,
                expected: None,
                band: 0.0,
                aim: None,
                off_expected: 0.0,
                off_aim: 0.0,
                stale: false,
                what: Some(m.clone()),
            }));
        }
    }
    out
}

/// What is expected of a wheel as it was really turned: camber, caster, toe, degrees.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Expectation {
    /// Values.
    pub value: [f64; 3],
    /// 90 % half widths, without the reading's own.
    pub half: [f64; 3],
}

/// Everything off at a gate of a car's sheet; empty when it may open. `turned`: wheels of which something else is expected
/// than the plan says.
#[must_use]
pub fn judge(
    input: &CarInput,
    answer: &CarAnswer,
    gate: &SheetStep,
    read: &CarRead,
    turned: &Axles<Sides<Option<Expectation>>>,
) -> Vec<GateFinding> {
    if gate.id == StepId::Fouls {
        return fouls(answer);
    }
    let mut out = Vec::new();
    for (axle, r) in answer.axles.rear_first() {
        let needs: Vec<GateReading> =
            gate.needs.iter().filter(|n| n.axle == axle).map(|n| n.quantity).collect();
        if let (Some(i), Some(r)) = (input.axle(axle), r) {
            out.extend(judge_gate(&i, r, &needs, &read.axle(axle).into_pair(), &turned[axle]));
        }
    }
    out
}

/// Everything off on one axle that was read at a gate; empty when it may open. Readings that are missing are not
/// judged.
#[must_use]
pub fn judge_gate(
    input: &PlanInput,
    result: &PlanResult,
    needs: &[GateReading],
    sides: &[GateSide; 2],
    turned: &Sides<Option<Expectation>>,
) -> Vec<GateFinding> {
    let mut out = Vec::new();
    let plans = [&result.left, &result.right];
    for q in needs {
        if q.of_axle() {
            out.extend(sides[0].of(*q).and_then(|r| off_centre(input, r)));
            continue;
        }
        for (i, side) in Side::BOTH.into_iter().enumerate() {
            if let Some(r) = sides[i].of(*q) {
                out.extend(one(input, result, *q, side, plans[i], r, turned[side].as_ref()));
            }
        }
        if let (Some(l), Some(r)) = (sides[0].of(*q), sides[1].of(*q)) {
            out.extend(both(input, result, *q, plans, [l, r]));
        }
    }
    out
}

/// Angles at the planned height as set, in which the car stands in the bay, against those at the height the aim counts
/// at: by so much the windows are moved.
fn shift(result: &PlanResult, side: Side, q: GateReading) -> (f64, f64) {
    let plan = if side == Side::Left { &result.left } else { &result.right };
    let planned = result.states.iter().find(|s| s.kind == StateKind::Planned);
    let here = planned.and_then(|s| if side == Side::Left { s.left.as_ref() } else { s.right.as_ref() });
    let pick = |a: &bold_stance_kinematics::wheel::Alignment| match q {
        GateReading::Camber => a.camber_deg,
        GateReading::Caster => a.caster_deg,
        GateReading::Toe => a.toe_deg,
        GateReading::Height | GateReading::Wheelbase | GateReading::Centre => 0.0,
    };
    let set = pick(&plan.set);
    let expected = here.map_or(set, |s| pick(&s.angles));
    (expected, expected - set)
}

fn outside(v: f64, w: [f64; 2], readable: f64) -> f64 {
    let d = off_window(v, w);
    if d.abs() <= readable + 1e-9 { 0.0 } else { d }
}

fn beyond(miss: f64, band: f64) -> f64 {
    if miss.abs() <= band + 1e-9 { 0.0 } else { miss }
}

/// What an angle of a wheel is held against.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Held {
    /// Expected in the bay, degrees.
    pub expected: f64,
    /// 90 % half width of that, without the reading's own, degrees.
    pub half: f64,
    /// Window at the height it stands at, low and high end, degrees; none for caster of what does not steer. Of toe it is the
    /// half of both wheels' window.
    pub aim: Option<[f64; 2]>,
    /// Whether a wheel is judged by its window alone; toe is wanted of both wheels together.
    alone: bool,
    /// Least band of a comparison, degrees.
    least: f64,
}

impl Held {
    /// 90 % half width of expecting and a reading of a standard deviation together, degrees.
    #[must_use]
    pub fn band(&self, sigma: f64) -> f64 {
        HalfWidth(self.half).and(Sigma(sigma).half_width()).at_least(self.least).0
    }

    /// How far a reading is outside what was expected, signed; 0 inside the band.
    #[must_use]
    pub fn off_expected(&self, read: f64, sigma: f64) -> f64 {
        beyond(read - self.expected, self.band(sigma))
    }

    /// How far it is outside the window by more than a shop can read, signed; 0 inside.
    #[must_use]
    pub fn off_aim(&self, read: f64) -> f64 {
        self.aim.filter(|_| self.alone).map_or(0.0, |w| outside(read, w, READABLE_DEG))
    }
}

/// What an angle of a wheel is held against; as it was really turned where that is not as ordered.
#[must_use]
pub fn held(
    input: &PlanInput,
    result: &PlanResult,
    side: Side,
    angle: AngleName,
    turned: Option<&Expectation>,
) -> Option<Held> {
    let plan = if side == Side::Left { &result.left } else { &result.right };
    let target = input.target(side);
    let (k, q, half, window) = match angle {
        AngleName::Camber => (0, GateReading::Camber, plan.doubt.camber_deg, Some(target.camber)),
        AngleName::Caster => {
            (1, GateReading::Caster, plan.doubt.caster_deg, input.steered().then_some(target.caster))
        }
        AngleName::Toe => (2, GateReading::Toe, TOE_SET_BAND_DEG, Some(target.toe)),
        AngleName::CrossCamber | AngleName::CrossCaster => return None,
    };
    let (expected, moved) = shift(result, side, q);
    let (expected, half) = turned.map_or((expected, half), |t| (t.value[k], t.half[k]));
    let aim = window.map(|w| [w[0] + moved, w[1] + moved]);
    Some(Held { expected, half, aim, alone: angle != AngleName::Toe, least: LEAST_BAND_DEG[k] })
}

fn one(
    input: &PlanInput,
    result: &PlanResult,
    q: GateReading,
    side: Side,
    plan: &SidePlan,
    r: GateRead,
    turned: Option<&Expectation>,
) -> Option<GateFinding> {
    let of = |angle| held(input, result, side, angle, turned);
    let height =
        Held { expected: plan.planned_height_mm, half: HEIGHT_MM, aim: None, alone: true, least: 0.0 };
    let (about, h) = match q {
        GateReading::Height => (GateAbout::Height, height),
        GateReading::Camber => (GateAbout::Camber, of(AngleName::Camber)?),
        GateReading::Caster => (GateAbout::Caster, of(AngleName::Caster)?),
        // The aim is of both wheels.
        GateReading::Toe => (GateAbout::Toe, of(AngleName::Toe)?),
        // Both sides are held against each other.
        GateReading::Wheelbase => return stale_wheelbase(input, side, r),
        GateReading::Centre => return None,
    };
    // What a tape at the arch tells is in the tolerance of a height.
    let band = if q == GateReading::Height { HEIGHT_MM } else { h.band(r.sigma) };
    let off_expected = beyond(r.value - h.expected, band);
    let off_aim = h.off_aim(r.value);
    (off_expected != 0.0 || off_aim != 0.0 || r.stale).then_some(GateFinding {
        about,
        axle: Some(input.geometry.axle),
        side: Some(side),
        read: r.value,
        expected: Some(h.expected),
        band,
        aim: h.aim.filter(|_| h.alone),
        off_expected,
        off_aim,
        stale: r.stale,
        what: None,
    })
}

/// An axle that stands off the middle, or was measured before its track bar was turned.
fn off_centre(input: &PlanInput, r: GateRead) -> Option<GateFinding> {
    let off_aim = off_window(r.value, [-CENTRE_MM, CENTRE_MM]);
    (off_aim != 0.0 || r.stale).then_some(GateFinding {
        about: GateAbout::OffCentre,
        axle: Some(input.geometry.axle),
        side: None,
        read: r.value,
        expected: Some(0.0),
        band: CENTRE_MM,
        aim: Some([-CENTRE_MM, CENTRE_MM]),
        off_expected: 0.0,
        off_aim,
        stale: r.stale,
        what: None,
    })
}

/// A wheelbase read before the arms were turned.
fn stale_wheelbase(input: &PlanInput, side: Side, r: GateRead) -> Option<GateFinding> {
    r.stale.then_some(GateFinding {
        about: GateAbout::Askew,
        axle: Some(input.geometry.axle),
        side: Some(side),
        read: r.value,
        expected: None,
        band: SQUARE_MM,
        aim: None,
        off_expected: 0.0,
        off_aim: 0.0,
        stale: true,
        what: None,
    })
}

fn both(
    input: &PlanInput,
    result: &PlanResult,
    q: GateReading,
    plans: [&SidePlan; 2],
    read: [GateRead; 2],
) -> Option<GateFinding> {
    let [l, r] = read.map(|x| x.value);
    let of = |about, read: f64, expected: f64, band: f64, aim: Option<[f64; 2]>, readable: f64| {
        let off_expected = if about == GateAbout::HeightApart { beyond(read - expected, band) } else { 0.0 };
        let off_aim = aim.map_or(0.0, |w| outside(read, w, readable));
        (off_expected != 0.0 || off_aim != 0.0).then_some(GateFinding {
            about,
            axle: Some(input.geometry.axle),
            side: None,
            read,
            expected: Some(expected),
            band,
            aim,
            off_expected,
            off_aim,
            stale: false,
            what: None,
        })
    };
    let expect = |q| shift(result, Side::Left, q).0 - shift(result, Side::Right, q).0;
    let within = |limit: f64| Some([-limit, limit]);
    match q {
        GateReading::Height => {
            let expected = plans[0].planned_height_mm - plans[1].planned_height_mm;
            of(GateAbout::HeightApart, l - r, expected, HEIGHT_MM * std::f64::consts::SQRT_2, None, 0.0)
        }
        GateReading::Camber => {
            let (limits, k) = (input.cross(), 0);
            let aim = Some([limits.middle[k] - limits.camber, limits.middle[k] + limits.camber]);
            of(GateAbout::CrossCamber, l - r, expect(q), 0.0, aim, READABLE_DEG)
        }
        GateReading::Caster if input.steered() => {
            let (limits, k) = (input.cross(), 1);
            let aim = Some([limits.middle[k] - limits.caster, limits.middle[k] + limits.caster]);
            of(GateAbout::CrossCaster, l - r, expect(q), 0.0, aim, READABLE_DEG)
        }
        GateReading::Caster => None,
        GateReading::Wheelbase => of(GateAbout::Askew, l - r, 0.0, SQUARE_MM, within(SQUARE_MM), 0.0),
        GateReading::Centre => None,
        GateReading::Toe => {
            let w = input.target(Side::Left).toe;
            let moved = shift(result, Side::Left, q).1 + shift(result, Side::Right, q).1;
            let total = shift(result, Side::Left, q).0 + shift(result, Side::Right, q).0;
            let aim = [2.0 * w[0] + moved, 2.0 * w[1] + moved];
            of(GateAbout::TotalToe, l + r, total, 0.0, Some(aim), READABLE_TOE_DEG)
        }
    }
}
