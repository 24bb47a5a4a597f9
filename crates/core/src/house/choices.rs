//! What one shipment does otherwise than the house.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

use super::{
    Allowances, BoardFit, Carriage, ContactRule, Fit, GlassPattern, HouseRules, Padding,
    PlasticRule, SchoolChoices, TapeRule, TubeShape,
};
use crate::{
    Refusal, Refusals,
    house::{CartonStyle, SavedCut, SavedFace},
    material::{KeptCase, MaterialId},
    quantity::{Area, Length, LengthRange, LengthUnit, TypedLength, read_mass},
    space::{BoxSide, BoxSides, LayerSlot, Opens},
};

/// A length that is typed.
struct LengthChoice {
    /// Where a refusal of it stands.
    field: &'static str,
    text: fn(&Choices) -> &Option<String>,
    text_mut: fn(&mut Choices) -> &mut Option<String>,
    range: fn() -> LengthRange,
    /// Where it takes the place of the house's.
    place: fn(&mut HouseRules) -> &mut Length,
}

/// What the value of a choice is.
#[derive(Debug, Clone, Copy)]
pub enum ChoiceShape {
    /// A length that is typed, in a range.
    Length(fn() -> LengthRange),
    /// The id of a material.
    Material,
    /// A value of its own type.
    Plain,
}

/// One choice of the table.
#[derive(Debug, Clone, Copy)]
pub struct EachChoice {
    /// Its name in JSON.
    pub key: &'static str,
    /// What its value is.
    pub shape: ChoiceShape,
}

/// Declares what a shipment may choose, each with what a choice of it does to the rules:
///
/// - `length(range, place)`: a length that is typed, its range, and where in the rules it goes;
/// - `material(places)`: a material, and where in the rules it goes;
/// - `if_chosen(place)`: the same where the rules may have none;
/// - `named()`: a material that `set_materials` puts into the rules by itself;
/// - `plain()`: a choice that `set_turns`, `set_roll_turns` or `set_shipment_only` puts into the rules.
macro_rules! choices {
    (
        $(#[$about:meta])*
        pub struct Choices { $($first:tt)* }
        $($(#[$meta:meta])* $field:ident: $type:ty = $does:ident($($with:tt)*);)*
    ) => {
        $(#[$about])*
        pub struct Choices {
            $($first)*
            $(
                $(#[$meta])*
                #[serde(skip_serializing_if = "Option::is_none")]
                pub $field: Option<$type>,
            )*
        }

        /// Every length that is typed.
        const fn lengths() -> [LengthChoice; LENGTHS] {
            choices!(@lengths [] $($does $field ($($with)*);)*)
        }

        const LENGTHS: usize = 0 $(+ choices!(@is_length $does))*;

        impl Choices {
            /// Every choice of its own, in the order of the table.
            pub const EACH: &[EachChoice] = &[
                $(EachChoice { key: stringify!($field), shape: choices!(@shape $does ($($with)*)) },)*
            ];

            /// Puts what a patch chooses in the place of what is chosen here.
            fn merge_each(&mut self, patch: &Self) {
                $(if patch.$field.is_some() {
                    self.$field.clone_from(&patch.$field);
                })*
            }

            /// Tells whether they name a material.
            #[must_use]
            pub fn name_material(&self, id: &MaterialId) -> bool {
                $(choices!(@names self id $field $does);)*
                false
            }

            /// Puts every material that is chosen in the place of the house's.
            fn set_materials(&self, rules: &mut HouseRules) {
                $(choices!(@set self rules $field $does ($($with)*));)*
                rules.bought_box = self.bought_box.clone().filter(|id| !id.as_str().is_empty());
            }
        }
    };

    (@shape length ($range:expr, $place:expr)) => { ChoiceShape::Length(|| $range) };
    (@shape plain ()) => { ChoiceShape::Plain };
    (@shape $does:ident ($($with:tt)*)) => { ChoiceShape::Material };

    (@is_length length) => { 1 };
    (@is_length material) => { 0 };
    (@is_length if_chosen) => { 0 };
    (@is_length named) => { 0 };
    (@is_length plain) => { 0 };

    (@lengths [$($done:tt)*]) => { [$($done)*] };
    (@lengths [$($done:tt)*] length $field:ident ($range:expr, $place:expr); $($rest:tt)*) => {
        choices!(@lengths [
            $($done)*
            LengthChoice {
                field: concat!("choices.", stringify!($field)),
                text: |choices| &choices.$field,
                text_mut: |choices| &mut choices.$field,
                range: || $range,
                place: $place,
            },
        ] $($rest)*)
    };
    (@lengths [$($done:tt)*] $does:ident $field:ident ($($with:tt)*); $($rest:tt)*) => {
        choices!(@lengths [$($done)*] $($rest)*)
    };

    (@names $self:ident $id:ident $field:ident plain) => {};
    (@names $self:ident $id:ident $field:ident length) => {};
    (@names $self:ident $id:ident $field:ident $does:ident) => {
        if $self.$field.as_ref() == Some($id) {
            return true;
        }
    };

    (@set $self:ident $rules:ident $field:ident material ($($($place:ident).+),+)) => {
        if let Some(id) = &$self.$field {
            $($rules.$($place).+.clone_from(id);)+
        }
    };
    (@set $self:ident $rules:ident $field:ident if_chosen ($place:ident)) => {
        if $self.$field.is_some() {
            $rules.$place.clone_from(&$self.$field);
        }
    };
    (@set $self:ident $rules:ident $field:ident named ()) => {};
    (@set $self:ident $rules:ident $field:ident length ($($with:tt)*)) => {};
    (@set $self:ident $rules:ident $field:ident plain ()) => {};
}

choices! {
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
    }

    /// Turns of the first wrap.
    first_turns: u32 = plain();
    /// Turns of the second wrap; none leaves it out.
    second_turns: u32 = plain();
    /// The sheet against the art.
    contact_paper: MaterialId = material(materials.contact_paper, materials.glazing_paper);
    /// The board of the corner pockets.
    pocket_board: MaterialId = material(materials.pocket_board);
    /// The bought corners.
    slip_on_corner: MaterialId = material(materials.slip_on_corner);
    /// The board in front and behind.
    face_board: MaterialId = material(materials.face_board);
    /// The cushion of both wraps.
    cushion_wrap: MaterialId = material(materials.cushion_wrap);
    /// The foam of pads and blocks.
    pad_foam: MaterialId = material(materials.pad_foam);
    /// The board outside the cushion.
    outer_board: MaterialId = material(materials.outer_board);
    /// The fill at the edges and behind.
    fill: MaterialId = material(materials.fill);
    /// The board of the box.
    box_board: MaterialId = material(materials.box_board);
    /// How the box is made; opening on an edge when absent.
    box_style: CartonStyle = plain();
    /// A carton or a mailer of the stores in place of a box that is cut; an empty text takes it back.
    bought_box: MaterialId = named();
    /// Inside a carton that the studio has, along its opening, in place of a box that is cut; given together with the
    /// other two, of the board that is chosen for the box.
    saved_length: String = length(SAVED_RANGE, |rules| &mut rules.shipment.saved.get_or_insert_default()[0]);
    /// Inside that carton, across its opening.
    saved_width: String = length(SAVED_RANGE, |rules| &mut rules.shipment.saved.get_or_insert_default()[1]);
    /// Inside that carton, how deep it is.
    saved_height: String = length(SAVED_RANGE, |rules| &mut rules.shipment.saved.get_or_insert_default()[2]);
    /// On which side that carton opens, and a second one too; on its large side when absent.
    saved_opens: Opens = plain();
    /// What of that carton is cut where it is larger than what goes in; its depth when absent.
    saved_cut: SavedCut = plain();
    /// Which of its faces is outside; as it was when absent.
    saved_face: SavedFace = plain();
    /// Which carton of the pile it is; an empty text for one that was only measured.
    saved_from: String = plain();
    /// The carrier that it belongs to, who alone takes it; an empty text for anybody's.
    saved_carrier: String = plain();
    /// Inside a second carton, along its opening, where two are pushed into each other for what is longer than one; given
    /// together with the other two.
    second_saved_length: String = length(SAVED_RANGE, |rules| &mut rules.shipment.saved_second.get_or_insert_default()[0]);
    /// Inside that second carton, across its opening.
    second_saved_width: String = length(SAVED_RANGE, |rules| &mut rules.shipment.saved_second.get_or_insert_default()[1]);
    /// Inside that second carton, how deep it is.
    second_saved_height: String = length(SAVED_RANGE, |rules| &mut rules.shipment.saved_second.get_or_insert_default()[2]);
    /// Which carton of the pile the second is; an empty text for one that was only measured.
    second_saved_from: String = plain();
    /// Whether it goes in a travel case, built once and used again, in place of a box that is cut.
    travel_case: bool = plain();
    /// What the case weighs empty, as `12.4 kg`; it is weighed once, and holds in place of the sum. An empty text takes it back.
    case_empty: String = plain();
    /// The case that was built before, as it stands on the shelf; it holds while `case_from` names it.
    case_kept: KeptCase = plain();
    /// Which case of the shelf it is; an empty text for one that is built.
    case_from: String = plain();
    /// The board of the faces of a travel case.
    case_board: MaterialId = material(materials.case_board);
    /// Scores of the box that were cut through by mistake: each is taped over, and the box bears less.
    cut_through: u32 = plain();
    /// How a second box is made; opening on an edge when absent.
    second_style: CartonStyle = plain();
    /// The board of a second box; that of the first when absent.
    second_board: MaterialId = if_chosen(second_board);
    /// The fill between two boxes; that within when absent.
    second_fill: MaterialId = if_chosen(second_fill);
    /// The board behind; that in front when absent.
    back_board: MaterialId = if_chosen(back_board);
    /// How far the board behind stands proud; as the one in front when absent.
    back_proud: String = length(allowed("board_proud_mm"), |rules| rules.shipment.back_proud.get_or_insert(Length::ZERO));
    /// The foam of a lining.
    lining_foam: MaterialId = material(materials.lining_foam);
    /// The thickness of a lining.
    lining_thickness: String = length(allowed("lining_thickness_mm"), |rules| &mut rules.allowances.lining_thickness);
    /// The sides of the box that a lining lies on; all six when absent.
    lining_sides: Vec<BoxSide> = plain();
    /// The paper of rolls along the edges.
    roll_paper: MaterialId = material(materials.roll_paper);
    /// The board of springs along the edges.
    spring_board: MaterialId = material(materials.spring_board);
    /// What is laid flat behind in a box that is too deep: foam, a cushion off the roll, or board.
    padding_sheet: MaterialId = material(materials.padding_sheet);
    /// The label of the handling marks.
    label: MaterialId = material(materials.label);
    /// The paper around the closed box.
    outer_paper: MaterialId = material(materials.outer_paper);
    /// What the wrapped piece measures across; given together with the other two.
    wrapped_across: String = length(WRAPPED_RANGE, |rules| &mut rules.shipment.wrapped.get_or_insert_default().across);
    /// What the wrapped piece measures up.
    wrapped_up: String = length(WRAPPED_RANGE, |rules| &mut rules.shipment.wrapped.get_or_insert_default().up);
    /// What the wrapped piece measures through.
    wrapped_through: String = length(WRAPPED_RANGE, |rules| &mut rules.shipment.wrapped.get_or_insert_default().through);
    /// The foam behind a canvas.
    back_foam: MaterialId = material(materials.back_foam);
    /// The board of a window spacer.
    spacer_board: MaterialId = material(materials.spacer_board);
    /// The board of a folio in a box, or between like pieces.
    folio_board: MaterialId = material(materials.folio_board);
    /// The board of a folio in a mailer.
    mailer_board: MaterialId = material(materials.mailer_board);
    /// The tag that says which piece it is.
    name_tag: MaterialId = material(materials.name_tag);
    /// How far the face boards stand proud of the piece.
    board_proud: String = length(allowed("board_proud_mm"), |rules| {
        // Whoever types a margin means it, whatever the board.
        rules.schools.board_fit = BoardFit::Proud;
        &mut rules.allowances.board_proud
    });
    /// The leg of the corner pockets.
    pocket_leg: String = length(pocket_leg_range(), |rules| rules.shipment.pocket_leg.get_or_insert(Length::ZERO));
    /// The thickness of the face pads.
    pad_thickness: String = length(allowed("pad_thickness_mm"), |rules| &mut rules.allowances.pad_thickness);
    /// The area of the face pads on one side, as four pads at the corners; the whole face when absent.
    pad_area_cm2: f64 = plain();
    /// The thickness of the edge pads.
    edge_pad_thickness: String = length(allowed("edge_pad_thickness_mm"), |rules| &mut rules.allowances.edge_pad_thickness);
    /// The thickness of the corner blocks.
    block_thickness: String = length(allowed("block_thickness_mm"), |rules| &mut rules.allowances.block_thickness);
    /// How far the corner blocks reach along each edge.
    block_leg: String = length(BLOCK_LEG_RANGE, |rules| rules.shipment.block_leg.get_or_insert(Length::ZERO));
    /// The room left on each edge in the box.
    clearance: String = length(allowed("clearance_mm"), |rules| &mut rules.allowances.clearance);
    /// The room left behind in the box.
    depth_clearance: String = length(allowed("depth_clearance_mm"), |rules| &mut rules.allowances.depth_clearance);
    /// The gap between two boxes.
    second_gap: String = length(allowed("second_gap_mm"), |rules| &mut rules.allowances.second_gap);
    /// How tape is laid on the glass.
    glass_pattern: GlassPattern = plain();
    /// What a roll travels in; a round tube where the shelf has one that takes it when absent.
    tube: TubeShape = plain();
    /// How a loose piece travels.
    carriage: Carriage = plain();
    /// The inner diameter of a roll.
    roll_inner: String = length(ROLL_INNER_RANGE, |rules| rules.shipment.roll_inner.get_or_insert(Length::ZERO));
    /// How many of a set lie side by side, across and up.
    #[cfg_attr(feature = "schema", schema(min_items = 2, max_items = 2))]
    set_grid: [u32; 2] = plain();
}

/// The least and the most area of pads on one side, in square centimetres.
const PAD_AREA_CM2: std::ops::RangeInclusive<f64> = 4.0..=40_000.0;
const CM2_PER_M2: f64 = 1e4;
/// How many of a set may lie side by side.
const MOST_SIDE_BY_SIDE: u32 = 12;

impl Choices {
    /// Returns the choices with the unit written after each bare number.
    ///
    /// # Errors
    /// A [`Refusal`] for each length that was not understood.
    pub fn with_units(mut self, bare: LengthUnit) -> Result<Self, Vec<Refusal>> {
        let mut refusals = Refusals::default();
        for length in lengths() {
            let (field, text) = (length.field, (length.text_mut)(&mut self));
            if text.as_deref().is_some_and(|text| text.trim().is_empty()) {
                *text = None;
            }
            write_unit(field, text, bare, &mut refusals);
        }
        refusals.or(self)
    }

    pub(super) fn applied_to(&self, house: &HouseRules) -> Result<HouseRules, Vec<Refusal>> {
        let mut rules = house.clone();
        let mut refusals = Refusals::default();
        rules.schools = rules.schools.with(self.schools);
        rules.layers.extend(&self.layers);
        self.follow_padding(&mut rules);
        self.set_lengths(&mut rules, &mut refusals);
        self.set_turns(&mut rules, &mut refusals);
        self.set_roll_turns(&mut rules);
        self.set_materials(&mut rules);
        self.set_shipment_only(&mut rules, &mut refusals);
        refusals.or(rules)
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

    fn set_lengths(&self, rules: &mut HouseRules, refusals: &mut Refusals) {
        for chosen in lengths() {
            // What was taken back stands there as an empty text.
            let text = (chosen.text)(self).as_deref();
            let Some(text) = text.filter(|text| !text.trim().is_empty()) else {
                continue;
            };
            match checked_length(chosen.field, (chosen.range)(), text) {
                Ok(length) => *(chosen.place)(rules) = length,
                Err(refusal) => refusals.push(refusal),
            }
        }
    }

    fn set_turns(&self, rules: &mut HouseRules, refusals: &mut Refusals) {
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
                Err(out) => refusals.refuse(field, out),
            }
        }
    }

    /// Returns these choices with a patch merged in, as a page does: what the patch names takes the place of what
    /// was there.
    #[must_use]
    pub fn patched(&self, patch: &Self) -> Self {
        let mut whole = self.clone();
        whole.merge_each(patch);
        whole.layers.extend(&patch.layers);
        whole.schools = patch.schools.or(self.schools);
        if patch.preset.is_some() {
            whole.preset.clone_from(&patch.preset);
        }
        whole
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

    fn set_shipment_only(&self, rules: &mut HouseRules, refusals: &mut Refusals) {
        if let Some(area) = self.pad_area_cm2 {
            if PAD_AREA_CM2.contains(&area) {
                rules.shipment.pad_area = Some(Area::m2(area / CM2_PER_M2));
            } else {
                let (least, most) = (PAD_AREA_CM2.start(), PAD_AREA_CM2.end());
                let says = format!(
                    "{area} is out of range: pads on one side have {least} to {most}\u{a0}cm² together"
                );
                refusals.refuse("choices.pad_area_cm2", says);
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
                refusals.refuse("choices.set_grid", says);
            }
        }
        rules.shipment.pads_asked = self.pad_thickness.is_some() || self.pad_area_cm2.is_some();
        rules.shipment.sheet_asked = self.contact_paper.is_some();
        rules.shipment.corners_asked = self.schools.corners.is_some();
        rules.shipment.corner_named = self.slip_on_corner.is_some();
        rules.shipment.turns_asked = self.first_turns.is_some();
        rules.shipment.wrap_asked = self.cushion_wrap.is_some();
        rules.shipment.glass_pattern = self.glass_pattern;
        rules.shipment.folded_tube = self.tube == Some(TubeShape::Triangular);
        rules.shipment.box_style = self.box_style;
        rules.shipment.second_style = self.second_style;
        rules.shipment.travel_case = self.travel_case.unwrap_or_default();
        self.set_case(rules, refusals);
        rules.shipment.saved_opens = self.saved_opens.unwrap_or_default();
        rules.shipment.saved_cut = self.saved_cut.unwrap_or_default();
        rules.shipment.saved_face = self.saved_face.unwrap_or_default();
        rules.shipment.board_asked = self.box_board.is_some();
        rules.shipment.cut_through = self.cut_through.unwrap_or(0);
        if rules.shipment.cut_through > MOST_CUT_THROUGH {
            let says = format!("with more than {MOST_CUT_THROUGH} cut scores, cut a new blank");
            refusals.refuse("choices.cut_through", says);
        }
        rules.shipment.lining_sides = self.lining_sides.as_deref().map(BoxSides::of);
        if self.lining_sides.as_ref().is_some_and(Vec::is_empty) {
            let says = "choose at least one side for the lining, or remove it";
            refusals.refuse("choices.lining_sides", says);
        }
        self.given_together(refusals);
        rules.shipment.carriage = self.carriage;
    }
}

impl Choices {
    /// Returns the case that was built before, where one of the shelf is chosen.
    #[must_use]
    pub fn kept_case(&self) -> Option<&KeptCase> {
        let chosen = self.case_from.as_deref().is_some_and(|id| !id.is_empty());
        self.case_kept.as_ref().filter(|_| chosen)
    }

    fn set_case(&self, rules: &mut HouseRules, refusals: &mut Refusals) {
        let kept = self.kept_case();
        let misfits = kept.map(KeptCase::misfits).unwrap_or_default();
        refusals.extend(misfits.into_iter().map(|misfit| {
            Refusal::new(
                format!("choices.case_kept.{}", misfit.field),
                misfit.message,
            )
        }));
        rules.case_kept = kept.cloned();
        let weighed = self.case_empty.as_deref().map(str::trim);
        rules.shipment.case_empty = match weighed.filter(|text| !text.is_empty()).map(read_mass) {
            Some(Err(no)) => {
                refusals.refuse("choices.case_empty", no);
                None
            }
            Some(Ok(mass)) => Some(mass),
            None => None,
        };
    }

    /// A wrapped piece is measured on all three sides, or on none; so is a carton that the studio has.
    fn given_together(&self, refusals: &mut Refusals) {
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
            let says = "measure the first carton too, or remove the second";
            refusals.refuse("choices.saved_length", says);
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
/// Past so many taped scores a box is cut anew. Source: house rule.
const MOST_CUT_THROUGH: u32 = 4;
/// Writes the unit after a bare number, or says why the text is not a length.
pub(crate) fn write_unit(
    field: &str,
    text: &mut Option<String>,
    bare: LengthUnit,
    refusals: &mut Refusals,
) {
    let Some(typed) = text else { return };
    match TypedLength::read(typed, bare) {
        Ok(read) => read.text().clone_into(typed),
        Err(error) => refusals.refuse(field, error),
    }
}

/// Returns the range of the allowance of a key.
fn allowed(key: &str) -> LengthRange {
    let allowance = Allowances::about(key);
    LengthRange {
        name: allowance.name,
        least: Length::mm(allowance.least),
        most: Length::mm(allowance.most),
        remedy: allowance
            .reason
            .strip_suffix('.')
            .unwrap_or(allowance.reason),
    }
}

/// Returns the range of a leg of the shipment's own: from where its tape still lands, to the house's longest.
fn pocket_leg_range() -> LengthRange {
    LengthRange {
        least: SHORTEST_LEG,
        ..allowed("pocket_leg_most_mm")
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
    remedy: "measure it on the bench, after the last wrap",
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
