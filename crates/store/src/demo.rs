//! The demo shop: invented vehicles and readings from `data/demo`.

use crate::job::{NewJob, Stage};
use crate::plan::PlanDocument;
use crate::reading::{Method, NewReading, Quantity, RawEntry, Side, Visit};
use crate::shop::Shop;
use crate::vehicle::VehicleFacts;
use crate::{Result, Store, StoreError, event, job, plan, reading, shop, vehicle};
use bold_stance_core::problem::parse_json;
use serde::Deserialize;
use uuid::Uuid;

const DEMO: &str = include_str!("../../../data/demo/shop.json");

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DemoShop {
    name: String,
    jobs: Vec<DemoJob>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DemoJob {
    vehicle: VehicleFacts,
    job: NewJob,
    stage: Stage,
    readings: Vec<DemoReading>,
    plans: Vec<DemoPlan>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DemoReading {
    quantity: Quantity,
    side: Side,
    value: f64,
    text: String,
    sigma: f64,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DemoPlan {
    name: String,
    document: PlanDocument,
}

/// Loads the demo shop when it is not there; `reset` makes it anew.
///
/// # Errors
/// Database errors; [`StoreError::Demo`] when the shipped file is wrong.
pub async fn load(store: &Store, reset: bool) -> Result<Shop> {
    let demo: DemoShop = parse_json(DEMO.as_bytes()).map_err(|p| StoreError::Demo(p.to_string()))?;
    let mut shop = shop::ensure(store, &demo.name).await?;
    if reset {
        shop::remove(store, shop.id).await?;
        shop = shop::ensure(store, &demo.name).await?;
    }
    let mut tx = store.tx(shop.id).await?;
    if !job::list(&mut tx, 0, 1).await?.is_empty() {
        return Ok(shop);
    }
    for d in demo.jobs {
        let v = vehicle::insert(&mut tx, shop.id, &d.vehicle).await?;
        let j = job::insert(&mut tx, shop.id, v, &d.job).await?;
        for r in d.readings {
            let unit = if r.quantity == Quantity::Height { "mm" } else { "deg" };
            let new = NewReading {
                id: Uuid::new_v4(),
                visit: Visit::Found,
                quantity: r.quantity,
                side: r.side,
                method: Method::Direct,
                raw: vec![RawEntry { name: "value".into(), text: r.text }],
                unit: unit.into(),
                value: r.value,
                sigma: r.sigma,
                author: "Specialist".into(),
            };
            reading::add(&mut tx, shop.id, j, &new).await?;
        }
        for p in d.plans {
            plan::insert(&mut tx, shop.id, j, &p.name, &p.document).await?;
        }
        job::reach_stage(&mut tx, j, d.stage).await?;
        event::record(&mut tx, shop.id, Some(j), "Bold Stance", "demo loaded", serde_json::json!({})).await?;
    }
    tx.commit().await?;
    Ok(shop)
}
