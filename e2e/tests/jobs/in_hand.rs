//! The gauge in the hand: camber of the wheels is read without a key pressed, each place after the other. At 1024 x 768.

use crate::harness::App;
use std::time::Duration;

#[tokio::test]
async fn the_gauge_in_hand_reads_one_wheel_after_the_other() {
    let a = App::start(1024, 768).await;
    a.open("/").await;
    let id = a.job("Cobnut coupe").await;
    let ticket = format!("/api/v1/jobs/{id}");
    let read = || async {
        let t = a.fetch(&ticket).await;
        let all = t["readings"].as_array().unwrap().clone();
        all.iter().filter(|r| r["quantity"] == "camber").count()
    };
    let before = read().await;
    a.open(&format!("/job/{id}/read?at=camber.left.front")).await;
    a.press("method-camber-gauge").await;
    a.el("[data-testid=gauge]").await;
    a.press("gauge-in-hand").await;
    // Nothing else is pressed.
    let mut now = before;
    for _ in 0..60 {
        tokio::time::sleep(Duration::from_millis(500)).await;
        now = read().await;
        if now > before {
            break;
        }
    }
    assert!(now > before, "nothing was taken");
    let t = a.fetch(&ticket).await;
    let r =
        t["readings"].as_array().unwrap().iter().rev().find(|r| r["quantity"] == "camber").unwrap().clone();
    assert_eq!(r["method"], "camber-gauge");
    // The next place is lit: another wheel or another quantity, never the same one again by itself.
    a.until("pad-what", |t| !(t.contains("Camber") && t.contains("left front"))).await;
    a.finish().await;
}
