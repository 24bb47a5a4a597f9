//! What the packed parcel was found to be: what the scale read, and what a tape read outside.

use serde::{Deserialize, Serialize};

use super::{House, ShipmentInputs, Workings};
use crate::{
    Refusal, Refusals,
    freight::Parcel,
    house::write_unit,
    material::Catalogue,
    plan::Plan,
    quantity::{Bare, Length, LengthRange, LengthUnit, Mass, TypedLength, read_mass},
    space::Envelope,
    weigh::{Verdict, verdict},
};

/// The packed parcel, as it was weighed and measured.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct ParcelInputs {
    /// As the scale read it, as `3.61 kg`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub weight: Option<String>,
    /// Outside, along the width as hung, as `598 mm`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub across: Option<String>,
    /// Outside, along the height.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub up: Option<String>,
    /// Outside, from face to back.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub through: Option<String>,
    /// The plan that it was packed by, by its fingerprint, as the server noted it: where the plan is another by now, neither is
    /// reckoned with.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub as_packed: Option<String>,
}

/// What the parcel was found to be, beside its plan.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Found))]
pub struct FoundParcel {
    /// Whether the plan is still the one that it was packed by; only then prices rest on it.
    pub stands: bool,
    /// What the scale read.
    #[serde(rename = "mass_g")]
    pub mass: Option<Mass>,
    /// Its sides outside: as measured, and as planned where a side was not.
    pub outside: Option<Envelope>,
    /// How much larger it is than planned, side by side: across, up and through.
    pub off_mm: Option<[Length; 3]>,
    /// What the reading says about the plan.
    pub verdict: Option<Verdict>,
}

/// Where figures that are priced come from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Figures {
    /// The plan.
    #[default]
    Planned,
    /// The packed parcel.
    Measured,
}

/// What prices rest on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RestsOn {
    /// The weight.
    pub mass: Figures,
    /// The size.
    pub size: Figures,
}

/// A side of a parcel.
const SIDE: LengthRange = LengthRange {
    name: "a side of the parcel",
    least: Length::mm(5.0),
    most: Length::mm(4000.0),
    remedy: "measure the closed parcel outside, over everything that stands out",
};

impl ParcelInputs {
    /// Tells whether nothing was weighed or measured.
    #[must_use]
    pub fn is_nothing(&self) -> bool {
        let Self {
            weight,
            across,
            up,
            through,
            as_packed: _,
        } = self;
        [weight, across, up, through]
            .into_iter()
            .all(Option::is_none)
    }

    fn sides(&self) -> [(&'static str, Option<&str>); 3] {
        [
            ("parcel.across", self.across.as_deref()),
            ("parcel.up", self.up.as_deref()),
            ("parcel.through", self.through.as_deref()),
        ]
    }

    /// Writes the unit after each bare number, and leaves out what is blank.
    pub(super) fn with_units(&mut self, bare: Bare, refusals: &mut Refusals) {
        for (field, text) in [
            ("parcel.across", &mut self.across),
            ("parcel.up", &mut self.up),
            ("parcel.through", &mut self.through),
        ] {
            super::inputs::blank_is_none(text);
            write_unit(field, text, bare.length, refusals);
        }
        super::inputs::blank_is_none(&mut self.weight);
        super::inputs::write_mass_unit(&mut self.weight, bare.mass);
        if self.is_nothing() {
            self.as_packed = None;
        }
        let read = self
            .sides()
            .into_iter()
            .filter_map(|(field, text)| read_side(field, text).err());
        // What is no length at all was refused when its unit was written.
        let known: Vec<String> = refusals.iter().map(|one| one.field.clone()).collect();
        let more: Vec<Refusal> = read.filter(|one| !known.contains(&one.field)).collect();
        refusals.extend(more);
        refusals.extend(self.read_weight().err());
    }

    fn read_weight(&self) -> Result<Option<Mass>, Refusal> {
        let text = self.weight.as_deref();
        text.map(read_mass)
            .transpose()
            .map_err(|error| Refusal::new("parcel.weight", error))
    }

    /// Returns what it was found to be, beside a plan of that fingerprint; `None` if nothing was weighed or measured.
    pub(super) fn found(
        &self,
        plan: &Plan,
        fingerprint: &str,
        catalogue: &Catalogue,
    ) -> Option<FoundParcel> {
        if self.is_nothing() {
            return None;
        }
        let mass = self.read_weight().ok().flatten();
        let planned = plan.tally.outside;
        let [across, up, through] = self
            .sides()
            .map(|(field, text)| read_side(field, text).ok().flatten());
        let measured = [across, up, through].iter().any(Option::is_some);
        let outside = Envelope {
            across: across.unwrap_or(planned.across),
            up: up.unwrap_or(planned.up),
            through: through.unwrap_or(planned.through),
        };
        let packed = self.as_packed.as_deref();
        Some(FoundParcel {
            stands: packed.is_none_or(|packed| packed == fingerprint),
            mass,
            outside: measured.then_some(outside),
            off_mm: measured.then(|| {
                [
                    outside.across - planned.across,
                    outside.up - planned.up,
                    outside.through - planned.through,
                ]
            }),
            verdict: mass.map(|mass| verdict(plan, catalogue, mass)),
        })
    }
}

fn read_side(field: &'static str, text: Option<&str>) -> Result<Option<Length>, Refusal> {
    let Some(text) = text else { return Ok(None) };
    let refused = |says: String| Refusal::new(field, says);
    let typed =
        TypedLength::read(text, LengthUnit::Mm).map_err(|error| refused(error.to_string()))?;
    SIDE.check(typed.length(), typed.unit())
        .map(Some)
        .map_err(|out| refused(out.to_string()))
}

impl FoundParcel {
    /// Returns what prices rest on.
    #[must_use]
    pub fn rests_on(found: Option<&Self>) -> RestsOn {
        let stands = found.filter(|found| found.stands);
        let measured = |is: bool| {
            if is {
                Figures::Measured
            } else {
                Figures::Planned
            }
        };
        RestsOn {
            mass: measured(stands.is_some_and(|found| found.mass.is_some())),
            size: measured(stands.is_some_and(|found| found.outside.is_some())),
        }
    }

    /// Returns a parcel as it was found, in place of what its plan says.
    pub(super) fn laid_over(found: Option<&Self>, parcel: Parcel) -> Parcel {
        let Some(found) = found.filter(|found| found.stands) else {
            return parcel;
        };
        Parcel {
            outside: found.outside.unwrap_or(parcel.outside),
            mass: found.mass.unwrap_or(parcel.mass),
            ..parcel
        }
    }
}

impl ShipmentInputs {
    /// Returns these inputs without what the parcel was found to be: as another plan is compared.
    #[must_use]
    pub(crate) fn unweighed(&self) -> Self {
        Self {
            parcel: ParcelInputs::default(),
            packed: std::collections::BTreeMap::new(),
            ..self.clone()
        }
    }

    /// Returns these inputs with a note of the plan by which the parcel was packed, made when it was weighed or measured.
    /// `before` is what they were, where they were anything.
    pub(super) fn binding_parcel(mut self, before: Option<&Self>, house: &House) -> Self {
        if self.parcel.is_nothing() {
            return self;
        }
        let typed = |inputs: &Self| ParcelInputs {
            as_packed: None,
            ..inputs.parcel.clone()
        };
        let anew = before.is_some_and(|before| typed(before) != typed(&self));
        if anew || self.parcel.as_packed.is_none() {
            let worked = Workings::out(&self, house).ok();
            self.parcel.as_packed = worked.and_then(|worked| worked.fingerprint);
        }
        self
    }
}
