//! Roles and acts: the one table of rights. The server asks it before a route, the database holds the same rows.

use serde::{Deserialize, Serialize};

/// What a member is in a shop.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Role {
    /// The whole shop, its people and what is kept of its customers.
    Owner,
    /// Plans, sets, opens gates, proves.
    Specialist,
    /// Reads and sets; a specialist opens gates.
    Apprentice,
    /// Arrivals and handovers.
    FrontDesk,
}

/// Something a member does.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Act {
    /// Looks at jobs, sheets and what is worked out of them; prints.
    Look,
    /// Opens a ticket, changes what stands on it, writes notes, puts it away.
    Ticket,
    /// Enters readings, visits, tread, facts of the vehicle.
    Measure,
    /// Makes and changes plans.
    Plan,
    /// Closes steps of the sheet as done.
    Turn,
    /// Opens a gate of the sheet; accepts a car.
    Gate,
    /// Keeps parts, aims and shapes of the shop.
    Library,
    /// Adds a device to the shop.
    Enrol,
    /// Settings of the shop.
    Settings,
    /// Members, their roles and PINs, sessions and devices.
    People,
    /// What was done by whom, exported; a customer's words exported and erased.
    Records,
}

impl Role {
    /// Every role, the one that may most first.
    pub const ALL: [Self; 4] = [Self::Owner, Self::Specialist, Self::Apprentice, Self::FrontDesk];

    /// The role's name as it is kept.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Owner => "owner",
            Self::Specialist => "specialist",
            Self::Apprentice => "apprentice",
            Self::FrontDesk => "front_desk",
        }
    }

    /// The role of a kept name.
    #[must_use]
    pub fn of(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|r| r.key() == key)
    }

    /// Whether the role may do it: the table of rights.
    #[must_use]
    pub const fn may(self, act: Act) -> bool {
        use Act::{Enrol, Gate, Library, Look, Measure, People, Plan, Records, Settings, Ticket, Turn};
        match self {
            Self::Owner => true,
            Self::Specialist => match act {
                Look | Ticket | Measure | Plan | Turn | Gate | Library | Enrol => true,
                Settings | People | Records => false,
            },
            Self::Apprentice => match act {
                Look | Ticket | Measure | Turn => true,
                Plan | Gate | Library | Enrol | Settings | People | Records => false,
            },
            Self::FrontDesk => match act {
                Look | Ticket => true,
                Measure | Plan | Turn | Gate | Library | Enrol | Settings | People | Records => false,
            },
        }
    }

    /// Everything the role may do.
    #[must_use]
    pub fn acts(self) -> Vec<Act> {
        Act::ALL.into_iter().filter(|a| self.may(*a)).collect()
    }
}

impl Act {
    /// Every act.
    pub const ALL: [Self; 11] = [
        Self::Look,
        Self::Ticket,
        Self::Measure,
        Self::Plan,
        Self::Turn,
        Self::Gate,
        Self::Library,
        Self::Enrol,
        Self::Settings,
        Self::People,
        Self::Records,
    ];

    /// The act's name as it is kept.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Look => "look",
            Self::Ticket => "ticket",
            Self::Measure => "measure",
            Self::Plan => "plan",
            Self::Turn => "turn",
            Self::Gate => "gate",
            Self::Library => "library",
            Self::Enrol => "enrol",
            Self::Settings => "settings",
            Self::People => "people",
            Self::Records => "records",
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_are_the_ones_that_travel() {
        for r in Role::ALL {
            assert_eq!(serde_json::to_string(&r).unwrap(), format!("\"{}\"", r.key()));
            assert_eq!(Role::of(r.key()), Some(r));
        }
        for a in Act::ALL {
            assert_eq!(serde_json::to_string(&a).unwrap(), format!("\"{}\"", a.key()));
        }
        assert_eq!(Role::of("king"), None);
    }

    #[test]
    fn each_role_may_no_more_than_the_one_before_it() {
        for pair in Role::ALL.windows(2) {
            for a in Act::ALL {
                assert!(pair[0].may(a) || !pair[1].may(a), "{:?} {a:?}", pair[1]);
            }
        }
        assert!(Role::Apprentice.may(Act::Turn) && !Role::Apprentice.may(Act::Gate));
        assert_eq!(Role::FrontDesk.acts(), [Act::Look, Act::Ticket]);
        assert!(Role::Owner.acts().len() == Act::ALL.len());
    }
}
