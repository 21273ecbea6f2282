//! The ordered work steps of a setting, the gates between them, and the cautions at each.

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

fn moves(lines: &[SettingLine], toe: bool) -> String {
    let said: Vec<String> = lines
        .iter()
        .filter(|l| l.sets_toe == toe)
        .map(|l| format!("{} {}", l.name.to_lowercase(), l.words))
        .collect();
    if said.is_empty() { "leave".into() } else { said.join(", ") }
}

/// The sheet of a plan: height first, then parts, cams, settle and re-sweep, tie rods last.
#[must_use]
pub fn sheet(input: &PlanInput, result: &PlanResult, fitted: &[Part]) -> Vec<SheetStep> {
    let mut out = vec![step(
        "support",
        "Stand and mark",
        "chock, stands on hard points; paint-mark every cam and both tie rods".into(),
        &["Never trust a jack alone. Air suspension: service mode before lifting, pads at the lift points."],
    )];
    out.push(step(
        "height",
        "Set front height",
        format!("left {:.0} mm, right {:.0} mm, hub to arch", result.left.planned_height_mm, result.right.planned_height_mm),
        &[
            "A loaded spring can kill: use a proper compressor or leave it to a shop. Torsion bars: unload first.",
            "At full droop and lock check brake hose, sensor wire, drive-shaft and ball-joint angles.",
        ],
    ));
    out.push(gate(
        "settled",
        "Settle, re-read height",
        "No angle counts until height is settled and both sides are read.".into(),
        &["Roll 3 m", "Bounce three times"],
        &[GateReading::Height],
    ));
    for p in fitted {
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
    out.push(step(
        "cams",
        "Cams, both fronts",
        format!(
            "left: {}; right: {}",
            moves(&result.left.setting, false),
            moves(&result.right.setting, false)
        ),
        &["Loosen one bolt at a time and count notches from the paint mark. Knock-out tabs must be out."],
    ));
    let low = input.aim.caster_deg[0];
    out.push(gate(
        "reswept",
        "Settle, re-sweep caster",
        format!("Stop if caster reads under {:.1}° on either side. Call the plan back.", low),
        &["Roll 3 m", "Bounce three times", "Re-sweep caster"],
        &[GateReading::Camber, GateReading::Caster],
    ));
    out.push(step(
        "tie-rods",
        "Tie rods",
        format!("wheel straight and locked; left: {}; right: {}; read toe, then turn the rest", moves(&result.left.setting, true), moves(&result.right.setting, true)),
        &["Mark before turning, count turns. Keep thread engagement; torque the lock nuts to the maker's figures."],
    ));
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
