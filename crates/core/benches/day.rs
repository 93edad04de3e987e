//! How soon days are proven, and how near a short search comes to optima proven elsewhere: `cargo bench --package
//! bodega-core`.

#[path = "../tests/rules/instances/mod.rs"]
mod instances;

use std::time::{Duration, Instant};

use bodega_core::day::{Budget, Limits, Wish, lay_out, shortest, spread};

const LIMIT: Budget = Budget::Time(Duration::from_secs(2));
const LONG: Budget = Budget::Time(Duration::from_secs(3));
const LIMITS: Limits = Limits { length: LIMIT, waiting: LIMIT };

fn timed<T>(work: impl FnOnce() -> T) -> (T, f64) {
    let begun = Instant::now();
    let done = work();
    (done, begun.elapsed().as_secs_f64() * 1000.0)
}

fn main() {
    println!(
        "{:<32} {:>6} {:>8} {:>8} {:>9} {:>8} {:>8} {:>9}",
        "instance", "tasks", "optimum", "found", "ms", "spread", "found", "ms"
    );
    let text = |minutes: Option<u32>| minutes.map_or("none".to_owned(), |minutes| minutes.to_string());
    for instances::Instance { name, optimum, least_spread, together, day } in instances::all() {
        let (layout, took) = timed(|| shortest(&day, LIMIT));
        let tasks = day.tasks.len();
        print!("{name:<32} {tasks:>6} {:>8} {:>8} {took:>9.2}", text(optimum), text(layout.makespan));
        let wish = Wish { together, before: Vec::new() };
        let (layout, took) = timed(|| lay_out(&day, &wish, LIMITS));
        let found = layout.makespan.map(|_| spread(&day, &wish.together, &layout.starts));
        println!(" {:>8} {:>8} {took:>9.2}", text(least_spread), text(found));
    }

    println!("{:<32} {:>14} {:>14} {:>8}", "long day", "CP-SAT, bound", "found, bound", "gap, %");
    for instances::LongDay { name, found: other, bound, day } in instances::long_days() {
        let layout = shortest(&day, LONG);
        let found = layout.makespan.unwrap_or(u32::MAX);
        let gap = f64::from(found - layout.bound) / f64::from(found) * 100.0;
        println!("{name:<32} {other:>7} {bound:>6} {found:>7} {:>6} {gap:>8.1}", layout.bound);
    }
}
