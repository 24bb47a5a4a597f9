//! The lines of a DXF file, layer by layer.

use dxf::{
    Drawing as Dxf,
    entities::{Entity, EntityType},
};
use serde::Serialize;

/// A straight line of a file.
#[derive(Debug, PartialEq, Serialize)]
struct ReadLine {
    layer: String,
    from: [f64; 2],
    to: [f64; 2],
}

/// Something that is not read, and why.
#[derive(Debug, PartialEq, Serialize)]
struct Unread {
    /// Counted from 1, in the order of the file.
    entity: usize,
    layer: String,
    says: String,
}

#[derive(Debug, Serialize)]
struct Answer {
    lines: Vec<ReadLine>,
    unread: Vec<Unread>,
}

const MOST_LINES: usize = 20_000;

/// Returns its lines as JSON: those of lines and polylines; what else there is is named.
///
/// # Errors
/// A sentence, where it is no DXF file, or too long.
pub(crate) fn read(text: &str) -> Result<Vec<u8>, String> {
    let mut reader = text.as_bytes();
    let dxf = Dxf::load(&mut reader).map_err(|error| format!("it is no DXF file: {error}"))?;
    let mut answer = Answer {
        lines: Vec::new(),
        unread: Vec::new(),
    };
    for (at, entity) in dxf.entities().enumerate() {
        taken(at + 1, entity, &mut answer);
        if answer.lines.len() > MOST_LINES {
            return Err(format!("it has more than {MOST_LINES} lines"));
        }
    }
    serde_json::to_vec(&answer).map_err(|error| error.to_string())
}

fn taken(number: usize, entity: &Entity, answer: &mut Answer) {
    let layer = entity.common.layer.clone();
    let mut points: Vec<[f64; 2]>;
    let closed;
    match &entity.specific {
        EntityType::Line(line) => {
            points = vec![[line.p1.x, line.p1.y], [line.p2.x, line.p2.y]];
            closed = false;
        }
        EntityType::LwPolyline(line) if line.vertices.iter().all(|one| one.bulge == 0.0) => {
            points = line.vertices.iter().map(|one| [one.x, one.y]).collect();
            closed = line.is_closed();
        }
        EntityType::Polyline(line) if line.vertices().all(|one| one.bulge == 0.0) => {
            points = line
                .vertices()
                .map(|one| [one.location.x, one.location.y])
                .collect();
            closed = line.is_closed();
        }
        // What is written on it is no line.
        EntityType::Text(_) | EntityType::MText(_) => return,
        other => {
            let says = match other {
                EntityType::LwPolyline(_) | EntityType::Polyline(_) => {
                    "a polyline with round parts: only straight lines are read"
                }
                EntityType::Arc(_) => "an arc: only straight lines are read",
                EntityType::Circle(_) => "a circle: only straight lines are read",
                EntityType::Spline(_) => "a spline: only straight lines are read",
                EntityType::Insert(_) => "a block: explode it before it is saved",
                _ => "neither a line nor a polyline",
            };
            answer.unread.push(Unread {
                entity: number,
                layer,
                says: says.to_owned(),
            });
            return;
        }
    }
    if closed && let Some(first) = points.first().copied() {
        points.push(first);
    }
    if points.iter().flatten().any(|number| !number.is_finite()) {
        answer.unread.push(Unread {
            entity: number,
            layer,
            says: "a corner of it is no number".to_owned(),
        });
        return;
    }
    answer.lines.extend(points.windows(2).map(|pair| ReadLine {
        layer: layer.clone(),
        from: pair[0],
        to: pair[1],
    }));
}
