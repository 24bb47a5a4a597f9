//! What a piece is, in the words of shops.

use crate::{
    piece::{Construction, Medium},
    place::fold,
    quantity::{LengthUnit, TypedSize},
};

/// What words say of a piece.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub(super) struct Said {
    /// What carries the art.
    pub(super) construction: Option<Construction>,
    /// What it is painted, drawn or printed in.
    pub(super) medium: Option<Medium>,
}

use Construction as C;
use Medium as M;

/// Words for what carries the art, the longest first: the first that stands in a text is taken.
const CONSTRUCTIONS: [(&str, Construction); 45] = [
    ("framed piece under glass", C::FramedUnderGlass),
    ("framed under glass", C::FramedUnderGlass),
    ("framed behind glass", C::FramedUnderGlass),
    ("framed piece under acrylic", C::FramedUnderAcrylic),
    ("framed under acrylic", C::FramedUnderAcrylic),
    ("framed piece without glazing", C::FramedUnglazed),
    ("framed without glass", C::FramedUnglazed),
    ("framed canvas", C::FramedUnglazed),
    ("framed unglazed", C::FramedUnglazed),
    ("gerahmt hinter glas", C::FramedUnderGlass),
    ("gerahmt unter glas", C::FramedUnderGlass),
    ("gerahmt hinter acryl", C::FramedUnderAcrylic),
    ("gerahmte leinwand", C::FramedUnglazed),
    ("framed print", C::FramedUnderGlass),
    ("gerahmter druck", C::FramedUnderGlass),
    ("set of panels", C::PanelSet),
    ("stretched canvas", C::StretchedCanvas),
    ("keilrahmen", C::StretchedCanvas),
    ("loose canvas", C::LooseCanvas),
    ("unstretched canvas", C::LooseCanvas),
    ("rolled canvas", C::LooseCanvas),
    ("cradled panel", C::CradledPanel),
    ("wood panel", C::CradledPanel),
    ("holztafel", C::CradledPanel),
    ("rigid board", C::RigidBoard),
    ("hardboard", C::RigidBoard),
    ("loose paper", C::LoosePaper),
    ("leinwand", C::StretchedCanvas),
    ("canvas", C::StretchedCanvas),
    ("toile", C::StretchedCanvas),
    ("lienzo", C::StretchedCanvas),
    ("tela", C::StretchedCanvas),
    ("panel", C::CradledPanel),
    ("board", C::RigidBoard),
    ("mirror", C::Mirror),
    ("spiegel", C::Mirror),
    ("print", C::LoosePaper),
    ("poster", C::LoosePaper),
    ("druck", C::LoosePaper),
    ("kunstdruck", C::LoosePaper),
    ("paper", C::LoosePaper),
    ("papier", C::LoosePaper),
    ("papel", C::LoosePaper),
    ("carta", C::LoosePaper),
    ("estampe", C::LoosePaper),
];

/// Words for media, the longest first.
const MEDIA: [(&str, Medium); 46] = [
    ("oil with a fast drying medium", M::OilFastDrying),
    ("alkyd", M::OilFastDrying),
    ("gouache or watercolour", M::Watercolour),
    ("waxed work on paper", M::WaxedPaper),
    ("pastel or charcoal", M::PastelOrCharcoal),
    ("spray paint", M::SprayPaint),
    ("gold leaf", M::Gilding),
    ("oil", M::Oil),
    ("ol", M::Oil),
    ("oel", M::Oil),
    ("olfarbe", M::Oil),
    ("huile", M::Oil),
    ("oleo", M::Oil),
    ("olio", M::Oil),
    ("acrylic", M::Acrylic),
    ("acrylics", M::Acrylic),
    ("acryl", M::Acrylic),
    ("acrylique", M::Acrylic),
    ("acrilico", M::Acrylic),
    ("watercolour", M::Watercolour),
    ("watercolor", M::Watercolour),
    ("gouache", M::Watercolour),
    ("aquarell", M::Watercolour),
    ("aquarelle", M::Watercolour),
    ("acuarela", M::Watercolour),
    ("encaustic", M::Encaustic),
    ("enkaustik", M::Encaustic),
    ("photograph", M::Photograph),
    ("photo", M::Photograph),
    ("fotografie", M::Photograph),
    ("resin", M::Resin),
    ("gilding", M::Gilding),
    ("collage", M::Collage),
    ("pastel", M::PastelOrCharcoal),
    ("charcoal", M::PastelOrCharcoal),
    ("kohle", M::PastelOrCharcoal),
    ("drawing", M::Drawing),
    ("pencil", M::Drawing),
    ("zeichnung", M::Drawing),
    ("bleistift", M::Drawing),
    ("dessin", M::Drawing),
    ("print", M::Print),
    ("giclee", M::Print),
    ("druck", M::Print),
    ("kunstdruck", M::Print),
    ("linocut", M::Print),
];

/// Sides of the papers of the A row, from A0, in millimetres.
const A_ROW: [(&str, [&str; 2]); 7] = [
    ("a0", ["841 mm", "1189 mm"]),
    ("a1", ["594 mm", "841 mm"]),
    ("a2", ["420 mm", "594 mm"]),
    ("a3", ["297 mm", "420 mm"]),
    ("a4", ["210 mm", "297 mm"]),
    ("a5", ["148 mm", "210 mm"]),
    ("a6", ["105 mm", "148 mm"]),
];

impl Said {
    /// Returns what a text says of a piece: `Öl auf Leinwand` is oil on a stretched canvas.
    pub(super) fn of(text: &str) -> Self {
        let words = words(text);
        let find = |phrase: &str| {
            let phrase: Vec<&str> = phrase.split(' ').collect();
            words
                .windows(phrase.len())
                .any(|window| window == phrase.as_slice())
        };
        let construction = CONSTRUCTIONS.iter().find(|(phrase, _)| find(phrase));
        let medium = MEDIA.iter().find(|(phrase, _)| find(phrase));
        Self {
            construction: construction.map(|(_, construction)| *construction),
            medium: medium.map(|(_, medium)| *medium),
        }
    }
}

fn words(text: &str) -> Vec<String> {
    let folded = fold(text);
    folded
        .split(|one: char| !one.is_alphanumeric())
        .filter(|word| !word.is_empty())
        .map(str::to_owned)
        .collect()
}

/// Returns the sides of a paper that is known by its name, upright: `A3`.
pub(super) fn paper_named(text: &str) -> Option<[&'static str; 2]> {
    let name = fold(text).replace("din ", "");
    A_ROW
        .iter()
        .find(|(paper, _)| *paper == name)
        .map(|(_, sides)| *sides)
}

/// Returns the size that a title names: `Winter reed, A3 print`, `Kelp Ladder 60 x 80 cm`. A number without a unit is no size.
pub(super) fn size_in(title: &str) -> Option<[Option<String>; 3]> {
    let words: Vec<&str> = title
        .split(|one: char| one.is_whitespace() || matches!(one, ',' | ';' | '(' | ')'))
        .filter(|word| !word.is_empty())
        .collect();
    if let Some([width, height]) = words.iter().find_map(|word| paper_named(word)) {
        return Some([Some(width.to_owned()), Some(height.to_owned()), None]);
    }
    // The longest run of words that is a size: `60 x 80 x 2 cm` rather than `80 x 2 cm`.
    for length in (1..=words.len().min(LONGEST_SIZE)).rev() {
        for run in words.windows(length) {
            let text = run.join(" ");
            let [Ok(one), Ok(other)] =
                [LengthUnit::Mm, LengthUnit::In].map(|bare| TypedSize::read(&text, bare))
            else {
                continue;
            };
            if one == other {
                return Some(sides(one));
            }
        }
    }
    None
}

/// No size has more words: `24 1/2 in x 36 1/2 in x 1 1/2 in`.
const LONGEST_SIZE: usize = 11;

/// Returns the sides of a size, each as it was typed.
pub(super) fn sides(size: TypedSize) -> [Option<String>; 3] {
    [
        Some(size.width.text().to_owned()),
        Some(size.height.text().to_owned()),
        size.depth.map(|depth| depth.text().to_owned()),
    ]
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_kind_and_medium_is_known_by_its_own_name() {
        for construction in Construction::ALL {
            assert_eq!(
                Said::of(construction.name()).construction,
                Some(construction)
            );
        }
        for medium in Medium::ALL {
            assert_eq!(
                Said::of(medium.name()).medium,
                Some(medium),
                "{}",
                medium.name()
            );
        }
    }

    #[test]
    fn words_of_shops_say_what_a_piece_is() {
        for (text, construction, medium) in [
            ("Öl auf Leinwand", Some(C::StretchedCanvas), Some(M::Oil)),
            ("Giclée print, framed", Some(C::LoosePaper), Some(M::Print)),
            ("Framed print", Some(C::FramedUnderGlass), Some(M::Print)),
            ("Kunstdruck", Some(C::LoosePaper), Some(M::Print)),
            (
                "Acrylic on canvas",
                Some(C::StretchedCanvas),
                Some(M::Acrylic),
            ),
            ("Pencil on paper", Some(C::LoosePaper), Some(M::Drawing)),
            ("Wall art", None, None),
            // A part of a word is no word.
            ("Foiled", None, None),
            ("", None, None),
        ] {
            let said = Said::of(text);
            assert_eq!(
                (said.construction, said.medium),
                (construction, medium),
                "{text}"
            );
        }
    }

    #[test]
    fn a_title_may_name_its_size() {
        let size = |title: &str| {
            size_in(title).map(|sides| sides.map(Option::unwrap_or_default).join("|"))
        };
        for (title, found) in [
            ("Winter reed, A3 print", Some("297 mm|420 mm|")),
            ("Kelp Ladder 60 x 80 cm", Some("60 cm|80 cm|")),
            ("Kelp Ladder (60x80x2 cm)", Some("60 cm|80 cm|2 cm")),
            (
                "Tide, 24 × 36 × 1 1/2 in, oil",
                Some("24 in|36 in|1 1/2 in"),
            ),
            // Nobody knows what these are in.
            ("Kelp Ladder 60 x 80", None),
            ("Study no. 3", None),
            ("A34", None),
            ("", None),
        ] {
            assert_eq!(size(title).as_deref(), found, "{title}");
        }
    }
}
