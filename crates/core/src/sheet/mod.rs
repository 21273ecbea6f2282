//! The ordered work steps of a setting, the gates between them, and the cautions at each.

mod gate;

pub use gate::{GateAbout, GateFinding, GateRead, GateSide, TOE_SET_BAND_DEG, fouls, judge_gate};

use crate::part::Part;
use crate::plan::{PlanInput, PlanResult, SettingLine};
use serde::{Deserialize, Serialize};

/// A step is work; a gate is a reading without which the next step means nothing.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum StepKind {
    /// Work.
    Step,
    /// Shut until its readings are in.
    Gate,
}

/// What a gate waits for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum GateReading {
    /// Hub-to-arch height, both fronts.
    Height,
    /// Caster swept again, both fronts.
    Caster,
    /// Camber, both fronts.
    Camber,
    /// Toe, both fronts.
    Toe,
}

impl GateReading {
    /// What it is called.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Height => "height",
            Self::Caster => "caster",
            Self::Camber => "camber",
            Self::Toe => "toe",
        }
    }
}

/// One line of the sheet.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SheetStep {
    /// Stable word, kept with the record of what was done.
    pub id: String,
    /// Work or gate.
    pub kind: StepKind,
    /// What to do, short.
    pub title: String,
    /// How, short.
    pub detail: String,
    /// Things ticked by hand at a gate.
    pub ticks: Vec<String>,
    /// Readings a gate waits for.
    pub needs: Vec<GateReading>,
    /// Cautions that apply here.
    pub cautions: Vec<String>,
}

fn step(id: &str, title: &str, detail: String, cautions: &[&str]) -> SheetStep {
    SheetStep {
        id: id.into(),
        kind: StepKind::Step,
        title: title.into(),
        detail,
        ticks: Vec::new(),
        needs: Vec::new(),
        cautions: cautions.iter().map(|c| (*c).to_owned()).collect(),
    }
}

fn gate(id: &str, title: &str, detail: String, ticks: &[&str], needs: &[GateReading]) -> SheetStep {
    SheetStep {
        id: id.into(),
        kind: StepKind::Gate,
        title: title.into(),
        detail,
        ticks: ticks.iter().map(|c| (*c).to_owned()).collect(),
        needs: needs.to_vec(),
        cautions: Vec::new(),
    }
}

/// Orders of one side that turn something; what is one for both wheels is left to [`axle_moves`].
fn moves(lines: &[SettingLine], toe: bool) -> String {
    said(lines.iter().filter(|l| l.sets_toe == toe && !l.shared))
}

/// Orders of what is one for both wheels, once.
fn axle_moves(result: &PlanResult, toe: bool) -> Option<String> {
    let shared = || result.left.setting.iter().filter(|l| l.sets_toe == toe && l.shared);
    shared().next().map(|_| said(shared()))
}

fn said<'a>(lines: impl Iterator<Item = &'a SettingLine>) -> String {
    let said: Vec<String> =
        lines.filter(|l| l.moves()).map(|l| format!("{} {}", l.name.to_lowercase(), l.words)).collect();
    if said.is_empty() { "leave".into() } else { said.join(", ") }
}

/// Left, right, and what is one for both, as one line.
fn orders(result: &PlanResult, toe: bool) -> String {
    let own = |l: &[SettingLine]| l.iter().any(|l| l.sets_toe == toe && !l.shared);
    let mut out = Vec::new();
    if let Some(axle) = axle_moves(result, toe) {
        out.push(format!("both wheels: {axle}"));
    }
    if own(&result.left.setting) || own(&result.right.setting) {
        out.push(format!("left: {}", moves(&result.left.setting, toe)));
        out.push(format!("right: {}", moves(&result.right.setting, toe)));
    }
    out.join("; ")
}

/// The sheet of a plan: height first, then parts, cams, settle and re-sweep, tie rods last. Only what the plan
/// changes appears.
#[must_use]
pub fn sheet(input: &PlanInput, result: &PlanResult, fitted: &[Part]) -> Vec<SheetStep> {
    let turned = |toe: bool| {
        [&result.left, &result.right].iter().flat_map(|s| &s.setting).any(|l| l.sets_toe == toe && l.moves())
    };
    let heights = input.height_change_mm != 0.0 || input.trim_mm != [0.0; 2];
    let (cams, rods) = (turned(false), turned(true));
    let mut out = Vec::new();
    let foul: Vec<String> =
        fouls(result).into_iter().filter_map(|f| Some(format!("{}: {}", f.side?.word(), f.what?))).collect();
    if !foul.is_empty() {
        out.push(gate(
            "fouls",
            "It fouls as planned",
            format!("{}. Plan again, or say why it goes on.", foul.join("; ")),
            &[],
            &[],
        ));
    }
    out.push(step(
        "support",
        "Stand and mark",
        "chock, stands on hard points; paint-mark everything that will be turned".into(),
        &["Never trust a jack alone. Air suspension: service mode before lifting, pads at the lift points."],
    ));
    if heights {
        out.push(step(
            "height",
            "Set front height",
            format!(
                "left {:.0} mm, right {:.0} mm, hub to arch",
                result.left.planned_height_mm, result.right.planned_height_mm
            ),
            &[
                "A loaded spring can kill: use a proper compressor or leave it to a shop. Torsion bars: unload first.",
                "At full droop and lock check brake hose, sensor wire, drive-shaft and ball-joint angles.",
            ],
        ));
    }
    out.push(gate(
        "settled",
        "Settle, re-read height",
        "No angle counts until height is settled and both sides are read.".into(),
        &["Roll 3 m", "Bounce three times"],
        &[GateReading::Height],
    ));
    // Slots and bolts before plates: what leaves least room is set first.
    let mut parts: Vec<&Part> = fitted.iter().collect();
    parts.sort_by_key(|p| p.adjusters.iter().map(crate::part::Adjuster::turn_order).min().unwrap_or(0));
    for p in parts {
        let cautions: Vec<&str> = p.cautions.iter().map(String::as_str).collect();
        let mut s = step(
            &format!("fit-{}", p.id),
            &format!("Fit {}", p.name.to_lowercase()),
            "bolts snug, not tight".into(),
            &cautions,
        );
        s.cautions.push("Seized bolt: stop. Do not cut or heat suspension parts.".into());
        out.push(s);
    }
    if cams {
        out.push(step(
            "cams",
            turning(result),
            orders(result, false),
            &["Loosen one bolt at a time and count from the paint mark. Knock-out tabs must be out."],
        ));
    }
    if cams || heights || !fitted.is_empty() {
        out.push(gate(
            "reswept",
            "Settle, re-sweep caster",
            format!(
                "Camber {} to {}, caster {} to {}; each also near what was expected. Caster has to be swept again.",
                degrees(input.aim.camber_deg[0]),
                degrees(input.aim.camber_deg[1]),
                degrees(input.aim.caster_deg[0]),
                degrees(input.aim.caster_deg[1]),
            ),
            &["Roll 3 m", "Bounce three times", "Re-sweep caster"],
            &[GateReading::Camber, GateReading::Caster],
        ));
    }
    if rods {
        out.push(step(
            "tie-rods",
            "Tie rods",
            format!("wheel straight and locked; {}; read toe, then turn the rest", orders(result, true)),
            &["Mark before turning, count turns. Keep thread engagement; torque the lock nuts to the maker's figures."],
        ));
    }
    out.push(step(
        "tighten",
        "Tighten at ride height",
        "wheels on the ground, rubber bushings at rest".into(),
        &["Torque to the maker's figures with bushings at ride height; new bolts where the maker says."],
    ));
    out.push(gate(
        "proved",
        "Prove, full re-read",
        "Camber, caster and toe, both fronts, after a roll.".into(),
        &["Roll 3 m", "Steering wheel straight"],
        &[GateReading::Camber, GateReading::Caster, GateReading::Toe],
    ));
    out
}

/// What the step of everything but toe is called, by what it turns.
fn turning(result: &PlanResult) -> &'static str {
    let lines = || [&result.left, &result.right].into_iter().flat_map(|s| &s.setting);
    let turned = || lines().filter(|l| !l.sets_toe && l.moves());
    if turned().all(|l| l.is_cam) {
        "Cams, both fronts"
    } else if turned().all(|l| l.shared) {
        "Arms and bars of the axle"
    } else {
        "Cams, slots, plates and arms"
    }
}

fn degrees(v: f64) -> String {
    format!("{}{:.1}°", if v < -0.04 { "−" } else { "" }, v.abs())
}

/// One order as it stood when its step was done.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct OrderedLine {
    /// Side; none for what is one for both wheels.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<crate::geometry::Side>,
    /// What was turned.
    pub name: String,
    /// The order in workshop words.
    pub words: String,
    /// Where it was to end: degrees of a cam, turns, mm.
    pub position: f64,
}

/// What a step said when it was done. Later changes of plan or parts leave it as it was.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default)]
pub struct DoneRecord {
    /// Its title.
    pub title: String,
    /// Its line.
    pub detail: String,
    /// Its orders.
    pub ordered: Vec<OrderedLine>,
    /// What was off when a gate was opened.
    pub off: Vec<GateFinding>,
    /// Why it was opened all the same.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub reason: Option<String>,
}

/// What a step says now, to be kept with it.
#[must_use]
pub fn record_of(s: &SheetStep, result: &PlanResult) -> DoneRecord {
    use crate::geometry::Side;
    let toe = match s.id.as_str() {
        "cams" => Some(false),
        "tie-rods" => Some(true),
        _ => None,
    };
    let line = |side: Option<Side>| {
        move |l: &SettingLine| OrderedLine {
            side: if l.shared { None } else { side },
            name: l.name.clone(),
            words: l.words.clone(),
            position: l.position,
        }
    };
    let own = |side, lines: &[SettingLine]| -> Vec<OrderedLine> {
        let wanted = |l: &&SettingLine| toe == Some(l.sets_toe) && (!l.shared || side == Side::Left);
        lines.iter().filter(wanted).map(line(Some(side))).collect()
    };
    DoneRecord {
        title: s.title.clone(),
        detail: s.detail.clone(),
        ordered: [own(Side::Left, &result.left.setting), own(Side::Right, &result.right.setting)].concat(),
        off: Vec::new(),
        reason: None,
    }
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
