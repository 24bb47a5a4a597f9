//! Laws that the odds keep, over pieces of every kind, choices, and catalogues that are not ours.

use crate::studio::{any_catalogue, any_choices, any_piece, catalogue, refused, rules};
use hummock_core::{
    house::{CartonStyle, Choices, HouseRules},
    odds::Hazard,
    piece::{Construction, FrameFinish, Pane, Piece},
    place::Route,
    plan::{Plan, References, Standing, standing},
    quantity::{Area, Length, Sum},
    space::LayerSlot,
};
use proptest::{prelude::*, test_runner::FileFailurePersistence};

fn kept() -> ProptestConfig {
    ProptestConfig {
        failure_persistence: Some(Box::new(FileFailurePersistence::Direct(
            "tests/rules/odds.regressions",
        ))),
        ..ProptestConfig::default()
    }
}

/// More of something: a layer, a turn, or a thickness.
#[derive(Debug, Clone, Copy)]
enum More {
    Layer(LayerSlot),
    FirstTurn,
    SecondTurn,
    BackBoard,
    EverySeam,
    Clearance,
    DepthClearance,
    SecondGap,
    PadThickness,
    EdgePadThickness,
}

fn any_more() -> impl Strategy<Value = More> {
    use LayerSlot as Slot;
    let layers = [
        Slot::Corners,
        Slot::Cradle,
        Slot::FaceBoards,
        Slot::Bag,
        Slot::FirstWrap,
        Slot::SecondWrap,
        Slot::FacePads,
        Slot::EdgePads,
        Slot::CornerBlocks,
        Slot::OuterBoards,
        Slot::Fill,
        Slot::SecondBox,
        Slot::WindowSpacer,
        Slot::BackFill,
    ];
    let mut more: Vec<More> = layers.into_iter().map(More::Layer).collect();
    more.extend([
        More::FirstTurn,
        More::SecondTurn,
        More::BackBoard,
        More::EverySeam,
        More::Clearance,
        More::DepthClearance,
        More::SecondGap,
        More::PadThickness,
        More::EdgePadThickness,
    ]);
    prop::sample::select(more)
}

/// Rules with less and with more of it; `None` if the piece takes no such layer.
fn less_and_more(
    piece: &Piece,
    rules: &HouseRules,
    plan: &Plan,
    more: More,
) -> Option<[HouseRules; 2]> {
    let (mut without, mut with) = (rules.clone(), rules.clone());
    let longer = |length: Length| length + Length::mm(7.0);
    match more {
        More::Layer(slot) => {
            if !matches!(
                standing(slot, piece, plan.carriage, rules),
                Standing::On | Standing::Off
            ) {
                return None;
            }
            without.layers.insert(slot, false);
            with.layers.insert(slot, true);
        }
        More::FirstTurn => {
            with.allowances.first_turns += 1;
            with.allowances.roll_turns += 1;
            without.shipment.turns_asked = true;
            with.shipment.turns_asked = true;
        }
        More::SecondTurn => with.allowances.second_turns += 1,
        More::BackBoard => {
            without.schools.back_board = hummock_core::house::BackBoard::Never;
            with.schools.back_board = hummock_core::house::BackBoard::Always;
        }
        More::EverySeam => with.schools.seal = hummock_core::house::SealRule::EverySeam,
        More::Clearance => with.allowances.clearance = longer(rules.allowances.clearance),
        More::DepthClearance => {
            // One more padding sheet takes the place of fill: that is something else, not more.
            for rules in [&mut without, &mut with] {
                rules.layers.insert(LayerSlot::PaddingSheets, false);
            }
            with.allowances.depth_clearance = longer(rules.allowances.depth_clearance);
        }
        More::SecondGap => with.allowances.second_gap = longer(rules.allowances.second_gap),
        More::PadThickness => {
            with.allowances.pad_thickness = longer(rules.allowances.pad_thickness)
        }
        More::EdgePadThickness => {
            with.allowances.edge_pad_thickness = longer(rules.allowances.edge_pad_thickness);
        }
    }
    Some([without, with])
}

/// The same in a box that is cut to what goes in: in one that is there already, more around the piece leaves less fill.
fn cut_to_fit(choices: Choices) -> Choices {
    Choices {
        bought_box: None,
        saved_length: None,
        saved_width: None,
        saved_height: None,
        second_saved_length: None,
        second_saved_width: None,
        second_saved_height: None,
        ..choices
    }
}

/// A ratio that dust may leave.
const DUST: f64 = 1e-9;

fn hazard(plan: &Plan, kind: Hazard) -> Option<f64> {
    let found = plan
        .odds
        .hazards
        .iter()
        .find(|hazard| hazard.kind == kind)?;
    found.measure.or(found.ratio)
}

/// How its box is made, the inner one of two.
fn styles(plan: &Plan) -> Option<CartonStyle> {
    let cartons = plan.layers.iter().filter_map(|layer| layer.make.carton());
    cartons.map(|carton| carton.style).next()
}

fn is_folded(plan: &Plan) -> bool {
    plan.layers.iter().any(
        |layer| matches!(&layer.make, hummock_core::layer::Make::Tube(tube) if tube.triangular),
    )
}

/// One piece as its kind usually is, which a plan is compared with.
pub(crate) fn as_usual(piece: Piece) -> Piece {
    let construction = match piece.construction {
        Construction::PanelSet => Construction::CradledPanel,
        construction => construction,
    };
    Piece {
        construction,
        pane: Pane::Two,
        limit: None,
        frame: FrameFinish::default(),
        count: 1,
        ..piece
    }
}

proptest! {
    #![proptest_config(kept())]

    #[test]
    fn more_never_makes_a_hazard_worse_and_less_never_makes_one_better(
        piece in any_piece(), choices in any_choices(), shelf in any_catalogue(), more in any_more(),
    ) {
        let rules = rules().with(&cut_to_fit(choices)).expect("choices in range");
        let references = References::default();
        let plan = |rules: &HouseRules| Plan::judged(&piece, rules, &shelf, &references);
        // What the job forbids was not chosen by anybody.
        let Ok(now) = plan(&rules) else { return refused() };
        let Some([without, with]) = less_and_more(&piece, &rules, &now, more) else { return refused() };
        // A board that is chosen for a layer may not do for it.
        let (Ok(less), Ok(more)) = (plan(&without), plan(&with)) else { return refused() };
        // A roll that no tube on the shelf takes goes into one folded from board, which is another thing.
        if is_folded(&less) != is_folded(&more) { return refused() }
        // So does a box that no sheet takes as it is usually made.
        if styles(&less) != styles(&more) { return refused() }
        // What is heavier may be carried by another board, or by two boxes.
        let carried = |plan: &Plan| Some(plan.strength.as_ref()?.by.as_ref()?.clone());
        if carried(&less) != carried(&more) { return refused() }
        // Bars beside a piece leave room for four pads where one lay over all of it.
        let pads = |plan: &Plan| {
            plan.layers.iter().find_map(|layer| match &layer.make {
                hummock_core::layer::Make::FacePads(pads) => Some(pads.pads),
                _ => None,
            })
        };
        if pads(&less).zip(pads(&more)).is_some_and(|(less, more)| less != more) { return refused() }
        for kind in Hazard::ALL {
            if let (Some(less), Some(more)) = (hazard(&less, kind), hazard(&more, kind)) {
                prop_assert!(more <= less * (1.0 + DUST), "{kind:?}: {less} became {more}");
            }
        }
        prop_assert!(more.odds.probability <= less.odds.probability * (1.0 + DUST));
    }

    #[test]
    fn the_reference_compares_with_itself_as_one(piece in any_piece()) {
        let rules = rules();
        let piece = as_usual(piece);
        let plan = Plan::design(&piece, &rules, &catalogue()).expect("every valid piece has a plan");
        // What carries a heavy or large parcel is more than Standard.
        if plan.strength.is_some() { return refused() }
        prop_assert!((plan.odds.factor - 1.0).abs() < DUST, "{:?}", plan.odds);
        let glass = plan.odds.class.is_glass();
        let size = if glass { piece.pane_area().as_m2() } else { piece.size.long_side().as_mm() };
        let frail = plan.odds.base_percent / rules.odds.base(plan.odds.class, size);
        prop_assert!(frail >= 1.0 && frail <= 1.5_f64.powi(3) + DUST);
    }

    #[test]
    fn a_rougher_way_is_never_likelier_to_arrive_whole(piece in any_piece(), choices in any_choices()) {
        let rules = rules().with(&choices).expect("choices in range");
        let on = |route: Route| {
            let mut rules = rules.clone();
            rules.shipment.way = Some(rules.odds.played(route, false));
            // A mailer is not taken overseas: the way is compared, not the parcel.
            rules.allowances.mailer_value = Sum::new(-1.0);
            Plan::design(&Piece { value: Some(1.0), ..piece.clone() }, &rules, &catalogue())
                .ok()
                .map(|plan| plan.odds.probability)
        };
        let ways: Vec<f64> = Route::ALL.iter().filter_map(|&route| on(route)).collect();
        prop_assert!(ways.windows(2).all(|pair| pair[0] < pair[1]), "{ways:?}");
    }

    #[test]
    fn odds_are_probabilities_whatever_is_left_out(piece in any_piece(), choices in any_choices()) {
        let mut rules = rules().with(&choices).expect("choices in range");
        for slot in LayerSlot::ALL {
            rules.layers.insert(slot, false);
        }
        if let Ok(plan) = Plan::design(&piece, &rules, &catalogue()) {
            let odds = &plan.odds;
            for chance in [odds.probability, odds.low, odds.high, odds.lost] {
                prop_assert!((0.0..=1.0).contains(&chance), "{odds:?}");
            }
            prop_assert!(odds.low <= odds.probability && odds.probability <= odds.high);
            prop_assert!((0.25..=12.0).contains(&odds.factor), "{odds:?}");
            for hazard in &odds.hazards {
                prop_assert!(hazard.ratio.is_none_or(|ratio| (0.25..=12.0).contains(&ratio)));
                prop_assert!(hazard.measure.is_none_or(f64::is_finite));
            }
        }
    }

    #[test]
    fn pads_and_blocks_lie_on_the_piece_and_apart(piece in any_piece(), choices in any_choices()) {
        let rules = rules().with(&choices).expect("choices in range");
        let Ok(plan) = Plan::design(&piece, &rules, &catalogue()) else { return refused() };
        for (at, layer) in plan.layers.iter().enumerate() {
            // Like pieces are as large as their bundle, what is held off its boards as what holds it.
            let around = plan.layers[..at].iter().rev().find(|inner| inner.holds_several() || inner.holds_off());
            let (across, up) = around.map_or((piece.size.width, piece.size.height), |inner| {
                (inner.envelope.across, inner.envelope.up)
            });
            match &layer.make {
                hummock_core::layer::Make::FacePads(pads) if pads.pads == 4 => {
                    prop_assert!(pads.width.as_mm() * 2.0 < across.as_mm());
                    prop_assert!(pads.height.as_mm() * 2.0 < up.as_mm());
                    prop_assert!(pads.side_area <= Area::m2((across * up).as_m2()));
                }
                hummock_core::layer::Make::CornerBlocks(blocks) => {
                    let short = across.min(up).as_mm();
                    prop_assert!(blocks.leg.as_mm() <= 0.4 * short + 1e-9);
                    prop_assert!(blocks.leg.as_mm() >= 2.0 * blocks.thickness.as_mm() - 1e-9);
                }
                _ => {}
            }
        }
    }
}
