//! What stands along the edges in the box, in place of fill: rolls of paper, springs of folded card, or a skirt.

use serde::Serialize;

use super::kind::{Kind, Nature, Offer, Offering, Standing, from_shelf, schools};
use super::{Cushioning, Layer, Make, Making, Sides, Supplies};
use crate::{
    Refusal,
    container::WayIn,
    cushion::{CushionCurve, EnergyRange},
    house::{Choices, EdgeRule, SchoolChoices},
    part::{Cut, Grain, Need, PartId, Run, StripId},
    quantity::{EnergyDensity, Length, Stress, Volume, ceil_count, floor_count},
    space::{Addition, Envelope, LayerSlot},
};

/// Paper rolled loosely, laid along the edges.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PaperRolls {
    /// In one roll.
    pub sheets: u32,
    /// Of a sheet, along the edge.
    #[serde(rename = "sheet_length_mm")]
    pub sheet_length: Length,
    /// Of a sheet, as it is rolled up.
    #[serde(rename = "sheet_cut_mm")]
    pub sheet_cut: Length,
    /// Across a roll, loose.
    #[serde(rename = "loose_mm")]
    pub loose: Length,
    /// Across a roll, once it has settled: the gap at the edges.
    #[serde(rename = "settled_mm")]
    pub settled: Length,
    /// End to end along the left or the right edge.
    pub upright: u32,
    /// End to end along the top or the bottom edge.
    pub level: u32,
    /// Beside each other over the depth.
    pub rows: u32,
}

/// Strips of card folded in a zigzag, laid along the edges.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CardSprings {
    /// That they hold.
    #[serde(rename = "gap_mm")]
    pub gap: Length,
    /// As wide as what is wrapped is deep.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// From crease to crease.
    #[serde(rename = "leg_mm")]
    pub leg: Length,
    /// Along the left or the right edge.
    pub upright: Spring,
    /// Along the top or the bottom edge.
    pub level: Spring,
}

/// One strip, before it is folded.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Spring {
    /// Between creases.
    pub legs: u32,
    /// All of them, flat.
    #[serde(rename = "strip_mm")]
    pub strip: Length,
}

/// A strip of the wrap's cushion, folded lengthwise and laid around three edges.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Skirt {
    /// Around the floor and both sides, with slack.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// Before it is folded: twice the depth.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Of both thicknesses.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Loose fill on top, where the piece goes in.
    #[serde(rename = "top_fill_m3")]
    pub top_fill: Volume,
}

/// How much of a loose roll is paper.
const PAPER_IN_ROLL: f64 = 0.05;
/// A roll settles to so much of what it was.
const SETTLED: f64 = 0.75;
/// A shorter leg than this, or than so many boards, can't be folded by hand.
const SHORTEST_LEG: Length = Length::mm(20.0);
const SHORTEST_LEG_BOARDS: f64 = 4.0;
const SKIRT_THICKNESSES: f64 = 2.0;
const BOTH: u32 = 2;

/// Rolls, springs or a skirt along the edges in the box.
pub(super) const KIND: Kind = Kind::new(
    Nature::PLAIN,
    |asked| asked.boxed(|| Standing::Off),
    |around| {
        let (supplies, inside) = (around.supplies, around.inside());
        let clear = supplies.allowances().clearance;
        let filled = inside.grown(around_edges(clear));
        let slides = matches!(
            around.way_into(&supplies.first, filled)?,
            WayIn::Edge | WayIn::ShortEdge | WayIn::Halves
        );
        Ok(match supplies.rules.schools.edges {
            EdgeRule::PaperRolls => Some(PaperRolls::layer(supplies, inside, slides)?),
            EdgeRule::Springs => CardSprings::layer(supplies, inside, slides)?,
            EdgeRule::Skirt => Some(Skirt::layer(supplies, inside)),
        })
    },
)
.or(swaps)
.added_by_swaps();

fn swaps(offering: &Offering<'_>) -> Vec<Offer> {
    let fillers = [
        ("Rolls of paper", EdgeRule::PaperRolls),
        ("Springs of folded card", EdgeRule::Springs),
        ("A skirt of wrap", EdgeRule::Skirt),
    ];
    let added = |(label, choices): Offer| {
        let layers = [(LayerSlot::Edges, true)].into();
        (label, Choices { layers, ..choices })
    };
    let of = |edges| SchoolChoices {
        edges: Some(edges),
        ..SchoolChoices::default()
    };
    let boards =
        from_shelf!(offering.catalogue.boards, spring_board, schools: of(EdgeRule::Springs));
    let boards = boards
        .filter(|(_, choices)| {
            let id = choices.spring_board.as_ref();
            id.is_some_and(|id| offering.catalogue.folding_board(id).is_ok())
        })
        .map(|(name, choices)| (format!("Springs of {name}"), choices));
    let fillers = fillers.map(|(label, edges)| schools(label, of(edges)));
    fillers.into_iter().chain(boards).map(added).collect()
}

/// What crumpled paper gives: also what loose rolls and springs of card are taken as, since no curve of theirs is
/// published. Source: packaging engineering practice.
const fn crumpled_paper() -> CushionCurve {
    CushionCurve {
        start: Stress::kpa(20.0),
        growth: 0.075,
        tested: Some(EnergyRange {
            least: EnergyDensity::kj_m3(3.0),
            most: EnergyDensity::kj_m3(25.0),
        }),
        creep: Some(Stress::kpa(0.8)),
    }
}

/// The tape that fixes so many rolls or springs to the piece, so that they slide in with it: one strip at each end of each.
fn held_by<'a>(supplies: &Supplies<'a>, count: u32) -> Need<'a> {
    let tab = supplies.allowances().tape_tab;
    Need::tab(supplies.wrap_tape, StripId::AtBothEndsOfEach, tab).times(BOTH * count)
}

const fn at_edges(thickness: Length) -> Sides {
    Sides {
        front: Length::ZERO,
        back: Length::ZERO,
        across: thickness,
        up: thickness,
    }
}

const fn around_edges(thickness: Length) -> Addition {
    Addition::new(thickness, thickness, Length::ZERO, Length::ZERO)
}

impl PaperRolls {
    /// Returns the rolls around an envelope: of as many sheets as are asked for, while a roll is no thicker than the
    /// envelope is deep.
    ///
    /// Loose, a roll of n sheets is D = √(4·n·b·t/(0.05·π)) across; it settles to three quarters. Source: house rule.
    #[must_use]
    pub fn around(inside: Envelope, [length, cut]: [Length; 2], paper: Length, most: u32) -> Self {
        let loose = |sheets: u32| {
            let of_paper = f64::from(sheets) * (cut * paper).as_m2();
            Length::mm((4.0 * of_paper / (PAPER_IN_ROLL * std::f64::consts::PI)).sqrt() * MM_PER_M)
        };
        let sheets = (2..=most)
            .take_while(|&sheets| loose(sheets) <= inside.through)
            .last()
            .unwrap_or(1);
        let across = loose(sheets);
        Self {
            sheets,
            sheet_length: length,
            sheet_cut: cut,
            loose: across,
            settled: across * SETTLED,
            upright: ceil_count(inside.up / length).max(1),
            level: ceil_count(inside.across / length).max(1),
            rows: floor_count(inside.through / across).max(1),
        }
    }

    /// Returns how many rolls there are at all four edges.
    #[must_use]
    pub const fn count(self) -> u32 {
        (self.upright + self.level) * BOTH * self.rows
    }

    fn layer(supplies: &Supplies<'_>, inside: Envelope, slides: bool) -> Result<Layer, Refusal> {
        let paper = supplies.paper("choices.roll_paper", &supplies.rules.materials.roll_paper)?;
        let allowances = supplies.allowances();
        let sheet = [paper.roll_width, allowances.paper_roll_cut];
        let rolls = Self::around(inside, sheet, paper.thickness, allowances.paper_roll_sheets);
        let run = Run::of([rolls.sheet_cut, rolls.sheet_length]);
        Ok(supplies.layer(Making {
            slot: LayerSlot::Edges,
            needs: [
                Need::paper(PartId::SheetToRoll, paper, run).times(rolls.sheets * rolls.count())
            ]
            .into_iter()
            .chain(slides.then(|| held_by(supplies, rolls.count())))
            .collect(),
            adds: around_edges(rolls.settled),
            inside,
            minutes: allowances.spring_minutes_per_m
                * ((inside.across + inside.up) * f64::from(BOTH * rolls.rows)).as_m(),
            why: "Loosely rolled paper cushions the whole edge, springs back and can be reused.",
            make: Make::PaperRolls(rolls),
            cushioning: Some(Cushioning::covering(
                crumpled_paper(),
                at_edges(rolls.settled),
            )),
        }))
    }
}

impl CardSprings {
    /// Returns the springs around an envelope that hold a gap at every edge.
    ///
    /// A crease every gap along the edge makes legs of √2 gaps; where that is less than a hand can fold, the legs are
    /// longer and stand steeper. Source: house rule.
    #[must_use]
    pub fn around(inside: Envelope, gap: Length, caliper: Length) -> Self {
        let least = SHORTEST_LEG.max(caliper * SHORTEST_LEG_BOARDS);
        let leg = (gap * std::f64::consts::SQRT_2).max(least);
        let half = Length::mm((leg.as_mm().powi(2) - gap.as_mm().powi(2)).sqrt());
        let along = |edge: Length| {
            let legs = ceil_count(edge / half).max(1);
            Spring {
                legs,
                strip: leg * f64::from(legs),
            }
        };
        Self {
            gap,
            width: inside.through,
            leg,
            upright: along(inside.up),
            level: along(inside.across),
        }
    }

    fn layer(
        supplies: &Supplies<'_>,
        inside: Envelope,
        slides: bool,
    ) -> Result<Option<Layer>, Refusal> {
        let id = &supplies.rules.materials.spring_board;
        let board = supplies.folding_board("choices.spring_board", id)?;
        let allowances = supplies.allowances();
        let gap = allowances.clearance;
        if gap == Length::ZERO {
            return Ok(None);
        }
        let springs = Self::around(inside, gap, board.caliper);
        let strip = |spring: Spring| {
            let cut = Cut::of([spring.strip, springs.width]).along(Grain::Up);
            Need::board(PartId::Spring, board, cut).times(BOTH)
        };
        let folded = (springs.upright.strip + springs.level.strip) * f64::from(BOTH);
        Ok(Some(supplies.layer(Making {
            slot: LayerSlot::Edges,
            needs: [strip(springs.upright), strip(springs.level)]
                .into_iter()
                .chain(slides.then(|| held_by(supplies, BOTH + BOTH)))
                .collect(),
            adds: around_edges(gap),
            inside,
            minutes: allowances.spring_minutes_per_m * folded.as_m(),
            why: "Zigzag-folded card keeps the gap along the edge; crumpled paper would settle.",
            make: Make::CardSprings(springs),
            cushioning: Some(Cushioning::covering(crumpled_paper(), at_edges(gap))),
        })))
    }
}

impl Skirt {
    /// Returns the skirt around the floor and both sides of an envelope, of a cushion that is folded lengthwise.
    #[must_use]
    pub fn around(inside: Envelope, loaded: Length, slack: Length, settling: f64) -> Self {
        let thickness = loaded * SKIRT_THICKNESSES;
        let top = (inside.across + thickness * SKIRT_THICKNESSES) * inside.through * thickness;
        Self {
            length: inside.across + inside.up * f64::from(BOTH) + slack,
            width: inside.through * SKIRT_THICKNESSES,
            thickness,
            top_fill: top / settling,
        }
    }

    fn layer(supplies: &Supplies<'_>, inside: Envelope) -> Layer {
        let cushion = supplies.cushion_wrap;
        let allowances = supplies.allowances();
        let skirt = Self::around(
            inside,
            cushion.loaded_thickness,
            allowances.skirt_slack,
            allowances.fill_settling,
        );
        let strip = Run::of([skirt.length, skirt.width]);
        supplies.layer(Making {
            slot: LayerSlot::Edges,
            needs: vec![
                Need::wrap(PartId::Skirt, cushion, strip),
                Need::fill(supplies.first.fill, skirt.top_fill),
            ],
            adds: around_edges(skirt.thickness),
            inside,
            minutes: allowances.spring_minutes_per_m * skirt.length.as_m(),
            why: "One strip, folded lengthwise, lies around the piece; fill closes the top.",
            make: Make::Skirt(skirt),
            cushioning: cushion
                .curve
                .map(|curve| Cushioning::covering(curve, at_edges(skirt.thickness))),
        })
    }
}

const MM_PER_M: f64 = 1e3;

#[cfg(test)]
mod tests {
    use super::*;

    fn inside(through: f64) -> Envelope {
        let [across, up, through] = [800.0, 1000.0, through].map(Length::mm);
        Envelope {
            across,
            up,
            through,
        }
    }

    #[test]
    fn a_sheet_of_paper_rolls_up_loosely() {
        // √(4 × 1000 × 0.08/(0.05π)) = 45.14, settled 33.85; an edge of 1000 takes two of 700, one of 800 two as well.
        let sheet = [700.0, 1000.0].map(Length::mm);
        let rolls = PaperRolls::around(inside(80.0), sheet, Length::mm(0.08), 1);
        assert!((rolls.loose.as_mm() - 45.135).abs() < 1e-3);
        assert!((rolls.settled.as_mm() - 33.851).abs() < 1e-3);
        assert_eq!((rolls.upright, rolls.level, rolls.rows), (2, 2, 1));
        // Depth 100 takes two rows of one sheet; of up to twelve sheets, four make a roll of 90.27 and one row.
        let deep = PaperRolls::around(inside(100.0), sheet, Length::mm(0.08), 1);
        assert_eq!((deep.sheets, deep.rows, deep.count()), (1, 2, 16));
        let thick = PaperRolls::around(inside(100.0), sheet, Length::mm(0.08), 12);
        assert_eq!((thick.sheets, thick.rows), (4, 1));
    }

    #[test]
    fn card_is_folded_every_gap() {
        // Gap 25, edge 800: pitch 50, 32 legs of √(25² + 25²) = 35.36; the strip is 1131.4.
        let springs = CardSprings::around(inside(80.0), Length::mm(25.0), Length::mm(3.0));
        assert_eq!(springs.level.legs, 32);
        assert!((springs.leg.as_mm() - 35.355).abs() < 1e-3);
        assert!((springs.level.strip.as_mm() - 1131.37).abs() < 1e-2);
        // Gap 10: legs of 14.1 can't be folded; of 20 they stand √(400 − 100) = 17.32 apart: ⌈800/17.32⌉ = 47.
        let narrow = CardSprings::around(inside(80.0), Length::mm(10.0), Length::mm(3.0));
        assert_eq!((narrow.leg, narrow.level.legs), (Length::mm(20.0), 47));
    }

    #[test]
    fn a_skirt_goes_around_three_edges_and_fill_on_top() {
        // 800 + 2 × 1000 + 100; 2 × 80; 2 × 9. On top (800 + 36) × 80 × 18 = 1 203 840 mm³, over 0.75.
        let skirt = Skirt::around(inside(80.0), Length::mm(9.0), Length::mm(100.0), 0.75);
        let sides = [skirt.length, skirt.width, skirt.thickness].map(Length::as_mm);
        assert_eq!(sides, [2900.0, 160.0, 18.0]);
        assert!((skirt.top_fill.as_m3() - 0.001_605_12).abs() < 1e-12);
    }
}
