//! Rules, stores and presets against a real database: versions, and what two writers do to each other.

use std::{sync::Arc, time::Duration};

use hummock_core::{
    house::HouseRules,
    material::{MaterialClass, MaterialId},
    shipment::{EDITION, House, ShipmentInputs},
};
use hummock_store::{
    Computed, Edit, HouseVersion, NewShipment, Place, Recomputed, SettingRefused, Settings, Store,
    StudioStore, WriteRefused, Written,
};
use sqlx::PgPool;
use test_context::test_context;
use uuid::Uuid;

use crate::Tables;

fn house() -> House {
    House {
        rules: serde_json::from_str(include_str!("../../../../demo/house-rules.json"))
            .expect("rules"),
        catalogue: serde_json::from_str(include_str!("../../../../demo/catalogue.json"))
            .expect("a catalogue"),
        tariffs: Vec::new(),
        presets: Vec::new(),
        references: Arc::default(),
        now: None,
    }
}

pub(crate) async fn studio(pool: PgPool) -> StudioStore {
    let store = Store::over(pool);
    let settings: Settings =
        serde_json::from_str(include_str!("../../../../demo/studio.json")).expect("settings");
    let (studio, _) = store
        .create_studio("studio", &settings, &house())
        .await
        .expect("a studio is created");
    store.of(studio)
}

fn computed(says: &str, house: HouseVersion) -> Computed {
    Computed {
        worked: Written::of(&serde_json::json!({ "says": says, "edition": EDITION })),
        summary: None,
        rules_version: 1,
        house,
    }
}

async fn version(store: &StudioStore) -> HouseVersion {
    store.house_version().await.expect("a house")
}

async fn made(store: &StudioStore) -> Uuid {
    let new = NewShipment {
        edit: None,
        handed: None,
        id: Uuid::now_v7(),
        inputs: ShipmentInputs::default(),
        computed: computed("first", version(store).await),
    };
    store.create(&new).await.expect("a shipment").id
}

async fn says(store: &StudioStore, id: Uuid) -> String {
    let stored = store.shipment(id).await.expect("it answers");
    let worked = stored.expect("it is there").computed.worked.read();
    worked["says"].as_str().unwrap_or_default().to_owned()
}

/// Moves the house on by keeping a preset.
async fn move_on(store: &StudioStore) -> HouseVersion {
    let seen = version(store).await;
    store
        .keep_preset(seen, &house().rules)
        .await
        .expect("it is kept");
    version(store).await
}

const LEASE: Duration = Duration::from_secs(3600);

#[test_context(Tables)]
#[tokio::test]
async fn of_two_changes_of_the_rules_one_is_stale(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let seen = version(&store).await;
    let mut next = house().rules;
    next.version = 2;
    let (one, other) = tokio::join!(
        store.change_rules(seen, &next),
        store.change_rules(seen, &next)
    );
    assert_eq!([&one, &other].iter().filter(|made| made.is_ok()).count(), 1);
    let refused = one.err().or(other.err()).expect("one of them");
    assert!(
        matches!(refused, SettingRefused::Stale { current: 2 }),
        "{refused:?}"
    );
    let now = store.house(Arc::default()).await.expect("a house");
    assert_eq!(now.house.rules.version, 2);
}

#[test_context(Tables)]
#[tokio::test]
async fn of_two_changes_of_the_stores_one_is_stale(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let seen = version(&store).await;
    let less = house()
        .catalogue
        .without(MaterialClass::Tubes, &MaterialId::new("tube-100"));
    let (one, other) = tokio::join!(
        store.change_catalogue(seen, 1, &less),
        store.change_catalogue(seen, 1, &less)
    );
    assert_eq!([&one, &other].iter().filter(|made| made.is_ok()).count(), 1);
    let now = store.house(Arc::default()).await.expect("a house");
    assert_eq!((now.stores_version, now.house.catalogue), (2, less));
}

#[test_context(Tables)]
#[tokio::test]
async fn rules_that_were_checked_against_other_stores_are_checked_again(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let seen = version(&store).await;
    let less = house()
        .catalogue
        .without(MaterialClass::Tubes, &MaterialId::new("tube-100"));
    store
        .change_catalogue(seen, 1, &less)
        .await
        .expect("it is written");
    let mut next = house().rules;
    next.version = 2;
    let refused = store.change_rules(seen, &next).await;
    assert!(matches!(refused, Err(SettingRefused::HouseMoved)));
    let seen = version(&store).await;
    store
        .change_rules(seen, &next)
        .await
        .expect("it is written");
    assert_eq!(version(&store).await.number(), 3);
}

#[test_context(Tables)]
#[tokio::test]
async fn a_plan_by_another_house_is_not_stored(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let id = made(&store).await;
    let old = version(&store).await;
    move_on(&store).await;
    let inputs = ShipmentInputs::default();
    let new = NewShipment {
        edit: None,
        handed: None,
        id: Uuid::now_v7(),
        inputs: inputs.clone(),
        computed: computed("old", old),
    };
    let refused = store.create(&new).await;
    assert!(matches!(refused, Err(WriteRefused::HouseMoved)));
    let edit = Edit {
        handed: None,
        history: None,
        draws: None,
        shipment: id,
        based_on: 1,
        id: None,
        inputs: &inputs,
        computed: &computed("old", old),
    };
    let refused = store.edit(edit).await;
    assert!(matches!(refused, Err(WriteRefused::HouseMoved)));
    let stored = store.shipment(id).await.expect("it answers");
    assert!(
        stored
            .expect("it is there")
            .is_behind(version(&store).await, None)
    );
}

#[test_context(Tables)]
#[tokio::test]
async fn what_is_computed_anew_lands_only_on_what_it_was_computed_for(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let id = made(&store).await;
    let house = version(&store).await;
    let inputs = ShipmentInputs {
        title: "Slack Tide".into(),
        ..ShipmentInputs::default()
    };
    let edit = Edit {
        handed: None,
        history: None,
        draws: None,
        shipment: id,
        based_on: 1,
        id: None,
        inputs: &inputs,
        computed: &computed("edited", house),
    };
    store.edit(edit).await.expect("an edit");
    let anew = |version, house| Recomputed {
        id,
        version,
        computed: computed("anew", house),
    };
    let keep = async |version, house| {
        store
            .keep_recomputed(house, &[anew(version, house)])
            .await
            .expect("it answers")
    };
    // It was edited since.
    assert_eq!(keep(1, house).await, 0);
    // The house changed since.
    let newer = move_on(&store).await;
    assert_eq!(keep(2, house).await, 0);
    assert_eq!(says(&store, id).await, "edited");
    assert_eq!(keep(2, newer).await, 1);
    assert_eq!(says(&store, id).await, "anew");
}

#[test_context(Tables)]
#[tokio::test]
async fn what_is_behind_is_given_to_one_at_a_time_and_again_when_a_claim_runs_out(
    Tables(database): &Tables,
) {
    let store = studio(database.pool().clone()).await;
    for _ in 0..5 {
        made(&store).await;
    }
    let archived = made(&store).await;
    store
        .put(archived, Place::Archive)
        .await
        .expect("it is put");
    let claim = async |most, lease| {
        let claimed = store.claim_behind(most, lease).await;
        claimed.expect("it answers").len()
    };
    assert_eq!(claim(10, LEASE).await, 0);
    move_on(&store).await;
    let progress = store.progress().await.expect("it answers");
    assert_eq!((progress.behind, progress.open), (5, 5));
    // Two workers at once share them, and the archived one keeps what it had.
    let (one, other) = tokio::join!(claim(3, LEASE), claim(3, LEASE));
    assert_eq!(one + other + claim(10, LEASE).await, 5);
    assert_eq!(claim(10, LEASE).await, 0);
    // Both were killed. The house changes again, which frees their claims at once.
    move_on(&store).await;
    assert_eq!(claim(10, Duration::ZERO).await, 5);
    // This one was killed too, and its claim has run out.
    assert_eq!(claim(10, LEASE).await, 5);
}

#[test_context(Tables)]
#[tokio::test]
async fn plans_of_an_earlier_edition_are_worked_out_again_wherever_they_are_kept(
    Tables(database): &Tables,
) {
    let store = studio(database.pool().clone()).await;
    made(&store).await;
    let old = computed("old", version(&store).await);
    let new = NewShipment {
        edit: None,
        handed: None,
        id: Uuid::now_v7(),
        inputs: ShipmentInputs::default(),
        computed: old,
    };
    store.create(&new).await.expect("a shipment");
    store.put(new.id, Place::Archive).await.expect("it is put");
    let by_another_program = "UPDATE shipment SET plan_edition = $1 WHERE id = $2";
    sqlx::query(by_another_program)
        .bind(EDITION.cast_signed() - 1)
        .bind(new.id)
        .execute(database.pool())
        .await
        .expect("a row");
    let house = version(&store).await;
    let stored = store.shipment(new.id).await.expect("it answers");
    assert!(stored.expect("it is there").is_behind(house, None));
    let claimed = store.claim_behind(10, LEASE).await;
    let claimed = claimed.expect("it answers");
    assert_eq!((claimed.len(), claimed[0].id), (1, new.id));
    assert_eq!(
        store.catalogue_edition().await.expect("an edition"),
        EDITION
    );
}

#[test_context(Tables)]
#[tokio::test]
async fn a_preset_of_the_same_name_takes_the_place_of_the_first(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let mut rules = house().rules;
    rules.name = "Show week".into();
    let keep = async |rules: HouseRules| {
        let seen = version(&store).await;
        store.keep_preset(seen, &rules).await.expect("it is kept");
    };
    keep(rules.clone()).await;
    rules.allowances.second_turns = 0;
    keep(rules.clone()).await;
    let kept = store.house(Arc::default()).await.expect("a house");
    assert_eq!(kept.house.presets, [rules]);
    let drop = async || {
        let seen = version(&store).await;
        store.drop_preset(seen, "Show week").await
    };
    drop().await.expect("it is dropped");
    assert!(matches!(drop().await, Err(SettingRefused::NotFound)));
}
