//! A job's document: facts and readings to a plan's base and to tyres; gates with what was read at them, stale after work;
//! marks refused or kept with what they said.

use crate::shop::{Shop, clock, facts, shape};
use bold_stance_car::adjuster::default_adjusters;
use bold_stance_car::vehicle::Axles;
use bold_stance_kinematics::geometry::{Axle, Layout, Side};
use bold_stance_trade::job::{
    Done, JobBundle, OpenVisit, Reading, VehicleFacts, base_of, mark_step, tyres_of,
};
use bold_stance_trade::part::shipped_parts;
use bold_stance_trade::plan::{AngleName, Standing};
use bold_stance_trade::reading::{DoubtPart, Method, ReadAxle, ReadSide, Visit};
use bold_stance_trade::sheet::{DoneRecord, GateReading, Mark, StepId, StepKind, Tick};
use bold_stance_tread::UseMix;
use bold_stance_words::English;
use serde_json::json;
use uuid::Uuid;

#[test]
fn facts_and_readings_become_a_base_for_each_axle_once_it_was_read() {
    let shop = Shop::new();
    let b = &shop.bundle;
    let seen: Vec<_> = b.readings.iter().map(Reading::seen).collect();
    let base = base_of(&b.vehicle, &b.readings, &b.done, &seen);
    let (f, r) = (base.axles.front.as_ref().unwrap(), base.axles.rear.as_ref().unwrap());
    assert_eq!((f.read.left.height_mm, r.read.right.height_mm), (360.0, 360.0));
    assert!(
        (f.read.left.angles.camber_deg + 0.6).abs() < 1e-9
            && (f.read.right.angles.caster_deg - 5.5).abs() < 1e-9
    );
    assert_eq!(r.read.left.angles.caster_deg, 0.0, "a rear wheel has none");
    assert_eq!(
        (f.adjusters.left.len(), r.adjusters.right.len()),
        (b.vehicle.car.axles.front.adjusters.len(), 0)
    );
    // One reading short: it is what the model expects, and as wide as that is.
    let keep = |f: &dyn Fn(&Reading) -> bool| -> Vec<Reading> {
        b.readings.iter().filter(|x| f(x)).cloned().collect()
    };
    let based = |list: &[Reading]| {
        let seen: Vec<_> = list.iter().map(Reading::seen).collect();
        base_of(&b.vehicle, list, &b.done, &seen)
    };
    let missing =
        |x: &Reading| x.axle == ReadAxle::Rear && x.side == ReadSide::Left && x.method == Method::CamberGauge;
    let base = based(&keep(&|x| !missing(x)));
    let rear = base.axles.rear.as_ref().unwrap();
    assert_eq!((rear.read.left.unread.camber, rear.read.right.unread.camber), (true, false));
    assert!(rear.read.left.sigma.camber_deg >= 0.3, "{:?}", rear.read.left.sigma);
    assert!(base.axles.front.as_ref().unwrap().read.left.unread.is_none());
    // Nothing read of an axle: nothing is said of it.
    assert!(based(&keep(&|x| x.axle == ReadAxle::Front)).axles.rear.is_none());
    let seen: Vec<_> = b.readings.iter().map(Reading::seen).collect();
    let mut unknown = b.vehicle.clone();
    unknown.axles.rear.geometry = None;
    assert!(base_of(&unknown, &b.readings, &b.done, &seen).axles.rear.is_none());
}

#[test]
fn facts_become_tyres() {
    let t = tyres_of(&facts(), 1.6);
    assert_eq!((t.sizes.front.as_str(), t.sizes.rear.as_str()), ("235/45R18", "235/45R18"));
    let both = |front, rear| Axles { front, rear };
    assert_eq!(
        (t.load_n, t.pressure_kpa, t.placard_kpa),
        (both(5200.0, 4100.0), both(250.0, 250.0), both(260.0, 260.0))
    );
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
    let solid = with(&|f| f.axles.rear.geometry = Some(shape("leaf_rear")));
    assert_eq!(solid.roll_camber, Axles { front: 2.5, rear: 0.0 });
    assert_eq!(shape("leaf_rear").layout(), Layout::SolidAxle);
    let told = with(&|f| {
        f.axles.rear.tyre_size = Some("255/40R18".into());
        f.axles.rear.pressure_kpa = Some(230.0);
        f.car.wear = serde_json::from_value(json!({"high_torque": true, "own_life_km": 33000, "uses": [{"use": "highway", "share": 80}, {"use": "trail", "share": 20}]}))
        .unwrap();
    });
    assert_eq!(
        (told.sizes.rear.as_str(), told.pressure_kpa.rear, told.torque_factor),
        ("255/40R18", 230.0, 1.5)
    );
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
        let height = format!("{:.1}", s.planned_height_mm);
        shop.read(Visit::Reswept, Axle::Rear, side, Method::HeightHub, "value", &height);
    }
    let off = gate(&shop).off;
    assert!(off.iter().all(|f| !f.stale && f.off_expected == 0.0), "{off:?}");
    if sheet.steps.iter().any(|s| s.id == StepId::Toe(Axle::Rear)) {
        // Toe that is where it should be needs no turn; this one does.
        assert!(shop.sheet().steps.iter().all(|s| s.id != StepId::Toe(Axle::Rear)));
        for side in Side::BOTH {
            shop.read(Visit::Reswept, Axle::Rear, side, Method::ToeConvert, "value", "0.5 deg");
        }
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
        let p = mark_step(&sheet, &m, (None, None), &[], (chrono::DateTime::UNIX_EPOCH, "Specialist A"))
            .unwrap_err();
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

/// The facts of a vehicle as the first form of the document had them, every field told.
fn first_form() -> serde_json::Value {
    let shaft = json!([0, 180, 372]);
    json!({
        "name": "Quarry", "silhouette": "pickup", "wheelbase_mm": 3220, "track_front_mm": 1524, "track_rear_mm": 1540,
        "tyre_size": "285/70R17", "tyre_class": "all_terrain", "tread_depth_mm": 10.6, "drive": "both", "use": "trail",
        "front_load_n": 7000, "pressure_kpa": 240, "placard_kpa": 260, "design_height_mm": 498, "rear_height_mm": 571,
        "knowledge": "surveyed", "geometry": shape("half_ton_front"), "rear_geometry": shape("leaf_rear"),
        "rear_knowledge": "taped", "adjusters": default_adjusters(3.2),
        "car": {
            "cg_height_mm": 720, "front_load_n": 6000, "rear_load_n": 5600, "rear_settle_mm": 3,
            "front_spring": {"rate_n_mm": 112, "motion_ratio": 0.62}, "rear_spring": null,
            "front_tyre_gain_mm": 9, "rear_tyre_gain_mm": 0, "levels": [{"name": "Access", "front_mm": -40, "rear_mm": -30}],
            "front_shaft_inner": shaft, "rear_shaft_inner": null,
            "limits": {"droop_mm": 60, "shaft_inner": null}, "rear_limits": {"bump_mm": 45}, "rear_adjusters": [],
            "wear": {"rear_tyre_size": "305/70R17", "rear_pressure_kpa": 280, "rear_placard_kpa": null, "price": 265},
        },
    })
}

#[test]
fn facts_written_in_the_first_form_are_read_with_everything_they_told() {
    let f: VehicleFacts = serde_json::from_value(bold_stance_trade::job::present_form(first_form())).unwrap();
    assert!(f.problems().is_empty(), "{:?}", f.problems());
    let (a, t) = (&f.axles, &f.car.axles);
    assert_eq!(
        (a.front.track_mm, a.front.height_mm, a.rear.track_mm, a.rear.height_mm),
        (1524.0, 498.0, 1540.0, 571.0)
    );
    assert_eq!(
        (a.front.geometry.clone(), a.rear.geometry.clone()),
        (Some(shape("half_ton_front")), Some(shape("leaf_rear")))
    );
    assert_eq!((f.tyre_size_of(Axle::Front), f.tyre_size_of(Axle::Rear)), ("285/70R17", "305/70R17"));
    assert_eq!((a.rear.pressure_kpa, a.rear.placard_kpa), (Some(280.0), None));
    // The vehicle's own front load counted, not the car's.
    assert_eq!((t.front.load_n, t.rear.load_n), (7000.0, 5600.0));
    assert_eq!((t.front.tyre_gain_mm, t.rear.settle_mm), (9.0, 3.0));
    assert_eq!((t.front.spring.unwrap().rate_n_mm, t.rear.spring), (112.0, None));
    assert_eq!(
        (t.front.limits.droop_mm, t.front.limits.shaft_inner),
        (Some(60.0), Some([0.0, 180.0, 372.0]))
    );
    assert_eq!((t.rear.limits.bump_mm, t.rear.limits.shaft_inner), (Some(45.0), None));
    assert_eq!((t.front.adjusters.len(), t.rear.adjusters.len()), (default_adjusters(3.2).len(), 0));
    assert_eq!((f.car.levels[0].mm.front, f.car.levels[0].mm.rear, f.car.wear.price), (-40.0, -30.0, 265.0));
    // What is in the present form stays as it is.
    let now = serde_json::to_value(&f).unwrap();
    assert_eq!(bold_stance_trade::job::present_form(now.clone()), now);
}

#[test]
fn a_job_written_before_axles_had_their_place_is_read_and_a_fault_in_it_is_named() {
    let mut b = serde_json::to_value(&Shop::new().bundle).unwrap();
    b["vehicle"] = first_form();
    let read = JobBundle::from_json(b.to_string().as_bytes()).unwrap();
    assert_eq!(read.vehicle.axles.rear.geometry, Some(shape("leaf_rear")));
    // Written again it is in the present form, and the same.
    let again = JobBundle::from_json(&serde_json::to_vec(&read).unwrap()).unwrap();
    assert_eq!(again, read);
    b["vehicle"]["rear_geometry"] = json!(shape("crossover_front"));
    let found = JobBundle::from_json(b.to_string().as_bytes()).unwrap_err();
    assert!(found.iter().any(|p| p.field == "vehicle.axles.rear.geometry.axle"), "{found:?}");
    b["vehicle"]["wheels"] = json!(4);
    let found = JobBundle::from_json(b.to_string().as_bytes()).unwrap_err();
    assert!(found.iter().any(|p| p.field.contains("vehicle")), "{found:?}");
}

/// How the car stands is the core's to say: what was read, sides apart, rake over the floor; nothing of what was not read.
#[test]
fn a_car_stands_at_what_was_read_and_no_axle_at_what_was_not() {
    use bold_stance_trade::job::stance_at;
    let mut shop = Shop::new();
    let s = stance_at(&shop.bundle.vehicle, &shop.bundle.readings, Visit::Found);
    assert_eq!(
        (s.axles.front.mm, s.axles.rear.mm, s.axles.front.left_over_right_mm),
        (Some(360.0), Some(360.0), Some(0.0))
    );
    // Radii of the two shapes that ship differ by what they differ.
    let r = |a: &str| shape(a).wheel.loaded_radius_mm;
    let by = ((r("ev_multilink_rear") - r("sports_front")) / 2900.0).atan().to_degrees();
    assert!((s.rake_deg.unwrap() - by).abs() < 1e-12);
    let settled = stance_at(&shop.bundle.vehicle, &shop.bundle.readings, Visit::Settled);
    assert_eq!((settled.axles.front.mm, settled.axles.rear.mm, settled.rake_deg), (None, None, None));
    shop.read(Visit::Settled, Axle::Front, Side::Left, Method::HeightHub, "value", "341");
    let settled = stance_at(&shop.bundle.vehicle, &shop.bundle.readings, Visit::Settled);
    // One side alone is all there is of that axle, and says nothing of a difference.
    assert_eq!((settled.axles.front.mm, settled.axles.front.left_over_right_mm), (Some(341.0), None));
    shop.read(Visit::Settled, Axle::Front, Side::Right, Method::HeightHub, "value", "337");
    let settled = stance_at(&shop.bundle.vehicle, &shop.bundle.readings, Visit::Settled);
    assert_eq!((settled.axles.front.mm, settled.axles.front.left_over_right_mm), (Some(339.0), Some(4.0)));
    // A job nobody read: the front is not known, the rear stands as its facts tell.
    let bare = stance_at(&shop.bundle.vehicle, &[], Visit::Found);
    assert_eq!((bare.axles.front.mm, bare.axles.rear.mm, bare.rake_deg), (None, Some(360.0), None));
}

/// The plan's answer stands where its plan puts it.
#[test]
fn an_answer_says_how_the_car_stands_before_and_after() {
    let shop = Shop::new();
    let a = shop.bundle.evaluate(None, &shipped_parts().unwrap(), clock(shop.minute)).unwrap().plan;
    assert_eq!(
        (a.found.mm.front, a.stands.mm.front, a.stands.mm.rear),
        (Some(360.0), Some(340.0), Some(335.0))
    );
    let turn = a.stands.rake_deg.unwrap() - a.found.rake_deg.unwrap();
    assert!((turn + (5.0f64 / 2900.0).to_degrees()).abs() < 1e-3, "5 mm lower behind: {turn}");
}

/// The corner file of a job is asked with what was read on it, the offset of the live axle at its own place.
#[test]
fn a_corner_file_is_asked_with_what_was_read() {
    use bold_stance_trade::job::corner_request;
    let mut shop = Shop::new();
    let ask = |shop: &Shop| {
        let b = &shop.bundle;
        let seen: Vec<_> = b.readings.iter().map(Reading::seen).collect();
        corner_request(&b.vehicle, &b.readings, &seen).unwrap()
    };
    let r = ask(&shop);
    let (front, rear) = (r.read.front.unwrap(), r.read.rear.unwrap());
    assert!(
        (front.left.angles.camber_deg + 0.6).abs() < 1e-9
            && (rear.right.angles.camber_deg + 1.6).abs() < 1e-9
    );
    assert!((front.right.angles.caster_deg - 5.5).abs() < 1e-9 && rear.left.angles.caster_deg == 0.0);
    assert_eq!((r.arrived.left_front, r.axle_offset_mm), (0.0, None));
    // 235/45R18 stands 235 mm wide, whatever the facts of any car have as usual.
    assert_eq!(r.car.facts.tyre_width_mm, 235.0);
    // A height read away from the one the points were taken at is a gain; without one there is none.
    shop.bundle.vehicle.axles.front.height_mm = 350.0;
    assert_eq!(ask(&shop).arrived.right_front, 10.0);
    let unread = corner_request(&shop.bundle.vehicle, &[], &[]).unwrap();
    assert!(unread.arrived.right_front == 0.0 && unread.read.front.is_none());
    // Offset of a live axle behind, which was looked for in front before.
    shop.bundle.vehicle.axles.rear.geometry = Some(shape("leaf_rear"));
    let mut offset = shop.bundle.readings[0].clone();
    (offset.id, offset.axle, offset.side) = (Uuid::from_u128(9), ReadAxle::Rear, ReadSide::Both);
    (offset.quantity, offset.value) = (bold_stance_trade::reading::Quantity::AxleOffset, 12.0);
    shop.bundle.readings.push(offset);
    assert_eq!(ask(&shop).axle_offset_mm, Some(12.0));
    shop.bundle.vehicle.axles.front.geometry = None;
    assert!(corner_request(&shop.bundle.vehicle, &[], &[]).unwrap_err().field == "axles.front.geometry");
}

/// A job of which only some readings were taken, planned and made into a sheet.
fn partly(
    keep: impl Fn(&Reading) -> bool,
) -> (bold_stance_trade::plan::CarAnswer, bold_stance_trade::job::Sheet) {
    let mut shop = Shop::new();
    shop.bundle.readings.retain(|r| keep(r));
    // Toe well out of every window, so that rods have something to do.
    shop.bundle.readings.iter_mut().filter(|r| r.method == Method::ToeConvert).for_each(|r| r.value += 0.4);
    let e = shop.bundle.evaluate(None, &shipped_parts().unwrap(), clock(shop.minute)).unwrap();
    (e.plan, e.sheet)
}

#[test]
fn a_plan_needs_only_what_it_uses_and_turns_nothing_for_what_nobody_read() {
    let heights = |r: &Reading| r.method == Method::HeightHub;
    // A lowering with heights only: no angle is judged, nothing is turned, and what would be read for it is said.
    let (plan, sheet) = partly(heights);
    assert_eq!(plan.verdict.headline.en(), "No angle was read: what is shown is expected");
    assert!(plan.verdict.sentence.en().ends_with("Nothing is turned for what nobody read."));
    assert!(plan.verdict.already_in.is_empty() && plan.orders.iter().all(|o| !o.line.moves()));
    let front = plan.axles.front.as_ref().unwrap();
    assert_eq!(front.expected.len(), 3);
    for e in &front.expected {
        assert!(e.band_if_read_deg < e.band_deg && e.band_deg > 0.3, "{e:?}");
        assert!(e.words.en().contains("not read"), "{}", e.words.en());
    }
    let needs: Vec<_> = sheet.steps.iter().flat_map(|s| &s.needs).map(|n| n.quantity).collect();
    assert!(!needs.is_empty() && needs.iter().all(|q| *q == GateReading::Height), "{needs:?}");
    assert!(!plan.verdict.reached, "nothing that was not read lands");
    // No gate asks for a sweep, and none is there that judges nothing.
    let gates: Vec<_> = sheet.steps.iter().filter(|s| s.kind == StepKind::Gate).collect();
    assert!(gates.iter().all(|g| !g.needs.is_empty() && g.ticks.iter().all(|t| t.id != Tick::Resweep)));
    // A front that is read and off beside a rear of which only heights were read: that rear does not "land".
    let (plan, _) = partly(|r| heights(r) || r.axle == ReadAxle::Front);
    assert_eq!(plan.verdict.axles.rear, Standing::NotRead);
    let says = format!("{} {}", plan.verdict.headline.en(), plan.verdict.sentence.en());
    assert!(!says.contains("rear lands") && !says.contains("All four"), "{says}");
    // A rear camber job without front caster: the front is judged by what was read of it.
    let (plan, _) = partly(|r| r.method != Method::CasterJointLine);
    let front = plan.axles.front.as_ref().unwrap();
    assert_eq!(front.expected.iter().map(|e| e.angle).collect::<Vec<_>>(), [AngleName::Caster]);
    assert!(
        front
            .states
            .iter()
            .filter_map(|s| s.left.as_ref())
            .flat_map(|s| &s.verdicts)
            .all(|v| { v.unread == (v.angle == AngleName::Caster) && (!v.unread || v.off_deg == 0.0) })
    );
    assert_eq!(plan.verdict.not_read.len(), 1);
    // Toe only: only rods are turned.
    let (plan, sheet) =
        partly(|r| r.axle == ReadAxle::Front && matches!(r.method, Method::HeightHub | Method::ToeConvert));
    assert!(plan.axles.rear.is_none());
    let moved: Vec<_> = plan.orders.iter().filter(|o| o.line.moves()).collect();
    assert!(!moved.is_empty() && moved.iter().all(|o| o.line.sets_toe), "{moved:?}");
    assert!(sheet.steps.iter().flat_map(|s| &s.needs).all(|n| n.quantity != GateReading::Caster));
}
