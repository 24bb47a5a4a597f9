//! The countries of the world, and those of a studio's own making.

use std::{
    collections::HashMap,
    sync::{Arc, LazyLock},
};

use serde::{Deserialize, Serialize};

use super::{
    AddressFormat, AddressLine, AddressPart, FullFormat, PostcodePlace, PostcodeShape, Region,
    Route, fold::fold,
};
use crate::quantity::Currency;

/// A country of ISO 3166-1.
#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Country {
    /// Two capital letters.
    pub code: String,
    /// In English.
    pub name: String,
    /// What it is called besides, in its own languages too.
    #[serde(default)]
    also: Vec<String>,
    /// Groups of neighbours that it belongs to.
    #[serde(default)]
    groups: Vec<String>,
    /// What is paid with there; a few places have none of their own.
    #[serde(default)]
    pub currency: Option<Currency>,
    /// Whether its paper is Letter.
    #[serde(default)]
    pub letter: bool,
    lines: Vec<AddressLine>,
    #[serde(default)]
    latin: Vec<AddressLine>,
    #[serde(default)]
    required: Vec<AddressPart>,
    #[serde(default)]
    postcode: Option<PostcodeShape>,
    #[serde(default)]
    example: Option<String>,
    /// Letters before a postcode, as `CH-`.
    #[serde(default)]
    prefix: Option<String>,
    #[serde(default)]
    capitals: Vec<AddressPart>,
    #[serde(default)]
    regions: Vec<Region>,
    /// Its format by itself.
    #[serde(skip)]
    format: Option<AddressFormat>,
}

/// All countries, by code.
struct World {
    all: Vec<Country>,
    by_code: HashMap<String, usize>,
    /// By every name, folded.
    by_name: HashMap<String, usize>,
}

/// Kept open data, made into one file by bin/postal-formats.
static WORLD: LazyLock<World> = LazyLock::new(|| {
    let all: Vec<Country> =
        serde_json::from_str(include_str!("../../data/postal.json")).expect("the data are whole");
    let all: Vec<Country> = all.into_iter().map(Country::with_format).collect();
    let by_code = all.iter().enumerate();
    let by_code = by_code
        .map(|(at, country)| (country.code.clone(), at))
        .collect();
    let mut by_name = HashMap::new();
    // What one is called comes before what another is called besides: "Congo".
    for (at, country) in all.iter().enumerate() {
        by_name.insert(fold(&country.name), at);
    }
    for (at, country) in all.iter().enumerate() {
        for name in &country.also {
            by_name.entry(fold(name)).or_insert(at);
        }
    }
    World {
        all,
        by_code,
        by_name,
    }
});

/// A country code of ISO 3166-1 has two letters.
const CODE_LETTERS: usize = 2;

impl Country {
    fn with_format(mut self) -> Self {
        self.format = Some(AddressFormat {
            lines: self.lines.clone(),
            required: self.required.clone(),
            postcode: self.postcode.clone(),
        });
        self
    }

    /// Returns all of them, by code.
    #[must_use]
    pub fn all() -> &'static [Self] {
        &WORLD.all
    }

    /// Returns the country of a code.
    #[must_use]
    pub fn of(code: &str) -> Option<&'static Self> {
        WORLD.by_code.get(code).and_then(|at| WORLD.all.get(*at))
    }

    /// Returns the country of a name: in English, in one of its own languages, or as people shorten it.
    #[must_use]
    pub fn named(name: &str) -> Option<&'static Self> {
        WORLD
            .by_name
            .get(&fold(name))
            .and_then(|at| WORLD.all.get(*at))
    }

    /// Returns how its addresses are written.
    ///
    /// # Panics
    /// Never: every country of the list has its format made when the list is read.
    #[must_use]
    pub fn format(&self) -> FullFormat<'_> {
        FullFormat {
            format: self.format.as_ref().expect("it is made with the list"),
            latin: &self.latin,
            regions: &self.regions,
            example: self.example.as_deref(),
            capitals: &self.capitals,
            prefix: self.prefix.as_deref(),
        }
    }

    /// Tells whether two are neighbours: of one group between which lorries drive.
    #[must_use]
    pub fn is_near(&self, other: &Self) -> bool {
        self.groups.iter().any(|group| other.groups.contains(group))
    }
}

/// Returns the route to start with from one country to another: across the country, across a border to one of the same group of
/// neighbours, and overseas to the rest. A country of somebody's own making lies across a border.
#[must_use]
pub fn usual_route(from: &str, to: &str) -> Route {
    if from == to {
        return Route::National;
    }
    match (Country::of(from), Country::of(to)) {
        (Some(from), Some(to)) if !from.is_near(to) => Route::Overseas,
        _ => Route::Abroad,
    }
}

/// A country of a studio's own making.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct OwnCountry {
    /// Two capital letters that ISO 3166-1 has not given to any country.
    pub code: String,
    /// What people call it.
    pub name: String,
    /// How its addresses are written.
    pub format: AddressFormat,
}

/// The countries that a studio knows: all of the world, and its own.
#[derive(Debug, Clone, Default)]
pub struct Countries {
    own: Arc<[OwnCountry]>,
    home: String,
    /// Codes of those that it sends to.
    listed: Arc<[String]>,
}

impl Countries {
    /// Makes them of a studio's own ones, the country that it sends from (empty while it is not known), and the codes of those
    /// that it sends to.
    #[must_use]
    pub fn of(own: Vec<OwnCountry>, home: &str, listed: Vec<String>) -> Self {
        Self {
            own: own.into(),
            home: home.to_owned(),
            listed: listed.into(),
        }
    }

    /// Returns the country that the studio sends from; empty while it is not known.
    #[must_use]
    pub fn home(&self) -> &str {
        &self.home
    }

    /// Returns the codes of those that the studio sends to, its own first.
    pub fn listed(&self) -> impl Iterator<Item = &str> {
        let home = std::iter::once(self.home.as_str()).filter(|home| !home.is_empty());
        let rest = self.listed.iter().map(String::as_str);
        home.chain(rest.filter(|code| *code != self.home))
    }

    /// Returns those of the studio's own making.
    #[must_use]
    pub fn own(&self) -> &[OwnCountry] {
        &self.own
    }

    fn own_of(&self, code: &str) -> Option<&OwnCountry> {
        self.own.iter().find(|own| own.code == code)
    }

    /// Tells whether there is a country of that code.
    #[must_use]
    pub fn knows(&self, code: &str) -> bool {
        self.own_of(code).is_some() || Country::of(code).is_some()
    }

    /// Returns what a country is called; its code where there is none of that code.
    #[must_use]
    pub fn name<'a>(&'a self, code: &'a str) -> &'a str {
        match (self.own_of(code), Country::of(code)) {
            (Some(own), _) => &own.name,
            (None, Some(country)) => &country.name,
            (None, None) => code,
        }
    }

    /// Returns how addresses of a country are written; of one that there is not, with the postcode before the town.
    #[must_use]
    pub fn format(&self, code: &str) -> FullFormat<'_> {
        match (self.own_of(code), Country::of(code)) {
            (Some(own), _) => FullFormat::plain(&own.format),
            (None, Some(country)) => country.format(),
            (None, None) => FullFormat::plain(PostcodePlace::BeforeTown.format()),
        }
    }

    /// Returns the code of a country by what is written of it: its name in English or its own languages, or its code.
    #[must_use]
    pub fn named(&self, text: &str) -> Option<&str> {
        let text = text.trim();
        let folded = fold(text);
        if folded.is_empty() {
            return None;
        }
        let own = self.own.iter().find(|own| fold(&own.name) == folded);
        if let Some(own) = own {
            return Some(&own.code);
        }
        if let Some(country) = Country::named(text) {
            return Some(&country.code);
        }
        let code = folded.to_uppercase();
        if code.len() != CODE_LETTERS {
            return None;
        }
        let own = self.own_of(&code).map(|own| own.code.as_str());
        own.or_else(|| Country::of(&code).map(|country| country.code.as_str()))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_list_is_whole_and_every_format_can_be_read() {
        assert_eq!(Country::all().len(), 249);
        for country in Country::all() {
            let format = country.format();
            assert!(
                format.format.refused("format").is_empty(),
                "{}",
                country.code
            );
            assert!(format.has(AddressPart::Street), "{}", country.code);
            if let (Some(shape), Some(example)) = (&format.format.postcode, format.example) {
                assert!(shape.takes(example), "{}: {example}", country.code);
            }
        }
    }

    #[test]
    fn a_country_is_found_by_what_people_call_it() {
        let countries = Countries::default();
        for (text, code) in [
            ("Germany", "DE"),
            ("deutschland", "DE"),
            ("DE", "DE"),
            ("UK", "GB"),
            ("Scotland", "GB"),
            ("Jersey", "JE"),
            ("isle of man", "IM"),
            ("Puerto Rico", "PR"),
            ("USA", "US"),
            ("U.S.A.", "US"),
            ("Brasil", "BR"),
            ("日本", "JP"),
            ("Osterreich", "AT"),
            ("Österreich", "AT"),
            ("Swaziland", "SZ"),
            ("Eswatini", "SZ"),
            ("Nederland", "NL"),
            ("The Netherlands", "NL"),
            ("Éire", "IE"),
            ("Cote d’Ivoire", "CI"),
        ] {
            assert_eq!(countries.named(text), Some(code), "{text}");
        }
        assert_eq!(countries.named("Atlantis"), None);
        assert_eq!(countries.named("XQ"), None);
    }

    #[test]
    fn routes_start_by_neighbourhood() {
        for (from, to, route) in [
            ("DE", "DE", Route::National),
            ("DE", "FR", Route::Abroad),
            ("GB", "IE", Route::Abroad),
            ("DE", "US", Route::Overseas),
            ("US", "CA", Route::Abroad),
            ("US", "MX", Route::Abroad),
            ("US", "BR", Route::Overseas),
            ("BR", "AR", Route::Abroad),
            ("JP", "KR", Route::Abroad),
            ("JP", "AU", Route::Overseas),
            ("AU", "NZ", Route::Abroad),
            // Not on any list: across a border.
            ("XS", "XV", Route::Abroad),
        ] {
            assert_eq!(usual_route(from, to), route, "{from} to {to}");
        }
    }
}
