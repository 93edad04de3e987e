//! Command line of the measurements.

use std::path::PathBuf;

use bodega_bench::{calculators, echo, history, large, screens};
use clap::Parser;

/// Measures how fast Bodega is, or makes a kitchen of many years to try things on.
#[derive(Parser)]
enum Command {
    /// Make a kitchen of many years.
    Large {
        /// Empty directory for its records.
        data: PathBuf,
        /// About how many jars it has filled.
        #[arg(long, default_value_t = 1_000_000)]
        jars: u32,
    },
    /// Measure a program, and print tables.
    Measure {
        /// The program.
        bodega: PathBuf,
        /// Which tables; all of them when left out.
        #[arg(long, value_parser = ["calculators", "screens", "history"])]
        only: Option<String>,
    },
    /// Answer with this JSON, whatever is asked.
    #[command(hide = true)]
    Echo {
        /// The answer.
        answer: String,
    },
}

/// Jars of the two kitchens that screens are compared in.
const KITCHENS: [u32; 2] = [20_000, 1_000_000];

fn measure(bodega: &std::path::Path, only: Option<&str>) -> anyhow::Result<()> {
    let wanted = |table: &str| only.is_none_or(|only| only == table);
    if wanted("calculators") {
        calculators::measure(bodega, &std::env::current_exe()?)?;
    }
    if !wanted("screens") && !wanted("history") {
        return Ok(());
    }
    let places = [tempfile::tempdir()?, tempfile::tempdir()?];
    for (place, jars) in places.iter().zip(KITCHENS) {
        large::make(place.path(), jars)?;
    }
    let [small, many] = &places;
    if wanted("screens") {
        screens::measure(bodega, small.path(), many.path())?;
    }
    if wanted("history") {
        history::measure(bodega, many.path())?;
    }
    Ok(())
}

fn main() -> anyhow::Result<()> {
    match Command::parse() {
        Command::Large { data, jars } => large::make(&data, jars),
        Command::Measure { bodega, only } => measure(&bodega, only.as_deref()),
        Command::Echo { answer } => echo::run(&answer),
    }
}
