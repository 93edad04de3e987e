//! How soon days are proven, and how near a short search comes to optima proven elsewhere: `cargo bench --package
//! bodega-core`.

#[path = "../tests/instances/mod.rs"]
mod instances;

use std::time::{Duration, Instant};

use bodega_core::day::shortest;

fn main() {
    println!("{:<32} {:>6} {:>8} {:>8} {:>10}", "instance", "tasks", "optimum", "found", "ms");
    for (name, optimum, day) in instances::all() {
        let begun = Instant::now();
        let layout = shortest(&day, Duration::from_secs(2));
        let took = begun.elapsed().as_secs_f64() * 1000.0;
        let text = |minutes: Option<u32>| minutes.map_or("none".to_owned(), |minutes| minutes.to_string());
        println!(
            "{name:<32} {:>6} {:>8} {:>8} {took:>10.2}",
            day.tasks.len(),
            text(optimum),
            text(layout.makespan)
        );
    }
}
