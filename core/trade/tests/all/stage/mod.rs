//! A shop floor to play scenes of readings on, for the rules about readings that lie.

pub mod cases;

use bold_stance_car::fit::Knowledge;
use bold_stance_car::vehicle::{CarFacts, Spring};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::reading::{
    Answers, Change, ChangeKind, Heights, Jack, Method, MethodInfo, Place, PrepareItem, Prepared, Quantity,
    RawEntry, ReadAxle, ReadSide, ReadingCar, Rule, Scene, Seen, Suspicion, Take, Visit, shipped_methods,
    shipped_prepare, suspicions, take, taped_heights_of,
};
use bold_stance_units::LengthUnit;

pub const LEFT: Place = Place { axle: ReadAxle::Front, side: ReadSide::Left };
pub const RIGHT: Place = Place { axle: ReadAxle::Front, side: ReadSide::Right };
pub const REAR_LEFT: Place = Place { axle: ReadAxle::Rear, side: ReadSide::Left };
pub const REAR_RIGHT: Place = Place { axle: ReadAxle::Rear, side: ReadSide::Right };
pub const FRONT: Place = Place { axle: ReadAxle::Front, side: ReadSide::Both };

/// A shop floor to play scenes on: readings go through the real conversion, three minutes apart.
pub struct Stage {
    pub methods: Vec<MethodInfo>,
    pub items: Vec<PrepareItem>,
    pub car: ReadingCar,
    pub readings: Vec<Seen>,
    pub changes: Vec<Change>,
    pub answers: Answers,
    pub visit: Visit,
    pub clock: i64,
    pub unit: LengthUnit,
}

impl Stage {
    /// A truck whose readings agree with its points; everything on the list answered well.
    pub fn new() -> Self {
        let items = shipped_prepare().unwrap();
        let good = |i: &PrepareItem| {
            let yes = i.right.starts_with("yes") && i.id != "marks";
            (
                i.id.clone(),
                if yes {
                    "yes"
                } else if i.id == "marks" {
                    ""
                } else {
                    "0"
                }
                .to_owned(),
            )
        };
        let spring = Spring { rate_n_mm: 60.0, motion_ratio: 0.7 };
        let mut facts = CarFacts::default();
        (facts.axles.front.spring, facts.axles.rear.spring) = (Some(spring), Some(spring));
        Self {
            methods: shipped_methods().unwrap(),
            answers: items.iter().map(good).collect(),
            items,
            car: crate::common::reading_truck(facts, [1600.0, 1602.0]),
            readings: Vec::new(),
            changes: Vec::new(),
            visit: Visit::Found,
            clock: 1_800_000_000,
            unit: LengthUnit::Mm,
        }
    }

    pub fn answer(&mut self, id: &str, text: &str) -> &mut Self {
        self.answers.insert(id.into(), text.into());
        self
    }

    pub fn at(&mut self, visit: Visit) -> &mut Self {
        self.visit = visit;
        self
    }

    pub fn prepared(&self) -> Prepared {
        Prepared::of(&self.answers, &self.items).unwrap()
    }

    pub fn put(&mut self, m: Method, place: Place, raw: &[RawEntry], jack: Jack, on_jack: &str) -> &mut Self {
        self.clock += 180;
        let method = self.methods.iter().find(|x| x.id == m).unwrap();
        let heights: Heights = taped_heights_of(&self.readings, self.visit);
        let prepared = self.prepared();
        let t = take(&Take {
            method,
            raw,
            unit: self.unit,
            place,
            jack,
            jacked_height: on_jack,
            car: Some(&self.car),
            heights,
            prepared: &prepared,
            items: &self.items,
            aim: None,
        })
        .unwrap_or_else(|p| panic!("{m:?}: {p:?}"));
        self.readings.push(Seen {
            id: format!("r{}", self.readings.len()),
            visit: self.visit,
            quantity: t.quantity,
            place,
            method: m,
            raw: raw.to_vec(),
            unit: self.unit,
            value: t.value,
            sigma: t.sigma,
            also: t.also,
            corrections: t.corrections,
            jack,
            height_mm: t.height_mm,
            at: self.clock,
        });
        self
    }

    pub fn read(&mut self, m: Method, place: Place, entries: &[(&str, &str)]) -> &mut Self {
        let raw: Vec<RawEntry> = entries.iter().map(|(n, t)| RawEntry::new(n, t)).collect();
        self.put(m, place, &raw, Jack::Rolled, "")
    }

    pub fn camber(&mut self, place: Place, text: &str) -> &mut Self {
        self.read(Method::CamberGauge, place, &[("angle", text)])
    }

    pub fn caster(&mut self, place: Place, text: &str) -> &mut Self {
        self.read(Method::CasterJointLine, place, &[("angle", text)])
    }

    pub fn toe(&mut self, place: Place, text: &str) -> &mut Self {
        self.read(Method::ToeConvert, place, &[("value", text)])
    }

    pub fn height(&mut self, place: Place, text: &str) -> &mut Self {
        self.read(Method::HeightHub, place, &[("value", text)])
    }

    pub fn heights(&mut self, front: &str, rear: &str) -> &mut Self {
        self.height(LEFT, front).height(RIGHT, front).height(REAR_LEFT, rear).height(REAR_RIGHT, rear)
    }

    pub fn did(&mut self, kind: ChangeKind) -> &mut Self {
        self.clock += 60;
        self.changes.push(Change { kind, axle: Axle::Front, at: self.clock });
        self
    }

    /// What the model says a wheel reads at design, so that a scene can start from readings that agree.
    pub fn model(&self, q: Quantity, side: Side) -> f64 {
        self.car.model(q, Axle::Front, side, &self.car.gains(&[None; 4])).unwrap()
    }

    pub fn with<T>(&self, f: impl FnOnce(&Scene<'_>) -> T) -> T {
        let prepared = self.prepared();
        f(&Scene {
            kind: Default::default(),
            visit: self.visit,
            readings: &self.readings,
            changes: &self.changes,
            prepared: &prepared,
            items: &self.items,
            car: Some(&self.car),
            knowledge: [Knowledge::Surveyed; 2],
            same_marks: prepared.yes_no("marks") == Some(true),
        })
    }

    pub fn found(&self, rule: Rule) -> Vec<Suspicion> {
        self.with(|s| suspicions(s, &self.methods)).into_iter().filter(|s| s.rule == rule).collect()
    }
}
