//! How a car really stands: what tools see of it, to the last digit.

use crate::floor::Floor;
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_kinematics::wheel::{spin_axis, toe};
use bold_stance_trade::reading::Turned;
use bold_stance_units::numbers::Secant;
use nalgebra::Vector3;

/// A rim that does not run true.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct RunOut {
    /// How far its face leans out of the hub's, degrees.
    pub deg: f64,
    /// Where that points, degrees round the wheel: at 0 the rim's own lean is camber, top out.
    pub at_deg: f64,
}

/// How a wheel goes when it is steered.
#[derive(Debug, Clone, PartialEq)]
pub enum Swing {
    /// It does not steer.
    Fixed,
    /// About a straight axis.
    Axis {
        /// Degrees, top rearward positive.
        caster_deg: f64,
        /// Degrees, top inboard positive.
        sai_deg: f64,
    },
    /// As its linkage goes.
    Linkage {
        /// Mirrored to the left.
        corner: Box<Corner>,
        /// Wheel over the body against design, mm.
        travel_mm: f64,
    },
}

/// One wheel as it stands.
#[derive(Debug, Clone, PartialEq)]
pub struct WheelStands {
    /// Degrees, top out positive, square to the floor.
    pub camber_deg: f64,
    /// Degrees, toe-in positive, against the body's centre line.
    pub toe_deg: f64,
    /// Degrees; 0 where it does not steer.
    pub caster_deg: f64,
    /// Lean of the steering axis, degrees; 0 where it does not steer.
    pub sai_deg: f64,
    /// How it steers.
    pub swing: Swing,
    /// Hub centre to arch lip, mm.
    pub height_mm: f64,
    /// Hub centre over the floor, mm.
    pub hub_mm: f64,
    /// Frame over the floor, mm.
    pub frame_mm: f64,
    /// Tyre's diameter where the tape touches it, mm.
    pub tyre_mm: f64,
    /// The circle its rim lips make, mm.
    pub lip_mm: f64,
    /// Rim size as stamped, inches.
    pub stamped_in: f64,
    /// How far the tyre stands out of the lip at the floor, mm.
    pub bulge_mm: f64,
    /// How its rim runs.
    pub run_out: RunOut,
    /// kPa, cold.
    pub pressure_kpa: f64,
    /// Groove depths inner, centre, outer, mm.
    pub tread_mm: [f64; 3],
    /// What a flat hand feels.
    pub feels: &'static str,
}

impl WheelStands {
    /// Spin axis steered to the left by so much of its own left-hand view (degrees), in the axes of a left wheel.
    fn spin(&self, steer_deg: f64) -> Vector3<f64> {
        let straight = || spin_axis(self.camber_deg.to_radians(), (self.toe_deg - steer_deg).to_radians());
        match &self.swing {
            Swing::Fixed => straight(),
            Swing::Axis { caster_deg, sai_deg } => {
                let t = Turned {
                    caster_deg: *caster_deg,
                    sai_deg: *sai_deg,
                    camber_deg: self.camber_deg,
                    toe_deg: self.toe_deg,
                };
                spin_axis(t.at(steer_deg).0.to_radians(), (self.toe_deg - steer_deg).to_radians())
            }
            Swing::Linkage { corner, travel_mm } => {
                let turned = |rack: f64| corner.wheel(*travel_mm, rack).ok();
                let Some(zero) = turned(0.0) else { return straight() };
                let want = zero.toe_deg - steer_deg;
                let start = [0.0, if steer_deg > 0.0 { 20.0 } else { -20.0 }];
                let root = Secant::to(1e-9, 1e-8, 40)
                    .stepping(60.0)
                    .root(start, |r| turned(r).map(|w| w.toe_deg - want).ok_or(()));
                let w = root.ok().and_then(|r| turned(r.at)).unwrap_or(zero);
                // The body may lean and pitch: what the linkage adds to how it stands straight.
                let camber = self.camber_deg + w.camber_deg - zero.camber_deg;
                spin_axis(camber.to_radians(), (self.toe_deg - steer_deg).to_radians())
            }
        }
    }

    /// Camber a gauge shows that hangs on gravity, steered by so much to its own left-hand view, degrees. `up` is straight up in
    /// the wheel's axes; with `rim` it sits on the rim, turned by so much, and not on the hub.
    #[must_use]
    pub fn by_gravity(&self, steer_deg: f64, up: &Vector3<f64>, rim: Option<f64>) -> f64 {
        let own = -self.spin(steer_deg).dot(up).clamp(-1.0, 1.0).asin().to_degrees();
        own + rim.map_or(0.0, |turned| self.rim_lean(turned))
    }

    /// What the rim's own lean adds to camber with the wheel turned, degrees.
    #[must_use]
    pub fn rim_lean(&self, turned_deg: f64) -> f64 {
        self.run_out.deg * (self.run_out.at_deg + turned_deg).to_radians().cos()
    }

    /// Its heading straight ahead, degrees, in the axes of a left wheel: toe-in positive.
    #[must_use]
    pub fn heading(&self) -> f64 {
        toe(&spin_axis(self.camber_deg.to_radians(), self.toe_deg.to_radians())).to_degrees()
    }
}

/// A car as it stands on a floor.
#[derive(Debug, Clone, PartialEq)]
pub struct Standing {
    /// Its wheels.
    pub wheels: Axles<Sides<WheelStands>>,
    /// Between the wheel centres, mm.
    pub track_mm: Axles<f64>,
    /// Hub to hub on each side, mm.
    pub wheelbase_mm: Sides<f64>,
    /// From this front corner to the other side's rear corner, mm.
    pub diagonal_mm: Sides<f64>,
    /// The axle's middle to the right of the body's, mm.
    pub right_of_body_mm: Axles<f64>,
    /// From one frame line to each front hub, mm.
    pub to_front_hub_mm: Sides<f64>,
    /// Nose up as it lies on its stands, degrees.
    pub pitch_deg: f64,
    /// What it stands on.
    pub floor: Floor,
}

impl Standing {
    /// A wheel.
    #[must_use]
    pub fn wheel(&self, axle: Axle, side: Side) -> &WheelStands {
        &self.wheels[axle][side]
    }

    /// Straight up at a wheel.
    #[must_use]
    pub fn up(&self, axle: Axle, side: Side) -> Vector3<f64> {
        self.floor.up(axle, side, self.track_mm[axle])
    }

    /// Left minus right rear toe, halved: degrees, to the right of the centre line positive.
    #[must_use]
    pub fn thrust_deg(&self) -> f64 {
        let rear = &self.wheels[Axle::Rear];
        (rear[Side::Left].toe_deg - rear[Side::Right].toe_deg) / 2.0
    }
}
