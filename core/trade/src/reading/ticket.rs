//! What a ticket is for: the order of its work, what it has to read first, and what it has no need of.

use super::quantity::{Quantity, Visit};
use bold_stance_kinematics::geometry::Axle;
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// Stages of the work, in order.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Stage {
    /// Facts and geometry.
    Arrive,
    /// Readings as found.
    Read,
    /// Height and correction.
    Plan,
    /// Tread forecast.
    Wear,
    /// Setting sheet.
    Set,
    /// Final re-read.
    Prove,
    /// Settled re-check.
    Return,
}

/// What a ticket is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TicketKind {
    /// Its height changes.
    #[default]
    Height,
    /// Arms or links are replaced.
    Arms,
    /// Somebody else's work is put right.
    PutRight,
    /// Its tyres wear wrong.
    Wear,
    /// It pulls or wanders.
    Pull,
    /// A live axle is centred and squared.
    Square,
    /// A chassis is set up without its body.
    Chassis,
    /// Nothing is changed: it is looked at.
    Check,
}

/// A reading a decision waits for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Wanted {
    /// What.
    pub quantity: Quantity,
    /// On which axle; none for both, and for what belongs to the whole car.
    pub axle: Option<Axle>,
}

/// A kind as the screen offers it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TicketOffer {
    /// Which.
    pub kind: TicketKind,
    /// What it is called.
    pub title: Said,
    /// What it does first.
    pub how: Said,
    /// The stages it goes through, in its order; the others can be opened all the same.
    pub stages: Vec<Stage>,
}

fn on(quantities: &[Quantity], axle: Option<Axle>) -> Vec<Wanted> {
    quantities.iter().map(|quantity| Wanted { quantity: *quantity, axle }).collect()
}

impl TicketKind {
    /// Every kind, in the order it is offered.
    pub const ALL: [Self; 8] = [
        Self::Height,
        Self::Arms,
        Self::PutRight,
        Self::Wear,
        Self::Pull,
        Self::Square,
        Self::Chassis,
        Self::Check,
    ];

    /// The word in a file.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Height => "height",
            Self::Arms => "arms",
            Self::PutRight => "put_right",
            Self::Wear => "wear",
            Self::Pull => "pull",
            Self::Square => "square",
            Self::Chassis => "chassis",
            Self::Check => "check",
        }
    }

    /// The stages it goes through, in its order (common practice, no source): a wear complaint looks at the tyres first, a
    /// check changes nothing, a pull is no matter of the forecast, a squared axle does not come back to settle.
    #[must_use]
    pub fn stages(self) -> &'static [Stage] {
        use Stage::{Arrive, Plan, Prove, Read, Return, Set, Wear};
        match self {
            Self::Height | Self::Arms | Self::PutRight => &[Arrive, Read, Plan, Wear, Set, Prove, Return],
            Self::Wear => &[Arrive, Wear, Read, Plan, Set, Prove, Return],
            Self::Pull | Self::Chassis => &[Arrive, Read, Plan, Set, Prove, Return],
            Self::Square => &[Arrive, Read, Plan, Set, Prove],
            Self::Check => &[Arrive, Read, Wear],
        }
    }

    /// As the screen offers it.
    #[must_use]
    pub fn offer(self) -> TicketOffer {
        let of = |id| said(id).word("kind", self.word());
        TicketOffer {
            kind: self,
            title: of("ticket-kind"),
            how: of("ticket-how"),
            stages: self.stages().to_vec(),
        }
    }

    /// What is read before anything else because of what it is for.
    #[must_use]
    pub fn first(self) -> &'static [Quantity] {
        match self {
            Self::Wear => &[Quantity::TreadDepth, Quantity::Pressure],
            Self::Pull => &[Quantity::Pressure],
            Self::Square => &[Quantity::Wheelbase, Quantity::AxleOffset, Quantity::Diagonal],
            Self::Chassis => &[Quantity::FloorToFrame],
            Self::Height | Self::Arms | Self::PutRight | Self::Check => &[],
        }
    }

    /// Height that is read on it: a bare chassis has no arch.
    #[must_use]
    pub fn height(self) -> Quantity {
        if self == Self::Chassis { Quantity::FloorToFrame } else { Quantity::Height }
    }

    /// What the decision of a visit waits for. `rear` says whether the rear axle's points are known.
    #[must_use]
    pub fn wanted(self, visit: Visit, rear: bool) -> Vec<Wanted> {
        use Quantity::{AxleOffset, Camber, Caster, Pressure, Toe, TreadDepth, Wheelbase};
        let front = Some(Axle::Front);
        let height = self.height();
        match visit {
            Visit::Found => {}
            Visit::Settled => return on(&[height], front),
            Visit::Reswept => return on(&[Camber, Caster], front),
            Visit::Proved => return on(&[Camber, Caster, Toe], front),
            Visit::Returned => {
                let mut out = on(&[height], None);
                out.extend(on(&[Camber, Caster, Toe], front));
                return out;
            }
        }
        let all = || on(&[height, Camber, Caster, Toe], front);
        let behind = || if rear { on(&[Camber, Toe], Some(Axle::Rear)) } else { Vec::new() };
        let with = |mut list: Vec<Wanted>, more: Vec<Wanted>| {
            list.extend(more);
            list
        };
        match self {
            Self::Height | Self::Arms => all(),
            Self::PutRight | Self::Check => with(all(), behind()),
            Self::Wear => with(on(&[TreadDepth, Pressure], None), with(on(&[Camber, Toe], front), behind())),
            Self::Pull => {
                let toe = if rear { on(&[Toe], Some(Axle::Rear)) } else { Vec::new() };
                with(on(&[Pressure], front), with(all(), toe))
            }
            Self::Square => on(&[Wheelbase, AxleOffset], None),
            Self::Chassis => with(on(&[height], Some(Axle::Rear)), all()),
        }
    }

    /// What waits for the readings of a visit.
    #[must_use]
    pub fn waits(self, visit: Visit) -> Said {
        match visit {
            Visit::Found => said(match self {
                Self::Check => "waits-look",
                Self::Wear => "waits-diagnose",
                Self::Square => "waits-square",
                _ => "waits-plan",
            }),
            Visit::Settled => said("waits-cams"),
            Visit::Reswept => said("waits-tie-rods"),
            Visit::Proved => said("waits-sign-off"),
            Visit::Returned => said("waits-compare"),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_kind_begins_with_the_car_and_reads_before_it_plans() {
        for k in TicketKind::ALL {
            let stages = k.stages();
            let at = |s| stages.iter().position(|x| *x == s);
            assert_eq!(at(Stage::Arrive), Some(0), "{k:?}");
            assert!(at(Stage::Read).is_some(), "{k:?}");
            assert!(at(Stage::Plan).is_none_or(|p| Some(p) > at(Stage::Read)), "{k:?}");
            // What is set is proved, and nothing is set that was not planned.
            assert_eq!(at(Stage::Set).is_some(), at(Stage::Prove).is_some(), "{k:?}");
            assert_eq!(at(Stage::Set).is_some(), at(Stage::Plan).is_some(), "{k:?}");
            assert_eq!(serde_json::to_value(k).unwrap(), k.word());
        }
    }

    #[test]
    fn a_ticket_waits_for_what_it_is_for_and_not_for_more() {
        let has =
            |k: TicketKind, q, axle| k.wanted(Visit::Found, true).contains(&Wanted { quantity: q, axle });
        assert!(!has(TicketKind::Square, Quantity::Caster, Some(Axle::Front)));
        assert!(has(TicketKind::Square, Quantity::Wheelbase, None));
        assert!(has(TicketKind::Wear, Quantity::TreadDepth, None));
        assert!(!has(TicketKind::Chassis, Quantity::Height, Some(Axle::Front)));
        assert!(has(TicketKind::PutRight, Quantity::Toe, Some(Axle::Rear)));
        // Of a rear whose points nobody told nothing is waited for.
        assert!(TicketKind::PutRight.wanted(Visit::Found, false).iter().all(|w| w.axle == Some(Axle::Front)));
        assert_eq!(TicketKind::Height.wanted(Visit::Found, true).len(), 4);
    }
}
