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

/// A stub of the browser's serial port that speaks as docs/GAUGE.md has it. Its angles are those of the simulated gauge, as the
/// server passes them on, with what the test adds to them.
const PORT: &str = "
    const bytes = (t) => new TextEncoder().encode(t + '\\n');
    let out, seq = 0; window.more = 0;
    const readable = new ReadableStream({ start: (c) => { out = c; } });
    const writable = new WritableStream({ write: () => out.enqueue(bytes('ok')) });
    const open = async () => {
      out.enqueue(bytes('hello bold-stance.gauge/1 name=Cable_gauge step=0.05'));
      new EventSource('/api/v1/gauge/stream').onmessage = (e) =>
        out.enqueue(bytes(`angle ${(JSON.parse(e.data).deg + window.more).toFixed(3)} seq=${(seq += 1)}`));
    };
    const port = { open, close: async () => {}, readable, writable };
    Object.defineProperty(navigator, 'serial', { configurable: true, value: { requestPort: async () => port } });";

#[tokio::test]
async fn a_gauge_by_cable_is_read_and_shows_what_is_left_while_a_cam_is_loose() {
    let a = App::start(1024, 768).await;
    a.open("/").await;
    let id = a.job("Tern estate").await;
    // On the pad: the angle of the cable is taken as any other.
    a.open(&format!("/job/{id}/read?at=camber.left.front")).await;
    a.press("method-camber-gauge").await;
    a.el("[data-testid=gauge]").await;
    a.c.execute(PORT, vec![]).await.unwrap();
    a.press("gauge-cable").await;
    a.until("gauge", |t| t.contains("Cable gauge")).await;
    a.until("gauge-angle", |t| t.ends_with('\u{b0}')).await;
    a.press("gauge-take").await;
    a.until("keep", |t| t.starts_with("Keep ")).await;
    // At the cams, without loading a page anew: the cable stays.
    let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    let plan = t["job"]["plan_id"].as_str().unwrap().to_owned();
    let sheet = a.fetch(&format!("/api/v1/plans/{plan}/sheet")).await;
    a.go(&format!("/job/{id}/set")).await;
    a.front_height_set(&sheet).await;
    a.until("set-now", |t| t.starts_with("Cams")).await;
    let sheet = a.fetch(&format!("/api/v1/plans/{plan}/sheet")).await;
    let step = sheet["steps"].as_array().unwrap().iter().find(|s| s["id"] == "cams").unwrap().clone();
    let turns = |o: &&serde_json::Value| o["line"]["in_hand"]["path"].is_array();
    let path =
        step["orders"].as_array().unwrap().iter().find(turns).unwrap()["line"]["in_hand"]["path"].clone();
    let camber = |share: f64| {
        let all: Vec<(f64, f64)> = path
            .as_array()
            .unwrap()
            .iter()
            .map(|p| (p["share"].as_f64().unwrap(), p["camber_deg"].as_f64().unwrap()))
            .collect();
        all.iter().min_by(|x, y| (x.0 - share).abs().total_cmp(&(y.0 - share).abs())).unwrap().1
    };
    let ordered = a.text("in-hand-amount").await;
    a.until("loose", |t| t.contains('\u{b0}')).await;
    a.press("loose-start").await;
    a.until("loose-left", |t| t.contains(&ordered)).await;
    // Turned half way, then all of it, as the wheel would show it.
    let half = vec![serde_json::json!(camber(0.5) - camber(0.0))];
    a.c.execute("window.more = arguments[0]", half).await.unwrap();
    a.until("loose-left", |t| t.contains("left") && !t.contains(&ordered)).await;
    let all = vec![serde_json::json!(camber(1.0) - camber(0.0))];
    a.c.execute("window.more = arguments[0]", all).await.unwrap();
    a.until("loose-left", |t| t.contains("Stop")).await;
    a.press("loose-use").await;
    a.until("as-ordered", |t| t.starts_with("As told: ")).await;
    a.finish().await;
}
