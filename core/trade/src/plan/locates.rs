//! What of a live axle an adjuster turns that is no angle of a wheel: its lower arms one by one square it, its track bar
//! brings it under the middle, its drag link puts the steering wheel straight.

use bold_stance_car::adjuster::{Adjuster, AdjusterKind, ThreadLink};
use bold_stance_kinematics::geometry::Side;

/// The lower arm of a side.
pub(super) fn lower_arm(side: Side) -> &'static str {
    match side {
        Side::Left => "lower_left",
        Side::Right => "lower_right",
    }
}

/// Whether an adjuster is the thread of one lower arm of a live axle: it squares the axle and does nothing else.
pub(crate) fn is_one_arm(a: &Adjuster) -> bool {
    let AdjusterKind::Thread { link: which, .. } = &a.kind else { return false };
    Side::BOTH.into_iter().any(|s| which.word() == lower_arm(s))
}

/// What of an axle an adjuster turns or shifts, by the name of its link or point.
fn turns_named(a: &Adjuster, name: &str) -> bool {
    match &a.kind {
        AdjusterKind::Thread { link: ThreadLink::Named(n), .. } => n == name,
        AdjusterKind::Slide { point, .. } | AdjusterKind::Shims { point, .. } => point.word() == name,
        _ => false,
    }
}

/// Whether it brings a live axle under the middle.
pub(crate) fn is_track_bar(a: &Adjuster) -> bool {
    turns_named(a, "track_bar")
}

/// Whether it puts the steering wheel straight.
pub(crate) fn is_drag_link(a: &Adjuster) -> bool {
    turns_named(a, "drag_link")
}

/// What a shared adjuster does on a live axle besides caster.
pub(crate) fn locates_only(a: &Adjuster) -> bool {
    // One lower arm alone squares the axle (`square`).
    is_one_arm(a) || is_track_bar(a) || is_drag_link(a)
}
