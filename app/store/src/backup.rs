//! The whole database as one file, while it is in use, and back: every table as PostgreSQL's own text, counted and hashed,
//! with the schema it is of. What is of a sitting (sessions, codes) is not in it.

use crate::{Owner, Result, StoreError, newest_migration};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use sqlx::{Connection, PgConnection};
use std::collections::BTreeMap;
use std::fs::File;
use std::io::{Read, Seek, Write};
use std::path::Path;
use tokio_stream::StreamExt;
use zip::write::SimpleFileOptions;
use zip::{CompressionMethod, ZipArchive, ZipWriter};

/// Form of the file.
pub const FORMAT: &str = "bold-stance.backup/1";
/// Name of what tells about the rest.
const MANIFEST: &str = "manifest.json";
/// What belongs to a sitting or comes with the schema.
const LEFT_OUT: [&str; 6] =
    ["_sqlx_migrations", "role_act", "web_session", "seat_session", "enrolment", "slip_try"];
/// Most that is taken of a file at once, bytes.
const CHUNK: usize = 64 * 1024;

/// A table in the file.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct TableKept {
    /// Its columns, in their order in the file.
    pub columns: Vec<String>,
    /// Rows.
    pub rows: u64,
    /// SHA-256 of its text, hexadecimal.
    pub sha256: String,
}

/// What the file says of itself.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Manifest {
    /// [`FORMAT`].
    pub format: String,
    /// Version of the program that wrote it.
    pub written_by: String,
    /// When, UTC.
    pub at: DateTime<Utc>,
    /// Newest migration of the schema it is of.
    pub migration: i64,
    /// Every table by its name.
    pub tables: BTreeMap<String, TableKept>,
}

impl Manifest {
    /// Rows of all tables.
    #[must_use]
    pub fn rows(&self) -> u64 {
        self.tables.values().map(|t| t.rows).sum()
    }
}

/// Why a file was not written, or not taken.
#[derive(Debug, thiserror::Error)]
pub enum BackupError {
    /// The file or its folder.
    #[error("{0}")]
    File(#[from] std::io::Error),
    /// It is none of ours, cut off, or something in it was changed.
    #[error("damaged: {0}")]
    Damaged(String),
    /// It was written by a newer program.
    #[error(
        "it is of schema {found}, this program knows {known}: restore it with the program that wrote it or a newer one"
    )]
    Newer {
        /// Schema of the file.
        found: i64,
        /// Newest this program knows.
        known: i64,
    },
    /// The database has something in it.
    #[error("the database is not empty: a new one, by --into NAME, or an empty one")]
    NotEmpty,
    /// The database.
    #[error("{0}")]
    Store(#[from] StoreError),
}

impl From<sqlx::Error> for BackupError {
    fn from(e: sqlx::Error) -> Self {
        Self::Store(e.into())
    }
}

impl From<zip::result::ZipError> for BackupError {
    fn from(e: zip::result::ZipError) -> Self {
        match e {
            zip::result::ZipError::Io(e) => Self::File(e),
            other => Self::Damaged(other.to_string()),
        }
    }
}

type Done<T> = std::result::Result<T, BackupError>;

fn hex(bytes: &[u8]) -> String {
    bytes.iter().map(|b| format!("{b:02x}")).collect()
}

/// A name of a table or column in SQL.
fn quoted(name: &str) -> String {
    format!("\"{}\"", name.replace('"', "\"\""))
}

fn list(columns: &[String]) -> String {
    columns.iter().map(|c| quoted(c)).collect::<Vec<_>>().join(", ")
}

/// Tables with what is kept of them: no column that the database makes by itself.
async fn tables(c: &mut PgConnection) -> Done<BTreeMap<String, Vec<String>>> {
    let rows: Vec<(String, String)> = sqlx::query_as(
        "select c.table_name::text, c.column_name::text from information_schema.columns c
         join information_schema.tables t on t.table_schema = c.table_schema and t.table_name = c.table_name
         where c.table_schema = 'public' and t.table_type = 'BASE TABLE' and c.is_generated = 'NEVER'
         order by c.table_name, c.ordinal_position",
    )
    .fetch_all(&mut *c)
    .await?;
    let mut out: BTreeMap<String, Vec<String>> = BTreeMap::new();
    for (table, column) in rows {
        if !LEFT_OUT.contains(&table.as_str()) {
            out.entry(table).or_default().push(column);
        }
    }
    Ok(out)
}

async fn run(c: &mut PgConnection, sql: String) -> Done<()> {
    sqlx::raw_sql(sqlx::AssertSqlSafe(sql)).execute(c).await?;
    Ok(())
}

/// Writes the database into `to` as it is at one moment; whoever works in it goes on. The file is there whole or not at all.
///
/// # Errors
/// [`BackupError`].
pub async fn write(owner: &Owner, to: &Path) -> Done<Manifest> {
    let beside = to.with_extension("part");
    let made = write_beside(owner, &beside).await;
    match made {
        Ok(m) => {
            std::fs::rename(&beside, to)?;
            Ok(m)
        }
        Err(e) => {
            // What is half is no backup; that it cannot be removed either says nothing new.
            let _ = std::fs::remove_file(&beside);
            Err(e)
        }
    }
}

async fn write_beside(owner: &Owner, to: &Path) -> Done<Manifest> {
    let mut c = owner.pool().acquire().await?;
    run(&mut c, "begin isolation level repeatable read read only".into()).await?;
    let migration: i64 =
        sqlx::query_scalar("select coalesce(max(version), 0) from _sqlx_migrations where success")
            .fetch_one(&mut *c)
            .await?;
    let mut zip = ZipWriter::new(File::create(to)?);
    let packed =
        SimpleFileOptions::default().compression_method(CompressionMethod::Deflated).large_file(true);
    let mut kept = BTreeMap::new();
    for (table, columns) in tables(&mut c).await? {
        zip.start_file(format!("{table}.copy"), packed)?;
        let sql = format!("copy (select {} from {} order by 1) to stdout", list(&columns), quoted(&table));
        let mut hash = Sha256::new();
        let mut rows = 0;
        {
            let mut text = c.copy_out_raw(&sql).await?;
            while let Some(part) = text.next().await {
                let part = part?;
                // A line end within a value is written out as two characters.
                rows += part.iter().filter(|b| **b == b'\n').count() as u64;
                hash.update(&part);
                zip.write_all(&part)?;
            }
        }
        kept.insert(table, TableKept { columns, rows, sha256: hex(&hash.finalize()) });
    }
    run(&mut c, "commit".into()).await?;
    let manifest = Manifest {
        format: FORMAT.into(),
        written_by: env!("CARGO_PKG_VERSION").into(),
        at: Utc::now(),
        migration,
        tables: kept,
    };
    zip.start_file(MANIFEST, packed)?;
    let text = serde_json::to_vec_pretty(&manifest).map_err(|e| BackupError::Damaged(e.to_string()))?;
    zip.write_all(&text)?;
    zip.finish()?.sync_all()?;
    Ok(manifest)
}

/// Reads a file through: what it says of itself, every count and every hash.
///
/// # Errors
/// [`BackupError::Damaged`], [`BackupError::Newer`].
pub fn check(from: &Path) -> Done<Manifest> {
    let mut zip = ZipArchive::new(File::open(from)?)?;
    let manifest = manifest_of(&mut zip)?;
    for (table, kept) in &manifest.tables {
        let mut entry = zip.by_name(&format!("{table}.copy"))?;
        let (mut hash, mut rows, mut part) = (Sha256::new(), 0, vec![0; CHUNK]);
        loop {
            let n = entry.read(&mut part).map_err(|e| BackupError::Damaged(format!("{table}: {e}")))?;
            if n == 0 {
                break;
            }
            rows += part[..n].iter().filter(|b| **b == b'\n').count() as u64;
            hash.update(&part[..n]);
        }
        if rows != kept.rows {
            return Err(BackupError::Damaged(format!("{table}: {rows} rows, {} were written", kept.rows)));
        }
        if hex(&hash.finalize()) != kept.sha256 {
            return Err(BackupError::Damaged(format!("{table}: not what was written")));
        }
    }
    Ok(manifest)
}

fn manifest_of(zip: &mut ZipArchive<impl Read + Seek>) -> Done<Manifest> {
    let mut text = String::new();
    let mut entry =
        zip.by_name(MANIFEST).map_err(|_| BackupError::Damaged(format!("no {MANIFEST} in it")))?;
    entry.read_to_string(&mut text).map_err(|e| BackupError::Damaged(e.to_string()))?;
    let m: Manifest = serde_json::from_str(&text).map_err(|e| BackupError::Damaged(e.to_string()))?;
    if m.format != FORMAT {
        return Err(BackupError::Damaged(format!("it is of the form {}, not {FORMAT}", m.format)));
    }
    let known = newest_migration();
    if m.migration > known {
        return Err(BackupError::Newer { found: m.migration, known });
    }
    Ok(m)
}

/// Restores a file into an empty database, at the schema the file is of, and brings that up to date. All of it or nothing.
///
/// # Errors
/// [`BackupError`]; nothing is changed by a file that is damaged or newer, or where the database has something in it.
pub async fn restore(owner: &Owner, from: &Path) -> Done<Manifest> {
    let manifest = check(from)?;
    let there: i64 = sqlx::query_scalar("select count(*) from pg_tables where schemaname = 'public'")
        .fetch_one(owner.pool())
        .await?;
    if there > 0 {
        return Err(BackupError::NotEmpty);
    }
    let mut of_then = sqlx::migrate!();
    of_then.migrations = of_then
        .migrations
        .iter()
        .filter(|m| m.version <= manifest.migration)
        .cloned()
        .collect::<Vec<_>>()
        .into();
    of_then.run(owner.pool()).await.map_err(StoreError::from)?;
    let mut c = owner.pool().acquire().await?;
    let mut tx = c.begin().await?;
    load(&mut tx, &manifest, from).await?;
    tx.commit().await?;
    drop(c);
    owner.migrate().await?;
    Ok(manifest)
}

async fn load(c: &mut PgConnection, manifest: &Manifest, from: &Path) -> Done<()> {
    let here = tables(c).await?;
    if let Some(gone) = manifest.tables.keys().find(|t| !here.contains_key(*t)) {
        return Err(BackupError::Damaged(format!("{gone}: no table of that schema")));
    }
    let links: Vec<(String, String)> = sqlx::query_as(
        "select conrelid::regclass::text, conname::text from pg_constraint
         where contype = 'f' and connamespace = 'public'::regnamespace",
    )
    .fetch_all(&mut *c)
    .await?;
    // Rows point at each other in circles, and what was signed then is not signed anew.
    for (table, link) in &links {
        run(
            c,
            format!("alter table {table} alter constraint {} deferrable initially deferred", quoted(link)),
        )
        .await?;
    }
    for table in here.keys() {
        run(c, format!("alter table {} disable trigger user", quoted(table))).await?;
        run(c, format!("delete from {}", quoted(table))).await?;
    }
    let mut zip = ZipArchive::new(File::open(from)?)?;
    for (table, kept) in &manifest.tables {
        let mut entry = zip.by_name(&format!("{table}.copy"))?;
        let sql = format!("copy {} ({}) from stdin", quoted(table), list(&kept.columns));
        let mut into = c.copy_in_raw(&sql).await?;
        let mut part = vec![0; CHUNK];
        loop {
            let n = entry.read(&mut part)?;
            if n == 0 {
                break;
            }
            into.send(&part[..n]).await?;
        }
        let rows = into.finish().await?;
        if rows != kept.rows {
            return Err(BackupError::Damaged(format!(
                "{table}: {rows} rows came in, {} were written",
                kept.rows
            )));
        }
    }
    run(c, "set constraints all immediate".into()).await?;
    for table in here.keys() {
        run(c, format!("alter table {} enable trigger user", quoted(table))).await?;
    }
    for (table, link) in &links {
        run(c, format!("alter table {table} alter constraint {} not deferrable", quoted(link))).await?;
    }
    // Numbers go on behind the last one.
    let counted: Vec<(String, String)> = sqlx::query_as(
        "select table_name::text, column_name::text from information_schema.columns
         where table_schema = 'public' and is_identity = 'YES'",
    )
    .fetch_all(&mut *c)
    .await?;
    for (table, column) in counted {
        let (t, n) = (quoted(&table), quoted(&column));
        run(
            c,
            format!(
                "select setval(pg_get_serial_sequence('public.{t}', '{column}'), (select coalesce(max({n}), 0) + 1 from {t}), false)"
            ),
        )
        .await?;
    }
    Ok(())
}

/// Counts and hashes of every table as they are in a database now, by the same text a file has: two databases with the same
/// rows have the same.
///
/// # Errors
/// [`BackupError`].
pub async fn fingerprint(owner: &Owner) -> Done<BTreeMap<String, (u64, String)>> {
    let mut c = owner.pool().acquire().await?;
    let mut out = BTreeMap::new();
    for (table, columns) in tables(&mut c).await? {
        let sql = format!("copy (select {} from {} order by 1) to stdout", list(&columns), quoted(&table));
        let (mut hash, mut rows) = (Sha256::new(), 0);
        let mut text = c.copy_out_raw(&sql).await?;
        while let Some(part) = text.next().await {
            let part = part?;
            rows += part.iter().filter(|b| **b == b'\n').count() as u64;
            hash.update(&part);
        }
        drop(text);
        out.insert(table, (rows, hex(&hash.finalize())));
    }
    Ok(out)
}

/// Makes a database of that name on the same server and answers its owner.
///
/// # Errors
/// Database errors, such as a role that may make none, or a name that is taken.
pub async fn new_database(owner: &Owner, name: &str) -> Result<Owner> {
    sqlx::raw_sql(sqlx::AssertSqlSafe(format!("create database {}", quoted(name))))
        .execute(owner.pool())
        .await?;
    owner.on_database(name).await
}
