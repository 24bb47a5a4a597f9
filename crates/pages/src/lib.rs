//! The web build, carried in the binary. It is a crate of its own so that nothing else waits for it.

use hummock_server::PageFile;
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct WebBuild;

/// Returns a file of the web build.
#[must_use]
pub fn file(path: &str) -> Option<PageFile> {
    WebBuild::get(path).map(PageFile::from)
}
