//! Before it leaves, and what it came to: the list that is looked at, and what the buyer pays, over drawn shipments.

use std::sync::LazyLock;

use hummock_core::{
    house::{ChargeRule, CoverRule},
    plan::FindingLevel,
    quantity::{Currency, Money, Sum},
    sending::{AddressGap, Inspection, LeavingCheck, leaving_checks},
    shipment::{CostKind, OpenFinding, ProtectedLook, ShipmentInputs, Summary, Workings, charge},
};
use proptest::{prelude::*, sample::select};
use rust_decimal::Decimal;

use crate::studio::{four_carriers, house, sent_pieces};

const PRINT: &str = "ab12";

/// What somebody may have done before a parcel leaves.
#[derive(Debug, Clone, PartialEq)]
struct Done {
    planned: bool,
    stop: bool,
    read: bool,
    gap: bool,
    booked: Option<bool>,
    abroad: bool,
    protected: Option<bool>,
    named: bool,
    chosen: bool,
    short: bool,
    followed: bool,
    marked: bool,
    handed: bool,
    receipt: bool,
}

prop_compose! {
    fn any_done()(
        [planned, stop, read, gap, abroad, named] in any::<[bool; 6]>(),
        booked in prop::option::of(any::<bool>()),
        protected in prop::option::of(any::<bool>()),
        [chosen, short, followed, marked, handed, receipt] in any::<[bool; 6]>(),
    ) -> Done {
        Done {
            planned, stop, read, gap, booked, abroad, protected, named, chosen, short, followed, marked, handed, receipt,
        }
    }
}

/// An everyday piece that is worth something, and its summary.
static PLANNED: LazyLock<(ShipmentInputs, Summary)> = LazyLock::new(|| {
    let (_, inputs) = sent_pieces().next().expect("there is one");
    let worked = Workings::out(&inputs, &house()).expect("it can be made");
    let summary = worked.summary(&inputs).expect("it is measured");
    (inputs, summary)
});

impl Done {
    fn checks(&self) -> Vec<LeavingCheck> {
        let (mut inputs, mut summary) = PLANNED.clone();
        let sending = &mut inputs.sending;
        sending.addresses_read = self.read.then(|| PRINT.to_owned());
        sending.protected = self.protected.map(|some| match some {
            true => ProtectedLook::Some,
            false => ProtectedLook::None,
        });
        if self.named {
            sending.protected_what = "a bone inlay".to_owned();
        }
        sending.marked = self.marked;
        sending.handed_over = self.handed.then(|| "2027-03-05".to_owned());
        if self.receipt {
            sending.receipt = "R 12".to_owned();
        }
        let stop = self.stop.then(|| OpenFinding {
            level: FindingLevel::Stop,
            code: "pane".to_owned(),
            says: "What holds the pane?".to_owned(),
        });
        summary.open = stop.into_iter().collect();
        if let Some(best) = &mut summary.best {
            best.chosen = self.chosen;
            let euros = Currency::try_from("EUR".to_owned()).expect("a currency");
            best.uncovered = self.short.then(|| Money::new(Decimal::TEN, &euros));
        }
        let gap = AddressGap {
            field: "buyer.street".to_owned(),
            says: "the street is missing".to_owned(),
        };
        leaving_checks(&Inspection {
            inputs: &inputs,
            summary: self.planned.then_some(&summary),
            today: jiff::civil::date(2027, 3, 4),
            telling: hummock_core::quantity::Telling::default(),
            gaps: if self.gap {
                std::slice::from_ref(&gap)
            } else {
                &[]
            },
            print: PRINT,
            booked_print: self.booked.map(|same| if same { PRINT } else { "cd34" }),
            tracking: self.followed.then_some("GP 1"),
            tracked: true,
            bookable: self.short,
            customs: self.abroad,
        })
    }
}

proptest! {
    /// Nothing leaves before it can be made, is addressed, looked at for the border where there is one, and has a service.
    #[test]
    fn a_parcel_may_leave_exactly_when_all_that_is_needed_is_done(done in any_done()) {
        let may_leave = done.checks().iter().all(|check| check.done || !check.needed);
        let looked = match done.protected {
            None => false,
            Some(some) => !some || done.named,
        };
        let addressed = done.read && !done.gap && done.booked != Some(false);
        let wanted = done.planned && !done.stop && addressed && (looked || !done.abroad) && done.chosen;
        prop_assert_eq!(may_leave, wanted);
    }

    /// Each line of the list has its own key, and says one thing when it is done and another when it is not; what a person confirms says what is
    /// confirmed either way.
    #[test]
    fn a_line_that_is_done_reads_otherwise_than_one_that_is_not(one in any_done(), other in any_done()) {
        let (one, other) = (one.checks(), other.checks());
        for (at, check) in one.iter().enumerate() {
            prop_assert!(one[at + 1..].iter().all(|later| later.key != check.key));
            for beside in other.iter().filter(|beside| beside.key == check.key) {
                prop_assert_eq!(beside.needed, check.needed);
                let same = beside.done == check.done || check.confirm && beside.confirm;
                prop_assert!(same || beside.says != check.says, "{}", check.says);
            }
        }
    }

    /// Only what crosses a border is looked at for protected materials, and a receipt is asked for once it is handed over.
    #[test]
    fn what_is_asked_depends_on_the_border_and_on_the_hand_over_alone(done in any_done()) {
        let keys: Vec<&str> = done.checks().iter().map(|check| check.key).collect();
        let mut wanted = vec!["answered", "service", "cover", "packed", "weighed", "addresses"];
        wanted.extend(done.abroad.then_some("protected"));
        wanted.extend(["tracking", "marked"]);
        wanted.extend(done.handed.then_some("receipt"));
        prop_assert_eq!(keys, wanted);
    }

    /// Materials, work and overhead from the plan, carriage from the quote: each rule charges its own of them, and what stays is
    /// what is paid less what it cost.
    #[test]
    fn each_rule_charges_what_it_names_and_the_rest_stays(
        (_, mut inputs) in select(sent_pieces().collect::<Vec<_>>()),
        cover in select(CoverRule::ALL.to_vec()),
        worth in 1_u32..5000,
        [overhead, flat, free] in [0_u32..200, 0..100, 0..5000],
        rule in select(ChargeRule::ALL.to_vec()),
    ) {
        inputs.choices.schools.charge = Some(rule);
        inputs.choices.schools.cover = Some(cover);
        inputs.value = Some(worth.to_string());
        let mut house = four_carriers();
        let allowances = &mut house.rules.allowances;
        allowances.overhead_percent = overhead.into();
        allowances.charge_flat = Sum::new(flat.into());
        allowances.charge_free_above = Sum::new(free.into());
        let told = charge(&inputs, &house).expect("it can be made").expect("it is measured");
        let worked = Workings::out(&inputs, &house).expect("it can be made");
        let plan = worked.plan.as_ref().expect("it is charged for");
        let of = |kinds: &[CostKind]| -> Decimal {
            let lines = told.lines.iter().filter(|line| kinds.contains(&line.kind));
            lines.map(|line| line.amount.amount).sum()
        };
        use CostKind::{Carriage, Cover, Loss, Materials, Overhead, Tax, Work};
        let (materials, work) = (plan.tally.materials.amount, plan.tally.labour.amount);
        prop_assert_eq!(of(&[Materials]), materials);
        prop_assert_eq!(of(&[Work]), work);
        // Half a cent up or down.
        let share = (materials + work) * Decimal::from(overhead) / Decimal::ONE_HUNDRED;
        prop_assert!((of(&[Overhead]) - share).abs() <= Decimal::new(5, 3));
        let loss = plan.odds.expected_loss.as_ref().map_or(Decimal::ZERO, |loss| loss.amount);
        prop_assert_eq!(of(&[Loss]), loss);
        let carried = of(&[Carriage, Tax, Cover]);
        let quoted = worked.quotes.iter().find_map(|quote| quote.total_here.as_ref());
        prop_assert_eq!(carried, quoted.map_or(Decimal::ZERO, |total| total.amount));
        let costs = materials + work + of(&[Overhead]) + carried + loss;
        prop_assert_eq!(told.costs.amount, costs);
        let is_free = free > 0 && worth >= free;
        for policy in &told.policies {
            let wanted = match policy.rule {
                _ if is_free => Decimal::ZERO,
                ChargeRule::AtCost => carried,
                ChargeRule::WithMaterials => carried + materials,
                ChargeRule::WithTime => costs - loss,
                ChargeRule::Flat => Decimal::from(flat),
                ChargeRule::Included => Decimal::ZERO,
            };
            prop_assert_eq!(policy.pays.amount, wanted);
            prop_assert_eq!(policy.gain.amount, wanted - costs);
        }
        let rules: Vec<_> = told.policies.iter().map(|policy| policy.rule).collect();
        prop_assert_eq!(rules, ChargeRule::ALL.to_vec());
        let own = told.policies.iter().find(|policy| policy.rule == rule).expect("it is among them");
        prop_assert_eq!((&told.pays, &told.gain, told.rule), (&own.pays, &own.gain, rule));
        // What was used before is never dearer than the same new.
        prop_assert!(told.saved_by_reuse.amount >= Decimal::ZERO);
    }
}
