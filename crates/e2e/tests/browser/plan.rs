//! From crates to batches: what the harvest should become, within what there is.

use bodega_e2e::{Bodega, Browser};

async fn weigh_in(browser: &Browser, pounds: &str, kind: &str) -> anyhow::Result<()> {
    browser.weigh_in(pounds, kind).await?;
    browser.sees(&format!("{pounds} lb weighed in")).await
}

async fn count(browser: &Browser, name: &str, amount: &str) -> anyhow::Result<()> {
    browser.fill(name, amount).await?;
    let form = format!("//form[.//label[contains(., \"{name}\")]]//button");
    browser.click(&form).await?;
    browser.sees(&format!("{amount} there")).await
}

#[tokio::test(flavor = "multi_thread")]
async fn three_lots_are_split_within_stock_and_hours_pinned_and_set_out() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/kitchen/cupboard", bodega.address)).await?;
    count(&browser, "Empty quarts", "8").await?;
    count(&browser, "Empty pints", "20").await?;
    count(&browser, "Lids, regular mouth", "14").await?;
    browser.walk_to("crates").await?;
    weigh_in(&browser, "30", "Paste").await?;
    weigh_in(&browser, "21", "Paste").await?;
    weigh_in(&browser, "25", "Slicer").await?;

    browser.walk_to("plan").await?;
    browser.click("//a[normalize-space(.)=\"Side by side\"]").await?;
    browser.sees("Thin sauce").await?;
    browser.sees("boil away").await?;
    browser.sees("quarts, ").await?;
    browser.click("//a[normalize-space(.)=\"Share it all out\"]").await?;
    browser.choose("Ask for more", "pints of thin sauce").await?;
    browser.sees("6 pints of thin sauce").await?;
    // Fourteen lids are all there is, however much fruit.
    browser.sees("Limited by regular mouth lids: one lid more gives 1 jar").await?;
    browser.sees("No other split is worth more").await?;
    assert_eq!(browser.answer().await?, "14");

    let sauce = "//li[@data-choice=\"0\"]";
    browser.click(&format!("{sauce}//button[starts-with(@aria-label, \"Less\")]")).await?;
    browser.find(&format!("{sauce}//button[normalize-space(.)=\"Kept\"]")).await?;
    browser.find(&format!("{sauce}//strong[.=\"5\"]")).await?;
    browser.press("Set out").await?;
    browser.sees("On the line").await?;
    browser.sees("5 jars done").await?;
    assert_ne!(browser.figure("plan").await?, "0");

    browser.page.goto(format!("{}/kitchen/cupboard", bodega.address)).await?;
    browser.sees("0 there, 14 taken by batches").await?;
    browser.walk_to("plan").await?;
    browser.click("//a[normalize-space(.)=\"Checklist\"]").await?;
    browser.sees("Acid first, into the empty jar").await?;
    browser.settled().await?;
    assert_eq!(browser.printed_pages().await?, 1);
    browser.close().await
}
