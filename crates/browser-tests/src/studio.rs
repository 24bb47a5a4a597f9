//! A studio that is served for one test.

use std::{
    mem::ManuallyDrop,
    net::SocketAddr,
    path::{Path, PathBuf},
    time::Duration,
};

use anyhow::{Context, Result, ensure};
use hummock_server::{
    Certificate, Clock, Fill, Listen, Outside, Running, STUDIO, ServeOptions, Waits, import, serve,
};
use hummock_store::Store;
use hummock_test_database::{Database, url_of};
use sqlx::PgPool;
use thirtyfour::{BrowserLogEntry, prelude::*};

use crate::{Line, Page, driver::Driver};

/// The demo studio with a database of its own, and a browser before it.
pub struct Studio {
    options: ServeOptions,
    running: Option<Running>,
    address: SocketAddr,
    standins: Option<hummock_standins::Running>,
    _driver: Driver,
    // Never let go of by itself: the window of a test that failed would wait for a driver that ended with the test.
    browser: ManuallyDrop<WebDriver>,
}

/// The day on which the demo studio's dates are as written.
const TODAY: &str = "2027-03-04";

impl Studio {
    /// Serves the demo studio from the database of a test, and opens its bench.
    ///
    /// # Errors
    /// When the server or the browser does not start.
    pub async fn open(pool: &PgPool) -> Result<Self> {
        Self::sized(pool, 1280, 800).await
    }

    /// The same in a window of another size.
    ///
    /// # Errors
    /// When the server or the browser does not start.
    pub async fn sized(pool: &PgPool, width: u32, height: u32) -> Result<Self> {
        let on_loopback =
            ServeOptions::on_loopback(url_of(&pool.connect_options()), hummock_pages::file);
        Self::serving(on_loopback, width, height).await
    }

    /// Serves the demo studio on the local network too, before a window of the size of a tablet.
    ///
    /// # Errors
    /// When the server or the browser does not start.
    pub async fn open_to_tablets(pool: &PgPool, keys: &Path) -> Result<Self> {
        let options = ServeOptions {
            listen: Some(Listen(([127, 0, 0, 1], 0).into())),
            certificate: Certificate::Studio(keys.to_owned()),
            ..ServeOptions::on_loopback(url_of(&pool.connect_options()), hummock_pages::file)
        };
        Self::serving(options, 1024, 768).await
    }

    /// Serves the demo studio with a scale and a carrier that are none, and opens its bench.
    ///
    /// # Errors
    /// When the server or the browser does not start.
    pub async fn with_standins(pool: &PgPool, width: u32, height: u32) -> Result<Self> {
        let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/tariffs");
        let tariffs = hummock_standins::read_tariffs(&folder)?;
        let standins = hummock_standins::serve(([127, 0, 0, 1], 0).into(), tariffs).await?;
        let options = ServeOptions {
            outside: Outside {
                scale: Some(standins.scale_url()),
                carriers: Some(standins.carrier_url()),
                stand_in: true,
                ..Outside::default()
            },
            ..ServeOptions::on_loopback(url_of(&pool.connect_options()), hummock_pages::file)
        };
        let mut studio = Self::serving(options, width, height).await?;
        studio.standins = Some(standins);
        Ok(studio)
    }

    /// Returns the scale and the carrier.
    ///
    /// # Errors
    /// When it was opened without them.
    pub fn standins(&self) -> Result<&hummock_standins::Running> {
        self.standins.as_ref().context("it was opened with them")
    }

    async fn serving(options: ServeOptions, width: u32, height: u32) -> Result<Self> {
        let options = ServeOptions {
            start_with: demo(),
            clock: Clock::standing_on(TODAY.parse()?),
            // A busy machine is no fault of what is tested.
            waits: Waits {
                answer: Duration::from_secs(60),
                document: Duration::from_secs(59),
                ..Waits::default()
            },
            ..options
        };
        let running = serve(&options).await?;
        let address = running.address();
        let driver = Driver::start().await?;
        let browser = driver.browser(width, height).await?;
        let studio = Self {
            options,
            running: Some(running),
            address,
            standins: None,
            _driver: driver,
            browser: ManuallyDrop::new(browser),
        };
        studio.page().goto("/").await?;
        Ok(studio)
    }

    /// Returns the page in the window that is in front.
    #[must_use]
    pub fn page(&self) -> Page {
        Page::new(
            WebDriver::clone(&self.browser),
            format!("http://{}", self.address),
        )
    }

    /// Returns the page of the same window, as a tablet of the local network opens it.
    ///
    /// # Errors
    /// When it is not open to tablets.
    pub fn tablet(&self) -> Result<Page> {
        let running = self.running.as_ref().context("it is served")?;
        let network = running.network().context("it is open to tablets")?;
        let address = network.addresses.first().context("it has an address")?;
        Ok(Page::new(WebDriver::clone(&self.browser), address.clone()))
    }

    /// Lays a line to the studio, which can be held and cut, and returns it with the page of the same window over it.
    ///
    /// # Errors
    /// When there is no port for it.
    pub async fn over_a_line(&self) -> Result<(Line, Page)> {
        let line = Line::to(self.address).await?;
        let address = format!("http://{}", line.address);
        Ok((line, Page::new(WebDriver::clone(&self.browser), address)))
    }

    /// Returns the passphrase that this start made.
    ///
    /// # Errors
    /// When there was one before.
    pub fn passphrase(&self) -> Result<String> {
        let network = self.running.as_ref().and_then(Running::network);
        let made = network.and_then(|network| network.first_passphrase.clone());
        made.context("a passphrase was made")
    }

    /// Stops serving, as when the machine under the bench goes to sleep.
    ///
    /// # Errors
    /// When serving had failed.
    pub async fn go_away(&mut self) -> Result<()> {
        match self.running.take() {
            Some(running) => running.stop().await,
            None => Ok(()),
        }
    }

    /// Serves again at the same address.
    ///
    /// # Errors
    /// When the address was taken meanwhile.
    pub async fn come_back(&mut self) -> Result<()> {
        let options = ServeOptions {
            address: self.address,
            ..self.options.clone()
        };
        self.running = Some(serve(&options).await?);
        Ok(())
    }

    /// Lets days go by: it serves again at the same address, on another day.
    ///
    /// # Errors
    /// When that is no day, or the address was taken meanwhile.
    pub async fn comes_to_the(&mut self, day: &str) -> Result<()> {
        self.go_away().await?;
        self.options.clock = Clock::standing_on(day.parse()?);
        self.come_back().await
    }

    /// Serves an empty studio at the same address, as on a new machine; the window stays open.
    ///
    /// # Errors
    /// When the database is away, or the address was taken meanwhile.
    pub async fn starts_anew(&mut self, pool: &PgPool) -> Result<()> {
        self.go_away().await?;
        sqlx::query("DELETE FROM studio").execute(pool).await?;
        self.options.fill = Fill::NoShipments;
        self.come_back().await
    }

    /// Closes the browser, which found nothing to complain of.
    ///
    /// # Errors
    /// When it had gone already, or complained in any of its windows.
    pub async fn close(self) -> Result<()> {
        let mut complaints = Vec::new();
        for window in self.browser.windows().await? {
            self.browser.switch_to_window(window).await?;
            let log = self.browser.browser_log().await?;
            // That a request was refused or unanswered is what many tests are about; the page says so itself.
            // A browser without a graphics card says by itself how slow it is.
            let own = |entry: &BrowserLogEntry| {
                entry.source.as_deref() != Some("network")
                    && !entry
                        .message
                        .contains("GL Driver Message (OpenGL, Performance")
            };
            complaints.extend(log.into_iter().filter(own).map(|entry| entry.message));
        }
        ManuallyDrop::into_inner(self.browser).quit().await?;
        ensure!(
            complaints.is_empty(),
            "the browser complained: {}",
            complaints.join("\n")
        );
        Ok(())
    }
}

/// Makes a database for one test, with the demo studio in it.
///
/// # Panics
/// When PostgreSQL or the demo studio is missing: run bin/test.
pub async fn with_the_demo_studio() -> Database {
    Database::like("pages", async |url: String| {
        let store = Store::open(&url, Waits::default().database).await;
        let store = store.expect("PostgreSQL");
        let today = Clock::standing_on(TODAY.parse().expect("a day"));
        let imported = import(&store, STUDIO, &demo(), Fill::WithoutLog, today).await;
        assert!(imported.expect("the demo studio").created);
        store.close().await;
    })
    .await
}

fn demo() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo")
}
