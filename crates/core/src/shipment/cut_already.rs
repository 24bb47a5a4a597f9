//! What a layout has cut already: the steps that it does, and what they would have taken off the shelf.

use std::collections::BTreeMap;

use crate::{
    material::MaterialId,
    pack::{PackStep, Stage, StepTick},
    part::{Part, PartId, Take},
    plan::Plan,
    quantity::Length,
    stock::BatchPlan,
};

/// A part that lies cut from a sheet.
#[derive(Debug, Clone, PartialEq)]
pub struct SheetPart {
    /// What it is in its layer; `None` for what no plan names any more.
    pub id: Option<PartId>,
    /// What it is cut from.
    pub material: MaterialId,
    /// Across, as it is used.
    pub width: Length,
    /// Up, as it is used.
    pub height: Length,
    /// The number of its sheet in the layout.
    pub sheet: usize,
    /// What is written on it, as `A3`.
    pub code: String,
}

/// Sides that differ by fewer millimetres are one.
const SAME_MM: f64 = 0.05;

impl SheetPart {
    /// Returns the parts of a shipment of a layout that lie on sheets which were cut.
    #[must_use]
    pub fn of(laid: &BatchPlan, shipment: usize, done: &[usize]) -> Vec<Self> {
        let mut parts = Vec::new();
        for (cut, sheet) in laid.sheets().filter(|(_, sheet)| done.contains(&sheet.n)) {
            for part in &sheet.parts {
                // Half of something that no sheet takes whole is no part of the plan by itself.
                if part.shipment != shipment || part.joined {
                    continue;
                }
                let (width, height) = if part.rotated {
                    (part.height, part.width)
                } else {
                    (part.width, part.height)
                };
                parts.push(Self {
                    id: part.id(),
                    material: cut.material.clone(),
                    width,
                    height,
                    sheet: sheet.n,
                    code: part.code.clone(),
                });
            }
        }
        parts
    }

    fn is(&self, part: &Part) -> bool {
        let Take::Piece {
            width_mm,
            height_mm,
            ..
        } = part.take
        else {
            return false;
        };
        let same = |one: Length, other: Length| (one - other).as_mm().abs() < SAME_MM;
        self.id == Some(part.id)
            && self.material == part.material
            && same(self.width, width_mm)
            && same(self.height, height_mm)
    }
}

/// Returns where the parts of each cutting step lie, by the key of the step: `sheet 1, A1 to A5`. A step of which one part is still
/// to be cut is left out.
pub(super) fn cut_already(steps: &[PackStep], cut: &[SheetPart]) -> BTreeMap<String, String> {
    let mut left: Vec<&SheetPart> = cut.iter().collect();
    let mut found = BTreeMap::new();
    for step in steps.iter().filter(|step| step.stage == Stage::Cut) {
        let mut rest = left.clone();
        let mut lies: BTreeMap<usize, Vec<&str>> = BTreeMap::new();
        let is_cut = step.parts.iter().all(|part| {
            (0..part.count).all(|_| {
                let Some(at) = rest.iter().position(|one| one.is(part)) else {
                    return false;
                };
                let one = rest.remove(at);
                lies.entry(one.sheet).or_default().push(&one.code);
                true
            })
        });
        if is_cut && !lies.is_empty() {
            left = rest;
            let lies: Vec<String> = lies
                .into_iter()
                .map(|(sheet, codes)| format!("sheet {sheet}, {}", in_runs(codes)))
                .collect();
            found.insert(step.key.clone(), lies.join("; "));
        }
    }
    found
}

/// Writes codes in short: `A1 to A5, A7`.
fn in_runs(codes: Vec<&str>) -> String {
    let mut parted: Vec<(&str, u32)> = codes
        .into_iter()
        .map(|code| {
            let digits = code.trim_start_matches(|one: char| !one.is_ascii_digit());
            let letters = &code[..code.len() - digits.len()];
            (letters, digits.parse().unwrap_or(0))
        })
        .collect();
    parted.sort_unstable();
    // In a layout of one shipment parts are bare numbers.
    let bare = match parted[..] {
        [("", _)] => "part ",
        [("", _), ..] => "parts ",
        _ => "",
    };
    let mut runs: Vec<(&str, u32, u32)> = Vec::new();
    for (letters, number) in parted {
        match runs.last_mut() {
            Some((known, _, last)) if *known == letters && *last + 1 == number => *last = number,
            _ => runs.push((letters, number, number)),
        }
    }
    let told: Vec<String> = runs
        .into_iter()
        .map(|(letters, first, last)| {
            if first == last {
                format!("{letters}{first}")
            } else {
                format!("{letters}{first} to {letters}{last}")
            }
        })
        .collect();
    format!("{bare}{}", told.join(", "))
}

/// Returns the ticks of a shipment once it is known what layouts have cut: their steps are done, and those that a layout did and has
/// not cut any more are open again. What somebody ticked by hand stays.
pub(super) fn ticked_by_layouts(
    ticks: &BTreeMap<String, StepTick>,
    steps: &[PackStep],
    cut: &[SheetPart],
    at: &str,
) -> BTreeMap<String, StepTick> {
    let mut already = cut_already(steps, cut);
    let mut ticks = ticks.clone();
    ticks.retain(|key, tick| tick.sheet.is_empty() || already.contains_key(key));
    for step in steps {
        let Some(sheet) = already.remove(&step.key) else {
            continue;
        };
        let tick = ticks.get(&step.key);
        let is_done = tick.is_some_and(|tick| {
            tick.print == step.print && (tick.sheet.is_empty() || tick.sheet == sheet)
        });
        if !is_done {
            let tick = StepTick {
                at: at.to_owned(),
                print: step.print.clone(),
                sheet,
            };
            ticks.insert(step.key.clone(), tick);
        }
    }
    ticks
}

/// Returns a plan without the parts that layouts have cut: what is still to be taken for it.
pub(crate) fn still_to_cut(
    plan: &Plan,
    steps: &[PackStep],
    ticks: &BTreeMap<String, StepTick>,
) -> Plan {
    let cut: Vec<&Part> = steps
        .iter()
        .filter(|step| step.stage == Stage::Cut)
        .filter(|step| {
            let tick = ticks.get(&step.key);
            tick.is_some_and(|tick| !tick.sheet.is_empty() && tick.print == step.print)
        })
        .flat_map(|step| &step.parts)
        .collect();
    let mut plan = plan.clone();
    for layer in &mut plan.layers {
        layer.parts.retain(|part| {
            let same = |other: &&Part| {
                other.id == part.id && other.material == part.material && other.take == part.take
            };
            !cut.iter().any(same)
        });
    }
    plan
}

#[cfg(test)]
mod tests {
    use serde_json::json;

    use super::*;
    use crate::{part::PartId, stock::LaidPart};

    /// It kills: reading what a layout holds by the words for its parts alone, or by keys alone.
    #[test]
    fn what_lies_in_a_layout_is_known_by_its_key_and_before_keys_by_its_name() {
        let laid = |name: &str, part: Option<&str>| -> LaidPart {
            let mut laid = json!({
                "code": "A1", "shipment": 0, "slot": "box", "layer": "Box", "name": name,
                "x_mm": 0.0, "y_mm": 0.0, "width_mm": 600.0, "height_mm": 400.0,
                "rotated": false, "joined": false, "scores_x_mm": [], "scores_y_mm": [],
            });
            if let Some(part) = part {
                laid["part"] = part.into();
            }
            serde_json::from_value(laid).expect("a laid part")
        };
        assert_eq!(laid("outer box", None).id(), Some(PartId::OuterBox));
        let renamed = laid("the box outside", Some("outer box"));
        assert_eq!(renamed.id(), Some(PartId::OuterBox));
        let again = serde_json::to_value(&renamed).expect("it is written");
        assert_eq!(again["part"], "outer box");
        // A blank that somebody drew is no part of a plan.
        assert_eq!(laid("lid of a chest", None).id(), None);
    }

    #[test]
    fn codes_are_told_in_runs() {
        for (codes, told) in [
            (vec!["A1"], "A1"),
            (vec!["A3", "A1", "A2"], "A1 to A3"),
            (vec!["A10", "A9", "B1"], "A9 to A10, B1"),
            (vec!["1", "2", "4"], "parts 1 to 2, 4"),
            (vec!["7"], "part 7"),
        ] {
            assert_eq!(in_runs(codes), told);
        }
    }
}
