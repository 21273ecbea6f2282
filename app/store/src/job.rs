//! Jobs: a vehicle in the shop with a ticket.

use crate::word::Word;
use crate::{Result, StoreError, Tx, version};
pub use bold_stance_trade::job::Stage;
use bold_stance_trade::job::{Aftercare, Drive, Silhouette};
use bold_stance_trade::reading::{Looked, TicketKind, counted};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use sqlx::types::Json;
use uuid::Uuid;

/// A stored job.
#[derive(Debug, Clone, Serialize, Deserialize, utoipa::ToSchema)]
pub struct Job {
    /// Its id.
    pub id: Uuid,
    /// Its vehicle.
    pub vehicle_id: Uuid,
    /// Goes up with every save.
    pub version: i32,
    /// Number on the ticket.
    pub ticket: i32,
    /// Complaint or wish.
    pub complaint: String,
    /// Painted number of the bay, when it stands in one.
    pub bay: Option<i32>,
    /// What it is for.
    pub kind: TicketKind,
    /// Furthest stage reached.
    pub stage: Stage,
    /// The plan that is the one to set: the one that was chosen, else the oldest; none while it has none.
    pub plan_id: Option<Uuid>,
    /// Every time it came back, when it is looked at next, whether it is closed.
    pub aftercare: Aftercare,
    /// When it came.
    pub created_at: DateTime<Utc>,
    /// Number plate or fleet number, as it was typed.
    pub plate: String,
    /// Odometer when it came, km.
    pub odometer_km: Option<f64>,
    /// When it was put away.
    pub archived_at: Option<DateTime<Utc>>,
}

/// A line of the jobs home.
#[derive(Debug, Clone, Serialize, Deserialize, utoipa::ToSchema)]
pub struct JobLine {
    /// The job.
    pub job: Job,
    /// Name of its vehicle.
    pub vehicle: String,
    /// Outline of its vehicle.
    pub silhouette: Silhouette,
    /// Tyres of its vehicle.
    pub tyre_size: String,
    /// Driven axle.
    pub drive: Drive,
    /// Readings its plan waits for that were taken as found.
    pub readings: usize,
    /// Readings its plan waits for.
    pub wanted: usize,
    /// Name of the plan that is the one to set.
    pub plan: Option<String>,
    /// Its height gain in front, mm.
    pub height_change_mm: Option<f64>,
    /// Its height gain behind, mm.
    pub rear_height_change_mm: Option<f64>,
    /// Parts on it.
    pub fitted: i64,
}

/// What a new job needs.
#[derive(Debug, Clone, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewJob {
    /// Complaint or wish.
    pub complaint: String,
    /// Bay, when it stands in one.
    #[serde(default)]
    pub bay: Option<i32>,
    /// What it is for.
    #[serde(default)]
    pub kind: TicketKind,
    /// Number plate or fleet number, at most 20 characters.
    #[serde(default)]
    pub plate: String,
    /// Odometer when it came, km.
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 5_000_000.0)]
    pub odometer_km: Option<f64>,
}

/// Another open job that stands in a bay; a bay holds one car. Held until the transaction ends.
async fn bay_is_free(tx: &mut Tx, shop: Uuid, own: Option<Uuid>, bay: Option<i32>) -> Result<()> {
    let Some(bay) = bay else { return Ok(()) };
    sqlx::query!("select pg_advisory_xact_lock(hashtextextended($1 || 'bay', 0))", shop.to_string())
        .fetch_one(&mut **tx)
        .await?;
    let there = sqlx::query_scalar!(
        "select ticket from job where bay = $1 and archived_at is null and ($2::uuid is null or id <> $2)",
        bay,
        own
    )
    .fetch_optional(&mut **tx)
    .await?;
    match there {
        Some(ticket) => Err(StoreError::BayTaken { bay, ticket }),
        None => Ok(()),
    }
}

/// Opens a job with the next ticket number.
///
/// # Errors
/// Database errors; [`StoreError::Missing`] for a vehicle of another shop; [`StoreError::BayTaken`].
pub async fn insert(tx: &mut Tx, shop: Uuid, vehicle: Uuid, new: &NewJob) -> Result<Uuid> {
    crate::vehicle::get(tx, vehicle).await?;
    bay_is_free(tx, shop, None, new.bay).await?;
    let id = Uuid::new_v4();
    // Two tablets opening jobs at once must not draw the same ticket.
    sqlx::query!("select pg_advisory_xact_lock(hashtextextended($1, 0))", shop.to_string())
        .fetch_one(&mut **tx)
        .await?;
    sqlx::query!(
        "insert into job (id, shop_id, vehicle_id, ticket, complaint, bay, kind, stage, plate, odometer_km)
         values ($1, $2, $3, (select coalesce(max(ticket), 416) + 1 from job), $4, $5, $6, 'arrive', $7, $8)",
        id,
        shop,
        vehicle,
        new.complaint,
        new.bay,
        Word(new.kind) as _,
        new.plate,
        new.odometer_km
    )
    .execute(&mut **tx)
    .await?;
    Ok(id)
}

/// One job.
///
/// # Errors
/// [`StoreError::Missing`].
pub async fn get(tx: &mut Tx, id: Uuid) -> Result<Job> {
    let r = sqlx::query!(
        r#"select id, vehicle_id, version, ticket, complaint, bay, kind as "kind: Word<TicketKind>",
             stage as "stage: Word<Stage>", created_at, aftercare as "aftercare: Json<Aftercare>", plate, odometer_km, archived_at,
             coalesce(plan_id, (select p.id from plan p where p.job_id = job.id order by p.created_at, p.id limit 1)) as plan_id
           from job where id = $1"#,
        id
    )
    .fetch_optional(&mut **tx)
    .await?
    .ok_or(StoreError::Missing { what: "job", id })?;
    Ok(Job {
        id: r.id,
        vehicle_id: r.vehicle_id,
        version: r.version,
        ticket: r.ticket,
        complaint: r.complaint,
        bay: r.bay,
        kind: r.kind.0,
        stage: r.stage.0,
        plan_id: r.plan_id,
        aftercare: r.aftercare.0,
        created_at: r.created_at,
        plate: r.plate,
        odometer_km: r.odometer_km,
        archived_at: r.archived_at,
    })
}

/// The job of a ticket's number.
///
/// # Errors
/// Database errors.
pub async fn of_ticket(tx: &mut Tx, ticket: i32) -> Result<Option<Uuid>> {
    Ok(sqlx::query_scalar!("select id from job where ticket = $1", ticket).fetch_optional(&mut **tx).await?)
}

/// Every ticket of a plate or fleet number, the newest first, also those that were put away. Capitals do not matter.
///
/// # Errors
/// Database errors.
pub async fn of_plate(tx: &mut Tx, plate: &str) -> Result<Vec<(Uuid, i32)>> {
    let rows = sqlx::query!(
        "select id, ticket from job where lower(plate) = lower($1) and plate <> '' order by ticket desc",
        plate.trim()
    )
    .fetch_all(&mut **tx)
    .await?;
    Ok(rows.into_iter().map(|r| (r.id, r.ticket)).collect())
}

/// The newest job of the car with this plate; where none is named, of the car with this name. Neither looks at capitals.
///
/// # Errors
/// Database errors.
pub async fn last_of(tx: &mut Tx, plate: &str, vehicle: &str) -> Result<Option<Uuid>> {
    Ok(sqlx::query_scalar!(
        "select j.id from job j join vehicle v on v.id = j.vehicle_id
         where ($1 <> '' and lower(j.plate) = lower($1))
            or ($1 = '' and $2 <> '' and lower(v.name) = lower($2))
         order by j.created_at desc, j.ticket desc limit 1",
        plate,
        vehicle
    )
    .fetch_optional(&mut **tx)
    .await?)
}

/// Holds a job until the transaction ends, so that what hangs on its newest reading is decided one after the other.
///
/// # Errors
/// [`StoreError::Missing`].
pub async fn hold(tx: &mut Tx, id: Uuid) -> Result<()> {
    sqlx::query_scalar!("select id from job where id = $1 for update", id)
        .fetch_optional(&mut **tx)
        .await?
        .map(|_| ())
        .ok_or(StoreError::Missing { what: "job", id })
}

/// Which jobs are asked for.
#[derive(Debug, Clone, Copy, Default)]
pub struct Asked<'a> {
    /// Only those behind this job: the next page.
    pub after: Option<Uuid>,
    /// Only those whose vehicle, plate, ticket, tyres, plan or complaint holds this.
    pub find: Option<&'a str>,
    /// Which of them.
    pub which: Which,
    /// Only those that are for this.
    pub kind: Option<TicketKind>,
    /// Only those that reached this stage and no other.
    pub stage: Option<Stage>,
    /// In which order.
    pub sort: Sort,
}

/// Jobs by whether they are done. What is looked for is looked for in all of them.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Which {
    /// Neither closed nor put away.
    #[default]
    Open,
    /// Closed, not put away.
    Closed,
    /// Put away.
    Archived,
}

/// Order of a list.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Sort {
    /// Bays first, then the newest ticket.
    #[default]
    Newest,
    /// The oldest ticket first.
    Oldest,
    /// By the name of the vehicle.
    Vehicle,
}

/// A page of jobs. What is looked for is looked for in all of them.
///
/// # Errors
/// [`StoreError::Missing`] when the job a page is to follow is not there.
pub async fn list(tx: &mut Tx, asked: Asked<'_>, limit: i64) -> Result<Vec<JobLine>> {
    if let Some(id) = asked.after {
        get(tx, id).await?;
    }
    let rows = sqlx::query!(
        r#"select j.id, j.vehicle_id, j.version, j.ticket, j.complaint, j.bay, j.kind as "kind: Word<TicketKind>",
             j.stage as "stage: Word<Stage>", j.created_at, j.plate, j.odometer_km, j.archived_at, j.aftercare as "aftercare: Json<Aftercare>", coalesce(jsonb_typeof(v.document #> '{axles,rear,geometry}') = 'object', false) as "rear!", v.name as "name!", v.silhouette as "silhouette!: Word<Silhouette>", v.tyre_size as "tyre_size!",
             v.drive as "drive!: Word<Drive>",
             -- What was read as found, and where.
             (select coalesce(jsonb_agg(distinct jsonb_build_object('quantity', r.quantity, 'axle', r.axle, 'side', r.side)), '[]')
               from reading r where r.job_id = j.id and r.visit = 'found') as "seen!: Json<Vec<Looked>>",
             p.id as "plan_id?", p.name as "plan?",
             (p.document #>> '{axles,front,height_change_mm}')::double precision as height_change_mm,
             (p.document #>> '{axles,rear,height_change_mm}')::double precision as rear_height_change_mm,
             (coalesce(jsonb_array_length(p.document #> '{axles,front,fitted}'), 0)
               + coalesce(jsonb_array_length(p.document #> '{axles,rear,fitted}'), 0))::bigint as "fitted!"
           from job j join vehicle v on v.id = j.vehicle_id
           left join lateral (select id, name, document from plan where plan.job_id = j.id
             order by (plan.id = j.plan_id) desc nulls last, created_at, id limit 1) p on true
           cross join lateral (select case $7::text when 'vehicle' then lower(v.name) when 'oldest' then lpad(j.ticket::text, 10, '0')
             else lpad(coalesce(j.bay, 100)::text, 3, '0') || lpad((1000000000 - j.ticket)::text, 10, '0') end || ' ' || j.id::text as at) o
           where ($1::uuid is null or o.at collate "C" > (select case $7::text when 'vehicle' then lower(cv.name) when 'oldest' then lpad(c.ticket::text, 10, '0')
               else lpad(coalesce(c.bay, 100)::text, 3, '0') || lpad((1000000000 - c.ticket)::text, 10, '0') end || ' ' || c.id::text
               from job c join vehicle cv on cv.id = c.vehicle_id where c.id = $1) collate "C")
             and ($2::text is null
               or position(lower($2) in lower(v.name || ' ticket ' || lpad(j.ticket::text, 4, '0') || ' ' || j.plate || ' ' || v.tyre_size
                 || ' ' || coalesce(p.name, '') || ' ' || j.complaint)) > 0)
             and ($2::text is not null or (jsonb_exists(j.aftercare, 'closed') = ($4 = 'closed') or $4 = 'archived')
               and (j.archived_at is not null) = ($4 = 'archived'))
             and ($5::text is null or j.kind = $5) and ($6::text is null or j.stage = $6)
           order by o.at collate "C" limit $3"#,
        asked.after,
        asked.find,
        limit,
        match asked.which {
            Which::Open => "open",
            Which::Closed => "closed",
            Which::Archived => "archived",
        },
        asked.kind.map(Word) as _,
        asked.stage.map(Word) as _,
        match asked.sort {
            Sort::Newest => "newest",
            Sort::Oldest => "oldest",
            Sort::Vehicle => "vehicle",
        }
    )
    .fetch_all(&mut **tx)
    .await?;
    rows.into_iter()
        .map(|r| {
            let counted = counted(r.kind.0, r.rear, &r.seen);
            Ok(JobLine {
                job: Job {
                    id: r.id,
                    vehicle_id: r.vehicle_id,
                    version: r.version,
                    ticket: r.ticket,
                    complaint: r.complaint,
                    bay: r.bay,
                    kind: r.kind.0,
                    stage: r.stage.0,
                    plan_id: r.plan_id,
                    aftercare: r.aftercare.0,
                    created_at: r.created_at,
                    plate: r.plate,
                    odometer_km: r.odometer_km,
                    archived_at: r.archived_at,
                },
                vehicle: r.name,
                silhouette: r.silhouette.0,
                tyre_size: r.tyre_size,
                drive: r.drive.0,
                readings: counted.read,
                wanted: counted.wanted,
                plan: r.plan,
                height_change_mm: r.height_change_mm,
                rear_height_change_mm: r.rear_height_change_mm,
                fitted: r.fitted,
            })
        })
        .collect()
}

/// What a ticket says and is for, over a version.
///
/// # Errors
/// [`StoreError::Missing`]; [`StoreError::Stale`] when somebody saved first; [`StoreError::BayTaken`].
pub async fn save(tx: &mut Tx, shop: Uuid, id: Uuid, yours: i32, new: &NewJob) -> Result<()> {
    let now = sqlx::query_scalar!("select version from job where id = $1 for update", id)
        .fetch_optional(&mut **tx)
        .await?;
    let next = version::next("ticket", id, yours, now)?;
    bay_is_free(tx, shop, Some(id), new.bay).await?;
    sqlx::query!(
        "update job set complaint = $2, bay = $3, kind = $4, version = $5, plate = $6, odometer_km = $7 where id = $1",
        id,
        new.complaint,
        new.bay,
        Word(new.kind) as _,
        next,
        new.plate,
        new.odometer_km
    )
    .execute(&mut **tx)
    .await?;
    Ok(())
}

/// Puts a job away, or takes it out again, over a version of the ticket. What is put away leaves its bay.
///
/// # Errors
/// [`StoreError::Missing`]; [`StoreError::Stale`] when somebody saved first.
pub async fn archive(tx: &mut Tx, id: Uuid, yours: i32, away: bool) -> Result<()> {
    let now = sqlx::query_scalar!("select version from job where id = $1 for update", id)
        .fetch_optional(&mut **tx)
        .await?;
    let next = version::next("ticket", id, yours, now)?;
    sqlx::query!(
        "update job set archived_at = case when $2 then now() end, bay = case when $2 then null else bay end, version = $3
         where id = $1",
        id,
        away,
        next
    )
    .execute(&mut **tx)
    .await?;
    Ok(())
}

/// Keeps what happened after the setting, over a version of the ticket. A closed job leaves its bay.
///
/// # Errors
/// [`StoreError::Missing`]; [`StoreError::Stale`] when somebody saved first.
pub async fn keep_aftercare(tx: &mut Tx, id: Uuid, yours: i32, care: &Aftercare) -> Result<()> {
    let now = sqlx::query_scalar!("select version from job where id = $1 for update", id)
        .fetch_optional(&mut **tx)
        .await?;
    let next = version::next("ticket", id, yours, now)?;
    sqlx::query!(
        "update job set aftercare = $2, version = $3, bay = case when $4 then null else bay end where id = $1",
        id,
        Json(care) as _,
        next,
        care.closed.is_some()
    )
    .execute(&mut **tx)
    .await?;
    Ok(())
}

/// Chooses the plan of a job that is the one to set, over a version of the ticket.
///
/// # Errors
/// [`StoreError::Missing`], also of a plan of another job; [`StoreError::Stale`] when somebody saved first.
pub async fn choose_plan(tx: &mut Tx, id: Uuid, yours: i32, plan: Uuid) -> Result<()> {
    let now = sqlx::query_scalar!("select version from job where id = $1 for update", id)
        .fetch_optional(&mut **tx)
        .await?;
    let next = version::next("ticket", id, yours, now)?;
    if crate::plan::get(tx, plan).await?.job_id != id {
        return Err(StoreError::Missing { what: "plan", id: plan });
    }
    sqlx::query!("update job set plan_id = $2, version = $3 where id = $1", id, plan, next)
        .execute(&mut **tx)
        .await?;
    Ok(())
}

/// Moves a job on to a stage; never back.
///
/// # Errors
/// [`StoreError::Missing`].
pub async fn reach_stage(tx: &mut Tx, id: Uuid, stage: Stage) -> Result<()> {
    if get(tx, id).await?.stage < stage {
        sqlx::query!("update job set stage = $2, version = version + 1 where id = $1", id, Word(stage) as _)
            .execute(&mut **tx)
            .await?;
    }
    Ok(())
}
