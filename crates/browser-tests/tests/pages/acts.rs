//! The list of what can be done on the pages of a shipment, held to the tests that it names.

use anyhow::{Context as _, Result, ensure};

const ACTS: &str = include_str!("../../../../docs/acts.md");

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
        let driven = act.split('|').nth(3).context("a third column")?;
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
