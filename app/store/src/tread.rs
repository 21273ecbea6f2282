//! Tyres of a vehicle and their logs. Lines are never overwritten.

use crate::word::Word;
use crate::{Result, StoreError, Tx};
use bold_stance_tread::{LogEntry, LoggedTyre, TyrePlace};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// A line of a log as stored.
#[derive(Debug, Clone, Serialize, Deserialize, utoipa::ToSchema)]
pub struct StoredLine {
    /// Its id.
    pub id: Uuid,
    /// What it says.
    pub entry: LogEntry,
    /// Who wrote it.
    pub author: String,
    /// When, UTC.
    pub written_at: DateTime<Utc>,
}

/// A tyre as stored, with the lines that stand.
#[derive(Debug, Clone, Serialize, Deserialize, utoipa::ToSchema)]
pub struct StoredTyre {
    /// Its id.
    pub id: Uuid,
    /// Serial or chalk mark.
    pub mark: String,
    /// Depth when new, mm.
    pub new_depth_mm: Option<f64>,
    /// Lines in the order they were written; a correction stands where the line it replaces stood.
    pub lines: Vec<StoredLine>,
}

impl StoredTyre {
    /// As the core reads it.
    #[must_use]
    pub fn logged(&self) -> LoggedTyre {
        LoggedTyre {
            mark: self.mark.clone(),
            new_depth_mm: self.new_depth_mm,
            entries: self.lines.iter().map(|l| l.entry.clone()).collect(),
        }
    }
}

/// Every tyre of a vehicle with the lines that stand, in the order they came.
///
/// # Errors
/// Database errors.
pub async fn of_vehicle(tx: &mut Tx, vehicle: Uuid) -> Result<Vec<StoredTyre>> {
    let tyres = sqlx::query!(
        "select id, mark, new_depth_mm from tyre where vehicle_id = $1 order by created_at, id",
        vehicle
    )
    .fetch_all(&mut **tx)
    .await?;
    let rows = sqlx::query!(
        r#"select l.id, l.tyre_id, l.odometer_km, l.place as "place: Word<TyrePlace>", l.flipped, l.inner_mm, l.centre_mm, l.outer_mm, l.day,
             l.note, l.struck, l.replaces, l.author, l.written_at
         from tread_line l join tyre t on t.id = l.tyre_id where t.vehicle_id = $1 order by l.n"#,
        vehicle
    )
    .fetch_all(&mut **tx)
    .await?;
    let mut out: Vec<StoredTyre> = tyres
        .into_iter()
        .map(|t| StoredTyre { id: t.id, mark: t.mark, new_depth_mm: t.new_depth_mm, lines: Vec::new() })
        .collect();
    for r in rows {
        let Some(t) = out.iter_mut().find(|t| t.id == r.tyre_id) else { continue };
        let place = r.place.map(|p| p.0);
        let depths_mm = match (r.inner_mm, r.centre_mm, r.outer_mm) {
            (Some(a), Some(b), Some(c)) => Some([a, b, c]),
            _ => None,
        };
        let line = StoredLine {
            id: r.id,
            entry: LogEntry {
                odometer_km: r.odometer_km,
                place,
                flipped: r.flipped,
                depths_mm,
                day: r.day,
                note: r.note,
            },
            author: r.author,
            written_at: r.written_at,
        };
        match (r.replaces.and_then(|x| t.lines.iter().position(|l| l.id == x)), r.struck) {
            (Some(i), true) => {
                t.lines.remove(i);
            }
            (Some(i), false) => t.lines[i] = line,
            (None, true) => {}
            (None, false) => t.lines.push(line),
        }
    }
    Ok(out)
}

/// The tyre of a mark on a vehicle, made when it is not there; a depth told later fills one that was left open.
///
/// # Errors
/// Database errors.
pub async fn tyre(
    tx: &mut Tx,
    shop: Uuid,
    vehicle: Uuid,
    mark: &str,
    new_depth_mm: Option<f64>,
) -> Result<Uuid> {
    Ok(sqlx::query_scalar!(
        "insert into tyre (id, shop_id, vehicle_id, mark, new_depth_mm) values ($1, $2, $3, $4, $5)
         on conflict (vehicle_id, mark) do update set new_depth_mm = coalesce(tyre.new_depth_mm, excluded.new_depth_mm)
         returning id",
        Uuid::new_v4(),
        shop,
        vehicle,
        mark,
        new_depth_mm
    )
    .fetch_one(&mut **tx)
    .await?)
}

/// Writes a line, in the place of another one or at the end.
///
/// # Errors
/// [`StoreError::Missing`] when the line to replace is not one of this tyre.
pub async fn write(
    tx: &mut Tx,
    shop: Uuid,
    tyre: Uuid,
    e: &LogEntry,
    replaces: Option<Uuid>,
    author: &str,
) -> Result<Uuid> {
    if let Some(id) = replaces {
        must_stand(tx, tyre, id).await?;
    }
    let id = Uuid::new_v4();
    let depth = |i: usize| e.depths_mm.map(|d| d[i]);
    sqlx::query!(
        "insert into tread_line (id, shop_id, tyre_id, odometer_km, place, flipped, inner_mm, centre_mm, outer_mm,
             day, note, replaces, author)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)",
        id,
        shop,
        tyre,
        e.odometer_km,
        e.place.map(Word) as _,
        e.flipped,
        depth(0),
        depth(1),
        depth(2),
        e.day,
        e.note,
        replaces,
        author
    )
    .execute(&mut **tx)
    .await?;
    Ok(id)
}

/// Strikes a line out; it stays in the table.
///
/// # Errors
/// [`StoreError::Missing`] when there is no such line.
pub async fn strike(tx: &mut Tx, shop: Uuid, vehicle: Uuid, line: Uuid, author: &str) -> Result<()> {
    let r = sqlx::query!(
        "select l.tyre_id, l.odometer_km from tread_line l join tyre t on t.id = l.tyre_id
         where l.id = $1 and t.vehicle_id = $2",
        line,
        vehicle
    )
    .fetch_optional(&mut **tx)
    .await?
    .ok_or(StoreError::Missing { what: "line", id: line })?;
    must_stand(tx, r.tyre_id, line).await?;
    sqlx::query!(
        "insert into tread_line (id, shop_id, tyre_id, odometer_km, struck, replaces, author)
         values ($1, $2, $3, $4, true, $5, $6)",
        Uuid::new_v4(),
        shop,
        r.tyre_id,
        r.odometer_km,
        line,
        author
    )
    .execute(&mut **tx)
    .await?;
    Ok(())
}

/// A line that was not replaced yet. The tyre is locked, so that two corrections of one line cannot cross.
async fn must_stand(tx: &mut Tx, tyre: Uuid, line: Uuid) -> Result<()> {
    sqlx::query!("select id from tyre where id = $1 for update", tyre).fetch_optional(&mut **tx).await?;
    let stands = sqlx::query_scalar!(
        r#"select exists (select 1 from tread_line where id = $1 and tyre_id = $2)
             and not exists (select 1 from tread_line where replaces = $1) as "stands!""#,
        line,
        tyre
    )
    .fetch_one(&mut **tx)
    .await?;
    if stands { Ok(()) } else { Err(StoreError::Missing { what: "line", id: line }) }
}
