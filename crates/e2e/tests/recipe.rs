//! A recipe from the paste of its lines to bowls that are led back to its proportions.

use bodega_e2e::{Bodega, Browser};

const SALSA: &str = "4 cups slicing tomatoes, peeled\n2 cups long green chiles, chopped\n3/4 cup onion, chopped\n\
    4 cloves garlic\n2 cups vinegar 5 %\n1 1/2 tsp salt";

/// Types into the form and waits until the page has kept it.
async fn put_time_in(browser: &Browser, feet: &str, minutes: &str) -> anyhow::Result<()> {
    browser.fill("Up to an altitude of (empty: above)", feet).await?;
    browser.fill("Minutes printed", minutes).await?;
    browser.press("Put this line in").await?;
    browser.sees(&format!(": {minutes} min")).await
}

async fn write_it_down(browser: &Browser) -> anyhow::Result<()> {
    browser.press_link("By a recipe").await?;
    browser.sees("Nothing is in it yet").await?;
    browser.press("Write one down").await?;
    browser.fill("Its name", "Terrace salsa").await?;
    browser.fill("What goes in, a line for each, as it is printed", SALSA).await?;
    browser.press("Read the lines").await?;
    browser.sees("Everything is read.").await?;
    browser.press("Write it down").await?;
    // A recipe without a process says so from the first moment.
    browser.sees("No jars").await?;
    browser.sees("It is not canned").await
}

async fn hold_it_against_a_copy(browser: &Browser) -> anyhow::Result<()> {
    put_time_in(browser, "1000", "15").await?;
    put_time_in(browser, "6000", "20").await?;
    browser.sees("Not yet").await?;
    browser.fill("Title of the book or page", "Grandmother's").await?;
    browser.fill("Edition or year", "2014").await?;
    browser.fill("Page", "7").await?;
    browser.press("Keep where it is printed").await?;
    browser.sees("a name, not a source").await?;
    browser.fill("Title of the book or page", "County leaflet").await?;
    browser.press("Keep where it is printed").await?;
    browser.sees_no_more("a name, not a source").await?;
    for open in (0..6).rev() {
        browser.click("(//section[contains(., \"Hold it against a copy\")]//li//button[@role=\"checkbox\"][@data-state=\"unchecked\"])[1]").await?;
        if open > 0 {
            browser.sees(&format!("Hold {open} line")).await?;
        }
    }
    browser.sees_no_more("against the copy and tick them. Hold").await?;
    browser
        .click(
            "//button[@role=\"checkbox\"][following-sibling::label[contains(., \"stand so in the copy\")]]",
        )
        .await?;
    browser.sees("It was held against a copy").await
}

#[tokio::test(flavor = "multi_thread")]
async fn too_many_peppers_are_stopped_and_led_back() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/kitchen", bodega.address)).await?;
    browser.fill("New altitude", "2640").await?;
    browser.press("Set altitude").await?;
    browser.sees("2,640 ft").await?;
    browser.walk_to("plan").await?;
    write_it_down(&browser).await?;
    hold_it_against_a_copy(&browser).await?;
    assert_eq!(browser.answer().await?, "20");
    // Two pounds of tomatoes a time, about: 180 g to a cup.
    browser.fill("Tomatoes there are", "4.7619").await?;
    browser.sees("Terrace salsa × 3").await?;
    browser.sees("12 cups slicing tomatoes").await?;
    browser.press("× 3").await?;
    browser.press("Set the bowls out × 3").await?;
    browser.sees("Say what is in the bowls before it goes into jars").await?;
    for line in ["12 cups slicing tomatoes", "2 ¼ cups onion", "12 cloves garlic", "6 cups vinegar 5 %"] {
        let touch = format!("//li[contains(., \"{line}\")]//button[contains(., \"As the card says\")]");
        browser.click(&touch).await?;
        browser.find(&format!("//li[contains(., \"{line}\")]//button[contains(., \"✓ In\")]")).await?;
    }
    browser.fill("Really in it: long green chiles", "8").await?;
    browser.click("//h1 | //h2").await?;
    browser.sees("Not the tested proportions any more").await?;
    browser.sees("a third over").await?;
    // The same on a telephone beside it.
    let phone = Browser::open(390, 844).await?;
    phone.page.goto(format!("{}/plan/recipes/1", bodega.address)).await?;
    phone.sees("Not the tested proportions any more").await?;
    browser.press("Take out 2 cups of long green chiles").await?;
    browser.sees("The proportions hold: fill the jars").await?;
    phone.sees("The proportions hold: fill the jars").await?;
    browser.fill("Really in it: vinegar 5 %", "5").await?;
    browser.click("//h1 | //h2").await?;
    browser.sees("Add 1 cup of vinegar 5 %").await?;
    browser.press("Something else went in").await?;
    browser.fill("What, and how much", "1 cup flour").await?;
    browser.press("Read it").await?;
    browser.press("It went in").await?;
    browser.sees("Flour: not before canning").await?;
    browser.press("Put away").await?;
    browser.sees_no_more("in the bowls").await?;
    browser.press("Undo").await?;
    browser.sees("Flour: not before canning").await?;
    phone.close().await?;
    browser.close().await
}
