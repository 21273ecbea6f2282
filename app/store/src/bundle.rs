//! A whole job out of and into the database.

use crate::word::Word;
use crate::{Result, Tx, event, job, note, plan, reading, shop_part, tread, vehicle, visit};
use base64::Engine;
use base64::prelude::BASE64_STANDARD as STANDARD;
use bold_stance_trade::job::{BundlePlan, JOB_FORMAT, JobBundle, Note, Reading};
use bold_stance_trade::memory::Memory;
use bold_stance_trade::part::Part;
use chrono::{DateTime, Utc};
use sqlx::types::Json;
use std::collections::HashMap;
use uuid::Uuid;

/// A job as it stands, with `parts` it is planned with beyond what ships, the shipped ones that are `withdrawn`, and the `memory` of
/// the shop when work on it began.
///
/// # Errors
/// Database errors.
pub async fn of_job(
    tx: &mut Tx,
    id: Uuid,
    parts: Vec<Part>,
    withdrawn: Vec<String>,
    memory: impl FnOnce(Option<DateTime<Utc>>) -> Memory,
) -> Result<JobBundle> {
    let j = job::get(tx, id).await?;
    let plans = plan::of_job(tx, id).await?;
    let done = crate::done::of_job(tx, id).await?;
    Ok(JobBundle {
        format: JOB_FORMAT.into(),
        written_by: env!("CARGO_PKG_VERSION").into(),
        arrived_at: j.created_at,
        complaint: j.complaint,
        kind: j.kind,
        stage: j.stage,
        vehicle: vehicle::get(tx, j.vehicle_id).await?.facts,
        visits: visit::of_job(tx, id).await?,
        readings: reading::of_job(tx, id).await?,
        plans: plans
            .into_iter()
            .map(|p| BundlePlan { id: p.id, name: p.name, document: p.document })
            .collect(),
        chosen_plan: j.plan_id,
        memory: memory(done.iter().map(|d| d.done_at).min()),
        done,
        parts,
        withdrawn,
        tyres: tread::of_vehicle(tx, j.vehicle_id).await?.iter().map(tread::StoredTyre::logged).collect(),
        notes: notes_with_photos(tx, id).await?,
        aftercare: j.aftercare,
        events: event::of_job(tx, id).await?,
    })
}

/// Notes of a job with their photos in them.
async fn notes_with_photos(tx: &mut Tx, id: Uuid) -> Result<Vec<Note>> {
    let mut out = note::of_job(tx, id).await?;
    for n in out.iter_mut().filter(|n| n.photo.is_some()) {
        n.jpeg = Some(STANDARD.encode(note::photo(tx, id, n.id).await?));
    }
    Ok(out)
}

/// A part of a bundle under an id that is free in this shop.
fn free_id(part: &Part, taken: &[Part]) -> String {
    (2..)
        .map(|n| format!("{}-{n}", part.id))
        .find(|id| !taken.iter().any(|p| p.id == *id))
        .unwrap_or_default()
}

/// Takes a bundle in as a new job with a new vehicle. Ids are given anew; times, authors and what was typed stay. A part this
/// shop has under the same id and otherwise is taken in beside its own, under another id.
///
/// # Errors
/// Database errors.
pub async fn insert(tx: &mut Tx, shop: Uuid, b: &JobBundle, shelf: &[Part]) -> Result<Uuid> {
    let mut taken: Vec<Part> = shelf.to_vec();
    let mut renamed: HashMap<String, String> = HashMap::new();
    for p in &b.parts {
        if taken.contains(p) {
            continue;
        }
        let mut own = p.clone();
        if taken.iter().any(|t| t.id == p.id) {
            own.id = free_id(p, &taken);
            renamed.insert(p.id.clone(), own.id.clone());
        }
        shop_part::save(tx, shop, 0, &own, false).await?;
        taken.push(own);
    }
    let v = vehicle::insert(tx, shop, &b.vehicle).await?;
    let new = job::NewJob {
        complaint: b.complaint.clone(),
        bay: None,
        kind: b.kind,
        plate: String::new(),
        odometer_km: None,
    };
    let id = job::insert(tx, shop, v, &new).await?;
    sqlx::query!(
        "update job set created_at = $2, aftercare = $3 where id = $1",
        id,
        b.arrived_at,
        Json(&b.aftercare) as _
    )
    .execute(&mut **tx)
    .await?;
    for w in &b.visits {
        sqlx::query!(
            "insert into visit (shop_id, job_id, kind, answers, author, version, opened_at) values ($1, $2, $3, $4, $5, $6, $7)",
            shop,
            id,
            Word(w.kind) as _,
            Json(&w.answers) as _,
            w.author,
            w.version,
            w.opened_at
        )
        .execute(&mut **tx)
        .await?;
    }
    let mut readings: HashMap<Uuid, Uuid> = HashMap::new();
    for r in &b.readings {
        let own = Uuid::new_v4();
        readings.insert(r.id, own);
        let replaces = r.replaces.and_then(|x| readings.get(&x).copied());
        reading::add(tx, shop, id, &Reading { id: own, replaces, ..r.clone() }).await?;
    }
    let mut plans: HashMap<Uuid, Uuid> = HashMap::new();
    for p in &b.plans {
        let mut document = p.document.clone();
        for list in [&mut document.axles.front.fitted, &mut document.axles.rear.fitted] {
            for part in list.iter_mut() {
                let (family, size) =
                    part.split_once('@').map_or((part.as_str(), None), |(f, s)| (f, Some(s)));
                if let Some(new) = renamed.get(family) {
                    *part = size.map_or_else(|| new.clone(), |s| format!("{new}@{s}"));
                }
            }
        }
        plans.insert(p.id, plan::insert(tx, shop, id, &p.name, &document).await?);
    }
    if let Some(plan) = b.chosen_plan.and_then(|p| plans.get(&p)) {
        sqlx::query!("update job set plan_id = $2 where id = $1", id, plan).execute(&mut **tx).await?;
    }
    for d in &b.done {
        let Some(plan) = plans.get(&d.plan_id) else { continue };
        sqlx::query!(
            "insert into done_step (shop_id, plan_id, step, author, record, done_at) values ($1, $2, $3, $4, $5, $6)",
            shop,
            plan,
            d.step.to_string(),
            d.author,
            Json(&d.record) as _,
            d.done_at
        )
        .execute(&mut **tx)
        .await?;
    }
    for t in &b.tyres {
        let tyre = tread::tyre(tx, shop, v, &t.mark, t.new_depth_mm).await?;
        for e in &t.entries {
            tread::write(tx, shop, tyre, e, None, "bundle").await?;
        }
    }
    for n in &b.notes {
        let jpeg = n.jpeg.as_deref().and_then(|t| STANDARD.decode(t).ok());
        let own = Note { id: Uuid::new_v4(), jpeg: None, ..n.clone() };
        note::add(tx, shop, id, &own, jpeg.as_deref()).await?;
    }
    for e in &b.events {
        event::add(tx, shop, id, e).await?;
    }
    job::reach_stage(tx, id, b.stage).await?;
    Ok(id)
}
