//! People at one bench: the first run, names and PINs, what an apprentice may not, the lock beside the open order, and two
//! screens that follow each other.
use crate::harness::App;

async fn pin(a: &App, digits: &str) {
    for d in digits.chars() {
        a.press(&format!("digit-{d}")).await;
    }
}

/// The first run to the page of people, with a PIN for a name.
async fn claimed(a: &App, name: &str, digits: &str) {
    a.open("/").await;
    a.press("at-bench").await;
    a.press("to-people").await;
    a.fill("[data-testid=first-name]", "Larkspur Axle & Arm").await;
    a.press("first-next").await;
    // What everybody tries first is told at its place, and everything else stays.
    pin(a, "1234").await;
    a.press("pin-once").await;
    pin(a, "1234").await;
    a.press("pin-again").await;
    a.press("first-claim").await;
    a.until("pin-once", |t| t.contains("And again")).await;
    pin(a, "4071").await;
    a.press("pin-once").await;
    pin(a, "4071").await;
    a.press("pin-again").await;
    a.press("first-claim").await;
    a.until("slip-letters", |t| t.len() == 29).await;
    a.press("slip-kept").await;
    a.press("slip-done").await;
    a.click(&format!("[data-testid='member-{name}'] button")).await;
    a.press("set-pin").await;
    pin(a, digits).await;
    a.press("pin-keep").await;
    a.gone("[data-testid=pin-keep]").await;
    a.until(&format!("member-{name}"), |t| t.contains("PIN") && !t.contains("no PIN")).await;
}

#[tokio::test]
async fn a_shop_gets_an_owner_and_an_apprentice_opens_no_gate() {
    let a = App::start(1280, 800).await;
    claimed(&a, "Apprentice", "7013").await;
    a.press("at-bench").await;
    a.press("leave-bench").await;
    // The shop's own pages are not left in sight.
    a.id("door").await;
    a.press("name-Apprentice").await;
    pin(&a, "7014").await;
    a.press("pin-open").await;
    a.until("pin-said", |t| t.contains("4 tries")).await;
    pin(&a, "7013").await;
    a.press("pin-open").await;
    a.gone("[data-testid=door]").await;
    // The owner's page is not theirs.
    a.id("at-bench").await;
    let t = a.fetch("/api/v1/session").await;
    assert_eq!(t["who"]["name"], "Apprentice");
    // The sheet: a step is closed and signed, a gate is not theirs to open.
    a.go("/").await;
    let job = a.job("Tern estate").await;
    a.go(&format!("/job/{job}/set")).await;
    a.press("step-done").await;
    a.until("set-now", |t| !t.contains("Stand and mark")).await;
    let now = a.fetch(&format!("/api/v1/jobs/{job}")).await;
    let done = now["done"].as_array().unwrap().last().unwrap().clone();
    assert_eq!(done["author"], "Apprentice");
    // Nobody touches it: here the bench is left by hand, and the order stays in sight beside the door.
    a.press("at-bench").await;
    a.press("leave-bench").await;
    a.id("door").await;
    assert!(!a.inner("set-now").await.is_empty());
    // Only the one who left is asked for; opens by itself at the fourth digit now.
    pin(&a, "7013").await;
    a.gone("[data-testid=door]").await;
    a.until("set-now", |t| !t.contains("Stand and mark")).await;
    a.finish().await;
}

/// In a shop with an owner a page that is opened anew works out, saves and searches as one that was open: nothing is asked for
/// before it is known who sits there, and a page of before somebody else signed in goes on by itself.
#[tokio::test]
async fn a_page_opened_anew_in_a_locked_shop_plans_and_saves() {
    let a = App::start(1280, 800).await;
    a.open("/").await;
    let job = a.job("Quarry 4x4 pickup").await;
    a.lock().await;
    for _ in 0..4 {
        a.open(&format!("/job/{job}/plan")).await;
        a.until("headline", |t| t.contains("caster")).await;
    }
    a.fill("[data-testid=height-input]", "60").await;
    a.click("[data-testid=headline]").await;
    a.until("saving", |t| t == "Saved").await;
    // Another page of this browser signed in since: what this one carries is of before.
    let again = "const done = arguments[arguments.length - 1];
        (async () => {
          const s = await (await fetch('/api/v1/session')).json();
          const head = {'content-type': 'application/json', 'x-csrf-token': s.csrf};
          const r = await fetch('/api/v1/session/pin', {method: 'POST', headers: head,
            body: JSON.stringify({member: s.who.member, pin: '4071'})});
          done(r.status);
        })()";
    assert_eq!(a.c.execute_async(again, vec![]).await.unwrap(), 200);
    a.fill("[data-testid=height-input]", "55").await;
    a.click("[data-testid=headline]").await;
    let mut kept = None;
    for _ in 0..80 {
        let t = a.fetch(&format!("/api/v1/jobs/{job}")).await;
        let plan =
            t["plans"].as_array().unwrap().iter().find(|p| p["id"] == t["job"]["plan_id"]).unwrap().clone();
        kept = plan["document"]["axles"]["front"]["height_change_mm"].as_f64();
        if kept == Some(55.0) {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(100)).await;
    }
    assert_eq!(kept, Some(55.0));
    a.until("saving", |t| t == "Saved").await;
    let odd: Vec<String> = a.console_errors().await.into_iter().filter(|e| !e.contains("403")).collect();
    assert!(odd.is_empty(), "{odd:?}");
}

#[tokio::test]
async fn what_one_screen_does_the_other_shows_within_a_second() {
    let a = App::start(1024, 768).await;
    a.open("/").await;
    let job = a.job("Tern estate").await;
    a.go(&format!("/job/{job}/set")).await;
    a.until("set-now", |t| t.contains("Stand and mark")).await;
    // Another screen of the shop, on another server process of the same database.
    let other = a.other_server();
    let t = a.fetch(&format!("/api/v1/jobs/{job}")).await;
    let plan = t["job"]["plan_id"].as_str().unwrap();
    let body = serde_json::json!({"step": "support", "done": true});
    let began = std::time::Instant::now();
    let status = other.put(&format!("/api/v1/plans/{plan}/done"), &body);
    assert_eq!(status, 200);
    a.until("set-now", |t| !t.contains("Stand and mark")).await;
    let took = began.elapsed();
    println!("told after {took:?}");
    assert!(took.as_secs() < 5, "{took:?}");
    // The code that opens this sheet on the phone.
    a.press("on-phone").await;
    let code = a.el("[data-testid=on-phone-code] img").await;
    assert!(code.attr("src").await.unwrap().unwrap().contains("sheet-code.svg"));
    let wide = "return document.querySelector('[data-testid=on-phone-code] img').naturalWidth";
    for _ in 0..40 {
        if a.c.execute(wide, vec![]).await.unwrap().as_i64().unwrap() > 0 {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(100)).await;
    }
    assert!(a.c.execute(wide, vec![]).await.unwrap().as_i64().unwrap() > 0, "a code that can be read");
    a.finish().await;
}
