//! Whole-car quantities: roll centre, camber gain, bump steer, Ackermann, full lock, anti-dive and the rest,
//! each from the exact model; curves over height and steering; construction aids for fabricated arms.

mod aids;
mod as_read;
mod axle;
mod car_drawing;
mod corner_file;
mod curves;
mod live_axle;
mod motion;
mod page;
mod sentences;
mod steering;

pub use aids::{AckermannAid, Aids, PivotAid, TieRodAid, ackermann_aid, aids, tie_rod_aid, upper_pivot_aid};
pub use axle::{AxleMetrics, BodyFacts, JointSwing, ShaftAngles, axle_metrics};
pub use car_drawing::{CarDrawing, CarDrawingRequest, CornerDrawing, car_drawing};
pub use corner_file::{AID_TRAVEL_MM, CornerFile, corner_file};
pub use curves::{AxleCurves, HeightPoint, SteerPoint, axle_curves, steer_curve};
pub use live_axle::{LivePoint, live_axle_curve};
pub use motion::{Motion, RollCentre, motion, roll_centre};
pub use page::{Area, CornerFileRequest, CornerQuantity, StateRow, StateWheel, WheelRead};
pub use steering::{FullLock, Steering, full_lock, rack_for_lock, steering};
