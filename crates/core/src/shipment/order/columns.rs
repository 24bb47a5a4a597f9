//! Which column of a shop's table holds what, and how that is guessed from its head.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

use crate::{
    place::fold,
    quantity::{DateOrder, LengthUnit},
};

/// Makes the columns: each once, with the words that shops write over it, in small letters without marks.
macro_rules! order_columns {
    ($($(#[doc = $doc:literal])+ $column:ident $field:ident $words:tt;)*) => {
        /// What a column of a table of orders may hold.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
        pub enum OrderColumn {
            $($(#[doc = $doc])+ $column,)*
        }

        impl OrderColumn {
            /// Every column, in the order in which they are shown.
            pub const ALL: &'static [Self] = &[$(Self::$column),*];

            /// The name of the field that holds it.
            #[must_use]
            pub const fn field(self) -> &'static str {
                match self { $(Self::$column => stringify!($field),)* }
            }

            const fn words(self) -> &'static [&'static str] {
                match self { $(Self::$column => &$words,)* }
            }
        }

        /// Which column of a table holds what, by the names in its head; `None` if there is none for it.
        #[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(default, deny_unknown_fields)]
        pub struct OrderColumns {
            $($(#[doc = $doc])+ pub $field: Option<String>,)*
        }

        impl OrderColumns {
            /// The name in the head over a column.
            #[must_use]
            pub fn of(&self, column: OrderColumn) -> Option<&str> {
                match column { $(OrderColumn::$column => self.$field.as_deref(),)* }
            }

            fn set(&mut self, column: OrderColumn, name: &str) {
                match column { $(OrderColumn::$column => self.$field = Some(name.to_owned()),)* }
            }
        }
    };
}

order_columns! {
    /// By which the shop knows the order.
    Number number [
        "order number", "order no", "order nr", "order id", "order", "number", "order name", "order reference", "reference",
        "bestellnummer", "bestellung", "bestell nr", "auftragsnummer", "auftrag", "numero de commande", "commande", "numero de pedido",
        "pedido", "numero ordine", "ordine", "bestelnummer"
    ];
    /// Who gets it.
    Name name [
        "ship to", "ship to name", "shipping name", "recipient", "recipient name", "deliver to", "delivery name", "full name",
        "customer", "customer name", "buyer", "buyer name", "name", "empfanger", "kunde", "kundenname", "destinataire", "client", "nom",
        "destinatario", "cliente", "nombre", "nome", "ontvanger", "naam"
    ];
    /// Street and number.
    Street street [
        "street", "street address", "shipping street", "address", "address line 1", "address 1", "shipping address",
        "shipping address 1", "strasse", "straße", "strasse und hausnummer", "straße und hausnummer", "anschrift", "adresse",
        "adresse 1", "rue", "direccion", "calle", "indirizzo", "via", "adres", "straat"
    ];
    /// Town.
    Town town [
        "town", "city", "town or city", "shipping city", "ort", "stadt", "wohnort", "ville", "ciudad", "poblacion", "citta", "plaats"
    ];
    /// Postcode.
    Postcode postcode [
        "postcode", "post code", "postal code", "zip", "zip code", "shipping zip", "plz", "postleitzahl", "code postal",
        "codigo postal", "cap"
    ];
    /// Country, by its name or by its code.
    Country country [
        "country", "country code", "shipping country", "land", "lieferland", "pays", "pais", "paese"
    ];
    /// The piece.
    Title title [
        "title", "item", "item name", "item title", "line item", "product", "product name", "product title", "piece", "artwork",
        "work", "description", "artikel", "artikelname", "artikelbezeichnung", "produkt", "bezeichnung", "titel", "werk", "titre",
        "produit", "article", "oeuvre", "titulo", "producto", "obra", "titolo", "prodotto", "opera"
    ];
    /// By which the shop knows the product: one that was met before brings its size, kind and medium.
    Sku sku [
        "sku", "item sku", "product code", "item code", "item number", "article number", "stock code", "artikelnummer", "artikel nr",
        "art nr", "reference article", "referencia", "codice articolo"
    ];
    /// What it is: `stretched canvas`, `print`, `framed under glass`.
    Kind kind [
        "kind", "type", "product type", "item type", "construction", "category", "typ", "produkttyp", "ausfuhrung", "kategorie",
        "categorie", "categoria", "tipo"
    ];
    /// What it is painted, drawn or printed in: `oil`, `oil on canvas`.
    Medium medium [
        "medium", "media", "technique", "materials", "material", "technik", "tecnica", "techniek"
    ];
    /// Its sides in one column, as `24 × 36 × 1 1/2 in` or `A3`.
    Size size [
        "size", "dimensions", "measurements", "measure", "format", "große", "groesse", "maße", "masse", "abmessungen", "taille",
        "medidas", "tamano", "misure", "dimensioni", "afmetingen", "formaat"
    ];
    /// Across, as hung, where each side has a column.
    Width width ["width", "breite", "largeur", "ancho", "anchura", "larghezza", "breedte", "w"];
    /// Up, as hung.
    Height height ["height", "hohe", "hoehe", "hauteur", "alto", "altura", "altezza", "hoogte", "h"];
    /// From face to back.
    Depth depth [
        "depth", "thickness", "tiefe", "dicke", "starke", "profondeur", "epaisseur", "profundidad", "fondo", "grosor", "profondita",
        "spessore", "diepte", "d"
    ];
    /// What its sides are in: `cm`, `in`.
    Unit unit ["unit", "units", "size unit", "unit of length", "einheit", "maßeinheit", "unite", "unidad", "unita", "eenheid"];
    /// How many like pieces go in the one parcel, 1 to 60.
    Count count [
        "count", "quantity", "qty", "pieces", "how many", "menge", "anzahl", "stuck", "stuckzahl", "quantite", "cantidad", "quantita",
        "aantal"
    ];
    /// What it was sold for.
    Value value [
        "value", "sold for", "price", "item price", "unit price", "amount", "subtotal", "total", "preis", "wert", "betrag",
        "verkaufspreis", "prix", "valeur", "precio", "valor", "prezzo", "valore", "prijs"
    ];
    /// What the buyer paid for carriage.
    ShippingPaid shipping_paid [
        "shipping paid", "shipping", "shipping price", "shipping cost", "shipping charged", "shipping total", "carriage",
        "carriage paid", "postage", "postage paid", "delivery charge", "versand", "versandkosten", "porto", "frais de port",
        "livraison", "gastos de envio", "envio", "spedizione", "spese di spedizione", "verzendkosten"
    ];
    /// The day it was promised for, as 2027-03-12, 12 Mar 2027 or 12.3.2027.
    Promised promised [
        "promised", "promised for", "promised day", "promise date", "deliver by", "delivery date", "due", "due date", "needed by",
        "ship by", "liefertermin", "lieferdatum", "zugesagt", "zugesagt bis", "date de livraison", "fecha de entrega",
        "data di consegna", "leverdatum"
    ];
    /// What the buyer wrote with the order.
    Note note [
        "note", "notes", "order note", "comment", "comments", "message", "buyer note", "remarks", "anmerkung", "anmerkungen",
        "bemerkung", "hinweis", "notiz", "nachricht", "remarque", "nota", "notas", "opmerking"
    ];
}

/// Words that may stand beside those of a column without changing what it holds.
const BESIDE: [&str; 16] = [
    "shipping",
    "ship",
    "delivery",
    "to",
    "recipient",
    "buyer",
    "customer",
    "item",
    "line",
    "order",
    "of",
    "the",
    "eur",
    "usd",
    "gbp",
    "1",
];
/// Who pays lives elsewhere as like as not: such a column is never taken for the address of the parcel.
const OF_THE_PAYER: [&str; 6] = [
    "billing",
    "bill",
    "invoice",
    "payer",
    "rechnung",
    "facturation",
];
/// What an exact name counts, beside one with words besides.
const EXACT: usize = 1000;
const A_WORD: usize = 100;

/// A table of orders, as it is to be read.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct OrderTable {
    /// Which column holds what.
    pub columns: OrderColumns,
    /// What lengths are in that have no unit in their cell, in the column of units or in the head; as the studio reads them when
    /// absent.
    pub lengths_in: Option<LengthUnit>,
    /// In which order day and month stand in `04/05/2027`; each such day is asked about when absent.
    pub dates: Option<DateOrder>,
    /// The shop that the table is from; up to 80 characters, or empty.
    pub shop: String,
}

impl OrderTable {
    /// Guesses how a table is read from its head and its first rows. No column of the table is taken twice.
    #[must_use]
    pub fn guessed(head: &[String], rows: &[BTreeMap<String, String>]) -> Self {
        let columns = OrderColumns::guessed(head, rows);
        let days = columns.promised.as_ref().map(|name| {
            let cells = rows.iter().filter_map(|row| row.get(name));
            cells.map(String::as_str).collect::<Vec<_>>()
        });
        Self {
            dates: order_of_days(&days.unwrap_or_default()),
            columns,
            ..Self::default()
        }
    }

    /// Returns the column that a field of a shipment is read from; the field itself where it is from none.
    #[must_use]
    pub fn column_of<'a>(&self, field: &'a str) -> &'a str {
        let in_one = self.columns.size.is_some();
        match field {
            "piece.width" | "piece.height" | "piece.depth" if in_one => OrderColumn::Size.field(),
            "piece.width" => OrderColumn::Width.field(),
            "piece.height" => OrderColumn::Height.field(),
            "piece.depth" => OrderColumn::Depth.field(),
            "piece.construction" => OrderColumn::Kind.field(),
            "piece.medium" => OrderColumn::Medium.field(),
            "piece.count" => OrderColumn::Count.field(),
            "order.number" | "order_number" => OrderColumn::Number.field(),
            "order.sku" => OrderColumn::Sku.field(),
            "order.paid" => OrderColumn::ShippingPaid.field(),
            "order.note" => OrderColumn::Note.field(),
            other => other.strip_prefix("buyer.").unwrap_or(other),
        }
    }

    /// Tells whether the head of a table has every column that is named here.
    #[must_use]
    pub fn fits(&self, head: &[String]) -> bool {
        let mut named = OrderColumn::ALL
            .iter()
            .filter_map(|column| self.columns.of(*column));
        named.all(|name| head.iter().any(|one| one == name))
    }
}

impl OrderColumns {
    fn guessed(head: &[String], rows: &[BTreeMap<String, String>]) -> Self {
        let mut found: Vec<(usize, OrderColumn, &String)> = Vec::new();
        for name in head {
            for column in OrderColumn::ALL {
                let likely = column.likely(name);
                if likely > 0 && column.holds(rows.iter().filter_map(|row| row.get(name))) {
                    found.push((likely, *column, name));
                }
            }
        }
        // Stable, so that of two that are as likely the one that stands first is taken.
        found.sort_by_key(|(likely, ..)| std::cmp::Reverse(*likely));
        let mut columns = Self::default();
        let mut taken: Vec<&String> = Vec::new();
        for (_, column, name) in found {
            if columns.of(column).is_none() && !taken.contains(&name) {
                columns.set(column, name);
                taken.push(name);
            }
        }
        // Sides of their own say more than one column that repeats them.
        if columns.width.is_some() && columns.height.is_some() {
            columns.size = None;
        }
        columns
    }
}

impl OrderColumn {
    /// Returns how likely a column with a name in its head holds this; nought where nothing speaks for it.
    fn likely(self, name: &str) -> usize {
        let words = words_of(name);
        let of_payer = words
            .iter()
            .any(|word| OF_THE_PAYER.contains(&word.as_str()));
        if of_payer && self.is_of_address() {
            return 0;
        }
        let is_side = matches!(self, Self::Width | Self::Height | Self::Depth | Self::Size);
        let rest: &[String] = if is_side && unit_of_head(name).is_some() {
            let end = words.len().saturating_sub(1);
            let end = if end > 1 && words[end - 1] == "in" {
                end - 1
            } else {
                end
            };
            &words[..end]
        } else {
            &words
        };
        let fits = self.words().iter().enumerate().filter_map(|(at, phrase)| {
            let wanted: Vec<&str> = phrase.split(' ').collect();
            let start = (0..rest.len().saturating_sub(wanted.len() - 1))
                .find(|start| rest[*start..*start + wanted.len()] == wanted[..])?;
            let beside = rest[..start].iter().chain(&rest[start + wanted.len()..]);
            let others = beside.clone().count();
            let is_plain = beside.clone().all(|word| BESIDE.contains(&word.as_str()));
            match others {
                // What stands first among its words is what shops write most.
                0 => Some(EXACT + A_WORD * wanted.len() - at.min(A_WORD)),
                _ if is_plain => Some(A_WORD * wanted.len() - others.min(A_WORD / 2)),
                _ => None,
            }
        });
        fits.max().unwrap_or(0)
    }

    const fn is_of_address(self) -> bool {
        matches!(
            self,
            Self::Name | Self::Street | Self::Town | Self::Postcode | Self::Country
        )
    }

    /// Tells whether cells look like what it holds: figures where it holds figures, in at least half of them.
    fn holds<'a>(self, cells: impl Iterator<Item = &'a String>) -> bool {
        let is_figure = match self {
            Self::Width
            | Self::Height
            | Self::Depth
            | Self::Count
            | Self::Value
            | Self::ShippingPaid => true,
            Self::Number
            | Self::Name
            | Self::Street
            | Self::Town
            | Self::Postcode
            | Self::Country
            | Self::Title
            | Self::Sku
            | Self::Kind
            | Self::Medium
            | Self::Size
            | Self::Unit
            | Self::Promised
            | Self::Note => false,
        };
        if !is_figure {
            return true;
        }
        let (mut all, mut figures) = (0, 0);
        for cell in cells.filter(|cell| !cell.trim().is_empty()) {
            all += 1;
            figures += usize::from(cell.chars().any(|one| one.is_ascii_digit()));
        }
        figures * 2 >= all
    }
}

/// Returns the words of a head, in small letters without marks.
fn words_of(name: &str) -> Vec<String> {
    let folded = fold(name).replace('"', " in ");
    folded
        .split(|one: char| !one.is_alphanumeric())
        .filter(|word| !word.is_empty())
        .map(str::to_owned)
        .collect()
}

/// Returns the unit that a head ends with: `Width (in)`, `Breite in cm`, `height_mm`, `Depth "`.
pub(super) fn unit_of_head(name: &str) -> Option<LengthUnit> {
    let words = words_of(name);
    // A word alone is the name of a column, not its unit.
    let (last, _) = words
        .split_last()
        .filter(|(_, before)| !before.is_empty())?;
    unit_named(last)
}

/// Returns the unit of a name: `cm`, `inches`, `Zoll`.
pub(super) fn unit_named(name: &str) -> Option<LengthUnit> {
    match fold(name).as_str() {
        "mm" | "millimetre" | "millimetres" | "millimeter" | "millimeters" => Some(LengthUnit::Mm),
        "cm" | "centimetre" | "centimetres" | "centimeter" | "centimeters" | "zentimeter" => {
            Some(LengthUnit::Cm)
        }
        "in" | "inch" | "inches" | "\"" | "″" | "zoll" | "pouces" | "pulgadas" | "pollici" => {
            Some(LengthUnit::In)
        }
        _ => None,
    }
}

/// Returns in which order days and months of a column stand, where any of its cells can be read in one order only and none in the
/// other one only.
fn order_of_days(cells: &[&str]) -> Option<DateOrder> {
    let (mut day_first, mut month_first) = (false, false);
    for cell in cells {
        let parts: Vec<Option<u8>> = cell
            .trim()
            .splitn(3, ['/', '-', '.'])
            .map(|part| part.trim().parse().ok())
            .collect();
        let [Some(first), Some(second), ..] = parts[..] else {
            continue;
        };
        day_first |= first > 12 || cell.contains('.');
        month_first |= second > 12;
    }
    match (day_first, month_first) {
        (true, false) => Some(DateOrder::Dmy),
        (false, true) => Some(DateOrder::Mdy),
        _ => None,
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    fn head(names: &[&str]) -> Vec<String> {
        names.iter().map(|name| (*name).to_owned()).collect()
    }

    fn row(names: &[&str], cells: &[&str]) -> BTreeMap<String, String> {
        let pairs = names.iter().zip(cells);
        pairs
            .map(|(name, cell)| ((*name).to_owned(), (*cell).to_owned()))
            .collect()
    }

    #[test]
    fn a_head_is_guessed_in_the_words_of_shops() {
        let names = [
            "Bestellnummer",
            "Empfänger",
            "Straße",
            "PLZ",
            "Ort",
            "Land",
            "Artikel",
            "Artikelnummer",
            "Größe",
            "Technik",
            "Anzahl",
            "Preis",
            "Versandkosten",
            "Liefertermin",
            "Anmerkung",
        ];
        let found = OrderTable::guessed(&head(&names), &[]).columns;
        let fields: Vec<(&str, Option<&str>)> = OrderColumn::ALL
            .iter()
            .map(|column| (column.field(), found.of(*column)))
            .filter(|(_, name)| name.is_some())
            .collect();
        assert_eq!(
            fields,
            [
                ("number", Some("Bestellnummer")),
                ("name", Some("Empfänger")),
                ("street", Some("Straße")),
                ("town", Some("Ort")),
                ("postcode", Some("PLZ")),
                ("country", Some("Land")),
                ("title", Some("Artikel")),
                ("sku", Some("Artikelnummer")),
                ("medium", Some("Technik")),
                ("size", Some("Größe")),
                ("count", Some("Anzahl")),
                ("value", Some("Preis")),
                ("shipping_paid", Some("Versandkosten")),
                ("promised", Some("Liefertermin")),
                ("note", Some("Anmerkung")),
            ]
        );
    }

    #[test]
    fn sides_carry_their_unit_in_the_head_and_who_pays_is_not_who_gets_it() {
        let names = [
            "Order ID",
            "Billing Name",
            "Shipping Name",
            "Billing City",
            "Shipping City",
            "Shipping Method",
            "Shipping",
            "Width (in)",
            "Breite in cm",
            "height_mm",
        ];
        let cells = [
            "#1", "A", "B", "C", "D", "Standard", "12.00", "24", "61", "900",
        ];
        let table = OrderTable::guessed(&head(&names), &[row(&names, &cells)]);
        let columns = &table.columns;
        assert_eq!(columns.name.as_deref(), Some("Shipping Name"));
        assert_eq!(columns.town.as_deref(), Some("Shipping City"));
        assert_eq!(columns.shipping_paid.as_deref(), Some("Shipping"));
        assert_eq!(columns.width.as_deref(), Some("Width (in)"));
        assert_eq!(columns.height.as_deref(), Some("height_mm"));
        for (name, unit) in [
            ("Width (in)", Some(LengthUnit::In)),
            ("Breite in cm", Some(LengthUnit::Cm)),
            ("height_mm", Some(LengthUnit::Mm)),
            ("Depth \"", Some(LengthUnit::In)),
            ("Width", None),
            ("in", None),
        ] {
            assert_eq!(unit_of_head(name), unit, "{name}");
        }
        // A way of sending is no sum, whatever stands over it.
        let names = ["Shipping"];
        let table = OrderTable::guessed(&head(&names), &[row(&names, &["Standard"])]);
        assert_eq!(table.columns.shipping_paid, None);
    }

    #[test]
    fn days_are_in_the_order_that_fits_all_of_them() {
        for (cells, order) in [
            (vec!["04/05/2027", "13/05/2027"], Some(DateOrder::Dmy)),
            (vec!["04/05/2027", "05/13/2027"], Some(DateOrder::Mdy)),
            (vec!["4.5.2027"], Some(DateOrder::Dmy)),
            // Twelve is a month and a day; so it says nothing.
            (vec!["12/12/2027", "04/05/2027"], None),
            // No order fits both.
            (vec!["13/05/2027", "05/13/2027"], None),
            (vec!["2027-05-13", "soon", ""], None),
        ] {
            assert_eq!(order_of_days(&cells), order, "{cells:?}");
        }
    }

    proptest! {
        /// Each column of a table is taken at most once, and only such as it has, whatever stands in its head.
        #[test]
        fn no_column_is_taken_twice(names in proptest::collection::vec("[A-Za-z ]{0,12}|Order|Name|Size|Shipping|Width \\(in\\)|Price|Ort", 0..12)) {
            let table = OrderTable::guessed(&names, &[]);
            prop_assert!(table.fits(&names));
            let mut taken: Vec<&str> = OrderColumn::ALL.iter().filter_map(|column| table.columns.of(*column)).collect();
            let before = taken.len();
            taken.sort_unstable();
            taken.dedup();
            prop_assert_eq!(taken.len(), before);
        }

        /// Every word that is listed for a column finds it, where nothing else stands in the table.
        #[test]
        fn every_word_that_is_listed_is_understood(at in 0..OrderColumn::ALL.len(), word in any::<prop::sample::Index>()) {
            let column = OrderColumn::ALL[at];
            let words = column.words();
            let name = words[word.index(words.len())].to_owned();
            let table = OrderTable::guessed(std::slice::from_ref(&name), &[]);
            prop_assert_eq!(table.columns.of(column), Some(name.as_str()));
        }
    }
}
