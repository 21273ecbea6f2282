//! A language with the units somebody works in.

use crate::print::print;
use crate::units::Units;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Arg, Said, TEXT};
use fluent_bundle::concurrent::FluentBundle;
use fluent_bundle::{FluentArgs, FluentResource, FluentValue};
use serde_json::Value;
use std::collections::HashMap;
use std::sync::{Arc, LazyLock, Mutex};
use unic_langid::LanguageIdentifier;

/// A language's file and the units it is spoken in.
pub struct Voice {
    bundle: FluentBundle<Arc<FluentResource>>,
    units: Units,
}

impl std::fmt::Debug for Voice {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Voice").field("units", &self.units).finish_non_exhaustive()
    }
}

fn with_first(text: &str, f: impl Fn(char) -> String) -> String {
    let mut c = text.chars();
    c.next().map_or_else(String::new, |first| f(first) + c.as_str())
}

/// A function of one text.
fn of_text(args: &[FluentValue<'_>], f: impl Fn(&str) -> String) -> FluentValue<'static> {
    match args.first() {
        Some(FluentValue::String(s)) => FluentValue::String(f(s).into()),
        _ => FluentValue::Error,
    }
}

impl Voice {
    /// A voice of a language's file.
    ///
    /// # Errors
    /// What is wrong with the file, by line of Fluent's own account.
    pub fn new(language: &str, file: &str, units: Units) -> Result<Self, String> {
        let resource = FluentResource::try_new(file.to_owned())
            .map_err(|(_, e)| e.iter().map(ToString::to_string).collect::<Vec<_>>().join("; "))?;
        Self::of(language, Arc::new(resource), units)
    }

    fn of(language: &str, resource: Arc<FluentResource>, units: Units) -> Result<Self, String> {
        let id: LanguageIdentifier = language.parse().map_err(|e| format!("{language}: {e}"))?;
        let mut bundle = FluentBundle::new_concurrent(vec![id]);
        // Nothing here is written from right to left, and marks around every number would reach every screen and file.
        bundle.set_use_isolating(false);
        let said = |e: Vec<fluent_bundle::FluentError>| {
            e.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ")
        };
        bundle.add_resource(resource).map_err(said)?;
        let capital = |s: &str| with_first(s, |c| c.to_uppercase().collect());
        let lower = |s: &str| with_first(s, |c| c.to_lowercase().collect());
        bundle.add_function("CAP", move |a, _| of_text(a, capital)).map_err(|e| e.to_string())?;
        bundle.add_function("LOW", move |a, _| of_text(a, lower)).map_err(|e| e.to_string())?;
        bundle.add_function("ALL_LOW", |a, _| of_text(a, str::to_lowercase)).map_err(|e| e.to_string())?;
        Ok(Self { bundle, units })
    }

    /// Whether the language has a message.
    #[must_use]
    pub fn knows(&self, id: &str) -> bool {
        self.bundle.get_message(id).is_some_and(|m| m.value().is_some())
    }

    /// A message of the language without anything to speak of.
    fn bare(&self, id: &str) -> Option<String> {
        let pattern = self.bundle.get_message(id)?.value()?;
        Some(self.bundle.format_pattern(pattern, None, &mut Vec::new()).into_owned())
    }

    fn joined(&self, list: &[String], separator: &str) -> String {
        list.join(separator)
    }

    /// Says it.
    #[must_use]
    pub fn say(&self, s: &Said) -> String {
        if s.id == TEXT {
            return match s.args.get("text") {
                Some(Arg::Name(t)) => t.clone(),
                _ => String::new(),
            };
        }
        if s.id == "sentences" {
            let Some(Arg::List(l)) = s.args.get("each") else { return String::new() };
            let all: Vec<String> = l.iter().map(|x| self.say(x)).filter(|t| !t.is_empty()).collect();
            return self.joined(&all, " ");
        }
        let Some(pattern) = self.bundle.get_message(&s.id).and_then(|m| m.value()) else {
            // A language that lacks a message says its id: a test finds it before a shop does.
            return s.id.to_string();
        };
        let mut args = FluentArgs::new();
        for (k, a) in &s.args {
            let k = k.as_ref();
            match a {
                Arg::Quantity(q) => args.set(k.to_owned(), print(q, &self.units)),
                Arg::Count(n) => args.set(k.to_owned(), *n as f64),
                Arg::Name(n) => args.set(k.to_owned(), n.clone()),
                Arg::Word(w) => {
                    let word = format!("word-{}", w.replace('_', "-"));
                    args.set(format!("{k}-w"), self.bare(&word).unwrap_or_else(|| w.to_string()));
                    args.set(k.to_owned(), w.to_string());
                }
                Arg::Said(x) => args.set(k.to_owned(), self.say(x)),
                Arg::List(l) => {
                    let all: Vec<String> = l.iter().map(|x| self.say(x)).collect();
                    let and = self.bare("list-and").unwrap_or_else(|| "and".into());
                    let last = match all.split_last() {
                        Some((last, rest)) if !rest.is_empty() => {
                            format!("{} {and} {last}", rest.join(", "))
                        }
                        _ => all.concat(),
                    };
                    args.set(format!("{k}-and"), last);
                    args.set(format!("{k}-semi"), self.joined(&all, "; "));
                    args.set(format!("{k}-all"), self.joined(&all, " "));
                    args.set(format!("{k}-n"), all.len() as f64);
                    args.set(k.to_owned(), self.joined(&all, ", "));
                }
            }
        }
        self.bundle.format_pattern(pattern, Some(&args), &mut Vec::new()).into_owned()
    }

    /// Says every message in a document: each is replaced by its words.
    pub fn speak(&self, v: &mut Value) {
        match v {
            Value::Array(a) => a.iter_mut().for_each(|x| self.speak(x)),
            Value::Object(o) => {
                if o.get("say").is_some_and(Value::is_string) && o.keys().all(|k| k == "say" || k == "with") {
                    if let Ok(s) = serde_json::from_value::<Said>(Value::Object(std::mem::take(o))) {
                        *v = Value::String(self.say(&s));
                    }
                    return;
                }
                o.values_mut().for_each(|x| self.speak(x));
            }
            _ => {}
        }
    }
}

/// The English file.
const ENGLISH: &str = include_str!("../lang/en.ftl");

static RESOURCE: LazyLock<Result<Arc<FluentResource>, String>> = LazyLock::new(|| {
    FluentResource::try_new(ENGLISH.to_owned())
        .map(Arc::new)
        .map_err(|(_, e)| e.iter().map(ToString::to_string).collect::<Vec<_>>().join("; "))
});
static VOICES: LazyLock<Mutex<HashMap<Units, Arc<Voice>>>> = LazyLock::new(Mutex::default);

/// English in these units. A file that cannot be read says ids instead of words; a test holds that it can.
#[must_use]
pub fn english(units: Units) -> Arc<Voice> {
    let mut kept = VOICES.lock().unwrap_or_else(std::sync::PoisonError::into_inner);
    if let Some(v) = kept.get(&units) {
        return v.clone();
    }
    let empty = || Arc::new(FluentResource::try_new(String::new()).unwrap_or_else(|(r, _)| r));
    let resource = RESOURCE.as_ref().map_or_else(|_| empty(), Arc::clone);
    let voice = Voice::of("en", resource, units).unwrap_or_else(|_| Voice {
        bundle: FluentBundle::new_concurrent(vec![LanguageIdentifier::default()]),
        units,
    });
    let voice = Arc::new(voice);
    kept.insert(units, voice.clone());
    voice
}

/// English in millimetres and decimal degrees, as the command line prints.
#[must_use]
pub fn plain(s: &Said) -> String {
    english(Units::default()).say(s)
}

/// A fault in English, as the command line prints it: field, what is wrong, what would be right.
#[must_use]
pub fn said_of(p: &Problem) -> String {
    format!("{}: {}; {}", p.field, plain(&p.wrong), plain(&p.right))
}
