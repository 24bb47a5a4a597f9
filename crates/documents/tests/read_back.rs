//! What is made is read back by other readers, and measured.

use std::{
    io::Write as _,
    path::Path,
    process::{Command, Output, Stdio},
    sync::Arc,
};

use hummock_core::{
    carton::{BoxSize, SlottedEdge},
    drawing::{Drawing, LineKind},
    house::Allowances,
    quantity::{Length, Telling},
    shipment::{
        Addresses, Circumstances, House, PackSheet, SheetEnds, ShipmentInputs, pack_sheet,
        unpacking_guide,
    },
};
use lopdf::{Document, Object};
use serde_json::{Value, json};

fn asked(question: &Value) -> Output {
    told(&[], question.to_string().as_bytes())
}

fn told(task: &[&str], question: &[u8]) -> Output {
    let mut process = Command::new(env!("CARGO_BIN_EXE_hummock-documents"))
        .args(task)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .expect("it starts");
    let mut input = process.stdin.take().expect("it has an input");
    // A worker answers the first question before it reads the next one.
    std::thread::scope(|scope| {
        scope.spawn(move || input.write_all(question).expect("it reads"));
        process.wait_with_output().expect("it ends")
    })
}

fn made(question: &Value) -> Vec<u8> {
    let output = asked(question);
    assert!(
        output.status.success(),
        "{}",
        String::from_utf8_lossy(&output.stderr)
    );
    output.stdout
}

/// A paper with its pictures, as the server asks for it.
fn paper(kind: &str, says: &Value, pictures: &[Vec<u8>]) -> Output {
    let question = json!({ "paper": kind, "says": says, "pictures": pictures.len() });
    let mut asked = question.to_string().into_bytes();
    asked.push(b'\n');
    for picture in pictures {
        asked.extend(
            u32::try_from(picture.len())
                .expect("it is short")
                .to_be_bytes(),
        );
        asked.extend(picture);
    }
    told(&["paper"], &asked)
}

/// What a worker answers to papers that are asked of it one after another, as the server asks.
fn by_worker(questions: &[Vec<u8>]) -> Vec<Vec<u8>> {
    let asked = questions.iter().flat_map(|question| {
        let length = u32::try_from(question.len()).expect("it is short");
        [b"p".as_slice(), &length.to_be_bytes(), question].concat()
    });
    let output = told(&["work"], &asked.collect::<Vec<u8>>());
    assert!(output.status.success(), "{output:?}");
    let mut rest = output.stdout.as_slice();
    let mut answers = Vec::new();
    while let Some((head, after)) = rest.split_first_chunk::<5>() {
        let [0, length @ ..] = *head else {
            panic!("one is refused: {head:?}")
        };
        let length = usize::try_from(u32::from_be_bytes(length)).expect("it fits");
        let (answer, after) = after.split_at(length);
        answers.push(answer.to_vec());
        rest = after;
    }
    answers
}

fn printed(kind: &str, says: &Value, pictures: &[Vec<u8>]) -> Vec<u8> {
    let output = paper(kind, says, pictures);
    assert!(
        output.status.success(),
        "{kind}: {}",
        String::from_utf8_lossy(&output.stderr)
    );
    output.stdout
}

/// Everything that a PDF says, its words a space apart.
fn text_of(file: &[u8]) -> String {
    let document = Document::load_mem(file).expect("a PDF");
    let numbers: Vec<u32> = document.get_pages().keys().copied().collect();
    let text = document.extract_text(&numbers).expect("text");
    text.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// A box of 740 × 560 × 90, c 4: its blank is 1709 × 662.
fn blank() -> Drawing {
    let [length, width, height, caliper] = [740.0, 560.0, 90.0, 4.0].map(Length::mm);
    let blank = SlottedEdge(BoxSize {
        length,
        width,
        height,
        caliper,
    })
    .blank(&Allowances::default());
    Drawing::of_blank(&blank, "Kelp \"Ladder\" & <Co>", Telling::default())
}

/// A canvas of the demo studio.
fn canvas() -> (ShipmentInputs, House) {
    let read = |text: &str| serde_json::from_str::<Value>(text).expect("JSON");
    let house = House {
        rules: serde_json::from_value(read(include_str!("../../../demo/house-rules.json")))
            .expect("rules"),
        catalogue: serde_json::from_value(read(include_str!("../../../demo/catalogue.json")))
            .expect("stores"),
        tariffs: Vec::new(),
        presets: Vec::new(),
        references: Arc::default(),
        now: None,
    };
    let inputs: ShipmentInputs = serde_json::from_value(json!({
        "title": "Kelp Ladder",
        "buyer": { "name": "Corrie Vane", "town": "Sallow Hythe" },
        "piece": {
            "construction": "stretched_canvas", "medium": "acrylic", "certificate": true,
            "width": "500 mm", "height": "700 mm", "depth": "38 mm",
        },
    }))
    .expect("inputs");
    (inputs, house)
}

/// Its pack sheet.
fn sheet() -> PackSheet {
    sheet_of(canvas())
}

fn sheet_of((inputs, house): (ShipmentInputs, House)) -> PackSheet {
    let lines = |lines: &[&str]| {
        lines
            .iter()
            .map(|line| (*line).to_owned())
            .collect::<Vec<_>>()
    };
    let (to, from) = (
        lines(&["Corrie Vane", "Sallow Hythe"]),
        lines(&["Saltgrass", "Fen End 3"]),
    );
    let ends = SheetEnds {
        to: &to,
        from: &from,
        around: Circumstances {
            today: "2027-03-04".parse().expect("a day"),
            telling: house.rules.told_in,
            short: &["Paper tape".into()],
            addresses: Addresses {
                lacks: None,
                print: "",
            },
        },
    };
    let sheet = pack_sheet((&inputs, ends), &house).expect("a plan");
    sheet.expect("a plan")
}

fn pdf(paper: &str) -> Document {
    let bytes = made(&json!({
        "make": "pdf", "studio": "Saltgrass", "paper": paper, "drawings": [blank()],
        "list": [{ "title": "Sheet 1: Card", "says": "1600 × 1200", "cuts": ["910 mm from below, the whole width"],
            "parts": [["A1", "Face boards", "1210 × 910 mm"]] }],
    }));
    Document::load_mem(&bytes).expect("a PDF")
}

const MM_PER_POINT: f64 = 25.4 / 72.0;

/// The straight lines of a page, in millimetres, as its operators draw them.
fn lines_of(document: &Document, page: u32) -> Vec<[f64; 4]> {
    let id = document.get_pages()[&page];
    let content = document.get_and_decode_page_content(id).expect("content");
    let mut matrix = [1.0, 0.0, 0.0, 1.0, 0.0, 0.0];
    let mut kept = Vec::new();
    let mut at = [0.0, 0.0];
    let mut lines = Vec::new();
    for operation in content.operations {
        let numbers: Vec<f64> = operation
            .operands
            .iter()
            .filter_map(|operand| match operand {
                Object::Integer(number) => i32::try_from(*number).ok().map(f64::from),
                Object::Real(number) => Some(f64::from(*number)),
                _ => None,
            })
            .collect();
        let placed =
            |x: f64, y: f64, [a, b, c, d, e, f]: [f64; 6]| [a * x + c * y + e, b * x + d * y + f];
        match (operation.operator.as_str(), numbers.as_slice()) {
            ("q", _) => kept.push(matrix),
            ("Q", _) => matrix = kept.pop().expect("as many come as go"),
            ("cm", &[a, b, c, d, e, f]) => {
                let [ma, mb, mc, md, me, mf] = matrix;
                matrix = [
                    a * ma + b * mc,
                    a * mb + b * md,
                    c * ma + d * mc,
                    c * mb + d * md,
                    e * ma + f * mc + me,
                    e * mb + f * md + mf,
                ];
            }
            ("m", &[x, y]) => at = placed(x, y, matrix),
            ("l", &[x, y]) => {
                let to = placed(x, y, matrix);
                lines.push([at[0], at[1], to[0], to[1]].map(|side| side * MM_PER_POINT));
                at = to;
            }
            _ => {}
        }
    }
    lines
}

fn long([x1, y1, x2, y2]: [f64; 4]) -> f64 {
    (x2 - x1).hypot(y2 - y1)
}

fn has(lines: &[[f64; 4]], wanted: f64) -> bool {
    lines.iter().any(|line| (long(*line) - wanted).abs() < 0.1)
}

/// What the codes on the first page of a PDF say, as a camera reads them off paper.
fn read_codes(file: &[u8]) -> Vec<String> {
    use hayro::{
        RenderCache, RenderSettings, hayro_interpret::InterpreterSettings, hayro_syntax::Pdf,
        vello_cpu::color::palette::css::WHITE,
    };
    let pdf = Pdf::new(file.to_vec()).expect("a PDF");
    let page = pdf.pages().first().expect("a page");
    let settings = RenderSettings {
        x_scale: 3.0,
        y_scale: 3.0,
        bg_color: WHITE,
        ..RenderSettings::default()
    };
    let drawn = hayro::render(
        page,
        &RenderCache::new(),
        &InterpreterSettings::default(),
        &settings,
    );
    let (width, height) = (usize::from(drawn.width()), usize::from(drawn.height()));
    let points = drawn.data();
    let mut seen =
        rqrr::PreparedImage::prepare_from_greyscale(width, height, |x, y| points[y * width + x].g);
    let codes = seen.detect_grids();
    codes
        .iter()
        .map(|code| code.decode().expect("it can be read").1)
        .collect()
}

#[test]
fn a_pack_sheet_is_read_back_with_its_steps_and_its_code() {
    let sheet = sheet();
    let steps = sheet.steps.len();
    let leads_to = "http://127.0.0.1:7373/shipments/01a21b33-a346-7137-ab47-b8d4c4883b06/pack";
    let code = qrcode::QrCode::new(leads_to).expect("it fits");
    let code = code.render::<qrcode::render::svg::Color<'_>>().build();
    let says = json!({ "studio": "Saltgrass", "sheet": sheet, "code": code });
    let file = printed("pack_sheet", &says, &[]);
    // A camera finds the code on the printed page, and it leads back.
    assert_eq!(read_codes(&file), [leads_to]);
    let document = Document::load_mem(&file).expect("a PDF");
    let pages = document.get_pages();
    assert!((1..=3).contains(&pages.len()), "{} pages", pages.len());
    for id in pages.values() {
        let page = document.get_dictionary(*id).expect("a page");
        let sides = page
            .get(b"MediaBox")
            .and_then(Object::as_array)
            .expect("its size");
        let side = |at: usize| f64::from(sides[at].as_float().expect("a number")) * MM_PER_POINT;
        assert!((side(2) - 210.0).abs() < 0.1 && (side(3) - 297.0).abs() < 0.1);
    }
    let text = text_of(&file);
    assert!(text.contains("Kelp Ladder"), "{text}");
    for end in ["Sallow Hythe", "Fen End 3"] {
        assert!(text.contains(end), "{end} in {text}");
    }
    // A canvas 38 deep, 500 on its short side: leg 500/8 = 63, walls 38 + 1.08 + 4 + 1 and a board more; the pocket's first score
    // stands at its leg, and the box is measured from its left and its lower edge.
    assert!(
        text.contains("corner pocket") && text.contains("leg 63"),
        "{text}"
    );
    assert!(text.contains("seen from the inner face"), "{text}");
    assert!(
        text.contains(&format!("{steps} Measure and weigh it")),
        "{text}"
    );
    assert!(text.contains("to this packing"), "{text}");
    // Every act stands there as often as the list has it, in its words for paper and in its order.
    let words = |text: &str| text.split_whitespace().collect::<Vec<_>>().join(" ");
    let acts = sheet.steps.iter().flat_map(|step| &step.acts);
    let said: Vec<String> = acts.map(|act| words(act.on_paper())).collect();
    let mut from = 0;
    for says in &said {
        let times = said.iter().filter(|other| other.contains(says)).count();
        assert_eq!(text.matches(says).count(), times, "{says} in {text}");
        let at = text[from..].find(says);
        from += at.unwrap_or_else(|| panic!("{says} comes earlier")) + says.len();
    }
    // Without a code the rest stands as it is.
    let says = json!({ "studio": "Saltgrass", "sheet": sheet, "code": null });
    let bare = Document::load_mem(&printed("pack_sheet", &says, &[])).expect("a PDF");
    assert!(
        !bare
            .extract_text(&[1])
            .expect("text")
            .contains("to this packing")
    );
}

/// Kills a worker in which anything of one paper is left in the next.
#[test]
fn papers_are_the_same_one_after_another_as_each_by_itself() {
    let sheet = json!({ "studio": "Saltgrass", "sheet": sheet(), "code": null });
    let papers = [
        ("pack_sheet", sheet.clone()),
        ("label", label(false)),
        ("label", label(true)),
        ("pack_sheet", sheet),
        ("label", label(false)),
    ];
    let question = |(kind, says): &(&str, Value)| {
        let asked = json!({ "paper": kind, "says": says, "pictures": 0 });
        format!("{asked}\n").into_bytes()
    };
    let together = by_worker(&papers.iter().map(question).collect::<Vec<_>>());
    let alone: Vec<Vec<u8>> = papers
        .iter()
        .map(|(kind, says)| printed(kind, says, &[]))
        .collect();
    assert!(together == alone, "a paper is another one");
}

#[test]
fn the_pack_sheet_of_a_case_draws_its_frame_and_where_its_battens_are_sawn() {
    let (mut inputs, house) = canvas();
    inputs.choices.travel_case = Some(true);
    let sheet = sheet_of((inputs, house));
    let frame = sheet
        .steps
        .iter()
        .find(|step| step.title == "Screw the frame together")
        .and_then(|step| step.drawings.first())
        .expect("a drawing");
    let drawn = sheet.steps.iter().filter(|step| {
        let mut drawings = step.drawings.iter();
        drawings.any(|drawing| drawing.drawing.title == frame.drawing.title)
    });
    assert_eq!(drawn.count(), 1);
    // Up to 1200 long its battens are 18 thick: one side of the frame begins there, the other ends as far from the end.
    let up: Vec<f64> = frame.up.iter().map(|mark| mark.at).collect();
    assert_eq!(
        up,
        [18.0, frame.drawing.height - 18.0, frame.drawing.height]
    );
    // Every stock length is 2400 long, and each is sawn at least once.
    assert!(!sheet.drawings.is_empty());
    for stock in &sheet.drawings {
        assert_eq!(stock.drawing.width, 2400.0);
        assert!(stock.across.len() > 1);
    }
    let says = json!({ "studio": "Saltgrass", "sheet": sheet, "code": null });
    let text = text_of(&printed("pack_sheet", &says, &[]));
    for says in ["The frame, seen from the lid", "saw beyond each line"] {
        assert!(text.contains(says), "{says} in {text}");
    }
}

#[test]
fn an_unpacking_guide_is_read_back_from_the_box_to_the_art() {
    let (inputs, house) = canvas();
    let guide = unpacking_guide(&inputs, &house)
        .expect("a plan")
        .expect("a plan");
    let says = json!({ "studio": "Saltgrass", "guide": guide });
    let document = Document::load_mem(&printed("unpacking_guide", &says, &[])).expect("a PDF");
    let numbers: Vec<u32> = document.get_pages().keys().copied().collect();
    assert!(numbers.len() <= 2, "{numbers:?}");
    let text = document.extract_text(&numbers).expect("text");
    let text = text.split_whitespace().collect::<Vec<_>>().join(" ");
    let at = |says: &str| text.find(says).unwrap_or_else(|| panic!("{says}: {text}"));
    assert!(at("Unpacking Kelp Ladder") < at("1 Box"));
    assert!(at("1 Box") < at("Sheet over the face"));
    assert!(at("Sheet over the face") < at("When it is out"));
}

#[test]
fn a_pdf_is_as_large_as_what_it_draws_and_its_bar_is_100_mm() {
    let document = pdf("sheet");
    let pages = document.get_pages();
    assert_eq!(pages.len(), 2, "the cut list, and the blank");
    let lines = lines_of(&document, 2);
    assert!(has(&lines, 100.0), "the bar");
    // Scores stand W + 2c = 568 high; the front wall is scored off at L + c = 744 for its flaps.
    let drawing = blank();
    let upright = |kind: fn(LineKind) -> bool| -> Vec<f64> {
        let of = drawing.lines.iter().filter(|line| kind(line.kind));
        of.map(|line| (line.to[0] - line.from[0]).hypot(line.to[1] - line.from[1]))
            .collect()
    };
    let scores = upright(|kind| matches!(kind, LineKind::ScoreToward | LineKind::ScoreAway));
    assert!(
        scores.iter().any(|score| (score - 568.0).abs() < 1e-9),
        "{scores:?}"
    );
    for score in scores {
        assert!(has(&lines, score), "{score} mm is on no line of the page");
    }
    let text = document.extract_text(&[1]).expect("text");
    assert!(text.contains("910 mm from below"), "{text}");
}

#[test]
fn tiles_show_every_line_and_their_own_bar() {
    let document = pdf("a4");
    // 30 tiles, as reckoned beside the code, and the list.
    let pages = document.get_pages();
    assert_eq!(pages.len(), 31);
    let media = document
        .get_dictionary(pages[&2])
        .and_then(|page| page.get(b"MediaBox"))
        .and_then(Object::as_array)
        .expect("a size");
    let width = media[2].as_float().expect("a number");
    assert!((f64::from(width) * MM_PER_POINT - 210.0).abs() < 0.1);
    for page in 2..=31 {
        let lines = lines_of(&document, page);
        assert!(has(&lines, 100.0), "page {page} has no bar");
        assert!(has(&lines, 8.0), "page {page} has no register mark");
    }
}

#[test]
fn an_svg_is_in_millimetres() {
    let svg = made(&json!({ "make": "svg", "drawing": blank() }));
    let text = String::from_utf8(svg).expect("text");
    let document = roxmltree::Document::parse(&text).expect("XML");
    let root = document.root_element();
    // 1709 and 662 with 10 around them, and 18 for the bar.
    assert_eq!(root.attribute("width"), Some("1729mm"));
    assert_eq!(root.attribute("height"), Some("700mm"));
    assert_eq!(root.attribute("viewBox"), Some("-10 -10 1729 700"));
    let number = |node: &roxmltree::Node<'_, '_>, name: &str| -> f64 {
        node.attribute(name)
            .and_then(|text| text.parse().ok())
            .expect(name)
    };
    let lengths = |group: &str| -> Vec<f64> {
        let group = document
            .descendants()
            .find(|node| node.attribute("id") == Some(group));
        group
            .expect("a group")
            .children()
            .filter(|node| node.has_tag_name("line"))
            .map(|line| {
                (number(&line, "x2") - number(&line, "x1"))
                    .hypot(number(&line, "y2") - number(&line, "y1"))
            })
            .collect()
    };
    assert_eq!(lengths("BAR"), [100.0]);
    let cut: f64 = lengths("CUT").iter().sum();
    let drawing = blank();
    let wanted: f64 = drawing
        .lines
        .iter()
        .filter(|line| line.kind == LineKind::Cut)
        .map(|line| (line.to[0] - line.from[0]).hypot(line.to[1] - line.from[1]))
        .sum();
    assert!((cut - wanted).abs() < 1e-6);
    let title = document
        .descendants()
        .find(|node| node.has_tag_name("title"));
    assert_eq!(
        title.and_then(|title| title.text().map(str::to_owned)),
        Some(drawing.title)
    );
}

#[test]
fn a_dxf_is_read_by_another_reader_layer_by_layer() {
    let dxf = made(&json!({ "make": "dxf", "drawing": blank() }));
    let web = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web");
    let mut process = Command::new("node")
        .current_dir(web)
        .args(["-e", "
            const { default: Parser } = require('dxf-parser');
            const made = new (Parser ?? require('dxf-parser'))().parseSync(require('fs').readFileSync(0, 'utf8'));
            console.log(JSON.stringify({
                version: made.header.$ACADVER,
                layers: Object.keys(made.tables.layer.layers),
                lines: made.entities.filter((one) => one.type === 'LINE').map((one) => ({ layer: one.layer, ends: one.vertices })),
            }));
        "])
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .spawn()
        .expect("node starts");
    let mut input = process.stdin.take().expect("it has an input");
    input.write_all(&dxf).expect("it reads");
    drop(input);
    let output = process.wait_with_output().expect("it ends");
    let read: Value = serde_json::from_slice(&output.stdout).expect("JSON");
    assert_eq!(read["version"], "AC1009", "R12");
    let layers: Vec<&str> = read["layers"]
        .as_array()
        .expect("layers")
        .iter()
        .filter_map(Value::as_str)
        .collect();
    for kind in LineKind::ALL {
        assert!(layers.contains(&kind.layer()), "{layers:?}");
    }
    let drawing = blank();
    let lines = read["lines"].as_array().expect("lines");
    assert_eq!(lines.len(), drawing.lines.len());
    for (line, wanted) in lines.iter().zip(&drawing.lines) {
        assert_eq!(line["layer"], wanted.kind.layer());
        for (end, at) in line["ends"]
            .as_array()
            .expect("ends")
            .iter()
            .zip([wanted.from, wanted.to])
        {
            let near =
                |name: &str, at: f64| (end[name].as_f64().expect("a number") - at).abs() < 1e-6;
            assert!(
                near("x", at[0]) && near("y", at[1]),
                "{line} is not {wanted:?}"
            );
        }
    }
}

/// The pairs of a file, read by R12's own rules alone: a number on one line, what stands under it on the next.
fn pairs(dxf: &[u8]) -> Vec<(u16, String)> {
    let text = std::str::from_utf8(dxf).expect("text");
    assert!(text.is_ascii(), "R12 knows no other letters");
    let lines: Vec<&str> = text.lines().collect();
    assert_eq!(lines.len() % 2, 0, "a number and a value each");
    let pair = |pair: &[&str]| {
        (
            pair[0].trim().parse().expect("a number"),
            pair[1].to_owned(),
        )
    };
    lines.chunks(2).map(pair).collect()
}

/// Returns the group codes that an entry of a kind may have in R12.
fn may_have(entry: &str) -> &'static [u16] {
    match entry {
        "SECTION" | "ENDSEC" | "ENDTAB" | "EOF" => &[2],
        "TABLE" => &[2, 70],
        "LTYPE" => &[2, 3, 40, 49, 70, 72, 73],
        "LAYER" => &[2, 6, 62, 70],
        "STYLE" => &[2, 3, 4, 40, 41, 42, 50, 70, 71],
        "LINE" => &[8, 10, 20, 30, 11, 21, 31],
        "TEXT" => &[1, 7, 8, 10, 20, 30, 40],
        other => panic!("R12 has no {other}, or none is written here"),
    }
}

#[test]
fn a_dxf_holds_to_the_rules_of_r12() {
    let drawing = blank();
    let dxf = made(&json!({ "make": "dxf", "drawing": drawing }));
    let (comments, all): (Vec<_>, Vec<_>) =
        pairs(&dxf).into_iter().partition(|(code, _)| *code == 999);
    let says = "Hummock, all lengths in millimetres".to_owned();
    assert_eq!(comments, [(999, says)]);
    assert_eq!(all.last(), Some(&(0, "EOF".to_owned())));
    let sections: Vec<&str> = all
        .windows(2)
        .filter(|pair| pair[0] == (0, "SECTION".to_owned()))
        .map(|pair| pair[1].1.as_str())
        .collect();
    assert_eq!(sections, ["HEADER", "TABLES", "BLOCKS", "ENTITIES"]);
    // Entry by entry: what it is, and what stands in it.
    let mut entries: Vec<(String, Vec<(u16, String)>)> = Vec::new();
    let mut header = Vec::new();
    for (code, value) in all.iter().cloned() {
        match (code, entries.last_mut()) {
            (0, _) => entries.push((value, Vec::new())),
            (_, Some((_, inside))) => inside.push((code, value)),
            (_, None) => panic!("{code} stands in nothing"),
        }
    }
    for (entry, inside) in &mut entries {
        let is_header = inside.first() == Some(&(2, "HEADER".to_owned()));
        if entry == "SECTION" && is_header {
            header = inside.split_off(1);
        }
        for (code, _) in inside.iter() {
            assert!(may_have(entry).contains(code), "{entry} has {code}");
        }
    }
    let named = |kind: &str| -> Vec<&str> {
        let of = entries.iter().filter(|(entry, _)| entry == kind);
        of.map(|(_, inside)| inside[0].1.as_str()).collect()
    };
    let value = |inside: &[(u16, String)], code: u16| {
        let found = inside.iter().find(|(one, _)| *one == code);
        found.map(|(_, value)| value.clone()).expect("it has one")
    };
    let (types, layers) = (named("LTYPE"), named("LAYER"));
    for (entry, inside) in &entries {
        match entry.as_str() {
            "TABLE" => {
                let (name, says) = (value(inside, 2), value(inside, 70));
                assert_eq!(says, named(&name).len().to_string(), "{name}");
            }
            "LAYER" => assert!(types.contains(&value(inside, 6).as_str())),
            "LTYPE" => {
                let dashes = inside.iter().filter(|(code, _)| *code == 49).count();
                assert_eq!(value(inside, 73), dashes.to_string());
            }
            "LINE" | "TEXT" => assert!(layers.contains(&value(inside, 8).as_str())),
            _ => {}
        }
    }
    for name in types.iter().chain(&layers) {
        let plain =
            |letter: char| letter.is_ascii_uppercase() || letter.is_ascii_digit() || letter == '_';
        assert!(name.len() <= 31 && name.chars().all(plain), "{name}");
    }
    // What the head says is what is drawn.
    let corner = |name: &str| -> [f64; 2] {
        let at = header
            .iter()
            .position(|pair| pair.1 == name)
            .expect("it is said");
        [1, 2].map(|more| header[at + more].1.parse().expect("a number"))
    };
    let ends = || {
        drawing
            .lines
            .iter()
            .flat_map(|line| [line.from, line.to])
            .chain(drawing.texts.iter().map(|text| text.at))
    };
    for side in [0, 1] {
        let least = ends().map(|end| end[side]).fold(f64::INFINITY, f64::min);
        let most = ends()
            .map(|end| end[side])
            .fold(f64::NEG_INFINITY, f64::max);
        assert_eq!(
            (corner("$EXTMIN")[side], corner("$EXTMAX")[side]),
            (least, most)
        );
    }
    assert_eq!(value(&header, 1), "AC1009");
}

#[test]
fn what_was_written_is_read_in_and_what_is_round_is_named() {
    let dxf = String::from_utf8(made(&json!({ "make": "dxf", "drawing": blank() }))).expect("text");
    let read = |text: &str| -> Value {
        serde_json::from_slice(&made(&json!({ "make": "read_dxf", "text": text }))).expect("JSON")
    };
    let back = read(&dxf);
    assert_eq!(
        back["lines"].as_array().map(Vec::len),
        Some(blank().lines.len())
    );
    assert_eq!(back["unread"], json!([]));
    let round = "0\nSECTION\n2\nENTITIES\n0\nLINE\n8\nEDGE\n10\n0\n20\n0\n11\n100\n21\n0\n0\nCIRCLE\n8\nHOLES\n10\n50\n20\n50\n40\n10\n0\nENDSEC\n0\nEOF\n";
    let back = read(round);
    assert_eq!(
        back["lines"],
        json!([{ "layer": "EDGE", "from": [0.0, 0.0], "to": [100.0, 0.0] }])
    );
    assert_eq!(back["unread"][0]["entity"], 2);
    assert_eq!(back["unread"][0]["layer"], "HOLES");
    assert!(
        back["unread"][0]["says"]
            .as_str()
            .is_some_and(|says| says.contains("circle"))
    );
}

#[test]
fn nonsense_is_refused_with_a_sentence() {
    for (question, says) in [
        (
            json!({ "make": "read_dxf", "text": "hello" }),
            "no DXF file",
        ),
        (json!({ "make": "tea" }), "not understood"),
        (
            json!({ "make": "pdf", "studio": "", "paper": "a4", "drawings": [Drawing { width: 10_000.0, height: 10_000.0, ..blank() }] }),
            "pages",
        ),
    ] {
        let output = asked(&question);
        assert_eq!(output.status.code(), Some(2));
        let told = String::from_utf8_lossy(&output.stderr).into_owned();
        assert!(told.contains(says), "{told}");
    }
}

/// The sides of a page, in millimetres.
fn sides_of(document: &Document, page: u32) -> [f64; 2] {
    let id = document.get_pages()[&page];
    let page = document.get_dictionary(id).expect("a page");
    let sides = page
        .get(b"MediaBox")
        .and_then(Object::as_array)
        .expect("its size");
    [2, 3].map(|at: usize| f64::from(sides[at].as_float().expect("a number")) * MM_PER_POINT)
}

fn label(a4: bool) -> Value {
    json!({
        "a4": a4,
        "labels": [labelled("GP-0417")],
    })
}

fn labelled(tracking: &str) -> Value {
    let code = qrcode::QrCode::new(tracking).expect("it fits");
    json!({
        "code": code.render::<qrcode::render::svg::Color<'_>>().build(),
        "label": {
            "ends": { "from": ["Saltgrass Print & Frame", "3 Capstan Row"], "to": ["Oda Marsh", "4 Weir Lane", "Tern Bight TB1 2AA"] },
            "carrier": "Gannet Post Parcel", "tracking": tracking, "lines": ["Depot 7"], "about": "3.61 kg", "reference": "Slack Tide",
        }
    })
}

#[test]
fn several_labels_are_a_page_each_in_their_order() {
    for a4 in [false, true] {
        let mut asked = label(a4);
        asked["labels"] = json!([labelled("GP-0417"), labelled("GP-0418"), labelled("X 12")]);
        let made = printed("label", &asked, &[]);
        let document = Document::load_mem(&made).expect("a PDF");
        assert_eq!(document.get_pages().len(), 3);
        for (page, tracking) in (1..).zip(["GP-0417", "GP-0418", "X 12"]) {
            let text = document.extract_text(&[page]).expect("text");
            let text = text.split_whitespace().collect::<Vec<_>>().join(" ");
            assert!(text.contains(tracking), "{page}: {text}");
        }
    }
}

#[test]
fn a_label_is_as_large_as_a_label_and_on_a4_as_large_too() {
    let alone = printed("label", &label(false), &[]);
    assert_eq!(read_codes(&alone), ["GP-0417"]);
    let document = Document::load_mem(&alone).expect("a PDF");
    let [wide, high] = sides_of(&document, 1);
    assert!(
        (wide - 100.0).abs() < 0.1 && (high - 150.0).abs() < 0.1,
        "{wide} x {high}"
    );
    assert_eq!(document.get_pages().len(), 1);
    let on_a4 = printed("label", &label(true), &[]);
    assert_eq!(read_codes(&on_a4), ["GP-0417"]);
    let document = Document::load_mem(&on_a4).expect("a PDF");
    let [wide, high] = sides_of(&document, 1);
    assert!((wide - 210.0).abs() < 0.1 && (high - 297.0).abs() < 0.1);
    // Its bar is 100 mm, so that whoever prints it sees whether it was scaled.
    assert!(has(&lines_of(&document, 1), 100.0));
    // The longest name still stands on it.
    let mut long = label(false);
    long["labels"][0]["label"]["ends"]["to"][0] =
        json!("The Corporation of the Harbour Lights and Estuary Museum of Netherby Quay");
    let document = Document::load_mem(&printed("label", &long, &[])).expect("a PDF");
    let text = document.extract_text(&[1]).expect("text");
    let text = text.split_whitespace().collect::<Vec<_>>().join(" ");
    assert!(
        text.contains("TB1 2AA") && text.contains("GP-0417"),
        "{text}"
    );
    assert_eq!(document.get_pages().len(), 1);
}

fn jpeg(width: u32, height: u32) -> Vec<u8> {
    let picture = image::RgbImage::from_fn(width, height, |x, y| {
        let shade = |at: u32| u8::try_from(at % 256).expect("below 256");
        image::Rgb([shade(x), shade(y), 90])
    });
    let mut file = std::io::Cursor::new(Vec::new());
    image::DynamicImage::ImageRgb8(picture)
        .write_to(&mut file, image::ImageFormat::Jpeg)
        .expect("memory takes it");
    file.into_inner()
}

#[test]
fn photographs_follow_their_words_in_order_and_are_made_smaller() {
    let lines: Vec<Value> = (1..=3)
        .map(|at| json!({ "says": format!("view {at}"), "taken_at": "2027-03-04 10:15" }))
        .collect();
    let says = json!({
        "mark": false,
        "condition": { "head": { "studio": "Saltgrass", "lines": [] }, "on": "4 Mar 2027",
            "pieces": [{ "title": "Slack Tide", "lines": [], "surface": "Sound", "notes": "" }], "photographs": lines }
    });
    let pictures = vec![jpeg(2400, 1800), jpeg(600, 900), jpeg(1200, 1200)];
    let sent: usize = pictures.iter().map(Vec::len).sum();
    let file = printed("condition", &says, &pictures);
    assert!(file.len() < sent, "{} of {sent} bytes", file.len());
    let document = Document::load_mem(&file).expect("a PDF");
    let pages: Vec<u32> = document.get_pages().keys().copied().collect();
    let text = document.extract_text(&pages).expect("text");
    let at = |says: &str| text.find(says).unwrap_or_else(|| panic!("{says}: {text}"));
    assert!(at("view 1") < at("view 2") && at("view 2") < at("view 3"));
    let widths: Vec<i64> = document
        .objects
        .values()
        .filter_map(|object| object.as_stream().ok())
        .filter(|stream| {
            stream
                .dict
                .get(b"Subtype")
                .and_then(Object::as_name)
                .is_ok_and(|kind| kind == b"Image")
        })
        .filter_map(|stream| stream.dict.get(b"Width").and_then(Object::as_i64).ok())
        .collect();
    assert_eq!(widths.len(), 3, "{widths:?}");
    assert!(widths.contains(&900) && widths.contains(&600), "{widths:?}");
}

#[test]
fn a_picture_that_breaks_off_is_told_and_not_printed_half() {
    let says = json!({});
    let output = paper("condition", &says, &[b"no picture".to_vec()]);
    assert_eq!(output.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&output.stderr).contains("can't be read"));
    let question = json!({ "paper": "condition", "says": {}, "pictures": 1 }).to_string();
    let output = told(&["paper"], format!("{question}\n\0\0").as_bytes());
    assert_eq!(output.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&output.stderr).contains("break off"));
}
