//! Tables of readings, parts and tread: cells changed, then read; what is taken is written and read the same.

use crate::edited::text;
use arbitrary::{Result, Unstructured};
use bold_stance_trade::part::{parts_from_csv, parts_to_csv, shipped_parts};
use bold_stance_trade::reading::{MethodInfo, read_table, shipped_methods, write_table};
use bold_stance_tread::{LogUnits, log_from_csv, log_to_csv};
use bold_stance_units::LengthUnit;
use std::sync::LazyLock;

static METHODS: LazyLock<Vec<MethodInfo>> = LazyLock::new(|| shipped_methods().unwrap_or_default());
static TABLES: LazyLock<[Vec<Vec<String>>; 3]> = LazyLock::new(|| {
    let parts = parts_to_csv(&shipped_parts().unwrap_or_default()).unwrap_or_default();
    let parts: String = parts.split_inclusive('\n').take(12).collect();
    let readings = "axle,side,visit,method,typed,unit,value,value_unit,height_mm\n\
        front,left,as_found,camber-gauge,angle=-0.5,mm,-0.5,deg,500\n\
        front,right,as_found,height-hub,value=19 5/8 in,in,,,\n\
        both,both,after_work,toe-string,a=100; b=101,mm,,,\n";
    let tread = "mark,new_mm,odometer_km,place,flipped,inner_mm,centre_mm,outer_mm,day,note\n\
        A,8,41000,front left,,6,6.5,7,2026-01-02,\n\
        A,8,51000,rear left,yes,5,5.5,6,2026-06-02,=1\n\
        B,8,41000,front right,,6,6.5,7,2026-01-02,\"a, b\"\n";
    [readings, &parts, tread].map(cells)
});

fn cells(table: &str) -> Vec<Vec<String>> {
    let mut rows = Vec::new();
    // Cells with a comma inside are few: they are cut here, which makes another table to try.
    for line in table.lines() {
        rows.push(line.split(',').map(|c| c.trim_matches('"').to_owned()).collect());
    }
    rows
}

fn changed(rows: &[Vec<String>], u: &mut Unstructured<'_>) -> Result<String> {
    let mut rows = rows.to_vec();
    for _ in 0..u.int_in_range(0..=6u8)? {
        let r = u.choose_index(rows.len())?;
        match u.int_in_range(0..=5u8)? {
            0 if rows.len() > 2 => {
                rows.remove(r);
            }
            1 => {
                let twice = rows[r].clone();
                rows.push(twice);
            }
            2 => {
                rows[r].pop();
            }
            _ if !rows[r].is_empty() => {
                let c = u.choose_index(rows[r].len())?;
                rows[r][c] = text(u)?;
            }
            _ => {}
        }
    }
    let between = *u.choose(&[",", ",", ",", ";", "\t"])?;
    let quoted = |c: &String| {
        if c.contains(['"', ',', '\n', '\r', ';', '\t']) {
            format!("\"{}\"", c.replace('"', "\"\""))
        } else {
            c.clone()
        }
    };
    let lines: Vec<String> =
        rows.iter().map(|r| r.iter().map(quoted).collect::<Vec<_>>().join(between)).collect();
    Ok(lines.join(u.choose(&["\n", "\r\n"])?))
}

fn of_readings(t: &str) {
    let Ok(rows) = read_table(t, &METHODS) else { return };
    for unit in [LengthUnit::Mm, LengthUnit::In] {
        let table = write_table(&rows, unit).unwrap_or_default();
        match read_table(&table, &METHODS) {
            Ok(back) => assert_eq!(back.len(), rows.len()),
            Err(e) => assert!(e.is_empty(), "its own table is refused: {e:?}\n{table}"),
        }
        if unit == LengthUnit::Mm {
            assert_eq!(read_table(&table, &METHODS).ok().as_ref(), Some(&rows), "comes back as it was");
        }
    }
}

fn of_parts(t: &str) {
    let Ok(list) = parts_from_csv(t.as_bytes()) else { return };
    let table = parts_to_csv(&list).unwrap_or_default();
    assert_eq!(parts_from_csv(table.as_bytes()).ok().as_ref(), Some(&list), "comes back as it was: {table}");
}

fn of_tread(t: &str) {
    let Ok(log) = log_from_csv(t.as_bytes()) else { return };
    let table = log_to_csv(&log, LogUnits::default()).unwrap_or_default();
    assert_eq!(log_from_csv(table.as_bytes()).ok().as_ref(), Some(&log), "comes back as it was: {table}");
}

/// A table of readings, parts or tread with cells changed, or any text as one.
pub fn tables(data: &[u8]) {
    let mut u = Unstructured::new(data);
    let which = u.int_in_range(0..=2usize).unwrap_or(0);
    let t = if u.ratio(1, 8).unwrap_or(false) {
        u.arbitrary::<&str>().map(str::to_owned)
    } else {
        changed(&TABLES[which], &mut u)
    };
    let Ok(t) = t else { return };
    match which {
        0 => of_readings(&t),
        1 => of_parts(&t),
        _ => of_tread(&t),
    }
}
