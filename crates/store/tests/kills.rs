//! The program killed at a random instant, over and over, while it writes, restores, takes a document in and backs up.
//!
//! `cargo test -p bodega-store --test kills -- --kills 1000` runs long; without a number it is short.

use std::io::{BufRead, BufReader, Cursor, Write};
use std::path::{Path, PathBuf};
use std::process::{Command, Stdio};
use std::time::Duration;

use bodega_model::crates::fruit::{Condition, Kind};
use bodega_model::measures::moment::Moment;
use bodega_model::records::lot::NewLot;
use bodega_store::{FILE_NAME, Store, backup, check_file, restore};
use jiff::civil::date;

const NOW: Moment = Moment(1_790_000_000_000);
/// Kills when no number is given.
const FEW: u64 = 32;
/// Longest that a child lives, in milliseconds after its first word.
const LIVES: u64 = 90;
/// Set for the process that is going to be killed.
const JOB: &str = "BODEGA_KILLS_JOB";
const DIRECTORY: &str = "BODEGA_KILLS_DIRECTORY";

fn weigh_in(store: &Store, grams: i64) {
    let lot = NewLot {
        food: bodega_model::ledger::food::Food::Fruit,
        told: None,
        picked_on: date(2026, 9, 11),
        kind: Kind::Paste,
        condition: Condition::FirmRipe,
        fault: None,
        back_on: None,
        frozen: false,
        weight_g: grams,
    };
    store.add_lot(&lot, NOW).unwrap();
}

/// Says aloud that a piece of work is done.
fn say(number: u64) {
    let mut out = std::io::stdout();
    writeln!(out, "kept {number}").unwrap();
    out.flush().unwrap();
}

/// One of two kitchens that are told apart by how many lots they have.
fn lots_of(turn: u64) -> usize {
    if turn.is_multiple_of(2) { 3 } else { 7 }
}

fn carried(directory: &Path, turn: u64) -> PathBuf {
    directory.join(format!("carried-{}.db", lots_of(turn)))
}

fn child(job: &str, directory: &Path) {
    let kitchen = directory.join("kitchen");
    match job {
        "write" => {
            let store = Store::open(&kitchen).unwrap();
            for grams in 1.. {
                weigh_in(&store, grams);
                say(grams.unsigned_abs());
            }
        }
        "restore" => {
            for turn in 1.. {
                restore(&carried(directory, turn), &kitchen, "now").unwrap();
                say(turn);
            }
        }
        "import" => {
            let document = std::fs::read(directory.join("document.json")).unwrap();
            let store = Store::open(&kitchen).unwrap();
            say(0);
            store.import(&mut Cursor::new(document)).unwrap();
            say(1);
            std::thread::sleep(Duration::from_secs(60));
        }
        _ => {
            let store = Store::open(&kitchen).unwrap();
            for turn in 1.. {
                backup(&kitchen, &directory.join("mine.db"), true).unwrap();
                store.keep_backups(&format!("2026-09-{:02}", 1 + turn % 28), "2026-W38").unwrap();
                say(turn);
            }
        }
    }
}

/// What a child has before it begins.
fn set_out(job: &str, directory: &Path) {
    let kitchen = directory.join("kitchen");
    let store = Store::open(&kitchen).unwrap();
    match job {
        "restore" => {
            for turn in [1, 2] {
                let other = tempfile::tempdir().unwrap();
                let store = Store::open(other.path()).unwrap();
                (0..lots_of(turn)).for_each(|_| weigh_in(&store, 1_000));
                backup(other.path(), &carried(directory, turn), false).unwrap();
            }
            (0..lots_of(2)).for_each(|_| weigh_in(&store, 1_000));
        }
        "import" => {
            let other = Store::in_memory().unwrap();
            (0..400).for_each(|_| weigh_in(&other, 1_000));
            let mut document = std::fs::File::create(directory.join("document.json")).unwrap();
            other.export_to(&mut document).unwrap();
        }
        "backup" => (0..20).for_each(|_| weigh_in(&store, 1_000)),
        _ => {}
    }
}

fn every_file(directory: &Path, begins: &str) -> Vec<PathBuf> {
    let Ok(entries) = std::fs::read_dir(directory) else { return Vec::new() };
    let named =
        |path: &PathBuf| path.file_name().is_some_and(|name| name.to_string_lossy().starts_with(begins));
    entries.map(|entry| entry.unwrap().path()).filter(named).collect()
}

/// What must be there after the kill, `kept` pieces of work having been acknowledged.
fn judge(job: &str, directory: &Path, kept: u64) -> Result<(), String> {
    let kitchen = directory.join("kitchen");
    if job == "restore" {
        // Before anybody opens them: whole under their own name, at this very instant.
        check_file(&kitchen.join(FILE_NAME)).map_err(|error| error.to_string())?;
    }
    let store = Store::open(&kitchen).map_err(|error| error.to_string())?;
    let mut lots = 0;
    let count = |_| {
        lots += 1;
        Ok(())
    };
    store.harvest(count).map_err(|error| error.to_string())?;
    let fine = match job {
        "write" => lots as u64 == kept || lots as u64 == kept + 1,
        "restore" => lots == lots_of(kept) || lots == lots_of(kept + 1),
        "import" => lots == 400 || (lots == 0 && kept == 0),
        _ => lots == 20,
    };
    if !fine {
        return Err(format!("{kept} acknowledged, {lots} lots there"));
    }
    let mut copies = every_file(&kitchen, &format!("{FILE_NAME}.before-"));
    copies.extend(every_file(directory, "mine.db").into_iter().filter(|file| file.ends_with("mine.db")));
    let daily = every_file(&kitchen.join("backups"), "");
    copies.extend(daily.into_iter().filter(|file| file.extension().is_some_and(|end| end == "db")));
    let on_the_way =
        ["bodega-arriving-", "bodega.db.arriving"].map(|begins| every_file(&kitchen, begins)).concat();
    if !on_the_way.is_empty() {
        return Err(format!("left behind: {on_the_way:?}"));
    }
    copies.iter().try_for_each(|file| check_file(file)).map_err(|error| error.to_string())
}

/// A number that wanders over its range, another for every kill and the same in every run (SplitMix64).
fn wandering(kill: u64, most: u64) -> u64 {
    let mut mixed = (kill + 1).wrapping_mul(0x9E37_79B9_7F4A_7C15);
    mixed = (mixed ^ (mixed >> 30)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
    (mixed ^ (mixed >> 27)) % most
}

/// Lets a child work and kills it; how much it acknowledged, or what is wrong.
fn kill(job: &str, number: u64) -> Result<u64, String> {
    let directory = tempfile::tempdir().unwrap();
    set_out(job, directory.path());
    let mut child = Command::new(std::env::current_exe().unwrap())
        .env(JOB, job)
        .env(DIRECTORY, directory.path())
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let mut lines = BufReader::new(child.stdout.take().unwrap()).lines();
    let first = lines.next().and_then(Result::ok);
    std::thread::sleep(Duration::from_micros(wandering(number, LIVES * 1_000)));
    child.kill().unwrap();
    child.wait().unwrap();
    let said =
        first.ok_or("the child ended by itself").map(std::iter::once)?.chain(lines.map_while(Result::ok));
    let kept = said.filter_map(|line| line.strip_prefix("kept ")?.parse().ok()).max().unwrap_or(0);
    judge(job, directory.path(), kept).map(|()| kept)
}

fn main() {
    if let (Ok(job), Ok(directory)) = (std::env::var(JOB), std::env::var(DIRECTORY)) {
        return child(&job, Path::new(&directory));
    }
    let given: Vec<String> = std::env::args().collect();
    let number = given.iter().position(|word| word == "--kills").and_then(|place| given.get(place + 1));
    let kills = number.map_or(FEW, |number| number.parse().expect("--kills takes a number"));
    let mut failed = Vec::new();
    for job in ["write", "restore", "import", "backup"] {
        let mut kept = 0;
        for number in 0..kills / 4 {
            match kill(job, number) {
                Ok(said) => kept += said,
                Err(why) => failed.push(format!("{job}, kill {number}: {why}")),
            }
        }
        println!("{job}: {} kills, {kept} pieces of work acknowledged", kills / 4);
    }
    assert!(failed.is_empty(), "{} of {kills} failed:\n{}", failed.len(), failed.join("\n"));
}
