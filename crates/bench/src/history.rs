//! What reads everything, in a kitchen of many years, and how soon its program answers.

use std::path::Path;
use std::time::{Duration, Instant};

use crate::client::Client;
use crate::program::Program;
use crate::spread::Spread;

/// How often the program is started.
const STARTS: usize = 5;

/// How long the line is asked for without a pause after the first start, while the day's backup is made.
const BESIDE_BACKUP: Duration = Duration::from_secs(8);

/// The longest that anybody waited for the line meanwhile, in milliseconds.
fn worst_beside_backup(bodega: &Path, large: &Path) -> anyhow::Result<f64> {
    let program = Program::serve(bodega, large)?;
    let mut client = Client::to(program.address)?;
    let begun = Instant::now();
    let mut worst = 0.0_f64;
    while begun.elapsed() < BESIDE_BACKUP {
        let asked = Instant::now();
        client.get("/api/counter")?;
        worst = worst.max(asked.elapsed().as_secs_f64() * 1000.0);
    }
    Ok(worst)
}

/// Prints a line for each.
///
/// # Errors
/// When the program does not answer.
pub fn measure(bodega: &Path, large: &Path) -> anyhow::Result<()> {
    let worst = worst_beside_backup(bodega, large)?;
    let starts: anyhow::Result<Vec<f64>> =
        (0..STARTS).map(|_| Ok(Program::serve(bodega, large)?.started.as_secs_f64())).collect();
    println!("| what | seconds | MB | most memory, MB |\n|---|---|---|---|");
    println!("| start to the first answer | {} | | |", Spread::of(starts?));
    println!("| longest wait for the line while the day's backup is made | {:.3} | | |", worst / 1000.0);
    for path in ["/api/export.json", "/api/jars.csv", "/api/batches.csv"] {
        let program = Program::serve(bodega, large)?;
        let begun = Instant::now();
        let bytes = Client::to(program.address)?.get(path)?.len();
        let took = begun.elapsed().as_secs_f64();
        println!("| {path} | {took:.1} | {} | {} |", bytes / 1_000_000, program.most_memory_mb());
    }
    Ok(())
}
