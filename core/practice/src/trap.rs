//! What a practice car hides, and by what it gives itself away.

use crate::act::{Act, At, Ready};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::reading::{Method, Place, Quantity};
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// One thing that is not as it seems. Lengths in mm, angles in degrees.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Trap {
    /// The floor falls, to the left and to the front positive.
    SlopingFloor {
        /// Across the car.
        across_deg: f64,
        /// Along it.
        #[serde(default)]
        along_deg: f64,
    },
    /// One wheel stands in a dip.
    Dip {
        /// Which.
        at: At,
        /// How deep.
        deep_mm: f64,
    },
    /// It came off a jack and was not rolled: it stands high, its front wheels too far out.
    NotSettled {
        /// How much too high.
        high_mm: f64,
        /// How far out.
        camber_deg: f64,
    },
    /// A jack was left under one side, or something heavy in it: the body leans.
    Leans {
        /// Which side is low.
        side: Side,
        /// By how much.
        low_mm: f64,
    },
    /// A worn joint: no two readings of the wheel are the same.
    WornJoint {
        /// Which wheel.
        at: At,
        /// How often its readings scatter.
        times: f64,
    },
    /// A bent knuckle: its camber is off, its steering axis is not.
    BentKnuckle {
        /// Which wheel.
        at: At,
        /// Camber it adds.
        camber_deg: f64,
    },
    /// A part that does more, or less, than it was sold for.
    Moves {
        /// Whose.
        axle: Axle,
        /// Which adjuster, from the front of its list.
        adjuster: usize,
        /// How many times.
        times: f64,
    },
    /// A soft spring: after the height it settles on.
    SoftSpring {
        /// Where.
        at: At,
        /// How far, once it has rolled.
        settles_mm: f64,
    },
    /// Plates that stick: the wheel turns less than they show.
    StickyPlates {
        /// What is missing of a swing, as a part of it.
        missing: f64,
    },
    /// A soft tyre.
    LowPressure {
        /// Where.
        at: At,
        /// What is missing, kPa.
        missing_kpa: f64,
    },
    /// Knock-out tabs still hold the cams.
    TabsIn {
        /// Whose.
        axle: Axle,
    },
    /// One adjuster does not move.
    Seized {
        /// Where.
        at: At,
        /// Which adjuster, from the front of its list.
        adjuster: usize,
    },
    /// A thread of the other hand.
    OtherHand {
        /// Where.
        at: At,
        /// Which adjuster, from the front of its list.
        adjuster: usize,
    },
    /// The rear is wider or narrower than the front: a string from it does not run straight.
    UnequalTracks {
        /// Rear track less front track.
        wider_mm: f64,
    },
    /// The rim's lips are not where its stamp says.
    OtherRim {
        /// How many times the circle.
        times: f64,
    },
    /// The rear axle does not point straight ahead: to the right positive.
    SkewedRear {
        /// How far.
        thrust_deg: f64,
    },
    /// A spring of another rate on one side.
    WrongSpring {
        /// Where.
        at: At,
        /// How much lower it stands.
        low_mm: f64,
    },
    /// The steering wheel stands off: left wheel out, right wheel in, positive.
    SteeringOff {
        /// At the wheels.
        deg: f64,
    },
    /// Tyres of two sizes on an axle.
    MixedTyres {
        /// The smaller one.
        at: At,
        /// By how much in diameter.
        smaller_mm: f64,
    },
    /// A rim that is bent.
    BentRim {
        /// Where.
        at: At,
        /// How far its face leans.
        deg: f64,
    },
    /// The gauge was dropped.
    GaugeOff {
        /// What it shows on a level surface.
        deg: f64,
    },
}

fn wheel(place: Place, at: At) -> bool {
    place.as_wheel() == Some((at.axle, at.side))
}

impl Trap {
    /// Whether an act shows it to somebody who looks. `before` are the acts until then.
    #[must_use]
    pub fn shown_by(&self, act: &Act, before: &[Act]) -> bool {
        let ready = |r: Ready| *act == Act::Ready(r);
        let read = |q: Quantity, f: &dyn Fn(Place) -> bool| match act {
            Act::Read { quantity, place, .. } => *quantity == q && f(*place),
            _ => false,
        };
        let any = |_: Place| true;
        let turned = |axle: Axle, side: Option<Side>, adjuster: usize| {
            let is = |a: &Act| {
                matches!(a, Act::Turn { at, adjuster: k, .. }
                if at.axle == axle && side.is_none_or(|s| s == at.side) && *k == adjuster)
            };
            (is(act), before.iter().any(is))
        };
        match self {
            Self::SlopingFloor { .. } | Self::Dip { .. } => {
                ready(Ready::ZeroOnFloor) || read(Quantity::FloorSlope, &any)
            }
            Self::NotSettled { .. } => ready(Ready::Roll),
            Self::Leans { .. } | Self::WrongSpring { .. } => {
                let four = before
                    .iter()
                    .filter(|a| matches!(a, Act::Read { quantity: Quantity::Height, .. }))
                    .count();
                read(Quantity::Height, &any) && four >= 1
            }
            Self::WornJoint { at, .. } => {
                *act == Act::Joints(*at) || {
                    let same = |a: &&Act| matches!(a, Act::Read { place, .. } if wheel(*place, *at));
                    matches!(act, Act::Read { place, .. } if wheel(*place, *at))
                        && before.iter().filter(same).count() >= 2
                }
            }
            // The axis leans as on the other side, the wheel does not: what a gauge's own scale shows of both.
            Self::BentKnuckle { at, .. } => {
                matches!(act, Act::Read { method: Method::CasterScale, place, .. } if wheel(*place, *at))
            }
            // An angle read once it was turned.
            Self::Moves { axle, adjuster, .. } => {
                let angle = matches!(
                    act,
                    Act::Read {
                        quantity: Quantity::Camber | Quantity::Caster | Quantity::TotalToe | Quantity::Toe,
                        ..
                    }
                );
                angle && turned(*axle, None, *adjuster).1
            }
            Self::OtherHand { at, adjuster } => {
                let angle = matches!(
                    act,
                    Act::Read {
                        quantity: Quantity::Camber | Quantity::Caster | Quantity::TotalToe | Quantity::Toe,
                        ..
                    }
                );
                angle && turned(at.axle, Some(at.side), *adjuster).1
            }
            Self::Seized { at, adjuster } => turned(at.axle, Some(at.side), *adjuster).0,
            Self::TabsIn { axle } => {
                matches!(act, Act::Turn { at, .. } if at.axle == *axle) || ready(Ready::TabsOut)
            }
            Self::SoftSpring { at, .. } => {
                read(Quantity::Height, &|p| wheel(p, *at))
                    && before.iter().any(|a| matches!(a, Act::Height { .. }))
                    && before.contains(&Act::Ready(Ready::Roll))
            }
            Self::StickyPlates { .. } => ready(Ready::FreePlates),
            Self::LowPressure { at, .. } => {
                ready(Ready::Pressures) || read(Quantity::Pressure, &|p| wheel(p, *at))
            }
            Self::UnequalTracks { .. } => ready(Ready::Tracks),
            Self::OtherRim { .. } => ready(Ready::MeasureLips),
            Self::SkewedRear { .. } => {
                read(Quantity::Toe, &|p| p.one_axle() == Some(Axle::Rear)) || read(Quantity::Wheelbase, &any)
            }
            Self::SteeringOff { .. } => ready(Ready::CentreSteering),
            Self::MixedTyres { .. } => ready(Ready::LookAtTyres),
            Self::BentRim { at, .. } => {
                let turned = matches!(act, Act::Read { method: Method::CamberRunout | Method::RimRunout, place, .. } if wheel(*place, *at));
                turned || *act == Act::SpinWheel(*at)
            }
            Self::GaugeOff { .. } => ready(Ready::ReverseGauge),
        }
    }

    /// What it is called.
    #[must_use]
    pub fn title(&self) -> Said {
        match self {
            Self::SlopingFloor { .. } => said("trap-sloping-floor"),
            Self::Dip { .. } => said("trap-dip"),
            Self::NotSettled { .. } => said("trap-not-settled"),
            Self::Leans { .. } => said("trap-leans"),
            Self::WornJoint { .. } => said("trap-worn-joint"),
            Self::BentKnuckle { .. } => said("trap-bent-knuckle"),
            Self::Moves { .. } => said("trap-moves"),
            Self::SoftSpring { .. } => said("trap-soft-spring"),
            Self::StickyPlates { .. } => said("trap-sticky-plates"),
            Self::LowPressure { .. } => said("trap-low-pressure"),
            Self::TabsIn { .. } => said("trap-tabs-in"),
            Self::Seized { .. } => said("trap-seized"),
            Self::OtherHand { .. } => said("trap-other-hand"),
            Self::UnequalTracks { .. } => said("trap-unequal-tracks"),
            Self::OtherRim { .. } => said("trap-other-rim"),
            Self::SkewedRear { .. } => said("trap-skewed-rear"),
            Self::WrongSpring { .. } => said("trap-wrong-spring"),
            Self::SteeringOff { .. } => said("trap-steering-off"),
            Self::MixedTyres { .. } => said("trap-mixed-tyres"),
            Self::BentRim { .. } => said("trap-bent-rim"),
            Self::GaugeOff { .. } => said("trap-gauge-off"),
        }
    }
}
