//! The jig, by hand: two ways to one camber, turned until they part.

use crate::harness::App;

#[tokio::test]
async fn the_same_camber_made_in_two_places_is_two_cars() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    a.press("to-jig").await;
    // At the knuckle the axis stays: farther in at lock than with the axis leaned along.
    a.until("jig-says", |t| t == "Outside wheel at lock: A −3.3°, B −3.1°").await;
    // B at the lower arm of a strut, with more caster: by the keys.
    a.press("jig-strut").await;
    a.press("jig-B").await;
    a.press("jig-at-lower_arm").await;
    a.until("jig-says", |t| {
        t.contains("A −") && t.contains("B −") && t != "Outside wheel at lock: A −3.3°, B −3.1°"
    })
    .await;
    let before = a.id("jig-says").await.text().await.unwrap();
    let caster = a.el("[data-testid=jig-caster_deg] input").await;
    caster.send_keys(&"\u{e014}".repeat(8)).await.unwrap();
    a.until("jig-says", |t| t != before).await;
    // The view is turned by the keys, and says from where it is seen.
    let view = a.id("jig-view").await;
    view.send_keys("\u{e014}").await.unwrap();
    assert!(view.attr("aria-label").await.unwrap().unwrap().contains("seen from 34 degrees round"));
    a.finish().await;
}
