//! What an order of pieces comes to: its thickness, where its weight lies, and the rules that it breaks.

use serde::Serialize;

use super::{Member, MemberFace, Parting, PlacedPiece};
use crate::quantity::{Length, Mass};

/// A rule of laying pieces together.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = ArrangeRule))]
#[serde(rename_all = "snake_case")]
pub enum Rule {
    /// A face looks inward, to a board, bare or under glass.
    FaceInward,
    /// Glazing lies in the middle, while anything else could lie outside.
    GlazingInside,
    /// Of what is not glazed, the stiffest lies outside.
    StiffestOutside,
    /// Hardware never looks at a face.
    HardwareFromFaces,
    /// What lies side by side is about as thick.
    LikeDepths,
}

/// A rule that an order breaks.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Broken))]
pub struct BrokenRule {
    /// The rule.
    pub rule: Rule,
    /// At which place from the front, from 0; of a pair the one in front.
    pub at: usize,
    /// What is wrong, and what would be right.
    pub says: &'static str,
    /// What is so, where nothing better is to be had.
    pub plain: &'static str,
}

/// What lies between two.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Pair {
    /// The board between them: as large as the larger of both.
    #[serde(rename = "across_mm")]
    pub across: Length,
    /// Up.
    #[serde(rename = "up_mm")]
    pub up: Length,
    /// With the pad over hardware, where there is some.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Whether a fold of the shared pad parts them, and no board.
    pub folded: bool,
    /// Whether a pad lies over hardware between them.
    pub padded: bool,
    /// Why they lie like that.
    pub says: &'static str,
}

/// A side that looks at something.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Side {
    Bare,
    Glazed,
    Plain,
    Hardware,
}

impl Side {
    pub(super) const fn is_face(self) -> bool {
        matches!(self, Self::Bare | Self::Glazed)
    }
}

impl BrokenRule {
    pub(super) const fn of(rule: Rule, at: usize) -> Self {
        Self {
            rule,
            at,
            says: rule.says(),
            plain: rule.plain(),
        }
    }
}

impl Rule {
    /// What a finding about it is known by.
    pub(crate) const fn code(self) -> &'static str {
        match self {
            Self::FaceInward => "stack-face-outward",
            Self::GlazingInside => "stack-glass-outside",
            Self::StiffestOutside => "stack-soft-outside",
            Self::HardwareFromFaces => "stack-hardware",
            Self::LikeDepths => "stack-depths",
        }
    }

    /// What is so where it is broken and nothing better is to be had.
    pub(crate) const fn plain(self) -> &'static str {
        match self {
            Self::FaceInward => "one face points outward",
            Self::GlazingInside => "glass lies outside",
            Self::StiffestOutside => "a softer piece lies outside and takes the knocks",
            Self::HardwareFromFaces => "hardware faces a picture, with a board and a pad between",
            Self::LikeDepths => "the thinner of two side by side lies on fill",
        }
    }

    const fn says(self) -> &'static str {
        match self {
            Self::FaceInward => "a face points outward: turn it inward, to a board",
            Self::GlazingInside => "glass lies outside another piece: swap them",
            Self::StiffestOutside => {
                "a softer piece lies outside: the stiffest should take the knocks"
            }
            Self::HardwareFromFaces => "hardware faces a picture: turn one of the two around",
            Self::LikeDepths => {
                "pieces of different depth lie side by side: the board rests on the thicker one only"
            }
        }
    }
}

/// The side that a piece turns to the front, or to the back.
pub(super) const fn side(member: &Member, faces_front: bool, front: bool) -> Side {
    if faces_front == front {
        match member.face {
            MemberFace::Bare => Side::Bare,
            MemberFace::Glazed => Side::Glazed,
            MemberFace::Stiff => Side::Plain,
        }
    } else if member.hardware {
        Side::Hardware
    } else {
        Side::Plain
    }
}

/// Tells whether the hardware of a piece at an end looks outward.
pub(super) fn looks_out_hard(members: &[Member], placed: &PlacedPiece, front: bool) -> bool {
    side(&members[placed.piece], placed.faces_front, front) == Side::Hardware
}

/// What lies outside an end.
pub(super) fn outside(member: &Member, side: Side, parting: Parting) -> Length {
    let fold = if member.folded {
        parting.fold
    } else {
        Length::ZERO
    };
    let board = if member.several {
        parting.board
    } else {
        Length::ZERO
    };
    if side == Side::Hardware {
        fold + board + parting.pad
    } else {
        fold + board
    }
}

/// Sizes that differ by less lie on each other all the same.
const ALIKE: Length = Length::mm(20.0);

/// Tells whether a fold of the shared pad alone parts two: neither edge lies on the other's unsupported span.
pub(super) fn parted_by_fold(one: &Member, other: &Member) -> bool {
    let alike = |one: Length, other: Length| one.max(other) - one.min(other) <= ALIKE;
    one.folded && other.folded && alike(one.across, other.across) && alike(one.up, other.up)
}

/// How thick what parts two sides is.
pub(super) fn parted(one: (&Member, Side), other: (&Member, Side), parting: Parting) -> Length {
    let pad = if one.1 == Side::Hardware || other.1 == Side::Hardware {
        parting.pad
    } else {
        Length::ZERO
    };
    if parted_by_fold(one.0, other.0) {
        return parting.fold + pad;
    }
    let folds = f64::from(u8::from(one.0.folded) + u8::from(other.0.folded));
    parting.board + parting.fold * folds + pad
}

/// Tells whether hardware looks at a face.
pub(super) const fn hardware_at_a_face(one: Side, other: Side) -> bool {
    matches!(
        (one, other),
        (Side::Hardware, Side::Bare | Side::Glazed) | (Side::Bare | Side::Glazed, Side::Hardware)
    )
}

/// How many of the rules about what lies outside an order breaks, by its two ends: all of them, whatever lies between.
pub(super) fn ends_broken(members: &[Member], first: usize, last: usize) -> Vec<(Rule, usize)> {
    let outside = |at: usize| at == first || at == last;
    let glazed = |at: usize| members[at].face == MemberFace::Glazed;
    let plain_inside = (0..members.len()).any(|at| !outside(at) && !glazed(at));
    let stiffest_inside = (0..members.len())
        .filter(|&at| !outside(at) && !glazed(at))
        .map(|at| members[at].stiffness)
        .fold(f64::NEG_INFINITY, f64::max);
    let mut broken = Vec::new();
    for end in [first, last] {
        if glazed(end) {
            if plain_inside {
                broken.push((Rule::GlazingInside, end));
            }
        } else if members[end].stiffness < stiffest_inside {
            broken.push((Rule::StiffestOutside, end));
        }
        if first == last {
            break;
        }
    }
    broken
}

/// What an order comes to.
pub(super) struct Judged {
    pub thickness: Length,
    pub pairs: Vec<Pair>,
    pub broken: Vec<BrokenRule>,
    mass: Mass,
    /// Mass times the way from the back, in grams and millimetres.
    moment: f64,
}

impl Judged {
    pub(super) fn of(members: &[Member], parting: Parting, order: &[PlacedPiece]) -> Self {
        let mut judged = Self {
            thickness: Length::ZERO,
            pairs: Vec::new(),
            broken: Vec::new(),
            mass: Mass::ZERO,
            moment: 0.0,
        };
        let (Some(front), Some(back)) = (order.first(), order.last()) else {
            return judged;
        };
        let looks =
            |placed: &PlacedPiece, front| side(&members[placed.piece], placed.faces_front, front);
        let mut break_rule = |rule: Rule, at| {
            judged.broken.push(BrokenRule::of(rule, at));
        };
        let last = order.len() - 1;
        for (at, side) in [(0, looks(front, true)), (last, looks(back, false))] {
            if side.is_face() {
                break_rule(Rule::FaceInward, at);
            }
        }
        for (rule, piece) in ends_broken(members, front.piece, back.piece) {
            break_rule(rule, if piece == front.piece { 0 } else { last });
        }
        for (at, two) in order.windows(2).enumerate() {
            let (one, other) = (looks(&two[0], false), looks(&two[1], true));
            if hardware_at_a_face(one, other) {
                break_rule(Rule::HardwareFromFaces, at);
            }
        }
        judged.broken.sort_by_key(|broken| (broken.at, broken.rule));
        // From the back, which it rests on, to the front.
        judged.thickness += outside(&members[back.piece], looks(back, false), parting);
        for (at, placed) in order.iter().enumerate().rev() {
            let member = &members[placed.piece];
            judged.moment += member.mass.as_g() * (judged.thickness + member.through / 2.0).as_mm();
            judged.mass += member.mass;
            judged.thickness += member.through;
            let Some(before) = at.checked_sub(1).map(|before| &order[before]) else {
                continue;
            };
            let (one, other) = (looks(before, false), looks(placed, true));
            let ahead = &members[before.piece];
            let thickness = parted((ahead, one), (member, other), parting);
            judged.thickness += thickness;
            let folded = parted_by_fold(ahead, member);
            judged.pairs.push(Pair {
                across: member.across.max(ahead.across),
                up: member.up.max(ahead.up),
                thickness,
                folded,
                padded: one == Side::Hardware || other == Side::Hardware,
                says: if folded {
                    "a fold of one pad parts them: both are thin, and of one size"
                } else {
                    between(one, other)
                },
            });
        }
        judged.pairs.reverse();
        judged.thickness += outside(&members[front.piece], looks(front, true), parting);
        judged
    }

    pub(super) fn centre(&self) -> Length {
        let mass = self.mass.as_g();
        Length::mm(if mass > 0.0 { self.moment / mass } else { 0.0 })
    }
}

const fn between(one: Side, other: Side) -> &'static str {
    match (one, other) {
        (Side::Hardware, Side::Hardware) => "back to back: the hardware of both lies on one pad",
        (Side::Hardware, Side::Plain) | (Side::Plain, Side::Hardware) => {
            "hardware to a plain back, with a pad over it"
        }
        (Side::Hardware, Side::Bare | Side::Glazed)
        | (Side::Bare | Side::Glazed, Side::Hardware) => {
            "hardware to a face: only a board and a pad keep them apart"
        }
        (Side::Bare | Side::Glazed, Side::Bare | Side::Glazed) => {
            "face to face, a board between them: nothing hard reaches either"
        }
        (Side::Bare | Side::Glazed, Side::Plain) | (Side::Plain, Side::Bare | Side::Glazed) => {
            "a face to a plain back, a board between them"
        }
        (Side::Plain, Side::Plain) => "back to back, a board between them",
    }
}
