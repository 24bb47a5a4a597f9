//! What a studio works with, and what of it a shipment follows.

use std::sync::Arc;

use jiff::civil::DateTime;
use rust_decimal::prelude::ToPrimitive as _;

use super::{OtherPiece, ShipmentInputs};
use crate::{
    Refusal, Refusals,
    freight::{Service, Tariff},
    house::{BeginQuestion, Beginning, Choices, HouseRules, preset_choices},
    material::Catalogue,
    odds::{PieceClass, Travels, WayRisk},
    piece::{Construction, Piece},
    place::{Buyer, meets_customs},
    plan::{
        Detail, Finding, FindingLevel, Laid, Plan, Recipe, References, Together, carriage_of,
        sheet_may_touch, travels,
    },
};

/// What a studio works with: its rules, its shelf and its carriers.
#[derive(Debug, Clone)]
pub struct House {
    /// Its rules.
    pub rules: HouseRules,
    /// Its shelf.
    pub catalogue: Catalogue,
    /// Its carriers' tariffs.
    pub tariffs: Vec<Tariff>,
    /// Presets of its own.
    pub presets: Vec<HouseRules>,
    /// The Standard packs that plans are compared with, kept from one plan to the next.
    pub references: Arc<References>,
    /// What day and time it is where the studio is; `None` where no service is to be too late.
    pub now: Option<DateTime>,
}

/// A shipment's piece, with the rules that it follows.
#[derive(Debug)]
pub(crate) struct Commission<'a> {
    pub(super) house: &'a House,
    pub piece: Piece,
    /// All pieces, where there are several that are not all alike.
    pub(super) together: Option<Together>,
    /// Whether several were typed one by one that are all alike: they are packed as a set.
    alike: bool,
    /// The house's rules with what the shipment chose, and started from.
    pub rules: HouseRules,
    /// What it started from.
    pub began: Beginning,
    /// How much of the plan is told.
    pub detail: Detail,
    choices: Choices,
}

impl House {
    /// Returns the service of an id, as `gannet-post/tracked`.
    #[must_use]
    pub fn service(&self, id: &str) -> Option<&Service> {
        self.tariff_and_service(id).map(|(_, service)| service)
    }

    /// Returns the service of an id with the tariff that it stands in.
    #[must_use]
    pub fn tariff_and_service(&self, id: &str) -> Option<(&Tariff, &Service)> {
        let (tariff, service) = id.split_once('/')?;
        let tariff = self.tariffs.iter().find(|known| known.id == tariff)?;
        let service = tariff.services.iter().find(|known| known.id == service)?;
        Some((tariff, service))
    }

    /// Tells whether a shipment crosses a border of customs, from the country of the studio.
    pub(super) fn meets_customs(&self, inputs: &ShipmentInputs) -> bool {
        let home = Buyer {
            country: self.rules.home.clone(),
            ..Buyer::default()
        };
        meets_customs(&home, &inputs.buyer)
    }

    /// Returns the way that a shipment goes with a service: the service's own route where it names one, else by
    /// the destination.
    #[must_use]
    pub fn way(&self, inputs: &ShipmentInputs, service: Option<&Service>) -> WayRisk {
        let tables = &self.rules.odds;
        let way = tables.way_to(
            &self.rules.home,
            inputs.destination().as_ref(),
            inputs
                .month()
                .or_else(|| self.now.map(|now| now.date().month())),
        );
        let Some(service) = service else { return way };
        let way = service.route.map_or(way, |route| WayRisk {
            wet: way.wet,
            hot: way.hot,
            ..tables.played(route, false)
        });
        WayRisk {
            roughness: way.roughness * service.roughness,
            ..way
        }
    }

    /// Returns the way that a shipment goes with the service, or with whoever quoted a price, of an id.
    #[must_use]
    pub fn way_of(&self, inputs: &ShipmentInputs, id: Option<&str>) -> WayRisk {
        let quoted = id.and_then(|id| inputs.quotation(id));
        match quoted.and_then(|quoted| quoted.route) {
            None => self.way(inputs, id.and_then(|id| self.service(id))),
            Some(route) => {
                let by_place = self.way(inputs, None);
                WayRisk {
                    wet: by_place.wet,
                    hot: by_place.hot,
                    ..self.rules.odds.played(route, false)
                }
            }
        }
    }

    /// Returns what a shipment starts from: as it names it, else by the table.
    fn begin(&self, inputs: &ShipmentInputs, piece: &Piece, way: WayRisk) -> Beginning {
        if let Some(preset) = &inputs.choices.preset {
            return Beginning {
                preset: preset.clone(),
                line: None,
                says: "chosen for this shipment".to_owned(),
            };
        }
        let mut rules = self.rules.clone();
        rules.shipment.way = Some(way);
        let travels = carriage_of(piece, &rules).map_or(Travels::Boxed, travels);
        // Of several pieces the one that is harmed most easily, and what all are worth.
        let others = inputs.other_pieces().ok().flatten().unwrap_or_default();
        let others: Vec<Piece> = others.into_iter().map(|(_, piece)| piece).collect();
        let base = |class: &PieceClass| self.rules.odds.class(*class).base_percent;
        let class = others
            .iter()
            .map(|other| PieceClass::of(other, Travels::Boxed))
            .chain([PieceClass::of(piece, travels)])
            .max_by(|one, other| base(one).total_cmp(&base(other)))
            .unwrap_or_else(|| PieceClass::of(piece, travels));
        let worth = inputs.worth().ok().flatten();
        self.rules.begin(BeginQuestion {
            route: way.route,
            class,
            value: worth.and_then(|worth| worth.to_f64()),
            irreplaceable: piece.irreplaceable || others.iter().any(|other| other.irreplaceable),
        })
    }
}

impl<'a> Commission<'a> {
    /// Returns what a shipment's piece follows.
    ///
    /// # Errors
    /// A [`Refusal`] for each choice that is out of its range.
    pub(crate) fn of(
        inputs: &ShipmentInputs,
        piece: Piece,
        house: &'a House,
    ) -> Result<Self, Vec<Refusal>> {
        let way = house.way_of(inputs, inputs.service.as_deref());
        let mut began = house.begin(inputs, &piece, way);
        let start = preset_choices(&began.preset, &house.rules, &house.presets);
        if start.is_none() {
            began.says = "this preset no longer exists: the house rules apply".to_owned();
        }
        let start = start.unwrap_or_default();
        let mut rules = house.rules.with(&inputs.choices.over(&start))?;
        rules.shipment.way = Some(way);
        let travels = carriage_of(&piece, &rules).map_or(Travels::Boxed, travels);
        let class = PieceClass::of(&piece, travels);
        rules.enclosed = Arc::new(inputs.enclosed(class, &house.rules)?);
        let mut together = inputs.pieces_together(&piece, &mut rules, &start, house)?;
        let set = together
            .as_ref()
            .filter(|_| inputs.others.values().all(OtherPiece::follows_all))
            .and_then(Together::as_set);
        let alike = set.is_some();
        let piece = match set {
            Some(set) => {
                together = None;
                set
            }
            None => piece,
        };
        Ok(Self {
            house,
            piece,
            together,
            alike,
            rules,
            began,
            detail: Detail::WHOLE,
            choices: inputs.choices.clone(),
        })
    }

    /// Lays several pieces otherwise.
    pub(super) fn lay(&mut self, laid: Laid) {
        if let Some(together) = &mut self.together {
            together.laid = laid;
        }
    }

    /// Returns every piece, the first one first.
    pub(crate) fn pieces(&self) -> Vec<&Piece> {
        match &self.together {
            None => vec![&self.piece],
            Some(together) => together.pieces.iter().map(|among| &among.piece).collect(),
        }
    }

    /// Returns what carries the art of each.
    pub(crate) fn constructions(&self) -> Vec<Construction> {
        let pieces = self.pieces().into_iter();
        pieces.map(|piece| piece.construction).collect()
    }

    /// Returns the plan.
    ///
    /// # Errors
    /// A [`Refusal`] for each choice that does not go with the piece, or names no material on the shelf.
    pub(crate) fn plan(&self) -> Result<Plan, Vec<Refusal>> {
        let catalogue = &self.house.catalogue;
        let mut refusals = Refusals::from(Recipe::refused(
            &self.piece,
            &self.rules,
            &self.choices.layers,
        ));
        // What is chosen for all pieces has to go with one of them.
        for among in self.together.iter().flat_map(|together| &together.pieces) {
            let theirs = Recipe::refused(&among.piece, &among.rules, &self.choices.layers);
            refusals.retain(|refusal| theirs.iter().any(|other| other.field == refusal.field));
        }
        let sheet = self.choices.contact_paper.as_ref();
        refusals.extend(sheet_may_touch(&self.piece, sheet, catalogue).err());
        refusals.done()?;
        let shelf = (catalogue, &*self.house.references);
        let together = self.together.as_ref();
        let plan = Plan::in_detail(&self.piece, together, &self.rules, shelf, self.detail)?;
        let mut findings = plan.findings;
        if self.alike {
            findings.push(Finding::piece(
                FindingLevel::Note,
                "as-a-set",
                format!(
                    "The {} pieces are alike: they are packed as a set.",
                    self.piece.count
                ),
            ));
        }
        Ok(Plan {
            began: Some(self.began.clone()),
            findings,
            ..plan
        })
    }
}

impl ShipmentInputs {
    /// Returns these inputs as they are to be stored: with the preset that was picked until now, and with notes of
    /// what each Stop was lifted for and by which plan the parcel was packed. `before` is what they were, where they were anything.
    #[must_use]
    pub fn to_be_kept(self, before: Option<&Self>, house: &House) -> Self {
        self.keeping_preset(before, house)
            .binding_lifts(before, house)
            .binding_parcel(before, house)
    }

    /// Returns these inputs with the preset kept that was picked until now, once a layer or anything else is
    /// chosen by hand. `before` is what they were, where they were anything.
    pub(crate) fn keeping_preset(mut self, before: Option<&Self>, house: &House) -> Self {
        if self.choices.preset.is_none() && !self.choices.is_only_begun() {
            // Whoever takes a preset away asks the table again.
            let until_now = before
                .filter(|before| before.choices.preset.is_none())
                .unwrap_or(&self);
            self.choices.preset = until_now
                .picked(house)
                .or_else(|| self.picked(house))
                .map(|began| began.preset);
        }
        self
    }

    /// Returns what the table picks for them, once the piece is known.
    fn picked(&self, house: &House) -> Option<Beginning> {
        let piece = self.piece().ok()??;
        Some(house.begin(self, &piece, house.way_of(self, self.service.as_deref())))
    }
}
