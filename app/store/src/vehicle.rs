//! Vehicles: their facts as rows.

use crate::{Result, StoreError, Tx};
use bold_stance_car::adjuster::Adjuster;
use bold_stance_car::vehicle::CarFacts;
use bold_stance_kinematics::geometry::Geometry;
use bold_stance_trade::job::VehicleFacts;
use serde::{Deserialize, Serialize};
use sqlx::types::Json;
use uuid::Uuid;

/// A stored vehicle.
#[derive(Debug, Clone, Serialize, Deserialize, utoipa::ToSchema)]
pub struct Vehicle {
    /// Its id.
    pub id: Uuid,
    /// Goes up with every save.
    pub version: i32,
    /// What is told of it.
    pub facts: VehicleFacts,
}

/// The snake-case word of a plain enum.
pub(crate) fn word<T: Serialize>(v: &T) -> Result<String> {
    match serde_json::to_value(v) {
        Ok(serde_json::Value::String(s)) => Ok(s),
        _ => Err(StoreError::Database(sqlx::Error::Protocol("not a word".into()))),
    }
}

/// The plain enum of a snake-case word.
pub(crate) fn from_word<T: for<'a> Deserialize<'a>>(s: String) -> Result<T> {
    serde_json::from_value(serde_json::Value::String(s))
        .map_err(|e| StoreError::Database(sqlx::Error::Decode(Box::new(e))))
}

/// Stores a new vehicle.
///
/// # Errors
/// Database errors.
pub async fn insert(tx: &mut Tx, shop: Uuid, f: &VehicleFacts) -> Result<Uuid> {
    let id = Uuid::new_v4();
    sqlx::query!(
        "insert into vehicle (id, shop_id, name, silhouette, wheelbase_mm, track_front_mm, track_rear_mm,
             tyre_size, tyre_class, tread_depth_mm, drive, use_mix, front_load_n, pressure_kpa, placard_kpa,
             design_height_mm, rear_height_mm, knowledge, geometry, adjusters, rear_geometry, rear_knowledge, car)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20,
             $21, $22, $23)",
        id,
        shop,
        f.name,
        word(&f.silhouette)?,
        f.wheelbase_mm,
        f.track_front_mm,
        f.track_rear_mm,
        f.tyre_size,
        word(&f.tyre_class)?,
        f.tread_depth_mm,
        word(&f.drive)?,
        word(&f.use_)?,
        f.front_load_n,
        f.pressure_kpa,
        f.placard_kpa,
        f.design_height_mm,
        f.rear_height_mm,
        word(&f.knowledge)?,
        Json(&f.geometry) as _,
        Json(&f.adjusters) as _,
        f.rear_geometry.as_ref().map(Json) as _,
        word(&f.rear_knowledge)?,
        Json(&f.car) as _,
    )
    .execute(&mut **tx)
    .await?;
    Ok(id)
}

/// One vehicle.
///
/// # Errors
/// [`StoreError::Missing`] when it is not this shop's.
pub async fn get(tx: &mut Tx, id: Uuid) -> Result<Vehicle> {
    let r = sqlx::query!(
        r#"select id, version, name, silhouette, wheelbase_mm, track_front_mm, track_rear_mm, tyre_size, tyre_class,
             tread_depth_mm, drive, use_mix, front_load_n, pressure_kpa, placard_kpa, design_height_mm,
             rear_height_mm, knowledge, geometry as "geometry: Json<Geometry>",
             adjusters as "adjusters: Json<Vec<Adjuster>>", rear_geometry as "rear_geometry: Json<Geometry>",
             rear_knowledge, car as "car: Json<CarFacts>"
           from vehicle where id = $1"#,
        id
    )
    .fetch_optional(&mut **tx)
    .await?
    .ok_or(StoreError::Missing { what: "vehicle", id })?;
    Ok(Vehicle {
        id: r.id,
        version: r.version,
        facts: VehicleFacts {
            name: r.name,
            silhouette: from_word(r.silhouette)?,
            wheelbase_mm: r.wheelbase_mm,
            track_front_mm: r.track_front_mm,
            track_rear_mm: r.track_rear_mm,
            tyre_size: r.tyre_size,
            tyre_class: from_word(r.tyre_class)?,
            tread_depth_mm: r.tread_depth_mm,
            drive: from_word(r.drive)?,
            use_: from_word(r.use_mix)?,
            front_load_n: r.front_load_n,
            pressure_kpa: r.pressure_kpa,
            placard_kpa: r.placard_kpa,
            design_height_mm: r.design_height_mm,
            rear_height_mm: r.rear_height_mm,
            knowledge: from_word(r.knowledge)?,
            geometry: r.geometry.0,
            adjusters: r.adjusters.0,
            rear_geometry: r.rear_geometry.map(|g| g.0),
            rear_knowledge: from_word(r.rear_knowledge)?,
            car: r.car.0,
        },
    })
}

/// Saves facts over version `yours`; answers the new version.
///
/// # Errors
/// [`StoreError::Stale`] when somebody saved first.
pub async fn update(tx: &mut Tx, id: Uuid, yours: i32, f: &VehicleFacts) -> Result<i32> {
    let now = sqlx::query_scalar!("select version from vehicle where id = $1 for update", id)
        .fetch_optional(&mut **tx)
        .await?
        .ok_or(StoreError::Missing { what: "vehicle", id })?;
    if now != yours {
        return Err(StoreError::Stale { what: "vehicle", yours, now });
    }
    sqlx::query!(
        "update vehicle set version = version + 1, name = $2, silhouette = $3, wheelbase_mm = $4,
             track_front_mm = $5, track_rear_mm = $6, tyre_size = $7, tyre_class = $8, tread_depth_mm = $9,
             drive = $10, use_mix = $11, front_load_n = $12, pressure_kpa = $13, placard_kpa = $14,
             design_height_mm = $15, rear_height_mm = $16, knowledge = $17, geometry = $18, adjusters = $19,
             rear_geometry = $20, rear_knowledge = $21, car = $22
         where id = $1",
        id,
        f.name,
        word(&f.silhouette)?,
        f.wheelbase_mm,
        f.track_front_mm,
        f.track_rear_mm,
        f.tyre_size,
        word(&f.tyre_class)?,
        f.tread_depth_mm,
        word(&f.drive)?,
        word(&f.use_)?,
        f.front_load_n,
        f.pressure_kpa,
        f.placard_kpa,
        f.design_height_mm,
        f.rear_height_mm,
        word(&f.knowledge)?,
        Json(&f.geometry) as _,
        Json(&f.adjusters) as _,
        f.rear_geometry.as_ref().map(Json) as _,
        word(&f.rear_knowledge)?,
        Json(&f.car) as _,
    )
    .execute(&mut **tx)
    .await?;
    Ok(yours + 1)
}
