//! A browser in front of the real pages: one harness, and the page as components.

mod driver;
mod line;
mod page;
mod studio;

pub use line::Line;
pub use page::Page;
pub use studio::{Studio, with_the_demo_studio};
