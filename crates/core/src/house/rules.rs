//! The house rules as one versioned structure.

use std::{
    collections::{BTreeMap, BTreeSet},
    sync::Arc,
};

use serde::{Deserialize, Serialize};

use super::{Allowances, BeginLine, Choices, ExchangeRate, Schools, shipped_beginnings};
use crate::{
    Refusal, Refusals,
    enclosure::{Enclosed, EnclosureSet, sets_refused, shipped_sets},
    house::{CartonStyle, LookKind, SavedCut, SavedFace},
    material::{KeptCase, MaterialId},
    odds::{OddsTables, WayRisk},
    quantity::{Area, Bare, Length, LengthUnit, Mass, Telling},
    space::{BoxSides, Envelope, LayerSlot, Opens},
};

/// Declares the materials of a house, each with the id that a starting catalogue has for it.
macro_rules! materials {
    ($($(#[$doc:meta])* $field:ident $(= $default:literal)?;)*) => {
        /// The materials that a plan takes unless a shipment says otherwise.
        #[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        pub struct HouseMaterials {
            $(
                $(#[$doc])*
                $(#[serde(default = $default)])?
                pub $field: MaterialId,
            )*
        }

        impl HouseMaterials {
            /// Returns every material that the house names, with its field.
            #[must_use]
            pub fn named(&self) -> Vec<(&'static str, &MaterialId)> {
                vec![$((stringify!($field), &self.$field),)*]
            }
        }
    };
}

materials! {
    /// Against the art, where its medium allows.
    contact_paper;
    /// Against the art, for those who want what lets go.
    parchment_paper = "start::parchment_paper";
    /// Over glass.
    glazing_paper;
    /// Folded into corner pockets.
    pocket_board;
    /// In front, and behind where the rule says so.
    face_board;
    /// Wound around.
    cushion_wrap;
    /// At the edges and behind.
    fill;
    /// Of the box.
    box_board;
    /// Inside, on paper and card.
    inner_tape;
    /// On the wrap.
    wrap_tape;
    /// On the box.
    seal_tape;
    /// On glass.
    glass_tape = "start::glass_tape";
    /// Inside, for those who want to see what to peel.
    masking_tape = "start::masking_tape";
    /// On the box, for those who use as little plastic as can be.
    paper_seal_tape = "start::paper_seal_tape";
    /// Cut into pads and blocks.
    pad_foam = "start::pad_foam";
    /// Around where two halves of a box meet.
    filament_tape = "start::filament_tape";
    /// In the hollow behind a canvas.
    back_foam = "start::back_foam";
    /// Around a face that must not be touched.
    spacer_board = "start::spacer_board";
    /// Between like pieces, and around loose sheets.
    folio_board = "start::folio_board";
    /// Around loose sheets in a mailer.
    mailer_board = "start::mailer_board";
    /// From the back of a piece through the board behind it.
    hinge_tape = "start::hinge_tape";
    /// Outside the cushion.
    outer_board = "start::outer_board";
    /// Says which piece it is, and which side is the face and the top.
    name_tag = "start::name_tag";
    /// Bought, for corners.
    slip_on_corner = "start::slip_on_corner";
    /// Stretched around the boards.
    stretch_film = "start::stretch_film";
    /// Sealed around.
    bag_film = "start::bag_film";
    /// On the inside of the box.
    lining_foam = "start::lining_foam";
    /// Rolled along the edges.
    roll_paper = "start::roll_paper";
    /// Folded into springs.
    spring_board = "start::spring_board";
    /// Laid flat behind in a box that is too deep.
    padding_sheet = "start::padding_sheet";
    /// On the sides that it may lie on.
    label = "start::label";
    /// Around the closed box.
    outer_paper = "start::outer_paper";
    /// The faces of a travel case.
    case_board = "start::case_board";
}

/// What a starting catalogue calls the materials that older rules did not name.
mod start {
    use crate::material::MaterialId;

    macro_rules! starting {
        ($($name:ident = $id:literal;)*) => {
            $(pub(super) fn $name() -> MaterialId { MaterialId::new($id) })*
        };
    }

    starting! {
        parchment_paper = "baking-parchment";
        glass_tape = "low-tack-50";
        masking_tape = "masking-25";
        paper_seal_tape = "gummed-60";
        pad_foam = "urethane-32";
        filament_tape = "filament-50";
        back_foam = "polyether-27";
        spacer_board = "foam-core-5";
        folio_board = "corrugated-c";
        mailer_board = "corrugated-e";
        hinge_tape = "acid-free-20";
        outer_board = "corrugated-c";
        name_tag = "paper-tag";
        slip_on_corner = "card-corner-40";
        stretch_film = "stretch-20";
        bag_film = "bag-50";
        lining_foam = "urethane-32";
        roll_paper = "brown-kraft";
        spring_board = "corrugated-b";
        padding_sheet = "foam-sheet-3";
        label = "label-100";
        outer_paper = "brown-kraft";
        case_board = "plywood-4";
    }
}

/// What a studio has settled for every plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(remote = "Self")]
pub struct HouseRules {
    /// What the studio calls this set, in 1 to 60 letters.
    #[cfg_attr(feature = "schema", schema(min_length = 1, max_length = 60))]
    pub name: String,
    /// Counts up with every change; a stored plan names the version that it followed.
    pub version: u32,
    /// Every allowance.
    #[serde(default)]
    pub allowances: Allowances,
    /// Which school it follows in each question.
    #[serde(default)]
    pub schools: Schools,
    /// Layers that every plan has or leaves out, where the job lets it choose.
    #[serde(default)]
    pub layers: BTreeMap<LayerSlot, bool>,
    /// What is taken from the shelf.
    pub materials: HouseMaterials,
    /// Behind, in place of the board in front.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub back_board: Option<MaterialId>,
    /// Of a second box, in place of the first one's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub second_board: Option<MaterialId>,
    /// Between two boxes, in place of the fill.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub second_fill: Option<MaterialId>,
    /// A carton or a mailer of the stores in place of a box that is cut; only a shipment has one.
    #[serde(default, skip)]
    pub bought_box: Option<MaterialId>,
    /// The case that was built before, in place of one that is built; only a shipment has one.
    #[serde(default, skip)]
    pub case_kept: Option<KeptCase>,
    /// The tables behind the odds of a journey.
    #[serde(default)]
    #[cfg_attr(feature = "schema", schema(value_type = OddsTables))]
    pub odds: Arc<OddsTables>,
    /// From whom to begin: the lines of the table, in their order.
    #[serde(default = "shipped")]
    #[cfg_attr(feature = "schema", schema(value_type = Vec<BeginLine>))]
    pub beginnings: Arc<Vec<BeginLine>>,
    /// What other currencies are worth in the studio's own.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub rates: Vec<ExchangeRate>,
    /// What goes in besides the piece by custom of the house.
    #[serde(default = "customary")]
    #[cfg_attr(feature = "schema", schema(value_type = Vec<EnclosureSet>))]
    pub enclosures: Arc<Vec<EnclosureSet>>,
    /// Looks at the bench that are only shown; every other stops until it is answered.
    #[serde(default, skip_serializing_if = "BTreeSet::is_empty")]
    pub looks_shown: BTreeSet<LookKind>,
    /// What goes in besides the piece of a shipment; only a shipment has that.
    #[serde(default, skip)]
    pub enclosed: Arc<Vec<Enclosed>>,
    /// What a shipment has settled that a house does not.
    #[serde(default, skip)]
    pub shipment: ShipmentOnly,
    /// How the studio reads quantities: its messages are told so.
    #[serde(default, skip)]
    pub told_in: Telling,
    /// The country that parcels leave from; empty while it is not known.
    #[serde(default, skip)]
    pub home: String,
}

crate::json::read_in_one_place!(HouseRules);

fn customary() -> Arc<Vec<EnclosureSet>> {
    Arc::new(shipped_sets())
}

fn shipped() -> Arc<Vec<BeginLine>> {
    Arc::new(shipped_beginnings())
}

/// How tape is laid on a pane.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum GlassPattern {
    /// From corner to corner and side to side.
    Star,
    /// Up and across, evenly spaced.
    Lattice,
}

/// What a roll travels in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TubeShape {
    /// A round tube off the shelf; where none takes the roll, one that is folded.
    Round,
    /// One of three sides, folded from board.
    Triangular,
}

/// How a piece travels.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, Hash)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Carriage {
    /// As it is, in a box.
    Flat,
    /// Between two boards, in a box.
    Folio,
    /// Between two boards, in a mailer.
    Mailed,
    /// As it is, wrapped thin, in a padded mailer.
    Padded,
    /// Rolled up, in a tube.
    Rolled,
}

/// What one shipment settles that has no place in the rules of a house.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct ShipmentOnly {
    /// A leg for the pockets in place of the share of the short side.
    pub pocket_leg: Option<Length>,
    /// An area for the face pads in place of the whole face.
    pub pad_area: Option<Area>,
    /// A leg for the corner blocks in place of so many thicknesses.
    pub block_leg: Option<Length>,
    /// Whether the shipment, and not the house, set the thickness or area of the face pads.
    pub pads_asked: bool,
    /// Whether a roll goes in a tube that is folded from board, whatever the shelf holds.
    pub folded_tube: bool,
    /// A pattern on the glass in place of the one by its size.
    pub glass_pattern: Option<GlassPattern>,
    /// A style of box in place of the one that opens on an edge.
    pub box_style: Option<CartonStyle>,
    /// A style of the second box in place of the one that opens on an edge.
    pub second_style: Option<CartonStyle>,
    /// How far a board behind stands proud, in place of the one in front.
    pub back_proud: Option<Length>,
    /// On which sides of the box a lining lies, in place of all six.
    pub lining_sides: Option<BoxSides>,
    /// Inside a carton that the studio has, in place of a box that is cut: along and across its opening, and deep.
    pub saved: Option<[Length; 3]>,
    /// Inside a second carton, which is pushed into that one for what is longer than it.
    pub saved_second: Option<[Length; 3]>,
    /// What of that carton is cut.
    pub saved_cut: SavedCut,
    /// On which side it opens.
    pub saved_opens: Opens,
    /// Which of its faces is outside.
    pub saved_face: SavedFace,
    /// Whether a travel case takes the place of the box.
    pub travel_case: bool,
    /// What a case was found to weigh empty.
    pub case_empty: Option<Mass>,
    /// Whether the shipment, and not the house, named the board of the box.
    pub board_asked: bool,
    /// Scores of the box that were cut through by mistake.
    pub cut_through: u32,
    /// What the wrapped piece measures, in place of what the sums say.
    pub wrapped: Option<Envelope>,
    /// How a loose piece travels.
    pub carriage: Option<Carriage>,
    /// An inner diameter of the roll in place of the one by its surface.
    pub roll_inner: Option<Length>,
    /// How many of a set lie side by side, across and up.
    pub set_grid: Option<[u32; 2]>,
    /// Whether the shipment, and not the house, named the sheet against the art.
    pub sheet_asked: bool,
    /// Whether the shipment, and not the house, named the kind of corners.
    pub corners_asked: bool,
    /// Whether the shipment, and not the house, named the bought corner.
    pub corner_named: bool,
    /// Whether the shipment, and not the house, named the cushion that is wound around.
    pub wrap_asked: bool,
    /// Whether the shipment, and not the house, said how often the first wrap goes around.
    pub turns_asked: bool,
    /// The way it goes; national where nothing is known.
    pub way: Option<WayRisk>,
}

impl HouseRules {
    /// Returns what bare numbers are in, where lengths are typed in a unit: masses are in the studio's.
    #[must_use]
    pub const fn bare(&self, length: LengthUnit) -> Bare {
        Bare {
            length,
            mass: self.told_in.mass,
        }
    }

    /// Returns these rules with what a shipment has chosen otherwise.
    ///
    /// # Errors
    /// A [`Refusal`] for each choice that is out of the range of its allowance.
    pub fn with(&self, choices: &Choices) -> Result<Self, Vec<Refusal>> {
        choices.applied_to(self)
    }

    /// Returns the way that a shipment goes; national and dry where none was set.
    #[must_use]
    pub fn way(&self) -> WayRisk {
        self.shipment
            .way
            .unwrap_or_else(|| self.odds.way_to(&self.home, None, None))
    }

    /// Checks the numbers and the name of rules that somebody wrote.
    ///
    /// # Errors
    /// A [`Refusal`] for each allowance outside its range, or for a name that is empty or over 60
    /// characters.
    pub fn check(&self) -> Result<(), Vec<Refusal>> {
        let mut refusals = Refusals::from(self.allowances.check().err().unwrap_or_default());
        refusals.extend(self.odds.check().err().unwrap_or_default());
        refusals.extend(self.beginnings_refused());
        refusals.extend(self.rates_refused());
        refusals.extend(sets_refused(&self.enclosures));
        let length = self.name.trim().chars().count();
        if !(1..=LONGEST_NAME).contains(&length) {
            refusals.refuse(
                "name",
                format!("{length} characters are too many: give a name of 1 to {LONGEST_NAME}"),
            );
        }
        refusals.or(())
    }
}

const LONGEST_NAME: usize = 60;
