//! The packing itself: the steps at the bench in the order of the job, what each waits for, and how far somebody got.

mod looks;
mod progress;
mod steps;
mod words;

pub use progress::{PackProgress, PackView, StepState, StepTick, StepView};
pub use steps::{PackStep, Stage, Strips, pack_steps};
