//! All four tyres of a planned car: as found, not set, set, at every height, as a mix of heights, and after what
//! their depths taught; what one change is worth; rotation.

use super::band::{Band, Belief, RatioBand, Running, band_km, carry, ratio_band};
use super::basis::{Basis, OwnLife};
use super::forecast::{STRIPS, Setup, Shares, Wheel, forecast, irregular_with, shares_both};
use super::log::{LogWarning, ReadPoint, TreadLog, TyrePlace, place_warnings, taught};
use super::rotation::{RotationPlan, rotation_plans};
use super::tyre::{Tyre, TyreClass};
use super::uses::UseMix;
use super::worth::{Lever, Money, levers};
use crate::plan::PlanResult;
use crate::problem::{Problem, in_range};
use crate::vehicle::{StateKind, TyreSize};
use crate::wheel::Alignment;
use serde::{Deserialize, Serialize};

/// A share of the distance at a height.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct HeightShare {
    /// Name of the height state: `Planned`, `Settled`, `Loaded`, or of an air level.
    pub state: String,
    /// Share; they need not sum to 1.
    pub share: f64,
}

/// How thorough the rotation record is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Rotated {
    /// Never, or nobody knows.
    #[default]
    Never,
    /// Now and then.
    Some,
    /// Every service.
    Regular,
}

/// What the tyres are, what they carry and how they are driven; pairs are front and rear.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CarTyres {
    /// Nominal sizes.
    pub sizes: [String; 2],
    /// Compound.
    pub class: TyreClass,
    /// Depth the forecast starts from where no log says otherwise, mm.
    pub depth_mm: f64,
    /// Depth at which a tyre is done, mm.
    pub limit_mm: f64,
    /// Load of one wheel, N.
    pub load_n: [f64; 2],
    /// Pressures, kPa.
    pub pressure_kpa: [f64; 2],
    /// Placard pressures, kPa.
    pub placard_kpa: [f64; 2],
    /// The front axle's share of the drive, 0 to 1.
    pub drive_front: f64,
    /// The front axle's share of braking, 0 to 1.
    pub brake_front: f64,
    /// 1.5 for high torque, else 1.
    #[serde(default = "one")]
    pub torque_factor: f64,
    /// Whether lifting off brakes through the driven wheels.
    #[serde(default)]
    pub regen: bool,
    /// How it is driven.
    #[serde(rename = "use")]
    pub use_: UseMix,
    /// Load transfer per g: 0.85 pickup, 0.7 car, 0.6 low sports.
    pub load_transfer_per_g: f64,
    /// Camber from roll, degrees per g: 0 on a solid axle.
    pub roll_camber: [f64; 2],
    /// Distance a set of this car really reached, km.
    #[serde(default)]
    pub own_life_km: Option<f64>,
    /// Shares of the distance at the height states; all at the judged one when empty.
    #[serde(default)]
    pub heights: Vec<HeightShare>,
    /// Rotation record.
    #[serde(default)]
    pub rotated: Rotated,
    /// Distance between rotations, km.
    #[serde(default = "eight")]
    pub rotate_every_km: f64,
    /// Directional tread.
    #[serde(default)]
    pub directional: bool,
    /// Price of one tyre, in the shop's currency.
    #[serde(default)]
    pub price: f64,
    /// Distance a year, km.
    #[serde(default = "fifteen")]
    pub yearly_km: f64,
}

fn one() -> f64 {
    1.0
}
fn eight() -> f64 {
    8000.0
}
fn fifteen() -> f64 {
    15_000.0
}

impl CarTyres {
    /// What is wrong, by field under `tyres`.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        let mut check = |f: String, v: f64, low: f64, high: f64, unit: &str| {
            out.extend(in_range(&format!("tyres.{f}"), v, low, high, unit).err());
        };
        for i in 0..2 {
            check(format!("load_n.{i}"), self.load_n[i], 200.0, 40_000.0, "N");
            check(format!("pressure_kpa.{i}"), self.pressure_kpa[i], 50.0, 900.0, "kPa");
            check(format!("placard_kpa.{i}"), self.placard_kpa[i], 50.0, 900.0, "kPa");
            check(format!("roll_camber.{i}"), self.roll_camber[i], -10.0, 10.0, "° per g");
        }
        check("depth_mm".into(), self.depth_mm, 0.0, 25.0, "mm");
        check("limit_mm".into(), self.limit_mm, 0.0, 20.0, "mm");
        check("drive_front".into(), self.drive_front, 0.0, 1.0, "of the drive");
        check("brake_front".into(), self.brake_front, 0.0, 1.0, "of the braking");
        check("torque_factor".into(), self.torque_factor, 0.5, 3.0, "");
        check("load_transfer_per_g".into(), self.load_transfer_per_g, 0.0, 2.0, "per g");
        check("own_life_km".into(), self.own_life_km.unwrap_or(5e4), 1000.0, 400_000.0, "km");
        check("rotate_every_km".into(), self.rotate_every_km, 1000.0, 100_000.0, "km");
        check("price".into(), self.price, 0.0, 100_000.0, "in the shop's currency");
        check("yearly_km".into(), self.yearly_km, 0.0, 500_000.0, "km a year");
        for (i, h) in self.heights.iter().enumerate() {
            check(format!("heights.{i}.share"), h.share, 0.0, 1e6, "");
        }
        let staggered = TyreSize::parse("tyres.sizes.0", &self.sizes[0]).err();
        out.extend(staggered);
        out.extend(TyreSize::parse("tyres.sizes.1", &self.sizes[1]).err());
        out.extend(self.use_.problem().map(|p| Problem::new("tyres.use", p.wrong, p.right)));
        out
    }

    /// Whether front and rear differ in size.
    #[must_use]
    pub fn staggered(&self) -> bool {
        TyreSize::parse("", &self.sizes[0]).ok() != TyreSize::parse("", &self.sizes[1]).ok()
    }

    fn tyre(&self, axle: usize, new_depth_mm: f64) -> Result<Tyre, Problem> {
        let size = TyreSize::parse(&format!("tyres.sizes.{axle}"), &self.sizes[axle])?;
        Ok(Tyre {
            section_mm: size.section_mm,
            aspect: size.aspect,
            rim_in: size.rim_in,
            class: self.class,
            new_depth_mm: Some(new_depth_mm),
            tread_width_mm: None,
        })
    }

    fn wheel(&self, axle: usize, caster_deg: f64) -> Wheel {
        let front = axle == 0;
        let of = |f: f64| if front { f } else { 1.0 - f };
        Wheel {
            load_n: self.load_n[axle],
            pressure_kpa: self.pressure_kpa[axle],
            placard_kpa: self.placard_kpa[axle],
            placard_load_n: None,
            axle_share: self.load_n[axle] / (self.load_n[0] + self.load_n[1]),
            drive_share: of(self.drive_front),
            brake_share: of(self.brake_front),
            torque_factor: self.torque_factor,
            regen: self.regen,
            load_transfer_per_g: self.load_transfer_per_g,
            roll_camber_deg_per_g: self.roll_camber[axle],
            caster_deg: if front { caster_deg } else { 0.0 },
            loaded_radius_mm: None,
        }
    }

    fn basis(&self) -> Basis {
        self.own_life_km.map_or(Basis::Class, |life_km| {
            let positions = (0..2).map(|a| self.wheel(a, if a == 0 { 5.0 } else { 0.0 })).collect();
            Basis::Own(OwnLife { life_km, limit_mm: self.limit_mm, positions })
        })
    }
}

/// A state of an axle: camber and caster of both wheels and half the total toe, with shares of the distance.
struct AxleScene {
    id: String,
    title: String,
    /// Camber left and right, half the total toe, share.
    parts: Vec<([f64; 2], f64, f64)>,
    caster: [f64; 2],
}

fn state(id: &str, title: &str, left: &Alignment, right: &Alignment) -> AxleScene {
    // Running straight the car crabs until both slip alike: each tyre gets half the total.
    let toe = 0.5 * (left.toe_deg + right.toe_deg);
    AxleScene {
        id: id.into(),
        title: title.into(),
        parts: vec![([left.camber_deg, right.camber_deg], toe, 1.0)],
        caster: [left.caster_deg, right.caster_deg],
    }
}

/// Found, not set, set, every other height as set, and the mix of heights where shares were told, in this order.
fn axle_scenes(p: &PlanResult, heights: &[HeightShare]) -> Vec<AxleScene> {
    let mut out = vec![
        state("found", "as found", &p.left.before, &p.right.before),
        state("unset", "at the planned height, not set", &p.left.after, &p.right.after),
        state("set", "set", &p.left.set, &p.right.set),
    ];
    let mut mix: Vec<([f64; 2], f64, f64)> = Vec::new();
    let mut caster = [0.0; 2];
    let share = |name: &str| {
        heights.iter().filter(|h| h.state.eq_ignore_ascii_case(name)).map(|h| h.share).sum::<f64>()
    };
    for s in &p.states {
        let (Some(l), Some(r)) = (&s.left, &s.right) else { continue };
        if s.kind == StateKind::Arrived {
            continue;
        }
        let one = state(
            &format!("at-{}", s.name.to_lowercase()),
            &format!("set, {}", s.name.to_lowercase()),
            &l.angles,
            &r.angles,
        );
        let w = share(&s.name);
        if w > 0.0 {
            mix.push((one.parts[0].0, one.parts[0].1, w));
            (0..2).for_each(|i| caster[i] += w * one.caster[i]);
        }
        if !s.judged {
            out.push(one);
        }
    }
    if !mix.is_empty() {
        let total: f64 = mix.iter().map(|m| m.2).sum();
        mix.iter_mut().for_each(|m| m.2 /= total);
        out.push(AxleScene {
            id: "mix".into(),
            title: "set, as driven".into(),
            parts: mix,
            caster: caster.map(|c| c / total),
        });
    }
    out
}

/// The state that leads: the mix of heights, else set.
fn leading(scenes: &[AxleScene]) -> usize {
    let at = |id: &str| scenes.iter().position(|s| s.id == id);
    at("mix").or_else(|| at("set")).unwrap_or(0)
}

impl AxleScene {
    fn setups(&self, side: usize) -> Vec<Setup> {
        self.parts.iter().map(|(c, toe, w)| Setup { camber_deg: c[side], toe_deg: *toe, share: *w }).collect()
    }
}

/// Points of irregular-wear risk.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct IrregularPart {
    /// What they are for.
    pub cause: String,
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
    pub title: String,
    /// Camber and half the total toe, with shares.
    pub setups: Vec<Setup>,
    /// mm per 1000 km, inner edge first, 21 strips, with what depths taught.
    pub rate_mm_per_1000km: Vec<f64>,
    /// From now until the worst strip meets the limit, 80 % band, km.
    pub band_km: Band,
    /// From now until a main groove or the centre, where wear bars are, meets it, km.
    pub groove_km: f64,
    /// The worst strip: `inner edge`, `centre`, `outer edge`, or `even`.
    pub worst: String,
    /// Why the worst strip wears.
    pub shares: Shares,
    /// Why the tread as a whole wears.
    pub mean_shares: Shares,
    /// Feathering, −1…1, toe-in positive.
    pub feather: f64,
    /// Feathering in words; empty when there is nothing to feel.
    pub feather_words: String,
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
    pub factor: [f64; 3],
    /// Readings with what was expected.
    pub points: Vec<ReadPoint>,
    /// The setup changed since, so what was learned is carried over to the new one.
    pub carried: bool,
    /// In words.
    pub words: String,
}

/// One tyre.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TyreForecast {
    /// Where.
    pub place: TyrePlace,
    /// Depth now at every strip, mm.
    pub depth_now_mm: Vec<f64>,
    /// Below the limit somewhere already.
    pub done: bool,
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
    /// What does not agree in the tread log.
    pub warnings: Vec<LogWarning>,
    /// Names of the heights a mix can be made of.
    pub heights: Vec<String>,
    /// What the model cannot tell.
    pub notes: Vec<String>,
}

/// Plans the tyres run under: front, rear where it was read, and another plan's front and rear to compare with.
pub struct Plans<'a> {
    /// Front.
    pub front: &'a PlanResult,
    /// Rear.
    pub rear: Option<&'a PlanResult>,
    /// Name, front and rear of a second plan.
    pub other: Option<(&'a str, &'a PlanResult, Option<&'a PlanResult>)>,
}

fn worst_of(rate: &[f64], left: &[f64]) -> String {
    let t = |i: usize| left[i].max(0.0) / rate[i].max(1e-9);
    let worst = (0..STRIPS).fold(0, |w, i| if t(i) < t(w) { i } else { w });
    let best = (0..STRIPS).map(t).fold(0.0, f64::max);
    // Within four in a hundred nobody can tell one strip from another.
    if best > 0.0 && t(worst) / best > 0.96 {
        return "even".into();
    }
    match worst {
        0..=6 => "inner edge",
        7..=13 => "centre",
        _ => "outer edge",
    }
    .into()
}

/// What a hand feels across the tread (`wear.md` section 1).
fn feather_words(f: f64) -> String {
    if f.abs() < 0.15 {
        String::new()
    } else if f > 0.0 {
        "Feathered by toe-in: rough to a hand drawn from inside to outside, smooth the other way.".into()
    } else {
        "Feathered by toe-out: rough to a hand drawn from outside to inside, smooth the other way.".into()
    }
}

/// Forecasts every tyre of a planned car.
///
/// # Errors
/// Every [`Problem`], by field under `tyres` or `log`.
pub fn car_wear(c: &CarTyres, plans: &Plans<'_>, log: &TreadLog) -> Result<CarWear, Vec<Problem>> {
    let mut problems = c.problems();
    for (i, t) in log.tyres.iter().enumerate() {
        problems.extend(t.problems(&format!("log.tyres.{i}")));
    }
    if problems.is_empty() && c.limit_mm >= c.depth_mm && log.tyres.is_empty() {
        problems.push(Problem::new(
            "tyres.limit_mm",
            format!("{} mm is not below the {} mm it starts from", c.limit_mm, c.depth_mm),
            "a limit below the depth now; a tyre at its limit is replaced, not forecast",
        ));
    }
    if !problems.is_empty() {
        return Err(problems);
    }
    let one = |p: Problem| vec![p];
    let basis = c.basis();
    let axles = [Some(plans.front), plans.rear].map(|p| p.map(|p| axle_scenes(p, &c.heights)));
    let mut others: [Option<AxleScene>; 2] = [None, None];
    if let Some((name, front, rear)) = plans.other {
        for (slot, p) in others.iter_mut().zip([Some(front), rear]) {
            *slot = p
                .map(|p| axle_scenes(p, &c.heights))
                .map(|mut l| l.swap_remove(leading(&l)))
                .map(|s| AxleScene { id: "other".into(), title: name.into(), ..s });
        }
    }
    let mut warnings = place_warnings(log);
    let mut tyres = Vec::new();
    let mut rates: Vec<([f64; STRIPS], [f64; STRIPS])> = Vec::new();
    for place in TyrePlace::ALL {
        let (axle, side) = (usize::from(!place.front()), usize::from(!place.left()));
        let Some(scenes) = &axles[axle] else { continue };
        let lead = leading(scenes);
        let logged = log.tyres.iter().find(|t| t.place() == Some(place));
        let new_depth = logged.and_then(|t| t.new_depth_mm).unwrap_or(if logged.is_some() {
            c.class.constants().2.max(c.depth_mm)
        } else {
            c.depth_mm
        });
        let tyre = c.tyre(axle, new_depth).map_err(one)?;
        let running = |scene: &AxleScene, side: usize, axle: usize| Running {
            wheel: c.wheel(axle, scene.caster[side]),
            setups: scene.setups(side),
            share: 1.0,
            flipped: false,
        };
        let prior = |s: &AxleScene| Belief::of(&tyre, &[running(s, side, axle)], &c.use_, c.limit_mm, &basis);
        // What the log taught, each leg as the car ran there and then.
        let lesson = logged.and_then(|t| {
            warnings.extend(t.warnings(new_depth));
            taught(t, log.set_at_km, &tyre, &c.use_, c.limit_mm, &basis, &|p, set| {
                let a = usize::from(!p.front());
                let s = axles[a].as_ref()?;
                let scene = if set { s.get(leading(s))? } else { s.first()? };
                let r = running(scene, usize::from(!p.left()), a);
                let rate = Belief::rates(&tyre, std::slice::from_ref(&r), &c.use_, &basis);
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
        let left: [f64; STRIPS] = std::array::from_fn(|i| depth_now[i] - c.limit_mm);
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
            let km = lesson.as_ref().map_or(0.0, |l| l.km);
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
            let wheel = c.wheel(axle, s.caster[side]);
            let setups = s.setups(side);
            let f = forecast(&tyre, &wheel, &setups, &c.use_, 1.0, c.limit_mm);
            let (shares, mean_shares) = shares_both(&tyre, &wheel, &setups, &c.use_);
            let irregular = irregular_with(&tyre, &wheel, &setups, &c.use_, c.rotated);
            out.push(SceneWear {
                id: s.id.clone(),
                title: s.title.clone(),
                worst: worst_of(&rate, &left),
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
                    .map(|(cause, points)| IrregularPart { cause, points })
                    .collect(),
                ratio_to_lead: ratio_band(b, &beliefs[lead]),
                outside: setups.iter().any(|s| s.camber_deg < -5.0 || s.toe_deg.abs() > 1.0),
                setups,
            });
        }
        let learned = lesson.as_ref().map(|l| {
            let before = band_km(&l.prior);
            let after = band_km(&l.now);
            let factor = super::band::GROOVES.map(|e| l.now.factor_at(e));
            let width = |b: &Band| b.high / b.median.max(1.0);
            let words = if l.points.is_empty() {
                "No depth read yet: three grooves narrow the forecast.".into()
            } else {
                format!(
                    "{} depth reading{}: wears {:.0} % {} than the model at the centre; doubt ×/÷ {:.2} to {:.2}.",
                    l.points.len(),
                    if l.points.len() == 1 { "" } else { "s" },
                    100.0 * (factor[1] - 1.0).abs(),
                    if factor[1] >= 1.0 { "faster" } else { "slower" },
                    width(&before),
                    width(&after)
                )
            };
            LearnedTyre {
                mark: logged.map(|t| t.mark.clone()).unwrap_or_default(),
                km: l.km,
                before,
                after,
                factor,
                points: l.points.clone(),
                carried: !(l.one_setup && lead == ran_as),
                words,
            }
        });
        let lead_scene = &out[lead];
        let lead_rate: [f64; STRIPS] = std::array::from_fn(|i| lead_scene.rate_mm_per_1000km[i]);
        let levers = levers(
            &tyre,
            &c.wheel(axle, scenes[lead].caster[side]),
            &lead_scene.setups,
            &c.use_,
            &beliefs[lead],
            &lead_scene.band_km,
            &Money { price: c.price, yearly_km: c.yearly_km },
            &basis,
            c.limit_mm,
        );
        rates.push((lead_rate, left));
        tyres.push(TyreForecast {
            place,
            depth_now_mm: depth_now.to_vec(),
            done: left.iter().any(|l| *l <= 0.0),
            scenes: out,
            lead,
            levers,
            learned,
        });
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
        warnings,
        heights: plans
            .front
            .states
            .iter()
            .filter(|s| s.kind != StateKind::Arrived && s.left.is_some() && s.right.is_some())
            .map(|s| s.name.clone())
            .collect(),
        notes: vec![
            "Ratios between settings are firmer than distances.".into(),
            "Does not see: heel-and-toe, cupping, flat spots, worn joints, ageing, a tyre that wore under an old alignment.".into(),
        ],
    })
}
