//! A drawing as DXF R12, in millimetres, with a layer for each kind of line.
//!
//! It is written by hand: general writers put marks of later editions into R12's tables, which strict programs refuse. R12 has no
//! word for its unit; a comment behind the head says it.

use std::fmt::{Display, Write as _};

use hummock_core::drawing::{Drawing, LineKind};

/// A file as it is written: pairs of a number and what stands under it, each on a line of its own.
#[derive(Default)]
struct Pairs(String);

/// Where texts stand.
const TEXT_LAYER: &str = "TEXT";
/// White on black, black on white.
const PLAIN: u8 = 7;
/// A line without gaps, which every file has.
const WHOLE: &str = "CONTINUOUS";
const STYLE: &str = "STANDARD";
/// As programs of R12 take a dash's pattern: aligned with its ends.
const ALIGNED: u8 = 65;

impl Pairs {
    fn put(&mut self, code: u16, value: impl Display) -> &mut Self {
        // A text grows as long as there is memory.
        let _ = write!(self.0, "{code:>3}\r\n{value}\r\n");
        self
    }

    /// A length, so that it reads as a number with a point.
    fn length(&mut self, code: u16, mm: f64) -> &mut Self {
        self.put(code, format_args!("{mm:?}"))
    }

    fn point(&mut self, first: u16, [x, y]: [f64; 2]) -> &mut Self {
        self.length(first, x)
            .length(first + 10, y)
            .length(first + 20, 0.0)
    }

    fn section(&mut self, name: &str, inside: impl FnOnce(&mut Self)) -> &mut Self {
        self.put(0, "SECTION").put(2, name);
        inside(self);
        self.put(0, "ENDSEC")
    }

    fn table(&mut self, name: &str, entries: usize, inside: impl FnOnce(&mut Self)) -> &mut Self {
        self.put(0, "TABLE").put(2, name).put(70, entries);
        inside(self);
        self.put(0, "ENDTAB")
    }
}

/// Returns it.
pub(crate) fn made(drawing: &Drawing) -> Vec<u8> {
    let [least, most] = extents(drawing);
    let mut file = Pairs::default();
    file.section("HEADER", |file| {
        file.put(9, "$ACADVER").put(1, "AC1009");
        file.put(9, "$INSBASE").point(10, [0.0, 0.0]);
        file.put(9, "$EXTMIN").point(10, least);
        file.put(9, "$EXTMAX").point(10, most);
        for (name, [x, y]) in [("$LIMMIN", least), ("$LIMMAX", most)] {
            file.put(9, name).length(10, x).length(20, y);
        }
        // Decimal, to a thousandth.
        file.put(9, "$LUNITS").put(70, 2);
        file.put(9, "$LUPREC").put(70, 3);
    })
    .put(999, "Hummock, all lengths in millimetres")
    .section("TABLES", tables)
    .section("BLOCKS", |_| {})
    .section("ENTITIES", |file| {
        for line in &drawing.lines {
            file.put(0, "LINE").put(8, line.kind.layer());
            file.point(10, line.from).point(11, line.to);
        }
        for text in &drawing.texts {
            file.put(0, "TEXT").put(8, TEXT_LAYER);
            file.point(10, text.at).length(40, text.size);
            file.put(1, plain(&text.text)).put(7, STYLE);
        }
    })
    .put(0, "EOF");
    file.0.into_bytes()
}

fn tables(file: &mut Pairs) {
    let dashed: Vec<LineKind> = LineKind::ALL
        .into_iter()
        .filter(|kind| !kind.dashes().is_empty())
        .collect();
    file.table("LTYPE", dashed.len() + 1, |file| {
        line_type(file, WHOLE, "Solid line", &[]);
        for kind in &dashed {
            line_type(file, kind.layer(), kind.layer(), kind.dashes());
        }
    });
    file.table("LAYER", LineKind::ALL.len() + 2, |file| {
        layer(file, "0", WHOLE);
        for kind in LineKind::ALL {
            let dashes = !kind.dashes().is_empty();
            layer(
                file,
                kind.layer(),
                if dashes { kind.layer() } else { WHOLE },
            );
        }
        layer(file, TEXT_LAYER, WHOLE);
    });
    file.table("STYLE", 1, |file| {
        file.put(0, "STYLE").put(2, STYLE).put(70, 0);
        // Letters of any height, as wide as they are drawn, upright.
        file.length(40, 0.0).length(41, 1.0).length(50, 0.0);
        file.put(71, 0).length(42, 2.5).put(3, "txt").put(4, "");
    });
}

fn line_type(file: &mut Pairs, name: &str, says: &str, dashes: &[f64]) {
    file.put(0, "LTYPE").put(2, name).put(70, 0).put(3, says);
    file.put(72, ALIGNED).put(73, dashes.len());
    file.length(40, dashes.iter().sum());
    for (at, long) in dashes.iter().enumerate() {
        // A dash is more than nothing, a gap is less.
        file.length(49, if at % 2 == 0 { *long } else { -long });
    }
}

fn layer(file: &mut Pairs, name: &str, line_type: &str) {
    file.put(0, "LAYER").put(2, name).put(70, 0);
    file.put(62, PLAIN).put(6, line_type);
}

/// The lower left and the upper right corner of all that is drawn.
fn extents(drawing: &Drawing) -> [[f64; 2]; 2] {
    let ends = drawing.lines.iter().flat_map(|line| [line.from, line.to]);
    let points: Vec<[f64; 2]> = ends
        .chain(drawing.texts.iter().map(|text| text.at))
        .collect();
    if points.is_empty() {
        return [[0.0, 0.0], [drawing.width, drawing.height]];
    }
    let of = |side: usize, pick: fn(f64, f64) -> f64, from: f64| {
        points.iter().map(|point| point[side]).fold(from, pick)
    };
    [
        [0, 1].map(|side| of(side, f64::min, f64::INFINITY)),
        [0, 1].map(|side| of(side, f64::max, f64::NEG_INFINITY)),
    ]
}

/// A text of one line in letters of ASCII; others stand by their number, as programs read them.
fn plain(text: &str) -> String {
    let mut plain = String::new();
    for letter in text.chars() {
        match letter {
            ' '..='~' => plain.push(letter),
            letter if letter.is_control() => plain.push(' '),
            letter => {
                let mut units = [0; 2];
                for unit in letter.encode_utf16(&mut units) {
                    let _ = write!(plain, "\\U+{unit:04X}");
                }
            }
        }
    }
    plain
}
