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

pub(crate) fn signed_mm(v: f64) -> String {
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
        Loop::NoSetting => "No setting of the adjusters closes",
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
    let fouls: Vec<String> = [("Left", left), ("Right", right)]
        .into_iter()
        .flat_map(|(name, s)| {
            s.checks.iter().filter(|c| c.fouls()).map(move |c| format!("{name}: {}", c.words))
        })
        .collect();
    let reached = inside && cross_ok && stop.is_none() && fouls.is_empty();
    let end = if input.steered() { "Front" } else { "Rear" };
    let at = match work.state.kind {
        crate::vehicle::StateKind::Planned => String::new(),
        _ => format!(" {}", work.state.name),
    };
    let height = format!("{end} {}{at}.", signed_mm(used_mm));
    let (headline, sentence) = if let Some(s) = stop {
        ("Height runs out of travel".to_owned(), format!("{} Shown at {}.", s.words, signed_mm(s.used_mm)))
    } else if !fouls.is_empty() {
        // Said before anything else: what meets something is not set so, wherever the angles come to stand.
        let angles = if inside && cross_ok { "On aim, but it fouls" } else { "It fouls, and is off the aim" };
        (angles.to_owned(), format!("{height} {}.", fouls.join("; ")))
    } else if reached {
        let fitted = candidates.iter().filter(|c| c.status == CandidateStatus::Fitted).count();
        let with = match fitted {
            0 if !turns(left, right) => String::new(),
            0 if has_cams(input) => "What is on it does it. ".to_owned(),
            0 => "Toe alone does it. ".to_owned(),
            1 => "One part on. ".to_owned(),
            n => format!("{n} parts on. "),
        };
        ("Both sides land on aim".to_owned(), format!("{height} {with}{}", first_orders(left, right)))
    } else if inside {
        (
            "Sides stay too far apart".to_owned(),
            format!(
                "{height} Left to right: camber {} of {:.1}° allowed, caster {} of {:.1}°.",
                signed(cross_camber_deg, 1),
                input.aim.cross_camber_deg,
                signed(cross_caster_deg, 1),
                input.aim.cross_caster_deg,
            ),
        )
    } else {
        let (headline, note) = short(input, left, right);
        (headline, format!("{height} {note}{}", closest(candidates)))
    };
    Verdict {
        reached,
        headline,
        sentence,
        cross_camber_deg,
        cross_caster_deg,
        fouls,
        watch: watch(input, left, right, reached),
    }
}

/// Whether anything is turned.
fn turns(left: &SidePlan, right: &SidePlan) -> bool {
    [left, right].iter().flat_map(|s| &s.setting).any(super::bench::SettingLine::moves)
}

/// The first thing that is turned, by side; what is in is said to be left.
fn first_orders(left: &SidePlan, right: &SidePlan) -> String {
    let Some(first) = [left, right].iter().flat_map(|s| &s.setting).find(|l| l.moves()) else {
        return "All angles are in: leave everything.".into();
    };
    if first.shared {
        return format!("{}: {}.", first.name, first.words);
    }
    let of = |s: &SidePlan| {
        s.setting.iter().find(|l| l.name == first.name).map_or("leave".to_owned(), |l| l.words.clone())
    };
    let rods = [left, right].iter().flat_map(|s| &s.setting).filter(|l| l.moves()).all(|l| l.sets_toe);
    let leave = match (rods, left.set.caster_deg != 0.0) {
        (true, true) => "Camber and caster are in: turn only the rods. ",
        (true, false) => "Camber is in: turn only toe. ",
        _ => "",
    };
    format!("{leave}{}: left {}, right {}.", first.name, of(left), of(right))
}

/// Whether anything but toe can be set as the vehicle is built.
fn has_cams(input: &PlanInput) -> bool {
    input.adjusters.iter().any(|a| !a.is_tie_rod())
}

/// What is short, on which side and by how much; with cams at their end and a gap beyond the doubt, that they run out.
fn short(input: &PlanInput, left: &SidePlan, right: &SidePlan) -> (String, String) {
    type Gap = (&'static str, f64, f64);
    let gaps = |s: &SidePlan| -> [Gap; 3] {
        [
            ("camber", s.shortfall.camber_deg, s.doubt.camber_deg),
            ("caster", s.shortfall.caster_deg, s.doubt.caster_deg),
            ("toe", s.shortfall.toe_deg, s.doubt.toe_deg),
        ]
    };
    let (l, r) = (gaps(left), gaps(right));
    let order = [1usize, 0, 2];
    let worst =
        order.into_iter().max_by(|a, b| l[*a].1.max(r[*a].1).total_cmp(&l[*b].1.max(r[*b].1))).unwrap_or(0);
    let (what, by) = (l[worst].0, l[worst].1.max(r[worst].1));
    let doubt = if l[worst].1 >= r[worst].1 { l[worst].2 } else { r[worst].2 };
    let side = match (l[worst].1 > 1e-6, r[worst].1 > 1e-6) {
        (true, true) => "Both sides",
        (true, false) => "Left",
        _ => "Right",
    };
    let said = if by < 0.095 { format!("{by:.2}°") } else { format!("{by:.1}°") };
    let note = if by < READABLE_DEG {
        "Less than a shop can read. ".to_owned()
    } else if doubt > by {
        format!("Within its doubt of ±{doubt:.1}°: read again after the first turn. ")
    } else {
        String::new()
    };
    let at_end = [left, right].iter().flat_map(|s| &s.setting).any(|l| l.at_end && !l.sets_toe);
    let tie_end = [left, right].iter().flat_map(|s| &s.setting).any(|l| l.at_end && l.sets_toe);
    let sets = has_cams(input);
    let headline = match what {
        // A tenth or less is no running out.
        _ if by < NO_GAP_DEG => format!("{side}: {what} short {said}"),
        "toe" if !input.steered() => "Toe is off, and nothing here sets it that far".into(),
        "toe" if tie_end => "Tie rods run out before toe does".into(),
        _ if sets && at_end => format!("Cams run out before {what} does"),
        _ if sets || what == "toe" => format!("{side}: {what} short {said}"),
        "caster" => "Caster is off, and nothing as built sets it".into(),
        _ => "Camber is off, and nothing as built sets it".into(),
    };
    let named = if headline.contains(&said) { String::new() } else { format!("{side} short {said}. ") };
    (headline, format!("{named}{note}"))
}

/// A gap below this is named by its amount alone, degrees.
const NO_GAP_DEG: f64 = 0.15;

/// What a shop can read of camber and caster, degrees; less is no shortfall to spend money on.
pub(crate) const READABLE_DEG: f64 = 0.05;

fn closest(candidates: &[Candidate]) -> String {
    if let Some(c) = candidates.iter().find(|c| c.status == CandidateStatus::Reaches) {
        return format!("Reaches on both sides: {}.", c.part.name.to_lowercase());
    }
    candidates
        .iter()
        .filter(|c| c.status == CandidateStatus::Short)
        .min_by(|a, b| (a.short_deg + a.apart_deg).total_cmp(&(b.short_deg + b.apart_deg)))
        .map_or("Nothing in the catalogue reaches it.".to_owned(), |c| {
            let still = if c.short_deg < READABLE_DEG && c.apart_deg > 0.0 {
                format!("sides still {:.1}° too far apart", c.apart_deg)
            } else {
                format!("still {:.1}° short", c.short_deg)
            };
            format!("No single part reaches. Nearest: {}, {still}.", c.part.name.to_lowercase())
        })
}

/// A car that stands farther than this from where its points were taken was told with a height that nobody measured: most
/// travels end there (judgement, no source), mm.
const FAR_MM: f64 = 80.0;

fn watch(input: &PlanInput, left: &SidePlan, right: &SidePlan, reached: bool) -> Vec<String> {
    let mut out = input.swept.as_ref().map(|s| s.notes.clone()).unwrap_or_default();
    let stands = f64::midpoint(input.left.height_mm, input.right.height_mm) - input.design_height_mm;
    if stands.abs() > FAR_MM {
        out.push(format!(
            "It stands {:.0} mm {} than where its points were taken, hub to arch {:.0} mm: put that height right in Arrive \
             before anything here is believed.",
            stands.abs(),
            if stands < 0.0 { "lower" } else { "higher" },
            input.design_height_mm
        ));
    }
    // How far the shape is from the car is no sign of a bent part by itself: builds of a kind differ as much.
    let known = input.knowledge.most_bent_deg();
    for (name, s) in [("Left", left), ("Right", right)] {
        if s.anchor.largest_deg() > known {
            out.push(format!(
                "{name}: readings sit {:.1}° from these points. Measure the points of this side again; if they hold, look for a bent part.",
                s.anchor.largest_deg()
            ));
        }
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
