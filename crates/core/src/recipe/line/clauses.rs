//! What stands around the name of a line and changes how much it is: "to taste", "plus more", "in each quart".

use bodega_model::jars::size::JarSize;

use super::tokens::is_measure_or_number;

/// Clauses by which there may be more than the line says.
const MORE: [&str; 9] = [
    "plus more to taste",
    "plus more if needed",
    "plus more as needed",
    "plus more if liked",
    "plus extra",
    "plus more",
    "or more to taste",
    "and more to taste",
    "or more",
];
/// Clauses by which there may be more or less.
const TASTE: [&str; 10] = [
    "or to taste",
    "or as needed",
    "or as liked",
    "to your taste",
    "to taste",
    "as needed",
    "as liked",
    "if needed",
    "or so",
    "or less",
];
/// Words for a measure that is fuller than level.
const HEAPED: [&str; 5] = ["heaping", "heaped", "rounded", "generous", "overflowing"];
/// Words for one that is not full.
const SCANT: [&str; 2] = ["scant", "short"];

/// A line without those clauses, and what they said.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub(super) struct Clauses {
    /// The line without them.
    pub(super) line: String,
    /// There may be more of it.
    pub(super) more: bool,
    /// There may be more or less of it.
    pub(super) taste: bool,
    /// Its measure is fuller than level.
    pub(super) heaped: bool,
    /// Its measure is not full.
    pub(super) scant: bool,
    /// It is said of each jar: of this size, where the line names one.
    pub(super) per: Option<Option<JarSize>>,
}

/// Takes the first of some clauses out of a line.
fn without(line: &str, clauses: &[&str]) -> Option<String> {
    let lower = line.to_ascii_lowercase();
    let is_edge = |sign: Option<char>| sign.is_none_or(|sign| !sign.is_alphanumeric());
    clauses.iter().find_map(|clause| {
        let place = lower.find(clause)?;
        let (before, after) = (&line[..place], &line[place + clause.len()..]);
        let is_whole = is_edge(before.chars().next_back()) && is_edge(after.chars().next());
        is_whole.then(|| {
            format!(
                "{} {}",
                before.trim_end().trim_end_matches([',', ';', '(']),
                after.trim_start_matches(')')
            )
        })
    })
}

/// A word without the signs around it.
fn bare(word: &str) -> String {
    word.trim_matches(['(', ')', ',', ';', '.', ':']).to_lowercase()
}

/// The size that words speak of, and how many of them are its name: "quart jar", "half pint", "500 ml jars", "jar".
fn jar_at(words: &[String]) -> Option<(Option<JarSize>, usize)> {
    let word = |place: usize| words.get(place).map(String::as_str).unwrap_or_default();
    let (size, count) = match (word(0), word(1)) {
        ("jar" | "jars", _) => return Some((None, 1)),
        ("half", "pint" | "pints") => (JarSize::HalfPint, 2),
        ("half", "litre" | "liter" | "litres" | "liters") => (JarSize::HalfLitre, 2),
        ("half-pint" | "half-pints", _) => (JarSize::HalfPint, 1),
        ("half-litre" | "half-liter", _) => (JarSize::HalfLitre, 1),
        ("pint" | "pints" | "pt" | "pts", _) => (JarSize::Pint, 1),
        ("quart" | "quarts" | "qt" | "qts", _) => (JarSize::Quart, 1),
        ("litre" | "liter" | "litres" | "liters" | "l", _) => (JarSize::Litre, 1),
        ("1", "l" | "litre" | "liter") => (JarSize::Litre, 2),
        ("500", "ml") => (JarSize::HalfLitre, 2),
        ("500ml", _) => (JarSize::HalfLitre, 1),
        _ => return None,
    };
    let jar = usize::from(matches!(word(count), "jar" | "jars"));
    Some((Some(size), count + jar))
}

/// The line without what says that it is for each jar, and the size it names. Only what stands behind a name counts: "a quart
/// of vinegar" is an amount.
fn per_jar(line: &str) -> Option<(String, Option<JarSize>)> {
    // "Juice/pint", but not "1/2".
    let mut apart = String::new();
    let mut before = ' ';
    for sign in line.chars() {
        if sign == '/' && !before.is_ascii_digit() {
            apart.push_str(" / ");
        } else {
            apart.push(sign);
        }
        before = sign;
    }
    let words: Vec<&str> = apart.split_whitespace().collect();
    let bare: Vec<String> = words.iter().map(|word| bare(word)).collect();
    let named = bare.iter().position(|word| !is_measure_or_number(word))?;
    let each = |word: &str| matches!(word, "per" | "each" | "every" | "a" | "an" | "/");
    let place =
        (named + 1..bare.len()).find(|place| each(&bare[*place]) && jar_at(&bare[place + 1..]).is_some())?;
    let (size, count) = jar_at(&bare[place + 1..])?;
    let is_lead = |word: &str| matches!(word, "in" | "to" | "for" | "into" | "added" | "add");
    let lead = bare[..place].iter().rev().take_while(|word| is_lead(word)).count();
    let kept = words[..place - lead].iter().chain(&words[place + 1 + count..]);
    let kept: Vec<&str> = kept.copied().collect();
    Some((kept.join(" ").trim_end_matches([',', ';', ' ', '(']).to_owned(), size))
}

/// Reads the clauses of a line.
pub(super) fn clauses(line: &str) -> Clauses {
    let mut found = Clauses { line: line.to_owned(), ..Clauses::default() };
    if let Some(rest) = without(&found.line, &MORE) {
        (found.line, found.more) = (rest, true);
    }
    if let Some(rest) = without(&found.line, &TASTE) {
        (found.line, found.taste) = (rest, true);
    }
    if let Some((rest, size)) = per_jar(&found.line) {
        (found.line, found.per) = (rest, Some(size));
    }
    let words: Vec<String> = found.line.split_whitespace().map(bare).collect();
    let has = |some: &[&str]| words.iter().take(4).any(|word| some.contains(&word.as_str()));
    (found.heaped, found.scant) = (has(&HEAPED), has(&SCANT));
    found
}
