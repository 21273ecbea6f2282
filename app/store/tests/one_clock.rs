//! What happened on a job keeps its order, whatever a clock was set to.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_docs)]

mod db;

use bold_stance_store::job::{self, Asked};
use bold_stance_store::{done, event, plan, visit};
use bold_stance_trade::reading::Visit;
use bold_stance_trade::sheet::{DoneRecord, Mark, StepId};
use chrono::{Duration, Utc};
use db::{fresh, load};

#[tokio::test]
async fn nothing_of_a_job_is_stamped_before_what_it_has_already() {
    let db = fresh("one_clock").await;
    let shop = load(&db, false).await.unwrap();
    let mut tx = db.tx(shop.id).await.unwrap();
    let one = job::list(&mut tx, Asked::default(), 10).await.unwrap().remove(0);
    let id = one.job.id;
    // A clock that is right: the time is the time.
    let now = event::now(&mut tx, id).await.unwrap();
    assert!((Utc::now() - now).num_seconds().abs() < 60);
    // Somebody wrote while the clock was two hours ahead; it was set back since.
    let ahead = Utc::now() + Duration::hours(2);
    let told = bold_stance_trade::job::Event {
        at: ahead,
        author: "Bay 2".into(),
        what: "looked".into(),
        detail: serde_json::json!({}),
    };
    event::add(&mut tx, shop.id, id, &told).await.unwrap();
    let p = plan::of_job(&mut tx, id).await.unwrap().remove(0);
    let mut last = ahead;
    for n in 0..3 {
        let now = event::now(&mut tx, id).await.unwrap();
        assert!(now > last, "{n}: {now} after {last}");
        visit::open_again(&mut tx, shop.id, id, Visit::Returned, "Bay 2").await.unwrap();
        let opened = visit::of_job(&mut tx, id).await.unwrap();
        let opened = opened.iter().find(|v| v.kind == Visit::Returned).unwrap().opened_at;
        assert!(opened > last);
        let step = Mark::Step(StepId::Proved);
        done::mark(&mut tx, shop.id, p.id, &step, Some(&DoneRecord::default()), "Bay 2").await.unwrap();
        let done_at =
            done::of_job(&mut tx, id).await.unwrap().into_iter().find(|d| d.step == step).unwrap().done_at;
        assert!(done_at > last);
        done::mark(&mut tx, shop.id, p.id, &step, None, "Bay 2").await.unwrap();
        event::record(&mut tx, shop.id, Some(id), "Bay 2", "looked", serde_json::json!({"n": n}))
            .await
            .unwrap();
        last = event::of_job(&mut tx, id).await.unwrap().last().unwrap().at;
        assert!(last > now - Duration::seconds(1) && last >= opened && last >= done_at);
    }
    // Another job goes by the clock.
    let other = job::list(&mut tx, Asked::default(), 10).await.unwrap().remove(1).job.id;
    assert!(event::now(&mut tx, other).await.unwrap() < ahead);
}
