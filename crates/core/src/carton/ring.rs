//! Four walls around an opening, with flaps at both ends or at one: what every slotted box is made of.

use super::{Blank, Panel, PanelRole, Point, Solid, blank::Layout, folds::ring as folds};
use crate::{house::Allowances, part::PartId, quantity::Length};

/// A ring of walls by the section that it leaves free inside.
#[derive(Debug, Clone, Copy)]
pub(super) struct Ring {
    pub part: PartId,
    pub walls: Walls,
    /// Inside, along the first and the third wall.
    pub along: Length,
    /// Inside, along the second and the fourth.
    pub across: Length,
    /// The walls between their scores, or from the score to the open end.
    pub depth: Length,
    /// Whether it has flaps at both ends.
    pub closes_twice: bool,
    pub caliper: Length,
    pub tab: Length,
    pub slot: Length,
}

/// How far a wall is folded, and a closed flap.
const SQUARE_DEG: f64 = 90.0;
/// The tab is cut back at both ends by this share of its width, so that it does not show in the opening.
const TAB_BEVEL: f64 = 0.5;
/// A tab that is longer than it is wide at least keeps half of its length straight.
const MOST_BEVEL: f64 = 0.25;

/// The walls in the order in which they hang together, from the one that lies still: the third, the second, the
/// first, then the fourth.
const THIRD: usize = 2;

/// What the four walls are, from the free edge on.
#[derive(Debug, Clone, Copy)]
pub(super) enum Walls {
    /// Behind the art, a narrow side, before it, the other narrow side.
    Faces,
    /// The four narrow sides.
    Sides,
}

/// A wall, its lower and its upper flap.
type Names = [&'static str; 3];

const FACES: [Names; 4] = [
    ["back", "back lower flap", "back upper flap"],
    ["near side", "near lower flap", "near upper flap"],
    ["front", "front lower flap", "front upper flap"],
    ["far side", "far lower flap", "far upper flap"],
];
const SIDES: [Names; 4] = [
    ["first side", "first lower flap", "first upper flap"],
    ["second side", "second lower flap", "second upper flap"],
    ["third side", "third lower flap", "third upper flap"],
    ["fourth side", "fourth lower flap", "fourth upper flap"],
];

impl Walls {
    const fn names(self) -> [Names; 4] {
        match self {
            Self::Faces => FACES,
            Self::Sides => SIDES,
        }
    }

    /// The first of them, which the tab laps outside.
    const fn first(self) -> &'static str {
        match self {
            Self::Faces => "the back",
            Self::Sides => "the first side",
        }
    }

    const fn roles(self) -> [PanelRole; 4] {
        match self {
            Self::Faces => [
                PanelRole::Back,
                PanelRole::Side,
                PanelRole::Front,
                PanelRole::Side,
            ],
            Self::Sides => [PanelRole::Side; 4],
        }
    }
}

/// How wide the joining tab is: the house's tab less the board.
pub(super) fn tab(caliper: Length, allowances: &Allowances) -> Length {
    (allowances.box_tab - caliper).max(caliper)
}

/// How wide a slot is: the board and the play.
pub(super) fn slot(caliper: Length, allowances: &Allowances) -> Length {
    caliper + allowances.box_slot_play
}

impl Ring {
    /// Returns the widths of the four walls, from the free edge on.
    ///
    /// P1 = A + c/2, P2 = B + c, P3 = A + c, P4 = B + 2c: the tab laps outside P1, whose free edge ends at the
    /// inner face of P4. Source: packaging engineering practice, folded again as slabs.
    pub(super) fn widths(&self) -> [Length; 4] {
        let c = self.caliper;
        [
            self.along + c / 2.0,
            self.across + c,
            self.along + c,
            self.across + c * 2.0,
        ]
    }

    /// The outer flaps meet in the middle.
    pub(super) fn flap(&self) -> Length {
        (self.across + self.caliper) / 2.0
    }

    /// The inner flaps are as long, unless the section is so short along that they would overlap.
    pub(super) fn inner_flap(&self) -> Length {
        self.flap().min((self.along + self.caliper) / 2.0)
    }

    /// What the inner flaps are trimmed to, where that is less than the outer.
    fn trimmed_to(&self) -> Option<Length> {
        Some(self.inner_flap()).filter(|inner| *inner < self.flap())
    }

    /// Where the walls lie above the lower edge.
    fn band(&self) -> [Length; 2] {
        [self.flap(), self.flap() + self.depth]
    }

    /// Returns the flat blank.
    pub(super) fn blank(&self) -> Blank {
        let (names, roles) = (self.walls.names(), self.walls.roles());
        let mut at = [Length::ZERO; 5];
        for (place, width) in self.widths().into_iter().enumerate() {
            at[place + 1] = at[place] + width;
        }
        let [low, high] = self.band();
        let top = if self.closes_twice {
            high + self.flap()
        } else {
            high
        };
        let size = [at[4] + self.tab, top];
        let wall = |place: usize| {
            let corners = [Point::new(at[place], low), Point::new(at[place + 1], high)];
            Panel::rectangle(names[place][0], roles[place], corners[0], corners[1])
        };
        let score = |at: Length| [Point::new(at, low), Point::new(at, high)];
        let mut layout = Layout::new(self.part, size, wall(THIRD))
            .lapping(self.walls.first())
            .trimmed_to(self.trimmed_to());
        let third = 0;
        let second = layout.hang(third, wall(1), score(at[2]), (SQUARE_DEG, folds::WALLS));
        let first = layout.hang(second, wall(0), score(at[1]), (SQUARE_DEG, folds::WALLS));
        let fourth = layout.hang(third, wall(3), score(at[3]), (SQUARE_DEG, folds::WALLS));
        layout.hang(
            fourth,
            self.tab_at(at[4]),
            score(at[4]),
            (SQUARE_DEG, folds::WALLS),
        );
        for (place, on) in [(1, second), (3, fourth), (0, first), (2, third)] {
            self.flaps(&mut layout, place, on, [at[place], at[place + 1]]);
        }
        layout.cut()
    }

    fn tab_at(&self, left: Length) -> Panel {
        let [low, high] = self.band();
        let bevel = (self.tab * TAB_BEVEL).min(self.depth * MOST_BEVEL);
        let right = left + self.tab;
        let outline = vec![
            Point::new(left, low),
            Point::new(right, low + bevel),
            Point::new(right, high - bevel),
            Point::new(left, high),
        ];
        Panel::new("tab", PanelRole::Tab, outline)
    }

    /// Hangs the flaps of one wall. Half a slot is cut out of each beside a score, and the whole of it out of the
    /// fourth wall's beside the tab, whose score lies a board further out than the first wall.
    fn flaps(&self, layout: &mut Layout, place: usize, on: usize, [left, right]: [Length; 2]) {
        let half = self.slot / 2.0;
        let left = if place == 0 { left } else { left + half };
        let right = right - if place == 3 { self.slot } else { half };
        let inner = place % 2 == 1;
        let (long, lift, steps) = if inner {
            let steps = [folds::INNER_FLOOR, folds::INNER_LID];
            (self.inner_flap(), self.caliper / 2.0, steps)
        } else {
            let steps = [folds::FLOOR, folds::LID];
            (self.flap(), Length::ZERO - self.caliper / 2.0, steps)
        };
        let [low, high] = self.band();
        let [_, lower, upper] = self.walls.names()[place];
        let mut flap = |name, step, [from, to]: [Length; 2], crease: Length| {
            let corners = [Point::new(left, from), Point::new(right, to)];
            let panel = Panel::rectangle(name, PanelRole::Flap, corners[0], corners[1]);
            let score = [Point::new(left, crease), Point::new(right, crease)];
            layout.hang(on, panel.lifted(lift), score, (SQUARE_DEG, step));
        };
        flap(lower, steps[0], [low - long, low], low);
        if self.closes_twice {
            flap(upper, steps[1], [high, high + long], high);
        }
    }

    /// Returns what is free inside once it is folded, over the third wall.
    pub(super) fn room(&self) -> Solid {
        let c = self.caliper;
        let [first, second, ..] = self.widths();
        let closed = if self.closes_twice { c * 2.0 } else { c };
        Solid::cuboid(
            [first + second + c / 2.0, self.flap() + c, c / 2.0],
            [self.along, self.depth - closed, self.across],
        )
    }
}
