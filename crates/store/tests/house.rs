//! Rules, stores and presets against a real database: versions, and what two writers do to each other.

use std::sync::Arc;

use hummock_core::{
    material::{MaterialClass, MaterialId},
    shipment::{EDITION, House, ShipmentInputs},
};
use hummock_store::{Computed, NewShipment, Recomputed, SettingRefused, Settings, Store, StudioId};
use sqlx::PgPool;
use uuid::Uuid;

fn house() -> House {
    House {
        rules: serde_json::from_str(include_str!("../../../demo/house-rules.json")).expect("rules"),
        catalogue: serde_json::from_str(include_str!("../../../demo/catalogue.json"))
            .expect("a catalogue"),
        tariffs: Vec::new(),
        presets: Vec::new(),
        references: Arc::default(),
    }
}

async fn studio(pool: PgPool) -> (Store, StudioId) {
    let store = Store::over(pool);
    let settings: Settings =
        serde_json::from_str(include_str!("../../../demo/studio.json")).expect("settings");
    let (studio, _) = store
        .found(&settings, &house())
        .await
        .expect("a studio is founded");
    (store, studio)
}

fn computed(says: &str) -> Computed {
    Computed {
        worked: serde_json::json!({ "says": says, "edition": EDITION }),
        summary: None,
        rules_version: 1,
    }
}

#[sqlx::test]
async fn of_two_changes_of_the_rules_one_is_stale(pool: PgPool) {
    let (store, studio) = studio(pool).await;
    let mut next = house().rules;
    next.version = 2;
    let (one, other) = tokio::join!(
        store.change_rules(studio, &next, &[]),
        store.change_rules(studio, &next, &[])
    );
    assert_eq!([&one, &other].iter().filter(|made| made.is_ok()).count(), 1);
    let refused = one.err().or(other.err()).expect("one of them");
    assert!(
        matches!(refused, SettingRefused::Stale { current: 2 }),
        "{refused:?}"
    );
    assert_eq!(
        store
            .house(studio, Arc::default())
            .await
            .expect("a house")
            .rules
            .version,
        2
    );
}

#[sqlx::test]
async fn of_two_changes_of_the_stores_one_is_stale(pool: PgPool) {
    let (store, studio) = studio(pool).await;
    let less = house()
        .catalogue
        .without(MaterialClass::Tubes, &MaterialId::new("tube-100"));
    let (one, other) = tokio::join!(
        store.change_catalogue(studio, 1, &less, &[]),
        store.change_catalogue(studio, 1, &less, &[])
    );
    assert_eq!([&one, &other].iter().filter(|made| made.is_ok()).count(), 1);
    assert_eq!(store.catalogue_version(studio).await.expect("a version"), 2);
    assert_eq!(
        store
            .house(studio, Arc::default())
            .await
            .expect("a house")
            .catalogue,
        less
    );
}

#[sqlx::test]
async fn what_is_computed_anew_never_lands_on_a_newer_edit(pool: PgPool) {
    let (store, studio) = studio(pool).await;
    let new = NewShipment {
        id: Uuid::now_v7(),
        inputs: ShipmentInputs::default(),
        computed: computed("first"),
    };
    let made = store.create(studio, &new).await.expect("a shipment");
    let inputs = ShipmentInputs {
        title: "Slack Tide".into(),
        ..ShipmentInputs::default()
    };
    store
        .edit(studio, new.id, made.version, &inputs, &computed("edited"))
        .await
        .expect("an edit");
    let anew = |version| Recomputed {
        id: new.id,
        version,
        computed: computed("anew"),
    };
    let says = || async {
        let stored = store.shipment(studio, new.id).await.expect("it answers");
        stored.expect("it is there").computed.worked["says"].clone()
    };
    store
        .recompute(studio, &[anew(made.version)])
        .await
        .expect("it writes");
    assert_eq!(says().await, "edited");
    store
        .recompute(studio, &[anew(made.version + 1)])
        .await
        .expect("it writes");
    assert_eq!(says().await, "anew");
}

#[sqlx::test]
async fn plans_of_an_earlier_edition_are_found(pool: PgPool) {
    let (store, studio) = studio(pool).await;
    let mut old = computed("old");
    old.worked = serde_json::json!({ "says": "old" });
    for (computed, title) in [(old, "old"), (computed("new"), "new")] {
        let inputs = ShipmentInputs {
            title: title.into(),
            ..ShipmentInputs::default()
        };
        let new = NewShipment {
            id: Uuid::now_v7(),
            inputs,
            computed,
        };
        store.create(studio, &new).await.expect("a shipment");
    }
    let found = store.worked_out_before(studio, EDITION).await.expect("ids");
    assert_eq!(found.len(), 1);
    assert_eq!(
        store.catalogue_edition(studio).await.expect("an edition"),
        EDITION
    );
}

#[sqlx::test]
async fn a_preset_of_the_same_name_takes_the_place_of_the_first(pool: PgPool) {
    let (store, studio) = studio(pool).await;
    let mut rules = house().rules;
    rules.name = "Show week".into();
    store.keep_preset(studio, &rules).await.expect("it is kept");
    rules.allowances.second_turns = 0;
    store.keep_preset(studio, &rules).await.expect("it is kept");
    assert_eq!(store.presets(studio).await.expect("presets"), [rules]);
    assert!(
        store
            .drop_preset(studio, "Show week")
            .await
            .expect("it answers")
    );
    assert!(
        !store
            .drop_preset(studio, "Show week")
            .await
            .expect("it answers")
    );
}
