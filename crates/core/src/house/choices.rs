//! What one shipment does otherwise than the house.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

use super::{
    Allowances, BoardFit, Carriage, ContactRule, Fit, GlassPattern, HouseRules, Padding,
    PlasticRule, SchoolChoices, TapeRule,
};
use crate::{
    Refusal,
    carton::{CartonStyle, SavedCut, SavedFace},
    json,
    material::MaterialId,
    quantity::{Area, Length, LengthRange, LengthUnit, TypedLength},
    space::{BoxSide, BoxSides, LayerSlot},
};

/// The choices of a shipment; what is absent follows the house rules.
///
/// Lengths are texts as typed, as `6 mm` or `1/4 in`.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct Choices {
    /// The preset that it starts from; the table of beginnings is asked when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub preset: Option<String>,
    /// Layers added or left out, where the job lets a person choose.
    #[serde(skip_serializing_if = "BTreeMap::is_empty")]
    pub layers: BTreeMap<LayerSlot, bool>,
    /// Schools that this shipment follows instead of the house's.
    #[serde(skip_serializing_if = "SchoolChoices::is_empty")]
    pub schools: SchoolChoices,
    /// Turns of the first wrap.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub first_turns: Option<u32>,
    /// Turns of the second wrap; none leaves it out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub second_turns: Option<u32>,
    /// The sheet against the art.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub contact_paper: Option<MaterialId>,
    /// The board of the corner pockets.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pocket_board: Option<MaterialId>,
    /// The bought corners.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub slip_on_corner: Option<MaterialId>,
    /// The board in front and behind.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub face_board: Option<MaterialId>,
    /// The cushion of both wraps.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cushion_wrap: Option<MaterialId>,
    /// The foam of pads and blocks.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pad_foam: Option<MaterialId>,
    /// The board outside the cushion.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub outer_board: Option<MaterialId>,
    /// The fill at the edges and behind.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub fill: Option<MaterialId>,
    /// The board of the box.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub box_board: Option<MaterialId>,
    /// How the box is made; opening on an edge when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub box_style: Option<CartonStyle>,
    /// A carton or a mailer of the stores in place of a box that is cut; an empty text takes it back.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub bought_box: Option<MaterialId>,
    /// Inside a carton that the studio has, along its opening, in place of a box that is cut; given together with the
    /// other two, of the board that is chosen for the box.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub saved_length: Option<String>,
    /// Inside that carton, across its opening.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub saved_width: Option<String>,
    /// Inside that carton, how deep it is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub saved_height: Option<String>,
    /// What of that carton is cut where it is larger than what goes in; its depth when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub saved_cut: Option<SavedCut>,
    /// Which of its faces is outside; as it was when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub saved_face: Option<SavedFace>,
    /// Which carton of the pile it is; an empty text for one that was only measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub saved_from: Option<String>,
    /// The carrier that it belongs to, who alone takes it; an empty text for anybody's.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub saved_carrier: Option<String>,
    /// Inside a second carton, along its opening, where two are pushed into each other for what is longer than one; given
    /// together with the other two.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub second_saved_length: Option<String>,
    /// Inside that second carton, across its opening.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub second_saved_width: Option<String>,
    /// Inside that second carton, how deep it is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub second_saved_height: Option<String>,
    /// Which carton of the pile the second is; an empty text for one that was only measured.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub second_saved_from: Option<String>,
    /// How a second box is made; opening on an edge when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub second_style: Option<CartonStyle>,
    /// The board of a second box; that of the first when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub second_board: Option<MaterialId>,
    /// The fill between two boxes; that within when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub second_fill: Option<MaterialId>,
    /// The board behind; that in front when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub back_board: Option<MaterialId>,
    /// How far the board behind stands proud; as the one in front when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub back_proud: Option<String>,
    /// The foam of a lining.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lining_foam: Option<MaterialId>,
    /// The thickness of a lining.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lining_thickness: Option<String>,
    /// The sides of the box that a lining lies on; all six when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lining_sides: Option<Vec<BoxSide>>,
    /// The paper of rolls along the edges.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub roll_paper: Option<MaterialId>,
    /// The board of springs along the edges.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub spring_board: Option<MaterialId>,
    /// What is laid flat behind in a box that is too deep: foam, a cushion off the roll, or board.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub padding_sheet: Option<MaterialId>,
    /// The label of the handling marks.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub label: Option<MaterialId>,
    /// The paper around the closed box.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub outer_paper: Option<MaterialId>,
    /// What the wrapped piece measures across; given together with the other two.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub wrapped_across: Option<String>,
    /// What the wrapped piece measures up.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub wrapped_up: Option<String>,
    /// What the wrapped piece measures through.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub wrapped_through: Option<String>,
    /// The foam behind a canvas.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub back_foam: Option<MaterialId>,
    /// The board of a window spacer.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub spacer_board: Option<MaterialId>,
    /// The board of a folio in a box, or between like pieces.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub folio_board: Option<MaterialId>,
    /// The board of a folio in a mailer.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub mailer_board: Option<MaterialId>,
    /// The tag that says which piece it is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub name_tag: Option<MaterialId>,
    /// How far the face boards stand proud of the piece.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub board_proud: Option<String>,
    /// The leg of the corner pockets.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pocket_leg: Option<String>,
    /// The thickness of the face pads.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pad_thickness: Option<String>,
    /// The area of the face pads on one side, as four pads at the corners; the whole face when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub pad_area_cm2: Option<f64>,
    /// The thickness of the edge pads.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub edge_pad_thickness: Option<String>,
    /// The thickness of the corner blocks.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub block_thickness: Option<String>,
    /// How far the corner blocks reach along each edge.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub block_leg: Option<String>,
    /// The room left on each edge in the box.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub clearance: Option<String>,
    /// The room left behind in the box.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub depth_clearance: Option<String>,
    /// The gap between two boxes.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub second_gap: Option<String>,
    /// How tape is laid on the glass.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub glass_pattern: Option<GlassPattern>,
    /// How a loose piece travels.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub carriage: Option<Carriage>,
    /// The inner diameter of a roll.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub roll_inner: Option<String>,
    /// How many of a set lie side by side, across and up.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "schema", schema(min_items = 2, max_items = 2))]
    pub set_grid: Option<[u32; 2]>,
}

/// The least and the most area of pads on one side, in square centimetres.
const PAD_AREA_CM2: std::ops::RangeInclusive<f64> = 4.0..=40_000.0;
const CM2_PER_M2: f64 = 1e4;
/// So many of a set may lie side by side.
const MOST_SIDE_BY_SIDE: u32 = 12;

impl Choices {
    /// Every length that is typed, with its field and the allowance that gives its range.
    fn lengths(&mut self) -> [(&'static str, &'static str, &mut Option<String>); 21] {
        [
            (
                "choices.board_proud",
                "board_proud_mm",
                &mut self.board_proud,
            ),
            ("choices.clearance", "clearance_mm", &mut self.clearance),
            (
                "choices.depth_clearance",
                "depth_clearance_mm",
                &mut self.depth_clearance,
            ),
            ("choices.pocket_leg", POCKET_LEG, &mut self.pocket_leg),
            (
                "choices.pad_thickness",
                "pad_thickness_mm",
                &mut self.pad_thickness,
            ),
            (
                "choices.edge_pad_thickness",
                "edge_pad_thickness_mm",
                &mut self.edge_pad_thickness,
            ),
            (
                "choices.block_thickness",
                "block_thickness_mm",
                &mut self.block_thickness,
            ),
            ("choices.block_leg", BLOCK_LEG, &mut self.block_leg),
            ("choices.second_gap", "second_gap_mm", &mut self.second_gap),
            ("choices.roll_inner", ROLL_INNER, &mut self.roll_inner),
            ("choices.back_proud", BACK_PROUD, &mut self.back_proud),
            (
                "choices.lining_thickness",
                "lining_thickness_mm",
                &mut self.lining_thickness,
            ),
            (
                "choices.wrapped_across",
                WRAPPED[0],
                &mut self.wrapped_across,
            ),
            ("choices.wrapped_up", WRAPPED[1], &mut self.wrapped_up),
            (
                "choices.wrapped_through",
                WRAPPED[2],
                &mut self.wrapped_through,
            ),
            ("choices.saved_length", SAVED[0], &mut self.saved_length),
            ("choices.saved_width", SAVED[1], &mut self.saved_width),
            ("choices.saved_height", SAVED[2], &mut self.saved_height),
            (
                "choices.second_saved_length",
                SECOND_SAVED[0],
                &mut self.second_saved_length,
            ),
            (
                "choices.second_saved_width",
                SECOND_SAVED[1],
                &mut self.second_saved_width,
            ),
            (
                "choices.second_saved_height",
                SECOND_SAVED[2],
                &mut self.second_saved_height,
            ),
        ]
    }

    /// Returns the choices with the unit written after each bare number.
    ///
    /// # Errors
    /// A [`Refusal`] for each length that was not understood.
    pub fn with_units(mut self, bare: LengthUnit) -> Result<Self, Vec<Refusal>> {
        let mut refusals = Vec::new();
        for (field, _, text) in self.lengths() {
            if text.as_deref().is_some_and(|text| text.trim().is_empty()) {
                *text = None;
            }
            write_unit(field, text, bare, &mut refusals);
        }
        if refusals.is_empty() {
            Ok(self)
        } else {
            Err(refusals)
        }
    }

    /// Tells whether they name a material.
    #[must_use]
    pub fn name_material(&self, id: &MaterialId) -> bool {
        let written = serde_json::to_value(self).expect("choices can be written");
        let fields = written.as_object().into_iter().flatten();
        fields
            .into_iter()
            .any(|(_, value)| value.as_str() == Some(id.as_str()))
    }

    pub(super) fn applied_to(&self, house: &HouseRules) -> Result<HouseRules, Vec<Refusal>> {
        let mut rules = house.clone();
        let mut refusals = Vec::new();
        rules.schools = rules.schools.with(self.schools);
        rules.layers.extend(&self.layers);
        self.follow_padding(&mut rules);
        self.set_lengths(&mut rules, &mut refusals);
        self.set_turns(&mut rules, &mut refusals);
        self.set_roll_turns(&mut rules);
        self.set_materials(&mut rules);
        self.set_shipment_only(&mut rules, &mut refusals);
        if refusals.is_empty() {
            Ok(rules)
        } else {
            Err(refusals)
        }
    }

    /// What the schools of padding, fit and tape mean in numbers and materials; a choice of the shipment
    /// comes after it.
    fn follow_padding(&self, rules: &mut HouseRules) {
        let allowances = &mut rules.allowances;
        match rules.schools.padding {
            Padding::Standard => {}
            Padding::Lean => allowances.second_turns = 0,
            Padding::Generous => {
                allowances.first_turns = (allowances.first_turns + 1).min(MOST_TURNS);
                allowances.second_turns = (allowances.second_turns + 1).min(MOST_TURNS);
                for slot in [LayerSlot::CornerBlocks, LayerSlot::BackFill] {
                    rules.layers.entry(slot).or_insert(true);
                }
            }
        }
        if rules.schools.fit == Fit::Snug {
            allowances.clearance = allowances.snug_clearance;
            allowances.depth_clearance = allowances.depth_clearance.min(allowances.snug_clearance);
        }
        let materials = &mut rules.materials;
        match rules.schools.tape {
            TapeRule::PaperInside => {}
            TapeRule::PlasticThroughout => materials.inner_tape.clone_from(&materials.seal_tape),
            TapeRule::Masking => materials.inner_tape.clone_from(&materials.masking_tape),
        }
        if rules.schools.contact == ContactRule::Parchment {
            materials
                .contact_paper
                .clone_from(&materials.parchment_paper);
        }
        if rules.schools.plastic == PlasticRule::Least {
            materials.seal_tape.clone_from(&materials.paper_seal_tape);
        }
    }

    fn set_lengths(&self, rules: &mut HouseRules, refusals: &mut Vec<Refusal>) {
        for (field, key, text) in self.clone().lengths() {
            // What was taken back stands there as an empty text.
            let Some(text) = text.as_deref().filter(|text| !text.trim().is_empty()) else {
                continue;
            };
            match checked_length(field, range_of(key), text) {
                Ok(length) => *place_of(rules, key) = length,
                Err(refusal) => refusals.push(refusal),
            }
        }
    }

    fn set_turns(&self, rules: &mut HouseRules, refusals: &mut Vec<Refusal>) {
        for (field, key, turns, rule) in [
            (
                "choices.first_turns",
                "first_turns",
                self.first_turns,
                &mut rules.allowances.first_turns,
            ),
            (
                "choices.second_turns",
                "second_turns",
                self.second_turns,
                &mut rules.allowances.second_turns,
            ),
        ] {
            let Some(turns) = turns else { continue };
            match Allowances::about(key).check(f64::from(turns)) {
                Ok(_) => *rule = turns,
                Err(out) => refusals.push(Refusal::new(field, out)),
            }
        }
    }

    /// Returns these choices with a patch merged in, as a page does: what the patch names takes the place of what
    /// was there.
    ///
    /// # Panics
    /// Never: choices can be written, and what is merged of them are choices.
    #[must_use]
    pub fn patched(&self, patch: &Self) -> Self {
        let written = |choices| serde_json::to_value(choices).expect("choices can be written");
        let mut whole = written(self);
        json_patch::merge(&mut whole, &written(patch));
        json::read(whole).expect("merged choices are choices")
    }

    /// A roll has one wrap, the first: what is asked of that holds for it.
    fn set_roll_turns(&self, rules: &mut HouseRules) {
        if let Some(turns) = self.first_turns {
            rules.allowances.roll_turns = turns;
        }
    }

    /// Returns these choices laid over those of a preset, which settles schools and layers only.
    #[must_use]
    pub fn over(&self, preset: &Self) -> Self {
        let mut layers = preset.layers.clone();
        layers.extend(&self.layers);
        Self {
            schools: self.schools.or(preset.schools),
            layers,
            ..self.clone()
        }
    }

    /// Tells whether anything is chosen, but for the preset to start from.
    #[must_use]
    pub fn is_only_begun(&self) -> bool {
        *self
            == Self {
                preset: self.preset.clone(),
                ..Self::default()
            }
    }

    fn set_materials(&self, rules: &mut HouseRules) {
        let materials = &mut rules.materials;
        set(&mut materials.contact_paper, self.contact_paper.as_ref());
        set(&mut materials.glazing_paper, self.contact_paper.as_ref());
        set(&mut materials.pocket_board, self.pocket_board.as_ref());
        set(&mut materials.slip_on_corner, self.slip_on_corner.as_ref());
        set(&mut materials.face_board, self.face_board.as_ref());
        set(&mut materials.cushion_wrap, self.cushion_wrap.as_ref());
        set(&mut materials.pad_foam, self.pad_foam.as_ref());
        set(&mut materials.outer_board, self.outer_board.as_ref());
        set(&mut materials.fill, self.fill.as_ref());
        set(&mut materials.back_foam, self.back_foam.as_ref());
        set(&mut materials.spacer_board, self.spacer_board.as_ref());
        set(&mut materials.folio_board, self.folio_board.as_ref());
        set(&mut materials.mailer_board, self.mailer_board.as_ref());
        set(&mut materials.name_tag, self.name_tag.as_ref());
        set(&mut materials.box_board, self.box_board.as_ref());
        set(&mut materials.lining_foam, self.lining_foam.as_ref());
        set(&mut materials.roll_paper, self.roll_paper.as_ref());
        set(&mut materials.spring_board, self.spring_board.as_ref());
        set(&mut materials.padding_sheet, self.padding_sheet.as_ref());
        set(&mut materials.label, self.label.as_ref());
        set(&mut materials.outer_paper, self.outer_paper.as_ref());
        rules.bought_box = self.bought_box.clone().filter(|id| !id.as_str().is_empty());
        for (rule, choice) in [
            (&mut rules.back_board, &self.back_board),
            (&mut rules.second_board, &self.second_board),
            (&mut rules.second_fill, &self.second_fill),
        ] {
            if choice.is_some() {
                rule.clone_from(choice);
            }
        }
    }

    fn set_shipment_only(&self, rules: &mut HouseRules, refusals: &mut Vec<Refusal>) {
        if let Some(area) = self.pad_area_cm2 {
            if PAD_AREA_CM2.contains(&area) {
                rules.shipment.pad_area = Some(Area::m2(area / CM2_PER_M2));
            } else {
                let (least, most) = (PAD_AREA_CM2.start(), PAD_AREA_CM2.end());
                let says = format!(
                    "it is {area}; pads on one side have {least} to {most}\u{a0}cm² together"
                );
                refusals.push(Refusal::new("choices.pad_area_cm2", says));
            }
        }
        if let Some(grid) = self.set_grid {
            if grid
                .iter()
                .all(|side| (1..=MOST_SIDE_BY_SIDE).contains(side))
            {
                rules.shipment.set_grid = Some(grid);
            } else {
                let says = format!("give 1 to {MOST_SIDE_BY_SIDE} across and up");
                refusals.push(Refusal::new("choices.set_grid", says));
            }
        }
        rules.shipment.pads_asked = self.pad_thickness.is_some() || self.pad_area_cm2.is_some();
        rules.shipment.sheet_asked = self.contact_paper.is_some();
        rules.shipment.corners_asked = self.schools.corners.is_some();
        rules.shipment.turns_asked = self.first_turns.is_some();
        rules.shipment.glass_pattern = self.glass_pattern;
        rules.shipment.box_style = self.box_style;
        rules.shipment.second_style = self.second_style;
        rules.shipment.saved_cut = self.saved_cut.unwrap_or_default();
        rules.shipment.saved_face = self.saved_face.unwrap_or_default();
        rules.shipment.lining_sides = self.lining_sides.as_deref().map(BoxSides::of);
        if self.lining_sides.as_ref().is_some_and(Vec::is_empty) {
            let says =
                "a lining lies on one side of the box at least: name one, or leave the lining out";
            refusals.push(Refusal::new("choices.lining_sides", says));
        }
        self.given_together(refusals);
        rules.shipment.carriage = self.carriage;
    }
}

impl Choices {
    /// A wrapped piece is measured on all three sides, or on none; so is a carton that the studio has.
    fn given_together(&self, refusals: &mut Vec<Refusal>) {
        let wrapped = [
            ("choices.wrapped_across", &self.wrapped_across),
            ("choices.wrapped_up", &self.wrapped_up),
            ("choices.wrapped_through", &self.wrapped_through),
        ];
        let saved = [
            ("choices.saved_length", &self.saved_length),
            ("choices.saved_width", &self.saved_width),
            ("choices.saved_height", &self.saved_height),
        ];
        let second = [
            ("choices.second_saved_length", &self.second_saved_length),
            ("choices.second_saved_width", &self.second_saved_width),
            ("choices.second_saved_height", &self.second_saved_height),
        ];
        let given = |text: &Option<String>| text.as_deref().is_some_and(|text| !text.is_empty());
        if second.iter().any(|(_, text)| given(text)) && !saved.iter().any(|(_, text)| given(text))
        {
            let says = "measure the first carton too, or take the second away";
            refusals.push(Refusal::new("choices.saved_length", says));
        }
        for (sides, says) in [
            (
                second,
                "measure the second carton inside on all three sides, or on none of them",
            ),
            (
                wrapped,
                "measure all three sides of the wrapped piece, or none of them",
            ),
            (
                saved,
                "measure the carton inside on all three sides, or on none of them",
            ),
        ] {
            let missing = sides
                .iter()
                .filter(|(_, text)| text.as_deref().is_none_or(str::is_empty));
            if (1..3).contains(&missing.clone().count()) {
                refusals.extend(missing.map(|(field, _)| Refusal::new(*field, says)));
            }
        }
    }
}

const MOST_TURNS: u32 = 6;
/// The range of a leg is that of the house's longest; the leg itself is the shipment's own.
const POCKET_LEG: &str = "pocket_leg_most_mm";
/// A block's leg has no allowance of its own; its range is declared here.
const BLOCK_LEG: &str = "block_leg";
/// A board behind stands as far proud as the one in front may.
const BACK_PROUD: &str = "back_proud";
/// A wrapped piece has no allowance; its range is declared here.
const WRAPPED: [&str; 3] = ["wrapped_across", "wrapped_up", "wrapped_through"];
/// A carton that the studio has is measured inside.
const SAVED: [&str; 3] = ["saved_length", "saved_width", "saved_height"];
/// So is a second one, which is pushed into it.
const SECOND_SAVED: [&str; 3] = [
    "second_saved_length",
    "second_saved_width",
    "second_saved_height",
];
/// A roll has no allowance; its range is declared here.
const ROLL_INNER: &str = "roll_inner";

/// Where a length that was chosen takes the place of the house's.
fn place_of<'a>(rules: &'a mut HouseRules, key: &str) -> &'a mut Length {
    let allowances = &mut rules.allowances;
    match key {
        "board_proud_mm" => {
            // Whoever types a margin means it, whatever the board.
            rules.schools.board_fit = BoardFit::Proud;
            &mut allowances.board_proud
        }
        "clearance_mm" => &mut allowances.clearance,
        "depth_clearance_mm" => &mut allowances.depth_clearance,
        "pad_thickness_mm" => &mut allowances.pad_thickness,
        "edge_pad_thickness_mm" => &mut allowances.edge_pad_thickness,
        "block_thickness_mm" => &mut allowances.block_thickness,
        "second_gap_mm" => &mut allowances.second_gap,
        "lining_thickness_mm" => &mut allowances.lining_thickness,
        BACK_PROUD => rules.shipment.back_proud.get_or_insert(Length::ZERO),
        "saved_length" => &mut rules.shipment.saved.get_or_insert_default()[0],
        "saved_width" => &mut rules.shipment.saved.get_or_insert_default()[1],
        "saved_height" => &mut rules.shipment.saved.get_or_insert_default()[2],
        "second_saved_length" => &mut rules.shipment.saved_second.get_or_insert_default()[0],
        "second_saved_width" => &mut rules.shipment.saved_second.get_or_insert_default()[1],
        "second_saved_height" => &mut rules.shipment.saved_second.get_or_insert_default()[2],
        wrapped if WRAPPED.contains(&wrapped) => {
            let measured = rules.shipment.wrapped.get_or_insert_default();
            match wrapped {
                "wrapped_across" => &mut measured.across,
                "wrapped_up" => &mut measured.up,
                _ => &mut measured.through,
            }
        }
        BLOCK_LEG => rules.shipment.block_leg.get_or_insert(Length::ZERO),
        POCKET_LEG => rules.shipment.pocket_leg.get_or_insert(Length::ZERO),
        _ => rules.shipment.roll_inner.get_or_insert(Length::ZERO),
    }
}

fn set(rule: &mut MaterialId, choice: Option<&MaterialId>) {
    if let Some(id) = choice {
        rule.clone_from(id);
    }
}

/// Writes the unit after a bare number, or says why the text is not a length.
pub(crate) fn write_unit(
    field: &str,
    text: &mut Option<String>,
    bare: LengthUnit,
    refusals: &mut Vec<Refusal>,
) {
    let Some(typed) = text else { return };
    match TypedLength::read(typed, bare) {
        Ok(read) => read.text().clone_into(typed),
        Err(error) => refusals.push(Refusal::new(field, error)),
    }
}

fn range_of(key: &str) -> LengthRange {
    match key {
        ROLL_INNER => return ROLL_INNER_RANGE,
        BLOCK_LEG => return BLOCK_LEG_RANGE,
        wrapped if WRAPPED.contains(&wrapped) => return WRAPPED_RANGE,
        saved if SAVED.contains(&saved) || SECOND_SAVED.contains(&saved) => return SAVED_RANGE,
        _ => {}
    }
    let key = if key == BACK_PROUD {
        "board_proud_mm"
    } else {
        key
    };
    let allowance = Allowances::about(key);
    LengthRange {
        name: allowance.name,
        // The shortest leg a shipment may set is where its tape still lands, not the house's most.
        least: if key == POCKET_LEG {
            SHORTEST_LEG
        } else {
            Length::mm(allowance.least)
        },
        most: Length::mm(allowance.most),
        remedy: allowance
            .reason
            .strip_suffix('.')
            .unwrap_or(allowance.reason),
    }
}

const ROLL_INNER_RANGE: LengthRange = LengthRange {
    name: "the inner diameter",
    least: Length::mm(50.0),
    most: Length::mm(600.0),
    remedy: "a tighter roll cracks paint, and a wider one is a box",
};

const SAVED_RANGE: LengthRange = LengthRange {
    name: "a side of the carton",
    least: Length::mm(20.0),
    most: Length::mm(5000.0),
    remedy: "measure it inside, from wall to wall",
};

const WRAPPED_RANGE: LengthRange = LengthRange {
    name: "a side of the wrapped piece",
    least: Length::mm(1.0),
    most: Length::mm(5000.0),
    remedy: "measure it as it lies on the bench, after the last wrap",
};

const BLOCK_LEG_RANGE: LengthRange = LengthRange {
    name: "the leg of a corner block",
    least: Length::mm(20.0),
    most: Length::mm(2100.0),
    remedy: "a shorter leg buckles, and a longer one is an edge pad",
};

/// Tape needs 25 mm to land on.
const SHORTEST_LEG: Length = Length::mm(25.0);

fn checked_length(field: &str, range: LengthRange, text: &str) -> Result<Length, Refusal> {
    let typed =
        TypedLength::read(text, LengthUnit::Mm).map_err(|error| Refusal::new(field, error))?;
    range
        .check(typed.length(), typed.unit())
        .map_err(|out| Refusal::new(field, out))
}
