//! Parts as CSV: one row a part, round trip exact. Words in a list are parted by `;`; edits, adjusters, sizes and
//! limits are JSON, because each kind has its own fields.

use super::check::{MOST_PARTS, list_problems};
use super::{Fits, Part};
use bold_stance_units::csv_text::{guarded, table_text, unguarded};
use bold_stance_units::parse_number;
use bold_stance_units::problem::{Problem, parse_json};
use bold_stance_units::said::{Said, said};
use serde::Serialize;
use serde::de::DeserializeOwned;

/// Columns, in order.
const COLUMNS: [&str; 26] = [
    "id",
    "name",
    "summary",
    "group",
    "purposes",
    "layouts",
    "axles",
    "replaces",
    "springs",
    "place",
    "edits",
    "adjusters",
    "sizes",
    "limits",
    "requires",
    "provides",
    "conflicts",
    "side_effect",
    "labour_minutes",
    "cost",
    "rules",
    "access",
    "sockets",
    "torque",
    "order_number",
    "cautions",
];
/// Columns without which a row means nothing.
const NEEDED: [&str; 8] = ["id", "name", "summary", "group", "layouts", "axles", "replaces", "side_effect"];

fn words<T: Serialize>(list: &[T]) -> String {
    list.iter()
        .filter_map(|v| serde_json::to_value(v).ok().and_then(|v| v.as_str().map(str::to_owned)))
        .collect::<Vec<_>>()
        .join("; ")
}

/// Sentences can hold a semicolon: then the list is JSON.
fn texts(list: &[String]) -> String {
    if list.iter().any(|t| t.contains(';') || t.starts_with('[') || t.trim() != t || t.is_empty()) {
        json(&list)
    } else {
        list.join("; ")
    }
}

fn json<T: Serialize>(v: &T) -> String {
    serde_json::to_string(v).unwrap_or_default()
}

/// Writes parts as CSV.
///
/// # Errors
/// A [`Problem`] when a row cannot be written.
pub fn parts_to_csv(parts: &[Part]) -> Result<String, Problem> {
    let bad =
        |e: &dyn std::fmt::Display| Problem::new("table", e.to_string(), said("fault-rows-can-written"));
    let mut w = csv::Writer::from_writer(Vec::new());
    w.write_record(COLUMNS).map_err(|e| bad(&e))?;
    for p in parts {
        let group = words(std::slice::from_ref(&p.group));
        w.write_record(
            [
                p.id.clone(),
                p.name.clone(),
                p.summary.clone(),
                group,
                words(&p.purposes),
                words(&p.fits.layouts),
                words(&p.fits.axles),
                p.fits.replaces.clone(),
                words(p.fits.springs.as_slice()),
                words(p.fits.place.as_slice()),
                json(&p.edits),
                json(&p.adjusters),
                p.sizes.as_ref().map(json).unwrap_or_default(),
                json(&p.limits),
                texts(&p.requires),
                texts(&p.provides),
                texts(&p.conflicts),
                p.side_effect.clone(),
                p.labour_minutes.to_string(),
                // Below a billionth of a coin it is none; written in full it would have hundreds of noughts.
                if p.cost < 1e-9 { 0.0 } else { p.cost }.to_string(),
                words(&p.rules),
                p.access.clone(),
                p.sockets.clone(),
                p.torque.clone(),
                p.order_number.clone(),
                texts(&p.cautions),
            ]
            .map(|c| guarded(&c)),
        )
        .map_err(|e| bad(&e))?;
    }
    String::from_utf8(w.into_inner().map_err(|e| bad(&e))?).map_err(|e| bad(&e))
}

struct Cells<'a> {
    line: u64,
    names: &'a [String],
    record: &'a csv::StringRecord,
}

impl Cells<'_> {
    fn text(&self, name: &str) -> &str {
        let at = self.names.iter().position(|n| n == name);
        unguarded(at.and_then(|i| self.record.get(i)).unwrap_or("").trim())
    }

    fn at(&self, name: &str) -> String {
        format!("line {}, column {name}", self.line)
    }

    fn list(&self, name: &str) -> Result<Vec<String>, Problem> {
        let t = self.text(name);
        if t.starts_with('[') {
            return self.json(name);
        }
        Ok(t.split(';').map(str::trim).filter(|t| !t.is_empty()).map(str::to_owned).collect())
    }

    fn each<T: DeserializeOwned>(&self, name: &str, right: Said) -> Result<Vec<T>, Problem> {
        self.list(name)?
            .into_iter()
            .map(|t| {
                serde_json::from_value(serde_json::Value::String(t.clone())).map_err(|_| {
                    Problem::new(
                        self.at(name),
                        said("fault-word-not-known").name("word", t.clone()),
                        right.clone(),
                    )
                })
            })
            .collect()
    }

    fn json<T: DeserializeOwned + Default>(&self, name: &str) -> Result<T, Problem> {
        let t = self.text(name);
        if t.is_empty() {
            return Ok(T::default());
        }
        parse_json::<serde_json::Value>(t.as_bytes())
            .and_then(|v| {
                serde_path_to_error::deserialize(v).map_err(|e| {
                    let path = e.path().to_string();
                    Problem::new(
                        if path == "." { String::new() } else { path },
                        e.inner().to_string(),
                        Said::text(""),
                    )
                })
            })
            .map_err(|p| {
                let inner = if p.field.is_empty() || p.field == "document" {
                    String::new()
                } else {
                    format!(", {}", p.field)
                };
                Problem::new(
                    format!("{}{inner}", self.at(name)),
                    p.wrong,
                    said("fault-json-docs-parts-md-shows"),
                )
            })
    }

    fn number(&self, name: &str) -> Result<f64, Problem> {
        let t = self.text(name);
        if t.is_empty() { Ok(0.0) } else { parse_number(&self.at(name), t) }
    }

    fn part(&self) -> Result<Part, Problem> {
        let minutes = self.number("labour_minutes")?;
        if !(0.0..=1e6).contains(&minutes) || minutes.fract() != 0.0 {
            let wrong = said("fault-minutes").name("n", minutes.to_string());
            return Err(Problem::new(self.at("labour_minutes"), wrong, said("fault-whole-minutes-0-more")));
        }
        let group = self.each("group", said("fault-group-such"))?;
        let Some(group) = group.into_iter().next() else {
            return Err(Problem::new(
                self.at("group"),
                said("nothing-entered"),
                said("fault-group-upper-arm"),
            ));
        };
        Ok(Part {
            id: self.text("id").into(),
            name: self.text("name").into(),
            summary: self.text("summary").into(),
            group,
            purposes: self.each(
                "purposes",
                Said::text("camber, caster, toe, bump_steer, roll_centre, height, centring"),
            )?,
            fits: Fits {
                layouts: self.each(
                    "layouts",
                    Said::text("double_wishbone, strut, five_link, single_arm, solid_axle, twist_beam"),
                )?,
                axles: self.each("axles", Said::text("front, rear"))?,
                replaces: self.text("replaces").into(),
                springs: self.each("springs", said("fault-leaf-or-empty"))?.into_iter().next(),
                place: self.each("place", Said::text("upper_shaft"))?.into_iter().next(),
            },
            edits: self.json("edits")?,
            adjusters: self.json("adjusters")?,
            sizes: self.json("sizes")?,
            limits: self.json("limits")?,
            requires: self.list("requires")?,
            provides: self.list("provides")?,
            conflicts: self.list("conflicts")?,
            side_effect: self.text("side_effect").into(),
            labour_minutes: minutes as u32,
            cost: self.number("cost")?,
            only: None,
            rules: self.each(
                "rules",
                Said::text("welding, cutting, aftermarket_arms, spherical_joints, moves_pivots, knuckle"),
            )?,
            access: self.text("access").into(),
            sockets: self.text("sockets").into(),
            torque: self.text("torque").into(),
            order_number: self.text("order_number").into(),
            cautions: self.list("cautions")?,
        })
    }
}

/// Reads parts from CSV; all of them or none.
///
/// # Errors
/// Every [`Problem`], its field naming line and column.
pub fn parts_from_csv(bytes: &[u8]) -> Result<Vec<Part>, Vec<Problem>> {
    let one = |p: Problem| vec![p];
    let text = table_text(bytes).map_err(one)?;
    let mut reader = csv::ReaderBuilder::new().flexible(true).from_reader(text.as_bytes());
    let names: Vec<String> = reader
        .headers()
        .map_err(|e| one(Problem::new("line 1", e.to_string(), said("fault-row-column-names"))))?
        .iter()
        .map(|n| n.trim().to_lowercase())
        .collect();
    for n in &names {
        if !COLUMNS.contains(&n.as_str()) {
            let wrong = said("fault-no-column-named").name("name", n.clone());
            return Err(one(Problem::new(
                "line 1",
                wrong,
                said("fault-columns").name("list", COLUMNS.join(", ")),
            )));
        }
    }
    if let Some(missing) = NEEDED.iter().find(|n| !names.iter().any(|m| m == *n)) {
        let wrong = said("fault-no-column").name("name", *missing);
        return Err(one(Problem::new(
            "line 1",
            wrong,
            said("fault-columns-least").name("list", NEEDED.join(", ")),
        )));
    }
    let (mut parts, mut lines, mut problems) = (Vec::new(), Vec::new(), Vec::new());
    for record in reader.records() {
        let record = record.map_err(|e| {
            let line = e.position().map_or(0, csv::Position::line);
            one(Problem::new(format!("line {line}"), e.to_string(), said("fault-rows-comma-parted-cells")))
        })?;
        let line = record.position().map_or(0, csv::Position::line);
        if parts.len() == MOST_PARTS {
            let right = said("fault-parts-in-table").count("n", MOST_PARTS);
            return Err(one(Problem::new(format!("line {line}"), said("fault-too-many-rows"), right)));
        }
        if record.len() != names.len() {
            let wrong = said("fault-cells-under").count("cells", record.len()).count("columns", names.len());
            return Err(one(Problem::new(format!("line {line}"), wrong, said("fault-one-cell-column"))));
        }
        match (Cells { line, names: &names, record: &record }).part() {
            Ok(p) => {
                parts.push(p);
                lines.push(line);
            }
            Err(p) => problems.push(p),
        }
        if problems.len() >= 50 {
            return Err(problems);
        }
    }
    if problems.is_empty() && parts.is_empty() {
        problems.push(Problem::new("file", said("fault-no-rows"), said("fault-one-row-each-part")));
    }
    if problems.is_empty() {
        problems = list_problems(&parts)
            .into_iter()
            .map(|p| {
                let (index, field) = p.field.split_once('.').unwrap_or((p.field.as_str(), ""));
                match index.parse::<usize>().ok().and_then(|i| lines.get(i)) {
                    Some(line) => Problem::new(format!("line {line}, {field}"), p.wrong, p.right),
                    None => p,
                }
            })
            .collect();
    }
    if problems.is_empty() { Ok(parts) } else { Err(problems) }
}

#[cfg(test)]
mod tests {
    use super::super::shipped_parts;
    use super::*;

    #[test]
    fn the_shipped_parts_leave_and_return_unchanged() {
        let parts = shipped_parts().unwrap();
        let text = parts_to_csv(&parts).unwrap();
        assert_eq!(parts_from_csv(text.as_bytes()).unwrap(), parts);
    }

    #[test]
    fn a_bad_table_is_named_by_line_and_column_and_nothing_is_half_taken() {
        let text = parts_to_csv(&shipped_parts().unwrap()[..3]).unwrap();
        let first = |t: &[u8]| parts_from_csv(t).unwrap_err().remove(0).field;
        assert_eq!(first(text.replace(",190,", ",-190,").as_bytes()), "line 2, column labour_minutes");
        assert_eq!(
            first(text.replace("\"\"upper\"\"", "\"\"sideways\"\"").as_bytes()),
            "line 2, column edits, [0]"
        );
        assert_eq!(first(text.replace("id,name", "id;name").replace(',', ";").as_bytes()), "line 1");
        let mut latin = text.clone().into_bytes();
        latin.push(0xe9);
        assert_eq!(first(&latin), "line 5");
        let twice = format!("{text}{}\n", text.lines().nth(1).unwrap());
        assert_eq!(first(twice.as_bytes()), "line 5, id");
        let many = format!("{}\n{}", text.lines().next().unwrap(), "x\n".repeat(100_000));
        assert!(first(many.as_bytes()).starts_with("line 2"));
    }
}
