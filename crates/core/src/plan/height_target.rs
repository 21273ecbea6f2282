//! From what is wanted to the gain of an axle, and to turns of a collar or bolt.

use crate::fit::Z90;
use crate::geometry::Axle;
use crate::problem::{Problem, in_range};
use crate::vehicle::{TurnRecord, learn_per_turn};
use serde::{Deserialize, Serialize};

/// What is wanted.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TargetKind {
    /// Hub centre to arch lip, mm.
    HubToArch,
    /// Floor to arch lip, mm.
    FloorToArch,
    /// Nose-down angle of the body, degrees: rear arch over front arch, by the wheelbase.
    Rake,
    /// Front and rear arches at one height over the floor.
    Level,
}

/// A wanted height of one axle, the other staying as planned.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct HeightTarget {
    /// What kind.
    pub kind: TargetKind,
    /// Which axle moves.
    pub axle: Axle,
    /// mm, or degrees for a rake; not looked at for level.
    pub value: f64,
    /// Hub to arch of this axle as found, mm, mean of both sides.
    pub own_mm: f64,
    /// Hub to arch of the other axle as planned, mm.
    pub other_mm: f64,
    /// Loaded radius of this axle's tyres as planned, mm.
    pub own_radius_mm: f64,
    /// Loaded radius of the other axle's, mm.
    pub other_radius_mm: f64,
    /// Axle to axle, mm.
    pub wheelbase_mm: f64,
    /// Turns recorded on this vehicle.
    #[serde(default)]
    pub turns: Vec<TurnRecord>,
}

/// The gain and the turns to get there.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct HeightAnswer {
    /// Hub-to-arch gain of the axle from as found, mm.
    pub gain_mm: f64,
    /// Turns of the bolt or collar, up positive.
    pub turns: f64,
    /// Half width of the 90 % band of the turns.
    pub turns_band: f64,
    /// Settled height a turn gives, mm.
    pub mm_per_turn: f64,
    /// Recorded turns it rests on; 0 is the usual value alone.
    pub records: usize,
}

/// Works a target out.
///
/// # Errors
/// The first [`Problem`] by field.
pub fn height_for(t: &HeightTarget) -> Result<HeightAnswer, Problem> {
    let (low, high, unit) =
        if t.kind == TargetKind::Rake { (-15.0, 15.0, "°") } else { (0.0, 2500.0, "mm") };
    in_range("value", t.value, low, high, unit)?;
    in_range("own_mm", t.own_mm, 50.0, 1500.0, "mm")?;
    in_range("other_mm", t.other_mm, 50.0, 1500.0, "mm")?;
    in_range("own_radius_mm", t.own_radius_mm, 100.0, 1000.0, "mm")?;
    in_range("other_radius_mm", t.other_radius_mm, 100.0, 1000.0, "mm")?;
    in_range("wheelbase_mm", t.wheelbase_mm, 1000.0, 8000.0, "mm")?;
    if t.turns.len() > 40 {
        return Err(Problem::new("turns", "more than forty records", "40 at most"));
    }
    let other_floor = t.other_mm + t.other_radius_mm;
    let own_floor = match t.kind {
        TargetKind::HubToArch => t.value + t.own_radius_mm,
        TargetKind::FloorToArch => t.value,
        TargetKind::Level => other_floor,
        TargetKind::Rake => {
            let rise = t.wheelbase_mm * t.value.to_radians().tan();
            if t.axle == Axle::Front { other_floor - rise } else { other_floor + rise }
        }
    };
    let gain_mm = own_floor - t.own_radius_mm - t.own_mm;
    let records: Vec<(f64, f64)> = t.turns.iter().map(|r| (r.turns, r.height_change_mm)).collect();
    let per = learn_per_turn(&records);
    let turns = gain_mm / per.mm;
    Ok(HeightAnswer {
        gain_mm,
        turns,
        turns_band: Z90 * (per.sigma_mm / per.mm).abs() * turns.abs(),
        mm_per_turn: per.mm,
        records: per.records,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn t(kind: TargetKind, axle: Axle, value: f64) -> HeightTarget {
        HeightTarget {
            kind,
            axle,
            value,
            own_mm: 498.0,
            other_mm: 571.0,
            own_radius_mm: 402.0,
            other_radius_mm: 402.0,
            wheelbase_mm: 3220.0,
            turns: Vec::new(),
        }
    }

    #[test]
    fn every_kind_of_target_by_hand() {
        let gain = |kind, axle, v| height_for(&t(kind, axle, v)).unwrap().gain_mm;
        assert!((gain(TargetKind::HubToArch, Axle::Front, 563.0) - 65.0).abs() < 1e-9);
        assert!((gain(TargetKind::FloorToArch, Axle::Front, 950.0) - 50.0).abs() < 1e-9);
        assert!((gain(TargetKind::Level, Axle::Front, 0.0) - 73.0).abs() < 1e-9);
        // Half a degree nose down over 3220 mm: 28.1 mm.
        assert!((gain(TargetKind::Rake, Axle::Front, 0.5) - (73.0 - 28.1)).abs() < 0.02);
        // The rear from 498 mm over a front at 571 mm: up 73 and 28.1 more.
        assert!((gain(TargetKind::Rake, Axle::Rear, 0.5) - (73.0 + 28.1)).abs() < 0.02);
    }

    #[test]
    fn turns_are_learned_from_what_was_turned() {
        // Common practice, no source (CP9): two turns gave about 3/8 in at the fender after settling.
        let mut x = t(TargetKind::HubToArch, Axle::Front, 508.0);
        let prior = height_for(&x).unwrap();
        assert!((prior.mm_per_turn - 9.525 / 2.0).abs() < 0.1 && prior.records == 0);
        x.turns = vec![
            TurnRecord { turns: 2.0, height_change_mm: 14.0 },
            TurnRecord { turns: 3.0, height_change_mm: 21.0 },
        ];
        let learned = height_for(&x).unwrap();
        assert!((learned.mm_per_turn - 6.9).abs() < 0.3, "{learned:?}");
        assert!(learned.turns < prior.turns && learned.turns_band < prior.turns_band);
    }

    #[test]
    fn a_wild_target_is_named() {
        assert_eq!(height_for(&t(TargetKind::Rake, Axle::Front, 40.0)).unwrap_err().field, "value");
    }
}
