//! Walked wrong: slips of the finger, broken records, a kitchen with nothing in it.

use bodega_e2e::{Bodega, Browser};

/// Words of what stands wrong at the field with this label.
async fn wrong_at(browser: &Browser, label: &str) -> anyhow::Result<String> {
    let field = browser.find(&format!("//input[@id=//label[contains(., \"{label}\")]/@for]")).await?;
    let id = field.attr("aria-describedby").await?.unwrap_or_default();
    browser.find(&format!("//*[@id=\"{id}\"]")).await?.text().await.map_err(Into::into)
}

#[tokio::test(flavor = "multi_thread")]
async fn a_slip_is_said_beside_its_field_and_what_was_typed_stays() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/kitchen", bodega.address)).await?;
    for (typed, said) in [("99000", "30000"), ("-9999", "-2000"), ("up here", "Give a number")] {
        browser.fill("New altitude", typed).await?;
        browser.press("Set altitude").await?;
        let wrong = wrong_at(&browser, "New altitude").await?;
        assert!(wrong.contains(said), "{typed}: {wrong}");
        let field = browser.find("//input[@id=//label[contains(., \"New altitude\")]/@for]").await?;
        assert_eq!(field.prop("value").await?.as_deref(), Some(typed), "nothing that was typed is lost");
    }
    browser.fill("New altitude", "1234").await?;
    browser.press("Set altitude").await?;
    browser.sees("Altitude is 1,234").await?;
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_record_that_cannot_be_read_stands_on_its_card_and_is_put_right() -> anyhow::Result<()> {
    let data = tempfile::tempdir()?;
    let old = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../store/tests/data/kitchen-v9.db");
    let file = data.path().join("bodega.db");
    std::fs::copy(old, &file)?;
    let raw = rusqlite::Connection::open(&file)?;
    raw.execute_batch("UPDATE lot SET kind = 'plum' WHERE weight_g = 13608")?;
    drop(raw);
    let bodega = Bodega::serve(data.path(), 0)?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/crates", bodega.address)).await?;
    browser.sees("cannot be read: its kind is “plum”").await?;
    // The other crates are there all the same.
    browser.sees("18.1 lb").await?;
    browser.choose("It should say", "paste").await?;
    browser.press("Put it right").await?;
    browser.sees("30 lb").await?;
    let page = browser.find("//main").await?.text().await?;
    assert!(!page.contains("cannot be read"), "{page}");
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn an_empty_kitchen_says_at_every_station_what_comes_first() -> anyhow::Result<()> {
    let data = tempfile::tempdir()?;
    let bodega = Bodega::serve(data.path(), 0)?;
    let browser = Browser::open(390, 844).await?;
    for (station, words) in [
        ("crates", "Weigh in"),
        ("plan", "altitude"),
        ("kettle", "kettle"),
        ("jars", "bench"),
        ("canner", "canner"),
        ("towel", "The towel is clear"),
        ("shelf", "The first jars come here"),
        ("almanac", "altitude"),
        ("kitchen", "Until the altitude is known, nothing can be timed."),
    ] {
        browser.page.goto(format!("{}/{station}", bodega.address)).await?;
        browser.find("//main//h2").await?;
        browser.sees(words).await?;
        let wide: f64 =
            browser.page.execute("return document.documentElement.scrollWidth", vec![]).await?.convert()?;
        assert!(wide <= 390.0, "{station} is {wide} wide on a phone of 390");
    }
    browser.close().await
}

/// What stands in the field with this label.
async fn typed_in(browser: &Browser, label: &str) -> anyhow::Result<Option<String>> {
    let field = browser.find(&format!("//input[@id=//label[contains(., \"{label}\")]/@for]")).await?;
    Ok(field.prop("value").await?)
}

#[tokio::test(flavor = "multi_thread")]
async fn thousands_are_read_as_they_are_written_and_no_digit_is_lost_on_the_way() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare"])?;
    let phone = Browser::open(390, 844).await?;
    phone.page.goto(format!("{}/kitchen", bodega.address)).await?;
    // Half of it could be two numbers, and is asked; the whole of it is one, and is said.
    phone.fill("New altitude", "6,5").await?;
    phone.sees("Which is it: 6.5 ft or 65 ft?").await?;
    phone.fill("New altitude", "6,500").await?;
    phone.sees("= 6,500 ft").await?;
    phone.press("Set altitude").await?;
    phone.sees("Altitude is 6,500").await?;
    // Six and a half feet that were typed with a sign are asked about once.
    phone.fill("New altitude", "6.5").await?;
    phone.press("Set altitude").await?;
    phone.press("6,500 ft").await?;
    phone.sees("Altitude is 6,500").await?;

    phone.page.goto(format!("{}/crates", bodega.address)).await?;
    phone.weigh_in("1,000", "Paste").await?;
    phone.sees("1,000 lb").await?;
    phone.page.goto(format!("{}/plan", bodega.address)).await?;
    phone.press("Herbs").await?;
    phone.press("Basil leaf").await?;
    phone.fill("Basil leaves in all", "96").await?;
    assert_eq!(typed_in(&phone, "Basil leaves in all").await?.as_deref(), Some("96"));
    phone.press("Vegetables").await?;
    phone.press("Carrot").await?;
    phone.fill("Carrot, chopped, in all", "12").await?;
    phone.press("Celery").await?;
    assert_eq!(typed_in(&phone, "Carrot, chopped, in all").await?.as_deref(), Some("12"));
    assert_eq!(typed_in(&phone, "Basil leaves in all").await?.as_deref(), Some("96"));
    phone.close().await
}

/// Two taps at one place, as far apart as a finger that is not sure: an answer comes in between.
async fn tap_twice(phone: &Browser, words: &str) -> anyhow::Result<()> {
    let xpath =
        format!("//button[not(@disabled)][not(@data-fresh)][contains(normalize-space(.), \"{words}\")]");
    let touch = phone.find(&xpath).await?;
    touch.scroll_into_view().await?;
    phone.page.action_chain().move_to_element_center(&touch).click().perform().await?;
    for _ in 0..2 {
        tokio::time::sleep(std::time::Duration::from_millis(150)).await;
        phone.page.action_chain().click().perform().await?;
    }
    Ok(())
}

#[tokio::test(flavor = "multi_thread")]
async fn two_taps_at_one_place_are_one_from_the_bench_to_the_towel() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare", "--pace", "200"])?;
    let phone = Browser::open(390, 844).await?;
    phone.page.goto(format!("{}/crates", bodega.address)).await?;
    phone.weigh_in("18", "Paste").await?;
    phone.sees("6 whole").await?;
    phone.page.goto(format!("{}/plan", bodega.address)).await?;
    phone.press("Nothing").await?;
    phone.press("Set out 6 jars").await?;
    phone.page.goto(format!("{}/jars", bodega.address)).await?;
    // Acid fills no jar.
    tap_twice(&phone, "All acid in").await?;
    phone.find("//button[@data-jar][contains(@data-state, \"acid\")]").await?;
    assert!(!phone.has("//button[@data-jar][contains(@data-state, \"filled\")]").await?);
    for step in ["All filled", "All bubbles out", "All rims wiped", "All lids on", "To the canner"] {
        phone.press(step).await?;
    }
    // The jars that go in do not boil yet, nothing that boils is lost, and what is off is not lifted.
    tap_twice(&phone, "Jars are in").await?;
    phone.find("//button[contains(normalize-space(.), \"It boils\")]").await?;
    tap_twice(&phone, "It boils").await?;
    phone.sees("The full 50 minutes are done").await?;
    assert!(!phone.text().await?.contains("lost"), "the boil went on");
    tap_twice(&phone, "Heat off, lid off").await?;
    phone.find("//button[contains(normalize-space(.), \"Jars are out\")]").await?;
    assert!(phone.processed_minutes().await? >= 50);
    phone.close().await
}

/// How many a question of the API answers with.
async fn count_of(browser: &Browser, script: &str) -> anyhow::Result<u64> {
    Ok(browser.page.execute_async(script, vec![]).await?.convert()?)
}

#[tokio::test(flavor = "multi_thread")]
async fn two_taps_on_what_is_docked_are_one_at_crates_plan_kettle_and_towel() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo", "--bare"])?;
    let phone = Browser::open(390, 844).await?;
    phone.page.goto(format!("{}/crates", bodega.address)).await?;
    phone.fill("On the scale", "18").await?;
    for said in ["Paste", "Firm and ripe"] {
        phone.click(&format!("//form//button[normalize-space(.)=\"{said}\"]")).await?;
    }
    tap_twice(&phone, "Weigh in").await?;
    phone.sees("6 whole").await?;
    let lots = "fetch('/api/lots').then(r => r.json()).then(all => arguments[0](all.length))";
    assert_eq!(count_of(&phone, lots).await?, 1, "one crate came in");
    phone.page.goto(format!("{}/plan", bodega.address)).await?;
    phone.press("Nothing").await?;
    tap_twice(&phone, "Set out 6 jars").await?;
    let batches = "fetch('/api/batches').then(r => r.json()).then(all => arguments[0](all.length))";
    assert_eq!(count_of(&phone, batches).await?, 1, "one batch was set out");
    phone.page.goto(format!("{}/kettle", bodega.address)).await?;
    phone.fill("Juice and pulp", "12").await?;
    phone.click("//form//button[normalize-space(.)=\"Paste\"]").await?;
    tap_twice(&phone, "Start cooking").await?;
    phone.sees("the mark, 8 qt").await?;
    phone.fill("Reading", "5").await?;
    tap_twice(&phone, "Save it").await?;
    let read = "fetch('/api/cooks').then(r => r.json()).then(all => arguments[0](all.length * 100 + all[0].log.length))";
    assert_eq!(count_of(&phone, read).await?, 101, "one kettle is on, and was read once");
    phone.close().await?;

    let bodega = Bodega::start(&["demo"])?;
    let phone = Browser::open(390, 844).await?;
    phone.page.goto(format!("{}/towel", bodega.address)).await?;
    // Judged early they are looked at again, and nothing of it is taken back or washed by the same finger.
    tap_twice(&phone, "All 7 hold").await?;
    phone.sees("Judged early").await?;
    let held = "fetch('/api/towel').then(r => r.json()).then(all => arguments[0](
        all.flatMap(load => load.jars).filter(jar => jar.verdict === 'holds' && !jar.tidy).length))";
    assert_eq!(count_of(&phone, held).await?, 7);
    phone.close().await
}
