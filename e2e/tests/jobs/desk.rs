//! The desk: a ticket kept and taken back, a bay that holds one car, the same car again, a story, a list sieved, and what a plan
//! takes to order. At 1024 x 768.

use crate::harness::App;

#[tokio::test]
async fn a_ticket_is_kept_taken_back_put_away_and_told_from_the_beginning() {
    let a = App::start(1024, 768).await;
    a.open("/").await;
    let id = a.job("Marl wagon").await;
    let ticket = format!("/api/v1/jobs/{id}");
    let was = a.fetch(&ticket).await["job"]["complaint"].as_str().unwrap().to_owned();
    a.open(&format!("/job/{id}/arrive")).await;
    // A bay that another car stands in is refused at its field; what was typed stays.
    a.press("ticket-more").await;
    a.fill("[data-testid=ticket-plate]", "FLEET 88").await;
    a.fill("[data-testid=ticket-odometer]", "84200").await;
    a.fill("[data-testid=ticket-bay]", "1").await;
    a.press("keep-ticket").await;
    a.until("ticket-pane", |t| t.contains("bay 1 holds ticket 0417") && t.contains("a bay that is free"))
        .await;
    a.fill("[data-testid=ticket-bay]", " ").await;
    a.fill("[data-testid=ticket-complaint]", "Sags, and pulls left").await;
    a.press("keep-ticket").await;
    a.until("undo", |t| t.contains("Ticket: kept")).await;
    let job = a.fetch(&ticket).await["job"].clone();
    assert_eq!((job["plate"].as_str(), job["odometer_km"].as_f64()), (Some("FLEET 88"), Some(84_200.0)));
    // Taken back in one press: as it was.
    a.press("undo-last").await;
    a.until("undo", |t| t.contains("Taken back")).await;
    let job = a.fetch(&ticket).await["job"].clone();
    assert_eq!((job["plate"].as_str(), job["complaint"].as_str()), (Some(""), Some(was.as_str())));

    a.press("ticket-more").await;
    a.press("put-away").await;
    a.until("ticket-more", |t| t.contains("put away")).await;
    a.press("ticket-more").await;
    a.press("to-story").await;
    a.until("story", |t| {
        let first = t.find("Demo loaded");
        first.is_some() && first < t.find("Ticket kept") && t.find("Ticket kept") < t.find("Put away")
    })
    .await;
    // Out of the list, found among what was put away, and opened again as another ticket.
    a.open("/").await;
    a.press("archived-jobs").await;
    a.el(&format!("a[href='/job/{id}/story']")).await;
    a.open(&format!("/job/{id}/arrive")).await;
    a.press("ticket-more").await;
    a.press("same-car-again").await;
    a.until("ticket-more", |t| t.contains("no bay") && !t.contains("put away")).await;
    let url = a.c.current_url().await.unwrap().to_string();
    assert!(!url.contains(&id), "{url}");
    a.open("/").await;
    a.el(".job-row").await;
    let rows = "return document.querySelectorAll('.job-row').length";
    let all = a.c.execute(rows, vec![]).await.unwrap().as_u64().unwrap();
    a.el("option[value=pull]").await;
    a.choose("sieve-kind", "pull").await;
    let mut now = all;
    for _ in 0..40 {
        now = a.c.execute(rows, vec![]).await.unwrap().as_u64().unwrap();
        if now < all {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(150)).await;
    }
    assert!(now < all, "{now} of {all}");
    a.finish().await;
}

#[tokio::test]
async fn what_a_plan_takes_is_listed_to_order() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let id = a.job("Quarry 4x4 pickup").await;
    let t = a.fetch(&format!("/api/v1/jobs/{id}")).await;
    let parts =
        |p: &&serde_json::Value| !p["document"]["axles"]["front"]["fitted"].as_array().unwrap().is_empty();
    let plan = t["plans"].as_array().unwrap().iter().find(parts).unwrap()["id"].as_str().unwrap().to_owned();
    a.open(&format!("/job/{id}/plan?plan={plan}")).await;
    a.press("plan-menu").await;
    a.press("plan-order").await;
    a.until("order-list", |t| t.contains("Together") && t.contains("Labour, min")).await;
    let rows = "return document.querySelectorAll('.order-table tbody tr').length";
    assert_eq!(a.c.execute(rows, vec![]).await.unwrap().as_u64(), Some(1));
    // The view that came has the focus: the keys go on in it.
    let focus = "return document.activeElement.tagName";
    let mut at = serde_json::Value::Null;
    for _ in 0..20 {
        at = a.c.execute(focus, vec![]).await.unwrap();
        if at == "MAIN" {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(100)).await;
    }
    assert_eq!(at, "MAIN");
    a.finish().await;
}
