//! What plain numbers may be.

use crate::refusal::Span;

pub(super) const SIDE: Span = Span::new(1.0, 10_000.0, "mm");
/// Two halves that slide into each other overlap by 100.
pub(super) const SLIDES: Span = Span::new(100.0, 10_000.0, "mm");
pub(super) const FRAMES: Span = Span::new(1.0, 60.0, "");
pub(super) const KERF: Span = Span::new(0.0, 20.0, "mm");
pub(super) const THIN: Span = Span::new(0.01, 500.0, "mm");
pub(super) const DROP: Span = Span::new(1.0, 5_000.0, "mm");
pub(super) const ALLOWANCE: Span = Span::new(0.0, 1_000.0, "mm");
pub(super) const MASS: Span = Span::new(0.001, 1_000.0, "kg");
pub(super) const AREA: Span = Span::new(0.1, 1_000_000.0, "cm²");
pub(super) const START: Span = Span::new(0.1, 10_000.0, "kPa");
pub(super) const GROWTH: Span = Span::new(0.000_1, 10.0, "m³/kJ");
pub(super) const ENERGY: Span = Span::new(0.0, 10_000.0, "kJ/m³");
pub(super) const LIMIT: Span = Span::new(1.0, 1_000.0, "times gravity");
pub(super) const FREQUENCY: Span = Span::new(0.1, 10_000.0, "Hz");
pub(super) const REBOUND: Span = Span::new(0.0, 1.0, "");
pub(super) const STIFFNESS: Span = Span::new(0.001, 100_000.0, "N·m");
pub(super) const LOAD: Span = Span::new(0.1, 100_000.0, "N");
pub(super) const EDGE_CRUSH: Span = Span::new(0.1, 100.0, "kN/m");
pub(super) const SAFETY: Span = Span::new(1.0, 50.0, "");
pub(super) const DIVISOR: Span = Span::new(100.0, 20_000.0, "cm³/kg");
pub(super) const WEIGHT_STEP: Span = Span::new(0.0, 100.0, "kg");
pub(super) const FACTOR: Span = Span::new(0.1, 10.0, "");
pub(super) const SOFT: Span = Span::new(0.0, 1_000.0, "mm");
pub(super) const PANE: Span = Span::new(0.5, 50.0, "mm");
pub(super) const PERCENT: Span = Span::new(0.0, 100.0, "");
pub(super) const ROUTE: Span = Span::new(0.0, 100.0, "");
pub(super) const SHARE_OF_ONE: Span = Span::new(0.0, 1.0, "");
pub(super) const GLASS_AREA: Span = Span::new(0.001, 20.0, "m²");
pub(super) const JOULES: Span = Span::new(0.0, 1_000.0, "J");
pub(super) const MONEY: Span = Span::new(0.0, 1e9, "");
pub(super) const SHARE: Span = Span::new(0.0, 100.0, "");
pub(super) const MEASURE: Span = Span::new(0.0, 1e12, "");
pub(super) const REFERENCE: Span = Span::new(1e-12, 1e12, "");
pub(super) const PARCELS: Span = Span::new(0.0, 1e9, "");
pub(super) const PIECES: Span = Span::new(1.0, 1_000.0, "");
pub(super) const TURNS: Span = Span::new(1.0, 20.0, "turns");
