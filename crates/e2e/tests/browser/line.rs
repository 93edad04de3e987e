//! The whole line in a real browser, and a clock that survives a power cut.

use bodega_e2e::{Bodega, Browser};

/// Weighs in 30 lb of paste fruit at 2,640 ft and sets out ten quarts, whole, raw, in water.
async fn set_out_ten_quarts(browser: &Browser, bodega: &Bodega) -> anyhow::Result<()> {
    browser.page.goto(format!("{}/kitchen", bodega.address)).await?;
    browser.fill("New altitude", "2640").await?;
    browser.press("Set altitude").await?;
    browser.sees("2,640 ft").await?;
    browser.walk_to("crates").await?;
    browser.weigh_in("30", "Paste").await?;
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

/// Minutes on the clock for each minute on the wall: 50 minutes of boil pass in 15 seconds.
const FAST: &str = "200";

#[tokio::test(flavor = "multi_thread")]
async fn jars_walk_from_the_crate_to_the_towel() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare", "--pace", FAST])?;
    let browser = Browser::open(1280, 800).await?;
    set_out_ten_quarts(&browser, &bodega).await?;
    // The pot gave one jar fewer, and then one after all.
    browser.click("//button[starts-with(@aria-label, \"Less Quarts from the pot\")]").await?;
    browser.sees("Acid is in 0 of 6 jars").await?;
    browser.click("//button[starts-with(@aria-label, \"More Quarts from the pot\")]").await?;
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
    assert!(browser.processed_minutes().await? >= 50);
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

#[tokio::test(flavor = "multi_thread")]
async fn a_touch_without_a_connection_is_kept_and_counts_from_when_it_was_touched() -> anyhow::Result<()> {
    let data = tempfile::tempdir()?;
    let bodega = Bodega::serve(data.path(), 0)?;
    let browser = Browser::open(1280, 800).await?;
    // A browser that has sound, notices and a lit screen, and throws at each of them.
    let hostile = "const no = function () { throw new TypeError('Illegal constructor') };
        no.permission = 'granted'; no.requestPermission = no;
        window.Notification = no; window.AudioContext = no;
        navigator.vibrate = no;
        Object.defineProperty(navigator, 'wakeLock', { value: { request: no } });";
    let source = serde_json::json!({ "source": hostile });
    browser.page.cdp().send_raw("Page.addScriptToEvaluateOnNewDocument", source).await?;
    set_out_ten_quarts(&browser, &bodega).await?;
    browser.make_load_ready().await?;
    browser.press("Jars are in").await?;
    browser.sees("Heating up").await?;
    // What was just done stands there until it is closed.
    browser.click("//button[@aria-label=\"Close\"]").await?;
    browser.sees("Sound is off, and the screen may go dark: touch here").await?;

    let port = bodega.port()?;
    bodega.kill()?;
    browser.sees("Not connected.").await?;
    browser.press("It boils").await?;
    browser.sees("One touch waits").await?;
    browser.sees("This is kept").await?;
    tokio::time::sleep(std::time::Duration::from_secs(5)).await;
    let again = Bodega::serve(data.path(), port)?;
    browser.sees("left at a full rolling boil").await?;
    let page = browser.text().await?;
    assert!(!page.contains("Not connected"), "{page}");
    // It has counted since the touch, not since it arrived.
    let clock = browser.find("//*[@data-testid=\"clock\"]").await?.text().await?;
    assert!(("47:00".."49:57").contains(&clock.as_str()), "{clock}");
    drop(again);
    browser.close().await
}
