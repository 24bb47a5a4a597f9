//! What a parcel costs the studio with a service: one sum, made of the same parts wherever it is told.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{LineKind, QuoteLine};
use crate::quantity::{Currency, Money};

/// What a parcel costs the studio, part by part, in its own money. Every part is an amount to the minor unit, and every sum is the
/// sum of the parts as they are written.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Cost {
    /// The materials that the plan takes, at their prices.
    pub materials: Money,
    /// The minutes of work, at the studio's hourly rate.
    pub work: Money,
    /// The studio's share for rent, tools and the rest, on materials and work.
    pub overhead: Money,
    /// The carrier's price, with discounts taken off.
    pub carriage: Money,
    /// What the carrier's rules add, and fuel.
    pub surcharges: Money,
    /// The carrier's tax.
    pub tax: Money,
    /// Cover beyond what is included.
    pub cover: Money,
    /// What is damaged or lost on average, beyond the cover; nothing for a piece without a value.
    pub expected_loss: Money,
    /// Work and overhead together.
    pub work_and_overhead: Money,
    /// What the carrier is paid: carriage, surcharges, tax and cover.
    pub to_carrier: Money,
    /// What it costs to send: everything but the expected loss.
    pub to_send: Money,
    /// Everything.
    pub total: Money,
}

/// What making a parcel costs.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Making {
    /// The materials that the plan takes, at their prices.
    pub materials: Decimal,
    /// The minutes of work, at the studio's hourly rate.
    pub work: Decimal,
    /// The studio's share for rent and tools, on materials and work.
    pub overhead: Decimal,
}

/// What a carrier is paid, in the studio's money.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
struct Paid {
    carriage: Decimal,
    surcharges: Decimal,
    tax: Decimal,
    cover: Decimal,
}

impl Paid {
    /// Parts a price: `total` is its sum in the studio's money, `rate` what one unit of the carrier's money is worth there.
    fn parted(lines: &[QuoteLine], total: &Money, rate: Decimal) -> Self {
        let mut paid = Self::default();
        for line in lines {
            let amount = line.amount.amount;
            match line.kind {
                // What is left of the total is carriage: what rounding takes away by converting stays in it.
                LineKind::Base | LineKind::Further | LineKind::Discount => {}
                LineKind::Surcharge | LineKind::Fuel => paid.surcharges += amount,
                LineKind::Tax => paid.tax += amount,
                LineKind::Cover => paid.cover += amount,
            }
        }
        for part in [&mut paid.surcharges, &mut paid.tax, &mut paid.cover] {
            *part = total.currency.round(part.saturating_mul(rate));
        }
        paid.carriage = total.amount - paid.surcharges - paid.tax - paid.cover;
        paid
    }
}

impl Cost {
    /// Returns what a parcel costs with a service that takes it at a price: its lines, their sum in the studio's money, and what one
    /// unit of the carrier's money is worth there.
    pub(crate) fn carried(
        making: Making,
        (lines, total, rate): (&[QuoteLine], &Money, Decimal),
        expected_loss: Option<&Money>,
    ) -> Self {
        let paid = Paid::parted(lines, total, rate);
        Self::of(making, paid, expected_loss, &total.currency)
    }

    /// Returns what a parcel costs before it is known what a carrier takes.
    pub(crate) fn made(making: Making, expected_loss: Option<&Money>, own: &Currency) -> Self {
        Self::of(making, Paid::default(), expected_loss, own)
    }

    fn of(making: Making, paid: Paid, expected_loss: Option<&Money>, own: &Currency) -> Self {
        let money = |amount: Decimal| Money::new(amount, own);
        let Making {
            materials,
            work,
            overhead,
        } = making;
        let (materials, work, overhead) = (money(materials), money(work), money(overhead));
        let loss = expected_loss.map_or(Decimal::ZERO, |loss| loss.amount);
        let to_carrier = paid.carriage + paid.surcharges + paid.tax + paid.cover;
        let own_work = work.amount + overhead.amount;
        let to_send = materials.amount + own_work + to_carrier;
        Self {
            materials,
            work,
            overhead,
            carriage: money(paid.carriage),
            surcharges: money(paid.surcharges),
            tax: money(paid.tax),
            cover: money(paid.cover),
            expected_loss: money(loss),
            work_and_overhead: money(own_work),
            to_carrier: money(to_carrier),
            to_send: money(to_send),
            total: money(to_send + loss),
        }
    }
}
