//! In which order the scores of each net are folded: all of one number before any of the next.

/// Four walls around an opening: joined before any flap is folded, then the floor, then what closes last; inner flaps before outer ones.
pub(crate) mod ring {
    pub(crate) const WALLS: u32 = 1;
    pub(crate) const INNER_FLOOR: u32 = 2;
    pub(crate) const FLOOR: u32 = 3;
    pub(crate) const INNER_LID: u32 = 4;
    pub(crate) const LID: u32 = 5;
}

/// A folder: its ends fold in first, so that the lids close over their tucks.
pub(crate) mod folder {
    pub(crate) const ENDS: u32 = 1;
    pub(crate) const TUCKS: u32 = 2;
    pub(crate) const SIDES: u32 = 3;
    pub(crate) const LIDS: u32 = 4;
    /// The upper lid, where two lids lap: it closes last.
    pub(crate) const UPPER_LID: u32 = 5;
}

/// A tray: all four walls before its corners are taped.
pub(crate) mod tray {
    pub(crate) const WALLS: u32 = 1;
}

/// A triangular tube: its three creases one after the other.
pub(crate) mod tube {
    pub(crate) const LAP: u32 = 3;
    /// All three flaps of its cap.
    pub(crate) const CAP: u32 = 1;
}
