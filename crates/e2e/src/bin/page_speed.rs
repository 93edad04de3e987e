//! How soon a page is there, and what it costs while it stands, on a processor four times slower: printed as a table. Part of
//! `cargo xtask bench`; `BODEGA_BINARY` names the program.

use std::time::Duration;

use bodega_e2e::{Bodega, Browser};
use serde_json::{Value, json};

/// How many times slower than this machine's the processor is made.
const SLOWER: u32 = 4;
/// A slow line: bytes a second of 1.6 Mbit/s, and milliseconds there and back.
const SLOW_BYTES: u32 = 200_000;
const SLOW_MS: u32 = 150;
/// Rounds of each measurement.
const ROUNDS: usize = 5;
/// How long a page is left standing.
const STANDS: Duration = Duration::from_secs(10);

async fn send(browser: &Browser, method: &str, what: Value) -> anyhow::Result<Value> {
    Ok(browser.page.cdp().send_raw(method, what).await?)
}

async fn slow_line(browser: &Browser, is_slow: bool) -> anyhow::Result<()> {
    let bytes = if is_slow { i64::from(SLOW_BYTES) } else { -1 };
    let latency = if is_slow { SLOW_MS } else { 0 };
    let line =
        json!({"offline": false, "latency": latency, "downloadThroughput": bytes, "uploadThroughput": bytes});
    send(browser, "Network.enable", json!({})).await?;
    send(browser, "Network.setCacheDisabled", json!({"cacheDisabled": true})).await?;
    send(browser, "Network.setBypassServiceWorker", json!({"bypass": true})).await?;
    send(browser, "Network.emulateNetworkConditions", line).await?;
    Ok(())
}

fn spread(mut all: Vec<f64>) -> String {
    all.sort_by(f64::total_cmp);
    let at = |place: usize| all.get(place).copied().unwrap_or(f64::NAN);
    format!("{:.2} ({:.2} to {:.2})", at(all.len() / 2), at(0), at(all.len().saturating_sub(1)))
}

/// Seconds from the call of a page to its first paint with words on it, and until the station's own heading stands there.
async fn paints(browser: &Browser, address: &str) -> anyhow::Result<(f64, f64)> {
    browser.page.goto("about:blank").await?;
    browser.page.goto(address).await?;
    browser.find("//main//h2").await?;
    let script = "return [performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? 0, performance.now()]";
    let said: Vec<f64> = browser.page.execute(script, Vec::new()).await?.convert()?;
    Ok((said[0] / 1000.0, said[1] / 1000.0))
}

/// Seconds that the page's thread has worked.
async fn worked(browser: &Browser) -> anyhow::Result<f64> {
    let answer = send(browser, "Performance.getMetrics", json!({})).await?;
    let metrics = answer["metrics"].as_array().cloned().unwrap_or_default();
    let duration = metrics.iter().find(|metric| metric["name"] == "TaskDuration");
    Ok(duration.and_then(|metric| metric["value"].as_f64()).unwrap_or_default())
}

#[tokio::main]
async fn main() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(390, 844).await?;
    send(&browser, "Emulation.setCPUThrottlingRate", json!({"rate": SLOWER})).await?;
    let canner = format!("{}/canner", bodega.address);
    println!("| page at {SLOWER}x | first paint, s | station there, s |\n|---|---|---|");
    for (words, is_slow) in [("own machine", false), ("1.6 Mbit/s, 150 ms", true)] {
        slow_line(&browser, is_slow).await?;
        let (mut first, mut there) = (Vec::new(), Vec::new());
        for _ in 0..ROUNDS {
            let (painted, stood) = paints(&browser, &canner).await?;
            first.push(painted);
            there.push(stood);
        }
        println!("| {words} | {} | {} |", spread(first), spread(there));
    }
    slow_line(&browser, false).await?;
    send(&browser, "Performance.enable", json!({"timeDomain": "timeTicks"})).await?;
    println!("\n| standing page at {SLOWER}x | share of the processor, % |\n|---|---|");
    for page in ["canner", "plan/day", "kettle", "crates"] {
        browser.page.goto(format!("{}/{page}", bodega.address)).await?;
        browser.find("//main//h2").await?;
        browser.settled().await?;
        tokio::time::sleep(Duration::from_secs(2)).await;
        let mut shares = Vec::new();
        for _ in 0..3 {
            let before = worked(&browser).await?;
            tokio::time::sleep(STANDS).await;
            shares.push((worked(&browser).await? - before) / STANDS.as_secs_f64() * 100.0);
        }
        println!("| {page} | {} |", spread(shares));
    }
    browser.close().await
}
