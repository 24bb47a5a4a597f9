//! Devices that are let in, against a real database.

use test_context::test_context;

use crate::{Tables, house::studio};

#[test_context(Tables)]
#[tokio::test]
async fn a_passphrase_that_was_changed_meanwhile_lets_nobody_in(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    assert_eq!(store.passphrase().await.expect("an answer"), None);
    let first = store.keep_first_passphrase("first").await;
    assert!(first.expect("an answer"));
    let second = store.keep_first_passphrase("second").await;
    assert!(!second.expect("an answer"), "there is one");
    let sign_in = async |digest: u8, by: &str| {
        let device = store.sign_in("Tablet", &[digest; 32], by).await;
        device.expect("an answer")
    };
    let tablet = sign_in(1, "first").await.expect("it is let in");
    let seen = async |digest: u8| {
        let device = store.device_that_shows(&[digest; 32]).await;
        device.expect("an answer")
    };
    assert_eq!((seen(1).await, seen(2).await), (Some(tablet), None));
    store
        .change_passphrase("second")
        .await
        .expect("it is changed");
    assert_eq!(seen(1).await, None);
    // It was looked at while the first was still the one.
    assert_eq!(sign_in(3, "first").await, None);
    assert!(sign_in(4, "second").await.is_some());
}

#[test_context(Tables)]
#[tokio::test]
async fn a_device_that_was_silent_for_long_is_asked_again(Tables(database): &Tables) {
    let store = studio(database.pool().clone()).await;
    let kept = store.keep_first_passphrase("one").await;
    assert!(kept.expect("an answer"));
    let tablet = store.sign_in("Tablet", &[7; 32], "one").await;
    let tablet = tablet.expect("an answer").expect("it is let in");
    let silent_for = async |days: i32| {
        sqlx::query("UPDATE device SET seen_at = now() - make_interval(days => $1)")
            .bind(days)
            .execute(database.pool())
            .await
            .expect("it is set back");
        let listed = store.devices().await.expect("a list").len();
        let seen = store.device_that_shows(&[7; 32]).await;
        (listed, seen.expect("an answer"))
    };
    assert_eq!(silent_for(89).await, (1, Some(tablet)));
    // Asking was a sign of life.
    let [device] = store
        .devices()
        .await
        .expect("a list")
        .try_into()
        .expect("one");
    assert!(device.seen >= device.signed_in, "{device:?}");
    assert_eq!(silent_for(91).await, (0, None));
    assert!(store.sign_out(tablet).await.expect("an answer"));
    assert!(!store.sign_out(tablet).await.expect("an answer"));
}
