//! A hand and an eye at a tool: what is read scatters, and stands between two lines of the scale.

use rand_distr::{Distribution, StandardNormal};
use rand_pcg::Pcg64Mcg;
use serde::{Deserialize, Serialize};

/// What the reader looks at.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Face {
    /// A tape or rule against an edge, mm.
    Tape,
    /// A short rule with half millimetres.
    Rule,
    /// A calliper, mm.
    Calliper,
    /// A bubble over a scale, degrees.
    Bubble,
    /// Digits of an angle gauge, degrees.
    Digits,
    /// A ring of degrees under the wheel.
    Plate,
    /// A dial, mm.
    Dial,
    /// A depth gauge in a groove, mm.
    Depth,
    /// A pressure gauge, kPa.
    Pressure,
    /// What is stamped, felt or plainly seen: a word or a size.
    Word,
}

impl Face {
    /// Distance between two lines of its scale that an eye still tells apart (common practice, no source).
    #[must_use]
    pub fn least(self) -> f64 {
        match self {
            Self::Tape => 1.0,
            Self::Rule => 0.5,
            Self::Calliper | Self::Dial => 0.05,
            Self::Bubble => 0.05,
            Self::Digits => 0.01,
            Self::Plate => 0.5,
            Self::Depth => 0.1,
            Self::Pressure => 5.0,
            Self::Word => 0.0,
        }
    }
}

/// One thing that a tool shows.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Shown {
    /// Entry of the method it is typed at.
    pub name: String,
    /// What it is read off.
    pub face: Face,
    /// Where the pointer, edge or bubble stands: mm, degrees or kPa; 0 for a word.
    pub at: f64,
    /// A word that is seen or felt.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub word: Option<String>,
}

impl Shown {
    /// As somebody types it who reads it well.
    #[must_use]
    pub fn typed(&self) -> String {
        match &self.word {
            Some(w) => w.clone(),
            None => format!("{}", (self.at * 1e4).round() / 1e4),
        }
    }
}

/// A hand at a tool.
#[derive(Debug)]
pub struct Hand {
    rng: Pcg64Mcg,
    /// How much more than stated it scatters.
    pub scatter: f64,
}

impl Hand {
    /// A hand that scatters as the methods state.
    #[must_use]
    pub fn new(rng: Pcg64Mcg) -> Self {
        Self { rng, scatter: 1.0 }
    }

    /// Normal, mean 0, standard deviation 1.
    pub fn normal(&mut self) -> f64 {
        StandardNormal.sample(&mut self.rng)
    }

    /// What is read of `truth` where the method states `sigma`: hand and eye, then the nearest line. What the lines take is not
    /// scattered a second time (a uniform error of one step has a variance of step²/12).
    pub fn reads(&mut self, truth: f64, sigma: f64, face: Face) -> f64 {
        let least = face.least();
        let own = (sigma * sigma - least * least / 12.0).max(0.0).sqrt();
        let v = truth + self.scatter * own * self.normal();
        if least > 0.0 { (v / least).round() * least } else { v }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rand::SeedableRng;

    #[test]
    fn a_reading_scatters_as_stated_lines_and_all() {
        let mut h = Hand::new(Pcg64Mcg::seed_from_u64(7));
        for (face, sigma) in [(Face::Tape, 0.8), (Face::Rule, 0.5), (Face::Bubble, 0.1), (Face::Plate, 0.5)] {
            let n = 20_000;
            let off: Vec<f64> = (0..n)
                .map(|i| {
                    let truth = f64::from(i) * 0.000_37;
                    h.reads(truth, sigma, face) - truth
                })
                .collect();
            let mean = off.iter().sum::<f64>() / f64::from(n);
            let sd = (off.iter().map(|o| (o - mean).powi(2)).sum::<f64>() / f64::from(n)).sqrt();
            assert!(mean.abs() < 0.03 * sigma, "{face:?} {mean}");
            assert!((sd / sigma - 1.0).abs() < 0.03, "{face:?} {sd}");
        }
    }

    #[test]
    fn the_same_seed_reads_the_same() {
        let read = || Hand::new(Pcg64Mcg::seed_from_u64(3)).reads(500.0, 1.0, Face::Tape);
        assert_eq!(read(), read());
    }
}
