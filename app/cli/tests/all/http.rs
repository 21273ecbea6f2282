//! The running binary over HTTP on a real PostgreSQL: problem documents, limits, conflicts, sudden death.

use crate::server;
use serde_json::{Value, json};
use server::{Server, car_input, fields};
use std::time::{Duration, Instant};
use uuid::Uuid;

#[test]
fn wrong_documents_get_problem_documents_with_fields() {
    let s = Server::start();
    let t = s.truck();
    let good = car_input(&t);
    assert_eq!(s.post("/api/v1/predict", &good).0, 200);
    let mut v = good.clone();
    v["plan"]["axles"]["front"]["height_change_mm"] = json!("65 mm");
    let (status, p) = s.post("/api/v1/predict", &v);
    assert_eq!((status, p["status"].as_u64()), (400, Some(400)));
    assert_eq!(fields(&p), ["plan.axles.front.height_change_mm"]);
    let mut v = good.clone();
    v["base"]["axles"]["front"]["read"]["left"]["angles"]["colour"] = json!(1);
    let (status, p) = s.post("/api/v1/predict", &v);
    assert_eq!(status, 400);
    assert!(p["detail"].as_str().unwrap().contains("unknown field"), "{p}");
    let mut v = good.clone();
    v["plan"]["axles"]["front"]["height_change_mm"] = json!(1e10);
    let points = &mut v["base"]["axles"]["front"]["geometry"]["points"];
    points["upper_outer"] = points["lower_outer"].clone();
    let (status, p) = s.post("/api/v1/predict", &v);
    assert_eq!(status, 422);
    assert!(fields(&p).contains(&"base.axles.front.geometry.points.upper_outer".to_owned()), "{p}");
    assert!(fields(&p).contains(&"plan.axles.front.height_change_mm".to_owned()), "{p}");
    for cut in ["{", "", "[1,", "nul", "{\"geometry\":NaN}"] {
        let (status, p) = s.send("POST", "/api/v1/predict", Some(cut.as_bytes()));
        assert_eq!(status, 400, "{cut}: {p}");
    }
    let huge = vec![b' '; 300 * 1024];
    assert_eq!(s.send("POST", "/api/v1/predict", Some(&huge)).0, 413);
    let nobody = Uuid::new_v4();
    assert_eq!(s.send("GET", &format!("/api/v1/jobs/{nobody}"), None).0, 404);
    assert_eq!(s.send("GET", "/api/v1/jobs/not-an-id", None).0, 400);
    assert_eq!(s.send("GET", "/api/v1/jobs?limit=x", None).0, 400);
    assert_eq!(s.send("DELETE", &format!("/api/v1/plans/{nobody}"), None).0, 404);
    assert_eq!(s.send("GET", "/api/v1/nothing", None).0, 404);
    assert_eq!(s.get("/api/openapi.json")["openapi"].as_str().unwrap().split('.').next(), Some("3"));
    // The process is as well as before.
    assert_eq!(s.get("/api/v1/health"), json!("ok"));
}

#[test]
fn foreign_hosts_and_foreign_pages_are_refused() {
    let s = Server::start();
    let url = format!("{}/api/v1/jobs", s.base);
    let r = s.agent.get(&url).header("host", "attacker.test").call().unwrap();
    assert_eq!(r.status().as_u16(), 403);
    let r = s.agent.post(&url).header("origin", "http://attacker.test").send(&b"{}"[..]).unwrap();
    assert_eq!(r.status().as_u16(), 403);
    let r = s.agent.get(format!("{}/", s.base)).call().unwrap();
    assert!(r.headers()["content-security-policy"].to_str().unwrap().contains("default-src 'self'"));
}

#[test]
fn a_reading_is_kept_as_typed_and_refused_at_its_entry() {
    let s = Server::start();
    let t = s.truck();
    let path = format!("/api/v1/jobs/{}/readings", t["job"]["id"].as_str().unwrap());
    let typed = |method: &str, entries: &[(&str, &str)]| {
        let entries: Vec<Value> = entries.iter().map(|(n, t)| json!({"name": n, "text": t})).collect();
        json!({"id": Uuid::new_v4(), "visit": "found", "axle": "front", "side": "left", "method": method,
            "entries": entries, "unit": "mm"})
    };
    for (method, entries, field) in [
        ("height-hub", &[("value", "")][..], "value"),
        ("height-hub", &[("value", "nan")], "value"),
        ("height-hub", &[("value", "0°24'")], "value"),
        ("height-hub", &[("value", "9999999999")], "value"),
        ("camber-gauge", &[("angle", "54")], "angle"),
        ("camber-gauge", &[("angle", "3mm")], "angle"),
        ("camber-gauge", &[("angel", "0.3")], "angel"),
        ("toe-convert", &[("value", "15 in")], "value"),
        (
            "caster-sweep",
            &[("camber-1", "1"), ("steer-1", "20"), ("camber-2", "2"), ("steer-2", "18")],
            "steer-2",
        ),
        ("toe-distance", &[("front", "1480"), ("rear", "1481")], "place"),
    ] {
        for at in [path.clone(), format!("{path}/preview")] {
            let (status, p) = s.post(&at, &typed(method, entries));
            assert_eq!(status, 422, "{method} {entries:?}: {p}");
            assert_eq!(fields(&p), [field], "{method}");
            assert!(!p["problems"][0]["right"].as_str().unwrap().is_empty());
        }
    }
    let (status, p) = s.post(&path, &json!({"id": Uuid::new_v4(), "visit": "found", "side": "left", "method": "guess", "entries": [], "unit": "mm"}));
    assert_eq!((status, fields(&p)), (400, vec!["method".to_owned()]));
    let (status, t2) = s.post(&path, &typed("height-hub", &[("value", "19 1/2 in")]));
    assert_eq!(status, 201);
    let last = t2["readings"].as_array().unwrap().last().unwrap();
    assert_eq!(last["raw"][0]["text"], "19 1/2 in");
    assert!((last["value"].as_f64().unwrap() - 495.3).abs() < 1e-9);
    assert_eq!(t2["readings"].as_array().unwrap().len(), t["readings"].as_array().unwrap().len() + 1);
    assert!(
        (t2["base"]["axles"]["front"]["read"]["left"]["height_mm"].as_f64().unwrap() - 495.3).abs() < 1e-9
    );
    // Too much of everything is refused, not stored.
    let many: Vec<Value> = (0..80).map(|_| json!({"name": "value", "text": "500"})).collect();
    let body = json!({"id": Uuid::new_v4(), "visit": "found", "axle": "front", "side": "left", "method": "height-hub", "entries": many, "unit": "mm"});
    assert_eq!(s.post(&path, &body).0, 422);
    // Sent again after a lost answer it is stored once; changed meanwhile it is not lost without a word.
    let mut again = typed("height-hub", &[("value", "502")]);
    assert_eq!(s.post(&path, &again).0, 201);
    let (status, t3) = s.post(&path, &again);
    assert_eq!(status, 201);
    assert_eq!(t3["readings"].as_array().unwrap().len(), t2["readings"].as_array().unwrap().len() + 1);
    again["entries"][0]["text"] = json!("505");
    let (status, p) = s.post(&path, &again);
    assert_eq!((status, fields(&p)), (422, vec!["id".to_owned()]));
    // A reading's id belongs to its job.
    let other = s.get("/api/v1/jobs")[1]["job"]["id"].as_str().unwrap().to_owned();
    let mut twice = typed("height-hub", &[("value", "500")]);
    twice["id"] = last["id"].clone();
    let (status, p) = s.post(&format!("/api/v1/jobs/{other}/readings"), &twice);
    assert_eq!((status, fields(&p)), (422, vec!["id".to_owned()]));
}

#[test]
fn tables_of_readings_are_taken_whole_or_not_at_all() {
    let s = Server::start();
    let jobs = s.get("/api/v1/jobs");
    let job = jobs.as_array().unwrap().iter().find(|j| j["readings"] == 0).unwrap()["job"]["id"]
        .as_str()
        .unwrap()
        .to_owned();
    let url = format!("{}/api/v1/jobs/{job}/readings.csv", s.base);
    let send = |text: &[u8]| {
        let mut r = s.agent.post(&url).header("content-type", "text/csv").send(text).unwrap();
        let body = r.body_mut().read_to_string().unwrap();
        (r.status().as_u16(), serde_json::from_str::<Value>(&body).unwrap_or(Value::Null))
    };
    let head = "axle,side,method,typed,unit\n";
    for (text, field) in [
        (
            format!("{head}front,left,camber-gauge,angle=-0.4,mm\nfront,left,camber-guess,angle=1,mm\n"),
            "line 3, method",
        ),
        (
            format!("{head}front,left,camber-gauge,angle=-0.4,mm\nfront,middle,camber-gauge,angle=1,mm\n"),
            "line 3, side",
        ),
        (format!("{head}front,left,camber-gauge,angle=3mm,mm\n"), "line 2, angle"),
        (format!("{head}front,both,camber-gauge,angle=3,mm\n"), "line 2, side"),
        ("axle;side;method;typed\nfront;left;camber-gauge;angle=1\n".to_owned(), "line 1"),
        (String::new(), "line 1"),
    ] {
        let (status, p) = send(text.as_bytes());
        assert_eq!(status, 422, "{text}: {p}");
        assert_eq!(fields(&p)[0], field, "{text}");
    }
    let (status, p) = send(b"axle,side,method,typed\nfront,left,camber-gauge,angle=\xff\xfe1\n");
    assert_eq!((status, fields(&p)[0].as_str()), (422, "table"));
    assert_eq!(send(&vec![b'a'; 300 * 1024]).0, 413);
    assert_eq!(s.get(&format!("/api/v1/jobs/{job}"))["readings"].as_array().unwrap().len(), 0);
    // Typed into a spreadsheet: worked out here, as on the pad.
    let (status, t) = send(
        format!("\u{feff}{head}front,left,camber-offsets,top=15mm; bottom=0; span=320mm,mm\n").as_bytes(),
    );
    assert_eq!(status, 200, "{t}");
    assert!((t["readings"][0]["value"].as_f64().unwrap() + 2.684).abs() < 1e-3);
    // Out and in again changes nothing.
    let out = s.agent.get(&url).call().unwrap().body_mut().read_to_string().unwrap();
    assert_eq!(send(out.as_bytes()).1["readings"].as_array().unwrap().len(), 1);
    let again = s.agent.get(&url).call().unwrap().body_mut().read_to_string().unwrap();
    assert_eq!(out, again);
}

#[test]
fn without_a_gauge_the_pad_is_told_so() {
    let s = Server::start();
    assert_eq!(s.get("/api/v1/gauge")["present"], false);
    let (status, p) = s.post("/api/v1/gauge/tell", &json!({"button": "hold"}));
    assert_eq!((status, fields(&p)), (422, vec!["gauge".to_owned()]));
    let (status, p) =
        s.post("/api/v1/gauge/tell", &json!({"button": "hold", "place": {"front": true, "left": true}}));
    assert_eq!((status, fields(&p)), (422, vec!["button".to_owned()]));
    assert_eq!(s.send("GET", "/api/v1/gauge/stream", None).0, 422);
}

#[test]
fn a_prepare_list_answered_twice_is_refused_the_second_time() {
    let s = Server::start();
    let t = s.truck();
    let job = t["job"]["id"].as_str().unwrap();
    let path = format!("/api/v1/jobs/{job}/visits/found");
    let version = t["visits"][0]["version"].as_i64().unwrap();
    let body = |v: i64, a: Value| json!({"version": v, "answers": a}).to_string();
    let put = |b: String| s.send("PUT", &path, Some(b.as_bytes()));
    let (status, p) = put(body(version, json!({"floor_front": "steep", "plates": "maybe"})));
    assert_eq!(status, 422);
    let mut named = fields(&p);
    named.sort();
    assert_eq!(named, ["floor_front", "plates"]);
    assert_eq!(put(body(version, json!({"floor_front": "0.3"}))).0, 200);
    assert_eq!(put(body(version, json!({"floor_front": "0.6"}))).0, 409);
    let now = s.get(&format!("/api/v1/jobs/{job}"));
    assert_eq!(now["visits"][0]["answers"]["floor_front"], "0.3");
}

#[test]
fn the_second_save_on_an_old_version_is_refused() {
    let s = Server::start();
    let t = s.truck();
    let p = &t["plans"][0];
    let path = format!("/api/v1/plans/{}", p["id"].as_str().unwrap());
    let body = json!({"version": p["version"], "name": "A", "document": p["document"]});
    assert_eq!(s.put(&path, &body).0, 200);
    let (status, problem) = s.put(&path, &body);
    assert_eq!(status, 409);
    assert!(
        problem["detail"].as_str().unwrap().contains("version 1")
            && problem["detail"].as_str().unwrap().contains("version 2"),
        "{problem}"
    );
    let (status, copy) = s.post(&format!("{path}/copy"), &json!({}));
    assert_eq!((status, copy["name"].as_str()), (201, Some("A (copy)")));
    assert_eq!(copy["document"], p["document"]);
    let bad = json!({"version": 2, "name": "  ", "document": p["document"]});
    let (status, problem) = s.put(&path, &bad);
    assert_eq!((status, fields(&problem)), (422, vec!["name".to_owned()]));
}

#[test]
fn impossible_vehicles_are_refused_at_the_field_and_nothing_is_stored() {
    let s = Server::start();
    let t = s.truck();
    let before = s.get("/api/v1/jobs").as_array().unwrap().len();
    let facts = t["vehicle"]["facts"].clone();
    let arrive =
        |f: &Value| s.post("/api/v1/jobs", &json!({"vehicle": f, "job": {"complaint": "", "bay": null}}));
    let mut f = facts.clone();
    f["tyre_size"] = json!("285");
    f["wheelbase_mm"] = json!(9);
    f["name"] = json!("");
    let (status, p) = arrive(&f);
    assert_eq!(
        (status, fields(&p)),
        (422, vec!["vehicle.name".into(), "vehicle.tyre_size".into(), "vehicle.wheelbase_mm".into()])
    );
    let mut f = facts.clone();
    // An upper arm so short that the loop opens within the usable travel.
    f["axles"]["front"]["geometry"]["points"]["upper_front"] = json!([104, 625, 569]);
    f["axles"]["front"]["geometry"]["points"]["upper_rear"] = json!([-128, 625, 560]);
    let (status, p) = arrive(&f);
    assert_eq!(status, 422, "{p}");
    assert!(fields(&p)[0].starts_with("vehicle.axles.front.geometry.points"), "{p}");
    assert!(p["problems"][0]["wrong"].as_str().unwrap().contains("loop"), "{p}");
    let (_, look) = s.post("/api/v1/geometry", &f["axles"]["front"]["geometry"]);
    assert!(!look["problems"].as_array().unwrap().is_empty());
    assert_eq!(s.get("/api/v1/jobs").as_array().unwrap().len(), before);
    assert_eq!(arrive(&facts).0, 201);
}

#[test]
fn shapes_are_scaled_by_tape_and_refuse_what_they_have_not() {
    let s = Server::start();
    let shapes = s.get("/api/v1/archetypes");
    let shapes = shapes.as_array().unwrap();
    assert!(shapes.len() >= 12);
    let strut = shapes.iter().find(|a| a["id"] == "compact_strut_front").unwrap();
    assert_eq!(strut["geometry"]["layout"], "strut");
    assert_eq!(strut["drawing"]["corners"].as_array().unwrap().len(), 2);
    let fit = |id: &str, taped: Value| {
        s.post(&format!("/api/v1/archetypes/{id}/fit"), &json!({"taped": taped, "wheelbase_mm": 2600}))
    };
    let (status, f) = fit("compact_strut_front", json!([{"measure": "track", "value": 1540}]));
    assert_eq!(status, 200);
    assert!((f["measures"][0]["fitted"].as_f64().unwrap() - 1540.0).abs() < 2.0, "{f}");
    let (status, p) = fit("compact_strut_front", json!([{"measure": "track_bar", "value": 900}]));
    assert_eq!((status, fields(&p)), (422, vec!["taped.0.measure".to_owned()]));
    let (status, p) = fit("compact_strut_front", json!([{"measure": "lower_arm", "value": 9}]));
    assert_eq!((status, fields(&p)), (422, vec!["taped.0.value".to_owned()]));
    let (status, p) = fit("no_such_shape", json!([]));
    assert_eq!((status, fields(&p)), (422, vec!["id".to_owned()]));
    assert_eq!(fit("compact_strut_front", json!([{"measure": "colour", "value": 9}])).0, 400);
}

#[test]
fn a_whole_car_is_kept_drawn_and_explained() {
    let s = Server::start();
    let t = s.truck();
    let facts = &t["vehicle"]["facts"];
    let car = json!({
        "front": facts["axles"]["front"]["geometry"], "rear": facts["axles"]["rear"]["geometry"],
        "wheelbase_mm": facts["wheelbase_mm"],
        "facts": facts["car"],
    });
    assert_eq!(facts["axles"]["rear"]["geometry"]["layout"], "solid_axle");
    let level = json!({"left_front": 40, "right_front": 40, "left_rear": 0, "right_rear": 0});
    let (status, d) = s.post("/api/v1/car-drawing", &json!({"car": car, "gains": level, "turn_deg": 20}));
    assert_eq!(status, 200);
    assert_eq!(d["corners"].as_array().unwrap().len(), 4);
    let spin = |i: usize| d["corners"][i]["drawing"]["spin"][0].as_f64().unwrap();
    assert!(spin(0) < -0.2 && spin(1) > 0.2, "both turned left");
    let (status, f) = s.post(
        "/api/v1/corner-file",
        &json!({"file": {"car": car, "arrived": level,
            "planned": {"axles": {"front": {"gain_mm": 30, "settle_mm": 4}, "rear": {}}}}}),
    );
    assert_eq!(status, 200, "{f}");
    // As arrived, planned, settled, and loaded from springs and payload.
    let names: Vec<_> = f["states"].as_array().unwrap().iter().map(|r| r["kind"].clone()).collect();
    assert_eq!(names, ["arrived", "planned", "settled", "loaded"]);
    let far = json!({"left_front": 9000, "right_front": 0, "left_rear": 0, "right_rear": 0});
    let (status, p) = s.post("/api/v1/corner-file", &json!({"file": {"car": car, "arrived": far}}));
    assert_eq!((status, fields(&p)), (422, vec!["file.arrived.left_front".to_owned()]));
    // With the plan the planned column is the plan's: its heights, its parts, as it sets them.
    let plan = car_input(&t);
    let (status, p) = s.post("/api/v1/predict", &plan);
    assert_eq!(status, 200, "{p}");
    let asked = json!({"file": {"car": car, "arrived": level}, "car": plan});
    let p = p["axles"]["front"].clone();
    let (status, f) = s.post("/api/v1/corner-file", &asked);
    assert_eq!(status, 200, "{f}");
    let row =
        f["states"].as_array().unwrap().iter().find(|r| r["kind"] == p["judged"]["kind"]).unwrap().clone();
    assert_eq!(row["gains"]["left_front"], p["judged"]["own_mm"]);
    let mut wrong = plan.clone();
    wrong["plan"]["axles"]["front"]["fitted"] = json!(["no-such-part"]);
    let (status, p) =
        s.post("/api/v1/corner-file", &json!({"file": {"car": car, "arrived": level}, "car": wrong}));
    assert_eq!((status, fields(&p)), (422, vec!["car.plan.axles.front.fitted.0".to_owned()]));
    let mut wrong = car.clone();
    wrong["facts"]["cg_height_mm"] = json!(2);
    wrong["rear"]["links"]["lower_left"]["axle"] = wrong["rear"]["links"]["lower_left"]["chassis"].clone();
    let (status, p) = s.post("/api/v1/car-drawing", &json!({"car": wrong, "turn_deg": 0}));
    assert_eq!(status, 422);
    assert_eq!(fields(&p), ["car.rear.links.lower_left.axle", "car.facts.cg_height_mm"]);
}

/// A part is drawn on a shape that has what it goes on, not on the first of its layout.
#[test]
fn a_leaf_part_is_looked_at_on_leaf_springs() {
    let s = Server::start();
    let parts = s.get("/api/v1/parts");
    let of =
        |id: &str| parts.as_array().unwrap().iter().find(|p| p["part"]["id"] == id).unwrap()["part"].clone();
    let (status, look) = s.post("/api/v1/parts/look", &json!({"part": of("caster-wedges")}));
    assert_eq!((status, look["note"].as_str()), (200, Some("")));
    let was = look["before_wheel"]["camber_deg"].as_f64().unwrap();
    assert!(look["after"].is_object() && was.is_finite(), "{look}");
}

#[test]
fn a_front_axle_that_cannot_steer_is_refused_at_its_layout() {
    let s = Server::start();
    let t = s.truck();
    let shapes = s.get("/api/v1/archetypes");
    let shape =
        |id: &str| shapes.as_array().unwrap().iter().find(|a| a["id"] == id).unwrap()["geometry"].clone();
    let mut facts = t["vehicle"]["facts"].clone();
    let arrive =
        |f: &Value| s.post("/api/v1/jobs", &json!({"vehicle": f, "job": {"complaint": "", "bay": null}}));
    let mut arm = shape("semi_trailing_rear");
    arm["axle"] = json!("front");
    facts["axles"]["front"]["geometry"] = arm;
    let (status, p) = arrive(&facts);
    assert_eq!((status, fields(&p)), (422, vec!["vehicle.axles.front.geometry.layout".to_owned()]));
    facts["axles"]["front"]["geometry"] = shape("compact_strut_front");
    facts["axles"]["rear"]["geometry"] = shape("crossover_front");
    let (status, p) = arrive(&facts);
    assert_eq!((status, fields(&p)), (422, vec!["vehicle.axles.rear.geometry.axle".to_owned()]));
    facts["axles"]["rear"]["geometry"] = Value::Null;
    facts["car"]["axles"]["front"]["adjusters"] = json!([{"name": "Tie rod", "kind": "thread", "link": "tie", "pitch_mm": 1.5, "ends": 1, "turns": [-8, 8]}]);
    assert_eq!(arrive(&facts).0, 201);
}

#[test]
fn killed_in_the_middle_of_saving_nothing_confirmed_is_lost() {
    let mut s = Server::start();
    let t = s.truck();
    let job = t["job"]["id"].as_str().unwrap().to_owned();
    let plan = &t["plans"][0];
    let path = format!("/api/v1/plans/{}", plan["id"].as_str().unwrap());
    let mut version = plan["version"].as_i64().unwrap();
    let mut confirmed: Vec<String> = Vec::new();
    let mut height = None;
    for round in 0..3 {
        // Once four saves of this round are through the killer waits a moment: the one then running is cut off anywhere,
        // on a slow machine as on a fast one.
        let pid = s.child.id();
        let (through, enough) = std::sync::mpsc::channel();
        let killer = std::thread::spawn(move || {
            for _ in 0..4 {
                enough.recv_timeout(Duration::from_secs(60)).unwrap();
            }
            std::thread::sleep(Duration::from_millis(7 + 19 * round));
            std::process::Command::new("kill").args(["-9", &pid.to_string()]).status().unwrap();
        });
        let until = Instant::now() + Duration::from_secs(90);
        let mut i = 0.0;
        while Instant::now() < until {
            i += 1.0;
            let id = Uuid::new_v4().to_string();
            let body = json!({"id": id, "visit": "found", "axle": "front", "side": "left", "method": "camber-gauge", "entries": [{"name": "angle", "text": format!("-0.{}", i as u32 % 90 + 10)}], "unit": "mm"});
            let url = format!("{}/api/v1/jobs/{job}/readings", s.base);
            match s
                .agent
                .post(&url)
                .header("content-type", "application/json")
                .send(body.to_string().as_bytes())
            {
                Ok(r) if r.status() == 201 => {
                    confirmed.push(id);
                    // Nobody listens any more once there were four.
                    let _ = through.send(());
                }
                _ => break,
            }
            let mut d = plan["document"].clone();
            d["axles"]["front"]["height_change_mm"] = json!(i);
            let body = json!({"version": version, "name": "Saving", "document": d});
            match s
                .agent
                .put(format!("{}{path}", s.base))
                .header("content-type", "application/json")
                .send(body.to_string().as_bytes())
            {
                Ok(r) if r.status() == 200 => {
                    version += 1;
                    height = Some(i);
                }
                _ => break,
            }
        }
        killer.join().unwrap();
        s.die_and_rise();
        let t = s.get(&format!("/api/v1/jobs/{job}"));
        let kept: Vec<&str> =
            t["readings"].as_array().unwrap().iter().map(|r| r["id"].as_str().unwrap()).collect();
        assert!(confirmed.iter().all(|c| kept.contains(&c.as_str())), "a confirmed reading is gone");
        let p = &t["plans"][0];
        let (v, h) = (
            p["version"].as_i64().unwrap(),
            p["document"]["axles"]["front"]["height_change_mm"].as_f64().unwrap(),
        );
        // The save that was cut off is there whole or not at all.
        assert!(v == version || v == version + 1, "{v} {version}");
        if v == version {
            assert!(height.is_none_or(|x| x == h), "{h}");
        }
        version = v;
        height = Some(h);
    }
    assert!(confirmed.len() >= 12, "{} saves only", confirmed.len());
}

/// The file of a job evaluated with no server gives what the server gives, to the bit; damaged it is refused at its fields,
/// whole it comes back as a job that says the same.
#[test]
fn a_job_is_evaluated_without_a_server_to_the_bit_and_taken_in_again() {
    let s = Server::start();
    // A part of the shop's own is in the plan: it has to come along.
    let all = s.get("/api/v1/parts");
    let arm = all.as_array().unwrap().iter().find(|p| p["part"]["id"] == "offset-upper-arm").unwrap();
    let mut mine = arm["part"].clone();
    mine["id"] = json!("house-arm");
    mine["name"] = json!("House arm");
    mine["sizes"] = json!({"unit": "mm", "values": [9]});
    assert_eq!(s.put("/api/v1/parts/house-arm", &json!({"version": 0, "part": mine})).0, 200);
    let t = s.truck();
    let plan = &t["plans"][0];
    let mut doc = plan["document"].clone();
    doc["axles"]["front"]["fitted"] = json!(["house-arm@9"]);
    let path = format!("/api/v1/plans/{}", plan["id"].as_str().unwrap());
    assert_eq!(
        s.put(&path, &json!({"version": plan["version"], "name": plan["name"], "document": doc})).0,
        200
    );
    let sheet = s.get(&format!("{path}/sheet"));
    let bundle = s.get(&format!("/api/v1/jobs/{}/bundle.json", t["job"]["id"].as_str().unwrap()));
    let file = std::env::temp_dir().join(format!("job-{}.json", std::process::id()));
    let run = |bundle: &Value| {
        std::fs::write(&file, bundle.to_string()).unwrap();
        std::process::Command::new(env!("CARGO_BIN_EXE_bold-stance"))
            .args(["job", file.to_str().unwrap()])
            .output()
            .unwrap()
    };
    let out = run(&bundle);
    assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
    // What is published describes it: every job of the demo shop passes, and what is damaged below does not.
    let schema: Value =
        serde_json::from_str(include_str!("../../../../docs/schema/job.schema.json")).unwrap();
    let published = jsonschema::validator_for(&schema).unwrap();
    for j in s.get("/api/v1/jobs").as_array().unwrap() {
        let b = s.get(&format!("/api/v1/jobs/{}/bundle.json", j["job"]["id"].as_str().unwrap()));
        let odd: Vec<String> =
            published.iter_errors(&b).map(|e| format!("{}: {e}", e.instance_path())).collect();
        assert!(odd.is_empty(), "{}: {odd:?}", j["vehicle"]);
    }
    let told: Value = serde_json::from_slice(&out.stdout).unwrap();
    assert_eq!(told["sheet"], sheet);
    assert_eq!(told["plan"], sheet["answer"]);
    assert!(told["plan"]["axles"]["front"]["verdict"]["reached"].as_bool().unwrap());
    // Damaged: each at its place.
    for (at, v, field) in [
        ("/vehicle/wheelbase_mm", json!(3), "vehicle.wheelbase_mm"),
        ("/plans/0/document/limit_mm", json!(99), "plans.0.document.limit_mm"),
        ("/format", json!("bold-stance.job/9"), "format"),
        ("/readings/1/unit", json!("cubits"), "readings[1].unit"),
        ("/plans/0/document/axles/front/colour", json!(1), "plans[0].document.axles.front"),
    ] {
        let mut bad = bundle.clone();
        let (parent, key) = at.rsplit_once('/').unwrap();
        bad.pointer_mut(parent).unwrap()[key] = v;
        assert!(at == "/format" || !published.is_valid(&bad), "{at} passes the schema");
        let out = run(&bad);
        let said = String::from_utf8_lossy(&out.stderr).into_owned();
        assert_eq!(out.status.code(), Some(2), "{at}: {said}");
        assert!(said.contains(field), "{at}: {said}");
        let (status, p) = s.post("/api/v1/jobs/import", &bad);
        assert!([400, 422].contains(&status), "{at}: {status} {p}");
    }
    // Taken in again, where the shop's part has changed since: the job keeps its own.
    let mut changed = mine.clone();
    changed["cost"] = json!(999);
    assert_eq!(s.put("/api/v1/parts/house-arm", &json!({"version": 1, "part": changed})).0, 200);
    let (status, back) = s.post("/api/v1/jobs/import", &bundle);
    assert_eq!(status, 201, "{back}");
    assert_eq!(back["plans"][0]["document"]["axles"]["front"]["fitted"], json!(["house-arm-2@9"]));
    assert_eq!(back["readings"].as_array().unwrap().len(), t["readings"].as_array().unwrap().len());
    let again = s.get(&format!("/api/v1/plans/{}/sheet", back["plans"][0]["id"].as_str().unwrap()));
    let angles = |v: &Value| v["answer"]["axles"]["front"]["left"]["set"].clone();
    assert_eq!(angles(&again), angles(&sheet));
    let _ = std::fs::remove_file(file);
}
