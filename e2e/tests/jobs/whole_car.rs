//! Layouts chosen by what is seen, scaled by tape, surveyed, moved, and explained in the corner file.
use crate::harness::App;

/// A slider's value as a keyboard would change it.
async fn slide(a: &App, testid: &str, key: &str, times: u32) {
    let input = a.el(&format!("[data-testid={testid}] input")).await;
    for _ in 0..times {
        input.send_keys(key).await.unwrap();
    }
}

const PAGE_UP: &str = "\u{e00e}";

#[tokio::test]
async fn a_live_axle_and_a_strut_are_seen_taped_moved_and_kept() {
    let a = App::start(1280, 800).await;
    a.open("/new").await;
    a.fill("[data-testid=name]", "Sorrel 4x4").await;
    a.press("shape-live_front").await;
    a.until("loops", |t| t.contains("loops close")).await;
    // The tape pulls the shape: what was taped is what is fitted.
    a.press("mode-tape").await;
    a.fill("[data-testid=tape-track]", "63 in").await;
    a.until("fitted-track", |t| t.contains("fits 1600 mm")).await;
    a.fill("[data-testid=tape-track_bar]", "940").await;
    a.until("fitted-track_bar", |t| t.contains("fits 940")).await;
    a.fill("[data-testid=tape-upper_link]", "80").await;
    a.until("tape-upper_link", |_| true).await;
    let said = a.el(".tape-list [role=alert]").await.text().await.unwrap();
    assert!(said.contains("outside what is possible"), "{said}");
    a.fill("[data-testid=tape-upper_link]", "").await;
    // Point by point: thirteen points and more, the one in hand is ringed.
    a.press("mode-points").await;
    let first = a.el(".survey h2").await.text().await.unwrap();
    a.press("point-next").await;
    assert_ne!(a.el(".survey h2").await.text().await.unwrap(), first);
    let tie = a.el("[data-testid='links.track_bar.chassis.2']").await.prop("value").await.unwrap().unwrap();
    assert!(tie.parse::<f64>().unwrap() > 400.0, "{tie}");
    // The rear axle.
    a.press("axle-rear").await;
    a.press("shape-triangulated_rear").await;
    a.until("loops", |t| t.contains("loops close")).await;
    a.press("axle-front").await;
    // Body up: the axle turns, so caster goes; then past the travel it says so.
    let before = a.until("move-figures", |t| t.contains("caster")).await;
    slide(&a, "move-height", PAGE_UP, 4).await;
    a.until("move-figures", |t| t != before).await;
    a.press("save-vehicle").await;
    // Its height and angles as found, then the corner file.
    a.press("read-next").await;
    for (q, method, entry, left, right) in [
        ("height", "height-hub", "value", "500", "500"),
        ("camber", "camber-gauge", "angle", "0", "0"),
        ("caster", "caster-joint-line", "angle", "4.8", "4.9"),
        ("toe", "toe-convert", "value", "0.05", "0.05"),
    ] {
        for (side, text) in [("left", left), ("right", right)] {
            a.read(&format!("{q}, {side} front"), method, &[(entry, text)]).await;
        }
    }
    a.press("pad-back").await;
    a.press("to-plan").await;
    a.until("plan-menu", |t| t.contains("Plan 1")).await;
    a.fill("[data-testid=height-input]", "60\n").await;
    a.until("saving", |t| t == "Saved").await;
    a.click("nav.rail a:nth-of-type(1)").await;
    a.press("to-corner-file").await;
    a.until("planned-axle_shift", |t| t.contains("mm") && !t.starts_with("0.0")).await;
    a.press("quantity-axle_pitch").await;
    a.until("corner-curve", |t| t.contains("Axle, nose down") || t.contains("Axle turns")).await;
    // Nobody told of settling: none is made up.
    let states = a.until("states", |t| t.contains("planned")).await;
    assert!(!states.contains("settled"), "{states}");
    // What it says is what the core says.
    let jobs = a.fetch("/api/v1/jobs").await;
    let id =
        jobs.as_array().unwrap().iter().find(|j| j["vehicle"] == "Sorrel 4x4").unwrap()["job"]["id"].clone();
    let t = a.fetch(&format!("/api/v1/jobs/{}", id.as_str().unwrap())).await;
    assert_eq!(t["vehicle"]["facts"]["axles"]["front"]["geometry"]["layout"], "solid_axle");
    assert_eq!(t["vehicle"]["facts"]["axles"]["rear"]["geometry"]["layout"], "solid_axle");
    assert_eq!(
        t["vehicle"]["facts"]["car"]["axles"]["front"]["adjusters"].as_array().unwrap().len(),
        2,
        "rod and drag link, no cams on a live axle"
    );
    a.finish().await;
}

#[tokio::test]
async fn a_strut_car_is_surveyed_and_bad_points_keep_what_was_typed() {
    let a = App::start(1280, 800).await;
    a.open("/new").await;
    a.fill("[data-testid=name]", "Teasel hatch").await;
    a.press("shape-compact_strut_front").await;
    a.press("mode-points").await;
    a.fill("[data-testid='points.strut_top.2']", "100").await;
    a.until("loops", |t| t.contains("does not close")).await;
    let said = a.el("table.points [role=alert]").await.text().await.unwrap();
    assert!(said.contains("strut's top is not above"), "{said}");
    assert!(a.id("save-vehicle").await.attr("disabled").await.unwrap().is_some());
    a.fill("[data-testid='points.strut_top.2']", "32 3/8 in").await;
    a.until("loops", |t| t.contains("loops close")).await;
    a.fill("[data-testid='points.strut_top.2']", "oops").await;
    a.until("form-fault", |t| t.contains("cannot be read")).await;
    // Another tab and back: what cannot be read is gone with the table, the last good point stays.
    a.press("mode-shape").await;
    a.press("mode-points").await;
    let kept = a.el("[data-testid='points.strut_top.2']").await.prop("value").await.unwrap().unwrap();
    assert!((kept.parse::<f64>().unwrap() - 822.325).abs() < 0.01, "{kept}");
    // A bent right side: points of its own, the left ones stay.
    a.press("own-right").await;
    a.fill("[data-testid='right.points.lower_outer.0']", "-9").await;
    a.until("loops", |t| t.contains("loops close")).await;
    // Facts of the whole car: half a spring is no spring.
    a.press("more-facts").await;
    a.fill("[data-testid='car.axles.front.spring.rate_n_mm']", "24").await;
    a.until("form-fault", |t| t.contains("needed with")).await;
    a.fill("[data-testid='car.axles.front.spring.motion_ratio']", "0.95").await;
    a.fill("[data-testid='car.levels']", "Low -30 -30").await;
    a.press("save-vehicle").await;
    a.id("read-height-front-left").await;
    let jobs = a.fetch("/api/v1/jobs").await;
    let id = jobs.as_array().unwrap().iter().find(|j| j["vehicle"] == "Teasel hatch").unwrap()["job"]["id"]
        .clone();
    let t = a.fetch(&format!("/api/v1/jobs/{}", id.as_str().unwrap())).await;
    let geometry = &t["vehicle"]["facts"]["axles"]["front"]["geometry"];
    assert_eq!(geometry["right"]["points"]["lower_outer"][0], -9.0);
    assert_ne!(geometry["points"]["lower_outer"][0], -9.0);
    let car = &t["vehicle"]["facts"]["car"];
    assert_eq!(car["axles"]["front"]["spring"]["rate_n_mm"], 24.0);
    assert_eq!(car["levels"][0]["name"], "Low");
    assert_eq!(t["vehicle"]["facts"]["axles"]["front"]["knowledge"], "taped");
    a.finish().await;
}
