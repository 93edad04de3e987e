//! The front end's own tests under Cargo's runner: every suite is one test, so that one command runs all.

use std::path::{Path, PathBuf};
use std::process::Command;

use libtest_mimic::{Arguments, Trial};

/// Every suite below a folder.
fn suites(folder: &Path) -> Vec<PathBuf> {
    let mut found = Vec::new();
    let mut open = vec![folder.to_owned()];
    while let Some(next) = open.pop() {
        for path in
            std::fs::read_dir(&next).into_iter().flatten().filter_map(|entry| Some(entry.ok()?.path()))
        {
            if path.is_dir() {
                open.push(path);
            } else if path.to_string_lossy().ends_with(".test.ts") {
                found.push(path);
            }
        }
    }
    found.sort();
    found
}

fn run(web: &Path, suite: &str) -> Result<(), libtest_mimic::Failed> {
    let done = Command::new("npx").args(["vitest", "run", suite]).current_dir(web).output()?;
    if done.status.success() {
        return Ok(());
    }
    let said = format!("{}{}", String::from_utf8_lossy(&done.stdout), String::from_utf8_lossy(&done.stderr));
    Err(said.into())
}

fn main() {
    let web = Path::new(env!("CARGO_MANIFEST_DIR")).parent().map(|root| root.join("web")).unwrap_or_default();
    let trials = suites(&web.join("src")).into_iter().map(|path| {
        let suite = path.strip_prefix(&web).unwrap_or(&path).display().to_string();
        let web = web.clone();
        Trial::test(suite.clone(), move || run(&web, &suite))
    });
    libtest_mimic::run(&Arguments::from_args(), trials.collect()).exit();
}
