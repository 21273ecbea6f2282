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
        "{times} each on {} shapes; of those odder than once in a hundred: first, among three; said instead",
        shapes.len()
    );
    for (i, (what, ..)) in ALL.iter().enumerate() {
        let all = draw(Some(*what), i as u64 + 1);
        let seen: Vec<&Told> =
            if i == 0 { all.iter().collect() } else { all.iter().filter(|t| t.odd).collect() };
        let within = |k: usize| seen.iter().filter(|t| t.place().is_some_and(|p| p < k)).count();
        let mut instead: BTreeMap<String, usize> = BTreeMap::new();
        for t in seen.iter().filter(|t| t.place() != Some(0)) {
            *instead.entry(t.list[0].what.id.replace("explain-", "")).or_default() += 1;
        }
        let mut instead: Vec<(String, usize)> = instead.into_iter().collect();
        instead.sort_by_key(|(_, n)| std::cmp::Reverse(*n));
        let told: Vec<String> = instead.iter().take(4).map(|(w, n)| format!("{w} {n}")).collect();
        let of = |n: usize| 100.0 * n as f64 / seen.len().max(1) as f64;
        println!(
            "  {:12} odd {:3} of {:3}: {:3.0} {:3.0} %   {}",
            format!("{what:?}"),
            all.iter().filter(|t| t.odd).count(),
            all.len(),
            of(within(1)),
            of(within(3)),
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
