//! A whole reading: what was typed, corrected for how the car stood, with its doubt and what it means.

use super::camber::{FLOOR_SIGMA_DEG, floor_correction};
use super::convert::{DoubtPart, doubt_parts, together};
use super::entries::{Given, RawEntry, Repeats, parse_entries};
use super::method::{CarFact, EntryKind, Method, MethodInfo};
use super::prepare::{PrepareItem, Prepared};
use super::quantity::{Place, Quantity, ReadAxle};
use super::raw::{Also, Correction, CorrectionKind, Known, Raw, SweptCar};
use super::wheel::{lip_circle_mm, stamped};
use crate::aim::Aim;
use bold_stance_car::vehicle::{Axles, Car, Gains, TyreSize, payload_loads};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Measure, Said, said};
use bold_stance_units::{LengthUnit, parse_length_mm};
use serde::{Deserialize, Serialize};

/// How the wheel stood.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Jack {
    /// On its wheels, rolled since.
    #[default]
    Rolled,
    /// Jacked at its arm, or let down and not rolled since.
    Jacked,
    /// A jack under the other side: the body is tilted.
    OneSide,
    /// Wheel off, body level on stands, the arm held up; read with a straightedge on hub or rotor.
    WheelOff,
}

/// Standing hub-to-arch heights of a visit, mm: left front, right front, left rear, right rear.
pub type Heights = [Option<f64>; 4];

/// Position of a wheel in [`Heights`].
#[must_use]
pub fn corner_index(axle: Axle, side: Side) -> usize {
    match (axle, side) {
        (Axle::Front, Side::Left) => 0,
        (Axle::Front, Side::Right) => 1,
        (Axle::Rear, Side::Left) => 2,
        (Axle::Rear, Side::Right) => 3,
    }
}

/// What is known of the car that is read.
#[derive(Debug, Clone, PartialEq)]
pub struct ReadingCar {
    /// Its geometry and facts.
    pub car: Car,
    /// Front and rear hub-to-arch height at which the points were taken, mm.
    pub design_height_mm: [f64; 2],
    /// Its tyres.
    pub tyre: TyreSize,
    /// Front and rear track, mm.
    pub track_mm: [f64; 2],
}

impl ReadingCar {
    /// Height gains over design of known heights; unread ones count as design.
    #[must_use]
    pub fn gains(&self, h: &Heights) -> Gains {
        let at = |i: usize| h[i].map_or(0.0, |v| v - self.design_height_mm[i / 2]);
        Gains { left_front: at(0), right_front: at(1), left_rear: at(2), right_rear: at(3) }
    }

    /// An angle of one wheel over the ground at heights, from the points and the adjusters somebody looked at.
    #[must_use]
    pub fn model(&self, q: Quantity, axle: Axle, side: Side, gains: &Gains) -> Option<f64> {
        let mut corners = self.car.corners();
        for (axle, side, c) in &mut corners {
            *c = c.edited(&self.as_found(*axle, *side));
        }
        let state = self.car.state(&corners, gains, Axles::default());
        let w = state.wheels.iter().find(|w| w.axle == axle && w.side == side)?.wheel?;
        match q {
            Quantity::Camber => Some(w.camber_deg),
            Quantity::Caster => Some(w.steer?.caster_deg),
            Quantity::Toe => Some(w.toe_deg),
            _ => None,
        }
    }

    fn fact(&self, f: CarFact, axle: ReadAxle) -> f64 {
        match f {
            CarFact::TyreDiameter => self.tyre.diameter_mm(),
            CarFact::RimCircle => lip_circle_mm(self.tyre.rim_in, false),
            CarFact::RimNominal => self.tyre.rim_in,
            CarFact::AxleHeight => match (axle, &self.car.rear) {
                (ReadAxle::Rear, Some(r)) => r.wheel.loaded_radius_mm,
                (ReadAxle::Rear, None) => self.tyre.diameter_mm() / 2.0,
                _ => self.car.front.wheel.loaded_radius_mm,
            },
            CarFact::TrackFront => self.track_mm[0],
            CarFact::TrackRear => self.track_mm[1],
            CarFact::Wheelbase => self.car.wheelbase_mm,
        }
    }

    /// How far each corner sinks when the fuel that is missing is put in and what does not belong is taken
    /// out, mm; none without spring rates. The tank lies over the rear axle's front, seats amidships, cargo
    /// over the rear axle (common practice, no source).
    #[must_use]
    pub fn weight_sink(&self, p: &Prepared) -> Option<[f64; 4]> {
        let f = self.car.facts.axles.front.spring?;
        let r = self.car.facts.axles.rear.spring?;
        let wb = self.car.wheelbase_mm;
        let mut sink = [0.0; 4];
        for (id, sign, along) in [("fuel", 1.0, 0.85), ("seats", -1.0, 0.45), ("cargo", -1.0, 0.95)] {
            let kg = sign * p.number(id).unwrap_or(0.0);
            let n = payload_loads(kg, along * wb, 0.0, wb, self.track_mm[0], self.track_mm[1]);
            for (i, s) in sink.iter_mut().enumerate() {
                *s += if i < 2 { f.sinks(n[i]) } else { r.sinks(n[i]) };
            }
        }
        Some(sink)
    }
}

/// Everything a reading is worked out from.
#[derive(Debug, Clone, Copy)]
pub struct Take<'a> {
    /// How it was read.
    pub method: &'a MethodInfo,
    /// As typed.
    pub raw: &'a [RawEntry],
    /// What a bare length means.
    pub unit: LengthUnit,
    /// Where.
    pub place: Place,
    /// How the wheel stood.
    pub jack: Jack,
    /// Hub to arch as it stood on the jack, as typed; empty when nobody looked.
    pub jacked_height: &'a str,
    /// The car, when there is one.
    pub car: Option<&'a ReadingCar>,
    /// Heights of the visit as the car stood while it was read, before fuel and load are taken out.
    pub heights: Heights,
    /// The prepare list.
    pub prepared: &'a Prepared,
    /// Its items.
    pub items: &'a [PrepareItem],
    /// What is aimed at in front.
    pub aim: Option<&'a Aim>,
}

/// What a front value means against the aim.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AgainstAim {
    /// Inside the window.
    pub inside: bool,
    /// In words.
    pub says: Said,
}

/// A reading worked out.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Taken {
    /// What.
    pub quantity: Quantity,
    /// Degrees, mm or kPa, corrected.
    pub value: f64,
    /// Its standard deviation, same unit.
    pub sigma: f64,
    /// What the doubt is made of, largest first.
    pub doubt: Vec<DoubtPart>,
    /// What was taken out or put in.
    pub corrections: Vec<Correction>,
    /// Further figures.
    pub also: Vec<Also>,
    /// Remarks.
    pub notes: Vec<Said>,
    /// How repeats lie.
    pub repeats: Vec<Repeats>,
    /// What the sign means, e.g. `top leans in`.
    pub words: Said,
    /// What it means against the aim.
    pub against_aim: Option<AgainstAim>,
    /// Hub-to-arch height it was read at, mm.
    pub height_mm: Option<f64>,
}

/// How far a car is rolled so that its tyres stand free, m (common practice, no source).
pub const ROLL_M: f64 = 3.0;
/// Rule of thumb for a wheel jacked at its arm (common practice, no source): it reads this much too far out.
pub const JACKED_RULE_DEG: f64 = 0.5;
/// Doubt of a jacked reading put right, degrees (common practice, no source).
const JACKED_SIGMA: f64 = 0.2;

/// Works a reading out.
///
/// # Errors
/// Every [`Problem`], each at its entry.
pub fn take(t: &Take<'_>) -> Result<Taken, Vec<Problem>> {
    let m = t.method;
    if !t.place.fits(m.quantity) && t.car.is_some() {
        let wrong = said("not-read-there").word("quantity", m.quantity.word()).say("place", t.place.said());
        return Err(vec![Problem::new("place", wrong, said("not-read-there-right"))]);
    }
    let (mut given, mut turned, repeats) = parse_entries(m, t.raw, t.unit)?;
    let mut notes = Vec::new();
    for g in std::iter::once(&mut given).chain(turned.iter_mut()) {
        notes = fill(t, g);
    }
    let jacked_height = jacked_height(t).map_err(|p| vec![p])?;
    let known = Known { side: t.place.one_side(), swept: swept(t, jacked_height) };
    let label = |name: &str| {
        let e = m.entries.iter().find(|e| e.name == name);
        Said::text(e.map_or_else(|| m.title.as_str(), |e| e.label.as_str()))
    };
    let (mut raw, mut doubt) = doubt_parts(m.id, &given, &known, &label).map_err(|p| vec![p])?;
    if let Some(g) = &turned {
        let (second, other) = doubt_parts(m.id, g, &known, &label).map_err(|p| vec![p])?;
        raw = half_turn(raw, &second);
        for (a, b) in doubt.iter_mut().zip(other) {
            a.sigma = a.sigma.hypot(b.sigma) / 2.0;
        }
    }
    let zeroed = given.word("zeroed-on-floor") == Some("true");
    stand(t, m, zeroed, jacked_height, &mut raw, &mut doubt);
    let air = t.car.is_some_and(|c| !c.car.facts.levels.is_empty());
    if t.car.is_some() {
        let counts = m.gravity || m.quantity != Quantity::Camber;
        doubt.extend(t.prepared.widens(t.items, m.quantity, t.place.axle, zeroed || !counts, air));
    }
    doubt.retain(|d| d.sigma > 0.0);
    doubt.sort_by(|a, b| b.sigma.total_cmp(&a.sigma));
    notes.splice(0..0, raw.notes);
    let here = t.place.as_wheel().and_then(|(a, s)| t.heights[corner_index(a, s)]);
    Ok(Taken {
        quantity: m.quantity,
        value: raw.value,
        sigma: together(&doubt),
        doubt,
        corrections: raw.corrections,
        also: raw.also,
        notes,
        repeats,
        words: words(m.quantity, raw.value),
        against_aim: t.aim.and_then(|a| against(a, m.quantity, t.place, raw.value)),
        height_mm: jacked_height.or(here),
    })
}

/// Fills what was left empty from the car; says what.
fn fill(t: &Take<'_>, g: &mut Given) -> Vec<Said> {
    let mut notes = Vec::new();
    let Some(car) = t.car else { return notes };
    for e in &t.method.entries {
        let Some(f) = e.from_car else { continue };
        let other_said = f == CarFact::RimNominal && g.opt("diameter").is_some();
        let not_needed = f == CarFact::AxleHeight && g.opt("height").is_none();
        if g.opt(&e.name).is_some() || other_said || not_needed {
            continue;
        }
        let v = car.fact(f, t.place.axle);
        g.put(&e.name, v, 0.0);
        let note = said("note-from-car").name("entry", e.label.to_lowercase());
        // A rim's stamped size is inches in every shop.
        notes.push(if e.kind == EntryKind::Nominal {
            note.say("value", stamped(v))
        } else {
            note.mm("value", v)
        });
    }
    // A gauge counts against gravity: the floor of the prepare list goes in as if it had been typed.
    if matches!(t.method.id, Method::CamberGauge | Method::CamberBar)
        && g.opt("floor-slope").is_none()
        && let Some(slope) = t.prepared.floor(t.place.axle)
    {
        g.put("floor-slope", slope, FLOOR_SIGMA_DEG);
    }
    notes
}

fn jacked_height(t: &Take<'_>) -> Result<Option<f64>, Problem> {
    if t.jack == Jack::Rolled || t.jacked_height.trim().is_empty() {
        return Ok(None);
    }
    let v = parse_length_mm("jacked_height", t.jacked_height, t.unit)?;
    in_range("jacked_height", v, 150.0, 1200.0, "mm")?;
    Ok(Some(v))
}

/// The linkage that was swept, at the height it stood.
fn swept(t: &Take<'_>, jacked: Option<f64>) -> Option<SweptCar> {
    let (axle, side) = t.place.as_wheel()?;
    if t.method.id != Method::CasterSweep || axle != Axle::Front {
        return None;
    }
    let c = t.car?;
    let h = jacked.or(t.heights[corner_index(axle, side)])?;
    let (points, wheel) = c.car.front.side(side);
    Some(SweptCar { points, wheel, travel_mm: c.design_height_mm[0] - h, toe_deg: 0.0 })
}

fn half_turn(first: Raw, second: &Raw) -> Raw {
    let run_out = (first.value - second.value).abs() / 2.0;
    let mut out = first;
    out.value = f64::midpoint(out.value, second.value);
    for (c, d) in out.corrections.iter_mut().zip(&second.corrections) {
        c.amount = f64::midpoint(c.amount, d.amount);
    }
    out.with("run_out_deg", said("also-half-turn"), run_out)
}

/// Corrections for how the car stood.
fn stand(
    t: &Take<'_>,
    m: &MethodInfo,
    zeroed: bool,
    jacked: Option<f64>,
    raw: &mut Raw,
    doubt: &mut Vec<DoubtPart>,
) {
    let q = m.quantity;
    let floor_known = t.prepared.floor(t.place.axle);
    if let Some(side) = t.place.one_side()
        && q == Quantity::Camber
        && m.gravity
        && !matches!(m.id, Method::CamberGauge | Method::CamberBar)
        && let Some(slope) = floor_known
    {
        let c = floor_correction(slope, side, zeroed);
        if c.amount != 0.0 {
            doubt.push(DoubtPart { name: said("doubt-floor"), sigma: FLOOR_SIGMA_DEG });
        }
        add(raw, c);
    }
    if floor_known.is_some() {
        raw.notes.retain(|n| n.id != "note-floor-unknown");
    }
    // A gauge's own scale hangs on gravity as a sweep does.
    if matches!(m.id, Method::CasterSweep | Method::CasterScale)
        && let Some(along) = t.prepared.number("floor_along")
    {
        let way = if along >= 0.0 { "front" } else { "rear" };
        let label = said("corrected-floor-along").deg("slope", along.abs(), 2);
        let why = said("corrected-floor-along-why").word("way", way);
        add(raw, Correction::applied(CorrectionKind::FloorAlong, along, label, why));
        doubt.push(DoubtPart { name: said("doubt-floor-along"), sigma: FLOOR_SIGMA_DEG });
    }
    if t.jack == Jack::WheelOff {
        held_correction(t, q, jacked, raw, doubt);
    }
    if t.jack == Jack::Jacked {
        jacked_correction(t, q, jacked, raw, doubt);
    }
    if t.jack == Jack::OneSide && matches!(q, Quantity::Camber | Quantity::Toe | Quantity::Height) {
        let sigma = if q == Quantity::Height { 10.0 } else { 0.4 };
        doubt.push(DoubtPart { name: said("doubt-tilted"), sigma });
    }
    weight(t, q, raw);
}

fn add(raw: &mut Raw, c: Correction) {
    raw.value += c.amount;
    raw.corrections.push(c);
}

/// From how the jack left it to how it stands. Caster and toe by this car's kinematics between both heights: a body that
/// rolls turns neither in first order. Camber by the rule: it rolls with the body, and how far a raised corner rolls it no
/// height hub to arch tells; the linkage alone would be a number without the roll.
fn jacked_correction(
    t: &Take<'_>,
    q: Quantity,
    jacked: Option<f64>,
    raw: &mut Raw,
    doubt: &mut Vec<DoubtPart>,
) {
    if !matches!(q, Quantity::Camber | Quantity::Caster | Quantity::Toe) {
        return;
    }
    doubt.push(DoubtPart { name: said("doubt-jacked"), sigma: JACKED_SIGMA });
    let kind = CorrectionKind::Jacked;
    if q == Quantity::Camber {
        let label = match jacked {
            Some(h) => said("corrected-jacked-at").mm("height", h),
            None => said("corrected-jacked"),
        }
        .deg("rule", JACKED_RULE_DEG, 1);
        let why = said("corrected-jacked-why").deg("rule", JACKED_RULE_DEG, 1);
        add(raw, Correction::applied(kind, -JACKED_RULE_DEG, label, why));
        return;
    }
    if let Some(c) = to_ride_height(t, q, jacked) {
        add(raw, c);
        return;
    }
    raw.corrections.push(Correction::left_out(kind, said("left-jacked"), said("left-jacked-why")));
}

/// From the height the wheel hung or was held at to the one it stands at, by this car's kinematics; none where one of them is
/// not known.
fn to_ride_height(t: &Take<'_>, q: Quantity, held: Option<f64>) -> Option<Correction> {
    let (from, c, (axle, side)) = (held?, t.car?, t.place.as_wheel()?);
    let to = t.heights[corner_index(axle, side)]?;
    let corner = Corner::of(c.car.axle(axle)?, side);
    let design = c.design_height_mm[usize::from(axle == Axle::Rear)];
    let at = |h: f64| {
        let w = corner.wheel(design - h, 0.0).ok()?;
        match q {
            Quantity::Camber => Some(w.camber_deg),
            Quantity::Caster => w.steer.map(|s| s.caster_deg),
            _ => Some(w.toe_deg),
        }
    };
    let amount = at(to)? - at(from)?;
    let label = said("corrected-jack-height").mm("from", from).mm("to", to);
    Some(Correction::applied(CorrectionKind::Jacked, amount, label, said("corrected-jack-height-why")))
}

/// Standard deviation of what a hub held up by hand or stand is off where its car would put it, degrees (judgement, no source).
const HELD_SIGMA: f64 = 0.1;

/// From a hub held at a height to how it stands: the body is level on its stands, so the kinematics say all of it.
fn held_correction(t: &Take<'_>, q: Quantity, held: Option<f64>, raw: &mut Raw, doubt: &mut Vec<DoubtPart>) {
    if !matches!(q, Quantity::Camber | Quantity::Caster | Quantity::Toe) {
        return;
    }
    match to_ride_height(t, q, held) {
        Some(c) => {
            doubt.push(DoubtPart { name: said("doubt-held"), sigma: HELD_SIGMA });
            add(raw, c);
        }
        // Nobody taped where it was held: it may hang anywhere.
        None => {
            doubt.push(DoubtPart { name: said("doubt-held-anywhere"), sigma: 4.0 * HELD_SIGMA });
            let (left, why) = (said("left-held"), said("left-held-why"));
            raw.corrections.push(Correction::left_out(CorrectionKind::Jacked, left, why));
        }
    }
}

/// Fuel, people and cargo: to a full tank and an empty car.
fn weight(t: &Take<'_>, q: Quantity, raw: &mut Raw) {
    let Some((axle, side)) = t.place.as_wheel() else { return };
    if ["fuel", "seats", "cargo"].iter().all(|id| t.prepared.number(id).unwrap_or(0.0) == 0.0) {
        return;
    }
    let angles = matches!(q, Quantity::Camber | Quantity::Caster | Quantity::Toe);
    if !(angles || q == Quantity::Height) {
        return;
    }
    let Some(c) = t.car else { return };
    let kind = CorrectionKind::Weight;
    let Some(sink) = c.weight_sink(t.prepared) else {
        raw.corrections.push(Correction::left_out(kind, said("left-weight"), said("left-weight-why")));
        return;
    };
    let own = sink[corner_index(axle, side)];
    let amount = if q == Quantity::Height {
        -own
    } else {
        let now = c.gains(&t.heights);
        let put_right = now.plus(&Gains {
            left_front: -sink[0],
            right_front: -sink[1],
            left_rear: -sink[2],
            right_rear: -sink[3],
        });
        let at = |g: &Gains| c.model(q, axle, side, g);
        match (at(&now), at(&put_right)) {
            (Some(a), Some(b)) => b - a,
            _ => return,
        }
    };
    let kg = |id: &str| t.prepared.number(id).unwrap_or(0.0);
    let label = said("corrected-weight")
        .fine_mm("by", own.abs())
        .word("way", if own > 0.0 { "lower" } else { "higher" });
    let why = said("corrected-weight-why")
        .of("fuel", Measure::Kg, kg("fuel"), 0)
        .of("seats", Measure::Kg, kg("seats"), 0)
        .of("cargo", Measure::Kg, kg("cargo"), 0);
    add(raw, Correction::applied(kind, amount, label, why));
}

/// What the sign of a value means.
#[must_use]
pub fn words(q: Quantity, v: f64) -> Said {
    let Some((positive, negative)) = q.leans() else { return said("quantity").word("quantity", q.word()) };
    let small = match q {
        Quantity::AxleOffset | Quantity::SetBack => 0.5,
        Quantity::Toe | Quantity::TotalToe | Quantity::Thrust => 0.01,
        _ => 0.05,
    };
    if v.abs() >= small {
        return if v > 0.0 { positive } else { negative };
    }
    match q {
        Quantity::Camber | Quantity::Caster => said("lean-upright"),
        Quantity::FloorSlope => said("lean-level"),
        Quantity::AxleOffset => said("lean-central"),
        _ => said("lean-straight"),
    }
}

/// What a front value means against the aim.
fn against(aim: &Aim, q: Quantity, place: Place, v: f64) -> Option<AgainstAim> {
    if place.axle != ReadAxle::Front {
        return None;
    }
    let (window, digits) = match q {
        Quantity::Camber => (aim.camber_deg, 1),
        Quantity::Caster => (aim.caster_deg, 1),
        Quantity::Toe => (aim.wheel_toe(), 2),
        Quantity::TotalToe => (aim.toe_total_deg, 2),
        _ => return None,
    };
    let inside = (window[0]..=window[1]).contains(&v);
    let edge = window.iter().any(|w| (v - w).abs() < 0.5 * 10f64.powi(-i32::from(digits)));
    let by = (window[0] - v).max(v - window[1]);
    let says = match (inside, edge) {
        (true, _) => said("aim-inside"),
        (false, true) => said("aim-edge"),
        (false, false) => said("aim-outside")
            .deg("by", by, digits)
            .word("quantity", q.word())
            .word("way", if v < window[0] { "less" } else { "more" }),
    };
    let says =
        says.name("aim", aim.name.clone()).deg("low", window[0], digits).deg("high", window[1], digits);
    Some(AgainstAim { inside, says })
}
