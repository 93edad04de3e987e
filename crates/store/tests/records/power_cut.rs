//! A power cut at a random moment, fifty times: what was acknowledged is there, and the time left is the same.

use std::io::{BufRead, BufReader, Write};
use std::path::Path;
use std::process::{Command, Stdio};

use bodega_model::canner::events::{BoilEvent, Phase};
use bodega_model::crates::fruit::Condition;
use bodega_model::measures::ids::LoadId;
use bodega_model::records::batch::Draw;
use bodega_store::Store;

use crate::common::{NOW, batch, lot, make_ready};

const CUTS: u64 = 50;
/// Set for the process that is going to be killed.
const DIRECTORY: &str = "BODEGA_POWER_CUT_DIRECTORY";

fn set_out(store: &Store) -> LoadId {
    let lot = lot(store, 10_000, Condition::FirmRipe);
    store.add_batch(&batch(vec![Draw { lot, weight_g: 10_000 }]), NOW).unwrap();
    let load = store.open_loads().unwrap()[0].id;
    make_ready(store, load, NOW);
    load
}

/// The boil comes and goes, a minute apart, and every event is said aloud once the store has it.
#[test]
fn the_process_that_is_killed() {
    let Ok(directory) = std::env::var(DIRECTORY) else { return };
    let store = Store::open(Path::new(&directory)).unwrap();
    let load = store.open_loads().unwrap()[0].id;
    let mut out = std::io::stdout();
    for minute in 1.. {
        let event = if minute % 2 == 1 { BoilEvent::Boils } else { BoilEvent::BoilLost };
        store.add_event(load, event, NOW.plus_minutes(minute)).unwrap();
        writeln!(out, "\nkept {minute}").unwrap();
        out.flush().unwrap();
    }
}

#[test]
fn nothing_acknowledged_is_lost_in_fifty_power_cuts() {
    for cut in 0..CUTS {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        let load = set_out(&store);
        drop(store);
        let mut child = Command::new(std::env::current_exe().unwrap())
            .args(["--exact", "power_cut::the_process_that_is_killed", "--nocapture", "--test-threads=1"])
            .env(DIRECTORY, directory.path())
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()
            .unwrap();
        // Wanders over 1 to 23, so that the cut falls into every part of the work.
        let wanted = 1 + (cut * 7) % 23;
        let mut kept = 0_i64;
        let mut lines = BufReader::new(child.stdout.take().unwrap()).lines();
        while kept < i64::try_from(wanted).unwrap() {
            let line = lines.next().expect("the process ended by itself").unwrap();
            if let Some(minute) = line.strip_prefix("kept ") {
                kept = minute.parse().unwrap();
            }
        }
        child.kill().unwrap();
        child.wait().unwrap();
        // What it said before it died, beyond what was waited for, was acknowledged too.
        let said =
            lines.map_while(Result::ok).filter_map(|line| line.strip_prefix("kept ")?.parse::<i64>().ok());
        let kept = said.last().unwrap_or(kept);

        let again = Store::open(directory.path()).unwrap().load(load).unwrap();
        let happened = again.clock.happened();
        let there = i64::try_from(happened.len()).unwrap();
        assert!(there == kept || there == kept + 1, "cut {cut}: {kept} acknowledged, {there} there");
        let last = happened.last().unwrap();
        assert_eq!(last.at, NOW.plus_minutes(there), "cut {cut}");
        let expected = if there % 2 == 1 {
            Phase::Counting { since: last.at, ends: last.at.plus_minutes(50) }
        } else {
            Phase::BoilLost { at: last.at }
        };
        assert_eq!(again.clock.phase(last.at.plus_minutes(1)), expected, "cut {cut}");
        assert!(again.jars.iter().all(|jar| jar.acid && jar.filled));
    }
}
