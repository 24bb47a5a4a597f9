//! The parts of one shipment, or of several that are cut together, laid out on what is on the shelf.

use std::collections::BTreeMap;

use rust_decimal::{Decimal, prelude::ToPrimitive};
use serde::{Deserialize, Serialize};

use super::{
    CutPiece, DrawnBlank, Goods, StockItem, cut_pieces,
    goods::{By, Counting},
};
use crate::{
    carton::combinations,
    cutting::{
        CutAxis, CutPart, CutSheet, CuttingJob, KnifeLine, Remainder, StockSheet, UncutReason,
    },
    house::Allowances,
    material::{Catalogue, MaterialId},
    part::{Grain, PartId, by_key},
    plan::Plan,
    quantity::{Length, Telling},
    space::LayerSlot,
};

/// Which parts are cut in one go.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum LayoutOf {
    /// All of them.
    #[default]
    All,
    /// What goes inside: boards, corners, pads. The boxes are cut once the wrapped pieces were measured.
    Inner,
    /// The boxes.
    Boxes,
}

/// What cuts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CutTool {
    /// It takes nothing away.
    #[default]
    Knife,
    /// It takes its kerf away: a house rule.
    Saw,
}

impl CutTool {
    /// Returns what it takes away beyond each line.
    #[must_use]
    pub const fn kerf(self, allowances: &Allowances) -> Length {
        match self {
            Self::Knife => Length::ZERO,
            Self::Saw => allowances.saw_kerf,
        }
    }
}

/// A shipment whose parts are cut.
#[derive(Debug, Clone, Copy)]
pub struct BatchShipment<'a> {
    /// Its plan.
    pub plan: &'a Plan,
}

/// An offcut, or several alike, that may be used up.
#[derive(Debug, Clone, PartialEq)]
pub struct OffcutHere {
    /// Which, on the shelf.
    pub id: String,
    /// What is written on it.
    pub name: String,
    /// Where it stands.
    pub place: String,
    /// Of the stores.
    pub material: MaterialId,
    /// Across the flutes or grain.
    pub width: Length,
    /// Along them.
    pub height: Length,
    /// Of foam.
    pub thickness: Option<Length>,
    /// How many.
    pub count: u32,
}

impl OffcutHere {
    /// Returns every offcut of what is on the shelf.
    #[must_use]
    pub fn on(shelf: &[StockItem]) -> Vec<Self> {
        let kept = |item: &StockItem| match &item.goods {
            Goods::Offcut(sheet) => Some(Self {
                id: item.id.clone(),
                name: item.name.clone(),
                place: item.place.clone(),
                material: sheet.material.clone(),
                width: sheet.width,
                height: sheet.height,
                thickness: sheet.thickness,
                count: u32::try_from(item.left).unwrap_or(u32::MAX),
            }),
            _ => None,
        };
        shelf.iter().filter_map(kept).collect()
    }
}

/// What is cut together, and from what.
#[derive(Debug, Clone)]
pub struct Batch<'a> {
    /// Whose parts.
    pub shipments: Vec<BatchShipment<'a>>,
    /// Blanks that were drawn elsewhere; their parts name the shipment after the last.
    pub blanks: &'a [DrawnBlank],
    /// Which of the shipments' parts.
    pub of: LayoutOf,
    /// What cuts.
    pub tool: CutTool,
    /// What may be used up first.
    pub offcuts: Vec<OffcutHere>,
    /// What sheets there are, and what they cost.
    pub catalogue: &'a Catalogue,
    /// Kerf, laps, and what is worth keeping.
    pub allowances: &'a Allowances,
    /// The same seed and steps give the same layout.
    pub seed: u64,
    /// How many steps are tried for each choice of sheets.
    pub steps: u64,
}

/// How a batch is cut.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BatchPlan {
    /// Material by material, and thickness by thickness.
    pub materials: Vec<MaterialCut>,
    /// Of every sheet that is opened.
    #[serde(with = "rust_decimal::serde::str")]
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub cost: Decimal,
    /// No way of cutting costs less than this.
    #[serde(with = "rust_decimal::serde::str")]
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub lower_bound: Decimal,
    /// Whether time ran out before every step was tried.
    pub stopped_early: bool,
}

/// What is cut from one material.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MaterialCut {
    /// Of the stores.
    pub material: MaterialId,
    /// What it is called.
    pub name: String,
    /// Of the sheets.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// The sheets, in the order in which they are cut.
    pub sheets: Vec<BatchSheet>,
    /// What is opened new, size by size.
    pub opens: Vec<MaterialSheets>,
    /// Of every new sheet.
    #[serde(with = "rust_decimal::serde::str")]
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub cost: Decimal,
    /// The parts' area over the sheets'.
    pub utilisation: f64,
    /// What no sheet takes, even in parts that lap.
    pub too_large: Vec<TooLarge>,
}

/// How many new sheets of a size.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MaterialSheets {
    /// Across the flutes or grain.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Along them.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// How many.
    pub count: u32,
}

/// A part that no sheet takes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TooLarge {
    /// Of which shipment of the batch, counted from 0.
    pub shipment: usize,
    /// Of which layer.
    pub slot: LayerSlot,
    /// What that is called.
    pub layer: String,
    /// What it is there.
    pub name: String,
    /// Across.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Up.
    #[serde(rename = "height_mm")]
    pub height: Length,
}

/// One sheet with its parts and cuts.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BatchSheet {
    /// Counted from 1 through the whole batch.
    pub n: usize,
    /// Across the flutes or grain.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Along them.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Of foam, which comes in several.
    #[serde(rename = "thickness_mm")]
    pub thickness: Option<Length>,
    /// Of a new one; nothing for an offcut.
    #[serde(with = "rust_decimal::serde::str")]
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
    /// The offcut that it is, where it is one.
    pub offcut: Option<SheetOffcut>,
    /// Its parts.
    pub parts: Vec<LaidPart>,
    /// In the order in which they are cut.
    pub cuts: Vec<SheetCut>,
    /// What is left over.
    pub rest: Vec<SheetRest>,
}

/// An offcut that is used up.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SheetOffcut {
    /// Which, on the shelf.
    pub id: String,
    /// What is written on it.
    pub name: String,
    /// Where it stands.
    pub place: String,
}

/// A part where it lies, from the lower left corner of its sheet.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LaidPart {
    /// What it is called for short: a letter for its shipment where there are several, and a number.
    pub code: String,
    /// Of which shipment of the batch, counted from 0.
    pub shipment: usize,
    /// Of which layer.
    pub slot: LayerSlot,
    /// What that is called.
    pub layer: String,
    /// What it is there.
    pub name: String,
    /// Key of the part in its plan, which never changes. Absent if the blank was drawn by hand.
    #[serde(default, with = "by_key", skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub part: Option<PartId>,
    /// Across.
    #[serde(rename = "x_mm")]
    pub x: Length,
    /// Up.
    #[serde(rename = "y_mm")]
    pub y: Length,
    /// As it lies, across.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// As it lies, up.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Whether it lies turned by a quarter.
    pub rotated: bool,
    /// Whether it is one part of something that no sheet takes whole, with its lap.
    pub joined: bool,
    /// Where it is scored, from its own left edge as it lies.
    #[serde(rename = "scores_x_mm")]
    pub scores_x: Vec<Length>,
    /// Where it is scored, from its own lower edge as it lies.
    #[serde(rename = "scores_y_mm")]
    pub scores_y: Vec<Length>,
}

/// A cut across one piece, from edge to edge.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SheetCut {
    /// Counted from 1.
    pub n: usize,
    /// Whether it is measured across, and runs up; else it is measured up, and runs across.
    pub upright: bool,
    /// From the lower left corner.
    #[serde(rename = "at_mm")]
    pub at: Length,
    /// Where it begins.
    #[serde(rename = "from_mm")]
    pub from: Length,
    /// Where it ends.
    #[serde(rename = "to_mm")]
    pub to: Length,
}

/// What is left of a sheet.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SheetRest {
    /// The piece that is left.
    #[serde(flatten)]
    pub piece: Remainder,
    /// Whether the house would keep it.
    pub worth_keeping: bool,
}

/// A part of the batch, as it goes to be cut.
#[derive(Debug, Clone)]
struct Wanted {
    shipment: usize,
    piece: CutPiece,
}

/// One for each shipment; those that are read as a number are left out.
const LETTERS: &str = "ABCDEFGHJKLMNPQRSTUVW";
/// How many kinds of sheets are laid out from, new ones among them; of more offcuts the smallest are used up.
const MOST_KINDS: usize = 8;
/// More parts than these are worse than a crate.
const MOST_JOINED: u32 = 4;
/// How many cuts part it into those.
const MOST_CUTS: usize = 4;
/// A blank with more scores than these is not parted at them.
const MOST_SCORES: usize = 24;
/// A strip so narrow is butted, in as many parts as it takes.
const STRIP: Length = Length::mm(120.0);
const MOST_STRIPS: u32 = 24;
/// A search is asked for so many parts at most.
const MOST_PARTS: u32 = 1000;

impl Batch<'_> {
    /// Returns how it is cut: for each material the cheapest layout that is found on offcuts and new sheets.
    ///
    /// Boxes keep their flutes upright, and so does whatever has a grain; what no sheet takes is parted with laps, into as
    /// few parts as will do. `is_out` is asked between steps whether there is time for no more.
    #[must_use]
    pub fn lay_out(&self, is_out: &mut dyn FnMut() -> bool) -> BatchPlan {
        let mut by_material: BTreeMap<(String, i64), Vec<Wanted>> = BTreeMap::new();
        for (shipment, one) in self.shipments.iter().enumerate() {
            for piece in cut_pieces(one.plan)
                .into_iter()
                .filter(|piece| self.wants(piece))
            {
                let key = (piece.material.to_string(), tenths(piece.thickness));
                let wanted = Wanted { shipment, piece };
                by_material.entry(key).or_default().push(wanted);
            }
        }
        for blank in self.blanks {
            let wanted = self.drawn(blank);
            let key = (
                wanted.piece.material.to_string(),
                tenths(wanted.piece.thickness),
            );
            by_material.entry(key).or_default().push(wanted);
        }
        let mut plan = BatchPlan {
            materials: Vec::new(),
            cost: Decimal::ZERO,
            lower_bound: Decimal::ZERO,
            stopped_early: false,
        };
        let mut n = 0;
        for wanted in by_material.into_values() {
            let Some((cut, bound, stopped)) = self.material(wanted, &mut n, is_out) else {
                continue;
            };
            plan.cost += cut.cost;
            plan.lower_bound += bound;
            plan.stopped_early |= stopped;
            plan.materials.push(cut);
        }
        self.number(&mut plan);
        plan
    }

    /// Gives each part its short name, in the order in which they are cut.
    fn number(&self, plan: &mut BatchPlan) {
        let groups = self.shipments.len() + usize::from(!self.blanks.is_empty());
        let mut next = vec![0_u32; groups + 1];
        let sheets = plan.materials.iter_mut().flat_map(|cut| &mut cut.sheets);
        for part in sheets.flat_map(|sheet| &mut sheet.parts) {
            next[part.shipment] += 1;
            let number = next[part.shipment];
            let letter = LETTERS.as_bytes().get(part.shipment).copied();
            part.code = match letter.filter(|_| groups > 1) {
                Some(letter) => format!("{}{number}", char::from(letter)),
                None => number.to_string(),
            };
        }
    }

    fn drawn(&self, blank: &DrawnBlank) -> Wanted {
        let board = self.catalogue.board(&blank.material);
        Wanted {
            shipment: self.shipments.len(),
            piece: CutPiece {
                slot: LayerSlot::Box,
                name: blank.name.clone().into(),
                id: None,
                material: blank.material.clone(),
                width: blank.width,
                height: blank.height,
                thickness: board.map_or(Length::ZERO, |board| board.caliper),
                grain: Grain::Up,
                count: blank.count,
                joined: false,
                scores: [blank.scores_x.clone(), blank.scores_y.clone()],
            },
        }
    }

    /// What the layer of a part is called.
    fn layer_of(&self, shipment: usize, slot: LayerSlot) -> String {
        if shipment < self.shipments.len() {
            slot.name().to_owned()
        } else {
            "drawn elsewhere".to_owned()
        }
    }

    fn wants(&self, piece: &CutPiece) -> bool {
        let box_part = matches!(piece.slot, LayerSlot::Box | LayerSlot::SecondBox);
        match self.of {
            LayoutOf::All => true,
            LayoutOf::Inner => !box_part,
            LayoutOf::Boxes => box_part,
        }
    }

    fn material(
        &self,
        wanted: Vec<Wanted>,
        n: &mut usize,
        is_out: &mut dyn FnMut() -> bool,
    ) -> Option<(MaterialCut, Decimal, bool)> {
        let first = wanted.first()?.piece.clone();
        let counting = Counting::of(self.catalogue, &first.material)?;
        let By::Sheets(known) = &counting.by else {
            return None;
        };
        let new = sheets_of(known, first.thickness);
        let thickness = new.first().and_then(|(_, thickness, _)| *thickness);
        let mut kinds: Vec<(StockSheet, Option<&OffcutHere>)> = new
            .iter()
            .map(|(sides, _, price)| (stock(*sides, *price, None), None))
            .collect();
        let (parts, too_large) = self.fitted(wanted, &kinds);
        let room = MOST_KINDS.saturating_sub(kinds.len());
        kinds.extend(
            self.useful(&first.material, thickness, &parts)
                .into_iter()
                .take(room)
                .map(|offcut| {
                    let sides = [offcut.width, offcut.height];
                    (
                        stock(sides, Decimal::ZERO, Some(offcut.count)),
                        Some(offcut),
                    )
                }),
        );
        let mut cut = MaterialCut {
            material: first.material.clone(),
            name: counting.name.to_owned(),
            thickness: first.thickness,
            sheets: Vec::new(),
            opens: Vec::new(),
            cost: Decimal::ZERO,
            utilisation: 0.0,
            too_large,
        };
        if parts.is_empty() {
            return Some((cut, Decimal::ZERO, false));
        }
        let job = CuttingJob {
            sheets: kinds.iter().map(|(sheet, _)| sheet.clone()).collect(),
            parts: parts.iter().map(as_part).collect(),
            kerf: self.tool.kerf(self.allowances),
            seed: self.seed,
            steps: self.steps,
        };
        let found = match job.cut(is_out) {
            Ok(found) => found,
            // Every part was fitted to a sheet of which there are as many as are wanted.
            Err(UncutReason::TooLarge { .. } | UncutReason::TooFew) => {
                return Some((cut, Decimal::ZERO, false));
            }
        };
        cut.cost = found.cost;
        cut.utilisation = found.utilisation;
        for laid in &found.sheets {
            *n += 1;
            let (sheet, offcut) = &kinds[laid.sheet];
            cut.sheets
                .push(self.sheet(*n, (sheet, *offcut, thickness), laid, &parts));
            if offcut.is_none() {
                count_opened(&mut cut.opens, sheet);
            }
        }
        Some((cut, found.lower_bound, found.stopped_early))
    }

    /// The parts as some new sheet takes them, and those that none does.
    fn fitted(
        &self,
        wanted: Vec<Wanted>,
        kinds: &[(StockSheet, Option<&OffcutHere>)],
    ) -> (Vec<Wanted>, Vec<TooLarge>) {
        let mut parts = Vec::new();
        let mut too_large = Vec::new();
        let mut total = 0;
        for one in wanted {
            let pieces = self.in_parts(&one.piece, kinds);
            let count: u32 = pieces.iter().map(|piece| piece.count).sum();
            if count > 0 && total + count <= MOST_PARTS {
                total += count;
                let shipment = one.shipment;
                parts.extend(pieces.into_iter().map(|piece| Wanted { shipment, piece }));
            } else {
                too_large.push(TooLarge {
                    shipment: one.shipment,
                    slot: one.piece.slot,
                    layer: self.layer_of(one.shipment, one.piece.slot),
                    name: one.piece.name.to_string(),
                    width: one.piece.width,
                    height: one.piece.height,
                });
            }
        }
        (parts, too_large)
    }

    /// A piece whole where a sheet takes it, else in as few parts as will do: cut at its scores where that will do, else into
    /// equal ones, each but the last with a lap. Nothing where no sheet takes it even so.
    fn in_parts(
        &self,
        piece: &CutPiece,
        kinds: &[(StockSheet, Option<&OffcutHere>)],
    ) -> Vec<CutPiece> {
        let fits = |width: Length, height: Length| {
            kinds.iter().any(|(sheet, _)| {
                let lies = |w: Length, h: Length| w <= sheet.width && h <= sheet.height;
                match piece.grain {
                    Grain::Free => lies(width, height) || lies(height, width),
                    Grain::Up => lies(width, height),
                    Grain::Across => lies(height, width),
                }
            })
        };
        if fits(piece.width, piece.height) {
            return vec![piece.clone()];
        }
        let lap = self.allowances.sheet_lap;
        let (most, lap) = if piece.width.min(piece.height) <= STRIP {
            (MOST_STRIPS, Length::ZERO)
        } else {
            (MOST_JOINED, lap)
        };
        let all_fit =
            |pieces: &Vec<CutPiece>| pieces.iter().all(|part| fits(part.width, part.height));
        let at_scores = (1..MOST_CUTS).find_map(|cuts| {
            [0, 1].into_iter().find_map(|side| {
                let scores = &piece.scores[side];
                let few = (scores.len() <= MOST_SCORES).then(|| combinations(scores, cuts));
                let ways = few.into_iter().flatten();
                ways.map(|cuts| cut_at(piece, side, &cuts, lap))
                    .filter(all_fit)
                    .min_by_key(|pieces| {
                        let long = |part: &CutPiece| [part.width, part.height][side];
                        pieces.iter().map(long).max()
                    })
            })
        });
        if let Some(pieces) = at_scores {
            return pieces;
        }
        for parts in 2..=most {
            let share = |side: Length| (side + lap * f64::from(parts - 1)) / f64::from(parts);
            let ways = [
                (share(piece.width), piece.height),
                (piece.width, share(piece.height)),
            ];
            if let Some((width, height)) = ways
                .into_iter()
                .find(|(width, height)| fits(*width, *height))
            {
                return vec![CutPiece {
                    width,
                    height,
                    count: piece.count * parts,
                    joined: true,
                    scores: Default::default(),
                    ..piece.clone()
                }];
            }
        }
        Vec::new()
    }

    /// The offcuts that at least one part goes on, the smallest first: they are used up before large ones are cut into.
    fn useful(
        &self,
        material: &MaterialId,
        thickness: Option<Length>,
        parts: &[Wanted],
    ) -> Vec<&OffcutHere> {
        let mut useful: Vec<&OffcutHere> = self
            .offcuts
            .iter()
            .filter(|offcut| {
                offcut.material == *material && offcut.thickness == thickness && offcut.count > 0
            })
            .filter(|offcut| {
                parts.iter().map(as_part).any(|part| {
                    let lies = |w: Length, h: Length| w <= offcut.width && h <= offcut.height;
                    lies(part.width, part.height)
                        || (part.may_turn && lies(part.height, part.width))
                })
            })
            .collect();
        useful.sort_by(|a, b| {
            let area = |one: &OffcutHere| (one.width * one.height).as_m2();
            area(a).total_cmp(&area(b)).then_with(|| a.id.cmp(&b.id))
        });
        useful
    }

    fn sheet(
        &self,
        n: usize,
        (sheet, offcut, thickness): (&StockSheet, Option<&OffcutHere>, Option<Length>),
        laid: &CutSheet,
        parts: &[Wanted],
    ) -> BatchSheet {
        BatchSheet {
            n,
            width: sheet.width,
            height: sheet.height,
            thickness,
            price: sheet.price,
            offcut: offcut.map(|offcut| SheetOffcut {
                id: offcut.id.clone(),
                name: offcut.name.clone(),
                place: offcut.place.clone(),
            }),
            parts: laid
                .placements
                .iter()
                .map(|placed| {
                    let wanted = &parts[placed.part];
                    let piece = &wanted.piece;
                    // A piece with its flutes across goes to be cut turned.
                    let rotated = placed.turned != (piece.grain == Grain::Across);
                    let [across, up] = piece.scores.clone();
                    let (width, height, scores_x, scores_y) = if rotated {
                        let from_right = across.iter().rev().map(|at| piece.width - *at).collect();
                        (piece.height, piece.width, up, from_right)
                    } else {
                        (piece.width, piece.height, across, up)
                    };
                    LaidPart {
                        code: String::new(),
                        shipment: wanted.shipment,
                        slot: piece.slot,
                        layer: self.layer_of(wanted.shipment, piece.slot),
                        name: piece.name.to_string(),
                        part: piece.id,
                        x: placed.x,
                        y: placed.y,
                        width,
                        height,
                        rotated,
                        joined: piece.joined,
                        scores_x,
                        scores_y,
                    }
                })
                .collect(),
            cuts: laid
                .cuts
                .iter()
                .map(
                    |&KnifeLine {
                         n,
                         axis,
                         at,
                         from,
                         to,
                     }| SheetCut {
                        n,
                        upright: axis == CutAxis::X,
                        at,
                        from,
                        to,
                    },
                )
                .collect(),
            rest: laid
                .remainder
                .iter()
                .map(|&piece| SheetRest {
                    piece,
                    worth_keeping: self.allowances.is_offcut(piece.width, piece.height),
                })
                .collect(),
        }
    }
}

/// A piece cut at some of its scores, across or up: each part but the last with a lap beyond its score, which it keeps.
fn cut_at(piece: &CutPiece, side: usize, cuts: &[Length], lap: Length) -> Vec<CutPiece> {
    let whole = [piece.width, piece.height][side];
    let ends = cuts.iter().copied().chain([whole]);
    let starts = std::iter::once(Length::ZERO).chain(cuts.iter().copied());
    starts
        .zip(ends)
        .map(|(from, to)| {
            let long = to - from + if to < whole { lap } else { Length::ZERO };
            let kept = |at: &Length| *at > from && *at <= to && *at < whole;
            let mut scores = piece.scores.clone();
            scores[side] = piece.scores[side]
                .iter()
                .copied()
                .filter(kept)
                .map(|at| at - from)
                .collect();
            let (width, height) = if side == 0 {
                (long, piece.height)
            } else {
                (piece.width, long)
            };
            CutPiece {
                width,
                height,
                joined: true,
                scores,
                ..piece.clone()
            }
        })
        .collect()
}

fn tenths(length: Length) -> i64 {
    #[allow(
        clippy::cast_possible_truncation,
        reason = "a board is under a metre thick"
    )]
    let tenths = (length.as_mm() * 10.0).round() as i64;
    tenths
}

const fn stock([width, height]: [Length; 2], price: Decimal, count: Option<u32>) -> StockSheet {
    StockSheet {
        width,
        height,
        price,
        count,
    }
}

type Known = ([Length; 2], Option<Length>, Decimal);

/// The sheets of a thickness: a board's own, foam's of that thickness or of the next above it.
fn sheets_of(known: &[Known], thickness: Length) -> Vec<Known> {
    let of_board = known.iter().any(|(_, thick, _)| thick.is_none());
    let next = known
        .iter()
        .filter_map(|(_, thick, _)| *thick)
        .filter(|thick| *thick >= thickness)
        .min();
    known
        .iter()
        .filter(|(_, thick, _)| of_board || (thick.is_some() && *thick == next))
        .copied()
        .collect()
}

fn as_part(wanted: &Wanted) -> CutPart {
    let piece = &wanted.piece;
    let (width, height) = match piece.grain {
        Grain::Across => (piece.height, piece.width),
        Grain::Free | Grain::Up => (piece.width, piece.height),
    };
    CutPart {
        width,
        height,
        count: piece.count,
        may_turn: piece.grain == Grain::Free,
    }
}

fn count_opened(opens: &mut Vec<MaterialSheets>, sheet: &StockSheet) {
    let same =
        |open: &&mut MaterialSheets| open.width == sheet.width && open.height == sheet.height;
    if let Some(open) = opens.iter_mut().find(same) {
        open.count += 1;
        return;
    }
    opens.push(MaterialSheets {
        width: sheet.width,
        height: sheet.height,
        count: 1,
    });
}

impl SheetCut {
    /// Says where to cut, as one does over the sheet.
    #[must_use]
    pub fn words(&self, sheet: &BatchSheet, telling: Telling) -> String {
        const DUST: Length = Length::mm(0.05);
        let told = |length| telling.length(length);
        let (from, side, whole, end) = if self.upright {
            ("from the left", "up", "height", sheet.height)
        } else {
            ("from below", "across", "width", sheet.width)
        };
        let stretch = if self.from <= DUST && self.to >= end - DUST {
            format!("the whole {whole}")
        } else {
            format!("{side} from {} to {}", told(self.from), told(self.to))
        };
        format!("{} {from}, {stretch}", told(self.at))
    }
}

impl LaidPart {
    /// Returns the part of a plan that it is; layouts of before keys were kept have it as its name.
    #[must_use]
    pub fn id(&self) -> Option<PartId> {
        self.part.or_else(|| PartId::of_key(&self.name))
    }

    /// Says what it is, in its layer.
    #[must_use]
    pub fn words(&self) -> String {
        let Self { layer, name, .. } = self;
        let said = if layer.contains(name.as_str()) {
            layer.clone()
        } else if name.contains(layer.as_str()) {
            name.clone()
        } else {
            format!("{layer}: {name}")
        };
        if self.joined {
            format!("{said}, joined")
        } else {
            said
        }
    }
}

impl BatchPlan {
    /// Returns every sheet, in the order in which they are cut.
    pub fn sheets(&self) -> impl Iterator<Item = (&MaterialCut, &BatchSheet)> {
        self.materials
            .iter()
            .flat_map(|cut| cut.sheets.iter().map(move |sheet| (cut, sheet)))
    }

    /// Returns how far its cost is over the bound, as a share of the bound; `None` if no sheet is opened.
    #[must_use]
    pub fn gap(&self) -> Option<f64> {
        let bound = self.lower_bound.to_f64().filter(|bound| *bound > 0.0)?;
        Some(self.cost.to_f64()? / bound - 1.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::quantity::{Area, Mass};

    #[test]
    fn what_no_sheet_takes_is_cut_at_its_scores_and_only_else_in_the_middle() {
        // Corrugated C comes as wide as 3000 by 1500, and as high as 2400. A blank of 4000 × 1000 with scores at 700, 1900 and
        // 3300: at 1900 its parts are 1940 and 2100, at 700 one would be 3300; so it is cut at 1900. Without scores it is cut
        // into two of (4000 + 40)/2 = 2020.
        let catalogue: Catalogue =
            serde_json::from_str(include_str!("../../../../demo/catalogue.json"))
                .expect("a catalogue");
        let allowances = Allowances::default();
        let laid = |scores: &[f64]| {
            let blank = DrawnBlank {
                name: "banner".into(),
                material: MaterialId::new("corrugated-c"),
                count: 1,
                width: Length::mm(4000.0),
                height: Length::mm(1000.0),
                area: Area::default(),
                mass: Mass::default(),
                scores_x: scores.iter().copied().map(Length::mm).collect(),
                scores_y: Vec::new(),
            };
            let batch = Batch {
                shipments: Vec::new(),
                blanks: &[blank],
                of: LayoutOf::All,
                tool: CutTool::Knife,
                offcuts: Vec::new(),
                catalogue: &catalogue,
                allowances: &allowances,
                seed: 1,
                steps: 0,
            };
            let plan = batch.lay_out(&mut || false);
            let mut parts: Vec<(f64, Vec<f64>, bool)> = plan
                .sheets()
                .flat_map(|(_, sheet)| &sheet.parts)
                .map(|part| {
                    let scores = part.scores_x.iter().map(|at| at.as_mm()).collect();
                    (part.width.as_mm(), scores, part.joined)
                })
                .collect();
            parts.sort_by(|one, other| one.0.total_cmp(&other.0));
            parts
        };
        assert_eq!(
            laid(&[700.0, 1900.0, 3300.0]),
            [
                (1940.0, vec![700.0, 1900.0], true),
                (2100.0, vec![1400.0], true)
            ]
        );
        // At 500 or 3600 one part would be 3500 or more, and at both the middle one 3140: none will do.
        assert_eq!(laid(&[500.0, 3600.0]), laid(&[]));
        // At 600 and 3400 two parts would be 3400 or 3440; at both it is 640, 2840 and 600, and no panel is cut through.
        let widths: Vec<f64> = laid(&[600.0, 3400.0]).iter().map(|part| part.0).collect();
        assert_eq!(widths, [600.0, 640.0, 2840.0]);
        assert_eq!(
            laid(&[]),
            [(2020.0, Vec::new(), true), (2020.0, Vec::new(), true)]
        );
    }
}
