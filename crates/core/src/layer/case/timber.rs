//! Battens and faces of a travel case: which ones reach, and from what lengths they are sawn.

use serde::Serialize;

use crate::{
    material::{Batten, Board, Catalogue},
    part::PartId,
    quantity::{Length, ceil_count},
};

/// Battens of one length.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SawnBatten {
    /// What they are in the frame.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub name: PartId,
    /// Which batten of the shelf.
    pub of: String,
    /// How long each is.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// How many.
    pub count: u32,
}

/// A stock length, and what is sawn from it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StockLength {
    /// Which batten of the shelf.
    pub of: String,
    /// How long it is.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// How high it is.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Where it is sawn, as running distances from one end.
    pub cuts_mm: Vec<Length>,
    /// What is left of it.
    #[serde(rename = "left_mm")]
    pub left: Length,
}

/// What a saw takes away at each cut.
const KERF: Length = Length::mm(3.0);
/// Up to this long side thin battens are stiff enough. Source: house rule.
const THIN_TO: Length = Length::mm(1200.0);
/// A batten of this thickness or more is a thick one.
const THICK: Length = Length::mm(22.0);
/// Returns the stock lengths that parts are sawn from, the longest first into the first that still takes it; `None` where one is longer
/// than a stock length. Source: public engineering practice (first fit, decreasing).
#[must_use]
pub fn sawn(parts: &[Length], stock: Length) -> Option<Vec<Vec<Length>>> {
    let mut parts = parts.to_vec();
    parts.sort_unstable_by(|one, other| other.cmp(one));
    let mut lengths: Vec<(Length, Vec<Length>)> = Vec::new();
    for part in parts {
        if part > stock {
            return None;
        }
        // The last part of a length may end where the length does.
        let takes = |used: Length| used + part <= stock;
        match lengths.iter_mut().find(|(used, _)| takes(*used)) {
            Some((used, cuts)) => {
                *used += part + KERF;
                cuts.push(part);
            }
            None => lengths.push((part + KERF, vec![part])),
        }
    }
    Some(lengths.into_iter().map(|(_, cuts)| cuts).collect())
}

/// Returns how many stock lengths parts take at least: each part and its cut, in all, against a length and one cut; and those longer than
/// half a length never share one. Source: public engineering practice (the one-dimensional bound).
#[must_use]
pub fn least_lengths(parts: &[Length], stock: Length) -> u32 {
    let all: Length = parts.iter().map(|part| *part + KERF).sum();
    let long = parts.iter().filter(|part| (**part * 2.0 + KERF) > stock);
    ceil_count(all / (stock + KERF)).max(u32::try_from(long.count()).unwrap_or(u32::MAX))
}

/// The battens of a side of the frame, one upon the other: the lowest that is high enough, of them a thick one past a long side, and a thin
/// one up to it. Where none is, two of one thickness glued edge to edge, the highest with the lowest that does. Source: house rule.
pub(super) fn frame_for(
    catalogue: &Catalogue,
    through: Length,
    long: Length,
) -> Option<Vec<&Batten>> {
    let there = || catalogue.battens.iter().filter(|one| !one.shelf.retired);
    let wants_thick = long > THIN_TO;
    let other = |batten: &Batten| (batten.thickness >= THICK) != wants_thick;
    let one = there()
        .filter(|batten| batten.height >= through)
        .min_by_key(|batten| (batten.height, other(batten), batten.thickness));
    if let Some(one) = one {
        return Some(vec![one]);
    }
    let highest = |thickness: Length| {
        there()
            .filter(move |batten| batten.thickness == thickness)
            .max_by_key(|batten| batten.height)
    };
    let pairs = there().filter_map(|low| Some((highest(low.thickness)?, low)));
    pairs
        .filter(|(high, low)| high.height + low.height >= through)
        .min_by_key(|(high, low)| (high.height + low.height, other(low), low.thickness))
        .map(|(high, low)| vec![high, low])
}

/// What lies flat across a face: the lowest batten as thick as the frame's.
pub(super) fn flat_batten(catalogue: &Catalogue, thickness: Length) -> Option<&Batten> {
    let alike = |batten: &&Batten| !batten.shelf.retired && batten.thickness == thickness;
    let battens = catalogue.battens.iter().filter(alike);
    battens.min_by_key(|batten| batten.height)
}

/// Returns how many lengths a side is butted from, and how long each is: one where a stock length takes it.
pub(super) fn butted(side: Length, stock: Length) -> (u32, Length) {
    let count = ceil_count(side / stock).max(1);
    (count, side / f64::from(count))
}

/// A face is butted from no more parts than this.
const MOST_PARTS: u32 = 4;

/// Returns in how many parts, side by side along its long side, sheets of a board take a face, turned either way; `None` if they take it in none.
pub(super) fn face_parts([long, short]: [Length; 2], board: &Board) -> Option<u32> {
    (1..=MOST_PARTS).find(|count| {
        let part = [long / f64::from(*count), short];
        let [one, other] = [part[0].min(part[1]), part[0].max(part[1])];
        board.sheets.iter().any(|sheet| {
            one <= sheet.width.min(sheet.height) && other <= sheet.width.max(sheet.height)
        })
    })
}

/// Returns how many battens lie flat across a face, evenly: one for each further span, and one under each joint of its parts.
pub(super) fn across(long: Length, span: Length, parts: u32) -> u32 {
    let each = long / f64::from(parts);
    parts * ceil_count(each / span).max(1) - 1
}

impl StockLength {
    pub(super) fn of(batten: &Batten, parts: &[Length]) -> Self {
        let mut at = Length::ZERO;
        let cuts: Vec<Length> = parts
            .iter()
            .map(|part| {
                at += *part;
                let cut = at;
                at += KERF;
                cut
            })
            .collect();
        Self {
            of: batten.name.clone(),
            length: batten.length,
            height: batten.height,
            left: (batten.length - at).max(Length::ZERO),
            cuts_mm: cuts,
        }
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    #[test]
    fn battens_are_sawn_from_stock_lengths_by_running_distances() {
        // 1250, 1250, 900 and 900 from 2400: 1250 + 3 + 900 = 2153 each, two lengths; together 4300 + 4 × 3 = 4312 over 2403: two at least.
        let parts = [1250.0, 900.0, 1250.0, 900.0].map(Length::mm);
        let stock = Length::mm(2400.0);
        let lengths = sawn(&parts, stock).expect("they are short enough");
        assert_eq!(lengths.len(), 2);
        assert_eq!(least_lengths(&parts, stock), 2);
        assert_eq!(sawn(&[Length::mm(2401.0)], stock), None);
    }

    proptest! {
        #[test]
        fn what_is_sawn_is_all_there_and_near_the_least(
            parts in prop::collection::vec(30.0..2400.0_f64, 1..12),
        ) {
            let parts: Vec<Length> = parts.into_iter().map(Length::mm).collect();
            let stock = Length::mm(2400.0);
            let lengths = sawn(&parts, stock).expect("each is short enough");
            let mut all: Vec<Length> = lengths.iter().flatten().copied().collect();
            let mut wanted = parts.clone();
            all.sort_unstable();
            wanted.sort_unstable();
            prop_assert_eq!(all, wanted);
            // Each length holds its parts and a cut between any two.
            for cuts in &lengths {
                let used: Length = cuts.iter().copied().sum::<Length>()
                    + KERF * f64::from(u32::try_from(cuts.len() - 1).expect("a few"));
                prop_assert!(used <= stock);
            }
            // First fit, decreasing, takes at most 11/9 of the least and one more.
            let found = f64::from(u32::try_from(lengths.len()).expect("a few"));
            let least = f64::from(least_lengths(&parts, stock));
            prop_assert!(found >= least && found <= least * 11.0 / 9.0 * 1.5 + 1.0);
        }
    }
}
