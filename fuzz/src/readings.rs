//! Readings as typed: whatever stands in the entries, a value with a doubt comes out, or a fault at an entry.

use crate::edited::{all_finite, text};
use arbitrary::{Result, Unstructured};
use bold_stance_trade::job::{JobBundle, reading_car};
use bold_stance_trade::reading::{
    Answers, HALF_TURN, Jack, MethodInfo, Place, PrepareItem, Prepared, RawEntry, ReadAxle, ReadSide,
    ReadingCar, Take, shipped_methods, shipped_prepare, take,
};
use bold_stance_units::LengthUnit;
use std::sync::LazyLock;

static METHODS: LazyLock<Vec<MethodInfo>> = LazyLock::new(|| shipped_methods().unwrap_or_default());
static ITEMS: LazyLock<Vec<PrepareItem>> = LazyLock::new(|| shipped_prepare().unwrap_or_default());
static CARS: LazyLock<Vec<ReadingCar>> = LazyLock::new(|| {
    [include_bytes!("../seeds/strut_car.json").as_slice(), include_bytes!("../seeds/live_axle_car.json")]
        .into_iter()
        .filter_map(|t| reading_car(&JobBundle::from_json(t).ok()?.vehicle).ok())
        .collect()
});

/// A number about as large as an entry wants, written in one of the ways of a shop; or anything.
fn typed(low: f64, high: f64, u: &mut Unstructured<'_>) -> Result<String> {
    let v = low + (high - low) * f64::from(u.arbitrary::<u16>()?) / 65535.0;
    Ok(match u.int_in_range(0..=7u8)? {
        0 => text(u)?,
        1 => format!("{:.0} {}/16", v.trunc(), u.int_in_range(0..=17u8)?),
        2 => format!("{:.0}\u{b0}{}'", v.trunc(), u.int_in_range(0..=60u8)?),
        3 => format!("{:.1}; {:.1}; {:.1}", v, v + 0.1, v - 0.1),
        4 => format!("{v:.1} mm"),
        5 => format!("{:.2} in", v / 25.4),
        _ => format!("{v:.2}"),
    })
}

fn entries(m: &MethodInfo, u: &mut Unstructured<'_>) -> Result<Vec<RawEntry>> {
    let mut out = Vec::new();
    for e in &m.entries {
        if u.ratio(1, 10)? {
            continue;
        }
        let t = match &e.choices[..] {
            [] => typed(e.low, e.high, u)?,
            _ if u.ratio(1, 10)? => text(u)?,
            all => u.choose(all)?.clone(),
        };
        out.push(RawEntry::new(&e.name, &t));
        if m.half_turn && u.arbitrary()? {
            out.push(RawEntry::new(&format!("{}{HALF_TURN}", e.name), &typed(e.low, e.high, u)?));
        }
    }
    Ok(out)
}

fn one(u: &mut Unstructured<'_>) -> Result<()> {
    let (method, car) = (u.choose(&METHODS)?, u.choose(&CARS)?);
    let place = Place {
        axle: *u.choose(&[ReadAxle::Front, ReadAxle::Rear, ReadAxle::Both])?,
        side: *u.choose(&[ReadSide::Left, ReadSide::Right, ReadSide::Both])?,
    };
    let mut answers = Answers::new();
    for i in ITEMS.iter() {
        if u.ratio(1, 4)? {
            let t = if u.arbitrary()? { "yes".to_owned() } else { typed(-1.0, 5.0, u)? };
            answers.insert(i.id.clone(), t);
        }
    }
    let Ok(prepared) = Prepared::of(&answers, &ITEMS) else { return Ok(()) };
    let jacked = u.ratio(1, 5)?;
    let raw = entries(method, u)?;
    let on_jack = if jacked { typed(300.0, 700.0, u)? } else { String::new() };
    let taken = take(&Take {
        method,
        raw: &raw,
        unit: if u.arbitrary()? { LengthUnit::Mm } else { LengthUnit::In },
        place,
        jack: if jacked { Jack::Jacked } else { Jack::Rolled },
        jacked_height: &on_jack,
        car: if u.ratio(1, 8)? { None } else { Some(car) },
        heights: [Some(500.0), Some(502.0), if u.arbitrary()? { Some(520.0) } else { None }, Some(521.0)],
        prepared: &prepared,
        items: &ITEMS,
        aim: None,
    });
    match taken {
        Ok(t) => {
            all_finite("reading", [t.value, t.sigma]);
            assert!(t.sigma > 0.0, "no doubt at all: {raw:?}");
            all_finite("parts of a doubt", t.also.iter().map(|a| a.value));
        }
        Err(p) => assert!(!p.is_empty(), "refused without a word"),
    }
    Ok(())
}

/// A reading of any method at any place.
pub fn readings(data: &[u8]) {
    let _ = one(&mut Unstructured::new(data));
}
