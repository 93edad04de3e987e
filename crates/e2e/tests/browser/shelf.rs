//! From the towel to the table: a failed jar goes through the canner again, labels are printed, the oldest jar is eaten.

use bodega_e2e::{Bodega, Browser};

/// Minutes on the clock for each minute on the wall: the twelve hours until a lid is judged pass in 22 seconds.
const FAST: &str = "2000";
const PT_PER_MM: f64 = 72.0 / 25.4;
const PX_PER_MM: f64 = 96.0 / 25.4;

/// Finishes the load that boils when the demo opens.
async fn empty_the_canner(browser: &Browser) -> anyhow::Result<()> {
    browser.walk_to("canner").await?;
    browser.sees("The full 50 minutes are done").await?;
    browser.press("Heat off, lid off").await?;
    browser.press("Jars are out").await
}

/// Prints the labels of the page that is open: their size on the sheet, and the sheet.
async fn labels_are_true_to_the_millimetre(browser: &Browser) -> anyhow::Result<()> {
    browser.find("//*[@data-sheet=\"1\"]//*[@data-label]").await?;
    browser.settled().await?;
    let pages = browser.printed_sheets().await?;
    assert_eq!(pages.len(), 1, "one sheet for eight labels");
    let (wide, high) = pages[0];
    assert!(
        (wide / PT_PER_MM - 210.0).abs() < 0.5 && (high / PT_PER_MM - 297.0).abs() < 0.5,
        "{wide} x {high} pt"
    );
    browser.show_as_printed().await?;
    let script = "const box = document.querySelector('[data-sheet] circle').getBoundingClientRect();\
                  const sheet = document.querySelector('[data-sheet]').getBoundingClientRect();\
                  return [box.width, sheet.left, sheet.top, document.querySelectorAll('[data-label]').length]";
    let measured: Vec<f64> = browser.page.execute(script, vec![]).await?.convert()?;
    assert!((measured[0] / PX_PER_MM - 60.0).abs() < 0.5, "a lid label of 60 mm: {measured:?}");
    assert!(
        measured[1].abs() < 0.5 && measured[2].abs() < 0.5,
        "the sheet begins at the paper's corner: {measured:?}"
    );
    assert!((measured[3] - 8.0).abs() < 0.1, "eight labels: {measured:?}");
    browser.show_as_screen().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_failed_jar_is_done_again_labels_print_and_the_oldest_is_eaten() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--pace", FAST])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/canner", bodega.address)).await?;
    empty_the_canner(&browser).await?;

    browser.walk_to("towel").await?;
    browser.sees("Check now").await?;
    browser.press("Lid failed").await?;
    browser.click("//button[@data-lid=\"1\"]").await?;
    browser.press("Process again").await?;
    // At once, as at this pace what is left of its day and night is soon over.
    browser.walk_to("jars").await?;
    browser.sees("Rim 0 of 1").await?;
    browser.press("All rims wiped").await?;
    browser.press("All lids on").await?;
    browser.press("To the canner").await?;
    browser.press("Jars are in").await?;
    browser.press("It boils").await?;
    browser.sees("The full 40 minutes are done").await?;
    browser.press("Heat off, lid off").await?;
    browser.press("Jars are out").await?;
    // Judged at once it is looked at a second time, and it is not on the shelf before.
    browser.walk_to("towel").await?;
    browser.press("All 1 hold").await?;
    browser.sees("look again").await?;

    browser.press("All 8 hold").await?;
    browser.press_link("Print 8 labels").await?;
    labels_are_true_to_the_millimetre(&browser).await?;
    browser.press_link("Back").await?;
    browser.press("Rings off, washed, dry").await?;
    browser.find("//section[contains(., \"Check now\")]//button[normalize-space(.)=\"All 1 hold\"]").await?;
    browser.press("All 1 hold").await?;
    browser.press("Rings off, washed, dry").await?;

    browser.walk_to("shelf").await?;
    browser.sees("Next season").await?;
    let before: u32 = browser.answer().await?.parse()?;
    browser.sees("12 there, 0.5 a month").await?;
    browser.click("//button[span[.=\"Take one Sauce, pint of 251002-1\"]]").await?;
    browser.press("Eat it").await?;
    browser.sees(&format!("{}\njars", before - 1)).await?;
    browser.sees("11 there, 0.6 a month").await?;
    browser.unfold("Find a jar").await?;
    browser.fill("Jar number", "1").await?;
    browser.press("Find it").await?;
    browser.sees("Jar 1 of batch").await?;
    assert!(browser.page.current_url().await?.path().ends_with("/jar/1"));
    browser.walk_to("shelf").await?;
    browser.press_link("260912-1").await?;
    browser.sees("processed 2 times").await?;

    browser.sees("Where it all went").await?;
    browser.sees("It adds up.").await?;
    browser.press("trimmings and skins").await?;
    browser.fill("How much", "2").await?;
    browser.press("Thrown away").await?;
    browser.sees("Told: 2 quarts trimmings and skins, thrown away").await?;
    browser.sees("It adds up.").await?;
    let back = "//button[@aria-label=\"Take back: trimmings and skins, thrown away\"]";
    browser.click(back).await?;
    browser.sees_no_more("Told: 2 quarts").await?;
    browser.close().await
}
