//! What the specialist wants the angles to be, as windows with a reason.

use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::problem::{Problem, in_range, parse_json};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// Low and high end, degrees.
pub type Window = [f64; 2];

/// How far a value lies outside a window, signed: below it negative, inside it 0.
#[must_use]
pub fn off_window(v: f64, [low, high]: Window) -> f64 {
    if v < low {
        v - low
    } else if v > high {
        v - high
    } else {
        0.0
    }
}

/// Windows of one wheel, degrees.
#[derive(Debug, Clone, Copy)]
pub struct Target {
    /// Top out positive.
    pub camber: Window,
    /// Top rearward positive.
    pub caster: Window,
    /// Per wheel, toe-in positive.
    pub toe: Window,
}

/// At which height state an aim is judged.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum JudgedAt {
    /// As it leaves the bay.
    #[default]
    Planned,
    /// After springs and bushings have settled.
    Settled,
    /// With the usual payload.
    Loaded,
}

/// Camber of both front wheels at full lock, where it matters.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct LockAim {
    /// Wheel on the outside of the turn, degrees.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub outer_deg: [f64; 2],
    /// Wheel on the inside of the turn, degrees.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub inner_deg: [f64; 2],
}

/// One side of a disagreement: what it asks for and why.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Choice {
    /// What it is called.
    pub name: String,
    /// Its argument, one sentence.
    pub argument: String,
    /// Front camber, degrees, when it sets it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub camber_deg: Option<[f64; 2]>,
    /// Front caster, degrees, when it sets it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub caster_deg: Option<[f64; 2]>,
    /// Left minus right caster at most, degrees, when it sets it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cross_caster_deg: Option<f64>,
    /// At which height it judges, when it sets it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub judged_at: Option<JudgedAt>,
}

/// A question on which good shops differ, with both arguments.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct View {
    /// The question.
    pub about: String,
    /// Two or more answers.
    pub choices: Vec<Choice>,
}

/// Windows of the right front where they are others than the left's, degrees.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields, default)]
pub struct RightAim {
    /// Camber.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub camber_deg: Option<[f64; 2]>,
    /// Caster.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub caster_deg: Option<[f64; 2]>,
}

/// How far left and right may lie apart, and about what.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Cross {
    /// Most, degrees of camber.
    pub camber: f64,
    /// Most, degrees of caster.
    pub caster: f64,
    /// Left minus right that is wanted: camber and caster, degrees; 0 where both sides are aimed alike.
    pub middle: [f64; 2],
}

impl Cross {
    /// Sides aimed alike.
    #[must_use]
    pub fn alike(camber: f64, caster: f64) -> Self {
        Self { camber, caster, middle: [0.0; 2] }
    }

    /// How far left minus right lies from what is wanted: camber, caster, degrees, signed.
    #[must_use]
    pub fn off(&self, camber: f64, caster: f64) -> [f64; 2] {
        [camber - self.middle[0], caster - self.middle[1]]
    }
}

/// A school of aims; all windows are editable.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Aim {
    /// Stable word.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Why one would want it.
    pub reason: String,
    /// Front camber, degrees, each side.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub camber_deg: [f64; 2],
    /// Front caster, degrees, each side.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub caster_deg: [f64; 2],
    /// Whether as much caster is wanted as can be had inside its window, not its middle.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub caster_most: bool,
    /// Front total toe, degrees, toe-in positive.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub toe_total_deg: [f64; 2],
    /// Most left-minus-right camber in size, degrees.
    pub cross_camber_deg: f64,
    /// Most left-minus-right caster in size, degrees.
    pub cross_caster_deg: f64,
    /// The right front where it is aimed otherwise than the left.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub right: Option<RightAim>,
    /// Rear camber, degrees, each side.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub rear_camber_deg: Option<[f64; 2]>,
    /// Rear total toe, degrees, toe-in positive.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub rear_toe_total_deg: Option<[f64; 2]>,
    /// Camber at full lock, where the aim looks at it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lock: Option<LockAim>,
    /// At which height the windows count.
    #[serde(default)]
    pub judged_at: JudgedAt,
    /// Name of the air level they count at; goes before `judged_at` where the car has it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(max_length = 40))]
    pub level: Option<String>,
    /// Disagreements within the school.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub views: Vec<View>,
}

/// Rear windows where an aim names none (common practice, no source).
const USUAL_REAR: ([f64; 2], [f64; 2]) = ([-1.5, 0.0], [0.0, 0.3]);
/// A window that nothing is outside of: caster of a wheel that does not steer.
const OPEN: Window = [-90.0, 90.0];

impl Aim {
    /// Windows of one wheel; caster is open at the rear.
    #[must_use]
    pub fn target(&self, axle: Axle, side: Side) -> Target {
        let right = self.right.filter(|_| side == Side::Right).unwrap_or_default();
        match axle {
            Axle::Front => Target {
                camber: right.camber_deg.unwrap_or(self.camber_deg),
                caster: right.caster_deg.unwrap_or(self.caster_deg),
                toe: self.wheel_toe(),
            },
            Axle::Rear => {
                let toe = self.rear_toe_total_deg.unwrap_or(USUAL_REAR.1);
                Target {
                    camber: self.rear_camber_deg.unwrap_or(USUAL_REAR.0),
                    caster: OPEN,
                    toe: toe.map(|v| 0.5 * v),
                }
            }
        }
    }

    /// How far the sides of an axle may lie apart, about what the aim wants.
    #[must_use]
    pub fn cross(&self, axle: Axle) -> Cross {
        let middle = |w: Window| f64::midpoint(w[0], w[1]);
        let (l, r) = (self.target(axle, Side::Left), self.target(axle, Side::Right));
        Cross {
            camber: self.cross_camber_deg,
            caster: self.cross_caster_deg,
            middle: [middle(l.camber) - middle(r.camber), middle(l.caster) - middle(r.caster)],
        }
    }

    /// Toe window of one wheel: half the total.
    #[must_use]
    pub fn wheel_toe(&self) -> Window {
        [self.toe_total_deg[0] / 2.0, self.toe_total_deg[1] / 2.0]
    }

    /// What is wrong with it, by field under `aim`.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        for (name, w, low, high) in [
            ("camber_deg", self.camber_deg, -12.0, 12.0),
            ("caster_deg", self.caster_deg, -10.0, 20.0),
            ("toe_total_deg", self.toe_total_deg, -6.0, 6.0),
        ] {
            window_problem(&format!("aim.{name}"), w, low, high, &mut out);
        }
        let right = self.right.unwrap_or_default();
        if let Some(w) = right.camber_deg {
            window_problem("aim.right.camber_deg", w, -12.0, 12.0, &mut out);
        }
        if let Some(w) = right.caster_deg {
            window_problem("aim.right.caster_deg", w, -10.0, 20.0, &mut out);
        }
        if let Some(l) = self.level.as_ref().filter(|l| !(1..=40).contains(&l.trim().chars().count())) {
            let wrong = said("fault-characters").count("n", l.chars().count());
            out.push(Problem::new("aim.level", wrong, said("fault-characters-right").count("n", 40)));
        }
        if let Some(w) = self.rear_camber_deg {
            window_problem("aim.rear_camber_deg", w, -12.0, 12.0, &mut out);
        }
        if let Some(w) = self.rear_toe_total_deg {
            window_problem("aim.rear_toe_total_deg", w, -6.0, 6.0, &mut out);
        }
        if let Some(l) = &self.lock {
            window_problem("aim.lock.outer_deg", l.outer_deg, -30.0, 30.0, &mut out);
            window_problem("aim.lock.inner_deg", l.inner_deg, -30.0, 30.0, &mut out);
        }
        for (f, text, most) in [("id", &self.id, 60), ("name", &self.name, 60), ("reason", &self.reason, 400)]
        {
            let n = text.trim().chars().count();
            if (n == 0 && f != "reason") || n > most {
                let wrong =
                    if n == 0 { said("nothing-entered") } else { said("fault-characters").count("n", n) };
                out.push(Problem::new(
                    format!("aim.{f}"),
                    wrong,
                    said("fault-characters-right").count("n", most),
                ));
            }
        }
        if self.views.len() > 6 || self.views.iter().any(|v| v.choices.len() > 4) {
            out.push(Problem::new(
                "aim.views",
                said("fault-too-many"),
                said("fault-6-questions-4-answers-at"),
            ));
        }
        for (name, v) in
            [("cross_camber_deg", self.cross_camber_deg), ("cross_caster_deg", self.cross_caster_deg)]
        {
            out.extend(in_range(&format!("aim.{name}"), v, 0.05, 10.0, "°").err());
        }
        out
    }
}

/// Checks a window's numbers and order.
pub fn window_problem(field: &str, w: Window, low: f64, high: f64, out: &mut Vec<Problem>) {
    for (i, v) in w.iter().enumerate() {
        out.extend(in_range(&format!("{field}.{i}"), *v, low, high, "°").err());
    }
    if w[0] > w[1] {
        out.push(Problem::new(
            format!("{field}.1"),
            said("fault-window-backwards").deg("low", w[0], 2).deg("high", w[1], 2),
            said("fault-high-end-at-above-low"),
        ));
    }
}

/// The aims that ship with the program.
///
/// # Errors
/// The first [`Problem`], with the path in `data/aims.json`.
pub fn shipped_aims() -> Result<Vec<Aim>, Problem> {
    let aims: Vec<Aim> = parse_json(include_bytes!("../../../data/aims.json"))?;
    match aims.iter().flat_map(Aim::problems).next() {
        Some(p) => Err(p),
        None => Ok(aims),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn nine_schools_ship_with_reasons_and_both_sides_of_their_disagreements() {
        let aims = shipped_aims().unwrap();
        assert_eq!(aims.len(), 9);
        assert!(aims.iter().all(|a| a.reason.len() > 20));
        for v in aims.iter().flat_map(|a| &a.views) {
            assert!(v.choices.len() >= 2 && v.choices.iter().all(|c| c.argument.len() > 20), "{}", v.about);
        }
        let about = |t: &str| aims.iter().flat_map(|a| &a.views).any(|v| v.about.contains(t));
        for t in ["cross-caster", "negative camber", "caster", "positive", "kerb"] {
            assert!(about(t), "{t}");
        }
    }

    #[test]
    fn a_backward_window_is_named() {
        let mut a = shipped_aims().unwrap().remove(0);
        a.caster_deg = [5.0, 3.0];
        assert_eq!(a.problems()[0].field, "aim.caster_deg.1");
    }
}
