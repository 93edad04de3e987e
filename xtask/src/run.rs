//! Runs other programs and says which one failed.

use std::path::{Path, PathBuf};
use std::process::Command;

use anyhow::{Context, bail};

/// The project's own directory.
pub fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).parent().map_or_else(|| PathBuf::from("."), Path::to_owned)
}

/// Cargo, in the project.
pub fn cargo(arguments: &[&str]) -> Command {
    let mut command = Command::new(std::env::var_os("CARGO").unwrap_or_else(|| "cargo".into()));
    command.args(arguments).current_dir(root());
    command
}

/// npm, in the front end. It stands back: Cargo, when it builds beside it, is done later and leaves a processor idle at its end.
pub fn npm(arguments: &[&str]) -> Command {
    let mut command = Command::new("nice");
    command.args(["-n", "10", "npm"]).args(arguments).current_dir(root().join("web"));
    command
}

/// Runs a step, showing what it prints.
pub fn step(name: &str, command: &mut Command) -> anyhow::Result<()> {
    println!("== {name}");
    let status = command
        .status()
        .with_context(|| format!("{name}: {:?} could not be started", command.get_program()))?;
    if !status.success() {
        bail!("{name} failed ({status})");
    }
    Ok(())
}

/// Runs a program and gives what it printed on standard output.
pub fn output(command: &mut Command) -> anyhow::Result<String> {
    let done =
        command.output().with_context(|| format!("{:?} could not be started", command.get_program()))?;
    if !done.status.success() {
        bail!("{:?} failed: {}", command.get_program(), String::from_utf8_lossy(&done.stderr));
    }
    Ok(String::from_utf8(done.stdout)?)
}
