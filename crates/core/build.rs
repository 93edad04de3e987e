//! Packs the table of airfields, which is read seldom and would be a tenth of the program.

use std::env;
use std::error::Error;
use std::fs::File;
use std::path::Path;

use flate2::Compression;
use flate2::write::GzEncoder;

const FROM: &str = "data/airfields.csv";

fn main() -> Result<(), Box<dyn Error>> {
    println!("cargo::rerun-if-changed={FROM}");
    let packed = File::create(Path::new(&env::var("OUT_DIR")?).join("airfields.csv.gz"))?;
    let mut packed = GzEncoder::new(packed, Compression::best());
    std::io::copy(&mut File::open(FROM)?, &mut packed)?;
    packed.finish()?;
    Ok(())
}
