//! The demo studio, for tests that span modules.

use hummock_core::{
    house::{CartonStyle, ChoiceShape, Choices, EachChoice, HouseRules},
    material::Catalogue,
    piece::{
        Condition, Construction, FrameFinish, FrameHolds, Medium, Outline, PaintBody, Pane, Piece,
        PieceSize, Varnish,
    },
    plan::{Laid, LaidBoard},
    quantity::{Length, LengthRange, Mass, Shock},
    shipment::{House, ShipmentInputs},
    space::LayerSlot,
};
use jiff::civil::{Date, date};
use proptest::{prelude::*, test_runner::TestCaseError};
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
        now: None,
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

fn any_day() -> impl Strategy<Value = Date> {
    (0_i16..4, 1_i8..=12, 1_i8..=28).prop_map(|(year, month, day)| date(2024 + year, month, day))
}

/// How several pieces lie: which rule, and of each whether it lies beside the one before and which way it faces.
pub(crate) type AnyLaid = (u8, Vec<(bool, bool)>);

/// Up to so many pieces laid by the rule, on boards, or by hand.
pub(crate) fn any_laid(most: usize) -> impl Strategy<Value = AnyLaid> {
    (0_u8..3, prop::collection::vec(any::<(bool, bool)>(), most))
}

/// What was drawn, for so many pieces.
pub(crate) fn laid_for((rule, each): AnyLaid, count: usize) -> Laid {
    let mut boards: Vec<LaidBoard> = Vec::new();
    for (piece, (beside, faces_front)) in (0..count).zip(each) {
        match boards.last_mut().filter(|_| beside) {
            Some(board) => board.pieces.push(piece),
            None => boards.push(LaidBoard {
                pieces: vec![piece],
                faces_front,
            }),
        }
    }
    match rule {
        0 => Laid::ByRule,
        1 => Laid::Boards(boards.into_iter().map(|board| board.pieces).collect()),
        _ => Laid::ByHand(boards),
    }
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
            Outline::Polygon,
            Outline::Irregular,
        ]),
        (
            prop::sample::select(vec![Pane::Two, Pane::Three, Pane::Laminated]),
            prop::option::of(prop::sample::select(vec![
                FrameHolds::Panel,
                FrameHolds::StretchedCanvas,
                FrameHolds::Paper,
            ])),
            prop::sample::select(vec![
                FrameFinish::Plain,
                FrameFinish::Delicate,
                FrameFinish::Ornate,
                FrameFinish::Old,
            ]),
            prop::option::of(1.0..200.0_f64),
            prop::option::of(0.0..60.0_f64),
            prop::option::of(3_u32..=12),
        ),
    );
    let told = (
        prop_oneof![Just(1_u32), 1..=60_u32],
        any::<bool>(),
        any::<bool>(),
        prop::option::of(0.01..200.0_f64),
        prop::option::of(10.0..200.0_f64),
    );
    let kept = (
        prop::option::of(any_day()),
        prop::option::of(prop::option::of(any_day())),
        prop::option::of(1.0..40.0_f64),
        prop::option::of(1.0..50_000.0_f64),
        any::<bool>(),
    );
    (any_side(), any_side(), any_depth(), made, told, kept).prop_map(
        |(width, height, deep, made, told, kept)| {
            let (finished, varnished, hardware, value, irreplaceable) = kept;
            let (construction, medium, paint, outline, frame) = made;
            let (pane, frame_holds, frame, border, moulding, bearing_points) = frame;
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
                frame_holds,
                frame,
                bare_border: border.map(Length::mm),
                moulding_width: moulding.map(Length::mm),
                bearing_points,
                coated_glass,
                antistatic: coated_glass,
                count,
                condition: if flaking {
                    Condition::Flaking
                } else {
                    Condition::Sound
                },
                weighed: weighed.map(Mass::kg),
                limit: limit.map(Shock::times_gravity),
                finished,
                varnish: varnished.map(|laid_on| Varnish { laid_on }),
                hardware: hardware.map(Length::mm),
                value,
                irreplaceable,
                ..Piece::new(construction, size, medium)
            }
        },
    )
}

/// One of the everyday pieces, with what a framer would expect of it.
#[derive(Debug)]
pub(crate) struct Everyday {
    pub(crate) name: String,
    pub(crate) inputs: ShipmentInputs,
    pub(crate) begins: String,
    pub(crate) layers: Vec<String>,
    pub(crate) deeper_mm: f64,
    pub(crate) minutes: f64,
    pub(crate) first_change: String,
}

impl Everyday {
    /// Tells whether it is one kind of piece, in whatever the rules choose for it: neither among others nor in a carton or a case that
    /// somebody chose.
    pub(crate) fn is_left_to_the_rules(&self) -> bool {
        let choices = &self.inputs.choices;
        self.inputs.others.is_empty()
            && choices.saved_length.is_none()
            && choices.travel_case.is_none()
    }
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
        also,
    ] = fields[..]
    else {
        panic!("sixteen fields in {line}");
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
    for (key, value) in also.split(' ').filter_map(|one| one.split_once('=')) {
        match key {
            "others" => {
                for (at, sides) in value.split(';').enumerate() {
                    inputs["others"][format!("p{}", at + 2)] = beside(&inputs["piece"], sides);
                }
            }
            "travel_case" => inputs["choices"][key] = json!(value == "true"),
            key if key == "carriage" || key.starts_with("saved_") => {
                inputs["choices"][key] = json!(value);
            }
            key => inputs["piece"][key] = json!(value),
        }
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

/// Another piece of the same kind, by its sides as 200x300x18.
fn beside(piece: &Value, sides: &str) -> Value {
    let mut piece = piece.clone();
    for (side, mm) in ["width", "height", "depth"]
        .into_iter()
        .zip(sides.split('x'))
    {
        piece[side] = json!(format!("{mm} mm"));
    }
    json!({ "title": sides, "value": "90", "piece": piece })
}

/// A case that the job refuses: it is drawn anew, and a law that meets hardly any other fails.
pub(crate) fn refused() -> Result<(), TestCaseError> {
    Err(TestCaseError::reject("the job refuses it"))
}

/// What a person chose before: layers, schools and every choice of the table, a few of them at a time.
pub(crate) fn any_choices() -> impl Strategy<Value = Choices> {
    let layers = prop::collection::vec(prop::option::of(any::<bool>()), LayerSlot::ALL.len());
    let each = prop::collection::vec((0.0..1.0_f64, 0.0..1.0_f64), Choices::EACH.len());
    (layers, each).prop_map(|(layers, each)| {
        let mut drawn = serde_json::Map::new();
        for (choice, (chance, at)) in Choices::EACH.iter().zip(each) {
            let often = match choice.key {
                key if is_common(key) => 0.5,
                // They refuse most pieces.
                "carriage" | "bought_box" | "pocket_board" => 0.03,
                _ => 0.1,
            };
            if chance < often {
                drawn.insert(choice.key.to_owned(), drawn_value(choice, at));
            }
        }
        given_together(&mut drawn);
        let mut choices: Choices = serde_json::from_value(Value::Object(drawn)).expect("choices");
        choices.layers = LayerSlot::ALL
            .into_iter()
            .zip(layers)
            .filter_map(|(slot, wanted)| Some((slot, wanted?)))
            .collect();
        choices
    })
}

/// Choices that change most plans, and are drawn more often.
fn is_common(key: &str) -> bool {
    [
        "first_turns",
        "second_turns",
        "pad_thickness",
        "pad_area_cm2",
        "box_board",
        "box_style",
    ]
    .contains(&key)
}

/// Sides that are given together or not at all; a second carton only beside a first.
fn given_together(drawn: &mut serde_json::Map<String, Value>) {
    let trios = [
        ["wrapped_across", "wrapped_up", "wrapped_through"],
        ["saved_length", "saved_width", "saved_height"],
        [
            "second_saved_length",
            "second_saved_width",
            "second_saved_height",
        ],
    ];
    for trio in trios {
        if trio.iter().any(|side| !drawn.contains_key(*side)) {
            for side in trio {
                drawn.remove(side);
            }
        }
    }
    if !drawn.contains_key("saved_length") {
        drawn.retain(|key, _| !key.starts_with("second_saved"));
    }
}

/// Which of so many lies at a place from 0 to 1.
fn nth(at: f64, count: usize) -> usize {
    let steps = (1..count).map(|step| f64::from(u32::try_from(step).expect("few")));
    let many = f64::from(u32::try_from(count).expect("few"));
    steps.filter(|step| *step <= at * many).count()
}

/// One value of a choice, at a place from 0 to 1 among those that it may have.
pub(crate) fn drawn_value(choice: &EachChoice, at: f64) -> Value {
    let one_of = |values: &[Value]| values[nth(at, values.len())].clone();
    match choice.shape {
        ChoiceShape::Length(range) => {
            let LengthRange { least, most, .. } = range();
            // Small ones are more frequent, as they are at the bench.
            let mm = least.as_mm() + (most.as_mm() - least.as_mm()) * at.powi(3);
            json!(format!("{mm:.1} mm"))
        }
        ChoiceShape::Material => {
            let shelf = serde_json::to_value(catalogue()).expect("a catalogue");
            let ids: Vec<Value> = classes_of(choice.key)
                .iter()
                .flat_map(|class| shelf[class].as_array().expect("a class"))
                .map(|material| material["id"].clone())
                .collect();
            one_of(&ids)
        }
        ChoiceShape::Plain => match choice.key {
            "first_turns" => json!(1 + nth(at, 4)),
            "cut_through" => json!(nth(at, 5)),
            "second_turns" => json!(nth(at, 5)),
            "box_style" | "second_style" => one_of(&CartonStyle::ALL.map(|style| json!(style))),
            "saved_opens" => one_of(&[json!("face"), json!("edge_long"), json!("edge_short")]),
            "saved_cut" => one_of(&[json!("depth"), json!("length_too")]),
            "saved_face" => one_of(&[json!("as_it_was"), json!("inside_out")]),
            "saved_from" | "saved_carrier" | "second_saved_from" => json!(""),
            "lining_sides" => one_of(&[
                json!(["left", "right"]),
                json!(["bottom"]),
                json!(["front", "back"]),
            ]),
            "pad_area_cm2" => json!(20.0 + at * 20_000.0),
            "travel_case" => one_of(&[json!(false), json!(false), json!(true)]),
            "case_empty" => one_of(&[json!(""), json!("12.4 kg"), json!("31 kg")]),
            "case_from" => one_of(&[json!(""), json!(""), json!("one")]),
            "case_kept" => json!({
                "length_mm": 300.0 + at * 1200.0, "width_mm": 300.0 + at * 900.0, "depth_mm": 60.0 + at * 140.0,
                "lining_mm": 50, "outside_length_mm": 440.0 + at * 1200.0, "outside_width_mm": 440.0 + at * 900.0,
                "outside_depth_mm": 190.0 + at * 140.0, "board": "plywood-4", "empty_g": 9000.0 + at * 20_000.0,
                "lid_screws": 16, "treated": false, "journey_cost": "8.50", "journey_minutes": 20.0,
            }),
            "tube" => one_of(&[json!("round"), json!("triangular")]),
            "glass_pattern" => one_of(&[json!("star"), json!("lattice")]),
            "carriage" => one_of(&[
                json!("flat"),
                json!("folio"),
                json!("mailed"),
                json!("rolled"),
            ]),
            "set_grid" => json!([1 + nth(at, 3), 1 + nth(at, 7) % 3]),
            key => panic!("draw a value of {key} too"),
        },
    }
}

/// The classes of the catalogue that a choice of material is of.
fn classes_of(key: &str) -> &'static [&'static str] {
    match key {
        "contact_paper" => &["contact_papers"],
        "outer_paper" | "roll_paper" => &["contact_papers"],
        "slip_on_corner" => &["slip_on_corners"],
        "cushion_wrap" => &["cushion_wraps"],
        "pad_foam" | "lining_foam" | "back_foam" => &["foams"],
        "padding_sheet" => &["foams", "cushion_wraps", "boards"],
        "fill" | "second_fill" => &["fills"],
        "label" | "name_tag" => &["sundries"],
        "bought_box" => &["mailers", "picture_cartons"],
        key if key.ends_with("board") => &["boards"],
        key => panic!("say which class {key} is of"),
    }
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
    let left = everyday()
        .into_iter()
        .filter(Everyday::is_left_to_the_rules);
    left.step_by(EVERY).map(|each| {
        let mut inputs = each.inputs;
        inputs.buyer.country = "XS".to_owned();
        inputs.value.get_or_insert_with(|| "480".to_owned());
        (each.name, inputs)
    })
}
