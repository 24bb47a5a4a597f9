//! Everything that is still in the way of a shipment, told alike wherever it is told: at the foot, on the work line, on the bench, at Send
//! and on the pack sheet.

use jiff::civil::Date;
use serde::Serialize;

use super::{Mark, Stop, Summary, line::pack_mark, uncured};
use crate::{
    freight::PromiseMet,
    piece::Cure,
    plan::FindingLevel::{self, Mind, Note},
    quantity::Telling,
    shipment::ShipmentInputs,
};

/// One thing that is still in the way of a shipment.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Matter {
    /// Kind of the matter.
    pub kind: MatterKind,
    /// How much it matters: a Stop comes before everything else.
    pub level: FindingLevel,
    /// The matter in one sentence.
    pub says: String,
    /// The stop at which it is settled.
    pub at: Stop,
    /// Code of the finding of the plan that says it; `None` where no finding does.
    pub code: Option<String>,
}

/// Kind of a matter, in the order in which matters are told.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum MatterKind {
    /// Paint or varnish is not dry.
    Cure,
    /// A Stop of the plan.
    Stop,
    /// A Mind of the plan.
    Mind,
    /// The promised day may not be met.
    Late,
    /// The shelf has less than the plan takes.
    Short,
    /// The addresses of a packed parcel were not read, or one of them lacks something.
    Unread,
    /// A packed parcel was not weighed as it is.
    NotWeighed,
}

/// What is known of a shipment besides its inputs and figures.
#[derive(Debug, Clone, Copy)]
pub struct Circumstances<'a> {
    /// The day, where the studio is.
    pub today: Date,
    /// How quantities and days are told.
    pub telling: Telling,
    /// Names of the materials that the shelf lacks for it; empty once something was taken or laid for it.
    pub short: &'a [String],
    /// Both addresses.
    pub addresses: Addresses<'a>,
}

/// How both addresses of a parcel stand.
#[derive(Debug, Clone, Copy)]
pub struct Addresses<'a> {
    /// The first thing that either lacks, as "the postcode is missing"; `None` if both are whole.
    pub lacks: Option<&'a str>,
    /// Print of both as they are now.
    pub print: &'a str,
}

/// No more materials are named than this; the others are counted.
const MOST_NAMED: usize = 2;

/// Returns everything that is in the way of a shipment, in the order in which it is told; nothing before there is a plan, and nothing
/// once it left.
#[must_use]
pub fn against(
    inputs: &ShipmentInputs,
    summary: Option<&Summary>,
    around: &Circumstances<'_>,
) -> Vec<Matter> {
    let Some(summary) = summary.filter(|_| inputs.handed_over().is_none()) else {
        return Vec::new();
    };
    let mut matters = summary.stopped(inputs, around.today, around.telling);
    let minds = summary.open.iter().filter(|one| one.level == Mind);
    matters.extend(minds.map(|one| Matter {
        code: Some(one.code.clone()),
        ..Matter::of(MatterKind::Mind, Mind, one.says.clone(), Stop::Guard)
    }));
    let packed = pack_mark(inputs, summary) == Mark::Done;
    matters.extend(late(inputs, summary, around));
    matters.extend(short(around.short));
    if packed {
        matters.extend(unread(inputs, around.addresses));
        matters.extend(not_weighed(summary));
    }
    matters
}

impl Matter {
    fn of(kind: MatterKind, level: FindingLevel, says: impl Into<String>, at: Stop) -> Self {
        Self {
            kind,
            level,
            says: says.into(),
            at,
            code: None,
        }
    }
}

impl Summary {
    /// Returns what keeps a shipment from leaving on a day: what is not dry first, then the open Stops of its plan.
    #[must_use]
    pub fn stopped(&self, inputs: &ShipmentInputs, today: Date, telling: Telling) -> Vec<Matter> {
        let wet = self.wet_on(today).map(|cure| Matter {
            code: Some(uncured::CURE.to_owned()),
            ..Matter::of(
                MatterKind::Cure,
                FindingLevel::Stop,
                uncured::fact(cure, inputs.promised_for(), telling),
                Stop::Measure,
            )
        });
        let stops = self
            .open
            .iter()
            .filter(|one| one.level == FindingLevel::Stop);
        let stops = stops.map(|one| Matter {
            code: Some(one.code.clone()),
            ..Matter::of(MatterKind::Stop, one.level, one.says.clone(), Stop::Guard)
        });
        wet.into_iter().chain(stops).collect()
    }

    /// Returns what is not dry on a day, unless somebody wrote down why it travels so.
    pub(super) fn wet_on(&self, today: Date) -> Option<&Cure> {
        let wet = self
            .cure
            .as_ref()
            .filter(|cure| uncured::is_uncured(cure, today));
        wet.filter(|_| !self.cure_lifted)
    }
}

/// Source: the carrier's calendar; a day that is over is met by nobody.
fn late(inputs: &ShipmentInputs, summary: &Summary, around: &Circumstances<'_>) -> Option<Matter> {
    let promised = inputs.promised_for()?;
    let day = around.telling.day(promised);
    let says = if promised < around.today {
        format!("Promised for {day}, now overdue.")
    } else {
        match summary.promise? {
            PromiseMet::Yes => return None,
            PromiseMet::Perhaps => format!("May arrive after the promised day, {day}."),
            PromiseMet::No => format!("Arrives after the promised day, {day}."),
        }
    };
    Some(Matter::of(MatterKind::Late, Mind, says, Stop::Price))
}

/// Returns the names of materials that are short, each once: sheets of two sizes are one material.
pub fn named_short<'a>(names: impl Iterator<Item = &'a str>) -> Vec<String> {
    let mut once: Vec<String> = Vec::new();
    for name in names {
        if !once.iter().any(|known| known == name) {
            once.push(name.to_owned());
        }
    }
    once
}

fn short(names: &[String]) -> Option<Matter> {
    let named = names.get(..MOST_NAMED.min(names.len()))?.join(", ");
    let says = match names.len() {
        0 => return None,
        1 => format!("1 material short: {named}."),
        all @ 2..=MOST_NAMED => format!("{all} materials short: {named}."),
        all => format!(
            "{all} materials short: {named} and {} more.",
            all - MOST_NAMED
        ),
    };
    Some(Matter::of(MatterKind::Short, Mind, says, Stop::Box))
}

fn unread(inputs: &ShipmentInputs, addresses: Addresses<'_>) -> Option<Matter> {
    let matter =
        |level, says: String| Some(Matter::of(MatterKind::Unread, level, says, Stop::Send));
    if let Some(lacks) = addresses.lacks {
        return matter(Mind, format!("Address incomplete: {lacks}."));
    }
    let read = inputs.sending.addresses_read.as_deref() == Some(addresses.print);
    match read {
        true => None,
        false => matter(Note, "Addresses not checked yet.".to_owned()),
    }
}

fn not_weighed(summary: &Summary) -> Option<Matter> {
    let says = match summary.weighed {
        Some(weighed) if weighed.stands => return None,
        Some(_) => "Weighed before the plan changed: weigh it again.",
        None => "Not weighed yet.",
    };
    Some(Matter::of(MatterKind::NotWeighed, Note, says, Stop::Weigh))
}

#[cfg(test)]
mod tests;
