//! Packages that a household can install: a Debian package with a service, and an archive.

use std::fs;
use std::process::Command;

use crate::run::{cargo, output, root, step};

/// The version that the package is known to be made with.
const CARGO_DEB: &str = "3.8.0";

/// Makes sure that `cargo deb` can be started.
fn ensure_tool() -> anyhow::Result<()> {
    let is_there =
        Command::new("cargo").args(["deb", "--version"]).output().is_ok_and(|done| done.status.success());
    if is_there {
        return Ok(());
    }
    step("cargo-deb", &mut cargo(&["install", "--locked", "cargo-deb", "--version", CARGO_DEB]))
}

/// Makes both packages out of the release binary, in `target/package`.
///
/// # Errors
/// When a tool is missing or fails.
pub fn make() -> anyhow::Result<()> {
    ensure_tool()?;
    let folder = root().join("target/package");
    if folder.exists() {
        fs::remove_dir_all(&folder)?;
    }
    fs::create_dir_all(&folder)?;
    let out = folder.display().to_string();
    step(
        "Debian package",
        &mut cargo(&["deb", "--no-build", "--locked", "--package", "bodega", "--output", &out]),
    )?;
    let name = format!("bodega-{}-{}", env!("CARGO_PKG_VERSION"), std::env::consts::ARCH);
    let inside = folder.join(&name);
    fs::create_dir_all(&inside)?;
    for (file, kept) in [
        ("target/release/bodega", "bodega"),
        ("packaging/bodega.service", "bodega.service"),
        ("docs/household.md", "household.md"),
        ("LICENSE-APACHE", "LICENSE-APACHE"),
        ("LICENSE-MIT", "LICENSE-MIT"),
    ] {
        fs::copy(root().join(file), inside.join(kept))?;
    }
    let archive = format!("{name}.tar.gz");
    let mut tar = Command::new("tar");
    tar.args(["--owner=0", "--group=0", "-czf", &archive, &name]).current_dir(&folder);
    step("archive", &mut tar)?;
    fs::remove_dir_all(&inside)?;
    let listed = output(Command::new("ls").arg("-l").arg(&folder))?;
    println!("{listed}");
    Ok(())
}
