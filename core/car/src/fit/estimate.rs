//! The most probable parameters given measurements: maximum a posteriori for independent normal priors about
//! zero and independent normal noise, Gauss–Newton in the dual form with step halving (e.g. Bishop, Pattern
//! Recognition and Machine Learning; Gelb, Applied Optimal Estimation). The covariance is Laplace's.

use nalgebra::{Cholesky, DMatrix, DVector, Dyn};

/// Rounds at most; what is fitted here is nearly linear and needs three or four.
const ROUNDS: usize = 12;

/// An estimate with what its bands need.
pub(crate) struct Estimate {
    /// Most probable parameters.
    pub theta: DVector<f64>,
    prior: Vec<f64>,
    /// Measurements by parameters, at the estimate.
    jacobian: DMatrix<f64>,
    /// What the data cost at the estimate: the squares of what is left of each measurement over its σ.
    pub data_cost: f64,
    /// Of H P Hᵀ + R.
    factor: Cholesky<f64, Dyn>,
}

/// Standard deviation that each measurement had before it was taken: prior and noise together.
pub(crate) fn expected_spread(jacobian: &DMatrix<f64>, sigma: &[f64], noise: &[f64]) -> Vec<f64> {
    (0..noise.len())
        .map(|i| {
            let prior: f64 = sigma.iter().enumerate().map(|(k, s)| (s * jacobian[(i, k)]).powi(2)).sum();
            (prior + noise[i] * noise[i]).sqrt()
        })
        .collect()
}

/// Rates of the measurements by forward differences of a hundredth of each prior's σ.
pub(crate) fn jacobian(
    theta: &DVector<f64>,
    sigma: &[f64],
    here: &DVector<f64>,
    model: &impl Fn(&DVector<f64>) -> Option<DVector<f64>>,
) -> Option<DMatrix<f64>> {
    let mut h = DMatrix::zeros(here.len(), sigma.len());
    for (k, s) in sigma.iter().enumerate() {
        let mut t = theta.clone();
        let step = 0.01 * s;
        t[k] += step;
        h.set_column(k, &((model(&t)? - here) / step));
    }
    Some(h)
}

/// Finds it. `sigma` are the priors' standard deviations, `noise` the measurements'. `None` when the model
/// gives nothing at the start.
pub(crate) fn estimate(
    sigma: &[f64],
    noise: &[f64],
    wanted: &DVector<f64>,
    model: &impl Fn(&DVector<f64>) -> Option<DVector<f64>>,
) -> Option<Estimate> {
    let data = |here: &DVector<f64>| -> f64 {
        (wanted - here).iter().zip(noise).map(|(m, n)| (m / n).powi(2)).sum()
    };
    let cost = |theta: &DVector<f64>, here: &DVector<f64>| -> f64 {
        let prior: f64 = theta.iter().zip(sigma).map(|(t, s)| (t / s).powi(2)).sum();
        prior + data(here)
    };
    let mut theta = DVector::zeros(sigma.len());
    let mut here = model(&theta)?;
    let mut best = cost(&theta, &here);
    let mut found = None;
    for _ in 0..ROUNDS {
        let h = jacobian(&theta, sigma, &here, model)?;
        let weighted = DMatrix::from_fn(sigma.len(), noise.len(), |k, i| sigma[k] * sigma[k] * h[(i, k)]);
        let mut s = &h * &weighted;
        for (i, n) in noise.iter().enumerate() {
            s[(i, i)] += n * n;
        }
        let factor = s.cholesky()?;
        let full = &weighted * factor.solve(&(wanted - &here + &h * &theta)) - &theta;
        found = Some((h, factor));
        let mut part = 1.0;
        let mut moved = false;
        for _ in 0..12 {
            let next = &theta + &full * part;
            if let Some(there) = model(&next) {
                let c = cost(&next, &there);
                if c <= best + 1e-12 {
                    moved = (best - c) > 1e-10 * best.max(1e-12);
                    (theta, here, best) = (next, there, c);
                    break;
                }
            }
            part *= 0.5;
        }
        if !moved {
            break;
        }
    }
    let data_cost = data(&here);
    found.map(|(jacobian, factor)| Estimate { theta, prior: sigma.to_vec(), jacobian, data_cost, factor })
}

impl Estimate {
    /// Variance of a quantity with these rates against the parameters: what the measurements left of it.
    pub fn variance(&self, rates: &DVector<f64>) -> f64 {
        let scaled = DVector::from_fn(rates.len(), |k, _| self.prior[k] * self.prior[k] * rates[k]);
        let before = rates.dot(&scaled);
        let seen = &self.jacobian * &scaled;
        (before - seen.dot(&self.factor.solve(&seen))).max(0.0)
    }

    /// How far each parameter lies from its prior, in its σ, squared.
    pub fn prior_cost(&self) -> impl Iterator<Item = f64> + '_ {
        self.theta.iter().zip(&self.prior).map(|(t, s)| (t / s).powi(2))
    }

    /// What is left to doubt of the first `n` parameters, as independent errors: for each, the change of every
    /// parameter that makes one standard deviation of it. Eigenvectors of Laplace's covariance, taken in units of the
    /// priors so that millimetres and degrees weigh alike.
    pub fn left(&self, n: usize) -> Vec<DVector<f64>> {
        let scaled = DMatrix::from_fn(self.jacobian.nrows(), n, |i, k| self.jacobian[(i, k)] * self.prior[k]);
        let told = scaled.transpose() * self.factor.solve(&scaled);
        let eigen = (DMatrix::identity(n, n) - told).symmetric_eigen();
        eigen
            .eigenvalues
            .iter()
            .zip(eigen.eigenvectors.column_iter())
            .filter(|(v, _)| **v > 1e-12)
            .map(|(v, way)| DVector::from_fn(n, |k, _| self.prior[k] * way[k] * v.sqrt()))
            .collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// One parameter, two measurements: the textbook's weighted mean.
    #[test]
    fn is_the_weighted_mean_of_a_textbook() {
        let model = |t: &DVector<f64>| Some(DVector::from_vec(vec![t[0], t[0]]));
        let e = estimate(&[2.0], &[1.0, 0.5], &DVector::from_vec(vec![1.0, 2.0]), &model).unwrap();
        let weight = 0.25 + 1.0 + 4.0;
        assert!((e.theta[0] - (1.0 + 8.0) / weight).abs() < 1e-9);
        assert!((e.variance(&DVector::from_vec(vec![1.0])) - 1.0 / weight).abs() < 1e-9);
    }

    /// The errors that are left add up to the covariance of the textbook, whichever way one looks.
    #[test]
    fn what_is_left_adds_up_to_the_variance() {
        let model = |t: &DVector<f64>| Some(DVector::from_vec(vec![t[0] + 2.0 * t[1], t[1] - t[2]]));
        let e = estimate(&[2.0, 0.5, 3.0], &[0.3, 0.2], &DVector::from_vec(vec![1.0, 0.4]), &model).unwrap();
        for rates in [[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.3, -1.0, 2.0]] {
            let rates = DVector::from_vec(rates.to_vec());
            let sum: f64 = e.left(3).iter().map(|w| w.dot(&rates).powi(2)).sum();
            assert!((sum - e.variance(&rates)).abs() < 1e-9, "{sum} {}", e.variance(&rates));
        }
        // Least squares with priors: chi-squared of the whole is yᵀ(H P Hᵀ + R)⁻¹y (Gelb, Applied Optimal Estimation).
        let h = DMatrix::from_row_slice(2, 3, &[1.0, 2.0, 0.0, 0.0, 1.0, -1.0]);
        let p = DMatrix::from_diagonal(&DVector::from_vec(vec![4.0, 0.25, 9.0]));
        let r = DMatrix::from_diagonal(&DVector::from_vec(vec![0.09, 0.04]));
        let y = DVector::from_vec(vec![1.0, 0.4]);
        let expected = y.dot(&((&h * p * h.transpose() + r).try_inverse().unwrap() * &y));
        assert!((e.data_cost + e.prior_cost().sum::<f64>() - expected).abs() < 1e-9);
    }

    /// A curved model comes to rest at the minimum (checked against a fine scan).
    #[test]
    fn a_curved_model_is_brought_to_its_minimum() {
        let model = |t: &DVector<f64>| Some(DVector::from_vec(vec![(t[0] + 0.5).exp()]));
        let wanted = DVector::from_vec(vec![4.0]);
        let e = estimate(&[1.0], &[0.3], &wanted, &model).unwrap();
        let cost = |t: f64| t * t + (((t + 0.5f64).exp() - 4.0) / 0.3).powi(2);
        let scan =
            (0..200_000).map(|i| -1.0 + 2e-5 * f64::from(i)).min_by(|a, b| cost(*a).total_cmp(&cost(*b)));
        assert!((e.theta[0] - scan.unwrap()).abs() < 1e-4, "{}", e.theta[0]);
    }
}
