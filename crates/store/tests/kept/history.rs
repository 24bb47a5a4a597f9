//! Shipments against a real database: history, versions and what two writers do to each other.

use std::sync::Arc;

use hummock_core::{
    freight::Tariff,
    shipment::{House, ShipmentInputs},
};
use hummock_store::{
    Computed, Edit, Move, NewShipment, Place, Settings, Sort, Store, Stored, StudioStore, Wanted,
    WriteRefused, Written,
};
use proptest::{prelude::*, strategy::ValueTree, test_runner::TestRunner};
use sqlx::PgPool;
use test_context::test_context;
use uuid::Uuid;

use crate::Tables;

async fn studio(pool: PgPool) -> StudioStore {
    let store = Store::over(pool);
    let tariff: Tariff =
        serde_json::from_str(include_str!("../../../../demo/tariffs/gannet-post.json"))
            .expect("a tariff");
    let house = House {
        rules: serde_json::from_str(include_str!("../../../../demo/house-rules.json"))
            .expect("rules"),
        catalogue: serde_json::from_str(include_str!("../../../../demo/catalogue.json"))
            .expect("a catalogue"),
        tariffs: vec![tariff],
        presets: Vec::new(),
        references: Arc::default(),
        now: None,
    };
    let settings: Settings =
        serde_json::from_str(include_str!("../../../../demo/studio.json")).expect("settings");
    let (studio, created) = store
        .create_studio("studio", &settings, &house)
        .await
        .expect("a studio is created");
    assert!(created);
    store.of(studio)
}

fn titled(title: &str) -> ShipmentInputs {
    ShipmentInputs {
        title: title.to_owned(),
        ..ShipmentInputs::default()
    }
}

/// Computed values that tell which title they belong to.
async fn computed(store: &StudioStore, inputs: &ShipmentInputs) -> Computed {
    Computed {
        worked: Written::of(&serde_json::json!({ "for": inputs.title })),
        summary: None,
        rules_version: 1,
        house: store.house_version().await.expect("a house"),
    }
}

async fn new(store: &StudioStore, inputs: ShipmentInputs) -> NewShipment {
    NewShipment {
        edit: None,
        handed: None,
        id: Uuid::now_v7(),
        computed: computed(store, &inputs).await,
        inputs,
    }
}

const BENCH: Wanted = Wanted {
    place: Place::Bench,
    search: String::new(),
    sort: Sort::Promised,
    after: None,
    most: 200,
    without_section: false,
};

async fn titles(store: &StudioStore, wanted: &Wanted) -> Vec<String> {
    let page = store.shipments(wanted).await.expect("a page");
    page.rows.into_iter().map(|row| row.inputs.title).collect()
}

async fn create(store: &StudioStore, title: &str) -> Stored {
    let new = new(store, titled(title)).await;
    store.create(&new).await.expect("a shipment is made")
}

async fn edit(store: &StudioStore, from: &Stored, title: &str) -> Result<Stored, WriteRefused> {
    edit_with(store, from, title, None).await
}

async fn edit_with(
    store: &StudioStore,
    from: &Stored,
    title: &str,
    id: Option<Uuid>,
) -> Result<Stored, WriteRefused> {
    let inputs = titled(title);
    let edit = Edit {
        handed: None,
        history: None,
        draws: None,
        shipment: from.id,
        based_on: from.version,
        id,
        inputs: &inputs,
        computed: &computed(store, &inputs).await,
    };
    store.edit(edit).await
}

async fn step(store: &StudioStore, from: &Stored, towards: Move) -> Result<Stored, WriteRefused> {
    let inputs = store.inputs_after(from.id, towards).await?;
    let edit = Edit {
        handed: None,
        history: None,
        draws: None,
        shipment: from.id,
        based_on: from.version,
        id: None,
        inputs: &inputs,
        computed: &computed(store, &inputs).await,
    };
    store.step(towards, edit).await
}

#[test_context(Tables)]
#[tokio::test]
async fn undo_after_any_sequence_of_edits_gives_the_first_state(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
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
        let first = create(&store, "as it was first").await;
        let mut now = first.clone();
        for act in &sequence {
            let next = match act {
                Ok(title) => edit(&store, &now, title).await,
                Err(towards) => step(&store, &now, *towards).await,
            };
            match next {
                Ok(next) => now = next,
                Err(WriteRefused::NoState) => {}
                Err(refused) => panic!("{sequence:?}: {refused}"),
            }
        }
        while now.can_undo {
            now = step(&store, &now, Move::Undo)
                .await
                .expect("there is a state before");
        }
        assert_eq!(now.inputs, first.inputs, "{sequence:?}");
        assert_eq!(now.computed, first.computed, "{sequence:?}");
    }
}

#[test_context(Tables)]
#[tokio::test]
async fn redo_goes_forward_until_an_edit_takes_another_way(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let first = create(&store, "one").await;
    let second = edit(&store, &first, "two").await.expect("an edit");
    let back = step(&store, &second, Move::Undo).await.expect("undo");
    assert_eq!(
        (back.inputs.title.as_str(), back.can_undo, back.can_redo),
        ("one", false, true)
    );
    let forth = step(&store, &back, Move::Redo).await.expect("redo");
    assert_eq!((forth.inputs.title.as_str(), forth.version), ("two", 4));
    let back = step(&store, &forth, Move::Undo).await.expect("undo");
    let other = edit(&store, &back, "another").await.expect("an edit");
    assert!(!other.can_redo);
    assert!(matches!(
        step(&store, &other, Move::Redo).await,
        Err(WriteRefused::NoState)
    ));
}

#[test_context(Tables)]
#[tokio::test]
async fn an_edit_of_an_older_version_is_stale_and_shows_the_newer(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let first = create(&store, "one").await;
    edit(&store, &first, "theirs")
        .await
        .expect("the first writer wins");
    let Err(WriteRefused::Stale { based_on, current }) = edit(&store, &first, "mine").await else {
        panic!("a lost update")
    };
    assert_eq!(
        (based_on, current.version, current.inputs.title.as_str()),
        (1, 2, "theirs")
    );
}

#[test_context(Tables)]
#[tokio::test]
async fn of_two_writers_at_once_one_is_told(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let first = create(&store, "one").await;
    let (one, other) = tokio::join!(edit(&store, &first, "left"), edit(&store, &first, "right"));
    assert_eq!(
        [&one, &other]
            .iter()
            .filter(|result| result.is_ok())
            .count(),
        1
    );
}

#[test_context(Tables)]
#[tokio::test]
async fn making_a_shipment_twice_makes_one(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let new = new(&store, titled("one")).await;
    let first = store.create(&new).await.expect("made");
    let again = store.create(&new).await.expect("a studio");
    assert_eq!(first, again);
    assert_eq!(titles(&store, &BENCH).await, ["one"]);
}

#[test_context(Tables)]
#[tokio::test]
async fn the_bench_shows_what_is_promised_first(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    for (title, promised) in [
        ("late", Some("2027-03-30")),
        ("never", None),
        ("soon", Some("2027-03-09")),
    ] {
        let inputs = ShipmentInputs {
            promised: promised.map(str::to_owned),
            ..titled(title)
        };
        let new = new(&store, inputs).await;
        store.create(&new).await.expect("made");
    }
    assert_eq!(titles(&store, &BENCH).await, ["soon", "late", "never"]);
}

#[test_context(Tables)]
#[tokio::test]
async fn a_studio_of_a_name_is_created_once(Tables(database): &Tables) {
    let first = studio(database.pool().clone()).await;
    let settings = first.settings().await.expect("settings");
    let house = first.house(Arc::default()).await.expect("a house").house;
    let store = Store::over(database.pool().clone());
    let make = async |name| {
        let made = store.create_studio(name, &settings, &house).await;
        made.expect("a studio")
    };
    assert_eq!(make("studio").await, (first.studio(), false));
    assert_eq!(house.tariffs.len(), 1);
    // Two processes that start at the same time.
    let (one, other) = tokio::join!(make("annexe"), make("annexe"));
    assert_eq!(one.0, other.0);
    assert_eq!([one.1, other.1].iter().filter(|&&made| made).count(), 1);
    assert_ne!(one.0, first.studio());
    let all = store.studios().await.expect("studios");
    assert_eq!(all, [first.studio(), one.0]);
    let named = store.studio_named("annexe").await.expect("an answer");
    assert_eq!(named, Some(one.0));
    assert_eq!(store.studio_named("attic").await.expect("an answer"), None);
}

#[test_context(Tables)]
#[tokio::test]
async fn an_edit_that_is_sent_again_is_stored_once(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let first = create(&store, "one").await;
    let id = Some(Uuid::now_v7());
    let stored = edit_with(&store, &first, "two", id).await.expect("an edit");
    // Its answer was lost, another edit followed, and it is sent again as it was.
    let newer = edit(&store, &stored, "three").await.expect("an edit");
    let again = edit_with(&store, &first, "two", id)
        .await
        .expect("it was made already");
    assert_eq!(again, newer);
    assert_eq!((again.version, again.inputs.title.as_str()), (3, "three"));
}

#[test_context(Tables)]
#[tokio::test]
async fn what_is_put_away_is_not_on_the_bench_and_is_not_edited(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let first = create(&store, "one").await;
    create(&store, "two").await;
    for place in [Place::Archive, Place::Bin] {
        let away = store.put(first.id, place).await.expect("it is put");
        assert_eq!(titles(&store, &BENCH).await, ["two"]);
        let there = Wanted { place, ..BENCH };
        assert_eq!(titles(&store, &there).await, ["one"]);
        assert!(matches!(
            edit(&store, &away, "other").await,
            Err(WriteRefused::PutAway)
        ));
    }
    let back = store.put(first.id, Place::Bench).await.expect("it is put");
    assert_eq!(
        (back.version, back.inputs.title.as_str()),
        (first.version, "one")
    );
    edit(&store, &back, "other").await.expect("an edit");
}

#[test_context(Tables)]
#[tokio::test]
async fn a_list_is_the_same_in_pages_of_any_size_and_is_searched_by_words(
    Tables(database): &Tables,
) {
    let store = studio(database.pool().clone()).await;
    for number in 0..23 {
        let mut inputs = titled(&format!("Tide {}", number % 5));
        inputs.buyer.name = format!("Buyer {}", number % 7);
        inputs.buyer.town = if number % 2 == 0 {
            "Östhafen"
        } else {
            "Tern Bay"
        }
        .into();
        inputs.promised = (number % 3 != 0).then(|| format!("2027-03-{:02}", 1 + number % 4));
        let new = new(&store, inputs).await;
        store.create(&new).await.expect("made");
    }
    for sort in [Sort::Promised, Sort::Title, Sort::Buyer, Sort::Newest] {
        for search in ["", "tide 3", "ÖSTHAFEN", "östhafen buyer 2", "100%", "_"] {
            let all = Wanted {
                sort,
                search: search.into(),
                ..BENCH
            };
            let whole = store.shipments(&all).await.expect("a page");
            let ids: Vec<Uuid> = whole.rows.iter().map(|row| row.id).collect();
            assert_eq!(usize::try_from(whole.total), Ok(ids.len()));
            for most in [1, 2, 5, 22, 23] {
                let mut paged = Vec::new();
                let mut wanted = Wanted {
                    most,
                    ..all.clone()
                };
                loop {
                    let page = store.shipments(&wanted).await.expect("a page");
                    assert_eq!(page.total, whole.total);
                    paged.extend(page.rows.iter().map(|row| row.id));
                    wanted.after = page.next;
                    if page.next.is_none() {
                        break;
                    }
                }
                assert_eq!(paged, ids, "{sort:?}, {search:?}, {most} a page");
            }
        }
    }
    let found = |search: &str| Wanted {
        search: search.into(),
        ..BENCH
    };
    // Numbers 6, 13 and 20 have buyer 6; of them 6 and 20 are even
    assert_eq!(titles(&store, &found("buyer 6")).await.len(), 3);
    assert_eq!(titles(&store, &found("6 östhafen")).await.len(), 2);
    assert_eq!(titles(&store, &found("%")).await.len(), 0);
}

#[test_context(Tables)]
#[tokio::test]
async fn a_stored_field_that_there_is_no_longer_takes_nothing_down(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let first = create(&store, "one").await;
    create(&store, "two").await;
    sqlx::query("UPDATE shipment_state SET inputs = inputs || '{\"mood\": \"blue\", \"piece\": {\"medium\": \"treacle\"}}'")
        .execute(database.pool())
        .await
        .expect("it is written");
    sqlx::query("UPDATE shipment SET summary = '{\"of\": \"another edition\"}'")
        .execute(database.pool())
        .await
        .expect("it is written");
    assert_eq!(titles(&store, &BENCH).await, ["one", "two"]);
    let stored = store.shipment(first.id).await.expect("it answers");
    assert_eq!(stored.expect("it is there").inputs.title, "one");
}

/// A file of tables that nobody lists would never be run.
#[test_context(Tables)]
#[tokio::test]
async fn every_file_of_tables_was_run(Tables(database): &Tables) {
    let folder = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("migrations");
    let files = std::fs::read_dir(folder).expect("the folder").count();
    let run: i64 = sqlx::query_scalar("SELECT count(*) FROM _sqlx_migrations")
        .fetch_one(database.pool())
        .await
        .expect("a count");
    assert_eq!(usize::try_from(run), Ok(files));
}

/// A word that this program does not know is an error, and taken for nothing else.
#[test_context(Tables)]
#[tokio::test]
async fn a_stored_word_that_is_unknown_is_an_error(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let inputs = titled("Peat Bank");
    let id = Uuid::now_v7();
    let new = NewShipment {
        id,
        edit: None,
        handed: None,
        computed: computed(&store, &inputs).await,
        inputs,
    };
    store.create(&new).await.expect("it is kept");
    sqlx::raw_sql("ALTER TABLE shipment DROP CONSTRAINT shipment_place_check; UPDATE shipment SET place = 'attic'")
        .execute(database.pool())
        .await
        .expect("somebody wrote it");
    assert!(store.shipment(id).await.is_err());
}
