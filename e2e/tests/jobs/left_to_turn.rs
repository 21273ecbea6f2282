//! A cam turned two notches too far, told so, read, and walked back by what is left to turn: at 1024 x 768, readings in
//! degrees and minutes, a word where a count belongs, a reading taken again.
use crate::harness::App;
use serde_json::Value;

fn minutes(deg: f64) -> String {
    let m = (deg.abs() * 60.0).round() as i64;
    format!("{}{}°{:02}'", if deg < 0.0 { "-" } else { "" }, m / 60, m % 60)
}

#[tokio::test]
async fn a_cam_two_notches_too_far_is_walked_back_by_what_was_read() {
    let a = App::start(1024, 768).await;
    a.open("/").await;
    let id = a.job("Tern estate").await;
    let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    let plan = t["job"]["plan_id"].as_str().unwrap().to_owned();
    let sheet_at = format!("/api/v1/plans/{plan}/sheet");
    let sheet = a.fetch(&sheet_at).await;
    a.open(&format!("/job/{id}/set")).await;
    a.front_height_set(&sheet).await;
    a.until("set-now", |t| t.starts_with("Cams")).await;

    // A word is no count: said at its field, nothing done, nothing lost.
    a.press("order-right-front-cam").await;
    a.until("in-hand-amount", |t| t.contains("notch")).await;
    a.fill("[data-testid=really-right-front-cam]", "two too far").await;
    a.until("step-done", |t| t == "Done as typed").await;
    a.press("step-done").await;
    a.until("in-hand", |t| t.contains("cannot be read") && t.contains("1 3/4")).await;
    a.fill("[data-testid=really-right-front-cam]", "300").await;
    a.press("step-done").await;
    a.until("in-hand", |t| t.contains("past its end") && t.contains("counted the ordered way")).await;
    a.until("set-now", |t| t.starts_with("Cams")).await;
    let ordered = sheet["answer"]["orders"].as_array().unwrap().iter();
    let line = |o: &&Value| o["side"] == "right" && o["line"]["name"] == "Front cam";
    let ordered = ordered.clone().find(line).unwrap()["line"].clone();
    let notches = ordered["steps"].as_f64().unwrap();
    a.fill("[data-testid=really-right-front-cam]", &format!("{}", notches.abs() + 2.0)).await;
    // One after the other, as they are done: the last ends the step. A reload on the way loses nothing.
    a.press("as-ordered").await;
    let told = format!("{}", notches.abs() + 2.0);
    a.until("order-right-front-cam", |t| t.contains(&told)).await;
    a.open(&format!("/job/{id}/set")).await;
    a.until("order-right-front-cam", |t| t.contains(&told)).await;
    let turned = sheet["steps"].as_array().unwrap().iter().find(|s| s["id"] == "cams").unwrap();
    let turned = turned["orders"].as_array().unwrap().iter().filter(|o| o["line"]["direction"] != "leave");
    for _ in 1..turned.count() {
        a.press("as-ordered").await;
    }
    a.until("set-now", |t| t.starts_with("Settle, re-sweep")).await;
    let kept = format!("really {}", notches.abs() + 2.0);
    a.until("step-cams", |t| t.contains(&kept)).await;

    a.gate_ticks("reswept", 3).await;
    // Nobody knows yet what is left: nothing was read since.
    let now = a.fetch(&sheet_at).await;
    assert_eq!(now["left"].as_array().unwrap().len(), 0);
    // A first reading, then one of a car that does what its model says.
    for side in ["left", "right"] {
        a.gate_read("camber", side, "-0°30'").await;
        a.gate_read("caster", side, "5°00'").await;
    }
    let expected = a.fetch(&sheet_at).await["left"][0]["sides"].clone();
    for side in ["left", "right"] {
        let of = |k: usize| minutes(expected[side]["expected"][k].as_f64().unwrap());
        a.gate_read("camber", side, &of(0)).await;
        a.gate_read("caster", side, &of(1)).await;
    }
    a.until("left-words-right", |t| t.starts_with("Left to turn")).await;
    let both = a.fetch(&sheet_at).await["left"][0]["sides"].clone();
    let left = both["right"].clone();
    let back = left["orders"].as_array().unwrap().iter().find(|l| l["name"] == "Front cam").unwrap().clone();
    let step = ordered["movement"].as_f64().unwrap() / notches;
    let stands = back["position"].as_f64().unwrap() - back["movement"].as_f64().unwrap();
    assert!((stands - ordered["position"].as_f64().unwrap() - 2.0 * step * notches.signum()).abs() < 1e-6);
    assert!(back["movement"].as_f64().unwrap() * ordered["movement"].as_f64().unwrap() < 0.0, "{back}");
    a.until("left-right-front-cam", |t| t.contains(back["words"].as_str().unwrap())).await;
    // The drawing is of what is left, from where the cam stands.
    let drawn = a.text("set-right-front-cam").await;
    assert!(back["words"].as_str().unwrap().starts_with(&drawn), "{drawn} of {back}");

    // Turned as ordered: kept, and what was read before it counts no more.
    a.press("turned-again").await;
    a.until("step-cams", |t| t.contains("again: right front cam")).await;
    a.until("gate-off", |t| t.contains("before")).await;
    let now = a.fetch(&sheet_at).await;
    assert_eq!(now["left"].as_array().unwrap().len(), 0);
    for side in ["left", "right"] {
        a.gate_read("camber", side, &minutes(both[side]["expect"][0].as_f64().unwrap())).await;
        a.gate_read("caster", side, &minutes(both[side]["expect"][1].as_f64().unwrap())).await;
    }
    let now = a.fetch(&sheet_at).await["left"][0]["sides"]["right"].clone();
    assert_eq!(now["rounds"], 2);
    let cams = now["orders"].as_array().unwrap().iter().filter(|l| l["is_cam"] == true);
    assert!(cams.clone().all(|l| l["direction"] == "leave"), "{now}");
    // Taken back once, the second turn alone is gone.
    let css = "[data-testid=step-cams] button";
    a.click(css).await;
    a.until("step-cams", |t| t.contains(&kept) && !t.contains("again:")).await;
    a.finish().await;
}

/// In inches, at a shop that turns collars: short of turns first, then gone on from at the height it has.
#[tokio::test]
async fn a_height_gate_25_mm_out_is_trimmed_and_gone_on_from_at_the_height_it_has() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = a.job("Tern estate").await;
    let plan = a.fetch(&format!("/api/v1/jobs/{id}")).await["job"]["plan_id"].as_str().unwrap().to_owned();
    let sheet_at = format!("/api/v1/plans/{plan}/sheet");
    let sheet = a.fetch(&sheet_at).await;
    let planned =
        |s: &Value, side: &str| s["answer"]["axles"]["front"][side]["planned_height_mm"].as_f64().unwrap();
    let inches = |mm: f64| format!("{:.3} in", mm / 25.4);
    a.open(&format!("/job/{id}/set")).await;
    for title in ["Stand and mark", "Set front height"] {
        a.until("set-now", |t| t == title).await;
        a.press("step-done").await;
    }
    a.until("set-now", |t| t.starts_with("Settle, re-read")).await;
    a.gate_ticks("settled", 2).await;
    a.gone("[data-testid=gate-trims]").await;
    let right = planned(&sheet, "right");
    a.gate_read("height", "left", &inches(planned(&sheet, "left"))).await;
    a.gate_read("height", "right", &inches(right - 25.4)).await;
    a.until("corner-front-right", |t| t.contains("−25 mm, too low")).await;
    a.until("corner-front-left", |t| t.contains("as planned")).await;
    a.press("by-collar").await;
    let first = a.until("trim-words", |t| t.ends_with("up")).await;
    a.fill("[data-testid=trim-really]", "4").await;
    a.press("trimmed").await;
    a.until("corner-front-right", |t| t.contains("tape it again")).await;
    a.until("gate-off", |t| t.contains("before the last work")).await;
    a.gate_read("height", "left", &inches(planned(&sheet, "left"))).await;
    a.gate_read("height", "right", &inches(right - 19.0)).await;
    // Four turns gave 6.4 mm: the next order goes by that.
    a.until("trim-words", |t| t.ends_with("up") && t != first).await;
    a.until("trim", |t| t.contains("by one that was recorded")).await;

    // Gone on from at the height it has: everything after is worked out there, and the reason is kept.
    a.fill("[data-testid=gate-reason]", "collar is at its end").await;
    a.fill("[data-testid=gate-signed]", "Specialist A").await;
    a.press("gate-pass").await;
    a.until("set-now", |t| t.starts_with("Cams")).await;
    a.until("step-settled", |t| t.contains("collar is at its end")).await;
    let now = a.fetch(&sheet_at).await;
    assert!((planned(&now, "right") - (right - 19.0)).abs() < 0.5, "{}", planned(&now, "right"));
    assert!((planned(&now, "left") - planned(&sheet, "left")).abs() < 0.5);
    a.gone("[data-testid=gate-trims]").await;
    a.finish().await;
}
