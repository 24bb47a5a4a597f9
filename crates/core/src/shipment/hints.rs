//! What stands for a field that is left empty, in the words beside it.

use serde::Serialize;

use super::inputs::{BEARING_POINTS, COUNTS, LIMITS_G};
use crate::{house::HouseRules, piece::Outline};

/// What is said beside a field of a shipment.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FieldHint {
    /// The path of the field in the inputs.
    pub field: &'static str,
    /// What may stand there, and what holds while nothing does.
    pub says: String,
    /// What stands for it while it is empty, where that is one number; null where it depends on the piece.
    pub empty: Option<u32>,
}

/// Returns what is said beside the fields that have more to say than their label, by a house.
#[must_use]
pub fn hints(rules: &HouseRules) -> Vec<FieldHint> {
    let allowances = &rules.allowances;
    let hint = |field, says: String| FieldHint {
        field,
        says,
        empty: None,
    };
    let corners = Outline::Oval.bearing_points();
    vec![
        FieldHint {
            empty: Some(*COUNTS.start()),
            ..hint(
                "piece.count",
                format!("like pieces in one parcel, up to {}", COUNTS.end()),
            )
        },
        FieldHint {
            empty: Some(corners),
            ..hint(
                "piece.bearing_points",
                format!(
                    "where a corner protector sits, {} to {}; empty: {corners}",
                    BEARING_POINTS.start(),
                    BEARING_POINTS.end()
                ),
            )
        },
        hint(
            "piece.limit_g",
            format!(
                "in times gravity, {} to {}; empty: by its kind",
                LIMITS_G.start(),
                LIMITS_G.end()
            ),
        ),
        hint(
            "piece.weight",
            "as 3.2 kg or 7 lb 2 oz; empty: estimated".into(),
        ),
        hint("piece.hardware", "within the depth; empty: none".into()),
        hint(
            "choices.pocket_leg",
            format!("empty: the short side ÷ {}", allowances.pocket_leg_share),
        ),
        hint(
            "choices.block_leg",
            format!("empty: {} times the thickness", allowances.block_leg_share),
        ),
        hint(
            "choices.roll_inner",
            "empty: as wide as the surface needs".into(),
        ),
        hint(
            "choices.pad_area_cm2",
            "as four pads at the corners; empty: the whole face".into(),
        ),
    ]
}
