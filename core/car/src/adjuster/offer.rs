//! What a layout can have to turn: every kind with the places it fits, each as it usually is, and why a kind does not
//! fit. Sizes are what such adjusters usually have (common practice, no source), to be looked at and typed over.

use super::{Adjuster, AdjusterKind, ThreadLink};
use bold_stance_kinematics::edit::EccentricPoint;
use bold_stance_kinematics::geometry::{Layout, OnIt, Points};
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// What is turned, in the shop's terms: finer than how it works.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TurnKind {
    /// Eccentric cam at a pivot.
    Cam,
    /// Slotted hole at a pivot.
    Slot,
    /// Shims behind a pivot.
    Shims,
    /// Thread of a link or sleeve.
    Thread,
    /// Eccentric bolt between strut and knuckle.
    CamBolt,
    /// Slotted holes between strut and knuckle.
    StrutSlot,
    /// Plate under the strut's top.
    TopPlate,
    /// Offset bushing or pin at a pivot, clocked by hand.
    Bushing,
    /// Tapered shim between knuckle and hub.
    HubShim,
    /// Wedge between axle and spring.
    Wedge,
    /// Offset sleeve at an axle end's upper ball joint.
    Sleeve,
}

impl TurnKind {
    /// What kind of thing an adjuster is.
    #[must_use]
    pub fn of(a: &Adjuster) -> Self {
        match &a.kind {
            AdjusterKind::Eccentric { .. } => Self::Cam,
            AdjusterKind::Thread { .. } => Self::Thread,
            AdjusterKind::Slide { point: EccentricPoint::StrutTop, .. } => Self::TopPlate,
            AdjusterKind::Slide { .. } => Self::Slot,
            AdjusterKind::Shims { .. } => Self::Shims,
            AdjusterKind::Tilt { toe_per_camber, .. } if *toe_per_camber != 0.0 => Self::HubShim,
            AdjusterKind::Tilt { .. } => Self::StrutSlot,
            AdjusterKind::CamBolt { .. } => Self::CamBolt,
            AdjusterKind::Wedge { .. } => Self::Wedge,
            AdjusterKind::Sleeve { .. } => Self::Sleeve,
        }
    }

    /// Every kind, in the order it is offered.
    pub const ALL: [Self; 11] = [
        Self::Cam,
        Self::Slot,
        Self::Shims,
        Self::Thread,
        Self::CamBolt,
        Self::StrutSlot,
        Self::TopPlate,
        Self::Bushing,
        Self::HubShim,
        Self::Wedge,
        Self::Sleeve,
    ];

    /// The word in a file.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Cam => "cam",
            Self::Slot => "slot",
            Self::Shims => "shims",
            Self::Thread => "thread",
            Self::CamBolt => "cam_bolt",
            Self::StrutSlot => "strut_slot",
            Self::TopPlate => "top_plate",
            Self::Bushing => "bushing",
            Self::HubShim => "hub_shim",
            Self::Wedge => "wedge",
            Self::Sleeve => "sleeve",
        }
    }
}

/// A place a kind fits, with the adjuster as it usually is there; its name is the word of the place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Offered {
    /// What the place is called.
    pub place: Said,
    /// What the specialist may call it.
    pub name: Said,
    /// The adjuster.
    pub adjuster: Adjuster,
}

/// A kind with the places it fits on a layout.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Offer {
    /// Which kind.
    pub kind: TurnKind,
    /// Where it fits; empty when this layout has no place for it.
    pub places: Vec<Offered>,
    /// Why there is no place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub none: Option<Said>,
}

/// Usual throw of a cam, mm.
pub const USUAL_THROW_MM: f64 = 3.2;

/// An adjuster that nobody looked at yet; a thread or a stack counts from where it stands, wherever that is.
fn usual(name: &str, kind: AdjusterKind) -> Adjuster {
    let unseen = matches!(
        kind,
        AdjusterKind::Eccentric { .. }
            | AdjusterKind::CamBolt { .. }
            | AdjusterKind::Slide { .. }
            | AdjusterKind::Tilt { .. }
    );
    Adjuster {
        name: name.to_owned(),
        position: 0.0,
        unseen,
        locked: false,
        held: None,
        measured: false,
        known: None,
        kind,
    }
}

/// Along the car for the arms of a live axle, across it for every other pivot.
fn across(layout: Layout) -> [f64; 3] {
    if layout == Layout::SolidAxle { [1.0, 0.0, 0.0] } else { [0.0, 1.0, 0.0] }
}

fn cam(layout: Layout, point: &str, notches: Option<u32>) -> AdjusterKind {
    AdjusterKind::Eccentric {
        point: EccentricPoint::from(point.to_owned()),
        direction: across(layout),
        eccentricity_mm: USUAL_THROW_MM,
        min_deg: -90.0,
        max_deg: 90.0,
        notches_per_half_turn: notches,
    }
}

/// Thread of a link: a rod's end of 1.5 mm; a sleeve's two ends move twice that.
fn thread(link: &str) -> AdjusterKind {
    AdjusterKind::Thread {
        link: ThreadLink::from(link.to_owned()),
        pitch_mm: 1.5,
        ends: 1,
        turns: [-8.0, 8.0],
        engaged_mm: None,
        min_engaged_mm: None,
        left_hand: None,
    }
}

/// Pivots that an arm turns in: not the inner joint of the tie rod, not the top of a strut.
fn arm_pivots(on: &OnIt) -> Vec<&str> {
    let is_arm = |p: &&str| *p != on.tie_pivot && *p != "strut_top" && *p != "all" && !p.starts_with("leaf");
    on.pivots.iter().map(String::as_str).filter(is_arm).collect()
}

fn at(kind: TurnKind, layout: Layout, on: &OnIt) -> Vec<(String, AdjusterKind)> {
    let each = |f: &dyn Fn(&str) -> AdjusterKind| -> Vec<(String, AdjusterKind)> {
        arm_pivots(on).into_iter().map(|p| (p.to_owned(), f(p))).collect()
    };
    let one = |there: bool, word: &str, kind: AdjusterKind| {
        if there { vec![(word.to_owned(), kind)] } else { Vec::new() }
    };
    let point = |p: &str| EccentricPoint::from(p.to_owned());
    let slide = |p: &str, direction, by: f64| AdjusterKind::Slide {
        point: point(p),
        direction,
        range_mm: [-by, by],
        step_mm: None,
    };
    match kind {
        // A mark of a toe cam is worth half a degree: it is turned by the gauge, between marks.
        TurnKind::Cam => each(&|p| cam(layout, p, if p.starts_with("toe") { None } else { Some(8) })),
        TurnKind::Bushing => each(&|p| cam(layout, p, None)),
        TurnKind::Slot => each(&|p| slide(p, across(layout), 6.0)),
        // A stack between frame and shaft of an upper arm: thicker moves the arm inboard.
        TurnKind::Shims => arm_pivots(on)
            .into_iter()
            .filter(|p| p.starts_with("upper") && layout == Layout::DoubleWishbone)
            .map(|p| {
                let (direction, range_mm) = ([0.0, -1.0, 0.0], [-6.0, 6.0]);
                let kind = AdjusterKind::Shims { point: point(p), direction, range_mm, step_mm: 0.8 };
                (p.to_owned(), kind)
            })
            .collect(),
        TurnKind::Thread => {
            // What a whole arm's two links do together is told before each of them.
            let is_link = |t: &&String| !t.starts_with("leaf") && *t != "all";
            on.threads.iter().filter(is_link).map(|t| (t.clone(), thread(t))).collect()
        }
        TurnKind::CamBolt => one(
            on.clamp,
            "clamp",
            AdjusterKind::CamBolt {
                amplitude_deg: 1.75,
                min_deg: -90.0,
                max_deg: 90.0,
                notches_per_half_turn: Some(8),
            },
        ),
        TurnKind::StrutSlot => one(
            on.clamp,
            "clamp",
            AdjusterKind::Tilt { camber_deg: [-1.0, 1.0], step_deg: None, toe_per_camber: 0.0 },
        ),
        TurnKind::TopPlate => {
            if on.pivots.iter().any(|p| p == "strut_top") {
                vec![
                    ("strut_top".to_owned(), slide("strut_top", [0.0, 1.0, 0.0], 10.0)),
                    ("strut_top_along".to_owned(), slide("strut_top", [-1.0, 0.0, 0.0], 10.0)),
                ]
            } else {
                Vec::new()
            }
        }
        TurnKind::HubShim => one(
            !on.clamp && !on.axle_end,
            "hub",
            AdjusterKind::Tilt { camber_deg: [-1.5, 1.5], step_deg: Some(0.25), toe_per_camber: 0.0 },
        ),
        TurnKind::Wedge => {
            one(on.kingpin, "kingpin", AdjusterKind::Wedge { caster_deg: [-4.0, 4.0], step_deg: 0.5 })
        }
        TurnKind::Sleeve => {
            one(on.axle_end, "axle_end", AdjusterKind::Sleeve { amount_deg: 1.0, positions: 8 })
        }
    }
}

/// Why a kind has no place on a layout.
fn without(kind: TurnKind, layout: Layout) -> Said {
    match kind {
        TurnKind::CamBolt | TurnKind::StrutSlot | TurnKind::TopPlate => said("offer-no-strut"),
        TurnKind::Wedge => said("offer-no-live-axle"),
        TurnKind::Sleeve => said("offer-no-axle-end"),
        TurnKind::HubShim => said("offer-no-hub"),
        TurnKind::Shims => said("offer-no-upper-shaft"),
        TurnKind::Thread if layout == Layout::SingleArm || layout == Layout::TwistBeam => {
            said("offer-no-link")
        }
        TurnKind::Cam | TurnKind::Slot | TurnKind::Bushing | TurnKind::Thread => said("offer-no-pivot"),
    }
}

/// The place by a word of the language; `link` for a rod that goes by a name of its own.
fn place_word(word: &str, layout: Layout) -> &'static str {
    const PLACES: [&str; 17] = [
        "lower_front",
        "lower_rear",
        "upper_front",
        "upper_rear",
        "upper",
        "lower",
        "tie",
        "strut_top",
        "strut_top_along",
        "clamp",
        "hub",
        "kingpin",
        "axle_end",
        "track_bar",
        "drag_link",
        "toe_link",
        "camber_link",
    ];
    // The rods of a multi-link and of a live axle are links, not arms of two pivots.
    let rods = matches!(layout, Layout::FiveLink | Layout::SolidAxle);
    match PLACES.into_iter().find(|p| *p == word).unwrap_or("link") {
        "upper" if rods => "upper_links",
        "lower" if rods => "lower_links",
        "upper_front" | "upper_rear" | "lower_front" | "lower_rear" if rods => "link",
        "lower_front" | "lower_rear" if matches!(layout, Layout::SingleArm | Layout::TwistBeam) => {
            if word == "lower_front" { "hinge_outer" } else { "hinge_inner" }
        }
        known => known,
    }
}

/// What can be turned on an axle with these points, kind by kind.
#[must_use]
pub fn offers(points: &Points) -> Vec<Offer> {
    let (on, layout) = (points.on_it(), points.layout());
    TurnKind::ALL
        .into_iter()
        .map(|kind| {
            let places: Vec<Offered> = at(kind, layout, &on)
                .into_iter()
                .map(|(word, how)| {
                    let place = said("turn-place")
                        .word("place", place_word(&word, layout))
                        .name("link", word.replace('_', " "));
                    Offered {
                        name: said("offer-name").word("kind", kind.word()).say("place", place.clone()),
                        place,
                        adjuster: usual(&word, how),
                    }
                })
                .collect();
            let none = places.is_empty().then(|| without(kind, layout));
            Offer { kind, places, none }
        })
        .collect()
}

/// Where an adjuster sits on the left, mm in the geometry's own axes: the pivot, the middle of the link, the foot of
/// the strut, the wheel's hub; none where its point is not there.
#[must_use]
pub fn spot_of(a: &Adjuster, points: &Points, hub: [f64; 3]) -> Option<[f64; 3]> {
    let mut copy = points.clone();
    let names = points.names();
    let all: Vec<([f64; 3], &str)> =
        copy.all_mut().into_iter().map(|p| *p).zip(names.iter().map(|(n, _)| n.as_str())).collect();
    let find = |path: &str| all.iter().find(|(_, n)| *n == path).map(|(p, _)| *p);
    let mean = |list: &[[f64; 3]]| -> Option<[f64; 3]> {
        let n = list.len() as f64;
        (!list.is_empty()).then(|| [0, 1, 2].map(|i| list.iter().map(|p| p[i]).sum::<f64>() / n))
    };
    // A link by its own name, or the left one of a pair.
    let link = |name: &str, end: &str| {
        let of = |n: &str| find(&format!("links.{n}.{end}"));
        of(name).or_else(|| of(&format!("{name}_left"))).or_else(|| of(&format!("{name}_front")))
    };
    let ends = |name: &str, list: [&str; 2]| {
        let both: Vec<_> = list.iter().filter_map(|e| link(name, e)).collect();
        mean(&both)
    };
    let pivot = |word: &str| {
        find(&format!("points.{word}")).or_else(|| link(word, "inner")).or_else(|| link(word, "chassis"))
    };
    match &a.kind {
        AdjusterKind::Eccentric { point, .. }
        | AdjusterKind::Slide { point, .. }
        | AdjusterKind::Shims { point, .. } => pivot(point.word()).or_else(|| match point.word() {
            // The two ends of a hinge go by the names of a lower arm's pivots.
            "lower_front" => find("points.arm_outer").or_else(|| find("points.pivot_left")),
            "lower_rear" => find("points.arm_inner").or_else(|| find("points.pivot_left")),
            _ => None,
        }),
        AdjusterKind::Thread { link: which, .. } => {
            let word = which.word();
            let arm = |arm: &str, ends: &[&str]| {
                let inner: Vec<_> = ends.iter().filter_map(|e| find(&format!("points.{arm}_{e}"))).collect();
                let outer = find(&format!("points.{arm}_outer"));
                mean(&[mean(&inner)?, outer?])
            };
            let on_arm = match word {
                "upper" | "lower" => arm(word, &["front", "rear"]),
                "tie" => find("points.tie_inner")
                    .zip(find("points.tie_outer"))
                    .and_then(|(a, b)| mean(&[a, b]))
                    .or_else(|| ends("tie", ["inner", "outer"])),
                _ => word.rsplit_once('_').and_then(|(a, end)| arm(a, &[end])),
            };
            on_arm
                .or_else(|| ends(word, ["inner", "outer"]))
                .or_else(|| ends(word, ["chassis", "axle"]))
                .or_else(|| find("tie_rod.left"))
        }
        AdjusterKind::CamBolt { .. } => find("points.strut_bottom"),
        AdjusterKind::Tilt { .. } => find("points.strut_bottom").or(Some(hub)),
        AdjusterKind::Wedge { .. } | AdjusterKind::Sleeve { .. } => Some(hub),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::adjuster::{adjuster_problems, adjusters_not_there};
    use crate::archetype::shipped_archetypes;

    #[test]
    fn everything_offered_is_on_the_car_and_sits_somewhere_and_the_rest_says_why() {
        for shape in shipped_archetypes().unwrap() {
            let (points, hub) = (&shape.geometry.points, shape.geometry.wheel.center);
            for offer in offers(points) {
                assert_eq!(offer.places.is_empty(), offer.none.is_some(), "{} {:?}", shape.id, offer.kind);
                for p in offer.places {
                    let a = std::slice::from_ref(&p.adjuster);
                    assert!(adjuster_problems(a).is_empty(), "{} {:?}", shape.id, adjuster_problems(a));
                    assert!(adjusters_not_there(a, points).is_empty(), "{} {:?}", shape.id, p.adjuster);
                    let at = spot_of(&p.adjuster, points, hub);
                    assert!(at.is_some_and(|p| p[1] > -900.0), "{} {:?} {at:?}", shape.id, p.adjuster);
                }
            }
        }
    }

    #[test]
    fn a_layout_is_offered_what_such_cars_have() {
        let kinds = |id: &str| -> Vec<&'static str> {
            let g = shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry;
            offers(&g.points).iter().filter(|o| o.none.is_none()).map(|o| o.kind.word()).collect()
        };
        assert_eq!(kinds("half_ton_front"), ["cam", "slot", "shims", "thread", "bushing", "hub_shim"]);
        assert!(kinds("compact_strut_front").contains(&"top_plate"));
        assert!(!kinds("half_ton_front").contains(&"cam_bolt"));
        assert!(kinds("live_front").contains(&"sleeve") && kinds("live_front").contains(&"wedge"));
        assert_eq!(kinds("twist_beam_rear"), ["cam", "slot", "bushing", "hub_shim"]);
    }
}
