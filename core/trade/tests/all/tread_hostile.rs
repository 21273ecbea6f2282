//! Whatever a log says, in whatever order, the bench answers with figures that can be read or with the field that is wrong.

use crate::common;
use bold_stance_car::vehicle::{Axles, HeightShare};
use bold_stance_trade::plan::{PlanResult, plan};
use bold_stance_tread::*;
use bold_stance_words::English;
use common::{truck, worn};
use proptest::prelude::*;
use std::sync::OnceLock;

/// The truck lifted, once for every case.
fn lifted() -> &'static PlanResult {
    static ONCE: OnceLock<PlanResult> = OnceLock::new();
    ONCE.get_or_init(|| {
        let mut i = truck();
        i.own_mut().settle_mm = 9.0;
        i.own_mut().load_mm = 20.0;
        plan(&i, &[]).unwrap()
    })
}

fn tyres() -> CarTyres {
    serde_json::from_str(
        r#"{"sizes":{"front":"285/70R17","rear":"285/70R17"},"class":"all_terrain","depth_mm":10.0,"limit_mm":1.6,"load_n":{"front":7000,"rear":5600},
        "pressure_kpa":{"front":240,"rear":240},"placard_kpa":{"front":260,"rear":260},"drive_front":0.5,"brake_front":0.64,"use":"mixed",
        "load_transfer_per_g":0.85,"roll_camber":{"front":2.5,"rear":0},"price":250}"#,
    )
    .unwrap()
}

fn entries() -> impl Strategy<Value = Vec<LogEntry>> {
    let one = (
        prop_oneof![0.0f64..200_000.0, Just(0.0), Just(3_000_000.0)],
        proptest::option::of(0usize..4),
        any::<bool>(),
        proptest::option::of([0.0f64..14.0, 0.0..14.0, 0.0..14.0]),
    )
        .prop_map(|(odometer_km, p, flipped, depths_mm)| LogEntry {
            odometer_km,
            place: p.map(|i| TyrePlace::ALL[i]),
            flipped,
            depths_mm,
            day: String::new(),
            note: String::new(),
        });
    proptest::collection::vec(one, 0..7)
}

fn readable(w: &CarWear) -> Result<(), TestCaseError> {
    prop_assert_eq!(w.tyres.len(), 4);
    for t in &w.tyres {
        prop_assert!(t.depth_now_mm.iter().all(|d| d.is_finite() && *d >= 0.0));
        prop_assert!(t.lead < t.scenes.len());
        for s in &t.scenes {
            let b = s.band_km;
            prop_assert!(b.low.is_finite() && b.median.is_finite() && b.high.is_finite(), "{:?}", b);
            prop_assert!(b.low <= b.median && b.median <= b.high, "{:?}", b);
            // From now on: nobody drives backwards, but for what rounding leaves.
            prop_assert!(b.low > -1e-6, "{:?}", b);
            prop_assert!(s.rate_mm_per_1000km.iter().all(|r| r.is_finite() && *r >= 0.0));
            prop_assert!(s.groove_km.is_finite() && s.groove_km >= 0.0);
            prop_assert!(
                s.ratio_to_lead.low <= s.ratio_to_lead.ratio && s.ratio_to_lead.ratio <= s.ratio_to_lead.high
            );
        }
        for l in &t.levers {
            prop_assert!(l.gain_km.is_finite() && l.saves_a_year.is_none_or(f64::is_finite));
        }
        if let Some(l) = &t.learned {
            prop_assert!(l.km >= 0.0 && l.factor.iter().all(|f| f.is_finite() && *f > 0.0));
            prop_assert!(l.after.high.is_finite() && l.before.high.is_finite());
        }
        // A tyre at its limit is replaced first.
        prop_assert_eq!(t.done, t.forecast_new);
    }
    prop_assert_eq!(w.rotations.len(), 6);
    Ok(())
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(96))]

    #[test]
    fn any_log_ends_in_figures_that_can_be_read(
        a in entries(), b in entries(), set in proptest::option::of(0.0f64..250_000.0), new in proptest::option::of(6.0f64..14.0),
    ) {
        let tyre = |mark: &str, entries| LoggedTyre { mark: mark.into(), new_depth_mm: new, entries };
        let log = TreadLog { tyres: vec![tyre("A", a), tyre("B", b)], set_at_km: set };
        let plans = [Some(lifted()), Some(lifted())];
        let w = worn(&tyres(), plans, None, &log).unwrap();
        readable(&w)?;
        for x in &w.warnings {
            let of = log.tyres.iter().find(|t| t.mark == x.mark);
            prop_assert!(of.is_some_and(|t| x.entry < t.entries.len()), "{:?}", x);
            prop_assert!(!x.wrong.en().is_empty() && !x.right.en().is_empty());
        }
        // The same log again gives the same answer, whichever core was first.
        let again = worn(&tyres(), plans, None, &log).unwrap();
        prop_assert_eq!(serde_json::to_string(&w).unwrap(), serde_json::to_string(&again).unwrap());
    }

    /// Every tyre that passes its own check can be forecast; every other is refused at fields that exist.
    #[test]
    fn any_tyres_are_forecast_or_refused_at_their_fields(
        load in [100.0f64..50_000.0, 100.0..50_000.0], p in [20.0f64..1000.0, 20.0..1000.0], depth in -1.0f64..30.0,
        limit in -1.0f64..25.0, drive in -0.5f64..1.5, torque in 0.0f64..4.0, lt in -1.0f64..3.0, own in 500.0f64..500_000.0,
        size in "(185/65R15|285/70R17|255/45R19|nonsense|0/0R0)", share in 0.0f64..100.0,
    ) {
        let mut t = tyres();
        let of = |[front, rear]: [f64; 2]| Axles { front, rear };
        (t.load_n, t.pressure_kpa, t.depth_mm, t.limit_mm) = (of(load), of(p), depth, limit);
        (t.drive_front, t.torque_factor, t.load_transfer_per_g, t.own_life_km) = (drive, torque, lt, Some(own));
        t.sizes.rear = size;
        t.heights = vec![HeightShare { state: "settled".into(), share }, HeightShare { state: "loaded".into(), share: 5.0 }];
        let plans = [Some(lifted()), Some(lifted())];
        match worn(&t, plans, Some(("other", plans)), &TreadLog::default()) {
            Ok(w) => {
                prop_assert!(t.problems().is_empty());
                readable(&w)?;
                prop_assert!(w.tyres.iter().all(|x| x.scenes.last().is_some_and(|s| s.id == "other")));
            }
            Err(list) => {
                prop_assert!(!list.is_empty());
                for x in list {
                    prop_assert!(x.field.starts_with("tyres."), "{:?}", x);
                    prop_assert!(!x.wrong.en().is_empty() && !x.right.en().is_empty(), "{:?}", x);
                }
            }
        }
    }
}

/// An edit of one tyre's log moves that tyre only.
#[test]
fn one_tyres_log_says_nothing_of_another() {
    let line = |odometer_km: f64, depths_mm| LogEntry {
        odometer_km,
        place: Some(TyrePlace::LeftFront),
        flipped: false,
        depths_mm,
        day: String::new(),
        note: String::new(),
    };
    let log = TreadLog {
        tyres: vec![LoggedTyre {
            mark: "A".into(),
            new_depth_mm: Some(10.0),
            entries: vec![line(0.0, None), line(9000.0, Some([7.0, 7.6, 7.7]))],
        }],
        set_at_km: None,
    };
    let plans = [Some(lifted()), Some(lifted())];
    let (with, without) = (
        worn(&tyres(), plans, None, &log).unwrap(),
        worn(&tyres(), plans, None, &TreadLog::default()).unwrap(),
    );
    let text = |w: &CarWear, p: TyrePlace| {
        serde_json::to_string(w.tyres.iter().find(|t| t.place == p).unwrap()).unwrap()
    };
    assert_ne!(text(&with, TyrePlace::LeftFront), text(&without, TyrePlace::LeftFront));
    for p in [TyrePlace::RightFront, TyrePlace::LeftRear, TyrePlace::RightRear] {
        assert_eq!(text(&with, p), text(&without, p), "{p:?}");
    }
}
