//! What is put around the boarded piece before the cushion: film, name tag and sealed bag.

use serde::Serialize;

use super::kind::{Kind, Nature, Offer, Offering, Standing};
use super::{Layer, Make, Making, Supplies};
use crate::{
    Refusal,
    house::{Carriage, Choices},
    material::Use,
    part::{Need, PartId, Run, StripId},
    quantity::{Length, Volume, ceil_count},
    space::{Addition, Envelope, LayerSlot},
};

/// Film wound around the boards.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StretchFilm {
    /// How many times around.
    pub turns: u32,
}

/// What says which piece it is, and which side is the face and the top.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct NameTag {
    /// How many.
    pub count: u32,
}

/// A bag around the boarded piece, every seam taped.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SealedBag {
    /// Of the bag laid flat.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Of the bag laid flat.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// That keep it dry, each of 30 g.
    pub sachets: u32,
}

/// One sachet for so much of a bag.
const SACHET_FOR: Volume = Volume::m3(0.03);
const SIDES: f64 = 2.0;

impl StretchFilm {
    /// Film wound around what is there: boards, the wrap, or an inner box.
    fn layer(
        supplies: &Supplies<'_>,
        (slot, why): (LayerSlot, &'static str),
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let film = supplies.film("house.stretch_film", &supplies.rules.materials.stretch_film)?;
        let allowances = supplies.allowances();
        let turns = f64::from(allowances.film_turns);
        let around = (inside.up + inside.through) * (SIDES * turns);
        let adds = film.thickness * turns;
        Ok(supplies.layer(Making {
            slot,
            needs: vec![Need::film(
                PartId::Film,
                film,
                Run::of([around, inside.across]),
            )],
            adds: Addition::new(Length::ZERO, adds, adds, adds),
            inside,
            minutes: allowances.film_minutes + allowances.film_minutes_per_m * around.as_m(),
            why,
            make: Make::StretchFilm(Self {
                turns: allowances.film_turns,
            }),
            cushioning: None,
        }))
    }
}

impl NameTag {
    pub(crate) fn layer(supplies: &Supplies<'_>, inside: Envelope) -> Result<Layer, Refusal> {
        let tag = supplies.sundry("choices.name_tag", &supplies.rules.materials.name_tag)?;
        let allowances = supplies.allowances();
        Ok(supplies.layer(Making {
            slot: LayerSlot::NameTag,
            needs: vec![
                Need::sundry(PartId::NameTag, tag),
                Need::tape(
                    supplies.card_tape,
                    StripId::AtBothEndsOfTheTag,
                    allowances.tape_tab,
                )
                .times(2),
            ],
            adds: Addition {
                back: tag.thickness,
                ..Addition::default()
            },
            inside,
            minutes: allowances.tag_minutes,
            why: "Wrapped pieces look alike: the tag shows the title, the face and the top edge.",
            make: Make::NameTag(Self { count: 1 }),
            cushioning: None,
        }))
    }
}

impl SealedBag {
    /// Returns the bag around an envelope, with the sachets that keep it dry.
    ///
    /// (across + through + margin) × (up + through + margin), twice; one sachet for each 0.03 m³.
    /// Source: house rule.
    #[must_use]
    pub fn around(inside: Envelope, margin: Length) -> Self {
        Self {
            width: inside.across + inside.through + margin,
            height: inside.up + inside.through + margin,
            sachets: ceil_count(inside.volume().as_m3() / SACHET_FOR.as_m3()).max(1),
        }
    }

    pub(crate) fn layer(supplies: &Supplies<'_>, inside: Envelope) -> Result<Layer, Refusal> {
        let film = supplies.film("house.bag_film", &supplies.rules.materials.bag_film)?;
        let allowances = supplies.allowances();
        let bag = Self::around(inside, allowances.bag_margin);
        let mut needs = vec![
            Need::film(PartId::Bag, film, Run::of([bag.height * SIDES, bag.width])),
            Need::tab(supplies.wrap_tape, StripId::OverTheOpenSide, bag.width),
            Need::tab(supplies.wrap_tape, StripId::AlongTheFold, bag.height),
        ];
        if let Some(sachet) = supplies.catalogue.sundry_for(Use::Desiccant) {
            needs.push(Need::sundry(PartId::Sachet, sachet).times(bag.sachets));
        }
        let t = film.thickness;
        Ok(supplies.layer(Making {
            slot: LayerSlot::Bag,
            needs,
            adds: Addition::new(t, t, t, t),
            inside,
            minutes: allowances.bag_minutes
                + allowances.bag_minutes_per_m * (bag.width + bag.height).as_m(),
            why: "The bag keeps out splashes and wet floors. Sachets conditioned near 50 % humidity lie inside.",
            make: Make::SealedBag(bag),
            cushioning: None,
        }))
    }
}

/// Stretch film that binds the boards.
pub(super) const FILM: Kind = Kind::new(
    Nature::PLAIN,
    |asked| {
        asked.boxed(|| {
            if asked.piece.frame_finish().is_left_free() {
                Standing::Never("film must not touch this frame: tape binds the boards")
            } else {
                Standing::Off
            }
        })
    },
    |around| {
        let why = "Film binds the boards so they can't shift, and keeps dust out.";
        StretchFilm::layer(around.supplies, (LayerSlot::Binding, why), around.inside()).map(Some)
    },
);

/// Film around the wrapped piece.
pub(super) const WRAP_FILM: Kind = Kind::new(
    Nature::PLAIN.wrapping(),
    |asked| asked.boxed(|| Standing::Off),
    |around| {
        let why = "Film holds the wrap without tape, and keeps dust and splashes off it.";
        StretchFilm::layer(around.supplies, (LayerSlot::WrapFilm, why), around.inside()).map(Some)
    },
);

/// Film around the inner one of two boxes.
pub(super) const BOX_FILM: Kind = Kind::new(
    Nature::PLAIN,
    |asked| asked.around_inner_box(),
    |around| {
        let why = "If the outer box gets wet, the inner one stays dry.";
        StretchFilm::layer(around.supplies, (LayerSlot::BoxFilm, why), around.inside()).map(Some)
    },
);

/// What says which piece it is, and which side is the face and the top.
pub(super) const TAG: Kind = Kind::new(
    Nature::PLAIN,
    |asked| match asked.carriage {
        Carriage::Mailed | Carriage::Padded => Standing::Off,
        Carriage::Flat | Carriage::Folio | Carriage::Rolled => Standing::On,
    },
    |around| NameTag::layer(around.supplies, around.inside()).map(Some),
)
.or(tags);

/// A sealed bag with something that keeps it dry.
pub(super) const KIND: Kind = Kind::new(
    Nature::PLAIN
        .hiding()
        .tried(10)
        .left_out(super::kind::Family::Drier, "Without the sealed bag"),
    |_| Standing::Off,
    |around| SealedBag::layer(around.supplies, around.inside()).map(Some),
);

fn tags(offering: &Offering<'_>) -> Vec<Offer> {
    let tags = offering.catalogue.sundries.iter();
    tags.filter(|sundry| sundry.purpose == Use::NameTag && !sundry.shelf.retired)
        .map(|tag| {
            let choices = Choices {
                name_tag: Some(tag.id.clone()),
                ..Choices::default()
            };
            (tag.name.clone(), choices)
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_bag_is_cut_to_what_it_holds() {
        // 910 + 60 + 80 = 1050; 1210 + 60 + 80 = 1350; 0.91 × 1.21 × 0.06 = 0.066 m³: three sachets
        let [across, up, through] = [910.0, 1210.0, 60.0].map(Length::mm);
        let bag = SealedBag::around(
            Envelope {
                across,
                up,
                through,
            },
            Length::mm(80.0),
        );
        assert_eq!(
            (bag.width, bag.height, bag.sachets),
            (Length::mm(1050.0), Length::mm(1350.0), 3)
        );
    }
}
