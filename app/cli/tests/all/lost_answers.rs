//! Answers that let somebody in and are lost on their way: the same request, sent again, hands out the same, and makes nothing
//! a second time.

use crate::browser::{Browser, claim, code_of, give_pins};
use crate::server::{Server, spawn};
use serde_json::{Value, json};

#[test]
fn a_first_run_whose_answer_was_lost_is_not_locked_out() {
    let s = Server::start();
    let mut b = Browser::new(&s.base);
    b.lost("POST", "/api/v1/shop/claim", &claim());
    assert_eq!(b.ask("GET", "/api/v1/jobs", None).0, 401, "the shop is locked, and this browser is nobody");
    let (status, v) = b.ask("POST", "/api/v1/shop/claim", Some(&claim()));
    assert_eq!(status, 201, "{v}");
    assert_eq!(v["session"]["who"]["name"], "Owner");
    b.seated(&v["session"]);
    let slip = v["slip"].as_str().unwrap().to_owned();
    let people = b.get("/api/v1/people");
    assert_eq!(people["devices"].as_array().unwrap().len(), 1, "one device");
    assert_eq!(people["sitting"].as_array().unwrap().len(), 1, "one session");
    // With another body the key stands for another write, and the shop has its owner.
    let mut other = claim();
    other["pin"] = json!("5082");
    let stranger = Browser::new(&s.base);
    stranger.key.set(b.key.get());
    assert_eq!(stranger.ask("POST", "/api/v1/shop/claim", Some(&other)).0, 422);
    // The slip of the second answer is the one that is kept; it counts once, and its own lost answer too.
    let body = json!({"slip": slip, "pin": "8361", "device": "Kitchen table"});
    let mut far = Browser::new(&s.base);
    far.lost("POST", "/api/v1/shop/slip", &body);
    let (status, v) = far.ask("POST", "/api/v1/shop/slip", Some(&body));
    assert_eq!(status, 201, "{v}");
    assert_ne!(v["slip"], json!(slip));
    far.seated(&v["session"]);
    assert_eq!(far.get("/api/v1/people")["devices"].as_array().unwrap().len(), 2);
    far.key.set(None);
    assert_eq!(far.ask("POST", "/api/v1/shop/slip", Some(&body)).0, 422, "the old slip is spent");
}

#[test]
fn a_device_and_a_sign_in_whose_answers_were_lost_are_there_once() {
    let s = Server::start();
    let mut owner = Browser::new(&s.base);
    owner.claim();
    let people = give_pins(&owner);
    let (id, pin) = &people["Specialist A"];
    owner.key.set(Some(uuid::Uuid::new_v4()));
    let [(_, once), (_, again)] =
        [(); 2].map(|()| owner.ask("POST", "/api/v1/devices/code", Some(&json!({}))));
    assert_eq!(once["code"], again["code"]);
    let tablet = Browser::new(&s.base);
    let enrol = json!({"code": once["code"], "name": "Bay 2 tablet"});
    tablet.lost("POST", "/api/v1/devices/enrol", &enrol);
    assert_eq!(tablet.get("/api/v1/session")["names"], json!([]), "not a device yet, as far as it knows");
    assert_eq!(tablet.ask("POST", "/api/v1/devices/enrol", Some(&enrol)).0, 201);
    let open = json!({"member": id, "pin": pin});
    tablet.lost("POST", "/api/v1/session/pin", &open);
    let (status, v) = tablet.ask("POST", "/api/v1/session/pin", Some(&open));
    assert_eq!((status, &v["who"]["name"]), (200, &json!("Specialist A")), "{v}");
    let here = json!({"name": "Front office, again"});
    owner.lost("POST", "/api/v1/devices/here", &here);
    assert_eq!(owner.ask("POST", "/api/v1/devices/here", Some(&here)).0, 201);
    let now = owner.get("/api/v1/people");
    let devices: Vec<&Value> = now["devices"].as_array().unwrap().iter().map(|d| &d["name"]).collect();
    assert_eq!(devices.len(), 3, "{devices:?}");
    assert_eq!(now["sitting"].as_array().unwrap().len(), 2, "owner and specialist, once each");
}

#[test]
fn a_code_of_the_second_factor_that_was_taken_opens_when_its_answer_was_lost() {
    let s = Server::start();
    let mut owner = Browser::new(&s.base);
    owner.claim();
    let people = owner.get("/api/v1/people");
    let me = people["members"].as_array().unwrap().iter().find(|m| m["member"]["role"] == "owner").unwrap();
    let path = format!("/api/v1/people/{}/passphrase", me["member"]["id"].as_str().unwrap());
    let phrase = "gravel over the north gate";
    let set = json!({"login": "larkspur", "passphrase": phrase, "second_factor": true});
    let (status, v) = owner.ask("PUT", &path, Some(&set));
    assert_eq!(status, 200, "{v}");
    let code = code_of(v["second_factor"]["secret"].as_str().unwrap());
    let body = json!({"login": "larkspur", "passphrase": phrase, "code": code});
    let far = Browser::new(&s.base);
    far.lost("POST", "/api/v1/session/passphrase", &body);
    let (status, v) = far.ask("POST", "/api/v1/session/passphrase", Some(&body));
    assert_eq!((status, &v["session"]["who"]["name"]), (200, &json!("Owner")), "{v}");
    let other = Browser::new(&s.base);
    let (status, _) = other.ask("POST", "/api/v1/session/passphrase", Some(&body));
    assert_eq!(status, 422, "for anybody else it is spent");
}

/// The first process died before it could say so; another one, whose shelf is from before, is asked again.
#[test]
fn a_part_that_was_kept_by_another_process_is_told_as_it_is() {
    let s = Server::start();
    let (mut other, base) = spawn(&s.database, &[]);
    let mut part = s.get("/api/v1/parts")[0]["part"].clone();
    part["id"] = json!("kept-once");
    let body = json!({"version": 0, "part": part});
    let (here, there) = (Browser::new(&s.base), Browser::new(&base));
    there.get("/api/v1/parts");
    here.lost("PUT", "/api/v1/parts/kept-once", &body);
    there.key.set(here.key.get());
    let (status, v) = there.ask("PUT", "/api/v1/parts/kept-once", Some(&body));
    other.kill().unwrap();
    other.wait().unwrap();
    assert_eq!((status, &v["part"]["id"], &v["version"]), (200, &json!("kept-once"), &json!(1)), "{v}");
}
