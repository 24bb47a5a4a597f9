//! Laws of cutting parts from sheets.

use hummock_core::{
    cutting::CutAxis,
    sums::{CuttingAnswer, CuttingPart, CuttingStock, CuttingSum, CuttingUsed, Sum as _},
};
use proptest::prelude::*;
use rust_decimal::{Decimal, prelude::ToPrimitive};

#[derive(Debug, Clone, Copy, PartialEq)]
struct Rect {
    x: f64,
    y: f64,
    w: f64,
    h: f64,
}

const DUST: f64 = 1e-6;

fn near(one: f64, other: f64) -> bool {
    (one - other).abs() < DUST
}

fn alike(one: &Rect, other: &Rect) -> bool {
    near(one.x, other.x) && near(one.y, other.y) && near(one.w, other.w) && near(one.h, other.h)
}

/// Cuts a sheet by its printed cuts, one after the other; each has to cross one present piece from edge to edge.
fn replayed(used: &CuttingUsed, whole: Rect, kerf: f64) -> Result<Vec<Rect>, TestCaseError> {
    let mut pieces = vec![whole];
    for (place, cut) in used.cuts.iter().enumerate() {
        prop_assert_eq!(cut.n, place + 1);
        let across = cut.axis == CutAxis::X;
        let at = pieces.iter().position(|piece| {
            let (begins, length, from, to) = if across {
                (piece.x, piece.w, piece.y, piece.y + piece.h)
            } else {
                (piece.y, piece.h, piece.x, piece.x + piece.w)
            };
            near(cut.from.as_mm(), from)
                && near(cut.to.as_mm(), to)
                && cut.at.as_mm() > begins + DUST
                && cut.at.as_mm() < begins + length - DUST
        });
        prop_assert!(at.is_some(), "{:?} crosses none of {:?}", cut, pieces);
        let piece = pieces.swap_remove(at.expect("checked"));
        if across {
            let beyond = cut.at.as_mm() + kerf;
            pieces.push(Rect {
                w: cut.at.as_mm() - piece.x,
                ..piece
            });
            pieces.push(Rect {
                x: beyond,
                w: piece.x + piece.w - beyond,
                ..piece
            });
        } else {
            let beyond = cut.at.as_mm() + kerf;
            pieces.push(Rect {
                h: cut.at.as_mm() - piece.y,
                ..piece
            });
            pieces.push(Rect {
                y: beyond,
                h: piece.y + piece.h - beyond,
                ..piece
            });
        }
        pieces.retain(|piece| piece.w > DUST && piece.h > DUST);
    }
    Ok(pieces)
}

/// The cheapest plain shelves of one kind of sheet: long side along the sheet where it may be turned, the highest first,
/// each on the first shelf that takes it; `None` if no kind takes every part, or there are too few.
fn shelves(sum: &CuttingSum) -> Option<f64> {
    let of = |sheet: &CuttingStock| {
        let mut parts = Vec::new();
        for part in &sum.parts {
            let (w, h) = (part.width_mm, part.height_mm);
            let turned = part.may_rotate && h > w;
            let lying = if turned { (h, w) } else { (w, h) };
            let fits = |(w, h): (f64, f64)| w <= sheet.width_mm && h <= sheet.height_mm;
            let lying = if fits(lying) {
                lying
            } else {
                (lying.1, lying.0)
            };
            if !fits(lying) || (!part.may_rotate && lying != (w, h)) {
                return None;
            }
            parts.extend(std::iter::repeat_n(lying, part.count as usize));
        }
        let k = sum.kerf_mm;
        parts.sort_by(|one, other| other.1.total_cmp(&one.1));
        // Each sheet: the height that is left, and its shelves, each with the width that is left and its height.
        let mut sheets: Vec<(f64, Vec<(f64, f64)>)> = Vec::new();
        for (w, h) in parts {
            let shelf = sheets
                .iter_mut()
                .flat_map(|(_, shelves)| shelves)
                .find(|(left, high)| *left >= w + k - DUST && *high >= h - DUST);
            if let Some((left, _)) = shelf {
                *left -= w + k;
                continue;
            }
            let at = sheets.iter().position(|(left, _)| *left >= h + k - DUST);
            let at = at.unwrap_or_else(|| {
                sheets.push((sheet.height_mm + k, Vec::new()));
                sheets.len() - 1
            });
            sheets[at].0 -= h + k;
            sheets[at].1.push((sheet.width_mm - w, h));
        }
        let enough = sheet
            .count
            .is_none_or(|count| sheets.len() <= count as usize);
        let price = sheet.price.to_f64().expect("a price");
        enough.then(|| price * f64::from(u32::try_from(sheets.len()).expect("few sheets")))
    };
    sum.sheets.iter().filter_map(of).min_by(f64::total_cmp)
}

fn holds(sum: &CuttingSum, answer: &CuttingAnswer) -> Result<(), TestCaseError> {
    let mut counts = vec![0_u32; sum.parts.len()];
    let mut cost = Decimal::ZERO;
    let mut opened = vec![0_u32; sum.sheets.len()];
    let (mut area, mut whole_area) = (0.0, 0.0);
    for used in &answer.sheets_used {
        let sheet = &sum.sheets[used.sheet];
        cost += sheet.price;
        opened[used.sheet] += 1;
        whole_area += sheet.width_mm * sheet.height_mm;
        let whole = Rect {
            x: 0.0,
            y: 0.0,
            w: sheet.width_mm,
            h: sheet.height_mm,
        };
        let pieces = replayed(used, whole, sum.kerf_mm)?;
        let placed = used.placements.iter().map(|placed| Rect {
            x: placed.x_mm,
            y: placed.y_mm,
            w: placed.width_mm,
            h: placed.height_mm,
        });
        let rest = used.remainder.iter().map(|rest| Rect {
            x: rest.x.as_mm(),
            y: rest.y.as_mm(),
            w: rest.width.as_mm(),
            h: rest.height.as_mm(),
        });
        let told: Vec<Rect> = placed.chain(rest).collect();
        prop_assert_eq!(told.len(), pieces.len(), "{:?}", used);
        for one in &told {
            prop_assert!(
                pieces.iter().any(|piece| alike(piece, one)),
                "{:?} of {:?}",
                one,
                pieces
            );
        }
        for placed in &used.placements {
            let at = sum.parts.iter().position(|part| part.name == placed.name);
            let at = at.expect("it was asked for");
            let part = &sum.parts[at];
            counts[at] += 1;
            area += placed.width_mm * placed.height_mm;
            let as_given = (part.width_mm, part.height_mm);
            let as_it_lies = if placed.rotated {
                (placed.height_mm, placed.width_mm)
            } else {
                (placed.width_mm, placed.height_mm)
            };
            prop_assert_eq!(as_given, as_it_lies);
            prop_assert!(part.may_rotate || !placed.rotated);
        }
    }
    for (part, count) in sum.parts.iter().zip(&counts) {
        prop_assert_eq!(part.count, *count, "{}", part.name);
    }
    for (sheet, count) in sum.sheets.iter().zip(&opened) {
        prop_assert!(sheet.count.is_none_or(|most| *count <= most));
    }
    prop_assert!(near(answer.cost, cost.to_f64().expect("money")));
    prop_assert!(near(answer.utilisation, area / whole_area));
    prop_assert!(answer.cost >= answer.lower_bound_cost - DUST);
    if let Some(plain) = shelves(sum) {
        prop_assert!(answer.cost <= plain + DUST, "{} over {plain}", answer.cost);
    }
    Ok(())
}

fn any_sheet() -> impl Strategy<Value = CuttingStock> {
    let side = || prop_oneof![3 => (30_u32..250).prop_map(|ten| f64::from(ten) * 10.0), 1 => 300.0..2500.0_f64];
    let price = prop_oneof![1 => Just(0), 6 => 1_i64..2000];
    (side(), side(), price, prop::option::weighted(0.2, 1_u32..4)).prop_map(
        |(width_mm, height_mm, cents, count)| CuttingStock {
            width_mm,
            height_mm,
            price: Decimal::new(cents, 2),
            // What costs nothing is an offcut.
            count: count.or((cents == 0).then_some(1)),
        },
    )
}

prop_compose! {
    fn any_part()(
        long in prop_oneof![20.0..900.0_f64, (2_u32..90).prop_map(|ten| f64::from(ten) * 10.0)],
        wide in prop_oneof![20.0..900.0_f64, (2_u32..90).prop_map(|ten| f64::from(ten) * 10.0)],
        count in 1_u32..5,
        may_rotate in any::<bool>(),
    ) -> CuttingPart {
        CuttingPart { name: String::new(), width_mm: long, height_mm: wide, count, may_rotate }
    }
}

prop_compose! {
    fn any_sum(kinds: std::ops::Range<usize>)(
        sheets in prop::collection::vec(any_sheet(), kinds),
        parts in prop::collection::vec(any_part(), 1..12),
        kerf_mm in prop_oneof![Just(0.0), Just(3.0), 0.0..5.0_f64],
        seed in 0_u64..100,
        effort in 0_u64..60,
    ) -> CuttingSum {
        let named = |(at, part): (usize, CuttingPart)| CuttingPart { name: format!("part {at}"), ..part };
        let parts = parts.into_iter().enumerate().map(named).collect();
        CuttingSum { sheets, parts, kerf_mm, seed, effort, budget_ms: None }
    }
}

/// Two free offcuts hold all of it: nothing is left, by rounding either, that would cost a sheet. 1540 × 680 and 2304.36 × 2470 are
/// 6.74 m², the parts 4.36 m².
#[test]
fn what_free_offcuts_hold_costs_nothing_at_least() {
    let stock = |width_mm, height_mm, cents, count| CuttingStock {
        width_mm,
        height_mm,
        price: Decimal::new(cents, 2),
        count,
    };
    let parts = [
        (760.0, 170.0, 4),
        (20.0, 566.733_004_643_803_5, 1),
        (470.0, 314.551_553_190_558_5, 4),
        (524.812_380_239_070_8, 50.0, 3),
        (766.578_185_352_337_1, 250.922_894_716_008_59, 3),
        (150.0, 701.052_110_179_114_6, 3),
        (880.304_921_252_187_6, 120.0, 3),
        (661.782_752_069_507_8, 610.0, 2),
        (200.0, 235.713_961_680_053_27, 1),
        (390.0, 700.0, 4),
    ];
    let part = |(at, (width_mm, height_mm, count)): (usize, (f64, f64, u32))| CuttingPart {
        name: format!("part {at}"),
        width_mm,
        height_mm,
        count,
        may_rotate: false,
    };
    let sum = CuttingSum {
        sheets: vec![
            stock(1540.0, 680.0, 0, Some(1)),
            stock(2_304.361_460_449_671_5, 2470.0, 0, Some(1)),
            stock(300.0, 300.0, 17, None),
        ],
        parts: parts.into_iter().enumerate().map(part).collect(),
        kerf_mm: 0.124_648_167_876_636_12,
        seed: 0,
        effort: 0,
        budget_ms: None,
    };
    let answer = sum.work().expect("they can be cut");
    assert_eq!((answer.cost, answer.lower_bound_cost), (0.0, 0.0));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(600))]

    #[test]
    fn parts_are_cut_by_the_printed_cuts_at_no_more_than_shelves_and_no_less_than_the_bound(
        sum in any_sum(1..5),
    ) {
        if let Ok(answer) = sum.work() {
            holds(&sum, &answer)?;
            prop_assert_eq!(answer, sum.work().expect("it was cut before"));
        } else {
            // Where one kind holds everything on shelves, it is cut.
            prop_assert_eq!(shelves(&sum), None);
        }
    }

    #[test]
    fn more_effort_never_costs_more(sum in any_sum(1..4), more in 1_u64..200) {
        let greater = CuttingSum { effort: sum.effort + more, ..sum.clone() };
        match (sum.work(), greater.work()) {
            (Ok(lesser), Ok(greater)) => {
                prop_assert!(greater.cost <= lesser.cost + DUST, "{} over {}", greater.cost, lesser.cost);
            }
            (lesser, greater) => prop_assert_eq!(lesser.is_ok(), greater.is_ok()),
        }
    }

    #[test]
    fn one_kind_of_sheet_more_never_costs_more(sum in any_sum(2..5), without in 0_usize..4) {
        let mut fewer = sum.clone();
        fewer.sheets.remove(without % sum.sheets.len());
        if let Ok(fewer) = fewer.work() {
            let more = sum.work().expect("with more there is more");
            prop_assert!(more.cost <= fewer.cost + DUST, "{} over {}", more.cost, fewer.cost);
        }
    }
}

fn sheet(width_mm: f64, height_mm: f64, price: i64) -> CuttingStock {
    CuttingStock {
        width_mm,
        height_mm,
        price: Decimal::from(price),
        count: None,
    }
}

fn part(name: &str, width_mm: f64, height_mm: f64, count: u32) -> CuttingPart {
    CuttingPart {
        name: name.to_owned(),
        width_mm,
        height_mm,
        count,
        may_rotate: true,
    }
}

fn sum(sheets: Vec<CuttingStock>, parts: Vec<CuttingPart>, kerf_mm: f64) -> CuttingSum {
    CuttingSum {
        sheets,
        parts,
        kerf_mm,
        seed: 1,
        effort: 200,
        budget_ms: None,
    }
}

#[test]
fn four_quarters_fill_a_sheet_and_a_saw_needs_a_second_one() {
    // 1000 × 800 holds four of 500 × 400 to the millimetre; with 3 taken by each cut, 2 · 500 + 3 is more than 1000.
    let quarters = |kerf| {
        sum(
            vec![sheet(1000.0, 800.0, 5)],
            vec![part("quarter", 500.0, 400.0, 4)],
            kerf,
        )
    };
    let knife = quarters(0.0).work().expect("it can be cut");
    assert_eq!(
        (knife.sheets_used.len(), knife.sheets_used[0].cuts.len()),
        (1, 3)
    );
    assert!(knife.sheets_used[0].remainder.is_empty());
    assert!((knife.utilisation - 1.0).abs() < 1e-12);
    assert!((knife.cost - 5.0).abs() < 1e-12 && (knife.lower_bound_cost - 5.0).abs() < 1e-12);
    assert_eq!(
        quarters(3.0)
            .work()
            .expect("it can be cut")
            .sheets_used
            .len(),
        2
    );
}

#[test]
fn large_parts_need_a_sheet_each_and_the_bound_knows_it() {
    // Three of 600 × 600: 1.08 m² would go on 1000 × 1000 and a bit, yet no two lie on one. Each counts as a whole sheet.
    let three = sum(
        vec![sheet(1000.0, 1000.0, 4)],
        vec![part("square", 600.0, 600.0, 3)],
        0.0,
    );
    let answer = three.work().expect("it can be cut");
    assert!((answer.cost - 12.0).abs() < 1e-12);
    assert!((answer.lower_bound_cost - 12.0).abs() < 1e-12);
}

#[test]
fn an_offcut_that_costs_nothing_is_taken_before_a_new_sheet() {
    let offcut = CuttingStock {
        count: Some(1),
        ..sheet(700.0, 500.0, 0)
    };
    let one = sum(
        vec![sheet(1600.0, 1200.0, 2), offcut],
        vec![part("board", 600.0, 400.0, 1)],
        0.0,
    );
    let answer = one.work().expect("it can be cut");
    assert_eq!(answer.sheets_used.len(), 1);
    assert_eq!(answer.sheets_used[0].sheet, 1);
    assert!(answer.cost.abs() < 1e-12);
}

#[test]
fn what_is_larger_than_every_sheet_is_named_and_so_are_too_few_sheets() {
    let large = sum(
        vec![sheet(1600.0, 1200.0, 2)],
        vec![
            part("board", 600.0, 400.0, 1),
            part("blank", 1709.0, 662.0, 1),
        ],
        0.0,
    );
    let refusals = large.work().expect_err("larger than every sheet");
    assert_eq!(refusals[0].field, "parts.1");
    assert!(
        refusals[0]
            .message
            .starts_with("blank: larger than every sheet")
    );
    let few = CuttingStock {
        count: Some(1),
        ..sheet(1000.0, 1000.0, 4)
    };
    let refusals = sum(vec![few], vec![part("square", 600.0, 600.0, 3)], 0.0)
        .work()
        .expect_err("one sheet holds one");
    assert_eq!(refusals[0].field, "sheets");
}

#[test]
fn a_search_that_is_stopped_says_so_and_still_cuts_everything() {
    let parts = (0..30)
        .map(|at| {
            part(
                &format!("part {at}"),
                80.0 + 27.0 * f64::from(at),
                900.0 - 23.0 * f64::from(at),
                1,
            )
        })
        .collect();
    let job = sum(vec![sheet(2440.0, 1220.0, 8)], parts, 0.0);
    let answer = job.work_until(&mut || true).expect("it can be cut");
    assert!(answer.stopped_early);
    holds(&job, &answer).expect("it is cut whole");
}

#[test]
fn an_offcut_takes_its_own_area_off_the_bound_and_no_more() {
    // Ten parts of 500 × 500 are 2.5 m². One offcut of 1000 × 500 takes 0.5 of them for nothing; the other 2 m² are two sheets of
    // 1000 × 1000 at 3.00 each.
    let answer = sum(
        vec![
            CuttingStock {
                count: Some(1),
                ..sheet(1000.0, 500.0, 0)
            },
            sheet(1000.0, 1000.0, 3),
        ],
        vec![part("square", 500.0, 500.0, 10)],
        0.0,
    )
    .work()
    .expect("it can be cut");
    assert!(
        (answer.lower_bound_cost - 6.0).abs() < DUST,
        "{}",
        answer.lower_bound_cost
    );
    assert!((answer.cost - 6.0).abs() < DUST, "{}", answer.cost);
}

/// Forty drawn sets of twenty parts on three kinds of sheets.
#[test]
fn ten_times_the_effort_never_costs_more() {
    let mut rng = proptest::test_runner::TestRng::from_seed(
        proptest::test_runner::RngAlgorithm::ChaCha,
        &[7; 32],
    );
    for _ in 0..40 {
        let mut side = || f64::from(80 + rng.next_u32() % 821);
        let parts = (0..20)
            .map(|at| part(&format!("part {at}"), side(), side(), 1))
            .collect();
        let sheets = vec![
            sheet(2440.0, 1220.0, 298),
            sheet(1400.0, 1000.0, 140),
            sheet(1020.0, 760.0, 78),
        ];
        let sum = sum(sheets, parts, 0.0);
        let costs = [10, 100, 1000].map(|effort| {
            let sum = CuttingSum {
                effort,
                ..sum.clone()
            };
            sum.work().expect("every part fits").cost
        });
        assert!(costs.is_sorted_by(|less, more| more <= less), "{costs:?}");
    }
}
