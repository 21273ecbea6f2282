//! What an operator does: makes shops, backs up, restores.

use crate::Failure;
use crate::database::{Database, block, owner};
use bold_stance_people::{name_problem, passphrase_problem};
use bold_stance_server::{as_letters, keep, new_slip};
use bold_stance_store::backup::{self, BackupError, Manifest};
use bold_stance_store::{NewShop, Owner};
use std::path::{Path, PathBuf};
use std::time::Duration;

/// Name of the environment's passphrase: what stands on a command line is seen by everybody.
const PASSPHRASE: &str = "BOLD_STANCE_PASSPHRASE";

/// A shop to make.
#[derive(Debug, clap::Args)]
pub struct ShopArgs {
    #[command(flatten)]
    database: Database,
    /// Its name
    #[arg(long)]
    name: String,
    /// Its owner's name on the bench
    #[arg(long, default_value = "Owner")]
    owner: String,
    /// The name they sign in with; one that is known already gets this shop too
    #[arg(long)]
    login: String,
}

/// `shop`.
pub fn shop(a: &ShopArgs) -> Result<(), Failure> {
    let at = |flag: &str, p| {
        let bold_stance_units::problem::Problem { wrong, right, .. } = p;
        let voice = bold_stance_words::english(bold_stance_words::Units::default());
        Failure::Input(format!("{flag}: {}; {}", voice.say(&wrong), voice.say(&right)))
    };
    for (flag, text) in [("--name", &a.name), ("--owner", &a.owner), ("--login", &a.login)] {
        if let Some(p) = name_problem(flag, text) {
            return Err(at(flag, p));
        }
    }
    let phrase = std::env::var(PASSPHRASE).map_err(|_| {
        Failure::Input(format!("{PASSPHRASE}: nothing was told; the owner's passphrase, in the environment"))
    })?;
    if let Some(p) = passphrase_problem(PASSPHRASE, &phrase, &a.login) {
        return Err(at(PASSPHRASE, p));
    }
    block(async {
        let by = owner(&a.database).await?;
        by.migrate().await.map_err(|e| Failure::System(e.to_string()))?;
        let slip = new_slip();
        let fail = |e: bold_stance_server::ApiError| Failure::System(e.to_string());
        let (passphrase, kept) =
            (keep(phrase).await.map_err(fail)?, keep(as_letters(&slip)).await.map_err(fail)?);
        let made = by
            .make_shop(&NewShop {
                name: a.name.trim(),
                owner: a.owner.trim(),
                login: a.login.trim(),
                passphrase: passphrase.as_kept(),
                slip: kept.as_kept(),
            })
            .await
            .map_err(|e| Failure::System(e.to_string()))?;
        let Some(shop) = made else {
            return Err(Failure::Input(format!("--name: a shop is called {} already; another name", a.name)));
        };
        println!(
            "{} is made. Its slip, which brings a lost PIN back once, is shown here only: {slip}",
            shop.name
        );
        Ok(())
    })
}

/// A backup to write.
#[derive(Debug, clap::Args)]
pub struct BackupArgs {
    /// File to write; absent with --dir
    #[arg(required_unless_present = "dir", conflicts_with = "dir")]
    file: Option<PathBuf>,
    #[command(flatten)]
    database: Database,
    /// Folder to write one into, named by its time
    #[arg(long)]
    dir: Option<PathBuf>,
    /// How many stay in the folder
    #[arg(long, default_value_t = 14, value_parser = clap::value_parser!(u16).range(1..))]
    keep: u16,
    /// Go on, one every so many hours
    #[arg(long, requires = "dir", value_parser = clap::value_parser!(u16).range(1..))]
    every_hours: Option<u16>,
}

/// A backup to take back.
#[derive(Debug, clap::Args)]
pub struct RestoreArgs {
    /// File to read
    file: PathBuf,
    #[command(flatten)]
    database: Database,
    /// A database of this name is made for it; else the one of --owner-database-url, which has to be empty
    #[arg(long)]
    into: Option<String>,
    /// Only look whether it is whole
    #[arg(long)]
    check: bool,
}

fn of_file(path: &Path, e: &BackupError) -> Failure {
    let text = format!("{}: {e}", path.display());
    match e {
        BackupError::Damaged(_) | BackupError::Newer { .. } | BackupError::NotEmpty => Failure::Input(text),
        BackupError::File(_) | BackupError::Store(_) => Failure::System(text),
    }
}

fn told(path: &Path, m: &Manifest) {
    println!("{}: {} tables, {} rows, schema {}", path.display(), m.tables.len(), m.rows(), m.migration);
}

/// Writes one into a folder, and lets the oldest go.
pub async fn into_folder(by: &Owner, dir: &Path, keep: u16) -> Result<PathBuf, BackupError> {
    std::fs::create_dir_all(dir)?;
    let name = format!("bold-stance-{}.backup", chrono::Utc::now().format("%Y%m%dT%H%M%SZ"));
    let to = dir.join(name);
    backup::write(by, &to).await?;
    backup::check(&to)?;
    let ours = |p: &PathBuf| {
        let name = p.file_name().and_then(|n| n.to_str()).unwrap_or_default();
        name.starts_with("bold-stance-") && name.ends_with(".backup")
    };
    let mut all: Vec<PathBuf> =
        std::fs::read_dir(dir)?.filter_map(|e| Some(e.ok()?.path())).filter(ours).collect();
    all.sort();
    for old in all.iter().rev().skip(usize::from(keep)) {
        std::fs::remove_file(old)?;
    }
    Ok(to)
}

/// `backup`.
pub fn backup(a: &BackupArgs) -> Result<(), Failure> {
    block(async {
        let by = owner(&a.database).await?;
        if let Some(file) = &a.file {
            let m = backup::write(&by, file).await.map_err(|e| of_file(file, &e))?;
            told(file, &m);
            return Ok(());
        }
        let Some(dir) = &a.dir else { return Ok(()) };
        loop {
            let made = into_folder(&by, dir, a.keep).await;
            match (made, a.every_hours) {
                (Ok(to), _) => println!("{}", to.display()),
                (Err(e), None) => return Err(of_file(dir, &e)),
                // One that did not go is told; the next is tried.
                (Err(e), Some(_)) => eprintln!("{}: {e}", dir.display()),
            }
            let Some(hours) = a.every_hours else { return Ok(()) };
            tokio::time::sleep(Duration::from_secs(u64::from(hours) * 3600)).await;
        }
    })
}

/// `restore`.
pub fn restore(a: &RestoreArgs) -> Result<(), Failure> {
    block(async {
        if a.check {
            let m = backup::check(&a.file).map_err(|e| of_file(&a.file, &e))?;
            told(&a.file, &m);
            return Ok(());
        }
        // A file that is none makes no database.
        backup::check(&a.file).map_err(|e| of_file(&a.file, &e))?;
        let mut by = owner(&a.database).await?;
        if let Some(name) = &a.into {
            by = backup::new_database(&by, name)
                .await
                .map_err(|e| Failure::System(format!("--into: {e}; a name no database has")))?;
        }
        let m = backup::restore(&by, &a.file).await.map_err(|e| of_file(&a.file, &e))?;
        told(&a.file, &m);
        Ok(())
    })
}
