//! Names of steps, gates and ticks: types inside, stable words in a file or database.

use bold_stance_kinematics::geometry::Axle;
use serde::{Deserialize, Serialize};
use std::fmt;
use std::str::FromStr;

/// A step or gate of a car's sheet.
#[derive(Debug, Clone, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(into = "String", try_from = "String")]
pub enum StepId {
    /// What was found worn or broken comes first.
    Repair,
    /// Gate: something fouls as planned.
    Fouls,
    /// Stand and mark.
    Support,
    /// Set the height of an axle.
    Height(Axle),
    /// Gate: settled, heights read again.
    Settled,
    /// Fit a part, by its id, to an axle.
    Fit(Axle, String),
    /// Turn everything of an axle but toe.
    Arms(Axle),
    /// Gate: the axle's angles read again.
    Read(Axle),
    /// Turn what sets toe.
    Toe(Axle),
    /// Tighten at ride height.
    Tighten,
    /// Gate: the whole car read again.
    Proved,
}

/// What a name of a step is not.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("no step \"{0}\"")]
pub struct UnknownStep(pub String);

impl fmt::Display for StepId {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        use Axle::{Front, Rear};
        // The front's words are those of sheets that knew no rear.
        match self {
            Self::Repair => f.write_str("repair"),
            Self::Fouls => f.write_str("fouls"),
            Self::Support => f.write_str("support"),
            Self::Height(Front) => f.write_str("height"),
            Self::Height(Rear) => f.write_str("rear-height"),
            Self::Settled => f.write_str("settled"),
            Self::Fit(Front, id) => write!(f, "fit-{id}"),
            Self::Fit(Rear, id) => write!(f, "rear-fit-{id}"),
            Self::Arms(Front) => f.write_str("cams"),
            Self::Arms(Rear) => f.write_str("rear-arms"),
            Self::Read(Front) => f.write_str("reswept"),
            Self::Read(Rear) => f.write_str("rear-read"),
            Self::Toe(Front) => f.write_str("tie-rods"),
            Self::Toe(Rear) => f.write_str("rear-toe"),
            Self::Tighten => f.write_str("tighten"),
            Self::Proved => f.write_str("proved"),
        }
    }
}

impl FromStr for StepId {
    type Err = UnknownStep;

    fn from_str(s: &str) -> Result<Self, UnknownStep> {
        use Axle::{Front, Rear};
        Ok(match s {
            "repair" => Self::Repair,
            "fouls" => Self::Fouls,
            "support" => Self::Support,
            "height" => Self::Height(Front),
            "rear-height" => Self::Height(Rear),
            "settled" => Self::Settled,
            "cams" => Self::Arms(Front),
            "rear-arms" => Self::Arms(Rear),
            "reswept" => Self::Read(Front),
            "rear-read" => Self::Read(Rear),
            "tie-rods" => Self::Toe(Front),
            "rear-toe" => Self::Toe(Rear),
            "tighten" => Self::Tighten,
            "proved" => Self::Proved,
            _ => match (s.strip_prefix("fit-"), s.strip_prefix("rear-fit-")) {
                (Some(id), _) if !id.is_empty() => Self::Fit(Front, id.to_owned()),
                (_, Some(id)) if !id.is_empty() => Self::Fit(Rear, id.to_owned()),
                _ => return Err(UnknownStep(s.to_owned())),
            },
        })
    }
}

impl From<StepId> for String {
    fn from(s: StepId) -> Self {
        s.to_string()
    }
}

impl TryFrom<String> for StepId {
    type Error = UnknownStep;
    fn try_from(s: String) -> Result<Self, UnknownStep> {
        s.parse()
    }
}

impl StepId {
    /// Whether a car that was accepted is no longer so once this is done or taken back: everything but the last gate.
    #[must_use]
    pub fn reopens(&self) -> bool {
        *self != Self::Proved
    }

    /// Whether it is a gate: it judges readings, and opening it is somebody's word.
    #[must_use]
    pub fn is_gate(&self) -> bool {
        matches!(self, Self::Fouls | Self::Settled | Self::Read(_) | Self::Proved)
    }
}

/// Something ticked by hand at a gate.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Tick {
    /// Rolled three metres.
    Roll,
    /// Bounced three times.
    Bounce,
    /// Caster swept again.
    Resweep,
    /// Steering wheel straight.
    WheelStraight,
}

impl Tick {
    /// Every tick.
    pub const ALL: [Self; 4] = [Self::Roll, Self::Bounce, Self::Resweep, Self::WheelStraight];

    /// Its word in a file or database.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Roll => "roll",
            Self::Bounce => "bounce",
            Self::Resweep => "resweep",
            Self::WheelStraight => "wheel_straight",
        }
    }
}

/// What is marked as done: a step or gate, or a tick at a gate.
#[derive(Debug, Clone, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(into = "String", try_from = "String")]
pub enum Mark {
    /// A step, or a gate opened.
    Step(StepId),
    /// A tick at a gate.
    Tick(StepId, Tick),
}

impl fmt::Display for Mark {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Step(s) => s.fmt(f),
            Self::Tick(s, t) => write!(f, "{s}/{}", t.word()),
        }
    }
}

impl FromStr for Mark {
    type Err = UnknownStep;

    fn from_str(s: &str) -> Result<Self, UnknownStep> {
        let Some((step, tick)) = s.split_once('/') else { return Ok(Self::Step(s.parse()?)) };
        let tick = Tick::ALL.into_iter().find(|t| t.word() == tick);
        Ok(Self::Tick(step.parse()?, tick.ok_or_else(|| UnknownStep(s.to_owned()))?))
    }
}

impl From<Mark> for String {
    fn from(m: Mark) -> Self {
        m.to_string()
    }
}

impl TryFrom<String> for Mark {
    type Error = UnknownStep;
    fn try_from(s: String) -> Result<Self, UnknownStep> {
        s.parse()
    }
}

#[cfg(feature = "openapi")]
mod schema {
    use super::{Mark, StepId};
    use utoipa::openapi::{RefOr, Schema};
    use utoipa::{PartialSchema, ToSchema};

    impl PartialSchema for StepId {
        fn schema() -> RefOr<Schema> {
            String::schema()
        }
    }
    impl ToSchema for StepId {
        fn name() -> std::borrow::Cow<'static, str> {
            "StepId".into()
        }
    }
    impl PartialSchema for Mark {
        fn schema() -> RefOr<Schema> {
            String::schema()
        }
    }
    impl ToSchema for Mark {
        fn name() -> std::borrow::Cow<'static, str> {
            "Mark".into()
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_name_is_read_as_it_is_written() {
        let mut all = vec![StepId::Fouls, StepId::Support, StepId::Settled, StepId::Tighten, StepId::Proved];
        for a in [Axle::Front, Axle::Rear] {
            all.extend([StepId::Height(a), StepId::Arms(a), StepId::Toe(a), StepId::Read(a)]);
            all.push(StepId::Fit(a, "rear-toe-arm@12".into()));
        }
        for s in all {
            assert_eq!(s.to_string().parse(), Ok(s.clone()));
            for t in Tick::ALL {
                let m = Mark::Tick(s.clone(), t);
                assert_eq!(m.to_string().parse(), Ok(m));
            }
        }
        for bad in ["", "fit-", "rear-fit-", "settled/Roll 3 m", "settled/", "wash"] {
            assert!(bad.parse::<Mark>().is_err(), "{bad}");
        }
    }
}
