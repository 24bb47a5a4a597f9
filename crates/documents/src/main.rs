//! Makes one document and ends: what is asked comes as JSON on its input, the document goes to its output. Asked for
//! `photograph`, it takes a picture there and hands it back as it is kept.
//!
//! It is a process of its own, so that a document that fails, or takes too much time or room, takes nothing with it. What it
//! may use is bounded from within, before anything is read.

mod dxf_out;
mod dxf_read;
mod pack_sheet;
mod pdf;
mod photograph;
mod svg;
mod unpacking;

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
    /// The steps of packing one parcel.
    PackSheet(pack_sheet::Document),
    /// How a parcel is unpacked, for whoever gets it.
    UnpackingGuide(unpacking::Document),
    /// A drawing as SVG in millimetres.
    Svg {
        /// Which.
        drawing: Drawing,
    },
    /// A drawing as DXF R12.
    Dxf {
        /// Which.
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

fn main() {
    match make() {
        Ok(document) => {
            if std::io::stdout().write_all(&document).is_err() {
                std::process::exit(1);
            }
        }
        Err(why) => {
            eprintln!("{why}");
            std::process::exit(2);
        }
    }
}

fn make() -> Result<Vec<u8>, String> {
    let bound = |resource: Resource, most: u64| {
        rlimit::setrlimit(resource, most, most)
            .map_err(|error| format!("what it may use can't be bounded: {error}"))
    };
    bound(Resource::AS, MOST_MEMORY)?;
    bound(Resource::CPU, MOST_SECONDS)?;
    // A photograph comes as it is.
    if std::env::args().nth(1).as_deref() == Some("photograph") {
        let mut file = Vec::new();
        std::io::stdin()
            .take(LARGEST_QUESTION)
            .read_to_end(&mut file)
            .map_err(|error| format!("the photograph can't be read: {error}"))?;
        return photograph::kept(&file);
    }
    let mut question = String::new();
    std::io::stdin()
        .take(LARGEST_QUESTION)
        .read_to_string(&mut question)
        .map_err(|error| format!("the question can't be read: {error}"))?;
    let asked: Asked = serde_json::from_str(&question)
        .map_err(|error| format!("the question is not understood: {error}"))?;
    match asked {
        Asked::Pdf(document) => pdf::made(&document),
        Asked::PackSheet(document) => pack_sheet::made(&document),
        Asked::UnpackingGuide(document) => unpacking::made(&document),
        Asked::Svg { drawing } => Ok(svg::made(&drawing).into_bytes()),
        Asked::Dxf { drawing } => dxf_out::made(&drawing),
        Asked::ReadDxf { text } => dxf_read::read(&text),
    }
}
