//! The papers of a parcel as PDF. What each says comes from the core as plain words; a template sets it.

use std::{io::Cursor, thread};

use image::{ImageReader, codecs::jpeg::JpegEncoder};
use serde::Deserialize;
use serde_json::Value;

use crate::page::Page;

/// What is printed.
#[derive(Debug, Deserialize)]
pub(crate) struct Document {
    /// Which paper.
    paper: Paper,
    /// What it says.
    says: Value,
    /// How many pictures follow the question: photographs, and before them the studio's own mark, where the question says so.
    #[serde(default)]
    pictures: usize,
    /// On what.
    #[serde(default)]
    page: Page,
}

/// Which paper.
#[derive(Debug, Clone, Copy, Deserialize)]
#[serde(rename_all = "snake_case")]
enum Paper {
    PackSheet,
    UnpackingGuide,
    Label,
    Marks,
    Slip,
    Certificate,
    Condition,
    Addresses,
    ThankYou,
    Customs,
    HandOver,
    Materials,
    Crating,
    Claim,
}

impl Paper {
    const fn template(self) -> &'static str {
        match self {
            Self::PackSheet => include_str!("papers/pack_sheet.typ"),
            Self::UnpackingGuide => include_str!("papers/unpacking_guide.typ"),
            Self::Label => include_str!("papers/label.typ"),
            Self::Marks => include_str!("papers/marks.typ"),
            Self::Slip => include_str!("papers/slip.typ"),
            Self::Certificate => include_str!("papers/certificate.typ"),
            Self::Condition => include_str!("papers/condition.typ"),
            Self::Addresses => include_str!("papers/addresses.typ"),
            Self::ThankYou => include_str!("papers/thank_you.typ"),
            Self::Customs => include_str!("papers/customs.typ"),
            Self::HandOver => include_str!("papers/hand_over.typ"),
            Self::Materials => include_str!("papers/materials.typ"),
            Self::Crating => include_str!("papers/crating.typ"),
            Self::Claim => include_str!("papers/claim.typ"),
        }
    }
}

/// A printed photograph is half a page wide at most: this is over 250 points an inch there.
const LONGEST_SIDE: u32 = 900;
const QUALITY: u8 = 80;
const MOST_PICTURES: usize = 60;

/// Reads a question with the pictures that follow it, each with its length before it, and returns the document.
///
/// # Errors
/// A sentence, where it breaks off, a picture is none, or it can't be set.
pub(crate) fn made(question: &[u8]) -> Result<Vec<u8>, String> {
    let end = question.iter().position(|byte| *byte == b'\n');
    let (asked, mut rest) = question.split_at(end.unwrap_or(question.len()));
    let document: Document = serde_json::from_slice(asked)
        .map_err(|error| format!("the question is not understood: {error}"))?;
    if document.pictures > MOST_PICTURES {
        return Err(format!(
            "there are {}; at most {MOST_PICTURES} are printed",
            document.pictures
        ));
    }
    rest = rest.get(1..).unwrap_or_default();
    let mut pictures = Vec::with_capacity(document.pictures);
    for _ in 0..document.pictures {
        let (length, after) = rest.split_first_chunk().ok_or("the pictures break off")?;
        let length = usize::try_from(u32::from_be_bytes(*length)).map_err(|_| "it is too long")?;
        let (picture, after) = after
            .split_at_checked(length)
            .ok_or("a picture breaks off")?;
        pictures.push(picture);
        rest = after;
    }
    let data = serde_json::to_vec(&document.says).map_err(|error| error.to_string())?;
    let mut files = vec![("data.json".to_owned(), data), document.page.file()?];
    files.extend(
        smaller(&pictures)?
            .into_iter()
            .enumerate()
            .map(|(at, picture)| (format!("picture-{at}"), picture)),
    );
    crate::setting::set(document.paper.template(), files)
}

/// Makes photographs as small as print needs them, on every core; a PNG, which has clear parts, stays.
fn smaller(pictures: &[&[u8]]) -> Result<Vec<Vec<u8>>, String> {
    let cores = thread::available_parallelism().map_or(1, usize::from);
    let share = pictures.len().div_ceil(cores).max(1);
    let made: Result<Vec<Vec<Vec<u8>>>, String> = thread::scope(|scope| {
        let parts: Vec<_> = pictures
            .chunks(share)
            .map(|part| {
                scope.spawn(move || {
                    part.iter()
                        .copied()
                        .map(one_smaller)
                        .collect::<Result<Vec<_>, _>>()
                })
            })
            .collect();
        let joined = parts.into_iter().map(|part| {
            part.join()
                .unwrap_or_else(|_| Err("a picture can't be read".to_owned()))
        });
        joined.collect()
    });
    Ok(made?.into_iter().flatten().collect())
}

fn one_smaller(picture: &[u8]) -> Result<Vec<u8>, String> {
    let unread = |error: image::ImageError| format!("a picture can't be read: {error}");
    let reader = ImageReader::new(Cursor::new(picture))
        .with_guessed_format()
        .map_err(|error| format!("a picture can't be read: {error}"))?;
    if reader.format() == Some(image::ImageFormat::Png) {
        return Ok(picture.to_vec());
    }
    let read = reader.decode().map_err(unread)?;
    if read.width().max(read.height()) <= LONGEST_SIDE {
        return Ok(picture.to_vec());
    }
    let mut written = Vec::new();
    let encoder = JpegEncoder::new_with_quality(&mut written, QUALITY);
    read.thumbnail(LONGEST_SIDE, LONGEST_SIDE)
        .into_rgb8()
        .write_with_encoder(encoder)
        .map_err(unread)?;
    Ok(written)
}
