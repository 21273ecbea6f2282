//! Every message the core says is in the language's file and nothing else is; every one reads in every unit with nothing of
//! the other unit left; and a language that is no language at all, made from the file, shows that no English stands anywhere
//! else.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_docs)]

#[path = "../../core/trade/tests/all/common/mod.rs"]
mod common;
#[path = "../../core/trade/tests/all/stage/mod.rs"]
mod stage;
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::vehicle::Measured;
use bold_stance_kinematics::geometry::Side;
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::part::{Part, shipped_parts};
use bold_stance_trade::plan::{
    CarInput, Filters, PlanInput, SideReadings, Unread, car_fitted_parts, plan_car, search_car,
};
use bold_stance_trade::reading::{
    EntryKind, Known, Quantity, RawEntry, parse_entries, picture, shipped_methods, value, words,
};
use bold_stance_trade::sheet::{job_cautions, sheet};
use bold_stance_units::LengthUnit;
use bold_stance_units::said::{Arg, Said, said};
use bold_stance_words::{AngleForm, DistanceUnit, LoadUnit, PressureUnit, TreadUnit, Units, Voice, english};
use common::{both_axles, car, electric_rear, truck};
use serde::Serialize;
use serde_json::Value;
use std::collections::BTreeSet;
use std::path::{Path, PathBuf};

const FILE: &str = include_str!("../lang/en.ftl");

fn ids_of_file() -> BTreeSet<String> {
    FILE.lines()
        .filter(|l| l.starts_with(|c: char| c.is_ascii_lowercase()))
        .filter_map(|l| l.split_once('=').map(|(id, _)| id.trim().to_owned()))
        .collect()
}

fn sources(dir: &Path, out: &mut Vec<PathBuf>) {
    for e in std::fs::read_dir(dir).unwrap() {
        let p = e.unwrap().path();
        if p.is_dir() {
            sources(&p, out);
        } else if p.extension().is_some_and(|x| x == "rs") {
            out.push(p);
        }
    }
}

fn code() -> String {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("..");
    let mut all = Vec::new();
    for c in ["core", "app/server/src", "app/store/src", "app/cli/src"] {
        sources(&root.join(c), &mut all);
    }
    // Tests within a file say things nobody else does.
    all.iter()
        .map(|p| {
            std::fs::read_to_string(p).unwrap().split("#[cfg(test)]\nmod tests").next().unwrap().to_owned()
        })
        .collect::<Vec<_>>()
        .join("\n")
}

#[test]
fn what_is_said_is_in_the_file_and_what_is_in_the_file_is_said() {
    let (ids, code) = (ids_of_file(), code());
    assert!(ids.len() > 150, "{}", ids.len());
    let mut said: Vec<&str> = code.split("said(\"").skip(1).filter_map(|t| t.split('"').next()).collect();
    said.retain(|id| !["sentences", "text"].contains(id));
    let missing: Vec<&&str> = said.iter().filter(|id| !ids.contains(**id)).collect();
    assert!(missing.is_empty(), "said and not in the file: {missing:?}");
    // Messages by literal id somewhere; words by their word.
    let words = |id: &str| {
        id.strip_prefix("word-").is_some_and(|w| {
            [w.to_owned(), w.replace('-', "_"), w.replace('-', " ")]
                .iter()
                .any(|w| code.contains(&format!("\"{w}\"")))
        })
    };
    let idle: Vec<&String> = ids
        .iter()
        .filter(|id| !id.starts_with("list-") && !code.contains(&format!("\"{id}\"")) && !words(id))
        .collect();
    assert!(idle.is_empty(), "in the file and never said: {idle:?}");
}

/// Every message in a document, with those inside others.
fn messages(v: &Value, out: &mut Vec<Said>) {
    match v {
        Value::Array(a) => a.iter().for_each(|x| messages(x, out)),
        Value::Object(o) => {
            if o.contains_key("say")
                && let Ok(s) = serde_json::from_value::<Said>(v.clone())
            {
                out.push(s);
            }
            o.values().for_each(|x| messages(x, out));
        }
        _ => {}
    }
}

fn collect<T: Serialize>(v: &T, out: &mut Vec<Said>) {
    messages(&serde_json::to_value(v).unwrap(), out);
}

fn on(id: &str, adjusters: bool, change: f64) -> PlanInput {
    let g = shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry;
    let own = Corner::of(&g, Side::Left).wheel(0.0, 0.0).unwrap().or_unsteered();
    let read = SideReadings {
        height_mm: 500.0,
        angles: Measured { camber_deg: own.camber_deg - 0.7, caster_deg: own.caster_deg, toe_deg: 0.2 },
        sigma: bold_stance_car::fit::Sigmas::default(),
        unread: Unread::default(),
    };
    let list = if adjusters { bold_stance_car::adjuster::default_adjusters(4.0) } else { Vec::new() };
    let mut i = PlanInput::unchanged(g, 2900.0, 500.0, list, [read, read], shipped_aims().unwrap().remove(0));
    i.own_mut().height_change_mm = change;
    i
}

/// What the core says of cars of every kind: reached, short, fouled, stopped, refused, and each one's sheet and sets.
fn everything_said() -> Vec<Said> {
    let parts: Vec<Part> = shipped_parts().unwrap();
    let mut cars: Vec<CarInput> =
        vec![both_axles(), car(Some(&truck()), None), car(None, Some(&electric_rear()))];
    for lift in [-60.0, 120.0, 280.0] {
        let mut c = both_axles();
        c.plan.axles.front.height_change_mm = lift;
        c.plan.axles.rear.height_change_mm = lift / 2.0;
        c.plan.axles.rear.fitted = vec!["rear-camber-arm".into(), "rear-toe-arm".into()];
        c.plan.axles.front.ways = serde_json::from_str(r#"[{"kind":"body_lift","gain_mm":25}]"#).unwrap();
        let limits = &mut c.base.axles.front.as_mut().unwrap().limits;
        (limits.droop_mm, limits.bump_mm, limits.arch_front_mm, limits.arch_rear_mm) =
            (Some(80.0), Some(60.0), Some(12.0), Some(40.0));
        limits.bucket = Some([0.0, 400.0, 700.0]);
        limits.shaft_inner = Some([0.0, 150.0, 350.0]);
        cars.push(c);
    }
    let mut settled = both_axles();
    settled.plan.aim.judged_at = bold_stance_trade::aim::JudgedAt::Settled;
    settled.plan.axles.front.fitted = vec!["offset-upper-arm@7".into(), "upper-cam-kit".into()];
    settled.base.axles.front.as_mut().unwrap().read.left.height_mm = 390.0;
    cars.push(settled);
    for (id, rear) in [
        ("live_front", false),
        ("compact_strut_front", false),
        ("semi_trailing_rear", true),
        ("twist_beam_rear", true),
    ] {
        let mut i = on(id, false, 40.0);
        if id == "live_front" {
            i.axle_offset_mm = Some(-20.0);
            i.fitted = vec!["adjustable-track-bar".into()];
        }
        cars.push(if rear { car(None, Some(&i)) } else { car(Some(&i), None) });
    }
    let mut out = Vec::new();
    for c in &cars {
        match plan_car(c, &parts) {
            Ok(answer) => {
                collect(&answer, &mut out);
                collect(&sheet(c, &answer, &car_fitted_parts(c, &parts)), &mut out);
            }
            Err(list) => collect(&list, &mut out),
        }
    }
    for (c, axle) in [
        (&cars[0], bold_stance_kinematics::geometry::Axle::Front),
        (&cars[2], bold_stance_kinematics::geometry::Axle::Rear),
    ] {
        for f in [
            Filters::default(),
            Filters { budget: Some(0.0), ..Filters::default() },
            Filters { most_parts: Some(1), ..Filters::default() },
        ] {
            collect(&search_car(c, axle, &f, None, &parts, &|_| true).unwrap(), &mut out);
        }
    }
    let mut bad = both_axles();
    bad.plan.axles.front.height_change_mm = 9000.0;
    bad.plan.aim.camber_deg = [-90.0, 0.0];
    bad.base.axles.front.as_mut().unwrap().read.left.sigma.toe_deg = f64::NAN;
    collect(&plan_car(&bad, &parts).unwrap_err(), &mut out);
    collect(&job_cautions(), &mut out);
    readings_said(&mut out);
    corner_files_said(&mut out);
    tread_said(&cars, &parts, &mut out);
    out
}

/// The corner file of every shape that ships, as it came and at heights either way, with readings far from the points.
fn corner_files_said(out: &mut Vec<Said>) {
    use bold_stance_car::fit::{Knowledge, Sigmas};
    use bold_stance_car::metrics::{CornerFileRequest, WheelRead, corner_file};
    use bold_stance_car::vehicle::{
        Axles, Car, CarFacts, Gains, Measured, PlannedHeights, Sides, TurnRecord,
    };
    use bold_stance_kinematics::geometry::Axle;
    let all = shipped_archetypes().unwrap();
    let of = |axle: Axle| all.iter().filter(move |a| a.geometry.axle == axle);
    let rear = |i: usize| of(Axle::Rear).nth(i % of(Axle::Rear).count()).unwrap().geometry.clone();
    for (i, a) in of(Axle::Front).enumerate() {
        for (n, height) in [-50.0, 0.0, 80.0, 400.0].into_iter().enumerate() {
            let bare = n == 1 && i == 0;
            let mut facts = CarFacts { lock_deg: 33.0, ..CarFacts::default() };
            facts.turns = vec![TurnRecord { turns: 2.0, height_change_mm: 9.5 }; n];
            let far = WheelRead {
                angles: Measured { camber_deg: -4.5, caster_deg: 0.0, toe_deg: 0.9 },
                sigma: Sigmas { camber_deg: 0.1, caster_deg: 0.0, toe_deg: 0.05 },
            };
            let request = CornerFileRequest {
                car: Car {
                    front: a.geometry.clone(),
                    rear: (!bare).then(|| rear(i + n)),
                    wheelbase_mm: 2850.0,
                    facts,
                },
                arrived: Gains { left_front: 12.0 * n as f64, ..Gains::default() },
                planned: (height != 0.0).then(|| PlannedHeights::gains(height, height / 2.0).settling(3.0)),
                read: Axles { front: None, rear: (n == 2).then_some(Sides { left: far, right: far }) },
                axle_offset_mm: (n % 2 == 0).then_some(14.0 * (n as f64 - 1.0)),
                wheelbases_mm: (n == 3).then_some(Sides { left: 2850.0, right: 2841.0 }),
                set: Axles::default(),
                knowledge: Axles { front: Knowledge::Taped, rear: Knowledge::Taped },
            };
            match corner_file(&request) {
                Ok(file) => collect(&file, out),
                Err(list) => collect(&list, out),
            }
        }
        let mut afloat = a.geometry.clone();
        afloat.wheel.loaded_radius_mm += 7.0;
        collect(&afloat.remarks(), out);
    }
}

/// The tyres of planned cars with logs that agree and logs that do not, and every cause of wear there is an answer to.
fn tread_said(cars: &[CarInput], parts: &[Part], out: &mut Vec<Said>) {
    use bold_stance_car::vehicle::{Axles, HeightShare, Rotated, Use};
    use bold_stance_tread::{
        CarTyres, LogEntry, LoggedTyre, TreadLog, TyreClass, TyrePlace, UseMix, diagnose, shipped_diagnosis,
    };
    let tyres = CarTyres {
        sizes: Axles { front: "285/70R17".into(), rear: "265/70R17".into() },
        class: TyreClass::AllTerrain,
        depth_mm: 11.0,
        limit_mm: 1.6,
        load_n: Axles { front: 6200.0, rear: 4100.0 },
        pressure_kpa: Axles { front: 210.0, rear: 260.0 },
        placard_kpa: Axles { front: 260.0, rear: 260.0 },
        drive_front: 0.0,
        brake_front: 0.65,
        torque_factor: 1.0,
        regen: false,
        use_: UseMix::One(Use::Trail),
        load_transfer_per_g: 0.85,
        roll_camber: Axles { front: 2.5, rear: 0.0 },
        own_life_km: None,
        grade: None,
        heights: vec![
            HeightShare { state: "planned".into(), share: 30.0 },
            HeightShare { state: "settled".into(), share: 70.0 },
        ],
        rotated: Rotated::Never,
        rotate_every_km: 8000.0,
        directional: true,
        worn_dampers: true,
        price: 190.0,
        yearly_km: 15_000.0,
    };
    let line = |km: f64, place: TyrePlace, d: Option<[f64; 3]>| LogEntry {
        odometer_km: km,
        place: Some(place),
        flipped: false,
        depths_mm: d,
        day: String::new(),
        note: String::new(),
    };
    let log = |mark: &str, lines: Vec<LogEntry>| LoggedTyre {
        mark: mark.into(),
        new_depth_mm: None,
        entries: lines,
    };
    let (lf, rr) = (TyrePlace::LeftFront, TyrePlace::RightRear);
    let logs = [
        TreadLog::default(),
        TreadLog {
            tyres: vec![
                log(
                    "A",
                    vec![line(10_000.0, lf, Some([10.9; 3])), line(16_000.0, lf, Some([9.0, 9.9, 10.2]))],
                ),
                log("B", vec![line(10_000.0, rr, Some([7.0; 3])), line(9000.0, rr, None)]),
                log(
                    "C",
                    vec![line(10_000.0, rr, Some([13.0; 3])), line(12_000.0, rr, Some([9.0, 14.0, 9.0]))],
                ),
                log("D", vec![line(10_000.0, lf, Some([6.0; 3])), line(15_000.0, lf, Some([5.9, 5.7, 2.0]))]),
            ],
            set_at_km: Some(11_000.0),
        },
    ];
    for c in cars.iter().take(3) {
        let Ok(answer) = plan_car(c, parts) else { continue };
        let axles = [answer.axles.front.as_ref(), answer.axles.rear.as_ref()];
        for l in &logs {
            for other in [None, Some(("Another", axles))] {
                match common::worn(&tyres, axles, other, l) {
                    Ok(w) => collect(&w, out),
                    Err(list) => collect(&list, out),
                }
            }
        }
    }
    let data = shipped_diagnosis().unwrap();
    collect(&diagnose(&data, &std::collections::BTreeMap::new(), None).unwrap(), out);
    for q in &data.questions {
        for a in &q.answers {
            let seen = [(q.id.clone(), a.id.clone())].into_iter().collect();
            collect(&diagnose(&data, &seen, Some([3.0, 5.0, 6.0])).unwrap(), out);
        }
    }
}

/// What is said of readings: every suspicion of its case, the picture of its visit, and every method's reading worked out.
fn readings_said(out: &mut Vec<Said>) {
    for (rule, (yes, no)) in &stage::cases::cases() {
        for play in yes.iter().chain(no) {
            let mut s = stage::Stage::new();
            play(&mut s);
            collect(&s.found(*rule), out);
            collect(&s.with(picture), out);
            for r in &s.readings {
                collect(&(&r.corrections, &r.also), out);
            }
        }
    }
    for q in [
        Quantity::FloorToArch,
        Quantity::SetBack,
        Quantity::AxleOffset,
        Quantity::FloorSlope,
        Quantity::Thrust,
    ] {
        for v in [-3.0, 0.0, 3.0] {
            collect(&words(q, v), out);
        }
    }
    // Numbers as a slip of the hand has them: whatever is refused says why.
    let methods = shipped_methods().unwrap();
    for m in &methods {
        for given in ["1", "400", "-30", "0"] {
            let raw: Vec<RawEntry> = m
                .entries
                .iter()
                .filter(|e| e.kind != EntryKind::Choice)
                .map(|e| RawEntry::new(&e.name, given))
                .collect();
            match parse_entries(m, &raw, LengthUnit::Mm) {
                Ok((g, _, _)) => match value(m.id, &g, &Known { side: Some(Side::Left), swept: None }) {
                    Ok(r) => collect(&(&r.notes, &r.also, &r.corrections), out),
                    Err(p) => collect(&p, out),
                },
                Err(p) => collect(&p, out),
            }
        }
    }
}

/// What must not stand in a text of these units.
fn strangers(u: &Units) -> Vec<&'static str> {
    let mut out = Vec::new();
    match u.length {
        // A depth of tread in thirty-seconds is in inches too.
        LengthUnit::Mm if u.tread == TreadUnit::Mm => out.extend([" in ", " in."]),
        LengthUnit::Mm => {}
        LengthUnit::In if u.tread == TreadUnit::In32 => out.push(" mm"),
        LengthUnit::In => {}
    }
    match u.pressure {
        PressureUnit::Kpa => out.extend([" psi", " bar"]),
        PressureUnit::Bar => out.extend([" psi", " kPa"]),
        PressureUnit::Psi => out.extend([" kPa", " bar"]),
    }
    match u.load {
        LoadUnit::Newton => out.push(" lb"),
        LoadUnit::Kg => out.extend([" lb", " N "]),
        LoadUnit::Lb => out.extend([" kg", " N "]),
    }
    out.push(if u.distance == DistanceUnit::Km { " miles" } else { " km" });
    // A fine length in inches is told to a thirty-second too.
    if u.tread == TreadUnit::Mm && u.length == LengthUnit::Mm {
        out.push("/32 in");
    }
    out
}

/// A message whose names and texts say nothing: what is left in words came from the language.
fn nameless(s: &Said) -> Said {
    let arg = |a: &Arg| match a {
        Arg::Name(_) => Arg::Name("7".into()),
        Arg::Said(x) => Arg::Said(Box::new(nameless(x))),
        Arg::List(l) => Arg::List(l.iter().map(nameless).collect()),
        other => other.clone(),
    };
    Said { id: s.id.clone(), args: s.args.iter().map(|(k, a)| (k.clone(), arg(a))).collect() }
}

#[test]
fn everything_said_reads_in_every_unit_with_nothing_of_the_other_left() {
    let all = everything_said();
    let ids: BTreeSet<String> = all.iter().map(|s| s.id.to_string()).collect();
    assert!(all.len() > 3000 && ids.len() > 90, "{} messages, {} kinds: {ids:?}", all.len(), ids.len());
    for u in Units::all() {
        let voice = english(u);
        for s in &all {
            let text = voice.say(&nameless(s));
            assert!(
                s.id == "text" || s.id == "sentences" || voice.knows(&s.id),
                "{} is not in the file",
                s.id
            );
            for bad in ["{", "}", "FluentNone", "-0", "−0.0°", "NaN", "  ", ".."] {
                assert!(!text.contains(bad), "{bad:?} in {text:?} of {s:?}");
            }
            // A preposition is no inch: only a number before it makes it one.
            let in_units = strangers(&u).into_iter().find(|b| {
                text.match_indices(b).any(|(at, _)| text[..at].ends_with(|c: char| c.is_ascii_digit()))
            });
            // What was typed in which unit is what this one is about.
            let about_units = s.id.starts_with("odd-inches") || s.id.starts_with("right-");
            assert!(about_units || in_units.is_none(), "{in_units:?} in {text:?} of {s:?} in {u:?}");
            if u.angle == AngleForm::Minutes {
                let decimal = text.match_indices('°').any(|(at, _)| {
                    let number: String =
                        text[..at].chars().rev().take_while(|c| c.is_ascii_digit() || *c == '.').collect();
                    number.contains('.')
                });
                // A cam's own scale stays as it is stamped.
                let dial = [
                    "order",
                    "amount-degrees",
                    "step-",
                    "sentences",
                    "name-order",
                    "side-orders",
                    "orders",
                    "first-",
                    "car-first",
                ];
                assert!(!decimal || dial.iter().any(|d| s.id.starts_with(d)), "{text:?} of {}", s.id);
            }
        }
    }
}

/// The file with every letter of its text put into another alphabet, everything Fluent reads left alone.
fn pseudo() -> String {
    let other = |c: char| match c {
        'a'..='z' => char::from_u32(0x0430 + (c as u32 - 'a' as u32)).unwrap(),
        'A'..='Z' => char::from_u32(0x0410 + (c as u32 - 'A' as u32)).unwrap(),
        c => c,
    };
    let mut out = String::new();
    let mut depth = 0;
    for line in FILE.lines() {
        if line.starts_with('#') {
            continue;
        }
        let mut rest = line;
        if depth == 0
            && line.starts_with(|c: char| c.is_ascii_lowercase())
            && let Some((id, value)) = line.split_once('=')
        {
            out += &format!("{id}=");
            rest = value;
        } else if depth > 0 && line.trim_start().starts_with(['[', '*']) {
            // A variant: its key is the core's word.
            let (key, value) = line.split_once(']').unwrap();
            out += &format!("{key}]");
            let mut inner = 0;
            for c in value.chars() {
                inner += i32::from(c == '{');
                out.push(if inner > 0 { c } else { other(c) });
                inner -= i32::from(c == '}');
            }
            depth += inner;
            out.push('\n');
            continue;
        }
        for c in rest.chars() {
            depth += i32::from(c == '{');
            out.push(if depth > 0 { c } else { other(c) });
            depth -= i32::from(c == '}');
        }
        out.push('\n');
    }
    out
}

#[test]
fn another_language_is_one_file() {
    for u in [Units::default(), Units::inches()] {
        let voice = Voice::new("en", &pseudo(), u).unwrap();
        let mut seen = 0;
        for s in everything_said() {
            let text = voice.say(&nameless(&s));
            let english: Vec<String> = text
                .split(|c: char| !c.is_ascii_alphabetic())
                .filter(|w| {
                    w.len() > 1
                        && !["mm", "m", "in", "ft", "km", "miles", "kg", "lb", "kPa", "psi"].contains(w)
                })
                .map(str::to_owned)
                .collect();
            assert!(english.is_empty(), "{english:?} in {text:?} of {s:?}");
            seen += usize::from(text.chars().any(|c| ('\u{0410}'..'\u{0450}').contains(&c)));
        }
        assert!(seen > 2000, "{seen}");
    }
    assert!(Voice::new("en", "broken = { ", Units::default()).is_err());
    // What a file lacks says its id, so that somebody sees it.
    let bare = Voice::new("en", "leave = stay", Units::default()).unwrap();
    assert_eq!(bare.say(&said("order-to")), "order-to");
}

#[test]
fn sentences_read_as_they_are_meant() {
    let v = english(Units::default());
    let i = english(Units::inches());
    let first = said("part-named").name("name", "Offset upper arm");
    let lists = said("reason-recovers").list(
        "each",
        vec![
            said("of-angle").miss_deg("by", 0.9).word("angle", "camber"),
            said("of-angle").miss_deg("by", 0.04).word("angle", "toe"),
        ],
    );
    assert_eq!(v.say(&lists), "Recovers 0.9° of camber and 0.04° of toe.");
    let turns = said("order")
        .say("amount", said("amount-turns").name("turns", "1 3/4").count("n", 2))
        .word("way", "longer");
    assert_eq!(v.say(&turns), "1 3/4 turns longer");
    let notch = said("amount-notches").count("n", 1);
    assert_eq!(
        (v.say(&notch), v.say(&said("amount-notches").count("n", 2))),
        ("1 notch".into(), "2 notches".into())
    );
    assert_eq!(v.say(&said("search-first").say("set", first)), "First: offset upper arm.");
    let shim = said("step-shim").set_mm("mm", 3.0);
    assert_eq!((v.say(&shim), i.say(&shim)), ("one 3.0 mm shim".into(), "one 0.118 in shim".into()));
    let far = said("watch-far").mm("by", 120.0).word("way", "lower").mm("design", 498.0);
    assert!(
        i.say(&far)
            .starts_with("It stands 4 3/4 in lower than where its points were taken, hub to arch 19 5/8 in:")
    );
    let mut doc = serde_json::json!({"a": [far, "x"], "say": 3, "with": {"say": "leave"}});
    v.speak(&mut doc);
    assert_eq!((&doc["a"][1], &doc["say"], &doc["with"]), (&"x".into(), &3.into(), &"leave".into()));
}
