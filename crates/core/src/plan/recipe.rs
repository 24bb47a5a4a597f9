//! Which layers a plan has: what the job asks for, what the house and the shipment choose, and what must
//! not be.

use serde::Serialize;

use crate::{
    Refusal,
    house::{Allowances, Carriage, HouseRules, LooseCanvasRule, LoosePaperRule},
    layer::{Layer, Standing, StandingQuestion, has_bars, rolls_up, standing},
    piece::{Construction, FrameFinish, Medium, PaintBody, Piece},
    place::Route,
    space::LayerSlot,
};

/// How a layer stands in a plan: whether it is there, and whether it can be added or left out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SlotState {
    /// The place of the layer.
    pub slot: LayerSlot,
    /// What people call it.
    pub name: &'static str,
    /// Whether it is there.
    pub present: bool,
    /// Whether it may be added, or left out where it is there.
    pub free: bool,
    /// Why it may not.
    pub why: Option<&'static str>,
}

/// Returns how a piece travels: as chosen, else by the house's schools.
///
/// # Errors
/// A [`Refusal`] for a stiff piece that is to be rolled or for a loose one that is to travel bare.
pub fn carriage_of(piece: &Piece, rules: &HouseRules) -> Result<Carriage, Refusal> {
    let schools = rules.schools;
    let by_house = match piece.construction {
        Construction::LooseCanvas if schools.loose_canvas == LooseCanvasRule::Rolled => {
            Carriage::Rolled
        }
        Construction::LoosePaper if schools.loose_paper == LoosePaperRule::Rolled => {
            Carriage::Rolled
        }
        Construction::LooseCanvas | Construction::LoosePaper => Carriage::Folio,
        _ => Carriage::Flat,
    };
    let by_house = if by_house == Carriage::Rolled && !rolls_up(piece) {
        Carriage::Folio
    } else {
        by_house
    };
    let loose = piece.construction.is_loose();
    let thick = piece.paint == PaintBody::Impasto || piece.is_friable();
    let board = lies_between_boards(piece);
    match rules.shipment.carriage {
        Some(Carriage::Flat) if loose => Err(Refusal::new(
            "choices.carriage",
            "a loose sheet needs support: send it between boards or rolled",
        )),
        Some(Carriage::Padded) => goes_padded(piece, &rules.allowances)
            .map(|()| Carriage::Padded)
            .map_err(|why| Refusal::new("choices.carriage", why)),
        Some(Carriage::Mailed) if !board => Err(Refusal::new(
            "choices.carriage",
            "only a thin sheet or board that stands pressure fits between boards in a mailer: send it in a box",
        )),
        Some(Carriage::Folio | Carriage::Rolled) if !loose => Err(Refusal::new(
            "choices.carriage",
            format!(
                "a {} can't be rolled or laid in a folio: send it as it is",
                piece.construction.name()
            ),
        )),
        Some(Carriage::Rolled) if thick => Err(Refusal::new(
            "choices.carriage",
            "thick paint and loose pigment crack or shed when they are rolled: send it between boards",
        )),
        Some(Carriage::Rolled) if !rolls_up(piece) => Err(Refusal::new(
            "choices.carriage",
            "this sheet is too short to roll (less than 1.5 turns) and springs open: send it between boards",
        )),
        Some(chosen) => Ok(chosen),
        None if by_house == Carriage::Rolled && !thick => Ok(by_house),
        None if board && (goes_by_mailer(piece, rules) || goes_as_sandwich(piece, rules)) => {
            Ok(Carriage::Mailed)
        }
        None if loose => Ok(Carriage::Folio),
        None => Ok(Carriage::Flat),
    }
}

/// Tells whether a piece may lie between two boards: loose sheets and thin boards, one of each but for sheets,
/// that nothing has to be held off.
fn lies_between_boards(piece: &Piece) -> bool {
    let thin = match piece.construction {
        Construction::LoosePaper | Construction::LooseCanvas => true,
        Construction::RigidBoard => piece.count == 1,
        _ => false,
    };
    let pressed = piece.medium.is_some_and(Medium::takes_no_pressure);
    thin && !pressed && !piece.needs_spacer()
}

/// Tells whether the house sends so small, light and cheap a piece in a mailer, on this way.
fn goes_by_mailer(piece: &Piece, rules: &HouseRules) -> bool {
    let allowances = &rules.allowances;
    let size = piece.size;
    let (long, short) = (allowances.mailer_long, allowances.mailer_short);
    size.long_side() <= long.max(short)
        && size.short_side() <= long.min(short)
        && size.depth <= allowances.mailer_deep
        && piece.weight(allowances.piece_doubt).mass < allowances.mailer_mass
        && piece
            .value
            .is_none_or(|value| value <= allowances.mailer_value.number())
        && rules.way().route != Route::Overseas
}

/// Tells whether the house sends loose sheets as a flat sandwich: no larger than allowed, thin and cheap enough, on a dry way.
fn goes_as_sandwich(piece: &Piece, rules: &HouseRules) -> bool {
    let allowances = &rules.allowances;
    let (long, short) = (allowances.sandwich_long, allowances.sandwich_short);
    let way = rules.way();
    piece.construction == Construction::LoosePaper
        && piece.size.long_side() <= long.max(short)
        && piece.size.short_side() <= long.min(short)
        && piece.size.depth <= allowances.mailer_deep
        && piece.weight(allowances.piece_doubt).mass < allowances.mailer_mass
        && piece
            .value
            .is_some_and(|value| value <= allowances.mailer_value.number())
        && !way.wet
        && way.route != Route::Overseas
}

/// Returns why a piece does not go wrapped thin into a padded mailer, where it does not.
///
/// # Errors
/// What stands against it, in a sentence.
pub(crate) fn goes_padded(piece: &Piece, allowances: &Allowances) -> Result<(), &'static str> {
    let pressed = piece.medium.is_some_and(Medium::takes_no_pressure);
    if piece.construction.is_loose() {
        Err("loose sheets need two boards in a mailer")
    } else if piece.construction.is_glazed() {
        Err("a mailer bends: send glass, a mirror or acrylic in a box")
    } else if piece.count > 1 {
        Err("a mailer holds one piece: send several in a box")
    } else if piece.size.depth > allowances.padded_deep {
        Err("it is too deep for a padded mailer: send it in a box")
    } else if piece.needs_spacer() || pressed {
        Err("a mailer presses on the face: send it in a box")
    } else if piece.frame_finish() != FrameFinish::Plain {
        Err("a mailer rubs on this frame: send it in a box")
    } else {
        Ok(())
    }
}

/// Puts the board before a face next to the bars that it lies on: nothing goes around an open one.
fn boards_first(present: &mut Vec<LayerSlot>) {
    let boards = LayerSlot::FaceBoards;
    if let Some(at) = present.iter().position(|slot| *slot == boards) {
        present.remove(at);
        let next = present.iter().position(|slot| *slot > LayerSlot::Contact);
        present.insert(next.unwrap_or(present.len()), boards);
    }
}

/// Which layers a plan has.
#[derive(Debug, Clone)]
pub struct Recipe {
    /// How the piece travels.
    pub carriage: Carriage,
    /// Whether the house would send it in a mailer, and none on the shelf takes it.
    pub no_mailer: bool,
    present: Vec<LayerSlot>,
}

impl Recipe {
    /// Returns the layers of a plan for a piece by the rules.
    ///
    /// A rule of the house that must not be is passed over; a choice of the shipment that must not be is
    /// refused by [`Recipe::refused`].
    ///
    /// # Errors
    /// A [`Refusal`] for a carriage that the piece does not take.
    pub fn of(piece: &Piece, rules: &HouseRules) -> Result<Self, Refusal> {
        Ok(Self::by(piece, rules, carriage_of(piece, rules)?))
    }

    /// Returns the layers of a plan for a piece that travels in a way.
    pub(super) fn by(piece: &Piece, rules: &HouseRules, carriage: Carriage) -> Self {
        let mut present: Vec<LayerSlot> = LayerSlot::ALL
            .into_iter()
            .filter(|&slot| {
                let chosen = rules.layers.get(&slot).copied();
                standing(slot, piece, carriage, rules).is_there(chosen)
            })
            .collect();
        let asked = StandingQuestion {
            piece,
            carriage,
            rules,
        };
        if has_bars(&asked) {
            boards_first(&mut present);
        }
        Self {
            carriage,
            no_mailer: false,
            present,
        }
    }

    /// Returns the recipe without a layer.
    pub(super) fn without(mut self, slot: LayerSlot) -> Self {
        self.present.retain(|&present| present != slot);
        self
    }

    /// Returns the recipe with some of its layers only.
    pub(super) fn only(mut self, of: impl Fn(LayerSlot) -> bool) -> Self {
        self.present.retain(|&present| of(present));
        self
    }

    /// Returns how a piece travels that no mailer on the shelf takes: in a box.
    pub(super) fn boxed_instead(piece: &Piece, rules: &HouseRules) -> Self {
        let carriage = if piece.construction.is_loose() {
            Carriage::Folio
        } else {
            Carriage::Flat
        };
        Self {
            no_mailer: true,
            ..Self::by(piece, rules, carriage)
        }
    }

    /// Tells whether a layer is there.
    #[must_use]
    pub fn has(&self, slot: LayerSlot) -> bool {
        self.present.contains(&slot)
    }

    /// Returns the layers that there are, from the art outward.
    #[must_use]
    pub fn present(&self) -> &[LayerSlot] {
        &self.present
    }

    /// Returns how every layer stands, from the art outward.
    #[must_use]
    pub fn states(&self, piece: &Piece, rules: &HouseRules, layers: &[Layer]) -> Vec<SlotState> {
        LayerSlot::ALL
            .into_iter()
            .map(|slot| {
                let why = match standing(slot, piece, self.carriage, rules) {
                    Standing::Must(why) | Standing::Never(why) => Some(why),
                    Standing::On | Standing::Off => None,
                };
                SlotState {
                    slot,
                    name: slot.name(),
                    present: layers.iter().any(|layer| layer.slot == slot),
                    free: why.is_none(),
                    why,
                }
            })
            .collect()
    }

    /// Returns a refusal for each layer that a shipment adds or leaves out against the job.
    #[must_use]
    pub fn refused(
        piece: &Piece,
        rules: &HouseRules,
        chosen: &std::collections::BTreeMap<LayerSlot, bool>,
    ) -> Vec<Refusal> {
        let Ok(carriage) = carriage_of(piece, rules) else {
            return Vec::new();
        };
        chosen
            .iter()
            .filter_map(|(&slot, &wanted)| {
                let (verb, why) = match standing(slot, piece, carriage, rules) {
                    Standing::Must(why) if !wanted => ("left out", why),
                    Standing::Never(why) if wanted => ("added", why),
                    _ => return None,
                };
                let name = slot.name();
                let key = serde_json::to_value(slot).ok()?;
                let field = format!("choices.layers.{}", key.as_str()?);
                Some(Refusal::new(
                    field,
                    format!("{name} can't be {verb}: {why}"),
                ))
            })
            .collect()
    }
}
