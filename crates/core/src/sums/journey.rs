//! What a journey does: falls, what presses in, the toughness of a pane, and the odds.

use serde::{Deserialize, Serialize};

use super::{
    Sum,
    checked::{
        FACTOR, FREQUENCY, LIMIT, MASS, MEASURE, PANE, PARCELS, PERCENT, PIECES, REFERENCE, ROUTE,
        SHARE, SIDE, SOFT, STIFFNESS,
    },
    cushions::{MOST_PARTS, SeriesPart},
};
use crate::{
    Refusal, Refusals,
    odds::{
        FallDanger, FallSides, Faller, Hazard, KnownRecord, Measure, PerHazard, PlateOver, alike,
        compared, danger_of_falls, pressed_measure,
    },
    piece::{glass_limit, mirror_limit},
    quantity::{Frequency, Length, Mass, Shock, Stiffness},
};

/// The falls of a journey.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct FallsSum {
    /// Inside the innermost cushion, 0.001 to 1000.
    pub mass_kg: f64,
    /// Of the whole parcel, 0.001 to 1000: it sets the heights.
    pub parcel_kg: f64,
    /// Longest side of the parcel, 1 to 10 000.
    pub longest_mm: f64,
    /// The piece itself.
    pub core: FallCore,
    /// What lies on each side of it; a side that is left out is bare.
    pub sides: FallSideParts,
    /// That one piece in twenty would not take on its face, 1 to 1000 times gravity.
    pub limit_g: f64,
    /// How quickly it answers there, 0.1 to 10 000.
    pub frequency_hz: f64,
    /// How many times the limit it takes in its own plane, 0.1 to 10.
    pub plane_factor: f64,
    /// How many times the limit it takes on its back, 0.1 to 10.
    pub back_factor: f64,
}

/// A piece by its sides, each 1 to 10 000.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct FallCore {
    /// Along its width.
    pub across_mm: f64,
    /// Along its height.
    pub up_mm: f64,
    /// From face to back.
    pub through_mm: f64,
}

/// Cushions and boards on each side, up to twenty.
#[derive(Debug, Clone, PartialEq, Default, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct FallSideParts {
    /// Before the face.
    #[serde(default)]
    pub front: Vec<SeriesPart>,
    /// Behind.
    #[serde(default)]
    pub back: Vec<SeriesPart>,
    /// Above and below.
    #[serde(default)]
    pub up: Vec<SeriesPart>,
    /// At the left and the right.
    #[serde(default)]
    pub across: Vec<SeriesPart>,
}

impl FallSideParts {
    fn check(&self, checked: &mut Refusals) {
        for (name, side) in [
            ("front", &self.front),
            ("back", &self.back),
            ("up", &self.up),
            ("across", &self.across),
        ] {
            if side.len() > MOST_PARTS {
                let says = format!("{} given: give at most {MOST_PARTS}", side.len());
                checked.refuse(format!("sides.{name}"), says);
            }
            for (place, part) in side.iter().enumerate() {
                part.check(checked, &format!("sides.{name}[{place}]."));
            }
        }
    }

    fn layers(&self) -> FallSides {
        let of = |side: &[SeriesPart]| side.iter().map(SeriesPart::layer).collect();
        FallSides {
            front: of(&self.front),
            back: of(&self.back),
            up: of(&self.up),
            across: of(&self.across),
        }
    }
}

impl Sum for FallsSum {
    type Answer = FallDanger;

    fn work(&self) -> Result<FallDanger, Vec<Refusal>> {
        let mut checked = Refusals::default();
        checked
            .number("mass_kg", self.mass_kg, MASS)
            .number("parcel_kg", self.parcel_kg, MASS)
            .number("longest_mm", self.longest_mm, SIDE)
            .number("core.across_mm", self.core.across_mm, SIDE)
            .number("core.up_mm", self.core.up_mm, SIDE)
            .number("core.through_mm", self.core.through_mm, SIDE)
            .number("limit_g", self.limit_g, LIMIT)
            .number("frequency_hz", self.frequency_hz, FREQUENCY)
            .number("plane_factor", self.plane_factor, FACTOR)
            .number("back_factor", self.back_factor, FACTOR);
        self.sides.check(&mut checked);
        checked.done()?;
        let faller = Faller {
            mass: Mass::kg(self.mass_kg),
            parcel: Mass::kg(self.parcel_kg),
            longest: Length::mm(self.longest_mm),
            across: Length::mm(self.core.across_mm),
            up: Length::mm(self.core.up_mm),
            through: Length::mm(self.core.through_mm),
            limit: Shock::times_gravity(self.limit_g),
            frequency: Frequency::hz(self.frequency_hz),
            plane_factor: self.plane_factor,
            back_factor: self.back_factor,
        };
        Ok(danger_of_falls(&faller, &self.sides.layers()))
    }
}

/// Boards between the outside and the face.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PressedSum {
    /// One to twenty, the outermost first.
    pub plates: Vec<PressedPlate>,
}

/// A board and what lies under it.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PressedPlate {
    /// Of the board, 0.001 to 100 000.
    pub stiffness_nm: f64,
    /// Soft between it and the next board, or the art, 0 to 1000.
    pub soft_mm: f64,
}

/// What presses in.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PressedAnswer {
    /// It grows with danger; only its ratio to another means anything.
    pub measure: f64,
}

impl Sum for PressedSum {
    type Answer = PressedAnswer;

    fn work(&self) -> Result<PressedAnswer, Vec<Refusal>> {
        let mut checked = Refusals::default();
        if self.plates.is_empty() || self.plates.len() > MOST_PARTS {
            let says = format!("{} given: give 1 to {MOST_PARTS}", self.plates.len());
            checked.refuse("plates", says);
        }
        for (place, plate) in self.plates.iter().enumerate() {
            checked
                .number(
                    format!("plates[{place}].stiffness_nm"),
                    plate.stiffness_nm,
                    STIFFNESS,
                )
                .number(format!("plates[{place}].soft_mm"), plate.soft_mm, SOFT);
        }
        checked.done()?;
        let mut soft = Length::ZERO;
        let plates: Vec<PlateOver> = self
            .plates
            .iter()
            .rev()
            .map(|plate| {
                soft += Length::mm(plate.soft_mm);
                PlateOver {
                    stiffness: Stiffness::nm(plate.stiffness_nm),
                    soft,
                }
            })
            .collect();
        Ok(PressedAnswer {
            measure: pressed_measure(&plates),
        })
    }
}

/// A pane or a mirror.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct GlassSum {
    /// Of the pane, 1 to 10 000.
    pub short_side_mm: f64,
    /// Of a pane, 0.5 to 50; 2 when left out. A mirror goes by its size alone.
    #[serde(default)]
    pub thickness_mm: Option<f64>,
    /// A pane when left out.
    #[serde(default)]
    pub kind: GlassKind,
}

/// What is made of glass.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum GlassKind {
    /// In a frame, before something.
    #[default]
    Pane,
    /// A mirror.
    Mirror,
}

/// What it takes.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct GlassAnswer {
    /// That one in twenty would not take, as a multiple of gravity.
    pub limit_g: f64,
    /// How quickly it answers a knock.
    pub frequency_hz: f64,
}

const USUAL_PANE_MM: f64 = 2.0;

impl Sum for GlassSum {
    type Answer = GlassAnswer;

    fn work(&self) -> Result<GlassAnswer, Vec<Refusal>> {
        Refusals::default()
            .number("short_side_mm", self.short_side_mm, SIDE)
            .if_given("thickness_mm", self.thickness_mm, PANE)
            .done()?;
        let short_side = Length::mm(self.short_side_mm);
        let thickness = Length::mm(self.thickness_mm.unwrap_or(USUAL_PANE_MM));
        let (limit, frequency) = match self.kind {
            GlassKind::Pane => glass_limit(short_side, thickness),
            GlassKind::Mirror => mirror_limit(short_side),
        };
        Ok(GlassAnswer {
            limit_g: limit.as_times_gravity(),
            frequency_hz: frequency.as_hz(),
        })
    }
}

/// The odds of a plan against its reference.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct OddsSum {
    /// Of a hundred such pieces, packed as the reference on a national way, 0 to 100.
    pub base_percent: f64,
    /// How rough the way is, 0 to 100; 1 is national.
    pub route: f64,
    /// The share of each hazard in the base, as fractions from 0 to 100, 0 when left out; not normalised.
    pub shares: PerHazard<f64>,
    /// Of the plan, from 0 up; one that is missing counts as the reference's.
    #[serde(default)]
    pub measures: PerHazard<Option<f64>>,
    /// Of the reference, above 0; one that is missing counts as the plan's.
    #[serde(default)]
    pub reference: PerHazard<Option<f64>>,
    /// In damaged parcels, Σ base · route of what was sent; 0 when left out.
    #[serde(default)]
    pub expected_so_far: Option<f64>,
    /// That arrived damaged; 0 when left out.
    #[serde(default)]
    pub losses_so_far: Option<f64>,
    /// How many alike pieces are in the parcel, 1 to 1000; 1 when left out. The base is that of one, and goes with pieces^0.3.
    #[serde(default)]
    pub pieces: Option<u32>,
}

/// The odds.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OddsAnswer {
    /// Of the plan against its reference.
    pub factor: f64,
    /// What the record makes of it.
    pub k: f64,
    /// That it arrives damaged, as a fraction.
    pub probability: f64,
    /// The lower end of the range.
    pub low: f64,
    /// The upper end.
    pub high: f64,
}

impl OddsSum {
    fn check(&self) -> Result<(), Vec<Refusal>> {
        let mut checked = Refusals::default();
        checked
            .number("base_percent", self.base_percent, PERCENT)
            .number("route", self.route, ROUTE)
            .if_given("expected_so_far", self.expected_so_far, PARCELS)
            .if_given("losses_so_far", self.losses_so_far, PARCELS)
            .if_given("pieces", self.pieces.map(f64::from), PIECES);
        for hazard in Hazard::ALL {
            let name = hazard.key();
            checked
                .number(format!("shares.{name}"), self.shares.of(hazard), SHARE)
                .if_given(
                    format!("measures.{name}"),
                    self.measures.of(hazard),
                    MEASURE,
                )
                .if_given(
                    format!("reference.{name}"),
                    self.reference.of(hazard),
                    REFERENCE,
                );
        }
        checked.done()
    }
}

const HUNDRED: f64 = 100.0;

impl Sum for OddsSum {
    type Answer = OddsAnswer;

    fn work(&self) -> Result<OddsAnswer, Vec<Refusal>> {
        self.check()?;
        let measured = |number: Option<f64>| number.map_or(Measure::Unmeasured, Measure::Of);
        let (factor, _) = compared(
            self.shares,
            self.measures.map(measured),
            self.reference.map(measured),
        );
        let known = KnownRecord {
            expected: self.expected_so_far.unwrap_or(0.0),
            damaged: self.losses_so_far.unwrap_or(0.0),
        };
        let base = self.base_percent / HUNDRED * alike(self.pieces.unwrap_or(1));
        let chance = known.chance(base * self.route * factor);
        Ok(OddsAnswer {
            factor,
            k: chance.k,
            probability: chance.probability,
            low: chance.low,
            high: chance.high,
        })
    }
}
