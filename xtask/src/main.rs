//! Set-up, build, demo, checks and screenshots: everything the README names, on a fresh machine.

mod chrome;
mod mutants;
mod package;
mod run;
mod types;

use std::thread::JoinHandle;

use anyhow::bail;
use run::{npm, root, step};

const USAGE: &str = "usage: cargo xtask <command>
  demo         set up, build and serve the demo kitchen
  build        front end and target/release/bodega
  package      build, and make a Debian package and an archive of it in target/package
  test         set up, then every check
  types        write the front end's types and bounds from the API's description
  share        lines of code and of tests in every part of the project
  bench        measure how fast the release is, and print the tables of docs/performance.md
  mutants      change the core a little, many times, and see that a test fails each time
  screenshots  draw docs/screenshots from the demo kitchen";

fn main() -> anyhow::Result<()> {
    match std::env::args().nth(1).as_deref() {
        Some("demo") => demo(),
        Some("build") => build(),
        Some("package") => package(),
        Some("test") => test(),
        Some("types") => types(),
        Some("share") => share(),
        Some("bench") => bench(),
        Some("mutants") => mutants::run(),
        Some("screenshots") => screenshots(),
        _ => bail!("{USAGE}"),
    }
}

/// npm packages from the lock file, when they are not the ones it names.
fn front_end_packages() -> anyhow::Result<()> {
    let web = root().join("web");
    let lock = std::fs::read(web.join("package-lock.json"))?;
    // npm writes no copy of the lock file that compares byte for byte, so the one installed from is kept beside them.
    let stamp = web.join("node_modules/.installed-from");
    if std::fs::read(&stamp).is_ok_and(|installed| installed == lock) {
        return Ok(());
    }
    step("npm packages", &mut npm(&["ci", "--no-audit", "--no-fund"]))?;
    Ok(std::fs::write(stamp, lock)?)
}

fn front_end() -> anyhow::Result<()> {
    front_end_packages()?;
    step("front end", &mut npm(&["run", "--silent", "build"]))
}

/// The folder that the front end is made in. The program has to find it when it is built, or it never looks into it; what is in
/// it is only read when it runs, so that both can be made at the same time.
fn front_end_folder() -> anyhow::Result<()> {
    Ok(std::fs::create_dir_all(root().join("web/dist"))?)
}

fn build() -> anyhow::Result<()> {
    front_end()?;
    step("release binary", &mut run::cargo(&["build", "--release", "--locked", "--package", "bodega"]))
}

/// The first look: what is quick to build, from the crates that the tests build too.
fn demo() -> anyhow::Result<()> {
    front_end_folder()?;
    let front_end = std::thread::spawn(|| {
        front_end_packages()?;
        step("front end", &mut npm(&["run", "--silent", "bundle"]))
    });
    // The tests' thousands of kettles want the core quick, one kitchen does not.
    let mut build = run::cargo(&["build", "--locked", "--package", "bodega"]);
    for part in ["model", "core"] {
        build.arg("--config").arg(format!("profile.dev.package.bodega-{part}.opt-level=0"));
    }
    step("binary", &mut build)?;
    joined(front_end)?;
    let mut command = std::process::Command::new(root().join("target/debug/bodega"));
    command.arg("demo").args(std::env::args().skip(2));
    step("demo kitchen, Ctrl-C ends it", &mut command)
}

fn package() -> anyhow::Result<()> {
    build()?;
    package::make()
}

fn types() -> anyhow::Result<()> {
    front_end_packages()?;
    for (file, text) in types::make()? {
        std::fs::write(root().join(file), text)?;
    }
    Ok(())
}

/// Checks the front end and makes its bundle.
fn front_end_checked() -> anyhow::Result<()> {
    front_end_packages()?;
    step("front end format", &mut npm(&["run", "--silent", "format:check"]))?;
    // The rules take one processor for most of a minute.
    let rules = std::thread::spawn(|| step("front end rules", &mut npm(&["run", "--silent", "lint"])));
    let built = step("front end types and bundle", &mut npm(&["run", "--silent", "build"]));
    joined(rules)?;
    built
}

/// What a step beside another came to.
fn joined(step: JoinHandle<anyhow::Result<()>>) -> anyhow::Result<()> {
    step.join().unwrap_or_else(|_| bail!("a step beside the others could not be made"))
}

fn test() -> anyhow::Result<()> {
    step("format", &mut run::cargo(&["fmt", "--all", "--check"]))?;
    front_end_folder()?;
    let front_end = std::thread::spawn(|| {
        front_end_checked()?;
        chrome::ensure()
    });
    let clippy = ["clippy", "--workspace", "--all-targets", "--locked", "--", "--deny", "warnings"];
    let built = step("clippy", &mut run::cargo(&clippy))
        // Builds the program too, which the browser drives.
        .and_then(|()| {
            step("tests built", &mut run::cargo(&["test", "--workspace", "--locked", "--no-run"]))
        });
    joined(front_end)?;
    built?;
    println!("== generated types fresh");
    for (file, text) in types::make()? {
        if std::fs::read_to_string(root().join(file)).ok() != Some(text) {
            bail!("{file} is stale; run \"cargo xtask types\"");
        }
    }
    step("tests", &mut run::cargo(&["test", "--workspace", "--locked"]))
}

/// Measures the release. Nothing of it is a test: what it prints depends on the machine.
fn bench() -> anyhow::Result<()> {
    build()?;
    chrome::ensure()?;
    step("measurements", &mut run::cargo(&["build", "--release", "--locked", "--package", "bodega-bench"]))?;
    let bodega = root().join("target/release/bodega");
    let mut measure = std::process::Command::new(root().join("target/release/bodega-bench"));
    step("server", measure.arg("measure").arg(&bodega).args(std::env::args().skip(2)))?;
    let page = ["run", "--locked", "--package", "bodega-e2e", "--bin", "page-speed"];
    step("page", run::cargo(&page).env("BODEGA_BINARY", &bodega))
}

/// Prints what part of the code is tests.
fn share() -> anyhow::Result<()> {
    let mut git = std::process::Command::new("git");
    let listed = run::output(git.args(["ls-files"]).current_dir(root()))?;
    let files: Vec<String> = listed.lines().map(str::to_owned).collect();
    let parts = xtask::share::by_part(&root(), &files)?;
    let mut all = xtask::share::Share::default();
    println!("{:<20}{:>8}{:>8}{:>6}", "part", "code", "tests", "%");
    for (part, share) in &parts {
        println!("{part:<20}{:>8}{:>8}{:>6}", share.code, share.tests, share.percent());
        all.code += share.code;
        all.tests += share.tests;
    }
    println!("{:<20}{:>8}{:>8}{:>6}", "all", all.code, all.tests, all.percent());
    Ok(())
}

fn screenshots() -> anyhow::Result<()> {
    front_end()?;
    chrome::ensure()?;
    step("binary", &mut run::cargo(&["build", "--locked", "--package", "bodega"]))?;
    step(
        "screenshots",
        &mut run::cargo(&["run", "--locked", "--package", "bodega-e2e", "--bin", "screenshots"]),
    )
}
