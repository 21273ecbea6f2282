//! The picture of the state: the proposed order of a visit, what is missing for the decision in hand, and the
//! car's current numbers with what has made them stale.

use super::method::Method;
use super::quantity::{Place, Quantity, ReadAxle, ReadSide, Visit};
use super::scene::{Scene, Seen};
use super::suspicion::stale_because;
use super::ticket::Wanted;
use bold_stance_kinematics::geometry::{Axle, Layout, Side};
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// Part of the order.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Group {
    /// What this ticket is for comes before all.
    First,
    /// Heights first.
    Heights,
    /// Rear before front.
    Rear,
    /// Camber and caster, toe last.
    Front,
    /// Whatever else helps.
    More,
}

/// A number of the picture.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Figure {
    /// What.
    pub quantity: Quantity,
    /// Where.
    pub place: Place,
    /// Degrees, mm or kPa.
    pub value: f64,
    /// Standard deviation.
    pub sigma: f64,
    /// How it was read.
    pub method: Method,
    /// At which visit.
    pub visit: Visit,
    /// The reading it comes from.
    pub reading: String,
    /// When, seconds since 1970.
    pub at: i64,
    /// Why it no longer holds.
    pub stale: Option<Said>,
    /// Half of both wheels, not read by itself.
    pub shared: bool,
}

/// One line of the order.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct OrderItem {
    /// Part of the order.
    pub group: Group,
    /// What.
    pub quantity: Quantity,
    /// Where.
    pub place: Place,
    /// The decision in hand waits for it.
    pub needed: bool,
    /// What was read at this visit.
    pub figure: Option<Figure>,
}

/// A figure of two sides or both axles.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Derived {
    /// Stable word.
    pub id: String,
    /// What it is called.
    pub label: Said,
    /// Degrees or mm.
    pub value: f64,
    /// Standard deviation.
    pub sigma: f64,
    /// Degrees, else mm.
    pub is_angle: bool,
    /// One of its readings is stale.
    pub stale: bool,
    /// What the sign means.
    pub words: Said,
}

/// The picture of a visit.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Picture {
    /// What waits: to plan, to set cams or tie rods, to sign off, to compare.
    pub decision: Said,
    /// Everything that can be read, in the proposed order.
    pub order: Vec<OrderItem>,
    /// Position in the order of what comes next.
    pub next: Option<usize>,
    /// What the decision still waits for, in words.
    pub missing: Vec<Said>,
    /// The car's current numbers: the newest of any visit up to this one.
    pub current: Vec<Figure>,
    /// Figures of two sides or both axles.
    pub derived: Vec<Derived>,
}

/// Sides and axles in the order they are walked round.
const SIDES: [Side; 2] = Side::BOTH;

fn figure(s: &Scene<'_>, r: &Seen, place: Place, quantity: Quantity) -> Figure {
    let shared = r.quantity == Quantity::TotalToe && quantity == Quantity::Toe;
    let half = if shared { 0.5 } else { 1.0 };
    Figure {
        quantity,
        place,
        value: r.value * half,
        sigma: r.sigma * half,
        method: r.method,
        visit: r.visit,
        reading: r.id.clone(),
        at: r.at,
        stale: stale_because(s, r),
        shared,
    }
}

/// What was read of a quantity at a visit.
fn read_at(s: &Scene<'_>, visit: Visit, q: Quantity, place: Place) -> Option<Figure> {
    if q == Quantity::Toe {
        let (axle, side) = place.as_wheel()?;
        return s.toe(visit, axle, side).map(|(_, _, r)| figure(s, r, place, q));
    }
    s.standing(visit, q, place).map(|r| figure(s, r, place, q))
}

/// The picture of the visit in hand.
#[must_use]
pub fn picture(s: &Scene<'_>) -> Picture {
    let rear = s.car.is_some_and(|c| c.car.rear.is_some());
    let wants = s.kind.wanted(s.visit, rear);
    // A live axle alone is centred.
    let centred = |axle: Axle| {
        s.car.is_none_or(|c| {
            let g = if axle == Axle::Front { Some(&c.car.front) } else { c.car.rear.as_ref() };
            g.is_some_and(|g| g.layout() == Layout::SolidAxle)
        })
    };
    let mut order = Vec::new();
    let mut add = |group, quantity, place: Place| {
        let wanted = |w: &Wanted| w.quantity == quantity && (w.axle.is_none() || w.axle == place.one_axle());
        let there = quantity != Quantity::AxleOffset || place.one_axle().is_some_and(centred);
        // What a ticket is for is read first; a height its car has not, last.
        let group = match group {
            Group::More if s.visit == Visit::Found && there && s.kind.first().contains(&quantity) => {
                Group::First
            }
            Group::Heights if quantity != s.kind.height() => Group::More,
            g => g,
        };
        // Any tape tells a height.
        let tapes = [Quantity::Height, Quantity::FloorToArch, Quantity::FloorToFrame];
        let told = tapes.contains(&quantity)
            && tapes.iter().any(|q| *q != quantity && read_at(s, s.visit, *q, place).is_some());
        let needed = there && !told && wants.iter().any(wanted);
        let figure = read_at(s, s.visit, quantity, place);
        order.push(OrderItem { group, quantity, place, needed, figure });
    };
    let wheels = |axle: Axle| SIDES.map(|side| Place::wheel(axle, side));
    for place in [Axle::Front, Axle::Rear].into_iter().flat_map(wheels) {
        add(Group::Heights, Quantity::Height, place);
    }
    for (group, axle, list) in [
        (Group::Rear, Axle::Rear, &[Quantity::Camber, Quantity::Toe][..]),
        (Group::Front, Axle::Front, &[Quantity::Camber, Quantity::Caster, Quantity::Toe][..]),
    ] {
        list.iter().for_each(|q| wheels(axle).into_iter().for_each(|p| add(group, *q, p)));
    }
    for q in [
        Quantity::TreadDepth,
        Quantity::Pressure,
        Quantity::RimRunout,
        Quantity::FloorToArch,
        Quantity::FloorToFrame,
    ] {
        for place in [Axle::Front, Axle::Rear].into_iter().flat_map(wheels) {
            add(Group::More, q, place);
        }
    }
    for q in [Quantity::Wheelbase, Quantity::Diagonal] {
        for side in [ReadSide::Left, ReadSide::Right] {
            add(Group::More, q, Place { axle: ReadAxle::Both, side });
        }
    }
    for axle in [ReadAxle::Front, ReadAxle::Rear] {
        add(Group::More, Quantity::AxleOffset, Place { axle, side: ReadSide::Both });
    }
    for q in [Quantity::SetBack, Quantity::Thrust] {
        add(Group::More, q, Place { axle: ReadAxle::Both, side: ReadSide::Both });
    }
    // A stable sort: the order within a group stays.
    order.sort_by_key(|i: &OrderItem| i.group);
    let open = |i: &OrderItem| i.figure.as_ref().is_none_or(|f| f.stale.is_some());
    let next = order
        .iter()
        .position(|i| i.needed && open(i))
        .or_else(|| order.iter().position(|i| i.group != Group::More && open(i)));
    let missing = order
        .iter()
        .filter(|i| i.needed && i.figure.is_none())
        .map(|i| i.place.reading(i.quantity))
        .collect();
    let current: Vec<Figure> = order.iter().filter_map(|i| newest(s, i)).collect();
    Picture { decision: s.kind.waits(s.visit), derived: derived(s, &current), order, next, missing, current }
}

fn newest(s: &Scene<'_>, i: &OrderItem) -> Option<Figure> {
    Visit::ALL.iter().rev().filter(|v| **v <= s.visit).find_map(|v| read_at(s, *v, i.quantity, i.place))
}

fn derived(s: &Scene<'_>, current: &[Figure]) -> Vec<Derived> {
    let get = |q, axle, side| {
        let place = Place::wheel(axle, side);
        current.iter().find(|f| f.quantity == q && f.place == place)
    };
    let mut out = Vec::new();
    let mut two = |id: &str, label: Said, q, axle, signs: [f64; 2], words: &dyn Fn(f64) -> Said| {
        let (Some(l), Some(r)) = (get(q, axle, Side::Left), get(q, axle, Side::Right)) else { return };
        let value = signs[0] * l.value + signs[1] * r.value;
        let scale = signs[0].abs();
        // Both halves of one total are one reading, not two.
        let sigma = if l.shared && l.reading == r.reading {
            if signs[0] == signs[1] { 2.0 * l.sigma * scale } else { l.sigma * std::f64::consts::SQRT_2 }
        } else {
            l.sigma.hypot(r.sigma) * scale
        };
        out.push(Derived {
            id: id.into(),
            label,
            value,
            sigma,
            is_angle: q != Quantity::Height,
            stale: l.stale.is_some() || r.stale.is_some(),
            words: words(value),
        });
    };
    let side = |v: f64| if v > 0.0 { said("lean-left-higher") } else { said("lean-right-higher") };
    let more = |v: f64| if v > 0.0 { said("lean-left-more") } else { said("lean-right-more") };
    let gap = |axle: Axle| said("derived-height-gap").word("axle", axle.word());
    let both = |axle: Axle| said("derived-total-toe").word("axle", axle.word());
    two("height_gap_front", gap(Axle::Front), Quantity::Height, Axle::Front, [1.0, -1.0], &side);
    two("height_gap_rear", gap(Axle::Rear), Quantity::Height, Axle::Rear, [1.0, -1.0], &side);
    two("cross_camber", said("derived-cross-camber"), Quantity::Camber, Axle::Front, [1.0, -1.0], &more);
    two("cross_caster", said("derived-cross-caster"), Quantity::Caster, Axle::Front, [1.0, -1.0], &more);
    let toe = |v: f64| super::words(Quantity::TotalToe, v);
    two("total_toe_front", both(Axle::Front), Quantity::Toe, Axle::Front, [1.0, 1.0], &toe);
    two("total_toe_rear", both(Axle::Rear), Quantity::Toe, Axle::Rear, [1.0, 1.0], &toe);
    let rear = |side| get(Quantity::Toe, Axle::Rear, side).is_some_and(|f| !f.shared);
    if rear(Side::Left) && rear(Side::Right) {
        two("thrust", said("derived-thrust"), Quantity::Toe, Axle::Rear, [0.5, -0.5], &|v| {
            super::words(Quantity::Thrust, v)
        });
    }
    for side in SIDES {
        let sai = s.newest(Quantity::Caster, Place::wheel(Axle::Front, side)).and_then(|r| {
            let camber = get(Quantity::Camber, Axle::Front, side)?;
            Some((r.also("sai_deg")?, camber))
        });
        if let Some((sai, camber)) = sai {
            out.push(Derived {
                id: format!("included_{}", side.word()),
                label: said("derived-included").word("side", side.word()),
                value: sai + camber.value,
                sigma: camber.sigma.hypot(0.3),
                is_angle: true,
                stale: camber.stale.is_some(),
                words: said("lean-included"),
            });
        }
    }
    let wheelbase = |side| {
        let place = Place { axle: ReadAxle::Both, side };
        current.iter().find(|f| f.quantity == Quantity::Wheelbase && f.place == place)
    };
    if let (Some(l), Some(r)) = (wheelbase(ReadSide::Left), wheelbase(ReadSide::Right)) {
        let v = l.value - r.value;
        out.push(Derived {
            id: "wheelbase_gap".into(),
            label: said("derived-wheelbase-gap"),
            value: v,
            sigma: l.sigma.hypot(r.sigma),
            is_angle: false,
            stale: l.stale.is_some() || r.stale.is_some(),
            words: if v > 0.0 { said("lean-left-longer") } else { said("lean-right-longer") },
        });
    }
    out
}
