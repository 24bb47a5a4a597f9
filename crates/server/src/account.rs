//! What each tier of a carrier's account would make of the parcels that were sent with it, or of a table of parcels.

use axum::Json;
use hummock_core::{
    Refusal, Refusals,
    freight::{AccountSavings, SentParcel, Tariff},
    shipment::CarrierAsk,
    sums::{QuoteParcel, QuotePlace, QuoteSum},
};
use rust_decimal::Decimal;
use serde::{Deserialize, de::DeserializeOwned};

use crate::{
    body::{Body, NameInPath},
    desk::Desk,
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
    table::separator_of,
};

/// Which parcels.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct AccountRequest {
    /// A table of parcels with a head: `length_mm`, `width_mm`, `height_mm`, `mass_kg`, `country`, and where they are known
    /// `postcode`, `service` and `value`. The parcels in the archive that went with this carrier when left out.
    csv: Option<String>,
}

const NEEDED: [&str; 5] = ["length_mm", "width_mm", "height_mm", "mass_kg", "country"];
const KNOWN: [&str; 3] = ["postcode", "service", "value"];
const MOST_LINES: usize = 2000;
const MOST_REFUSALS: usize = 20;
/// How many of the archive are looked at, the last ones.
const MOST_SENT: i64 = 1000;

/// Says what each tier of a carrier's account would make of parcels: of those in the archive that went with it, or of a table.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "compare_accounts", post, path = "/tariffs/{id}/account", tag = "tariffs", request_body = AccountRequest,
    params(("id" = String, Path, description = "As `gannet-post`")),
    responses(
        (status = 200, description = "Every tier", body = AccountSavings),
        (status = 404, description = "There is no such tariff", body = Problem),
        (status = 422, description = "A table that can't be read, each cell with its line and column", body = Problem),
    ),
))]
pub(crate) async fn compare(
    desk: Desk,
    NameInPath(id): NameInPath,
    Body(request): Body<AccountRequest>,
) -> Result<Json<AccountSavings>, Problem> {
    let house = desk.house().await?;
    let known = house.house.tariffs.iter().any(|tariff| tariff.id == id);
    if !known {
        return Err(Problem::not_found("tariff of that id"));
    }
    let archived = match &request.csv {
        Some(_) => Vec::new(),
        None => desk.store.sent_with(&id, MOST_SENT).await?,
    };
    let savings = beside(move || {
        let house = &house.house;
        let tariff = house.tariffs.iter().find(|tariff| tariff.id == id);
        let tariff = tariff.expect("it is known");
        let parcels = match &request.csv {
            Some(text) => read(text, tariff)?,
            None => archived
                .iter()
                .filter_map(|shipment| {
                    let asks = CarrierAsk::of(&shipment.inputs, house).ok()?;
                    let ask = asks.into_iter().find(|ask| ask.tariff.id == tariff.id)?;
                    let service = shipment.inputs.service.as_deref()?;
                    Some(SentParcel {
                        service: service.split_once('/').map(|(_, id)| id.to_owned()),
                        parcel: ask.parcel,
                        place: ask.place,
                        on: None,
                    })
                })
                .collect(),
        };
        Ok::<_, Vec<Refusal>>(tariff.account_savings(&parcels))
    });
    Ok(Json(savings.await?))
}

fn read(text: &str, tariff: &Tariff) -> Result<Vec<SentParcel>, Vec<Refusal>> {
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(separator_of(text))
        .trim(csv::Trim::All)
        .from_reader(text.trim_start_matches('\u{feff}').as_bytes());
    let head = reader
        .headers()
        .map_err(|error| vec![Refusal::new("csv", error.to_string())])?
        .clone();
    let column = |name: &str| head.iter().position(|known| known == name);
    let lacking = NEEDED.into_iter().filter(|name| column(name).is_none());
    let mut refusals: Refusals = lacking
        .map(|name| Refusal::new("csv", format!("the head has no column {name}")))
        .collect();
    for other in head
        .iter()
        .filter(|name| !NEEDED.contains(name) && !KNOWN.contains(name))
    {
        let says = format!("\"{other}\" is not a column of a parcel table");
        refusals.refuse("csv", says);
    }
    refusals.done()?;
    let mut parcels = Vec::new();
    for record in reader.records() {
        let record = match record {
            Ok(record) => record,
            Err(error) => {
                refusals.refuse("csv", error.to_string());
                break;
            }
        };
        let line = record.position().map_or(0, csv::Position::line);
        let cell = |name: &str| {
            column(name)
                .and_then(|at| record.get(at))
                .unwrap_or_default()
        };
        match parcel_of(&cell, line, tariff) {
            Ok(parcel) => parcels.push(parcel),
            Err(refused) => refusals.extend(refused),
        }
        if parcels.len() > MOST_LINES || refusals.len() >= MOST_REFUSALS {
            break;
        }
    }
    if parcels.len() > MOST_LINES {
        refusals.refuse("csv", format!("a table has at most {MOST_LINES} lines"));
    }
    refusals.truncate(MOST_REFUSALS);
    refusals.or(parcels)
}

fn parcel_of<'r>(
    cell: &impl Fn(&str) -> &'r str,
    line: u64,
    tariff: &Tariff,
) -> Result<SentParcel, Vec<Refusal>> {
    fn number<T: DeserializeOwned>(text: &str) -> Option<T> {
        serde_json::from_str(&text.replace(',', ".")).ok()
    }
    let mut refusals = Refusals::default();
    let mut refuse = |name: &str, says: String| {
        refusals.refuse(format!("line {line}, {name}"), says);
    };
    let mut side = |name: &str| -> f64 {
        number(cell(name)).unwrap_or_else(|| {
            refuse(name, format!("\"{}\" is not a number", cell(name)));
            1.0
        })
    };
    let parcel = QuoteParcel {
        length_mm: side("length_mm"),
        width_mm: side("width_mm"),
        height_mm: side("height_mm"),
        mass_kg: side("mass_kg"),
        shape: hummock_core::freight::Shape::default(),
        contents: Vec::new(),
    };
    let place = QuotePlace {
        country: cell("country").to_uppercase(),
        postcode: cell("postcode").to_owned(),
    };
    let value: Option<Decimal> = match cell("value") {
        "" => None,
        text => {
            let value = text.replace(',', ".").parse().ok();
            if value.is_none() {
                refuse("value", format!("\"{text}\" is not an amount"));
            }
            value
        }
    };
    let service = Some(cell("service")).filter(|service| !service.is_empty());
    if let Some(service) = service
        && !tariff.services.iter().any(|known| known.id == service)
    {
        refuse("service", format!("service \"{service}\" doesn't exist"));
    }
    refusals.done()?;
    let sum = QuoteSum {
        parcel: &parcel,
        destination: &place,
        value,
        discount_tier: None,
        date: None,
    };
    let (parcel, place) = sum.sent(tariff).map_err(|refused| {
        let at = |one: Refusal| {
            let name = one.field.rsplit('.').next().unwrap_or(&one.field);
            Refusal::new(format!("line {line}, {name}"), one.message)
        };
        refused.into_iter().map(at).collect::<Vec<_>>()
    })?;
    Ok(SentParcel {
        parcel,
        place,
        service: service.map(str::to_owned),
        on: None,
    })
}

pub(crate) fn routes() -> Routes {
    routes![
        post "/tariffs/{id}/account" => compare,
    ]
}
