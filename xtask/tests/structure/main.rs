//! The house stands as `docs/architecture.md` and `docs/map.md` say.

mod graph;
mod pages;
mod syntax;

use std::path::{Path, PathBuf};

use xtask::share::{Share, of_file};

use graph::{Imports, by_folder, circles};

fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).parent().unwrap().to_owned()
}

/// The circles among files and among the rooms of each folder.
fn all_circles(imports: &Imports, below: &Path) -> Vec<String> {
    let short = |path: &PathBuf| path.strip_prefix(below).unwrap_or(path).display().to_string();
    let mut found = circles(imports);
    found.extend(by_folder(imports).iter().flat_map(circles));
    found.iter().map(|ring| ring.iter().map(short).collect::<Vec<_>>().join(" <-> ")).collect()
}

#[test]
fn no_files_and_no_rooms_take_from_one_another_in_a_circle() {
    for part in ["model", "core", "store", "devices", "server"] {
        let source = root().join("crates").join(part).join("src");
        let imports = syntax::of_crate(&source);
        assert!(imports.values().any(|taken| !taken.is_empty()) || part == "devices", "{part} was read");
        assert_eq!(all_circles(&imports, &source), Vec::<String>::new(), "circles in {part}");
    }
    let source = root().join("web/src");
    let web = pages::of_pages(&source);
    assert!(web.len() > 50, "the front end was read");
    assert_eq!(all_circles(&web, &source), Vec::<String>::new(), "circles in the front end");
}

/// The floors of core as `docs/architecture.md` draws them, the lowest first.
const FLOORS: [&[&str]; 5] = [
    &["kettle", "canner", "kitchen", "crates", "day"],
    &["recipe", "towel", "shelf", "jars"],
    &["judge"],
    &["plan"],
    &["ledger"],
];
/// Rooms that look at all stations and that nobody looks at.
const ABOVE: [&str; 3] = ["counter", "figures", "lib"];

#[test]
fn the_rooms_of_core_stand_on_the_floors_that_are_drawn() {
    let source = root().join("crates/core/src");
    let imports = syntax::of_crate(&source);
    let name = |path: &Path| path.file_name().unwrap().to_string_lossy().into_owned();
    let floor = |room: &str| FLOORS.iter().position(|floor| floor.contains(&room));
    let mut wrong = Vec::new();
    for (from, taken) in graph::rooms(&imports, &source) {
        let from = name(&from);
        for to in taken.iter().map(|to| name(to)) {
            let is_down = match (floor(&from), floor(&to)) {
                (Some(from), Some(to)) => to < from,
                (None, Some(_)) => ABOVE.contains(&from.as_str()),
                _ => false,
            };
            if !is_down {
                wrong.push(format!("{from} -> {to}"));
            }
        }
    }
    assert_eq!(wrong, Vec::<String>::new());
}

/// A small crate in a folder of its own, and its circles.
fn circles_of(files: &[(&str, &str)]) -> Vec<String> {
    let folder = tempfile::tempdir().unwrap();
    for (name, text) in files {
        let file = folder.path().join(name);
        std::fs::create_dir_all(file.parent().unwrap()).unwrap();
        std::fs::write(file, text).unwrap();
    }
    all_circles(&syntax::of_crate(folder.path()), folder.path())
}

#[test]
fn a_circle_is_found_wherever_its_path_stands() {
    let found = |b: &str| {
        circles_of(&[
            ("lib.rs", "mod a;\nmod b;\nmod c;\npub use a::A;\n"),
            ("a.rs", "use crate::b::{B, Other};\npub struct A;\n"),
            ("b.rs", b),
            ("c.rs", "use super::a::A;\n"),
        ])
    };
    let ring = ["a.rs <-> b.rs", "a <-> b"];
    assert_eq!(found("use crate::A;\n"), ring, "an import of a name that the root hands on");
    assert_eq!(found("fn b() -> u8 { crate::a::one() }\n"), ring, "a path in the code");
    assert_eq!(found("use crate::a;\nfn b() -> u8 { a::one() }\n"), ring, "a module that is imported");
    assert_eq!(found("fn b() { assert!(crate::a::one()) }\n"), ring, "a path in a macro");
    assert_eq!(found("#[serde(with = \"crate::a\")] struct B;\n"), ring, "a path in an attribute");
    assert_eq!(found("mod inside { use super::super::a::A; }\n"), ring, "an import inside a module");
    assert_eq!(found("#[cfg(test)] mod tests { use crate::A; }\n"), [""; 0], "tests may look anywhere");
    assert_eq!(found("pub struct B;\n"), [""; 0]);
}

#[test]
fn a_circle_of_rooms_is_found_where_no_files_make_one() {
    let found = circles_of(&[
        ("lib.rs", "mod a;\nmod b;\n"),
        ("a.rs", "mod low;\nmod high;\n"),
        ("a/low.rs", "pub struct Low;\n"),
        ("a/high.rs", "use crate::b::B;\n"),
        ("b.rs", "use crate::a::low::Low;\n"),
    ]);
    assert_eq!(found, ["a <-> b"]);
}

#[test]
fn a_parent_that_calls_its_child_and_is_called_by_it_is_a_circle() {
    let child = "use super::Case;\npub fn judge(_: Case) {}\n";
    let found = circles_of(&[
        ("lib.rs", "mod judge;\n"),
        ("judge.rs", "mod acid;\npub struct Case;\npub fn judge() { acid::judge(Case) }\n"),
        ("judge/acid.rs", child),
    ]);
    assert_eq!(found, ["judge/acid.rs <-> judge.rs"]);
}

#[test]
fn every_answer_of_the_map_is_a_file() {
    let map = std::fs::read_to_string(root().join("docs/map.md")).unwrap();
    let answers: Vec<&str> = map.split('`').skip(1).step_by(2).filter(|word| word.contains('/')).collect();
    assert!(answers.len() >= 20, "twenty questions have twenty answers, not {}", answers.len());
    for answer in answers {
        assert!(root().join(answer).is_file(), "{answer} is named in docs/map.md and is not there");
    }
}

/// Every file of the house, by its path from the root.
fn every_file() -> Vec<String> {
    let of = |part: &str| graph::sources(&root().join(part), &[".rs", ".ts", ".tsx"]);
    let all = ["crates", "xtask", "web/src"].into_iter().flat_map(of);
    all.filter_map(|file| Some(file.strip_prefix(root()).ok()?.to_string_lossy().into_owned()))
        .filter(|file| !file.contains("/target/"))
        .collect()
}

#[test]
fn every_file_that_a_document_names_is_there() {
    let files = every_file();
    let mut pages: Vec<PathBuf> =
        ["README.md", "CONTRIBUTING.md"].iter().map(|page| root().join(page)).collect();
    pages
        .extend(std::fs::read_dir(root().join("docs")).unwrap().filter_map(|entry| Some(entry.ok()?.path())));
    let (mut checked, mut missing) = (0, Vec::new());
    for page in pages.iter().filter(|page| page.extension().is_some_and(|ending| ending == "md")) {
        let text = std::fs::read_to_string(page).unwrap();
        let is_code = |word: &&str| [".rs", ".ts", ".tsx"].iter().any(|ending| word.ends_with(ending));
        let named = text.split('`').skip(1).step_by(2).filter(is_code);
        for name in named.filter(|name| !name.contains(['{', '<', ' '])) {
            // `core/kettle/lead.rs` leaves out `crates` and `src`.
            let parts: Vec<&str> = name.split('/').collect();
            let is_it = |file: &String| {
                let mut rest = file.split('/');
                parts.iter().all(|part| rest.by_ref().any(|other| other == *part)) && rest.next().is_none()
            };
            checked += 1;
            if !files.iter().any(is_it) {
                missing.push(format!("{}: {name}", page.display()));
            }
        }
    }
    assert_eq!(missing, Vec::<String>::new());
    assert!(checked > 100, "{checked} names were checked");
}

#[test]
fn every_rule_stands_where_the_sources_say() {
    let sources = std::fs::read_to_string(root().join("docs/sources.md")).unwrap();
    let mut checked = 0;
    for place in sources.split('`').skip(1).step_by(2).filter(|word| word.contains('/')) {
        // `judge/{time,handling}.rs` is two files.
        let (head, rest) = place.split_once('{').unwrap_or((place, "}"));
        let (names, tail) = rest.split_once('}').unwrap_or(("", ""));
        for name in names.split(',') {
            let file = root().join("crates").join(format!("{head}{name}{tail}"));
            assert!(file.exists(), "{} is named in docs/sources.md and is not there", file.display());
            checked += 1;
        }
    }
    assert!(checked > 40, "{checked} places were checked");
}

#[test]
fn lines_of_tests_are_told_from_lines_of_code() {
    let text = "//! Doc.\n\nfn code() {}\n\n#[cfg(test)]\nmod tests {\n    #[test]\n    fn it() {}\n}\n";
    assert_eq!(of_file("crates/core/src/a.rs", text), Share { code: 1, tests: 5 });
    assert_eq!(of_file("crates/core/src/a/tests.rs", "fn it() {}\n"), Share { code: 0, tests: 1 });
    assert_eq!(of_file("web/src/parts/a.test.ts", "it();\n// no\n"), Share { code: 0, tests: 1 });
    assert_eq!(Share { code: 3, tests: 1 }.percent(), 25);
}
