//! Tables of comma-separated values, a struct for each kind of line: its fields are the columns.

use serde::Serialize;

/// Writes a table with its head, also where no line follows it.
pub(crate) fn table_of<R: Serialize + Default>(rows: impl IntoIterator<Item = R>) -> Vec<u8> {
    let mut rows = rows.into_iter().peekable();
    let mut writer = csv::Writer::from_writer(Vec::new());
    let is_empty = rows.peek().is_none();
    if is_empty {
        writer.serialize(R::default()).expect("memory takes it");
    }
    for row in rows {
        writer.serialize(row).expect("memory takes it");
    }
    let mut written = writer.into_inner().expect("memory takes it");
    if is_empty {
        let head = written.iter().position(|byte| *byte == b'\n');
        written.truncate(head.map_or(0, |end| end + 1));
    }
    written
}

/// A text that a spreadsheet would take for a formula begins with an apostrophe.
pub(crate) fn not_a_formula(text: &str) -> String {
    if text.starts_with(['=', '+', '-', '@', '\t', '\r']) {
        return format!("'{text}");
    }
    text.to_owned()
}

/// Writes a number that may be missing: an empty cell then.
pub(crate) fn shown<T: ToString>(value: Option<T>) -> String {
    value.map(|value| value.to_string()).unwrap_or_default()
}

/// Writes a word as it stands in JSON.
pub(crate) fn word(named: &impl Serialize) -> String {
    let value = serde_json::to_value(named).unwrap_or_default();
    value.as_str().unwrap_or_default().to_owned()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[derive(Default, Serialize)]
    struct Line {
        name: String,
        #[serde(rename = "for")]
        whose: String,
    }

    #[test]
    fn a_table_has_its_head_with_lines_and_without() {
        let line = Line {
            name: not_a_formula("=1+1"),
            whose: String::new(),
        };
        assert_eq!(table_of([line]), b"name,for\n'=1+1,\n");
        assert_eq!(table_of(Vec::<Line>::new()), b"name,for\n");
    }
}
