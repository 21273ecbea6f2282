//! The car planned whole: searched over heights, money and both axles; one plan is the one to set; what fouls stops its sheet
//! until somebody says why it goes on.
use crate::harness::App;
use serde_json::Value;

async fn ticket(a: &App, id: &str) -> Value {
    a.fetch(&format!("/api/v1/jobs/{id}")).await
}

#[tokio::test]
async fn searched_whole_chosen_and_stopped_by_a_foul() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = a.job("Quarry 4x4 pickup").await;
    a.open(&format!("/job/{id}/plan")).await;
    a.until("headline", |t| t.starts_with("Front: cams run out")).await;

    // What an hour costs is typed once.
    a.open("/").await;
    a.press("to-shop").await;
    a.fill("[data-testid=shop-rate]", "eighty").await;
    assert!(a.id("shop-save").await.attr("disabled").await.unwrap().is_some());
    a.fill("[data-testid=shop-rate]", "80").await;
    a.fill("[data-testid=shop-currency]", "cr").await;
    a.press("shop-save").await;
    a.gone("[data-testid=shop-save]").await;

    // A band the wrong way round, then from 1 3/4 to 2 1/2 inches, under 700, for both axles.
    a.open(&format!("/job/{id}/plan")).await;
    a.press("mode-car").await;
    a.fill("[data-testid=band-front-0]", "2 1/2in").await;
    a.fill("[data-testid=band-front-1]", "1 3/4in").await;
    a.press("car-search-go").await;
    a.until("car-search", |t| t.contains("the higher end not under the lower")).await;
    a.fill("[data-testid=band-front-0]", "1 3/4in").await;
    a.fill("[data-testid=band-front-1]", "2 1/2in").await;
    a.fill("[data-testid=car-budget]", "700").await;
    a.press("car-search-go").await;
    let says = a.until("car-search-says", |t| t.contains("all four wheels")).await;
    assert!(says.contains("land"), "{says}");
    let first = a.text("car-set-0").await;
    assert!(first.contains("least money") && first.contains("cr together"), "{first}");
    a.press("take-car-set").await;
    a.until("headline", |t| t == "All four wheels land on aim").await;
    a.until("saving", |t| t == "Saved").await;
    let t = ticket(&a, &id).await;
    let gain = t["plans"][0]["document"]["axles"]["front"]["height_change_mm"].as_f64().unwrap();
    assert!((44.4..=63.6).contains(&gain), "{gain}");

    // A copy is looked at, the first stays the one to set until the copy is chosen.
    a.press("plan-menu").await;
    a.press("plan-copy").await;
    a.until("plan-role", |t| t.contains("not the one to set")).await;
    let (first, copy) = {
        let t = ticket(&a, &id).await;
        (t["plans"][0]["id"].clone(), t["plans"].as_array().unwrap().last().unwrap()["id"].clone())
    };
    assert_eq!(ticket(&a, &id).await["job"]["plan_id"], first);
    a.click("nav.rail a:nth-of-type(5)").await;
    let note = a.until("not-the-one", |t| t.contains("The one to set is")).await;
    assert!(note.contains("(copy)"), "{note}");
    a.press("choose-plan").await;
    a.gone("[data-testid=not-the-one]").await;
    assert_eq!(ticket(&a, &id).await["job"]["plan_id"], copy);

    // A tyre that is measured too near the arch stops the sheet before anything is lifted.
    a.click("nav.rail a:nth-of-type(3)").await;
    a.press("panel-checks").await;
    a.press("measure-limits").await;
    a.fill("[data-testid=limit-arch_front_mm]", "12").await;
    a.press("limits-keep").await;
    a.until("headline", |t| t.contains("fouls")).await;
    a.click("nav.rail a:nth-of-type(5)").await;
    a.until("set-short", |t| t.contains("arch")).await;
    let off = a.until("gate-off", |t| t.contains("ahead")).await;
    assert!(off.contains("15 mm"), "{off}");
    a.fill("[data-testid=gate-reason]", "Liner trimmed here, 20 mm now").await;
    a.fill("[data-testid=gate-signed]", "Specialist A").await;
    a.press("gate-pass").await;
    a.until("set-now", |t| t.contains("Stand") || t.contains("stand") || t.contains("Support")).await;
    let t = ticket(&a, &id).await;
    let fouls = t["done"].as_array().unwrap().iter().find(|d| d["step"] == "fouls").unwrap();
    assert_eq!(fouls["record"]["reason"], "Liner trimmed here, 20 mm now");
    assert_eq!(fouls["plan_id"], copy);

    // Work was done: another plan is asked about before it is the one.
    a.open(&format!("/job/{id}/set?plan={}", first.as_str().unwrap())).await;
    a.press("choose-plan").await;
    a.until("choose-stale", |t| t.contains("1 step of")).await;
    a.press("choose-sure").await;
    a.gone("[data-testid=not-the-one]").await;
    assert_eq!(ticket(&a, &id).await["job"]["plan_id"], first);
    assert_eq!(a.console_errors().await, Vec::<String>::new());
    a.finish().await;
}
