//! The line between a browser and the studio: a part of what is asked can be held, as by a server that hangs, or cut off.

use std::net::SocketAddr;

use anyhow::Result;
use tokio::{
    io::{AsyncReadExt, AsyncWriteExt},
    net::{TcpListener, TcpStream},
    sync::watch,
    task::JoinHandle,
};

/// What becomes of requests.
#[derive(Debug, Clone, PartialEq, Eq)]
enum Fate {
    /// They go through.
    Pass,
    /// Those that name a text wait until the line is opened.
    Hold(String),
    /// The line of those that name a text breaks.
    Cut(String),
}

/// A line to the studio, at an address of its own; it ends with this value.
#[derive(Debug)]
pub struct Line {
    pub(crate) address: SocketAddr,
    fate: watch::Sender<Fate>,
    listening: JoinHandle<()>,
}

impl Drop for Line {
    fn drop(&mut self) {
        self.listening.abort();
    }
}

impl Line {
    /// Lays a line to an address.
    pub(crate) async fn to(server: SocketAddr) -> Result<Self> {
        let listener = TcpListener::bind(("127.0.0.1", 0)).await?;
        let address = listener.local_addr()?;
        let (fate, watched) = watch::channel(Fate::Pass);
        let listening = tokio::spawn(async move {
            while let Ok((browser, _)) = listener.accept().await {
                // A line that breaks is what some tests are about.
                tokio::spawn(carry(browser, server, watched.clone()));
            }
        });
        Ok(Self {
            address,
            fate,
            listening,
        })
    }

    /// Holds every request that names a text, as a server does that was stopped: it is taken and not answered.
    pub fn hold(&self, named: &str) {
        self.fate.send_replace(Fate::Hold(named.to_owned()));
    }

    /// Breaks the line of every request that names a text.
    pub fn cut(&self, named: &str) {
        self.fate.send_replace(Fate::Cut(named.to_owned()));
    }

    /// Lets everything through, what was held first.
    pub fn open(&self) {
        self.fate.send_replace(Fate::Pass);
    }
}

/// Carries what a browser asks, as its fate is, and what is answered.
async fn carry(
    browser: TcpStream,
    server: SocketAddr,
    mut fate: watch::Receiver<Fate>,
) -> Result<()> {
    let studio = TcpStream::connect(server).await?;
    let (mut asked, mut answered) = browser.into_split();
    let (mut answers, mut asks) = studio.into_split();
    let back = tokio::spawn(async move { tokio::io::copy(&mut answers, &mut answered).await });
    let mut bytes = vec![0; 1 << 16];
    let told = loop {
        let read = asked.read(&mut bytes).await?;
        let Some(request) = bytes.get(..read).filter(|request| !request.is_empty()) else {
            break Ok(());
        };
        let names = |text: &str| String::from_utf8_lossy(request).contains(text);
        let passes = |fate: &Fate| !matches!(fate, Fate::Hold(text) if names(text));
        let cut = matches!(&*fate.wait_for(passes).await?, Fate::Cut(text) if names(text));
        if cut {
            break Ok(());
        }
        asks.write_all(request).await?;
    };
    back.abort();
    told
}
