//! The places that layers have in a plan, in the order of the job.

use serde::{Deserialize, Serialize};
use strum::EnumCount;

/// A place in the order of the layers, from the art outward. A plan has at most one layer in each.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, EnumCount,
)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum LayerSlot {
    /// Tape on plain glass, so that a break stays put.
    GlassTape,
    /// A board behind that the piece is fixed to, where nothing may touch its face.
    Fixing,
    /// Strips that keep everything off a face that must not be touched.
    WindowSpacer,
    /// A sheet against the art, or between loose sheets.
    Contact,
    /// Like pieces bound to one bundle, with boards between.
    Bundle,
    /// Two boards that hold loose sheets.
    Folio,
    /// A loose canvas or sheet rolled up.
    Roll,
    /// Something around each corner.
    Corners,
    /// A board with chocks that hold what has no corners.
    Cradle,
    /// A pad in the hollow behind a canvas.
    BackFill,
    /// What goes in besides, on the back of the piece.
    BackPapers,
    /// Boards in front and behind.
    FaceBoards,
    /// Stretch film that binds the boards.
    Binding,
    /// What says which piece it is, and which side is the face and the top.
    NameTag,
    /// A sealed bag with something that keeps it dry.
    Bag,
    /// What goes in besides, under the only wrap.
    InnerPapers,
    /// The wrap that runs the long way.
    FirstWrap,
    /// What goes in besides, between the first wrap and the others.
    WrapPapers,
    /// The wrap at right angles to it.
    SecondWrap,
    /// A wrap between the thick rolled ends of the others.
    InsetWrap,
    /// Film around the wrapped piece.
    WrapFilm,
    /// Several pieces, each in its own layers, laid together.
    Stack,
    /// Foam over the face and the back.
    FacePads,
    /// Foam along the four edges.
    EdgePads,
    /// Foam around each corner.
    CornerBlocks,
    /// Boards outside the cushion.
    OuterBoards,
    /// What goes in besides, on the floor of the box and on top.
    BoxPapers,
    /// Rolls, springs or a skirt along the edges in the box.
    Edges,
    /// Flat sheets behind, in a box that is too deep.
    PaddingSheets,
    /// Fill at the edges and behind.
    Fill,
    /// A cushion on the inside of the box.
    Lining,
    /// The box, or the tube.
    Box,
    /// Film around the inner one of two boxes.
    BoxFilm,
    /// A wrap around the inner one of two boxes.
    BoxWrap,
    /// Fill between two boxes.
    SecondFill,
    /// A second box around the first.
    SecondBox,
    /// Paper around the closed box.
    OuterPaper,
    /// What goes in besides, in a pocket outside.
    PocketPapers,
    /// Labels on the sides that it may lie on.
    Marks,
}

impl LayerSlot {
    /// Every place, from the art outward.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::GlassTape,
        Self::Fixing,
        Self::WindowSpacer,
        Self::Contact,
        Self::Bundle,
        Self::Folio,
        Self::Roll,
        Self::Corners,
        Self::Cradle,
        Self::BackFill,
        Self::BackPapers,
        Self::FaceBoards,
        Self::Binding,
        Self::NameTag,
        Self::Bag,
        Self::InnerPapers,
        Self::FirstWrap,
        Self::WrapPapers,
        Self::SecondWrap,
        Self::InsetWrap,
        Self::WrapFilm,
        Self::Stack,
        Self::FacePads,
        Self::EdgePads,
        Self::CornerBlocks,
        Self::OuterBoards,
        Self::BoxPapers,
        Self::Edges,
        Self::PaddingSheets,
        Self::Fill,
        Self::Lining,
        Self::Box,
        Self::BoxFilm,
        Self::BoxWrap,
        Self::SecondFill,
        Self::SecondBox,
        Self::OuterPaper,
        Self::PocketPapers,
        Self::Marks,
    ];

    /// What people call it, as it stands in a sentence.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::GlassTape => "tape on the glass",
            Self::Fixing => "fixing from behind",
            Self::WindowSpacer => "window spacer",
            Self::Contact => "contact sheet",
            Self::Bundle => "bundle",
            Self::Folio => "folio",
            Self::Corners => "corner protectors",
            Self::Cradle => "cradle board",
            Self::BackFill => "canvas-back fill",
            Self::BackPapers => "enclosures on the back",
            Self::FaceBoards => "face boards",
            Self::Binding => "stretch film",
            Self::NameTag => "name tag",
            Self::Bag => "sealed bag",
            Self::Roll => "roll",
            Self::InnerPapers | Self::WrapPapers => "enclosures under the wrap",
            Self::FirstWrap => "first wrap",
            Self::SecondWrap => "second wrap",
            Self::InsetWrap => "inset wrap",
            Self::WrapFilm => "film around the wrap",
            Self::Stack => "pieces laid together",
            Self::FacePads => "face pads",
            Self::EdgePads => "edge pads",
            Self::CornerBlocks => "corner blocks",
            Self::OuterBoards => "outer boards",
            Self::BoxPapers => "enclosures in the box",
            Self::Edges => "filler along the edges",
            Self::PaddingSheets => "padding sheets",
            Self::Fill => "fill",
            Self::Lining => "lining",
            Self::Box => "box",
            Self::BoxFilm => "film around the inner box",
            Self::BoxWrap => "wrap around the inner box",
            Self::SecondFill => "fill between the boxes",
            Self::SecondBox => "second box",
            Self::OuterPaper => "outer paper",
            Self::PocketPapers => "enclosures in the outside pocket",
            Self::Marks => "handling marks",
        }
    }
}
