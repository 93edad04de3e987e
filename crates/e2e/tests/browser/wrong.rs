//! Walked wrong: slips of the finger, broken records, a kitchen with nothing in it.

use bodega_e2e::{Bodega, Browser};

/// Words of what stands wrong at the field with this label.
async fn wrong_at(browser: &Browser, label: &str) -> anyhow::Result<String> {
    let field = browser.find(&format!("//input[@id=//label[contains(., \"{label}\")]/@for]")).await?;
    let id = field.attr("aria-describedby").await?.unwrap_or_default();
    browser.find(&format!("//*[@id=\"{id}\"]")).await?.text().await.map_err(Into::into)
}

#[tokio::test(flavor = "multi_thread")]
async fn a_slip_is_said_beside_its_field_and_what_was_typed_stays() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/kitchen", bodega.address)).await?;
    for (typed, said) in [("99000", "30000"), ("-9999", "-2000"), ("up here", "Give a number")] {
        browser.fill("New altitude", typed).await?;
        browser.press("Set altitude").await?;
        let wrong = wrong_at(&browser, "New altitude").await?;
        assert!(wrong.contains(said), "{typed}: {wrong}");
        let field = browser.find("//input[@id=//label[contains(., \"New altitude\")]/@for]").await?;
        assert_eq!(field.prop("value").await?.as_deref(), Some(typed), "nothing that was typed is lost");
    }
    browser.fill("New altitude", "1234").await?;
    browser.press("Set altitude").await?;
    browser.sees("Altitude is 1,234").await?;
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_record_that_cannot_be_read_stands_on_its_card_and_is_put_right() -> anyhow::Result<()> {
    let data = tempfile::tempdir()?;
    let old = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../store/tests/data/kitchen-v9.db");
    let file = data.path().join("bodega.db");
    std::fs::copy(old, &file)?;
    let raw = rusqlite::Connection::open(&file)?;
    raw.execute_batch("UPDATE lot SET kind = 'plum' WHERE weight_g = 13608")?;
    drop(raw);
    let bodega = Bodega::serve(data.path(), 0)?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/crates", bodega.address)).await?;
    browser.sees("cannot be read: its kind is “plum”").await?;
    // The other crates are there all the same.
    browser.sees("18.1 lb").await?;
    browser.choose("It should say", "paste").await?;
    browser.press("Put it right").await?;
    browser.sees("30 lb").await?;
    let page = browser.find("//main").await?.text().await?;
    assert!(!page.contains("cannot be read"), "{page}");
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn an_empty_kitchen_says_at_every_station_what_comes_first() -> anyhow::Result<()> {
    let data = tempfile::tempdir()?;
    let bodega = Bodega::serve(data.path(), 0)?;
    let browser = Browser::open(390, 844).await?;
    for (station, words) in [
        ("crates", "Weigh in"),
        ("plan", "altitude"),
        ("kettle", "kettle"),
        ("jars", "bench"),
        ("canner", "canner"),
        ("towel", "The towel is clear"),
        ("shelf", "The first jars come here"),
        ("almanac", "altitude"),
        ("kitchen", "Until the altitude is known, nothing can be timed."),
    ] {
        browser.page.goto(format!("{}/{station}", bodega.address)).await?;
        browser.find("//main//h2").await?;
        browser.sees(words).await?;
        let wide: f64 =
            browser.page.execute("return document.documentElement.scrollWidth", vec![]).await?.convert()?;
        assert!(wide <= 390.0, "{station} is {wide} wide on a phone of 390");
    }
    browser.close().await
}
