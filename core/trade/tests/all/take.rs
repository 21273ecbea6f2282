//! Whole readings: what was typed, put right for how the car stood, and what it means.

use crate::common;

use bold_stance_car::vehicle::{CarFacts, Spring};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::reading::{
    Answers, CorrectionKind, HALF_TURN, Heights, Jack, Method, MethodInfo, Place, PrepareItem, Prepared,
    Quantity, RawEntry, ReadAxle, ReadSide, ReadingCar, Take, Taken, shipped_methods, shipped_prepare, take,
};
use bold_stance_units::LengthUnit;
use bold_stance_units::problem::Problem;
use bold_stance_words::English;

const LEFT: Place = Place { axle: ReadAxle::Front, side: ReadSide::Left };
const RIGHT: Place = Place { axle: ReadAxle::Front, side: ReadSide::Right };
const FRONT: Place = Place { axle: ReadAxle::Front, side: ReadSide::Both };

struct Bench {
    methods: Vec<MethodInfo>,
    items: Vec<PrepareItem>,
    car: ReadingCar,
    answers: Answers,
    heights: Heights,
    unit: LengthUnit,
    jack: Jack,
    on_jack: &'static str,
}

impl Bench {
    /// Nothing on the prepare list is answered but what a test answers.
    fn new() -> Self {
        Self {
            methods: shipped_methods().unwrap(),
            items: shipped_prepare().unwrap(),
            car: common::reading_truck(CarFacts::default(), [1600.0, 1640.0]),
            answers: Answers::new(),
            heights: [Some(500.0), Some(500.0), Some(560.0), Some(560.0)],
            unit: LengthUnit::Mm,
            jack: Jack::Rolled,
            on_jack: "",
        }
    }

    fn answer(mut self, id: &str, text: &str) -> Self {
        self.answers.insert(id.into(), text.into());
        self
    }

    /// Everything that could widen a doubt is answered well.
    fn prepared(mut self) -> Self {
        for i in &self.items {
            let text = if i.right.starts_with("yes") { "yes" } else { "0" };
            self.answers.entry(i.id.clone()).or_insert_with(|| text.into());
        }
        self
    }

    fn try_read(&self, m: Method, place: Place, entries: &[(&str, &str)]) -> Result<Taken, Vec<Problem>> {
        let raw: Vec<RawEntry> = entries.iter().map(|(n, t)| RawEntry::new(n, t)).collect();
        let aims = shipped_aims().unwrap();
        take(&Take {
            method: self.methods.iter().find(|x| x.id == m).unwrap(),
            raw: &raw,
            unit: self.unit,
            place,
            jack: self.jack,
            jacked_height: self.on_jack,
            car: Some(&self.car),
            heights: self.heights,
            prepared: &Prepared::of(&self.answers, &self.items).unwrap(),
            items: &self.items,
            aim: aims.first(),
        })
    }

    fn read(&self, m: Method, place: Place, entries: &[(&str, &str)]) -> Taken {
        self.try_read(m, place, entries).unwrap()
    }
}

fn correction(t: &Taken, kind: CorrectionKind) -> f64 {
    t.corrections.iter().find(|c| c.kind == kind).unwrap_or_else(|| panic!("{:?}", t.corrections)).amount
}

#[test]
fn the_floor_is_taken_out_of_every_method_that_hangs_on_gravity() {
    let b = Bench::new().answer("floor_front", "0.6").prepared();
    for (m, entries) in [
        (Method::CamberGauge, &[("angle", "0.2")][..]),
        (Method::CamberBar, &[("angle", "0.2")]),
        (Method::CamberOffsets, &[("top", "50"), ("bottom", "51.5"), ("span", "430")]),
        (Method::CamberLaser, &[("top", "50"), ("bottom", "51.5"), ("span", "430")]),
        (Method::CamberGap, &[("top-gap", "-1.5"), ("span", "430")]),
        (Method::CamberCalliper, &[("gap", "-1.5"), ("diameter", "430")]),
        (Method::CamberRunout, &[("first", "0.1"), ("second", "0.3")]),
    ] {
        let (l, r) = (b.read(m, LEFT, entries), b.read(m, RIGHT, entries));
        assert!((l.value - (0.2 - 0.6)).abs() < 2e-4, "{m:?} {}", l.value);
        assert!((r.value - (0.2 + 0.6)).abs() < 2e-4, "{m:?} {}", r.value);
        assert!((correction(&l, CorrectionKind::FloorSlope) + 0.6).abs() < 1e-9);
    }
    // A form speaks of the wheel alone.
    let form = b.read(Method::CamberForm, LEFT, &[("offset", "1.5"), ("diameter", "430")]);
    assert!((form.value - 0.2).abs() < 2e-4 && form.corrections.is_empty());
    // Zeroed there: said, not taken out twice.
    let zeroed = b.read(Method::CamberGauge, LEFT, &[("angle", "0.2"), ("zeroed-on-floor", "true")]);
    assert!((zeroed.value - 0.2).abs() < 1e-12 && !zeroed.corrections[0].applied);
}

#[test]
fn what_is_not_answered_widens_and_says_so() {
    let bare = Bench::new().read(Method::CamberGauge, LEFT, &[("angle", "0.2")]);
    let ready = Bench::new().prepared().read(Method::CamberGauge, LEFT, &[("angle", "0.2")]);
    assert!((ready.sigma - 0.1f64.hypot(0.05)).abs() < 1e-6, "{}", ready.sigma);
    assert!(bare.sigma > 3.0 * ready.sigma);
    assert!(
        bare.doubt
            .iter()
            .any(|d| d.name.en().contains("Floor under the front") && d.name.en().ends_with("not answered"))
    );
    assert!(bare.doubt.windows(2).all(|w| w[0].sigma >= w[1].sigma), "largest first");
    let zeroed =
        Bench::new().read(Method::CamberGauge, LEFT, &[("angle", "0.2"), ("zeroed-on-floor", "true")]);
    assert!(zeroed.sigma < bare.sigma);
    let no =
        Bench::new().answer("plates", "no").prepared().read(Method::CamberGauge, LEFT, &[("angle", "0.2")]);
    assert!(no.doubt.iter().any(|d| d.name.en().ends_with("answered no")) && no.sigma > ready.sigma);
}

#[test]
fn half_a_turn_on_averages_the_rim_out() {
    let b = Bench::new().prepared();
    let half = format!("top-gap{HALF_TURN}");
    let t = b.read(Method::CamberGap, LEFT, &[("top-gap", "6"), (&half, "9"), ("span", "430")]);
    let want = -0.5 * ((6.0f64 / 430.0).atan() + (9.0f64 / 430.0).atan()).to_degrees();
    assert!((t.value - want).abs() < 1e-9);
    let runout = t.also.iter().find(|a| a.name == "run_out_deg").unwrap().value;
    assert!((runout - 0.5 * ((9.0f64 / 430.0).atan() - (6.0f64 / 430.0).atan()).to_degrees()).abs() < 1e-9);
    let once = b.read(Method::CamberGap, LEFT, &[("top-gap", "6"), ("span", "430")]);
    assert!(
        (once.sigma / t.sigma - 2f64.sqrt()).abs() < 0.02,
        "two readings hold better: {} {}",
        once.sigma,
        t.sigma
    );
    let toe = b.try_read(Method::ToeString, LEFT, &[(&format!("front-gap{HALF_TURN}"), "3")]).unwrap_err();
    assert!(toe[0].wrong.en().contains("no such entry"));
}

#[test]
fn what_the_car_knows_is_filled_in_and_said() {
    let b = Bench::new().prepared();
    // 265/70R17: 431.8 + 2·0.70·265 = 802.8 mm (ETRTO size arithmetic); lip 431.8 + 34.6 mm.
    let t = b.read(Method::ToeDistance, FRONT, &[("front", "1480"), ("rear", "1483")]);
    assert!((t.value - (3.0f64 / 802.8).asin().to_degrees()).abs() < 1e-9);
    assert!(t.notes.iter().any(|n| n.en() == "across which circle 803 mm, from the car"), "{:?}", t.notes);
    let t = b.read(Method::CamberGap, LEFT, &[("top-gap", "6")]);
    assert!((t.value + (6.0f64 / 466.4).atan().to_degrees()).abs() < 1e-9);
    let t = b.read(Method::CamberCalliper, LEFT, &[("gap", "3")]);
    let from_seat = -(3.0f64 / 431.8).asin().to_degrees();
    assert!((correction(&t, CorrectionKind::RimLip) - (t.value - from_seat)).abs() < 1e-9);
    // The tracks differ by 40 mm: a string along the rear wheels runs off by half of that over the wheelbase.
    let strung = [("front-gap", "150"), ("rear-gap", "150"), ("diameter", "460"), ("strung", "rear-wheels")];
    let t = b.read(Method::ToeString, LEFT, &strung);
    assert!((t.value - (20.0f64 / 3300.0).atan().to_degrees()).abs() < 1e-9);
    // Measured below the axle: a shorter chord.
    let low = [("front", "1480"), ("rear", "1483"), ("height", "200")];
    let t = b.read(Method::ToeDistance, FRONT, &low);
    let r = b.car.car.front.wheel.loaded_radius_mm;
    let chord = 2.0 * ((802.8f64 / 2.0).powi(2) - (r - 200.0).powi(2)).sqrt();
    assert!((t.value - (3.0 / chord).asin().to_degrees()).abs() < 1e-9);
    assert!(correction(&t, CorrectionKind::BelowAxle) > 0.0);
}

#[test]
fn caster_minds_the_floor_along_and_the_body_on_its_stands() {
    let sweep = [("camber-1", "1.8"), ("steer-1", "20"), ("camber-2", "-0.9"), ("steer-2", "-20")];
    let flat = Bench::new().prepared().read(Method::CasterSweep, LEFT, &sweep);
    let down = Bench::new().answer("floor_along", "0.4").prepared().read(Method::CasterSweep, LEFT, &sweep);
    assert!((down.value - flat.value - 0.4).abs() < 1e-9, "nose downhill reads too little caster");
    let joint = [("angle", "5"), ("body-pitch", "0.8")];
    let t = Bench::new().answer("floor_along", "0.4").prepared().read(Method::CasterJointLine, LEFT, &joint);
    assert!((t.value - 4.2).abs() < 1e-9, "on stands the floor does not count");
    assert!((correction(&t, CorrectionKind::BodyPitch) + 0.8).abs() < 1e-9);
}

#[test]
fn on_the_jack_caster_and_toe_need_the_height_and_camber_has_a_rule() {
    let mut b = Bench::new().prepared();
    b.jack = Jack::Jacked;
    let t = b.read(Method::CasterJointLine, LEFT, &[("angle", "4")]);
    assert!((t.value - 4.0).abs() < 1e-12 && !t.corrections[0].applied);
    b.on_jack = "21 5/8 in";
    let at = |h: f64| Corner::of(&b.car.car.front, Side::Left).wheel(500.0 - h, 0.0).unwrap();
    let h = 21.625 * 25.4;
    let t = b.read(Method::CasterJointLine, LEFT, &[("angle", "4")]);
    let caster = |h: f64| at(h).steer.unwrap().caster_deg;
    assert!((t.value - (4.0 + caster(500.0) - caster(h))).abs() < 1e-9);
    let t = b.read(Method::ToeConvert, LEFT, &[("value", "0.1")]);
    assert!((t.value - (0.1 + at(500.0).toe_deg - at(h).toe_deg)).abs() < 1e-9);
    // A height the linkage does not reach puts nothing right, and says so; one no car has is refused.
    b.on_jack = "1150";
    let t = b.read(Method::ToeConvert, LEFT, &[("value", "0.1")]);
    assert!((t.value - 0.1).abs() < 1e-12 && !t.corrections[0].applied);
    b.on_jack = "3 in";
    let p = b.try_read(Method::ToeConvert, LEFT, &[("value", "0.1")]).unwrap_err();
    assert_eq!(p[0].field, "jacked_height");
    b.on_jack = "tall";
    assert_eq!(
        b.try_read(Method::CamberGauge, LEFT, &[("angle", "0")]).unwrap_err()[0].field,
        "jacked_height"
    );
    b.jack = Jack::OneSide;
    b.on_jack = "";
    let t = b.read(Method::CamberGauge, LEFT, &[("angle", "0")]);
    assert!(t.doubt[0].name.en().contains("tilted") && t.sigma > 0.4);
}

#[test]
fn weight_moves_heights_over_the_springs_and_angles_over_the_linkage() {
    let spring = Spring { rate_n_mm: 70.0, motion_ratio: 0.65 };
    let mut b = Bench::new().answer("fuel", "60 l").answer("seats", "85 kg").prepared();
    b.car.car.facts.axles.front.spring = Some(spring);
    b.car.car.facts.axles.rear.spring = Some(spring);
    let sink = b.car.weight_sink(&Prepared::of(&b.answers, &b.items).unwrap()).unwrap();
    // By hand: moments of 43.1 kg at 0.85 and −85 kg at 0.45 of the wheelbase, halved left and right.
    let kg = 60.0 * 6.0 * 0.453_592_37 / 3.785_411_784;
    let rear = 9.806_65 * (kg * 0.85 - 85.0 * 0.45) / 2.0 / (70.0 * 0.65 * 0.65);
    assert!((sink[2] - rear).abs() < 1e-9, "{} {rear}", sink[2]);
    let h = b.read(Method::HeightHub, LEFT, &[("value", "500")]);
    assert!((h.value - (500.0 - sink[0])).abs() < 1e-9);
    let now = b.car.gains(&b.heights);
    let then = b.car.gains(&[0, 1, 2, 3].map(|i: usize| b.heights[i].map(|v| v - sink[i])));
    let model = |g| b.car.model(Quantity::Camber, Axle::Front, Side::Left, g).unwrap();
    let t = b.read(Method::CamberGauge, LEFT, &[("angle", "0.1")]);
    assert!((t.value - (0.1 + model(&then) - model(&now))).abs() < 1e-9);
    // Without spring rates it is said, and nothing is made up.
    b.car.car.facts.axles.rear.spring = None;
    let t = b.read(Method::CamberGauge, LEFT, &[("angle", "0.1")]);
    assert!((t.value - 0.1).abs() < 1e-12);
    assert!(t.corrections.iter().any(|c| c.kind == CorrectionKind::Weight && !c.applied));
}

#[test]
fn a_value_says_what_it_means_against_the_aim() {
    let b = Bench::new().prepared();
    let aim = &shipped_aims().unwrap()[0];
    let say = |m: Method, place, entries: &[(&str, &str)]| {
        b.read(m, place, entries).against_aim.map(|a| (a.inside, a.says.en()))
    };
    let [low, high] = aim.camber_deg;
    let at = |v: f64| format!("{v:.3}deg");
    let camber = |v: f64| say(Method::CamberGauge, LEFT, &[("angle", &at(v))]).unwrap();
    let inside = camber(f64::midpoint(low, high));
    assert!(inside.0 && inside.1.starts_with("inside"), "{inside:?}");
    let under = camber(low - 0.7);
    assert!(!under.0 && under.1.starts_with("0.7° too far in"), "{under:?}");
    assert!(camber(high + 0.4).1.starts_with("0.4° too far out"));
    let edge = camber(high + 0.02);
    assert!(!edge.0 && edge.1.starts_with("at the edge"), "{edge:?}");
    let caster = say(Method::CasterJointLine, LEFT, &[("angle", &at(aim.caster_deg[0] - 1.1))]).unwrap();
    assert!(caster.1.starts_with("1.1° short"), "{caster:?}");
    let rear = Place { axle: ReadAxle::Rear, side: ReadSide::Left };
    assert_eq!(say(Method::CamberGauge, rear, &[("angle", "1")]), None, "aims are for the front");
}

#[test]
fn a_quantity_is_read_where_it_is() {
    let b = Bench::new();
    let both = Place { axle: ReadAxle::Both, side: ReadSide::Both };
    for (m, place, entries) in [
        (Method::CamberGauge, FRONT, &[("angle", "1")][..]),
        (Method::ToeBars, LEFT, &[("front", "1480"), ("rear", "1481"), ("diameter", "800")]),
        (Method::Wheelbase, LEFT, &[("value", "3300")]),
        (Method::SetBack, LEFT, &[("left", "1"), ("right", "2")]),
        (Method::HeightHub, both, &[("value", "500")]),
    ] {
        assert_eq!(b.try_read(m, place, entries).unwrap_err()[0].field, "place", "{m:?}");
    }
}

#[test]
fn a_level_from_horizontal_says_how_far_but_not_which_way() {
    let b = Bench::new();
    let p = b.try_read(Method::CamberLevel, LEFT, &[("angle", "87.6")]).unwrap_err();
    assert_eq!(p[0].field, "leans");
    let p = b.try_read(Method::CamberLevel, LEFT, &[("angle", "87.6"), ("leans", "not said")]).unwrap_err();
    assert_eq!(p[0].field, "leans");
    for (angle, leans, is) in [
        ("87.6", "top in", -2.4),
        ("92.4", "top in", -2.4),
        ("87°36'", "top out", 2.4),
        ("90", "not said", 0.0),
    ] {
        let t = b.read(Method::CamberLevel, LEFT, &[("angle", angle), ("leans", leans)]);
        assert!((t.value - is).abs() < 1e-9, "{angle} {leans}: {}", t.value);
    }
    assert!(b.try_read(Method::CamberLevel, LEFT, &[("angle", "2.4"), ("leans", "top in")]).is_err());
}

#[test]
fn a_gauges_own_scale_is_taken_as_it_shows() {
    let t = Bench::new().read(Method::CasterScale, LEFT, &[("angle", "3.5"), ("sai", "11.2")]);
    assert!((t.value - 3.5).abs() < 1e-9);
    assert_eq!(t.also.iter().find(|a| a.name == "sai_deg").map(|a| a.value), Some(11.2));
}

/// The hub held up 30 mm from how it stands: the linkage says what that is worth, to the digit.
#[test]
fn a_hub_held_up_is_brought_to_ride_height_by_the_linkage() {
    let mut b = Bench::new().prepared();
    b.jack = Jack::WheelOff;
    let open = b.read(Method::CamberGauge, LEFT, &[("angle", "-0.4"), ("zeroed-on-floor", "true")]);
    assert!(open.corrections.iter().any(|c| c.kind == CorrectionKind::Jacked && !c.applied));
    b.on_jack = "470";
    let t = b.read(Method::CamberGauge, LEFT, &[("angle", "-0.4"), ("zeroed-on-floor", "true")]);
    let corner = Corner::of(&b.car.car.front, Side::Left);
    let at = |h: f64| corner.wheel(b.car.design_height_mm[0] - h, 0.0).unwrap().camber_deg;
    assert!((t.value - (-0.4 + at(500.0) - at(470.0))).abs() < 1e-9);
    assert!(t.sigma < open.sigma, "{} {}", t.sigma, open.sigma);
    assert!((t.value + 0.4).abs() > 0.02, "it is worth something");
}
