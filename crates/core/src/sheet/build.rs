//! The sheet of a car: height of every axle that changes, then the rear, then the front, toe last, tightened, proved. Only
//! what the plan changes appears.

use super::gate::fouls;
use super::ids::{StepId, Tick};
use super::step::{GateNeed, GateReading, SheetStep, StepHeight, StepKind, TickLine};
use crate::geometry::{Axle, Layout};
use crate::part::{Adjuster, Part};
use crate::plan::{CarAnswer, CarInput, Order, PlanResult};
use crate::vehicle::{Axles, Sides};

fn step(
    id: StepId,
    axle: Option<Axle>,
    title: impl Into<String>,
    detail: String,
    cautions: &[&str],
) -> SheetStep {
    SheetStep {
        id,
        kind: StepKind::Step,
        axle,
        title: title.into(),
        detail,
        orders: Vec::new(),
        height: None,
        ticks: Vec::new(),
        needs: Vec::new(),
        cautions: cautions.iter().map(|c| (*c).to_owned()).collect(),
    }
}

fn gate(
    id: StepId,
    axle: Option<Axle>,
    title: &str,
    detail: String,
    ticks: &[Tick],
    needs: Vec<GateNeed>,
) -> SheetStep {
    let ticks = ticks.iter().map(|t| TickLine { id: *t, words: tick_words(*t).into() }).collect();
    SheetStep { kind: StepKind::Gate, ticks, needs, ..step(id, axle, title, detail, &[]) }
}

fn tick_words(t: Tick) -> &'static str {
    match t {
        Tick::Roll => "Roll 3 m",
        Tick::Bounce => "Bounce three times",
        Tick::Resweep => "Re-sweep caster",
        Tick::WheelStraight => "Steering wheel straight",
    }
}

fn need(axle: Axle, list: &[GateReading]) -> Vec<GateNeed> {
    list.iter().map(|quantity| GateNeed { axle, quantity: *quantity }).collect()
}

/// Orders as one line: what is one for both wheels, left, right.
fn said(orders: &[Order]) -> String {
    use crate::geometry::Side;
    let mut out = Vec::new();
    for (side, name) in [(None, "both wheels"), (Some(Side::Left), "left"), (Some(Side::Right), "right")] {
        let of: Vec<&Order> = orders.iter().filter(|o| o.side == side).collect();
        if of.is_empty() {
            continue;
        }
        let moved: Vec<String> = of
            .iter()
            .filter(|o| o.line.moves())
            .map(|o| format!("{} {}", o.line.name.to_lowercase(), o.line.words))
            .collect();
        let words = if moved.is_empty() { "leave".to_owned() } else { moved.join(", ") };
        out.push(format!("{name}: {words}"));
    }
    out.join("; ")
}

/// What the step of everything but toe is called, by what it turns.
fn turning(axle: Axle, orders: &[Order]) -> &'static str {
    let moved = || orders.iter().filter(|o| o.line.moves());
    match (axle, moved().all(|o| o.line.is_cam), moved().all(|o| o.side.is_none())) {
        (Axle::Front, true, _) => "Cams, both fronts",
        (Axle::Rear, true, _) => "Cams, both rears",
        (Axle::Front, _, true) => "Arms and bars of the front axle",
        (Axle::Rear, _, true) => "Arms and bars of the rear axle",
        (Axle::Front, ..) => "Front cams, slots, plates and arms",
        (Axle::Rear, ..) => "Rear arms, cams and slots",
    }
}

fn degrees(v: f64) -> String {
    format!("{}{:.1}°", if v < -0.04 { "−" } else { "" }, v.abs())
}

/// What a plan does to an axle.
struct Doing<'a> {
    axle: Axle,
    result: &'a PlanResult,
    fitted: &'a [Part],
    arms: Vec<Order>,
    toe: Vec<Order>,
    heights: bool,
}

impl Doing<'_> {
    fn turns_arms(&self) -> bool {
        self.arms.iter().any(|o| o.line.moves())
    }

    fn turns_toe(&self) -> bool {
        self.toe.iter().any(|o| o.line.moves())
    }

    /// Whether anything of it is touched.
    fn touched(&self) -> bool {
        self.heights || !self.fitted.is_empty() || self.turns_arms() || self.turns_toe()
    }
}

fn height_step(input: &CarInput, d: &Doing<'_>) -> SheetStep {
    let r = d.result;
    let target_mm = Sides { left: r.left.planned_height_mm, right: r.right.planned_height_mm };
    let read = input.base.axles[d.axle].as_ref().map(|b| b.read.map(|s| s.height_mm)).unwrap_or(target_mm);
    let title = match d.axle {
        Axle::Front => "Set front height",
        Axle::Rear => "Set rear height",
    };
    let mut out = step(
        StepId::Height(d.axle),
        Some(d.axle),
        title,
        format!("left {:.0} mm, right {:.0} mm, hub to arch", target_mm.left, target_mm.right),
        &[
            "A loaded spring can kill: use a proper compressor or leave it to a shop. Torsion bars: unload first.",
            "At full droop and lock check brake hose, sensor wire, drive-shaft and ball-joint angles.",
        ],
    );
    out.height = Some(StepHeight {
        target_mm,
        change_mm: Sides { left: target_mm.left - read.left, right: target_mm.right - read.right },
        ways: input.plan.axles[d.axle].ways.clone(),
    });
    out
}

/// Parts of an axle: slots and bolts before plates, so that what leaves least room is set first.
fn part_steps(d: &Doing<'_>) -> Vec<SheetStep> {
    let mut parts: Vec<&Part> = d.fitted.iter().collect();
    parts.sort_by_key(|p| p.adjusters.iter().map(Adjuster::turn_order).min().unwrap_or(0));
    let one = |p: &Part| {
        let cautions: Vec<&str> = p.cautions.iter().map(String::as_str).collect();
        let id = StepId::Fit(d.axle, p.id.clone());
        let title = format!("Fit {}", p.name.to_lowercase());
        let mut s = step(id, Some(d.axle), title, "bolts snug, not tight".into(), &cautions);
        s.cautions.push("Seized bolt: stop. Do not cut or heat suspension parts.".into());
        s
    };
    parts.into_iter().map(one).collect()
}

fn arms_step(d: &Doing<'_>) -> SheetStep {
    let cautions = ["Loosen one bolt at a time and count from the paint mark. Knock-out tabs must be out."];
    let id = StepId::Arms(d.axle);
    SheetStep {
        orders: d.arms.clone(),
        ..step(id, Some(d.axle), turning(d.axle, &d.arms), said(&d.arms), &cautions)
    }
}

fn toe_step(d: &Doing<'_>) -> SheetStep {
    let cautions = [
        "Mark before turning, count turns. Keep thread engagement; torque the lock nuts to the maker's figures.",
    ];
    let (title, detail) = match d.axle {
        Axle::Front => {
            ("Tie rods", format!("wheel straight and locked; {}; read toe, then turn the rest", said(&d.toe)))
        }
        Axle::Rear => ("Rear toe", format!("{}; read toe, then turn the rest", said(&d.toe))),
    };
    SheetStep { orders: d.toe.clone(), ..step(StepId::Toe(d.axle), Some(d.axle), title, detail, &cautions) }
}

fn rear_gate(input: &CarInput) -> SheetStep {
    let t = input.plan.aim.target(Axle::Rear);
    let detail = format!(
        "Camber {} to {}, total toe {} to {}; each also near what was expected. The front is set to the rear's thrust line.",
        degrees(t.camber[0]),
        degrees(t.camber[1]),
        degrees(2.0 * t.toe[0]),
        degrees(2.0 * t.toe[1]),
    );
    let needs = need(Axle::Rear, &[GateReading::Camber, GateReading::Toe]);
    gate(
        StepId::Read(Axle::Rear),
        Some(Axle::Rear),
        "Settle, read the rear",
        detail,
        &[Tick::Roll, Tick::Bounce],
        needs,
    )
}

fn front_gate(input: &CarInput) -> SheetStep {
    let t = input.plan.aim.target(Axle::Front);
    let detail = format!(
        "Camber {} to {}, caster {} to {}; each also near what was expected. Caster has to be swept again.",
        degrees(t.camber[0]),
        degrees(t.camber[1]),
        degrees(t.caster[0]),
        degrees(t.caster[1]),
    );
    let needs = need(Axle::Front, &[GateReading::Camber, GateReading::Caster]);
    let ticks = [Tick::Roll, Tick::Bounce, Tick::Resweep];
    gate(StepId::Read(Axle::Front), Some(Axle::Front), "Settle, re-sweep caster", detail, &ticks, needs)
}

/// The sheet of a car's plan. Only what the plan changes appears.
#[must_use]
pub fn sheet(input: &CarInput, answer: &CarAnswer, fitted: &Axles<Vec<Part>>) -> Vec<SheetStep> {
    let doing = |axle: Axle| {
        answer.axles[axle].as_ref().map(|result| {
            let of = |toe: bool| -> Vec<Order> {
                answer.orders.iter().filter(|o| o.axle == axle && o.line.sets_toe == toe).cloned().collect()
            };
            let heights = input.plan.axles[axle].changes_height();
            Doing { axle, result, fitted: &fitted[axle], arms: of(false), toe: of(true), heights }
        })
    };
    let (rear, front) = (doing(Axle::Rear), doing(Axle::Front));
    let both = || [&rear, &front].into_iter().flatten();
    let mut out = Vec::new();
    let foul: Vec<String> = fouls(answer)
        .into_iter()
        .filter_map(|f| Some(format!("{} {}: {}", f.axle?.word(), f.side?.word(), f.what?)))
        .collect();
    if !foul.is_empty() {
        let detail = format!("{}. Plan again, or say why it goes on.", foul.join("; "));
        out.push(gate(StepId::Fouls, None, "It fouls as planned", detail, &[], Vec::new()));
    }
    out.push(step(
        StepId::Support,
        None,
        "Stand and mark",
        "chock, stands on hard points; paint-mark everything that will be turned".into(),
        &["Never trust a jack alone. Air suspension: service mode before lifting, pads at the lift points."],
    ));
    out.extend(both().filter(|d| d.heights).map(|d| height_step(input, d)));
    let lifted: Vec<Axle> = both().filter(|d| d.heights).map(|d| d.axle).collect();
    // Where no height changes those as found still have to hold: angles belong to a height.
    let counted = if lifted.is_empty() {
        both().map(|d| d.axle).next_back().into_iter().collect()
    } else {
        lifted.clone()
    };
    out.push(gate(
        StepId::Settled,
        None,
        "Settle, re-read height",
        "No angle counts until height is settled and both sides are read.".into(),
        &[Tick::Roll, Tick::Bounce],
        counted.into_iter().flat_map(|a| need(a, &[GateReading::Height])).collect(),
    ));
    if let Some(d) = &rear {
        out.extend(part_steps(d));
        if d.turns_arms() {
            out.push(arms_step(d));
        }
        if d.turns_toe() {
            out.push(toe_step(d));
        }
        if d.turns_arms() || d.turns_toe() || !d.fitted.is_empty() {
            out.push(rear_gate(input));
        }
    }
    if let Some(d) = &front {
        out.extend(part_steps(d));
        if d.turns_arms() {
            out.push(arms_step(d));
        }
        // A body that pitches turns caster, whichever axle's height changed.
        if d.turns_arms() || !lifted.is_empty() || !d.fitted.is_empty() {
            out.push(front_gate(input));
        }
        if d.turns_toe() {
            out.push(toe_step(d));
        }
    }
    out.push(step(
        StepId::Tighten,
        None,
        "Tighten at ride height",
        "wheels on the ground, rubber bushings at rest".into(),
        &["Torque to the maker's figures with bushings at ride height; new bolts where the maker says."],
    ));
    // A live axle nobody touched keeps its angles, whatever the front's height does.
    let rides =
        |a: Axle| input.base.axles[a].as_ref().is_some_and(|b| b.geometry.layout() != Layout::SolidAxle);
    let pitched = front.as_ref().is_none_or(|f| f.heights) && rides(Axle::Rear);
    let rear_counts = rear.as_ref().is_some_and(|d| d.touched() || pitched);
    let mut needs = Vec::new();
    if rear_counts {
        needs.extend(need(Axle::Rear, &[GateReading::Camber, GateReading::Toe]));
    }
    if front.is_some() {
        needs.extend(need(Axle::Front, &[GateReading::Camber, GateReading::Caster, GateReading::Toe]));
    }
    let detail = match (front.is_some(), rear_counts) {
        (true, true) => "Camber, caster and toe of both fronts, camber and toe of both rears, after a roll.",
        (true, false) => "Camber, caster and toe, both fronts, after a roll.",
        _ => "Camber and toe, both rears, after a roll.",
    };
    let ticks = [Tick::Roll, Tick::WheelStraight];
    out.push(gate(StepId::Proved, None, "Prove, full re-read", detail.into(), &ticks, needs));
    out
}

/// Cautions of the whole job: law, road, and what this program does not do.
#[must_use]
pub fn job_cautions() -> Vec<String> {
    [
        "Height or thrust changed: headlight aim, camera and radar, and the steering-angle sensor need calibration.",
        "More height raises roll-over risk. Lift, bumper height and tyre cover are local law: have it inspected where required.",
        "This sheet computes geometry from what it was told. It certifies nothing.",
    ]
    .map(str::to_owned)
    .to_vec()
}
