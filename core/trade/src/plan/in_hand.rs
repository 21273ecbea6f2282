//! An order as it is held in hand: what turns, where it sits, from which mark to which, and what to expect after it.

use super::bench::Bench;
use super::line::{CountedIn, InHand, SettingLine, ThreadInHand, notch_word};
use bold_stance_car::adjuster::{Adjuster, AdjusterKind, LEAST_ENGAGED_MM, TurnKind};
use bold_stance_car::draw::spot_drawn;
use bold_stance_kinematics::geometry::Points;
use bold_stance_units::said::{Said, said};

/// Hour to which a mark that stood at twelve goes.
fn hour(turns: f64, clockwise: bool) -> usize {
    let hours = turns.abs() * if clockwise { 12.0 } else { -12.0 };
    match hours.rem_euclid(12.0).round() as usize % 12 {
        0 => 12,
        h => h,
    }
}

/// Where an adjuster's mark stands at a position, in words.
fn mark_at(a: &Adjuster, position: f64) -> Said {
    let way = || a.direction_word(0.0, position);
    let middle = position.abs() < 1e-6;
    match (&a.kind, a.step()) {
        (
            AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. } | AdjusterKind::Sleeve { .. },
            step,
        ) => match step {
            Some(s) if (position / s - (position / s).round()).abs() < 0.02 => notch_word(a, position, s),
            _ if middle => said("centre-mark"),
            _ => said("mark-degrees").plain("deg", position.abs(), 1).word("way", way()),
        },
        _ if middle => said("mark-middle"),
        (AdjusterKind::Tilt { .. } | AdjusterKind::Wedge { .. }, _) => {
            said("mark-lean").plain("deg", position.abs(), 2).word("way", way())
        }
        _ => said("mark-length").set_mm("mm", position.abs()).word("way", way()),
    }
}

fn marks(a: &Adjuster, line: &SettingLine, clockwise: Option<bool>) -> (Said, Said) {
    let pair = |from: Said, to: Said| (said("mark-original").say("at", from), said("mark-new").say("at", to));
    match (&a.kind, clockwise) {
        (AdjusterKind::Thread { .. }, Some(c)) => {
            let clock = |n| said("mark-clock").count("n", n);
            pair(clock(12), clock(hour(line.movement, c)))
        }
        (AdjusterKind::Thread { .. }, None) => (said("mark-where-it-stands"), line.words.clone()),
        (AdjusterKind::Shims { .. }, _) => (said("mark-stack"), line.words.clone()),
        _ => pair(mark_at(a, a.position), mark_at(a, line.position)),
    }
}

fn thread(a: &Adjuster, line: &SettingLine) -> Option<ThreadInHand> {
    let AdjusterKind::Thread { pitch_mm, ends, engaged_mm, min_engaged_mm, left_hand, .. } = &a.kind else {
        return None;
    };
    Some(ThreadInHand {
        ends: *ends,
        left_hand: *left_hand,
        left_mm: engaged_mm.map(|e| e - pitch_mm * line.position),
        least_mm: min_engaged_mm.unwrap_or(LEAST_ENGAGED_MM),
    })
}

/// Orders of one wheel with what is held in hand of each. `points` are those the bench's corner was made of; `angles` gives
/// camber, caster and toe with the adjusters at positions.
pub(crate) fn in_hand(
    bench: &Bench,
    points: &Points,
    mut lines: Vec<SettingLine>,
    angles: impl Fn(&[f64]) -> Option<[f64; 3]>,
) -> Vec<SettingLine> {
    let set: Vec<f64> = bench
        .adjusters
        .iter()
        .map(|a| lines.iter().find(|l| l.name == a.name).map_or(a.position, |l| l.position))
        .collect();
    let corner = bench.set(&set);
    let mut at = bench.start();
    let mut before = angles(&at);
    for l in lines.iter_mut().filter(|l| l.moves()) {
        let Some(i) = bench.adjusters.iter().position(|a| a.name == l.name) else { continue };
        let a = &bench.adjusters[i];
        at[i] = l.position;
        let after = angles(&at);
        let clockwise = a.longer_clockwise().map(|c| c == (l.movement > 0.0));
        let (from, to) = marks(a, l, clockwise);
        let [low, high] = a.built_range();
        let way = |from, to| said("way").word("way", a.direction_word(from, to));
        let counted = CountedIn::of(l);
        l.in_hand = Some(Box::new(InHand {
            turn: TurnKind::of(a),
            counted,
            ordered: if counted == CountedIn::Notches { l.steps.abs() } else { l.movement.abs() },
            spot: spot_drawn((&corner, points), bench.travel_mm, bench.attitude, a),
            from,
            to,
            clockwise,
            thread: thread(a, l),
            ways: [way(high, low), way(low, high)],
            outboard: a.direction_word(low, high) == "outboard",
            before,
            after,
        }));
        before = after;
    }
    lines
}

#[cfg(test)]
mod tests {
    use super::*;
    use bold_stance_car::adjuster::{LeftHand, default_adjusters};

    fn sleeve(hand: LeftHand, ends: u32, link: &str) -> Adjuster {
        let mut a = default_adjusters(8.0)[2].clone();
        if let AdjusterKind::Thread { ends: e, left_hand, link: l, .. } = &mut a.kind {
            (*e, *left_hand, *l) = (ends, Some(hand), link.to_owned().into());
        }
        a
    }

    #[test]
    fn a_mark_goes_round_the_clock_with_the_turns() {
        assert_eq!(hour(0.25, true), 3);
        assert_eq!(hour(1.25, false), 9);
        assert_eq!(hour(-2.0, true), 12);
        assert_eq!(hour(0.5, false), 6);
        // An hour is a twelfth of a turn; half an hour goes to the next.
        assert_eq!(hour(1.0 / 12.0, true), 1);
    }

    /// A right-hand nut goes away from whoever turns it clockwise: textbook screw.
    #[test]
    fn which_way_is_longer_follows_from_the_left_hand_end() {
        assert_eq!(sleeve(LeftHand::Wheel, 2, "upper").longer_clockwise(), Some(false));
        assert_eq!(sleeve(LeftHand::Inner, 2, "upper").longer_clockwise(), Some(true));
        assert_eq!(sleeve(LeftHand::Neither, 1, "tie").longer_clockwise(), Some(true));
        assert_eq!(sleeve(LeftHand::Wheel, 1, "tie").longer_clockwise(), Some(false));
        assert_eq!(
            sleeve(LeftHand::Neither, 1, "upper").longer_clockwise(),
            None,
            "either end may be turned"
        );
        assert_eq!(default_adjusters(8.0)[2].longer_clockwise(), None, "nobody looked");
    }
}
