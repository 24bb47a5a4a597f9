//! Photographs over HTTP: each is kept once and upright, and what is none is refused with its reason.

use std::io::Cursor;

use image::{DynamicImage, ImageFormat, Rgb, RgbImage};
use reqwest::StatusCode;
use serde_json::{Value, json};
use sqlx::PgPool;
use test_context::test_context;
use uuid::Uuid;

use crate::{Api, Demo, NoShipments, answer, canvas, text};

/// A picture, dark on its left and light on its right.
fn picture(width: u32, height: u32) -> RgbImage {
    RgbImage::from_fn(width, height, |x, _| {
        if x < width / 2 {
            Rgb([20, 20, 20])
        } else {
            Rgb([235, 235, 235])
        }
    })
}

fn written(picture: &RgbImage, format: ImageFormat) -> Vec<u8> {
    let mut file = Cursor::new(Vec::new());
    DynamicImage::ImageRgb8(picture.clone())
        .write_to(&mut file, format)
        .expect("it can be written");
    file.into_inner()
}

/// The same JPEG with what a camera writes before it: that it lies on its side, and where it was taken.
fn taken_on_its_side(jpeg: &[u8]) -> Vec<u8> {
    const PLACE: &[u8] = b"N54.00 W1.00";
    // TIFF, big endian: one directory of two entries, orientation 6 (turn right) and a description that says the place.
    let mut tiff = b"MM\0\x2a\0\0\0\x08\0\x02".to_vec();
    tiff.extend(b"\x01\x0e\0\x02\0\0\0\x0c\0\0\0\x26");
    tiff.extend(b"\x01\x12\0\x03\0\0\0\x01\0\x06\0\0");
    tiff.extend(b"\0\0\0\0");
    tiff.extend(PLACE);
    let mut segment = b"Exif\0\0".to_vec();
    segment.extend(tiff);
    let long = u16::try_from(segment.len() + 2).expect("a short segment");
    let mut file = jpeg[..2].to_vec();
    file.extend([0xff, 0xe1]);
    file.extend(long.to_be_bytes());
    file.extend(segment);
    file.extend(&jpeg[2..]);
    file
}

/// A PNG that says how large it is and has next to nothing in it.
fn png_that_says(width: u32, height: u32) -> Vec<u8> {
    let mut file = written(&picture(8, 8), ImageFormat::Png);
    file[16..20].copy_from_slice(&width.to_be_bytes());
    file[20..24].copy_from_slice(&height.to_be_bytes());
    // The check of the head has to be right, or it is no PNG at all.
    let check = crc(&file[12..29]);
    file[29..33].copy_from_slice(&check.to_be_bytes());
    file
}

/// The check that PNG writes behind each of its parts.
fn crc(bytes: &[u8]) -> u32 {
    let mut crc = u32::MAX;
    for byte in bytes {
        crc ^= u32::from(*byte);
        for _ in 0..8 {
            crc = if crc & 1 == 1 {
                (crc >> 1) ^ 0xedb8_8320
            } else {
                crc >> 1
            };
        }
    }
    !crc
}

/// A picture as a camera writes it.
pub(crate) fn jpeg(side: u32) -> Vec<u8> {
    written(&picture(side, side), ImageFormat::Jpeg)
}

async fn send_at(
    api: &Api,
    path: &str,
    [step, at]: [&str; 2],
    file: Vec<u8>,
) -> (StatusCode, Value) {
    let request = api
        .client
        .put(format!("{}{path}", api.base))
        .query(&[("step", step), ("taken_at", at)])
        .body(file);
    answer(request.send().await.expect("an answer")).await
}

/// Sends a photograph of a shipment.
pub(crate) async fn send_to(
    api: &Api,
    shipment: &str,
    id: Uuid,
    file: Vec<u8>,
) -> (StatusCode, Value) {
    let taken = ["look/photographs", "2027-03-04T10:15:00Z"];
    send_at(api, &format!("{shipment}/photographs/{id}"), taken, file).await
}

struct Bench {
    api: Api,
    shipment: String,
}

impl Bench {
    async fn open(pool: &PgPool) -> Self {
        let api = Api::start(pool, false).await;
        let created = json!({ "inputs": { "title": "Slack Tide", "piece": canvas() } });
        let (_, made) = api.post("/api/v1/shipments", created).await;
        let shipment = format!("/api/v1/shipments/{}", text(&made["id"]));
        Self { api, shipment }
    }

    fn at(&self, id: Uuid) -> String {
        format!("{}/photographs/{id}", self.shipment)
    }

    async fn send(&self, id: Uuid, file: Vec<u8>) -> (StatusCode, Value) {
        self.send_at(id, "look/photographs", "2027-03-04T10:15:00Z", file)
            .await
    }

    async fn send_at(&self, id: Uuid, step: &str, at: &str, file: Vec<u8>) -> (StatusCode, Value) {
        send_at(&self.api, &self.at(id), [step, at], file).await
    }

    async fn list(&self) -> Vec<Value> {
        let list = self
            .api
            .get(&format!("{}/photographs", self.shipment))
            .await;
        list.as_array().expect("a list").clone()
    }

    async fn read(&self, id: Uuid) -> (StatusCode, Vec<u8>) {
        let url = format!("{}{}", self.api.base, self.at(id));
        let response = self.api.client.get(url).send().await.expect("an answer");
        let status = response.status();
        (status, response.bytes().await.expect("bytes").to_vec())
    }
}

#[test_context(Demo)]
#[tokio::test]
async fn a_photograph_is_kept_once_upright_and_without_its_place(Demo(database): &Demo) {
    let bench = Bench::open(database.pool()).await;
    let id = Uuid::from_u128(1);
    let file = taken_on_its_side(&written(&picture(64, 32), ImageFormat::Jpeg));
    let (status, view) = bench.send(id, file.clone()).await;
    assert_eq!(status, StatusCode::OK, "{view}");
    // Turned right it stands 32 wide and 64 high, and what was on its left is above.
    assert_eq!(
        (view["width"].as_i64(), view["height"].as_i64()),
        (Some(32), Some(64))
    );
    let (status, kept) = bench.read(id).await;
    assert_eq!(status, StatusCode::OK);
    let shown = image::load_from_memory(&kept)
        .expect("a picture")
        .into_rgb8();
    assert_eq!(shown.dimensions(), (32, 64));
    assert!(shown.get_pixel(16, 4).0[0] < 80 && shown.get_pixel(16, 60).0[0] > 180);
    for gone in [b"N54.00".as_slice(), b"Exif"] {
        assert!(file.windows(gone.len()).any(|part| part == gone));
        assert!(!kept.windows(gone.len()).any(|part| part == gone));
    }
    // An answer was lost: the same file again is the same photograph, another one under that id is none.
    let (status, again) = bench.send(id, file).await;
    assert_eq!((status, &again), (StatusCode::OK, &view));
    let (status, problem) = bench
        .send(id, written(&picture(16, 16), ImageFormat::Png))
        .await;
    assert_eq!(
        (status, text(&problem["type"])),
        (StatusCode::CONFLICT, "/problems/another-photograph".into())
    );
    assert_eq!(bench.list().await.len(), 1);
}

/// Whoever is written down keeps their picture, whatever the other one wrote meanwhile.
#[test_context(Demo)]
#[tokio::test]
async fn of_two_pictures_sent_under_one_id_at_once_one_stands_whole(Demo(database): &Demo) {
    let bench = Bench::open(database.pool()).await;
    for round in 0..8 {
        let id = Uuid::from_u128(round + 1);
        let [small, large] = [24, 48].map(|side| written(&picture(side, side), ImageFormat::Png));
        let (one, other) = tokio::join!(bench.send(id, small), bench.send(id, large));
        let stands = match (one.0, other.0) {
            (StatusCode::OK, StatusCode::CONFLICT) => one.1,
            (StatusCode::CONFLICT, StatusCode::OK) => other.1,
            _ => panic!("{one:?} {other:?}"),
        };
        let (status, kept) = bench.read(id).await;
        assert_eq!(
            (status, &json!(kept.len())),
            (StatusCode::OK, &stands["bytes"])
        );
        let shown = image::load_from_memory(&kept).expect("a picture");
        assert_eq!(json!(shown.width()), stands["width"]);
    }
    assert_eq!(bench.list().await.len(), 8);
}

#[test_context(Demo)]
#[tokio::test]
async fn they_are_listed_as_they_were_taken_and_can_be_thrown_away(Demo(database): &Demo) {
    let bench = Bench::open(database.pool()).await;
    let taken = [
        (3, "2027-03-04T10:17:00Z"),
        (1, "2027-03-04T10:15:00Z"),
        (2, "2027-03-04T10:16:00Z"),
    ];
    for (id, at) in taken {
        let format = [ImageFormat::Png, ImageFormat::Jpeg, ImageFormat::WebP][usize::from(id == 1)];
        let (status, view) = bench
            .send_at(
                Uuid::from_u128(id),
                "close/box",
                at,
                written(&picture(20, 10), format),
            )
            .await;
        assert_eq!(
            (status, text(&view["step"])),
            (StatusCode::OK, "close/box".into()),
            "{view}"
        );
    }
    let ids = |list: &[Value]| -> Vec<String> { list.iter().map(|one| text(&one["id"])).collect() };
    let named = |all: &[u128]| -> Vec<String> {
        all.iter()
            .map(|id| Uuid::from_u128(*id).to_string())
            .collect()
    };
    assert_eq!(ids(&bench.list().await), named(&[1, 2, 3]));
    assert_eq!(
        bench.api.delete(&bench.at(Uuid::from_u128(2))).await,
        StatusCode::NO_CONTENT
    );
    assert_eq!(
        bench.api.delete(&bench.at(Uuid::from_u128(2))).await,
        StatusCode::NOT_FOUND
    );
    assert_eq!(ids(&bench.list().await), named(&[1, 3]));
    assert_eq!(
        bench.read(Uuid::from_u128(2)).await.0,
        StatusCode::NOT_FOUND
    );
    // Under another shipment it is not found, and none can be given to one that is not there.
    let other = format!(
        "/api/v1/shipments/{}/photographs/{}",
        Uuid::from_u128(9),
        Uuid::from_u128(1)
    );
    assert_eq!(bench.api.delete(&other).await, StatusCode::NOT_FOUND);
    let url = format!(
        "{}{other}?step=a&taken_at=2027-03-04T10:15:00Z",
        bench.api.base
    );
    let file = written(&picture(8, 8), ImageFormat::Png);
    let sent = bench
        .api
        .client
        .put(url.replace("0001?", "0007?"))
        .body(file)
        .send()
        .await;
    assert_eq!(sent.expect("an answer").status(), StatusCode::NOT_FOUND);
}

#[test_context(Demo)]
#[tokio::test]
async fn what_is_no_photograph_is_refused_with_its_reason_and_nothing_is_lost(
    Demo(database): &Demo,
) {
    let bench = Bench::open(database.pool()).await;
    let jpeg = written(&picture(900, 600), ImageFormat::Jpeg);
    let png = written(&picture(900, 600), ImageFormat::Png);
    let files: [(&str, Vec<u8>); 8] = [
        (
            "no JPEG, PNG or WebP",
            b"this is a text that somebody named photo.jpg".to_vec(),
        ),
        ("no JPEG, PNG or WebP", Vec::new()),
        (
            "no JPEG, PNG or WebP",
            b"GIF89a\x01\0\x01\0\0\0\0;".to_vec(),
        ),
        ("breaks off", jpeg[..jpeg.len() / 2].to_vec()),
        ("breaks off", png[..png.len() / 2].to_vec()),
        // 20 000 × 10 000 points in a file of some hundred bytes, and the largest that a PNG can say.
        ("20000 × 10000 points", png_that_says(20_000, 10_000)),
        ("points", png_that_says(60_000, 60_000)),
        ("breaks off", png_that_says(7000, 7000)),
    ];
    for (at, (says, file)) in (1_u128..).zip(files) {
        let (status, problem) = bench.send(Uuid::from_u128(at), file).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        assert_eq!(problem["errors"][0]["field"], "file");
        let message = text(&problem["errors"][0]["message"]);
        assert!(message.contains(says), "{at}: {message}");
    }
    let (status, problem) = bench.send(Uuid::from_u128(20), vec![0; 13 << 20]).await;
    assert_eq!(status, StatusCode::PAYLOAD_TOO_LARGE);
    assert!(text(&problem["detail"]).contains("over 12 MB"), "{problem}");
    for (step, at, field) in [
        ("", "2027-03-04T10:15:00Z", "step"),
        ("a b", "2027-03-04T10:15:00Z", "step"),
        ("close/box", "this morning", "taken_at"),
    ] {
        let (status, problem) = bench
            .send_at(Uuid::from_u128(21), step, at, jpeg.clone())
            .await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        assert_eq!(problem["errors"][0]["field"], field);
    }
    assert!(bench.list().await.is_empty());
    // A good one goes through as before, and a large one is kept smaller.
    let (status, view) = bench
        .send(
            Uuid::from_u128(22),
            written(&picture(5000, 1000), ImageFormat::Jpeg),
        )
        .await;
    assert_eq!(status, StatusCode::OK, "{view}");
    assert_eq!(
        (view["width"].as_i64(), view["height"].as_i64()),
        (Some(4096), Some(819))
    );
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_folder_keeps_them_from_one_start_to_the_next(NoShipments(database): &NoShipments) {
    let folder = std::env::temp_dir().join(format!("hummock-photographs-{}", Uuid::new_v4()));
    let in_folder =
        || hummock_server::Pictures::at(folder.to_str().expect("a plain name")).expect("a folder");
    let api = Api::start_with(database.pool(), false, |options| {
        options.pictures = in_folder()
    })
    .await;
    let (_, made) = api
        .post(
            "/api/v1/shipments",
            json!({ "inputs": { "title": "Slack Tide" } }),
        )
        .await;
    let bench = Bench {
        api,
        shipment: format!("/api/v1/shipments/{}", text(&made["id"])),
    };
    let id = Uuid::from_u128(1);
    let (status, _) = bench
        .send(id, written(&picture(40, 30), ImageFormat::Png))
        .await;
    assert_eq!(status, StatusCode::OK);
    let kept = bench.read(id).await;
    let Bench { api, shipment } = bench;
    api.running
        .expect("it is its own")
        .stop()
        .await
        .expect("it stops");
    let api = Api::start_with(database.pool(), false, |options| {
        options.pictures = in_folder()
    })
    .await;
    let bench = Bench { api, shipment };
    assert_eq!(bench.read(id).await, kept);
    std::fs::remove_dir_all(&folder).expect("it was there");
}

/// A bucket that is none, for what is asked of one here: objects by their path, whoever signs.
#[cfg(feature = "s3")]
async fn bucket() -> (String, std::sync::Arc<std::sync::Mutex<Vec<String>>>) {
    use std::{
        collections::HashMap,
        sync::{Arc, Mutex},
    };

    use axum::{
        Router,
        body::Bytes,
        extract::{Path, State},
        http::StatusCode,
        routing::any,
    };

    type Held = Arc<Mutex<HashMap<String, Bytes>>>;
    let names: Arc<Mutex<Vec<String>>> = Arc::default();
    let seen = names.clone();
    let held: Held = Arc::default();
    let app = Router::new()
        .route(
            "/{*path}",
            any(
                move |State(held): State<Held>,
                      Path(path): Path<String>,
                      method: axum::http::Method,
                      body: Bytes| async move {
                    let mut held = held.lock().expect("nobody fails");
                    match method.as_str() {
                        "PUT" => {
                            seen.lock().expect("nobody fails").push(path.clone());
                            held.insert(path, body);
                            (
                                StatusCode::OK,
                                [
                                    ("etag", "\"1\""),
                                    ("last-modified", "Thu, 04 Mar 2027 10:15:00 GMT"),
                                ],
                                Bytes::new(),
                            )
                        }
                        "DELETE" => {
                            held.remove(&path);
                            (
                                StatusCode::NO_CONTENT,
                                [("etag", ""), ("last-modified", "")],
                                Bytes::new(),
                            )
                        }
                        _ => match held.get(&path) {
                            Some(found) => (
                                StatusCode::OK,
                                [
                                    ("etag", "\"1\""),
                                    ("last-modified", "Thu, 04 Mar 2027 10:15:00 GMT"),
                                ],
                                found.clone(),
                            ),
                            None => (
                                StatusCode::NOT_FOUND,
                                [("etag", ""), ("last-modified", "")],
                                Bytes::new(),
                            ),
                        },
                    }
                },
            ),
        )
        .with_state(held);
    let listener = tokio::net::TcpListener::bind("127.0.0.1:0")
        .await
        .expect("a port");
    let address = listener.local_addr().expect("an address");
    tokio::spawn(async move { axum::serve(listener, app).await });
    (format!("http://{address}"), names)
}

#[cfg(feature = "s3")]
#[test_context(NoShipments)]
#[tokio::test]
async fn a_bucket_keeps_them_too(NoShipments(database): &NoShipments) {
    let (endpoint, names) = bucket().await;
    let settings = [
        ("AWS_ENDPOINT", endpoint.as_str()),
        ("AWS_ALLOW_HTTP", "true"),
        ("AWS_ACCESS_KEY_ID", "a"),
        ("AWS_SECRET_ACCESS_KEY", "b"),
        ("AWS_REGION", "here"),
        ("HOME", "/root"),
    ];
    let settings = settings.map(|(name, value)| (name.to_owned(), value.to_owned()));
    let pictures =
        hummock_server::Pictures::in_bucket("s3://saltgrass/bench", settings).expect("a bucket");
    let api = Api::start_with(database.pool(), false, |options| {
        options.pictures = pictures
    })
    .await;
    let (_, made) = api
        .post(
            "/api/v1/shipments",
            json!({ "inputs": { "title": "Slack Tide" } }),
        )
        .await;
    let bench = Bench {
        api,
        shipment: format!("/api/v1/shipments/{}", text(&made["id"])),
    };
    let id = Uuid::from_u128(1);
    let (status, view) = bench
        .send(id, written(&picture(40, 30), ImageFormat::Png))
        .await;
    assert_eq!(status, StatusCode::OK, "{view}");
    let (status, kept) = bench.read(id).await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!(i64::try_from(kept.len()).ok(), view["bytes"].as_i64());
    let put = names.lock().expect("nobody fails").clone();
    assert!(
        put[0].starts_with("saltgrass/bench/") && put[0].contains(&format!("/{id}-")),
        "{put:?}"
    );
    assert_eq!(
        bench.api.delete(&bench.at(id)).await,
        StatusCode::NO_CONTENT
    );
}
