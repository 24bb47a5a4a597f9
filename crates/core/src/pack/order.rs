//! The steps of packing one plan, in the order of the job.

use std::collections::BTreeSet;

use super::{
    PackStep, Sign, Stage, contained, dangers, looks, reach,
    step::Lies,
    words::{self, Room, Said, capital, in_sentence},
};
use crate::{
    act::{Act, Does, Thing},
    arrange::Pair,
    enclosure::{Enclosed, EnclosurePlace},
    house::{Carriage, CuttingRule, HouseRules, LookKind, MarksRule},
    layer::{Layer, Look, Make, Marks, SheetHinges, Tool, Verb, holds_a_sheet, kind_of},
    material::Catalogue,
    part::{CASE, Part, PartId, Strips, Take},
    piece::{Construction, Glazing, Piece, PieceSize, TopEdge},
    place::Route,
    plan::{FIRST, Plan, Stack, StackPiece, StackPlace, StackTier, wants_two},
    quantity::{Length, Mass, Minutes, Telling},
    space::LayerSlot,
};

/// Papers and looks, and what is on the bench.
const BENCH: &str = "set_up/bench";
const PIECE: &str = "look/piece";
const PANE: &str = "look/pane";
const PHOTOGRAPHS: &str = "look/photographs";
const FACE_AND_TOP: &str = "mark/face_and_top";
/// The board with its chocks, before anything lies on it, and the sheet on its back board.
pub(super) const BEFORE_CRADLE: &str = "before/cradle";
const BEFORE_FOLIO: &str = "before/folio";
/// The back board, before foam stands on it around a frame that nothing may rub on.
pub(super) const BEFORE_BOARDS: &str = "before/face_boards";
const WRAPPED: &str = "measure/wrapped";
const MARKS: &str = "parcel/marks";
const ADDRESS: &str = "parcel/address";
const WEIGH: &str = "parcel/weigh";
/// Cotton slips on what is heavier. Source: bench practice.
const HEAVY: Mass = Mass::kg(10.0);
/// A job that takes longer wants a rest.
const LONG_JOB: Minutes = Minutes::min_of(75.0);

/// Whether a layer lies inside the box, with the piece.
const fn is_wrapped(slot: LayerSlot) -> bool {
    (slot as u8) < (LayerSlot::BoxPapers as u8)
}

/// Steps while they are put in order.
pub(super) struct Order<'a> {
    pub(super) plan: &'a Plan,
    catalogue: &'a Catalogue,
    rules: &'a HouseRules,
    /// The piece, or the first of several.
    pub(super) piece: Option<&'a Piece>,
    /// Every piece of the plan.
    pub(super) pieces: &'a [&'a Piece],
    pub(super) steps: Vec<PackStep>,
    /// What lengths are told in.
    pub(super) told_in: Telling,
    /// Looks that the house only shows.
    shown: &'a BTreeSet<LookKind>,
    /// The last step of the piece itself, which the next one waits for.
    last: Option<String>,
    /// The piece of several whose own layers are laid.
    own: Option<&'a StackPiece>,
}

/// What of a layer is laid before the rest of it, in a step of its own.
struct FirstPart {
    key: &'static str,
    title: &'static str,
    /// What it takes besides.
    tool: Option<Tool>,
    is_part: fn(&Part) -> bool,
    is_strip: fn(&Strips) -> bool,
    /// Of the minutes.
    share: f64,
}

/// Returns every step of packing a plan, in the order of the job: each layer once, each cut once, and between them what is
/// looked at, written and measured. `pieces` are those of the plan in their order, one or several.
#[must_use]
pub fn pack_steps(
    plan: &Plan,
    pieces: &[&Piece],
    rules: &HouseRules,
    catalogue: &Catalogue,
) -> Vec<PackStep> {
    let mut order = Order {
        plan,
        catalogue,
        rules,
        piece: pieces.first().copied(),
        pieces,
        steps: Vec::new(),
        told_in: rules.told_in,
        shown: &rules.looks_shown,
        last: None,
        own: None,
    };
    order.set_up();
    let wrap_first = rules.schools.cutting == CuttingRule::WrapFirst
        && plan
            .layers
            .iter()
            .any(|layer| layer.make.carton().is_some());
    match &plan.stack {
        None => {
            for piece in pieces {
                order.look(piece);
            }
            order.cut(("cut", BENCH), is_wrapped);
            if !wrap_first {
                order.cut(("cut_box", BENCH), |slot| !is_wrapped(slot));
            }
        }
        Some(stack) => {
            let mut ends = Vec::with_capacity(pieces.len());
            for (own, piece) in stack.pieces.iter().zip(pieces) {
                order.begin(own, BENCH);
                order.look(piece);
                ends.extend(order.last.take());
            }
            order.own = None;
            order.cut(("cut", BENCH), is_wrapped);
            if !wrap_first {
                order.cut(("cut_box", BENCH), |slot| !is_wrapped(slot));
            }
            // Each piece by itself: what is changed at one does not touch the others.
            for (own, end) in stack.pieces.iter().zip(&mut ends) {
                order.begin(own, end);
                order.wrap();
                *end = order.last.take().unwrap_or_default();
            }
            order.own = None;
            order.lay_together(stack, ends);
        }
    }
    order.wrap();
    if wrap_first {
        order.measured();
        order.cut(("cut_box", WRAPPED), |slot| !is_wrapped(slot));
    }
    order.boxed();
    order.parcel();
    let lifting = order.lifting();
    let mut steps = order.steps;
    // Set up once, with all that is in the hand later.
    let mut tools: Vec<Tool> = steps.iter().flat_map(|step| &step.tools).copied().collect();
    tools.sort_unstable();
    tools.dedup();
    if let Some(first) = steps.first_mut() {
        first.tools = tools;
    }
    dangers::marked(&mut steps, &lifting);
    reach::cover(&mut steps, plan);
    steps
}

impl<'a> Order<'a> {
    /// Goes on with one piece of several, after a step.
    fn begin(&mut self, own: &'a StackPiece, after: &str) {
        self.own = Some(own);
        self.last = Some(after.to_owned());
    }

    /// A key, by the piece that it is about; that of the first is the same as if it travelled alone.
    fn key(&self, key: &str) -> String {
        match self.own {
            Some(own) if own.key != FIRST => format!("piece/{}/{key}", own.key),
            _ => key.to_owned(),
        }
    }

    /// Adds a step that lies on the one before it, and waits for what is cut for it.
    pub(super) fn then(&mut self, mut step: PackStep) {
        step.key = self.key(&step.key);
        step.piece = self.own.map(|own| own.title.clone());
        if let Some(look) = &mut step.look {
            look.stops = look.kind == LookKind::Enclosed || !self.shown.contains(&look.kind);
        }
        step.waits_for.extend(self.last.clone());
        if !step.parts.is_empty() {
            let cut: Vec<String> = self
                .steps
                .iter()
                .filter(|known| known.stage == Stage::Cut && known.cuts_for(&step))
                .map(|known| known.key.clone())
                .collect();
            step.waits_for.extend(cut);
        }
        step.print = step.printed();
        self.last = Some(step.key.clone());
        self.steps.push(step);
    }

    /// Adds a step beside the piece: it waits for the bench, or for a measure.
    fn beside(&mut self, mut step: PackStep, after: &str) {
        step.waits_for.push(after.to_owned());
        step.print = step.printed();
        self.steps.push(step);
    }

    pub(super) fn layer(&self, slot: LayerSlot) -> Option<&'a Layer> {
        let plan: &'a Plan = self.plan;
        let layers = self.own.map_or(&plan.layers, |own| &own.layers);
        layers.iter().find(|layer| layer.slot == slot)
    }

    fn set_up(&mut self) {
        let slips = self.pieces.iter().any(|piece| self.slips_on(piece));
        let mut says = vec![
            if slips {
                "Wash your hands or put nitrile gloves on: cotton slips. Tie your hair back."
            } else {
                "Wash your hands or put cotton gloves on, and tie your hair back."
            },
            "Clear the bench, pad it, and keep a second clean surface to lay the piece on.",
            "Lay the tools that are listed here and the spare rolls within reach.",
        ];
        if self.plan.tally.minutes > LONG_JOB {
            says.push("It is a long job: plan a rest before the box.");
        }
        self.then(
            PackStep::plain(BENCH, Stage::SetUp, Verb::Look, "Set up the bench")
                .saying((Does::Clean, Thing::Bench), says),
        );
    }

    /// Tells whether cotton slips on a piece: on glass, a mirror, and what is heavy. Source: bench practice.
    fn slips_on(&self, piece: &Piece) -> bool {
        let glazing = piece.construction.glazing();
        let smooth = glazing != Glazing::None || piece.construction == Construction::Mirror;
        smooth || piece.weight(self.rules.allowances.piece_doubt).mass > HEAVY
    }

    /// Returns the tools with the gloves that a piece is held with.
    fn held_with(&self, piece: Option<&Piece>, mut tools: Vec<Tool>) -> Vec<Tool> {
        if piece.is_some_and(|piece| self.slips_on(piece)) {
            let gloves = tools.iter_mut().filter(|tool| **tool == Tool::Gloves);
            gloves.for_each(|gloves| *gloves = Tool::NitrileGloves);
        }
        tools
    }

    fn look(&mut self, piece: &Piece) {
        let mut says = vec!["Look at face, edges and back in good light."];
        says.push(match piece.top {
            TopEdge::Unmarked => "Nothing shows its top: find out, and mark it on the back.",
            TopEdge::Plain | TopEdge::Marked => "Know which edge is the top.",
        });
        if piece.hardware.is_some() {
            says.push("Hanging hardware stands off the back: turn it flat, or pad it.");
        }
        if piece.bare_medium().is_some() {
            says.push("See that it is signed where it should be.");
        }
        self.then(PackStep {
            look: Some(looks::READY),
            tools: self.held_with(Some(piece), vec![Tool::Gloves, Tool::Brush]),
            signs: Sign::of_piece(piece),
            ..PackStep::plain(PIECE, Stage::Look, Verb::Look, "Look the piece over")
                .saying((Does::Look, Thing::Piece), says)
        });
        if piece.construction.glazing() == Glazing::Glass {
            self.then(PackStep {
                look: Some(looks::PANE),
                tools: self.held_with(Some(piece), vec![Tool::Gloves]),
                signs: Sign::of_piece(piece),
                ..PackStep::plain(PANE, Stage::Look, Verb::Look, "Look along the glass").saying((Does::Look, Thing::Piece), [
                    "Hold it to the light and look along the pane from each corner: a crack begins there.",
                ])
            });
        }
        self.then(
            PackStep::plain(PHOTOGRAPHS, Stage::Look, Verb::Look, "Photograph its condition").saying((Does::Look, Thing::Piece), [
                "Face, back, all four corners, and anything that is not perfect: a claim stands on it.",
            ]),
        );
    }

    /// One step for each material that is cut for some layers.
    fn cut(&mut self, (what, after): (&str, &str), of: impl Fn(LayerSlot) -> bool) {
        let parts: Vec<Part> = self
            .plan
            .layers
            .iter()
            .filter(|layer| of(layer.slot))
            .flat_map(|layer| layer.parts.iter().filter(|part| !layer.make.is_lid(part)))
            .cloned()
            .collect();
        self.cut_parts((what, after), parts, None);
    }

    /// One step for each material of some parts.
    pub(super) fn cut_parts(
        &mut self,
        (what, after): (&str, &str),
        parts: Vec<Part>,
        how: Option<String>,
    ) {
        let is_cut = |part: &Part| match part.take {
            Take::Piece { .. } => true,
            Take::Run { .. } => self.catalogue.tape(&part.material).is_err(),
            Take::Loose { .. } | Take::Each => false,
        };
        let mut by_material: Vec<(String, Vec<Part>)> = Vec::new();
        for part in parts.into_iter().filter(is_cut) {
            let key = format!("{what}/{}", part.material.as_str());
            match by_material.iter_mut().find(|(known, _)| *known == key) {
                Some((_, parts)) => parts.push(part),
                None => by_material.push((key, vec![part])),
            }
        }
        for (key, parts) in by_material {
            let title = format!("Cut {}", in_sentence(&parts[0].material_name));
            let (tools, says, cautions) = self.cutting_of(&parts);
            let first = parts[0].id;
            let step = PackStep {
                minutes: parts.iter().map(|part| part.cutting).sum(),
                parts,
                cautions,
                tools,
                ..PackStep::plain(&key, Stage::Cut, Verb::Cut, &title).saying(
                    (Does::Cut, Thing::Part(first)),
                    how.clone().into_iter().chain([says.to_owned()]),
                )
            };
            self.beside(step, after);
        }
    }

    /// With what parts of one material are cut, how, and what could hurt.
    fn cutting_of(&self, parts: &[Part]) -> (Vec<Tool>, &'static str, Vec<&'static str>) {
        let on_mat = vec![
            Tool::Knife,
            Tool::Mat,
            Tool::SteelRule,
            Tool::Square,
            Tool::TapeMeasure,
            Tool::Pencil,
        ];
        let material = &parts[0].material;
        let mut battens = self.catalogue.battens.iter();
        if battens.any(|batten| batten.id == *material) {
            return (
                vec![Tool::Saw, Tool::Square, Tool::TapeMeasure, Tool::Pencil],
                "Mark the running distances of its drawing along each length, saw square on the far side of each mark, and rub the ends smooth.",
                vec![crate::layer::FIBREBOARD],
            );
        }
        if matches!(parts[0].take, Take::Run { width_mm: None, .. }) {
            return (
                vec![Tool::Saw, Tool::TapeMeasure, Tool::Pencil],
                "Mark the length all round along a strip of paper, saw along the mark, and rub the edge smooth.",
                Vec::new(),
            );
        }
        match (
            self.catalogue.board(material),
            self.catalogue.foam(material),
        ) {
            (Ok(board), _) if board.build == crate::material::BoardBuild::Solid => (
                vec![
                    Tool::Saw,
                    Tool::SteelRule,
                    Tool::Square,
                    Tool::TapeMeasure,
                    Tool::Pencil,
                ],
                "Measure every cut from one edge, so that errors don't add up, and square the first corner.",
                vec![crate::layer::FIBREBOARD],
            ),
            (Ok(_), _) => (
                on_mat,
                "Measure every cut from one edge, so that errors don't add up, and square the first corner.",
                Vec::new(),
            ),
            (Err(_), Ok(_)) => (
                on_mat,
                "Cut strips of the width that several parts share, then the parts off the strips: score, and snap over an edge.",
                vec![crate::layer::FOAM],
            ),
            (Err(_), Err(_)) => (
                vec![Tool::Scissors, Tool::TapeMeasure],
                "Roll it out on the clean bench, measure along one edge, and cut square across.",
                Vec::new(),
            ),
        }
    }

    /// What sentences about a layer depend on.
    pub(super) fn said(
        &self,
        layer: Option<&Layer>,
        way_in: Option<crate::container::WayIn>,
        what: &'static str,
    ) -> Said {
        let bubbles = layer.is_some_and(|layer| {
            self.catalogue
                .cushion_wrap(&layer.material)
                .is_ok_and(|wrap| wrap.bubbles)
        });
        Said {
            telling: self.told_in,
            way_in,
            what,
            size: self.body(),
            shaped: self.is_shaped(),
            raised: self.has_raised_paint(),
            bubbles,
            lid: "the flaps",
            within: None,
            behind: self.board_behind(),
        }
    }

    /// The board that a piece lies on since before its face boards.
    fn board_behind(&self) -> Option<PartId> {
        let on = |slot: LayerSlot, board: PartId| {
            let parts = &self.layer(slot)?.parts;
            parts.iter().any(|part| part.id == board).then_some(board)
        };
        on(LayerSlot::Fixing, PartId::BoardBehind)
            .or_else(|| on(LayerSlot::WindowSpacer, PartId::BoardBehind))
            .or_else(|| on(LayerSlot::Cradle, PartId::CradleBoard))
            .or_else(|| on(LayerSlot::FaceBoards, PartId::BackBoard).filter(|_| self.is_ringed()))
    }

    /// Tells whether foam stands around a frame that nothing may rub on.
    fn is_ringed(&self) -> bool {
        self.layer(LayerSlot::Corners).is_some_and(Layer::is_ring)
    }

    /// The piece that the steps are about, the first of several that are bound.
    fn in_hand(&self) -> Option<&'a Piece> {
        let own = self.own.and_then(|own| {
            let mut pieces = self.plan.stack.iter().flat_map(|stack| &stack.pieces);
            let at = pieces.position(|piece| piece.key == own.key)?;
            self.pieces.get(at).copied()
        });
        own.or(self.piece)
    }

    /// Tells whether the piece has no corners: of several, by what holds the one of these steps.
    fn is_shaped(&self) -> bool {
        let held = |layer: &Layer| matches!(layer.make, Make::Cradle(_) | Make::RimStrip(_));
        match self.own {
            Some(own) => own.layers.iter().any(held),
            None => self.piece.is_some_and(Piece::is_shaped),
        }
    }

    fn has_raised_paint(&self) -> bool {
        self.in_hand().is_some_and(Piece::has_raised_paint)
    }

    /// The question after a layer.
    fn look_after(&self, layer: &Layer) -> Option<Look> {
        match layer.make {
            Make::ContactSheet(_) if self.has_raised_paint() => Some(looks::SLACK_SHEET),
            _ => layer.handling().look,
        }
    }

    /// What pockets go around: the piece, or the bundle of like ones.
    fn body(&self) -> PieceSize {
        let layers = self.own.map_or(&self.plan.layers, |own| &own.layers);
        let size = self.own.map_or(self.plan.size, |own| own.size);
        crate::layer::body_of(layers, size)
    }

    /// What goes into the first box.
    pub(super) fn goes_in(&self) -> &'static str {
        contained::goods_of(self.plan)
    }

    pub(super) fn lay(&mut self, slot: LayerSlot, stage: Stage) {
        let Some(layer) = self.layer(slot) else {
            return;
        };
        if matches!(layer.make, Make::Enclosures(_)) {
            return self.enclose(slot, stage, None, |_| true);
        }
        let said = self.said(Some(layer), None, self.goes_in());
        let first = self.first_of(layer);
        let acts = if first.is_some() {
            words::ending(layer, &said)
        } else {
            words::laying(layer, &said)
        };
        let mut step = self.laid(layer, &key_of("layer", slot), stage, acts);
        if let Some(first) = first {
            step.parts.retain(|part| !(first.is_part)(part));
            step.strips.retain(|strips| !(first.is_strip)(strips));
            step.minutes = step.minutes * (1.0 - first.share);
        }
        self.then(step);
    }

    /// The step that lays a layer whole.
    pub(super) fn laid(&self, layer: &Layer, key: &str, stage: Stage, acts: Vec<Act>) -> PackStep {
        let cut: Minutes = layer.parts.iter().map(|part| part.cutting).sum();
        let handling = layer.handling();
        let cased = layer.parts.iter().any(|part| part.id == CASE);
        let case = cased.then(|| {
            Act::on(
                Does::Wrap,
                CASE,
                "First wrap each piece of foam in its paper and tape it shut: this foam crumbs.",
            )
        });
        let acts: Vec<Act> = case.into_iter().chain(acts).collect();
        PackStep {
            strips: match layer.make.way_in() {
                // A box is sealed in a step of its own.
                Some(_) => Vec::new(),
                None => layer.strips.clone(),
            },
            layer: Some(layer.slot),
            parts: layer.parts.clone(),
            tools: self.held_with(self.in_hand(), handling.tools.to_vec()),
            minutes: layer.minutes - cut,
            cautions: layer
                .cautions
                .iter()
                .copied()
                .filter(|caution| !dangers::IN_CUTTING.contains(caution))
                .collect(),
            look: self.look_after(layer),
            ..PackStep::plain(key, stage, handling.verb, &title_of(layer)).acting(&acts)
        }
    }

    fn wrap(&mut self) {
        let named = self.layer(LayerSlot::NameTag).is_some();
        let layers = self.own.map_or(&self.plan.layers, |own| &own.layers);
        let mut wrapped: Vec<LayerSlot> = layers
            .iter()
            .map(|layer| layer.slot)
            .filter(|slot| is_wrapped(*slot) && *slot != LayerSlot::Stack)
            .collect();
        // Strips lie around what is in its sheet, on the board that carries it.
        if let Some(at) = wrapped
            .iter()
            .position(|slot| *slot == LayerSlot::WindowSpacer)
        {
            wrapped.remove(at);
            let sheet = wrapped.iter().position(|slot| *slot > LayerSlot::Contact);
            wrapped.insert(sheet.unwrap_or(wrapped.len()), LayerSlot::WindowSpacer);
        }
        // The back is out of reach once it lies on its back board.
        if self.is_ringed()
            && let Some(at) = wrapped
                .iter()
                .position(|slot| *slot == LayerSlot::BackPapers)
        {
            wrapped.remove(at);
            let ring = wrapped.iter().position(|slot| *slot == LayerSlot::Corners);
            wrapped.insert(ring.unwrap_or(at), LayerSlot::BackPapers);
        }
        // Around several, face and top were marked on each.
        let hides_first = |slots: &[LayerSlot]| {
            slots
                .iter()
                .copied()
                .find(|slot| kind_of(*slot).nature.hides_face)
        };
        let around_several = self.plan.stack.is_some() && self.own.is_none();
        let hidden_by = hides_first(&wrapped).filter(|_| !around_several);
        for slot in wrapped {
            if Some(slot) == hidden_by && !named {
                self.face_and_top();
            }
            // Chocks stand close to the piece in its sheet, so it is drawn around with the sheet on.
            if slot > LayerSlot::Contact {
                self.first_part(LayerSlot::Cradle);
            }
            if slot == LayerSlot::Corners {
                self.first_part(LayerSlot::FaceBoards);
            }
            if slot == LayerSlot::WindowSpacer {
                self.first_part(LayerSlot::Folio);
            }
            self.lay(slot, Stage::Wrap);
        }
    }

    /// What of a layer is made before something else is laid, in a step of its own: the chocks on their board, the sheet on the back
    /// board of a folio with a window. Once.
    fn first_part(&mut self, slot: LayerSlot) {
        let Some(layer) = self.layer(slot) else {
            return;
        };
        let said = self.said(Some(layer), None, self.goes_in());
        let Some(first) = self.first_of(layer) else {
            return;
        };
        let key = self.key(first.key);
        if self.steps.iter().any(|step| step.key == key) {
            return;
        }
        let whole = self.laid(
            layer,
            first.key,
            Stage::Wrap,
            words::beginning(layer, &said),
        );
        let mut tools = whole.tools.clone();
        tools.extend(first.tool);
        self.then(PackStep {
            title: first.title.to_owned(),
            parts: whole
                .parts
                .into_iter()
                .filter(|part| (first.is_part)(part))
                .collect(),
            strips: whole
                .strips
                .into_iter()
                .filter(|strips| (first.is_strip)(strips))
                .collect(),
            minutes: whole.minutes * first.share,
            look: None,
            tools,
            ..whole
        });
    }

    /// How much of the work of a folio is done before its front board comes: half, and all of its hinges.
    fn share_of_sheet(&self, layer: &Layer) -> f64 {
        let cut: Minutes = layer.parts.iter().map(|part| part.cutting).sum();
        let hinges = match &layer.make {
            Make::Folio(folio) => folio.hinges.map_or(0, SheetHinges::count),
            _ => 0,
        };
        let each = self.rules.allowances.hinge_minutes;
        0.5 + 0.5 * (each * f64::from(hinges) / (layer.minutes - cut)).min(1.0)
    }

    /// What of a layer is laid before the rest of it.
    fn first_of(&self, layer: &Layer) -> Option<FirstPart> {
        match layer.slot {
            LayerSlot::Cradle => Some(FirstPart {
                key: BEFORE_CRADLE,
                title: "Fix the chocks on their board",
                tool: Some(Tool::HotGlue),
                is_part: |_| true,
                is_strip: |_| true,
                share: 0.75,
            }),
            LayerSlot::Folio if self.layer(LayerSlot::WindowSpacer).is_some() => Some(FirstPart {
                key: BEFORE_FOLIO,
                title: "Lay the sheet on its board",
                tool: None,
                is_part: |part| matches!(part.id, PartId::BackBoard | PartId::PaperForPockets),
                is_strip: |strips| holds_a_sheet(strips.on),
                share: self.share_of_sheet(layer),
            }),
            LayerSlot::FaceBoards if self.board_behind() == Some(PartId::BackBoard) => {
                Some(FirstPart {
                    key: BEFORE_BOARDS,
                    title: "Lay it on its back board",
                    tool: None,
                    is_part: |part| part.id == PartId::BackBoard,
                    is_strip: |_| false,
                    share: 0.5,
                })
            }
            _ => None,
        }
    }

    /// Each thing that lies in a place of the column, one by one.
    pub(super) fn enclose(
        &mut self,
        slot: LayerSlot,
        stage: Stage,
        way_in: Option<crate::container::WayIn>,
        of: impl Fn(EnclosurePlace) -> bool,
    ) {
        let Some(Make::Enclosures(enclosures)) = self.layer(slot).map(|layer| &layer.make) else {
            return;
        };
        let each = self
            .layer(slot)
            .map_or(Minutes::ZERO, |layer| layer.minutes)
            / f64::from(u32::try_from(enclosures.list.len()).unwrap_or(1));
        let room = match self.plan.carriage {
            Carriage::Rolled => Room::Core,
            Carriage::Mailed | Carriage::Padded => Room::Behind,
            Carriage::Flat | Carriage::Folio => match self.board_behind() {
                Some(PartId::BoardBehind | PartId::CradleBoard) => Room::OnBoard,
                _ => Room::Box,
            },
        };
        let list: Vec<Enclosed> = enclosures
            .list
            .iter()
            .filter(|one| of(one.enclosure.place))
            .cloned()
            .collect();
        for enclosed in list {
            let title = format!("Put the {} in", enclosed.enclosure.called());
            let Enclosed { enclosure, .. } = &enclosed;
            let says = words::enclosing(enclosure.place, enclosure.hard, (room, way_in));
            let key = format!("papers/{}", enclosed.key);
            self.then(PackStep {
                encloses: Some(enclosed),
                minutes: each,
                look: Some(looks::ENCLOSED),
                ..PackStep::plain(&key, stage, Verb::Lay, &title)
                    .saying((Does::Lay, Thing::Enclosed), [says])
            });
        }
    }

    /// Lays several wrapped pieces on each other, the back of the box down.
    fn lay_together(&mut self, stack: &Stack, ends: Vec<String>) {
        let Some(layer) = self.layer(LayerSlot::Stack) else {
            return;
        };
        let title = |key: &str| {
            let piece = stack.pieces.iter().find(|piece| piece.key == key);
            piece.map_or("", |piece| piece.title.as_str())
        };
        let mut acts: Vec<Act> = Vec::new();
        let lays = |says: String| Act::new(Does::Lay, Thing::Piece, says);
        let between = |pair: &Pair, says: String| lays(says).and(parting(pair));
        let padded = |tier: &StackTier| {
            let on = |place: &StackPlace| tier.pieces.iter().any(|piece| piece.key == place.key);
            stack
                .order
                .iter()
                .any(|place| place.padded_outside && on(place))
        };
        for (at, tier) in stack.tiers.iter().enumerate().rev() {
            let face = if tier.faces_front { "up" } else { "down" };
            let alone = match tier.pieces.as_slice() {
                [alone] => Some(title(&alone.key)),
                _ => None,
            };
            let Some(title) = alone else {
                acts.extend(self.side_by_side(stack, at, (tier, face, padded(tier))));
                continue;
            };
            acts.push(match stack.pairs.get(at) {
                None if padded(tier) => lays(format!(
                    "Lay foam down first, then \u{201c}{title}\u{201d} on it, its hardware on the foam and its face {face}."
                ))
                .to(PartId::OverHardware),
                None => lays(format!(
                    "Lay \u{201c}{title}\u{201d} down first, its face {face}."
                )),
                Some(pair) => between(pair, format!(
                    "{}, then \u{201c}{title}\u{201d}, its face {face}: {}.",
                    self.parted(pair),
                    pair.says
                )),
            });
        }
        if let Some(top) = stack.tiers.first().filter(|top| top.pieces.len() > 1) {
            let sides = self.told_in.sides(&[top.across, top.up]);
            acts.push(Act::on(
                Does::Lay,
                PartId::OverSeveral,
                format!("Lay a board of {sides} over them."),
            ));
        }
        if stack
            .order
            .first()
            .is_some_and(|place| place.padded_outside)
        {
            acts.push(Act::on(
                Does::Lay,
                PartId::OverHardware,
                "On top foam, over the hardware that looks out.",
            ));
        }
        let loose = stack.parts.iter().find_map(|part| match part.take {
            Take::Loose { volume_m3 } => Some((volume_m3, part)),
            _ => None,
        });
        if let Some((volume, part)) = loose {
            let (poured, fill) = (
                self.told_in.poured(volume),
                in_sentence(&part.material_name),
            );
            let filled = if stack.tiers.iter().any(|tier| tier.pieces.len() > 1) {
                format!(
                    "The gaps take {poured} of {fill} in all, each filled before the board that covers it."
                )
            } else {
                format!(
                    "Fill the gaps beside the smaller ones with {poured} of {fill}, level with the larger."
                )
            };
            let filled = Act::on(Does::Fill, part.id, filled).with(Thing::Piece);
            acts.push(filled.filling(stack_depth(stack), true));
        }
        let chocks = stack.parts.iter().filter(|part| part.id == PartId::Chock);
        let chocks: u32 = chocks.map(|part| part.count).sum();
        if chocks > 0 {
            let says = format!(
                "Set the {} chocks against the rim of what has no corners: it can't roll then.",
                words::number(chocks)
            );
            acts.push(Act::on(Does::Stand, PartId::Chock, says).with(Thing::Piece));
        }
        acts.extend(words::laying(layer, &self.said(None, None, self.goes_in())));
        let cut: Minutes = stack.parts.iter().map(|part| part.cutting).sum();
        let key = key_of("layer", LayerSlot::Stack);
        let mut step = PackStep {
            parts: stack.parts.clone(),
            minutes: stack.minutes - cut,
            title: "Lay the pieces together".to_owned(),
            lies: Some(Lies::of(stack)),
            ..self.laid(layer, &key, Stage::Wrap, acts)
        };
        step.waits_for = ends;
        self.last = None;
        self.then(step);
    }

    /// What parts two tiers, as it is laid on the lower one.
    fn parted(&self, pair: &Pair) -> String {
        let sides = self.told_in.sides(&[pair.across, pair.up]);
        match (pair.folded, pair.padded) {
            (true, false) => "On it a fold of the pad".to_owned(),
            (true, true) => "On it a fold of the pad, and foam over the hardware".to_owned(),
            (false, false) => format!("On it a board of {sides}"),
            (false, true) => format!("On it a board of {sides}, and foam over the hardware"),
        }
    }

    /// How several are laid on one board, each by where its corner lies.
    fn side_by_side(
        &self,
        stack: &Stack,
        at: usize,
        (tier, face, padded): (&StackTier, &str, bool),
    ) -> Vec<Act> {
        let board = match stack.pairs.get(at) {
            None => {
                let sides = self.told_in.sides(&[tier.across, tier.up]);
                let foam = if padded {
                    ", foam on it for the hardware"
                } else {
                    ""
                };
                format!("Lay a board of {sides} down first{foam}.")
            }
            Some(pair) => format!("{}: {}.", self.parted(pair), pair.says),
        };
        let each: Vec<String> = tier
            .pieces
            .iter()
            .map(|on| {
                let piece = stack.pieces.iter().find(|piece| piece.key == on.key);
                let title = piece.map_or("", |piece| piece.title.as_str());
                let turned = if on.turned {
                    ", turned on its side,"
                } else {
                    ""
                };
                format!(
                    "\u{201c}{title}\u{201d}{turned} at {} and {}",
                    self.told_in.length(on.left),
                    self.told_in.length(on.below)
                )
            })
            .collect();
        let side_by_side = format!(
            "On that board lay {} side by side, their faces {face}. Their lower left corners, from the left and from below: {}.",
            words::number(u32::try_from(tier.pieces.len()).unwrap_or(u32::MAX)),
            each.join("; ")
        );
        let filled =
            "Fill the gaps between them, and over what is thinner, level with the thickest.";
        let under = match stack.pairs.get(at) {
            None => vec![PartId::OverSeveral],
            Some(pair) => parting(pair),
        };
        let hardware = padded.then_some(PartId::OverHardware);
        let filler = stack
            .parts
            .iter()
            .find(|part| matches!(part.take, Take::Loose { .. }));
        let filler = filler.map_or(PartId::Fill, |part| part.id);
        vec![
            Act::on(Does::Lay, under[0], board)
                .and(under.iter().skip(1).copied())
                .and(hardware),
            Act::new(Does::Lay, Thing::Piece, side_by_side).to(under[0]),
            Act::on(Does::Fill, filler, filled)
                .with(Thing::Piece)
                .filling(stack_depth(stack), true),
        ]
    }

    fn face_and_top(&mut self) {
        self.then(PackStep {
            look: Some(looks::FACE_AND_TOP),
            tools: vec![Tool::Pencil],
            ..PackStep::plain(FACE_AND_TOP, Stage::Wrap, Verb::Look, "Mark face and top").saying(
                (Does::Write, Thing::Piece),
                ["Write on what will lie outside which side is the face and which edge the top."],
            )
        });
    }

    fn measured(&mut self) {
        let title = if self.plan.stack.is_some() {
            "Measure the pieces as they lie together"
        } else {
            "Measure the wrapped piece"
        };
        self.then(PackStep {
            types: vec![
                "choices.wrapped_across",
                "choices.wrapped_up",
                "choices.wrapped_through",
            ],
            tools: vec![Tool::TapeMeasure],
            ..PackStep::plain(WRAPPED, Stage::Wrap, Verb::Look, title).acting(&[
                Act::new(
                    Does::Look,
                    Thing::Goods,
                    "Across, up and through, as it lies: wraps come out thicker than sums.",
                ),
                Act::new(
                    Does::Look,
                    Thing::Goods,
                    "Keep the three sides: what is cut for the box follows them.",
                )
                .printing("Write the three sides here: what is cut for the box follows them."),
            ])
        });
    }

    fn parcel(&mut self) {
        self.lay(LayerSlot::OuterPaper, Stage::Parcel);
        self.lay(LayerSlot::PocketPapers, Stage::Parcel);
        if self.rules.way().route != Route::OwnVan {
            self.mark();
            self.then(PackStep {
                tools: vec![Tool::Pencil],
                ..PackStep::plain(ADDRESS, Stage::Parcel, Verb::Look, "Write both addresses").saying((Does::Write, Thing::Parcel), [
                    "To whom on the largest side, from whom smaller above it on the left; check the postcode letter by letter.",
                ])
            });
        } else if self.layer(LayerSlot::Marks).is_some() {
            self.mark();
        }
        let hot = self.plan.odds.hot;
        let look = |says: &str| Act::new(Does::Look, Thing::Parcel, says);
        self.then(PackStep {
            types: vec![
                "parcel.weight",
                "parcel.across",
                "parcel.up",
                "parcel.through",
            ],
            tools: vec![Tool::TapeMeasure],
            cautions: hot.then_some(dangers::HOT).into_iter().collect(),
            ..PackStep::plain(WEIGH, Stage::Parcel, Verb::Lift, "Measure and weigh it").acting(&[
                look("Lay it on the scale, and measure its three sides outside over the bulge: carriers price by the larger of both."),
                look("The label is bought at Send, by this weight. It goes on the largest side, flat and not over a seam; on a tube lengthwise.")
                    .printing("Write the weight and the three sides here: the label is bought by them. It goes on the largest side, flat and not over a seam; on a tube lengthwise."),
            ])
        });
    }

    /// The marks: as labels, or by hand where the shelf has none.
    fn mark(&mut self) {
        let title = "Mark it";
        if let Some(layer) = self.layer(LayerSlot::Marks) {
            let acts = words::laying(layer, &self.said(None, None, self.goes_in()));
            let step = self.laid(layer, MARKS, Stage::Parcel, acts);
            return self.then(PackStep {
                title: title.to_owned(),
                ..step
            });
        }
        let rule = self.rules.schools.marks;
        let left_out = self.rules.layers.get(&LayerSlot::Marks) == Some(&false);
        if let Some(piece) = self.piece.filter(|_| rule != MarksRule::None && !left_out) {
            let marks = Marks::of(piece.construction, self.plan.carriage, rule);
            self.then(PackStep {
                tools: vec![Tool::Pencil],
                ..PackStep::plain(MARKS, Stage::Parcel, Verb::Look, title)
                    .acting(&words::marking(&marks, false))
            });
        }
    }

    /// The steps in which something is lifted that is past one person.
    fn lifting(&self) -> Vec<String> {
        let tally = &self.plan.tally;
        if !wants_two(tally.outside, tally.weight.mass, &self.rules.allowances) {
            return Vec::new();
        }
        [
            key_of("in", LayerSlot::Box),
            key_of("in", LayerSlot::SecondBox),
            WEIGH.to_owned(),
        ]
        .into()
    }
}

/// How deep the gaps beside smaller pieces are at most: as deep as the thickest of them.
fn stack_depth(stack: &Stack) -> Length {
    let deep = stack.pieces.iter().map(|piece| piece.size.depth);
    deep.max().unwrap_or_default()
}

/// What parts two tiers.
fn parting(pair: &Pair) -> Vec<PartId> {
    let board = if pair.folded {
        PartId::FoldedPad
    } else {
        PartId::BetweenPieces
    };
    let foam = pair.padded.then_some(PartId::OverHardware);
    std::iter::once(board).chain(foam).collect()
}

/// What the step is called that lays a layer: by what it is where its place has another name.
fn title_of(layer: &Layer) -> String {
    match (&layer.make, layer.slot) {
        (Make::FoamCollar(_), _) => "Collar of foam".to_owned(),
        (Make::RimStrip(_), _) => "Foam around the rim".to_owned(),
        (Make::CornerBlocks(_), LayerSlot::Corners) => "Blocks behind the corners".to_owned(),
        (_, slot) => capital(slot.name()),
    }
}

pub(super) fn key_of(what: &str, slot: LayerSlot) -> String {
    let written = serde_json::to_value(slot).expect("a place can be written");
    format!("{what}/{}", written.as_str().unwrap_or_default())
}
