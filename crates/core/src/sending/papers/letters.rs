//! Letters that papers can be printed in.

use std::ops::RangeInclusive;

/// What the faces of papers have; held against the faces themselves where papers are made.
pub const PRINTED_LETTERS: [RangeInclusive<char>; 7] = [
    // Latin, with its additions for the languages of Europe.
    ' '..='~',
    '\u{a0}'..='\u{24f}',
    // Greek, without the Coptic letters amid it.
    '\u{370}'..='\u{3e1}',
    '\u{3f0}'..='\u{3ff}',
    // Cyrillic.
    '\u{400}'..='\u{52f}',
    // Latin with two marks, as Vietnamese has it.
    '\u{1e00}'..='\u{1eff}',
    // Dashes and quotation marks.
    '\u{2010}'..='\u{2026}',
];
/// More letters than these are not named.
const MOST_NAMED: usize = 12;

/// Returns the letters of lines that would be printed as empty boxes, each once, in their order.
#[must_use]
pub fn letters_lacking(lines: &[String]) -> String {
    let mut lacking = String::new();
    for letter in lines.iter().flat_map(|line| line.chars()) {
        let printed = PRINTED_LETTERS.iter().any(|range| range.contains(&letter));
        if !printed && !lacking.contains(letter) && lacking.chars().count() < MOST_NAMED {
            lacking.push(letter);
        }
    }
    lacking
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_letters_that_no_face_has_are_named() {
        let lines = |texts: &[&str]| -> Vec<String> {
            texts.iter().map(|text| (*text).to_owned()).collect()
        };
        let known = [
            "Łódź, Køben\u{2013}havn",
            "Αθήνα",
            "Київ",
            "Đường Nguyễn Huệ",
        ];
        assert_eq!(letters_lacking(&lines(&known)), "");
        assert_eq!(
            letters_lacking(&lines(&["祇園町 4-5-6", "京都府 祇園"])),
            "祇園町京都府"
        );
    }
}
