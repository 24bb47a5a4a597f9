//! How addresses are written: which part stands in which line, which must be there, and what a postcode looks like.

use std::sync::OnceLock;

use regex_lite::{Regex, RegexBuilder};
use serde::{Deserialize, Serialize};

use super::{
    Buyer,
    fold::{fold, is_latin},
};
use crate::{Refusal, Refusals};

macro_rules! parts {
    ($($(#[$doc:meta])* $part:ident = $key:ident, $called:literal;)*) => {
        /// A part of an address.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(rename_all = "snake_case")]
        pub enum AddressPart {
            $($(#[$doc])* $part,)*
        }

        impl AddressPart {
            /// Every part, from the name down.
            pub const ALL: &[Self] = &[$(Self::$part,)*];

            /// The field of an address that holds it.
            #[must_use]
            pub const fn key(self) -> &'static str {
                match self { $(Self::$part => stringify!($key),)* }
            }

            /// What people call it.
            #[must_use]
            pub const fn called(self) -> &'static str {
                match self { $(Self::$part => $called,)* }
            }

            /// Returns what an address has of it.
            #[must_use]
            pub fn of(self, address: &Buyer) -> &str {
                match self { $(Self::$part => address.$key.trim(),)* }
            }

            /// Returns what was typed of it.
            pub(crate) fn raw(self, address: &Buyer) -> &str {
                match self { $(Self::$part => &address.$key,)* }
            }

            /// Returns what an address has of it, to be written.
            pub fn of_mut(self, address: &mut Buyer) -> &mut String {
                match self { $(Self::$part => &mut address.$key,)* }
            }
        }
    };
}

parts! {
    /// A person or a house.
    Name = name, "name";
    /// A firm, beside a person.
    Company = company, "company";
    /// Street and number.
    Street = street, "street and number";
    /// Part of a town, where it is written.
    Neighbourhood = neighbourhood, "neighbourhood";
    /// Town.
    Town = town, "town";
    /// State, province, prefecture or county, where it is written.
    Region = region, "region";
    /// Postcode.
    Postcode = postcode, "postcode";
}

/// What stands in a line: a part, or letters between two parts.
#[derive(Debug, Clone, PartialEq, Eq)]
enum Bit {
    Part(AddressPart),
    Letters(String),
}

/// A line of an address, as `{town}, {region} {postcode}`.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(try_from = "String", into = "String")]
pub struct AddressLine(Vec<Bit>);

/// What a postcode looks like, as a regular expression, all of it.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(try_from = "String", into = "String")]
pub struct PostcodeShape {
    pattern: String,
    /// Made when it is first asked for: there are two hundred of them.
    whole: OnceLock<Regex>,
}

/// A region as it is written, and what it is called besides.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct Region(Vec<String>);

/// How addresses of a country are written.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct AddressFormat {
    /// From the top down, each with its parts in braces.
    #[cfg_attr(feature = "schema", schema(value_type = Vec<String>, example = json!(["{name}", "{street}", "{postcode} {town}"])))]
    pub lines: Vec<AddressLine>,
    /// Which parts must be there, beside the name.
    #[serde(default)]
    pub required: Vec<AddressPart>,
    /// What a postcode looks like, as a regular expression of all of it; null where any will do.
    #[serde(default)]
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, example = "\\d{5}"))]
    pub postcode: Option<PostcodeShape>,
}

/// A pattern that takes more room than that when it is made ready is no postcode's.
const LARGEST_PATTERN: usize = 1 << 20;
const LONGEST_PATTERN: usize = 2000;
const MOST_LINES: usize = 10;
const LONGEST_LINE: usize = 120;

impl TryFrom<String> for AddressLine {
    type Error = String;

    fn try_from(text: String) -> Result<Self, Self::Error> {
        let mut bits = Vec::new();
        let mut rest = text.as_str();
        while let Some((before, after)) = rest.split_once('{') {
            let (key, behind) = after
                .split_once('}')
                .ok_or_else(|| format!("\"{text}\" has an unclosed brace"))?;
            let part = AddressPart::ALL.iter().find(|part| part.key() == key);
            let part = part.ok_or_else(|| {
                let known: Vec<&str> = AddressPart::ALL.iter().map(|part| part.key()).collect();
                format!(
                    "\"{key}\" is not a part of an address: write {}",
                    known.join(", ")
                )
            })?;
            if !before.is_empty() {
                bits.push(Bit::Letters(before.to_owned()));
            }
            bits.push(Bit::Part(*part));
            rest = behind;
        }
        if !rest.is_empty() {
            bits.push(Bit::Letters(rest.to_owned()));
        }
        Ok(Self(bits))
    }
}

impl From<AddressLine> for String {
    fn from(line: AddressLine) -> Self {
        let bits = line.0.into_iter().map(|bit| match bit {
            Bit::Part(part) => format!("{{{}}}", part.key()),
            Bit::Letters(letters) => letters,
        });
        bits.collect()
    }
}

impl TryFrom<String> for PostcodeShape {
    type Error = String;

    fn try_from(pattern: String) -> Result<Self, Self::Error> {
        if pattern.len() > LONGEST_PATTERN {
            return Err(format!(
                "a postcode's shape has at most {LONGEST_PATTERN} letters"
            ));
        }
        Ok(Self {
            pattern,
            whole: OnceLock::new(),
        })
    }
}

impl From<PostcodeShape> for String {
    fn from(shape: PostcodeShape) -> Self {
        shape.pattern
    }
}

impl PartialEq for PostcodeShape {
    fn eq(&self, other: &Self) -> bool {
        self.pattern == other.pattern
    }
}

impl Eq for PostcodeShape {}

impl PostcodeShape {
    fn made(&self) -> Result<Regex, regex_lite::Error> {
        RegexBuilder::new(&format!("^(?:{})$", self.pattern))
            .size_limit(LARGEST_PATTERN)
            .build()
    }

    /// Tells whether a text is such a postcode, in small letters or capitals.
    #[must_use]
    pub fn takes(&self, text: &str) -> bool {
        if self.whole.get().is_none() {
            let Ok(made) = self.made() else {
                return true;
            };
            // Whoever came first made the same.
            let _ = self.whole.set(made);
        }
        let text = text.trim().to_uppercase();
        self.whole.get().is_some_and(|whole| whole.is_match(&text))
    }
}

impl Region {
    /// Returns it as it stands in an address.
    #[must_use]
    pub fn written(&self) -> &str {
        self.0.first().map_or("", String::as_str)
    }

    /// Returns all that it is called, as it is written first.
    pub fn names(&self) -> impl Iterator<Item = &str> {
        self.0.iter().map(String::as_str)
    }

    /// Tells whether a text is one of its names.
    #[must_use]
    pub fn is(&self, text: &str) -> bool {
        let text = fold(text);
        // "County Galway" is "Co. Galway".
        let county = text
            .strip_prefix("county ")
            .or_else(|| text.strip_prefix("co "));
        let text = county.map_or_else(|| text.clone(), |rest| format!("co. {rest}"));
        self.names().any(|name| fold(name) == text)
    }
}

/// The parts of one line that are there, with the letters between them; letters before a part that is not there go with it.
fn written(line: &AddressLine, text: &dyn Fn(AddressPart) -> String) -> String {
    let mut out = String::new();
    let mut between = "";
    for bit in &line.0 {
        match bit {
            Bit::Letters(letters) => between = letters,
            Bit::Part(part) => {
                let text = text(*part);
                if !text.is_empty() {
                    let first = out.is_empty();
                    // Letters that part two parts stand between two; a country's own letters stand before a postcode.
                    if !first || between.chars().any(char::is_alphanumeric) || between == "〒" {
                        out.push_str(between);
                    }
                    out.push_str(&text);
                }
                between = "";
            }
        }
    }
    out.trim().to_owned()
}

/// An address format with what the kept data know besides.
#[derive(Debug, Clone, Copy)]
pub struct FullFormat<'a> {
    /// The format.
    pub format: &'a AddressFormat,
    /// The lines for an address in Latin letters; empty if they stand in the same order.
    pub latin: &'a [AddressLine],
    /// Regions as they are written.
    pub regions: &'a [Region],
    /// A postcode of it, for people to look at.
    pub example: Option<&'a str>,
    /// Parts that are written in capitals.
    pub capitals: &'a [AddressPart],
    /// Letters before a postcode, as `CH-`.
    pub prefix: Option<&'a str>,
}

impl<'a> FullFormat<'a> {
    /// Makes one of a format that nothing more is known of.
    #[must_use]
    pub const fn plain(format: &'a AddressFormat) -> Self {
        Self {
            format,
            latin: &[],
            regions: &[],
            example: None,
            capitals: &[],
            prefix: None,
        }
    }

    /// Tells whether an address has that part at all.
    #[must_use]
    pub fn has(&self, part: AddressPart) -> bool {
        let lines = self.format.lines.iter().chain(self.latin);
        lines
            .flat_map(|line| &line.0)
            .any(|bit| *bit == Bit::Part(part))
    }

    /// Tells whether the postcode stands before the town, on its line or above it, or before the region on one line with it.
    #[must_use]
    pub fn postcode_first(&self) -> bool {
        let place = |part| {
            let lines = self.format.lines.iter().enumerate();
            lines
                .filter_map(|(line, bits)| {
                    let at = bits.0.iter().position(|bit| *bit == Bit::Part(part))?;
                    Some((line, at))
                })
                .next()
        };
        let code = place(AddressPart::Postcode);
        let town = place(AddressPart::Town);
        let region =
            place(AddressPart::Region).filter(|(line, _)| code.is_some_and(|(of, _)| of == *line));
        code.is_some_and(|code| {
            [town, region]
                .into_iter()
                .flatten()
                .any(|behind| code < behind)
        })
    }

    /// Tells whether the town stands above the street.
    pub(super) fn is_town_first(&self) -> bool {
        let lines = match self.latin {
            [] => &self.format.lines,
            latin => latin,
        };
        let line = |part| {
            let mut lines = lines.iter();
            lines.position(|line| line.0.contains(&Bit::Part(part)))
        };
        let (town, street) = (line(AddressPart::Town), line(AddressPart::Street));
        town.is_some_and(|town| street.is_some_and(|street| town < street))
    }

    /// Tells whether a dash alone stands between town and postcode.
    pub(super) fn is_glued(&self) -> bool {
        let places = [AddressPart::Town, AddressPart::Postcode].map(Bit::Part);
        self.format.lines.iter().any(|line| {
            line.0.windows(3).any(|bits| {
                bits[1] == Bit::Letters("-".to_owned())
                    && places.contains(&bits[0])
                    && places.contains(&bits[2])
            })
        })
    }

    /// Returns the region of a name.
    #[must_use]
    pub fn region(&self, text: &str) -> Option<&'a Region> {
        self.regions.iter().find(|region| region.is(text))
    }

    /// Returns a region as it is written in an address, in the letters in which it was typed; what is none as it was typed.
    #[must_use]
    pub fn written_region<'t>(&self, typed: &'t str) -> &'t str
    where
        'a: 't,
    {
        let written = self.region(typed).map_or(typed, Region::written);
        if is_latin(written) == is_latin(typed) {
            written
        } else {
            typed
        }
    }

    /// Returns the lines of an address. A part that the format has no place for stands behind the one that it belongs to.
    #[must_use]
    pub fn lines(&self, address: &Buyer) -> Vec<String> {
        let all = AddressPart::ALL.iter().map(|part| part.of(address));
        let latin = !self.latin.is_empty() && all.clone().all(is_latin);
        let lines = if latin {
            self.latin
        } else {
            &self.format.lines
        };
        let text = |part: AddressPart| {
            let typed = part.of(address);
            match part {
                AddressPart::Region => self.written_region(typed).to_owned(),
                AddressPart::Postcode if self.capitals.contains(&part) => typed.to_uppercase(),
                _ => typed.to_owned(),
            }
        };
        let mut out: Vec<(Vec<AddressPart>, String)> = lines
            .iter()
            .map(|line| {
                let parts = line.0.iter().filter_map(|bit| match bit {
                    Bit::Part(part) => Some(*part),
                    Bit::Letters(_) => None,
                });
                (parts.collect(), written(line, &text))
            })
            .collect();
        for &part in AddressPart::ALL {
            let placed = out.iter().any(|(parts, _)| parts.contains(&part));
            if placed || part.of(address).is_empty() {
                continue;
            }
            let before = match part {
                AddressPart::Name | AddressPart::Company => AddressPart::Name,
                AddressPart::Street | AddressPart::Neighbourhood | AddressPart::Town => {
                    AddressPart::Street
                }
                AddressPart::Region => AddressPart::Town,
                AddressPart::Postcode => AddressPart::Postcode,
            };
            let at = out.iter().position(|(parts, _)| parts.contains(&before));
            out.insert(at.map_or(out.len(), |at| at + 1), (vec![part], text(part)));
        }
        // A street that was typed in parts takes a line for each.
        let lines = out.into_iter().flat_map(|(parts, line)| {
            if parts == [AddressPart::Street] {
                line.split(',').map(|part| part.trim().to_owned()).collect()
            } else {
                vec![line]
            }
        });
        lines.filter(|line| !line.is_empty()).collect()
    }
}

impl AddressFormat {
    /// Returns a [`Refusal`] for each line, part or pattern that no address can be written by, at its field below `at`.
    #[must_use]
    pub fn refused(&self, at: &str) -> Vec<Refusal> {
        let mut refusals = Refusals::default();
        let has = |part| {
            self.lines
                .iter()
                .flat_map(|line| &line.0)
                .any(|bit| *bit == Bit::Part(part))
        };
        if !has(AddressPart::Name) || !has(AddressPart::Street) {
            refusals.refuse(
                format!("{at}.lines"),
                "an address has {name} and {street}: write a line for each",
            );
        }
        let long = self
            .lines
            .iter()
            .any(|line| String::from(line.clone()).chars().count() > LONGEST_LINE);
        if self.lines.len() > MOST_LINES || long {
            let says = format!("write at most {MOST_LINES} lines of {LONGEST_LINE} letters");
            refusals.refuse(format!("{at}.lines"), says);
        }
        if let Some(shape) = &self.postcode
            && let Err(error) = shape.made()
        {
            let says = format!("\"{}\" is not a postcode pattern: {error}", shape.pattern);
            refusals.refuse(format!("{at}.postcode"), says);
        }
        refusals.into()
    }
}
