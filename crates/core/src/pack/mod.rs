//! The packing itself: the steps at the bench in the order of the job, what each waits for, and how far somebody got.

mod looks;
mod progress;
mod sheet;
mod steps;
mod unpacking;
mod words;

pub use looks::{Look, LookKind};
pub use progress::{PackProgress, PackView, StepState, StepView};
pub use sheet::{PackSheet, SheetCuts, SheetStep};
pub use steps::{PackStep, Stage, Strips, Tool, pack_steps};
pub use unpacking::{UnpackingGuide, UnpackingStep};
