//! What follows from inputs, told without storing anything.

use serde::Serialize;

use super::{Circumstances, Matter, ShipmentInputs, Summary, WorkLine, Workings, against};

/// What follows from inputs.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Preview {
    /// The inputs, with the unit written after each bare number.
    pub inputs: ShipmentInputs,
    /// Plan and quotes.
    pub worked: Workings,
    /// The figures of the bench, once there is a plan.
    pub summary: Option<Summary>,
    /// Where a shipment with these inputs would stand.
    pub line: WorkLine,
    /// Everything that would be in the way of it.
    pub against: Vec<Matter>,
}

/// A plan with everything in it is seldom longer, so that it is written without moving what stands there already.
const USUAL_BYTES: usize = 32 * 1024;

impl Preview {
    /// Returns what is told of inputs and of what was worked out from them, with what is known besides.
    #[must_use]
    pub fn of(inputs: ShipmentInputs, worked: Workings, around: &Circumstances<'_>) -> Self {
        let summary = worked.summary(&inputs);
        let line = WorkLine::on(around.today, &inputs, summary.as_ref());
        let against = against(&inputs, summary.as_ref(), around);
        Self {
            inputs,
            worked,
            summary,
            line,
            against,
        }
    }

    /// Writes it as JSON; here, where it is asked for with every key that is struck, and compiled to be fast.
    ///
    /// # Panics
    /// Never: everything in it can be written.
    #[must_use]
    pub fn to_json(&self) -> Vec<u8> {
        let mut text = Vec::with_capacity(USUAL_BYTES);
        serde_json::to_writer(&mut text, self).expect("what is told can be written");
        text
    }
}
