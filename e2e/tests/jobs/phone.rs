//! A job in one hand: one pane per screen, swiped or opened by name, everything else behind one button, numbers with what they
//! come to in one view. At 390 x 844.

use crate::harness::App;
use serde_json::{Value, json};
use std::time::Duration;

/// Names of the panes, and which of them fills the screen.
async fn panes(a: &App) -> (Vec<String>, String) {
    let script = "const all = [...document.querySelectorAll('.pane-bar button')];
        return [all.map(e => e.textContent), all.find(e => e.getAttribute('aria-current'))?.textContent ?? '']";
    let v = a.c.execute(script, vec![]).await.unwrap();
    let names = v[0].as_array().unwrap().iter().map(|n| n.as_str().unwrap().to_owned()).collect();
    (names, v[1].as_str().unwrap().to_owned())
}

/// Waits until a pane fills the screen.
async fn filled(a: &App, name: &str) {
    for _ in 0..100 {
        if panes(a).await.1 == name {
            return;
        }
        tokio::time::sleep(Duration::from_millis(50)).await;
    }
    panic!("{name} is not in front: {:?}", panes(a).await);
}

/// Everything that is pressed in what is in view, smaller than 44 px either way (48 high for a pad's keys), or off the page.
async fn small(a: &App) -> Value {
    let script = "const out = [];
        for (const e of document.querySelectorAll('main button, main a, .strip a, .strip button, .pane-bar button')) {
          const b = e.getBoundingClientRect();
          if (!b.width || b.left < 0 || b.right > innerWidth + 1 || b.top < 0 || b.bottom > innerHeight) continue;
          const least = e.closest('.keys') ? 48 : 44;
          if (b.height < least - 0.5 || b.width < 43.5) out.push(`${e.textContent}: ${b.width}x${b.height}`);
        }
        return out";
    a.c.execute(script, vec![]).await.unwrap()
}

#[tokio::test]
async fn a_phone_has_one_pane_at_a_time_and_everything_within_reach() {
    let a = App::start(390, 844).await;
    a.open("/").await;
    let id = a.job("Quarry 4x4 pickup").await;
    a.open(&format!("/job/{id}/plan")).await;
    a.until("headline", |t| t.contains("caster")).await;
    let (names, now) = panes(&a).await;
    assert_eq!((names.join(" "), now.as_str()), ("Map Height Parts Joints".to_owned(), "Map"));
    // The part in hand is in the first screen, with what to do about it.
    let at = a.id("fit-in-hand").await.rectangle().await.unwrap();
    assert!(at.1 + at.3 <= 844.0, "{at:?}");
    assert_eq!(small(&a).await, json!([]));
    // Swiped: a pane at a time, and it stays there.
    let swipe = "document.querySelector('main').scrollBy({ left: 300 })";
    a.c.execute(swipe, vec![]).await.unwrap();
    filled(&a, "Height").await;
    a.press("pane-3").await;
    filled(&a, "Joints").await;
    assert_eq!(small(&a).await, json!([]));
    a.press("pane-0").await;
    filled(&a, "Map").await;
    // Nearer, and the whole of it again; two fingers do it too.
    a.press("map-nearer").await;
    a.until("map-nearer", |t| t.contains("×2.0")).await;
    assert_eq!(small(&a).await, json!([]));
    a.press("map-nearer").await;
    a.until("map-nearer", |t| t == "Nearer").await;
    a.press("fit-in-hand").await;
    a.until("headline", |t| t.contains("aim")).await;
    // A finger on a drawing scrolls: what moves is the handle alone.
    let free = "return [...document.querySelectorAll('main svg, main svg *')].filter(e => getComputedStyle(e).touchAction === 'none' && !e.closest('.grip, .ladder-grip')).length";
    assert_eq!(a.c.execute(free, vec![]).await.unwrap(), json!(0));
    // Stages, units, light and keys from the bottom.
    a.press("stage-sheet").await;
    for s in ["arrive", "read", "plan", "wear", "set", "prove", "return"] {
        a.id(&format!("go-{s}")).await;
    }
    a.press("units-length-in").await;
    a.press("sheet-light").await;
    a.press("go-set").await;
    a.until("strip-front", |t| t.starts_with("22")).await;
    filled(&a, "Now").await;
    let dark = a.c.execute("return document.documentElement.dataset.theme", vec![]).await.unwrap();
    assert_eq!(dark, json!("night"));
    assert_eq!(small(&a).await, json!([]));
    a.press("pane-1").await;
    filled(&a, "All steps").await;
    a.finish().await;
}

#[tokio::test]
async fn a_number_its_result_and_what_was_taken_out_are_in_one_view() {
    let a = App::start(390, 844).await;
    a.open("/").await;
    let id = a.job("Cobnut coupe").await;
    a.open(&format!("/job/{id}/read?at=camber.left.front")).await;
    a.press("pane-2").await;
    a.press("method-camber-gauge").await;
    a.press("pane-0").await;
    filled(&a, "Pad").await;
    assert_eq!(small(&a).await, json!([]));
    let tops = "return [...document.querySelectorAll('.keys button, [data-testid=keep]')].map(e => e.getBoundingClientRect().top)";
    let before = a.c.execute(tops, vec![]).await.unwrap();
    // A wrong one first: nothing moves for what is said of it.
    a.fill("[data-testid=entry]", "abc").await;
    a.until("pad-fault", |t| t.contains("abc")).await;
    assert_eq!(a.c.execute(tops, vec![]).await.unwrap(), before);
    a.fill("[data-testid=entry]", "-1°15'").await;
    let says = a.until("result-line", |t| t.contains("\u{2212}1.2") && t.contains('\u{b1}')).await;
    assert!(says.contains("floor") || says.contains("nothing taken out"), "{says}");
    assert_eq!(a.c.execute(tops, vec![]).await.unwrap(), before);
    for id in ["entry", "result-line", "keep"] {
        let at = a.id(id).await.rectangle().await.unwrap();
        assert!(at.1 >= 0.0 && at.1 + at.3 <= 844.0, "{id}: {at:?}");
    }
    a.press("keep").await;
    a.gone("[data-testid=result-line]").await;
    let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    let kept =
        t["readings"].as_array().unwrap().iter().rev().find(|r| r["quantity"] == "camber").unwrap().clone();
    assert_eq!(kept["raw"][0]["text"], "-1°15'");
    a.finish().await;
}

#[tokio::test]
async fn a_new_arrival_is_taken_in_from_whichever_pane_is_open() {
    let a = App::start(390, 844).await;
    a.open("/new").await;
    a.until("save-vehicle", |t| t == "Give it a name").await;
    for pane in ["Facts", "Axles", "Drawings"] {
        let n = ["Facts", "Axles", "Drawings"].iter().position(|p| *p == pane).unwrap();
        a.press(&format!("pane-{n}")).await;
        filled(&a, pane).await;
        let at = a.id("save-vehicle").await.rectangle().await.unwrap();
        assert!(at.0 >= 0.0 && at.0 + at.2 <= 390.0 && at.1 + at.3 <= 844.0, "{pane}: {at:?}");
    }
    // What is wrong is said there too, in whichever pane it stands.
    a.press("pane-0").await;
    a.fill("[data-testid=name]", "Teal hatch").await;
    a.fill("[data-testid=wheelbase_mm]", "long").await;
    a.press("pane-2").await;
    filled(&a, "Drawings").await;
    a.until("form-fault", |t| t.contains("Wheelbase")).await;
    let at = a.id("form-fault").await.rectangle().await.unwrap();
    assert!(at.0 >= 0.0 && at.0 + at.2 <= 390.0 && at.1 >= 110.0, "{at:?}");
    a.press("pane-0").await;
    a.fill("[data-testid=wheelbase_mm]", "106 in").await;
    a.press("pane-1").await;
    filled(&a, "Axles").await;
    a.press("save-vehicle").await;
    a.id("read-next").await;
    a.finish().await;
}
