//! What is said of what went wrong: each explanation two hundred times on hidden cars, which comes first, how often it is among
//! the first three, and whether the odds are what they say.
//!
//! `cargo run --release -p bold-stance-trade --example confusion [TIMES]`
#![allow(clippy::unwrap_used, clippy::print_stdout)]

#[path = "../tests/all/hidden.rs"]
mod hidden;
#[path = "../tests/all/odd.rs"]
mod odd;

use bold_stance_car::archetype::{Archetype, shipped_archetypes};
use odd::{ALL, Told, one};
use std::collections::BTreeMap;

fn main() {
    let times: usize = std::env::args().nth(1).and_then(|a| a.parse().ok()).unwrap_or(200);
    let shapes: Vec<Archetype> = shipped_archetypes()
        .unwrap()
        .into_iter()
        .filter(|s| hidden::steers(s) && !s.usual_adjusters().is_empty())
        .collect();
    let draw = |what, salt: u64| -> Vec<Told> {
        (0..50 * times as u64)
            .filter_map(|n| one(&shapes[n as usize % shapes.len()], 1_000_000 * salt + n, what))
            .take(times)
            .collect()
    };
    println!(
        "{times} each on {} shapes. How many came off the prediction, so that it is asked; of those told apart, as the program says: how many, first, among three, %; named as not told apart: how many, first after the looks, %; said first instead where told apart",
        shapes.len()
    );
    for (i, (what, ..)) in ALL.iter().enumerate() {
        let all = draw(Some(*what), i as u64 + 1);
        let asked: Vec<&Told> = all.iter().filter(|t| t.missed || t.odd).collect();
        let (alike, apart): (Vec<&Told>, Vec<&Told>) = asked.iter().partition(|t| t.alike());
        let share = |n: usize, of: usize| 100.0 * n as f64 / of.max(1) as f64;
        let within = |of: &[&Told], k: usize| {
            share(of.iter().filter(|t| t.place().is_some_and(|p| p < k)).count(), of.len())
        };
        let mut rng = rand_pcg::Pcg64Mcg::new(i as u128 + 77);
        let looked = alike.iter().filter(|t| t.looked(&mut rng) == t.named).count();
        let mut instead: BTreeMap<String, usize> = BTreeMap::new();
        for t in apart.iter().filter(|t| t.place() != Some(0)) {
            *instead.entry(t.list[0].what.id.replace("explain-", "")).or_default() += 1;
        }
        let mut instead: Vec<(String, usize)> = instead.into_iter().collect();
        instead.sort_by_key(|(_, n)| std::cmp::Reverse(*n));
        let told: Vec<String> = instead.iter().take(4).map(|(w, n)| format!("{w} {n}")).collect();
        println!(
            "  {:12} asked {:3}   apart {:3}: {:3.0} {:3.0}   alike {:3}: {:3.0}   {}",
            format!("{what:?}"),
            asked.len(),
            apart.len(),
            within(&apart, 1),
            within(&apart, 3),
            alike.len(),
            share(looked, alike.len()),
            told.join(", ")
        );
    }
    // Drawn by the odds before a reading: of those given so much, so many are true.
    let mixed: Vec<Told> = (0..20 * times as u64)
        .filter_map(|n| one(&shapes[n as usize % shapes.len()], 90_000_000 + n, None))
        .collect();
    println!("{} drawn by the odds before a reading; given, true, how many", mixed.len());
    for (low, high) in [(0.0, 0.1), (0.1, 0.3), (0.3, 0.5), (0.5, 0.7), (0.7, 0.8), (0.8, 0.9), (0.9, 1.01)] {
        let each = || mixed.iter().flat_map(|t| t.list.iter().map(move |e| (e.odds, e.what == t.named)));
        let inside: Vec<(f64, bool)> = each().filter(|(o, _)| (low..high).contains(o)).collect();
        let n = inside.len().max(1) as f64;
        let given = inside.iter().map(|(o, _)| o).sum::<f64>() / n;
        let true_ = inside.iter().filter(|(_, t)| *t).count() as f64 / n;
        println!("  {:3.0} % {:3.0} % {:6}", 100.0 * given, 100.0 * true_, inside.len());
    }
}
