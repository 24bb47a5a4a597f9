//! How much a browser loads before a page is there, on a line that is slow.

use std::{
    collections::{BTreeMap, BTreeSet},
    io::Write as _,
};

use anyhow::{Context as _, Result};
use flate2::{Compression, write::GzEncoder};
use serde_json::Value;

const KB: usize = 1000;

fn bytes_of(path: &str) -> Result<Vec<u8>> {
    let file = hummock_pages::file(path).with_context(|| format!("{path} is not built"))?;
    Ok(file.bytes.into_owned())
}

fn zipped(path: &str) -> Result<usize> {
    let mut zip = GzEncoder::new(Vec::new(), Compression::best());
    zip.write_all(&bytes_of(path)?)?;
    Ok(zip.finish()?.len())
}

/// Returns the scripts that the modules of a page load, each once, with what each is when it is compressed.
fn scripts_of(modules: &[&str]) -> Result<BTreeMap<String, usize>> {
    let manifest: Value = serde_json::from_slice(&bytes_of("files.json")?)?;
    let mut wanted: Vec<String> = modules.iter().map(|&module| module.to_owned()).collect();
    let mut seen = BTreeSet::new();
    let mut scripts = BTreeMap::new();
    while let Some(module) = wanted.pop() {
        if !seen.insert(module.clone()) {
            continue;
        }
        let chunk = manifest
            .get(&module)
            .with_context(|| format!("{module} is no part of the build"))?;
        let file = chunk["file"].as_str().context("a chunk is a file")?;
        scripts.insert(file.to_owned(), zipped(file)?);
        let imports = chunk["imports"].as_array().into_iter().flatten();
        wanted.extend(imports.filter_map(Value::as_str).map(str::to_owned));
    }
    Ok(scripts)
}

#[test]
fn the_short_way_is_under_200_kb_of_scripts() -> Result<()> {
    let scripts = scripts_of(&[
        "index.html",
        "src/places/ShipmentPlace.vue",
        "src/stops/short/ShortWay.vue",
    ])?;
    let whole: usize = scripts.values().sum();
    assert!(whole < 200 * KB, "{whole} bytes: {scripts:?}");
    // The frame, its parts and the drawing are among them, so that an empty list can't pass.
    assert!(scripts.len() > 10 && whole > 50 * KB, "{scripts:?}");
    Ok(())
}

/// The bench is what the application opens with.
#[test]
fn the_bench_is_under_120_kb_of_scripts() -> Result<()> {
    let scripts = scripts_of(&["index.html", "src/places/BenchPlace.vue"])?;
    let whole: usize = scripts.values().sum();
    assert!(whole < 120 * KB, "{whole} bytes: {scripts:?}");
    Ok(())
}

/// Every place, and every stop within its shipment, however it is opened.
#[test]
fn the_first_view_of_any_place_is_under_200_kb_of_scripts() -> Result<()> {
    let manifest: Value = serde_json::from_slice(&bytes_of("files.json")?)?;
    let parts = manifest.as_object().context("a build has parts")?;
    let mut seen = 0;
    for module in parts.keys() {
        let place = module.starts_with("src/places/") && module.ends_with("Place.vue");
        let stop = module.starts_with("src/stops/") && module.ends_with(".vue");
        if !(place || stop) || parts[module]["isDynamicEntry"] != true {
            continue;
        }
        seen += 1;
        let scripts = if stop {
            scripts_of(&["index.html", "src/places/ShipmentPlace.vue", module])?
        } else {
            scripts_of(&["index.html", module])?
        };
        let whole: usize = scripts.values().sum();
        assert!(whole < 200 * KB, "{module}: {whole} bytes");
        // Each file costs a slow line as much as a few kilobytes, and six of them are loaded at once.
        assert!(scripts.len() <= 20, "{module}: {scripts:?}");
    }
    assert!(seen > 25, "{seen} places");
    Ok(())
}

#[test]
fn the_frame_is_painted_before_any_other_file_is_there() -> Result<()> {
    let page = String::from_utf8(bytes_of("index.html")?)?;
    assert!(page.len() <= 15 * KB, "{} bytes", page.len());
    let (before, behind) = page
        .split_once("</header>")
        .context("the frame has a strip")?;
    assert!(before.contains("<style>"), "its style is in the page");
    // A style sheet before it would hold the painting up until it is there; a module never does.
    assert!(!before.contains("rel=\"stylesheet\""), "{before}");
    assert!(behind.contains("rel=\"stylesheet\""), "{behind}");
    let scripts = before.matches("<script").count();
    assert_eq!(scripts, before.matches("<script type=\"module\"").count());
    // The program is asked for with the page, not by its first file.
    let asked = before.matches("rel=\"modulepreload\"").count();
    assert!(before.contains("/assets/program-") && asked > 1, "{before}");
    Ok(())
}
