//! Every order of a car in the order in which it is turned: rear before front, what is one for both wheels once, what moves
//! camber before what moves toe.

use crate::plan::line::SettingLine;
use crate::plan::result::PlanResult;
use crate::plan::square::Square;
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::{Axle, Side};
use serde::{Deserialize, Serialize};

/// One thing to turn.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Order {
    /// Which axle.
    pub axle: Axle,
    /// Which side; none for what is one for both wheels of an axle.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// What to do to it.
    pub line: SettingLine,
}

/// Orders of one axle: everything but toe, then toe; each as a block of what is shared, left, right.
#[must_use]
pub fn orders_of(axle: Axle, r: &PlanResult) -> Vec<Order> {
    let sides = Sides { left: &r.left, right: &r.right };
    let mut out = Vec::new();
    // Squared first; arms that are turned for caster too are told once, with both in one figure.
    let square = r.square.iter().filter(|s| s.arms.each().iter().any(|(_, l)| l.is_some()));
    let pair = square.clone().find_map(|s| s.pair.clone());
    out.extend(square.flat_map(|s| arms(axle, s)));
    let told = |l: &&SettingLine| pair.as_ref().is_none_or(|p| l.name != *p);
    for toe in [false, true] {
        let shared = r.left.setting.iter().filter(|l| l.shared && l.sets_toe == toe && !is_arm(r, l));
        let shared = shared.filter(told);
        out.extend(shared.map(|l| Order { axle, side: None, line: l.clone() }));
        for (side, p) in sides.each() {
            let own = p.setting.iter().filter(|l| !l.shared && l.sets_toe == toe);
            out.extend(own.map(|l| Order { axle, side: Some(side), line: l.clone() }));
        }
    }
    out
}

/// Whether a line is of an arm that is ordered for squaring already.
fn is_arm(r: &PlanResult, l: &SettingLine) -> bool {
    let arms = || r.square.iter().flat_map(|s| s.arms.each());
    arms().any(|(_, a)| a.as_ref().is_some_and(|a| a.name == l.name))
}

/// The lower arms that square an axle.
fn arms(axle: Axle, s: &Square) -> Vec<Order> {
    let one = |(side, line): (Side, &Option<SettingLine>)| {
        let line = line.clone()?;
        Some(Order { axle, side: (!line.shared).then_some(side), line })
    };
    s.arms.each().into_iter().filter_map(one).collect()
}

/// Orders of a car.
#[must_use]
pub fn orders(axles: &Axles<Option<PlanResult>>) -> Vec<Order> {
    axles.rear_first().into_iter().flat_map(|(a, r)| r.iter().flat_map(move |r| orders_of(a, r))).collect()
}
