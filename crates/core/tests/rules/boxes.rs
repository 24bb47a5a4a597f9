//! Every style of box, folded as slabs: it closes, it holds what it is made for, and it is cut as it is drawn.

use glam::{DAffine3, DMat3, DVec3};
use hummock_core::{
    carton::{
        Blank, BoxSize, Folder, Half, Hinge, Point, SavedCarton, SlitTray, SlottedEdge,
        SlottedFace, Solid, Telescope, Tray, TriangularTube,
    },
    house::{Allowances, CartonStyle, Choices, SavedCut, SealRule},
    layer::{CardPocket, Make},
    piece::{Construction, Medium},
    plan::Plan,
    quantity::Length,
    space::{LayerSlot, Opens},
    sums::{BoxSum, Sum},
};
use proptest::{prelude::*, test_runner::FileFailurePersistence};
use serde_json::Value;

/// Binary dust, in millimetres.
const DUST: f64 = 1e-6;
/// A panel may bite into one that it does not hang on by half of its board: board gives that much.
const GIVES: f64 = 0.01;

/// Short sides come as often as long ones.
fn any_side() -> impl Strategy<Value = f64> {
    (1.5..3.4_f64).prop_map(|power| 10.0_f64.powf(power))
}

/// Sides in any order of size, and a board.
fn any_inside() -> impl Strategy<Value = [f64; 4]> {
    let depth = prop_oneof![2.0..60.0_f64, any_side()];
    (any_side(), any_side(), depth, 1.0..8.0_f64).prop_map(|(l, w, h, c)| [l, w, h, c])
}

fn mm(lengths: [f64; 4]) -> [Length; 4] {
    lengths.map(Length::mm)
}

fn size(inside: [f64; 4]) -> BoxSize {
    let [length, width, height, caliper] = mm(inside);
    BoxSize {
        length,
        width,
        height,
        caliper,
    }
}

fn edge(inside: [f64; 4]) -> SlottedEdge {
    SlottedEdge(size(inside))
}

fn face(inside: [f64; 4]) -> SlottedFace {
    SlottedFace(size(inside))
}

fn tray(inside: [f64; 4]) -> Tray {
    Tray(size(inside))
}

fn folder(inside: [f64; 4]) -> Folder {
    Folder::meeting(size(inside))
}

fn telescope([x, a, b, c]: [f64; 4]) -> Telescope {
    let [length, a, b, caliper] = mm([x.max(100.0), a, b, c]);
    Telescope::new(length, [a, b], caliper)
}

fn tube([roll, other, _, c]: [f64; 4]) -> TriangularTube {
    let [hole, other, caliper] = [roll, other, c].map(Length::mm);
    TriangularTube::around(hole.max(Length::mm(40.0)), other, caliper)
}

/// It is a net, it closes, and the room inside stays free.
fn closes(blank: &Blank, room: Option<&Solid>, caliper: f64) -> Result<(), TestCaseError> {
    prop_assert_eq!(blank.check(), Ok(()));
    let folded = blank.folded(blank.steps().into());
    let board = Length::mm(caliper);
    if let Some((far, names)) = folded.furthest_through(board) {
        prop_assert!(far <= caliper / 2.0 + GIVES, "{:?} by {}", names, far);
    }
    if let Some(room) = room {
        let reach = folded.reach_into(room, board);
        prop_assert!(reach < DUST, "a panel reaches {} into the inside", reach);
    }
    Ok(())
}

/// What is left of the rectangle when what a style takes out is taken out, in mm².
fn left_over(blank: &Blank, out: f64) -> f64 {
    blank.width.as_mm() * blank.height.as_mm() - out
}

fn is_near(found: f64, wanted: f64) -> Result<(), TestCaseError> {
    let dust = wanted.abs().max(1.0) * 1e-9;
    prop_assert!(
        (found - wanted).abs() <= dust,
        "{} is not {}",
        found,
        wanted
    );
    Ok(())
}

/// What is cut out of a slotted blank, of `ends` rows of flaps: the corners beside the tab and its bevels, a slot at
/// each of three scores, the whole of one beside the tab, and what the inner flaps are shorter.
fn cut_out(inside: [f64; 3], depth: f64, c: f64, ends: f64) -> f64 {
    let [along, across, _] = inside;
    let (tab, slot, flap) = ((35.0 - c).max(c), c + 2.0, (across + c) / 2.0);
    let bevel = (tab / 2.0).min(depth / 4.0);
    let shorter = (flap - (along + c) / 2.0).max(0.0);
    let inner = (across + c - slot) + (across + 2.0 * c - 1.5 * slot);
    tab * bevel + ends * (tab * flap + 4.0 * slot * flap + shorter * inner)
}

fn kept() -> ProptestConfig {
    ProptestConfig {
        failure_persistence: Some(Box::new(FileFailurePersistence::Direct(
            "tests/rules/boxes.regressions",
        ))),
        ..ProptestConfig::default()
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 1500, ..kept() })]

    #[test]
    fn a_box_that_opens_on_an_edge_closes_around_what_it_holds(inside in any_inside()) {
        let (made, allowances) = (edge(inside), Allowances::default());
        closes(&made.blank(&allowances), Some(&made.room(&allowances)), inside[3])?;
    }

    #[test]
    fn a_box_that_opens_on_the_face_closes_around_what_it_holds(inside in any_inside()) {
        let (made, allowances) = (face(inside), Allowances::default());
        closes(&made.blank(&allowances), Some(&made.room(&allowances)), inside[3])?;
    }

    #[test]
    fn a_tray_closes_around_what_it_holds(inside in any_inside()) {
        let made = tray(inside);
        closes(&made.blank(), Some(&made.room()), inside[3])?;
        prop_assert_eq!(made.lid().check(), Ok(()));
    }

    #[test]
    fn a_folder_closes_around_what_it_holds(inside in any_inside()) {
        let made = folder(inside);
        closes(&made.blank(), Some(&made.room()), inside[3])?;
    }

    #[test]
    fn a_folder_whose_lids_lap_closes_around_what_it_holds(inside in any_inside()) {
        // Each lid reaches 40 past the middle: what a box has no room for is refused, whatever else its size.
        let [_, w, _, c] = inside;
        let refused = CartonStyle::FolderLapped.unfit(size(inside));
        prop_assert!((w + c) / 2.0 + 40.0 <= w || refused.is_some());
        if refused.is_some() { return Ok(()) }
        let made = Folder::lapped(size(inside));
        let blank = made.blank();
        closes(&blank, Some(&made.room()), inside[3])?;
        let [l, w, h, c] = inside;
        let tuck = (l / 3.0).min(100.0);
        is_near(blank.width.as_mm(), l + c + 2.0 * (h + c + tuck))?;
        is_near(blank.height.as_mm(), 2.0 * (w + c) + 2.0 * (h + 2.0 * c) + 80.0 + c)?;
    }

    #[test]
    fn a_slit_tray_closes_around_what_it_holds(inside in any_inside()) {
        // The long walls lie a board past the base, in the corner squares: a shallower tray has none, and is refused.
        let refused = CartonStyle::SlitTray.unfit(size(inside));
        prop_assert!(inside[2] > inside[3] || refused.is_some());
        if inside[2] <= inside[3] { return Ok(()) }
        let made = SlitTray(size(inside));
        closes(&made.blank(), Some(&made.room()), inside[3])?;
        let [l, w, h, c] = inside;
        let blank = made.blank();
        is_near(blank.width.as_mm(), l + 2.0 * h)?;
        is_near(blank.height.as_mm(), w + 2.0 * h)?;
        // Its corner squares go, but for the board that each long wall reaches into them.
        is_near(blank.area.as_m2() * 1e6, left_over(&blank, 4.0 * h * h - 4.0 * h * c))?;
        prop_assert_eq!(made.lid().check(), Ok(()));
    }

    #[test]
    fn a_tray_goes_over_a_tray_with_a_millimetre_at_each_end(inside in any_inside()) {
        let made = tray(inside);
        let over = made.tray_over();
        closes(&over.blank(), Some(&over.room()), inside[3])?;
        let [l, w, h, c] = inside;
        let lid = over.0;
        is_near(lid.length.as_mm(), l + 2.0 * c + 2.0)?;
        is_near(lid.width.as_mm(), w + 2.0 * c + 2.0)?;
        is_near(lid.height.as_mm(), (h + c).min(40.0))?;
        // Set over it base to top, no panel of one meets one of the other.
        let base = solids(&made.blank(), made.0.caliper);
        let wall = h + c / 2.0;
        let lid_wall = lid.height.as_mm() + c / 2.0;
        let middle = |wall: f64, long: f64, short: f64| DVec3::new(wall + long / 2.0, wall + short / 2.0, 0.0);
        let from = middle(lid_wall, lid.length.as_mm() + c, lid.width.as_mm() + c);
        let to = middle(wall, l + c, w + c) + DVec3::Z * (h + c);
        let turned = DAffine3::from_translation(to)
            * DAffine3::from_rotation_x(std::f64::consts::PI)
            * DAffine3::from_translation(-from);
        for panel in solids(&over.blank(), lid.caliper) {
            let panel = panel.moved(&turned);
            prop_assert!(base.iter().all(|wall| wall.through(&panel) < DUST));
        }
    }

    #[test]
    fn every_strip_of_a_seal_lies_on_the_box_and_more_seams_take_more_tape(inside in any_inside()) {
        let size = size(inside);
        let tape_return = Length::mm(50.0);
        for style in CartonStyle::ALL {
            let beyond = style.beyond(size);
            let outside = [
                size.length + beyond.length[0] + beyond.length[1],
                size.width + beyond.width[0] + beyond.width[1],
                size.height + beyond.front + beyond.back,
            ];
            let mut taken = 0.0;
            for rule in [SealRule::H, SealRule::EverySeam, SealRule::Covered] {
                let strips = style.seal(size, tape_return, rule);
                for strip in &strips {
                    prop_assert!(strip.length > tape_return * 2.0 || strip.filament, "{:?}: {:?}", style, strip);
                    let lies = |ends: &[[Length; 3]], way: usize, end: f64| {
                        let at = outside[way].as_mm() * end;
                        ends.iter().all(|place| (place[way].as_mm() - at).abs() < DUST)
                    };
                    for ends in strip.path_mm.windows(2) {
                        let on_a_side = (0..3).any(|way| lies(ends, way, 0.0) || lies(ends, way, 1.0));
                        prop_assert!(on_a_side, "{:?}: {:?}", style, strip);
                    }
                    for (place, far) in strip.path_mm.iter().flat_map(|at| at.iter().copied().zip(outside)) {
                        prop_assert!(place >= Length::ZERO && place.as_mm() <= far.as_mm() + DUST);
                    }
                }
                let all: f64 = strips.iter().map(|strip| strip.length.as_mm()).sum();
                prop_assert!(all > taken, "{:?} with {:?}", style, rule);
                taken = all;
            }
        }
    }

    #[test]
    fn a_carton_that_was_cut_down_reads_as_a_carton_of_that_depth(inside in any_inside(), share in 0.0..1.0_f64) {
        let [l, w, _, c] = inside;
        let allowances = Allowances::default();
        let old = size([l, w, inside[2].max(60.0), c]);
        let least = (c * 3.0).max(15.0);
        let height = (old.height.as_mm() - least) * share + 1.0;
        prop_assume!(old.height.as_mm() - height >= least);
        let saved = SavedCarton(old);
        let cut = saved.cut_to_depth(Length::mm(height), &allowances).expect("it can be cut");
        // The knife goes over the old blank: what lies above the new scores comes down by as much, flaps and all.
        let mut blank = saved.blank(&allowances);
        let top = blank.runs_up[2];
        for point in blank.panels.iter_mut().flat_map(|panel| &mut panel.outline) {
            if point.y.as_mm() > top.as_mm() - DUST { point.y = point.y - cut.below; }
        }
        for hinge in &mut blank.hinges {
            for end in [&mut hinge.from, &mut hinge.to] {
                if end.y.as_mm() > top.as_mm() - DUST { end.y = end.y - cut.below; }
            }
        }
        // The tab's bevel is cut anew where it would reach past its wall.
        prop_assume!(blank.check().is_ok());
        let wanted = face([l, w, height, c]);
        closes(&blank, Some(&wanted.room(&allowances)), c)?;
        let flap = blank.panels.iter().find(|panel| panel.name == "first upper flap").expect("a flap");
        let long = flap.outline.iter().map(|at| at.y.as_mm()).fold(0.0, f64::max) - (top - cut.below).as_mm();
        is_near(long, cut.flap.as_mm())?;
    }

    #[test]
    fn a_sleeve_closes_around_what_it_makes_room_for(inside in any_inside(), share in 0.0..=1.0_f64, board in 1.0..8.0_f64) {
        let [l, w, h, c] = inside;
        let old = h.max(80.0);
        let less = board * 2.0 + 2.0;
        prop_assume!(l > less + board + 4.0 && w > less + board + 4.0);
        let height = old + 20.0 + (old - 20.0) * share;
        let saved = SavedCarton(size([l, w, old, c]));
        let sleeve = saved.made_deeper(Length::mm(height), Length::mm(board)).expect("a sleeve");
        let blank = sleeve.blank(&Allowances::default());
        closes(&blank, Some(&sleeve.room()), board)?;
        // It goes into the carton with a millimetre at each side, and its flaps close over the wanted depth: the carton's
        // cut edge stands a board above its inside and the old depth, and 80 of the sleeve lie below that.
        let made = sleeve.inside();
        is_near(made.length.as_mm() + board * 2.0 + 2.0, l)?;
        is_near(made.width.as_mm() + board * 2.0 + 2.0, w)?;
        is_near(old + c - 80.0 + sleeve.wall().as_mm() - board, height)?;
    }

    #[test]
    fn both_halves_of_a_telescope_close(inside in any_inside()) {
        let (made, allowances) = (telescope(inside), Allowances::default());
        for half in [Half::Outer, Half::Inner] {
            closes(&made.blank(half, &allowances), Some(&made.room(half, &allowances)), inside[3])?;
        }
    }

    #[test]
    fn a_triangular_tube_closes_around_its_roll(inside in any_inside()) {
        let made = tube(inside);
        closes(&made.blank(), Some(&made.room()), inside[3])?;
        closes(&made.cap(), None, inside[3])?;
    }

    #[test]
    fn a_corner_pocket_closes_around_its_corner(
        leg in 25.0..200.0_f64, depth in prop_oneof![0.5..50.0_f64, 50.0..300.0_f64], board in 0.5..8.0_f64,
    ) {
        prop_assume!(leg > board / 2.0 + 1.0);
        let [long, deep, caliper, play] = [leg, depth, board, 1.0].map(Length::mm);
        let pocket = CardPocket::fold(long, deep, caliper, play);
        let net = pocket.net();
        closes(&net.blank(), Some(&net.room(deep)), board)?;
        let told = net.blank().told();
        prop_assert_eq!(&told[2].says, "Fold toward you: tab. Tape the tab outside wall B.");
        // It is cut to what is weighed, and drawn as it is cut.
        is_near(net.blank().area.as_m2() * 1e6, pocket.area().as_m2() * 1e6)?;
        for [from, to] in pocket.lines.scores_mm {
            let far = |one: Point, [x, y]: [Length; 2]| {
                (one.x - x).as_mm().hypot((one.y - y).as_mm())
            };
            let lies = |hinge: &Hinge| far(hinge.from, from) < DUST && far(hinge.to, to) < DUST;
            let folds = net.blank().hinges.iter().any(lies);
            prop_assert!(folds, "{:?} to {:?} is no score of the net", from, to);
        }
    }

    #[test]
    fn what_it_holds_has_no_room_to_move(inside in any_inside(), way in 0..6_usize) {
        let allowances = Allowances::default();
        let by = DVec3::AXES[way % 3] * if way < 3 { 0.1 } else { -0.1 };
        let by = DAffine3::from_translation(by);
        for (blank, room) in [
            (edge(inside).blank(&allowances), edge(inside).room(&allowances)),
            (face(inside).blank(&allowances), face(inside).room(&allowances)),
            (folder(inside).blank(), folder(inside).room()),
        ] {
            let folded = blank.folded(blank.steps().into());
            let reach = folded.reach_into(&room.moved(&by), Length::mm(inside[3]));
            prop_assert!((reach - 0.1).abs() < DUST, "{}: {}", blank.part, reach);
        }
    }

    #[test]
    fn scores_hold_together_however_far_it_is_folded(inside in any_inside(), share in 0.0..1.0_f64) {
        let allowances = Allowances::default();
        let telescope = telescope(inside);
        for blank in [
            edge(inside).blank(&allowances), face(inside).blank(&allowances), tray(inside).blank(),
            folder(inside).blank(), telescope.blank(Half::Outer, &allowances), tube(inside).blank(), tube(inside).cap(),
        ] {
            let step = share * f64::from(blank.steps());
            let matrices = blank.folded(step).matrices();
            for hinge in &blank.hinges {
                let [on, panel] = hinge.between;
                let folded = (step - f64::from(hinge.step) + 1.0).clamp(0.0, 1.0);
                let lift = blank.panels[panel].lift.as_mm() * folded;
                for end in [hinge.from, hinge.to] {
                    let at = DVec3::new(end.x.as_mm(), end.y.as_mm(), 0.0);
                    let off = DVec3::new(at.x, at.y, -lift);
                    let [one, other] = [placed(&matrices[on], at), placed(&matrices[panel], off)];
                    prop_assert!(one.distance(other) < DUST, "{} tears", blank.panels[panel].name);
                }
            }
        }
    }

    #[test]
    fn a_telescope_is_set_to_every_length_of_its_range(inside in any_inside(), share in 0.0..=1.0_f64) {
        let (made, allowances) = (telescope(inside), Allowances::default());
        let [least, most] = made.range().map(Length::as_mm);
        prop_assert!(least <= made.length.as_mm() + DUST && made.length.as_mm() <= most + DUST);
        let set = least + (most - least) * share;
        let overlap = made.half().as_mm() * 2.0 - set;
        prop_assert!(overlap >= 100.0 - DUST && overlap >= 0.15 * set - DUST, "they overlap by {}", overlap);
        let inner = slid(&made, set);
        let outer = solids(&made.blank(Half::Outer, &allowances), made.caliper);
        for (one, other) in outer.iter().flat_map(|one| inner.iter().map(move |other| (one, other))) {
            prop_assert!(one.through(other) < DUST);
        }
        // The whole length is free in both, in the section of the inner half.
        let [along, across] = made.section(Half::Inner);
        let at = inner_corner(&made);
        let free = Solid::cuboid(at.to_array().map(Length::mm), [along, Length::mm(set), across]);
        for one in outer.iter().chain(&inner) {
            prop_assert!(one.through(&free) < DUST);
        }
    }

    #[test]
    fn a_cap_goes_over_its_tube(inside in any_inside()) {
        let made = tube(inside);
        let (side, c) = (made.side.as_mm(), made.caliper.as_mm());
        // The cap's middle comes over that of the tube outside: two boards below, one at either other side.
        let middle = DVec3::new(side / 2.0, 0.0, c / 2.0 + side / 12.0_f64.sqrt() - c * 2.0 / 3.0);
        let cap = made.cap();
        let end = &cap.panels[cap.root].outline;
        let of_end = end.iter().map(|at| DVec3::new(at.x.as_mm(), at.y.as_mm(), 0.0)).sum::<DVec3>() / 3.0;
        let over = DAffine3::from_mat3_translation(
            DMat3::from_cols(DVec3::X, DVec3::Z, -DVec3::Y),
            middle + DVec3::Y * (made.length.as_mm() + c / 2.0),
        ) * DAffine3::from_translation(-of_end);
        let sides = solids(&made.blank(), made.caliper);
        for flap in solids(&cap, made.caliper) {
            let flap = flap.moved(&over);
            prop_assert!(sides.iter().all(|side| side.through(&flap) < DUST));
        }
    }

    #[test]
    fn what_is_cut_is_the_sheet_less_what_is_cut_out(inside in any_inside()) {
        let [l, w, h, c] = inside;
        prop_assume!(l > c + 12.0 && w > c + 12.0 && h > c + 12.0);
        let allowances = Allowances::default();
        let area = |blank: &Blank| blank.area.as_m2() * 1e6;
        let blank = edge(inside).blank(&allowances);
        is_near(area(&blank), left_over(&blank, cut_out([l, h, w], w + 2.0 * c, c, 2.0)))?;
        let blank = face(inside).blank(&allowances);
        is_near(area(&blank), left_over(&blank, cut_out([l, w, h], h + 2.0 * c, c, 2.0)))?;
        let made = telescope(inside);
        let [a, b] = made.section(Half::Inner).map(Length::as_mm);
        let blank = made.blank(Half::Inner, &allowances);
        is_near(area(&blank), left_over(&blank, cut_out([a, b, 0.0], made.half().as_mm() + c, c, 1.0)))?;
        // A square at each corner, and half a board at both ends of the two walls between.
        let blank = tray(inside).blank();
        let wall = h + c / 2.0;
        is_near(area(&blank), left_over(&blank, 4.0 * wall * wall + 2.0 * wall * c))?;
        // Beside the ends and tucks all that is not W − 2 wide; beside the walls and lids all but L + 2c.
        let made = folder(inside);
        let (blank, reach) = (made.blank(), h + c + made.tuck().as_mm());
        let beside = blank.height.as_mm() - (w - 2.0);
        let past = (h + 2.0 * c + (w + c) / 2.0) * (reach - c / 2.0) * 2.0;
        let between = reach * beside * 2.0;
        is_near(area(&blank), left_over(&blank, between - (2.0 * reach * 2.0 * (h + 2.0 * c + (w + c) / 2.0)) + past * 2.0))?;
        let blank = tube(inside).blank();
        is_near(area(&blank), left_over(&blank, 0.0))?;
    }
}

/// What a carton has to hold: what is around the piece before its box, and before what fills the box.
fn held_by(plan: &Plan) -> [Length; 3] {
    let wrapped = plan
        .layers
        .iter()
        .rev()
        .find(|layer| layer.slot < LayerSlot::BoxPapers);
    let filled = wrapped.expect("a wrap").envelope;
    let upright = plan.size.height >= plan.size.width;
    let (long, short) = if upright {
        (filled.up, filled.across)
    } else {
        (filled.across, filled.up)
    };
    [long, short, filled.through]
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, ..kept() })]

    #[test]
    fn a_carton_of_the_pile_holds_what_it_is_taken_for_on_each_side_that_it_opens(
        piece in (150.0..1200.0_f64, 150.0..1200.0_f64, 10.0..60.0_f64),
        opens in prop::sample::select(Opens::ALL.to_vec()),
        share in (0.9..1.6_f64, 0.9..1.6_f64, 0.5..2.2_f64),
        cut in prop::sample::select(vec![SavedCut::Depth, SavedCut::LengthToo]),
    ) {
        let canvas = crate::studio::piece(Construction::StretchedCanvas, [piece.0, piece.1, piece.2], Medium::Acrylic);
        let (rules, shelf) = (crate::studio::rules(), crate::studio::catalogue());
        let cut_box = Plan::design(&canvas, &rules, &shelf).expect("a plan");
        let held = held_by(&cut_box);
        let [along, across, deep] = opens.in_carton(held).map(Length::as_mm);
        let sides = [along * share.0, across * share.1, deep * share.2];
        let [length, width, height] = sides.map(|side| Some(format!("{side:.2} mm")));
        let choices = Choices {
            saved_length: length,
            saved_width: width,
            saved_height: height,
            saved_opens: Some(opens),
            saved_cut: Some(cut),
            ..Choices::default()
        };
        let Ok(chosen) = rules.with(&choices) else { return Err(TestCaseError::reject("no such carton")) };
        match Plan::design(&canvas, &chosen, &shelf) {
            Ok(plan) => {
                let layer = plan.layers.iter().find(|layer| layer.slot == LayerSlot::Box).expect("a box");
                let Make::SavedBox(saved) = &layer.make else { panic!("{:?}", layer.make) };
                // It holds what is around the piece, and closes as slabs.
                let room = opens.around_art(saved.inside_mm);
                for (room, held) in room.into_iter().zip(held_by(&plan)) {
                    prop_assert!(room >= held - Length::mm(0.01), "{:?} in {:?}", held, room);
                }
                closes(&saved.blank, None, saved.caliper.as_mm())?;
                prop_assert_eq!(layer.make.way_in(), Some(opens.way_in()));
            }
            Err(refusals) => {
                prop_assert!(refusals.iter().any(|one| one.field == "choices.saved_length"), "{:?}", refusals);
                // By force: neither as it is nor with any sleeve, by the millimetre, would it hold that.
                let c = 4.0;
                let goes = |inside: [f64; 3]| inside[0] >= along && inside[1] >= across && inside[2] >= deep;
                prop_assert!(cut == SavedCut::LengthToo || !goes(sides));
                let sleeved = |depth: f64| goes([sides[0] - 2.0 * c - 2.0, sides[1] - 2.0 * c - 2.0, depth]);
                let mut depth = sides[2] + 20.0;
                while cut == SavedCut::Depth && sides[2] >= 80.0 && depth <= sides[2] * 2.0 {
                    prop_assert!(!sleeved(depth), "a sleeve of {} does", depth);
                    depth += 1.0;
                }
            }
        }
    }
}

fn placed(rows: &[[f64; 4]; 3], at: DVec3) -> DVec3 {
    DVec3::from(rows.map(|[x, y, z, by]| DVec3::new(x, y, z).dot(at) + by))
}

fn solids(blank: &Blank, caliper: Length) -> Vec<Solid> {
    let folded = blank.folded(blank.steps().into());
    (0..blank.panels.len())
        .map(|panel| folded.slab(panel, caliper))
        .collect()
}

/// Where the room of a half begins: beside the second wall, over the flaps, above the third wall.
fn room_corner(made: &Telescope, half: Half) -> DVec3 {
    let [along, across] = made.section(half).map(Length::as_mm);
    let c = made.caliper.as_mm();
    DVec3::new(
        along + c / 2.0 + across + c + c / 2.0,
        (across + c) / 2.0 + c,
        c / 2.0,
    )
}

/// Where the inner half's section begins in the outer half: a board and half the play further in on each side.
fn inner_corner(made: &Telescope) -> DVec3 {
    let c = made.caliper.as_mm();
    room_corner(made, Half::Outer) + DVec3::new(c + 1.5, 0.0, c + 1.5)
}

/// The panels of the inner half, turned about so that its closed end lies a length from that of the outer half.
fn slid(made: &Telescope, set: f64) -> Vec<Solid> {
    let [along, _] = made.section(Half::Inner).map(Length::as_mm);
    let from = room_corner(made, Half::Inner);
    let about = DAffine3::from_rotation_z(std::f64::consts::PI);
    let to = inner_corner(made) + DVec3::new(along, set, 0.0);
    let by = DAffine3::from_translation(to) * about * DAffine3::from_translation(-from);
    let blank = made.blank(Half::Inner, &Allowances::default());
    solids(&blank, made.caliper)
        .iter()
        .map(|panel| panel.moved(&by))
        .collect()
}

#[test]
fn slabs_that_pass_through_each_other_are_found() {
    let cube = |at: [f64; 3]| Solid::cuboid(at.map(Length::mm), [Length::mm(10.0); 3]);
    let one = cube([0.0, 0.0, 0.0]);
    // Sides that touch are apart; 3 in x and 8 in y and z overlap: 3 would part them.
    assert!(one.through(&cube([10.0, 0.0, 0.0])).abs() < DUST);
    assert!((one.through(&cube([7.0, 2.0, 2.0])) - 3.0).abs() < DUST);
    // Turned by 45° about z its corner reaches 10/√2 = 7.071 from its middle line; its middle stands at 16: 1.071.
    let turned = DAffine3::from_translation(DVec3::new(16.0, 5.0, 0.0))
        * DAffine3::from_rotation_z(std::f64::consts::FRAC_PI_4)
        * DAffine3::from_translation(DVec3::new(-5.0, -5.0, 0.0));
    assert!((one.through(&one.moved(&turned)) - 1.071_067_811_865).abs() < DUST);
}

#[test]
fn a_slot_centred_on_the_tabs_score_would_not_close() {
    // The fourth wall's flaps give half a slot more where the tab laps: into the first wall, which lies a board in.
    let made = edge([400.0, 300.0, 80.0, 6.0]);
    let mut blank = made.blank(&Allowances::default());
    let right = blank.runs_across[4].as_mm();
    let flaps = blank
        .panels
        .iter_mut()
        .filter(|panel| panel.name.starts_with("far") && panel.name.ends_with("flap"));
    for flap in flaps {
        let edge = flap
            .outline
            .iter()
            .map(|at| at.x.as_mm())
            .fold(0.0, f64::max);
        for at in flap
            .outline
            .iter_mut()
            .filter(|at| at.x.as_mm() > edge - 1.0)
        {
            at.x = Length::mm(right - 4.0);
        }
    }
    // Its score goes along with it, so that it is still a net.
    let (far, names) = blank
        .folded(blank.steps().into())
        .furthest_through(Length::mm(6.0))
        .expect("it does not close");
    assert!(far > 3.0 + GIVES, "{far}");
    assert!(names.contains(&"back"), "{names:?}");
}

/// What the page's own tests fold: they draw what the core says, and are told by this test when it says otherwise.
#[test]
fn the_page_folds_what_the_core_folds() {
    let sum: BoxSum = serde_json::from_value(serde_json::json!({
        "style": "folder", "length_mm": 400, "width_mm": 300, "height_mm": 60, "caliper_mm": 4, "frames": 2,
    }))
    .expect("a sum");
    let answer = serde_json::to_value(sum.work().expect("in range")).expect("JSON");
    let path = concat!(
        env!("CARGO_MANIFEST_DIR"),
        "/../../web/src/test/folder.json"
    );
    if std::env::var_os("HUMMOCK_WRITE").is_some() {
        std::fs::write(path, format!("{answer}\n")).expect("it can be written");
    }
    let kept = std::fs::read_to_string(path).expect("it is there");
    let kept: Value = serde_json::from_str(&kept).expect("JSON");
    assert!(
        is_alike(&kept, &answer),
        "web/src/test/folder.json is behind: run this test with HUMMOCK_WRITE=1"
    );
}

/// Alike but for binary dust, which another processor may leave.
fn is_alike(one: &Value, other: &Value) -> bool {
    match (one, other) {
        (Value::Number(one), Value::Number(other)) => {
            let numbers = one.as_f64().zip(other.as_f64());
            numbers.is_some_and(|(one, other)| (one - other).abs() < DUST)
        }
        (Value::Array(one), Value::Array(other)) => {
            one.len() == other.len()
                && one
                    .iter()
                    .zip(other)
                    .all(|(one, other)| is_alike(one, other))
        }
        (Value::Object(one), Value::Object(other)) => {
            let known = |(key, value): (&String, &Value)| {
                other.get(key).is_some_and(|other| is_alike(value, other))
            };
            one.len() == other.len() && one.iter().all(known)
        }
        _ => one == other,
    }
}
