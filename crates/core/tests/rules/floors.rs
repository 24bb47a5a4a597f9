//! The floors of the core: each module uses only what stands below it, as the head of `lib.rs` lists them.

use std::{
    collections::{BTreeMap, BTreeSet},
    fs,
    path::{Path, PathBuf},
};

fn source() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("src")
}

/// The floor of each module, the lowest first, read from the list at the head of `lib.rs`.
fn floors(head: &str) -> BTreeMap<String, usize> {
    let lines = head.lines().filter_map(|line| {
        let (floor, names) = line.strip_prefix("//! ")?.split_once(". ")?;
        Some((floor.parse::<usize>().ok()?, names))
    });
    lines
        .flat_map(|(floor, names)| {
            let names = names.split(", ");
            names.map(move |name| (name.trim_matches('`').to_owned(), floor))
        })
        .collect()
}

fn modules(head: &str) -> BTreeSet<String> {
    let declared = head
        .lines()
        .filter_map(|line| line.trim_start_matches("pub ").strip_prefix("mod "));
    declared
        .map(|rest| rest.trim_end_matches(';').to_owned())
        .collect()
}

/// The source files below a folder, each with what stands in it before its tests, without comments.
fn files(folder: &Path, found: &mut Vec<(PathBuf, String)>) {
    for entry in fs::read_dir(folder).expect("the folder is there") {
        let path = entry.expect("an entry").path();
        if path.is_dir() {
            files(&path, found);
        } else if path.file_name().is_some_and(|name| name != "tests.rs") {
            let text = fs::read_to_string(&path).expect("a text");
            let code = text.split("#[cfg(test)]\nmod ").next().unwrap_or_default();
            let lines = code
                .lines()
                .map(|line| line.split("//").next().unwrap_or_default());
            found.push((path, lines.collect::<Vec<_>>().join("\n")));
        }
    }
}

/// The first names after each `crate::`, be it one or a list in braces.
fn used(code: &str) -> BTreeSet<String> {
    let mut names = BTreeSet::new();
    let name_of = |text: &str| -> String {
        let letters = text.trim_start().chars();
        letters
            .take_while(|letter| letter.is_alphanumeric() || *letter == '_')
            .collect()
    };
    for (at, _) in code.match_indices("crate::") {
        let rest = &code[at + "crate::".len()..];
        let Some(list) = rest.strip_prefix('{') else {
            names.insert(name_of(rest));
            continue;
        };
        let mut depth = 0;
        names.insert(name_of(list));
        for (place, letter) in list.char_indices() {
            match letter {
                '{' => depth += 1,
                '}' if depth == 0 => break,
                '}' => depth -= 1,
                ',' if depth == 0 => {
                    names.insert(name_of(&list[place + 1..]));
                }
                _ => {}
            }
        }
    }
    names
}

#[test]
fn a_list_in_braces_is_read_to_its_end() {
    let code = "use crate::{a::{b, c}, d, E};\nlet x = crate::f::g();";
    let names = used(code);
    assert_eq!(names.into_iter().collect::<Vec<_>>(), ["E", "a", "d", "f"]);
}

#[test]
fn each_module_uses_only_the_floors_below_its_own() {
    let source = source();
    let head = fs::read_to_string(source.join("lib.rs")).expect("the head of the crate");
    let floors = floors(&head);
    let listed: BTreeSet<String> = floors.keys().cloned().collect();
    assert_eq!(listed, modules(&head), "each module stands on one floor");

    let mut found = Vec::new();
    files(&source, &mut found);
    let mut wrong = Vec::new();
    for (path, code) in &found {
        let inside = path.strip_prefix(&source).expect("below the sources");
        let first = inside.components().next().expect("a name");
        let module = first.as_os_str().to_string_lossy();
        let module = module.trim_end_matches(".rs");
        let Some(floor) = floors.get(module) else {
            continue;
        };
        for name in used(code) {
            let above = floors.get(&name).is_some_and(|other| other >= floor);
            if name != module && above {
                wrong.push(format!("{} uses {name}", inside.display()));
            }
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
}
