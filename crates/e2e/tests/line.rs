//! The whole line in a real browser, and a clock that survives a power cut.

use bodega_e2e::{Bodega, Browser};

/// Weighs in 30 lb of paste fruit at 2,640 ft and sets out ten quarts, whole, raw, in water.
async fn set_out_ten_quarts(browser: &Browser, bodega: &Bodega) -> anyhow::Result<()> {
    browser.page.goto(format!("{}/kitchen", bodega.address)).await?;
    browser.fill("New altitude", "2640").await?;
    browser.press("Set altitude").await?;
    browser.sees("2,640 ft").await?;
    browser.walk_to("crates").await?;
    browser.fill("On the scale", "30").await?;
    browser.find("//form//button[normalize-space(.)=\"Weigh in\"]").await?.click().await?;
    browser.sees("10 whole").await?;
    browser.walk_to("plan").await?;
    browser.sees("expect 8 to 11").await?;
    browser.sees("50 min").await?;
    browser.sees("2 Tbsp").await?;
    browser.sees("2 loads").await?;
    browser.press("Set out 10 jars").await?;
    browser.sees("Acid is in 0 of 7 jars").await
}

/// From the empty jars of the bench to the first full rolling boil.
async fn fill_and_boil(browser: &Browser) -> anyhow::Result<()> {
    browser.make_load_ready().await?;
    browser.sees("Lower the jars into hot water").await?;
    browser.press("Jars are in").await?;
    browser.press("It boils").await?;
    browser.sees("left at a full rolling boil").await
}

/// Minutes on the clock for each minute on the wall: 50 minutes of boil pass in 10 seconds.
const FAST: &str = "300";

#[tokio::test(flavor = "multi_thread")]
async fn jars_walk_from_the_crate_to_the_towel() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare", "--pace", FAST])?;
    let browser = Browser::open(1280, 800).await?;
    set_out_ten_quarts(&browser, &bodega).await?;
    // The pot gave one jar fewer, and then one after all.
    browser.find("//button[starts-with(@aria-label, \"Less Quarts from the pot\")]").await?.click().await?;
    browser.sees("Acid is in 0 of 6 jars").await?;
    browser.find("//button[starts-with(@aria-label, \"More Quarts from the pot\")]").await?.click().await?;
    browser.sees("Acid is in 0 of 7 jars").await?;
    fill_and_boil(&browser).await?;
    browser.press("Boil lost").await?;
    browser.sees("the whole time counts again").await?;
    browser.press("Undo").await?;
    browser.sees("left at a full rolling boil").await?;
    browser.press("Boil lost").await?;
    browser.press("It boils").await?;
    browser.sees("The boil was lost once").await?;
    browser.press("Heat off, lid off").await?;
    browser.sees("Not processed").await?;
    browser.sees("the longest unbroken stretch was").await?;
    browser.press("Take the last step back").await?;
    browser.sees("The full 50 minutes are done").await?;
    browser.press("Heat off, lid off").await?;
    browser.sees("Processed: 5").await?;
    browser.press("Jars are out").await?;
    browser.walk_to("towel").await?;
    browser.sees("check the lids").await?;
    // Judged before twelve hours have passed it is provisional, and not on the shelf.
    browser.press("All 7 hold").await?;
    browser.sees("look again").await?;
    browser.press("Undo").await?;
    browser.sees("check the lids").await?;
    browser.press("All 7 hold").await?;
    browser.sees("look again").await?;
    assert_eq!(browser.figure("shelf").await?, "0");
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_power_cut_in_the_middle_of_a_count_changes_nothing() -> anyhow::Result<()> {
    let data = tempfile::tempdir()?;
    let bodega = Bodega::serve(data.path(), 0)?;
    let browser = Browser::open(1280, 800).await?;
    set_out_ten_quarts(&browser, &bodega).await?;
    fill_and_boil(&browser).await?;
    let lift = browser.find("//*[@data-testid=\"moment\"]").await?.text().await?;

    let port = bodega.port()?;
    bodega.kill()?;
    let again = Bodega::serve(data.path(), port)?;
    browser.page.goto(format!("{}/canner", again.address)).await?;
    browser.sees("left at a full rolling boil").await?;
    assert_eq!(
        browser.find("//*[@data-testid=\"moment\"]").await?.text().await?,
        lift,
        "the end of the count moved"
    );
    browser.close().await
}
