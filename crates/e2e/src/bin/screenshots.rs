//! One picture per view of the demo kitchen, into docs/screenshots.

use std::path::Path;

use bodega_e2e::{Bodega, Browser};

/// Addresses; a file is called like its address with dashes.
const VIEWS: [&str; 15] = [
    "crates",
    "plan",
    "plan/compare",
    "plan/split",
    "plan/day",
    "plan/recipes/1",
    "kettle",
    "jars",
    "canner",
    "towel",
    "shelf",
    "batches/6/record",
    "books",
    "almanac",
    "kitchen",
];
/// Views whose layout is shown on a phone too.
const PHONE_VIEWS: [&str; 3] = ["kettle", "jars", "canner"];

#[tokio::main]
async fn main() -> anyhow::Result<()> {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/screenshots");
    std::fs::create_dir_all(&folder)?;
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(1280, 800).await?;
    for (width, height, views, suffix) in
        [(1280, 800, VIEWS.as_slice(), ""), (390, 844, &PHONE_VIEWS, "-phone")]
    {
        browser.size(width, height).await?;
        for view in views {
            browser.page.goto(format!("{}/{view}", bodega.address)).await?;
            browser.find("//main//h2").await?;
            browser.settled().await?;
            browser.page.screenshot(&folder.join(format!("{}{suffix}.png", view.replace('/', "-")))).await?;
        }
    }
    // The wall page as paper shows it: A4 less its margins, at 96 dots to the inch.
    browser.size(726, 1054).await?;
    browser.page.goto(format!("{}/almanac", bodega.address)).await?;
    browser.settled().await?;
    browser.show_as_printed().await?;
    browser.page.screenshot(&folder.join("almanac-print.png")).await?;
    browser.close().await
}
