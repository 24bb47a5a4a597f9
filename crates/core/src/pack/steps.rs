//! The steps of packing one plan.

use std::collections::BTreeSet;

use serde::Serialize;
use sha2::{Digest, Sha256};

use super::{looks, words};
use crate::{
    enclosure::{Enclosed, EnclosurePlace},
    house::{CartonStyle, CuttingRule, HouseRules, LookKind},
    layer::{GLASS, Layer, Look, Make, Tool, kind_of},
    material::Catalogue,
    part::{Part, Take},
    piece::Piece,
    plan::{FIRST, Plan, Stack, StackPiece},
    quantity::{Length, Minutes, Telling},
    space::{Envelope, LayerSlot},
};

/// What a step belongs to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = PackStage))]
#[serde(rename_all = "snake_case")]
pub enum Stage {
    /// Bench and tools.
    SetUp,
    /// The piece, before anything touches it.
    Look,
    /// From sheets and rolls.
    Cut,
    /// Around the piece, outward.
    Wrap,
    /// Into the box, and closed.
    Box,
    /// What the closed parcel gets.
    Parcel,
}

impl Stage {
    /// Tells whether its steps lay something around the piece.
    #[must_use]
    pub const fn lays(self) -> bool {
        match self {
            Self::SetUp | Self::Look | Self::Cut => false,
            Self::Wrap | Self::Box | Self::Parcel => true,
        }
    }
}

/// Strips of tape that are torn alike.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Strips {
    /// What they close or cover.
    pub on: &'static str,
    /// How many.
    pub count: u32,
    /// How long each is torn.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// Whether it is filament.
    pub filament: bool,
}

/// One step at the bench.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PackStep {
    /// What it is ticked by, as `layer/first_wrap`.
    pub key: String,
    /// What it belongs to.
    pub stage: Stage,
    /// The piece that it is about, by its title, where several travel together.
    pub piece: Option<String>,
    /// What is done, in a few words.
    pub title: String,
    /// How, sentence by sentence.
    pub says: Vec<String>,
    /// The layer that it lays, where it lays one.
    pub layer: Option<LayerSlot>,
    /// What it puts in besides the piece, where it does.
    pub encloses: Option<Enclosed>,
    /// What is typed there, by the names of its fields, as `parcel.up`.
    pub types: Vec<&'static str>,
    /// What is cut or taken for it.
    pub parts: Vec<Part>,
    /// The tape as it is torn, where it is torn strip by strip.
    pub strips: Vec<Strips>,
    /// What is in the hand.
    pub tools: Vec<Tool>,
    /// How long it takes; `None` if its layer's minutes hold it.
    pub minutes: Minutes,
    /// What could hurt, here.
    pub cautions: Vec<&'static str>,
    /// What is looked at before going on.
    pub look: Option<Look>,
    /// What has to be done first, by keys.
    pub waits_for: Vec<String>,
    /// Changes whenever what is laid, cut or torn here does.
    pub print: String,
}

/// Papers and looks, and what is on the bench.
const BENCH: &str = "set_up/bench";
const PIECE: &str = "look/piece";
const PHOTOGRAPHS: &str = "look/photographs";
const FACE_AND_TOP: &str = "mark/face_and_top";
const WRAPPED: &str = "measure/wrapped";
const ADDRESS: &str = "parcel/address";
const WEIGH: &str = "parcel/weigh";
/// A job that takes longer wants a rest.
const LONG_JOB: Minutes = Minutes::min_of(75.0);
const PRINT_BYTES: usize = 4;

/// Whether a layer lies inside the box, with the piece.
const fn is_wrapped(slot: LayerSlot) -> bool {
    (slot as u8) < (LayerSlot::BoxPapers as u8)
}

/// What a box is closed by, and what goes into it before.
const INNER: [LayerSlot; 4] = [
    LayerSlot::Lining,
    LayerSlot::Edges,
    LayerSlot::PaddingSheets,
    LayerSlot::Fill,
];

/// Steps while they are put in order.
struct Order<'a> {
    plan: &'a Plan,
    catalogue: &'a Catalogue,
    steps: Vec<PackStep>,
    /// What lengths are told in.
    told_in: Telling,
    /// Looks that the house only shows.
    shown: &'a BTreeSet<LookKind>,
    /// The last step of the piece itself, which the next one waits for.
    last: Option<String>,
    /// The piece of several whose own layers are laid.
    own: Option<&'a StackPiece>,
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
    order.steps
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
    fn then(&mut self, mut step: PackStep) {
        step.key = self.key(&step.key);
        step.piece = self.own.map(|own| own.title.clone());
        if let Some(look) = &mut step.look {
            look.stops = look.kind == LookKind::Enclosed || !self.shown.contains(&look.kind);
        }
        step.waits_for.extend(self.last.clone());
        if step.layer.is_some() {
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

    fn layer(&self, slot: LayerSlot) -> Option<&'a Layer> {
        let plan: &'a Plan = self.plan;
        let layers = self.own.map_or(&plan.layers, |own| &own.layers);
        layers.iter().find(|layer| layer.slot == slot)
    }

    fn set_up(&mut self) {
        let mut tools: Vec<Tool> = self
            .plan
            .every_layer()
            .flat_map(|layer| layer.handling().tools)
            .copied()
            .chain([Tool::Gloves])
            .collect();
        tools.sort_unstable();
        tools.dedup();
        let mut says = vec![
            "Wash your hands or put cotton gloves on, and tie your hair back.",
            "Clear the bench, pad it, and keep a second clean surface to lay the piece on.",
            "Lay tools and spare rolls within reach.",
        ];
        if self.plan.tally.minutes > LONG_JOB {
            says.push("It is a long job: plan a rest before the box.");
        }
        self.then(PackStep {
            tools,
            ..plain(BENCH, Stage::SetUp, "Set up the bench", &says)
        });
    }

    fn look(&mut self, piece: &Piece) {
        let mut says = vec!["Look at face, edges and back in good light."];
        match piece.top {
            crate::piece::TopEdge::Unmarked => {
                says.push("Nothing shows its top: find out, and mark it on the back.");
            }
            crate::piece::TopEdge::Plain | crate::piece::TopEdge::Marked => {
                says.push("Know which edge is the top.");
            }
        }
        if piece.hardware.is_some() {
            says.push("Hanging hardware stands off the back: turn it flat, or pad it.");
        }
        says.push("Is it signed, where it should be?");
        let cautions = match piece.construction.glazing() {
            crate::piece::Glazing::Glass => {
                vec![GLASS]
            }
            _ => Vec::new(),
        };
        self.then(PackStep {
            look: Some(looks::READY),
            cautions,
            ..plain(PIECE, Stage::Look, "Look the piece over", &says)
        });
        self.then(plain(
            PHOTOGRAPHS,
            Stage::Look,
            "Photograph its condition",
            &["Face, back, all four corners, and whatever is not perfect: a claim stands on it."],
        ));
    }

    /// One step for each material that is cut for some layers.
    fn cut(&mut self, (what, after): (&str, &str), of: impl Fn(LayerSlot) -> bool) {
        let is_cut = |part: &Part| match part.take {
            Take::Piece { .. } => true,
            Take::Run { .. } => self.catalogue.tape(&part.material).is_err(),
            Take::Loose { .. } | Take::Each => false,
        };
        let mut by_material: Vec<(String, Vec<Part>, Vec<&'static str>)> = Vec::new();
        for layer in self.plan.layers.iter().filter(|layer| of(layer.slot)) {
            for part in layer.parts.iter().filter(|part| is_cut(part)) {
                let key = format!("{what}/{}", part.material.as_str());
                let known = by_material.iter_mut().find(|(known, ..)| *known == key);
                let (_, parts, cautions) = match known {
                    Some(known) => known,
                    None => {
                        by_material.push((key, Vec::new(), Vec::new()));
                        by_material.last_mut().expect("one was pushed")
                    }
                };
                parts.push(part.clone());
                for caution in &layer.cautions {
                    if !cautions.contains(caution) {
                        cautions.push(caution);
                    }
                }
            }
        }
        for (key, parts, cautions) in by_material {
            let title = format!("Cut {}", in_sentence(&parts[0].material_name));
            let step = PackStep {
                parts,
                cautions,
                tools: vec![Tool::Knife, Tool::Mat, Tool::SteelRule, Tool::Pencil],
                ..plain(
                    &key,
                    Stage::Cut,
                    &title,
                    &["Measure every cut from one edge, so that errors don't add up."],
                )
            };
            self.beside(step, after);
        }
    }

    fn lay(&mut self, slot: LayerSlot, stage: Stage) {
        let Some(layer) = self.layer(slot) else {
            return;
        };
        if matches!(layer.make, Make::Enclosures(_)) {
            return self.enclose(slot, stage, |_| true);
        }
        let step = PackStep {
            layer: Some(slot),
            parts: layer.parts.clone(),
            tools: layer.handling().tools.to_vec(),
            minutes: layer.minutes,
            cautions: layer.cautions.clone(),
            look: layer.handling().look,
            ..plain(
                &key_of("layer", slot),
                stage,
                &capital(slot.name()),
                layer.handling().says,
            )
        };
        self.then(step);
    }

    fn wrap(&mut self) {
        let named = self.layer(LayerSlot::NameTag).is_some();
        let wrapped: Vec<LayerSlot> = LayerSlot::ALL
            .into_iter()
            .filter(|slot| is_wrapped(*slot) && *slot != LayerSlot::Stack)
            .filter(|slot| self.layer(*slot).is_some())
            .collect();
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
            self.lay(slot, Stage::Wrap);
        }
    }

    /// Each thing that lies in a place of the column, one by one.
    fn enclose(&mut self, slot: LayerSlot, stage: Stage, of: impl Fn(EnclosurePlace) -> bool) {
        let Some(Make::Enclosures(enclosures)) = self.layer(slot).map(|layer| &layer.make) else {
            return;
        };
        let each = self
            .layer(slot)
            .map_or(Minutes::ZERO, |layer| layer.minutes)
            / f64::from(u32::try_from(enclosures.list.len()).unwrap_or(1));
        let list: Vec<Enclosed> = enclosures
            .list
            .iter()
            .filter(|one| of(one.enclosure.place))
            .cloned()
            .collect();
        for enclosed in list {
            let title = format!("Put the {} in", enclosed.enclosure.called());
            let says = words::enclosing(enclosed.enclosure.place, enclosed.enclosure.hard);
            let key = format!("papers/{}", enclosed.key);
            self.then(PackStep {
                encloses: Some(enclosed),
                minutes: each,
                look: Some(looks::ENCLOSED),
                ..plain(&key, stage, &title, says)
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
        let mut says: Vec<String> = Vec::new();
        for (at, place) in stack.order.iter().enumerate().rev() {
            let face = if place.faces_front { "up" } else { "down" };
            let title = title(&place.key);
            let says_one = match stack.pairs.get(at) {
                None if place.padded_outside => format!(
                    "Lay foam down first, then \u{201c}{title}\u{201d} on it, its hardware on the foam and its face {face}."
                ),
                None => format!("Lay \u{201c}{title}\u{201d} down first, its face {face}."),
                Some(pair) => {
                    let [across, up] = [pair.across, pair.up].map(|side| self.told_in.length(side));
                    let between = match (pair.folded, pair.padded) {
                        (true, false) => "On it a fold of the pad".to_owned(),
                        (true, true) => {
                            "On it a fold of the pad, and foam over the hardware".to_owned()
                        }
                        (false, false) => format!("On it a board of {across} × {up}"),
                        (false, true) => {
                            format!("On it a board of {across} × {up}, and foam over the hardware")
                        }
                    };
                    format!(
                        "{between}, then \u{201c}{title}\u{201d}, its face {face}: {}.",
                        pair.says
                    )
                }
            };
            says.push(says_one);
        }
        if stack
            .order
            .first()
            .is_some_and(|place| place.padded_outside)
        {
            says.push("On top foam, over the hardware that looks out.".to_owned());
        }
        says.extend(layer.handling().says.iter().map(|one| (*one).to_owned()));
        let mut step = PackStep {
            layer: Some(LayerSlot::Stack),
            parts: stack.parts.clone(),
            tools: layer.handling().tools.to_vec(),
            minutes: stack.minutes,
            cautions: layer.cautions.clone(),
            look: layer.handling().look,
            says,
            ..plain(
                &key_of("layer", LayerSlot::Stack),
                Stage::Wrap,
                "Lay the pieces together",
                &[],
            )
        };
        step.waits_for = ends;
        self.last = None;
        self.then(step);
    }

    fn face_and_top(&mut self) {
        self.then(PackStep {
            look: Some(looks::FACE_AND_TOP),
            tools: vec![Tool::Pencil],
            ..plain(
                FACE_AND_TOP,
                Stage::Wrap,
                "Mark face and top",
                &["Write on what will lie outside which side is the face and which edge the top."],
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
            ..plain(
                WRAPPED,
                Stage::Wrap,
                title,
                &[
                    "Across, up and through, as it lies: wraps come out thicker than sums.",
                    "Type the three sides here; what is cut for the box follows them.",
                ],
            )
        });
    }

    /// The box, and a second one around it: set up, filled, closed and sealed.
    fn boxed(&mut self) {
        let what = if self.plan.stack.is_some() {
            "the bound pieces"
        } else {
            "the wrapped piece"
        };
        self.one_box(LayerSlot::Box, &INNER, what);
        self.lay(LayerSlot::BoxFilm, Stage::Box);
        if self.layer(LayerSlot::SecondBox).is_some() {
            self.one_box(LayerSlot::SecondBox, &[LayerSlot::SecondFill], "the box");
        }
    }

    fn one_box(&mut self, slot: LayerSlot, inside: &[LayerSlot], what: &str) {
        let Some(layer) = self.layer(slot) else {
            return;
        };
        let strips = strips_of(&layer.make);
        let telescoped = layer
            .make
            .carton()
            .filter(|carton| carton.style == CartonStyle::Telescope)
            .map(|_| {
                let Envelope { across, up, .. } = layer.envelope;
                let side = if across > up {
                    "parcel.across"
                } else {
                    "parcel.up"
                };
                (side, self.told_in.length(layer.envelope.long_side()))
            });
        let laid_in = !matches!(layer.make, Make::Mailer(_) | Make::Tube(_));
        let lined = inside.contains(&LayerSlot::Lining);
        // What slides into its mailer is lined before.
        if lined && !laid_in {
            self.lay(LayerSlot::Lining, Stage::Box);
        }
        self.lay(slot, Stage::Box);
        if laid_in {
            if lined {
                self.lay(LayerSlot::Lining, Stage::Box);
            }
            if slot == LayerSlot::Box {
                self.enclose(LayerSlot::BoxPapers, Stage::Box, |place| {
                    place == EnclosurePlace::OnFloor
                });
            }
            let says = if self.plan.stack.is_some() {
                format!("Lay {what} in, front up, as they lie on the bench.")
            } else {
                format!("Lay {what} in, its face to the side that the marks will name.")
            };
            self.then(plain(
                &key_of("in", slot),
                Stage::Box,
                &format!("Lay {what} in"),
                &[&says],
            ));
        }
        if slot == LayerSlot::Box {
            self.enclose(LayerSlot::BoxPapers, Stage::Box, |place| {
                !laid_in || place != EnclosurePlace::OnFloor
            });
        }
        for slot in inside
            .iter()
            .copied()
            .filter(|slot| *slot != LayerSlot::Lining)
        {
            self.lay(slot, Stage::Box);
        }
        let mut says =
            vec!["Nothing presses on the face, and the lid closes without force.".to_owned()];
        let types: Vec<&str> = telescoped.iter().map(|(side, _)| *side).collect();
        if let Some((_, long)) = telescoped {
            says.push(format!(
                "Push the halves into each other until it is {long} long outside, or as far as the padding lets them."
            ));
            says.push("Type the length that it then has here: the prices follow it.".to_owned());
        }
        self.then(PackStep {
            look: Some(looks::STILL),
            types,
            says,
            ..plain(&key_of("close", slot), Stage::Box, "Close it", &[])
        });
        self.then(PackStep {
            strips,
            tools: vec![Tool::TapeGun],
            ..plain(
                &key_of("seal", slot),
                Stage::Box,
                "Seal it",
                &["Every seam first, then corners and edges, so that nothing catches."],
            )
        });
    }

    fn parcel(&mut self) {
        self.lay(LayerSlot::OuterPaper, Stage::Parcel);
        self.lay(LayerSlot::PocketPapers, Stage::Parcel);
        self.lay(LayerSlot::Marks, Stage::Parcel);
        self.then(PackStep {
            tools: vec![Tool::Pencil],
            ..plain(
                ADDRESS,
                Stage::Parcel,
                "Write both addresses",
                &["To whom, and from whom, before it leaves for the counter; check the postcode."],
            )
        });
        self.then(PackStep {
            types: vec![
                "parcel.weight",
                "parcel.across",
                "parcel.up",
                "parcel.through",
            ],
            ..plain(
                WEIGH,
                Stage::Parcel,
                "Measure and weigh it",
                &["What the scale reads, and its three sides outside: here, or at Weigh beside the scale. Carriers price by the larger of both."],
            )
        });
    }
}

impl PackStep {
    /// Tells whether it cuts something that another step lays.
    fn cuts_for(&self, other: &Self) -> bool {
        self.parts
            .iter()
            .any(|cut| other.parts.iter().any(|laid| laid == cut))
    }

    /// By what is laid, cut and torn; neither prices nor words make a done step another.
    fn printed(&self) -> String {
        let parts: Vec<_> = self
            .parts
            .iter()
            .map(|part| (part.name, &part.material, part.count, part.take))
            .collect();
        let laid = (parts, &self.strips);
        let written = match &self.encloses {
            // Pieces that lie in another order have to be laid anew, though nothing else is cut.
            None if self.layer == Some(LayerSlot::Stack) => serde_json::to_vec(&(laid, &self.says)),
            None => serde_json::to_vec(&laid),
            Some(Enclosed { enclosure, .. }) => {
                serde_json::to_vec(&(laid, enclosure.kind, enclosure.place))
            }
        };
        Sha256::digest(written.expect("a step can be written"))[..PRINT_BYTES]
            .iter()
            .map(|byte| format!("{byte:02x}"))
            .collect()
    }
}

fn plain(key: &str, stage: Stage, title: &str, says: &[&str]) -> PackStep {
    PackStep {
        key: key.to_owned(),
        stage,
        piece: None,
        title: title.to_owned(),
        says: says.iter().map(|one| (*one).to_owned()).collect(),
        layer: None,
        encloses: None,
        types: Vec::new(),
        parts: Vec::new(),
        strips: Vec::new(),
        tools: Vec::new(),
        minutes: Minutes::ZERO,
        cautions: Vec::new(),
        look: None,
        waits_for: Vec::new(),
        print: String::new(),
    }
}

fn key_of(what: &str, slot: LayerSlot) -> String {
    let written = serde_json::to_value(slot).expect("a place can be written");
    format!("{what}/{}", written.as_str().unwrap_or_default())
}

fn strips_of(make: &Make) -> Vec<Strips> {
    let mut strips: Vec<Strips> = Vec::new();
    for strip in make
        .carton()
        .map(|carton| &carton.seal)
        .into_iter()
        .flatten()
    {
        let alike = strips.iter_mut().find(|known| {
            (known.on, known.length, known.filament) == (strip.on, strip.length, strip.filament)
        });
        match alike {
            Some(known) => known.count += 1,
            None => strips.push(Strips {
                on: strip.on,
                count: 1,
                length: strip.length,
                filament: strip.filament,
            }),
        }
    }
    strips
}

fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters
        .next()
        .map(|first| first.to_uppercase().chain(letters).collect())
        .unwrap_or_default()
}

/// A name inside a sentence: a capital of its own stays, one that only begins a line does not.
fn in_sentence(name: &str) -> String {
    let mut letters = name.chars();
    let (Some(first), second) = (letters.next(), letters.clone().next()) else {
        return name.to_owned();
    };
    if second.is_some_and(|second| second.is_lowercase()) {
        first.to_lowercase().chain(letters).collect()
    } else {
        name.to_owned()
    }
}
