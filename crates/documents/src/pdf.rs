//! Drawings at true scale as PDF: each on one page, or on tiles with register marks and a bar to check the printer by.

use hummock_core::drawing::{Drawing, LineKind};
use serde::{Deserialize, Serialize};

use crate::{page::Page, setting::set};

/// What is printed.
#[derive(Debug, Deserialize)]
pub(crate) struct Document {
    /// Whose it is.
    studio: String,
    /// A cut list that comes first; `None` if there is none.
    #[serde(default)]
    list: Vec<List>,
    /// Each at true scale.
    drawings: Vec<Drawing>,
    /// Each on how large a page.
    paper: Paper,
    /// What the studio prints on.
    #[serde(default)]
    page: Page,
}

/// A list of cuts and parts.
#[derive(Debug, Serialize, Deserialize)]
struct List {
    title: String,
    says: String,
    cuts: Vec<String>,
    parts: Vec<[String; 3]>,
}

/// The paper.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
enum Paper {
    /// One page as large as the drawing.
    Sheet,
    A4,
    A3,
    Letter,
    Tabloid,
}

/// What the template reads.
#[derive(Serialize)]
struct Told<'a> {
    studio: &'a str,
    list: &'a [List],
    kinds: Vec<Kind>,
    drawings: Vec<Pages<'a>>,
}

#[derive(Serialize)]
struct Kind {
    key: LineKind,
    name: &'static str,
    dashes: &'static [f64],
}

#[derive(Serialize)]
struct Pages<'a> {
    drawing: &'a Drawing,
    /// Across and up, in millimetres, the whole page.
    page: [f64; 2],
    /// Each tile's lower left corner on the drawing, with its name.
    tiles: Vec<Tile>,
    /// What of the drawing a tile shows.
    shows: [f64; 2],
    /// Crosses that lie over each other where tiles overlap.
    marks: Vec<[f64; 2]>,
}

#[derive(Serialize)]
struct Tile {
    at: [f64; 2],
    name: String,
}

const TEMPLATE: &str = include_str!("drawings.typ");
/// White around a drawing, and the strip with its name and bar below it.
const MARGIN: f64 = 10.0;
const FOOT: f64 = 22.0;
/// Two tiles show so much of the same.
const OVERLAP: f64 = 10.0;
/// The narrowest page that its name and bar go on.
const NARROWEST: f64 = 180.0;
const MOST_TILES: usize = 200;

const fn name_of(kind: LineKind) -> &'static str {
    match kind {
        LineKind::Cut => "cut",
        LineKind::ScoreToward => "score, fold toward you",
        LineKind::ScoreAway => "score, fold away",
        LineKind::Sheet => "edge of the sheet",
        LineKind::Rest => "kept of the rest",
    }
}

/// Returns the document.
///
/// # Errors
/// A sentence, where it would have too many pages, or where it can't be set.
pub(crate) fn made(document: &Document) -> Result<Vec<u8>, String> {
    let drawings: Vec<Pages<'_>> = document
        .drawings
        .iter()
        .map(|drawing| pages(drawing, document.paper))
        .collect();
    let tiles: usize = drawings.iter().map(|pages| pages.tiles.len()).sum();
    if tiles > MOST_TILES {
        return Err(format!(
            "it would take {tiles} pages: print it on a larger paper, or as one sheet"
        ));
    }
    let told = Told {
        studio: &document.studio,
        list: &document.list,
        kinds: LineKind::ALL
            .into_iter()
            .map(|key| Kind {
                key,
                name: name_of(key),
                dashes: key.dashes(),
            })
            .collect(),
        drawings,
    };
    let data = serde_json::to_vec(&told).map_err(|error| error.to_string())?;
    set(
        TEMPLATE,
        vec![("data.json".to_owned(), data), document.page.file()?],
    )
}

fn pages(drawing: &Drawing, paper: Paper) -> Pages<'_> {
    let (width, height) = (drawing.width, drawing.height);
    let sizes: &[[f64; 2]] = match paper {
        Paper::Sheet => {
            let page = [
                (width + MARGIN * 2.0).max(NARROWEST),
                height + MARGIN * 2.0 + FOOT,
            ];
            return Pages {
                drawing,
                page,
                tiles: vec![Tile {
                    at: [0.0, 0.0],
                    name: String::new(),
                }],
                shows: [width, height],
                marks: Vec::new(),
            };
        }
        Paper::A4 => &[[210.0, 297.0], [297.0, 210.0]],
        Paper::A3 => &[[297.0, 420.0], [420.0, 297.0]],
        Paper::Letter => &[[215.9, 279.4], [279.4, 215.9]],
        Paper::Tabloid => &[[279.4, 431.8], [431.8, 279.4]],
    };
    let tiled = |page: &[f64; 2]| {
        let shows = [page[0] - MARGIN * 2.0, page[1] - MARGIN * 2.0 - FOOT];
        let across = count(width, shows[0]);
        let up = count(height, shows[1]);
        (*page, shows, across, up)
    };
    let best = sizes
        .iter()
        .map(tiled)
        .min_by_key(|(.., across, up)| across * up);
    let Some((page, shows, across, up)) = best else {
        unreachable!("there are two ways to turn a page")
    };
    let step = [shows[0] - OVERLAP, shows[1] - OVERLAP];
    let at = |steps: u32, side: usize| f64::from(steps) * step[side];
    // From the upper left, row by row, as one lays them out.
    let tiles = (0..up)
        .rev()
        .flat_map(|row| (0..across).map(move |column| (column, row)))
        .map(|(column, row)| Tile {
            at: [at(column, 0), at(row, 1)],
            name: format!(
                "row {} of {up}, column {} of {across}",
                up - row,
                column + 1
            ),
        })
        .collect();
    let marks = (0..=across)
        .flat_map(|column| (0..=up).map(move |row| (column, row)))
        .map(|(column, row)| [at(column, 0) + OVERLAP / 2.0, at(row, 1) + OVERLAP / 2.0])
        .collect();
    Pages {
        drawing,
        page,
        tiles,
        shows,
        marks,
    }
}

/// How many tiles a side takes.
fn count(side: f64, shows: f64) -> u32 {
    let steps = ((side - OVERLAP) / (shows - OVERLAP)).ceil().max(1.0);
    #[allow(
        clippy::cast_possible_truncation,
        clippy::cast_sign_loss,
        reason = "a drawing is a few metres long, and it is at least one"
    )]
    let steps = steps as u32;
    steps
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn tiles_cover_the_drawing_with_their_overlap() {
        // A4 shows 190 × 255 upright: 1709 takes (1709 − 10)/180 = 9.4 → 10 across, 662 (662 − 10)/245 = 2.7 → 3 up, 30 in
        // all; lying it shows 277 × 168: 7 by 5, 35.
        let drawing = Drawing {
            title: String::new(),
            says: String::new(),
            width: 1709.0,
            height: 662.0,
            lines: Vec::new(),
            texts: Vec::new(),
        };
        let found = pages(&drawing, Paper::A4);
        assert_eq!((found.tiles.len(), found.page), (30, [210.0, 297.0]));
        let [wide, high] = found.shows;
        let reach = |side: usize, shows: f64| {
            let last = found
                .tiles
                .iter()
                .map(|tile| tile.at[side])
                .fold(0.0, f64::max);
            last + shows
        };
        assert!(reach(0, wide) >= 1709.0 && reach(1, high) >= 662.0);
        assert_eq!(pages(&drawing, Paper::Sheet).page, [1729.0, 704.0]);
    }
}
