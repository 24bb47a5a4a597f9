//! Handling marks: labels on the sides of a parcel that hands and other parcels meet.

use serde::Serialize;
use strum::EnumCount;

use super::kind::{Around, Kind, Nature, Offer, Offering, Standing};
use super::{Layer, Make, Making};
use crate::{
    Refusal,
    house::{Carriage, Choices, MarksRule},
    material::Use,
    part::{Need, PartId},
    piece::{Construction, Glazing},
    place::Route,
    space::{Addition, LayerSlot},
};

/// Labels on a parcel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Marks {
    /// How many labels in all.
    pub count: u32,
    /// Each mark with how many of it.
    pub labels: Vec<MarkLabel>,
}

/// One mark on a parcel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MarkLabel {
    /// Which.
    pub mark: Mark,
    /// How many labels.
    pub count: u32,
}

/// What a label says.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, EnumCount)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Mark {
    /// Which edge is up.
    ThisSideUp,
    /// Behind which side the face lies.
    FaceOfTheArt,
    /// A pane or a mirror is in it.
    Glass,
    /// Something else that breaks is in it.
    Fragile,
    /// No rain.
    KeepDry,
    /// It travels on its edge.
    DoNotLayFlat,
    /// A sheet is in it.
    DoNotBend,
}

impl Mark {
    /// Every mark.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::ThisSideUp,
        Self::FaceOfTheArt,
        Self::Glass,
        Self::Fragile,
        Self::KeepDry,
        Self::DoNotLayFlat,
        Self::DoNotBend,
    ];

    /// What stands on it.
    #[must_use]
    pub const fn text(self) -> &'static str {
        match self {
            Self::ThisSideUp => "This side up",
            Self::FaceOfTheArt => "Face of the art",
            Self::Glass => "Glass",
            Self::Fragile => "Fragile",
            Self::KeepDry => "Keep dry",
            Self::DoNotLayFlat => "Do not lay flat",
            Self::DoNotBend => "Do not bend",
        }
    }

    /// What it says, and where it goes, as it stands in a sentence.
    #[must_use]
    pub const fn says(self) -> &'static str {
        match self {
            Self::ThisSideUp => {
                "this side up, on two sides that meet at a corner, the arrows to the top edge"
            }
            Self::FaceOfTheArt => "face of the art, on the side before the face",
            Self::Glass => "glass, where it is seen first",
            Self::Fragile => "fragile, where it is seen first",
            Self::KeepDry => "keep dry, beside it",
            Self::DoNotLayFlat => "do not lay flat, on the other large side",
            Self::DoNotBend => "do not bend, on the front",
        }
    }
}

impl Marks {
    /// Returns the marks of a parcel: what is in it and how it travels say which. Source: bench practice.
    #[must_use]
    pub fn of(construction: Construction, carriage: Carriage, rule: MarksRule) -> Self {
        let all = rule != MarksRule::Few;
        let breaks =
            if construction == Construction::Mirror || construction.glazing() == Glazing::Glass {
                Mark::Glass
            } else {
                Mark::Fragile
            };
        let marks = match carriage {
            Carriage::Mailed | Carriage::Padded => vec![(Mark::DoNotBend, 1)],
            Carriage::Rolled if all => vec![(Mark::Fragile, 1), (Mark::KeepDry, 1)],
            Carriage::Rolled => vec![(Mark::Fragile, 1)],
            Carriage::Flat | Carriage::Folio if all => vec![
                (Mark::ThisSideUp, 2),
                (Mark::FaceOfTheArt, 1),
                (breaks, 1),
                (Mark::KeepDry, 1),
                (Mark::DoNotLayFlat, 1),
            ],
            Carriage::Flat | Carriage::Folio => vec![(Mark::ThisSideUp, 2), (breaks, 1)],
        };
        Self {
            count: marks.iter().map(|(_, count)| count).sum(),
            labels: marks
                .into_iter()
                .map(|(mark, count)| MarkLabel { mark, count })
                .collect(),
        }
    }
}

/// Labels on the sides that hands and other parcels meet.
pub(super) const KIND: Kind = Kind::new(
    Nature::PLAIN,
    |asked| {
        let by_van = asked.rules.way().route == Route::OwnVan;
        if by_van || asked.rules.schools.marks == MarksRule::None {
            Standing::Off
        } else {
            Standing::On
        }
    },
    layer,
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

/// Returns the labels. A shelf without labels leaves the layer out, and the marks are written by hand; a shipment that asks for
/// labels is refused then.
fn layer(around: &Around<'_, '_>) -> Result<Option<Layer>, Refusal> {
    let supplies = around.supplies;
    let asked = supplies.rules.layers.get(&LayerSlot::Marks) == Some(&true);
    let label = match supplies.sundry("choices.label", &supplies.rules.materials.label) {
        Ok(label) => label,
        Err(_) if !asked => return Ok(None),
        Err(refusal) => return Err(refusal),
    };
    let marks = Marks::of(
        around.piece.construction,
        around.carriage,
        supplies.rules.schools.marks,
    );
    Ok(Some(supplies.layer(Making {
        slot: LayerSlot::Marks,
        needs: vec![Need::sundry(PartId::Label, label).times(marks.count)],
        // They are thinner than a tape reads.
        adds: Addition::default(),
        inside: around.inside(),
        minutes: supplies.allowances().mark_minutes * f64::from(marks.count),
        why: "Marks show the top edge and the side of the art, and never the value.",
        make: Make::Marks(marks),
        cushioning: None,
    })))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_in_it_says_what_is_on_it() {
        let marks = |construction, carriage, rule| -> Vec<Mark> {
            let marks = Marks::of(construction, carriage, rule);
            marks.labels.iter().map(|label| label.mark).collect()
        };
        use Mark::{DoNotBend, DoNotLayFlat, FaceOfTheArt, Fragile, Glass, KeepDry, ThisSideUp};
        assert_eq!(
            marks(Construction::Mirror, Carriage::Flat, MarksRule::All),
            [ThisSideUp, FaceOfTheArt, Glass, KeepDry, DoNotLayFlat]
        );
        assert_eq!(
            marks(
                Construction::StretchedCanvas,
                Carriage::Flat,
                MarksRule::Few
            ),
            [ThisSideUp, Fragile]
        );
        assert_eq!(
            marks(Construction::LoosePaper, Carriage::Mailed, MarksRule::All),
            [DoNotBend]
        );
        assert_eq!(
            marks(Construction::LooseCanvas, Carriage::Rolled, MarksRule::All),
            [Fragile, KeepDry]
        );
        // Two of "this side up", one of each other.
        let count = |rule| Marks::of(Construction::Mirror, Carriage::Flat, rule).count;
        assert_eq!([count(MarksRule::All), count(MarksRule::Few)], [6, 3]);
    }
}
