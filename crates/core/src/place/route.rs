//! The way a parcel goes, and how rough it is against a national one.

use serde::{Deserialize, Serialize};

use super::Destination;

macro_rules! routes {
    ($($(#[$doc:meta])* $route:ident = $name:literal: $roughness:literal;)*) => {
        /// A way to go.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Default, Serialize, Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(rename_all = "snake_case")]
        pub enum Route {
            $($(#[$doc])* $route,)*
        }

        impl Route {
            /// Every route, the gentlest first.
            pub const ALL: &[Self] = &[$(Self::$route,)*];

            /// What people call it, as it stands in a sentence.
            #[must_use]
            pub const fn name(self) -> &'static str {
                match self { $(Self::$route => $name,)* }
            }

            /// How rough it is taken to be at first. Source: trade judgement.
            pub(crate) const fn start(self) -> f64 {
                match self { $(Self::$route => $roughness,)* }
            }
        }
    };
}

routes! {
    /// Taken there in the studio's own van.
    OwnVan = "by own van": 0.1;
    /// With a courier who carries nothing but art.
    ArtCourier = "by art courier": 0.15;
    /// Within the region.
    Regional = "regional": 0.7;
    /// Across the country.
    #[default]
    National = "national": 1.0;
    /// Across a border.
    Abroad = "across a border": 1.6;
    /// Overseas.
    Overseas = "overseas": 2.5;
}

impl Route {
    /// What people call going that way, as it ends a sentence.
    #[must_use]
    pub const fn on_the_way(self) -> &'static str {
        match self {
            Self::OwnVan => "in your own van",
            Self::ArtCourier => "with an art courier",
            Self::Regional => "within the region",
            Self::National => "across the country",
            Self::Abroad => "across a border",
            Self::Overseas => "overseas",
        }
    }
}

/// How rough one route is.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct RouteRow {
    /// Against a national one, from 0.01 to 20.
    pub roughness: f64,
    /// Whether parcels on it are likely to get wet, whatever the season.
    #[serde(default)]
    pub wet: bool,
}

/// Places and the route that leads there.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PlaceRoute {
    /// The country's two-letter code.
    pub country: String,
    /// When not empty, only postcodes that begin with one of these.
    #[serde(default)]
    pub postcode_prefixes: Vec<String>,
    /// The route.
    pub route: Route,
    /// Months in which it is wet there, 1 to 12.
    #[serde(default)]
    pub wet_months: Vec<i8>,
    /// Months in which a van on the way there stands in heat, 1 to 12.
    #[serde(default)]
    pub hot_months: Vec<i8>,
}

impl PlaceRoute {
    /// Tells whether a destination lies in it.
    #[must_use]
    pub fn takes(&self, destination: &Destination) -> bool {
        let postcode = destination.postcode.trim().to_uppercase();
        self.country == destination.country
            && (self.postcode_prefixes.is_empty()
                || self
                    .postcode_prefixes
                    .iter()
                    .any(|prefix| postcode.starts_with(prefix.trim().to_uppercase().as_str())))
    }
}
