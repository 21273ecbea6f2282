//! Coverage of the wear bands on simulated vehicles: `cargo run -p bold-stance-tread --release --example tread_trial`.
#![allow(clippy::print_stdout, missing_docs)]

use bold_stance_tread::tread_trial;

fn main() {
    println!("500 vehicles a seed; readings at 16, 32, 48 and 64 % of the true life");
    for seed in [1, 2, 3, 4] {
        println!("seed {seed}\n  readings  inside the 80 % band  rms ln error  x/÷ (of the total life)");
        for (n, r) in tread_trial(500, seed).iter().enumerate() {
            println!("  {n:>8}  {:>19.3}  {:>12.3}  {:.2}", r.coverage, r.rms, r.spread);
        }
    }
}
