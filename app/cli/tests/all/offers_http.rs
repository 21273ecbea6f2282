//! What one shop hands to another as a file, and what is kept of one customer over several tickets.

use crate::server::{Server, fields};
use serde_json::{Value, json};
use std::io::{Cursor, Read};

impl Server {
    fn ask(&self, method: &str, path: &str, body: Option<&Value>) -> (u16, Value) {
        self.send(method, path, body.map(|b| b.to_string().into_bytes()).as_deref())
    }
}

/// A file a shop handed over, with a car that moved its cam bolt twice as far as sold.
fn handed_over(s: &Server) -> Value {
    let mut o = s.get("/api/v1/shop/offer.json");
    let trial = json!({"part": "strut-cam-bolt", "adjuster": "Cam bolt", "axle": "front", "side": "left", "ln_times": 0.6, "sd": 0.05});
    o["cars"] = json!([{"at": "2026-05-04T10:00:00Z", "trials": [trial]}]);
    o
}

#[test]
fn a_file_of_another_shop_brings_parts_aims_and_what_its_cars_taught_and_is_put_out_again() {
    let (there, here) = (Server::start(), Server::start());
    let (status, _) = there.ask("GET", "/api/v1/parts", None);
    assert_eq!(status, 200);
    // Its own part and aim, made of shipped ones under names of its own.
    let parts = there.get("/api/v1/parts?limit=500");
    let mut part =
        parts.as_array().unwrap().iter().find(|p| p["part"]["id"] == "strut-cam-bolt").unwrap()["part"]
            .clone();
    part["id"] = json!("larkspur-cam-bolt");
    part["name"] = json!("Cam bolt, turned here");
    let (status, v) = there.ask(
        "PUT",
        "/api/v1/parts/larkspur-cam-bolt",
        Some(&json!({"version": 0, "part": part, "retired": false})),
    );
    assert_eq!(status, 200, "{v}");
    let mut aim = there.get("/api/v1/aims")[0]["aim"].clone();
    aim["id"] = json!("larkspur-track");
    aim["name"] = json!("Track day");
    let (status, v) =
        there.ask("PUT", "/api/v1/aims/larkspur-track", Some(&json!({"version": 0, "aim": aim})));
    assert_eq!(status, 200, "{v}");
    let o = handed_over(&there);
    assert_eq!((o["parts"].as_array().unwrap().len(), o["aims"].as_array().unwrap().len()), (1, 1));
    let text = o.to_string();
    for job in there.get("/api/v1/jobs").as_array().unwrap() {
        let words = job["job"]["complaint"].as_str().unwrap();
        assert!(words.is_empty() || !text.contains(words), "a customer's words went along");
    }
    let before = here.get("/api/v1/shop/memory");
    let (status, t) = here.ask("POST", "/api/v1/shop/offer", Some(&o));
    assert_eq!(status, 200, "{t}");
    assert_eq!(
        (&t["parts"], &t["aims"], &t["cars"], &t["kept"]),
        (&json!(1), &json!(1), &json!(1), &json!([]))
    );
    let after = here.get("/api/v1/shop/memory");
    assert_eq!(
        (&after["cars"], &after["handed"]),
        (&before["cars"], &json!(1)),
        "none of its own was proved"
    );
    let bolt = |m: &Value| {
        m["parts"].as_array().unwrap().iter().find(|r| r["of"]["part"] == "strut-cam-bolt").cloned()
    };
    assert!(bolt(&after).unwrap()["of"]["cars"].as_array().unwrap().iter().any(|c| c["ticket"] == 0));
    // Once more: nothing is new, and its cars are counted once. What was changed here meanwhile stays.
    let mine = here.get("/api/v1/parts?limit=500");
    let mine =
        mine.as_array().unwrap().iter().find(|p| p["part"]["id"] == "larkspur-cam-bolt").unwrap().clone();
    part["cost"] = json!(77.0);
    let (status, v) = here.ask(
        "PUT",
        "/api/v1/parts/larkspur-cam-bolt",
        Some(&json!({"version": mine["version"], "part": part, "retired": false})),
    );
    assert_eq!(status, 200, "{v}");
    let (_, t) = here.ask("POST", "/api/v1/shop/offer", Some(&o));
    assert_eq!((&t["parts"], &t["kept"]), (&json!(0), &json!(["Cam bolt, turned here"])));
    assert_eq!(here.get("/api/v1/shop/memory")["handed"], json!(1));
    let lenders = here.get("/api/v1/shop/lenders");
    assert_eq!((lenders.as_array().unwrap().len(), &lenders[0]["cars"]), (1, &json!(1)));
    let origin = lenders[0]["origin"].as_str().unwrap();
    assert_eq!(here.ask("DELETE", &format!("/api/v1/shop/lenders/{origin}"), None).0, 204);
    assert_eq!(here.ask("DELETE", &format!("/api/v1/shop/lenders/{origin}"), None).0, 404);
    assert_eq!(here.get("/api/v1/shop/memory")["handed"], json!(0));
    // Its own file teaches it nothing a second time.
    let (_, t) = there.ask("POST", "/api/v1/shop/offer", Some(&o));
    assert_eq!(t["cars"], json!(0));
}

#[test]
fn what_another_shop_taught_changes_no_car_that_is_worked_on() {
    let s = Server::start();
    let t = s.truck();
    let (job, plan) = (t["job"]["id"].as_str().unwrap(), t["plans"][0]["id"].as_str().unwrap());
    let known = |job: &str| s.get(&format!("/api/v1/jobs/{job}/bundle.json"))["memory"].clone();
    let (status, v) = s.put(&format!("/api/v1/plans/{plan}/done"), &json!({"step": "support", "done": true}));
    assert_eq!(status, 200, "{v}");
    let before = known(job);
    let other = s.get("/api/v1/jobs");
    let other =
        other.as_array().unwrap().iter().find(|j| j["job"]["ticket"] == 423).unwrap()["job"]["id"].clone();
    let other = other.as_str().unwrap();
    let mut o = handed_over(&s);
    o["origin"] = json!("another");
    assert_eq!(s.post("/api/v1/shop/offer", &o).0, 200);
    assert_eq!(known(job), before, "its sheet goes on with what was known when work began");
    assert_eq!(known(other)["cars"], json!(1), "one nothing was done on takes it");
    // Work that begins meanwhile keeps it when it is put out.
    let plans = s.get(&format!("/api/v1/jobs/{other}"))["plans"].clone();
    let path = format!("/api/v1/plans/{}/done", plans[0]["id"].as_str().unwrap());
    let (status, v) = s.put(&path, &json!({"step": "support", "done": true}));
    assert_eq!(status, 200, "{v}");
    assert_eq!(s.ask("DELETE", "/api/v1/shop/lenders/another", None).0, 204);
    assert_eq!(known(other)["cars"], json!(1));
    assert_eq!(s.get("/api/v1/shop/memory")["handed"], json!(0));
}

#[test]
fn a_file_that_is_wrong_anywhere_brings_nothing() {
    let s = Server::start();
    let good = handed_over(&s);
    for (path, value, field) in [
        ("/format", json!("other"), "format"),
        ("/shop", json!(""), "shop"),
        ("/cars/0/trials/0/sd", json!(0.0), "cars.0.trials.0.sd"),
        ("/cars/0/trials/0/ln_times", json!(40.0), "cars.0.trials.0.ln_times"),
        ("/parts", json!([{"id": "x"}]), "parts[0]"),
    ] {
        let mut o = good.clone();
        *o.pointer_mut(path).unwrap() = value;
        let (status, p) = s.ask("POST", "/api/v1/shop/offer", Some(&o));
        assert!(status == 422 || status == 400, "{path}: {status} {p}");
        assert!(fields(&p)[0].starts_with(field), "{path}: {p}");
    }
    assert_eq!(s.get("/api/v1/shop/lenders"), json!([]));
}

#[test]
fn one_customers_tickets_leave_together_and_are_taken_out_together() {
    let s = Server::start();
    let facts = s.truck()["vehicle"]["facts"].clone();
    let mut ids = Vec::new();
    for words in ["wanders on the motorway", "back for a look"] {
        let body = json!({"vehicle": facts, "job": {"complaint": words, "plate": "LK 07 ABC"}});
        let (status, v) = s.ask("POST", "/api/v1/jobs", Some(&body));
        assert_eq!(status, 201, "{v}");
        ids.push(v["job"]["id"].as_str().unwrap().to_owned());
    }
    assert_eq!(s.get("/api/v1/customer?plate=lk%2007%20abc").as_array().unwrap().len(), 2);
    let mut r = s.agent.get(format!("{}/api/v1/customer.zip?plate=LK%2007%20ABC", s.base)).call().unwrap();
    let bytes = r.body_mut().read_to_vec().unwrap();
    let mut zip = zip::ZipArchive::new(Cursor::new(bytes)).unwrap();
    assert_eq!(zip.len(), 4, "a file and the record of each");
    let mut all = String::new();
    for i in 0..zip.len() {
        zip.by_index(i).unwrap().read_to_string(&mut all).unwrap();
    }
    assert!(all.contains("wanders on the motorway") && all.contains("back for a look"));
    for bad in ["", "%20", &"x".repeat(41)] {
        assert_eq!(s.ask("GET", &format!("/api/v1/customer?plate={bad}"), None).0, 422, "{bad:?}");
    }
    assert_eq!(s.ask("GET", "/api/v1/customer.zip?plate=nobody", None).0, 404);
    assert_eq!(s.ask("POST", "/api/v1/customer/erase", Some(&json!({"plate": "nobody"}))).0, 404);
    let (status, v) = s.ask("POST", "/api/v1/customer/erase", Some(&json!({"plate": "LK 07 abc"})));
    assert_eq!((status, &v["tickets"]), (200, &json!(2)), "{v}");
    for id in ids {
        let t = s.get(&format!("/api/v1/jobs/{id}"));
        assert_eq!((&t["job"]["complaint"], &t["job"]["plate"]), (&json!(""), &json!("")));
    }
    assert_eq!(s.get("/api/v1/customer?plate=lk%2007%20abc"), json!([]));
}
