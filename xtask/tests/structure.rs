//! The house stands as `docs/architecture.md` and `docs/map.md` say.

use std::path::{Path, PathBuf};

use xtask::imports::{Imports, circles, of_crate, of_web};
use xtask::share::{Share, of_file};

fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).parent().unwrap().to_owned()
}

fn names(imports: &Imports) -> Vec<String> {
    let short = |path: &PathBuf| path.strip_prefix(root()).unwrap_or(path).display().to_string();
    circles(imports).iter().map(|ring| ring.iter().map(short).collect::<Vec<_>>().join(" <-> ")).collect()
}

#[test]
fn no_files_take_from_one_another_in_a_circle() {
    for part in ["core", "store", "devices", "server"] {
        let imports = of_crate(&root().join("crates").join(part).join("src"));
        assert!(imports.values().any(|taken| !taken.is_empty()) || part == "devices", "{part} was read");
        assert_eq!(names(&imports), Vec::<String>::new(), "circles in {part}");
    }
    let web = of_web(&root().join("web/src"));
    assert!(web.len() > 50, "the front end was read");
    assert_eq!(names(&web), Vec::<String>::new(), "circles in the front end");
}

#[test]
fn a_circle_is_found() {
    let folder = tempfile::tempdir().unwrap();
    let write = |name: &str, text: &str| std::fs::write(folder.path().join(name), text).unwrap();
    write("lib.rs", "mod a;\nmod b;\nmod c;\npub use a::A;\n");
    write("a.rs", "use crate::b::{B, Other};\npub struct A;\n");
    write("b.rs", "use crate::A;\npub struct B;\n");
    write("c.rs", "use super::a::A;\n");
    let found = circles(&of_crate(folder.path()));
    assert_eq!(found.len(), 1, "{found:?}");
    let ring: Vec<_> = found[0].iter().map(|path| path.file_name().unwrap().to_owned()).collect();
    assert_eq!(ring, ["a.rs", "b.rs"]);
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
