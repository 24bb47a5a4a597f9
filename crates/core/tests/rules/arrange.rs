//! Laws of laying several pieces together, against every order and facing written out.

use hummock_core::{
    arrange::{Arrangement, Member, MemberFace, Parting, PlacedPiece, Rule},
    quantity::{Length, Mass},
    sums::{ArrangementPiece, ArrangementSum, Sum as _},
};
use proptest::{prelude::*, sample::select};

fn any_member() -> impl Strategy<Value = Member> {
    (
        // Often of one size, so that folds lie on each other.
        (
            prop_oneof![Just(300_u32), Just(310), 50_u32..=2000],
            prop_oneof![Just(400_u32), 50_u32..=2000],
            2_u32..=120,
        ),
        50_u32..=20_000,
        select(vec![
            MemberFace::Bare,
            MemberFace::Glazed,
            MemberFace::Stiff,
        ]),
        (any::<bool>(), any::<bool>()),
        0_u32..=3,
    )
        .prop_map(
            |((across, up, through), grams, face, (hardware, folded), stiffness)| Member {
                across: Length::mm(f64::from(across)),
                up: Length::mm(f64::from(up)),
                through: Length::mm(f64::from(through)),
                mass: Mass::g(f64::from(grams)),
                face,
                hardware,
                stiffness: f64::from(stiffness),
                folded,
                several: false,
            },
        )
}

fn any_parting() -> impl Strategy<Value = Parting> {
    (0_u32..=10, 0_u32..=20, 0_u32..=20).prop_map(|(board, pad, fold)| Parting {
        board: Length::mm(f64::from(board)),
        pad: Length::mm(f64::from(pad)),
        fold: Length::mm(f64::from(fold)),
    })
}

/// Every order and facing of so many pieces.
fn every(count: usize) -> Vec<Vec<PlacedPiece>> {
    let mut all: Vec<Vec<PlacedPiece>> = vec![Vec::new()];
    for _ in 0..count {
        all = all
            .into_iter()
            .flat_map(|order| {
                (0..count * 2).filter_map(move |way| {
                    let (piece, faces_front) = (way / 2, way % 2 == 1);
                    let known = order.iter().any(|placed| placed.piece == piece);
                    (!known).then(|| {
                        let mut longer = order.clone();
                        longer.push(PlacedPiece { piece, faces_front });
                        longer
                    })
                })
            })
            .collect();
    }
    all
}

/// What an order comes to, from its pieces laid one on the other: rules broken, thickness, moment about the back.
fn laid(members: &[Member], parting: Parting, order: &[PlacedPiece]) -> (usize, f64, f64) {
    #[derive(PartialEq)]
    enum Looks {
        Face,
        Hardware,
        Plain,
    }
    let looks = |placed: &PlacedPiece, front: bool| {
        let member = &members[placed.piece];
        match (placed.faces_front == front, member.face, member.hardware) {
            (true, MemberFace::Stiff, _) | (false, _, false) => Looks::Plain,
            (true, ..) => Looks::Face,
            (false, _, true) => Looks::Hardware,
        }
    };
    let (first, last) = (&order[0], &order[order.len() - 1]);
    let outward = [looks(first, true), looks(last, false)];
    let mut broken = outward.iter().filter(|side| **side == Looks::Face).count();
    let inner = order.iter().skip(1).take(order.len().saturating_sub(2));
    let inner: Vec<&Member> = inner.map(|placed| &members[placed.piece]).collect();
    let ends = if order.len() == 1 {
        vec![first]
    } else {
        vec![first, last]
    };
    for end in ends {
        let end = &members[end.piece];
        let plain = inner.iter().filter(|one| one.face != MemberFace::Glazed);
        broken += if end.face == MemberFace::Glazed {
            usize::from(plain.count() > 0)
        } else {
            usize::from(
                plain
                    .map(|one| one.stiffness)
                    .any(|inside| inside > end.stiffness),
            )
        };
    }
    let pad = parting.pad.as_mm();
    let fold = parting.fold.as_mm();
    let folds = |placed: &PlacedPiece| {
        if members[placed.piece].folded {
            fold
        } else {
            0.0
        }
    };
    let mut height = folds(last);
    if looks(last, false) == Looks::Hardware {
        height += pad;
    }
    let mut moment = 0.0;
    for at in (0..order.len()).rev() {
        let member = &members[order[at].piece];
        let through = member.through.as_mm();
        moment += member.mass.as_g() * (height + through / 2.0);
        height += through;
        if at == 0 {
            continue;
        }
        let (under, over) = (looks(&order[at], true), looks(&order[at - 1], false));
        let [one, other] = [&members[order[at - 1].piece], member];
        let near = |one: Length, other: Length| (one - other).as_mm().abs() <= 20.0;
        let shared =
            one.folded && other.folded && near(one.across, other.across) && near(one.up, other.up);
        height += if shared {
            fold
        } else {
            folds(&order[at - 1]) + parting.board.as_mm() + folds(&order[at])
        };
        if under == Looks::Hardware || over == Looks::Hardware {
            height += pad;
        }
        let faces = (under == Looks::Face && over == Looks::Hardware)
            || (under == Looks::Hardware && over == Looks::Face);
        broken += usize::from(faces);
    }
    height += folds(first);
    if looks(first, true) == Looks::Hardware {
        height += pad;
    }
    (broken, height, moment)
}

/// Tells whether the first is no worse than the second, which may differ by rounding.
fn no_worse(one: (usize, f64, f64), other: (usize, f64, f64)) -> bool {
    if one.0 != other.0 {
        return one.0 < other.0;
    }
    if (one.1 - other.1).abs() > 1e-5 {
        return one.1 < other.1;
    }
    one.2 <= other.2 + 1e-3
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(150))]

    #[test]
    fn no_other_order_breaks_fewer_rules_or_is_thinner_or_lower(
        members in prop::collection::vec(any_member(), 1..=5), parting in any_parting(),
    ) {
        let best = Arrangement::best(&members, parting).expect("one to five");
        let found = laid(&members, parting, &best.order);
        prop_assert_eq!(found.0, best.broken.len());
        prop_assert!((found.1 - best.thickness.as_mm()).abs() < 1e-6);
        let mass: f64 = members.iter().map(|member| member.mass.as_g()).sum();
        prop_assert!((found.2 / mass - best.centre.as_mm()).abs() < 1e-6);
        for order in every(members.len()) {
            prop_assert!(no_worse(found, laid(&members, parting, &order)), "{order:?} is better than {:?}", best.order);
        }
    }

    #[test]
    fn an_order_by_hand_is_never_better_than_the_best_of_up_to_twelve(
        members in prop::collection::vec(any_member(), 6..=9), parting in any_parting(), turns in prop::collection::vec((any::<prop::sample::Index>(), any::<prop::sample::Index>(), any::<bool>()), 1..30),
    ) {
        let best = Arrangement::best(&members, parting).expect("up to twelve");
        let mut pieces: Vec<usize> = best.order.iter().map(|placed| placed.piece).collect();
        pieces.sort_unstable();
        prop_assert!(pieces.into_iter().eq(0..members.len()));
        let found = laid(&members, parting, &best.order);
        // Somebody changes two and turns one, again and again.
        let mut order = best.order.clone();
        for (one, other, turn) in turns {
            let (one, other) = (one.index(order.len()), other.index(order.len()));
            order.swap(one, other);
            order[one].faces_front ^= turn;
            prop_assert!(no_worse(found, laid(&members, parting, &order)));
            let by_hand = Arrangement::of(&members, parting, &order);
            prop_assert_eq!(by_hand.broken.len(), laid(&members, parting, &order).0);
            for (pair, two) in by_hand.pairs.iter().zip(order.windows(2)) {
                let [one, other] = [two[0], two[1]].map(|placed| &members[placed.piece]);
                prop_assert!(pair.across >= one.across && pair.across >= other.across);
                prop_assert!(pair.up >= one.up && pair.up >= other.up);
            }
        }
    }
}

fn piece(
    through_mm: f64,
    mass_g: f64,
    face: MemberFace,
    hardware: bool,
    stiffness: f64,
) -> ArrangementPiece {
    ArrangementPiece {
        across_mm: 500.0,
        up_mm: 700.0,
        through_mm,
        mass_g,
        face,
        hardware,
        stiffness: Some(stiffness),
        folded: false,
    }
}

#[test]
fn glass_goes_between_two_canvases_whose_faces_look_inward() {
    // Canvases 40 deep, 2 and 3 kg, and a picture under glass 25 deep with wire on its back: the glass in the middle. Its
    // wire may look at no face, and both canvases turn theirs inward: one of the three has to give. A canvas turned face out
    // breaks one rule as well, but then no pad is saved; so does glass outside. Least is one.
    let sum = ArrangementSum {
        pieces: vec![
            piece(40.0, 2000.0, MemberFace::Bare, false, 1.0),
            piece(25.0, 2500.0, MemberFace::Glazed, true, 3.0),
            piece(40.0, 3000.0, MemberFace::Bare, false, 1.0),
        ],
        board_mm: Some(4.0),
        pad_mm: Some(10.0),
        fold_mm: None,
        order: None,
    };
    let found = sum.work().expect("three pieces");
    assert_eq!(found.broken.len(), 1);
    // 40 + 4 + 25 + 4 + 40 = 113, and 10 over the wire.
    assert!((found.thickness_mm - 123.0).abs() < 1e-9);
    // Two framed ones under glass, wire behind: back to back they share one pad, 2 × 25 + 4 + 10 = 64, but then glass looks
    // out of both ends; face to face each end has a pad, 2 × 25 + 4 + 2 × 10 = 74, and no rule is broken.
    let two = ArrangementSum {
        pieces: vec![
            piece(25.0, 2500.0, MemberFace::Glazed, true, 3.0),
            piece(25.0, 2000.0, MemberFace::Glazed, true, 3.0),
        ],
        ..sum.clone()
    };
    let found = two.work().expect("two pieces");
    assert!(found.broken.is_empty());
    assert!((found.thickness_mm - 74.0).abs() < 1e-9);
    // The heavier lies at the back, which rests below: (2500 · 22.5 + 2000 · 51.5) / 4500 = 35.39.
    assert_eq!(found.order[1].piece, 0);
    assert!((found.centre_mm - 35.388_889).abs() < 1e-6);
}

#[test]
fn an_order_by_hand_is_told_what_it_breaks_and_a_wrong_one_is_refused() {
    let pieces = vec![
        piece(40.0, 2000.0, MemberFace::Bare, false, 1.0),
        piece(40.0, 3000.0, MemberFace::Bare, false, 1.0),
    ];
    let placed = |piece, faces_front| PlacedPiece { piece, faces_front };
    let sum = |order| ArrangementSum {
        pieces: pieces.clone(),
        board_mm: None,
        pad_mm: None,
        fold_mm: None,
        order: Some(order),
    };
    let out = sum(vec![placed(0, true), placed(1, false)])
        .work()
        .expect("an order");
    let rules: Vec<Rule> = out.broken.iter().map(|broken| broken.rule).collect();
    assert_eq!(rules, [Rule::FaceInward, Rule::FaceInward]);
    let inward = sum(vec![placed(0, false), placed(1, true)])
        .work()
        .expect("an order");
    assert!(inward.broken.is_empty());
    for order in [
        vec![placed(0, true)],
        vec![placed(0, true), placed(0, true)],
        vec![placed(0, true), placed(2, true)],
    ] {
        let refused = sum(order).work().expect_err("not every piece once");
        assert_eq!(refused[0].field, "order");
    }
    let none = ArrangementSum {
        pieces: Vec::new(),
        board_mm: Some(-1.0),
        pad_mm: None,
        fold_mm: None,
        order: None,
    };
    let fields: Vec<String> = none
        .work()
        .expect_err("nothing")
        .into_iter()
        .map(|refused| refused.field)
        .collect();
    assert_eq!(fields, ["board_mm", "pieces"]);
}
