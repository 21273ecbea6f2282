//! What the tools show, read with the program's own methods: each method's value and the doubt it states hold.
#![allow(clippy::unwrap_used, clippy::panic)]

use bold_stance_car::archetype::{Archetype, shipped_archetypes};
use bold_stance_car::fit::{Knowledge, spreads};
use bold_stance_car::vehicle::{Axles, Measured, Sides, anchor};
use bold_stance_kinematics::geometry::Axle;
use bold_stance_kinematics::linkage::Linkage;
use bold_stance_practice::{Floor, Hand, Look, RunOut, Standing, Swing, Tools, WheelStands, shows, truth_of};
use bold_stance_trade::job::{VehicleFacts, reading_car};
use bold_stance_trade::reading::{
    Answers, Jack, Method, MethodInfo, Place, PrepareItem, Prepared, Quantity, RawEntry, ReadAxle, ReadSide,
    ReadingCar, Take, Taken, lip_circle_mm, shipped_methods, shipped_prepare, take,
};
use bold_stance_units::LengthUnit;
use rand::SeedableRng;
use rand_distr::{Distribution, StandardNormal};
use rand_pcg::Pcg64Mcg;

/// A told car and how it is read.
struct Bay {
    shape: Archetype,
    methods: Vec<MethodInfo>,
    items: Vec<PrepareItem>,
    told: ReadingCar,
    rng: Pcg64Mcg,
}

impl Bay {
    fn new(seed: u64) -> Self {
        let shape = shipped_archetypes().unwrap().into_iter().find(|a| a.id == "half_ton_front").unwrap();
        let facts = VehicleFacts::starting_on(shape.geometry.clone());
        Self {
            shape,
            methods: shipped_methods().unwrap(),
            items: shipped_prepare().unwrap(),
            told: reading_car(&facts).unwrap(),
            rng: Pcg64Mcg::seed_from_u64(seed),
        }
    }

    fn method(&self, id: Method) -> MethodInfo {
        self.methods.iter().find(|m| m.id == id).unwrap().clone()
    }

    fn normal(&mut self) -> f64 {
        StandardNormal.sample(&mut self.rng)
    }

    /// A car on a sloping floor, its angles drawn anew; `points` drawn as far from what is told as the program says they are.
    fn stands(&mut self, camber_deg: f64, run_out_deg: f64) -> Standing {
        let size = self.told.tyre;
        let wheels = Axles::of(|_| {
            Sides::of(|_| {
                let (camber, caster, toe) =
                    (camber_deg + 0.5 * self.normal(), 4.0 + self.normal(), 0.1 * self.normal());
                let mut points = self.shape.geometry.points.clone();
                for s in spreads(&self.shape.geometry.points, Knowledge::Taped) {
                    s.shift(&mut points, s.sigma_mm * self.normal());
                }
                let read = Measured { camber_deg: camber, caster_deg: caster, toe_deg: 0.0 };
                let corner = anchor(&points, &self.shape.geometry.wheel, 0.0, &[], &read).unwrap().corner;
                let exact = corner.wheel(0.0, 0.0).unwrap().alignment().unwrap();
                WheelStands {
                    camber_deg: exact.camber_deg,
                    toe_deg: toe,
                    caster_deg: exact.caster_deg,
                    sai_deg: exact.sai_deg,
                    swing: Swing::Linkage { corner: Box::new(corner), travel_mm: 0.0 },
                    height_mm: 500.0 + 5.0 * self.normal(),
                    hub_mm: 380.0 + self.normal(),
                    frame_mm: 330.0 + 5.0 * self.normal(),
                    tyre_mm: size.diameter_mm(),
                    lip_mm: lip_circle_mm(size.rim_in, false),
                    stamped_in: size.rim_in,
                    bulge_mm: 9.0,
                    run_out: RunOut { deg: run_out_deg, at_deg: 70.0 },
                    pressure_kpa: 240.0 + 10.0 * self.normal(),
                    tread_mm: [5.0 + 0.3 * self.normal(), 6.8, 7.4],
                    feels: "sharp stroking in",
                }
            })
        });
        let along = 0.2 * self.normal();
        Standing {
            wheels,
            track_mm: Axles { front: 1600.0, rear: 1640.0 },
            wheelbase_mm: Sides { left: 3200.0, right: 3207.0 },
            diagonal_mm: Sides { left: 3590.0, right: 3584.0 },
            right_of_body_mm: Axles { front: 0.0, rear: 6.0 },
            to_front_hub_mm: Sides { left: 900.0, right: 905.0 },
            pitch_deg: 0.0,
            floor: Floor {
                across_deg: 0.5 * self.normal(),
                along_deg: along,
                wave_mm: Axles {
                    front: Sides { left: 2.0, right: -1.0 },
                    rear: Sides { left: -3.0, right: 1.0 },
                },
            },
        }
    }

    /// The prepare list of somebody who looked at everything; the floor as well as it can be measured.
    fn prepared(&mut self, car: &Standing) -> Prepared {
        let mut answers = Answers::new();
        for i in &self.items {
            answers.insert(i.id.clone(), if i.right.starts_with("yes") { "yes".into() } else { "0".into() });
        }
        let floor = [
            ("floor_front", car.floor.under(Axle::Front, 1600.0)),
            ("floor_rear", car.floor.under(Axle::Rear, 1640.0)),
            ("floor_along", car.floor.along_deg),
        ];
        for (id, v) in floor {
            let seen = v + 0.05 * self.normal();
            answers.insert(id.into(), format!("{seen:.4}"));
        }
        Prepared::of(&answers, &self.items).unwrap()
    }

    fn taken(&mut self, id: Method, place: Place, car: &Standing, tools: &Tools, hand: &mut Hand) -> Taken {
        let method = self.method(id);
        let shown = shows(Look::at(&method, place), car, tools, hand).unwrap();
        let raw: Vec<RawEntry> = shown.iter().map(|s| RawEntry::new(&s.name, &s.typed())).collect();
        let prepared = self.prepared(car);
        take(&Take {
            method: &method,
            raw: &raw,
            unit: LengthUnit::Mm,
            place,
            jack: Jack::Rolled,
            jacked_height: "",
            car: (!method.bench_only).then_some(&self.told),
            heights: [Some(self.told.design_height_mm[0]); 4],
            prepared: &prepared,
            items: &self.items,
            aim: None,
        })
        .unwrap_or_else(|p| panic!("{id:?} {p:?} of {raw:?}"))
    }
}

fn place(axle: ReadAxle, side: ReadSide) -> Place {
    Place { axle, side }
}

/// Everything the pad can read, where it is read.
fn everywhere(q: Quantity) -> Vec<Place> {
    use ReadAxle as A;
    use ReadSide as S;
    let all = [A::Front, A::Rear, A::Both]
        .into_iter()
        .flat_map(|a| [S::Left, S::Right, S::Both].map(|s| place(a, s)));
    match q {
        Quantity::FloorSlope => {
            vec![place(A::Front, S::Both), place(A::Rear, S::Both), place(A::Both, S::Both)]
        }
        Quantity::RimCircle => vec![place(A::Front, S::Left)],
        Quantity::Caster => vec![place(A::Front, S::Left), place(A::Front, S::Right)],
        _ => all.filter(|p| p.fits(q)).collect(),
    }
}

/// Mean of what it is off, and of its square, over what is stated.
fn off_over_stated(id: Method, tools: Tools, run_out: f64, n: u32) -> (f64, f64) {
    let mut bay = Bay::new(11 + id as u64);
    let q = bay.method(id).quantity;
    let (mut sum, mut square, mut count) = (0.0, 0.0, 0.0);
    for k in 0..n {
        // What counts from horizontal is for a lean that the eye sees too.
        let car = bay.stands(if id == Method::CamberLevel { -3.5 } else { -0.8 }, run_out);
        let at = everywhere(q);
        let at = at[k as usize % at.len()];
        let mut hand = Hand::new(Pcg64Mcg::seed_from_u64(u64::from(k) << 8 | id as u64));
        let got = bay.taken(id, at, &car, &tools, &mut hand);
        let off = (got.value - truth_of(q, at, &car).unwrap()) / got.sigma;
        sum += off;
        square += off * off;
        count += 1.0;
    }
    (sum / count, (square / count).sqrt())
}

const WELL: Tools = Tools {
    zero_off_deg: 0.0,
    zeroed_on_floor: false,
    lip_measured: true,
    bulge_measured: true,
    strung_from_rear: false,
    strung_said: false,
    plates_slip: 0.0,
};

#[test]
fn every_method_reads_what_is_there_as_well_as_it_says() {
    let bay = Bay::new(1);
    let mut off = Vec::new();
    for m in &bay.methods {
        // Worked out of others; read off a stamp, whose doubt is the rule's; a form speaks of no floor, and no hand measured it.
        if matches!(m.id, Method::Thrust | Method::RimCircle) {
            continue;
        }
        let n = if m.id == Method::CasterSweep { 1500 } else { 3000 };
        let run_out = if m.id == Method::CamberRunout || m.id == Method::RimRunout { 0.3 } else { 0.0 };
        let (mean, sd) = off_over_stated(m.id, WELL, run_out, n);
        if mean.abs() > 0.1 || !(0.9..1.1).contains(&sd) {
            off.push(format!("{:?}: mean {mean:.3}, scatter {sd:.3} of what is stated", m.id));
        }
    }
    assert!(off.is_empty(), "{off:#?}");
}

/// Of one kind of look at many cars: the mean of what it is off, in the quantity's unit, left and right.
fn off_by(id: Method, tools: Tools, n: u32, each: impl Fn(&mut Standing)) -> [f64; 2] {
    let mut bay = Bay::new(77);
    [ReadSide::Left, ReadSide::Right].map(|side| {
        let at = place(ReadAxle::Front, side);
        let mut sum = 0.0;
        for k in 0..n {
            let mut car = bay.stands(-0.8, 0.0);
            each(&mut car);
            let mut hand = Hand::new(Pcg64Mcg::seed_from_u64(u64::from(k)));
            let got = bay.taken(id, at, &car, &tools, &mut hand);
            sum += got.value - truth_of(bay.method(id).quantity, at, &car).unwrap();
        }
        sum / f64::from(n)
    })
}

#[test]
fn a_gauge_with_a_wrong_zero_is_off_alike_on_both_sides() {
    let off = off_by(Method::CamberGauge, Tools { zero_off_deg: 0.4, ..WELL }, 600, |_| {});
    assert!(off.iter().all(|o| (o - 0.4).abs() < 0.03), "{off:?}");
}

#[test]
fn a_string_from_rear_wheels_of_another_track_bends_both_sides_alike_until_it_is_said() {
    let tools = Tools { strung_from_rear: true, ..WELL };
    let tracks = |c: &mut Standing| c.track_mm = Axles { front: 1500.0, rear: 1600.0 };
    // atan(50 / 3200) and of 3207 mm: 0.895 and 0.893 degrees.
    let off = off_by(Method::ToeString, tools, 400, tracks);
    assert!(off.iter().all(|o| (o + 0.894).abs() < 0.02), "{off:?}");
    let said = off_by(Method::ToeString, Tools { strung_said: true, ..tools }, 400, tracks);
    assert!(said.iter().all(|o| o.abs() < 0.02), "{said:?}");
}

#[test]
fn a_rim_larger_than_its_stamp_says_scales_what_its_lips_show() {
    let wide = |c: &mut Standing| {
        for w in c.wheels[Axle::Front].each_mut() {
            (w.camber_deg, w.lip_mm) = (-3.0, w.lip_mm * 1.06);
            w.swing = Swing::Axis { caster_deg: w.caster_deg, sai_deg: 11.0 };
        }
    };
    let off = off_by(Method::CamberCalliper, Tools { lip_measured: false, ..WELL }, 400, wide);
    assert!(off.iter().all(|o| (o + 0.18).abs() < 0.02), "{off:?}");
    let measured = off_by(Method::CamberCalliper, WELL, 400, wide);
    assert!(measured.iter().all(|o| o.abs() < 0.02), "{measured:?}");
}

#[test]
fn a_bent_rim_shows_in_two_readings_half_a_turn_apart_and_not_on_the_hub() {
    let bent = |c: &mut Standing| {
        for w in c.wheels[Axle::Front].each_mut() {
            w.run_out = RunOut { deg: 0.5, at_deg: 0.0 };
        }
    };
    let by_bar = off_by(Method::CamberBar, WELL, 400, bent);
    assert!(by_bar.iter().all(|o| (o - 0.5).abs() < 0.03), "{by_bar:?}");
    for id in [Method::CamberGauge, Method::CamberRunout] {
        let off = off_by(id, WELL, 400, bent);
        assert!(off.iter().all(|o| o.abs() < 0.03), "{id:?} {off:?}");
    }
}

#[test]
fn a_gauge_zeroed_on_the_floor_does_not_see_it() {
    let steep = |c: &mut Standing| c.floor.across_deg = 1.2;
    let off = off_by(Method::CamberBar, Tools { zeroed_on_floor: true, ..WELL }, 400, steep);
    assert!(off.iter().all(|o| o.abs() < 0.03), "{off:?}");
}

#[test]
fn nothing_is_shown_where_a_method_is_not_read() {
    let mut bay = Bay::new(5);
    let car = bay.stands(-0.8, 0.0);
    let mut hand = Hand::new(Pcg64Mcg::seed_from_u64(1));
    for m in bay.methods.clone().iter().filter(|m| !m.bench_only) {
        let fits = everywhere(m.quantity);
        for a in [ReadAxle::Front, ReadAxle::Rear, ReadAxle::Both] {
            for s in [ReadSide::Left, ReadSide::Right, ReadSide::Both] {
                let shown = shows(Look::at(m, place(a, s)), &car, &WELL, &mut hand);
                let there = place(a, s).fits(m.quantity) && m.id != Method::Thrust;
                assert_eq!(shown.is_ok(), there, "{:?} {a:?} {s:?}", m.id);
                // Every entry is one of the method's, and what has to be typed is there.
                if let Ok(shown) = shown {
                    assert!(shown.iter().all(|x| m.entries.iter().any(|e| e.name == x.name)), "{:?}", m.id);
                    let needed = m.entries.iter().filter(|e| !e.optional && e.from_car.is_none());
                    assert!(needed.clone().all(|e| shown.iter().any(|x| x.name == e.name)), "{:?}", m.id);
                }
            }
        }
        assert!(!fits.is_empty());
    }
}
