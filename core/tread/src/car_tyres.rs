//! What a car's tyres are, what they carry and how they are driven.

use super::basis::{Basis, OwnLife};
use super::forecast::{Upkeep, Wheel};
use super::tyre::{Tyre, TyreClass};
use super::uses::UseMix;
use bold_stance_car::vehicle::{Axles, HeightShare, Rotated, TyreSize};
use bold_stance_kinematics::geometry::Axle;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Measure, said};
use serde::{Deserialize, Serialize};

/// What the tyres are, what they carry and how they are driven.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CarTyres {
    /// Nominal sizes.
    pub sizes: Axles<String>,
    /// Compound.
    pub class: TyreClass,
    /// Depth the forecast starts from where no log says otherwise, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 25.0))]
    pub depth_mm: f64,
    /// Depth at which a tyre is done, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 20.0))]
    pub limit_mm: f64,
    /// Load of one wheel, N.
    pub load_n: Axles<f64>,
    /// Pressures, kPa.
    pub pressure_kpa: Axles<f64>,
    /// Placard pressures, kPa.
    pub placard_kpa: Axles<f64>,
    /// The front axle's share of the drive, 0 to 1.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 1.0))]
    pub drive_front: f64,
    /// The front axle's share of braking, 0 to 1.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 1.0))]
    pub brake_front: f64,
    /// 1.5 for high torque, else 1.
    #[serde(default = "one")]
    #[cfg_attr(feature = "openapi", schema(minimum = 0.5, maximum = 3.0))]
    pub torque_factor: f64,
    /// Whether lifting off brakes through the driven wheels.
    #[serde(default)]
    pub regen: bool,
    /// How it is driven.
    #[serde(rename = "use")]
    pub use_: UseMix,
    /// Load transfer per g: 0.85 pickup, 0.7 car, 0.6 low sports.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 2.0))]
    pub load_transfer_per_g: f64,
    /// Camber from roll, degrees per g: 0 on a solid axle.
    pub roll_camber: Axles<f64>,
    /// Distance a set of this car really reached, km.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = 1000.0, maximum = 400_000.0))]
    pub own_life_km: Option<f64>,
    /// Treadwear grade moulded on the tyre; it counts where no own distance was told.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = 60.0, maximum = 1000.0))]
    pub grade: Option<f64>,
    /// Shares of the distance at the height states; all at the judged one when empty.
    #[serde(default)]
    pub heights: Vec<HeightShare>,
    /// Rotation record.
    #[serde(default)]
    pub rotated: Rotated,
    /// Distance between rotations, km.
    #[serde(default = "eight")]
    #[cfg_attr(feature = "openapi", schema(minimum = 1000.0, maximum = 100_000.0))]
    pub rotate_every_km: f64,
    /// Directional tread.
    #[serde(default)]
    pub directional: bool,
    /// Worn dampers.
    #[serde(default)]
    pub worn_dampers: bool,
    /// Price of one tyre, in the shop's currency.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 100_000.0))]
    pub price: f64,
    /// Distance a year, km.
    #[serde(default = "fifteen")]
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 500_000.0))]
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
        for a in [Axle::Front, Axle::Rear] {
            let at = a.word();
            check(format!("load_n.{at}"), self.load_n[a], 200.0, 40_000.0, "N");
            check(format!("pressure_kpa.{at}"), self.pressure_kpa[a], 50.0, 900.0, "kPa");
            check(format!("placard_kpa.{at}"), self.placard_kpa[a], 50.0, 900.0, "kPa");
            check(format!("roll_camber.{at}"), self.roll_camber[a], -10.0, 10.0, "° per g");
        }
        check("depth_mm".into(), self.depth_mm, 0.0, 25.0, "mm");
        check("limit_mm".into(), self.limit_mm, 0.0, 20.0, "mm");
        check("drive_front".into(), self.drive_front, 0.0, 1.0, "of the drive");
        check("brake_front".into(), self.brake_front, 0.0, 1.0, "of the braking");
        check("torque_factor".into(), self.torque_factor, 0.5, 3.0, "");
        check("load_transfer_per_g".into(), self.load_transfer_per_g, 0.0, 2.0, "per g");
        check("own_life_km".into(), self.own_life_km.unwrap_or(5e4), 1000.0, 400_000.0, "km");
        check("grade".into(), self.grade.unwrap_or(400.0), 60.0, 1000.0, "points");
        check("rotate_every_km".into(), self.rotate_every_km, 1000.0, 100_000.0, "km");
        check("price".into(), self.price, 0.0, 100_000.0, "in the shop's currency");
        check("yearly_km".into(), self.yearly_km, 0.0, 500_000.0, "km a year");
        for (i, h) in self.heights.iter().enumerate() {
            check(format!("heights.{i}.share"), h.share, 0.0, 1e6, "");
        }
        if self.limit_mm >= self.deepest() {
            out.push(Problem::new(
                "tyres.limit_mm",
                said("fault-limit-not-below").of("limit", Measure::TreadMm, self.limit_mm, 1).of(
                    "new",
                    Measure::TreadMm,
                    self.deepest(),
                    1,
                ),
                said("fault-limit-below-depth-when-new"),
            ));
        }
        for (a, size) in self.sizes.each() {
            out.extend(TyreSize::parse(&format!("tyres.sizes.{}", a.word()), size).err());
        }
        out.extend(self.use_.problem().map(|p| Problem::new("tyres.use", p.wrong, p.right)));
        out
    }

    /// Whether front and rear differ in size.
    #[must_use]
    pub fn staggered(&self) -> bool {
        TyreSize::parse("", &self.sizes.front).ok() != TyreSize::parse("", &self.sizes.rear).ok()
    }

    /// Whether these tyres are at or under the limit: they are replaced first, and what is forecast is new ones.
    #[must_use]
    pub fn at_limit(&self) -> bool {
        self.depth_mm <= self.limit_mm
    }

    /// The tyres a forecast without a log speaks of: these, or new ones where these are done.
    pub(crate) fn to_forecast(&self) -> std::borrow::Cow<'_, Self> {
        if self.at_limit() {
            std::borrow::Cow::Owned(Self { depth_mm: self.deepest(), ..self.clone() })
        } else {
            std::borrow::Cow::Borrowed(self)
        }
    }

    /// Depth of such a tyre when new, mm: of the class, or deeper where these are deeper now.
    pub(crate) fn deepest(&self) -> f64 {
        self.class.constants().2.max(self.depth_mm)
    }

    /// Tyre of an axle with a depth when new, mm.
    pub(crate) fn tyre(&self, axle: Axle, new_depth_mm: f64) -> Result<Tyre, Problem> {
        let size = TyreSize::parse(&format!("tyres.sizes.{}", axle.word()), &self.sizes[axle])?;
        Ok(Tyre {
            section_mm: size.section_mm,
            aspect: size.aspect,
            rim_in: size.rim_in,
            class: self.class,
            new_depth_mm: Some(new_depth_mm),
            tread_width_mm: None,
        })
    }

    /// Wheel of an axle.
    pub(crate) fn wheel(&self, axle: Axle, caster_deg: f64) -> Wheel {
        let front = axle == Axle::Front;
        let of = |f: f64| if front { f } else { 1.0 - f };
        Wheel {
            load_n: self.load_n[axle],
            pressure_kpa: self.pressure_kpa[axle],
            placard_kpa: self.placard_kpa[axle],
            placard_load_n: None,
            axle_share: self.load_n[axle] / (self.load_n.front + self.load_n.rear),
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

    /// What fixes the wear constant: what a set of this car reached, else the grade, else the class.
    pub(crate) fn basis(&self) -> Basis {
        let otherwise = self.grade.map_or(Basis::Class, Basis::Grade);
        self.own_life_km.map_or(otherwise, |life_km| {
            let positions = vec![self.wheel(Axle::Front, 5.0), self.wheel(Axle::Rear, 0.0)];
            // It was new once, however deep these tyres are now.
            let new_depth_mm = Some(self.deepest());
            Basis::Own(OwnLife { life_km, limit_mm: self.limit_mm, new_depth_mm, positions })
        })
    }

    /// How the tyres are looked after.
    pub(crate) fn upkeep(&self) -> Upkeep {
        Upkeep { rotated: self.rotated, worn_dampers: self.worn_dampers }
    }
}
