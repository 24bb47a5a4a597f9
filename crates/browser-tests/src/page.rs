//! What a person does with the page, and what they see.

use std::{
    path::Path,
    sync::{
        Arc,
        atomic::{AtomicU32, Ordering::Relaxed},
    },
    time::Duration,
};

use anyhow::{Context, Result, bail};
use serde_json::json;
use thirtyfour::{
    Key,
    common::print::{PrintPage, PrintParameters},
    error::WebDriverErrorInner,
    prelude::*,
};

const PATIENCE: Duration = Duration::from_secs(15);
const LOOK_EVERY: Duration = Duration::from_millis(40);

const AXE: &str = "../../web/node_modules/axe-core/axe.min.js";
/// Every rule of the usual conformance levels and of good practice.
const LOOK_OVER: &str = "
    const done = arguments[arguments.length - 1];
    axe.run(document, { resultTypes: ['violations'] }).then(
        ({ violations }) => done(violations.flatMap(({ id, help, nodes }) =>
            nodes.map(({ target, failureSummary }) => `${id} (${help}): ${target.join(' ')} ${failureSummary}`))),
        (error) => done([String(error)]),
    );";

/// The page in one window of the browser.
#[derive(Debug, Clone)]
pub struct Page {
    browser: WebDriver,
    base: String,
    /// How wide the screen was made; 0 if it is as the window is.
    width: Arc<AtomicU32>,
}

/// Narrow and no-break spaces are how figures are set; tests read them as spaces.
fn plain(text: &str) -> String {
    text.replace(['\u{202f}', '\u{a0}'], " ").replace('\n', " ")
}

/// Lines, cells and gaps are how a text is laid out; tests read each as one space.
fn in_one_line(text: &str) -> String {
    text.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// Whether an element was drawn anew since it was found; nothing was done to it then.
fn is_stale(error: &anyhow::Error) -> bool {
    error
        .downcast_ref::<WebDriverError>()
        .is_some_and(|error| matches!(**error, WebDriverErrorInner::StaleElementReference(..)))
}

/// What elements of a selector show; what is written in a drawing is all shown.
const TEXTS: &str = "return [...document.querySelectorAll(arguments[0])].map(
    (element) => element.innerText ?? element.textContent);";

/// What of the open shipment waits in the browser, how the page says that it stands, and the last requests that were answered.
const WHAT_IS_KEPT: &str = "const kept = Object.keys(localStorage).filter((key) => key.startsWith('hummock.typed.'))
        .map((key) => localStorage.getItem(key));
    const says = document.querySelector('[data-test=save-state]')?.textContent;
    const asked = performance.getEntriesByType('resource').slice(-8)
        .map(({ name, startTime, responseEnd }) => [name.replace(location.origin, ''), Math.round(startTime), Math.round(responseEnd)]);
    return { says, now: Math.round(performance.now()), kept, asked };";

impl Page {
    pub(crate) fn new(browser: WebDriver, base: String) -> Self {
        Self {
            browser,
            base,
            width: Arc::default(),
        }
    }

    /// Goes to an address of the application.
    ///
    /// # Errors
    /// When the browser is gone.
    pub async fn goto(&self, path: &str) -> Result<()> {
        self.browser.goto(format!("{}{path}", self.base)).await?;
        self.is_there().await?;
        // A screen that was made narrow is as wide as its window again after a navigation.
        match self.width.load(Relaxed) {
            0 => Ok(()),
            width => self.is_as_wide_as(width).await,
        }
    }

    /// Opens a stop of a shipment of the bench, and returns where that shipment is.
    ///
    /// # Errors
    /// When there is none of that title.
    pub async fn open(&self, title: &str, stop: &str) -> Result<String> {
        self.goto("/").await?;
        self.sees("main", title).await?;
        let script = format!(
            "return [...document.querySelectorAll('main a')].find((link) => link.textContent.includes({title:?})).getAttribute('href')"
        );
        let href = self.asks(&script).await?;
        let href = href.as_str().context("it is a link")?;
        let id = href.split('/').nth(2).context("it names a shipment")?;
        let place = format!("/shipments/{id}");
        self.goto(&format!("{place}/{stop}")).await?;
        Ok(place)
    }

    /// Loads the page again, as when a hand slips.
    ///
    /// # Errors
    /// When the browser is gone.
    pub async fn reload(&self) -> Result<()> {
        self.browser.refresh().await?;
        self.is_there().await
    }

    /// Waits until the program has taken the place of the frame in the page: it comes after the page itself.
    async fn is_there(&self) -> Result<()> {
        self.comes_to("return !document.querySelector('.first-strip')", true)
            .await
    }

    /// Returns the address that the page stands at.
    ///
    /// # Errors
    /// When the browser is gone.
    pub async fn address(&self) -> Result<String> {
        Ok(self.browser.current_url().await?.to_string())
    }

    /// Returns the part of an address that [`Page::goto`] goes to.
    #[must_use]
    pub fn path_of(address: &str) -> String {
        let path = address.splitn(4, '/').nth(3).unwrap_or_default();
        format!("/{path}")
    }

    /// Waits until the window is called so.
    ///
    /// # Errors
    /// When it is called something else.
    pub async fn is_called(&self, title: &str) -> Result<()> {
        self.until(|| async { Ok((self.browser.title().await? == title).then_some(())) })
            .await
            .with_context(|| format!("the window was never called {title}"))
    }

    /// Waits until the keyboard is at the element of a selector.
    ///
    /// # Errors
    /// When it is elsewhere.
    pub async fn is_at(&self, css: &str) -> Result<()> {
        let at = format!("return document.activeElement?.matches(\"{css}\") ?? false");
        self.comes_to(&at, true).await
    }

    /// Waits until an element that is only read out says a text.
    ///
    /// # Errors
    /// When it does not.
    pub async fn sees_hidden(&self, css: &str, text: &str) -> Result<()> {
        let says = format!("return document.querySelector(\"{css}\")?.textContent ?? ''");
        self.until(|| async {
            let said = self.asks(&says).await?;
            Ok(said
                .as_str()
                .is_some_and(|said| said.contains(text))
                .then_some(()))
        })
        .await
        .with_context(|| format!("{css} never said \"{text}\""))
    }

    /// Waits until a stop of a shipment is shown.
    ///
    /// # Errors
    /// When another is.
    pub async fn is_at_stop(&self, stop: &str) -> Result<()> {
        let there = format!("return location.pathname.endsWith('/{stop}')");
        self.comes_to(&there, true).await
    }

    /// Goes back in the browser's history.
    ///
    /// # Errors
    /// When the browser is gone.
    pub async fn back(&self) -> Result<()> {
        Ok(self.browser.back().await?)
    }

    /// Returns the first element of a selector, once it is there.
    ///
    /// # Errors
    /// When it does not come.
    pub async fn find(&self, css: &str) -> Result<WebElement> {
        let query = self
            .browser
            .query(By::Css(css.to_owned()))
            .wait(PATIENCE, LOOK_EVERY);
        query
            .first()
            .await
            .with_context(|| format!("{css} is not on the page"))
    }

    /// Waits until an element of a selector shows a text.
    ///
    /// # Errors
    /// When it does not come; the error tells what the page shows.
    pub async fn sees(&self, css: &str, text: &str) -> Result<()> {
        self.until(|| async {
            Ok(self
                .texts(css)
                .await?
                .iter()
                .any(|shown| shown.contains(text))
                .then_some(()))
        })
        .await
        .with_context(|| format!("{css} never showed \"{text}\""))
    }

    /// Waits until there is no element of a selector.
    ///
    /// # Errors
    /// When one stays.
    pub async fn lacks(&self, css: &str) -> Result<()> {
        self.until(|| async {
            let found = self.browser.find_all(By::Css(css.to_owned())).await?;
            Ok(found.is_empty().then_some(()))
        })
        .await
        .with_context(|| format!("{css} never went"))
    }

    /// Waits until no element of a selector shows a text.
    ///
    /// # Errors
    /// When one still does.
    pub async fn lacks_text(&self, css: &str, text: &str) -> Result<()> {
        self.until(|| async {
            let shown = self.texts(css).await?;
            Ok((!shown.iter().any(|shown| shown.contains(text))).then_some(()))
        })
        .await
        .with_context(|| format!("{css} still shows \"{text}\""))
    }

    /// Returns the texts of all elements of a selector.
    ///
    /// # Errors
    /// When the browser is gone.
    pub async fn texts(&self, css: &str) -> Result<Vec<String>> {
        // The browser's own reading, in one question: a driver would walk through every element for each text.
        let shown = self.browser.execute(TEXTS, vec![css.into()]).await?;
        let shown: Vec<String> = shown.convert()?;
        Ok(shown.iter().map(|text| in_one_line(text)).collect())
    }

    /// Presses the element of a selector.
    ///
    /// # Errors
    /// When it does not come or is covered.
    pub async fn press(&self, css: &str) -> Result<()> {
        self.until(|| async {
            let element = self.find(css).await?;
            element.scroll_into_view().await?;
            element.click().await?;
            Ok(Some(()))
        })
        .await
    }

    /// Goes to a place of the workshop, which is opened where it is closed.
    ///
    /// # Errors
    /// When there is no such place.
    pub async fn goes_to_workshop(&self, name: &str) -> Result<()> {
        let closed = "return document.querySelector(\"[aria-controls='workshop'][aria-expanded='false']\") !== null;";
        if self.asks(closed).await? == true {
            self.press_called("Workshop").await?;
        }
        self.press_called(name).await
    }

    /// Presses the button or link that is called so.
    ///
    /// # Errors
    /// When there is none.
    pub async fn press_called(&self, name: &str) -> Result<()> {
        let path =
            format!("//*[self::button or self::a][contains(normalize-space(.), \"{name}\")]");
        self.until(|| async {
            let query = self
                .browser
                .query(By::XPath(path.clone()))
                .wait(PATIENCE, LOOK_EVERY)
                .and_displayed();
            let element = query
                .first()
                .await
                .with_context(|| format!("nothing is called {name}"))?;
            element.scroll_into_view().await?;
            element.click().await?;
            Ok(Some(()))
        })
        .await
    }

    /// Types into the field of a name in place of what it holds, and leaves it.
    ///
    /// # Errors
    /// When there is no such field.
    pub async fn fill(&self, name: &str, text: &str) -> Result<()> {
        self.type_into(name, text).await?;
        self.keys(Key::Tab).await
    }

    /// Types into the field of a name in place of what it holds, and stays in it.
    ///
    /// # Errors
    /// When there is no such field.
    pub async fn type_into(&self, name: &str, text: &str) -> Result<()> {
        self.until(|| async {
            let field = self.find(&format!("[name='{name}']")).await?;
            field.scroll_into_view().await?;
            field.click().await?;
            field.send_keys(Key::Control + "a").await?;
            field.send_keys(Key::Delete).await?;
            field.send_keys(text).await?;
            Ok(Some(()))
        })
        .await
    }

    /// Sets the day of a date field, as its picker does.
    ///
    /// # Errors
    /// When there is no such field.
    pub async fn set_day(&self, name: &str, day: &str) -> Result<()> {
        let field = self.find(&format!("[name='{name}']")).await?;
        let script = "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('input', { bubbles: true }));";
        self.browser
            .execute(script, vec![field.to_json()?, day.into()])
            .await?;
        Ok(())
    }

    /// Chooses in the list of a name.
    ///
    /// # Errors
    /// When there is no such choice.
    pub async fn choose(&self, name: &str, value: &str) -> Result<()> {
        self.press(&format!("select[name='{name}'] option[value='{value}']"))
            .await
    }

    /// Returns what a field holds.
    ///
    /// # Errors
    /// When there is no such field.
    pub async fn value(&self, name: &str) -> Result<String> {
        self.until(|| async {
            let field = self.find(&format!("[name='{name}']")).await?;
            Ok(Some(plain(&field.value().await?.unwrap_or_default())))
        })
        .await
    }

    /// Waits until a field holds a value.
    ///
    /// # Errors
    /// When it does not come to hold it.
    pub async fn holds(&self, name: &str, value: &str) -> Result<()> {
        self.until(|| async { Ok((self.value(name).await? == value).then_some(())) })
            .await
            .with_context(|| format!("{name} never held \"{value}\""))
    }

    /// Strikes keys wherever the page listens.
    ///
    /// # Errors
    /// When the browser is gone.
    pub async fn keys(&self, keys: impl Into<TypingData> + Send) -> Result<()> {
        let typed: TypingData = keys.into();
        Ok(self
            .browser
            .action_chain()
            .send_keys(typed)
            .perform()
            .await?)
    }

    /// Waits until everything typed is stored.
    ///
    /// # Errors
    /// When it is not.
    pub async fn is_saved(&self) -> Result<()> {
        let saved = self
            .until(|| async {
                Ok((self.texts("[data-test='save-state']").await? == ["Saved"]).then_some(()))
            })
            .await;
        if saved.is_err() {
            let kept = self.asks(WHAT_IS_KEPT).await.unwrap_or_default();
            return saved.with_context(|| format!("it was never saved: {kept}"));
        }
        saved
    }

    /// Hands a file to the field for files in a part of the page.
    ///
    /// # Errors
    /// When there is no such field.
    pub async fn attach(&self, within: &str, file: &Path) -> Result<()> {
        let file = file.canonicalize()?;
        let field = self
            .browser
            .find(By::Css(format!("{within} input[type='file']")))
            .await?;
        field.send_keys(file.to_string_lossy().as_ref()).await?;
        Ok(())
    }

    /// Returns what a script in the page returns.
    ///
    /// # Errors
    /// When it throws.
    pub async fn asks(&self, script: &str) -> Result<serde_json::Value> {
        Ok(self.browser.execute(script, vec![]).await?.json().clone())
    }

    /// Waits until a script in the page returns a value.
    ///
    /// # Errors
    /// When it goes on returning another.
    pub async fn comes_to(&self, script: &str, value: impl Into<serde_json::Value>) -> Result<()> {
        let value = value.into();
        self.until(|| async { Ok((self.asks(script).await? == value).then_some(())) })
            .await
            .with_context(|| format!("{script} never came to {value}"))
    }

    /// Opens another window on the same browser, and returns the handle of this one to come back to.
    ///
    /// # Errors
    /// When the browser is gone.
    pub async fn second_window(&self, path: &str) -> Result<WindowHandle> {
        let first = self.browser.window().await?;
        let second = self.browser.new_tab().await?;
        self.browser.switch_to_window(second).await?;
        self.goto(path).await?;
        Ok(first)
    }

    /// Brings a window to the front.
    ///
    /// # Errors
    /// When it was closed.
    pub async fn to_window(&self, window: WindowHandle) -> Result<()> {
        Ok(self.browser.switch_to_window(window).await?)
    }

    /// Looks the page over as it is now for whatever would keep somebody from using it.
    ///
    /// # Errors
    /// When something is found: the rule, and each element that breaks it.
    pub async fn everyone_can_use_it(&self) -> Result<()> {
        let axe = Path::new(env!("CARGO_MANIFEST_DIR")).join(AXE);
        let axe = std::fs::read_to_string(axe).context("axe is missing: run bin/test")?;
        self.browser.execute(axe, vec![]).await?;
        let found = self.browser.execute_async(LOOK_OVER, vec![]).await?;
        let found: Vec<String> = serde_json::from_value(found.json().clone())?;
        if found.is_empty() {
            return Ok(());
        }
        bail!(
            "{} can't be used by all: {}",
            self.address().await?,
            found.join("\n")
        )
    }

    /// Makes the screen `width` pixels wide, also after [`Self::goto`]. A screen of 1280 pixels at 400 % is one of 320.
    ///
    /// # Errors
    /// When the browser can't.
    pub async fn is_as_wide_as(&self, width: u32) -> Result<()> {
        self.width.store(width, Relaxed);
        let screen =
            json!({ "width": width, "height": 844, "deviceScaleFactor": 1, "mobile": false });
        self.tells("Emulation.setDeviceMetricsOverride", screen)
            .await
    }

    /// Gives the page the browser's own few colours, or its own again.
    ///
    /// # Errors
    /// When the browser can't.
    pub async fn has_forced_colours(&self, forced: bool) -> Result<()> {
        let value = if forced { "active" } else { "none" };
        let features = json!({ "features": [{ "name": "forced-colors", "value": value }] });
        self.tells("Emulation.setEmulatedMedia", features).await
    }

    /// Lays the page out as on paper, or as on a screen again.
    ///
    /// # Errors
    /// When the browser can't.
    pub async fn is_on_paper(&self, paper: bool) -> Result<()> {
        let media = if paper { "print" } else { "" };
        self.tells("Emulation.setEmulatedMedia", json!({ "media": media }))
            .await
    }

    /// Prints the page on A4, as a PDF.
    ///
    /// # Errors
    /// When the browser can't.
    pub async fn printed(&self) -> Result<Vec<u8>> {
        let a4 = PrintParameters {
            page: PrintPage {
                width: 21.0,
                height: 29.7,
            },
            ..PrintParameters::default()
        };
        Ok(self.browser.print_page(a4).await?)
    }

    async fn tells(&self, what: &str, how: serde_json::Value) -> Result<()> {
        self.browser.cdp().send_raw(what, how).await?;
        Ok(())
    }

    /// Keeps a picture of the page.
    ///
    /// # Errors
    /// When it can't be written.
    pub async fn picture(&self, file: &Path) -> Result<()> {
        Ok(self.browser.screenshot(file).await?)
    }

    /// Asks again and again until there is an answer, and again where an element was drawn anew between finding and using it.
    async fn until<T, Answer>(&self, mut ask: impl FnMut() -> Answer) -> Result<T>
    where
        Answer: Future<Output = Result<Option<T>>>,
    {
        let deadline = tokio::time::Instant::now() + PATIENCE;
        while tokio::time::Instant::now() < deadline {
            match ask().await {
                Ok(Some(answer)) => return Ok(answer),
                Ok(None) => {}
                Err(error) if is_stale(&error) => {}
                Err(error) => return Err(error),
            }
            tokio::time::sleep(LOOK_EVERY).await;
        }
        let heading = self.texts("main").await.unwrap_or_default();
        bail!("it did not come; the page shows: {}", heading.join(" | "))
    }
}
