//! Every layout against positions found by a general nonlinear solver on the constraint equations
//! (scipy; `reference/solve.py`, results committed in `reference/results`).
#![allow(clippy::unwrap_used, clippy::panic, missing_docs)]

use bold_stance_kinematics::geometry::{Geometry, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use std::path::{Path, PathBuf};

/// Agreement asked for: degrees and millimetres (the program's own contract is 0.001° and 0.01 mm).
const ANGLE: f64 = 2e-5;
const LENGTH: f64 = 2e-4;

fn folder(name: &str) -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../../reference").join(name)
}

fn row(c: &Corner, get: &dyn Fn(&str) -> Option<f64>, column: &str) -> Option<f64> {
    if let Corner::Axle(axle) = c {
        let a = axle.axle_pose(get("heave_mm").unwrap(), 0.0).unwrap();
        return match column {
            "lateral_shift_mm" => Some(a.midpoint.y),
            "caster_deg" => axle.left_wheel(&a).axis.map(|x| x.caster().to_degrees()),
            "pitch_change_deg" => Some(a.pitch.to_degrees()),
            "wheel_x_mm" => Some(a.midpoint.x - axle.design_x()),
            "roll_deg" => Some(a.roll.to_degrees()),
            other => panic!("{other}"),
        };
    }
    let w = c.wheel(get("travel_mm").unwrap(), get("rack_mm").unwrap()).unwrap();
    match column {
        "camber_deg" => Some(w.camber_deg),
        "toe_deg" => Some(w.toe_deg),
        "caster_deg" => w.steer.map(|s| s.caster_deg),
        "sai_deg" => w.steer.map(|s| s.sai_deg),
        "half_track_mm" => Some(w.half_track_mm),
        "wheel_x_mm" => Some(w.wheel_x_mm),
        "scrub_radius_mm" => w.steer.map(|s| s.scrub_radius_mm),
        "mechanical_trail_mm" => w.steer.map(|s| s.mechanical_trail_mm),
        other => panic!("{other}"),
    }
}

#[test]
fn every_layout_agrees_with_the_general_solver() {
    let mut cases = 0;
    let mut cells = 0;
    for file in std::fs::read_dir(folder("geometries")).unwrap() {
        let path = file.unwrap().path();
        let name = path.file_stem().unwrap().to_string_lossy().into_owned();
        let g = Geometry::from_json(&std::fs::read(&path).unwrap()).unwrap();
        let c = Corner::of(&g, Side::Left);
        let mut table = csv::Reader::from_path(folder("results").join(format!("{name}.csv"))).unwrap();
        let columns = table.headers().unwrap().clone();
        for record in table.records() {
            let record = record.unwrap();
            let get = |column: &str| -> Option<f64> {
                let i = columns.iter().position(|c| c == column).unwrap();
                record.get(i).filter(|t| !t.is_empty()).map(|t| t.parse().unwrap())
            };
            for column in columns.iter().filter(|c| !["travel_mm", "rack_mm", "heave_mm"].contains(c)) {
                let (want, got) = (get(column), row(&c, &get, column));
                let tolerance = if column.ends_with("_deg") { ANGLE } else { LENGTH };
                match (want, got) {
                    (None, None) => {}
                    (Some(w), Some(v)) if (w - v).abs() < tolerance => {}
                    other => panic!("{name} {column} at {:?}: {other:?}", record.get(0)),
                }
                cells += 1;
            }
        }
        cases += 1;
    }
    assert!(cases >= 10 && cells > 1500, "{cases} cases, {cells} cells");
}
