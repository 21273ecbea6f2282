//! Readings: kept as typed, never changed.

use crate::vehicle::{from_word, word};
use crate::{Result, Tx};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use sqlx::types::Json;
use uuid::Uuid;

/// What was read.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Quantity {
    /// Hub centre to arch lip, mm.
    Height,
    /// Degrees, top out positive.
    Camber,
    /// Degrees, top rearward positive.
    Caster,
    /// Degrees of one wheel, toe-in positive.
    Toe,
}

/// Which side of the car.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Side {
    /// Left front.
    Left,
    /// Right front.
    Right,
}

/// At which point of the work.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Visit {
    /// As found.
    Found,
    /// After the height was set and settled.
    Settled,
    /// After the cams were set.
    Reswept,
    /// After everything.
    Proved,
}

/// How it was read.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Method {
    /// Straight off a tape or gauge.
    Direct,
    /// Caster from two cambers of a sweep.
    Sweep,
}

/// A stored reading.
#[derive(Debug, Clone, Serialize, Deserialize, utoipa::ToSchema)]
pub struct Reading {
    /// Its id.
    pub id: Uuid,
    /// When in the work.
    pub visit: Visit,
    /// What.
    pub quantity: Quantity,
    /// Where.
    pub side: Side,
    /// How.
    pub method: Method,
    /// Every entry as typed, by name.
    pub raw: Vec<RawEntry>,
    /// Unit the entries were typed in when they named none.
    pub unit: String,
    /// Converted value: mm for height, degrees else.
    pub value: f64,
    /// Standard deviation in the same unit.
    pub sigma: f64,
    /// Who read it.
    pub author: String,
    /// The reading this one corrects.
    pub replaces: Option<Uuid>,
    /// When, UTC.
    pub taken_at: DateTime<Utc>,
}

/// One entry as typed.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RawEntry {
    /// What it is, e.g. `value`, `camber_out`.
    pub name: String,
    /// As typed.
    pub text: String,
}

/// A reading to store.
#[derive(Debug, Clone)]
pub struct NewReading {
    /// Chosen by the sender, so that sending twice stores once.
    pub id: Uuid,
    /// When in the work.
    pub visit: Visit,
    /// What.
    pub quantity: Quantity,
    /// Where.
    pub side: Side,
    /// How.
    pub method: Method,
    /// As typed.
    pub raw: Vec<RawEntry>,
    /// Default unit of the entries.
    pub unit: String,
    /// mm or degrees.
    pub value: f64,
    /// mm or degrees.
    pub sigma: f64,
    /// Who.
    pub author: String,
}

/// Adds a reading; the newest of the same quantity, side and visit is the one it replaces.
///
/// # Errors
/// Database errors.
pub async fn add(tx: &mut Tx, shop: Uuid, job: Uuid, n: &NewReading) -> Result<()> {
    let (visit, quantity, side) = (word(&n.visit)?, word(&n.quantity)?, word(&n.side)?);
    sqlx::query!(
        "insert into reading (id, shop_id, job_id, visit, quantity, side, method, raw, unit, value, sigma, author, replaces)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12,
             (select id from reading where job_id = $3 and visit = $4 and quantity = $5 and side = $6
              order by taken_at desc, id limit 1))
         on conflict (id) do nothing",
        n.id,
        shop,
        job,
        visit,
        quantity,
        side,
        word(&n.method)?,
        Json(&n.raw) as _,
        n.unit,
        n.value,
        n.sigma,
        n.author,
    )
    .execute(&mut **tx)
    .await?;
    Ok(())
}

/// Every reading of a job, oldest first.
///
/// # Errors
/// Database errors.
pub async fn of_job(tx: &mut Tx, job: Uuid) -> Result<Vec<Reading>> {
    let rows = sqlx::query!(
        r#"select id, visit, quantity, side, method, raw as "raw: Json<Vec<RawEntry>>", unit, value, sigma, author, replaces, taken_at
           from reading where job_id = $1 order by taken_at, id"#,
        job
    )
    .fetch_all(&mut **tx)
    .await?;
    rows.into_iter()
        .map(|r| {
            Ok(Reading {
                id: r.id,
                visit: from_word(r.visit)?,
                quantity: from_word(r.quantity)?,
                side: from_word(r.side)?,
                method: from_word(r.method)?,
                raw: r.raw.0,
                unit: r.unit,
                value: r.value,
                sigma: r.sigma,
                author: r.author,
                replaces: r.replaces,
                taken_at: r.taken_at,
            })
        })
        .collect()
}

/// The readings that stand: the newest of each quantity and side of a visit.
#[must_use]
pub fn standing(all: &[Reading], visit: Visit, quantity: Quantity, side: Side) -> Option<&Reading> {
    all.iter().rev().find(|r| r.visit == visit && r.quantity == quantity && r.side == side)
}
