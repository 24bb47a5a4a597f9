//! What the packed parcel was found to be: what the scale read, and what a tape read outside.

use serde::{Deserialize, Serialize};

use super::{House, ShipmentInputs, Workings, worked::digested};
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
    /// What was packed, as the server noted it: `box-` and a digest of pieces, layers and box. Once somebody changed one of these, or
    /// took a tick back, it begins otherwise, and neither weight nor size is reckoned with. No other edition of the program and no house
    /// rule ends it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub as_packed: Option<String>,
}

/// What the parcel was found to be, beside its plan.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Found))]
pub struct FoundParcel {
    /// Whether it is still the box that was weighed: nobody changed pieces, layers or box since, nor took a tick back. Only then prices
    /// rest on it.
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

/// `as_packed` begins with this while the box is as it was weighed; the digest of what was packed follows.
const STANDS: &str = "box-";
/// `as_packed` begins with this once somebody changed what is packed; the digest of the box that was weighed follows.
const ENDED: &str = "not-";
/// `as_packed` of a parcel of which a tick was taken back: its box was opened.
const OPENED: &str = "opened";
const PRINT_BYTES: usize = 8;

/// A side of a parcel.
const SIDE: LengthRange = LengthRange {
    name: "a side of the parcel",
    least: Length::mm(5.0),
    most: Length::mm(4000.0),
    remedy: "measure the outside of the closed parcel at its widest points",
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

    /// As they were typed, without what the server noted.
    fn typed(&self) -> Self {
        Self {
            as_packed: None,
            ..self.clone()
        }
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

    /// Returns what the parcel was found to be, beside its plan; `None` if nothing was weighed or measured.
    pub(super) fn found(&self, plan: &Plan, catalogue: &Catalogue) -> Option<FoundParcel> {
        let parcel = &self.parcel;
        if parcel.is_nothing() {
            return None;
        }
        let mass = parcel.read_weight().ok().flatten();
        let planned = plan.tally.outside;
        let [across, up, through] = parcel
            .sides()
            .map(|(field, text)| read_side(field, text).ok().flatten());
        let measured = [across, up, through].iter().any(Option::is_some);
        let outside = Envelope {
            across: across.unwrap_or(planned.across),
            up: up.unwrap_or(planned.up),
            through: through.unwrap_or(planned.through),
        };
        let noted = parcel.as_packed.as_deref();
        Some(FoundParcel {
            stands: noted.is_none_or(|noted| noted.starts_with(STANDS)),
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

    /// Returns what is in the box and around it, by its digest.
    fn box_print(&self) -> String {
        let Self {
            piece,
            others,
            together,
            choices,
            gift,
            enclosures,
            ..
        } = self;
        let packed = (piece, others, together, choices, gift, enclosures);
        let text = serde_json::to_vec(&packed).expect("what was typed can be written");
        digested(&text, PRINT_BYTES)
    }

    /// Whether a step that was done is not done any more.
    fn takes_a_tick_back(&self, before: &Self) -> bool {
        let mut steps = before.packed.keys();
        steps.any(|step| !self.packed.contains_key(step))
    }

    /// Whether the same is packed as before, by the house as it is.
    fn packs_like(&self, before: &Self, house: &House) -> bool {
        let built = |inputs: &Self| Workings::out(inputs, house).ok()?.fingerprint;
        self.box_print() == before.box_print()
            || built(before).is_some_and(|before| Some(before) == built(self))
    }

    /// Returns these inputs with a note of what was packed, made when it was weighed or measured, and kept up by every edit: only what
    /// somebody changes ends it. `before` is what they were, where they were anything.
    pub(super) fn binding_parcel(mut self, before: Option<&Self>, house: &House) -> Self {
        if self.parcel.is_nothing() {
            return self;
        }
        let print = self.box_print();
        let weighed_before = before.filter(|before| before.parcel.typed() == self.parcel.typed());
        self.parcel.as_packed = Some(match weighed_before {
            None => format!("{STANDS}{print}"),
            Some(before) => match before.parcel.as_packed.as_deref() {
                Some(ended) if !ended.starts_with(STANDS) => {
                    // Changed, and changed back.
                    if ended.strip_prefix(ENDED) == Some(&*print) {
                        format!("{STANDS}{print}")
                    } else {
                        ended.to_owned()
                    }
                }
                _ if self.takes_a_tick_back(before) => OPENED.to_owned(),
                _ if self.packs_like(before, house) => format!("{STANDS}{print}"),
                _ => format!("{ENDED}{}", before.box_print()),
            },
        });
        self
    }
}
