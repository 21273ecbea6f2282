//! What the core says, as data: a message by its id, and the quantities, names and further messages it speaks of. The words
//! of a language, and the units they are printed in, are chosen where it is read (crate `bold-stance-words`).

use serde::de::{Error as _, MapAccess, SeqAccess, Visitor};
use serde::ser::SerializeMap;
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use std::borrow::Cow;
use std::collections::BTreeMap;
use std::fmt;

/// What a number measures; it decides the unit it is printed in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Measure {
    /// A length, mm.
    Mm,
    /// A length that something is set to, mm: told as fine as it is to be set.
    SetMm,
    /// A round travel of a wheel that another figure is told by, mm: never rounded to a fraction it is not.
    TravelMm,
    /// An angle, degrees.
    Deg,
    /// A force, N.
    N,
    /// A mass, kg.
    Kg,
    /// A pressure, kPa.
    Kpa,
    /// A distance rolled or walked, m.
    M,
    /// A distance driven, km.
    Km,
    /// A depth of tread, mm.
    TreadMm,
    /// A moment, N·m.
    Nm,
    /// A number without a unit: a ratio, turns, a count of steps.
    Plain,
}

/// A number with what it measures and how finely it is known.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Quantity {
    /// What it measures.
    pub of: Measure,
    /// Its value, in the unit of [`Measure`].
    pub value: f64,
    /// Decimals in that unit.
    #[serde(default)]
    pub digits: u8,
    /// Whether it is a change, printed with its sign.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub signed: bool,
}

/// Something a message speaks of.
#[derive(Debug, Clone, PartialEq)]
pub enum Arg {
    /// A quantity.
    Quantity(Quantity),
    /// How many of something: chooses between one and several.
    Count(u64),
    /// A word that the language has its own for: a side, an axle, an angle's name. Chosen among by the message.
    Word(Cow<'static, str>),
    /// A name somebody gave, or text as typed: printed as it is.
    Name(String),
    /// A further message.
    Said(Box<Said>),
    /// Further messages, printed as a list.
    List(Vec<Said>),
}

/// A message with what it speaks of.
#[derive(Debug, Clone, PartialEq)]
pub struct Said {
    /// Which message; `text` for what was kept as text.
    pub id: Cow<'static, str>,
    /// What it speaks of, by name.
    pub args: BTreeMap<Cow<'static, str>, Arg>,
}

/// Id of a message that is its own text.
pub const TEXT: &str = "text";

/// A message by its id.
#[must_use]
pub fn said(id: &'static str) -> Said {
    Said { id: Cow::Borrowed(id), args: BTreeMap::new() }
}

impl Said {
    /// Text as it is: of a data file, of somebody who typed it, or kept before messages were data.
    #[must_use]
    pub fn text(text: impl Into<String>) -> Self {
        said(TEXT).name("text", text)
    }

    /// Adds what it speaks of.
    #[must_use]
    pub fn with(mut self, key: &'static str, arg: Arg) -> Self {
        self.args.insert(Cow::Borrowed(key), arg);
        self
    }

    fn quantity(self, key: &'static str, of: Measure, value: f64, digits: u8, signed: bool) -> Self {
        self.with(key, Arg::Quantity(Quantity { of, value, digits, signed }))
    }

    /// A length, whole mm.
    #[must_use]
    pub fn mm(self, key: &'static str, value: f64) -> Self {
        self.quantity(key, Measure::Mm, value, 0, false)
    }

    /// A travel of a wheel that another figure is told by, in whole millimetres.
    #[must_use]
    pub fn travel_mm(self, key: &'static str, value: f64) -> Self {
        self.quantity(key, Measure::TravelMm, value, 0, false)
    }

    /// A length to a tenth of a millimetre.
    #[must_use]
    pub fn fine_mm(self, key: &'static str, value: f64) -> Self {
        self.quantity(key, Measure::Mm, value, 1, false)
    }

    /// A length that something is set to.
    #[must_use]
    pub fn set_mm(self, key: &'static str, value: f64) -> Self {
        self.quantity(key, Measure::SetMm, value, 1, false)
    }

    /// A change of length, with its sign.
    #[must_use]
    pub fn change_mm(self, key: &'static str, value: f64) -> Self {
        self.quantity(key, Measure::Mm, value, 0, true)
    }

    /// An angle with `digits` decimals.
    #[must_use]
    pub fn deg(self, key: &'static str, value: f64, digits: u8) -> Self {
        self.quantity(key, Measure::Deg, value, digits, false)
    }

    /// A change of angle, with its sign.
    #[must_use]
    pub fn change_deg(self, key: &'static str, value: f64, digits: u8) -> Self {
        self.quantity(key, Measure::Deg, value, digits, true)
    }

    /// A miss in degrees: a tenth, or a hundredth where a tenth would round it away.
    #[must_use]
    pub fn miss_deg(self, key: &'static str, value: f64) -> Self {
        self.deg(key, value, if value.abs() < 0.095 { 2 } else { 1 })
    }

    /// A number without a unit.
    #[must_use]
    pub fn plain(self, key: &'static str, value: f64, digits: u8) -> Self {
        self.quantity(key, Measure::Plain, value, digits, false)
    }

    /// A quantity of another kind.
    #[must_use]
    pub fn of(self, key: &'static str, of: Measure, value: f64, digits: u8) -> Self {
        self.quantity(key, of, value, digits, false)
    }

    /// How many.
    #[must_use]
    pub fn count(self, key: &'static str, n: usize) -> Self {
        self.with(key, Arg::Count(n as u64))
    }

    /// A word of the language.
    #[must_use]
    pub fn word(self, key: &'static str, word: &'static str) -> Self {
        self.with(key, Arg::Word(Cow::Borrowed(word)))
    }

    /// A name, as it is.
    #[must_use]
    pub fn name(self, key: &'static str, name: impl Into<String>) -> Self {
        self.with(key, Arg::Name(name.into()))
    }

    /// A further message.
    #[must_use]
    pub fn say(self, key: &'static str, what: Said) -> Self {
        self.with(key, Arg::Said(Box::new(what)))
    }

    /// Further messages.
    #[must_use]
    pub fn list(self, key: &'static str, what: Vec<Said>) -> Self {
        self.with(key, Arg::List(what))
    }

    /// Its text, where it is its own; else its id: for whoever has no words at hand.
    #[must_use]
    pub fn bare(&self) -> &str {
        match self.args.get("text") {
            Some(Arg::Name(t)) if self.id == TEXT => t,
            _ => &self.id,
        }
    }

    /// Every quantity in it, and in what it says further.
    #[must_use]
    pub fn quantities(&self) -> Vec<Quantity> {
        let of = |a: &Arg| match a {
            Arg::Quantity(q) => vec![*q],
            Arg::Said(s) => s.quantities(),
            Arg::List(l) => l.iter().flat_map(Self::quantities).collect(),
            Arg::Count(_) | Arg::Word(_) | Arg::Name(_) => Vec::new(),
        };
        self.args.values().flat_map(of).collect()
    }
}

impl Default for Said {
    fn default() -> Self {
        Self::text("")
    }
}

impl From<&str> for Said {
    fn from(text: &str) -> Self {
        Self::text(text)
    }
}

impl From<String> for Said {
    fn from(text: String) -> Self {
        Self::text(text)
    }
}

impl From<&String> for Said {
    fn from(text: &String) -> Self {
        Self::text(text.as_str())
    }
}

/// Several messages one after the other; nothing where there are none.
#[must_use]
pub fn sentences(list: Vec<Said>) -> Said {
    said("sentences").list("each", list)
}

impl Serialize for Said {
    fn serialize<S: Serializer>(&self, s: S) -> Result<S::Ok, S::Error> {
        let mut m = s.serialize_map(Some(1 + usize::from(!self.args.is_empty())))?;
        m.serialize_entry("say", &self.id)?;
        if !self.args.is_empty() {
            m.serialize_entry("with", &self.args)?;
        }
        m.end()
    }
}

impl Serialize for Arg {
    fn serialize<S: Serializer>(&self, s: S) -> Result<S::Ok, S::Error> {
        match self {
            Self::Quantity(q) => q.serialize(s),
            Self::Count(n) => n.serialize(s),
            Self::Word(w) => {
                let mut m = s.serialize_map(Some(1))?;
                m.serialize_entry("word", w)?;
                m.end()
            }
            Self::Name(n) => n.serialize(s),
            Self::Said(x) => x.serialize(s),
            Self::List(l) => l.serialize(s),
        }
    }
}

impl<'de> Deserialize<'de> for Said {
    fn deserialize<D: Deserializer<'de>>(d: D) -> Result<Self, D::Error> {
        struct V;
        impl<'de> Visitor<'de> for V {
            type Value = Said;
            fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
                f.write_str("a message, or text kept before messages were data")
            }
            fn visit_str<E>(self, text: &str) -> Result<Said, E> {
                Ok(Said::text(text))
            }
            fn visit_map<A: MapAccess<'de>>(self, mut m: A) -> Result<Said, A::Error> {
                let (mut id, mut args) = (None, BTreeMap::new());
                while let Some(k) = m.next_key::<String>()? {
                    match k.as_str() {
                        "say" => id = Some(m.next_value::<String>()?),
                        "with" => {
                            let read: BTreeMap<String, Arg> = m.next_value()?;
                            args = read.into_iter().map(|(k, v)| (Cow::Owned(k), v)).collect();
                        }
                        other => return Err(A::Error::unknown_field(other, &["say", "with"])),
                    }
                }
                Ok(Said { id: Cow::Owned(id.ok_or_else(|| A::Error::missing_field("say"))?), args })
            }
        }
        d.deserialize_any(V)
    }
}

impl<'de> Deserialize<'de> for Arg {
    fn deserialize<D: Deserializer<'de>>(d: D) -> Result<Self, D::Error> {
        struct V;
        impl<'de> Visitor<'de> for V {
            type Value = Arg;
            fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
                f.write_str("a quantity, a count, a word, a name or messages")
            }
            fn visit_str<E>(self, text: &str) -> Result<Arg, E> {
                Ok(Arg::Name(text.to_owned()))
            }
            fn visit_u64<E>(self, n: u64) -> Result<Arg, E> {
                Ok(Arg::Count(n))
            }
            fn visit_seq<A: SeqAccess<'de>>(self, mut s: A) -> Result<Arg, A::Error> {
                let mut out = Vec::new();
                while let Some(x) = s.next_element()? {
                    out.push(x);
                }
                Ok(Arg::List(out))
            }
            fn visit_map<A: MapAccess<'de>>(self, m: A) -> Result<Arg, A::Error> {
                let v = serde_json::Value::deserialize(serde::de::value::MapAccessDeserializer::new(m))?;
                let read = if v.get("say").is_some() {
                    serde_json::from_value(v).map(|s| Arg::Said(Box::new(s)))
                } else if let Some(w) = v.get("word").and_then(serde_json::Value::as_str) {
                    Ok(Arg::Word(Cow::Owned(w.to_owned())))
                } else {
                    serde_json::from_value(v).map(Arg::Quantity)
                };
                read.map_err(A::Error::custom)
            }
        }
        d.deserialize_any(V)
    }
}

#[cfg(feature = "openapi")]
mod schema {
    use super::Said;
    use utoipa::openapi::{RefOr, Schema};
    use utoipa::{PartialSchema, ToSchema};

    // What leaves the server was printed on its way out.
    impl PartialSchema for Said {
        fn schema() -> RefOr<Schema> {
            String::schema()
        }
    }
    impl ToSchema for Said {
        fn name() -> Cow<'static, str> {
            "Said".into()
        }
    }
    use std::borrow::Cow;
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_message_comes_back_as_it_left_and_old_text_is_a_message() {
        let inner = said("check-tie-rod").deg("now", 12.0, 0).word("way", "down");
        let s = said("verdict-fouls")
            .mm("height", -25.4)
            .count("n", 3)
            .name("part", "House arm")
            .list("each", vec![inner.clone(), Said::text("as typed")])
            .say("first", inner);
        let text = serde_json::to_string(&s).unwrap();
        assert_eq!(serde_json::from_str::<Said>(&text).unwrap(), s);
        assert_eq!(s.quantities().len(), 3);
        assert_eq!(
            serde_json::from_str::<Said>("\"left 12 notches\"").unwrap(),
            Said::text("left 12 notches")
        );
        assert!(serde_json::from_str::<Said>(r#"{"say":"x","wit":{}}"#).is_err());
        assert!(serde_json::from_str::<Said>(r#"{"with":{}}"#).is_err());
    }
}
