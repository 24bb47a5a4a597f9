//! Flat company: unlike pieces side by side on boards, the boards one above the other.
//!
//! A tier is a board with one large piece on it, or several smaller ones of like depth in guillotine rows. Source: house rule; the
//! search is exact up to six pieces, and beyond goes through the footprints that could be cheapest.

use super::MOST;
use crate::{quantity::Length, space::Envelope};

/// A wrapped piece that could lie beside others.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Flat {
    /// Across, as it hangs.
    pub across: Length,
    /// Up, as it hangs.
    pub up: Length,
    /// From its face to its back.
    pub through: Length,
    /// Whether it may lie a quarter turn round.
    pub may_turn: bool,
}

/// What pieces on one board keep to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Keeping {
    /// Between two of them.
    pub gap: Length,
    /// How much their depths may differ.
    pub depths_within: Length,
    /// Caliper of the board between two tiers.
    pub board: Length,
}

/// Where a piece lies on its board.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OnBoard {
    /// Which, counted from 0 as they were given.
    pub piece: usize,
    /// Its left edge, from the left edge of what lies on the board.
    pub left: Length,
    /// Its lower edge, from the lower edge of what lies on the board.
    pub below: Length,
    /// Whether it lies a quarter turn round.
    pub turned: bool,
}

/// Pieces that lie side by side on one board.
#[derive(Debug, Clone, PartialEq)]
pub struct Tier {
    /// Each of them.
    pub pieces: Vec<OnBoard>,
    /// Width of its pieces with the gaps between them.
    pub across: Length,
    /// Height of its pieces with the gaps between them.
    pub up: Length,
    /// Depth of its thickest piece.
    pub through: Length,
}

/// Pieces in tiers.
#[derive(Debug, Clone, PartialEq)]
pub struct Tiers {
    /// In no order: how they lie on each other is another question.
    pub tiers: Vec<Tier>,
    /// What they fill with a board between every two.
    pub envelope: Envelope,
}

/// Envelopes of which none holds another, each with the groups that fill it.
#[derive(Debug, Default)]
struct Front(Vec<Filled>);

/// What some groups fill, each of them on a board.
type Filled = (Envelope, Vec<usize>);

impl Front {
    fn take(&mut self, envelope: Envelope, groups: &[usize]) {
        if self.0.iter().any(|(known, _)| envelope.holds(*known)) {
            return;
        }
        self.0.retain(|(known, _)| !known.holds(envelope));
        self.0.push((envelope, groups.to_vec()));
    }
}

/// Every way to lay some pieces in tiers that something could price lowest: what none of them fills holds what another fills, and a
/// larger envelope is never taken to cost less. They don't depend on prices, so that they may be kept from one plan to the next.
#[derive(Debug, Clone, PartialEq)]
pub struct Layings(Vec<Tiers>);

impl Layings {
    /// Finds them; `None` for no pieces or too many.
    #[must_use]
    pub fn of(flats: &[Flat], keeping: Keeping) -> Option<Self> {
        if !(1..=MOST).contains(&flats.len()) {
            return None;
        }
        let groups = Groups::of(flats, keeping);
        let Front(front) = if flats.len() <= EXACT {
            groups.exactly()
        } else {
            groups.by_footprints()
        };
        let laid = front
            .iter()
            .filter_map(|(envelope, filled)| groups.laid_in(*envelope, filled));
        Some(Self(laid.collect()))
    }

    /// Returns the tiers that cost least, then the thinnest, as something prices what they fill.
    #[must_use]
    pub fn cheapest(&self, price: &dyn Fn(Envelope) -> f64) -> Option<&Tiers> {
        let worths = self.0.iter().map(|tiers| {
            let envelope = tiers.envelope;
            ([price(envelope), envelope.through.as_mm()], tiers)
        });
        let best = worths.reduce(|best, one| if is_below(one.0, best.0) { one } else { best });
        best.map(|(_, tiers)| tiers)
    }
}

/// With up to six pieces every way of parting them into tiers is priced.
const EXACT: usize = 6;
/// With more than six pieces each group keeps its eight smallest outlines, and the 48 smallest and 48 shortest footprints are filled.
const OUTLINES: usize = 8;
const FOOTPRINTS: usize = 48;

/// One way to lay a group of pieces side by side.
#[derive(Debug, Clone, Copy)]
struct Shape {
    across: f64,
    up: f64,
    made: Made,
}

impl Shape {
    fn area(&self) -> f64 {
        self.across * self.up
    }
}

/// Which shape of which group.
type Of = (usize, usize);

#[derive(Debug, Clone, Copy)]
enum Made {
    One { turned: bool },
    Beside(Of, Of),
    Above(Of, Of),
}

/// The smallest outlines of a group, up to a number: a new one that holds a kept one is left out, and a kept one that holds a new one too.
struct Kept {
    most: usize,
    shapes: Vec<Shape>,
    /// The area of the largest outline, as soon as the number is reached.
    largest: f64,
}

impl Kept {
    fn take(&mut self, shape: Shape) {
        let within = |one: &Shape, other: &Shape| one.across <= other.across && one.up <= other.up;
        if shape.area() >= self.largest || self.shapes.iter().any(|one| within(one, &shape)) {
            return;
        }
        self.shapes.retain(|one| !within(&shape, one));
        self.shapes.push(shape);
        if self.shapes.len() > self.most {
            self.shapes
                .sort_by(|one, other| one.area().total_cmp(&other.area()));
            self.shapes.truncate(self.most);
        }
        if self.shapes.len() == self.most {
            let areas = self.shapes.iter().map(Shape::area);
            self.largest = areas.fold(0.0, f64::max);
        }
    }
}

/// The outlines of every group of pieces, each as the bits of its members.
struct Groups<'a> {
    flats: &'a [Flat],
    keeping: Keeping,
    shapes: Vec<Vec<Shape>>,
}

impl Tiers {
    /// Returns pieces that somebody laid on boards by hand: on each board as they fill the least room together, within what the
    /// others fill where that can be. `None` where a piece is named twice or never.
    #[must_use]
    pub fn by_hand(flats: &[Flat], keeping: Keeping, boards: &[Vec<usize>]) -> Option<Self> {
        if !(1..=MOST).contains(&flats.len()) {
            return None;
        }
        let mut named: Vec<usize> = boards.iter().flatten().copied().collect();
        named.sort_unstable();
        if !named.into_iter().eq(0..flats.len()) || boards.iter().any(Vec::is_empty) {
            return None;
        }
        // Whatever the depths: somebody wanted them on one board.
        let keeping = Keeping {
            depths_within: Length::mm(f64::MAX),
            ..keeping
        };
        let groups = Groups::of(flats, keeping);
        let masks: Vec<usize> = boards
            .iter()
            .map(|board| board.iter().fold(0, |mask, piece| mask | 1 << piece))
            .collect();
        groups.parted(&masks)
    }

    /// Returns one above the other.
    #[must_use]
    pub fn tower(flats: &[Flat], keeping: Keeping) -> Option<Self> {
        let each: Vec<Vec<usize>> = (0..flats.len()).map(|piece| vec![piece]).collect();
        let standing: Vec<Flat> = flats
            .iter()
            .map(|flat| Flat {
                may_turn: false,
                ..*flat
            })
            .collect();
        Self::by_hand(&standing, keeping, &each)
    }

    /// Tells whether any two lie side by side.
    #[must_use]
    pub fn share_a_board(&self) -> bool {
        self.tiers.iter().any(|tier| tier.pieces.len() > 1)
    }
}

impl<'a> Groups<'a> {
    fn of(flats: &'a [Flat], keeping: Keeping) -> Self {
        let mut groups = Self {
            flats,
            keeping,
            shapes: vec![Vec::new(); 1 << flats.len()],
        };
        let most = if flats.len() <= EXACT {
            usize::MAX
        } else {
            OUTLINES
        };
        for group in 1..groups.shapes.len() {
            groups.shapes[group] = groups.outlines(group, most);
        }
        groups
    }

    fn members(&self, group: usize) -> impl Iterator<Item = usize> + Clone + use<> {
        (0..self.flats.len()).filter(move |piece| group & (1 << piece) != 0)
    }

    fn through(&self, group: usize) -> f64 {
        let depths = self.members(group).map(|piece| self.flats[piece].through);
        depths.max().unwrap_or(Length::ZERO).as_mm()
    }

    /// Every outline of a group than which no other is both narrower and lower.
    fn outlines(&self, group: usize, most: usize) -> Vec<Shape> {
        let first = group & group.wrapping_neg();
        if group == first {
            return self.alone(group.trailing_zeros() as usize);
        }
        let thinnest = self.members(group).map(|piece| self.flats[piece].through);
        let thinnest = thinnest.min().unwrap_or(Length::ZERO).as_mm();
        if self.through(group) - thinnest > self.keeping.depths_within.as_mm() {
            return Vec::new();
        }
        let gap = self.keeping.gap.as_mm();
        let mut kept = Kept {
            most,
            shapes: Vec::new(),
            largest: f64::INFINITY,
        };
        // Each way of parting it in two, the first piece always in the same part.
        let rest = group & !first;
        let mut other = rest;
        while other != 0 {
            let part = group & !other;
            for (at, one) in self.shapes[part].iter().enumerate() {
                for (there, two) in self.shapes[other].iter().enumerate() {
                    let (one_of, two_of) = ((part, at), (other, there));
                    let beside = Shape {
                        across: one.across + gap + two.across,
                        up: one.up.max(two.up),
                        made: Made::Beside(one_of, two_of),
                    };
                    let above = Shape {
                        across: one.across.max(two.across),
                        up: one.up + gap + two.up,
                        made: Made::Above(one_of, two_of),
                    };
                    kept.take(beside);
                    kept.take(above);
                }
            }
            other = (other - 1) & rest;
        }
        front(kept.shapes)
    }

    fn alone(&self, piece: usize) -> Vec<Shape> {
        let flat = self.flats[piece];
        let (across, up) = (flat.across.as_mm(), flat.up.as_mm());
        let upright = Shape {
            across,
            up,
            made: Made::One { turned: false },
        };
        let turned = Shape {
            across: up,
            up: across,
            made: Made::One { turned: true },
        };
        if flat.may_turn {
            front(vec![upright, turned])
        } else {
            vec![upright]
        }
    }

    /// What groups fill on a footprint, a board between every two.
    fn filled(&self, groups: &[usize], [across, up]: [f64; 2]) -> Envelope {
        let through: f64 = groups.iter().map(|group| self.through(*group)).sum();
        let between = u32::try_from(groups.len().saturating_sub(1)).unwrap_or(u32::MAX);
        let boards = self.keeping.board.as_mm() * f64::from(between);
        Envelope {
            across: Length::mm(across),
            up: Length::mm(up),
            through: Length::mm(through + boards),
        }
    }

    /// Each width at which one of some groups fits, with the least height that takes all of them there.
    fn footprints(&self, groups: &[usize]) -> impl Iterator<Item = [f64; 2]> {
        let widths = groups.iter().flat_map(|group| &self.shapes[*group]);
        widths.filter_map(|shape| {
            let width = shape.across;
            let lowest = |group: &usize| {
                let fits = self.shapes[*group].iter();
                let heights = fits
                    .filter(|shape| shape.across <= width + SAME)
                    .map(|shape| shape.up);
                heights.min_by(f64::total_cmp)
            };
            let heights: Option<Vec<f64>> = groups.iter().map(lowest).collect();
            let height = heights?.into_iter().fold(0.0, f64::max);
            Some([width, height])
        })
    }

    /// The smallest footprint for groups.
    fn parted(&self, groups: &[usize]) -> Option<Tiers> {
        let footprints = self.footprints(groups);
        let smallest = footprints.min_by(|one, other| {
            let area = |[across, up]: &[f64; 2]| across * up;
            area(one).total_cmp(&area(other))
        });
        self.laid(groups, smallest?)
    }

    /// Every way of parting the pieces into groups.
    fn exactly(&self) -> Front {
        let mut best = Front::default();
        self.each_parting(self.shapes.len() - 1, &mut Vec::new(), &mut |groups| {
            for footprint in self.footprints(groups) {
                best.take(self.filled(groups, footprint), groups);
            }
        });
        best
    }

    fn each_parting(&self, left: usize, groups: &mut Vec<usize>, visit: &mut dyn FnMut(&[usize])) {
        if left == 0 {
            return visit(groups);
        }
        let first = left & left.wrapping_neg();
        let rest = left & !first;
        let mut with = rest;
        loop {
            let group = first | with;
            if !self.shapes[group].is_empty() {
                groups.push(group);
                self.each_parting(left & !group, groups, visit);
                groups.pop();
            }
            if with == 0 {
                return;
            }
            with = (with - 1) & rest;
        }
    }

    /// Fills the footprints that could be smallest, and those that could be shortest; one above the other is among what is found.
    fn by_footprints(&self) -> Front {
        let board = self.keeping.board.as_mm();
        let volume: f64 = self
            .flats
            .iter()
            .map(|flat| flat.across.as_mm() * flat.up.as_mm() * (flat.through.as_mm() + board))
            .sum();
        let thickest = self.through(self.shapes.len() - 1);
        let mut widths: Vec<f64> = Vec::new();
        let mut heights: Vec<f64> = Vec::new();
        for shape in self.shapes.iter().flatten() {
            widths.push(shape.across);
            heights.push(shape.up);
        }
        for sides in [&mut widths, &mut heights] {
            sides.sort_by(f64::total_cmp);
            sides.dedup_by(|one, other| (*one - *other).abs() < EQUAL_SIDES);
        }
        let takes_each = |footprint: [f64; 2]| {
            (0..self.flats.len()).all(|piece| self.fitting(1 << piece, footprint).is_some())
        };
        // For each footprint the volume that it fills at least, and the longest side then.
        let mut footprints: Vec<([f64; 2], [f64; 2])> = Vec::new();
        for across in &widths {
            for up in &heights {
                let footprint = [*across, *up];
                if takes_each(footprint) {
                    let through = (volume / (across * up) - board).max(thickest);
                    let longest = across.max(*up).max(through);
                    footprints.push(([across * up * through, longest], footprint));
                }
            }
        }
        let mut best = Front::default();
        for by in [[0, 1], [1, 0]] {
            footprints.sort_by(|(one, _), (other, _)| {
                one[by[0]]
                    .total_cmp(&other[by[0]])
                    .then(one[by[1]].total_cmp(&other[by[1]]))
            });
            for (_, footprint) in footprints.iter().take(FOOTPRINTS) {
                if let Some(groups) = self.thinnest(*footprint) {
                    best.take(self.filled(&groups, *footprint), &groups);
                }
            }
        }
        let each: Vec<usize> = (0..self.flats.len()).map(|piece| 1 << piece).collect();
        for footprint in self.footprints(&each) {
            best.take(self.filled(&each, footprint), &each);
        }
        best
    }

    fn laid_in(&self, envelope: Envelope, groups: &[usize]) -> Option<Tiers> {
        self.laid(groups, [envelope.across.as_mm(), envelope.up.as_mm()])
    }

    /// The groups that make the thinnest pile on a footprint: of what is left, the first piece goes with some of the others.
    fn thinnest(&self, footprint: [f64; 2]) -> Option<Vec<usize>> {
        let all = self.shapes.len() - 1;
        let board = self.keeping.board.as_mm();
        let thickness: Vec<Option<f64>> = (0..=all)
            .map(|group| {
                (group > 0 && self.fitting(group, footprint).is_some())
                    .then(|| self.through(group) + board)
            })
            .collect();
        let mut reached: Vec<(f64, usize)> = vec![(f64::INFINITY, 0); all + 1];
        reached[0] = (0.0, 0);
        for left in 1..=all {
            let first = left & left.wrapping_neg();
            let rest = left & !first;
            let mut with = rest;
            loop {
                let group = first | with;
                if let Some(thick) = thickness[group] {
                    let so_far = reached[left & !group].0 + thick;
                    if so_far < reached[left].0 {
                        reached[left] = (so_far, group);
                    }
                }
                if with == 0 {
                    break;
                }
                with = (with - 1) & rest;
            }
        }
        let mut groups = Vec::new();
        let mut left = all;
        while left != 0 {
            let (thick, group) = reached[left];
            if !thick.is_finite() {
                return None;
            }
            groups.push(group);
            left &= !group;
        }
        Some(groups)
    }

    /// The smallest outline of a group that a footprint takes.
    fn fitting(&self, group: usize, [across, up]: [f64; 2]) -> Option<usize> {
        let shapes = self.shapes[group].iter().enumerate();
        let fits =
            shapes.filter(|(_, shape)| shape.across <= across + SAME && shape.up <= up + SAME);
        let smallest = fits.min_by(|(_, one), (_, other)| one.area().total_cmp(&other.area()));
        smallest.map(|(at, _)| at)
    }

    fn laid(&self, groups: &[usize], footprint: [f64; 2]) -> Option<Tiers> {
        let tiers: Option<Vec<Tier>> = groups
            .iter()
            .map(|&group| {
                let at = self.fitting(group, footprint)?;
                let shape = self.shapes[group][at];
                let mut pieces = Vec::new();
                self.lay((group, at), [0.0, 0.0], &mut pieces);
                pieces.sort_by_key(|on: &OnBoard| on.piece);
                Some(Tier {
                    pieces,
                    across: Length::mm(shape.across),
                    up: Length::mm(shape.up),
                    through: Length::mm(self.through(group)),
                })
            })
            .collect();
        Some(Tiers {
            tiers: tiers?,
            envelope: self.filled(groups, footprint),
        })
    }

    fn lay(&self, (group, at): Of, [left, below]: [f64; 2], pieces: &mut Vec<OnBoard>) {
        let gap = self.keeping.gap.as_mm();
        match self.shapes[group][at].made {
            Made::One { turned } => pieces.push(OnBoard {
                piece: group.trailing_zeros() as usize,
                left: Length::mm(left),
                below: Length::mm(below),
                turned,
            }),
            Made::Beside(one, other) => {
                let across = self.shapes[one.0][one.1].across;
                self.lay(one, [left, below], pieces);
                self.lay(other, [left + across + gap, below], pieces);
            }
            Made::Above(one, other) => {
                let up = self.shapes[one.0][one.1].up;
                self.lay(one, [left, below], pieces);
                self.lay(other, [left, below + up + gap], pieces);
            }
        }
    }
}

/// Sides and prices that differ by rounding alone are the same.
const SAME: f64 = 1e-6;
/// Beyond six pieces, widths of footprints that differ by less are taken as one, and heights too.
const EQUAL_SIDES: f64 = 10.0;

fn is_below(one: [f64; 2], other: [f64; 2]) -> bool {
    if (one[0] - other[0]).abs() > SAME {
        one[0] < other[0]
    } else {
        one[1] < other[1] - SAME
    }
}

/// Leaves out every outline that another one is within.
fn front(mut shapes: Vec<Shape>) -> Vec<Shape> {
    shapes.sort_by(|one, other| {
        one.across
            .total_cmp(&other.across)
            .then(one.up.total_cmp(&other.up))
    });
    let mut lowest = f64::INFINITY;
    shapes.retain(|shape| {
        let lower = shape.up < lowest - SAME;
        if lower {
            lowest = shape.up;
        }
        lower
    });
    shapes
}
