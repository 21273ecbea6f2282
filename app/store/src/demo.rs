//! The demo shop: invented vehicles and readings from `data/demo`.

use crate::job::{NewJob, Stage};
use crate::shop::Shop;
use crate::{
    Owner, Result, Seat, Store, StoreError, event, job, people, plan, reading, tread, vehicle, visit,
};
use bold_stance_kinematics::geometry::Geometry;
use bold_stance_people::Role;
use bold_stance_trade::job::{Reading, VehicleFacts};
use bold_stance_trade::plan::CarPlan;
use bold_stance_trade::reading::{Answers, Jack, Method, Quantity, RawEntry, ReadAxle, ReadSide, Visit};
use bold_stance_tread::LoggedTyre;
use bold_stance_units::LengthUnit;
use bold_stance_units::problem::parse_json;
use chrono::{Duration, Utc};
use serde::Deserialize;
use uuid::Uuid;

const DEMO: &str = include_str!("../../../data/demo/shop.json");

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DemoShop {
    name: String,
    members: Vec<DemoMember>,
    jobs: Vec<DemoJob>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DemoMember {
    name: String,
    role: Role,
    mark: i32,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DemoJob {
    vehicle: VehicleFacts,
    job: NewJob,
    stage: Stage,
    #[serde(default)]
    prepare: Answers,
    readings: Vec<DemoReading>,
    plans: Vec<DemoPlan>,
    #[serde(default)]
    tread: Vec<LoggedTyre>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DemoReading {
    quantity: Quantity,
    #[serde(default)]
    axle: ReadAxle,
    side: ReadSide,
    value: f64,
    text: String,
    sigma: f64,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DemoPlan {
    name: String,
    document: CarPlan,
}

/// Front and rear axle of the demo shop's first vehicle, for the simulated gauge to stand on.
///
/// # Errors
/// [`StoreError::Demo`] when the shipped file is wrong.
pub fn first_axles() -> Result<(Geometry, Option<Geometry>)> {
    let demo: DemoShop = parse_json(DEMO.as_bytes()).map_err(|p| StoreError::Demo(p.to_string()))?;
    let first = demo.jobs.into_iter().next().ok_or_else(|| StoreError::Demo("no job".into()))?;
    let axles = first.vehicle.axles;
    let front = axles.front.geometry.ok_or_else(|| StoreError::Demo("no front axle".into()))?;
    Ok((front, axles.rear.geometry))
}

/// Loads the demo shop when it is not there; `reset` makes it anew. A demo shop that somebody made their own stays as it is.
///
/// # Errors
/// Database errors; [`StoreError::Demo`] when the shipped file is wrong.
pub async fn load(owner: &Owner, store: &Store, reset: bool) -> Result<Shop> {
    let demo: DemoShop = parse_json(DEMO.as_bytes()).map_err(|p| StoreError::Demo(p.to_string()))?;
    if let (false, Some(first)) = (reset, crate::shop::door(store, None).await?)
        && first.locked
    {
        return Ok(first.shop);
    }
    let mut shop = owner.ensure_shop(&demo.name).await?;
    if reset {
        owner.remove_shop(shop.id).await?;
        shop = owner.ensure_shop(&demo.name).await?;
    }
    for m in &demo.members {
        owner.ensure_member(shop.id, &m.name, m.role.key(), m.mark).await?;
    }
    // Who is told of in the data is who did it.
    let mut tx = store.tx(shop.id).await?;
    let does = people::members(&mut tx).await?.into_iter().find(|m| m.role == Role::Specialist);
    drop(tx);
    let author = does.as_ref().map_or_else(|| "Specialist".to_owned(), |m| m.name.clone());
    let mut tx = store.sit(&Seat::Open { shop: shop.id, member: does.map(|m| m.id) }).await?;
    if !job::list(&mut tx, job::Asked::default(), 1).await?.is_empty() {
        return Ok(shop);
    }
    for d in demo.jobs {
        let v = vehicle::insert(&mut tx, shop.id, &d.vehicle).await?;
        let j = job::insert(&mut tx, shop.id, v, &d.job).await?;
        let count = d.readings.len() as i64;
        for (i, r) in (0..).zip(d.readings) {
            let (method, entry) = match r.quantity {
                Quantity::Height => (Method::HeightHub, "value"),
                Quantity::Camber => (Method::CamberGauge, "angle"),
                Quantity::Caster => (Method::CasterJointLine, "angle"),
                _ => (Method::ToeConvert, "value"),
            };
            // The demo shop zeroes its gauge on the floor the car stands on: the figure is what was typed.
            let mut raw = vec![RawEntry::new(entry, &r.text)];
            if method == Method::CamberGauge {
                raw.push(RawEntry::new("zeroed-on-floor", "true"));
            }
            let height_mm = (r.quantity == Quantity::Height).then_some(r.value);
            let new = Reading {
                id: Uuid::new_v4(),
                visit: Visit::Found,
                quantity: r.quantity,
                axle: r.axle,
                side: r.side,
                method,
                raw,
                unit: LengthUnit::Mm,
                value: r.value,
                sigma: r.sigma,
                corrections: Vec::new(),
                also: Vec::new(),
                doubt: Vec::new(),
                notes: Vec::new(),
                jack: Jack::Rolled,
                jacked_height: String::new(),
                height_mm,
                author: author.clone(),
                replaces: None,
                // Three minutes a reading, the last one a quarter of an hour ago.
                taken_at: Utc::now() - Duration::minutes(15 + 3 * (count - i)),
            };
            reading::add(&mut tx, shop.id, j, &new).await?;
        }
        if count > 0 {
            visit::open(&mut tx, shop.id, j, Visit::Found, &author).await?;
            visit::save(&mut tx, j, Visit::Found, 1, &d.prepare).await?;
        }
        for p in d.plans {
            plan::insert(&mut tx, shop.id, j, &p.name, &p.document).await?;
        }
        for t in d.tread {
            let id = tread::tyre(&mut tx, shop.id, v, &t.mark, t.new_depth_mm).await?;
            for e in t.entries {
                tread::write(&mut tx, shop.id, id, &e, None, &author).await?;
            }
        }
        job::reach_stage(&mut tx, j, d.stage).await?;
        event::record(&mut tx, shop.id, Some(j), "Bold Stance", "demo loaded", serde_json::json!({})).await?;
    }
    tx.commit().await?;
    Ok(shop)
}
