use jiff::civil::date;

use super::*;
use crate::{
    pack::PackProgress,
    quantity::Mass,
    shipment::{
        OpenFinding, Workings,
        line::tests::{house, small_canvas},
        summary::WeighedParcel,
    },
};

const TODAY: Date = date(2027, 3, 4);
const READ: &str = "ab12";

/// A packed, weighed parcel of which nothing is in the way.
fn ready() -> (ShipmentInputs, Summary) {
    let mut inputs = small_canvas();
    inputs.promised = Some("2027-03-12".into());
    inputs.sending.addresses_read = Some(READ.into());
    let worked = Workings::out(&inputs, &house()).expect("it works out");
    let summary = worked.summary(&inputs).expect("a plan");
    let packed = PackProgress {
        steps: 9,
        done: 9,
        touched: 0,
        cut: 3,
        to_cut: 0,
        laid: 5,
        stops_left: 0,
    };
    let weighed = WeighedParcel {
        mass: Mass::kg(2.6),
        stands: true,
        as_planned: true,
    };
    let summary = Summary {
        open: Vec::new(),
        promise: Some(PromiseMet::Yes),
        packed: Some(packed),
        weighed: Some(weighed),
        ..summary
    };
    (inputs, summary)
}

fn finding(level: FindingLevel, code: &str) -> OpenFinding {
    OpenFinding {
        level,
        code: code.into(),
        says: format!("It is about {code}."),
    }
}

fn told(inputs: &ShipmentInputs, summary: &Summary, short: &[&str]) -> Vec<(MatterKind, String)> {
    let short: Vec<String> = short.iter().map(ToString::to_string).collect();
    let around = Circumstances {
        today: TODAY,
        telling: Telling::default(),
        short: &short,
        addresses: Addresses {
            lacks: None,
            print: READ,
        },
    };
    let matters = against(inputs, Some(summary), &around);
    let plain = |says: String| says.replace('\u{a0}', " ");
    let told = matters.into_iter().map(|one| (one.kind, plain(one.says)));
    told.collect()
}

#[test]
fn nothing_is_in_the_way_of_a_packed_weighed_and_addressed_parcel() {
    let (inputs, summary) = ready();
    assert_eq!(told(&inputs, &summary, &[]), []);
    let none = Circumstances {
        today: TODAY,
        telling: Telling::default(),
        short: &["card".into()],
        addresses: Addresses {
            lacks: None,
            print: "",
        },
    };
    assert_eq!(
        against(&inputs, None, &none),
        [],
        "nor before there is a plan"
    );
}

/// Kills a swapped pair in [`against`], a Mind among the Stops, and a matter that is left out.
#[test]
fn matters_are_told_in_one_order() {
    let (mut inputs, mut summary) = ready();
    inputs.sending.addresses_read = None;
    summary.open = vec![
        finding(FindingLevel::Stop, "no-board"),
        finding(Mind, "pressed"),
    ];
    summary.cure = Some(Cure {
        cured_on: Some(date(2027, 6, 2)),
        needs: "6 months".into(),
    });
    summary.promise = Some(PromiseMet::Perhaps);
    summary.weighed = None;
    let all = told(&inputs, &summary, &["Glassine", "Card", "Paper tape"]);
    let says: Vec<&str> = all.iter().map(|(_, says)| says.as_str()).collect();
    assert_eq!(
        says,
        [
            "It dries by 2 Jun 2027, but is promised for 12 Mar 2027.",
            "It is about no-board.",
            "It is about pressed.",
            "May arrive after the promised day, 12 Mar 2027.",
            "3 materials short: Glassine, Card and 1 more.",
            "Addresses not checked yet.",
            "Not weighed yet.",
        ]
    );
    assert!(all.is_sorted_by_key(|(kind, _)| *kind));
    // Once it left, it is in nobody's way.
    inputs.sending.handed_over = Some("2027-03-04".into());
    assert_eq!(told(&inputs, &summary, &["Card"]), []);
}

/// Kills `<=` in place of `<` at the promised day, and a promise that is told although it is met.
#[test]
fn a_promise_is_told_where_it_may_not_be_met() {
    let (mut inputs, mut summary) = ready();
    let mut late = |day: &str, met| {
        inputs.promised = Some(day.into());
        summary.promise = met;
        let told = told(&inputs, &summary, &[]);
        told.into_iter().next().map(|(_, says)| says)
    };
    assert_eq!(late("2027-03-04", Some(PromiseMet::Yes)), None);
    assert_eq!(
        late("2027-03-04", Some(PromiseMet::No)).as_deref(),
        Some("Arrives after the promised day, 4 Mar 2027.")
    );
    assert_eq!(
        late("2027-03-03", None).as_deref(),
        Some("Promised for 3 Mar 2027, now overdue.")
    );
    assert_eq!(
        late("2027-03-12", None),
        None,
        "nobody says how long it takes"
    );
}

/// Kills addresses and weight that are asked for before the parcel is packed.
#[test]
fn addresses_and_weight_are_asked_for_once_it_is_packed() {
    let (mut inputs, mut summary) = ready();
    inputs.sending.addresses_read = Some("another".into());
    summary.weighed = None;
    let kinds = |inputs: &ShipmentInputs, summary: &Summary| -> Vec<MatterKind> {
        let told = told(inputs, summary, &[]);
        told.into_iter().map(|(kind, _)| kind).collect()
    };
    assert_eq!(
        kinds(&inputs, &summary),
        [MatterKind::Unread, MatterKind::NotWeighed]
    );
    let packed = summary.packed.as_mut().expect("it is packed");
    packed.stops_left = 1;
    assert_eq!(kinds(&inputs, &summary), []);
}

#[test]
fn what_is_short_is_named_up_to_two() {
    let (inputs, summary) = ready();
    let says = |short: &[&str]| told(&inputs, &summary, short).remove(0).1;
    assert_eq!(says(&["Card"]), "1 material short: Card.");
    assert_eq!(says(&["Card", "Foam"]), "2 materials short: Card, Foam.");
    assert_eq!(
        says(&["Card", "Foam", "Tape", "Film"]),
        "4 materials short: Card, Foam and 2 more."
    );
}
