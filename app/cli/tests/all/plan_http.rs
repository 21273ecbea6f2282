//! Parts, aims, heights and the search over HTTP on a real PostgreSQL.

use crate::server;
use serde_json::{Value, json};
use server::{Server, car_input, fields};

impl Server {
    fn parts(&self) -> Vec<Value> {
        self.get("/api/v1/parts").as_array().unwrap().clone()
    }

    fn part(&self, id: &str) -> Value {
        self.parts().into_iter().find(|p| p["part"]["id"] == id).unwrap()
    }

    /// Raw text of an answer.
    fn text(&self, path: &str) -> String {
        let mut r = self.agent.get(format!("{}{path}", self.base)).call().unwrap();
        r.body_mut().read_to_string().unwrap()
    }

    fn import(&self, kind: &str, body: &[u8]) -> (u16, Value) {
        let url = format!("{}/api/v1/parts/import", self.base);
        let mut r = self.agent.post(&url).header("content-type", kind).send(body).unwrap();
        let text = r.body_mut().read_to_string().unwrap();
        (r.status().as_u16(), serde_json::from_str(&text).unwrap_or(Value::Null))
    }

    /// Lines of a search.
    fn search(&self, body: &Value) -> Vec<Value> {
        let url = format!("{}/api/v1/plans/search", self.base);
        let body = body.to_string();
        let mut r =
            self.agent.post(&url).header("content-type", "application/json").send(body.as_bytes()).unwrap();
        assert_eq!(r.status().as_u16(), 200);
        let text = r.body_mut().read_to_string().unwrap();
        text.lines().map(|l| serde_json::from_str(l).unwrap()).collect()
    }
}

#[test]
fn own_parts_are_kept_used_copied_and_retired() {
    let s = Server::start();
    assert!(s.parts().len() >= 40);
    let shipped = s.part("offset-upper-arm");
    assert_eq!((&shipped["origin"], &shipped["version"]), (&json!("shipped"), &json!(0)));
    // A copy under another name, with another reach.
    let mut mine = shipped["part"].clone();
    mine["id"] = json!("house-arm");
    mine["name"] = json!("House arm");
    mine["sizes"] = json!({"unit": "mm", "values": [9]});
    mine["cost"] = json!(12);
    let (status, all) = s.put("/api/v1/parts/house-arm", &json!({"version": 0, "part": mine}));
    assert_eq!(status, 200, "{all}");
    let ticket = s.truck();
    let mut input = car_input(&ticket);
    let (_, r) = s.post("/api/v1/predict", &input);
    let row = r["axles"]["front"]["candidates"]
        .as_array()
        .unwrap()
        .iter()
        .find(|c| c["part"]["id"] == "house-arm@9")
        .unwrap();
    assert_eq!(row["status"], "reaches");
    let lines = s.search(&json!({"car": input, "axle": "front", "filters": {"pinned": ["house-arm"]}}));
    let found = &lines.last().unwrap()["result"];
    assert_eq!(found["plans"][0]["parts"][0]["id"], "house-arm@9", "{}", found["headline"]);
    // Two tablets: the second first save, and a save on an old version, are refused.
    assert_eq!(s.put("/api/v1/parts/house-arm", &json!({"version": 0, "part": mine})).0, 409);
    let (status, _) = s.put("/api/v1/parts/house-arm", &json!({"version": 1, "part": mine, "retired": true}));
    assert_eq!(status, 200);
    assert_eq!(s.put("/api/v1/parts/house-arm", &json!({"version": 1, "part": mine})).0, 409);
    // Retired: not offered any more, but a plan that has it still works.
    let (_, r) = s.post("/api/v1/predict", &input);
    assert!(
        !r["axles"]["front"]["candidates"]
            .as_array()
            .unwrap()
            .iter()
            .any(|c| c["part"]["id"] == "house-arm@9")
    );
    input["plan"]["axles"]["front"]["fitted"] = json!(["house-arm@9"]);
    let (status, r) = s.post("/api/v1/predict", &input);
    assert_eq!((status, &r["axles"]["front"]["verdict"]["reached"]), (200, &json!(true)));
}

#[test]
fn a_bad_part_is_refused_at_its_field_and_nothing_is_kept() {
    let s = Server::start();
    let good = s.part("upper-cam-kit")["part"].clone();
    let refused = |f: &dyn Fn(&mut Value), field: &str, status: u16| {
        let mut p = good.clone();
        p["id"] = json!("bad");
        f(&mut p);
        let (code, v) = s.put("/api/v1/parts/bad", &json!({"version": 0, "part": p}));
        assert_eq!(code, status, "{v}");
        assert!(fields(&v).iter().any(|x| x == field), "{field}: {:?}", fields(&v));
    };
    refused(&|p| p["adjusters"][0]["min_deg"] = json!(90), "adjusters.0.max_deg", 422);
    refused(&|p| p["cost"] = json!(-1), "cost", 422);
    refused(&|p| p["labour_minutes"] = json!(-5), "part.labour_minutes", 400);
    refused(&|p| p["name"] = json!(""), "name", 422);
    refused(&|p| p["fits"]["layouts"] = json!([]), "fits.layouts", 422);
    refused(&|p| p["edits"] = json!([{"kind": "melt"}]), "part.edits[0].kind", 400);
    refused(&|p| p["sizes"] = json!({"unit": "mm", "values": [8, 4]}), "sizes.values.1", 422);
    refused(&|p| p["requires"] = json!(["bad"]), "requires.0", 422);
    // A ring: the shipped one would need this, this needs the shipped one.
    refused(
        &|p| {
            p["requires"] = json!(["bad-two"]);
            p["provides"] = json!(["x"]);
            p["conflicts"] = json!(["bad-two"]);
        },
        "conflicts.0",
        422,
    );
    assert!(!s.parts().iter().any(|p| p["part"]["id"] == "bad"));
    // Seen while typed: what it moves, or why not.
    let (status, look) = s.post("/api/v1/parts/look", &json!({"part": good}));
    assert_eq!(status, 200);
    assert!(look["after"].is_object() && look["problems"].as_array().unwrap().is_empty());
    let change = look["after_wheel"]["camber_deg"].as_f64().unwrap()
        - look["before_wheel"]["camber_deg"].as_f64().unwrap();
    assert!(change.abs() > 0.05, "{change}");
}

#[test]
fn tables_of_parts_leave_and_return_whole_or_not_at_all() {
    let s = Server::start();
    let before = s.parts().len();
    let csv = s.text("/api/v1/parts.csv");
    let (status, taken) = s.import("text/csv", csv.as_bytes());
    assert_eq!((status, &taken["rows"], &taken["new"]), (200, &json!(before), &json!(0)), "{taken}");
    assert!(s.parts().iter().all(|p| p["origin"] == "shipped"), "the same parts change nothing");
    assert_eq!(s.import("application/json", s.text("/api/v1/parts.json").as_bytes()).0, 200);
    // One row of another price, one new one: both are taken, and only those are the shop's.
    let row = csv.lines().find(|l| l.starts_with("upper-pivot-shims,")).unwrap();
    let head = csv.lines().next().unwrap();
    let table = format!(
        "{head}\n{}\n{}\n",
        row.replace(",65,18,", ",65,25,"),
        row.replace("upper-pivot-shims,", "house-shims,")
    );
    let (status, taken) = s.import("text/csv", table.as_bytes());
    assert_eq!((status, &taken["new"]), (200, &json!(1)), "{taken}");
    assert_eq!(s.part("upper-pivot-shims")["origin"], "changed");
    assert_eq!(s.part("house-shims")["origin"], "shop");
    // Wrong ones are named by line, and nothing of the table is taken.
    let now = s.text("/api/v1/parts.csv");
    for (body, field) in [
        (
            table.replace(",65,25,", ",-65,25,").replace("house-shims", "other-shims"),
            "line 2, column labour_minutes",
        ),
        (table.replace(',', ";"), "line 1"),
        (format!("{head}\n{}", "x\n".repeat(100_000)), "line 2"),
        (table.replace("\"\"upper_front\"\"", "5"), "line 2, column adjusters, [0]"),
    ] {
        let (status, v) = s.import("text/csv", body.as_bytes());
        assert_eq!(status, 422, "{v}");
        assert!(fields(&v)[0].starts_with(field), "{field}: {:?}", fields(&v));
    }
    let mut latin = table.clone().into_bytes();
    latin.push(0xff);
    assert_eq!(fields(&s.import("text/csv", &latin).1), ["line 4"]);
    let json = s.text("/api/v1/parts.json").replacen("\"cost\": 480.0", "\"cost\": -480.0", 1);
    let (status, v) = s.import("application/json", json.as_bytes());
    assert_eq!(status, 422);
    assert!(fields(&v)[0].starts_with("line ") && fields(&v)[0].ends_with("cost"), "{:?}", fields(&v));
    assert_eq!(s.import("text/csv", &vec![b'x'; 9 * 1024 * 1024]).0, 413);
    assert_eq!(s.text("/api/v1/parts.csv"), now);
}

#[test]
fn own_aims_are_kept_and_a_shipped_name_is_not_taken() {
    let s = Server::start();
    let all = s.get("/api/v1/aims");
    assert_eq!(all.as_array().unwrap().len(), 9);
    let mut aim = all[1]["aim"].clone();
    let (status, v) = s.put("/api/v1/aims/even-wear", &json!({"version": 0, "aim": aim}));
    assert_eq!((status, fields(&v)), (422, vec!["aim.name".to_owned()]));
    aim["id"] = json!("own-factory");
    aim["name"] = json!("Factory range");
    aim["camber_deg"] = json!([0.5, -0.5]);
    let (status, v) = s.put("/api/v1/aims/own-factory", &json!({"version": 0, "aim": aim}));
    assert_eq!((status, fields(&v)), (422, vec!["aim.camber_deg.1".to_owned()]));
    aim["camber_deg"] = json!([-0.5, 0.5]);
    let (status, v) = s.put("/api/v1/aims/own-factory", &json!({"version": 0, "aim": aim}));
    assert_eq!((status, &v["aim"]["name"], &v["version"]), (200, &json!("Factory range"), &json!(1)));
    // By pages the list is the same, and a key that is not there is named.
    let ids = |v: &Value| -> Vec<String> {
        v.as_array().unwrap().iter().map(|a| a["aim"]["id"].as_str().unwrap().to_owned()).collect()
    };
    let whole = ids(&s.get("/api/v1/aims"));
    let mut paged = ids(&s.get("/api/v1/aims?limit=4"));
    while let Some(last) = paged.last().filter(|_| paged.len() < whole.len()) {
        paged.extend(ids(&s.get(&format!("/api/v1/aims?limit=4&after={last}"))));
    }
    assert_eq!((paged.len(), &paged), (10, &whole));
    assert_eq!(s.send("GET", "/api/v1/aims?after=nobody", None).0, 422);
    assert_eq!(s.put("/api/v1/aims/own-factory", &json!({"version": 0, "aim": aim})).0, 409);
    assert_eq!(s.send("DELETE", "/api/v1/aims/own-factory", None).0, 204);
    assert_eq!(s.send("DELETE", "/api/v1/aims/own-factory", None).0, 404);
}

#[test]
fn a_search_says_how_far_it_is_and_a_bad_one_says_what_is_wrong() {
    let s = Server::start();
    let ticket = s.truck();
    let input = car_input(&ticket);
    let lines = s.search(&json!({"car": input, "axle": "front"}));
    assert!(lines.len() > 5 && lines[0]["progress"]["of"].as_u64().unwrap() > 0);
    let found = &lines.last().unwrap()["result"];
    assert!(found["considered"].as_u64().unwrap() > 10_000 && found["plans"][0]["reached"] == true);
    let lines = s.search(&json!({"car": input, "axle": "front", "filters": {"pinned": ["no-such"]}}));
    assert_eq!(lines.last().unwrap()["problems"][0]["field"], "filters.pinned.0");
    let (status, v) =
        s.post("/api/v1/plans/search", &json!({"car": input, "axle": "front", "filters": {"budgets": 3}}));
    assert_eq!(status, 400, "{v}");
    // A rear axle of a car whose rear was read.
    let jobs = s.get("/api/v1/jobs");
    let sedge = jobs.as_array().unwrap().iter().find(|j| j["vehicle"] == "Sedge electric saloon").unwrap();
    let t = s.get(&format!("/api/v1/jobs/{}", sedge["job"]["id"].as_str().unwrap()));
    let mut both = car_input(&t);
    both["plan"]["axles"] =
        json!({"front": {"height_change_mm": -25.0}, "rear": {"height_change_mm": -25.0}});
    let (status, r) = s.post("/api/v1/predict", &both);
    assert_eq!((status, &r["axles"]["rear"]["plane"]), (200, &json!("camber_toe")));
    assert_eq!(r["axles"]["front"]["plane"], "camber_caster");
    let lines = s.search(&json!({"car": both, "axle": "rear"}));
    assert!(lines.last().unwrap()["result"]["plans"].is_array());
    let lines = s.search(&json!({"car": {"base": {"wheelbase_mm": 2900, "lock_deg": 35, "axles": {"front": both["base"]["axles"]["front"], "rear": null}}, "plan": both["plan"]}, "axle": "rear"}));
    assert_eq!(lines.last().unwrap()["problems"][0]["field"], "axle");
    // Wanted height to gain and turns, by hand: 563 of 498 found is 65.
    let truck = car_input(&s.truck());
    assert_eq!(truck["base"]["stands"]["mm"], json!({"front": 498.0, "rear": 571.0}));
    let target = json!({"car": truck, "kind": "hub_to_arch", "axle": "front", "value": 563.0});
    assert_eq!(s.post("/api/v1/height-target", &target).1["gain_mm"], 65.0);
}

/// Maps come for the axle that is looked at, everything else is the same to the digit.
#[test]
fn only_the_maps_that_are_looked_at_are_sent() {
    let s = Server::start();
    let input = car_input(&s.truck());
    let (_, whole) = s.post("/api/v1/predict", &input);
    let bytes = |v: &Value| v.to_string().len();
    let points = |v: &Value| -> usize {
        let reach = ["left", "right"].iter().map(|s| &v["axles"]["front"][s]["reach"]);
        let of = |r: &Value| {
            ["outline", "dots", "threads"].iter().map(|k| r[k].as_array().unwrap().len()).sum::<usize>()
        };
        let candidates = v["axles"]["front"]["candidates"].as_array().unwrap();
        reach.map(of).sum::<usize>()
            + candidates.iter().map(|c| c["left_outline"].as_array().unwrap().len()).sum::<usize>()
    };
    let (_, front) = s.post("/api/v1/predict?pictures=front", &input);
    let (_, none) = s.post("/api/v1/predict?pictures=none", &input);
    assert_eq!(points(&front), points(&whole));
    assert_eq!(points(&none), 0);
    let dot = |v: &Value| v["axles"]["front"]["left"]["reach"]["outline"][0][0].as_f64().unwrap();
    assert!((dot(&front) - dot(&whole)).abs() <= 0.5e-4);
    assert!(bytes(&none) * 3 < bytes(&whole) * 2, "{} of {}", bytes(&none), bytes(&whole));
    assert!(bytes(&front) < bytes(&whole));
    fn without(v: &mut Value) {
        match v {
            Value::Object(o) => {
                for k in ["outline", "dots", "threads", "left_outline", "right_outline"] {
                    o.remove(k);
                }
                o.values_mut().for_each(without);
            }
            Value::Array(a) => a.iter_mut().for_each(without),
            _ => {}
        }
    }
    let [mut a, mut b] = [whole, none];
    without(&mut a);
    without(&mut b);
    assert_eq!(a, b);
    assert_eq!(s.post("/api/v1/predict?pictures=all", &input).0, 400);
    assert_eq!(s.post("/api/v1/predict?picture=none", &input).0, 400);
}

#[test]
fn the_jig_stands_as_it_is_asked_and_says_what_cannot_be() {
    let s = Server::start();
    let set = |at: &str| json!({"camber_at": at, "camber_deg": -2, "caster_deg": 5, "more_lean_deg": 0, "toe_deg": 0.05, "wheel_out_mm": 0});
    let mut asked = json!({"shape": "wishbones", "settings": [set("knuckle"), set("top")], "steer_deg": 20, "travel_mm": 0, "roll_deg": 0});
    let (status, v) = s.post("/api/v1/jig", &asked);
    assert_eq!(status, 200, "{v}");
    for (k, lean) in [(0, 8.5), (1, 10.4)] {
        let straight = &v[k]["straight"];
        assert!((straight["camber_deg"].as_f64().unwrap() + 2.0).abs() < 1e-6);
        assert!((straight["sai_deg"].as_f64().unwrap() - lean).abs() < 0.05, "{straight}");
    }
    asked["settings"][1]["camber_deg"] = json!(-12);
    asked["steer_deg"] = json!(90);
    let (status, v) = s.post("/api/v1/jig", &asked);
    assert_eq!((status, fields(&v)), (422, vec!["settings.1.camber_deg".to_owned(), "steer_deg".to_owned()]));
    assert_eq!(s.post("/api/v1/jig", &json!({"shape": "sledge"})).0, 400);
}
