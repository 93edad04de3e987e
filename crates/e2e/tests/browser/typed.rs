//! Every number of every form is typed digit by digit, as a finger does it: no form is drawn anew under it, and half of a number is
//! never taken for the whole.

use bodega_e2e::{Bodega, Browser};
use serde_json::Value;
use thirtyfour::{By, Key};

/// Every view with a number in it, and the touches that open what is not in sight.
const FORMS: [(&str, &[&str]); 17] = [
    ("start", &[]),
    ("crates", &[]),
    ("plan", &["Vegetables", "Carrot", "Onion"]),
    ("plan/compare", &[]),
    ("plan/split", &[]),
    ("plan/day", &[]),
    ("plan/recipes", &["Write one down"]),
    ("plan/recipes/1", &[]),
    ("plan/ph", &[]),
    ("kettle", &[]),
    ("jars", &[]),
    ("canner", &["Also in this canner"]),
    ("shelf", &[]),
    ("kitchen", &[]),
    ("kitchen/canners", &[]),
    ("kitchen/kettles", &[]),
    ("kitchen/cupboard", &[]),
];

/// Opens everything that is folded away.
const UNFOLD: &str = "for (const fold of document.querySelectorAll('main button[aria-expanded=false]'))
    if (!fold.hasAttribute('aria-haspopup') && fold.role !== 'combobox') fold.click();";

/// Numbers that can be typed, each with its label.
const FIELDS: &str = "return [...document.querySelectorAll('main input[inputmode=decimal]')]
    .filter((one) => one.checkVisibility() && !one.disabled)
    .map((one) => [one.id, document.querySelector(`label[for='${one.id}']`)?.textContent ?? '']);";

/// What stands in a field; `None` when it is gone. A form that is drawn anew between two looks has another field there.
async fn stands_in(browser: &Browser, id: &str) -> Option<String> {
    for _ in 0..3 {
        if let Ok(field) = browser.page.find(By::Id(id)).await
            && let Ok(value) = field.prop("value").await
        {
            return value;
        }
    }
    None
}

/// Types a number a digit at a time; says what stood there when it was not what had been typed.
async fn typed(browser: &Browser, id: &str) -> anyhow::Result<Option<String>> {
    let field = browser.page.find(By::Id(id)).await?;
    field.send_keys(Key::Control + "a").await?;
    let mut so_far = String::new();
    for digit in "125".chars() {
        so_far.push(digit);
        let sent = match browser.page.find(By::Id(id)).await {
            Ok(field) => field.send_keys(digit.to_string()).await,
            Err(error) => Err(error),
        };
        let stands = stands_in(browser, id).await.unwrap_or_else(|| "nothing, it is gone".to_owned());
        if sent.is_err() || stands != so_far {
            return Ok(Some(format!("{stands} for {so_far}")));
        }
    }
    Ok(None)
}

#[tokio::test(flavor = "multi_thread")]
async fn no_digit_is_lost_on_any_form() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let phone = Browser::open(390, 844).await?;
    let (mut wrong, mut count) = (Vec::new(), 0);
    for (view, opens) in FORMS {
        phone.page.goto(format!("{}/{view}", bodega.address)).await?;
        phone.find("//main//h2").await?;
        phone.settled().await?;
        for words in opens {
            phone.press(words).await?;
        }
        phone.page.execute(UNFOLD, Vec::<Value>::new()).await?;
        phone.settled().await?;
        let fields: Vec<(String, String)> =
            phone.page.execute(FIELDS, Vec::<Value>::new()).await?.convert()?;
        for (id, label) in fields {
            // What was typed before may have closed it.
            if phone.page.find(By::Id(&id)).await.is_err() {
                continue;
            }
            count += 1;
            if let Some(stands) = typed(&phone, &id).await.unwrap_or_else(|error| Some(error.to_string())) {
                wrong.push(format!("{view}, {label}: {stands}"));
            }
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
    assert!(count >= 60, "only {count} numbers were found");
    phone.close().await
}
