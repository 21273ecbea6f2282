//! Every height state with every angle's verdict: inside, how far outside, which way, on which side.

use super::angle::AngleName;
use super::judge::{READABLE_DEG, READABLE_TOE_DEG};
use super::reach::Plane;
use super::work::Work;
use crate::part::Part;
use bold_stance_car::vehicle::{Axles, StateKind};
use bold_stance_kinematics::geometry::Side;
use bold_stance_kinematics::wheel::Alignment;
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// An angle against its window.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AngleVerdict {
    /// Which.
    pub angle: AngleName,
    /// Degrees.
    pub value_deg: f64,
    /// Window, degrees.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub window_deg: [f64; 2],
    /// Degrees outside: above the window positive, below negative, 0 inside.
    pub off_deg: f64,
    /// Nobody read it: it is as expected and is not judged.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub unread: bool,
    /// In words, with the way it is off.
    pub words: Said,
}

/// One wheel at a height.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StateSide {
    /// Angles relative to the ground.
    pub angles: Alignment,
    /// Camber, caster where it steers, toe.
    pub verdicts: Vec<AngleVerdict>,
}

/// The axle at a height.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StateResult {
    /// Which.
    pub kind: StateKind,
    /// What the screen calls it.
    pub name: String,
    /// Gain of this axle from as found, mm.
    pub own_mm: f64,
    /// Gains of both axles, mm.
    pub gain_mm: Axles<f64>,
    /// Whether the aim counts here.
    pub judged: bool,
    /// Left; none when it cannot be reached.
    pub left: Option<StateSide>,
    /// Right; none when it cannot be reached.
    pub right: Option<StateSide>,
    /// Left minus right.
    pub cross: Vec<AngleVerdict>,
}

fn verdict(angle: AngleName, v: f64, w: [f64; 2]) -> AngleVerdict {
    // What is set to the edge of a window is inside it, and what nobody could read beyond it too.
    let hair = 1e-9 + if angle == AngleName::Toe { READABLE_TOE_DEG } else { READABLE_DEG };
    let off_deg = if v > w[1] + hair {
        v - w[1]
    } else if v < w[0] - hair {
        v - w[0]
    } else {
        0.0
    };
    let (more, less) = match angle {
        AngleName::Camber => ("top_out", "top_in"),
        AngleName::Caster => ("more_caster", "less_caster"),
        AngleName::Toe => ("toe_in", "toe_out"),
        AngleName::CrossCamber | AngleName::CrossCaster => ("left_higher", "right_higher"),
    };
    let words = if off_deg == 0.0 {
        said("angle-inside")
    } else {
        said("angle-off").miss_deg("by", off_deg.abs()).word("how", if off_deg > 0.0 { more } else { less })
    };
    AngleVerdict { angle, value_deg: v, window_deg: w, off_deg, unread: false, words }
}

/// Works every state out with the adjusters at `positions`; as found with nothing fitted.
pub(crate) fn states(work: &Work<'_>, parts: &[&Part], positions: &[Vec<f64>; 2]) -> Vec<StateResult> {
    let judged = work.input.judged();
    let steered = work.plane == Plane::CamberCaster;
    let axle = work.input.geometry.axle;
    // What nobody read is not judged.
    let verdict = |angle: AngleName, v: f64, w: [f64; 2]| {
        if work.input.is_read(angle) {
            return verdict(angle, v, w);
        }
        AngleVerdict { off_deg: 0.0, unread: true, words: said("angle-expected"), ..verdict(angle, v, w) }
    };
    work.input
        .states()
        .into_iter()
        .map(|s| {
            let angles = |i: usize| -> Option<Alignment> {
                if s.kind == StateKind::Arrived {
                    use bold_stance_kinematics::linkage::Linkage;
                    let side = &work.sides[i];
                    return Some(side.found.wheel(side.travel, 0.0).ok()?.or_unsteered());
                }
                work.bench_at(i, parts, &s).angles(&positions[i]).ok()
            };
            let (mut left, mut right) = (angles(0), angles(1));
            if steered && let (Some(l), Some(r)) = (&mut left, &mut right) {
                // Running straight the front steers itself until both wheels carry half of the total.
                let half = 0.5 * (l.toe_deg + r.toe_deg);
                if s.kind != StateKind::Arrived {
                    (l.toe_deg, r.toe_deg) = (half, half);
                }
            }
            let side = |side: Side, a: Option<Alignment>| {
                let t = work.aim().target(axle, side);
                a.map(|angles| {
                    let mut verdicts = vec![verdict(AngleName::Camber, angles.camber_deg, t.camber)];
                    if steered {
                        verdicts.push(verdict(AngleName::Caster, angles.caster_deg, t.caster));
                    }
                    verdicts.push(verdict(AngleName::Toe, angles.toe_deg, t.toe));
                    StateSide { angles, verdicts }
                })
            };
            let mut cross = Vec::new();
            if let (Some(l), Some(r)) = (&left, &right) {
                let limits = work.aim().cross(axle);
                let most = |v: f64, k: usize| [limits.middle[k] - v, limits.middle[k] + v];
                let camber = l.camber_deg - r.camber_deg;
                cross.push(verdict(AngleName::CrossCamber, camber, most(limits.camber, 0)));
                if steered {
                    let caster = l.caster_deg - r.caster_deg;
                    cross.push(verdict(AngleName::CrossCaster, caster, most(limits.caster, 1)));
                }
            }
            StateResult {
                kind: s.kind,
                judged: s.kind == judged.kind && s.name == judged.name,
                name: s.name,
                own_mm: s.own_mm,
                gain_mm: s.gain_mm,
                left: side(Side::Left, left),
                right: side(Side::Right, right),
                cross,
            }
        })
        .collect()
}
