//! What is on the shelf, and what plans take off it: sheets and offcuts that parts are cut from, rolls, things by the
//! piece, and the pile of saved cartons.
//!
//! A count is a whole number in the smallest measure that anybody draws (a sheet, a millimetre of a roll, a gram), so that
//! what was taken can be given back to the last of it.

mod batch;
mod drawn;
mod goods;
mod needs;
mod pile;

pub use batch::{
    Batch, BatchPlan, BatchSheet, BatchShipment, CutTool, LaidPart, LayoutOf, MaterialCut,
    MaterialSheets, OffcutHere, SheetCut, SheetOffcut, SheetRest, TooLarge,
};
pub use drawn::{DrawnBlank, DrawnLines, Segment};
pub use goods::{Counting, Goods, Measure, SheetGoods, StockItem};
pub use needs::{CutPiece, MaterialsLine, ShelfNeed, cut_pieces, shelf_needs};
pub use pile::{Condition, Markings, Origin, PileCarton, RawPanel};
