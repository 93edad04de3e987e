//! Files and folders that take from one another, and the circles among them.

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};

/// Files or rooms with those that each takes from.
pub type Imports = BTreeMap<PathBuf, BTreeSet<PathBuf>>;

/// Every file below a folder with one of the endings, tests aside.
#[must_use]
pub fn sources(folder: &Path, endings: &[&str]) -> Vec<PathBuf> {
    let mut found = Vec::new();
    let mut open = vec![folder.to_owned()];
    while let Some(next) = open.pop() {
        let Ok(entries) = std::fs::read_dir(&next) else { continue };
        for path in entries.filter_map(|entry| Some(entry.ok()?.path())) {
            let name = path.file_name().map(|name| name.to_string_lossy().into_owned()).unwrap_or_default();
            if path.is_dir() {
                open.push(path);
            } else if endings.iter().any(|ending| name.ends_with(ending))
                && !name.contains(".test.")
                && !name.contains("generated")
                && !name.ends_with(".d.ts")
                && name != "tests.rs"
            {
                found.push(path);
            }
        }
    }
    found.sort();
    found
}

/// What the rooms of a folder take from one another: a room is a folder with all that is in it, and the file of its name.
/// Files that stand for the folder itself (`lib.rs`, `main.rs`, `App.tsx`) name all rooms and belong to none.
#[must_use]
pub fn rooms(imports: &Imports, folder: &Path) -> Imports {
    let room = |file: &Path| {
        let first = file.strip_prefix(folder).ok()?.iter().next()?;
        Some(folder.join(first).with_extension(""))
    };
    let mut found = Imports::new();
    for (file, taken) in imports {
        let Some(from) = room(file) else { continue };
        let entry = found.entry(from.clone()).or_default();
        entry.extend(taken.iter().filter_map(|other| room(other)).filter(|to| *to != from));
    }
    found
}

/// The rooms of every folder in which a source lies.
#[must_use]
pub fn by_folder(imports: &Imports) -> Vec<Imports> {
    let folders: BTreeSet<&Path> = imports.keys().filter_map(|file| file.parent()).collect();
    folders.into_iter().map(|folder| rooms(imports, folder)).collect()
}

/// Those that take from one another in a circle, each circle once.
#[must_use]
pub fn circles(imports: &Imports) -> Vec<BTreeSet<PathBuf>> {
    let reach = |from: &PathBuf| {
        let mut seen = BTreeSet::new();
        let mut open: Vec<&PathBuf> = imports.get(from).into_iter().flatten().collect();
        while let Some(next) = open.pop() {
            if seen.insert(next.clone()) {
                open.extend(imports.get(next).into_iter().flatten());
            }
        }
        seen
    };
    let reached: BTreeMap<&PathBuf, BTreeSet<PathBuf>> =
        imports.keys().map(|file| (file, reach(file))).collect();
    let mut found: BTreeSet<BTreeSet<PathBuf>> = BTreeSet::new();
    for (file, reaches) in &reached {
        if reaches.contains(*file) {
            let ring =
                reaches.iter().filter(|other| reached.get(other).is_some_and(|back| back.contains(*file)));
            found.insert(ring.cloned().collect());
        }
    }
    found.into_iter().collect()
}
