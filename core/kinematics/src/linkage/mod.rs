//! Any layout posed: which loop stops, where the wheel is, what is drawn; and what is asked of a whole geometry.

mod as_drawn;
mod bar;
mod closing;
mod corner;
mod usable;

pub use crate::edit::Arm;
pub use crate::layout::{
    AxlePose, FiveLinkCorner, HingeCorner, SolidAxleCorner, StrutCorner, WishboneCorner,
};
pub use as_drawn::{problems, read_geometry};
pub use bar::{Bar, BarKind};
pub use closing::{Linkage, Loop, Unreachable};
pub use corner::Corner;
pub use usable::{steering_problem, travel_problems};
