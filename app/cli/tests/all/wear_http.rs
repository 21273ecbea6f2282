//! Tread over HTTP on a real PostgreSQL: forecast, log, CSV, diagnosis.

use crate::server;
use serde_json::{Value, json};
use server::{Server, car_input, fields};

fn tyres() -> Value {
    json!({"sizes":{"front":"285/70R17","rear":"285/70R17"}, "class": "all_terrain", "depth_mm": 10.6, "limit_mm": 3.0,
        "load_n":{"front":7000,"rear":5600}, "pressure_kpa":{"front":240,"rear":240}, "placard_kpa":{"front":260,"rear":260}, "drive_front": 0.5,
        "brake_front": 0.64, "use": [["trail", 70], ["highway", 30]], "load_transfer_per_g": 0.85,
        "roll_camber":{"front":2.5,"rear":0}, "price": 200, "yearly_km": 15000})
}

fn line(mark: &str, km: f64, depths: Value) -> Value {
    json!({"mark": mark, "new_depth_mm": 11.0,
        "entry": {"odometer_km": km, "place": "left_front", "depths_mm": depths, "day": "2026-11-24"}})
}

impl Server {
    fn csv(&self, path: &str, body: &[u8]) -> (u16, Value) {
        let url = format!("{}{path}", self.base);
        let mut r = self.agent.post(&url).header("content-type", "text/csv").send(body).unwrap();
        let text = r.body_mut().read_to_string().unwrap();
        (r.status().as_u16(), serde_json::from_str(&text).unwrap_or(Value::Null))
    }

    fn plain(&self, path: &str) -> String {
        let mut r = self.agent.get(format!("{}{path}", self.base)).call().unwrap();
        r.body_mut().read_to_string().unwrap()
    }
}

#[test]
fn a_log_is_written_corrected_struck_and_learned_from() {
    let s = Server::start();
    let ticket = s.truck();
    let job = ticket["job"]["id"].as_str().unwrap();
    let path = format!("/api/v1/jobs/{job}/tread");
    assert_eq!(s.get(&path)["tyres"], json!([]));
    let (status, v) = s.post(&path, &line("Q1", 40_000.0, Value::Null));
    assert_eq!(status, 201, "{v}");
    s.post(&path, &line("Q1", 47_000.0, json!([8.9, 9.4, 9.3])));
    let (_, v) = s.post(&path, &line("Q1", 46_000.0, json!([8.1, 9.0, 8.9])));
    let warned = v["warnings"].as_array().unwrap();
    assert!(warned[0]["wrong"].as_str().unwrap().contains("odometer ran back"), "{v}");
    // The correction stands in the place of the line it names; the old one is not to be corrected again.
    let wrong = v["tyres"][0]["lines"][2]["id"].clone();
    let mut right = line("Q1", 54_000.0, json!([8.1, 9.0, 8.9]));
    right["replaces"] = wrong.clone();
    let (status, v) = s.post(&path, &right);
    assert_eq!(status, 201, "{v}");
    assert_eq!(v["warnings"], json!([]));
    assert_eq!(v["tyres"][0]["lines"].as_array().unwrap().len(), 3);
    assert_eq!(s.post(&path, &right).0, 404, "that line was replaced already");
    let (status, v) = s.post(&format!("{path}/strike"), &json!({"id": wrong}));
    assert_eq!(status, 404, "{v}");
    // What it teaches.
    let mut ask = json!({"car": car_input(&ticket), "tyres": tyres(), "log": s.get(&path)["log"]});
    let (status, w) = s.post("/api/v1/wear", &ask);
    assert_eq!(status, 200, "{w}");
    let learned = &w["tyres"][0]["learned"];
    assert_eq!(learned["points"].as_array().unwrap().len(), 2, "{learned}");
    assert_eq!(learned["km"], json!(14_000.0));
    let width = |b: &Value| b["high"].as_f64().unwrap() / b["median"].as_f64().unwrap();
    assert!(width(&learned["after"]) < width(&learned["before"]));
    assert!(w["tyres"][1]["learned"].is_null());
    // Struck out: one point less.
    let last = s.get(&path)["tyres"][0]["lines"][2]["id"].clone();
    let (status, _) = s.post(&format!("{path}/strike"), &json!({"id": last}));
    assert_eq!(status, 200);
    ask["log"] = s.get(&path)["log"].clone();
    let (_, w) = s.post("/api/v1/wear", &ask);
    assert_eq!(w["tyres"][0]["learned"]["points"].as_array().unwrap().len(), 1);
}

#[test]
fn the_log_goes_out_and_in_as_csv_whole_or_not_at_all() {
    let s = Server::start();
    let job = s.truck()["job"]["id"].as_str().unwrap().to_owned();
    let path = format!("/api/v1/jobs/{job}/tread");
    s.post(&path, &line("Q1", 40_000.0, Value::Null));
    s.post(&path, &line("Q1", 47_000.0, json!([8.9, 9.4, 9.3])));
    let text = s.plain(&format!("{path}.csv"));
    assert!(text.starts_with("mark,new_depth_mm,odometer_km,place"), "{text}");
    // The same table again changes nothing; a new row is one line more.
    let (status, v) = s.csv(&format!("{path}.csv"), text.as_bytes());
    assert_eq!((status, v["tyres"][0]["lines"].as_array().unwrap().len()), (200, 2));
    let more = format!("{text}Q2,,47000,right front,,,,,,\nQ1,11,52000,LF,,8.2,9.0,8.9,,\n");
    let (status, v) = s.csv(&format!("{path}.csv"), more.as_bytes());
    assert_eq!(status, 200, "{v}");
    assert_eq!(v["tyres"].as_array().unwrap().len(), 2);
    // One bad row: nothing at all, and the row and column are named.
    let bad = format!("{more}Q9,,x,left front,,,,,,\nQ9,,5,boot,,,,,,\n");
    let (status, v) = s.csv(&format!("{path}.csv"), bad.as_bytes());
    assert_eq!(status, 422);
    assert!(fields(&v).iter().any(|f| f == "line 6, odometer_km"), "{v}");
    assert!(fields(&v).iter().any(|f| f == "line 7, place"), "{v}");
    assert_eq!(s.get(&path)["tyres"].as_array().unwrap().len(), 2);
    let (status, _) = s.csv(&format!("{path}.csv"), &vec![b'x'; 9_000_000]);
    assert_eq!(status, 413);
}

#[test]
fn bad_lines_and_requests_are_refused_at_their_field() {
    let s = Server::start();
    let ticket = s.truck();
    let job = ticket["job"]["id"].as_str().unwrap();
    let path = format!("/api/v1/jobs/{job}/tread");
    let (status, v) = s.post(&path, &line(" ", -3.0, json!([99, 1, 2])));
    assert_eq!(status, 422);
    for f in ["mark", "odometer_km", "depths_mm.0"] {
        assert!(fields(&v).iter().any(|x| x == f), "{f} in {v}");
    }
    assert_eq!(s.get(&path)["tyres"], json!([]), "nothing half kept");
    let (status, v) = s.post(&path, &json!({"mark": "A", "entry": {"odometer_km": 1, "place": "boot"}}));
    assert_eq!(status, 400);
    assert!(fields(&v)[0].contains("entry.place"), "{v}");
    let gone = "/api/v1/jobs/00000000-0000-4000-8000-000000000000/tread";
    assert_eq!(s.send("GET", gone, None).0, 404);
    let mut t = tyres();
    t["limit_mm"] = json!(20.5);
    t["load_n"]["rear"] = json!(1);
    let (status, v) = s.post("/api/v1/wear", &json!({"car": car_input(&ticket), "tyres": t}));
    assert_eq!(status, 422);
    for f in ["tyres.limit_mm", "tyres.load_n.rear"] {
        assert!(fields(&v).iter().any(|x| x == f), "{f} in {v}");
    }
    let mut car = car_input(&ticket);
    car["plan"]["axles"]["front"]["height_change_mm"] = json!(9999);
    let (_, v) = s.post("/api/v1/wear", &json!({"car": car, "tyres": tyres()}));
    assert!(fields(&v).iter().any(|x| x == "car.plan.axles.front.height_change_mm"), "{v}");
}

#[test]
fn a_second_plan_the_rules_and_the_limits_are_spoken() {
    let s = Server::start();
    let ticket = s.truck();
    let mut other = car_input(&ticket)["plan"].clone();
    other["axles"]["front"]["height_change_mm"] = json!(20);
    let ask =
        json!({"car": car_input(&ticket), "tyres": tyres(), "other": {"name": "Lift 20", "plan": other}});
    let (status, w) = s.post("/api/v1/wear", &ask);
    assert_eq!(status, 200, "{w}");
    let last = w["tyres"][0]["scenes"].as_array().unwrap().last().unwrap();
    assert_eq!((&last["id"], &last["title"]), (&json!("other"), &json!("Lift 20")));
    let data = s.get("/api/v1/wear-data");
    assert!(data["diagnosis"]["causes"].as_array().unwrap().len() >= 20);
    assert!(data["limits"].as_array().unwrap().iter().any(|l| l["limit_mm"] == json!(1.5875)));
    let seen = json!({"seen": {"pattern": "diagonal", "driven": "no"}});
    let (_, d) = s.post("/api/v1/diagnose", &seen);
    assert_eq!(d["causes"][0]["id"], "diagonal");
    assert!(d["replace"].as_str().unwrap().contains("replace before aligning"));
    let (status, v) = s.post("/api/v1/diagnose", &json!({"seen": {"pattern": "stripes"}}));
    assert_eq!((status, fields(&v)), (422, vec!["seen.pattern".to_owned()]));
}

/// The command line forecasts the same tyre to the same figures.
#[test]
fn the_command_line_and_the_bench_agree() {
    let s = Server::start();
    let ticket = s.truck();
    let input = car_input(&ticket);
    let (_, planned) = s.post("/api/v1/predict", &input);
    let (status, w) = s.post("/api/v1/wear", &json!({"car": input, "tyres": tyres()}));
    assert_eq!(status, 200, "{w}");
    for (k, side) in ["left", "right"].into_iter().enumerate() {
        let shown = w["tyres"][k]["scenes"].as_array().unwrap().iter().find(|x| x["id"] == "set").unwrap();
        let case = json!({
            "format": "bold-stance.wear/1",
            "tyre": {"section_mm": 285, "aspect": 70, "rim_in": 17, "class": "all_terrain", "new_depth_mm": 10.6},
            "wheel": {"load_n": 7000, "pressure_kpa": 240, "placard_kpa": 260, "axle_share": 7000.0 / 12600.0,
                "drive_share": 0.5, "brake_share": 0.64, "load_transfer_per_g": 0.85, "roll_camber_deg_per_g": 2.5,
                "caster_deg": planned["axles"]["front"][side]["set"]["caster_deg"]},
            "use": [["trail", 70], ["highway", 30]], "limit_mm": 3.0, "basis": "class", "setups": shown["setups"],
        });
        let file = std::env::temp_dir().join(format!("wear-{}-{side}.json", std::process::id()));
        std::fs::write(&file, case.to_string()).unwrap();
        let out = std::process::Command::new(env!("CARGO_BIN_EXE_bold-stance"))
            .args(["wear", file.to_str().unwrap()])
            .output()
            .unwrap();
        assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
        let told: Value = serde_json::from_slice(&out.stdout).unwrap();
        let numbers =
            |v: &Value| -> Vec<f64> { v.as_array().unwrap().iter().map(|x| x.as_f64().unwrap()).collect() };
        let (a, b) = (numbers(&shown["rate_mm_per_1000km"]), numbers(&told["rate_mm_per_1000km"]));
        assert!(a.iter().zip(&b).all(|(a, b)| (a / b - 1.0).abs() < 1e-9), "{side}: {a:?} {b:?}");
        for end in ["low", "median", "high"] {
            let (a, b) = (shown["band_km"][end].as_f64().unwrap(), told["band_km"][end].as_f64().unwrap());
            assert!((a / b - 1.0).abs() < 1e-9, "{side} {end}: {a} {b}");
        }
        assert_eq!(shown["shares"], told["shares"]);
        let _ = std::fs::remove_file(file);
    }
}

/// Two tablets write on one tyre at the same time: both lines stand, and one line is corrected only once.
#[test]
fn two_tablets_on_one_tyre_lose_nothing() {
    let s = Server::start();
    let job = s.truck()["job"]["id"].as_str().unwrap().to_owned();
    let path = format!("/api/v1/jobs/{job}/tread");
    s.post(&path, &line("Q1", 40_000.0, Value::Null));
    let first = s.get(&path)["tyres"][0]["lines"][0]["id"].clone();
    std::thread::scope(|t| {
        for n in 1..=8 {
            let (s, path) = (&s, &path);
            t.spawn(move || {
                let km = 40_000.0 + 500.0 * f64::from(n);
                assert_eq!(s.post(path, &line("Q1", km, json!([9.0, 9.2, 9.1]))).0, 201);
            });
        }
    });
    let lines = s.get(&path)["tyres"][0]["lines"].as_array().unwrap().clone();
    assert_eq!(lines.len(), 9, "none is lost");
    let statuses: Vec<u16> = std::thread::scope(|t| {
        let all: Vec<_> = (0..6)
            .map(|n| {
                let (s, path, first) = (&s, &path, &first);
                t.spawn(move || {
                    let mut l = line("Q1", 39_000.0 + f64::from(n), Value::Null);
                    l["replaces"] = first.clone();
                    s.post(path, &l).0
                })
            })
            .collect();
        all.into_iter().map(|h| h.join().unwrap()).collect()
    });
    assert_eq!(statuses.iter().filter(|x| **x == 201).count(), 1, "{statuses:?}");
    assert!(statuses.iter().all(|x| [201, 404].contains(x)), "{statuses:?}");
    assert_eq!(s.get(&path)["tyres"][0]["lines"].as_array().unwrap().len(), 9);
}
