//! The core without a screen: files in, CSV or JSON out.

use crate::Failure;
use bold_stance_car::fit::{FitCase, FitError, fit_hardpoints};
use bold_stance_car::metrics::{
    Aids, AxleMetrics, BodyFacts, LivePoint, aids, axle_metrics, live_axle_curve,
};
use bold_stance_car::vehicle::{Attitude, CarFacts};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage, Unreachable, read_geometry};
use bold_stance_trade::job::JobBundle;
use bold_stance_trade::part::shipped_parts;
use bold_stance_trade::plan::{
    PartCase, PlanCase, PlanCaseError, SettingsCase, SettingsError, run_part, run_plan, run_settings,
};
use bold_stance_trade::prove::{ProveCase, run_prove};
use bold_stance_tread::{WearCase, run};
use bold_stance_units::problem::{Problem, in_range, parse_json};
use bold_stance_words::{Units, english, plain, said_of};
use serde::Serialize;
use std::io::Write;
use std::path::Path;

/// Largest file that is read, bytes.
const FILE_LIMIT: u64 = 4 * 1024 * 1024;
/// Most rows a sweep prints.
const ROW_LIMIT: usize = 200_000;

/// Evaluates a job bundle: `{"name", "plan", "sheet", "tyres"}`.
pub fn job(path: &Path, plan: Option<&str>) -> Result<(), Failure> {
    let text = read(path)?;
    let said = |list: Vec<Problem>| Failure::Input(list.iter().map(said_of).collect::<Vec<_>>().join(" | "));
    let bundle = JobBundle::from_json(&text).map_err(said)?;
    print(&bundle.evaluate(plan, &shipped_parts()?, chrono::Utc::now()).map_err(said)?)
}

/// Reads a file of bounded size.
pub fn read(path: &Path) -> Result<Vec<u8>, Failure> {
    let shown = path.display();
    let size = std::fs::metadata(path)
        .map_err(|e| Failure::Input(format!("{shown}: {e}; the path of a file")))?
        .len();
    if size > FILE_LIMIT {
        return Err(Failure::Input(format!("{shown}: {size} bytes; a file of at most 4 MB")));
    }
    std::fs::read(path).map_err(|e| Failure::Input(format!("{shown}: {e}; a readable file")))
}

/// `a:b:step` or a comma list, mm.
fn numbers(field: &str, text: &str) -> Result<Vec<f64>, Problem> {
    let right = "a:b:step such as -100:80:10, or a list such as -50,0,50, within ±2000 mm";
    let bad = |wrong: String| Problem::new(field, wrong, right);
    let one = |t: &str| {
        t.trim()
            .parse::<f64>()
            .ok()
            .filter(|v| v.is_finite() && v.abs() <= 2000.0)
            .ok_or_else(|| bad(format!("\"{}\" is not a usable number", t.trim())))
    };
    let parts: Vec<&str> = text.split(':').collect();
    match parts.as_slice() {
        [list] => list.split(',').map(one).collect(),
        [a, b, step] => {
            let (a, b, step) = (one(a)?, one(b)?, one(step)?);
            let count = (b - a) / step;
            if step == 0.0 || !(0.0..=100_000.0).contains(&count) {
                return Err(bad(format!("{a} to {b} in steps of {step} is empty or endless")));
            }
            Ok((0..=(count + 1e-9).floor() as usize).map(|i| a + step * i as f64).collect())
        }
        _ => Err(bad(format!("\"{text}\" has {} parts", parts.len()))),
    }
}

/// Columns of a sweep, as agreed.
const COLUMNS: [&str; 10] = [
    "travel_mm",
    "rack_mm",
    "camber_deg",
    "toe_deg",
    "caster_deg",
    "sai_deg",
    "half_track_mm",
    "wheel_x_mm",
    "scrub_radius_mm",
    "mechanical_trail_mm",
];

/// Columns of a solid axle's sweep.
const AXLE_COLUMNS: [&str; 6] =
    ["heave_mm", "lateral_shift_mm", "caster_deg", "pitch_change_deg", "wheel_x_mm", "roll_deg"];

/// What `sweep` is asked for, as typed.
pub struct SweepArgs {
    /// Wheel travel, mm.
    pub travel: Option<String>,
    /// Rack, mm.
    pub rack: Option<String>,
    /// Heave of a solid axle, mm.
    pub heave: Option<String>,
    /// Which side of an unequal axle: left when it is not said.
    pub side: Option<String>,
}

type Row = Vec<Option<f64>>;

/// Rows that cannot be reached, by the end they lie beyond: a position past a known end is not marched to again.
#[derive(Default)]
struct Ends {
    known: Vec<(f64, Unreachable)>,
    left_out: usize,
}

impl Ends {
    /// The end that a travel at a rack position is known to lie beyond.
    fn beyond(&self, travel: f64, rack: f64) -> Option<&Unreachable> {
        self.known.iter().find(|(r, e)| *r == rack && beyond(travel, e.limit_travel_mm)).map(|(_, e)| e)
    }

    /// `pose` where it is not known to be out of reach.
    fn ask<T>(&mut self, travel: f64, rack: f64, pose: impl FnOnce() -> Result<T, Unreachable>) -> Option<T> {
        if self.beyond(travel, rack).is_none() {
            match pose() {
                Ok(v) => return Some(v),
                Err(e) => self.known.push((rack, e)),
            }
        }
        self.left_out += 1;
        None
    }

    /// One line for each end that was met.
    fn words(&self) -> Vec<String> {
        let mut out: Vec<String> = Vec::new();
        for (rack, e) in &self.known {
            let line = if *rack == 0.0 { e.to_string() } else { format!("rack at {rack} mm: {e}") };
            if !out.contains(&line) {
                out.push(line);
            }
        }
        out
    }
}

/// Whether a travel lies on the far side of an end, more than a millimetre past it.
fn beyond(travel: f64, end: f64) -> bool {
    if end >= 0.0 { travel > end + 1.0 } else { travel < end - 1.0 }
}

/// Prints the rows that were reached under `columns` and says what was left out and why.
fn table(columns: &[&str], rows: Vec<Row>, ends: &Ends) -> Result<(), Failure> {
    let words = ends.words();
    if rows.is_empty() {
        return Err(Failure::NoAnswer(format!("no position can be reached: {}", words.join("; "))));
    }
    let mut out = csv::Writer::from_writer(std::io::stdout().lock());
    let system = |e: csv::Error| Failure::System(e.to_string());
    out.write_record(columns).map_err(system)?;
    for r in rows {
        // Adding zero keeps a negative zero from being printed.
        let cell = |v: Option<f64>| v.map_or_else(String::new, |v| format!("{:.6}", v + 0.0));
        out.write_record(r.into_iter().map(cell)).map_err(system)?;
    }
    out.flush().map_err(|e| Failure::System(e.to_string()))?;
    if ends.left_out > 0 {
        eprintln!("{} unreachable rows left out", ends.left_out);
        words.iter().for_each(|w| eprintln!("{w}"));
    }
    Ok(())
}

/// `sweep`.
pub fn sweep(path: &Path, args: &SweepArgs) -> Result<(), Failure> {
    let g = read_geometry(&read(path)?)?;
    for r in g.remarks() {
        eprintln!("{}", plain(&r));
    }
    const USUAL: &str = "-100:80:10";
    let side = match args.side.as_deref() {
        None | Some("left") => Side::Left,
        Some("right") => Side::Right,
        Some(other) => return Err(Failure::Input(format!("--side: \"{other}\"; \"left\" or \"right\""))),
    };
    let corner = Corner::of(&g, side);
    let mut ends = Ends::default();
    if let Corner::Axle(axle) = &corner {
        let text = args.heave.as_deref().or(args.travel.as_deref()).unwrap_or(USUAL);
        let field = if args.heave.is_some() { "--heave" } else { "--travel" };
        let heaves = numbers(field, text)?;
        if let Some(r) = &args.rack
            && numbers("--rack", r)?.iter().any(|v| *v != 0.0)
        {
            return Err(Failure::Input(
                "--rack: a solid axle has no rack; leave it out, its steering follows the drag link".into(),
            ));
        }
        let x0 = axle.design_x();
        let rows = heaves.into_iter().filter_map(|h| {
            let a = ends.ask(h, 0.0, || axle.axle_pose(h, 0.0))?;
            let caster = axle.left_wheel(&a).axis.map(|x| x.caster().to_degrees());
            Some(vec![
                Some(h),
                Some(a.midpoint.y),
                caster,
                Some(a.pitch.to_degrees()),
                Some(a.midpoint.x - x0),
                Some(a.roll.to_degrees()),
            ])
        });
        return table(&AXLE_COLUMNS, rows.collect(), &ends);
    }
    if args.heave.is_some() {
        return Err(Failure::Input(format!(
            "--heave: a {} moves by wheel travel; --travel instead",
            g.layout().word()
        )));
    }
    let travels = numbers("--travel", args.travel.as_deref().unwrap_or(USUAL))?;
    let racks = numbers("--rack", args.rack.as_deref().unwrap_or("0"))?;
    let count = travels.len() * racks.len();
    if count > ROW_LIMIT {
        return Err(Failure::Input(format!("--travel: {count} rows; at most {ROW_LIMIT}")));
    }
    let rows = racks.iter().flat_map(|rack| travels.iter().map(move |travel| (*travel, *rack))).filter_map(
        |(travel, rack)| {
            let w = ends.ask(travel, rack, || corner.wheel(travel, rack))?;
            Some(vec![
                Some(travel),
                Some(rack),
                Some(w.camber_deg),
                Some(w.toe_deg),
                w.steer.map(|s| s.caster_deg),
                w.steer.map(|s| s.sai_deg),
                Some(w.half_track_mm),
                Some(w.wheel_x_mm),
                w.steer.map(|s| s.scrub_radius_mm),
                w.steer.map(|s| s.mechanical_trail_mm),
            ])
        },
    );
    table(&COLUMNS, rows.collect(), &ends)
}

/// Prints JSON.
pub fn print<T: Serialize>(v: &T) -> Result<(), Failure> {
    // What is said is printed in English, in millimetres and decimal degrees.
    let mut v = serde_json::to_value(v).map_err(|e| Failure::System(e.to_string()))?;
    english(Units::default()).speak(&mut v);
    let text = serde_json::to_string_pretty(&v).map_err(|e| Failure::System(e.to_string()))?;
    writeln!(std::io::stdout().lock(), "{text}").map_err(|e| Failure::System(e.to_string()))
}

/// What `metrics` prints.
#[derive(Serialize)]
struct Metrics {
    format: &'static str,
    name: String,
    wheelbase_mm: f64,
    metrics: AxleMetrics,
    live_axle: Option<Vec<LivePoint>>,
    aids: Aids,
}

/// Wheelbase where neither the file nor the command says, mm.
const USUAL_WHEELBASE: f64 = 2800.0;

/// `metrics`.
pub fn metrics(path: &Path, wheelbase: Option<f64>) -> Result<(), Failure> {
    let g = read_geometry(&read(path)?)?;
    for r in g.remarks() {
        eprintln!("{}", plain(&r));
    }
    let own = -g.wheel.center[0];
    let wheelbase_mm = match wheelbase {
        Some(w) => w,
        None if g.axle == Axle::Rear && own > 1000.0 => own,
        None => {
            eprintln!("--wheelbase: not given, {USUAL_WHEELBASE} mm used for Ackermann and anti-dive");
            USUAL_WHEELBASE
        }
    };
    in_range("--wheelbase", wheelbase_mm, 1000.0, 8000.0, "mm")?;
    let usual = CarFacts::default();
    let body = BodyFacts {
        wheelbase_mm,
        cg_height_mm: usual.cg_height_mm,
        brake_front_share: usual.brake_front_share,
        lock_deg: usual.lock_deg,
        shaft_inner: None,
        attitude: Attitude::default(),
    };
    let [left, right] = Side::BOTH.map(|s| Corner::of(&g, s));
    let metrics = axle_metrics(&g, [&left, &right], [0.0, 0.0], &body)
        .map_err(|e| Failure::NoAnswer(format!("no position can be reached: {e}")))?;
    let heights: Vec<f64> = (-8..=10).map(|i| 10.0 * f64::from(i)).collect();
    let live_axle = match &left {
        Corner::Axle(c) => Some(live_axle_curve(c, &heights, usual.steering_ratio)),
        _ => None,
    };
    print(&Metrics {
        format: "bold-stance.metrics/1",
        aids: aids(&g.points, &g.wheel, 50.0, usual.lock_deg, wheelbase_mm),
        name: g.name,
        wheelbase_mm,
        metrics,
        live_axle,
    })
}

/// What a case of a corner came to.
fn told<T: Serialize>(answer: Result<T, SettingsError>) -> Result<(), Failure> {
    match answer {
        Ok(r) => print(&r),
        Err(SettingsError::Bad(p)) => Err(p.into()),
        Err(e @ SettingsError::NoAnswer(_)) => Err(Failure::NoAnswer(e.to_string())),
    }
}

/// `settings`.
pub fn settings(path: &Path) -> Result<(), Failure> {
    let case: SettingsCase = parse_json(&read(path)?)?;
    told(run_settings(&case))
}

/// `prove`.
pub fn prove(path: &Path) -> Result<(), Failure> {
    let case: ProveCase = parse_json(&read(path)?)?;
    told(run_prove(&case))
}

/// `part`.
pub fn part(path: &Path) -> Result<(), Failure> {
    let case: PartCase = parse_json(&read(path)?)?;
    told(run_part(&case))
}

/// `plan`.
pub fn plan(path: &Path) -> Result<(), Failure> {
    let case = PlanCase::read(&read(path)?)?;
    match run_plan(&case) {
        Ok(r) => print(&r),
        Err(PlanCaseError::Bad(p)) => Err(p.into()),
        // The nearest plans are printed all the same.
        Err(PlanCaseError::NoneReaches(r)) => {
            print(&r)?;
            Err(Failure::NoAnswer(format!("{}. {}", plain(&r.headline), plain(&r.sentence))))
        }
    }
}

/// `fit`.
pub fn fit(path: &Path) -> Result<(), Failure> {
    let case: FitCase = parse_json(&read(path)?)?;
    match fit_hardpoints(&case) {
        Ok(r) => print(&r),
        Err(FitError::Bad(p)) => Err(p.into()),
        Err(e @ FitError::NoAnswer(_)) => Err(Failure::NoAnswer(e.to_string())),
    }
}

/// `wear`.
pub fn wear(path: &Path) -> Result<(), Failure> {
    let case: WearCase = parse_json(&read(path)?)?;
    print(&run(&case)?)
}
