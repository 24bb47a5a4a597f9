//! The demo studio, for tests that span modules.

use hummock_core::{
    house::{CartonStyle, Choices, HouseRules},
    material::Catalogue,
    piece::{Condition, Construction, Medium, Outline, PaintBody, Pane, Piece, PieceSize},
    quantity::{Length, Mass, Shock},
    shipment::{House, ShipmentInputs},
    space::LayerSlot,
};
use proptest::prelude::*;
use serde_json::{Value, json};

pub(crate) fn catalogue() -> Catalogue {
    serde_json::from_str(include_str!("../../../../demo/catalogue.json"))
        .expect("the demo catalogue is one")
}

pub(crate) fn rules() -> HouseRules {
    serde_json::from_str(include_str!("../../../../demo/house-rules.json"))
        .expect("the demo rules are rules")
}

pub(crate) fn house() -> House {
    House {
        rules: rules(),
        catalogue: catalogue(),
        tariffs: vec![
            serde_json::from_str(include_str!("../../../../demo/tariffs/gannet-post.json"))
                .expect("the demo tariff is one"),
        ],
        presets: Vec::new(),
        references: std::sync::Arc::default(),
    }
}

pub(crate) fn piece(construction: Construction, sides: [f64; 3], medium: Medium) -> Piece {
    let [width, height, depth] = sides.map(Length::mm);
    let size = PieceSize {
        width,
        height,
        depth,
    };
    let medium = Some(medium).filter(|_| construction != Construction::Mirror);
    Piece::new(construction, size, medium)
}

/// A side between its bounds, the short ones as often as the long ones.
fn any_side() -> impl Strategy<Value = f64> {
    prop_oneof![
        Just(20.0),
        Just(4000.0),
        (20.0_f64.ln()..4000.0_f64.ln()).prop_map(f64::exp),
    ]
}

/// A depth, from 2 to 50 as often as deeper.
fn any_depth() -> impl Strategy<Value = f64> {
    prop_oneof![Just(1.0), 2.0..50.0_f64, 50.0..300.0_f64, Just(300.0)]
}

/// A piece of any kind, size, depth and number, weighed or not.
pub(crate) fn any_piece() -> impl Strategy<Value = Piece> {
    let made = (
        prop::sample::select(Construction::ALL.to_vec()),
        prop::sample::select(Medium::ALL.to_vec()),
        prop::sample::select(vec![PaintBody::Thin, PaintBody::Raised, PaintBody::Impasto]),
        prop::sample::select(vec![
            Outline::Rectangle,
            Outline::Oval,
            Outline::Arched,
            Outline::Round,
            Outline::Irregular,
        ]),
        prop::sample::select(vec![Pane::Two, Pane::Three, Pane::Laminated]),
    );
    let told = (
        prop_oneof![Just(1_u32), 1..=60_u32],
        any::<bool>(),
        any::<bool>(),
        prop::option::of(0.01..200.0_f64),
        prop::option::of(10.0..200.0_f64),
    );
    (any_side(), any_side(), any_depth(), made, told).prop_map(
        |(width, height, deep, made, told)| {
            let (construction, medium, paint, outline, pane) = made;
            let (count, flaking, coated_glass, weighed, limit) = told;
            let [width, height, depth] =
                [width, height, deep.min(width).min(height)].map(Length::mm);
            let size = PieceSize {
                width,
                height,
                depth,
            };
            let medium = Some(medium).filter(|_| construction != Construction::Mirror);
            Piece {
                paint,
                outline,
                pane,
                coated_glass,
                count,
                condition: if flaking {
                    Condition::Flaking
                } else {
                    Condition::Sound
                },
                weighed: weighed.map(Mass::kg),
                limit: limit.map(Shock::times_gravity),
                ..Piece::new(construction, size, medium)
            }
        },
    )
}

/// One of the everyday pieces, with what a framer would expect of it.
pub(crate) struct Everyday {
    pub(crate) name: String,
    pub(crate) inputs: ShipmentInputs,
    pub(crate) begins: String,
    pub(crate) layers: Vec<String>,
    pub(crate) deeper_mm: f64,
    pub(crate) minutes: f64,
    pub(crate) first_change: String,
}

/// Reads the everyday pieces; their expectations were written down before anything was judged.
pub(crate) fn everyday() -> Vec<Everyday> {
    include_str!("../../testdata/everyday.csv")
        .lines()
        .skip(1)
        .map(read_everyday)
        .collect()
}

fn read_everyday(line: &str) -> Everyday {
    let fields: Vec<&str> = line.split(',').collect();
    let [
        name,
        construction,
        width,
        height,
        depth,
        medium,
        paint,
        count,
        value,
        route,
        begins,
        layers,
        deeper,
        minutes,
        first,
    ] = fields[..]
    else {
        panic!("fifteen fields in {line}");
    };
    let (country, postcode) = match route {
        "own_van" => ("XS", "NQ1 2"),
        "regional" => ("XS", "SH2 7"),
        "national" => ("XS", "TB11 4"),
        "abroad" => ("XV", "4120"),
        _ => ("XO", ""),
    };
    let mut inputs = json!({
        "buyer": { "name": "A", "street": "B", "town": "C", "country": country, "postcode": postcode },
        "value": value,
        "piece": {
            "construction": construction, "paint": paint, "count": count.parse::<u32>().expect("a count"),
            "width": format!("{width} mm"), "height": format!("{height} mm"), "depth": format!("{depth} mm"),
            "irreplaceable": name.contains("can't be painted again"),
        },
    });
    if !medium.is_empty() {
        inputs["piece"]["medium"] = json!(medium);
    }
    Everyday {
        name: name.to_owned(),
        inputs: serde_json::from_value::<ShipmentInputs>(Value::take(&mut inputs)).expect("inputs"),
        begins: begins.to_owned(),
        layers: layers.split(' ').map(str::to_owned).collect(),
        deeper_mm: deeper.parse().expect("millimetres"),
        minutes: minutes.parse().expect("minutes"),
        first_change: first.to_owned(),
    }
}

/// What a person chose before: layers, turns, thicknesses, boards.
pub(crate) fn any_choices() -> impl Strategy<Value = Choices> {
    let layers = prop::collection::vec(prop::option::of(any::<bool>()), LayerSlot::ALL.len());
    let boards = ["corrugated-b", "corrugated-c", "double-wall-bc"];
    (
        layers,
        prop::option::of(1..=4_u32),
        prop::option::of(0..=4_u32),
        prop::option::of(5.0..100.0_f64),
        prop::option::of(20.0..20_000.0_f64),
        prop::option::of(prop::sample::select(boards.to_vec())),
        prop::option::of(prop::sample::select(CartonStyle::ALL.to_vec())),
    )
        .prop_map(|(layers, first, second, pad, area, board, style)| {
            let mut choices: Choices = serde_json::from_value(json!({
                "first_turns": first, "second_turns": second, "pad_area_cm2": area,
                "pad_thickness": pad.map(|mm| format!("{mm} mm")),
                "block_thickness": pad.map(|mm| format!("{} mm", mm.max(10.0))),
                "box_board": board, "box_style": style,
            }))
            .expect("choices");
            choices.layers = LayerSlot::ALL
                .into_iter()
                .zip(layers)
                .filter_map(|(slot, wanted)| Some((slot, wanted?)))
                .collect();
            choices
        })
}

/// A catalogue with cushions, boards and tubes of its own.
pub(crate) fn any_catalogue() -> impl Strategy<Value = Catalogue> {
    prop::collection::vec(0.4..2.5_f64, 12).prop_map(|by| {
        let mut shelf = catalogue();
        for (place, wrap) in shelf.cushion_wraps.iter_mut().enumerate() {
            wrap.loaded_thickness = wrap.loaded_thickness * by[place % by.len()];
            if let Some(curve) = &mut wrap.curve {
                curve.start = curve.start * by[(place + 3) % by.len()];
                curve.growth *= by[(place + 5) % by.len()];
            }
        }
        for (place, board) in shelf.boards.iter_mut().enumerate() {
            board.stiffness = board.stiffness.map(|d| d * by[(place + 1) % by.len()]);
            board.areal_density = board.areal_density * by[(place + 2) % by.len()];
        }
        for (place, foam) in shelf.foams.iter_mut().enumerate() {
            foam.curve.start = foam.curve.start * by[(place + 7) % by.len()];
        }
        for fill in &mut shelf.fills {
            fill.density = fill.density * by[9];
        }
        shelf
    })
}

/// The demo studio's house with its four carriers.
pub(crate) fn four_carriers() -> House {
    let tariff = |text| serde_json::from_str(text).expect("a tariff of the demo studio");
    House {
        tariffs: vec![
            tariff(include_str!("../../../../demo/tariffs/gannet-post.json")),
            tariff(include_str!("../../../../demo/tariffs/swiftlane.json")),
            tariff(include_str!("../../../../demo/tariffs/overland-quay.json")),
            tariff(include_str!("../../../../demo/tariffs/marram.json")),
        ],
        ..house()
    }
}

/// One of so many, so that every kind is among them and the test is short.
const EVERY: usize = 4;

/// Everyday pieces on their way across the country, each worth something.
pub(crate) fn sent_pieces() -> impl Iterator<Item = (String, ShipmentInputs)> {
    everyday().into_iter().step_by(EVERY).map(|each| {
        let mut inputs = each.inputs;
        inputs.buyer.country = "XS".to_owned();
        inputs.value.get_or_insert_with(|| "480".to_owned());
        (each.name, inputs)
    })
}
