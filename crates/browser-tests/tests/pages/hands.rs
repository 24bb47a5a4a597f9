//! What a person's hands do with a page, counted.

use anyhow::{Context as _, Result};
use hummock_browser_tests::Page;

/// The one verb of the foot.
pub(crate) const VERB: &str = "[data-test='verb']";

/// Presses the verb of the foot once it says so.
pub(crate) async fn on(page: &Page, says: &str) -> Result<()> {
    page.sees(VERB, says)
        .await
        .with_context(|| format!("the foot never said \"{says}\""))?;
    page.press(VERB).await
}

/// What somebody does with a page, counted: each press, each field that is typed into, each choice.
pub(crate) struct Hands<'a> {
    pub(crate) page: &'a Page,
    /// Fields that were typed into or chosen in.
    pub(crate) fields: u32,
    pub(crate) presses: u32,
}

impl<'a> Hands<'a> {
    pub(crate) const fn on(page: &'a Page) -> Self {
        Self {
            page,
            fields: 0,
            presses: 0,
        }
    }

    /// Everything that was done.
    pub(crate) const fn acts(&self) -> u32 {
        self.fields + self.presses
    }

    pub(crate) async fn press(&mut self, name: &str) -> Result<()> {
        self.presses += 1;
        self.page.press_called(name).await
    }

    pub(crate) async fn choose(&mut self, field: &str, value: &str) -> Result<()> {
        self.fields += 1;
        self.page.choose(field, value).await
    }

    pub(crate) async fn fill(&mut self, field: &str, text: &str) -> Result<()> {
        self.fields += 1;
        self.page.fill(field, text).await
    }

    /// Fills the parts of an address in turn; a region is chosen.
    pub(crate) async fn fill_each(&mut self, of: &str, parts: &[(&str, &str)]) -> Result<()> {
        for (part, text) in parts {
            let field = format!("{of}.{part}");
            match *part {
                "region" => self.choose(&field, text).await?,
                _ => self.fill(&field, text).await?,
            }
        }
        Ok(())
    }

    pub(crate) async fn set_day(&mut self, field: &str, day: &str) -> Result<()> {
        self.fields += 1;
        self.page.set_day(field, day).await
    }

    pub(crate) async fn press_at(&mut self, css: &str) -> Result<()> {
        self.presses += 1;
        self.page.press(css).await
    }

    /// Presses the verb of the foot once it says so.
    pub(crate) async fn goes_on(&mut self, says: &str) -> Result<()> {
        self.presses += 1;
        on(self.page, says).await
    }

    pub(crate) async fn type_into(&mut self, field: &str, text: &str) -> Result<()> {
        self.fields += 1;
        self.page.type_into(field, text).await
    }

    /// Answers every look of the packing list that is still asked for, a press each.
    pub(crate) async fn answer_looks(&mut self) -> Result<()> {
        let next = "const box = [...document.querySelectorAll('[aria-label=\"All steps\"] input')].find((box) => !box.checked);
                    if (box) box.click();
                    return Boolean(box);";
        while self.page.asks(next).await? == true {
            self.presses += 1;
            self.page.is_saved().await?;
        }
        Ok(())
    }
}
