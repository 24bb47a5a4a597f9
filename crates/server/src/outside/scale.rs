//! The scale on the bench: where it is, and one connection to it for all who read it.

use std::{
    sync::{Arc, Mutex, PoisonError},
    time::{Duration, Instant},
};

use axum::{body::Bytes, http::Request};
use http_body_util::{BodyExt as _, Empty};
use hummock_core::weigh::Sample;
use hyper_util::{
    client::legacy::{Client as Http, connect::HttpConnector},
    rt::TokioExecutor,
};
use tokio::{sync::broadcast, time::timeout};

/// The scale, where there is one.
#[derive(Debug, Clone, Default)]
pub(crate) struct Scale {
    pub(super) address: Option<String>,
    /// What it says to all who listen; `None` while nobody does.
    line: Arc<Mutex<Option<broadcast::Sender<Heard>>>>,
}

/// What was heard of it.
#[derive(Debug, Clone)]
pub(super) enum Heard {
    /// A sample, and when: in milliseconds since it was called.
    Sample(u64, Sample),
    /// It is away.
    Nothing,
}

/// A scale that says nothing for so long is away.
const SILENT: Duration = Duration::from_secs(2);
/// It is called again after so long.
const CALLED_AGAIN: Duration = Duration::from_millis(500);
/// No reading is longer.
const LONGEST_LINE: usize = 4096;
/// How many readings wait for a page that is slow; it misses those before them.
const WAITING: usize = 16;

impl Scale {
    /// At an address, where there is one.
    pub(crate) fn at(address: Option<&str>) -> Self {
        Self {
            address: address.map(|address| address.trim_end_matches('/').to_owned()),
            line: Arc::default(),
        }
    }

    /// Listens to it, on the line of whoever listens already.
    pub(super) fn heard(&self) -> broadcast::Receiver<Heard> {
        let mut line = self.line.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(open) = &*line {
            return open.subscribe();
        }
        let (told, heard) = broadcast::channel(WAITING);
        *line = Some(told.clone());
        tokio::spawn(self.clone().follow(told));
        heard
    }

    /// Whether nobody listens any more; the line is closed then, so that the next one calls anew.
    fn is_left(&self, told: &broadcast::Sender<Heard>) -> bool {
        let mut line = self.line.lock().unwrap_or_else(PoisonError::into_inner);
        let left = told.receiver_count() == 0;
        if left {
            *line = None;
        }
        left
    }

    /// Calls it, again and again while it is away, and tells what it says until nobody listens.
    async fn follow(self, told: broadcast::Sender<Heard>) {
        let http: Http<HttpConnector, Empty<Bytes>> =
            Http::builder(TokioExecutor::new()).build_http();
        let begun = Instant::now();
        loop {
            if let Some(address) = &self.address {
                listen(&http, address, begun, &told).await;
            }
            // Nobody may listen any more, which is looked at below.
            let _ = told.send(Heard::Nothing);
            if self.is_left(&told) {
                return;
            }
            tokio::time::sleep(CALLED_AGAIN).await;
        }
    }
}

/// Listens until it says nothing more, or nobody listens.
async fn listen(
    http: &Http<HttpConnector, Empty<Bytes>>,
    address: &str,
    begun: Instant,
    told: &broadcast::Sender<Heard>,
) {
    let Ok(request) = Request::get(format!("{address}/readings")).body(Empty::new()) else {
        return;
    };
    let Ok(Ok(response)) = timeout(SILENT, http.request(request)).await else {
        return;
    };
    if !response.status().is_success() {
        return;
    }
    let mut body = response.into_body();
    let mut line = Vec::new();
    while let Ok(Some(Ok(frame))) = timeout(SILENT, body.frame()).await {
        for byte in frame.into_data().unwrap_or_default() {
            if byte != b'\n' {
                line.push(byte);
                if line.len() > LONGEST_LINE {
                    return;
                }
                continue;
            }
            if let Some(sample) = sample_of(&line) {
                let at = u64::try_from(begun.elapsed().as_millis()).unwrap_or(u64::MAX);
                if told.send(Heard::Sample(at, sample)).is_err() {
                    return;
                }
            }
            line.clear();
        }
    }
}

/// Reads one line of the stream; `None` if it carries no sample.
fn sample_of(line: &[u8]) -> Option<Sample> {
    serde_json::from_slice(line.trim_ascii().strip_prefix(b"data:")?).ok()
}
