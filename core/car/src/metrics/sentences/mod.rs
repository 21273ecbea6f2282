//! The quantities of the corner file and what each means for the job. Usual ranges are common practice, no
//! source; they are there to make somebody look, not to pass or fail a car.

mod car;
mod live;
mod one_axle;
mod steering;

use super::axle::AxleMetrics;
use super::live_axle::LivePoint;
use super::page::{Area, CornerQuantity, StateRow};
use crate::vehicle::{Car, Gains, Sides};
use bold_stance_kinematics::geometry::Axle;
use bold_stance_units::said::{Said, said};

pub(super) struct Input<'a> {
    pub car: &'a Car,
    pub front: &'a AxleMetrics,
    pub front_planned: Option<&'a AxleMetrics>,
    pub rear: Option<&'a AxleMetrics>,
    pub rear_planned: Option<&'a AxleMetrics>,
    pub live: &'a [LivePoint],
    pub live_axle: Axle,
    pub rows: &'a [StateRow],
    pub arrived: Gains,
    pub planned: Option<Gains>,
    /// How far the axle has to go to the left to stand central, as read, mm.
    pub axle_offset_mm: Option<f64>,
    /// Hub to hub as read, left and right, mm.
    pub wheelbases_mm: Option<Sides<f64>>,
    /// Whether the rear wheels were read.
    pub rear_was_read: bool,
}

struct Put<'a> {
    area: Area,
    id: &'a str,
    label: Said,
    unit: &'a str,
    digits: u8,
    usual: [f64; 2],
}

type Values = (Option<f64>, Option<f64>);

fn add(
    out: &mut Vec<CornerQuantity>,
    put: Put<'_>,
    v: Values,
    say: impl Fn(f64, f64) -> (Said, &'static str),
) {
    let (Some(arrived), planned) = v else { return };
    let value = planned.unwrap_or(arrived);
    if !value.is_finite() || !arrived.is_finite() {
        return;
    }
    let outside = value < put.usual[0] || value > put.usual[1];
    let (means, caution) = say(arrived, value);
    out.push(CornerQuantity {
        id: put.id.into(),
        area: put.area,
        label: put.label,
        unit: put.unit.into(),
        digits: put.digits,
        arrived,
        planned,
        usual: put.usual,
        outside,
        means,
        caution: outside.then(|| said(caution)),
    });
}

fn both<'a>(
    now: &'a AxleMetrics,
    then: Option<&'a AxleMetrics>,
    f: impl Fn(&'a AxleMetrics) -> Option<f64>,
) -> Values {
    (f(now), then.and_then(f))
}

/// Whether it goes up, down or stays.
fn moved(
    from: f64,
    to: f64,
    small: f64,
    up: &'static str,
    down: &'static str,
    same: &'static str,
) -> &'static str {
    if to > from + small {
        up
    } else if to < from - small {
        down
    } else {
        same
    }
}

pub(super) fn quantities(i: &Input<'_>) -> Vec<CornerQuantity> {
    let mut out = Vec::with_capacity(32);
    one_axle::axle(i, &mut out, Axle::Front);
    steering::steering(i, &mut out);
    one_axle::axle(i, &mut out, Axle::Rear);
    live::live(i, &mut out);
    car::car(i, &mut out);
    out
}
