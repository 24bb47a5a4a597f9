//! Boxes: how a style is cut from board, how it folds, and which sheet it takes.

mod apart;
mod blank;
mod folded;
mod folder;
pub(crate) mod folds;
mod pocket;
mod ring;
mod saved;
mod sheet_need;
mod slotted_edge;
mod slotted_face;
mod style;
mod telescope;
mod tray;
mod triangular_tube;

pub use apart::Lap;
pub use blank::{Blank, Fold, Hinge, JoinedAs, NetFault, Panel, PanelRole, Point};
pub use folded::{FoldStep, FoldedBlank, Solid};
pub use folder::Folder;
pub use pocket::PocketNet;
pub use saved::{DepthCut, LengthCut, LengthJoin, NoWay, SavedCarton, Sleeve};
pub(crate) use sheet_need::combinations;
pub use sheet_need::{JoinedPart, SheetNeed};
pub use slotted_edge::SlottedEdge;
pub use slotted_face::SlottedFace;
pub use style::{Beyond, BoxSize, StyleRefusal};
pub use telescope::{Half, Telescope};
pub(crate) use tray::LID_PLAY;
pub use tray::{SlitTray, Tray};
pub use triangular_tube::{TRIANGLE_HEIGHT, TriangularTube};
