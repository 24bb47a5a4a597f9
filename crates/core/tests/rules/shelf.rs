//! Laws of the shelf: what is laid out together, what fits from the pile, and what is short.

use std::collections::{BTreeMap, HashMap};

use hummock_core::{
    carton::SheetNeed,
    house::Choices,
    layer::Make,
    material::MaterialId,
    part::{Grain, Take},
    plan::Plan,
    quantity::Length,
    shipment::{House, ShipmentInputs, Workings},
    space::{LayerSlot, Opens},
    stock::{
        Batch, BatchPlan, BatchSheet, BatchShipment, Condition, Counting, CutTool, Goods, LayoutOf,
        Markings, OffcutHere, Origin, PileCarton, SheetGoods, StockItem, cut_pieces, shelf_needs,
    },
    ways::{FitWay, PlanNeeds, ShelfLine, lacking, shelf_lines, what_fits},
};
use jiff::civil::date;
use proptest::prelude::*;

use crate::studio::{
    Everyday, any_catalogue, any_choices, any_piece, everyday, house, refused, rules,
};

const DUST: f64 = 1e-6;

fn laid(
    plans: &[&Plan],
    house: &House,
    of: LayoutOf,
    offcuts: Vec<OffcutHere>,
    tool: CutTool,
) -> BatchPlan {
    Batch {
        shipments: plans.iter().map(|plan| BatchShipment { plan }).collect(),
        blanks: &[],
        of,
        tool,
        offcuts,
        catalogue: &house.catalogue,
        allowances: &house.rules.allowances,
        seed: 7,
        steps: 5,
    }
    .lay_out(&mut || false)
}

fn area(width: Length, height: Length) -> f64 {
    width.as_mm() * height.as_mm()
}

/// Every part inside its sheet and beside every other, and parts and rest no more than the sheet.
fn lies_well(sheet: &BatchSheet) -> Result<(), TestCaseError> {
    let boxes: Vec<[f64; 4]> = sheet
        .parts
        .iter()
        .map(|part| [part.x, part.y, part.x + part.width, part.y + part.height].map(Length::as_mm))
        .chain(sheet.rest.iter().map(|rest| rest.piece).map(|rest| {
            [rest.x, rest.y, rest.x + rest.width, rest.y + rest.height].map(Length::as_mm)
        }))
        .collect();
    for (at, one) in boxes.iter().enumerate() {
        prop_assert!(one[0] >= -DUST && one[1] >= -DUST);
        prop_assert!(one[2] <= sheet.width.as_mm() + DUST && one[3] <= sheet.height.as_mm() + DUST);
        for other in &boxes[at + 1..] {
            let apart = one[2] <= other[0] + DUST
                || other[2] <= one[0] + DUST
                || one[3] <= other[1] + DUST
                || other[3] <= one[1] + DUST;
            prop_assert!(apart, "{one:?} lies on {other:?}");
        }
    }
    Ok(())
}

type Counted = BTreeMap<(usize, LayerSlot, String), (usize, f64)>;

/// How many parts of each name lie on the sheets, and their area.
fn counted(plan: &BatchPlan) -> Counted {
    let mut found = Counted::new();
    for (_, sheet) in plan.sheets() {
        for part in &sheet.parts {
            let one = found
                .entry((part.shipment, part.slot, part.name.clone()))
                .or_default();
            one.0 += 1;
            one.1 += area(part.width, part.height);
        }
    }
    found
}

/// The scores of every blank, as its pieces carry them to the cutting table: of one that no sheet takes whole, each in one of its parts.
///
/// It kills: looking a blank up by what its part is called where there are two boxes, which found none and lost every score; parts of a
/// joined blank without scores; a score that two of them have, or none.
#[test]
fn every_score_of_a_second_box_is_cut_too() {
    let house = house();
    let mut in_parts = 0;
    for mut one in everyday() {
        one.inputs.choices.layers.insert(LayerSlot::SecondBox, true);
        let Ok(Workings {
            plan: Some(plan), ..
        }) = Workings::out(&one.inputs, &house)
        else {
            continue;
        };
        let pieces = cut_pieces(&plan);
        for layer in &plan.layers {
            let Some(carton) = layer.make.carton() else {
                continue;
            };
            let inner = |runs: &[Length], end: Length| -> Vec<f64> {
                let between = |run: &&Length| **run > Length::ZERO && **run < end;
                runs.iter().filter(between).map(|run| run.as_mm()).collect()
            };
            let mut all = 0;
            for (blank, sheet) in carton.parts() {
                let cuts = match sheet {
                    SheetNeed::Joined { cut_at_mm, .. } => cut_at_mm.as_slice(),
                    SheetNeed::One { .. } | SheetNeed::NoSheet => &[],
                };
                in_parts += cuts.len();
                let across = inner(&blank.runs_across, blank.width);
                let up = inner(&blank.runs_up, blank.height);
                all += across.len() + up.len();
                let of_it: Vec<_> = pieces
                    .iter()
                    .filter(|piece| {
                        piece.slot == layer.slot
                            && piece.id.is_some_and(|id| id.of_one_box() == blank.part)
                    })
                    .collect();
                let name = format!("{}: {:?}, {}", one.name, layer.slot, blank.part);
                assert_eq!(of_it.len(), cuts.len() + 1, "{name}");
                // A part begins half a board after the score that it hung on, and the score of its own lap lies a board further out.
                let c = carton.caliper;
                let begins = |at: &Length| *at + c / 2.0;
                let starts = std::iter::once(Length::ZERO).chain(cuts.iter().map(begins));
                let moved_out = cuts.iter().map(|_| c).chain([Length::ZERO]);
                let laid: Vec<f64> = of_it
                    .iter()
                    .zip(starts.zip(moved_out))
                    .flat_map(|(piece, (from, out))| {
                        let scores = &piece.scores[0];
                        let last = scores.len().saturating_sub(1);
                        let on_blank = move |(at, run): (usize, &Length)| {
                            let out = if at == last { out } else { Length::ZERO };
                            (*run + from - out).as_mm()
                        };
                        scores.iter().enumerate().map(on_blank).collect::<Vec<_>>()
                    })
                    .collect();
                let same = laid.len() == across.len()
                    && laid
                        .iter()
                        .zip(&across)
                        .all(|(one, other)| (one - other).abs() < 1e-6);
                assert!(same, "{name}: {laid:?}, not {across:?}");
                for y in &up {
                    let mut runs = of_it.iter().flat_map(|piece| &piece.scores[1]);
                    let has = runs.any(|run| (run.as_mm() - y).abs() < 1e-6);
                    assert!(has, "{name}: {y}");
                }
            }
            assert!(all > 0, "{}: a box without a score", one.name);
        }
    }
    assert!(in_parts > 5, "{in_parts} blanks are cut apart");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    #[test]
    fn every_part_of_a_plan_is_laid_out_once_or_named_as_too_large(
        one in any_piece(), other in any_piece(), choices in any_choices(), catalogue in any_catalogue(),
        saw in any::<bool>(), sides in prop::collection::vec((100.0..1500.0_f64, 100.0..1500.0_f64), 0..4),
    ) {
        let rules = rules();
        let Ok(chosen) = rules.with(&choices) else { return refused() };
        let plans: Vec<Plan> = [&one, &other]
            .into_iter()
            .filter_map(|piece| Plan::design(piece, &chosen, &catalogue).ok())
            .collect();
        let plans: Vec<&Plan> = plans.iter().collect();
        let house = House { rules: chosen, catalogue, ..house() };
        let boards: Vec<MaterialId> = house.catalogue.boards.iter().map(|board| board.id.clone()).collect();
        let offcuts: Vec<OffcutHere> = sides.iter().enumerate().map(|(at, (width, height))| OffcutHere {
            id: at.to_string(), name: format!("Offcut {at}"), place: String::new(),
            material: boards[at % boards.len()].clone(),
            width: Length::mm(*width), height: Length::mm(*height), thickness: None, count: 1,
        }).collect();
        let tool = if saw { CutTool::Saw } else { CutTool::Knife };
        let all = laid(&plans, &house, LayoutOf::All, offcuts.clone(), tool);
        let mut numbers = Vec::new();
        let mut used = Vec::new();
        for (cut, sheet) in all.sheets() {
            lies_well(sheet)?;
            numbers.push(sheet.n);
            if let Some(offcut) = &sheet.offcut {
                let here = offcuts.iter().find(|here| here.id == offcut.id).expect("it is one of them");
                prop_assert_eq!(&here.material, &cut.material);
                prop_assert_eq!((here.width, here.height), (sheet.width, sheet.height));
                used.push(offcut.id.clone());
            }
        }
        prop_assert_eq!(numbers, (1..=all.sheets().count()).collect::<Vec<_>>());
        let before = used.len();
        used.sort();
        used.dedup();
        prop_assert_eq!(before, used.len(), "an offcut was used twice");
        // Part by part: as many as the plan says, or a whole number of times as many where it was parted.
        let found = counted(&all);
        for (shipment, plan) in plans.iter().enumerate() {
            let mut wanted: Counted = Counted::new();
            for piece in cut_pieces(plan) {
                let one = wanted.entry((shipment, piece.slot, piece.name.to_string())).or_default();
                one.0 += piece.count as usize;
                one.1 += area(piece.width, piece.height) * f64::from(piece.count);
            }
            for (key, (count, whole)) in wanted {
                let lies = found.get(&key).copied().unwrap_or_default();
                let large: Vec<_> = all.materials.iter().flat_map(|cut| &cut.too_large)
                    .filter(|large| (large.shipment, large.slot, &large.name) == (key.0, key.1, &key.2))
                    .collect();
                if large.is_empty() {
                    prop_assert!(lies.0 >= count, "{:?}: {} of {}", key, lies.0, count);
                    prop_assert!(lies.1 >= whole - 1.0, "{:?}: {} of {}", key, lies.1, whole);
                }
            }
        }
        // What goes inside and the boxes are all of it, whatever they are cut with.
        let mut parted = counted(&laid(&plans, &house, LayoutOf::Inner, Vec::new(), tool));
        parted.extend(counted(&laid(&plans, &house, LayoutOf::Boxes, Vec::new(), tool)));
        let told: Vec<_> = parted.iter().map(|(key, (count, _))| (key, count)).collect();
        let whole: Vec<_> = found.iter().map(|(key, (count, _))| (key, count)).collect();
        prop_assert_eq!(told, whole);
    }

    #[test]
    fn flutes_stay_upright_and_a_turned_part_takes_its_scores_along(piece in any_piece()) {
        let house = house();
        let Ok(plan) = Plan::design(&piece, &house.rules, &house.catalogue) else { return refused() };
        let pieces = cut_pieces(&plan);
        let all = laid(&[&plan], &house, LayoutOf::All, Vec::new(), CutTool::Knife);
        for (_, sheet) in all.sheets() {
            for part in &sheet.parts {
                let known = pieces.iter().find(|one| one.slot == part.slot && one.name == part.name);
                let known = known.expect("it is a part of the plan");
                match known.grain {
                    Grain::Up => prop_assert!(!part.rotated, "{:?}", part),
                    Grain::Across => prop_assert!(part.rotated, "{:?}", part),
                    Grain::Free => {}
                }
                for (scores, side) in [(&part.scores_x, part.width), (&part.scores_y, part.height)] {
                    prop_assert!(scores.windows(2).all(|pair| pair[0] < pair[1]));
                    prop_assert!(scores.iter().all(|at| *at > Length::ZERO && *at < side));
                }
            }
        }
    }

    #[test]
    fn what_is_drawn_is_what_the_parts_say(piece in any_piece(), choices in any_choices()) {
        let house = house();
        let Ok(rules) = rules().with(&choices) else { return refused() };
        let Ok(plan) = Plan::design(&piece, &rules, &house.catalogue) else { return refused() };
        let needs = shelf_needs(&plan, &house.catalogue);
        let parts = || plan.layers.iter().flat_map(|layer| &layer.parts);
        for need in &needs {
            let of = parts().filter(|part| part.material == *need.goods.material());
            #[allow(clippy::cast_precision_loss, reason = "a plan takes less than a kilometre")]
            let amount = need.amount as f64;
            let (exact, count): (f64, f64) = match &need.goods {
                Goods::Roll { .. } => of.fold((0.0, 0.0), |(sum, count), part| match part.take {
                    Take::Run { length_mm, .. } => {
                        let times = f64::from(part.count);
                        (sum + length_mm.as_mm() * times, count + times)
                    }
                    _ => (sum, count),
                }),
                Goods::Loose { .. } => of.fold((0.0, 0.0), |(sum, count), part| (sum + part.mass.as_g(), count + 1.0)),
                _ => {
                    let whole: u32 = of.map(|part| part.count).sum();
                    prop_assert!(amount <= f64::from(whole) && amount > 0.0);
                    continue;
                }
            };
            // Each run is rounded up to its millimetre, each pouring to its gram.
            prop_assert!(amount >= exact - DUST && amount <= exact + count, "{} for {}", amount, exact);
        }
        // Nothing that a plan takes is forgotten: it is cut from a sheet, a carton that is there, or among the needs.
        for part in parts() {
            let drawn = needs.iter().any(|need| *need.goods.material() == part.material);
            let cut = matches!(part.take, Take::Piece { .. });
            prop_assert!(drawn || cut, "{:?}", part);
        }
    }
}

fn carton(sides: [f64; 3], board: &str) -> PileCarton {
    let [length, width, depth] = sides.map(Length::mm);
    PileCarton {
        length,
        width,
        depth,
        opens: Opens::Face,
        board: MaterialId::new(board),
        condition: Condition::Sound,
        markings: Markings::Plain,
        origin: Origin::Delivery,
        carrier: String::new(),
    }
}

fn kept(id: &str, goods: Goods, left: i64) -> StockItem {
    StockItem {
        id: id.to_owned(),
        goods,
        name: id.to_owned(),
        place: "loft".to_owned(),
        left,
    }
}

fn with(inputs: &ShipmentInputs, choices: &Choices, house: &House) -> Workings {
    let changed = ShipmentInputs {
        choices: inputs.choices.patched(choices),
        ..inputs.clone()
    };
    Workings::out(&changed, house).expect("what is offered can be taken")
}

#[test]
fn what_the_card_asks_for_would_do_and_every_fit_is_what_it_says() {
    // For every everyday piece: a carton in the middle of each range of the card, and one at its low end.
    let house = house();
    let (mut tried, mut pressed, mut joined) = (0, 0, 0);
    for each in everyday() {
        let asked = what_fits(&each.inputs, &house, &[]).expect("an answer");
        let Some(wanted) = asked.wanted else { continue };
        for way in &wanted.ways {
            let over = |(from, to): (Length, Option<Length>), share: f64| {
                let to = to.unwrap_or(from + Length::mm(80.0));
                from.as_mm() + (to - from).as_mm() * share
            };
            for share in [0.02, 0.5] {
                let sides =
                    [way.length_mm, way.width_mm, way.depth_mm].map(|range| over(range, share));
                if sides[0] < sides[1] || sides.iter().any(|side| *side > 3000.0) {
                    continue;
                }
                let board = "corrugated-c";
                let alike = Goods::Carton(PileCarton {
                    opens: way.opens,
                    ..carton(sides, board)
                });
                let pile = [kept("found", alike, way.cartons.into())];
                let answer = what_fits(&each.inputs, &house, &pile).expect("an answer");
                let fit = &answer.fits[0];
                assert_eq!(fit.second.is_some(), way.cartons == 2, "{fit:?}");
                let says = format!(
                    "{}: {:?} of {sides:?}, which opens {}: {:?}",
                    each.name,
                    way.way,
                    way.opens.name(),
                    fit.refused
                );
                // The card is for the board that the plan has; one of another caliper may need a little more.
                if wanted.caliper != Length::mm(4.0) && fit.refused.is_some() {
                    continue;
                }
                assert_eq!(fit.refused, None, "{says}");
                tried += 1;
                let then = with(&each.inputs, &fit.choices, &house);
                let plan = then.plan.as_ref().expect("a plan");
                let layer = plan
                    .layers
                    .iter()
                    .find(|layer| layer.slot == LayerSlot::Box)
                    .expect("a box");
                let Make::SavedBox(made) = &layer.make else {
                    panic!("{says}")
                };
                assert_eq!(Some(made), fit.made.as_ref(), "{says}");
                assert_eq!(Some(plan.tally.outside), fit.outside, "{says}");
                assert_eq!(Some(layer.minutes), fit.minutes, "{says}");
                let cut_down = made.cut.is_some();
                match fit.way.expect("it does") {
                    FitWay::CutDown => assert!(cut_down && made.shorter.is_none(), "{says}"),
                    FitWay::Extended => assert!(made.sleeve.is_some(), "{says}"),
                    FitWay::Telescoped => assert!(made.shorter.is_some(), "{says}"),
                    FitWay::Joined => {
                        let second = made.second.as_ref().expect("a second");
                        assert!(second.join.tongue.is_some(), "{says}");
                        joined += 1;
                    }
                    FitWay::AsIs | FitWay::Filled => {
                        assert!(
                            !cut_down && made.sleeve.is_none() && made.shorter.is_none(),
                            "{says}"
                        );
                    }
                }
                if fit.keeps {
                    let now = with(&each.inputs, &Choices::default(), &house);
                    let now = now.plan.as_ref().expect("a plan");
                    assert!(
                        plan.odds.probability <= now.odds.probability * 1.1 + 1e-12,
                        "{says}"
                    );
                    pressed += 1;
                }
            }
        }
    }
    assert!(
        tried > 150 && pressed > 40 && joined > 20,
        "{tried} tried, {pressed} keep, {joined} joined"
    );
}

#[test]
fn a_carton_with_a_crushed_corner_is_no_box_but_raw_card() {
    // 980 × 740 × 130 inside, of board 4: its walls are scored 130 + c apart and each panel loses a board on every side,
    // so the long wall gives 980 + 4/2 − 8 = 974 (P1) by 134 − 8 = 126, and its flap (740 + 4)/2 − 8 = 364 high.
    let house = house();
    let mut crushed = carton([980.0, 740.0, 130.0], "corrugated-c");
    crushed.condition = Condition::CrushedCorner;
    let panels = crushed.opened(&house.catalogue, &house.rules.allowances);
    let sides = |name: &str| {
        let panel = panels.iter().find(|panel| panel.name == name).expect(name);
        (
            panel.width.as_mm(),
            panel.height.as_mm(),
            panel.worth_keeping,
        )
    };
    let names: Vec<&str> = panels.iter().map(|panel| panel.name).collect();
    assert!(names.len() >= 13, "{names:?}");
    let long: Vec<_> = panels
        .iter()
        .filter(|panel| panel.width > Length::mm(900.0) && panel.height > Length::mm(300.0))
        .map(|panel| sides(panel.name))
        .collect();
    // Four flaps of the two long walls, worth keeping; the walls themselves are strips of 126.
    assert_eq!(long.len(), 4, "{panels:?}");
    assert!(
        long.iter()
            .all(|(_, height, keep)| *keep && (*height - 364.0).abs() < 1e-9),
        "{long:?}"
    );
    let each = everyday()
        .into_iter()
        .find(|each| {
            what_fits(&each.inputs, &house, &[])
                .expect("an answer")
                .wanted
                .is_some()
        })
        .expect("a piece that goes in a box");
    let pile = [kept("crushed", Goods::Carton(crushed), 1)];
    let fits = what_fits(&each.inputs, &house, &pile)
        .expect("an answer")
        .fits;
    assert_eq!(fits.len(), 1);
    assert!(
        fits[0]
            .refused
            .as_deref()
            .is_some_and(|says| says.contains("raw card"))
    );
}

#[test]
fn two_of_the_pile_are_pushed_into_each_other_for_what_is_longer_than_either() {
    // What goes in is twice as long as wide at least; each of two has 0.6 of its length. The second is 2c + 8 = 16 wider,
    // and 40 deeper, so that the first slides into it whole.
    let house = house();
    let mut slid = 0;
    for mut each in everyday()
        .into_iter()
        .filter(Everyday::is_left_to_the_rules)
    {
        // Every piece as a narrow one: 250 × 900.
        each.inputs.piece.width = Some("250 mm".to_owned());
        each.inputs.piece.height = Some("900 mm".to_owned());
        let Ok(asked) = what_fits(&each.inputs, &house, &[]) else {
            continue;
        };
        let Some(wanted) = asked.wanted else { continue };
        let [length, width, depth] = wanted.inside_mm.map(Length::as_mm);
        // A board under the card's may need a little more than the card says.
        if length * 0.6 < width + 20.0 || wanted.caliper != Length::mm(4.0) {
            continue;
        }
        let [narrow, wide] = [(width + 1.0, depth + 1.0), (width + 17.0, depth + 41.0)]
            .map(|(wide, deep)| carton([length * 0.6, wide, deep], "corrugated-c"));
        let pile = |marked: Markings, left: i64| {
            let other = PileCarton {
                markings: marked,
                ..wide.clone()
            };
            let pile = [
                kept("narrow", Goods::Carton(narrow.clone()), 1),
                kept("wide", Goods::Carton(other), left),
            ];
            what_fits(&each.inputs, &house, &pile)
                .expect("an answer")
                .fits
        };
        let fits = pile(Markings::Labels, 1);
        let both: Vec<_> = fits.iter().filter(|fit| fit.second.is_some()).collect();
        let [fit] = both[..] else {
            panic!("{}: {both:?}", each.name)
        };
        assert_eq!(fit.way, Some(FitWay::Joined), "{}", each.name);
        let then = with(&each.inputs, &fit.choices, &house);
        let plan = then.plan.as_ref().expect("a plan");
        assert_eq!(Some(plan.tally.outside), fit.outside, "{}", each.name);
        let layer = plan.layers.iter().find(|one| one.slot == LayerSlot::Box);
        let Make::SavedBox(made) = &layer.expect("a box").make else {
            panic!("{}", each.name)
        };
        let second = made.second.as_ref().expect("a second");
        assert!(second.join.second_outside && second.join.tongue.is_none());
        // Whatever is printed or used up is none of them; a single one stands on the pile as too short.
        let none = |fits: &[hummock_core::ways::PileFit]| {
            fits.iter()
                .all(|fit| fit.second.is_none() && fit.refused.is_some())
        };
        assert!(none(&pile(Markings::Printed, 1)) && none(&pile(Markings::Plain, 0)));
        // Alone again, it gives both up.
        let alone = fits.iter().find(|fit| fit.second.is_none()).expect("one");
        assert!(alone.refused.is_some(), "{}", each.name);
        slid += 1;
    }
    assert!(slid > 10, "{slid}");
}

#[test]
fn a_second_carton_is_measured_whole_and_beside_a_first() {
    let each = &everyday()[0];
    let refused = |choices: Choices| {
        let inputs = ShipmentInputs {
            choices,
            ..each.inputs.clone()
        };
        let refusals = Workings::out(&inputs, &house()).expect_err("a refusal");
        refusals
            .iter()
            .map(|one| one.field.clone())
            .collect::<Vec<_>>()
    };
    let typed = |text: &str| Some(text.to_owned());
    let alone = Choices {
        second_saved_length: typed("700 mm"),
        second_saved_width: typed("500 mm"),
        second_saved_height: typed("100 mm"),
        ..Choices::default()
    };
    assert_eq!(refused(alone.clone()), ["choices.saved_length"]);
    let half = Choices {
        saved_length: typed("700 mm"),
        saved_width: typed("500 mm"),
        saved_height: typed("100 mm"),
        second_saved_width: typed(""),
        ..alone
    };
    assert_eq!(refused(half), ["choices.second_saved_width"]);
}

#[test]
fn a_carton_of_one_carrier_is_refused_by_the_others_and_a_printed_one_is_turned() {
    let house = house();
    let inputs = everyday()
        .into_iter()
        .map(|each| ShipmentInputs {
            buyer: hummock_core::place::Buyer {
                country: "XS".into(),
                postcode: "NQ4 2TH".into(),
                ..Default::default()
            },
            ..each.inputs
        })
        .find(|inputs| {
            let fits = what_fits(inputs, &house, &[]).expect("an answer");
            fits.wanted.is_some_and(|wanted| {
                wanted.inside_mm[2] > Length::mm(60.0) && wanted.inside_mm[0] < Length::mm(900.0)
            })
        })
        .expect("a piece that goes in a box");
    let wanted = what_fits(&inputs, &house, &[])
        .expect("an answer")
        .wanted
        .expect("a card");
    let [length, width, depth] = wanted.inside_mm.map(Length::as_mm);
    let mut theirs = carton([length + 10.0, width + 10.0, depth + 5.0], "corrugated-c");
    theirs.carrier = "Gannet Post".into();
    theirs.markings = Markings::Printed;
    let plain = carton([length + 10.0, width + 10.0, depth + 5.0], "corrugated-c");
    let pile = [
        kept("theirs", Goods::Carton(theirs), 1),
        kept("plain", Goods::Carton(plain), 1),
    ];
    let fits = what_fits(&inputs, &house, &pile).expect("an answer").fits;
    let of = |id: &str| fits.iter().find(|fit| fit.item == id).expect(id);
    let then = with(&inputs, &of("theirs").choices, &house);
    assert!(
        then.quotes
            .iter()
            .all(|quote| quote.total().is_none() || quote.carrier == "Gannet Post")
    );
    // Turning it takes time and tape, and bears less: never better than the plain one.
    let turned = of("theirs").made.as_ref().expect("it does");
    assert_eq!(turned.face, hummock_core::house::SavedFace::InsideOut);
    assert!(of("theirs").minutes > of("plain").minutes);
    let other = with(&inputs, &of("plain").choices, &house);
    let odds = |worked: &Workings| worked.plan.as_ref().expect("a plan").odds.probability;
    assert!(odds(&then) >= odds(&other));
}

/// The server caches what is short by the needs of a plan: two plans with equal needs are short of the same.
///
/// Kills needs without the parts that are cut, or without what is counted otherwise.
#[test]
fn equal_needs_lack_the_same_of_the_same_shelf() {
    let house = house();
    let today = date(2027, 3, 4);
    let needs = |inputs: &ShipmentInputs| {
        let worked = Workings::out(inputs, &house).expect("it is worked out");
        let needs = PlanNeeds::of((inputs, &worked), &house).expect("steps");
        needs.expect("a plan")
    };
    let mut known: HashMap<PlanNeeds, Vec<String>> = HashMap::new();
    for each in everyday() {
        let all = shelf_lines(&each.inputs, &house, &[], today).expect("lines");
        // Every second thing is there, and nothing of the others.
        let shelf: Vec<StockItem> = all
            .iter()
            .enumerate()
            .map(|(at, line)| {
                let left = if at % 2 == 0 { line.needs } else { 0 };
                kept(&line.name, line.goods.clone(), left)
            })
            .collect();
        let names = |inputs: &ShipmentInputs| -> Vec<String> {
            let lines = lacking(inputs, &house, &shelf, today).expect("lines");
            lines.into_iter().map(|line| line.name).collect()
        };
        let renamed = ShipmentInputs {
            title: "Another".to_owned(),
            promised: Some("2027-05-04".into()),
            ..each.inputs.clone()
        };
        assert_eq!(needs(&renamed), needs(&each.inputs), "{}", each.name);
        assert_eq!(names(&renamed), names(&each.inputs), "{}", each.name);
        let all: Vec<String> = all
            .into_iter()
            .map(|line| format!("{} {}", line.name, line.needs))
            .collect();
        let before = known.insert(needs(&each.inputs), all.clone());
        assert!(before.is_none_or(|before| before == all), "{}", each.name);
    }
    assert!(known.len() > 20, "{} needs differ", known.len());
}

#[test]
fn a_short_shelf_names_what_it_lacks_and_by_when_to_order_it() {
    // Of every everyday piece: with nothing on the shelf everything that it takes is short by what it takes; with all of it
    // there nothing is.
    let house = house();
    let today = date(2027, 3, 4);
    let (mut helped, mut offered) = (0, 0);
    for each in everyday() {
        let inputs = ShipmentInputs {
            promised: Some("2027-03-30".into()),
            ..each.inputs.clone()
        };
        let told = shelf_lines(&inputs, &house, &[], today).expect("lines");
        let count = |amount: fn(i64) -> i64| -> Vec<StockItem> {
            told.iter()
                .map(|line| kept(&line.name, line.goods.clone(), amount(line.needs)))
                .collect()
        };
        let full = shelf_lines(&inputs, &house, &count(|needs| needs), today).expect("lines");
        assert!(
            full.iter()
                .all(|line| line.short == 0 && line.left == Some(line.needs)),
            "{}",
            each.name
        );
        let nothing_lacks = lacking(&inputs, &house, &count(|needs| needs), today);
        assert_eq!(nothing_lacks, Ok(Vec::new()), "{}", each.name);
        let empty = shelf_lines(&inputs, &house, &count(|_| 0), today).expect("lines");
        // What the bench says of it is what the page of the box says, without what takes its place.
        let bare: Vec<ShelfLine> = empty
            .iter()
            .map(|line| ShelfLine {
                substitute: None,
                ..line.clone()
            })
            .collect();
        let lacks = lacking(&inputs, &house, &count(|_| 0), today).expect("lines");
        assert_eq!(lacks, bare, "{}", each.name);
        for line in &empty {
            assert_eq!(
                (line.short, line.left),
                (line.needs, Some(0)),
                "{}: {}",
                each.name,
                line.name
            );
            let counting =
                Counting::of(&house.catalogue, line.goods.material()).expect("it is in the stores");
            assert_eq!(
                line.order_by.is_some(),
                counting.shelf.lead_days.is_some(),
                "{}",
                line.name
            );
            // Ordered on that day it is there before the parcel leaves.
            assert!(
                line.order_by.is_none_or(|day| day < date(2027, 3, 30)),
                "{}",
                line.name
            );
            let Some(instead) = &line.substitute else {
                continue;
            };
            offered += 1;
            if let Some(choices) = &instead.choices {
                let then = with(&inputs, choices, &house);
                let plan = then.plan.as_ref().expect("a plan");
                let made = plan
                    .layers
                    .iter()
                    .flat_map(|layer| &layer.parts)
                    .any(|part| part.material == instead.material);
                assert!(
                    made,
                    "{}: {} is not made of {}",
                    each.name, line.name, instead.name
                );
                helped += 1;
            }
        }
    }
    assert!(
        offered > 20 && helped * 2 > offered,
        "{offered} offered, {helped} to press"
    );
}

#[test]
fn goods_are_looked_over_by_the_stores() {
    let shelf = house().catalogue;
    let refused = |goods: Goods| {
        let refusals = goods.checked(&shelf).expect_err("it can't be");
        refusals
            .into_iter()
            .map(|refusal| refusal.field)
            .collect::<Vec<_>>()
    };
    let sheet = |material: &str, sides: [f64; 2], thickness: Option<f64>| SheetGoods {
        material: MaterialId::new(material),
        width: Length::mm(sides[0]),
        height: Length::mm(sides[1]),
        thickness: thickness.map(Length::mm),
    };
    assert_eq!(
        refused(Goods::Sheet(sheet("corrugated-c", [1601.0, 1200.0], None))),
        ["width_mm"]
    );
    assert_eq!(
        refused(Goods::Offcut(sheet("urethane-32", [500.0, 400.0], None))),
        ["thickness_mm"]
    );
    assert_eq!(
        refused(Goods::Offcut(sheet("gummed-60", [500.0, 400.0], None))),
        ["material"]
    );
    assert_eq!(
        refused(Goods::Offcut(sheet("no-such", [500.0, 400.0], None))),
        ["material"]
    );
    assert_eq!(
        refused(Goods::Roll {
            material: MaterialId::new("corrugated-c")
        }),
        ["material"]
    );
    assert_eq!(
        refused(Goods::Carton(carton([10.0, 740.0, 4000.0], "foam-core-5"))),
        ["length_mm", "depth_mm", "board"]
    );
    assert!(
        Goods::Offcut(sheet("urethane-32", [500.0, 400.0], Some(40.0)))
            .checked(&shelf)
            .is_ok()
    );
    assert!(
        Goods::Sheet(sheet("corrugated-c", [1600.0, 1200.0], None))
            .checked(&shelf)
            .is_ok()
    );
}
