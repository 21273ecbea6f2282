//! The plan that is the one to set, what a shop types once, rule books, and the search over a car, over HTTP on a real
//! PostgreSQL.

use crate::server;
use serde_json::{Value, json};
use server::{Server, fields};

impl Server {
    /// Raw lines of a search.
    fn lines(&self, path: &str, body: &Value) -> String {
        let url = format!("{}{path}", self.base);
        let body = body.to_string();
        let mut r =
            self.agent.post(&url).header("content-type", "application/json").send(body.as_bytes()).unwrap();
        assert_eq!(r.status().as_u16(), 200);
        r.body_mut().read_to_string().unwrap()
    }
}

fn id(v: &Value) -> String {
    v.as_str().unwrap().to_owned()
}

#[test]
fn one_plan_is_the_one_to_set_and_everything_speaks_of_it() {
    let s = Server::start();
    let t = s.truck();
    let job = id(&t["job"]["id"]);
    let plans = format!("/api/v1/jobs/{job}/plans");
    let first = t["plans"][0].clone();
    let (name, gain) =
        (first["name"].clone(), first["document"]["axles"]["front"]["height_change_mm"].clone());
    let (_, second) = s.post(
        &plans,
        &json!({"name": "Lift 40", "document": {
        "aim": first["document"]["aim"], "limit_mm": 4.0,
        "axles": {"front": {"height_change_mm": 40.0}, "rear": {"height_change_mm": 25.0}}}}),
    );
    // The oldest until one is chosen.
    let now = || s.get(&format!("/api/v1/jobs/{job}"));
    assert_eq!(now()["job"]["plan_id"], first["id"]);
    let line = || {
        let list = s.get("/api/v1/jobs");
        list.as_array().unwrap().iter().find(|l| l["job"]["id"] == json!(job)).unwrap().clone()
    };
    assert_eq!((&line()["plan"], line()["height_change_mm"].as_f64()), (&name, gain.as_f64()));
    let choose = |version: &Value, plan: &Value| {
        s.put(&format!("/api/v1/jobs/{job}/plan"), &json!({"version": version, "plan_id": plan}))
    };
    let version = now()["job"]["version"].clone();
    let (status, t) = choose(&version, &second["id"]);
    assert_eq!((status, &t["job"]["plan_id"]), (200, &second["id"]), "{t}");
    assert_eq!(t["tyres"]["limit_mm"], json!(4.0), "the forecast speaks of it");
    let l = line();
    assert_eq!(l["plan"], json!("Lift 40"));
    assert_eq!(
        (l["height_change_mm"].as_f64(), l["rear_height_change_mm"].as_f64()),
        (Some(40.0), Some(25.0))
    );
    // The other tablet chose meanwhile: both are told; a plan of another job is none of this one.
    let (status, p) = choose(&version, &first["id"]);
    assert_eq!(status, 409, "{p}");
    let other = s.get("/api/v1/jobs")[1]["job"]["id"].clone();
    let (_, theirs) = s.post(&format!("/api/v1/jobs/{}/plans", id(&other)), &json!({"name": "Theirs"}));
    assert_eq!(choose(&now()["job"]["version"], &theirs["id"]).0, 404);
    // In its file and back.
    let file = s.get(&format!("/api/v1/jobs/{job}/bundle.json"));
    assert_eq!(file["chosen_plan"], second["id"]);
    let (status, back) = s.post("/api/v1/jobs/import", &file);
    assert_eq!(status, 201, "{back}");
    let chosen =
        back["plans"].as_array().unwrap().iter().find(|p| p["id"] == back["job"]["plan_id"]).unwrap();
    assert_eq!(chosen["name"], json!("Lift 40"));
    // Taken away, the oldest is the one again.
    assert_eq!(s.send("DELETE", &format!("/api/v1/plans/{}", id(&second["id"])), None).0, 204);
    assert_eq!(now()["job"]["plan_id"], first["id"]);
}

#[test]
fn a_shop_types_its_rate_and_its_rule_books_once() {
    let s = Server::start();
    let shop = s.get("/api/v1/shop");
    assert_eq!(shop["settings"]["labour_rate"], json!(90.0));
    let put = |version: &Value, settings: Value| {
        s.put("/api/v1/shop/settings", &json!({"version": version, "settings": settings}))
    };
    let book = json!({"name": "Club street", "forbid": ["cutting", "aftermarket_arms"]});
    let (status, p) =
        put(&shop["settings_version"], json!({"labour_rate": -4.0, "rule_books": [book, book]}));
    assert_eq!(status, 422);
    assert_eq!(fields(&p), ["settings.labour_rate", "settings.rule_books.1.name"]);
    let good = json!({"labour_rate": 72.5, "currency": "cr", "figures": "cost", "rule_books": [book]});
    let (status, saved) = put(&shop["settings_version"], good.clone());
    assert_eq!(status, 200, "{saved}");
    let shop2 = s.get("/api/v1/shop");
    assert_eq!(shop2["settings"], good);
    assert_eq!(put(&shop["settings_version"], good).0, 409, "somebody saved first");
}

#[test]
fn what_a_class_forbids_is_neither_offered_nor_found_and_told_of_where_it_is_fitted() {
    let s = Server::start();
    let t = s.truck();
    let (base, aim) = (t["base"].clone(), s.get("/api/v1/shop")["aims"][0].clone());
    let ask = |rules: Value, fitted: Value| {
        let mut base = base.clone();
        base["class_rules"] = rules;
        let plan = json!({"aim": aim, "limit_mm": 3.0,
            "axles": {"front": {"height_change_mm": 40.0, "fitted": fitted}, "rear": {}}});
        let (status, a) = s.post("/api/v1/predict", &json!({"base": base, "plan": plan}));
        assert_eq!(status, 200, "{a}");
        a
    };
    let offered = |a: &Value| -> Vec<String> {
        let list = a["axles"]["front"]["candidates"].as_array().unwrap();
        list.iter().map(|c| id(&c["part"]["id"])).collect()
    };
    let free = offered(&ask(Value::Null, json!([])));
    assert!(free.iter().any(|p| p.starts_with("offset-upper-arm")), "{free:?}");
    let rules = json!({"name": "Club street", "forbid": ["aftermarket_arms"]});
    let held = offered(&ask(rules.clone(), json!([])));
    assert!(!held.is_empty() && !held.iter().any(|p| p.contains("upper-arm")), "{held:?}");
    // Fitted all the same: said, and the car is not on aim with it.
    let a = ask(rules.clone(), json!(["offset-upper-arm"]));
    let misfits = a["axles"]["front"]["misfits"].to_string();
    assert!(misfits.contains("Club street") && misfits.contains("factory arms"), "{misfits}");
    assert_eq!(a["verdict"]["reached"], json!(false), "{}", a["verdict"]);
    // The search over the car keeps to it too.
    let mut base2 = base.clone();
    base2["class_rules"] = rules;
    let wish =
        json!({"band_mm": {"front": {"low_mm": 30.0, "high_mm": 40.0}}, "filters": {"labour_rate": 80.0}});
    let body = json!({"car": {"base": base2, "plan": {"aim": aim, "limit_mm": 3.0}}, "wish": wish});
    let text = s.lines("/api/v1/plans/search-car", &body);
    let last: Value = serde_json::from_str(text.trim().lines().last().unwrap()).unwrap();
    let sets = last["result"]["sets"].as_array().unwrap();
    assert!(!sets.is_empty() && !last["result"].to_string().contains("upper-arm"), "{last}");
    assert!(text.lines().next().unwrap().contains("progress"));
    // A band the wrong way round is told at its field.
    let mut turned = body;
    turned["wish"]["band_mm"]["front"] = json!({"low_mm": 40.0, "high_mm": 30.0});
    let text = s.lines("/api/v1/plans/search-car", &turned);
    let last: Value = serde_json::from_str(text.trim().lines().last().unwrap()).unwrap();
    assert_eq!(last["problems"][0]["field"], json!("band_mm.front.high_mm"));
}
