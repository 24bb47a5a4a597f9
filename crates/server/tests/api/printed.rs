//! What is printed follows the studio: its ruler, its scale, its dates, and the paper in its printer.

use hummock_core::sending::Fate;
use test_context::test_context;

use super::leaving::{
    at, beside, book_on, bytes, change, documents_program, first_day, ready, standins, words,
};
use super::*;

/// The metric units that a text names, behind a space or glued to their number.
fn metric(text: &str) -> Vec<&str> {
    const UNITS: [&str; 7] = ["mm", "cm", "m", "kg", "g", "cm²", "m²"];
    let words = text.split(|one: char| !(one.is_alphanumeric() || one == '²'));
    words
        .map(|word| word.trim_start_matches(|one: char| one.is_ascii_digit()))
        .filter(|word| UNITS.contains(word))
        .collect()
}

/// How wide and high the first page is, in points: 72 to the inch.
fn page_of(pdf: &[u8]) -> [f32; 2] {
    let document = lopdf::Document::load_mem(pdf).expect("a PDF");
    let page = document.get_pages()[&1];
    let page = document.get_dictionary(page).expect("a page");
    let sides = page
        .get(b"MediaBox")
        .and_then(lopdf::Object::as_array)
        .expect("its size");
    [2, 3].map(|at: usize| sides[at].as_float().expect("a number").round())
}

#[test_context(Demo)]
#[tokio::test]
async fn a_studio_with_an_inch_ruler_finds_no_millimetre_on_its_papers(Demo(database): &Demo) {
    let standins = standins().await;
    let api = beside(database.pool(), standins.carrier_url()).await;
    let (status, kept) = api
        .put(
            "/api/v1/studio/settings",
            json!({ "length": "in", "mass": "lb", "date_order": "mdy", "paper": "letter", "label": "4x6", "tax": { "other": "EIN 12-3456789" } }),
        )
        .await;
    assert_eq!(status, StatusCode::OK, "{kept}");
    // Letter is 8 1/2 × 11 in, 612 × 792 points; a label of 4 × 6 in 288 × 432.
    const LETTER: [f32; 2] = [612.0, 792.0];
    const LABEL: [f32; 2] = [288.0, 432.0];
    let shipment = ready(&api, "XS").await;
    let on = first_day(&api, &shipment).await;
    let (_, leaving) = book_on(&api, &shipment, &on).await;
    let number = text(&leaving["booking"]["tracking"]);
    let cutting = json!({ "shipments": [shipment["id"]] });
    let (status, layout) = api.post("/api/v1/cuttings", cutting).await;
    assert_eq!(status, StatusCode::CREATED, "{layout}");
    let layout = format!("/api/v1/cuttings/{}/drawings/pdf", text(&layout["id"]));
    let mut papers = vec![
        (at(&shipment, "/pack-sheet"), LETTER, "15 3/4"),
        (at(&shipment, "/unpacking-guide"), LETTER, "Unpacking"),
        (at(&shipment, "/papers/slip"), LETTER, "15 3/4"),
        (at(&shipment, "/papers/crating"), LETTER, " lb"),
        (at(&shipment, "/papers/label"), LABEL, " lb"),
        (at(&shipment, "/papers/label_a4"), LETTER, "4 in"),
        (at(&shipment, "/papers/condition"), LETTER, "15 3/4"),
        (at(&shipment, "/papers/marks"), LETTER, "Fragile"),
        (layout.clone(), LETTER, "from below"),
        (format!("{layout}?paper=letter&part=1"), LETTER, "4 in"),
        (
            format!("/api/v1/leaving/hand-over-list?on={on}&tariff=gannet-post"),
            LETTER,
            " lb",
        ),
    ];
    for (path, page, says) in papers.drain(..) {
        let (status, file) = bytes(&api, &path).await;
        assert_eq!(
            status,
            StatusCode::OK,
            "{path}: {}",
            String::from_utf8_lossy(&file)
        );
        let told = words(&file);
        assert_eq!(metric(&told), [""; 0], "{path}: {told}");
        assert!(told.contains(says), "{path} lacks {says}: {told}");
        assert_eq!(page_of(&file), page, "{path}");
    }
    // Customs read kilograms and millimetres, with what the studio reads beside them.
    change(&api, &shipment, json!({ "buyer": { "country": "XV" } })).await;
    let (status, file) = bytes(&api, &at(&shipment, "/papers/customs")).await;
    assert_eq!(status, StatusCode::OK);
    let told = words(&file);
    for both in [
        "400 × 500 × 18 mm (15 3/4 ×",
        " kg (",
        " lb",
        "EIN 12-3456789",
    ] {
        assert!(told.contains(both), "{both}: {told}");
    }
    change(&api, &shipment, json!({ "buyer": { "country": "XS" } })).await;
    // It is claimed in the same words.
    standins.carrier.decide(&number, Fate::Damaged, None);
    let left = json!({ "sending": { "handed_over": "2027-02-22", "receipt": "GP 118" } });
    let (status, said) = change(&api, &shipment, left).await;
    assert_eq!(status, StatusCode::OK, "{said}");
    let typed = json!({ "after": { "outcome": "damaged", "on": "2027-03-01", "damage": "A corner is crushed." } });
    let (status, said) = change(&api, &shipment, typed).await;
    assert_eq!(status, StatusCode::OK, "{said}");
    let (status, file) = bytes(&api, &at(&shipment, "/papers/claim")).await;
    assert_eq!(status, StatusCode::OK, "{}", String::from_utf8_lossy(&file));
    let told = words(&file);
    assert_eq!(metric(&told), [""; 0], "{told}");
    // 22 February in the order of the studio.
    assert!(
        told.contains("Feb 22, 2027") && told.contains(" lb"),
        "{told}"
    );
}

#[test_context(Demo)]
#[tokio::test]
async fn names_of_materials_have_their_measures_in_the_studios_unit(Demo(database): &Demo) {
    let api = Api::start(database.pool(), true).await;
    let names = async || {
        let studio = api.get("/api/v1/studio").await;
        let tapes = studio["catalogue"]["tapes"].as_array().expect("tapes");
        tapes
            .iter()
            .map(|tape| text(&tape["name"]))
            .collect::<Vec<String>>()
    };
    let before = names().await;
    assert!(
        before.contains(&"Masking tape 25 mm".to_owned()),
        "{before:?}"
    );
    let settings = "/api/v1/studio/settings";
    let (status, kept) = api.put(settings, json!({ "length": "in" })).await;
    assert_eq!(status, StatusCode::OK, "{kept}");
    let inches = names().await;
    assert!(
        inches.contains(&"Masking tape 1 in".to_owned()),
        "{inches:?}"
    );
    assert!(
        inches.iter().all(|name| !name.contains(" mm")),
        "{inches:?}"
    );
    let (status, kept) = api.put(settings, json!({ "length": "mm" })).await;
    assert_eq!(status, StatusCode::OK, "{kept}");
    assert_eq!(names().await, before);
}

/// The first worker never answers, ends at once, or answers without end; all others are sound.
#[test_context(Demo)]
#[tokio::test]
async fn a_paper_that_hangs_dies_or_grows_takes_nothing_else_with_it(Demo(database): &Demo) {
    use std::os::unix::fs::PermissionsExt as _;

    for fault in ["exec sleep 600", "exec false", "exec yes"] {
        let folder = tempfile::tempdir().expect("a folder");
        let (program, first) = (folder.path().join("documents"), folder.path().join("first"));
        let real = documents_program();
        let script = format!(
            "#!/bin/sh\nif mkdir {} 2>/dev/null; then {fault}; fi\nexec {} \"$@\"\n",
            first.display(),
            real.display()
        );
        std::fs::write(&program, script).expect("a file");
        let runs = std::fs::Permissions::from_mode(0o755);
        std::fs::set_permissions(&program, runs).expect("it is run");
        let api = Api::start_with(database.pool(), true, |options| {
            options.documents = hummock_server::Documents::by(program);
            options.waits.document = std::time::Duration::from_secs(7);
        })
        .await;
        let kelp = super::shelf::named(&api, "Kelp Ladder").await;
        let sheet = format!("/api/v1/shipments/{kelp}/pack-sheet");
        // Both are asked for at once; only one of them gets the worker that fails.
        let (one, other) = tokio::join!(bytes(&api, &sheet), bytes(&api, &sheet));
        let mut statuses = [one.0, other.0];
        statuses.sort_unstable();
        assert_eq!(
            statuses,
            [StatusCode::OK, StatusCode::INTERNAL_SERVER_ERROR],
            "{fault}"
        );
        let (status, again) = bytes(&api, &sheet).await;
        assert_eq!(status, StatusCode::OK, "{fault}");
        assert!(words(&again).contains("Kelp Ladder"), "{fault}");
    }
}
