//! A measured car kept as a shape of the shop.

use super::facts::VehicleFacts;
use super::moving::{MovingAsked, moving_said};
use bold_stance_car::adjuster::{Adjuster, offers};
use bold_stance_car::archetype::{Archetype, UsualCar};
use bold_stance_kinematics::geometry::{Axle, Geometry};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;

/// The kind and place an adjuster is offered under, as a shape names it.
fn offered_as(g: &Geometry, a: &Adjuster) -> Option<String> {
    let all = offers(&g.points);
    let places = all.iter().flat_map(|o| o.places.iter().map(move |p| (o.kind, p)));
    let (kind, place) = places.into_iter().find(|(_, p)| p.adjuster.turns_with(a))?;
    Some(format!("{} {}", kind.word(), place.adjuster.name))
}

/// An axle of a measured car as a shape of the shop: its points as the readings have them where they fit, and what such a car is.
///
/// # Errors
/// A [`Problem`] at `name`, or at the axle's points while there are none.
pub fn shape_of(f: &VehicleFacts, axle: Axle, name: &str) -> Result<Archetype, Vec<Problem>> {
    let name = name.trim();
    let n = name.chars().count();
    if !(1..=60).contains(&n) {
        let wrong = if n == 0 { said("nothing-entered") } else { said("fault-characters").count("n", n) };
        return Err(vec![Problem::new("name", wrong, said("fault-characters-right").count("n", 60))]);
    }
    let shape = &f.axles[axle];
    let told = &f.car.axles[axle];
    let Some(mut geometry) = shape.geometry.clone() else {
        let field = format!("axles.{}.geometry", axle.word());
        return Err(vec![Problem::new(field, said("nothing-entered"), said("fault-points-front-axle"))]);
    };
    if let Some(m) = &told.moving {
        let (knowledge, design_height_mm) = (shape.knowledge, shape.height_mm);
        let asked =
            MovingAsked { geometry: geometry.clone(), knowledge, design_height_mm, moving: m.clone() };
        if let Ok(found) = moving_said(&asked) {
            geometry = found.geometry;
        }
    }
    geometry.name = name.to_owned();
    let word = |v: serde_json::Result<serde_json::Value>| {
        v.ok().and_then(|v| v.as_str().map(str::to_owned)).unwrap_or_default()
    };
    let slug: String =
        name.to_lowercase().chars().map(|c| if c.is_ascii_alphanumeric() { c } else { '-' }).collect();
    let adjusters = told.adjusters.iter().filter_map(|a| offered_as(&geometry, &a.adjuster)).collect();
    Ok(Archetype {
        id: format!("own-{}", slug.chars().take(50).collect::<String>()),
        name: name.to_owned(),
        seen: f.name.clone(),
        note: String::new(),
        usual: UsualCar {
            upper_shaft: None,
            adjusters,
            tabs: false,
            tyre_size: f.tyre_size_of(axle).to_owned(),
            tyre_class: word(serde_json::to_value(f.tyre_class)),
            tread_depth_mm: f.tread_depth_mm,
            wheelbase_mm: (axle == Axle::Front).then_some(f.wheelbase_mm),
            load_n: told.load_n,
            height_mm: shape.height_mm,
            drive: word(serde_json::to_value(f.drive)),
            silhouette: word(serde_json::to_value(f.silhouette)),
            aim: f.car.usual_aim.clone().unwrap_or_else(|| "even-wear".into()),
            height_by: told.height_by.as_ref().map(|h| h.kind),
        },
        geometry,
    })
}
