//! `bold-stance`: the server, and the core without a screen.
//!
//! Exit 0 done, 2 bad input (one line: field, what is wrong, what would be right), 3 no answer.

mod database;
mod gauge;
mod headless;
mod memory;
mod operate;
mod read;
mod schema;
mod serve;

use bold_stance_words::said_of;
use clap::{Parser, Subcommand};
use std::path::PathBuf;
use std::process::ExitCode;

#[derive(Parser)]
#[command(
    name = "bold-stance",
    version,
    about = "Plan ride height, caster and camber; select parts; predict alignment and tyre wear."
)]
struct Cli {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Run the server; migrates on start where the owner of the tables is told
    Serve(serve::ServeArgs),
    /// A digital angle gauge on a simulated car, on a local socket
    Gauge(gauge::GaugeArgs),
    /// Make a shop with its owner (BOLD_STANCE_PASSPHRASE), as the operator of a server
    Shop(operate::ShopArgs),
    /// The whole database as one file, checked, while it is in use
    Backup(operate::BackupArgs),
    /// A backup into an empty database; refused when it is damaged or newer
    Restore(operate::RestoreArgs),
    /// Load the demo shop
    Demo {
        #[command(flatten)]
        database: database::Database,
        /// Make it anew
        #[arg(long)]
        reset: bool,
    },
    /// Angles over travel as CSV
    Sweep {
        /// Geometry file (`bold-stance.geometry/1`)
        geometry: PathBuf,
        /// mm, bump positive: `a:b:step` or a comma list [default: -100:80:10]
        #[arg(long, allow_hyphen_values = true)]
        travel: Option<String>,
        /// mm of the inner tie-rod joint in +y: `a:b:step` or a comma list [default: 0]
        #[arg(long, allow_hyphen_values = true)]
        rack: Option<String>,
        /// mm of a solid axle's midpoint, bump positive: `a:b:step` or a comma list
        #[arg(long, allow_hyphen_values = true)]
        heave: Option<String>,
        /// Side of an axle whose sides differ: left or right.
        #[arg(long)]
        side: Option<String>,
    },
    /// Roll centre, camber gain, bump steer, Ackermann, construction aids at design, JSON
    Metrics {
        /// Geometry file (`bold-stance.geometry/1`)
        geometry: PathBuf,
        /// Axle to axle, mm
        #[arg(long)]
        wheelbase: Option<f64>,
    },
    /// Solve the adjusters of a corner (`bold-stance.settings/1`), JSON
    Settings {
        /// Case file
        case: PathBuf,
    },
    /// What a corner taught and what is left to turn on it (`bold-stance.prove/1`), JSON
    Prove {
        /// Case file
        case: PathBuf,
    },
    /// What one part or adjuster position does to the left corner (`bold-stance.part/1`), JSON
    Part {
        /// Case file
        case: PathBuf,
    },
    /// Ranked sets of correction parts with their settings (`bold-stance.plan/1`), JSON; exit 3 when none reaches
    Plan {
        /// Case file
        case: PathBuf,
    },
    /// Hardpoints and bands from readings at several heights (`bold-stance.fit/1`), JSON
    Fit {
        /// Case file
        case: PathBuf,
    },
    /// Tread forecast of one tyre (`bold-stance.wear/1`), JSON
    Wear {
        /// Case file
        case: PathBuf,
    },
    /// One reading conversion, JSON
    // Its own --help, so that `read METHOD --help` can say what each name of the method is.
    #[command(disable_help_flag = true)]
    Read {
        /// How it was read; --help lists them
        #[arg(allow_hyphen_values = true)]
        method: String,
        /// `--name=value` for every number of the method
        #[arg(trailing_var_arg = true, allow_hyphen_values = true, value_name = "--NAME=VALUE")]
        values: Vec<String>,
    },
    /// Evaluate a whole job (`bold-stance.job/1`) with no server: its plan and sheet, JSON
    Job {
        /// Bundle, as exported from a job
        bundle: PathBuf,
        /// Name or id of the plan; the first when absent
        #[arg(long)]
        plan: Option<String>,
    },
    /// Print a JSON Schema: `job`
    Schema {
        /// Which
        name: String,
    },
    /// Print the OpenAPI description of the server
    Openapi,
}

/// What a command ends with.
pub enum Failure {
    /// Bad input: exit 2.
    Input(String),
    /// Valid, but without an answer: exit 3.
    NoAnswer(String),
    /// The machine: exit 1.
    System(String),
}

impl From<bold_stance_units::problem::Problem> for Failure {
    fn from(p: bold_stance_units::problem::Problem) -> Self {
        Self::Input(said_of(&p))
    }
}

fn main() -> ExitCode {
    let result = match Cli::parse().command {
        Command::Serve(args) => {
            memory::with_few_arenas();
            serve::serve(args)
        }
        Command::Shop(args) => operate::shop(&args),
        Command::Backup(args) => operate::backup(&args),
        Command::Restore(args) => operate::restore(&args),
        Command::Gauge(args) => gauge::gauge(&args),
        Command::Demo { database, reset } => serve::demo(&database, reset),
        Command::Sweep { geometry, travel, rack, heave, side } => {
            headless::sweep(&geometry, &headless::SweepArgs { travel, rack, heave, side })
        }
        Command::Metrics { geometry, wheelbase } => headless::metrics(&geometry, wheelbase),
        Command::Settings { case } => headless::settings(&case),
        Command::Prove { case } => headless::prove(&case),
        Command::Part { case } => headless::part(&case),
        Command::Plan { case } => headless::plan(&case),
        Command::Fit { case } => headless::fit(&case),
        Command::Wear { case } => headless::wear(&case),
        Command::Read { method, values } => read::read(&method, &values),
        Command::Job { bundle, plan } => headless::job(&bundle, plan.as_deref()),
        Command::Schema { name } => schema::print(&name),
        Command::Openapi => {
            println!("{}", bold_stance_server::openapi_json());
            Ok(())
        }
    };
    let (text, code) = match result {
        Ok(()) => return ExitCode::SUCCESS,
        Err(Failure::Input(t)) => (t, 2),
        Err(Failure::NoAnswer(t)) => (t, 3),
        Err(Failure::System(t)) => (t, 1),
    };
    eprintln!("{}", text.replace('\n', " "));
    ExitCode::from(code)
}
