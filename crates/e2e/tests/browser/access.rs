//! What opens over a page and the dark look held against WCAG 2.2 AA by axe-core, as every view is in `views.rs`; and the way of
//! whoever does not see the page.

use bodega_e2e::{Bodega, Browser};
use serde_json::Value;
use thirtyfour::prelude::*;

/// Opens one thing of a page that lies over it or unfolds.
struct Open {
    view: &'static str,
    xpath: &'static str,
    shows: &'static str,
}

const OPEN: [Open; 6] = [
    Open { view: "shelf", xpath: "(//article//button)[1]", shows: "Look first" },
    Open { view: "canner", xpath: "//button[contains(., \"A jar broke\")]", shows: "Which one?" },
    Open { view: "canner", xpath: "//button[contains(., \"Where from?\")]", shows: "Published" },
    Open { view: "plan", xpath: "//button[@role=\"combobox\"]", shows: "half-gallon" },
    Open { view: "plan/day", xpath: "(//button[@data-block])[1]", shows: "It takes" },
    Open { view: "kitchen", xpath: "//button[contains(., \"Hours, days\")]", shows: "Time of day" },
];

#[tokio::test(flavor = "multi_thread")]
async fn what_opens_over_a_page_and_the_dark_look_keep_to_them_too() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(1280, 800).await?;
    let mut found = Vec::new();
    for Open { view, xpath, shows } in OPEN {
        browser.page.goto(format!("{}/{view}", bodega.address)).await?;
        browser.click(xpath).await?;
        browser.sees(shows).await?;
        let wrong = browser.violations().await?;
        found.extend(wrong.into_iter().map(|line| format!("{shows} over {view}: {line}")));
    }
    // The sheet of keys opens by its own key, and gives the place back that it took.
    browser.page.goto(format!("{}/jars", bodega.address)).await?;
    browser.sees("All acid in").await?;
    browser.find("//body").await?.send_keys("?").await?;
    browser.sees("Keys of this page").await?;
    browser.sees("All bubbles out").await?;
    found.extend(browser.violations().await?);
    browser.press("Close").await?;
    browser.page.goto(format!("{}/kitchen/devices", bodega.address)).await?;
    browser.press("Dark, for a dim kitchen").await?;
    for view in ["crates", "plan", "plan/day", "kettle", "jars", "canner", "towel", "almanac"] {
        browser.page.goto(format!("{}/{view}", bodega.address)).await?;
        browser.find("//main//h2").await?;
        let wrong = browser.violations().await?;
        found.extend(wrong.into_iter().map(|line| format!("{view} in the dark: {line}")));
    }
    assert!(found.is_empty(), "{found:#?}");
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_jar_is_worked_by_its_own_number_and_keys_can_be_switched_off() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/jars", bodega.address)).await?;
    let state = |words: &str| format!("//button[@data-jar=\"17\"][contains(., \"{words}\")]");
    browser.find(&state("needs acid")).await?;
    // The third jar of the load is called 17: its place says nothing.
    browser.find("//body").await?.send_keys("17").await?;
    browser.find(&state("acid in")).await?;
    browser.find("//body").await?.send_keys("?").await?;
    browser.click("//*[@role=\"dialog\"]//button[@role=\"checkbox\"]").await?;
    browser.press("Close").await?;
    browser.find("//body").await?.send_keys("18").await?;
    browser.settled().await?;
    assert!(browser.has("//button[@data-jar=\"18\"][contains(., \"needs acid\")]").await?);
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_new_page_begins_at_its_heading_and_has_a_title_of_its_own() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/crates", bodega.address)).await?;
    browser.sees("waiting").await?;
    browser.walk_to("canner").await?;
    browser.sees("left at a full rolling boil").await?;
    let said = "return [document.activeElement.tagName, document.activeElement.textContent, document.title]";
    let said: Vec<String> = browser.page.execute(said, Vec::<Value>::new()).await?.convert()?;
    assert_eq!(&said[..2], ["H1", "Canner"]);
    assert!(said[2].ends_with("boiling · Canner"), "{}", said[2]);
    // One key brings whoever has no mouse past the line.
    browser.page.goto(format!("{}/shelf", bodega.address)).await?;
    browser.sees("On the shelf").await?;
    let body = browser.find("//body").await?;
    body.send_keys(Key::Tab + Key::Enter).await?;
    let at: String =
        browser.page.execute("return document.activeElement.id", Vec::<Value>::new()).await?.convert()?;
    assert_eq!(at, "work");
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn an_alarm_is_written_on_every_page_with_the_way_to_its_answer() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--pace", "3000"])?;
    let browser = Browser::open(390, 844).await?;
    browser.page.goto(format!("{}/almanac", bodega.address)).await?;
    browser.find("//*[@role=\"alert\"]//*[contains(., \"heat off\")]").await?;
    let title: String =
        browser.page.execute("return document.title", Vec::<Value>::new()).await?.convert()?;
    assert!(title.starts_with('●'), "{title}");
    browser.press_link("To the canner").await?;
    browser.press("Heat off, lid off").await?;
    browser.close().await
}
