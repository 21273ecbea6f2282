//! The car as it really is, and as it stands once something was done to it.

use crate::act::{At, Felt, Ready};
use crate::floor::Floor;
use crate::instrument::{Blind, Tools};
use crate::scenario::{Drawn, Scenario};
use crate::standing::{RunOut, Standing, Swing, WheelStands};
use crate::trap::Trap;
use bold_stance_car::adjuster::Adjuster;
use bold_stance_car::archetype::Archetype;
use bold_stance_car::fit::{Knowledge, spreads};
use bold_stance_car::vehicle::{
    Axles, Car, CarFacts, Gains, Measured, Sides, TyreSize, anchor, anchor_wheel,
};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::Corner;
use bold_stance_trade::job::VehicleFacts;
use bold_stance_trade::reading::lip_circle_mm;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use rand::SeedableRng;
use rand_distr::{Distribution, StandardNormal, Uniform};
use rand_pcg::Pcg64Mcg;

/// Tyre spring rate against pressure: how far a soft tyre lets its hub down, mm per kPa (common practice, no source: a tyre at
/// half its pressure stands 10 to 15 mm lower).
const MM_PER_KPA: f64 = 0.1;

/// What was done to a car.
#[derive(Debug, Clone, PartialEq)]
pub struct Work {
    /// Where each adjuster stands as its scale counts, by axle and side.
    pub at: Axles<Sides<Vec<f64>>>,
    /// Height gained, mm.
    pub height_mm: Axles<Sides<f64>>,
    /// Rolled and bounced since it was last in the air.
    pub settled: bool,
    /// Rolled since its height was changed.
    pub driven: bool,
    /// Pressures are as they should be.
    pub pressures_set: bool,
    /// Nothing lies in it or under it.
    pub empty: bool,
    /// The steering wheel is straight.
    pub centred: bool,
    /// The plates turn freely.
    pub plates_free: bool,
    /// The tabs are out.
    pub tabs_out: bool,
    /// How the tools are.
    pub tools: Tools,
}

/// A car as it really is.
#[derive(Debug, Clone)]
pub struct HiddenCar {
    scenario: Scenario,
    shape: Archetype,
    seed: u64,
    tyre: TyreSize,
    /// For its attitude.
    car: Car,
    /// Each corner as it came, adjusters where they stood, mirrored to the left.
    corners: Axles<Sides<Option<Corner>>>,
    adjusters: Axles<Vec<Adjuster>>,
    /// How many times each adjuster does what it was sold for; negative for a thread of the other hand.
    gains: Axles<Sides<Vec<f64>>>,
    /// Of wheels that nobody gave points for: camber and toe, degrees.
    plain: Axles<Sides<[f64; 2]>>,
    /// Hub to arch as it came, settled and empty, mm.
    height_mm: Axles<Sides<f64>>,
}

fn between(rng: &mut Pcg64Mcg, d: Drawn) -> f64 {
    Uniform::new_inclusive(d[0], d[1].max(d[0])).map_or(d[0], |u| u.sample(rng))
}

fn normal(rng: &mut Pcg64Mcg) -> f64 {
    StandardNormal.sample(rng)
}

fn other(side: Side) -> Side {
    if side == Side::Left { Side::Right } else { Side::Left }
}

impl HiddenCar {
    /// The car of a lesson and a seed: the same for everybody.
    ///
    /// # Errors
    /// A [`Problem`] of the lesson, at the field it belongs to.
    pub fn draw(scenario: &Scenario, seed: u64) -> Result<Self, Problem> {
        let shape = scenario.shape()?;
        let mut rng = Pcg64Mcg::seed_from_u64(seed ^ u64::from(scenario.number) << 32);
        let list: Vec<Adjuster> = shape.usual_adjusters().into_iter().map(|o| o.adjuster).collect();
        let start: Vec<Edit> = list.iter().flat_map(|a| a.edits_at(a.position)).collect();
        let wheel = &shape.geometry.wheel;
        let steers = Corner::new(&shape.geometry.points, wheel).is_steered();
        let tyre = TyreSize::parse("tyre_size", &shape.usual.tyre_size)?;
        let mut corners: Axles<Sides<Option<Corner>>> = Axles::of(|_| Sides::of(|_| None));
        let mut gains: Axles<Sides<Vec<f64>>> = Axles::of(|_| Sides::of(|_| Vec::new()));
        for side in Side::BOTH {
            let mut points = shape.geometry.points.clone();
            for s in spreads(&shape.geometry.points, Knowledge::Taped) {
                s.shift(&mut points, s.sigma_mm * normal(&mut rng));
            }
            let bent: f64 = scenario
                .traps
                .iter()
                .map(|t| match t {
                    Trap::BentKnuckle { at, camber_deg } if at.axle == Axle::Front && at.side == side => {
                        *camber_deg
                    }
                    _ => 0.0,
                })
                .sum();
            let f = &scenario.found;
            let read = Measured {
                camber_deg: between(&mut rng, f.camber_deg) + bent,
                caster_deg: between(&mut rng, f.caster_deg),
                toe_deg: between(&mut rng, f.toe_deg),
            };
            let anchored = if steers {
                anchor(&points, wheel, 0.0, &start, &read)
            } else {
                anchor_wheel(&points, wheel, 0.0, &start, read.camber_deg, read.toe_deg)
            };
            let none = |_| Problem::new("found", said("fault-no-data"), said("practice-found-right"));
            corners[Axle::Front][side] = Some(anchored.map_err(none)?.corner);
            gains[Axle::Front][side] =
                list.iter().map(|a| (0.5 * a.gain_sd() * normal(&mut rng)).exp()).collect();
        }
        for t in &scenario.traps {
            match t {
                Trap::Moves { axle, adjuster, times } => {
                    for g in gains[*axle].each_mut() {
                        if let Some(g) = g.get_mut(*adjuster) {
                            *g = *times;
                        }
                    }
                }
                Trap::OtherHand { at, adjuster } => {
                    if let Some(g) = gains[at.axle][at.side].get_mut(*adjuster) {
                        *g = -*g;
                    }
                }
                _ => {}
            }
        }
        let skew: f64 = scenario
            .traps
            .iter()
            .map(|t| if let Trap::SkewedRear { thrust_deg } = t { *thrust_deg } else { 0.0 })
            .sum();
        let mut plain: Axles<Sides<[f64; 2]>> = Axles::of(|_| Sides::of(|_| [0.0; 2]));
        let mut height_mm: Axles<Sides<f64>> = Axles::of(|_| Sides::of(|_| 0.0));
        let base = [shape.usual.height_mm, shape.usual.height_mm + 40.0];
        for side in Side::BOTH {
            let sign = if side == Side::Left { 1.0 } else { -1.0 };
            plain[Axle::Rear][side] =
                [between(&mut rng, [-1.0, -0.3]), between(&mut rng, [0.02, 0.1]) + sign * skew];
            height_mm[Axle::Front][side] = base[0] + normal(&mut rng);
            height_mm[Axle::Rear][side] = base[1] + normal(&mut rng);
        }
        let car = Car {
            front: shape.geometry.clone(),
            rear: None,
            wheelbase_mm: shape.usual.wheelbase_mm.unwrap_or(2900.0),
            facts: CarFacts::default(),
        };
        Ok(Self {
            scenario: scenario.clone(),
            shape,
            seed,
            tyre,
            car,
            corners,
            adjusters: Axles { front: list, rear: Vec::new() },
            gains,
            plain,
            height_mm,
        })
    }

    /// Its lesson.
    #[must_use]
    pub fn scenario(&self) -> &Scenario {
        &self.scenario
    }

    /// Its shape.
    #[must_use]
    pub fn shape(&self) -> &Archetype {
        &self.shape
    }

    pub(crate) fn seed(&self) -> u64 {
        self.seed
    }

    /// What can be turned on an axle, as it is sold.
    #[must_use]
    pub fn adjusters(&self, axle: Axle) -> &[Adjuster] {
        &self.adjusters[axle]
    }

    /// The car as its ticket tells it: nothing of this is hidden.
    #[must_use]
    pub fn told(&self) -> VehicleFacts {
        let mut f = VehicleFacts::starting_on(self.shape.geometry.clone());
        f.name = format!("Practice {}, {}", self.scenario.number, self.shape.name);
        f.tyre_size = self.shape.usual.tyre_size.clone();
        f.tread_depth_mm = self.shape.usual.tread_depth_mm;
        f.wheelbase_mm = self.car.wheelbase_mm;
        f.axles.front.height_mm = self.shape.usual.height_mm;
        f.axles.rear.height_mm = self.shape.usual.height_mm + 40.0;
        f.car.axles.front.adjusters = self.adjusters.front.iter().cloned().map(Into::into).collect();
        f
    }

    fn has<T>(&self, f: impl Fn(&Trap) -> Option<T>) -> Option<T> {
        self.scenario.traps.iter().find_map(f)
    }

    /// As it came.
    #[must_use]
    pub fn as_it_came(&self) -> Work {
        let at = Axles::of(|a| Sides::of(|_| self.adjusters[a].iter().map(|x| x.position).collect()));
        Work {
            at,
            height_mm: Axles::default(),
            settled: self.has(|t| matches!(t, Trap::NotSettled { .. }).then_some(())).is_none(),
            driven: true,
            pressures_set: false,
            empty: false,
            centred: false,
            plates_free: false,
            tabs_out: false,
            tools: Tools {
                zero_off_deg: self
                    .has(|t| if let Trap::GaugeOff { deg } = t { Some(*deg) } else { None })
                    .unwrap_or(0.0),
                lip_measured: false,
                plates_slip: self
                    .has(|t| if let Trap::StickyPlates { missing } = t { Some(*missing) } else { None })
                    .unwrap_or(0.0),
                strung_from_rear: self
                    .has(|t| matches!(t, Trap::UnequalTracks { .. }).then_some(()))
                    .is_some(),
                ..Tools::default()
            },
        }
    }

    /// How often readings of a wheel scatter more than stated.
    #[must_use]
    pub fn scatter(&self, of: At) -> f64 {
        self.has(|t| match t {
            Trap::WornJoint { at, times } if *at == of => Some(*times),
            _ => None,
        })
        .unwrap_or(1.0)
    }

    pub(crate) fn readied(&self, w: &mut Work, r: Ready) -> Felt {
        let was = w.clone();
        match r {
            Ready::Roll => (w.settled, w.driven) = (true, true),
            Ready::Pressures => w.pressures_set = true,
            Ready::Empty => w.empty = true,
            Ready::CentreSteering => w.centred = true,
            Ready::FreePlates => (w.plates_free, w.tools.plates_slip) = (true, 0.0),
            Ready::ZeroOnFloor => w.tools.zeroed_on_floor = true,
            Ready::ReverseGauge => w.tools.zero_off_deg = 0.0,
            Ready::MeasureLips => (w.tools.lip_measured, w.tools.bulge_measured) = (true, true),
            Ready::Tracks => w.tools.strung_said = true,
            Ready::LookAtTyres => {}
            Ready::TabsOut => w.tabs_out = true,
        }
        // A gauge that is zeroed on this floor shows nothing of its own any more.
        if r == Ready::ZeroOnFloor {
            w.tools.zero_off_deg = 0.0;
        }
        let mended = match r {
            Ready::Roll => !was.settled,
            Ready::Pressures => {
                !was.pressures_set
                    && self.has(|t| matches!(t, Trap::LowPressure { .. }).then_some(())).is_some()
            }
            Ready::Empty => {
                !was.empty && self.has(|t| matches!(t, Trap::Leans { .. }).then_some(())).is_some()
            }
            Ready::CentreSteering => {
                !was.centred && self.has(|t| matches!(t, Trap::SteeringOff { .. }).then_some(())).is_some()
            }
            Ready::FreePlates => was.tools.plates_slip > 0.0,
            Ready::ReverseGauge => was.tools.zero_off_deg != 0.0,
            Ready::LookAtTyres => self.has(|t| matches!(t, Trap::MixedTyres { .. }).then_some(())).is_some(),
            Ready::TabsOut => {
                !was.tabs_out && self.has(|t| matches!(t, Trap::TabsIn { .. }).then_some(())).is_some()
            }
            _ => false,
        };
        if mended { Felt::PutRight } else { Felt::Done }
    }

    pub(crate) fn turned(&self, w: &mut Work, at: At, k: usize, by: f64) -> Result<(Felt, f64), Blind> {
        let a = self.adjusters[at.axle].get(k).ok_or(Blind::NotThere)?;
        let minutes = if a.is_tie_rod() { 4.0 } else { 6.0 };
        let seized = |t: &Trap| {
            matches!(t, Trap::Seized { at: s, adjuster } if *s == at && *adjuster == k).then_some(())
        };
        let tabs = |t: &Trap| matches!(t, Trap::TabsIn { axle } if *axle == at.axle).then_some(());
        if self.has(seized).is_some() {
            // A turn is tried for longer than it takes.
            return Ok((Felt::Seized, 2.0 * minutes));
        }
        if !a.is_tie_rod() && !w.tabs_out && self.has(tabs).is_some() {
            return Ok((Felt::Held, minutes));
        }
        let [low, high] = a.range();
        let now = &mut w.at[at.axle][at.side][k];
        let want = *now + by;
        let to = if low < high { want.clamp(low, high) } else { want };
        *now = to;
        Ok((if (to - want).abs() > 1e-9 { Felt::AtEnd } else { Felt::Done }, minutes))
    }

    /// Everything that adds to where an adjuster's scale says it stands.
    fn edits(&self, axle: Axle, side: Side, w: &Work) -> Vec<Edit> {
        let each = self.adjusters[axle].iter().zip(&w.at[axle][side]).zip(&self.gains[axle][side]);
        // The corner was anchored with them where they stood as it came: what was turned since counts by the gain.
        each.flat_map(|((a, at), gain)| a.edits_at(a.position + (at - a.position) * gain)).collect()
    }

    /// Height gained at a corner against how it came, mm.
    fn gained(&self, axle: Axle, side: Side, w: &Work) -> f64 {
        let mut v = w.height_mm[axle][side];
        for t in &self.scenario.traps {
            v += match t {
                Trap::NotSettled { high_mm, .. } if !w.settled => *high_mm,
                Trap::SoftSpring { at, settles_mm }
                    if at.axle == axle && at.side == side && w.driven && w.height_mm[axle][side] != 0.0 =>
                {
                    -settles_mm
                }
                Trap::WrongSpring { at, low_mm } if at.axle == axle && at.side == side => -low_mm,
                Trap::Leans { side: low, low_mm } if *low == side && !w.empty => -low_mm,
                _ => 0.0,
            };
        }
        // Any car hangs high that was lifted and not rolled since (common practice, no source).
        if !w.settled && self.has(|t| matches!(t, Trap::NotSettled { .. }).then_some(())).is_none() {
            v += 6.0;
        }
        v
    }

    /// How much lower a hub stands by its tyre, mm.
    fn low(&self, axle: Axle, side: Side, w: &Work) -> f64 {
        self.scenario
            .traps
            .iter()
            .map(|t| match t {
                Trap::LowPressure { at, missing_kpa }
                    if at.axle == axle && at.side == side && !w.pressures_set =>
                {
                    missing_kpa * MM_PER_KPA
                }
                Trap::MixedTyres { at, smaller_mm } if at.axle == axle && at.side == side => smaller_mm / 2.0,
                _ => 0.0,
            })
            .sum()
    }

    /// How it stands.
    #[must_use]
    pub fn stands(&self, w: &Work) -> Standing {
        let gains = |axle, side| self.gained(axle, side, w);
        let g = Gains {
            left_front: gains(Axle::Front, Side::Left),
            right_front: gains(Axle::Front, Side::Right),
            left_rear: gains(Axle::Rear, Side::Left),
            right_rear: gains(Axle::Rear, Side::Right),
        };
        let posed: Vec<(Axle, Side, Corner)> = Side::BOTH
            .into_iter()
            .filter_map(|s| {
                let c = self.corners[Axle::Front][s].as_ref()?;
                Some((Axle::Front, s, c.edited(&self.edits(Axle::Front, s, w))))
            })
            .collect();
        let state = self.car.state(&posed, &g, Axles::default());
        let track = Axles::of(|a| {
            let wider = self
                .has(|t| if let Trap::UnequalTracks { wider_mm } = t { Some(*wider_mm) } else { None })
                .unwrap_or(0.0);
            let own = 2.0 * self.shape.geometry.wheel.center[1];
            if a == Axle::Rear { own + wider } else { own }
        });
        let mut floor = Floor::default();
        let (mut rim_times, mut off, mut skew) = (1.0, 0.0, 0.0);
        for t in &self.scenario.traps {
            match t {
                Trap::SlopingFloor { across_deg, along_deg } => {
                    (floor.across_deg, floor.along_deg) = (*across_deg, *along_deg)
                }
                Trap::Dip { at, deep_mm } => floor.wave_mm[at.axle][at.side] = -deep_mm,
                Trap::OtherRim { times } => rim_times = *times,
                Trap::SteeringOff { deg } if !w.centred => off = *deg,
                Trap::SkewedRear { thrust_deg } => skew = *thrust_deg,
                _ => {}
            }
        }
        let not_settled = |t: &Trap| match t {
            Trap::NotSettled { camber_deg, .. } => Some(*camber_deg),
            _ => None,
        };
        // What hangs in the air stands wide until it has rolled.
        let high = if w.settled { 0.0 } else { self.has(not_settled).unwrap_or(0.0) };
        let wheels = Axles::of(|axle| {
            Sides::of(|side| {
                let mine = posed.iter().find(|(a, s, _)| *a == axle && *s == side);
                let exact =
                    state.wheels.iter().find(|x| x.axle == axle && x.side == side).and_then(|x| x.wheel);
                let [camber, toe] = exact.map_or(self.plain[axle][side], |x| [x.camber_deg, x.toe_deg]);
                // The axle leans to the side whose tyre stands lower: its top goes out.
                let lean = ((self.low(axle, side, w) - self.low(axle, other(side), w)) / track[axle])
                    .atan()
                    .to_degrees();
                let steered =
                    if axle == Axle::Front { if side == Side::Left { -off } else { off } } else { 0.0 };
                let smaller = self
                    .scenario
                    .traps
                    .iter()
                    .map(|t| match t {
                        Trap::MixedTyres { at, smaller_mm } if at.axle == axle && at.side == side => {
                            *smaller_mm
                        }
                        _ => 0.0,
                    })
                    .sum::<f64>();
                let run_out = self
                    .has(|t| match t {
                        Trap::BentRim { at, deg } if at.axle == axle && at.side == side => {
                            Some(RunOut { deg: *deg, at_deg: 20.0 })
                        }
                        _ => None,
                    })
                    .unwrap_or_default();
                let missing = self
                    .has(|t| match t {
                        Trap::LowPressure { at, missing_kpa }
                            if at.axle == axle && at.side == side && !w.pressures_set =>
                        {
                            Some(*missing_kpa)
                        }
                        _ => None,
                    })
                    .unwrap_or(0.0);
                let height = self.height_mm[axle][side] + gains(axle, side);
                let hub = self.shape.geometry.wheel.loaded_radius_mm - self.low(axle, side, w);
                WheelStands {
                    camber_deg: camber + lean + if axle == Axle::Front { high } else { 0.0 },
                    toe_deg: toe + steered,
                    caster_deg: exact.and_then(|x| x.steer).map_or(0.0, |s| s.caster_deg),
                    sai_deg: exact.and_then(|x| x.steer).map_or(0.0, |s| s.sai_deg),
                    swing: match mine {
                        Some((_, _, c)) if c.is_steered() => {
                            Swing::Linkage { corner: Box::new(c.clone()), travel_mm: -gains(axle, side) }
                        }
                        _ => Swing::Fixed,
                    },
                    height_mm: height,
                    hub_mm: hub,
                    frame_mm: hub + height - 500.0,
                    tyre_mm: self.tyre.diameter_mm() - smaller,
                    lip_mm: lip_circle_mm(self.tyre.rim_in, false) * rim_times,
                    stamped_in: self.tyre.rim_in,
                    // A tall tyre on a narrow rim stands out farther (common practice, no source).
                    bulge_mm: if rim_times > 1.0 { 14.0 } else { 9.0 },
                    run_out,
                    pressure_kpa: 240.0 - missing,
                    tread_mm: [6.0, 7.0, 7.0],
                    feels: "smooth",
                }
            })
        });
        let base = self.car.wheelbase_mm;
        // A rear axle that points aside has one wheel behind the other.
        let behind = track[Axle::Rear] / 2.0 * skew.to_radians().tan();
        Standing {
            wheels,
            track_mm: track,
            wheelbase_mm: Sides { left: base + behind, right: base - behind },
            diagonal_mm: Sides {
                left: base.hypot(track[Axle::Front]),
                right: base.hypot(track[Axle::Front]),
            },
            right_of_body_mm: Axles::default(),
            to_front_hub_mm: Sides { left: 900.0, right: 900.0 },
            pitch_deg: 0.0,
            floor,
        }
    }

    /// How it would stand settled, empty and straight, with its tyres as they should be: what counts on the road.
    #[must_use]
    pub fn on_the_road(&self, w: &Work) -> Standing {
        let mut w = w.clone();
        (w.settled, w.driven, w.empty, w.centred, w.pressures_set) = (true, true, true, true, true);
        self.stands(&w)
    }
}
