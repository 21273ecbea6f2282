//! All four tyres of a planned car: as found, not set, set, at every height, as a mix of heights, and after what
//! their depths taught; what one change is worth; rotation.

use super::band::{Band, Belief, RatioBand, Running, band_km, carry, ratio_band};
use super::basis::Basis;
use super::car_tyres::CarTyres;
use super::forecast::{STRIPS, Setup, Shares, forecast, irregular, is_outside, shares_both};
use super::log::{LogWarning, ReadPoint, TreadLog, TyrePlace, place_warnings, taught};
use super::rotation::{RotationPlan, rotation_plans};
use super::scene::{AxleScene, Scenes, leading};
use super::worth::{Lever, Money, levers};
use bold_stance_car::vehicle::Axles;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Measure, Said, said, sentences};
use rayon::prelude::*;
use serde::{Deserialize, Serialize};

/// Points of irregular-wear risk.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct IrregularPart {
    /// What they are for.
    pub cause: Said,
    /// Points.
    pub points: f64,
}

/// One tyre in one state.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SceneWear {
    /// `found`, `unset`, `set`, `at-…` for a height, `mix`, `other` for a second plan.
    pub id: String,
    /// What the screen calls it.
    pub title: Said,
    /// Camber and half the total toe, with shares.
    pub setups: Vec<Setup>,
    /// mm per 1000 km, inner edge first, 21 strips, with what depths taught.
    pub rate_mm_per_1000km: Vec<f64>,
    /// From now until the worst strip meets the limit, 80 % band, km.
    pub band_km: Band,
    /// From now until a main groove or the centre, where wear bars are, meets it, km.
    pub groove_km: f64,
    /// The worst strip: `inner_edge`, `centre`, `outer_edge`, or `even`.
    pub worst: String,
    /// The same to be said.
    pub worst_words: Said,
    /// Why the worst strip wears.
    pub shares: Shares,
    /// Why the tread as a whole wears.
    pub mean_shares: Shares,
    /// Feathering, −1…1, toe-in positive.
    pub feather: f64,
    /// Feathering in words; empty when there is nothing to feel.
    pub feather_words: Said,
    /// Irregular-wear word: `low`, `watch`, `high`.
    pub irregular: String,
    /// What the irregular-wear points are for.
    pub irregular_parts: Vec<IrregularPart>,
    /// Distance of the leading state over this one.
    pub ratio_to_lead: RatioBand,
    /// Outside what the model was set for.
    pub outside: bool,
}

/// What the depths of the tyre at a place taught.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LearnedTyre {
    /// Serial or chalk mark.
    pub mark: String,
    /// Distance on it, km.
    pub km: f64,
    /// Total distance by the model alone, km since new.
    pub before: Band,
    /// The same after its depths.
    pub after: Band,
    /// How many times faster than the model it wears: inner groove, centre, outer groove.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub factor: [f64; 3],
    /// Readings with what was expected.
    pub points: Vec<ReadPoint>,
    /// Depth the distance is counted from, mm: when new, or when its log starts on a worn tyre.
    pub from_mm: f64,
    /// The setup changed since, so what was learned is carried over to the new one.
    pub carried: bool,
    /// In words.
    pub words: Said,
}

/// One tyre.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TyreForecast {
    /// Where.
    pub place: TyrePlace,
    /// Depth now at every strip, mm.
    pub depth_now_mm: Vec<f64>,
    /// At or below the limit somewhere already: it is replaced first.
    pub done: bool,
    /// Whether the forecast is of a new tyre in its place.
    pub forecast_new: bool,
    /// States, a second plan last.
    pub scenes: Vec<SceneWear>,
    /// Which state leads.
    pub lead: usize,
    /// What one change is worth, most first.
    pub levers: Vec<Lever>,
    /// What its depths taught.
    pub learned: Option<LearnedTyre>,
}

/// All tyres of a car.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CarWear {
    /// Tyres of the axles that were read.
    pub tyres: Vec<TyreForecast>,
    /// Rotation plans, best first; empty unless all four are forecast.
    pub rotations: Vec<RotationPlan>,
    /// What was found on the car and comes before any forecast of its tyres, what stops it first; told by whoever looked.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub first: Vec<Said>,
    /// What does not agree in the tread log.
    pub warnings: Vec<LogWarning>,
    /// Names of the heights a mix can be made of.
    pub heights: Vec<String>,
    /// What the model cannot tell.
    pub notes: Vec<Said>,
}

fn worst_of(rate: &[f64], left: &[f64]) -> &'static str {
    let t = |i: usize| left[i].max(0.0) / rate[i].max(1e-9);
    let worst = (0..STRIPS).fold(0, |w, i| if t(i) < t(w) { i } else { w });
    let best = (0..STRIPS).map(t).fold(0.0, f64::max);
    // Within four in a hundred nobody can tell one strip from another.
    if best > 0.0 && t(worst) / best > 0.96 {
        return "even";
    }
    match worst {
        0..=6 => "inner_edge",
        7..=13 => "centre",
        _ => "outer_edge",
    }
}

/// What points of irregular wear are for.
fn cause_of(cause: &str) -> Said {
    match cause {
        "toe" => said("irregular-toe"),
        "pressure" => said("irregular-pressure"),
        "no rotation record" => said("irregular-never"),
        "rotated now and then" => said("irregular-sometimes"),
        "rotated" => said("irregular-rotated"),
        "light axle" => said("irregular-light"),
        "camber" => said("irregular-camber"),
        "open tread" => said("irregular-open"),
        "use" => said("irregular-use"),
        "worn dampers" => said("irregular-dampers"),
        other => Said::text(other),
    }
}

/// What a hand feels across the tread (`docs/TREAD_MODEL.md`).
fn feather_words(f: f64) -> Said {
    if f.abs() < 0.15 {
        Said::text("")
    } else if f > 0.0 {
        said("feather-in")
    } else {
        said("feather-out")
    }
}

/// What every tyre of a car needs to be forecast.
struct Car<'a> {
    c: &'a CarTyres,
    log: &'a TreadLog,
    basis: Basis,
    /// States by axle; none where the axle was not read.
    axles: &'a Axles<Option<Vec<AxleScene>>>,
    /// A second plan's leading state by axle.
    others: &'a Axles<Option<AxleScene>>,
}

/// One tyre with what the rotation follows: its leading rate and the depth over the limit now.
struct One {
    forecast: TyreForecast,
    rate: [f64; STRIPS],
    left: [f64; STRIPS],
    warnings: Vec<LogWarning>,
}

impl Car<'_> {
    /// The tyre at a place; none where its axle was not read.
    fn tyre_at(&self, place: TyrePlace) -> Result<Option<One>, Problem> {
        let Car { c, log, basis, axles, others } = self;
        let side = usize::from(!place.left());
        let axle = place.axle();
        let Some(scenes) = &axles[axle] else { return Ok(None) };
        let mut warnings = Vec::new();
        let lead = leading(scenes);
        let logged = log.tyres.iter().find(|t| t.place() == Some(place));
        // A tyre at its limit is replaced first: what is forecast then is a new one in its place.
        let worn_out = logged.is_none() && c.at_limit();
        let told_new = logged.and_then(|t| t.new_depth_mm).unwrap_or(if logged.is_some() || worn_out {
            c.deepest()
        } else {
            c.depth_mm
        });
        let worn_from = logged.and_then(|t| t.worn_at_start(told_new));
        let new_depth = worn_from.unwrap_or(told_new);
        let tyre = c.tyre(axle, new_depth)?;
        let running = |scene: &AxleScene, side: usize, axle: Axle| Running {
            wheel: c.wheel(axle, scene.caster(side)),
            setups: scene.setups(side),
            share: 1.0,
            flipped: false,
        };
        let prior = |s: &AxleScene| Belief::of(&tyre, &[running(s, side, axle)], &c.use_, c.limit_mm, basis);
        // What the log taught, each leg as the car ran there and then.
        let lesson = logged.and_then(|t| {
            warnings.extend(t.warnings(told_new));
            taught(t, log.set_at_km, &tyre, &c.use_, c.limit_mm, basis, &|p, set| {
                let s = axles[p.axle()].as_ref()?;
                let scene = if set { s.get(leading(s))? } else { s.first()? };
                let r = running(scene, usize::from(!p.left()), p.axle());
                let rate = Belief::rates(&tyre, std::slice::from_ref(&r), &c.use_, basis);
                Some((r, rate))
            })
        });
        if let Some(l) = &lesson {
            warnings.extend(l.odd.iter().cloned());
        }
        let all: Vec<&AxleScene> = scenes.iter().chain(others[axle].as_ref()).collect();
        let beliefs: Vec<Belief> = all.iter().map(|s| prior(s)).collect();
        let is_set = log.set_at_km.is_some();
        // The state the tyre ran in last: what was learned is carried over to every other.
        let ran_as = if is_set { lead } else { 0 };
        let depth_now: [f64; STRIPS] = lesson.as_ref().map_or([c.depth_mm; STRIPS], |l| {
            std::array::from_fn(|i| (l.now.depth_when_new() - l.worn[i] * l.now.factor(i)).max(0.0))
        });
        let done = depth_now.iter().any(|d| *d <= c.limit_mm);
        let left: [f64; STRIPS] =
            std::array::from_fn(|i| if done { new_depth.max(told_new) } else { depth_now[i] } - c.limit_mm);
        let mut out = Vec::with_capacity(all.len());
        for (n, s) in all.iter().enumerate() {
            let b = &beliefs[n];
            let (band, mean) = match &lesson {
                None => (band_km(b), b.mean()),
                Some(l) if l.one_setup && n == ran_as => (band_km(&l.now), l.now.mean()),
                Some(l) => {
                    let carried = carry(&l.now, b, n != ran_as);
                    let [a, e, q] = carried.mean;
                    (carried.band, [a, e, q, 0.0])
                }
            };
            let km = lesson.as_ref().filter(|_| !done).map_or(0.0, |l| l.km);
            let band = if done { band_km(b) } else { band };
            let band = Band { low: band.low - km, median: band.median - km, high: band.high - km };
            // Without a log the plain model is shown; its prior mean is a doubt, not a finding.
            let factor = |i: usize| {
                if lesson.is_none() {
                    1.0
                } else {
                    super::band::level_at(&mean, super::forecast::eta(i)).exp()
                }
            };
            let rate: Vec<f64> = (0..STRIPS).map(|i| b.rate[i] * factor(i)).collect();
            let groove = (0..STRIPS)
                .filter(|i| super::forecast::eta(*i).abs() <= 0.75)
                .map(|i| 1000.0 * left[i].max(0.0) / rate[i].max(1e-9))
                .fold(f64::INFINITY, f64::min);
            let wheel = c.wheel(axle, s.caster(side));
            let setups = s.setups(side);
            let f = forecast(&tyre, &wheel, &setups, &c.use_, 1.0, c.limit_mm);
            let (shares, mean_shares) = shares_both(&tyre, &wheel, &setups, &c.use_);
            let irregular = irregular(&tyre, &wheel, &setups, &c.use_, &c.upkeep());
            out.push(SceneWear {
                id: s.id.clone(),
                title: s.title.clone(),
                worst: worst_of(&rate, &left).into(),
                worst_words: said("worst").word("where", worst_of(&rate, &left)),
                groove_km: groove,
                rate_mm_per_1000km: rate,
                band_km: band,
                shares,
                mean_shares,
                feather: f.feather,
                feather_words: feather_words(f.feather),
                irregular: irregular.word,
                irregular_parts: irregular
                    .parts
                    .into_iter()
                    .map(|(cause, points)| IrregularPart { cause: cause_of(&cause), points })
                    .collect(),
                ratio_to_lead: ratio_band(b, &beliefs[lead]),
                outside: is_outside(&wheel, &setups),
                setups,
            });
        }
        let learned = lesson.as_ref().map(|l| {
            let before = band_km(&l.prior);
            let after = band_km(&l.now);
            let factor = super::band::GROOVES.map(|e| l.now.factor_at(e));
            let width = |b: &Band| b.high / b.median.max(1.0);
            let read = l.points.iter().filter(|p| p.km > 0.0).count();
            let mut words = vec![if read == 0 {
                said("learned-none")
            } else {
                said(if factor[1] >= 1.0 { "learned-faster" } else { "learned-slower" })
                    .count("n", read)
                    .plain("by", 100.0 * (factor[1] - 1.0).abs(), 0)
                    .plain("before", width(&before), 2)
                    .plain("after", width(&after), 2)
            }];
            if let Some(d) = worn_from {
                words.push(said("learned-worn").of("depth", Measure::TreadMm, d, 1));
            }
            LearnedTyre {
                mark: logged.map(|t| t.mark.clone()).unwrap_or_default(),
                km: l.km,
                before,
                after,
                factor,
                points: l.points.clone(),
                from_mm: new_depth,
                carried: !(l.one_setup && lead == ran_as),
                words: sentences(words),
            }
        });
        let lead_scene = &out[lead];
        let lead_rate: [f64; STRIPS] = std::array::from_fn(|i| lead_scene.rate_mm_per_1000km[i]);
        let levers = levers(
            &tyre,
            &c.wheel(axle, scenes[lead].caster(side)),
            &lead_scene.setups,
            &c.use_,
            &beliefs[lead],
            &lead_scene.band_km,
            &Money { price: c.price, yearly_km: c.yearly_km },
            basis,
            c.limit_mm,
        );
        let forecast = TyreForecast {
            place,
            depth_now_mm: depth_now.to_vec(),
            done,
            forecast_new: done,
            scenes: out,
            lead,
            levers,
            learned,
        };
        Ok(Some(One { forecast, rate: lead_rate, left, warnings }))
    }
}

/// Forecasts every tyre of a planned car.
///
/// # Errors
/// Every [`Problem`], by field under `tyres` or `log`.
pub fn car_wear(c: &CarTyres, scenes: &Scenes, log: &TreadLog) -> Result<CarWear, Vec<Problem>> {
    let mut problems = c.problems();
    for (i, t) in log.tyres.iter().enumerate() {
        problems.extend(t.problems(&format!("log.tyres.{i}")));
    }
    if !problems.is_empty() {
        return Err(problems);
    }
    let car = Car { c, log, basis: c.basis(), axles: &scenes.axles, others: &scenes.other };
    let each: Vec<One> = TyrePlace::ALL
        .into_par_iter()
        .filter_map(|place| car.tyre_at(place).transpose())
        .collect::<Result<_, _>>()
        .map_err(|p| vec![p])?;
    let mut warnings = place_warnings(log);
    let mut tyres = Vec::new();
    let mut rates: Vec<([f64; STRIPS], [f64; STRIPS])> = Vec::new();
    for one in each {
        warnings.extend(one.warnings);
        rates.push((one.rate, one.left));
        tyres.push(one.forecast);
    }
    let rotations = match rates.as_slice() {
        [a, b, c4, d] => rotation_plans(
            &[a.0, b.0, c4.0, d.0],
            &[a.1, b.1, c4.1, d.1],
            c.rotate_every_km,
            c.staggered(),
            c.directional,
        ),
        _ => Vec::new(),
    };
    Ok(CarWear {
        tyres,
        rotations,
        first: Vec::new(),
        warnings,
        heights: scenes.heights.clone(),
        notes: vec![said("note-ratios-firmer"), said("note-does-not-see")],
    })
}
