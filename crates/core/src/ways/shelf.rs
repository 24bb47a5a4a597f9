//! What the shelf lacks for a shipment: what takes its place, or by when it has to be ordered.

use std::{borrow::Cow, collections::BTreeMap};

use jiff::{ToSpan, civil::Date, civil::Weekday};
use serde::Serialize;

use super::alternatives;
use crate::{
    Refusal,
    house::Choices,
    material::{Catalogue, MaterialId},
    plan::{Change, Detail, Plan},
    shipment::{House, ShipmentInputs, Workings, steps_of, still_to_cut},
    space::LayerSlot,
    stock::{
        Batch, BatchShipment, Counting, CutPiece, CutTool, Goods, LayoutOf, MaterialsLine, Measure,
        OffcutHere, SheetGoods, ShelfNeed, StockItem, cut_pieces, shelf_needs,
    },
};

/// Something that a plan takes off the shelf.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ShelfLine {
    /// What it is.
    #[serde(flatten)]
    pub goods: Goods,
    /// What it is called.
    pub name: String,
    /// What the counts are numbers of.
    pub measure: Measure,
    /// How much the plan takes.
    pub needs: i64,
    /// How much there is; `None` if it is not counted.
    pub left: Option<i64>,
    /// How much is lacking.
    pub short: i64,
    /// Who sells it; empty where nobody is known.
    pub supplier: String,
    /// Working days until it comes.
    pub lead_days: Option<u32>,
    /// The last day on which it can be ordered and the promise holds; `None` if no day is promised, or where it is not
    /// known how long it takes.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, format = Date))]
    pub order_by: Option<Date>,
    /// Whether that day is over.
    pub too_late: bool,
    /// What takes its place, where it is short and the stores name something.
    pub substitute: Option<Substitute>,
}

/// What takes the place of something that is short.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Substitute {
    /// The material.
    pub material: MaterialId,
    /// What it is called.
    pub name: String,
    /// The choices to merge into those of the shipment; `None` if it is simply used in its stead.
    pub choices: Option<Choices>,
    /// What it would change.
    pub change: Option<Change>,
    /// Whether the plan made of it lacks less.
    pub helps: bool,
}

/// A parcel is packed and handed over within so many working days.
const TO_PACK_DAYS: u32 = 1;

/// Returns what a shipment takes off the shelf, what is short first; `None` before there is a plan.
///
/// Sheets are counted by laying the parts out on them, offcuts first. Of what is not counted there is taken to be enough.
///
/// # Errors
/// A [`Refusal`] when the plan can't be made.
pub fn shelf_lines(
    inputs: &ShipmentInputs,
    house: &House,
    stock: &[StockItem],
    today: Date,
) -> Result<Vec<ShelfLine>, Vec<Refusal>> {
    let worked = Workings::out_in(inputs, house, Detail::LEAST)?;
    let mut lines = each_line(
        (inputs, &worked),
        house,
        (stock, today),
        Asking::with_substitute,
    )?;
    lines.sort_by_key(|line| line.short == 0);
    Ok(lines)
}

/// Returns what the shelf lacks for a shipment that was worked out, without what could take its place: nothing before there is a plan.
///
/// # Errors
/// A [`Refusal`] when the steps of the plan can't be made.
pub fn lacking_for(
    (inputs, worked): (&ShipmentInputs, &Workings),
    house: &House,
    stock: &[StockItem],
    today: Date,
) -> Result<Vec<ShelfLine>, Vec<Refusal>> {
    let mut lines = each_line((inputs, worked), house, (stock, today), Asking::line)?;
    lines.retain(|line| line.short > 0);
    Ok(lines)
}

/// Everything that the plan of a shipment needs of a shelf, before it is laid out: equal needs lack the same of the same shelf.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct PlanNeeds {
    pieces: Vec<CutPiece>,
    others: Vec<ShelfNeed>,
}

impl PlanNeeds {
    /// Returns the needs of a shipment that was worked out; `None` before there is a plan.
    ///
    /// # Errors
    /// A [`Refusal`] when the steps of the plan can't be made.
    pub fn of(
        (inputs, worked): (&ShipmentInputs, &Workings),
        house: &House,
    ) -> Result<Option<Self>, Vec<Refusal>> {
        let plan = left_of_plan(worked, inputs, house)?;
        Ok(plan.map(|plan| Self {
            pieces: cut_pieces(&plan),
            others: shelf_needs(&plan, &house.catalogue),
        }))
    }
}

/// Returns what the shelf lacks for a shipment, without what could take its place: nothing before there is a plan.
///
/// # Errors
/// A [`Refusal`] when the plan can't be made.
pub fn lacking(
    inputs: &ShipmentInputs,
    house: &House,
    stock: &[StockItem],
    today: Date,
) -> Result<Vec<ShelfLine>, Vec<Refusal>> {
    let worked = Workings::out_in(inputs, house, Detail::LEAST)?;
    lacking_for((inputs, &worked), house, stock, today)
}

/// Returns a line of everything that the plan of a shipment takes: none before there is a plan.
fn each_line<'a>(
    (inputs, worked): (&'a ShipmentInputs, &Workings),
    house: &'a House,
    (stock, today): (&'a [StockItem], Date),
    line: impl Fn(&Asking<'a>, &Taken) -> ShelfLine,
) -> Result<Vec<ShelfLine>, Vec<Refusal>> {
    let Some(plan) = left_of_plan(worked, inputs, house)? else {
        return Ok(Vec::new());
    };
    let days = worked
        .chosen_or_best(inputs)
        .map_or(0, |quote| quote.days_to);
    let asked = Asking {
        inputs,
        house,
        stock,
        today,
        // Where it goes is not known yet: the journey is left out.
        leaves: inputs
            .promised_for()
            .map(|day| working_days_before(day, days + TO_PACK_DAYS)),
    };
    let takes = takes(&[&plan], house, stock);
    Ok(takes.iter().map(|taken| line(&asked, taken)).collect())
}

/// The plan without what layouts have cut of it; `None` before there is one.
fn left_of_plan<'a>(
    worked: &'a Workings,
    inputs: &ShipmentInputs,
    house: &House,
) -> Result<Option<Cow<'a, Plan>>, Vec<Refusal>> {
    let Some(plan) = &worked.plan else {
        return Ok(None);
    };
    if inputs.packed.values().all(|tick| tick.sheet.is_empty()) {
        return Ok(Some(Cow::Borrowed(plan)));
    }
    let steps = steps_of(plan, inputs, house)?;
    Ok(Some(Cow::Owned(still_to_cut(plan, &steps, &inputs.packed))))
}

/// How much of something a shipment takes off the shelf.
#[derive(Debug, Clone, PartialEq)]
pub struct ShelfTake {
    /// What, in its own measure.
    pub goods: Goods,
    /// What it is called.
    pub name: String,
    /// How much.
    pub amount: i64,
}

/// Returns everything that the plan of a shipment takes off the shelf, without what layouts have cut of it and drawn themselves:
/// nothing before there is a plan.
///
/// # Errors
/// A [`Refusal`] when the plan can't be made.
pub fn shelf_takes(
    inputs: &ShipmentInputs,
    house: &House,
    stock: &[StockItem],
) -> Result<Vec<ShelfTake>, Vec<Refusal>> {
    let worked = Workings::out_in(inputs, house, Detail::LEAST)?;
    let Some(plan) = left_of_plan(&worked, inputs, house)? else {
        return Ok(Vec::new());
    };
    let takes = takes(&[&plan], house, stock);
    Ok(takes
        .into_iter()
        .map(|taken| ShelfTake {
            goods: taken.goods,
            name: taken.name,
            amount: taken.amount,
        })
        .collect())
}

struct Taken {
    goods: Goods,
    name: String,
    slot: LayerSlot,
    amount: i64,
}

/// Everything that plans take together, sheets by one layout of all their parts.
fn takes(plans: &[&Plan], house: &House, stock: &[StockItem]) -> Vec<Taken> {
    let laid = Batch {
        shipments: plans.iter().map(|plan| BatchShipment { plan }).collect(),
        blanks: &[],
        of: LayoutOf::All,
        tool: CutTool::Knife,
        offcuts: OffcutHere::on(stock),
        catalogue: &house.catalogue,
        allowances: &house.rules.allowances,
        seed: 1,
        steps: 0,
    }
    .lay_out(&mut || false);
    let pieces: Vec<_> = plans.iter().flat_map(|plan| cut_pieces(plan)).collect();
    let sheets = laid.materials.iter().flat_map(|cut| {
        let slot = pieces
            .iter()
            .find(|piece| piece.material == cut.material)
            .map_or(LayerSlot::Box, |piece| piece.slot);
        let thickness = cut.sheets.first().and_then(|sheet| sheet.thickness);
        cut.opens.iter().map(move |open| Taken {
            goods: Goods::Sheet(SheetGoods {
                material: cut.material.clone(),
                width: open.width,
                height: open.height,
                thickness,
            }),
            name: cut.name.clone(),
            slot,
            amount: i64::from(open.count),
        })
    });
    let mut rest: BTreeMap<Option<String>, Taken> = BTreeMap::new();
    let needs = plans
        .iter()
        .flat_map(|plan| shelf_needs(plan, &house.catalogue));
    for need in needs {
        rest.entry(need.goods.key())
            .and_modify(|taken| taken.amount += need.amount)
            .or_insert(Taken {
                goods: need.goods,
                name: need.name,
                slot: need.slot,
                amount: need.amount,
            });
    }
    sheets.chain(rest.into_values()).collect()
}

/// Returns what shipments take off the shelf together, what is short first: sheets as they are cut for all of them at once, without
/// what layouts have cut already. A shipment without a plan takes nothing.
///
/// # Errors
/// A [`Refusal`] when a plan can't be made.
pub fn materials_together(
    shipments: &[&ShipmentInputs],
    house: &House,
    stock: &[StockItem],
) -> Result<Vec<MaterialsLine>, Vec<Refusal>> {
    let mut plans: Vec<(usize, Plan)> = Vec::with_capacity(shipments.len());
    for (at, inputs) in shipments.iter().enumerate() {
        let worked = Workings::out_in(inputs, house, Detail::LEAST)?;
        let plan = left_of_plan(&worked, inputs, house)?;
        plans.extend(plan.map(|plan| (at, plan.into_owned())));
    }
    let whole: Vec<&Plan> = plans.iter().map(|(_, plan)| plan).collect();
    let mut lines: Vec<MaterialsLine> = takes(&whole, house, stock)
        .into_iter()
        .map(|taken| {
            let material = taken.goods.material();
            let takes_some = |plan: &Plan| {
                let mut parts = plan.layers.iter().flat_map(|layer| &layer.parts);
                parts.any(|part| part.material == *material)
            };
            let counting = Counting::of(&house.catalogue, material);
            MaterialsLine {
                left: left_of(&taken.goods, stock, &house.catalogue),
                supplier: counting.map_or_else(String::new, |one| one.shelf.supplier.clone()),
                of: plans
                    .iter()
                    .filter(|(_, plan)| takes_some(plan))
                    .map(|(at, _)| *at)
                    .collect(),
                goods: taken.goods,
                name: taken.name,
                amount: taken.amount,
            }
        })
        .collect();
    lines.sort_by_key(|line| line.short() == 0);
    Ok(lines)
}

struct Asking<'a> {
    inputs: &'a ShipmentInputs,
    house: &'a House,
    stock: &'a [StockItem],
    today: Date,
    leaves: Option<Date>,
}

impl Asking<'_> {
    fn line(&self, taken: &Taken) -> ShelfLine {
        let Taken {
            goods,
            name,
            amount,
            slot: _,
        } = taken;
        let amount = *amount;
        let catalogue = &self.house.catalogue;
        let left = left_of(goods, self.stock, catalogue);
        let short = left.map_or(0, |left| (amount - left).max(0));
        let counting = Counting::of(catalogue, goods.material());
        let lead_days = counting.as_ref().and_then(|one| one.shelf.lead_days);
        let order_by = self
            .leaves
            .zip(lead_days)
            .filter(|_| short > 0)
            .map(|(leaves, days)| working_days_before(leaves, days));
        ShelfLine {
            measure: goods.measure(),
            needs: amount,
            left,
            short,
            supplier: counting.map_or_else(String::new, |one| one.shelf.supplier.clone()),
            lead_days,
            too_late: order_by.is_some_and(|day| day < self.today),
            order_by,
            substitute: None,
            goods: goods.clone(),
            name: name.clone(),
        }
    }

    fn with_substitute(&self, taken: &Taken) -> ShelfLine {
        let line = self.line(taken);
        let counting = Counting::of(&self.house.catalogue, taken.goods.material());
        let instead = counting
            .and_then(|one| one.shelf.substitute.clone())
            .filter(|_| line.short > 0);
        ShelfLine {
            substitute: instead.and_then(|id| self.substitute(&id, &taken.goods, taken.slot)),
            ..line
        }
    }

    fn substitute(&self, id: &MaterialId, goods: &Goods, slot: LayerSlot) -> Option<Substitute> {
        let name = Counting::of(&self.house.catalogue, id)?.name.to_owned();
        let offered = alternatives(self.inputs, self.house, slot)
            .ok()
            .into_iter()
            .flatten()
            .find(|one| one.refused.is_none() && one.choices.name_material(id));
        let Some(offered) = offered else {
            return Some(Substitute {
                material: id.clone(),
                name,
                choices: None,
                change: None,
                helps: false,
            });
        };
        let then = ShipmentInputs {
            choices: self.inputs.choices.patched(&offered.choices),
            ..self.inputs.clone()
        };
        let lacks = |inputs: &ShipmentInputs| {
            let plan = Workings::out(inputs, self.house).ok()?.plan?;
            let short = takes(&[&plan], self.house, self.stock)
                .iter()
                .filter(|taken| {
                    taken.goods.material() == goods.material() || taken.goods.material() == id
                })
                .filter(|taken| {
                    left_of(&taken.goods, self.stock, &self.house.catalogue)
                        .is_some_and(|left| left < taken.amount)
                })
                .count();
            Some(short)
        };
        Some(Substitute {
            material: id.clone(),
            name,
            helps: lacks(&then)
                .zip(lacks(self.inputs))
                .is_some_and(|(then, now)| then < now),
            choices: Some(offered.choices),
            change: offered.change,
        })
    }
}

/// Returns how much of something there is: as it was counted, else as the stores say; `None` if neither does.
#[must_use]
pub fn left_of(goods: &Goods, stock: &[StockItem], catalogue: &Catalogue) -> Option<i64> {
    let key = goods.key()?;
    let counted = stock
        .iter()
        .find(|item| item.goods.key().as_ref() == Some(&key))
        .map(|item| item.left);
    counted.or_else(|| {
        let (said, count) = Counting::of(catalogue, goods.material())?.said(goods.material())?;
        (said.key()? == key).then_some(count)
    })
}

/// Returns the day that lies so many working days before another.
fn working_days_before(day: Date, count: u32) -> Date {
    let mut day = day;
    let mut left = count;
    while left > 0 {
        day = day.saturating_sub(1.day());
        if !matches!(day.weekday(), Weekday::Saturday | Weekday::Sunday) {
            left -= 1;
        }
    }
    day
}

#[cfg(test)]
mod tests {
    use jiff::civil::date;

    use super::*;

    #[test]
    fn working_days_leave_out_the_end_of_the_week() {
        // 9 March 2027 is a Tuesday: one before it is Monday the 8th, two Friday the 5th, six Monday the 1st.
        let tuesday = date(2027, 3, 9);
        for (count, wanted) in [(0, 9), (1, 8), (2, 5), (6, 1)] {
            assert_eq!(working_days_before(tuesday, count), date(2027, 3, wanted));
        }
    }
}
