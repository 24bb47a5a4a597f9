//! Laws of what layers take off the shelf.

use hummock_core::{
    house::{Choices, SavedCut},
    layer::{Layer, Make},
    material::{Catalogue, MaterialId},
    part::{Part, Take},
    plan::Plan,
    quantity::{Length, Mass},
    space::Opens,
    stock::Counting,
};
use proptest::prelude::*;
use rust_decimal::{Decimal, prelude::ToPrimitive};

use crate::studio::{any_catalogue, any_choices, any_piece, refused, rules};

/// What a part weighs and costs, looked up in the stores and reckoned by hand: grams for what stays, and money for the
/// rectangle, the length, the mass or the count that is used up.
fn again(part: &Part, shelf: &Catalogue) -> (f64, f64) {
    let id = &part.material;
    let money = |price: Decimal| price.to_f64().expect("a price is a number");
    let count = f64::from(part.count);
    let one = match part.take {
        Take::Piece {
            width_mm,
            height_mm,
            thickness_mm,
            area_m2,
            ..
        } => {
            let rectangle = width_mm.as_mm() * height_mm.as_mm() / 1e6;
            let thick = thickness_mm.as_mm() / 1e3;
            if let Ok(board) = shelf.board(id) {
                assert_eq!(board.caliper, thickness_mm);
                let grams = (board.areal_density * area_m2).as_g();
                (grams, money(board.price_per_m2()) * rectangle)
            } else {
                let foam = shelf.foam(id).expect("a piece is of board or foam");
                let grams = (foam.density * (area_m2 * thickness_mm)).as_g();
                (grams, money(foam.price_per_m3()) * rectangle * thick)
            }
        }
        Take::Run {
            length_mm,
            width_mm: Some(width),
            area_m2: Some(area),
        } => {
            let metres = length_mm.as_mm() / 1e3;
            if let Ok(paper) = shelf.contact_paper(id) {
                let grams = (paper.areal_density * area).as_g();
                (grams, money(paper.price_per_m) * metres)
            } else if let Ok(wrap) = shelf.cushion_wrap(id) {
                let grams = (wrap.areal_density * area).as_g();
                (grams, money(wrap.price_per_m) * metres)
            } else {
                let film = shelf.film(id).expect("a run is of paper, cushion or film");
                let grams = (film.areal_density * area).as_g();
                (
                    grams,
                    money(film.price_per_m2) * metres * width.as_mm() / 1e3,
                )
            }
        }
        Take::Run { length_mm, .. } => {
            let metres = length_mm.as_mm() / 1e3;
            let line = |density: hummock_core::quantity::LinearDensity, price| {
                ((density * length_mm).as_g(), money(price) * metres)
            };
            if let Ok(tape) = shelf.tape(id) {
                line(tape.linear_density, tape.price_per_m)
            } else if let Some(tube) = shelf.tubes.iter().find(|tube| tube.id == *id) {
                line(tube.linear_density, tube.price_per_m)
            } else if let Some(batten) = shelf.battens.iter().find(|batten| batten.id == *id) {
                line(batten.linear_density, batten.price_per_m)
            } else {
                let core = shelf.cores.iter().find(|core| core.id == *id);
                let core = core.expect("what goes by its length is tape, tube, core or batten");
                line(core.linear_density, core.price_per_m)
            }
        }
        Take::Loose { volume_m3 } => {
            let fill = shelf.fill(id).expect("what is poured is fill");
            let kilos = (fill.density * volume_m3).as_kg();
            (kilos * 1e3, money(fill.price_per_kg) * kilos)
        }
        // A carton that the studio has costs nothing; what it weighs is told from its blank below.
        Take::Each if shelf.board(id).is_ok() => (part.mass.as_g() / count, 0.0),
        Take::Each => {
            let things = [
                shelf
                    .mailers
                    .iter()
                    .find(|one| one.id == *id)
                    .map(|one| (one.mass, one.price)),
                shelf
                    .picture_carton(id)
                    .ok()
                    .map(|one| (one.mass, one.price)),
                shelf
                    .slip_on_corner(id)
                    .ok()
                    .map(|one| (one.mass, one.price)),
                shelf.sundry(id).ok().map(|one| (one.mass, one.price)),
            ];
            let (mass, price): (Mass, Decimal) = things
                .into_iter()
                .flatten()
                .next()
                .expect("it is on the shelf");
            (mass.as_g(), money(price))
        }
    };
    // The demo's house counts what was used before as free.
    let used = Counting::of(shelf, id).is_some_and(|counting| counting.shelf.reused);
    let price = if used { 0.0 } else { one.1 };
    (one.0 * count, price * count)
}

/// Nothing of a part is less than nothing, and no more of it stays than is cut.
fn can_be_cut(part: &Part) -> Result<(), TestCaseError> {
    prop_assert!(part.count > 0, "{part:?}");
    let positive = |length: Length| length > Length::ZERO;
    let whole = match part.take {
        Take::Piece {
            width_mm,
            height_mm,
            thickness_mm,
            ..
        } => {
            prop_assert!(
                positive(width_mm) && positive(height_mm) && positive(thickness_mm),
                "{part:?}"
            );
            Some(width_mm * height_mm)
        }
        Take::Run {
            length_mm,
            width_mm,
            ..
        } => {
            prop_assert!(length_mm >= Length::ZERO, "{part:?}");
            width_mm.map(|width| length_mm * width)
        }
        Take::Loose { volume_m3 } => {
            prop_assert!(volume_m3.as_m3() >= 0.0, "{part:?}");
            None
        }
        Take::Each => None,
    };
    if let (Some(whole), Some(stays)) = (whole, part.take.area()) {
        prop_assert!(stays.as_m2() <= whole.as_m2() + 1e-9, "{part:?}");
    }
    Ok(())
}

fn adds_up(layer: &Layer, shelf: &Catalogue) -> Result<(), TestCaseError> {
    let (mut grams, mut cost) = (0.0, 0.0);
    if let Make::SavedBox(saved) = &layer.make {
        let board = shelf.board(&layer.material).expect("it is of a board");
        // Tongues lap by their length all round: twice the width and the depth.
        let [_, wide, _] = saved.carton_mm;
        let deep = saved.carton_mm[2] - saved.cut.map_or(Length::ZERO, |cut| cut.below);
        let tongue = saved.shorter.and_then(|cut| cut.tongue);
        let laps = (wide + deep) * 2.0 * tongue.unwrap_or(Length::ZERO);
        let grams = (board.areal_density * (saved.blank.area + laps)).as_g();
        prop_assert!(
            (layer.parts[0].mass.as_g() - grams).abs() < 1e-6 * grams,
            "{layer:?}"
        );
        prop_assert_eq!(layer.parts[0].cost.amount, Decimal::ZERO);
    }
    for part in &layer.parts {
        can_be_cut(part)?;
        let (weighs, costs) = again(part, shelf);
        grams += weighs;
        // What a case is built of is paid for once, and its journeys share it.
        cost += match &layer.make {
            Make::TravelCase(case) => costs / f64::from(case.journeys),
            _ => costs,
        };
    }
    prop_assert!(
        (layer.weight.mass.as_g() - grams).abs() < 1e-6 * (1.0 + grams),
        "{layer:?}"
    );
    let told = layer.cost.amount.to_f64().expect("money is a number");
    prop_assert!(
        (told - cost).abs() < 1e-6 * (1.0 + cost) + 0.005,
        "{told} {cost} {layer:?}"
    );
    Ok(())
}

/// Something in place of a box that is cut, as often as not.
fn any_instead() -> impl Strategy<Value = Choices> {
    let bought = [
        "corners-two",
        "corners-four",
        "carton-600",
        "carton-depths",
        "telescope-2000",
    ];
    let saved = [100.0..3000.0_f64, 100.0..3000.0, 50.0..500.0];
    let cut = prop_oneof![Just(None), Just(Some(SavedCut::LengthToo))];
    let opens = prop::option::of(prop::sample::select(Opens::ALL.to_vec()));
    prop_oneof![
        Just(Choices::default()),
        prop::sample::select(bought.to_vec()).prop_map(|id| Choices {
            bought_box: Some(MaterialId::new(id)),
            ..Choices::default()
        }),
        (saved, cut, opens).prop_map(|([length, width, height], cut, saved_opens)| {
            let typed = |mm: f64| Some(format!("{mm} mm"));
            Choices {
                saved_length: typed(length),
                saved_width: typed(width),
                saved_height: typed(height),
                saved_cut: cut,
                saved_opens,
                ..Choices::default()
            }
        }),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(400))]

    #[test]
    fn the_parts_of_a_layer_weigh_and_cost_what_it_does(
        piece in any_piece(), choices in any_choices(), shelf in any_catalogue(), instead in any_instead(),
    ) {
        // What a scale read of a case takes the place of what its parts come to.
        let choices = Choices { case_empty: None, ..choices.patched(&instead) };
        let rules = rules().with(&choices).expect("choices in range");
        let Ok(plan) = Plan::design(&piece, &rules, &shelf) else { return refused() };
        for layer in &plan.layers {
            adds_up(layer, &shelf)?;
        }
    }
}
