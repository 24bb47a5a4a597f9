//! The papers of a parcel as PDF, its claim as one archive, and its days as a calendar file.

use std::io::{Seek as _, SeekFrom, Write as _};

use axum::{
    body::{Body as Sent, Bytes},
    extract::{FromRequestParts, Path},
    http::{header, request::Parts},
    response::Response,
};
use hummock_core::{
    Refusal,
    plan::FIRST,
    quantity::Mass,
    sending::{
        Deadline, TrackingEvent,
        papers::{
            ClaimFile, ClaimSource, HandOverList, HandOverRow, LabelSource, MaterialsList,
            PictureLine, certificates, condition, crating_brief, customs, handling_marks, label,
            slip, thank_you,
        },
    },
    shipment::ShipmentInputs,
    ways,
};
use hummock_store::{BookingState, Photograph, Settings};
use ics::{
    Event, ICalendar, escape_text,
    parameters::Value as ValueKind,
    properties::{DtEnd, DtStart, Summary},
};
use jiff::{Timestamp, civil::Date};
use serde::{Deserialize, de::IntoDeserializer as _};
use serde_json::{Value, json};
use uuid::Uuid;
use zip::{CompressionMethod, ZipWriter, write::SimpleFileOptions};

use crate::{
    body::{Asked, ShipmentId},
    desk::Desk,
    documents::{code_of, file_of},
    leaving::{ParcelPaper, ToLeave},
    left::KeptPaper,
    outside::Booked,
    press::{Page, Printed},
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
    sender::letterhead,
};

/// A claim prints so many photographs; the archive has them all.
const MOST_PRINTED: usize = 24;
const MOST_TOGETHER: usize = 60;
/// Photographs of the damage are kept under this step.
const DAMAGE: &str = "after/damage";
/// Photographs of the piece before it was packed are kept under steps that begin so.
const LOOKS: &str = "look/";

/// A paper in the path.
pub(crate) struct PaperPath(ParcelPaper);

impl<S: Send + Sync> FromRequestParts<S> for PaperPath {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Problem> {
        let found: Result<Path<std::collections::HashMap<String, String>>, _> =
            Path::from_request_parts(parts, state).await;
        let named = found.ok().and_then(|Path(path)| path.get("paper").cloned());
        let named = named.unwrap_or_default();
        let deserializer: serde::de::value::StringDeserializer<serde::de::value::Error> =
            named.into_deserializer();
        ParcelPaper::deserialize(deserializer)
            .map(Self)
            .map_err(|_| Problem::not_found("paper of that name"))
    }
}

const fn called(paper: ParcelPaper) -> &'static str {
    match paper {
        ParcelPaper::Label => "label.pdf",
        ParcelPaper::LabelA4 => "label-a4.pdf",
        ParcelPaper::Marks => "handling-marks.pdf",
        ParcelPaper::Slip => "packing-slip.pdf",
        ParcelPaper::Certificate => "certificate.pdf",
        ParcelPaper::Condition => "condition-report.pdf",
        ParcelPaper::Addresses => "addresses.pdf",
        ParcelPaper::ThankYou => "thank-you.pdf",
        ParcelPaper::Customs => "customs.pdf",
        ParcelPaper::Crating => "crating-brief.pdf",
        ParcelPaper::Claim => "claim.pdf",
    }
}

/// Returns a paper of a parcel.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "print_paper", get, path = "/shipments/{id}/papers/{paper}", tag = "leaving",
    params(
        ("id" = Uuid, Path, description = "Which shipment"),
        ("paper" = ParcelPaper, Path, description = "Which paper"),
    ),
    responses(
        (status = 200, description = "The document", body = String, content_type = "application/pdf"),
        (status = 404, description = "There is no such shipment or paper, or nothing for it to say yet", body = Problem),
        (status = 503, description = "The program that makes documents is not there yet", body = Problem),
    ),
))]
async fn print(
    desk: Desk,
    ShipmentId(id): ShipmentId,
    PaperPath(paper): PaperPath,
) -> Result<Response, Problem> {
    let leaves = desk.to_leave(id).await?;
    let document = desk.printed(&leaves, paper).await?;
    Ok(file_of(called(paper), "application/pdf", document))
}

impl Desk {
    /// Has a paper printed; of a parcel that left as it was on the day, with the number that it is followed by now.
    async fn printed(&self, leaves: &ToLeave, paper: ParcelPaper) -> Result<Vec<u8>, Problem> {
        let settings = &leaves.facts.settings;
        let kept = leaves.kept_paper(paper.key());
        if matches!(paper, ParcelPaper::Label | ParcelPaper::LabelA4) {
            let labels = [self.labelled(leaves).await?];
            let says = json!({ "labels": labels });
            if let Some(document) = kept.and_then(|kept| kept.document(&says)) {
                return Ok(document);
            }
            let a4 = paper == ParcelPaper::LabelA4;
            let document = self.labels(settings, labels.into(), a4).await?;
            let printed = KeptPaper::new("label".to_owned(), says, Vec::new());
            self.keep_printed(leaves, paper.key(), (printed, &document))
                .await;
            return Ok(document);
        }
        let paper_said = match kept {
            Some(kept) => kept.clone(),
            None => self.says(leaves, paper).await?,
        };
        let mut says = paper_said.says.clone();
        if paper == ParcelPaper::Customs {
            says["customs"]["tracking"] = json!(leaves.tracking().unwrap_or_default());
        }
        if let Some(document) = paper_said.document(&says) {
            return Ok(document);
        }
        let mark = match leaves.record() {
            Some(record) => record.mark(),
            None => self.store.mark().await?,
        };
        says["mark"] = json!(mark.is_some());
        let mut pictures: Vec<Bytes> = mark.into_iter().map(Bytes::from).collect();
        for photograph in &paper_said.photographs {
            pictures.push(self.picture(&photograph.into()).await?);
        }
        let printed = Printed {
            kind: &paper_said.kind,
            says: &says,
            pictures: &pictures,
            page: Page::of(settings),
        };
        let documents = &self.app.documents;
        let document = documents.paper(self.studio(), printed).await?;
        self.keep_printed(leaves, paper.key(), (paper_said, &document))
            .await;
        Ok(document)
    }

    /// Returns what a paper says by what is known of the parcel now.
    pub(crate) async fn says(
        &self,
        leaves: &ToLeave,
        paper: ParcelPaper,
    ) -> Result<KeptPaper, Problem> {
        let inputs = &leaves.stored.inputs;
        let today = self.clock.today();
        let settings = &leaves.facts.settings;
        let head = letterhead(settings);
        let telling = leaves.telling();
        let currency = leaves.money();
        let plan = leaves.live().and_then(|live| live.worked.plan.as_ref());
        let no_plan = || Problem::not_found("plan of it yet");
        let (kind, says, photographs): (&str, Value, Vec<Photograph>) = match paper {
            ParcelPaper::Label | ParcelPaper::LabelA4 => {
                let labels = [self.labelled(leaves).await?];
                ("label", json!({ "labels": labels }), Vec::new())
            }
            ParcelPaper::Marks => (
                "marks",
                json!({ "marks": handling_marks(inputs, plan.ok_or_else(no_plan)?) }),
                Vec::new(),
            ),
            ParcelPaper::Slip => {
                let slip = slip(inputs, plan, head, leaves.ends(), today, telling);
                ("slip", json!({ "slip": slip }), Vec::new())
            }
            ParcelPaper::Certificate => {
                let made = certificates(inputs, telling);
                if made.is_empty() {
                    return Err(Problem::not_found("piece in it with a certificate"));
                }
                let says = json!({ "certificates": made, "card": settings.certificate, "studio": head.studio });
                ("certificate", says, Vec::new())
            }
            ParcelPaper::Condition => {
                let kept = self.store.photographs(leaves.stored.id).await?;
                let taken: Vec<Photograph> = kept
                    .into_iter()
                    .filter(|one| one.step.starts_with(LOOKS))
                    .take(MOST_PRINTED)
                    .collect();
                let lines = taken
                    .iter()
                    .map(|one| PictureLine::of(Some("Before packing"), &one.taken_at))
                    .collect();
                let report = condition(inputs, head, today, lines, telling);
                ("condition", json!({ "condition": report }), taken)
            }
            ParcelPaper::Addresses => (
                "addresses",
                json!({ "ends": leaves.ends(), "studio": head.studio }),
                Vec::new(),
            ),
            ParcelPaper::ThankYou => {
                let card = thank_you(inputs);
                let says =
                    json!({ "thanks": card, "card": settings.certificate, "studio": head.studio });
                ("thank_you", says, Vec::new())
            }
            ParcelPaper::Customs => {
                if !leaves.customs() {
                    return Err(Problem::not_found("customs on its way"));
                }
                let own = &settings.sender.address.country;
                let origin = inputs.sending.origin.as_deref().unwrap_or(own);
                let countries = settings.known_countries();
                let origin = countries.name(origin);
                let made = customs(
                    (inputs, plan),
                    (head, leaves.ends()),
                    (today, leaves.tracking().unwrap_or_default()),
                    (leaves.mass(), origin),
                    (telling, &currency),
                    &settings.manners.tax,
                );
                ("customs", json!({ "customs": made }), Vec::new())
            }
            ParcelPaper::Crating => {
                let plan = plan.ok_or_else(no_plan)?;
                let brief = crating_brief(
                    inputs,
                    plan,
                    (head, leaves.ends()),
                    today,
                    (telling, &currency),
                );
                ("crating", json!({ "brief": brief }), Vec::new())
            }
            ParcelPaper::Claim => {
                let (claim, printed) = self.claim(leaves).await?;
                ("claim", json!({ "claim": claim }), printed)
            }
        };
        let photographs = photographs.iter().map(|one| (&one.picture).into());
        Ok(KeptPaper::new(kind.to_owned(), says, photographs.collect()))
    }

    /// Returns what the label of a parcel says, with its code.
    async fn labelled(&self, leaves: &ToLeave) -> Result<Value, Problem> {
        let tracking = leaves
            .tracking()
            .ok_or_else(|| Problem::not_found("tracking number of it yet"))?;
        let code = code_of(tracking).map_err(|()| Problem::document_failed())?;
        if let Some(kept) = leaves.kept_paper(ParcelPaper::Label.key()) {
            let mut labelled = kept.says["labels"][0].clone();
            labelled["label"]["tracking"] = json!(tracking);
            labelled["code"] = json!(code);
            return Ok(labelled);
        }
        let booking = self.store.booking(leaves.stored.id).await?;
        let booked: Option<Booked> = booking
            .as_ref()
            .and_then(|booking| serde_json::from_value(booking.answer.clone()?).ok());
        let on = booking.as_ref().map(|booking| booking.leaves_on);
        let made = label(
            &leaves.stored.inputs,
            LabelSource {
                ends: leaves.ends(),
                carrier: leaves.service_called(),
                tracking,
                lines: booked.as_ref().map_or(&[], |booked| &booked.label),
                mass: leaves.mass(),
                on: on.or(leaves.stored.inputs.leaves_on()),
                telling: leaves.telling(),
            },
        );
        Ok(json!({ "label": made, "code": code }))
    }

    /// Has a paper printed that bears the studio's mark, where it has one.
    async fn with_mark(
        &self,
        kind: &str,
        mut says: Value,
        settings: &Settings,
    ) -> Result<Vec<u8>, Problem> {
        let mark = self.store.mark().await?;
        says["mark"] = json!(mark.is_some());
        let pictures: Vec<Bytes> = mark.into_iter().map(Bytes::from).collect();
        self.app
            .documents
            .paper(
                self.studio(),
                Printed {
                    kind,
                    says: &says,
                    pictures: &pictures,
                    page: Page::of(settings),
                },
            )
            .await
    }

    async fn labels(
        &self,
        settings: &Settings,
        labels: Vec<Value>,
        a4: bool,
    ) -> Result<Vec<u8>, Problem> {
        let says = json!({ "labels": labels, "a4": a4 });
        self.app
            .documents
            .paper(
                self.studio(),
                Printed {
                    kind: "label",
                    says: &says,
                    pictures: &[],
                    page: Page::of(settings),
                },
            )
            .await
    }

    /// Returns what a claim says, and the photographs that are printed in it.
    async fn claim(&self, leaves: &ToLeave) -> Result<(ClaimFile, Vec<Photograph>), Problem> {
        let stored = &leaves.stored;
        let handed = stored
            .handed
            .as_ref()
            .ok_or_else(|| Problem::not_found("parcel that was handed over"))?;
        let (events, ..) = self.followed(stored).await?;
        let today = self.clock.today();
        let tariffs = leaves.facts.tariff.as_slice();
        let until = Deadline::of_parcel(&stored.inputs, handed, &events, tariffs, today);
        let until = until.ok_or_else(|| Problem::not_found("carrier to claim from"))?;
        let mut kept = self.store.photographs(stored.id).await?;
        // The damage first, then how it was packed.
        kept.sort_by_key(|one| one.step != DAMAGE);
        let more = kept.len().saturating_sub(MOST_PRINTED);
        kept.truncate(MOST_PRINTED);
        let lines = kept
            .iter()
            .map(|one| PictureLine::of(titled(one, handed), &one.taken_at));
        let claim = ClaimFile::of(
            &stored.inputs,
            ClaimSource {
                head: letterhead(&leaves.facts.settings),
                ends: leaves.ends(),
                handed,
                tracking: leaves.tracking(),
                deadline: until,
                events: &events,
                photographs: lines.collect(),
                more_photographs: more,
                today,
                telling: leaves.telling(),
                currency: leaves.money(),
            },
        );
        Ok((claim, kept))
    }
}

/// What a photograph was taken of, by its step.
fn titled<'a>(
    photograph: &Photograph,
    handed: &'a hummock_core::sending::HandedParcel,
) -> Option<&'a str> {
    if photograph.step == DAMAGE {
        return Some("The damage");
    }
    let mut steps = handed.steps.iter();
    steps
        .find(|step| step.key == photograph.step)
        .map(|step| step.title.as_str())
}

/// Returns a claim as one archive: the paper, every photograph as it is kept, and the record as JSON.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "pack_claim", get, path = "/shipments/{id}/claim.zip", tag = "leaving",
    params(("id" = Uuid, Path, description = "Which shipment")),
    responses(
        (status = 200, description = "The archive", body = Vec<u8>, content_type = "application/zip"),
        (status = 404, description = "There is no such shipment, or it was not handed over to a carrier", body = Problem),
        (status = 503, description = "The program that makes documents is not there yet", body = Problem),
    ),
))]
async fn claim_archive(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Response, Problem> {
    let leaves = desk.to_leave(id).await?;
    let paper = desk.printed(&leaves, ParcelPaper::Claim).await?;
    let kept = desk.store.photographs(id).await?;
    let (events, ..) = desk.followed(&leaves.stored).await?;
    let record = record_of(&leaves, &events);
    let failed = |error: std::io::Error| {
        tracing::error!(%error, "an archive was not made");
        Problem::document_failed()
    };
    // It lies in a file while it grows, so that no number of photographs fills the memory.
    let mut zip = ZipWriter::new(tempfile::tempfile().map_err(failed)?);
    let plain = SimpleFileOptions::default().compression_method(CompressionMethod::Stored);
    let mut add = |name: &str, file: &[u8]| -> std::io::Result<()> {
        zip.start_file(name, plain).map_err(std::io::Error::other)?;
        zip.write_all(file)
    };
    add("claim.pdf", &paper).map_err(failed)?;
    add("record.json", &record).map_err(failed)?;
    for (at, photograph) in kept.iter().enumerate() {
        let picture = desk.picture(&photograph.picture).await?;
        let step = photograph
            .step
            .replace(|one: char| !one.is_ascii_alphanumeric(), "-");
        add(&format!("photographs/{:02}-{step}.jpg", at + 1), &picture).map_err(failed)?;
    }
    let mut file = zip
        .finish()
        .map_err(|error| failed(std::io::Error::other(error)))?;
    file.seek(SeekFrom::Start(0)).map_err(failed)?;
    let stream = tokio_util::io::ReaderStream::new(tokio::fs::File::from_std(file));
    let mut response = file_of("claim.zip", "application/zip", Vec::new());
    *response.body_mut() = Sent::from_stream(stream);
    response.headers_mut().remove(header::CONTENT_LENGTH);
    Ok(response)
}

fn record_of(leaves: &ToLeave, events: &[TrackingEvent]) -> Vec<u8> {
    let record = json!({
        "inputs": leaves.stored.inputs,
        "handed_over": leaves.stored.handed,
        "tracking": leaves.tracking(),
        "events": events,
    });
    serde_json::to_vec_pretty(&record).unwrap_or_default()
}

/// Which day, and whose parcels.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct HandOverQuery {
    /// As 2027-03-05.
    #[cfg_attr(feature = "schema", param(value_type = String, format = Date))]
    on: Date,
    /// The carrier's tariff, as `gannet-post`.
    tariff: String,
}

/// Returns a carrier's parcels of a day as a list to sign.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "print_hand_over", get, path = "/leaving/hand-over-list", tag = "leaving", params(HandOverQuery),
    responses(
        (status = 200, description = "The document", body = String, content_type = "application/pdf"),
        (status = 404, description = "Nothing is booked with that carrier on that day", body = Problem),
        (status = 503, description = "The program that makes documents is not there yet", body = Problem),
    ),
))]
async fn hand_over(desk: Desk, Asked(query): Asked<HandOverQuery>) -> Result<Response, Problem> {
    let settings = desk.store.settings().await?;
    let there = desk.leaving_on(query.on).await?;
    let collection = there
        .into_iter()
        .find(|one| one.tariff == query.tariff)
        .ok_or_else(|| Problem::not_found("parcel booked with that carrier for that day"))?;
    let parcels = collection.parcels.into_iter().map(|parcel| {
        let row = HandOverRow {
            tracking: parcel.tracking,
            service: parcel.service,
            title: parcel.title,
            to: parcel.to,
            mass: String::new(),
        };
        (row, Mass::g(parcel.mass_g))
    });
    let telling = settings.manners.telling(settings.unit);
    let list = HandOverList::of(
        letterhead(&settings),
        &collection.carrier,
        &telling.day(query.on),
        parcels.collect(),
        telling,
    );
    let document = desk
        .with_mark("hand_over", json!({ "list": list }), &settings)
        .await?;
    Ok(file_of("hand-over-list.pdf", "application/pdf", document))
}

/// Reads the ids of shipments, with commas between them.
fn ids_of(text: &str) -> Result<Vec<Uuid>, Problem> {
    let refused = |says: &str| Problem::from(vec![Refusal::new("of", says)]);
    let ids: Vec<Uuid> = text
        .split(',')
        .map(str::trim)
        .map(str::parse)
        .collect::<Result<_, _>>()
        .map_err(|_| refused("write the ids of shipments, with commas between them"))?;
    if ids.len() > MOST_TOGETHER {
        return Err(refused("print at most 60 shipments at a time"));
    }
    Ok(ids)
}

/// Of which shipments.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct MaterialsQuery {
    /// The ids of 1 to 60 shipments, with commas between them.
    of: String,
}

/// Returns what several shipments take off the shelf together, as a list to gather by: how much there is, and what has to be ordered.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "print_materials", get, path = "/leaving/materials-list", tag = "leaving", params(MaterialsQuery),
    responses(
        (status = 200, description = "The document", body = String, content_type = "application/pdf"),
        (status = 404, description = "One of the shipments is not there", body = Problem),
        (status = 422, description = "That is no list of 1 to 60 shipments, or one of them can't be packed as it is", body = Problem),
        (status = 503, description = "The program that makes documents is not there yet", body = Problem),
    ),
))]
async fn materials(desk: Desk, Asked(query): Asked<MaterialsQuery>) -> Result<Response, Problem> {
    let mut asked: Vec<ShipmentInputs> = Vec::new();
    for id in ids_of(&query.of)? {
        asked.push(desk.stored(id).await?.inputs);
    }
    let titles: Vec<String> = asked.iter().map(|inputs| inputs.title_of(FIRST)).collect();
    let house = desk.house().await?;
    let stock = desk.store.stock().await?;
    let lines = beside(move || {
        let asked: Vec<&ShipmentInputs> = asked.iter().collect();
        ways::materials_together(&asked, &house.house, &stock)
    })
    .await?;
    let settings = desk.store.settings().await?;
    let telling = settings.manners.telling(settings.unit);
    let on = telling.day(desk.clock.today());
    let list = MaterialsList::of((letterhead(&settings), on), &titles, &lines, telling);
    let document = desk
        .with_mark("materials", json!({ "list": list }), &settings)
        .await?;
    Ok(file_of("materials.pdf", "application/pdf", document))
}

/// Whose labels, and on what.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct LabelsQuery {
    /// The ids of 1 to 60 shipments, with commas between them.
    of: String,
    /// Whether each stands on a sheet with a line to cut along, rather than on a label printer's own paper.
    #[serde(default)]
    sheet: bool,
}

/// Returns the labels of several parcels in one document, a page each, in the order that is asked for.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "print_labels", get, path = "/leaving/labels", tag = "leaving", params(LabelsQuery),
    responses(
        (status = 200, description = "The document", body = String, content_type = "application/pdf"),
        (status = 404, description = "One of the shipments is not there, or has no tracking number yet", body = Problem),
        (status = 422, description = "That is no list of 1 to 60 shipments", body = Problem),
        (status = 503, description = "The program that makes documents is not there yet", body = Problem),
    ),
))]
async fn several_labels(desk: Desk, Asked(query): Asked<LabelsQuery>) -> Result<Response, Problem> {
    let ids = ids_of(&query.of)?;
    let settings = desk.store.settings().await?;
    let mut labels = Vec::with_capacity(ids.len());
    for id in ids {
        let leaves = desk.to_leave(id).await?;
        labels.push(desk.labelled(&leaves).await?);
    }
    let document = desk.labels(&settings, labels, query.sheet).await?;
    Ok(file_of("labels.pdf", "application/pdf", document))
}

/// Returns the days of a shipment for a calendar: when paint and varnish have cured, when it leaves, until when it was promised.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_calendar", get, path = "/shipments/{id}/calendar.ics", tag = "leaving",
    params(("id" = Uuid, Path, description = "Which shipment")),
    responses(
        (status = 200, description = "iCalendar (RFC 5545), a whole day each", body = String, content_type = "text/calendar"),
        (status = 404, description = "There is no such shipment", body = Problem),
    ),
))]
async fn calendar(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Response, Problem> {
    let stored = desk.stored(id).await?;
    let booking = desk.store.booking(id).await?;
    let booked = booking.filter(|booking| booking.state == BookingState::Booked);
    let summary = stored.computed.summary.as_ref();
    let cured = summary.and_then(|summary| summary.cure.as_ref()?.cured_on);
    let leaves = booked
        .map(|booking| booking.leaves_on)
        .or(stored.inputs.leaves_on());
    let text = calendar_of(id, &stored.inputs, [cured, leaves]);
    Ok(file_of(
        "shipment.ics",
        "text/calendar; charset=utf-8",
        text.into_bytes(),
    ))
}

fn calendar_of(id: Uuid, inputs: &ShipmentInputs, [cured, leaves]: [Option<Date>; 2]) -> String {
    let title = inputs.title_of(hummock_core::plan::FIRST);
    let days = [
        ("cured", cured, format!("{title}: cured, can be wrapped")),
        ("leaves", leaves, format!("{title}: leaves")),
        (
            "promised",
            inputs.promised_for(),
            format!("{title}: promised to {}", inputs.buyer.name.trim()),
        ),
    ];
    let mut calendar = ICalendar::new("2.0", "-//Hummock//EN");
    let written = Timestamp::now().strftime("%Y%m%dT%H%M%SZ").to_string();
    for (what, day, says) in days {
        let Some(day) = day else {
            continue;
        };
        // The same day of the same shipment is the same event, however often it is read in.
        let mut event = Event::new(format!("{id}-{what}@hummock"), written.clone());
        let on = |day: Date| day.strftime("%Y%m%d").to_string();
        let mut from = DtStart::new(on(day));
        from.add(ValueKind::DATE);
        event.push(from);
        // A calendar's end is the first moment that is no longer of it.
        if let Ok(next) = day.tomorrow() {
            let mut until = DtEnd::new(on(next));
            until.add(ValueKind::DATE);
            event.push(until);
        }
        event.push(Summary::new(escape_text(says)));
        calendar.add_event(event);
    }
    calendar.to_string()
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/shipments/{id}/papers/{paper}" => print,
        get "/shipments/{id}/claim.zip" => claim_archive,
        get "/leaving/hand-over-list" => hand_over,
        get "/leaving/materials-list" => materials,
        get "/leaving/labels" => several_labels,
        get "/shipments/{id}/calendar.ics" => calendar,
    ]
}
