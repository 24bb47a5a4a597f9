//! The wrapped piece, as it was measured in place of what the sums say.

use serde::Serialize;

use crate::{
    Refusal,
    container::Carton,
    layer::Layer,
    piece::PieceSize,
    quantity::{Length, Telling},
    space::{Addition, Envelope},
};

/// What the wrapped piece measures beside what the sums said, and what that did to its box.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Wrapped))]
pub struct WrappedPiece {
    /// By the piece's size and its layers.
    pub predicted: Envelope,
    /// As the tape read it.
    pub measured: Envelope,
    /// The blank that the box would have been cut to.
    pub predicted_blank: Option<BlankSize>,
    /// The blank that it is cut to.
    pub blank: Option<BlankSize>,
}

/// A blank by its sides.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BlankSize {
    /// Across.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Up.
    #[serde(rename = "height_mm")]
    pub height: Length,
}

/// The first part of the box that holds the piece.
pub(super) fn blank_of(layers: &[Layer]) -> Option<BlankSize> {
    let carton: &Carton = layers.iter().find_map(|layer| layer.make.carton())?;
    Some(BlankSize {
        width: carton.blank.width,
        height: carton.blank.height,
    })
}

/// Lets the outermost layer fill what was measured, and returns what it would have filled.
///
/// What is over lies evenly on both ends across and up, and behind. Source: house rule.
///
/// # Errors
/// A [`Refusal`] for a side that is less than the piece's own.
pub(super) fn measure(
    layers: &mut [Layer],
    piece: PieceSize,
    measured: Envelope,
    told_in: Telling,
) -> Result<Option<Envelope>, Refusal> {
    for (field, side, own) in [
        ("choices.wrapped_across", measured.across, piece.width),
        ("choices.wrapped_up", measured.up, piece.height),
        ("choices.wrapped_through", measured.through, piece.depth),
    ] {
        if side < own {
            let [side, own] = [side, own].map(|length| told_in.length(length));
            let says = format!(
                "the wrapped piece can't be {side} when the piece is {own}: measure again, or correct the piece's size"
            );
            return Err(Refusal::new(field, says));
        }
    }
    let Some(last) = layers.last_mut() else {
        return Ok(None);
    };
    let predicted = last.envelope;
    let across = (measured.across - predicted.across) / 2.0;
    let up = (measured.up - predicted.up) / 2.0;
    let behind = measured.through - predicted.through;
    last.adds = last.adds + Addition::new(across, up, Length::ZERO, behind);
    last.envelope = measured;
    Ok(Some(predicted))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{
        house::Choices,
        piece::{Construction, Medium, Piece},
        plan::{
            Plan,
            tests::{catalogue, rules},
        },
        space::LayerSlot,
    };

    fn canvas() -> Piece {
        let [width, height, depth] = [500.0, 700.0, 38.0].map(Length::mm);
        let size = PieceSize {
            width,
            height,
            depth,
        };
        Piece::new(Construction::StretchedCanvas, size, Some(Medium::Acrylic))
    }

    fn plan(choices: &Choices) -> Result<Plan, Vec<Refusal>> {
        let rules = rules().with(choices)?;
        Plan::design(&canvas(), &rules, &catalogue())
    }

    #[test]
    fn the_box_is_made_anew_around_what_was_measured() {
        let before = plan(&Choices::default()).expect("a plan");
        let inner = |layer: &&Layer| layer.slot <= LayerSlot::WrapFilm;
        let sums = before.layers.iter().rfind(inner).expect("a wrap").envelope;
        let typed = |side: Length, more: f64| Some(format!("{} mm", side.as_mm() + more));
        let choices = Choices {
            wrapped_across: typed(sums.across, 4.0),
            wrapped_up: typed(sums.up, 0.0),
            wrapped_through: typed(sums.through, 9.0),
            ..Choices::default()
        };
        let after = plan(&choices).expect("a plan");
        let wrapped = after.wrapped.as_ref().expect("it was measured");
        assert_eq!(wrapped.predicted, sums);
        // 9 thicker: the blank is wider by 2 × 9, since the ring goes around the depth twice, and its flaps are half of
        // 9 longer at both ends; 4 more across is 4 more of depth of the ring.
        let (old, new) = (
            before.carton().expect("a box"),
            after.carton().expect("a box"),
        );
        let more = |new: Length, old: Length| (new - old).as_mm();
        assert!((more(new.blank.width, old.blank.width) - 18.0).abs() < 1e-9);
        assert!((more(new.blank.height, old.blank.height) - 13.0).abs() < 1e-9);
        assert_eq!(
            wrapped.predicted_blank.map(|blank| blank.width),
            Some(old.blank.width)
        );
        assert_eq!(
            wrapped.blank.map(|blank| blank.width),
            Some(new.blank.width)
        );
        // The layers still stand around each other.
        for pair in after.layers.windows(2) {
            let (stands, fills) = (pair[0].envelope.grown(pair[1].adds), pair[1].envelope);
            let off = |one: Length, other: Length| (one - other).as_mm().abs();
            assert!(off(stands.across, fills.across) < 1e-9);
            assert!(off(stands.up, fills.up) < 1e-9);
            assert!(off(stands.through, fills.through) < 1e-9);
        }
    }

    #[test]
    fn one_side_alone_or_less_than_the_piece_is_refused_at_its_field() {
        let one = Choices {
            wrapped_up: Some("760 mm".into()),
            ..Choices::default()
        };
        let fields = |refused: Vec<Refusal>| -> Vec<String> {
            refused
                .into_iter()
                .map(|refusal| refusal.field.to_string())
                .collect()
        };
        assert_eq!(
            fields(plan(&one).expect_err("two sides are missing")),
            ["choices.wrapped_across", "choices.wrapped_through"]
        );
        let small = Choices {
            wrapped_across: Some("540 mm".into()),
            wrapped_up: Some("699 mm".into()),
            wrapped_through: Some("80 mm".into()),
            ..Choices::default()
        };
        assert_eq!(
            fields(plan(&small).expect_err("it is less than the piece")),
            ["choices.wrapped_up"]
        );
    }
}
