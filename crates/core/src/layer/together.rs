//! What lays several wrapped pieces together: boards or folds between them, pads over hardware, chocks at what is no rectangle,
//! fill beside what is smaller, and bands around all.

use serde::Serialize;

use super::{
    Layer, Make, Making, Supplies,
    kind::{Kind, Nature, Standing},
};
use crate::{
    Refusal,
    arrange::{Arrangement, Member, Parting, Tier},
    part::{Cut, Need, PartId, StripId},
    quantity::{Area, Length},
    space::{Addition, Envelope, LayerSlot},
};

use super::supplies::SheetGoods;

/// How several pieces are laid together.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LaidTogether {
    /// How many.
    pub pieces: u32,
    /// Boards between them.
    pub boards: u32,
    /// Pads over hardware.
    pub pads: u32,
    /// Chocks at the bearing points of what is no rectangle.
    pub chocks: u32,
    /// How many lie in the folds of one pad.
    pub folded: u32,
    /// Of the pieces themselves from front to back, without what lies around and between them.
    #[serde(rename = "bearing_depth_mm")]
    pub bearing_depth: Length,
}

/// A chock is this share of a short side, between two lengths. Source: house rule, as for corner pockets.
const CHOCK_SHARE: f64 = 0.125;
const LEAST_CHOCK: Length = Length::mm(40.0);
const MOST_CHOCK: Length = Length::mm(120.0);
/// How many bands each way hold the stack.
const BANDS: u32 = 2;

/// Where several pieces lie; how they lie is made with all of them at hand, not here.
pub(super) const KIND: Kind = Kind::new(
    Nature::PLAIN,
    |_| Standing::Never("only for several pieces in one box: add a piece at Measure"),
    |_| Ok(None),
);

/// What lies on a board, alone or beside others: as something that is ordered, and with each of its pieces.
pub(crate) struct Laid<'a> {
    pub tiers: &'a [Tier],
    /// Each tier as one.
    pub members: &'a [Member],
    /// Each piece.
    pub pieces: &'a [Member],
    pub arrangement: &'a Arrangement,
}

/// Returns the layer that several pieces make, laid together; what it adds is reckoned from nothing. `shaped` names the pieces
/// that are no rectangles, each with its bearing points.
///
/// # Errors
/// A [`Refusal`] for a material that is not on the shelf.
pub(crate) fn laid_together(
    supplies: &Supplies<'_>,
    laid: &Laid<'_>,
    shaped: &[(usize, u32)],
    (parting, bearing_depth): (Parting, Length),
) -> Result<Layer, Refusal> {
    let Laid {
        tiers,
        members,
        pieces,
        arrangement,
    } = *laid;
    let rules = supplies.rules;
    let board = supplies.board("choices.folio_board", &rules.materials.folio_board)?;
    let foam = supplies.foam("choices.pad_foam", &rules.materials.pad_foam)?;
    let allowances = supplies.allowances();
    let largest = |of: fn(&Member) -> Length| members.iter().map(of).max().unwrap_or(Length::ZERO);
    let folded = members.iter().filter(|member| member.folded).count();
    // The pad turns at the top and at the bottom of what lies in its folds.
    let turns = if folded > 0 {
        parting.fold * 2.0
    } else {
        Length::ZERO
    };
    let envelope = Envelope {
        across: largest(|member| member.across),
        up: largest(|member| member.up) + turns,
        through: arrangement.thickness,
    };
    let mut boards: Vec<[Length; 2]> = arrangement
        .pairs
        .iter()
        .filter(|pair| !pair.folded)
        .map(|pair| [pair.across, pair.up])
        .collect();
    let between = boards.len();
    boards.extend(arrangement.boarded_ends(members));
    let mut pads: Vec<[Length; 2]> = arrangement
        .pairs
        .iter()
        .filter(|pair| pair.padded)
        .map(|pair| [pair.across, pair.up])
        .collect();
    pads.extend(arrangement.hard_ends(members));
    let mut needs: Vec<Need<'_>> = boards
        .iter()
        .enumerate()
        .map(|(at, sides)| {
            let name = if at < between {
                PartId::BetweenPieces
            } else {
                PartId::OverSeveral
            };
            Need::board(name, board, Cut::of(*sides))
        })
        .collect();
    needs.extend(
        folds(members, arrangement)
            .into_iter()
            .map(|[length, across]| {
                SheetGoods::Wrap(supplies.cushion_wrap).need(PartId::FoldedPad, [length, across])
            }),
    );
    needs.extend(
        pads.iter()
            .map(|sides| Need::foam(PartId::OverHardware, foam, Cut::of(*sides), parting.pad)),
    );
    let chocks = shaped.iter().map(|&(at, points)| {
        let member = &pieces[at];
        let short = member.across.min(member.up);
        let leg = (short * CHOCK_SHARE).clamped(LEAST_CHOCK, MOST_CHOCK);
        Need::foam(
            PartId::Chock,
            foam,
            Cut::of([leg, member.through]),
            allowances.pad_thickness,
        )
        .times(points)
    });
    needs.extend(chocks);
    // Beside what is smaller, between what lies side by side, and behind the thinner ones.
    let beside: f64 = tiers
        .iter()
        .map(|tier| {
            let room = envelope.face().as_m2() * tier.through.as_m();
            let taken = tier.pieces.iter().map(|on| {
                let piece = &pieces[on.piece];
                (piece.across * piece.up).as_m2() * piece.through.as_m()
            });
            (room - taken.sum::<f64>()).max(0.0)
        })
        .sum();
    let beside = Area::m2(beside) * Length::mm(MM_PER_M);
    if beside.as_m3() * LITRES_PER_M3 >= LEAST_FILL_LITRES {
        needs.push(Need::fill(
            supplies.first.fill,
            beside / allowances.fill_settling,
        ));
    }
    let around = |along: Length| (along + envelope.through) * 2.0 + allowances.tape_tab;
    let bands = [
        (StripId::AroundThemSideToSide, envelope.across),
        (StripId::AroundThemTopToBottom, envelope.up),
    ];
    needs.extend(
        bands.map(|(on, along)| Need::tape(supplies.wrap_tape, on, around(along)).times(BANDS)),
    );
    let count = |many: usize| u32::try_from(many).unwrap_or(u32::MAX);
    let chocks = shaped.iter().map(|(_, points)| points).sum();
    let made = LaidTogether {
        pieces: count(pieces.len()),
        boards: count(boards.len()),
        pads: count(pads.len()),
        chocks,
        folded: count(folded),
        bearing_depth,
    };
    let cut = f64::from(made.boards + made.pads + made.chocks + made.folded);
    let mut layer = supplies.layer(Making {
        slot: LayerSlot::Stack,
        needs,
        adds: Addition::default(),
        inside: envelope,
        minutes: allowances.stack_minutes * f64::from(made.pieces) + allowances.pad_minutes * cut,
        why: "This order protects every face; bound together, the pieces go into the box as one.",
        make: Make::LaidTogether(made),
        cushioning: None,
    });
    layer.envelope = envelope;
    Ok(layer)
}

/// Of each run of pieces that lie in folds next to each other, the pad: its length around and between them, and how wide it is.
fn folds(members: &[Member], arrangement: &Arrangement) -> Vec<[Length; 2]> {
    let mut runs: Vec<Vec<&Member>> = Vec::new();
    for (at, placed) in arrangement.order.iter().enumerate() {
        let member = &members[placed.piece];
        if !member.folded {
            continue;
        }
        let goes_on = at > 0 && arrangement.pairs[at - 1].folded;
        match runs.last_mut() {
            Some(run) if goes_on => run.push(member),
            _ => runs.push(vec![member]),
        }
    }
    runs.into_iter()
        .map(|run| {
            let up = run
                .iter()
                .map(|member| member.up)
                .max()
                .unwrap_or(Length::ZERO);
            let across = run
                .iter()
                .map(|member| member.across)
                .max()
                .unwrap_or(Length::ZERO);
            let sheets = f64::from(u32::try_from(run.len() + 1).unwrap_or(u32::MAX));
            let turns: Length = run.iter().map(|member| member.through).sum();
            [up * sheets + turns, across]
        })
        .collect()
}

const MM_PER_M: f64 = 1e3;
const LITRES_PER_M3: f64 = 1e3;
/// Less than a handful is left out.
const LEAST_FILL_LITRES: f64 = 0.2;

impl Layer {
    /// The same as something sees it that faces the other way.
    pub(crate) fn turned(&self) -> Self {
        let mut turned = self.clone();
        std::mem::swap(&mut turned.adds.front, &mut turned.adds.back);
        turned.pierce = turned.pierce.turned();
        if let Some(cushioning) = &mut turned.cushioning {
            std::mem::swap(&mut cushioning.front, &mut cushioning.back);
            std::mem::swap(&mut cushioning.board_before, &mut cushioning.board_behind);
        }
        turned
    }

    /// The same as something sees it that lies a quarter turn round.
    pub(crate) fn quartered(&self) -> Self {
        let mut turned = self.clone();
        let Addition {
            left,
            right,
            top,
            bottom,
            ..
        } = self.adds;
        turned.adds = Addition {
            left: bottom,
            right: top,
            top: left,
            bottom: right,
            ..self.adds
        };
        std::mem::swap(&mut turned.envelope.across, &mut turned.envelope.up);
        if let Some(cushioning) = &mut turned.cushioning {
            std::mem::swap(&mut cushioning.across, &mut cushioning.up);
        }
        turned
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{arrange::MemberFace, quantity::Mass};

    fn member(across: f64, up: f64, through: f64, folded: bool) -> Member {
        Member {
            across: Length::mm(across),
            up: Length::mm(up),
            through: Length::mm(through),
            mass: Mass::g(1000.0),
            face: MemberFace::Glazed,
            hardware: false,
            stiffness: 3.0,
            folded,
            several: false,
        }
    }

    #[test]
    fn a_pad_goes_around_and_between_what_lies_in_its_folds() {
        // Two frames 300 × 400 × 20 in one pad of 5: 5 + 20 + 5 + 20 + 5 = 55, no board. Three sheets of 400 and twice
        // 20 on the turns: 1240 long, 300 wide.
        let members = [
            member(300.0, 400.0, 20.0, true),
            member(300.0, 400.0, 20.0, true),
        ];
        let parting = Parting {
            board: Length::mm(4.0),
            pad: Length::mm(10.0),
            fold: Length::mm(5.0),
        };
        let arrangement = Arrangement::best(&members, parting).expect("two");
        assert_eq!(arrangement.thickness, Length::mm(55.0));
        assert_eq!(
            folds(&members, &arrangement),
            [[Length::mm(1240.0), Length::mm(300.0)]]
        );
        // A frame of another size has a pad of its own, and a board between: 5 + 20 + 5 + 4 + 5 + 20 + 5 = 64.
        let members = [
            member(300.0, 400.0, 20.0, true),
            member(300.0, 500.0, 20.0, true),
        ];
        let arrangement = Arrangement::best(&members, parting).expect("two");
        assert_eq!(arrangement.thickness, Length::mm(64.0));
        assert_eq!(folds(&members, &arrangement).len(), 2);
    }
}
