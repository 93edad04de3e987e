//! What reads everything, in a kitchen of many years, and how soon its program answers.

use std::path::Path;
use std::time::Instant;

use crate::client::Client;
use crate::program::Program;
use crate::spread::Spread;

/// How often the program is started.
const STARTS: usize = 5;

/// Prints a line for each.
///
/// # Errors
/// When the program does not answer.
pub fn measure(bodega: &Path, large: &Path) -> anyhow::Result<()> {
    let starts: anyhow::Result<Vec<f64>> =
        (0..STARTS).map(|_| Ok(Program::serve(bodega, large)?.started.as_secs_f64())).collect();
    println!("| what | seconds | MB | most memory, MB |\n|---|---|---|---|");
    println!("| start to the first answer | {} | | |", Spread::of(starts?));
    for path in ["/api/export.json", "/api/jars.csv", "/api/batches.csv"] {
        let program = Program::serve(bodega, large)?;
        let begun = Instant::now();
        let bytes = Client::to(program.address)?.get(path)?.len();
        let took = begun.elapsed().as_secs_f64();
        println!("| {path} | {took:.1} | {} | {} |", bytes / 1_000_000, program.most_memory_mb());
    }
    Ok(())
}
