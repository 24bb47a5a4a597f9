//! Packings from the first step to the last, in words, as they would be read aloud at a bench: a changed word shows in the diff.

use std::{fmt::Write as _, fs, path::PathBuf};

use hummock_core::{
    house::CartonStyle,
    pack::{PackStep, Stage},
    part::{Part, Take},
    quantity::{Length, Telling},
    shipment::{ShipmentInputs, packing},
};

use serde_json::{Value, json};

use crate::{
    containers::{house_with_kits, with},
    studio::everyday,
};

/// One packing, by the name of its file.
pub(crate) struct Bench {
    pub(crate) name: &'static str,
    pub(crate) inputs: ShipmentInputs,
}

fn of(name: &str) -> ShipmentInputs {
    let all = everyday();
    let one = all.into_iter().find(|each| each.name == name);
    one.unwrap_or_else(|| panic!("{name} is among the everyday pieces"))
        .inputs
}

fn in_style(name: &str, style: CartonStyle) -> ShipmentInputs {
    let mut inputs = of(name);
    inputs.choices.box_style = Some(style);
    inputs
}

/// A canvas with a small panel and a framed print, in one box.
fn three() -> ShipmentInputs {
    let others = json!({
        "panel": { "title": "Slack Water", "piece": of("small panel").piece },
        "print": { "title": "Reed Bed", "piece": of("A3 frame").piece },
    });
    ShipmentInputs {
        title: "Low Water".to_owned(),
        others: serde_json::from_value(others).expect("two other pieces"),
        ..of("canvas 400 by 500")
    }
}

fn mirror(kit: &str) -> ShipmentInputs {
    with("hall mirror", [900, 700, 25], &json!({ "bought_box": kit }))
}

/// A canvas in a kept carton of three sides.
fn saved(sides: [&str; 3], more: &Value) -> ShipmentInputs {
    let mut choices = more.clone();
    for (key, side) in ["saved_length", "saved_width", "saved_height"]
        .into_iter()
        .zip(sides)
    {
        choices[key] = json!(side);
    }
    with("canvas 600 by 800", [600, 800, 38], &choices)
}

/// Packings of every carriage, style and kind of container.
pub(crate) fn benches() -> Vec<Bench> {
    let bench = |name, inputs| Bench { name, inputs };
    let mut twice = of("canvas overseas");
    twice.piece.certificate = true;
    twice.gift = true;
    vec![
        bench(
            "canvas-edge-box",
            in_style("canvas 600 by 800", CartonStyle::SlottedEdge),
        ),
        bench(
            "frame-tray-and-lid",
            in_style("A3 frame", CartonStyle::TrayAndLid),
        ),
        bench(
            "panel-folder",
            in_style("panel 400 by 400", CartonStyle::Folder),
        ),
        bench(
            "tall-canvas-telescope",
            in_style("tall canvas", CartonStyle::Telescope),
        ),
        bench("canvas-twice-boxed", twice),
        bench("print-mailer", of("A4 watercolour")),
        bench("oil-tube", of("rolled oil")),
        bench("round-mirror", of("round mirror")),
        bench("gilded-frame", of("gilded frame")),
        bench("pastel", of("pastel to its edges")),
        bench("pastel-bordered", of("pastel with a border")),
        bench("pastel-board", of("pastel on a thin board")),
        bench("pastel-panel", of("pastel on a cradled panel")),
        bench("pastel-glazed", of("pastel under glass")),
        bench("print-sandwich", of("A1 print")),
        bench("canvas-mailer", of("tall canvas in a mailer")),
        bench("three-pieces", three()),
        bench("case-glazed", of("case for a frame that tours")),
        bench("case-canvas", of("case for a canvas of two metres")),
        bench("mirror-set-of-four", mirror("corners-four")),
        bench("mirror-set-of-two", mirror("halves-1050")),
        bench(
            "picture-two-trays",
            with(
                "framed under acrylic",
                [500, 700, 30],
                &json!({ "bought_box": "trays-140" }),
            ),
        ),
        bench(
            "mirror-several-depths",
            with(
                "small mirror",
                [300, 400, 25],
                &json!({ "bought_box": "carton-depths" }),
            ),
        ),
        bench(
            "canvas-edge-carton-cut-down",
            saved(
                ["900 mm", "120 mm", "780 mm"],
                &json!({ "saved_opens": "edge_long" }),
            ),
        ),
        bench(
            "canvas-carton-halves",
            saved(
                ["1000 mm", "720 mm", "160 mm"],
                &json!({ "saved_cut": "length_too" }),
            ),
        ),
        bench(
            "canvas-carton-inside-out",
            saved(
                ["900 mm", "700 mm", "130 mm"],
                &json!({ "saved_face": "inside_out" }),
            ),
        ),
        bench(
            "canvas-two-mailers",
            with(
                "tall canvas in a mailer",
                [330, 740, 10],
                &json!({ "bought_box": "board-mailer-a3" }),
            ),
        ),
    ]
}

fn sides(part: &Part, telling: Telling) -> String {
    let of = |sides: &[Length]| telling.sides(sides);
    let take = match part.take {
        Take::Piece {
            width_mm,
            height_mm,
            ..
        } => of(&[width_mm, height_mm]),
        Take::Run {
            length_mm,
            width_mm: Some(width),
            ..
        } => of(&[length_mm, width]),
        Take::Run { length_mm, .. } => of(&[length_mm]),
        Take::Loose { volume_m3 } => format!("{:.1} l", volume_m3.as_m3() * 1000.0),
        Take::Each => String::new(),
    };
    format!(
        "{} × {take} {} ({})",
        part.count, part.id, part.material_name
    )
    .replace("×  ", "× ")
}

fn written(step: &PackStep, at: usize, telling: Telling) -> String {
    let mut text = String::new();
    let piece = step
        .piece
        .as_ref()
        .map_or(String::new(), |piece| format!("{piece}: "));
    let _ = writeln!(text, "{at:>2}. {piece}{} [{}]", step.title, step.key);
    for line in &step.says {
        let _ = writeln!(text, "    {line}");
    }
    let minutes = format!("{:.1}", step.minutes.as_min());
    let timed = step.stage == Stage::Cut || step.minutes.as_min() > 0.0;
    let mut line = |what: &str, list: Vec<String>| {
        if !list.is_empty() {
            let _ = writeln!(text, "    {what}: {}", list.join("; "));
        }
    };
    line(
        "takes",
        step.parts.iter().map(|part| sides(part, telling)).collect(),
    );
    line(
        "tape",
        step.strips
            .iter()
            .map(|strip| {
                format!(
                    "{} × {} {}",
                    strip.count,
                    telling.length(strip.length),
                    strip.on
                )
            })
            .collect(),
    );
    line(
        "tools",
        step.tools
            .iter()
            .map(|tool| tool.name().to_owned())
            .collect(),
    );
    line(
        "mind",
        step.cautions.iter().map(|&one| one.to_owned()).collect(),
    );
    line(
        "asks",
        step.look.iter().map(|look| look.asks.to_owned()).collect(),
    );
    line("minutes", timed.then_some(minutes).into_iter().collect());
    line("covers", step.covers.clone());
    text.replace(['\u{a0}', '\u{202f}'], " ")
}

fn folder() -> PathBuf {
    PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("testdata/benches")
}

#[test]
fn packings_read_aloud_as_they_are_written_down() {
    let house = house_with_kits();
    for bench in benches() {
        let view = packing(&bench.inputs, &house)
            .unwrap_or_else(|refused| panic!("{}: {refused:?}", bench.name))
            .expect("a plan");
        let mut text = String::new();
        for (at, one) in view.steps.iter().enumerate() {
            text.push_str(&written(&one.step, at + 1, house.rules.told_in));
        }
        let file = folder().join(format!("{}.txt", bench.name));
        if std::env::var_os("HUMMOCK_WRITE").is_some() {
            fs::create_dir_all(folder()).expect("the folder can be made");
            fs::write(&file, &text).expect("it can be written");
        }
        let kept = fs::read_to_string(&file).unwrap_or_default();
        assert!(
            kept == text,
            "{} is packed otherwise: read it aloud, and write it with HUMMOCK_WRITE=1\n{text}",
            bench.name
        );
    }
}

/// Prints of the steps as the build before parts had ids made them: what somebody ticked then is still ticked. How several pieces lie
/// together was told by its sentences: a print of that length counts for the step of its key.
///
/// It kills: another key for any part or strip of these, and a field more or less in what is printed.
#[test]
fn what_was_ticked_before_parts_had_ids_is_still_ticked() {
    const BEFORE: &str = include_str!("../../testdata/prints.csv");
    let house = house_with_kits();
    let before: Vec<[&str; 3]> = BEFORE
        .lines()
        .skip(1)
        .map(|line| {
            let mut cells = line.split(',');
            [(); 3].map(|()| cells.next().expect("three cells"))
        })
        .collect();
    // A pastel is held from behind since then, and everything around it is another length.
    let was_there =
        |bench: &Bench| bench.name != "pastel" && before.iter().any(|[of, ..]| *of == bench.name);
    for bench in benches().into_iter().filter(was_there) {
        let view = packing(&bench.inputs, &house)
            .unwrap_or_else(|refused| panic!("{}: {refused:?}", bench.name))
            .expect("a plan");
        let mut known = 0;
        let steps = || view.steps.iter().map(|one| &one.step);
        let has = |key: &str| steps().any(|step| step.key == key);
        for step in steps() {
            let of = before
                .iter()
                .find(|[of, key, _]| *of == bench.name && *key == step.key);
            let Some([.., print]) = of else { continue };
            known += 1;
            // Tape of these is torn otherwise since containers have their acts: each cap by itself, two halves and
            // two mailers twice round.
            let torn_anew = [
                ("oil-tube", "layer/box"),
                ("oil-tube", "seal/box"),
                ("tall-canvas-telescope", "layer/box"),
                ("tall-canvas-telescope", "seal/box"),
                // The back board is cut and laid by itself, before the foam.
                ("gilded-frame", "cut/corrugated-c"),
                ("gilded-frame", "layer/face_boards"),
            ];
            // Pads ride on the piece, tape on glass ends before the frame, and nothing lies beside chocks: what was ticked of these is
            // done again.
            let own = step.key.strip_prefix("piece/");
            let own = own.and_then(|rest| rest.split_once('/'));
            let laid_anew = match own.map_or(step.key.as_str(), |(_, own)| own) {
                "before/fill" => has("back/filler"),
                "before/second_fill" => has("back/second_filler"),
                "back/filler" | "back/second_filler" | "layer/glass_tape" | "layer/cradle" => true,
                "layer/fill" => bench.name == "tall-canvas-telescope",
                _ => false,
            };
            if laid_anew || torn_anew.contains(&(bench.name, step.key.as_str())) {
                assert_ne!(step.print, *print, "{}: {}", bench.name, step.key);
            } else if step.key == "layer/stack" {
                assert!(print.len() < step.print.len(), "{}", step.print);
            } else {
                assert_eq!(step.print, *print, "{}: {}", bench.name, step.key);
            }
        }
        assert!(known > 10, "{}: {known} steps are known", bench.name);
    }
}
