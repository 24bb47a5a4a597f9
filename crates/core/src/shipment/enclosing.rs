//! What goes in besides the piece of a shipment: by the house's sets, and as it lists itself.

use serde::{Deserialize, Serialize};

use super::ShipmentInputs;
use crate::{
    Refusal, Refusals,
    enclosure::{
        Enclosed, Enclosure, EnclosureKind, EnclosurePlace, SetAsked, THICKNESS, enclosure_refused,
        is_key,
    },
    house::{HouseRules, write_unit},
    odds::PieceClass,
    quantity::{Bare, LengthUnit, Mass, TypedLength},
};

/// Something that goes in, as typed. One with the key of what the house's sets bring takes its place, and says only what is
/// otherwise.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct EnclosureInputs {
    /// What kind of thing it is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub kind: Option<EnclosureKind>,
    /// What it is called.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// Where it lies; by its kind when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub place: Option<EnclosurePlace>,
    /// How thick it is, as `2 mm`; by its kind when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub thickness: Option<String>,
    /// What it weighs in grams, 0 to 5000; by its kind when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub grams: Option<f64>,
    /// Whether it would dent what lies on it; by its kind when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub hard: Option<bool>,
    /// Whether it stays out, of what the house's sets bring.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub left_out: bool,
}

/// No shipment has more of them.
const MOST: usize = 12;

impl EnclosureInputs {
    /// Returns it over what the house brings, or over what such a thing usually is.
    fn over(&self, by_house: Option<&Enclosure>) -> Result<Enclosure, Refusal> {
        let base = match (self.kind, by_house) {
            (Some(kind), Some(known)) if kind == known.kind => known.clone(),
            (None, Some(known)) => known.clone(),
            (kind, _) => Enclosure::usual(kind.unwrap_or(EnclosureKind::Other)),
        };
        let thickness = match self.thickness.as_deref() {
            None => base.thickness,
            Some(text) => TypedLength::read(text, LengthUnit::Mm)
                .map_err(|error| error.to_string())
                .and_then(|typed| {
                    let read = THICKNESS.check(typed.length(), typed.unit());
                    read.map_err(|out| out.to_string())
                })
                .map_err(|says| Refusal::new("thickness", says))?,
        };
        Ok(Enclosure {
            kind: base.kind,
            name: self
                .name
                .clone()
                .filter(|name| !name.trim().is_empty())
                .unwrap_or(base.name),
            place: self.place.unwrap_or(base.place),
            thickness,
            mass: self.grams.map_or(base.mass, Mass::g),
            hard: self.hard.unwrap_or(base.hard),
        })
    }
}

impl ShipmentInputs {
    /// Writes the unit after each bare thickness.
    pub(super) fn enclosures_with_units(&mut self, bare: Bare, refusals: &mut Refusals) {
        for (key, typed) in &mut self.enclosures {
            if typed
                .thickness
                .as_deref()
                .is_some_and(|text| text.trim().is_empty())
            {
                typed.thickness = None;
            }
            let field = format!("enclosures.{key}.thickness");
            write_unit(&field, &mut typed.thickness, bare.length, refusals);
        }
    }

    pub(super) fn enclosures_refused(&self) -> Vec<Refusal> {
        let mut refusals = Refusals::default();
        if self.enclosures.len() > MOST {
            let says = format!(
                "{} enclosures listed: at most {MOST} are allowed",
                self.enclosures.len()
            );
            refusals.refuse("enclosures", says);
        }
        for (key, typed) in &self.enclosures {
            if !is_key(key) {
                let says = "an enclosure's key has up to 24 lower-case letters and digits";
                refusals.refuse("enclosures", says);
                continue;
            }
            let field = |name: &str| format!("enclosures.{key}.{name}");
            match typed.over(None) {
                Err(refusal) => refusals.refuse(field("thickness"), refusal.message),
                // Its place is looked at where it is known what the house would say of the rest.
                Ok(enclosure) => refusals.extend(enclosure_refused(
                    &Enclosure {
                        hard: false,
                        ..enclosure
                    },
                    |name| field(if name == "mass_g" { "grams" } else { name }),
                )),
            }
        }
        refusals.into()
    }

    /// Returns what goes in besides the piece: what the house's sets bring, but for what is left out here, and what is listed
    /// here.
    ///
    /// # Errors
    /// A [`Refusal`] for something hard where it would dent what lies on it.
    pub fn enclosed(
        &self,
        class: PieceClass,
        rules: &HouseRules,
    ) -> Result<Vec<Enclosed>, Vec<Refusal>> {
        let asked = SetAsked {
            class,
            certificate: self.piece.certificate,
            gift: self.gift,
        };
        let sets = rules.enclosures.iter().filter(|set| set.is_for(asked));
        let by_house: Vec<Enclosed> = sets.flat_map(|set| set.brings()).collect();
        let mut refusals = Refusals::default();
        let mut all = Vec::new();
        let mut take = |key: &str, typed: &EnclosureInputs, by: Option<&Enclosed>| {
            if typed.left_out {
                return;
            }
            match typed.over(by.map(|by| &by.enclosure)) {
                Err(refusal) => refusals.push(refusal),
                Ok(enclosure) => {
                    let field = format!("enclosures.{key}.place");
                    refusals.extend(enclosure.misplaced().map(|says| Refusal::new(field, says)));
                    all.push(Enclosed {
                        key: key.to_owned(),
                        enclosure,
                        set: by.and_then(|by| by.set.clone()),
                    });
                }
            }
        };
        for brought in &by_house {
            let nothing = EnclosureInputs::default();
            let typed = self.enclosures.get(&brought.key).unwrap_or(&nothing);
            take(&brought.key, typed, Some(brought));
        }
        for (key, typed) in &self.enclosures {
            // What only changes something that no set brings any more is nothing by itself.
            if typed.kind.is_some() && !by_house.iter().any(|brought| brought.key == *key) {
                take(key, typed, None);
            }
        }
        refusals.or(all)
    }
}
