//! Laws of laying pieces side by side on boards, against every way of doing so written out.

use hummock_core::{
    arrange::{Flat, Keeping, Layings, Tiers},
    quantity::Length,
    space::Envelope,
};
use proptest::prelude::*;

const KEEPING: Keeping = Keeping {
    gap: Length::mm(20.0),
    depths_within: Length::mm(15.0),
    board: Length::mm(4.0),
};

fn any_flat() -> impl Strategy<Value = Flat> {
    (100_u32..=1000, 100_u32..=1000, 20_u32..=60, any::<bool>()).prop_map(
        |(across, up, through, may_turn)| Flat {
            across: Length::mm(f64::from(across)),
            up: Length::mm(f64::from(up)),
            through: Length::mm(f64::from(through)),
            may_turn,
        },
    )
}

/// A price that never falls as a side grows: by volume and by surface, with a step for what is long.
#[derive(Debug, Clone, Copy)]
struct Price {
    a_volume: f64,
    a_surface: f64,
    long: f64,
    more: f64,
}

impl Price {
    fn of(self, envelope: Envelope) -> f64 {
        let [across, up, through] =
            [envelope.across, envelope.up, envelope.through].map(Length::as_mm);
        let long = across.max(up).max(through) > self.long;
        self.a_volume * envelope.volume().as_m3()
            + self.a_surface * envelope.surface().as_m2()
            + if long { self.more } else { 0.0 }
    }
}

fn any_price() -> impl Strategy<Value = Price> {
    (0.0..50.0, 0.0..20.0, 300.0..2500.0, 0.0..30.0).prop_map(
        |(a_volume, a_surface, long, more)| Price {
            a_volume,
            a_surface,
            long,
            more,
        },
    )
}

fn flat(across: f64, up: f64, through: f64) -> Flat {
    Flat {
        across: Length::mm(across),
        up: Length::mm(up),
        through: Length::mm(through),
        may_turn: true,
    }
}

fn cheapest(flats: &[Flat], keeping: Keeping, price: &dyn Fn(Envelope) -> f64) -> Tiers {
    let layings = Layings::of(flats, keeping).expect("twelve at most");
    layings.cheapest(price).expect("some way").clone()
}

/// Every outline of a group, by every cut in two, upright and level.
fn outlines(flats: &[Flat]) -> Vec<[f64; 2]> {
    if let [one] = flats {
        let (across, up) = (one.across.as_mm(), one.up.as_mm());
        return if one.may_turn {
            vec![[across, up], [up, across]]
        } else {
            vec![[across, up]]
        };
    }
    let mut all = Vec::new();
    // The first piece is always in the one part.
    for bits in 0..(1_u32 << (flats.len() - 1)) - 1 {
        let in_one = |at: usize| at == 0 || bits & (1 << (at - 1)) != 0;
        let part = |wanted: bool| -> Vec<Flat> {
            let of = flats.iter().enumerate();
            of.filter(|(at, _)| in_one(*at) == wanted)
                .map(|(_, flat)| *flat)
                .collect()
        };
        for [one_across, one_up] in outlines(&part(true)) {
            for [across, up] in outlines(&part(false)) {
                all.push([one_across + 20.0 + across, one_up.max(up)]);
                all.push([one_across.max(across), one_up + 20.0 + up]);
            }
        }
    }
    all
}

/// Every way of parting so many pieces into groups.
fn partings(count: usize) -> Vec<Vec<Vec<usize>>> {
    let mut all: Vec<Vec<Vec<usize>>> = vec![Vec::new()];
    for piece in 0..count {
        all = all
            .into_iter()
            .flat_map(|groups| {
                let joined = (0..groups.len()).map({
                    let groups = groups.clone();
                    move |at| {
                        let mut joined = groups.clone();
                        joined[at].push(piece);
                        joined
                    }
                });
                let mut alone = groups.clone();
                alone.push(vec![piece]);
                joined.chain([alone]).collect::<Vec<_>>()
            })
            .collect();
    }
    all
}

/// The least price of all ways.
fn by_force(flats: &[Flat], price: &dyn Fn(Envelope) -> f64) -> f64 {
    let mut best = f64::INFINITY;
    for groups in partings(flats.len()) {
        let of = |group: &Vec<usize>| -> Vec<Flat> { group.iter().map(|at| flats[*at]).collect() };
        let depths = |group: &Vec<usize>| {
            let depths = of(group).into_iter().map(|flat| flat.through.as_mm());
            depths.fold([f64::INFINITY, 0.0], |[least, most]: [f64; 2], depth| {
                [least.min(depth), most.max(depth)]
            })
        };
        if groups
            .iter()
            .map(depths)
            .any(|[least, most]| most - least > 15.0)
        {
            continue;
        }
        let boards = f64::from(u32::try_from(groups.len() - 1).expect("a few")) * 4.0;
        let through: f64 = groups.iter().map(|group| depths(group)[1]).sum::<f64>() + boards;
        // The footprints that the groups so far need, each once.
        let mut footprints: Vec<[f64; 2]> = vec![[0.0, 0.0]];
        for group in &groups {
            let outlines = outlines(&of(group));
            let mut wider: Vec<[f64; 2]> = footprints
                .iter()
                .flat_map(|[across, up]| {
                    let grown = outlines.iter();
                    grown.map(move |[one, other]| [across.max(*one), up.max(*other)])
                })
                .collect();
            wider.sort_by(|one, other| {
                one[0]
                    .total_cmp(&other[0])
                    .then(one[1].total_cmp(&other[1]))
            });
            wider.dedup();
            footprints = wider;
        }
        for [across, up] in footprints {
            best = best.min(price(Envelope {
                across: Length::mm(across),
                up: Length::mm(up),
                through: Length::mm(through),
            }));
        }
    }
    best
}

/// Every piece once, each within its tier, and none on another.
fn lie_apart(tiers: &Tiers, flats: &[Flat]) -> Result<(), TestCaseError> {
    let mut named: Vec<usize> = Vec::new();
    for tier in &tiers.tiers {
        prop_assert!(tiers.envelope.across >= tier.across && tiers.envelope.up >= tier.up);
        let sides: Vec<[f64; 4]> = tier
            .pieces
            .iter()
            .map(|on| {
                let flat = flats[on.piece];
                let (across, up) = (flat.across.as_mm(), flat.up.as_mm());
                let (across, up) = if on.turned {
                    (up, across)
                } else {
                    (across, up)
                };
                let (left, below) = (on.left.as_mm(), on.below.as_mm());
                [left, below, left + across, below + up]
            })
            .collect();
        for (at, one) in sides.iter().enumerate() {
            prop_assert!(one[0] >= 0.0 && one[1] >= 0.0);
            prop_assert!(one[2] <= tier.across.as_mm() + 1e-6 && one[3] <= tier.up.as_mm() + 1e-6);
            for other in &sides[..at] {
                let gap = (one[0] - other[2])
                    .max(other[0] - one[2])
                    .max(one[1] - other[3])
                    .max(other[1] - one[3]);
                prop_assert!(gap >= 20.0 - 1e-6, "{:?}", tier);
            }
        }
        named.extend(tier.pieces.iter().map(|on| on.piece));
        let turned = tier.pieces.iter().find(|on| on.turned);
        prop_assert!(turned.is_none_or(|on| flats[on.piece].may_turn));
    }
    named.sort_unstable();
    prop_assert!(named.into_iter().eq(0..flats.len()));
    Ok(())
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    #[test]
    fn up_to_five_pieces_lie_as_cheaply_as_they_can(
        flats in prop::collection::vec(any_flat(), 1..=5), price in any_price(),
    ) {
        let price = |envelope: Envelope| price.of(envelope);
        let found = cheapest(&flats, KEEPING, &price);
        lie_apart(&found, &flats)?;
        let least = by_force(&flats, &price);
        prop_assert!((price(found.envelope) - least).abs() < 1e-6, "{} for {least}", price(found.envelope));
    }

    #[test]
    fn many_pieces_lie_apart_and_never_dearer_than_one_above_the_other(
        flats in prop::collection::vec(any_flat(), 6..=12), price in any_price(),
    ) {
        let price = |envelope: Envelope| price.of(envelope);
        let found = cheapest(&flats, KEEPING, &price);
        lie_apart(&found, &flats)?;
        let tower = Tiers::tower(&flats, KEEPING).expect("twelve at most");
        prop_assert!(price(found.envelope) <= price(tower.envelope) + 1e-6);
        for tier in &found.tiers {
            let depths = tier.pieces.iter().map(|on| flats[on.piece].through);
            let unlike = depths.clone().max().zip(depths.min()).map(|(most, least)| most - least);
            prop_assert!(unlike <= Some(Length::mm(15.0)), "{:?}", tier);
        }
    }
}

#[test]
fn five_small_canvases_lie_beside_each_other_on_one_board() {
    // 600 × 800 and five of 200 × 300, all 90 through. Two upright one above the other (620 up), beside them three turned (3 × 200 + 2 × 20
    // = 640 up), 200 + 20 + 300 = 520 across: within 600 × 800. Two tiers and a board: 90 + 4 + 90 = 184, not 6 × 90 + 5 × 4 = 560.
    let small = [flat(200.0, 300.0, 90.0); 5];
    let flats: Vec<Flat> = [flat(600.0, 800.0, 90.0)]
        .into_iter()
        .chain(small)
        .collect();
    // All six on one board take less room, and are longer than the service likes.
    let price = Price {
        a_volume: 1.0,
        a_surface: 0.0,
        long: 800.0,
        more: 1.0,
    };
    let found = cheapest(&flats, KEEPING, &|envelope| price.of(envelope));
    assert_eq!(found.tiers.len(), 2);
    let envelope = found.envelope;
    assert_eq!(
        [envelope.across, envelope.up, envelope.through],
        [600.0, 800.0, 184.0].map(Length::mm)
    );
    let tower = Tiers::tower(&flats, KEEPING).expect("six").envelope;
    assert_eq!(tower.through, Length::mm(560.0));
}

#[test]
fn eight_small_canvases_lie_on_two_boards_the_size_of_the_large_one() {
    // 640 × 840 through 60, and eight of about 240 × 340 through 40, a board of 7 between tiers. None of the small may lie beside the large
    // one (60 − 40 > 15). With a gap of 20 on two sides they take 762 800 mm², a board of 640 × 840 takes 660 × 860 = 567 600: two boards.
    // 60 + 7 + 40 + 7 + 40 = 154 through, where one above the other is 60 + 8 × 47 = 436.
    let small = [
        [240.0, 340.0],
        [260.0, 340.0],
        [240.0, 360.0],
        [250.0, 320.0],
        [230.0, 340.0],
        [270.0, 300.0],
        [280.0, 350.0],
        [220.0, 330.0],
    ];
    let large = Flat {
        may_turn: false,
        ..flat(640.0, 840.0, 60.0)
    };
    let flats: Vec<Flat> = std::iter::once(large)
        .chain(small.map(|[across, up]| flat(across, up, 40.0)))
        .collect();
    let keeping = Keeping {
        board: Length::mm(7.0),
        ..KEEPING
    };
    let volume = |envelope: Envelope| envelope.volume().as_m3();
    let found = cheapest(&flats, keeping, &volume);
    let mut counts: Vec<usize> = found.tiers.iter().map(|tier| tier.pieces.len()).collect();
    counts.sort_unstable();
    assert_eq!(counts, [1, 3, 5]);
    let envelope = found.envelope;
    assert_eq!(
        [envelope.across, envelope.up, envelope.through],
        [640.0, 840.0, 154.0].map(Length::mm)
    );
    let tower = Tiers::tower(&flats, keeping).expect("nine").envelope;
    assert_eq!(tower.through, Length::mm(436.0));
}

#[test]
fn what_is_laid_by_hand_lies_so_whatever_its_depth_and_each_piece_once() {
    let flats = [flat(300.0, 400.0, 30.0), flat(300.0, 400.0, 60.0)];
    let beside = Tiers::by_hand(&flats, KEEPING, &[vec![0, 1]]).expect("each once");
    // 400 + 20 + 400 = 820 × 300 or 300 + 20 + 300 = 620 × 400: 0.246 and 0.248 m².
    assert_eq!(beside.envelope.face().as_m2(), 0.246);
    assert_eq!(beside.envelope.through, Length::mm(60.0));
    for named in [
        vec![vec![0]],
        vec![vec![0], vec![0, 1]],
        vec![vec![0, 1], vec![]],
    ] {
        assert!(Tiers::by_hand(&flats, KEEPING, &named).is_none());
    }
}
