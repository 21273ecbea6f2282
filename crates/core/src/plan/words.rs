//! The answer in spoken words: short, side first, number with unit, then what to do.

use super::answer::{Candidate, CandidateStatus, Effect, SidePlan, Verdict};
use super::bench::Bench;
use super::input::PlanInput;
use super::reach::Plane;
use super::solver::{SolvedSetting, Target, outside};
use super::work::{Stop, Work};
use crate::linkage::Loop;
use crate::part::{Edit, Part};

pub(crate) const LOOP_OPEN: &str = "a loop does not close";

/// Signed degrees, U+2212 minus.
fn signed(v: f64, decimals: usize) -> String {
    let body = format!("{:.*}", decimals, v.abs());
    let zero = body.chars().all(|c| c == '0' || c == '.');
    let sign = if zero {
        ""
    } else if v < 0.0 {
        "−"
    } else {
        "+"
    };
    format!("{sign}{body}°")
}

fn signed_mm(v: f64) -> String {
    let r = v.round();
    if r == 0.0 {
        return "0 mm".into();
    }
    format!("{}{:.0} mm", if r < 0.0 { "−" } else { "+" }, r.abs())
}

pub(crate) fn stop(blocked: Loop, limit_mm: f64) -> String {
    let what = match blocked {
        Loop::LowerArm => "Lower arm does not close",
        Loop::UpperArm => "Upper arm and knuckle are fully extended",
        Loop::TieRod => "Tie rod is fully extended",
        Loop::DeadPoint => "Arm is at its dead point",
        Loop::Strut => "Strut and lower arm are in line",
        Loop::Link => "A link is fully extended",
        Loop::Unsteered => "The wheel has no steering axis",
    };
    format!("{what} at {}.", signed_mm(limit_mm))
}

pub(crate) fn does(part: &Part, effect: Option<&Effect>, work: &Work<'_>) -> String {
    let Some(e) = effect else { return String::new() };
    for edit in &part.edits {
        if let Edit::ReplaceEccentric { eccentricity_mm, points, .. } = edit {
            let old = work
                .input
                .adjusters
                .iter()
                .find_map(|a| match &a.kind {
                    crate::part::AdjusterKind::Eccentric { point, eccentricity_mm, .. }
                        if points.contains(point) =>
                    {
                        Some(*eccentricity_mm)
                    }
                    _ => None,
                })
                .unwrap_or(*eccentricity_mm);
            return format!("reach ×{:.1} each way", eccentricity_mm / old);
        }
    }
    let still = e.camber_deg.abs() < 0.05 && e.caster_deg.abs() < 0.05;
    if still && !part.adjusters.is_empty() {
        let n = part.adjusters.len();
        return format!("{n} more thing{} to set", if n == 1 { "" } else { "s" });
    }
    if still && e.half_track_mm.abs() >= 1.0 && (e.bump_toe_ratio - 1.0).abs() < 0.05 {
        return format!("track {} a side", signed_mm(e.half_track_mm));
    }
    if still {
        return format!("toe swing over height ×{:.2}", e.bump_toe_ratio);
    }
    if work.plane == Plane::CamberToe {
        return format!("camber {} · toe {}", signed(e.camber_deg, 1), signed(e.toe_deg, 1));
    }
    format!("caster {} · camber {}", signed(e.caster_deg, 1), signed(e.camber_deg, 1))
}

pub(crate) fn costs(part: &Part, effect: Option<&Effect>) -> String {
    let mut out = Vec::new();
    if let Some(e) = effect {
        if e.toe_deg.abs() >= 0.05 {
            out.push(format!("Toe shifts {} a wheel, reset after.", signed(e.toe_deg, 1)));
        }
        if e.wheel_x_mm.abs() >= 1.5 {
            let way = if e.wheel_x_mm < 0.0 { "back" } else { "forward" };
            out.push(format!("Wheel goes {:.0} mm {way} in the arch.", e.wheel_x_mm.abs()));
        }
    }
    out.push(part.side_effect.clone());
    out.join(" ")
}

pub(crate) fn verdict(
    work: &Work<'_>,
    left: &SidePlan,
    right: &SidePlan,
    candidates: &[Candidate],
    stop: Option<&Stop>,
) -> Verdict {
    let input = work.input;
    let used_mm = work.state.own_mm;
    let cross_camber_deg = left.set.camber_deg - right.set.camber_deg;
    let cross_caster_deg = left.set.caster_deg - right.set.caster_deg;
    let cross_ok = work.cross_ok(&left.set, &right.set);
    let inside = left.shortfall.worst() < 1e-6 && right.shortfall.worst() < 1e-6;
    let reached = inside && cross_ok && stop.is_none();
    let end = if input.steered() { "Front" } else { "Rear" };
    let at = match work.state.kind {
        crate::vehicle::StateKind::Planned => String::new(),
        _ => format!(" {}", work.state.name),
    };
    let height = format!("{end} {}{at}.", signed_mm(used_mm));
    let (headline, sentence) = if let Some(s) = stop {
        ("Height runs out of travel".to_owned(), format!("{} Shown at {}.", s.words, signed_mm(s.used_mm)))
    } else if reached {
        let fitted = candidates.iter().filter(|c| c.status == CandidateStatus::Fitted).count();
        let with = match fitted {
            0 if has_cams(input) => "Cams alone do it.".to_owned(),
            0 => "Toe alone does it.".to_owned(),
            1 => "One part on.".to_owned(),
            n => format!("{n} parts on."),
        };
        ("Both sides land on aim".to_owned(), format!("{height} {with} {}", first_orders(left, right)))
    } else if inside {
        (
            "Sides stay too far apart".to_owned(),
            format!(
                "{height} Left to right: camber {}, caster {}.",
                signed(cross_camber_deg, 1),
                signed(cross_caster_deg, 1)
            ),
        )
    } else {
        (runs_out(input, left, right), format!("{height} {}", closest(candidates)))
    };
    Verdict {
        reached,
        headline,
        sentence,
        cross_camber_deg,
        cross_caster_deg,
        watch: watch(input, left, right, reached),
    }
}

fn first_orders(left: &SidePlan, right: &SidePlan) -> String {
    let of = |s: &SidePlan| s.setting.first().map_or("leave".to_owned(), |l| l.words.clone());
    let name = left.setting.first().map_or("Adjuster", |l| l.name.as_str());
    format!("{name}: left {}, right {}.", of(left), of(right))
}

/// Whether anything but toe can be set as the vehicle is built.
fn has_cams(input: &PlanInput) -> bool {
    input.adjusters.iter().any(|a| !a.is_tie_rod())
}

fn runs_out(input: &PlanInput, left: &SidePlan, right: &SidePlan) -> String {
    let worst = |f: &dyn Fn(&SidePlan) -> f64| f(left).max(f(right));
    let camber = worst(&|s| s.shortfall.camber_deg);
    let caster = worst(&|s| s.shortfall.caster_deg);
    let toe = worst(&|s| s.shortfall.toe_deg);
    match (toe > camber.max(caster), caster >= camber, has_cams(input)) {
        (true, _, _) if !input.steered() => "Toe is off, and nothing here sets it that far",
        (true, _, _) => "Tie rods run out before toe does",
        (false, true, true) => "Cams run out before caster does",
        (false, false, true) => "Cams run out before camber does",
        (false, true, false) => "Caster is off, and nothing as built sets it",
        (false, false, false) => "Camber is off, and nothing as built sets it",
    }
    .into()
}

fn closest(candidates: &[Candidate]) -> String {
    if let Some(c) = candidates.iter().find(|c| c.status == CandidateStatus::Reaches) {
        return format!("Reaches on both sides: {}.", c.part.name.to_lowercase());
    }
    candidates
        .iter()
        .filter(|c| c.status == CandidateStatus::Short)
        .min_by(|a, b| a.short_deg.total_cmp(&b.short_deg))
        .map_or("Nothing in the catalogue reaches it.".to_owned(), |c| {
            format!(
                "No single part reaches. Nearest: {}, still {:.1}° short.",
                c.part.name.to_lowercase(),
                c.short_deg
            )
        })
}

fn watch(input: &PlanInput, left: &SidePlan, right: &SidePlan, reached: bool) -> Vec<String> {
    let mut out = Vec::new();
    for (name, s) in [("Left", left), ("Right", right)] {
        if s.anchor.suspicious() {
            out.push(format!(
                "{name}: readings sit {:.1}° from this geometry. Bent part or wrong geometry: check the knuckle, arm and the points.",
                s.anchor.largest_deg()
            ));
        }
    }
    let included = |s: &SidePlan| s.before.sai_deg + s.before.camber_deg;
    let gap = included(left) - included(right);
    if gap.abs() > 0.7 {
        out.push(format!(
            "Included angle differs {:.1}° left to right. A bent knuckle or strut shows like this.",
            gap.abs()
        ));
    }
    let low = |s: &SidePlan| {
        reached && input.steered() && s.set.caster_deg - s.doubt.caster_deg < input.aim.caster_deg[0]
    };
    match (low(left), low(right)) {
        (true, true) => out.push("Doubt dips low on caster, both sides: re-sweep.".into()),
        (true, false) => out.push("Left: doubt dips low on caster, re-sweep.".into()),
        (false, true) => out.push("Right: doubt dips low on caster, re-sweep.".into()),
        (false, false) => {}
    }
    out
}

/// Why these adjusters: what each one used gives beside what it was used for, against the other that could give it.
pub(crate) fn why(bench: &Bench, t: &Target, set: &SolvedSetting) -> Vec<String> {
    let Ok(start) = bench.angles(&bench.start()) else { return Vec::new() };
    let miss = |v: f64, w: [f64; 2]| {
        if v > w[1] {
            w[1] - v
        } else if v < w[0] {
            w[0] - v
        } else {
            0.0
        }
    };
    let (camber, caster) = (miss(start.camber_deg, t.camber), miss(start.caster_deg, t.caster));
    let rates = bench.sensitivity(&bench.start());
    let movers: Vec<(usize, f64, f64)> = (0..bench.adjusters.len())
        .filter(|i| bench.toe_by != Some(*i))
        .filter_map(|i| {
            let r = rates.iter().find(|r| r.name == bench.adjusters[i].name)?;
            Some((i, r.camber_deg, r.caster_deg))
        })
        .collect();
    let used: Vec<&(usize, f64, f64)> = movers
        .iter()
        .filter(|(i, _, _)| (set.positions[*i] - bench.adjusters[*i].position).abs() > 1e-9)
        .collect();
    let mut out = Vec::new();
    // One adjuster does it: say what its side effect is worth against the best other one.
    if let [(i, c, k)] = used.as_slice() {
        let name = &bench.adjusters[*i].name;
        let by_camber = camber.abs() > 0.02 || (caster.abs() <= 0.02 && c.abs() > k.abs());
        let (main, side, what) = if by_camber { (*c, *k, "caster") } else { (*k, *c, "camber") };
        let per = |main: f64, side: f64| if main.abs() < 1e-6 { 0.0 } else { side / main };
        let sign = if by_camber { camber } else { caster };
        let got = per(main, side) * sign.signum();
        let other = movers
            .iter()
            .filter(|(j, _, _)| j != i)
            .map(|(j, c, k)| {
                let (m, s) = if by_camber { (*c, *k) } else { (*k, *c) };
                (*j, per(m, s) * sign.signum(), m.abs())
            })
            .filter(|(_, _, m)| *m > 0.01)
            .max_by(|a, b| a.2.total_cmp(&b.2));
        if let Some((j, theirs, _)) = other {
            let unit = if by_camber { "camber" } else { "caster" };
            let say = |v: f64| format!("{}{:.1}°", if v < 0.0 { "−" } else { "+" }, v.abs());
            out.push(format!(
                "{name}, not {}: with each degree of {unit} it brings {} of {what}; the other would bring {}.",
                bench.adjusters[j].name.to_lowercase(),
                say(got),
                say(theirs),
            ));
        }
    }
    // Several share the work: what each brings, so that one sees which gives back what another takes.
    if used.len() > 1 {
        let say = |v: f64| format!("{}{:.1}°", if v < -0.05 { "−" } else { "+" }, v.abs());
        let each: Vec<String> = used
            .iter()
            .filter_map(|(i, _, _)| {
                let mut alone = bench.start();
                alone[*i] = set.positions[*i];
                let a = bench.angles(&alone).ok()?;
                let (c, k) = (a.camber_deg - start.camber_deg, a.caster_deg - start.caster_deg);
                let name = &bench.adjusters[*i].name;
                Some(if bench.corner.is_steered() {
                    format!("{name}: camber {}, caster {}", say(c), say(k))
                } else {
                    format!("{name}: camber {}, toe {}", say(c), say(a.toe_deg - start.toe_deg))
                })
            })
            .collect();
        out.push(format!("{}.", each.join("; ")));
    }
    let spare = |v: f64, w: [f64; 2]| outside(v, w) == 0.0 && ((v - w[0]).min(w[1] - v)) < 0.03;
    if spare(set.angles.camber_deg, t.camber)
        || (bench.corner.is_steered() && spare(set.angles.caster_deg, t.caster))
    {
        out.push("It lands close to the edge of the window: the next notch leaves it.".into());
    }
    out
}
