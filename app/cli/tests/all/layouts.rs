//! `sweep` and `metrics` for every layout, as a script would call them.

use serde_json::{Value, json};
use std::path::PathBuf;
use std::process::{Command, Output};

fn run(args: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_bold-stance")).args(args).output().unwrap()
}

fn file(name: &str, v: &Value) -> String {
    let path = PathBuf::from(env!("CARGO_TARGET_TMPDIR")).join(name);
    std::fs::write(&path, v.to_string()).unwrap();
    path.to_str().unwrap().to_owned()
}

fn reference(name: &str) -> Value {
    let path = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../reference/geometries").join(name);
    serde_json::from_slice(&std::fs::read(path).unwrap()).unwrap()
}

fn refused(out: &Output, code: i32, says: &str) {
    let err = String::from_utf8_lossy(&out.stderr);
    assert_eq!(out.status.code(), Some(code), "{err}");
    assert_eq!(err.trim().lines().count(), 1, "one line: {err}");
    assert!(err.contains(says), "{err}");
}

fn lines(out: &Output) -> Vec<String> {
    assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
    String::from_utf8(out.stdout.clone()).unwrap().lines().map(str::to_owned).collect()
}

#[test]
fn a_solid_axle_prints_its_own_columns() {
    let g = file("axle.json", &reference("axle_track_bar.json"));
    let l = lines(&run(&["sweep", &g, "--heave=-40:40:20"]));
    assert_eq!(l[0], "heave_mm,lateral_shift_mm,caster_deg,pitch_change_deg,wheel_x_mm,roll_deg");
    assert_eq!(l.len(), 6);
    assert_eq!(l[3], "0.000000,0.000000,6.200000,0.000000,0.000000,0.000000");
    // Travel is taken for heave, and an unsteered axle has no caster.
    let rear = file("axle_rear.json", &reference("axle_triangulated.json"));
    assert_eq!(
        lines(&run(&["sweep", &rear, "--travel=0"]))[1],
        "0.000000,0.000000,,0.000000,0.000000,0.000000"
    );
    refused(&run(&["sweep", &g, "--rack=10"]), 2, "--rack");
    let strut = file("strut_h.json", &reference("strut_ahead.json"));
    refused(&run(&["sweep", &strut, "--heave=0"]), 2, "--heave");
}

#[test]
fn an_unsteered_wheel_leaves_its_columns_empty() {
    let g = file("five.json", &reference("five_link_rear.json"));
    let l = lines(&run(&["sweep", &g, "--travel=0"]));
    let cells: Vec<&str> = l[1].split(',').collect();
    assert_eq!((cells[2], cells[4], cells[5], cells[8], cells[9]), ("-1.400000", "", "", "", ""));
}

#[test]
fn an_unreachable_travel_names_the_link() {
    let g = file("five_far.json", &reference("five_link_rear.json"));
    let out = run(&["sweep", &g, "--travel=-700"]);
    refused(&out, 3, "fully extended at travel");
    let said = String::from_utf8_lossy(&out.stderr).into_owned();
    assert!(["camber", "forward", "spring", "toe", "upper_lead"].iter().any(|n| said.contains(n)), "{said}");
    let g = file("axle_far.json", &reference("axle_track_bar.json"));
    refused(&run(&["sweep", &g, "--heave=-900"]), 3, "fully extended");
}

#[test]
fn faults_of_each_layout_name_their_field() {
    let mut g = reference("strut_ahead.json");
    g["points"]["strut_top"] = json!([0, 560]);
    refused(&run(&["sweep", &file("a.json", &g)]), 2, "points.strut_top");
    let mut g = reference("strut_ahead.json");
    g["points"].as_object_mut().unwrap().remove("tie_outer");
    refused(&run(&["sweep", &file("b.json", &g)]), 2, "points.tie_outer: this point is missing");
    let mut g = reference("five_link_rear.json");
    g["links"].as_object_mut().unwrap().remove("toe");
    refused(&run(&["sweep", &file("c.json", &g)]), 2, "links: 4 links");
    let mut g = reference("axle_track_bar.json");
    g["links"]["track_bar"] = json!({"inner": [0, 0, 0], "outer": [0, 0, 0]});
    refused(&run(&["sweep", &file("d.json", &g)]), 2, "links.track_bar");
    let mut g = reference("arm_swing.json");
    g["steering_axis"] = json!({"caster_deg": 5, "sai_deg": 9});
    refused(&run(&["sweep", &file("e.json", &g)]), 2, "steering_axis");
    let mut g = reference("arm_swing.json");
    g["points"]["arm_outer"] = g["points"]["arm_inner"].clone();
    refused(&run(&["sweep", &file("f.json", &g)]), 2, "points.arm_outer");
}

#[test]
fn metrics_speak_for_every_layout() {
    for name in [
        "wishbone_skewed",
        "strut_leaning",
        "five_link_front",
        "arm_semi_trailing",
        "beam_twist",
        "axle_track_bar",
    ] {
        let g = file(&format!("m_{name}.json"), &reference(&format!("{name}.json")));
        let out = run(&["metrics", &g, "--wheelbase=2900"]);
        assert!(out.status.success(), "{name}: {}", String::from_utf8_lossy(&out.stderr));
        let m: Value = serde_json::from_slice(&out.stdout).unwrap();
        assert_eq!(m["format"], "bold-stance.metrics/1");
        assert!(m["metrics"]["roll_centre"]["z_mm"].as_f64().unwrap().abs() < 900.0, "{name}");
        assert!(m["metrics"]["track_mm"].as_f64().unwrap() > 1200.0);
        let steers = !m["metrics"]["left"]["steer"].is_null();
        assert_eq!(steers, !name.starts_with("arm") && !name.starts_with("beam"), "{name}");
        assert_eq!(m["live_axle"].is_null(), name != "axle_track_bar");
    }
    let g = file("m_bad.json", &reference("wishbone_skewed.json"));
    refused(&run(&["metrics", &g, "--wheelbase=9"]), 2, "--wheelbase");
    refused(&run(&["metrics", "/no/such/file"]), 2, "file");
    // A rear axle knows its own wheelbase; a front one says what was assumed.
    let rear = file("m_rear.json", &reference("five_link_rear.json"));
    let out = run(&["metrics", &rear]);
    let m: Value = serde_json::from_slice(&out.stdout).unwrap();
    assert_eq!(m["wheelbase_mm"], 2820.0);
    assert!(String::from_utf8_lossy(&run(&["metrics", &g]).stderr).contains("--wheelbase: not given"));
}

#[test]
fn a_jack_sweep_is_fitted_from_a_file() {
    let reading = |t: f64, camber: f64, caster: f64| json!({"travel_mm": t, "camber_deg": camber, "caster_deg": caster, "toe_deg": 0.1});
    let case = json!({
        "format": "bold-stance.fit/1", "geometry": reference("wishbone_skewed.json"), "knowledge": "taped",
        "readings": [reading(-30.0, -0.2, 6.4), reading(0.0, -0.7, 6.7), reading(30.0, -1.4, 7.0)], "predict_at_mm": [-70, 60],
    });
    let out = run(&["fit", &file("fit.json", &case)]);
    assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
    let r: Value = serde_json::from_slice(&out.stdout).unwrap();
    assert_eq!(r["predictions"].as_array().unwrap().len(), 2);
    let p = &r["predictions"][0];
    assert!(p["band"]["camber_deg"].as_f64().unwrap() < p["band_before"]["camber_deg"].as_f64().unwrap());
    // The geometry that comes out is a file that goes in.
    let swept = run(&["sweep", &file("fitted.json", &r["geometry"]), "--travel=0"]);
    assert!(swept.status.success());
    let mut bad = case.clone();
    bad["readings"][1]["camber_deg"] = json!(95);
    refused(&run(&["fit", &file("fit_bad.json", &bad)]), 2, "readings.1.camber_deg");
    bad["readings"][1] = reading(-390.0, 0.0, 5.0);
    refused(&run(&["fit", &file("fit_far.json", &bad)]), 3, "does not close");
}
