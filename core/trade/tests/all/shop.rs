//! A job that is read, marked and turned as a shop would.

use bold_stance_car::adjuster::default_adjusters;
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::job::{
    AfterAct, AsDone, Asked, BundlePlan, Done, JOB_FORMAT, JobBench, JobBundle, Reading, Rules, Stage,
    VehicleFacts, mark_step, turned_again,
};
use bold_stance_trade::part::shipped_parts;
use bold_stance_trade::plan::CarPlan;
use bold_stance_trade::reading::{Jack, Method, Place, RawEntry, Visit, shipped_methods, shipped_prepare};
use bold_stance_trade::sheet::{DoneRecord, Mark};
use bold_stance_units::LengthUnit;
use bold_stance_words::English;
use chrono::{DateTime, Duration, TimeZone, Utc};
use serde_json::json;
use uuid::Uuid;

pub fn shape(id: &str) -> Geometry {
    shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry
}

pub fn facts() -> VehicleFacts {
    let axle = |shape: Geometry| json!({"geometry": shape, "knowledge": "taped", "track_mm": 1560, "height_mm": 360});
    serde_json::from_value(json!({
        "name": "Sedge", "silhouette": "wagon", "wheelbase_mm": 2900,
        "tyre_size": "235/45R18", "tyre_class": "all_season", "tread_depth_mm": 7, "drive": "front", "use": "mixed",
        "pressure_kpa": 250, "placard_kpa": 260,
        "axles": {"front": axle(shape("sports_front")), "rear": axle(shape("ev_multilink_rear"))},
        "car": {"brake_front_share": 0.7, "axles": {
            "front": {"load_n": 5200, "adjusters": default_adjusters(4.0)}, "rear": {"load_n": 4100}}},
    }))
    .unwrap()
}

pub fn clock(minute: i64) -> DateTime<Utc> {
    Utc.with_ymd_and_hms(2026, 11, 28, 8, 0, 0).unwrap() + Duration::minutes(minute)
}

/// A job that is read through the real conversions, one reading a minute.
pub struct Shop {
    pub bundle: JobBundle,
    pub minute: i64,
}

impl Shop {
    pub fn new() -> Self {
        let mut plan = CarPlan::unchanged(shipped_aims().unwrap().remove(0));
        plan.axles.front.height_change_mm = -20.0;
        plan.axles.rear.height_change_mm = -25.0;
        plan.axles.rear.fitted = vec!["rear-camber-arm".into(), "rear-toe-arm".into()];
        let bundle = JobBundle {
            chosen_plan: None,
            format: JOB_FORMAT.into(),
            written_by: "test".into(),
            arrived_at: clock(-60),
            kind: Default::default(),
            notes: Vec::new(),
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
            aftercare: Default::default(),
            memory: Default::default(),
            events: Vec::new(),
        };
        let mut out = Self::of(bundle);
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

    /// A job of which nothing was read yet.
    pub fn of(bundle: JobBundle) -> Self {
        Self { bundle, minute: 0 }
    }

    pub fn read(&mut self, visit: Visit, axle: Axle, side: Side, method: Method, entry: &str, text: &str) {
        let mut raw = vec![RawEntry::new(entry, text)];
        if method == Method::CamberGauge {
            raw.push(RawEntry::new("zeroed-on-floor", "true"));
        }
        self.read_at(visit, Place::wheel(axle, side), method, &raw);
    }

    /// The same anywhere on the car.
    pub fn read_at(&mut self, visit: Visit, place: Place, method: Method, raw: &[RawEntry]) {
        self.minute += 1;
        let (methods, items) = (shipped_methods().unwrap(), shipped_prepare().unwrap());
        let b = &self.bundle;
        let rules = Rules { methods: &methods, items: &items };
        let bench =
            JobBench::of(rules, &b.vehicle, &b.readings, &b.done, &b.visits, clock(self.minute)).unwrap();
        let asked =
            Asked { visit, method, raw, unit: LengthUnit::Mm, place, jack: Jack::Rolled, jacked_height: "" };
        let taken = bench.take(&asked, None).unwrap_or_else(|p| panic!("{method:?} {raw:?}: {p:?}"));
        let id = Uuid::from_u128(1000 + self.minute as u128);
        let row: Reading = asked.stored(id, taken, "Specialist A", clock(self.minute));
        self.bundle.readings.push(row);
    }

    pub fn sheet(&self) -> bold_stance_trade::job::Sheet {
        self.bundle.evaluate(None, &shipped_parts().unwrap(), clock(self.minute)).unwrap().sheet
    }

    /// Marks as the shop would: refused or kept.
    pub fn mark(&mut self, mark: Mark, reason: Option<&str>) -> Result<(), String> {
        self.mark_signed(mark, reason, "Specialist A")
    }

    /// The same with a name of its own.
    pub fn mark_signed(&mut self, mark: Mark, reason: Option<&str>, name: &str) -> Result<(), String> {
        self.minute += 1;
        let record =
            mark_step(&self.sheet(), &mark, (reason, Some(name)), &[], (clock(self.minute), "Specialist A"))
                .map_err(|p| format!("{}: {}", p.field, p.wrong.en()))?;
        self.done(mark, record);
        Ok(())
    }

    /// Marks a step with what was really done.
    pub fn mark_as(&mut self, mark: Mark, as_done: &[AsDone]) -> Result<(), String> {
        self.minute += 1;
        let record = mark_step(
            &self.sheet(),
            &mark,
            (None, Some("Specialist A")),
            as_done,
            (clock(self.minute), "Specialist A"),
        )
        .map_err(|p| format!("{}: {}", p.field, p.wrong.en()))?;
        self.done(mark, record);
        Ok(())
    }

    /// Turns what is left to turn on an axle.
    pub fn again(&mut self, axle: Axle, as_done: &[AsDone]) -> Result<(), String> {
        self.minute += 1;
        let (step, round) = {
            let done: Vec<&Done> = self.bundle.done.iter().collect();
            turned_again(&self.sheet(), &done, axle, as_done, (clock(self.minute), "Specialist A"))
                .map_err(|p| format!("{}: {}", p.field, p.wrong.en()))?
        };
        let step = Mark::Step(step);
        self.bundle.done.iter_mut().find(|d| d.step == step).unwrap().record.rounds.push(round);
        Ok(())
    }

    /// Does something after the setting: refused or kept.
    pub fn act(&mut self, act: AfterAct) -> Result<(), String> {
        self.minute += 10;
        let to_do = self.sheet().trims_to_do();
        let care = self.bundle.aftercare.clone();
        self.bundle.aftercare = care
            .after(&act, &to_do, (clock(self.minute), "Specialist A"))
            .map_err(|p| format!("{}: {}", p.field, p.wrong.en()))?;
        Ok(())
    }

    pub fn done(&mut self, step: Mark, record: DoneRecord) {
        let (plan_id, author) = (self.bundle.plans[0].id, "Specialist A".to_owned());
        self.bundle.done.push(Done { plan_id, step, done_at: clock(self.minute), author, record });
    }
}
