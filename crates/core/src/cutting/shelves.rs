//! Plain shelves: what anyone would do with a ruler, and no layout may cost more than.

use std::rc::Rc;

use super::{
    search::{CuttingTask, Laid, Layout},
    tree::{Lying, Pm, Tree},
};

/// One sheet with its shelves, each a height and its parts.
struct Sheet {
    left: Pm,
    shelves: Vec<(Pm, Pm, Vec<Lying>)>,
}

/// Returns the parts on shelves of one kind of sheet: long side along the sheet where it may be turned, highest first,
/// each on the first shelf that takes it; `None` if that kind does not hold them all.
///
/// Shelves lie along either side of the sheet; what takes fewer sheets is taken.
pub(super) fn on_shelves(asked: &CuttingTask<'_>, kind: usize) -> Option<Layout> {
    [false, true]
        .into_iter()
        .filter_map(|upright| shelves(asked, kind, upright))
        .min_by_key(|layout| layout.sheets.len())
}

fn shelves(asked: &CuttingTask<'_>, kind: usize, upright: bool) -> Option<Layout> {
    let stock = asked.stock[kind];
    // Along the shelf, and up.
    let (long, high) = if upright {
        (stock.h, stock.w)
    } else {
        (stock.w, stock.h)
    };
    let mut parts: Vec<Lying> = Vec::with_capacity(asked.pieces.len());
    for (part, piece) in asked.pieces.iter().enumerate() {
        let part = u32::try_from(part).ok()?;
        let along = |lying: &Lying| if upright { lying.h } else { lying.w };
        let up = |lying: &Lying| if upright { lying.w } else { lying.h };
        let fits = piece
            .ways(part)
            .filter(|lying| along(lying) <= long && up(lying) <= high);
        parts.push(fits.max_by_key(along)?);
    }
    let (along, up) = (
        |lying: &Lying| if upright { lying.h } else { lying.w },
        |lying: &Lying| if upright { lying.w } else { lying.h },
    );
    parts.sort_by_key(|lying| std::cmp::Reverse((up(lying), along(lying))));
    let mut sheets: Vec<Sheet> = Vec::new();
    for lying in parts {
        let shelf = sheets
            .iter_mut()
            .flat_map(|sheet| &mut sheet.shelves)
            .find(|(left, height, _)| *left >= along(&lying) && *height >= up(&lying));
        if let Some((left, _, on)) = shelf {
            *left -= along(&lying);
            on.push(lying);
            continue;
        }
        let at = sheets.iter().position(|sheet| sheet.left >= up(&lying));
        let at = at.unwrap_or_else(|| {
            sheets.push(Sheet {
                left: high,
                shelves: Vec::new(),
            });
            sheets.len() - 1
        });
        sheets[at].left -= up(&lying);
        let shelf = (long - along(&lying), up(&lying), vec![lying]);
        sheets[at].shelves.push(shelf);
    }
    if sheets.len() > stock.count as usize {
        return None;
    }
    let cost = stock.price.checked_mul(i64::try_from(sheets.len()).ok()?)?;
    let sheets = sheets
        .into_iter()
        .map(|sheet| {
            let shelves: Vec<Vec<Lying>> = sheet.shelves.into_iter().map(|(_, _, on)| on).collect();
            Laid {
                stock: kind,
                tree: Rc::new(Tree::of_shelves(
                    (stock.w, stock.h),
                    asked.narrowest,
                    upright,
                    &shelves,
                )),
            }
        })
        .collect();
    Some(Layout { sheets, cost })
}
