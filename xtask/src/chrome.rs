//! Chromium, ChromeDriver and what lets a profile trust an authority, for the browser tests, from Debian's packages when they are absent.

use std::process::Command;

use anyhow::bail;

use crate::run::{output, step};

fn is_there(program: &str) -> bool {
    Command::new(program).arg("--version").output().is_ok_and(|done| done.status.success())
}

/// Whether everything is here: the browser, its driver, and the tool that lets a profile trust an authority.
fn is_complete() -> bool {
    let has_tool = Command::new("certutil").arg("-H").output().is_ok();
    is_there("chromium") && is_there("chromedriver") && has_tool
}

/// Makes sure that they can be started.
///
/// # Errors
/// Says what to do when they cannot be installed.
pub fn ensure() -> anyhow::Result<()> {
    if is_complete() {
        return Ok(());
    }
    let help = "install the packages chromium, chromium-driver and libnss3-tools, then run this again";
    if !is_there("apt-get") {
        bail!("the browser tests need Chromium and ChromeDriver, and there is no apt-get here; {help}");
    }
    if output(Command::new("id").arg("-u"))?.trim() != "0" {
        bail!("the browser tests need Chromium and ChromeDriver, and installing them needs root; {help}");
    }
    step("package list", Command::new("apt-get").args(["update", "-q"]))?;
    step(
        "Chromium and ChromeDriver",
        Command::new("apt-get")
            .args([
                "install",
                "-q",
                "-y",
                "--no-install-recommends",
                "chromium",
                "chromium-driver",
                "libnss3-tools",
            ])
            .env("DEBIAN_FRONTEND", "noninteractive"),
    )?;
    if is_complete() {
        return Ok(());
    }
    bail!("Chromium and ChromeDriver were installed and do not start; {help}")
}
