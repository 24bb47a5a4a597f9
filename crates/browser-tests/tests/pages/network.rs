//! A tablet of the workshop: let in once, and nothing typed is lost when it is signed out.

use anyhow::Result;
use hummock_browser_tests::Studio;
use test_context::test_context;
use thirtyfour::Key;

use crate::Demo;

#[test_context(Demo)]
#[tokio::test]
async fn a_tablet_is_let_in_once_and_keeps_what_is_typed_while_it_is_out(
    Demo(database): &Demo,
) -> Result<()> {
    let keys = std::env::temp_dir().join(format!("hummock-keys-{}", std::process::id()));
    let studio = Studio::open_to_tablets(database.pool(), &keys).await?;
    let passphrase = studio.passphrase()?;
    let tablet = studio.tablet()?;
    tablet.goto("/").await?;
    tablet
        .sees(".modal", "gives the studio’s passphrase once")
        .await?;
    tablet.lacks("[data-test='bench'] a").await?;
    tablet.fill("passphrase", "heron on the wrong bank").await?;
    tablet.press_called("Sign in this device").await?;
    tablet.sees(".modal .error", "wrong passphrase").await?;
    tablet.fill("name", "Tablet by the saw").await?;
    tablet.fill("passphrase", &passphrase).await?;
    tablet.press_called("Sign in this device").await?;
    tablet.lacks(".modal.show").await?;
    tablet.press_called("Kelp Ladder").await?;
    tablet.is_saved().await?;
    tablet.keys("1").await?;

    // Somebody at the machine signs it out, and it goes on being typed on. Nothing is answered until it is typed, since
    // whatever the page happens to ask first would bring up the question that covers the field.
    let mut signing_out = database.pool().begin().await?;
    sqlx::query("LOCK TABLE device")
        .execute(&mut *signing_out)
        .await?;
    sqlx::query("DELETE FROM device")
        .execute(&mut *signing_out)
        .await?;
    tablet
        .type_into("title", "Kelp Ladder, second state")
        .await?;
    tablet.keys(Key::Tab).await?;
    signing_out.commit().await?;
    tablet.sees(".modal", "Changes made on it are kept").await?;
    tablet.reload().await?;
    tablet.fill("passphrase", &passphrase).await?;
    tablet.press_called("Sign in this device").await?;
    tablet.lacks(".modal.show").await?;
    tablet.is_saved().await?;
    studio.page().goto("/").await?;
    studio
        .page()
        .sees("main", "Kelp Ladder, second state")
        .await?;
    std::fs::remove_dir_all(keys)?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn house_rules_say_how_a_tablet_gets_in_and_sign_it_out(Demo(database): &Demo) -> Result<()> {
    let keys = std::env::temp_dir().join(format!("hummock-keys-{}", std::process::id() + 1));
    let studio = Studio::open_to_tablets(database.pool(), &keys).await?;
    let tablet = studio.tablet()?;
    tablet.goto("/").await?;
    tablet.fill("passphrase", &studio.passphrase()?).await?;
    tablet.press_called("Sign in this device").await?;
    tablet.lacks(".modal.show").await?;

    let page = studio.page();
    page.goto("/studio/tablets").await?;
    page.sees("[data-test='tablets']", "https://127.0.0.1:")
        .await?;
    page.sees("[data-device='Tablet']", "Sign out").await?;
    page.fill("new-passphrase", "heron").await?;
    page.press_called("Change the passphrase").await?;
    page.sees("[data-test='tablets'] .error", "5 characters are too few")
        .await?;
    page.fill("new-passphrase", "heron on the far bank").await?;
    page.press_called("Change the passphrase").await?;
    page.sees("[data-test='tablets']", "The passphrase is changed")
        .await?;
    page.lacks("[data-device]").await?;

    let tablet = studio.tablet()?;
    tablet.goto("/studio/tablets").await?;
    tablet.fill("passphrase", "heron on the far bank").await?;
    tablet.fill("name", "Phone").await?;
    tablet.press_called("Sign in this device").await?;
    tablet.sees("[data-device='Phone']", "this one").await?;
    tablet.lacks("[name='new-passphrase']").await?;
    page.goto("/studio/tablets").await?;
    page.press("[data-device='Phone'] button").await?;
    page.sees("[data-test='tablets']", "Phone is signed out")
        .await?;
    page.sees("[data-test='tablets']", "No device is signed in yet")
        .await?;
    std::fs::remove_dir_all(keys)?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_studio_on_its_own_machine_is_told_how_to_open_it(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/studio/tablets").await?;
    page.sees("[data-test='tablets']", "bin/start --listen 0.0.0.0")
        .await?;
    page.lacks("[name='new-passphrase']").await?;
    studio.close().await
}
