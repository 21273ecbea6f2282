//! Everything read on a job and everything done to it, as the rules look at it.

use super::entries::RawEntry;
use super::method::Method;
use super::prepare::{PrepareItem, Prepared};
use super::quantity::{Place, Quantity, ReadAxle, ReadSide, Visit};
use super::raw::{Also, Correction, CorrectionKind};
use super::take::{Heights, Jack, ReadingCar, corner_index};
use super::ticket::TicketKind;
use bold_stance_car::fit::Knowledge;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::LengthUnit;
use bold_stance_units::said::{Said, said};

/// A kept reading.
#[derive(Debug, Clone, PartialEq)]
pub struct Seen {
    /// Its id.
    pub id: String,
    /// When in the work.
    pub visit: Visit,
    /// What.
    pub quantity: Quantity,
    /// Where.
    pub place: Place,
    /// How.
    pub method: Method,
    /// As typed.
    pub raw: Vec<RawEntry>,
    /// What a bare length meant.
    pub unit: LengthUnit,
    /// Degrees, mm or kPa.
    pub value: f64,
    /// Its standard deviation.
    pub sigma: f64,
    /// Further figures.
    pub also: Vec<Also>,
    /// What was taken out or put in.
    pub corrections: Vec<Correction>,
    /// How the wheel stood.
    pub jack: Jack,
    /// Hub-to-arch height it was read at, mm.
    pub height_mm: Option<f64>,
    /// When, seconds since 1970.
    pub at: i64,
}

impl Seen {
    /// A further figure by its word.
    #[must_use]
    pub fn also(&self, name: &str) -> Option<f64> {
        self.also.iter().find(|a| a.name == name).map(|a| a.value)
    }

    /// A height as it was taped, before fuel and load were taken out, mm.
    #[must_use]
    pub fn as_taped(&self) -> f64 {
        let weight = |c: &&Correction| c.kind == CorrectionKind::Weight && c.applied;
        self.value - self.corrections.iter().filter(weight).map(|c| c.amount).sum::<f64>()
    }

    /// The text of an entry that counts.
    #[must_use]
    pub fn typed(&self, name: &str) -> Option<&str> {
        self.raw.iter().rev().find(|r| r.name == name && !r.dropped).map(|r| r.text.as_str())
    }
}

/// What was done to the car.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ChangeKind {
    /// Springs, collars, bolts: its height.
    Height,
    /// A part was fitted.
    Parts,
    /// Cams, shims: camber and caster.
    Cams,
    /// Tie rods: toe.
    TieRods,
}

impl ChangeKind {
    /// Whether a reading of a quantity of the same axle no longer holds after it.
    #[must_use]
    pub fn makes_stale(self, q: Quantity) -> bool {
        match q {
            Quantity::Height | Quantity::FloorToArch | Quantity::FloorToFrame => {
                matches!(self, Self::Height | Self::Parts)
            }
            Quantity::Camber | Quantity::Caster => self != Self::TieRods,
            Quantity::Toe | Quantity::TotalToe => true,
            Quantity::Wheelbase | Quantity::SetBack => matches!(self, Self::Parts | Self::Cams),
            _ => false,
        }
    }
}

impl Change {
    /// What it is called.
    #[must_use]
    pub fn said(&self) -> Said {
        let what = match self.kind {
            ChangeKind::Height => said("done-height"),
            ChangeKind::Parts => said("done-parts"),
            ChangeKind::Cams => said("done-cams"),
            ChangeKind::TieRods => said("done-tie-rods"),
        };
        what.word("axle", self.axle.word())
    }

    /// Whether a reading no longer holds after it. A height of the other axle pitches the body: caster goes with it.
    #[must_use]
    pub fn makes_stale(&self, r: &Seen) -> bool {
        let own = match r.place.axle {
            ReadAxle::Front => self.axle == Axle::Front,
            ReadAxle::Rear => self.axle == Axle::Rear,
            ReadAxle::Both => return self.kind.makes_stale(r.quantity),
        };
        if own {
            self.kind.makes_stale(r.quantity)
        } else {
            self.kind == ChangeKind::Height && r.quantity == Quantity::Caster
        }
    }
}

/// Something done, and when.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Change {
    /// What.
    pub kind: ChangeKind,
    /// On which axle.
    pub axle: Axle,
    /// When, seconds since 1970.
    pub at: i64,
}

/// What the rules look at.
#[derive(Debug, Clone, Copy)]
pub struct Scene<'a> {
    /// The visit in hand.
    pub visit: Visit,
    /// What the ticket is for.
    pub kind: TicketKind,
    /// Every reading of the job, oldest first.
    pub readings: &'a [Seen],
    /// What was done, oldest first.
    pub changes: &'a [Change],
    /// Prepare list of the visit.
    pub prepared: &'a Prepared,
    /// Its items.
    pub items: &'a [PrepareItem],
    /// The car.
    pub car: Option<&'a ReadingCar>,
    /// How well its front and rear points are known.
    pub knowledge: [Knowledge; 2],
    /// Left and right adjusters stand at the same marks.
    pub same_marks: bool,
}

impl<'a> Scene<'a> {
    /// The newest reading of a visit.
    #[must_use]
    pub fn standing(&self, visit: Visit, q: Quantity, place: Place) -> Option<&'a Seen> {
        self.readings.iter().rev().find(|r| r.visit == visit && r.quantity == q && r.place == place)
    }

    /// The newest reading of the visit in hand at a wheel.
    #[must_use]
    pub fn here(&self, q: Quantity, axle: Axle, side: Side) -> Option<&'a Seen> {
        self.standing(self.visit, q, Place::wheel(axle, side))
    }

    /// The newest reading of any visit.
    #[must_use]
    pub fn newest(&self, q: Quantity, place: Place) -> Option<&'a Seen> {
        self.readings.iter().rev().find(|r| r.quantity == q && r.place == place)
    }

    /// Toe of one wheel: read by itself or as half of both, whichever is newer.
    #[must_use]
    pub fn toe(&self, visit: Visit, axle: Axle, side: Side) -> Option<(f64, f64, &'a Seen)> {
        toe_of(self.readings, visit, axle, side)
    }

    /// Standing heights of a visit; corners not read there as last read before it.
    #[must_use]
    pub fn heights(&self, visit: Visit) -> Heights {
        heights_of(self.readings, visit)
    }

    /// The newest thing done after a reading that makes it stale.
    #[must_use]
    pub fn changed_after(&self, r: &Seen) -> Option<&'a Change> {
        self.changes.iter().rev().find(|c| c.at > r.at && c.makes_stale(r))
    }
}

/// Toe of one wheel at a visit with its standard deviation: read by itself, or half of both wheels, whichever
/// is newer.
#[must_use]
pub fn toe_of(readings: &[Seen], visit: Visit, axle: Axle, side: Side) -> Option<(f64, f64, &Seen)> {
    let wheel = Place::wheel(axle, side);
    let both = Place { axle: wheel.axle, side: ReadSide::Both };
    readings.iter().rev().filter(|r| r.visit == visit).find_map(|r| match (r.quantity, r.place) {
        (Quantity::Toe, p) if p == wheel => Some((r.value, r.sigma, r)),
        (Quantity::TotalToe, p) if p == both => Some((r.value / 2.0, r.sigma / 2.0, r)),
        _ => None,
    })
}

/// Standing hub-to-arch heights of a visit (full tank, empty car), and where it has none those of the newest
/// visit before it.
#[must_use]
pub fn heights_of(readings: &[Seen], visit: Visit) -> Heights {
    heights_by(readings, visit, |r| r.value)
}

/// The same as the car stood while it was read: before fuel and load were taken out.
#[must_use]
pub fn taped_heights_of(readings: &[Seen], visit: Visit) -> Heights {
    heights_by(readings, visit, Seen::as_taped)
}

fn heights_by(readings: &[Seen], visit: Visit, of_reading: impl Fn(&Seen) -> f64) -> Heights {
    let mut out = [None; 4];
    for axle in [Axle::Front, Axle::Rear] {
        for side in Side::BOTH {
            let place = Place::wheel(axle, side);
            let of = |v: Visit| {
                readings
                    .iter()
                    .rev()
                    .find(|r| r.visit == v && r.quantity == Quantity::Height && r.place == place)
                    .map(&of_reading)
            };
            out[corner_index(axle, side)] =
                Visit::ALL.iter().rev().filter(|v| **v <= visit).find_map(|v| of(*v));
        }
    }
    out
}

/// What the model says a wheel should read, and how far it may be off.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Expected {
    /// Degrees.
    pub value: f64,
    /// Standard deviation, degrees.
    pub sigma: f64,
    /// From an earlier reading moved to this height, else from the points alone.
    pub anchored: bool,
}

/// Standard deviation of an angle that comes from points alone, adjusters anywhere in their range, degrees
/// (common practice, no source).
fn blind_sigma(q: Quantity, k: Knowledge) -> f64 {
    let row = match q {
        Quantity::Camber => [0.7, 1.0, 1.6],
        Quantity::Caster => [0.9, 1.5, 2.5],
        _ => [0.5, 0.7, 1.0],
    };
    match k {
        Knowledge::Surveyed => row[0],
        Knowledge::Taped => row[1],
        Knowledge::Archetype => row[2],
    }
}

impl Scene<'_> {
    /// What camber, caster or toe of a wheel should be at the visit in hand: the newest earlier visit's
    /// reading moved to this height by the model when nothing else was changed since, else the points alone.
    #[must_use]
    pub fn expected(&self, q: Quantity, axle: Axle, side: Side) -> Option<Expected> {
        let car = self.car?;
        let now = car.gains(&self.heights(self.visit));
        let here = car.model(q, axle, side, &now)?;
        let before = Visit::ALL.iter().rev().filter(|v| **v < self.visit).find_map(|v| {
            let r = match q {
                Quantity::Toe => self.toe(*v, axle, side),
                _ => self.standing(*v, q, Place::wheel(axle, side)).map(|r| (r.value, r.sigma, r)),
            }?;
            let turned = |c: &Change| c.at > r.2.at && c.axle == axle && c.kind != ChangeKind::Height;
            (!self.changes.iter().any(turned)).then_some((*v, r))
        });
        if let Some((v, (value, sigma, _))) = before {
            let then = car.model(q, axle, side, &car.gains(&self.heights(v)))?;
            let change = here - then;
            let sigma = (sigma * sigma + (0.2 * change).powi(2) + 0.01).sqrt();
            return Some(Expected { value: value + change, sigma, anchored: true });
        }
        let k = self.knowledge[usize::from(axle == Axle::Rear)];
        Some(Expected { value: here, sigma: blind_sigma(q, k), anchored: false })
    }
}
