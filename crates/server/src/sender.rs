//! Who sends: the studio's own address, mark and card, as they stand on labels and papers.

use axum::{
    Json,
    extract::DefaultBodyLimit,
    http::{HeaderValue, StatusCode, header},
    response::{IntoResponse, Response},
};
use hummock_core::{
    Refusal, Refusals,
    place::{Countries, PostcodePlace},
    sending::{
        Sender,
        papers::{Card, Letterhead},
    },
    text::refused_text,
};
use hummock_store::{HouseAt, Settings};
use serde::{Deserialize, Serialize};

use crate::{
    body::Body,
    desk::Desk,
    photographs::File,
    problem::Problem,
    routes::{Routes, routes},
    settings::Beside,
};

/// Who sends.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct SenderView {
    /// Counts up with every change; send it back with the next one.
    version: i32,
    /// What the studio is called.
    name: String,
    /// Where it is.
    town: String,
    /// Its address, as it stands on labels and papers.
    sender: Sender,
    /// The card that its certificates are printed on, in millimetres.
    certificate: Card,
    /// Where it sends to, and where each country's custom has the postcode.
    countries: Vec<CountryForm>,
    /// Whether a mark of its own is kept.
    has_mark: bool,
}

/// A country, and where its custom has the postcode.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct CountryForm {
    /// Two capital letters.
    code: String,
    /// What people call it.
    name: String,
    /// Where its custom has the postcode.
    postcode: PostcodePlace,
}

/// A change of who sends.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct SenderRequest {
    /// The version that it is based on.
    version: i32,
    /// What the studio is called.
    name: String,
    /// Where it is.
    town: String,
    /// Its address.
    sender: Sender,
    /// The card that its certificates are printed on: sides of 80 to 420 mm.
    certificate: Card,
    /// Of countries that it sends to, where the postcode stands; one that is not named stays as it is.
    #[serde(default)]
    countries: Vec<CountryForm>,
}

/// Refuses a country that there is not; an empty one is none yet.
pub(crate) fn refused_country(field: &str, code: &str, known: &Countries) -> Option<Refusal> {
    (!code.is_empty() && !known.knows(code)).then(|| {
        let says = format!(
            "country \"{code}\" doesn't exist: write a two-letter code, or add your own country"
        );
        Refusal::new(field, says)
    })
}

/// No file of a mark is larger.
const LARGEST_MARK: usize = 4 << 20;

impl Desk {
    async fn sender(&self) -> Result<Json<SenderView>, Problem> {
        let (version, settings) = self.store.settings_at().await?;
        let has_mark = self.store.mark().await?.is_some();
        let known = settings.known_countries();
        let countries = settings.countries.iter().map(|country| CountryForm {
            code: country.code.clone(),
            name: known.name(&country.code).to_owned(),
            postcode: country.postcode,
        });
        let countries = countries.collect();
        Ok(Json(SenderView {
            version,
            name: settings.name,
            town: settings.town,
            countries,
            sender: settings.sender,
            certificate: settings.certificate,
            has_mark,
        }))
    }
}

/// Returns the head of a studio's papers.
pub(crate) fn letterhead(settings: &Settings) -> Letterhead {
    let address = &settings.sender.address;
    let named = if address.name.trim().is_empty() {
        &settings.name
    } else {
        &address.name
    };
    let mut lines = settings.lines(address, false);
    lines.retain(|line| line != named);
    let Sender {
        telephone, email, ..
    } = &settings.sender;
    let reached = [telephone.trim(), email.trim()]
        .into_iter()
        .filter(|text| !text.is_empty());
    let reached = reached.collect::<Vec<_>>().join(" · ");
    let lines = [lines.join(", "), reached]
        .into_iter()
        .filter(|line| !line.is_empty());
    Letterhead {
        studio: named.clone(),
        lines: lines.collect(),
    }
}

/// Returns who sends: name, address, card, and how each country's addresses are written.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_sender", get, path = "/studio/sender", tag = "studio",
    responses((status = 200, description = "As it stands on labels and papers", body = SenderView)),
))]
async fn show(desk: Desk) -> Result<Json<SenderView>, Problem> {
    desk.sender().await
}

/// Changes who sends.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "change_sender", put, path = "/studio/sender", tag = "studio", request_body = SenderRequest,
    responses(
        (status = 200, description = "As it stands now", body = SenderView),
        (status = 409, description = "Somebody changed it since; read it again", body = Problem),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
async fn change(
    desk: Desk,
    Body(request): Body<SenderRequest>,
) -> Result<Json<SenderView>, Problem> {
    let mut refusals: Refusals = [("name", &request.name), ("town", &request.town)]
        .into_iter()
        .filter_map(|(field, text)| refused_text(field, text))
        .collect();
    if request.name.trim().is_empty() {
        refusals.refuse("name", "give the studio a name: it stands on every paper");
    }
    refusals.extend(request.sender.refused());
    refusals.extend(request.certificate.refused());
    refusals.done()?;
    let lay = |_: &HouseAt, settings: &mut Settings| {
        let known = settings.known_countries();
        let mut refusals = Refusals::default();
        if let Some(refusal) = refused_country(
            "sender.address.country",
            &request.sender.address.country,
            &known,
        ) {
            refusals.push(refusal);
        }
        settings.name.clone_from(&request.name);
        settings.town.clone_from(&request.town);
        settings.sender.clone_from(&request.sender);
        settings.certificate = request.certificate;
        for (at, named) in request.countries.iter().enumerate() {
            match settings
                .countries
                .iter_mut()
                .find(|country| country.code == named.code)
            {
                Some(country) => country.postcode = named.postcode,
                None => {
                    let says = format!(
                        "\"{}\" isn't one of the studio's countries: add it in Settings",
                        named.code
                    );
                    refusals.refuse(format!("countries[{at}].code"), says);
                }
            }
        }
        refusals.done()?;
        Ok(Beside::default())
    };
    desk.keep_settings(Some(request.version), lay).await?;
    desk.sender().await
}

/// Keeps the studio's own mark: JPEG, PNG or WebP, at most 4 MB; clear parts stay clear.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "keep_mark", put, path = "/studio/mark", tag = "studio",
    request_body(content = Vec<u8>, content_type = "image/png"),
    responses(
        (status = 204, description = "It is kept"),
        (status = 413, description = "It is over 4 MB", body = Problem),
        (status = 422, description = "It is no picture", body = Problem),
        (status = 503, description = "The program that looks pictures over is still being made; send it again", body = Problem),
    ),
))]
async fn keep_mark(desk: Desk, file: File<LARGEST_MARK>) -> Result<StatusCode, Problem> {
    let png = desk.app.documents.mark(&file.bytes).await?;
    desk.store.keep_mark(Some(&png)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Returns the studio's own mark, as PNG.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_mark", get, path = "/studio/mark", tag = "studio",
    responses(
        (status = 200, description = "The picture", body = Vec<u8>, content_type = "image/png"),
        (status = 404, description = "None is kept", body = Problem),
    ),
))]
async fn read_mark(desk: Desk) -> Result<Response, Problem> {
    let mark = desk.store.mark().await?;
    let mark = mark.ok_or_else(|| Problem::not_found("mark"))?;
    let headers = [(header::CONTENT_TYPE, HeaderValue::from_static("image/png"))];
    Ok((headers, mark).into_response())
}

/// Takes the studio's own mark away.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "drop_mark", delete, path = "/studio/mark", tag = "studio",
    responses((status = 204, description = "It is gone")),
))]
async fn drop_mark(desk: Desk) -> Result<StatusCode, Problem> {
    desk.store.keep_mark(None).await?;
    Ok(StatusCode::NO_CONTENT)
}

pub(crate) fn routes() -> Routes {
    routes![
        put "/studio/mark" => keep_mark,
    ]
    .limited(DefaultBodyLimit::max(LARGEST_MARK))
    .merge(routes![
        get "/studio/mark" => read_mark,
        delete "/studio/mark" => drop_mark,
        get "/studio/sender" => show,
        put "/studio/sender" => change,
    ])
}
