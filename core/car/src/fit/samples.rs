//! The same bands by drawing many cars: slower than the linear rule, without its assumption.

use super::{Doubt, Doubted, half_widths};
use crate::vehicle::Measured;
use bold_stance_kinematics::linkage::Unreachable;
use rand::SeedableRng;
use rand_distr::{Distribution, StandardNormal};
use rand_pcg::Pcg64Mcg;

/// Cars drawn for a band.
pub const SAMPLES: usize = 200;

/// Standard normal numbers, always the same ones for a seed.
pub(crate) fn normals(seed: u64) -> impl FnMut() -> f64 {
    let mut rng = Pcg64Mcg::seed_from_u64(seed);
    move || StandardNormal.sample(&mut rng)
}

/// Half widths of 90 % bands at each travel from `samples` cars drawn with a fixed seed; `None` where fewer
/// than half of the cars close.
///
/// # Errors
/// [`Unreachable`] when the undisturbed corner cannot be anchored.
pub fn sampled_doubt(
    d: &Doubted<'_>,
    travels: &[f64],
    samples: usize,
) -> Result<Vec<Option<Doubt>>, Unreachable> {
    d.sweep(d.points, d.measured, &[])?;
    let mut normal = normals(0x5743_4e43);
    let mut sums = vec![([0.0f64; 3], [0.0f64; 3], 0usize); travels.len()];
    for _ in 0..samples {
        let mut points = d.points.clone();
        for s in d.spreads {
            s.shift(&mut points, s.sigma_mm * normal());
        }
        let read = Measured {
            camber_deg: d.measured.camber_deg + d.sigma.camber_deg * normal(),
            caster_deg: d.measured.caster_deg + d.sigma.caster_deg * normal(),
            toe_deg: d.measured.toe_deg + d.sigma.toe_deg * normal(),
        };
        let Ok(found) = d.sweep(&points, &read, travels) else { continue };
        for ((sum, square, count), got) in sums.iter_mut().zip(found) {
            let Some(v) = got else { continue };
            *count += 1;
            for k in 0..3 {
                sum[k] += v[k];
                square[k] += v[k] * v[k];
            }
        }
    }
    Ok(sums
        .into_iter()
        .map(|(sum, square, count)| {
            if 2 * count < samples || count < 2 {
                return None;
            }
            let n = count as f64;
            Some(half_widths(std::array::from_fn(|k| {
                ((square[k] - sum[k] * sum[k] / n) / (n - 1.0)).max(0.0)
            })))
        })
        .collect())
}

#[cfg(test)]
mod tests {
    use super::super::{Knowledge, doubt, spreads};
    use super::*;
    use crate::sample::sample;

    fn case(
        points: &bold_stance_kinematics::geometry::Geometry,
        knowledge: Knowledge,
    ) -> [Vec<Option<Doubt>>; 2] {
        let read = Measured { camber_deg: -0.2, caster_deg: 3.4, toe_deg: 0.05 };
        let known = spreads(&points.points, knowledge);
        let d = Doubted {
            points: &points.points,
            wheel: &points.wheel,
            read_at: 0.0,
            start: &[],
            planned: &[],
            measured: &read,
            sigma: crate::fit::Sigmas { camber_deg: 0.1, caster_deg: 0.2, toe_deg: 0.05 },
            spreads: &known,
            height_sigma_mm: 0.0,
            throws: &[],
        };
        let travels = [-60.0, -30.0, 0.0, 40.0];
        [doubt(&d, &travels).unwrap(), sampled_doubt(&d, &travels, 3000).unwrap()]
    }

    /// The linear rule may stand for the sampled one only where they agree within 10 %.
    #[test]
    fn the_linear_rule_agrees_within_ten_percent() {
        let g = sample();
        for k in [Knowledge::Taped, Knowledge::Surveyed, Knowledge::Archetype] {
            let [linear, drawn] = case(&g, k);
            for (a, b) in linear.iter().zip(&drawn) {
                let (a, b) = (a.unwrap(), b.unwrap());
                for (x, y) in
                    [(a.camber_deg, b.camber_deg), (a.caster_deg, b.caster_deg), (a.toe_deg, b.toe_deg)]
                {
                    assert!((x / y - 1.0).abs() < 0.1, "{k:?}: {x} {y}");
                }
            }
        }
    }

    #[test]
    fn bands_are_the_same_every_time() {
        let g = sample();
        assert_eq!(case(&g, Knowledge::Taped)[1], case(&g, Knowledge::Taped)[1]);
    }
}
