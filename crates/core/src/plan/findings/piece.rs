//! Findings about the piece itself.

use super::Looked;
use crate::{
    enclosure::EnclosureKind,
    house::{Carriage, Choices},
    layer::Make,
    piece::{Condition, Construction, Glazing, Medium, Outline, PaintBody, Piece, TopEdge},
    plan::{
        Finding,
        FindingLevel::{Mind, Note, Stop},
    },
    space::LayerSlot,
};

pub(super) fn look(looked: &Looked<'_>, findings: &mut Vec<Finding>) {
    findings.extend(
        [
            encaustic(looked),
            hot(looked),
            flaking(looked),
            raised_paint(looked),
            top(looked),
            hardware(looked),
            outline(looked),
            acrylic(looked),
            charge(looked),
            certificate(looked),
            thick_roll(looked),
        ]
        .into_iter()
        .flatten(),
    );
}

/// What a hot month does to a surface; `None` for one that it leaves alone.
fn softens(piece: &Piece) -> Option<&'static str> {
    match piece.medium? {
        Medium::Encaustic | Medium::WaxedPaper => Some("its wax softens above 30 °C"),
        Medium::Resin => Some("its resin softens and takes marks"),
        Medium::Photograph => Some("a photograph sticks to its cover sheet"),
        Medium::Oil
        | Medium::OilFastDrying
        | Medium::Acrylic
        | Medium::Watercolour
        | Medium::Print
        | Medium::Drawing
        | Medium::PastelOrCharcoal
        | Medium::Gilding
        | Medium::Collage
        | Medium::SprayPaint => piece
            .varnish
            .is_some()
            .then_some("its varnish softens and takes marks"),
    }
}

fn hot(looked: &Looked<'_>) -> Option<Finding> {
    let softens = softens(looked.piece).filter(|_| looked.odds.hot)?;
    Some(Finding::piece(
        Mind,
        "hot-month",
        format!(
            "The month is hot there, and in a parked van {softens}. Wait for cool weather, or hand it over early in the day and week."
        ),
    ))
}

fn encaustic(looked: &Looked<'_>) -> Option<Finding> {
    (looked.piece.medium == Some(Medium::Encaustic) && !looked.odds.hot).then(|| {
        Finding::piece(
            Note,
            "wax-warmth",
            "Wax softens above 30 °C. Send it in cool weather, and tell the buyer.",
        )
    })
}

fn flaking(looked: &Looked<'_>) -> Option<Finding> {
    (looked.piece.condition == Condition::Flaking).then(|| {
        Finding::piece(
            Stop,
            "flaking",
            "The surface is loose. Have it consolidated before packing, or write why you send it as it is.",
        )
    })
}

fn raised_paint(looked: &Looked<'_>) -> Option<Finding> {
    let piece = looked.piece;
    let spaced = [LayerSlot::WindowSpacer, LayerSlot::Cradle]
        .iter()
        .any(|slot| looked.recipe.has(*slot))
        || piece.frame_finish().is_left_free();
    (piece.has_raised_paint() && !spaced && looked.recipe.carriage == Carriage::Flat).then(|| {
        let finding = Finding::piece(
            Note,
            "raised-paint",
            "Raised paint takes marks under pressure. Lay the sheet loose, or keep the board away with a window spacer.",
        );
        finding.answered_by(
            "Add a window spacer",
            Choices::layer(LayerSlot::WindowSpacer, true),
        )
    })
}

fn top(looked: &Looked<'_>) -> Option<Finding> {
    (looked.piece.top == TopEdge::Unmarked).then(|| {
        Finding::piece(
            Note,
            "top-unmarked",
            "The top edge isn't obvious. Mark it on the back before you cover the piece.",
        )
    })
}

fn hardware(looked: &Looked<'_>) -> Option<Finding> {
    let stands = looked.piece.hardware?;
    let says = format!(
        "Hardware stands {} off the back. Pack it in a bag, or pad around it so the board lies flat.",
        looked.told(stands)
    );
    Some(Finding::piece(Note, "hardware", says))
}

fn outline(looked: &Looked<'_>) -> Option<Finding> {
    let piece = looked.piece;
    let held = [LayerSlot::Cradle, LayerSlot::WindowSpacer]
        .iter()
        .any(|slot| looked.recipe.has(*slot))
        || looked
            .layers
            .iter()
            .any(|layer| matches!(layer.make, Make::RimStrip(_)))
        || looked.recipe.carriage != Carriage::Flat;
    (piece.is_shaped() && !held).then(|| {
        Finding::piece(
            Mind,
            "shaped",
            format!(
                "The outline is {}, and nothing holds it. Without corners the piece turns in its wrap and hits the box.",
                match piece.outline {
                    Outline::Arched => "arched",
                    other => other.name(),
                }
            ),
        )
        .answered_by("Add the cradle board", Choices::layer(LayerSlot::Cradle, true))
    })
}

/// Rubbing charges acrylic, and the charge lifts powder.
fn charge(looked: &Looked<'_>) -> Option<Finding> {
    let piece = looked.piece;
    let powder =
        piece.medium == Some(Medium::PastelOrCharcoal) || piece.condition == Condition::Flaking;
    let charged = piece.construction.glazing() == Glazing::Acrylic && !piece.antistatic;
    (powder && charged).then(|| {
        Finding::piece(
            Mind,
            "static",
            "Rubbing charges acrylic, and the charge lifts loose pigment. Use glass or antistatic acrylic; tick it at Measure if it is antistatic.",
        )
    })
}

fn acrylic(looked: &Looked<'_>) -> Option<Finding> {
    let piece = looked.piece;
    let says = match piece.construction.glazing() {
        Glazing::Acrylic => "Never tape acrylic: tape leaves marks. The sheet over it is enough.",
        Glazing::Glass if piece.coated_glass => {
            "Never tape coated glass: tape lifts the coating. The face board holds broken glass."
        }
        Glazing::Glass => {
            "Wear nitrile gloves, since cotton slips, and never lift the piece by its glazing."
        }
        Glazing::None => return None,
    };
    Some(Finding::piece(Note, "glazing", says))
}

fn certificate(looked: &Looked<'_>) -> Option<Finding> {
    let enclosed = &looked.supplies.rules.enclosed;
    let is_in = enclosed
        .iter()
        .find(|one| one.enclosure.kind == EnclosureKind::Certificate);
    looked.piece.certificate.then(|| match is_in {
        Some(one) => Finding::piece(
            Note,
            "certificate",
            format!(
                "A certificate goes with it, {}. Pack reminds you before it is covered.",
                one.enclosure.place.name()
            ),
        ),
        None => Finding::piece(
            Mind,
            "certificate",
            "A certificate belongs to this piece, but isn't on the enclosures list. Add it again.",
        ),
    })
}

fn thick_roll(looked: &Looked<'_>) -> Option<Finding> {
    let piece = looked.piece;
    if piece.construction != Construction::LooseCanvas || looked.recipe.carriage != Carriage::Rolled
    {
        return None;
    }
    (piece.paint == PaintBody::Raised).then(|| {
        Finding::piece(
            Mind,
            "raised-roll",
            "Raised paint may crack when rolled. Roll it wide and warm, face out, or send it flat between boards.",
        )
        .answered_by(
            "Send it flat between boards",
            Choices {
                carriage: Some(Carriage::Folio),
                ..Choices::default()
            },
        )
    })
}
