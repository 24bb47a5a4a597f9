//! What is printed for a day at the bench: marks as the plan has them, and what several shipments take together.

use hummock_core::{
    layer::{Make, Mark},
    sending::papers::handling_marks,
    shipment::{ShipmentInputs, Workings},
    stock::{Goods, cut_pieces},
    ways::{materials_together, shelf_takes},
};
use proptest::{prelude::*, sample::subsequence};

use crate::studio::{everyday, house, refused};

fn inputs(text: &str) -> ShipmentInputs {
    serde_json::from_str(text).expect("inputs")
}

#[test]
fn marks_are_those_of_the_plan_each_as_often_as_it_goes_on() {
    let house = house();
    let marks = |text: &str| -> Vec<Mark> {
        let inputs = inputs(text);
        let plan = Workings::out(&inputs, &house)
            .expect("workings")
            .plan
            .expect("a plan");
        handling_marks(&inputs, &plan)
            .into_iter()
            .map(|mark| mark.draws)
            .collect()
    };
    // Two of "this side up" on sides that meet, one of each other.
    assert_eq!(
        marks(
            r#"{"title": "", "piece": {"construction": "mirror", "width": "300", "height": "400", "depth": "20"}}"#
        ),
        [
            Mark::ThisSideUp,
            Mark::ThisSideUp,
            Mark::FaceOfTheArt,
            Mark::Glass,
            Mark::KeepDry,
            Mark::DoNotLayFlat
        ]
    );
    assert_eq!(
        marks(
            r#"{"title": "", "piece": {"construction": "loose_paper", "medium": "print", "width": "210", "height": "297", "depth": "0.3"}, "choices": {"carriage": "mailed"}}"#
        ),
        [Mark::DoNotBend]
    );
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    #[test]
    fn together_shipments_take_what_each_takes_and_sheets_for_all_that_is_cut(
        chosen in subsequence((0..60_usize).collect::<Vec<_>>(), 1..5),
    ) {
        let (house, all) = (house(), everyday());
        let some: Vec<&ShipmentInputs> = chosen.iter().filter_map(|at| all.get(*at)).map(|one| &one.inputs).collect();
        let Ok(lines) = materials_together(&some, &house, &[]) else { return refused() };
        let mut alone: Vec<(Goods, i64)> = Vec::new();
        for inputs in &some {
            let Ok(takes) = shelf_takes(inputs, &house, &[]) else { return refused() };
            for take in takes {
                match alone.iter_mut().find(|(goods, _)| *goods == take.goods) {
                    Some((_, amount)) => *amount += take.amount,
                    None => alone.push((take.goods, take.amount)),
                }
            }
        }
        for line in &lines {
            let sum: i64 = alone.iter().filter(|(goods, _)| *goods == line.goods).map(|(_, amount)| amount).sum();
            if let Goods::Sheet(sheet) = &line.goods {
                // Sheets hold at least what is cut from them, for all of them.
                let opened: f64 = lines
                    .iter()
                    .filter_map(|one| match &one.goods {
                        Goods::Sheet(same) if same.material == sheet.material => Some(
                            same.width.as_m() * same.height.as_m() * f64::from(u32::try_from(one.amount).unwrap_or(0)),
                        ),
                        _ => None,
                    })
                    .sum();
                let cut: f64 = some
                    .iter()
                    .filter_map(|inputs| Workings::out(inputs, &house).ok()?.plan)
                    .flat_map(|plan| cut_pieces(&plan))
                    .filter(|piece| piece.material == sheet.material && piece.thickness == sheet.thickness.unwrap_or(piece.thickness))
                    .map(|piece| piece.width.as_m() * piece.height.as_m() * f64::from(piece.count))
                    .sum();
                prop_assert!(opened >= cut - 1e-9, "{} {opened} {cut}", line.name);
            } else {
                prop_assert_eq!(line.amount, sum, "{}", line.name);
            }
            prop_assert!(!line.of.is_empty() && line.of.iter().all(|at| *at < some.len()));
        }
    }
}

#[test]
fn a_list_of_one_shipment_is_what_its_plan_takes() {
    let house = house();
    let canvas = inputs(
        r#"{"title": "", "piece": {"construction": "stretched_canvas", "medium": "acrylic", "width": "600", "height": "800", "depth": "20"}}"#,
    );
    let plan = Workings::out(&canvas, &house)
        .expect("workings")
        .plan
        .expect("a plan");
    let lines = materials_together(&[&canvas], &house, &[]).expect("a list");
    let tape: f64 = plan
        .layers
        .iter()
        .filter(|layer| matches!(layer.make, Make::Wrap(_)))
        .map(|layer| layer.tape.as_mm())
        .sum();
    // Both wraps and the pads of the fill behind are held by one tape; nothing of it is left out.
    let wrap_tape = house.rules.materials.wrap_tape.clone();
    let listed = lines
        .iter()
        .find(|line| *line.goods.material() == wrap_tape)
        .expect("the tape of the wraps");
    assert!(f64::from(u32::try_from(listed.amount).expect("metres")) >= tape);
    assert_eq!(listed.of, [0]);
    // A shipment without a piece takes nothing.
    let nothing = materials_together(&[&ShipmentInputs::default()], &house, &[]).expect("a list");
    assert!(nothing.is_empty());
}
