//! Which file takes from which: the imports of Rust crates and of the front end, read as text.

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};

/// Files with the files that each takes from.
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

/// The code of a file without its unit tests.
fn code(file: &Path) -> String {
    let text = std::fs::read_to_string(file).unwrap_or_default();
    text.split("#[cfg(test)]").next().unwrap_or_default().to_owned()
}

/// The paths of one `use` tree: `a::{b, c::d}` is `a::b` and `a::c::d`.
fn paths(tree: &str) -> Vec<String> {
    let tree = tree.trim();
    let Some(open) = tree.find('{') else { return vec![tree.to_owned()] };
    let (head, rest) =
        (tree[..open].trim_end_matches("::"), &tree[open + 1..tree.rfind('}').unwrap_or(tree.len())]);
    let (mut depth, mut part, mut parts) = (0, String::new(), Vec::new());
    for letter in rest.chars() {
        match letter {
            '{' => depth += 1,
            '}' => depth -= 1,
            _ => {}
        }
        if letter == ',' && depth == 0 {
            parts.push(std::mem::take(&mut part));
        } else {
            part.push(letter);
        }
    }
    parts.push(part);
    let parts = parts.iter().map(|part| part.trim()).filter(|part| !part.is_empty());
    parts.flat_map(paths).map(|path| if head.is_empty() { path } else { format!("{head}::{path}") }).collect()
}

/// Every `use` of a file, as whole paths.
fn uses(text: &str) -> Vec<(bool, String)> {
    let mut found = Vec::new();
    let mut rest = text;
    while let Some(at) = rest.find("use ") {
        let before = rest[..at].rsplit('\n').next().unwrap_or_default().trim();
        let is_use = matches!(before, "" | "pub" | "pub(crate)" | "pub(super)");
        rest = &rest[at + 4..];
        let Some(end) = rest.find(';') else { break };
        if is_use {
            let tree = rest[..end].replace('\n', " ");
            found.extend(paths(&tree).into_iter().map(|path| (before == "pub", path)));
        }
    }
    found
}

/// Imports within one Rust crate. A name that the root hands on counts as its own module's.
#[must_use]
pub fn of_crate(source: &Path) -> Imports {
    let files = sources(source, &[".rs"]);
    let module = |file: &Path| {
        let path = file.strip_prefix(source).unwrap_or(file).with_extension("");
        let parts: Vec<String> = path.iter().map(|part| part.to_string_lossy().into_owned()).collect();
        if parts == ["lib"] { Vec::new() } else { parts }
    };
    let modules: BTreeMap<Vec<String>, PathBuf> = files
        .iter()
        .filter(|file| !file.ends_with("main.rs"))
        .map(|file| (module(file), file.clone()))
        .collect();
    let handed_on: BTreeMap<String, Vec<String>> = uses(&code(&source.join("lib.rs")))
        .into_iter()
        .filter(|(is_public, _)| *is_public)
        .filter_map(|(_, path)| {
            let parts: Vec<String> = path.split("::").map(str::to_owned).collect();
            Some((parts.last()?.clone(), parts))
        })
        .collect();
    let resolve = |mut parts: Vec<String>| loop {
        if let Some(file) = modules.get(&parts) {
            return Some(file.clone());
        }
        parts.pop()?;
    };
    let target = |file: &Path, path: &str| {
        let here = module(file);
        let mut parts: Vec<String> = path.split("::").map(|part| part.trim().to_owned()).collect();
        match parts.first().map(String::as_str) {
            Some("crate") => {
                parts.remove(0);
                let handed = parts.first().filter(|_| parts.len() == 1).and_then(|name| handed_on.get(name));
                resolve(handed.cloned().unwrap_or(parts))
            }
            Some("super") => {
                let mut base = here;
                while parts.first().is_some_and(|part| part == "super") {
                    parts.remove(0);
                    base.pop();
                }
                base.extend(parts);
                resolve(base)
            }
            Some(first)
                if modules.keys().any(|known| known.as_slice() == [first.to_owned()]) && here.is_empty() =>
            {
                resolve(parts)
            }
            _ => None,
        }
    };
    files
        .iter()
        .map(|file| {
            let mut taken: BTreeSet<PathBuf> =
                uses(&code(file)).iter().filter_map(|(_, path)| target(file, path)).collect();
            taken.remove(file);
            // A root that only names its modules and hands names on takes nothing for itself.
            if module(file).is_empty()
                && !["struct ", "fn ", "impl "].iter().any(|word| code(file).contains(word))
            {
                taken.clear();
            }
            (file.clone(), taken)
        })
        .collect()
}

/// Imports within the front end.
#[must_use]
pub fn of_web(source: &Path) -> Imports {
    let files = sources(source, &[".ts", ".tsx"]);
    let target = |file: &Path, from: &str| {
        let base = file.parent()?.join(from);
        ["ts", "tsx"]
            .iter()
            .map(|ending| base.with_extension(ending))
            .find_map(|path| path.canonicalize().ok())
    };
    let known: BTreeSet<PathBuf> = files.iter().filter_map(|file| file.canonicalize().ok()).collect();
    known
        .iter()
        .map(|file| {
            let text = code(file);
            let froms = text.split("from \"").skip(1).filter_map(|rest| rest.split('"').next());
            let taken = froms.filter(|from| from.starts_with('.')).filter_map(|from| target(file, from));
            (file.clone(), taken.filter(|path| known.contains(path)).collect())
        })
        .collect()
}

/// Files that take from one another in a circle, each circle once.
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
