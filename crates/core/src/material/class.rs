//! The classes of the catalogue, and changing one material in one of them.

use serde::{Deserialize, Serialize};
use serde_json::Value;

use super::{Catalogue, Kit, MaterialId, piece_goods::SETS};
use crate::{
    Refusal, Refusals,
    json::{self, Misfit},
};

/// Declares the classes of materials, each with its list in the catalogue, by whose name it is called in JSON and in addresses.
macro_rules! classes {
    ($($(#[$doc:meta])* $class:ident = $list:ident;)*) => {
        /// A class of materials.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(rename_all = "snake_case")]
        pub enum MaterialClass {
            $($(#[$doc])* $class,)*
        }

        impl MaterialClass {
            /// Every class, in the order of the work.
            pub const ALL: [Self; [$(stringify!($class)),*].len()] = [$(Self::$class,)*];

            /// Returns its name in JSON and in addresses.
            #[must_use]
            pub const fn key(self) -> &'static str {
                match self { $(Self::$class => stringify!($list),)* }
            }
        }

        impl Catalogue {
            /// Returns the materials of a class as JSON.
            ///
            /// # Panics
            /// Never: every material can be written.
            #[must_use]
            pub fn class(&self, class: MaterialClass) -> Vec<Value> {
                fn written(list: &[impl Serialize]) -> Vec<Value> {
                    let each = list.iter().map(serde_json::to_value);
                    each.collect::<Result<_, _>>().expect("a material can be written")
                }
                match class { $(MaterialClass::$class => written(&self.$list),)* }
            }

            /// Returns the catalogue without a material.
            #[must_use]
            pub fn without(&self, class: MaterialClass, id: &MaterialId) -> Self {
                let mut less = self.clone();
                match class { $(MaterialClass::$class => less.$list.retain(|one| one.id != *id),)* }
                less
            }

            /// Tells whether a class holds a material.
            #[must_use]
            pub fn holds(&self, class: MaterialClass, id: &MaterialId) -> bool {
                match class { $(MaterialClass::$class => self.$list.iter().any(|one| one.id == *id),)* }
            }
        }
    };
}

classes! {
    /// Sheets that may lie against the art.
    ContactPapers = contact_papers;
    /// Boards for faces, corners and boxes.
    Boards = boards;
    /// Cushions that are wound around.
    CushionWraps = cushion_wraps;
    /// Foams for pads and blocks.
    Foams = foams;
    /// Loose fill.
    Fills = fills;
    /// Stretch film and bags.
    Films = films;
    /// Tapes.
    Tapes = tapes;
    /// Bought corners.
    SlipOnCorners = slip_on_corners;
    /// Tags, sachets and labels.
    Sundries = sundries;
    /// Round tubes.
    Tubes = tubes;
    /// Cores that sheets are rolled on.
    Cores = cores;
    /// Battens of wood, for the frame of a case.
    Battens = battens;
    /// Stiff and padded mailers.
    Mailers = mailers;
    /// Bought picture cartons.
    PictureCartons = picture_cartons;
}

impl MaterialClass {
    /// Returns the class of that name.
    #[must_use]
    pub fn of_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|class| class.key() == key)
    }
}

/// Lengths, densities and prices of a material lie within these.
const MOST: f64 = 1e6;

impl Catalogue {
    /// Returns the catalogue with a material put in a class, in place of one of its id or after the others.
    ///
    /// # Errors
    /// A [`Refusal`] for each field that is missing or can't stand; lengths, densities and prices must be
    /// from 0 to 1 000 000, and an id is made of small letters, digits and dashes.
    pub fn with(&self, class: MaterialClass, material: Value) -> Result<Self, Vec<Refusal>> {
        let id = id_of(&material)?;
        let mut refusals = Refusals::from(numbers_refused(&material, ""));
        refusals.done()?;
        self.id_is_free(&id, class)?;
        let mut whole = serde_json::to_value(self).expect("a catalogue can be written");
        let shelf = whole[class.key()]
            .as_array_mut()
            .expect("a class is a list");
        let place = shelf
            .iter()
            .position(|there| there["id"].as_str() == Some(&id))
            .unwrap_or(shelf.len());
        if place == shelf.len() {
            shelf.push(material);
        } else {
            shelf[place] = material;
        }
        let catalogue: Self = json::read(whole).map_err(|error| vec![misfit(&error)])?;
        catalogue.curves_hold().map_err(|refusal| vec![refusal])?;
        catalogue.kit_holds(&id).map_err(|refusal| vec![refusal])?;
        // Whoever changes a material has looked at its price.
        Ok(match catalogue == *self {
            true => catalogue,
            false => catalogue.looked_at(&id),
        })
    }

    /// Tells whether any class holds a material.
    #[must_use]
    pub fn has(&self, id: &MaterialId) -> bool {
        MaterialClass::ALL
            .into_iter()
            .any(|class| self.holds(class, id))
    }

    fn id_is_free(&self, id: &str, class: MaterialClass) -> Result<(), Vec<Refusal>> {
        let id = MaterialId::new(id);
        let taken = MaterialClass::ALL
            .into_iter()
            .find(|&other| other != class && self.holds(other, &id));
        match taken {
            Some(other) => Err(vec![Refusal::new(
                "id",
                format!("\"{id}\" is already used in {}", other.key()),
            )]),
            None => Ok(()),
        }
    }

    /// A set of corners has as many parts as there are ways to put them together.
    fn kit_holds(&self, id: &str) -> Result<(), Refusal> {
        let kit = self
            .picture_cartons
            .iter()
            .find(|kit| kit.id.as_str() == id);
        match kit {
            Some(kit) if kit.kit() == Kit::Corners && !SETS.contains(&kit.parts) => {
                Err(Refusal::new(
                    "parts",
                    format!(
                        "a set of corners has 2, 3, 4, 6 or 8 parts, not {}",
                        kit.parts
                    ),
                ))
            }
            Some(kit) if matches!(kit.kit(), Kit::Trays | Kit::Telescope) && kit.parts != 2 => Err(
                Refusal::new("parts", format!("it has two parts, not {}", kit.parts)),
            ),
            _ => Ok(()),
        }
    }

    fn curves_hold(&self) -> Result<(), Refusal> {
        let wraps = self.cushion_wraps.iter().filter_map(|wrap| wrap.curve);
        let fills = self.fills.iter().filter_map(|fill| fill.curve);
        let foams = self.foams.iter().map(|foam| foam.curve);
        wraps
            .chain(fills)
            .chain(foams)
            .try_for_each(|curve| curve.check())
            .map_err(|error| Refusal::new("curve", error))
    }
}

/// The longest id and name, in characters.
const LONGEST_ID: usize = 40;
const LONGEST_NAME: usize = 80;

fn id_of(material: &Value) -> Result<String, Vec<Refusal>> {
    let text = |field: &str| {
        material[field]
            .as_str()
            .unwrap_or_default()
            .trim()
            .to_owned()
    };
    let (id, name) = (text("id"), text("name"));
    let mut refusals = Refusals::default();
    let plain = |c: char| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-';
    if id.is_empty() || id.len() > LONGEST_ID || !id.chars().all(plain) {
        refusals.refuse("id",
            format!("\"{id}\" is not an id: use 1 to {LONGEST_ID} small letters, digits and dashes, as corrugated-c"),);
    }
    if name.is_empty() || name.chars().count() > LONGEST_NAME {
        refusals.refuse(
            "name",
            format!("give it a name of 1 to {LONGEST_NAME} characters"),
        );
    }
    refusals.or(id)
}

/// What must be above nothing, because something is divided by it.
fn must_be_positive(path: &str, field: &str) -> bool {
    const POSITIVE: [&str; 8] = [
        "roll_width_mm",
        "loaded_thickness_mm",
        "caliper_mm",
        "width_mm",
        "height_mm",
        "inside_mm",
        "wall_mm",
        "leg_mm",
    ];
    // A sheet of foam is divided by its thickness; a paper may be too thin to measure.
    POSITIVE.contains(&field) || path.starts_with("sheets.") && field == "thickness_mm"
}

fn numbers_refused(value: &Value, path: &str) -> Vec<Refusal> {
    let child = |key: &str| {
        if path.is_empty() {
            key.to_owned()
        } else {
            format!("{path}.{key}")
        }
    };
    match value {
        Value::Object(fields) => fields
            .iter()
            .flat_map(|(key, part)| numbers_refused(part, &child(key)))
            .collect(),
        Value::Array(parts) => parts
            .iter()
            .enumerate()
            .flat_map(|(place, part)| numbers_refused(part, &child(&place.to_string())))
            .collect(),
        Value::Number(number) => {
            let field = path.rsplit('.').next().unwrap_or(path);
            let number = number.as_f64().unwrap_or(f64::NAN);
            let least_is_open = must_be_positive(path, field);
            let fits = (0.0..=MOST).contains(&number) && !(least_is_open && number <= 0.0);
            let above = if least_is_open { "above 0" } else { "from 0" };
            let says = format!("{number} is out of range: give a number {above} to {MOST}");
            if fits {
                Vec::new()
            } else {
                vec![Refusal::new(path, says)]
            }
        }
        Value::String(text) if path.rsplit('.').next().is_some_and(is_price) => {
            let amount: Result<rust_decimal::Decimal, _> = text.parse();
            let most = rust_decimal::Decimal::from(1_000_000);
            let fits =
                amount.is_ok_and(|amount| amount >= rust_decimal::Decimal::ZERO && amount <= most);
            if fits {
                Vec::new()
            } else {
                let says = format!("\"{text}\" is not a price: write an amount from 0, as 2.40");
                vec![Refusal::new(path, says)]
            }
        }
        _ => Vec::new(),
    }
}

fn is_price(field: &str) -> bool {
    field.starts_with("price")
}

/// Names the field of the material, without where it lies in the catalogue.
fn misfit(misfit: &Misfit) -> Refusal {
    let path = misfit.path.to_string();
    let field = path.split_once("].").map_or("", |(_, field)| field);
    let text = &misfit.says;
    let missing = text
        .strip_prefix("missing field `")
        .and_then(|rest| rest.split('`').next());
    match missing {
        Some(name) => {
            let dot = if field.is_empty() { "" } else { "." };
            Refusal::new(format!("{field}{dot}{name}"), "a value is missing")
        }
        None => Refusal::new(field, format!("not understood: {text}")),
    }
}

#[cfg(test)]
mod tests {
    use serde_json::json;

    use super::*;

    fn catalogue() -> Catalogue {
        serde_json::from_str(include_str!("../../../../demo/catalogue.json")).expect("a catalogue")
    }

    #[test]
    fn a_material_put_back_as_it_was_changes_nothing() {
        let catalogue = catalogue();
        for class in MaterialClass::ALL {
            assert_eq!(MaterialClass::of_key(class.key()), Some(class));
            for material in catalogue.class(class) {
                let same = catalogue
                    .with(class, material)
                    .expect("it was there before");
                assert_eq!(same, catalogue);
            }
        }
    }

    #[test]
    fn what_does_not_fit_is_named_by_its_field() {
        let tape = json!({
            "id": "cloth-48", "name": "Cloth tape", "linear_density_g_m": 9.0, "price_per_m": "0.11"
        });
        let with = |field: &str, value: Value| {
            let mut changed = tape.clone();
            changed[field] = value;
            changed
        };
        for (material, field, says) in [
            (
                with("linear_density_g_m", json!(-1)),
                "linear_density_g_m",
                "from 0",
            ),
            (
                with("price_per_m", json!("dear")),
                "price_per_m",
                "not a price",
            ),
            (with("id", json!("Cloth 48")), "id", "small letters"),
            (with("name", json!(" ")), "name", "give it a name"),
            (with("id", json!("glassine")), "id", "already used"),
            (with("harms", json!("wood")), "harms", "not understood"),
        ] {
            let refused = catalogue()
                .with(MaterialClass::Tapes, material)
                .expect_err(field);
            assert_eq!(refused[0].field, field);
            assert!(refused[0].message.contains(says), "{}", refused[0].message);
        }
        let mut foam = catalogue().class(MaterialClass::Foams)[0].clone();
        foam["sheets"][0]["thickness_mm"] = json!(0);
        let refused = catalogue()
            .with(MaterialClass::Foams, foam)
            .expect_err("a foam of no thickness");
        assert_eq!(refused[0].field, "sheets.0.thickness_mm");
        // There is no way to put five corners together.
        let shelf = catalogue().class(MaterialClass::PictureCartons);
        let mut kit = shelf
            .into_iter()
            .find(|kit| kit["id"] == "corners-four")
            .expect("a set of four");
        kit["parts"] = json!(5);
        let refused = catalogue()
            .with(MaterialClass::PictureCartons, kit)
            .expect_err("five corners");
        assert_eq!(refused[0].field, "parts");
        let mut short = tape.clone();
        short
            .as_object_mut()
            .expect("an object")
            .remove("price_per_m");
        let refused = catalogue()
            .with(MaterialClass::Tapes, short)
            .expect_err("no price");
        assert_eq!(refused[0].field, "price_per_m");

        let more = catalogue()
            .with(MaterialClass::Tapes, tape)
            .expect("a tape");
        let id = MaterialId::new("cloth-48");
        assert!(more.holds(MaterialClass::Tapes, &id));
        assert_eq!(more.without(MaterialClass::Tapes, &id), catalogue());
    }
}
