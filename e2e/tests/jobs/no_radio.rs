//! A bay without radio: the server is killed, readings are typed on, the page is loaded anew, and all of it goes out once the
//! server is back. On a tablet at 1024 x 768.

use crate::harness::App;
use std::time::Duration;

#[tokio::test]
async fn readings_typed_without_the_server_wait_and_go_out_once() {
    let mut a = App::start(1024, 768).await;
    a.open("/").await;
    let id = a.job("Tern estate").await;
    let ticket = format!("/api/v1/jobs/{id}");
    let before = a.fetch(&ticket).await["readings"].as_array().unwrap().len();
    a.open(&format!("/job/{id}/read")).await;
    a.el("[data-testid=read-camber-front-left]").await;
    // The pages are kept by the browser once they were here.
    let ready =
        "const d=arguments[arguments.length-1];navigator.serviceWorker.ready.then(()=>d(true),()=>d(false))";
    assert_eq!(a.c.execute_async(ready, vec![]).await.unwrap(), true);

    a.kill();
    a.press("read-camber-front-left").await;
    a.fill("[data-testid=entry]", "-0.7").await;
    a.until("preview", |t| t.contains("No answer from the server")).await;
    a.press("keep").await;
    a.until("waiting", |t| t.contains("1 reading waits here")).await;
    // Another one, and a wrong one that nobody can judge now.
    a.open(&format!("/job/{id}/read?at=camber.right.front")).await;
    a.until("waiting", |t| {
        t.contains("1 reading waits here") && t.contains("No answer from the server since")
    })
    .await;
    a.fill("[data-testid=entry]", "-0.65").await;
    a.press("keep").await;
    a.until("waiting", |t| t.contains("2 readings wait")).await;
    a.open(&format!("/job/{id}/read?at=caster.left.front")).await;
    a.fill("[data-testid=entry]", "abc").await;
    a.press("keep").await;
    a.until("waiting", |t| t.contains("3 readings wait")).await;
    // Every stage opens with what it had last.
    a.open(&format!("/job/{id}/arrive")).await;
    a.until("waiting", |t| t.contains("3 readings wait")).await;
    a.el("main").await;

    a.back();
    a.until("waiting", |t| t.contains("1 reading was not taken") && !t.contains("No answer")).await;
    a.press("waiting-show").await;
    a.until("waits", |t| t.contains("abc") && t.contains("Right would be")).await;
    a.press("waits-drop").await;
    a.gone("[data-testid=waiting]").await;
    // Each of the others once, in the order they were typed; nothing more comes.
    tokio::time::sleep(Duration::from_secs(5)).await;
    let after = a.fetch(&ticket).await;
    let new: Vec<f64> = after["readings"].as_array().unwrap()[before..]
        .iter()
        .map(|r| r["raw"][0]["text"].as_str().unwrap().parse().unwrap())
        .collect();
    assert_eq!(new, [-0.7, -0.65]);
    a.finish().await;
}

/// The database is being moved: everything can be read and nothing written. What is typed waits, and the page says why.
#[tokio::test]
async fn a_reading_a_database_cannot_take_now_waits_and_goes_out_once() {
    let mut a = App::start(1024, 768).await;
    a.open("/").await;
    let id = a.job("Tern estate").await;
    let ticket = format!("/api/v1/jobs/{id}");
    let before = a.fetch(&ticket).await["readings"].as_array().unwrap().len();
    a.kill();
    a.reads_only(true).await;
    a.back();
    a.open(&format!("/job/{id}/read?at=camber.left.front")).await;
    a.fill("[data-testid=entry]", "-0.7").await;
    a.until("preview", |t| t.contains("0.70")).await;
    a.press("keep").await;
    a.until("waiting", |t| t.contains("Only to be read now") && t.contains("1 reading waits here")).await;
    // Nothing is lost by going elsewhere.
    a.open(&format!("/job/{id}/arrive")).await;
    a.until("waiting", |t| t.contains("1 reading waits here")).await;
    a.kill();
    a.reads_only(false).await;
    a.back();
    a.gone("[data-testid=waiting]").await;
    let after = a.fetch(&ticket).await;
    let new = &after["readings"].as_array().unwrap()[before..];
    assert_eq!(new.len(), 1);
    assert_eq!(new[0]["raw"][0]["text"], "-0.7");
    a.finish().await;
}
