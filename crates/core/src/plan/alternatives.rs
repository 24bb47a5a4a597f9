//! What else a layer could be, and what each would change.

use serde::Serialize;

use super::{Plan, sheet_may_touch};
use crate::{
    Refusal,
    house::{BoardFit, Carriage, Choices, CornerStyle, GlassPattern, HouseRules, SchoolChoices},
    layer::LayerSlot,
    material::{Catalogue, MaterialId, Use},
    piece::Piece,
    plan::{FindingLevel, Recipe, Standing, carriage_of, standing},
    quantity::{Length, Mass, Minutes, Money},
};

/// Something that a layer could be instead.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Alternative {
    /// What it is.
    pub label: String,
    /// The choices to merge into those of the shipment.
    pub choices: Choices,
    /// Whether the plan has it already.
    pub chosen: bool,
    /// Why it can't be.
    pub refused: Option<String>,
    /// What it would change.
    pub change: Option<Change>,
}

/// What a plan would come to, less what it comes to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Change {
    /// Of the outside.
    #[serde(rename = "across_mm")]
    pub across: Length,
    /// Of the outside.
    #[serde(rename = "up_mm")]
    pub up: Length,
    /// Of the outside.
    #[serde(rename = "through_mm")]
    pub through: Length,
    /// Of the parcel.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// Of the materials.
    pub cost: Money,
    /// Of the work.
    pub minutes: Minutes,
    /// Of the plastic.
    #[serde(rename = "plastic_g")]
    pub plastic: Mass,
    /// Open Stops more, or fewer.
    pub stops: i32,
    /// Minds more, or fewer.
    pub minds: i32,
    /// Of the lowest share that any fall survives of its custom: 0.1 is a tenth more.
    pub survives_share: f64,
}

impl Change {
    /// Tells whether nothing would change, to a tenth of a millimetre and a tenth of a gram.
    #[must_use]
    pub fn is_nothing(&self) -> bool {
        const TENTH: f64 = 0.1;
        let sizes = [self.across, self.up, self.through].map(Length::as_mm);
        let rest = [
            self.mass.as_g(),
            self.minutes.as_min(),
            self.plastic.as_g(),
            self.survives_share * 1e3,
        ];
        sizes.into_iter().chain(rest).all(|by| by.abs() < TENTH)
            && self.cost.amount.is_zero()
            && (self.stops, self.minds) == (0, 0)
    }

    /// Returns what one plan comes to less what another does.
    #[must_use]
    pub fn between(now: &Plan, then: &Plan) -> Self {
        let (one, other) = (&now.tally, &then.tally);
        let count = |plan: &Plan, level| {
            let found = plan
                .findings
                .iter()
                .filter(|finding| finding.level == level);
            i32::try_from(found.count()).unwrap_or(i32::MAX)
        };
        let more = |level| count(then, level) - count(now, level);
        let weakest = |plan: &Plan| {
            plan.survival
                .falls
                .iter()
                .map(|fall| (fall.survives / fall.customary).min(1.0))
                .fold(1.0, f64::min)
        };
        Self {
            across: other.outside.across - one.outside.across,
            up: other.outside.up - one.outside.up,
            through: other.outside.through - one.outside.through,
            mass: other.weight.mass - one.weight.mass,
            cost: Money {
                amount: other.materials.amount - one.materials.amount,
                currency: one.materials.currency.clone(),
            },
            minutes: other.minutes - one.minutes,
            plastic: other.plastic - one.plastic,
            stops: more(FindingLevel::Stop),
            minds: more(FindingLevel::Mind),
            survives_share: weakest(then) - weakest(now),
        }
    }
}

/// Returns what else a layer could be, each with what it would change; a layer that is not there can be
/// added, one that the job does not ask for can be left out.
///
/// # Errors
/// A [`Refusal`] when the plan as it is can't be made.
pub fn alternatives(
    piece: &Piece,
    house: &HouseRules,
    choices: &Choices,
    catalogue: &Catalogue,
    slot: LayerSlot,
) -> Result<Vec<Alternative>, Vec<Refusal>> {
    let rules = house.with(choices)?;
    let now = Plan::design(piece, &rules, catalogue)?;
    let options = options(piece, &rules, catalogue, &now, slot);
    Ok(options
        .into_iter()
        .map(|(label, patch)| {
            let then = merged(choices, &patch);
            match redesigned(piece, house, &then, catalogue) {
                Ok(plan) => Alternative {
                    label,
                    choices: patch,
                    chosen: same_build(&now, &plan),
                    refused: None,
                    change: Some(Change::between(&now, &plan)),
                },
                Err(refusals) => Alternative {
                    label,
                    choices: patch,
                    chosen: false,
                    refused: refusals.into_iter().next().map(|refusal| refusal.message),
                    change: None,
                },
            }
        })
        .collect())
}

fn redesigned(
    piece: &Piece,
    house: &HouseRules,
    choices: &Choices,
    catalogue: &Catalogue,
) -> Result<Plan, Vec<Refusal>> {
    let rules = house.with(choices)?;
    sheet_may_touch(piece, choices.contact_paper.as_ref(), catalogue)
        .map_err(|refusal| vec![refusal])?;
    let refused = Recipe::refused(piece, &rules, &choices.layers);
    if refused.is_empty() {
        Plan::design(piece, &rules, catalogue)
    } else {
        Err(refused)
    }
}

/// Two plans are built alike when every layer is of the same stuff and as large.
fn same_build(one: &Plan, other: &Plan) -> bool {
    one.layers.len() == other.layers.len()
        && one.layers.iter().zip(&other.layers).all(|(one, other)| {
            one.material == other.material
                && one.make.kind() == other.make.kind()
                && one.envelope == other.envelope
                && one.area == other.area
                && one.tape == other.tape
        })
}

/// Merges a patch into choices, as a page does: what the patch names takes the place of what was there.
fn merged(choices: &Choices, patch: &Choices) -> Choices {
    let written = |choices| serde_json::to_value(choices).expect("choices can be written");
    let mut whole = written(choices);
    json_patch::merge(&mut whole, &written(patch));
    serde_json::from_value(whole).expect("merged choices are choices")
}

/// What is offered: what it is called, and the choices that make it.
type Offer = (String, Choices);

fn options(
    piece: &Piece,
    rules: &HouseRules,
    catalogue: &Catalogue,
    now: &Plan,
    slot: LayerSlot,
) -> Vec<Offer> {
    let there = now.layers.iter().any(|layer| layer.slot == slot);
    let mut options = if there || slot == LayerSlot::Corners {
        swaps(catalogue, slot)
    } else {
        Vec::new()
    };
    let stands = carriage_of(piece, rules)
        .map(|carriage| standing(slot, piece, carriage, rules))
        .unwrap_or(Standing::Off);
    match stands {
        Standing::On | Standing::Off if there => {
            options.push(("Leave it out".to_owned(), Choices::layer(slot, false)));
        }
        _ if !there => options.push((format!("Add {}", slot.name()), Choices::layer(slot, true))),
        _ => {}
    }
    if piece.construction.is_loose() && matches!(slot, LayerSlot::Folio | LayerSlot::Roll) {
        options.extend([
            carried("Flat between boards", Carriage::Folio),
            carried("Rolled in a tube", Carriage::Rolled),
        ]);
    }
    options
}

fn carried(label: &str, carriage: Carriage) -> Offer {
    let choices = Choices {
        carriage: Some(carriage),
        ..Choices::default()
    };
    (label.to_owned(), choices)
}

fn schools(label: &str, schools: SchoolChoices) -> Offer {
    let choices = Choices {
        schools,
        ..Choices::default()
    };
    (label.to_owned(), choices)
}

/// What is on the shelf, and not retired, as a choice of material.
macro_rules! from_shelf {
    ($shelf:expr, $field:ident, $($also:ident: $value:expr),*) => {
        $shelf
            .iter()
            .filter(|material| !material.shelf.retired)
            .map(|material| {
                let choices = Choices {
                    $field: Some(material.id.clone()),
                    $($also: $value,)*
                    ..Choices::default()
                };
                (material.name.clone(), choices)
            })
    };
}

fn swaps(catalogue: &Catalogue, slot: LayerSlot) -> Vec<Offer> {
    let folding = || catalogue.boards.iter().filter(|board| board.folds);
    match slot {
        LayerSlot::GlassTape => [
            ("Star", GlassPattern::Star),
            ("Lattice", GlassPattern::Lattice),
        ]
        .map(|(label, pattern)| {
            let choices = Choices {
                glass_pattern: Some(pattern),
                ..Choices::default()
            };
            (label.to_owned(), choices)
        })
        .into(),
        LayerSlot::Contact => from_shelf!(catalogue.contact_papers, contact_paper,).collect(),
        LayerSlot::Corners => corner_swaps(catalogue),
        LayerSlot::FaceBoards => {
            let mut boards: Vec<Offer> = from_shelf!(catalogue.boards, face_board,).collect();
            for (label, fit) in [
                ("Proud of the piece", BoardFit::Proud),
                ("Exact", BoardFit::Exact),
            ] {
                let fit = SchoolChoices {
                    board_fit: Some(fit),
                    ..SchoolChoices::default()
                };
                boards.push(schools(label, fit));
            }
            boards
        }
        LayerSlot::FirstWrap | LayerSlot::SecondWrap => {
            from_shelf!(catalogue.cushion_wraps, cushion_wrap,).collect()
        }
        LayerSlot::FacePads | LayerSlot::EdgePads | LayerSlot::CornerBlocks => {
            from_shelf!(catalogue.foams, pad_foam,).collect()
        }
        LayerSlot::BackFill => from_shelf!(catalogue.foams, back_foam,).collect(),
        LayerSlot::WindowSpacer => from_shelf!(catalogue.boards, spacer_board,).collect(),
        LayerSlot::Bundle | LayerSlot::Folio => {
            from_shelf!(catalogue.boards, folio_board,).collect()
        }
        LayerSlot::NameTag => catalogue
            .sundries
            .iter()
            .filter(|sundry| sundry.purpose == Use::NameTag && !sundry.shelf.retired)
            .map(|tag| {
                let choices = Choices {
                    name_tag: Some(tag.id.clone()),
                    ..Choices::default()
                };
                (tag.name.clone(), choices)
            })
            .collect(),
        LayerSlot::OuterBoards => from_shelf!(catalogue.boards, outer_board,).collect(),
        LayerSlot::Fill | LayerSlot::SecondFill => from_shelf!(catalogue.fills, fill,).collect(),
        LayerSlot::Box | LayerSlot::SecondBox => folding()
            .filter(|board| !board.shelf.retired)
            .map(|board| (board.name.clone(), box_board(&board.id)))
            .collect(),
        _ => Vec::new(),
    }
}

fn box_board(id: &MaterialId) -> Choices {
    Choices {
        box_board: Some(id.clone()),
        ..Choices::default()
    }
}

fn corner_swaps(catalogue: &Catalogue) -> Vec<Offer> {
    let style = |corners| SchoolChoices {
        corners: Some(corners),
        ..SchoolChoices::default()
    };
    let boards = catalogue
        .boards
        .iter()
        .filter(|board| board.folds && !board.shelf.retired)
        .map(|board| {
            let choices = Choices {
                pocket_board: Some(board.id.clone()),
                schools: style(CornerStyle::CardPockets),
                layers: [(LayerSlot::Corners, true)].into(),
                ..Choices::default()
            };
            (format!("Pockets of {}", board.name), choices)
        });
    let bought = from_shelf!(
        catalogue.slip_on_corners,
        slip_on_corner,
        schools: style(CornerStyle::SlipOn),
        layers: [(LayerSlot::Corners, true)].into()
    );
    boards.chain(bought).collect()
}
