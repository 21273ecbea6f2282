//! The store on a real PostgreSQL (TEST_DATABASE_URL, which ./test starts). One database a test.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_docs)]

use bold_stance_car::vehicle::Sides;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_store::job::{self, Asked, NewJob, Stage};
use bold_stance_store::reading;
use bold_stance_store::{
    Store, StoreError, bundle, done, event, note, plan, shop, shop_aim, shop_part, shop_shape, tread,
    vehicle, visit, write_key,
};
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::job::{JobBundle, Note, PhotoSize, Reading, VehicleFacts, present_form, standing};
use bold_stance_trade::memory::Memory;
use bold_stance_trade::part::shipped_parts;
use bold_stance_trade::reading::{
    Answers, Correction, CorrectionKind, Jack, Method, Place, Quantity, RawEntry, ReadAxle, ReadSide,
    TicketKind, Visit,
};
use bold_stance_trade::sheet::{DoneRecord, Mark, StepId};
use bold_stance_tread::{LogEntry, TyrePlace};
use bold_stance_units::LengthUnit;
use chrono::Utc;
use uuid::Uuid;

mod db;
use db::{another, before, fresh, load};

const LEFT: Place = Place { axle: ReadAxle::Front, side: ReadSide::Left };

fn camber(text: &str, value: f64) -> Reading {
    Reading {
        id: Uuid::new_v4(),
        visit: Visit::Found,
        quantity: Quantity::Camber,
        axle: ReadAxle::Front,
        side: ReadSide::Left,
        method: Method::CamberGauge,
        raw: vec![RawEntry::new("angle", text)],
        unit: LengthUnit::Mm,
        value,
        sigma: 0.1,
        corrections: vec![Correction::applied(
            CorrectionKind::FloorSlope,
            -0.2,
            "Floor taken out".into(),
            "It falls to the left.".into(),
        )],
        also: Vec::new(),
        doubt: Vec::new(),
        notes: vec!["a remark".into()],
        jack: Jack::Jacked,
        jacked_height: "545".into(),
        height_mm: Some(545.0),
        author: "Specialist".into(),
        replaces: None,
        taken_at: Utc::now(),
    }
}

#[tokio::test]
async fn the_demo_loads_once_and_resets() {
    let store = fresh("demo").await;
    let s = load(&store, false).await.unwrap();
    load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let jobs = job::list(&mut tx, Asked::default(), 100).await.unwrap();
    assert_eq!(jobs.len(), 7);
    assert_eq!(jobs[0].vehicle, "Quarry 4x4 pickup");
    assert_eq!((jobs[0].readings, jobs[0].height_change_mm), (8, Some(65.0)));
    assert_eq!(jobs[2].readings, 4);
    let v = vehicle::get(&mut tx, jobs[0].job.vehicle_id).await.unwrap();
    assert!(v.facts.to_car().unwrap().problems().is_empty());
    drop(tx);
    let again = load(&store, true).await.unwrap();
    assert_ne!(again.id, s.id);
    let mut tx = store.tx(again.id).await.unwrap();
    assert_eq!(job::list(&mut tx, Asked::default(), 100).await.unwrap().len(), 7);
}

#[tokio::test]
async fn migrating_twice_changes_nothing() {
    let store = fresh("migrate").await;
    store.owner.migrate().await.unwrap();
    store.ping().await.unwrap();
    assert!(shop::door(&store, None).await.unwrap().is_none());
}

#[tokio::test]
async fn a_correction_is_a_new_reading_and_sending_twice_stores_once() {
    let store = fresh("readings").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let id = job::list(&mut tx, Asked::default(), 1).await.unwrap()[0].job.id;
    let before = reading::of_job(&mut tx, id).await.unwrap();
    let first = standing(&before, Visit::Found, Quantity::Camber, LEFT).unwrap().id;
    let r = camber("-0°24'", -0.4);
    reading::add(&mut tx, s.id, id, &r).await.unwrap();
    reading::add(&mut tx, s.id, id, &r).await.unwrap();
    tx.commit().await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let all = reading::of_job(&mut tx, id).await.unwrap();
    assert_eq!(all.len(), before.len() + 1);
    let now = standing(&all, Visit::Found, Quantity::Camber, LEFT).unwrap();
    assert_eq!((now.id, now.replaces, now.raw[0].text.as_str()), (r.id, Some(first), "-0°24'"));
    assert!(all.iter().any(|x| x.id == first), "the old one stays");
    // Everything of it comes back: corrections with their version, how it stood, remarks.
    assert_eq!((now.corrections.clone(), now.jack, now.height_mm), (r.corrections, r.jack, r.height_mm));
    assert_eq!((now.notes.clone(), now.jacked_height.clone()), (r.notes, r.jacked_height));
    let seen = now.seen();
    assert_eq!(seen.place, Place::wheel(Axle::Front, Side::Left));
    assert_eq!(reading::job_of(&mut tx, r.id).await.unwrap(), Some(id));
}

#[tokio::test]
async fn two_tablets_adding_at_once_lose_nothing() {
    let store = fresh("tablets").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let id = job::list(&mut tx, Asked::default(), 1).await.unwrap()[0].job.id;
    let before = reading::of_job(&mut tx, id).await.unwrap().len();
    drop(tx);
    let add = |k: i32| {
        let (store, shop) = (store.clone(), s.id);
        async move {
            for i in 0..10 {
                let mut tx = store.tx(shop).await.unwrap();
                reading::add(&mut tx, shop, id, &camber("x", f64::from(k * 10 + i) / 100.0)).await.unwrap();
                tx.commit().await.unwrap();
            }
        }
    };
    tokio::join!(add(1), add(2));
    let mut tx = store.tx(s.id).await.unwrap();
    assert_eq!(reading::of_job(&mut tx, id).await.unwrap().len(), before + 20);
}

#[tokio::test]
async fn a_stale_save_is_refused_with_both_versions() {
    let store = fresh("stale").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let id = job::list(&mut tx, Asked::default(), 1).await.unwrap()[0].job.id;
    let p = plan::of_job(&mut tx, id).await.unwrap().remove(0);
    let mut d = p.document.clone();
    d.axles.front.height_change_mm = 70.0;
    assert_eq!(plan::update(&mut tx, p.id, p.version, "Mine", &d).await.unwrap(), p.version + 1);
    let e = plan::update(&mut tx, p.id, p.version, "Theirs", &d).await.unwrap_err();
    assert!(matches!(e, StoreError::Stale { yours: 1, now: 2, .. }), "{e}");
    let vid = job::get(&mut tx, id).await.unwrap().vehicle_id;
    let v = vehicle::get(&mut tx, vid).await.unwrap();
    vehicle::update(&mut tx, v.id, v.version, &v.facts).await.unwrap();
    assert!(matches!(
        vehicle::update(&mut tx, v.id, v.version, &v.facts).await,
        Err(StoreError::Stale { .. })
    ));
    assert_eq!(plan::get(&mut tx, p.id).await.unwrap().name, "Mine");
}

#[tokio::test]
async fn what_is_not_confirmed_leaves_nothing_half_written() {
    let store = fresh("half").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let line = job::list(&mut tx, Asked::default(), 1).await.unwrap().remove(0);
    let v = vehicle::get(&mut tx, line.job.vehicle_id).await.unwrap();
    let new = NewJob {
        complaint: "x".into(),
        bay: None,
        kind: TicketKind::Check,
        plate: String::new(),
        odometer_km: None,
    };
    let vid = vehicle::insert(&mut tx, s.id, &v.facts).await.unwrap();
    let jid = job::insert(&mut tx, s.id, vid, &new).await.unwrap();
    event::record(&mut tx, s.id, Some(jid), "x", "x", serde_json::json!({})).await.unwrap();
    drop(tx); // the connection is lost before the commit
    let mut tx = store.tx(s.id).await.unwrap();
    assert_eq!(job::list(&mut tx, Asked::default(), 100).await.unwrap().len(), 7);
    assert!(matches!(job::get(&mut tx, jid).await, Err(StoreError::Missing { .. })));
    assert!(matches!(vehicle::get(&mut tx, vid).await, Err(StoreError::Missing { .. })));
    assert_eq!(event::count(&mut tx, jid).await.unwrap(), 0);
}

#[tokio::test]
async fn row_level_security_hides_another_shops_rows_even_from_wrong_queries() {
    let store = fresh("rls").await;
    let ours = load(&store, false).await.unwrap();
    let theirs = store.owner.ensure_shop("Another shop").await.unwrap();
    let mut tx = store.tx(ours.id).await.unwrap();
    let id = job::list(&mut tx, Asked::default(), 1).await.unwrap()[0].job.id;
    drop(tx);
    let mut tx = store.tx(theirs.id).await.unwrap();
    assert!(job::list(&mut tx, Asked::default(), 100).await.unwrap().is_empty());
    assert!(matches!(job::get(&mut tx, id).await, Err(StoreError::Missing { .. })));
    let n: i64 = sqlx::query_scalar("select count(*) from reading").fetch_one(&mut *tx).await.unwrap();
    assert_eq!(n, 0);
    drop(tx);
    // Without a shop named, nothing at all.
    let n: i64 = sqlx::query_scalar("select count(*) from job").fetch_one(store.pool()).await.unwrap();
    assert_eq!(n, 0);
}

#[tokio::test]
async fn tickets_count_up_when_two_arrive_together() {
    let store = fresh("tickets").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let vid = job::list(&mut tx, Asked::default(), 1).await.unwrap()[0].job.vehicle_id;
    drop(tx);
    let arrive = || {
        let (store, shop) = (store.clone(), s.id);
        async move {
            let mut tx = store.tx(shop).await.unwrap();
            let id = job::insert(
                &mut tx,
                shop,
                vid,
                &NewJob {
                    complaint: String::new(),
                    bay: None,
                    kind: TicketKind::default(),
                    plate: String::new(),
                    odometer_km: None,
                },
            )
            .await
            .unwrap();
            tx.commit().await.unwrap();
            id
        }
    };
    let (a, b) = tokio::join!(arrive(), arrive());
    let mut tx = store.tx(s.id).await.unwrap();
    let (a, b) = (job::get(&mut tx, a).await.unwrap(), job::get(&mut tx, b).await.unwrap());
    assert_eq!((a.ticket - b.ticket).abs(), 1);
}

#[tokio::test]
async fn stages_go_forward_only_and_steps_can_be_taken_back() {
    let store = fresh("stages").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let id = job::list(&mut tx, Asked::default(), 1).await.unwrap()[0].job.id;
    job::reach_stage(&mut tx, id, Stage::Set).await.unwrap();
    job::reach_stage(&mut tx, id, Stage::Read).await.unwrap();
    assert_eq!(job::get(&mut tx, id).await.unwrap().stage, Stage::Set);
    let p = plan::of_job(&mut tx, id).await.unwrap().remove(0);
    let cams = Mark::Step(StepId::Arms(Axle::Front));
    let said = |detail: &str| DoneRecord { detail: detail.into(), ..DoneRecord::default() };
    done::mark(&mut tx, s.id, p.id, &cams, Some(&said("right 8 notches")), "Specialist").await.unwrap();
    // What was done is not rewritten by what a part says later.
    done::mark(&mut tx, s.id, p.id, &cams, Some(&said("right 4 notches")), "Specialist").await.unwrap();
    let kept = done::of_job(&mut tx, id).await.unwrap();
    assert_eq!((kept.len(), kept[0].record.detail.bare()), (1, "right 8 notches"));
    done::mark(&mut tx, s.id, p.id, &cams, None, "Specialist").await.unwrap();
    assert!(done::of_job(&mut tx, id).await.unwrap().is_empty());
    plan::remove(&mut tx, p.id).await.unwrap();
    assert!(matches!(plan::remove(&mut tx, p.id).await, Err(StoreError::Missing { .. })));
}

#[tokio::test]
async fn a_visit_opens_once_and_a_stale_prepare_list_is_refused() {
    let store = fresh("visits").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let id = job::list(&mut tx, Asked::default(), 1).await.unwrap()[0].job.id;
    visit::open(&mut tx, s.id, id, Visit::Settled, "Specialist").await.unwrap();
    visit::open(&mut tx, s.id, id, Visit::Settled, "Somebody else").await.unwrap();
    let answers: Answers = [("plates".to_owned(), "yes".to_owned())].into();
    visit::save(&mut tx, id, Visit::Settled, 1, &answers).await.unwrap();
    let e = visit::save(&mut tx, id, Visit::Settled, 1, &Answers::new()).await.unwrap_err();
    assert!(matches!(e, StoreError::Stale { yours: 1, now: 2, .. }), "{e}");
    let e = visit::save(&mut tx, id, Visit::Returned, 1, &answers).await.unwrap_err();
    assert!(matches!(e, StoreError::Missing { .. }), "{e}");
    let open = visit::of_job(&mut tx, id).await.unwrap();
    let settled = open.iter().find(|v| v.kind == Visit::Settled).unwrap();
    assert_eq!((settled.version, &settled.answers, settled.author.as_str()), (2, &answers, "Specialist"));
    assert!(open.iter().any(|v| v.kind == Visit::Found && v.answers.contains_key("floor_front")));
    // Another shop sees none of it.
    tx.commit().await.unwrap();
    let mut other = store.tx(another(&store).await).await.unwrap();
    assert!(visit::of_job(&mut other, id).await.unwrap().is_empty());
    assert!(reading::of_job(&mut other, id).await.unwrap().is_empty());
}

#[tokio::test]
async fn toe_of_both_wheels_counts_for_each_on_the_jobs_page() {
    let store = fresh("both").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let jobs = job::list(&mut tx, Asked::default(), 10).await.unwrap();
    let line = jobs.iter().find(|j| j.readings == 4).unwrap();
    let both = Reading {
        quantity: Quantity::TotalToe,
        side: ReadSide::Both,
        method: Method::ToeBars,
        ..camber("x", 0.1)
    };
    reading::add(&mut tx, s.id, line.job.id, &both).await.unwrap();
    let rear = Reading { axle: ReadAxle::Rear, id: Uuid::new_v4(), ..both };
    reading::add(&mut tx, s.id, line.job.id, &rear).await.unwrap();
    let now = job::list(&mut tx, Asked::default(), 10).await.unwrap();
    assert_eq!(now.iter().find(|j| j.job.id == line.job.id).unwrap().readings, 6);
}

/// A database as the release before left it: its readings get the method's own name, what was typed stays.
#[tokio::test]
async fn readings_of_the_first_release_are_taken_over_as_typed() {
    let store = before("old").await;
    // The migrations of then, recorded as the release recorded them.
    let mut first = sqlx::migrate!("./migrations");
    first.migrations = first.migrations.iter().take(2).cloned().collect::<Vec<_>>().into();
    first.run(store.owner.pool()).await.unwrap();
    let (s, v, j) = (Uuid::new_v4(), Uuid::new_v4(), Uuid::new_v4());
    let sql = format!(
        "begin; select set_config('app.shop', '{s}', true);
         insert into shop (id, name) values ('{s}', 'Old');
         insert into vehicle values ('{v}', '{s}', 1, 'Old', 'pickup', 3000, 1500, 1500, '265/70R17', 'all_season', 8,
             'rear', 'mixed', 6000, 240, 240, 500, 560, 'taped', '{{}}', '[]');
         insert into job (id, shop_id, vehicle_id, ticket, complaint, stage) values ('{j}', '{s}', '{v}', 1, '', 'read');
         insert into reading (id, shop_id, job_id, visit, quantity, side, method, raw, unit, value, sigma, author)
         values (gen_random_uuid(), '{s}', '{j}', 'found', 'caster', 'left', 'sweep',
             '[{{\"name\":\"camber_out\",\"text\":\"1.5\"}}]', 'mm', 3.6, 0.2, 'Specialist'),
             (gen_random_uuid(), '{s}', '{j}', 'found', 'height', 'left', 'direct',
             '[{{\"name\":\"value\",\"text\":\"19 5/8 in\"}}]', 'in', 498.475, 1, 'Specialist');
         insert into plan (id, shop_id, job_id, name, document) values (gen_random_uuid(), '{s}', '{j}', 'Old plan',
             '{{\"height_change_mm\":65,\"settle_mm\":9,\"load_mm\":20,\"limit_mm\":3,
               \"fitted\":[\"upper-joint-spacer\",\"upper-pivot-shims\",\"offset-upper-arm\"],
               \"aim\":{{\"id\":\"own\",\"name\":\"Own\",\"reason\":\"\",\"camber_deg\":[-0.3,0.3],\"caster_deg\":[3,5],
               \"toe_total_deg\":[0,0.2],\"cross_camber_deg\":0.5,\"cross_caster_deg\":1}}}}'); commit;"
    );
    sqlx::raw_sql(sqlx::AssertSqlSafe(sql)).execute(store.owner.pool()).await.unwrap();
    store.owner.migrate().await.unwrap();
    let mut tx = store.tx(s).await.unwrap();
    let all = reading::of_job(&mut tx, j).await.unwrap();
    let methods: Vec<Method> = all.iter().map(|r| r.method).collect();
    assert!(methods.contains(&Method::CasterSweep) && methods.contains(&Method::HeightHub), "{methods:?}");
    // Parts that now come in sizes keep the size the plan was made with, in their order.
    let plans = plan::of_job(&mut tx, j).await.unwrap();
    assert_eq!(
        plans[0].document.axles.front.fitted,
        ["upper-joint-spacer@14", "upper-pivot-shims", "offset-upper-arm@7"]
    );
    let rear = &plans[0].document.axles.rear;
    assert_eq!(
        (rear.fitted.len(), rear.trim_mm, plans[0].document.axles.front.height_change_mm),
        (0, Sides::default(), 65.0)
    );
    let height = all.iter().find(|r| r.quantity == Quantity::Height).unwrap();
    assert_eq!(
        (height.raw[0].text.as_str(), height.unit, height.axle),
        ("19 5/8 in", LengthUnit::In, ReadAxle::Front)
    );
}

/// A whole shop as the release before the one plan for the car left it: a dump of its schema and demo data, with a plan of
/// both axles, picked points, trims, ways, and steps done at a gate.
#[tokio::test]
async fn plans_that_told_front_and_rear_by_their_fields_are_taken_over() {
    let store = before("before").await;
    let dump = include_str!("data/shop_before_car_plan.sql");
    sqlx::raw_sql(dump).execute(store.owner.pool()).await.unwrap();
    // What stood in the documents then.
    let shop: Uuid = sqlx::query_scalar("select id from shop").fetch_one(store.owner.pool()).await.unwrap();
    // Then there was one role, and it named the shop.
    let mut tx = store.owner.pool().begin().await.unwrap();
    sqlx::query("select set_config('app.shop', $1, true)")
        .bind(shop.to_string())
        .execute(&mut *tx)
        .await
        .unwrap();
    let before: Vec<(Uuid, serde_json::Value)> =
        sqlx::query_as("select id, document from plan").fetch_all(&mut *tx).await.unwrap();
    let readings: i64 = sqlx::query_scalar("select count(*) from reading").fetch_one(&mut *tx).await.unwrap();
    let vehicles: Vec<(Uuid, serde_json::Value)> =
        sqlx::query_as("select id, to_jsonb(v) from vehicle v").fetch_all(&mut *tx).await.unwrap();
    drop(tx);
    store.owner.migrate().await.unwrap();
    let mut tx = store.tx(shop).await.unwrap();
    let now: i64 = sqlx::query_scalar("select count(*) from reading").fetch_one(&mut *tx).await.unwrap();
    assert_eq!((now, before.len()), (readings, 5));
    for (id, old) in &before {
        let d = plan::get(&mut tx, *id).await.unwrap().document;
        assert!(d.problems("").is_empty());
        let number = |f: &str| old[f].as_f64().unwrap_or(0.0);
        let list = |f: &str| old[f].as_array().map_or(0, Vec::len);
        for (axle, names) in [
            (
                &d.axles.front,
                ["height_change_mm", "settle_mm", "load_mm", "trim_mm", "fitted", "ways", "picked"],
            ),
            (
                &d.axles.rear,
                [
                    "rear_change_mm",
                    "rear_settle_mm",
                    "rear_load_mm",
                    "rear_trim_mm",
                    "rear_fitted",
                    "rear_ways",
                    "rear_picked",
                ],
            ),
        ] {
            let [change, settle, load, trim, fitted, ways, picked] = names;
            let (got, want) = (
                [axle.height_change_mm, axle.settle_mm, axle.load_mm],
                [number(change), number(settle), number(load)],
            );
            assert_eq!(got, want);
            assert_eq!((axle.fitted.len(), axle.ways.len()), (list(fitted), list(ways)));
            let at = |i: usize| old[trim][i].as_f64().unwrap_or(0.0);
            assert_eq!([axle.trim_mm.left, axle.trim_mm.right], [at(0), at(1)]);
            for (i, p) in axle.picked.into_pair().into_iter().enumerate() {
                let want =
                    old[picked][i].as_array().map(|a| [a[0].as_f64().unwrap(), a[1].as_f64().unwrap()]);
                assert_eq!(p.map(|p| [p.camber_deg, p.second_deg]), want);
            }
        }
        assert_eq!(serde_json::to_value(&d.aim).unwrap()["id"], old["aim"]["id"]);
    }
    assert!(before.iter().any(|(_, d)| d["rear_picked"][0].is_array() && d["picked"][1].is_array()));
    // Vehicles: as the core brings the first form of a document into this one.
    assert!(vehicles.len() >= 4);
    for (id, old) in vehicles {
        let row = old.as_object().unwrap().clone();
        let mut first: serde_json::Map<_, _> = row
            .into_iter()
            .filter(|(k, _)| !["id", "shop_id", "version", "created_at"].contains(&k.as_str()))
            .collect();
        let use_ = first.remove("use_mix").unwrap();
        first.insert("use".into(), use_);
        let want: VehicleFacts = serde_json::from_value(present_form(first.into())).unwrap();
        let got = vehicle::get(&mut tx, id).await.unwrap().facts;
        assert_eq!(got, want);
        assert!(got.problems().is_empty(), "{:?}", got.problems());
        assert!(got.car.axles.front.adjusters.len() + got.car.axles.rear.adjusters.len() > 0);
    }
    // What was done says what it said, ticks by their own names.
    let truck = job::list(&mut tx, Asked::default(), 1).await.unwrap().remove(0);
    // The plan that work was done of is the one to set.
    assert_eq!(truck.plan.as_deref(), Some("Lift 65, cams only"));
    assert_eq!((truck.height_change_mm, truck.fitted), (Some(65.0), 0));
    let done = done::of_job(&mut tx, truck.job.id).await.unwrap();
    let steps: Vec<String> = done.iter().map(|d| d.step.to_string()).collect();
    assert_eq!(steps, ["support", "height", "settled/roll", "settled/bounce", "settled"]);
    let gate = &done[4].record;
    assert_eq!(gate.title.bare(), "Settle, re-read height");
    assert!(gate.detail.bare().starts_with("No angle counts until height is settled"), "{gate:?}");
    // A second start changes nothing.
    store.owner.migrate().await.unwrap();
    assert_eq!(plan::of_job(&mut tx, truck.job.id).await.unwrap().len(), 2);
}

/// A job leaves as one file and comes back as a new job that says the same, readings as typed, steps as done.
#[tokio::test]
async fn a_bundle_comes_back_as_it_left() {
    let store = fresh("bundle").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let shipped = shipped_parts().unwrap();
    for line in job::list(&mut tx, Asked::default(), 100).await.unwrap() {
        let out = bundle::of_job(&mut tx, line.job.id, Vec::new(), Vec::new(), |_| Memory::default())
            .await
            .unwrap();
        let text = serde_json::to_vec(&out).unwrap();
        let read = JobBundle::from_json(&text).unwrap();
        assert_eq!((&read, serde_json::to_vec(&read).unwrap()), (&out, text));
        let id = bundle::insert(&mut tx, s.id, &read, &shipped).await.unwrap();
        let mut back =
            bundle::of_job(&mut tx, id, Vec::new(), Vec::new(), |_| Memory::default()).await.unwrap();
        // Ids are of the shop that has it; everything else is as it was.
        for (a, b) in back.readings.iter_mut().zip(&out.readings) {
            assert_eq!(a.replaces.is_some(), b.replaces.is_some());
            (a.id, a.replaces) = (b.id, b.replaces);
        }
        for (a, b) in back.plans.iter_mut().zip(&out.plans) {
            for d in back.done.iter_mut().filter(|d| d.plan_id == a.id) {
                d.plan_id = b.id;
            }
            if back.chosen_plan == Some(a.id) {
                back.chosen_plan = Some(b.id);
            }
            a.id = b.id;
        }
        assert_eq!(back, out, "{}", line.vehicle);
    }
}

#[tokio::test]
async fn parts_and_aims_belong_to_their_shop_and_old_saves_are_refused() {
    let store = fresh("parts").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let mut part = shipped_parts().unwrap().remove(0);
    part.id = "house-arm".into();
    shop_part::save(&mut tx, s.id, 0, &part, false).await.unwrap();
    part.cost = 12.5;
    shop_part::save(&mut tx, s.id, 1, &part, true).await.unwrap();
    let all = shop_part::all(&mut tx).await.unwrap();
    assert_eq!((all.len(), all[0].version, all[0].retired, &all[0].part), (1, 2, true, &part));
    // A first save and a save on an old version come too late; both are told what is there now.
    for yours in [0, 1] {
        let e = shop_part::save(&mut tx, s.id, yours, &part, false).await.unwrap_err();
        assert!(matches!(e, StoreError::Stale { now: 2, .. }), "{e}");
    }
    let mut aim = shipped_aims().unwrap().remove(0);
    aim.id = "own-house".into();
    shop_aim::save(&mut tx, s.id, 0, &aim).await.unwrap();
    assert!(matches!(shop_aim::save(&mut tx, s.id, 0, &aim).await, Err(StoreError::Stale { now: 1, .. })));
    assert_eq!(shop_aim::all(&mut tx).await.unwrap(), [(1, aim.clone())]);
    tx.commit().await.unwrap();
    // Another shop sees, changes and removes none of it, even by name.
    let mut other = store.tx(another(&store).await).await.unwrap();
    assert!(shop_part::all(&mut other).await.unwrap().is_empty());
    assert!(shop_part::save(&mut other, s.id, 2, &part, false).await.is_err());
    assert!(!shop_aim::remove(&mut other, &aim.id).await.unwrap());
}

#[tokio::test]
async fn a_tread_log_keeps_every_line_and_belongs_to_its_shop() {
    let store = fresh("tread").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let vehicle = job::list(&mut tx, Asked::default(), 1).await.unwrap()[0].job.vehicle_id;
    let entry = |km: f64, d: Option<[f64; 3]>| LogEntry {
        odometer_km: km,
        place: Some(TyrePlace::RightRear),
        flipped: false,
        depths_mm: d,
        day: String::new(),
        note: String::new(),
    };
    let t = tread::tyre(&mut tx, s.id, vehicle, "K7", None).await.unwrap();
    assert_eq!(t, tread::tyre(&mut tx, s.id, vehicle, "K7", Some(8.5)).await.unwrap(), "one mark, one tyre");
    let a = tread::write(&mut tx, s.id, t, &entry(100.0, None), None, "Specialist").await.unwrap();
    let b = tread::write(&mut tx, s.id, t, &entry(9000.0, Some([6.0, 6.5, 6.6])), None, "Specialist")
        .await
        .unwrap();
    // A correction of the first line stands first; a line of another tyre is not to be corrected through this one.
    let c = tread::write(&mut tx, s.id, t, &entry(150.0, None), Some(a), "Specialist").await.unwrap();
    let other = tread::tyre(&mut tx, s.id, vehicle, "K8", None).await.unwrap();
    let wrong = tread::write(&mut tx, s.id, other, &entry(1.0, None), Some(b), "Specialist").await;
    assert!(matches!(wrong, Err(StoreError::Missing { .. })));
    let all = tread::of_vehicle(&mut tx, vehicle).await.unwrap();
    let k7 = all.iter().find(|x| x.mark == "K7").unwrap();
    assert_eq!(k7.lines.iter().map(|l| l.id).collect::<Vec<_>>(), vec![c, b]);
    assert_eq!(k7.new_depth_mm, Some(8.5), "told later, filled in");
    assert_eq!(k7.logged().place(), Some(TyrePlace::RightRear));
    tread::strike(&mut tx, s.id, vehicle, b, "Specialist").await.unwrap();
    assert!(matches!(
        tread::strike(&mut tx, s.id, vehicle, b, "Specialist").await,
        Err(StoreError::Missing { .. })
    ));
    let all = tread::of_vehicle(&mut tx, vehicle).await.unwrap();
    assert_eq!(all.iter().find(|x| x.mark == "K7").unwrap().lines.len(), 1);
    let kept: i64 = sqlx::query_scalar("select count(*) from tread_line where tyre_id = $1")
        .bind(t)
        .fetch_one(&mut *tx)
        .await
        .unwrap();
    assert_eq!(kept, 4, "nothing is ever overwritten or removed");
    tx.commit().await.unwrap();
    let mut theirs = store.tx(another(&store).await).await.unwrap();
    assert!(tread::of_vehicle(&mut theirs, vehicle).await.unwrap().is_empty());
}

#[tokio::test]
async fn a_reading_dated_ahead_does_not_hide_what_comes_after_it() {
    let store = fresh("ahead").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let id = job::list(&mut tx, Asked::default(), 1).await.unwrap()[0].job.id;
    let mut ahead = camber("-1.0", -1.0);
    ahead.taken_at = Utc::now() + chrono::Duration::hours(26);
    reading::add(&mut tx, s.id, id, &ahead).await.unwrap();
    reading::add(&mut tx, s.id, id, &camber("-0.4", -0.4)).await.unwrap();
    let all = reading::of_job(&mut tx, id).await.unwrap();
    let stands = standing(&all, Visit::Found, Quantity::Camber, LEFT).unwrap();
    assert!((stands.value + 0.4).abs() < 1e-12);
    // And it names the one dated ahead as the one it stands for.
    assert_eq!(stands.replaces, Some(ahead.id));
}

#[tokio::test]
async fn a_key_is_claimed_once_and_gives_its_answer_again() {
    let store = fresh("keys").await;
    let s = load(&store, false).await.unwrap();
    let key = Uuid::new_v4();
    let mut tx = store.tx(s.id).await.unwrap();
    assert_eq!(write_key::claim(&mut tx, s.id, key, 7).await.unwrap(), write_key::Claim::Mine);
    write_key::settle(&mut tx, key, 201, Some("{}")).await.unwrap();
    // A second sender waits for the first to end.
    let waiting = tokio::spawn({
        let (store, shop) = (store.clone(), s.id);
        async move {
            let mut tx = store.tx(shop).await.unwrap();
            write_key::claim(&mut tx, shop, key, 7).await.unwrap()
        }
    });
    tokio::time::sleep(std::time::Duration::from_millis(200)).await;
    assert!(!waiting.is_finished());
    tx.commit().await.unwrap();
    let again = write_key::Claim::Answered { status: 201, answer: Some("{}".into()) };
    assert_eq!(waiting.await.unwrap(), again);
    let mut tx = store.tx(s.id).await.unwrap();
    assert_eq!(write_key::claim(&mut tx, s.id, key, 8).await.unwrap(), write_key::Claim::Taken);
    // A write that was rolled back leaves its key free.
    let other = Uuid::new_v4();
    let mut lost = store.tx(s.id).await.unwrap();
    write_key::claim(&mut lost, s.id, other, 7).await.unwrap();
    lost.rollback().await.unwrap();
    assert_eq!(write_key::claim(&mut tx, s.id, other, 7).await.unwrap(), write_key::Claim::Mine);
}

#[tokio::test]
async fn jobs_past_a_page_are_there_and_are_found() {
    let store = fresh("pages").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let first = job::list(&mut tx, Asked::default(), 1).await.unwrap().remove(0);
    for n in 0..130 {
        let complaint = if n == 0 { "Rattles like a lantern".into() } else { format!("wish {n}") };
        job::insert(
            &mut tx,
            s.id,
            first.job.vehicle_id,
            &NewJob {
                complaint,
                bay: None,
                kind: TicketKind::default(),
                plate: String::new(),
                odometer_km: None,
            },
        )
        .await
        .unwrap();
    }
    // Pages shorter than the row of bays: none is left out, none comes twice.
    let mut paged = Vec::new();
    loop {
        let after = paged.last().map(|j: &job::JobLine| j.job.id);
        let next = job::list(&mut tx, Asked { after, ..Asked::default() }, 2).await.unwrap();
        if next.is_empty() {
            break;
        }
        paged.extend(next);
    }
    let page = job::list(&mut tx, Asked::default(), 100).await.unwrap();
    let ids = |l: &[job::JobLine]| l.iter().take(100).map(|j| j.job.id).collect::<Vec<_>>();
    assert_eq!(ids(&paged), ids(&page));
    let nowhere = Asked { after: Some(Uuid::from_u128(9)), ..Asked::default() };
    assert!(matches!(job::list(&mut tx, nowhere, 2).await, Err(StoreError::Missing { .. })));
    // The newest is on the first page, after the bays.
    let newest = page.iter().map(|j| j.job.ticket).max().unwrap();
    assert_eq!(page.iter().find(|j| j.job.bay.is_none()).unwrap().job.ticket, newest);
    let mut seen: Vec<i32> = paged.iter().map(|j| j.job.ticket).collect();
    let count = seen.len();
    seen.sort_unstable();
    seen.dedup();
    assert_eq!((seen.len(), count), (count, 130 + first_jobs(&store, s.id).await));
    let found = job::list(&mut tx, Asked { find: Some("LANTERN"), ..Asked::default() }, 10).await.unwrap();
    assert_eq!(found.len(), 1);
    let ticket = format!("{:04}", found[0].job.ticket);
    assert_eq!(
        job::list(&mut tx, Asked { find: Some(&ticket), ..Asked::default() }, 10).await.unwrap().len(),
        1
    );
    assert!(job::list(&mut tx, Asked { find: Some("%"), ..Asked::default() }, 10).await.unwrap().is_empty());
}

/// Jobs of the demo shop as committed.
async fn first_jobs(store: &Store, shop: Uuid) -> usize {
    let mut tx = store.tx(shop).await.unwrap();
    job::list(&mut tx, Asked::default(), 100).await.unwrap().len()
}

#[tokio::test]
async fn notes_stand_at_their_place_and_a_struck_one_loses_its_photo() {
    let store = fresh("notes").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let id = job::list(&mut tx, Asked::default(), 1).await.unwrap()[0].job.id;
    let write = |text: &str, photo: bool| Note {
        id: Uuid::new_v4(),
        place: LEFT,
        text: text.into(),
        photo: photo.then_some(PhotoSize { width: 640, height: 480 }),
        jpeg: None,
        author: "Specialist A".into(),
        written_at: Utc::now(),
    };
    let (a, b) = (write("boot torn", true), write("grease on the arm", false));
    let jpeg = vec![7u8; 400];
    note::add(&mut tx, s.id, id, &a, Some(&jpeg)).await.unwrap();
    note::add(&mut tx, s.id, id, &b, None).await.unwrap();
    tx.commit().await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let all = note::of_job(&mut tx, id).await.unwrap();
    assert_eq!(all.iter().map(|n| n.text.as_str()).collect::<Vec<_>>(), ["boot torn", "grease on the arm"]);
    assert_eq!((all[0].photo, all[1].photo), (a.photo, None));
    assert_eq!(note::photo(&mut tx, id, a.id).await.unwrap(), jpeg);
    // A job's file carries them, and gives them back to the byte.
    let parts = Vec::new();
    let file = bundle::of_job(&mut tx, id, parts, Vec::new(), |_| Memory::default()).await.unwrap();
    assert!(file.problems().is_empty(), "{:?}", file.problems());
    let copy = bundle::insert(&mut tx, s.id, &file, &[]).await.unwrap();
    let there = note::of_job(&mut tx, copy).await.unwrap();
    assert_eq!(
        there.iter().map(|n| (&n.text, n.place, n.photo)).collect::<Vec<_>>(),
        all.iter().map(|n| (&n.text, n.place, n.photo)).collect::<Vec<_>>()
    );
    assert_eq!(note::photo(&mut tx, copy, there[0].id).await.unwrap(), jpeg);
    note::strike(&mut tx, id, a.id).await.unwrap();
    assert_eq!(note::of_job(&mut tx, id).await.unwrap().len(), 1);
    assert!(matches!(note::photo(&mut tx, id, a.id).await, Err(StoreError::Missing { .. })));
    assert!(matches!(note::strike(&mut tx, id, a.id).await, Err(StoreError::Missing { .. })));
    tx.commit().await.unwrap();
    // Another shop sees none of it.
    let theirs = store.owner.ensure_shop("Another shop").await.unwrap();
    let mut tx = store.tx(theirs.id).await.unwrap();
    assert!(note::of_job(&mut tx, id).await.unwrap().is_empty());
    assert!(matches!(note::photo(&mut tx, id, b.id).await, Err(StoreError::Missing { .. })));
}

#[tokio::test]
async fn a_ticket_says_what_it_is_for_over_a_version_and_is_counted_by_it() {
    let store = fresh("kinds").await;
    let s = load(&store, false).await.unwrap();
    let mut tx = store.tx(s.id).await.unwrap();
    let line = job::list(&mut tx, Asked::default(), 1).await.unwrap().remove(0);
    assert_eq!((line.job.kind, line.readings, line.wanted), (TicketKind::Height, 8, 8));
    let new = NewJob {
        complaint: "pulls left".into(),
        bay: line.job.bay,
        kind: TicketKind::Pull,
        plate: String::new(),
        odometer_km: None,
    };
    job::save(&mut tx, s.id, line.job.id, line.job.version, &new).await.unwrap();
    let stale = job::save(&mut tx, s.id, line.job.id, line.job.version, &new).await;
    assert!(matches!(stale, Err(StoreError::Stale { .. })));
    let now = job::list(&mut tx, Asked::default(), 1).await.unwrap().remove(0);
    assert_eq!((now.job.kind, now.job.complaint.as_str()), (TicketKind::Pull, "pulls left"));
    // Pressures of both front tyres, and rear toe where its points are known, are waited for too.
    assert!(now.wanted >= 10 && now.readings < now.wanted, "{} of {}", now.readings, now.wanted);
    let square = NewJob { kind: TicketKind::Square, ..new };
    job::save(&mut tx, s.id, line.job.id, now.job.version, &square).await.unwrap();
    let now = job::list(&mut tx, Asked::default(), 1).await.unwrap().remove(0);
    assert_eq!((now.readings, now.wanted), (0, 3));
}

#[tokio::test]
async fn a_shape_is_kept_once_under_its_id() {
    let store = fresh("shapes").await;
    let s = load(&store, false).await.unwrap();
    let mut a = bold_stance_car::archetype::shipped_archetypes().unwrap().remove(0);
    a.id = "own-quarry".into();
    let mut tx = store.tx(s.id).await.unwrap();
    assert!(shop_shape::add(&mut tx, s.id, &a).await.unwrap());
    assert!(!shop_shape::add(&mut tx, s.id, &a).await.unwrap());
    assert_eq!(shop_shape::all(&mut tx).await.unwrap(), [a.clone()]);
    assert!(shop_shape::remove(&mut tx, &a.id).await.unwrap());
    assert!(!shop_shape::remove(&mut tx, &a.id).await.unwrap());
}
