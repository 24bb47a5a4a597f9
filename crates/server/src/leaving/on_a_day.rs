//! What leaves on a day, carrier by carrier, booked or not.

use hummock_core::{
    plan::FIRST,
    shipment::{Mark, ShipmentInputs, Stop, Summary, WorkLine},
};
use hummock_store::{HouseAt, Place};
use jiff::civil::Date;
use uuid::Uuid;

use super::views::{CollectionView, LeavingParcel};
use crate::{desk::Desk, outside::Carriers, problem::Problem};

/// A shipment that leaves, as it is stored.
struct Leaving<'a> {
    id: Uuid,
    version: i32,
    inputs: &'a ShipmentInputs,
    summary: Option<&'a Summary>,
    tracking: Option<String>,
    /// As `gannet-post/parcel`, or the id of a quotation.
    service: &'a str,
    booked: bool,
}

/// Whose price a quotation is, in the place of a tariff's id.
const QUOTED: &str = "quoted";

impl Desk {
    /// Returns what leaves on a day, carrier by carrier: what is booked for it, then what goes without a booking.
    pub(crate) async fn leaving_on(&self, on: Date) -> Result<Vec<CollectionView>, Problem> {
        let house = self.house().await?;
        let mut collections: Vec<CollectionView> = Vec::new();
        for booking in self.store.leaving_on(on).await? {
            let Some(stored) = self.store.shipment(booking.shipment).await? else {
                continue;
            };
            if stored.place == Place::Bin {
                continue;
            }
            let leaving = Leaving {
                id: stored.id,
                version: stored.version,
                inputs: &stored.inputs,
                summary: stored.computed.summary.as_ref(),
                tracking: stored.tracking.clone(),
                service: &booking.service,
                booked: true,
            };
            leaving.join(&mut collections, &house);
        }
        let today = on == self.clock.today();
        let carriers = self.carriers().await?;
        for listed in self.store.unbooked_on(on, today).await? {
            let Some(service) = listed.inputs.service.as_deref() else {
                continue;
            };
            let leaving = Leaving {
                id: listed.id,
                version: listed.version,
                inputs: &listed.inputs,
                summary: listed.summary.as_ref(),
                tracking: None,
                service,
                booked: false,
            };
            if leaving.goes_without_a_booking(on, &carriers) {
                leaving.join(&mut collections, &house);
            }
        }
        Ok(collections)
    }
}

impl Leaving<'_> {
    /// Tells whether it leaves on a day although no carrier here was asked: its carrier can't be asked or gave a number elsewhere, and
    /// where no day was chosen for it, it is packed and its service takes it.
    fn goes_without_a_booking(&self, on: Date, carriers: &Carriers) -> bool {
        let sending = &self.inputs.sending;
        if self.inputs.handed_over().is_some() {
            return true;
        }
        let elsewhere = !sending.tracking.trim().is_empty() || sending.no_number;
        if !elsewhere && carriers.is_there(self.tariff()) {
            return false;
        }
        let takes = self.summary.and_then(|summary| summary.best.as_ref());
        let packed = || {
            let line = WorkLine::on(on, self.inputs, self.summary);
            let mut stops = line.stops.into_iter();
            stops.any(|state| state.stop == Stop::Pack && state.mark == Mark::Done)
        };
        takes.is_some_and(|best| best.chosen) && (sending.on.is_some() || packed())
    }

    fn tariff(&self) -> &str {
        self.service
            .split_once('/')
            .map_or(self.service, |(tariff, _)| tariff)
    }

    /// Puts it among the parcels of its carrier; quotations of one name are one carrier.
    fn join(self, collections: &mut Vec<CollectionView>, house: &HouseAt) {
        let known = house.house.tariff_and_service(self.service);
        let quoted = self.inputs.quotation(self.service);
        let carrier = match (known, quoted) {
            (Some((tariff, _)), _) => tariff.carrier.clone(),
            (None, Some(quoted)) => quoted.from.clone(),
            (None, None) => self.tariff().to_owned(),
        };
        let tariff = match quoted {
            Some(_) => format!("{QUOTED}/{carrier}"),
            None => self.tariff().to_owned(),
        };
        let service = match known {
            Some((_, service)) => service.name.clone(),
            None if quoted.is_some() => String::new(),
            None => self
                .service
                .split_once('/')
                .map_or_else(String::new, |(_, service)| service.to_owned()),
        };
        let mass = self.summary.map_or(0.0, |summary| {
            let read = summary.weighed.filter(|weighed| weighed.stands);
            read.map_or(summary.weight.mass, |weighed| weighed.mass)
                .as_g()
        });
        let buyer = &self.inputs.buyer;
        let to = [buyer.name.trim(), buyer.town.trim()]
            .into_iter()
            .filter(|text| !text.is_empty());
        let typed = self.inputs.sending.tracking.trim().to_owned();
        let parcel = LeavingParcel {
            shipment: self.id,
            title: self.inputs.title_of(FIRST),
            to: to.collect::<Vec<_>>().join(", "),
            service,
            tracking: self.tracking.unwrap_or(typed),
            booked: self.booked,
            mass_g: mass,
            handed_over: self.inputs.sending.handed_over.clone(),
            version: self.version,
        };
        match collections.iter_mut().find(|known| known.tariff == tariff) {
            Some(collection) => {
                collection.mass_g += mass;
                collection.parcels.push(parcel);
            }
            None => collections.push(CollectionView {
                tariff,
                carrier,
                parcels: vec![parcel],
                mass_g: mass,
            }),
        }
    }
}
