//! The list of what can be done on the pages of a shipment, held to the tests that it names.

use anyhow::{Context as _, Result, ensure};
use hummock_browser_tests::Studio;
use test_context::test_context;
use thirtyfour::Key;

use crate::{Demo, words};

const ACTS: &str = include_str!("../../../../docs/page-acts.md");

/// Each act of the list names tests that there are.
#[test]
fn each_act_is_driven_by_a_test() -> Result<()> {
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/tests/pages");
    let mut tests = String::new();
    for file in std::fs::read_dir(folder)? {
        tests.push_str(&std::fs::read_to_string(file?.path())?);
    }
    let rows = ACTS.lines().filter(|line| line.starts_with("| "));
    let acts: Vec<&str> = rows.skip(1).collect();
    ensure!(acts.len() >= 40, "{} acts", acts.len());
    for act in acts {
        let driven = act.split('|').nth(4).context("a fourth column")?;
        let named: Vec<&str> = driven.split('`').skip(1).step_by(2).collect();
        ensure!(!named.is_empty(), "nothing drives: {act}");
        for test in named {
            ensure!(
                tests.contains(&format!("async fn {test}(")),
                "{test} is gone, which drives: {act}"
            );
        }
    }
    Ok(())
}

/// What somebody types to find each act: the third column, without what is an address or a key.
fn sought() -> Vec<&'static str> {
    let rows = ACTS.lines().filter(|line| line.starts_with("| ")).skip(1);
    let words = rows.filter_map(|row| row.split('|').nth(3).map(str::trim));
    words.filter(|word| !word.contains('`')).collect()
}

/// Kills an act that no word leads to, and a search that opens nothing.
#[test_context(Demo)]
#[tokio::test]
async fn each_act_is_found_by_its_word_on_an_open_parcel(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.open("Kelp Ladder", "guard").await?;
    page.keys("/").await?;
    page.is_at("input[name='find-act']").await?;
    page.everyone_can_use_it().await?;
    let words = sought();
    ensure!(words.len() > 50, "{} words", words.len());
    for word in words {
        page.type_into("find-act", word).await?;
        page.find("[data-test='acts'] button")
            .await
            .with_context(|| format!("nothing is found by \"{word}\""))?;
    }
    page.type_into("find-act", "no such thing").await?;
    page.sees("[data-test='acts']", "Nothing is called that")
        .await?;
    // Enter takes the first, a press any other.
    page.type_into("find-act", "pack sheet").await?;
    page.sees("[data-test='acts'] li:first-child", "Print the pack sheet")
        .await?;
    page.keys(Key::Enter).await?;
    page.is_at_stop("pack").await?;
    page.keys("/").await?;
    page.is_at("input[name='find-act']").await?;
    page.type_into("find-act", "insurance").await?;
    page.press("[data-test='acts'] li:nth-child(2) button")
        .await?;
    page.is_at_stop("price").await?;
    // What is no stop of the parcel is left by Back.
    page.press_called("Find").await?;
    page.type_into("find-act", "price list").await?;
    page.press("[data-test='acts'] li:first-child button")
        .await?;
    page.sees("h1", words::CARRIERS).await?;
    page.back().await?;
    page.is_at_stop("price").await?;
    studio.close().await
}
