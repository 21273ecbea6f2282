//! Members, devices and sessions of a shop, as its owner sees them.

use crate::{Result, StoreError, Tx, version};
use bold_stance_people::Role;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use uuid::Uuid;

/// A member of a shop.
#[derive(Debug, Clone, Serialize, Deserialize, utoipa::ToSchema)]
pub struct Member {
    /// Its id.
    pub id: Uuid,
    /// As it stands on the bench.
    pub name: String,
    /// What they are.
    pub role: Role,
    /// Which way their mark is turned: sixteenths of a turn.
    #[schema(minimum = 0, maximum = 15)]
    pub mark: i32,
    /// Whether they have a PIN.
    pub has_pin: bool,
    /// Goes up with every save.
    pub version: i32,
    /// When they left; absent while they work here.
    pub left_at: Option<DateTime<Utc>>,
}

/// Members of the shop, who came first first; also those who left.
///
/// # Errors
/// Database errors.
pub async fn members(tx: &mut Tx) -> Result<Vec<Member>> {
    let rows = sqlx::query!(r#"select id, name, role, mark, has_pin as "has_pin!", version, left_at from member order by created_at, id"#)
        .fetch_all(&mut **tx)
        .await?;
    Ok(rows
        .into_iter()
        .filter_map(|r| {
            let role = Role::of(&r.role)?;
            Some(Member {
                id: r.id,
                name: r.name,
                role,
                mark: r.mark,
                has_pin: r.has_pin,
                version: r.version,
                left_at: r.left_at,
            })
        })
        .collect())
}

/// A database error, told apart where it is a name somebody has already.
pub(crate) fn taken(e: sqlx::Error) -> StoreError {
    match &e {
        sqlx::Error::Database(d) if d.is_unique_violation() => StoreError::NameTaken,
        _ => StoreError::Database(e),
    }
}

/// Adds a member.
///
/// # Errors
/// [`StoreError::NameTaken`].
pub async fn add(tx: &mut Tx, shop: Uuid, id: Uuid, name: &str, role: Role, mark: i32) -> Result<()> {
    sqlx::query!(
        "insert into member (id, shop_id, name, role, mark) values ($1, $2, $3, $4, $5)",
        id,
        shop,
        name,
        role.key(),
        mark
    )
    .execute(&mut **tx)
    .await
    .map_err(taken)?;
    Ok(())
}

/// Saves a member over a version.
///
/// # Errors
/// [`StoreError::Missing`], [`StoreError::Stale`], [`StoreError::NameTaken`]; [`StoreError::LastOwner`] where nobody who
/// owns the shop would be left.
pub async fn save(tx: &mut Tx, m: &Member, yours: i32) -> Result<i32> {
    let now = sqlx::query!("select version, role, left_at from member where id = $1 for update", m.id)
        .fetch_optional(&mut **tx)
        .await?;
    let owned = now.as_ref().is_some_and(|n| n.role == Role::Owner.key() && n.left_at.is_none());
    let next = version::next("member", m.id, yours, now.map(|n| n.version))?;
    sqlx::query!(
        "update member set name = $2, role = $3, mark = $4, left_at = $5, version = $6 where id = $1",
        m.id,
        m.name,
        m.role.key(),
        m.mark,
        m.left_at,
        next
    )
    .execute(&mut **tx)
    .await
    .map_err(taken)?;
    if owned {
        let owners = sqlx::query_scalar!(
            r#"select count(*) as "n!" from member where role = 'owner' and left_at is null"#
        )
        .fetch_one(&mut **tx)
        .await?;
        if owners == 0 {
            return Err(StoreError::LastOwner);
        }
    }
    Ok(next)
}

/// A device of a shop.
#[derive(Debug, Clone, Serialize, utoipa::ToSchema)]
pub struct Device {
    /// Its id.
    pub id: Uuid,
    /// Its name.
    pub name: String,
    /// When it was added.
    pub enrolled_at: DateTime<Utc>,
    /// When it was there last, to the minute.
    pub seen_at: DateTime<Utc>,
}

/// Devices of the shop, newest first.
///
/// # Errors
/// Database errors.
pub async fn devices(tx: &mut Tx) -> Result<Vec<Device>> {
    Ok(sqlx::query_as!(
        Device,
        "select id, name, enrolled_at, seen_at from device where removed_at is null order by enrolled_at desc, id"
    )
    .fetch_all(&mut **tx)
    .await?)
}

/// Takes a device out of the shop; whoever sits at it is signed out.
///
/// # Errors
/// [`StoreError::Missing`].
pub async fn remove_device(tx: &mut Tx, id: Uuid) -> Result<()> {
    let n = sqlx::query!("update device set removed_at = now() where id = $1 and removed_at is null", id)
        .execute(&mut **tx)
        .await?;
    if n.rows_affected() == 0 {
        return Err(StoreError::Missing { what: "device", id });
    }
    sqlx::query!("update seat_session set ended_at = now() where device_id = $1 and ended_at is null", id)
        .execute(&mut **tx)
        .await?;
    Ok(())
}

/// Somebody who is signed in.
#[derive(Debug, Clone, Serialize, utoipa::ToSchema)]
pub struct Sitting {
    /// The session.
    pub id: Uuid,
    /// The member.
    pub member_id: Uuid,
    /// The device, where it is one of the shop's.
    pub device_id: Option<Uuid>,
    /// How it was opened: `pin`, `passphrase` or `slip`.
    pub way: String,
    /// When.
    pub started_at: DateTime<Utc>,
    /// Last request, to the half minute.
    pub seen_at: DateTime<Utc>,
}

/// Everybody who is signed in; for somebody who does not manage people, their own.
///
/// # Errors
/// Database errors.
pub async fn sitting(tx: &mut Tx) -> Result<Vec<Sitting>> {
    Ok(sqlx::query_as!(
        Sitting,
        "select id, member_id, device_id, way, started_at, seen_at from seat_session
         where ended_at is null and expires_at > now() order by seen_at desc, id"
    )
    .fetch_all(&mut **tx)
    .await?)
}

/// Ends one session, or every session of a member; how many.
///
/// # Errors
/// Database errors.
pub async fn end(tx: &mut Tx, session: Option<Uuid>, member: Option<Uuid>) -> Result<u64> {
    let n = sqlx::query!(
        "update seat_session set ended_at = now() where ended_at is null and (id = $1 or member_id = $2)",
        session,
        member
    )
    .execute(&mut **tx)
    .await?;
    Ok(n.rows_affected())
}

/// The units who sits there reads in, where they told any.
///
/// # Errors
/// Database errors.
pub async fn own_units(tx: &mut Tx, member: Uuid) -> Result<Option<Value>> {
    let r = sqlx::query_scalar!("select units from member where id = $1", member)
        .fetch_optional(&mut **tx)
        .await?;
    Ok(r.flatten())
}

/// Keeps them.
///
/// # Errors
/// Database errors.
pub async fn set_own_units(tx: &mut Tx, units: &Value) -> Result<()> {
    sqlx::query!("select set_own_units($1)", units).execute(&mut **tx).await?;
    Ok(())
}
