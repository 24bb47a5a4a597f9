//! The work line: where a shipment stands at each stop, and what is to be done next.

use jiff::civil::Date;
use serde::Serialize;
use strum::EnumCount;

use super::{Matter, MatterKind, Outcome, ShipmentInputs, Summary};
use crate::quantity::{Telling, read_mass};

/// A stop of the work line.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, EnumCount)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Stop {
    /// What is shipped.
    Measure,
    /// How it is protected.
    Guard,
    /// What it is boxed in.
    Box,
    /// What it costs to send.
    Price,
    /// The packing itself.
    Pack,
    /// What the packed parcel weighs.
    Weigh,
    /// How it leaves.
    Send,
    /// What came of it.
    After,
}

impl Stop {
    /// Every stop, in the order of the work.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::Measure,
        Self::Guard,
        Self::Box,
        Self::Price,
        Self::Pack,
        Self::Weigh,
        Self::Send,
        Self::After,
    ];
}

/// How far a stop is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Mark {
    /// Looked at and found right.
    Done,
    /// Still to be looked at.
    Open,
    /// Something about it changed, or must be answered.
    Look,
}

/// A stop with its mark.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StopState {
    /// The stop of the work line.
    pub stop: Stop,
    /// How far.
    pub mark: Mark,
}

/// The next thing to do for a shipment.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum NextAct {
    /// Say what the piece is and how large.
    Measure,
    /// The paint has not cured.
    LetItCure {
        /// The first day it may be wrapped; absent when the day it was finished is not known.
        #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
        cured_on: Option<Date>,
        /// How long the paint needs.
        needs: String,
        /// How many Stops of the plan must be answered besides.
        more: usize,
    },
    /// A Stop of the plan.
    Answer {
        /// What it says.
        says: String,
        /// How many other Stops must be answered besides.
        more: usize,
    },
    /// Look at the layers.
    LookAtGuard,
    /// Look at the box.
    LookAtBox,
    /// Say where it goes.
    SayWhere,
    /// It is known where it goes, and nobody carries: the studio has no price list, and no price was quoted.
    FindCarrier,
    /// No service takes it.
    MakeItSmaller,
    /// Choose a service.
    ChooseService,
    /// Everything is settled.
    Pack,
    /// The plan was changed after something of it was packed.
    LookAtPacking,
    /// It is packed.
    WeighIt,
    /// It was weighed as another plan, or is off by more than its plan explains.
    LookAtWeight,
    /// It is packed and weighed.
    HandOver,
    /// It is on its way.
    Follow,
    /// It arrived damaged, or not at all, and the carrier has not heard of it.
    Claim,
    /// The carrier has the claim.
    AwaitClaim,
    /// Nothing is left to be done.
    PutAway,
}

/// What can be done for a shipment now: the heading that it stands under on the bench.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum WorkGroup {
    /// Wrap and box it: everything is settled, and what lies around the piece is cut.
    Pack,
    /// Cut its parts: everything is settled.
    Cut,
    /// Wait for materials: everything is settled, nothing is cut, and the shelf has less than the plan takes.
    Materials,
    /// Weigh what is packed.
    Weigh,
    /// Hand it to the carrier.
    HandOver,
    /// Settle its measure, guard, box, place or service.
    Plan,
    /// Wait until its paint has cured.
    Paint,
    /// Wait until it arrives.
    OnItsWay,
    /// Settle what came of it.
    Settle,
}

impl NextAct {
    /// Returns the heading that a shipment stands under while this is the next thing to do for it.
    #[must_use]
    pub const fn group(&self) -> WorkGroup {
        match self {
            Self::Measure
            | Self::Answer { .. }
            | Self::LookAtGuard
            | Self::LookAtBox
            | Self::SayWhere
            | Self::FindCarrier
            | Self::MakeItSmaller
            | Self::ChooseService => WorkGroup::Plan,
            Self::LetItCure { .. } => WorkGroup::Paint,
            Self::Pack | Self::LookAtPacking => WorkGroup::Pack,
            Self::WeighIt | Self::LookAtWeight => WorkGroup::Weigh,
            Self::HandOver => WorkGroup::HandOver,
            Self::Follow => WorkGroup::OnItsWay,
            Self::Claim | Self::AwaitClaim | Self::PutAway => WorkGroup::Settle,
        }
    }
}

/// How far a parcel is, as one would see it on the table.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum ParcelStage {
    /// The piece alone.
    Bare,
    /// Something lies around it.
    Wrapped,
    /// It is packed.
    Boxed,
    /// Label and marks are on it.
    Labelled,
    /// It was handed over.
    Gone,
}

impl ParcelStage {
    fn of(inputs: &ShipmentInputs, summary: Option<&Summary>) -> Self {
        if inputs.handed_over().is_some() {
            return Self::Gone;
        }
        let is_packed = summary.is_some_and(|summary| pack_mark(inputs, summary) == Mark::Done);
        let has_begun =
            summary.is_some_and(|summary| summary.packed.is_some_and(|packed| packed.laid > 0));
        match (is_packed, has_begun) {
            (true, _) if inputs.sending.marked => Self::Labelled,
            (true, _) => Self::Boxed,
            (false, true) => Self::Wrapped,
            (false, false) => Self::Bare,
        }
    }
}

/// How near the day is that a shipment is promised for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Promise {
    /// It is over.
    Past,
    /// Within a week.
    Soon,
    /// After that.
    Later,
}

impl Promise {
    /// How many days ahead a promise wants looking after.
    const SOON_DAYS: i32 = 7;

    fn on(today: Date, promised: Date) -> Self {
        match (promised - today).get_days() {
            ..0 => Self::Past,
            0..=Self::SOON_DAYS => Self::Soon,
            _ => Self::Later,
        }
    }
}

/// Where a shipment stands.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WorkLine {
    /// Every stop in the order of the work.
    pub stops: [StopState; 8],
    /// What is to be done next.
    pub next: NextAct,
    /// Whether the paint and varnish have cured by the day; null where there is nothing to cure, or no plan.
    pub cured: Option<bool>,
    /// How near the promised day is; null where none is promised.
    pub promise: Option<Promise>,
    /// The heading that it stands under on the bench.
    pub group: WorkGroup,
    /// How far the parcel is.
    pub parcel: ParcelStage,
}

impl WorkLine {
    /// Returns where a shipment stands on a day.
    #[must_use]
    pub fn on(today: Date, inputs: &ShipmentInputs, summary: Option<&Summary>) -> Self {
        let promise = inputs.promised_for().map(|day| Promise::on(today, day));
        let Some(summary) = summary else {
            let open = |stop| StopState {
                stop,
                mark: Mark::Open,
            };
            let stops = Stop::ALL.map(open);
            return Self {
                stops,
                next: NextAct::Measure,
                cured: None,
                promise,
                group: NextAct::Measure.group(),
                parcel: ParcelStage::of(inputs, None),
            };
        };
        let settled = |by: &Option<String>| match by {
            Some(fingerprint) if *fingerprint == summary.fingerprint => Mark::Done,
            Some(_) => Mark::Look,
            None => Mark::Open,
        };
        let has_cured = summary.cure.as_ref().map(|cure| cure.is_cured_by(today));
        let stopped = summary.stopped(inputs, today, Telling::default());
        let cured = stopped
            .first()
            .is_none_or(|first| first.kind != MatterKind::Cure);
        let marks = [
            (Stop::Measure, if cured { Mark::Done } else { Mark::Look }),
            (
                Stop::Guard,
                if !stopped.is_empty() {
                    Mark::Look
                } else {
                    settled(&inputs.settled.guard)
                },
            ),
            (Stop::Box, settled(&inputs.settled.carton)),
            (Stop::Price, price_mark(inputs, summary)),
            (Stop::Pack, pack_mark(inputs, summary)),
            (Stop::Weigh, weigh_mark(inputs, summary)),
            (Stop::Send, send_mark(inputs)),
            (Stop::After, after_mark(inputs)),
        ];
        let next = afterwards(inputs)
            .or_else(|| unmet(&stopped, summary, today))
            .or_else(|| unpacked(summary))
            .unwrap_or_else(|| first_open(marks, inputs, summary));
        Self {
            stops: marks.map(|(stop, mark)| StopState { stop, mark }),
            group: match next.group() {
                WorkGroup::Pack if next == NextAct::Pack && summary.to_cut => WorkGroup::Cut,
                group => group,
            },
            next,
            cured: has_cured,
            promise,
            parcel: ParcelStage::of(inputs, Some(summary)),
        }
    }
}

impl WorkLine {
    /// Tells whether it is packed next, and nothing is cut or laid for it: only then is it asked whether the materials are there.
    #[must_use]
    pub fn is_about_to_be_packed(&self, summary: Option<&Summary>) -> bool {
        let untouched = summary.is_some_and(|summary| {
            summary
                .packed
                .is_none_or(|packed| packed.cut + packed.laid == 0)
        });
        self.next == NextAct::Pack && untouched
    }

    /// Returns the line of a shipment for which the shelf lacks something.
    #[must_use]
    pub fn waiting_for_materials(self) -> Self {
        Self {
            group: WorkGroup::Materials,
            ..self
        }
    }
}

fn price_mark(inputs: &ShipmentInputs, summary: &Summary) -> Mark {
    match (&summary.best, &inputs.service) {
        (Some(best), Some(_)) if best.chosen => Mark::Done,
        (_, Some(_)) => Mark::Look,
        (None, None) if summary.asked => Mark::Look,
        (_, None) => Mark::Open,
    }
}

/// It is packed once every step is ticked that stops until it is answered; what left was packed, ticked or not.
pub(super) fn pack_mark(inputs: &ShipmentInputs, summary: &Summary) -> Mark {
    match summary.packed {
        _ if inputs.handed_over().is_some() => Mark::Done,
        Some(packed) if packed.touched > 0 => Mark::Look,
        Some(packed) if packed.is_done() => Mark::Done,
        Some(_) | None => Mark::Open,
    }
}

fn weigh_mark(inputs: &ShipmentInputs, summary: &Summary) -> Mark {
    // The same weight, however it was written.
    let settled = inputs.settled.weigh.as_deref().map(read_mass);
    let settled = settled.and_then(Result::ok);
    let settled = settled.is_some() && settled == summary.weighed.map(|weighed| weighed.mass);
    match summary.weighed {
        None => Mark::Open,
        Some(weighed) if weighed.stands && (weighed.as_planned || settled) => Mark::Done,
        Some(_) => Mark::Look,
    }
}

fn send_mark(inputs: &ShipmentInputs) -> Mark {
    match inputs.handed_over() {
        Some(_) => Mark::Done,
        None => Mark::Open,
    }
}

fn after_mark(inputs: &ShipmentInputs) -> Mark {
    match afterwards(inputs) {
        Some(NextAct::PutAway) => Mark::Done,
        Some(NextAct::Claim | NextAct::AwaitClaim) => Mark::Look,
        _ => Mark::Open,
    }
}

/// What is to be done once it has left; `None` before that.
fn afterwards(inputs: &ShipmentInputs) -> Option<NextAct> {
    inputs.handed_over()?;
    let claim = &inputs.after.claim;
    Some(match inputs.after.outcome {
        None => NextAct::Follow,
        Some(Outcome::Damaged | Outcome::Lost) if claim.is_closed() => NextAct::PutAway,
        Some(Outcome::Damaged | Outcome::Lost) if claim.sent_on.is_some() => NextAct::AwaitClaim,
        Some(Outcome::Damaged | Outcome::Lost) => NextAct::Claim,
        Some(Outcome::Arrived | Outcome::Returned) => NextAct::PutAway,
    })
}

/// A Stop comes before everything else; how many more there are is told with it.
fn unmet(stopped: &[Matter], summary: &Summary, today: Date) -> Option<NextAct> {
    let (first, others) = stopped.split_first()?;
    let more = others.len();
    Some(match summary.wet_on(today).cloned() {
        Some(cure) => NextAct::LetItCure {
            cured_on: cure.cured_on,
            needs: cure.needs,
            more,
        },
        None => NextAct::Answer {
            says: first.says.clone(),
            more,
        },
    })
}

/// What lies around the piece already is another thing by now: nothing else goes on before that.
fn unpacked(summary: &Summary) -> Option<NextAct> {
    summary
        .packed
        .is_some_and(|packed| packed.touched > 0)
        .then_some(NextAct::LookAtPacking)
}

fn first_open(marks: [(Stop, Mark); 8], inputs: &ShipmentInputs, summary: &Summary) -> NextAct {
    match marks
        .into_iter()
        .find(|(_, mark)| *mark != Mark::Done)
        .map(|(stop, _)| stop)
    {
        Some(Stop::Measure) => NextAct::Measure,
        Some(Stop::Guard) => NextAct::LookAtGuard,
        Some(Stop::Box) => NextAct::LookAtBox,
        Some(Stop::Price) if !summary.asked && inputs.buyer.country.is_empty() => NextAct::SayWhere,
        Some(Stop::Price) if !summary.asked => NextAct::FindCarrier,
        Some(Stop::Price) if summary.best.is_none() => NextAct::MakeItSmaller,
        Some(Stop::Price) => NextAct::ChooseService,
        Some(Stop::Weigh) if summary.weighed.is_some() => NextAct::LookAtWeight,
        Some(Stop::Pack) => NextAct::Pack,
        Some(Stop::Weigh) => NextAct::WeighIt,
        // After that it is on its way.
        Some(Stop::Send | Stop::After) | None => NextAct::HandOver,
    }
}

#[cfg(test)]
pub(super) mod tests;
