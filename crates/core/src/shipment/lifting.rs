//! What a Stop was lifted for: when that changes, the reason written down no longer answers it.

use serde_json::json;

use super::{House, ShipmentInputs, Workings, uncured::CURE, worked::digested};
use crate::{
    plan::{Finding, FindingAbout, Plan},
    space::LayerSlot,
};

/// How many bytes of the digest tell one state of things from another.
const NOTE_BYTES: usize = 6;

impl ShipmentInputs {
    /// Returns these inputs with a note of what each Stop was lifted for, made when it was lifted or when its reason
    /// was written anew. `before` is what they were, where they were anything.
    pub(super) fn binding_lifts(mut self, before: Option<&Self>, house: &House) -> Self {
        if self.lifted.is_empty() {
            return self;
        }
        for (code, reason) in &self.lifted {
            let written_anew = before.is_some_and(|before| before.lifted.get(code) != Some(reason));
            if written_anew {
                self.lifted_for.remove(code);
            }
        }
        let unbound = self
            .lifted
            .keys()
            .any(|code| !self.lifted_for.contains_key(code));
        if unbound
            && let Ok(Workings {
                plan: Some(plan), ..
            }) = Workings::out(&self, house)
        {
            let stops = plan
                .findings
                .iter()
                .map(|finding| (finding.code, Some(finding)))
                .chain([(CURE, None)]);
            for (code, finding) in stops {
                if self.lifted.contains_key(code) {
                    let note = circumstances(&self, &plan, finding);
                    self.lifted_for.entry(code.to_owned()).or_insert(note);
                }
            }
        }
        self
    }

    /// Returns why a finding of a plan was lifted, while things are as they were then.
    pub(super) fn lifts(&self, plan: &Plan, finding: &Finding) -> Option<&String> {
        self.holds(finding.code, || circumstances(self, plan, Some(finding)))
    }

    /// Returns why paint that has not cured travels all the same, while things are as they were then.
    pub(super) fn lifts_cure(&self, plan: &Plan) -> Option<&String> {
        self.holds(CURE, || circumstances(self, plan, None))
    }

    fn holds(&self, code: &str, now: impl FnOnce() -> String) -> Option<&String> {
        let reason = self.lifted.get(code)?;
        let noted = self.lifted_for.get(code);
        noted.is_none_or(|noted| *noted == now()).then_some(reason)
    }
}

/// Digests what a finding rests on: medium, surface, dates and the sheet that touches; of one about a layer or the
/// parcel, sizes and the layer's material too.
fn circumstances(inputs: &ShipmentInputs, plan: &Plan, finding: Option<&Finding>) -> String {
    let piece = &inputs.piece;
    let material_of = |slot: LayerSlot| {
        let layer = plan.every_layer().find(|layer| layer.slot == slot)?;
        Some(layer.material.clone())
    };
    let more = finding.filter(|finding| finding.about != FindingAbout::Piece);
    let alone = json!([
        piece.construction,
        piece.medium,
        piece.paint,
        piece.condition,
        piece.finished,
        piece.varnished.then_some(&piece.varnished_on),
        material_of(LayerSlot::Contact),
        more.map(|finding| (plan.size, finding.layer.and_then(material_of))),
    ]);
    // A note about one piece says the same as before there could be others.
    let text = if inputs.others.is_empty() {
        alone.to_string()
    } else {
        let others: Vec<_> = inputs.others.values().map(|other| &other.piece).collect();
        json!([others, alone]).to_string()
    };
    digested(text.as_bytes(), NOTE_BYTES)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{
        material::MaterialId,
        piece::{Condition, Construction, Medium, PaintBody},
        shipment::PieceInputs,
    };

    fn house() -> House {
        House {
            rules: serde_json::from_str(include_str!("../../../../demo/house-rules.json"))
                .expect("rules"),
            catalogue: serde_json::from_str(include_str!("../../../../demo/catalogue.json"))
                .expect("a catalogue"),
            tariffs: Vec::new(),
            presets: Vec::new(),
            references: std::sync::Arc::default(),
            now: None,
        }
    }

    fn flaking() -> ShipmentInputs {
        ShipmentInputs {
            piece: PieceInputs {
                construction: Some(Construction::StretchedCanvas),
                width: Some("600 mm".into()),
                height: Some("800 mm".into()),
                depth: Some("38 mm".into()),
                medium: Some(Medium::Oil),
                finished: Some("2026-01-10".into()),
                condition: Condition::Flaking,
                ..PieceInputs::default()
            },
            lifted: [("flaking".to_owned(), "seen by the conservator".to_owned())].into(),
            ..ShipmentInputs::default()
        }
    }

    fn stops(inputs: &ShipmentInputs) -> bool {
        let plan = Workings::out(inputs, &house())
            .expect("it can be planned")
            .plan;
        plan.expect("a plan")
            .findings
            .iter()
            .any(|finding| finding.code == "flaking" && finding.is_open_stop())
    }

    #[test]
    fn another_medium_sheet_or_date_brings_a_lifted_stop_back() {
        let bound = flaking().binding_lifts(None, &house());
        assert!(bound.lifted_for.contains_key("flaking"));
        assert!(!stops(&bound));
        let changes: [fn(&mut ShipmentInputs); 4] = [
            |inputs| inputs.piece.medium = Some(Medium::Acrylic),
            |inputs| inputs.piece.finished = Some("2026-01-11".into()),
            |inputs| inputs.choices.contact_paper = Some(MaterialId::new("release-film")),
            |inputs| inputs.piece.paint = PaintBody::Impasto,
        ];
        for change in changes {
            let mut other = bound.clone();
            change(&mut other);
            let other = other.binding_lifts(Some(&bound), &house());
            assert!(stops(&other), "{other:?}");
            // Put back, the reason holds again; written anew, it holds for things as they are.
            let anew = ShipmentInputs {
                lifted: [("flaking".to_owned(), "seen again".to_owned())].into(),
                ..other.clone()
            };
            assert!(!stops(&anew.binding_lifts(Some(&other), &house())));
        }
    }

    #[test]
    fn a_note_that_was_made_before_there_were_others_still_holds_and_another_piece_asks_anew() {
        // The first six bytes of SHA-256 of ["stretched_canvas","oil","thin","flaking","2026-01-10",null,"glassine",null].
        let bound = flaking().binding_lifts(None, &house());
        assert_eq!(bound.lifted_for["flaking"], "f83f419b9c66");
        let mut other = bound.clone();
        other.others.insert(
            "p2".to_owned(),
            crate::shipment::OtherPiece {
                piece: bound.piece.clone(),
                ..Default::default()
            },
        );
        assert!(stops(&other.binding_lifts(Some(&bound), &house())));
    }

    #[test]
    fn the_same_reason_lifts_it_again_once_its_note_is_taken_away() {
        let bound = flaking().binding_lifts(None, &house());
        let mut other = bound.clone();
        other.piece.medium = Some(Medium::Acrylic);
        other.lifted_for.clear();
        assert!(!stops(&other.binding_lifts(Some(&bound), &house())));
    }

    #[test]
    fn a_title_or_a_wrap_leaves_it_lifted() {
        let bound = flaking().binding_lifts(None, &house());
        let mut other = bound.clone();
        other.title = "Kelp Ladder".into();
        other.choices.first_turns = Some(3);
        assert!(!stops(&other.binding_lifts(Some(&bound), &house())));
    }
}
