//! A table that comes in: its columns by name, its cells by column, what is wrong by line and column.

use bold_stance_units::csv_text::table_text;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;

/// Most rows of one table (judgement: a month of a busy shop).
const MOST_ROWS: usize = 200;

/// A row.
#[derive(Debug)]
pub struct Row {
    /// Its line in the table, from 1.
    pub line: u64,
    cells: Vec<(String, String)>,
}

impl Row {
    /// Where something of it is wrong.
    pub fn at(&self, column: &str) -> String {
        format!("line {}, {column}", self.line)
    }

    /// What stands in a column; nothing where the table has none. As it was written out: a leading apostrophe kept a text from being
    /// a formula.
    pub fn cell(&self, column: &str) -> &str {
        let v = self.cells.iter().find(|(n, _)| n == column).map_or("", |(_, v)| v.trim());
        v.strip_prefix('\'').filter(|r| r.starts_with(['=', '+', '-', '@'])).unwrap_or(v)
    }

    /// A number, or none where nothing stands.
    ///
    /// # Errors
    /// What is no number, at its column.
    pub fn number(&self, column: &str) -> Result<Option<f64>, Problem> {
        let v = self.cell(column);
        if v.is_empty() {
            return Ok(None);
        }
        let n = v.parse::<f64>().ok().filter(|n| n.is_finite());
        let bad = || Problem::new(self.at(column), said("fault-not-number"), said("fault-plain-or-empty"));
        n.ok_or_else(bad).map(Some)
    }

    /// A whole number, or none where nothing stands.
    ///
    /// # Errors
    /// What is none, at its column.
    pub fn whole(&self, column: &str) -> Result<Option<i32>, Problem> {
        let v = self.cell(column);
        if v.is_empty() {
            return Ok(None);
        }
        let bad =
            |_| Problem::new(self.at(column), said("fault-no-whole-number"), said("fault-whole-or-empty"));
        v.parse().map(Some).map_err(bad)
    }
}

/// Rows of a table with some of these columns, one of `needed` among them.
///
/// # Errors
/// What is wrong, by line.
pub fn rows(bytes: &[u8], columns: &[&str], needed: &[&str]) -> Result<Vec<Row>, Vec<Problem>> {
    let one = |p: Problem| vec![p];
    let text = table_text(bytes).map_err(one)?;
    let mut reader = csv::ReaderBuilder::new().flexible(true).from_reader(text.as_bytes());
    let head = reader
        .headers()
        .map_err(|e| one(Problem::new("line 1", e.to_string(), said("fault-row-column-names"))))?;
    let names: Vec<String> = head.iter().map(|n| n.trim().to_lowercase()).collect();
    if let Some(n) = names.iter().find(|n| !columns.contains(&n.as_str())) {
        let wrong = said("fault-no-column-named").name("name", n.clone());
        let right = said("fault-columns").name("list", columns.join(", "));
        return Err(one(Problem::new("line 1", wrong, right)));
    }
    if !names.iter().any(|n| needed.contains(&n.as_str())) {
        let wrong = said("fault-no-column").name("name", needed.first().copied().unwrap_or_default());
        let right = said("fault-columns-least").name("list", needed.join(", "));
        return Err(one(Problem::new("line 1", wrong, right)));
    }
    let mut out = Vec::new();
    for record in reader.records() {
        let record = record.map_err(|e| {
            let line = e.position().map_or(0, csv::Position::line);
            one(Problem::new(format!("line {line}"), e.to_string(), said("fault-rows-comma-parted-cells")))
        })?;
        let line = record.position().map_or(0, csv::Position::line);
        if out.len() == MOST_ROWS {
            let right = said("fault-rows-in-table").count("n", MOST_ROWS);
            return Err(one(Problem::new(format!("line {line}"), said("fault-too-many-rows"), right)));
        }
        if record.len() != names.len() {
            let wrong = said("fault-cells-under").count("cells", record.len()).count("columns", names.len());
            return Err(one(Problem::new(format!("line {line}"), wrong, said("fault-one-cell-column"))));
        }
        let cells = names.iter().cloned().zip(record.iter().map(str::to_owned)).collect();
        out.push(Row { line, cells });
    }
    if out.is_empty() {
        return Err(one(Problem::new("table", said("fault-no-rows"), said("fault-row-column-names"))));
    }
    Ok(out)
}

/// A table of these columns.
///
/// # Errors
/// A row that cannot be written.
pub fn written(columns: &[&str], rows: impl IntoIterator<Item = Vec<String>>) -> Result<String, Problem> {
    let bad =
        |e: &dyn std::fmt::Display| Problem::new("table", e.to_string(), said("fault-rows-can-written"));
    let mut w = csv::Writer::from_writer(Vec::new());
    w.write_record(columns).map_err(|e| bad(&e))?;
    for row in rows {
        w.write_record(row).map_err(|e| bad(&e))?;
    }
    String::from_utf8(w.into_inner().map_err(|e| bad(&e))?).map_err(|e| bad(&e))
}
