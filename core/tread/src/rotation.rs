//! Rotation plans: which tyre goes where, and what that does to the life of the set.
//!
//! A mounted wheel keeps its inner side inner wherever it goes; only turning the tyre on its rim mirrors it.

use super::forecast::STRIPS;
use super::log::TyrePlace;
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// How far a set is followed, km.
const FAR_KM: f64 = 400_000.0;

/// A pattern.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Rotation {
    /// Every tyre stays.
    Stay,
    /// Front and rear change on each side.
    SameSide,
    /// Left and right change on each axle.
    AcrossAxle,
    /// Fronts straight back, rears cross to the front.
    CrossForward,
    /// Rears straight forward, fronts cross to the rear.
    CrossRearward,
    /// Both cross.
    CrossBoth,
}

impl Rotation {
    /// All patterns.
    pub const ALL: [Self; 6] = [
        Self::Stay,
        Self::SameSide,
        Self::AcrossAxle,
        Self::CrossForward,
        Self::CrossRearward,
        Self::CrossBoth,
    ];

    /// Where the tyre of each place (in the order of [`TyrePlace::ALL`]) goes.
    #[must_use]
    pub fn goes_to(self) -> [TyrePlace; 4] {
        use TyrePlace::{LeftFront as LF, LeftRear as LR, RightFront as RF, RightRear as RR};
        match self {
            Self::Stay => [LF, RF, LR, RR],
            Self::SameSide => [LR, RR, LF, RF],
            Self::AcrossAxle => [RF, LF, RR, LR],
            Self::CrossForward => [LR, RR, RF, LF],
            Self::CrossRearward => [RR, LR, LF, RF],
            Self::CrossBoth => [RR, LR, RF, LF],
        }
    }

    /// What the shop calls it.
    #[must_use]
    pub fn name(self) -> Said {
        said(match self {
            Self::Stay => "rotation-stay",
            Self::SameSide => "rotation-same-side",
            Self::AcrossAxle => "rotation-across",
            Self::CrossForward => "rotation-cross-forward",
            Self::CrossRearward => "rotation-cross-rearward",
            Self::CrossBoth => "rotation-cross-both",
        })
    }

    /// Why it cannot be done with these tyres, if it cannot (common practice, no source).
    #[must_use]
    pub fn hindered(self, staggered: bool, directional: bool) -> Option<Said> {
        let to = self.goes_to();
        let moved = |f: fn(TyrePlace) -> bool| TyrePlace::ALL.iter().zip(to).any(|(a, b)| f(*a) != f(b));
        if staggered && moved(TyrePlace::front) {
            return Some(said("rotation-staggered"));
        }
        if directional && moved(TyrePlace::left) {
            return Some(said("rotation-directional"));
        }
        None
    }
}

/// What a pattern comes to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RotationPlan {
    /// Which.
    pub rotation: Rotation,
    /// What the shop calls it.
    pub name: Said,
    /// Where the tyre of each place goes: left front, right front, left rear, right rear.
    #[cfg_attr(feature = "openapi", schema(min_items = 4, max_items = 4))]
    pub goes_to: [TyrePlace; 4],
    /// Why it cannot be done; none when it can.
    pub hindered: Option<Said>,
    /// From now until the first tyre meets the limit, km.
    pub first_km: f64,
    /// TyrePlace that tyre sits at by then.
    pub first_place: TyrePlace,
    /// From now until the last of the four meets the limit, were each replaced alone, km.
    pub last_km: f64,
    /// First tyre's distance over that of leaving them.
    pub ratio: f64,
}

/// Follows the four tyres through a pattern. `rate` in mm per 1000 km by place, `left` the depth over the limit now,
/// by tyre, both in the order of [`TyrePlace::ALL`]. Returns each tyre's distance and where it sat, km.
fn follow(
    rotation: Rotation,
    every_km: f64,
    rate: &[[f64; STRIPS]; 4],
    left: &[[f64; STRIPS]; 4],
) -> [(f64, TyrePlace); 4] {
    let to = rotation.goes_to();
    let index = |p: TyrePlace| TyrePlace::ALL.iter().position(|q| *q == p).unwrap_or(0);
    std::array::from_fn(|tyre| {
        // The wheels are off now: the first change is made at once.
        let (mut at, mut km, mut left) = (index(to[tyre]), 0.0, left[tyre]);
        while km < FAR_KM {
            // Distance until the first strip is at the limit, if it stayed here.
            let here = (0..STRIPS)
                .map(|i| 1000.0 * left[i].max(0.0) / rate[at][i].max(1e-9))
                .fold(f64::INFINITY, f64::min);
            if here <= every_km || rotation == Rotation::Stay {
                return (km + here, TyrePlace::ALL[at]);
            }
            (0..STRIPS).for_each(|i| left[i] -= rate[at][i] * every_km / 1000.0);
            km += every_km;
            at = index(to[at]);
        }
        (km, TyrePlace::ALL[at])
    })
}

/// Every pattern, hindered ones too, best first; changed now and every `every_km` from here on.
#[must_use]
pub fn rotation_plans(
    rate: &[[f64; STRIPS]; 4],
    left: &[[f64; STRIPS]; 4],
    every_km: f64,
    staggered: bool,
    directional: bool,
) -> Vec<RotationPlan> {
    let first = |r: &[(f64, TyrePlace); 4]| {
        r.iter().copied().fold((f64::INFINITY, TyrePlace::LeftFront), |a, b| if b.0 < a.0 { b } else { a })
    };
    let stay = first(&follow(Rotation::Stay, every_km, rate, left)).0;
    let mut out: Vec<RotationPlan> = Rotation::ALL
        .into_iter()
        .map(|r| {
            let all = follow(r, every_km, rate, left);
            let (first_km, first_place) = first(&all);
            RotationPlan {
                rotation: r,
                name: r.name(),
                goes_to: r.goes_to(),
                hindered: r.hindered(staggered, directional),
                first_km,
                first_place,
                last_km: all.iter().map(|x| x.0).fold(0.0, f64::max),
                ratio: first_km / stay.max(1e-9),
            }
        })
        .collect();
    out.sort_by(|a, b| {
        a.hindered.is_some().cmp(&b.hindered.is_some()).then(b.first_km.total_cmp(&a.first_km))
    });
    out
}
