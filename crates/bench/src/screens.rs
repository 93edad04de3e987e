//! What every screen asks for, in a kitchen of a few days and in kitchens of many years.

use std::path::Path;
use std::time::Instant;

use crate::client::Client;
use crate::program::Program;
use crate::spread::Spread;

/// Questions of everyday screens.
pub const SCREENS: [(&str, &str); 11] = [
    ("counter", "/api/counter"),
    ("loads", "/api/loads"),
    ("day", "/api/day"),
    ("batches", "/api/batches"),
    ("stock", "/api/stock"),
    ("compare", "/api/plan/compare"),
    ("pantry", "/api/pantry"),
    ("towel", "/api/towel"),
    ("cold", "/api/cold_food"),
    ("lots", "/api/lots"),
    ("shelf", "/api/shelf"),
];
/// How often each is asked.
const TIMES: u32 = 200;

/// A question of one screen; what needs lots to choose from takes those that wait.
fn ask(client: &mut Client, address: std::net::SocketAddr, path: &str) -> anyhow::Result<Vec<u8>> {
    if path != "/api/plan/compare" {
        return client.get(path);
    }
    let lots: serde_json::Value = serde_json::from_slice(&client.get("/api/lots")?)?;
    let fresh = lots.as_array().into_iter().flatten().filter(|lot| lot["condition"] == "firm_ripe");
    let ids: Vec<&serde_json::Value> =
        fresh.filter(|lot| lot["food"] == "fruit").map(|lot| &lot["id"]).collect();
    let body = serde_json::json!({"lots": ids, "agent": "citric_acid"}).to_string();
    client.ask(&crate::client::question(address, "POST", path, &body))
}

/// Milliseconds that a screen waits for one answer.
fn wait(client: &mut Client, program: &Program, path: &str) -> anyhow::Result<f64> {
    let begun = Instant::now();
    ask(client, program.address, path)?;
    Ok(begun.elapsed().as_secs_f64() * 1000.0)
}

/// Processor milliseconds that the program spends on an answer.
fn spent(program: &Program, path: &str) -> anyhow::Result<f64> {
    let mut client = Client::to(program.address)?;
    ask(&mut client, program.address, path)?;
    let before = program.processor();
    for _ in 0..TIMES {
        ask(&mut client, program.address, path)?;
    }
    Ok((program.processor() - before).as_secs_f64() * 1000.0 / f64::from(TIMES))
}

/// How long a screen waits in either of two kitchens, which are asked in turn so that a busy moment meets both.
fn side_by_side(few: &Program, many: &Program, path: &str) -> anyhow::Result<(Spread, Spread)> {
    let (mut of_few, mut of_many) = (Client::to(few.address)?, Client::to(many.address)?);
    ask(&mut of_few, few.address, path)?;
    ask(&mut of_many, many.address, path)?;
    let (mut short, mut long) = (Vec::new(), Vec::new());
    for _ in 0..TIMES {
        short.push(wait(&mut of_few, few, path)?);
        long.push(wait(&mut of_many, many, path)?);
    }
    Ok((Spread::of(short), Spread::of(long)))
}

/// Prints a line for every screen.
///
/// # Errors
/// When the program does not answer.
pub fn measure(bodega: &Path, small: &Path, large: &Path) -> anyhow::Result<()> {
    let demo = Program::start(bodega, &["demo", "--port", "0"], "/api/health")?;
    let small = Program::serve(bodega, small)?;
    let large = Program::serve(bodega, large)?;
    println!("| screen | demo kitchen, ms of processor | 20,000 jars, ms | 1,000,000 jars, ms | ratio |");
    println!("|---|---|---|---|---|");
    for (name, path) in SCREENS {
        let spent = spent(&demo, path)?;
        let (few, many) = side_by_side(&small, &large, path)?;
        println!("| {name} | {spent:.2} | {few} | {many} | {:.2} |", many.median() / few.median());
    }
    println!("\nidle memory {} MB (demo), {} MB (1,000,000 jars)", demo.memory_mb(), large.memory_mb());
    Ok(())
}
