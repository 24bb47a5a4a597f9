//! The table of layers: of each, how it stands to a piece, how it is made, and what else it could be.
//!
//! A new layer is a module beside this one with its formula and its [`Kind`], a place in [`LayerSlot`], a line in
//! [`kind_of`], its dimensions in [`super::Make`] and what is done with it in [`super::Handling`]; the compiler names
//! what is missing.

use super::{
    Layer, Make, Roll, Supplies, TubeFit, bag, boxed, bundle, contact, corner, cradle, edges,
    enclosed, face_board, fill, fixing, folio, glass_tape, lining, marks, outer_paper, padding,
    pads, roll, spacer, together, wrap,
};
use crate::{
    Refusal,
    container::WayIn,
    house::{Carriage, Choices, HouseRules, SchoolChoices},
    material::{Catalogue, MaterialId},
    piece::{Piece, PieceSize},
    quantity::Length,
    space::{Addition, Direction, Envelope, LayerSlot},
};

/// How a layer stands to a piece.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Standing {
    /// The job asks for it; leaving it out is refused, and this is why.
    Must(&'static str),
    /// It is there unless somebody leaves it out.
    On,
    /// It is not there unless somebody adds it.
    Off,
    /// It must not or can't be there, and this is why.
    Never(&'static str),
}

impl Standing {
    /// Tells whether it is there, where somebody chose it or left it out.
    #[must_use]
    pub fn is_there(self, chosen: Option<bool>) -> bool {
        match self {
            Self::Must(_) => true,
            Self::Never(_) => false,
            Self::On => chosen.unwrap_or(true),
            Self::Off => chosen.unwrap_or(false),
        }
    }
}

/// What a layer does to the piece inside it, with every material that it could be made of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Nature {
    /// Whether it hides which side is the face.
    pub hides_face: bool,
    /// Whether it is wound around the piece.
    pub wraps: bool,
    /// Its place among the layers of which the ways try others; `None` if they leave it as it is.
    pub tried: Option<u8>,
    /// What is offered as less of a plan by leaving it out; `None` if that is never offered.
    pub left_out: Option<LeftOut>,
}

/// Declares the families of changes in the order of the bench, each with its name in JSON.
macro_rules! families {
    ($($(#[$doc:meta])* $family:ident = $name:literal;)*) => {
        /// What a change of a plan is one of, in the order in which it is done at the bench: of each family one is offered.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
        pub(crate) enum Family { $($(#[$doc])* $family,)* }

        impl Family {
            /// Returns its name in JSON.
            pub(crate) const fn name(self) -> &'static str {
                match self { $(Self::$family => $name,)* }
            }
        }
    };
}

families! {
    /// Tape on glass, that holds its splinters.
    GlassTape = "glass_tape";
    /// Another turn of a wrap, or a wrap less.
    Wrap = "wrap";
    /// A sealed bag, or seams that are taped.
    Drier = "drier";
    /// Protectors on the corners.
    Corners = "corners";
    /// Foam at the corners or along the edges.
    EdgeFoam = "edge_foam";
    /// Boards before the face and behind.
    Boards = "boards";
    /// What holds a board off the face.
    Spacer = "spacer";
    /// Foam over the face and behind.
    FaceFoam = "face_foam";
    /// Boards outside the wrap.
    OuterBoards = "outer_boards";
    /// Room between the piece and its box.
    Fit = "fit";
    /// A box in place of a mailer, or the other way round.
    Box = "box";
    /// A box of another board.
    LighterBox = "lighter_box";
    /// The same, heavier.
    HeavierBox = "heavier_box";
    /// A second box around it.
    SecondBox = "second_box";
}

/// What leaving a layer out is offered as.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct LeftOut {
    /// The family of changes, of which one is offered.
    pub family: Family,
    /// What it is called.
    pub label: &'static str,
}

impl Nature {
    pub(super) const PLAIN: Self = Self {
        hides_face: false,
        wraps: false,
        tried: None,
        left_out: None,
    };

    pub(super) const fn hiding(self) -> Self {
        Self {
            hides_face: true,
            ..self
        }
    }

    pub(super) const fn wrapping(self) -> Self {
        Self {
            wraps: true,
            ..self
        }
    }

    pub(super) const fn tried(self, place: u8) -> Self {
        Self {
            tried: Some(place),
            ..self
        }
    }

    pub(super) const fn left_out(self, family: Family, label: &'static str) -> Self {
        Self {
            left_out: Some(LeftOut { family, label }),
            ..self
        }
    }
}

/// One kind of layer.
pub(crate) struct Kind {
    /// How it stands to a piece.
    pub stands: fn(&StandingQuestion<'_>) -> Standing,
    /// Makes it around what is there; `None` if it would be empty.
    pub make: fn(&Around<'_, '_>) -> Result<Option<Layer>, Refusal>,
    /// What else it could be, each with the choices that make it so.
    pub swaps: fn(&Offering<'_>) -> Vec<Offer>,
    /// Whether a swap adds it where it is not there.
    pub swaps_add: bool,
    /// What it does to the piece inside it.
    pub nature: Nature,
}

impl Kind {
    /// A kind that is added by itself, and could be nothing else.
    pub(super) const fn new(
        nature: Nature,
        stands: fn(&StandingQuestion<'_>) -> Standing,
        make: fn(&Around<'_, '_>) -> Result<Option<Layer>, Refusal>,
    ) -> Self {
        Self {
            stands,
            make,
            swaps: |_| Vec::new(),
            swaps_add: false,
            nature,
        }
    }

    /// The same, which could be something else.
    pub(super) const fn or(self, swaps: fn(&Offering<'_>) -> Vec<Offer>) -> Self {
        Self { swaps, ..self }
    }

    /// The same, whose swaps add it.
    pub(super) const fn added_by_swaps(self) -> Self {
        Self {
            swaps_add: true,
            ..self
        }
    }
}

/// Returns the kind of layer in a place.
pub(crate) const fn kind_of(slot: LayerSlot) -> &'static Kind {
    match slot {
        LayerSlot::GlassTape => &glass_tape::KIND,
        LayerSlot::Fixing => &fixing::KIND,
        LayerSlot::WindowSpacer => &spacer::KIND,
        LayerSlot::Contact => &contact::KIND,
        LayerSlot::Bundle => &bundle::KIND,
        LayerSlot::Folio => &folio::KIND,
        LayerSlot::Roll => &roll::KIND,
        LayerSlot::Corners => &corner::KIND,
        LayerSlot::Cradle => &cradle::KIND,
        LayerSlot::BackFill => &pads::BEHIND,
        LayerSlot::BackPapers => &enclosed::BACK,
        LayerSlot::FaceBoards => &face_board::KIND,
        LayerSlot::Binding => &bag::FILM,
        LayerSlot::NameTag => &bag::TAG,
        LayerSlot::Bag => &bag::KIND,
        LayerSlot::InnerPapers => &enclosed::INNER,
        LayerSlot::FirstWrap => &wrap::FIRST,
        LayerSlot::WrapPapers => &enclosed::WRAP,
        LayerSlot::SecondWrap => &wrap::SECOND,
        LayerSlot::InsetWrap => &wrap::INSET,
        LayerSlot::WrapFilm => &bag::WRAP_FILM,
        LayerSlot::Stack => &together::KIND,
        LayerSlot::FacePads => &pads::FACE,
        LayerSlot::EdgePads => &pads::EDGES,
        LayerSlot::CornerBlocks => &pads::CORNERS,
        LayerSlot::OuterBoards => &face_board::OUTER,
        LayerSlot::BoxPapers => &enclosed::BOX,
        LayerSlot::Edges => &edges::KIND,
        LayerSlot::PaddingSheets => &padding::KIND,
        LayerSlot::Fill => &fill::KIND,
        LayerSlot::Lining => &lining::KIND,
        LayerSlot::Box => &boxed::KIND,
        LayerSlot::BoxFilm => &bag::BOX_FILM,
        LayerSlot::BoxWrap => &wrap::INNER_BOX,
        LayerSlot::SecondFill => &fill::BETWEEN,
        LayerSlot::SecondBox => &boxed::SECOND,
        LayerSlot::OuterPaper => &outer_paper::KIND,
        LayerSlot::PocketPapers => &enclosed::POCKET,
        LayerSlot::Marks => &marks::KIND,
    }
}

/// Returns the layers of which the ways try others, in the order in which they do.
pub(crate) fn tried() -> Vec<LayerSlot> {
    let mut tried: Vec<(u8, LayerSlot)> = LayerSlot::ALL
        .into_iter()
        .filter_map(|slot| Some((kind_of(slot).nature.tried?, slot)))
        .collect();
    tried.sort_unstable();
    tried.into_iter().map(|(_, slot)| slot).collect()
}

/// Returns how a layer stands to a piece that travels in a way.
#[must_use]
pub fn standing(
    slot: LayerSlot,
    piece: &Piece,
    carriage: Carriage,
    rules: &HouseRules,
) -> Standing {
    let asked = StandingQuestion {
        piece,
        carriage,
        rules,
    };
    let cased = rules.shipment.travel_case && matches!(carriage, Carriage::Flat | Carriage::Folio);
    if cased && replaced_by_a_case(slot) {
        return Standing::Never(CASED);
    }
    (kind_of(slot).stands)(&asked)
}

/// Tells whether a travel case has no room for a layer: its lining is the cushion, one wrap goes into it, and nothing around it.
const fn replaced_by_a_case(slot: LayerSlot) -> bool {
    matches!(
        slot,
        LayerSlot::SecondWrap
            | LayerSlot::InsetWrap
            | LayerSlot::FacePads
            | LayerSlot::EdgePads
            | LayerSlot::CornerBlocks
            | LayerSlot::OuterBoards
            | LayerSlot::Edges
            | LayerSlot::PaddingSheets
            | LayerSlot::Fill
            | LayerSlot::Lining
            | LayerSlot::BoxFilm
            | LayerSlot::BoxWrap
            | LayerSlot::SecondFill
            | LayerSlot::SecondBox
            | LayerSlot::OuterPaper
    )
}

/// What a layer is asked to stand to.
pub(crate) struct StandingQuestion<'a> {
    pub piece: &'a Piece,
    pub carriage: Carriage,
    pub rules: &'a HouseRules,
}

const NOT_FLAT: &str = "it is for loose sheets and rolls, and this piece is stiff";
const ROLLED: &str = "a roll in a tube has no room for it";
const MAILED: &str = "a mailer has no room for it: send it in a box";
const CASED: &str =
    "the travel case has its own lining, and nothing goes around it: take a box instead";
const FOLIO: &str = "the folio's boards replace it";

impl StandingQuestion<'_> {
    /// How what only a stiff piece has stands.
    pub(super) fn flat(&self, flat: impl FnOnce() -> Standing) -> Standing {
        match self.carriage {
            Carriage::Flat => flat(),
            Carriage::Folio => Standing::Never(FOLIO),
            Carriage::Mailed | Carriage::Padded => Standing::Never(MAILED),
            Carriage::Rolled => Standing::Never(ROLLED),
        }
    }

    /// How what a stiff piece has in a mailer, too, stands.
    pub(super) fn flat_or_padded(&self, flat: impl FnOnce() -> Standing) -> Standing {
        match self.carriage {
            Carriage::Padded => flat(),
            _ => self.flat(flat),
        }
    }

    /// How what goes around anything in a box that is cut for it stands.
    pub(super) fn boxed(&self, boxed: impl FnOnce() -> Standing) -> Standing {
        match self.carriage {
            Carriage::Flat | Carriage::Folio => boxed(),
            Carriage::Mailed | Carriage::Padded => Standing::Never(MAILED),
            Carriage::Rolled => Standing::Never(ROLLED),
        }
    }

    /// How what goes around the inner one of two boxes stands.
    pub(super) fn around_inner_box(&self) -> Standing {
        self.boxed(|| match self.rules.layers.get(&LayerSlot::SecondBox) {
            Some(true) => Standing::Off,
            _ => Standing::Never("it goes around the inner box: add a second box first"),
        })
    }

    /// How what a stiff piece never has stands.
    pub(super) fn loose(&self, loose: impl FnOnce(Carriage) -> Standing) -> Standing {
        match self.carriage {
            Carriage::Flat | Carriage::Padded => Standing::Never(NOT_FLAT),
            carriage => loose(carriage),
        }
    }
}

/// What a layer is made around: the piece and the layers that are there.
pub(crate) struct Around<'p, 's> {
    pub piece: &'p Piece,
    pub supplies: &'p Supplies<'s>,
    pub carriage: Carriage,
    /// Every layer that the plan will have.
    pub present: &'p [LayerSlot],
    /// Those that are made, from the art outward.
    pub layers: &'p [Layer],
}

impl Around<'_, '_> {
    /// What they fill.
    pub(super) fn inside(&self) -> Envelope {
        self.layers
            .last()
            .map_or_else(|| self.bare(), |layer| layer.envelope)
    }

    const fn bare(&self) -> Envelope {
        let PieceSize {
            width,
            height,
            depth,
        } = self.piece.size;
        Envelope {
            across: width,
            up: height,
            through: depth,
        }
    }

    /// Tells whether the plan has a layer.
    pub(super) fn has(&self, slot: LayerSlot) -> bool {
        self.present.contains(&slot)
    }

    /// What boards and pockets go around.
    pub(super) fn body(&self) -> PieceSize {
        body_of(self.layers, self.piece.size)
    }

    /// Tells whether something that is there holds the piece off what lies around it, so that boards are cut to that.
    pub(super) fn is_held_off(&self) -> bool {
        self.layers.iter().any(Layer::holds_off)
    }

    /// Tells whether a layer that is there has a board of its own behind.
    pub(super) fn has_board_behind(&self) -> bool {
        self.layers.iter().any(|layer| match &layer.make {
            Make::Cradle(_) | Make::Fixing(_) => true,
            Make::WindowSpacer(spacer) => spacer.lies == super::SpacerLies::Beside,
            _ => false,
        })
    }

    /// Tells whether bars stand beside the piece on the board behind it.
    pub(super) fn has_bars(&self) -> bool {
        self.layers.iter().any(|layer| match &layer.make {
            Make::WindowSpacer(spacer) => spacer.lies == super::SpacerLies::Beside,
            _ => false,
        })
    }

    /// Tells whether foam stands around the rim: boards before and behind lie on it and are taped to each other.
    pub(super) fn has_rim_strip(&self) -> bool {
        let mut makes = self.layers.iter().map(|layer| &layer.make);
        makes.any(|make| matches!(make, Make::RimStrip(_)))
    }

    /// Of the pieces themselves, without what lies between them: what a corner block bears on.
    pub(super) fn bearing_depth(&self) -> Length {
        let depth = self.piece.size.depth;
        let several = self.layers.iter().find_map(|layer| match &layer.make {
            Make::Bundle(bundle) => Some(depth * f64::from(bundle.deep)),
            Make::LaidTogether(laid) => Some(laid.bearing_depth),
            _ => None,
        });
        several.unwrap_or(depth)
    }

    /// Along the long side of the art.
    pub(super) fn long_way(&self) -> Direction {
        let body = self.body();
        if body.height >= body.width {
            Direction::Up
        } else {
            Direction::Across
        }
    }

    /// How something that fills so much gets into the box of a pack, inside whose lining it lies.
    pub(super) fn way_into(
        &self,
        pack: &super::Pack<'_>,
        filled: Envelope,
    ) -> Result<WayIn, Refusal> {
        let supplies = self.supplies;
        let first = pack.of == super::PackOf::Piece;
        if first && matches!(self.carriage, Carriage::Mailed | Carriage::Padded) {
            return Ok(WayIn::End);
        }
        if first && supplies.rules.shipment.travel_case {
            return Ok(WayIn::Face);
        }
        if first && let Some(bought) = supplies.bought()? {
            return Ok(bought.way_in());
        }
        let lining = if first && self.has(LayerSlot::Lining) {
            supplies.lining()
        } else {
            Addition::default()
        };
        let held = (self.long_way(), filled.grown(lining));
        Ok(boxed::style_of(supplies, pack, held).way_in())
    }

    /// The roll that is there, and how it goes into its tube.
    pub(super) fn tube_fit(&self) -> Option<TubeFit<'_>> {
        let roll: Roll = self.layers.iter().find_map(|layer| match layer.make {
            Make::Roll(roll) => Some(roll),
            _ => None,
        })?;
        let rules = self.supplies.rules;
        let turns = if self.has(LayerSlot::FirstWrap) {
            rules.allowances.roll_turns
        } else {
            0
        };
        Some(TubeFit::of(
            self.supplies,
            roll,
            turns,
            rules.shipment.turns_asked,
        ))
    }
}

/// Returns what boards and pockets go around: the piece, the bundle of pieces, or what holds the piece off its boards.
pub(crate) fn body_of(layers: &[Layer], size: PieceSize) -> PieceSize {
    let held = |layer: &&Layer| layer.holds_several() || layer.holds_off();
    layers
        .iter()
        .rev()
        .find(held)
        .map_or(size, |layer| PieceSize {
            width: layer.envelope.across,
            height: layer.envelope.up,
            depth: layer.envelope.through,
        })
}

/// What a layer's swaps are picked by.
pub(crate) struct Offering<'a> {
    pub catalogue: &'a Catalogue,
    pub piece: &'a Piece,
    pub carriage: Carriage,
}

/// What is offered: what it is called, and the choices that make it.
pub(crate) type Offer = (String, Choices);

/// What is on a shelf, and not retired, as a choice of material.
macro_rules! from_shelf {
    ($shelf:expr, $field:ident $(, $also:ident: $value:expr)*) => {
        $shelf
            .iter()
            .filter(|material| !material.shelf.retired)
            .map(|material| {
                let choices = crate::house::Choices {
                    $field: Some(material.id.clone()),
                    $($also: $value,)*
                    ..crate::house::Choices::default()
                };
                (material.name.clone(), choices)
            })
    };
}
pub(super) use from_shelf;

/// An offer to carry it otherwise.
pub(super) fn carried(label: &str, carriage: Carriage) -> Offer {
    let choices = Choices {
        carriage: Some(carriage),
        ..Choices::default()
    };
    (label.to_owned(), choices)
}

/// An offer to follow another school.
pub(super) fn schools(label: &str, schools: SchoolChoices) -> Offer {
    let choices = Choices {
        schools,
        ..Choices::default()
    };
    (label.to_owned(), choices)
}

/// How else sheets that are loose could travel.
pub(super) fn ways_of_loose(offering: &Offering<'_>) -> Vec<Offer> {
    if offering.piece.construction.is_loose() {
        vec![
            carried("Flat between boards, in a box", Carriage::Folio),
            carried("Flat between boards, in a mailer", Carriage::Mailed),
            carried("Rolled in a tube", Carriage::Rolled),
        ]
    } else if matches!(offering.carriage, Carriage::Mailed | Carriage::Padded) {
        vec![carried("Flat, in a box", Carriage::Flat)]
    } else {
        Vec::new()
    }
}

/// The boards that a box can be made of, as a choice for one.
pub(super) fn box_boards(
    offering: &Offering<'_>,
    chosen: fn(&MaterialId) -> Choices,
) -> Vec<Offer> {
    let boards = offering.catalogue.boards.iter();
    boards
        .filter(|board| board.makes_boxes() && !board.shelf.retired)
        .map(|board| (board.name.clone(), chosen(&board.id)))
        .collect()
}
