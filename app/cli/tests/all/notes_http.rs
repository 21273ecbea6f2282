//! Notes, photos, kinds of a ticket, readings put right and shapes of a shop, over HTTP on a real PostgreSQL.

use crate::server;
use base64::Engine;
use base64::prelude::BASE64_STANDARD;
use serde_json::{Value, json};
use server::{Server, fields};
use uuid::Uuid;

/// The smallest grey JPEG with an EXIF segment that tells where it was taken (ISO/IEC 10918-1, put together by hand).
fn jpeg(width: u16, height: u16) -> Vec<u8> {
    let mut out = vec![0xff, 0xd8];
    let mut segment = |marker: u8, body: &[u8]| {
        let n = u16::try_from(body.len() + 2).unwrap().to_be_bytes();
        out.extend([0xff, marker, n[0], n[1]]);
        out.extend(body);
    };
    segment(0xe1, b"Exif\0\0GPS 12.34 56.78");
    let mut table = vec![0];
    table.extend([16; 64]);
    segment(0xdb, &table);
    let (h, w) = (height.to_be_bytes(), width.to_be_bytes());
    segment(0xc0, &[8, h[0], h[1], w[0], w[1], 1, 1, 0x11, 0]);
    segment(0xc4, &[0, 1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0]);
    segment(0xda, &[1, 1, 0, 0, 63, 0]);
    out.extend([0x00, 0xff, 0xd9]);
    out
}

fn place() -> Value {
    json!({"axle": "front", "side": "left"})
}

#[test]
fn a_photo_is_kept_without_where_it_was_taken_and_no_more_than_twelve() {
    let s = Server::start();
    let t = s.truck();
    let at = format!("/api/v1/jobs/{}/notes", t["job"]["id"].as_str().unwrap());
    let photo = BASE64_STANDARD.encode(jpeg(640, 480));
    let (status, t) = s.post(&at, &json!({"place": place(), "text": " boot torn ", "photo": photo}));
    assert_eq!(status, 201, "{t}");
    let n = &t["notes"][0];
    assert_eq!((n["text"].as_str(), &n["photo"]), (Some("boot torn"), &json!({"width": 640, "height": 480})));
    assert!(n["jpeg"].is_null(), "the photo itself is fetched by its own address");
    let url = format!("{}{at}/{}/photo.jpg", s.base, n["id"].as_str().unwrap());
    let mut r = s.agent.get(&url).call().unwrap();
    assert_eq!(r.headers()["content-type"], "image/jpeg");
    let bytes = r.body_mut().read_to_vec().unwrap();
    assert!(bytes.starts_with(&[0xff, 0xd8]) && !bytes.windows(3).any(|w| w == b"GPS"));
    for k in 1..12 {
        assert_eq!(s.post(&at, &json!({"place": place(), "text": "", "photo": photo})).0, 201, "{k}");
    }
    let (status, p) = s.post(&at, &json!({"place": place(), "photo": photo}));
    assert_eq!((status, fields(&p)), (422, vec!["photo".to_owned()]));
    // Words alone still go in; a struck note leaves room again.
    assert_eq!(s.post(&at, &json!({"place": place(), "text": "and so on"})).0, 201);
    let gone = format!("{at}/{}", n["id"].as_str().unwrap());
    assert_eq!(s.send("DELETE", &gone, None).0, 200);
    assert_eq!(s.send("DELETE", &gone, None).0, 404);
    assert_eq!(s.agent.get(&url).call().unwrap().status().as_u16(), 404);
    assert_eq!(s.post(&at, &json!({"place": place(), "photo": photo})).0, 201);
}

#[test]
fn what_is_no_note_is_refused_at_its_field() {
    let s = Server::start();
    let t = s.truck();
    let at = format!("/api/v1/jobs/{}/notes", t["job"]["id"].as_str().unwrap());
    for (body, status, field) in [
        (json!({"place": place(), "text": "  "}), 422, "text"),
        (json!({"place": place(), "text": "x".repeat(601)}), 422, "text"),
        (json!({"place": place(), "photo": "not base 64!"}), 422, "photo"),
        (json!({"place": place(), "photo": BASE64_STANDARD.encode(b"GIF89a")}), 422, "photo"),
        (json!({"place": place(), "photo": BASE64_STANDARD.encode(jpeg(4000, 3000))}), 422, "photo"),
        (json!({"place": {"axle": "middle", "side": "left"}, "text": "x"}), 400, "place.axle"),
    ] {
        let (got, p) = s.post(&at, &body);
        assert_eq!((got, fields(&p)[0].as_str()), (status, field), "{p}");
    }
    assert_eq!(s.post(&at, &json!({"place": place(), "photo": "A".repeat(900_000)})).0, 413);
    let nobody = format!("/api/v1/jobs/{}/notes", Uuid::new_v4());
    assert_eq!(s.post(&nobody, &json!({"place": place(), "text": "x"})).0, 404);
    assert!(s.truck()["notes"].as_array().unwrap().is_empty());
}

#[test]
fn a_ticket_is_told_what_it_is_for_over_its_version() {
    let s = Server::start();
    let t = s.truck();
    let id = t["job"]["id"].as_str().unwrap();
    let at = format!("/api/v1/jobs/{id}/ticket");
    let job = json!({"complaint": "wears its inner edges", "bay": 1, "kind": "wear"});
    let (status, t2) = s.put(&at, &json!({"version": t["job"]["version"], "job": job}));
    assert_eq!((status, t2["job"]["kind"].as_str()), (200, Some("wear")));
    let order = t2["visits"][0]["picture"]["order"].as_array().unwrap();
    assert_eq!(
        (order[0]["group"].as_str(), order[0]["quantity"].as_str()),
        (Some("first"), Some("tread_depth"))
    );
    assert_eq!(s.put(&at, &json!({"version": t["job"]["version"], "job": job})).0, 409);
    let wild = json!({"complaint": "x", "bay": 400, "kind": "wear"});
    let (status, p) = s.put(&at, &json!({"version": t2["job"]["version"], "job": wild}));
    assert_eq!((status, fields(&p)), (422, vec!["job.bay".to_owned()]));
    let shop = s.get("/api/v1/shop");
    let kinds = shop["tickets"].as_array().unwrap();
    assert!(kinds.len() == 8 && kinds.iter().all(|k| !k["title"].as_str().unwrap().is_empty()));
}

#[test]
fn a_floor_told_later_puts_readings_right_as_new_ones() {
    let s = Server::start();
    let t = s.truck();
    let id = t["job"]["id"].as_str().unwrap();
    let reading = json!({"id": Uuid::new_v4(), "visit": "found", "axle": "front", "side": "left", "method": "camber-gauge",
        "entries": [{"name": "angle", "text": "-0.5"}], "unit": "mm"});
    let (status, t) = s.post(&format!("/api/v1/jobs/{id}/readings"), &reading);
    assert_eq!(status, 201, "{t}");
    let found = |t: &Value| t["visits"][0].clone();
    let v = found(&t);
    let mut answers = v["answers"].clone();
    answers["floor_front"] = json!("0.6");
    let (status, t) = s.put(
        &format!("/api/v1/jobs/{id}/visits/found"),
        &json!({"version": v["version"], "answers": answers}),
    );
    assert_eq!(status, 200, "{t}");
    assert!(found(&t)["suspicions"].as_array().unwrap().iter().any(|x| x["rule"] == "floor_changed"), "{t}");
    let before = t["readings"].as_array().unwrap().len();
    let (status, t) = s.send("POST", &format!("/api/v1/jobs/{id}/visits/found/put-right"), None);
    assert_eq!(status, 200, "{t}");
    let all = t["readings"].as_array().unwrap();
    let new: Vec<&Value> = all[before..].iter().collect();
    // The left top leans out with a floor that falls to the left: that is taken out, the old reading stays on record.
    assert_eq!(new.len(), 1, "{new:?}");
    assert!((new[0]["value"].as_f64().unwrap() + 1.1).abs() < 1e-9, "{}", new[0]);
    assert_eq!(new[0]["replaces"], reading["id"]);
    assert_eq!(new[0]["taken_at"], all.iter().find(|r| r["id"] == reading["id"]).unwrap()["taken_at"]);
    assert!(found(&t)["suspicions"].as_array().unwrap().iter().all(|x| x["rule"] != "floor_changed"), "{t}");
    // Nothing more to put right.
    let (_, t) = s.send("POST", &format!("/api/v1/jobs/{id}/visits/found/put-right"), None);
    assert_eq!(t["readings"].as_array().unwrap().len(), before + 1);
}

#[test]
fn a_measured_axle_becomes_a_shape_of_the_shop() {
    let s = Server::start();
    let t = s.truck();
    let id = t["job"]["id"].as_str().unwrap();
    let at = format!("/api/v1/jobs/{id}/shapes");
    let (status, k) = s.post(&at, &json!({"axle": "front", "name": "Quarry front"}));
    assert_eq!((status, k["id"].as_str()), (201, Some("own-quarry-front")), "{k}");
    let all = s.get("/api/v1/archetypes");
    assert_eq!(
        (all[0]["name"].as_str(), all[0]["own"].as_bool(), all[0]["knowledge"].as_str()),
        (Some("Quarry front"), Some(true), Some("surveyed"))
    );
    assert!(!all[0]["adjusters"].as_array().unwrap().is_empty());
    let (status, p) = s.post(&at, &json!({"axle": "front", "name": "Quarry front"}));
    assert_eq!((status, fields(&p)), (422, vec!["name".to_owned()]));
    // It is taped like any other, and gone when it is removed.
    let fit = json!({"taped": [], "wheelbase_mm": 3220.0});
    assert_eq!(s.post("/api/v1/archetypes/own-quarry-front/fit", &fit).0, 200);
    assert_eq!(s.send("DELETE", "/api/v1/shapes/own-quarry-front", None).0, 204);
    assert_eq!(s.send("DELETE", "/api/v1/shapes/own-quarry-front", None).0, 404);
    assert_eq!(s.post("/api/v1/archetypes/own-quarry-front/fit", &fit).0, 422);
}

#[test]
fn a_window_off_a_makers_sheet_is_read_in_degrees() {
    let s = Server::start();
    let ask = |quantity: &str, text: &str| {
        s.post("/api/v1/aim-window", &json!({"quantity": quantity, "text": text, "tyre_diameter_mm": 700.0}))
    };
    let (status, w) = ask("total_toe", "2 ± 1 mm");
    assert_eq!(status, 200);
    assert!((w["window_deg"][1].as_f64().unwrap() - (3.0f64 / 700.0).asin().to_degrees()).abs() < 1e-9);
    let (status, p) = ask("camber", "one to two");
    assert_eq!((status, fields(&p)), (422, vec!["text".to_owned()]));
}
