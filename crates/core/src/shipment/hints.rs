//! What stands for a field that is left empty, in the words beside it.

use serde::Serialize;

use super::inputs::{BEARING_POINTS, COUNTS, LIMITS_G};
use crate::{house::HouseRules, piece::Outline, quantity::MassUnit};

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
    let points = Outline::Oval.bearing_points(None);
    let sides = Outline::Polygon.bearing_points(None);
    vec![
        FieldHint {
            empty: Some(*COUNTS.start()),
            ..hint(
                "piece.count",
                format!("like pieces in one parcel, up to {}", COUNTS.end()),
            )
        },
        hint(
            "piece.bearing_points",
            format!(
                "{} to {}; empty: {points}, of a polygon {sides}",
                BEARING_POINTS.start(),
                BEARING_POINTS.end()
            ),
        ),
        hint(
            "piece.bare_border",
            "from the edge to the picture, where a strip may lie; empty: none".into(),
        ),
        hint(
            "piece.moulding_width",
            "from the outside to what is seen; 0: no frame".into(),
        ),
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
            match rules.told_in.mass {
                MassUnit::Kg => "as 3.2 kg or 7 lb 2 oz; empty: estimated",
                MassUnit::Lb => "as 7 lb 2 oz or 3.2 kg; empty: estimated",
            }
            .into(),
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

#[cfg(test)]
mod tests {
    use super::*;
    use crate::shipment::ShipmentInputs;

    fn rules() -> HouseRules {
        serde_json::from_str(include_str!("../../../../demo/house-rules.json")).expect("rules")
    }

    #[test]
    fn hints_follow_the_house() {
        let mut rules = rules();
        let says = |rules: &HouseRules, field| {
            let mut all = hints(rules).into_iter();
            all.find(|hint| hint.field == field).expect(field).says
        };
        assert_eq!(
            says(&rules, "choices.pocket_leg"),
            "empty: the short side ÷ 8"
        );
        rules.allowances.pocket_leg_share = 6.0;
        assert_eq!(
            says(&rules, "choices.pocket_leg"),
            "empty: the short side ÷ 6"
        );
        assert_eq!(
            says(&rules, "piece.limit_g"),
            "in times gravity, 10 to 200; empty: by its kind"
        );
    }

    #[test]
    fn what_stands_for_an_empty_count_may_be_typed_and_changes_nothing() {
        let with = |field: &str, value: u32| {
            let (part, key) = field.split_once('.').expect("a part and a key");
            let inputs = serde_json::json!({ part: { key: value } });
            serde_json::from_value::<ShipmentInputs>(inputs).expect("inputs")
        };
        let empty = |hint: FieldHint| hint.empty.map(|value| (hint.field, value));
        let stands: Vec<_> = hints(&rules()).into_iter().filter_map(empty).collect();
        assert_eq!(stands, [("piece.count", 1)]);
        for (field, value) in stands {
            let inputs = with(field, value);
            assert!(
                inputs
                    .checked(
                        crate::quantity::LengthUnit::Mm,
                        jiff::civil::date(2027, 3, 4)
                    )
                    .is_ok()
            );
        }
    }
}
