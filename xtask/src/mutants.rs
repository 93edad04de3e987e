//! Changes the core a little, many times, and sees that a test fails each time. What survives must be named, with its
//! reason, in `docs/mutants.md`.

use std::collections::BTreeSet;
use std::path::{Path, PathBuf};
use std::process::Command;

use anyhow::{Context, bail};
use serde_json::Value;

use crate::run::{output, root};

const VERSION: &str = "27.1.0";
/// Where changes are made.
const CHANGED: [&str; 4] = ["--package", "bodega-model", "--package", "bodega-core"];
const KEPT: &str = "docs/mutants.md";

/// Where a mistake costs health: every change to these is tried.
const SAFETY: [&str; 7] = [
    "crates/model/src/jars/acid.rs",
    "crates/model/src/jars/spoons.rs",
    "crates/model/src/tables/process",
    "crates/model/src/canner/clock",
    "crates/model/src/judge",
    "crates/core/src/judge",
    "crates/core/src/towel",
];
const SAFETY_CAUGHT: f64 = 0.95;

/// How many changes to the rest are tried, and how they are drawn.
const SAMPLE: usize = 300;
/// The tests of the day's and the split's solvers take most of the time; a change elsewhere meets the others first.
const SLOW: [&str; 2] = ["day::", "split::"];
/// Where those are needed.
const SOLVED: [&str; 3] = ["crates/core/src/day.rs", "crates/core/src/day/", "crates/core/src/plan/split"];
const SEED: u64 = 14;
const REST_CAUGHT: f64 = 0.90;

/// A change that cargo-mutants can make, by file and name.
fn listed() -> anyhow::Result<Vec<(String, String)>> {
    let mut command = Command::new("cargo");
    let text = output(command.arg("mutants").args(["--list", "--json"]).args(CHANGED).current_dir(root()))?;
    let all: Vec<Value> = serde_json::from_str(&text)?;
    let field = |mutant: &Value, key: &str| mutant[key].as_str().unwrap_or_default().to_owned();
    Ok(all.iter().map(|mutant| (field(mutant, "file"), field(mutant, "name"))).collect())
}

/// Some of the names, the same ones for the same seed (a linear congruential generator, Knuth's constants).
fn drawn(mut names: Vec<String>, count: usize) -> Vec<String> {
    let mut state = SEED;
    let mut taken = Vec::new();
    while taken.len() < count && !names.is_empty() {
        state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        let place = usize::try_from(state >> 33).unwrap_or_default() % names.len();
        taken.push(names.swap_remove(place));
    }
    taken
}

/// A name without its line and column, which move with every edit.
fn without_place(name: &str) -> String {
    let is_number = |part: &&str| part.parse::<u32>().is_ok();
    name.split(':').filter(|part| !is_number(part)).collect::<Vec<_>>().join(":")
}

/// The survivors that are named with a reason.
fn kept() -> anyhow::Result<BTreeSet<String>> {
    let text =
        std::fs::read_to_string(root().join(KEPT)).with_context(|| format!("{KEPT} cannot be read"))?;
    let quoted =
        text.lines().filter_map(|line| line.strip_prefix("- `")?.split('`').next().map(str::to_owned));
    Ok(quoted.collect())
}

/// What became of changes that compile.
#[derive(Default)]
struct Tried {
    caught: usize,
    survivors: Vec<String>,
}

/// A pattern that matches just this text. Other marks than these are left alone: `\<` is the start of a word.
fn escaped(name: &str) -> String {
    const MEANS_SOMETHING: &str = r".+*?()|[]{}^$#&-~\";
    let mut pattern = String::from("^");
    for letter in name.chars() {
        if MEANS_SOMETHING.contains(letter) {
            pattern.push('\\');
        }
        pattern.push(letter);
    }
    pattern.push('$');
    pattern
}

/// Tries changes against the tests but those that are `skipped`, and reads what became of them.
fn tried(names: &[String], folder: &Path, skipped: &[&str]) -> anyhow::Result<Tried> {
    let mut found = Tried::default();
    if names.is_empty() {
        return Ok(found);
    }
    std::fs::create_dir_all(folder)?;
    let mut command = Command::new("cargo");
    command.arg("mutants").args(CHANGED);
    command.args([
        // A change to a noun is met by the tests of the rules.
        "--test-package",
        "bodega-model,bodega-core",
        "--no-shuffle",
        "--timeout",
        "120",
        "--jobs",
        "2",
        // What was built before is built already.
        "--copy-target",
        "true",
    ]);
    // The solver's tests take most of the time unless it is optimised; nobody reads a backtrace here.
    command.env("CARGO_PROFILE_DEV_DEBUG", "0");
    command.arg("--cargo-arg=--config=profile.dev.package.\"*\".opt-level=2");
    command.arg("--output").arg(folder).current_dir(root());
    for name in names {
        command.arg("--re").arg(escaped(name));
    }
    // The core's examples in documents repeat its tests and compile anew for every change.
    command.args(["--", "--lib", "--tests", "--"]);
    for test in skipped {
        command.args(["--skip", test]);
    }
    // It ends with an error when a change survives, and the outcomes say which.
    command.status().context("cargo mutants could not be started")?;
    let outcomes = folder.join("mutants.out/outcomes.json");
    let text = std::fs::read_to_string(&outcomes).context("cargo mutants left no outcomes")?;
    let outcomes: Value = serde_json::from_str(&text)?;
    let asked: BTreeSet<&str> = names.iter().map(String::as_str).collect();
    for outcome in outcomes["outcomes"].as_array().into_iter().flatten() {
        let Some(name) = outcome["scenario"]["Mutant"]["name"].as_str() else { continue };
        // Deleted fields are tried whatever the patterns say.
        if !asked.contains(name) {
            continue;
        }
        match outcome["summary"].as_str() {
            Some("CaughtMutant" | "Timeout") => found.caught += 1,
            Some("MissedMutant") => found.survivors.push(name.to_owned()),
            _ => {}
        }
    }
    Ok(found)
}

/// Tries changes against the quick tests, and what survives those, or is about the solvers, against all of them.
fn tried_twice(names: &[String], folder: &Path) -> anyhow::Result<Tried> {
    let is_solved = |name: &&String| SOLVED.iter().any(|start| name.starts_with(start));
    let (solved, others): (Vec<&String>, Vec<&String>) = names.iter().partition(is_solved);
    let others: Vec<String> = others.into_iter().cloned().collect();
    let quick = tried(&others, &folder.join("quick"), &SLOW)?;
    let left: Vec<String> = solved.into_iter().cloned().chain(quick.survivors).collect();
    let all = tried(&left, &folder.join("all"), &[])?;
    Ok(Tried { caught: quick.caught + all.caught, survivors: all.survivors })
}

fn installed() -> anyhow::Result<()> {
    let said = Command::new("cargo").args(["mutants", "--version"]).output();
    if said.is_ok_and(|said| String::from_utf8_lossy(&said.stdout).contains(VERSION)) {
        return Ok(());
    }
    let version = format!("cargo-mutants@{VERSION}");
    crate::run::step("cargo-mutants", &mut crate::run::cargo(&["install", "--locked", &version]))
}

/// Tries every change where safety lives and a seeded sample of the rest, and holds both against their shares.
pub fn run() -> anyhow::Result<()> {
    installed()?;
    let all = listed()?;
    let is_safety = |file: &str| SAFETY.iter().any(|start| file.starts_with(start));
    let (safety, rest): (Vec<_>, Vec<_>) = all.into_iter().partition(|(file, _)| is_safety(file));
    let names = |part: Vec<(String, String)>| part.into_iter().map(|(_, name)| name).collect::<Vec<_>>();
    let parts = [("rest", drawn(names(rest), SAMPLE), REST_CAUGHT), ("safety", names(safety), SAFETY_CAUGHT)];
    let kept = kept()?;
    let mut wrong = Vec::new();
    for (part, names, wanted) in parts {
        let folder: PathBuf = root().join("target/mutants").join(part);
        let Tried { caught, survivors } = tried_twice(&names, &folder)?;
        let viable = caught + survivors.len();
        #[expect(clippy::cast_precision_loss, reason = "a few hundred")]
        let share = caught as f64 / viable.max(1) as f64;
        println!("{part}: {caught} of {viable} changes caught, {:.1} %", share * 100.0);
        if share < wanted {
            wrong.push(format!("{part}: less than {:.0} % caught", wanted * 100.0));
        }
        let unnamed = survivors.iter().filter(|name| !kept.contains(&without_place(name)));
        wrong.extend(unnamed.map(|name| format!("{name} survives and {KEPT} gives no reason")));
    }
    if wrong.is_empty() { Ok(()) } else { bail!("{}", wrong.join("\n")) }
}

#[cfg(test)]
mod tests {
    use super::{drawn, escaped, without_place};

    #[test]
    fn a_name_stands_for_itself() {
        assert_eq!(escaped("a/b.rs:1:2: f -> <i> with *½"), "^a/b\\.rs:1:2: f \\-> <i> with \\*½$");
    }

    #[test]
    fn the_same_changes_are_drawn_every_time_and_none_twice() {
        let names: Vec<String> = (0..50).map(|n| format!("change {n}")).collect();
        let (once, again) = (drawn(names.clone(), 20), drawn(names.clone(), 20));
        assert_eq!(once, again);
        assert_eq!(once.iter().collect::<std::collections::BTreeSet<_>>().len(), 20);
        assert_ne!(once, names[..20]);
        assert_eq!(drawn(names, 90).len(), 50);
    }

    #[test]
    fn a_name_is_known_again_after_lines_have_moved() {
        assert_eq!(
            without_place("crates/model/src/jars/acid.rs:138:18: replace > with >= in LeastDose::short_tsp"),
            "crates/model/src/jars/acid.rs: replace > with >= in LeastDose::short_tsp"
        );
    }
}
