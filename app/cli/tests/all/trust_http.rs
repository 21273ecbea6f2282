//! Who may: the first run, PINs and passphrases, and every address by every role and from another shop.

use crate::browser::{Browser, claim, code_of, give_pins};
use crate::server::{Server, database, spawn};
use serde_json::{Value, json};
use std::collections::BTreeMap;
use std::process::Command;
use ureq::Agent;
use uuid::Uuid;

#[test]
fn a_shop_is_open_until_it_has_an_owner_and_then_to_nobody_without_a_session() {
    let s = Server::start();
    let anyone = Browser::new(&s.base);
    let before = anyone.get("/api/v1/session");
    assert_eq!((&before["open"], &before["who"]["role"]), (&json!(true), &json!("owner")));
    assert_eq!(before["who"]["name"], "Specialist A");
    assert_eq!(before["names"].as_array().unwrap().len(), 4);
    // A picked name signs what is done.
    let desk = before["names"].as_array().unwrap().iter().find(|n| n["name"] == "Front desk").unwrap();
    let (status, picked) =
        anyone.ask("POST", "/api/v1/session/pick", Some(&json!({"member": desk["member"]})));
    assert_eq!((status, &picked["who"]["name"]), (200, &json!("Front desk")));
    let job = anyone.get("/api/v1/jobs")[0]["job"]["id"].as_str().unwrap().to_owned();
    let note = json!({"place": {"axle": "front", "side": "left"}, "text": "Boot split."});
    let (status, t) = anyone.ask("POST", &format!("/api/v1/jobs/{job}/notes"), Some(&note));
    assert_eq!(status, 201, "{t}");
    assert_eq!(t["notes"][0]["author"], "Front desk");
    // The first run; bad fields first, at their fields.
    let mut owner = Browser::new(&s.base);
    let mut bad = claim();
    bad["pin"] = json!("1234");
    let (status, p) = owner.ask("POST", "/api/v1/shop/claim", Some(&bad));
    assert_eq!((status, &p["problems"][0]["field"]), (422, &json!("pin")));
    let slip = owner.claim();
    assert_eq!(slip.len(), 29);
    assert_eq!(owner.ask("POST", "/api/v1/shop/claim", Some(&claim())).0, 422, "it has an owner");
    let (status, p) = anyone.ask("POST", "/api/v1/shop/claim", Some(&claim()));
    assert_eq!((status, &p["problems"][0]["field"]), (422, &json!("name")), "one is first");
    // Within two seconds another process may still believe it open; this one does not.
    for path in ["/api/v1/jobs", "/api/v1/shop", &format!("/api/v1/jobs/{job}")] {
        assert_eq!(anyone.ask("GET", path, None).0, 401, "{path}");
    }
    let now = anyone.get("/api/v1/session");
    assert_eq!(
        (&now["open"], &now["who"], now["names"].as_array().unwrap().len()),
        (&json!(false), &Value::Null, 0)
    );
    assert_eq!(owner.get("/api/v1/session")["who"]["name"], "Owner");
    // The slip brings a lost PIN back, once.
    let mut lost = Browser::new(&s.base);
    let back = json!({"slip": slip.to_lowercase().replace('-', " "), "pin": "8024", "device": "Office"});
    let (status, v) = lost.ask("POST", "/api/v1/shop/slip", Some(&back));
    assert_eq!(status, 201, "{v}");
    lost.seated(&v["session"]);
    assert_eq!(lost.get("/api/v1/session")["who"]["role"], "owner");
    assert_eq!(owner.ask("GET", "/api/v1/people", None).0, 401, "who sat there before is out");
    let (status, p) = lost.ask("POST", "/api/v1/shop/slip", Some(&back));
    assert_eq!(status, 422, "it counts once: {p}");
    let (status, p) = Browser::new(&s.base).ask("POST", "/api/v1/shop/slip", Some(&back));
    assert_eq!((status, &p["problems"][0]["field"]), (422, &json!("slip")));
}

#[test]
fn a_pin_opens_on_a_device_of_the_shop_and_waits_after_five_wrong() {
    let s = Server::start();
    let mut owner = Browser::new(&s.base);
    owner.claim();
    let people = give_pins(&owner);
    let (id, pin) = &people["Specialist A"];
    // Not from anywhere else.
    let stranger = Browser::new(&s.base);
    let (status, p) = stranger.ask("POST", "/api/v1/session/pin", Some(&json!({"member": id, "pin": pin})));
    assert_eq!((status, &p["problems"][0]["field"]), (422, &json!("device")));
    let a = owner.on_device("Specialist A", pin);
    assert_eq!(a.get("/api/v1/session")["who"]["name"], "Specialist A");
    // Leaving leaves the names, not the work.
    let (_, out) = a.ask("DELETE", "/api/v1/session", None);
    assert_eq!((&out["who"], out["names"].as_array().unwrap().len()), (&Value::Null, 4));
    assert_eq!(a.ask("GET", "/api/v1/jobs", None).0, 401);
    for left in (1..=4).rev() {
        let (status, p) = a.ask("POST", "/api/v1/session/pin", Some(&json!({"member": id, "pin": "0001"})));
        assert_eq!(status, 422);
        assert!(p["problems"][0]["wrong"].as_str().unwrap().contains(&left.to_string()), "{p}");
    }
    assert_eq!(a.ask("POST", "/api/v1/session/pin", Some(&json!({"member": id, "pin": "0001"}))).0, 429);
    assert_eq!(
        a.ask("POST", "/api/v1/session/pin", Some(&json!({"member": id, "pin": pin}))).0,
        429,
        "the right one waits too"
    );
    assert!(
        a.get("/api/v1/session")["names"]
            .as_array()
            .unwrap()
            .iter()
            .any(|n| n["wait_s"].as_f64().unwrap() > 100.0)
    );
    // The owner resets it; a code is good for one device.
    assert_eq!(owner.ask("PUT", &format!("/api/v1/people/{id}/pin"), Some(&json!({"pin": "3698"}))).0, 200);
    let (status, mut v) = a.ask("POST", "/api/v1/session/pin", Some(&json!({"member": id, "pin": "3698"})));
    assert_eq!(status, 200, "{v}");
    let mut a = a;
    a.seated(&v);
    // Ended everywhere by the owner; a device that is taken out lets nobody in.
    assert_eq!(owner.ask("POST", &format!("/api/v1/people/{id}/end-sessions"), Some(&json!({}))).0, 200);
    assert_eq!(a.ask("GET", "/api/v1/jobs", None).0, 401);
    let devices = owner.get("/api/v1/people")["devices"].clone();
    let tablet = devices.as_array().unwrap().iter().find(|d| d["name"] == "Bay 2 tablet").unwrap();
    assert_eq!(
        owner.ask("DELETE", &format!("/api/v1/devices/{}", tablet["id"].as_str().unwrap()), None).0,
        200
    );
    (_, v) = a.ask("POST", "/api/v1/session/pin", Some(&json!({"member": id, "pin": "3698"})));
    assert_eq!(v["status"], 422, "{v}");
    // The last owner stays one.
    let me = owner.get("/api/v1/people")["members"]
        .as_array()
        .unwrap()
        .iter()
        .find(|m| m["member"]["role"] == "owner")
        .unwrap()
        .clone();
    let save = json!({"version": me["member"]["version"], "name": "Owner", "role": "specialist", "mark": 0});
    let (status, p) =
        owner.ask("PUT", &format!("/api/v1/people/{}", me["member"]["id"].as_str().unwrap()), Some(&save));
    assert_eq!((status, &p["problems"][0]["field"]), (422, &json!("role")));
}

#[test]
fn from_elsewhere_a_passphrase_and_a_second_factor_open() {
    let s = Server::start();
    let mut owner = Browser::new(&s.base);
    owner.claim();
    let me = owner.get("/api/v1/people")["members"]
        .as_array()
        .unwrap()
        .iter()
        .find(|m| m["member"]["role"] == "owner")
        .unwrap()
        .clone();
    let path = format!("/api/v1/people/{}/passphrase", me["member"]["id"].as_str().unwrap());
    let set = |phrase: &str, second: bool| {
        owner.ask(
            "PUT",
            &path,
            Some(&json!({"login": "larkspur", "passphrase": phrase, "second_factor": second})),
        )
    };
    for weak in ["short", "passwordpassword", "larkspurlarkspur"] {
        let (status, p) = set(weak, false);
        assert_eq!((status, &p["problems"][0]["field"]), (422, &json!("passphrase")), "{weak}");
    }
    let (status, v) = set("gravel over the north gate", true);
    assert_eq!(status, 200, "{v}");
    let secret = v["second_factor"]["secret"].as_str().unwrap().to_owned();
    assert!(v["second_factor"]["picture"].as_str().unwrap().contains("<svg"));
    let far = Browser::new(&s.base);
    let ask = |login: &str, phrase: &str, code: Option<&str>| {
        far.ask(
            "POST",
            "/api/v1/session/passphrase",
            Some(&json!({"login": login, "passphrase": phrase, "code": code})),
        )
    };
    let (status, unknown) = ask("nobody", "gravel over the north gate", None);
    let (wrong_status, wrong) = ask("larkspur", "gravel over the south gate", None);
    assert_eq!(
        (status, &unknown["problems"]),
        (wrong_status, &wrong["problems"]),
        "a name is not told from a passphrase"
    );
    let (status, v) = ask("LARKSPUR", "gravel over the north gate", None);
    assert_eq!((status, &v["code_wanted"], &v["session"]), (200, &json!(true), &Value::Null));
    assert_eq!(ask("larkspur", "gravel over the north gate", Some("000000")).0, 422);
    let code = code_of(&secret);
    let (status, v) = ask("larkspur", "gravel over the north gate", Some(&code));
    assert_eq!((status, &v["session"]["who"]["name"]), (200, &json!("Owner")), "{v}");
    // The same code a second time is nobody's.
    let again = Browser::new(&s.base);
    let body = json!({"login": "larkspur", "passphrase": "gravel over the north gate", "code": code});
    assert_eq!(again.ask("POST", "/api/v1/session/passphrase", Some(&body)).0, 422);
    assert_eq!(far.get("/api/v1/people")["sitting"].as_array().unwrap().len(), 2);
}

/// An address with names put in: of the shop's own rows, or of another shop's.
fn filled(path: &str, ids: &BTreeMap<&str, String>) -> String {
    let of = |path: &str| -> &str {
        for (start, what) in [
            ("/api/v1/plans/", "plan"),
            ("/api/v1/people/", "member"),
            ("/api/v1/devices/", "device"),
            ("/api/v1/sessions/", "session"),
            ("/api/v1/archetypes/", "shape"),
            ("/api/v1/parts/", "part"),
            ("/api/v1/aims/", "aim"),
            ("/api/v1/shapes/", "own-shape"),
        ] {
            if path.starts_with(start) {
                return what;
            }
        }
        "job"
    };
    path.replace("{id}", &ids[of(path)])
        .replace("{note}", &ids["note"])
        .replace("{kind}", "found")
        .replace("{origin}", "a1")
}

/// What the table of rights says of each operation, read from the description's ids: the test's own list, not the server's.
fn needs(operation: &str) -> Option<&'static str> {
    Some(match operation {
        "health" | "session" | "signInPin" | "signInPassphrase" | "signOut" | "claimShop" | "useSlip"
        | "useCode" | "pickMember" => return None,
        "createJob" | "bookJobs" | "sameCarAgain" | "putAway" | "addNote" | "strikeNote" | "saveTicket" => {
            "ticket"
        }
        "tellGauge" | "addReading" | "importReadings" | "addForm" | "writeTread" | "importTread"
        | "strikeTread" | "saveVehicle" | "openVisit" | "saveAnswers" | "putRight" => "measure",
        "importJob" | "choosePlan" | "createPlan" | "importPlans" | "savePlan" | "removePlan"
        | "copyPlan" => "plan",
        "markStep" | "turnedAgain" | "doAfter" => "turn",
        "keepAim" | "removeAim" | "keepShape" | "removeShape" | "importParts" | "keepPart" | "shopOffer"
        | "takeOffer" | "putOut" => "library",
        "makeCode" | "enrolHere" => "enrol",
        "saveShopSettings" | "saveTrust" => "settings",
        "people" | "addMember" | "saveMember" | "setPin" | "setPassphrase" | "endSessions"
        | "removeDevice" => "people",
        "record" | "recordCsv" | "erasePersonal" | "ticketsOfPlate" | "customerFile" | "eraseCustomer" => {
            "records"
        }
        _ => "look",
    })
}

#[test]
fn every_address_by_every_role_and_from_another_shop() {
    let s = Server::start();
    // What another shop has, made before it is told apart: ids guessed right.
    let open = Browser::new(&s.base);
    let t = open.get(&format!("/api/v1/jobs/{}", open.get("/api/v1/jobs")[0]["job"]["id"].as_str().unwrap()));
    let job = t["job"]["id"].as_str().unwrap().to_owned();
    let (_, noted) = open.ask(
        "POST",
        &format!("/api/v1/jobs/{job}/notes"),
        Some(&json!({"place": {"axle": "front", "side": "left"}, "text": "Only ours."})),
    );
    let mut owner = Browser::new(&s.base);
    owner.claim();
    let people = give_pins(&owner);
    let all = owner.get("/api/v1/people");
    let ids: BTreeMap<&str, String> = BTreeMap::from([
        ("job", job.clone()),
        ("plan", t["plans"][0]["id"].as_str().unwrap().to_owned()),
        ("note", noted["notes"][0]["id"].as_str().unwrap().to_owned()),
        ("member", people["Apprentice"].0.to_string()),
        ("device", all["devices"][0]["id"].as_str().unwrap().to_owned()),
        ("session", all["sitting"][0]["id"].as_str().unwrap().to_owned()),
        ("shape", open_shape(&owner)),
        ("part", "nothing-such".to_owned()),
        ("aim", "nothing-such".to_owned()),
        ("own-shape", "nothing-such".to_owned()),
    ]);
    let doc = owner.get("/api/openapi.json");
    let addresses: Vec<(String, String, String)> = doc["paths"]
        .as_object()
        .unwrap()
        .iter()
        .flat_map(|(p, item)| {
            item.as_object()
                .unwrap()
                .iter()
                .map(|(m, op)| (m.to_uppercase(), p.clone(), op["operationId"].as_str().unwrap().to_owned()))
        })
        .collect();
    assert!(addresses.len() > 95, "{}", addresses.len());
    // Nobody: 401 wherever somebody is wanted.
    let nobody = Browser::new(&s.base);
    for (method, path, op) in &addresses {
        if needs(op).is_none() {
            continue;
        }
        let (status, v) = nobody.ask(method, &filled(path, &ids), Some(&json!({})));
        assert_eq!(status, 401, "{method} {path} ({op}): {v}");
    }
    // Each role: 403 where it may not, and something else where it may. Bodies are empty: what passes is refused at its
    // fields, and nothing is done.
    let may: [(&str, &[&str]); 3] = [
        ("Specialist A", &["look", "ticket", "measure", "plan", "turn", "gate", "library", "enrol"]),
        ("Apprentice", &["look", "ticket", "measure", "turn"]),
        ("Front desk", &["look", "ticket"]),
    ];
    let mut counted = (0, 0);
    for (name, acts) in may {
        let b = owner.on_device(name, &people[name].1);
        for (method, path, op) in &addresses {
            let Some(act) = needs(op) else { continue };
            // What writes with an empty body, or ends a session, is tried by its own tests.
            let harmless = [
                "removePlan",
                "copyPlan",
                "sameCarAgain",
                "putRight",
                "strikeNote",
                "endSession",
                "makeCode",
            ];
            if acts.contains(&act) && harmless.contains(&op.as_str()) {
                continue;
            }
            let (status, v) = b.ask(method, &filled(path, &ids), Some(&json!({})));
            if acts.contains(&act)
                || ["ownUnits", "setOwnPin", "sessions", "endSession", "events"].contains(&op.as_str())
            {
                assert!(
                    status != 401 && status != 403 && status < 500,
                    "{name} {method} {path}: {status} {v}"
                );
                counted.0 += 1;
            } else {
                assert_eq!(status, 403, "{name} {method} {path} ({op}): {v}");
                counted.1 += 1;
            }
        }
    }
    assert!(counted.0 > 150 && counted.1 > 60, "{counted:?}");
    // A gate is opened by who may; a step before it is closed by an apprentice too.
    let apprentice = owner.on_device("Apprentice", &people["Apprentice"].1);
    let done = format!("/api/v1/plans/{}/done", ids["plan"]);
    let (status, v) = apprentice.ask("PUT", &done, Some(&json!({"step": "settled", "done": true})));
    assert_eq!(status, 403, "{v}");
    assert!(v["detail"].as_str().unwrap().contains("gate"), "{v}");
    let (status, v) = apprentice.ask("PUT", &done, Some(&json!({"step": "support", "done": true})));
    assert_eq!(status, 200, "{v}");
    assert_eq!(v["done"].as_array().unwrap().last().unwrap()["author"], "Apprentice");
    // A write without what only a page of ours was told.
    let mut forged = owner.on_device("Specialist A", &people["Specialist A"].1);
    forged.csrf = String::new();
    let (status, p) = forged.ask("POST", &format!("/api/v1/plans/{}/copy", ids["plan"]), Some(&json!({})));
    assert_eq!((status, &p["type"]), (403, &json!("urn:bold-stance:other-seat")));
    // Another shop on the same server: its owner finds nothing of ours by any of our ids.
    let (other, pin) = crate::trust_http::other_shop(&s);
    let mut theirs = Browser::new(&s.base);
    let (status, v) =
        theirs.ask("POST", "/api/v1/session/passphrase", Some(&json!({"login": other, "passphrase": pin})));
    assert_eq!(status, 200, "{v}");
    theirs.seated(&v["session"]);
    assert_eq!(theirs.get("/api/v1/jobs").as_array().unwrap().len(), 0);
    let text = |v: &Value| v.to_string();
    for (method, path, op) in &addresses {
        if needs(op).is_none() || !path.contains('{') {
            continue;
        }
        let (status, v) = theirs.ask(method, &filled(path, &ids), Some(&json!({})));
        if op == "fitArchetype" {
            continue;
        }
        assert!([400, 401, 403, 404, 422].contains(&status), "{method} {path} ({op}): {status} {v}");
        for ours in ["Quarry", "Only ours", "Larkspur", &ids["note"]] {
            assert!(
                !text(&v).contains(ours) || *ours == ids["note"] && path.contains("note"),
                "{method} {path}: {v}"
            );
        }
    }
    // Nothing of ours was changed by it.
    let now = owner.get(&format!("/api/v1/jobs/{job}"));
    assert_eq!(now["plans"], t["plans"]);
    assert_eq!(now["notes"][0]["text"], "Only ours.");
    // And nothing of ours stands in a list of theirs.
    for list in
        ["/api/v1/record", "/api/v1/people", "/api/v1/jobs.csv", "/api/v1/shop/memory", "/api/v1/parts.csv"]
    {
        let (_, v) = theirs.ask("GET", list, None);
        for ours in ["Quarry", "Only ours", "Larkspur", "Specialist A"] {
            assert!(!text(&v).contains(ours), "{list}");
        }
    }
}

fn open_shape(b: &Browser<'_>) -> String {
    b.get("/api/v1/archetypes")[0]["id"].as_str().unwrap_or("half_ton_front").to_owned()
}

/// Makes another shop on the same server, as its operator does; the name and passphrase of its owner.
pub fn other_shop(s: &Server) -> (String, String) {
    let phrase = "seventeen blue trestles".to_owned();
    let out = Command::new(env!("CARGO_BIN_EXE_bold-stance"))
        .args(["shop", "--name", "Another shop", "--owner", "Owner B", "--login", "another"])
        .args(["--database-url", &s.database.serving, "--owner-database-url", &s.database.owner])
        .env("BOLD_STANCE_PASSPHRASE", &phrase)
        .output()
        .unwrap();
    assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
    ("another".to_owned(), phrase)
}

#[test]
fn on_a_network_it_wants_an_owner_a_secret_and_somebody_who_speaks_tls() {
    let d = database();
    let public = |more: &[&str], secret: Option<&str>| {
        let mut c = Command::new(env!("CARGO_BIN_EXE_bold-stance"));
        c.args(["serve", "--listen", "127.0.0.1:0", "--public"])
            .args(["--database-url", &d.serving, "--owner-database-url", &d.owner])
            .args(more);
        if let Some(s) = secret {
            c.env("BOLD_STANCE_SESSION_SECRET", s);
        }
        let out = c.output().unwrap();
        (out.status.code(), String::from_utf8_lossy(&out.stderr).into_owned())
    };
    let secret = "0123456789abcdef0123456789abcdef";
    let (code, said) = public(&[], None);
    assert!(code == Some(2) && said.contains("BOLD_STANCE_SESSION_SECRET"), "{said}");
    let (code, said) = public(&[], Some(secret));
    assert!(code == Some(2) && said.contains("--tls-cert"), "{said}");
    let (code, said) = public(&["--behind-proxy"], Some(secret));
    assert!(code == Some(2) && said.contains("--hosts"), "{said}");
    let (code, said) = public(&["--behind-proxy", "--hosts", "shop.example"], Some(secret));
    assert!(code == Some(2) && said.contains("no owner"), "{said}");
    // With an owner it starts, answers to its names alone, and lets nobody in.
    let (mut first, base) = spawn(&d, &[]);
    let owner = Browser::new(&base);
    let mut named = claim();
    named["name"] = json!("Larkspur North");
    assert_eq!(owner.ask("POST", "/api/v1/shop/claim", Some(&named)).0, 201);
    first.kill().unwrap();
    first.wait().unwrap();
    let listen = ["--public", "--behind-proxy", "--hosts", "shop.example", "--session-secret", secret];
    let (mut child, base) = spawn(&d, &listen);
    let agent: Agent = Agent::config_builder().http_status_as_error(false).build().into();
    let at = |host: &str, path: &str| agent.get(format!("{base}{path}")).header("host", host).call().unwrap();
    assert_eq!(at("127.0.0.1", "/api/v1/session").status().as_u16(), 403);
    let page = at("shop.example", "/");
    let h = |n: &str| page.headers().get(n).map(|v| v.to_str().unwrap().to_owned()).unwrap_or_default();
    assert!(h("strict-transport-security").contains("max-age="));
    let csp = h("content-security-policy");
    assert!(csp.contains("script-src 'self'") && csp.contains("frame-ancestors 'none'"), "{csp}");
    assert!(!csp.split(';').any(|d| d.contains("script-src") && d.contains("unsafe")), "{csp}");
    assert_eq!(h("x-frame-options"), "DENY");
    assert!(Uuid::parse_str(&h("x-request-id")).is_ok());
    assert_eq!(at("shop.example", "/api/v1/jobs").status().as_u16(), 401);
    child.kill().unwrap();
    child.wait().unwrap();
}

#[test]
fn what_was_changed_is_in_the_record_and_what_is_personal_goes() {
    let s = Server::start();
    let mut owner = Browser::new(&s.base);
    owner.claim();
    let people = give_pins(&owner);
    let a = owner.on_device("Specialist A", &people["Specialist A"].1);
    let job = a.get("/api/v1/jobs")[0]["job"]["id"].as_str().unwrap().to_owned();
    let t = a.get(&format!("/api/v1/jobs/{job}"));
    let save = json!({"version": t["job"]["version"], "job": {"complaint": "Wanders on the quarry road, says the customer.", "bay": t["job"]["bay"],
        "kind": t["job"]["kind"], "plate": "LK 417", "odometer_km": 81000.0}});
    let (status, v) = a.ask("PUT", &format!("/api/v1/jobs/{job}/ticket"), Some(&save));
    assert_eq!(status, 200, "{v}");
    let (status, _) = a.ask(
        "POST",
        &format!("/api/v1/jobs/{job}/notes"),
        Some(&json!({"place": {"axle": "front", "side": "left"}, "text": "Phone the customer at noon."})),
    );
    assert_eq!(status, 201);
    assert_eq!(a.ask("GET", &format!("/api/v1/record?job={job}"), None).0, 403, "the owner's");
    let record = owner.get(&format!("/api/v1/record?job={job}"));
    let line = record
        .as_array()
        .unwrap()
        .iter()
        .find(|c| c["what"] == "job" && c["after"]["plate"] == "LK 417")
        .unwrap();
    assert_eq!((&line["member"], &line["device"]), (&json!("Specialist A"), &json!("Bay 2 tablet")));
    assert_eq!(line["after"]["plate"], "LK 417");
    assert_eq!(line["before"]["complaint"], t["job"]["complaint"]);
    let by = owner.get(&format!("/api/v1/record?member={}", people["Specialist A"].0));
    assert!(by.as_array().unwrap().iter().all(|c| c["member"] == "Specialist A"));
    let (status, table) = owner.ask("GET", "/api/v1/record.csv", None);
    assert!(status == 200 && table.as_str().unwrap().lines().count() > record.as_array().unwrap().len());
    // Personal: taken out of the ticket, the notes and the record; figures stay.
    assert_eq!(a.ask("POST", &format!("/api/v1/jobs/{job}/erase-personal"), Some(&json!({}))).0, 403);
    assert_eq!(owner.ask("POST", &format!("/api/v1/jobs/{job}/erase-personal"), Some(&json!({}))).0, 200);
    let now = owner.get(&format!("/api/v1/jobs/{job}"));
    assert_eq!((&now["job"]["complaint"], &now["job"]["plate"]), (&json!(""), &json!("")));
    assert_eq!(now["readings"], t["readings"]);
    for path in [
        format!("/api/v1/jobs/{job}"),
        format!("/api/v1/record?job={job}"),
        "/api/v1/record.csv".into(),
        format!("/api/v1/jobs/{job}/story"),
    ] {
        let (_, v) = owner.ask("GET", &path, None);
        for word in ["LK 417", "noon", "Wanders on the quarry"] {
            assert!(!v.to_string().contains(word), "{path} still says {word}");
        }
    }
    assert_eq!(
        owner.ask("POST", &format!("/api/v1/jobs/{}/erase-personal", Uuid::new_v4()), Some(&json!({}))).0,
        404
    );
}

/// With a certificate of its own it speaks TLS, its cookies go over nothing else, and its counters are told to nobody else.
#[test]
fn with_a_certificate_of_its_own_it_speaks_tls() {
    let d = database();
    let (mut first, base) = spawn(&d, &[]);
    assert_eq!(Browser::new(&base).ask("POST", "/api/v1/shop/claim", Some(&claim())).0, 201);
    first.kill().unwrap();
    first.wait().unwrap();
    let dir = std::path::PathBuf::from(env!("CARGO_TARGET_TMPDIR"));
    let (cert, key) = (dir.join("tls-cert.pem"), dir.join("tls-key.pem"));
    let made = Command::new("openssl")
        .args([
            "req",
            "-x509",
            "-newkey",
            "ec",
            "-pkeyopt",
            "ec_paramgen_curve:prime256v1",
            "-nodes",
            "-days",
            "2",
        ])
        .args(["-subj", "/CN=localhost", "-addext", "subjectAltName=DNS:localhost,IP:127.0.0.1"])
        .args(["-out".as_ref(), cert.as_os_str(), "-keyout".as_ref(), key.as_os_str()])
        .output()
        .unwrap();
    assert!(made.status.success(), "{}", String::from_utf8_lossy(&made.stderr));
    let (cert, key) = (cert.to_str().unwrap(), key.to_str().unwrap());
    let secret = "0123456789abcdef0123456789abcdef";
    let tls = ["--public", "--session-secret", secret, "--tls-cert", cert, "--tls-key", key];
    let (mut child, base) = spawn(&d, &tls);
    let at = base.strip_prefix("https://").expect(&base).to_owned();
    // The same client library the tests of others use: what curl sees is what a browser gets.
    let curl = |path: &str| {
        let out = Command::new("curl")
            .args(["-sS", "-i", "--max-time", "10", "--cacert", cert, &format!("https://{at}{path}")])
            .output()
            .unwrap();
        assert!(out.status.success(), "{}", String::from_utf8_lossy(&out.stderr));
        String::from_utf8_lossy(&out.stdout).into_owned()
    };
    assert!(curl("/api/v1/session").contains(" 200"));
    assert!(curl("/api/v1/jobs").contains(" 401"));
    assert!(curl("/").to_lowercase().contains("strict-transport-security"));
    assert!(curl("/metrics").contains("bold_stance_requests_total"), "this machine, under TLS too");
    // Without TLS nobody answers in words.
    let plain = Agent::config_builder().http_status_as_error(false).build();
    let plain: Agent = plain.into();
    assert!(plain.get(format!("http://{at}/api/v1/session")).call().is_err());
    // A key of another certificate is told at its flag.
    let wrong = Command::new(env!("CARGO_BIN_EXE_bold-stance"))
        .args(["serve", "--listen", "127.0.0.1:0", "--database-url", &d.serving])
        .args(["--public", "--session-secret", secret, "--tls-cert", cert, "--tls-key", cert])
        .output()
        .unwrap();
    assert!(String::from_utf8_lossy(&wrong.stderr).contains("--tls-key"), "{wrong:?}");
    child.kill().unwrap();
    child.wait().unwrap();
}
