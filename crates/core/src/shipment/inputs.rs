//! What was typed about a shipment; any part of it may still be missing.

use std::collections::BTreeMap;

use jiff::civil::Date;
use rust_decimal::{Decimal, prelude::ToPrimitive};
use serde::{Deserialize, Serialize};

use super::{
    AfterInputs, EnclosureInputs, OtherPiece, ParcelInputs, QuotationInputs, SendingInputs,
    TogetherInputs, dates::read_day, order::OrderInputs,
};
use crate::{
    Refusal, Refusals,
    house::{Choices, write_unit},
    pack::StepTick,
    piece::{
        BearingPoint, Condition, Construction, FrameFinish, FrameHolds, LEAST_SEEN, Medium,
        Outline, PaintBody, Pane, Piece, PieceSize, TopEdge, Varnish,
    },
    place::{Buyer, Destination},
    quantity::{
        AmbiguousComma, Bare, Currency, Length, LengthRange, LengthUnit, Mass, MassUnit, Shock,
        TypedLength, read_mass,
    },
    text::{UnreadableText, refused_text},
};

/// The most that a piece can be covered for.
/// It is much in any money.
const HIGHEST_VALUE: Decimal = Decimal::from_parts(1_000_000_000, 0, 0, false, 0);

/// Everything that a person settles about a shipment, as typed.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(remote = "Self", default, deny_unknown_fields)]
pub struct ShipmentInputs {
    /// The title of the piece.
    pub title: String,
    /// Who gets it, and where.
    pub buyer: Buyer,
    /// By which the shop that sold it knows the order, up to 80 characters.
    /// The same as `order.number`, under its former name.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub order_number: String,
    /// The order that it is for.
    #[serde(skip_serializing_if = "is_default")]
    pub order: OrderInputs,
    /// The day it was promised for, as 2027-03-12.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub promised: Option<String>,
    /// What it is worth, in the studio's currency, as 640.00.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub value: Option<String>,
    /// The money that its sums are in, where the studio counts in other money by now; only what left has one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub currency: Option<Currency>,
    /// The piece.
    pub piece: PieceInputs,
    /// More pieces in the same box, by a name of small letters and digits, at most eleven.
    #[serde(skip_serializing_if = "BTreeMap::is_empty")]
    pub others: BTreeMap<String, OtherPiece>,
    /// How several pieces lie together, where somebody chose that by hand.
    #[serde(skip_serializing_if = "is_default")]
    pub together: TogetherInputs,
    /// What it does otherwise than the house.
    pub choices: Choices,
    /// Why a Stop was lifted, by its code.
    #[serde(skip_serializing_if = "BTreeMap::is_empty")]
    pub lifted: BTreeMap<String, String>,
    /// What each was lifted for, by its code, as the server noted it: when that is no longer so, the Stop is back.
    /// Take one away to lift the Stop again.
    #[serde(skip_serializing_if = "BTreeMap::is_empty")]
    pub lifted_for: BTreeMap<String, String>,
    /// The stops that were looked at and found right.
    pub settled: SettledStops,
    /// The service chosen, as `gannet-post/tracked`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub service: Option<String>,
    /// The packed parcel, as it was weighed and measured.
    #[serde(skip_serializing_if = "is_default")]
    pub parcel: ParcelInputs,
    /// Prices that somebody quoted, by a name of small letters and digits; each is then a service as `quoted/packer`.
    #[serde(skip_serializing_if = "BTreeMap::is_empty")]
    pub quotations: BTreeMap<String, QuotationInputs>,
    /// Whether it is a gift, so that what the house lists for gifts goes in.
    #[serde(skip_serializing_if = "is_default")]
    pub gift: bool,
    /// What goes in besides the piece, by a name of small letters and digits: more than the house's sets bring, or otherwise.
    #[serde(skip_serializing_if = "BTreeMap::is_empty")]
    pub enclosures: BTreeMap<String, EnclosureInputs>,
    /// What was done at the bench, by the keys of its steps.
    #[serde(skip_serializing_if = "BTreeMap::is_empty")]
    pub packed: BTreeMap<String, StepTick>,
    /// What is settled when the parcel leaves.
    #[serde(skip_serializing_if = "is_default")]
    pub sending: SendingInputs,
    /// What came of it.
    #[serde(skip_serializing_if = "is_default")]
    pub after: AfterInputs,
}

crate::json::read_in_one_place!(ShipmentInputs);

/// A piece as typed. Lengths are texts, as `35 1/2 in`.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct PieceInputs {
    /// What carries the art.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub construction: Option<Construction>,
    /// Across, as hung.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub width: Option<String>,
    /// Up, as hung.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub height: Option<String>,
    /// From face to back, over everything.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub depth: Option<String>,
    /// What it is painted, drawn or printed in.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub medium: Option<Medium>,
    /// How thickly.
    pub paint: PaintBody,
    /// The day the last of it was laid on, as 2026-08-20.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub finished: Option<String>,
    /// Its shape within what it was measured over.
    #[serde(skip_serializing_if = "is_default")]
    pub outline: Outline,
    /// At how many points a shaped piece bears, of a polygon how many sides it has, 3 to 12; by its outline when absent. An arch
    /// always bears on its own six.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub bearing_points: Option<u32>,
    /// How many like pieces travel together, of any kind, 1 to 60.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub count: Option<u32>,
    /// Whether it was varnished.
    #[serde(skip_serializing_if = "is_default")]
    pub varnished: bool,
    /// The day the varnish was laid on, as 2026-08-20.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub varnished_on: Option<String>,
    /// In what order its surface is.
    #[serde(skip_serializing_if = "is_default")]
    pub condition: Condition,
    /// What was seen on it, for the record.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub notes: String,
    /// Whether its glass has a coating.
    #[serde(skip_serializing_if = "is_default")]
    pub coated_glass: bool,
    /// Whether its acrylic is antistatic.
    #[serde(skip_serializing_if = "is_default")]
    pub antistatic: bool,
    /// What is in its frame; by its kind when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub frame_holds: Option<FrameHolds>,
    /// What its frame is like; plain when absent.
    #[serde(skip_serializing_if = "is_default")]
    pub frame: FrameFinish,
    /// How wide its bare border is all round, on which a strip may lie.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub bare_border: Option<String>,
    /// How wide the moulding of its frame is, from the outside to what is seen; 20 mm are assumed when absent. 0 for a pane without a frame.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub moulding_width: Option<String>,
    /// What its pane is, under glass; two millimetres when absent.
    #[serde(skip_serializing_if = "is_default")]
    pub pane: Pane,
    /// Whether it can't be made again or replaced; not ticked unless somebody ticks it.
    #[serde(skip_serializing_if = "is_default")]
    pub irreplaceable: bool,
    /// How far hardware stands off the back, within the depth.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub hardware: Option<String>,
    /// Whether a certificate goes with it.
    #[serde(skip_serializing_if = "is_default")]
    pub certificate: bool,
    /// What its certificate says of it besides title, size and medium.
    #[serde(skip_serializing_if = "is_default")]
    pub facts: PieceFacts,
    /// How its top is known.
    #[serde(skip_serializing_if = "is_default")]
    pub top: TopEdge,
    /// As the scale read it, as 3.2 kg; all of a set together.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub weight: Option<String>,
    /// The shock it can take, where that is known better, 10 to 200.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub limit_g: Option<f64>,
}

/// What a certificate says of a piece, asked once and kept with it.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct PieceFacts {
    /// Who made it.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub artist: String,
    /// When, as people write it: `2026`, or `2024 to 2026`.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub year: String,
    /// In what and on what, as a certificate words it.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub medium: String,
    /// Its number in the edition; nothing for what there is one of.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub edition: Option<u32>,
    /// Of how many.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub edition_of: Option<u32>,
    /// Where and how it is signed.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub signature: String,
    /// The day that the certificate is dated, as 2027-03-04.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub dated: Option<String>,
}

/// The largest edition that is numbered.
const LARGEST_EDITION: u32 = 10_000;

impl PieceFacts {
    fn refused(&self) -> Vec<Refusal> {
        let texts = [
            ("piece.facts.artist", &self.artist),
            ("piece.facts.year", &self.year),
            ("piece.facts.medium", &self.medium),
            ("piece.facts.signature", &self.signature),
        ];
        let mut refusals: Refusals = texts
            .into_iter()
            .filter_map(|(field, text)| refused_text(field, text))
            .collect();
        for (field, number) in [
            ("piece.facts.edition", self.edition),
            ("piece.facts.edition_of", self.edition_of),
        ] {
            if number.is_some_and(|number| !(1..=LARGEST_EDITION).contains(&number)) {
                let says = format!("give a number from 1 to {LARGEST_EDITION}");
                refusals.refuse(field, says);
            }
        }
        if let (Some(edition), Some(of)) = (self.edition, self.edition_of)
            && edition > of
        {
            let says = format!("number {edition} is not one of {of}");
            refusals.refuse("piece.facts.edition", says);
        }
        refusals.extend(read_day("piece.facts.dated", self.dated.as_deref()).err());
        refusals.into()
    }
}

fn is_default<T: Default + PartialEq>(value: &T) -> bool {
    *value == T::default()
}

/// The shock that a piece may be said to take.
pub(super) const LIMITS_G: std::ops::RangeInclusive<f64> = 10.0..=200.0;
pub(super) const BEARING_POINTS: std::ops::RangeInclusive<u32> = 3..=12;
pub(super) const COUNTS: std::ops::RangeInclusive<u32> = 1..=60;
/// No plan has more steps, and no step a longer key.
const MOST_TICKS: usize = 400;
const LONGEST_STEP: usize = 80;
/// Notes are a paragraph, a reason a sentence or two.
const LONGEST_NOTE: usize = 2000;
const LONGEST_REASON: usize = 400;
const SHORTEST_REASON: usize = 3;
/// Hardware stands off this far at most.
const HARDWARE: LengthRange = LengthRange {
    name: "the standing height",
    least: Length::ZERO,
    most: Length::mm(120.0),
    remedy: "measure from the back of the frame to the top of the hardware",
};

/// A moulding is this wide at most.
const MOULDING: LengthRange = LengthRange {
    name: "the moulding",
    least: Length::ZERO,
    most: Length::mm(300.0),
    remedy: "measure from the outside of the frame to what is seen in it",
};

/// A bare border is this wide at most.
const BORDER: LengthRange = LengthRange {
    name: "the bare border",
    least: Length::ZERO,
    most: Length::mm(500.0),
    remedy: "measure from the edge of the sheet to the picture",
};

/// A length within a range; nothing where none was typed, or nought.
fn read_within(
    field: &str,
    text: Option<&str>,
    range: &LengthRange,
) -> Result<Option<Length>, Refusal> {
    let Some(text) = text else {
        return Ok(None);
    };
    let refused = |says: String| Refusal::new(field, says);
    let typed =
        TypedLength::read(text, LengthUnit::Mm).map_err(|error| refused(error.to_string()))?;
    let length = range
        .check(typed.length(), typed.unit())
        .map_err(|out| refused(out.to_string()))?;
    Ok(Some(length))
}

fn above_zero(length: Option<Length>) -> Option<Length> {
    length.filter(|length| *length > Length::ZERO)
}

/// The plan that each stop was found right for, by its fingerprint.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Settled))]
#[serde(default, deny_unknown_fields)]
pub struct SettledStops {
    /// Of the layers.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub guard: Option<String>,
    /// Of the box.
    #[serde(rename = "box", skip_serializing_if = "Option::is_none")]
    pub carton: Option<String>,
    /// The weight that is right although its plan does not explain it, as it was read.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub weigh: Option<String>,
}

impl ShipmentInputs {
    /// Returns the inputs with the unit written after each bare number, when every value can stand.
    ///
    /// # Errors
    /// A [`Refusal`] for each value that can't: a text over 120 characters or with control characters, a
    /// length that is not understood or out of range, a day that is not one, a piece finished after
    /// `today`, a value that is not an amount from 0 to 1 000 000 000.
    pub fn checked(self, bare: impl Into<Bare>, today: Date) -> Result<Self, Vec<Refusal>> {
        let (inputs, refusals) = self.looked_over(bare.into(), today);
        refusals.or(inputs)
    }

    /// Returns the inputs as [`Self::checked`] does, where they follow others: a value that stood there before and
    /// could not stand any more by then does not keep the rest from being put right.
    ///
    /// # Errors
    /// A [`Refusal`] for each value that can't stand and was not there before.
    pub fn checked_since(
        self,
        before: &Self,
        bare: impl Into<Bare>,
        today: Date,
    ) -> Result<Self, Vec<Refusal>> {
        let bare = bare.into();
        let (inputs, mut refusals) = self.looked_over(bare, today);
        if !refusals.is_empty() {
            let (_, known) = before.clone().looked_over(bare, today);
            refusals.retain(|refusal| known.iter().all(|other| other != refusal));
        }
        refusals.or(inputs)
    }

    pub(super) fn looked_over(mut self, bare: Bare, today: Date) -> (Self, Refusals) {
        self.one_order_number();
        blank_is_none(&mut self.order.paid);
        let mut refusals = Refusals::from(self.texts_refused());
        let piece = &mut self.piece;
        for (field, text) in [
            ("piece.width", &mut piece.width),
            ("piece.height", &mut piece.height),
            ("piece.depth", &mut piece.depth),
            ("piece.hardware", &mut piece.hardware),
            ("piece.bare_border", &mut piece.bare_border),
            ("piece.moulding_width", &mut piece.moulding_width),
        ] {
            blank_is_none(text);
            write_unit(field, text, bare.length, &mut refusals);
        }
        blank_is_none(&mut self.value);
        blank_is_none(&mut self.promised);
        blank_is_none(&mut self.piece.finished);
        blank_is_none(&mut self.piece.varnished_on);
        blank_is_none(&mut self.piece.weight);
        blank_is_none(&mut self.piece.facts.dated);
        self.sending.blanks_are_none();
        self.after.blanks_are_none();
        write_mass_unit(&mut self.piece.weight, bare.mass);
        write_mass_unit(&mut self.choices.case_empty, bare.mass);
        self.parcel.with_units(bare, &mut refusals);
        self.enclosures_with_units(bare, &mut refusals);
        self.lifted.retain(|_, reason| !reason.trim().is_empty());
        let lifted = &self.lifted;
        self.lifted_for.retain(|code, _| lifted.contains_key(code));
        match self.choices.clone().with_units(bare.length) {
            Ok(choices) => self.choices = choices,
            Err(refused) => refusals.extend(refused),
        }
        refusals.extend(self.days_refused(today));
        refusals.extend(self.read_value().err());
        refusals.extend(self.numbers_refused());
        refusals.extend(self.quotations_refused());
        refusals.extend(self.ticks_refused());
        refusals.extend(self.enclosures_refused());
        refusals.extend(self.piece.facts.refused());
        refusals.extend(self.sending.refused(today));
        refusals.extend(self.after.refused(today));
        refusals.extend(self.others_looked_over(bare, today));
        if refusals.is_empty() {
            refusals.extend(self.size().err().into_iter().flatten());
        }
        (self, refusals)
    }

    /// Returns what the piece is worth, when that was given.
    ///
    /// # Errors
    /// A [`Refusal`] when it is not an amount from 0 to 1 000 000 000.
    pub fn read_value(&self) -> Result<Option<Decimal>, Refusal> {
        read_amount("value", self.value.as_deref())
    }

    /// Returns what all pieces are worth together, when that of any was given.
    ///
    /// # Errors
    /// A [`Refusal`] when one is not an amount from 0 to 1 000 000 000.
    pub fn worth(&self) -> Result<Option<Decimal>, Refusal> {
        let mut sum = self.read_value()?;
        for (key, other) in &self.others {
            let value = read_amount(&format!("others.{key}.value"), other.value.as_deref())?;
            sum = match (sum, value) {
                (Some(sum), Some(value)) => Some(sum + value),
                (sum, value) => sum.or(value),
            };
        }
        Ok(sum)
    }

    /// Returns what the scale read, when it was weighed.
    ///
    /// # Errors
    /// A [`Refusal`] when it is not a mass from 0.01 to 500 kg.
    pub fn read_weight(&self) -> Result<Option<Mass>, Refusal> {
        let text = self.piece.weight.as_deref();
        text.map(read_mass)
            .transpose()
            .map_err(|error| Refusal::new("piece.weight", error))
    }

    fn read_hardware(&self) -> Result<Option<Length>, Refusal> {
        read_within("piece.hardware", self.piece.hardware.as_deref(), &HARDWARE).map(above_zero)
    }

    fn read_border(&self) -> Result<Option<Length>, Refusal> {
        read_within(
            "piece.bare_border",
            self.piece.bare_border.as_deref(),
            &BORDER,
        )
        .map(above_zero)
    }

    /// Reads the width of a moulding, two of which leave something to be seen.
    fn read_moulding(&self) -> Result<Option<Length>, Refusal> {
        let size = self.size().ok().flatten();
        let most = size.map_or(MOULDING.most, |size| {
            let widest = (size.short_side() - LEAST_SEEN) / 2.0;
            widest.max(Length::ZERO).min(MOULDING.most)
        });
        let range = LengthRange { most, ..MOULDING };
        let text = self.piece.moulding_width.as_deref();
        read_within("piece.moulding_width", text, &range)
    }

    fn ticks_refused(&self) -> Vec<Refusal> {
        let mut refusals = Refusals::default();
        if self.packed.len() > MOST_TICKS {
            let says = format!(
                "{} ticks given: a plan has at most {MOST_TICKS} steps",
                self.packed.len()
            );
            refusals.refuse("packed", says);
        }
        for (key, tick) in &self.packed {
            let plain = |text: &str| {
                (1..=LONGEST_STEP).contains(&text.len())
                    && text.chars().all(|one| one.is_ascii_graphic())
            };
            if !plain(key) || !plain(&tick.print) {
                refusals.refuse("packed", "it doesn't name a step");
            } else if tick.at.parse::<jiff::Timestamp>().is_err() {
                let says = format!(
                    "\"{}\" is not a time: write it as 2027-03-04T10:15:00Z",
                    tick.at
                );
                refusals.refuse(format!("packed.{key}.at"), says);
            }
        }
        refusals.into()
    }

    fn numbers_refused(&self) -> Vec<Refusal> {
        let piece = &self.piece;
        let mut refusals: Refusals = [
            self.read_weight().err(),
            self.read_hardware().err(),
            self.read_border().err(),
            self.read_moulding().err(),
        ]
        .into_iter()
        .flatten()
        .collect();
        if let Some(limit) = piece.limit_g.filter(|limit| !LIMITS_G.contains(limit)) {
            let (least, most) = (LIMITS_G.start(), LIMITS_G.end());
            let says = format!("{limit} is out of range: give {least} to {most} times gravity");
            refusals.refuse("piece.limit_g", says);
        }
        let counts = [
            ("piece.bearing_points", piece.bearing_points, BEARING_POINTS),
            ("piece.count", piece.count, COUNTS),
        ];
        for (field, count, range) in counts {
            if let Some(count) = count.filter(|count| !range.contains(count)) {
                let says = format!(
                    "{count} is out of range: give {} to {}",
                    range.start(),
                    range.end()
                );
                refusals.refuse(field, says);
            }
        }
        refusals.into()
    }

    /// Returns where it goes, once the country is known.
    #[must_use]
    pub fn destination(&self) -> Option<Destination> {
        let Buyer {
            country, postcode, ..
        } = &self.buyer;
        (!country.is_empty()).then(|| Destination {
            country: country.clone(),
            postcode: postcode.clone(),
        })
    }

    /// Returns where a piece that is no rectangle bears, once its sides are known.
    #[must_use]
    pub fn bears_at(&self) -> Vec<BearingPoint> {
        let PieceInputs {
            outline,
            bearing_points,
            ..
        } = self.piece;
        let typed = bearing_points.filter(|count| BEARING_POINTS.contains(count));
        let size = self.size().ok().flatten();
        size.map_or_else(Vec::new, |size| {
            outline.bears_at(size, outline.bearing_points(typed))
        })
    }

    /// Returns the corners of a polygon, as shares of its size; none of any other shape.
    #[must_use]
    pub fn corners(&self) -> Vec<BearingPoint> {
        let PieceInputs {
            outline,
            bearing_points,
            ..
        } = self.piece;
        let typed = bearing_points.filter(|count| BEARING_POINTS.contains(count));
        outline.corners(outline.bearing_points(typed))
    }

    /// Returns the carrier that the chosen carton belongs to.
    pub(super) fn saved_carrier(&self) -> Option<&str> {
        let carrier = self.choices.saved_carrier.as_deref()?.trim();
        (!carrier.is_empty()).then_some(carrier)
    }

    /// Returns the day that it is promised for.
    #[must_use]
    pub fn promised_for(&self) -> Option<Date> {
        read_day("promised", self.promised.as_deref()).ok()?
    }

    /// Returns the month in which it is promised, for the season on the way.
    #[must_use]
    pub fn month(&self) -> Option<i8> {
        self.promised_for().map(Date::month)
    }

    /// Returns the names of the fields that a plan still needs, in the order of the form.
    #[must_use]
    pub fn missing(&self) -> Vec<String> {
        let piece = &self.piece;
        let is_sheet = piece
            .construction
            .is_some_and(|construction| construction.sheet_depth().is_some());
        [
            ("piece.construction", piece.construction.is_none()),
            ("piece.width", piece.width.is_none()),
            ("piece.height", piece.height.is_none()),
            ("piece.depth", piece.depth.is_none() && !is_sheet),
            (
                "piece.medium",
                piece.medium.is_none() && piece.construction != Some(Construction::Mirror),
            ),
        ]
        .into_iter()
        .filter(|(_, missing)| *missing)
        .map(|(field, _)| field.to_owned())
        .chain(self.others_missing())
        .collect()
    }

    /// Returns the piece that the shipment began with, when nothing of it or of any other is missing.
    ///
    /// # Errors
    /// A [`Refusal`] for each side that is not understood or out of range, or for the day.
    pub fn piece(&self) -> Result<Option<Piece>, Vec<Refusal>> {
        let inputs = &self.piece;
        let (Some(construction), Some(size)) = (inputs.construction, self.size()?) else {
            return Ok(None);
        };
        let mirror = construction == Construction::Mirror;
        if inputs.medium.is_none() && !mirror {
            return Ok(None);
        }
        if self.other_pieces()?.is_none() {
            return Ok(None);
        }
        self.known_piece(construction, size)
            .map(Some)
            .map_err(|refusal| vec![refusal])
    }

    fn known_piece(&self, construction: Construction, size: PieceSize) -> Result<Piece, Refusal> {
        let inputs = &self.piece;
        let laid_on = read_day("piece.varnished_on", inputs.varnished_on.as_deref())?;
        Ok(Piece {
            outline: inputs.outline,
            bearing_points: inputs.bearing_points,
            paint: inputs.paint,
            finished: read_day("piece.finished", inputs.finished.as_deref())?,
            varnish: inputs.varnished.then_some(Varnish { laid_on }),
            condition: inputs.condition,
            coated_glass: inputs.coated_glass,
            antistatic: inputs.antistatic,
            frame_holds: inputs.frame_holds,
            frame: inputs.frame,
            bare_border: self.read_border()?,
            moulding_width: self.read_moulding()?,
            hardware: self.read_hardware()?,
            certificate: inputs.certificate,
            top: inputs.top,
            weighed: self.read_weight()?,
            limit: inputs.limit_g.map(Shock::times_gravity),
            value: self.read_value()?.and_then(|value| value.to_f64()),
            pane: inputs.pane,
            irreplaceable: inputs.irreplaceable,
            count: inputs.count.unwrap_or(1),
            ..Piece::new(
                construction,
                size,
                inputs
                    .medium
                    .filter(|_| construction != Construction::Mirror),
            )
        })
    }

    /// Returns the size of the piece, once its sides are given; a loose sheet needs no depth.
    ///
    /// # Errors
    /// A [`Refusal`] for each side that is not understood or out of range.
    pub fn size(&self) -> Result<Option<PieceSize>, Vec<Refusal>> {
        let mut refusals = Refusals::default();
        let mut read = |field: &str, text: &Option<String>| {
            let typed = TypedLength::read(text.as_deref()?, LengthUnit::Mm);
            typed.map_err(|error| refusals.refuse(field, error)).ok()
        };
        let sides = [
            read("piece.width", &self.piece.width),
            read("piece.height", &self.piece.height),
            read("piece.depth", &self.piece.depth),
        ];
        refusals.done()?;
        PieceSize::read(
            sides.each_ref().map(Option::as_ref),
            self.piece.construction,
        )
    }

    fn days_refused(&self, today: Date) -> Vec<Refusal> {
        let promised = read_day("promised", self.promised.as_deref());
        let past = |field: &'static str, text: Option<&str>, what: &str| {
            read_day(field, text).and_then(|day| match day {
                Some(day) if day > today => Err(Refusal::new(
                    field,
                    format!("{day} is in the future: give the day on which the piece was {what}"),
                )),
                _ => Ok(day),
            })
        };
        let finished = past("piece.finished", self.piece.finished.as_deref(), "finished");
        let varnished = past(
            "piece.varnished_on",
            self.piece.varnished_on.as_deref(),
            "varnished",
        );
        [promised.err(), finished.err(), varnished.err()]
            .into_iter()
            .flatten()
            .collect()
    }

    fn texts_refused(&self) -> Vec<Refusal> {
        let mut refusals: Refusals = refused_text("title", &self.title).into_iter().collect();
        refusals.extend(self.buyer.refused("buyer"));
        refusals.extend(self.order.refused());
        refusals.extend(refused_long("piece.notes", &self.piece.notes, LONGEST_NOTE));
        for (code, reason) in &self.lifted {
            let field = format!("lifted.{code}");
            refusals.extend(refused_long(&field, reason, LONGEST_REASON));
            if reason.trim().chars().count() < SHORTEST_REASON {
                refusals.refuse(
                    field,
                    "write the reason in a few words: it is kept on record",
                );
            }
        }
        for (code, note) in &self.lifted_for {
            refusals.extend(refused_text(&format!("lifted_for.{code}"), note));
        }
        refusals.into()
    }
}

/// Reads an amount from 0 to 1 000 000 000; nothing for an empty text.
pub(super) fn read_amount(field: &str, text: Option<&str>) -> Result<Option<Decimal>, Refusal> {
    let Some(text) = text.filter(|text| !text.trim().is_empty()) else {
        return Ok(None);
    };
    if let Some(ambiguous) = AmbiguousComma::in_number(text) {
        return Err(Refusal::new(field, ambiguous));
    }
    let amount: Option<Decimal> = text.trim().replace(',', ".").parse().ok();
    match amount {
        Some(amount) if (Decimal::ZERO..=HIGHEST_VALUE).contains(&amount) => Ok(Some(amount)),
        _ => Err(Refusal::new(
            field,
            format!(
                "\"{text}\" is not a value: write an amount from 0 to {HIGHEST_VALUE}, as 640 or 640.00"
            ),
        )),
    }
}

/// Writes the unit after a bare weight, so that it reads the same when the studio weighs otherwise.
pub(super) fn write_mass_unit(text: &mut Option<String>, bare: MassUnit) {
    if let Some(text) = text
        && text.trim().replace(',', ".").parse::<f64>().is_ok()
    {
        *text = format!("{} {}", text.trim(), bare.symbol());
    }
}

pub(super) fn blank_is_none(text: &mut Option<String>) {
    if text.as_deref().is_some_and(|text| text.trim().is_empty()) {
        *text = None;
    }
}

/// A paragraph may have line breaks and tabs.
pub(super) fn refused_long(field: &str, text: &str, longest: usize) -> Option<Refusal> {
    if let Some(unreadable) = UnreadableText::in_paragraph(text) {
        return Some(Refusal::new(field, unreadable));
    }
    let length = text.chars().count();
    (length > longest).then(|| {
        Refusal::new(
            field,
            format!("{length} characters are too many: write at most {longest}"),
        )
    })
}

#[cfg(test)]
mod tests {
    use jiff::civil::date;

    use super::*;

    fn canvas() -> ShipmentInputs {
        ShipmentInputs {
            title: "Kelp Ladder".into(),
            piece: PieceInputs {
                construction: Some(Construction::StretchedCanvas),
                width: Some("900".into()),
                height: Some("1200".into()),
                depth: Some("38".into()),
                medium: Some(Medium::Acrylic),
                ..PieceInputs::default()
            },
            ..ShipmentInputs::default()
        }
    }

    #[track_caller]
    fn refused(inputs: ShipmentInputs, field: &str, says: &str) {
        let refusals = inputs
            .checked(LengthUnit::Mm, date(2026, 11, 23))
            .expect_err("something is wrong");
        let found: Vec<&str> = refusals
            .iter()
            .map(|refusal| refusal.field.as_str())
            .collect();
        assert_eq!(found, [field], "{refusals:?}");
        assert!(
            refusals[0].message.contains(says),
            "{}",
            refusals[0].message
        );
    }

    #[test]
    fn bare_numbers_take_the_unit_they_were_typed_in() {
        let checked = canvas()
            .checked(LengthUnit::Cm, date(2026, 11, 23))
            .map(|inputs| inputs.piece.depth);
        // 1200 cm is 12 m, over the most; so the same numbers are refused in centimetres.
        assert!(checked.is_err());
        let checked = canvas()
            .checked(LengthUnit::Mm, date(2026, 11, 23))
            .expect("a canvas");
        assert_eq!(checked.piece.width.as_deref(), Some("900 mm"));
    }

    #[test]
    fn a_bare_weight_is_in_what_the_studio_weighs_in() {
        let american = Bare {
            length: LengthUnit::Mm,
            mass: MassUnit::Lb,
        };
        // 7.5 × 453.59237 = 3401.9 g; 3.2 kg is 3200 g in any studio.
        for (typed, kept, grams) in [
            ("7.5", "7.5 lb", 3401.9),
            ("7,5", "7,5 lb", 3401.9),
            ("3.2 kg", "3.2 kg", 3200.0),
        ] {
            let mut inputs = canvas();
            inputs.piece.weight = Some(typed.into());
            let checked = inputs
                .checked(american, date(2026, 11, 23))
                .expect("a weight");
            assert_eq!(checked.piece.weight.as_deref(), Some(kept));
            assert_eq!(read_mass(kept), Ok(Mass::g(grams)));
        }
        let mut inputs = canvas();
        inputs.piece.weight = Some("3,2".into());
        let checked = inputs
            .checked(LengthUnit::Mm, date(2026, 11, 23))
            .expect("a weight");
        assert_eq!(checked.piece.weight.as_deref(), Some("3,2 kg"));
    }

    #[test]
    fn a_piece_that_is_half_typed_is_not_an_error() {
        let mut inputs = canvas();
        inputs.piece.height = Some("  ".into());
        let checked = inputs
            .checked(LengthUnit::Mm, date(2026, 11, 23))
            .expect("half a canvas");
        assert_eq!(checked.missing(), ["piece.height"]);
        assert_eq!(checked.piece(), Ok(None));
    }

    #[test]
    fn nonsense_is_refused_at_its_field() {
        let with = |change: fn(&mut ShipmentInputs)| {
            let mut inputs = canvas();
            change(&mut inputs);
            inputs
        };
        refused(
            with(|inputs| inputs.piece.width = Some("wide".into())),
            "piece.width",
            "not understood",
        );
        refused(
            with(|inputs| inputs.piece.width = Some("0".into())),
            "piece.width",
            "from 20",
        );
        refused(
            with(|inputs| (inputs.piece.width, inputs.piece.height) = (Some("40 m".into()), None)),
            "piece.width",
            "crating service",
        );
        refused(
            with(|inputs| inputs.piece.finished = Some("2026-11-24".into())),
            "piece.finished",
            "in the future",
        );
        refused(
            with(|inputs| inputs.promised = Some("soon".into())),
            "promised",
            "not a date",
        );
        refused(
            with(|inputs| inputs.value = Some("-3".into())),
            "value",
            "from 0",
        );
        refused(
            with(|inputs| inputs.value = Some("1,200".into())),
            "value",
            "could be 1200 or 1.2",
        );
        refused(
            with(|inputs| inputs.piece.weight = Some("1,200 g".into())),
            "piece.weight",
            "could be 1200 or 1.2",
        );
        refused(
            with(|inputs| inputs.title = "x".repeat(121)),
            "title",
            "121 characters",
        );
        refused(
            with(|inputs| inputs.buyer.name = "a\u{7}b".into()),
            "buyer.name",
            "control character",
        );
        refused(
            with(|inputs| inputs.buyer.country = "Saltmark".into()),
            "buyer.country",
            "two capital letters",
        );
        refused(
            with(|inputs| inputs.choices.clearance = Some("wide".into())),
            "choices.clearance",
            "not understood",
        );
    }

    #[test]
    fn markup_in_a_name_is_only_text() {
        let mut inputs = canvas();
        inputs.buyer.name = "<script>alert(1)</script>".into();
        assert!(inputs.checked(LengthUnit::Mm, date(2026, 11, 23)).is_ok());
    }

    #[test]
    fn today_is_early_enough_to_be_finished() {
        let mut inputs = canvas();
        inputs.piece.finished = Some("2026-11-23".into());
        assert!(inputs.checked(LengthUnit::Mm, date(2026, 11, 23)).is_ok());
    }
}
