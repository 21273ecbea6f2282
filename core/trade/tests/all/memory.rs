//! What the shop learned: simulated shops whose parts are not what they are sold for, and a real car's acceptance.

use bold_stance_car::adjuster::{AdjusterKind, Known};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::memory::{HowHeld, Memory, ProvedCar, SaidCame, Taught, Trial, pooled};
use bold_stance_trade::part::{Part, shipped_parts};
use bold_stance_trade::plan::AngleName;
use bold_stance_units::said::said;
use chrono::{DateTime, TimeZone, Utc};
use rand::SeedableRng;
use rand_distr::{Distribution, Normal};
use rand_pcg::Pcg64Mcg;

fn trial(part: &str, ln_times: f64, sd: f64) -> Trial {
    Trial {
        part: Some(part.into()),
        adjuster: "Cam bolt".into(),
        axle: Axle::Front,
        side: Side::Left,
        ln_times,
        sd,
        explained: None,
    }
}

fn at(day: u32) -> DateTime<Utc> {
    Utc.with_ymd_and_hms(2026, 11, day, 8, 0, 0).unwrap()
}

/// Accepted on the day its ticket ends in.
fn car(ticket: i32, trials: Vec<Trial>) -> ProvedCar {
    ProvedCar { ticket, at: at(ticket as u32 % 100 + 1), taught: Taught { trials, said: Vec::new() } }
}

/// Shops that prove sixty cars each with a part that is not what it is sold for: from ten cars on the next car is inside the
/// band of nine in ten as often as it should be, and the band narrows to what cars differ by.
#[test]
fn the_band_of_the_next_car_narrows_and_stays_honest() {
    let mut rng = Pcg64Mcg::seed_from_u64(16);
    for (mean, apart) in [(1.37f64.ln(), 0.08), (0.0, 0.05), (-0.2, 0.12)] {
        let (of_car, noise) = (Normal::new(mean, apart).unwrap(), Normal::new(0.0, 0.07).unwrap());
        for cars in [3usize, 10, 60] {
            let (mut inside, mut width, shops) = (0, 0.0, 1500);
            for _ in 0..shops {
                let seen: Vec<(f64, f64)> =
                    (0..cars).map(|_| (of_car.sample(&mut rng) + noise.sample(&mut rng), 0.07)).collect();
                let p = pooled(&seen).unwrap();
                let next: f64 = of_car.sample(&mut rng);
                inside += usize::from((next - p.mean).abs() <= 1.645 * p.next_sd());
                width += p.next_sd() / f64::from(shops);
            }
            let share = inside as f64 / f64::from(shops);
            // Three cars tell little of how far they differ: its moment estimate is rough there, and where they differ most
            // three in four is what it holds.
            let least = if cars == 3 { 0.72 } else { 0.85 };
            assert!((least..=0.97).contains(&share), "{mean} {apart} {cars}: {share}");
            if cars == 60 {
                assert!((width / apart - 1.0).abs() < 0.25, "{apart}: {width}");
            }
        }
    }
}

#[test]
fn a_trial_that_something_else_explains_is_shown_and_does_not_count() {
    let odd =
        Trial { explained: Some(said("explain-reversed").name("name", "Cam bolt")), ..trial("p", -1.0, 0.1) };
    let cars = vec![
        car(401, vec![trial("p", 0.3, 0.1), Trial { side: Side::Right, ..trial("p", 0.32, 0.1) }]),
        car(402, vec![odd]),
        // What says nothing is left out.
        car(403, vec![trial("p", 5.0, 3.0)]),
    ];
    let m = Memory::of(&cars, None);
    assert_eq!((m.cars, m.parts.len()), (3, 1));
    let p = &m.parts[0];
    assert_eq!(p.cars.iter().map(|c| c.ticket).collect::<Vec<_>>(), [401, 402]);
    assert!(p.cars[1].explained.is_some());
    let known = p.known.unwrap();
    assert_eq!(known.cars, 1);
    // Both wheels of one car are one trial: nearer its mean than one of them alone.
    assert!((p.cars[0].times.ln() - 0.31).abs() < 1e-9);
    assert!(known.times > 1.2 && known.times < 1.37, "{known:?}");
    assert!(p.between[0] < known.times && known.times < p.between[1]);
    // Nothing but odd ones: nothing is known.
    let m = Memory::of(&cars[1..2], None);
    assert!(m.parts[0].known.is_none() && m.parts[0].times == 1.0);
}

fn throw(p: &Part) -> f64 {
    p.adjusters
        .iter()
        .find_map(|a| match a.kind {
            AdjusterKind::CamBolt { amplitude_deg, .. } => Some(amplitude_deg),
            AdjusterKind::Eccentric { eccentricity_mm, .. } => Some(eccentricity_mm),
            _ => None,
        })
        .unwrap()
}

#[test]
fn a_part_is_planned_with_as_it_was_found_to_be() {
    let parts = shipped_parts().unwrap();
    let has = |p: &&Part| p.adjusters.iter().any(|a| matches!(a.kind, AdjusterKind::CamBolt { .. }));
    let bolt = parts.iter().find(has).expect("a cam bolt ships");
    let name =
        bolt.adjusters.iter().find(|a| matches!(a.kind, AdjusterKind::CamBolt { .. })).unwrap().name.clone();
    let of = |ln: f64| Trial { adjuster: name.clone(), ..trial(&bolt.id, ln, 0.04) };
    let cars: Vec<ProvedCar> = (0..4).map(|i| car(400 + i, vec![of(1.4f64.ln())])).collect();
    let m = Memory::of(&cars, None);
    // What is said of a car that is worked on stays said: later cars, and itself, change nothing of it.
    assert_eq!(Memory::of(&cars, Some(at(3))), Memory::of(&cars[..2], None));
    assert!(Memory::of(&cars, Some(at(1))).is_empty());
    let known = m.known_part(bolt);
    assert!((throw(&known) / throw(bolt) - 1.4).abs() < 0.02, "{} {}", throw(&known), throw(bolt));
    let a = known.adjusters.iter().find(|a| a.name == name).unwrap();
    let sold = bolt.adjusters.iter().find(|a| a.name == name).unwrap();
    assert!(a.gain_sd() < 0.5 * sold.gain_sd(), "{} {}", a.gain_sd(), sold.gain_sd());
    // A size of its family is known by the family; another part is not.
    let sized = Part { id: format!("{}@2", bolt.id), ..bolt.clone() };
    assert_eq!(throw(&m.known_part(&sized)), throw(&known));
    let other = parts.iter().find(|p| p.id != bolt.id && !p.adjusters.is_empty()).unwrap();
    assert_eq!(&m.known_part(other), other);
    // What is counted in its own measure does what it says.
    let plate = parts
        .iter()
        .flat_map(|p| &p.adjusters)
        .find(|a| matches!(a.kind, AdjusterKind::Slide { .. }))
        .unwrap();
    assert_eq!(&plate.as_known(Known { times: 1.4, sd: 0.1, cars: 2 }), plate);
}

#[test]
fn how_well_was_predicted_is_counted_by_axle_and_angle() {
    let said = |miss_deg: f64| SaidCame {
        axle: Axle::Rear,
        side: Side::Left,
        angle: AngleName::Toe,
        miss_deg,
        band_deg: 0.1,
    };
    let of = |misses: &[f64]| {
        let taught = |m: &f64| Taught { trials: Vec::new(), said: vec![said(*m)] };
        let cars: Vec<ProvedCar> =
            misses.iter().map(|m| ProvedCar { taught: taught(m), ..car(401, Vec::new()) }).collect();
        Memory::of(&cars, None).how_well.remove(0)
    };
    let h = of(&[0.05, -0.02, 0.2]);
    assert_eq!((h.axle, h.angle, h.held), (Axle::Rear, AngleName::Toe, HowHeld::Holds));
    assert_eq!(h.inside, [true, true, false]);
    assert!((h.middle_deg - 0.05).abs() < 1e-12 && (h.share - 200.0 / 3.0).abs() < 1e-9);
    assert_eq!(of(&[0.2; 20]).held, HowHeld::TooSure);
    assert_eq!(of(&[0.0; 60]).held, HowHeld::TooCareful);
}
