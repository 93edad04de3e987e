//! The calculators beside a bare handler, in rounds that take turns.

use std::net::SocketAddr;
use std::path::Path;
use std::sync::atomic::{AtomicBool, Ordering};
use std::thread;
use std::time::Duration;

use serde_json::{Value, json};

use crate::client::{Client, question};
use crate::program::Program;
use crate::spread::Spread;

/// Connections that ask at the same time.
const CONNECTIONS: usize = 8;
/// How often the two take turns.
const ROUNDS: usize = 15;
/// How long each is asked in a round.
const ROUND: Duration = Duration::from_millis(1500);

/// Bodies that are asked one after the other, none like the one before.
fn bodies(calculator: &str) -> Vec<Value> {
    (0..16)
        .map(|n| match calculator {
            "process" => {
                json!({"product": "whole", "medium": (["water", "juice", "none"][n % 3]), "pack": "hot",
                "method": "boiling_water", "jar": (["quart", "pint"][n % 2]), "altitude_ft": 200 * n})
            }
            "acid" => json!({"agent": (["bottled_lemon_juice", "citric_acid"][n % 2]), "pot_dose_tsp": 42,
                "jars": [{"jar": "quart", "count": n + 1}, {"jar": "pint", "count": 9}]}),
            "yield" => json!({"product": (["juice", "crushed"][n % 2]), "thickness": null, "kind": "slicer",
                "weight_kg": 10.0 + n as f64}),
            "canner" => {
                json!({"vessel": {"inner_diameter_mm": 300 + n, "inner_height_mm": 255, "rack_height_mm": 12},
                "jars": [{"jar": "quart", "count": 7}], "cover_in": 1.5})
            }
            "audit" => audit(n),
            "kettle" => json!({"start": {"volume_l": 11.0 + n as f64 / 10.0, "brix": 5},
                "target": {"fraction_left": 0.666_666_67},
                "vessel": {"inner_diameter_mm": 300, "depth_mm": 260}, "heat": {"litres_per_hour": 2},
                "altitude_ft": 2640, "drains": [],
                "readings": [{"minute": 30, "volume_l": 10.3}, {"minute": 60, "depth_mm": 132}]}),
            _ => json!({"capacity": {"quart": 7, "pint": 9}, "method": "boiling_water", "altitude_ft": 0,
                "turnaround_minutes": 20, "jars": [
                    {"product": "whole", "medium": "water", "pack": "raw", "jar": "quart", "count": 14 + n},
                    {"product": "crushed", "medium": null, "pack": "hot", "jar": "pint", "count": 9}]}),
        })
        .collect()
}

fn audit(n: usize) -> Value {
    json!({
        "product": "whole", "medium": "water", "pack": "raw", "method": "boiling_water", "altitude_ft": 2000 + n * 10,
        "minutes": 50, "headspace_in": 0.5, "water_cover_in": 2,
        "jars": [{"jar": "quart", "count": 7, "kind": "mason", "lid": "new"}],
        "acid": {"agent": "bottled_lemon_juice", "source": "bottled", "per_jar_tsp": {"quart": 6},
            "pot_dose_tsp": null, "bottle_age_months": 1},
        "fruit": {"kind": "paste", "ripeness": "firm_ripe", "vine": "living", "damage": "none", "weight_kg": 9.5,
            "frozen": false},
        "additions": [{"what": "salt", "cups": 0.15}],
        "temperatures_c": {"jar": 60, "food": 25, "water": 60},
        "boil": [{"minute": 0, "event": "in"}, {"minute": 21.5, "event": "boil"}, {"minute": 72, "event": "end"}],
        "load": [{"product": "sauce", "medium": null, "pack": "hot", "jar": "pint", "minutes": 40}],
        "rest_minutes": 5, "seal_check_hours": 14, "reprocess_after_hours": null, "rings_on_in_storage": false,
        "ph": {"value": 4.2, "temperature_c": 25, "compensated": true, "calibrated_today": true}
    })
}

/// Answers a second, over all connections.
fn rate(address: SocketAddr, path: &str, bodies: &[Value]) -> anyhow::Result<f64> {
    let questions: Vec<Vec<u8>> =
        bodies.iter().map(|body| question(address, "POST", path, &body.to_string())).collect();
    let over = AtomicBool::new(false);
    let counted: anyhow::Result<Vec<u32>> = thread::scope(|scope| {
        let ask = |first: usize| {
            let (questions, over) = (&questions, &over);
            scope.spawn(move || -> anyhow::Result<u32> {
                let mut client = Client::to(address)?;
                let mut count = 0;
                for question in questions.iter().cycle().skip(first) {
                    if over.load(Ordering::Relaxed) {
                        break;
                    }
                    client.ask(question)?;
                    count += 1;
                }
                Ok(count)
            })
        };
        let asking: Vec<_> = (0..CONNECTIONS).map(ask).collect();
        thread::sleep(ROUND);
        over.store(true, Ordering::Relaxed);
        asking.into_iter().map(|one| one.join().unwrap_or_else(|_| Ok(0))).collect()
    });
    Ok(f64::from(counted?.iter().sum::<u32>()) / ROUND.as_secs_f64())
}

/// Prints a line for every calculator: its answers a second as a share of the bare handler's.
///
/// # Errors
/// When one of the two does not answer.
pub fn measure(bodega: &Path, own: &Path) -> anyhow::Result<()> {
    let kitchen = Program::start(bodega, &["demo", "--port", "0"], "/api/health")?;
    println!("| calculator | share of a bare handler | answers a second |\n|---|---|---|");
    for calculator in ["process", "acid", "yield", "canner", "audit", "kettle", "loads"] {
        let (path, bodies) = (format!("/api/compute/{calculator}"), bodies(calculator));
        let first = question(kitchen.address, "POST", &path, &bodies[0].to_string());
        let answer = String::from_utf8(Client::to(kitchen.address)?.ask(&first)?)?;
        let bare = Program::start(own, &["echo", &answer], "/")?;
        let (mut shares, mut rates) = (Vec::new(), Vec::new());
        for _ in 0..ROUNDS {
            let (ours, theirs) = (rate(kitchen.address, &path, &bodies)?, rate(bare.address, "/", &bodies)?);
            shares.push(ours / theirs);
            rates.push(ours);
        }
        println!("| {calculator} | {} | {:.0} |", Spread::of(shares), Spread::of(rates).median());
    }
    Ok(())
}
