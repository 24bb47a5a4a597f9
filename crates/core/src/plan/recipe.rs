//! Which layers a plan has: what the job asks for, what the house and the shipment choose, and what must
//! not be.

use serde::Serialize;

use crate::{
    Refusal,
    house::{BackBoard, Carriage, FrontBoard, HouseRules, LooseCanvasRule, LoosePaperRule},
    layer::{Layer, rolls_up},
    odds::Route,
    piece::{Construction, Glazing, Medium, PaintBody, Piece},
    space::LayerSlot,
};

/// How a layer stands to a piece.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Standing {
    /// The job asks for it; leaving it out is refused, and this is why.
    Must(&'static str),
    /// It is there unless somebody leaves it out.
    On,
    /// It is not there unless somebody adds it.
    Off,
    /// It must not or can't be there, and this is why.
    Never(&'static str),
}

/// How a layer stands in a plan: whether it is there, and whether it can be added or left out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SlotState {
    /// Which.
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
            "a loose sheet has nothing stiff of its own: send it between boards or rolled",
        )),
        Some(Carriage::Mailed) if !board => Err(Refusal::new(
            "choices.carriage",
            "only a thin sheet or board that nothing may not press on goes between two boards in a mailer: send it in a box",
        )),
        Some(Carriage::Folio | Carriage::Rolled) if !loose => Err(Refusal::new(
            "choices.carriage",
            format!(
                "a {} can't be rolled or laid in a folio: it travels as it is",
                piece.construction.name()
            ),
        )),
        Some(Carriage::Rolled) if thick => Err(Refusal::new(
            "choices.carriage",
            "thick paint and loose pigment crack or shed when they are rolled: send it between boards",
        )),
        Some(Carriage::Rolled) if !rolls_up(piece) => Err(Refusal::new(
            "choices.carriage",
            "so short a sheet makes less than a turn and a half: it springs open; send it between boards",
        )),
        Some(chosen) => Ok(chosen),
        None if by_house == Carriage::Rolled && !thick => Ok(by_house),
        None if board && goes_by_mailer(piece, rules) => Ok(Carriage::Mailed),
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
            .is_none_or(|value| value <= allowances.mailer_value)
        && rules.way().route != Route::Overseas
}

/// Returns how a layer stands to a piece that travels in a way.
#[must_use]
pub fn standing(
    slot: LayerSlot,
    piece: &Piece,
    carriage: Carriage,
    rules: &HouseRules,
) -> Standing {
    match carriage {
        Carriage::Flat => flat(slot, piece, rules),
        Carriage::Folio => folio(slot, piece, rules),
        Carriage::Mailed => mailed(slot, piece, rules),
        Carriage::Rolled => rolled(slot),
    }
}

const NOT_FLAT: &str = "it is for loose sheets and rolls, and this piece is stiff";
const ROLLED: &str = "a roll in its tube has no place for it";
const MAILED: &str = "a mailer has no room for it: send it in a box";
const FOLIO: &str = "the two boards of the folio take its place";

fn flat(slot: LayerSlot, piece: &Piece, rules: &HouseRules) -> Standing {
    use LayerSlot as Slot;
    let glazing = piece.construction.glazing();
    match slot {
        Slot::GlassTape => match glazing {
            Glazing::Glass if piece.coated_glass => {
                Standing::Never("tape lifts the coating of coated glass")
            }
            Glazing::Glass => Standing::On,
            Glazing::Acrylic => Standing::Never("tape pulls at acrylic and leaves marks on it"),
            Glazing::None => Standing::Never("there is no glass to tape"),
        },
        Slot::WindowSpacer if piece.is_friable() => {
            Standing::Must("loose pigment must never be touched; the strips hold everything off it")
        }
        Slot::WindowSpacer if piece.needs_spacer() => {
            Standing::Must("thick paint must not be pressed between boards")
        }
        Slot::WindowSpacer if glazing != Glazing::None => {
            Standing::Never("the glazing already keeps everything off the face")
        }
        Slot::WindowSpacer if piece.medium.is_some_and(Medium::takes_no_pressure) => Standing::On,
        Slot::WindowSpacer => Standing::Off,
        Slot::Contact if piece.is_friable() => {
            Standing::Never("no sheet may touch loose pigment; the window spacer takes its place")
        }
        Slot::Contact if glazing == Glazing::None => {
            Standing::Must("nothing else may lie against a bare face, least of all plastic")
        }
        Slot::Bundle if piece.count > 1 => {
            Standing::Must("pieces that lie together must be parted and bound")
        }
        Slot::Bundle => Standing::Never("there is only one piece"),
        Slot::Folio | Slot::Roll => Standing::Never(NOT_FLAT),
        Slot::BackFill if piece.construction == Construction::StretchedCanvas => Standing::Off,
        Slot::BackFill => Standing::Never("only a stretched canvas has a hollow behind it"),
        Slot::FaceBoards if piece.is_friable() => {
            Standing::Must("the spacer needs a board to hold off the face")
        }
        Slot::FaceBoards if has_front_board(piece, rules) => Standing::On,
        Slot::Binding => Standing::Off,
        Slot::Contact
        | Slot::Corners
        | Slot::NameTag
        | Slot::FirstWrap
        | Slot::SecondWrap
        | Slot::Fill => Standing::On,
        _ => outer(slot, rules),
    }
}

fn folio(slot: LayerSlot, piece: &Piece, rules: &HouseRules) -> Standing {
    use LayerSlot as Slot;
    match slot {
        Slot::Contact => flat(Slot::Contact, piece, rules),
        Slot::Folio => Standing::Must("loose sheets are stiff only between boards"),
        Slot::WindowSpacer => flat(Slot::WindowSpacer, piece, rules),
        Slot::GlassTape | Slot::Bundle | Slot::Corners | Slot::BackFill | Slot::FaceBoards => {
            Standing::Never(FOLIO)
        }
        Slot::Roll => Standing::Never("these sheets lie flat"),
        Slot::Binding => Standing::Off,
        Slot::NameTag | Slot::FirstWrap | Slot::SecondWrap | Slot::Fill => Standing::On,
        _ => outer(slot, rules),
    }
}

fn mailed(slot: LayerSlot, piece: &Piece, rules: &HouseRules) -> Standing {
    use LayerSlot as Slot;
    match slot {
        Slot::Contact => flat(Slot::Contact, piece, rules),
        Slot::Folio => Standing::Must("in a mailer the two boards are all that is stiff"),
        Slot::Box => Standing::Must("nothing travels without something around it"),
        Slot::Bag | Slot::NameTag => Standing::Off,
        _ => Standing::Never(MAILED),
    }
}

const fn rolled(slot: LayerSlot) -> Standing {
    use LayerSlot as Slot;
    match slot {
        Slot::Contact => Standing::Must("a face that lies on a back prints on it"),
        Slot::Roll => Standing::Must("it is what goes into the tube"),
        Slot::Box => Standing::Must("nothing travels without a box or a tube"),
        Slot::FirstWrap | Slot::NameTag | Slot::Fill => Standing::On,
        Slot::Bag => Standing::Off,
        _ => Standing::Never(ROLLED),
    }
}

/// What comes after the cushion is the same for everything that lies flat.
fn outer(slot: LayerSlot, rules: &HouseRules) -> Standing {
    let twice = rules.layers.get(&LayerSlot::SecondBox) == Some(&true);
    match slot {
        LayerSlot::SecondFill if twice => {
            Standing::Must("the second box cushions the first one with it")
        }
        LayerSlot::Box => Standing::Must("nothing travels without a box or a tube"),
        LayerSlot::SecondFill => {
            Standing::Never("it belongs to the second box: add or leave out that")
        }
        _ => Standing::Off,
    }
}

fn has_front_board(piece: &Piece, rules: &HouseRules) -> bool {
    let worth_it = piece
        .value
        .is_some_and(|value| value > rules.allowances.board_value);
    match rules.schools.front_board {
        FrontBoard::Always => true,
        FrontBoard::CanvasOnly => worth_it || piece.construction == Construction::StretchedCanvas,
    }
}

/// Tells whether there is a board behind as well as in front.
#[must_use]
pub(super) fn has_back_board(piece: &Piece, rules: &HouseRules) -> bool {
    match rules.schools.back_board {
        BackBoard::Always => true,
        BackBoard::Never => false,
        BackBoard::Canvas => piece.construction == Construction::StretchedCanvas,
    }
}

/// Which layers a plan has.
#[derive(Debug, Clone)]
pub struct Recipe {
    /// How the piece travels.
    pub carriage: Carriage,
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
        let present = LayerSlot::ALL
            .into_iter()
            .filter(|&slot| {
                let chosen = rules.layers.get(&slot).copied();
                match standing(slot, piece, carriage, rules) {
                    Standing::Must(_) => true,
                    Standing::Never(_) => false,
                    Standing::On => chosen.unwrap_or(true),
                    Standing::Off => chosen.unwrap_or(false),
                }
            })
            .collect();
        Self { carriage, present }
    }

    /// Returns the recipe without a layer.
    pub(super) fn without(mut self, slot: LayerSlot) -> Self {
        self.present.retain(|&present| present != slot);
        self
    }

    /// Returns how a piece travels that no mailer on the shelf takes: in a box.
    pub(super) fn boxed_instead(piece: &Piece, rules: &HouseRules) -> Self {
        let carriage = if piece.construction.is_loose() {
            Carriage::Folio
        } else {
            Carriage::Flat
        };
        Self::by(piece, rules, carriage)
    }

    /// Tells whether a layer is there.
    #[must_use]
    pub fn has(&self, slot: LayerSlot) -> bool {
        self.present.contains(&slot)
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
