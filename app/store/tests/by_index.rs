//! Every query of the program on a server of many shops: each reads its rows by an index, never the rows of all shops.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_docs)]

mod db;

use db::fresh;
use sqlx::{Connection, PgConnection, Row};
use std::path::Path;

/// Tables that grow with every car; what is small in every shop may be read through.
const LARGE: [&str; 12] = [
    "job",
    "vehicle",
    "reading",
    "plan",
    "done_step",
    "event",
    "visit",
    "note",
    "photo",
    "tyre",
    "tread_line",
    "audit",
];

/// Two hundred shops of a hundred jobs each, with what jobs have, written by the role that owns the tables.
const MANY: &str = r#"
    do $$ declare t text; begin
      foreach t in array array['job','vehicle','reading','plan','done_step','event','visit','note','photo','tyre','tread_line'] loop
        execute format('alter table %I disable trigger user', t);
      end loop;
    end $$;
    insert into shop (id, name) select gen_random_uuid(), 'Shop ' || g from generate_series(1, 200) g;
    insert into vehicle (id, shop_id, document) select gen_random_uuid(), s.id, jsonb_build_object('name', 'Car ' || g)
      from shop s, generate_series(1, 100) g;
    insert into job (id, shop_id, vehicle_id, ticket, complaint, stage) select gen_random_uuid(), shop_id, id,
      416 + row_number() over (partition by shop_id order by id), 'wanders', 'read' from vehicle;
    insert into plan (id, shop_id, job_id, name, document) select gen_random_uuid(), shop_id, id, 'Plan ' || g, '{}'
      from job, generate_series(1, 2) g;
    insert into visit (shop_id, job_id, kind, author) select shop_id, id, 'found', 'Bay 2' from job;
    insert into reading (id, shop_id, job_id, visit, axle, side, quantity, method, raw, unit, value, sigma, author)
      select gen_random_uuid(), shop_id, id, 'found', 'front', 'left', 'camber', 'camber-gauge', '[]', 'mm', 0, 1, 'Bay 2'
      from job, generate_series(1, 8);
    insert into event (shop_id, job_id, who, what) select shop_id, id, 'Bay 2', 'arrived' from job, generate_series(1, 5);
    insert into done_step (shop_id, plan_id, step, author) select shop_id, id, 'step ' || g, 'Bay 2' from plan, generate_series(1, 2) g;
    insert into audit (shop_id, job_id, what, row_id, change) select shop_id, id, 'job', id, 'made' from job, generate_series(1, 5);
    insert into note (id, shop_id, job_id, axle, side, text, author)
      select gen_random_uuid(), shop_id, id, 'front', 'left', 'rust', 'Bay 2' from job;
    insert into photo (note_id, shop_id, jpeg, width, height) select id, shop_id, decode(repeat('ff', 200), 'hex'), 1, 1 from note;
    insert into tyre (id, shop_id, vehicle_id, mark) select gen_random_uuid(), shop_id, id, 'A' || g from vehicle, generate_series(1, 4) g;
    insert into tread_line (id, shop_id, tyre_id, odometer_km, author)
      select gen_random_uuid(), shop_id, id, g, 'Bay 2' from tyre, generate_series(1, 3) g;
    analyze;
"#;

#[tokio::test]
async fn no_query_reads_through_what_all_shops_have() {
    let db = fresh("by_index").await;
    let mut owner = PgConnection::connect(&db.owner_url).await.unwrap();
    sqlx::raw_sql(sqlx::AssertSqlSafe(MANY)).execute(&mut owner).await.unwrap();
    let shop: uuid::Uuid =
        sqlx::query_scalar("select id from shop order by name limit 1").fetch_one(&mut owner).await.unwrap();
    let mut c = PgConnection::connect(&db.serving_url).await.unwrap();
    let seat =
        format!("set plan_cache_mode = force_generic_plan; select set_config('app.shop', '{shop}', false)");
    sqlx::raw_sql(sqlx::AssertSqlSafe(seat)).execute(&mut c).await.unwrap();
    let kept = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../.sqlx");
    let (mut looked, mut through) = (0, Vec::new());
    for file in std::fs::read_dir(kept).unwrap() {
        let text = std::fs::read_to_string(file.unwrap().path()).unwrap();
        let q: serde_json::Value = serde_json::from_str(&text).unwrap();
        let sql = q["query"].as_str().unwrap();
        let first = sql.split_whitespace().next().unwrap().to_lowercase();
        if !["select", "update", "delete", "with"].contains(&first.as_str()) {
            continue;
        }
        let n = q["describe"]["parameters"]["Left"].as_array().map_or(0, Vec::len);
        let given = if n == 0 { String::new() } else { format!("({})", vec!["null"; n].join(", ")) };
        let prepared =
            sqlx::raw_sql(sqlx::AssertSqlSafe(format!("prepare q as {sql}"))).execute(&mut c).await;
        if prepared.is_err() {
            // Of the role that owns the tables: backups and what is due to go.
            continue;
        }
        let plan =
            sqlx::raw_sql(sqlx::AssertSqlSafe(format!("explain execute q{given}"))).fetch_all(&mut c).await;
        sqlx::raw_sql("deallocate q").execute(&mut c).await.unwrap();
        // The same of what it may not read.
        let Ok(plan) = plan else { continue };
        let plan: Vec<String> = plan.iter().map(|r| r.get::<String, _>(0)).collect();
        looked += 1;
        for t in LARGE {
            if plan
                .iter()
                .any(|l| l.contains(&format!("Seq Scan on {t} ")) || l.ends_with(&format!("Seq Scan on {t}")))
            {
                through.push(format!("{t}: {sql}\n{}", plan.join("\n")));
            }
        }
    }
    assert!(looked > 60, "{looked} queries");
    assert!(
        through.is_empty(),
        "{} of {looked} read a whole table:\n{}",
        through.len(),
        through.join("\n\n")
    );
}
