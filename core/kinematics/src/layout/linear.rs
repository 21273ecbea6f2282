//! Small dense systems on the stack: the matrices here are 5 × 5 or less and solved millions of times.

/// Solves `a · x = b` in place with partial pivoting; `None` when the matrix is singular.
pub(super) fn solve<const N: usize>(mut a: [[f64; N]; N], mut b: [f64; N]) -> Option<[f64; N]> {
    for k in 0..N {
        let pivot = (k..N).max_by(|i, j| a[*i][k].abs().total_cmp(&a[*j][k].abs()))?;
        // Rows are scaled to about unit length by the callers.
        if a[pivot][k].abs() < 1e-12 {
            return None;
        }
        a.swap(k, pivot);
        b.swap(k, pivot);
        for i in k + 1..N {
            let f = a[i][k] / a[k][k];
            let row = a[k];
            for (x, y) in a[i].iter_mut().zip(row).skip(k) {
                *x -= f * y;
            }
            b[i] -= f * b[k];
        }
    }
    for k in (0..N).rev() {
        let mut s = b[k];
        for j in k + 1..N {
            s -= a[k][j] * b[j];
        }
        b[k] = s / a[k][k];
    }
    Some(b)
}

/// Determinant, by the same elimination.
pub(super) fn determinant<const N: usize>(mut a: [[f64; N]; N]) -> f64 {
    let mut det = 1.0;
    for k in 0..N {
        let pivot = (k..N).max_by(|i, j| a[*i][k].abs().total_cmp(&a[*j][k].abs())).unwrap_or(k);
        if pivot != k {
            a.swap(k, pivot);
            det = -det;
        }
        det *= a[k][k];
        if a[k][k] == 0.0 {
            return 0.0;
        }
        for i in k + 1..N {
            let f = a[i][k] / a[k][k];
            let row = a[k];
            for (x, y) in a[i].iter_mut().zip(row).skip(k) {
                *x -= f * y;
            }
        }
    }
    det
}

#[cfg(test)]
mod tests {
    use super::*;
    use nalgebra::{Matrix5, Vector5};
    use proptest::prelude::*;

    proptest! {
        /// Against a general-purpose library (nalgebra's LU).
        #[test]
        fn agrees_with_a_general_library(v in proptest::collection::vec(-1.0f64..1.0, 30)) {
            let a: [[f64; 5]; 5] = std::array::from_fn(|i| std::array::from_fn(|j| v[5 * i + j]));
            let b: [f64; 5] = std::array::from_fn(|i| v[25 + i]);
            let m = Matrix5::from_fn(|i, j| a[i][j]);
            prop_assume!(m.determinant().abs() > 1e-3);
            let x = m.lu().solve(&Vector5::from(b)).unwrap();
            let ours = solve(a, b).unwrap();
            for i in 0..5 {
                prop_assert!((ours[i] - x[i]).abs() < 1e-9);
            }
            prop_assert!((determinant(a) - m.determinant()).abs() < 1e-12);
        }
    }

    #[test]
    fn a_singular_matrix_has_no_answer() {
        assert!(solve([[1.0, 2.0], [2.0, 4.0]], [1.0, 1.0]).is_none());
        assert!(determinant([[1.0, 2.0], [2.0, 4.0]]).abs() < 1e-15);
    }
}
