//! A triangular arm as the two distances from its pivots to its joint.

use crate::Vec3;

/// Unit pivot axis, distance of the joint along it from the front pivot, and off it; `None` when the three
/// sides form no triangle.
pub(super) fn seat(pivots: &[Vec3; 2], links: [f64; 2]) -> Option<(Vec3, f64, f64)> {
    let span = pivots[1] - pivots[0];
    let length = span.norm();
    let along = (links[0] * links[0] - links[1] * links[1] + length * length) / (2.0 * length);
    let square = links[0] * links[0] - along * along;
    (length > 1.0 && square > 1.0).then(|| (span / length, along, square.sqrt()))
}

/// Distances of a joint from both pivots.
pub(super) fn links_of(pivots: &[Vec3; 2], joint: &Vec3) -> [f64; 2] {
    [(joint - pivots[0]).norm(), (joint - pivots[1]).norm()]
}

/// The distances of another arm: its joint `longer` mm farther off the pivot axis and `forward` mm along it.
/// An arm that forms no triangle stays none.
pub(super) fn reshaped(pivots: &[Vec3; 2], links: [f64; 2], longer: f64, forward: f64) -> [f64; 2] {
    let Some((_, along, off)) = seat(pivots, links) else { return [0.0, 0.0] };
    let span = (pivots[1] - pivots[0]).norm();
    let (a, r) = (along - forward, off + longer);
    [a.hypot(r), (span - a).hypot(r)]
}
