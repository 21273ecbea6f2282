//! A vehicle entered by hand, in inches and mm, to a setting; and every stage at three window sizes.
use crate::harness::App;
use serde_json::json;

/// Points of the invented truck, as they are taped.
const TAPED: [(&str, [f64; 3]); 9] = [
    ("points.lower_front", [165.0, 300.0, 318.0]),
    ("points.lower_rear", [-205.0, 300.0, 325.0]),
    ("points.lower_outer", [6.0, 688.0, 296.0]),
    ("points.upper_front", [104.0, 404.0, 599.0]),
    ("points.upper_rear", [-128.0, 404.0, 559.0]),
    ("points.upper_outer", [-10.0, 650.0, 566.0]),
    ("points.tie_inner", [-128.0, 318.0, 343.0]),
    ("points.tie_outer", [-142.0, 668.0, 322.0]),
    ("wheel.center", [0.0, 762.0, 402.0]),
];

#[tokio::test]
async fn a_job_from_nothing_reaches_its_setting() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    a.press("new-arrival").await;
    a.id("joint-drawing").await;
    assert!(a.id("save-vehicle").await.attr("disabled").await.unwrap().is_some(), "a name first");
    a.fill("[data-testid=name]", "Heron flatbed").await;
    a.fill("[data-testid=complaint]", "Two inches up.").await;
    // Tyre size that is none: refused at the field, everything typed stays.
    a.fill("[data-testid=tyre_size]", "265").await;
    a.press("save-vehicle").await;
    a.until("form-fault", |t| t.contains("tyre_size")).await;
    assert_eq!(a.id("name").await.prop("value").await.unwrap().unwrap(), "Heron flatbed");
    a.fill("[data-testid=tyre_size]", "265/70R17").await;
    // What is seen under it, then point by point. The drawing follows every keystroke; an open loop is named at its point.
    a.press("shape-compact_off_roader_front").await;
    a.press("shape-half_ton_front").await;
    a.press("mode-points").await;
    a.fill_points(&TAPED).await;
    let picture = async || a.id("joint-drawing").await.html(true).await.unwrap();
    let first = picture().await;
    a.fill("[data-testid='points.upper_outer.0']", "-30").await;
    changed(&a, &first).await;
    a.fill("[data-testid='points.upper_outer.0']", "x").await;
    a.until("form-fault", |t| t.contains("cannot be read")).await;
    a.fill("[data-testid='points.upper_outer.0']", "-10").await;
    a.fill("[data-testid='points.tie_outer.0']", "6").await;
    a.fill("[data-testid='points.tie_outer.1']", "688").await;
    a.fill("[data-testid='points.tie_outer.2']", "296").await;
    a.until("loops", |t| t.contains("does not close")).await;
    let said = a.el("table.points [role=alert]").await.text().await.unwrap();
    assert!(said.contains("tie-rod loop does not close"), "{said}");
    a.fill("[data-testid='points.tie_outer.0']", "-5.59 in").await;
    a.fill("[data-testid='points.tie_outer.1']", "668").await;
    a.fill("[data-testid='points.tie_outer.2']", "322").await;
    a.until("loops", |t| t.contains("loops close")).await;
    a.press("save-vehicle").await;

    // Eight readings in four notations.
    a.press("read-next").await;
    let mut kept = Vec::new();
    for (q, side, text, shown) in [
        ("height", "left", "19 5/8 in", "498 mm"),
        ("height", "right", "500", "500 mm"),
        ("camber", "left", "-0°06'", "−0.1°"),
        ("camber", "right", "0.1", "0.1°"),
        ("caster", "left", "3.2", "3.2°"),
        ("caster", "right", "3°24'", "3.4°"),
        ("toe", "left", "0.8mm", "0.06°"),
        ("toe", "right", "1/32 in", "0.06°"),
    ] {
        // After each one the pad goes on to what is missing next, in the proposed order.
        let (method, entry) = match q {
            "height" => ("height-hub", "value"),
            "camber" => ("camber-gauge", "angle"),
            "caster" => ("caster-joint-line", "angle"),
            _ => ("toe-convert", "value"),
        };
        a.read(&format!("{q}, {side} front"), method, &[(entry, text)]).await;
        kept.push((format!("value-{q}-front-{side}"), shown));
    }
    a.press("pad-back").await;
    for (id, shown) in kept {
        a.until(&id, |t| t == shown).await;
    }
    a.press("to-plan").await;
    // The first plan makes itself; two inches up.
    a.until("plan-menu", |t| t.contains("Plan 1")).await;
    a.fill("[data-testid=height-input]", "2in\n").await;
    a.until("strip-front", |t| t.starts_with("550")).await;
    a.until("saving", |t| t == "Saved").await;
    a.press("part-offset-upper-arm").await;
    a.press("fit").await;
    a.until("headline", |t| t.contains("lands on aim")).await;
    a.click("nav.rail a:nth-of-type(4)").await;
    a.until("wear-statement", |t| t.contains("km")).await;
    a.click("nav.rail a:nth-of-type(5)").await;
    a.until("set-left-cam,-lower-arm,-front-pivot", |t| t == "leave" || t.contains("notch")).await;
    a.until("set-right-thread,-tie-rod", |t| t == "leave" || t.contains("turn")).await;
    a.finish().await;
}

async fn changed(a: &App, first: &str) {
    for _ in 0..80 {
        if a.id("joint-drawing").await.html(true).await.unwrap() != first {
            return;
        }
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
    }
    panic!("the drawing did not follow");
}

#[tokio::test]
async fn nothing_runs_off_the_side_at_three_sizes_in_both_lights() {
    // The light changes colours, not the layout: both at the desk, one each on tablet and phone.
    for (w, h, lights) in [(1280, 800, &["day", "night"][..]), (1024, 768, &["night"]), (390, 844, &["day"])]
    {
        let a = App::start(w, h).await;
        a.open("/").await;
        let jobs = a.fetch("/api/v1/jobs").await;
        let id = jobs[0]["job"]["id"].as_str().unwrap().to_owned();
        for theme in lights {
            a.c.execute(
                "localStorage.setItem('bold-stance.settings', JSON.stringify({theme: arguments[0]}))",
                vec![json!(theme)],
            )
            .await
            .unwrap();
            for stage in [
                "",
                "new",
                "arrive",
                "corner-file",
                "read",
                "read?at=prepare",
                "read?at=camber.left.front",
                "read?at=toe.right.rear",
                "read-form",
                "plan",
                "wear",
                "set",
                "compare",
            ] {
                let path = match stage {
                    "" => "/".to_owned(),
                    "new" => "/new".to_owned(),
                    s => format!("/job/{id}/{s}"),
                };
                a.open(&path).await;
                a.el("main").await;
                tokio::time::sleep(std::time::Duration::from_millis(350)).await;
                let over =
                    a.c.execute("return document.documentElement.scrollWidth - innerWidth", vec![])
                        .await
                        .unwrap();
                assert!(over.as_i64().unwrap() <= 0, "{stage} at {w}x{h}, {theme}: {over} px too wide");
                let set = a.c.execute("return document.documentElement.dataset.theme", vec![]).await.unwrap();
                assert_eq!(set, *theme);
            }
        }
        a.finish().await;
    }
}
