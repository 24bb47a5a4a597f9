//! A carton kept from an earlier delivery: cut down in depth or in length, or made deeper with a sleeve.

use serde::Serialize;

use super::{
    Blank, BoxSize, Panel, PanelRole, Point, SlottedFace, Solid, blank::Layout,
    folds::ring as folds, ring,
};
use crate::{house::Allowances, part::PartId, quantity::Length};

/// A slotted carton that opens on the face, by its inside size and board.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct SavedCarton(pub BoxSize);

/// How a saved carton is cut down in depth.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct DepthCut {
    /// The new scores lie so far below the old ones; slots are cut on down to them.
    #[serde(rename = "below_mm")]
    pub below: Length,
    /// What the outer flaps are trimmed to.
    #[serde(rename = "flap_mm")]
    pub flap: Length,
    /// What the inner flaps are trimmed to.
    #[serde(rename = "inner_flap_mm")]
    pub inner_flap: Length,
    /// How wide the slots are cut; at the tab all of it from the fourth wall's flap.
    #[serde(rename = "slot_mm")]
    pub slot: Length,
}

/// How a saved carton is made shorter.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LengthCut {
    /// Cut round twice, so far apart, and taken out.
    #[serde(rename = "take_out_mm")]
    pub take_out: Length,
    /// The four edges of one half are slit so far, which makes four tongues; `None` if the halves are butted.
    #[serde(rename = "tongue_mm")]
    pub tongue: Option<Length>,
    /// Taken off each tongue at both sides.
    #[serde(rename = "trim_mm")]
    pub trim: Option<Length>,
    /// As wide as this is the patch over a butted joint.
    #[serde(rename = "patch_mm")]
    pub patch: Option<Length>,
    /// Inside: the length, and the section where the halves lap.
    #[serde(rename = "inside_mm")]
    pub inside: [Length; 3],
}

/// How two saved cartons become one that is longer than either: an end wall of each is cut off at its crease, and the open
/// ends are pushed into each other.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LengthJoin {
    /// Whether the second carton goes outside, over the first.
    pub second_outside: bool,
    /// So far they lap.
    #[serde(rename = "lap_mm")]
    pub lap: Length,
    /// Where neither goes whole into the other: the four edges of the inner one are slit so far, which makes four tongues.
    #[serde(rename = "tongue_mm")]
    pub tongue: Option<Length>,
    /// Taken off each tongue at both sides.
    #[serde(rename = "trim_mm")]
    pub trim: Option<Length>,
    /// Cut off the open end of the inner one, so that its tongues are no longer than the lap.
    #[serde(rename = "take_off_mm")]
    pub take_off: Length,
    /// How deep the first and the second are, inside; what they are cut down to, or what they were.
    #[serde(rename = "depths_mm")]
    pub depths: [Length; 2],
    /// Inside, where it is narrowest: the length, across, and deep.
    #[serde(rename = "inside_mm")]
    pub inside: [Length; 3],
    /// Inside the outer one: the length of both, across, and deep.
    #[serde(rename = "shell_mm")]
    pub shell: [Length; 3],
}

/// A sleeve that makes a saved carton deeper: pushed in where its old flaps were cut off.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Sleeve {
    carton: BoxSize,
    height: Length,
    /// Of its board.
    caliper: Length,
}

/// Why a saved carton can't be made into a size.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum NoWay {
    /// So little can't be scored beside what is scored already.
    #[error("only {} mm too deep: new scores would meet the old ones, so the space is filled", by.as_mm())]
    TooLittle {
        /// The difference.
        by: Length,
    },
    /// It is deeper already.
    #[error("deep enough without a sleeve")]
    DeepEnough,
    /// A sleeve does not hold in so shallow a carton, or would stand on nothing.
    #[error("a sleeve takes it from {} to {} mm deep", least.as_mm(), most.as_mm())]
    NoSleeve {
        /// The least depth that a sleeve makes.
        least: Length,
        /// The greatest.
        most: Length,
    },
    /// A carton so shallow holds no sleeve.
    #[error("too shallow for a sleeve: under {} mm", least.as_mm())]
    TooShallow {
        /// How deep it would have to be.
        least: Length,
    },
    /// It is shorter than that.
    #[error("not long enough")]
    TooShort,
    /// Two are not joined into something that one of them holds, or that they lap too little for.
    #[error("pushed into each other the two make {} to {} mm", least.as_mm(), most.as_mm())]
    NoJoin {
        /// The shortest that they make.
        least: Length,
        /// The longest.
        most: Length,
    },
    /// Neither goes into the other, or what goes in does not go into both.
    #[error("the two don't fit into each other, or their lap is too short")]
    NoLap,
}

/// New scores lie at least so far from old ones, or so many boards.
const LEAST_BELOW: Length = Length::mm(15.0);
const LEAST_BELOW_BOARDS: f64 = 3.0;
/// Two halves lap so far; what is less than that is butted and patched.
const TONGUE: Length = Length::mm(60.0);
const PATCH: Length = Length::mm(120.0);
/// Each tongue is trimmed by a board and this much, to go into the other half.
const TONGUE_PLAY: Length = Length::mm(1.0);
/// A sleeve stands in its carton so far, with so much play across.
const SLEEVE_IN: Length = Length::mm(80.0);
const SLEEVE_PLAY: Length = Length::mm(2.0);
/// A sleeve makes it deeper by at least this.
const LEAST_MORE: Length = Length::mm(20.0);
const MOST_TIMES: f64 = 2.0;
const SQUARE_DEG: f64 = 90.0;
/// Two cartons lap at least so far, and at least this share of what they make.
const LEAST_LAP: Length = Length::mm(100.0);
const LAP_SHARE: f64 = 0.15;
/// One slides over the other with so much play across and deep.
const SLIDE_PLAY: Length = Length::mm(3.0);
/// What is wider than that by more would wobble.
const MOST_WOBBLE: Length = Length::mm(20.0);
/// Boards of a closed slotted carton on both large sides together, and of its walls.
const CLOSED_BOARDS: f64 = 4.0;
const WALL_BOARDS: f64 = 2.0;

impl SavedCarton {
    /// Returns its inside: along its opening, across it, and deep.
    #[must_use]
    pub const fn sides(self) -> [Length; 3] {
        [self.0.length, self.0.width, self.0.height]
    }

    /// Returns how far it is around its opening.
    #[must_use]
    pub fn around(self) -> Length {
        (self.0.length + self.0.width) * 2.0
    }

    /// Returns its own blank, as it would be if it were opened.
    #[must_use]
    pub fn blank(self, allowances: &Allowances) -> Blank {
        SlottedFace(self.0).blank(allowances)
    }

    /// Returns how it is cut down to a depth: its inside is then exactly that deep, as wide and as long as before.
    ///
    /// New scores lie Δ = H₀ − H below the old ones, at least 15 and three boards; the flaps are trimmed by as much.
    /// Source: packaging engineering practice.
    ///
    /// # Errors
    /// [`NoWay`] where the difference is too little to be scored.
    pub fn cut_to_depth(self, height: Length, allowances: &Allowances) -> Result<DepthCut, NoWay> {
        let (c, by) = (self.0.caliper, self.0.height - height);
        if by < LEAST_BELOW.max(c * LEAST_BELOW_BOARDS) {
            return Err(NoWay::TooLittle { by });
        }
        let [flap, along] = [self.0.width, self.0.length].map(|side| (side + c) / 2.0);
        Ok(DepthCut {
            below: by,
            flap,
            inner_flap: flap.min(along),
            slot: ring::slot(c, allowances),
        })
    }

    /// Returns how it is made shorter: cut round twice and pushed together again.
    ///
    /// δ = L − L′; from 60 on, δ − 60 is taken out, one half's edges are slit 60 back, and its tongues go into the other
    /// half, whose section is two boards less there. Below, the halves are butted under a patch of 120. Source: packaging
    /// engineering practice.
    ///
    /// # Errors
    /// [`NoWay`] where it is no longer than that.
    pub fn cut_to_length(self, length: Length) -> Result<LengthCut, NoWay> {
        let BoxSize {
            length: long,
            width,
            height,
            caliper,
        } = self.0;
        let by = long - length;
        if by <= Length::ZERO {
            return Err(NoWay::TooShort);
        }
        if by < TONGUE {
            return Ok(LengthCut {
                take_out: by,
                tongue: None,
                trim: None,
                patch: Some(PATCH),
                inside: [length, width, height],
            });
        }
        Ok(LengthCut {
            take_out: by - TONGUE,
            tongue: Some(TONGUE),
            trim: Some(caliper + TONGUE_PLAY),
            patch: None,
            inside: [length, width - caliper * 2.0, height - caliper * 2.0],
        })
    }

    /// Returns the shortest and the longest that two cartons make, pushed into each other. Source: packaging engineering
    /// practice, as for a telescope of two halves.
    #[must_use]
    pub fn joined_range(self, other: Self) -> [Length; 2] {
        let (one, two) = (self.0.length, other.0.length);
        let boards = self.0.caliper.max(other.0.caliper) * WALL_BOARDS;
        let least = one.max(two - boards).min(two.max(one - boards));
        let both = one + two;
        [least, (both - LEAST_LAP).min(both / (1.0 + LAP_SHARE))]
    }

    /// Returns how long each of two alike is at least, to make a length between them.
    #[must_use]
    pub fn least_of_two(length: Length) -> Length {
        (length + LEAST_LAP.max(length * LAP_SHARE)) / 2.0
    }

    /// Returns how it and a second carton become one that holds something longer than either, by the sides of what goes in.
    ///
    /// The end walls that meet are cut off at their creases. They lap by the more of 100 and 15 % of the length. Where one
    /// is wider than the other's outside by 2c + 3 to 20 more, and can be as deep as 4c + 3 over it, it slides over it;
    /// else the edges of the narrower are slit back by the lap, and its tongues, trimmed by c + 1, go into the other, where
    /// two boards less are free both ways. Source: packaging engineering practice.
    ///
    /// # Errors
    /// [`NoWay`] where that is too long or too short for them, or they don't go into each other.
    pub fn joined_to(
        self,
        second: Self,
        [long, short, deep]: [Length; 3],
    ) -> Result<LengthJoin, NoWay> {
        let [least, most] = self.joined_range(second);
        // One that is long enough by itself is better whole.
        let least = least.max(self.0.length).max(second.0.length);
        let long = long.snapped_to(most);
        if !(least..=most).contains(&long) {
            return Err(NoWay::NoJoin { least, most });
        }
        let ways = [
            self.slid_into(second, [long, short, deep], true),
            second.slid_into(self, [long, short, deep], false),
            self.tongued_into(second, [long, short, deep], true),
            second.tongued_into(self, [long, short, deep], false),
        ];
        ways.into_iter().flatten().next().ok_or(NoWay::NoLap)
    }

    /// Its depth once it is cut down to what is wanted, as far as it can be.
    fn depth_for(self, deep: Length) -> Option<Length> {
        let deep = deep.snapped_to(self.0.height);
        let cut = self.cut_to_depth(deep, &Allowances::default());
        (deep <= self.0.height).then(|| cut.map_or(self.0.height, |_| deep))
    }

    fn slid_into(
        self,
        outer: Self,
        [long, short, deep]: [Length; 3],
        second_outside: bool,
    ) -> Option<LengthJoin> {
        let c = self.0.caliper.max(outer.0.caliper);
        let wide = self.0.width + c * WALL_BOARDS + SLIDE_PLAY;
        let fits = (wide..=wide + MOST_WOBBLE).contains(&outer.0.width);
        if !fits || short.snapped_to(self.0.width) > self.0.width {
            return None;
        }
        let own = self.depth_for(deep)?;
        let over = own + c * CLOSED_BOARDS + SLIDE_PLAY;
        let its = outer.depth_for(over)?;
        (its <= over + MOST_WOBBLE).then_some(LengthJoin {
            second_outside,
            lap: self.0.length + outer.0.length - long,
            tongue: None,
            trim: None,
            take_off: Length::ZERO,
            depths: in_order([own, its], second_outside),
            inside: [long, self.0.width, own],
            shell: [long, outer.0.width, its],
        })
    }

    fn tongued_into(
        self,
        outer: Self,
        [long, short, deep]: [Length; 3],
        second_outside: bool,
    ) -> Option<LengthJoin> {
        let c = self.0.caliper.max(outer.0.caliper);
        let lost = c * WALL_BOARDS;
        let over = outer.0.width - self.0.width;
        if !(Length::ZERO..=lost + SLIDE_PLAY).contains(&over) {
            return None;
        }
        let free = self.0.width.min(outer.0.width - lost);
        if short.snapped_to(free) > free {
            return None;
        }
        let own = self.depth_for(deep + lost)?;
        let its = outer.depth_for(own)?;
        let lap = LEAST_LAP.max(long * LAP_SHARE);
        let enough = self.0.length + outer.0.length - long - lap;
        (its <= own + lost + SLIDE_PLAY).then_some(LengthJoin {
            second_outside,
            lap,
            tongue: Some(lap),
            trim: Some(c + TONGUE_PLAY),
            take_off: enough.max(Length::ZERO),
            depths: in_order([own, its], second_outside),
            inside: [long, free, own - lost],
            shell: [long, outer.0.width, its],
        })
    }

    /// Returns the least depth that a sleeve makes of it.
    #[must_use]
    pub fn least_sleeved(self) -> Length {
        self.0.height + LEAST_MORE
    }

    /// Returns the sleeve that makes it as deep as wanted.
    ///
    /// # Errors
    /// [`NoWay`] where no sleeve of a board does: H₀ + 20 ≤ H ≤ 2·H₀, and H₀ at least 80.
    pub fn made_deeper(self, height: Length, caliper: Length) -> Result<Sleeve, NoWay> {
        let own = self.0.height;
        let [least, most] = [self.least_sleeved(), own * MOST_TIMES];
        if height <= own {
            return Err(NoWay::DeepEnough);
        }
        if own < SLEEVE_IN {
            return Err(NoWay::TooShallow { least: SLEEVE_IN });
        }
        if !(least..=most).contains(&height) {
            return Err(NoWay::NoSleeve { least, most });
        }
        Ok(Sleeve {
            carton: self.0,
            height,
            caliper,
        })
    }
}

/// Of an inner and an outer one, the first and the second.
const fn in_order([inner, outer]: [Length; 2], second_outside: bool) -> [Length; 2] {
    if second_outside {
        [inner, outer]
    } else {
        [outer, inner]
    }
}

const SIDES: [[&str; 2]; 4] = [
    ["first side", "first flap"],
    ["second side", "second flap"],
    ["third side", "third flap"],
    ["fourth side", "fourth flap"],
];

impl Sleeve {
    /// Returns what is free inside it: across both ways less its board and its play, and as deep as wanted.
    ///
    /// L_s = L − 2c_s − 2 and W_s likewise, and a board of the carton less each where the carton's own joint laps inside,
    /// which a slotted carton's does not. Source: packaging engineering practice.
    #[must_use]
    pub fn inside(self) -> BoxSize {
        let less = self.caliper * 2.0 + SLEEVE_PLAY;
        BoxSize {
            length: self.carton.length - less,
            width: self.carton.width - less,
            height: self.height,
            caliper: self.caliper,
        }
    }

    /// Returns how far its walls reach from their open edge to their score.
    #[must_use]
    pub fn wall(self) -> Length {
        SLEEVE_IN + (self.height - self.carton.height) + (self.caliper - self.carton.caliper)
    }

    /// Returns its flat blank: four walls of L_s + c, W_s + c, L_s + c and W_s + c/2 that butt at the fourth, and flaps of
    /// (W_s + c)/2 at one end. Source: packaging engineering practice, folded again as slabs.
    #[must_use]
    pub fn blank(self, allowances: &Allowances) -> Blank {
        let BoxSize {
            length: along,
            width: across,
            ..
        } = self.inside();
        let c = self.caliper;
        let half = ring::slot(c, allowances) / 2.0;
        let widths = [along + c, across + c, along + c, across + c / 2.0];
        let mut at = [Length::ZERO; 5];
        for (place, width) in widths.into_iter().enumerate() {
            at[place + 1] = at[place] + width;
        }
        let [outer, inner] = [
            (across + c) / 2.0,
            ((across + c) / 2.0).min((along + c) / 2.0),
        ];
        let wall = self.wall();
        let panel = |place: usize| {
            let [low, high] = [
                Point::new(at[place], Length::ZERO),
                Point::new(at[place + 1], wall),
            ];
            Panel::rectangle(SIDES[place][0], PanelRole::Side, low, high)
        };
        let score = |at: Length| [Point::new(at, Length::ZERO), Point::new(at, wall)];
        let mut layout = Layout::new(PartId::Sleeve, [at[4], wall + outer], panel(2))
            .trimmed_to(Some(inner).filter(|inner| *inner < outer));
        let third = 0;
        let second = layout.hang(third, panel(1), score(at[2]), (SQUARE_DEG, folds::WALLS));
        let first = layout.hang(second, panel(0), score(at[1]), (SQUARE_DEG, folds::WALLS));
        let fourth = layout.hang(third, panel(3), score(at[3]), (SQUARE_DEG, folds::WALLS));
        for (place, on) in [(1, second), (3, fourth), (0, first), (2, third)] {
            let (long, lift, step) = if place % 2 == 1 {
                (inner, c / 2.0, folds::INNER_FLOOR)
            } else {
                (outer, c * -0.5, folds::FLOOR)
            };
            // The fourth wall ends half a board before the corner that its slot is centred on.
            let right = at[place + 1] - if place == 3 { half - c / 2.0 } else { half };
            let corners = [
                Point::new(at[place] + half, wall),
                Point::new(right, wall + long),
            ];
            let flap = Panel::rectangle(SIDES[place][1], PanelRole::Flap, corners[0], corners[1]);
            let crease = corners.map(|corner| Point::new(corner.x, wall));
            layout.hang(on, flap.lifted(lift), crease, (SQUARE_DEG, step));
        }
        layout.cut()
    }

    /// Returns what is free inside the folded sleeve itself, over its third wall.
    #[must_use]
    pub fn room(self) -> Solid {
        let c = self.caliper;
        let BoxSize {
            length: along,
            width: across,
            ..
        } = self.inside();
        let left = along + c + across + c + c / 2.0;
        Solid::cuboid(
            [left, Length::ZERO, c / 2.0],
            [along, self.wall() - c, across],
        )
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    fn saved() -> SavedCarton {
        let [length, width, height, caliper] = [800.0, 600.0, 200.0, 4.0].map(Length::mm);
        SavedCarton(BoxSize {
            length,
            width,
            height,
            caliper,
        })
    }

    #[test]
    fn a_carton_is_cut_down_to_a_depth() {
        // 200 to 120: scores 80 below, flaps (600 + 4)/2 = 302, slots 6. By 14 it is too little, by 15 it is not.
        let allowances = Allowances::default();
        let cut = saved()
            .cut_to_depth(Length::mm(120.0), &allowances)
            .expect("it can be cut");
        assert_eq!(
            [cut.below, cut.flap, cut.inner_flap, cut.slot].map(Length::as_mm),
            [80.0, 302.0, 302.0, 6.0]
        );
        let by = |mm: f64| saved().cut_to_depth(Length::mm(200.0 - mm), &allowances);
        assert!(matches!(by(14.0), Err(NoWay::TooLittle { .. })));
        assert!(by(15.0).is_ok());
    }

    #[test]
    fn a_carton_is_made_shorter_by_tongues_or_a_patch() {
        // 800 to 650: 150 − 60 = 90 out, tongues of 60 trimmed 5; inside 650 × 592 × 192. To 760: butted.
        let cut = saved()
            .cut_to_length(Length::mm(650.0))
            .expect("it can be cut");
        assert_eq!(cut.take_out, Length::mm(90.0));
        assert_eq!(cut.trim, Some(Length::mm(5.0)));
        assert_eq!(cut.inside.map(Length::as_mm), [650.0, 592.0, 192.0]);
        let butted = saved()
            .cut_to_length(Length::mm(760.0))
            .expect("it can be cut");
        assert_eq!(
            (butted.take_out, butted.patch),
            (Length::mm(40.0), Some(PATCH))
        );
        assert_eq!(
            saved().cut_to_length(Length::mm(800.0)),
            Err(NoWay::TooShort)
        );
    }

    fn of([length, width, height]: [f64; 3]) -> SavedCarton {
        let [length, width, height, caliper] = [length, width, height, 4.0].map(Length::mm);
        SavedCarton(BoxSize {
            length,
            width,
            height,
            caliper,
        })
    }

    #[test]
    fn two_alike_are_slit_at_their_edges_and_pushed_into_each_other() {
        // Two of 800 make max(800, 800 − 8) = 800 to min(1600 − 100, 1600/1.15 = 1391.3). For 1200 × 580 × 120: lap max(100, 180) = 180, 1600 −
        // 1200 − 180 = 220 cut off; both cut down to 120 + 8 = 128, free where they lap 600 − 8 = 592 × 120.
        let sides = |long: f64| [long, 580.0, 120.0].map(Length::mm);
        let range = saved().joined_range(saved()).map(Length::as_mm);
        assert!((range[0] - 800.0).abs() < 1e-9 && (range[1] - 1600.0 / 1.15).abs() < 1e-6);
        let join = saved().joined_to(saved(), sides(1200.0)).expect("a join");
        assert_eq!(
            (join.lap, join.take_off, join.tongue, join.trim),
            (
                Length::mm(180.0),
                Length::mm(220.0),
                Some(Length::mm(180.0)),
                Some(Length::mm(5.0))
            )
        );
        assert_eq!(join.depths.map(Length::as_mm), [128.0, 128.0]);
        assert_eq!(join.inside.map(Length::as_mm), [1200.0, 592.0, 120.0]);
        assert_eq!(join.shell.map(Length::as_mm), [1200.0, 600.0, 128.0]);
        // One that is long enough is better whole; past the range they lap too little; 593 goes into no lap of 592.
        for long in [799.0, 1392.0] {
            let no = saved().joined_to(saved(), sides(long));
            assert!(matches!(no, Err(NoWay::NoJoin { .. })), "{long}: {no:?}");
        }
        let wide = [1200.0, 593.0, 120.0].map(Length::mm);
        assert_eq!(saved().joined_to(saved(), wide), Err(NoWay::NoLap));
    }

    #[test]
    fn a_wider_one_slides_over_the_other_whole() {
        // 600 + 8 + 3 = 611 to 631 slides over; inside 1200 × 600 × 120, outside it stands 120 + 16 + 3 = 139 deep. They lap
        // by all they have over: 800 + 700 − 1200 = 300. Whichever is named first.
        let (narrow, wide) = (saved(), of([700.0, 615.0, 200.0]));
        let sides = [1200.0, 598.0, 120.0].map(Length::mm);
        let join = narrow.joined_to(wide, sides).expect("a join");
        assert_eq!((join.second_outside, join.tongue), (true, None));
        assert_eq!((join.lap, join.take_off), (Length::mm(300.0), Length::ZERO));
        assert_eq!(join.depths.map(Length::as_mm), [120.0, 139.0]);
        assert_eq!(join.inside.map(Length::as_mm), [1200.0, 600.0, 120.0]);
        assert_eq!(join.shell.map(Length::as_mm), [1200.0, 615.0, 139.0]);
        let turned = wide.joined_to(narrow, sides).expect("a join");
        assert_eq!((turned.second_outside, turned.inside), (false, join.inside));
        assert_eq!(turned.depths.map(Length::as_mm), [139.0, 120.0]);
        // 640 would wobble, and is too wide for tongues.
        let loose = narrow.joined_to(of([700.0, 640.0, 200.0]), sides);
        assert_eq!(loose, Err(NoWay::NoLap));
    }

    #[test]
    fn a_sleeve_makes_a_carton_deeper() {
        // Board 3 in a carton of 4: 800 − 8 = 792 × 592; 300 deep: 80 + 100 − 1 = 179 to the score; flaps (592 + 3)/2 =
        // 297.5; blank 795 + 595 + 795 + 593.5 = 2778.5 × 476.5.
        let sleeve = saved()
            .made_deeper(Length::mm(300.0), Length::mm(3.0))
            .expect("a sleeve");
        let inside = sleeve.inside();
        assert_eq!(
            [inside.length, inside.width].map(Length::as_mm),
            [792.0, 592.0]
        );
        assert_eq!(sleeve.wall(), Length::mm(179.0));
        let blank = sleeve.blank(&Allowances::default());
        assert_eq!(
            [blank.width, blank.height].map(Length::as_mm),
            [2778.5, 476.5]
        );
        let deeper = |mm: f64| saved().made_deeper(Length::mm(mm), Length::mm(3.0));
        assert_eq!(deeper(200.0), Err(NoWay::DeepEnough));
        assert!(matches!(deeper(219.0), Err(NoWay::NoSleeve { .. })));
        assert!(deeper(220.0).is_ok() && deeper(400.0).is_ok());
        assert!(matches!(deeper(401.0), Err(NoWay::NoSleeve { .. })));
    }

    proptest! {
        /// What two cartons make holds what goes in, they lap enough, each is cut down only, and whichever is named first.
        #[test]
        fn two_that_are_joined_hold_what_goes_in_and_lap_enough(
            one in [200.0..1200.0, 100.0..900.0, 40.0..300.0_f64],
            // As wide, a little wider, or anything.
            wider in prop_oneof![Just(0.0), -5.0..5.0, 8.0..40.0_f64, -300.0..300.0_f64],
            other in [200.0..1200.0, 40.0..300.0_f64],
            [long, narrower, shallower] in [0.0..1.0_f64, 0.0..20.0_f64, 0.0..1.0_f64],
        ) {
            let [first, second] = [one, [other[0], (one[1] + wider).max(50.0), other[1]]].map(of);
            let [least, most] = first.joined_range(second).map(Length::as_mm);
            let deepest = first.0.height.min(second.0.height).as_mm();
            let sides = [
                least - 20.0 + long * (most - least + 40.0),
                (first.0.width.min(second.0.width).as_mm() - narrower).max(1.0),
                (deepest * shallower).max(1.0),
            ]
            .map(Length::mm);
            let join = first.joined_to(second, sides);
            let turned = second.joined_to(first, sides);
            prop_assert_eq!(join.is_ok(), turned.is_ok());
            prop_assume!(join.is_ok());
            let join = join.expect("it is one");
            for (have, wanted) in join.inside.into_iter().zip(sides) {
                prop_assert!(have.as_mm() >= wanted.as_mm() - 1e-6, "{} holds no {}", have.as_mm(), wanted.as_mm());
            }
            for (shell, inside) in join.shell.into_iter().zip(join.inside) {
                prop_assert!(shell >= inside);
            }
            let least_lap = LEAST_LAP.max(join.inside[0] * LAP_SHARE).as_mm();
            prop_assert!(join.lap.as_mm() >= least_lap - 1e-6);
            // Both lengths, without what is cut off and where they lap, are the length inside.
            let whole = first.0.length + second.0.length - join.take_off - join.lap;
            prop_assert!((whole - join.inside[0]).as_mm().abs() < 1e-6);
            for (depth, carton) in join.depths.into_iter().zip([first, second]) {
                prop_assert!(depth <= carton.0.height);
                let by = carton.0.height - depth;
                prop_assert!(by == Length::ZERO || carton.cut_to_depth(depth, &Allowances::default()).is_ok());
            }
            // The outer one takes the inner one, closed, or its tongues, trimmed.
            let (inner, outer) = if join.second_outside { (first, second) } else { (second, first) };
            let [inner_deep, outer_deep] = in_order(join.depths, join.second_outside);
            match join.trim {
                None => {
                    prop_assert!(outer.0.width >= inner.0.width + inner.0.caliper * 2.0);
                    prop_assert!(outer_deep >= inner_deep + inner.0.caliper * 4.0);
                }
                Some(trim) => {
                    prop_assert!(outer.0.width >= inner.0.width - trim * 2.0 + inner.0.caliper * 2.0);
                    prop_assert!(outer_deep >= inner_deep - trim * 2.0 + inner.0.caliper * 2.0);
                    prop_assert_eq!(join.tongue, Some(join.lap));
                }
            }
        }
    }
}
