//! How much of a plan and its quotes is told.

/// The parts of a plan that can be left out; layers, odds, findings and totals are always told. A page that asks anew with every key
/// leaves out the parts that are folded away.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Detail {
    /// The engineer's view: falls, curves, press-in and stack. Without it only what the piece can take is told.
    pub survival: bool,
    /// How every layer stands that could be there. Without it none is told.
    pub slots: bool,
    /// The lines of each quote. Without them its total stands alone.
    pub lines: bool,
}

impl Detail {
    /// All of it.
    pub const WHOLE: Self = Self {
        survival: true,
        slots: true,
        lines: true,
    };

    /// Layers, odds, findings and totals alone.
    pub const LEAST: Self = Self {
        survival: false,
        slots: false,
        lines: false,
    };
}

impl Default for Detail {
    fn default() -> Self {
        Self::WHOLE
    }
}
