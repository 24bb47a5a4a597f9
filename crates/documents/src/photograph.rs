//! A photograph as it is kept: looked at before anything is decoded, turned upright, without what says where it was taken, and
//! no larger than what is looked at later.

use std::io::Cursor;

use image::{
    DynamicImage, ImageDecoder as _, ImageEncoder as _, ImageFormat, ImageReader, Limits,
    codecs::jpeg::JpegEncoder, metadata::Orientation,
};
use serde::Serialize;

/// More points are a bomb, or a picture that nobody needs for the record of a parcel.
const MOST_POINTS: u64 = 50_000_000;
/// The longer side of what is kept.
const LONGEST_SIDE: u32 = 4096;
/// What a decoder may take besides: three bytes for each of the most points, and half as much again.
const MOST_MEMORY: u64 = 256 << 20;
const QUALITY: u8 = 85;
/// A colour profile that is larger is no profile.
const LARGEST_PROFILE: usize = 64 << 10;

const NO_PICTURE: &str = "it is no JPEG, PNG or WebP picture: take it again, or save it as JPEG";
const BREAKS_OFF: &str = "the picture breaks off: it did not arrive whole, or the file is damaged";

/// What was made, written before the picture on a line of its own.
#[derive(Debug, Serialize)]
struct Made {
    width: u32,
    height: u32,
}

/// Returns a line that says how large it is, and the picture as JPEG.
///
/// # Errors
/// A sentence: it is no picture, has too many points, or breaks off.
pub(crate) fn kept(file: &[u8]) -> Result<Vec<u8>, String> {
    let (mut picture, profile) = read(file)?;
    if picture.width().max(picture.height()) > LONGEST_SIDE {
        picture = picture.thumbnail(LONGEST_SIDE, LONGEST_SIDE);
    }
    let picture = picture.into_rgb8();
    let made = Made {
        width: picture.width(),
        height: picture.height(),
    };
    let mut written =
        serde_json::to_vec(&made).map_err(|error| format!("it can't be written: {error}"))?;
    written.push(b'\n');
    let mut encoder = JpegEncoder::new_with_quality(&mut written, QUALITY);
    if let Some(profile) = profile {
        // Without its profile a tablet's red is duller; a picture stands without one too.
        let _ = encoder.set_icc_profile(profile);
    }
    picture
        .write_with_encoder(encoder)
        .map_err(|error| format!("it can't be written: {error}"))?;
    Ok(written)
}

/// Reads a picture, looked at before anything of it is decoded, and turned upright; with its colour profile, where it has one.
fn read(file: &[u8]) -> Result<(DynamicImage, Option<Vec<u8>>), String> {
    let reader = ImageReader::new(Cursor::new(file))
        .with_guessed_format()
        .map_err(|_| NO_PICTURE)?;
    let format = reader.format().ok_or(NO_PICTURE)?;
    if !matches!(
        format,
        ImageFormat::Jpeg | ImageFormat::Png | ImageFormat::WebP
    ) {
        return Err(NO_PICTURE.to_owned());
    }
    let mut reader = reader;
    let mut limits = Limits::default();
    limits.max_alloc = Some(MOST_MEMORY);
    reader.limits(limits);
    let mut decoder = reader.into_decoder().map_err(|_| BREAKS_OFF)?;
    let (width, height) = decoder.dimensions();
    if u64::from(width) * u64::from(height) > MOST_POINTS {
        return Err(format!(
            "it has {width} × {height} points: send at most {} million",
            MOST_POINTS / 1_000_000
        ));
    }
    // Decoders of JPEG fill what is missing with grey.
    if format == ImageFormat::Jpeg && !ends(file) {
        return Err(BREAKS_OFF.to_owned());
    }
    let upright = decoder.orientation().unwrap_or(Orientation::NoTransforms);
    let profile = decoder
        .icc_profile()
        .ok()
        .flatten()
        .filter(|profile| profile.len() <= LARGEST_PROFILE);
    let mut picture = DynamicImage::from_decoder(decoder).map_err(|_| BREAKS_OFF)?;
    picture.apply_orientation(upright);
    Ok((picture, profile))
}

/// The longer side of a studio's own mark.
const LONGEST_MARK: u32 = 1000;

/// Returns a studio's own mark as PNG, its clear parts clear.
///
/// # Errors
/// As [`kept`].
pub(crate) fn mark(file: &[u8]) -> Result<Vec<u8>, String> {
    let (picture, ..) = read(file)?;
    let picture = match picture.width().max(picture.height()) > LONGEST_MARK {
        true => picture.thumbnail(LONGEST_MARK, LONGEST_MARK),
        false => picture,
    };
    let mut written = Cursor::new(Vec::new());
    picture
        .into_rgba8()
        .write_to(&mut written, ImageFormat::Png)
        .map_err(|error| format!("it can't be written: {error}"))?;
    Ok(written.into_inner())
}

/// Tells whether a JPEG has its end after the last of its scans began; a thumbnail inside has an end of its own before that.
fn ends(file: &[u8]) -> bool {
    const MARK: u8 = 0xFF;
    const START_OF_SCAN: u8 = 0xDA;
    const END: u8 = 0xD9;
    let mut at = 2;
    while let Some([MARK, kind, high, low]) = file.get(at..at + 4) {
        if *kind == START_OF_SCAN {
            return file[at..].windows(2).any(|two| two == [MARK, END]);
        }
        at += 2 + usize::from(u16::from_be_bytes([*high, *low]));
    }
    false
}
