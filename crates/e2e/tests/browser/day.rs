//! The day on one strip: proven, moved by a slip, and explained when it does not fit.

use bodega_e2e::{Bodega, Browser};
use thirtyfour::By;

/// What a block says to those who cannot see it: its words and its times.
async fn block(browser: &Browser, key: &str) -> anyhow::Result<String> {
    let found = browser.find(&format!("//button[@data-block=\"{key}\"]/span[1]")).await?;
    Ok(found.prop("textContent").await?.unwrap_or_default())
}

/// Waits until a block says something else than it did.
async fn moved(browser: &Browser, key: &str, before: &str) -> anyhow::Result<String> {
    let xpath = format!("//button[@data-block=\"{key}\"][not(span[1][.=\"{before}\"])]");
    browser.find(&xpath).await?;
    block(browser, key).await
}

#[tokio::test(flavor = "multi_thread")]
async fn three_products_are_proven_a_slip_moves_what_depends_and_a_full_day_offers_ways_out()
-> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/plan/day", bodega.address)).await?;
    browser.sees("No shorter day is possible").await?;
    browser.settled().await?;
    assert_eq!(browser.printed_pages().await?, 1, "the day prints on one page");
    let (cook, boiling, sauce) = ("260912-3 cook", "260912-2 load load 2", "260912-3 load load 1");
    let (cooks, boils, goes_in) =
        (block(&browser, cook).await?, block(&browser, boiling).await?, block(&browser, sauce).await?);
    let end = |label: &str| label.rsplit(' ').next().unwrap_or_default().to_owned();

    // Forty minutes later the sauce is thick; the load that boils stays where it is.
    browser.click(&format!("//button[@data-block=\"{cook}\"]")).await?;
    browser.press("30 min longer").await?;
    let half = moved(&browser, cook, &cooks).await?;
    browser.press("10 min longer").await?;
    let later = moved(&browser, cook, &half).await?;
    let minutes = |clock: &str| -> i64 {
        let (hour, minute) = clock.split_once(':').unwrap_or(("0", "0"));
        hour.parse::<i64>().unwrap_or(0) * 60 + minute.parse::<i64>().unwrap_or(0)
    };
    // Minutes left are rounded up, so a clock that runs on may show the next one.
    let same = |one: &str, other: &str| (minutes(one) - minutes(other)).abs() <= 1;
    let slipped = minutes(&end(&later)) - minutes(&end(&cooks));
    assert!((39..=41).contains(&slipped), "{cooks} became {later}");
    assert!(same(&end(&block(&browser, boiling).await?), &end(&boils)), "what has begun is not moved");
    // An hour more, and the sauce's first load cannot go in when it was to.
    browser.press("30 min longer").await?;
    let more = moved(&browser, cook, &later).await?;
    browser.press("30 min longer").await?;
    moved(&browser, cook, &more).await?;
    moved(&browser, sauce, &goes_in).await?;
    assert!(same(&end(&block(&browser, boiling).await?), &end(&boils)));

    // Somebody washes the next batch now: the block lies at the left edge, and done it is gone.
    let (wash, core) = ("260912-4 wash", "260912-4 core");
    let planned = block(&browser, wash).await?;
    browser.click(&format!("//button[@data-block=\"{wash}\"]")).await?;
    browser.press("It begins now").await?;
    moved(&browser, wash, &planned).await?;
    browser.sees("It has begun.").await?;
    browser.click("//li[contains(., \"Wash\")]//button[contains(., \"Done\")]").await?;
    let without = format!("//*[@data-testid=\"strip\"][not(.//button[@data-block=\"{wash}\"])]");
    browser.find(&without).await?.find(By::Css(format!("[data-block=\"{core}\"]"))).await?;

    for done_by in ["20:30", "20:00", "19:30", "19:00", "18:30", "18:00"] {
        browser.click("//button[@aria-label=\"Less Done by\"]").await?;
        browser.sees(done_by).await?;
    }
    browser.sees("Does not fit").await?;
    browser.sees("at least").await?;
    browser.sees("What would make it fit").await?;
    browser.press("Do that").await?;
    browser.sees("all done").await?;
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn juice_that_the_evening_does_not_hold_waits_in_the_refrigerator() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/plan/day", bodega.address)).await?;
    browser.sees("all done").await?;
    for done_by in ["20:30", "20:00", "19:30", "19:00"] {
        browser.click("//button[@aria-label=\"Less Done by\"]").await?;
        browser.sees(done_by).await?;
    }
    browser.sees("Freeze the fruit of batch 260912-4").await?;
    let way = "//li[contains(., \"its juice waits in the refrigerator\")]//button";
    browser.click(way).await?;
    browser.sees("all done").await?;
    let chill = block(&browser, "260912-4 chill").await?;
    assert!(chill.starts_with("Into the refrigerator"), "{chill}");
    let strip = browser.find("//*[@data-testid=\"strip\"]").await?;
    assert!(strip.find_all(By::Css("[data-block=\"260912-4 cook\"]")).await?.is_empty(), "not tonight");

    browser.click("//button[@aria-label=\"Close\"]").await?;
    browser.press_link("One batch").await?;
    browser.sees("Its juice waits overnight in the refrigerator").await?;
    browser.press("Not after all").await?;
    // A page that is left takes with it what it has not yet said.
    browser.sees_no_more("Its juice waits overnight in the refrigerator").await?;
    browser.page.goto(format!("{}/plan/day", bodega.address)).await?;
    browser.sees("Does not fit").await?;
    browser.close().await
}
