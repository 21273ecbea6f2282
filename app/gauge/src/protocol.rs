//! The lines: what a gauge says and what it is told. One line a message, UTF-8, ended by `\n`.

use std::fmt;

/// Version in the greeting.
pub const VERSION: &str = "bold-stance.gauge/1";
/// Longest line, bytes.
const LONGEST: usize = 200;

/// Which way the gauge looks.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Looking {
    /// Along the axle: camber.
    Camber,
    /// Fore and aft: the tilt of a braked wheel.
    ForeAft,
}

/// Where a simulated gauge is held. A real one does not know and refuses it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct GaugePlace {
    /// Front axle, else rear.
    pub front: bool,
    /// Left side, else right.
    pub left: bool,
    /// Which way it looks.
    pub looking: Looking,
    /// Swing of the wheel, degrees, left positive.
    pub steer_deg: f64,
    /// Hub-to-arch height above design, mm.
    pub gain_mm: f64,
}

/// What a gauge says.
#[derive(Debug, Clone, PartialEq)]
pub enum Line {
    /// First line of a connection: what it is.
    Hello {
        /// What it calls itself.
        name: String,
        /// Smallest step it shows, degrees.
        resolution_deg: f64,
        /// Whether it stands on a simulated car and takes `place`.
        simulated: bool,
    },
    /// An angle, some ten times a second.
    Angle {
        /// Degrees, as shown.
        deg: f64,
        /// Held with its button: it does not follow.
        held: bool,
        /// Counts from a zero of the user's own.
        zeroed: bool,
        /// Goes up by one each line.
        seq: u64,
    },
    /// A command was done.
    Ok,
    /// A command was not done, and why.
    No(String),
}

/// What a gauge is told.
#[derive(Debug, Clone, PartialEq)]
pub enum Command {
    /// Count from here.
    Zero,
    /// Count from gravity again.
    Unzero,
    /// Keep showing this angle.
    Hold,
    /// Follow again.
    Release,
    /// Simulated gauges only: hold it somewhere else.
    Place(GaugePlace),
}

/// A line that cannot be read.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("\"{line}\": {wrong}; {right}")]
pub struct LineError {
    /// The line, cut short.
    pub line: String,
    /// What is wrong.
    pub wrong: String,
    /// What would be right.
    pub right: &'static str,
}

fn bad(line: &str, wrong: impl Into<String>, right: &'static str) -> LineError {
    LineError { line: line.chars().take(40).collect(), wrong: wrong.into(), right }
}

/// Words after the first as `key=value`.
fn field<'a>(words: &[&'a str], key: &str) -> Option<&'a str> {
    words.iter().find_map(|w| w.split_once('=').filter(|(k, _)| *k == key).map(|(_, v)| v))
}

fn finite(text: &str, limit: f64) -> Option<f64> {
    text.parse::<f64>().ok().filter(|v| v.is_finite() && v.abs() <= limit)
}

impl Line {
    /// Reads a gauge's line.
    ///
    /// # Errors
    /// [`LineError`].
    pub fn parse(line: &str) -> Result<Self, LineError> {
        const RIGHT: &str = "hello, angle, ok or no, as docs/GAUGE.md has them";
        let line = line.trim_end_matches(['\r', '\n']);
        if line.len() > LONGEST {
            return Err(bad(line, "longer than 200 bytes", RIGHT));
        }
        let words: Vec<&str> = line.split_ascii_whitespace().collect();
        match words.split_first() {
            Some((&"hello", rest)) => {
                if rest.first() != Some(&VERSION) {
                    return Err(bad(line, "not this protocol", "hello bold-stance.gauge/1 ..."));
                }
                let resolution_deg =
                    field(rest, "step")
                        .and_then(|t| finite(t, 10.0))
                        .filter(|v| *v > 0.0)
                        .ok_or_else(|| bad(line, "no usable step", "step=0.05, degrees above 0"))?;
                let name = field(rest, "name").unwrap_or("gauge").replace('_', " ");
                Ok(Self::Hello { name, resolution_deg, simulated: field(rest, "simulated") == Some("yes") })
            }
            Some((&"angle", rest)) => {
                let deg = rest
                    .first()
                    .and_then(|t| finite(t, 360.0))
                    .ok_or_else(|| bad(line, "no usable angle", "angle -0.35 seq=12, within 360 degrees"))?;
                let seq = field(rest, "seq")
                    .and_then(|t| t.parse().ok())
                    .ok_or_else(|| bad(line, "no seq", "angle -0.35 seq=12"))?;
                Ok(Self::Angle { deg, held: rest.contains(&"held"), zeroed: rest.contains(&"zeroed"), seq })
            }
            Some((&"ok", _)) => Ok(Self::Ok),
            Some((&"no", rest)) => Ok(Self::No(rest.join(" "))),
            _ => Err(bad(line, "not a line of a gauge", RIGHT)),
        }
    }
}

impl fmt::Display for Line {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Hello { name, resolution_deg, simulated } => {
                let sim = if *simulated { " simulated=yes" } else { "" };
                write!(f, "hello {VERSION} name={} step={resolution_deg}{sim}", name.replace(' ', "_"))
            }
            Self::Angle { deg, held, zeroed, seq } => {
                write!(f, "angle {deg:.3} seq={seq}")?;
                f.write_str(if *held { " held" } else { "" })?;
                f.write_str(if *zeroed { " zeroed" } else { "" })
            }
            Self::Ok => f.write_str("ok"),
            Self::No(why) => write!(f, "no {why}"),
        }
    }
}

impl Command {
    /// Reads a command.
    ///
    /// # Errors
    /// [`LineError`].
    pub fn parse(line: &str) -> Result<Self, LineError> {
        const PLACE: &str = "place front|rear left|right camber|fore-aft steer=20 gain=0";
        let line = line.trim_end_matches(['\r', '\n']);
        if line.len() > LONGEST {
            return Err(bad(line, "longer than 200 bytes", "a command"));
        }
        let words: Vec<&str> = line.split_ascii_whitespace().collect();
        match words.as_slice() {
            ["zero"] => Ok(Self::Zero),
            ["unzero"] => Ok(Self::Unzero),
            ["hold"] => Ok(Self::Hold),
            ["release"] => Ok(Self::Release),
            ["place", rest @ ..] => {
                let pick = |yes: &str, no: &str| match (rest.contains(&yes), rest.contains(&no)) {
                    (true, false) => Ok(true),
                    (false, true) => Ok(false),
                    _ => Err(bad(line, format!("neither or both of {yes} and {no}"), PLACE)),
                };
                let number = |key, limit: f64| match field(rest, key) {
                    None => Ok(0.0),
                    Some(t) => {
                        finite(t, limit).ok_or_else(|| bad(line, format!("{key} is out of reach"), PLACE))
                    }
                };
                Ok(Self::Place(GaugePlace {
                    front: pick("front", "rear")?,
                    left: pick("left", "right")?,
                    looking: if pick("camber", "fore-aft")? { Looking::Camber } else { Looking::ForeAft },
                    steer_deg: number("steer", 50.0)?,
                    gain_mm: number("gain", 300.0)?,
                }))
            }
            _ => Err(bad(line, "not a command", "zero, unzero, hold, release or place")),
        }
    }
}

impl fmt::Display for Command {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Zero => f.write_str("zero"),
            Self::Unzero => f.write_str("unzero"),
            Self::Hold => f.write_str("hold"),
            Self::Release => f.write_str("release"),
            Self::Place(p) => write!(
                f,
                "place {} {} {} steer={} gain={}",
                if p.front { "front" } else { "rear" },
                if p.left { "left" } else { "right" },
                if p.looking == Looking::Camber { "camber" } else { "fore-aft" },
                p.steer_deg,
                p.gain_mm
            ),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn lines_are_read_as_documented() {
        assert_eq!(
            Line::parse("hello bold-stance.gauge/1 name=Bench_gauge step=0.05 simulated=yes\n").unwrap(),
            Line::Hello { name: "Bench gauge".into(), resolution_deg: 0.05, simulated: true }
        );
        assert_eq!(
            Line::parse("angle -0.350 seq=12 held").unwrap(),
            Line::Angle { deg: -0.35, held: true, zeroed: false, seq: 12 }
        );
        assert_eq!(Line::parse("no such place").unwrap(), Line::No("such place".into()));
        for bad in [
            "",
            "hello other/1 step=0.1",
            "hello bold-stance.gauge/1",
            "angle nan seq=1",
            "angle 1",
            "angle 999 seq=1",
            "ANGLE 1 seq=1",
        ] {
            assert!(Line::parse(bad).is_err(), "{bad}");
        }
        for bad in [
            "",
            "zero now",
            "place front",
            "place front rear left camber",
            "place front left camber steer=x",
            "place front left camber steer=80",
        ] {
            assert!(Command::parse(bad).is_err(), "{bad}");
        }
    }

    proptest! {
        #[test]
        fn what_is_said_is_understood(deg in -9000i32..9000, held: bool, zeroed: bool, seq: u64) {
            let l = Line::Angle { deg: f64::from(deg) / 1000.0, held, zeroed, seq };
            prop_assert_eq!(Line::parse(&l.to_string()).unwrap(), l);
        }

        #[test]
        fn what_is_told_is_understood(front: bool, left: bool, camber: bool, steer in -50i32..50, gain in -300i32..300) {
            let looking = if camber { Looking::Camber } else { Looking::ForeAft };
            let c = Command::Place(GaugePlace { front, left, looking, steer_deg: f64::from(steer), gain_mm: f64::from(gain) });
            prop_assert_eq!(Command::parse(&c.to_string()).unwrap(), c);
        }

        #[test]
        fn noise_on_the_line_never_panics(s in ".{0,60}") {
            let _ = (Line::parse(&s), Command::parse(&s));
        }
    }
}
