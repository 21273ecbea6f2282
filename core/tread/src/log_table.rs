//! Tread logs as CSV: one row a line of a tyre's log, round trip exact; read whole or not at all. The figures are in mm or
//! 32nds of an inch and km or miles, as the columns' names say.

use super::log::{LogEntry, LoggedTyre, TreadLog, TyrePlace};
use bold_stance_units::csv_text::{guarded, table_text, unguarded};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};
use bold_stance_units::{DistanceUnit, TreadUnit, both_readings, in_unit, parse_number, told_in};

/// Columns of figures, by what they hold and the unit their name ends in.
#[derive(Clone, Copy)]
enum Figure {
    New,
    Odometer,
    Inner,
    Centre,
    Outer,
}

impl Figure {
    const ALL: [Self; 5] = [Self::New, Self::Odometer, Self::Inner, Self::Centre, Self::Outer];
    const DEPTHS: [Self; 3] = [Self::Inner, Self::Centre, Self::Outer];

    /// The column's name in these units.
    fn named(self, u: LogUnits) -> &'static str {
        match (self, u.tread, u.distance) {
            (Self::New, TreadUnit::Mm, _) => "new_depth_mm",
            (Self::New, TreadUnit::In32, _) => "new_depth_32nds",
            (Self::Odometer, _, DistanceUnit::Km) => "odometer_km",
            (Self::Odometer, _, DistanceUnit::Miles) => "odometer_miles",
            (Self::Inner, TreadUnit::Mm, _) => "inner_mm",
            (Self::Inner, TreadUnit::In32, _) => "inner_32nds",
            (Self::Centre, TreadUnit::Mm, _) => "centre_mm",
            (Self::Centre, TreadUnit::In32, _) => "centre_32nds",
            (Self::Outer, TreadUnit::Mm, _) => "outer_mm",
            (Self::Outer, TreadUnit::In32, _) => "outer_32nds",
        }
    }

    /// What one of the column's unit is as it is kept, km or mm.
    fn one(self, u: LogUnits) -> f64 {
        if matches!(self, Self::Odometer) { u.distance.km() } else { u.tread.mm() }
    }
}

/// What the figures of a table are in; the names of its columns say it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct LogUnits {
    /// Depths of tread.
    pub tread: TreadUnit,
    /// The odometer.
    pub distance: DistanceUnit,
}

impl LogUnits {
    /// The columns, in order.
    fn columns(self) -> [&'static str; 10] {
        let [new, odometer, inner, centre, outer] = Figure::ALL.map(|f| f.named(self));
        ["mark", new, odometer, "place", "flipped", inner, centre, outer, "day", "note"]
    }

    /// The units the names of a table's columns say; a table that mixes two units of a kind is refused for the column
    /// that is not of the first.
    fn of(head: &[String]) -> Self {
        let named = |f: Figure, u: Self| head.iter().any(|h| h == f.named(u));
        let inches = Self { tread: TreadUnit::In32, distance: DistanceUnit::Miles };
        let thirty_seconds = [Figure::New, Figure::Inner, Figure::Centre, Figure::Outer];
        Self {
            tread: if thirty_seconds.iter().any(|f| named(*f, inches)) {
                TreadUnit::In32
            } else {
                TreadUnit::Mm
            },
            distance: if named(Figure::Odometer, inches) { DistanceUnit::Miles } else { DistanceUnit::Km },
        }
    }
}

const MOST_ROWS: usize = 20_000;

/// Writes a log as CSV, its figures in these units. Cells that a spreadsheet would run as a formula get an apostrophe before them.
///
/// # Errors
/// A [`Problem`] when a row cannot be written.
pub fn log_to_csv(log: &TreadLog, units: LogUnits) -> Result<String, Problem> {
    let bad = |e: &dyn std::fmt::Display| Problem::new("log", e.to_string(), said("fault-log-can-written"));
    let safe = guarded;
    let mut w = csv::Writer::from_writer(Vec::new());
    w.write_record(units.columns()).map_err(|e| bad(&e))?;
    let (mm, km) = (units.tread.mm(), units.distance.km());
    for t in &log.tyres {
        for e in &t.entries {
            let depth = |i: usize| e.depths_mm.map_or_else(String::new, |d| in_unit(d[i], mm).to_string());
            w.write_record([
                safe(&t.mark),
                t.new_depth_mm.map_or_else(String::new, |d| in_unit(d, mm).to_string()),
                in_unit(e.odometer_km, km).to_string(),
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
    let units = LogUnits::of(&head);
    let columns = units.columns();
    for n in ["mark", Figure::Odometer.named(units), "place"] {
        if !head.iter().any(|h| h == n) {
            return Err(one(
                "line 1",
                said("fault-no-column-named").name("name", n),
                said("fault-the-columns").name("list", columns.join(", ")),
            ));
        }
    }
    if let Some(h) = head.iter().find(|h| !columns.contains(&h.as_str())) {
        return Err(one(
            "line 1",
            said("fault-unknown-column").name("name", h.clone()),
            said("fault-the-columns").name("list", columns.join(", ")),
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
        match read_row(&head, units, &row, line) {
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

fn read_row(
    head: &[String],
    units: LogUnits,
    row: &csv::StringRecord,
    line: u64,
) -> Result<Row, Vec<Problem>> {
    let mut problems = Vec::new();
    let cell = |name: &str| head.iter().position(|h| h == name).and_then(|i| row.get(i)).unwrap_or_default();
    let plain = |name: &str| {
        let t = cell(name);
        unguarded(t).to_owned()
    };
    // Bounds are those of what is kept, told in the table's own unit.
    let mut number = |f: Figure, low: f64, high: f64| -> Option<f64> {
        let name = f.named(units);
        let t = cell(name);
        if t.is_empty() {
            return None;
        }
        let field = format!("line {line}, {name}");
        let unit = match (f, units.tread, units.distance) {
            (Figure::Odometer, _, DistanceUnit::Km) => "km",
            (Figure::Odometer, _, DistanceUnit::Miles) => "miles",
            (_, TreadUnit::Mm, _) => "mm",
            (_, TreadUnit::In32, _) => "32nds of an inch",
        };
        let (low, high) = ((low / f.one(units)).floor(), (high / f.one(units)).ceil());
        let range = || {
            said("fault-number-from")
                .name("low", low.to_string())
                .name("high", high.to_string())
                .name("unit", unit)
        };
        let checked = parse_number(&field, t)
            .map_err(|p| if both_readings(t).is_some() { p } else { Problem { right: range(), ..p } })
            .and_then(|v| in_range(&field, v, low, high, unit).map(|()| told_in(v, f.one(units))));
        checked.map_err(|p| problems.push(p)).ok()
    };
    let new_depth = number(Figure::New, 2.0, 25.0);
    let odometer = number(Figure::Odometer, 0.0, 3_000_000.0);
    let depths = Figure::DEPTHS.map(|f| number(f, 0.0, 30.0));
    let mut bad = |name: &str, wrong: Said, right: Said| {
        problems.push(Problem::new(format!("line {line}, {name}"), wrong, right))
    };
    let mark = plain("mark");
    if mark.is_empty() || mark.len() > 40 {
        bad("mark", said("fault-letters").count("n", mark.len()), said("fault-mark-right"));
    }
    let odometer_named = Figure::Odometer.named(units);
    if cell(odometer_named).is_empty() {
        bad(odometer_named, said("fault-empty"), said("fault-the-odometer"));
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
            if Figure::DEPTHS.iter().any(|f| cell(f.named(units)).is_empty()) {
                bad(Figure::Inner.named(units), said("fault-depths-partly"), said("fault-depths-all"));
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
