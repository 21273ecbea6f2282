//! Aims, the setting solver, reach, and the whole Plan answer.

mod aim;
mod answer;
mod curves;
mod input;
mod reach;
mod settings_case;
mod solver;
mod words;

pub use aim::{Aim, Window, shipped_aims};
pub use answer::{Candidate, CandidateStatus, Effect, PlanResult, SidePlan, Stop, Verdict, plan};
pub use curves::{CurvePoint, Drawing, draw, draw_steered};
pub use input::{PlanInput, SideReadings};
pub use reach::{Reach, reach};
pub use settings_case::{SettingsCase, SettingsError, SettingsResult, run_settings};
pub use solver::{Bench, Sensitivity, SettingLine, Shortfall, SolvedSetting, pair, solve};
