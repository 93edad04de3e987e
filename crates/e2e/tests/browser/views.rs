//! Every view measured in two sizes: it keeps to WCAG 2.2 AA by axe-core, nothing hangs over, the main touch is on the first screen, what is touched is large enough,
//! what is told apart by light can be told apart.

use bodega_e2e::{Bodega, Browser};
use serde_json::Value;

/// Every view, and whether it has a main touch of its own.
const VIEWS: [(&str, bool); 26] = [
    ("start", false),
    ("crates", true),
    ("plan", true),
    ("plan/compare", false),
    ("plan/split", true),
    ("plan/day", false),
    ("plan/recipes", false),
    ("plan/recipes/1", false),
    ("plan/ph", false),
    ("kettle", true),
    ("jars", true),
    ("canner", true),
    ("towel", true),
    ("shelf", false),
    ("batches/6", false),
    ("batches/6/record", false),
    ("books", false),
    ("almanac", false),
    ("kitchen", false),
    ("kitchen/canners", false),
    ("kitchen/kettles", false),
    ("kitchen/cupboard", false),
    ("kitchen/devices", false),
    ("kitchen/safe", false),
    ("jar/1", false),
    ("labels?jars=1,2", false),
];

/// By how much a page hangs over its screen, and what its main touch lacks of being seen; in dots.
const MEASURE: &str = "const over = document.documentElement.scrollWidth - innerWidth;
    const main = document.querySelector('[data-main] button, [data-main] a')?.getBoundingClientRect();
    return [over, main === undefined ? null : Math.max(0, main.bottom - innerHeight, -main.top)];";

/// What is touched and is smaller than a thumb: 48 dots, 44 for a link in a line of words. A short block of the day is as
/// wide as its time, and the list beside it says the same.
const SMALL: &str = "const seen = (one) => one.checkVisibility() && one.getClientRects().length > 0 &&
        !one.closest('.sr-only, [data-testid=strip], label') && getComputedStyle(one).clip === 'auto';
    return [...document.querySelectorAll('button, a[href], input:not([type=file]), [role=checkbox]')].filter(seen)
        .filter((one) => {
            // A box is as large as its label, which is touched as well.
            const label = one.id === '' ? null : document.querySelector(`label[for='${one.id}']`);
            const box = (one.role === 'checkbox' && label ? one.parentElement : one).getBoundingClientRect();
            const least = getComputedStyle(one).display === 'inline' ? 0 : one.matches('a') ? 44 : 47.5;
            return box.height < least || (one.matches('button') && box.width < 44);
        }).map((one) => one.outerHTML.slice(0, 160));";

async fn list(browser: &Browser, script: &str) -> anyhow::Result<Vec<String>> {
    Ok(browser.page.execute(script, Vec::<Value>::new()).await?.convert()?)
}

async fn measure(browser: &Browser, bodega: &Bodega, view: &str) -> anyhow::Result<(f64, Option<f64>)> {
    browser.page.goto(format!("{}/{view}", bodega.address)).await?;
    browser.find("//h2 | //h1").await?;
    browser.settled().await?;
    Ok(browser.page.execute(MEASURE, Vec::<Value>::new()).await?.convert()?)
}

/// Every view fits a screen; where `shows_main`, its main touch is on it, nothing is too small to touch, and the rules of
/// accessibility find nothing.
async fn all_fit((width, height): (u32, u32), shows_main: bool) -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(width, height).await?;
    let mut wrong = Vec::new();
    for (view, has_main) in VIEWS {
        let (over, main) = measure(&browser, &bodega, view).await?;
        if over > 0.0 {
            wrong.push(format!("{view} hangs over by {over}"));
        }
        if has_main && shows_main && main != Some(0.0) {
            wrong.push(format!("{view}: the main touch is {main:?} dots out of sight"));
        }
        if shows_main {
            let found = browser.violations().await?;
            wrong.extend(found.into_iter().map(|line| format!("{view}: {line}")));
            let small = list(&browser, SMALL).await?;
            wrong.extend(small.into_iter().map(|one| format!("{view}: too small: {one}")));
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
    // The rules find something where something is wrong.
    let bare = "document.body.insertAdjacentHTML('beforeend', '<input style=\"width: 3000px\">')";
    browser.page.execute(bare, Vec::<Value>::new()).await?;
    assert!(browser.violations().await?.iter().any(|line| line.starts_with("label:")));
    assert_eq!(list(&browser, SMALL).await?.len(), 1);
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn every_view_fits_a_desk_and_its_main_touch_is_on_the_first_screen() -> anyhow::Result<()> {
    all_fit((1280, 800), true).await
}

#[tokio::test(flavor = "multi_thread")]
async fn every_view_fits_a_phone_and_its_main_touch_is_on_the_first_screen() -> anyhow::Result<()> {
    all_fit((390, 844), true).await
}

#[tokio::test(flavor = "multi_thread")]
async fn every_view_fits_a_desk_at_twice_the_size_of_its_letters() -> anyhow::Result<()> {
    all_fit((640, 400), false).await
}

#[tokio::test(flavor = "multi_thread")]
async fn the_clock_stays_in_sight_on_a_phone_on_its_side() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(844, 390).await?;
    for view in ["jars", "canner", "plan"] {
        browser.page.goto(format!("{}/{view}", bodega.address)).await?;
        browser.find("//main//h2").await?;
        browser.settled().await?;
        let script = "scrollTo(0, document.body.scrollHeight);
            const box = document.querySelector('[data-testid=clock-in-sight]').getBoundingClientRect();
            return box.top >= 0 && box.bottom <= innerHeight && box.width > 0";
        let seen: bool = browser.page.execute(script, Vec::<Value>::new()).await?.convert()?;
        assert!(seen, "the clock at {view}");
    }
    browser.close().await
}

#[tokio::test(flavor = "multi_thread")]
async fn a_notice_has_room_of_its_own() -> anyhow::Result<()> {
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(390, 844).await?;
    for (width, height) in [(390, 844), (1280, 800)] {
        browser.size(width, height).await?;
        browser.page.goto(format!("{}/crates", bodega.address)).await?;
        browser.unfold("Mend").await?;
        browser.press("Take off").await?;
        browser.sees("taken off the line").await?;
        // Whatever stands at the notice's corners and middle belongs to it.
        let script = "const notice = [...document.querySelectorAll('li')].find((one) => one.textContent.includes('taken off'));
            const box = notice.getBoundingClientRect();
            const under = document.elementsFromPoint(box.x + box.width / 2, box.y + box.height / 2);
            return under.filter((one) => one.matches('main *, nav *, nav a, main button')).map((one) => one.outerHTML.slice(0, 120))";
        browser.page.execute("scrollTo(0, 0)", Vec::<Value>::new()).await?;
        assert_eq!(list(&browser, script).await?, Vec::<String>::new(), "at {width}");
        browser.press("Undo").await?;
        browser.sees_no_more("taken off the line").await?;
    }
    browser.close().await
}

/// Light of a colour as eyes take it, 0 to 1 (WCAG 2.2, relative luminance).
fn light(colour: &str) -> f64 {
    let part = |at: usize| {
        let share = f64::from(u8::from_str_radix(&colour[at..at + 2], 16).unwrap_or_default()) / 255.0;
        if share <= 0.04045 { share / 12.92 } else { ((share + 0.055) / 1.055).powf(2.4) }
    };
    0.2126 * part(1) + 0.7152 * part(3) + 0.0722 * part(5)
}

/// How far two colours stand apart (WCAG 2.2, contrast ratio).
fn apart(one: &str, other: &str) -> f64 {
    let (one, other) = (light(one), light(other));
    (one.max(other) + 0.05) / (one.min(other) + 0.05)
}

#[tokio::test(flavor = "multi_thread")]
async fn the_ring_of_the_focus_and_the_edges_of_fields_stand_out_in_both_looks() -> anyhow::Result<()> {
    assert!((apart("#000000", "#ffffff") - 21.0).abs() < 1e-9, "the guideline's own example");
    let bodega = Bodega::start(&["demo"])?;
    let browser = Browser::open(1280, 800).await?;
    browser.page.goto(format!("{}/kitchen/devices", bodega.address)).await?;
    for look in ["Light", "Dark, for a dim kitchen"] {
        browser.press(look).await?;
        let script = "const of = getComputedStyle(document.documentElement);
            return ['ring', 'edge', 'porcelain', 'enamel', 'cloth'].map((name) => {
                const said = of.getPropertyValue(`--color-${name}`).trim();
                return said.length === 4 ? '#' + [...said.slice(1)].map((digit) => digit + digit).join('') : said;
            })";
        let colours = list(&browser, script).await?;
        let [ring, edge, grounds @ ..] = colours.as_slice() else { anyhow::bail!("{colours:?}") };
        for ground in grounds {
            assert!(apart(ring, ground) >= 3.0, "{look}: ring {ring} on {ground}");
            assert!(apart(edge, ground) >= 3.0, "{look}: edge {edge} on {ground}");
        }
    }
    browser.close().await
}
