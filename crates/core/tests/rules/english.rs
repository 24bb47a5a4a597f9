//! The English of the rules: what the everyday pieces and the demo say, sentence by sentence.

use hummock_core::shipment::ShipmentInputs;
use serde_json::Value;

use crate::{
    everyday::{Found, all, asked, printed},
    studio::house,
};

/// Nobody takes in a longer sentence at a bench.
const MOST_WORDS: usize = 15;
/// Paper is read sitting down.
const MOST_ON_PAPER: usize = 22;
/// Constructions that are correct and that no native writer would choose.
const FOREIGN: [&str; 17] = [
    " that of ",
    " of which ",
    " so much as ",
    " is said to ",
    " stand against ",
    " stands against ",
    " lie within ",
    " lies within ",
    " goes without ",
    " whose ",
    " whoever ",
    " somebody ",
    " nobody ",
    " would do ",
    " by itself ",
    " in all ",
    " is no ",
];

/// The sentences of a text: a mark ends one where a space follows.
fn sentences(text: &str) -> impl Iterator<Item = &str> {
    let words = text.split_inclusive(char::is_whitespace);
    let mut at = 0;
    let mut ends: Vec<usize> = words
        .filter_map(|word| {
            at += word.len();
            let ends = word.contains('\n') || word.trim_end().ends_with(['.', '?', '!', ':', ';']);
            ends.then_some(at)
        })
        .collect();
    ends.push(text.len());
    ends.into_iter().scan(0, move |from, to| {
        let sentence = &text[*from..to];
        *from = to;
        Some(sentence)
    })
}

/// Lists the faults of a text: foreign constructions, and sentences of more than `most` words.
fn wrong_in(text: &str, most: usize) -> Vec<String> {
    let mut wrong = Vec::new();
    for sentence in sentences(text) {
        let lower = sentence.to_lowercase();
        let words: Vec<&str> = lower
            .split_whitespace()
            .map(|word| word.trim_matches(|one: char| !one.is_alphanumeric()))
            .filter(|word| word.chars().filter(|one| one.is_alphabetic()).count() > 1)
            .collect();
        if words.len() > most {
            wrong.push(format!("{} words: {}", words.len(), sentence.trim()));
        }
        let spaced = format!(" {} ", words.join(" "));
        let found = FOREIGN.iter().filter(|foreign| spaced.contains(*foreign));
        wrong.extend(found.map(|foreign| format!("\"{}\": {}", foreign.trim(), sentence.trim())));
        let asks = sentence.trim().ends_with('?');
        if !asks && words.first().is_some_and(|first| first.starts_with("what")) {
            wrong.push(format!("begins with \"What\": {}", sentence.trim()));
        }
    }
    wrong
}

/// Every text of a value that people read; what somebody typed is theirs.
fn texts<'a>(value: &'a Value, found: &mut Vec<&'a str>) {
    match value {
        Value::String(text) => found.push(text),
        Value::Array(values) => values.iter().for_each(|value| texts(value, found)),
        Value::Object(fields) => {
            for value in fields.values() {
                texts(value, found);
            }
        }
        _ => {}
    }
}

#[test]
fn it_would_be_told_where_it_is_not_plain() {
    assert_eq!(wrong_in("Use a sealed bag.", MOST_WORDS).len(), 0);
    assert_eq!(wrong_in("This is no board.", MOST_WORDS).len(), 1);
    assert_eq!(wrong_in("What it costs.", MOST_WORDS).len(), 1);
    assert_eq!(wrong_in("What does it cost?", MOST_WORDS).len(), 0);
    let long = ["word"; MOST_WORDS + 1].join(" ");
    assert_eq!(wrong_in(&long, MOST_WORDS).len(), 1);
    let broken = format!("Cut it. {}", ["word"; MOST_WORDS].join(" "));
    assert_eq!(wrong_in(&broken, MOST_WORDS).len(), 0);
}

#[test]
fn plans_changes_and_papers_are_in_plain_english() {
    let house = house();
    let demo: Value =
        serde_json::from_str(include_str!("../../../../demo/shipments.json")).expect("JSON");
    let demo = demo["shipments"].as_array().expect("a list").iter();
    let demo = demo
        .filter(|each| serde_json::from_value::<ShipmentInputs>((*each).clone()).is_ok())
        .map(|each| Found::of(asked(each.clone()), &house));
    let (mut read, mut wrong) = (0, Vec::new());
    for found in all().into_iter().chain(demo) {
        let values = [
            serde_json::to_value(&found.worked).expect("JSON"),
            serde_json::to_value(&found.offered).expect("JSON"),
        ];
        let mut said = Vec::new();
        values.iter().for_each(|value| texts(value, &mut said));
        read += said.len();
        wrong.extend(said.iter().flat_map(|text| wrong_in(text, MOST_WORDS)));
        let papers = printed(&found, &house).into_iter();
        let papers = papers.filter(|(paper, _)| *paper != "pack sheet");
        wrong.extend(papers.flat_map(|(_, text)| wrong_in(&text, MOST_ON_PAPER)));
    }
    wrong.sort_unstable();
    wrong.dedup();
    assert!(read > 10_000, "{read}");
    assert!(wrong.is_empty(), "{wrong:#?}");
}
