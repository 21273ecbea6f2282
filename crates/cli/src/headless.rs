//! The core without a screen: files in, CSV or JSON out.

use crate::Failure;
use bold_stance_core::geometry::Geometry;
use bold_stance_core::linkage::{Linkage, WishboneCorner};
use bold_stance_core::plan::{SettingsCase, SettingsError, run_settings};
use bold_stance_core::problem::{Problem, parse_json};
use bold_stance_core::wear::{WearCase, run};
use serde::Serialize;
use std::io::Write;
use std::path::Path;

/// Largest file that is read, bytes.
const FILE_LIMIT: u64 = 4 * 1024 * 1024;
/// Most rows a sweep prints.
const ROW_LIMIT: usize = 200_000;

fn read(path: &Path) -> Result<Vec<u8>, Failure> {
    let shown = path.display();
    let size = std::fs::metadata(path)
        .map_err(|e| Failure::Input(format!("{shown}: {e}; the path of a file")))?
        .len();
    if size > FILE_LIMIT {
        return Err(Failure::Input(format!("{shown}: {size} bytes; a file of at most 4 MB")));
    }
    std::fs::read(path).map_err(|e| Failure::Input(format!("{shown}: {e}; a readable file")))
}

/// `a:b:step` or a comma list, mm.
fn numbers(field: &str, text: &str) -> Result<Vec<f64>, Problem> {
    let right = "a:b:step such as -100:80:10, or a list such as -50,0,50, within ±2000 mm";
    let bad = |wrong: String| Problem::new(field, wrong, right);
    let one = |t: &str| {
        t.trim()
            .parse::<f64>()
            .ok()
            .filter(|v| v.is_finite() && v.abs() <= 2000.0)
            .ok_or_else(|| bad(format!("\"{}\" is not a usable number", t.trim())))
    };
    let parts: Vec<&str> = text.split(':').collect();
    match parts.as_slice() {
        [list] => list.split(',').map(one).collect(),
        [a, b, step] => {
            let (a, b, step) = (one(a)?, one(b)?, one(step)?);
            let count = (b - a) / step;
            if step == 0.0 || !(0.0..=100_000.0).contains(&count) {
                return Err(bad(format!("{a} to {b} in steps of {step} is empty or endless")));
            }
            Ok((0..=(count + 1e-9).floor() as usize).map(|i| a + step * i as f64).collect())
        }
        _ => Err(bad(format!("\"{text}\" has {} parts", parts.len()))),
    }
}

/// Columns of a sweep, as agreed.
const COLUMNS: [&str; 10] = [
    "travel_mm",
    "rack_mm",
    "camber_deg",
    "toe_deg",
    "caster_deg",
    "sai_deg",
    "half_track_mm",
    "wheel_x_mm",
    "scrub_radius_mm",
    "mechanical_trail_mm",
];

/// `sweep`.
pub fn sweep(path: &Path, travel: &str, rack: &str) -> Result<(), Failure> {
    let g = Geometry::from_json(&read(path)?)?;
    let (travels, racks) = (numbers("--travel", travel)?, numbers("--rack", rack)?);
    if travels.len() * racks.len() > ROW_LIMIT {
        return Err(Failure::Input(format!(
            "--travel: {} rows; at most {ROW_LIMIT}",
            travels.len() * racks.len()
        )));
    }
    for r in g.remarks() {
        eprintln!("{r}");
    }
    let c = WishboneCorner::new(&g.points, &g.wheel);
    let mut out = csv::Writer::from_writer(std::io::stdout().lock());
    let system = |e: csv::Error| Failure::System(e.to_string());
    let (mut done, mut left_out, mut why) = (0, 0, None);
    for &rack in &racks {
        for &travel in &travels {
            match c.alignment(travel, rack) {
                Ok(a) => {
                    if done == 0 {
                        out.write_record(COLUMNS).map_err(system)?;
                    }
                    let row = [
                        travel,
                        rack,
                        a.camber_deg,
                        a.toe_deg,
                        a.caster_deg,
                        a.sai_deg,
                        a.half_track_mm,
                        a.wheel_x_mm,
                        a.scrub_radius_mm,
                        a.mechanical_trail_mm,
                    ];
                    out.write_record(row.map(|v| format!("{:.6}", v + 0.0))).map_err(system)?;
                    done += 1;
                }
                Err(e) => {
                    left_out += 1;
                    why.get_or_insert(e);
                }
            }
        }
    }
    out.flush().map_err(|e| Failure::System(e.to_string()))?;
    let Some(e) = why else { return Ok(()) };
    if done == 0 {
        return Err(Failure::NoAnswer(format!("no position can be reached: {e}")));
    }
    eprintln!("{left_out} unreachable rows left out: {e}");
    Ok(())
}

fn print<T: Serialize>(v: &T) -> Result<(), Failure> {
    let text = serde_json::to_string_pretty(v).map_err(|e| Failure::System(e.to_string()))?;
    writeln!(std::io::stdout().lock(), "{text}").map_err(|e| Failure::System(e.to_string()))
}

/// `settings`.
pub fn settings(path: &Path) -> Result<(), Failure> {
    let case: SettingsCase = parse_json(&read(path)?)?;
    match run_settings(&case) {
        Ok(r) => print(&r),
        Err(SettingsError::Bad(p)) => Err(p.into()),
        Err(e @ SettingsError::NoAnswer(_)) => Err(Failure::NoAnswer(e.to_string())),
    }
}

/// `wear`.
pub fn wear(path: &Path) -> Result<(), Failure> {
    let case: WearCase = parse_json(&read(path)?)?;
    print(&run(&case)?)
}
