//! What of a box bears a stack.

use super::{Layer, Make};
use crate::{house::SavedFace, quantity::Length, space::Opens};

/// The walls of a box that stand when it lies on its long narrow side.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Column {
    /// Inside, along the side that it stands on.
    pub length: Length,
    /// Inside, upright.
    pub height: Length,
    /// Inside, from front to back.
    pub depth: Length,
    /// What it bears of what a whole new ring of the same board would.
    pub share: f64,
    /// The share of the load that is left where a panel had to be joined, because no sheet was large enough.
    pub joined: f64,
}

/// A panel that was joined bears less.
const SPLICED: f64 = 0.6;
/// A box that was cut down, or is held together by a sleeve, bears less.
const CUT_DOWN: f64 = 0.7;
/// Board that was folded before bears less.
const REUSED: f64 = 0.7;
/// Past so many heights the formula of a stack does not hold.
const SLENDER: f64 = 7.0;

impl Column {
    /// The way around it, where a stack can be calculated.
    pub(crate) fn perimeter(self) -> Option<Length> {
        let perimeter = (self.length + self.depth) * 2.0;
        (perimeter <= self.height * SLENDER).then_some(perimeter)
    }
}

impl Layer {
    /// Returns what of it bears a stack, where it is a box whose board is known; `reused` is whether that board was
    /// folded before it was cut.
    ///
    /// A cut-down box bears 0.7 of a whole one, a spliced panel 0.6, board that was folded before 0.7; a carton that came
    /// with something else was, and turned inside out it bears 0.7 of that; a box with a score that was cut through and taped bears
    /// 0.7 of a whole one. Source: packaging engineering practice.
    pub(crate) fn column(&self, reused: bool) -> Option<Column> {
        let folded_before = |before: bool| if before { REUSED } else { 1.0 };
        match &self.make {
            Make::SlottedBox(carton) | Make::CutBox(carton) => Some(Column {
                length: carton.inside_length,
                height: carton.inside_width,
                depth: carton.inside_height,
                share: folded_before(reused)
                    * folded_before(carton.cut_through > 0)
                    * if carton.doubled { 2.0 } else { 1.0 }
                    * carton.style.column(),
                joined: if carton.is_joined() { SPLICED } else { 1.0 },
            }),
            Make::SavedBox(saved) => {
                // One that opens on a short edge stands on the other one: its flutes run along it.
                let [long, short, depth] = saved.opens.around_art(saved.inside_mm);
                let [length, height] = match saved.opens {
                    Opens::Face | Opens::EdgeLong => [long, short],
                    Opens::EdgeShort => [short, long],
                };
                let changed = saved.cut.is_some() || saved.sleeve.is_some();
                let cut_down = if changed { CUT_DOWN } else { 1.0 };
                let spliced = if saved.shorter.is_some() || saved.second.is_some() {
                    SPLICED
                } else {
                    1.0
                };
                // Every score is folded the other way.
                let turned = folded_before(saved.face == SavedFace::InsideOut);
                let style = saved.opens.bears_as().column();
                Some(Column {
                    length,
                    height,
                    depth,
                    share: folded_before(true) * cut_down * spliced * turned * style,
                    joined: 1.0,
                })
            }
            _ => None,
        }
    }
}
