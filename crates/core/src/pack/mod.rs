//! The packing itself: the steps at the bench in the order of the job, what each waits for and covers, and how far somebody got.
//!
//! [`order`] puts the steps in order, [`boxing`] those of a box around the acts of its container; [`words`] says how each other step is
//! done, [`reach`] what each hides, and [`dangers`] what could hurt.

mod boxing;
mod contained;
mod dangers;
mod looks;
mod order;
mod progress;
mod reach;
mod step;
mod words;

pub use contained::container_of;
pub use order::pack_steps;
pub use progress::{PackProgress, PackView, StepState, StepTick, StepView};
pub use step::{PackStep, Sign, Stage};
