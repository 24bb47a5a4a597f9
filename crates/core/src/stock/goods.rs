//! What is counted, and in what.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::PileCarton;
use crate::{
    Refusal, Refusals,
    material::{Catalogue, KeptCase, MaterialId, Shelf},
    quantity::Length,
    text::refused_text,
};

/// What a count is a number of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Measure {
    /// Sheets, cartons and things, one by one.
    Pieces,
    /// Millimetres of a roll.
    Mm,
    /// Grams of what is poured.
    G,
}

/// What is on the shelf.
#[derive(Debug, Clone, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Goods {
    /// Whole sheets of one size.
    Sheet(SheetGoods),
    /// What was kept of a sheet that was cut, or raw card out of a carton.
    Offcut(SheetGoods),
    /// A roll of paper, cushion, film or tape.
    Roll {
        /// Of the stores.
        material: MaterialId,
    },
    /// Things by the piece.
    Thing {
        /// Of the stores.
        material: MaterialId,
    },
    /// What is poured or crumpled, by its mass.
    Loose {
        /// Of the stores.
        material: MaterialId,
    },
    /// A carton kept from an earlier delivery.
    Carton(PileCarton),
    /// A travel case that was built before.
    Case(KeptCase),
}

/// A flat piece of a material, across its flutes and along them.
#[derive(Debug, Clone, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SheetGoods {
    /// Of the stores.
    pub material: MaterialId,
    /// Across the flutes or grain.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Along the flutes or grain.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Of foam, which comes in several; a board has its own.
    #[serde(
        rename = "thickness_mm",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    pub thickness: Option<Length>,
}

/// Something on the shelf, with how much of it is left.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StockItem {
    /// The id of the item on the shelf.
    pub id: String,
    /// What it is.
    #[serde(flatten)]
    pub goods: Goods,
    /// What is written on it.
    pub name: String,
    /// Where it stands.
    pub place: String,
    /// How much is left, in its measure.
    pub left: i64,
}

/// How the stores count a material.
#[derive(Debug, Clone)]
pub struct Counting<'a> {
    /// What it is called.
    pub name: &'a str,
    /// Who sells it, and what takes its place.
    pub shelf: &'a Shelf,
    pub(super) by: By,
}

#[derive(Debug, Clone, PartialEq)]
pub(super) enum By {
    /// Across, along and thick, with the price.
    Sheets(Vec<([Length; 2], Option<Length>, Decimal)>),
    Roll,
    Mass,
    /// Cut from pieces so long, or used whole.
    Pieces(Option<Length>),
}

const LARGEST_SIDE: Length = Length::mm(10_000.0);
const MOST_MM: i64 = 100_000_000;

/// Every class of the catalogue, with how its materials are counted.
macro_rules! classes {
    ($with:ident) => {
        $with! {
            boards: |board| By::Sheets(board.sheets.iter().map(|sheet| ([sheet.width, sheet.height], None, sheet.price)).collect());
            foams: |foam| By::Sheets(
                foam.sheets.iter().map(|sheet| ([sheet.width, sheet.height], Some(sheet.thickness), sheet.price)).collect()
            );
            contact_papers: |paper| if paper.sheet_length.is_some() { By::Pieces(None) } else { By::Roll };
            cushion_wraps: |_wrap| By::Roll;
            films: |_film| By::Roll;
            tapes: |_tape| By::Roll;
            fills: |_fill| By::Mass;
            slip_on_corners: |_corner| By::Pieces(None);
            sundries: |_sundry| By::Pieces(None);
            tubes: |tube| By::Pieces(Some(tube.longest));
            cores: |core| By::Pieces(Some(core.longest));
            battens: |batten| By::Pieces(Some(batten.length));
            mailers: |_mailer| By::Pieces(None);
            picture_cartons: |_carton| By::Pieces(None);
        }
    };
}

impl<'a> Counting<'a> {
    /// Returns how every material of the stores is counted that is not retired, with its id.
    #[must_use]
    pub fn all(catalogue: &'a Catalogue) -> Vec<(&'a MaterialId, Self)> {
        let mut all = Vec::new();
        macro_rules! list {
            ($($class:ident: |$one:ident| $by:expr;)*) => {
                $(all.extend(catalogue.$class.iter().filter(|one| !one.shelf.retired).map(|one| {
                    let $one = one;
                    (&one.id, Self { name: &one.name, shelf: &one.shelf, by: $by })
                }));)*
            };
        }
        classes!(list);
        all
    }

    /// Returns how a material of the stores is counted; nothing for one that they don't hold.
    #[must_use]
    pub fn of(catalogue: &'a Catalogue, id: &MaterialId) -> Option<Self> {
        macro_rules! look {
            ($($class:ident: |$one:ident| $by:expr;)*) => {
                $(if let Some(one) = catalogue.$class.iter().find(|one| one.id == *id) {
                    let $one = one;
                    return Some(Self { name: &one.name, shelf: &one.shelf, by: $by });
                })*
            };
        }
        classes!(look);
        None
    }

    /// Returns what the stores say is there, as it would be counted; `None` if they say nothing. Of a material that comes
    /// in several sizes they mean the first.
    #[must_use]
    pub fn said(&self, material: &MaterialId) -> Option<(Goods, i64)> {
        let stock = self.shelf.stock?;
        let (goods, count) = match &self.by {
            By::Sheets(sheets) => {
                let ([width, height], thickness, _) = sheets.first()?;
                let goods = SheetGoods {
                    material: material.clone(),
                    width: *width,
                    height: *height,
                    thickness: *thickness,
                };
                (Goods::Sheet(goods), stock)
            }
            By::Roll => (
                Goods::Roll {
                    material: material.clone(),
                },
                stock * 1000.0,
            ),
            By::Mass => (
                Goods::Loose {
                    material: material.clone(),
                },
                stock * 1000.0,
            ),
            By::Pieces(_) => (
                Goods::Thing {
                    material: material.clone(),
                },
                stock,
            ),
        };
        #[allow(
            clippy::cast_possible_truncation,
            reason = "what the stores say is checked to be a count"
        )]
        let count = count.floor() as i64;
        Some((goods, count.clamp(0, MOST_MM)))
    }
}

impl Goods {
    /// Returns what a count of it is a number of.
    #[must_use]
    pub const fn measure(&self) -> Measure {
        match self {
            Self::Sheet(_)
            | Self::Offcut(_)
            | Self::Thing { .. }
            | Self::Carton(_)
            | Self::Case(_) => Measure::Pieces,
            Self::Roll { .. } => Measure::Mm,
            Self::Loose { .. } => Measure::G,
        }
    }

    /// Returns the material that it is of.
    #[must_use]
    pub const fn material(&self) -> &MaterialId {
        match self {
            Self::Sheet(sheet) | Self::Offcut(sheet) => &sheet.material,
            Self::Roll { material } | Self::Thing { material } | Self::Loose { material } => {
                material
            }
            Self::Carton(carton) => &carton.board,
            Self::Case(case) => &case.board,
        }
    }

    /// Returns what makes one count of it the same as another: there is one for each material and size. An offcut, a
    /// carton and a case are each their own.
    #[must_use]
    pub fn key(&self) -> Option<String> {
        match self {
            Self::Sheet(sheet) => Some(format!(
                "sheet {} {} {} {}",
                sheet.material,
                sheet.width.as_mm(),
                sheet.height.as_mm(),
                sheet.thickness.unwrap_or_default().as_mm()
            )),
            Self::Roll { material } => Some(format!("roll {material}")),
            Self::Thing { material } => Some(format!("thing {material}")),
            Self::Loose { material } => Some(format!("loose {material}")),
            Self::Offcut(_) | Self::Carton(_) | Self::Case(_) => None,
        }
    }

    /// Looks it over by the stores.
    ///
    /// # Errors
    /// A [`Refusal`] for each field that can't be.
    pub fn checked(&self, catalogue: &Catalogue) -> Result<(), Vec<Refusal>> {
        let mut refusals = Refusals::default();
        let counting = Counting::of(catalogue, self.material());
        let side = |field: &str, side: Length, most: Length| {
            let fits = side > Length::ZERO && side <= most;
            (!fits).then(|| {
                let says = format!("give more than 0, up to {} mm", most.as_mm());
                Refusal::new(field, says)
            })
        };
        let Some(counting) = counting else {
            return Err(vec![Refusal::new(
                self.material_field(),
                format!(
                    "no material is called \u{201c}{}\u{201d}: add it in Materials first",
                    self.material()
                ),
            )]);
        };
        match self {
            Self::Sheet(sheet) | Self::Offcut(sheet) => {
                refusals.extend(side("width_mm", sheet.width, LARGEST_SIDE));
                refusals.extend(side("height_mm", sheet.height, LARGEST_SIDE));
                let By::Sheets(known) = &counting.by else {
                    refusals.refuse(
                        "material",
                        format!("{} doesn't come in sheets", counting.name),
                    );
                    return Err(refusals.into());
                };
                let thick = known.iter().any(|(_, thickness, _)| thickness.is_some());
                if thick && sheet.thickness.is_none() {
                    let says = format!("{} comes in several sizes: choose one", counting.name);
                    refusals.refuse("thickness_mm", says);
                }
                if !thick && sheet.thickness.is_some() {
                    let says = format!(
                        "{} has only its board's size: leave it empty",
                        counting.name
                    );
                    refusals.refuse("thickness_mm", says);
                }
                if let Some(thickness) = sheet.thickness {
                    refusals.extend(side("thickness_mm", thickness, Length::mm(500.0)));
                }
                let sold = |[width, height]: [Length; 2], thickness| {
                    width == sheet.width && height == sheet.height && thickness == sheet.thickness
                };
                let sold = known
                    .iter()
                    .any(|(sides, thickness, _)| sold(*sides, *thickness));
                if matches!(self, Self::Sheet(_)) && !sold && refusals.is_empty() {
                    let says = format!(
                        "{} isn't sold in that size: add the size in Materials first, or count it as an offcut",
                        counting.name
                    );
                    refusals.refuse("width_mm", says);
                }
            }
            Self::Roll { .. } if counting.by != By::Roll => refusals.refuse(
                "material",
                format!("{} doesn't come on a roll", counting.name),
            ),
            Self::Loose { .. } if counting.by != By::Mass => refusals.refuse(
                "material",
                format!("{} isn't counted by mass", counting.name),
            ),
            Self::Thing { .. } if !matches!(counting.by, By::Pieces(_)) => refusals.refuse(
                "material",
                format!("{} isn't counted by the piece", counting.name),
            ),
            Self::Roll { .. } | Self::Thing { .. } | Self::Loose { .. } => {}
            Self::Carton(carton) => refusals.extend(carton.refusals(catalogue)),
            Self::Case(case) => refusals.extend(case.refusals(catalogue)),
        }
        refusals.or(())
    }

    const fn material_field(&self) -> &'static str {
        match self {
            Self::Carton(_) | Self::Case(_) => "board",
            _ => "material",
        }
    }
}

impl StockItem {
    /// Looks over what is written on it and how much there is.
    ///
    /// # Errors
    /// A [`Refusal`] for each field that can't be.
    pub fn checked(&self, catalogue: &Catalogue) -> Result<(), Vec<Refusal>> {
        let mut refusals = Refusals::from(self.goods.checked(catalogue).err().unwrap_or_default());
        for (field, text) in [("name", &self.name), ("place", &self.place)] {
            refusals.extend(refused_text(field, text));
        }
        if !(0..=MOST_MM).contains(&self.left) {
            refusals.refuse("left", "count what is there: 0 or more");
        }
        refusals.or(())
    }
}
