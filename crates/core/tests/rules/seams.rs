//! Laws at the seams of the odds: a hundredth more of a side, a mass or a pane moves them by a twentieth at most; a frailer piece, or one
//! piece more, never reads safer.

use hummock_core::{
    house::HouseRules,
    layer::{Layer, Make},
    odds::Hazard,
    piece::{Construction, Medium, Piece, PieceSize},
    plan::{Plan, References, Together},
    quantity::{Length, Mass, Shock},
    space::LayerSlot,
};
use proptest::prelude::*;

use crate::{
    odds::as_usual,
    studio::{any_choices, any_piece, catalogue, refused, rules},
    together::among,
};

/// What differs by a hundredth.
#[derive(Debug, Clone, Copy)]
enum Grown {
    Width,
    Height,
    Mass,
}

/// A hundredth past which something changes: sides at which a base or a height bends, panes at which a class begins, masses.
const SIDES: [f64; 4] = [1000.0, 1200.0, 1250.0, 1600.0];
const PANES: [f64; 7] = [0.08, 0.13, 0.3, 0.5, 0.6, 0.7, 0.9];
const MASSES: [f64; 5] = [5.0, 7.5, 14.0, 24.0, 36.0];
/// A moulding covers so much of a pane on both sides together.
const MOULDINGS: f64 = 40.0;

/// A piece that lies just on one side of a bound, or anywhere.
fn any_at_a_seam() -> impl Strategy<Value = Piece> {
    let near = 0.985..1.005_f64;
    let at = (
        prop::sample::select(SIDES.to_vec()),
        prop::sample::select(PANES.to_vec()),
        prop::option::of(prop::sample::select(MASSES.to_vec())),
        0.3..1.0_f64,
        near,
    );
    prop_oneof![
        1 => any_piece(),
        3 => (any_piece(), at).prop_map(|(piece, (side, pane, mass, share, near))| {
            let glass = matches!(
                piece.construction,
                Construction::FramedUnderGlass | Construction::Mirror
            );
            let (width, height) = if glass {
                let area = pane * near * 1e6;
                let long = (area / share).sqrt();
                let more = if piece.construction == Construction::Mirror { 0.0 } else { MOULDINGS };
                (area / long + more, long + more)
            } else {
                (side * near * share, side * near)
            };
            Piece {
                size: PieceSize {
                    width: Length::mm(width),
                    height: Length::mm(height),
                    depth: piece.size.depth.min(Length::mm(60.0)),
                },
                weighed: mass.map(|mass| Mass::kg(mass * near)),
                count: 1,
                ..piece
            }
        }),
    ]
}

fn grown(piece: &Piece, by: Grown) -> Piece {
    let more = |length: Length| length * 1.01;
    let size = piece.size;
    match by {
        Grown::Width => Piece {
            size: PieceSize {
                width: more(size.width),
                ..size
            },
            ..piece.clone()
        },
        Grown::Height => Piece {
            size: PieceSize {
                height: more(size.height),
                ..size
            },
            ..piece.clone()
        },
        Grown::Mass => Piece {
            weighed: piece.weighed.map(|mass| mass * 1.01),
            ..piece.clone()
        },
    }
}

/// Tells whether two layers are the same thing, as thick and as often.
fn is_same(one: &Layer, other: &Layer) -> bool {
    let near = |one: Length, other: Length| (one - other).as_mm().abs() < 0.6;
    let made = match (&one.make, &other.make) {
        (Make::Wrap(one), Make::Wrap(other)) => one.turns == other.turns,
        (Make::FacePads(one), Make::FacePads(other)) => one.pads == other.pads,
        (Make::FaceBoards(one), Make::FaceBoards(other)) => one.behind == other.behind,
        (one, other) => {
            let style = |make: &Make| {
                make.carton()
                    .map(|carton| (carton.style, carton.doubled, carton.seal.len()))
            };
            one.kind() == other.kind() && style(one) == style(other)
        }
    };
    made && one.slot == other.slot
        && one.material == other.material
        && near(one.adds.front, other.adds.front)
        && near(one.adds.back, other.adds.back)
        && near(one.adds.left, other.adds.left)
        && near(one.adds.top, other.adds.top)
}

fn are_same(one: &[&Layer], other: &[&Layer]) -> bool {
    one.len() == other.len()
        && one
            .iter()
            .zip(other)
            .all(|(one, other)| is_same(one, other))
}

/// Tells whether two plans are made of the same things.
fn packs_alike(one: &Plan, other: &Plan) -> bool {
    fn layers(plan: &Plan) -> Vec<&Layer> {
        plan.layers.iter().collect()
    }
    one.carriage == other.carriage && are_same(&layers(one), &layers(other))
}

fn planned(piece: &Piece, rules: &HouseRules, references: &References) -> Option<Plan> {
    Plan::judged(piece, rules, &catalogue(), references).ok()
}

/// How often it arrives damaged, before it is made a probability.
fn intensity(plan: &Plan) -> f64 {
    -(-plan.odds.probability).ln_1p()
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(96))]

    #[test]
    fn a_hundredth_more_moves_the_odds_by_a_twentieth_at_most(
        piece in any_at_a_seam(), choices in any_choices(),
        by in prop::sample::select(vec![Grown::Width, Grown::Height, Grown::Mass]),
    ) {
        let rules_of = rules().with(&choices).expect("choices in range");
        let references = References::default();
        let more = grown(&piece, by);
        let plans = |rules: &HouseRules, one: &Piece, other: &Piece| {
            planned(one, rules, &references).zip(planned(other, rules, &references))
        };
        let Some((now, then)) = plans(&rules_of, &piece, &more) else { return refused() };
        // What it is compared with is made of the same things, too.
        let usual = [&piece, &more].map(|piece| as_usual(piece.clone()));
        let Some((standard, other)) = plans(&rules(), &usual[0], &usual[1]) else { return refused() };
        if !packs_alike(&now, &then) || !packs_alike(&standard, &other) { return refused() }
        let jump = (intensity(&then) / intensity(&now)).ln().abs();
        prop_assert!(jump <= 1.05_f64.ln(), "{} to {}: {:?} {:?}", now.odds.probability, then.odds.probability, now.odds, then.odds);
    }

    #[test]
    fn a_frailer_piece_never_reads_safer(
        piece in any_piece(), choices in any_choices(), limit in 2.0..200.0_f64, share in 0.05..1.0_f64,
    ) {
        let rules = rules().with(&choices).expect("choices in range");
        let references = References::default();
        let of = |limit: f64| {
            let piece = Piece { limit: Some(Shock::times_gravity(limit)), ..piece.clone() };
            planned(&piece, &rules, &references)
        };
        let Some((sturdy, frail)) = of(limit).zip(of(limit * share)) else { return refused() };
        prop_assert!(frail.odds.probability >= sturdy.odds.probability * (1.0 - 1e-9));
    }

    #[test]
    fn one_more_of_a_set_never_reads_safer(
        piece in any_piece(), choices in any_choices(), count in 1_u32..12,
    ) {
        let rules = rules().with(&choices).expect("choices in range");
        let references = References::default();
        let of = |count: u32| planned(&Piece { count, ..piece.clone() }, &rules, &references);
        let Some((fewer, more)) = of(count).zip(of(count + 1)) else { return refused() };
        // Another box, or something thicker around more, is another plan.
        let outer = |plan: &Plan| -> Vec<Layer> {
            let layers = plan.layers.iter().filter(|layer| layer.slot != LayerSlot::Bundle);
            layers.cloned().collect()
        };
        let (few, many) = (outer(&fewer), outer(&more));
        let alike = are_same(&few.iter().collect::<Vec<_>>(), &many.iter().collect::<Vec<_>>());
        if fewer.carriage != more.carriage || !alike { return refused() }
        prop_assert!(
            more.odds.probability >= fewer.odds.probability * (1.0 - 1e-9),
            "{count}: {:?} {:?}", fewer.odds, more.odds
        );
    }

    #[test]
    fn a_parcel_is_never_safer_than_any_piece_in_it(
        pieces in prop::collection::vec(any_piece(), 2..=4), laid in crate::studio::any_laid(4), folded in any::<bool>(),
    ) {
        let rules = rules();
        let together: Together = among(&pieces, &rules, folded, laid);
        let Ok(plan) = Plan::together(&together, &rules, &catalogue(), &References::default()) else {
            return refused();
        };
        let stack = plan.stack.as_ref().expect("several pieces");
        for piece in &stack.pieces {
            prop_assert!(plan.odds.probability >= piece.probability * (1.0 - 1e-9), "{:?}", plan.odds);
        }
        prop_assert_eq!(plan.odds.pieces, pieces.iter().map(|piece| piece.count.max(1)).sum::<u32>());
        prop_assert!(plan.odds.pieces_times >= 1.0 - 1e-12);
    }
}

/// Blocks of 40 mm beside a stack of canvases of 25 mm bear on 40 × 2 × 25 mm² for each canvas, however many lie on one another: with
/// another canvas its edges are as dangerous as before. (With the area of the whole stack for each, three read as safer than two.)
#[test]
fn a_block_beside_a_set_counts_once() {
    let edges = |count: u32| {
        let size = [600.0, 800.0, 25.0];
        let canvas = crate::studio::piece(Construction::StretchedCanvas, size, Medium::Oil);
        let piece = Piece { count, ..canvas };
        let mut rules = rules();
        rules.layers.insert(LayerSlot::CornerBlocks, true);
        let plan = planned(&piece, &rules, &References::default()).expect("a plan");
        assert!(
            plan.layers
                .iter()
                .any(|layer| layer.slot == LayerSlot::CornerBlocks)
        );
        let hazard = plan
            .odds
            .hazards
            .iter()
            .find(|hazard| hazard.kind == Hazard::Edges);
        hazard.and_then(|hazard| hazard.measure).expect("measured")
    };
    assert!((edges(3) / edges(2) - 1.0).abs() < 1e-9);
}
