//! What may stand in a text that people read, print and copy.

use crate::Refusal;

/// The longest name, street or title, in characters.
pub const LONGEST_TEXT: usize = 120;

/// Why a text is refused, be it a name, an address or a note.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum UnreadableText {
    /// Something that is no letter: it can't be printed, and some of it can't be stored.
    #[error("it contains a control character: type it again")]
    Control,
    /// A mark that turns the order of letters around, so that what is read is not what is stored.
    #[error("it contains a hidden direction mark: type it again")]
    Override,
}

/// Embeddings, overrides and isolates; the plain marks of right-to-left scripts are letters like others.
const fn hides_order(letter: char) -> bool {
    matches!(letter, '\u{202a}'..='\u{202e}' | '\u{2066}'..='\u{2069}')
}

/// Places in Unicode that will never be a letter, and what no letter is: the mark of a file's byte order, and the ends of lines and
/// paragraphs that no keyboard types.
const fn is_no_letter(letter: char) -> bool {
    matches!(letter, '\u{fdd0}'..='\u{fdef}' | '\u{feff}')
        || is_line_end(letter)
        || (letter as u32) & 0xfffe == 0xfffe
}

const fn is_line_end(letter: char) -> bool {
    matches!(letter, '\u{2028}' | '\u{2029}')
}

impl UnreadableText {
    /// Finds what can't be read in a text of one line.
    #[must_use]
    pub fn in_line(text: &str) -> Option<Self> {
        text.chars().find_map(Self::of)
    }

    /// Finds what can't be read in a text of several lines, which may have tabs.
    #[must_use]
    pub fn in_paragraph(text: &str) -> Option<Self> {
        text.chars()
            .filter(|letter| !matches!(letter, '\n' | '\r' | '\t') && !is_line_end(*letter))
            .find_map(Self::of)
    }

    fn of(letter: char) -> Option<Self> {
        if letter.is_control() || is_no_letter(letter) {
            Some(Self::Control)
        } else if hides_order(letter) {
            Some(Self::Override)
        } else {
            None
        }
    }
}

/// Refuses a text that does not fit on one line of a label.
#[must_use]
pub fn refused_text(field: &str, text: &str) -> Option<Refusal> {
    if let Some(unreadable) = UnreadableText::in_line(text) {
        return Some(Refusal::new(field, unreadable));
    }
    let length = text.chars().count();
    (length > LONGEST_TEXT).then(|| {
        Refusal::new(
            field,
            format!("{length} characters are too many: a label holds at most {LONGEST_TEXT}"),
        )
    })
}

/// Returns a text from elsewhere as one readable line of at most so many letters.
#[must_use]
pub fn cleaned_line(text: &str, most: usize) -> String {
    let letters = text.chars().map(|letter| match letter {
        '\n' | '\r' | '\t' | '\u{2028}' | '\u{2029}' => ' ',
        letter => letter,
    });
    let readable = letters.filter(|letter| UnreadableText::of(*letter).is_none());
    let line: String = readable.take(most.saturating_mul(4)).collect();
    line.trim().chars().take(most).collect()
}

/// A name inside a sentence: a capital of its own stays, one that only begins a line does not.
pub(crate) fn in_sentence(name: &str) -> String {
    let mut letters = name.chars();
    let (Some(first), second) = (letters.next(), letters.clone().next()) else {
        return name.to_owned();
    };
    if second.is_some_and(char::is_lowercase) {
        first.to_lowercase().chain(letters).collect()
    } else {
        name.to_owned()
    }
}

/// A line that begins with a capital.
pub(crate) fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters
        .next()
        .map(|first| first.to_uppercase().chain(letters).collect())
        .unwrap_or_default()
}

/// Returns a small number as a word.
pub(crate) fn number(count: u32) -> String {
    const WORDS: [&str; 13] = [
        "no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten",
        "eleven", "twelve",
    ];
    let word = usize::try_from(count).ok().and_then(|at| WORDS.get(at));
    word.map_or_else(|| count.to_string(), |word| (*word).to_owned())
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    #[test]
    fn names_of_any_script_are_read_and_tricks_are_not() {
        for name in [
            "Ivo Tern",
            "Østre Gård",
            "林 静",
            "שרה כהן",
            "\u{200f}ريم",
            "O’Neill 🎨",
        ] {
            assert_eq!(UnreadableText::in_line(name), None, "{name}");
        }
        for (text, found) in [
            ("a\0b", UnreadableText::Control),
            ("a\u{7f}", UnreadableText::Control),
            ("a\u{85}", UnreadableText::Control),
            ("one\u{2028}two", UnreadableText::Control),
            ("\u{feff}one", UnreadableText::Control),
            ("\u{ffff}", UnreadableText::Control),
            ("abc\u{202e}gpj", UnreadableText::Override),
            ("\u{2066}a", UnreadableText::Override),
        ] {
            assert_eq!(UnreadableText::in_line(text), Some(found), "{text:?}");
            // A paragraph has lines.
            let of_paragraph = Some(found).filter(|_| !text.contains('\u{2028}'));
            assert_eq!(UnreadableText::in_paragraph(text), of_paragraph, "{text:?}");
        }
        assert_eq!(
            UnreadableText::in_line("one\ntwo"),
            Some(UnreadableText::Control)
        );
        assert_eq!(UnreadableText::in_paragraph("one\r\n\ttwo"), None);
    }

    proptest! {
        #[test]
        fn what_stands_in_a_paragraph_is_no_worse_on_a_line(text in any::<String>()) {
            if UnreadableText::in_line(&text).is_none() {
                prop_assert_eq!(UnreadableText::in_paragraph(&text), None);
            }
        }
    }
}
