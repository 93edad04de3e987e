//! The first answer, and the smallest day: counted in touches.

use bodega_e2e::{Bodega, Browser};
use serde_json::Value;

/// Letters and touches as a hand makes them.
struct Hand<'a> {
    browser: &'a Browser,
    touches: usize,
    letters: usize,
}

impl Hand<'_> {
    async fn press(&mut self, words: &str) -> anyhow::Result<()> {
        self.touches += 1;
        self.browser.press(words).await
    }

    async fn choose(&mut self, words: &str) -> anyhow::Result<()> {
        self.touches += 1;
        self.browser.click(&format!("//button[normalize-space(.)=\"{words}\"]")).await
    }

    async fn fill(&mut self, label: &str, text: &str) -> anyhow::Result<()> {
        self.touches += 1;
        self.letters += text.len();
        self.browser.fill(label, text).await
    }

    async fn walk_to(&mut self, station: &str) -> anyhow::Result<()> {
        self.touches += 1;
        self.browser.walk_to(station).await
    }
}

/// Whether what stands there is on the first screen, unscrolled.
async fn is_on_the_first_screen(browser: &Browser, xpath: &str) -> anyhow::Result<bool> {
    let found = browser.find(xpath).await?;
    let script = "const box = arguments[0].getBoundingClientRect();
        return scrollY === 0 && box.top >= 0 && box.bottom <= innerHeight && box.height > 0";
    Ok(browser.page.execute(script, vec![found.to_json()?]).await?.convert()?)
}

#[tokio::test(flavor = "multi_thread")]
async fn an_empty_kitchen_answers_after_two_touches_and_six_letters() -> anyhow::Result<()> {
    for (width, height) in [(1280, 800), (390, 844)] {
        let data = tempfile::tempdir()?;
        let bodega = Bodega::serve(data.path(), 0)?;
        let browser = Browser::open(width, height).await?;
        browser.page.goto(&bodega.address).await?;
        let mut hand = Hand { browser: &browser, touches: 0, letters: 0 };
        // Without a height every tested one is answered for; nothing is taken for granted.
        hand.fill("Tomatoes in hand", "30").await?;
        browser.sees("45 to 60 min").await?;
        hand.fill("How high you live", "2640").await?;
        browser.sees("50 min, 2 Tbsp lemon in each").await?;
        browser.sees("2 loads").await?;
        assert!(hand.touches <= 3, "{} touches", hand.touches);
        assert!(hand.letters <= 6, "{} letters", hand.letters);
        browser.page.execute("scrollTo(0, 0)", Vec::<Value>::new()).await?;
        let answer = "(//li//strong[contains(., \"50 min\")])[1]";
        assert!(is_on_the_first_screen(&browser, answer).await?, "the answer at {width}");
        // Every answer is changed in place, and a pack that takes longer says so beside the preset.
        browser.press("Whole").await?;
        browser.sees("90 min, 2 Tbsp lemon in each").await?;
        browser.fill("How high you live", "99000").await?;
        browser.sees("Give -2,000 to 30,000 ft").await?;
        browser.close().await?;
    }
    Ok(())
}

#[tokio::test(flavor = "multi_thread")]
async fn six_quarts_go_from_the_crate_to_the_shelf_in_twenty_touches() -> anyhow::Result<()> {
    // Minutes on the clock for each minute on the wall: the twelve hours until a lid is judged pass in 15 seconds.
    let bodega = Bodega::start(&["demo", "--bare", "--pace", "3000"])?;
    let browser = Browser::open(390, 844).await?;
    browser.page.goto(&bodega.address).await?;
    let mut hand = Hand { browser: &browser, touches: 0, letters: 0 };
    hand.fill("How high you live", "900").await?;
    hand.fill("Tomatoes in hand", "18").await?;
    browser.sees("45 min").await?;
    hand.press("Begin with Whole, raw pack in water").await?;
    hand.choose("Paste").await?;
    hand.choose("Firm and ripe").await?;
    hand.choose("Weigh in").await?;
    browser.sees("Cannot tell yet").await?;
    hand.choose("Nothing").await?;
    hand.press("Set out 6 jars").await?;
    browser.sees("in each quart").await?;
    // The ticks at the jars are the work itself.
    for step in ["All acid in", "All filled", "All bubbles out", "All rims wiped", "All lids on"] {
        browser.press(step).await?;
    }
    hand.press("To the canner").await?;
    hand.press("Jars are in").await?;
    hand.press("It boils").await?;
    browser.sees("The full 45 minutes are done").await?;
    hand.press("Heat off, lid off").await?;
    hand.press("Jars are out").await?;
    hand.walk_to("towel").await?;
    browser.sees("can be checked").await?;
    hand.press("All 6 hold").await?;
    hand.press("Rings off, washed, dry").await?;
    hand.walk_to("shelf").await?;
    browser.sees("6 quarts").await?;
    assert!(hand.touches <= 20, "{} touches", hand.touches);
    browser.close().await
}
