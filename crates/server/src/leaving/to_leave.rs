//! A shipment with all that its leaving needs.

use hummock_core::{
    freight::{OnItsWay, Quote, Service, Tariff},
    place::meets_customs,
    quantity::{Currency, Mass},
    sending::{AddressGap, address_print, papers::Ends},
    shipment::Workings,
};
use hummock_store::{HouseAt, Settings, Stored};
use jiff::civil::Date;

use super::views::ParcelPaper;
use crate::shipments::gaps_between;

/// What is known of a shipment that is to leave.
pub(crate) struct ToLeave {
    pub(crate) stored: Stored,
    pub(crate) settings: Settings,
    pub(crate) house: std::sync::Arc<HouseAt>,
    pub(crate) worked: Workings,
}

impl ToLeave {
    /// Returns both ends, as papers have them.
    pub(crate) fn ends(&self) -> Ends {
        let (from, to) = (&self.settings.sender.address, &self.stored.inputs.buyer);
        Ends {
            from: self.settings.lines(from, self.abroad()),
            to: self.settings.lines(to, self.abroad()),
        }
    }

    /// Returns the money that its sums are in: of what left, the one that it left in.
    pub(crate) fn money(&self) -> Currency {
        let own = &self.house.house.catalogue.currency;
        self.stored.inputs.money(own)
    }

    pub(crate) fn abroad(&self) -> bool {
        self.settings.is_abroad(&self.stored.inputs.buyer.country)
    }

    /// Tells whether it meets customs on its way.
    pub(crate) fn customs(&self) -> bool {
        meets_customs(&self.settings.sender.address, &self.stored.inputs.buyer)
    }

    pub(super) fn gaps(&self) -> Vec<AddressGap> {
        gaps_between(&self.settings, &self.stored.inputs.buyer)
    }

    pub(super) fn print(&self) -> String {
        address_print(&self.settings.sender.address, &self.stored.inputs.buyer)
    }

    /// The service that was chosen, as it is priced, where it takes the parcel.
    pub(crate) fn chosen(&self) -> Option<&Quote> {
        let id = self.stored.inputs.service.as_deref()?;
        let mut quotes = self.worked.quotes.iter();
        quotes.find(|quote| quote.id == id && quote.total().is_some())
    }

    pub(crate) fn by_tariff(&self) -> Option<(&Tariff, &Service)> {
        self.house.house.tariff_and_service(&self.chosen()?.id)
    }

    /// Carrier and service, by their names.
    pub(crate) fn service_called(&self) -> String {
        match (&self.stored.handed, self.chosen()) {
            (Some(handed), _) => {
                let named = [handed.carrier.as_deref(), handed.service_name.as_deref()];
                named.into_iter().flatten().collect::<Vec<_>>().join(" ")
            }
            (None, Some(quote)) => format!("{} {}", quote.carrier, quote.service),
            (None, None) => String::new(),
        }
    }

    pub(crate) fn tracking(&self) -> Option<&str> {
        let typed = self.stored.inputs.sending.tracking.trim();
        let typed = (!typed.is_empty()).then_some(typed);
        self.stored.tracking.as_deref().or(typed)
    }

    /// What the closed parcel weighs: as it was read, else as planned; of one that has left, as it was then.
    pub(crate) fn mass(&self) -> Option<Mass> {
        if let Some(handed) = &self.stored.handed {
            return handed.weighed.or(Some(handed.weight.mass));
        }
        let found = self.worked.found.as_ref().filter(|found| found.stands);
        let planned = self.worked.plan.as_ref().map(|plan| plan.tally.weight.mass);
        found.and_then(|found| found.mass).or(planned)
    }

    /// When it leaves, and when it arrives by its carrier's calendar.
    pub(super) fn way(&self, on: Date) -> Option<OnItsWay> {
        let quote = self.chosen()?;
        let days = (quote.days_from, quote.days_to);
        Some(match self.by_tariff() {
            Some((tariff, service)) => tariff.on_its_way(service, days, on),
            None => OnItsWay::from_working_day(days, on),
        })
    }
}

pub(super) fn papers_of(leaves: &ToLeave) -> Vec<ParcelPaper> {
    let inputs = &leaves.stored.inputs;
    let planned = leaves.worked.plan.is_some();
    let has_certificate =
        inputs.piece.certificate || inputs.others.values().any(|other| other.piece.certificate);
    [
        (ParcelPaper::Label, leaves.tracking().is_some()),
        (ParcelPaper::LabelA4, leaves.tracking().is_some()),
        (ParcelPaper::Marks, true),
        (ParcelPaper::Addresses, !inputs.buyer.country.is_empty()),
        (ParcelPaper::Slip, true),
        (ParcelPaper::ThankYou, true),
        (ParcelPaper::Certificate, has_certificate),
        (ParcelPaper::Condition, true),
        (ParcelPaper::Customs, leaves.customs()),
        (ParcelPaper::Crating, planned),
        (ParcelPaper::Claim, leaves.stored.handed.is_some()),
    ]
    .into_iter()
    .filter(|(_, there)| *there)
    .map(|(paper, _)| paper)
    .collect()
}
