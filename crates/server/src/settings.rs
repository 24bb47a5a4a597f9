//! What a studio is called, where it is, where it sends to and how it writes: one stored value, of which `/studio/sender` shows a
//! part.

use std::sync::Arc;

use axum::Json;
use hummock_core::{
    Refusal, Refusals,
    enclosure::{EnclosureKind, goes_into_every_parcel},
    house::{
        ChangedSum, DateOrder, DecimalMark, HouseRules, LabelSize, Manners, MassUnit, MoneyChange,
        PaperSize, TaxNumbers,
    },
    material::Catalogue,
    place::{AddressFormat, Buyer, Country as WorldCountry, PlaceRoute, Route, usual_route},
    quantity::{Currency, LengthUnit, Sum},
    shipment::House,
    text::refused_text,
};
use hummock_store::{Country, HouseAt, HouseChange, Settings, SettingsRefused};
use jiff::civil::Date;
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::{
    body::{Asked, Body},
    desk::Desk,
    import::nobodys_house,
    problem::Problem,
    routes::{Routes, routes},
    sender::refused_country,
};

/// A country that the studio sends to.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct SentTo {
    /// Two capital letters: of ISO 3166-1, or of the studio's own making.
    code: String,
    /// Which kind of way leads there; the usual one from the studio's own country where it is left out.
    #[serde(default)]
    route: Option<Route>,
    /// Months in which it is wet there, 1 to 12.
    #[serde(default)]
    wet_months: Vec<i8>,
    /// Months in which a van on the way there stands in heat, 1 to 12.
    #[serde(default)]
    hot_months: Vec<i8>,
    /// What it is called, where it is of the studio's own making.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    name: Option<String>,
    /// How its addresses are written, where it is of the studio's own making.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    format: Option<AddressFormat>,
}

/// A studio's settings.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct SettingsView {
    /// Counts up with every change.
    version: i32,
    /// What the studio is called.
    name: String,
    /// Its address: the one of `/studio/sender`.
    sender: Buyer,
    /// Its time zone, as Europe/Paris; empty for that of the machine.
    time_zone: String,
    /// What it counts money in, a code of ISO 4217.
    #[cfg_attr(feature = "schema", schema(value_type = String, example = "EUR"))]
    currency: Currency,
    /// What its bare numbers are in, and lengths on its papers.
    length: LengthUnit,
    /// To which part of an inch inches are told: 8, 16 or 32.
    fraction: u8,
    /// What masses are read in.
    mass: MassUnit,
    /// What stands before decimals.
    decimal: DecimalMark,
    /// In which order a date is written.
    date_order: DateOrder,
    /// What pages are printed on.
    paper: PaperSize,
    /// What labels are printed on.
    label: LabelSize,
    /// Numbers that customs ask for, and whether prices are with tax.
    tax: TaxNumbers,
    /// Where it sends to.
    countries: Vec<SentTo>,
}

/// A change of a studio's settings; what is left out stays as it was.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct SettingsRequest {
    /// The version that it is based on; where it is left out it is laid over whatever is there.
    version: Option<i32>,
    /// What the studio is called.
    name: Option<String>,
    /// Its address.
    sender: Option<Buyer>,
    /// Its time zone, as Europe/Paris.
    time_zone: Option<String>,
    /// What it counts money in; another one is taken with its `rate`, or while the studio has no shipment and nothing left it.
    currency: Option<String>,
    /// What one unit of the money before is worth in `currency`, above 0 and at most 1 000 000: rules, stores, presets and
    /// shipments that have not left are put into the new money by it. Without it every price is 0 then.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, example = "1.08"))]
    rate: Option<Decimal>,
    /// What its bare numbers are in.
    length: Option<LengthUnit>,
    /// To which part of an inch inches are told: 8, 16 or 32.
    fraction: Option<u8>,
    /// What masses are read in.
    mass: Option<MassUnit>,
    /// What stands before decimals.
    decimal: Option<DecimalMark>,
    /// In which order a date is written.
    date_order: Option<DateOrder>,
    /// What pages are printed on.
    paper: Option<PaperSize>,
    /// What labels are printed on.
    label: Option<LabelSize>,
    /// Numbers that customs ask for, and whether prices are with tax.
    tax: Option<TaxNumbers>,
    /// Where it sends to, all of it; those that it does not name are sent to no more.
    countries: Option<Vec<SentTo>>,
    /// What goes into every parcel, each once: the list of the house that is for every piece then holds these. A certificate goes
    /// in by the house's list of certificates, which is then for every piece.
    goes_in: Option<Vec<EnclosureKind>>,
}

/// A studio sends to no more places than there are.
const MOST_COUNTRIES: usize = 400;
const MONTHS: std::ops::RangeInclusive<i8> = 1..=12;

impl SettingsRequest {
    /// Lays it over settings; refuses what can't stand, at its field.
    fn laid_over(&self, settings: &mut Settings) -> Refusals {
        let mut refusals = Refusals::default();
        if let Some(countries) = &self.countries {
            lay_countries(countries, settings, &mut refusals);
        }
        if let Some(name) = &self.name {
            refusals.extend(refused_text("name", name));
            if name.trim().is_empty() {
                refusals.refuse("name", "give the studio a name: it stands on every paper");
            }
            settings.name.clone_from(name);
        }
        if let Some(address) = &self.sender {
            refusals.extend(address.refused("sender"));
            refusals.extend(refused_country(
                "sender.country",
                &address.country,
                &settings.known_countries(),
            ));
            settings.town.clone_from(&address.town);
            settings.sender.address.clone_from(address);
        }
        if let Some(length) = self.length {
            settings.unit = length;
        }
        let manners = &mut settings.manners;
        let set = |to: &mut String, from: &Option<String>| {
            if let Some(from) = from {
                from.clone_into(to);
            }
        };
        set(&mut manners.time_zone, &self.time_zone);
        *manners = Manners {
            fraction: self.fraction.unwrap_or(manners.fraction),
            mass: self.mass.unwrap_or(manners.mass),
            decimal: self.decimal.unwrap_or(manners.decimal),
            date_order: self.date_order.unwrap_or(manners.date_order),
            paper: self.paper.unwrap_or(manners.paper),
            label: self.label.unwrap_or(manners.label),
            tax: self.tax.clone().unwrap_or_else(|| manners.tax.clone()),
            time_zone: manners.time_zone.clone(),
        };
        refusals.extend(manners.refused());
        refusals
    }
}

/// Puts countries in place of those that are there.
fn lay_countries(countries: &[SentTo], settings: &mut Settings, refusals: &mut Refusals) {
    if countries.len() > MOST_COUNTRIES {
        let says = format!("{} given: list at most {MOST_COUNTRIES}", countries.len());
        refusals.refuse("countries", says);
        return;
    }
    let mut then: Vec<Country> = Vec::with_capacity(countries.len());
    for (at, asked) in countries.iter().enumerate() {
        let place = format!("countries[{at}]");
        let code = &asked.code;
        let is_code = code.len() == 2 && code.bytes().all(|byte| byte.is_ascii_uppercase());
        let real = WorldCountry::of(code).is_some();
        let before = settings
            .countries
            .iter()
            .find(|before| before.code == *code);
        let name = asked
            .name
            .clone()
            .or_else(|| before.map(|before| before.name.clone()));
        let name = name.unwrap_or_default();
        if !is_code {
            let says = format!("\"{code}\" is not a country code: write two capital letters");
            refusals.refuse(format!("{place}.code"), says);
        } else if !real && name.trim().is_empty() {
            let says = format!("country \"{code}\" doesn't exist: to add your own, give it a name");
            refusals.refuse(format!("{place}.code"), says);
        }
        if real && (asked.name.is_some() || asked.format.is_some()) {
            let says = format!(
                "{code} is a country of the world: only those of your own making have a name and a format"
            );
            refusals.refuse(format!("{place}.name"), says);
        }
        if then.iter().any(|before| before.code == *code) {
            refusals.refuse(format!("{place}.code"), format!("{code} is named before"));
        }
        refusals.extend(refused_text(&format!("{place}.name"), &name));
        if let Some(format) = &asked.format {
            refusals.extend(format.refused(&format!("{place}.format")));
        }
        let seasons = [
            ("wet_months", &asked.wet_months),
            ("hot_months", &asked.hot_months),
        ];
        for (field, months) in seasons {
            if let Some(month) = months.iter().find(|month| !MONTHS.contains(month)) {
                let says = format!("{month} is not a month: write 1 to 12");
                refusals.refuse(format!("{place}.{field}"), says);
            }
        }
        then.push(Country {
            code: code.clone(),
            name: if real { String::new() } else { name },
            postcode: before.map_or_else(Default::default, |before| before.postcode),
            format: asked
                .format
                .clone()
                .or_else(|| before.and_then(|before| before.format.clone())),
        });
    }
    settings.countries = then;
}

/// The rules of a house once parcels go to these countries by these routes; `None` where nothing changes. Lines of a part of a
/// country, by its postcodes, stay.
fn with_routes(countries: &[SentTo], home: &str, rules: &HouseRules) -> Option<HouseRules> {
    let mut places: Vec<PlaceRoute> = rules.odds.places.clone();
    places.retain(|place| !place.postcode_prefixes.is_empty());
    for country in countries {
        let before = whole(rules, &country.code);
        let kept = before.map(|before| before.route);
        places.push(PlaceRoute {
            country: country.code.clone(),
            postcode_prefixes: Vec::new(),
            route: country
                .route
                .or(kept)
                .unwrap_or_else(|| usual_route(home, &country.code)),
            wet_months: country.wet_months.clone(),
            hot_months: country.hot_months.clone(),
        });
    }
    let mut then = rules.clone();
    Arc::make_mut(&mut then.odds).places = places;
    let sorted = |rules: &HouseRules| {
        let mut places = rules.odds.places.clone();
        places.sort_by(|one, other| {
            (&one.country, &one.postcode_prefixes).cmp(&(&other.country, &other.postcode_prefixes))
        });
        places
    };
    (sorted(&then) != sorted(rules)).then_some(then)
}

/// The line of all of a country.
fn whole<'a>(rules: &'a HouseRules, code: &str) -> Option<&'a PlaceRoute> {
    let mut places = rules.odds.places.iter();
    places.find(|place| place.country == code && place.postcode_prefixes.is_empty())
}

impl SettingsView {
    /// Returns the settings of a studio with the money and the routes of its house.
    pub(crate) fn of(version: i32, settings: Settings, house: &House) -> Self {
        let home = settings.sender.address.country.clone();
        let countries = settings.countries.iter().map(|country| {
            let line = whole(&house.rules, &country.code);
            let own = country.own();
            SentTo {
                code: country.code.clone(),
                route: Some(
                    line.map_or_else(|| usual_route(&home, &country.code), |line| line.route),
                ),
                wet_months: line.map(|line| line.wet_months.clone()).unwrap_or_default(),
                hot_months: line.map(|line| line.hot_months.clone()).unwrap_or_default(),
                name: own.as_ref().map(|own| own.name.clone()),
                format: own.map(|own| own.format),
            }
        });
        let countries = countries.collect();
        let Manners {
            time_zone,
            fraction,
            mass,
            decimal,
            date_order,
            paper,
            label,
            tax,
        } = settings.manners;
        Self {
            version,
            name: settings.name,
            sender: settings.sender.address,
            time_zone,
            currency: house.catalogue.currency,
            length: settings.unit,
            fraction,
            mass,
            decimal,
            date_order,
            paper,
            label,
            tax,
            countries,
        }
    }
}

impl Desk {
    async fn settings_view(&self) -> Result<Json<SettingsView>, Problem> {
        let house = self.house().await?;
        let (version, settings) = self.store.settings_at().await?;
        Ok(Json(SettingsView::of(version, settings, &house.house)))
    }
}

/// Returns what the studio is called, where it is, where it sends to and how it writes.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_settings", get, path = "/studio/settings", tag = "studio",
    responses((status = 200, description = "As they are kept", body = SettingsView)),
))]
async fn show(desk: Desk) -> Result<Json<SettingsView>, Problem> {
    desk.settings_view().await
}

/// Changes what the studio is called, where it is, where it sends to and how it writes; what is left out stays as it was.
///
/// Routes and wet months are kept with the house rules: a change of them makes a version of those.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "change_settings", put, path = "/studio/settings", tag = "studio", request_body = SettingsRequest,
    responses(
        (status = 200, description = "As they are kept now", body = SettingsView),
        (status = 409, description = "They changed since the version that was named", body = Problem),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
async fn change(
    desk: Desk,
    Body(request): Body<SettingsRequest>,
) -> Result<Json<SettingsView>, Problem> {
    desk.change_settings(&request).await?;
    desk.settings_view().await
}

impl SettingsRequest {
    /// Returns it as the request of a new studio, whose settings nobody has seen yet.
    pub(crate) fn of_new_studio(self) -> Self {
        Self {
            version: None,
            ..self
        }
    }

    /// Lays the change over settings and returns what changes of the house with them; nothing is kept.
    ///
    /// # Errors
    /// A [`Problem`] with every field that is refused.
    pub(crate) fn laid_over_all(
        &self,
        house: &House,
        settings: &mut Settings,
        (has_shipments, today): (bool, Date),
    ) -> Result<Beside, Problem> {
        let before = settings.manners.telling(settings.unit);
        let mut refusals = self.laid_over(settings);
        let now = house.catalogue.currency;
        let money = match &self.currency {
            Some(code) => read_currency(code)
                .map_err(|refusal| refusals.push(refusal))
                .ok(),
            None => None,
        };
        let money = money.filter(|money| *money != now);
        let mut change = None;
        if let Some(to) = money {
            match self.rate {
                Some(rate) => {
                    let made = MoneyChange::new(now, to, rate, today);
                    match made {
                        Ok(made) => {
                            refusals.extend(made.check(&house.rules).err().into_iter().flatten());
                            change = Some(made);
                        }
                        Err(refusal) => refusals.push(refusal),
                    }
                }
                None if settings.demo || has_shipments => {
                    let says = format!(
                        "the studio has amounts in {0}: give the value of 1 {0} in {1}",
                        now.code(),
                        to.code()
                    );
                    refusals.refuse("rate", says);
                }
                None => {}
            }
        }
        refusals.done()?;
        let home = &settings.sender.address.country;
        let mut rules = None;
        if let Some(countries) = &self.countries {
            rules = with_routes(countries, home, &house.rules);
        }
        if let Some(change) = &change {
            rules = Some(change.rules(rules.as_ref().unwrap_or(&house.rules)));
        } else if money.is_some() {
            let then = rules.get_or_insert_with(|| house.rules.clone());
            // What an hour and the least saving are in the new money is not known.
            (
                then.allowances.labour_per_hour,
                then.allowances.least_saving,
            ) = (Sum::default(), Sum::default());
            then.rates.clear();
        }
        if let Some(kinds) = &self.goes_in {
            let then = rules.get_or_insert_with(|| house.rules.clone());
            goes_into_every_parcel(Arc::make_mut(&mut then.enclosures), kinds);
        }
        if let Some(rules) = &mut rules {
            rules.version += 1;
            rules.check()?;
        }
        let catalogue = match &change {
            Some(change) => Some(change.catalogue(&house.catalogue)),
            None => money.map(|money| house.catalogue.unpriced(money)),
        };
        let named = catalogue.as_ref().unwrap_or(&house.catalogue).named_in(
            &nobodys_house().catalogue,
            before,
            settings.manners.telling(settings.unit),
        );
        Ok(Beside {
            rules,
            catalogue: named.or(catalogue),
            money: change,
        })
    }
}

impl Desk {
    /// Lays a change over the settings of the studio and its house, all of it or nothing.
    pub(crate) async fn change_settings(&self, request: &SettingsRequest) -> Result<(), Problem> {
        let has_shipments = self.store.has_shipments().await?;
        let lay = |house: &HouseAt, settings: &mut Settings| {
            request.laid_over_all(&house.house, settings, (has_shipments, self.clock.today()))
        };
        self.keep_settings(request.version, lay).await?;
        self.app.jobs.bell.notify_one();
        Ok(())
    }
}

/// What changes of the house together with the settings.
#[derive(Debug, Default)]
pub(crate) struct Beside {
    /// The rules, where they change.
    rules: Option<HouseRules>,
    /// The stores, where they change.
    catalogue: Option<Catalogue>,
    /// The change of money, where that changes.
    money: Option<MoneyChange>,
}

impl Desk {
    /// Lays a change over the settings and keeps them. `lay` is asked again where somebody else changed them or the house meanwhile;
    /// a version that is named has to be the one that stands.
    pub(crate) async fn keep_settings(
        &self,
        version: Option<i32>,
        lay: impl Fn(&HouseAt, &mut Settings) -> Result<Beside, Problem>,
    ) -> Result<(), Problem> {
        let mut tries = self.tries();
        loop {
            let house = tries.next().await?;
            let (stands, mut settings) = self.store.settings_at().await?;
            let Beside {
                rules,
                catalogue,
                money,
            } = lay(&house, &mut settings)?;
            let beside = HouseChange {
                seen: house.version,
                rules: rules.as_ref(),
                catalogue: catalogue.as_ref(),
                money: money.as_ref(),
            };
            let based_on = version.unwrap_or(stands);
            let kept = self.store.change_settings(based_on, &settings, &beside);
            match kept.await {
                Ok(_) => return Ok(()),
                Err(SettingsRefused::Stale(_)) if version.is_some() => {
                    return Err(Problem::sender_changed());
                }
                Err(SettingsRefused::Stale(_) | SettingsRefused::HouseMoved) => {}
                Err(SettingsRefused::Store(error)) => return Err(error.into()),
            }
        }
    }
}

/// Reads the code of money that people pay with.
fn read_currency(code: &str) -> Result<Currency, Refusal> {
    let read = Currency::try_from(code.to_owned());
    match read {
        Ok(read) if read.is_money() => Ok(read),
        Ok(_) => {
            let says = format!("\"{code}\" is not a currency code: write one such as EUR");
            Err(Refusal::new("currency", says))
        }
        Err(says) => Err(Refusal::new("currency", says)),
    }
}

/// Which change of money.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct MoneyQuery {
    /// The money after, a code of ISO 4217.
    currency: String,
    /// What one unit of the studio's money is worth in it, above 0 and at most 1 000 000.
    #[cfg_attr(feature = "schema", param(value_type = String, example = "1.08"))]
    rate: Decimal,
    /// Whether it is asked for a studio that is still to begin, with what every studio begins with.
    #[serde(default)]
    #[cfg_attr(feature = "schema", param(required = false))]
    new: bool,
}

/// What sums become in other money.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct MoneyChangeView {
    /// The studio's money.
    #[cfg_attr(feature = "schema", schema(value_type = String, example = "EUR"))]
    from: Currency,
    /// The money that was asked about.
    #[cfg_attr(feature = "schema", schema(value_type = String, example = "USD"))]
    to: Currency,
    /// Ten sums of the studio: those of its rules, then prices of materials.
    sums: Vec<ChangedSum>,
}

/// Shows what ten of the studio's sums become in other money; nothing is changed.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_money_change", get, path = "/studio/settings/money", tag = "studio", params(MoneyQuery),
    responses(
        (status = 200, description = "Before and after", body = MoneyChangeView),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
async fn show_money_change(
    desk: Desk,
    Asked(query): Asked<MoneyQuery>,
) -> Result<Json<MoneyChangeView>, Problem> {
    let house = match query.new {
        true => nobodys_house(),
        false => desk.house().await?.house.clone(),
    };
    let refused = |refusal| vec![refusal];
    let from = house.catalogue.currency;
    let to = read_currency(&query.currency).map_err(refused)?;
    let change = MoneyChange::new(from, to, query.rate, desk.clock.today()).map_err(refused)?;
    change.check(&house.rules)?;
    Ok(Json(MoneyChangeView {
        from,
        to,
        sums: change.shown(&house.rules, &house.catalogue),
    }))
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/studio/settings/money" => show_money_change,
        get "/studio/settings" => show,
        put "/studio/settings" => change,
    ]
}
