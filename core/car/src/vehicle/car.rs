//! The whole car: both axles, what it stands on, and every wheel at four heights.

use super::{Attitude, Axles, CarFacts};
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::{self, Corner, Linkage, Unreachable};
use bold_stance_kinematics::wheel::WheelState;
use bold_stance_units::problem::{Problem, in_range};
use serde::{Deserialize, Serialize};

/// Thrust that a driver sees at the steering wheel, degrees (common practice, no source).
pub const THRUST_SEEN_DEG: f64 = 0.15;

/// The car as geometry.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Car {
    /// Front axle.
    pub front: Geometry,
    /// Rear axle, when it is known.
    #[serde(default)]
    pub rear: Option<Geometry>,
    /// Axle to axle, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 1000.0, maximum = 8000.0))]
    pub wheelbase_mm: f64,
    /// The rest.
    #[serde(default)]
    pub facts: CarFacts,
}

/// Body heights over the wheels against design (hub to arch, higher positive), mm.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Gains {
    /// Left front.
    pub left_front: f64,
    /// Right front.
    pub right_front: f64,
    /// Left rear.
    pub left_rear: f64,
    /// Right rear.
    pub right_rear: f64,
}

impl Gains {
    /// The same gain on both sides of each axle.
    #[must_use]
    pub fn level(front: f64, rear: f64) -> Self {
        Self { left_front: front, right_front: front, left_rear: rear, right_rear: rear }
    }

    /// Gain at a corner, mm.
    #[must_use]
    pub fn at(&self, axle: Axle, side: Side) -> f64 {
        match (axle, side) {
            (Axle::Front, Side::Left) => self.left_front,
            (Axle::Front, Side::Right) => self.right_front,
            (Axle::Rear, Side::Left) => self.left_rear,
            (Axle::Rear, Side::Right) => self.right_rear,
        }
    }

    /// Sum of two changes.
    #[must_use]
    pub fn plus(&self, o: &Self) -> Self {
        Self {
            left_front: self.left_front + o.left_front,
            right_front: self.right_front + o.right_front,
            left_rear: self.left_rear + o.left_rear,
            right_rear: self.right_rear + o.right_rear,
        }
    }
}

/// One wheel relative to the ground.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WheelOnGround {
    /// Front or rear.
    pub axle: Axle,
    /// Left or right.
    pub side: Side,
    /// Travel from design, mm, bump positive.
    pub travel_mm: f64,
    /// Angles, when the linkage reaches.
    pub wheel: Option<WheelState>,
    /// Why it does not.
    pub stops: Option<Unreachable>,
}

/// The car at four heights.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CarState {
    /// Degrees, nose up positive.
    pub pitch_deg: f64,
    /// Degrees, left side up positive, mean of both axles.
    pub roll_deg: f64,
    /// Difference of roll between the axles, degrees: the four heights do not lie in one plane.
    pub warp_deg: f64,
    /// Left front, right front, left rear, right rear; rear only when its geometry is known.
    pub wheels: Vec<WheelOnGround>,
    /// Front total toe, degrees.
    pub front_toe_deg: Option<f64>,
    /// Rear total toe, degrees.
    pub rear_toe_deg: Option<f64>,
    /// Direction of the rear axle, degrees, positive to the right of the centre line.
    pub thrust_deg: Option<f64>,
    /// Contact to contact, mm.
    pub front_track_mm: Option<f64>,
    /// Contact to contact, mm.
    pub rear_track_mm: Option<f64>,
    /// Wheelbase on the left, mm.
    pub wheelbase_left_mm: f64,
    /// Wheelbase on the right, mm.
    pub wheelbase_right_mm: f64,
}

impl Car {
    /// Everything wrong with the document, by field.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let under = |at: &str, list: Vec<Problem>| {
            let at = at.to_owned();
            list.into_iter().map(move |mut p| {
                p.field = format!("{at}.{}", p.field);
                p
            })
        };
        let mut out: Vec<Problem> = under("front", linkage::problems(&self.front)).collect();
        if let Some(r) = &self.rear {
            out.extend(under("rear", linkage::problems(r)));
        }
        out.extend(in_range("wheelbase_mm", self.wheelbase_mm, 1000.0, 8000.0, "mm").err());
        out.extend(self.facts.problems("facts."));
        out
    }

    /// Geometry of an axle, when it is known.
    #[must_use]
    pub fn axle(&self, axle: Axle) -> Option<&Geometry> {
        match axle {
            Axle::Front => Some(&self.front),
            Axle::Rear => self.rear.as_ref(),
        }
    }

    /// Every known corner, in the order of [`CarState::wheels`].
    #[must_use]
    pub fn corners(&self) -> Vec<(Axle, Side, Corner)> {
        [Axle::Front, Axle::Rear]
            .into_iter()
            .filter_map(|a| self.axle(a).map(|g| (a, g)))
            .flat_map(|(a, g)| Side::BOTH.into_iter().map(move |s| (a, s, Corner::of(g, s))))
            .collect()
    }

    /// Pitch and roll of the body at heights, and the difference of roll between the axles (rad). `tyres`
    /// are the loaded radii gained in front and at the rear, mm: they lift the axles, not the suspension.
    #[must_use]
    pub fn attitude(&self, g: &Gains, tyres: Axles<f64>) -> (Attitude, f64) {
        let track = |a: Axle| self.axle(a).map_or(1500.0, |x| 2.0 * x.wheel.center[1].max(200.0));
        let front = ((g.left_front - g.right_front) / track(Axle::Front)).atan();
        let rear = ((g.left_rear - g.right_rear) / track(Axle::Rear)).atan();
        let mean = |a: f64, b: f64| f64::midpoint(a, b);
        let mut a = Attitude::from_rises(
            mean(g.left_front, g.right_front) + tyres.front,
            mean(g.left_rear, g.right_rear) + tyres.rear,
            self.wheelbase_mm,
        );
        a.roll = mean(front, rear);
        (a, front - rear)
    }

    /// Every wheel over the ground at four heights, straight ahead, relative to the ground; `tyres` as for
    /// [`Car::attitude`].
    #[must_use]
    pub fn state(&self, corners: &[(Axle, Side, Corner)], gains: &Gains, tyres: Axles<f64>) -> CarState {
        self.state_on_frame(corners, gains, tyres, Axles::default())
    }

    /// The same with a body that stands so much higher on its frame, front and rear, mm.
    #[must_use]
    pub fn state_on_frame(
        &self,
        corners: &[(Axle, Side, Corner)],
        gains: &Gains,
        tyres: Axles<f64>,
        body_mm: Axles<f64>,
    ) -> CarState {
        let (attitude, warp) = self.attitude(gains, tyres);
        let wheels: Vec<WheelOnGround> = corners
            .iter()
            .map(|(axle, side, c)| {
                let lifted = body_mm[*axle];
                let own = lifted - gains.at(*axle, *side);
                let seen = if *side == Side::Left { attitude } else { attitude.other_side() };
                // A solid axle stays level on its tyres: it hangs at the mean of both sides, and the body
                // leans over it.
                let (travel, posed) = match c {
                    Corner::Axle(a) => {
                        let other = if *side == Side::Left { Side::Right } else { Side::Left };
                        let mean = f64::midpoint(own, lifted - gains.at(*axle, other));
                        (mean, a.axle_pose(mean, -seen.roll).map(|p| a.left_wheel(&p)))
                    }
                    _ => (own, c.pose(own, 0.0)),
                };
                let radius = c.loaded_radius() + tyres[*axle];
                let wheel = posed.as_ref().ok().map(|p| seen.apply(p).wheel(radius, c.design_x()));
                WheelOnGround { axle: *axle, side: *side, travel_mm: travel, wheel, stops: posed.err() }
            })
            .collect();
        let get = |axle, side| wheels.iter().find(|w| w.axle == axle && w.side == side).and_then(|w| w.wheel);
        let sum = |axle, f: &dyn Fn(&WheelState) -> f64| {
            Some(f(&get(axle, Side::Left)?) + f(&get(axle, Side::Right)?))
        };
        let base = |side| {
            let x = |axle| get(axle, side).map_or(0.0, |w: WheelState| w.wheel_x_mm);
            self.wheelbase_mm + x(Axle::Front) - x(Axle::Rear)
        };
        let thrust = get(Axle::Rear, Side::Left)
            .zip(get(Axle::Rear, Side::Right))
            .map(|(l, r)| 0.5 * (l.toe_deg - r.toe_deg));
        CarState {
            pitch_deg: attitude.pitch.to_degrees(),
            roll_deg: attitude.roll.to_degrees(),
            warp_deg: warp.to_degrees(),
            front_toe_deg: sum(Axle::Front, &|w| w.toe_deg),
            rear_toe_deg: sum(Axle::Rear, &|w| w.toe_deg),
            thrust_deg: thrust,
            front_track_mm: sum(Axle::Front, &|w| w.half_track_mm),
            rear_track_mm: sum(Axle::Rear, &|w| w.half_track_mm),
            wheelbase_left_mm: base(Side::Left),
            wheelbase_right_mm: base(Side::Right),
            wheels,
        }
    }
}
