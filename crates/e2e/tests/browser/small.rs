//! The front end comes in its smallest form and once, and a page asks again for no more than what changed.

use std::io::{Read, Write};
use std::net::TcpStream;

use bodega_e2e::{Bodega, Browser};

/// How often each address was asked since the page was opened, as `address count`.
const ASKED: &str = "const count = {};
    for (const {name} of performance.getEntriesByType('resource')) {
      const path = new URL(name).pathname;
      if (path.startsWith('/api/')) count[path] = (count[path] ?? 0) + 1;
    }
    return Object.entries(count).map(([path, times]) => `${path} ${times}`);";

async fn asked(browser: &Browser) -> anyhow::Result<Vec<String>> {
    Ok(browser.page.execute(ASKED, Vec::new()).await?.convert()?)
}

fn times(asked: &[String], path: &str) -> u32 {
    let line = asked.iter().find_map(|line| line.strip_prefix(&format!("{path} ")));
    line.and_then(|times| times.parse().ok()).unwrap_or(0)
}

/// What the program answers when the page is asked for, past the browser: that keeps answers of its own.
fn page(host: &str, more: &str) -> anyhow::Result<String> {
    let mut stream = TcpStream::connect(host)?;
    stream
        .write_all(format!("GET / HTTP/1.1\r\nHost: {host}\r\nConnection: close\r\n{more}\r\n").as_bytes())?;
    let mut answer = Vec::new();
    stream.read_to_end(&mut answer)?;
    Ok(String::from_utf8_lossy(&answer).into_owned())
}

#[tokio::test(flavor = "multi_thread")]
async fn a_page_comes_small_and_asks_again_only_for_what_changed() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/jars", bodega.address)).await?;
    browser.find("//main//h2").await?;
    browser.settled().await?;
    let script = "return performance.getEntriesByType('resource').filter(({name}) => name.endsWith('.js'))
        .map(({encodedBodySize, decodedBodySize}) => [encodedBodySize, decodedBodySize])";
    let sizes: Vec<(f64, f64)> = browser.page.execute(script, Vec::new()).await?.convert()?;
    let (small, whole) = sizes.iter().fold((0.0, 0.0), |sum, size| (sum.0 + size.0, sum.1 + size.1));
    assert!(whole > 100_000.0 && small < whole * 0.4, "{small} bytes over the line for {whole}");
    let host = bodega.address.trim_start_matches("http://");
    let first = page(host, "")?;
    let tag = first.lines().find_map(|line| line.strip_prefix("etag: ")).unwrap_or_default();
    assert!(first.starts_with("HTTP/1.1 200 ") && !tag.is_empty(), "{first}");
    let again = page(host, &format!("If-None-Match: {tag}\r\n"))?;
    assert!(again.starts_with("HTTP/1.1 304 ") && again.ends_with("\r\n\r\n"), "sent again: {again}");
    let changed = page(host, "If-None-Match: \"of yesterday\"\r\n")?;
    assert!(changed.starts_with("HTTP/1.1 200 "), "{changed}");

    // What is shown first is asked once.
    let before = asked(&browser).await?;
    assert_eq!((times(&before, "/api/counter"), times(&before, "/api/loads")), (1, 1), "{before:?}");
    // What the shelf asks for is told to every screen; the loads are the same and are not asked for.
    let script = "return fetch('/api/goals', {method: 'PUT', body: '[]', headers: {'Content-Type': 'application/json'}})
        .then(({status}) => status)";
    let status: u32 = browser.page.execute(script, Vec::new()).await?.convert()?;
    assert_eq!(status, 200);
    let script = "return fetch('/api/kitchen', {method: 'PATCH', body: '{\"people\": 3}',
        headers: {'Content-Type': 'application/json'}}).then(({status}) => status)";
    tokio::time::sleep(std::time::Duration::from_millis(500)).await;
    let after = asked(&browser).await?;
    assert_eq!(times(&after, "/api/loads"), 1, "goals change no load: {after:?}");
    let status: u32 = browser.page.execute(script, Vec::new()).await?.convert()?;
    assert_eq!(status, 200);
    for _ in 0..600 {
        if times(&asked(&browser).await?, "/api/loads") == 2 {
            return browser.close().await;
        }
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
    }
    anyhow::bail!("the kitchen changed, and the loads were not asked for again")
}
