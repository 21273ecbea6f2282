//! An order as it is held in hand: what turns, where it sits, from which mark to which, and what to expect after it.

use super::bench::Bench;
use super::line::{CountedIn, InHand, OnTheWay, SettingLine, ThreadInHand, line, notch_word};
use bold_stance_car::adjuster::{Adjuster, AdjusterKind, LEAST_ENGAGED_MM, TurnKind};
use bold_stance_car::draw::spot_drawn;
use bold_stance_kinematics::geometry::Points;
use bold_stance_units::said::{Said, said};
use std::collections::BTreeMap;

/// An hour of the clock, in half hours from twelve: a twenty-fourth of a turn is half of one, and a mark that goes there is not
/// said to be at the next.
fn hour(half_hours: i64) -> Said {
    let h = half_hours.rem_euclid(24);
    let n = if h < 2 { 12 } else { h as usize / 2 };
    said(if h % 2 == 0 { "mark-clock" } else { "mark-clock-half" }).count("n", n)
}

/// Original and new mark of what goes round so many turns, whichever sign they have; the original stands at twelve.
pub(crate) fn on_clock(turns: f64, clockwise: bool) -> (Said, Said) {
    let half_hours = (turns.abs() * 24.0).round() as i64;
    two_marks(hour(0), hour(if clockwise { half_hours } else { -half_hours }))
}

fn two_marks(from: Said, to: Said) -> (Said, Said) {
    (said("mark-original").say("at", from), said("mark-new").say("at", to))
}

/// Where an adjuster's mark stands at a position, in words.
fn mark_at(a: &Adjuster, position: f64) -> Said {
    let way = || a.direction_word(0.0, position);
    let middle = position.abs() < 1e-6;
    match (&a.kind, a.step()) {
        (AdjusterKind::Sleeve { .. }, _) if middle => said("mark-out"),
        (AdjusterKind::Sleeve { .. }, Some(s)) => {
            said("mark-position").count("n", (position / s).abs().round() as usize).word("way", way())
        }
        (AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. }, step) => match step {
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

fn marks(a: &Adjuster, order: &SettingLine, clockwise: Option<bool>) -> (Said, Said) {
    match (&a.kind, clockwise) {
        (AdjusterKind::Thread { .. }, Some(c)) => on_clock(order.movement, c),
        (AdjusterKind::Thread { .. }, None) => (said("mark-where-it-stands"), order.words.clone()),
        (AdjusterKind::Shims { .. }, _) => (said("mark-stack"), order.words.clone()),
        _ => two_marks(mark_at(a, a.position), mark_at(a, order.position)),
    }
}

fn thread(a: &Adjuster, order: &SettingLine) -> Option<ThreadInHand> {
    let AdjusterKind::Thread { pitch_mm, ends, engaged_mm, min_engaged_mm, left_hand, .. } = &a.kind else {
        return None;
    };
    Some(ThreadInHand {
        ends: *ends,
        left_hand: *left_hand,
        flats: order.movement.abs() * 6.0,
        left_mm: engaged_mm.map(|e| e - pitch_mm * order.position),
        least_mm: min_engaged_mm.unwrap_or(LEAST_ENGAGED_MM),
    })
}

/// What is held in hand of an order; `angles` are camber, caster, toe before and after it.
fn hand_of(
    a: &Adjuster,
    l: &SettingLine,
    spot: Option<[f64; 3]>,
    [before, after]: [Option<[f64; 3]>; 2],
) -> Box<InHand> {
    let clockwise = a.longer_clockwise().map(|c| c == (l.movement > 0.0));
    let (from, to) = marks(a, l, clockwise);
    let [low, high] = a.built_range();
    let way = |from, to| said("way").word("way", a.direction_word(from, to));
    let counted = CountedIn::of(l);
    Box::new(InHand {
        turn: TurnKind::of(a),
        counted,
        ordered: if counted == CountedIn::Notches { l.steps.abs() } else { l.movement.abs() },
        spot,
        from,
        to,
        clockwise,
        thread: thread(a, l),
        ways: [way(high, low), way(low, high)],
        outboard: a.direction_word(low, high) == "outboard",
        before,
        after,
        path: Vec::new(),
    })
}

/// Sixths of an order at which the way of the wheel is worked out, one past it: a straight line between two of them is within
/// a hundredth of a degree of a cam's arc over half a turn (held by a test).
const SIXTHS: std::ops::RangeInclusive<u8> = 0..=7;

/// The way of a wheel while one adjuster goes from where it stands to where it is ordered.
fn path(
    a: &Adjuster,
    from: f64,
    to: f64,
    ends: [Option<[f64; 3]>; 2],
    at: impl Fn(f64) -> Option<[f64; 3]>,
) -> Vec<OnTheWay> {
    let [low, high] = a.built_range();
    let reaches = |p: f64| (low - 1e-9..=high + 1e-9).contains(&p);
    SIXTHS
        .filter_map(|n| {
            let share = f64::from(n) / 6.0;
            let [camber_deg, caster_deg, toe_deg] = match n {
                0 => ends[0],
                6 => ends[1],
                _ => Some(from + share * (to - from)).filter(|p| reaches(*p)).and_then(&at),
            }?;
            Some(OnTheWay { share, camber_deg, caster_deg, toe_deg })
        })
        .collect()
}

/// Orders of one wheel with what is held in hand of each. `points` are those the bench's corner was made of; `angles` gives
/// camber, caster and toe with the adjusters at positions.
pub(crate) fn in_hand(
    bench: &Bench,
    points: &Points,
    mut lines: Vec<SettingLine>,
    angles: impl Fn(&[f64]) -> Option<[f64; 3]>,
) -> Vec<SettingLine> {
    let end = |a: &Adjuster| lines.iter().find(|l| l.name == a.name).map_or(a.position, |l| l.position);
    let corner = bench.set(&bench.adjusters.iter().map(end).collect::<Vec<_>>());
    let mut at = bench.start();
    let mut before = angles(&at);
    for l in lines.iter_mut().filter(|l| l.moves()) {
        let Some(i) = bench.adjusters.iter().position(|a| a.name == l.name) else { continue };
        let a = &bench.adjusters[i];
        let from = at[i];
        at[i] = l.position;
        let after = angles(&at);
        let way = path(a, from, l.position, [before, after], |p| {
            let mut part = at.clone();
            part[i] = p;
            angles(&part)
        });
        let spot = spot_drawn((&corner, points), bench.travel_mm, bench.attitude, a);
        let mut hand = hand_of(a, l, spot, [before, after]);
        hand.path = way;
        l.in_hand = Some(hand);
        before = after;
    }
    lines
}

/// An arm that squares an axle, from where it stands: it turns the axle and no wheel against it, so it has no angles of its own.
pub(crate) fn arm_in_hand(
    bench: &Bench,
    points: &Points,
    l: SettingLine,
    turned: &BTreeMap<String, f64>,
) -> SettingLine {
    let Some(a) = bench.adjusters.iter().find(|a| a.name == l.name) else { return l };
    let mut l = match turned.get(&l.name) {
        Some(stands) => {
            let a = Adjuster { position: *stands, ..a.clone() };
            SettingLine { shared: l.shared, ..line(&a, l.position) }
        }
        None => l,
    };
    if l.moves() {
        let spot = spot_drawn((&bench.set(&bench.start()), points), bench.travel_mm, bench.attitude, a);
        l.in_hand = Some(hand_of(a, &l, spot, [None, None]));
    }
    l
}

#[cfg(test)]
mod tests {
    use super::*;
    use bold_stance_car::adjuster::{LeftHand, default_adjusters};
    use bold_stance_units::said::Arg;

    fn sleeve(hand: LeftHand, ends: u32, link: &str) -> Adjuster {
        let mut a = default_adjusters(8.0)[2].clone();
        if let AdjusterKind::Thread { ends: e, left_hand, link: l, .. } = &mut a.kind {
            (*e, *left_hand, *l) = (ends, Some(hand), link.to_owned().into());
        }
        a
    }

    #[test]
    fn a_mark_goes_round_the_clock_with_the_turns() {
        let to = |turns, clockwise| {
            let (_, to) = on_clock(turns, clockwise);
            match to.args.get("at") {
                Some(Arg::Said(s)) => (s.id.to_string(), s.args.get("n").cloned()),
                other => panic!("{other:?}"),
            }
        };
        let at = |id: &str, n| (id.to_owned(), Some(Arg::Count(n)));
        assert_eq!(to(0.25, true), at("mark-clock", 3));
        assert_eq!(to(-1.25, false), at("mark-clock", 9));
        assert_eq!(to(2.0, true), at("mark-clock", 12));
        assert_eq!(to(1.0 / 12.0, true), at("mark-clock", 1));
        // Half an hour is half an hour: the next one would be twice the order.
        assert_eq!(to(1.0 / 24.0, true), at("mark-clock-half", 12));
        assert_eq!(to(13.0 / 24.0, true), at("mark-clock-half", 6));
        assert_eq!(to(1.0 / 24.0, false), at("mark-clock-half", 11));
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
