//! The shelf against a real database: what is drawn is given back, whatever happens between.

use hummock_core::{
    material::MaterialId,
    quantity::Length,
    shipment::ShipmentInputs,
    stock::{Goods, SheetGoods, StockItem},
};
use hummock_store::{Computed, Draw, DrawnFrom, NewShipment, ShelfRefused, StudioStore, Written};
use proptest::{prelude::*, strategy::ValueTree, test_runner::TestRunner};
use serde_json::{Value, json};
use sqlx::PgPool;
use test_context::test_context;
use uuid::Uuid;

use crate::{Tables, house::studio};

fn sheet() -> SheetGoods {
    SheetGoods {
        material: MaterialId::new("corrugated-c"),
        width: Length::mm(1600.0),
        height: Length::mm(1200.0),
        thickness: None,
    }
}

fn item(goods: Goods, left: i64) -> StockItem {
    StockItem {
        id: String::new(),
        goods,
        name: String::new(),
        place: String::new(),
        left,
    }
}

fn tape() -> Goods {
    Goods::Roll {
        material: MaterialId::new("gummed-60"),
    }
}

fn draw(goods: Goods, amount: i64) -> Draw {
    Draw {
        goods,
        name: "it".into(),
        amount,
        item: None,
        said: None,
    }
}

/// What somebody does at a bench.
#[derive(Debug, Clone, Copy)]
enum Act {
    Cut(i32),
    NotCut(i32),
    Take(usize),
    GiveBack(usize),
    Count(i64),
}

fn acts() -> impl Strategy<Value = Vec<Act>> {
    prop::collection::vec(
        prop_oneof![
            (1..6_i32).prop_map(Act::Cut),
            (1..6_i32).prop_map(Act::NotCut),
            (0..2_usize).prop_map(Act::Take),
            (0..2_usize).prop_map(Act::GiveBack),
            (0..9_i64).prop_map(Act::Count),
        ],
        1..25,
    )
}

struct Benches {
    store: StudioStore,
    cutting: Uuid,
    shipments: [Uuid; 2],
}

impl Benches {
    async fn open(pool: PgPool) -> Self {
        let store = studio(pool).await;
        store
            .put_on_shelf(&[item(Goods::Sheet(sheet()), 3), item(tape(), 5000)])
            .await
            .expect("it is put there");
        let cutting = Uuid::now_v7();
        assert!(
            store
                .keep_cutting(cutting, &json!({}))
                .await
                .expect("it is kept")
        );
        let mut shipments = [Uuid::now_v7(), Uuid::now_v7()];
        for id in &mut shipments {
            let new = NewShipment {
                edit: None,
                handed: None,
                id: *id,
                inputs: ShipmentInputs::default(),
                computed: Computed {
                    worked: Written::of(&json!({})),
                    summary: None,
                    rules_version: 1,
                    house: store.house_version().await.expect("a house"),
                },
            };
            store.create(&new).await.expect("it is made");
        }
        Self {
            store,
            cutting,
            shipments,
        }
    }

    async fn acts(&self, act: Act) {
        let Self { store, .. } = self;
        let about = |n| (self.cutting, n, "a layout");
        match act {
            Act::Cut(n) => {
                let from = DrawnFrom::New(draw(Goods::Sheet(sheet()), 1));
                let rest = item(
                    Goods::Offcut(SheetGoods {
                        width: Length::mm(200.0),
                        ..sheet()
                    }),
                    1,
                );
                let cut = store
                    .sheet_is_cut(about(n), (&from, &self.body().await), &[rest])
                    .await;
                assert!(
                    matches!(cut, Ok(()) | Err(ShelfRefused::NoneLeft { .. })),
                    "{cut:?}"
                );
            }
            Act::NotCut(n) => store
                .sheet_is_not_cut(about(n))
                .await
                .expect("it is taken back"),
            Act::Take(at) => {
                let wanted = [
                    draw(tape(), 3200),
                    draw(
                        Goods::Loose {
                            material: MaterialId::new("nobody-counts"),
                        },
                        9,
                    ),
                ];
                store
                    .take_for((self.shipments[at], "one"), &wanted)
                    .await
                    .expect("it is taken");
            }
            Act::GiveBack(at) => store
                .give_back((self.shipments[at], "one"))
                .await
                .expect("it is given back"),
            Act::Count(left) => {
                // Whoever counts saw what there was a moment ago.
                let now = self.sheets().await;
                let counted = store
                    .count_stock(now.0, now.1, &item(Goods::Sheet(sheet()), left))
                    .await;
                assert!(
                    matches!(counted, Ok(()) | Err(ShelfRefused::Moved { .. })),
                    "{counted:?}"
                );
            }
        }
    }

    /// The layout as it is.
    async fn body(&self) -> Value {
        let kept = self.store.cutting(self.cutting).await;
        kept.expect("it answers").expect("it is there").body
    }

    async fn sheets(&self) -> (Uuid, i64) {
        let stock = self.store.stock().await.expect("a shelf");
        let key = Goods::Sheet(sheet()).key();
        let one = stock
            .iter()
            .find(|item| item.goods.key() == key)
            .expect("it is counted");
        (one.id.parse().expect("an id"), one.left)
    }

    /// Takes everything back that was done.
    async fn undo_all(&self) {
        for n in 1..6 {
            self.acts(Act::NotCut(n)).await;
        }
        for at in 0..2 {
            self.acts(Act::GiveBack(at)).await;
        }
    }

    /// What there is, by its count.
    async fn left(&self) -> Vec<(Goods, i64)> {
        let stock = self.store.stock().await.expect("a shelf");
        stock
            .into_iter()
            .map(|item| (item.goods, item.left))
            .collect()
    }
}

#[test_context(Tables)]
#[tokio::test]
async fn whatever_two_benches_do_is_taken_back_to_the_last_sheet(Tables(database): &Tables) {
    let benches = Benches::open(database.pool().clone()).await;
    let before = benches.left().await;
    let mut runner = TestRunner::deterministic();
    for _ in 0..12 {
        let (one, other) = (acts(), acts())
            .new_tree(&mut runner)
            .expect("acts")
            .current();
        let counts = |acts: &[Act]| acts.iter().any(|act| matches!(act, Act::Count(_)));
        let counted = counts(&one) || counts(&other);
        let run = async |acts: Vec<Act>| {
            for act in acts {
                benches.acts(act).await;
                let left = benches.left().await;
                assert!(left.iter().all(|(_, left)| *left >= 0), "{left:?}");
            }
        };
        tokio::join!(run(one), run(other));
        benches.undo_all().await;
        if counted {
            // A count by hand stands; what was drawn since came back on top of it.
            let (id, left) = benches.sheets().await;
            let all = item(Goods::Sheet(sheet()), 3);
            benches
                .store
                .count_stock(id, left, &all)
                .await
                .expect("it is counted");
        }
        assert_eq!(benches.left().await, before);
    }
}

#[test_context(Tables)]
#[tokio::test]
async fn the_record_adds_up_to_what_there_is(Tables(database): &Tables) {
    let benches = Benches::open(database.pool().clone()).await;
    let mut runner = TestRunner::deterministic();
    for _ in 0..6 {
        let acts = acts().new_tree(&mut runner).expect("acts").current();
        for act in acts {
            benches.acts(act).await;
        }
        let (id, left) = benches.sheets().await;
        let events = benches.store.stock_events(id).await.expect("a record");
        assert_eq!(events.first().map(|event| event.left), Some(left));
        for pair in events.windows(2) {
            assert_eq!(pair[0].left, pair[1].left + pair[0].change, "{pair:?}");
        }
    }
}

#[test_context(Tables)]
#[tokio::test]
async fn a_layout_of_which_a_sheet_is_cut_is_not_written_over(Tables(database): &Tables) {
    let benches = Benches::open(database.pool().clone()).await;
    let Benches { store, cutting, .. } = &benches;
    assert!(
        store
            .keep_cutting(*cutting, &json!({ "seed": 2 }))
            .await
            .expect("it answers")
    );
    benches.acts(Act::Cut(1)).await;
    assert!(
        !store
            .keep_cutting(*cutting, &json!({ "seed": 3 }))
            .await
            .expect("it answers")
    );
    let kept = store
        .cutting(*cutting)
        .await
        .expect("it answers")
        .expect("it is there");
    assert_eq!(
        (kept.body, kept.done.len(), kept.done[0].kept.len()),
        (json!({ "seed": 2 }), 1, 1)
    );
    benches.acts(Act::NotCut(1)).await;
    assert!(
        store
            .keep_cutting(*cutting, &json!({ "seed": 3 }))
            .await
            .expect("it answers")
    );
}
