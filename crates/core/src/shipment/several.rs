//! Several pieces in one shipment: what was typed about the others, and how they lie together.

use std::{collections::BTreeMap, sync::Arc};

use jiff::civil::Date;
use serde::{Deserialize, Serialize};

use super::{House, PieceInputs, ShipmentInputs};
use crate::{
    Refusal, Refusals,
    arrange::MOST,
    enclosure::{Enclosed, EnclosureKind, EnclosurePlace, SetAsked, is_key},
    house::{Choices, HouseRules},
    material::MaterialId,
    odds::{PieceClass, Travels},
    piece::{Piece, PieceSize},
    plan::{Among, FIRST, Laid, LaidBoard, Recipe, Together, boxed_carriage, sheet_may_touch},
    quantity::Bare,
    space::LayerSlot,
};

/// Another piece in the same box, as typed.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct OtherPiece {
    /// Its title.
    pub title: String,
    /// What it is worth, in the studio's currency, as 640.00.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub value: Option<String>,
    /// The piece.
    pub piece: PieceInputs,
    /// What its own layers do otherwise than those of the shipment.
    #[serde(skip_serializing_if = "is_default")]
    pub choices: OwnChoices,
}

/// What the own layers of one piece of several do otherwise than those of the shipment.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct OwnChoices {
    /// Layers added or left out, from the art up to the film around its wrap.
    #[serde(skip_serializing_if = "BTreeMap::is_empty")]
    pub layers: BTreeMap<LayerSlot, bool>,
    /// Turns of its first wrap.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub first_turns: Option<u32>,
    /// Turns of its second wrap; none leaves it out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub second_turns: Option<u32>,
    /// The sheet against it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub contact_paper: Option<MaterialId>,
    /// The board in front and behind.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub face_board: Option<MaterialId>,
    /// The cushion of both its wraps.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub cushion_wrap: Option<MaterialId>,
}

/// How several pieces lie together.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct TogetherInputs {
    /// From the front of the box, by hand; the best order is looked for when absent, and where it does not name each piece once.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub order: Option<Vec<LaidPiece>>,
    /// Whether thin framed pieces lie in the folds of one pad, in place of a wrap each.
    #[serde(skip_serializing_if = "is_default")]
    pub folded_pad: bool,
}

/// A piece where it lies.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct LaidPiece {
    /// `first`, or its name among the others.
    pub piece: String,
    /// Whether its face looks to the front of the box; beside another one as that one's.
    pub faces_front: bool,
    /// Whether it lies on the board of the piece before it, side by side.
    #[serde(skip_serializing_if = "is_default")]
    pub beside: bool,
}

/// A piece with its name among the others.
type Keyed<'a> = (&'a str, Piece);

fn is_default<T: Default + PartialEq>(value: &T) -> bool {
    *value == T::default()
}

impl OwnChoices {
    pub(crate) fn as_choices(&self) -> Choices {
        let Self {
            layers,
            first_turns,
            second_turns,
            contact_paper,
            face_board,
            cushion_wrap,
        } = self.clone();
        Choices {
            layers,
            first_turns,
            second_turns,
            contact_paper,
            face_board,
            cushion_wrap,
            ..Choices::default()
        }
    }

    fn refused(&self) -> Option<Refusal> {
        let outer = self.layers.keys().find(|slot| **slot >= LayerSlot::Stack)?;
        let says = format!(
            "{} holds all pieces: choose it for the whole shipment",
            outer.name()
        );
        Some(Refusal::new("choices.layers", says))
    }
}

impl OtherPiece {
    /// The same as a shipment of its own, so that one piece is read in one way.
    fn alone(&self) -> ShipmentInputs {
        ShipmentInputs {
            title: self.title.clone(),
            value: self.value.clone(),
            piece: self.piece.clone(),
            ..ShipmentInputs::default()
        }
    }

    /// Tells whether its own layers are those of the shipment.
    pub(super) fn follows_all(&self) -> bool {
        self.choices == OwnChoices::default()
    }

    /// Returns it for the next like shipment, as [`ShipmentInputs::again`] does.
    pub(super) fn again(&self) -> Self {
        let again = self.alone().again();
        Self {
            title: again.title,
            value: again.value,
            piece: again.piece,
            choices: self.choices.clone(),
        }
    }
}

/// Names the fields of refusals about another piece.
fn of(key: &str, refusals: impl IntoIterator<Item = Refusal>) -> impl Iterator<Item = Refusal> {
    let at = move |refusal: Refusal| {
        Refusal::new(format!("others.{key}.{}", refusal.field), refusal.message)
    };
    let named: Vec<Refusal> = refusals.into_iter().map(at).collect();
    named.into_iter()
}

impl ShipmentInputs {
    /// Writes units into the others and returns what of them can't stand.
    pub(super) fn others_looked_over(&mut self, bare: Bare, today: Date) -> Vec<Refusal> {
        let mut refusals = Refusals::default();
        if self.others.len() >= MOST {
            let says = format!(
                "{} pieces: a box holds at most {MOST} different ones; split the shipment",
                self.others.len() + 1
            );
            refusals.refuse("others", says);
        }
        for (key, other) in &mut self.others {
            if !is_key(key) || key == FIRST {
                let says =
                    "a piece's key has up to 24 lower-case letters and digits, and isn't \"first\"";
                refusals.refuse("others", says);
                continue;
            }
            let (read, refused) = other.alone().looked_over(bare, today);
            (other.value, other.piece) = (read.value, read.piece);
            refusals.extend(of(key, refused));
            refusals.extend(of(key, other.choices.refused()));
        }
        let laid = self.together.order.as_deref().unwrap_or_default();
        if laid.len() > MOST || laid.iter().any(|laid| !is_key(&laid.piece)) {
            let says = format!(
                "name up to {MOST} pieces, as \"first\" or by their names among the others"
            );
            refusals.refuse("together.order", says);
        }
        refusals.into()
    }

    /// Returns the size of each of the others, once all its three sides are given.
    pub(super) fn other_sizes(&self) -> BTreeMap<String, PieceSize> {
        let size = |(key, other): (&String, &OtherPiece)| {
            let size = other.alone().size().ok().flatten()?;
            Some((key.clone(), size))
        };
        self.others.iter().filter_map(size).collect()
    }

    /// Returns the fields that the others still need.
    pub(super) fn others_missing(&self) -> impl Iterator<Item = String> {
        self.others.iter().flat_map(|(key, other)| {
            let missing = other.alone().missing();
            missing
                .into_iter()
                .map(move |field| format!("others.{key}.{field}"))
        })
    }

    /// Returns the other pieces, by their names; `None` while something of any is missing.
    ///
    /// # Errors
    /// A [`Refusal`] for each value that can't stand.
    pub(super) fn other_pieces(&self) -> Result<Option<Vec<Keyed<'_>>>, Vec<Refusal>> {
        let mut pieces = Vec::with_capacity(self.others.len());
        for (key, other) in &self.others {
            let piece = other
                .alone()
                .piece()
                .map_err(|refused| of(key, refused).collect::<Vec<_>>())?;
            let Some(piece) = piece else { return Ok(None) };
            pieces.push((key.as_str(), piece));
        }
        Ok(Some(pieces))
    }

    /// Returns what a piece is called: by its title, else by its place among all.
    #[must_use]
    pub fn title_of(&self, key: &str) -> String {
        let at = self.others.keys().position(|known| known == key);
        let title = match at {
            None => &self.title,
            Some(_) => &self.others[key].title,
        };
        if title.trim().is_empty() {
            format!("piece {}", at.map_or(1, |at| at + 2))
        } else {
            title.trim().to_owned()
        }
    }

    /// Returns the pieces of a shipment with what their own layers follow; `None` if there is one.
    ///
    /// # Errors
    /// A [`Refusal`] for each choice of a piece that is out of its range or does not go with it.
    pub(super) fn pieces_together(
        &self,
        first: &Piece,
        rules: &mut HouseRules,
        start: &Choices,
        house: &House,
    ) -> Result<Option<Together>, Vec<Refusal>> {
        if self.others.is_empty() {
            return Ok(None);
        }
        let Some(others) = self.other_pieces()? else {
            return Ok(None);
        };
        let mut enclosed: Vec<Enclosed> = rules.enclosed.to_vec();
        let mut pieces = Vec::with_capacity(others.len());
        for (key, piece) in others {
            let own = &self.others[key].choices;
            let chosen = own.as_choices();
            let choices = self.choices.over(start).patched(&chosen);
            let named = |refused| of(key, refused).collect::<Vec<_>>();
            let mut follows = house.rules.with(&choices).map_err(named)?;
            follows.shipment.way = rules.shipment.way;
            // What was measured or set for the first piece alone.
            follows.shipment.pocket_leg = None;
            follows.shipment.set_grid = None;
            follows.shipment.carriage = Some(boxed_carriage(&piece));
            let mut refused = Recipe::refused(&piece, &follows, &own.layers);
            let sheet = own.contact_paper.as_ref();
            refused.extend(sheet_may_touch(&piece, sheet, &house.catalogue).err());
            if !refused.is_empty() {
                return Err(named(refused));
            }
            let (within, outside) = self.certificate_of(key, &piece, &house.rules);
            follows.enclosed = Arc::new(within);
            enclosed.extend(outside);
            pieces.push(Among {
                key: key.to_owned(),
                title: self.title_of(key),
                piece,
                rules: follows,
            });
        }
        rules.enclosed = Arc::new(enclosed);
        let first = Among {
            key: FIRST.to_owned(),
            title: self.title_of(FIRST),
            piece: first.clone(),
            rules: rules.clone(),
        };
        pieces.insert(0, first);
        Ok(Some(Together {
            laid: self
                .laid_by_hand(&pieces)
                .map_or(Laid::ByRule, Laid::ByHand),
            folded: self.together.folded_pad,
            pieces,
        }))
    }

    /// What lies on each board by hand, where each piece that there is is named once.
    fn laid_by_hand(&self, pieces: &[Among]) -> Option<Vec<LaidBoard>> {
        let mut boards: Vec<LaidBoard> = Vec::new();
        let mut named = 0;
        for laid in self.together.order.as_deref()? {
            let piece = pieces.iter().position(|among| among.key == laid.piece)?;
            named += 1;
            match boards.last_mut().filter(|_| laid.beside) {
                Some(board) => board.pieces.push(piece),
                None => boards.push(LaidBoard {
                    pieces: vec![piece],
                    faces_front: laid.faces_front,
                }),
            }
        }
        let mut all: Vec<usize> = boards
            .iter()
            .flat_map(|board| board.pieces.iter().copied())
            .collect();
        all.sort_unstable();
        (named == pieces.len() && all.into_iter().eq(0..pieces.len())).then_some(boards)
    }

    /// The certificate of another piece, within its own wraps or in the box; everything else that the house lists goes in once.
    fn certificate_of(
        &self,
        key: &str,
        piece: &Piece,
        rules: &HouseRules,
    ) -> (Vec<Enclosed>, Vec<Enclosed>) {
        let asked = SetAsked {
            class: PieceClass::of(piece, Travels::Boxed),
            certificate: piece.certificate,
            gift: false,
        };
        let certificate = rules
            .enclosures
            .iter()
            .filter(|set| set.is_for(asked))
            .flat_map(|set| set.brings())
            .find(|one| one.enclosure.kind == EnclosureKind::Certificate && piece.certificate);
        let Some(mut certificate) = certificate else {
            return (Vec::new(), Vec::new());
        };
        let own = matches!(
            certificate.enclosure.place,
            EnclosurePlace::OnBack | EnclosurePlace::UnderLastWrap
        );
        if own {
            return (vec![certificate], Vec::new());
        }
        certificate.key = format!("{}-{key}", certificate.key);
        certificate.enclosure.name = format!(
            "{} of {}",
            certificate.enclosure.called(),
            self.title_of(key)
        );
        (Vec::new(), vec![certificate])
    }
}
