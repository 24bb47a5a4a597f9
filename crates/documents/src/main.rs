//! Makes one document and ends: what is asked comes as JSON on its input, the document goes to its output. Asked for
//! `photograph`, it takes a picture there and hands it back as it is kept; for `mark`, a studio's own mark; for `paper`, a line of JSON and
//! the pictures that it is about. Asked to `work`, it makes documents and papers one after another. Asked to `seal` or to `open`, it hands
//! on a backup, sealed with a passphrase or opened; asked to `seal-each` or `open-each`, the pictures beside backups.
//!
//! It is a process of its own, so that a document that fails, or takes too much time or room, takes nothing with it. What it
//! may use is bounded from within, before anything is read.

mod dxf_out;
mod dxf_read;
mod page;
mod papers;
mod pdf;
mod photograph;
mod sealed;
mod setting;
mod svg;
mod worker;

use std::io::{Read as _, Write as _};

use hummock_core::drawing::Drawing;
use rlimit::Resource;
use serde::Deserialize;

/// What is asked for.
#[derive(Debug, Deserialize)]
#[serde(tag = "make", rename_all = "snake_case")]
enum Asked {
    /// Drawings at true scale, and a cut list before them.
    Pdf(pdf::Document),
    /// A drawing as SVG in millimetres.
    Svg {
        /// The drawing.
        drawing: Drawing,
    },
    /// A drawing as DXF R12.
    Dxf {
        /// The drawing.
        drawing: Drawing,
    },
    /// The lines of a DXF file, as JSON.
    ReadDxf {
        /// The file.
        text: String,
    },
}

const MOST_MEMORY: u64 = 1 << 30;
const MOST_SECONDS: u64 = 30;
const LARGEST_QUESTION: u64 = 16 << 20;
/// A paper comes with its photographs.
const LARGEST_PAPER: u64 = 192 << 20;

fn main() {
    match done() {
        Ok(document) => {
            if std::io::stdout().write_all(&document).is_err() {
                std::process::exit(1);
            }
        }
        Err(Failure { code, says }) => {
            eprintln!("{says}");
            std::process::exit(code);
        }
    }
}

/// The reason why no document was made: a sentence, and the number that the process ends with.
struct Failure {
    code: i32,
    says: String,
}

impl From<String> for Failure {
    fn from(says: String) -> Self {
        Self { code: 2, says }
    }
}

impl From<sealed::Trouble> for Failure {
    fn from(trouble: sealed::Trouble) -> Self {
        match trouble {
            sealed::Trouble::Said(says) => says.into(),
            sealed::Trouble::Passphrase => Self {
                code: 3,
                says: "the passphrase is another one".to_owned(),
            },
        }
    }
}

fn done() -> Result<Vec<u8>, Failure> {
    let bound = |resource: Resource, most: u64| {
        rlimit::setrlimit(resource, most, most)
            .map_err(|error| format!("what it may use can't be bounded: {error}"))
    };
    bound(Resource::AS, MOST_MEMORY)?;
    let task = std::env::args().nth(1);
    let handed_on = |way| {
        let (mut from, mut to) = (std::io::stdin().lock(), std::io::stdout().lock());
        sealed::handed_on(way, &mut from, &mut to)?;
        Ok(Vec::new())
    };
    let each_handed_on = |way| {
        let (mut from, mut to) = (std::io::stdin().lock(), std::io::stdout().lock());
        sealed::each_handed_on(way, &mut from, &mut to)?;
        Ok(Vec::new())
    };
    match task.as_deref() {
        // However long a backup is.
        Some("seal") => return handed_on(sealed::Way::Seal),
        Some("open") => return handed_on(sealed::Way::Open),
        Some("seal-each") => return each_handed_on(sealed::Way::Seal),
        Some("open-each") => return each_handed_on(sealed::Way::Open),
        // Its time is bounded with each answer.
        Some("work") => {
            setting::prepare();
            let (mut from, mut to) = (std::io::stdin().lock(), std::io::stdout().lock());
            worker::work(&mut from, &mut to, |task, question| match task {
                worker::Task::Draw => drawn(question),
                worker::Task::Paper => papers::made(question),
            })?;
            return Ok(Vec::new());
        }
        _ => {}
    }
    bound(Resource::CPU, MOST_SECONDS)?;
    let made = match task.as_deref() {
        Some("photograph") => photograph::kept(&whole(LARGEST_QUESTION)?),
        Some("mark") => photograph::mark(&whole(LARGEST_QUESTION)?),
        Some("paper") => papers::made(&whole(LARGEST_PAPER)?),
        _ => drawn(&whole(LARGEST_QUESTION)?),
    };
    Ok(made?)
}

fn drawn(question: &[u8]) -> Result<Vec<u8>, String> {
    let asked: Asked = serde_json::from_slice(question)
        .map_err(|error| format!("the question is not understood: {error}"))?;
    match asked {
        Asked::Pdf(document) => pdf::made(&document),
        Asked::Svg { drawing } => Ok(svg::made(&drawing).into_bytes()),
        Asked::Dxf { drawing } => Ok(dxf_out::made(&drawing)),
        Asked::ReadDxf { text } => dxf_read::read(&text),
    }
}

/// Reads what is asked as it is.
fn whole(largest: u64) -> Result<Vec<u8>, String> {
    let mut question = Vec::new();
    std::io::stdin()
        .take(largest)
        .read_to_end(&mut question)
        .map_err(|error| format!("the question can't be read: {error}"))?;
    Ok(question)
}
