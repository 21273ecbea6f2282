//! The whole car: both axles, what it stands on, and every wheel at four heights.

use super::Limits;
use super::WearFacts;
use super::springs::Spring;
use super::{Attitude, states::AirLevel, states::Payload, states::TurnRecord};
use crate::adjuster::{Adjuster, adjuster_problems};
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::{self, Corner, Linkage, Unreachable};
use bold_stance_kinematics::wheel::WheelState;
use bold_stance_units::problem::{Problem, in_range};
use serde::{Deserialize, Serialize};

/// Facts of the whole car that no single axle holds. Every one has a usual value (common practice, no
/// source) and can be overwritten.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct CarFacts {
    /// Centre of gravity over the ground, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 150.0, maximum = 2000.0))]
    pub cg_height_mm: f64,
    /// Share of braking done by the front axle, 0 to 1.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 1.0))]
    pub brake_front_share: f64,
    /// Turns of the steering wheel per turn of the road wheels.
    #[cfg_attr(feature = "openapi", schema(minimum = 5.0, maximum = 40.0))]
    pub steering_ratio: f64,
    /// Largest turn of the inner front wheel, degrees.
    #[cfg_attr(feature = "openapi", schema(minimum = 5.0, maximum = 60.0))]
    pub lock_deg: f64,
    /// Tyre section width, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 80.0, maximum = 600.0))]
    pub tyre_width_mm: f64,
    /// Load of one rear wheel, N.
    #[cfg_attr(feature = "openapi", schema(minimum = 300.0, maximum = 60_000.0))]
    pub rear_load_n: f64,
    /// Load of one front wheel, N.
    #[cfg_attr(feature = "openapi", schema(minimum = 300.0, maximum = 60_000.0))]
    pub front_load_n: f64,
    /// Front springs.
    pub front_spring: Option<Spring>,
    /// Rear springs.
    pub rear_spring: Option<Spring>,
    /// Usual payload.
    pub payload: Option<Payload>,
    /// Height expected to be lost as new springs and bushings settle, rear, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 60.0))]
    pub rear_settle_mm: f64,
    /// Loaded radius gained by the planned front tyres over those the points were taken on, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = -200.0, maximum = 200.0))]
    pub front_tyre_gain_mm: f64,
    /// The same at the rear.
    #[cfg_attr(feature = "openapi", schema(minimum = -200.0, maximum = 200.0))]
    pub rear_tyre_gain_mm: f64,
    /// Heights of an air suspension.
    pub levels: Vec<AirLevel>,
    /// Turns of a torsion bolt or collar and the settled height that came of them.
    pub turns: Vec<TurnRecord>,
    /// Inner joint of the front drive shaft, left side, mm; none on an undriven axle.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub front_shaft_inner: Option<[f64; 3]>,
    /// Inner joint of the rear drive shaft, left side, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub rear_shaft_inner: Option<[f64; 3]>,
    /// What the front axle's joints, travel and clearances allow.
    #[serde(deserialize_with = "bold_stance_units::problem::from_object")]
    pub limits: Limits,
    /// The same of the rear axle.
    #[serde(deserialize_with = "bold_stance_units::problem::from_object")]
    pub rear_limits: Limits,
    /// What can be turned at each rear wheel.
    pub rear_adjusters: Vec<Adjuster>,
    /// What is told of the tyres beside size and compound.
    pub wear: WearFacts,
}

impl Default for CarFacts {
    fn default() -> Self {
        Self {
            cg_height_mm: 620.0,
            brake_front_share: 0.65,
            steering_ratio: 16.0,
            lock_deg: 35.0,
            tyre_width_mm: 265.0,
            rear_load_n: 5000.0,
            front_load_n: 6000.0,
            front_spring: None,
            rear_spring: None,
            payload: None,
            rear_settle_mm: 0.0,
            front_tyre_gain_mm: 0.0,
            rear_tyre_gain_mm: 0.0,
            levels: Vec::new(),
            turns: Vec::new(),
            front_shaft_inner: None,
            rear_shaft_inner: None,
            limits: Limits::default(),
            rear_limits: Limits::default(),
            rear_adjusters: Vec::new(),
            wear: WearFacts::default(),
        }
    }
}

impl CarFacts {
    /// Everything out of range, by field under `at`.
    #[must_use]
    pub fn problems(&self, at: &str) -> Vec<Problem> {
        let mut out = Vec::new();
        let mut check = |f: &str, v: f64, low: f64, high: f64, unit: &str| {
            out.extend(in_range(&format!("{at}{f}"), v, low, high, unit).err());
        };
        check("cg_height_mm", self.cg_height_mm, 150.0, 2000.0, "mm");
        check("brake_front_share", self.brake_front_share, 0.0, 1.0, "of the braking");
        check("steering_ratio", self.steering_ratio, 5.0, 40.0, "to one");
        check("lock_deg", self.lock_deg, 5.0, 60.0, "°");
        check("tyre_width_mm", self.tyre_width_mm, 80.0, 600.0, "mm");
        check("rear_load_n", self.rear_load_n, 300.0, 60_000.0, "N");
        check("front_load_n", self.front_load_n, 300.0, 60_000.0, "N");
        check("rear_settle_mm", self.rear_settle_mm, 0.0, 60.0, "mm");
        check("front_tyre_gain_mm", self.front_tyre_gain_mm, -200.0, 200.0, "mm");
        check("rear_tyre_gain_mm", self.rear_tyre_gain_mm, -200.0, 200.0, "mm");
        for (name, spring) in [("front_spring", &self.front_spring), ("rear_spring", &self.rear_spring)] {
            if let Some(s) = spring {
                check(&format!("{name}.rate_n_mm"), s.rate_n_mm, 1.0, 2000.0, "N/mm");
                check(&format!("{name}.motion_ratio"), s.motion_ratio, 0.1, 2.0, "spring over wheel");
            }
        }
        if let Some(p) = &self.payload {
            check("payload.mass_kg", p.mass_kg, 0.0, 5000.0, "kg");
            check("payload.behind_front_axle_mm", p.behind_front_axle_mm, -3000.0, 12_000.0, "mm");
            check("payload.left_of_centre_mm", p.left_of_centre_mm, -1500.0, 1500.0, "mm");
        }
        for (i, l) in self.levels.iter().enumerate() {
            check(&format!("levels.{i}.front_mm"), l.front_mm, -200.0, 200.0, "mm");
            check(&format!("levels.{i}.rear_mm"), l.rear_mm, -200.0, 200.0, "mm");
        }
        for (i, t) in self.turns.iter().enumerate() {
            check(&format!("turns.{i}.turns"), t.turns, -40.0, 40.0, "turns");
            check(&format!("turns.{i}.height_change_mm"), t.height_change_mm, -200.0, 200.0, "mm");
        }
        for (name, p) in
            [("front_shaft_inner", self.front_shaft_inner), ("rear_shaft_inner", self.rear_shaft_inner)]
        {
            for (axis, v) in ["x", "y", "z"].iter().zip(p.unwrap_or_default()) {
                check(&format!("{name}.{axis}"), v, -6000.0, 6000.0, "mm");
            }
        }
        for (name, long) in [("levels", self.levels.len() > 8), ("turns", self.turns.len() > 40)] {
            if long {
                out.push(Problem::new(format!("{at}{name}"), "too many", "8 levels and 40 turns at most"));
            }
        }
        out.extend(self.limits.problems(&format!("{at}limits.")));
        out.extend(self.rear_limits.problems(&format!("{at}rear_limits.")));
        out.extend(
            adjuster_problems(&self.rear_adjusters)
                .into_iter()
                .map(|p| Problem::new(format!("{at}rear_{}", p.field), p.wrong, p.right)),
        );
        for (i, l) in self.levels.iter().enumerate() {
            let n = l.name.trim().chars().count();
            if !(1..=40).contains(&n) {
                out.push(Problem::new(
                    format!("{at}levels.{i}.name"),
                    format!("{n} characters"),
                    "a name of 1 to 40 characters",
                ));
            }
        }
        out.extend(self.wear.problems(&format!("{at}wear.")));
        out
    }
}

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
    pub fn attitude(&self, g: &Gains, tyres: [f64; 2]) -> (Attitude, f64) {
        let track = |a: Axle| self.axle(a).map_or(1500.0, |x| 2.0 * x.wheel.center[1].max(200.0));
        let front = ((g.left_front - g.right_front) / track(Axle::Front)).atan();
        let rear = ((g.left_rear - g.right_rear) / track(Axle::Rear)).atan();
        let mean = |a: f64, b: f64| f64::midpoint(a, b);
        let mut a = Attitude::from_rises(
            mean(g.left_front, g.right_front) + tyres[0],
            mean(g.left_rear, g.right_rear) + tyres[1],
            self.wheelbase_mm,
        );
        a.roll = mean(front, rear);
        (a, front - rear)
    }

    /// Every wheel over the ground at four heights, straight ahead, relative to the ground; `tyres` as for
    /// [`Car::attitude`].
    #[must_use]
    pub fn state(&self, corners: &[(Axle, Side, Corner)], gains: &Gains, tyres: [f64; 2]) -> CarState {
        self.state_on_frame(corners, gains, tyres, [0.0; 2])
    }

    /// The same with a body that stands so much higher on its frame, front and rear, mm.
    #[must_use]
    pub fn state_on_frame(
        &self,
        corners: &[(Axle, Side, Corner)],
        gains: &Gains,
        tyres: [f64; 2],
        body_mm: [f64; 2],
    ) -> CarState {
        let (attitude, warp) = self.attitude(gains, tyres);
        let wheels: Vec<WheelOnGround> = corners
            .iter()
            .map(|(axle, side, c)| {
                let lifted = body_mm[usize::from(*axle == Axle::Rear)];
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
                let radius = c.loaded_radius() + tyres[usize::from(*axle == Axle::Rear)];
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
