//! Containers as hands meet them: every one can be made ready, loaded, closed, sealed and opened, and eight of them come to what was
//! worked out by hand.

use hummock_core::{
    act::Act,
    carton::BoxSize,
    container::{BoxPlace, Carton, Container, Use, WayIn, passes},
    house::{CartonStyle, HouseRules, SealRule},
    layer::Layer,
    material::{Catalogue, PictureCarton},
    pack::Stage,
    pack::container_of,
    piece::Piece,
    plan::Plan,
    quantity::{Length, Mass, Telling},
    shipment::{self, House, ShipmentInputs, Workings},
    space::LayerSlot,
};
use jiff::civil::date;
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::studio::{any_catalogue, any_choices, any_piece, everyday, house, refused, rules};

/// A house with three kits more than the demo's: halves for a mirror, trays for a frame, and eight parts.
pub(crate) fn house_with_kits() -> House {
    let kit = |more: Value| -> PictureCarton {
        let mut kit = json!({
            "id": "kit", "name": "Kit", "wall_mm": 4, "stiffness_nm": 5.5, "mass_g": 1900, "price": "9.20",
        });
        for (key, value) in more.as_object().expect("an object") {
            kit[key] = value.clone();
        }
        serde_json::from_value(kit).expect("a kit")
    };
    let mut house = house();
    house.catalogue.picture_cartons.extend([
        kit(json!({
            "id": "halves-1050", "name": "Picture carton of two halves, 560 to 1050 × 820", "parts": 2,
            "longest_mm": 1050, "widest_mm": 820, "deepest_mm": 110, "shortest_mm": 560,
        })),
        kit(json!({
            "id": "trays-140", "name": "Two-tray picture carton 1000 × 760, deep", "parts": 2,
            "longest_mm": 1000, "widest_mm": 760, "deepest_mm": 140,
        })),
    ]);
    house
}

/// An everyday piece with other sides and choices.
pub(crate) fn with(name: &str, sides: [u32; 3], choices: &Value) -> ShipmentInputs {
    let each = everyday().into_iter().find(|each| each.name == name);
    let mut inputs = serde_json::to_value(each.expect(name).inputs).expect("inputs");
    for (key, side) in ["width", "height", "depth"].into_iter().zip(sides) {
        inputs["piece"][key] = json!(format!("{side} mm"));
    }
    for (key, value) in choices.as_object().expect("choices") {
        inputs["choices"][key] = value.clone();
    }
    serde_json::from_value(inputs).expect("inputs")
}

/// The eight, by their names in the list that was worked out by hand; each measured as wrapped, so that its box has the size of the list.
fn by_hand() -> [(&'static str, ShipmentInputs); 8] {
    let wrapped = |sides: [&str; 3], more: Value| {
        let mut choices = json!({
            "wrapped_across": sides[0], "wrapped_up": sides[1], "wrapped_through": sides[2],
        });
        for (key, value) in more.as_object().expect("choices") {
            choices[key] = value.clone();
        }
        choices
    };
    let saved = |sides: [&str; 3]| json!({ "saved_length": sides[0], "saved_width": sides[1], "saved_height": sides[2] });
    let also = |mut choices: Value, key: &str, value: &str| {
        choices[key] = json!(value);
        choices
    };
    let mirror = |kit: &str| {
        let choices = wrapped(["950 mm", "750 mm", "95 mm"], json!({ "bought_box": kit }));
        with("hall mirror", [900, 700, 25], &choices)
    };
    let canvas = |sides, choices: &Value| with("canvas 600 by 800", sides, choices);
    [
        ("mirror 900 × 700 in a set of four", mirror("corners-four")),
        ("mirror 900 × 700 in a set of two", mirror("halves-1050")),
        (
            "picture in two trays",
            with(
                "framed under acrylic",
                [900, 650, 20],
                &wrapped(
                    ["940 mm", "700 mm", "80 mm"],
                    json!({ "bought_box": "two-tray-1000" }),
                ),
            ),
        ),
        (
            "carton of several depths",
            with(
                "small mirror",
                [400, 300, 25],
                &wrapped(
                    ["460 mm", "360 mm", "105 mm"],
                    json!({ "bought_box": "carton-depths" }),
                ),
            ),
        ),
        (
            "edge-opening carton cut down",
            canvas(
                [800, 540, 38],
                &wrapped(
                    ["860 mm", "610 mm", "105 mm"],
                    also(
                        saved(["900 mm", "120 mm", "700 mm"]),
                        "saved_opens",
                        "edge_long",
                    ),
                ),
            ),
        ),
        (
            "carton made shorter, in halves",
            canvas(
                [600, 500, 90],
                &wrapped(
                    ["670 mm", "560 mm", "175 mm"],
                    also(
                        saved(["800 mm", "600 mm", "200 mm"]),
                        "saved_cut",
                        "length_too",
                    ),
                ),
            ),
        ),
        (
            "carton turned inside out",
            canvas(
                [500, 350, 60],
                &wrapped(
                    ["565 mm", "415 mm", "135 mm"],
                    also(
                        saved(["600 mm", "450 mm", "150 mm"]),
                        "saved_face",
                        "inside_out",
                    ),
                ),
            ),
        ),
        (
            "two mailers over a long piece",
            with(
                "tall canvas in a mailer",
                [740, 330, 1],
                &wrapped(
                    ["760 mm", "340 mm", "18 mm"],
                    json!({ "bought_box": "board-mailer-a3" }),
                ),
            ),
        ),
    ]
}

/// What was worked out by hand for one container.
struct ByHand {
    /// How many strips of which length.
    strips: Vec<(u32, f64)>,
    tape_m: f64,
    minutes: f64,
    mass_g: Option<f64>,
    money: Option<f64>,
}

fn read_by_hand(name: &str) -> ByHand {
    let text = include_str!("../../testdata/containers.txt");
    let section = text
        .split("\n# ")
        .find(|section| section.starts_with(name))
        .unwrap_or_else(|| panic!("{name} is in the list"));
    let line = |key: &str| {
        section.lines().find_map(|line| {
            line.strip_prefix(key)
                .and_then(|rest| rest.strip_prefix(' '))
        })
    };
    // What comes after the last equals sign, up to a comma.
    let value = |key: &str| {
        let told = line(key)?.split('=').next_back()?.trim();
        told.split(',').next()?.trim().parse::<f64>().ok()
    };
    let strips = line("strips").expect("its strips").split(", ");
    ByHand {
        strips: strips
            .map(|one| {
                let (count, length) = one.split_once(" × ").expect("a count of strips");
                (
                    count.parse().expect("a count"),
                    length.parse().expect("a length"),
                )
            })
            .collect(),
        tape_m: value("tape").expect("its tape"),
        minutes: value("minutes").expect("its minutes"),
        mass_g: value("mass"),
        money: value("money"),
    }
}

fn near(found: f64, wanted: f64, share: f64) -> bool {
    (found - wanted).abs() <= wanted.abs() * share + 0.006
}

/// It kills: a strip forgotten or laid twice, a part that takes no minute, tape that costs nothing.
#[test]
fn eight_containers_come_to_what_was_worked_out_by_hand() {
    let house = house_with_kits();
    for (name, inputs) in by_hand() {
        let wanted = read_by_hand(name);
        let worked = Workings::out(&inputs, &house).unwrap_or_else(|no| panic!("{name}: {no:?}"));
        let plan = worked.plan.expect("a plan");
        let layer = plan
            .layers
            .iter()
            .find(|layer| layer.slot == LayerSlot::Box)
            .expect("a box");
        let strips: Vec<(u32, f64)> = layer
            .strips
            .iter()
            .map(|strip| (strip.count, strip.length.as_mm()))
            .collect();
        let sorted = |mut strips: Vec<(u32, f64)>| {
            strips.sort_by(|one, other| one.1.total_cmp(&other.1).then(one.0.cmp(&other.0)));
            // Strips of one length are one line of the list.
            let mut told: Vec<(u32, f64)> = Vec::new();
            for (count, length) in strips {
                match told.last_mut() {
                    Some(last) if near(last.1, length, 0.001) => last.0 += count,
                    _ => told.push((count, length)),
                }
            }
            told
        };
        let (found, listed) = (sorted(strips), sorted(wanted.strips));
        assert_eq!(found.len(), listed.len(), "{name}: {found:?} {listed:?}");
        for ((count, length), (of, by_hand)) in found.iter().zip(&listed) {
            assert_eq!(count, of, "{name}: {found:?} {listed:?}");
            assert!(near(*length, *by_hand, 0.01), "{name}: {length} {by_hand}");
        }
        let tape = layer.tape.as_mm() / 1000.0;
        assert!(near(tape, wanted.tape_m, 0.01), "{name}: {tape} m of tape");
        let minutes = layer.minutes.as_min();
        assert!(
            near(minutes, wanted.minutes, 0.01),
            "{name}: {minutes} minutes, not {}",
            wanted.minutes
        );
        if let Some(mass) = wanted.mass_g {
            let found = layer.weight.mass.as_g();
            assert!(near(found, mass, 0.01), "{name}: {found} g, not {mass}");
        }
        if let Some(money) = wanted.money {
            let found: f64 = layer.cost.amount.to_string().parse().expect("an amount");
            assert!(near(found, money, 0.0), "{name}: {found}, not {money}");
        }
    }
}

/// Every container of a plan.
fn containers(plan: &Plan, pieces: &[&Piece], rules: &HouseRules) -> Vec<(LayerSlot, Container)> {
    plan.layers
        .iter()
        .filter_map(|layer: &Layer| {
            let container = container_of(plan, layer, pieces, rules.told_in)?;
            Some((layer.slot, container))
        })
        .collect()
}

/// A carton in place of a box that is cut: bought, or kept.
fn any_instead(catalogue: &Catalogue) -> impl Strategy<Value = Value> + use<> {
    let kits: Vec<String> = catalogue
        .picture_cartons
        .iter()
        .map(|kit| kit.id.to_string())
        .collect();
    let sides = [150.0..2500.0_f64, 100.0..1800.0, 60.0..500.0];
    let cut = prop::option::of(Just("length_too"));
    let face = prop::option::of(Just("inside_out"));
    let opens = prop::sample::select(vec!["face", "edge_long", "edge_short"]);
    prop_oneof![
        Just(json!({})),
        prop::sample::select(CartonStyle::ALL.to_vec())
            .prop_map(|style| json!({ "box_style": style })),
        prop::sample::select(kits).prop_map(|id| json!({ "bought_box": id })),
        (sides, cut, face, opens).prop_map(|([length, width, height], cut, face, opens)| {
            let mut choices = json!({
                "saved_length": format!("{length} mm"), "saved_width": format!("{width} mm"),
                "saved_height": format!("{height} mm"), "saved_opens": opens,
            });
            if let Some(cut) = cut {
                choices["saved_cut"] = json!(cut);
            }
            if let Some(face) = face {
                choices["saved_face"] = json!(face);
            }
            choices
        }),
    ]
}

proptest! {
    /// It kills: a box without its moves, a seam that is sealed never or twice, a side that stays open.
    #[test]
    fn every_container_of_a_plan_can_be_packed_and_opened(
        piece in any_piece(), choices in any_choices(), shelf in any_catalogue(),
        instead in any_instead(&house_with_kits().catalogue),
    ) {
        let instead = serde_json::from_value(instead).expect("choices");
        let choices = choices.patched(&instead);
        let Ok(rules) = rules().with(&choices) else { return refused() };
        let shelf = Catalogue { picture_cartons: house_with_kits().catalogue.picture_cartons, ..shelf };
        let Ok(plan) = Plan::design(&piece, &rules, &shelf) else { return refused() };
        let found = containers(&plan, &[&piece], &rules);
        prop_assert!(found.iter().any(|(slot, _)| *slot == LayerSlot::Box), "a plan has a box");
        for (slot, container) in found {
            prop_assert_eq!(container.faults(), Vec::<String>::new(), "{:?}", slot);
            // What goes in passes the opening.
            let at = plan.layers.iter().position(|layer| layer.slot == slot).expect("a layer");
            let held = plan.layers[..at].last().map_or(plan.layers[at].envelope, |inner| inner.envelope);
            let section = |long, short| match container.way_in {
                WayIn::Face => Some([long, short]),
                WayIn::Edge => Some([long, held.through]),
                WayIn::ShortEdge | WayIn::Halves => Some([short, held.through]),
                WayIn::Blank | WayIn::End => None,
            };
            // A square lies either way, and piles side by side lie as they are made.
            let ways: Vec<_> = [(held.up, held.across), (held.across, held.up)]
                .into_iter()
                .filter_map(|(long, short)| section(long, short))
                .collect();
            if let Some(mouth) = container.mouth {
                let goes = ways.iter().any(|section| passes(*section, mouth));
                prop_assert!(goes || ways.is_empty(), "{:?} through {:?}", ways, mouth);
            }
            // What is torn is what is taped, strip by strip.
            let layer = plan.layers.iter().find(|layer| layer.slot == slot).expect("a layer");
            let of_acts: f64 = container.strips.iter().map(|strip| strip.length.as_mm()).sum();
            let torn: f64 = layer.strips.iter().map(|strip| strip.length.as_mm() * f64::from(strip.count)).sum();
            let cut_through = layer.strips.iter().find(|strip| strip.on.key() == "over each score that was cut");
            let mended = cut_through.map_or(0.0, |strip| strip.length.as_mm() * f64::from(strip.count));
            prop_assert!((of_acts + mended - torn).abs() < 1e-6, "{} {} {}", of_acts, mended, torn);
        }
    }
}

proptest! {
    /// It kills: a flap that no act folds, an act that folds before its turn.
    #[test]
    fn the_acts_of_a_cut_box_fold_its_whole_net(
        style in prop::sample::select(CartonStyle::ALL.to_vec()), sides in [150.0..1500.0_f64, 120.0..1200.0, 40.0..400.0],
        board in 1.5..7.0_f64,
    ) {
        let [length, width, height, caliper] =
            [sides[0].max(sides[1]), sides[0].min(sides[1]), sides[2], board].map(Length::mm);
        let size = BoxSize { length, width, height, caliper };
        let carton = Carton::by_sums(style, size, &rules().allowances, SealRule::H);
        let container = carton.container(&Use {
            what: "the wrapped piece", face: "its face", place: BoxPlace::Only, mass: Mass::kg(4.0), room: Length::ZERO, pane: false, filled: false,
            outside_long: length, telling: Telling::default(),
        });
        for (blank, _) in carton.parts() {
            let steps = container.folding_of(blank);
            prop_assert!(steps.windows(2).all(|two| two[0].folded_to <= two[1].folded_to));
            prop_assert_eq!(steps.last().map(|step| step.folded_to), Some(blank.steps()), "{}", blank.part);
            let turned: usize = steps.iter().map(|step| step.panels.len()).sum();
            prop_assert_eq!(turned + 1, blank.panels.len(), "{}", blank.part);
        }
    }
}

/// What the sheet prints has the same acts as the screen's list, each once and in order. It kills: an act that paper leaves out.
#[test]
fn paper_has_the_same_acts_as_the_screen() {
    let house = house_with_kits();
    let today = date(2026, 11, 30);
    for (name, inputs) in by_hand() {
        let view = shipment::packing(&inputs, &house)
            .unwrap_or_else(|no| panic!("{name}: {no:?}"))
            .expect("a plan");
        let ends = shipment::SheetEnds {
            to: &[],
            from: &[],
            around: shipment::Circumstances {
                today,
                telling: house.rules.told_in,
                short: &[],
                addresses: shipment::Addresses {
                    lacks: None,
                    print: "",
                },
            },
        };
        let sheet = shipment::pack_sheet((&inputs, ends), &house)
            .expect("a plan")
            .expect("a sheet");
        let on_screen: Vec<&str> = view
            .steps
            .iter()
            .filter(|one| one.step.stage != Stage::Cut)
            .flat_map(|one| &one.step.acts)
            .map(|act| act.says.as_str())
            .collect();
        let printed = || sheet.steps.iter().flat_map(|step| &step.acts);
        let same: Vec<&str> = printed().map(|act| act.says.as_str()).collect();
        assert!(on_screen.len() >= 4, "{name}: {on_screen:?}");
        assert_eq!(on_screen, same, "{name}");
        let on_paper: Vec<&str> = printed().map(Act::on_paper).collect();
        let text: String = sheet
            .steps
            .iter()
            .map(|step| format!("{}\n", step.says))
            .collect();
        let mut from = 0;
        for says in &on_paper {
            let times = on_paper.iter().filter(|other| other.contains(says)).count();
            assert_eq!(text.matches(says).count(), times, "{name}: {says}");
            let at = text[from..].find(says);
            from += at.unwrap_or_else(|| panic!("{name}: {says} comes later")) + says.len();
        }
        for step in &sheet.steps {
            assert_eq!(
                step.still.is_some(),
                !step.drawings.is_empty(),
                "{name}: {}",
                step.title
            );
        }
    }
}
