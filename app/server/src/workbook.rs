//! Tables as workbooks (Office Open XML, ISO/IEC 29500): the same columns and cells as the CSV, numbers as numbers, and back.

use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use calamine::{Data, Reader, Xlsx};
use rust_xlsxwriter::{Format, Workbook, XlsxError};
use std::io::{Cursor, Read};

/// Media type of a workbook.
pub const XLSX: &str = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

/// Cells a table may have.
const MOST_CELLS: usize = 500_000;
/// Bytes a workbook may have once it is unpacked.
const MOST_UNPACKED: u64 = 64 << 20;

/// Whether a body is a workbook and no text: it is a ZIP archive.
#[must_use]
pub fn is_workbook(body: &[u8]) -> bool {
    body.starts_with(b"PK\x03\x04")
}

/// A number where a cell is written as one writes it: what has a leading zero or plus is a name.
fn number(cell: &str) -> Option<f64> {
    let v: f64 = cell.parse().ok()?;
    (v.is_finite() && v.to_string() == cell).then_some(v)
}

fn cannot(why: impl ToString) -> Problem {
    Problem::new("table", said("fault-workbook").name("why", why.to_string()), said("fault-workbook-right"))
}

/// A workbook of one sheet from a table in CSV: its first row is bold, stays in view and filters.
///
/// # Errors
/// A problem at `table` where the text is no table, or is larger than a sheet.
pub fn workbook(sheet: &str, text: &str) -> Result<Vec<u8>, Problem> {
    let written = |e: XlsxError| cannot(e);
    let mut book = Workbook::new();
    let head = Format::new().set_bold();
    let page = book.add_worksheet().set_name(sheet).map_err(written)?;
    let mut rows = csv::ReaderBuilder::new().has_headers(false).flexible(true).from_reader(text.as_bytes());
    let mut last = (0, 0);
    for (r, row) in rows.records().enumerate() {
        let row = row.map_err(cannot)?;
        let r = u32::try_from(r).map_err(cannot)?;
        for (c, cell) in row.iter().enumerate() {
            let c = u16::try_from(c).map_err(cannot)?;
            last = (r, last.1.max(c));
            let kept = match number(cell) {
                _ if r == 0 => page.write_string_with_format(r, c, cell, &head),
                Some(v) => page.write_number(r, c, v),
                None => page.write_string(r, c, cell),
            };
            kept.map_err(written)?;
        }
    }
    page.set_freeze_panes(1, 0).map_err(written)?;
    page.autofilter(0, 0, last.0, last.1).map_err(written)?;
    page.autofit();
    book.save_to_buffer().map_err(written)
}

/// Unpacked it is no larger than a table here can be; what an archive says of itself is not believed.
fn measured(body: &[u8]) -> Result<(), Problem> {
    let mut archive = zip::ZipArchive::new(Cursor::new(body)).map_err(cannot)?;
    let mut left = MOST_UNPACKED;
    for i in 0..archive.len() {
        let file = archive.by_index(i).map_err(cannot)?;
        left -= std::io::copy(&mut file.take(left), &mut std::io::sink()).map_err(cannot)?;
        if left == 0 {
            let right = said("fault-workbook-cells").count("n", MOST_CELLS);
            return Err(Problem::new("table", said("fault-workbook-large"), right));
        }
    }
    Ok(())
}

/// The first sheet of a workbook as CSV.
///
/// # Errors
/// A problem at `table` where it is no workbook, is too large, or a cell is an error.
pub fn csv_of(body: &[u8]) -> Result<String, Problem> {
    measured(body)?;
    let mut book: Xlsx<_> = Xlsx::new(Cursor::new(body)).map_err(cannot)?;
    let sheet = book.worksheet_range_at(0).ok_or_else(|| cannot("no sheet"))?.map_err(cannot)?;
    let (rows, columns) = sheet.get_size();
    if rows.saturating_mul(columns) > MOST_CELLS {
        let right = said("fault-workbook-cells").count("n", MOST_CELLS);
        return Err(Problem::new("table", said("fault-workbook-large"), right));
    }
    let mut out = csv::Writer::from_writer(Vec::new());
    for row in sheet.rows() {
        let cell = |d: &Data| match d {
            Data::Empty => Ok(String::new()),
            Data::String(s) | Data::DateTimeIso(s) | Data::DurationIso(s) => Ok(s.clone()),
            Data::Float(v) => Ok(v.to_string()),
            Data::Int(v) => Ok(v.to_string()),
            Data::Bool(v) => Ok(v.to_string()),
            Data::DateTime(v) => {
                let (year, month, day, h, m, s, _) = v.to_ymd_hms_milli();
                Ok(format!("{year:04}-{month:02}-{day:02}T{h:02}:{m:02}:{s:02}Z"))
            }
            Data::Error(e) => Err(cannot(e)),
        };
        let cells: Vec<String> = row.iter().map(cell).collect::<Result<_, _>>()?;
        out.write_record(cells).map_err(cannot)?;
    }
    String::from_utf8(out.into_inner().map_err(cannot)?).map_err(cannot)
}

/// A table that came in, as CSV whichever it was.
///
/// # Errors
/// Those of [`csv_of`].
pub fn table_in(body: &[u8]) -> Result<std::borrow::Cow<'_, [u8]>, Problem> {
    Ok(if is_workbook(body) { csv_of(body)?.into_bytes().into() } else { body.into() })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_table_leaves_and_returns_as_it_was() {
        let text = "id,name,value,note\n007,\"Arm, upper\",-1.25,'=1+1\n8,\u{c5}sa,1e999,\n";
        let body = workbook("Parts", text).unwrap();
        assert!(is_workbook(&body));
        assert_eq!(csv_of(&body).unwrap(), text);
        assert_eq!(table_in(text.as_bytes()).unwrap().as_ref(), text.as_bytes());
        assert_eq!(table_in(&body).unwrap().as_ref(), text.as_bytes());
    }

    #[test]
    fn numbers_are_numbers_and_names_stay_names() {
        let body = workbook("Parts", "a,b\n12.5,0012\n").unwrap();
        let mut book: Xlsx<_> = Xlsx::new(Cursor::new(body)).unwrap();
        let sheet = book.worksheet_range_at(0).unwrap().unwrap();
        assert_eq!(sheet.get_value((1, 0)), Some(&Data::Float(12.5)));
        assert_eq!(sheet.get_value((1, 1)), Some(&Data::String("0012".into())));
    }

    #[test]
    fn what_is_no_workbook_is_refused_in_words() {
        let bad = |body: &[u8]| csv_of(body).unwrap_err().field;
        assert_eq!(bad(b"PK\x03\x04 and no more"), "table");
        let mut half = workbook("Parts", "a\n1\n").unwrap();
        half.truncate(half.len() / 2);
        assert_eq!(bad(&half), "table");
    }

    #[test]
    fn what_unpacks_to_more_than_a_table_is_refused() {
        use std::io::Write;
        let mut zip = zip::ZipWriter::new(Cursor::new(Vec::new()));
        zip.start_file("xl/workbook.xml", zip::write::SimpleFileOptions::default()).unwrap();
        let zeros = vec![0u8; 1 << 20];
        for _ in 0..65 {
            zip.write_all(&zeros).unwrap();
        }
        let body = zip.finish().unwrap().into_inner();
        assert!(body.len() < 1 << 20);
        assert_eq!(csv_of(&body).unwrap_err().wrong.id, "fault-workbook-large");
    }
}
