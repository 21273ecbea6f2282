//! What every table that comes in has to be before its columns are read: UTF-8 text, parted by commas, not cut off.

use crate::problem::Problem;

/// The text of a table, without a byte order mark.
///
/// # Errors
/// A [`Problem`] whose field is the line: bytes that are not UTF-8, another delimiter, or a quote that is never closed.
pub(crate) fn table_text(bytes: &[u8]) -> Result<&str, Problem> {
    let text = std::str::from_utf8(bytes).map_err(|e| {
        let line = 1 + bytes[..e.valid_up_to()].iter().filter(|b| **b == b'\n').count();
        Problem::new(format!("line {line}"), "bytes that are not UTF-8", "a table saved as CSV, UTF-8")
    })?;
    let text = text.strip_prefix('\u{feff}').unwrap_or(text);
    let head = text.lines().next().unwrap_or_default();
    if !head.contains(',') && (head.contains(';') || head.contains('\t')) {
        let found = if head.contains(';') { "semicolons" } else { "tabs" };
        return Err(Problem::new("line 1", format!("columns parted by {found}"), "columns parted by commas"));
    }
    // RFC 4180: a quote within a quoted cell is doubled, so a whole table has an even number of them.
    if text.matches('"').count() % 2 == 1 {
        let line = text.lines().count();
        return Err(Problem::new(
            format!("line {line}"),
            "a quote is not closed: the table is cut off",
            "the whole file, saved or sent again",
        ));
    }
    Ok(text)
}

#[cfg(test)]
mod tests {
    use super::*;

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
