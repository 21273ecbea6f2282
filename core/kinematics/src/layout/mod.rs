//! One file per layout: its points, how they are read and written, what can be wrong with them, what can be moved on it,
//! where the wheel is, what an edit does, how it is drawn. [`LayoutPoints`] and [`LayoutCorner`] are all a layout is.

mod arm;
mod arm_driven;
mod double_wishbone;
mod five_link;
mod hinge;
mod linear;
mod solid_axle;
mod strut;
mod tape;

pub use double_wishbone::{WishboneCorner, WishbonePoints};
pub use five_link::{FiveLinkCorner, FiveLinkPoints, Rod};
pub use hinge::{ArmPoints, BeamPoints, HingeCorner};
pub use solid_axle::{AxleLink, AxlePoints, AxlePose, SolidAxleCorner};
pub use strut::{StrutCorner, StrutPoints};
pub use tape::Measure;

use crate::Vec3;
use crate::edit::{Arm, EccentricPoint, Edit, JointPoint};
use crate::geometry::basics::{Point, WheelAtDesign};
use crate::geometry::parts::FileParts;
use crate::geometry::say::Say;
use crate::linkage::{Bar, Linkage, Loop, Unreachable};
use crate::wheel::Pose;
use bold_stance_units::problem::Problem;

/// What can be moved, lengthened or turned on a layout with the points it has, by the words of a file. What is not here is
/// refused.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct OnIt {
    /// Pivots on the body that can be moved.
    pub pivots: Vec<String>,
    /// What the inner joint of the tie rod is called among them.
    pub tie_pivot: &'static str,
    /// Links that go by a name.
    pub links: Vec<String>,
    /// What a thread can lengthen.
    pub threads: Vec<String>,
    /// Joints that can be moved against the knuckle.
    pub joints: Vec<JointPoint>,
    /// Arms of three points, which can be exchanged.
    pub arms: Vec<Arm>,
    /// Whether the knuckle is clamped to a strut.
    pub clamp: bool,
    /// Whether it has a kingpin that leans with the axle.
    pub kingpin: bool,
    /// Whether that kingpin's upper joint can be offset: a live axle that steers.
    pub axle_end: bool,
    /// Whether an arm has one length for both of its links.
    pub one_length: bool,
}

/// Words as a list of pivots or threads.
pub(crate) fn words(list: &[&str]) -> Vec<String> {
    list.iter().map(|w| (*w).to_owned()).collect()
}

/// Paths of points by their names, with the part each belongs to.
pub(crate) fn paths(list: &[(&str, u8)]) -> Vec<(String, u8)> {
    list.iter().map(|(n, g)| (format!("points.{n}"), *g)).collect()
}

/// The points of a layout.
pub(crate) trait LayoutPoints: Sized {
    /// Every point, always in the same order.
    fn all_mut(&mut self) -> Vec<&mut Point>;

    /// Path of each point in the file and the part it belongs to, in the order of [`LayoutPoints::all_mut`].
    fn names(&self) -> Vec<(String, u8)>;

    /// Reads them; `at` is put before every field.
    ///
    /// # Errors
    /// A [`Problem`] at what is missing, unknown or of another layout.
    fn read(at: &str, f: FileParts) -> Result<Self, Problem>;

    /// Writes them as they are read.
    fn write(&self) -> FileParts;

    /// Ranges of what is no point.
    fn ranges(&self) -> Vec<Result<(), Problem>> {
        Vec::new()
    }

    /// What is wrong with them that can be seen without moving them.
    fn faults(&self, wheel: &WheelAtDesign, say: &mut Say<'_>);

    /// The point of a loop that is the likeliest to be typed wrong.
    fn likeliest(&self, blocked: Loop) -> &'static str;

    /// Left and right change places, on a layout that holds both.
    fn swap_sides(&mut self) {}

    /// What can be moved, lengthened or turned.
    fn on_it(&self) -> OnIt;

    /// Whether the wheel hangs on a knuckle that another one can take the place of.
    const KNUCKLE: bool;

    /// Every pivot that comes down with brackets or a subframe.
    fn bracket(&self) -> Vec<EccentricPoint>;

    /// What a tape or a level reads on it, mm or degrees; none where it has no such part.
    fn taped(&self, what: Measure, wheel: &WheelAtDesign) -> Option<f64>;

    /// Inner and outer joint of a tie rod that moves in the plane of its wheel: construction aids are made for it.
    fn tie_rod(&mut self) -> Option<[&mut Point; 2]> {
        None
    }

    /// Height of the steering axis between the points a caster correction moves, mm.
    fn axis_height(&self) -> f64 {
        1.0
    }

    /// Moves the upper end of the steering axis by `shift` mm forward; a kingpin leans by `lean_deg` instead.
    fn lean_axis(&mut self, _shift: f64, _lean_deg: f64) {}
}

/// One corner of a layout, beside its pose.
pub(crate) trait LayoutCorner: Linkage {
    /// Turns the spin axis: radians of camber and toe. Nothing else moves.
    fn turn_spin(&mut self, camber: f64, toe: f64);

    /// Another tyre: wheel centre over the ground, mm.
    fn set_loaded_radius(&mut self, mm: f64);

    /// Renews what is worked out from the points.
    fn refresh(&mut self) {}

    /// Makes one edit. What this layout has not was refused before ([`OnIt`]); here it changes nothing.
    fn edit(&mut self, e: &Edit);

    /// Body ends of an upper arm that a spring bucket or frame can stand in the way of.
    fn upper_pivots(&self) -> Option<[Vec3; 2]> {
        None
    }

    /// Where a strut meets its knuckle in a pose, on a layout that has one beside its tyre.
    fn strut_foot(&self, _pose: &Pose) -> Option<Vec3> {
        None
    }

    /// The pose and every bar of it, in vehicle axes.
    ///
    /// # Errors
    /// As [`Linkage::pose`].
    fn bars(&self, travel: f64, rack: f64) -> Result<(Pose, Vec<Bar>), Unreachable>;
}
