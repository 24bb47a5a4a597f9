//! The shapes that most price sheets have, each with invented figures that show what it looks like.
//!
//! A form begins with the rows and columns of its shape and without a price: an invented figure stands in the example alone, so that
//! no parcel is ever priced by one.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{
    FormatSheet, PriceTable, ServiceSheet, TariffSheet, ZoneColumn, ZoneSheet,
    figures::{Figures, Kind},
};
use crate::quantity::{Currency, MassUnit, Telling};

/// How a carrier's price sheet is built.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PriceShape {
    /// One list of prices by weight.
    Weights,
    /// A table: weights down, zones across.
    ZonesAndWeights,
    /// Prices by weight, where a large parcel counts as a heavier one.
    Volume,
    /// One price for everything that goes into the carrier's box.
    FlatBoxes,
}

impl PriceShape {
    /// Every shape, the simplest first.
    pub const ALL: [Self; 4] = [
        Self::Weights,
        Self::ZonesAndWeights,
        Self::Volume,
        Self::FlatBoxes,
    ];

    /// Returns what people call it.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Weights => "One price per weight",
            Self::ZonesAndWeights => "Zones and weights",
            Self::Volume => "Size counts too",
            Self::FlatBoxes => "Flat-rate boxes",
        }
    }

    /// Returns when a price sheet is of this shape, in a sentence.
    #[must_use]
    pub const fn about(self) -> &'static str {
        match self {
            Self::Weights => "The sheet lists a price for each weight, in one country.",
            Self::ZonesAndWeights => "The sheet is a table: weights down, zones across.",
            Self::Volume => "A large parcel is billed as a heavier one, by its volume.",
            Self::FlatBoxes => "The carrier sells boxes, each at one price.",
        }
    }
}

/// A price sheet that is begun in one of the shapes.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ShapedSheet {
    /// The shape.
    pub shape: PriceShape,
    /// What people call it.
    pub name: &'static str,
    /// When a price sheet is of this shape.
    pub about: &'static str,
    /// The form to type into: its rows and columns, without a price.
    pub sheet: TariffSheet,
    /// The empty sheet filled with invented prices.
    pub example: TariffSheet,
}

/// Invented prices to a zone, the lightest first, in hundredths of most moneys.
struct Column {
    zone: &'static str,
    prices: &'static [i64],
    further: i64,
}

const HOME: &str = "Home";
const ABROAD: &str = "Abroad";
const BY_WEIGHT: &[Column] = &[Column {
    zone: HOME,
    prices: &[520, 740, 1080, 1690, 2350],
    further: 0,
}];
const BY_ZONE: &[Column] = &[
    Column {
        zone: HOME,
        prices: &[490, 690, 990, 1590, 2190],
        further: 0,
    },
    Column {
        zone: ABROAD,
        prices: &[1140, 1590, 2250, 3480, 4890],
        further: 0,
    },
];
const BY_VOLUME: &[Column] = &[Column {
    zone: HOME,
    prices: &[610, 830, 1240, 1980, 2720],
    further: 85,
}];

/// A box that a carrier sells: its name, its three sides inside in centimetres and in inches, and an invented price.
struct FlatBox {
    name: &'static str,
    cm: [f64; 3],
    inches: [f64; 3],
    price: i64,
}

const FLAT_BOXES: [FlatBox; 3] = [
    FlatBox {
        name: "Small box",
        cm: [30.0, 22.0, 5.0],
        inches: [12.0, 9.0, 2.0],
        price: 680,
    },
    FlatBox {
        name: "Medium box",
        cm: [45.0, 35.0, 10.0],
        inches: [18.0, 14.0, 4.0],
        price: 1150,
    },
    FlatBox {
        name: "Large box",
        cm: [60.0, 50.0, 15.0],
        inches: [24.0, 20.0, 6.0],
        price: 1720,
    },
];
/// What a flat box may weigh, in kilograms and in pounds.
const FLAT_UP_TO: [&str; 2] = ["20 kg", "50 lb"];
/// Above this volume size counts: more than the longest parcel with the largest girth has, so that it never does.
const NEVER_ABOVE: [&str; 2] = ["400 l", "14 ft³"];

/// Returns the metric one of two values, or the other where the studio weighs in pounds.
const fn by_unit<Of: Copy>(telling: Telling, [metric, pounds]: [Of; 2]) -> Of {
    match telling.mass {
        MassUnit::Kg => metric,
        MassUnit::Lb => pounds,
    }
}

impl ShapedSheet {
    /// Returns a sheet in each of the shapes, in the studio's own money, units and country.
    #[must_use]
    pub fn all(currency: &Currency, home: &str, telling: Telling) -> Vec<Self> {
        PriceShape::ALL
            .into_iter()
            .map(|shape| {
                let example = shaped(shape, currency, home, telling);
                Self {
                    shape,
                    name: shape.name(),
                    about: shape.about(),
                    sheet: unpriced(example.clone()),
                    example,
                }
            })
            .collect()
    }
}

/// The example of a shape.
fn shaped(shape: PriceShape, currency: &Currency, home: &str, telling: Telling) -> TariffSheet {
    let mut sheet = TariffSheet::blank(currency, home, telling);
    "My carrier".clone_into(&mut sheet.carrier);
    // Moneys without hundredths have about a hundred times the numbers.
    let places = if currency.decimals() == 0 { 0 } else { 2 };
    let figures = Figures::of(telling);
    let amount = |hundredths: i64| figures.amount(Decimal::new(hundredths, places));
    let Some(service) = sheet.services.first_mut() else {
        return sheet;
    };
    match shape {
        PriceShape::Weights => {
            by_unit(telling, NEVER_ABOVE).clone_into(&mut service.billable.volumetric_above);
            fill(service, BY_WEIGHT, amount);
        }
        PriceShape::ZonesAndWeights => {
            by_unit(telling, NEVER_ABOVE).clone_into(&mut service.billable.volumetric_above);
            fill(service, BY_ZONE, amount);
            sheet.zones.push(ZoneSheet {
                name: ABROAD.to_owned(),
                countries: Vec::new(),
                postcodes: Vec::new(),
            });
        }
        PriceShape::Volume => fill(service, BY_VOLUME, amount),
        PriceShape::FlatBoxes => {
            "Flat-rate box".clone_into(&mut service.name);
            service.prices = PriceTable::default();
            service.formats = FLAT_BOXES
                .iter()
                .map(|one| {
                    let [length, width, height] = by_unit(telling, [one.cm, one.inches])
                        .map(|side| side * by_unit(telling, [10.0, 25.4]))
                        .map(|side| figures.figure(Kind::Length, side));
                    FormatSheet {
                        name: one.name.to_owned(),
                        length,
                        width,
                        height,
                        prices: PriceTable {
                            weights: vec![by_unit(telling, FLAT_UP_TO).to_owned()],
                            zones: vec![ZoneColumn {
                                zone: HOME.to_owned(),
                                prices: vec![amount(one.price)],
                                further: String::new(),
                            }],
                        },
                    }
                })
                .collect();
        }
    }
    sheet
}

fn fill(service: &mut ServiceSheet, columns: &[Column], amount: impl Fn(i64) -> String) {
    service.prices.zones = columns
        .iter()
        .map(|column| ZoneColumn {
            zone: column.zone.to_owned(),
            prices: column.prices.iter().copied().map(&amount).collect(),
            further: Some(column.further)
                .filter(|further| *further > 0)
                .map(&amount)
                .unwrap_or_default(),
        })
        .collect();
}

/// Returns a sheet with its rows and columns, and no price.
fn unpriced(mut sheet: TariffSheet) -> TariffSheet {
    let tables = sheet.services.iter_mut().flat_map(|service| {
        let formats = service.formats.iter_mut().map(|format| &mut format.prices);
        formats.chain([&mut service.prices])
    });
    for column in tables.flat_map(|table| &mut table.zones) {
        column.prices.fill(String::new());
        column.further.clear();
    }
    sheet
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use rust_decimal_macros::dec;

    use super::*;
    use crate::{
        freight::{Contents, Governs, Parcel, Quote, QuoteRequest, Shape, Tariff},
        place::Destination,
        quantity::{DecimalMark, Length, LengthUnit, Mass},
        space::Envelope,
    };

    const MONEYS: [&str; 3] = ["EUR", "JPY", "KWD"];

    fn tellings() -> [Telling; 3] {
        [
            (LengthUnit::Mm, MassUnit::Kg, DecimalMark::Point),
            (LengthUnit::Cm, MassUnit::Kg, DecimalMark::Comma),
            (LengthUnit::In, MassUnit::Lb, DecimalMark::Point),
        ]
        .map(|(length, mass, decimal)| Telling {
            length,
            mass,
            decimal,
            ..Telling::default()
        })
    }

    fn all(money: &str, telling: Telling) -> Vec<ShapedSheet> {
        let currency = Currency::try_from(money.to_owned()).expect("a currency");
        ShapedSheet::all(&currency, "XS", telling)
    }

    /// The example of a shape as the tariff that it is, with a country for its zone abroad.
    fn example(shape: PriceShape) -> Tariff {
        let telling = Telling::default();
        let mut shaped = all("EUR", telling).into_iter();
        let found = shaped.find(|one| one.shape == shape);
        let mut sheet = found.expect("every shape is there").example;
        for zone in sheet.zones.iter_mut().skip(1) {
            zone.countries = vec!["XV".to_owned()];
        }
        sheet.read(telling).expect("an example holds together")
    }

    fn quoted(tariff: &Tariff, sides_cm: [f64; 3], mass_kg: f64) -> Quote {
        let [across, up, through] = sides_cm.map(|side| Length::mm(side * 10.0));
        let parcel = Parcel {
            outside: Envelope {
                across,
                up,
                through,
            },
            mass: Mass::g(mass_kg * 1000.0),
            value: None,
            buys_cover: false,
            shape: Shape::Rectangular,
            contents: Contents::default(),
        };
        let place = Destination {
            country: "XS".to_owned(),
            postcode: String::new(),
        };
        let mut quotes = tariff.quotes(&QuoteRequest::now(&parcel, &place));
        assert_eq!(quotes.len(), 1, "a shape has one service");
        quotes.remove(0)
    }

    fn price(shape: PriceShape, sides_cm: [f64; 3], mass_kg: f64) -> Option<Decimal> {
        let quote = quoted(&example(shape), sides_cm, mass_kg);
        quote.total().map(|total| total.amount)
    }

    /// Kills a shape whose example is not what its name says.
    #[test]
    fn each_example_prices_a_parcel_as_its_sheet_reads() {
        // 3.2 kg lies in the step up to 5 kg.
        assert_eq!(
            price(PriceShape::Weights, [80.0, 60.0, 20.0], 3.2),
            Some(dec!(7.40))
        );
        assert_eq!(
            price(PriceShape::ZonesAndWeights, [80.0, 60.0, 20.0], 3.2),
            Some(dec!(6.90))
        );
        // 80 × 60 × 20 cm are 96,000 cm³; at 5000 to the kilogram 19.2 kg, in the step up to 20 kg.
        assert_eq!(
            price(PriceShape::Volume, [80.0, 60.0, 20.0], 3.2),
            Some(dec!(19.80))
        );
        // 29 × 21 × 4 goes into the small box of 30 × 22 × 5; 44 × 21 × 4 needs the medium one.
        assert_eq!(
            price(PriceShape::FlatBoxes, [29.0, 21.0, 4.0], 1.2),
            Some(dec!(6.80))
        );
        assert_eq!(
            price(PriceShape::FlatBoxes, [44.0, 21.0, 4.0], 1.2),
            Some(dec!(11.50))
        );
        assert_eq!(price(PriceShape::FlatBoxes, [70.0, 21.0, 4.0], 1.2), None);
    }

    /// Kills an invented figure that is left in what somebody types into.
    #[test]
    fn a_sheet_that_nobody_typed_in_prices_nothing_and_one_price_is_enough() {
        for (money, telling) in MONEYS
            .iter()
            .flat_map(|one| tellings().map(|telling| (*one, telling)))
        {
            for shaped in all(money, telling) {
                let refused = shaped.sheet.read(telling).err().unwrap_or_default();
                let places: Vec<String> = refused.into_iter().map(|one| one.field).collect();
                assert!(
                    !places.is_empty(),
                    "{:?} in {money} has no price",
                    shaped.shape
                );

                let mut sheet = shaped.sheet;
                sheet.zones.retain(|zone| !zone.countries.is_empty());
                let service = &mut sheet.services[0];
                service.prices.zones.truncate(1);
                service.formats.truncate(1);
                let formats = service.formats.iter_mut().map(|format| &mut format.prices);
                let table = formats
                    .chain([&mut service.prices])
                    .find(|table| !table.zones.is_empty());
                "9".clone_into(&mut table.expect("a table").zones[0].prices[0]);
                let read = sheet
                    .read(telling)
                    .map_err(|refused| format!("{refused:?}"));
                let tariff = read.expect("one price is a price list");
                let quote = quoted(&tariff, [20.0, 15.0, 3.0], 0.2);
                assert_eq!(
                    quote.total().map(|total| total.amount),
                    Some(dec!(9)),
                    "{:?}",
                    shaped.shape
                );
            }
        }
    }

    /// Kills an example with figures that its money or its way of writing can't hold.
    #[test]
    fn every_example_is_read_in_each_money_and_way_of_writing() {
        for (money, telling) in MONEYS
            .iter()
            .flat_map(|one| tellings().map(|telling| (*one, telling)))
        {
            for shaped in all(money, telling) {
                let mut sheet = shaped.example;
                for zone in sheet.zones.iter_mut().skip(1) {
                    zone.countries = vec!["XV".to_owned()];
                }
                let read = sheet.read(telling).expect("it holds together");
                assert_eq!(
                    TariffSheet::of(&read, telling).read(telling).as_ref(),
                    Ok(&read)
                );
            }
        }
    }

    proptest! {
        /// Kills a volume from which on size counts where the sheet goes by weight alone.
        #[test]
        fn size_never_counts_where_the_sheet_goes_by_weight_alone(
            longest in 10.0..120.0_f64, second in 0.1..1.0_f64, third in 0.1..1.0_f64, mass_kg in 0.1..30.0_f64,
        ) {
            let sides = [longest, longest * second, longest * second * third];
            let quote = quoted(&example(PriceShape::Weights), sides, mass_kg);
            prop_assume!(quote.total().is_some());
            prop_assert_eq!(quote.billable.governs, Governs::Actual);
        }
    }
}
