//! One verdict for the car: which axle and side is worst and by how much, what is in already, what was not judged.

use super::input::CarInput;
use super::orders::orders_of;
use crate::aim::Target;
use crate::inspect::{FoundFirst, found_first};
use crate::plan::angle::AngleName;
use crate::plan::judge::READABLE_DEG;
use crate::plan::reach::Plane;
use crate::plan::result::{PlanResult, SidePlan};
use crate::plan::words::axle_height;
use bold_stance_car::vehicle::{Axles, Sides, THRUST_SEEN_DEG};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::wheel::Alignment;
use bold_stance_units::said::{Said, said, sentences};
use serde::{Deserialize, Serialize};

/// How an axle stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Standing {
    /// Both sides land in every window and nothing fouls.
    Reached,
    /// Something stays outside, or fouls.
    Off,
    /// Read, but it cannot be worked out.
    Refused,
    /// Its points are not known or its wheels were not read: nothing is said of it.
    NotRead,
}

/// What is worst.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum WorstKind {
    /// The axle cannot be worked out.
    Refused,
    /// The height is beyond travel.
    Stop,
    /// Something meets something.
    Foul,
    /// A live axle stays askew.
    Askew,
    /// An angle, or a difference between the sides, stays outside.
    Angle(AngleName),
}

/// The worst of a car.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Worst {
    /// On which axle.
    pub axle: Axle,
    /// On which side; none where it is about both.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// What.
    pub kind: WorstKind,
    /// How far outside, degrees; 0 where it is no angle.
    pub off_deg: f64,
}

/// An angle that is inside its window on both sides with nothing turned.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WhatIsIn {
    /// On which axle.
    pub axle: Axle,
    /// Which.
    pub angle: AngleName,
}

/// Where the rear axle points, and what the driver sees of it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Thrust {
    /// Half of left minus right rear toe as found, degrees, to the right positive.
    pub found_deg: f64,
    /// The same as set.
    pub set_deg: f64,
    /// How far the steering wheel stands off straight ahead if the rear is left as found, degrees, to the right positive:
    /// the front wheels follow the rear's line, and the steering gear turns that up.
    pub wheel_if_left_deg: f64,
}

/// The car in one verdict.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CarVerdict {
    /// Whether every axle that could be judged lands and nothing fouls.
    pub reached: bool,
    /// Each axle.
    pub axles: Axles<Standing>,
    /// The worst; none where everything judged lands.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub worst: Option<Worst>,
    /// Angles that nobody read: expected, not judged.
    pub not_read: Vec<WhatIsIn>,
    /// Where the rear points; none where its toe was not read.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thrust: Option<Thrust>,
    /// What is in at the height the aim counts at, with nothing turned.
    pub already_in: Vec<WhatIsIn>,
    /// One line.
    pub headline: Said,
    /// What to do about it.
    pub sentence: Said,
}

/// Whether no angle of an axle was read.
fn nothing_read(r: &PlanResult) -> bool {
    r.expected.len() == 2 + usize::from(r.plane == Plane::CamberCaster)
}

/// Whether an axle stays askew.
fn askew(r: &PlanResult) -> bool {
    r.square.as_ref().is_some_and(|s| !s.squared)
}

/// The worst of one axle.
fn worst_of(input: &CarInput, axle: Axle, r: &PlanResult) -> Option<Worst> {
    let of = |side, kind, off_deg| Some(Worst { axle, side, kind, off_deg });
    if r.stop.is_some() {
        return of(None, WorstKind::Stop, 0.0);
    }
    let sides = Sides { left: &r.left, right: &r.right };
    if let Some((side, _)) = sides.each().into_iter().find(|(_, s)| s.checks.iter().any(|c| c.fouls())) {
        return of(Some(side), WorstKind::Foul, 0.0);
    }
    // Parts that cannot stand together, have no place or are forbidden are of the axle.
    if !r.misfits.is_empty() {
        return of(None, WorstKind::Foul, 0.0);
    }
    if askew(r) {
        return of(None, WorstKind::Askew, 0.0);
    }
    let limits = input.axle(axle)?.cross();
    let [camber_off, caster_off] = limits.off(r.verdict.cross_camber_deg, r.verdict.cross_caster_deg);
    let mut off: Vec<Worst> = Vec::new();
    for (side, s) in sides.each() {
        for (angle, off_deg) in [
            (AngleName::Camber, s.shortfall.camber_deg),
            (AngleName::Caster, s.shortfall.caster_deg),
            (AngleName::Toe, s.shortfall.toe_deg),
        ] {
            off.push(Worst { axle, side: Some(side), kind: WorstKind::Angle(angle), off_deg });
        }
    }
    for (angle, cross, allowed) in [
        (AngleName::CrossCamber, camber_off, limits.camber),
        (AngleName::CrossCaster, caster_off, limits.caster),
    ] {
        if angle == AngleName::CrossCamber || r.plane == Plane::CamberCaster {
            let over = cross.abs() - allowed;
            let off_deg = if over > READABLE_DEG { over } else { 0.0 };
            off.push(Worst { axle, side: None, kind: WorstKind::Angle(angle), off_deg });
        }
    }
    off.into_iter().filter(|w| w.off_deg > 1e-6).max_by(|a, b| a.off_deg.total_cmp(&b.off_deg))
}

/// What must be said first: what cannot be, what stops, what fouls, then by degrees.
fn weight(w: &Worst) -> f64 {
    match w.kind {
        WorstKind::Refused => 3e3,
        WorstKind::Stop => 2e3,
        WorstKind::Foul => 1e3,
        WorstKind::Askew => 5e2,
        WorstKind::Angle(_) => w.off_deg,
    }
}

/// Where the rear points, found and set.
fn thrust(input: &CarInput, axles: &Axles<Option<PlanResult>>) -> Option<Thrust> {
    let rear = axles.rear.as_ref()?;
    if rear.expected.iter().any(|e| e.angle == AngleName::Toe) {
        return None;
    }
    let of = |f: fn(&SidePlan) -> f64| 0.5 * (f(&rear.left) - f(&rear.right));
    let found_deg = of(|s| s.before.toe_deg);
    Some(Thrust {
        found_deg,
        set_deg: of(|s| s.set.toe_deg),
        wheel_if_left_deg: found_deg * input.base.steering_ratio,
    })
}

/// What a driver sees of it: that it is put right, or that it stays.
fn thrust_says(t: &Thrust, steering_ratio: f64) -> Option<Said> {
    let of = |id, deg: f64| {
        let way = if deg > 0.0 { "right" } else { "left" };
        let wheel = (deg * steering_ratio).abs();
        said(id).deg("by", deg.abs(), 2).word("side", way).deg("wheel", wheel, 0)
    };
    if t.set_deg.abs() >= THRUST_SEEN_DEG {
        return Some(of("thrust-stays", t.set_deg));
    }
    (t.found_deg.abs() >= THRUST_SEEN_DEG).then(|| of("thrust-mended", t.found_deg))
}

/// Angles that come to stand inside by less than is certain: the doubt is wider than the window. Only of an axle on which
/// something is changed; what only was read is as certain as its reading.
fn doubtful(input: &CarInput, axle: Axle, r: &PlanResult) -> Vec<Said> {
    let touched = input.plan.axles[axle].changes_height()
        || !input.plan.axles[axle].fitted.is_empty()
        || [&r.left, &r.right].iter().flat_map(|s| &s.setting).any(|l| l.moves() && !l.sets_toe);
    if !touched {
        return Vec::new();
    }
    let mut out = Vec::new();
    let steered = r.plane == Plane::CamberCaster;
    for angle in [AngleName::Camber, AngleName::Caster] {
        let read = r.expected.iter().all(|e| e.angle != angle);
        if !read || (angle == AngleName::Caster && !steered) {
            continue;
        }
        let wide = [(Side::Left, &r.left), (Side::Right, &r.right)].into_iter().any(|(side, s)| {
            let t = input.plan.aim.target(axle, side);
            let (doubt, w) = match angle {
                AngleName::Camber => (s.doubt.camber_deg, t.camber),
                _ => (s.doubt.caster_deg, t.caster),
            };
            2.0 * doubt > w[1] - w[0]
        });
        if wide {
            out.push(said("angle-of-axle").word("axle", axle.word()).word("angle", angle.word()));
        }
    }
    out
}

/// Angles of an axle that are in on both sides with nothing turned.
fn already_in(input: &CarInput, axle: Axle, r: &PlanResult) -> Vec<WhatIsIn> {
    let inside = |v: f64, w: [f64; 2]| v >= w[0] - 1e-9 && v <= w[1] + 1e-9;
    type Of = (fn(&Alignment) -> f64, fn(&Target) -> [f64; 2]);
    let both = |(angle, window): Of| {
        [(Side::Left, &r.left), (Side::Right, &r.right)]
            .into_iter()
            .all(|(s, p)| inside(angle(&p.after), window(&input.plan.aim.target(axle, s))))
    };
    let mut out = Vec::new();
    if both((|a| a.camber_deg, |t| t.camber)) {
        out.push(AngleName::Camber);
    }
    if r.plane == Plane::CamberCaster && both((|a| a.caster_deg, |t| t.caster)) {
        out.push(AngleName::Caster);
    }
    if both((|a| a.toe_deg, |t| t.toe)) {
        out.push(AngleName::Toe);
    }
    out.retain(|angle| r.expected.iter().all(|e| e.angle != *angle));
    out.into_iter().map(|angle| WhatIsIn { axle, angle }).collect()
}

/// The verdict of a car from its axles' answers. `told` says which axles the job gives.
pub(crate) fn verdict(input: &CarInput, axles: &Axles<Option<PlanResult>>, told: Axles<bool>) -> CarVerdict {
    let standing = Axles::of(|a| match &axles[a] {
        Some(r) if r.verdict.reached => Standing::Reached,
        // Heights alone say nothing of its angles; what stops or fouls is told all the same.
        Some(r) if nothing_read(r) && r.stop.is_none() && r.verdict.fouls.is_empty() && !askew(r) => {
            Standing::NotRead
        }
        Some(_) => Standing::Off,
        None if told[a] => Standing::Refused,
        None => Standing::NotRead,
    });
    let mut worst: Vec<Worst> = Vec::new();
    for (axle, r) in axles.rear_first() {
        match r {
            Some(r) => worst.extend(worst_of(input, axle, r)),
            None if told[axle] => {
                worst.push(Worst { axle, side: None, kind: WorstKind::Refused, off_deg: 0.0 });
            }
            None => {}
        }
    }
    worst.sort_by(|a, b| weight(b).total_cmp(&weight(a)));
    let first = found_first(&input.base.inspected);
    let stops = first.iter().any(|f| f.stops);
    let all = |list: &[Standing]| standing.each().iter().all(|(_, s)| list.contains(s));
    let reached = !stops && all(&[Standing::Reached, Standing::NotRead]) && !all(&[Standing::NotRead]);
    let already_in: Vec<WhatIsIn> = axles
        .each()
        .into_iter()
        .flat_map(|(a, r)| r.iter().flat_map(move |r| already_in(input, a, r)).collect::<Vec<_>>())
        .collect();
    let not_read: Vec<WhatIsIn> = axles
        .each()
        .into_iter()
        .flat_map(|(axle, r)| {
            r.iter().flat_map(|r| &r.expected).map(move |e| WhatIsIn { axle, angle: e.angle })
        })
        .collect();
    let (mut headline, mut sentence) = say(input, axles, standing, worst.first(), (&already_in, &not_read));
    if !first.is_empty() {
        let all: Vec<Said> = first.iter().map(FoundFirst::says).collect();
        // What may not be driven or set over is said before anything else.
        if let Some(stop) = first.iter().find(|f| f.stops) {
            headline = said("car-stop").say("what", stop.named());
        }
        sentence = sentences(all.into_iter().chain([sentence]).collect());
    }
    let thrust = thrust(input, axles);
    let mut more: Vec<Said> = Vec::new();
    more.extend(thrust.as_ref().and_then(|t| thrust_says(t, input.base.steering_ratio)));
    if reached {
        let wide: Vec<Said> = axles
            .rear_first()
            .into_iter()
            .flat_map(|(a, r)| r.iter().flat_map(|r| doubtful(input, a, r)).collect::<Vec<_>>())
            .collect();
        if !wide.is_empty() {
            more.push(said("car-doubt-wide").list("each", wide));
        }
    }
    if !more.is_empty() {
        sentence = sentences([sentence].into_iter().chain(more).collect());
    }
    CarVerdict {
        reached,
        thrust,
        axles: standing,
        worst: worst.first().copied(),
        not_read,
        already_in,
        headline,
        sentence,
    }
}

fn say(
    input: &CarInput,
    axles: &Axles<Option<PlanResult>>,
    standing: Axles<Standing>,
    worst: Option<&Worst>,
    (already_in, unread): (&[WhatIsIn], &[WhatIsIn]),
) -> (Said, Said) {
    let not_read = standing.each().into_iter().find(|(_, s)| **s == Standing::NotRead).map(|(a, _)| a);
    let Some(w) = worst else {
        let headline = match not_read {
            // One axle whole and nothing of the other: said as if that other were not there.
            Some(a) if unread.iter().all(|u| u.axle == a) => {
                said("car-one-reached").word("axle", super::input::other(a).word()).word("unread", a.word())
            }
            _ if !unread.is_empty() => partly(axles, unread),
            None => said("car-reached"),
            Some(a) => {
                said("car-one-reached").word("axle", super::input::other(a).word()).word("unread", a.word())
            }
        };
        return (headline, whole(input, axles, already_in, unread));
    };
    let Some(r) = &axles[w.axle] else {
        return (said("car-refused").word("axle", w.axle.word()), whole(input, axles, already_in, unread));
    };
    let headline = said("car-worst").word("axle", w.axle.word()).say("what", r.verdict.headline.clone());
    let off = super::input::other(w.axle);
    let other = |id| said(id).word("axle", off.word());
    let too = match (standing[off], &axles[off]) {
        (Standing::Reached, _) => other("car-other-reached"),
        (Standing::Off, Some(o)) => other("car-other-off").say("what", o.verdict.headline.clone()),
        (Standing::NotRead, _) => other("car-other-unread"),
        _ => other("car-other-refused"),
    };
    (headline, sentences(vec![r.verdict.sentence.clone(), too]))
}

/// What brings an axle of which no angle was read to its place: squared, centred.
fn placed(axles: &Axles<Option<PlanResult>>) -> Vec<Said> {
    let mut out = Vec::new();
    for (axle, r) in axles.rear_first() {
        let Some(r) = r else { continue };
        if r.square.as_ref().is_some_and(|s| s.squared) {
            out.push(said("placed-square").word("axle", axle.word()));
        }
        // Nothing else of such an axle is turned than what locates it.
        if r.left.setting.iter().any(|l| l.shared && l.moves()) {
            out.push(said("placed-centred").word("axle", axle.word()));
        }
    }
    out
}

/// What lands of what was read, and that the rest was not.
fn partly(axles: &Axles<Option<PlanResult>>, unread: &[WhatIsIn]) -> Said {
    let named = |list: &[WhatIsIn]| -> Vec<Said> {
        let one =
            |w: &WhatIsIn| said("angle-of-axle").word("axle", w.axle.word()).word("angle", w.angle.word());
        list.iter().map(one).collect()
    };
    let all = |(axle, r): (Axle, &Option<PlanResult>)| -> Vec<WhatIsIn> {
        let Some(r) = r else { return Vec::new() };
        let mut list = vec![AngleName::Camber, AngleName::Toe];
        if r.plane == Plane::CamberCaster {
            list.insert(1, AngleName::Caster);
        }
        list.into_iter().map(|angle| WhatIsIn { axle, angle }).collect()
    };
    let read: Vec<WhatIsIn> =
        axles.each().into_iter().flat_map(all).filter(|w| !unread.contains(w)).collect();
    if read.is_empty() {
        let done = placed(axles);
        return if done.is_empty() {
            said("car-heights-only")
        } else {
            said("car-placed").list("each", done)
        };
    }
    said("car-partly").list("read", named(&read)).list("unread", named(unread))
}

/// Heights, what is in already, and the first thing to turn.
fn whole(
    input: &CarInput,
    axles: &Axles<Option<PlanResult>>,
    already_in: &[WhatIsIn],
    unread: &[WhatIsIn],
) -> Said {
    let heights: Vec<Said> = axles
        .each()
        .into_iter()
        .filter_map(|(a, r)| {
            let r = r.as_ref()?;
            let mm = if r.stop.is_some() { input.plan.gain_mm(a) } else { r.judged.own_mm };
            Some(axle_height(a, mm, &r.judged))
        })
        .collect();
    let mut out = vec![said("car-heights").list("each", heights)];
    let moved: Vec<_> = axles
        .rear_first()
        .into_iter()
        .flat_map(|(a, r)| r.iter().flat_map(move |r| orders_of(a, r)).collect::<Vec<_>>())
        .filter(|o| o.line.moves())
        .collect();
    let Some(first) = moved.first() else {
        // Nobody reads "all in" of what was not read.
        let all: usize = axles
            .each()
            .iter()
            .filter_map(|(_, r)| r.as_ref())
            .map(|r| 2 + usize::from(r.plane == Plane::CamberCaster))
            .sum();
        out.push(said(match unread.len() {
            0 => "leave-everything",
            n if n == all => "leave-unread",
            _ => "leave-what-was-read",
        }));
        return sentences(out);
    };
    let by_axle: Vec<Said> = [Axle::Front, Axle::Rear]
        .into_iter()
        .filter_map(|a| {
            let angles: Vec<Said> = already_in
                .iter()
                .filter(|i| i.axle == a)
                .map(|i| said("angle").word("angle", i.angle.word()))
                .collect();
            (!angles.is_empty()).then(|| said("car-in").word("axle", a.word()).list("each", angles))
        })
        .collect();
    if !by_axle.is_empty() {
        out.push(said("car-already-in").list("each", by_axle));
    }
    let order = match first.side {
        Some(side) => said("car-first").word("side", side.word()),
        None => said("car-first-shared"),
    };
    out.push(
        order
            .count("n", moved.len())
            .word("axle", first.axle.word())
            .name("name", first.line.name.clone())
            .say("order", first.line.words.clone()),
    );
    sentences(out)
}
