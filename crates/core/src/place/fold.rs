//! Letters as they are compared: without marks and capitals.

use unicode_normalization::{UnicodeNormalization as _, char::is_combining_mark};

/// Returns a text in small letters, without marks on letters, with single spaces and without a point at its end.
pub(crate) fn fold(text: &str) -> String {
    let plain: String = text
        .nfd()
        .filter(|letter| !is_combining_mark(*letter))
        .flat_map(char::to_lowercase)
        .map(|letter| if letter == '’' { '\'' } else { letter })
        .collect();
    let words: Vec<&str> = plain.split_whitespace().collect();
    words.join(" ").trim_end_matches('.').to_owned()
}

/// Tells whether all letters of a text are Latin ones.
pub(crate) fn is_latin(text: &str) -> bool {
    let latin = |letter: char| matches!(letter, '\0'..='\u{24f}' | '\u{1e00}'..='\u{1eff}' | '\u{2000}'..='\u{206f}');
    text.chars()
        .all(|letter| !letter.is_alphabetic() || latin(letter))
}
