//! One adjuster's order: how far, which way, in workshop words.

use bold_stance_car::adjuster::{Adjuster, AdjusterKind, Held, LeftHand, TurnKind};
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// One adjuster's order.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SettingLine {
    /// What the specialist calls it.
    pub name: String,
    /// Where it ends: degrees of a cam, turns of a thread.
    pub position: f64,
    /// From where it stood: degrees or turns.
    pub movement: f64,
    /// The same in notches or turns, signed.
    pub steps: f64,
    /// Movement of the pivot or growth of the link, mm.
    pub movement_mm: f64,
    /// `outboard`, `inboard`, `longer`, `shorter`, … or `leave`: a word to tell them apart by.
    pub direction: String,
    /// How much: `2 notches`, `1 3/4 turns`.
    pub amount: Said,
    /// Which way, in words.
    pub way: Said,
    /// The whole order in workshop words.
    pub words: Said,
    /// Between where and where it can be turned: degrees of a cam, turns, mm.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub ends: [f64; 2],
    /// Whether the last notch or turn is used up.
    pub at_end: bool,
    /// Whether it sets toe, last of all.
    pub sets_toe: bool,
    /// Whether it is a cam that turns between notches or freely.
    pub is_cam: bool,
    /// Degrees of one notch of a cam, when it has notches.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub notch_deg: Option<f64>,
    /// Whether it is one thing for both wheels of a live axle: ordered once.
    #[serde(default)]
    pub shared: bool,
    /// What is held in hand of it; none for what stays, and in a search.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub in_hand: Option<Box<InHand>>,
}

impl SettingLine {
    /// Whether anything is turned.
    #[must_use]
    pub fn moves(&self) -> bool {
        self.direction != "leave"
    }
}

/// What an order's amount is counted in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CountedIn {
    /// Whole notches or positions.
    Notches,
    /// Turns of a thread.
    Turns,
    /// A length, mm.
    Length,
    /// Degrees.
    Degrees,
}

impl CountedIn {
    /// What an order is counted in.
    #[must_use]
    pub fn of(line: &SettingLine) -> Self {
        match line.amount.id.as_ref() {
            "amount-notches" | "amount-positions" if line.steps != 0.0 => Self::Notches,
            "amount-turns" => Self::Turns,
            "amount-shims" | "amount-mm" => Self::Length,
            _ => Self::Degrees,
        }
    }
}

/// A thread as it is turned.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ThreadInHand {
    /// Ends that screw: a sleeve has two.
    pub ends: u32,
    /// Which is left-hand; none where nobody looked.
    pub left_hand: Option<LeftHand>,
    /// Flats of a hex it is turned by.
    pub flats: f64,
    /// Thread that stays engaged in each end after the order, mm; none where it was not measured.
    pub left_mm: Option<f64>,
    /// Least that has to stay, mm.
    pub least_mm: f64,
}

/// An order in hand.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct InHand {
    /// What turns.
    pub turn: TurnKind,
    /// What its amount is counted in.
    pub counted: CountedIn,
    /// The amount, as it is counted: notches, turns, mm, degrees; never below 0.
    pub ordered: f64,
    /// Where it sits in the drawing of its side as set, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub spot: Option<[f64; 3]>,
    /// The original mark.
    pub from: Said,
    /// The new mark.
    pub to: Said,
    /// Which way it is turned, as seen from the wheel; none where that is not known or nothing goes round.
    pub clockwise: Option<bool>,
    /// The thread, where it is one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thread: Option<ThreadInHand>,
    /// Which way lower and higher positions lie.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub ways: [Said; 2],
    /// Whether a higher position is outboard.
    pub outboard: bool,
    /// Camber, caster, toe of the wheel before it, with every order before it done as ordered, degrees, as expected.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub before: Option<[f64; 3]>,
    /// The same after it.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub after: Option<[f64; 3]>,
    /// The same on the way and a little past it, as far as it goes, least done first: what a gauge shows while it is loose.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub path: Vec<OnTheWay>,
}

/// A wheel with an order done in part.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct OnTheWay {
    /// How much of the order is done: 0 before it, 1 as ordered, more where it was turned farther.
    pub share: f64,
    /// Camber, degrees.
    pub camber_deg: f64,
    /// Caster, degrees.
    pub caster_deg: f64,
    /// Toe, in plus, degrees.
    pub toe_deg: f64,
}

/// The step a specialist counts in, and its words.
pub(super) fn unit_step(a: &Adjuster) -> (f64, Said) {
    match (&a.kind, a.step()) {
        (AdjusterKind::Thread { .. }, _) => (1.0, said("step-turn")),
        (AdjusterKind::Shims { .. }, Some(s)) => (s, said("step-shim").set_mm("mm", s)),
        (AdjusterKind::Slide { .. }, s) => {
            let s = s.unwrap_or(1.0);
            (s, said("step-mm").set_mm("mm", s))
        }
        (AdjusterKind::Tilt { .. } | AdjusterKind::Wedge { .. }, s) => {
            let s = s.unwrap_or(0.25);
            (s, said("step-degrees").plain("deg", s, 2))
        }
        (AdjusterKind::Sleeve { .. }, Some(s)) => (s, said("step-position")),
        (_, Some(s)) => {
            (s, said("step-notch").plain("deg", s, if (s - s.round()).abs() < 1e-9 { 0 } else { 2 }))
        }
        (_, None) => (5.0, said("step-degrees").plain("deg", 5.0, 0)),
    }
}

/// The order that brings an adjuster to a position.
pub(crate) fn line(a: &Adjuster, position: f64) -> SettingLine {
    let movement = position - a.position;
    let movement_mm = a.displacement_mm(position) - a.displacement_mm(a.position);
    let word = a.direction_word(a.position, position);
    let (unit, _) = unit_step(a);
    let stepped = a.step().is_some();
    let steps = match &a.kind {
        AdjusterKind::Thread { .. } => movement,
        _ if stepped => movement / unit,
        _ => movement,
    };
    let counted = |id, n: f64| said(id).count("n", n.abs().round() as usize);
    // Between notches it is ordered to a whole one by name: counting notches from there would be off by the rest.
    let between = stepped && (steps - steps.round()).abs() > 0.02 && is_notched(a);
    let amount = match &a.kind {
        _ if between => said("amount-degrees").plain("deg", movement.abs(), 0),
        AdjusterKind::Thread { .. } => said("amount-turns")
            .name("turns", turns(movement.abs()))
            .count("n", if movement.abs() > 1.0 { 2 } else { 1 }),
        AdjusterKind::Shims { .. } => said("amount-shims").set_mm("mm", movement.abs()),
        AdjusterKind::Slide { .. } => said("amount-mm").set_mm("mm", movement.abs()),
        AdjusterKind::Tilt { .. } | AdjusterKind::Wedge { .. } => {
            said("amount-degrees").plain("deg", movement.abs(), 2)
        }
        AdjusterKind::Sleeve { .. } => counted("amount-positions", steps),
        _ if stepped => counted("amount-notches", steps),
        _ => said("amount-degrees").plain("deg", movement.abs(), 1),
    };
    let way = said("way").word("way", word);
    let order = |id| said(id).say("amount", amount.clone()).word("way", word);
    let words = match (word, &a.kind) {
        ("leave", _) => said(match a.held {
            Some(Held::Seized) => "leave-seized",
            Some(Held::TabsIn) => "leave-tabs",
            Some(Held::NotHere) => "leave-not-here",
            None => "leave",
        }),
        _ if between => order("order-to").say("to", notch_word(a, position, unit)),
        (_, AdjusterKind::Shims { .. }) => order(if movement > 0.0 { "order-add" } else { "order-take-out" }),
        _ => order("order"),
    };
    // A thread ends where its engagement does.
    let [low, high] = if a.is_fixed() { a.built_range() } else { a.range() };
    let margin = a.step().unwrap_or((high - low) / 100.0) / 2.0;
    let at_end = !matches!(a.kind, AdjusterKind::Sleeve { .. })
        && (position - low < margin || high - position < margin);
    let is_cam = matches!(a.kind, AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. });
    SettingLine {
        name: a.name.clone(),
        position,
        movement,
        steps,
        movement_mm,
        direction: word.to_owned(),
        amount,
        way,
        words,
        ends: [low, high],
        at_end,
        sets_toe: false,
        is_cam,
        notch_deg: if is_cam { a.step() } else { None },
        shared: false,
        in_hand: None,
    }
}

/// Whether it is turned from one numbered mark to the next, counted from the centre mark.
fn is_notched(a: &Adjuster) -> bool {
    matches!(
        a.kind,
        AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. } | AdjusterKind::Sleeve { .. }
    )
}

/// `the centre mark`, `notch 3 outboard of centre`.
pub(crate) fn notch_word(a: &Adjuster, position: f64, unit: f64) -> Said {
    let n = (position / unit).round();
    if n == 0.0 {
        return said("centre-mark");
    }
    said("notch-of-centre").count("n", n.abs() as usize).word("way", a.direction_word(0.0, position))
}

/// `1 3/4`, `2/3`, `1/12`, `2`: turns in the fractions a spanner can follow.
#[must_use]
pub(crate) fn turns(t: f64) -> String {
    for den in [1u32, 4, 6, 12, 24] {
        let n = (t * f64::from(den)).round();
        if (t * f64::from(den) - n).abs() < 1e-6 {
            let (n, mut d) = (n as u64, u64::from(den));
            let (whole, mut rest) = (n / d, n % d);
            for p in [2, 3] {
                while rest > 0 && rest % p == 0 && d % p == 0 {
                    rest /= p;
                    d /= p;
                }
            }
            return match (whole, rest) {
                (w, 0) => w.to_string(),
                (0, r) => format!("{r}/{d}"),
                (w, r) => format!("{w} {r}/{d}"),
            };
        }
    }
    format!("{t:.2}")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn turns_read_like_a_workshop() {
        for (t, w) in
            [(1.75, "1 3/4"), (2.0 / 3.0, "2/3"), (0.5, "1/2"), (3.0, "3"), (1.0 / 24.0, "1/24"), (0.0, "0")]
        {
            assert_eq!(turns(t), w);
        }
    }
}
