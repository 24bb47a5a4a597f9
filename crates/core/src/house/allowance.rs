//! The table of allowances: each with its key, name, unit, default, range and reason.
//!
//! It is declared once, here, and feeds the defaults, the checks, their messages, the settings and the
//! documents.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::{
    Refusal, Refusals,
    quantity::{Currency, Length, Mass, Minutes, Sum, ceil_count, decimal_of},
};

/// What is known of one allowance.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Allowance {
    /// Its key in the house rules, ending in its unit.
    pub key: &'static str,
    /// What people call it.
    pub name: &'static str,
    /// Its unit; empty for a share.
    pub unit: &'static str,
    /// What a studio starts with.
    pub default: f64,
    /// The least allowed.
    pub least: f64,
    /// The most allowed.
    pub most: f64,
    /// Why it is there, in one sentence.
    pub reason: &'static str,
    /// Whether it is a sum in the studio's money; its default is in euros.
    pub is_money: bool,
    /// Whether the pages show and find it. Custom or physics settles the others for every studio: they are changed by this API, and
    /// the pages show one that was.
    pub on_pages: bool,
}

/// Whether an allowance is marked as one that the pages leave out.
const fn is(mark: &str) -> bool {
    !mark.is_empty()
}

/// A value was outside the range of its allowance.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("{name} is {given}; it must be from {least} to {most}{unit}: {reason}")]
pub struct OutOfAllowance {
    name: &'static str,
    given: f64,
    least: f64,
    most: f64,
    unit: String,
    reason: &'static str,
}

impl Allowance {
    /// Returns the value when it lies in the range.
    ///
    /// # Errors
    /// [`OutOfAllowance`], with the range and its reason.
    pub fn check(&self, value: f64) -> Result<f64, OutOfAllowance> {
        if (self.least..=self.most).contains(&value) {
            return Ok(value);
        }
        let unit = if self.unit.is_empty() {
            String::new()
        } else {
            format!("\u{a0}{}", self.unit)
        };
        Err(OutOfAllowance {
            name: self.name,
            given: value,
            least: self.least,
            most: self.most,
            unit,
            reason: self.reason,
        })
    }
}

/// A type that an allowance can have.
trait Allowed: Copy {
    fn of(number: f64) -> Self;
    fn number(self) -> f64;
    /// Returns it where it is a sum of money.
    fn sum(&mut self) -> Option<&mut Sum> {
        None
    }
    /// Whether it is a sum of money.
    const IS_MONEY: bool = false;
}

impl Allowed for Sum {
    fn of(number: f64) -> Self {
        Self::new(number)
    }
    fn number(self) -> f64 {
        Self::number(self)
    }
    fn sum(&mut self) -> Option<&mut Sum> {
        Some(self)
    }
    const IS_MONEY: bool = true;
}

impl Allowed for Length {
    fn of(number: f64) -> Self {
        Self::mm(number)
    }
    fn number(self) -> f64 {
        self.as_mm()
    }
}

impl Allowed for Mass {
    fn of(number: f64) -> Self {
        Self::g(number)
    }
    fn number(self) -> f64 {
        self.as_g()
    }
}

impl Allowed for Minutes {
    fn of(number: f64) -> Self {
        Self::min_of(number)
    }
    fn number(self) -> f64 {
        self.as_min()
    }
}

impl Allowed for f64 {
    fn of(number: f64) -> Self {
        number
    }
    fn number(self) -> f64 {
        self
    }
}

impl Allowed for u32 {
    fn of(number: f64) -> Self {
        ceil_count(number)
    }
    fn number(self) -> f64 {
        f64::from(self)
    }
}

macro_rules! allowances {
    ($($field:ident $key:tt: $type:ty, $name:literal, $unit:literal, $default:literal in $least:literal to $most:literal, $reason:literal $(, $seldom:ident)?;)*) => {
        /// Every allowance of a studio, typed.
        #[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(default)]
        pub struct Allowances {
            $(
                #[doc = $reason]
                #[serde(rename = $key)]
                pub $field: $type,
            )*
        }

        /// Every allowance with its default, range and reason, in the order of the work.
        pub const ALLOWANCES: &[Allowance] = &[
            $(Allowance { key: $key, name: $name, unit: $unit, default: $default, least: $least, most: $most, reason: $reason, is_money: <$type as Allowed>::IS_MONEY, on_pages: true $(&& !is(stringify!($seldom)))? },)*
        ];

        impl Default for Allowances {
            fn default() -> Self {
                Self { $($field: <$type as Allowed>::of($default),)* }
            }
        }

        impl Allowances {
            /// Returns the number that stands under each key.
            fn numbers(&self) -> Vec<f64> {
                vec![$(self.$field.number(),)*]
            }

            /// Returns them with the default in place of each that an earlier release allowed and this one doesn't.
            #[must_use]
            pub fn within_range(self) -> Self {
                Self {
                    $($field: if ($least..=$most).contains(&self.$field.number()) {
                        self.$field
                    } else {
                        <$type as Allowed>::of($default)
                    },)*
                }
            }

            /// Returns every sum of money among them, with what is known of it.
            pub(super) fn sums(&mut self) -> impl Iterator<Item = (&'static Allowance, &mut Sum)> {
                let each = [$(self.$field.sum(),)*];
                ALLOWANCES.iter().zip(each).filter_map(|(about, sum)| Some((about, sum?)))
            }
        }
    };
}

allowances! {
    contact_turn "contact_turn_mm": Length, "turn of the contact sheet", "mm", 40.0 in 15.0 to 150.0, "The sheet is folded this far onto the back, so that its tape never comes near the face.";
    contact_lap "contact_lap_mm": Length, "lap of two contact strips", "mm", 20.0 in 10.0 to 60.0, "Strips from a narrow roll overlap this far and are taped on the outer side.", seldom;
    tape_tab "tape_tab_mm": Length, "tape tab", "mm", 60.0 in 20.0 to 200.0, "Each tab of tape on a flap or a turn is this long, its end folded over.", seldom;
    tape_tab_every "tape_tab_every_mm": Length, "distance of tape tabs", "mm", 400.0 in 100.0 to 1000.0, "A flap longer than this gets one more tab.", seldom;
    pocket_leg_share "pocket_leg_share": f64, "short sides to a pocket leg", "", 8.0 in 4.0 to 16.0, "A corner pocket's leg is the short side divided by this: long enough to hold, short enough to leave the edge free.", seldom;
    pocket_leg_least "pocket_leg_least_mm": Length, "shortest pocket leg", "mm", 40.0 in 25.0 to 120.0, "A shorter leg slides off the corner.", seldom;
    pocket_leg_most "pocket_leg_most_mm": Length, "longest pocket leg", "mm", 120.0 in 40.0 to 300.0, "A longer leg is board and grams without more hold.", seldom;
    pocket_play "pocket_play_mm": Length, "play in a pocket", "mm", 1.0 in 0.0 to 5.0, "A pocket folded to the very depth of the piece does not go on.", seldom;
    board_proud "board_proud_mm": Length, "proud margin of a face board", "mm", 5.0 in 0.0 to 60.0, "The board, and not the frame, meets a knock when it stands this far beyond the piece.";
    board_tape_every "board_tape_every_mm": Length, "distance of strips on boards", "mm", 300.0 in 100.0 to 1000.0, "A strip of tape goes over the edge of the boards at this distance and binds them.", seldom;
    first_turns "first_turns": u32, "turns of the first wrap", "turns", 1.0 in 1.0 to 6.0, "Each turn puts one thickness of cushion on the face, the back and two edges.";
    second_turns "second_turns": u32, "turns of the second wrap", "turns", 1.0 in 0.0 to 6.0, "A second wrap at right angles pads the edges that the first one leaves to its rolled ends.";
    rolled_ends_per_turn "rolled_ends_per_turn": f64, "thicknesses in a rolled end, a turn", "", 2.0 in 1.0 to 4.0, "The sheet that stands past the piece is rolled in, this many thicknesses for each turn.", seldom;
    wrap_overlap "wrap_overlap_mm": Length, "overlap of a wrap", "mm", 100.0 in 30.0 to 300.0, "The end of a wrap laps its start this far, so that tape holds cushion to cushion.";
    wrap_lap "wrap_lap_mm": Length, "lap of two wrap strips", "mm", 50.0 in 20.0 to 150.0, "Strips side by side overlap this far, so that no gap opens between them.", seldom;
    wrap_seam "wrap_seam_mm": Length, "seam of a wrap", "mm", 2.0 in 0.0 to 20.0, "The overlap of a wrap is a strip that presses flat; it takes this much behind.", seldom;
    wrap_tab "wrap_tab_mm": Length, "tape tab on a wrap", "mm", 90.0 in 30.0 to 300.0, "Each tab that tacks a wrap is torn this long.", seldom;
    wrap_tab_every "wrap_tab_every_mm": Length, "distance of tabs on a wrap", "mm", 300.0 in 100.0 to 1000.0, "The seam and both rolled ends are tacked at this distance.", seldom;
    clearance "clearance_mm": Length, "clearance on each side", "mm", 15.0 in 0.0 to 80.0, "A little room, filled, gives way in a fall and lets the buyer in without a knife.";
    depth_clearance "depth_clearance_mm": Length, "depth clearance", "mm", 10.0 in 0.0 to 80.0, "Boards and wraps already fill the depth: a little room behind, filled, is enough for the box to close.";
    fill_settling "fill_settling": f64, "share that fill keeps", "", 0.75 in 0.5 to 1.0, "Crumpled paper settles on the way, so more goes in than the gap is wide.", seldom;
    box_tab "box_tab_mm": Length, "joining tab of a box", "mm", 35.0 in 20.0 to 80.0, "The tab that closes the ring of a slotted box, before the board's own thickness is taken off.", seldom;
    box_slot_play "box_slot_play_mm": Length, "play in a slot", "mm", 2.0 in 1.0 to 8.0, "A slot this much wider than the board lets its flaps fold past each other.", seldom;
    box_bulge "box_bulge_mm": Length, "bulge of a filled box", "mm", 3.0 in 0.0 to 20.0, "A tape laid over a filled box reads this much more than its board adds up to.", seldom;
    seal_return "seal_return_mm": Length, "return of sealing tape", "mm", 50.0 in 20.0 to 150.0, "Sealing tape goes this far around the edge at both ends of a seam.", seldom;
    sheet_lap "sheet_lap_mm": Length, "lap of a joined blank", "mm", 40.0 in 20.0 to 120.0, "A blank larger than the sheet is split at a score and lapped this far.", seldom;
    sheet_doubt "sheet_doubt": f64, "doubt about sheet goods", "", 0.08 in 0.0 to 0.5, "Board, paper and wrap differ by this share from what the catalogue says.";
    fill_doubt "fill_doubt": f64, "doubt about fill", "", 0.20 in 0.0 to 1.0, "Nobody crumples paper the same way twice.";
    piece_doubt "piece_doubt": f64, "doubt about a piece not weighed", "", 0.20 in 0.0 to 1.0, "Wood, paint and glass differ by this share from piece to piece.";
    contact_minutes "contact_minutes": Minutes, "minutes for a contact sheet", "min", 1.5 in 0.0 to 60.0, "Cut, laid without a wrinkle, turned and taped.";
    contact_minutes_per_m "contact_minutes_per_m": Minutes, "minutes a metre of contact sheet", "min", 2.2 in 0.0 to 60.0, "A metre of its two sides more takes this much longer.", seldom;
    interleaf_minutes_per_m "interleaf_minutes_per_m": Minutes, "minutes a metre of interleaf", "min", 0.7 in 0.0 to 60.0, "A loose sheet is cut and laid in, not folded.", seldom;
    pocket_minutes "pocket_minutes": Minutes, "minutes for one corner pocket", "min", 1.2 in 0.0 to 30.0, "Cut, scored, folded and set.";
    pocket_minutes_per_m "pocket_minutes_per_m": Minutes, "minutes a metre of pocket leg", "min", 2.0 in 0.0 to 60.0, "A longer pocket has longer cuts.", seldom;
    board_minutes "board_minutes": Minutes, "minutes for one face board", "min", 1.0 in 0.0 to 60.0, "Cut, wiped clean of dust and bound on.";
    board_minutes_per_m "board_minutes_per_m": Minutes, "minutes a metre of board", "min", 1.2 in 0.0 to 60.0, "A metre of its two sides more to cut, wipe and turn.", seldom;
    wrap_turn_minutes "wrap_turn_minutes": Minutes, "minutes for a turn of wrap", "min", 1.2 in 0.0 to 30.0, "Cut, wound without pressure, its ends rolled in.";
    wrap_turn_minutes_per_m "wrap_turn_minutes_per_m": Minutes, "minutes a metre of wrap", "min", 1.0 in 0.0 to 60.0, "A metre more of length or width in a turn.", seldom;
    fill_minutes "fill_minutes": Minutes, "minutes for the fill", "min", 1.0 in 0.0 to 60.0, "Crumpled and set at the edges and behind.";
    fill_minutes_per_m "fill_minutes_per_m": Minutes, "minutes a metre of edge filled", "min", 1.2 in 0.0 to 60.0, "A metre more around to fill.", seldom;
    box_minutes "box_minutes": Minutes, "minutes for a cut box", "min", 3.0 in 0.0 to 120.0, "Measured, cut, scored, folded and joined.";
    box_minutes_per_m "box_minutes_per_m": Minutes, "minutes a metre of blank", "min", 2.2 in 0.0 to 60.0, "A metre more of the blank to measure, cut, score and fold.", seldom;
    cut_minutes_per_m "cut_minutes_per_m": Minutes, "minutes a metre of cut", "min", 0.5 in 0.0 to 10.0, "Measured, marked and cut in single wall; of the minutes of its layer, which double wall and wood make longer.", seldom;
    mailer_minutes "mailer_minutes": Minutes, "minutes for a mailer", "min", 1.2 in 0.0 to 60.0, "Opened, slid in, closed.";
    tube_minutes "tube_minutes": Minutes, "minutes for a tube", "min", 4.0 in 0.0 to 60.0, "Cut to length, its ends padded.";
    seal_minutes "seal_minutes": Minutes, "minutes to seal", "min", 0.8 in 0.0 to 60.0, "Every seam taped and rubbed down.";
    seal_minutes_per_m "seal_minutes_per_m": Minutes, "minutes a metre of seal", "min", 0.9 in 0.0 to 60.0, "A metre more of tape, rubbed down.", seldom;
    snug_clearance "snug_clearance_mm": Length, "clearance in a snug box", "mm", 3.0 in 0.0 to 20.0, "Even a snug box has the room that a hand needs to slide the piece in.";
    lining_thickness "lining_thickness_mm": Length, "thickness of a lining", "mm", 25.0 in 3.0 to 100.0, "A cushion on the inside of the box stays in it, whatever is packed; the clearance is left inside it.";
    paper_roll_cut "paper_roll_cut_mm": Length, "sheet for a paper roll", "mm", 1000.0 in 300.0 to 3000.0, "So much paper is torn off and rolled loosely; one part of the roll in twenty is paper.", seldom;
    paper_roll_sheets "paper_roll_sheets": u32, "sheets in a paper roll, at most", "sheets", 1.0 in 1.0 to 12.0, "More sheets make a thicker roll, up to the depth of the box; a thicker roll makes a larger parcel.";
    spring_minutes_per_m "spring_minutes_per_m": Minutes, "minutes a metre of edge filler", "min", 1.6 in 0.0 to 60.0, "Rolled, folded or laid along the edge.", seldom;
    skirt_slack "skirt_slack_mm": Length, "slack of a skirt", "mm", 100.0 in 0.0 to 500.0, "A strip cut to the very length pulls out of its corners when the piece goes in.", seldom;
    padding_minutes "padding_minutes": Minutes, "minutes for one padding sheet", "min", 0.8 in 0.0 to 30.0, "Cut and laid flat behind.";
    lining_minutes "lining_minutes": Minutes, "minutes for one side of a lining", "min", 1.2 in 0.0 to 30.0, "Cut and set; it holds by its own fit.";
    outer_paper_minutes "outer_paper_minutes": Minutes, "minutes for outer paper", "min", 4.0 in 0.0 to 60.0, "Cut, folded around the closed box and taped.";
    mark_minutes "mark_minutes": Minutes, "minutes for one mark", "min", 0.3 in 0.0 to 10.0, "Peeled, set straight and rubbed down.";
    outer_paper_lap "outer_paper_lap_mm": Length, "lap of outer paper", "mm", 60.0 in 20.0 to 200.0, "The paper laps itself so far along the box and over its ends.", seldom;
    second_gap "second_gap_mm": Length, "gap between two boxes", "mm", 40.0 in 15.0 to 150.0, "The second box cushions the first only where there is room to give way.";
    exact_proud "exact_proud_mm": Length, "margin of an exact board", "mm", 0.0 in 0.0 to 10.0, "Stiff board is cut to the piece, so that it bears on the frame all round.", seldom;
    pad_thickness "pad_thickness_mm": Length, "thickness of face pads", "mm", 25.0 in 5.0 to 150.0, "Foam over the face and the back, where a fall on the face is to be softened.";
    edge_pad_thickness "edge_pad_thickness_mm": Length, "thickness of edge pads", "mm", 25.0 in 5.0 to 150.0, "Foam along the edges, where a fall on an edge is to be softened.";
    block_thickness "block_thickness_mm": Length, "thickness of corner blocks", "mm", 40.0 in 10.0 to 150.0, "Foam around the corners, which most falls meet first.";
    block_leg_share "block_leg_share": f64, "leg of a corner block, in thicknesses", "", 2.0 in 2.0 to 6.0, "A block shorter than twice its thickness buckles instead of giving.", seldom;
    block_proud "block_proud_mm": Length, "corner block over the depth", "mm", 3.0 in 0.0 to 20.0, "A block a little higher than the piece keeps the box off its face.", seldom;
    chock_width "chock_width_mm": Length, "width of a chock", "mm", 40.0 in 20.0 to 80.0, "A narrower chock tips over when the piece leans on it.", seldom;
    chock_most "chock_longest_mm": Length, "longest chock", "mm", 200.0 in 50.0 to 400.0, "A chock is a quarter of the short side long, and past this it holds no better.", seldom;
    chock_minutes "chock_minutes": Minutes, "minutes for a chock", "min", 1.5 in 0.0 to 30.0, "Cut, set against the piece and fixed to its board.";
    back_fill_play "back_fill_play_mm": Length, "canvas-back fill under the bars", "mm", 5.0 in 1.0 to 20.0, "A pad as thick as the bars presses on the cloth.", seldom;
    hardware_pad "hardware_pad_mm": Length, "pad over hardware between pieces", "mm", 10.0 in 3.0 to 50.0, "Wire and screw eyes of one piece dent the next one through a board alone.", seldom;
    stack_minutes "stack_minutes": Minutes, "minutes for one of several pieces", "min", 1.5 in 0.0 to 30.0, "Lifted, turned and laid on the others.";
    bar_width "bar_width_mm": Length, "width of stretcher bars", "mm", 40.0 in 15.0 to 100.0, "What is stiff behind a canvas, and what is hollow.";
    spacer_depth "spacer_depth_mm": Length, "depth of a window spacer", "mm", 6.0 in 6.0 to 20.0, "Nothing may come nearer to loose pigment than this.", seldom;
    spacer_width "spacer_width_mm": Length, "width of a window spacer", "mm", 30.0 in 10.0 to 100.0, "The strips lie on the margin that the mount covers.", seldom;
    glass_star_most "glass_star_most_mm": Length, "largest pane with a star", "mm", 500.0 in 200.0 to 1000.0, "A larger pane is taped in a lattice, so that no shard is larger than a hand.", seldom;
    glass_pitch "glass_pitch_mm": Length, "distance of tapes on glass", "mm", 150.0 in 60.0 to 400.0, "The lattice holds every shard by at least one tape.", seldom;
    case_lining "case_lining_mm": Length, "lining of a travel case", "mm", 50.0 in 25.0 to 75.0, "Foam on all six sides is the cushion in a case: faces of plywood pass every knock on.";
    case_span "case_span_mm": Length, "face of a case without a batten across, up to", "mm", 800.0 in 300.0 to 2000.0, "A wider face drums and bends: a batten across it stiffens it.", seldom;
    case_screw_every "case_screw_every_mm": Length, "between screws of a case", "mm", 250.0 in 100.0 to 500.0, "Screws hold the lid; further apart it gapes.", seldom;
    case_foot "case_foot_mm": Length, "feet of a case", "mm", 40.0 in 0.0 to 150.0, "Hands and a fork get under it.";
    case_handles_from "case_handles_from_g": Mass, "handles on a case from", "g", 15000.0 in 1000.0 to 60000.0, "What is heavy needs something to hold.";
    case_journeys "case_journeys": u32, "journeys of a travel case", "journeys", 6.0 in 1.0 to 100.0, "A case is built once: its cost is shared among the journeys it is meant for.";
    case_deposit "case_deposit": Sum, "deposit for a travel case", "", 50.0 in 0.0 to 1e9, "Whoever receives it pays this until the case is back.";
    case_minutes "case_minutes": Minutes, "to build a travel case", "min", 60.0 in 5.0 to 600.0, "Frame, lining, handles and screws.";
    case_minutes_per_m2 "case_minutes_per_m2": Minutes, "…for each m² of its faces", "min", 20.0 in 0.0 to 120.0, "Larger faces are sawn, sanded and screwed longer.", seldom;
    tier_gap "tier_gap_mm": Length, "gap between pieces side by side", "mm", 20.0 in 5.0 to 100.0, "Two wrapped pieces on one board keep so far apart, and the gap is filled, so that neither edge knocks on the other.", seldom;
    tier_depths "tier_depths_mm": Length, "unlike depths side by side, up to", "mm", 15.0 in 0.0 to 60.0, "The board over pieces side by side rests on the thickest: what is thinner by more than this lies on another board.", seldom;
    folio_margin "folio_margin_mm": Length, "margin of a folio", "mm", 25.0 in 15.0 to 100.0, "Boards bend at their corners first; the sheet lies back from them.";
    posted_margin "posted_margin_mm": Length, "margin of a folio in a mailer", "mm", 40.0 in 15.0 to 100.0, "Without a box around them the boards' own corners meet the knocks.";
    mailer_slack "mailer_slack_mm": Length, "slack in a mailer", "mm", 10.0 in 0.0 to 40.0, "A mailer closes only over something smaller than itself.", seldom;
    mailer_long "mailer_long_mm": Length, "a mailer up to, long side", "mm", 400.0 in 100.0 to 1000.0, "A larger sheet bends between its boards and goes in a box.";
    mailer_short "mailer_short_mm": Length, "a mailer up to, short side", "mm", 300.0 in 100.0 to 1000.0, "A larger sheet bends between its boards and goes in a box.";
    mailer_deep "mailer_deep_mm": Length, "a mailer up to, depth", "mm", 5.0 in 1.0 to 30.0, "Something thicker does not lie between two boards.";
    padded_deep "padded_mailer_deep_mm": Length, "a padded mailer up to, depth", "mm", 40.0 in 5.0 to 80.0, "A deeper piece stretches the mailer until its corners stand on its wall.";
    sandwich_long "sandwich_long_mm": Length, "a flat sandwich up to, long side", "mm", 841.0 in 200.0 to 1500.0, "Two boards without a box bend further the longer they are.";
    sandwich_short "sandwich_short_mm": Length, "a flat sandwich up to, short side", "mm", 594.0 in 100.0 to 1000.0, "Two boards without a box bend further the wider they are.";
    mailer_mass "mailer_mass_g": Mass, "a mailer up to, weight", "g", 1000.0 in 50.0 to 5000.0, "A heavier piece breaks through a mailer's corners.";
    mailer_value "mailer_value": Sum, "a mailer up to, value", "", 250.0 in 0.0 to 1e9, "A dearer piece is worth a box.";
    paper_pocket_share "paper_pocket_share": f64, "short sides to a paper pocket's leg", "", 7.0 in 4.0 to 14.0, "Long enough to hold the sheet, short enough not to cover it.", seldom;
    paper_pocket_least "paper_pocket_least_mm": Length, "shortest paper pocket", "mm", 25.0 in 15.0 to 60.0, "A shorter one slides off.", seldom;
    paper_pocket_most "paper_pocket_most_mm": Length, "longest paper pocket", "mm", 60.0 in 25.0 to 150.0, "A longer one is paper without more hold.", seldom;
    roll_turns "roll_turns": u32, "turns of wrap around a roll", "turns", 2.0 in 0.0 to 6.0, "A tube passes every knock on to what touches its wall.";
    tube_end_pad "tube_end_pad_mm": Length, "pad at each end of a tube", "mm", 25.0 in 10.0 to 80.0, "Tubes are dropped on their ends.";
    tube_end_air "tube_end_air_mm": Length, "air at each end of a roll", "mm", 5.0 in 0.0 to 30.0, "A pad that presses on a roll's end crushes its edge.", seldom;
    tube_cap "tube_cap_mm": Length, "thickness of a tube's cap", "mm", 4.0 in 0.5 to 20.0, "A tube is dropped on its ends, and the cap meets the floor.", seldom;
    film_turns "film_turns": u32, "turns of stretch film", "turns", 2.0 in 1.0 to 6.0, "Two turns cling; one comes loose.", seldom;
    bag_margin "bag_margin_mm": Length, "margin of a bag", "mm", 80.0 in 40.0 to 200.0, "What a bag needs beyond the piece to be folded and sealed.", seldom;
    drop_light "drop_under_9500_g_mm": Length, "drop of parcels under 9.5 kg", "mm", 760.0 in 50.0 to 2000.0, "Parcels under 9.5 kg are thrown by one hand.", seldom;
    drop_middling "drop_under_18600_g_mm": Length, "drop of parcels under 18.6 kg", "mm", 610.0 in 50.0 to 2000.0, "Parcels under 18.6 kg are carried before the body.", seldom;
    drop_heavy "drop_under_27700_g_mm": Length, "drop of parcels under 27.7 kg", "mm", 460.0 in 50.0 to 2000.0, "Parcels under 27.7 kg are lifted with a bent back.", seldom;
    drop_two_hands "drop_under_45400_g_mm": Length, "drop of parcels under 45.4 kg", "mm", 310.0 in 50.0 to 2000.0, "Parcels under 45.4 kg are lifted by two.", seldom;
    drop_lift "drop_under_68000_g_mm": Length, "drop of parcels under 68 kg", "mm", 200.0 in 50.0 to 2000.0, "Parcels under 68 kg slip off a lift.", seldom;
    drop_factor "drop_factor": f64, "share of the customary drop", "", 1.0 in 0.5 to 2.0, "A rough route drops parcels from higher than custom, a van of one's own from lower.";
    press_load "press_load_n": f64, "load of a corner that presses in", "N", 100.0 in 20.0 to 400.0, "About what a parcel of 10 kg rests on its corner with.", seldom;
    stack_safety "stack_safety": f64, "safety of a stack", "", 5.0 in 2.0 to 10.0, "Time, damp and rough handling take four fifths of what a box bears in a press.", seldom;
    rabbet_depth "rabbet_depth_mm": Length, "air behind glazing", "mm", 4.0 in 0.0 to 20.0, "How far a board over the glazing may give before the glass takes the load.", seldom;
    hand_over_mass "hand_over_mass_g": Mass, "a crating service above", "g", 25000.0 in 5000.0 to 68000.0, "Heavier parcels need a lift and a van of their own.";
    hand_over_length "hand_over_length_mm": Length, "a crating service beyond", "mm", 1500.0 in 500.0 to 4000.0, "Longer parcels leave the carriers' belts.";
    hand_over_glass "hand_over_glass_m2": f64, "a crating service above, glass", "m²", 0.7 in 0.1 to 4.0, "A pane larger than this breaks more often than packing can help.";
    hand_over_value "hand_over_value": Sum, "a crating service above, value", "", 5000.0 in 0.0 to 1e9, "A loss of this size wants somebody else's cover.";
    accept_one_in "accept_one_in": f64, "odds accepted: one in", "", 60.0 in 2.0 to 10000.0, "When more than one in so many would arrive damaged, the plan is worth a look.";
    accept_glass_one_in "accept_glass_one_in": f64, "odds accepted for glass: one in", "", 25.0 in 2.0 to 10000.0, "Glass and mirrors arrive broken more often, however they are packed.";
    odds_worsening "odds_worsening": f64, "odds may worsen by", "", 0.1 in 0.0 to 2.0, "A saving is offered only while the odds worsen by no more than this share.";
    saw_kerf "saw_kerf_mm": Length, "what a saw takes away", "mm", 3.0 in 0.5 to 10.0, "The blade's width lies beyond each line; a knife takes nothing.";
    offcut_short "offcut_short_mm": Length, "an offcut is kept from, short side", "mm", 150.0 in 20.0 to 2000.0, "A narrower strip is looked for longer than it is worth.";
    offcut_long "offcut_long_mm": Length, "an offcut is kept from, long side", "mm", 400.0 in 20.0 to 4000.0, "A shorter one becomes no board and no pocket.";
    least_saving "least_saving": Sum, "the least worth saving", "", 0.5 in 0.0 to 1e9, "Nobody changes a plan, or makes another box, to save less money than this.";
    overhead_percent "overhead_percent": f64, "overhead on materials and work", "%", 10.0 in 0.0 to 200.0, "Rent, tools, light and what is thrown away belong to a parcel too.";
    charge_flat "charge_flat": Sum, "the flat charge", "", 25.0 in 0.0 to 1e9, "What every buyer pays where the studio charges flat.";
    charge_free_above "charge_free_above": Sum, "sending is free above, value", "", 0.0 in 0.0 to 1e9, "A studio may send dear works for nothing; 0 never does.";
    labour_per_hour "labour_per_hour": Sum, "an hour of work", "", 24.0 in 0.0 to 1e9, "Minutes are shown as money at this rate.";
    pane_repair "pane_repair": Sum, "a new pane", "", 30.0 in 0.0 to 1e9, "Where the glass alone breaks, this and the work are the harm: the art is whole.";
    pane_repair_minutes "pane_repair_minutes": Minutes, "minutes to put a pane in", "min", 30.0 in 0.0 to 600.0, "To take the splinters out, clean the art and frame it again.";
    packing_share "packing_share": f64, "share of the value that packing and carriage may come to", "", 0.5 in 0.05 to 10.0, "Past it a Note asks whether the piece is worth its packing.";
    loss_hours "loss_hours": f64, "hours that a loss takes", "h", 3.0 in 0.0 to 100.0, "Letters, claims and photographs, and the talk with the buyer.";
    board_value "board_value": Sum, "least value of a piece that gets a board in front", "", 500.0 in 0.0 to 1e9, "A piece worth more than this gets a board in front whatever it is.";
    spacer_minutes "spacer_minutes": Minutes, "minutes for a window spacer", "min", 3.0 in 0.0 to 90.0, "Strips cut, joined and laid without touching the face.";
    spacer_minutes_per_m "spacer_minutes_per_m": Minutes, "minutes a metre of spacer", "min", 2.0 in 0.0 to 60.0, "A metre more of strip to cut and join.", seldom;
    hinge_minutes "hinge_minutes": Minutes, "minutes for a hinge", "min", 1.5 in 0.0 to 20.0, "Its slit cut, one half stuck to the piece and one to the board.", seldom;
    glass_minutes "glass_minutes": Minutes, "minutes to tape glass", "min", 1.0 in 0.0 to 30.0, "Laid on and rubbed down, ends folded.";
    glass_minutes_per_m "glass_minutes_per_m": Minutes, "minutes a metre of tape on glass", "min", 0.7 in 0.0 to 60.0, "A metre more of tape laid without a bubble.", seldom;
    pad_minutes "pad_minutes": Minutes, "minutes for a pad", "min", 2.0 in 0.0 to 30.0, "Scored, snapped and set.";
    pad_minutes_per_m "pad_minutes_per_m": Minutes, "minutes a metre of pad", "min", 1.0 in 0.0 to 60.0, "A metre more to score and snap.", seldom;
    block_minutes "block_minutes": Minutes, "minutes for a corner block", "min", 2.5 in 0.0 to 30.0, "Two bars, scored and snapped, set and taped.";
    tag_minutes "tag_minutes": Minutes, "minutes for a name tag", "min", 1.0 in 0.0 to 10.0, "Written and fixed.";
    enclosure_minutes "enclosure_minutes": Minutes, "minutes for what goes in besides", "min", 0.5 in 0.0 to 10.0, "Found, slipped into its sleeve and laid in its place.";
    bag_minutes "bag_minutes": Minutes, "minutes for a sealed bag", "min", 2.0 in 0.0 to 30.0, "Laid, folded and every seam taped.";
    bag_minutes_per_m "bag_minutes_per_m": Minutes, "minutes a metre of bag", "min", 1.0 in 0.0 to 60.0, "A metre more of seam.", seldom;
    film_minutes "film_minutes": Minutes, "minutes for stretch film", "min", 1.0 in 0.0 to 30.0, "Wound over the bench's edge.";
    film_minutes_per_m "film_minutes_per_m": Minutes, "minutes a metre of film", "min", 0.4 in 0.0 to 60.0, "A metre more wound.", seldom;
    folio_minutes "folio_minutes": Minutes, "minutes for a folio", "min", 2.0 in 0.0 to 90.0, "Boards cut, pockets folded, sheets laid in.";
    folio_minutes_per_m "folio_minutes_per_m": Minutes, "minutes a metre of folio", "min", 2.4 in 0.0 to 60.0, "A metre of its two sides more to cut.", seldom;
    roll_minutes "roll_minutes": Minutes, "minutes for a roll", "min", 8.0 in 0.0 to 90.0, "Interleaved, rolled face out on a core, banded.";
    roll_minutes_per_m "roll_minutes_per_m": Minutes, "minutes a metre of roll", "min", 1.2 in 0.0 to 60.0, "A metre more of the sheet to roll evenly.", seldom;
    two_people_mass "two_people_mass_g": Mass, "one person lifts up to", "g", 20000.0 in 5000.0 to 40000.0, "Above this a parcel is lifted by two.";
    two_people_length "two_people_length_mm": Length, "one person carries up to", "mm", 1500.0 in 500.0 to 3000.0, "A longer parcel is carried by two.";
}

impl Allowances {
    /// Returns what materials and work are multiplied by, so that the studio's share is in them.
    #[must_use]
    pub fn with_overhead(&self) -> Decimal {
        Decimal::ONE + decimal_of(self.overhead_percent) / Decimal::ONE_HUNDRED
    }

    /// Returns the least saving worth a change, in the studio's money: the house's own, and never under one minor unit, so that what
    /// saves nothing is no saving.
    #[must_use]
    pub fn worth_saving(&self, currency: &Currency) -> Decimal {
        self.least_saving.amount().max(currency.minor_unit())
    }

    /// Tells whether what is left of a sheet is worth keeping.
    #[must_use]
    pub fn is_offcut(&self, width: Length, height: Length) -> bool {
        width.min(height) >= self.offcut_short && width.max(height) >= self.offcut_long
    }

    /// Returns a refusal for each allowance outside its range.
    ///
    /// # Errors
    /// The list of [`Refusal`]s, when there are any.
    pub fn check(&self) -> Result<(), Vec<Refusal>> {
        let refusals: Refusals = ALLOWANCES
            .iter()
            .zip(self.numbers())
            .filter_map(|(allowance, number)| {
                allowance
                    .check(number)
                    .err()
                    .map(|out| Refusal::new(format!("allowances.{}", allowance.key), out))
            })
            .collect();
        refusals.or(())
    }

    /// Returns from how high parcels are dropped, by class of mass.
    #[must_use]
    pub const fn drop_heights(&self) -> [Length; 5] {
        [
            self.drop_light,
            self.drop_middling,
            self.drop_heavy,
            self.drop_two_hands,
            self.drop_lift,
        ]
    }

    /// Returns what is known of the allowance of that key.
    ///
    /// # Panics
    /// When there is no such key; keys are written in this crate only.
    #[must_use]
    pub fn about(key: &str) -> &'static Allowance {
        ALLOWANCES
            .iter()
            .find(|allowance| allowance.key == key)
            .expect("an allowance is looked up by a key of the table")
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A case was lined with 10 before 25 was the least. It kills: a former value that stays and is refused at the next change.
    #[test]
    fn what_an_earlier_release_allowed_takes_the_default() {
        let kept = Allowances {
            case_lining: Length::mm(10.0),
            case_span: Length::mm(900.0),
            ..Allowances::default()
        };
        assert!(kept.check().is_err());
        let read = kept.within_range();
        assert_eq!(read.check(), Ok(()));
        assert_eq!(read.case_lining, Length::mm(50.0));
        assert_eq!(read.case_span, Length::mm(900.0));
    }

    #[test]
    fn every_default_lies_in_its_range_and_has_a_reason() {
        for allowance in ALLOWANCES {
            assert!(
                allowance.check(allowance.default).is_ok(),
                "{}",
                allowance.key
            );
            assert!(
                allowance.reason.ends_with('.'),
                "{} has no sentence",
                allowance.key
            );
            assert!(
                !allowance.is_money || (allowance.most - Sum::MOST).abs() < 0.5,
                "{} is bounded in euros",
                allowance.key
            );
        }
        // What is left to custom and physics is neither a price nor a doubt.
        let apart = ALLOWANCES.iter().filter(|allowance| !allowance.on_pages);
        assert!(apart.clone().count() >= 60);
        assert!(
            apart
                .clone()
                .all(|one| !one.is_money && !one.key.ends_with("_doubt"))
        );
        assert_eq!(Allowances::default().check(), Ok(()));
        assert_eq!(Allowances::default().drop_heights(), crate::cushion::CUSTOM);
    }

    #[test]
    fn an_allowance_out_of_range_is_named_with_its_reason() {
        let allowances = Allowances {
            clearance: Length::mm(500.0),
            ..Allowances::default()
        };
        let refused = allowances.check().expect_err("half a metre of clearance");
        assert_eq!(refused.len(), 1);
        assert_eq!(refused[0].field, "allowances.clearance_mm");
        assert!(
            refused[0].message.contains("from 0 to 80\u{a0}mm"),
            "{}",
            refused[0].message
        );
    }

    #[test]
    fn keys_are_written_as_they_are_listed() {
        let written = serde_json::to_value(Allowances::default()).expect("allowances are JSON");
        for allowance in ALLOWANCES {
            assert_eq!(
                written[allowance.key].as_f64(),
                Some(allowance.default),
                "{}",
                allowance.key
            );
        }
    }
}
