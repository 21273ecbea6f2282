//! The search over a car: a band of heights, sets of parts for both axles, money and hours together; a few named
//! trade-offs instead of one list for each axle.

use super::super::car::CarInput;
use super::{Filters, Progress, SetPlan, search_car};
use crate::part::{Part, Rule};
use bold_stance_car::vehicle::Axles;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_tread::CarTyres;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// Heights looked at in a band of one axle.
const HEIGHTS: usize = 4;
/// Heights are whole steps of this, mm.
const STEP_MM: f64 = 5.0;

/// From one gain to another, mm.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct HeightBand {
    /// Lowest.
    pub low_mm: f64,
    /// Highest.
    pub high_mm: f64,
}

/// What is wished of a car.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CarWish {
    /// Lowest and highest gain of each axle, mm; as planned where none is given.
    #[serde(default)]
    pub band_mm: Axles<Option<HeightBand>>,
    /// What may be used; money and hours are of both axles together.
    #[serde(default)]
    pub filters: Filters,
}

/// What one of the answers is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TradeOff {
    /// Least money, labour in it.
    LeastMoney,
    /// Least labour.
    LeastWork,
    /// Highest within the aim; lowest where the band goes down.
    Farthest,
    /// Longest tyre life.
    LongestLife,
    /// Least toe over the springs' movement.
    LeastBumpSteer,
    /// Factory arms kept.
    FactoryArms,
}

/// One way to set the whole car.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CarSet {
    /// What it is best at; more than one where it is best at several.
    pub best_at: Vec<TradeOff>,
    /// Gain of each axle, mm.
    pub gain_mm: Axles<f64>,
    /// The set of each axle that was read.
    pub axles: Axles<Option<SetPlan>>,
    /// Price of the parts.
    pub cost: f64,
    /// Labour of the parts, minutes.
    pub labour_minutes: u32,
    /// Parts and labour together.
    pub money: f64,
    /// Distance of the shortest-lived tyre, km; none when no tyre was given.
    pub life_km: Option<f64>,
    /// Whether every axle that was read lands and nothing fouls.
    pub reached: bool,
    /// Largest miss of any wheel, degrees.
    pub short_deg: f64,
}

/// What a search over a car found.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CarFound {
    /// Named trade-offs, least money first; the nearest where none reaches.
    pub sets: Vec<CarSet>,
    /// Pairs of sets that land within money and hours.
    pub landing: usize,
    /// Pairs of heights looked at.
    pub heights: usize,
    /// One line.
    pub headline: Said,
    /// It was stopped before its end.
    pub cancelled: bool,
}

impl CarWish {
    /// What is out of range, by field under `wish`.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out: Vec<Problem> = self.filters.problems();
        for (axle, b) in self.band_mm.each() {
            let Some(HeightBand { low_mm: low, high_mm: high }) = b else { continue };
            let at = |k: &str| format!("band_mm.{}.{k}", axle.word());
            out.extend(in_range(&at("low_mm"), *low, -300.0, 300.0, "mm").err());
            out.extend(in_range(&at("high_mm"), *high, -300.0, 300.0, "mm").err());
            if low > high {
                let wrong = said("fault-band-turned").mm("low", *low).mm("high", *high);
                out.push(Problem::new(at("high_mm"), wrong, said("fault-band-higher")));
            }
        }
        out
    }

    /// Heights of an axle that are looked at, ascending.
    fn heights(&self, axle: Axle, planned: f64) -> Vec<f64> {
        let Some(HeightBand { low_mm: low, high_mm: high }) = self.band_mm[axle] else {
            return vec![planned];
        };
        let mut out: Vec<f64> = (0..HEIGHTS)
            .map(|k| {
                let h = low + (high - low) * k as f64 / (HEIGHTS - 1) as f64;
                // Both ends as asked, between them whole steps.
                if k == 0 || k == HEIGHTS - 1 { h } else { (h / STEP_MM).round() * STEP_MM }
            })
            .collect();
        out.dedup_by(|a, b| (*a - *b).abs() < 1e-9);
        out
    }
}

/// One axle at one pair of heights.
struct Looked {
    gain_mm: Axles<f64>,
    plans: Axles<Option<Vec<SetPlan>>>,
}

/// Searches a car. `say` is told how far it is and answers whether to go on.
///
/// # Errors
/// Every [`Problem`], by field under `car`, `filters` or `band_mm`.
pub fn search_whole(
    car: &CarInput,
    wish: &CarWish,
    tyres: Option<&CarTyres>,
    catalogue: &[Part],
    say: &(dyn Fn(&Progress) -> bool + Sync),
) -> Result<CarFound, Vec<Problem>> {
    let mut problems = wish.problems();
    problems.extend(car.problems().into_iter().map(|p| Problem { field: format!("car.{}", p.field), ..p }));
    if !problems.is_empty() {
        return Err(problems);
    }
    let heights = Axles::of(|a| wish.heights(a, car.plan.gain_mm(a)));
    let pairs: Vec<Axles<f64>> = heights
        .front
        .iter()
        .flat_map(|f| heights.rear.iter().map(|r| Axles { front: *f, rear: *r }))
        .collect();
    let mut looked: Vec<Looked> = Vec::new();
    let mut cancelled = false;
    for (n, gain_mm) in pairs.iter().enumerate() {
        if !say(&Progress { doing: "heights".into(), done: n, of: pairs.len() }) {
            cancelled = true;
            break;
        }
        let mut at = car.clone();
        for a in [Axle::Front, Axle::Rear] {
            at.plan.axles[a].height_change_mm = gain_mm[a];
        }
        // A rear that has no caster does not feel the pitch: its answer at a height serves every height in front.
        let before =
            looked.iter().find(|l| l.gain_mm.rear == gain_mm.rear).and_then(|l| l.plans.rear.clone());
        let quiet = |_: &Progress| say(&Progress { doing: "heights".into(), done: n, of: pairs.len() });
        let one = |axle: Axle| -> Result<Option<Vec<SetPlan>>, Vec<Problem>> {
            // An axle of which nothing was read that could be judged has no parts to be found for.
            if car.axle(axle).is_none_or(|i| !i.is_judged()) {
                return Ok(None);
            }
            if axle == Axle::Rear && before.is_some() {
                return Ok(before.clone());
            }
            search_car(&at, axle, &wish.filters, tyres, catalogue, &quiet).map(|r| Some(r.plans))
        };
        looked.push(Looked {
            gain_mm: *gain_mm,
            plans: Axles { front: one(Axle::Front)?, rear: one(Axle::Rear)? },
        });
    }
    if looked.iter().all(|l| l.plans.each().iter().all(|(_, p)| p.is_none())) && !cancelled {
        return Err(vec![Problem::new(
            "car",
            said("fault-nothing-to-judge"),
            said("fault-read-an-angle-first"),
        )]);
    }
    let all: Vec<CarSet> = looked.iter().flat_map(|l| pairs_of(l, &wish.filters)).collect();
    let landing = all.iter().filter(|s| s.reached).count();
    let sets = named(&all, catalogue);
    let headline = match (landing, sets.first()) {
        (0, None) => said("car-search-nothing"),
        (0, Some(s)) => said("car-search-none").miss_deg("by", s.short_deg),
        (n, _) => said("car-search-lands").count("n", n),
    };
    Ok(CarFound { sets, landing, heights: looked.len(), headline, cancelled })
}

/// Every pair of sets of both axles within money and hours.
fn pairs_of(l: &Looked, filters: &Filters) -> Vec<CarSet> {
    let of = |p: &Option<Vec<SetPlan>>| -> Vec<Option<SetPlan>> {
        p.as_ref().map_or_else(|| vec![None], |list| list.iter().cloned().map(Some).collect())
    };
    let (front, rear) = (of(&l.plans.front), of(&l.plans.rear));
    let mut out = Vec::new();
    for f in &front {
        for r in &rear {
            let each = || f.iter().chain(r.iter());
            let cost: f64 = each().map(|p| p.cost).sum();
            let labour_minutes: u32 = each().map(|p| p.labour_minutes).sum();
            if !filters.affords(cost, labour_minutes) {
                continue;
            }
            out.push(CarSet {
                best_at: Vec::new(),
                gain_mm: l.gain_mm,
                cost,
                labour_minutes,
                money: cost + filters.rate() * f64::from(labour_minutes) / 60.0,
                life_km: each().filter_map(|p| p.life_km.as_ref().map(|l| l.median)).reduce(f64::min),
                reached: each().all(|p| p.reached && p.fouls.is_empty()),
                short_deg: each().map(|p| p.short_deg).fold(0.0, f64::max),
                axles: Axles { front: f.clone(), rear: r.clone() },
            });
        }
    }
    out
}

/// The best of each kind among what lands, each set once with everything it is best at; where nothing lands the three
/// nearest.
fn named(all: &[CarSet], catalogue: &[Part]) -> Vec<CarSet> {
    let extra =
        |s: &CarSet| -> f64 { s.axles.each().iter().filter_map(|(_, p)| p.as_ref()).map(|p| p.extra).sum() };
    let money = |s: &CarSet| s.money + extra(s);
    let landing: Vec<&CarSet> = all.iter().filter(|s| s.reached).collect();
    if landing.is_empty() {
        let mut near: Vec<&CarSet> = all.iter().collect();
        near.sort_by(|a, b| a.short_deg.total_cmp(&b.short_deg).then(money(a).total_cmp(&money(b))));
        return near.into_iter().take(3).cloned().collect();
    }
    let arms = |s: &CarSet| {
        s.axles.each().iter().filter_map(|(_, p)| p.as_ref()).flat_map(|p| &p.parts).any(|x| {
            let family = x.id.split('@').next();
            catalogue
                .iter()
                .any(|p| Some(p.id.as_str()) == family && p.rules.contains(&Rule::AftermarketArms))
        })
    };
    let gain = |s: &CarSet| s.gain_mm.front.abs() + s.gain_mm.rear.abs();
    let bump = |s: &CarSet| -> f64 {
        s.axles.each().iter().filter_map(|(_, p)| p.as_ref()).map(|p| (p.bump_toe_deg / 0.02).round()).sum()
    };
    type Key<'k> = Box<dyn Fn(&CarSet) -> [f64; 3] + 'k>;
    let kinds: Vec<(TradeOff, Key<'_>)> = vec![
        (TradeOff::LeastMoney, Box::new(|s| [money(s), -gain(s), 0.0])),
        (TradeOff::LeastWork, Box::new(|s| [f64::from(s.labour_minutes), money(s), -gain(s)])),
        (TradeOff::Farthest, Box::new(|s| [-gain(s), money(s), 0.0])),
        (
            TradeOff::LongestLife,
            Box::new(|s| [-(s.life_km.unwrap_or(0.0) / 500.0).round(), money(s), -gain(s)]),
        ),
        (TradeOff::LeastBumpSteer, Box::new(|s| [bump(s), money(s), -gain(s)])),
        (TradeOff::FactoryArms, Box::new(|s| [f64::from(u8::from(arms(s))), money(s), -gain(s)])),
    ];
    let mut out: Vec<(usize, CarSet)> = Vec::new();
    for (kind, key) in kinds {
        let apart = |i: &usize, j: &usize| {
            let (a, b) = (key(landing[*i]), key(landing[*j]));
            a[0].total_cmp(&b[0]).then(a[1].total_cmp(&b[1])).then(a[2].total_cmp(&b[2])).then(i.cmp(j))
        };
        let Some(best) = (0..landing.len()).min_by(apart) else { continue };
        // No name for what they all are.
        let first = key(landing[best])[0];
        let alike = landing.iter().all(|s| (key(s)[0] - first).abs() < 1e-9);
        let wanted = kind == TradeOff::LeastMoney
            || !alike
                && (kind != TradeOff::FactoryArms || !arms(landing[best]))
                && (kind != TradeOff::LongestLife || landing[best].life_km.is_some());
        if !wanted {
            continue;
        }
        match out.iter_mut().find(|(i, _)| *i == best) {
            Some((_, s)) => s.best_at.push(kind),
            None => out.push((best, CarSet { best_at: vec![kind], ..landing[best].clone() })),
        }
    }
    out.into_iter().map(|(_, s)| s).collect()
}
