//! What fixes the wear constant: the life of the class on a reference car, or what this car really got.

use super::forecast::{STRIPS, Setup, Wheel, calibrate_with, raw};
use super::parameters::{Parameters, STEPS};
use super::tyre::{Tyre, TyreClass, tread_of};
use super::uses::UseMix;
use bold_stance_car::vehicle::Use;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use std::sync::OnceLock;

/// What this car's tyres really reached.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct OwnLife {
    /// Distance a set really reached, km.
    #[cfg_attr(feature = "openapi", schema(minimum = 1000.0, maximum = 400_000.0))]
    pub life_km: f64,
    /// Depth at which it came off, mm.
    #[serde(default = "bars")]
    pub limit_mm: f64,
    /// Depth it started from, mm; the tyre's own when absent. A tyre forecast from half its depth was not new then.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub new_depth_mm: Option<f64>,
    /// The wheels it ran on, at zero camber and toe; the case's own wheel when empty.
    #[serde(default)]
    pub positions: Vec<Wheel>,
}

fn bars() -> f64 {
    1.6
}

/// What the wear constant is fixed by.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, Default)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Basis {
    /// The class life on a reference car.
    #[default]
    Class,
    /// The treadwear grade moulded on the tyre (49 CFR 575.104), 60 to 1000: 177 km a point on the reference car
    /// (judgement, untested).
    Grade(f64),
    /// The life a set of this car really had.
    Own(OwnLife),
}

/// Distance a point of the treadwear grade stands for, km.
const KM_A_POINT: f64 = 177.0;

/// Wear constants of the classes, plain and with each doubtful constant one step down and up: asked for by every
/// band, always the same.
fn class_constant(class: TyreClass, step: Option<(usize, bool)>) -> f64 {
    const CLASSES: [TyreClass; 4] =
        [TyreClass::LongLife, TyreClass::AllSeason, TyreClass::SoftSummer, TyreClass::AllTerrain];
    static TABLE: OnceLock<[[f64; 1 + 2 * STEPS.len()]; 4]> = OnceLock::new();
    let table = TABLE.get_or_init(|| {
        CLASSES.map(|c| {
            std::array::from_fn(|i| {
                let mut p = Parameters::default();
                if i > 0 {
                    let (_, sd, change) = STEPS[(i - 1) / 2];
                    change(&mut p, if i % 2 == 0 { sd } else { -sd });
                }
                calibrate_with(c, &p)
            })
        })
    });
    let row = CLASSES.iter().position(|c| *c == class).unwrap_or(0);
    table[row][step.map_or(0, |(i, up)| 1 + 2 * i + usize::from(up))]
}

impl Basis {
    /// Wear constant K for constants `p`; `step` says which doubtful constant was moved, and whether up.
    pub(crate) fn constant(
        &self,
        tyre: &Tyre,
        own: &Wheel,
        step: Option<(usize, bool)>,
        p: &Parameters,
    ) -> f64 {
        match self {
            Self::Class => class_constant(tyre.class, step),
            // The constant goes with one over the base life.
            Self::Grade(g) => class_constant(tyre.class, step) * tyre.class.constants().1 / (KM_A_POINT * g),
            Self::Own(l) => {
                let single = [own.clone()];
                let wheels: &[Wheel] = if l.positions.is_empty() { &single } else { &l.positions };
                let tread = tread_of(tyre);
                let flat = [Setup { camber_deg: 0.0, toe_deg: 0.0, share: 1.0 }];
                let at = Parameters { sev: 1.0, ..*p };
                let mut mean = [0.0; STRIPS];
                for w in wheels {
                    let w = Wheel { pressure_kpa: w.placard_kpa, ..w.clone() };
                    let rate = raw(&tread, &w, &flat, &UseMix::One(Use::Mixed), &at).rate(1.0);
                    mean.iter_mut().zip(rate).for_each(|(m, r)| *m += r / wheels.len() as f64);
                }
                let worst = mean.into_iter().fold(f64::MIN_POSITIVE, f64::max);
                let new = l.new_depth_mm.unwrap_or_else(|| tyre.new_depth());
                (new - l.limit_mm) / (l.life_km / 1000.0 * worst)
            }
        }
    }

    /// Standard deviation of ln severity of use.
    pub(crate) fn severity_sd(&self) -> f64 {
        if matches!(self, Self::Own(_)) { 0.06 } else { 0.20 }
    }

    /// Standard deviation of ln base life.
    pub(crate) fn life_sd(&self) -> f64 {
        match self {
            Self::Class => 0.30,
            Self::Grade(_) => 0.35,
            Self::Own(_) => 0.12,
        }
    }

    /// What is wrong with it, by field under `basis.own`.
    #[must_use]
    pub fn problems(&self, tyre: &Tyre) -> Vec<Problem> {
        let l = match self {
            Self::Class => return Vec::new(),
            Self::Grade(g) => {
                return in_range("basis.grade", *g, 60.0, 1000.0, "points").err().into_iter().collect();
            }
            Self::Own(l) => l,
        };
        let mut out = Vec::new();
        out.extend(in_range("basis.own.life_km", l.life_km, 1000.0, 400_000.0, "km").err());
        let new = l.new_depth_mm.unwrap_or_else(|| tyre.new_depth());
        out.extend(in_range("basis.own.new_depth_mm", new, 2.0, 25.0, "mm").err());
        let most = (new - 0.5).max(0.1);
        out.extend(in_range("basis.own.limit_mm", l.limit_mm, 0.0, most, "mm").err());
        for (i, w) in l.positions.iter().enumerate() {
            out.extend(w.problems().into_iter().map(|p| {
                let field = p.field.trim_start_matches("wheel.").to_owned();
                Problem::new(format!("basis.own.positions.{i}.{field}"), p.wrong, p.right)
            }));
        }
        if l.positions.len() > 8 {
            out.push(Problem::new(
                "basis.own.positions",
                said("fault-more-than-eight-wheels"),
                said("fault-wheels-ran"),
            ));
        }
        out
    }
}
