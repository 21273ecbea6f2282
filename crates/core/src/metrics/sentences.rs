//! The quantities of the corner file and what each means for the job. Usual ranges are common practice, no
//! source; they are there to make somebody look, not to pass or fail a car.

use super::axle::AxleMetrics;
use super::corner_file::{Area, CornerQuantity, StateRow};
use super::live_axle::LivePoint;
use crate::geometry::{Axle, Layout};
use crate::vehicle::{Car, Gains};

/// Pneumatic trail of a road tyre, mm: about a sixth of the contact length (textbook order; common practice).
const PNEUMATIC_TRAIL: f64 = 28.0;
/// Body roll at which corner camber is shown, degrees.
const ROLL: f64 = 3.0;

pub(super) struct Input<'a> {
    pub car: &'a Car,
    pub front: &'a AxleMetrics,
    pub front_planned: Option<&'a AxleMetrics>,
    pub rear: Option<&'a AxleMetrics>,
    pub rear_planned: Option<&'a AxleMetrics>,
    pub live: &'a [LivePoint],
    pub live_axle: Axle,
    pub rows: &'a [StateRow],
    pub arrived: Gains,
    pub planned: Option<Gains>,
}

struct Put<'a> {
    area: Area,
    id: &'a str,
    label: &'a str,
    unit: &'a str,
    digits: u8,
    usual: [f64; 2],
}

type Values = (Option<f64>, Option<f64>);

fn add(
    out: &mut Vec<CornerQuantity>,
    put: Put<'_>,
    v: Values,
    say: impl Fn(f64, f64) -> (String, &'static str),
) {
    let (Some(arrived), planned) = v else { return };
    let value = planned.unwrap_or(arrived);
    if !value.is_finite() || !arrived.is_finite() {
        return;
    }
    let outside = value < put.usual[0] || value > put.usual[1];
    let (means, caution) = say(arrived, value);
    out.push(CornerQuantity {
        id: put.id.into(),
        area: put.area,
        label: put.label.into(),
        unit: put.unit.into(),
        digits: put.digits,
        arrived,
        planned,
        usual: put.usual,
        outside,
        means,
        caution: outside.then(|| caution.to_owned()),
    });
}

fn both<'a>(
    now: &'a AxleMetrics,
    then: Option<&'a AxleMetrics>,
    f: impl Fn(&'a AxleMetrics) -> Option<f64>,
) -> Values {
    (f(now), then.and_then(f))
}

/// "up", "down", or that it stays.
fn moved<'a>(from: f64, to: f64, small: f64, up: &'a str, down: &'a str, same: &'a str) -> &'a str {
    if to > from + small {
        up
    } else if to < from - small {
        down
    } else {
        same
    }
}

pub(super) fn quantities(i: &Input<'_>) -> Vec<CornerQuantity> {
    let mut out = Vec::with_capacity(32);
    axle(i, &mut out, Axle::Front);
    steering(i, &mut out);
    axle(i, &mut out, Axle::Rear);
    live(i, &mut out);
    car(i, &mut out);
    out
}

fn axle(i: &Input<'_>, out: &mut Vec<CornerQuantity>, which: Axle) {
    let (now, then, area) = match (which, i.rear) {
        (Axle::Front, _) => (i.front, i.front_planned, Area::Front),
        (Axle::Rear, Some(r)) => (r, i.rear_planned, Area::Rear),
        (Axle::Rear, None) => return,
    };
    let front = which == Axle::Front;
    let live = now.layout == Layout::SolidAxle.word();
    let name = |f: &'static str, r: &'static str| if front { f } else { r };
    let put = |id, label, unit, digits, usual| Put { area, id, label, unit, digits, usual };
    let rc_usual = match (live, front) {
        (true, _) => [200.0, 600.0],
        (false, true) => [-20.0, 140.0],
        (false, false) => [10.0, 220.0],
    };
    add(
        out,
        put(name("front_roll_centre", "rear_roll_centre"), "Roll centre height", "mm", 0, rc_usual),
        both(now, then, |m| m.roll_centre.map(|r| r.z_mm)),
        |a, v| {
            let s = moved(
                a,
                v,
                3.0,
                "rises: the body leans less, and the tyre is pushed sideways more over a bump",
                "falls: the body leans more on it in a bend",
                "stays where it is",
            );
            (
                format!("The axle's roll centre {s}."),
                "Look at the slope of the arms: a roll centre far from usual makes the end lean or jack.",
            )
        },
    );
    if !live {
        add(
            out,
            put(
                name("front_camber_gain", "rear_camber_gain"),
                "Camber per 50 mm of bump",
                "°",
                2,
                [-2.2, -0.1],
            ),
            both(now, then, |m| Some(m.camber_gain_deg_per_50mm)),
            |_, v| {
                let outer = ROLL + v / 50.0 * (0.5 * now.track_mm) * ROLL.to_radians().tan();
                (
                    format!(
                        "At {ROLL:.0}° of body roll the outside wheel ends {outer:.1}° further out at the top than standing."
                    ),
                    "The wheel goes the wrong way over bumps here: check the height against the curve.",
                )
            },
        );
    }
    let toe_usual = if front { [-0.25, 0.25] } else { [-0.1, 0.4] };
    add(
        out,
        put(name("bump_steer", "rear_bump_steer"), "Toe per 50 mm of bump", "°", 2, toe_usual),
        both(now, then, |m| Some(m.bump_steer_deg_per_50mm)),
        |_, v| {
            let way = if v.abs() < 0.03 {
                "keeps its direction over bumps"
            } else if v > 0.0 {
                "toes in as it is pushed up"
            } else {
                "toes out as it is pushed up"
            };
            (
                format!("Each {} wheel {way}.", name("front", "rear")),
                name(
                    "It will wander on rough roads: level the tie rods (rack spacer, tie-rod-end spacer) before setting toe.",
                    "It steers from the rear over bumps: fit or set a toe link at this height.",
                ),
            )
        },
    );
    add(
        out,
        put(name("bump_scrub", "rear_bump_scrub"), "Tyre walks per 50 mm of bump", "mm", 1, [-12.0, 12.0]),
        both(now, then, |m| Some(m.bump_scrub_mm_per_50mm)),
        |_, v| {
            let way = if v >= 0.0 { "outward" } else { "inward" };
            (
                format!("The contact patch is dragged {:.0} mm {way} for each 50 mm of bump.", v.abs()),
                "Steep arms drag the tyre sideways: the tread scrubs on every bump at this height.",
            )
        },
    );
    add(
        out,
        put(
            name("anti_dive", "anti_lift"),
            name("Anti-dive", "Anti-lift under braking"),
            "%",
            0,
            match (live, front) {
                (true, _) => [-10.0, 140.0],
                (false, true) => [-25.0, 60.0],
                (false, false) => [-10.0, 120.0],
            },
        ),
        both(now, then, |m| Some(m.anti_brake_percent)),
        |_, v| {
            (
                if v >= 0.0 {
                    format!(
                        "The links carry {v:.0} % of what braking would {} the body.",
                        name("sink", "raise")
                    )
                } else {
                    format!(
                        "Braking pulls the body {} even more through the links.",
                        name("down in front", "up at the rear")
                    )
                },
                "Tilted pivots make the brakes work the suspension: check the side view.",
            )
        },
    );
    if !front {
        add(
            out,
            put(
                "anti_squat",
                "Anti-squat under drive",
                "%",
                0,
                if live { [-20.0, 180.0] } else { [-20.0, 130.0] },
            ),
            both(now, then, |m| Some(m.anti_drive_percent)),
            |_, v| {
                (
                    format!("Under drive the links carry {v:.0} % of the squat, if this axle is driven."),
                    "Past 100 % the rear rises under power and the tyres can hop: look at the link angles.",
                )
            },
        );
    }
    for (n, joint) in now.joints.iter().enumerate() {
        let upper = joint.joint == "upper";
        let label = if upper { "Upper ball joint swing" } else { "Lower ball joint swing" };
        let id = if upper { "upper_joint" } else { "lower_joint" };
        add(
            out,
            put(id, label, "°", 1, [-9.0, 9.0]),
            both(now, then, |m| m.joints.get(n).map(|j| j.change_deg)),
            |_, v| {
                (
                    format!(
                        "The joint stands {:.0}° {} where it was designed to.",
                        v.abs(),
                        if v >= 0.0 { "above" } else { "below" }
                    ),
                    "Little swing is left before the stud meets its cone: measure the joint's angle at full droop.",
                )
            },
        );
    }
    add(
        out,
        put(
            name("front_shaft", "rear_shaft"),
            "Drive shaft angle, outer joint",
            "°",
            1,
            [0.0, if front { 9.0 } else { 8.0 }],
        ),
        both(now, then, |m| m.shaft.map(|s| s.outer_deg)),
        |a, v| {
            let s = moved(a, v, 0.2, "steeper than it came", "flatter than it came", "as it came");
            (
                format!("The shaft runs {s}, straight ahead."),
                "A steep shaft wears its joint and pulls under power: check the boots at full droop and lock.",
            )
        },
    );
    add(
        out,
        put(
            name("front_track_change", "rear_track_change"),
            "Track against as it came",
            "mm",
            1,
            [-20.0, 20.0],
        ),
        (Some(0.0), then.map(|m| m.track_mm - now.track_mm)),
        |_, v| {
            (
                if v.abs() < 0.5 {
                    "The track stays as it is.".into()
                } else {
                    format!(
                        "The wheels stand {:.0} mm {} together.",
                        v.abs(),
                        if v > 0.0 { "wider" } else { "narrower" }
                    )
                },
                "Check the tyres against arch and strut on both sides.",
            )
        },
    );
    let room = |m: &AxleMetrics, gains: Option<Gains>| {
        gains.map(|g| {
            let travel = if front {
                -f64::midpoint(g.left_front, g.right_front)
            } else {
                -f64::midpoint(g.left_rear, g.right_rear)
            };
            travel - m.travel_range_mm[0]
        })
    };
    add(
        out,
        put(name("droop_left", "rear_droop_left"), "Droop the links leave", "mm", 0, [50.0, 400.0]),
        (room(now, Some(i.arrived)), room(now, i.planned)),
        |_, v| {
            (
                format!(
                    "The wheel can hang {v:.0} mm lower before a link is stretched out; dampers and hoses may stop it sooner."
                ),
                "Little droop is left: the end tops out over crests. Check hose, sensor wire and shaft at full droop.",
            )
        },
    );
}

fn steering(i: &Input<'_>, out: &mut Vec<CornerQuantity>) {
    let (now, then) = (i.front, i.front_planned);
    if now.left.steer.is_none() {
        return;
    }
    let put = |id, label, unit, digits, usual| Put { area: Area::Steering, id, label, unit, digits, usual };
    add(
        out,
        put("caster", "Caster, left, against the body", "°", 1, [2.0, 8.0]),
        both(now, then, |m| m.left.steer.map(|s| s.caster_deg)),
        |_, v| {
            (
                if v > 4.0 {
                    "The wheels come back to straight by themselves.".into()
                } else {
                    "The steering is light and comes back slowly.".to_string()
                },
                "Steering feel will change: correct caster before the road test.",
            )
        },
    );
    add(
        out,
        put("sai", "Steering-axis inclination, left", "°", 1, [6.0, 17.0]),
        both(now, then, |m| m.left.steer.map(|s| s.sai_deg)),
        |_, v| {
            (
                format!("At lock this lean takes camber toward positive on both wheels; {v:.1}° here."),
                "Compare the included angle of both sides: a lean far from usual points to a bent part or a moved mount.",
            )
        },
    );
    add(
        out,
        put("included_angle", "Included angle, left", "°", 1, [5.0, 17.0]),
        both(now, then, |m| m.included_angle_deg),
        |_, v| {
            let other = then.unwrap_or(now).included_angle_right_deg.unwrap_or(v);
            (
                format!(
                    "Lean of the axis and camber together, a size of the knuckle; {:.1}° between left and right.",
                    (v - other).abs()
                ),
                "Compare both sides before setting anything: this angle does not change by adjustment.",
            )
        },
    );
    add(
        out,
        put("scrub_radius", "Scrub radius, left", "mm", 0, [-25.0, 70.0]),
        both(now, then, |m| m.left.steer.map(|s| s.scrub_radius_mm)),
        |_, v| {
            (
                format!(
                    "The tyre meets the road {:.0} mm {} the steering axis.",
                    v.abs(),
                    if v >= 0.0 { "outside" } else { "inside" }
                ),
                "Braking and ruts tug at the wheel: check wheel offset before parts.",
            )
        },
    );
    add(
        out,
        put("trail", "Mechanical trail, left", "mm", 0, [4.0, 45.0]),
        both(now, then, |m| m.left.steer.map(|s| s.mechanical_trail_mm)),
        |_, v| {
            let moment = (v + PNEUMATIC_TRAIL) / 1000.0 * i.car.facts.front_load_n * 0.3;
            (
                format!(
                    "With the tyre's own trail it turns the wheel back with about {moment:.0} N·m at 0.3 g."
                ),
                "Trail this far from usual is felt as a dead or a heavy wheel.",
            )
        },
    );
    let lock = |f: fn(&super::FullLock) -> f64| both(now, then, move |m| m.full_lock.as_ref().map(f));
    add(
        out,
        put("ackermann", "Ackermann at half lock", "%", 0, [10.0, 120.0]),
        both(now, then, |m| m.ackermann_percent),
        |_, _| {
            let e = then.unwrap_or(now).ackermann_error_deg.unwrap_or(0.0);
            (
                format!(
                    "In a tight turn the inner wheel turns {:.1}° {} than rolling freely asks.",
                    e.abs(),
                    if e < 0.0 { "less" } else { "more" }
                ),
                "The front tyres fight each other in tight turns: look at the tie-rod joints' place.",
            )
        },
    );
    add(
        out,
        put("lock_inner_camber", "Inner wheel camber at full lock", "°", 1, [-3.0, 9.0]),
        lock(|f| f.inner_camber_deg),
        |_, v| {
            (
                format!("At full lock the inner wheel stands {:.1}° {} at the top.", v.abs(), lean(v)),
                "It turns on its edge: more caster or less lean of the axis keeps it flatter.",
            )
        },
    );
    add(
        out,
        put("lock_outer_camber", "Outer wheel camber at full lock", "°", 1, [-9.0, 1.0]),
        lock(|f| f.outer_camber_deg),
        |_, v| {
            (
                format!("The loaded wheel stands {:.1}° {} at the top at full lock.", v.abs(), lean(v)),
                "A loaded wheel that leans out runs on its shoulder in tight bends.",
            )
        },
    );
    add(
        out,
        put("lock_lift", "Body lift over the inner wheel at full lock", "mm", 1, [-5.0, 16.0]),
        lock(|f| f.inner_lift_mm),
        |_, v| {
            (
                format!(
                    "Turning to full lock raises that corner {v:.0} mm; the wheel falls back from it by itself."
                ),
                "Heavy to hold at lock: check effort with the engine idling.",
            )
        },
    );
    add(
        out,
        put("lock_forward", "Inner wheel moves forward at full lock", "mm", 0, [-70.0, 70.0]),
        lock(|f| f.inner_forward_mm),
        |_, v| {
            (
                format!(
                    "The hub swings {:.0} mm {} as the wheel turns.",
                    v.abs(),
                    if v >= 0.0 { "forward" } else { "rearward" }
                ),
                "Turn to lock with the body at bump height and look at arch and liner.",
            )
        },
    );
    let drag = i.car.facts.tyre_width_mm * i.car.facts.lock_deg.to_radians();
    add(
        out,
        put("turning_scrub", "Tread dragged turning on the spot", "mm", 0, [0.0, 220.0]),
        (Some(drag), None),
        |_, v| {
            (
                format!(
                    "A {:.0} mm tread turned to full lock standing still is dragged {v:.0} mm edge to edge.",
                    i.car.facts.tyre_width_mm
                ),
                "Wide tyres wear when parked under lock: let it roll while turning.",
            )
        },
    );
}

fn lean(v: f64) -> &'static str {
    if v >= 0.0 { "out" } else { "in" }
}

fn live(i: &Input<'_>, out: &mut Vec<CornerQuantity>) {
    if i.live.is_empty() {
        return;
    }
    let front = i.live_axle == Axle::Front;
    let area = if front { Area::Front } else { Area::Rear };
    let put = |id, label, unit, digits, usual| Put { area, id, label, unit, digits, usual };
    let height = |g: &Gains| {
        if front {
            f64::midpoint(g.left_front, g.right_front)
        } else {
            f64::midpoint(g.left_rear, g.right_rear)
        }
    };
    // Linear between the curve's heights, which lie close together.
    let at = |h: f64, f: &dyn Fn(&LivePoint) -> Option<f64>| -> Option<f64> {
        let j = i.live.partition_point(|p| p.height_mm < h).clamp(1, i.live.len() - 1);
        let (a, b) = (i.live.get(j - 1)?, i.live.get(j)?);
        let t = (h - a.height_mm) / (b.height_mm - a.height_mm);
        Some(f(a)? + (f(b)? - f(a)?) * t)
    };
    let value = |f: &dyn Fn(&LivePoint) -> Option<f64>| -> Values {
        let zero = at(height(&i.arrived), f);
        let against = |h: f64| Some(at(h, f)? - zero?);
        (zero.map(|_| 0.0), i.planned.and_then(|g| against(height(&g))))
    };
    add(
        out,
        put("axle_shift", "Axle to the left", "mm", 1, [-8.0, 8.0]),
        value(&|p| Some(p.lateral_shift_mm)),
        |_, v| {
            (
                if v.abs() < 0.5 {
                    "The axle stands where it stood.".into()
                } else {
                    format!(
                        "On the track bar's arc the axle comes to stand {:.0} mm to the {}.",
                        v.abs(),
                        if v >= 0.0 { "left" } else { "right" }
                    )
                },
                "Centre the axle with an adjustable track bar or a bracket, at ride height.",
            )
        },
    );
    add(
        out,
        put("axle_pitch", "Axle turns, nose down", "°", 1, [-1.5, 1.5]),
        value(&|p| Some(p.pitch_deg)),
        |_, v| {
            (
                if v.abs() < 0.05 {
                    "The axle keeps its angle, and the pinion with it.".into()
                } else if front {
                    format!(
                        "Caster goes with it, {:.1}° {}; so does the pinion.",
                        v.abs(),
                        if v > 0.0 { "less" } else { "more" }
                    )
                } else {
                    format!("The pinion goes {:.1}° {}.", v.abs(), if v > 0.0 { "down" } else { "up" })
                },
                "Check the propeller shaft's joint angles against each other; they should stay equal.",
            )
        },
    );
    add(
        out,
        put("steering_wheel", "Steering wheel off centre, right", "°", 0, [-8.0, 8.0]),
        value(&|p| p.steering_wheel_deg),
        |_, v| {
            (
                if v.abs() < 0.5 {
                    "The steering wheel stays where it is.".into()
                } else {
                    format!(
                        "Drag link and track bar do not move alike: the wheel stands {:.0}° to the {} going straight.",
                        v.abs(),
                        if v >= 0.0 { "right" } else { "left" }
                    )
                },
                "Keep drag link and track bar at one angle and length; then centre the wheel at the drag link.",
            )
        },
    );
}

/// Share of the tread on the ground when a stiff tread of `width` is leaned by `camber` degrees: an edge
/// lifts once the lean takes more than the tyre's own deflection (3.5 % of its diameter; an estimate).
fn contact_share(width: f64, loaded_radius: f64, camber: f64) -> f64 {
    let deflection = loaded_radius * 0.035 / (1.0 - 0.035);
    let lean = camber.to_radians().sin();
    if 0.5 * width * lean <= deflection {
        return 1.0;
    }
    (0.5 * width + deflection / lean) / width
}

fn car(i: &Input<'_>, out: &mut Vec<CornerQuantity>) {
    let width = i.car.facts.tyre_width_mm;
    let contact = |m: &AxleMetrics| {
        let camber = m.left.camber_deg.abs().max(m.right.camber_deg.abs());
        Some(100.0 * contact_share(width, i.car.front.wheel.loaded_radius_mm, camber))
    };
    add(
        out,
        Put {
            area: Area::Car,
            id: "contact_width",
            label: "Front tread on the ground, standing",
            unit: "%",
            digits: 0,
            usual: [75.0, 100.0],
        },
        (contact(i.front), i.front_planned.and_then(contact)),
        |_, v| {
            (
                format!(
                    "Of a {width:.0} mm tread about {:.0} mm carry, by the lean of the worse wheel alone.",
                    width * v / 100.0
                ),
                "One edge of the tread hangs free when it stands: set camber before judging the tyre.",
            )
        },
    );
    let row = |kind| i.rows.iter().find(|r| r.kind == kind);
    let (now, then) = (row(crate::vehicle::StateKind::Arrived), row(crate::vehicle::StateKind::Planned));
    let Some(now) = now else { return };
    let put = |id, label, unit, digits, usual| Put { area: Area::Car, id, label, unit, digits, usual };
    add(
        out,
        put("pitch", "Body pitch against design, nose up", "°", 2, [-1.5, 1.5]),
        (Some(now.pitch_deg), then.map(|r| r.pitch_deg)),
        |a, v| {
            (
                if (v - a).abs() < 0.02 {
                    "The body keeps its rake; caster gets nothing from it.".into()
                } else {
                    format!(
                        "The change of rake alone {} {:.1}° of caster.",
                        if v > a { "adds" } else { "takes" },
                        (v - a).abs()
                    )
                },
                "Headlights, camera and radar look elsewhere at this rake: have them set.",
            )
        },
    );
    add(
        out,
        put("wheelbase", "Wheelbase, left", "mm", 1, [i.car.wheelbase_mm - 15.0, i.car.wheelbase_mm + 15.0]),
        (Some(now.wheelbase_left_mm), then.map(|r| r.wheelbase_left_mm)),
        |a, v| {
            (
                if (v - a).abs() < 0.5 {
                    "The axles stay the same distance apart.".into()
                } else {
                    format!(
                        "The axles move {:.0} mm {}.",
                        (v - a).abs(),
                        if v > a { "apart" } else { "together" }
                    )
                },
                "Look where the tyres stand in their arches, front and rear.",
            )
        },
    );
    if let Some(t) = now.thrust_deg {
        add(
            out,
            put("thrust", "Thrust angle, to the right", "°", 2, [-0.12, 0.12]),
            (Some(t), then.and_then(|r| r.thrust_deg)),
            |_, v| {
                (
                    if v.abs() < 0.02 {
                        "The rear axle points straight ahead.".into()
                    } else {
                        format!(
                            "The rear axle points {:.2}° to the {}.",
                            v.abs(),
                            if v > 0.0 { "right" } else { "left" }
                        )
                    },
                    "Set the rear first: the front is steered to this line.",
                )
            },
        );
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_tread_stays_down_until_the_lean_takes_its_deflection() {
        assert!((contact_share(265.0, 390.0, 0.0) - 1.0).abs() < 1e-12);
        assert!((contact_share(265.0, 390.0, 3.0) - 1.0).abs() < 1e-12);
        let leaned = contact_share(265.0, 390.0, 8.0);
        assert!(leaned < 0.9 && leaned > 0.5, "{leaned}");
        assert!(contact_share(265.0, 390.0, 12.0) < leaned);
    }
}
