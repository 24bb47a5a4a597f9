//! The sums that are typed about a shipment, and the money that they are in.

use rust_decimal::Decimal;

use super::{
    AfterInputs, ClaimInputs, OrderInputs, OtherPiece, QuotationInputs, ShipmentInputs,
    inputs::read_amount,
};
use crate::{
    Refusal,
    house::{HouseRules, MoneyChange},
    quantity::Currency,
};

impl ShipmentInputs {
    /// Meets every sum that is typed. A field that is added has to be named here, with a sum or without.
    fn each_amount(&mut self, meet: &mut impl FnMut(&mut Option<String>)) {
        let Self {
            value,
            others,
            quotations,
            after,
            currency: _,
            title: _,
            buyer: _,
            order,
            order_number: _,
            promised: _,
            piece: _,
            together: _,
            choices: _,
            lifted: _,
            lifted_for: _,
            settled: _,
            service: _,
            parcel: _,
            gift: _,
            enclosures: _,
            packed: _,
            sending: _,
        } = self;
        meet(value);
        let OrderInputs {
            paid,
            number: _,
            shop: _,
            sku: _,
            note: _,
        } = order;
        meet(paid);
        for other in others.values_mut() {
            let OtherPiece {
                value,
                title: _,
                piece: _,
                choices: _,
            } = other;
            meet(value);
        }
        for quotation in quotations.values_mut() {
            let QuotationInputs {
                price,
                covers,
                from: _,
                what: _,
                days_from: _,
                days_to: _,
                until: _,
                route: _,
            } = quotation;
            meet(price);
            meet(covers);
        }
        let AfterInputs {
            cost,
            claim,
            outcome: _,
            on: _,
            damage: _,
            failed: _,
            minutes: _,
            lesson: _,
        } = after;
        let ClaimInputs {
            asked,
            paid,
            sent_on: _,
            number: _,
            decided_on: _,
        } = claim;
        for sum in [cost, asked, paid] {
            meet(sum);
        }
    }

    fn with_amounts(mut self, change: impl Fn(Decimal) -> Decimal) -> Self {
        self.each_amount(&mut |typed| {
            if let Ok(Some(amount)) = read_amount("", typed.as_deref()) {
                *typed = Some(change(amount).to_string());
            }
        });
        self
    }

    /// Returns what is typed as it stands after its studio changed its money: what left keeps the money that it left in and says
    /// so, everything else is in the money after.
    #[must_use]
    pub fn after_change(self, change: &MoneyChange) -> Self {
        match (self.handed_over(), self.currency) {
            (_, Some(_)) => self,
            (Some(_), None) => Self {
                currency: Some(change.from()),
                ..self
            },
            (None, None) => self.with_amounts(|amount| change.amount(amount)),
        }
    }

    /// Returns what is typed with its sums in the studio's money, where they are in other money.
    ///
    /// # Errors
    /// A [`Refusal`] at `currency` when no rate of that money is kept.
    pub fn in_money_of(self, rules: &HouseRules, own: &Currency) -> Result<Self, Refusal> {
        let Some(other) = self.currency else {
            return Ok(self);
        };
        let rate = rules.rate(&other, own).ok_or_else(|| {
            let says = format!(
                "its amounts are in {0}, and the studio uses {1}: add an exchange rate for {0} in House rules first",
                other.code(),
                own.code()
            );
            Refusal::new("currency", says)
        })?;
        let inputs = Self {
            currency: None,
            ..self
        };
        Ok(match other == *own {
            true => inputs,
            false => inputs.with_amounts(|amount| own.round(amount.saturating_mul(rate))),
        })
    }

    /// Returns the money that its sums are in, in a studio that counts in `own`.
    #[must_use]
    pub fn money(&self, own: &Currency) -> Currency {
        self.currency.unwrap_or(*own)
    }
}
