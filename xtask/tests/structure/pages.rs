//! Which file of the front end takes from which.

use std::collections::BTreeSet;
use std::path::{Path, PathBuf};

use crate::graph::{Imports, sources};

/// Imports within the front end; every one of them ends in `from "…"` or stands in `import("…")`.
#[must_use]
pub fn of_pages(source: &Path) -> Imports {
    let files = sources(source, &[".ts", ".tsx"]);
    let known: BTreeSet<&PathBuf> = files.iter().collect();
    let target = |file: &Path, from: &str| {
        let mut base = file.parent()?.to_owned();
        for part in from.split('/') {
            match part {
                "." => {}
                ".." => _ = base.pop(),
                name => base.push(name),
            }
        }
        let ending = |ending: &str| PathBuf::from(format!("{}.{ending}", base.display()));
        [ending("ts"), ending("tsx")].into_iter().find(|path| known.contains(path))
    };
    files
        .iter()
        .map(|file| {
            let text = std::fs::read_to_string(file).unwrap();
            let named = ["from \"", "import(\""]
                .iter()
                .flat_map(|mark| text.split(mark).skip(1).filter_map(|rest| rest.split('"').next()));
            let taken =
                named.filter(|from| from.starts_with('.')).filter_map(|from| target(file, from)).collect();
            (file.clone(), taken)
        })
        .collect()
}
