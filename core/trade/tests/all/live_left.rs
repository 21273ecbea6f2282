//! What is left to turn on a live axle: squared, centred and its angles set by what was read since, on cars whose arms, bars
//! and rods do other than they are said to; every reading is posed here, link by link.

use crate::common::car;
use crate::shop::Shop;
use bold_stance_car::adjuster::{Adjuster, AdjusterKind, FoundAdjuster, offers};
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::vehicle::{Axles, Measured, Sides};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::job::{AfterAct, GateMissing, Sheet};
use bold_stance_trade::plan::{
    CENTRE_MM, CarInput, Order, PlanInput, SQUARE_MM, SideReadings, Unread, plan_car,
};
use bold_stance_trade::prove::{AnglesRead, AxleLeft, WorkLoop, left_to_turn};
use bold_stance_trade::reading::{Method, Place, RawEntry, ReadAxle, ReadSide, Visit};
use bold_stance_trade::sheet::{GateAbout, GateReading, Mark, StepId};
use bold_stance_words::English;
use std::collections::BTreeMap;

fn shape(id: &str) -> Geometry {
    shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry
}

fn thread(g: &Geometry, place: &str) -> Option<Adjuster> {
    let all = offers(&g.points).into_iter().flat_map(|o| o.places);
    all.map(|p| p.adjuster)
        .find(|a| matches!(&a.kind, AdjusterKind::Thread { link, .. } if link.word() == place))
}

/// A live axle as it really is: what its adjusters do over what they are said to do.
struct Truth {
    geometry: Geometry,
    adjusters: Vec<Adjuster>,
    gains: BTreeMap<&'static str, f64>,
    wheelbases: [f64; 2],
    offset: f64,
}

/// Where everything stands: position of each adjuster by side.
type Stands = Sides<BTreeMap<String, f64>>;

impl Truth {
    fn word(a: &Adjuster) -> String {
        let AdjusterKind::Thread { link, .. } = &a.kind else { panic!("{a:?}") };
        link.word().to_owned()
    }

    /// Every length as it really is: a pair's two links each by what stands at its side.
    fn edits(&self, at: &Stands) -> Vec<Edit> {
        let mut out = Vec::new();
        for a in &self.adjusters {
            let word = Self::word(a);
            let g = self.gains.get(word.as_str()).copied().unwrap_or(1.0);
            let mm = |side: Side| {
                let p = at[side].get(&a.name).copied().unwrap_or(a.position);
                g * (a.displacement_mm(p) - a.displacement_mm(a.position))
            };
            if word == "lower" || word == "upper" {
                for side in Side::BOTH {
                    let name = format!("{word}_{}", side.word());
                    out.push(Edit::LengthenLink { name, by_mm: mm(side) });
                }
            } else {
                let p = at.left.get(&a.name).copied().unwrap_or(a.position);
                out.extend(a.edits_with_gain(p, g));
            }
        }
        out
    }

    /// Both wheelbases, and how far it has to go to the left.
    fn placed(&self, at: &Stands) -> ([f64; 2], f64) {
        let pose = |edits: &[Edit]| {
            let Corner::Axle(c) = Corner::of(&self.geometry, Side::Left).edited(edits) else { panic!() };
            let p = c.axle_pose(0.0, 0.0).unwrap();
            let left = c.left_wheel(&p).centre;
            ([left.x, (p.midpoint * 2.0 - left).x], p.midpoint.y)
        };
        let (was, y0) = pose(&[]);
        let (now, y) = pose(&self.edits(at));
        let forward = if self.geometry.axle == Axle::Front { 1.0 } else { -1.0 };
        let base = [0, 1].map(|k| self.wheelbases[k] + forward * (now[k] - was[k]));
        (base, self.offset - (y - y0))
    }

    /// Camber, caster, toe of both wheels; toe half of both.
    fn angles(&self, at: &Stands) -> [[f64; 3]; 2] {
        let edits = self.edits(at);
        let of = |side| {
            let w = Corner::of(&self.geometry, side).edited(&edits).wheel(0.0, 0.0).unwrap().or_unsteered();
            [w.camber_deg, w.caster_deg, w.toe_deg]
        };
        let [mut l, mut r] = Side::BOTH.map(of);
        let half = f64::midpoint(l[2], r[2]);
        (l[2], r[2]) = (half, half);
        [l, r]
    }

    fn input(&self, angles_read: bool) -> CarInput {
        let [l, r] = self.angles(&Sides::default());
        let read = |a: [f64; 3]| SideReadings {
            height_mm: 500.0,
            angles: Measured { camber_deg: a[0], caster_deg: a[1], toe_deg: a[2] },
            sigma: Default::default(),
            unread: Unread { height: false, camber: !angles_read, caster: !angles_read, toe: !angles_read },
        };
        let aim = shipped_aims().unwrap().remove(0);
        let adjusters = self.adjusters.clone();
        let i = PlanInput {
            wheelbases_mm: Some(Sides { left: self.wheelbases[0], right: self.wheelbases[1] }),
            axle_offset_mm: Some(self.offset),
            ..PlanInput::unchanged(self.geometry.clone(), 2700.0, 500.0, adjusters, [read(l), read(r)], aim)
        };
        match self.geometry.axle {
            Axle::Front => car(Some(&i), None),
            Axle::Rear => car(None, Some(&i)),
        }
    }

    /// What is read after so many rounds of work.
    fn read(&self, at: &Stands, rounds: u32, angles: bool) -> Sides<WorkLoop> {
        let (bases, centre) = self.placed(at);
        let all = self.angles(at);
        Sides::of(|side| {
            let k = usize::from(side == Side::Right);
            let value = if angles { all[k].map(Some) } else { [None; 3] };
            WorkLoop {
                stands: at[side].clone(),
                height_mm: None,
                read: AnglesRead { value, sigma: [0.06, 0.16, 0.03] },
                otherwise: rounds > 1,
                rounds,
                earlier: AnglesRead::default(),
                wheelbase: Some((bases[k], 1.0)),
                centre: Some((centre, 1.0)),
            }
        })
    }
}

fn turn(at: &mut Stands, orders: &[Order]) {
    for o in orders.iter().filter(|o| o.line.moves()) {
        for side in Side::BOTH {
            if o.side.is_none_or(|s| s == side) {
                at[side].insert(o.line.name.clone(), o.line.position);
            }
        }
    }
}

/// From the plan's orders on: after each round everything is read, and what is left is turned to the letter.
fn walked(t: &Truth, input: &CarInput, angles: bool, rounds: u32) -> (Vec<Sides<WorkLoop>>, Vec<AxleLeft>) {
    let answer = plan_car(input, &[]).unwrap();
    let axle = t.geometry.axle;
    let mut at = Stands::default();
    turn(&mut at, &answer.orders);
    let (mut all, mut told) = (Vec::new(), Vec::new());
    let mut loops: Axles<Sides<Vec<WorkLoop>>> = Axles::default();
    for n in 1..=rounds {
        let read = t.read(&at, n, angles);
        for side in Side::BOTH {
            loops[axle][side].push(read[side].clone());
        }
        all.push(read);
        let left = left_to_turn(input, &[], &loops);
        let left = left.into_iter().find(|l| l.axle == axle).expect("something is told of it");
        turn(&mut at, &left.orders());
        told.push(left);
    }
    (all, told)
}

fn apart(w: &Sides<WorkLoop>) -> f64 {
    w.left.wheelbase.unwrap().0 - w.right.wheelbase.unwrap().0
}

#[test]
fn arms_and_a_bar_that_do_other_than_said_square_and_centre_it_by_what_is_taped() {
    for id in ["live_front", "track_bar_rear", "parallel_four_link_rear", "triangulated_rear"] {
        let geometry = shape(id);
        let adjusters: Vec<Adjuster> =
            ["lower", "track_bar", "drag_link"].iter().filter_map(|p| thread(&geometry, p)).collect();
        let has_bar = adjusters.iter().any(|a| Truth::word(a) == "track_bar");
        let gains = [("lower", 1.4), ("track_bar", 1.5)].into();
        let t = Truth { geometry, adjusters, gains, wheelbases: [2706.0, 2693.0], offset: 9.0 };
        let input = t.input(false);
        let (read, told) = walked(&t, &input, false, 4);
        // Turned to the letter of the plan it overshoots, and the gates would name it.
        assert!(apart(&read[0]).abs() > SQUARE_MM, "{id} {}", apart(&read[0]));
        assert!(told[0].orders().iter().any(|o| o.line.moves()), "{id} {:?}", told[0].whole);
        let whole = |n: usize| told[n].whole.clone().unwrap();
        let learned = whole(0).taught.iter().map(English::en).collect::<Vec<_>>();
        assert!(learned.iter().any(|l| l.contains("times what it is said to")), "{id} {learned:?}");
        // The second cycle is square; the bar, which the arc hides more of, by the third.
        assert!(apart(&read[1]).abs() <= SQUARE_MM, "{id} {:?}", read.iter().map(apart).collect::<Vec<_>>());
        if has_bar {
            let off: Vec<f64> = read.iter().map(|r| r.left.centre.unwrap().0).collect();
            assert!(off[0].abs() > CENTRE_MM && off[2].abs() <= CENTRE_MM, "{id} {off:?}");
        }
        let last = whole(3);
        assert!(last.orders.iter().all(|o| !o.line.moves()), "{id} {:?}", last.orders);
        assert!(last.says.iter().any(|s| s.en().starts_with("Square:")), "{id} {:?}", last.says);
    }
}

#[test]
fn what_one_wheel_teaches_of_the_arms_belongs_to_the_other_and_the_angles_land() {
    let geometry = shape("live_front");
    let adjusters: Vec<Adjuster> = ["lower", "tie"].iter().filter_map(|p| thread(&geometry, p)).collect();
    assert_eq!(adjusters.len(), 2);
    let gains = [("lower", 1.4), ("tie", 0.7)].into();
    let t = Truth { geometry, adjusters, gains, wheelbases: [2700.0, 2700.0], offset: 0.0 };
    let mut input = t.input(true);
    let [now, _] = t.angles(&Stands::default());
    input.plan.aim.caster_deg = [now[1] + 1.6, now[1] + 2.2];
    input.plan.aim.toe_total_deg = [0.5, 0.6];
    let (read, told) = walked(&t, &input, true, 3);
    let caster = |n: usize| read[n].left.read.value[1].unwrap() - now[1];
    let toe = |n: usize| 2.0 * read[n].left.read.value[2].unwrap();
    assert!(caster(0) > 2.3, "overshoots: {}", caster(0));
    assert!((1.5..=2.3).contains(&caster(1)), "{} {:?}", caster(1), told[0]);
    assert!((0.45..=0.65).contains(&toe(2)), "{:?}", [toe(0), toe(1), toe(2)]);
    // One order for both wheels, told once.
    for o in told[0].orders().iter().filter(|o| o.line.moves()) {
        assert_eq!(o.side, None, "{o:?}");
    }
    let found: Vec<_> = told[0].sides.left.iter().flat_map(|s| &s.found).map(|f| f.name.clone()).collect();
    assert!(!found.is_empty() && told[0].sides.right.as_ref().unwrap().found.is_empty());
}

/// A partial look: one wheel alone was read, and what both hang on is turned by it; the other's own waits for its reading.
#[test]
fn one_wheel_of_a_live_axle_read_is_enough_for_what_both_hang_on() {
    let geometry = shape("live_front");
    let adjusters: Vec<Adjuster> = ["lower"].iter().filter_map(|p| thread(&geometry, p)).collect();
    let gains = [("lower", 1.4)].into();
    let t = Truth { geometry, adjusters, gains, wheelbases: [2700.0, 2700.0], offset: 0.0 };
    let mut input = t.input(true);
    let [now, _] = t.angles(&Stands::default());
    input.plan.aim.caster_deg = [now[1] + 1.6, now[1] + 2.2];
    for alone in Side::BOTH {
        let mut at = Stands::default();
        turn(&mut at, &plan_car(&input, &[]).unwrap().orders);
        let mut read = t.read(&at, 1, true);
        let other = if alone == Side::Left { Side::Right } else { Side::Left };
        read[other].read.value = [None; 3];
        let mut loops: Axles<Sides<Vec<WorkLoop>>> = Axles::default();
        for side in Side::BOTH {
            loops.front[side].push(read[side].clone());
        }
        let left = left_to_turn(&input, &[], &loops).remove(0);
        assert!(left.sides[alone].is_some() && left.sides[other].is_none(), "{alone:?}");
        let orders = left.orders();
        assert!(orders.iter().any(|o| o.line.moves() && o.side.is_none()), "{alone:?} {orders:?}");
        turn(&mut at, &orders);
        for angles in t.angles(&at) {
            assert!((1.5..=2.3).contains(&(angles[1] - now[1])), "{alone:?} {angles:?}");
        }
    }
}

/// A truck with a live front axle, its lower arms, track bar, drag link and tie rod on threads.
fn truck() -> Shop {
    let geometry = shape("live_front");
    let own: Vec<FoundAdjuster> = ["lower", "track_bar", "drag_link", "tie"]
        .iter()
        .filter_map(|p| thread(&geometry, p))
        .map(FoundAdjuster::from)
        .collect();
    assert_eq!(own.len(), 4);
    let mut bundle = Shop::new().bundle;
    bundle.readings.clear();
    bundle.vehicle.axles.front.geometry = Some(geometry);
    bundle.vehicle.car.axles.front.adjusters = own;
    bundle.vehicle.car.axles.front.adjusters_told = true;
    bundle.vehicle.axles.rear.geometry = None;
    let plan = &mut bundle.plans[0].document;
    plan.axles.front.height_change_mm = 0.0;
    plan.axles.rear = Default::default();
    Shop::of(bundle)
}

fn taped(shop: &mut Shop, visit: Visit, bases: [&str; 2]) {
    for (side, text) in [ReadSide::Left, ReadSide::Right].into_iter().zip(bases) {
        let place = Place { axle: ReadAxle::Both, side };
        shop.read_at(visit, place, Method::Wheelbase, &[RawEntry::new("value", text)]);
    }
}

/// Plumb lines from both arches to the tyres.
fn plumbed(shop: &mut Shop, visit: Visit, left: &str, right: &str) {
    let place = Place { axle: ReadAxle::Front, side: ReadSide::Both };
    let raw = [RawEntry::new("left", left), RawEntry::new("right", right)];
    shop.read_at(visit, place, Method::AxleCentring, &raw);
}

/// From tape and plumb line to the last gate: both are asked for again, stand off, are turned on, and only then is it in.
#[test]
fn an_axle_is_squared_and_centred_to_the_last_gate_by_what_is_measured_at_it() {
    let mut shop = truck();
    taped(&mut shop, Visit::Found, ["106 1/2 in", "106 in"]);
    plumbed(&mut shop, Visit::Found, "40 mm", "20 mm");
    let step = |s| Mark::Step(s);
    let sheet = shop.sheet();
    let gate = |sheet: &Sheet, id: StepId| sheet.gates.iter().find(|g| g.id == id).unwrap().clone();
    let read = StepId::Read(Axle::Front);
    let waits = gate(&sheet, read.clone()).missing;
    let of = |q| {
        waits.iter().filter(|m| matches!(m, GateMissing::Reading { quantity, .. } if *quantity == q)).count()
    };
    assert_eq!((of(GateReading::Wheelbase), of(GateReading::Centre)), (2, 1), "{waits:?}");
    shop.mark(step(StepId::Support), None).unwrap();
    shop.mark(step(StepId::Arms(Axle::Front)), None).unwrap();
    // It comes half way, and the axle stands 8 mm off.
    taped(&mut shop, Visit::Reswept, ["106 3/8 in", "106 1/8 in"]);
    plumbed(&mut shop, Visit::Reswept, "34 mm", "26 mm");
    let sheet = shop.sheet();
    let off = gate(&sheet, read.clone()).off;
    assert!(
        off.iter().any(|f| f.about == GateAbout::Askew)
            && off.iter().any(|f| f.about == GateAbout::OffCentre),
        "{off:?}"
    );
    let whole = sheet.left[0].whole.clone().unwrap();
    let on: Vec<_> =
        whole.orders.iter().filter(|o| o.line.moves()).map(|o| (o.side, o.line.name.clone())).collect();
    assert!(on.len() >= 3 && on.iter().filter(|o| o.0.is_none()).count() >= 1, "{on:?}");
    let stood = shop.bundle.done.last().unwrap().record.rounds[0].turned.clone();
    for o in whole.orders.iter().filter(|o| o.line.moves()) {
        let was = stood.iter().find(|t| t.side == o.side && t.name == o.line.name).unwrap();
        assert!(
            (o.line.position - o.line.movement - was.position).abs() < 1e-9,
            "from where it stands: {o:?}"
        );
    }
    // The headline judges where it lies as well.
    assert!(
        sheet.proved.headline.en().contains("askew") && !sheet.proved.on_aim,
        "{}",
        sheet.proved.headline.en()
    );
    shop.again(Axle::Front, &[]).unwrap();
    let off = gate(&shop.sheet(), read.clone()).off;
    assert_eq!(off.iter().filter(|f| f.stale).count(), 3, "{off:?}");
    taped(&mut shop, Visit::Reswept, ["106 1/4 in", "106 1/4 in"]);
    plumbed(&mut shop, Visit::Reswept, "30 mm", "29 mm");
    let sheet = shop.sheet();
    assert!(gate(&sheet, read).off.is_empty());
    assert!(sheet.left[0].orders().iter().all(|o| !o.line.moves()), "{:?}", sheet.left[0].whole);
    assert!(sheet.proved.on_aim, "{}", sheet.proved.headline.en());
    let lies: Vec<_> = sheet.proved.placed.iter().map(|p| (p.what, p.found_mm, p.came_mm, p.stale)).collect();
    let found = lies[0].1.unwrap();
    assert!((found - 0.5 * 25.4).abs() < 1e-9, "{found}");
    assert_eq!((lies[0].0, lies[0].2, lies[0].3), (GateReading::Wheelbase, Some(0.0), false));
    assert_eq!((lies[1].0, lies[1].2.map(f64::abs), lies[1].3), (GateReading::Centre, Some(0.5), false));
}

#[test]
fn the_steering_wheel_of_a_live_axle_is_put_straight_by_its_one_drag_link() {
    let mut shop = truck();
    plumbed(&mut shop, Visit::Found, "30 mm", "30 mm");
    let off = |side| AfterAct::RoadTested { wheel_off: "9".into(), side: Some(side), felt: String::new() };
    shop.act(off(Side::Left)).unwrap();
    let road = shop.sheet().road.unwrap();
    let [one] = road.orders.as_slice() else { panic!("{road:?}") };
    assert_eq!(one.side, None);
    // Both wheels go left by 9 over the ratio. The link's joint on the right knuckle is swung about that knuckle's kingpin
    // until the longer link reaches it (plane rotation, posed here).
    let facts = &shop.bundle.vehicle;
    let link = facts
        .car
        .axles
        .front
        .adjusters
        .iter()
        .map(|a| a.on(Side::Left))
        .find(|a| a.name == one.name)
        .unwrap();
    let g = facts.axles.front.geometry.as_ref().unwrap();
    let file = serde_json::to_value(g).unwrap();
    let at = |end: &str| {
        let p: Vec<f64> = serde_json::from_value(file["drag_link"][end].clone()).unwrap();
        nalgebra::Vector3::new(p[0], p[1], p[2])
    };
    let (chassis, joint) = (at("chassis"), at("axle"));
    assert!(joint.y < 0.0, "on the right knuckle");
    let Corner::Axle(c) = Corner::of(g, Side::Left) else { panic!() };
    let axis = c.left_wheel(&c.axle_pose(0.0, 0.0).unwrap()).axis.unwrap();
    let mirrored = |v: nalgebra::Vector3<f64>| nalgebra::Vector3::new(v.x, -v.y, v.z);
    let (low, up) = (mirrored(axis.lower), mirrored(axis.upper));
    let about = nalgebra::Unit::new_normalize(up - low);
    let longer = link.displacement_mm(link.position + one.turns) - link.displacement_mm(link.position);
    let want = (chassis - joint).norm() + longer;
    let reached = |deg: f64| {
        let turn = nalgebra::Rotation3::from_axis_angle(&about, f64::to_radians(deg));
        (low + turn * (joint - low) - chassis).norm() - want
    };
    // To the left is turned counter-clockwise seen from above.
    let ratio = facts.car.steering_ratio;
    let (mut a, mut b) = (-5.0, 5.0);
    for _ in 0..60 {
        let m = f64::midpoint(a, b);
        if reached(m).signum() == reached(a).signum() { a = m } else { b = m }
    }
    assert!((a - 9.0 / ratio).abs() < 0.1, "{a} for {}", 9.0 / ratio);
    shop.act(AfterAct::WheelTurned).unwrap();
    assert!(shop.sheet().road.unwrap().headline.en().starts_with("Drag link turned"));
    shop.act(off(Side::Right)).unwrap();
    assert!(shop.sheet().road.unwrap().orders[0].turns * one.turns < 0.0);
}
