//! What is believed of a corner: offsets of its angles and logarithms of what its adjusters really do, as one Gaussian;
//! how a reading changes it (extended Kalman filter, Joseph's form: Bar-Shalom, Li, Kirubarajan, "Estimation with
//! Applications to Tracking and Navigation", chapters 5.2 and 10.3, from memory).

use nalgebra::{DMatrix, DVector};

/// A Gaussian: three offsets (camber, caster, toe, degrees), then ln gain of each adjuster.
#[derive(Debug, Clone, PartialEq)]
pub struct Belief {
    /// Means.
    pub mean: DVector<f64>,
    /// Covariance.
    pub cov: DMatrix<f64>,
}

/// A reading against what was expected of it.
#[derive(Debug, Clone)]
pub struct Innovation {
    /// Read less expected, degrees.
    pub off: DVector<f64>,
    /// Covariance of expecting and reading together.
    pub cov: DMatrix<f64>,
    /// Its square in standard deviations.
    pub chi2: f64,
}

/// 99 % points of χ² with 1, 2 and 3 degrees of freedom (NIST/SEMATECH e-Handbook of Statistical Methods, table 1.3.6.7.4).
const CHI2_99: [f64; 3] = [6.635, 9.210, 11.345];

impl Innovation {
    /// Whether it lies beyond what happens once in a hundred times.
    #[must_use]
    pub fn is_odd(&self) -> bool {
        let n = self.off.len();
        n > 0 && self.chi2 > CHI2_99[n.min(3) - 1]
    }
}

impl Belief {
    /// Offsets of no mean and these variances, ln gains of these means and standard deviations, all independent.
    #[must_use]
    pub fn of(offset_variance: [f64; 3], gains: &[(f64, f64)]) -> Self {
        let n = 3 + gains.len();
        let mean = DVector::from_fn(n, |i, _| if i < 3 { 0.0 } else { gains[i - 3].0 });
        let var = |i: usize| if i < 3 { offset_variance[i] } else { gains[i - 3].1.powi(2) };
        Self { mean, cov: DMatrix::from_diagonal(&DVector::from_fn(n, |i, _| var(i))) }
    }

    /// The gains, means.
    #[must_use]
    pub fn gains(&self) -> Vec<f64> {
        self.mean.iter().skip(3).map(|g| g.exp()).collect()
    }

    /// The offsets, means, degrees.
    #[must_use]
    pub fn offsets(&self) -> [f64; 3] {
        [self.mean[0], self.mean[1], self.mean[2]]
    }

    /// Work was done in between: the offsets are less sure by so much (covariance, degrees squared).
    pub fn disturb(&mut self, q: &[[f64; 3]; 3]) {
        for (i, row) in q.iter().enumerate() {
            for (j, v) in row.iter().enumerate() {
                self.cov[(i, j)] += v;
            }
        }
    }

    /// A reading that is `off` from what is expected, with slopes `h` and variances `r`.
    #[must_use]
    pub fn innovation(&self, h: &DMatrix<f64>, off: DVector<f64>, r: &[f64]) -> Innovation {
        let mut cov = h * &self.cov * h.transpose();
        for (i, v) in r.iter().enumerate() {
            cov[(i, i)] += v;
        }
        let solved = cov.clone().cholesky().map(|c| c.solve(&off));
        let chi2 = solved.map_or(0.0, |s| off.dot(&s));
        Innovation { off, cov, chi2 }
    }

    /// The belief after a reading. `model` gives what is expected at a state and its slopes there; asked twice, at the
    /// state before and at the one it led to.
    #[must_use]
    pub fn updated(
        &self,
        read: &DVector<f64>,
        r: &[f64],
        mut model: impl FnMut(&DVector<f64>) -> Option<(DVector<f64>, DMatrix<f64>)>,
    ) -> Option<Self> {
        let noise = DMatrix::from_diagonal(&DVector::from_column_slice(r));
        let mut x = self.mean.clone();
        let mut last = None;
        for _ in 0..2 {
            let (expected, h) = model(&x)?;
            let s = &h * &self.cov * h.transpose() + &noise;
            // K = P Hᵀ S⁻¹, S symmetric.
            let k = s.cholesky()?.solve(&(&h * &self.cov)).transpose();
            x = &self.mean + &k * (read - expected - &h * (&self.mean - &x));
            last = Some((k, h));
        }
        let (k, h) = last?;
        let n = self.mean.len();
        let left = DMatrix::identity(n, n) - &k * h;
        let cov = &left * &self.cov * left.transpose() + &k * noise * k.transpose();
        Some(Self { mean: x, cov: 0.5 * (&cov + cov.transpose()) })
    }
}
