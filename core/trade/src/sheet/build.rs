//! The sheet of a car: height of every axle that changes, what opens a corner, heights read; then the rear, then the front,
//! toe last, tightened, proved. Only what the plan changes appears.

use super::gate::{HEIGHT_MM, fouls};
use super::ids::{StepId, Tick};
use super::step::{GateNeed, GateReading, SheetStep, StepHeight, StepKind, TickLine};
use crate::inspect::comes_first;
use crate::part::Part;
use crate::plan::{
    AngleName, CENTRE_MM, CarAnswer, CarInput, Order, PlanResult, SQUARE_MM, SidePlan, is_track_bar,
};
use crate::reading::ROLL_M;
use bold_stance_car::adjuster::Adjuster;
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::{Axle, Layout};
use bold_stance_units::said::{Measure, Said, said, sentences};

fn step(id: StepId, axle: Option<Axle>, title: Said, detail: Said, cautions: &[&'static str]) -> SheetStep {
    SheetStep {
        id,
        kind: StepKind::Step,
        axle,
        title,
        detail,
        orders: Vec::new(),
        height: None,
        ticks: Vec::new(),
        needs: Vec::new(),
        helps: Vec::new(),
        read_again: Vec::new(),
        cautions: cautions.iter().map(|c| said(c)).collect(),
        notes: Vec::new(),
    }
}

fn gate(
    id: StepId,
    axle: Option<Axle>,
    title: &'static str,
    detail: Said,
    ticks: &[Tick],
    needs: Vec<GateNeed>,
) -> SheetStep {
    let ticks = ticks.iter().map(|t| TickLine { id: *t, words: tick_words(*t) }).collect();
    SheetStep { kind: StepKind::Gate, ticks, needs, ..step(id, axle, said(title), detail, &[]) }
}

fn tick_words(t: Tick) -> Said {
    match t {
        Tick::Roll => said("tick-roll").of("far", Measure::M, ROLL_M, 0),
        Tick::Bounce => said("tick-bounce"),
        Tick::Resweep => said("tick-resweep"),
        Tick::WheelStraight => said("tick-wheel-straight"),
    }
}

fn need(axle: Axle, list: &[GateReading]) -> Vec<GateNeed> {
    list.iter().map(|quantity| GateNeed { axle, quantity: *quantity }).collect()
}

/// Orders as one line: what is one for both wheels, left, right.
fn in_line(orders: &[Order]) -> Said {
    use bold_stance_kinematics::geometry::Side;
    let mut out = Vec::new();
    for (side, name) in [(None, "both"), (Some(Side::Left), "left"), (Some(Side::Right), "right")] {
        let of: Vec<&Order> = orders.iter().filter(|o| o.side == side).collect();
        if of.is_empty() {
            continue;
        }
        let mut moved: Vec<Said> = of
            .iter()
            .filter(|o| o.line.moves())
            .map(|o| said("name-order").name("name", o.line.name.clone()).say("order", o.line.words.clone()))
            .collect();
        if moved.is_empty() {
            moved.push(said("leave"));
        }
        out.push(said("side-orders").word("side", name).list("each", moved));
    }
    said("orders").list("each", out)
}

/// What the step of everything but toe is called, by what it turns.
fn turning(axle: Axle, orders: &[Order]) -> Said {
    let moved = || orders.iter().filter(|o| o.line.moves());
    let what = match (moved().all(|o| o.line.is_cam), moved().all(|o| o.side.is_none())) {
        (true, _) => "step-cams",
        (_, true) => "step-arms-of-axle",
        _ => "step-arms",
    };
    said(what).word("axle", axle.word())
}

/// Camber or caster moved by so much at a wheel may have moved its height by more than a tape's tolerance: putting camber
/// right at both upper arms has cost 12 mm (common practice, no source; the share of it is judgement), degrees.
const HEIGHT_AGAIN_DEG: f64 = 0.5;

/// What a plan does to an axle.
struct Doing<'a> {
    axle: Axle,
    result: &'a PlanResult,
    fitted: &'a [Part],
    arms: Vec<Order>,
    toe: Vec<Order>,
    /// Names of its track bars.
    bars: Vec<String>,
    heights: bool,
    /// Whether its wheels hang on springs one by one.
    independent: bool,
}

impl Doing<'_> {
    fn turns_arms(&self) -> bool {
        self.arms.iter().any(|o| o.line.moves())
    }

    fn turns_toe(&self) -> bool {
        self.toe.iter().any(|o| o.line.moves())
    }

    /// Whether turning its arms can move the heights it stands at: they are taped again after it.
    fn arms_move_heights(&self) -> bool {
        let moved = |s: &SidePlan| {
            let camber = (s.set.camber_deg - s.after.camber_deg).abs();
            camber.max((s.set.caster_deg - s.after.caster_deg).abs()) >= HEIGHT_AGAIN_DEG
        };
        self.independent && self.turns_arms() && (moved(&self.result.left) || moved(&self.result.right))
    }

    /// Whether its heights are to be read before any of its angles: they were changed, or a corner was opened.
    fn settles(&self) -> bool {
        self.heights || !self.fitted.is_empty()
    }

    /// Whether its arms are turned to square it.
    fn squares(&self) -> bool {
        let arms = self.result.square.iter().flat_map(|s| s.arms.each());
        arms.filter_map(|(_, l)| l.as_ref()).any(crate::plan::SettingLine::moves)
    }

    /// What says where it lies under the car, where that is turned.
    fn placed(&self) -> Vec<GateReading> {
        let centres = self.arms.iter().any(|o| o.line.moves() && self.bars.contains(&o.line.name));
        let of = |yes: bool, q| yes.then_some(q);
        let all = [of(self.squares(), GateReading::Wheelbase), of(centres, GateReading::Centre)];
        all.into_iter().flatten().collect()
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
    let change = Sides { left: target_mm.left - read.left, right: target_mm.right - read.right };
    let side = |id, target: f64, change: f64| said(id).mm("target", target).change_mm("change", change);
    let ways = &input.plan.axles[d.axle].ways;
    let ways: Vec<Said> = ways
        .iter()
        .map(|w| said("way-gains").word("way", w.kind.id()).change_mm("gain", w.gain_mm))
        .collect();
    let heights = said("height-target")
        .say("left", side("height-of-side", target_mm.left, change.left))
        .say("right", side("height-of-side", target_mm.right, change.right));
    let detail =
        if ways.is_empty() { heights } else { said("height-by").say("heights", heights).list("ways", ways) };
    let mut out = step(
        StepId::Height(d.axle),
        Some(d.axle),
        said("step-height").word("axle", d.axle.word()),
        detail,
        &["caution-spring", "caution-droop-and-lock"],
    );
    out.height =
        Some(StepHeight { target_mm, change_mm: change, ways: input.plan.axles[d.axle].ways.clone() });
    out
}

/// Parts of an axle: slots and bolts before plates, so that what leaves least room is set first.
fn part_steps(d: &Doing<'_>) -> Vec<SheetStep> {
    let mut parts: Vec<&Part> = d.fitted.iter().collect();
    parts.sort_by_key(|p| p.adjusters.iter().map(Adjuster::turn_order).min().unwrap_or(0));
    let one = |p: &Part| {
        let id = StepId::Fit(d.axle, p.id.clone());
        let title = match p.only {
            None => said("step-fit").name("part", p.name.clone()),
            Some(side) => said("step-fit-one").name("part", p.name.clone()).word("side", side.word()),
        };
        let mut s = step(id, Some(d.axle), title, said("step-fit-how"), &[]);
        s.cautions = p.cautions.iter().map(|c| Said::text(c.clone())).collect();
        s.cautions.push(said("caution-seized"));
        s.notes = notes(p);
        s
    };
    parts.into_iter().map(one).collect()
}

/// How a part is reached and what it takes, as the shop typed it.
fn notes(p: &Part) -> Vec<Said> {
    let typed = |id, text: &str| (!text.trim().is_empty()).then(|| said(id).name("text", text.trim()));
    [typed("note-access", &p.access), typed("note-sockets", &p.sockets), typed("note-torque", &p.torque)]
        .into_iter()
        .flatten()
        .collect()
}

/// The same of every part that is turned in a step.
fn turned_notes(d: &Doing<'_>, orders: &[Order]) -> Vec<Said> {
    let turns = |p: &&Part| {
        orders.iter().any(|o| o.line.moves() && p.adjusters.iter().any(|a| a.name == o.line.name))
    };
    d.fitted.iter().filter(turns).flat_map(notes).collect()
}

fn arms_step(d: &Doing<'_>) -> SheetStep {
    let id = StepId::Arms(d.axle);
    let (title, how) = (turning(d.axle, &d.arms), in_line(&d.arms));
    let notes = turned_notes(d, &d.arms);
    SheetStep { orders: d.arms.clone(), notes, ..step(id, Some(d.axle), title, how, &["caution-one-bolt"]) }
}

fn toe_step(input: &CarInput, d: &Doing<'_>, moved: bool) -> SheetStep {
    let (title, how) = match d.axle {
        Axle::Front => ("step-tie-rods", "step-tie-rods-how"),
        Axle::Rear => ("step-rear-toe", "step-rear-toe-how"),
    };
    let how = said(how).say("orders", in_line(&d.toe));
    // Behind what moves toe it is turned by what toe is, not by what the rest was to make of it.
    let helps = if moved { as_read(input, need(d.axle, &[GateReading::Toe])) } else { Vec::new() };
    SheetStep {
        helps,
        orders: d.toe.clone(),
        notes: turned_notes(d, &d.toe),
        ..step(StepId::Toe(d.axle), Some(d.axle), said(title), how, &["caution-mark-and-count"])
    }
}

/// A window as somebody set it: tenths of a degree, hundredths where a tenth would tell another one.
fn window(s: Said, low: &'static str, high: &'static str, w: [f64; 2]) -> Said {
    let digits = |v: f64| if ((v * 10.0).round() / 10.0 - v).abs() < 1e-6 { 1 } else { 2 };
    s.deg(low, w[0], digits(w[0])).deg(high, w[1], digits(w[1]))
}

/// Of these only what was read as found: a gate asks for no more than the job does.
fn as_read(input: &CarInput, needs: Vec<GateNeed>) -> Vec<GateNeed> {
    let read = |n: &GateNeed| {
        let angle = match n.quantity {
            GateReading::Height | GateReading::Wheelbase | GateReading::Centre => return true,
            GateReading::Camber => AngleName::Camber,
            GateReading::Caster => AngleName::Caster,
            GateReading::Toe => AngleName::Toe,
        };
        input.axle(n.axle).is_none_or(|i| i.is_read(angle))
    };
    needs.into_iter().filter(read).collect()
}

/// What a gate reads of an axle, each with its window, and what goes with it.
fn windows(input: &CarInput, axle: Axle, needs: &[GateNeed], then: Option<&'static str>) -> Said {
    use bold_stance_kinematics::geometry::Side;
    let [t, right] = Side::BOTH.map(|s| input.plan.aim.target(axle, s));
    // One window where both sides are aimed alike, else each side's.
    let sides = |id, l: [f64; 2], r: [f64; 2]| {
        let one = window(said(id), "low", "high", l);
        if l == r {
            one
        } else {
            said("gate-apart").say("left", one).say("right", window(said("gate-window"), "low", "high", r))
        }
    };
    let one = |q: GateReading| match q {
        GateReading::Camber => Some(sides("gate-camber", t.camber, right.camber)),
        GateReading::Caster => Some(sides("gate-caster", t.caster, right.caster)),
        GateReading::Toe => Some(window(said("gate-toe"), "low", "high", t.toe.map(|v| 2.0 * v))),
        GateReading::Wheelbase => Some(said("gate-wheelbase").mm("most", SQUARE_MM)),
        GateReading::Centre => Some(said("gate-centre").mm("most", CENTRE_MM)),
        GateReading::Height => Some(said("gate-height").mm("most", HEIGHT_MM)),
    };
    let mut quantities: Vec<GateReading> = Vec::new();
    for n in needs {
        if !quantities.contains(&n.quantity) {
            quantities.push(n.quantity);
        }
    }
    let each = quantities.into_iter().filter_map(one).collect();
    sentences([said("gate-windows").list("each", each)].into_iter().chain(then.map(said)).collect())
}

/// The gate behind an axle's work; none where nothing it would judge was read as found.
fn axle_gate(input: &CarInput, d: &Doing<'_>) -> Option<SheetStep> {
    let (axle, placed) = (d.axle, d.placed());
    let (title, asked) = match axle {
        Axle::Front => ("gate-front", [GateReading::Camber, GateReading::Caster]),
        Axle::Rear => ("gate-rear", [GateReading::Camber, GateReading::Toe]),
    };
    let mut needs = as_read(input, need(axle, &asked));
    needs.extend(need(axle, &placed));
    let swept = needs.iter().any(|n| n.quantity == GateReading::Caster);
    let then = match axle {
        Axle::Rear => Some("gate-thrust"),
        Axle::Front => swept.then_some("gate-resweep"),
    };
    let how = windows(input, axle, &needs, then);
    let ticks: &[Tick] =
        if swept { &[Tick::Roll, Tick::Bounce, Tick::Resweep] } else { &[Tick::Roll, Tick::Bounce] };
    let title = match axle {
        _ if needs.iter().all(|n| placed.contains(&n.quantity)) => match placed[..] {
            [GateReading::Wheelbase] => "gate-square",
            [GateReading::Centre] => "gate-central",
            _ => "gate-placed",
        },
        Axle::Front if !swept => "gate-front-camber",
        _ => title,
    };
    // Heights first: every angle hangs on them.
    let mut all = if d.arms_move_heights() { need(axle, &[GateReading::Height]) } else { Vec::new() };
    let how = if all.is_empty() { how } else { sentences(vec![windows(input, axle, &all, None), how]) };
    let asks = !needs.is_empty();
    all.extend(needs);
    asks.then(|| gate(StepId::Read(axle), Some(axle), title, how, ticks, all))
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
            let own = input.base.axles[axle].iter().flat_map(|b| &b.adjusters.left);
            let all = own.chain(fitted[axle].iter().flat_map(|p| &p.adjusters));
            let bars = all.filter(|a| is_track_bar(a)).map(|a| a.name.clone()).collect();
            let independent = input.base.axles[axle].as_ref();
            let independent = independent.is_some_and(|b| b.geometry.layout() != Layout::SolidAxle);
            let (arms, toe, fitted) = (of(false), of(true), &fitted[axle]);
            Doing { axle, result, fitted, arms, toe, bars, heights, independent }
        })
    };
    let (rear, front) = (doing(Axle::Rear), doing(Axle::Front));
    let both = || [&rear, &front].into_iter().flatten();
    let mut out = Vec::new();
    let foul: Vec<Said> = fouls(answer)
        .into_iter()
        .filter_map(|f| {
            let at = match f.side {
                Some(side) => said("foul-at").word("axle", f.axle?.word()).word("side", side.word()),
                None => said("foul-parts").word("axle", f.axle?.word()),
            };
            Some(at.say("what", f.what?))
        })
        .collect();
    if !foul.is_empty() {
        let how = said("gate-fouls-how").list("each", foul);
        out.push(gate(StepId::Fouls, None, "gate-fouls", how, &[], Vec::new()));
    }
    let repairs = comes_first(&input.base.inspected);
    if !repairs.is_empty() {
        let how = said("step-repair-how").list("each", repairs);
        out.push(step(StepId::Repair, None, said("step-repair"), how, &["caution-jack"]));
    }
    let support = said("step-support-how");
    out.push(step(StepId::Support, None, said("step-support"), support, &["caution-jack"]));
    out.extend(both().filter(|d| d.heights).map(|d| height_step(input, d)));
    // What opens a corner comes before the heights are read: springs and bushings settle anew behind it.
    out.extend(both().flat_map(part_steps));
    let lifted = both().any(|d| d.heights);
    let settling: Vec<Axle> = both().filter(|d| d.settles()).map(|d| d.axle).collect();
    // Where none of it is done the heights as found still have to hold: angles belong to a height.
    let counted =
        if settling.is_empty() { both().map(|d| d.axle).next_back().into_iter().collect() } else { settling };
    out.push(gate(
        StepId::Settled,
        None,
        "gate-settled",
        said("gate-settled-how"),
        &[Tick::Roll, Tick::Bounce],
        counted.into_iter().flat_map(|a| need(a, &[GateReading::Height])).collect(),
    ));
    if let Some(d) = &rear {
        if d.turns_arms() {
            out.push(arms_step(d));
        }
        if d.turns_toe() {
            out.push(toe_step(input, d, d.turns_arms() || d.settles()));
        }
        if d.turns_arms() || d.turns_toe() || !d.fitted.is_empty() {
            out.extend(axle_gate(input, d));
        }
    }
    if let Some(d) = &front {
        if d.turns_arms() {
            out.push(arms_step(d));
        }
        // A body that pitches turns caster, whichever axle's height changed.
        if d.turns_arms() || lifted || !d.fitted.is_empty() {
            out.extend(axle_gate(input, d));
        }
        if d.turns_toe() {
            out.push(toe_step(input, d, d.turns_arms() || d.settles()));
        }
    }
    let tighten = said("step-tighten-how");
    let mut tighten = step(StepId::Tighten, None, said("step-tighten"), tighten, &["caution-torque"]);
    let typed = |p: &&Part| !p.torque.trim().is_empty();
    let torque = |p: &Part| {
        said("note-torque-of").name("part", p.name.clone()).name("text", p.torque.trim().to_owned())
    };
    tighten.notes = both().flat_map(|d| d.fitted).filter(typed).map(torque).collect();
    out.push(tighten);
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
    let mut needs = as_read(input, needs);
    needs.extend(both().flat_map(|d| need(d.axle, &d.placed())));
    // Heights alone are proved by heights.
    let only_heights = needs.is_empty();
    if only_heights {
        needs.extend(both().flat_map(|d| need(d.axle, &[GateReading::Height])));
    }
    let whole = both().all(|d| d.result.expected.is_empty());
    let detail = match (front.is_some(), rear_counts) {
        _ if only_heights => "gate-proved-heights",
        _ if !whole => "gate-proved-read",
        (true, true) => "gate-proved-car",
        (true, false) => "gate-proved-front",
        _ => "gate-proved-rear",
    };
    let ticks = [Tick::Roll, Tick::WheelStraight];
    out.push(gate(StepId::Proved, None, "gate-proved", said(detail), &ticks, needs));
    out
}

/// Cautions of the whole job: law, road, and what this program does not do.
#[must_use]
pub fn job_cautions() -> Vec<Said> {
    ["caution-calibrate", "caution-law", "caution-certifies-nothing"].map(said).to_vec()
}
