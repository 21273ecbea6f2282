//! What was typed at the gauge → a value with its standard deviation, corrected for how the car stood, and
//! what looks odd about it.

mod axle;
mod by_marks;
mod camber;
mod caster;
mod convert;
mod counted;
mod entries;
mod method;
mod picture;
mod prepare;
mod quantity;
mod raw;
mod scene;
mod sheet_window;
mod suspicion;
mod table;
mod take;
mod ticket;
mod toe;
mod wheel;

pub use caster::{Turned, axis_from_sweep};
pub use convert::{DoubtPart, doubt_parts, together, value};
pub use counted::{Counted, Looked, counted};
pub use entries::{Given, HALF_TURN, RawEntry, Repeats, parse_entries};
pub use method::{CarFact, EntryInfo, EntryKind, Method, MethodInfo, shipped_methods};
pub use picture::{Derived, Figure, Group, OrderItem, Picture, picture};
pub use prepare::{Answers, PrepareItem, PrepareKind, Prepared, Widens, answers_of_day, shipped_prepare};
pub use quantity::{Place, Quantity, ReadAxle, ReadSide, Spot, Unit, Visit};
pub use raw::{Also, CORRECTION_VERSION, Correction, CorrectionKind, Known, Raw, SweptCar};
pub use scene::{Change, ChangeKind, Expected, Scene, Seen, heights_of, taped_heights_of, toe_of};
pub use sheet_window::{SheetWindow, sheet_window};
pub use suspicion::{Rule, Suspicion, stale_because, suspicions};
pub use table::{COLUMNS, MOST_ROWS, NEEDED, Row, read_table, write_table};
pub use take::{
    AgainstAim, Heights, JACKED_RULE_DEG, Jack, ROLL_M, ReadingCar, Take, Taken, corner_index, take, words,
};
pub use ticket::{Stage, TicketKind, TicketOffer, Wanted};
pub use wheel::{FLANGE_MM, lip_circle_mm};
