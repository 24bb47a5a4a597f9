//! What is in the way of shipments: the core's one list, with what only the store knows of a shipment laid beside it.

use std::{collections::HashSet, sync::Arc};

use hummock_core::{
    place::Buyer,
    quantity::Telling,
    sending::{AddressGap, AddressOf, address_print},
    shipment::{
        Addresses, Circumstances, Matter, ShipmentInputs, Summary, Workings, against, named_short,
    },
    stock::StockItem,
    ways::{self, PlanNeeds},
};
use hummock_store::{HouseAt, Place, Settings, Stored};
use jiff::civil::Date;
use uuid::Uuid;

use super::lacking::LacksOf;
use crate::{desk::Desk, problem::Problem, rework::beside, shelves::ShelfAt};

/// A shipment of which it is asked what is in the way of it.
#[derive(Debug, Clone, Copy)]
pub(super) struct Subject<'a> {
    pub id: Uuid,
    pub version: i32,
    pub inputs: &'a ShipmentInputs,
    pub summary: Option<&'a Summary>,
}

impl Subject<'_> {
    /// Tells whether the shelf still has to give everything: nothing is cut or laid for it, and it has not left.
    pub(super) fn is_untouched(&self) -> bool {
        is_untouched(self.inputs, self.summary)
    }
}

fn is_untouched(inputs: &ShipmentInputs, summary: Option<&Summary>) -> bool {
    inputs.handed_over().is_none()
        && summary.is_some_and(|summary| {
            summary
                .packed
                .is_none_or(|packed| packed.cut + packed.laid == 0)
        })
}

/// What the store knows of some shipments.
pub(super) struct Surroundings {
    shelf: Arc<ShelfAt>,
    today: Date,
    telling: Telling,
    /// What the shelf lacks, by shipment.
    pub lacks: LacksOf,
}

/// What the store knows of one shipment, to be lent to the core.
pub(crate) struct Known {
    today: Date,
    telling: Telling,
    short: Vec<String>,
    gaps: Vec<AddressGap>,
    print: String,
}

impl Known {
    pub(crate) fn circumstances(&self) -> Circumstances<'_> {
        Circumstances {
            today: self.today,
            telling: self.telling,
            short: &self.short,
            addresses: Addresses {
                lacks: self.gaps.first().map(|gap| gap.says.as_str()),
                print: &self.print,
            },
        }
    }
}

/// What both addresses of a parcel lack.
pub(crate) fn gaps_between(settings: &Settings, buyer: &Buyer) -> Vec<AddressGap> {
    let mut gaps = settings.gaps(buyer, AddressOf::Buyer);
    gaps.extend(settings.gaps(&settings.sender.address, AddressOf::Sender));
    gaps
}

impl Surroundings {
    fn known(&self, subject: &Subject<'_>) -> Known {
        let buyer = &subject.inputs.buyer;
        let lacks = self.lacks.get(&subject.id);
        let lacks = lacks.map(|lacks| lacks.iter().map(|lack| lack.name.as_str()));
        Known {
            today: self.today,
            telling: self.telling,
            short: lacks.map(named_short).unwrap_or_default(),
            gaps: gaps_between(&self.shelf.settings, buyer),
            print: address_print(&self.shelf.settings.sender.address, buyer),
        }
    }

    pub(super) fn against(&self, subject: &Subject<'_>) -> Vec<Matter> {
        let known = self.known(subject);
        against(subject.inputs, subject.summary, &known.circumstances())
    }
}

impl Desk {
    pub(super) async fn surroundings(
        &self,
        subjects: &[Subject<'_>],
    ) -> Result<Surroundings, Problem> {
        let untouched = subjects.iter().filter(|subject| subject.is_untouched());
        let ids: Vec<Uuid> = untouched.map(|subject| subject.id).collect();
        let (shelf, taken) = self.app.jobs.shelves.now(&self.store, &ids).await?;
        self.around(subjects, shelf, &taken).await
    }

    /// Returns the shelf and the settings as they are now.
    pub(super) async fn shelf_now(&self) -> Result<Arc<ShelfAt>, Problem> {
        Ok(self.app.jobs.shelves.now(&self.store, &[]).await?.0)
    }

    /// Returns what the store knows of shipments by a shelf from which some have taken their materials.
    pub(super) async fn around(
        &self,
        subjects: &[Subject<'_>],
        shelf: Arc<ShelfAt>,
        taken: &HashSet<Uuid>,
    ) -> Result<Surroundings, Problem> {
        let house = self.house_lately().await?;
        let untaken = subjects
            .iter()
            .filter(|subject| subject.is_untouched() && !taken.contains(&subject.id));
        Ok(Surroundings {
            today: self.clock.today(),
            telling: house.house.rules.told_in,
            lacks: self.lacks_of(untaken, &house, &shelf).await,
            shelf,
        })
    }

    /// Returns what the store knows of a shipment as it is stored.
    pub(crate) async fn known_of(&self, stored: &Stored) -> Result<Known, Problem> {
        let subject = subject_of(stored);
        let around = self.surroundings(&[subject]).await?;
        Ok(around.known(&subject))
    }

    /// Returns what is in the way of a shipment at work; nothing of one that is put away.
    pub(super) async fn against(&self, stored: &Stored) -> Result<Vec<Matter>, Problem> {
        if stored.place != Place::Bench {
            return Ok(Vec::new());
        }
        let subject = subject_of(stored);
        let around = self.surroundings(&[subject]).await?;
        Ok(around.against(&subject))
    }

    /// Returns what the store knows of inputs that are not stored, of a shipment that may be.
    pub(crate) async fn known_lately(
        &self,
        inputs: &ShipmentInputs,
        worked: &Workings,
        shipment: Option<Uuid>,
    ) -> Result<Known, Problem> {
        let house = self.house_lately().await?;
        let shelf = self.app.jobs.shelves.lately(&self.store).await?;
        let today = self.clock.today();
        // Before anything is ticked there is no need to sum the ticks up.
        let untouched = match inputs.packed.is_empty() {
            true => inputs.handed_over().is_none() && worked.plan.is_some(),
            false => is_untouched(inputs, worked.summary(inputs).as_ref()),
        };
        let asks = untouched && !shelf.stock.is_empty();
        // A plan that can't be made by the house as it is lacks nothing: its Stop is told instead.
        let needs = asks
            .then(|| PlanNeeds::of((inputs, worked), &house.house).ok())
            .flatten()
            .flatten();
        let reckoned = |stock: &[StockItem]| {
            let lacking = ways::lacking_for((inputs, worked), &house.house, stock, today);
            let lines = lacking.unwrap_or_default();
            named_short(lines.iter().map(|line| line.name.as_str()))
        };
        let shelves = &self.app.jobs.shelves;
        let at = (self.studio(), house.version);
        let short = needs.map(|needs| shelves.short_of(&shelf, at, needs, reckoned));
        let mut short = short.map(|names| names.to_vec()).unwrap_or_default();
        if let Some(id) = shipment.filter(|_| !short.is_empty())
            && self.store.shelf_mark(&[id]).await?.1.contains(&id)
        {
            short.clear();
        }
        Ok(Known {
            today,
            telling: house.house.rules.told_in,
            short,
            gaps: gaps_between(&shelf.settings, &inputs.buyer),
            print: address_print(&shelf.settings.sender.address, &inputs.buyer),
        })
    }

    /// Returns what the shelf lacks for shipments; what nobody has asked yet is worked out beside the answers.
    async fn lacks_of<'a>(
        &self,
        subjects: impl Iterator<Item = &'a Subject<'a>>,
        house: &Arc<HouseAt>,
        shelf: &Arc<ShelfAt>,
    ) -> LacksOf {
        let (mut lacks, asked) = self.app.jobs.lacks.known(
            (self.studio(), house.version),
            (shelf.mark, self.clock.today()),
            subjects.map(|subject| (subject.id, subject.version, subject.inputs)),
        );
        if !asked.is_empty() {
            let kept = self.app.jobs.lacks.clone();
            let (house, shelf) = (Arc::clone(house), Arc::clone(shelf));
            let reckoned = beside(move || kept.reckoned(asked, &house.house, &shelf.stock));
            lacks.extend(reckoned.await);
        }
        lacks
    }
}

const fn subject_of(stored: &Stored) -> Subject<'_> {
    Subject {
        id: stored.id,
        version: stored.version,
        inputs: &stored.inputs,
        summary: stored.computed.summary.as_ref(),
    }
}
