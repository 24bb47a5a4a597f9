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
        Medium::Resin => Some("its resin turns soft, and takes the print of what presses on it"),
        Medium::Photograph => Some("a photograph sticks to what lies on it"),
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
            .then_some("its varnish turns tacky, and takes the print of what presses on it"),
    }
}

fn hot(looked: &Looked<'_>) -> Option<Finding> {
    let softens = softens(looked.piece).filter(|_| looked.odds.hot)?;
    Some(Finding::piece(
        Mind,
        "hot-month",
        format!(
            "It goes there in a hot month, and in a parked van {softens}: send it in cool weather, or hand it over early in the week and early in the day."
        ),
    ))
}

fn encaustic(looked: &Looked<'_>) -> Option<Finding> {
    (looked.piece.medium == Some(Medium::Encaustic) && !looked.odds.hot).then(|| {
        Finding::piece(
            Note,
            "wax-warmth",
            "Wax softens above 30 °C: send it in cool weather, keep it off warm vans, and tell the buyer.",
        )
    })
}

fn flaking(looked: &Looked<'_>) -> Option<Finding> {
    (looked.piece.condition == Condition::Flaking).then(|| {
        Finding::piece(
            Stop,
            "flaking",
            "The surface is loose: have it consolidated before anything lies on it, or write why it travels as it is.",
        )
    })
}

fn raised_paint(looked: &Looked<'_>) -> Option<Finding> {
    let piece = looked.piece;
    let raised = piece.paint != PaintBody::Thin && piece.bare_medium().is_some();
    let spaced = [LayerSlot::WindowSpacer, LayerSlot::Cradle]
        .iter()
        .any(|slot| looked.recipe.has(*slot))
        || piece.frame_finish().is_left_free();
    (raised && !spaced && looked.recipe.carriage == Carriage::Flat).then(|| {
        let finding = Finding::piece(
            Note,
            "raised-paint",
            "Raised paint takes the print of what presses on it: lay the sheet loose, or hold the board off with a window spacer.",
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
            "Nothing shows which edge is the top: mark it on the back before the piece is covered.",
        )
    })
}

fn hardware(looked: &Looked<'_>) -> Option<Finding> {
    let stands = looked.piece.hardware?;
    let says = format!(
        "Hardware stands {} off the back: take it off and send it in a bag, or pad around it so that the board behind does not ride on it.",
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
                "The outline is {}, and nothing holds it: without corners it turns in its wrap until an edge stands on the box.",
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
            "Rubbing charges the acrylic, and the charge lifts loose powder and paint: put it behind glass or antistatic acrylic, and tick it at Measure if it is.",
        )
    })
}

fn acrylic(looked: &Looked<'_>) -> Option<Finding> {
    let piece = looked.piece;
    let says = match piece.construction.glazing() {
        Glazing::Acrylic => {
            "Never tape acrylic: the tape pulls at it and leaves marks; the sheet over it is enough."
        }
        Glazing::Glass if piece.coated_glass => {
            "Never tape coated glass: the tape lifts the coating; the board over it is what holds a break."
        }
        Glazing::Glass => "Wear gloves, and never lift the piece by its glazing.",
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
                "A certificate goes with it, {}: Pack asks for it before anything covers it.",
                one.enclosure.place.name()
            ),
        ),
        None => Finding::piece(
            Mind,
            "certificate",
            "A certificate goes with it, and none is among what goes in: put it back on that list.",
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
            "Raised paint may crack when it is rolled: roll it wide and warm, face out, or send it flat between boards.",
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
