//! Parts and tyres rather than the gauge: bent, unequal, worn.

use super::super::method::Method;
use super::super::quantity::{Quantity, ReadSide};
use super::{Found, WHEELS, cap, name, standing};
use crate::fit::Z90;
use crate::geometry::{Axle, Side};
use crate::units::print_degrees;

pub(super) fn equal_marks(f: &mut Found<'_, '_>) {
    let s = f.scene;
    if !s.same_marks {
        return;
    }
    for (q, least) in [(Quantity::Camber, 0.75_f64), (Quantity::Caster, 1.0)] {
        let at = |side| s.here(q, Axle::Front, side);
        let (Some(l), Some(r)) = (at(Side::Left), at(Side::Right)) else { continue };
        let apart = l.value - r.value;
        if apart.abs() > least.max(3.0 * l.sigma.hypot(r.sigma)) {
            f.at(
                if apart > 0.0 { l } else { r },
                format!(
                    "Cams at the same marks, {} {} apart left to right.",
                    q.title().to_lowercase(),
                    print_degrees(apart.abs(), 1)
                ),
                "Equal settings that give unequal angles mean a bent knuckle, arm or frame. A caster gap above \
                 1° on a subframe means the subframe has shifted.",
                "Read SAI on both sides and compare included angles; tape both wheelbases.",
            );
        }
    }
}

pub(super) fn bent_rim(f: &mut Found<'_, '_>) {
    for r in standing(f.scene) {
        let wobble = if r.quantity == Quantity::RimRunout {
            (r.value > 1.5).then(|| format!("{:.1} mm over one turn", r.value))
        } else {
            r.also("run_out_deg")
                .filter(|v| *v > 0.2)
                .map(|v| format!("{} half a turn apart", print_degrees(2.0 * v, 1)))
        };
        if let Some(w) = wobble {
            f.at(
                r,
                format!("{} wheel wobbles: {w}.", cap(&r.place.words())),
                "A bent rim gives a different camber and toe wherever it happens to stand.",
                "Read every angle of this wheel half a turn apart, or change the wheel.",
            );
        }
    }
}

pub(super) fn included_angle(f: &mut Found<'_, '_>) {
    let s = f.scene;
    let included = |side| {
        let caster = s.here(Quantity::Caster, Axle::Front, side)?;
        let camber = s.here(Quantity::Camber, Axle::Front, side)?;
        Some((caster.also("sai_deg")? + camber.value, caster))
    };
    let (Some((l, left)), Some((r, right))) = (included(Side::Left), included(Side::Right)) else { return };
    // SAI comes from the same sweep as caster and holds no better; camber's own doubt is small beside it.
    if (l - r).abs() > f64::max(0.7, 2.0 * left.sigma.hypot(right.sigma)) {
        f.at(
            if l < r { left } else { right },
            format!("Included angle {} left, {} right.", print_degrees(l, 1), print_degrees(r, 1)),
            "Included angle belongs to the knuckle and no adjuster changes it. A difference means something is bent.",
            "Sweep both sides again with the brakes held; if it stays, look at knuckle and strut.",
        );
    }
}

/// Above this left to right a subframe is looked at, degrees.
const CASTER_APART_DEG: f64 = 1.0;

pub(super) fn caster_apart(f: &mut Found<'_, '_>) {
    let at = |side| f.scene.here(Quantity::Caster, Axle::Front, side);
    let (Some(l), Some(r)) = (at(Side::Left), at(Side::Right)) else { return };
    let apart = l.value - r.value;
    if apart.abs() > CASTER_APART_DEG + Z90 * l.sigma.hypot(r.sigma) {
        let less = if apart < 0.0 { l } else { r };
        let way = if apart < 0.0 { "left" } else { "right" };
        f.at(
            less,
            format!("Caster {} apart left to right.", print_degrees(apart.abs(), 1)),
            &format!(
                "It pulls to the {way}, the side with less. More than 1° apart is seldom adjustment alone: a shifted \
                 subframe, a bent arm or a pushed-back wheel shows so."
            ),
            "Tape both wheelbases and the subframe against the body, then sweep again.",
        );
    }
}

/// Thrust that a driver sees at the steering wheel, degrees.
const THRUST_DEG: f64 = 0.15;

pub(super) fn rear_steers(f: &mut Found<'_, '_>) {
    let s = f.scene;
    let (Some((l, sl, left)), Some((r, sr, right))) =
        (s.toe(s.visit, Axle::Rear, Side::Left), s.toe(s.visit, Axle::Rear, Side::Right))
    else {
        return;
    };
    // Half of a total says nothing of the direction.
    if left.quantity != Quantity::Toe || right.quantity != Quantity::Toe {
        return;
    }
    let (thrust, sigma) = (0.5 * (l - r), 0.5 * sl.hypot(sr));
    if thrust.abs() > f64::max(THRUST_DEG, Z90 * sigma) {
        let way = if thrust > 0.0 { "right" } else { "left" };
        f.at(
            if thrust > 0.0 { left } else { right },
            format!("The rear axle points {} to the {way}.", print_degrees(thrust.abs(), 2)),
            &format!(
                "The rear steers the car: it crabs, and going straight the steering wheel stands off to the {way}."
            ),
            "Set rear toe alike on both sides, or square the axle, before the front.",
        );
    }
}

/// Least difference of two taped wheelbases that is named, mm.
const WHEELBASE_MM: f64 = 4.0;

pub(super) fn wheelbases_apart(f: &mut Found<'_, '_>) {
    let s = f.scene;
    let at =
        |side| standing(s).into_iter().find(|r| r.quantity == Quantity::Wheelbase && r.place.side == side);
    let (Some(l), Some(r)) = (at(ReadSide::Left), at(ReadSide::Right)) else { return };
    let apart = l.value - r.value;
    if apart.abs() > f64::max(WHEELBASE_MM, Z90 * l.sigma.hypot(r.sigma)) {
        let (short, way) = if apart < 0.0 { (l, "left") } else { (r, "right") };
        f.at(
            short,
            format!("Wheelbase {:.0} mm shorter on the {way}.", apart.abs()),
            "An axle is skewed or a wheel stands back. A skewed rear axle steers the car; set-back of a front wheel pulls.",
            "Read set-back at the front; what is left is the rear axle's. Tape the diagonals.",
        );
    }
}

pub(super) fn toe_or_camber(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for (axle, side) in WHEELS {
        let Some(t) = s.here(Quantity::TreadDepth, axle, side) else { continue };
        let (Some(inner), Some(outer)) = (t.also("inner_mm"), t.also("outer_mm")) else { continue };
        let Some(camber) = s.newest(Quantity::Camber, t.place) else { continue };
        let feather = t.typed("feather").unwrap_or_default();
        let edge = if inner < outer { "inner" } else { "outer" };
        let leans = if inner < outer { camber.value < -0.75 } else { camber.value > 0.5 };
        if (inner - outer).abs() < 1.0 {
            continue;
        }
        if leans && feather == "smooth" {
            f.at(
                t,
                format!("{} edge worn and smooth: camber at the height it is driven at, not toe.", cap(edge)),
                "Toe leaves sharp feathered edges across the tread. A smooth slope to one edge is camber.",
                "Read camber at the lowest height it is driven at.",
            );
        } else if feather.starts_with("sharp") {
            f.at(
                t,
                format!("{} edge worn and feathered: toe, whatever camber says.", cap(edge)),
                "Feathered edges come from toe.",
                "Read toe with the steering locked straight.",
            );
        }
    }
}

pub(super) fn string_tracks(f: &mut Found<'_, '_>) {
    let s = f.scene;
    let Some(car) = s.car else { return };
    let apart = car.track_mm[1] - car.track_mm[0];
    for r in standing(s).into_iter().filter(|r| r.method == Method::ToeString) {
        if apart.abs() > 4.0 && r.typed("strung") != Some("rear-wheels") {
            let yaw = (apart / 2.0 / car.car.wheelbase_mm).atan().to_degrees();
            f.at(
                r,
                format!(
                    "{}: strung as if both tracks were alike; they differ by {:.0} mm.",
                    name(r),
                    apart.abs()
                ),
                &format!(
                    "A string along the rear wheels then runs {} off the centre line.",
                    print_degrees(yaw.abs(), 2)
                ),
                "Say how it was strung, or measure the string from both hubs and set it parallel.",
            );
        }
    }
}
