//! What the layers of one plan are made from: the rules, and the materials that they name.

use super::{
    Cushioning, Layer, Make, Pack, PackOf, Pierce, SavedCartons, Sides, bought::Bought,
    handling::Handling,
};
use crate::{
    Refusal,
    carton::{BoxSize, SavedCarton},
    house::{Allowances, Carriage, CornerStyle, HouseRules, ReusedRule, TapeRule},
    material::{
        Board, BoardBuild, Catalogue, ContactPaper, CushionWrap, Film, Foam, Ground, MaterialId,
        MissingMaterial, SlipOnCorner, Sundry, Tape, Touch,
    },
    part::{Cut, Doubt, Need, Part, PartId, Run, Strips},
    piece::{Glazing, Medium, Piece},
    quantity::{Area, Length, Mass, Minutes, Money, Weight, ceil_count},
    space::{Addition, BoxSides, Envelope, LayerSlot},
};

/// The rules of a plan with each material that every plan takes found on the shelf.
#[derive(Debug, Clone)]
pub struct Supplies<'a> {
    pub(crate) rules: &'a HouseRules,
    pub(crate) catalogue: &'a Catalogue,
    pub(crate) contact_paper: &'a ContactPaper,
    pub(crate) face_board: &'a Board,
    /// Behind; the same as in front unless another is named.
    pub(crate) back_board: &'a Board,
    pub(crate) cushion_wrap: &'a CushionWrap,
    /// Around the wrapped piece.
    pub(crate) first: Pack<'a>,
    /// Around the first pack, where there is one; of the same stuff unless other is named.
    pub(crate) second: Pack<'a>,
    pub(crate) contact_tape: &'a Tape,
    pub(crate) inner_tape: &'a Tape,
    /// On card that keeps it off the art.
    pub(crate) card_tape: &'a Tape,
    pub(crate) wrap_tape: &'a Tape,
    pub(crate) seal_tape: &'a Tape,
    pub(crate) glass_tape: &'a Tape,
    pub(crate) filament_tape: &'a Tape,
    /// From the back of a piece through the board behind it.
    pub(crate) hinge_tape: &'a Tape,
    /// Tapes that another takes the place of, because they do not go where the house would put them.
    pub(crate) swapped: Vec<Swapped<'a>>,
}

/// A tape that another takes the place of.
#[derive(Debug, Clone)]
pub(crate) struct Swapped<'a> {
    pub why: String,
    pub used: &'a str,
}

/// What a layer is made of and how, before it is weighed and priced.
pub(crate) struct Making<'a> {
    pub slot: LayerSlot,
    /// What it takes; the first is what it is made of.
    pub needs: Vec<Need<'a>>,
    pub adds: Addition,
    pub inside: Envelope,
    pub minutes: Minutes,
    pub why: &'static str,
    pub make: Make,
    pub cushioning: Option<Cushioning>,
}

impl<'a> Supplies<'a> {
    /// Finds every material that each plan takes.
    ///
    /// The contact paper is the house's where the medium allows it, else the first on the shelf that the
    /// medium does allow; a tape that does not go where the house would put it is changed likewise.
    ///
    /// # Errors
    /// A [`Refusal`] for the first material that is not in the catalogue.
    pub fn find(
        piece: &Piece,
        rules: &'a HouseRules,
        catalogue: &'a Catalogue,
    ) -> Result<Self, Refusal> {
        let named = &rules.materials;
        let mut swapped = Vec::new();
        let mut tape = |field, id, ground| {
            let wanted = at(field, catalogue.tape(id))?;
            Ok(tape_on(wanted, ground, catalogue, &mut swapped))
        };
        let contact_tape = tape("house.inner_tape", &named.inner_tape, Ground::Paper)?;
        let inner_tape = tape("house.inner_tape", &named.inner_tape, Ground::Card)?;
        // Where the shelf has none, what is taken inside serves here too.
        let card = match catalogue.tape(&named.masking_tape) {
            Ok(_) if rules.schools.tape == TapeRule::PaperInside => &named.masking_tape,
            _ => &named.inner_tape,
        };
        let card_tape = tape("house.masking_tape", card, Ground::Card)?;
        let wrap_tape = tape("house.wrap_tape", &named.wrap_tape, Ground::Film)?;
        let seal_tape = tape("house.seal_tape", &named.seal_tape, Ground::Card)?;
        // Where the shelf has none, the tape inside is the only one that may touch a back.
        let hinge_tape = match catalogue.tape(&named.hinge_tape) {
            Ok(_) => tape("house.hinge_tape", &named.hinge_tape, Ground::Paper)?,
            Err(_) => contact_tape,
        };
        let filament_tape = tape("house.filament_tape", &named.filament_tape, Ground::Card)?;
        let glass_tape = tape("house.glass_tape", &named.glass_tape, Ground::Glass)?;
        let first = Pack {
            of: PackOf::Piece,
            fill: at("choices.fill", catalogue.fill(&named.fill))?,
            board: at("choices.box_board", catalogue.box_board(&named.box_board))?,
            style: rules.shipment.box_style,
            doubled: false,
        };
        Ok(Self {
            rules,
            catalogue,
            contact_paper: at("house.contact_paper", paper_for(piece, rules, catalogue))?,
            face_board: at("choices.face_board", catalogue.board(&named.face_board))?,
            back_board: match &rules.back_board {
                Some(id) => at("choices.back_board", catalogue.board(id))?,
                None => at("choices.face_board", catalogue.board(&named.face_board))?,
            },
            cushion_wrap: match thin_wrap(rules, catalogue) {
                Some(thin) => thin,
                None => at(
                    "choices.cushion_wrap",
                    catalogue.cushion_wrap(&named.cushion_wrap),
                )?,
            },
            second: Pack {
                of: PackOf::Pack,
                fill: match &rules.second_fill {
                    Some(id) => at("choices.second_fill", catalogue.fill(id))?,
                    None => first.fill,
                },
                board: match &rules.second_board {
                    Some(id) => at("choices.second_board", catalogue.box_board(id))?,
                    None => first.board,
                },
                style: rules.shipment.second_style,
                doubled: false,
            },
            first,
            contact_tape,
            inner_tape,
            card_tape,
            wrap_tape,
            seal_tape,
            glass_tape,
            filament_tape,
            hinge_tape,
            swapped,
        })
    }

    /// Tells whether the sheet found may lie against the piece; where no sheet on the shelf may, the plan
    /// has none.
    pub(crate) fn has_sheet_for(&self, piece: &Piece) -> bool {
        piece
            .bare_medium()
            .is_none_or(|medium| self.contact_paper.touch(medium) != Touch::Never)
    }

    pub(crate) const fn allowances(&self) -> &'a Allowances {
        &self.rules.allowances
    }

    pub(crate) fn pocket_board(&self) -> Result<&'a Board, Refusal> {
        let id = &self.rules.materials.pocket_board;
        at("choices.pocket_board", self.catalogue.folding_board(id))
    }

    /// Finds what was chosen in place of a box that is cut.
    pub(crate) fn bought(&self) -> Result<Option<Bought<'a>>, Refusal> {
        let shipment = &self.rules.shipment;
        if let Some(first) = shipment.saved {
            let board = self.first.board;
            let carton = |[length, width, height]: [Length; 3]| {
                SavedCarton(BoxSize {
                    length,
                    width,
                    height,
                    caliper: board.caliper,
                })
            };
            let cartons = SavedCartons {
                first: carton(first),
                second: shipment.saved_second.map(carton),
                cut: shipment.saved_cut,
                opens: shipment.saved_opens,
            };
            return Ok(Some(Bought::Saved(cartons, board)));
        }
        let Some(id) = &self.rules.bought_box else {
            return Ok(None);
        };
        let shelf = self.catalogue;
        if let Some(mailer) = shelf.mailers.iter().find(|mailer| mailer.id == *id) {
            return Ok(Some(Bought::Mailer(mailer)));
        }
        at("choices.bought_box", shelf.picture_carton(id))
            .map(|carton| Some(Bought::Carton(carton)))
    }

    /// Returns what a lining adds, on the sides that have one.
    pub(crate) fn lining(&self) -> Addition {
        let sides = self.rules.shipment.lining_sides;
        sides
            .unwrap_or(BoxSides::ALL)
            .thick(self.allowances().lining_thickness)
    }

    /// Returns a pack.
    pub(crate) const fn pack(&self, of: PackOf) -> &Pack<'a> {
        match of {
            PackOf::Piece => &self.first,
            PackOf::Pack => &self.second,
        }
    }

    /// Finds a board that folds.
    pub(crate) fn folding_board(&self, field: &str, id: &MaterialId) -> Result<&'a Board, Refusal> {
        at(field, self.catalogue.folding_board(id))
    }

    pub(crate) fn paper(&self, field: &str, id: &MaterialId) -> Result<&'a ContactPaper, Refusal> {
        at(field, self.catalogue.contact_paper(id))
    }

    /// Finds something that is laid flat: foam, a cushion off the roll, or board.
    pub(crate) fn sheet_goods(
        &self,
        field: &str,
        id: &MaterialId,
    ) -> Result<SheetGoods<'a>, Refusal> {
        let shelf = self.catalogue;
        if let Ok(wrap) = shelf.cushion_wrap(id) {
            return Ok(SheetGoods::Wrap(wrap));
        }
        if let Ok(foam) = shelf.foam(id) {
            let thin = foam.sheets.iter().map(|sheet| sheet.thickness).min();
            let thin = thin.ok_or_else(|| {
                Refusal::new(field, format!("Materials has no sheet of {}", foam.name))
            })?;
            return Ok(SheetGoods::Foam(foam, thin));
        }
        at(field, shelf.board(id)).map(SheetGoods::Board)
    }

    pub(crate) fn board(&self, field: &str, id: &MaterialId) -> Result<&'a Board, Refusal> {
        at(field, self.catalogue.board(id))
    }

    pub(crate) fn foam(&self, field: &str, id: &MaterialId) -> Result<&'a Foam, Refusal> {
        at(field, self.catalogue.foam(id))
    }

    pub(crate) fn film(&self, field: &str, id: &MaterialId) -> Result<&'a Film, Refusal> {
        at(field, self.catalogue.film(id))
    }

    pub(crate) fn sundry(&self, field: &str, id: &MaterialId) -> Result<&'a Sundry, Refusal> {
        at(field, self.catalogue.sundry(id))
    }

    /// Returns the bought corner for a depth: the usual one, or else the closest on the shelf that holds it. A corner that the
    /// shipment chose stays, whether it fits or not.
    pub(crate) fn slip_on_corner_for(&self, depth: Length) -> Result<&'a SlipOnCorner, Refusal> {
        let id = &self.rules.materials.slip_on_corner;
        let usual = at("choices.slip_on_corner", self.catalogue.slip_on_corner(id))?;
        if usual.fits(depth) || self.rules.shipment.corner_named {
            return Ok(usual);
        }
        let others = self.catalogue.slip_on_corners.iter();
        let closest = others
            .filter(|corner| !corner.shelf.retired && corner.fits(depth))
            .min_by(|one, other| one.depth_to.as_mm().total_cmp(&other.depth_to.as_mm()));
        Ok(closest.unwrap_or(usual))
    }

    /// Returns the kind of corners for a depth: where no bought corner fits, the house folds pockets, unless the shipment asked for
    /// bought ones.
    pub(crate) fn corner_style_for(&self, depth: Length) -> Result<CornerStyle, Refusal> {
        let style = self.rules.schools.corners;
        let bought = style == CornerStyle::SlipOn && !self.rules.shipment.corners_asked;
        if bought && !self.slip_on_corner_for(depth)?.fits(depth) {
            return Ok(CornerStyle::CardPockets);
        }
        Ok(style)
    }

    /// Returns how many strips hold a flap of a given length: one, and one more for each distance.
    pub(crate) fn tabs_along(&self, flap: Length) -> u32 {
        ceil_count(flap / self.allowances().tape_tab_every).max(1)
    }

    /// Weighs and prices a layer.
    pub(crate) fn layer(&self, making: Making<'_>) -> Layer {
        let free = self.rules.schools.reused == ReusedRule::Nothing;
        let currency = &self.catalogue.currency;
        let [first, ..] = making.needs.as_slice() else {
            unreachable!("a layer is made of something")
        };
        let made_of = first.stuff();
        let board = first.of_board();
        let solid = board.is_some_and(|board| board.build == BoardBuild::Solid);
        let mut needs: Vec<Need<'_>> = Vec::with_capacity(making.needs.len());
        for need in making.needs.iter().filter(|need| !need.is_nothing()) {
            if !needs.iter_mut().any(|known| known.takes_in(need)) {
                needs.push(need.in_one_length());
            }
        }
        // Foam that crumbs lies in paper, where there is any.
        if needs.iter().any(Need::sheds)
            && let Ok(paper) = self
                .catalogue
                .contact_paper(&self.rules.materials.outer_paper)
        {
            let cases: Vec<Need<'_>> = needs.iter().filter_map(|need| need.case(paper)).collect();
            needs.extend(cases);
        }
        let mut parts: Vec<Part> = needs.iter().map(|need| need.part(free, currency)).collect();
        let minutes = self.count_cutting(&making, &needs, &mut parts);
        let torn = making.needs.iter().filter_map(Need::strips);
        let strips: Vec<Strips> = torn.filter(|one| one.count > 0).collect();
        let tape = || needs.iter().filter(|need| need.strips().is_some());
        let cost = needs.iter().map(|need| need.cost(free)).sum();
        Layer {
            slot: making.slot,
            material: made_of.id.clone(),
            material_name: made_of.name.to_owned(),
            adds: making.adds,
            envelope: making.inside.grown(making.adds),
            area: area_of(&parts, made_of.id),
            tape: tape().map(Need::tape_length).sum(),
            tape_name: tape()
                .find(|need| need.tape_length() > Length::ZERO)
                .map(|need| need.stuff().name.to_owned()),
            strips,
            weight: self.weight_of(&needs, &parts),
            used_again: needs.iter().map(Need::used_again).sum(),
            plastic: needs
                .iter()
                .zip(&parts)
                .filter(|(need, _)| need.stuff().plastic)
                .map(|(_, part)| part.mass)
                .sum(),
            cost: Money::new(cost, currency),
            minutes,
            why: making.why,
            cautions: Handling::of(&making.make, making.slot)
                .caution
                .says(solid)
                .into_iter()
                .collect(),
            pierce: Pierce::of(
                &making.make,
                &parts,
                making.cushioning.as_ref(),
                self.catalogue,
            ),
            make: making.make,
            parts,
            cushioning: making.cushioning,
        }
    }

    /// Notes the minutes that each part takes to cut, and returns those of the whole layer: its own, and what heavier board takes
    /// longer. Cutting is no more than a share of the minutes that the layer takes in single wall.
    fn count_cutting(
        &self,
        making: &Making<'_>,
        needs: &[Need<'_>],
        parts: &mut [Part],
    ) -> Minutes {
        let a_metre = self.allowances().cut_minutes_per_m;
        // A box is scored, slotted and trimmed besides.
        let lines = if matches!(making.make, Make::SlottedBox(_) | Make::CutBox(_)) {
            LINES_OF_A_BOX
        } else {
            1.0
        };
        let each: Vec<Minutes> = needs
            .iter()
            .map(|need| a_metre * (need.cut_length().as_m() * lines))
            .collect();
        let all: Minutes = each.iter().copied().sum();
        let most = making.minutes * MOST_CUTTING;
        let share = if all > most { most / all } else { 1.0 };
        let mut longer = Minutes::ZERO;
        for ((need, one), part) in needs.iter().zip(each).zip(parts) {
            part.cutting = one * (share * need.cut_factor());
            longer += one * (share * (need.cut_factor() - 1.0));
        }
        making.minutes + longer
    }

    /// Returns what parts weigh. Parts of one material are off together, since they come off one sheet or roll; those
    /// of different materials are not.
    fn weight_of(&self, needs: &[Need<'_>], parts: &[Part]) -> Weight {
        let allowances = self.allowances();
        let mut by_material: Vec<(&MaterialId, Mass, f64)> = Vec::with_capacity(parts.len());
        for (need, part) in needs.iter().zip(parts) {
            let known = by_material
                .iter_mut()
                .find(|(id, ..)| **id == part.material);
            match known {
                Some((_, mass, _)) => *mass += part.mass,
                None => by_material.push((
                    &part.material,
                    part.mass,
                    match need.doubt() {
                        Doubt::Sheet => allowances.sheet_doubt,
                        Doubt::Fill => allowances.fill_doubt,
                        Doubt::Weighed => 0.0,
                    },
                )),
            }
        }
        by_material
            .into_iter()
            .map(|(_, mass, doubt)| Weight::with_doubt(mass, doubt))
            .reduce(|one, other| one + other)
            .unwrap_or_else(|| Weight::with_doubt(Mass::ZERO, 0.0))
    }
}

/// Cutting takes at most this share of the minutes that a layer takes. Source: house rule.
const MOST_CUTTING: f64 = 0.6;
/// A blank of a box has so many cuts and scores along each of its two sides. Source: house rule.
const LINES_OF_A_BOX: f64 = 3.0;

/// Returns the area of a material that stays.
fn area_of(parts: &[Part], made_of: &MaterialId) -> Area {
    parts
        .iter()
        .filter(|part| part.material == *made_of)
        .filter_map(|part| Some(part.take.area()? * f64::from(part.count)))
        .sum()
}

/// Something that is laid flat, of the thickness that it comes in.
#[derive(Debug, Clone, Copy)]
pub(crate) enum SheetGoods<'a> {
    Wrap(&'a CushionWrap),
    /// The thinnest sheet of it.
    Foam(&'a Foam, Length),
    Board(&'a Board),
}

impl<'a> SheetGoods<'a> {
    pub(crate) const fn thickness(self) -> Length {
        match self {
            Self::Wrap(wrap) => wrap.loaded_thickness,
            Self::Foam(_, thickness) => thickness,
            Self::Board(board) => board.caliper,
        }
    }

    /// How many of it, one on the other, come nearest to a thickness, and how thick they are together; what comes in sheets of several
    /// thicknesses is taken as thick as asked.
    pub(crate) fn layers_for(self, thickness: Length) -> (u32, Length) {
        match self {
            Self::Foam(..) => (1, thickness),
            Self::Wrap(_) | Self::Board(_) => {
                let one = self.thickness();
                let count = ceil_count(thickness / one - 0.5).max(1);
                (count, one * f64::from(count))
            }
        }
    }

    /// The same of a thickness of its own, where it comes in several.
    pub(crate) const fn as_thick(self, thickness: Length) -> Self {
        match self {
            Self::Foam(foam, _) => Self::Foam(foam, thickness),
            other => other,
        }
    }

    pub(crate) fn need(self, name: PartId, sides: [Length; 2]) -> Need<'a> {
        match self {
            Self::Wrap(wrap) => {
                let [side, other] = sides;
                let across = side.min(other).min(wrap.roll_width);
                let along = Length::mm((side * other).as_m2() / across.as_m() * MM_PER_M);
                Need::wrap(name, wrap, Run::of([along, across]))
            }
            Self::Foam(foam, thickness) => Need::foam(name, foam, Cut::of(sides), thickness),
            Self::Board(board) => Need::board(name, board, Cut::of(sides)),
        }
    }

    /// What it gives in a fall; `None` if that is not known.
    pub(crate) fn cushioning(self, sides: Sides) -> Option<Cushioning> {
        match self {
            Self::Wrap(wrap) => wrap.curve.map(|curve| Cushioning::covering(curve, sides)),
            Self::Foam(foam, _) => Some(Cushioning::covering(foam.curve, sides)),
            Self::Board(board) => {
                (board.build != BoardBuild::Solid).then(|| Cushioning::of_board(sides))
            }
        }
    }
}

const MM_PER_M: f64 = 1e3;

/// Into a padded mailer goes the thinnest bubble on the shelf, where nobody named a cushion.
fn thin_wrap<'a>(rules: &HouseRules, catalogue: &'a Catalogue) -> Option<&'a CushionWrap> {
    let padded = rules.shipment.carriage == Some(Carriage::Padded);
    let bubbles = |wrap: &&CushionWrap| wrap.bubbles && !wrap.shelf.retired;
    (padded && !rules.shipment.wrap_asked)
        .then(|| {
            let wraps = catalogue.cushion_wraps.iter().filter(bubbles);
            wraps.min_by_key(|wrap| wrap.loaded_thickness)
        })
        .flatten()
}

/// Names the field that a missing material came from.
fn at<T>(field: &str, found: Result<T, MissingMaterial>) -> Result<T, Refusal> {
    found.map_err(|missing| Refusal::new(field, missing))
}

/// The tape wanted, or the first on the shelf that goes where it does not.
fn tape_on<'a>(
    wanted: &'a Tape,
    ground: Ground,
    catalogue: &'a Catalogue,
    swapped: &mut Vec<Swapped<'a>>,
) -> &'a Tape {
    let Err(refused) = wanted.goes_on(ground) else {
        return wanted;
    };
    let other = catalogue
        .tapes
        .iter()
        .find(|tape| !tape.shelf.retired && tape.goes_on(ground).is_ok());
    let used = other.unwrap_or(wanted);
    swapped.push(Swapped {
        why: refused.to_string(),
        used: &used.name,
    });
    used
}

/// Glass takes the house's paper for glazing; a bare face takes one that its medium allows, and on a frame that nothing may rub on
/// one that may lie on gilding. A paper that needs a reason is taken only when it was asked for.
fn paper_for<'a>(
    piece: &Piece,
    rules: &HouseRules,
    catalogue: &'a Catalogue,
) -> Result<&'a ContactPaper, MissingMaterial> {
    let mut shelf = catalogue
        .contact_papers
        .iter()
        .filter(|paper| !paper.shelf.retired);
    let left_free = piece.frame_finish().is_left_free();
    let soft = |paper: &ContactPaper| paper.touch(Medium::Gilding) == Touch::Allowed;
    let Some(medium) = piece.bare_medium() else {
        if left_free && let Some(soft) = shelf.clone().find(|paper| soft(paper)) {
            return Ok(soft);
        }
        let wanted = catalogue.contact_paper(&rules.materials.glazing_paper)?;
        let acrylic = piece.construction.glazing() == Glazing::Acrylic;
        if !(acrylic && wanted.scratches_acrylic) {
            return Ok(wanted);
        }
        let other = catalogue.contact_paper(&rules.materials.contact_paper)?;
        return Ok(Some(other)
            .filter(|paper| !paper.scratches_acrylic)
            .or_else(|| shelf.find(|paper| !paper.scratches_acrylic && !paper.plastic))
            .unwrap_or(wanted));
    };
    let house = catalogue.contact_paper(&rules.materials.contact_paper)?;
    let asked = rules.shipment.sheet_asked;
    if left_free && !asked && !soft(house) {
        let both = |paper: &&ContactPaper| soft(paper) && paper.touch(medium) == Touch::Allowed;
        if let Some(soft) = shelf.clone().find(both) {
            return Ok(soft);
        }
    }
    match house.touch(medium) {
        Touch::Allowed => return Ok(house),
        Touch::WithReason if asked => return Ok(house),
        _ => {}
    }
    Ok(shelf
        .find(|paper| paper.touch(medium) == Touch::Allowed)
        .unwrap_or(house))
}
