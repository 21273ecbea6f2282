//! The document of a job: vehicle facts, visits with their readings, plans and what was done of them; the way from those to
//! a plan's base, to tyres, to a sheet with its gates judged, and to one file that is evaluated with no server.

mod aftercare;
mod as_done;
mod askew;
mod base;
mod bench;
mod bundle;
mod corner;
mod expect;
mod facts;
mod first_form;
mod gates;
mod handover;
mod height;
mod lessons;
mod moving;
mod note;
mod own_shape;
mod proved;
mod record;
mod returned;
mod road;
mod settled;
mod stance;
mod trim;
mod turnable;
mod turned;

pub use crate::reading::{Stage, TicketKind};
pub use aftercare::{AfterAct, Aftercare, CarBack, Closed, NextLook, RoadTest, Trim, TrimToDo};
pub use as_done::AsDone;
pub use base::{base_of, tyres_of};
pub use bench::{Asked, HeldAnswer, JobBench, Rules, VisitView, reading_car};
pub use bundle::{BundlePlan, Evaluated, Event, JOB_FORMAT, JobBundle};
pub use corner::{corner_request, planned_corner_file};
pub use facts::{AxleShape, Drive, FACTS_FORMAT, Silhouette, VehicleFacts};
pub use first_form::present_form;
pub use gates::{GateMissing, GateView, Sheet, mark_step, sheet_of};
pub use handover::{BeforeAfter, DoneTold, Handover, HandoverOf, PassedOff, TyreTold, WheelTold};
pub use moving::{MovingAsked, MovingPoint, MovingSaid, Narrower, moving_said};
pub use note::{
    LONGEST_NOTE, MOST_NOTES, MOST_PHOTO_BYTES, MOST_PHOTO_SIDE, MOST_PHOTOS, Note, PhotoSize, note_problems,
};
pub use own_shape::shape_of;
pub use proved::{AngleProved, CameAngle, Placed, Proved, WheelProved, WheelStands};
pub use record::{Done, OpenVisit, Reading, standing};
pub use returned::{AngleBack, Returned, UsualLook};
pub use road::{WheelOrder, WheelStraight};
pub use settled::as_it_settled;
pub use stance::{AxleStance, Stance, stance_at};
pub use trim::{CameToRest, CornerBack, TrimOrder};
pub use turnable::{Turnable, TurnableRequest, TurnableRow, TurnsOn, turnable};
pub use turned::{as_turned_before, loops_of, turned_again, turned_before, turns_of};
