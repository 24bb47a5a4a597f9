//! Boxes: how a style is cut from board, and which sheet it takes.

mod blank;
mod sheet_need;
mod slotted_edge;

pub use blank::{Blank, Fold, Hinge, Panel, PanelRole, Point};
pub use sheet_need::{JoinedPart, SheetNeed};
pub use slotted_edge::{SlottedBox, SlottedEdge};
