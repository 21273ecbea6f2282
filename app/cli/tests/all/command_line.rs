//! The binary as a script would call it: results, exit codes, one-line errors.

use proptest::prelude::*;
use serde_json::{Value, json};
use std::path::PathBuf;
use std::process::{Command, Output};

fn run(args: &[&str]) -> Output {
    Command::new(env!("CARGO_BIN_EXE_bold-stance"))
        .args(args)
        .env_remove("OWNER_DATABASE_URL")
        .output()
        .unwrap()
}

fn file(name: &str, text: &str) -> PathBuf {
    let dir = PathBuf::from(env!("CARGO_TARGET_TMPDIR"));
    let path = dir.join(name);
    std::fs::write(&path, text).unwrap();
    path
}

fn sample() -> Value {
    serde_json::from_str(include_str!("../../../../core/kinematics/tests/cases/sample_wishbone.json"))
        .unwrap()
}

fn refused(out: &Output, code: i32, says: &str) {
    let err = String::from_utf8_lossy(&out.stderr);
    assert_eq!(out.status.code(), Some(code), "{err}");
    assert_eq!(err.trim().lines().count(), 1, "one line: {err}");
    assert!(err.contains(says), "{err}");
    assert!(out.stdout.is_empty());
}

#[test]
fn sweep_prints_the_agreed_columns() {
    let g = file("sweep.json", &sample().to_string());
    let out = run(&["sweep", g.to_str().unwrap(), "--travel=-40:40:20", "--rack=-10,0"]);
    assert!(out.status.success());
    let text = String::from_utf8(out.stdout).unwrap();
    let lines: Vec<&str> = text.lines().collect();
    assert_eq!(
        lines[0],
        "travel_mm,rack_mm,camber_deg,toe_deg,caster_deg,sai_deg,half_track_mm,wheel_x_mm,scrub_radius_mm,mechanical_trail_mm"
    );
    assert_eq!(lines.len(), 11);
    assert!(lines[8].starts_with("0.000000,0.000000,0.000000,0.050000,"), "{}", lines[8]);
}

#[test]
fn unreachable_rows_are_left_out_and_counted() {
    let g = file("reach.json", &sample().to_string());
    let out = run(&["sweep", g.to_str().unwrap(), "--travel=-300,0"]);
    assert!(out.status.success());
    assert!(String::from_utf8_lossy(&out.stderr).contains("1 unreachable"));
    refused(&run(&["sweep", g.to_str().unwrap(), "--travel=-300"]), 3, "extended");
    // Both ends are named, and the rack they were met at; what lies beyond an end is not marched to again.
    let out = run(&["sweep", g.to_str().unwrap(), "--travel=-2000:2000:2", "--rack=0,300"]);
    assert!(out.status.success());
    let said = String::from_utf8(out.stderr).unwrap();
    let ends: Vec<&str> = said.lines().skip(1).collect();
    assert!(ends.iter().any(|l| !l.contains("rack") && l.contains("-")), "{said}");
    assert!(ends.iter().filter(|l| !l.contains("rack")).count() == 2, "{said}");
    assert!(ends.iter().any(|l| l.starts_with("rack at 300 mm: ")), "{said}");
}

#[test]
fn the_right_side_of_an_unequal_axle_is_swept() {
    let mut v = sample();
    let points = v["points"].clone();
    let mut wheel = v["wheel"].clone();
    wheel["camber_deg"] = (-1.25).into();
    v["right"] = serde_json::json!({"points": points, "wheel": wheel});
    let g = file("unequal.json", &v.to_string());
    let at = |side: &str| {
        let out = run(&["sweep", g.to_str().unwrap(), "--travel=0", side]);
        assert!(out.status.success());
        String::from_utf8(out.stdout).unwrap().lines().nth(1).unwrap().to_owned()
    };
    assert!(at("--side=left").starts_with("0.000000,0.000000,0.000000,"), "{}", at("--side=left"));
    assert!(at("--side=right").starts_with("0.000000,0.000000,-1.250000,"), "{}", at("--side=right"));
    refused(&run(&["sweep", g.to_str().unwrap(), "--side=middle"]), 2, "--side");
}

#[test]
fn bad_input_is_one_line_and_exit_2() {
    let g = file("bad.json", &sample().to_string());
    let g = g.to_str().unwrap();
    refused(&run(&["sweep", "/no/such/file"]), 2, "file");
    refused(&run(&["sweep", g, "--travel=a:b:c"]), 2, "--travel");
    refused(&run(&["sweep", g, "--travel=0:10:0"]), 2, "endless");
    refused(&run(&["sweep", g, "--travel=0:1000:0.001"]), 2, "endless");
    refused(&run(&["sweep", g, "--rack=nan"]), 2, "--rack");
    let mut v = sample();
    v["points"]["upper_outer"][2] = json!(1e10);
    refused(&run(&["sweep", file("far.json", &v.to_string()).to_str().unwrap()]), 2, "points.upper_outer.z");
    let mut v = sample();
    v["colour"] = json!("blue");
    refused(&run(&["sweep", file("extra.json", &v.to_string()).to_str().unwrap()]), 2, "colour");
    refused(&run(&["sweep", file("cut.json", &sample().to_string()[..80]).to_str().unwrap()]), 2, "document");
    refused(&run(&["sweep", file("empty.json", "").to_str().unwrap()]), 2, "EOF");
}

fn settings() -> Value {
    json!({"format":"bold-stance.settings/1","geometry":sample(),"height_change_mm":30,
        "baseline":{"camber_deg":0.3,"caster_deg":2.7,"toe_deg":0.05},
        "adjusters":[
            {"name":"front cam","kind":"eccentric","point":"lower_front","direction":[0,1,0],"eccentricity_mm":8,"min_deg":-90,"max_deg":90,"notches_per_half_turn":16},
            {"name":"rear cam","kind":"eccentric","point":"lower_rear","direction":[0,1,0],"eccentricity_mm":8,"min_deg":-90,"max_deg":90,"notches_per_half_turn":16},
            {"name":"tie rod","kind":"thread","link":"tie","pitch_mm":1.5,"ends":1,"turns":[-8,8]}],
        "aim":{"camber_deg":[-0.3,0.1],"caster_deg":[2.8,3.6],"toe_deg":[0.0,0.1]}})
}

#[test]
fn settings_reach_and_their_geometry_sweeps_back_to_the_same_angles() {
    let out = run(&["settings", file("set.json", &settings().to_string()).to_str().unwrap()]);
    assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
    let r: Value = serde_json::from_slice(&out.stdout).unwrap();
    assert_eq!(r["reached"], true);
    let after = file("after.json", &r["geometry_after"].to_string());
    let out = run(&["sweep", after.to_str().unwrap(), "--travel=0"]);
    let text = String::from_utf8(out.stdout).unwrap();
    let row: Vec<f64> = text.lines().nth(1).unwrap().split(',').map(|v| v.parse().unwrap()).collect();
    for (i, k) in [(2, "camber_deg"), (3, "toe_deg"), (4, "caster_deg"), (5, "sai_deg")] {
        assert!((row[i] - r["angles"][k].as_f64().unwrap()).abs() < 2e-6, "{k}");
    }
    for a in r["adjusters"].as_array().unwrap() {
        assert!(a["words"].as_str().unwrap().len() > 3);
    }
    assert_eq!(r["sensitivity"].as_array().unwrap().len(), 3);
    for k in ["camber_deg", "caster_deg", "toe_deg"] {
        assert_eq!(r["shortfall"][k], 0.0);
    }
}

#[test]
fn settings_say_what_is_wrong_and_what_has_no_answer() {
    let mut v = settings();
    v["adjusters"][0]["max_deg"] = json!(-90);
    refused(&run(&["settings", file("s1.json", &v.to_string()).to_str().unwrap()]), 2, "adjusters.0.max_deg");
    let mut v = settings();
    v["aim"]["camber_deg"] = json!([0.5, 0.1]);
    refused(&run(&["settings", file("s2.json", &v.to_string()).to_str().unwrap()]), 2, "aim.camber_deg");
    let mut v = settings();
    v["height_change_mm"] = json!(390);
    refused(&run(&["settings", file("s3.json", &v.to_string()).to_str().unwrap()]), 3, "no answer");
    let mut v = settings();
    v["aim"]["caster_deg"] = json!([12.0, 13.0]);
    let out = run(&["settings", file("s4.json", &v.to_string()).to_str().unwrap()]);
    let r: Value = serde_json::from_slice(&out.stdout).unwrap();
    assert_eq!(r["reached"], false);
    assert!(r["shortfall"]["caster_deg"].as_f64().unwrap() > 1.0);
}

#[test]
fn a_plan_case_is_searched_and_what_none_reaches_is_exit_3() {
    let read = |h: i32, camber: f64, caster: f64| {
        json!({"height_mm":h,"angles":{"camber_deg":camber,"caster_deg":caster,"toe_deg":0.05},
            "sigma":{"camber_deg":0.1,"caster_deg":0.15,"toe_deg":0.05}})
    };
    let case = |caster: [f64; 2]| {
        json!({"format":"bold-stance.plan/1","filters":{"forbid":["welding"],"most_parts":2},"input":{
            "geometry":sample(),"wheelbase_mm":3220,"design_height_mm":498,"height_change_mm":65,"fitted":[],
            "adjusters":settings()["adjusters"],"left":read(496,-0.15,3.35),"right":read(500,0.0,3.5),
            "aim":{"id":"own","name":"Own","reason":"typed","camber_deg":[-0.3,0.3],"caster_deg":caster,
                "toe_total_deg":[0.0,0.2],"cross_camber_deg":0.5,"cross_caster_deg":1.0}}})
    };
    let out = run(&["plan", file("p1.json", &case([3.7, 4.7]).to_string()).to_str().unwrap()]);
    assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
    let r: Value = serde_json::from_slice(&out.stdout).unwrap();
    assert_eq!((&r["reached"], &r["exhaustive"]), (&json!(true), &json!(true)));
    for (n, p) in r["plans"].as_array().unwrap().iter().enumerate() {
        let after = &p["left_after"];
        let path = file(&format!("p1_{n}.json"), &after["geometry_after"].to_string());
        let out = run(&["sweep", path.to_str().unwrap(), "--travel=0"]);
        let text = String::from_utf8(out.stdout).unwrap();
        let row: Vec<f64> = text.lines().nth(1).unwrap().split(',').map(|v| v.parse().unwrap()).collect();
        for (i, k) in [(2, "camber_deg"), (3, "toe_deg"), (4, "caster_deg"), (5, "sai_deg")] {
            assert!((row[i] - after["angles"][k].as_f64().unwrap()).abs() < 0.005, "{k}");
        }
    }
    let out = run(&["plan", file("p2.json", &case([14.0, 15.0]).to_string()).to_str().unwrap()]);
    assert_eq!(out.status.code(), Some(3));
    assert!(String::from_utf8_lossy(&out.stderr).contains("short by"));
    let nearest: Value = serde_json::from_slice(&out.stdout).unwrap();
    assert!(!nearest["plans"].as_array().unwrap().is_empty());
    let mut bad = case([3.7, 4.7]);
    bad["input"]["left"]["height_mm"] = json!(-5);
    refused(&run(&["plan", file("p3.json", &bad.to_string()).to_str().unwrap()]), 2, "input.left.height_mm");
    bad["input"]["lefft"] = json!(1);
    refused(&run(&["plan", file("p4.json", &bad.to_string()).to_str().unwrap()]), 2, "lefft");
}

#[test]
fn the_wear_case_of_the_contract_runs() {
    let case = r#"{"format":"bold-stance.wear/1",
     "tyre":{"section_mm":255,"aspect":45,"rim_in":19,"class":"soft_summer","new_depth_mm":7.5},
     "wheel":{"load_n":5700,"pressure_kpa":290,"placard_kpa":290,"placard_load_n":5700,"axle_share":0.52,"drive_share":0.6,"brake_share":0.4,
              "torque_factor":1.5,"regen":true,"load_transfer_per_g":0.7,"roll_camber_deg_per_g":2.5,"caster_deg":0},
     "use":"mixed","limit_mm":1.6,"basis":"class","setups":[{"camber_deg":-2.0,"toe_deg":0.05,"share":1.0}]}"#;
    let out = run(&["wear", file("wear.json", case).to_str().unwrap()]);
    let r: Value = serde_json::from_slice(&out.stdout).unwrap();
    // Golden number G2 of the tread-wear specification.
    assert!((r["life_km"].as_f64().unwrap() - 26051.28).abs() < 0.01);
    assert_eq!(r["rate_mm_per_1000km"].as_array().unwrap().len(), 21);
    let blend = case.replace("\"mixed\"", r#"[["mixed",0.7],["highway",0.3]]"#);
    assert!(run(&["wear", file("blend.json", &blend).to_str().unwrap()]).status.success());
    let bad = case.replace("\"mixed\"", "\"moon\"");
    refused(&run(&["wear", file("moon.json", &bad).to_str().unwrap()]), 2, "use");
    let bad = case.replace("5700,\"pressure_kpa\"", "-5,\"pressure_kpa\"");
    refused(&run(&["wear", file("light.json", &bad).to_str().unwrap()]), 2, "wheel.load_n");
}

#[test]
fn other_machines_are_refused_without_a_word_and_a_secret() {
    refused(&run(&["serve", "--listen", "0.0.0.0:0"]), 2, "--listen: 0.0.0.0:0");
    // What else it wants of a network is in trust_http, with a database.
    for listen in ["127.0.0.1:0", "0.0.0.0:0"] {
        refused(&run(&["serve", "--listen", listen, "--public"]), 2, "--public: BOLD_STANCE_SESSION_SECRET");
    }
    assert!(run(&["--help"]).status.success() && run(&["sweep", "--help"]).status.success());
}

/// What an operator types wrong is told at its flag, before any database is asked.
#[test]
fn an_operators_mistakes_are_told_at_their_flags() {
    let none = ["--owner-database-url", "postgres://nobody@127.0.0.1:1/none"];
    let with = |args: &[&str]| run(&[args, &none].concat());
    refused(&with(&["shop", "--name", " ", "--login", "x"]), 2, "--name: nothing was entered");
    refused(&with(&["shop", "--name", "A", "--login", "x"]), 2, "BOLD_STANCE_PASSPHRASE: nothing was told");
    refused(&run(&["restore", "/nowhere/at.backup", "--check"]), 1, "/nowhere/at.backup");
    let path = PathBuf::from(env!("CARGO_TARGET_TMPDIR")).join("none.backup");
    std::fs::write(&path, "not a backup").unwrap();
    refused(&run(&["restore", path.to_str().unwrap(), "--check"]), 2, "damaged");
    refused(&run(&["backup", "x.backup"]), 2, "--owner-database-url: nothing was told");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]
    #[test]
    fn damaged_geometry_files_never_crash_it(at in 0usize..700, byte in any::<u8>()) {
        let mut text = sample().to_string().into_bytes();
        let at = at % text.len();
        text[at] = byte;
        let path = PathBuf::from(env!("CARGO_TARGET_TMPDIR")).join("fuzz.json");
        std::fs::write(&path, &text).unwrap();
        let code = run(&["sweep", path.to_str().unwrap(), "--travel=0"]).status.code();
        prop_assert!(matches!(code, Some(0 | 2 | 3)), "{:?}", code);
    }
}

fn read(args: &[&str]) -> Value {
    let mut all = vec!["read"];
    all.extend(args);
    let out = run(&all);
    assert!(out.status.success(), "{args:?}: {}", String::from_utf8_lossy(&out.stderr));
    serde_json::from_slice(&out.stdout).unwrap()
}

#[test]
fn every_reading_of_the_contract_is_converted() {
    let close = |v: &Value, key: &str, want: f64, within: f64| {
        let got = v[key].as_f64().unwrap_or_else(|| panic!("{key} in {v}"));
        assert!((got - want).abs() < within, "{key}: {got} against {want}");
    };
    // CP1, CP2, CP6: common practice, no source.
    let v = read(&["camber-offsets", "--top=15mm", "--bottom=0mm", "--span=320mm"]);
    assert_eq!((v["quantity"].as_str(), v["notes"].is_array()), (Some("camber"), true));
    close(&v, "value_deg", -2.684, 1e-3);
    // 0.5 mm an offset over 320 mm.
    close(&v, "sigma", (0.5 * 2f64.sqrt() / 320.0f64).to_degrees(), 1e-3);
    let v = read(&["camber-offsets", "--top=15mm", "--bottom=0mm", "--span=320mm", "--reference=inside"]);
    close(&v, "value_deg", 2.684, 1e-3);
    close(&read(&["camber-gap", "--top-gap=10mm", "--span=20.5in"]), "value_deg", -1.1, 1e-2);
    close(
        &read(&["camber-gap", "--top-gap=10mm", "--span=20.5in", "--bulge=2mm"]),
        "value_deg",
        -0.8802,
        1e-3,
    );
    let v = read(&["camber-gauge", "--angle=0.5", "--floor-slope=0.6", "--side=left"]);
    close(&v, "value_deg", -0.1, 1e-9);
    let v = read(&["camber-gauge", "--angle=0.5", "--floor-slope=0.6", "--side=right"]);
    close(&v, "value_deg", 1.1, 1e-9);
    let v = read(&[
        "camber-gauge",
        "--angle=0d30m",
        "--floor-slope=0.6",
        "--side=left",
        "--zeroed-on-floor=true",
    ]);
    close(&v, "value_deg", 0.5, 1e-9);
    let v = read(&["camber-runout", "--first=-0.5", "--second=-0.1"]);
    close(&v, "value_deg", -0.3, 1e-9);
    close(&v, "run_out_deg", 0.2, 1e-9);
    // Exactly 1/(2 sin 20°) = 1.4619 of the difference; mirrored on the right.
    let v = read(&["caster-sweep", "--camber-1=1.2", "--steer-1=20", "--camber-2=-0.8", "--steer-2=-20"]);
    close(&v, "value_deg", 2.0 * 1.461_902, 1e-5);
    close(&v, "approx_deg", 2.0 * 1.461_902, 1e-5);
    let v = read(&[
        "caster-sweep",
        "--camber-1=1.2",
        "--steer-1=-20",
        "--camber-2=-0.8",
        "--steer-2=20",
        "--side=right",
    ]);
    close(&v, "value_deg", 2.0 * 1.461_902, 1e-5);
    let v = read(&["toe-distance", "--front=66.5in", "--rear=67.5in", "--diameter=30in"]);
    close(&v, "value_deg", (1.0f64 / 30.0).asin().to_degrees(), 1e-9);
    let v = read(&[
        "toe-distance",
        "--front=1480mm",
        "--rear=1483mm",
        "--diameter=800mm",
        "--height=250mm",
        "--axle-height=400mm",
    ]);
    close(&v, "value_deg", (3.0 / (2.0 * (400f64 * 400.0 - 150.0 * 150.0).sqrt())).asin().to_degrees(), 1e-9);
    let v = read(&["toe-string", "--front-gap=100mm", "--rear-gap=103mm", "--diameter=430mm"]);
    close(&v, "value_deg", (3.0f64 / 430.0).asin().to_degrees(), 1e-9);
    let v = read(&[
        "toe-string",
        "--front-gap=103mm",
        "--rear-gap=100mm",
        "--diameter=430mm",
        "--reference=outside",
        "--track-front=1500mm",
        "--track-rear=1540mm",
        "--wheelbase=2700mm",
        "--strung=rear-wheels",
    ]);
    close(
        &v,
        "value_deg",
        (3.0f64 / 430.0).asin().to_degrees() + (20.0f64 / 2700.0).atan().to_degrees(),
        1e-9,
    );
    let v = read(&["toe-convert", "--value=3mm", "--diameter=17in"]);
    close(&v, "value_deg", 0.398, 1e-3);
    close(&v, "value_mm", 3.0, 1e-9);
    close(&read(&["toe-convert", "--value=0d24m", "--diameter=17in"]), "value_mm", 3.0145, 1e-3);
    let v = read(&["axle-centring", "--left=40mm", "--right=30mm", "--bar-angle=10"]);
    close(&v, "value_mm", 5.0, 1e-9);
    close(&v, "bar_change_mm", 5.0 * 10f64.to_radians().cos(), 1e-9);
    close(&read(&["thrust", "--rear-toe-left=0.2", "--rear-toe-right=-0.1"]), "value_deg", 0.15, 1e-9);
    close(&read(&["floor-slope", "--drop=0.125in", "--run=12in"]), "value_deg", 0.5968, 1e-4);
    close(&read(&["rim-circle", "--nominal=17in"]), "value_mm", 18.36 * 25.4, 0.1);
    close(&read(&["rim-circle", "--nominal=17in", "--rule=shop"]), "value_mm", 18.0 * 25.4, 1e-6);
}

#[test]
fn a_sweep_on_a_geometry_file_is_exact_and_axis_readings_give_the_sai() {
    let g = file("swept.json", &sample().to_string());
    let rows = run(&["sweep", g.to_str().unwrap(), "--travel=0", "--rack=-45,0,45"]);
    let text = String::from_utf8(rows.stdout).unwrap();
    let row: Vec<Vec<f64>> =
        text.lines().skip(1).map(|l| l.split(',').map(|c| c.parse().unwrap()).collect()).collect();
    let (camber, steer) =
        (|i: usize| format!("{:.6}", row[i][2]), |i: usize| format!("{:.6}", row[1][3] - row[i][3]));
    let v = read(&[
        "caster-sweep",
        &format!("--camber-1={}", camber(0)),
        &format!("--steer-1={}", steer(0)),
        &format!("--camber-2={}", camber(2)),
        &format!("--steer-2={}", steer(2)),
        &format!("--geometry={}", g.display()),
    ]);
    assert!((v["value_deg"].as_f64().unwrap() - row[1][4]).abs() < 1e-3, "{v} against {}", row[1][4]);
    // A wheel with 4° of caster and 12° of SAI, turned in space (reference/readings.py has many).
    let v = read(&[
        "caster-sweep",
        "--camber-1=1.2",
        "--steer-1=20",
        "--camber-2=-1.4",
        "--steer-2=-20",
        "--axis-1=4.2",
        "--axis-2=-4.2",
    ]);
    assert!((v["sai_deg"].as_f64().unwrap() - 12.0).abs() < 1.0, "{v}");
}

#[test]
fn a_reading_that_cannot_be_is_one_line_and_exit_2() {
    for (args, says) in [
        (&["nonsense"][..], "METHOD"),
        (&["camber-gap", "--top-gap=10mm"], "span"),
        (&["camber-gap", "--top-gap=ten", "--span=20in"], "top-gap"),
        (&["camber-gap", "--top-gap=10mm", "--spam=20in"], "spam"),
        (&["camber-gap", "top-gap=10mm"], "--name=value"),
        (&["camber-gauge", "--angle="], "angle"),
        (&["camber-gauge", "--angle=0.4", "--floor-slope=0.5"], "side"),
        (&["toe-distance", "--front=1480mm", "--rear=1481mm"], "diameter"),
        (&["caster-sweep", "--camber-1=1", "--steer-1=20", "--camber-2=0", "--steer-2=20"], "steer-2"),
    ] {
        let mut all = vec!["read"];
        all.extend(args);
        refused(&run(&all), 2, says);
    }
    for help in [&["read", "--help"][..], &["read", "camber-gap", "--help"]] {
        let out = run(help);
        assert!(out.status.success());
        assert!(String::from_utf8_lossy(&out.stdout).contains("span"), "{help:?}");
    }
    let out = run(&["gauge", "--listen", "0.0.0.0:0"]);
    refused(&out, 2, "loopback");
    refused(&run(&["gauge", "--noise", "nan"]), 2, "--noise");
}

#[test]
fn the_published_schema_is_the_one_the_program_prints() {
    let out = run(&["schema", "job"]);
    assert!(out.status.success());
    let kept = include_str!("../../../../docs/schema/job.schema.json");
    assert_eq!(
        String::from_utf8(out.stdout).unwrap().trim(),
        kept.trim(),
        "bold-stance schema job > docs/schema/job.schema.json"
    );
    refused(&run(&["schema", "fish"]), 2, "no schema");
    let job = file("job.json", "{\"format\": \"bold-stance.job/1\"}");
    refused(&run(&["job", job.to_str().unwrap()]), 2, "missing field");
}

/// The closed loop of a corner: read as expected nothing is odd, and what cannot be read is named by its field.
#[test]
fn prove_says_what_came_what_it_taught_and_what_is_left() {
    let mut case = json!({
        "format": "bold-stance.prove/1", "geometry": sample(), "wheelbase_mm": 3220.0, "knowledge": "taped",
        "adjusters": [
            {"name": "front cam", "kind": "eccentric", "point": "lower_front", "direction": [0, 1, 0],
             "eccentricity_mm": 8.0, "min_deg": -90, "max_deg": 90, "gain_sd": 0.3},
            {"name": "rear cam", "kind": "eccentric", "point": "lower_rear", "direction": [0, 1, 0],
             "eccentricity_mm": 8.0, "min_deg": -90, "max_deg": 90},
            {"name": "tie rod", "kind": "thread", "link": "tie", "pitch_mm": 1.5, "ends": 1, "turns": [-10, 10]}
        ],
        "aim": {"camber_deg": [-0.3, 0.1], "caster_deg": [2.5, 3.5], "toe_deg": [0.0, 0.1]},
        "anchor": {"height_mm": 0, "positions": [0, 0, 0],
                   "readings": {"camber_deg": 0.6, "caster_deg": 3.0, "toe_deg": 0.05},
                   "sigma": {"camber_deg": 0.06, "caster_deg": 0.16, "toe_deg": 0.03}},
        "cycles": []
    });
    let prove = |case: &Value| run(&["prove", file("prove.json", &case.to_string()).to_str().unwrap()]);
    let told = |case: &Value| -> Value {
        let out = prove(case);
        assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
        serde_json::from_slice(&out.stdout).unwrap()
    };
    let first = told(&case);
    assert_eq!(first["predicted"], json!([]));
    assert_eq!(first["next"]["reaches"], true);
    let orders = first["next"]["orders"].as_array().unwrap();
    assert!(orders.iter().all(Value::is_string) && orders.len() == 3, "{orders:?}");
    let (to, e) = (first["next"]["positions"].clone(), first["next"]["expect"].clone());
    let sigma = case["anchor"]["sigma"].clone();
    case["cycles"] = json!([{"as_done": to, "height_mm": 0, "readings": e, "sigma": sigma}]);
    let second = told(&case);
    assert!(second["innovation"][0].as_f64().unwrap() < 1e-6, "{second}");
    assert_eq!(second["verdict"][0]["camber"]["as_predicted"], true);
    assert_eq!(second["explains"], json!([]));
    assert_eq!(second["next"]["positions"], to);
    assert_eq!(second["gains"].as_array().unwrap().len(), 3);
    case["cycles"][0]["readings"]["camber_deg"] = json!(2.9);
    let odd = told(&case);
    assert_eq!(odd["verdict"][0]["learned"], false);
    let odds: f64 = odd["explains"].as_array().unwrap().iter().map(|e| e["odds"].as_f64().unwrap()).sum();
    assert!((odds - 1.0).abs() < 1e-9, "{odd}");
    for (at, v, field) in [
        ("/format", json!("bold-stance.prove/2"), "format"),
        ("/cycles/0/as_done", json!([0, 0]), "cycles.0.as_done"),
        ("/cycles/0/sigma/camber_deg", json!(-1), "cycles.0.sigma.camber_deg"),
        ("/aim/caster_deg", Value::Null, "aim.caster_deg"),
    ] {
        let mut bad = case.clone();
        *bad.pointer_mut(at).unwrap() = v;
        refused(&prove(&bad), 2, field);
    }
}
