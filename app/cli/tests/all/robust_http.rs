//! What must not be lost, stored twice or let through: keys of writes, gates, tables that contradict themselves, text
//! that no database keeps.

use crate::server;
use serde_json::{Value, json};
use server::{Server, fields};
use uuid::Uuid;

impl Server {
    /// A write with a key.
    fn keyed(&self, method: &str, path: &str, key: Uuid, v: &Value) -> (u16, Value) {
        let url = format!("{}{path}", self.base);
        let body = v.to_string();
        let r = match method {
            "PUT" => self.agent.put(&url),
            _ => self.agent.post(&url),
        };
        let mut r = r
            .header("content-type", "application/json")
            .header("idempotency-key", key.to_string())
            .send(body.as_bytes())
            .unwrap();
        let text = r.body_mut().read_to_string().unwrap();
        (r.status().as_u16(), serde_json::from_str(&text).unwrap_or(Value::Null))
    }
}

fn id(v: &Value) -> String {
    v["id"].as_str().unwrap().to_owned()
}

#[test]
fn a_write_sent_again_gets_the_first_answer_and_is_stored_once() {
    let s = Server::start();
    let t = s.truck();
    let job = id(&t["job"]);
    let plans = t["plans"].as_array().unwrap().len();
    let body = json!({"name": "Once", "document": t["plans"][0]["document"]});
    let key = Uuid::new_v4();
    let path = format!("/api/v1/jobs/{job}/plans");
    let (status, first) = s.keyed("POST", &path, key, &body);
    assert_eq!(status, 201);
    let (status, again) = s.keyed("POST", &path, key, &body);
    assert_eq!((status, &again), (201, &first));
    let now = s.get(&format!("/api/v1/jobs/{job}"));
    assert_eq!(now["plans"].as_array().unwrap().len(), plans + 1);
    // The retry of one's own save is not "saved on another screen first".
    let key = Uuid::new_v4();
    let save = json!({"version": first["version"], "name": "Once more", "document": first["document"]});
    let path = format!("/api/v1/plans/{}", id(&first));
    let (a, saved) = s.keyed("PUT", &path, key, &save);
    let (b, retried) = s.keyed("PUT", &path, key, &save);
    assert_eq!((a, b), (200, 200));
    assert_eq!(saved, retried);
    // Without the key it is stale; the key of another write is refused; a key that is none is named.
    assert_eq!(s.put(&path, &save).0, 409);
    let (status, p) = s.keyed("PUT", &path, key, &body);
    assert_eq!(status, 400, "another body does not even parse: {p}");
    let other = json!({"version": 2, "name": "Other", "document": first["document"]});
    let (status, p) = s.keyed("PUT", &path, key, &other);
    assert_eq!((status, fields(&p)), (422, vec!["idempotency-key".to_owned()]));
}

#[test]
fn arrivals_and_tread_lines_sent_twice_are_there_once() {
    let s = Server::start();
    let t = s.truck();
    let before = s.get("/api/v1/jobs").as_array().unwrap().len();
    let new = json!({"vehicle": t["vehicle"]["facts"], "job": {"complaint": "twice"}});
    let key = Uuid::new_v4();
    let (a, first) = s.keyed("POST", "/api/v1/jobs", key, &new);
    let (b, again) = s.keyed("POST", "/api/v1/jobs", key, &new);
    assert_eq!((a, b), (201, 201));
    assert_eq!(first["job"]["id"], again["job"]["id"]);
    assert_eq!(s.get("/api/v1/jobs").as_array().unwrap().len(), before + 1);
    let path = format!("/api/v1/jobs/{}/tread", id(&first["job"]));
    let line = json!({"mark": "A1", "entry": {"odometer_km": 100.0, "place": "left_front", "depths_mm": [7.0, 7.2, 7.1]}});
    let key = Uuid::new_v4();
    let (a, first) = s.keyed("POST", &path, key, &line);
    assert_eq!(a, 201, "{first}");
    let (_, again) = s.keyed("POST", &path, key, &line);
    assert_eq!(again["tyres"][0]["lines"].as_array().unwrap().len(), 1);
}

#[test]
fn two_tablets_at_once_with_one_id_or_one_key_store_one_thing() {
    let s = Server::start();
    let t = s.truck();
    let path = format!("/api/v1/jobs/{}/readings", id(&t["job"]));
    let n = t["readings"].as_array().unwrap().len();
    let reading = |id: Uuid, text: &str| {
        json!({"id": id, "visit": "found", "axle": "front", "side": "left", "method": "height-hub",
            "entries": [{"name": "value", "text": text}], "unit": "mm"})
    };
    let same = Uuid::new_v4();
    let answers: Vec<u16> = std::thread::scope(|x| {
        let all: Vec<_> = (0..12)
            .map(|i| {
                let (s, path, body) = (&s, &path, reading(same, &format!("{}", 500 + i % 3)));
                x.spawn(move || s.post(path, &body).0)
            })
            .collect();
        all.into_iter().map(|h| h.join().unwrap()).collect()
    });
    // One text is kept; the same text again is answered as kept, another text is refused and never lost in silence.
    let now = s.get(&format!("/api/v1/jobs/{}", id(&t["job"])));
    let kept: Vec<&Value> =
        now["readings"].as_array().unwrap().iter().filter(|r| r["id"] == json!(same)).collect();
    assert_eq!(kept.len(), 1);
    let text = kept[0]["raw"][0]["text"].as_str().unwrap();
    for (i, a) in answers.iter().enumerate() {
        let mine = format!("{}", 500 + i % 3);
        assert_eq!(*a, if mine == text { 201 } else { 422 }, "{mine} against {text}");
    }
    // Corrections made at once stand one behind the other: each replaces another reading.
    std::thread::scope(|x| {
        for i in 0..10 {
            let (s, path) = (&s, &path);
            x.spawn(move || {
                assert_eq!(s.post(path, &reading(Uuid::new_v4(), &format!("{}", 510 + i))).0, 201)
            });
        }
    });
    let now = s.get(&format!("/api/v1/jobs/{}", id(&t["job"])));
    let all = now["readings"].as_array().unwrap();
    assert_eq!(all.len(), n + 11);
    let mut replaced: Vec<&str> = all
        .iter()
        .filter(|r| {
            r["quantity"] == "height" && r["axle"] == "front" && r["side"] == "left" && r["visit"] == "found"
        })
        .filter_map(|r| r["replaces"].as_str())
        .collect();
    let count = replaced.len();
    replaced.sort_unstable();
    replaced.dedup();
    assert_eq!(replaced.len(), count, "no two stand for the same reading");
}

/// The demo truck with everything of the sheet done up to a gate.
fn at_gate(s: &Server) -> (Value, String) {
    let t = s.truck();
    let plan = id(&t["plans"][0]);
    let path = format!("/api/v1/plans/{plan}/done");
    for step in ["support", "height"] {
        let (status, p) = s.put(&path, &json!({"step": step, "done": true}));
        assert_eq!(status, 200, "{step}: {p}");
    }
    (t, path)
}

fn read(s: &Server, job: &str, visit: &str, method: &str, entry: &str, side: &str, text: &str) {
    let body = json!({"id": Uuid::new_v4(), "visit": visit, "axle": "front", "side": side, "method": method,
        "entries": [{"name": entry, "text": text}], "unit": "mm"});
    let (status, p) = s.post(&format!("/api/v1/jobs/{job}/readings"), &body);
    assert_eq!(status, 201, "{p}");
}

#[test]
fn a_gate_stays_shut_without_its_readings_and_asks_why_when_they_are_off() {
    let s = Server::start();
    let (t, path) = at_gate(&s);
    let job = id(&t["job"]);
    let signed = |reason: Option<&str>, name: Option<&str>| {
        s.put(&path, &json!({"step": "settled", "done": true, "reason": reason, "signed": name}))
    };
    let pass = |reason: Option<&str>| signed(reason, Some("Specialist A"));
    let (status, p) = pass(None);
    assert_eq!((status, fields(&p)), (422, vec!["step".to_owned()]));
    let wrong = p["problems"][0]["wrong"].as_str().unwrap();
    assert!(wrong.contains("Roll 3 m") && wrong.contains("left front height not read"), "{wrong}");
    for tick in ["roll", "bounce"] {
        assert_eq!(s.put(&path, &json!({"step": format!("settled/{tick}"), "done": true})).0, 200);
    }
    // 25 mm off plan on one side, and 22 mm apart.
    let want = t["base"]["axles"]["front"]["read"]["left"]["height_mm"].as_f64().unwrap() + 65.0;
    read(&s, &job, "settled", "height-hub", "value", "left", &format!("{:.0}", want - 25.0));
    read(&s, &job, "settled", "height-hub", "value", "right", &format!("{:.0}", want - 3.0));
    let (status, p) = pass(None);
    assert_eq!((status, fields(&p)), (422, vec!["reason".to_owned()]));
    assert_eq!(fields(&pass(Some(" x ")).1), ["reason"]);
    // Somebody stands for it.
    assert_eq!(fields(&signed(Some("spring comes tomorrow"), None).1), ["signed"]);
    let (status, now) = pass(Some("spring comes tomorrow"));
    assert_eq!(status, 200);
    let kept = now["done"].as_array().unwrap().iter().find(|d| d["step"] == "settled").unwrap();
    assert_eq!(kept["record"]["reason"], "spring comes tomorrow");
    assert_eq!(kept["record"]["signed"], "Specialist A");
    let off: Vec<&str> =
        kept["record"]["off"].as_array().unwrap().iter().map(|f| f["about"].as_str().unwrap()).collect();
    assert!(off.contains(&"height") && off.contains(&"height_apart"), "{off:?}");
}

#[test]
fn after_the_setting_every_act_is_kept_once_over_a_version_and_refused_at_its_field() {
    let s = Server::start();
    let t = s.truck();
    let job = id(&t["job"]);
    let plan = id(&t["plans"][0]);
    let at = format!("/api/v1/jobs/{job}/aftercare");
    let version = |t: &Value| t["job"]["version"].as_i64().unwrap();
    let v = version(&t);
    let act = |v: i64, what: Value| s.post(&at, &json!({"version": v, "what": what}));
    for (what, field) in [
        (json!({"act": "came_back", "driven_km": -3}), "driven_km"),
        (json!({"act": "look_next", "on": "2001-01-01"}), "on"),
        (json!({"act": "look_next", "after_km": 0}), "after_km"),
        (json!({"act": "close", "signed": " "}), "signed"),
        (json!({"act": "reopen"}), "act"),
        (json!({"act": "trimmed", "axle": "front", "side": "left"}), "side"),
        (
            json!({"act": "turns_by", "axle": "rear", "turned": {"kind": "collar", "pitch_mm": 99}}),
            "turned.pitch_mm",
        ),
    ] {
        let (status, p) = act(v, what.clone());
        assert_eq!((status, fields(&p)), (422, vec![field.to_owned()]), "{what}");
    }
    assert_eq!(act(v, json!({"act": "sold"})).0, 400);
    let (status, now) = act(v, json!({"act": "look_next", "on": null, "after_km": 800}));
    assert_eq!((status, &now["job"]["aftercare"]["next_look"]["after_km"]), (200, &json!(800.0)));
    // Another tablet was first.
    assert_eq!(act(v, json!({"act": "came_back"})).0, 409);
    let (status, now) = act(version(&now), json!({"act": "came_back", "driven_km": 820}));
    assert_eq!(
        (status, &now["job"]["stage"], &now["job"]["aftercare"]["next_look"]),
        (200, &json!("return"), &json!(null))
    );
    let visit = now["visits"].as_array().unwrap().iter().find(|v| v["kind"] == "returned").cloned().unwrap();
    assert_eq!(visit["answers"], json!({}));
    let back = s.get(&format!("/api/v1/plans/{plan}/sheet"))["returned"].clone();
    assert_eq!((&back["time"], &back["driven_km"]), (&json!(1), &json!(820.0)));
    assert_eq!(back["corners"].as_array().unwrap().len(), 4);
    // Its page says what is not promised, and that nobody stands for it.
    let page = s.get(&format!("/api/v1/plans/{plan}/handover"));
    assert_eq!(page["signed"], json!(null));
    assert!(
        page["not_read"].as_array().unwrap().iter().any(|t| t.as_str().unwrap().starts_with("Brakes")),
        "{page}"
    );
    // The job's file carries it, and a shop that proved nothing knows nothing.
    let file = s.get(&format!("/api/v1/jobs/{job}/bundle.json"));
    assert_eq!(file["aftercare"]["returns"][0]["driven_km"], 820.0);
    assert_eq!(s.get("/api/v1/shop/memory")["cars"], 0);
    let (status, closed) = act(version(&now), json!({"act": "close", "signed": "Specialist A"}));
    assert_eq!((status, &closed["job"]["bay"]), (200, &json!(null)));
    let open = s.get("/api/v1/jobs");
    assert!(open.as_array().unwrap().iter().all(|j| j["job"]["id"] != job.as_str()));
    assert_eq!(s.get("/api/v1/jobs?closed=true").as_array().unwrap().len(), 1);
}

#[test]
fn a_step_that_is_not_on_the_sheet_moves_nothing() {
    let s = Server::start();
    let jobs = s.get("/api/v1/jobs");
    let early = jobs.as_array().unwrap().iter().find(|j| j["job"]["stage"] == "plan");
    let t = match early {
        Some(j) => s.get(&format!("/api/v1/jobs/{}", j["job"]["id"].as_str().unwrap())),
        None => s.truck(),
    };
    let path = format!("/api/v1/plans/{}/done", id(&t["plans"][0]));
    for (step, says) in [
        ("made-up", 400),
        ("support/Nothing", 400),
        ("settled/Roll 9 m", 400),
        ("", 400),
        ("fit-nothing", 422),
        ("rear-toe", 422),
        ("support/roll", 422),
    ] {
        let (status, p) = s.put(&path, &json!({"step": step, "done": true}));
        assert_eq!((status, fields(&p)), (says, vec!["step".to_owned()]), "{step}");
    }
    assert_eq!(s.put(&path, &json!({"step": "support", "done": false})).0, 422, "it was not done");
    let now = s.get(&format!("/api/v1/jobs/{}", id(&t["job"])));
    assert_eq!(now["job"]["stage"], t["job"]["stage"]);
}

#[test]
fn what_was_done_is_kept_as_it_was_ordered() {
    let s = Server::start();
    let (t, path) = at_gate(&s);
    let height = |t: &Value| {
        let d = t["done"].as_array().unwrap().iter().find(|d| d["step"] == "height").unwrap().clone();
        d["record"]["detail"].as_str().unwrap().to_owned()
    };
    let job = format!("/api/v1/jobs/{}", id(&t["job"]));
    let said = height(&s.get(&job));
    // The plan is changed after the work.
    let mut doc = t["plans"][0]["document"].clone();
    doc["axles"]["front"]["height_change_mm"] = json!(40.0);
    let plan = format!("/api/v1/plans/{}", id(&t["plans"][0]));
    assert_eq!(
        s.put(&plan, &json!({"version": t["plans"][0]["version"], "name": "P", "document": doc})).0,
        200
    );
    assert_eq!(height(&s.get(&job)), said);
    // Marked again it still says what it said.
    assert_eq!(s.put(&path, &json!({"step": "height", "done": true})).0, 200);
    assert_eq!(height(&s.get(&job)), said);
}

#[test]
fn the_days_answers_hold_at_a_gate_and_its_ticks_are_answers() {
    let s = Server::start();
    let (t, path) = at_gate(&s);
    let job = id(&t["job"]);
    let found = t["visits"].as_array().unwrap().iter().find(|v| v["kind"] == "found").unwrap();
    let answers = json!({"floor_front": "0.6", "steering": "yes", "settled": "yes"});
    let (status, p) = s.put(
        &format!("/api/v1/jobs/{job}/visits/found"),
        &json!({"version": found["version"], "answers": answers}),
    );
    assert_eq!(status, 200, "{p}");
    let typed = json!({"id": Uuid::new_v4(), "visit": "reswept", "axle": "front", "side": "left",
        "method": "camber-gap", "entries": [{"name": "top-gap", "text": "12"}, {"name": "span", "text": "432"}], "unit": "mm"});
    let (status, p) = s.post(&format!("/api/v1/jobs/{job}/readings/preview"), &typed);
    assert_eq!(status, 200, "{p}");
    let floor =
        p["taken"]["corrections"].as_array().unwrap().iter().find(|c| c["kind"] == "floor_slope").unwrap();
    assert!(
        (floor["amount"].as_f64().unwrap().abs() - 0.6).abs() < 1e-9,
        "the same gap reads the same at the gate: {floor}"
    );
    // What work changes is asked again; a tick at the gate is that answer.
    for tick in ["roll", "bounce"] {
        assert_eq!(s.put(&path, &json!({"step": format!("settled/{tick}"), "done": true})).0, 200);
    }
    read(&s, &job, "settled", "height-hub", "value", "left", "563");
    let now = s.get(&format!("/api/v1/jobs/{job}"));
    let gate = now["visits"].as_array().unwrap().iter().find(|v| v["kind"] == "settled").unwrap();
    assert_eq!(gate["holding"]["floor_front"], "0.6");
    assert_eq!(gate["holding"]["settled"], "yes");
    assert!(gate["holding"]["steering"].is_null());
}

#[test]
fn tables_that_contradict_themselves_or_the_clock_are_refused_at_their_cell() {
    let s = Server::start();
    let job = id(&s.truck()["job"]);
    let send = |rows: &str| {
        let text = format!("axle,side,method,typed,value,sigma,taken_at\n{rows}\n");
        let url = format!("{}/api/v1/jobs/{job}/readings.csv", s.base);
        let mut r = s.agent.post(&url).header("content-type", "text/csv").send(text.as_bytes()).unwrap();
        let body: Value = serde_json::from_str(&r.body_mut().read_to_string().unwrap()).unwrap();
        (r.status().as_u16(), body)
    };
    let ahead = "2099-01-01T00:00:00Z";
    for (row, field) in [
        ("front,left,camber-gauge,angle=-0.3,1000,0.1,", "line 2, value"),
        ("front,left,height-hub,value=498,100000,2,", "line 2, value"),
        ("front,left,camber-gauge,angle=-0.3,0.3,0.1,", "line 2, value"),
        (&format!("front,left,camber-gauge,angle=-0.3,,,{ahead}"), "line 2, taken_at"),
        ("front,left,camber-gauge,angle=-0.3,,,0001-01-01T00:00:00Z", "line 2, taken_at"),
    ] {
        let (status, p) = send(row);
        assert_eq!((status, fields(&p)), (422, vec![field.to_owned()]), "{row}: {p}");
    }
    let (status, p) = send("front,left,camber-gauge,angle=-0.3,-0.3,0.1,2026-01-01T00:00:00Z");
    assert_eq!(status, 200, "{p}");
}

#[test]
fn a_zero_in_a_text_is_refused_at_its_field() {
    let s = Server::start();
    let t = s.truck();
    let job = id(&t["job"]);
    let mut facts = t["vehicle"]["facts"].clone();
    facts["name"] = json!("Quarry\u{0}pickup");
    let save = json!({"version": t["vehicle"]["version"], "facts": facts});
    let (status, p) = s.put(&format!("/api/v1/jobs/{job}/vehicle"), &save);
    assert_eq!((status, fields(&p)), (422, vec!["facts.name".to_owned()]));
    let new = json!({"vehicle": t["vehicle"]["facts"], "job": {"complaint": "a\u{0}b"}});
    let (status, p) = s.post("/api/v1/jobs", &new);
    assert_eq!((status, fields(&p)), (422, vec!["job.complaint".to_owned()]));
    let plan = json!({"name": "x\u{0}", "document": t["plans"][0]["document"]});
    let (status, p) = s.post(&format!("/api/v1/jobs/{job}/plans"), &plan);
    assert_eq!((status, fields(&p)), (422, vec!["name".to_owned()]));
    assert_eq!(s.send("GET", "/api/v1/jobs?find=a%00b", None).0, 422);
}

/// Two and twenty at once over one plan: one is kept, the others are told both versions, and none is lost in silence. Tickets
/// they open have numbers of their own; the same step closed by two is kept once, and the second is asked about.
#[test]
fn two_and_twenty_writers_on_one_job() {
    let s = Server::start();
    let t = s.truck();
    let plan = &t["plans"][0];
    let path = format!("/api/v1/plans/{}", id(plan));
    let mut version = plan["version"].as_i64().unwrap();
    for round in 0..4 {
        let answers: Vec<(u16, Value)> = std::thread::scope(|x| {
            let all: Vec<_> = (0..22)
                .map(|i| {
                    let name = format!("Round {round}, writer {i}");
                    let body = json!({"version": version, "name": name, "document": plan["document"]});
                    let (s, path) = (&s, &path);
                    x.spawn(move || s.put(path, &body))
                })
                .collect();
            all.into_iter().map(|h| h.join().unwrap()).collect()
        });
        let kept: Vec<&Value> = answers.iter().filter(|(a, _)| *a == 200).map(|(_, v)| v).collect();
        assert_eq!(kept.len(), 1, "{:?}", answers.iter().map(|(a, _)| a).collect::<Vec<_>>());
        for (status, p) in answers.iter().filter(|(a, _)| *a != 200) {
            assert_eq!(*status, 409, "{p}");
            let detail = p["detail"].as_str().unwrap();
            let (yours, now) = (version.to_string(), (version + 1).to_string());
            assert!(detail.contains(&yours) && detail.contains(&now), "{detail}");
        }
        version += 1;
        let now = s.get(&format!("/api/v1/jobs/{}", id(&t["job"])));
        let p = now["plans"].as_array().unwrap().iter().find(|p| p["id"] == plan["id"]).unwrap();
        assert_eq!((&p["name"], p["version"].as_i64()), (&kept[0]["name"], Some(version)));
    }
    let new = json!({"vehicle": t["vehicle"]["facts"], "job": {"complaint": "together"}});
    let tickets: Vec<i64> = std::thread::scope(|x| {
        let all: Vec<_> = (0..22)
            .map(|_| {
                let (s, new) = (&s, &new);
                x.spawn(move || s.post("/api/v1/jobs", new))
            })
            .collect();
        all.into_iter()
            .map(|h| {
                let (status, v) = h.join().unwrap();
                assert_eq!(status, 201, "{v}");
                v["job"]["ticket"].as_i64().unwrap()
            })
            .collect()
    });
    let apart: std::collections::BTreeSet<i64> = tickets.iter().copied().collect();
    assert_eq!(apart.len(), 22);
}

#[test]
fn what_the_server_counts_is_told_to_this_machine() {
    let s = Server::start();
    s.get("/api/v1/jobs");
    let text = |path: &str| {
        s.agent.get(format!("{}{path}", s.base)).call().unwrap().body_mut().read_to_string().unwrap()
    };
    assert_eq!(text("/healthz"), "ok");
    let told = text("/metrics");
    assert!(told.contains(r#"operation="listJobs",status="200""#), "{told}");
    assert!(told.contains("bold_stance_listeners 0"));
    let far =
        s.agent.get(format!("{}/metrics", s.base)).header("x-forwarded-for", "192.0.2.7").call().unwrap();
    assert_eq!(far.status().as_u16(), 404);
}
