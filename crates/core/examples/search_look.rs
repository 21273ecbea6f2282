//! throwaway
#![allow(clippy::unwrap_used, missing_docs)]
#[path = "../tests/common/mod.rs"]
mod common;
use bold_stance_core::part::*;
use bold_stance_core::plan::*;
fn main() {
    let parts = shipped_parts().unwrap();
    let i = common::truck();
    phases(&i, &parts);
    for _ in 0..2 {
        let t = std::time::Instant::now();
        let r = plan(&i, &parts).unwrap();
        println!("plan {:?}", t.elapsed());
        for c in &r.candidates {
            println!(
                "  {} {:?} {:.2} {} | {} | {:?}",
                c.part.id, c.status, c.short_deg, c.does, c.costs, c.fouls
            );
        }
        println!("{:#?}", r.left.why);
        println!("{:#?}", r.left.checks.iter().map(|c| &c.words).collect::<Vec<_>>());
        let t = std::time::Instant::now();
        let r = search(&i, &Filters::default(), None, &parts, &|_| true).unwrap();
        println!("search {:?} {} {} {} {}", t.elapsed(), r.considered, r.posed, r.solved, r.exhaustive);
        println!("{} {}", r.headline, r.sentence);
        for p in &r.plans {
            println!(
                "  {:?} {} {} {} {:.2} {:?} {:?} {:?}",
                p.parts.iter().map(|x| &x.id).collect::<Vec<_>>(),
                p.cost,
                p.labour_minutes,
                p.reached,
                p.short_deg,
                p.best_at,
                p.reasons,
                p.fouls
            );
        }
        println!("{:?}", r.ways_differ);
    }
}
#[allow(dead_code)]
fn phases(i: &PlanInput, parts: &[Part]) {
    let t = std::time::Instant::now();
    let last = std::sync::Mutex::new(String::new());
    search(i, &Filters::default(), None, parts, &|p| {
        let mut l = last.lock().unwrap();
        if *l != p.doing {
            println!("{:?} {}", t.elapsed(), p.doing);
            *l = p.doing.clone();
        }
        true
    })
    .unwrap();
    println!("{:?} end", t.elapsed());
}
