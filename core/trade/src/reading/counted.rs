//! How far the readings of a ticket as found have come: of those its decision waits for, how many were taken.

use super::quantity::{Place, Quantity, ReadAxle, ReadSide, Visit};
use super::ticket::{TicketKind, Wanted};
use bold_stance_kinematics::geometry::{Axle, Side};
use serde::{Deserialize, Serialize};

/// That something was read somewhere.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
pub struct Looked {
    /// What.
    pub quantity: Quantity,
    /// On which axle.
    pub axle: ReadAxle,
    /// On which side.
    pub side: ReadSide,
}

/// Readings taken of those a ticket waits for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Counted {
    /// Taken.
    pub read: usize,
    /// Waited for.
    pub wanted: usize,
}

/// One place that is waited for and what will do there.
struct Awaited {
    any_of: &'static [Quantity],
    place: Place,
}

impl Awaited {
    fn came(&self, seen: &[Looked]) -> bool {
        seen.iter().any(|s| {
            let here = s.axle == self.place.axle
                && (s.side == self.place.side
                    // Toe of both wheels counts for each of them.
                    || s.quantity == Quantity::TotalToe && s.side == ReadSide::Both);
            here && self.any_of.contains(&s.quantity)
        })
    }
}

/// What does for a quantity: any tape tells a height, toe of both wheels tells each.
fn any_of(q: Quantity) -> &'static [Quantity] {
    use Quantity as Q;
    match q {
        Q::Height | Q::FloorToArch | Q::FloorToFrame => &[Q::Height, Q::FloorToArch, Q::FloorToFrame],
        Q::Toe | Q::TotalToe => &[Q::Toe, Q::TotalToe],
        Q::Camber => &[Q::Camber],
        Q::Caster => &[Q::Caster],
        Q::Thrust => &[Q::Thrust],
        Q::SetBack => &[Q::SetBack],
        Q::Wheelbase => &[Q::Wheelbase],
        Q::Diagonal => &[Q::Diagonal],
        Q::AxleOffset => &[Q::AxleOffset],
        Q::RimRunout => &[Q::RimRunout],
        Q::RimCircle => &[Q::RimCircle],
        Q::TreadDepth => &[Q::TreadDepth],
        Q::Pressure => &[Q::Pressure],
        Q::FloorSlope => &[Q::FloorSlope],
    }
}

fn counts(w: &Wanted, seen: &[Looked]) -> Vec<bool> {
    let any_of = any_of(w.quantity);
    let axles = || w.axle.map_or_else(|| vec![Axle::Front, Axle::Rear], |a| vec![a]);
    let came = |place: Place| Awaited { any_of, place }.came(seen);
    match w.quantity {
        // Waited for once, whichever axle is live.
        Quantity::AxleOffset => {
            let on = |a: Axle| came(Place { axle: a.into(), side: ReadSide::Both });
            vec![axles().into_iter().any(on)]
        }
        Quantity::Wheelbase | Quantity::Diagonal => {
            Side::BOTH.map(|s| came(Place { axle: ReadAxle::Both, side: s.into() })).into()
        }
        _ => axles().into_iter().flat_map(|a| Side::BOTH.map(|s| came(Place::wheel(a, s)))).collect(),
    }
}

/// How many of the readings a ticket waits for as found were taken. `rear` says whether the rear axle's points are known.
#[must_use]
pub fn counted(kind: TicketKind, rear: bool, seen: &[Looked]) -> Counted {
    let all: Vec<bool> = kind.wanted(Visit::Found, rear).iter().flat_map(|w| counts(w, seen)).collect();
    Counted { read: all.iter().filter(|c| **c).count(), wanted: all.len() }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn seen(quantity: Quantity, axle: ReadAxle, side: ReadSide) -> Looked {
        Looked { quantity, axle, side }
    }

    #[test]
    fn total_toe_counts_for_both_wheels_and_any_tape_for_a_height() {
        let (front, both) = (ReadAxle::Front, ReadSide::Both);
        let none = counted(TicketKind::Height, false, &[]);
        assert_eq!(none, Counted { read: 0, wanted: 8 });
        let toe = [seen(Quantity::TotalToe, front, both)];
        assert_eq!(counted(TicketKind::Height, false, &toe).read, 2);
        // Of one wheel, twice: still one.
        let one = [seen(Quantity::Toe, front, ReadSide::Left), seen(Quantity::Toe, front, ReadSide::Left)];
        assert_eq!(counted(TicketKind::Height, false, &one).read, 1);
        let tape = [seen(Quantity::FloorToFrame, front, ReadSide::Right)];
        assert_eq!(counted(TicketKind::Height, false, &tape).read, 1);
        // The other axle's is not this one's.
        let rear = [seen(Quantity::TotalToe, ReadAxle::Rear, both)];
        assert_eq!(counted(TicketKind::Height, true, &rear).read, 0);
    }

    #[test]
    fn an_axle_off_centre_is_waited_for_once() {
        let w = |side| seen(Quantity::Wheelbase, ReadAxle::Both, side);
        let centre = |axle| seen(Quantity::AxleOffset, axle, ReadSide::Both);
        let (left, right) = (w(ReadSide::Left), w(ReadSide::Right));
        for axle in [ReadAxle::Front, ReadAxle::Rear] {
            let all = counted(TicketKind::Square, false, &[left, right, centre(axle)]);
            assert_eq!(all, Counted { read: 3, wanted: 3 });
        }
        assert_eq!(counted(TicketKind::Square, false, &[left]).read, 1);
    }
}
