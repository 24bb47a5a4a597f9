//! A drawing as SVG whose user unit is the millimetre.

use std::fmt::Write as _;

use hummock_core::drawing::Drawing;

/// White around it, and the strip with the bar below it.
const MARGIN: f64 = 10.0;
const FOOT: f64 = 18.0;
const BAR: f64 = 100.0;

/// Returns it, with a bar of 100 mm below; each kind of line in a group of its own.
pub(crate) fn made(drawing: &Drawing) -> String {
    let (width, height) = (
        drawing.width.max(BAR) + MARGIN * 2.0,
        drawing.height + MARGIN * 2.0 + FOOT,
    );
    let mut svg = String::new();
    let mut put = |text: std::fmt::Arguments<'_>| {
        svg.write_fmt(text).expect("a text takes what is written");
    };
    put(format_args!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width}mm\" height=\"{height}mm\" viewBox=\"{} {} {width} {height}\">\n<title>{}</title>\n",
        -MARGIN,
        -MARGIN,
        escaped(&drawing.title)
    ));
    for kind in hummock_core::drawing::LineKind::ALL {
        let mut of = drawing
            .lines
            .iter()
            .filter(|line| line.kind == kind)
            .peekable();
        if of.peek().is_none() {
            continue;
        }
        let dashes: Vec<String> = kind.dashes().iter().map(ToString::to_string).collect();
        put(format_args!(
            "<g id=\"{}\" fill=\"none\" stroke=\"#000\" stroke-width=\"0.4\" stroke-dasharray=\"{}\">\n",
            kind.layer(),
            if dashes.is_empty() {
                "none".to_owned()
            } else {
                dashes.join(" ")
            }
        ));
        for line in of {
            put(format_args!(
                "<line x1=\"{}\" y1=\"{}\" x2=\"{}\" y2=\"{}\"/>\n",
                line.from[0],
                drawing.height - line.from[1],
                line.to[0],
                drawing.height - line.to[1]
            ));
        }
        put(format_args!("</g>\n"));
    }
    put(format_args!(
        "<g id=\"TEXT\" font-family=\"sans-serif\" text-anchor=\"middle\" dominant-baseline=\"central\">\n"
    ));
    for text in &drawing.texts {
        put(format_args!(
            "<text x=\"{}\" y=\"{}\" font-size=\"{}\">{}</text>\n",
            text.at[0],
            drawing.height - text.at[1],
            text.size,
            escaped(&text.text)
        ));
    }
    let below = drawing.height + MARGIN;
    put(format_args!(
        "</g>\n<g id=\"BAR\"><line x1=\"0\" y1=\"{below}\" x2=\"{BAR}\" y2=\"{below}\" stroke=\"#000\" stroke-width=\"0.4\"/><text x=\"0\" y=\"{}\" font-size=\"4\" font-family=\"sans-serif\">100 mm · {} · {}</text></g>\n</svg>\n",
        below + 7.0,
        escaped(&drawing.title),
        escaped(&drawing.says)
    ));
    svg
}

fn escaped(text: &str) -> String {
    text.replace('&', "&amp;")
        .replace('<', "&lt;")
        .replace('>', "&gt;")
        .replace('"', "&quot;")
}
