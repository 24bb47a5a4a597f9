//! Handling marks: labels on the sides that a parcel may lie on.

use serde::Serialize;

use super::kind::{Kind, Nature, Offer, Offering, Standing};
use super::{Layer, Make, Making, Supplies};
use crate::{
    Refusal,
    house::Choices,
    material::Use,
    part::Need,
    space::{Addition, Envelope, LayerSlot},
};

/// Labels on a parcel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Marks {
    /// How many: one on each side that it may lie on.
    pub count: u32,
}

/// Before, behind, and on the four narrow sides but the floor that it stands on.
const SIDES_SEEN: u32 = 5;

/// Labels on the sides that it may lie on.
pub(super) const KIND: Kind = Kind::new(
    Nature::PLAIN,
    |_| Standing::Off,
    |around| Marks::layer(around.supplies, around.inside()).map(Some),
)
.or(labels);

fn labels(offering: &Offering<'_>) -> Vec<Offer> {
    let shelf = offering.catalogue.sundries.iter();
    shelf
        .filter(|sundry| sundry.purpose == Use::Label && !sundry.shelf.retired)
        .map(|label| {
            let choices = Choices {
                label: Some(label.id.clone()),
                ..Choices::default()
            };
            (label.name.clone(), choices)
        })
        .collect()
}

impl Marks {
    fn layer(supplies: &Supplies<'_>, inside: Envelope) -> Result<Layer, Refusal> {
        let label = supplies.sundry("choices.label", &supplies.rules.materials.label)?;
        let allowances = supplies.allowances();
        let marks = Self { count: SIDES_SEEN };
        Ok(supplies.layer(Making {
            slot: LayerSlot::Marks,
            needs: vec![Need::sundry("label", label).times(marks.count)],
            // They are thinner than a tape reads.
            adds: Addition::default(),
            inside,
            minutes: allowances.mark_minutes * f64::from(marks.count),
            why: "Whoever lifts it sees on every side which edge is the top, and that it must not be laid on its face; nothing says what it is worth.",
            make: Make::Marks(marks),
            cushioning: None,
        }))
    }
}
