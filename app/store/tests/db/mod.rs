//! A database of its own for a test, with both roles.
#![allow(dead_code)]

use bold_stance_store::{Owner, Store, demo, shop};
use sqlx::{Connection, PgConnection};
use uuid::Uuid;

/// What is not told otherwise is asked as the role that serves.
pub struct Db {
    pub store: Store,
    pub owner: Owner,
    pub owner_url: String,
    pub serving_url: String,
}

impl std::ops::Deref for Db {
    type Target = Store;

    fn deref(&self) -> &Store {
        &self.store
    }
}

/// A database nothing was made in yet.
pub async fn before(name: &str) -> Db {
    let of = |role: &str| std::env::var(role).expect("run ./test, which starts PostgreSQL");
    let (owner, serving) = (of("TEST_OWNER_DATABASE_URL"), of("TEST_DATABASE_URL"));
    let mut admin = PgConnection::connect(&owner).await.expect("PostgreSQL answers");
    let db = format!("t_{name}_{}", Uuid::new_v4().simple());
    sqlx::query(sqlx::AssertSqlSafe(format!("create database {db}"))).execute(&mut admin).await.unwrap();
    let at = |url: &str| format!("{}/{db}", url.rsplit_once('/').unwrap().0);
    let (owner_url, serving_url) = (at(&owner), at(&serving));
    Db {
        store: Store::connect(&serving_url).await.unwrap(),
        owner: Owner::connect(&owner_url).await.unwrap(),
        owner_url,
        serving_url,
    }
}

/// A database, its schema up to date.
pub async fn fresh(name: &str) -> Db {
    let db = before(name).await;
    db.owner.migrate().await.unwrap();
    db.store.fit_to_serve().await.unwrap();
    db
}

/// Another shop, with nothing in it.
pub async fn another(db: &Db) -> Uuid {
    db.owner.ensure_shop("Another shop").await.unwrap().id
}

pub async fn load(db: &Db, reset: bool) -> bold_stance_store::Result<shop::Shop> {
    demo::load(&db.owner, &db.store, reset).await
}
