//! Signing in, the first run, devices: each is one function of the database, which alone sees what is kept of a secret.
//!
//! A proof is what Argon2id makes of what was typed, with the salt that is given out here; a token is what a session or
//! device is known by. Of both only SHA-256 is kept.

use crate::people::taken;
use crate::{Result, Store, Tx};
use bold_stance_people::{Role, TrustSettings};
use sqlx::types::Json;
use uuid::Uuid;

/// Hours a session lasts at most: a working day.
pub const SESSION_HOURS: f64 = 14.0;

/// A secret as it is kept: its salt, and SHA-256 of its proof.
#[derive(Debug, Clone, Copy)]
pub struct Kept<'a> {
    /// Salt of Argon2id, 16 bytes.
    pub salt: &'a [u8],
    /// SHA-256 of the proof, 32 bytes.
    pub verifier: &'a [u8],
}

/// A name on the bench of a device.
#[derive(Debug, Clone)]
pub struct AtBench {
    /// The member.
    pub member: Uuid,
    /// Their name.
    pub name: String,
    /// Their role.
    pub role: Role,
    /// Which way their mark is turned.
    pub mark: i32,
    /// Whether they have a PIN yet.
    pub has_pin: bool,
    /// Seconds until they may try again.
    pub wait_s: f64,
}

/// What a device of a shop may know before somebody signed in.
#[derive(Debug, Clone)]
pub struct Bench {
    /// The shop.
    pub shop: Uuid,
    /// Its name.
    pub shop_name: String,
    /// The device.
    pub device: Uuid,
    /// Its name.
    pub device_name: String,
    /// Who works there.
    pub members: Vec<AtBench>,
}

/// The bench of a device; none where it is no device of any shop.
///
/// # Errors
/// Database errors.
pub async fn bench(store: &Store, device_token: &str) -> Result<Option<Bench>> {
    let rows = sqlx::query!(
        r#"select shop as "shop!", shop_name as "shop_name!", device as "device!", device_name as "device_name!", member as "member!",
             name as "name!", role as "role!", mark as "mark!", has_pin as "has_pin!", wait_s as "wait_s!"
           from at_the_bench($1)"#,
        device_token
    )
    .fetch_all(store.pool())
    .await?;
    let Some(first) = rows.first() else { return Ok(None) };
    let (shop, shop_name) = (first.shop, first.shop_name.clone());
    let (device, device_name) = (first.device, first.device_name.clone());
    let members = rows
        .into_iter()
        .filter_map(|r| {
            Some(AtBench {
                member: r.member,
                name: r.name,
                role: Role::of(&r.role)?,
                mark: r.mark,
                has_pin: r.has_pin,
                wait_s: r.wait_s,
            })
        })
        .collect();
    Ok(Some(Bench { shop, shop_name, device, device_name, members }))
}

/// The salt of a member's PIN, for a device of their shop.
///
/// # Errors
/// Database errors.
pub async fn pin_salt(store: &Store, device_token: &str, member: Uuid) -> Result<Option<Vec<u8>>> {
    Ok(sqlx::query_scalar!("select pin_salt($1, $2)", device_token, member).fetch_one(store.pool()).await?)
}

/// How a try ended.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Tried {
    /// There is a session under the token.
    In,
    /// Wrong; so many tries are left before a wait, where that is told.
    Wrong(Option<u32>),
    /// Too many were wrong: so many seconds.
    Wait(f64),
    /// No such device, member or PIN.
    Unknown,
}

fn tried(seconds: Option<f64>) -> Tried {
    match seconds {
        None => Tried::Unknown,
        Some(0.0) => Tried::In,
        Some(s) if s > 0.0 => Tried::Wait(s),
        Some(left) => Tried::Wrong(Some(-left as u32)),
    }
}

/// Opens a session by a PIN.
///
/// # Errors
/// Database errors.
pub async fn by_pin(
    store: &Store,
    device_token: &str,
    member: Uuid,
    proof: &[u8],
    token: &str,
) -> Result<Tried> {
    let s = sqlx::query_scalar!(
        "select sign_in_pin($1, $2, $3, $4, $5)",
        device_token,
        member,
        proof,
        token,
        SESSION_HOURS
    )
    .fetch_one(store.pool())
    .await?;
    Ok(tried(s))
}

/// The salt of a passphrase; of a name nobody has, one that looks like it.
///
/// # Errors
/// Database errors.
pub async fn passphrase_salt(store: &Store, login: &str) -> Result<Vec<u8>> {
    let s = sqlx::query_scalar!("select passphrase_salt($1)", login).fetch_one(store.pool()).await?;
    Ok(s.unwrap_or_default())
}

/// What a right passphrase opens.
#[derive(Debug, Clone)]
pub struct Right {
    /// Secret of the second factor, where one is set.
    pub totp: Option<Vec<u8>>,
    /// Time step of the last code that was used.
    pub used_step: i64,
    /// Shops to choose from, with their names.
    pub shops: Vec<(Uuid, String)>,
}

/// Whether a passphrase is right; counts the wrong ones.
///
/// # Errors
/// Database errors.
pub async fn passphrase(
    store: &Store,
    login: &str,
    proof: &[u8],
) -> Result<std::result::Result<Right, Tried>> {
    let r = sqlx::query!("select wait_s, totp, step from passphrase_right($1, $2)", login, proof)
        .fetch_one(store.pool())
        .await?;
    match tried(r.wait_s) {
        Tried::In => {}
        Tried::Wrong(_) => return Ok(Err(Tried::Wrong(None))),
        other => return Ok(Err(other)),
    }
    let shops =
        sqlx::query!(r#"select shop as "shop!", name as "name!" from shops_of($1, $2)"#, login, proof)
            .fetch_all(store.pool())
            .await?;
    let shops = shops.into_iter().map(|s| (s.shop, s.name)).collect();
    Ok(Ok(Right { totp: r.totp, used_step: r.step.unwrap_or(0), shops }))
}

/// Opens a session by a passphrase that was right; `step` is the time step of the second factor's code.
///
/// # Errors
/// Database errors.
pub async fn by_passphrase(
    store: &Store,
    (login, proof): (&str, &[u8]),
    shop: Uuid,
    step: Option<i64>,
    device_token: Option<&str>,
    token: &str,
) -> Result<bool> {
    let ok = sqlx::query_scalar!(
        "select sign_in_passphrase($1, $2, $3, $4, $5, $6, $7)",
        login,
        proof,
        shop,
        step,
        device_token,
        token,
        SESSION_HOURS
    )
    .fetch_one(store.pool())
    .await?;
    Ok(ok.unwrap_or(false))
}

/// Who sits behind a session.
#[derive(Debug, Clone)]
pub struct Whose {
    /// The shop.
    pub shop: Uuid,
    /// Its name.
    pub shop_name: String,
    /// The member.
    pub member: Uuid,
    /// Their name.
    pub name: String,
    /// Their role.
    pub role: Role,
    /// Which way their mark is turned.
    pub mark: i32,
    /// The device, where it is one of the shop's.
    pub device: Option<Uuid>,
    /// The session.
    pub session: Uuid,
    /// How it was opened: `pin`, `passphrase` or `slip`.
    pub way: String,
    /// What the shop's owner set about trust.
    pub trust: TrustSettings,
}

/// Whose a session is; none when it has ended.
///
/// # Errors
/// Database errors.
pub async fn whose(store: &Store, token: &str) -> Result<Option<Whose>> {
    let r = sqlx::query!(
        r#"select shop as "shop!", shop_name as "shop_name!", member as "member!", name as "name!", role as "role!", mark as "mark!",
             device, session as "session!", way as "way!", trust as "trust!: Json<TrustSettings>" from whose($1)"#,
        token
    )
    .fetch_optional(store.pool())
    .await?;
    Ok(r.and_then(|r| {
        Some(Whose {
            shop: r.shop,
            shop_name: r.shop_name,
            member: r.member,
            name: r.name,
            role: Role::of(&r.role)?,
            mark: r.mark,
            device: r.device,
            session: r.session,
            way: r.way,
            trust: r.trust.0,
        })
    }))
}

/// Ends a session.
///
/// # Errors
/// Database errors.
pub async fn out(store: &Store, token: &str) -> Result<()> {
    sqlx::query!("select sign_out($1)", token).execute(store.pool()).await?;
    Ok(())
}

/// The first run.
#[derive(Debug, Clone, Copy)]
pub struct Claim<'a> {
    /// The shop that has no owner yet.
    pub shop: Uuid,
    /// Its name from now on.
    pub name: &'a str,
    /// Its bays.
    pub bays: i32,
    /// The owner: a member that is there already, or a new id.
    pub owner: Uuid,
    /// Their name.
    pub owner_name: &'a str,
    /// Their PIN.
    pub pin: Kept<'a>,
    /// The slip.
    pub slip: Kept<'a>,
    /// The device they sit at, the shop's first.
    pub device: NewDevice<'a>,
    /// The token of their session.
    pub token: &'a str,
}

/// Makes an owner where there is none; false where somebody was first.
///
/// # Errors
/// Database errors; a name another shop or member has.
pub async fn claim(store: &Store, c: &Claim<'_>) -> Result<bool> {
    let ok = sqlx::query_scalar!(
        "select claim_shop($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14)",
        c.shop,
        c.name,
        c.bays,
        c.owner,
        c.owner_name,
        c.pin.salt,
        c.pin.verifier,
        c.slip.salt,
        c.slip.verifier,
        c.device.id,
        c.device.name,
        c.device.token,
        c.token,
        SESSION_HOURS
    )
    .fetch_one(store.pool())
    .await
    .map_err(taken)?;
    Ok(ok.unwrap_or(false))
}

/// A device as it becomes known.
#[derive(Debug, Clone, Copy)]
pub struct NewDevice<'a> {
    /// Its id.
    pub id: Uuid,
    /// Its name.
    pub name: &'a str,
    /// What it will be known by.
    pub token: &'a str,
}

/// Salt of a shop's slip.
///
/// # Errors
/// Database errors.
pub async fn slip_salt(store: &Store, shop: Uuid) -> Result<Option<Vec<u8>>> {
    Ok(sqlx::query_scalar!("select slip_salt($1)", shop).fetch_one(store.pool()).await?)
}

/// Brings the owner back by the slip: a new PIN, this device, a session, and the next slip. False where it is wrong, or
/// five were wrong within the hour.
///
/// # Errors
/// Database errors.
pub async fn by_slip(
    store: &Store,
    (shop, proof): (Uuid, &[u8]),
    pin: Kept<'_>,
    device: NewDevice<'_>,
    token: &str,
    slip: Kept<'_>,
) -> Result<bool> {
    let ok = sqlx::query_scalar!(
        "select use_slip($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)",
        shop,
        proof,
        pin.salt,
        pin.verifier,
        device.id,
        device.name,
        device.token,
        token,
        slip.salt,
        slip.verifier
    )
    .fetch_one(store.pool())
    .await?;
    Ok(ok.unwrap_or(false))
}

/// Makes a code good for one new device within ten minutes; false where the seat may not.
///
/// # Errors
/// Database errors.
pub async fn make_code(tx: &mut Tx, code: &str) -> Result<bool> {
    let ok = sqlx::query_scalar!("select make_enrolment($1)", code).fetch_one(&mut **tx).await?;
    Ok(ok.unwrap_or(false))
}

/// Makes a device the shop's by a code; answers the shop's name, none where the code is not or no longer good.
///
/// # Errors
/// Database errors.
pub async fn by_code(store: &Store, code: &str, device: NewDevice<'_>) -> Result<Option<String>> {
    Ok(sqlx::query_scalar!(
        "select use_enrolment($1, $2, $3, $4)",
        code,
        device.id,
        device.name,
        device.token
    )
    .fetch_one(store.pool())
    .await?)
}

/// Makes the device a session is on one of the shop's; false where the seat may not.
///
/// # Errors
/// Database errors.
pub async fn enrol_here(tx: &mut Tx, device: NewDevice<'_>, token: &str) -> Result<bool> {
    let ok =
        sqlx::query_scalar!("select enrol_here($1, $2, $3, $4)", device.id, device.name, device.token, token)
            .fetch_one(&mut **tx)
            .await?;
    Ok(ok.unwrap_or(false))
}

/// Salt of the PIN of who sits there.
///
/// # Errors
/// Database errors.
pub async fn own_pin_salt(tx: &mut Tx) -> Result<Option<Vec<u8>>> {
    Ok(sqlx::query_scalar!("select own_pin_salt()").fetch_one(&mut **tx).await?)
}

/// Sets a member's PIN, by who manages people or by themselves with the proof of the one they have. Ends their other
/// sessions. False where it may not be.
///
/// # Errors
/// Database errors.
pub async fn set_pin(tx: &mut Tx, member: Uuid, own: Option<&[u8]>, pin: Kept<'_>) -> Result<bool> {
    let ok = sqlx::query_scalar!("select set_pin($1, $2, $3, $4)", member, own, pin.salt, pin.verifier)
        .fetch_one(&mut **tx)
        .await?;
    Ok(ok.unwrap_or(false))
}

/// Sets a member's name to sign in with and passphrase. None: it may not be; false: somebody else has the name.
///
/// # Errors
/// Database errors.
pub async fn set_passphrase(
    tx: &mut Tx,
    member: Uuid,
    login: &str,
    kept: Kept<'_>,
    totp: Option<&[u8]>,
) -> Result<Option<bool>> {
    Ok(sqlx::query_scalar!(
        "select set_passphrase($1, $2, $3, $4, $5)",
        member,
        login,
        kept.salt,
        kept.verifier,
        totp
    )
    .fetch_one(&mut **tx)
    .await?)
}

/// The name a member signs in with from elsewhere, and whether a second factor is set; none without.
///
/// # Errors
/// Database errors.
pub async fn login_of(tx: &mut Tx, member: Uuid) -> Result<Option<(String, bool)>> {
    let r = sqlx::query!("select login, second_factor from login_of($1)", member)
        .fetch_optional(&mut **tx)
        .await?;
    Ok(r.and_then(|r| Some((r.login?, r.second_factor.unwrap_or(false)))))
}
