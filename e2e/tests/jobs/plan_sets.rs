//! The Plan bench beyond one part: best sets, full lock, heights and checks, picking on the map, the rear axle, aims,
//! ways to change height, own parts, four plans compared.
use crate::harness::App;
use serde_json::{Value, json};

async fn document(a: &App, id: &str, plan: usize) -> Value {
    a.until("saving", |t| t == "Saved").await;
    a.fetch(&format!("/api/v1/jobs/{id}")).await["plans"][plan]["document"].clone()
}

/// What the first plan decides about the front.
async fn front(a: &App, id: &str) -> Value {
    document(a, id, 0).await["axles"]["front"].clone()
}

/// The plan of the demo's lifted pickup, whose cams run out, at a size of the screen.
async fn lifted_pickup(width: u32, height: u32) -> (App, String) {
    let a = App::start(width, height).await;
    a.open("/").await;
    let id = a.job("Quarry 4x4 pickup").await;
    a.open(&format!("/job/{id}/plan")).await;
    a.until("headline", |t| t.starts_with("Front: cams run out")).await;
    (a, id)
}

#[tokio::test]
async fn the_best_sets_are_found_filtered_and_fitted() {
    let (a, id) = lifted_pickup(1280, 800).await;
    a.press("mode-sets").await;
    let said = a.until("sets-headline", |t| t.contains("land both sides on aim")).await;
    let looked_at = |said: &str| -> u32 {
        let before = said.split(" sets looked at").next().unwrap();
        before
            .rsplit(". ")
            .next()
            .unwrap()
            .chars()
            .filter(char::is_ascii_digit)
            .collect::<String>()
            .parse()
            .unwrap()
    };
    let all = looked_at(&said);
    assert!(all > 100_000, "{said}");
    assert!(a.text("set-0").await.contains("Reaches"));
    // Factory arms stay: no arm is left in the list.
    a.press("sets-filters").await;
    a.press("rule-aftermarket_arms").await;
    let fewer = a.until("sets-headline", |t| t.contains("land both sides on aim") && *t != *said).await;
    assert!(looked_at(&fewer) < all, "{fewer}");
    // A price that is none is refused where it is typed, and the last answer stays.
    a.fill("[data-testid=budget]", "cheap").await;
    a.el(".sets-head [role=alert]").await;
    a.fill("[data-testid=budget]", "60").await;
    a.until("set-0", |t| t.contains("18 in parts")).await;
    a.press("take-set").await;
    a.until("headline", |t| t == "All four wheels land on aim").await;
    assert!(a.text("set-0").await.contains("Fitted"));
    assert_eq!(front(&a, &id).await["fitted"], json!(["upper-pivot-shims"]));
    // Every height with its verdicts, and what is checked.
    a.press("panel-heights").await;
    let heights = a.text("heights-panel").await;
    for word in ["as found", "planned", "settled", "loaded", "the aim counts here", "low"] {
        assert!(heights.contains(word), "{word}: {heights}");
    }
    a.press("panel-checks").await;
    assert!(a.text("checks-panel").await.contains("of its 30° at full droop"));
    // A measured limit turns the check.
    a.press("measure-limits").await;
    a.fill("[data-testid=limit-upper_joint_deg]", "many").await;
    assert!(a.id("limits-keep").await.attr("disabled").await.unwrap().is_some());
    a.fill("[data-testid=limit-upper_joint_deg]", "6").await;
    a.fill("[data-testid=limit-droop_mm]", "50").await;
    a.press("limits-keep").await;
    let checks = a.until("checks-panel", |t| t.contains("of its 6°")).await;
    assert!(checks.contains("fouls") && checks.contains("−15 mm of droop left"), "{checks}");
    a.finish().await;
}

#[tokio::test]
async fn a_point_of_the_weave_is_set_and_full_lock_is_a_second_map() {
    let (a, id) = lifted_pickup(1280, 800).await;
    // Press the middle of the weave: where the untouched cams are.
    let script = "const s=document.querySelector('[data-testid=reach-map]');
        const d=[...s.querySelectorAll('circle[r=\"2\"]')], p=d[Math.floor(d.length/2)].getBoundingClientRect();
        s.dispatchEvent(new MouseEvent('click',{bubbles:true,clientX:p.x+1,clientY:p.y+1}))";
    a.c.execute(script, vec![]).await.unwrap();
    a.id("unpick").await;
    let picked = front(&a, &id).await["picked"]["left"].clone();
    let figures: Value = serde_json::from_str(&a.inner("plan-figures").await).unwrap();
    let near = |i: &str, k: &str| (picked[i].as_f64().unwrap() - figures["set"][k].as_f64().unwrap()).abs();
    assert!(
        near("camber_deg", "camber_deg") < 0.15 && near("second_deg", "caster_deg") < 0.25,
        "{picked} {figures}"
    );
    a.press("unpick").await;
    assert_eq!(front(&a, &id).await["picked"], json!({"left": null, "right": null}));
    a.press("plane").await;
    let label = a.id("lock-map").await.attr("aria-label").await.unwrap().unwrap();
    assert!(label.contains("outside wheel") && label.contains("inside wheel"), "{label}");
    a.press("plane").await;
    a.id("reach-map").await;
    a.finish().await;
}

#[tokio::test]
async fn the_rear_axle_has_its_own_bench_and_its_own_parts() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = a.job("Sedge electric saloon").await;
    a.open(&format!("/job/{id}/plan")).await;
    a.press("axle-rear").await;
    a.until("headline", |t| t == "Rear: camber is off, and nothing as built sets it").await;
    a.press("mode-sets").await;
    a.until("sets-headline", |t| t.contains("on aim")).await;
    a.press("take-set").await;
    a.until("headline", |t| t == "All four wheels land on aim").await;
    let d = document(&a, &id, 0).await;
    assert_eq!(d["axles"]["front"]["fitted"], json!([]), "the front keeps its own");
    assert!(!d["axles"]["rear"]["fitted"].as_array().unwrap().is_empty());
    // The rear's height is its own.
    a.press("height-down").await;
    assert_eq!(document(&a, &id, 0).await["axles"]["rear"]["height_change_mm"].as_f64(), Some(-30.0));
    a.c.refresh().await.unwrap();
    a.el("[data-testid=axle-rear][aria-pressed=true]").await;
    a.press("axle-front").await;
    a.id("plane").await;
    a.finish().await;
}

#[tokio::test]
async fn aims_have_both_sides_of_their_questions_and_own_ones_are_kept() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = a.job("Quarry 4x4 pickup").await;
    a.open(&format!("/job/{id}/plan")).await;
    a.press("aim").await;
    a.press("aim-lifted-truck").await;
    let view = a.text("aim-view").await;
    assert!(view.contains("Stop at 5 to 6") && view.contains("All of it"), "{view}");
    a.click("[data-testid=aim-view] button:nth-child(2)").await;
    assert_eq!(a.id("caster_deg-1").await.prop("value").await.unwrap().unwrap(), "7.00");
    a.fill("[data-testid=rear_camber_deg-0]", "0.5").await;
    assert!(a.id("aim-keep").await.attr("disabled").await.unwrap().is_some(), "runs backwards");
    a.fill("[data-testid=rear_camber_deg-0]", "-0.75").await;
    a.press("judged-loaded").await;
    a.fill("[data-testid=aim-own-name]", "Quarry loaded").await;
    a.press("aim-own-keep").await;
    a.id("aim-own-quarry-loaded").await;
    a.press("aim-keep").await;
    a.until("aim", |t| t.contains("Quarry loaded")).await;
    let d = document(&a, &id, 0).await;
    assert_eq!((&d["aim"]["judged_at"], &d["aim"]["rear_camber_deg"][0]), (&json!("loaded"), &json!(-0.75)));
    a.press("panel-heights").await;
    a.until("heights-panel", |t| t.contains("the aim counts here")).await;
    // The next plan finds it on the list.
    assert_eq!(a.fetch("/api/v1/aims").await.as_array().unwrap().len(), 10);
    a.finish().await;
}

#[tokio::test]
async fn height_is_had_in_ways_and_wanted_as_targets() {
    let (a, id) = lifted_pickup(1280, 800).await;
    a.press("height-ways").await;
    // 563 wanted of 498 found, mean of 496 and 500.
    a.fill("[data-testid=target-value]", "563").await;
    a.press("target-work").await;
    a.press("target-use").await;
    a.fill("[data-testid='height-way.bracket']", "fifty").await;
    assert!(a.id("height-keep").await.attr("disabled").await.unwrap().is_some());
    a.fill("[data-testid='height-way.bracket']", "50").await;
    a.fill("[data-testid=height-left]", "4").await;
    a.press("height-keep").await;
    // Most of the lift by brackets: the arms hardly move, and the cams reach again.
    a.until("headline", |t| t == "All four wheels land on aim").await;
    let d = front(&a, &id).await;
    assert_eq!(d["ways"], json!([{"kind": "bracket", "gain_mm": 50}]));
    assert_eq!((&d["trim_mm"], &d["height_change_mm"]), (&json!({"left": 4, "right": 0}), &json!(65)));
    a.finish().await;
}

#[tokio::test]
async fn a_part_of_ones_own_is_made_drawn_and_searched_with() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    a.press("to-parts").await;
    // A part of several sizes says which one is drawn; a smaller one moves the angles less.
    a.press("shelf-offset-upper-arm").await;
    a.until("part-effect", |t| t.contains("caster +2.61")).await;
    a.press("part-size-7").await;
    a.until("part-effect", |t| t.contains("caster +1.")).await;
    a.press("new-part").await;
    a.press("part-keep").await;
    // What is missing is said at the fields.
    a.el("[data-testid=part-name][aria-invalid=true]").await;
    a.fill("[data-testid=part-name]", "Gate offset arm").await;
    a.fill("[data-testid=part-summary]", "joint 8 mm rearward").await;
    a.fill("[data-testid=part-replaces]", "upper_arm").await;
    a.fill("[data-testid=part-side_effect]", "Check the bucket at full droop.").await;
    a.c.execute(
        "const s=document.querySelector('[data-testid=add-edit]');
         const set=Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype,'value').set;
         set.call(s,'reshape_arm'); s.dispatchEvent(new Event('change',{bubbles:true}))",
        vec![],
    )
    .await
    .unwrap();
    a.fill("[data-testid='edits.0.forward_mm']", "minus").await;
    a.el("[data-testid='edits.0.forward_mm'][aria-invalid=true]").await;
    a.fill("[data-testid='edits.0.forward_mm']", "-8").await;
    // The drawing and its figures follow: a joint set rearward adds caster.
    a.until("part-effect", |t| t.contains("caster +1.") || t.contains("caster +2.")).await;
    a.fill("[data-testid=part-cost]", "-4").await;
    assert!(a.id("part-keep").await.attr("disabled").await.unwrap().is_some());
    a.fill("[data-testid=part-cost]", "5").await;
    a.press("part-keep").await;
    a.until("shelf-gate-offset-arm", |t| t.contains("own")).await;
    let id = a.job("Quarry 4x4 pickup").await;
    a.go(&format!("/job/{id}/plan")).await;
    a.until("part-gate-offset-arm", |t| t.contains("Reaches")).await;
    // Sets with it.
    a.press("part-gate-offset-arm").await;
    a.press("pin").await;
    a.until("set-0", |t| t.contains("Gate offset arm") && t.contains("Reaches")).await;
    // Retired, it is offered no more.
    a.go("/parts").await;
    a.press("shelf-gate-offset-arm").await;
    a.press("part-retire").await;
    a.until("shelf-gate-offset-arm", |t| t.contains("retired")).await;
    a.go(&format!("/job/{id}/plan")).await;
    a.until("headline", |t| t.starts_with("Front: cams run out")).await;
    assert!(
        a.c.find_all(fantoccini::Locator::Css("[data-testid=part-gate-offset-arm]"))
            .await
            .unwrap()
            .is_empty()
    );
    a.finish().await;
}

#[tokio::test]
async fn four_plans_stand_side_by_side_and_nothing_runs_over_at_any_width() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = a.job("Quarry 4x4 pickup").await;
    for plan in [0, 1] {
        let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
        let plan = t["plans"][plan]["id"].as_str().unwrap().to_owned();
        a.c.execute_async(
            "const d=arguments[1]; fetch(`/api/v1/plans/${arguments[0]}/copy`,{method:'POST'}).then(r=>d(r.status))",
            vec![json!(plan)],
        )
        .await
        .unwrap();
    }
    a.open(&format!("/job/{id}/compare")).await;
    a.id("compare-d").await;
    a.id("overlay").await;
    let text = a.until("compare", |t| !t.contains('…')).await;
    for word in ["Offset upper arm, 7 mm", "Full lock, outside", "Axis lean (SAI)", "First tyre done", "480"]
    {
        assert!(text.contains(word), "{word}: {text}");
    }
    a.finish().await;
    for (w, h) in [(1280, 800), (1024, 768), (390, 844)] {
        let a = App::start(w, h).await;
        a.open("/").await;
        let id = a.job("Sedge electric saloon").await;
        for path in [format!("/job/{id}/plan?axle=rear"), format!("/job/{id}/compare"), "/parts".to_owned()] {
            a.open(&path).await;
            tokio::time::sleep(std::time::Duration::from_millis(900)).await;
            let over =
                a.c.execute("return document.documentElement.scrollWidth - innerWidth", vec![])
                    .await
                    .unwrap();
            assert!(over.as_i64().unwrap() <= 0, "{path} at {w}: {over}");
        }
        a.finish().await;
    }
}

#[tokio::test]
async fn a_part_comes_with_what_it_needs_and_goes_on_one_side() {
    let a = App::start(1024, 768).await;
    a.open("/").await;
    let id = a.job("Sedge electric saloon").await;
    a.open(&format!("/job/{id}/plan")).await;
    a.press("axle-rear").await;
    a.until("headline", |t| t == "Rear: camber is off, and nothing as built sets it").await;
    // Three parts in view with what to do about the one in hand, and nothing of it below the page.
    let seen = "const inside = e => { const b = e.getBoundingClientRect(); return b.top >= 0 && b.bottom <= innerHeight && b.right <= innerWidth };
        return [...document.querySelectorAll('[data-testid^=best-], [data-testid=fit-best], [data-testid=angle-line] dd')].filter(inside).length";
    assert_eq!(a.c.execute(seen, vec![]).await.unwrap(), json!(6));
    a.press("best-rear-camber-arm").await;
    a.until("fit-best", |t| t == "Fit adjustable camber arm and adjustable toe arm").await;
    a.press("all-parts").await;
    a.until("kit-rear-camber-arm", |t| t.contains("adjustable toe arm")).await;
    a.press("parts-close").await;
    a.press("fit-best").await;
    a.until("headline", |t| t == "All four wheels land on aim").await;
    let rear = document(&a, &id, 0).await["axles"]["rear"].clone();
    assert_eq!(rear["fitted"], json!(["rear-camber-arm", "rear-toe-arm"]));
    a.press("all-parts").await;
    // On the left alone the right one is as short as it was, and the sheet says which side it is fitted on.
    a.press("part-rear-camber-arm").await;
    a.press("side-left").await;
    a.until("headline", |t| t.starts_with("Rear: right: camber short")).await;
    let rear = document(&a, &id, 0).await["axles"]["rear"].clone();
    assert_eq!(rear["only"], json!({"rear-camber-arm": "left"}));
    let plan = a.fetch(&format!("/api/v1/jobs/{id}")).await["plans"][0]["id"].as_str().unwrap().to_owned();
    let sheet = a.fetch(&format!("/api/v1/plans/{plan}/sheet")).await;
    let titles: Vec<&str> =
        sheet["steps"].as_array().unwrap().iter().map(|s| s["title"].as_str().unwrap()).collect();
    assert!(titles.contains(&"Left side only: fit adjustable camber arm"), "{titles:?}");
    let none = sheet["answer"]["orders"]
        .as_array()
        .unwrap()
        .iter()
        .find(|o| o["line"]["words"] == "none on this side");
    assert_eq!(none.unwrap()["side"], "right");
    // Compared, the tyres of both plans stand beside as found in one bend.
    a.open(&format!("/job/{id}/compare")).await;
    assert!(a.text("compare-patches").await.contains("as found"));
    a.finish().await;
}

#[tokio::test]
async fn the_ladder_names_the_height_that_does_it_and_climbs_with_the_best_sets() {
    let (a, id) = lifted_pickup(1280, 800).await;
    a.press("panel-heights").await;
    let before = a.text("ladder-says").await;
    assert!(!before.contains(" and Wide-throw"), "{before}");
    a.press("ladder-find").await;
    a.until("ladder-says", |t| t.contains(" and ") && t.len() > before.len()).await;
    a.until("ladder-way", |t| t.contains("lower")).await;
    a.press("ladder-way-take").await;
    a.until("headline", |t| t == "All four wheels land on aim").await;
    let stands = front(&a, &id).await["height_change_mm"].as_f64().unwrap();
    assert!((20.0..64.0).contains(&stands), "{stands}");
    a.finish().await;
}
