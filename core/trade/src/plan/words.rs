//! The answer in spoken words: short, side first, number with unit, then what to do.

use super::angle::AngleName;
use super::bench::Bench;
use super::height::PlanState;
use super::input::PlanInput;
use super::line::SettingLine;
use super::reach::Plane;
use super::result::{Candidate, CandidateStatus, Effect, SidePlan, Verdict};
use super::stop::Stop;
use super::work::Work;
use crate::aim::Target;
use crate::part::Part;
use crate::plan::judge::{READABLE_DEG, SolvedSetting, outside};
use bold_stance_car::adjuster::Held;
use bold_stance_car::vehicle::StateKind;
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_units::said::{Said, said, sentences};

/// Name of a height state: a word of the language, or what somebody called a level.
pub(crate) fn state_named(name: &str) -> Said {
    match name {
        "as found" => said("state-found"),
        "planned" => said("state-planned"),
        "settled" => said("state-settled"),
        "loaded" => said("state-loaded"),
        other => Said::text(other),
    }
}

/// `Front +65 mm settled`: the height an axle is judged at.
pub(crate) fn axle_height(axle: Axle, mm: f64, state: &PlanState) -> Said {
    let at = |id| said(id).word("axle", axle.word()).change_mm("gain", mm);
    match state.kind {
        StateKind::Planned => at("axle-height"),
        _ => at("axle-height-at").say("state", state_named(&state.name)),
    }
}

pub(crate) fn does(part: &Part, effect: Option<&Effect>, work: &Work<'_>) -> Said {
    let Some(e) = effect else { return Said::text("") };
    for edit in &part.edits {
        if let Edit::ReplaceEccentric { eccentricity_mm, points, .. } = edit {
            let old =
                work.input
                    .adjusters
                    .left
                    .iter()
                    .find_map(|a| match &a.kind {
                        bold_stance_car::adjuster::AdjusterKind::Eccentric {
                            point, eccentricity_mm, ..
                        } if points.contains(point) => Some(*eccentricity_mm),
                        _ => None,
                    })
                    .unwrap_or(*eccentricity_mm);
            return said("does-reach").plain("times", eccentricity_mm / old, 1);
        }
    }
    let still = e.camber_deg.abs() < 0.05 && e.caster_deg.abs() < 0.05;
    if still && !part.adjusters.is_empty() {
        return said("does-sets").count("n", part.adjusters.len());
    }
    if still && e.half_track_mm.abs() >= 1.0 && (e.bump_toe_ratio - 1.0).abs() < 0.05 {
        return said("does-track").change_mm("by", e.half_track_mm);
    }
    if still {
        return said("does-bump").plain("times", e.bump_toe_ratio, 2);
    }
    if work.plane == Plane::CamberToe {
        return said("does-camber-toe").change_deg("camber", e.camber_deg, 1).change_deg("toe", e.toe_deg, 1);
    }
    said("does-caster-camber").change_deg("caster", e.caster_deg, 1).change_deg("camber", e.camber_deg, 1)
}

pub(crate) fn costs(part: &Part, effect: Option<&Effect>) -> Said {
    let mut out = Vec::new();
    if let Some(e) = effect {
        if e.toe_deg.abs() >= 0.05 {
            out.push(said("costs-toe").change_deg("by", e.toe_deg, 1));
        }
        if e.wheel_x_mm.abs() >= 1.5 {
            let way = if e.wheel_x_mm < 0.0 { "back" } else { "forward" };
            out.push(said("costs-wheel").mm("by", e.wheel_x_mm.abs()).word("way", way));
        }
    }
    out.push(Said::text(part.side_effect.clone()));
    sentences(out)
}

pub(crate) fn verdict(
    work: &Work<'_>,
    [left, right]: [&SidePlan; 2],
    candidates: &[Candidate],
    misfits: &[Said],
    stop: Option<&Stop>,
) -> Verdict {
    let input = work.input;
    let used_mm = work.state.own_mm;
    let cross_camber_deg = left.set.camber_deg - right.set.camber_deg;
    let cross_caster_deg = left.set.caster_deg - right.set.caster_deg;
    let cross_ok = work.cross_ok(&left.set, &right.set);
    let inside = left.shortfall.worst() < 1e-6 && right.shortfall.worst() < 1e-6;
    let fouls: Vec<Said> = [("left", left), ("right", right)]
        .into_iter()
        .flat_map(|(name, s)| {
            let foul = move |c: &super::checks::Check| {
                said("foul-side").word("side", name).say("what", c.words.clone())
            };
            s.checks.iter().filter(|c| c.fouls()).map(foul)
        })
        .chain(misfits.iter().cloned())
        .collect();
    // Where nothing was read nothing lands.
    let judged = input.is_judged();
    // An axle that stays askew does not land, whatever its angles do.
    let askew = work.square.as_ref().is_some_and(|s| !s.squared);
    let reached = judged && inside && cross_ok && stop.is_none() && fouls.is_empty() && !askew;
    let height = said("sentence").say("what", axle_height(input.geometry.axle, used_mm, &work.state));
    let (headline, sentence) = if let Some(s) = stop {
        let sentence = said("verdict-stop-at").say("stop", s.words.clone()).change_mm("used", s.used_mm);
        (said("verdict-stop"), sentence)
    } else if !fouls.is_empty() {
        // Said before anything else: what meets something is not set so, wherever the angles come to stand.
        let angles = if misfits.len() == fouls.len() {
            "verdict-misfits"
        } else if !judged {
            "verdict-fouls-not-judged"
        } else if inside && cross_ok {
            "verdict-fouls-on-aim"
        } else {
            "verdict-fouls-off-aim"
        };
        (said(angles), sentences(vec![height, said("verdict-fouls").list("each", fouls.clone())]))
    } else if askew {
        (said("verdict-askew"), height)
    } else if !judged {
        (said("verdict-not-judged"), height)
    } else if reached {
        let fitted = candidates.iter().filter(|c| c.status == CandidateStatus::Fitted).count();
        let with = match fitted {
            0 if !turns(left, right) => None,
            0 if has_cams(input) => Some(said("verdict-as-built")),
            0 => Some(said("verdict-toe-alone")),
            n => Some(said("verdict-parts-on").count("n", n)),
        };
        let all = [height].into_iter().chain(with).chain(first_orders(left, right)).collect();
        let all_read =
            [AngleName::Camber, AngleName::Caster, AngleName::Toe].into_iter().all(|a| input.is_read(a));
        (said(if all_read { "verdict-reached" } else { "verdict-reached-read" }), sentences(all))
    } else if inside {
        let cross = input.cross();
        let off = cross.off(cross_camber_deg, cross_caster_deg);
        let limits = [("camber", off[0], cross.camber), ("caster", off[1], cross.caster)];
        let more = |(angle, off, most): (&'static str, f64, f64)| {
            let by = off.abs() - most;
            let says = || said("apart-more").word("angle", angle).miss_deg("by", by).deg("most", most, 1);
            (by > READABLE_DEG).then(says)
        };
        let steered = if input.steered() { 2 } else { 1 };
        let apart = said("verdict-apart-by")
            .list("each", limits.into_iter().take(steered).filter_map(more).collect());
        (said("verdict-apart"), sentences(vec![height, apart]))
    } else {
        let (headline, notes) = short(input, left, right);
        let all = [height].into_iter().chain(notes).chain([closest(candidates)]).collect();
        (headline, sentences(all))
    };
    let square = work.square.iter().map(|s| s.says.clone());
    let sentence = sentences([sentence].into_iter().chain(square).collect());
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
    [left, right].iter().flat_map(|s| &s.setting).any(SettingLine::moves)
}

/// The first thing that is turned, by side; what is in is said to be left.
fn first_orders(left: &SidePlan, right: &SidePlan) -> Vec<Said> {
    let Some(first) = [left, right].iter().flat_map(|s| &s.setting).find(|l| l.moves()) else {
        return vec![said("leave-everything")];
    };
    if first.shared {
        return vec![said("first-shared").name("name", first.name.clone()).say("order", first.words.clone())];
    }
    let of = |s: &SidePlan| {
        s.setting.iter().find(|l| l.name == first.name).map_or_else(|| said("leave"), |l| l.words.clone())
    };
    let rods = [left, right].iter().flat_map(|s| &s.setting).filter(|l| l.moves()).all(|l| l.sets_toe);
    let leave = match (rods, left.set.caster_deg != 0.0) {
        (true, true) => Some(said("only-rods")),
        (true, false) => Some(said("only-toe")),
        _ => None,
    };
    let order =
        said("first-order").name("name", first.name.clone()).say("left", of(left)).say("right", of(right));
    leave.into_iter().chain([order]).collect()
}

/// Whether anything but toe can be set as the vehicle is built.
fn has_cams(input: &PlanInput) -> bool {
    input.adjusters.each().iter().any(|(_, l)| l.iter().any(|a| !a.is_tie_rod() && !a.is_fixed()))
}

/// What a fitted part brings that moves an angle: at its end first.
fn part_that_sets<'a>(input: &PlanInput, sides: [&'a SidePlan; 2], what: &str) -> Option<&'a SettingLine> {
    let own = |name: &str| input.adjusters.each().iter().any(|(_, l)| l.iter().any(|a| a.name == name));
    let moves = |s: &SidePlan, name: &str| {
        s.sensitivity.iter().filter(|x| x.name == name).any(|x| {
            let by = match what {
                "camber" => x.camber_deg,
                "caster" => x.caster_deg,
                _ => x.toe_deg,
            };
            by.abs() >= LEAST_STEP_DEG
        })
    };
    let of =
        |s: &'a SidePlan| s.setting.iter().filter(move |l| !l.sets_toe && !own(&l.name) && moves(s, &l.name));
    sides.into_iter().flat_map(of).max_by_key(|l| l.at_end)
}

/// What a step moves an angle by to count as setting it, degrees.
const LEAST_STEP_DEG: f64 = 0.02;

/// Why nothing but toe can be set: held, not there, or not looked at.
fn nothing_sets(input: &PlanInput) -> &'static str {
    let held = |why| input.adjusters.each().iter().any(|(_, l)| l.iter().any(|a| a.held == Some(why)));
    if held(Held::TabsIn) {
        "short-tabs-in"
    } else if held(Held::Seized) {
        "short-seized"
    } else if input.adjusters_told {
        "short-as-built"
    } else {
        "short-not-looked"
    }
}

/// What is short, on which side and by how much; with cams at their end and a gap beyond the doubt, that they run out.
fn short(input: &PlanInput, left: &SidePlan, right: &SidePlan) -> (Said, Vec<Said>) {
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
        (true, true) => "both",
        (true, false) => "left",
        _ => "right",
    };
    let note = (doubt > by).then(|| said("short-within-doubt").deg("doubt", doubt, 1));
    let at_end = [left, right].iter().flat_map(|s| &s.setting).any(|l| l.at_end && !l.sets_toe);
    let tie_end = [left, right].iter().flat_map(|s| &s.setting).any(|l| l.at_end && l.sets_toe);
    let of_part = part_that_sets(input, [left, right], what);
    let sets = has_cams(input) || of_part.is_some();
    let plain = || said("short-angle").word("side", side).word("angle", what).miss_deg("by", by);
    let (headline, named) = match what {
        // A tenth or less is no running out.
        _ if by < NO_GAP_DEG => (plain(), true),
        "toe" if !input.steered() => (said("short-toe-rear"), false),
        "toe" if tie_end => (said("short-rods-end"), false),
        _ if of_part.is_some_and(|l| l.at_end) => {
            let name = of_part.map_or(String::new(), |l| l.name.clone());
            (said("short-part-ends").name("part", name).word("angle", what), false)
        }
        _ if has_cams(input) && at_end => (said("short-cams-end").word("angle", what), false),
        _ if sets || what == "toe" => (plain(), true),
        _ => (said(nothing_sets(input)).word("angle", what), false),
    };
    let by_side = (!named).then(|| said("short-side").word("side", side).miss_deg("by", by));
    (headline, by_side.into_iter().chain(note).collect())
}

/// A gap below this is named by its amount alone, degrees.
const NO_GAP_DEG: f64 = 0.15;

/// A part with what comes along with it.
fn whole_name(c: &Candidate) -> String {
    let names = std::iter::once(c.part.name.as_str()).chain(c.kit.iter().map(|k| k.name.as_str()));
    names.collect::<Vec<_>>().join(" + ")
}

fn closest(candidates: &[Candidate]) -> Said {
    if let Some(c) = candidates.iter().find(|c| c.status == CandidateStatus::Reaches) {
        return said("closest-reaches").name("part", whole_name(c));
    }
    candidates
        .iter()
        .filter(|c| c.status == CandidateStatus::Short)
        .min_by(|a, b| (a.short_deg + a.apart_deg).total_cmp(&(b.short_deg + b.apart_deg)))
        .map_or_else(
            || said("closest-none"),
            |c| {
                let part = |id| said(id).name("part", whole_name(c));
                if c.short_deg == 0.0 && c.apart_deg > 0.0 {
                    part("closest-apart").deg("by", c.apart_deg, 1)
                } else {
                    part("closest-short").deg("by", c.short_deg, 1)
                }
            },
        )
}

/// A car that stands farther than this from where its points were taken was told with a height that nobody measured: most
/// travels end there (judgement, no source), mm.
const FAR_MM: f64 = 80.0;

fn watch(input: &PlanInput, left: &SidePlan, right: &SidePlan, reached: bool) -> Vec<Said> {
    let mut out = input.swept.as_ref().map(|s| s.notes.clone()).unwrap_or_default();
    let stands = f64::midpoint(input.left.height_mm, input.right.height_mm) - input.design_height_mm;
    if stands.abs() > FAR_MM {
        out.push(
            said("watch-far")
                .mm("by", stands.abs())
                .word("way", if stands < 0.0 { "lower" } else { "higher" })
                .mm("design", input.design_height_mm),
        );
    }
    // How far the shape is from the car is no sign of a bent part by itself: builds of a kind differ as much.
    let known = input.knowledge.most_bent_deg();
    for (name, s) in [("left", left), ("right", right)] {
        if s.anchor.largest_deg() > known {
            out.push(said("watch-bent").word("side", name).deg("by", s.anchor.largest_deg(), 1));
        }
    }
    let low = |s: &SidePlan| {
        reached
            && input.steered()
            && input.is_read(AngleName::Caster)
            && s.set.caster_deg - s.doubt.caster_deg < input.aim.caster_deg[0]
    };
    let side = match (low(left), low(right)) {
        (true, true) => Some("both"),
        (true, false) => Some("left"),
        (false, true) => Some("right"),
        (false, false) => None,
    };
    out.extend(side.map(|s| said("watch-doubt-low").word("side", s)));
    out
}

/// Why these adjusters: what each one used gives beside what it was used for, against the other that could give it.
pub(crate) fn why(bench: &Bench, t: &Target, set: &SolvedSetting) -> Vec<Said> {
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
            out.push(
                said("why-one")
                    .name("name", name.clone())
                    .name("other", bench.adjusters[j].name.clone())
                    .word("angle", if by_camber { "camber" } else { "caster" })
                    .word("side-effect", what)
                    .deg("each", 1.0, 0)
                    .change_deg("got", got, 1)
                    .change_deg("theirs", theirs, 1),
            );
        }
    }
    // Several share the work: what each brings, so that one sees which gives back what another takes.
    if used.len() > 1 {
        let each: Vec<Said> = used
            .iter()
            .filter_map(|(i, _, _)| {
                let mut alone = bench.start();
                alone[*i] = set.positions[*i];
                let a = bench.angles(&alone).ok()?;
                let (c, k) = (a.camber_deg - start.camber_deg, a.caster_deg - start.caster_deg);
                let name =
                    |id| said(id).name("name", bench.adjusters[*i].name.clone()).change_deg("camber", c, 1);
                Some(if bench.corner.is_steered() {
                    name("why-brings-caster").change_deg("caster", k, 1)
                } else {
                    name("why-brings-toe").change_deg("toe", a.toe_deg - start.toe_deg, 1)
                })
            })
            .collect();
        out.push(said("why-several").list("each", each));
    }
    let spare = |v: f64, w: [f64; 2]| outside(v, w) == 0.0 && ((v - w[0]).min(w[1] - v)) < 0.03;
    if spare(set.angles.camber_deg, t.camber)
        || (bench.corner.is_steered() && spare(set.angles.caster_deg, t.caster))
    {
        out.push(said("why-edge"));
    }
    out
}
