//! Whether hands can do a packing in the order in which it is told, found from the geometry of the boxes alone: what is reachable
//! through the side that is still open, past what lies there already.

use std::collections::BTreeSet;

use hummock_core::{
    container::WayIn,
    enclosure::EnclosurePlace,
    house::{CartonStyle, HouseRules},
    layer::{EdgeFill, FillGap, FillTurn, Layer, Make},
    pack::{PackStep, Stage, pack_steps},
    piece::Piece,
    plan::{Plan, References, Together},
    shipment::packing,
    space::{BoxSide, LayerSlot, Opens},
};
use proptest::prelude::*;

use crate::studio::{any_choices, any_laid, any_piece, everyday, house, laid_for, refused, rules};

/// An arm with a ruler in its hand pushes something down a narrow gap so far.
const REACH_MM: f64 = 400.0;

/// A box while it is packed.
struct Hollow {
    /// The side through which things get in.
    open: BoxSide,
    /// Whether its walls stand before something lies in it.
    walls: bool,
    /// Whether something pushed in scrapes along its large walls.
    slides: bool,
    /// Inside, across, up and through.
    inside_mm: [f64; 3],
    made: bool,
    filled: bool,
    closed: bool,
}

/// The way through a box that a side lies across.
fn axis(side: BoxSide) -> usize {
    match side {
        BoxSide::Left | BoxSide::Right => 0,
        BoxSide::Top | BoxSide::Bottom => 1,
        BoxSide::Front | BoxSide::Back => 2,
    }
}

/// Through which side something gets into a carton that was made for something else, whether its walls stand, and whether it slides in.
fn opened_on(opens: Opens, (long_edge, short_edge): (BoxSide, BoxSide)) -> (BoxSide, bool, bool) {
    match opens {
        Opens::Face => (BoxSide::Front, true, false),
        Opens::EdgeLong => (long_edge, true, true),
        Opens::EdgeShort => (short_edge, true, true),
    }
}

impl Hollow {
    /// Reads a box of a plan: where its flaps, its lid or its mouth are.
    fn of(plan: &Plan, slot: LayerSlot) -> Option<Self> {
        let at = plan.layers.iter().position(|layer| layer.slot == slot)?;
        let layer = &plan.layers[at];
        let held = plan.layers[..at].last().map(|inner| inner.envelope)?;
        let portrait = plan.size.height >= plan.size.width;
        let upright = layer.make.carton().map_or(portrait, |carton| {
            (carton.inside_length - held.up).as_mm().abs() < 1e-6
        });
        // The long edge of a portrait stands at its left and right, its short one above and below.
        let (long_edge, short_edge) = if upright {
            (BoxSide::Right, BoxSide::Top)
        } else {
            (BoxSide::Top, BoxSide::Right)
        };
        let (open, walls, slides) = match &layer.make {
            Make::SlottedBox(carton) | Make::CutBox(carton) => match carton.style {
                CartonStyle::SlottedEdge => (long_edge, true, true),
                CartonStyle::Telescope => (short_edge, true, true),
                CartonStyle::SlottedFace
                | CartonStyle::TrayAndLid
                | CartonStyle::TrayAndTray
                | CartonStyle::SlitTray => (BoxSide::Front, true, false),
                CartonStyle::Folder | CartonStyle::FolderLapped => (BoxSide::Back, false, false),
            },
            Make::SavedBox(saved) => opened_on(saved.opens, (long_edge, short_edge)),
            Make::BoughtBox(bought) => match bought.way_in() {
                WayIn::Edge => (long_edge, true, true),
                WayIn::ShortEdge | WayIn::Halves => (short_edge, true, true),
                WayIn::Face | WayIn::Blank | WayIn::End => (BoxSide::Front, true, false),
            },
            Make::TravelCase(_) => (BoxSide::Front, true, false),
            _ => (BoxSide::Top, true, false),
        };
        let inside_mm = [held.across, held.up, held.through].map(|side| side.as_mm());
        Some(Self {
            open,
            walls,
            slides,
            inside_mm,
            made: false,
            filled: false,
            closed: false,
        })
    }

    /// Why a hand with something to lay can't get to a side; nothing if it can.
    fn blocked(&self, side: BoxSide) -> Option<&'static str> {
        let deep = self.inside_mm[axis(self.open)];
        let across = axis(side) == axis(self.open);
        if !self.made {
            Some("there is no box yet")
        } else if self.closed {
            Some("the box is closed")
        } else if !self.filled {
            (!self.walls && !across).then_some("there is no wall to lie against")
        } else if across && side != self.open {
            Some("it lies under what is in the box")
        } else if self.slides && side != self.open && axis(side) == 2 {
            Some("what slid in lies flat against it")
        } else {
            (side != self.open && deep > REACH_MM)
                .then_some("the gap is deeper than an arm reaches")
        }
    }
}

/// The sides of a box that a gap of the fill is on, as the box stands or lies open.
fn sides_of(gap: FillGap, open: BoxSide) -> Vec<BoxSide> {
    let floor = BoxSide::ALL
        .into_iter()
        .filter(|side| axis(*side) == axis(open) && *side != open);
    let narrow = BoxSide::ALL.into_iter().filter(|side| axis(*side) != 2);
    match gap {
        FillGap::Floor => floor.collect(),
        FillGap::Top => vec![open],
        FillGap::Walls => narrow.filter(|side| axis(*side) != axis(open)).collect(),
        FillGap::Edges => narrow.collect(),
        FillGap::Front => vec![BoxSide::Front],
        FillGap::Behind => vec![BoxSide::Back],
        FillGap::Around => Vec::new(),
    }
}

/// What stands against the order of some steps: the first of them that no hand can do when it comes.
fn impossible(plan: &Plan, steps: &[PackStep]) -> Result<(), String> {
    let mut inner = Hollow::of(plan, LayerSlot::Box);
    let mut outer = Hollow::of(plan, LayerSlot::SecondBox);
    let mailed = plan
        .layers
        .iter()
        .any(|layer| matches!(layer.make, Make::Mailer(_) | Make::Sandwich(_)));
    let mut wrapped = BTreeSet::new();
    let mut papered = false;
    let last_around = |piece: &Option<String>| {
        steps.iter().rposition(|step| {
            step.piece == *piece
                && matches!(
                    step.layer,
                    Some(LayerSlot::FirstWrap | LayerSlot::SecondWrap | LayerSlot::Folio)
                )
        })
    };
    for (at, step) in steps.iter().enumerate() {
        let key = step
            .key
            .rsplit_once("piece/")
            .map_or(step.key.as_str(), |(_, rest)| rest);
        let second = key.contains("second");
        let no = |why: &str| Err(format!("{}: {why}", step.key));
        if step.stage == Stage::Wrap && inner.as_ref().is_some_and(|one| one.filled) {
            return no("the piece is in its box");
        }
        if step.stage == Stage::Parcel {
            let last = outer.as_ref().or(inner.as_ref());
            if last.is_some_and(|one| !one.closed) {
                return no("the parcel is open");
            }
            if step.layer == Some(LayerSlot::OuterPaper) {
                if papered {
                    return no("something was written under the paper");
                }
            } else {
                papered = true;
            }
        }
        if let Some(enclosed) = &step.encloses {
            let place = enclosed.enclosure.place;
            let inside = inner.as_ref().is_some_and(|one| one.closed);
            if inside && place != EnclosurePlace::InPocket {
                return no("the box is closed");
            }
            let under = place == EnclosurePlace::UnderLastWrap && step.stage == Stage::Wrap;
            if under && last_around(&step.piece).is_some_and(|last| last < at) {
                return no("it is wrapped already");
            }
            if place == EnclosurePlace::OnBack
                && step.stage == Stage::Wrap
                && wrapped.contains(&step.piece)
            {
                return no("the back is covered");
            }
        }
        if matches!(step.layer, Some(LayerSlot::FirstWrap | LayerSlot::Bag)) {
            wrapped.insert(step.piece.clone());
        }
        let one = if second {
            outer.as_mut()
        } else {
            inner.as_mut()
        };
        let Some(one) = one else { continue };
        let layer = step
            .layer
            .and_then(|slot| plan.layers.iter().find(|layer| layer.slot == slot));
        match (
            key.split_once('/').unwrap_or_default(),
            layer.map(|layer| &layer.make),
        ) {
            (("layer", "box" | "second_box"), Some(make)) => {
                one.made = true;
                // Pushed in as it is closed around it.
                one.filled = matches!(make, Make::Mailer(_) | Make::Sandwich(_));
            }
            (("in", _), _) => {
                if !one.made || one.filled {
                    return no("there is no empty box");
                }
                one.filled = true;
            }
            (("close", _), _) => {
                if !one.filled || one.closed {
                    return no("nothing lies in it");
                }
                one.closed = true;
            }
            (("seal", _), _) if !one.closed => return no("it is open"),
            ((turn @ ("before" | "back" | "layer"), _), Some(Make::EdgeFill(fill))) => {
                filled(one, fill, turn)?;
            }
            // In a mailer it is laid around the piece, and goes in with it.
            ((_, _), Some(Make::Lining(lining))) if !mailed => {
                let last = key.starts_with("top/");
                for piece in lining.pieces.iter().filter(|piece| piece.last == last) {
                    // What stands up on a blank is held as its wall is folded, in the same move as it closes.
                    let folded = last && !one.walls;
                    if let Some(why) = one.blocked(piece.side).filter(|_| !folded) {
                        return no(why);
                    }
                }
            }
            _ => {}
        }
    }
    Ok(())
}

fn filled(one: &Hollow, fill: &EdgeFill, turn: &str) -> Result<(), String> {
    let turn = match turn {
        "before" => FillTurn::Before,
        "back" => FillTurn::OnPiece,
        _ => FillTurn::After,
    };
    for place in fill.laid(turn) {
        if turn == FillTurn::OnPiece {
            // It rides on what goes in.
            if one.filled {
                return Err("back: what it is fixed to is in the box".to_owned());
            }
            continue;
        }
        for side in sides_of(place.gap, one.open) {
            if let Some(why) = one.blocked(side) {
                return Err(format!("{turn:?} {:?} at {side:?}: {why}", place.gap));
            }
        }
    }
    Ok(())
}

/// Every side of a box that has a gap is filled by somebody, in some turn.
fn all_filled(plan: &Plan, slot: LayerSlot) -> Result<(), String> {
    let Some(Layer {
        make: Make::EdgeFill(fill),
        adds,
        ..
    }) = plan.layers.iter().find(|layer| layer.slot == slot)
    else {
        return Ok(());
    };
    let around = if slot == LayerSlot::Fill {
        LayerSlot::Box
    } else {
        LayerSlot::SecondBox
    };
    let Some(hollow) = Hollow::of(plan, around) else {
        return Ok(());
    };
    let filled: BTreeSet<usize> = fill
        .places
        .iter()
        .flat_map(|place| sides_of(place.gap, hollow.open))
        .map(|side| side as usize)
        .collect();
    let wide = [
        (BoxSide::Front, adds.front),
        (BoxSide::Back, adds.back),
        (BoxSide::Left, adds.left),
        (BoxSide::Right, adds.right),
        (BoxSide::Top, adds.top),
        (BoxSide::Bottom, adds.bottom),
    ];
    let rolled = fill.places.iter().any(|place| place.gap == FillGap::Around);
    match wide
        .into_iter()
        .find(|(side, wide)| wide.as_mm() > 0.0 && !filled.contains(&(*side as usize)))
    {
        Some((side, _)) if !rolled => Err(format!("{slot:?}: nobody fills {side:?}")),
        _ => Ok(()),
    }
}

fn looked_over(plan: &Plan, steps: &[PackStep]) -> Result<(), String> {
    impossible(plan, steps)?;
    all_filled(plan, LayerSlot::Fill)?;
    all_filled(plan, LayerSlot::SecondFill)
}

/// Whether the parcel is no deeper than an arm: what is deeper is told as it is, and not looked over.
fn is_shallow(plan: &Plan) -> bool {
    plan.tally.outside.through.as_mm() <= REACH_MM
}

#[test]
fn hands_can_do_every_everyday_packing_in_every_style_and_in_two_boxes() {
    let house = house();
    let mut done = 0;
    for each in everyday() {
        for style in [None].into_iter().chain(CartonStyle::ALL.map(Some)) {
            for twice in [false, true] {
                let mut inputs = each.inputs.clone();
                inputs.choices.box_style = style;
                inputs.choices.second_style = style;
                if twice {
                    inputs.choices.layers.insert(LayerSlot::SecondBox, true);
                }
                let Ok(Some(view)) = packing(&inputs, &house) else {
                    continue;
                };
                let plan = hummock_core::shipment::Workings::out(&inputs, &house)
                    .expect("it was planned")
                    .plan
                    .expect("a plan");
                if !is_shallow(&plan) {
                    continue;
                }
                let steps: Vec<PackStep> = view.steps.into_iter().map(|one| one.step).collect();
                if let Err(why) = looked_over(&plan, &steps) {
                    panic!("{} in {style:?}, twice {twice}: {why}", each.name);
                }
                done += 1;
            }
        }
    }
    assert!(done > 700, "{done} were planned");
}

#[test]
fn the_finder_finds_what_hands_can_not_do() {
    // The pad behind after the piece is in; the floor after it; a certificate over the last wrap; the seal before the lid.
    let house = house();
    let inputs = {
        let all = everyday();
        let mut inputs = all
            .into_iter()
            .find(|each| each.name == "canvas 600 by 800")
            .expect("a canvas")
            .inputs;
        inputs.choices.box_style = Some(CartonStyle::SlottedEdge);
        inputs.piece.certificate = true;
        inputs
    };
    let view = packing(&inputs, &house).expect("it is").expect("a plan");
    let steps: Vec<PackStep> = view.steps.into_iter().map(|one| one.step).collect();
    let plan = hummock_core::shipment::Workings::out(&inputs, &house)
        .expect("it was planned")
        .plan
        .expect("a plan");
    assert_eq!(looked_over(&plan, &steps), Ok(()));
    for (late, after) in [
        ("back/filler", "in/box"),
        ("before/fill", "in/box"),
        ("papers/certificate", "layer/second_wrap"),
        ("layer/second_wrap", "in/box"),
        ("layer/fill", "close/box"),
        ("close/box", "parcel/marks"),
    ] {
        let mut moved = steps.clone();
        let at = |steps: &[PackStep], key: &str| {
            steps
                .iter()
                .position(|step| step.key == key)
                .unwrap_or_else(|| panic!("{key} is a step"))
        };
        let step = moved.remove(at(&moved, late));
        let to = at(&moved, after) + 1;
        moved.insert(to, step);
        assert!(looked_over(&plan, &moved).is_err(), "{late} after {after}");
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(300))]

    #[test]
    fn hands_can_do_every_packing(piece in any_piece(), choices in any_choices()) {
        let Ok(rules) = rules().with(&choices) else { return refused() };
        let catalogue = house().catalogue;
        let Ok(plan) = Plan::design(&piece, &rules, &catalogue) else { return refused() };
        if !is_shallow(&plan) {
            return refused();
        }
        let steps = pack_steps(&plan, &[&piece], &rules, &catalogue);
        prop_assert_eq!(looked_over(&plan, &steps), Ok(()));
    }

    #[test]
    fn hands_can_do_several_pieces_in_one_box(
        pieces in prop::collection::vec(any_piece(), 2..4), laid in any_laid(4),
    ) {
        let house = house();
        let rules: HouseRules = rules();
        let together = Together {
            pieces: pieces
                .iter()
                .enumerate()
                .map(|(at, piece)| hummock_core::plan::Among {
                    key: if at == 0 { hummock_core::plan::FIRST.to_owned() } else { format!("p{at}") },
                    title: format!("piece {at}"),
                    piece: Piece { count: 1, ..piece.clone() },
                    rules: rules.clone(),
                })
                .collect(),
            laid: laid_for(laid, pieces.len()),
            folded: false,
        };
        let Ok(plan) = Plan::together(&together, &rules, &house.catalogue, &References::default()) else { return refused() };
        if !is_shallow(&plan) {
            return refused();
        }
        let pieces: Vec<&Piece> = together.pieces.iter().map(|among| &among.piece).collect();
        let steps = pack_steps(&plan, &pieces, &rules, &house.catalogue);
        prop_assert_eq!(looked_over(&plan, &steps), Ok(()));
    }
}

/// What nobody can do, or understand, with tape on one hand.
const NEVER_SAID: [&str; 8] = [
    "as often as the plan says",
    "as the plan says",
    "where the plan says",
    "the marks will name",
    "between every two",
    "nothing goes against the face",
    "whatever",
    "as it is drawn",
];

/// Sentences that say a condition by turning the verb around, as "Is it broken, leave it".
fn turned_around(text: &str) -> Option<&str> {
    let sentences = text.split_inclusive(['.', '?', '!', ':']);
    sentences.map(str::trim).find(|sentence| {
        let first = sentence.split(' ').next().unwrap_or_default();
        ["Is", "Are", "Was", "Were", "Should", "Had", "Does", "Has"].contains(&first)
            && !sentence.ends_with('?')
    })
}

#[test]
fn every_sentence_tells_hands_what_to_do() {
    let house = house();
    let mut said = 0;
    for each in everyday() {
        for style in [None].into_iter().chain(CartonStyle::ALL.map(Some)) {
            let mut inputs = each.inputs.clone();
            inputs.choices.box_style = style;
            inputs.piece.certificate = true;
            inputs.gift = true;
            let Ok(Some(view)) = packing(&inputs, &house) else {
                continue;
            };
            let guide = hummock_core::shipment::unpacking_guide(&inputs, &house)
                .expect("it was planned")
                .expect("a plan");
            let plan = hummock_core::shipment::Workings::out(&inputs, &house)
                .expect("it was planned")
                .plan
                .expect("a plan");
            let steps = view.steps.iter().flat_map(|one| {
                let step = &one.step;
                let look = step.look.iter().flat_map(|look| [look.asks, look.if_not]);
                let words = step.says.iter().map(String::as_str);
                words
                    .chain(step.cautions.iter().copied())
                    .chain(look)
                    .chain([step.title.as_str()])
            });
            let opened = guide.steps.iter().map(|step| step.says.as_str());
            let around = guide.before.iter().chain(&guide.after).map(String::as_str);
            let found = plan.findings.iter().map(|finding| finding.says.as_str());
            for text in steps.chain(opened).chain(around).chain(found) {
                let lower = text.to_lowercase();
                let never = NEVER_SAID.iter().find(|never| lower.contains(**never));
                assert_eq!(never, None, "{}: {text}", each.name);
                assert_eq!(turned_around(text), None, "{}: {text}", each.name);
                said += 1;
            }
        }
    }
    assert!(said > 20_000, "{said} sentences");
}

#[test]
fn a_turned_condition_is_found_and_a_question_is_none() {
    assert_eq!(
        turned_around("Peel it slowly. Is the glass broken, leave the tape on."),
        Some("Is the glass broken, leave the tape on.")
    );
    assert_eq!(turned_around("Is the pane whole, without a crack?"), None);
}
