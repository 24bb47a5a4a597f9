//! A row of a shop's table, as an order.

use std::collections::BTreeMap;

use serde::Serialize;

use super::{
    LONGEST_NUMBER, Order, OrderColumn, OrderInputs, OrderTable,
    columns::{unit_named, unit_of_head},
    words::{Said, paper_named, sides, size_in},
};
use crate::{
    Refusal, Refusals,
    piece::{Construction, Medium},
    place::{Buyer, Countries},
    quantity::{Currency, LengthUnit, Telling, TypedLength, TypedSize},
    shipment::{PieceInputs, ShipmentInputs, dates::written_day},
};

/// Where the size of an order's piece is from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum SizeFrom {
    /// From the row.
    Row,
    /// From an earlier shipment of the same product.
    Product,
    /// From the title of the piece.
    Title,
    /// From the shipment that all of them are like.
    Like,
    /// It is still to be measured.
    Nowhere,
}

/// What the rows of a table are read with.
#[derive(Debug, Clone, Copy)]
pub struct OrderReading<'a> {
    /// How the table is read.
    pub table: &'a OrderTable,
    /// What each row starts from.
    pub start: &'a ShipmentInputs,
    /// The countries that are known.
    pub countries: &'a Countries,
    /// How the studio reads quantities.
    pub telling: Telling,
    /// What a length without any unit is in.
    pub bare: LengthUnit,
    /// The money that the studio counts in.
    pub currency: Currency,
}

type Row = BTreeMap<String, String>;
type Sides = [Option<String>; 3];

impl OrderReading<'_> {
    /// Returns the text of a cell with single spaces; empty where there is no such column.
    #[must_use]
    pub fn cell(&self, row: &Row, column: OrderColumn) -> String {
        let text = self.table.columns.of(column).and_then(|name| row.get(name));
        let words = text.map(|text| text.split_whitespace().collect::<Vec<_>>());
        words.unwrap_or_default().join(" ")
    }

    /// Reads a row; `product` is an earlier shipment of the same product. What neither has is as in `start`.
    ///
    /// # Errors
    /// A [`Refusal`] at the field of each column whose cell is not understood. Whether the values can stand is looked at with the
    /// shipment.
    pub fn order(&self, row: &Row, product: Option<&PieceInputs>) -> Result<Order, Vec<Refusal>> {
        let cell = |column| self.cell(row, column);
        let mut refusals = Refusals::default();
        let number = cell(OrderColumn::Number);
        if !(1..=LONGEST_NUMBER).contains(&number.chars().count()) {
            let says = format!(
                "the order number is missing or over {LONGEST_NUMBER} characters: without it the order could be imported twice"
            );
            refusals.refuse("number", says);
        }
        let name = cell(OrderColumn::Name);
        if name.is_empty() {
            refusals.refuse("name", "the buyer's name is missing");
        }
        let typed = cell(OrderColumn::Country);
        let named = self.countries.named(&typed);
        if named.is_none() && !typed.is_empty() {
            let says = format!("{typed} is not a country: write its name or its two-letter code");
            refusals.refuse("country", says);
        }
        let telling = Telling {
            dates: self.table.dates.unwrap_or(self.telling.dates),
            ..self.telling
        };
        let is_settled = self.table.dates.is_some();
        let promised = match written_day(&cell(OrderColumn::Promised), telling, is_settled) {
            Ok(day) => day,
            Err(says) => {
                refusals.refuse("promised", says);
                String::new()
            }
        };
        let (piece, size_from) = self.piece(row, product, &mut refusals);
        refusals.done()?;
        let title = cell(OrderColumn::Title);
        let value = self.amount(&cell(OrderColumn::Value));
        let paid = self.amount(&cell(OrderColumn::ShippingPaid));
        let or =
            |text: String, otherwise: &Option<String>| some(text).or_else(|| otherwise.clone());
        Ok(Order {
            inputs: ShipmentInputs {
                order_number: number.clone(),
                order: OrderInputs {
                    number: number.clone(),
                    shop: self.table.shop.trim().to_owned(),
                    sku: cell(OrderColumn::Sku),
                    paid: some(paid),
                    note: cell(OrderColumn::Note),
                },
                title: some(title).unwrap_or_else(|| self.start.title.clone()),
                buyer: Buyer {
                    name,
                    street: cell(OrderColumn::Street),
                    town: cell(OrderColumn::Town),
                    postcode: cell(OrderColumn::Postcode),
                    country: named.unwrap_or_default().to_owned(),
                    ..Buyer::default()
                },
                value: or(value, &self.start.value),
                promised: or(promised, &self.start.promised),
                piece,
                ..self.start.clone()
            },
            number,
            size_from,
        })
    }

    /// Reads the piece of a row: what the row says goes before what the product was, and that before what all are like.
    fn piece(
        &self,
        row: &Row,
        product: Option<&PieceInputs>,
        refusals: &mut Refusals,
    ) -> (PieceInputs, SizeFrom) {
        let said = self.said(row, refusals);
        let of_row = self.size(row, refusals);
        let title = self.cell(row, OrderColumn::Title);
        let of_title = || size_in(&title);
        let (start, known) = match product {
            Some(product) => (product, SizeFrom::Product),
            None => (&self.start.piece, SizeFrom::Like),
        };
        let mut piece = start.clone();
        let has_size = start.width.is_some() && start.height.is_some();
        let (sides, from) = match of_row {
            Some(sides) => (Some(sides), SizeFrom::Row),
            None if product.is_some() && has_size => (None, known),
            None => match of_title() {
                Some(sides) => (Some(sides), SizeFrom::Title),
                None if has_size => (None, known),
                None => (None, SizeFrom::Nowhere),
            },
        };
        if let Some([width, height, depth]) = sides {
            piece.width = width;
            piece.height = height;
            piece.depth = depth.or(piece.depth);
        }
        // A title that names a size of paper and a print says what it is; of other titles nobody knows what their words mean.
        let of_title = if from == SizeFrom::Title && product.is_none() {
            Said::of(&title)
        } else {
            Said::default()
        };
        piece.construction = said
            .construction
            .or(piece.construction)
            .or(of_title.construction.filter(|one| one.is_loose()));
        piece.medium = said
            .medium
            .or(piece.medium)
            .or(of_title.medium.filter(|one| *one == Medium::Print));
        let count = self.cell(row, OrderColumn::Count);
        if !count.is_empty() {
            match count.parse() {
                Ok(count) => piece.count = Some(count).filter(|count| *count != 1),
                Err(_) => refusals.refuse(
                    "count",
                    format!("\"{count}\" is not a number of pieces: write a whole number"),
                ),
            }
        }
        (piece, from)
    }

    /// Reads what the piece is: `oil on canvas` in the column of media says what carries it, too.
    fn said(&self, row: &Row, refusals: &mut Refusals) -> Said {
        let (kind, medium) = (
            self.cell(row, OrderColumn::Kind),
            self.cell(row, OrderColumn::Medium),
        );
        let (of_kind, of_medium) = (Said::of(&kind), Said::of(&medium));
        let construction = of_kind.construction.or(of_medium.construction);
        if !kind.is_empty() && construction.is_none() {
            let names = Construction::ALL.map(Construction::name).join(", ");
            refusals.refuse(
                "kind",
                format!("\"{kind}\" is not a known kind: write one of {names}"),
            );
        }
        if !medium.is_empty() && of_medium.medium.is_none() && of_medium.construction.is_none() {
            let names = Medium::ALL.map(Medium::name).join(", ");
            refusals.refuse(
                "medium",
                format!("\"{medium}\" is not a known medium: write one of {names}"),
            );
        }
        Said {
            construction,
            medium: of_medium.medium.or(of_kind.medium),
        }
    }

    /// Reads the sides of a row; `None` where it has none.
    fn size(&self, row: &Row, refusals: &mut Refusals) -> Option<Sides> {
        let size = self.cell(row, OrderColumn::Size);
        let named = self.cell(row, OrderColumn::Unit);
        let unit = unit_named(&named);
        if !named.is_empty() && unit.is_none() {
            let says = format!("\"{named}\" is not a unit of length: write mm, cm or in");
            refusals.refuse("unit", says);
        }
        let in_head = |column| self.table.columns.of(column).and_then(unit_of_head);
        let told = |column| unit.or_else(|| in_head(column)).or(self.table.lengths_in);
        if !size.is_empty() {
            if let Some([width, height]) = paper_named(&size) {
                return Some([Some(width.to_owned()), Some(height.to_owned()), None]);
            }
            let told = told(OrderColumn::Size);
            if told.is_none() {
                self.ask("size", &size, refusals);
            }
            return match TypedSize::read(&size, told.unwrap_or(self.bare)) {
                Ok(size) => Some(sides(size)),
                Err(error) => {
                    refusals.refuse("size", error);
                    None
                }
            };
        }
        let columns = [OrderColumn::Width, OrderColumn::Height, OrderColumn::Depth];
        let texts = columns.map(|column| self.cell(row, column));
        if texts.iter().all(String::is_empty) {
            return None;
        }
        let written: Vec<&str> = texts
            .iter()
            .filter(|text| !text.is_empty())
            .map(String::as_str)
            .collect();
        if columns.into_iter().all(|column| told(column).is_none()) && written.len() > 1 {
            self.ask("width", &written.join(" x "), refusals);
        }
        let mut sides = columns.into_iter().zip(&texts).map(|(column, text)| {
            let text = some(text.clone())?;
            match TypedLength::read(&text, told(column).unwrap_or(self.bare)) {
                Ok(side) => Some(side.text().to_owned()),
                Err(error) => {
                    refusals.refuse(column.field(), error);
                    None
                }
            }
        });
        let [width, height, depth] = [sides.next()?, sides.next()?, sides.next()?];
        Some([width, height, depth])
    }

    /// Asks what numbers are in that have no unit anywhere and would be a strange piece as the studio reads them.
    fn ask(&self, field: &str, size: &str, refusals: &mut Refusals) {
        if let Some(readings) = TypedSize::doubt(size, self.bare) {
            let readings: Vec<String> = readings
                .into_iter()
                .map(|(_, size)| format!("{} × {}", size.width.text(), size.height.text()))
                .collect();
            let says = format!(
                "\"{size}\" could be {}: write the unit, or choose one for the whole table",
                readings.join(" or ")
            );
            refusals.refuse(field, says);
        }
    }

    /// Writes an amount as people type one, without the sign of the studio's own money; that of another stays, and is refused.
    fn amount(&self, text: &str) -> String {
        let (code, sign) = (self.currency.code(), self.currency.sign());
        let text = text.trim();
        let bare = [code, sign.as_str()].into_iter().find_map(|own| {
            text.strip_prefix(own)
                .or_else(|| text.strip_suffix(own))
                .map(str::trim)
        });
        amount_of(bare.unwrap_or(text))
    }
}

fn some(text: String) -> Option<String> {
    (!text.is_empty()).then_some(text)
}

/// Writes an amount as people type one: shops part thousands, as `1,450.00` or `1.450,00`. One that could be read in two ways
/// stays as it is, and is refused with both.
fn amount_of(text: &str) -> String {
    let parts = |thousands: char, decimals: char| {
        let (whole, rest) = text.split_once(decimals)?;
        let mut groups = whole.split(thousands);
        let first = groups.next()?;
        let is_digits = |part: &str| part.bytes().all(|byte| byte.is_ascii_digit());
        let groups: Vec<&str> = groups.collect();
        let fits = !groups.is_empty()
            && (1..=3).contains(&first.len())
            && groups.iter().all(|group| group.len() == 3)
            && (1..=2).contains(&rest.len());
        (fits && is_digits(first) && is_digits(rest) && groups.iter().all(|group| is_digits(group)))
            .then(|| format!("{first}{}.{rest}", groups.concat()))
    };
    let found = parts(',', '.').or_else(|| parts('.', ','));
    found.unwrap_or_else(|| text.to_owned())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{
        place::{OwnCountry, PostcodePlace},
        shipment::OrderColumns,
    };

    fn countries() -> Countries {
        let own = [("XS", "Saltmark"), ("XV", "Vennland")].map(|(code, name)| OwnCountry {
            code: code.into(),
            name: name.into(),
            format: PostcodePlace::BeforeTown.format().clone(),
        });
        Countries::of(own.into(), "XS", Vec::new())
    }

    fn columns() -> OrderColumns {
        let named = |name: &str| Some(name.to_owned());
        OrderColumns {
            number: named("Order"),
            name: named("Ship to"),
            town: named("City"),
            country: named("Land"),
            title: named("Item"),
            ..OrderColumns::default()
        }
    }

    fn row(cells: &[(&str, &str)]) -> BTreeMap<String, String> {
        cells
            .iter()
            .map(|(name, text)| ((*name).to_owned(), (*text).to_owned()))
            .collect()
    }

    #[test]
    fn thousands_are_read_where_they_can_be_told_from_decimals() {
        for (text, read) in [
            ("1,450.00", "1450.00"),
            ("1.450,00", "1450.00"),
            ("12,345,678.5", "12345678.5"),
            ("640.00", "640.00"),
            ("640,00", "640,00"),
            // It could be 1450 or 1.45: it is refused with both, as anywhere.
            ("1,450", "1,450"),
            ("14,50.00", "14,50.00"),
            ("", ""),
        ] {
            assert_eq!(amount_of(text), read, "{text}");
        }
    }

    fn table() -> OrderTable {
        OrderTable {
            columns: columns(),
            ..OrderTable::default()
        }
    }

    fn read(
        table: &OrderTable,
        start: &ShipmentInputs,
        product: Option<&PieceInputs>,
        cells: &[(&str, &str)],
    ) -> Result<Order, Vec<Refusal>> {
        let reading = OrderReading {
            table,
            start,
            countries: &countries(),
            telling: Telling::default(),
            bare: LengthUnit::Mm,
            currency: "EUR".to_owned().try_into().expect("a currency"),
        };
        reading.order(&row(cells), product)
    }

    #[track_caller]
    fn refused(table: &OrderTable, cells: &[(&str, &str)], field: &str, says: &str) {
        let cells: Vec<_> = [("Order", "#1"), ("Ship to", "Oda Marsh")]
            .into_iter()
            .chain(cells.iter().copied())
            .collect();
        let refusals =
            read(table, &ShipmentInputs::default(), None, &cells).expect_err("it is refused");
        let found: Vec<&str> = refusals.iter().map(|one| one.field.as_str()).collect();
        assert_eq!(found, [field], "{refusals:?}");
        assert!(
            refusals[0].message.contains(says),
            "{}",
            refusals[0].message
        );
    }

    #[test]
    fn a_row_is_read_by_its_columns_over_what_it_starts_from() {
        let start = ShipmentInputs {
            title: "Kelp Ladder".to_owned(),
            value: Some("640".to_owned()),
            ..ShipmentInputs::default()
        };
        let order = read(
            &table(),
            &start,
            None,
            &[
                ("Order", " #1042 "),
                ("Ship to", "Oda  Marsh"),
                ("Land", "vennland"),
                ("Unasked", "x"),
            ],
        )
        .expect("an order");
        assert_eq!(
            (order.number.as_str(), order.inputs.order_number()),
            ("#1042", "#1042")
        );
        let inputs = order.inputs;
        assert_eq!(
            (inputs.buyer.name.as_str(), inputs.buyer.country.as_str()),
            ("Oda Marsh", "XV")
        );
        assert_eq!(
            (inputs.title.as_str(), inputs.value.as_deref()),
            ("Kelp Ladder", Some("640"))
        );
        let nothing = read(&table(), &start, None, &[("Land", "Atlantis")]);
        let fields: Vec<String> = nothing
            .expect_err("nothing is there")
            .into_iter()
            .map(|refusal| refusal.field)
            .collect();
        assert_eq!(fields, ["number", "name", "country"]);
    }

    const ONE: [(&str, &str); 2] = [("Order", "#1"), ("Ship to", "Oda Marsh")];

    /// The sides, where they are from, and what it is.
    fn piece_of(
        table: &OrderTable,
        product: Option<&PieceInputs>,
        cells: &[(&str, &str)],
    ) -> (Vec<String>, SizeFrom, Option<Construction>, Option<Medium>) {
        let cells: Vec<_> = ONE.into_iter().chain(cells.iter().copied()).collect();
        let order = read(table, &ShipmentInputs::default(), product, &cells).expect("it is read");
        let piece = order.inputs.piece;
        let sides = [piece.width, piece.height, piece.depth];
        (
            sides.into_iter().flatten().collect(),
            order.size_from,
            piece.construction,
            piece.medium,
        )
    }

    fn with_pieces() -> OrderTable {
        let mut table = table();
        let named = |name: &str| Some(name.to_owned());
        table.columns.size = named("Size");
        table.columns.unit = named("Unit");
        table.columns.kind = named("What");
        table.columns.medium = named("In");
        table.columns.count = named("Qty");
        table.columns.shipping_paid = named("Shipping");
        table.columns.value = named("Price");
        table.columns.promised = named("Due");
        table
    }

    #[test]
    fn sides_are_in_the_unit_of_their_cell_then_of_their_column_then_of_the_head_then_of_the_table()
    {
        let mut table = with_pieces();
        let sides = |table: &OrderTable, cells: &[(&str, &str)]| piece_of(table, None, cells).0;
        assert_eq!(
            sides(&table, &[("Size", "24x36x2 in"), ("Unit", "cm")]),
            ["24 in", "36 in", "2 in"]
        );
        assert_eq!(
            sides(&table, &[("Size", "60 x 80 x 2"), ("Unit", "cm")]),
            ["60 cm", "80 cm", "2 cm"]
        );
        assert_eq!(
            sides(&table, &[("Size", "600 x 800")]),
            ["600 mm", "800 mm"]
        );
        assert_eq!(sides(&table, &[("Size", "A3")]), ["297 mm", "420 mm"]);
        table.lengths_in = Some(LengthUnit::In);
        assert_eq!(
            sides(&table, &[("Size", "24 x 36 1/2")]),
            ["24 in", "36 1/2 in"]
        );
        table.columns.size = None;
        table.columns.width = Some("Width (cm)".to_owned());
        table.columns.height = Some("Height".to_owned());
        table.columns.depth = Some("Depth".to_owned());
        let cells = [
            ("Width (cm)", "60,5"),
            ("Height", "31.5"),
            ("Depth", "38 mm"),
        ];
        assert_eq!(sides(&table, &cells), ["60,5 cm", "31.5 in", "38 mm"]);
    }

    #[test]
    fn a_size_that_could_be_two_is_asked_for_once() {
        let mut table = with_pieces();
        refused(
            &table,
            &[("Size", "60x80x2")],
            "size",
            "60 mm × 80 mm or 60 cm × 80 cm",
        );
        refused(&table, &[("Size", "60 cm")], "size", "1 of 3 lengths");
        refused(
            &table,
            &[("Size", "60x80 cm"), ("Unit", "ells")],
            "unit",
            "not a unit of length",
        );
        table.lengths_in = Some(LengthUnit::Cm);
        assert_eq!(
            piece_of(&table, None, &[("Size", "60x80x2")]).0,
            ["60 cm", "80 cm", "2 cm"]
        );
        table.lengths_in = None;
        table.columns.size = None;
        table.columns.width = Some("W".to_owned());
        table.columns.height = Some("H".to_owned());
        refused(
            &table,
            &[("W", "60"), ("H", "80")],
            "width",
            "60 cm × 80 cm",
        );
        refused(&table, &[("W", "600"), ("H", "tall")], "height", "tall");
    }

    #[test]
    fn what_a_row_says_goes_before_its_product_and_that_before_its_title() {
        let table = with_pieces();
        let product = PieceInputs {
            construction: Some(Construction::CradledPanel),
            medium: Some(Medium::Oil),
            width: Some("40 cm".to_owned()),
            height: Some("50 cm".to_owned()),
            depth: Some("30 mm".to_owned()),
            ..PieceInputs::default()
        };
        let title = ("Item", "Winter reed, A3 print");
        let known = Some(&product);
        assert_eq!(
            piece_of(
                &table,
                known,
                &[title, ("Size", "60x80 cm"), ("In", "acrylic")]
            ),
            (
                ["60 cm", "80 cm", "30 mm"].map(str::to_owned).to_vec(),
                SizeFrom::Row,
                Some(Construction::CradledPanel),
                Some(Medium::Acrylic)
            )
        );
        assert_eq!(
            piece_of(&table, known, &[title]),
            (
                ["40 cm", "50 cm", "30 mm"].map(str::to_owned).to_vec(),
                SizeFrom::Product,
                Some(Construction::CradledPanel),
                Some(Medium::Oil)
            )
        );
        assert_eq!(
            piece_of(&table, None, &[title]),
            (
                ["297 mm", "420 mm"].map(str::to_owned).to_vec(),
                SizeFrom::Title,
                Some(Construction::LoosePaper),
                Some(Medium::Print)
            )
        );
        // A mirror lake is a painting: a title says what a piece is only where it is a print.
        assert_eq!(
            piece_of(&table, None, &[("Item", "Mirror Lake 40x50 cm")]),
            (
                ["40 cm", "50 cm"].map(str::to_owned).to_vec(),
                SizeFrom::Title,
                None,
                None
            )
        );
        assert_eq!(
            piece_of(&table, None, &[("In", "Öl auf Leinwand")]),
            (
                vec![],
                SizeFrom::Nowhere,
                Some(Construction::StretchedCanvas),
                Some(Medium::Oil)
            )
        );
    }

    #[test]
    fn what_is_no_kind_medium_count_or_day_says_what_could_stand_there() {
        let mut table = with_pieces();
        refused(&table, &[("What", "Wall art")], "kind", "stretched canvas");
        refused(&table, &[("In", "love")], "medium", "encaustic");
        refused(&table, &[("Qty", "a pair")], "count", "whole number");
        refused(
            &table,
            &[("Due", "04/05/2027")],
            "promised",
            "4 May 2027 or 5 Apr 2027",
        );
        // The table's own order settles it.
        table.dates = Some(crate::quantity::DateOrder::Mdy);
        let cells: Vec<_> = ONE.into_iter().chain([("Due", "04/05/2027")]).collect();
        let order = read(&table, &ShipmentInputs::default(), None, &cells).expect("a day");
        assert_eq!(order.inputs.promised.as_deref(), Some("2027-04-05"));
    }

    #[test]
    fn a_sum_may_carry_the_sign_of_the_own_money_only() {
        let table = with_pieces();
        for (typed, kept) in [
            ("12,50 €", "12,50"),
            ("EUR 1.450,00", "1450.00"),
            ("12.50", "12.50"),
            // It is refused with the shipment: nobody knows how many euros that is.
            ("$12.50", "$12.50"),
        ] {
            let cells: Vec<_> = ONE.into_iter().chain([("Shipping", typed)]).collect();
            let order = read(&table, &ShipmentInputs::default(), None, &cells).expect("a sum");
            assert_eq!(order.inputs.order.paid.as_deref(), Some(kept), "{typed}");
        }
    }

    #[test]
    fn a_refusal_of_the_shipment_is_told_at_the_column() {
        let mut table = with_pieces();
        assert_eq!(table.column_of("piece.depth"), "size");
        table.columns.size = None;
        assert_eq!(table.column_of("piece.depth"), "depth");
        assert_eq!(table.column_of("order.paid"), "shipping_paid");
        assert_eq!(table.column_of("buyer.postcode"), "postcode");
        assert_eq!(table.column_of("value"), "value");
    }
}
