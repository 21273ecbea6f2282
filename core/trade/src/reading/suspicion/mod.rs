//! Readings that lie: each rule says what is odd, why, and what one reading would settle it. Limits are
//! common practice, no source, where no formula is named.

mod bent;
mod numbers;
mod stale;
mod stood;

pub use stale::stale_because;

use super::method::MethodInfo;
use super::quantity::{Place, Quantity};
use super::scene::{Scene, Seen};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::said::Said;
use serde::{Deserialize, Serialize};

/// A rule.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
// A part has rules too: two types of one name would be one in the description.
#[cfg_attr(feature = "openapi", schema(as = SuspicionRule))]
#[serde(rename_all = "snake_case")]
pub enum Rule {
    /// Read on the jack, not rolled since.
    Jacked,
    /// Angles read before the height was, or before it settled.
    HeightNotSettled,
    /// Counts against gravity on a floor nobody measured.
    FloorUnknown,
    /// The floor told now is not the one that was taken out of a reading.
    FloorChanged,
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
    /// Caster far apart left to right.
    CasterApart,
    /// The rear axle steers the car: thrust off the centre line.
    RearSteers,
    /// Wheelbases differ from side to side.
    WheelbasesApart,
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
    pub const ALL: [Self; 33] = [
        Self::Jacked,
        Self::HeightNotSettled,
        Self::FloorUnknown,
        Self::FloorChanged,
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
        Self::CasterApart,
        Self::RearSteers,
        Self::WheelbasesApart,
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
    pub says: Said,
    /// Why.
    pub why: Said,
    /// What one reading or look would settle it.
    pub settle: Said,
}

struct Found<'a, 'b> {
    scene: &'b Scene<'a>,
    methods: &'b [MethodInfo],
    rule: Rule,
    out: Vec<Suspicion>,
}

impl Found<'_, '_> {
    /// Odd about one reading, which the message may name as `which`.
    fn at(&mut self, r: &Seen, says: Said, why: Said, settle: Said) {
        self.out.push(Suspicion {
            rule: self.rule,
            place: Some(r.place),
            quantity: Some(r.quantity),
            reading: Some(r.id.clone()),
            says: says.say("which", r.place.reading(r.quantity)),
            why,
            settle,
        });
    }

    fn visit(&mut self, says: Said, why: Said, settle: Said) {
        let rule = self.rule;
        self.out.push(Suspicion { rule, place: None, quantity: None, reading: None, says, why, settle });
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

fn is_angle(q: Quantity) -> bool {
    matches!(q, Quantity::Camber | Quantity::Caster | Quantity::Toe | Quantity::TotalToe)
}

fn look(rule: Rule, f: &mut Found<'_, '_>) {
    match rule {
        Rule::Jacked | Rule::BodyTilted => stood::stood(rule, f),
        Rule::HeightNotSettled => stood::height_not_settled(f),
        Rule::FloorUnknown => stood::floor_unknown(f),
        Rule::FloorChanged => stood::floor_changed(f),
        Rule::FloorPattern => stood::floor_pattern(f),
        Rule::ToeStale | Rule::CasterStale => stale::stale(rule, f),
        Rule::CasterUnchanged => stale::caster_unchanged(f),
        Rule::StringTracks => bent::string_tracks(f),
        Rule::EqualMarks => bent::equal_marks(f),
        Rule::PitchCompare => stale::pitch_compare(f),
        Rule::NominalCircle => stood::nominal_circle(f),
        Rule::ToeOrCamber => bent::toe_or_camber(f),
        Rule::Bulge => stood::bulge(f),
        Rule::Weight => stood::weight(f),
        Rule::ReLevels | Rule::SteeringOff | Rule::PlatesStick | Rule::NotRocked => {
            stood::answered_no(rule, f)
        }
        Rule::SpringsSettled => stood::springs_settled(f),
        Rule::BentRim => bent::bent_rim(f),
        Rule::IncludedAngle => bent::included_angle(f),
        Rule::CasterApart => bent::caster_apart(f),
        Rule::RearSteers => bent::rear_steers(f),
        Rule::WheelbasesApart => bent::wheelbases_apart(f),
        Rule::MethodsDisagree => numbers::methods_disagree(f),
        Rule::RepeatSpread | Rule::OddOne => numbers::repeats(rule, f),
        Rule::SignFlipped | Rule::UnitMinutes | Rule::UnitInch | Rule::FarFromModel => {
            numbers::model(rule, f)
        }
    }
}
