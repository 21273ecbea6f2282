//! What turning for height and settling taught on the shop's cars: what a turn of a collar or bolt really gives, and how far
//! each way of changing height settles.

use super::{Beliefs, DUMB_SD, of_one_car, pooled_by};
use crate::plan::{TurnKnown, Turned, TurnsKnown, Way, WayKind};
use bold_stance_car::vehicle::{SETTLED_SD_MM, learn_per_turn};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::{HalfWidth, Sigma};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// What is believed of how far a way settles before anybody saw it, of one car beside another, and at least, mm (judgement, no
/// source).
const SETTLES: Beliefs = Beliefs { about: 10.0, apart: 4.0, least: 1.5 };
/// As wide as no turn is, standard deviation, mm.
const NOTHING_MM: f64 = 1e6;

/// What turns of one axle gave.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct TurnTrial {
    /// What was turned.
    pub by: Turned,
    /// Axle.
    pub axle: Axle,
    /// ln of the settled height of a turn over what is usual for it.
    pub ln_times: f64,
    /// Standard deviation of that.
    pub sd: f64,
}

impl TurnTrial {
    /// From turns and what each gave, mm settled; none where they say too little of it, or a collar's ratio is not known here.
    #[must_use]
    pub fn of(by: Turned, axle: Axle, gave: &[(f64, f64)]) -> Option<Self> {
        // By these turns alone: before them next to nothing is believed.
        let per = learn_per_turn((0.0, NOTHING_MM), gave);
        let (usual, sd) = (by.usual_mm(), per.sigma_mm / per.mm);
        let told = by.is_told() && per.mm > 0.0 && sd < DUMB_SD;
        told.then(|| Self { by, axle, ln_times: (per.mm / usual).ln(), sd })
    }
}

/// How far one corner settled before its first return.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct SettleTrial {
    /// The way its height was had; none where nobody said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub way: Option<WayKind>,
    /// Axle.
    pub axle: Axle,
    /// Side.
    pub side: Side,
    /// Lower than it left, mm.
    pub mm: f64,
}

/// What a car taught of height after it was set.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct HeightsTaught {
    /// When it was written down, UTC.
    pub at: DateTime<Utc>,
    /// What turns gave.
    #[serde(default)]
    pub turns: Vec<TurnTrial>,
    /// How far corners settled.
    #[serde(default)]
    pub settled: Vec<SettleTrial>,
}

/// How far a way of changing height settles, as the shop knows it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct KnownSettle {
    /// The way; none where nobody said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub way: Option<WayKind>,
    /// Settles by, mm.
    pub mm: f64,
    /// Standard deviation of the next car's, mm.
    pub sd: f64,
    /// Ends of nine in ten of the next car, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub between: [f64; 2],
    /// Cars it rests on.
    pub cars: u32,
}

/// What the shop knows of height.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct KnownHeights {
    /// What turns give.
    pub turns: TurnsKnown,
    /// How far each way settles, those of most cars first.
    pub settles: Vec<KnownSettle>,
}

impl KnownHeights {
    /// What cars taught that were written down before a time; all of them where none is told.
    #[must_use]
    pub fn of(cars: &[HeightsTaught], before: Option<DateTime<Utc>>) -> Self {
        let cars = || cars.iter().filter(|c| before.is_none_or(|t| c.at < t));
        let turns = |collar: bool| {
            let of_car = |c: &HeightsTaught| {
                let own = c.turns.iter().filter(|t| matches!(t.by, Turned::Collar { .. }) == collar);
                let own: Vec<_> = own.map(|t| (t.ln_times, t.sd)).collect();
                (!own.is_empty()).then(|| of_one_car(&own))
            };
            let own: Vec<_> = cars().filter_map(of_car).collect();
            let p = pooled_by(&own, super::PART)?;
            Some(TurnKnown {
                times: p.mean.exp(),
                sd: p.next_sd(),
                between: super::between(p.mean, p.next_sd()),
                cars: own.len() as u32,
            })
        };
        let mut by_way: BTreeMap<Option<WayKind>, Vec<(f64, f64)>> = BTreeMap::new();
        for c in cars() {
            let mut own: BTreeMap<Option<WayKind>, Vec<(f64, f64)>> = BTreeMap::new();
            for s in &c.settled {
                own.entry(s.way).or_default().push((s.mm, SETTLED_SD_MM));
            }
            own.into_iter().for_each(|(way, list)| by_way.entry(way).or_default().push(of_one_car(&list)));
        }
        let known = |(way, list): (Option<WayKind>, Vec<(f64, f64)>)| {
            let p = pooled_by(&list, SETTLES)?;
            let HalfWidth(half) = Sigma(p.next_sd()).half_width();
            let between = [p.mean - half, p.mean + half];
            Some(KnownSettle { way, mm: p.mean, sd: p.next_sd(), between, cars: list.len() as u32 })
        };
        let mut settles: Vec<KnownSettle> = by_way.into_iter().filter_map(known).collect();
        settles.sort_by_key(|s| std::cmp::Reverse(s.cars));
        Self { turns: TurnsKnown { collar: turns(true), torsion_bolt: turns(false) }, settles }
    }

    /// Whether nothing is known.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }

    /// How far an axle settles whose height was had so.
    #[must_use]
    pub fn settle(&self, ways: &[Way]) -> Option<&KnownSettle> {
        let way = most_of(ways);
        self.settles.iter().find(|s| s.way == way)
    }
}

/// The way that changes most of a height; none where none was named.
#[must_use]
pub fn most_of(ways: &[Way]) -> Option<WayKind> {
    ways.iter().max_by(|a, b| a.gain_mm.abs().total_cmp(&b.gain_mm.abs())).map(|w| w.kind)
}

#[cfg(test)]
mod tests {
    use super::*;
    use chrono::TimeZone;

    fn car(day: u32, turns: Vec<TurnTrial>, settled: &[f64]) -> HeightsTaught {
        let of = |mm: &f64| SettleTrial {
            way: Some(WayKind::Spring),
            axle: Axle::Front,
            side: Side::Left,
            mm: *mm,
        };
        let at = Utc.with_ymd_and_hms(2026, 11, day, 8, 0, 0).unwrap();
        HeightsTaught { at, turns, settled: settled.iter().map(of).collect() }
    }

    const COLLAR: Turned = Turned::Collar { pitch_mm: Some(2.0), motion_ratio: Some(0.8) };

    #[test]
    fn turns_that_say_too_little_are_no_trial() {
        // 2 mm a turn over 0.8 is 2.5 mm; four turns gave 8 mm: 2 mm each, 0.8 of it, 2 mm over 4 turns in doubt.
        let t = TurnTrial::of(COLLAR, Axle::Front, &[(4.0, 8.0)]).unwrap();
        assert!((t.ln_times - 0.8f64.ln()).abs() < 1e-9 && (t.sd - 0.25).abs() < 1e-9, "{t:?}");
        let untold = Turned::Collar { pitch_mm: None, motion_ratio: None };
        assert!(TurnTrial::of(untold, Axle::Front, &[(8.0, 16.0)]).is_none(), "a ratio nobody told");
        for dumb in [&[(1.0, 2.0)][..], &[(4.0, -3.0)], &[]] {
            assert!(TurnTrial::of(COLLAR, Axle::Front, dumb).is_none(), "{dumb:?}");
        }
    }

    #[test]
    fn settling_is_pooled_by_the_way_and_as_of_a_time() {
        let cars =
            [car(1, Vec::new(), &[6.0, 8.0]), car(2, Vec::new(), &[9.0]), car(3, Vec::new(), &[7.0, 7.0])];
        let k = KnownHeights::of(&cars, None);
        let ways =
            [Way { kind: WayKind::Spacer, gain_mm: 5.0 }, Way { kind: WayKind::Spring, gain_mm: -30.0 }];
        let s = k.settle(&ways).unwrap();
        assert!(
            s.cars == 3 && (s.mm - 7.4).abs() < 0.4 && s.between[0] < s.mm && s.between[1] > 9.0,
            "{s:?}"
        );
        assert!(k.settle(&[]).is_none(), "nobody said how");
        let first = KnownHeights::of(&cars, Some(cars[1].at));
        assert_eq!(first.settle(&ways).unwrap().cars, 1);
        assert!(first.settle(&ways).unwrap().sd > s.sd, "more cars, less doubt");
        assert!(KnownHeights::of(&cars, Some(cars[0].at)).is_empty());
    }

    #[test]
    fn a_turn_is_known_by_what_is_turned() {
        let give = |mm: f64| TurnTrial::of(COLLAR, Axle::Rear, &[(8.0, 8.0 * mm)]).into_iter().collect();
        let cars = [car(1, give(2.0), &[]), car(2, give(2.1), &[]), car(3, give(1.9), &[])];
        let k = KnownHeights::of(&cars, None);
        let t = k.turns.of(COLLAR).unwrap();
        assert!(t.cars == 3 && (t.times - 0.8).abs() < 0.02 && t.sd < 0.15, "{t:?}");
        assert!(k.turns.of(Turned::TorsionBolt).is_none());
    }
}
