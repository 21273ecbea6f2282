//! What a plan answers for one axle.

use super::angle::AngleName;
use super::bench::Sensitivity;
use super::checks::Check;
use super::curves::CurvePoint;
use super::height::PlanState;
use super::judge::Shortfall;
use super::line::SettingLine;
use super::pair::DragLink;
use super::reach::{LockCamber, LockTurn, Plane, Reach};
use super::square::Square;
use super::states::StateResult;
use super::steer::TurnPath;
use super::stop::Stop;
use crate::part::Part;
use bold_stance_car::draw::Drawing;
use bold_stance_car::fit::Doubt;
use bold_stance_car::vehicle::{Anchor, Sides};
use bold_stance_kinematics::wheel::Alignment;
use bold_stance_units::said::Said;
use serde::{Deserialize, Serialize};

/// One corner.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SidePlan {
    /// As found, from the readings.
    pub before: Alignment,
    /// At the height the aim is judged at, with the fitted parts, adjusters untouched.
    pub after: Alignment,
    /// The same with the setting applied.
    pub set: Alignment,
    /// Planned hub-to-arch height, mm.
    pub planned_height_mm: f64,
    /// Half widths of the 90 % bands at the planned height.
    pub doubt: Doubt,
    /// How far the geometry was bent to meet the readings.
    pub anchor: Anchor,
    /// Reach of the cams with the fitted parts.
    pub reach: Option<Reach>,
    /// Reach without any part, when parts are fitted.
    pub bare_reach: Option<Reach>,
    /// Orders that come nearest to the aim, in the order they are turned.
    pub setting: Vec<SettingLine>,
    /// Why these adjusters and not others.
    pub why: Vec<Said>,
    /// Camber at full lock as found, adjusters untouched, and set; none for a wheel that does not steer.
    pub lock: Option<LockPlan>,
    /// What must not foul, at the planned height.
    pub checks: Vec<Check>,
    /// How far the setting stays outside the aim.
    pub shortfall: Shortfall,
    /// What one notch or turn does from the untouched adjusters.
    pub sensitivity: Vec<Sensitivity>,
    /// Adjusters untouched, over height, with the fitted parts.
    pub curve: Vec<CurvePoint>,
    /// As found.
    pub drawing_before: Drawing,
    /// Planned, adjusters untouched.
    pub drawing_after: Drawing,
    /// Planned, set.
    pub drawing_set: Drawing,
}

/// Camber at full lock.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LockPlan {
    /// Turn of both wheels.
    pub turn: LockTurn,
    /// As found.
    pub before: LockCamber,
    /// Adjusters untouched.
    pub after: LockCamber,
    /// Set.
    pub set: LockCamber,
    /// What the reach becomes at lock: `[outside wheel, inside wheel]`, degrees.
    pub outline: Vec<[f64; 2]>,
}

/// What a part changes with everything else as planned, average of the two sides.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Effect {
    /// Degrees.
    pub camber_deg: f64,
    /// Degrees.
    pub caster_deg: f64,
    /// Degrees, one wheel.
    pub toe_deg: f64,
    /// Wheel centre forward, mm.
    pub wheel_x_mm: f64,
    /// Half track, mm.
    pub half_track_mm: f64,
    /// Scrub radius, mm.
    pub scrub_mm: f64,
    /// Range of toe over ±30 mm about the planned height, with the part over without it.
    pub bump_toe_ratio: f64,
}

/// How a part does against the aim.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CandidateStatus {
    /// In the plan.
    Fitted,
    /// Both sides can be set inside the windows.
    Reaches,
    /// Still short.
    Short,
    /// Leaves camber and caster as they are.
    ToeOnly,
    /// Takes the place of a part that is fitted.
    Clash,
    /// Needs something that is not there.
    Needs,
    /// Fouls something: a check fails.
    Fouls,
    /// The linkage does not close with it at the planned height.
    Stops,
    /// Nothing it could set was read: it is not judged.
    NotJudged,
}

/// One part of the catalogue against this plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Candidate {
    /// The part, in the size that does best.
    pub part: Part,
    /// Other sizes of it, by id.
    pub sizes: Vec<String>,
    /// What has to come along because it cannot stand without; the candidate is judged with them.
    pub kit: Vec<KitPart>,
    /// How it does.
    pub status: CandidateStatus,
    /// Largest gap left, degrees.
    pub short_deg: f64,
    /// By how much left and right stay farther apart than the aim allows, degrees.
    pub apart_deg: f64,
    /// What it changes; none when it cannot be fitted.
    pub effect: Option<Effect>,
    /// Left reach outline with it.
    pub left_outline: Vec<[f64; 2]>,
    /// Right reach outline with it.
    pub right_outline: Vec<[f64; 2]>,
    /// One line: what it does.
    pub does: Said,
    /// One sentence: what it costs.
    pub costs: Said,
    /// Checks that fail with it, and why it cannot stand here.
    pub fouls: Vec<Said>,
}

/// A part that comes along with another.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct KitPart {
    /// Its id.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Price for the axle in the shop's currency.
    pub cost: f64,
    /// Minutes of labour for the axle.
    pub labour_minutes: u32,
}

/// The answer in words.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Verdict {
    /// Whether both sides can be set inside every window and nothing fouls.
    pub reached: bool,
    /// One line.
    pub headline: Said,
    /// What to do about it.
    pub sentence: Said,
    /// Left minus right after setting, camber, degrees.
    pub cross_camber_deg: f64,
    /// Left minus right after setting, caster, degrees.
    pub cross_caster_deg: f64,
    /// What meets something as planned, side first; empty when nothing does.
    pub fouls: Vec<Said>,
    /// Remarks: doubt, suspicion.
    pub watch: Vec<Said>,
}

/// An angle as set that was not read as found.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ExpectedAngle {
    /// Which.
    pub angle: AngleName,
    /// As set, degrees, each side.
    pub value_deg: Sides<f64>,
    /// Half width of the wider side's 90 % band, degrees.
    pub band_deg: f64,
    /// The same once it is read, degrees.
    pub band_if_read_deg: f64,
    /// In words.
    pub words: Said,
}

/// The Plan answer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PlanResult {
    /// Version of the computation, for snapshots.
    pub core_version: String,
    /// Set when the height the aim is judged at cannot be reached.
    pub stop: Option<Stop>,
    /// What is planned against: camber and caster, or camber and toe at the rear.
    pub plane: Plane,
    /// Height the map and the setting are worked out at.
    pub judged: PlanState,
    /// Every height state that exists, as found first, each with the verdict of every angle as set.
    pub states: Vec<StateResult>,
    /// Why the fitted parts cannot stand together; empty when they can.
    pub misfits: Vec<Said>,
    /// Body pitch against as found, degrees, nose up positive.
    pub pitch_deg: f64,
    /// How a live axle that stands askew is squared; none where it is square or was not taped.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub square: Option<Square>,
    /// The drag link that puts the steering wheel of a live axle straight; none where there is none that turns.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub drag_link: Option<DragLink>,
    /// The steering from lock to lock; none for an axle that does not steer, or a live one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub steer: Option<TurnPath>,
    /// Angles nobody read: as expected, and what reading them would buy.
    pub expected: Vec<ExpectedAngle>,
    /// Left.
    pub left: SidePlan,
    /// Right.
    pub right: SidePlan,
    /// In words.
    pub verdict: Verdict,
    /// The catalogue against this plan, best first.
    pub candidates: Vec<Candidate>,
}
