//! More cars told as they are: a live axle to centre and square, a bare chassis, a factory toe bolt, a rear without its front.
//! Readings as a shop types them; every order is followed to the letter.
use crate::harness::App;
use serde_json::Value;

/// A new arrival of these shapes for a kind of job.
async fn arrive(a: &App, name: &str, kind: &str, front: &str, rear: &str) {
    a.open("/new").await;
    a.fill("[data-testid=name]", name).await;
    a.choose("ticket-kind", kind).await;
    a.press(&format!("shape-{front}")).await;
    a.press("axle-rear").await;
    a.press(&format!("shape-{rear}")).await;
}

/// What is read where, by which method, with what typed.
type Typed<'a> = (&'a str, &'a str, &'a [(&'a str, &'a str)]);

/// Readings from the list of the visit, by the method named.
async fn take(a: &App, readings: &[Typed<'_>]) {
    for (what, method, entries) in readings {
        a.press(&format!("read-{what}")).await;
        let [quantity, axle, side] = what.split('-').collect::<Vec<_>>()[..] else { panic!("{what}") };
        let quantity = match quantity {
            "axle_offset" => "axle off centre".to_owned(),
            q => q.replace('_', " "),
        };
        let place = match (axle, side) {
            ("both", s) => format!("{s} side"),
            (x, "both") => format!("{x} axle"),
            (x, s) => format!("{s} {x}"),
        };
        a.read(&format!("{quantity}, {place}"), method, entries).await;
        a.press("pad-back").await;
        a.el(&format!("[data-testid=read-{what}] .fig")).await;
    }
}

async fn ticket(a: &App, name: &str) -> Value {
    a.fetch(&format!("/api/v1/jobs/{}", a.job(name).await)).await
}

async fn sheet(a: &App, t: &Value) -> Value {
    a.fetch(&format!("/api/v1/plans/{}/sheet", t["plans"][0]["id"].as_str().unwrap())).await
}

#[tokio::test]
async fn a_live_axle_is_squared_by_its_lower_arms_and_nothing_else() {
    let a = App::start(1280, 800).await;
    arrive(&a, "Moor box", "square", "half_ton_front", "triangulated_rear").await;
    a.press("mode-adjusters").await;
    for side in ["left", "right"] {
        a.press("turn-kind-thread").await;
        a.press(&format!("turn-at-lower_{side}")).await;
    }
    a.until("turn-row-2", |t| t.contains("lower right")).await;
    a.press("turn-all").await;
    a.press("save-vehicle").await;
    // What the ticket is for is read first, and no angle is waited for.
    a.until("read-next", |t| t.contains("wheelbase")).await;
    take(
        &a,
        &[
            ("wheelbase-both-left", "wheelbase", &[("value", "106 1/2 in")]),
            ("wheelbase-both-right", "wheelbase", &[("value", "106 1/4 in")]),
            ("axle_offset-rear-both", "axle-centring", &[("left", "3 1/2 in"), ("right", "3 1/2 in")]),
        ],
    )
    .await;
    a.press("to-plan").await;
    let said = a.until("headline", |t| t.contains("squared")).await;
    assert!(said.contains("no angle was read"), "{said}");
    a.press("panel-orders").await;
    let orders = a.until("orders-panel", |t| t.contains("lower right")).await;
    assert!(!orders.contains("upper"), "{orders}");
    let t = ticket(&a, "Moor box").await;
    let s = sheet(&a, &t).await;
    let square = &s["answer"]["axles"]["rear"]["square"];
    for side in ["left", "right"] {
        let comes = square["come_mm"][side].as_f64().unwrap();
        assert!((comes - 106.375 * 25.4).abs() <= 0.5, "{side} {comes}");
    }
    // The left wheelbase is the longer one: its arm goes shorter on a rear axle's own rear, the other longer, by whole fractions.
    let arm = |side: &str| square["arms"][side]["movement_mm"].as_f64().unwrap();
    assert!(arm("left") * arm("right") < 0.0, "{square}");
    // Its gate waits for both wheelbases, and for nothing nobody read.
    let needs: Vec<String> = s["steps"]
        .as_array()
        .unwrap()
        .iter()
        .filter(|x| x["id"] == "rear-read")
        .flat_map(|x| x["needs"].as_array().unwrap())
        .map(|n| n["quantity"].as_str().unwrap().to_owned())
        .collect();
    assert_eq!(needs, ["wheelbase"], "{s}");

    // Turned to the letter it comes only part of the way: the gate names it, the rest is ordered from where the arms stand,
    // and what was taped before it is stale.
    let id = t["job"]["id"].as_str().unwrap();
    a.open(&format!("/job/{id}/set")).await;
    a.until("set-now", |t| t.starts_with("Stand")).await;
    a.press("step-done").await;
    a.until("set-now", |t| t.starts_with("Settle")).await;
    a.gate_ticks("settled", 2).await;
    for side in ["left", "right"] {
        let planned = s["answer"]["axles"]["rear"][side]["planned_height_mm"].as_f64().unwrap();
        a.press(&format!("gate-rear-height-{side}")).await;
        a.dialog_read("height", &format!("{planned:.0} mm")).await;
        a.until(&format!("gate-rear-height-{side}"), |t| !t.contains("not read")).await;
    }
    a.press("gate-pass").await;
    a.until("set-now", |t| t.contains("rear axle")).await;
    a.press("step-done").await;
    a.until("set-now", |t| t.contains("tape both wheelbases")).await;
    a.gate_ticks("rear-read", 2).await;
    let tape = async |left: &str, right: &str| {
        for (side, text) in [("left", left), ("right", right)] {
            let id = format!("gate-rear-wheelbase-{side}");
            a.press(&id).await;
            a.dialog_read("wheelbase", text).await;
            a.until(&id, |t| !t.contains("not read")).await;
        }
    };
    tape("106 1/2 in", "106 1/4 in").await;
    a.until("gate-off", |t| t.contains("Wheelbases, left to right")).await;
    let card = a.until("left-axle", |t| t.contains("shorter on the right")).await;
    assert!(card.contains("lower left") && card.contains("lower right"), "{card}");
    a.press("turned-again").await;
    a.until("gate-off", |t| t.contains("read it again")).await;
    tape("106 3/8 in", "106 3/8 in").await;
    a.until("left-axle", |t| t.contains("Square:")).await;
    a.until("gate-pass", |t| t == "Open the gate").await;
    a.press("gate-pass").await;
    a.until("set-now", |t| t.starts_with("Tighten")).await;
    a.open(&format!("/job/{id}/prove")).await;
    a.el("[data-testid=lies-rear]").await;
    a.finish().await;
}

#[tokio::test]
async fn a_bare_chassis_is_levelled_by_its_frame() {
    let a = App::start(1024, 768).await;
    arrive(&a, "Slate rod frame", "chassis", "slotted_hot_rod_front", "parallel_four_link_rear").await;
    a.press("save-vehicle").await;
    take(
        &a,
        &[
            ("floor_to_frame-front-left", "height-frame", &[("value", "8 1/4 in")]),
            ("floor_to_frame-front-right", "height-frame", &[("value", "8 1/4 in")]),
            ("floor_to_frame-rear-left", "height-frame", &[("value", "9 1/8 in")]),
            ("floor_to_frame-rear-right", "height-frame", &[("value", "232 mm")]),
            ("camber-front-left", "camber-level", &[("angle", "88.9"), ("?leans", "top out")]),
            ("camber-front-right", "camber-level", &[("angle", "89.2"), ("?leans", "top out")]),
            ("caster-front-left", "caster-scale", &[("angle", "2.1")]),
            ("caster-front-right", "caster-scale", &[("angle", "2.3")]),
        ],
    )
    .await;
    a.press("to-plan").await;
    a.until("headline", |t| !t.is_empty()).await;
    // Front frame as high as the rear's: 9 1/8 and 232 mm are 231.9, less 8 1/4 in.
    a.press("height-ways").await;
    a.press("target-frame_level").await;
    a.press("target-work").await;
    a.press("target-use").await;
    a.press("height-keep").await;
    a.until("saving", |t| t == "Saved").await;
    let t = ticket(&a, "Slate rod frame").await;
    let lifted = t["plans"][0]["document"]["axles"]["front"]["height_change_mm"].as_f64().unwrap();
    assert!((lifted - 22.0).abs() <= 1.0, "{lifted}");
    let by = &t["base"]["stands"]["frame_mm"];
    assert!((by["front"].as_f64().unwrap() - 209.55).abs() < 0.01, "{by}");
    // Slots at the upper arm are what is turned; nothing was invented for the lower one.
    a.press("panel-orders").await;
    let orders = a.until("orders-panel", |t| t.contains("upper arm")).await;
    assert!(!orders.contains("lower arm"), "{orders}");
    a.finish().await;
}

#[tokio::test]
async fn an_electric_car_is_set_by_its_factory_toe_bolt() {
    let a = App::start(1280, 800).await;
    arrive(&a, "Fen electric wagon", "height", "crossover_front", "ev_multilink_rear").await;
    a.press("mode-adjusters").await;
    a.until("turn-row-1", |t| t.contains("toe link") && t.contains("Not looked")).await;
    a.press("turn-left-looked").await;
    a.press("turn-all").await;
    a.until("turn-does", |t| t.contains("toe")).await;
    a.press("save-vehicle").await;
    take(
        &a,
        &[
            ("height-rear-left", "height-hub", &[("value", "14 1/2 in")]),
            ("height-rear-right", "height-hub", &[("value", "368")]),
            ("camber-rear-left", "camber-gauge", &[("angle", "-1.1"), ("!zeroed-on-floor", "true")]),
            ("camber-rear-right", "camber-gauge", &[("angle", "-1°12'"), ("!zeroed-on-floor", "true")]),
            ("toe-rear-left", "toe-convert", &[("value", "4 mm")]),
            ("toe-rear-right", "toe-convert", &[("value", "0.3")]),
        ],
    )
    .await;
    a.press("to-plan").await;
    a.press("axle-rear").await;
    a.press("panel-orders").await;
    let orders = a.until("orders-panel", |t| t.contains("toe link")).await;
    assert!(!orders.contains("camber link"), "{orders}");
    // To the letter: toe of each wheel as set is inside the aim, and camber is what the car has.
    let t = ticket(&a, "Fen electric wagon").await;
    let s = sheet(&a, &t).await;
    let rear = &s["answer"]["axles"]["rear"];
    let aim = &t["plans"][0]["document"]["aim"]["rear_toe_total_deg"];
    let total = ["left", "right"].map(|k| rear[k]["set"]["toe_deg"].as_f64().unwrap()).iter().sum::<f64>();
    let (low, high) = (aim[0].as_f64().unwrap_or(0.0), aim[1].as_f64().unwrap_or(0.3));
    assert!(total > low - 0.03 && total < high + 0.03, "{total} {aim}");
    assert_eq!(t["base"]["axles"]["front"], Value::Null, "the front was not read");
    a.finish().await;
}

#[tokio::test]
async fn a_rear_camber_job_never_asks_for_the_front() {
    let a = App::start(390, 844).await;
    arrive(&a, "Teal coupe", "arms", "sports_front", "wishbone_rear").await;
    a.press("save-vehicle").await;
    take(
        &a,
        &[
            ("height-rear-left", "height-hub", &[("value", "13 1/2 in")]),
            ("height-rear-right", "height-hub", &[("value", "13 9/16 in")]),
            ("camber-rear-left", "camber-gauge", &[("angle", "-2.9"), ("!zeroed-on-floor", "true")]),
            ("camber-rear-right", "camber-gauge", &[("angle", "-2°40'"), ("!zeroed-on-floor", "true")]),
            ("toe-rear-left", "toe-convert", &[("value", "1 mm")]),
            ("toe-rear-right", "toe-convert", &[("value", "1 mm")]),
        ],
    )
    .await;
    a.press("to-plan").await;
    let said = a.until("headline", |t| t.contains("camber")).await;
    assert!(said.starts_with("Rear"), "{said}");
    let t = ticket(&a, "Teal coupe").await;
    let s = sheet(&a, &t).await;
    let all: Vec<&Value> =
        s["steps"].as_array().unwrap().iter().flat_map(|x| x["needs"].as_array().unwrap()).collect();
    assert!(all.iter().all(|n| n["axle"] == "rear"), "{all:?}");
    assert_eq!(s["answer"]["axles"]["front"], Value::Null);
    a.finish().await;
}
