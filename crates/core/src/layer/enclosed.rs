//! What goes in besides the piece, as layers: it thickens the parcel where it lies, and weighs.

use serde::Serialize;

use super::kind::{Around, Kind, Nature, Standing, StandingQuestion};
use super::{Layer, Make, Pierce};
use crate::{
    Refusal,
    enclosure::{Enclosed, EnclosurePlace},
    house::{Carriage, HouseRules},
    material::MaterialId,
    part::UsedAgain,
    quantity::{Area, Length, Mass, Money, Weight},
    space::{Addition, LayerSlot},
};

/// Papers, gifts and kits that lie in one place of the column.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Enclosures {
    /// What lies there.
    pub list: Vec<Enclosed>,
}

/// On the back of the piece.
pub(super) const BACK: Kind = at(LayerSlot::BackPapers);
/// Behind, under the only wrap.
pub(super) const INNER: Kind = at(LayerSlot::InnerPapers);
/// Behind, between the first wrap and the others.
pub(super) const WRAP: Kind = at(LayerSlot::WrapPapers);
/// On the floor of the box, and on top of what lies in it.
pub(super) const BOX: Kind = at(LayerSlot::BoxPapers);
/// In a pocket outside.
pub(super) const POCKET: Kind = at(LayerSlot::PocketPapers);

const fn at(slot: LayerSlot) -> Kind {
    // A kind asks with plain functions: one of each for every place.
    match slot {
        LayerSlot::BackPapers => Kind::new(
            Nature::PLAIN,
            |asked| stands(asked, LayerSlot::BackPapers),
            |around| made(around, LayerSlot::BackPapers),
        ),
        LayerSlot::InnerPapers => Kind::new(
            Nature::PLAIN,
            |asked| stands(asked, LayerSlot::InnerPapers),
            |around| made(around, LayerSlot::InnerPapers),
        ),
        LayerSlot::WrapPapers => Kind::new(
            Nature::PLAIN,
            |asked| stands(asked, LayerSlot::WrapPapers),
            |around| made(around, LayerSlot::WrapPapers),
        ),
        LayerSlot::BoxPapers => Kind::new(
            Nature::PLAIN,
            |asked| stands(asked, LayerSlot::BoxPapers),
            |around| made(around, LayerSlot::BoxPapers),
        ),
        _ => Kind::new(
            Nature::PLAIN,
            |asked| stands(asked, LayerSlot::PocketPapers),
            |around| made(around, LayerSlot::PocketPapers),
        ),
    }
}

const LISTED: &str = "it is on the enclosures list: remove it there";
const NOTHING: &str = "no enclosure lies there";

fn stands(asked: &StandingQuestion<'_>, slot: LayerSlot) -> Standing {
    let may = may_lie(asked.rules, asked.carriage);
    if may.contains(&slot) {
        Standing::Must(LISTED)
    } else {
        Standing::Never(NOTHING)
    }
}

/// The places of the column that something may lie in by its place and the carriage: what goes under the last wrap is named
/// for both, since it is known only then whether there is a second one.
fn may_lie(rules: &HouseRules, carriage: Carriage) -> Vec<LayerSlot> {
    let mut slots: Vec<LayerSlot> = Vec::new();
    for enclosed in rules.enclosed.iter() {
        match placed(enclosed.enclosure.place, carriage, true) {
            LayerSlot::WrapPapers => slots.extend([LayerSlot::InnerPapers, LayerSlot::WrapPapers]),
            slot => slots.push(slot),
        }
    }
    slots
}

/// Returns where in the column something lies. A mailer has room behind only, and a roll in itself; what is in the pocket
/// outside is the same for all.
const fn placed(place: EnclosurePlace, carriage: Carriage, wrapped_twice: bool) -> LayerSlot {
    match (place, carriage) {
        (EnclosurePlace::InPocket, _) => LayerSlot::PocketPapers,
        (_, Carriage::Rolled) => LayerSlot::BoxPapers,
        (_, Carriage::Mailed | Carriage::Padded) => LayerSlot::InnerPapers,
        (EnclosurePlace::OnBack, _) => LayerSlot::BackPapers,
        (EnclosurePlace::UnderLastWrap, _) if wrapped_twice => LayerSlot::WrapPapers,
        (EnclosurePlace::UnderLastWrap, _) => LayerSlot::InnerPapers,
        (EnclosurePlace::OnFloor | EnclosurePlace::OnTop, _) => LayerSlot::BoxPapers,
    }
}

fn made(around: &Around<'_, '_>, slot: LayerSlot) -> Result<Option<Layer>, Refusal> {
    let rules = around.supplies.rules;
    let carriage = around.carriage;
    let twice = around.has(LayerSlot::SecondWrap) || around.has(LayerSlot::InsetWrap);
    let first = around.has(LayerSlot::FirstWrap);
    let list: Vec<Enclosed> = rules
        .enclosed
        .iter()
        .filter(|one| placed(one.enclosure.place, carriage, twice && first) == slot)
        .cloned()
        .collect();
    if list.is_empty() {
        return Ok(None);
    }
    let adds = added_by(&list, carriage);
    let allowances = &rules.allowances;
    let mass: Mass = list.iter().map(|one| one.enclosure.mass).sum();
    let names: Vec<&str> = list.iter().map(|one| one.enclosure.called()).collect();
    Ok(Some(Layer {
        pierce: Pierce::default(),
        slot,
        material: MaterialId::new("enclosures"),
        material_name: names.join(", "),
        adds,
        envelope: around.inside().grown(adds),
        area: Area::ZERO,
        tape: Length::ZERO,
        tape_name: None,
        strips: Vec::new(),
        weight: Weight::with_doubt(mass, allowances.sheet_doubt),
        plastic: Mass::ZERO,
        used_again: UsedAgain::default(),
        cost: Money::new(
            rust_decimal::Decimal::ZERO,
            &around.supplies.catalogue.currency,
        ),
        minutes: allowances.enclosure_minutes * f64::from(u32::try_from(list.len()).unwrap_or(0)),
        why: "Enclosures go in before the layer that covers them, away from the face.",
        cautions: Vec::new(),
        parts: Vec::new(),
        make: Make::Enclosures(Enclosures { list }),
        cushioning: None,
    }))
}

/// Returns what a pile adds: behind, or below and above; nothing in a pocket outside, nor inside a roll.
///
/// What lies in one place lies in one pile, as thick as all of it. Source: house rule.
fn added_by(list: &[Enclosed], carriage: Carriage) -> Addition {
    let thick = |of: &[EnclosurePlace]| -> Length {
        list.iter()
            .filter(|one| of.contains(&one.enclosure.place))
            .map(|one| one.enclosure.thickness)
            .sum()
    };
    use EnclosurePlace::{OnBack, OnFloor, OnTop, UnderLastWrap};
    match carriage {
        Carriage::Rolled => Addition::default(),
        Carriage::Mailed | Carriage::Padded => Addition {
            back: thick(&[OnBack, UnderLastWrap, OnFloor, OnTop]),
            ..Addition::default()
        },
        Carriage::Flat | Carriage::Folio => Addition {
            back: thick(&[OnBack, UnderLastWrap]),
            bottom: thick(&[OnFloor]),
            top: thick(&[OnTop]),
            ..Addition::default()
        },
    }
}
