//! A shipment with all that its leaving needs; of a parcel that left, as that was on the day.

use std::sync::Arc;

use hummock_core::{
    freight::{Handover, OnItsWay, Quote, Service, Tariff},
    place::meets_customs,
    quantity::{Currency, Mass, Telling},
    sending::{AddressGap, address_print, papers::Ends},
    shipment::{House, SheetEnds, Workings, pack_sheet},
};
use hummock_store::{HouseAt, Settings, Stored, Written};
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};

use super::views::ParcelPaper;
use crate::{
    left::{KeptPaper, Record},
    problem::Problem,
    shipments::{Known, gaps_between},
};

/// What papers and pages of a parcel need beside its inputs. They are kept with the parcel, so that a sender who moves, or a carrier who
/// changes its terms, changes nothing of what has left.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct Facts {
    /// Who sends, and how quantities are told.
    pub(crate) settings: Settings,
    /// The money that the studio counted in.
    pub(crate) currency: Currency,
    /// The tariff of its service, where it has one.
    pub(crate) tariff: Option<Tariff>,
}

impl Facts {
    fn of(settings: Settings, house: &House, service: Option<&str>) -> Self {
        let known = service.and_then(|service| house.tariff_and_service(service));
        Self {
            settings,
            currency: house.catalogue.currency,
            tariff: known.map(|(tariff, _)| tariff.clone()),
        }
    }

    /// Returns the service of an id with its tariff, where that is the one that is kept.
    pub(crate) fn service(&self, id: &str) -> Option<(&Tariff, &Service)> {
        let (tariff, service) = id.split_once('/')?;
        let tariff = self.tariff.as_ref().filter(|kept| kept.id == tariff)?;
        let mut services = tariff.services.iter();
        Some((tariff, services.find(|known| known.id == service)?))
    }
}

/// The service that was chosen, as its quote tells it.
#[derive(Debug, Clone, Deserialize)]
pub(crate) struct Chosen {
    pub(super) id: String,
    carrier: String,
    service: String,
    days_from: u32,
    days_to: u32,
    pub(super) handover: Handover,
    pub(super) tracked: bool,
}

/// What of a plan's quotes says which service was chosen.
#[derive(Deserialize)]
struct Quoted {
    quotes: Vec<Value>,
}

impl Chosen {
    /// Returns the service of an id among what was quoted, if it takes the parcel.
    fn among(worked: &Written, id: &str) -> Option<Self> {
        let Quoted { quotes } = worked.parts()?;
        let quote = quotes.iter().find(|quote| quote["id"] == id)?;
        let takes = quote["offer"]["kind"] == "priced";
        takes.then(|| Self::deserialize(quote).ok()).flatten()
    }
}

/// What follows from a shipment's inputs today.
#[derive(Debug)]
pub(crate) struct Live {
    pub(crate) house: Arc<HouseAt>,
    pub(crate) worked: Workings,
}

/// What is known of a shipment that is to leave, or has left.
#[derive(Debug)]
pub(crate) struct ToLeave {
    pub(crate) stored: Stored,
    pub(crate) facts: Facts,
    chosen: Option<Chosen>,
    /// The house and the plan of today; `None` of a parcel that left.
    live: Option<Live>,
    /// The handover record; `None` of a shipment at work, and where the record is missing.
    record: Option<Arc<Record>>,
}

impl ToLeave {
    /// Gathers what a shipment needs, by the house and the plan of today.
    pub(super) fn at_work(stored: Stored, settings: Settings, live: Live) -> Self {
        let service = stored.inputs.service.clone();
        Self {
            facts: Facts::of(settings, &live.house.house, service.as_deref()),
            chosen: service.and_then(|id| Chosen::among(&stored.computed.worked, &id)),
            stored,
            live: Some(live),
            record: None,
        }
    }

    /// Gathers what a parcel that left needs, from its handover record; from its row if the record is missing.
    pub(super) fn left(
        stored: Stored,
        record: Option<Arc<Record>>,
        (settings, house): (Settings, &HouseAt),
    ) -> Self {
        let service = stored.inputs.service.clone();
        let facts = match &record {
            Some(record) => record.facts.clone(),
            None => Facts::of(settings, &house.house, service.as_deref()),
        };
        Self {
            facts,
            chosen: service.and_then(|id| Chosen::among(&stored.computed.worked, &id)),
            stored,
            live: None,
            record,
        }
    }

    pub(crate) const fn live(&self) -> Option<&Live> {
        self.live.as_ref()
    }

    pub(crate) fn record(&self) -> Option<&Record> {
        self.record.as_deref()
    }

    /// Returns a paper as it was kept.
    pub(crate) fn kept_paper(&self, key: &str) -> Option<&KeptPaper> {
        self.record.as_ref()?.told.papers.get(key)
    }

    /// Returns both ends, as papers have them.
    pub(crate) fn ends(&self) -> Ends {
        let settings = &self.facts.settings;
        let (from, to) = (&settings.sender.address, &self.stored.inputs.buyer);
        Ends {
            from: settings.lines(from, self.abroad()),
            to: settings.lines(to, self.abroad()),
        }
    }

    /// Returns how quantities are told.
    pub(crate) fn telling(&self) -> Telling {
        let settings = &self.facts.settings;
        settings.manners.telling(settings.unit)
    }

    /// Returns the money that its sums are in: of what left, the one that it left in.
    pub(crate) fn money(&self) -> Currency {
        self.stored.inputs.money(&self.facts.currency)
    }

    pub(crate) fn abroad(&self) -> bool {
        self.facts
            .settings
            .is_abroad(&self.stored.inputs.buyer.country)
    }

    /// Tells whether it meets customs on its way.
    pub(crate) fn customs(&self) -> bool {
        let sender = &self.facts.settings.sender.address;
        meets_customs(sender, &self.stored.inputs.buyer)
    }

    pub(super) fn gaps(&self) -> Vec<AddressGap> {
        gaps_between(&self.facts.settings, &self.stored.inputs.buyer)
    }

    pub(super) fn print(&self) -> String {
        let sender = &self.facts.settings.sender.address;
        address_print(sender, &self.stored.inputs.buyer)
    }

    /// The service that was chosen, where it takes the parcel.
    pub(crate) const fn chosen(&self) -> Option<&Chosen> {
        self.chosen.as_ref()
    }

    /// Returns the chosen service with its price of today; `None` of a parcel that left.
    pub(crate) fn quote(&self) -> Option<&Quote> {
        let chosen = self.chosen()?;
        let mut quotes = self.live.as_ref()?.worked.quotes.iter();
        quotes.find(|quote| quote.id == chosen.id)
    }

    pub(crate) fn by_tariff(&self) -> Option<(&Tariff, &Service)> {
        self.facts.service(&self.chosen()?.id)
    }

    /// Carrier and service, by their names.
    pub(crate) fn service_called(&self) -> String {
        match (&self.stored.handed, self.chosen()) {
            (Some(handed), _) => {
                let named = [handed.carrier.as_deref(), handed.service_name.as_deref()];
                named.into_iter().flatten().collect::<Vec<_>>().join(" ")
            }
            (None, Some(chosen)) => format!("{} {}", chosen.carrier, chosen.service),
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
        let worked = &self.live()?.worked;
        let found = worked.found.as_ref().filter(|found| found.stands);
        let planned = worked.plan.as_ref().map(|plan| plan.tally.weight.mass);
        found.and_then(|found| found.mass).or(planned)
    }

    /// When it leaves, and when it arrives by its carrier's calendar.
    pub(super) fn way(&self, on: Date) -> Option<OnItsWay> {
        let chosen = self.chosen()?;
        let days = (chosen.days_from, chosen.days_to);
        Some(match self.by_tariff() {
            Some((tariff, service)) => tariff.on_its_way(service, days, on),
            None => OnItsWay::from_working_day(days, on),
        })
    }

    /// Returns what its pack sheet says.
    ///
    /// # Errors
    /// A [`Problem`] when there is no plan to pack by, or none that is known any more.
    pub(crate) fn pack_sheet(&self, known: &Known) -> Result<Value, Problem> {
        let live = self.live();
        let live = live.ok_or_else(|| Problem::not_found("pack sheet that was kept of it"))?;
        let Ends { to, from } = self.ends();
        let ends = SheetEnds {
            to: &to,
            from: &from,
            around: known.circumstances(),
        };
        let sheet = pack_sheet((&self.stored.inputs, ends), &live.house.house)?;
        let sheet = sheet.ok_or_else(|| Problem::not_found("plan of it yet"))?;
        Ok(json!({ "studio": self.facts.settings.name, "sheet": sheet }))
    }

    /// Returns the papers that it can have.
    pub(super) fn papers(&self) -> Vec<ParcelPaper> {
        let inputs = &self.stored.inputs;
        let planned = self.live().is_some_and(|live| live.worked.plan.is_some());
        let is_kept = |paper: ParcelPaper| self.kept_paper(paper.key()).is_some();
        let others = || inputs.others.values();
        ParcelPaper::ALL
            .into_iter()
            .filter(|paper| match paper {
                ParcelPaper::Label | ParcelPaper::LabelA4 => self.tracking().is_some(),
                ParcelPaper::Addresses => !inputs.buyer.country.is_empty(),
                ParcelPaper::Slip | ParcelPaper::ThankYou | ParcelPaper::Condition => true,
                ParcelPaper::Certificate => {
                    inputs.piece.certificate || others().any(|other| other.piece.certificate)
                }
                ParcelPaper::Customs => self.customs(),
                // A shipment at work has marks before it has a plan, by what is in it.
                ParcelPaper::Marks => self.record().is_none() || is_kept(*paper),
                ParcelPaper::Crating => planned || is_kept(*paper),
                ParcelPaper::Claim => self.stored.handed.is_some(),
            })
            .collect()
    }
}
