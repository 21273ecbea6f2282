//! Readings as CSV (`bold-stance readings 1`): one row a reading, round trip exact.

use super::entries::{LONGEST_ENTRY, MOST_ENTRIES, RawEntry};
use super::method::{Method, MethodInfo};
use super::quantity::{Place, Quantity, ReadAxle, ReadSide, Unit, Visit};
use super::raw::{Also, Correction};
use super::take::Jack;
use bold_stance_units::csv_text::{guarded, unguarded};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::Said;
use bold_stance_units::said::said;
use bold_stance_units::{LengthUnit, MM_PER_INCH, in_unit, told_in};
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};

/// A row.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Row {
    /// Id of the reading; empty for one typed into a spreadsheet.
    pub id: String,
    /// Visit.
    pub visit: Visit,
    /// What.
    pub quantity: Quantity,
    /// Where.
    pub place: Place,
    /// How.
    pub method: Method,
    /// As typed.
    pub typed: Vec<RawEntry>,
    /// What a bare length meant.
    pub unit: LengthUnit,
    /// Converted value and its standard deviation; none for one typed into a spreadsheet.
    pub value: Option<(f64, f64)>,
    /// Corrections.
    pub corrections: Vec<Correction>,
    /// Further figures.
    pub also: Vec<Also>,
    /// How the wheel stood.
    pub jack: Jack,
    /// Hub-to-arch height as it stood on the jack, as typed.
    pub jacked_height: String,
    /// Hub-to-arch height it was read at, mm.
    pub height_mm: Option<f64>,
    /// Who.
    pub author: String,
    /// When, RFC 3339; empty for now.
    pub taken_at: String,
    /// The reading this one stands for.
    pub replaces: String,
}

/// Columns, in order. Only those of [`NEEDED`] must be there. A table in inches has [`HEIGHT_IN`] for `height_mm`, and
/// lengths of `value` and `sigma` in inches, as `value_unit` says.
pub const COLUMNS: [&str; 19] = [
    "id",
    "visit",
    "axle",
    "side",
    "quantity",
    "method",
    "typed",
    "unit",
    "value",
    "sigma",
    "value_unit",
    "corrections",
    "also",
    "jack",
    "jacked_height",
    "height_mm",
    "author",
    "taken_at",
    "replaces",
];
/// The height's column of a table in inches.
pub const HEIGHT_IN: &str = "height_in";
const HEIGHT_MM: &str = "height_mm";
/// Columns without which a row means nothing.
pub const NEEDED: [&str; 4] = ["axle", "side", "method", "typed"];
/// Most rows of a table.
pub const MOST_ROWS: usize = 5000;

fn word<T: Serialize>(v: &T) -> String {
    serde_json::to_value(v).ok().and_then(|v| v.as_str().map(str::to_owned)).unwrap_or_default()
}

fn json<T: Serialize>(v: &[T]) -> String {
    if v.is_empty() { String::new() } else { serde_json::to_string(v).unwrap_or_default() }
}

/// Entries for a cell: `name=text; name=text`, or JSON where a text needs it.
fn typed_cell(entries: &[RawEntry]) -> String {
    let plain = entries
        .iter()
        .all(|e| !e.dropped && !e.text.contains([';', '=', '"', '\n', '\r', '[']) && e.text.trim() == e.text);
    if plain {
        entries.iter().map(|e| format!("{}={}", e.name, e.text)).collect::<Vec<_>>().join("; ")
    } else {
        serde_json::to_string(entries).unwrap_or_default()
    }
}

/// What a value is written in and how much of what is kept one of it is.
fn value_unit(q: Quantity, lengths: LengthUnit) -> (&'static str, f64) {
    match (q.unit(), lengths) {
        (Unit::Deg, _) => ("deg", 1.0),
        (Unit::Kpa, _) => ("kPa", 1.0),
        (Unit::Mm, LengthUnit::Mm) => ("mm", 1.0),
        (Unit::Mm, LengthUnit::In) => ("in", MM_PER_INCH),
    }
}

/// Writes rows as CSV, lengths in `lengths`; what was typed stays as typed.
///
/// # Errors
/// A [`Problem`] when a row cannot be written.
pub fn write_table(rows: &[Row], lengths: LengthUnit) -> Result<String, Problem> {
    let bad =
        |e: &dyn std::fmt::Display| Problem::new("table", e.to_string(), said("fault-rows-can-written"));
    let mut w = csv::Writer::from_writer(Vec::new());
    let inches = lengths == LengthUnit::In;
    w.write_record(COLUMNS.map(|c| if inches && c == HEIGHT_MM { HEIGHT_IN } else { c }))
        .map_err(|e| bad(&e))?;
    let height = if inches { MM_PER_INCH } else { 1.0 };
    for r in rows {
        let (unit, one) = value_unit(r.quantity, lengths);
        let cell = |v: Option<f64>| v.map_or_else(String::new, |v| v.to_string());
        w.write_record(
            [
                r.id.clone(),
                word(&r.visit),
                word(&r.place.axle),
                word(&r.place.side),
                word(&r.quantity),
                word(&r.method),
                typed_cell(&r.typed),
                word(&r.unit),
                cell(r.value.map(|v| in_unit(v.0, one))),
                cell(r.value.map(|v| in_unit(v.1, one))),
                if r.value.is_some() { unit.to_owned() } else { String::new() },
                json(&r.corrections),
                json(&r.also),
                word(&r.jack),
                r.jacked_height.clone(),
                cell(r.height_mm.map(|h| in_unit(h, height))),
                r.author.clone(),
                r.taken_at.clone(),
                r.replaces.clone(),
            ]
            .map(|c| guarded(&c)),
        )
        .map_err(|e| bad(&e))?;
    }
    let bytes = w.into_inner().map_err(|e| bad(&e))?;
    String::from_utf8(bytes).map_err(|e| bad(&e))
}

struct Cells<'a> {
    line: usize,
    names: &'a [String],
    record: &'a csv::StringRecord,
}

impl Cells<'_> {
    fn text(&self, name: &str) -> &str {
        let at = self.names.iter().position(|n| n == name);
        unguarded(at.and_then(|i| self.record.get(i)).unwrap_or_default().trim())
    }

    fn problem(&self, name: &str, wrong: impl Into<Said>, right: impl Into<Said>) -> Problem {
        Problem::new(format!("line {}, {name}", self.line), wrong, right)
    }

    fn word<T: DeserializeOwned>(&self, name: &str, default: Option<T>, right: &str) -> Result<T, Problem> {
        let t = self.text(name);
        if t.is_empty()
            && let Some(d) = default
        {
            return Ok(d);
        }
        serde_json::from_value(serde_json::Value::String(t.to_owned())).map_err(|_| {
            let shown: String = t.chars().take(24).collect();
            self.problem(name, said("fault-none-of-them").name("word", shown), right)
        })
    }

    fn number(&self, name: &str) -> Result<Option<f64>, Problem> {
        let t = self.text(name);
        if t.is_empty() {
            return Ok(None);
        }
        match t.parse::<f64>() {
            Ok(v) if v.is_finite() && v.abs() < 1e6 => Ok(Some(v)),
            _ => Err(self.problem(name, said("fault-not-usable"), said("fault-plain-or-empty"))),
        }
    }

    fn list<T: DeserializeOwned>(&self, name: &str) -> Result<Vec<T>, Problem> {
        let t = self.text(name);
        if t.is_empty() {
            return Ok(Vec::new());
        }
        serde_json::from_str(t).map_err(|e| self.problem(name, e.to_string(), said("fault-as-exported")))
    }

    fn typed(&self) -> Result<Vec<RawEntry>, Problem> {
        let t = self.text("typed");
        let right = || said("fault-name-text");
        let out: Vec<RawEntry> = if t.starts_with('[') {
            serde_json::from_str(t).map_err(|e| self.problem("typed", e.to_string(), right()))?
        } else {
            let pair = |p: &str| {
                let (name, text) = p.split_once('=')?;
                Some(RawEntry::new(name.trim(), text.trim()))
            };
            t.split(';')
                .map(|p| pair(p).ok_or_else(|| self.problem("typed", said("fault-no-name-text"), right())))
                .collect::<Result<_, _>>()?
        };
        if out.len() > MOST_ENTRIES || out.iter().any(|e| e.text.chars().count() > LONGEST_ENTRY) {
            return Err(self.problem("typed", said("fault-more-than-reading"), right()));
        }
        Ok(out)
    }
}

/// Reads a table. Nothing is taken when anything is wrong.
///
/// # Errors
/// Every [`Problem`] (at most 50), its field naming line and column.
pub fn read_table(text: &str, methods: &[MethodInfo]) -> Result<Vec<Row>, Vec<Problem>> {
    let text = text.strip_prefix('\u{feff}').unwrap_or(text);
    let mut reader = csv::ReaderBuilder::new().flexible(true).from_reader(text.as_bytes());
    let headers =
        reader.headers().map_err(|e| vec![Problem::new("line 1", e.to_string(), said("fault-csv-utf-8"))])?;
    let names: Vec<String> = headers.iter().map(|h| h.trim().to_lowercase()).collect();
    for need in NEEDED {
        if !names.iter().any(|n| n == need) {
            let id = if names.len() == 1 { "fault-first-line-commas" } else { "fault-first-line" };
            let right = said(id).name("list", NEEDED.join(", "));
            return Err(vec![Problem::new("line 1", said("fault-no-column").name("name", need), right)]);
        }
    }
    if let Some(n) = names.iter().find(|n| !COLUMNS.contains(&n.as_str()) && *n != HEIGHT_IN) {
        let shown: String = n.chars().take(40).collect();
        return Err(vec![Problem::new(
            "line 1",
            said("fault-unknown-column").name("name", shown),
            COLUMNS.join(", "),
        )]);
    }
    let (mut rows, mut problems) = (Vec::new(), Vec::new());
    for (i, record) in reader.records().enumerate() {
        if i >= MOST_ROWS {
            problems.push(Problem::new(
                "table",
                said("fault-rows-more").count("n", MOST_ROWS),
                said("fault-fewer-at-time"),
            ));
            break;
        }
        let line = i + 2;
        match record {
            Ok(record) => match row(&Cells { line, names: &names, record: &record }, methods) {
                Ok(r) => rows.push(r),
                Err(p) => problems.push(p),
            },
            Err(e) => {
                problems.push(Problem::new(format!("line {line}"), e.to_string(), said("fault-csv-utf-8")))
            }
        }
        if problems.len() >= 50 {
            break;
        }
    }
    if problems.is_empty() { Ok(rows) } else { Err(problems) }
}

fn row(c: &Cells<'_>, methods: &[MethodInfo]) -> Result<Row, Problem> {
    if c.record.len() > c.names.len() {
        return Err(c.problem(
            "row",
            format!("{} cells under {} columns", c.record.len(), c.names.len()),
            "as many cells as columns; cells with commas in quotes",
        ));
    }
    let method =
        Method::from_word(c.text("method"), methods).map_err(|p| c.problem("method", p.wrong, p.right))?;
    let quantity = methods.iter().find(|m| m.id == method).map_or(Quantity::Camber, |m| m.quantity);
    let told: Quantity = c.word("quantity", Some(quantity), "the quantity the method reads, or empty")?;
    if told != quantity {
        return Err(c.problem("quantity", format!("{} does not read it", method.word()), word(&quantity)));
    }
    let place = Place {
        axle: c.word::<ReadAxle>("axle", None, "front, rear or both")?,
        side: c.word::<ReadSide>("side", None, "left, right or both")?,
    };
    if !place.fits(quantity) {
        return Err(c.problem(
            "side",
            said("not-read-there").word("quantity", quantity.word()).say("place", place.said()),
            said("not-read-there-right"),
        ));
    }
    let (value, sigma) = (c.number("value")?, c.number("sigma")?);
    if value.is_some() != sigma.is_some() || sigma.is_some_and(|s| s < 0.0) {
        return Err(c.problem("sigma", "value and sigma go together", "both, sigma not below 0, or neither"));
    }
    let kept_in = value_unit(quantity, LengthUnit::Mm).0;
    let one = match c.text("value_unit") {
        t if t.is_empty() || t == kept_in => 1.0,
        "in" if kept_in == "mm" => MM_PER_INCH,
        t => {
            let shown: String = t.chars().take(24).collect();
            let right = if kept_in == "mm" { "mm or in" } else { kept_in };
            return Err(c.problem("value_unit", said("fault-none-of-them").name("word", shown), right));
        }
    };
    let height_mm = match c.number(HEIGHT_IN)? {
        Some(inches) => Some(told_in(inches, MM_PER_INCH)),
        None => c.number(HEIGHT_MM)?,
    };
    let author = c.text("author");
    if author.chars().count() > 80 {
        return Err(c.problem("author", "longer than 80 characters", "a short name"));
    }
    Ok(Row {
        id: c.text("id").into(),
        visit: c.word("visit", Some(Visit::Found), "found, settled, reswept, proved, returned")?,
        quantity,
        place,
        method,
        typed: c.typed()?,
        unit: c.word("unit", Some(LengthUnit::Mm), "mm or in")?,
        value: value.zip(sigma).map(|(v, s)| (told_in(v, one), told_in(s, one))),
        corrections: c.list("corrections")?,
        also: c.list("also")?,
        jack: c.word("jack", Some(Jack::Rolled), "rolled, jacked or one_side")?,
        jacked_height: c.text("jacked_height").chars().take(LONGEST_ENTRY).collect(),
        height_mm,
        author: author.into(),
        taken_at: c.text("taken_at").into(),
        replaces: c.text("replaces").into(),
    })
}
