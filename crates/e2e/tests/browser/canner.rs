//! Two loads on two open pages: a probe, a lost boil, a reload, and the wash-up list.

use bodega_e2e::{Bodega, Browser};

/// Minutes on the clock for each minute on the wall: 50 minutes of boil pass in 25 seconds.
const FAST: &str = "120";

async fn moment(browser: &Browser) -> anyhow::Result<String> {
    Ok(browser.find("//*[@data-testid=\"moment\"]").await?.text().await?)
}

#[tokio::test(flavor = "multi_thread")]
async fn two_pages_agree_on_two_loads_through_a_lost_boil_and_a_reload() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare", "--pace", FAST])?;
    let (stove, shelf) = (Browser::open(1280, 800).await?, Browser::open(390, 844).await?);
    stove.practise(&bodega.address).await?;
    stove.page.goto(format!("{}/crates", bodega.address)).await?;
    stove.weigh_in("30", "Paste").await?;
    stove.sees("10 whole").await?;
    stove.walk_to("plan").await?;
    stove.press("Set out 10 jars").await?;
    stove.make_load_ready().await?;
    stove.sees("Fill to").await?;
    stove.sees("boiling beside it for topping up").await?;
    stove.press("Jars are in").await?;
    stove.press("Simulated probe").await?;
    stove.sees("(simulated)").await?;
    stove.sees("The probe has held").await?;
    stove.press("It boils").await?;
    stove.sees("left at a full rolling boil").await?;
    shelf.page.goto(format!("{}/canner", bodega.address)).await?;
    shelf.sees("left at a full rolling boil").await?;
    assert_eq!(moment(&shelf).await?, moment(&stove).await?, "both lift at the same minute");

    shelf.press("flame out").await?;
    stove.sees("The probe fell to").await?;
    shelf.press("Boil lost").await?;
    stove.sees("the whole time counts again").await?;
    stove.page.refresh().await?;
    stove.sees("the whole time counts again").await?;
    stove.press("light it again").await?;
    stove.press("It boils").await?;
    shelf.sees("left at a full rolling boil").await?;
    stove.press("Topped up, boiling").await?;
    shelf.sees("The boil was lost once").await?;
    assert_eq!(moment(&shelf).await?, moment(&stove).await?);
    shelf.sees("The full 50 minutes are done").await?;
    shelf.press("Heat off, lid off").await?;
    assert!(stove.processed_minutes().await? >= 50);
    stove.press("Jars are out").await?;
    stove.sees("Today in the canner").await?;
    stove.sees("of 50 min unbroken").await?;

    stove.walk_to("jars").await?;
    stove.make_load_ready().await?;
    stove.press("Jars are in").await?;
    stove.press("It boils").await?;
    // A jar breaks: the clock goes on, and one jar fewer comes to the towel.
    stove.press("A jar broke").await?;
    stove.click("//*[@role=\"dialog\"]//button[@aria-label=\"Jar 8\"]").await?;
    stove.sees("Jar 8 broke").await?;
    stove.sees("The full 50 minutes are done").await?;
    stove.press("Heat off, lid off").await?;
    stove.press("Jars are out").await?;
    stove.sees("The last load is out: washing up").await?;
    shelf.walk_to("towel").await?;
    assert_eq!(shelf.figure("towel").await?, "9");
    stove.close().await?;
    shelf.close().await
}
