//! Tread logs as CSV: one row a line of a tyre's log, round trip exact; read whole or not at all.

use super::log::{LogEntry, LoggedTyre, TreadLog, TyrePlace};
use bold_stance_units::csv_text::{guarded, table_text, unguarded};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};
use bold_stance_units::{both_readings, parse_number};

const COLUMNS: [&str; 10] = [
    "mark",
    "new_depth_mm",
    "odometer_km",
    "place",
    "flipped",
    "inner_mm",
    "centre_mm",
    "outer_mm",
    "day",
    "note",
];
const NEEDED: [&str; 3] = ["mark", "odometer_km", "place"];
const MOST_ROWS: usize = 20_000;

/// Writes a log as CSV. Cells that a spreadsheet would run as a formula get an apostrophe before them.
///
/// # Errors
/// A [`Problem`] when a row cannot be written.
pub fn log_to_csv(log: &TreadLog) -> Result<String, Problem> {
    let bad = |e: &dyn std::fmt::Display| Problem::new("log", e.to_string(), said("fault-log-can-written"));
    let safe = guarded;
    let mut w = csv::Writer::from_writer(Vec::new());
    w.write_record(COLUMNS).map_err(|e| bad(&e))?;
    for t in &log.tyres {
        for e in &t.entries {
            let depth = |i: usize| e.depths_mm.map_or_else(String::new, |d| d[i].to_string());
            w.write_record([
                safe(&t.mark),
                t.new_depth_mm.map_or_else(String::new, |d| d.to_string()),
                e.odometer_km.to_string(),
                e.place.map_or("off", TyrePlace::name).to_owned(),
                if e.flipped { "yes".into() } else { String::new() },
                depth(0),
                depth(1),
                depth(2),
                safe(&e.day),
                safe(&e.note),
            ])
            .map_err(|e| bad(&e))?;
        }
    }
    String::from_utf8(w.into_inner().map_err(|e| bad(&e))?).map_err(|e| bad(&e))
}

/// Reads a log from CSV, tyres in the order they first come.
///
/// # Errors
/// Every [`Problem`], its field `line N, column`.
pub fn log_from_csv(bytes: &[u8]) -> Result<TreadLog, Vec<Problem>> {
    let one = |field: &str, wrong: Said, right: Said| vec![Problem::new(field, wrong, right)];
    let text = table_text(bytes).map_err(|p| vec![p])?;
    let mut r = csv::ReaderBuilder::new().trim(csv::Trim::All).from_reader(text.as_bytes());
    let head: Vec<String> = r
        .headers()
        .map_err(|e| one("line 1", Said::text(e.to_string()), said("fault-row-column-names")))?
        .iter()
        .map(str::to_lowercase)
        .collect();
    for n in NEEDED {
        if !head.iter().any(|h| h == n) {
            return Err(one(
                "line 1",
                said("fault-no-column-named").name("name", n),
                said("fault-the-columns").name("list", COLUMNS.join(", ")),
            ));
        }
    }
    if let Some(h) = head.iter().find(|h| !COLUMNS.contains(&h.as_str())) {
        return Err(one(
            "line 1",
            said("fault-unknown-column").name("name", h.clone()),
            said("fault-the-columns").name("list", COLUMNS.join(", ")),
        ));
    }
    let mut log = TreadLog::default();
    let mut problems = Vec::new();
    for (i, row) in r.records().enumerate() {
        if i >= MOST_ROWS {
            return Err(one(
                "file",
                said("fault-rows-more").count("n", MOST_ROWS),
                said("fault-one-cars-tyres"),
            ));
        }
        let row = row.map_err(|e| {
            let line = e.position().map_or(0, csv::Position::line);
            one(&format!("line {line}"), Said::text(e.to_string()), said("fault-as-many-cells"))
        })?;
        let line = row.position().map_or(0, csv::Position::line);
        match read_row(&head, &row, line) {
            Ok((mark, new_depth_mm, entry)) => match log.tyres.iter_mut().find(|t| t.mark == mark) {
                Some(t) => {
                    t.new_depth_mm = t.new_depth_mm.or(new_depth_mm);
                    t.entries.push(entry);
                }
                None => log.tyres.push(LoggedTyre { mark, new_depth_mm, entries: vec![entry] }),
            },
            Err(p) => problems.extend(p),
        }
        if problems.len() > 40 {
            break;
        }
    }
    if log.tyres.is_empty() && problems.is_empty() {
        return Err(one("file", said("fault-no-rows"), said("fault-row-each-line")));
    }
    if problems.is_empty() { Ok(log) } else { Err(problems) }
}

type Row = (String, Option<f64>, LogEntry);

fn read_row(head: &[String], row: &csv::StringRecord, line: u64) -> Result<Row, Vec<Problem>> {
    let mut problems = Vec::new();
    let cell = |name: &str| head.iter().position(|h| h == name).and_then(|i| row.get(i)).unwrap_or_default();
    let plain = |name: &str| {
        let t = cell(name);
        unguarded(t).to_owned()
    };
    let mut number = |name: &str, low: f64, high: f64, unit: &str| -> Option<f64> {
        let t = cell(name);
        if t.is_empty() {
            return None;
        }
        let field = format!("line {line}, {name}");
        let range = || {
            said("fault-number-from")
                .name("low", low.to_string())
                .name("high", high.to_string())
                .name("unit", unit)
        };
        let checked = parse_number(&field, t)
            .map_err(|p| if both_readings(t).is_some() { p } else { Problem { right: range(), ..p } })
            .and_then(|v| in_range(&field, v, low, high, unit).map(|()| v));
        checked.map_err(|p| problems.push(p)).ok()
    };
    let new_depth = number("new_depth_mm", 2.0, 25.0, "mm");
    let odometer = number("odometer_km", 0.0, 3_000_000.0, "km");
    let depths = ["inner_mm", "centre_mm", "outer_mm"].map(|n| number(n, 0.0, 30.0, "mm"));
    let mut bad = |name: &str, wrong: Said, right: Said| {
        problems.push(Problem::new(format!("line {line}, {name}"), wrong, right))
    };
    let mark = plain("mark");
    if mark.is_empty() || mark.len() > 40 {
        bad("mark", said("fault-letters").count("n", mark.len()), said("fault-mark-right"));
    }
    if cell("odometer_km").is_empty() {
        bad("odometer_km", said("fault-empty"), said("fault-the-odometer"));
    }
    let place = match cell("place").to_lowercase().as_str() {
        "off" | "" => None,
        t => {
            let p = TyrePlace::parse(t);
            if p.is_none() {
                let shown: String = t.chars().take(20).collect();
                bad("place", said("fault-no-place").name("word", shown), said("fault-places"));
            }
            p
        }
    };
    let flipped = match cell("flipped").to_lowercase().as_str() {
        "" | "no" | "false" | "0" => false,
        "yes" | "true" | "1" => true,
        t => {
            bad(
                "flipped",
                said("fault-quoted").name("value", t.chars().take(20).collect::<String>()),
                said("fault-yes-or-no"),
            );
            false
        }
    };
    let depths_mm = match depths {
        [Some(a), Some(b), Some(c)] => Some([a, b, c]),
        [None, None, None] => None,
        _ => {
            if ["inner_mm", "centre_mm", "outer_mm"].iter().any(|n| cell(n).is_empty()) {
                bad("inner_mm", said("fault-depths-partly"), said("fault-depths-all"));
            }
            None
        }
    };
    if !problems.is_empty() {
        return Err(problems);
    }
    let entry = LogEntry {
        odometer_km: odometer.unwrap_or_default(),
        place,
        flipped,
        depths_mm,
        day: plain("day").chars().take(20).collect(),
        note: plain("note").chars().take(200).collect(),
    };
    Ok((mark, new_depth, entry))
}
