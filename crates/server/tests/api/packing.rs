//! The steps at the bench over HTTP, what is ticked of them, and an address that was pasted.

use reqwest::StatusCode;
use serde_json::{Value, json};
use test_context::test_context;

use crate::{Api, NoShipments, answer, canvas, text};

async fn steps(api: &Api, inputs: &Value) -> Value {
    let (status, view) = api
        .post("/api/v1/plans/packing", json!({ "inputs": inputs }))
        .await;
    assert_eq!(status, StatusCode::OK, "{view}");
    view["packing"].clone()
}

/// Asks for what may be refused.
async fn asked(api: &Api, path: &str) -> (StatusCode, Value) {
    let request = api.client.get(format!("{}{path}", api.base));
    answer(request.send().await.expect("an answer")).await
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_tick_is_kept_with_the_shipment_and_a_wrong_one_is_named(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let created = json!({ "inputs": { "title": "Slack Tide", "piece": canvas() } });
    let (status, made) = api.post("/api/v1/shipments", created).await;
    assert_eq!(status, StatusCode::CREATED, "{made}");
    let at = format!("/api/v1/shipments/{}", text(&made["id"]));
    let first = steps(&api, &made["inputs"]).await["steps"][0].clone();
    let key = text(&first["key"]);
    let ticked = |at: &str| json!({ &key: { "at": at, "print": first["print"] } });
    let edit = json!({ "version": 1, "change": { "packed": ticked("2027-03-04T10:15:00Z") } });
    let (status, stored) = api.patch(&at, edit).await;
    assert_eq!(status, StatusCode::OK, "{stored}");
    assert_eq!(stored["summary"]["packed"]["done"], 1);
    let packing = steps(&api, &stored["inputs"]).await;
    assert_eq!(packing["steps"][0]["state"], "done");
    assert_eq!(packing["next"], packing["steps"][1]["key"]);
    // Undo takes a tick back like anything else.
    let (_, undone) = api
        .post(&format!("{at}/undo"), json!({ "version": 2 }))
        .await;
    assert_eq!(undone["summary"]["packed"], Value::Null);
    for (packed, field) in [
        (ticked("this morning"), format!("packed.{key}.at")),
        (
            json!({ "a b": { "at": "2027-03-04T10:15:00Z", "print": "x" } }),
            "packed".to_owned(),
        ),
        (
            json!({ "a": { "at": "2027-03-04T10:15:00Z", "print": "" } }),
            "packed".to_owned(),
        ),
    ] {
        let edit = json!({ "version": undone["version"], "change": { "packed": packed } });
        let (status, problem) = api.patch(&at, edit).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        assert_eq!(text(&problem["errors"][0]["field"]), field);
    }
    // What is no piece yet has no steps.
    assert_eq!(
        steps(&api, &json!({ "title": "Nothing" })).await,
        Value::Null
    );
}

#[test_context(NoShipments)]
#[tokio::test]
async fn an_address_is_parted_into_fields_and_one_that_is_none_is_named(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let block = "Corrie Vane\n14 Ferry Stairs\nSallow Hythe SH2 7\nSaltmark\ncorrie@example.org";
    let (status, parted) = api
        .post("/api/v1/addresses", json!({ "block": block }))
        .await;
    assert_eq!(status, StatusCode::OK, "{parted}");
    assert_eq!(
        parted,
        json!({
            "buyer": {
                "name": "Corrie Vane", "company": "", "street": "14 Ferry Stairs", "neighbourhood": "",
                "town": "Sallow Hythe", "region": "", "postcode": "SH2 7", "country": "XS",
            },
            "left": ["corrie@example.org"],
            "doubts": [],
        })
    );
    let (status, problem) = api
        .post("/api/v1/addresses", json!({ "block": "x".repeat(2001) }))
        .await;
    assert_eq!(
        (status, text(&problem["errors"][0]["field"])),
        (StatusCode::UNPROCESSABLE_ENTITY, "block".into())
    );
}

#[test_context(NoShipments)]
#[tokio::test]
async fn what_goes_in_is_listed_refused_at_its_field_and_changed_by_the_house(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let mut piece = canvas();
    piece["certificate"] = json!(true);
    let mut inputs = json!({ "title": "Slack Tide", "piece": piece });
    let keys = |packing: &Value| -> Vec<String> {
        let steps = packing["steps"].as_array().expect("steps");
        let put_in = steps.iter().filter(|step| !step["encloses"].is_null());
        put_in.map(|step| text(&step["key"])).collect()
    };
    assert_eq!(keys(&steps(&api, &inputs).await), ["papers/certificate"]);
    inputs["enclosures"] = json!({ "kit": { "kind": "hanging_kit", "thickness": "1/2 in" } });
    let packing = steps(&api, &inputs).await;
    assert_eq!(keys(&packing), ["papers/certificate", "papers/kit"]);
    let kit = packing["steps"].as_array().expect("steps");
    let kit = kit.iter().find(|step| step["key"] == "papers/kit");
    let kit = &kit.expect("it is put in")["encloses"];
    assert_eq!(
        (&kit["thickness_mm"], &kit["hard"]),
        (&json!(12.7), &json!(true))
    );
    for (listed, field) in [
        (
            json!({ "kit": { "kind": "gift", "place": "under_last_wrap" } }),
            "enclosures.kit.place",
        ),
        (
            json!({ "kit": { "kind": "gift", "thickness": "81 mm" } }),
            "enclosures.kit.thickness",
        ),
        (
            json!({ "kit": { "kind": "gift", "thickness": "thick" } }),
            "enclosures.kit.thickness",
        ),
        (
            json!({ "kit": { "kind": "gift", "grams": -1.0 } }),
            "enclosures.kit.grams",
        ),
        (json!({ "A gift": { "kind": "gift" } }), "enclosures"),
    ] {
        inputs["enclosures"] = listed;
        let asked = json!({ "inputs": inputs });
        let (status, problem) = api.post("/api/v1/plans/packing", asked).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
        assert_eq!(text(&problem["errors"][0]["field"]), field, "{problem}");
    }
}

#[test_context(NoShipments)]
#[tokio::test]
async fn the_next_like_piece_begins_as_the_last_one_was(NoShipments(database): &NoShipments) {
    let api = Api::start(database.pool(), false).await;
    let mut wide = canvas();
    wide["width"] = json!("720 mm");
    let mut made = Vec::new();
    for (title, piece) in [("First", canvas()), ("Wide", wide), ("Second", canvas())] {
        let buyer = json!({ "name": "Corrie Vane" });
        let inputs = json!({ "title": title, "piece": piece, "buyer": buyer, "choices": { "first_turns": 2 } });
        let (status, view) = api
            .post("/api/v1/shipments", json!({ "inputs": inputs }))
            .await;
        assert_eq!(status, StatusCode::CREATED, "{view}");
        made.push(text(&view["id"]));
    }
    let kinds = api.get("/api/v1/kinds").await;
    // Two kinds of three shipments: the last one first, with its last shipment. None was sent yet.
    assert_eq!(kinds.as_array().map(Vec::len), Some(2));
    assert_eq!(
        (&kinds[0]["shipment"], &kinds[0]["count"]),
        (&json!(made[2]), &json!(0))
    );
    assert_eq!(kinds[1]["title"], "Wide");
    let leaves = json!({ "version": 1, "change": { "sending": { "handed_over": "2027-03-04" } } });
    let first = format!("/api/v1/shipments/{}", made[0]);
    let (status, gone) = api.patch(&first, leaves).await;
    assert_eq!(status, StatusCode::OK, "{gone}");
    let kinds = api.get("/api/v1/kinds").await;
    assert_eq!(
        (&kinds[0]["shipment"], &kinds[0]["count"]),
        (&json!(made[2]), &json!(1))
    );
    let again = format!("/api/v1/shipments/{}/again", made[2]);
    let again = api.get(&again).await;
    let inputs = &again["inputs"];
    assert_eq!(inputs["choices"]["first_turns"], 2);
    assert_eq!(
        (&inputs["title"], &inputs["buyer"]["name"]),
        (&json!(""), &json!(""))
    );
    let (status, _) = api
        .post("/api/v1/shipments", json!({ "inputs": inputs }))
        .await;
    assert_eq!(status, StatusCode::CREATED);
    let nobody = "/api/v1/shipments/0192d3a8-0000-7000-8000-000000000000/again";
    assert_eq!(asked(&api, nobody).await.0, StatusCode::NOT_FOUND);
}

#[test_context(NoShipments)]
#[tokio::test]
async fn a_pack_sheet_is_printed_and_a_wrong_address_of_its_code_is_named(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let inputs = json!({ "title": "Slack Tide", "piece": canvas() });
    let (_, made) = api
        .post("/api/v1/shipments", json!({ "inputs": inputs }))
        .await;
    let at = format!("/api/v1/shipments/{}/pack-sheet", text(&made["id"]));
    let (status, problem) = asked(&api, &format!("{at}?at=file:///etc")).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
    assert_eq!(text(&problem["errors"][0]["field"]), "at");
    let (status, problem) = api
        .post(
            "/api/v1/shipments",
            json!({ "inputs": { "title": "Bare" } }),
        )
        .await;
    assert_eq!(status, StatusCode::CREATED);
    let bare = format!("/api/v1/shipments/{}", text(&problem["id"]));
    for paper in ["pack-sheet", "unpacking-guide"] {
        assert_eq!(
            asked(&api, &format!("{bare}/{paper}")).await.0,
            StatusCode::NOT_FOUND
        );
    }
    // What goes with the parcel is a PDF.
    let guide = at.replace("pack-sheet", "unpacking-guide");
    let printed = api.client.get(format!("{}{guide}", api.base)).send().await;
    let printed = printed.expect("an answer").bytes().await.expect("bytes");
    assert!(printed.starts_with(b"%PDF-"));
}

#[test_context(NoShipments)]
#[tokio::test]
async fn an_order_is_made_once_whatever_is_sent_and_a_bad_row_keeps_no_other_from_being_made(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let (_, last) = api
        .post(
            "/api/v1/shipments",
            json!({ "inputs": { "title": "Kelp Ladder", "piece": canvas() } }),
        )
        .await;
    let columns =
        json!({ "number": "Order", "name": "Ship to", "country": "Land", "value": "Paid" });
    let rows = json!([
        { "Order": "#1", "Ship to": "Oda Marsh", "Land": "Vennland", "Paid": "640.00" },
        { "Order": "#2", "Ship to": "", "Land": "XS" },
        { "Ship to": "Nobody", "Land": "Atlantis" },
        { "Order": "#3", "Ship to": "Corrie Vane", "Paid": "a lot" },
        // The same once more in one table.
        { "Land": "XV", "Paid": "640.00", "Order": "#1", "Ship to": "Oda Marsh" },
    ]);
    let send = |rows: &Value, make: bool| {
        let asked = json!({ "columns": columns, "rows": rows, "like": last["id"], "make": make });
        let api = &api;
        async move {
            let (status, views) = api.post("/api/v1/orders", asked).await;
            assert_eq!(status, StatusCode::OK, "{views}");
            views
        }
    };
    let fields = |view: &Value| -> Vec<String> {
        let refused = view["refused"].as_array().expect("a list").iter();
        refused.map(|one| text(&one["field"])).collect()
    };
    let seen = send(&rows, false).await;
    assert_eq!(
        api.rows().await.as_array().map(Vec::len),
        Some(1),
        "nothing is made yet"
    );
    assert_eq!(fields(&seen[0]), Vec::<String>::new());
    assert_eq!(fields(&seen[1]), ["name"]);
    assert_eq!(fields(&seen[2]), ["number", "country"]);
    assert_eq!(fields(&seen[3]), ["value"]);
    let made = send(&rows, true).await;
    assert_eq!(made[0]["shipment"], made[4]["shipment"]);
    assert_eq!(
        (&made[0]["known"], &made[4]["known"]),
        (&json!(false), &json!(true))
    );
    assert_eq!(api.rows().await.as_array().map(Vec::len), Some(2));
    let path = format!("/api/v1/shipments/{}", text(&made[0]["shipment"]));
    let shipment = api.get(&path).await;
    assert_eq!(shipment["inputs"]["buyer"]["country"], "XV");
    assert_eq!(
        shipment["inputs"]["piece"]["width"],
        last["inputs"]["piece"]["width"]
    );
    // The same file again, its columns in another order, and one more: only that is made, even where one was deleted.
    let (status, _) = api
        .put(&format!("{path}/place"), json!({ "place": "bin" }))
        .await;
    assert_eq!(status, StatusCode::OK);
    let again = json!([
        { "Ship to": "Oda Marsh", "Order": "#1" },
        { "Ship to": "Corrie Vane", "Order": "#3", "Paid": "120" },
    ]);
    let made = send(&again, true).await;
    assert_eq!(
        (&made[0]["known"], &made[1]["known"]),
        (&json!(true), &json!(false))
    );
    assert_eq!(api.rows().await.as_array().map(Vec::len), Some(2));
    // Two tablets at once.
    let one = json!([{ "Order": "#9", "Ship to": "Oda Marsh" }]);
    let (left, right) = tokio::join!(send(&one, true), send(&one, true));
    assert_eq!(left[0]["shipment"], right[0]["shipment"]);
    assert_eq!(api.rows().await.as_array().map(Vec::len), Some(3));
    let many: Vec<Value> = (0..101)
        .map(|at| json!({ "Order": at.to_string() }))
        .collect();
    let asked = json!({ "columns": columns, "rows": many });
    let (status, problem) = api.post("/api/v1/orders", asked).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(text(&problem["errors"][0]["field"]), "rows");
}

/// A shop's table as it comes: its head is guessed, sizes are read in each of its columns, and a product that was met is known.
#[test_context(NoShipments)]
#[tokio::test]
async fn orders_bring_sizes_by_their_columns_or_by_their_product(
    NoShipments(database): &NoShipments,
) {
    let api = Api::start(database.pool(), false).await;
    let head = [
        "Order",
        "Ship to",
        "Item",
        "SKU",
        "Size",
        "Technique",
        "Qty",
        "Price",
        "Shipping",
        "Due",
        "Note",
        "Colour",
    ];
    let row = |cells: [&str; 12]| -> Value {
        head.iter()
            .zip(cells)
            .map(|(name, cell)| ((*name).to_owned(), Value::from(cell)))
            .collect::<serde_json::Map<_, _>>()
            .into()
    };
    let rows = json!([
        row([
            "#1",
            "Oda Marsh",
            "Winter Reed",
            "WR-1",
            "24 x 36 x 1 1/2 in",
            "oil on canvas",
            "1",
            "640,00",
            "24,00",
            "13/04/2027",
            "As a gift, please",
            "blue"
        ]),
        row([
            "#2",
            "Brid Tarn",
            "Low Water, A3 print",
            "",
            "",
            "",
            "1",
            "45",
            "6",
            "04/05/2027",
            "",
            ""
        ]),
        row([
            "#3",
            "Corrie Vane",
            "Kelp",
            "",
            "60 x 80",
            "love",
            "2",
            "12",
            "",
            "",
            "",
            ""
        ]),
    ]);
    let asked = json!({ "head": head, "rows": rows });
    let (status, guess) = api.post("/api/v1/orders/head", asked.clone()).await;
    assert_eq!(status, StatusCode::OK, "{guess}");
    assert_eq!(
        (&guess["kept"], &guess["dates"]),
        (&json!(false), &json!("dmy"))
    );
    let columns = &guess["columns"];
    for (column, name) in [
        ("number", "Order"),
        ("name", "Ship to"),
        ("title", "Item"),
        ("sku", "SKU"),
        ("size", "Size"),
        ("medium", "Technique"),
        ("count", "Qty"),
        ("value", "Price"),
        ("shipping_paid", "Shipping"),
        ("promised", "Due"),
        ("note", "Note"),
    ] {
        assert_eq!(columns[column], name, "{columns}");
    }
    let send = async |rows: &Value| -> Value {
        let body = json!({
            "columns": columns, "dates": guess["dates"], "shop": "Tern Market", "rows": rows, "make": true
        });
        let (status, views) = api.post("/api/v1/orders", body).await;
        assert_eq!(status, StatusCode::OK, "{views}");
        views
    };
    let views = send(&rows).await;
    assert_eq!(
        (&views[0]["size_from"], &views[0]["planned"]),
        (&json!("row"), &json!(true))
    );
    assert_eq!(
        (&views[1]["size_from"], &views[1]["planned"]),
        (&json!("title"), &json!(true))
    );
    let refused: Vec<String> = views[2]["refused"]
        .as_array()
        .expect("a list")
        .iter()
        .map(|one| text(&one["field"]))
        .collect();
    assert_eq!(refused, ["medium", "size"], "{views}");
    let made = api
        .get(&format!(
            "/api/v1/shipments/{}",
            text(&views[0]["shipment"])
        ))
        .await;
    let inputs = &made["inputs"];
    assert_eq!(
        inputs["order"],
        json!({ "number": "#1", "shop": "Tern Market", "sku": "WR-1", "paid": "24,00", "note": "As a gift, please" })
    );
    assert_eq!(
        (&inputs["promised"], &inputs["piece"]["depth"]),
        (&json!("2027-04-13"), &json!("1 1/2 in"))
    );
    assert!(made["summary"]["fingerprint"].is_string(), "it is planned");
    // Known by its code under another title, and by its title without one; a table of the same head is known, too.
    let more = json!([
        row([
            "#4",
            "Oda Marsh",
            "Winter Reed (2nd)",
            "WR-1",
            "",
            "",
            "1",
            "640",
            "",
            "",
            "",
            ""
        ]),
        row([
            "#5",
            "Oda Marsh",
            "winter reed",
            "",
            "",
            "",
            "1",
            "640",
            "",
            "",
            "",
            ""
        ]),
        row([
            "#6",
            "Oda Marsh",
            "Unknown",
            "NO-1",
            "",
            "",
            "1",
            "640",
            "",
            "",
            "",
            ""
        ]),
        // A second piece of an order that is in an earlier row.
        row([
            "#6",
            "Oda Marsh",
            "Winter Reed",
            "WR-1",
            "",
            "",
            "1",
            "640",
            "",
            "",
            "",
            ""
        ]),
    ]);
    let views = send(&more).await;
    for at in [0, 1] {
        assert_eq!(
            (&views[at]["size_from"], &views[at]["planned"]),
            (&json!("product"), &json!(true)),
            "{views}"
        );
    }
    assert_eq!(
        (&views[2]["size_from"], &views[2]["planned"]),
        (&json!("nowhere"), &json!(false))
    );
    let says = text(&views[3]["refused"][0]["message"]);
    assert!(
        says.contains("#6-2") && views[3]["shipment"].is_null(),
        "{says}"
    );
    let (_, again) = api.post("/api/v1/orders/head", asked).await;
    assert_eq!(
        (&again["kept"], &again["shop"]),
        (&json!(true), &json!("Tern Market"))
    );
    // What the buyer paid stands beside what it costs.
    let (_, charge) = api
        .post("/api/v1/plans/price", json!({ "inputs": inputs }))
        .await;
    assert_eq!(charge["charge"]["paid"]["amount"], "24.00", "{charge}");
}
