//! Starts the real binary and a real browser, and ends both.

use std::io::{BufRead, BufReader};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};
use std::time::Duration;

use anyhow::{Context, bail};
use base64::prelude::{BASE64_STANDARD, Engine};
use thirtyfour::prelude::*;

/// How long a page may take to show what is waited for; generous, as two cores may be busy and some of it is boiled for.
const PATIENCE: Duration = Duration::from_secs(60);
/// How often it is looked for.
const GLANCE: Duration = Duration::from_millis(50);

/// The rules of accessibility, as they come from the registry with the other packages of the front end.
const AXE: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../web/node_modules/axe-core/axe.min.js");
/// Gives what each rule found wrong, with the element.
const RUN_AXE: &str = "const done = arguments[0];
    axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }).then((found) =>
        done(found.violations.flatMap((rule) => rule.nodes.map((node) => rule.id + ': ' + node.html.slice(0, 200)))));";

/// A program that is ended with its owner.
struct Running(Child);

impl Drop for Running {
    fn drop(&mut self) {
        // Already gone is fine.
        let _ = self.0.kill();
        let _ = self.0.wait();
    }
}

/// A running Bodega.
pub struct Bodega {
    process: Running,
    /// Where it listens, `http://127.0.0.1:PORT`.
    pub address: String,
}

/// The program under test: the one beside this program, or the one that `BODEGA_BINARY` names.
///
/// # Errors
/// When it is not built.
pub fn binary() -> anyhow::Result<PathBuf> {
    if let Some(named) = std::env::var_os("BODEGA_BINARY") {
        return Ok(named.into());
    }
    let own = std::env::current_exe()?;
    let found = own.ancestors().map(|folder| folder.join("bodega")).find(|file| file.is_file());
    found.context("the binary bodega is not built; run \"cargo xtask test\"")
}

impl Bodega {
    /// Starts `bodega` with these arguments on a free port and waits until it says where it listens.
    ///
    /// # Errors
    /// When it is not built or does not start.
    pub fn start(arguments: &[&str]) -> anyhow::Result<Self> {
        Self::start_at(arguments, 0)
    }

    /// Serves a directory on a given port; 0 takes a free one.
    ///
    /// # Errors
    /// As [`Self::start`].
    pub fn start_at(arguments: &[&str], port: u16) -> anyhow::Result<Self> {
        let mut child = Command::new(binary()?)
            .args(arguments)
            .args(["--port", &port.to_string()])
            .stdout(Stdio::piped())
            .spawn()?;
        let stdout = child.stdout.take().context("no standard output")?;
        let process = Running(child);
        let mut line = String::new();
        BufReader::new(stdout).read_line(&mut line)?;
        let address = line.trim().rsplit(' ').next().unwrap_or_default().to_owned();
        if !address.starts_with("http://127.0.0.1:") {
            bail!("bodega did not say where it listens: {line:?}");
        }
        Ok(Self { process, address })
    }

    /// Serves a data directory.
    ///
    /// # Errors
    /// As [`Self::start`].
    pub fn serve(data: &Path, port: u16) -> anyhow::Result<Self> {
        let data = data.to_str().context("the data directory is not plain text")?;
        Self::start_at(&["serve", "--data", data], port)
    }

    /// The port it listens on.
    ///
    /// # Errors
    /// When the address has none.
    pub fn port(&self) -> anyhow::Result<u16> {
        Ok(self.address.rsplit(':').next().unwrap_or_default().parse()?)
    }

    /// Ends it as a power cut would: SIGKILL, no goodbye.
    ///
    /// # Errors
    /// When it cannot be ended.
    pub fn kill(mut self) -> anyhow::Result<()> {
        self.process.0.kill()?;
        self.process.0.wait()?;
        Ok(())
    }
}

/// A headless Chromium with its driver.
pub struct Browser {
    /// The page.
    pub page: WebDriver,
    _driver: Running,
    _profile: tempfile::TempDir,
}

/// How often a driver is started before it is given up.
const STARTS: usize = 5;

/// Starts ChromeDriver on a free port. It takes one for IPv4 and wants the same for IPv6; when another driver, started at
/// the same moment, has that, it ends, and is started again.
fn start_driver(home: &Path) -> anyhow::Result<(Running, u16)> {
    for _ in 0..STARTS {
        let mut child = Command::new("chromedriver")
            .args(["--port=0", "--log-level=WARNING"])
            .env("HOME", home)
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()
            .context("chromedriver does not start; run \"cargo xtask test\", which installs it")?;
        let stdout = child.stdout.take().context("no standard output")?;
        let driver = Running(child);
        let mut lines = BufReader::new(stdout).lines();
        let said = lines.by_ref().map_while(Result::ok).find_map(|line| {
            let (_, rest) = line.split_once("started successfully on port ")?;
            let digits: String = rest.chars().take_while(char::is_ascii_digit).collect();
            digits.parse::<u16>().ok()
        });
        if let Some(port) = said {
            std::thread::spawn(move || lines.for_each(drop));
            return Ok((driver, port));
        }
    }
    bail!("chromedriver ended {STARTS} times before it said its port")
}

impl Browser {
    /// Opens a browser window of this inner size.
    ///
    /// # Errors
    /// When Chromium or ChromeDriver do not start.
    pub async fn open(width: u32, height: u32) -> anyhow::Result<Self> {
        Self::open_at_home(tempfile::tempdir()?, width, height).await
    }

    /// Opens one whose profile trusts a certificate authority, as a phone does that took its certificate in.
    ///
    /// # Errors
    /// As [`Self::open`], and when `certutil` is not there.
    pub async fn open_trusting(authority: &Path, width: u32, height: u32) -> anyhow::Result<Self> {
        let profile = tempfile::tempdir()?;
        let trusted = profile.path().join(".pki/nssdb");
        std::fs::create_dir_all(&trusted)?;
        let place = format!("sql:{}", trusted.display());
        let certutil = |arguments: &[&str]| -> anyhow::Result<()> {
            let done = Command::new("certutil").args(["-d", &place]).args(arguments).status();
            let done =
                done.context("certutil does not start; run \"cargo xtask test\", which installs it")?;
            anyhow::ensure!(done.success(), "certutil {arguments:?} failed");
            Ok(())
        };
        certutil(&["-N", "--empty-password"])?;
        let file = authority.to_str().context("the authority's file is not plain text")?;
        certutil(&["-A", "-t", "C,,", "-n", "kitchen", "-i", file])?;
        Self::open_at_home(profile, width, height).await
    }

    async fn open_at_home(profile: tempfile::TempDir, width: u32, height: u32) -> anyhow::Result<Self> {
        let (driver, port) = start_driver(profile.path())?;
        let mut capabilities = DesiredCapabilities::chrome();
        for argument in [
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--disable-dev-shm-usage",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--hide-scrollbars",
            "--force-prefers-reduced-motion",
            &format!("--user-data-dir={}", profile.path().display()),
        ] {
            capabilities.add_arg(argument)?;
        }
        let page = WebDriver::new(format!("http://127.0.0.1:{port}"), capabilities).await?;
        let browser = Self { page, _driver: driver, _profile: profile };
        browser.size(width, height).await?;
        Ok(browser)
    }

    /// Gives the page exactly this inner size, however large the window's own edges are.
    ///
    /// # Errors
    /// When the browser does not answer.
    pub async fn size(&self, width: u32, height: u32) -> anyhow::Result<()> {
        // The window itself has a least width, wider than a phone.
        self.page.cdp().emulation().set_device_metrics_override(width, height, 1.0, false).await?;
        Ok(())
    }

    /// Waits until an element matching the XPath is there and gives it.
    ///
    /// # Errors
    /// Names what was waited for.
    pub async fn find(&self, xpath: &str) -> anyhow::Result<WebElement> {
        let query = self.page.query(By::XPath(xpath)).wait(PATIENCE, GLANCE);
        query.first().await.with_context(|| format!("waited in vain for {xpath}"))
    }

    /// What the page says now.
    ///
    /// # Errors
    /// When the page cannot be asked.
    pub async fn text(&self) -> anyhow::Result<String> {
        // The driver's own way asks every element of the page whether it is seen, which costs up to a third more.
        let said: String = self.page.execute("return document.body.innerText", vec![]).await?.convert()?;
        // Hard spaces as the driver gives them, and as the tests write them.
        Ok(said.replace('\u{a0}', " "))
    }

    /// Waits until the page says these words.
    ///
    /// # Errors
    /// Shows the page's text when they never come.
    pub async fn sees(&self, words: &str) -> anyhow::Result<()> {
        let deadline = tokio::time::Instant::now() + PATIENCE;
        loop {
            let text = self.text().await?;
            if text.contains(words) {
                return Ok(());
            }
            if tokio::time::Instant::now() > deadline {
                bail!("waited in vain for {words:?}; the page says:\n{text}");
            }
            tokio::time::sleep(GLANCE).await;
        }
    }

    /// Waits until the page no longer says something.
    ///
    /// # Errors
    /// When it goes on saying it.
    pub async fn sees_no_more(&self, words: &str) -> anyhow::Result<()> {
        let deadline = tokio::time::Instant::now() + PATIENCE;
        while self.text().await?.contains(words) {
            if tokio::time::Instant::now() > deadline {
                bail!("the page still says {words:?}");
            }
            tokio::time::sleep(GLANCE).await;
        }
        Ok(())
    }

    /// Whether something stands on the page now.
    ///
    /// # Errors
    /// When the page cannot be asked.
    pub async fn has(&self, xpath: &str) -> anyhow::Result<bool> {
        Ok(!self.page.find_all(By::XPath(xpath)).await?.is_empty())
    }

    /// Presses the button with these words, when it can be pressed.
    ///
    /// # Errors
    /// When there is none.
    pub async fn press(&self, words: &str) -> anyhow::Result<()> {
        self.click(&format!("//button[not(@disabled)][contains(normalize-space(.), \"{words}\")]")).await
    }

    /// Presses what stands at this place.
    ///
    /// # Errors
    /// When nothing does.
    pub async fn click(&self, xpath: &str) -> anyhow::Result<()> {
        // As a thumb would: in the middle of the page, not under what stands at its edges. A page that is drawn anew
        // meanwhile has another one there.
        for _ in 0..5 {
            let found = self.find(xpath).await?;
            // What newly appears under a finger takes no touch for a moment. Whoever looks first touches it after that; the
            // moment itself is not waited for.
            let pressed = async {
                if found.attr("data-fresh").await?.is_some() {
                    let looked = "arguments[0].removeAttribute('data-fresh')";
                    self.page.execute(looked, vec![found.to_json()?]).await?;
                }
                found.scroll_into_view().await.and(found.click().await)
            };
            match pressed.await {
                Err(error) if error.to_string().contains("stale") => {}
                other => return Ok(other?),
            }
        }
        bail!("{xpath} never stood still")
    }

    /// Follows the link with these words.
    ///
    /// # Errors
    /// When there is none.
    pub async fn press_link(&self, words: &str) -> anyhow::Result<()> {
        let xpath = format!("//a[contains(normalize-space(.), \"{words}\")]");
        self.click(&xpath).await
    }

    /// Puts every step of the bench behind the load that stands there, and goes on to the canner.
    ///
    /// # Errors
    /// When a step cannot be pressed.
    pub async fn make_load_ready(&self) -> anyhow::Result<()> {
        for step in ["All acid in", "All filled", "All bubbles out", "All rims wiped", "All lids on"] {
            self.press(step).await?;
        }
        self.press("To the canner").await
    }

    /// Types into the field with this label.
    ///
    /// # Errors
    /// When there is none.
    pub async fn fill(&self, label: &str, text: &str) -> anyhow::Result<()> {
        let xpath = format!("//*[self::input or self::textarea][@id=//label[contains(., \"{label}\")]/@for]");
        let field = self.find(&xpath).await?;
        // Clearing through the driver does not tell the page; typing over a selection does.
        field.send_keys(Key::Control + "a").await?;
        Ok(field.send_keys(text).await?)
    }

    /// Weighs firm and ripe tomatoes of a kind in, at the crates.
    ///
    /// # Errors
    /// When the form is not there.
    pub async fn weigh_in(&self, amount: &str, kind: &str) -> anyhow::Result<()> {
        self.fill("On the scale", amount).await?;
        for said in [kind, "Firm and ripe", "Weigh in"] {
            self.click(&format!("//form//button[normalize-space(.)=\"{said}\"]")).await?;
        }
        Ok(())
    }

    /// Lets simulated devices stand at the stations of this screen.
    ///
    /// # Errors
    /// When the browser does not answer.
    pub async fn practise(&self, address: &str) -> anyhow::Result<()> {
        self.page.goto(format!("{address}/kitchen/devices")).await?;
        self.click("//button[@role=\"checkbox\"][@id=//label[contains(., \"Practise\")]/@for]").await
    }

    /// Opens what is folded behind these words.
    ///
    /// # Errors
    /// When there is no such fold.
    pub async fn unfold(&self, words: &str) -> anyhow::Result<()> {
        self.press(&format!("{words} ▾")).await
    }

    /// Opens the list with this label and takes the option with these words.
    ///
    /// # Errors
    /// When there is no such list or option.
    pub async fn choose(&self, label: &str, option: &str) -> anyhow::Result<()> {
        let list = format!("//button[@role=\"combobox\"][@aria-labelledby=//p[.=\"{label}\"]/@id]");
        self.click(&list).await?;
        self.click(&format!("//*[@role=\"option\"][normalize-space(.)=\"{option}\"]")).await
    }

    /// Goes to a station by the line.
    ///
    /// # Errors
    /// When the line is not there.
    pub async fn walk_to(&self, station: &str) -> anyhow::Result<()> {
        self.click(&format!("//nav//a[@data-station=\"{station}\"]")).await
    }

    /// Waits until fonts are loaded and every answer of the page is there.
    ///
    /// # Errors
    /// When it never comes to rest.
    pub async fn settled(&self) -> anyhow::Result<()> {
        // One answer may lead to the next question, so rest counts only when it lasts.
        const CALM: Duration = Duration::from_millis(200);
        self.page.execute_async("document.fonts.ready.then(arguments[0])", vec![]).await?;
        let deadline = tokio::time::Instant::now() + PATIENCE;
        let mut calm_since = tokio::time::Instant::now();
        while calm_since.elapsed() < CALM {
            let busy = self.page.find_all(By::Css("main[aria-busy=true]")).await?;
            if !busy.is_empty() {
                calm_since = tokio::time::Instant::now();
            }
            if tokio::time::Instant::now() > deadline {
                bail!("{} never came to rest", self.page.current_url().await?);
            }
            tokio::time::sleep(GLANCE).await;
        }
        Ok(())
    }

    /// What axe-core finds on the page against WCAG 2.2 AA, once it has come to rest.
    ///
    /// # Errors
    /// When the page cannot be asked.
    pub async fn violations(&self) -> anyhow::Result<Vec<String>> {
        self.settled().await?;
        // What lies under a docked touch is scrolled out from under it: the rules see the page without its docks.
        let undock =
            "for (const dock of document.querySelectorAll('[data-main]')) dock.style.position = 'static'";
        self.page.execute(undock, vec![]).await?;
        self.page.execute(std::fs::read_to_string(AXE)?, vec![]).await?;
        Ok(self.page.execute_async(RUN_AXE, vec![]).await?.convert()?)
    }

    /// Shows the page as its style sheet prints it.
    ///
    /// # Errors
    /// When the browser does not answer.
    pub async fn show_as_printed(&self) -> anyhow::Result<()> {
        let media = serde_json::json!({"media": "print"});
        self.page.cdp().send_raw("Emulation.setEmulatedMedia", media).await?;
        Ok(())
    }

    /// Shows the page as on a screen again.
    ///
    /// # Errors
    /// When the browser does not answer.
    pub async fn show_as_screen(&self) -> anyhow::Result<()> {
        let media = serde_json::json!({"media": ""});
        self.page.cdp().send_raw("Emulation.setEmulatedMedia", media).await?;
        Ok(())
    }

    /// How many pages the page takes when it is printed as its style sheet asks.
    ///
    /// # Errors
    /// As [`Self::printed_sheets`].
    pub async fn printed_pages(&self) -> anyhow::Result<usize> {
        Ok(self.printed_sheets().await?.len())
    }

    /// Width and height in points of every sheet the page is printed on, as its style sheet asks.
    ///
    /// # Errors
    /// When the browser does not print.
    pub async fn printed_sheets(&self) -> anyhow::Result<Vec<(f64, f64)>> {
        let paper = serde_json::json!({"preferCSSPageSize": true, "printBackground": true});
        let answer = self.page.cdp().send_raw("Page.printToPDF", paper).await?;
        let pdf = BASE64_STANDARD.decode(answer["data"].as_str().context("no PDF came back")?)?;
        let document = lopdf::Document::load_mem(&pdf)?;
        let size = |id: &lopdf::ObjectId| -> anyhow::Result<(f64, f64)> {
            let media = document.get_dictionary(*id)?.get(b"MediaBox")?.as_array()?;
            let edge = |place: usize| -> anyhow::Result<f64> {
                Ok(f64::from(media.get(place).context("a box has four edges")?.as_float()?))
            };
            Ok((edge(2)? - edge(0)?, edge(3)? - edge(1)?))
        };
        document.get_pages().values().map(size).collect()
    }

    /// The number of the moment.
    ///
    /// # Errors
    /// When the station shows none.
    pub async fn answer(&self) -> anyhow::Result<String> {
        Ok(self.find("//*[@data-testid=\"answer\"]").await?.text().await?)
    }

    /// Minutes that the canner counted of a load, as the page says once its heat is off.
    ///
    /// # Errors
    /// When it never says that the load was processed.
    pub async fn processed_minutes(&self) -> anyhow::Result<u32> {
        const SAID: &str = "Processed: ";
        self.sees(SAID).await?;
        let text = self.text().await?;
        let (_, minutes) = text.split_once(SAID).context("it is no longer said")?;
        Ok(minutes.split(' ').next().unwrap_or_default().parse()?)
    }

    /// The figure a station shows on the line.
    ///
    /// # Errors
    /// When the line is not there.
    pub async fn figure(&self, station: &str) -> anyhow::Result<String> {
        Ok(self.find(&format!("//nav//a[@data-station=\"{station}\"]//strong")).await?.text().await?)
    }

    /// Closes the browser.
    ///
    /// # Errors
    /// When it does not answer.
    pub async fn close(self) -> anyhow::Result<()> {
        Ok(self.page.quit().await?)
    }
}
