//! Boxes over the API: the sum of each style, and the styles that a shipment's box could be made in.

use reqwest::StatusCode;
use serde_json::{Value, json};
use test_context::test_context;

use crate::{Api, NoShipments};

const BOX: &str = "/api/v1/sums/box";

fn sum(style: &str, more: Value) -> Value {
    let mut body = json!({
        "style": style, "length_mm": 740, "width_mm": 560, "height_mm": 90, "caliper_mm": 4,
    });
    for (key, value) in more.as_object().into_iter().flatten() {
        body[key] = value.clone();
    }
    body
}

fn numbers(value: &Value) -> Vec<f64> {
    value
        .as_array()
        .into_iter()
        .flatten()
        .filter_map(Value::as_f64)
        .collect()
}

#[test_context(NoShipments)]
#[tokio::test]
async fn nets_come_with_all_that_it_takes_to_fold_them_again(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    for (style, width, height, parts) in [
        ("slotted-edge", 1709.0, 662.0, 1),
        ("slotted-face", 2649.0, 662.0, 1),
        ("tray-and-lid", 928.0, 748.0, 2),
        ("folder", 1132.0, 1324.0, 1),
        // Halves (740 + 111)/2 = 425.5 long; the outer's section 571 × 105: 2 × 571 + 2 × 105 + 49, 425.5 + 4 + 54.5.
        ("telescope", 1401.0, 484.0, 2),
    ] {
        let (status, answer) = api.post(BOX, sum(style, json!({}))).await;
        assert_eq!(status, StatusCode::OK, "{style}: {answer}");
        assert_eq!(answer["blank_width_mm"], width, "{style}");
        assert_eq!(answer["blank_height_mm"], height, "{style}");
        let nets = answer["nets"].as_array().expect("nets");
        assert_eq!(nets.len(), parts, "{style}");
        assert_eq!(answer["parts"].as_array().map(Vec::len), Some(parts));
        for net in nets {
            let panels = net["panels"].as_array().expect("panels");
            let named = |name: &Value| panels.iter().any(|panel| panel["name"] == *name);
            assert!(named(&net["root"]), "{style}");
            let mut hung = vec![net["root"].clone()];
            for hinge in net["hinges"].as_array().into_iter().flatten() {
                // Each hangs on what hangs already, so that it can be folded in the order in which it is told.
                assert!(hung.contains(&hinge["parent"]), "{style}: {hinge}");
                assert!(named(&hinge["child"]), "{style}: {hinge}");
                assert!(hinge["angle_deg"].as_f64().is_some_and(|angle| angle > 0.0));
                hung.push(hinge["child"].clone());
            }
            assert_eq!(hung.len(), panels.len(), "{style}");
        }
    }
}

#[test_context(NoShipments)]
#[tokio::test]
async fn folding_is_told_in_pictures_only_when_it_is_asked_for(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let (_, plain) = api.post(BOX, sum("folder", json!({}))).await;
    assert_eq!(plain["folding"], Value::Null);
    let (_, folded) = api.post(BOX, sum("folder", json!({ "frames": 3 }))).await;
    let folding = &folded["folding"][0];
    // Four steps of three pictures, and the flat one.
    let frames = folding["frames"].as_array().expect("pictures");
    assert_eq!(frames.len(), 13);
    assert_eq!(folding["closes"], true);
    // Flat, every panel lies where it is drawn.
    for panel in frames[0].as_array().into_iter().flatten() {
        let still = [1., 0., 0., 0., 0., 1., 0., 0., 0., 0., 1., 0.];
        assert_eq!(numbers(panel), still);
    }
}

#[test_context(NoShipments)]
#[tokio::test]
async fn what_a_style_lacks_is_named_at_its_field(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    for (body, fields) in [
        (
            json!({ "style": "folder", "length_mm": 5, "caliper_mm": 1 }),
            &["width_mm", "height_mm"][..],
        ),
        (
            json!({ "style": "triangular-tube", "length_mm": 900, "caliper_mm": 4, "outer_roll_mm": 80 }),
            &["sheet_mm"],
        ),
        (sum("telescope", json!({ "length_mm": 40 })), &["length_mm"]),
        (sum("folder", json!({ "frames": 0 })), &["frames"]),
        (sum("folder", json!({ "wrap_mm": 3 })), &["wrap_mm"]),
    ] {
        let (status, problem) = api.post(BOX, body.clone()).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{body}");
        let found: Vec<&str> = problem["errors"]
            .as_array()
            .into_iter()
            .flatten()
            .filter_map(|error| error["field"].as_str())
            .collect();
        assert_eq!(found, fields, "{body}");
    }
    // A style that nobody makes is named with those that there are.
    let (status, problem) = api.post(BOX, sum("barrel", json!({}))).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "style", "{problem}");
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_style_that_is_chosen_is_that_of_the_stored_box(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let body = json!({ "inputs": {
        "buyer": { "country": "XS", "postcode": "TB11 4" }, "value": "400",
        "piece": {
            "construction": "stretched_canvas", "medium": "acrylic",
            "width": "600 mm", "height": "800 mm", "depth": "38 mm",
        },
    } });
    let mut asked = body.clone();
    asked["slot"] = json!("box");
    let (status, changes) = api.post("/api/v1/plans/changes", asked.clone()).await;
    assert_eq!(status, StatusCode::OK, "{changes}");
    let styles = changes["styles"].as_array().expect("styles");
    assert_eq!(styles.len(), hummock_core::house::CartonStyle::ALL.len());
    assert_eq!(
        styles
            .iter()
            .filter(|style| style["chosen"] == true)
            .count(),
        1
    );
    // They are told for the box alone: of another layer nobody makes one.
    asked["slot"] = json!("contact");
    let (_, other) = api.post("/api/v1/plans/changes", asked).await;
    assert_eq!(other["styles"], Value::Null);
    for style in styles {
        let mut then = body.clone();
        then["inputs"]["choices"] = style["choices"].clone();
        let (status, preview) = api.post("/api/v1/plans/preview", then).await;
        assert_eq!(status, StatusCode::OK, "{preview}");
        let plan = &preview["worked"]["plan"];
        let made = plan["layers"]
            .as_array()
            .into_iter()
            .flatten()
            .find(|layer| layer["slot"] == "box")
            .expect("it is boxed");
        assert_eq!(made["make"]["style"], style["style"]);
        assert_eq!(plan["tally"]["outside"], style["outside"]);
        let about = &plan["odds"]["one_in"]["about"];
        assert_eq!(about, &style["change"]["odds_after"]["about"]);
    }
    // What is no style is refused at its field.
    let mut wrong = body;
    wrong["inputs"]["choices"] = json!({ "box_style": "barrel" });
    let (status, problem) = api.post("/api/v1/plans/preview", wrong).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let field = problem["errors"][0]["field"].as_str().unwrap_or_default();
    assert!(field.ends_with("choices.box_style"), "{problem}");
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_carton_of_the_stores_or_of_ones_own_takes_the_place_of_a_box(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let body = json!({ "inputs": { "piece": {
        "construction": "stretched_canvas", "medium": "acrylic",
        "width": "500 mm", "height": "700 mm", "depth": "38 mm",
    } } });
    let mut asked = body.clone();
    asked["slot"] = json!("box");
    let (_, changes) = api.post("/api/v1/plans/changes", asked).await;
    let bought = changes["bought"].as_array().expect("what is on the shelf");
    let refused = |offer: &&Value| offer["refused"].is_string();
    assert!(
        bought.iter().any(|offer| !refused(&offer)) && bought.iter().any(|offer| refused(&offer))
    );
    let boxed = |choices: Value| {
        let mut then = body.clone();
        then["inputs"]["choices"] = choices;
        let api = &api;
        async move {
            let (status, preview) = api.post("/api/v1/plans/preview", then).await;
            let layers = preview["worked"]["plan"]["layers"].as_array().cloned();
            let layer = layers
                .into_iter()
                .flatten()
                .find(|layer| layer["slot"] == "box");
            (status, layer, preview)
        }
    };
    let first = &bought[0];
    let (status, layer, preview) = boxed(first["choices"].clone()).await;
    assert_eq!(status, StatusCode::OK, "{preview}");
    let layer = layer.expect("it is boxed");
    assert_eq!(layer["make"]["kind"], "bought_box");
    assert_eq!(layer["parts"][0]["kind"], "each");
    assert_eq!(layer["parts"][0]["material"], first["material"]);

    // 900 × 700 × 200 inside is cut down to what goes in, with its strips and its sheet of board.
    let saved =
        json!({ "saved_length": "900 mm", "saved_width": "700 mm", "saved_height": "200 mm" });
    let (status, layer, preview) = boxed(saved).await;
    assert_eq!(status, StatusCode::OK, "{preview}");
    let layer = layer.expect("it is boxed");
    assert_eq!(layer["make"]["carton_mm"], json!([900.0, 700.0, 200.0]));
    let [was, below, is] = [
        "/make/carton_mm/2",
        "/make/cut/below_mm",
        "/make/inside_mm/2",
    ]
    .map(|path| {
        layer
            .pointer(path)
            .and_then(Value::as_f64)
            .expect("a number")
    });
    assert!((was - below - is).abs() < 1e-9, "{layer}");
    let (status, _, problem) = boxed(json!({ "saved_length": "900 mm" })).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(
        problem["errors"].as_array().map(Vec::len),
        Some(2),
        "{problem}"
    );
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_second_box_has_a_style_board_and_fill_of_its_own(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let choices = json!({ "layers": { "second_box": true } });
    let body = |choices: Value| {
        json!({ "slot": "second_box", "inputs": { "choices": choices, "piece": {
            "construction": "framed_under_glass", "medium": "print",
            "width": "400 mm", "height": "500 mm", "depth": "25 mm",
        } } })
    };
    let (status, changes) = api
        .post("/api/v1/plans/changes", body(choices.clone()))
        .await;
    assert_eq!(status, StatusCode::OK, "{changes}");
    let styles = changes["styles"].as_array().expect("styles");
    let folder = styles
        .iter()
        .find(|offer| offer["style"] == "folder")
        .expect("a folder");
    assert_eq!(folder["choices"]["second_style"], "folder");
    assert!(
        changes["bought"].is_null(),
        "only what holds the piece is bought"
    );
    let own = json!({
        "layers": { "second_box": true }, "second_style": "folder",
        "second_board": "double-wall-bc", "second_fill": "air-pillows",
    });
    let mut then = body(own);
    then.as_object_mut().expect("an object").remove("slot");
    let (_, preview) = api.post("/api/v1/plans/preview", then).await;
    let layers = preview["worked"]["plan"]["layers"]
        .as_array()
        .expect("a plan");
    let of = |slot: &str| {
        layers
            .iter()
            .find(|layer| layer["slot"] == slot)
            .expect("a layer")
    };
    assert_eq!(of("box")["make"]["style"], "slotted_edge");
    assert_eq!(of("second_box")["make"]["style"], "folder");
    assert_eq!(of("second_box")["material"], "double-wall-bc");
    assert_ne!(of("box")["material"], "double-wall-bc");
    // Pillows of 1.6 litres are counted, not poured: gap by gap, so that a part of one is left over at each.
    let fill = &of("second_fill")["make"];
    let [gap, pieces] = ["gap_m3", "pieces"].map(|key| fill[key].as_f64().expect("a number"));
    let places = fill["places"].as_array().expect("gaps");
    let counted: f64 = places
        .iter()
        .filter_map(|place| place["pieces"].as_f64())
        .sum();
    assert!((pieces - counted).abs() < 1e-9, "{fill}");
    let fewest = gap * 1000.0 / 1.6;
    let most = fewest + f64::from(u32::try_from(places.len()).expect("a few gaps"));
    assert!((fewest..most).contains(&pieces), "{fill}");
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_saved_carton_is_worked_out_as_a_sum(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let sum = json!({ "length_mm": 800, "width_mm": 600, "height_mm": 200, "caliper_mm": 4, "to_height_mm": 120 });
    let (status, answer) = api.post("/api/v1/sums/saved-carton", sum).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    assert_eq!(answer["depth"]["below_mm"], 80.0);
    let wrong = json!({ "length_mm": 0, "width_mm": 600, "height_mm": 200, "caliper_mm": 4 });
    let (status, problem) = api.post("/api/v1/sums/saved-carton", wrong).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "length_mm");
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_corner_pocket_is_folded_like_a_box(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    // Leg 65, 24 deep, board 4: walls of 24 + 4 + 1 and a board more; 2 × 65 + 29 by 2 × 65 + 33.
    let pocket = json!({ "style": "corner-pocket", "length_mm": 65, "height_mm": 24, "caliper_mm": 4, "frames": 2 });
    let (status, answer) = api.post(BOX, pocket).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    assert_eq!(
        [&answer["blank_width_mm"], &answer["blank_height_mm"]],
        [159.0, 163.0]
    );
    assert_eq!(answer["folding"][0]["closes"], true, "{answer}");
    // A pocket has no width, and needs a depth.
    let wrong =
        json!({ "style": "corner-pocket", "length_mm": 65, "width_mm": 40, "caliper_mm": 4 });
    let (status, problem) = api.post(BOX, wrong).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let fields: Vec<&str> = problem["errors"]
        .as_array()
        .into_iter()
        .flatten()
        .filter_map(|error| error["field"].as_str())
        .collect();
    assert_eq!(fields, ["height_mm", "width_mm"]);
}
