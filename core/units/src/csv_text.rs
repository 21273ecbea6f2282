//! What every table that comes in has to be before its columns are read: UTF-8 text, parted by commas, not cut off;
//! and what every cell that goes out has to be, so that no spreadsheet runs it.

use crate::problem::Problem;
use crate::said::said;

/// The text of a table, without a byte order mark.
///
/// # Errors
/// A [`Problem`] whose field is the line: bytes that are not UTF-8, another delimiter, or a quote that is never closed.
pub fn table_text(bytes: &[u8]) -> Result<&str, Problem> {
    let text = std::str::from_utf8(bytes).map_err(|e| {
        let line = 1 + bytes[..e.valid_up_to()].iter().filter(|b| **b == b'\n').count();
        Problem::new(
            format!("line {line}"),
            said("fault-bytes-not-utf-8"),
            said("fault-table-saved-csv-utf-8"),
        )
    })?;
    let text = text.strip_prefix('\u{feff}').unwrap_or(text);
    let head = text.lines().next().unwrap_or_default();
    if !head.contains(',') && (head.contains(';') || head.contains('\t')) {
        let found = if head.contains(';') { "fault-by-semicolons" } else { "fault-by-tabs" };
        return Err(Problem::new("line 1", said(found), said("fault-columns-parted-commas")));
    }
    // RFC 4180: a quote within a quoted cell is doubled, so a whole table has an even number of them.
    if text.matches('"').count() % 2 == 1 {
        let line = text.lines().count();
        return Err(Problem::new(
            format!("line {line}"),
            said("fault-quote-not-closed-table-cut"),
            said("fault-whole-file-saved-sent-again"),
        ));
    }
    Ok(text)
}

/// What a spreadsheet takes for the start of a formula, or of a guarded cell.
const STARTS: [char; 7] = ['=', '+', '-', '@', '\t', '\r', '\''];

/// A cell that goes out: what a spreadsheet would run as a formula gets an apostrophe before it. Numbers stay numbers.
pub fn guarded(cell: &str) -> String {
    if cell.trim().is_empty() {
        // Nothing but spaces and breaks is nothing.
        String::new()
    } else if cell.starts_with(STARTS) && cell.parse::<f64>().is_err() {
        format!("'{cell}")
    } else {
        cell.to_owned()
    }
}

/// A cell that came in, without the apostrophe it went out with.
pub fn unguarded(cell: &str) -> &str {
    match cell.strip_prefix('\'') {
        Some(rest) if rest.starts_with(STARTS) => rest,
        _ => cell,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn formulas_are_guarded_numbers_are_not_and_both_come_back() {
        for (cell, out) in [
            ("=1+1", "'=1+1"),
            ("@SUM(A1)", "'@SUM(A1)"),
            ("+cmd", "'+cmd"),
            ("-x", "'-x"),
            ("\tx", "'\tx"),
            ("'quoted", "''quoted"),
            ("-1.4", "-1.4"),
            ("+2", "+2"),
            ("plain", "plain"),
            ("", ""),
            ("'", "''"),
        ] {
            assert_eq!(guarded(cell), out);
            assert_eq!(unguarded(&guarded(cell)), cell);
        }
        assert_eq!(guarded("\r"), "", "spaces alone are nothing");
    }

    #[test]
    fn what_is_no_table_is_named_by_its_line() {
        assert_eq!(
            table_text("\u{feff}a,b\n1,\"2 \"\"x\"\"\"\n".as_bytes()).unwrap(),
            "a,b\n1,\"2 \"\"x\"\"\"\n"
        );
        let line = |b: &[u8]| table_text(b).unwrap_err().field;
        assert_eq!(line(b"a;b\n1;2\n"), "line 1");
        assert_eq!(line(b"a\tb\n1\t2\n"), "line 1");
        assert_eq!(line(b"a,b\n1,2\n\xff,3\n"), "line 3");
        assert_eq!(line(b"a,b\n1,\"cut o"), "line 2");
        // One column needs no delimiter.
        assert!(table_text(b"mark\nA\n").is_ok());
    }
}
