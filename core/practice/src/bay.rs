//! What is done in the bay, and what it costs on the shop's clock.

use crate::hand::{Hand, Shown};
use crate::hidden::{HiddenCar, Work};
use crate::instrument::{Blind, Look, shows};
use crate::trap::At;
use bold_stance_car::vehicle::Sides;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_trade::reading::{Method, MethodInfo, Place, Quantity};
use rand::SeedableRng;
use rand_pcg::Pcg64Mcg;
use serde::{Deserialize, Serialize};

/// What is put right before reading.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Ready {
    /// Rolled and bounced.
    Roll,
    /// Pressures read and set.
    Pressures,
    /// What lies in the car or under it taken away.
    Empty,
    /// Steering wheel straight and locked.
    CentreSteering,
    /// Plates cleaned and greased.
    FreePlates,
    /// Gauge zeroed on a bar over this floor.
    ZeroOnFloor,
    /// Gauge set on one face, then turned round: half the difference is its own.
    ReverseGauge,
    /// Lip to lip measured.
    MeasureLips,
    /// Both tracks measured, and the string hung by them.
    Tracks,
    /// Sizes read off all four tyres.
    LookAtTyres,
    /// Tabs knocked out of the slots.
    TabsOut,
}

/// One thing done.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Act {
    /// A tool read at a place.
    Read {
        /// With what.
        method: Method,
        /// What it is about.
        quantity: Quantity,
        /// Where.
        place: Place,
        /// How far the wheel was rolled since, degrees.
        rolled_deg: f64,
    },
    /// Something put right.
    Ready(Ready),
    /// Joints of a wheel shaken.
    Joints(At),
    /// A wheel spun in the air.
    SpinWheel(At),
    /// An adjuster turned by so much of its own positions.
    Turn {
        /// Where.
        at: At,
        /// Which, from the front of the axle's list.
        adjuster: usize,
        /// By how much: degrees of a cam, turns, mm.
        by: f64,
    },
    /// An axle's height changed, mm.
    Height {
        /// Whose.
        axle: Axle,
        /// By how much.
        by_mm: Sides<f64>,
    },
}

/// What a hand felt.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Felt {
    /// As it should.
    Done,
    /// It does not move.
    Seized,
    /// Something holds it in its slot.
    Held,
    /// It is at its end, and went that far.
    AtEnd,
    /// There is play.
    Play,
    /// There is none.
    Tight,
    /// It runs true.
    True,
    /// It wobbles.
    Wobbles,
    /// Something was wrong and is right now.
    PutRight,
}

/// What came of an act.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct Outcome {
    /// What it cost, minutes.
    pub minutes: f64,
    /// What the tool shows.
    pub shown: Vec<Shown>,
    /// What was felt.
    pub felt: Option<Felt>,
}

/// Minutes of a first reading with a method (common practice, no source).
#[must_use]
pub fn minutes_of(m: Method) -> f64 {
    match m {
        Method::HeightHub | Method::HeightFloor | Method::HeightFrame => 1.5,
        Method::CamberGauge | Method::CamberForm | Method::ToeConvert => 2.0,
        Method::CamberBar | Method::CamberLevel => 3.0,
        Method::CamberOffsets | Method::CamberGap | Method::CamberCalliper | Method::CamberRunout => 4.0,
        Method::CamberLaser => 5.0,
        Method::CasterSweep => 9.0,
        Method::CasterScale => 6.0,
        Method::CasterJointLine => 25.0,
        Method::ToeDistance | Method::ToeRimGauge => 7.0,
        Method::ToeScribed => 10.0,
        Method::ToeBars | Method::ToePlates => 9.0,
        Method::ToeString => 7.0,
        Method::RimRunout | Method::TreadDepth => 3.0,
        Method::Pressure | Method::RimCircle => 1.0,
        Method::AxleCentring | Method::SetBack => 6.0,
        Method::Wheelbase | Method::Diagonal => 4.0,
        Method::FloorSlope => 3.0,
        Method::Thrust => 0.0,
    }
}

impl Ready {
    /// Minutes (common practice, no source).
    #[must_use]
    pub fn minutes(self) -> f64 {
        match self {
            Self::Roll => 3.0,
            Self::Pressures => 4.0,
            Self::Empty | Self::CentreSteering | Self::ReverseGauge | Self::LookAtTyres => 2.0,
            Self::FreePlates => 8.0,
            Self::ZeroOnFloor | Self::MeasureLips => 3.0,
            Self::Tracks => 5.0,
            Self::TabsOut => 20.0,
        }
    }
}

/// A car in the bay: what was done to it so far.
#[derive(Debug, Clone)]
pub struct Bay {
    car: HiddenCar,
    work: Work,
    /// Acts and what each cost, in order.
    log: Vec<(Act, f64)>,
}

impl Bay {
    /// A car as it came.
    #[must_use]
    pub fn new(car: HiddenCar) -> Self {
        let work = car.as_it_came();
        Self { car, work, log: Vec::new() }
    }

    /// The same once everything of a log was done again.
    #[must_use]
    pub fn replayed(car: HiddenCar, acts: &[Act], methods: &[MethodInfo]) -> Self {
        let mut bay = Self::new(car);
        for a in acts {
            // What was refused then is refused now, and was no act.
            let _ = bay.does(a, methods);
        }
        bay
    }

    /// The car.
    #[must_use]
    pub fn car(&self) -> &HiddenCar {
        &self.car
    }

    /// How it stands.
    #[must_use]
    pub fn work(&self) -> &Work {
        &self.work
    }

    /// Minutes on the clock.
    #[must_use]
    pub fn minutes(&self) -> f64 {
        self.log.iter().map(|(_, m)| m).sum()
    }

    /// What was done, oldest first, each with its minutes.
    #[must_use]
    pub fn log(&self) -> &[(Act, f64)] {
        &self.log
    }

    /// Does something.
    ///
    /// # Errors
    /// [`Blind`] where a tool shows nothing; nothing was done then.
    pub fn does(&mut self, act: &Act, methods: &[MethodInfo]) -> Result<Outcome, Blind> {
        let seen_before =
            |m: Method| self.log.iter().any(|(a, _)| matches!(a, Act::Read { method, .. } if *method == m));
        let mut out = Outcome { minutes: 0.0, shown: Vec::new(), felt: None };
        match act {
            Act::Read { method, place, rolled_deg, .. } => {
                let info = methods.iter().find(|m| m.id == *method).ok_or(Blind::NotThere)?;
                // The tool is out already.
                out.minutes = minutes_of(*method) * if seen_before(*method) { 0.7 } else { 1.0 };
                let standing = self.car.stands(&self.work);
                let mut hand = self.hand();
                if let Some((axle, side)) = place.as_wheel() {
                    hand.scatter = self.car.scatter(At { axle, side });
                }
                let look = Look { rolled_deg: *rolled_deg, ..Look::at(info, *place) };
                out.shown = shows(look, &standing, &self.work.tools, &mut hand)?;
            }
            Act::Ready(r) => {
                out.minutes = r.minutes();
                out.felt = Some(self.car.readied(&mut self.work, *r));
            }
            Act::Joints(at) => {
                out.minutes = 3.0;
                out.felt = Some(if self.car.scatter(*at) > 1.0 { Felt::Play } else { Felt::Tight });
            }
            Act::SpinWheel(at) => {
                out.minutes = 4.0;
                // Up in the air: it has to roll again.
                self.work.settled = false;
                let bent = self.car.stands(&self.work).wheel(at.axle, at.side).run_out.deg.abs() > 0.1;
                out.felt = Some(if bent { Felt::Wobbles } else { Felt::True });
            }
            Act::Turn { at, adjuster, by } => {
                let (felt, minutes) = self.car.turned(&mut self.work, *at, *adjuster, *by)?;
                (out.felt, out.minutes) = (Some(felt), minutes);
            }
            Act::Height { axle, by_mm } => {
                out.minutes = 40.0;
                for (side, by) in by_mm.each() {
                    self.work.height_mm[*axle][side] += by;
                }
                (self.work.settled, self.work.driven) = (false, false);
                out.felt = Some(Felt::Done);
            }
        }
        self.log.push((act.clone(), out.minutes));
        Ok(out)
    }

    /// The hand of the next act: the same for the same car and the same number of acts before it.
    fn hand(&self) -> Hand {
        let n = self.log.len() as u64 + 1;
        Hand::new(Pcg64Mcg::seed_from_u64(self.car.seed().wrapping_mul(0x9e37_79b9_7f4a_7c15) ^ n))
    }
}
