//! Findings about single layers.

use super::Looked;
use crate::{
    carton::{BoxSize, SheetNeed},
    container::Carton,
    house::{Carriage, CartonStyle, Choices, CornerStyle, SchoolChoices, SealRule},
    layer::{FacePads, Layer, Make, PackOf, TravelCase},
    material::{Board, Touch},
    part::CASE,
    piece::Medium,
    plan::{
        Finding,
        FindingLevel::{Mind, Note, Stop},
        survival::LEAST_PAD_SIDE,
    },
    quantity::Length,
    space::LayerSlot,
};

/// A pad nearer than this touches a roll that slides.
const ROLL_END_AIR: Length = Length::mm(3.0);
/// Tape needs this much of a pocket to land on.
const TAPE_LANDING: Length = Length::mm(25.0);

pub(super) fn look(looked: &Looked<'_>, findings: &mut Vec<Finding>) {
    findings.extend(
        [
            contact(looked),
            name_tag(looked),
            corners_changed(looked),
            shedding(looked),
            old_marks(looked),
            wet_floor(looked),
            cut_through(looked),
        ]
        .into_iter()
        .flatten(),
    );
    findings.extend(looked.supplies.swapped.iter().map(|swapped| {
        Finding::layer(
            Note,
            "tape-swapped",
            LayerSlot::FirstWrap,
            format!("{}. {} is used there.", swapped.why, swapped.used),
        )
    }));
    findings.extend(
        looked
            .layers
            .iter()
            .filter_map(|layer| of_layer(looked, layer)),
    );
}

fn contact(looked: &Looked<'_>) -> Option<Finding> {
    let medium = looked.piece.bare_medium()?;
    let paper = looked.supplies.contact_paper;
    let slot = LayerSlot::Contact;
    let name = medium.name();
    if !looked.recipe.has(slot) && looked.recipe.has(LayerSlot::WindowSpacer) {
        return None;
    }
    match paper.touch(medium) {
        Touch::Never => Some(Finding::piece(
            Stop,
            "no-sheet",
            format!(
                "No contact sheet in Materials may touch {name}. Buy one that may, or mount the piece under glass first."
            ),
        )),
        Touch::WithReason => Some(Finding::layer(
            Stop,
            "sheet-needs-reason",
            slot,
            format!(
                "{} may touch {name} only with a reason. Choose another sheet, or write the reason.",
                paper.name
            ),
        )),
        Touch::Allowed => (paper.id != looked.supplies.rules.materials.contact_paper).then(|| {
            // A sheet that the surface bears gives way where its frame is gilded.
            let supplies = looked.supplies;
            let usual = supplies
                .catalogue
                .contact_paper(&supplies.rules.materials.contact_paper);
            let bears = usual.is_ok_and(|usual| usual.touch(medium) == Touch::Allowed);
            let name = if bears { "its gilded frame" } else { name };
            Finding::layer(
                Note,
                "sheet-changed",
                slot,
                format!(
                    "{} replaces the studio's usual sheet, which may not touch {name}.",
                    paper.name
                ),
            )
        }),
    }
}

fn corners_changed(looked: &Looked<'_>) -> Option<Finding> {
    let rules = looked.supplies.rules;
    let layer = looked.layer(LayerSlot::Corners)?;
    let folded = matches!(layer.make, Make::CardPockets(_));
    (folded && rules.schools.corners == CornerStyle::SlipOn).then(|| {
        Finding::layer(
            Note,
            "corners-changed",
            layer.slot,
            "The studio's slip-on corners don't fit this depth. Card pockets are folded instead.",
        )
    })
}

fn name_tag(looked: &Looked<'_>) -> Option<Finding> {
    let slot = LayerSlot::NameTag;
    // A mailer is its own wrap: its address says what it is.
    let mailed = matches!(looked.recipe.carriage, Carriage::Mailed | Carriage::Padded);
    (looked.layer(slot).is_none() && !mailed).then(|| {
        Finding::parcel(
            Mind,
            "no-name",
            "Without a name tag the wrapped piece shows no title, face or top edge.",
        )
        .answered_by("Add a name tag", Choices::layer(slot, true))
    })
}

/// Crumbs of foam on paint, where no sheet lies between.
fn shedding(looked: &Looked<'_>) -> Option<Finding> {
    let medium: Medium = looked.piece.bare_medium()?;
    let layer = looked.layers.iter().find(|layer| {
        let foam = looked.supplies.catalogue.foam(&layer.material);
        foam.is_ok_and(|foam| foam.sheds)
    })?;
    Some(Finding::layer(
        Note,
        "crumbs",
        layer.slot,
        format!(
            "{} sheds crumbs, and bare {} lies inside: {}, and vacuum the bench.",
            layer.material_name,
            medium.name(),
            if layer.parts.iter().any(|part| part.id == CASE) {
                "keep every piece of it in its paper"
            } else {
                "face the foam in paper"
            }
        ),
    ))
}

fn old_marks(looked: &Looked<'_>) -> Option<Finding> {
    looked.supplies.first.board.shelf.reused.then(|| {
        Finding::layer(
            Note,
            "old-marks",
            LayerSlot::Box,
            "The board is reused. Turn it inside out or cover old barcodes, or carriers scan them.",
        )
    })
}

fn wet_floor(looked: &Looked<'_>) -> Option<Finding> {
    let slot = LayerSlot::Bag;
    if looked.recipe.has(slot) || !looked.odds.wet {
        return None;
    }
    let says = "The route is wet, and bare card soaks up water. Use a sealed bag, or tape every edge of the box.";
    let finding = Finding::layer(Note, "wet-floor", LayerSlot::Box, says);
    // What is still giving off solvent stays damp in a bag.
    Some(if looked.piece.cure().is_none() {
        finding.answered_by("Add a sealed bag", Choices::layer(slot, true))
    } else {
        finding
    })
}

fn cut_through(looked: &Looked<'_>) -> Option<Finding> {
    let cut = looked.layers.iter().find_map(|layer| {
        let carton = layer.make.carton()?;
        (carton.cut_through > 0).then_some(carton.cut_through)
    })?;
    let (what, each) = if cut == 1 {
        ("One score of the box is".to_owned(), "it")
    } else {
        (format!("{cut} scores of the box are"), "each")
    };
    Some(Finding::layer(
        Note,
        "cut-through",
        LayerSlot::Box,
        format!(
            "{what} cut through. Tape {each} outside along its whole length. The box then bears 0.7 of its load, and the odds include that."
        ),
    ))
}

fn of_layer(looked: &Looked<'_>, layer: &Layer) -> Option<Finding> {
    match &layer.make {
        Make::CardPockets(pocket) if pocket.leg < TAPE_LANDING && !is_bound(looked) => Some(
            Finding::layer(
                Mind,
                "short-pockets",
                layer.slot,
                "The pockets are too short for tape. Wrap film around the piece to hold them.",
            )
            .answered_by(
                "Add stretch film",
                Choices::layer(LayerSlot::Binding, true),
            ),
        ),
        Make::Fixing(fixing) if !fixing.holds(looked.piece.size) => Some(Finding::piece(
            Stop,
            "too-heavy-for-hinges",
            format!(
                "Hinges can't hold this piece: {} along each long edge would leave the board no strength. Send it with a crating service, or get the owner's consent in writing to screws.",
                fixing.along_long_edges
            ),
        )),
        Make::ContactSheet(sheet) if !sheet.across.clear => Some(Finding::layer(
            Note,
            "lap-near-middle",
            layer.slot,
            "The roll is too narrow for this face, so the sheet laps near the middle. A wider roll or sheets avoid that.",
        )),
        Make::SlipOns(corners) if !corners.fits => Some(
            Finding::layer(
                Stop,
                "corner-depth",
                layer.slot,
                format!(
                    "These corners fit {} to {}, but the piece is {} deep. Fold card pockets instead.",
                    looked.told(corners.depth_from),
                    looked.told(corners.depth_to),
                    looked.told(corners.depth)
                ),
            )
            .answered_by("Fold card pockets", card_pockets()),
        ),
        Make::SealedBag(_) if looked.piece.cure().is_some() => Some(Finding::layer(
            Mind,
            "bag-cured-only",
            layer.slot,
            "A sealed bag is for cured work only. Fresh paint stays damp in it.",
        )),
        Make::FacePads(pads) => pad_shape(looked, layer, pads),
        Make::Tube(tube) if tube.triangular && !looked.supplies.rules.shipment.folded_tube => Some(Finding::layer(
            Note,
            "triangular-tube",
            layer.slot,
            format!(
                "No tube on the shelf is {} wide inside. Fold a triangular one from board, {} a side.",
                looked.told(tube.needed / 3.0_f64.sqrt()),
                looked.told(tube.inside)
            ),
        )),
        Make::Tube(tube) if tube.end_air < ROLL_END_AIR => Some(Finding::layer(
            Mind,
            "roll-ends",
            layer.slot,
            "The end pads press on the roll and crush its edge. Leave a few millimetres of air.",
        )),
        Make::SlottedBox(carton) | Make::CutBox(carton) => boxed(looked, layer, carton),
        Make::TravelCase(case) if case.parts_of_a_face > 1 => Some(butted_face(looked, case)),
        _ => None,
    }
}

/// No sheet takes a face of a case: its parts meet on a batten, and the sheet that would take it whole is named.
fn butted_face(looked: &Looked<'_>, case: &TravelCase) -> Finding {
    let size = looked.supplies.rules.told_in.sides(&case.face_mm);
    let parts = crate::text::number(case.parts_of_a_face);
    Finding::layer(
        Note,
        "butted-face",
        LayerSlot::Box,
        format!(
            "No sheet on the shelf takes a face of {size} whole. Each face is butted from {parts} parts over a batten. A sheet of that size would save the joint."
        ),
    )
}

/// Boards or film hold the pockets on, however short they are.
fn is_bound(looked: &Looked<'_>) -> bool {
    looked.recipe.has(LayerSlot::Binding) || looked.recipe.has(LayerSlot::FaceBoards)
}

fn card_pockets() -> Choices {
    Choices {
        schools: SchoolChoices {
            corners: Some(CornerStyle::CardPockets),
            ..SchoolChoices::default()
        },
        ..Choices::default()
    }
}

/// A pad narrower than it is thick buckles; one that carries too much creeps.
fn pad_shape(looked: &Looked<'_>, layer: &Layer, pads: &FacePads) -> Option<Finding> {
    let narrow = pads.width.min(pads.height);
    let t = pads.thickness;
    let small = pads.side_area / f64::from(pads.pads) < square(t * LEAST_PAD_SIDE);
    if narrow < t / 2.0 {
        let says = format!(
            "Pads {} wide and {} thick fold over under load. Make them wider or thinner.",
            looked.told(narrow),
            looked.told(t)
        );
        return Some(
            Finding::layer(Stop, "pad-buckles", layer.slot, says).answered_by(
                "Widen each pad",
                Choices {
                    pad_area_cm2: Some(
                        (square(t * LEAST_PAD_SIDE) * f64::from(pads.pads)).as_m2() * CM2_PER_M2,
                    ),
                    ..Choices::default()
                },
            ),
        );
    }
    if small || narrow < t {
        let says = format!(
            "Each pad needs at least {}, a third more than its thickness squared, or it leans.",
            looked.telling().small_area(square(t * LEAST_PAD_SIDE))
        );
        return Some(Finding::layer(Mind, "pad-leans", layer.slot, says));
    }
    None
}

const CM2_PER_M2: f64 = 1e4;

fn square(side: Length) -> crate::quantity::Area {
    side * side
}

/// What the part of a box takes that is the hardest to cut.
fn worst(carton: &Carton) -> &SheetNeed {
    let needs = || carton.parts().map(|(_, sheet)| sheet);
    needs()
        .find(|sheet| **sheet == SheetNeed::NoSheet)
        .or_else(|| needs().find(|sheet| matches!(sheet, SheetNeed::Joined { .. })))
        .unwrap_or(&carton.sheet)
}

fn boxed(looked: &Looked<'_>, layer: &Layer, carton: &Carton) -> Option<Finding> {
    let slot = layer.slot;
    if let Some(otherwise) = made_otherwise(looked, layer, carton) {
        return Some(otherwise);
    }
    match worst(carton) {
        SheetNeed::One { .. } => None,
        SheetNeed::Joined { .. } => Some(Finding::layer(
            Note,
            "joined-blank",
            slot,
            "The blank is wider than any sheet. Cut it at the score shown, and tape the lap; the box is weaker there.",
        )),
        // The outermost box is the one to answer for.
        SheetNeed::NoSheet if slot == LayerSlot::Box && looked.recipe.has(LayerSlot::SecondBox) => {
            None
        }
        SheetNeed::NoSheet => Some(no_sheet(looked, slot, carton)),
    }
}

/// Nobody chose how it is made, and the usual way finds no sheet.
fn made_otherwise(looked: &Looked<'_>, layer: &Layer, carton: &Carton) -> Option<Finding> {
    let chosen = looked.supplies.pack(PackOf::at(layer.slot)).style;
    let board = looked.supplies.catalogue.board(&layer.material).ok()?;
    let usual = CartonStyle::usual_of(board);
    let otherwise = chosen.is_none() && carton.style != usual;
    otherwise.then(|| {
        let says = format!(
            "No sheet holds {}, even joined at its scores. It is made as {} instead.",
            usual.with_article(),
            carton.style.with_article()
        );
        Finding::layer(Note, "made-otherwise", layer.slot, says)
    })
}

/// No sheet of the board takes the blank: another board may, or a box made otherwise.
fn no_sheet(looked: &Looked<'_>, slot: LayerSlot, carton: &Carton) -> Finding {
    let allowances = looked.supplies.allowances();
    let takes = |style: CartonStyle, board: &Board| {
        let size = BoxSize {
            caliper: board.caliper,
            ..carton.size()
        };
        style.takes(board)
            && style.unfit(size).is_none()
            && Carton::of(style, size, board, allowances, SealRule::H).can_be_cut()
    };
    let mut boards: Vec<&Board> = looked
        .supplies
        .catalogue
        .boards
        .iter()
        .filter(|board| board.makes_boxes() && !board.shelf.retired)
        .collect();
    // The board that the box is of anyway, then the lightest.
    let pack = looked.supplies.pack(PackOf::at(slot));
    let own = &pack.board.id;
    boards.sort_by_key(|board| (board.id != *own, board.areal_density));
    if let Some(board) = boards.iter().find(|board| takes(carton.style, board)) {
        let says = format!(
            "No sheet of this board holds the blank, even joined at its scores. A sheet of {} does.",
            board.name
        );
        return Finding::layer(Mind, "no-sheet-for-blank", slot, says).answered_by(
            format!("Use {}", board.name),
            pack.of.choices(None, Some(board.id.clone())),
        );
    }
    let mut ways = boards
        .iter()
        .flat_map(|board| CartonStyle::ALL.map(|style| (style, *board)));
    let other = ways.find(|(style, board)| takes(*style, board));
    match other {
        Some((style, board)) => {
            let name = style.with_article();
            Finding::layer(
                Mind,
                "no-sheet-for-blank",
                slot,
                format!("No sheet holds the blank, even joined at its scores. It can be cut as {name} of {}.", board.name),
            )
            .answered_by(
                format!("Make it {name} of {}", board.name),
                pack.of.choices(Some(style), Some(board.id.clone())),
            )
        }
        None => Finding::layer(
            Mind,
            "no-sheet-for-blank",
            slot,
            "No sheet on the shelf holds the blank, even joined at its scores. Order a larger sheet, or use a crating service.",
        ),
    }
}
