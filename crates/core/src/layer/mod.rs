//! Layers: each takes the envelope of what lies inside it to a larger one, and says what it adds.
//!
//! The modules beside this one hold one kind each: its formula, worked numbers, and how it becomes a
//! [`Layer`] with mass, cost, minutes and the reason why it is there.

mod bag;
mod bought;
mod boxed;
mod bundle;
mod case;
mod collar;
mod column;
mod contact;
mod corner;
mod cradle;
mod cushioning;
mod edges;
mod enclosed;
mod face_board;
mod fill;
mod fixing;
mod folio;
mod glass_tape;
mod handling;
mod kind;
mod lining;
mod mailer;
mod marks;
mod outer_paper;
mod pack;
mod padding;
mod pads;
mod pierce;
mod rim;
mod roll;
mod roll_size;
mod sandwich;
mod saved_box;
mod slip_on;
mod spacer;
mod supplies;
mod together;
mod wrap;

pub use bag::{NameTag, SealedBag, StretchFilm};
pub(crate) use boxed::boxed;
pub use bundle::Bundle;
pub use case::{Joins, Joint, SawnBatten, StockLength, TravelCase, holds, least_lengths, sawn};
pub use collar::FoamCollar;
pub use contact::{ContactSheet, Interleaves, StripsAcross};
pub use corner::{CardPocket, PocketLines};
pub use cradle::{Chock, Cradle};
pub use cushioning::{CushionFace, Cushioning, Sides, crushing_board};
pub use edges::{CardSprings, PaperRolls, Skirt, Spring};
pub use enclosed::Enclosures;
pub use face_board::{BoardBehind, FaceBoards};
pub use fill::{EdgeFill, FillGap, FillPlace, FillTurn, PadTape};
pub use fixing::Fixing;
pub use folio::{Folio, SheetHinges};
pub(crate) use folio::{OVER_CORNERS, holds_a_sheet};
pub(crate) use glass_tape::CLEAR;
pub use glass_tape::GlassTape;
pub use handling::{Caution, Handling, Look, OfSheet, Tool, Undone, Verb};
pub(crate) use handling::{FIBREBOARD, FILM, FOAM, GLASS, KNIFE};
pub(crate) use kind::{
    Around, Family, LeftOut, Offer, Offering, StandingQuestion, body_of, kind_of, tried,
};
pub use kind::{Standing, standing};
pub(crate) use lining::LAST as LINING_LAST;
pub use lining::{Lining, LiningPiece};
use mailer::mailer_for;
pub use marks::{Mark, MarkLabel, Marks};
pub use outer_paper::OuterPaper;
pub(crate) use pack::{Pack, PackOf};
pub use padding::PaddingSheets;
pub(crate) use pads::LONGEST_LEG;
pub use pads::{BackFill, CornerBlocks, EdgePads, FacePads};
pub use pierce::Pierce;
pub use rim::RimStrip;
pub(crate) use roll::LAST_END;
use roll::TubeFit;
pub use roll::{Roll, least_roll, rolls_up};
pub use roll_size::{RollSize, TUBE_PLAY};
pub(crate) use saved_box::SavedCartons;
pub use slip_on::SlipOns;
pub(crate) use spacer::{OFF_THE_EDGE, has_bars};
pub use spacer::{SpacerLies, WindowSpacer};
pub use supplies::Supplies;
pub use together::LaidTogether;
pub(crate) use together::{Laid, laid_together};
pub use wrap::{Winding, WrapStrip};

pub(crate) use supplies::Making;

pub use crate::container::{BoughtBox, MailerBox, Sandwich, SavedBox, SecondCarton, TubeBox};

use serde::Serialize;

use crate::{
    container::{Carton, Container, Use, WayIn},
    material::MaterialId,
    part::{Part, Strips, UsedAgain},
    quantity::{Area, Length, Mass, Minutes, Money, Weight},
    space::{Addition, Envelope, LayerSlot},
};

/// One layer of a plan.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Layer {
    /// Its place in the order of the layers.
    pub slot: LayerSlot,
    /// What it is made of.
    pub material: MaterialId,
    /// What that is called.
    pub material_name: String,
    /// What it adds on each side.
    pub adds: Addition,
    /// What it and everything inside it fills.
    pub envelope: Envelope,
    /// The area of the material that stays in the parcel, in square metres.
    #[serde(rename = "area_m2")]
    pub area: Area,
    /// The length of its tape, in millimetres.
    #[serde(rename = "tape_mm")]
    pub tape: Length,
    /// The name of that tape; `None` if there is none.
    pub tape_name: Option<String>,
    /// That tape as it is torn.
    pub strips: Vec<Strips>,
    /// The weight of the layer with its tape.
    pub weight: Weight,
    /// The plastic share of `weight`, in grams.
    #[serde(rename = "plastic_g")]
    pub plastic: Mass,
    /// The share of `weight` that was used before.
    #[serde(skip)]
    pub(crate) used_again: UsedAgain,
    /// The cost of the material that it uses up, with its tape.
    pub cost: Money,
    /// The minutes to make and set it.
    pub minutes: Minutes,
    /// Why it is there.
    pub why: &'static str,
    /// What could hurt whoever makes it.
    pub cautions: Vec<&'static str>,
    /// What it takes off the shelf; the first is what it is made of.
    pub parts: Vec<Part>,
    /// Its own dimensions.
    pub make: Make,
    /// What it gives in a fall.
    #[serde(skip)]
    pub cushioning: Option<Cushioning>,
    /// What it takes to be pierced.
    #[serde(skip)]
    pub pierce: Pierce,
}

impl Layer {
    /// Returns what is done with it at the bench.
    #[must_use]
    pub const fn handling(&self) -> Handling {
        Handling::of(&self.make, self.slot)
    }

    /// Tells whether boards and cushions outside it go around several pieces.
    #[must_use]
    pub const fn holds_several(&self) -> bool {
        matches!(self.slot, LayerSlot::Bundle | LayerSlot::Stack)
    }

    /// Tells whether it holds the piece off the boards and wraps around it, and stands beyond its edges.
    #[must_use]
    pub fn holds_off(&self) -> bool {
        match &self.make {
            Make::Cradle(_) | Make::FoamCollar(_) | Make::RimStrip(_) => true,
            Make::CornerBlocks(_) => self.slot == LayerSlot::Corners,
            Make::WindowSpacer(spacer) => spacer.lies == SpacerLies::Beside,
            _ => false,
        }
    }

    /// Tells whether it is foam around a frame that nothing may rub on: a collar, or blocks behind its corners.
    #[must_use]
    pub const fn is_ring(&self) -> bool {
        match &self.make {
            Make::FoamCollar(_) => true,
            Make::CornerBlocks(_) => matches!(self.slot, LayerSlot::Corners),
            _ => false,
        }
    }

    /// Tells whether it is a cushion, and not only board that crushes.
    #[must_use]
    pub fn is_cushion(&self) -> bool {
        self.cushioning.is_some_and(|cushioning| !cushioning.board)
    }
}

/// Declares the kinds of layers, each with its name in JSON.
macro_rules! makes {
    ($($(#[$doc:meta])* $kind:ident($inner:ty) = $name:tt;)*) => {
        /// The kind of a layer, with the dimensions to cut it by.
        #[derive(Debug, Clone, PartialEq, Serialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(tag = "kind")]
        pub enum Make {
            $($(#[$doc])* #[serde(rename = $name)] $kind($inner),)*
        }

        impl Make {
            /// Returns the name of its kind, as it stands in JSON.
            #[must_use]
            pub const fn kind(&self) -> &'static str {
                match self { $(Self::$kind(_) => $name,)* }
            }
        }
    };
}

impl Make {
    /// Returns the box, where it is one that is cut from board.
    #[must_use]
    pub const fn carton(&self) -> Option<&Carton> {
        match self {
            Self::SlottedBox(carton) | Self::CutBox(carton) => Some(carton),
            _ => None,
        }
    }

    /// Returns it as hands make, load, close and open it, where it is a container.
    #[must_use]
    pub fn container(&self, of: &Use) -> Option<Container> {
        match self {
            Self::SlottedBox(carton) | Self::CutBox(carton) => Some(carton.container(of)),
            Self::SavedBox(saved) => Some(saved.container(of)),
            Self::BoughtBox(bought) => Some(bought.container(of)),
            Self::Mailer(mailer) => Some(mailer.container(of)),
            Self::Tube(tube) => Some(tube.container(of)),
            Self::Sandwich(sandwich) => Some(sandwich.container(of)),
            Self::TravelCase(case) => Some(case.container(of)),
            _ => None,
        }
    }

    /// Returns how something gets into it, where it is a box.
    #[must_use]
    pub const fn way_in(&self) -> Option<WayIn> {
        match self {
            Self::SlottedBox(carton) | Self::CutBox(carton) => Some(carton.style.way_in()),
            Self::SavedBox(saved) => Some(saved.opens.way_in()),
            Self::BoughtBox(bought) => Some(bought.way_in()),
            // Its lid is one of its faces.
            Self::TravelCase(_) => Some(WayIn::Face),
            Self::Mailer(_) | Self::Tube(_) | Self::Sandwich(_) => Some(WayIn::End),
            Self::GlassTape(_)
            | Self::Fixing(_)
            | Self::WindowSpacer(_)
            | Self::ContactSheet(_)
            | Self::Interleaves(_)
            | Self::Bundle(_)
            | Self::Folio(_)
            | Self::CardPockets(_)
            | Self::SlipOns(_)
            | Self::FoamCollar(_)
            | Self::RimStrip(_)
            | Self::Cradle(_)
            | Self::BackFill(_)
            | Self::FaceBoards(_)
            | Self::StretchFilm(_)
            | Self::NameTag(_)
            | Self::SealedBag(_)
            | Self::Roll(_)
            | Self::Wrap(_)
            | Self::LaidTogether(_)
            | Self::FacePads(_)
            | Self::EdgePads(_)
            | Self::CornerBlocks(_)
            | Self::PaperRolls(_)
            | Self::CardSprings(_)
            | Self::Skirt(_)
            | Self::PaddingSheets(_)
            | Self::EdgeFill(_)
            | Self::Lining(_)
            | Self::OuterPaper(_)
            | Self::Enclosures(_)
            | Self::Marks(_) => None,
        }
    }

    /// Returns how many boards and boxes it puts between the art and the outside.
    #[must_use]
    pub fn boards_and_boxes(&self) -> usize {
        match self {
            Self::FaceBoards(boards) => 1 + usize::from(boards.behind),
            Self::SlottedBox(_)
            | Self::CutBox(_)
            | Self::SavedBox(_)
            | Self::BoughtBox(_)
            | Self::TravelCase(_) => 1,
            Self::Mailer(_)
            | Self::Tube(_)
            | Self::Sandwich(_)
            | Self::GlassTape(_)
            | Self::Fixing(_)
            | Self::WindowSpacer(_)
            | Self::ContactSheet(_)
            | Self::Interleaves(_)
            | Self::Bundle(_)
            | Self::Folio(_)
            | Self::CardPockets(_)
            | Self::SlipOns(_)
            | Self::FoamCollar(_)
            | Self::RimStrip(_)
            | Self::Cradle(_)
            | Self::BackFill(_)
            | Self::StretchFilm(_)
            | Self::NameTag(_)
            | Self::SealedBag(_)
            | Self::Roll(_)
            | Self::Wrap(_)
            | Self::LaidTogether(_)
            | Self::FacePads(_)
            | Self::EdgePads(_)
            | Self::CornerBlocks(_)
            | Self::PaperRolls(_)
            | Self::CardSprings(_)
            | Self::Skirt(_)
            | Self::PaddingSheets(_)
            | Self::EdgeFill(_)
            | Self::Lining(_)
            | Self::OuterPaper(_)
            | Self::Enclosures(_)
            | Self::Marks(_) => 0,
        }
    }

    /// Tells whether a part of it is the lid of a tray, which is measured from the folded tray.
    #[must_use]
    pub fn is_lid(&self, part: &Part) -> bool {
        self.carton().is_some_and(|carton| {
            carton.style.lid_follows()
                && carton
                    .more_parts
                    .iter()
                    .any(|more| part.id.of_one_box() == more.blank.part)
        })
    }
}

makes! {
    /// Tape on plain glass.
    GlassTape(GlassTape) = "glass_tape";
    /// A board behind, and hinges through it.
    Fixing(Fixing) = "fixing";
    /// Strips around a face that must not be touched.
    WindowSpacer(WindowSpacer) = "window_spacer";
    /// A sheet against the art.
    ContactSheet(ContactSheet) = "contact_sheet";
    /// Sheets between loose ones.
    Interleaves(Interleaves) = "interleaves";
    /// Like pieces in one bundle.
    Bundle(Bundle) = "bundle";
    /// Loose sheets between boards.
    Folio(Folio) = "folio";
    /// Four folded corner pockets.
    CardPockets(CardPocket) = "card_pockets";
    /// Bought corners.
    SlipOns(SlipOns) = "slip_on_corners";
    /// Foam around the sides of a frame that nothing may rub on.
    FoamCollar(FoamCollar) = "foam_collar";
    /// Foam around the rim of what has no corners.
    RimStrip(RimStrip) = "rim_strip";
    /// A board with chocks.
    Cradle(Cradle) = "cradle";
    /// A pad behind a canvas.
    BackFill(BackFill) = "back_fill";
    /// Boards in front and behind.
    FaceBoards(FaceBoards) = "face_boards";
    /// Film around the boards.
    StretchFilm(StretchFilm) = "stretch_film";
    /// What it is, and which way up.
    NameTag(NameTag) = "name_tag";
    /// A bag, sealed.
    SealedBag(SealedBag) = "sealed_bag";
    /// A rolled sheet.
    Roll(Roll) = "roll";
    /// A cushion wound around.
    Wrap(WrapStrip) = "wrap";
    /// Several pieces, laid together.
    LaidTogether(LaidTogether) = "laid_together";
    /// Foam over face and back.
    FacePads(FacePads) = "face_pads";
    /// Foam along the edges.
    EdgePads(EdgePads) = "edge_pads";
    /// Foam around the corners.
    CornerBlocks(CornerBlocks) = "corner_blocks";
    /// Paper rolled loosely along the edges.
    PaperRolls(PaperRolls) = "paper_rolls";
    /// Folded card along the edges.
    CardSprings(CardSprings) = "card_springs";
    /// A strip of cushion around the edges.
    Skirt(Skirt) = "skirt";
    /// Flat sheets behind.
    PaddingSheets(PaddingSheets) = "padding_sheets";
    /// Fill at the edges and behind.
    EdgeFill(EdgeFill) = "edge_fill";
    /// A cushion on the inside of the box.
    Lining(Lining) = "lining";
    /// A box with slots between its flaps.
    SlottedBox(Carton) = "slotted_box";
    /// A box without: a tray, a folder, a telescope.
    CutBox(Carton) = "cut_box";
    /// A carton that the studio has.
    SavedBox(SavedBox) = "saved_box";
    /// A carton that was bought.
    BoughtBox(BoughtBox) = "bought_box";
    /// A case of plywood on battens, that comes back.
    TravelCase(TravelCase) = "travel_case";
    /// The mailer.
    Mailer(MailerBox) = "mailer";
    /// A sleeve around two boards that are the parcel themselves.
    Sandwich(Sandwich) = "sandwich";
    /// The tube.
    Tube(TubeBox) = "tube";
    /// Paper around the closed box.
    OuterPaper(OuterPaper) = "outer_paper";
    /// What goes in besides the piece.
    Enclosures(Enclosures) = "enclosures";
    /// Labels outside.
    Marks(Marks) = "marks";
}
