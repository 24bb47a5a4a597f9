//! What else a layer could be, and what each would change.

use serde::Serialize;

use super::choosing;
use crate::{
    Refusal,
    carton::CartonStyle,
    house::{BoardFit, Carriage, Choices, CornerStyle, GlassPattern, HouseRules, SchoolChoices},
    layer::Layer,
    material::{Catalogue, MaterialId, Use},
    piece::Piece,
    plan::{Change, Plan, Standing, standing},
    shipment::{Commission, House, ShipmentInputs},
    space::LayerSlot,
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

/// Returns what else a layer could be, each with what it would change; a layer that is not there can be
/// added, one that the job does not ask for can be left out. Nothing before the piece is known.
///
/// # Errors
/// A [`Refusal`] when the plan as it is can't be made.
pub fn alternatives(
    inputs: &ShipmentInputs,
    house: &House,
    slot: LayerSlot,
) -> Result<Vec<Alternative>, Vec<Refusal>> {
    let Some(piece) = inputs.piece()? else {
        return Ok(Vec::new());
    };
    let commission = Commission::of(inputs, piece, house)?;
    let now = commission.plan()?;
    let options = options(
        &commission.piece,
        &commission.rules,
        &house.catalogue,
        &now,
        slot,
    );
    let offered = |(label, choices): Offer| {
        let (choices, then) = choosing(inputs, Some(&commission.began), choices);
        let planned = Commission::of(&then, commission.piece.clone(), house)
            .and_then(|commission| commission.plan());
        match planned {
            Ok(plan) => Alternative {
                label,
                choices,
                chosen: same_build(&now, &plan),
                refused: None,
                change: Some(Change::between(&now, &plan)),
            },
            Err(refusals) => Alternative {
                label,
                choices,
                chosen: false,
                refused: refusals.into_iter().next().map(|refusal| refusal.message),
                change: None,
            },
        }
    };
    Ok(options.into_iter().map(offered).collect())
}

/// Two plans are built alike when every layer is of the same stuff and as large.
fn same_build(one: &Plan, other: &Plan) -> bool {
    one.layers.len() == other.layers.len()
        && one.layers.iter().zip(&other.layers).all(|(one, other)| {
            one.material == other.material
                && style(one) == style(other)
                && one.make.kind() == other.make.kind()
                && one.envelope == other.envelope
                && one.area == other.area
                && one.tape == other.tape
        })
}

fn style(layer: &Layer) -> Option<CartonStyle> {
    layer.make.carton().map(|carton| carton.style)
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
        swaps(catalogue, slot, now.carriage)
    } else {
        Vec::new()
    };
    let stands = standing(slot, piece, now.carriage, rules);
    match stands {
        Standing::On | Standing::Off if there => {
            options.push(("Leave it out".to_owned(), Choices::layer(slot, false)));
        }
        _ if !there => options.push((format!("Add {}", slot.name()), Choices::layer(slot, true))),
        _ => {}
    }
    let between = matches!(slot, LayerSlot::Folio | LayerSlot::Roll);
    if between && piece.construction.is_loose() {
        options.extend([
            carried("Flat between boards, in a box", Carriage::Folio),
            carried("Flat between boards, in a mailer", Carriage::Mailed),
            carried("Rolled in a tube", Carriage::Rolled),
        ]);
    } else if between && now.carriage == Carriage::Mailed {
        options.push(carried("As it is, in a box", Carriage::Flat));
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

fn swaps(catalogue: &Catalogue, slot: LayerSlot, carriage: Carriage) -> Vec<Offer> {
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
        LayerSlot::Folio if carriage == Carriage::Mailed => {
            from_shelf!(catalogue.boards, mailer_board,).collect()
        }
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
        LayerSlot::Box if carriage == Carriage::Mailed => {
            vec![carried("A box of its own", Carriage::Folio)]
        }
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
