//! One step at the bench, and the print that tells whether it is still the same.

use serde::Serialize;
use sha2::{Digest, Sha256};

use crate::{
    act::{Act, Does, Thing},
    arrange::Pair,
    enclosure::Enclosed,
    layer::{Look, Tool, Verb},
    part::{Part, Strips},
    plan::{Stack, StackPlace, TierPiece},
    quantity::{Length, Minutes},
    space::LayerSlot,
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
    /// The acts of which its sentences are made, one for each, in their order.
    pub acts: Vec<Act>,
    /// What the hand does.
    pub verb: Verb,
    /// The layer that it lays, or lays a share of.
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
    /// How long it takes. Of a layer that several steps lay, each has its share; a step without a layer, as to close the box, has 0.
    pub minutes: Minutes,
    /// What could hurt, said where it comes up first in a stage.
    pub cautions: Vec<&'static str>,
    /// What could hurt, as small signs at every step where it does.
    pub signs: Vec<Sign>,
    /// What is looked at before going on.
    pub look: Option<Look>,
    /// What has to be done first, by keys.
    pub waits_for: Vec<String>,
    /// What can't be reached any more once it is done: keys of steps, and places as `place/on_floor`.
    pub covers: Vec<String>,
    /// Changes whenever what is laid, cut or torn here does.
    pub print: String,
    /// Where in a box it acts.
    #[serde(skip)]
    pub(super) in_box: Option<InBox>,
    /// How several pieces lie, where it lays them.
    #[serde(skip)]
    pub(super) lies: Option<Lies>,
}

/// How several pieces lie on each other, as far as another order would have to be laid anew.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub(super) struct Lies {
    order: Vec<(String, bool, bool)>,
    tiers: Vec<Vec<TierPiece>>,
    pairs: Vec<(Length, Length, bool, bool)>,
}

impl Lies {
    pub(super) fn of(stack: &Stack) -> Self {
        let place = |one: &StackPlace| (one.key.clone(), one.faces_front, one.padded_outside);
        let pair = |pair: &Pair| (pair.across, pair.up, pair.folded, pair.padded);
        Self {
            order: stack.order.iter().map(place).collect(),
            tiers: stack.tiers.iter().map(|tier| tier.pieces.clone()).collect(),
            pairs: stack.pairs.iter().map(pair).collect(),
        }
    }
}

/// Strips as they are printed: by their key.
#[derive(Serialize)]
struct StripsPrint {
    on: &'static str,
    count: u32,
    length_mm: Length,
    fold_mm: Length,
    filament: bool,
}

impl StripsPrint {
    const fn of(strips: &Strips) -> Self {
        Self {
            on: strips.on.key(),
            count: strips.count,
            length_mm: strips.length,
            fold_mm: strips.fold,
            filament: strips.filament,
        }
    }
}

/// Where in one of two boxes a step acts.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct InBox {
    /// Which box.
    pub slot: LayerSlot,
    /// How far hands reach into it then.
    pub reach: Reach,
}

/// How far hands reach into a box when a step is done.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Reach {
    /// Lays what no hand gets to once something lies in the box.
    Under,
    /// Puts in what the box is for.
    GoesIn,
    /// Lays what stays in reach until the box is closed.
    Over,
    /// Closes or seals it.
    Closes,
}

/// What could hurt, as a small sign.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Sign {
    /// A blade is open.
    Knife,
    /// A pane or a mirror is touched.
    Glass,
    /// Foam, wood or fibreboard gives off dust.
    Dust,
    /// It takes two people.
    TwoPeople,
    /// Plastic sheets are kept from children.
    Film,
    /// Acrylic holds a charge.
    Static,
}

impl Sign {
    /// Returns the sign as a word or two.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Knife => "knife",
            Self::Glass => "glass",
            Self::Dust => "dust",
            Self::TwoPeople => "two people",
            Self::Film => "film",
            Self::Static => "static",
        }
    }
}

/// How many bytes of the digest tell one state of a step from another.
const PRINT_BYTES: usize = 6;
/// Bytes of the digest of a step that lays several pieces together. A shorter print was made of its sentences, by an earlier release.
const TOGETHER_BYTES: usize = 7;

impl PackStep {
    /// A step of which nothing is known but what it is.
    pub(super) fn plain(key: &str, stage: Stage, verb: Verb, title: &str) -> Self {
        Self {
            key: key.to_owned(),
            stage,
            piece: None,
            title: title.to_owned(),
            says: Vec::new(),
            acts: Vec::new(),
            verb,
            layer: None,
            encloses: None,
            types: Vec::new(),
            parts: Vec::new(),
            strips: Vec::new(),
            tools: Vec::new(),
            minutes: Minutes::ZERO,
            cautions: Vec::new(),
            signs: Vec::new(),
            look: None,
            waits_for: Vec::new(),
            covers: Vec::new(),
            print: String::new(),
            in_box: None,
            lies: None,
        }
    }

    /// The same, with one thing that is done in as many sentences.
    pub(super) fn saying<S: Into<String>>(
        self,
        (does, thing): (Does, Thing),
        says: impl IntoIterator<Item = S>,
    ) -> Self {
        let acts: Vec<Act> = says
            .into_iter()
            .map(|says| Act::new(does, thing, says))
            .collect();
        self.acting(&acts)
    }

    /// The same, with acts, which say themselves after what it says already.
    pub(super) fn acting(mut self, acts: &[Act]) -> Self {
        self.says.extend(acts.iter().map(|act| act.says.clone()));
        self.acts.extend_from_slice(acts);
        self
    }

    /// The same, at a box.
    pub(super) fn at_box(self, slot: LayerSlot, reach: Reach) -> Self {
        Self {
            in_box: Some(InBox { slot, reach }),
            ..self
        }
    }

    /// Tells whether it cuts something that another step lays.
    pub(super) fn cuts_for(&self, other: &Self) -> bool {
        self.parts
            .iter()
            .any(|cut| other.parts.iter().any(|laid| laid == cut))
    }

    /// By what is laid, cut and torn; neither prices nor words make a done step another.
    pub(super) fn printed(&self) -> String {
        let parts: Vec<_> = self
            .parts
            .iter()
            .map(|part| (part.id.key(), &part.material, part.count, part.take))
            .collect();
        let strips: Vec<_> = self.strips.iter().map(StripsPrint::of).collect();
        let laid = (parts, strips);
        let (written, bytes) = match &self.encloses {
            Some(Enclosed { enclosure, .. }) => (
                serde_json::to_vec(&(laid, enclosure.kind, enclosure.place)),
                PRINT_BYTES,
            ),
            // Pieces that lie in another order have to be laid anew, though nothing else is cut.
            None if self.layer == Some(LayerSlot::Stack) => {
                (serde_json::to_vec(&(laid, &self.lies)), TOGETHER_BYTES)
            }
            None => (serde_json::to_vec(&laid), PRINT_BYTES),
        };
        Sha256::digest(written.expect("a step can be written"))[..bytes]
            .iter()
            .map(|byte| format!("{byte:02x}"))
            .collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn laid(keys: [&str; 2], says: &str) -> String {
        let place = |key: &str| (key.to_owned(), true, false);
        let lies = Lies {
            order: keys.map(place).to_vec(),
            tiers: Vec::new(),
            pairs: Vec::new(),
        };
        let step = PackStep {
            layer: Some(LayerSlot::Stack),
            lies: Some(lies),
            ..PackStep::plain("layer/stack", Stage::Wrap, Verb::Lay, "Lay them")
                .acting(&[Act::new(Does::Lay, Thing::Piece, says)])
        };
        step.printed()
    }

    /// It kills: a print without the order of the pieces, and one with the words for it.
    #[test]
    fn pieces_in_another_order_have_another_print_and_other_words_the_same() {
        let print = laid(["first", "b"], "Lay one down first.");
        assert_ne!(print, laid(["b", "first"], "Lay one down first."));
        assert_eq!(print, laid(["first", "b"], "Begin with one."));
        assert_eq!(print.len(), TOGETHER_BYTES * 2);
    }
}
