//! Setting a template with its data as PDF: fonts, templates and the standard library are read once for all that a process sets.

use std::{collections::HashMap, sync::LazyLock};

use typst::{
    Library, LibraryExt as _, World,
    diag::{FileError, FileResult},
    foundations::{Bytes, Datetime, Duration},
    syntax::{FileId, RootedPath, Source, VirtualPath, VirtualRoot},
    text::{Font, FontBook},
    utils::LazyHash,
};
use typst_layout::PagedDocument;

/// What a document is set with, beside its own template and data.
struct Case {
    library: LazyHash<Library>,
    book: LazyHash<FontBook>,
    fonts: Vec<Font>,
    alike: Source,
}

/// One document to be set.
struct Sheet<'a> {
    case: &'a Case,
    template: Source,
    files: HashMap<FileId, Bytes>,
}

pub(crate) const FONTS: [&[u8]; 5] = [
    include_bytes!(
        "../../../web/node_modules/@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf"
    ),
    include_bytes!(
        "../../../web/node_modules/@expo-google-fonts/atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf"
    ),
    include_bytes!(
        "../../../web/node_modules/@expo-google-fonts/bricolage-grotesque/700Bold/BricolageGrotesque_700Bold.ttf"
    ),
    // For letters that the first ones lack.
    include_bytes!(
        "../../../web/node_modules/@expo-google-fonts/noto-sans/400Regular/NotoSans_400Regular.ttf"
    ),
    include_bytes!(
        "../../../web/node_modules/@expo-google-fonts/noto-sans/700Bold/NotoSans_700Bold.ttf"
    ),
];
/// What all templates set alike.
const ALIKE: &str = include_str!("papers/alike.typ");
/// A cached result is dropped once this many documents in a row did not use it.
const KEPT_FOR: usize = 4;

static CASE: LazyLock<Case> = LazyLock::new(|| {
    let fonts: Vec<Font> = FONTS
        .into_iter()
        .flat_map(|font| Font::iter(Bytes::new(font)))
        .collect();
    Case {
        library: LazyHash::new(Library::builder().build()),
        book: LazyHash::new(FontBook::from_fonts(&fonts)),
        fonts,
        alike: Source::new(id_of("alike.typ"), ALIKE.to_owned()),
    }
});

/// Reads what every document is set with, and sets an empty one, so that the first one that is asked for need not wait for it.
pub(crate) fn prepare() {
    let page = crate::page::Page::default().file();
    let _ = page.and_then(|page| set("#import \"alike.typ\": *", vec![page]));
}

/// Returns what a template makes of its data and pictures.
///
/// # Errors
/// A sentence, where it can't be set.
pub(crate) fn set(
    template: &'static str,
    files: Vec<(String, Vec<u8>)>,
) -> Result<Vec<u8>, String> {
    let files = files
        .into_iter()
        .map(|(name, file)| (id_of(&name), Bytes::new(file)))
        .collect();
    let sheet = Sheet {
        case: &CASE,
        template: Source::detached(template),
        files,
    };
    let set = typst::compile::<PagedDocument>(&sheet).output;
    let written = set
        .map_err(|errors| format!("it can't be set: {errors:?}"))
        .and_then(|set| {
            typst_pdf::pdf(&set, &typst_pdf::PdfOptions::default())
                .map_err(|errors| format!("it can't be written: {errors:?}"))
        });
    comemo::evict(KEPT_FOR);
    written
}

fn id_of(name: &str) -> FileId {
    let path = VirtualPath::new(name).expect("files have plain names");
    RootedPath::new(VirtualRoot::Project, path).intern()
}

impl World for Sheet<'_> {
    fn library(&self) -> &LazyHash<Library> {
        &self.case.library
    }

    fn book(&self) -> &LazyHash<FontBook> {
        &self.case.book
    }

    fn main(&self) -> FileId {
        self.template.id()
    }

    fn source(&self, id: FileId) -> FileResult<Source> {
        let known = [&self.template, &self.case.alike];
        let found = known.into_iter().find(|source| source.id() == id);
        found.cloned().ok_or_else(|| lacking(id))
    }

    fn file(&self, id: FileId) -> FileResult<Bytes> {
        self.files.get(&id).cloned().ok_or_else(|| lacking(id))
    }

    fn font(&self, index: usize) -> Option<Font> {
        self.case.fonts.get(index).cloned()
    }

    /// A document tells no day but those that its data say.
    fn today(&self, _: Option<Duration>) -> Option<Datetime> {
        None
    }
}

fn lacking(id: FileId) -> FileError {
    FileError::NotFound(id.vpath().get_without_slash().into())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_faces_have_every_letter_that_papers_are_said_to_print() {
        let faces: Vec<_> = FONTS
            .iter()
            .map(|font| ttf_parser::Face::parse(font, 0).expect("a face"))
            .collect();
        let letters = hummock_core::sending::papers::PRINTED_LETTERS
            .into_iter()
            .flatten();
        // What is no letter yet can't be typed.
        let lacking: String = letters
            .filter(|letter| letter.is_alphanumeric())
            .filter(|letter| faces.iter().all(|face| face.glyph_index(*letter).is_none()))
            .collect();
        assert_eq!(lacking, "");
    }
}
