//! The invented demo truck, shared by tests.
#![allow(clippy::unwrap_used, dead_code, missing_docs)]

use bold_stance_car::adjuster::default_adjusters;
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::fit::Sigmas;
use bold_stance_car::vehicle::{Axles, Car, CarFacts, Measured, Sides, TyreSize};
use bold_stance_kinematics::geometry::{Axle, Geometry};
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::plan::{
    AxleBase, AxlePlan, CarBase, CarInput, CarPlan, Moves, OtherAnswer, PlanInput, PlanResult, SideReadings,
    Unread, scenes_of,
};
use bold_stance_trade::reading::ReadingCar;
use bold_stance_tread::{CarTyres, CarWear, TreadLog, car_wear};

pub fn truck() -> PlanInput {
    let geometry =
        Geometry::from_json(include_bytes!("../../../../kinematics/tests/cases/sample_wishbone.json"))
            .unwrap();
    let read = |height_mm, camber_deg, caster_deg| SideReadings {
        height_mm,
        angles: Measured { camber_deg, caster_deg, toe_deg: 0.05 },
        sigma: Sigmas { camber_deg: 0.1, caster_deg: 0.15, toe_deg: 0.05 },
        unread: Unread::default(),
    };
    let sides = [read(496.0, -0.15, 3.35), read(500.0, 0.0, 3.5)];
    let aim = shipped_aims().unwrap().remove(0);
    PlanInput {
        moves: Axles {
            front: Moves { height_change_mm: 65.0, settle_mm: 9.0, load_mm: 20.0, tyre_gain_mm: 0.0 },
            rear: Moves::default(),
        },
        ..PlanInput::unchanged(geometry, 3220.0, 498.0, default_adjusters(3.2), sides, aim)
    }
}

/// Both axles at the same gain, mm.
pub fn both(height_change_mm: f64) -> Axles<Moves> {
    let moves = Moves { height_change_mm, ..Moves::default() };
    Axles { front: moves, rear: moves }
}

/// The electric car's rear, lowered, camber too far in.
pub fn electric_rear() -> PlanInput {
    let shape = shipped_archetypes().unwrap().into_iter().find(|a| a.id == "ev_multilink_rear").unwrap();
    let aim = shipped_aims().unwrap().into_iter().find(|a| a.id == "distance").unwrap();
    let read = |height_mm, camber_deg, toe_deg| SideReadings {
        height_mm,
        angles: Measured { camber_deg, caster_deg: 0.0, toe_deg },
        sigma: Sigmas { camber_deg: 0.1, caster_deg: 0.0, toe_deg: 0.05 },
        unread: Unread::default(),
    };
    PlanInput {
        moves: both(-25.0),
        ..PlanInput::unchanged(
            shape.geometry,
            2900.0,
            368.0,
            Vec::new(),
            [read(366.0, -1.2, 0.12), read(367.0, -1.0, 0.1)],
            aim,
        )
    }
}

/// A truck to read on: wishbones in front, a leaf axle behind, at 500 and 560 mm hub to arch.
pub fn reading_truck(facts: CarFacts, track_mm: [f64; 2]) -> ReadingCar {
    let shapes = shipped_archetypes().unwrap();
    let get = |id: &str| shapes.iter().find(|a| a.id == id).unwrap().geometry.clone();
    ReadingCar {
        car: Car { front: get("half_ton_front"), rear: Some(get("leaf_rear")), wheelbase_mm: 3300.0, facts },
        design_height_mm: [500.0, 560.0],
        tyre: TyreSize::parse("t", "265/70R17").unwrap(),
        track_mm,
    }
}

/// A car whose axles are those of these inputs; heights of an axle that is not there are taken from the other's.
pub fn car(front: Option<&PlanInput>, rear: Option<&PlanInput>) -> CarInput {
    let any = front.or(rear).unwrap();
    let base = |i: &PlanInput| AxleBase {
        upper_shaft: i.upper_shaft,
        geometry: i.geometry.clone(),
        knowledge: i.knowledge,
        jack_sweep: i.jack_sweep.clone(),
        design_height_mm: i.design_height_mm,
        adjusters: i.adjusters.clone(),
        adjusters_told: i.adjusters_told,
        read: Sides { left: i.left, right: i.right },
        axle_offset_mm: i.axle_offset_mm,
        wheelbases_mm: i.wheelbases_mm,
        limits: i.limits,
    };
    let given = Axles { front, rear };
    let moved = |axle: Axle| given[axle].unwrap_or(any).moves[axle];
    let mut plan = CarPlan::unchanged(any.aim.clone());
    plan.axles = Axles::of(|a| {
        let Moves { height_change_mm, settle_mm, load_mm, .. } = moved(a);
        let of = given[a];
        AxlePlan {
            height_change_mm,
            settle_mm,
            load_mm,
            ways: of.map(|i| i.ways.clone()).unwrap_or_default(),
            trim_mm: of.map(|i| i.trim_mm).unwrap_or_default(),
            fitted: of.map(|i| i.fitted.clone()).unwrap_or_default(),
            only: of.map(|i| i.only.clone()).unwrap_or_default(),
            picked: of.map(|i| i.picked).unwrap_or_default(),
        }
    });
    CarInput {
        base: CarBase {
            inspected: Axles::default(),
            wheelbase_mm: any.wheelbase_mm,
            lock_deg: any.lock_deg,
            class_rules: None,
            worked_since: None,
            turned: Axles::default(),
            steering_ratio: bold_stance_car::vehicle::USUAL_STEERING_RATIO,
            levels: any.levels.clone(),
            stands: bold_stance_trade::plan::Stands::default(),
            turns: Vec::new(),
            tyre_gain_mm: Axles::of(|a| moved(a).tyre_gain_mm),
            axles: Axles { front: front.map(base), rear: rear.map(base) },
        },
        plan,
    }
}

/// The truck in front and the electric car's rear behind it: a car of both axles.
pub fn both_axles() -> CarInput {
    let mut c = car(Some(&truck()), Some(&electric_rear()));
    c.plan.axles.rear.height_change_mm = 40.0;
    c
}

/// The forecast of a car under answers of its axles.
pub fn worn(
    t: &CarTyres,
    axles: [Option<&PlanResult>; 2],
    other: Option<(&str, [Option<&PlanResult>; 2])>,
    log: &TreadLog,
) -> Result<CarWear, Vec<bold_stance_units::problem::Problem>> {
    let of = |[front, rear]: [_; 2]| Axles { front, rear };
    let second = other.map(|(name, axles)| OtherAnswer { name, axles: of(axles) });
    car_wear(t, &scenes_of(of(axles), second, &t.heights), log)
}
