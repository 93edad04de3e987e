//! The rule book and the judge in a real browser.

use bodega_e2e::{Bodega, Browser};

#[tokio::test(flavor = "multi_thread")]
async fn the_almanac_lights_the_kitchens_column_and_prints_on_one_page() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/almanac", bodega.address)).await?;
    browser.sees("207.1").await?;
    let lit =
        browser.find("//table[@data-testid=\"water-table\"]//th[contains(@class, \"bg-cobalt\")]").await?;
    assert_eq!(lit.text().await?, "1,001 to 3,000 ft");
    browser.settled().await?;
    assert_eq!(browser.printed_pages().await?, 1);
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_corrected_altitude_is_caught_at_the_canner_and_put_right_there() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/kitchen", bodega.address)).await?;
    browser.press("By place").await?;
    // A town that lies higher than the demo's kitchen: Denver, about 5,300 ft.
    browser.fill("Town near the kitchen", "denver, colorado").await?;
    browser.press("Denver, Colorado, US").await?;
    browser.sees("3,001 to 6,000 ft").await?;
    browser.click("//li//button[contains(., \"Use 5,\")]").await?;
    // Jars stand there that were put up by the one before: nobody knows yet what that means for them.
    browser.sees("say whether the kitchen moved").await?;
    browser.press("it was wrong").await?;
    browser.sees("Altitude is 5,").await?;
    browser.walk_to("canner").await?;
    browser.sees("50 min is too short").await?;
    browser.press("Set 55 minutes").await?;
    browser.sees("55 minutes of unbroken full boil").await?;
    let page = browser.find("//main").await?.text().await?;
    assert!(!page.contains("too short"), "the finding goes when it is put right: {page}");
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_boil_test_takes_the_higher_band_and_the_plan_minds_litres() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/kitchen", bodega.address)).await?;
    browser.press("By a boil test").await?;
    // 210 °F is about 1,000 ft; a degree either way straddles the edge.
    browser.fill("Thermometer in water", "210").await?;
    browser.sees("straddles a band's edge").await?;
    browser.press("Use 1,").await?;
    browser.walk_to("plan").await?;
    browser.choose("Or another jar", "litre").await?;
    browser.find("//*[@data-finding=\"litre_as_quart\"]").await?;
    browser.press("Acid in all").await?;
    browser.sees("fl oz").await?;
    browser.close().await
}
