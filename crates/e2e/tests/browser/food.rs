//! On a phone: food that moves otherwise than from the crate into the jar is said where it happens, in a touch or two.

use bodega_e2e::{Bodega, Browser};

/// Minutes on the clock for each minute on the wall: twenty minutes pass in six seconds.
const FAST: &str = "200";

async fn weigh_in(phone: &Browser, pounds: &str) -> anyhow::Result<()> {
    phone.weigh_in(pounds, "Paste").await?;
    phone.sees(&format!("{pounds} lb weighed in")).await
}

#[tokio::test(flavor = "multi_thread")]
async fn bags_thaw_a_part_is_frozen_and_comes_back() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare"])?;
    let phone = Browser::open(390, 844).await?;
    let to = |station: &str| phone.page.goto(format!("{}/{station}", bodega.address));
    to("crates").await?;
    phone.press("Frozen").await?;
    weigh_in(&phone, "20").await?;
    phone.sees("Paste tomatoes, frozen").await?;
    phone.press("Water poured off").await?;
    phone.fill("How much", "2").await?;
    phone.press("Thrown away").await?;
    phone.sees("Paste tomatoes, thawed").await?;
    phone.sees("4.2 lb of water poured off").await?;
    phone.press("Water poured off").await?;
    // Half of what is left goes back into the freezer, in packs.
    phone.press("Elsewhere").await?;
    phone.fill("How much, or all of it", "8").await?;
    phone.fill("In packs", "4").await?;
    phone.press("Freezer").await?;
    phone.sees("7.8 lb").await?;
    // More than there is, is noticed beside the field.
    phone.fill("How much, or all of it", "80").await?;
    phone.press("Dinner").await?;
    phone.sees("take less or correct").await?;

    to("shelf").await?;
    phone.sees("4 packs, 8 lb").await?;
    phone.press("One eaten").await?;
    phone.sees("3 packs, 6 lb").await?;
    phone.press("One back on the line").await?;
    phone.sees("2 packs, 4 lb").await?;
    to("crates").await?;
    phone.find("//li[contains(., \"Paste tomatoes, frozen\")][contains(., \"2 lb\")]").await?;
    phone.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn juice_is_ladled_off_planned_held_hot_and_the_day_is_drawn() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare", "--pace", FAST])?;
    let phone = Browser::open(390, 844).await?;
    let to = |station: &str| phone.page.goto(format!("{}/{station}", bodega.address));
    to("crates").await?;
    weigh_in(&phone, "35").await?;
    to("plan").await?;
    phone.press("Sauce").await?;
    phone.sees("quarts").await?;
    phone.press("Nothing").await?;
    phone.press("Set out").await?;
    phone.sees("To the canner").await?;

    // The kettle takes all of the batch, by a third, and knows its quarts and their lemon juice.
    to("kettle").await?;
    phone.click("//form//button[contains(., \"thin sauce\")]").await?;
    phone.press("Start cooking").await?;
    phone.sees("by a third, two thirds are left").await?;
    phone.sees("each takes 2 Tbsp (30 mL) of bottled lemon juice").await?;
    phone.press("In or out of the pot").await?;
    phone.sees("the pulp stays in the pot").await?;
    phone.fill("How much", "3").await?;
    phone.press("For other jars").await?;
    phone.sees("It waits at the Plan for other jars").await?;

    // It is offered at once, becomes juice and nothing else, and says what it stands on.
    to("plan").await?;
    phone.click("//label[contains(., \"thin juice of 2\")]").await?;
    phone.sees("No published process names thin juice").await?;
    phone.press("Nothing").await?;
    phone.press("Set out").await?;

    // Held hot by a clock of its own, which starts when it is hot enough.
    to("kettle").await?;
    phone.unfold("Put another kettle on").await?;
    phone.click("//form//button[contains(., \", juice\")]").await?;
    phone.press("Only to the boil").await?;
    phone.press("Hold hot for minutes").await?;
    phone.fill("Minutes held hot", "20").await?;
    phone.press("Start cooking").await?;
    phone.sees("It need not boil.").await?;
    phone.press("It is hot enough").await?;
    phone.sees("It was held hot for 20 minutes").await?;

    to("books").await?;
    phone.find("//*[@data-testid=\"flow\"]").await?;
    phone.click("//button[contains(., \"thin juice of 2\")][contains(., \"juice\")]").await?;
    phone.find("//button[@aria-pressed=\"true\"]").await?;
    phone.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn what_fills_no_jar_goes_where_it_goes_and_bits_become_jars() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare"])?;
    let phone = Browser::open(390, 844).await?;
    let to = |station: &str| phone.page.goto(format!("{}/{station}", bodega.address));
    to("crates").await?;
    weigh_in(&phone, "21").await?;
    to("plan").await?;
    phone.press("Nothing").await?;
    phone.press("Set out 7 jars").await?;
    phone.press("Some is left over").await?;
    // A jar first: one smaller.
    phone.press("One pint more").await?;
    phone.sees("One pint more is set out").await?;
    phone.press("bits and juice").await?;
    phone.fill("How much", "2").await?;
    phone.press("For other jars").await?;
    phone.sees("It waits at the Plan for other jars").await?;
    phone.press("finished food").await?;
    phone.fill("How much", "1").await?;
    phone.press("Refrigerator").await?;
    phone.sees("It is in the books").await?;
    to("shelf").await?;
    phone.sees("Eat it by").await?;
    to("crates").await?;
    phone.sees("Bits and juice of 2").await?;
    phone.press("Into the refrigerator").await?;
    phone.sees("Heat it to the boil and can it by").await?;
    phone.close().await
}
