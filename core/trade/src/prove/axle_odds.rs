//! Explanations of both wheels of an axle weighed together: some causes come to both wheels at once.
//!
//! Of a wheel alone p(h | its reading) is in proportion to π(h)·L(h). Let the other wheel share the cause with probability ρ and
//! have one of its own otherwise: P(h' | h) = (1 − ρ)·π(h') + ρ·[h' = h]. Summed over what the other wheel may have (Bayes'
//! rule), p(h | both) is in proportion to p(h | own)·((1 − ρ) + ρ·p(h | other) / π(h)).

use super::explain::{Explained, Weighed, mark_alike};

/// How likely the other wheel of an axle shares a cause, by what it is (judgement, no source): a gauge's zero, points and
/// what was read on a jack come to both; a person who turned one bolt the wrong way may have the other one right.
const SHARED: [(&str, f64); 9] = [
    ("explain-zero", 0.7),
    ("explain-points", 0.6),
    ("explain-jacked", 0.8),
    ("explain-caster-old", 0.8),
    ("explain-steering", 0.9),
    ("explain-sign", 0.4),
    ("explain-gain", 0.5),
    ("explain-reversed", 0.3),
    ("explain-mixed", 0.3),
];

fn shared(id: &str) -> f64 {
    SHARED.iter().find(|(of, _)| *of == id).map_or(0.0, |(_, rho)| *rho)
}

/// What explains the reading of a wheel, with what was read of the other one: likeliest first. Without the other one's nothing
/// changes.
pub(super) fn weighed_together(own: &[Weighed], other: &[Weighed]) -> Vec<Explained> {
    let factor = |w: &Weighed| {
        let rho = shared(&w.told.what.id);
        let there = other.iter().find(|o| o.told.what == w.told.what).map_or(0.0, |o| o.told.odds);
        if other.is_empty() { 1.0 } else { 1.0 - rho + rho * there / w.prior }
    };
    let odds: Vec<f64> = own.iter().map(|w| w.told.odds * factor(w)).collect();
    let total: f64 = odds.iter().sum();
    let of = |(w, odds): (&Weighed, f64)| (w.prior, Explained { odds: odds / total, ..w.told.clone() });
    let mut out: Vec<(f64, Explained)> = own.iter().zip(odds).map(of).collect();
    out.sort_by(|a, b| b.1.odds.total_cmp(&a.1.odds));
    mark_alike(&mut out);
    out.into_iter().map(|(_, e)| e).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use bold_stance_units::said::said;

    /// Odds of three causes, each as likely as the others before a reading.
    fn wheel(odds: [f64; 3]) -> Vec<Weighed> {
        let ids = ["explain-nothing", "explain-zero", "explain-slipped"];
        let of = |(id, odds): (&'static str, f64)| Weighed {
            told: Explained { what: said(id), odds, given: [0.0; 3], alike: false },
            prior: 1.0 / 3.0,
        };
        ids.into_iter().zip(odds).map(of).collect()
    }

    fn odds(of: &[Explained], id: &str) -> f64 {
        of.iter().find(|e| e.what.id == id).unwrap().odds
    }

    #[test]
    fn both_wheels_off_alike_speak_for_what_comes_to_both() {
        let (a, b) = (wheel([0.1, 0.45, 0.45]), wheel([0.1, 0.6, 0.3]));
        let alone = weighed_together(&a, &[]);
        assert!((odds(&alone, "explain-zero") - 0.45).abs() < 1e-12);
        // Worked by hand: 0.45·(0.3 + 0.7·0.6·3) = 0.702 beside 0.1 and 0.45.
        let both = weighed_together(&a, &b);
        assert!((odds(&both, "explain-zero") - 0.702 / 1.252).abs() < 1e-12, "{both:?}");
        assert_eq!(both[0].what.id, "explain-zero");
        // The other wheel as expected speaks against it: 0.45·(0.3 + 0.7·0.05·3) = 0.18225.
        let one = weighed_together(&a, &wheel([0.9, 0.05, 0.05]));
        assert!((odds(&one, "explain-zero") - 0.18225 / 0.73225).abs() < 1e-12, "{one:?}");
        assert_eq!(one[0].what.id, "explain-slipped");
    }

    /// The formula against the sum over every pair of causes.
    #[test]
    fn the_short_form_is_the_sum_over_every_pair() {
        let (a, b) = (wheel([0.2, 0.5, 0.3]), wheel([0.3, 0.1, 0.6]));
        let pair = |i: usize| -> f64 {
            let rho = shared(&a[i].told.what.id);
            let each = b.iter().enumerate().map(|(j, w)| {
                let given = (1.0 - rho) * w.prior + if i == j { rho } else { 0.0 };
                a[i].told.odds * given * w.told.odds / w.prior
            });
            each.sum()
        };
        let total: f64 = (0..3).map(pair).sum();
        let both = weighed_together(&a, &b);
        for (i, w) in a.iter().enumerate() {
            assert!((odds(&both, &w.told.what.id) - pair(i) / total).abs() < 1e-12);
        }
    }
}
