//! Laws of what a shipment chooses: each choice of the table, drawn from the table.

use hummock_core::{
    house::{ChoiceShape, Choices},
    material::MaterialId,
};
use proptest::prelude::*;
use serde_json::json;

use crate::studio::{any_choices, drawn_value, rules};

fn alone(key: &str, value: &serde_json::Value) -> Choices {
    serde_json::from_value(json!({ key: value })).expect("a choice")
}

proptest! {
    #[test]
    fn a_patch_takes_the_place_of_what_it_names_alone(one in any_choices(), other in any_choices()) {
        let both = one.patched(&other);
        // Merged as JSON documents are, in another way than the program does it.
        let written = |choices: &Choices| serde_json::to_value(choices).expect("choices");
        let mut merged = written(&one);
        let whole = merged.as_object_mut().expect("an object");
        for (key, value) in written(&other).as_object().expect("an object") {
            match (whole.get_mut(key), value) {
                (Some(serde_json::Value::Object(there)), serde_json::Value::Object(more)) => {
                    there.extend(more.clone());
                }
                _ => {
                    whole.insert(key.clone(), value.clone());
                }
            }
        }
        prop_assert_eq!(written(&both), merged);
        prop_assert_eq!(both.patched(&other), both.clone());
        prop_assert_eq!(one.patched(&Choices::default()), one);
    }

    #[test]
    fn each_choice_goes_into_the_rules_and_nowhere_else(at in 0.0..1.0_f64) {
        for choice in Choices::EACH {
            // Given together with two others: alone it is refused.
            if choice.key.contains("saved_") || choice.key.starts_with("wrapped_") {
                continue;
            }
            let value = drawn_value(choice, at);
            let chosen = alone(choice.key, &value);
            let made = rules().with(&chosen);
            prop_assert!(made.is_ok(), "{} {value}: {made:?}", choice.key);
            let again = rules().with(&chosen).expect("as before").with(&chosen);
            prop_assert_eq!(made.expect("rules"), again.expect("rules"), "{} twice", choice.key);
            if let ChoiceShape::Material = choice.shape {
                let id = MaterialId::new(value.as_str().expect("an id"));
                prop_assert!(chosen.name_material(&id), "{}", choice.key);
                prop_assert!(!Choices::default().name_material(&id));
            }
        }
    }

    #[test]
    fn a_length_out_of_its_range_is_refused_at_its_field(beyond in 0.1..1000.0_f64) {
        for choice in Choices::EACH {
            let ChoiceShape::Length(range) = choice.shape else { continue };
            for mm in [range().least.as_mm() - beyond, range().most.as_mm() + beyond] {
                prop_assume!(mm != 0.0);
                let refused = rules().with(&alone(choice.key, &json!(format!("{mm:.3} mm"))));
                let fields: Vec<String> = refused.err().into_iter().flatten().map(|one| one.field).collect();
                let field = format!("choices.{}", choice.key);
                prop_assert!(fields.contains(&field), "{field} at {mm}: {fields:?}");
            }
        }
    }
}

#[test]
fn a_choice_stands_once_in_the_table() {
    let mut keys: Vec<&str> = Choices::EACH.iter().map(|choice| choice.key).collect();
    let count = keys.len();
    keys.sort_unstable();
    keys.dedup();
    assert_eq!(keys.len(), count);
}
