//! The closed loop on five hundred hidden cars of every shape that has adjusters: shares that land after one to four cycles, of
//! four who set them.
//!
//! `cargo run --release -p bold-stance-trade --example closed_loop [CARS]`
#![allow(clippy::unwrap_used, clippy::print_stdout)]

#[path = "../tests/all/hidden.rs"]
mod hidden;

use bold_stance_car::archetype::{Archetype, shipped_archetypes};
use hidden::{Like, Notches, Tally, Walk, one_car};

fn main() {
    let cars: u64 = std::env::args().nth(1).and_then(|a| a.parse().ok()).unwrap_or(500);
    let shapes: Vec<Archetype> =
        shipped_archetypes().unwrap().into_iter().filter(|s| !s.usual_adjusters().is_empty()).collect();
    println!("{cars} cars of {} shapes; landed after 1, 2, 3, 4 cycles, %", shapes.len());
    let wide = Some([0.7, 1.5]);
    let like = |gains, noise, notches| Like { gains, noise, notches, walk: Walk::ToeLast };
    for (name, like) in [
        ("gains as stated, gauge as stated", like(None, 1.0, Notches::Own)),
        ("gains 0.7 to 1.5, gauge as stated", like(wide, 1.0, Notches::Own)),
        (
            "the same, everything turned before a reading",
            Like { walk: Walk::AtOnce, ..like(wide, 1.0, Notches::Own) },
        ),
        ("gains 0.7 to 1.5, gauge half as far off", like(wide, 0.5, Notches::Own)),
        ("the same, cams of 8 a half turn", like(wide, 0.5, Notches::Of(8))),
        ("the same, cams of 16 a half turn", like(wide, 0.5, Notches::Of(16))),
        ("the same, cams without notches", like(wide, 0.5, Notches::Free)),
    ] {
        let mut tally = Tally::default();
        for n in 0..cars {
            let shape = &shapes[(n as usize) % shapes.len()];
            one_car(shape, 70_000 + n, like, &mut tally);
        }
        let share = |p: usize| {
            tally.landed[p].map(|n| format!("{:3.0}", 100.0 * f64::from(n) / f64::from(tally.cars))).join(" ")
        };
        let of = |a: u32, b: u32| 100.0 * f64::from(a) / f64::from(b.max(1));
        println!("{name} ({} cars)", tally.cars);
        for (k, who) in ["learning", "newest reading alone", "told points and gains", "hand on a live gauge"]
            .iter()
            .enumerate()
        {
            println!("  {who:24} {}", share(k));
        }
        println!(
            "  readings in their 90 % band {:.1} %, gains in theirs {:.1} %, odd and read again {}, nothing learned then {}",
            of(tally.inside, tally.read),
            of(tally.gains_in, tally.gains),
            tally.refused,
            tally.refused_again
        );
    }
}
