//! What can be turned on a car as it was found: both sides, told apart where they differ.

use super::{Adjuster, AdjusterKind, Held, adjuster_problems};
use bold_stance_kinematics::geometry::Side;
use bold_stance_units::problem::{Problem, in_range};
use serde::{Deserialize, Serialize};

/// How an adjuster stands on the right, where it stands otherwise than on the left.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
// A plan of a car has stands too: two types of one name would be one in the description.
#[cfg_attr(feature = "openapi", schema(as = SideStands))]
#[serde(deny_unknown_fields)]
pub struct Stands {
    /// Where it stands: degrees, turns or mm as the kind has it.
    #[serde(default)]
    pub position: f64,
    /// Nobody looked where it stands.
    #[serde(default)]
    pub unseen: bool,
    /// What holds it.
    #[serde(default)]
    pub held: Option<Held>,
    /// Lowest and highest position on this side, where it has less or more room than the other.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub room: Option<[f64; 2]>,
}

/// An adjuster of both wheels of an axle.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FoundAdjuster {
    /// How it works, and how it stands on the left; on the right too while nothing else is told.
    #[serde(flatten)]
    pub adjuster: Adjuster,
    /// How it stands on the right where that differs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub right: Option<Stands>,
}

impl From<Adjuster> for FoundAdjuster {
    fn from(adjuster: Adjuster) -> Self {
        Self { adjuster, right: None }
    }
}

impl FoundAdjuster {
    /// The adjuster as it stands on a side.
    #[must_use]
    pub fn on(&self, side: Side) -> Adjuster {
        let mut out = self.adjuster.clone();
        if let (Side::Right, Some(r)) = (side, &self.right) {
            (out.position, out.unseen, out.held) = (r.position, r.unseen, r.held);
            if let Some(room) = r.room {
                out.kind.set_room(room);
            }
        }
        out
    }

    /// Whether it cannot be turned on either side.
    #[must_use]
    pub fn is_fixed(&self) -> bool {
        Side::BOTH.iter().all(|s| self.on(*s).is_fixed())
    }
}

impl AdjusterKind {
    /// Gives it another lowest and highest position; what goes round has none to set.
    pub fn set_room(&mut self, room: [f64; 2]) {
        match self {
            Self::Eccentric { min_deg, max_deg, .. } | Self::CamBolt { min_deg, max_deg, .. } => {
                [*min_deg, *max_deg] = room;
            }
            Self::Thread { turns, .. } => *turns = room,
            Self::Slide { range_mm, .. } | Self::Shims { range_mm, .. } => *range_mm = room,
            Self::Tilt { camber_deg, .. } => *camber_deg = room,
            Self::Wedge { caster_deg, .. } => *caster_deg = room,
            Self::Sleeve { .. } => {}
        }
    }
}

/// What is wrong with a list of them, by field under `adjusters`; the right's own under `adjusters.N.right`.
#[must_use]
pub fn found_problems(list: &[FoundAdjuster]) -> Vec<Problem> {
    let left: Vec<Adjuster> = list.iter().map(|f| f.on(Side::Left)).collect();
    let mut out = adjuster_problems(&left);
    for (i, f) in list.iter().enumerate() {
        let Some(r) = &f.right else { continue };
        let at = |field: &str| format!("adjusters.{i}.right.{field}");
        out.extend(in_range(&at("position"), r.position, -360.0, 360.0, "° , turns or mm").err());
        if r.room.is_some() {
            let right = adjuster_problems(&[f.on(Side::Right)]);
            // Only what the other room made wrong: the rest was said of the left.
            let said: Vec<String> =
                adjuster_problems(&[f.on(Side::Left)]).into_iter().map(|p| p.field).collect();
            let new = right.into_iter().filter(|p| !said.contains(&p.field));
            out.extend(new.map(|p| Problem::new(at("room"), p.wrong, p.right)));
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::adjuster::default_adjusters;

    #[test]
    fn sides_are_alike_until_one_is_told_apart() {
        let mut f = FoundAdjuster::from(default_adjusters(3.2).remove(0));
        f.adjuster.position = 22.5;
        assert_eq!(f.on(Side::Left), f.on(Side::Right));
        f.right = Some(Stands {
            position: -45.0,
            held: Some(Held::Seized),
            room: Some([-45.0, 90.0]),
            ..Stands::default()
        });
        let right = f.on(Side::Right);
        assert_eq!((right.position, right.range(), right.built_range()), (-45.0, [-45.0; 2], [-45.0, 90.0]));
        assert_eq!((f.on(Side::Left).position, f.on(Side::Left).is_fixed()), (22.5, false));
        assert!(!f.is_fixed(), "the left one still turns");
        let back: FoundAdjuster = serde_json::from_value(serde_json::to_value(&f).unwrap()).unwrap();
        assert_eq!(back, f);
    }

    #[test]
    fn a_list_as_it_was_kept_before_sides_were_told_apart_is_read() {
        let list = default_adjusters(3.2);
        let back: Vec<FoundAdjuster> = serde_json::from_value(serde_json::to_value(&list).unwrap()).unwrap();
        assert_eq!(back.iter().map(|f| f.on(Side::Right)).collect::<Vec<_>>(), list);
    }

    #[test]
    fn a_room_with_nothing_in_it_is_named_on_its_side() {
        let mut f = FoundAdjuster::from(default_adjusters(3.2).remove(2));
        f.right = Some(Stands { room: Some([4.0, 4.0]), ..Stands::default() });
        let fields: Vec<_> = found_problems(&[f]).into_iter().map(|p| p.field).collect();
        assert_eq!(fields, ["adjusters.0.right.room"]);
    }
}
