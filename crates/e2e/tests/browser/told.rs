//! On a phone: what is not known is asked, and what is not done is said first, at the place where it can still be done.

use bodega_e2e::{Bodega, Browser};

/// Minutes on the clock for each minute on the wall: 50 minutes of boil pass in 15 seconds.
const FAST: &str = "200";

/// Weighs in the fruit of six quarts and comes to their plan.
async fn plan_six_quarts(phone: &Browser, bodega: &Bodega) -> anyhow::Result<()> {
    phone.page.goto(format!("{}/crates", bodega.address)).await?;
    phone.weigh_in("18", "Paste").await?;
    phone.sees("6 whole").await?;
    Ok(phone.page.goto(format!("{}/plan", bodega.address)).await?)
}

/// Waits until the line shows an empty canner: whoever leaves the page while a touch is sent takes it along.
async fn is_out(phone: &Browser) -> anyhow::Result<()> {
    phone.find("//nav//a[@data-station=\"canner\"]//strong[.=\"–\"]").await?;
    Ok(())
}

#[tokio::test(flavor = "multi_thread")]
async fn heat_off_too_early_is_said_before_and_after_until_the_full_time_was_counted() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare", "--pace", FAST])?;
    let phone = Browser::open(390, 844).await?;
    let to = |station: &str| phone.page.goto(format!("{}/{station}", bodega.address));
    plan_six_quarts(&phone, &bodega).await?;
    // Nobody has said what else goes in: it cannot be told, here and at the bench.
    phone.find("//*[@data-question=\"additions\"]").await?;
    phone.press("Set out 6 jars").await?;
    phone.find("//*[@data-question=\"additions\"]").await?;
    phone.press("Nothing").await?;
    phone.sees_no_more("What else goes in?").await?;
    phone.make_load_ready().await?;
    phone.press("Jars are in").await?;
    phone.press("It boils").await?;
    phone.sees("min missing").await?;
    phone.press("Heat off, lid off:").await?;
    phone.find("//*[@data-testid=\"clock\"][.=\"Not processed\"]").await?;
    assert_eq!(phone.figure("canner").await?, "Again");
    phone.press("Jars are out").await?;
    is_out(&phone).await?;
    to("towel").await?;
    phone.sees("Not processed").await?;
    assert_eq!(phone.figure("towel").await?, "6");
    // One touch for all of them: hot, lids as they are, the full time.
    phone.press("Boil them again").await?;
    to("canner").await?;
    phone.press("Jars are in").await?;
    phone.press("It boils").await?;
    phone.sees("The full 50 minutes are done").await?;
    phone.press("Heat off, lid off").await?;
    assert!(phone.processed_minutes().await? >= 50);
    phone.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn acid_is_said_as_it_was_and_a_jar_without_it_never_reaches_the_shelf() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare", "--pace", FAST])?;
    let phone = Browser::open(390, 844).await?;
    let to = |station: &str| phone.page.goto(format!("{}/{station}", bodega.address));
    plan_six_quarts(&phone, &bodega).await?;
    phone.press("Nothing").await?;
    phone.press("Set out 6 jars").await?;
    to("jars").await?;
    phone.press("Food in, acid not yet").await?;
    let jar = |state: &str| format!("//button[@data-jar][@data-state=\"{state}\"]");
    phone.click(&jar("needs acid")).await?;
    phone.find(&jar("filled, needs acid")).await?;
    // One touch for all, and one that takes exactly that back.
    phone.press("All acid in").await?;
    phone.sees("Acid ✓").await?;
    phone.press("Undo").await?;
    phone.sees("Acid is in 0 of 6 jars").await?;
    phone.find(&jar("filled, needs acid")).await?;
    phone.make_load_ready().await?;
    // The card of the load: one touch when all is as it should be.
    phone.sees("Look once at all of them").await?;
    phone.press("Yes, all of that").await?;
    phone.find("//*[@data-testid=\"card\"][not(contains(., \"Look once\"))]").await?;
    phone.press("Jars are in").await?;
    phone.press("A jar has no acid in it").await?;
    phone.click("//button[@aria-label=\"Jar 2\"]").await?;
    phone.find("//*[@data-finding=\"no_acid\"]").await?;
    phone.press("It boils").await?;
    phone.sees("The full 50 minutes are done").await?;
    phone.press("Heat off, lid off").await?;
    phone.press("Jars are out").await?;
    is_out(&phone).await?;
    to("towel").await?;
    phone.sees("No acid").await?;
    assert_eq!(phone.figure("towel").await?, "1");
    phone.press("Back to the bench").await?;
    to("jars").await?;
    phone.find(&jar("filled, needs acid")).await?;
    phone.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn garlic_said_at_the_plan_is_a_stop_at_every_station_after_it() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare", "--pace", FAST])?;
    let phone = Browser::open(390, 844).await?;
    plan_six_quarts(&phone, &bodega).await?;
    let stop = "//*[@data-finding=\"low_acid_addition\"]";
    phone.press("Vegetables").await?;
    phone.press("Garlic").await?;
    phone.fill("Garlic, chopped, in all", "1").await?;
    phone.find(stop).await?;
    phone.press("Set out 6 jars").await?;
    phone.page.goto(format!("{}/jars", bodega.address)).await?;
    phone.find(stop).await?;
    phone.make_load_ready().await?;
    phone.find(stop).await?;
    phone.press("Jars are in").await?;
    phone.press("It boils").await?;
    phone.sees("The full 50 minutes are done").await?;
    phone.find(stop).await?;
    phone.press("Heat off, lid off").await?;
    phone.press("Jars are out").await?;
    is_out(&phone).await?;
    // It goes with its jars: no lid of theirs is said to hold, and all six are chilled by one touch.
    phone.page.goto(format!("{}/towel", bodega.address)).await?;
    phone.sees("Do not eat").await?;
    phone.sees("Garlic in it: low in acid").await?;
    assert_eq!(phone.figure("towel").await?, "6");
    let offers = |words: &str| format!("//button[contains(normalize-space(.), \"{words}\")]");
    assert!(!phone.has(&offers("hold")).await?, "no lid makes up for it");
    assert!(!phone.has(&offers("bench")).await?, "nothing takes garlic out again");
    phone.press("Refrigerator").await?;
    phone.sees("Kept cold, not sealed").await?;
    phone.sees("The towel is clear").await?;
    phone.page.goto(format!("{}/shelf", bodega.address)).await?;
    phone.sees("The first jars come here").await?;
    phone.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_lid_found_failed_too_late_is_asked_about_the_cold_and_thrown_away_untasted() -> anyhow::Result<()>
{
    // The day and a half until it is too late pass in half a minute.
    let bodega = Bodega::start(&["demo", "--pace", "3000"])?;
    let phone = Browser::open(390, 844).await?;
    phone.page.goto(format!("{}/towel", bodega.address)).await?;
    phone.sees("Check now").await?;
    phone.press("Lid failed").await?;
    phone.click("//button[@data-lid=\"1\"]").await?;
    phone.sees("Was it kept cold all that time?").await?;
    let offers = |words: &str| format!("//button[normalize-space(.)=\"{words}\"]");
    assert!(!phone.has(&offers("Process again")).await?, "it is too late for that");
    assert!(!phone.has(&offers("Refrigerator")).await?, "nor before somebody knows that it was kept cold");
    phone.press("No, or not sure").await?;
    phone.press("Discard, untasted").await?;
    phone.sees_no_more("Was it kept cold all that time?").await?;
    phone.close().await
}
