//! What the layers of one plan are made from: the rules, and the materials that they name.

use rust_decimal::Decimal;

use super::{Addition, Envelope, Layer, Make};
use crate::{
    Refusal,
    house::{Allowances, HouseRules},
    material::{
        Board, Catalogue, ContactPaper, CushionWrap, Fill, MaterialId, MissingMaterial, Tape,
    },
    piece::Piece,
    quantity::{Area, Length, Mass, Minutes, Money, Weight, ceil_count, decimal_of},
};

/// The rules of a plan with each material found on the shelf.
#[derive(Debug, Clone, Copy)]
pub struct Supplies<'a> {
    pub(crate) rules: &'a HouseRules,
    pub(crate) catalogue: &'a Catalogue,
    pub(crate) contact_paper: &'a ContactPaper,
    pub(crate) pocket_board: &'a Board,
    pub(crate) face_board: &'a Board,
    pub(crate) cushion_wrap: &'a CushionWrap,
    pub(crate) fill: &'a Fill,
    pub(crate) box_board: &'a Board,
    pub(crate) inner_tape: &'a Tape,
    pub(crate) wrap_tape: &'a Tape,
    pub(crate) seal_tape: &'a Tape,
}

/// What a layer is made of and how much of it, before it is weighed and priced.
pub(crate) struct Making<'a> {
    pub material: (&'a MaterialId, &'a str),
    pub adds: Addition,
    pub inside: Envelope,
    pub area: Area,
    pub stuff: Mass,
    pub doubt: f64,
    pub stuff_cost: Decimal,
    pub tape: (&'a Tape, Length),
    pub minutes: Minutes,
    pub why: &'static str,
    pub make: Make,
}

impl<'a> Supplies<'a> {
    /// Finds every material that the rules name.
    ///
    /// The contact paper is the house's where the medium allows it, else the first on the shelf that the
    /// medium does allow.
    ///
    /// # Errors
    /// A [`Refusal`] for the first material that is not in the catalogue.
    pub fn find(
        piece: &Piece,
        rules: &'a HouseRules,
        catalogue: &'a Catalogue,
    ) -> Result<Self, Refusal> {
        let named = &rules.materials;
        Ok(Self {
            rules,
            catalogue,
            contact_paper: at("house.contact_paper", paper_for(piece, rules, catalogue))?,
            pocket_board: at(
                "house.pocket_board",
                catalogue.folding_board(&named.pocket_board),
            )?,
            face_board: at("choices.face_board", catalogue.board(&named.face_board))?,
            cushion_wrap: at(
                "house.cushion_wrap",
                catalogue.cushion_wrap(&named.cushion_wrap),
            )?,
            fill: at("house.fill", catalogue.fill(&named.fill))?,
            box_board: at(
                "choices.box_board",
                catalogue.folding_board(&named.box_board),
            )?,
            inner_tape: at("house.inner_tape", catalogue.tape(&named.inner_tape))?,
            wrap_tape: at("house.wrap_tape", catalogue.tape(&named.wrap_tape))?,
            seal_tape: at("house.seal_tape", catalogue.tape(&named.seal_tape))?,
        })
    }

    pub(crate) const fn allowances(&self) -> &'a Allowances {
        &self.rules.allowances
    }

    /// Returns how much tape holds a flap of a given length: a tab, and one more for each distance.
    pub(crate) fn tabs_along(&self, flap: Length) -> Length {
        let allowances = self.allowances();
        let tabs = ceil_count(flap / allowances.tape_tab_every).max(1);
        allowances.tape_tab * f64::from(tabs)
    }

    /// Weighs and prices a layer.
    pub(crate) fn layer(&self, making: Making<'_>) -> Layer {
        let (material, material_name) = making.material;
        let (tape, tape_length) = making.tape;
        let tape_weight = Weight::with_doubt(
            tape.linear_density * tape_length,
            self.allowances().sheet_doubt,
        );
        let cost = making.stuff_cost + tape.price_per_m * decimal_of(tape_length.as_m());
        Layer {
            material: material.clone(),
            material_name: material_name.to_owned(),
            adds: making.adds,
            envelope: making.inside.grown(making.adds),
            area: making.area,
            tape: tape_length,
            weight: Weight::with_doubt(making.stuff, making.doubt) + tape_weight,
            cost: Money::new(cost, &self.catalogue.currency),
            minutes: making.minutes,
            why: making.why,
            make: making.make,
        }
    }
}

/// Names the field that a missing material came from.
fn at<T>(field: &str, found: Result<T, MissingMaterial>) -> Result<T, Refusal> {
    found.map_err(|missing| Refusal::new(field, missing))
}

/// Glass takes the house's paper for glazing; a bare face takes one that its medium allows.
fn paper_for<'a>(
    piece: &Piece,
    rules: &HouseRules,
    catalogue: &'a Catalogue,
) -> Result<&'a ContactPaper, MissingMaterial> {
    if piece.construction.is_glazed() {
        return catalogue.contact_paper(&rules.materials.glazing_paper);
    }
    let house = catalogue.contact_paper(&rules.materials.contact_paper)?;
    let allowed = |paper: &&ContactPaper| paper.may_touch.contains(&piece.medium);
    Ok(Some(house)
        .filter(allowed)
        .or_else(|| catalogue.contact_papers.iter().find(allowed))
        .unwrap_or(house))
}
