//! The desk over HTTP: tables as workbooks both ways, what is ordered, jobs found, put away and opened again.

use crate::server;
use serde_json::{Value, json};
use server::{Server, fields};

fn id(v: &Value) -> String {
    v.as_str().unwrap().to_owned()
}

impl Server {
    fn bytes(&self, path: &str) -> Vec<u8> {
        let mut r = self.agent.get(format!("{}{path}", self.base)).call().unwrap();
        assert_eq!(r.status().as_u16(), 200, "{path}");
        r.body_mut().read_to_vec().unwrap()
    }

    fn table(&self, path: &str, body: &[u8]) -> (u16, Value) {
        let url = format!("{}{path}", self.base);
        let mut r = self.agent.post(&url).header("content-type", "text/csv").send(body).unwrap();
        let text = r.body_mut().read_to_string().unwrap();
        (r.status().as_u16(), serde_json::from_str(&text).unwrap_or(Value::Null))
    }
}

fn rows(csv: &[u8]) -> usize {
    csv::Reader::from_reader(csv).records().count()
}

#[test]
fn tables_leave_as_workbooks_and_come_back_as_they_were() {
    let s = Server::start();
    let t = s.truck();
    let job = id(&t["job"]["id"]);
    // The one whose tyres were logged.
    let jobs = s.get("/api/v1/jobs");
    let logged = jobs.as_array().unwrap().iter().find(|j| j["job"]["ticket"] == 423).unwrap();
    let logged = id(&logged["job"]["id"]);
    for (path, back) in [
        (format!("/api/v1/jobs/{job}/readings"), format!("/api/v1/jobs/{job}/readings.csv")),
        ("/api/v1/parts".to_owned(), "/api/v1/parts/import".to_owned()),
        (format!("/api/v1/jobs/{logged}/tread"), format!("/api/v1/jobs/{logged}/tread.csv")),
    ] {
        let text = s.bytes(&format!("{path}.csv"));
        let book = s.bytes(&format!("{path}.xlsx"));
        assert!(book.starts_with(b"PK"), "{path}");
        assert!(rows(&text) > 0, "{path}: nothing to go round");
        let (status, v) = s.table(&back, &book);
        assert_eq!(status, 200, "{path}: {v}");
        assert_eq!(s.bytes(&format!("{path}.csv")), text, "{path}");
    }
    // A workbook that holds something else is refused in its cells, and one that is none at the table.
    let parts = s.bytes("/api/v1/parts.xlsx");
    let (status, p) = s.table(&format!("/api/v1/jobs/{job}/readings.csv"), &parts);
    assert_eq!((status, fields(&p)[0].as_str()), (422, "line 1"), "{p}");
    let (status, p) = s.table(&format!("/api/v1/jobs/{job}/readings.csv"), b"PK\x03\x04 no");
    assert_eq!((status, fields(&p)[0].as_str()), (422, "table"), "{p}");
}

#[test]
fn what_a_plan_takes_is_listed_to_order() {
    let s = Server::start();
    let jobs = s.get("/api/v1/jobs");
    let sedge = jobs.as_array().unwrap().iter().find(|j| j["job"]["ticket"] == 423).unwrap();
    let t = s.get(&format!("/api/v1/jobs/{}", id(&sedge["job"]["id"])));
    let p = &t["plans"][0];
    let (plan, mut document) = (id(&p["id"]), p["document"].clone());
    assert_eq!(rows(&s.bytes(&format!("/api/v1/plans/{plan}/order.csv"))), 0);
    document["axles"]["rear"]["fitted"] = json!(["rear-camber-arm", "rear-toe-arm"]);
    let put = json!({"version": p["version"], "name": p["name"], "document": document});
    assert_eq!(s.put(&format!("/api/v1/plans/{plan}"), &put).0, 200);
    let text = s.bytes(&format!("/api/v1/plans/{plan}/order.csv"));
    assert_eq!(rows(&text), 2);
    let mut read = csv::Reader::from_reader(&text[..]);
    let heads = read.headers().unwrap().clone();
    assert_eq!(&heads[0], "order_number");
    let first = read.records().next().unwrap().unwrap();
    let shelf = s.get("/api/v1/parts?limit=200");
    let known = shelf.as_array().unwrap().iter().any(|p| {
        let family = first[1].split('@').next().unwrap();
        p["part"]["id"] == family && p["part"]["cost"].as_f64() == first[5].parse().ok()
    });
    assert!(known, "{first:?}");
    let told = s.get(&format!("/api/v1/plans/{plan}/order"));
    assert_eq!(told["rows"][0]["id"].as_str().unwrap(), &first[1]);
    assert_eq!(told["rows"].as_array().unwrap().len(), rows(&text));
    assert!(s.bytes(&format!("/api/v1/plans/{plan}/order.xlsx")).starts_with(b"PK"));
    assert_eq!(s.send("GET", &format!("/api/v1/plans/{}/order.csv", uuid::Uuid::nil()), None).0, 404);
}

/// The plans of a job go round as a table; what is wrong with one is told at its line and column, and none of them is taken.
#[test]
fn plans_go_out_and_come_in_as_a_table() {
    let s = Server::start();
    let job = id(&s.truck()["job"]["id"]);
    let path = format!("/api/v1/jobs/{job}/plans.csv");
    let plans = || s.get(&format!("/api/v1/jobs/{job}"))["plans"].as_array().unwrap().clone();
    let before = plans();
    let text = s.bytes(&path);
    assert_eq!(rows(&text), before.len());
    // What is there and says the same is left as it is, from a workbook too.
    for back in [text.clone(), s.bytes(&format!("/api/v1/jobs/{job}/plans.xlsx"))] {
        let (status, v) = s.table(&path, &back);
        assert_eq!((status, &v["new"]), (200, &json!(0)), "{v}");
    }
    let refused = |table: &str| {
        let (status, p) = s.table(&path, table.as_bytes());
        assert_eq!(status, 422, "{p}");
        assert_eq!(plans().len(), before.len());
        fields(&p)
    };
    let name = before[0]["name"].as_str().unwrap();
    assert_eq!(refused(&format!("name,front_height_mm\n\"{name}\",1\n")), ["line 2, name"]);
    assert_eq!(
        refused("name,front_height_mm\nHigh,400\nWord,high\n"),
        ["line 2, front_height_mm", "line 3, front_height_mm"]
    );
    assert_eq!(refused("name,front_parts\nA,no-such-arm\n"), ["line 2, front_parts"]);
    assert_eq!(refused("name,front_parts\nA,upper-cam-kit:top\n"), ["line 2, front_parts"]);
    assert_eq!(
        refused("name,front_parts\nA,upper-cam-kit:left upper-cam-kit:right\n"),
        ["line 2, front_parts"]
    );
    assert_eq!(refused("name,aim\nA,dreams\n"), ["line 2, aim"]);
    assert_eq!(refused("name,as_sold\nA,perhaps\n"), ["line 2, as_sold"]);
    assert_eq!(refused("name\n\"\"\n"), ["line 2, name"]);
    let part = before.iter().find_map(|p| p["document"]["axles"]["front"]["fitted"][0].as_str()).unwrap();
    let table =
        format!("name,front_height_mm,front_left_mm,front_parts,as_sold\nTaller,80,3,{part}:left,yes\n");
    let (status, v) = s.table(&path, table.as_bytes());
    assert_eq!((status, &v["new"]), (200, &json!(1)), "{v}");
    let d = plans().iter().find(|p| p["name"] == "Taller").unwrap()["document"].clone();
    let front = &d["axles"]["front"];
    assert_eq!((&front["height_change_mm"], &front["trim_mm"]["left"]), (&json!(80.0), &json!(3.0)));
    assert_eq!(
        (&front["fitted"], &front["only"][part], &d["as_sold"]),
        (&json!([part]), &json!("left"), &json!(true))
    );
    assert_eq!(s.table(&path.replace(&job, &uuid::Uuid::nil().to_string()), table.as_bytes()).0, 404);
}

/// Cars that were here before are booked by a table: all of its rows or none.
#[test]
fn tickets_come_in_as_a_table() {
    let s = Server::start();
    let jobs = || s.get("/api/v1/jobs?limit=200").as_array().unwrap().clone();
    let before = jobs();
    let bay = before.iter().find_map(|j| j["job"]["bay"].as_i64()).unwrap();
    // A plate is known from the ticket it was typed on.
    let sedge = before.iter().find(|j| j["job"]["ticket"] == 423).unwrap();
    let job = json!({"complaint": "Inner edges", "kind": "wear", "plate": "LA 4230"});
    let put = json!({"version": sedge["job"]["version"], "job": job});
    assert_eq!(s.put(&format!("/api/v1/jobs/{}/ticket", id(&sedge["job"]["id"])), &put).0, 200);

    // What is wrong is told by line and column, and nothing of it is opened.
    let refused = |table: &str| {
        let (status, p) = s.table("/api/v1/jobs.csv", table.as_bytes());
        assert_eq!(status, 422, "{p}");
        assert_eq!(jobs().len(), before.len());
        fields(&p)
    };
    assert_eq!(refused("plate,colour\nLA 4230,blue\n"), ["line 1"]);
    assert_eq!(refused("wish\nLower it\n"), ["line 1"]);
    assert_eq!(refused("plate,for\n"), ["table"]);
    assert_eq!(refused("plate,odometer_km,for,bay\nLA 4230,many,polish,1000\n").len(), 3);
    assert_eq!(refused("plate\nLA 4230\nZZ 1\n"), ["line 3, plate"]);
    assert_eq!(refused(&format!("plate,bay\nLA 4230,{bay}\n")), ["line 2, bay"]);
    assert_eq!(refused("plate,wish\nLA 4230\n"), ["line 2"]);
    // Half a bay is none; another shop's number or name for a car of ours is not passed over.
    assert_eq!(refused("plate,bay,ticket\nLA 4230,1.5,4e2\n"), ["line 2, ticket", "line 2, bay"]);
    assert_eq!(refused("ticket,vehicle\n0423,Heron van\n"), ["line 2, ticket"]);
    assert_eq!(refused("plate,vehicle\nLA 4230,Heron van\n"), ["line 2, vehicle"]);

    // By plate whatever its capitals, by name where there is none; its facts and plan come along, nothing that was read.
    let table = "plate,vehicle,odometer_km,for,wish\nla 4230,,61200,wear,'=again\n,Wharf panel van,,,Sags\n";
    let (status, v) = s.table("/api/v1/jobs.csv", table.as_bytes());
    assert_eq!((status, &v["rows"], &v["new"]), (200, &json!(2), &json!(2)), "{v}");
    let now = jobs();
    let of = |n: usize| now.iter().find(|j| j["job"]["ticket"] == v["tickets"][n]).unwrap();
    assert_eq!(of(0)["vehicle"], "Sedge electric saloon");
    assert_eq!((&of(0)["job"]["complaint"], &of(0)["job"]["kind"]), (&json!("=again"), &json!("wear")));
    assert_eq!((&of(0)["job"]["odometer_km"], &of(0)["readings"]), (&json!(61200.0), &json!(0)));
    assert!(of(0)["job"]["plan_id"].is_string());
    assert_eq!((&of(1)["vehicle"], &of(1)["job"]["kind"]), (&json!("Wharf panel van"), &json!("height")));

    // The shop's own table, as CSV or workbook, changes nothing: its tickets are there.
    let n = now.len();
    for back in [s.bytes("/api/v1/jobs.csv"), s.bytes("/api/v1/jobs.xlsx")] {
        let (status, v) = s.table("/api/v1/jobs.csv", &back);
        assert_eq!((status, &v["new"]), (200, &json!(0)), "{v}");
        assert_eq!(jobs().len(), n);
    }
}

/// Every column is told of.
#[test]
fn columns_are_documented() {
    let s = Server::start();
    let told = include_str!("../../../../docs/TABLES.md");
    let plan = id(&s.truck()["job"]["plan_id"]);
    let plans = format!("/api/v1/jobs/{}/plans.csv", id(&s.truck()["job"]["id"]));
    for path in [format!("/api/v1/plans/{plan}/order.csv"), "/api/v1/jobs.csv".to_owned(), plans] {
        let text = s.bytes(&path);
        for column in csv::Reader::from_reader(&text[..]).headers().unwrap() {
            assert!(told.contains(&format!("`{column}`")), "{path}: {column}");
        }
    }
}

#[test]
fn jobs_are_found_sieved_put_away_and_opened_again() {
    let s = Server::start();
    let list = |query: &str| s.get(&format!("/api/v1/jobs{query}")).as_array().unwrap().clone();
    let all = list("");
    let waiting = all.iter().find(|j| j["job"]["bay"].is_null()).unwrap();
    let taken = all.iter().find(|j| !j["job"]["bay"].is_null()).unwrap();
    let job = id(&waiting["job"]["id"]);
    let ticket = |version: &Value, more: Value| {
        let mut j = json!({"complaint": "Pulls", "kind": "pull"});
        j.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
        s.put(&format!("/api/v1/jobs/{job}/ticket"), &json!({"version": version, "job": j}))
    };
    let version = waiting["job"]["version"].clone();
    // A bay holds one car; plate and odometer have limits.
    let (status, p) = ticket(&version, json!({"bay": taken["job"]["bay"]}));
    assert_eq!((status, fields(&p)), (422, vec!["job.bay".to_owned()]), "{p}");
    let number = format!("{:04}", taken["job"]["ticket"].as_i64().unwrap());
    assert!(p["detail"].as_str().unwrap().contains(&number), "{p}");
    let (status, p) = ticket(&version, json!({"plate": "x".repeat(21), "odometer_km": -1.0}));
    assert_eq!((status, fields(&p)), (422, vec!["job.plate".to_owned(), "job.odometer_km".to_owned()]));
    let (status, t) = ticket(&version, json!({"plate": "FLEET 88", "odometer_km": 84_200.0, "bay": 77}));
    assert_eq!((status, &t["job"]["plate"], &t["job"]["bay"]), (200, &json!("FLEET 88"), &json!(77)), "{t}");
    assert_eq!(list("?find=fleet%2088").len(), 1);
    assert!(list("?kind=pull").iter().all(|j| j["job"]["kind"] == "pull"));
    assert!(list("?kind=pull").iter().any(|j| j["job"]["id"] == json!(job)));
    let names: Vec<String> =
        list("?sort=vehicle").iter().map(|j| j["vehicle"].as_str().unwrap().to_lowercase()).collect();
    assert!(names.is_sorted() && names.len() == all.len(), "{names:?}");
    let oldest: Vec<i64> =
        list("?sort=oldest").iter().map(|j| j["job"]["ticket"].as_i64().unwrap()).collect();
    assert!(oldest.is_sorted() && oldest.len() == all.len());
    let page = format!("?sort=vehicle&limit=2&after={}", id(&list("?sort=vehicle&limit=2")[1]["job"]["id"]));
    assert_eq!(list(&page)[0]["vehicle"].as_str().unwrap().to_lowercase(), names[2]);
    assert_eq!(s.send("GET", "/api/v1/jobs?sort=colour", None).0, 400);

    // Put away it leaves its bay and every list; it is still found, and comes back.
    let away = |version: &Value, away: bool| {
        s.post(&format!("/api/v1/jobs/{job}/away"), &json!({"version": version, "away": away}))
    };
    assert_eq!(away(&version, true).0, 409, "somebody saved meanwhile");
    let (status, t) = away(&t["job"]["version"], true);
    assert_eq!((status, &t["job"]["bay"]), (200, &Value::Null), "{t}");
    assert_eq!(list("").len(), all.len() - 1);
    assert_eq!(list("?archived=true")[0]["job"]["id"], json!(job));
    assert_eq!(list("?find=fleet").len(), 1);
    let (_, t) = away(&t["job"]["version"], false);
    assert_eq!(list("").len(), all.len());

    // The same car again: its facts and plan, nothing that was read; what happened is told in order.
    let (status, made) = s.post(&format!("/api/v1/jobs/{job}/again"), &json!({}));
    assert_eq!(status, 201, "{made}");
    assert_ne!(made["job"]["ticket"], t["job"]["ticket"]);
    assert_eq!(made["vehicle"]["facts"], t["vehicle"]["facts"]);
    assert_eq!((&made["job"]["plate"], &made["job"]["odometer_km"]), (&json!("FLEET 88"), &Value::Null));
    assert_eq!(made["plans"][0]["document"], t["plans"][0]["document"]);
    assert!(made["readings"].as_array().unwrap().is_empty());
    let told = s.get(&format!("/api/v1/jobs/{job}/story"));
    let what: Vec<&str> =
        told["events"].as_array().unwrap().iter().map(|e| e["what"].as_str().unwrap()).collect();
    assert!(what.ends_with(&["ticket saved", "put away", "taken out again"]), "{what:?}");

    // Every job is in the table, with its columns.
    let text = s.bytes("/api/v1/jobs.csv");
    assert_eq!(rows(&text), all.len() + 1);
    assert!(String::from_utf8(text).unwrap().contains("FLEET 88,84200,pull"));
    assert!(s.bytes("/api/v1/jobs.xlsx").starts_with(b"PK"));
}
