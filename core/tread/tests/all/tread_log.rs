//! Tread logs, rotation, diagnosis and limits: what a specialist does with them.

use bold_stance_tread::*;
use bold_stance_units::problem::Problem;
use bold_stance_units::{DistanceUnit, TreadUnit};
use bold_stance_words::English;
use proptest::prelude::*;
use serde::Deserialize;

fn line(odometer_km: f64, place: Option<TyrePlace>, depths_mm: Option<[f64; 3]>) -> LogEntry {
    LogEntry { odometer_km, place, flipped: false, depths_mm, day: "2026-05-02".into(), note: String::new() }
}

fn tyre(mark: &str, entries: Vec<LogEntry>) -> LoggedTyre {
    LoggedTyre { mark: mark.into(), new_depth_mm: Some(8.0), entries }
}

const LF: Option<TyrePlace> = Some(TyrePlace::LeftFront);

#[test]
fn readings_that_contradict_each_other_are_named() {
    let t = tyre(
        "A1",
        vec![
            line(10_000.0, LF, None),
            line(16_000.0, LF, Some([6.0, 6.2, 6.4])),
            line(15_000.0, LF, Some([5.9, 6.1, 6.3])),
            line(22_000.0, LF, Some([4.5, 7.1, 5.2])),
        ],
    );
    let w = t.warnings(8.0);
    assert_eq!(w.len(), 2, "{w:?}");
    assert!(
        w.iter()
            .any(|x| x.entry == 2 && x.wrong.en().contains("ran back: 15\u{a0}000 km after 16\u{a0}000 km"))
    );
    assert!(w.iter().any(|x| x.entry == 3 && x.wrong.en().contains("centre grew: 7.1 mm, 6.2 mm last time")));
    // Within the scatter of a gauge nothing is said, and deeper than new is said against new.
    let calm = tyre("A2", vec![line(0.0, LF, None), line(100.0, LF, Some([8.4, 8.1, 8.2]))]);
    assert!(calm.warnings(8.0).is_empty());
    let deep = tyre("A3", vec![line(0.0, LF, Some([9.5, 8.0, 8.0]))]);
    assert!(deep.warnings(8.0)[0].wrong.en().contains("when new"));
    // Turned on its rim: the outer groove of before is the inner one of now.
    let mut turned = vec![
        line(0.0, LF, None),
        line(9_000.0, LF, Some([4.0, 5.5, 7.0])),
        line(12_000.0, LF, Some([6.4, 5.0, 3.6])),
    ];
    turned[1].flipped = true;
    assert!(tyre("A4", turned).warnings(8.0).is_empty());
}

#[test]
fn two_tyres_in_one_place_are_named() {
    let log = TreadLog {
        tyres: vec![
            tyre("A", vec![line(0.0, LF, None)]),
            tyre("B", vec![line(10.0, LF, None)]),
            tyre("C", vec![line(9.0, None, None)]),
        ],
        set_at_km: None,
    };
    let w = place_warnings(&log);
    assert_eq!(w.len(), 1);
    assert!(w[0].wrong.en().contains("A and B both run left front"), "{w:?}");
}

#[test]
fn bad_lines_name_their_field() {
    let t = LoggedTyre {
        mark: " ".into(),
        new_depth_mm: Some(40.0),
        entries: vec![line(-5.0, LF, Some([f64::NAN, 3.0, 60.0]))],
    };
    let fields: Vec<String> = t.problems("t").into_iter().map(|p| p.field).collect();
    for f in [
        "t.mark",
        "t.new_depth_mm",
        "t.entries.0.odometer_km",
        "t.entries.0.depths_mm.0",
        "t.entries.0.depths_mm.2",
    ] {
        assert!(fields.iter().any(|x| x == f), "{f} in {fields:?}");
    }
}

// --- CSV -----------------------------------------------------------------------------------------------------------

fn refused(text: &[u8], field: &str) -> Vec<Problem> {
    let p = log_from_csv(text).unwrap_err();
    assert!(p.iter().any(|p| p.field.contains(field)), "{field} in {p:?}");
    p
}

#[test]
fn bad_tables_are_refused_whole_with_line_and_column() {
    refused(b"mark;odometer_km;place\nA;1;left front\n", "line 1");
    refused(b"mark,odometer_km\nA,1\n", "line 1");
    refused(b"mark,odometer_km,place,colour\nA,1,LF,red\n", "line 1");
    refused(b"mark,odometer_km,place\n", "file");
    refused(b"\xff\xfem\0a\0r\0k\0", "line 1");
    let p = refused(
        b"mark,odometer_km,place,inner_mm,centre_mm,outer_mm,flipped\nA,1,LF,,,,\n,x,middle,5,,4,perhaps\n",
        "line 3, odometer_km",
    );
    for f in ["line 3, mark", "line 3, place", "line 3, inner_mm", "line 3, flipped"] {
        assert!(p.iter().any(|p| p.field == f), "{f} in {p:?}");
    }
    let many = format!("mark,odometer_km,place\n{}", "A,1,LF\n".repeat(100_000));
    refused(many.as_bytes(), "file");
    let evil = TreadLog { tyres: vec![tyre("=1+2", vec![line(5.0, LF, None)])], set_at_km: None };
    let text = log_to_csv(&evil, LogUnits::default()).unwrap();
    assert!(text.contains("'=1+2") && !text.contains("\n=1+2"), "no cell starts a formula");
    assert_eq!(log_from_csv(text.as_bytes()).unwrap().tyres, evil.tyres);
}

#[test]
fn words_of_other_hands_are_read() {
    let t = "\u{feff}Mark,Odometer_km,Place,Inner_mm,Centre_mm,Outer_mm\nA,\"12000,5\",lf,\"5,2\",6.0,6.4\nA,14000,off,,,\n";
    let log = log_from_csv(t.as_bytes()).unwrap();
    assert_eq!(log.tyres[0].entries[0].depths_mm, Some([5.2, 6.0, 6.4]));
    assert_eq!(log.tyres[0].entries[0].odometer_km, 12_000.5);
    assert_eq!(log.tyres[0].entries[1].place, None);
    for p in TyrePlace::ALL {
        assert_eq!(TyrePlace::parse(p.name()), Some(p));
    }
}

/// A shop of miles and thirty-seconds gets its log in them, and it comes back as it was.
#[test]
fn the_columns_follow_the_units() {
    let inches = LogUnits { tread: TreadUnit::In32, distance: DistanceUnit::Miles };
    let mut log = TreadLog {
        tyres: vec![tyre("A", vec![line(62_121.0, LF, Some([7.14375, 5.2, 6.4]))])],
        set_at_km: None,
    };
    log.tyres[0].new_depth_mm = Some(8.0);
    let text = log_to_csv(&log, inches).unwrap();
    let head = text.lines().next().unwrap();
    assert_eq!(
        head,
        "mark,new_depth_32nds,odometer_miles,place,flipped,inner_32nds,centre_32nds,outer_32nds,day,note"
    );
    assert!(text.contains(",9,"), "9/32 in is 7.14375 mm: {text}");
    assert_eq!(log_from_csv(text.as_bytes()).unwrap().tyres, log.tyres);
    let typed = b"mark,odometer_miles,place,inner_32nds,centre_32nds,outer_32nds\nA,38600,LF,5,7,8\n";
    let e = log_from_csv(typed).unwrap().tyres[0].entries[0].clone();
    assert_eq!(e.odometer_km, 62_120.678_4);
    assert_eq!(e.depths_mm, Some([3.96875, 5.55625, 6.35]));
    // Miles beside millimetres are a table too; two units of one kind are not, nor what no tyre has.
    assert!(log_from_csv(b"mark,odometer_miles,place,inner_mm,centre_mm,outer_mm\nA,1,LF,5,7,8\n").is_ok());
    refused(b"mark,odometer_miles,place,inner_mm,centre_32nds,outer_mm\nA,1,LF,5,7,8\n", "line 1");
    refused(
        b"mark,odometer_miles,place,inner_32nds,centre_32nds,outer_32nds\nA,1,LF,5,70,8\n",
        "line 2, centre_32nds",
    );
}

fn any_entry() -> impl Strategy<Value = LogEntry> {
    (
        0.0f64..500_000.0,
        proptest::option::of(0usize..4),
        any::<bool>(),
        proptest::option::of([0.0f64..12.0, 0.0..12.0, 0.0..12.0]),
        "[a-z0-9 =,;\"-]{0,12}",
    )
        .prop_map(|(odometer_km, p, flipped, depths_mm, note)| LogEntry {
            odometer_km,
            place: p.map(|i| TyrePlace::ALL[i]),
            flipped,
            depths_mm,
            day: "2026-11-24".into(),
            note: note.trim().into(),
        })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]
    /// A log written and read again is the same log.
    #[test]
    fn csv_round_trip(entries in proptest::collection::vec(any_entry(), 1..8), new in proptest::option::of(4.0f64..12.0)) {
        let log = TreadLog { tyres: vec![LoggedTyre { mark: "S-1".into(), new_depth_mm: new, entries }], set_at_km: None };
        let back = log_from_csv(log_to_csv(&log, LogUnits::default()).unwrap().as_bytes()).unwrap();
        prop_assert_eq!(back.tyres, log.tyres);
    }

    /// Arbitrary bytes never panic and never half import.
    #[test]
    fn noise_is_refused(noise in proptest::collection::vec(any::<u8>(), 0..400)) {
        if let Ok(l) = log_from_csv(&noise) {
            prop_assert!(!l.tyres.is_empty());
        }
    }
}

// --- rotation ------------------------------------------------------------------------------------------------------

fn even(rate: [f64; 4]) -> [[f64; STRIPS]; 4] {
    rate.map(|r| [r; STRIPS])
}

/// Two fast tyres in front, two slow behind: the mean of both rates, by hand.
#[test]
fn a_rotated_set_lasts_by_the_mean_of_its_places() {
    let plans = rotation_plans(&even([0.2, 0.2, 0.1, 0.1]), &[[6.0; STRIPS]; 4], 1000.0, false, false);
    let of = |r: Rotation| plans.iter().find(|p| p.rotation == r).unwrap();
    assert!((of(Rotation::Stay).first_km - 30_000.0).abs() < 1e-6);
    assert!((of(Rotation::Stay).last_km - 60_000.0).abs() < 1e-6);
    // 6 mm at a mean of 0.15 mm per 1000 km.
    assert!((of(Rotation::SameSide).first_km - 40_000.0).abs() < 1_000.0);
    assert!((of(Rotation::CrossBoth).ratio - 4.0 / 3.0).abs() < 0.04);
    assert!((of(Rotation::AcrossAxle).first_km - 30_000.0).abs() < 1e-6, "the same rates on both sides");
    assert!(
        plans
            .windows(2)
            .all(|w| w[0].hindered.is_some() || w[0].first_km >= w[1].first_km || w[1].hindered.is_some())
    );
}

#[test]
fn a_mounted_wheel_keeps_its_inner_side_inner() {
    let mut rate = even([0.1; 4]);
    rate[0][0] = 0.3;
    let left = [[6.0; STRIPS]; 4];
    let plans = rotation_plans(&rate, &left, 1000.0, false, false);
    let of = |r: Rotation| plans.iter().find(|p| p.rotation == r).unwrap().first_km;
    // Only the left front eats its inner edge; crossing to the right it is still that edge that was eaten.
    assert!((of(Rotation::Stay) - 20_000.0).abs() < 1e-6);
    let mean = 6.0 / ((0.3 + 0.1) / 2.0) * 1000.0;
    assert!((of(Rotation::AcrossAxle) - mean).abs() < 1500.0, "{}", of(Rotation::AcrossAxle));
}

#[test]
fn sizes_and_directional_tread_hinder_what_they_must() {
    let can = |staggered, directional| -> Vec<Rotation> {
        rotation_plans(&even([0.1; 4]), &[[5.0; STRIPS]; 4], 8000.0, staggered, directional)
            .into_iter()
            .filter(|p| p.hindered.is_none())
            .map(|p| p.rotation)
            .collect()
    };
    assert_eq!(can(false, false).len(), 6);
    let side = can(false, true);
    assert!(
        side.contains(&Rotation::SameSide)
            && !side
                .iter()
                .any(|r| matches!(r, Rotation::CrossBoth | Rotation::AcrossAxle | Rotation::CrossForward))
    );
    let staggered = can(true, false);
    assert!(staggered.contains(&Rotation::AcrossAxle) && !staggered.contains(&Rotation::SameSide));
    assert_eq!(can(true, true), vec![Rotation::Stay]);
    for r in Rotation::ALL {
        let mut to: Vec<_> = r.goes_to().to_vec();
        to.sort_unstable();
        assert_eq!(to, TyrePlace::ALL.to_vec(), "{r:?} puts one tyre in every place");
    }
}

// --- diagnosis -----------------------------------------------------------------------------------------------------

#[derive(Deserialize)]
struct Case {
    cause: String,
    first: Seen,
    near_miss: Seen,
}

#[test]
fn each_cause_has_a_case_that_finds_it_first_and_a_near_miss_that_does_not() {
    let data = shipped_diagnosis().unwrap();
    let cases: Vec<Case> = serde_json::from_str(include_str!("cases/diagnosis.json")).unwrap();
    for c in &data.causes {
        assert!(cases.iter().any(|k| k.cause == c.id), "no case for {}", c.id);
    }
    for k in &cases {
        let d = diagnose(&data, &k.first, None).unwrap();
        assert_eq!(
            d.causes[0].id,
            k.cause,
            "{:?}",
            d.causes.iter().map(|c| (&c.id, c.share)).collect::<Vec<_>>()
        );
        assert!(d.causes[0].share > 0.4, "{} only {:.2}", k.cause, d.causes[0].share);
        assert!(!d.causes[0].separates.is_empty() && !d.causes[0].speaks_for.is_empty());
        let d = diagnose(&data, &k.near_miss, None).unwrap();
        assert_ne!(d.causes[0].id, k.cause, "near miss");
        let sum: f64 = d.causes.iter().map(|c| c.share).sum();
        assert!(sum > 0.85 && sum <= 1.0 + 1e-9);
    }
}

#[test]
fn the_traps_are_kept_apart() {
    let data = shipped_diagnosis().unwrap();
    let seen =
        |list: &[(&str, &str)]| -> Seen { list.iter().map(|(a, b)| ((*a).into(), (*b).into())).collect() };
    let first = |list: &[(&str, &str)]| diagnose(&data, &seen(list), None).unwrap();
    // Camber at the low height against toe: the feel of the ribs is what is asked for, and what decides.
    let open =
        [("pattern", "inner_edge"), ("height", "lower"), ("camber", "near_zero"), ("toe", "near_zero")];
    let d = first(&open);
    assert_eq!(d.ask_next.as_deref(), Some("feather"));
    let with = |f: &'static str| first(&[open.as_slice(), &[("feather", f)]].concat()).causes[0].id.clone();
    assert_eq!(with("none"), "camber_low");
    assert_eq!(with("rough_inward"), "toe_height");
    // Vibration goes down its own path: it speaks for balance and for nothing that alignment would cure.
    let d = first(&[("pattern", "even"), ("feel", "shimmy")]);
    assert_eq!(d.causes[0].path, "balance");
    let d = first(&[("pattern", "inner_edge"), ("feel", "shimmy")]);
    let for_it = |c: &Ranked| c.speaks_for.iter().any(|f| f.question == "feel");
    assert!(d.causes.iter().all(|c| for_it(c) == (c.path == "balance")), "{:?}", d.causes);
    assert!(data.causes.iter().find(|c| c.id == "balance").unwrap().then.contains("Do not set angles"));
    for id in ["heel_toe", "diagonal"] {
        let c = data.causes.iter().find(|c| c.id == id).unwrap();
        assert!(c.separates.contains("Balance, run-out and dampers do not cause it"));
    }
    // Diagonal wear: replace before aligning. Cords: stop.
    assert!(
        first(&[("pattern", "diagonal"), ("driven", "no")])
            .replace
            .unwrap()
            .en()
            .contains("replace before aligning")
    );
    let d = first(&[("cords", "yes"), ("pattern", "inner_edge")]);
    assert!(d.stop.unwrap().en().contains("not driven on"));
    assert!(first(&[("pattern", "inner_edge")]).stop.is_none());
    // Nothing seen, nothing claimed.
    let d = diagnose(&data, &Seen::new(), None).unwrap();
    assert!(d.replace.is_none() && d.headline.en().contains("Say what"));
}

/// Depths at three grooves say where the tread is gone, beyond the scatter of a gauge; what is pressed counts more.
#[test]
fn measured_depths_stand_in_for_the_pattern() {
    assert_eq!(pattern_of_depths([3.0, 4.5, 5.0]), Some("inner_edge"));
    assert_eq!(pattern_of_depths([5.0, 4.5, 3.0]), Some("outer_edge"));
    assert_eq!(pattern_of_depths([3.0, 4.5, 3.2]), Some("both_edges"));
    assert_eq!(pattern_of_depths([4.5, 3.0, 4.2]), Some("centre"));
    assert_eq!(pattern_of_depths([4.0, 4.3, 4.6]), None, "within the scatter");
    let data = shipped_diagnosis().unwrap();
    let seen: Seen = [("camber".into(), "negative".into()), ("feather".into(), "none".into())].into();
    let d = diagnose(&data, &seen, Some([3.0, 4.5, 5.0])).unwrap();
    assert_eq!(
        (d.causes[0].id.as_str(), d.measured_pattern.as_deref()),
        ("camber_negative", Some("inner_edge"))
    );
    let labels: Vec<&str> = d.causes[0].speaks_for.iter().map(|f| f.label.as_str()).collect();
    assert!(labels.contains(&"inner edge") && labels.contains(&"camber past −0.75°"), "{labels:?}");
    let pressed: Seen = [("pattern".into(), "diagonal".into())].into();
    assert_eq!(diagnose(&data, &pressed, Some([3.0, 4.5, 5.0])).unwrap().causes[0].id, "diagonal");
    let e = diagnose(&data, &seen, Some([3.0, f64::NAN, 5.0])).unwrap_err();
    assert_eq!(e[0].field, "depths_mm.1");
}

#[test]
fn answers_that_do_not_exist_are_refused_at_their_question() {
    let data = shipped_diagnosis().unwrap();
    let seen: Seen = [("pattern".into(), "purple".into()), ("weather".into(), "wet".into())].into();
    let p = diagnose(&data, &seen, None).unwrap_err();
    assert!(p.iter().any(|p| p.field == "seen.pattern" && p.right.en().contains("inner_edge")));
    assert!(p.iter().any(|p| p.field == "seen.weather"));
}

/// 49 CFR 570.9: 2/32 in; Directive 89/459/EEC: 1.6 mm. An inch is 25.4 mm exactly.
#[test]
fn limits_are_those_of_the_law() {
    let l = shipped_limits().unwrap();
    let of = |id: &str| l.iter().find(|l| l.id == id).unwrap();
    assert!((of("us").limit_mm - 2.0 / 32.0 * 25.4).abs() < 1e-12);
    assert!((of("us").winter_mm - 4.0 / 32.0 * 25.4).abs() < 1e-12);
    assert_eq!(of("eu").limit_mm, 1.6);
    assert!(l.iter().all(|l| l.winter_mm >= l.limit_mm && !l.law.is_empty()));
}
