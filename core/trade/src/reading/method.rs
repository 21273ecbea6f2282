//! The methods people own, as data: what is measured, where, and how well it holds.

use super::quantity::Quantity;
use bold_stance_units::problem::{Problem, parse_json};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// How something is read. The words are those of `bold-stance read`.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)] // Each is described where its data is: data/methods.json.
pub enum Method {
    HeightHub,
    HeightFloor,
    HeightFrame,
    CamberGauge,
    CamberBar,
    CamberOffsets,
    CamberLaser,
    CamberGap,
    CamberCalliper,
    CamberForm,
    CamberRunout,
    CamberLevel,
    CasterSweep,
    CasterScale,
    CasterJointLine,
    ToeDistance,
    ToeScribed,
    ToeRimGauge,
    ToeBars,
    ToePlates,
    ToeString,
    ToeConvert,
    RimRunout,
    TreadDepth,
    Pressure,
    AxleCentring,
    Wheelbase,
    Diagonal,
    SetBack,
    Thrust,
    FloorSlope,
    RimCircle,
}

/// What kind of thing is typed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum EntryKind {
    /// A length in any notation.
    Length,
    /// An angle in any notation.
    Angle,
    /// Toe: an angle, or a length over a circle.
    Toe,
    /// A stamped rim size: bare numbers are inches.
    Nominal,
    /// A pressure: kPa, bar or psi.
    Pressure,
    /// One of the choices; the first is taken when nothing is said.
    Choice,
}

/// What of the car fills an entry that was left empty.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CarFact {
    /// Outside diameter of the tyre.
    TyreDiameter,
    /// Lip to lip, from the stamped size.
    RimCircle,
    /// Stamped rim size.
    RimNominal,
    /// Hub centre over the ground.
    AxleHeight,
    /// Front track.
    TrackFront,
    /// Rear track.
    TrackRear,
    /// Wheelbase.
    Wheelbase,
}

/// One thing to type.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct EntryInfo {
    /// Name on the command line and in the record.
    pub name: String,
    /// What it is called.
    pub label: String,
    /// What is typed.
    pub kind: EntryKind,
    /// Standard deviation of one reading, in mm, degrees or kPa.
    pub sigma: f64,
    /// Least that is possible.
    pub low: f64,
    /// Most that is possible.
    pub high: f64,
    /// May be left out.
    #[serde(default)]
    pub optional: bool,
    /// Words of a choice.
    #[serde(default)]
    pub choices: Vec<String>,
    /// What the pad starts from, when that is not the first choice.
    #[serde(default)]
    pub usual: Option<String>,
    /// Filled from the car when left empty.
    #[serde(default)]
    pub from_car: Option<CarFact>,
    /// Known from the place and the prepare list, so the pad does not ask.
    #[serde(default)]
    pub hidden: bool,
    /// An angle gauge can send it.
    #[serde(default)]
    pub live: bool,
    /// Swing of a sweep, first or second: the pad starts it at 20° to this side.
    #[serde(default)]
    pub swing: Option<u8>,
}

/// A method.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct MethodInfo {
    /// Which.
    pub id: Method,
    /// What it reads.
    pub quantity: Quantity,
    /// What people call it.
    pub title: String,
    /// What to measure, short.
    pub how: String,
    /// Which drawing shows it.
    pub drawing: String,
    /// Counts against gravity: a sloping floor goes into it.
    #[serde(default)]
    pub gravity: bool,
    /// Can be read again half a turn of the wheel on.
    #[serde(default)]
    pub half_turn: bool,
    /// Arithmetic for the bench only, not offered on the pad.
    #[serde(default)]
    pub bench_only: bool,
    /// What is typed, in order.
    pub entries: Vec<EntryInfo>,
}

const SHIPPED: &str = include_str!("../../../../data/methods.json");

/// The methods of `data/methods.json`.
///
/// # Errors
/// A [`Problem`] naming the path, when the shipped file is wrong.
pub fn shipped_methods() -> Result<Vec<MethodInfo>, Problem> {
    parse_json(SHIPPED.as_bytes())
}

impl Method {
    /// The word of the command line, e.g. `camber-gauge`.
    #[must_use]
    pub fn word(self) -> String {
        serde_json::to_value(self).ok().and_then(|v| v.as_str().map(str::to_owned)).unwrap_or_default()
    }

    /// The method of a word.
    ///
    /// # Errors
    /// A [`Problem`] at `METHOD` that lists the words there are.
    pub fn from_word(word: &str, all: &[MethodInfo]) -> Result<Self, Problem> {
        all.iter().map(|m| m.id).find(|m| m.word() == word).ok_or_else(|| {
            let known: Vec<String> = all.iter().map(|m| m.id.word()).collect();
            Problem::new("METHOD", said("fault-no-method").name("word", word), known.join(", "))
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_method_is_in_the_data_once_and_sound() {
        let all = shipped_methods().unwrap();
        let mut seen: Vec<Method> = all.iter().map(|m| m.id).collect();
        seen.sort();
        seen.dedup();
        assert_eq!(seen.len(), all.len());
        assert_eq!(all.len(), 32);
        for m in &all {
            assert_eq!(Method::from_word(&m.id.word(), &all).unwrap(), m.id);
            for e in &m.entries {
                let choice = e.kind == EntryKind::Choice;
                assert_eq!(choice, !e.choices.is_empty(), "{:?} {}", m.id, e.name);
                assert!(choice || (e.low < e.high && e.sigma >= 0.0), "{:?} {}", m.id, e.name);
                assert!(e.usual.as_ref().is_none_or(|u| e.choices.contains(u)));
            }
        }
        assert!(Method::from_word("camber", &all).unwrap_err().right.bare().contains("camber-gap"));
    }
}
