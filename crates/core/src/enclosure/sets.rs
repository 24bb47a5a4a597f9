//! What goes in by custom of the house: sets, each for some kinds of pieces.

use serde::{Deserialize, Serialize};

use super::{Enclosed, Enclosure, EnclosureKind, HEAVIEST_G, THICKNESS};
use crate::{Refusal, Refusals, odds::PieceClass, quantity::Length};

/// A set of the house: all that it lists goes into every shipment that it is for.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct EnclosureSet {
    /// What the studio calls it.
    pub name: String,
    /// For pieces of these kinds; of any, when none is named.
    pub classes: Vec<PieceClass>,
    /// Only where a certificate goes with the piece.
    pub with_certificate: bool,
    /// Only where the shipment is a gift.
    pub gifts: bool,
    /// What goes in.
    pub list: Vec<ListedEnclosure>,
}

/// Something that a set lists.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ListedEnclosure {
    /// What shipments call it by: small letters, digits and hyphens, its own in all sets.
    pub key: String,
    /// What it is and where it lies.
    #[serde(flatten)]
    pub enclosure: Enclosure,
}

/// What a set is asked about.
#[derive(Debug, Clone, Copy)]
pub(crate) struct SetAsked {
    pub class: PieceClass,
    pub certificate: bool,
    pub gift: bool,
}

const MOST_SETS: usize = 20;
const MOST_LISTED: usize = 12;
const LONGEST_NAME: usize = 60;
const LONGEST_KEY: usize = 24;

impl EnclosureSet {
    pub(crate) fn is_for(&self, asked: SetAsked) -> bool {
        (self.classes.is_empty() || self.classes.contains(&asked.class))
            && (!self.with_certificate || asked.certificate)
            && (!self.gifts || asked.gift)
    }

    /// Returns what it brings.
    pub(crate) fn brings(&self) -> impl Iterator<Item = Enclosed> + '_ {
        self.list.iter().map(|listed| Enclosed {
            key: listed.key.clone(),
            enclosure: listed.enclosure.clone(),
            set: Some(self.name.clone()),
        })
    }
}

/// Returns the sets that a studio starts with: a certificate where one goes with the piece, a card where it is a gift.
/// Source: workshop custom.
#[must_use]
pub fn shipped_sets() -> Vec<EnclosureSet> {
    let listed = |kind: EnclosureKind, key: &str| ListedEnclosure {
        key: key.to_owned(),
        enclosure: Enclosure::usual(kind),
    };
    vec![
        EnclosureSet {
            name: EVERY_SALE.to_owned(),
            ..EnclosureSet::default()
        },
        EnclosureSet {
            name: "With a certificate".to_owned(),
            with_certificate: true,
            list: vec![listed(EnclosureKind::Certificate, "certificate")],
            ..EnclosureSet::default()
        },
        EnclosureSet {
            name: "Gifts".to_owned(),
            gifts: true,
            list: vec![listed(EnclosureKind::Card, "gift-card")],
            ..EnclosureSet::default()
        },
    ]
}

/// Has things of some kinds go into every parcel, and nothing else: the list that is for every piece then holds these. Certificates have a
/// list of their own, which is for every piece, or only for those with a certificate.
/// Source: workshop custom.
pub fn goes_into_every_parcel(sets: &mut Vec<EnclosureSet>, kinds: &[EnclosureKind]) {
    let always = kinds.contains(&EnclosureKind::Certificate);
    let of_certificates = |set: &&mut EnclosureSet| {
        let mut list = set.list.iter();
        list.any(|one| one.enclosure.kind == EnclosureKind::Certificate)
    };
    for set in sets.iter_mut().filter(of_certificates) {
        set.with_certificate = !always;
    }
    let is_for_all = |set: &EnclosureSet| {
        set.classes.is_empty() && !set.with_certificate && !set.gifts && {
            let mut list = set.list.iter();
            list.all(|one| one.enclosure.kind != EnclosureKind::Certificate)
        }
    };
    let at = sets.iter().position(is_for_all).unwrap_or_else(|| {
        sets.push(EnclosureSet {
            name: EVERY_SALE.to_owned(),
            ..EnclosureSet::default()
        });
        sets.len() - 1
    });
    let mut list: Vec<ListedEnclosure> = Vec::new();
    for &kind in kinds {
        let known = list.iter().any(|one| one.enclosure.kind == kind);
        if kind != EnclosureKind::Certificate && !known {
            list.push(ListedEnclosure {
                key: format!("every-{}", key_of(kind)),
                enclosure: Enclosure::usual(kind),
            });
        }
    }
    sets[at].list = list;
}

/// What a line of the list for every piece is called by after its kind.
const fn key_of(kind: EnclosureKind) -> &'static str {
    match kind {
        EnclosureKind::Certificate => "certificate",
        EnclosureKind::Note => "note",
        EnclosureKind::Card => "card",
        EnclosureKind::Slip => "slip",
        EnclosureKind::Sample => "sample",
        EnclosureKind::Gift => "gift",
        EnclosureKind::HangingKit => "hanging-kit",
        EnclosureKind::Other => "other",
    }
}

/// Name of the list that is for every piece.
const EVERY_SALE: &str = "Every sale";

/// Tells whether a text may name something that goes in.
pub(crate) fn is_key(text: &str) -> bool {
    let plain = |byte: u8| byte.is_ascii_lowercase() || byte.is_ascii_digit() || byte == b'-';
    (1..=LONGEST_KEY).contains(&text.len()) && text.bytes().all(plain)
}

/// Checks the sets that a studio wrote.
pub(crate) fn sets_refused(sets: &[EnclosureSet]) -> Vec<Refusal> {
    if sets.len() > MOST_SETS {
        let says = format!("{} sets given: keep at most {MOST_SETS}", sets.len());
        return vec![Refusal::new("enclosures", says)];
    }
    let mut refusals = Refusals::default();
    let mut keys: Vec<&str> = Vec::new();
    for (at, set) in sets.iter().enumerate() {
        if !(1..=LONGEST_NAME).contains(&set.name.trim().chars().count()) {
            let says = format!("give the set a name of 1 to {LONGEST_NAME} characters");
            refusals.refuse(format!("enclosures[{at}].name"), says);
        }
        if set.list.len() > MOST_LISTED {
            let says = format!("a set lists at most {MOST_LISTED} things");
            refusals.refuse(format!("enclosures[{at}].list"), says);
        }
        for (line, listed) in set.list.iter().enumerate() {
            let field = |name: &str| format!("enclosures[{at}].list[{line}].{name}");
            if !is_key(&listed.key) || keys.contains(&listed.key.as_str()) {
                let says = format!(
                    "its key has up to {LONGEST_KEY} lower-case letters and digits, and must be unique"
                );
                refusals.refuse(field("key"), says);
            }
            keys.push(&listed.key);
            refusals.extend(enclosure_refused(&listed.enclosure, field));
        }
    }
    refusals.into()
}

/// Checks one thing that goes in; `field` names its fields.
pub(crate) fn enclosure_refused(
    enclosure: &Enclosure,
    field: impl Fn(&str) -> String,
) -> Vec<Refusal> {
    let mut refusals = Refusals::default();
    if enclosure.name.chars().count() > LONGEST_NAME || enclosure.name.chars().any(char::is_control)
    {
        let says = format!("give it a name of up to {LONGEST_NAME} characters");
        refusals.refuse(field("name"), says);
    }
    if !(Length::ZERO..=THICKNESS.most).contains(&enclosure.thickness) {
        let most = THICKNESS.most.as_mm();
        let says = format!("give a thickness from 0 to {most} mm: {}", THICKNESS.remedy);
        refusals.refuse(field("thickness_mm"), says);
    }
    if !(0.0..=HEAVIEST_G).contains(&enclosure.mass.as_g()) {
        let says = format!("give its weight, from 0 to {HEAVIEST_G} g");
        refusals.refuse(field("mass_g"), says);
    }
    if let Some(says) = enclosure.misplaced() {
        refusals.refuse(field("place"), says);
    }
    refusals.into()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::house::HouseRules;

    fn brought(sets: &[EnclosureSet], certificate: bool) -> Vec<EnclosureKind> {
        let asked = SetAsked {
            class: PieceClass::Canvas,
            certificate,
            gift: false,
        };
        let fitting = sets.iter().filter(|set| set.is_for(asked));
        let all = fitting.flat_map(EnclosureSet::brings);
        let mut kinds: Vec<_> = all.map(|one| one.enclosure.kind).collect();
        kinds.sort();
        kinds
    }

    /// Kills a certificate that goes in twice, a list that keeps what was there before, and one that is made a second time.
    #[test]
    fn what_goes_into_every_parcel_goes_in_once() {
        use EnclosureKind::{Card, Certificate, Note};
        let mut sets = shipped_sets();
        let before = sets.len();
        goes_into_every_parcel(&mut sets, &[Card, Certificate, Note, Card]);
        assert_eq!(brought(&sets, false), [Certificate, Note, Card]);
        assert_eq!(brought(&sets, true), [Certificate, Note, Card]);
        assert_eq!(sets_refused(&sets), []);
        goes_into_every_parcel(&mut sets, &[]);
        assert_eq!((brought(&sets, false), sets.len()), (vec![], before));
        assert_eq!(brought(&sets, true), [Certificate]);
        // A house without such a list has one from then on.
        let mut none = Vec::new();
        goes_into_every_parcel(&mut none, &[Note]);
        goes_into_every_parcel(&mut none, &[Card]);
        assert_eq!((brought(&none, false), none.len()), (vec![Card], 1));
        let rules = HouseRules {
            enclosures: std::sync::Arc::new(none),
            ..serde_json::from_str(include_str!("../../../../demo/house-rules.json"))
                .expect("rules")
        };
        assert!(rules.check().is_ok());
    }
}
