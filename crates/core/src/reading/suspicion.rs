//! Readings that lie: each rule says what is odd, why, and what one reading would settle it. Limits are
//! common practice, no source, where no formula is named.

use super::convert::CorrectionKind;
use super::entries::parse_entries;
use super::method::{Method, MethodInfo};
use super::prepare::PrepareKind;
use super::quantity::{Place, Quantity, Visit};
use super::scene::{ChangeKind, Scene, Seen};
use super::take::Jack;
use crate::geometry::{Axle, Side};
use crate::units::{LengthUnit, print_degrees};
use serde::{Deserialize, Serialize};

/// A rule.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Rule {
    /// Read on the jack, not rolled since.
    Jacked,
    /// Angles read before the height was, or before it settled.
    HeightNotSettled,
    /// Counts against gravity on a floor nobody measured.
    FloorUnknown,
    /// Left and right lean the same way on both axles: a floor, not a car.
    FloorPattern,
    /// Read while a jack tilted the body.
    BodyTilted,
    /// Camber or height changed after toe was read.
    ToeStale,
    /// Cams moved after caster was swept.
    CasterStale,
    /// Caster typed exactly as before the cams were moved.
    CasterUnchanged,
    /// String toe on a car with different tracks.
    StringTracks,
    /// Equal marks, unequal angles.
    EqualMarks,
    /// Caster compared across a change of the body's pitch.
    PitchCompare,
    /// Stamped size used as the circle.
    NominalCircle,
    /// Edge wear: camber at the low height, or toe.
    ToeOrCamber,
    /// Level on the tyre without its bulge.
    Bulge,
    /// Fuel, people, cargo answered but not put right.
    Weight,
    /// Doors open or auto-level on.
    ReLevels,
    /// Steering not centred.
    SteeringOff,
    /// Plates stick.
    PlatesStick,
    /// Steering not rocked lock to lock.
    NotRocked,
    /// Springs lost height since.
    SpringsSettled,
    /// Rim that wobbles.
    BentRim,
    /// Included angles differ from side to side.
    IncludedAngle,
    /// Two methods further apart than they hold.
    MethodsDisagree,
    /// Repeats far apart.
    RepeatSpread,
    /// One repeat apart from the others.
    OddOne,
    /// The sign was probably turned.
    SignFlipped,
    /// Minutes typed as degrees.
    UnitMinutes,
    /// Inches typed as millimetres.
    UnitInch,
    /// Far from what the model says at this height.
    FarFromModel,
}

impl Rule {
    /// Every rule.
    pub const ALL: [Self; 29] = [
        Self::Jacked,
        Self::HeightNotSettled,
        Self::FloorUnknown,
        Self::FloorPattern,
        Self::BodyTilted,
        Self::ToeStale,
        Self::CasterStale,
        Self::CasterUnchanged,
        Self::StringTracks,
        Self::EqualMarks,
        Self::PitchCompare,
        Self::NominalCircle,
        Self::ToeOrCamber,
        Self::Bulge,
        Self::Weight,
        Self::ReLevels,
        Self::SteeringOff,
        Self::PlatesStick,
        Self::NotRocked,
        Self::SpringsSettled,
        Self::BentRim,
        Self::IncludedAngle,
        Self::MethodsDisagree,
        Self::RepeatSpread,
        Self::OddOne,
        Self::SignFlipped,
        Self::UnitMinutes,
        Self::UnitInch,
        Self::FarFromModel,
    ];
}

/// Something odd about a reading, why, and what settles it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Suspicion {
    /// Which rule.
    pub rule: Rule,
    /// Where; none for the visit as a whole.
    pub place: Option<Place>,
    /// What; none for the visit as a whole.
    pub quantity: Option<Quantity>,
    /// The reading it is about.
    pub reading: Option<String>,
    /// What is odd, one sentence.
    pub says: String,
    /// Why.
    pub why: String,
    /// What one reading or look would settle it.
    pub settle: String,
}

struct Found<'a, 'b> {
    scene: &'b Scene<'a>,
    methods: &'b [MethodInfo],
    rule: Rule,
    out: Vec<Suspicion>,
}

impl Found<'_, '_> {
    fn at(&mut self, r: &Seen, says: String, why: &str, settle: &str) {
        self.out.push(Suspicion {
            rule: self.rule,
            place: Some(r.place),
            quantity: Some(r.quantity),
            reading: Some(r.id.clone()),
            says,
            why: why.into(),
            settle: settle.into(),
        });
    }

    fn visit(&mut self, says: &str, why: &str, settle: &str) {
        self.out.push(Suspicion {
            rule: self.rule,
            place: None,
            quantity: None,
            reading: None,
            says: says.into(),
            why: why.into(),
            settle: settle.into(),
        });
    }
}

/// Everything odd about the visit in hand, in the order of [`Rule::ALL`].
#[must_use]
pub fn suspicions(scene: &Scene<'_>, methods: &[MethodInfo]) -> Vec<Suspicion> {
    let mut out = Vec::new();
    for rule in Rule::ALL {
        let mut f = Found { scene, methods, rule, out: Vec::new() };
        look(rule, &mut f);
        out.extend(f.out);
    }
    out
}

const WHEELS: [(Axle, Side); 4] = [
    (Axle::Front, Side::Left),
    (Axle::Front, Side::Right),
    (Axle::Rear, Side::Left),
    (Axle::Rear, Side::Right),
];

/// Standing readings of the visit in hand.
fn standing<'a>(s: &Scene<'a>) -> Vec<&'a Seen> {
    let mut seen: Vec<(Quantity, Place)> = Vec::new();
    s.readings
        .iter()
        .rev()
        .filter(|r| r.visit == s.visit)
        .filter(|r| {
            let new = !seen.contains(&(r.quantity, r.place));
            seen.push((r.quantity, r.place));
            new
        })
        .collect()
}

fn cap(s: &str) -> String {
    let mut c = s.chars();
    c.next().map_or_else(String::new, |f| f.to_uppercase().chain(c).collect())
}

fn name(r: &Seen) -> String {
    let what = match r.quantity {
        Quantity::Toe | Quantity::TotalToe => "toe",
        Quantity::Height => "height",
        q => return format!("{} {}", cap(&r.place.words()), q.title().to_lowercase()),
    };
    format!("{} {what}", cap(&r.place.words()))
}

fn is_angle(q: Quantity) -> bool {
    matches!(q, Quantity::Camber | Quantity::Caster | Quantity::Toe | Quantity::TotalToe)
}

fn look(rule: Rule, f: &mut Found<'_, '_>) {
    match rule {
        Rule::Jacked | Rule::BodyTilted => stood(rule, f),
        Rule::HeightNotSettled => height_not_settled(f),
        Rule::FloorUnknown => floor_unknown(f),
        Rule::FloorPattern => floor_pattern(f),
        Rule::ToeStale | Rule::CasterStale => stale(rule, f),
        Rule::CasterUnchanged => caster_unchanged(f),
        Rule::StringTracks => string_tracks(f),
        Rule::EqualMarks => equal_marks(f),
        Rule::PitchCompare => pitch_compare(f),
        Rule::NominalCircle => nominal_circle(f),
        Rule::ToeOrCamber => toe_or_camber(f),
        Rule::Bulge => bulge(f),
        Rule::Weight => weight(f),
        Rule::ReLevels | Rule::SteeringOff | Rule::PlatesStick | Rule::NotRocked => answered_no(rule, f),
        Rule::SpringsSettled => springs_settled(f),
        Rule::BentRim => bent_rim(f),
        Rule::IncludedAngle => included_angle(f),
        Rule::MethodsDisagree => methods_disagree(f),
        Rule::RepeatSpread | Rule::OddOne => repeats(rule, f),
        Rule::SignFlipped | Rule::UnitMinutes | Rule::UnitInch | Rule::FarFromModel => model(rule, f),
    }
}

fn stood(rule: Rule, f: &mut Found<'_, '_>) {
    for r in standing(f.scene) {
        match (rule, r.jack) {
            (Rule::Jacked, Jack::Jacked) => f.at(
                r,
                format!("{}: jacked, not rolled since.", name(r)),
                "A wheel let down from a jack stands on scrubbed tyres: camber reads about half a degree out. \
                 Set to zero like that, it drives off at half a degree in.",
                "Roll it 3 m, bounce it, and read again.",
            ),
            (Rule::BodyTilted, Jack::OneSide) => f.at(
                r,
                format!("{}: read with a jack under the other side.", name(r)),
                "A tilted body leans its wheels with it and moves one side of the suspension.",
                "Let it down on all four, roll it, and read again.",
            ),
            _ => {}
        }
    }
}

fn height_not_settled(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for (axle, side) in WHEELS {
        let wheel = Place::wheel(axle, side);
        let height = s.here(Quantity::Height, axle, side);
        for q in [Quantity::Camber, Quantity::Caster, Quantity::Toe] {
            let Some(r) = s.standing(s.visit, q, wheel) else { continue };
            if s.prepared.yes_no("settled") == Some(false) {
                f.at(
                    r,
                    format!("{}: read before it had settled.", name(r)),
                    "Every angle hangs on the height, and the height had not come to rest.",
                    "Roll and bounce it, re-read the height, then this.",
                );
            } else if let Some(h) = height
                && r.height_mm.is_some_and(|was| r.jack == Jack::Rolled && (was - h.value).abs() > 3.0)
            {
                f.at(
                    r,
                    format!(
                        "{}: read at {:.0} mm, it stands at {:.0} mm now.",
                        name(r),
                        r.height_mm.unwrap_or_default(),
                        h.value
                    ),
                    "Every angle hangs on the height.",
                    "Read it again at the height it stands at.",
                );
            }
        }
    }
}

fn floor_unknown(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for axle in [Axle::Front, Axle::Rear] {
        let place = Place::wheel(axle, Side::Left);
        if s.prepared.floor(place.axle).is_some() {
            continue;
        }
        let bare = standing(s).into_iter().find(|r| {
            r.quantity == Quantity::Camber
                && r.place.axle == place.axle
                && f.methods.iter().any(|m| m.id == r.method && m.gravity)
                && r.typed("zeroed-on-floor") != Some("true")
        });
        if let Some(r) = bare {
            f.at(
                r,
                format!(
                    "{} axle camber counts against gravity, and the floor was not measured.",
                    if axle == Axle::Front { "Front" } else { "Rear" }
                ),
                "A floor falling 1/8 in a foot is 0.6° of camber, out on one side and in on the other.",
                "Zero the gauge on a bar across both contact patches, or read the floor with a level.",
            );
        }
    }
}

fn floor_pattern(f: &mut Found<'_, '_>) {
    let s = f.scene;
    let cross = |axle| {
        let at = |side| s.here(Quantity::Camber, axle, side).map(|r| r.value);
        Some(at(Side::Left)? - at(Side::Right)?)
    };
    let (Some(front), Some(rear)) = (cross(Axle::Front), cross(Axle::Rear)) else { return };
    if front.abs() > 0.5 && rear.abs() > 0.5 && (front - rear).abs() < 0.4 {
        let way = if front > 0.0 { "left" } else { "right" };
        f.visit(
            &format!("Both axles lean to the {way}: {} in front, {} behind.", print_degrees(front.abs(), 1), print_degrees(rear.abs(), 1)),
            "Two axles rarely go out by the same amount the same way. A floor, a soft tyre or a jack leans both.",
            "Turn the car round on the same spot and read one wheel again: a floor turns the sign.",
        );
    }
}

fn stale(rule: Rule, f: &mut Found<'_, '_>) {
    let s = f.scene;
    let wanted = |q| match rule {
        Rule::CasterStale => q == Quantity::Caster,
        _ => matches!(q, Quantity::Toe | Quantity::TotalToe),
    };
    for r in standing(s).into_iter().filter(|r| wanted(r.quantity)) {
        if let Some(why) = stale_because(s, r) {
            let settle = if rule == Rule::CasterStale {
                "Sweep it again, brakes held."
            } else {
                "Read toe again, steering locked straight."
            };
            f.at(
                r,
                format!("{}: {why}.", name(r)),
                "Camber and caster moves always move toe, and caster is not live.",
                settle,
            );
        }
    }
}

/// Why a reading no longer holds: something was done, or camber or height read differently, after it.
#[must_use]
pub fn stale_because(s: &Scene<'_>, r: &Seen) -> Option<String> {
    if let Some(c) = s.changed_after(r) {
        return Some(format!("{} after it was read", c.kind.words()));
    }
    if !matches!(r.quantity, Quantity::Toe | Quantity::TotalToe) {
        return None;
    }
    let axle = r.place.one_axle()?;
    let sides = r.place.one_side().map_or(Side::BOTH.to_vec(), |x| vec![x]);
    for side in sides {
        for (q, least, what) in [(Quantity::Camber, 0.1, "camber"), (Quantity::Height, 2.0, "height")] {
            let place = Place::wheel(axle, side);
            let of = |after: bool| {
                s.readings.iter().rev().find(|x| {
                    x.quantity == q && x.place == place && (x.at > r.at) == after && x.jack == Jack::Rolled
                })
            };
            if let (Some(now), Some(then)) = (of(true), of(false))
                && (now.value - then.value).abs() > (2.0 * now.sigma.hypot(then.sigma)).max(least)
            {
                return Some(format!("{} {what} changed after it was read", side.word()));
            }
        }
    }
    None
}

fn caster_unchanged(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for side in Side::BOTH {
        let Some(now) = s.here(Quantity::Caster, Axle::Front, side) else { continue };
        let before = s.readings.iter().rev().find(|r| {
            r.quantity == Quantity::Caster && r.place == now.place && r.at < now.at && r.id != now.id
        });
        let Some(before) = before else { continue };
        let moved = s.changes.iter().any(|c| c.kind == ChangeKind::Cams && c.at > before.at && c.at < now.at);
        let same = before.raw.iter().filter(|e| !e.dropped).map(|e| &e.text).eq(now
            .raw
            .iter()
            .filter(|e| !e.dropped)
            .map(|e| &e.text));
        if moved && same {
            f.at(
                now,
                format!("{} reads exactly as before the cams were moved.", name(now)),
                "Caster is not live: it shows a change only once it is swept again.",
                "Sweep it again from the first swing.",
            );
        }
    }
}

fn string_tracks(f: &mut Found<'_, '_>) {
    let s = f.scene;
    let Some(car) = s.car else { return };
    let apart = car.track_mm[1] - car.track_mm[0];
    for r in standing(s).into_iter().filter(|r| r.method == Method::ToeString) {
        if apart.abs() > 4.0 && r.typed("strung") != Some("rear-wheels") {
            let yaw = (apart / 2.0 / car.car.wheelbase_mm).atan().to_degrees();
            f.at(
                r,
                format!(
                    "{}: strung as if both tracks were alike; they differ by {:.0} mm.",
                    name(r),
                    apart.abs()
                ),
                &format!(
                    "A string along the rear wheels then runs {} off the centre line.",
                    print_degrees(yaw.abs(), 2)
                ),
                "Say how it was strung, or measure the string from both hubs and set it parallel.",
            );
        }
    }
}

fn equal_marks(f: &mut Found<'_, '_>) {
    let s = f.scene;
    if !s.same_marks {
        return;
    }
    for (q, least) in [(Quantity::Camber, 0.75_f64), (Quantity::Caster, 1.0)] {
        let at = |side| s.here(q, Axle::Front, side);
        let (Some(l), Some(r)) = (at(Side::Left), at(Side::Right)) else { continue };
        let apart = l.value - r.value;
        if apart.abs() > least.max(3.0 * l.sigma.hypot(r.sigma)) {
            f.at(
                if apart > 0.0 { l } else { r },
                format!(
                    "Cams at the same marks, {} {} apart left to right.",
                    q.title().to_lowercase(),
                    print_degrees(apart.abs(), 1)
                ),
                "Equal settings that give unequal angles mean a bent knuckle, arm or frame. A caster gap above \
                 1° on a subframe means the subframe has shifted.",
                "Read SAI on both sides and compare included angles; tape both wheelbases.",
            );
        }
    }
}

fn pitch_compare(f: &mut Found<'_, '_>) {
    let s = f.scene;
    let Some(car) = s.car else { return };
    for side in Side::BOTH {
        let Some(now) = s.here(Quantity::Caster, Axle::Front, side) else { continue };
        let before = Visit::ALL
            .iter()
            .rev()
            .filter(|v| **v < s.visit)
            .find_map(|v| s.standing(*v, Quantity::Caster, now.place).map(|r| (*v, r)));
        let Some((visit, _)) = before else { continue };
        let pitch = |v| car.car.attitude(&car.gains(&s.heights(v)), [0.0; 2]).0.pitch.to_degrees();
        let turned = pitch(s.visit) - pitch(visit);
        if turned.abs() > 0.25 {
            f.at(
                now,
                format!(
                    "{}: the body turned {} {} since the visit before.",
                    name(now),
                    print_degrees(turned.abs(), 1),
                    if turned > 0.0 { "nose up" } else { "nose down" }
                ),
                "That much of the change in caster is the body's, not the suspension's.",
                "Take the body's turn off before comparing with the old value.",
            );
        }
    }
}

fn nominal_circle(f: &mut Found<'_, '_>) {
    for r in standing(f.scene) {
        if r.corrections.iter().any(|c| c.kind == CorrectionKind::RimLip) {
            f.at(
                r,
                format!("{}: the circle comes from the stamped size.", name(r)),
                "The lip you touch is larger than the stamped size, by about an inch and a third.",
                "Measure the rim lip to lip once.",
            );
        }
    }
}

fn toe_or_camber(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for (axle, side) in WHEELS {
        let Some(t) = s.here(Quantity::TreadDepth, axle, side) else { continue };
        let (Some(inner), Some(outer)) = (t.also("inner_mm"), t.also("outer_mm")) else { continue };
        let Some(camber) = s.newest(Quantity::Camber, t.place) else { continue };
        let feather = t.typed("feather").unwrap_or_default();
        let edge = if inner < outer { "inner" } else { "outer" };
        let leans = if inner < outer { camber.value < -0.75 } else { camber.value > 0.5 };
        if (inner - outer).abs() < 1.0 {
            continue;
        }
        if leans && feather == "smooth" {
            f.at(
                t,
                format!("{} edge worn and smooth: camber at the height it is driven at, not toe.", cap(edge)),
                "Toe leaves sharp feathered edges across the tread. A smooth slope to one edge is camber.",
                "Read camber at the lowest height it is driven at.",
            );
        } else if feather.starts_with("sharp") {
            f.at(
                t,
                format!("{} edge worn and feathered: toe, whatever camber says.", cap(edge)),
                "Feathered edges come from toe.",
                "Read toe with the steering locked straight.",
            );
        }
    }
}

fn bulge(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for r in standing(s).into_iter().filter(|r| r.method == Method::CamberGap) {
        let span = r.typed("span").and_then(|t| crate::units::parse_length_mm("span", t, r.unit).ok());
        let Some(span) = span else { continue };
        let lip = s.car.map_or(520.0, |c| super::wheel::lip_circle_mm(c.tyre.rim_in, false) + 25.0);
        let none = r.typed("bulge").is_none_or(|b| b.trim().is_empty());
        if none && span > lip {
            f.at(
                r,
                format!("{}: a span of {span:.0} mm is on the tyre, and no bulge was taken out.", name(r)),
                "The bottom of a tyre bulges a couple of mm where it stands.",
                "Measure lip to lip, or measure the bulge against the rim.",
            );
        }
    }
}

fn weight(f: &mut Found<'_, '_>) {
    let s = f.scene;
    let r = standing(s)
        .into_iter()
        .find(|r| r.corrections.iter().any(|c| c.kind == CorrectionKind::Weight && !c.applied));
    if let Some(r) = r {
        f.at(
            r,
            "Fuel or load is not as it should be, and it could not be taken out.".into(),
            "Without spring rates, weight cannot be turned into height.",
            "Fill the tank and empty the car, or enter both spring rates.",
        );
    }
}

fn answered_no(rule: Rule, f: &mut Found<'_, '_>) {
    let (id, says, settle) = match rule {
        Rule::ReLevels => (
            "auto_level",
            "Doors open or auto-level on: the height moves between readings.",
            "Shut the doors, switch levelling off, and read a height twice.",
        ),
        Rule::SteeringOff => (
            "steering",
            "Steering not centred: toe of each wheel is off, the total is not.",
            "Centre and lock the wheel, then read one toe again.",
        ),
        Rule::PlatesStick => (
            "plates",
            "Plates stick: the tyres hold the wheels where they were put.",
            "Grease the plates, roll off and on, and read one camber again.",
        ),
        _ => (
            "rocked",
            "Steering was not rocked: joints hold some camber back.",
            "Rock it lock to lock and read camber again.",
        ),
    };
    if f.scene.prepared.yes_no(id) != Some(false)
        || !standing(f.scene).iter().any(|r| is_angle(r.quantity) || r.quantity == Quantity::Height)
    {
        return;
    }
    let item = f.scene.items.iter().find(|i| i.id == id && i.kind == PrepareKind::YesNo);
    let why = item.map_or_else(String::new, |i| i.why.clone());
    f.visit(says, &why, settle);
}

fn springs_settled(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for (axle, side) in WHEELS {
        let Some(now) = s.here(Quantity::Height, axle, side) else { continue };
        let after = [Visit::Settled, Visit::Reswept, Visit::Proved];
        let set = after
            .iter()
            .rev()
            .filter(|v| **v < s.visit)
            .find_map(|v| s.standing(*v, Quantity::Height, now.place));
        let Some(set) = set else { continue };
        let lost = set.value - now.value;
        if lost > (2.0 * now.sigma.hypot(set.sigma)).max(3.0) {
            f.at(
                now,
                format!("{} lost {lost:.0} mm since it was set.", name(now)),
                "New springs and bushings settle in the first weeks; the angles read then were at another height.",
                "Set the height back, roll it, and read camber, caster and toe again.",
            );
        }
    }
}

fn bent_rim(f: &mut Found<'_, '_>) {
    for r in standing(f.scene) {
        let wobble = if r.quantity == Quantity::RimRunout {
            (r.value > 1.5).then(|| format!("{:.1} mm over one turn", r.value))
        } else {
            r.also("run_out_deg")
                .filter(|v| *v > 0.2)
                .map(|v| format!("{} half a turn apart", print_degrees(2.0 * v, 1)))
        };
        if let Some(w) = wobble {
            f.at(
                r,
                format!("{} wheel wobbles: {w}.", cap(&r.place.words())),
                "A bent rim gives a different camber and toe wherever it happens to stand.",
                "Read every angle of this wheel half a turn apart, or change the wheel.",
            );
        }
    }
}

fn included_angle(f: &mut Found<'_, '_>) {
    let s = f.scene;
    let included = |side| {
        let caster = s.here(Quantity::Caster, Axle::Front, side)?;
        let camber = s.here(Quantity::Camber, Axle::Front, side)?;
        Some((caster.also("sai_deg")? + camber.value, caster))
    };
    let (Some((l, left)), Some((r, right))) = (included(Side::Left), included(Side::Right)) else { return };
    if (l - r).abs() > 0.7 {
        f.at(
            if l < r { left } else { right },
            format!("Included angle {} left, {} right.", print_degrees(l, 1), print_degrees(r, 1)),
            "Included angle belongs to the knuckle and no adjuster changes it. A difference means something is bent.",
            "Sweep both sides again with the brakes held; if it stays, look at knuckle and strut.",
        );
    }
}

fn methods_disagree(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for r in standing(s) {
        let other = s.readings.iter().rev().find(|o| {
            o.visit == r.visit && o.quantity == r.quantity && o.place == r.place && o.method != r.method
        });
        let Some(o) = other else { continue };
        let apart = (r.value - o.value).abs();
        // Both stood on the same floor under the same car, so what the prepare list adds is in neither's difference.
        let own = |x: &Seen| if is_angle(x.quantity) { x.sigma.min(0.2) } else { x.sigma.min(3.0) };
        if s.changed_after(o).is_none()
            && apart > (2.5 * own(r).hypot(own(o))).max(if is_angle(r.quantity) { 0.15 } else { 3.0 })
        {
            let title = |m: Method| {
                f.methods.iter().find(|x| x.id == m).map_or_else(String::new, |x| x.title.to_lowercase())
            };
            let unit = if is_angle(r.quantity) { print_degrees(apart, 2) } else { format!("{apart:.0} mm") };
            f.at(
                r,
                format!("{}: {} and {} are {unit} apart.", name(r), title(r.method), title(o.method)),
                "More than both hold together. Rim run-out, a bulge or a wrong span does this.",
                "Roll the wheel half a turn and read again by one of them.",
            );
        }
    }
}

fn repeats(rule: Rule, f: &mut Found<'_, '_>) {
    for r in standing(f.scene) {
        let Some(m) = f.methods.iter().find(|m| m.id == r.method) else { continue };
        let Ok((_, _, all)) = parse_entries(m, &r.raw, r.unit) else { continue };
        for x in all {
            let base = x.name.split('@').next().unwrap_or_default();
            let Some(e) = m.entries.iter().find(|e| e.name == base) else { continue };
            let label = e.label.to_lowercase();
            if rule == Rule::OddOne
                && let Some(i) = x.odd
            {
                f.at(
                    r,
                    format!(
                        "{}, {label}: one of {} stands {:.1} away from the others.",
                        name(r),
                        x.values.len(),
                        x.odd_by.abs()
                    ),
                    "One reading that stands apart is more often a slip than the car.",
                    &format!("Keep or drop number {}, or read it once more.", i + 1),
                );
            }
            if rule == Rule::RepeatSpread && x.odd.is_none() && e.sigma > 0.0 && x.spread > 5.0 * e.sigma {
                f.at(
                    r,
                    format!("{}, {label}: repeats are {:.1} apart.", name(r), x.spread),
                    "The same thing read again should fall closer together than this.",
                    "Find what moves: plates, gauge seat, a joint with play. Then read three times.",
                );
            }
        }
    }
}

/// Whether an angle was typed as a bare number.
fn bare(text: &str) -> bool {
    !text.is_empty() && text.chars().all(|c| c.is_ascii_digit() || "+-−., ".contains(c))
}

fn model(rule: Rule, f: &mut Found<'_, '_>) {
    let s = f.scene;
    for r in standing(s) {
        if rule == Rule::UnitInch {
            unit_inch(f, r);
            continue;
        }
        let Some((axle, side)) = r.place.as_wheel() else { continue };
        if !matches!(r.quantity, Quantity::Camber | Quantity::Caster | Quantity::Toe) {
            continue;
        }
        let Some(e) = s.expected(r.quantity, axle, side) else { continue };
        let tol = r.sigma.hypot(e.sigma);
        let off = (r.value - e.value).abs();
        let minutes = r.raw.iter().filter(|x| !x.dropped).any(|x| bare(&x.text))
            && r.value.abs() >= 4.0
            && r.quantity != Quantity::Caster
            && (r.value / 60.0 - e.value).abs() < off / 2.0
            && off > 2.0 * tol;
        let other = Place::wheel(axle, if side == Side::Left { Side::Right } else { Side::Left });
        let mirrored = s
            .standing(s.visit, r.quantity, other)
            .is_some_and(|o| (o.value + r.value).abs() < 0.3 && (o.value - r.value).abs() > 1.2);
        let flipped = !minutes
            && r.value.abs() > 0.5
            && ((off > 3.0 * tol && (r.value + e.value).abs() < 1.5 * tol)
                || (mirrored && (r.value + e.value).abs() < off));
        let shown = print_degrees(e.value, 1);
        let what = r.quantity.title().split(',').next().unwrap_or_default().to_lowercase();
        match rule {
            Rule::UnitMinutes if minutes => f.at(
                r,
                format!("{}: {} is a lot of {what}. Were these minutes?", name(r), print_degrees(r.value, 1)),
                &format!("Minutes are written {:.0}'. The model expects about {shown} here.", r.value.abs()),
                "Look at the gauge's unit and type it again with its mark.",
            ),
            Rule::SignFlipped if flipped => f.at(
                r,
                format!("{}: the sign is probably turned.", name(r)),
                &format!("The model expects about {shown} here, and the other sign would fit."),
                "Look which way the top leans and read once more.",
            ),
            Rule::FarFromModel if off > 3.0 * tol && !flipped && !minutes => f.at(
                r,
                format!("{} is {} from what the model says at this height.", name(r), print_degrees(off, 1)),
                &format!(
                    "It expects {shown} ±{:.1}, {}. A wrong reading, a bent part, or points that are not this car's.",
                    e.sigma,
                    if e.anchored { "from the visit before, moved to this height" } else { "from the points alone" }
                ),
                "Read it by another method. If it stays, look for a bent part.",
            ),
            _ => {}
        }
    }
}

fn unit_inch(f: &mut Found<'_, '_>, r: &Seen) {
    let Some(m) = f.methods.iter().find(|m| m.id == r.method) else { return };
    let odd = r.raw.iter().filter(|x| !x.dropped).find(|x| {
        let base = x.name.split('@').next().unwrap_or_default();
        let length = m.entries.iter().any(|e| e.name == base && e.kind == super::method::EntryKind::Length);
        let decimals = x.text.trim().split_once(['.', ',']).map_or(0, |(_, d)| d.len());
        length && r.unit == LengthUnit::Mm && bare(&x.text) && decimals >= 3
    });
    if let Some(x) = odd {
        f.at(
            r,
            format!("{}: {} mm to three decimals. Were these inches?", name(r), x.text.trim()),
            "A tape or rule in mm does not show thousandths; a calliper in inches does.",
            "Look at the calliper's unit and type it again with its unit.",
        );
    }
}
