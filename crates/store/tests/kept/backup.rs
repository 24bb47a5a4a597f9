//! A whole studio out of one place and into another: nothing of it may change.

use std::fmt::Write as _;

use futures_util::StreamExt as _;
use hummock_store::{BackupList, BackupRefused, Holdings, StudioId, StudioStore};
use proptest::{collection::vec, option, prelude::*, strategy::ValueTree, test_runner::TestRunner};
use serde_json::json;
use sqlx::{AssertSqlSafe, PgPool};
use test_context::test_context;
use uuid::Uuid;

use crate::{Tables, house::studio};

/// Texts with what breaks lines, quotes, and columns.
fn words() -> impl Strategy<Value = String> {
    prop_oneof![
        Just("Two Herons".to_owned()),
        Just(String::new()),
        "[ -~äßœ漢\u{1f58c}\n\t\"\\\\{}]{0,24}",
    ]
}

/// Numbers as somebody may have written them: with noughts at their end, and longer than a computer's own.
fn figure() -> impl Strategy<Value = String> {
    "-?(0|[1-9][0-9]{0,22})(\\.[0-9]{1,14})?"
}

/// A document of JSON, as text. A column's own is an object: nothing writes a bare null there.
fn document() -> impl Strategy<Value = String> {
    let quoted = |text: String| serde_json::Value::String(text).to_string();
    let leaf = prop_oneof![
        Just("null".to_owned()),
        Just("true".to_owned()),
        figure(),
        words().prop_map(quoted),
    ];
    let whole = leaf.prop_recursive(3, 24, 4, move |inner| {
        prop_oneof![
            vec(inner.clone(), 0..4).prop_map(|all| format!("[{}]", all.join(","))),
            vec((words().prop_map(quoted), inner), 0..4).prop_map(|all| {
                let fields: Vec<String> = all
                    .iter()
                    .map(|(key, value)| format!("{key}:{value}"))
                    .collect();
                format!("{{{}}}", fields.join(","))
            }),
        ]
    });
    whole.prop_map(|whole| format!("{{\"whole\":{whole}}}"))
}

/// What stands in one shipment, and around it.
#[derive(Debug, Clone)]
struct Drawn {
    worked: String,
    summary: Option<String>,
    title: String,
    tracking: Option<String>,
    place: &'static str,
    states: Vec<String>,
    /// Behind its house by so much; `None` if it follows none.
    behind: Option<i32>,
    photographs: Vec<Vec<u8>>,
    booking: Option<(&'static str, String)>,
    moments: i64,
}

fn drawn() -> impl Strategy<Value = Drawn> {
    let kept = (
        document(),
        option::of(document()),
        words(),
        option::of(words()),
    );
    let place = prop_oneof![Just("bench"), Just("sent"), Just("archive"), Just("bin")];
    let state = prop_oneof![
        Just("asked"),
        Just("booked"),
        Just("refused"),
        Just("cancelling"),
        Just("cancelled"),
    ];
    (
        kept,
        place,
        vec(document(), 1..4),
        option::of(0..3_i32),
        vec(vec(any::<u8>(), 32), 0..3),
        option::of((state, document())),
        // To the microsecond, years apart.
        0..4_000_000_000_000_000_i64,
    )
        .prop_map(
            |(kept, place, states, behind, photographs, booking, moments)| {
                let (worked, summary, title, tracking) = kept;
                Drawn {
                    worked,
                    summary,
                    title,
                    tracking,
                    place,
                    states,
                    behind,
                    photographs,
                    booking,
                    moments,
                }
            },
        )
}

/// What a studio was given besides shipments.
#[derive(Debug, Clone)]
struct Around {
    mark: Option<Vec<u8>>,
    counts: Vec<(i64, String)>,
    offcut: Option<i32>,
    cutting: Option<String>,
}

fn around() -> impl Strategy<Value = Around> {
    let counts = vec((0..i64::MAX, words()), 0..4);
    let mark = option::of(vec(any::<u8>(), 0..64));
    (mark, counts, option::of(1..10_000), option::of(document())).prop_map(
        |(mark, counts, offcut, cutting)| Around {
            mark,
            counts,
            offcut,
            cutting,
        },
    )
}

async fn put(pool: &PgPool, studio: StudioId, all: &[Drawn], around: &Around) {
    let studio: Uuid = studio.to_string().parse().expect("an id");
    let run = async |sql: &'static str, values: Vec<Option<String>>| {
        let mut query = sqlx::query(sql).bind(studio);
        for value in values {
            query = query.bind(value);
        }
        query.execute(pool).await.expect("it is written");
    };
    for one in all {
        let id = Some(Uuid::now_v7().to_string());
        let last = one.states.len() - 1;
        run(
            "INSERT INTO shipment (studio_id, id, worked, summary, rules_version, title, tracking, place, house_version,
                 at_state, version, created_at, changed_at, promised, claimed_for)
             VALUES ($1, $2::uuid, $3::jsonb, $4::jsonb, 1, $5, $6, $7,
                 greatest(coalesce((SELECT version FROM house WHERE studio_id = $1) - $8::int, 0), 0), $9::int, $9::int + 1,
                 'epoch'::timestamptz + $10::bigint * interval '1 microsecond', now(), date '2027-03-04' + $9::int, 3)",
            vec![
                id.clone(),
                Some(one.worked.clone()),
                one.summary.clone(),
                Some(one.title.clone()),
                one.tracking.clone(),
                Some(one.place.to_owned()),
                one.behind.map(|by| by.to_string()),
                Some(last.to_string()),
                Some(one.moments.to_string()),
            ],
        )
        .await;
        for (state, inputs) in one.states.iter().enumerate() {
            run(
                "INSERT INTO shipment_state (studio_id, shipment_id, state, inputs, schema)
                 VALUES ($1, $2::uuid, $3::int, $4::jsonb, 1 + $3::int)",
                vec![id.clone(), Some(state.to_string()), Some(inputs.clone())],
            )
            .await;
            run(
                "INSERT INTO shipment_edit (studio_id, shipment_id, edit_id) VALUES ($1, $2::uuid, gen_random_uuid())",
                vec![id.clone()],
            )
            .await;
        }
        for digest in &one.photographs {
            let hex = digest.iter().fold(String::new(), |mut hex, byte| {
                let _ = write!(hex, "{byte:02x}");
                hex
            });
            run(
                "INSERT INTO photograph (studio_id, id, shipment_id, step, taken_at, width, height, bytes, digest)
                 VALUES ($1, gen_random_uuid(), $2::uuid, 'look/photographs', '2027-03-04T10:15:00Z', 3, 2, 9, decode($3, 'hex'))",
                vec![id.clone(), Some(hex)],
            )
            .await;
        }
        if let Some((state, question)) = &one.booking {
            run(
                "INSERT INTO booking (studio_id, id, shipment_id, service, state, question, leaves_on, print)
                 VALUES ($1, gen_random_uuid(), $2::uuid, 'gannet-post/parcel', $3, $4::jsonb, '2027-03-05', 'abc')",
                vec![id.clone(), Some((*state).to_owned()), Some(question.clone())],
            )
            .await;
        }
    }
    run(
        "INSERT INTO tariff (studio_id, id, body, version) VALUES ($1, 'gannet-post', $2::jsonb, 7)",
        vec![Some(include_str!("../../../../demo/tariffs/gannet-post.json").to_owned())],
    )
    .await;
    run(
        "INSERT INTO preset (studio_id, name, rules) SELECT $1, $2, rules FROM house_rules WHERE studio_id = $1",
        vec![Some("Überseekiste „A“".to_owned())],
    )
    .await;
    for (count, name) in &around.counts {
        let goods =
            r#"{"kind":"sheet","material":"corrugated-c","width_mm":1600.0,"height_mm":1200.0}"#;
        run(
            "WITH item AS (
                 INSERT INTO stock (studio_id, id, key, goods, name, left_count)
                 VALUES ($1, gen_random_uuid(), gen_random_uuid()::text, $4::jsonb, $3, $2::bigint) RETURNING id
             )
             INSERT INTO stock_event (studio_id, stock_id, change, left_count, why, about)
             SELECT $1, id, $2::bigint, $2::bigint, 'counted', $3 FROM item",
            vec![Some(count.to_string()), Some(name.clone()), Some(goods.to_owned())],
        )
        .await;
    }
    if let Some(next) = around.offcut {
        run(
            "INSERT INTO offcut_number (studio_id, next) VALUES ($1, $2::int)",
            vec![Some(next.to_string())],
        )
        .await;
    }
    if let Some(body) = &around.cutting {
        run(
            "WITH made AS (INSERT INTO cutting (studio_id, id, body) VALUES ($1, gen_random_uuid(), $2::jsonb) RETURNING id)
             INSERT INTO cutting_sheet (studio_id, cutting_id, n, drawn, kept)
             SELECT $1, id, 1, gen_random_uuid(), ARRAY[gen_random_uuid(), gen_random_uuid()] FROM made",
            vec![Some(body.clone())],
        )
        .await;
    }
    sqlx::query("UPDATE studio SET mark = $2 WHERE id = $1")
        .bind(studio)
        .bind(&around.mark)
        .execute(pool)
        .await
        .expect("it is written");
}

/// Everything of a studio as the database prints rows, asked for table by table and column by column as the catalogue of the
/// database lists them: so a column that a backup forgot is seen.
async fn printed(pool: &PgPool, studio: StudioId) -> Vec<(String, Vec<String>)> {
    const ITS_OWN: [&str; 11] = [
        "studio.id",
        // Whoever is restored asks before it speaks to a carrier.
        "studio.held",
        "studio_id",
        "shipment.house_version",
        "shipment.claimed_until",
        "shipment.claimed_for",
        "house.version",
        // Whoever holds an older version of it was in the other database.
        "shipment.recent",
        "passphrase.",
        "device.",
        // Keys of carriers stay where they were typed.
        "carrier_service.",
    ];
    let columns: Vec<(String, String)> = sqlx::query_as(
        "SELECT table_name::text, column_name::text FROM information_schema.columns
         WHERE table_schema = 'public' AND table_name NOT LIKE '\\_%' ORDER BY table_name, ordinal_position",
    )
    .fetch_all(pool)
    .await
    .expect("columns");
    let mut tables: Vec<(String, Vec<String>)> = Vec::new();
    for (table, column) in columns {
        let whole = format!("{table}.{column}");
        let left_out = ITS_OWN.iter().any(|own| {
            *own == whole || *own == column || (own.ends_with('.') && whole.starts_with(own))
        });
        match tables.last_mut().filter(|(last, _)| *last == table) {
            _ if left_out => {}
            Some((_, columns)) => columns.push(column),
            None => tables.push((table, vec![column])),
        }
    }
    let mut all = Vec::new();
    for (table, columns) in tables {
        let own = if table == "studio" { "id" } else { "studio_id" };
        let ask = format!(
            "SELECT ROW({columns})::text FROM {table} WHERE {own} = $1 ORDER BY 1",
            columns = columns.join(", ")
        );
        let rows = sqlx::query_scalar(AssertSqlSafe(ask))
            .bind(studio.to_string().parse::<Uuid>().expect("an id"))
            .fetch_all(pool)
            .await
            .expect("rows");
        all.push((table, rows));
    }
    // How plans stand to the house, and not the number.
    let stand = sqlx::query_scalar(
        "SELECT id::text || sign(shipment.house_version) || (shipment.house_version = house.version)
         FROM shipment JOIN house USING (studio_id) WHERE studio_id = $1 ORDER BY id",
    )
    .bind(studio.to_string().parse::<Uuid>().expect("an id"))
    .fetch_all(pool)
    .await
    .expect("rows");
    all.push(("how plans stand to the house".to_owned(), stand));
    all
}

struct Lines(Vec<(BackupList, Vec<String>)>, Option<Vec<u8>>);

async fn read_out(store: &StudioStore) -> Lines {
    let mut out = store.back_up().await.expect("a backup");
    let mut all = Vec::new();
    for list in BackupList::ALL {
        let lines: Vec<_> = out.lines(list).collect().await;
        let lines: Result<Vec<String>, _> = lines.into_iter().collect();
        all.push((list, lines.expect("lines")));
    }
    let mark = out.mark().await.expect("a mark, or none");
    Lines(all, mark)
}

async fn read_in(store: &StudioStore, Lines(all, mark): &Lines) -> Result<(), BackupRefused> {
    let mut into = store.restore().await?;
    for (list, lines) in all {
        // In two halves, as a long list comes.
        let (first, second) = lines.split_at(lines.len() / 2);
        for (at, part) in [(1, first), (1 + first.len(), second)] {
            if !part.is_empty() {
                into.take(*list, at, part.to_vec()).await?;
            }
        }
    }
    if let Some(mark) = mark {
        into.mark(mark.clone());
    }
    into.finish().await
}

/// Another studio of the same database, of which the house was changed so often.
async fn another(pool: &PgPool, changes: i32) -> StudioStore {
    sqlx::query("DELETE FROM studio")
        .execute(pool)
        .await
        .expect("it is emptied");
    let store = studio(pool.clone()).await;
    sqlx::query("UPDATE house SET version = version + $1")
        .bind(changes)
        .execute(pool)
        .await
        .expect("it is changed");
    store
}

#[test_context(Tables)]
#[tokio::test]
async fn out_and_in_is_the_identity(Tables(database): &Tables) {
    let mut runner = TestRunner::default();
    let wanted = (vec(drawn(), 0..4), around(), 0..4_i32, 0..4_i32);
    for _ in 0..24 {
        let (all, besides, before, after) =
            wanted.new_tree(&mut runner).expect("a studio").current();
        let here = another(database.pool(), before).await;
        put(database.pool(), here.studio(), &all, &besides).await;
        let was = printed(database.pool(), here.studio()).await;
        let out = read_out(&here).await;
        let there = another(database.pool(), after).await;
        assert_ne!(here.studio().to_string(), there.studio().to_string());
        let read = read_in(&there, &out).await;
        read.expect("it is read in");
        let is = printed(database.pool(), there.studio()).await;
        // Table by table, so that a difference can be read.
        for (was, is) in was.iter().zip(&is) {
            assert_eq!(was, is);
        }
        assert_eq!(was.len(), is.len());
        let again = read_out(&there).await;
        assert_eq!(out.0, again.0);
        assert_eq!(out.1, again.1);
    }
}

/// Columns that tables of before didn't have. A line that says nothing of one isn't a line that says "nothing": there a value stands
/// that must be there.
const ADDED: [(BackupList, &[&str]); 4] = [
    (BackupList::Studio, &["settings_version", "order_tables"]),
    (
        BackupList::Shipments,
        &["recent", "plan_edition", "logged", "left_on", "handed"],
    ),
    (BackupList::Bookings, &["tries", "looks", "look_at"]),
    (BackupList::Photographs, &["kept_digest"]),
];

#[test_context(Tables)]
#[tokio::test]
async fn lines_of_tables_of_before_take_what_the_tables_give(Tables(database): &Tables) {
    let mut runner = TestRunner::deterministic();
    let full = (vec(drawn(), 3), around());
    let (mut all, around) = full.new_tree(&mut runner).expect("a studio").current();
    for one in &mut all {
        one.photographs = vec![vec![1; 32]];
        one.booking = Some(("booked", "{}".to_owned()));
    }
    let here = another(database.pool(), 0).await;
    put(database.pool(), here.studio(), &all, &around).await;
    let columns = r#"{"title":"Piece"}"#;
    sqlx::query("UPDATE studio SET order_columns = $1::text::jsonb")
        .bind(columns)
        .execute(database.pool())
        .await
        .expect("it is written");
    let mut out = read_out(&here).await;
    for (list, names) in ADDED {
        let lines = out.0.iter_mut().filter(|(one, _)| *one == list);
        for line in lines.flat_map(|(_, lines)| lines) {
            let mut fields: serde_json::Map<String, serde_json::Value> =
                serde_json::from_str(line).expect("a line");
            for name in names {
                assert!(fields.remove(*name).is_some(), "{list:?} has no {name}");
            }
            *line = serde_json::to_string(&fields).expect("a line");
        }
    }
    let there = another(database.pool(), 0).await;
    read_in(&there, &out).await.expect("it is read in");
    let kept: (i64, i64, String) = sqlx::query_as(
        "SELECT (SELECT count(*) FROM shipment WHERE recent = '[]' AND plan_edition = 0),
             (SELECT count(*) FROM booking WHERE events = '[]' AND tries IS NULL), order_tables::text FROM studio",
    )
    .fetch_one(database.pool())
    .await
    .expect("it answers");
    // One shop's table was known, by its columns alone.
    let table = r#"[{"head": [], "table": {"columns": {"title": "Piece"}}}]"#;
    assert_eq!(kept, (3, 3, table.to_owned()));
}

/// What a program of before noted was the print of its plan: `c0ffee`. Five states of one shipment: measured, weighed, named, with
/// another medium, and with a tick taken back.
#[test_context(Tables)]
#[tokio::test]
async fn readings_of_before_stand_while_nobody_changed_the_box(Tables(database): &Tables) {
    let here = another(database.pool(), 0).await;
    let (drawn, around) = (Vec::new(), around());
    let around = around
        .new_tree(&mut TestRunner::deterministic())
        .expect("one")
        .current();
    put(database.pool(), here.studio(), &drawn, &around).await;
    let weighed = json!({ "weight": "4 kg", "as_packed": "c0ffee" });
    let states = [
        json!({ "piece": { "width": "900 mm" } }),
        json!({ "piece": { "width": "900 mm" }, "parcel": weighed, "packed": { "wrap": {}, "tape": {} } }),
        json!({ "piece": { "width": "900 mm" }, "parcel": weighed, "packed": { "wrap": {}, "tape": {}, "label": {} }, "title": "Heron" }),
        json!({ "piece": { "width": "910 mm" }, "parcel": weighed, "packed": { "wrap": {}, "tape": {} } }),
        json!({ "piece": { "width": "900 mm" }, "parcel": weighed, "packed": { "tape": {} } }),
    ];
    let studio: Uuid = here.studio().to_string().parse().expect("an id");
    let id = Uuid::now_v7();
    sqlx::query("INSERT INTO shipment (studio_id, id, worked, rules_version, at_state) VALUES ($1, $2, '{}', 1, 2)")
        .bind(studio)
        .bind(id)
        .execute(database.pool())
        .await
        .expect("a row");
    for (state, inputs) in (0..).zip(&states) {
        sqlx::query("INSERT INTO shipment_state (studio_id, shipment_id, state, inputs, schema) VALUES ($1, $2, $3, $4, 1)")
            .bind(studio)
            .bind(id)
            .bind(state)
            .bind(inputs)
            .execute(database.pool())
            .await
            .expect("a row");
    }
    let out = read_out(&here).await;
    let there = another(database.pool(), 0).await;
    read_in(&there, &out).await.expect("it is read in");
    let noted: Vec<Option<String>> = sqlx::query_scalar(
        "SELECT inputs #>> '{parcel,as_packed}' FROM shipment_state ORDER BY state",
    )
    .fetch_all(database.pool())
    .await
    .expect("states");
    // Without a note it stands.
    let ended = Some("c0ffee".to_owned());
    assert_eq!(noted, [None, None, None, ended.clone(), ended]);
}

#[test_context(Tables)]
#[tokio::test]
async fn what_can_not_stand_leaves_the_studio_as_it_was(Tables(database): &Tables) {
    let here = another(database.pool(), 0).await;
    let mut runner = TestRunner::deterministic();
    let full = (vec(drawn(), 3), around());
    let (mut all, _) = full.new_tree(&mut runner).expect("a studio").current();
    for one in &mut all {
        one.photographs = vec![vec![1; 32]];
        one.booking = Some(("booked", "{}".to_owned()));
    }
    let besides = Around {
        mark: None,
        counts: vec![(3, "two".to_owned()), (4, "three".to_owned())],
        offcut: Some(7),
        cutting: Some("{}".to_owned()),
    };
    put(database.pool(), here.studio(), &all, &besides).await;
    let out = read_out(&here).await;
    // Into one that holds something.
    assert!(matches!(
        read_in(&here, &out).await,
        Err(BackupRefused::NotEmpty)
    ));

    let there = another(database.pool(), 2).await;
    let was = printed(database.pool(), there.studio()).await;
    let spoiled = [
        (BackupList::Studio, "settings", "3"),
        (BackupList::HouseRules, "rules", "{}"),
        (BackupList::HouseRules, "made_at", "\"noon\""),
        (BackupList::Stores, "materials", "[]"),
        (BackupList::Tariffs, "body", "null"),
        (BackupList::Presets, "rules", "7"),
        (BackupList::Shipments, "place", "\"attic\""),
        (BackupList::Shipments, "worked", "[]"),
        (BackupList::Shipments, "changed_at", "\"noon\""),
        (BackupList::States, "inputs", "{\"piece\": [}"),
        (BackupList::States, "inputs", "[]"),
        (BackupList::Edits, "edit_id", "7"),
        (BackupList::Photographs, "width", "0"),
        (BackupList::Photographs, "digest", "\"\\\\xzz\""),
        (BackupList::Bookings, "state", "\"lent\""),
        (BackupList::Bookings, "leaves_on", "\"2027-02-30\""),
        (BackupList::Bookings, "events", "{}"),
        (BackupList::Shelf, "goods", "{}"),
        (BackupList::Shelf, "left_count", "-1"),
        (BackupList::ShelfEvents, "change", "\"many\""),
        (BackupList::ShelfEvents, "id", "1e30"),
        (BackupList::OffcutNumber, "next", "0"),
        (BackupList::Cuttings, "body", "\"whole\""),
        (BackupList::CutSheets, "n", "0"),
        (
            BackupList::States,
            "shipment_id",
            "\"00000000-0000-0000-0000-000000000000\"",
        ),
        (BackupList::Shipments, "at_state", "77"),
    ];
    for (spoiled, field, value) in spoiled {
        let lines = |&(list, ref lines): &(BackupList, Vec<String>)| {
            let mut lines = lines.clone();
            if list == spoiled {
                let last = lines.last_mut().expect("a line");
                let mut line: serde_json::Map<String, serde_json::Value> =
                    serde_json::from_str(last).expect("JSON");
                line.insert(field.to_owned(), json!("spoiled"));
                let line = serde_json::to_string(&line).expect("JSON");
                *last = line.replace("\"spoiled\"", value);
            }
            (list, lines)
        };
        let changed = Lines(out.0.iter().map(lines).collect(), None);
        let refused = read_in(&there, &changed).await;
        let refused = refused.expect_err(field).to_string();
        let last = out.0.iter().find(|(list, _)| *list == spoiled);
        let last = last.map_or(0, |(_, lines)| lines.len());
        let says = match field {
            "at_state" => "is missing".to_owned(),
            // Which of them names no shipment is only known of a few together.
            "shipment_id" => format!("of {}.jsonl", spoiled.name()),
            _ => format!("line {last} of {}.jsonl", spoiled.name()),
        };
        assert!(refused.contains(&says), "{field}: {refused}");
        assert_eq!(
            was,
            printed(database.pool(), there.studio()).await,
            "{field}"
        );
    }
    // Nothing of it was in the way of the right one.
    read_in(&there, &out).await.expect("it is read in");
    let held = there.holdings().await.expect("a count");
    assert_eq!(held.shipments, 3);
    // The shelf goes on counting.
    sqlx::query(
        "INSERT INTO stock (studio_id, id, goods, left_count) SELECT id, gen_random_uuid(), '{}', 1 FROM studio",
    )
    .execute(database.pool())
    .await
    .expect("an item");
    sqlx::query("INSERT INTO stock_event (studio_id, stock_id, change, left_count, why) SELECT studio_id, id, 1, 1, 'counted' FROM stock")
        .execute(database.pool())
        .await
        .expect("events of their own numbers");
}

#[test_context(Tables)]
#[tokio::test]
async fn what_is_written_meanwhile_is_not_in_it(Tables(database): &Tables) {
    let here = another(database.pool(), 0).await;
    let mut out = here.back_up().await.expect("a backup");
    assert_eq!(out.holdings().await.expect("a count"), Holdings::default());
    let mut runner = TestRunner::deterministic();
    let one = (vec(drawn(), 1), around());
    let (all, besides) = one.new_tree(&mut runner).expect("a studio").current();
    put(database.pool(), here.studio(), &all, &besides).await;
    let lines: Vec<_> = out.lines(BackupList::Shipments).collect().await;
    assert!(lines.is_empty());
    drop(out);
    assert_eq!(here.holdings().await.expect("a count").shipments, 1);
}

#[test_context(Tables)]
#[tokio::test]
async fn whoever_works_goes_on_while_a_backup_is_read_in(Tables(database): &Tables) {
    let here = another(database.pool(), 0).await;
    let mut runner = TestRunner::deterministic();
    let some = (vec(drawn(), 2), around());
    let (all, besides) = some.new_tree(&mut runner).expect("a studio").current();
    put(database.pool(), here.studio(), &all, &besides).await;
    let Lines(lists, _) = read_out(&here).await;
    let there = another(database.pool(), 0).await;
    let begun = async |there: &StudioStore| {
        let mut into = there.restore().await.expect("it is empty");
        for (list, lines) in lists.iter().filter(|(_, lines)| !lines.is_empty()) {
            let taken = into.take(*list, 1, lines.clone()).await;
            taken.expect("it can stand");
        }
        into
    };
    // Who changes the house, as often as they like, and who writes plans by it, waits for nobody.
    let own = async |sql: &'static str| {
        let mut patient = database.pool().begin().await.expect("a connection");
        let brief = "SET LOCAL lock_timeout = '1s'";
        sqlx::query(brief)
            .execute(&mut *patient)
            .await
            .expect("a setting");
        let done = sqlx::query(sql).execute(&mut *patient).await;
        done.expect("nothing is in its way");
        patient.commit().await.expect("it is written");
    };
    let into = begun(&there).await;
    own("UPDATE house SET version = version + 3").await;
    own("UPDATE studio SET settings_version = settings_version + 1").await;
    own("INSERT INTO house_rules (studio_id, version, rules) SELECT studio_id, 2, rules FROM house_rules WHERE version = 1").await;
    own("UPDATE catalogue SET materials = materials").await;
    into.finish().await.expect("nobody kept anything");
    assert!(there.is_held().await.expect("an answer"));
    assert_eq!(there.holdings().await.expect("a count").shipments, 2);
    let again = read_out(&there).await;
    assert_eq!(lists, again.0);

    // What somebody keeps meanwhile stays, and the backup does not come.
    let there = another(database.pool(), 0).await;
    let into = begun(&there).await;
    own("INSERT INTO shipment (studio_id, id, worked, rules_version) SELECT id, gen_random_uuid(), '{}', 1 FROM studio").await;
    assert!(matches!(into.finish().await, Err(BackupRefused::NotEmpty)));
    assert_eq!(there.holdings().await.expect("a count").shipments, 1);
    assert!(!there.is_held().await.expect("an answer"));
}
