//! A drawing as DXF R12, in millimetres, with a layer for each kind of line.

use dxf::{
    Drawing as Dxf, Point,
    entities::{Entity, EntityType, Line, Text},
    enums::AcadVersion,
    tables::{Layer, LineType},
};
use hummock_core::drawing::{Drawing, LineKind};

/// Returns it.
///
/// # Errors
/// A sentence, where it can't be written.
pub(crate) fn made(drawing: &Drawing) -> Result<Vec<u8>, String> {
    let mut dxf = Dxf::new();
    dxf.header.version = AcadVersion::R12;
    for kind in LineKind::ALL {
        let name = kind.layer();
        let dashes = kind.dashes();
        let mut of = Layer {
            name: name.to_owned(),
            ..Layer::default()
        };
        if !dashes.is_empty() {
            dxf.add_line_type(LineType {
                name: name.to_owned(),
                description: name.to_owned(),
                element_count: i32::try_from(dashes.len()).unwrap_or(i32::MAX),
                total_pattern_length: dashes.iter().sum(),
                // A dash is more than nothing, a gap is less.
                dash_dot_space_lengths: dashes
                    .iter()
                    .enumerate()
                    .map(|(at, long)| if at % 2 == 0 { *long } else { -long })
                    .collect(),
                ..LineType::default()
            });
            name.clone_into(&mut of.line_type_name);
        }
        dxf.add_layer(of);
    }
    dxf.add_layer(Layer {
        name: "TEXT".to_owned(),
        ..Layer::default()
    });
    for line in &drawing.lines {
        let point = |[x, y]: [f64; 2]| Point::new(x, y, 0.0);
        let mut entity = Entity::new(EntityType::Line(Line::new(
            point(line.from),
            point(line.to),
        )));
        line.kind.layer().clone_into(&mut entity.common.layer);
        dxf.add_entity(entity);
    }
    for text in &drawing.texts {
        let mut entity = Entity::new(EntityType::Text(Text {
            location: Point::new(text.at[0], text.at[1], 0.0),
            text_height: text.size,
            value: text.text.clone(),
            ..Text::default()
        }));
        "TEXT".clone_into(&mut entity.common.layer);
        dxf.add_entity(entity);
    }
    let mut bytes = Vec::new();
    dxf.save(&mut bytes)
        .map_err(|error| format!("it can't be written: {error}"))?;
    Ok(bytes)
}
