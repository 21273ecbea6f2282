//! The Wear bench: four tyres, distance, states and plans against each other, limits, facts, depths, rotation, causes.
use crate::harness::App;
use serde_json::Value;
use std::time::{Duration, Instant};

async fn choose(a: &App, testid: &str, words: &str) {
    a.click(&format!("[role=combobox]:has(+ [data-testid={testid}])")).await;
    // A menu that has just opened has no text to read yet.
    let until = Instant::now() + Duration::from_secs(12);
    while Instant::now() < until {
        for o in a.c.find_all(fantoccini::Locator::Css("[role=option]")).await.unwrap() {
            if o.text().await.is_ok_and(|t| t.contains(words)) {
                o.click().await.unwrap();
                return;
            }
        }
        tokio::time::sleep(Duration::from_millis(40)).await;
    }
    panic!("no option {words}");
}

#[tokio::test]
async fn tread_is_forecast_for_four_tyres_and_changes_are_worth_something() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = a.job("Quarry 4x4 pickup").await;
    a.open(&format!("/job/{id}/wear")).await;
    let said = a.until("wear-statement", |t| t.contains("reaches the limit at")).await;
    assert!(said.contains('('), "with its band: {said}");
    // The ratio leads, against the car as found unless asked otherwise, and says what use it is for.
    let ratio = a.text("wear-ratio").await;
    assert!(ratio.contains('×') && ratio.contains("against as found"), "{ratio}");
    assert!(a.text("wear-mix").await.contains("settled 70 %"));
    // Another tyre, another statement; all four are there.
    for p in ["right_front", "left_rear", "right_rear"] {
        a.press(&format!("tyre-{p}")).await;
        a.until("tread", |t| t.contains(if p.ends_with("rear") { "rear" } else { "front" })).await;
    }
    a.press("tyre-left_front").await;
    assert!(a.text("lever-toe").await.contains("km"));
    // A second plan on one section.
    choose(&a, "wear-against", "offset arm").await;
    a.until("tread", |t| t.contains("Lift 65, offset arm")).await;
    // A limit that is none is refused at the field; the law's is chosen by region.
    a.fill("[data-testid=limit]", "99").await;
    a.until("levers", |_| true).await;
    assert!(a.el(".limit-row .Mui-error").await.text().await.is_ok());
    a.fill("[data-testid=limit]", "3").await;
    choose(&a, "limit-whose", "European Union, 1.6").await;
    let later = a.until("wear-statement", |t| t != said && t.contains("km")).await;
    assert_ne!(later, said);
    // Facts: a share that is none is refused, a price is kept and changes what a change saves.
    a.press("tyre-facts").await;
    a.fill("[data-testid=wf-price]", "much").await;
    a.press("wf-save").await;
    a.el(".MuiDialog-root .Mui-error").await;
    a.fill("[data-testid=wf-price]", "900").await;
    a.fill("[data-testid=wf-u-trail]", "120").await;
    a.press("wf-save").await;
    a.el(".MuiDialog-root .Mui-error").await;
    a.fill("[data-testid=wf-u-trail]", "20").await;
    a.fill("[data-testid=wf-u-highway]", "80").await;
    a.press("wf-save").await;
    // Kept when the dialog has gone: what the levers say may be of the price before.
    a.gone(".MuiDialog-root").await;
    a.until("levers", |t| t.contains("a year")).await;
    let facts = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    let kept = &facts["vehicle"]["facts"]["car"]["wear"];
    assert_eq!(kept["price"], 900.0);
    assert_eq!(kept["uses"][0]["use"], "highway");
    // Motorway for most of it lasts longer than the trail alone.
    a.until("wear-statement", |t| t != later).await;
    assert_eq!(a.console_errors().await, Vec::<String>::new());
    a.finish().await;
}

#[tokio::test]
async fn depths_are_read_corrected_and_learned_from() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = a.job("Sedge electric saloon").await;
    a.open(&format!("/job/{id}/wear")).await;
    a.press("wear-depths").await;
    let said = a.until("depths-statement", |t| t.contains("Lasts")).await;
    // Nothing typed is lost on a bad line.
    a.press("tread-keep").await;
    a.until("depth-plot", |_| true).await;
    assert!(a.el(".wear-side .Mui-error").await.text().await.is_ok());
    a.fill("[data-testid=tread-odometer]", "42000").await;
    a.fill("[data-testid=tread-inner]", "4.6").await;
    a.fill("[data-testid=tread-centre]", "deep").await;
    a.fill("[data-testid=tread-outer]", "5.1").await;
    a.press("tread-keep").await;
    assert_eq!(a.id("tread-odometer").await.prop("value").await.unwrap().unwrap(), "42000");
    a.fill("[data-testid=tread-centre]", "4.9").await;
    a.press("tread-keep").await;
    a.until("log-table", |t| t.contains("42 000") && t.contains("4.9")).await;
    a.until("depths-statement", |t| t != said).await;
    let log = a.fetch(&format!("/api/v1/jobs/{id}/tread")).await;
    assert_eq!(log["tyres"][0]["lines"].as_array().unwrap().len(), 4);
    // A depth that grew is warned of.
    a.fill("[data-testid=tread-odometer]", "43000").await;
    for (k, v) in [("inner", "7.9"), ("centre", "4.8"), ("outer", "5.0")] {
        a.fill(&format!("[data-testid=tread-{k}]"), v).await;
    }
    a.press("tread-keep").await;
    a.until("log-warnings", |t| t.contains("inner grew")).await;
    // Rotation: every pattern with what it does; a directional tread hinders what it must.
    a.press("wear-rotate").await;
    a.until("rotate-statement", |t| t.contains('×')).await;
    a.press("rotation-cross_both").await;
    assert!(a.text("rotation-cross_both").await.contains("km"));
    a.finish().await;
}

#[tokio::test]
async fn causes_are_ranked_and_the_separating_question_is_asked() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = a.job("Quarry 4x4 pickup").await;
    a.open(&format!("/job/{id}/wear")).await;
    a.press("wear-diagnose").await;
    a.until("diagnose-statement", |t| t.contains("Say what")).await;
    a.press("seen-pattern-inner_edge").await;
    a.press("seen-height-lower").await;
    a.until("cause-0", |t| t.contains("Camber at the low height")).await;
    a.press("seen-feather-rough_inward").await;
    a.until("cause-0", |t| t.contains("Toe that changes with height") && t.contains("Separates it")).await;
    // Taken out again, another found; worn cords stop everything.
    a.press("seen-feather-rough_inward").await;
    a.press("seen-pattern-diagonal").await;
    a.press("seen-driven-no").await;
    a.until("diagnose-replace", |t| t.contains("replace before aligning")).await;
    a.press("seen-cords-yes").await;
    a.until("diagnose-stop", |t| t.contains("not driven on")).await;
    a.finish().await;
}

#[tokio::test]
async fn no_view_of_the_bench_overflows_its_page() {
    for (w, h) in [(1280, 800), (1024, 768), (390, 844)] {
        let a = App::start(w, h).await;
        a.open("/").await;
        let id = a.job("Sedge electric saloon").await;
        a.open(&format!("/job/{id}/wear")).await;
        for mode in ["tread", "depths", "rotate", "diagnose"] {
            a.press(&format!("wear-{mode}")).await;
            a.el(".wear-main h1").await;
            let wide: Value = a
                .c
                .execute("// Panes of a phone lie side by side: each by itself.
                    const all = [...document.querySelectorAll(innerWidth < 768 ? '.wear-main > section' : '.wear-main, .wear-main > section')];
                    return all.map(e => e.scrollWidth - e.clientWidth).concat(document.documentElement.scrollWidth - innerWidth)", vec![])
                .await
                .unwrap();
            let over = wide.as_array().unwrap().iter().filter_map(Value::as_i64).max().unwrap();
            assert!(over <= 1, "{mode} at {w}x{h} is {over} px too wide: {wide}");
        }
        a.finish().await;
    }
}
