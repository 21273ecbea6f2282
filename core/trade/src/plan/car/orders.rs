//! Every order of a car in the order in which it is turned: rear before front, what is one for both wheels once, what moves
//! camber before what moves toe.

use crate::plan::bench::SettingLine;
use crate::plan::result::PlanResult;
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
    for toe in [false, true] {
        let shared = r.left.setting.iter().filter(|l| l.shared && l.sets_toe == toe);
        out.extend(shared.map(|l| Order { axle, side: None, line: l.clone() }));
        for (side, p) in sides.each() {
            let own = p.setting.iter().filter(|l| !l.shared && l.sets_toe == toe);
            out.extend(own.map(|l| Order { axle, side: Some(side), line: l.clone() }));
        }
    }
    out
}

/// Orders of a car.
#[must_use]
pub fn orders(axles: &Axles<Option<PlanResult>>) -> Vec<Order> {
    axles.rear_first().into_iter().flat_map(|(a, r)| r.iter().flat_map(move |r| orders_of(a, r))).collect()
}
