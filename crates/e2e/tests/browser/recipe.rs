//! A recipe from the paste of its lines to the shelf: led back to its proportions, canned in its own time beside whole
//! tomatoes.

use bodega_e2e::{Bodega, Browser};

const SALSA: &str = "4 cups slicing tomatoes, peeled\n2 cups long green chiles, chopped\n3/4 cup onion, chopped\n\
    4 cloves garlic\n2 cups vinegar 5 %\n1 1/2 tsp salt";

/// Types a line of the printed table.
async fn put_time_in(browser: &Browser, feet: &str, minutes: &str) -> anyhow::Result<()> {
    browser.fill("Up to an altitude of", feet).await?;
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

/// Ticks each line of the page, one touch each.
async fn tick_the_lines(browser: &Browser, lines: usize) -> anyhow::Result<()> {
    for _ in 0..lines {
        browser.click("(//section[contains(., \"down the printed page\")]//li//button[@role=\"checkbox\"][@data-state=\"unchecked\"])[1]").await?;
    }
    Ok(())
}

/// Ticks the minutes.
async fn tick_the_time(browser: &Browser) -> anyhow::Result<()> {
    let tick =
        "//button[@role=\"checkbox\"][following-sibling::label[contains(., \"stand so in the copy\")]]";
    browser.click(tick).await
}

async fn hold_it_against_a_copy(browser: &Browser) -> anyhow::Result<()> {
    browser.press("A national guide or a university extension").await?;
    browser.fill("Title of the book, page or packet", "Grandmother's").await?;
    browser.fill("Edition or year", "2014").await?;
    browser.fill("Page, or where it stands on the packet", "7").await?;
    tick_the_lines(browser, 6).await?;
    browser.fill("It fills at least", "4").await?;
    browser.press("A time for each band").await?;
    put_time_in(browser, "1000", "15").await?;
    put_time_in(browser, "6000", "20").await?;
    tick_the_time(browser).await?;
    // Nothing was kept line by line.
    browser.sees("No jars").await?;
    browser.press("Keep it so").await?;
    browser.sees("Not yet").await?;
    browser.sees("a name, not a source").await?;
    browser.fill("Title of the book, page or packet", "County leaflet").await?;
    browser.press("Keep it so").await?;
    browser.sees("It was held against a copy").await
}

/// Minutes on the clock for each minute on the wall: the twelve hours until a lid is judged pass in 22 seconds.
const FAST: &str = "2000";

/// A kitchen at 2,640 ft with fruit on the line and the salsa in its book, checked.
async fn salsa_in_the_book(browser: &Browser, bodega: &Bodega) -> anyhow::Result<()> {
    browser.page.goto(format!("{}/kitchen", bodega.address)).await?;
    browser.fill("New altitude", "2640").await?;
    browser.press("Set altitude").await?;
    browser.sees("2,640 ft").await?;
    browser.walk_to("crates").await?;
    browser.weigh_in("30", "Paste").await?;
    browser.sees("10 whole").await?;
    browser.walk_to("plan").await?;
    write_it_down(browser).await?;
    hold_it_against_a_copy(browser).await
}

/// Puts into the bowls what the card says, but for the chiles.
async fn fill_the_bowls(browser: &Browser) -> anyhow::Result<()> {
    for line in ["12 cups slicing tomatoes", "2 ¼ cups onion", "12 cloves garlic", "6 cups vinegar 5 %"] {
        let bowl = format!("//li[contains(., \"{line}\")]");
        browser.click(&format!("{bowl}//button[contains(., \"As the card says\")]")).await?;
        browser.find(&format!("{bowl}//button[contains(., \"✓ In\")]")).await?;
    }
    Ok(())
}

async fn really_in_it(browser: &Browser, part: &str, amount: &str) -> anyhow::Result<()> {
    browser.fill(&format!("Really in it: {part}"), amount).await?;
    browser.click("//h2").await
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_not_the_recipe_is_stopped_in_words_and_led_back() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare"])?;
    let browser = Browser::open(1280, 800).await?;
    salsa_in_the_book(&browser, &bodega).await?;
    assert_eq!(browser.answer().await?, "20");
    // Two pounds of tomatoes a time, about: 180 g to a cup.
    browser.fill("Tomatoes there are", "4.7619").await?;
    browser.sees("Terrace salsa × 3").await?;
    browser.sees("12 cups slicing tomatoes").await?;
    browser.press("× 3").await?;
    // A larger jar than it was tested in has no time, and none is lent to it.
    browser.choose("Into", "quarts").await?;
    browser.sees("larger than any jar that the recipe was tested in").await?;
    browser.sees("Fill pints or smaller").await?;
    browser.choose("Into", "pints").await?;
    browser.press("Set out bowls and jars").await?;
    browser.sees("Say what is in the bowls before it goes into jars").await?;
    // No jar of it is filled before somebody said it.
    browser.walk_to("jars").await?;
    browser.sees("no jar is filled yet").await?;
    browser.sees("No dose").await?;
    browser.press_link("To the bowls").await?;
    fill_the_bowls(&browser).await?;
    really_in_it(&browser, "long green chiles", "8").await?;
    browser.sees("Not the tested proportions any more").await?;
    browser.sees("a third over").await?;
    // The same on a telephone beside it.
    let phone = Browser::open(390, 844).await?;
    phone.page.goto(format!("{}/jars", bodega.address)).await?;
    phone.sees("a third over").await?;
    phone.sees("Take out 2 cups of long green chiles").await?;
    browser.press("Take out 2 cups of long green chiles").await?;
    browser.sees("The proportions hold: fill the jars").await?;
    phone.sees_no_more("no jar is filled yet").await?;
    phone.close().await?;
    really_in_it(&browser, "vinegar 5 %", "5").await?;
    browser.sees("Add 1 cup of vinegar 5 %").await?;
    // Onion that was bought with less garlic: each stands on its own line.
    really_in_it(&browser, "vinegar 5 %", "6").await?;
    really_in_it(&browser, "cloves garlic", "6").await?;
    really_in_it(&browser, "onion", "3").await?;
    browser.sees("Not the tested proportions any more").await?;
    browser.press("Something else went in").await?;
    browser.fill("What, and how much", "1 cup flour").await?;
    browser.press("Read it").await?;
    browser.press("It went in").await?;
    browser.sees("Flour: not before canning").await?;
    let shown = browser.text().await?;
    assert!(!shown.contains("Put away"), "the bowls belong to their batch");
    browser.close().await
}

/// Takes the load on the bench through the canner, to the towel.
async fn can_it(browser: &Browser, dosed: bool, minutes: &str) -> anyhow::Result<()> {
    browser.walk_to("jars").await?;
    if dosed {
        browser.press("All acid in").await?;
    }
    for step in ["All filled", "All bubbles out", "All rims wiped", "All lids on"] {
        browser.press(step).await?;
    }
    browser.press("To the canner").await?;
    browser.press("Jars are in").await?;
    browser.press("It boils").await?;
    browser.sees(&format!("The full {minutes} minutes are done")).await?;
    browser.press("Heat off, lid off").await?;
    browser.press("Jars are out").await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_salsa_is_canned_in_its_own_time_beside_whole_tomatoes() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare", "--pace", FAST])?;
    let browser = Browser::open(1280, 800).await?;
    salsa_in_the_book(&browser, &bodega).await?;
    browser.press("× 3").await?;
    browser.sees("12\npints").await?;
    browser.sees("2 loads in").await?;
    // The card for the wall is one page.
    assert_eq!(browser.printed_pages().await?, 1);
    browser.press("Set out bowls and jars").await?;
    fill_the_bowls(&browser).await?;
    browser
        .click("//li[contains(., \"6 cups long green chiles\")]//button[contains(., \"As the card says\")]")
        .await?;
    browser.sees("The proportions hold: fill the jars").await?;
    browser.walk_to("plan").await?;
    browser.press("Set out 8 jars").await?;
    browser.sees("Combine into").await?;
    browser.press("Combine them").await?;
    browser.sees_no_more("Combine them").await?;
    // Nine pints of salsa go in alone, for their own twenty minutes; three ride with whole tomatoes for fifty.
    can_it(&browser, true, "50").await?;
    can_it(&browser, true, "50").await?;
    can_it(&browser, false, "20").await?;
    browser.walk_to("towel").await?;
    browser.find("//section[contains(., \"Check now\")]//button[normalize-space(.)=\"All 9 hold\"]").await?;
    browser.press("All 9 hold").await?;
    browser.press_link("Print 9 labels").await?;
    browser.find("//*[@data-sheet=\"1\"]//*[@data-label]//*[.=\"Terrace salsa\"]").await?;
    assert_eq!(browser.printed_sheets().await?.len(), 1);
    browser.press_link("Back").await?;
    browser.press("Rings off, washed, dry").await?;
    browser.walk_to("shelf").await?;
    browser.sees("By a recipe").await?;
    browser.sees("Terrace salsa").await?;
    browser.close().await
}

/// A page that was pasted, with what it asks answered by touches; the recipe stands open then.
async fn pasted(browser: &Browser, name: &str, page: &str, answers: &[&str]) -> anyhow::Result<()> {
    browser.walk_to("plan").await?;
    browser.press_link("By a recipe").await?;
    browser.press("Write one down").await?;
    browser.fill("Its name", name).await?;
    browser.fill("What goes in, a line for each, as it is printed", page).await?;
    browser.press("Read the lines").await?;
    for answer in answers {
        browser.press(answer).await?;
    }
    browser.sees("Everything is read.").await?;
    browser.press("Write it down").await?;
    browser.sees("down the printed page").await
}

/// Says where it is printed, and ticks it down the page.
async fn made_ready(browser: &Browser, kind: &str, lines: usize, fills: (&str, &str)) -> anyhow::Result<()> {
    browser.press(kind).await?;
    browser.fill("Title of the book, page or packet", "County leaflet").await?;
    browser.fill("Edition or year", "2014").await?;
    browser.fill("Page, or where it stands on the packet", "back").await?;
    tick_the_lines(browser, lines).await?;
    browser.fill("It fills at least", fills.0).await?;
    browser.choose("Jars it fills", fills.1).await
}

#[tokio::test(flavor = "multi_thread")]
async fn acid_in_each_jar_is_asked_and_ticked_on_the_bench() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare", "--pace", FAST])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/kitchen", bodega.address)).await?;
    browser.fill("New altitude", "800").await?;
    browser.press("Set altitude").await?;
    browser.sees("800 ft").await?;
    let page = "14 lb tomatoes\n1 cup onion\n2 Tbsp bottled lemon juice per quart";
    pasted(&browser, "Onion tomatoes", page, &["In every quart"]).await?;
    made_ready(&browser, "A national guide or a university extension", 3, ("2", "quarts")).await?;
    browser.press("A time for each band").await?;
    put_time_in(&browser, "1000", "45").await?;
    tick_the_time(&browser).await?;
    browser.press("Keep it so").await?;
    browser.sees("It was held against a copy").await?;
    browser.sees("2 tablespoons bottled lemon juice in each quart").await?;
    browser.press("Set out bowls and jars").await?;
    browser.press("All 2 as on the card").await?;
    browser.sees("The proportions hold: acid into each jar").await?;
    browser.walk_to("jars").await?;
    browser.sees("bottled lemon juice in each quart").await?;
    can_it(&browser, true, "45").await?;
    browser.walk_to("towel").await?;
    browser.find("//section[contains(., \"Check now\")]//button[normalize-space(.)=\"All 2 hold\"]").await?;
    browser.press("All 2 hold").await?;
    browser.press("Rings off, washed, dry").await?;
    browser.walk_to("shelf").await?;
    browser.sees("Onion tomatoes").await?;
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_packet_of_one_time_is_stopped_in_a_high_kitchen() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/kitchen", bodega.address)).await?;
    browser.fill("New altitude", "6500").await?;
    browser.press("Set altitude").await?;
    browser.sees("6,500 ft").await?;
    let page = "12 lb tomatoes\n2 packets salsa mix";
    pasted(&browser, "Packet salsa", page, &[]).await?;
    made_ready(
        &browser,
        "A canning book of 1994 or later, or a maker's packet or leaflet",
        2,
        ("8", "pints"),
    )
    .await?;
    browser.fill("Tomatoes to one salsa mix", "6").await?;
    browser.press("It is in the packet").await?;
    browser.press("It says nothing").await?;
    browser.fill("Minutes printed", "40").await?;
    browser.press("Put this line in").await?;
    browser.sees("nothing said of altitude: 40 min").await?;
    tick_the_time(&browser).await?;
    browser.press("Keep it so").await?;
    browser.sees("Nobody can tell yet whether it may be canned").await?;
    browser.sees("its time holds up to 1000 ft").await?;
    let shown = browser.text().await?;
    assert!(!shown.contains("Set out bowls and jars"), "no jars are set out");
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn what_nobody_tested_is_made_for_the_refrigerator_and_never_set_out_in_jars() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare"])?;
    let browser = Browser::open(390, 844).await?;
    browser.page.goto(format!("{}/kitchen", bodega.address)).await?;
    browser.fill("New altitude", "800").await?;
    browser.press("Set altitude").await?;
    browser.sees("800 ft").await?;
    // Six cups of onions, no acid, found in a post; and beef is named while it is still being read.
    let page = "6 lb tomatoes\n6 cups onions\n1 lb ground beef";
    browser.walk_to("plan").await?;
    browser.press_link("By a recipe").await?;
    browser.press("Write one down").await?;
    browser.fill("Its name", "Post sauce").await?;
    browser.fill("What goes in, a line for each, as it is printed", page).await?;
    browser.press("Read the lines").await?;
    browser.sees("Ground beef in it: no recipe for jars here has that").await?;
    browser.press("Write it down").await?;
    browser.sees("down the printed page").await?;
    made_ready(&browser, "An older book, any other page, a video, a friend, family", 3, ("6", "pints"))
        .await?;
    browser.press("It says nothing").await?;
    browser.fill("Minutes printed", "40").await?;
    browser.press("Put this line in").await?;
    // Another answer to the same question does not stretch a time that was said for none.
    browser.press("A time for each band").await?;
    browser.sees("No time yet").await?;
    browser.press("It says nothing").await?;
    browser.fill("Minutes printed", "40").await?;
    browser.press("Put this line in").await?;
    tick_the_time(&browser).await?;
    browser.press("Keep it so").await?;
    browser.sees("Its page, its source, its steps").await?;
    assert_eq!(browser.answer().await?, "No jars");
    browser.sees("No acid is in it that can be relied on").await?;
    // It is made all the same: into the refrigerator, and it is found there under its name.
    browser.press("Make it for the refrigerator or freezer").await?;
    browser.press("All 3 as on the card").await?;
    assert_eq!(browser.answer().await?, "Cold");
    browser.sees("eaten within 4 days").await?;
    let shown = browser.text().await?;
    assert!(!shown.contains("Set its jars out") && !shown.contains("Set out bowls and jars"), "{shown}");
    browser.fill("How much", "3").await?;
    browser.press("Refrigerator").await?;
    browser.sees("3 quarts: refrigerator").await?;
    browser.press("Put away").await?;
    browser.sees("Made once").await?;
    browser.press("Not again").await?;
    browser.sees("Not said").await?;
    browser.press("We liked it").await?;
    let chosen = "//button[@role=\"radio\"][@aria-checked=\"true\"][contains(., \"We liked it\")]";
    browser.find(chosen).await?;
    browser.walk_to("shelf").await?;
    browser.sees("Post sauce of").await?;
    browser.press("Eaten").await?;
    browser.sees_no_more("Post sauce of").await?;
    browser.close().await
}
