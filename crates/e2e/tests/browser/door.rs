//! A page of another site, open in the same browser, cannot work the kitchen.

use std::io::{Read, Write};
use std::net::{Ipv4Addr, TcpListener};

use bodega_e2e::{Bodega, Browser};

/// Tries to weigh in fruit, to stop a boil and to regroup loads, each in every way that a page may send without asking.
const ATTACK: &str = r#"<!doctype html><title>at work</title><body><script>
const target = "TARGET";
const tries = [
  ["POST", "/api/lots", {amount: {weighed: {value: 99, unit: "lb"}}, kind: "paste", condition: "firm_ripe"}],
  ["POST", "/api/loads/1/events", {event: "heat_off"}],
  ["PUT", "/api/loads/grouping", {}],
];
(async () => {
  for (const [method, path, body] of tries)
    for (const [mode, type] of [["no-cors", "text/plain"], ["cors", "application/json"], ["cors", "text/plain"]])
      await fetch(target + path, {method, mode, headers: {"Content-Type": type}, body: JSON.stringify(body)})
        .catch(() => {});
  const form = document.createElement("form");
  form.method = "post"; form.enctype = "text/plain"; form.action = target + "/api/lots"; form.target = "inside";
  const field = document.createElement("input");
  field.name = JSON.stringify(tries[0][2]).slice(0, -1) + ', "a'; field.value = '": 1}';
  form.append(field);
  const frame = document.createElement("iframe");
  frame.name = "inside"; frame.onload = () => { document.title = "tried"; };
  document.body.append(frame, form);
  form.submit();
})();
</script>"#;

/// Serves the attack on an address of its own as long as the test runs.
fn elsewhere(target: &str) -> anyhow::Result<String> {
    let listener = TcpListener::bind((Ipv4Addr::LOCALHOST, 0))?;
    let address = listener.local_addr()?;
    let page = ATTACK.replace("TARGET", target);
    std::thread::spawn(move || {
        for mut stream in listener.incoming().flatten() {
            let mut asked = [0; 4096];
            let _ = stream.read(&mut asked);
            let head = "HTTP/1.1 200 OK\r\nContent-Type: text/html\r\nConnection: close\r\n\r\n";
            let _ = stream.write_all(format!("{head}{page}").as_bytes());
        }
    });
    Ok(format!("http://localhost:{}", address.port()))
}

#[tokio::test(flavor = "multi_thread")]
async fn another_sites_page_in_the_same_browser_changes_nothing() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/canner", bodega.address)).await?;
    browser.sees("left at a full rolling boil").await?;
    let before = browser.figure("crates").await?;
    browser.page.goto(elsewhere(&bodega.address)?).await?;
    while browser.page.title().await? != "tried" {
        tokio::time::sleep(std::time::Duration::from_millis(50)).await;
    }
    browser.page.goto(format!("{}/canner", bodega.address)).await?;
    browser.sees("left at a full rolling boil").await?;
    assert_eq!(browser.figure("crates").await?, before, "no fruit came in");
    browser.close().await
}
