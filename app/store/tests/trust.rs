//! What the role that serves can and cannot do, on a real PostgreSQL; backups and restores of a real shop.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_docs)]

use bold_stance_people::{Act, Role};
use bold_stance_store::backup::{self, BackupError};
use bold_stance_store::job::{self, Asked};
use bold_stance_store::sign_in::{self, Claim, Kept, NewDevice, Tried};
use bold_stance_store::{Seat, Store, StoreError, audit, bundle, demo, event, people, plan, shop};
use bold_stance_trade::memory::Memory;
use bold_stance_trade::part::shipped_parts;
use sha2::{Digest, Sha256};
use std::collections::BTreeMap;
use uuid::Uuid;

mod db;
use db::{Db, fresh};

const SALT: [u8; 16] = [7; 16];

/// A secret that is its own proof: the stretching before it is the server's.
fn verifier(proof: &[u8]) -> [u8; 32] {
    Sha256::digest(proof).into()
}

/// The demo shop with an owner; the owner's seat.
async fn claimed(db: &Db) -> (Uuid, Seat) {
    let s = demo::load(&db.owner, &db.store, false).await.unwrap();
    let mut tx = db.store.tx(s.id).await.unwrap();
    let owner = people::members(&mut tx).await.unwrap().into_iter().find(|m| m.role == Role::Owner).unwrap();
    drop(tx);
    let (pin, slip) = (verifier(b"pin"), verifier(b"slip"));
    let ok = sign_in::claim(
        &db.store,
        &Claim {
            shop: s.id,
            name: &s.name,
            bays: 3,
            owner: owner.id,
            owner_name: &owner.name,
            pin: Kept { salt: &SALT, verifier: &pin },
            slip: Kept { salt: &SALT, verifier: &slip },
            device: NewDevice { id: Uuid::new_v4(), name: "Office", token: "device" },
            token: "owner",
        },
    )
    .await
    .unwrap();
    assert!(ok);
    (s.id, Seat::Session("owner".into()))
}

/// A seat of a member by a PIN that is their name.
async fn seated(db: &Db, owner: &Seat, name: &str) -> Seat {
    let mut tx = db.store.sit(owner).await.unwrap();
    let m = people::members(&mut tx).await.unwrap().into_iter().find(|m| m.name == name).unwrap();
    let v = verifier(name.as_bytes());
    assert!(sign_in::set_pin(&mut tx, m.id, None, Kept { salt: &SALT, verifier: &v }).await.unwrap());
    tx.commit().await.unwrap();
    let token = format!("seat of {name}");
    let tried = sign_in::by_pin(&db.store, "device", m.id, name.as_bytes(), &token).await.unwrap();
    assert_eq!(tried, Tried::In);
    Seat::Session(token)
}

#[tokio::test]
async fn the_table_of_rights_is_the_cores() {
    let db = fresh("rights").await;
    let mut kept: Vec<(String, String)> =
        sqlx::query_as("select role, act from role_act").fetch_all(db.store.pool()).await.unwrap();
    kept.sort();
    let mut own: Vec<(String, String)> = Role::ALL
        .iter()
        .flat_map(|r| r.acts().into_iter().map(|a| (r.key().to_owned(), a.key().to_owned())))
        .collect();
    own.sort();
    assert_eq!(kept, own);
    assert!(Act::ALL.iter().all(|a| kept.iter().any(|(_, k)| k == a.key())));
}

#[tokio::test]
async fn the_role_that_serves_names_no_locked_shop_and_rewrites_nothing() {
    let db = fresh("locked").await;
    let (shop, owner) = claimed(&db).await;
    let rows = async |seat: &Seat| match db.store.sit(seat).await {
        Ok(mut tx) => job::list(&mut tx, Asked::default(), 50).await.unwrap().len(),
        Err(StoreError::Unseated) => 0,
        Err(e) => panic!("{e}"),
    };
    assert_eq!(rows(&owner).await, 7);
    // Naming the shop is no session, nor is a token somebody made up, an ended one, or the hash of one.
    for seat in
        [Seat::Open { shop, member: None }, Seat::Session("guess".into()), Seat::Session(String::new())]
    {
        assert_eq!(rows(&seat).await, 0, "{seat:?}");
    }
    // Rows that tell, by hand, under a session that is right: refused, whatever is asked.
    let mut job = Uuid::nil();
    for (sql, refused) in [
        ("select id from job limit 1", false),
        ("update event set who = 'nobody'", true),
        ("delete from event", true),
        ("update reading set value = 0", true),
        ("delete from reading", true),
        ("update tread_line set inner_mm = 0", true),
        ("update note set text = 'other'", true),
        ("update audit set after = null", true),
        ("delete from audit", true),
        ("select verifier from account", true),
        ("select pin_verifier from member", true),
        ("select token_hash from seat_session", true),
        ("select * from web_session", true),
        ("select * from hidden", true),
        ("select slip_verifier from shop", true),
        (
            "insert into seat_session (id, token_hash, shop_id, member_id, way, expires_at) values (gen_random_uuid(), '\\x00', gen_random_uuid(), gen_random_uuid(), 'pin', now())",
            true,
        ),
        ("update member set pin_verifier = '\\x00'", true),
        ("insert into role_act values ('front_desk', 'people')", true),
        ("update shop set locked = false", true),
        ("alter table event disable row level security", true),
        ("set role bold_stance_owner", true),
        ("select take_out_personal(gen_random_uuid())", true),
        ("create table t (x int)", true),
    ] {
        let mut tx = db.store.sit(&owner).await.unwrap();
        let done = sqlx::query(sqlx::AssertSqlSafe(sql.to_owned())).fetch_all(&mut *tx).await;
        match done {
            Ok(all) => {
                assert!(!refused, "{sql} went through");
                job = sqlx::Row::get(&all[0], 0);
            }
            Err(e) => assert!(refused && StoreError::from(e).is_refused(), "{sql}"),
        }
    }
    assert_ne!(job, Uuid::nil());
    // Ended everywhere: at once, also in a transaction that begins after.
    let a = seated(&db, &owner, "Specialist A").await;
    assert_eq!(rows(&a).await, 7);
    let mut tx = db.store.sit(&owner).await.unwrap();
    let id =
        people::members(&mut tx).await.unwrap().into_iter().find(|m| m.name == "Specialist A").unwrap().id;
    assert_eq!(people::end(&mut tx, None, Some(id)).await.unwrap(), 1);
    tx.commit().await.unwrap();
    assert_eq!(rows(&a).await, 0);
    // A role that owns the tables, or one that goes by policies, does not serve.
    let by_owner = Store::connect(&db.owner_url).await.unwrap();
    assert!(matches!(by_owner.fit_to_serve().await, Err(StoreError::Role(_))));
    db.store.fit_to_serve().await.unwrap();
}

/// Who it was stands beside what was done, whatever the application says.
#[tokio::test]
async fn what_is_done_is_signed_by_the_seat() {
    let db = fresh("signed").await;
    let (shop, owner) = claimed(&db).await;
    let a = seated(&db, &owner, "Apprentice").await;
    let mut tx = db.store.sit(&a).await.unwrap();
    let me = people::members(&mut tx).await.unwrap().into_iter().find(|m| m.name == "Apprentice").unwrap().id;
    let id = job::list(&mut tx, Asked::default(), 1).await.unwrap()[0].job.id;
    sqlx::query("insert into event (shop_id, job_id, who, what, member_id) values ($1, $2, 'Owner', 'forged', gen_random_uuid())")
        .bind(shop)
        .bind(id)
        .execute(&mut *tx)
        .await
        .unwrap();
    tx.commit().await.unwrap();
    let by: Uuid = sqlx::query_scalar("select member_id from event where what = 'forged'")
        .fetch_one(db.owner.pool())
        .await
        .unwrap();
    assert_eq!(by, me);
    // What the table of rights keeps from them, the database keeps from them too.
    let mut tx = db.store.sit(&a).await.unwrap();
    let p = plan::of_job(&mut tx, id).await.unwrap().remove(0);
    for (sql, goes) in [
        ("insert into done_step (shop_id, plan_id, step, author) values ($1, $2, 'support', 'x')", true),
        ("insert into done_step (shop_id, plan_id, step, author) values ($1, $2, 'settled/roll', 'x')", true),
        ("insert into done_step (shop_id, plan_id, step, author) values ($1, $2, 'settled', 'x')", false),
        ("insert into done_step (shop_id, plan_id, step, author) values ($1, $2, 'proved', 'x')", false),
        ("insert into shop_aim (shop_id, id, document) values ($1, $2::text, '{}')", false),
        ("insert into member (id, shop_id, name, role) values ($2, $1, 'Me too', 'owner')", false),
    ] {
        let mut tx = db.store.sit(&a).await.unwrap();
        let done =
            sqlx::query(sqlx::AssertSqlSafe(sql.to_owned())).bind(shop).bind(p.id).execute(&mut *tx).await;
        assert_eq!(done.is_ok(), goes, "{sql}: {done:?}");
    }
    let mut tx = db.store.sit(&a).await.unwrap();
    let n = sqlx::query("update plan set name = 'Mine' where id = $1")
        .bind(p.id)
        .execute(&mut *tx)
        .await
        .unwrap();
    assert_eq!(n.rows_affected(), 0, "a plan is not an apprentice's to change");
}

/// A member of a row's own shop alone sees it: the second shop has no row of the first, by any id guessed right.
#[tokio::test]
async fn nothing_crosses_from_shop_to_shop() {
    let db = fresh("cross").await;
    let (ours, owner) = claimed(&db).await;
    let mut tx = db.store.sit(&owner).await.unwrap();
    let id = job::list(&mut tx, Asked::default(), 1).await.unwrap()[0].job.id;
    drop(tx);
    let theirs = db.owner.ensure_shop("Another shop").await.unwrap();
    let open = Seat::Open { shop: theirs.id, member: None };
    let mut tx = db.store.sit(&open).await.unwrap();
    assert!(matches!(job::get(&mut tx, id).await, Err(StoreError::Missing { .. })));
    assert!(audit::list(&mut tx, None, None, i64::MAX, 100).await.unwrap().is_empty());
    for table in [
        "vehicle",
        "job",
        "reading",
        "visit",
        "plan",
        "done_step",
        "event",
        "member",
        "device",
        "seat_session",
        "audit",
        "tyre",
        "tread_line",
        "note",
        "photo",
        "shop_part",
        "shop_aim",
        "shop_shape",
        "write_key",
    ] {
        let sql = format!("select count(*) from {table} where shop_id = $1");
        let n: i64 =
            sqlx::query_scalar(sqlx::AssertSqlSafe(sql)).bind(ours).fetch_one(&mut *tx).await.unwrap();
        assert_eq!(n, 0, "{table}");
    }
    // A row of theirs that claims to be ours is refused.
    let put = sqlx::query("insert into event (shop_id, who, what) values ($1, 'x', 'x')")
        .bind(ours)
        .execute(&mut *tx)
        .await;
    assert!(StoreError::from(put.unwrap_err()).is_refused());
    // Every table that has a shop is bound: one that is added and forgotten is found here.
    let unbound: Vec<String> = sqlx::query_scalar(
        "select c.relname::text from pg_class c join pg_attribute a on a.attrelid = c.oid and a.attname = 'shop_id'
         where c.relkind = 'r' and c.relnamespace = 'public'::regnamespace and not c.relrowsecurity
           and has_table_privilege('bold_stance', c.oid, 'select, insert, update, delete')",
    )
    .fetch_all(db.owner.pool())
    .await
    .unwrap();
    assert!(unbound.is_empty(), "{unbound:?}");
}

/// The whole answer of every plan of every job, as a file of it says: to the last digit.
async fn figures(db: &Db, seat: &Seat) -> BTreeMap<String, String> {
    let mut tx = db.store.sit(seat).await.unwrap();
    let mut out = BTreeMap::new();
    for line in job::list(&mut tx, Asked::default(), 50).await.unwrap() {
        let b = bundle::of_job(&mut tx, line.job.id, Vec::new(), Vec::new(), |_| Memory::default())
            .await
            .unwrap();
        let at = chrono::DateTime::from_timestamp(1_900_000_000, 0).unwrap();
        let answer = b.evaluate(None, &shipped_parts().unwrap(), at);
        let text = answer.map_or_else(|_| "without an answer".into(), |a| serde_json::to_string(&a).unwrap());
        out.insert(line.vehicle, text);
    }
    out
}

#[tokio::test]
async fn a_backup_comes_back_to_the_digit_while_the_shop_goes_on() {
    let db = fresh("backup").await;
    let (shop, owner) = claimed(&db).await;
    let dir = std::env::temp_dir().join(format!("bold-stance-{}", Uuid::new_v4().simple()));
    std::fs::create_dir_all(&dir).unwrap();
    let file = dir.join("shop.backup");
    // Somebody works while it is written: each write is in it whole or not at all.
    let busy = db.store.clone();
    let seat = owner.clone();
    let work = tokio::spawn(async move {
        for i in 0..60 {
            let mut tx = busy.sit(&seat).await.unwrap();
            event::record(&mut tx, shop, None, "Owner", "went on", serde_json::json!({"n": i}))
                .await
                .unwrap();
            event::record(&mut tx, shop, None, "Owner", "went on", serde_json::json!({"n": i}))
                .await
                .unwrap();
            tx.commit().await.unwrap();
        }
    });
    let m = backup::write(&db.owner, &file).await.unwrap();
    work.await.unwrap();
    assert_eq!(backup::check(&file).unwrap(), m);
    let amid = fresh_empty(&db, "amid").await;
    backup::restore(&amid.owner, &file).await.unwrap();
    let n: i64 = sqlx::query_scalar("select count(*) from event where what = 'went on'")
        .fetch_one(amid.owner.pool())
        .await
        .unwrap();
    assert!(n % 2 == 0 && n < 120, "{n}: halves of a write, or none of it while it went on");
    let before = figures(&db, &owner).await;
    assert_eq!(before.len(), 7);
    assert!(before.values().filter(|v| v.len() > 10_000).count() >= 4, "real answers");
    // At rest now: what is written, restored and fingerprinted is the same, table by table.
    let m = backup::write(&db.owner, &file).await.unwrap();
    let back = fresh_empty(&db, "back").await;
    let took = backup::restore(&back.owner, &file).await.unwrap();
    assert_eq!(took, m);
    let (a, b) =
        (backup::fingerprint(&db.owner).await.unwrap(), backup::fingerprint(&back.owner).await.unwrap());
    assert_eq!(a, b);
    // Who could sign in can; nobody sits there; the figures are the same to the digit; numbers go on.
    assert!(matches!(back.store.sit(&owner).await, Err(StoreError::Unseated)));
    let id = people_of(&back).await;
    assert_eq!(sign_in::by_pin(&back.store, "device", id, b"pin", "new seat").await.unwrap(), Tried::In);
    let seat = Seat::Session("new seat".into());
    assert_eq!(figures(&back, &seat).await, before);
    let mut tx = back.store.sit(&seat).await.unwrap();
    event::record(&mut tx, shop, None, "Owner", "after", serde_json::json!({})).await.unwrap();
    tx.commit().await.unwrap();
    back.store.fit_to_serve().await.unwrap();
    // Into what is not empty: refused, nothing changed.
    assert!(matches!(backup::restore(&back.owner, &file).await, Err(BackupError::NotEmpty)));
    std::fs::remove_dir_all(&dir).unwrap();
}

async fn people_of(db: &Db) -> Uuid {
    sqlx::query_scalar("select id from member where role = 'owner'").fetch_one(db.owner.pool()).await.unwrap()
}

async fn fresh_empty(like: &Db, name: &str) -> Db {
    let db = format!("t_{name}_{}", Uuid::new_v4().simple());
    let owner = backup::new_database(&like.owner, &db).await.unwrap();
    let at = |url: &str| format!("{}/{db}", url.rsplit_once('/').unwrap().0);
    let (owner_url, serving_url) = (at(&like.owner_url), at(&like.serving_url));
    let store = Store::connect(&serving_url).await.unwrap();
    Db { owner, store, owner_url, serving_url }
}

#[tokio::test]
async fn what_is_damaged_or_newer_is_refused_and_nothing_is_changed() {
    let db = fresh("damaged").await;
    let _ = claimed(&db).await;
    let dir = std::env::temp_dir().join(format!("bold-stance-{}", Uuid::new_v4().simple()));
    std::fs::create_dir_all(&dir).unwrap();
    let file = dir.join("good.backup");
    backup::write(&db.owner, &file).await.unwrap();
    let good = std::fs::read(&file).unwrap();
    let empty = fresh_empty(&db, "nothing").await;
    let bad = dir.join("bad.backup");
    // Cut off anywhere; a byte turned over anywhere; nothing at all; something else.
    let mut tries: Vec<Vec<u8>> = vec![
        Vec::new(),
        b"not a backup".to_vec(),
        good[..good.len() / 2].to_vec(),
        good[..good.len() - 1].to_vec(),
    ];
    for part in 1..24 {
        let mut b = good.clone();
        let at = good.len() * part / 24;
        b[at] ^= 0x20;
        tries.push(b);
    }
    let told = backup::check(&file).unwrap();
    let mut harmless = 0;
    for b in &tries {
        std::fs::write(&bad, b).unwrap();
        match backup::check(&bad) {
            Err(BackupError::Damaged(_) | BackupError::File(_)) => {
                let e = backup::restore(&empty.owner, &bad).await.unwrap_err();
                assert!(matches!(e, BackupError::Damaged(_) | BackupError::File(_)), "{e}");
            }
            // A byte of no content, such as the time of an entry: every hash is as it was written.
            Ok(m) => {
                assert_eq!(m, told);
                harmless += 1;
            }
            Err(e) => panic!("{e}"),
        }
    }
    assert!(harmless <= 2, "{harmless}");
    // A newer schema.
    let text = |m: &serde_json::Value| serde_json::to_vec(m).unwrap();
    let mut zip = zip::ZipArchive::new(std::io::Cursor::new(&good)).unwrap();
    let mut m: serde_json::Value = serde_json::from_reader(zip.by_name("manifest.json").unwrap()).unwrap();
    m["migration"] = serde_json::json!(29_991_231_000_000_i64);
    let mut out = zip::ZipWriter::new(std::io::Cursor::new(Vec::new()));
    for i in 0..zip.len() {
        let entry = zip.by_index(i).unwrap();
        let name = entry.name().unwrap().into_owned();
        if name == "manifest.json" {
            drop(entry);
            out.start_file(name, zip::write::SimpleFileOptions::default()).unwrap();
            std::io::Write::write_all(&mut out, &text(&m)).unwrap();
        } else {
            out.raw_copy_file(entry).unwrap();
        }
    }
    std::fs::write(&bad, out.finish().unwrap().into_inner()).unwrap();
    assert!(matches!(backup::restore(&empty.owner, &bad).await, Err(BackupError::Newer { .. })));
    let n: i64 = sqlx::query_scalar("select count(*) from pg_tables where schemaname = 'public'")
        .fetch_one(empty.owner.pool())
        .await
        .unwrap();
    assert_eq!(n, 0);
    std::fs::remove_dir_all(&dir).unwrap();
}

/// Every schema there was, with a real shop in it, comes up to today's with every reading, plan and event it had.
#[tokio::test]
async fn every_earlier_schema_with_data_in_it_comes_up_to_date() {
    let all = sqlx::migrate!("./migrations");
    let versions: Vec<i64> = all.iter().map(|m| m.version).collect();
    let dump = include_str!("data/shop_before_car_plan.sql");
    // The dump is of the schema before the plan of the whole car: from there on, stopping at each on the way.
    let of_dump = versions.iter().position(|v| *v == 20_261_128_060_000).unwrap();
    for (stop, version) in versions.iter().enumerate().skip(of_dump) {
        let like = fresh("steps").await;
        let db = fresh_empty(&like, "step").await;
        sqlx::raw_sql(dump).execute(db.owner.pool()).await.unwrap();
        let mut some = sqlx::migrate!("./migrations");
        some.migrations = some.migrations.iter().take(stop).cloned().collect::<Vec<_>>().into();
        some.run(db.owner.pool()).await.unwrap();
        db.owner.migrate().await.unwrap();
        let s = shop::door(&db.store, None).await.unwrap().unwrap();
        assert!(!s.locked);
        let mut tx = db.store.tx(s.shop.id).await.unwrap();
        let jobs = job::list(&mut tx, Asked::default(), 50).await.unwrap();
        assert!(!jobs.is_empty(), "stopped at {version}");
        for j in &jobs {
            bundle::of_job(&mut tx, j.job.id, Vec::new(), Vec::new(), |_| Memory::default()).await.unwrap();
        }
        db.store.fit_to_serve().await.unwrap();
    }
}
