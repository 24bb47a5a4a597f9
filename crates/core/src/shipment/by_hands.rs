//! What hands can't do: a choice that makes a packing impossible is refused where it is stored.

use serde_json::Value;

use super::{
    House, ShipmentInputs, Workings,
    edits::{Path, changed_paths},
    rehearsed,
};
use crate::{
    Refusal, json,
    plan::{Detail, Plan},
    quantity::{Length, LengthUnit, read_length},
    rehearsal::{Broken, Rule},
    text::capital,
};

/// Returns a refusal for choices that break a rule of the rehearsal which the packing keeps without them; empty where hands can follow.
///
/// What broke before is no fault of the choice, and is let through.
#[must_use]
pub fn refused_by_hands(
    before: &ShipmentInputs,
    (after, plan): (&ShipmentInputs, Option<&Plan>),
    house: &House,
) -> Vec<Refusal> {
    let document =
        |inputs: &ShipmentInputs| serde_json::to_value(inputs).expect("inputs can be written");
    let (was, is) = (document(before), document(after));
    let mut chosen = changed_paths(&was, &is);
    chosen.retain(|path| path.iter().any(|part| part == "choices"));
    let Some(plan) = plan.filter(|_| !chosen.is_empty()) else {
        return Vec::new();
    };
    let Ok(list) = rehearsed(plan, after, house) else {
        return Vec::new();
    };
    let typed = chosen.iter().any(|path| length_at(&is, path).is_some());
    let mut found = list.rehearsal.breaks.iter();
    if !found.clone().any(|broken| is_chosen(broken, typed)) {
        return Vec::new();
    }
    let with = |paths: &[Path], value: &dyn Fn(&Path) -> Value| {
        let mut other = is.clone();
        for path in paths {
            put(&mut other, path, value(path));
        }
        breaks(other, house)
    };
    let stood = |path: &Path| at(&was, path);
    // What can't be worked out without them is not compared.
    let Some(known) = with(&chosen, &stood) else {
        return Vec::new();
    };
    let new = |broken: &&Broken| is_chosen(broken, typed) && !is_among(broken, &known);
    let Some(broken) = found.find(new) else {
        return Vec::new();
    };
    let mends = |path: &&Path| {
        let others = with(std::slice::from_ref(*path), &stood);
        others.is_some_and(|others| !is_among(broken, &others))
    };
    let path = chosen.iter().find(mends).unwrap_or(&chosen[0]);
    let can = |length: Length| {
        let text = format!("{} mm", length.as_mm());
        let others = with(std::slice::from_ref(path), &|_| Value::String(text.clone()));
        others.is_some_and(|others| !is_among(broken, &others))
    };
    let nearest = match length_at(&is, path) {
        Some(length) => nearest(length, can).map(|length| {
            format!(
                "The nearest that can be packed is {}.",
                house.rules.told_in.length(length)
            )
        }),
        None => None,
    };
    let step = list.steps.iter().find(|step| step.key == broken.step);
    let title = step.map_or("", |step| &step.title);
    let says = format!(
        "Nobody can pack it like that: {}, at \u{201c}{title}\u{201d}. {}",
        broken.says,
        nearest.unwrap_or_else(|| capital("it can be packed as it stood before."))
    );
    vec![Refusal::new(path.join("."), says)]
}

/// Whether it is the fault of a choice. How a gap is filled, and from where, is the program's own affair as long as nobody typed a length.
fn is_chosen(broken: &Broken, typed: bool) -> bool {
    typed || !matches!(broken.rule, Rule::Reach | Rule::Fills)
}

fn is_among(broken: &Broken, others: &[Broken]) -> bool {
    others.iter().any(|other| other.rule == broken.rule)
}

/// What breaks with some inputs; `None` where they give no plan.
fn breaks(document: Value, house: &House) -> Option<Vec<Broken>> {
    let inputs: ShipmentInputs = json::read(document).ok()?;
    let worked = Workings::out_in(&inputs, house, Detail::LEAST).ok()?;
    let list = rehearsed(&worked.plan?, &inputs, house).ok()?;
    Some(list.rehearsal.breaks)
}

fn at(document: &Value, path: &Path) -> Value {
    let found = path.iter().try_fold(document, |part, key| part.get(key));
    found.cloned().unwrap_or(Value::Null)
}

fn put(document: &mut Value, path: &Path, value: Value) {
    let Some((last, within)) = path.split_last() else {
        return;
    };
    let found = within
        .iter()
        .try_fold(document, |part, key| part.get_mut(key));
    if let Some(fields) = found.and_then(Value::as_object_mut) {
        if value.is_null() {
            fields.remove(last);
        } else {
            fields.insert(last.clone(), value);
        }
    }
}

fn length_at(document: &Value, path: &Path) -> Option<Length> {
    let text = at(document, path);
    let reading = read_length(text.as_str()?, LengthUnit::Mm).ok()?;
    Some(reading.length)
}

/// Away from a length by twice as much each time, and then between the last two: to the millimetre.
fn nearest(from: Length, can: impl Fn(Length) -> bool) -> Option<Length> {
    let from = from.as_mm().round();
    let near = |sign: f64| {
        let away = |by: f64| Length::mm(from + sign * by);
        let steps = (0..DOUBLINGS).map(|step| f64::from(1_u32 << step));
        let mut far = steps
            .filter(|by| away(*by) >= Length::ZERO)
            .find(|by| can(away(*by)))?;
        let mut short = far / 2.0;
        while far - short > 1.0 {
            let middle = f64::midpoint(far, short).round();
            if middle >= far {
                break;
            }
            if can(away(middle)) {
                far = middle;
            } else {
                short = middle;
            }
        }
        Some(far)
    };
    match (near(1.0), near(-1.0)) {
        (Some(more), Some(less)) if less < more => Some(Length::mm(from - less)),
        (Some(more), _) => Some(Length::mm(from + more)),
        (None, less) => less.map(|less| Length::mm(from - less)),
    }
}

/// Up to 128 millimetres away.
const DOUBLINGS: u32 = 8;
