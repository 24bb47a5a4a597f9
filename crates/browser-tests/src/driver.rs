//! `ChromeDriver` and headless Chromium.

use std::{process::Stdio, time::Duration};

use anyhow::{Context, Result, bail};
use serde_json::json;
use thirtyfour::{LoggingPrefsLogLevel, prelude::*};
use tokio::{
    io::{AsyncBufReadExt, BufReader},
    process::{Child, Command},
};

const STARTED_ON: &str = "started successfully on port ";
/// A port that was free a moment ago is not always free.
const MOST_STARTS: u32 = 3;
/// Nothing that a browser is asked to do takes longer, on a machine that other work shares: looking a long page over for everything
/// that could keep somebody from using it has taken twenty seconds. Nor does a test that failed wait longer for it to go.
const LONGEST_ACT: Duration = Duration::from_secs(60);
/// A narrower window is the screen of a phone.
const NARROWEST_WINDOW: u32 = 500;
/// Chromium without its windows, which uses half the processor of the whole one. The program itself: a driver that is told of
/// the script on the path ends the script, and leaves the browser running.
const BROWSER: &str = "/usr/lib/chromium/chromium-headless-shell";
const ARGUMENTS: [&str; 10] = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-dev-shm-usage",
    "--hide-scrollbars",
    // Draws in space without a graphics card.
    "--enable-unsafe-swiftshader",
];

/// A `ChromeDriver` on a port of its own; it ends with this value.
pub(crate) struct Driver {
    port: u16,
    process: Child,
}

impl Drop for Driver {
    /// The browser of a test that failed is still open, and would outlive its driver.
    fn drop(&mut self) {
        if let Some(id) = self.process.id() {
            let of_it = ["-KILL", "-P", &id.to_string()];
            // There is none to end after a test that passed.
            let _ = std::process::Command::new("pkill").args(of_it).status();
        }
    }
}

impl Driver {
    /// Starts one; where another took the port that it had picked, it picks again.
    pub(crate) async fn start() -> Result<Self> {
        for _ in 1..MOST_STARTS {
            if let Ok(driver) = Self::start_once().await {
                return Ok(driver);
            }
        }
        Self::start_once().await
    }

    async fn start_once() -> Result<Self> {
        let mut process = Command::new("chromedriver")
            .arg("--port=0")
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .kill_on_drop(true)
            .spawn()
            .context("chromedriver is missing: run bin/test")?;
        let output = process.stdout.take().context("its output is read")?;
        let mut lines = BufReader::new(output).lines();
        while let Some(line) = lines.next_line().await? {
            let Some((_, port)) = line.split_once(STARTED_ON) else {
                continue;
            };
            let port = port.trim_end_matches('.').parse()?;
            // Whatever else it prints is read, so that it never waits for a reader.
            tokio::spawn(async move { while let Ok(Some(_)) = lines.next_line().await {} });
            return Ok(Self { port, process });
        }
        bail!("chromedriver ended before it listened")
    }

    /// Opens a window of the given size in a browser with no history.
    pub(crate) async fn browser(&self, width: u32, height: u32) -> Result<WebDriver> {
        let mut wanted = DesiredCapabilities::chrome();
        for argument in ARGUMENTS {
            wanted.add_arg(argument)?;
        }
        if width < NARROWEST_WINDOW {
            let screen =
                json!({ "width": width, "height": height, "pixelRatio": 1, "touch": true });
            wanted
                .add_experimental_option("mobileEmulation", json!({ "deviceMetrics": screen }))?;
        }
        wanted.add_arg(&format!("--window-size={width},{height}"))?;
        wanted.add_arg("--lang=en-GB")?;
        wanted.set_binary(BROWSER)?;
        // As whoever goes on past the warning, before the studio's certificate is installed.
        wanted.accept_insecure_certs(true)?;
        wanted.set_browser_log_level(LoggingPrefsLogLevel::Warning)?;
        let address = format!("http://127.0.0.1:{}", self.port);
        let browser = WebDriver::builder(address, wanted).request_timeout(LONGEST_ACT);
        Ok(browser.await?)
    }
}
