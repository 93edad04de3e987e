//! A phone at the stove: let in by a code over HTTPS, open without the server, and ringing when the time is up.

use std::io::Write;
use std::path::Path;
use std::process::{Command, Stdio};

use bodega_e2e::{Bodega, Browser, binary};
use serde_json::json;
use thirtyfour::By;

/// Another address of this very machine: what speaks there is nobody else.
const HOME: [&str; 7] = ["--network", "--address", "127.0.0.2", "--network-port", "0", "--help-port", "0"];

fn set_passcode(data: &Path) -> anyhow::Result<()> {
    let mut command = Command::new(binary()?);
    let mut child = command.arg("passcode").arg("--data").arg(data).stdin(Stdio::piped()).spawn()?;
    if let Some(mut typed) = child.stdin.take() {
        writeln!(typed, "four wet jars")?;
    }
    anyhow::ensure!(child.wait()?.success());
    Ok(())
}

/// A demo that is open to the network, so many times as fast as the wall.
fn demo(data: &Path, pace: &str) -> anyhow::Result<Bodega> {
    set_passcode(data)?;
    let folder = data.to_str().unwrap_or_default();
    Bodega::start(&[["demo", "--data", folder, "--pace", pace].as_slice(), &HOME].concat())
}

/// Makes a code on the computer's screen; gives the address that its QR code carries.
async fn make_code(computer: &Browser) -> anyhow::Result<String> {
    computer.press("Let a device in").await?;
    let picture = computer.find("//*[@data-testid=\"pairing\"]//img").await?;
    let said = picture.attr("alt").await?.unwrap_or_default();
    Ok(said.trim_start_matches("QR code of ").to_owned())
}

#[tokio::test(flavor = "multi_thread")]
async fn a_phone_is_let_in_by_a_code_opens_without_the_server_and_rings_when_the_time_is_up()
-> anyhow::Result<()> {
    let data = tempfile::tempdir()?;
    // The 23 minutes that are left in the canner pass in 46 seconds.
    let bodega = demo(data.path(), "30")?;
    let computer = Browser::open(1280, 800).await?;
    computer.page.goto(format!("{}/kitchen/devices", bodega.address)).await?;
    let scanned = make_code(&computer).await?;

    let phone = Browser::open_trusting(&data.path().join("network/authority.pem"), 390, 844).await?;
    let origin = scanned.split("/let-in").next().unwrap_or_default().to_owned();
    let may = json!({"origin": origin, "permissions": ["notifications"]});
    phone.page.cdp().send_raw("Browser.grantPermissions", may).await?;
    phone.page.goto(format!("{origin}/canner")).await?;
    phone.sees("This device is not let in yet").await?;
    phone.page.goto(&scanned).await?;
    // The same page with another ending is not loaded anew by itself.
    phone.page.refresh().await?;
    phone.press("Let this device in").await?;
    phone.sees("lb ready for jars").await?;
    computer.find("//*[@data-device=\"Computer\" or @data-device=\"Phone\"]").await?;
    phone.walk_to("canner").await?;
    phone.sees("left at a full rolling boil").await?;
    // What the phone opens without the server is what it has seen.
    phone.page.execute_async("navigator.serviceWorker.ready.then(() => arguments[0]())", vec![]).await?;
    phone.page.refresh().await?;
    phone.sees("left at a full rolling boil").await?;
    phone.settled().await?;

    bodega.kill()?;
    phone.page.refresh().await?;
    phone.sees("Not connected").await?;
    phone.sees("left at a full rolling boil").await?;
    let clock = || async {
        phone.find("//*[@data-testid=\"clock\"]").await?.text().await.map_err(anyhow::Error::from)
    };
    let before = clock().await?;
    tokio::time::sleep(std::time::Duration::from_millis(600)).await;
    assert_ne!(clock().await?, before, "the clock runs on by itself");
    phone.sees("Heat off").await?;
    while !phone.page.title().await?.starts_with('●') {
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
    }
    let script = "navigator.serviceWorker.ready.then((worker) => worker.getNotifications())
        .then((notices) => arguments[0](notices.map((notice) => notice.body)))";
    // The title changes at once, the notice when the worker has put it up.
    let mut notices: Vec<String> = Vec::new();
    for _ in 0..100 {
        notices = phone.page.execute_async(script, vec![]).await?.convert()?;
        if !notices.is_empty() {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(100)).await;
    }
    assert!(!notices.is_empty(), "a notice stands outside the page");
    assert!(phone.page.find_all(By::XPath("//*[contains(., 'Bodega does not answer')]")).await?.is_empty());
    phone.close().await?;
    computer.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_device_is_signed_out_by_one_touch_and_a_wrong_passcode_is_said() -> anyhow::Result<()> {
    let data = tempfile::tempdir()?;
    let bodega = demo(data.path(), "1")?;
    let computer = Browser::open(1280, 800).await?;
    computer.page.goto(format!("{}/kitchen/devices", bodega.address)).await?;
    let scanned = make_code(&computer).await?;
    let origin = scanned.split("/let-in").next().unwrap_or_default().to_owned();
    let phone = Browser::open_trusting(&data.path().join("network/authority.pem"), 390, 844).await?;
    phone.page.goto(&origin).await?;
    phone.fill("Or the passcode", "five wet jars").await?;
    phone.press("Let this device in").await?;
    phone.sees("This is not the passcode").await?;
    phone.fill("Name of this device", "Phone at the stove").await?;
    phone.fill("Or the passcode", "four wet jars").await?;
    phone.press("Let this device in").await?;
    phone.sees("lb ready for jars").await?;
    let device = "//*[@data-device=\"Phone at the stove\"]";
    computer.click(&format!("{device}//button")).await?;
    phone.sees("This device is not let in yet").await?;
    phone.close().await?;
    computer.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_page_that_nobody_has_touched_says_that_it_makes_no_sound() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(390, 844).await?;
    browser.page.goto(format!("{}/shelf", bodega.address)).await?;
    browser.press("Sound is off: touch here").await?;
    browser.sees_no_more("Sound is off").await?;
    browser.close().await
}
