//! What is asked and answered about a parcel that leaves.

use hummock_core::{
    freight::Handover,
    quantity::{Currency, Money},
    sending::{AddressGap, LeavingCheck, papers::Message},
};
use hummock_store::{Booking, BookingState};
use jiff::civil::{Date, Time};
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};
use uuid::Uuid;

use crate::{
    outside::{Booked, CarrierReach},
    slots::LeavingDay,
};

/// A parcel that is to leave.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct LeavingView {
    /// Who sends, line by line, as the custom there has it.
    pub(super) from: Vec<String>,
    /// Who gets it.
    pub(super) to: Vec<String>,
    /// What either address wants.
    pub(super) gaps: Vec<AddressGap>,
    /// What both addresses are known by: send it as `sending.addresses_read` once they were read.
    pub(super) print: String,
    /// Whether it goes to another country.
    pub(super) abroad: bool,
    /// Whether it meets customs on its way, which ask for a paper: not every border has them, and some countries have them within.
    pub(super) customs: bool,
    /// What is looked at before it leaves.
    pub(super) checks: Vec<LeavingCheck>,
    /// Whether all that is needed is so.
    pub(super) ready: bool,
    /// How it leaves with its service; `None` before one is chosen.
    pub(super) handover: Option<Handover>,
    /// Days on which it can leave, the next ones first.
    pub(super) days: Vec<LeavingDay>,
    /// What is booked until then on one of these days is fetched on it; nothing at a counter.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub(super) cut_off: Option<Time>,
    /// Whether it can be booked from here: its service has a tariff, and its carrier can be asked.
    pub(super) bookable: bool,
    /// Who answers for its carrier.
    pub(super) reach: CarrierReach,
    /// Whether the studio was read in from a backup and asks first whether it speaks to carriers.
    pub(super) held: bool,
    /// The last booking, whatever came of it.
    pub(super) booking: Option<BookingView>,
    /// A message to the buyer, ready to be copied; `None` before a service is chosen.
    pub(super) message: Option<Message>,
    /// Letters of either address that its papers would print as empty boxes; empty if they print all.
    pub(super) letters_lacking: String,
    /// The papers that it can have.
    pub(super) papers: Vec<ParcelPaper>,
}

/// A paper of a parcel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum ParcelPaper {
    /// 100 × 150 mm.
    Label,
    /// The same on A4.
    LabelA4,
    /// Handling marks for every side.
    Marks,
    /// What is in it, without a price.
    Slip,
    /// Certificates of authenticity, on the studio's own card.
    Certificate,
    /// How it looked before it was packed.
    Condition,
    /// Both addresses in large letters, to be stuck on the box.
    Addresses,
    /// A card of thanks to the buyer, on the studio's own card.
    ThankYou,
    /// For customs.
    Customs,
    /// What a crating service has to know.
    Crating,
    /// All that a carrier asks for after damage or loss.
    Claim,
}

impl ParcelPaper {
    /// All of them, in the order in which they are offered.
    pub(crate) const ALL: [Self; 11] = [
        Self::Label,
        Self::LabelA4,
        Self::Marks,
        Self::Addresses,
        Self::Slip,
        Self::ThankYou,
        Self::Certificate,
        Self::Condition,
        Self::Customs,
        Self::Crating,
        Self::Claim,
    ];

    /// Returns by what name a record keeps it.
    pub(crate) const fn key(self) -> &'static str {
        match self {
            Self::Label => "label",
            Self::LabelA4 => "label_a4",
            Self::Marks => "marks",
            Self::Addresses => "addresses",
            Self::Slip => "slip",
            Self::ThankYou => "thank_you",
            Self::Certificate => "certificate",
            Self::Condition => "condition",
            Self::Customs => "customs",
            Self::Crating => "crating",
            Self::Claim => "claim",
        }
    }

    /// Tells whether a plan says something of it.
    pub(crate) const fn follows_the_plan(self) -> bool {
        matches!(
            self,
            Self::Marks | Self::Slip | Self::Customs | Self::Crating
        )
    }
}

/// A parcel that is to leave as it stands, or as it was told on the day on which it left.
#[derive(Debug, Serialize)]
#[serde(untagged)]
pub(crate) enum LeavingTold {
    Now(Box<LeavingView>),
    Then(serde_json::Value),
}

/// How a booking stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum BookingStands {
    /// The carrier was asked and has not answered; it is asked again by itself, and books once.
    Asked,
    /// It is booked.
    Booked,
    /// The carrier does not take it.
    Refused,
    /// The carrier was asked to forget it.
    Cancelling,
    /// It is booked no more.
    Cancelled,
}

/// What a carrier was asked to book.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct BookingView {
    /// The id of the booking.
    pub(super) id: Uuid,
    /// As `gannet-post/parcel`.
    pub(super) service: String,
    /// How it stands.
    pub(super) state: BookingStands,
    /// The day on which it leaves.
    pub(super) on: String,
    /// What it is followed by.
    pub(super) tracking: Option<String>,
    /// What the carrier takes, in its own money.
    pub(super) total: Option<Money>,
    /// What its tariff said when it was booked.
    pub(super) by_tariff: Option<Money>,
    /// Whether these two differ.
    pub(super) differs: bool,
    /// Why it does not take it.
    pub(super) says: Option<String>,
}

/// What is booked.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct BookRequest {
    /// Chosen by the caller: asked again by it, it is the same booking.
    pub(super) id: Uuid,
    /// The version of the shipment that was looked at.
    pub(super) version: i32,
    /// The day on which it leaves.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    pub(super) on: Date,
}

/// Which day.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct DayQuery {
    /// As 2027-03-05.
    #[cfg_attr(feature = "schema", param(value_type = String, format = Date))]
    pub(crate) on: Date,
}

/// What leaves on a day with one carrier.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CollectionView {
    /// The carrier's tariff.
    pub(crate) tariff: String,
    /// Its name.
    pub(crate) carrier: String,
    /// Every parcel.
    pub(crate) parcels: Vec<LeavingParcel>,
    /// What they weigh together.
    pub(super) mass_g: f64,
}

/// A parcel that leaves on a day.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct LeavingParcel {
    /// Its shipment.
    pub(crate) shipment: Uuid,
    /// The piece.
    pub(crate) title: String,
    /// Who gets it, and where.
    pub(crate) to: String,
    /// The service.
    pub(crate) service: String,
    /// What it is followed by.
    pub(crate) tracking: String,
    /// Whether a carrier holds a booking of it; otherwise its number, or none, was typed.
    pub(super) booked: bool,
    /// What it weighs: as the scale read it, else as planned.
    pub(crate) mass_g: f64,
    /// The day on which it was handed over; `None` before that.
    pub(super) handed_over: Option<String>,
    /// The version of the shipment, to hand it over by.
    pub(super) version: i32,
}

impl BookingView {
    pub(super) fn of(booking: Booking) -> Self {
        let answer: Option<Booked> = booking
            .answer
            .and_then(|answer| serde_json::from_value(answer).ok());
        let money = |amount: Decimal, code: &str| {
            let currency = Currency::try_from(code.to_owned()).ok()?;
            Some(Money::new(amount, &currency))
        };
        let asked = &booking.question["by_tariff"];
        let by_tariff = asked["amount"]
            .as_str()
            .and_then(|amount| amount.parse().ok())
            .zip(asked["currency"].as_str())
            .and_then(|(amount, code)| money(amount, code));
        let total = answer
            .as_ref()
            .and_then(|booked| money(booked.total, &booked.currency));
        let stands = match booking.state {
            BookingState::Asked => BookingStands::Asked,
            BookingState::Booked => BookingStands::Booked,
            BookingState::Refused => BookingStands::Refused,
            BookingState::Cancelling => BookingStands::Cancelling,
            BookingState::Cancelled => BookingStands::Cancelled,
        };
        Self {
            id: booking.id,
            service: booking.service,
            state: stands,
            on: booking.leaves_on.to_string(),
            tracking: answer.map(|booked| booked.tracking),
            differs: total.is_some() && total != by_tariff,
            total,
            by_tariff,
            says: booking.says,
        }
    }
}
