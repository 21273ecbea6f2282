//! The ordered work steps of a car's setting, the gates between them, and the cautions at each.

mod build;
mod gate;
mod ids;
mod record;
mod step;

pub use build::{job_cautions, sheet};
pub(crate) use gate::HEIGHT_MM;
pub use gate::{
    CarRead, Expectation, GateAbout, GateFinding, GateRead, GateSide, Held, TOE_SET_BAND_DEG, fouls, held,
    judge, judge_gate,
};
pub use ids::{Mark, StepId, Tick, UnknownStep};
pub use record::{AsTurned, CouldNot, DoneRecord, OrderedLine, Round, record_of};
pub use step::{GateNeed, GateReading, SheetStep, StepHeight, StepKind, TickLine};
