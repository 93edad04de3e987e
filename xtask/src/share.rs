//! The share of tests in all code: lines of Rust, TypeScript, CSS and SQL without blanks and comments, generated files
//! aside.

use std::collections::BTreeMap;
use std::path::Path;

/// Lines of code and of tests.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct Share {
    /// Lines that are not tests.
    pub code: usize,
    /// Lines of tests.
    pub tests: usize,
}

impl Share {
    /// Tests in a hundred lines of all.
    #[must_use]
    pub fn percent(self) -> usize {
        (self.tests * 100 + (self.code + self.tests) / 2) / (self.code + self.tests).max(1)
    }
}

fn counts(line: &&str) -> bool {
    let line = line.trim();
    !line.is_empty() && !["//", "/*", "*", "#!", "--"].iter().any(|comment| line.starts_with(comment))
}

fn is_test_file(path: &str) -> bool {
    path.split('/').any(|part| matches!(part, "tests" | "e2e" | "benches"))
        || ["_test.rs", "/tests.rs", ".test.ts", ".test.tsx"].iter().any(|ending| path.ends_with(ending))
}

/// Lines of one file.
#[must_use]
pub fn of_file(path: &str, text: &str) -> Share {
    let lines: Vec<&str> = text.lines().collect();
    let all = |lines: &[&str]| lines.iter().filter(|line| counts(line)).count();
    if is_test_file(path) {
        return Share { code: 0, tests: all(&lines) };
    }
    let opens_tests = |place: &usize| {
        lines[*place].trim_start().starts_with("#[cfg(test)]")
            && lines
                .get(place + 1)
                .is_some_and(|next| next.trim_start().starts_with("mod ") && next.ends_with('{'))
    };
    let cut = (0..lines.len()).find(opens_tests).filter(|_| path.ends_with(".rs")).unwrap_or(lines.len());
    Share { code: all(&lines[..cut]), tests: all(&lines[cut..]) }
}

/// Lines by part of the project: a crate each, the front end, xtask.
///
/// # Errors
/// When a file cannot be read.
pub fn by_part(root: &Path, files: &[String]) -> std::io::Result<BTreeMap<String, Share>> {
    let mut parts: BTreeMap<String, Share> = BTreeMap::new();
    let is_code = |path: &&String| {
        [".rs", ".ts", ".tsx", ".css", ".sql"].iter().any(|ending| path.ends_with(ending))
            && !path.contains("generated")
            && !path.ends_with(".d.ts")
    };
    for path in files.iter().filter(is_code) {
        let depth = if path.starts_with("crates/") { 2 } else { 1 };
        let part = path.split('/').take(depth).collect::<Vec<_>>().join("/");
        let share = of_file(path, &std::fs::read_to_string(root.join(path))?);
        let sum = parts.entry(part).or_default();
        sum.code += share.code;
        sum.tests += share.tests;
    }
    Ok(parts)
}
