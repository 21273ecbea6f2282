//! A job's document: facts and readings to a plan's base and to tyres; gates with what was read at them, stale after work;
//! marks refused or kept with what they said.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_docs)]

use bold_stance_car::adjuster::default_adjusters;
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_kinematics::geometry::{Axle, Geometry, Layout, Side};
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::job::{
    Asked, BundlePlan, Done, JOB_FORMAT, JobBench, JobBundle, OpenVisit, Reading, Rules, Stage, VehicleFacts,
    base_of, mark_step, tyres_of,
};
use bold_stance_trade::part::shipped_parts;
use bold_stance_trade::plan::CarPlan;
use bold_stance_trade::reading::{
    DoubtPart, Jack, Method, Place, RawEntry, ReadAxle, ReadSide, Visit, shipped_methods, shipped_prepare,
};
use bold_stance_trade::sheet::{DoneRecord, GateReading, Mark, StepId, Tick};
use bold_stance_tread::UseMix;
use bold_stance_units::LengthUnit;
use bold_stance_words::English;
use chrono::{DateTime, Duration, TimeZone, Utc};
use serde_json::json;
use uuid::Uuid;

fn shape(id: &str) -> Geometry {
    shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry
}

fn facts() -> VehicleFacts {
    serde_json::from_value(json!({
        "name": "Sedge", "silhouette": "wagon", "wheelbase_mm": 2900, "track_front_mm": 1560, "track_rear_mm": 1560,
        "tyre_size": "235/45R18", "tyre_class": "all_season", "tread_depth_mm": 7, "drive": "front", "use": "mixed",
        "front_load_n": 5200, "pressure_kpa": 250, "placard_kpa": 260, "design_height_mm": 360, "rear_height_mm": 360,
        "knowledge": "taped", "geometry": shape("sports_front"), "rear_geometry": shape("ev_multilink_rear"),
        "rear_knowledge": "taped", "car": {"rear_load_n": 4100, "brake_front_share": 0.7},
        "adjusters": default_adjusters(4.0),
    }))
    .unwrap()
}

fn clock(minute: i64) -> DateTime<Utc> {
    Utc.with_ymd_and_hms(2026, 11, 28, 8, 0, 0).unwrap() + Duration::minutes(minute)
}

/// A job that is read through the real conversions, one reading a minute.
struct Shop {
    bundle: JobBundle,
    minute: i64,
}

impl Shop {
    fn new() -> Self {
        let mut plan = CarPlan::unchanged(shipped_aims().unwrap().remove(0));
        plan.axles.front.height_change_mm = -20.0;
        plan.axles.rear.height_change_mm = -25.0;
        plan.axles.rear.fitted = vec!["rear-camber-arm".into(), "rear-toe-arm".into()];
        let bundle = JobBundle {
            format: JOB_FORMAT.into(),
            written_by: "test".into(),
            arrived_at: clock(-60),
            complaint: "lower it".into(),
            stage: Stage::Plan,
            vehicle: facts(),
            visits: Vec::new(),
            readings: Vec::new(),
            plans: vec![BundlePlan { id: Uuid::from_u128(7), name: "Lower".into(), document: plan }],
            done: Vec::new(),
            parts: Vec::new(),
            withdrawn: Vec::new(),
            tyres: Vec::new(),
            events: Vec::new(),
        };
        let mut out = Self { bundle, minute: 0 };
        for axle in [Axle::Front, Axle::Rear] {
            for side in Side::BOTH {
                out.read(Visit::Found, axle, side, Method::HeightHub, "value", "360");
                out.read(
                    Visit::Found,
                    axle,
                    side,
                    Method::CamberGauge,
                    "angle",
                    if axle == Axle::Front { "-0.6" } else { "-1.6" },
                );
                if axle == Axle::Front {
                    out.read(Visit::Found, axle, side, Method::CasterJointLine, "angle", "5.5");
                }
                out.read(Visit::Found, axle, side, Method::ToeConvert, "value", "1 mm");
            }
        }
        out
    }

    fn read(&mut self, visit: Visit, axle: Axle, side: Side, method: Method, entry: &str, text: &str) {
        self.minute += 1;
        let (methods, items) = (shipped_methods().unwrap(), shipped_prepare().unwrap());
        let b = &self.bundle;
        let rules = Rules { methods: &methods, items: &items };
        let bench =
            JobBench::of(rules, &b.vehicle, &b.readings, &b.done, &b.visits, clock(self.minute)).unwrap();
        let mut raw = vec![RawEntry::new(entry, text)];
        if method == Method::CamberGauge {
            raw.push(RawEntry::new("zeroed-on-floor", "true"));
        }
        let asked = Asked {
            visit,
            method,
            raw: &raw,
            unit: LengthUnit::Mm,
            place: Place::wheel(axle, side),
            jack: Jack::Rolled,
            jacked_height: "",
        };
        let taken = bench.take(&asked, None).unwrap_or_else(|p| panic!("{method:?} {text}: {p:?}"));
        let id = Uuid::from_u128(1000 + self.minute as u128);
        let row: Reading = asked.stored(id, taken, "Specialist A", clock(self.minute));
        self.bundle.readings.push(row);
    }

    fn sheet(&self) -> bold_stance_trade::job::Sheet {
        self.bundle.evaluate(None, &shipped_parts().unwrap(), clock(self.minute)).unwrap().sheet
    }

    /// Marks as the shop would: refused or kept.
    fn mark(&mut self, mark: Mark, reason: Option<&str>) -> Result<(), String> {
        self.minute += 1;
        let record =
            mark_step(&self.sheet(), &mark, reason).map_err(|p| format!("{}: {}", p.field, p.wrong.en()))?;
        self.done(mark, record);
        Ok(())
    }

    fn done(&mut self, step: Mark, record: DoneRecord) {
        let (plan_id, author) = (self.bundle.plans[0].id, "Specialist A".to_owned());
        self.bundle.done.push(Done { plan_id, step, done_at: clock(self.minute), author, record });
    }
}

#[test]
fn facts_and_readings_become_a_base_for_each_axle_once_it_was_read() {
    let shop = Shop::new();
    let b = &shop.bundle;
    let seen: Vec<_> = b.readings.iter().map(Reading::seen).collect();
    let base = base_of(&b.vehicle, &b.readings, &seen);
    let (f, r) = (base.axles.front.as_ref().unwrap(), base.axles.rear.as_ref().unwrap());
    assert_eq!((f.read.left.height_mm, r.read.right.height_mm), (360.0, 360.0));
    assert!(
        (f.read.left.angles.camber_deg + 0.6).abs() < 1e-9
            && (f.read.right.angles.caster_deg - 5.5).abs() < 1e-9
    );
    assert_eq!(r.read.left.angles.caster_deg, 0.0, "a rear wheel has none");
    assert_eq!((f.adjusters.len(), r.adjusters.len()), (b.vehicle.adjusters.len(), 0));
    // One reading short: that axle waits, the other does not.
    let without: Vec<Reading> = b
        .readings
        .iter()
        .filter(|x| {
            !(x.axle == ReadAxle::Rear && x.side == ReadSide::Left && x.method == Method::CamberGauge)
        })
        .cloned()
        .collect();
    let seen: Vec<_> = without.iter().map(Reading::seen).collect();
    let base = base_of(&b.vehicle, &without, &seen);
    assert!(base.axles.front.is_some() && base.axles.rear.is_none());
    let unknown = VehicleFacts { rear_geometry: None, ..b.vehicle.clone() };
    assert!(base_of(&unknown, &b.readings, &seen).axles.rear.is_none());
}

#[test]
fn facts_become_tyres() {
    let t = tyres_of(&facts(), 1.6);
    assert_eq!(t.sizes, ["235/45R18", "235/45R18"]);
    assert_eq!((t.load_n, t.pressure_kpa, t.placard_kpa), ([5200.0, 4100.0], [250.0, 250.0], [260.0, 260.0]));
    assert_eq!((t.brake_front, t.limit_mm, t.torque_factor, t.load_transfer_per_g), (0.7, 1.6, 1.0, 0.7));
    assert!(t.problems().is_empty());
    let with = |change: &dyn Fn(&mut VehicleFacts)| {
        let mut f = facts();
        change(&mut f);
        tyres_of(&f, 1.6)
    };
    use bold_stance_trade::job::{Drive, Silhouette};
    let drive = |d: Drive| with(&|f| f.drive = d).drive_front;
    assert_eq!([Drive::Front, Drive::Both, Drive::Rear].map(drive), [1.0, 0.5, 0.0]);
    let transfer = |s: Silhouette| with(&|f| f.silhouette = s).load_transfer_per_g;
    assert_eq!(
        [Silhouette::Pickup, Silhouette::Box, Silhouette::Coupe, Silhouette::Van].map(transfer),
        [0.85, 0.85, 0.6, 0.7]
    );
    let solid = with(&|f| f.rear_geometry = Some(shape("leaf_rear")));
    assert_eq!(solid.roll_camber, [2.5, 0.0]);
    assert_eq!(shape("leaf_rear").layout(), Layout::SolidAxle);
    let told = with(&|f| {
        f.car.wear = serde_json::from_value(json!({"rear_tyre_size": "255/40R18", "rear_pressure_kpa": 230,
            "high_torque": true, "own_life_km": 33000, "uses": [{"use": "highway", "share": 80}, {"use": "trail", "share": 20}]}))
        .unwrap();
    });
    assert_eq!((told.sizes[1].as_str(), told.pressure_kpa[1], told.torque_factor), ("255/40R18", 230.0, 1.5));
    assert_eq!(told.own_life_km, Some(33_000.0));
    assert!(matches!(&told.use_, UseMix::Blend(b) if b.len() == 2 && b[0].1 == 80.0));
    assert!(told.staggered() && !t.staggered());
}

#[test]
fn the_rears_gate_takes_the_rears_readings_and_work_after_them_makes_them_stale() {
    let mut shop = Shop::new();
    let step = |s| Mark::Step(s);
    shop.mark(step(StepId::Support), None).unwrap();
    shop.mark(step(StepId::Height(Axle::Rear)), None).unwrap();
    shop.mark(step(StepId::Height(Axle::Front)), None).unwrap();
    // Shut without ticks and readings: each is named with its wheel.
    let shut = shop.mark(step(StepId::Settled), None).unwrap_err();
    for w in ["Roll 3 m", "left rear height not read", "right front height not read"] {
        assert!(shut.contains(w), "{shut}");
    }
    for t in [Tick::Roll, Tick::Bounce] {
        shop.mark(Mark::Tick(StepId::Settled, t), None).unwrap();
    }
    for (axle, h) in [(Axle::Front, "340"), (Axle::Rear, "335")] {
        for side in Side::BOTH {
            shop.read(Visit::Settled, axle, side, Method::HeightHub, "value", h);
        }
    }
    shop.mark(step(StepId::Settled), None).unwrap();
    for p in ["rear-camber-arm", "rear-toe-arm"] {
        let id = shop.sheet().steps.iter().find(|s| s.id.to_string().contains(p)).unwrap().id.clone();
        shop.mark(step(id), None).unwrap();
    }
    shop.mark(step(StepId::Arms(Axle::Rear)), None).unwrap();
    // Read as expected after the arms, then toe is turned: what was read before it is stale.
    let sheet = shop.sheet();
    let want = sheet.answer.axles.rear.as_ref().unwrap().clone();
    let gate =
        |shop: &Shop| shop.sheet().gates.into_iter().find(|g| g.id == StepId::Read(Axle::Rear)).unwrap();
    for (side, s) in [(Side::Left, &want.left), (Side::Right, &want.right)] {
        let camber = format!("{:.2}", s.set.camber_deg);
        shop.read(Visit::Reswept, Axle::Rear, side, Method::CamberGauge, "angle", &camber);
        let toe = format!("{:.3} deg", s.set.toe_deg);
        shop.read(Visit::Reswept, Axle::Rear, side, Method::ToeConvert, "value", &toe);
    }
    let off = gate(&shop).off;
    assert!(off.iter().all(|f| !f.stale && f.off_expected == 0.0), "{off:?}");
    if sheet.steps.iter().any(|s| s.id == StepId::Toe(Axle::Rear)) {
        shop.mark(step(StepId::Toe(Axle::Rear)), None).unwrap();
        let g = gate(&shop);
        let stale = g.off.iter().filter(|f| f.stale && f.axle == Some(Axle::Rear)).count();
        assert_eq!(stale, 4, "{:?}", g.off);
    }
    // Ticks of the rear's gate are its own; those of the front's are still asked for.
    for t in [Tick::Roll, Tick::Bounce] {
        shop.mark(Mark::Tick(StepId::Read(Axle::Rear), t), None).unwrap();
    }
    let front = shop.sheet().gates.into_iter().find(|g| g.id == StepId::Read(Axle::Front)).unwrap();
    assert!(front.ticked.is_empty(), "{:?}", front.ticked);
    // They answer for the rear wheels, whose doubt is theirs, and not for the front's.
    for (axle, open) in [(Axle::Rear, false), (Axle::Front, true)] {
        shop.read(Visit::Reswept, axle, Side::Left, Method::CamberGauge, "angle", "-1.00");
        let asked = |d: &DoubtPart| d.name.id == "doubt-not-answered" && d.name.en().contains("olled");
        let doubt = &shop.bundle.readings.last().unwrap().doubt;
        assert_eq!(doubt.iter().any(asked), open, "{axle:?} {doubt:?}");
    }
    // Off without a reason stays shut; with one it is kept with what was off.
    let refused = shop.mark(step(StepId::Read(Axle::Rear)), None);
    if let Err(said) = refused {
        assert!(said.starts_with("reason"), "{said}");
        shop.mark(step(StepId::Read(Axle::Rear)), Some("gauge goes home at noon")).unwrap();
        let kept = &shop.bundle.done.last().unwrap().record;
        assert!(!kept.off.is_empty() && kept.reason.as_deref() == Some("gauge goes home at noon"));
    }
    let rear = shop.sheet().steps.into_iter().find(|s| s.id == StepId::Arms(Axle::Rear)).unwrap();
    let kept = shop.bundle.done.iter().find(|d| d.step == step(StepId::Arms(Axle::Rear))).unwrap();
    assert_eq!(kept.record.ordered.len(), rear.orders.len());
    assert!(kept.record.ordered.iter().all(|o| o.axle == Axle::Rear));
    // A rear height set after the front's caster was swept takes the sweep with it.
    assert!(shop.bundle.problems().is_empty(), "{:?}", shop.bundle.problems());
}

#[test]
fn a_step_that_is_not_there_is_refused_with_those_that_are() {
    let shop = Shop::new();
    let sheet = shop.sheet();
    for m in [
        Mark::Step(StepId::Fit(Axle::Front, "nothing".into())),
        Mark::Tick(StepId::Support, Tick::Roll),
        Mark::Step(StepId::Fouls),
    ] {
        let p = mark_step(&sheet, &m, None).unwrap_err();
        assert_eq!(p.field, "step");
        assert!(p.right.en().contains("rear-height"), "{}", p.right.en());
    }
    assert!(sheet.gates.iter().flat_map(|g| &g.missing).count() > 0);
    assert!(sheet.steps.iter().any(|s| s.needs.iter().any(|n| n.quantity == GateReading::Caster)));
}

#[test]
fn a_bundle_with_dangling_ends_is_refused_where_they_hang() {
    let good = Shop::new().bundle;
    let fields = |change: &dyn Fn(&mut JobBundle)| {
        let mut b = good.clone();
        change(&mut b);
        b.problems().into_iter().map(|p| p.field).collect::<Vec<_>>()
    };
    assert!(fields(&|_| ()).is_empty());
    assert_eq!(fields(&|b| b.readings[3].id = b.readings[2].id), ["readings.3.id"]);
    assert_eq!(fields(&|b| b.readings[3].replaces = Some(Uuid::from_u128(1))), ["readings.3.replaces"]);
    assert_eq!(fields(&|b| b.readings[0].value = f64::NAN), ["readings.0.value"]);
    assert_eq!(fields(&|b| b.plans.push(b.plans[0].clone())), ["plans.1.id"]);
    let done = Done {
        plan_id: Uuid::from_u128(9),
        step: Mark::Step(StepId::Support),
        done_at: clock(0),
        author: "A".into(),
        record: DoneRecord::default(),
    };
    assert_eq!(fields(&|b| b.done.push(done.clone())), ["done.0.plan_id"]);
    assert_eq!(fields(&|b| b.vehicle.wheelbase_mm = 3.0), ["vehicle.wheelbase_mm"]);
    let open: OpenVisit = serde_json::from_value(
        json!({"kind": "found", "version": 1, "answers": {}, "author": "A", "opened_at": "2026-11-28T08:00:00Z"}),
    )
    .unwrap();
    assert!(fields(&|b| b.visits.push(open.clone())).is_empty());
    // Nothing to evaluate is said so.
    let none = JobBundle { plans: Vec::new(), ..good.clone() };
    assert_eq!(none.evaluate(None, &[], clock(0)).unwrap_err()[0].field, "plans");
    assert!(good.evaluate(Some("Other"), &[], clock(0)).unwrap_err()[0].right.en().contains("Lower"));
    assert_eq!(good.evaluate(Some("Lower"), &shipped_parts().unwrap(), clock(0)).unwrap().name, "Lower");
}
