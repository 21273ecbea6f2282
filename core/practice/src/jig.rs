//! The jig: one corner to play with. The same camber, made in another place, is another car.

use bold_stance_car::archetype::{Archetype, shipped_archetypes};
use bold_stance_car::draw::{Drawing, draw_steered};
use bold_stance_car::vehicle::Attitude;
use bold_stance_kinematics::edit::{Arm, EccentricPoint, Edit};
use bold_stance_kinematics::geometry::Axle;
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_kinematics::wheel::{Alignment, contact_point};
use bold_stance_trade::job::{VehicleFacts, tyres_of};
use bold_stance_tread::{AxleSetting, Bend, Footprint, axle_patches};
use bold_stance_units::numbers::{Secant, follow};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use nalgebra::{SMatrix, SVector};
use serde::{Deserialize, Serialize};

/// What stands on the jig.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum JigShape {
    /// Two wishbones.
    Wishbones,
    /// A strut on a lower arm.
    Strut,
}

/// Where camber is made.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CamberAt {
    /// At the upper arm, or the strut's top mount: the steering axis leans with the wheel.
    Top,
    /// At the lower arm: the axis leans with it, and the track changes.
    LowerArm,
    /// At the knuckle, or the strut's clamp: the wheel leans on its axis.
    Knuckle,
}

/// One way of setting the corner, straight ahead at the height it was drawn at.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct JigSetting {
    /// Where its camber is made.
    pub camber_at: CamberAt,
    /// Degrees, top out positive.
    #[cfg_attr(feature = "openapi", schema(minimum = -6.0, maximum = 6.0))]
    pub camber_deg: f64,
    /// Degrees, top rearward positive.
    #[cfg_attr(feature = "openapi", schema(minimum = -4.0, maximum = 14.0))]
    pub caster_deg: f64,
    /// Degrees the steering axis is made to lean more, top inboard, the wheel staying as it is.
    #[cfg_attr(feature = "openapi", schema(minimum = -8.0, maximum = 8.0))]
    pub more_lean_deg: f64,
    /// Degrees, toe-in positive.
    #[cfg_attr(feature = "openapi", schema(minimum = -3.0, maximum = 3.0))]
    pub toe_deg: f64,
    /// The wheel set farther out on its hub, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = -60.0, maximum = 60.0))]
    pub wheel_out_mm: f64,
}

/// What is on the jig, and how it is held.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct JigAsked {
    /// Shape.
    pub shape: JigShape,
    /// One or two ways of setting it.
    pub settings: Vec<JigSetting>,
    /// Steered to the left, degrees of this wheel.
    #[cfg_attr(feature = "openapi", schema(minimum = -35.0, maximum = 35.0))]
    pub steer_deg: f64,
    /// Wheel over body, bump positive, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = -90.0, maximum = 90.0))]
    pub travel_mm: f64,
    /// The body leans to the right, left side up, degrees.
    #[cfg_attr(feature = "openapi", schema(minimum = -6.0, maximum = 6.0))]
    pub roll_deg: f64,
}

/// Both wheels at one turn of the steering.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct JigTurn {
    /// This wheel, the left one, steered to the left, degrees.
    pub steer_deg: f64,
    /// Its camber over the ground, degrees.
    pub left_deg: f64,
    /// The right wheel's, degrees.
    pub right_deg: f64,
    /// How far the body is lifted by the turn, mm: a mean of both sides.
    pub lift_mm: f64,
}

/// One setting as it stands.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct JigStands {
    /// Straight ahead, at the height it was drawn at.
    pub straight: Alignment,
    /// As it is held now: camber over the ground and toe, degrees.
    pub now: [f64; 2],
    /// As it is held now.
    pub drawing: Drawing,
    /// Over the turn of the steering, right to left.
    pub turns: Vec<JigTurn>,
    /// Its tread on the ground as it is held now, the left wheel.
    pub print: Footprint,
    /// What was changed to get there: top moved outboard and forward (mm), lower arm longer (mm), knuckle tilted (degrees), tie
    /// rod longer (mm).
    pub made: JigMade,
}

/// What was changed.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct JigMade {
    /// Upper joint or strut top outboard, mm.
    pub top_out_mm: f64,
    /// Upper joint or strut top forward, mm.
    pub top_forward_mm: f64,
    /// Lower arm longer, mm.
    pub lower_longer_mm: f64,
    /// Knuckle tilted, degrees, top out.
    pub knuckle_deg: f64,
    /// Tie rod longer, mm.
    pub tie_longer_mm: f64,
}

/// Most settings at once.
pub const MOST_SETTINGS: usize = 2;
/// How far the steering is swept, degrees of the left wheel.
const SWEPT_DEG: f64 = 32.0;
/// Points of the sweep.
const SWEEP: i32 = 33;

impl JigAsked {
    /// Everything wrong with it, by field.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        if self.settings.is_empty() || self.settings.len() > MOST_SETTINGS {
            out.push(Problem::new("settings", said("fault-too-many"), said("fault-shorter-list")));
        }
        for (k, s) in self.settings.iter().enumerate() {
            for (name, v, low, high, unit) in [
                ("camber_deg", s.camber_deg, -6.0, 6.0, "°"),
                ("caster_deg", s.caster_deg, -4.0, 14.0, "°"),
                ("more_lean_deg", s.more_lean_deg, -8.0, 8.0, "°"),
                ("toe_deg", s.toe_deg, -3.0, 3.0, "°"),
                ("wheel_out_mm", s.wheel_out_mm, -60.0, 60.0, "mm"),
            ] {
                out.extend(in_range(&format!("settings.{k}.{name}"), v, low, high, unit).err());
            }
        }
        out.extend(in_range("steer_deg", self.steer_deg, -35.0, 35.0, "°").err());
        out.extend(in_range("travel_mm", self.travel_mm, -90.0, 90.0, "mm").err());
        out.extend(in_range("roll_deg", self.roll_deg, -6.0, 6.0, "°").err());
        out
    }
}

impl JigMade {
    fn edits(&self, shape: JigShape, wheel_out_mm: f64) -> Vec<Edit> {
        let top = match shape {
            // An arm that is longer and set forward or rearward.
            JigShape::Wishbones => Edit::ReshapeArm {
                arm: Arm::Upper,
                longer_mm: self.top_out_mm,
                forward_mm: self.top_forward_mm,
            },
            JigShape::Strut => Edit::MovePivot {
                point: EccentricPoint::StrutTop,
                by: [self.top_forward_mm, self.top_out_mm, 0.0],
            },
        };
        vec![
            top,
            Edit::ReshapeArm { arm: Arm::Lower, longer_mm: self.lower_longer_mm, forward_mm: 0.0 },
            Edit::KnuckleTilt { camber_deg: self.knuckle_deg, toe_deg: 0.0 },
            Edit::LengthenTie { by_mm: self.tie_longer_mm },
            Edit::ShiftWheel { by: [0.0, wheel_out_mm, 0.0] },
        ]
    }
}

fn shape_of(shape: JigShape) -> Result<Archetype, Problem> {
    let id = match shape {
        JigShape::Wishbones => "half_ton_front",
        JigShape::Strut => "strut_coupe_front",
    };
    shipped_archetypes()?
        .into_iter()
        .find(|a| a.id == id)
        .ok_or_else(|| Problem::new("shape", said("fault-no-data"), id))
}

fn straight(c: &Corner) -> Option<Alignment> {
    c.wheel(0.0, 0.0).ok()?.alignment()
}

/// What has to be changed so that the corner stands as set. Made at the top or at the lower arm, camber leaves the angle between
/// axis and wheel as it is, and the axis leans with the wheel; made at the knuckle it leaves the axis. Newton over what is turned,
/// with a numeric Jacobian.
fn made(shape: JigShape, base: &Corner, s: &JigSetting) -> Option<(JigMade, Corner)> {
    let was = straight(base)?;
    let of = |x: &SVector<f64, 4>| {
        let mut m =
            JigMade { top_forward_mm: x[1], knuckle_deg: x[2], tie_longer_mm: x[3], ..JigMade::default() };
        match s.camber_at {
            CamberAt::LowerArm => m.lower_longer_mm = x[0],
            CamberAt::Top | CamberAt::Knuckle => m.top_out_mm = x[0],
        }
        m
    };
    let lean = was.sai_deg + s.more_lean_deg;
    let off = |x: &SVector<f64, 4>| {
        let a = straight(&base.edited(&of(x).edits(shape, s.wheel_out_mm)))?;
        let axis = match s.camber_at {
            CamberAt::Knuckle => a.sai_deg - lean,
            // The angle between axis and wheel.
            CamberAt::Top | CamberAt::LowerArm => a.sai_deg + a.camber_deg - lean - was.camber_deg,
        };
        Some(SVector::<f64, 4>::new(
            a.camber_deg - s.camber_deg,
            a.caster_deg - s.caster_deg,
            axis,
            a.toe_deg - s.toe_deg,
        ))
    };
    let mut x = SVector::<f64, 4>::zeros();
    for _ in 0..40 {
        let y = off(&x)?;
        if y.amax() < 1e-9 {
            let m = of(&x);
            return Some((m, base.edited(&m.edits(shape, s.wheel_out_mm))));
        }
        let mut j = SMatrix::<f64, 4, 4>::zeros();
        for c in 0..4 {
            let mut moved = x;
            moved[c] += 1e-4;
            j.set_column(c, &((off(&moved)? - y) / 1e-4));
        }
        x -= (j.try_inverse()? * y).map(|v| v.clamp(-12.0, 12.0));
    }
    None
}

/// The travel at which the lower joint stands where it stood straight ahead. Travel is counted at the wheel's centre, and the centre
/// goes up or down as it turns about its axis; the spring, and with it the arm, stays as the load has it.
fn held(c: &Corner, travel: f64, rack: f64) -> Option<f64> {
    let joint = |t: f64, rack: f64| c.pose(t, rack).ok()?.axis.map(|a| a.lower.z);
    let want = joint(travel, 0.0)?;
    // The joint goes with the wheel's centre, nearly; where it does not reach, nothing is followed.
    let t = follow(travel, 1e-9, 12, |t| joint(t, rack).map_or(f64::NAN, |z| z - want));
    t.is_finite().then_some(t)
}

/// A rack position that steers the left wheel by so much to the left.
fn rack_for(c: &Corner, travel: f64, steer_deg: f64) -> Option<f64> {
    let zero = c.wheel(travel, 0.0).ok()?.toe_deg;
    let toe = |rack: f64| c.wheel(held(c, travel, rack)?, rack).ok().map(|w| zero - w.toe_deg - steer_deg);
    let start = [0.0, if steer_deg > 0.0 { 20.0 } else { -20.0 }];
    let root = Secant::to(1e-9, 1e-8, 40).stepping(60.0).root(start, |r| toe(r).ok_or(())).ok()?;
    (root.miss.abs() < 1e-4).then_some(root.at)
}

/// The corner as set, held as asked.
///
/// # Errors
/// Every [`Problem`], each at its field: what cannot be set so, or does not reach there.
pub fn jig(a: &JigAsked) -> Result<Vec<JigStands>, Vec<Problem>> {
    let problems = a.problems();
    if !problems.is_empty() {
        return Err(problems);
    }
    let archetype = shape_of(a.shape).map_err(|p| vec![p])?;
    let base = Corner::new(&archetype.geometry.points, &archetype.geometry.wheel);
    let facts = VehicleFacts::starting_on(archetype.geometry.clone());
    let tyres = tyres_of(&facts, 1.6);
    a.settings
        .iter()
        .enumerate()
        .map(|(k, s)| {
            let cannot = |field: &str| {
                vec![Problem::new(
                    format!("settings.{k}.{field}"),
                    said("jig-cannot"),
                    said("jig-cannot-right"),
                )]
            };
            let (m, c) = made(a.shape, &base, s).ok_or_else(|| cannot("camber_deg"))?;
            let half = archetype.geometry.wheel.center[1];
            let leans = half * a.roll_deg.to_radians().tan();
            let (left, right) = (a.travel_mm - leans, a.travel_mm + leans);
            let attitude = Attitude { roll: a.roll_deg.to_radians(), ..Attitude::default() };
            let pose = |travel: f64, rack: f64, seen: Attitude| {
                let p = seen.apply(&c.pose(held(&c, travel, rack)?, rack).ok()?);
                Some((
                    p.wheel(c.loaded_radius(), c.design_x()),
                    contact_point(&p.centre, &p.spin, c.loaded_radius()).z,
                ))
            };
            let both =
                |rack: f64| Some((pose(left, rack, attitude)?, pose(right, -rack, attitude.other_side())?));
            let zero = both(0.0).ok_or_else(|| {
                vec![Problem::new("travel_mm", said("jig-cannot"), said("jig-cannot-right"))]
            })?;
            let turn = |steer: f64| {
                let rack = rack_for(&c, left, steer)?;
                let ((l, zl), (r, zr)) = both(rack)?;
                Some(JigTurn {
                    steer_deg: steer,
                    left_deg: l.camber_deg,
                    right_deg: r.camber_deg,
                    // The tyre stays on the ground: what its contact goes down by lifts the body.
                    lift_mm: f64::midpoint(zero.0.1 - zl, zero.1.1 - zr),
                })
            };
            let turns: Vec<JigTurn> = (0..SWEEP)
                .filter_map(|i| turn(SWEPT_DEG * (2.0 * f64::from(i) / f64::from(SWEEP - 1) - 1.0)))
                .collect();
            let at = |field| vec![Problem::new(field, said("jig-cannot"), said("jig-cannot-right"))];
            let rack = rack_for(&c, left, a.steer_deg).ok_or_else(|| at("steer_deg"))?;
            let stands = held(&c, left, rack).ok_or_else(|| at("steer_deg"))?;
            let drawing = draw_steered(&c, stands, rack, attitude).map_err(|_| at("steer_deg"))?;
            let (now, _) = pose(left, rack, attitude).ok_or_else(|| at("steer_deg"))?;
            let level = AxleSetting { camber_deg: now.camber_deg, toe_deg: 0.0, caster_deg: 0.0 };
            let print =
                axle_patches(&tyres, Axle::Front, &level, &Bend { ay_g: 0.0, steer_deg: 0.0 })?.straight;
            let straight = straight(&c).ok_or_else(|| cannot("camber_deg"))?;
            Ok(JigStands { straight, now: [now.camber_deg, now.toe_deg], drawing, turns, print, made: m })
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn setting(camber_at: CamberAt, camber_deg: f64) -> JigSetting {
        JigSetting {
            camber_at,
            camber_deg,
            caster_deg: 5.0,
            more_lean_deg: 0.0,
            toe_deg: 0.05,
            wheel_out_mm: 0.0,
        }
    }

    fn on(shape: JigShape, settings: Vec<JigSetting>) -> JigAsked {
        JigAsked { shape, settings, steer_deg: 0.0, travel_mm: 0.0, roll_deg: 0.0 }
    }

    #[test]
    fn the_same_camber_stands_the_same_straight_ahead_wherever_it_is_made() {
        for shape in [JigShape::Wishbones, JigShape::Strut] {
            let base = straight(&Corner::new(
                &shape_of(shape).unwrap().geometry.points,
                &shape_of(shape).unwrap().geometry.wheel,
            ))
            .unwrap();
            for at in [CamberAt::Top, CamberAt::LowerArm, CamberAt::Knuckle] {
                let s = &jig(&on(shape, vec![setting(at, -2.0)])).unwrap()[0].straight;
                assert!(
                    (s.camber_deg + 2.0).abs() < 1e-6 && (s.caster_deg - 5.0).abs() < 1e-6,
                    "{shape:?} {at:?} {s:?}"
                );
                assert!((s.toe_deg - 0.05).abs() < 1e-6);
                // The axis leans with the wheel, or it does not.
                let leaned = s.sai_deg - base.sai_deg;
                let wanted = if at == CamberAt::Knuckle { 0.0 } else { base.camber_deg + 2.0 };
                assert!((leaned - wanted).abs() < 1e-6, "{shape:?} {at:?} {leaned} {wanted}");
            }
        }
    }

    /// To first order (textbook): steered by δ, caster adds −sin(caster)·sin(δ) of camber to the wheel that is outside and SAI
    /// takes (1 − cos δ)·SAI of it; a wheel steered to the left gains camber by both.
    #[test]
    fn caster_and_lean_make_camber_as_it_steers() {
        let a = on(JigShape::Wishbones, vec![setting(CamberAt::Knuckle, 0.0)]);
        let seen = &jig(&a).unwrap()[0];
        assert_eq!(seen.turns.len(), SWEEP as usize);
        let sai = seen.straight.sai_deg;
        for t in seen.turns.iter().filter(|t| t.steer_deg.abs() > 5.0) {
            let d = t.steer_deg.to_radians();
            let order = 5.0 * d.sin() + sai * (1.0 - d.cos());
            assert!((t.left_deg - order).abs() < 0.45, "{t:?} {order}");
        }
        // Both wheels of a car are mirror images.
        let (first, last) = (&seen.turns[0], &seen.turns[SWEEP as usize - 1]);
        assert!((first.steer_deg + last.steer_deg).abs() < 1e-9);
    }

    /// At one height the arms stand still: steering is a rotation about the line through the joints (Rodrigues, by nalgebra).
    #[test]
    fn the_body_is_lifted_as_a_wheel_turns_about_its_axis() {
        let s = setting(CamberAt::Knuckle, -0.5);
        let a = on(JigShape::Wishbones, vec![s]);
        let shape = shape_of(a.shape).unwrap();
        let base = Corner::new(&shape.geometry.points, &shape.geometry.wheel);
        let c = made(a.shape, &base, &s).unwrap().1;
        let pose = c.pose(0.0, 0.0).unwrap();
        let axis = pose.axis.unwrap();
        let about = nalgebra::Unit::new_normalize(axis.upper - axis.lower);
        let ground = |turn: f64| {
            let r = nalgebra::Rotation3::from_axis_angle(&about, turn);
            let centre = axis.lower + r * (pose.centre - axis.lower);
            contact_point(&centre, &(r * pose.spin), c.loaded_radius()).z
        };
        for t in &jig(&a).unwrap()[0].turns {
            // The turn about the axis of either wheel is read back from its camber and heading together: searched for.
            let turn_of = |steer: f64| {
                let heads = |phi: f64| {
                    let spin = nalgebra::Rotation3::from_axis_angle(&about, phi) * pose.spin;
                    (bold_stance_kinematics::wheel::toe(&pose.spin)
                        - bold_stance_kinematics::wheel::toe(&spin))
                    .to_degrees()
                        - steer
                };
                let (mut low, mut high) = (-1.2, 1.2);
                for _ in 0..60 {
                    let mid = f64::midpoint(low, high);
                    if heads(mid) > 0.0 { high = mid } else { low = mid }
                }
                f64::midpoint(low, high)
            };
            let left = ground(0.0) - ground(turn_of(t.steer_deg));
            let rack = rack_for(&c, 0.0, t.steer_deg).unwrap();
            let zero = c.wheel(0.0, 0.0).unwrap().toe_deg;
            let right_steer = zero - c.wheel(held(&c, 0.0, -rack).unwrap(), -rack).unwrap().toe_deg;
            let right = ground(0.0) - ground(turn_of(right_steer));
            assert!((t.lift_mm - f64::midpoint(left, right)).abs() < 2e-3, "{t:?} {left} {right}");
        }
    }

    #[test]
    fn more_lean_takes_both_wheels_out_at_lock_and_a_wheel_farther_out_lifts_the_body() {
        let mut lean = setting(CamberAt::Knuckle, 0.0);
        lean.more_lean_deg = 4.0;
        let mut out = setting(CamberAt::Knuckle, 0.0);
        out.wheel_out_mm = 45.0;
        let seen = |s| jig(&on(JigShape::Strut, vec![setting(CamberAt::Knuckle, 0.0), s])).unwrap();
        let (leaned, wide) = (seen(lean), seen(out));
        assert!((leaned[1].straight.sai_deg - leaned[0].straight.sai_deg - 4.0).abs() < 1e-6);
        assert!((wide[1].straight.scrub_radius_mm - wide[0].straight.scrub_radius_mm - 45.0).abs() < 0.5);
        let end = |s: &[JigStands], k: usize| s[k].turns.last().copied().unwrap();
        assert!(end(&leaned, 1).left_deg > end(&leaned, 0).left_deg);
        assert!(end(&leaned, 1).right_deg > end(&leaned, 0).right_deg);
        assert!(end(&wide, 1).lift_mm > end(&wide, 0).lift_mm + 0.5);
    }

    #[test]
    fn roll_leans_the_wheels_and_travel_moves_them() {
        let mut a = on(JigShape::Strut, vec![setting(CamberAt::Top, -1.0)]);
        let level = jig(&a).unwrap()[0].now[0];
        a.roll_deg = 3.0;
        let rolled = jig(&a).unwrap()[0].now[0];
        assert!(rolled != level);
        a = JigAsked { travel_mm: 40.0, ..a };
        assert!(jig(&a).is_ok());
        // A print that leans carries its load on one side.
        let mut far = on(JigShape::Strut, vec![setting(CamberAt::Top, -4.0)]);
        far.steer_deg = 0.0;
        let p = jig(&far).unwrap().remove(0).print;
        assert!(p.thirds[0] > p.thirds[2], "{:?}", p.thirds);
    }

    #[test]
    fn what_is_out_of_bounds_is_told_at_its_field() {
        let mut a = on(JigShape::Strut, vec![setting(CamberAt::Top, -9.0)]);
        a.steer_deg = 80.0;
        let fields: Vec<String> = jig(&a).unwrap_err().into_iter().map(|p| p.field).collect();
        assert_eq!(fields, ["settings.0.camber_deg", "steer_deg"]);
        assert_eq!(jig(&on(JigShape::Strut, vec![])).unwrap_err()[0].field, "settings");
    }
}
