//! Shipments against a real database: history, versions and what two writers do to each other.

use std::sync::Arc;

use hummock_core::{
    freight::Tariff,
    shipment::{House, ShipmentInputs},
};
use hummock_store::{Computed, Move, NewShipment, Settings, Store, Stored, StudioId, WriteRefused};
use proptest::{prelude::*, strategy::ValueTree, test_runner::TestRunner};
use sqlx::PgPool;
use uuid::Uuid;

async fn studio(pool: PgPool) -> (Store, StudioId) {
    let store = Store::over(pool);
    let tariff: Tariff =
        serde_json::from_str(include_str!("../../../demo/tariffs/gannet-post.json"))
            .expect("a tariff");
    let house = House {
        rules: serde_json::from_str(include_str!("../../../demo/house-rules.json")).expect("rules"),
        catalogue: serde_json::from_str(include_str!("../../../demo/catalogue.json"))
            .expect("a catalogue"),
        tariffs: vec![tariff],
        presets: Vec::new(),
        references: Arc::default(),
    };
    let settings: Settings =
        serde_json::from_str(include_str!("../../../demo/studio.json")).expect("settings");
    let (studio, founded) = store
        .found(&settings, &house)
        .await
        .expect("a studio is founded");
    assert!(founded);
    (store, studio)
}

fn titled(title: &str) -> ShipmentInputs {
    ShipmentInputs {
        title: title.to_owned(),
        ..ShipmentInputs::default()
    }
}

/// Computed values that tell which title they belong to.
fn computed(inputs: &ShipmentInputs) -> Computed {
    Computed {
        worked: serde_json::json!({ "for": inputs.title }),
        summary: None,
        rules_version: 1,
    }
}

async fn create(store: &Store, studio: StudioId, title: &str) -> Stored {
    let inputs = titled(title);
    let new = NewShipment {
        id: Uuid::now_v7(),
        computed: computed(&inputs),
        inputs,
    };
    store
        .create(studio, &new)
        .await
        .expect("a shipment is made")
}

async fn edit(
    store: &Store,
    studio: StudioId,
    from: &Stored,
    title: &str,
) -> Result<Stored, WriteRefused> {
    let inputs = titled(title);
    store
        .edit(studio, from.id, from.version, &inputs, &computed(&inputs))
        .await
}

async fn step(
    store: &Store,
    studio: StudioId,
    from: &Stored,
    towards: Move,
) -> Result<Stored, WriteRefused> {
    let inputs = store.inputs_after(studio, from.id, towards).await?;
    store
        .step(
            studio,
            from.id,
            from.version,
            towards,
            &inputs,
            &computed(&inputs),
        )
        .await
}

#[sqlx::test]
async fn undo_after_any_sequence_of_edits_gives_the_first_state(pool: PgPool) {
    let (store, studio) = studio(pool).await;
    let mut runner = TestRunner::deterministic();
    // Edits with a few moves among them, as a person makes them.
    let act = prop_oneof![
        4 => "[a-z ]{1,12}".prop_map(Ok),
        1 => Just(Err(Move::Undo)),
        1 => Just(Err(Move::Redo)),
    ];
    let acts = prop::collection::vec(act, 0..12);
    for _ in 0..40 {
        let sequence = acts.new_tree(&mut runner).expect("a sequence").current();
        let first = create(&store, studio, "as it was first").await;
        let mut now = first.clone();
        for act in &sequence {
            let next = match act {
                Ok(title) => edit(&store, studio, &now, title).await,
                Err(towards) => step(&store, studio, &now, *towards).await,
            };
            match next {
                Ok(next) => now = next,
                Err(WriteRefused::NoState) => {}
                Err(refused) => panic!("{sequence:?}: {refused}"),
            }
        }
        while now.can_undo {
            now = step(&store, studio, &now, Move::Undo)
                .await
                .expect("there is a state before");
        }
        assert_eq!(now.inputs, first.inputs, "{sequence:?}");
        assert_eq!(now.computed, first.computed, "{sequence:?}");
    }
}

#[sqlx::test]
async fn redo_goes_forward_until_an_edit_takes_another_way(pool: PgPool) {
    let (store, studio) = studio(pool).await;
    let first = create(&store, studio, "one").await;
    let second = edit(&store, studio, &first, "two").await.expect("an edit");
    let back = step(&store, studio, &second, Move::Undo)
        .await
        .expect("undo");
    assert_eq!(
        (back.inputs.title.as_str(), back.can_undo, back.can_redo),
        ("one", false, true)
    );
    let forth = step(&store, studio, &back, Move::Redo).await.expect("redo");
    assert_eq!((forth.inputs.title.as_str(), forth.version), ("two", 4));
    let back = step(&store, studio, &forth, Move::Undo)
        .await
        .expect("undo");
    let other = edit(&store, studio, &back, "another")
        .await
        .expect("an edit");
    assert!(!other.can_redo);
    assert!(matches!(
        step(&store, studio, &other, Move::Redo).await,
        Err(WriteRefused::NoState)
    ));
}

#[sqlx::test]
async fn an_edit_of_an_older_version_is_stale_and_shows_the_newer(pool: PgPool) {
    let (store, studio) = studio(pool).await;
    let first = create(&store, studio, "one").await;
    edit(&store, studio, &first, "theirs")
        .await
        .expect("the first writer wins");
    let Err(WriteRefused::Stale { based_on, current }) = edit(&store, studio, &first, "mine").await
    else {
        panic!("a lost update")
    };
    assert_eq!(
        (based_on, current.version, current.inputs.title.as_str()),
        (1, 2, "theirs")
    );
}

#[sqlx::test]
async fn of_two_writers_at_once_one_is_told(pool: PgPool) {
    let (store, studio) = studio(pool).await;
    let first = create(&store, studio, "one").await;
    let (one, other) = tokio::join!(
        edit(&store, studio, &first, "left"),
        edit(&store, studio, &first, "right")
    );
    assert_eq!(
        [&one, &other]
            .iter()
            .filter(|result| result.is_ok())
            .count(),
        1
    );
}

#[sqlx::test]
async fn making_a_shipment_twice_makes_one(pool: PgPool) {
    let (store, studio) = studio(pool).await;
    let inputs = titled("one");
    let new = NewShipment {
        id: Uuid::now_v7(),
        computed: computed(&inputs),
        inputs,
    };
    let first = store.create(studio, &new).await.expect("made");
    let again = store.create(studio, &new).await.expect("found");
    assert_eq!(first, again);
    assert_eq!(store.shipments(studio).await.expect("a list").len(), 1);
}

#[sqlx::test]
async fn the_bench_shows_what_is_promised_first(pool: PgPool) {
    let (store, studio) = studio(pool).await;
    for (title, promised) in [
        ("late", Some("2027-03-30")),
        ("never", None),
        ("soon", Some("2027-03-09")),
    ] {
        let inputs = ShipmentInputs {
            promised: promised.map(str::to_owned),
            ..titled(title)
        };
        let new = NewShipment {
            id: Uuid::now_v7(),
            computed: computed(&inputs),
            inputs,
        };
        store.create(studio, &new).await.expect("made");
    }
    let listed = store.shipments(studio).await.expect("a list");
    let titles: Vec<&str> = listed
        .iter()
        .map(|shipment| shipment.inputs.title.as_str())
        .collect();
    assert_eq!(titles, ["soon", "late", "never"]);
}

#[sqlx::test]
async fn a_studio_is_founded_once(pool: PgPool) {
    let (store, studio) = studio(pool).await;
    let settings = store.settings(studio).await.expect("settings");
    let house = store.house(studio, Arc::default()).await.expect("a house");
    let (again, founded) = store.found(&settings, &house).await.expect("found");
    assert_eq!((again, founded), (studio, false));
    assert_eq!(house.tariffs.len(), 1);
}
