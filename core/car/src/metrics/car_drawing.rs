//! Both axles over the ground, to scale, at heights and a turn of the steering.

use super::steering::rack_for_lock;
use crate::draw::{Drawing, draw_steered};
use crate::vehicle::{Attitude, Axles, Car, Gains};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Bar, Corner, Linkage, Unreachable};
use bold_stance_kinematics::wheel::WheelState;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::Said;
use serde::{Deserialize, Serialize};

/// What is asked.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CarDrawingRequest {
    /// The car.
    pub car: Car,
    /// Body heights over design, mm.
    #[serde(default)]
    pub gains: Gains,
    /// Turn of the inner front wheel, degrees, left positive.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = -60.0, maximum = 60.0))]
    pub turn_deg: f64,
}

/// One corner of the drawing, in vehicle axes over the ground (y left positive on both sides).
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CornerDrawing {
    /// Front or rear.
    pub axle: Axle,
    /// Left or right.
    pub side: Side,
    /// What is drawn; none past the travel.
    pub drawing: Option<Drawing>,
    /// Angles relative to the ground, straight ahead or turned as asked.
    pub wheel: Option<WheelState>,
    /// Why nothing is drawn.
    pub stops: Option<Said>,
    /// Lowest and highest body gain the linkage allows, mm over design.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub gain_range_mm: [f64; 2],
}

/// Both axles.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CarDrawing {
    /// Left front, right front, left rear, right rear; rear only when it is known.
    pub corners: Vec<CornerDrawing>,
    /// Degrees, nose up positive.
    pub pitch_deg: f64,
    /// Degrees, left side up positive.
    pub roll_deg: f64,
    /// Front axle to rear axle, mm.
    pub wheelbase_mm: f64,
    /// What is worth knowing about the files.
    pub remarks: Vec<Said>,
}

fn flip(p: [f64; 3]) -> [f64; 3] {
    [p[0], -p[1], p[2]]
}

fn mirrored(d: Drawing) -> Drawing {
    Drawing {
        bars: d.bars.into_iter().map(|b| Bar { from: flip(b.from), to: flip(b.to), ..b }).collect(),
        centre: flip(d.centre),
        spin: flip(d.spin),
        contact: flip(d.contact),
        axis: d.axis.map(|a| a.map(flip)),
        pierce: d.pierce.map(flip),
        loaded_radius_mm: d.loaded_radius_mm,
    }
}

/// A steered axle without a tie rod in its file still turns about its kingpins.
fn turned(c: &Corner, d: &mut Drawing, travel: f64, turn: f64, attitude: Attitude) {
    let Ok(p) = c.pose(travel, 0.0) else { return };
    let q = attitude.apply(&p.turned_to(turn));
    let p = attitude.apply(&p);
    let shift = bold_stance_kinematics::Vec3::from(d.centre) - p.centre;
    d.centre = (q.centre + shift).into();
    d.spin = q.spin.into();
    let contact = bold_stance_kinematics::wheel::contact_point(&q.centre, &q.spin, c.loaded_radius());
    d.contact = (contact + shift).into();
}

/// Draws the car.
///
/// # Errors
/// Every [`Problem`] of the document.
pub fn car_drawing(r: &CarDrawingRequest) -> Result<CarDrawing, Vec<Problem>> {
    let mut problems: Vec<Problem> = r
        .car
        .problems()
        .into_iter()
        .map(|mut p| {
            p.field = format!("car.{}", p.field);
            p
        })
        .collect();
    for (f, v) in [
        ("left_front", r.gains.left_front),
        ("right_front", r.gains.right_front),
        ("left_rear", r.gains.left_rear),
        ("right_rear", r.gains.right_rear),
    ] {
        problems.extend(in_range(&format!("gains.{f}"), v, -400.0, 400.0, "mm").err());
    }
    problems.extend(in_range("turn_deg", r.turn_deg, -60.0, 60.0, "°").err());
    if !problems.is_empty() {
        return Err(problems);
    }
    let car = &r.car;
    let corners = car.corners();
    let (attitude, _) = car.attitude(&r.gains, Axles::default());
    let turn_left = r.turn_deg >= 0.0;
    let inner = if turn_left { Side::Left } else { Side::Right };
    let travel = |a, s| -r.gains.at(a, s);
    // The rack that turns the inner wheel as asked, in vehicle axes (+y).
    let rack = corners
        .iter()
        .find(|(a, s, _)| *a == Axle::Front && *s == inner)
        .filter(|_| r.turn_deg != 0.0)
        .and_then(|(a, s, c)| rack_for_lock(c, travel(*a, *s), r.turn_deg.abs()))
        .map(|rack| if turn_left { rack } else { -rack });
    let drawn = corners
        .iter()
        .map(|(axle, side, c)| {
            let own = match (axle, side) {
                (Axle::Front, Side::Left) => rack.unwrap_or(0.0),
                (Axle::Front, Side::Right) => -rack.unwrap_or(0.0),
                (Axle::Rear, _) => 0.0,
            };
            let t = travel(*axle, *side);
            let seen = if *side == Side::Left { attitude } else { attitude.other_side() };
            let got = draw_steered(c, t, own, seen).map(|mut d| {
                let kingpin_only = *axle == Axle::Front && rack.is_none() && r.turn_deg != 0.0;
                if kingpin_only && d.axis.is_some() {
                    let toe_in = if *side == Side::Left { -r.turn_deg } else { r.turn_deg };
                    turned(c, &mut d, t, toe_in.to_radians(), seen);
                }
                // A whole axle is drawn once, with its left wheel.
                if *side == Side::Right && matches!(c, Corner::Axle(_)) {
                    d.bars.clear();
                }
                if *side == Side::Left { d } else { mirrored(d) }
            });
            let wheel = c.pose(t, own).ok().map(|p| seen.apply(&p).wheel(c.loaded_radius(), c.design_x()));
            let [low, high] = c.travel_range(250.0);
            CornerDrawing {
                axle: *axle,
                side: *side,
                wheel,
                stops: got.as_ref().err().map(Unreachable::says),
                drawing: got.ok(),
                gain_range_mm: [-high, -low],
            }
        })
        .collect();
    let mut remarks = car.front.remarks();
    remarks.extend(car.rear.iter().flat_map(bold_stance_kinematics::geometry::Geometry::remarks));
    Ok(CarDrawing {
        corners: drawn,
        pitch_deg: attitude.pitch.to_degrees(),
        roll_deg: attitude.roll.to_degrees(),
        wheelbase_mm: car.wheelbase_mm,
        remarks,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::archetype::shipped_archetypes;
    use crate::vehicle::CarFacts;

    fn car(front: &str, rear: &str) -> Car {
        let all = shipped_archetypes().unwrap();
        let get = |id: &str| all.iter().find(|a| a.id == id).unwrap().geometry.clone();
        Car { front: get(front), rear: Some(get(rear)), wheelbase_mm: 2900.0, facts: CarFacts::default() }
    }

    #[test]
    fn every_tyre_stands_on_the_ground_at_any_height_and_turn() {
        for (f, b) in [
            ("half_ton_front", "leaf_rear"),
            ("live_front", "triangulated_rear"),
            ("crossover_front", "twist_beam_rear"),
        ] {
            for turn_deg in [-25.0, 0.0, 25.0] {
                let r = CarDrawingRequest { car: car(f, b), gains: Gains::level(45.0, -20.0), turn_deg };
                let d = car_drawing(&r).unwrap();
                assert_eq!(d.corners.len(), 4);
                for c in &d.corners {
                    let drawing = c.drawing.as_ref().unwrap();
                    assert!(
                        drawing.contact[2].abs() < if turn_deg == 0.0 { 1e-6 } else { 12.0 },
                        "{f} {b}: {:?}",
                        drawing.contact
                    );
                    assert_eq!(drawing.centre[1] > 0.0, c.side == Side::Left);
                }
            }
        }
    }

    #[test]
    fn turning_left_turns_both_front_wheels_left() {
        for f in ["half_ton_front", "compact_strut_front", "live_front"] {
            let r = CarDrawingRequest { car: car(f, "leaf_rear"), gains: Gains::default(), turn_deg: 20.0 };
            let d = car_drawing(&r).unwrap();
            // Spin axes point outboard: turned left, the left one swings rearward and the right one forward.
            let x = |i: usize| d.corners[i].drawing.as_ref().unwrap().spin[0];
            assert!(x(0) < -0.25 && x(1) > 0.2, "{f}: {} {}", x(0), x(1));
        }
    }
}
