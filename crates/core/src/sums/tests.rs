use proptest::prelude::*;
use serde::{Deserialize, Serialize, de::DeserializeOwned};
use serde_json::{Value, json};

use super::*;

fn work<S: Sum + DeserializeOwned>(input: Value) -> Result<Value, Vec<String>>
where
    S::Answer: Serialize,
{
    let sum: S = serde_json::from_value(input).expect("the fields are there");
    sum.work()
        .map(|answer| serde_json::to_value(answer).expect("an answer is JSON"))
        .map_err(|refusals| refusals.into_iter().map(|refusal| refusal.field).collect())
}

#[track_caller]
fn gives<S: Sum + DeserializeOwned>(input: Value, wanted: &[(&str, f64, f64)])
where
    S::Answer: Serialize,
{
    let answer = work::<S>(input).expect("in range");
    for &(path, value, within) in wanted {
        let found = answer
            .pointer(path)
            .and_then(Value::as_f64)
            .unwrap_or_else(|| panic!("{path} in {answer}"));
        assert!(
            (found - value).abs() <= within,
            "{path}: {found} for {value}"
        );
    }
}

#[test]
fn pocket_sheet_and_wrap() {
    // As worked beside their formulas: leg 520/8, walls 24 + 4 + 1 and a board more.
    gives::<CornerPocketSum>(
        json!({ "short_side_mm": 520, "depth_mm": 24, "board_mm": 4 }),
        &[
            ("/leg_mm", 65.0, 0.0),
            ("/wall_a_mm", 29.0, 0.0),
            ("/wall_b_mm", 33.0, 0.0),
            ("/blank_a_mm", 159.0, 0.0),
            ("/blank_b_mm", 163.0, 0.0),
        ],
    );
    gives::<ContactSheetSum>(
        json!({ "width_mm": 900, "height_mm": 1200, "depth_mm": 38, "roll_width_mm": 610 }),
        &[
            ("/sheet_width_mm", 1056.0, 0.0),
            ("/sheet_height_mm", 1356.0, 0.0),
            ("/area_m2", 1.431_936, 1e-12),
            ("/strips", 2.0, 0.0),
            // 144 to spare, under 900/5 + 20: the second width becomes two of (1056 + 40 − 610)/2.
            ("/side_by_side", 3.0, 0.0),
            ("/narrow_width_mm", 243.0, 0.0),
            ("/roll_length_mm", 2712.0, 0.0),
        ],
    );
    gives::<WrapSum>(
        json!({ "across_mm": 520, "along_mm": 700, "depth_mm": 32, "turns": 2, "loaded_thickness_mm": 9 }),
        &[
            ("/length_mm", 3172.0, 0.0),
            ("/width_mm", 674.0, 0.0),
            ("/strips", 1.0, 0.0),
            ("/area_m2", 2.137_928, 1e-12),
        ],
    );
}

#[test]
fn cushions_alone_and_in_series() {
    let cushion = json!({
        "a_kpa": 25.5, "b_m3_per_kj": 0.048, "mass_kg": 3.2, "area_cm2": 180, "thickness_mm": 40,
        "drop_mm": 760, "limit_g": 50,
    });
    gives::<CushionSum>(
        cushion,
        &[
            ("/static_kpa", 1.7434, 5e-5),
            ("/energy_kj_m3", 33.125, 5e-4),
            ("/dynamic_kpa", 125.04, 5e-3),
            ("/peak_g", 71.72, 5e-3),
            ("/survives_mm", 587.54, 5e-3),
            ("/needed_thickness_mm", 51.74, 5e-3),
            ("/best/static_kpa", 1.3863, 5e-5),
            ("/best/thickness_mm", 50.573, 5e-4),
            ("/best/area_cm2", 226.36, 5e-3),
        ],
    );
    let bubble =
        |area| json!({ "a_kpa": 17, "b_m3_per_kj": 0.1, "area_cm2": area, "thickness_mm": 18 });
    let foam = json!({ "a_kpa": 25.5, "b_m3_per_kj": 0.048, "area_cm2": 180, "thickness_mm": 40 });
    for (area, peak) in [(180, 50.318), (400, 48.649)] {
        gives::<SeriesSum>(
            json!({ "mass_kg": 3.2, "drop_mm": 760, "layers": [foam, bubble(area)] }),
            &[("/peak_g", peak, 5e-4)],
        );
    }
}

#[test]
fn a_cushion_past_its_range_has_no_number() {
    let answer = work::<CushionSum>(json!({
        "a_kpa": 17, "b_m3_per_kj": 0.1, "mass_kg": 30, "area_cm2": 100, "thickness_mm": 9,
        "drop_mm": 760, "limit_g": 50, "epsilon_min": 2, "epsilon_max": 18,
    }))
    .expect("in range");
    assert_eq!(
        (&answer["peak_g"], &answer["dynamic_kpa"]),
        (&Value::Null, &Value::Null)
    );
}

#[test]
fn falls_and_the_boundary() {
    let axis = json!({
        "outside_mm": 300, "a_kpa": 25.5, "b_m3_per_kj": 0.048, "area_cm2": 60, "thickness_mm": 40,
        "epsilon_min": 3,
    });
    gives::<FallSum>(
        json!({ "mass_kg": 3.2, "drop_mm": 760, "axes": [axis, axis, axis] }),
        &[("/peak_g", 41.410, 5e-4), ("/shares/0", 1.0 / 3.0, 1e-12)],
    );
    gives::<BoundarySum>(
        json!({ "limit_g": 50, "frequency_hz": 20 }),
        &[
            ("/critical_velocity_m_s", 3.9019, 5e-5),
            ("/survives_mm", 459.33, 5e-3),
        ],
    );
}

#[test]
fn boards_rolls_boxes_and_weights() {
    gives::<PressInSum>(
        json!({ "side_a_mm": 560, "side_b_mm": 740, "stiffness_nm": 18, "stretch_thickness_mm": 6.92 }),
        &[
            ("/alpha", 0.014_325, 5e-7),
            ("/linear_deflection_mm", 24.958, 5e-4),
            ("/deflection_mm", 12.865, 5e-4),
        ],
    );
    gives::<StackSum>(
        json!({ "edge_crush_kn_m": 5, "caliper_mm": 4, "perimeter_mm": 1700 }),
        &[("/bct_n", 2422.7, 0.05), ("/allowed_n", 484.54, 0.01)],
    );
    gives::<RollSum>(
        json!({ "inner_mm": 150, "length_mm": 1000, "thickness_mm": 0.9, "wrap_mm": 18 }),
        &[
            ("/outer_mm", 153.77, 5e-3),
            ("/triangle_side_mm", 337.18, 5e-3),
        ],
    );
    // 80 × 60 × 11 cm = 52 800 cm³/5000 = 10.56, over 3.61; to the next half kilogram 11.0
    gives::<BillableSum>(
        json!({
            "length_mm": 796, "width_mm": 596, "height_mm": 108, "mass_kg": 3.61,
            "divisor_cm3_per_kg": 5000, "size_step_mm": 10, "weight_step_kg": 0.5,
        }),
        &[
            ("/volumetric_kg", 10.56, 1e-9),
            ("/billable_kg", 11.0, 1e-9),
            ("/girth_mm", 1420.0, 1e-9),
            ("/length_plus_girth_mm", 2220.0, 1e-9),
        ],
    );
}

#[test]
fn every_number_out_of_range_is_named() {
    let refused = work::<CushionSum>(json!({
        "a_kpa": 0, "b_m3_per_kj": 0.048, "mass_kg": -1, "area_cm2": 180, "thickness_mm": 40,
        "drop_mm": 760, "epsilon_min": 40, "epsilon_max": 3,
    }));
    assert_eq!(
        refused.expect_err("three are wrong"),
        ["a_kpa", "epsilon_max", "mass_kg"]
    );
    let no_layers = work::<SeriesSum>(json!({ "mass_kg": 1, "drop_mm": 760, "layers": [] }));
    assert_eq!(no_layers.expect_err("none"), ["layers"]);
    let bad_axis = json!({
        "outside_mm": 300, "a_kpa": 25.5, "b_m3_per_kj": 0.048, "area_cm2": 60, "thickness_mm": 0,
    });
    let refused = work::<FallSum>(json!({ "mass_kg": 1, "drop_mm": 760, "axes": [bad_axis] }));
    assert_eq!(
        refused.expect_err("one axis, and flat"),
        ["axes", "axes[0].thickness_mm"]
    );
}

#[test]
fn the_curve_to_draw_has_its_lowest_point_where_practice_puts_it() {
    #[derive(Deserialize)]
    struct At {
        static_kpa: f64,
        peak_g: f64,
    }
    let answer = work::<CurveSum>(json!({
        "a_kpa": 25.5, "b_m3_per_kj": 0.048, "thickness_mm": 50, "drop_mm": 760,
    }))
    .expect("in range");
    let points: Vec<At> =
        serde_json::from_value(answer["points"].clone()).expect("points with numbers");
    let lowest = points
        .iter()
        .min_by(|one, other| one.peak_g.total_cmp(&other.peak_g))
        .expect("there are points");
    // Lowest at ε = 1/b: s = 50/(0.048 × 760) = 1.37; G = e × 25.5 × 0.048 × 760/50 = 50.57
    assert!(
        (lowest.static_kpa - 1.37).abs() < 0.1,
        "{}",
        lowest.static_kpa
    );
    assert!((lowest.peak_g - 50.57).abs() < 0.2, "{}", lowest.peak_g);
}

/// The Standard pack of a canvas 600 × 800 × 38, as the sum of its falls asks for it.
fn canvas_falls() -> Value {
    let bubble = |cm2: f64, mm: f64| json!({ "a_kpa": 17, "b_m3_per_kj": 0.1, "epsilon_min": 2, "area_cm2": cm2, "thickness_mm": mm });
    let kraft = |cm2: f64, mm: f64| json!({ "a_kpa": 20, "b_m3_per_kj": 0.075, "epsilon_min": 3, "area_cm2": cm2, "thickness_mm": mm });
    let card = |cm2: f64, mm: f64| json!({ "a_kpa": 110, "b_m3_per_kj": 0.006, "epsilon_min": 20, "area_cm2": cm2, "thickness_mm": mm });
    json!({
        "mass_kg": 2.6, "parcel_kg": 4.2, "longest_mm": 910,
        "core": { "across_mm": 600, "up_mm": 800, "through_mm": 38 },
        "sides": {
            "front": [card(4800.0, 8.0), bubble(4800.0, 18.0)],
            "back": [card(4800.0, 8.0), bubble(4800.0, 18.0), kraft(4800.0, 10.0)],
            "up": [card(228.0, 12.0), bubble(228.0, 27.0), kraft(228.0, 15.0)],
            "across": [card(304.0, 8.0), bubble(304.0, 27.0), kraft(304.0, 15.0)],
        },
        "limit_g": 50, "frequency_hz": 20, "plane_factor": 2.5, "back_factor": 1,
    })
}

#[test]
fn the_falls_of_a_journey_and_what_presses_in() {
    // As worked beside their formulas.
    gives::<FallsSum>(
        canvas_falls(),
        &[
            ("/flat", 7.700_93e-4, 5e-10),
            ("/edges", 5.307_91e-5, 5e-11),
            ("/parts/corner", 4.721_79e-6, 5e-12),
        ],
    );
    let mut bare = canvas_falls();
    bare["sides"] = json!({});
    // Nothing between it and the floor: the speed alone decides, in its plane too.
    let told = work::<FallsSum>(bare).expect("a bare piece has odds");
    assert!(
        told["edges"].as_f64() > Some(0.01) && told["edges"].as_f64() < Some(1.0),
        "{told}"
    );
    gives::<PressedSum>(
        json!({ "plates": [
            { "stiffness_nm": 5.5, "soft_mm": 40 }, { "stiffness_nm": 5.5, "soft_mm": 18 },
            { "stiffness_nm": 5.5, "soft_mm": 2 },
        ] }),
        &[("/measure", 0.031_278_7, 5e-8)],
    );
    gives::<GlassSum>(
        json!({ "short_side_mm": 1000, "thickness_mm": 3 }),
        &[("/limit_g", 14.620_5, 5e-7), ("/frequency_hz", 22.8, 1e-9)],
    );
    gives::<GlassSum>(
        json!({ "short_side_mm": 500, "kind": "mirror" }),
        &[("/limit_g", 23.104, 1e-9), ("/frequency_hz", 38.0, 1e-9)],
    );
}

#[test]
fn series_fall_with_their_low_branches() {
    gives::<SeriesSum>(
        json!({ "mass_kg": 2.5, "drop_mm": 760, "layers": [
            { "a_kpa": 17, "b_m3_per_kj": 0.1, "epsilon_min": 2, "area_cm2": 2067, "thickness_mm": 18 },
            { "a_kpa": 20, "b_m3_per_kj": 0.075, "epsilon_min": 3, "area_cm2": 2700, "thickness_mm": 40 },
            { "a_kpa": 110, "b_m3_per_kj": 0.006, "epsilon_min": 20, "area_cm2": 2700, "thickness_mm": 4 },
        ] }),
        &[("/force_n", 4057.611, 5e-4), ("/peak_g", 165.504_5, 5e-5)],
    );
}

#[test]
fn the_odds_of_half_the_bubble_across_a_border() {
    let shares = json!({ "flat": 0.15, "edges": 0.35, "pressed": 0.2, "pierced": 0.2, "stacked": 0.05, "damp": 0.05 });
    gives::<OddsSum>(
        json!({
            "base_percent": 0.3, "route": 1.6, "shares": shares,
            "measures": { "flat": 7.70093e-4, "edges": 1.86022e-4, "pressed": 0.0901323, "pierced": 0.103161, "stacked": 1, "damp": 1 },
            "reference": { "flat": 7.70093e-4, "edges": 5.30791e-5, "pressed": 0.0724390, "pierced": 0.0985820, "stacked": 1 },
            "expected_so_far": 1.4, "losses_so_far": 1,
        }),
        &[
            ("/factor", 1.337_605, 5e-6),
            ("/k", 0.925_926, 5e-7),
            ("/probability", 0.005_927_27, 2e-8),
            ("/low", 0.002_311_17, 1e-8),
            ("/high", 0.011_810_0, 5e-8),
        ],
    );
    for (changed, field) in [
        (json!({ "reference": { "flat": 0.0 } }), "reference.flat"),
        (json!({ "route": -1.0 }), "route"),
        (json!({ "shares": { "damp": -0.1 } }), "shares.damp"),
        (json!({ "pieces": 0 }), "pieces"),
    ] {
        let mut sum = json!({ "base_percent": 0.3, "route": 1, "shares": shares });
        for (key, value) in changed.as_object().expect("an object") {
            sum[key] = value.clone();
        }
        assert_eq!(work::<OddsSum>(sum), Err(vec![field.to_owned()]));
    }
    assert_eq!(
        work::<PressedSum>(json!({ "plates": [] })),
        Err(vec!["plates".to_owned()])
    );
}

#[test]
fn six_alike_are_harmed_oftener_than_one_and_old_shares_still_count() {
    // 1 − exp(−0.003 × 6^0.3) = 1 − exp(−0.00513531); shares that leave out what is pierced come to 1 as they stand.
    gives::<OddsSum>(
        json!({
            "base_percent": 0.3, "route": 1, "pieces": 6,
            "shares": { "flat": 0.15, "edges": 0.35, "pressed": 0.4, "stacked": 0.05, "damp": 0.05 },
        }),
        &[
            ("/factor", 1.0, 1e-12),
            ("/probability", 0.005_122_15, 5e-9),
        ],
    );
}

#[test]
fn what_the_odds_are_made_from_in_plain_numbers() {
    // Worked beside their formulas; here by their names.
    gives::<BaseSum>(
        json!({ "kind": "canvas", "size": 1400 }),
        &[("/base_percent", 0.809_341, 5e-7)],
    );
    gives::<BaseSum>(
        json!({ "kind": "mirror", "size": 0.15 }),
        &[("/base_percent", 2.465_13, 5e-6)],
    );
    assert_eq!(
        refused::<BaseSum>(json!({ "kind": "pane", "size": 300 })),
        ["size"]
    );
    gives::<PiercedSum>(
        json!({ "front": { "joules": [4.5, 4.5], "soft_mm": 18 }, "back": { "joules": [4.5, 4.5], "soft_mm": 28 } }),
        &[("/measure", 0.098_582_0, 5e-8)],
    );
    let bare = work::<PiercedSum>(json!({ "front": { "joules": [4.5] } })).expect("a measure");
    assert_eq!(bare, json!({ "measure": null, "unbounded": true }));
    assert_eq!(
        refused::<PiercedSum>(json!({ "back": { "joules": [4.5, -1], "soft_mm": -2 } })),
        ["back.joules[1]", "back.soft_mm"]
    );
    gives::<HarmSum>(
        json!({ "values": [600], "glazed": true, "guarded": true, "fall_part": 0.75, "repair": 50 }),
        &[("/harm", 340.125, 1e-9)],
    );
    gives::<HarmSum>(
        json!({ "values": [1000, 5] }),
        &[("/harm", 1000.0125, 1e-4)],
    );
    assert_eq!(
        refused::<HarmSum>(json!({ "values": [], "fall_part": 2 })),
        ["values", "fall_part"]
    );
}

#[track_caller]
fn refused<S: Sum + DeserializeOwned>(input: Value) -> Vec<String>
where
    S::Answer: Serialize,
{
    work::<S>(input).err().unwrap_or_default()
}

/// A box of a style, 740 × 560 × 90 unless told otherwise.
fn carton(style: &str, caliper: f64, more: Value) -> Value {
    let mut asked = json!({
        "style": style, "length_mm": 740, "width_mm": 560, "height_mm": 90, "caliper_mm": caliper,
    });
    json_patch::merge(&mut asked, &more);
    asked
}

#[test]
fn boxes_of_every_style() {
    // Walls 742 + 94 + 744 + 98 and tab 31; 47 + 568 + 47. Walls 1678 × 568 = 953 104; flaps 2 × 47 × (1678 − 4 × 6)
    // = 155 476; tab 31 × 568 − 31 × 15.5 = 17 127.5: 1 125 707.5 mm².
    gives::<BoxSum>(
        carton("slotted-edge", 4.0, json!({})),
        &[
            ("/blank_width_mm", 1709.0, 0.0),
            ("/blank_height_mm", 662.0, 0.0),
            ("/area_m2", 1.125_707_5, 1e-12),
            ("/slot_mm", 6.0, 0.0),
            ("/tab_mm", 31.0, 0.0),
        ],
    );
    // 742 + 564 + 744 + 568 + 31 = 2649; 282 + 98 + 282 = 662. Walls 2618 × 98 = 256 564; flaps 2 × 282 × (2618 − 24)
    // = 1 463 016; tab 31 × 98 − 31 × 15.5 = 2557.5: 1 722 137.5.
    gives::<BoxSum>(
        carton("slotted-face", 4.0, json!({})),
        &[
            ("/blank_width_mm", 2649.0, 0.0),
            ("/blank_height_mm", 662.0, 0.0),
            ("/blank/runs_up_mm/1", 282.0, 0.0),
            ("/area_m2", 1.722_137_5, 1e-12),
        ],
    );
    // 740 + 180 + 10 by 560 + 180 + 10; lid 750 × 570. Corners 4 × 92.5² = 34 225, ends 4 × 2.5 × 92.5 = 925:
    // 697 500 − 35 150 = 662 350, and the lid 427 500.
    gives::<BoxSum>(
        carton("tray-and-lid", 5.0, json!({})),
        &[
            ("/blank_width_mm", 930.0, 0.0),
            ("/blank_height_mm", 750.0, 0.0),
            ("/parts/1/width_mm", 750.0, 0.0),
            ("/parts/1/height_mm", 570.0, 0.0),
            ("/area_m2", 0.662_35, 1e-12),
            ("/whole_area_m2", 1.089_85, 1e-12),
        ],
    );
    // 740 + 4 + 2 × (94 + 100) by 2 × 564 + 2 × 98.
    gives::<BoxSum>(
        carton("folder", 4.0, json!({})),
        &[
            ("/blank_width_mm", 1132.0, 0.0),
            ("/blank_height_mm", 1324.0, 0.0),
        ],
    );
    // Overlap 0.15 × 1100 = 165, halves 632.5. Inner 1640 + 180 + 14 + 35 = 1869 by 632.5 + 4 + 47; the outer's section
    // 831 × 105: 1662 + 210 + 49 = 1921 by 632.5 + 4 + 54.5. Shortest 632.5, longest 1265/1.15 = 1100.
    gives::<BoxSum>(
        carton(
            "telescope",
            4.0,
            json!({ "length_mm": 1100, "width_mm": 90, "height_mm": 820 }),
        ),
        &[
            ("/blank_width_mm", 1921.0, 1e-9),
            ("/blank_height_mm", 691.0, 1e-9),
            ("/parts/1/width_mm", 1869.0, 1e-9),
            ("/parts/1/height_mm", 683.5, 1e-9),
            ("/least_length_mm", 632.5, 1e-9),
            ("/most_length_mm", 1100.0, 1e-9),
        ],
    );
    // Hole 153.772 + 36 + 4 + 0.9 = 194.672, × √3 = 337.18; four sides and 5.485 × 4 = 21.94: 1370.67; 1000 + 60.
    // A cap's triangle 337.18 + 25.4 + 3 = 365.58 with flaps of 80, each 3.48 back at both ends: the flaps beside it
    // reach 80 × 0.866 − 3.48/2 = 67.54 past the triangle, 365.58 + 135.08 = 500.66 in all.
    gives::<BoxSum>(
        json!({
            "style": "triangular-tube", "outer_roll_mm": 153.772, "length_mm": 1000, "wrap_mm": 18, "sheet_mm": 0.9,
            "caliper_mm": 4,
        }),
        &[
            ("/side_mm", 337.18, 5e-3),
            ("/blank_width_mm", 1370.67, 1e-2),
            ("/blank_height_mm", 1060.0, 1e-9),
            ("/parts/1/count", 2.0, 0.0),
            ("/parts/1/width_mm", 500.66, 1e-2),
        ],
    );
}

#[test]
fn a_tube_has_a_roll_and_a_box_has_sides() {
    assert_eq!(
        refused::<BoxSum>(
            json!({ "style": "triangular-tube", "length_mm": 900, "width_mm": 5, "caliper_mm": 4 })
        ),
        ["outer_roll_mm", "sheet_mm", "width_mm"]
    );
    assert_eq!(
        refused::<BoxSum>(
            json!({ "style": "folder", "length_mm": 900, "sheet_mm": 1, "caliper_mm": 4 })
        ),
        ["width_mm", "height_mm", "sheet_mm"]
    );
    // Two halves overlap by 100 at least.
    let short = json!({ "length_mm": 99.9 });
    assert_eq!(
        refused::<BoxSum>(carton("telescope", 4.0, short.clone())),
        ["length_mm"]
    );
    assert!(refused::<BoxSum>(carton("slotted-edge", 4.0, short)).is_empty());
}

#[test]
fn folding_is_told_step_by_step_and_picture_by_picture() {
    let answer =
        work::<BoxSum>(carton("tray-and-lid", 5.0, json!({ "frames": 2 }))).expect("a box");
    let [tray, lid] = [0, 1].map(|part| &answer["folding"][part]);
    assert_eq!(tray["steps"][1]["says"], "Fold its four walls up.");
    assert_eq!(
        tray["steps"][1]["panels"],
        json!(["lower wall", "upper wall", "left wall", "right wall"])
    );
    assert_eq!(tray["steps"][1]["folded_to"], 1);
    assert_eq!(lid["frames"].as_array().map(Vec::len), Some(1));
    assert!(tray["through_mm"].as_f64().is_some_and(|far| far < 1e-6));
    assert!(
        tray["into_inside_mm"]
            .as_f64()
            .is_some_and(|far| far < 1e-6)
    );
    assert_eq!(lid["into_inside_mm"], Value::Null);
    // Flat, half folded, folded. Its walls are 90 + 2.5 high: the middle of the lower wall's free edge, at (465, 0) on
    // the sheet, comes to stand over its score, which lies 92.5 up the sheet, and half way it hangs out at 45°.
    assert_eq!(tray["frames"].as_array().map(Vec::len), Some(3));
    for (frame, y, z) in [
        (0, 0.0, 0.0),
        (1, 92.5 - 92.5 / 2.0_f64.sqrt(), 92.5 / 2.0_f64.sqrt()),
        (2, 92.5, 92.5),
    ] {
        let rows: [f64; 12] =
            serde_json::from_value(tray["frames"][frame][1].clone()).expect("twelve numbers");
        let at = |row: usize| rows[row * 4] * 465.0 + rows[row * 4 + 3];
        assert!((at(0) - 465.0).abs() < 1e-9, "frame {frame}");
        assert!(
            (at(1) - y).abs() < 1e-9,
            "frame {frame}: {} is not {y}",
            at(1)
        );
        assert!(
            (at(2) - z).abs() < 1e-9,
            "frame {frame}: {} is not {z}",
            at(2)
        );
    }
    assert_eq!(
        refused::<BoxSum>(carton("folder", 4.0, json!({ "frames": 61 }))),
        ["frames"]
    );
}

#[test]
fn a_slotted_box_is_joined_before_its_flaps_are_closed() {
    let answer =
        work::<BoxSum>(carton("slotted-edge", 4.0, json!({ "frames": 1 }))).expect("a box");
    let steps = answer["folding"][0]["steps"].as_array().expect("steps");
    let folds: Vec<(&Value, Vec<&str>)> = steps
        .iter()
        .map(|step| {
            let panels = step["panels"].as_array().into_iter().flatten();
            (
                &step["folded_to"],
                panels.filter_map(Value::as_str).collect(),
            )
        })
        .filter(|(_, panels): &(_, Vec<&str>)| !panels.is_empty())
        .collect();
    // The joint, then the floor, then what closes over the piece; inner flaps before outer ones.
    let flaps =
        |end: &str| ["near", "far", "back", "front"].map(|wall| format!("{wall} {end} flap"));
    let (floor, lid) = (flaps("lower"), flaps("upper"));
    let turned: Vec<Vec<&str>> = folds.iter().map(|(_, panels)| panels.clone()).collect();
    assert_eq!(turned[0], ["near side", "back", "far side", "tab"]);
    assert_eq!(turned[1], floor);
    assert_eq!(turned[2], lid);
    assert_eq!(
        folds.iter().map(|(to, _)| *to).collect::<Vec<_>>(),
        [1, 3, 5]
    );
    let says: Vec<&str> = steps
        .iter()
        .filter_map(|step| step["says"].as_str())
        .collect();
    assert_eq!(says[1], "Fold it to a ring, its tab outside.");
    assert_eq!(
        says[7],
        "Fold the short flaps in, then the long ones over them; they close without force."
    );
}

#[test]
fn a_tube_is_closed_by_its_last_side() {
    let tube = json!({
        "style": "triangular-tube", "outer_roll_mm": 80, "length_mm": 600, "sheet_mm": 0.3, "caliper_mm": 3, "frames": 1,
    });
    let answer = work::<BoxSum>(tube).expect("a tube");
    let steps = &answer["folding"][0]["steps"];
    assert_eq!(
        steps[0]["panels"],
        json!(["second side", "third side", "lap"])
    );
    assert_eq!(
        steps[1]["says"],
        "Tape the edge of the last side to the first, along the whole tube."
    );
    // Its caps are folded and pushed over it, and it stays closed.
    let folded: Vec<&Value> = steps
        .as_array()
        .into_iter()
        .flatten()
        .map(|step| &step["folded_to"])
        .collect();
    assert!(folded.iter().all(|to| **to == 3), "{folded:?}");
    assert_eq!(answer["blanks"][1]["laps_over"], Value::Null);
}

const STYLES: [&str; 5] = [
    "slotted-edge",
    "slotted-face",
    "tray-and-lid",
    "folder",
    "telescope",
];

proptest! {
    #[test]
    fn a_box_of_any_size_is_answered_with_nets(
        style in prop::sample::select(STYLES.to_vec()), powers in [0.0..4.0_f64, 0.0..4.0_f64, 0.0..4.0_f64],
        board in -2.0..2.69_f64,
    ) {
        let [l, w, h] = powers.map(|power| 10.0_f64.powf(power));
        let sum: BoxSum = serde_json::from_value(json!({
            "style": style, "length_mm": l.max(100.0), "width_mm": w, "height_mm": h, "caliper_mm": 10.0_f64.powf(board),
        })).expect("a sum");
        let answer = sum.work().expect("it is in range");
        prop_assert!(answer.blank_width_mm.is_finite() && answer.whole_area_m2 >= answer.area_m2);
        for blank in &answer.blanks {
            prop_assert_eq!(blank.check(), Ok(()));
        }
        for net in &answer.nets {
            prop_assert!(net.panels.iter().any(|panel| panel.name == net.root));
            prop_assert_eq!(net.hinges.len() + 1, net.panels.len());
        }
    }
}
