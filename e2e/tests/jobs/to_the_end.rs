//! A car from its sheet to the end: set, proved and accepted by name, handed over, back with 9 mm lost at one corner and turned
//! up again, due on a day, closed and opened again. At 1280 x 800, the return on a phone.
use crate::harness::App;
use serde_json::Value;

/// What is said of an angle of a front wheel, degrees.
fn said(sheet: &Value, side: &str, angle: &str) -> f64 {
    let wheels = sheet["proved"]["wheels"].as_array().unwrap();
    let w = wheels.iter().find(|w| w["axle"] == "front" && w["side"] == side).unwrap();
    let a = w["angles"].as_array().unwrap().iter().find(|a| a["angle"] == angle).unwrap();
    a["said_deg"].as_f64().unwrap()
}

#[tokio::test]
async fn a_car_is_proved_handed_over_and_trimmed_when_it_comes_back() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = a.job("Tern estate").await;
    let ticket = format!("/api/v1/jobs/{id}");
    let plan = a.fetch(&ticket).await["job"]["plan_id"].as_str().unwrap().to_owned();
    let at = format!("/api/v1/plans/{plan}/sheet");
    let sheet = a.fetch(&at).await;

    // Before anything is turned: said, and what is before it.
    a.open(&format!("/job/{id}/prove")).await;
    a.until("prove-headline", |t| t == "Nothing is turned yet").await;
    a.press("to-set").await;
    a.front_height_set(&sheet).await;
    a.until("set-now", |t| t.starts_with("Cams")).await;
    a.press("step-done").await;
    a.until("set-now", |t| t.starts_with("Settle, re-sweep")).await;

    // Read at the Prove stage before its gate has its turn: partial looks are welcome.
    a.open(&format!("/job/{id}/prove")).await;
    a.until("prove-headline", |t| t.starts_with("Read it")).await;
    let now = a.fetch(&at).await;
    for angle in ["camber", "caster"] {
        a.gate_read(angle, "left", &format!("{:.2}", said(&now, "left", angle))).await;
    }
    let name = a.id("quoits-front").await.attr("aria-label").await.unwrap().unwrap();
    assert!(name.contains("left front: said") && name.contains("right front: said"), "{name}");
    // One that comes far off: named with side, angle and which way, with what could explain it and one look.
    a.gate_read("camber", "right", &format!("{:.2}", said(&now, "right", "camber") + 2.6)).await;
    a.gate_read("caster", "right", &format!("{:.2}", said(&now, "right", "caster"))).await;
    a.until("prove-headline", |t| t.starts_with("Right front camber") || t.starts_with("Front camber")).await;
    a.until("explains", |t| t.contains("in 100")).await;
    a.until("prove-look", |t| t.starts_with("One look")).await;
    a.until("wheel-front-right", |t| t.contains("camber") && t.contains("otherwise")).await;
    a.gate_read("camber", "right", &format!("{:.2}", said(&now, "right", "camber"))).await;

    // The rest of the sheet; its gate may be off aim on this car, then it is passed with a reason and a name.
    a.open(&format!("/job/{id}/set")).await;
    a.until("set-now", |t| t.starts_with("Settle, re-sweep")).await;
    // Rolled and bounced first: a tape of a car that was not is doubted for it.
    a.gate_ticks("reswept", 3).await;
    for side in ["left", "right"] {
        let now = a.fetch(&at).await;
        for angle in ["camber", "caster"] {
            a.gate_read(angle, side, &format!("{:.2}", said(&now, side, angle))).await;
        }
        // Cams move heights too: they are taped again.
        let mm = now["answer"]["axles"]["front"][side]["planned_height_mm"].as_f64().unwrap();
        a.gate_read("height", side, &format!("{mm:.0} mm")).await;
    }
    pass(&a).await;
    for title in ["Tie rods", "Tighten at ride height"] {
        a.until("set-now", |t| t == title).await;
        a.press("step-done").await;
    }
    a.until("set-now", |t| t.starts_with("Prove")).await;
    a.open(&format!("/job/{id}/prove")).await;
    a.gone("[data-testid=prove-waits]").await;
    for side in ["left", "right"] {
        let now = a.fetch(&at).await;
        for angle in ["camber", "caster", "toe"] {
            let unit = if angle == "toe" { " deg" } else { "" };
            a.gate_read(angle, side, &format!("{:.2}{unit}", said(&now, side, angle))).await;
        }
    }
    a.gate_ticks("proved", 2).await;
    // Nobody stands for it yet.
    a.fill("[data-testid=gate-signed]", "x").await;
    assert!(a.id("gate-pass").await.attr("disabled").await.unwrap().is_some());
    pass(&a).await;
    a.until("prove-signed", |t| t.contains("Accepted by Specialist A")).await;

    // A step taken back: nobody stands for the car any more, until it is done and accepted again.
    a.open(&format!("/job/{id}/set")).await;
    a.click("[data-testid=step-tighten] button").await;
    a.until("set-now", |t| t == "Tighten at ride height").await;
    a.open(&format!("/job/{id}/prove")).await;
    a.until("prove-waits", |t| t.contains("Tighten")).await;
    a.gone("[data-testid=prove-signed]").await;
    a.open(&format!("/job/{id}/set")).await;
    a.press("step-done").await;
    a.until("set-now", |t| t.starts_with("Prove")).await;
    a.open(&format!("/job/{id}/prove")).await;
    for side in ["left", "right"] {
        let now = a.fetch(&at).await;
        for angle in ["camber", "caster", "toe"] {
            let unit = if angle == "toe" { " deg" } else { "" };
            a.gate_read(angle, side, &format!("{:.2}{unit}", said(&now, side, angle))).await;
        }
    }
    pass(&a).await;
    a.until("prove-signed", |t| t.contains("Accepted by Specialist A")).await;

    // Driven: the steering wheel stands off, a way is asked for, and both rods put it straight.
    a.fill("[data-testid=road-off]", "6").await;
    a.press("road-keep").await;
    a.until("road-test", |t| t.contains("which way is not said")).await;
    a.press("road-left").await;
    a.press("road-keep").await;
    a.until("road-headline", |t| t.contains("6° to the left")).await;
    let [l, r] = [a.text("rod-left").await, a.text("rod-right").await];
    assert!(l.contains("longer") != r.contains("longer"), "{l} {r}: total toe stays");
    a.press("road-turned").await;
    a.until("road-headline", |t| t.contains("drive it again")).await;
    // Toe is read again, and the car stood for again: what was read before both rods were turned is stale.
    a.gone("[data-testid=prove-signed]").await;
    a.until("gate-off", |t| t.contains("before the last work")).await;
    for side in ["left", "right"] {
        let now = a.fetch(&at).await;
        a.gate_read("toe", side, &format!("{:.2} deg", said(&now, side, "toe"))).await;
    }
    pass(&a).await;
    a.until("prove-signed", |t| t.contains("Accepted by Specialist A")).await;
    a.press("road-keep").await;
    a.until("road-headline", |t| t.contains("stands straight")).await;

    // The page for the owner: what was read and done, what is not promised.
    a.press("to-handover").await;
    a.until("ho-front-left", |t| t.contains("→") && !t.contains("not read")).await;
    let page = a.text("handover").await;
    for words in
        ["What was done", "Tie rods", "Please watch", "Headlights", "Not read, not promised", "Brakes"]
    {
        assert!(page.contains(words), "{words} in {page}");
    }

    // Two weeks on, on a phone: due first, then here with 9 mm lost at the right front.
    a.c.set_window_size(390, 844).await.unwrap();
    a.open(&format!("/job/{id}/return")).await;
    a.until("return-headline", |t| t == "Not back yet").await;
    // A second tablet was first: it is said, what it did is fetched, and pressed again it is kept.
    let body = "const d=arguments[arguments.length-1];fetch(arguments[0]+'/aftercare',{method:'POST',headers:{'content-type':'application/json','idempotency-key':crypto.randomUUID()},body:JSON.stringify({version:arguments[1],what:{act:'look_next',after_km:750}})}).then(r=>d(r.status))";
    let version = a.fetch(&ticket).await["job"]["version"].clone();
    let status = a.c.execute_async(body, vec![serde_json::json!(ticket), version]).await.unwrap();
    assert_eq!(status, 200);
    a.fill("[data-testid=look-far]", "900").await;
    a.press("look-next").await;
    a.until("due", |t| t.contains("750")).await;
    assert_eq!(a.id("look-far").await.prop("value").await.unwrap().as_deref(), Some("900"));
    a.press("look-next").await;
    a.until("due", |t| t.contains("900")).await;
    a.fill("[data-testid=driven]", "six hundred").await;
    a.el("[data-testid=driven][aria-invalid=true]").await;
    a.fill("[data-testid=driven]", "610").await;
    a.press("came-back").await;
    a.until("return-headline", |t| t.starts_with("Roll it")).await;
    let front = &sheet["answer"]["axles"]["front"];
    let mm = |side: &str, less: f64| {
        format!("{:.0} mm", front[side]["planned_height_mm"].as_f64().unwrap().round() - less)
    };
    for ready in ["settled", "pressures"] {
        a.click(&format!("[data-testid=ready-{ready}]")).await;
        let answered = format!("[data-testid=ready-{ready}]:checked:not(:disabled)");
        a.el(&answered).await;
    }
    for (side, less) in [("left", 2.0), ("right", 9.0)] {
        a.press(&format!("corner-front-{side}")).await;
        a.dialog_read("height", &mm(side, less)).await;
    }
    // It was said to settle by 4 mm.
    a.until("return-headline", |t| t == "Right front settled 5 mm too far").await;
    // The trim at the desk.
    a.c.set_window_size(1280, 800).await.unwrap();
    a.press("by-collar").await;
    // 5 mm at 2 mm a turn.
    a.until("trim-words", |t| t == "2 1/2 turns up").await;
    a.fill("[data-testid=trim-really]", "a few").await;
    a.press("trimmed").await;
    a.until("trim", |t| t.contains("cannot be read")).await;
    a.fill("[data-testid=trim-really]", "2 1/4").await;
    a.press("trimmed").await;
    a.until("trims", |t| t.contains("really 2 1/4")).await;
    a.until("return-headline", |t| t.starts_with("Trimmed")).await;
    a.press("tape").await;
    a.dialog_read("height", &mm("right", 4.0)).await;
    // The rear's height was not taped when it was set: nothing is said of it.
    a.until("return-headline", |t| t == "2 of 4 corners as said so far").await;
    let back = a.fetch(&at).await["returned"].clone();
    assert_eq!(back["driven_km"], 610.0);
    assert_eq!(back["time"], 1);

    // Closed by a name: gone from the open jobs, found among the closed, and open again when it is here again.
    a.fill("[data-testid=close-name]", "Specialist A").await;
    a.press("close-job").await;
    a.until("job-closed", |t| t.contains("Specialist A")).await;
    let open = a.fetch("/api/v1/jobs").await;
    assert!(open.as_array().unwrap().iter().all(|j| j["job"]["id"] != id.as_str()));
    let closed = a.fetch("/api/v1/jobs?closed=true").await;
    assert_eq!(closed.as_array().unwrap().len(), 1);
    a.press("reopen").await;
    a.gone("[data-testid=job-closed]").await;
    a.finish().await;
}

/// Opens the gate in hand under a name; with a reason where something is off.
async fn pass(a: &App) {
    if a.c.find(fantoccini::Locator::Css("[data-testid=gate-reason]")).await.is_ok() {
        a.fill("[data-testid=gate-reason]", "as far as these cams go").await;
    }
    if a.c.find(fantoccini::Locator::Css("[data-testid=gate-signed]")).await.is_ok() {
        a.fill("[data-testid=gate-signed]", "Specialist A").await;
    }
    a.press("gate-pass").await;
}
