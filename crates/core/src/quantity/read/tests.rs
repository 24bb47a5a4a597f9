use super::*;

#[track_caller]
fn reads(text: &str, bare: LengthUnit, millimetres: f64) {
    let read = read_length(text, bare).unwrap_or_else(|error| panic!("{text}: {error}"));
    let off = (read.length.as_mm() - millimetres).abs();
    assert!(
        off < 0.005 + 1e-9,
        "{text} read as {}, wanted {millimetres}",
        read.length.as_mm()
    );
}

#[test]
fn lengths_are_read_as_people_write_them() {
    // Kept to 0.01 mm, so a reading is within 0.005 of the sum.
    // 24 3/16 in = 24.1875 × 25.4 = 614.3625; 2 ft 1/4 in = 609.6 + 6.35 = 615.95
    for (text, bare, millimetres) in [
        ("61.5", LengthUnit::Mm, 61.5),
        ("61,5", LengthUnit::Cm, 615.0),
        ("61.5 cm", LengthUnit::Mm, 615.0),
        ("615mm", LengthUnit::In, 615.0),
        ("0.9 m", LengthUnit::Mm, 900.0),
        ("24 3/16\"", LengthUnit::Mm, 614.3625),
        ("24-3/16 in", LengthUnit::Mm, 614.3625),
        ("24 3⁄16 in.", LengthUnit::Mm, 614.3625),
        ("2' 1/4\"", LengthUnit::Mm, 615.95),
        ("2ft 0.25in", LengthUnit::Mm, 615.95),
        ("5' 6", LengthUnit::Mm, 1676.4),
        ("2’ 6”", LengthUnit::Mm, 762.0),
        ("6''", LengthUnit::Mm, 152.4),
        ("⅜", LengthUnit::In, 9.525),
        ("1⅜ in", LengthUnit::Mm, 34.925),
        ("35 ½", LengthUnit::In, 901.7),
        ("35\u{a0}1/2\u{a0}in", LengthUnit::Mm, 901.7),
        (".5 in", LengthUnit::Mm, 12.7),
        ("0,125 in", LengthUnit::Mm, 3.175),
        ("  1200 MM ", LengthUnit::In, 1200.0),
        ("1 m 20 cm", LengthUnit::Mm, 1200.0),
    ] {
        reads(text, bare, millimetres);
    }
}

#[test]
fn a_text_that_is_not_a_length_is_refused_by_the_part_that_is_wrong() {
    for (text, error) in [
        ("", ReadError::Empty),
        (" \u{a0}", ReadError::Empty),
        ("wide", ReadError::NotUnderstood("wide".into())),
        ("12 ells", ReadError::UnknownUnit("ells".into())),
        ("-5 mm", ReadError::Negative("-5 mm".into())),
        ("3/0 in", ReadError::BadFraction("3/0".into())),
        ("3/ in", ReadError::BadFraction("/in".into())),
        ("1.5/2 in", ReadError::BadFraction("1.5/2".into())),
        (
            "1,200",
            ReadError::AmbiguousComma(
                crate::quantity::AmbiguousComma::in_number("1,200").expect("two readings"),
            ),
        ),
        ("1.2.3", ReadError::NotUnderstood("1.2.3".into())),
        ("35 47 mm", ReadError::TwoNumbers("35 47 mm".into())),
        ("6 in 2 ft", ReadError::TwoNumbers("6 in 2 ft".into())),
        ("2.5 1/2 in", ReadError::TwoNumbers("2.5".into())),
        ("<b>12</b>", ReadError::NotUnderstood("<b>12</b>".into())),
        ("1e3", ReadError::UnknownUnit("e".into())),
    ] {
        assert_eq!(read_length(text, LengthUnit::Mm), Err(error), "{text}");
    }
    assert_eq!(
        read_length(&"9".repeat(81), LengthUnit::Mm),
        Err(ReadError::TooLong)
    );
}

#[test]
fn three_sides_share_the_unit_that_is_written_last() {
    // 35.5 × 25.4 = 901.7; 47.25 × 25.4 = 1200.15; 1.5 × 25.4 = 38.1
    let sides = read_lengths("35 1/2 x 47 1/4 x 1 1/2 in", 3, LengthUnit::Mm).expect("three sides");
    let millimetres: Vec<f64> = sides.iter().map(|side| side.length().as_mm()).collect();
    for (read, wanted) in millimetres.iter().zip([901.7, 1200.15, 38.1]) {
        assert!((read - wanted).abs() < 1e-9, "{read} for {wanted}");
    }
    let texts: Vec<&str> = sides.iter().map(TypedLength::text).collect();
    assert_eq!(texts, ["35 1/2 in", "47 1/4 in", "1 1/2 in"]);
}

#[test]
fn three_sides_may_mix_units_and_marks() {
    for (text, wanted) in [
        ("900 × 1200 × 38", [900.0, 1200.0, 38.0]),
        ("90 cm by 1200 mm by 1 1/2\"", [900.0, 1200.0, 38.1]),
        ("900 mm*1200*38", [900.0, 1200.0, 38.0]),
        ("3' x 4' x 1.5in", [914.4, 1219.2, 38.1]),
    ] {
        let sides =
            read_lengths(text, 3, LengthUnit::Mm).unwrap_or_else(|error| panic!("{text}: {error}"));
        for (side, wanted) in sides.iter().zip(wanted) {
            assert!(
                (side.length().as_mm() - wanted).abs() < 1e-9,
                "{text}: {}",
                side.length().as_mm()
            );
        }
    }
}

#[test]
fn two_sides_or_feet_beside_a_bare_number_are_refused() {
    assert_eq!(
        read_lengths("900 x 1200", 3, LengthUnit::Mm),
        Err(ReadError::WrongCount {
            wanted: 3,
            found: 2
        })
    );
    assert_eq!(
        read_lengths("3' x 4' x 2", 3, LengthUnit::Mm),
        Err(ReadError::UnitNeeded("2".into()))
    );
    assert_eq!(
        read_lengths("900 x  x 38", 3, LengthUnit::Mm),
        Err(ReadError::Empty)
    );
}
