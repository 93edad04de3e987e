//! Small words that depend on the next one.

/// A word with its article: "a canning jar", "an antique jar".
///
/// ```
/// use bodega_model::measures::words::with_article;
/// assert_eq!(with_article("canning jar"), "a canning jar");
/// assert_eq!(with_article("antique jar"), "an antique jar");
/// ```
#[must_use]
pub fn with_article(word: &str) -> String {
    let article = if word.starts_with(['a', 'e', 'i', 'o', 'u']) { "an" } else { "a" };
    format!("{article} {word}")
}

/// A whole number of things: "1 hour", "2 hours", "no hours".
///
/// ```
/// use bodega_model::measures::words::counted;
/// assert_eq!(counted(1.2, "hour"), "1 hour");
/// assert_eq!(counted(12.0, "hour"), "12 hours");
/// assert_eq!(counted(0.2, "minute"), "no minutes");
/// ```
#[must_use]
pub fn counted(count: f64, thing: &str) -> String {
    match count.floor() {
        0.0 => format!("no {thing}s"),
        1.0 => format!("1 {thing}"),
        whole => format!("{whole:.0} {thing}s"),
    }
}

/// A text that begins with a capital.
///
/// ```
/// use bodega_model::measures::words::capital;
/// assert_eq!(capital("crushed"), "Crushed");
/// ```
#[must_use]
pub fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

/// A number to two decimals, without those that say nothing.
///
/// ```
/// use bodega_model::measures::words::short;
/// assert_eq!(short(1.499_999_9), "1.5");
/// assert_eq!(short(2.0), "2");
/// ```
#[must_use]
pub fn short(value: f64) -> String {
    ((value * 100.0).round() / 100.0).to_string()
}
