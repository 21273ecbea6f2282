//! One axle's tyres as driven, for ranking sets of parts: the same forecast as of the whole car.

use super::band::{Band, Belief, Running, band_km};
use super::car_tyres::CarTyres;
use super::forecast::forecast;
use super::parameters::Parameters;
use super::scene::AxleScene;
use bold_stance_kinematics::geometry::Axle;

/// Distance until the worst strip of the shorter-lived tyre meets the limit, km, without a band; `None` for a size
/// that is none.
pub fn axle_life(c: &CarTyres, axle: Axle, scene: &AxleScene) -> Option<f64> {
    let c = &*c.to_forecast();
    let tyre = c.tyre(axle, c.depth_mm).ok()?;
    let basis = c.basis();
    let life = |side: usize| {
        let wheel = c.wheel(axle, scene.caster(side));
        let k = basis.constant(&tyre, &wheel, None, &Parameters::default());
        forecast(&tyre, &wheel, &scene.setups(side), &c.use_, k, c.limit_mm).life_km
    };
    Some(life(0).min(life(1)))
}

/// The same with its 80 % band.
pub fn axle_band(c: &CarTyres, axle: Axle, scene: &AxleScene) -> Option<Band> {
    let c = &*c.to_forecast();
    let tyre = c.tyre(axle, c.depth_mm).ok()?;
    let basis = c.basis();
    let of = |side: usize| {
        let wheel = c.wheel(axle, scene.caster(side));
        let run = Running { wheel, setups: scene.setups(side), share: 1.0, flipped: false };
        band_km(&Belief::of(&tyre, &[run], &c.use_, c.limit_mm, &basis))
    };
    let (l, r) = (of(0), of(1));
    Some(if r.median < l.median { r } else { l })
}
