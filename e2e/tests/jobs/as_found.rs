//! Cars told as they are: what can be turned is looked at and ticked, and a plan needs only what was read. Readings as a
//! shop types them.
use crate::harness::App;

/// A new arrival of these shapes, its adjusters of both axles told by `look`; lands on the readings.
async fn arrive(a: &App, name: &str, front: &str, rear: Option<&str>) {
    a.open("/new").await;
    a.fill("[data-testid=name]", name).await;
    a.press(&format!("shape-{front}")).await;
    if let Some(rear) = rear {
        a.press("axle-rear").await;
        a.press(&format!("shape-{rear}")).await;
        a.press("axle-front").await;
    }
}

/// Each reading from the list of the visit, not in the order the pad proposes.
async fn take(a: &App, readings: &[(&str, &str, &str, &str)]) {
    for (q, axle, side, text) in readings {
        let (method, entry) = match *q {
            "height" => ("height-hub", "value"),
            "camber" => ("camber-gauge", "angle"),
            "caster" => ("caster-joint-line", "angle"),
            _ => ("toe-convert", "value"),
        };
        a.press(&format!("read-{q}-{axle}-{side}")).await;
        a.read(&format!("{q}, {side} {axle}"), method, &[(entry, text)]).await;
        a.press("pad-back").await;
        a.until(&format!("value-{q}-{axle}-{side}"), |t| t.chars().any(|c| c.is_ascii_digit())).await;
    }
}

#[tokio::test]
async fn a_truck_with_upper_cams_and_its_tabs_in() {
    let a = App::start(1280, 800).await;
    arrive(&a, "Ridge tow truck", "upper_torsion_front", None).await;
    // What such a truck usually is: typed nowhere, marked usual.
    assert_eq!(a.id("tyre_size").await.prop("value").await.unwrap().unwrap(), "265/75R16");
    assert_eq!(a.id("axles.front.height_mm").await.prop("value").await.unwrap().unwrap(), "510");
    a.press("mode-adjusters").await;
    a.until("turn-row-1", |t| t.contains("upper arm, front pivot") && t.contains("Tabs in")).await;
    a.until("turn-nothing", |t| t.contains("Camber and caster: nothing ticked turns them")).await;
    a.until("turn-does", |t| t.contains("camber") && t.contains("caster")).await;
    // A throw typed as a shop has it, a wrong one refused at its field and kept.
    a.fill("[data-testid='turn-eccentricity_mm']", "1/8 inch-ish").await;
    a.until("form-fault", |t| t.contains("cannot be read")).await;
    assert_eq!(a.id("turn-eccentricity_mm").await.prop("value").await.unwrap().unwrap(), "1/8 inch-ish");
    a.fill("[data-testid='turn-eccentricity_mm']", "1/8 in").await;
    a.until("turn-row-1", |t| t.contains("3.2 mm measured")).await;
    a.press("turn-all").await;
    a.until("turn-nothing", |t| t.contains("Camber and caster: nothing turns them")).await;
    a.press("height-by-torsion_bolt").await;
    a.press("save-vehicle").await;
    take(
        &a,
        &[
            ("height", "front", "left", "20 1/16 in"),
            ("height", "front", "right", "20 1/8 in"),
            ("camber", "front", "left", "-1°15'"),
            ("camber", "front", "right", "-1.1"),
            ("caster", "front", "left", "2.6"),
            ("caster", "front", "right", "2°48'"),
            ("toe", "front", "left", "1/16 in"),
            ("toe", "front", "right", "1/16 in"),
        ],
    )
    .await;
    a.press("to-plan").await;
    a.until("headline", |t| t.contains("what sets it is held: tabs in the slots")).await;
    // Tabs out at both cams: the same car has its whole weave, and the plan turns them.
    a.click("nav.rail a:nth-of-type(1)").await;
    a.press("mode-adjusters").await;
    for row in ["turn-row-1", "turn-row-2"] {
        a.press(row).await;
        a.press("turn-left-turns").await;
        a.until(row, |t| t.contains("Turns")).await;
    }
    a.press("turn-all").await;
    a.press("save-vehicle").await;
    a.until("headline", |t| !t.contains("tabs")).await;
    a.press("panel-orders").await;
    let orders = a.until("orders-panel", |t| t.contains("upper arm, front pivot")).await;
    assert!(orders.contains("notch") && !orders.contains("lower arm"), "{orders}");
    // The height is turned at the bar: the dialog knows.
    let t = a.fetch(&format!("/api/v1/jobs/{}", a.job("Ridge tow truck").await)).await;
    let front = &t["vehicle"]["facts"]["car"]["axles"]["front"];
    assert_eq!(
        (front["height_by"]["kind"].as_str(), front["adjusters_told"].as_bool()),
        (Some("torsion_bolt"), Some(true))
    );
    assert!((front["adjusters"][0]["eccentricity_mm"].as_f64().unwrap() - 3.175).abs() < 1e-6);
    a.finish().await;
}

#[tokio::test]
async fn a_sedan_with_rear_cams_and_no_front_adjustment_read_without_caster() {
    let a = App::start(1024, 768).await;
    arrive(&a, "Loch sedan", "tall_knuckle_front", Some("plain_multilink_rear")).await;
    a.press("mode-adjusters").await;
    a.until("turn-nothing", |t| t.contains("Camber and caster")).await;
    a.press("turn-all").await;
    a.press("axle-rear").await;
    a.press("mode-adjusters").await;
    a.until("turn-row-1", |t| t.contains("spring link") && t.contains("Not looked")).await;
    a.until("turn-row-2", |t| t.contains("toe link")).await;
    // The right toe cam is seized; the left stands two steps out.
    a.press("turn-row-2").await;
    a.press("turn-apart").await;
    a.press("turn-right-seized").await;
    a.until("turn-row-2", |t| t.contains("Seized, right")).await;
    a.press("turn-left-more").await;
    a.press("turn-left-more").await;
    a.until("turn-left-stands", |t| t == "30° outboard").await;
    a.press("turn-all").await;
    a.press("save-vehicle").await;
    take(
        &a,
        &[
            ("height", "rear", "left", "14 1/8 in"),
            ("height", "rear", "right", "360"),
            ("camber", "rear", "left", "-2.4"),
            ("camber", "rear", "right", "-2°06'"),
            ("toe", "rear", "left", "2 mm"),
            ("toe", "rear", "right", "1 mm"),
        ],
    )
    .await;
    // The front was not read, and the plan of the rear waits for none of it.
    a.until("to-plan", |t| t == "Plan with what was read").await;
    a.press("to-plan").await;
    a.press("axle-rear").await;
    a.press("panel-orders").await;
    let orders = a.until("orders-panel", |t| t.contains("spring link")).await;
    assert!(orders.contains("seized: leave it where it is"), "{orders}");
    a.until("headline", |t| !t.contains("nothing as built")).await;
    a.finish().await;
}

#[tokio::test]
async fn a_lowering_with_heights_only_invents_no_reading() {
    let a = App::start(390, 844).await;
    arrive(&a, "Teal hatch", "compact_strut_front", Some("twist_beam_rear")).await;
    a.press("save-vehicle").await;
    take(
        &a,
        &[
            ("height", "front", "left", "14 3/8 in"),
            ("height", "front", "right", "14 5/16 in"),
            ("height", "rear", "left", "360"),
            ("height", "rear", "right", "361"),
        ],
    )
    .await;
    a.press("to-plan").await;
    a.until("headline", |t| t == "No angle was read: what is shown is expected").await;
    let said = a.until("plan-expected", |t| t.contains("not read")).await;
    assert!(said.contains("Front camber not read") && said.contains("once read"), "{said}");
    let id = a.job("Teal hatch").await;
    let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    for side in ["left", "right"] {
        let u = &t["base"]["axles"]["front"]["read"][side]["unread"];
        assert_eq!(
            (u["height"].as_bool(), u["camber"].as_bool(), u["toe"].as_bool()),
            (Some(false), Some(true), Some(true))
        );
    }
    // Its sheet asks for heights and for nothing else.
    let plans = t["plans"].as_array().unwrap();
    let sheet = a.fetch(&format!("/api/v1/plans/{}/sheet", plans[0]["id"].as_str().unwrap())).await;
    let needs: Vec<&str> = sheet["steps"]
        .as_array()
        .unwrap()
        .iter()
        .flat_map(|s| s["needs"].as_array().unwrap())
        .map(|n| n["quantity"].as_str().unwrap())
        .collect();
    assert!(!needs.is_empty() && needs.iter().all(|q| *q == "height"), "{needs:?}");
    a.finish().await;
}
