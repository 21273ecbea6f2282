//! A car in the bay: what was done to it, and what it cost on the shop's clock.

use crate::act::{Act, At, Felt, minutes_of};
use crate::hand::{Hand, Shown};
use crate::hidden::{HiddenCar, Work};
use crate::instrument::{Blind, Look, shows};
use bold_stance_trade::reading::{Method, MethodInfo};
use rand::SeedableRng;
use rand_pcg::Pcg64Mcg;
use serde::Serialize;

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
