//! A job with the keys alone: found, read, planned on the map, fitted, set. Nothing is pressed with a pointer. At 1280 x 800.

use crate::harness::App;
use serde_json::{Value, json};
use std::time::Duration;

const TAB: &str = "\u{e004}";
const ENTER: &str = "\u{e007}";
const SPACE: &str = " ";

/// Types into whatever has the focus.
async fn keys(a: &App, text: &str) {
    a.c.active_element().await.unwrap().send_keys(text).await.unwrap();
}

/// Goes on with Tab until the focus is on something; it has to be seen there.
async fn tab_to(a: &App, css: &str) {
    a.el(css).await;
    for _ in 0..160 {
        let here = "const e = document.activeElement; if (!e?.matches(arguments[0])) return null;
            const c = getComputedStyle(e), i = e.querySelector('*') && getComputedStyle(e.querySelector('*'));
            return [c.outlineStyle !== 'none' || c.boxShadow !== 'none' || i?.outlineStyle !== 'none', e.matches(':focus-visible')]";
        let v = a.c.execute(here, vec![json!(css)]).await.unwrap();
        if v.is_array() {
            assert_eq!(v, json!([true, true]), "the focus on {css} is not seen");
            return;
        }
        keys(a, TAB).await;
    }
    panic!("{css} is not reached with Tab");
}

#[tokio::test]
async fn a_job_is_done_with_the_keys_alone() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = a.job("Quarry 4x4 pickup").await;
    let at = format!("/api/v1/jobs/{id}");
    let ticket = || a.fetch(&at);
    tab_to(&a, "main a[href*=\"/plan\"]").await;
    keys(&a, ENTER).await;
    a.until("headline", |t| t.contains("caster")).await;
    // A point of the weave, a quarter of a degree of caster lower than where it would be set, at the very top of it.
    tab_to(&a, "[data-testid=reach-map]").await;
    for k in ["\u{e015}", "\u{e015}", "\u{e015}", "\u{e015}", "\u{e015}"] {
        keys(&a, k).await;
    }
    let label = "return document.querySelector('[data-testid=reach-map]').getAttribute('aria-label')";
    let said = a.c.execute(label, vec![]).await.unwrap();
    assert!(said.as_str().unwrap().contains("within reach"), "{said}");
    keys(&a, ENTER).await;
    a.id("unpick").await;
    let mut picked = Value::Null;
    for _ in 0..60 {
        let t = ticket().await;
        let doc = &t["plans"].as_array().unwrap().iter().find(|p| p["id"] == t["job"]["plan_id"]).unwrap()["document"];
        picked = doc["axles"]["front"]["picked"]["left"].clone();
        if picked.is_object() {
            break;
        }
        tokio::time::sleep(Duration::from_millis(100)).await;
    }
    assert!(picked["camber_deg"].is_f64() && picked["second_deg"].is_f64(), "{picked}");
    // Put back, and the part in hand fitted.
    tab_to(&a, "[data-testid=unpick]").await;
    keys(&a, ENTER).await;
    a.gone("[data-testid=unpick]").await;
    tab_to(&a, "[data-testid=fit]").await;
    keys(&a, ENTER).await;
    a.until("headline", |t| t.contains("aim")).await;
    // One more reading: on the pad, typed as it comes.
    keys(&a, "2").await;
    let before = ticket().await["readings"].as_array().unwrap().len();
    tab_to(&a, "[data-testid=read-height-front-left]").await;
    keys(&a, ENTER).await;
    a.id("pad-what").await;
    tab_to(&a, "[data-testid=entry]").await;
    keys(&a, "497").await;
    a.until("keep", |t| t.starts_with("Keep ")).await;
    keys(&a, ENTER).await;
    for _ in 0..60 {
        if ticket().await["readings"].as_array().unwrap().len() > before {
            break;
        }
        tokio::time::sleep(Duration::from_millis(100)).await;
    }
    assert!(ticket().await["readings"].as_array().unwrap().len() > before);
    // Set: the first step done, with its key; the focus is in the view that was opened.
    a.open(&format!("/job/{id}/set")).await;
    let first = a.until("set-now", |t| !t.is_empty()).await;
    tab_to(&a, "[data-testid=step-done]").await;
    keys(&a, SPACE).await;
    a.until("set-now", |t| t != first).await;
    // Single keys can be had off, and then they do nothing.
    keys(&a, "?").await;
    tab_to(&a, "[data-testid=single-keys]").await;
    keys(&a, ENTER).await;
    keys(&a, "\u{e00c}").await;
    a.gone("[role=dialog]").await;
    keys(&a, "3").await;
    tokio::time::sleep(Duration::from_millis(400)).await;
    assert!(a.c.current_url().await.unwrap().path().ends_with("/set"));
    a.finish().await;
}

#[tokio::test]
async fn two_screens_that_changed_one_plan_choose_field_by_field() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = a.job("Quarry 4x4 pickup").await;
    a.open(&format!("/job/{id}/plan")).await;
    a.until("headline", |t| t.contains("caster")).await;
    // Another screen lifts it by 5 mm more and drives the tread farther, while what was typed here is not saved yet.
    let began = "const [job] = arguments, done = arguments[arguments.length - 1];
        (async () => {
          const t = await (await fetch(`/api/v1/jobs/${job}`)).json();
          const p = t.plans.find((p) => p.id === t.job.plan_id);
          p.document.axles.front.height_change_mm = 70;
          p.document.limit_mm = 4;
          window.other = p;
          done(p.id);
        })()";
    let plan = a.c.execute_async(began, vec![json!(id)]).await.unwrap();
    let other = "const done = arguments[arguments.length - 1], p = window.other;
        (async () => {
          const r = await fetch(`/api/v1/plans/${p.id}`, {
            method: 'PUT',
            headers: { 'content-type': 'application/json', 'Idempotency-Key': crypto.randomUUID() },
            body: JSON.stringify({ version: p.version, name: p.name, document: p.document }),
          });
          done(r.status);
        })()";
    a.fill("[data-testid=height-input]", "60").await;
    keys(&a, ENTER).await;
    // Half a second after the last change it is saved by itself: the other screen is quicker.
    assert_eq!(a.c.execute_async(other, vec![]).await.unwrap(), 200);
    tab_to(&a, "[data-testid=conflict-open]").await;
    keys(&a, ENTER).await;
    a.until("conflict-front-height", |t| {
        t.contains("+60 mm") && t.contains("+70 mm") && t.contains("both changed")
    })
    .await;
    assert!(a.text("conflict-car-limit").await.contains("4.0 mm"));
    a.press("mine-front-height").await;
    a.press("conflict-keep").await;
    a.gone("[data-testid=conflict]").await;
    a.until("saving", |t| t == "Saved").await;
    let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    let doc = t["plans"].as_array().unwrap().iter().find(|p| p["id"] == plan).unwrap()["document"].clone();
    assert_eq!(
        (doc["axles"]["front"]["height_change_mm"].as_f64(), doc["limit_mm"].as_f64()),
        (Some(60.0), Some(4.0))
    );
    a.finish().await;
}
