//! The best order: what lies nearest the back is filled up piece by piece, and of all that hold the same pieces and end alike
//! only the best is gone on with.

use super::{
    MOST, Member, Parting, PlacedPiece,
    judge::{Side, ends_broken, hardware_at_a_face, outside, parted, side},
};

/// What an order comes to so far: rules broken, thickness, moment; the first that differs counts.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Cost {
    broken: u32,
    thickness: f64,
    moment: f64,
}

/// Two thicknesses or moments that differ by rounding alone are the same.
const SAME: f64 = 1e-6;

impl Cost {
    fn is_below(self, other: Self) -> bool {
        if self.broken != other.broken {
            return self.broken < other.broken;
        }
        if (self.thickness - other.thickness).abs() > SAME {
            return self.thickness < other.thickness;
        }
        self.moment < other.moment - SAME
    }
}

/// The best way to have laid some pieces with one of them in front.
#[derive(Debug, Clone, Copy)]
struct Reached {
    cost: Cost,
    /// What lies in front but one, as a way of lying.
    before: usize,
}

/// A way of lying is twice the number of a piece, and one more where its face looks to the front.
const fn placed(way: usize) -> PlacedPiece {
    PlacedPiece {
        piece: way / 2,
        faces_front: way % 2 == 1,
    }
}

/// Returns the best order, from the front; nothing for no piece or too many.
pub(super) fn best(members: &[Member], parting: Parting) -> Option<Vec<PlacedPiece>> {
    let count = members.len();
    if !(1..=MOST).contains(&count) {
        return None;
    }
    let ways = count * 2;
    let looks = |at: usize, front: bool| {
        let placed = placed(at);
        side(&members[placed.piece], placed.faces_front, front)
    };
    let alone = |at: usize| {
        let back = looks(at, false);
        let member = &members[at / 2];
        let under = outside(member, back, parting).as_mm();
        Cost {
            broken: u32::from(back.is_face()),
            thickness: under + member.through.as_mm(),
            moment: member.mass.as_g() * (under + member.through.as_mm() / 2.0),
        }
    };
    // What lies at the two ends together is judged once all lie: so each piece at the back is gone through by itself.
    let mut found: Option<(Cost, Vec<PlacedPiece>)> = None;
    for back in 0..ways {
        let reached = filled(members, parting, back, alone(back), &looks);
        let all = (1_usize << count) - 1;
        for front in 0..ways {
            let Some(Reached { cost, .. }) = reached[all * ways + front] else {
                continue;
            };
            let side = looks(front, true);
            let ends = ends_broken(members, front / 2, back / 2).len();
            let cost = Cost {
                broken: cost.broken
                    + u32::from(side.is_face())
                    + u32::try_from(ends).unwrap_or(u32::MAX),
                thickness: cost.thickness + outside(&members[front / 2], side, parting).as_mm(),
                ..cost
            };
            if found
                .as_ref()
                .is_none_or(|(known, _)| cost.is_below(*known))
            {
                found = Some((cost, walked(&reached, ways, all, front)));
            }
        }
    }
    found.map(|(_, order)| order)
}

/// Fills up from one piece at the back.
fn filled(
    members: &[Member],
    parting: Parting,
    back: usize,
    start: Cost,
    looks: &impl Fn(usize, bool) -> Side,
) -> Vec<Option<Reached>> {
    let (count, ways) = (members.len(), members.len() * 2);
    let mut reached: Vec<Option<Reached>> = vec![None; (1 << count) * ways];
    reached[(1 << (back / 2)) * ways + back] = Some(Reached {
        cost: start,
        before: back,
    });
    for held in 1_usize..1 << count {
        for front in 0..ways {
            let Some(Reached { cost, .. }) = reached[held * ways + front] else {
                continue;
            };
            let other = looks(front, true);
            for next in (0..ways).filter(|next| held & (1 << (next / 2)) == 0) {
                let one = looks(next, false);
                let member = &members[next / 2];
                let behind = (&members[front / 2], other);
                let under = cost.thickness + parted((member, one), behind, parting).as_mm();
                let through = member.through.as_mm();
                let cost = Cost {
                    broken: cost.broken + u32::from(hardware_at_a_face(one, other)),
                    thickness: under + through,
                    moment: cost.moment + member.mass.as_g() * (under + through / 2.0),
                };
                let place = &mut reached[(held | 1 << (next / 2)) * ways + next];
                if place.is_none_or(|known| cost.is_below(known.cost)) {
                    *place = Some(Reached {
                        cost,
                        before: front,
                    });
                }
            }
        }
    }
    reached
}

/// Walks back from the piece in front.
fn walked(reached: &[Option<Reached>], ways: usize, all: usize, front: usize) -> Vec<PlacedPiece> {
    let mut order = Vec::with_capacity(ways / 2);
    let (mut held, mut at) = (all, front);
    while held != 0 {
        order.push(placed(at));
        let Some(Reached { before, .. }) = reached[held * ways + at] else {
            break;
        };
        held &= !(1 << (at / 2));
        at = before;
    }
    order
}
