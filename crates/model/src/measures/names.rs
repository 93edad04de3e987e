//! Names that people give to their things, and the days they may name.

use jiff::civil::Date;

/// Letters of the longest name.
pub const LONGEST_NAME: usize = 80;
/// First year of a day that may be said: nobody's jar is older.
pub const FIRST_YEAR: i16 = 1900;
/// Last year of one: far ahead.
pub const LAST_YEAR: i16 = 2200;

/// A name that would not do.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum BadName {
    /// Empty, or longer than [`LONGEST_NAME`].
    #[error("give a name of 1 to {LONGEST_NAME} letters")]
    Length,
    /// A line break, a control character, or a mark that turns the direction of the text around it.
    #[error("a name stands on one line; leave out line breaks and hidden marks")]
    HiddenMark,
}

/// Whether a letter is not seen and changes how its neighbours are shown: control characters, line and paragraph
/// separators, marks of direction (Unicode Standard Annex 9), the byte order mark. Joiners stay: names are written with
/// them.
fn is_hidden_mark(letter: char) -> bool {
    let turns = matches!(letter, '\u{061C}' | '\u{200E}' | '\u{200F}' | '\u{202A}'..='\u{202E}' | '\u{2066}'..='\u{2069}');
    letter.is_control() || turns || matches!(letter, '\u{2028}' | '\u{2029}' | '\u{FEFF}')
}

/// A name without space around it.
///
/// ```
/// use bodega_model::measures::names::{BadName, clean_name};
/// assert_eq!(clean_name("  Blue bucket "), Ok("Blue bucket"));
/// assert_eq!(clean_name(" "), Err(BadName::Length));
/// assert_eq!(clean_name("Blue\nbucket"), Err(BadName::HiddenMark));
/// assert_eq!(clean_name("\u{202E}tekcub"), Err(BadName::HiddenMark));
/// ```
///
/// # Errors
/// [`BadName`].
pub fn clean_name(name: &str) -> Result<&str, BadName> {
    let name = name.trim();
    if name.is_empty() || name.chars().count() > LONGEST_NAME {
        Err(BadName::Length)
    } else if name.chars().any(is_hidden_mark) {
        Err(BadName::HiddenMark)
    } else {
        Ok(name)
    }
}

/// Letters of the longest note.
pub const LONGEST_NOTE: usize = 1000;

/// A note that would not do.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum BadNote {
    /// Longer than [`LONGEST_NOTE`].
    #[error("a note has up to {LONGEST_NOTE} letters; say it shorter")]
    Length,
    /// A control character, or a mark that turns the direction of the text around it.
    #[error("leave out hidden marks")]
    HiddenMark,
}

/// A note without space around it; line breaks stay. `None` when nothing is left.
///
/// ```
/// use bodega_model::measures::names::{BadNote, clean_note};
/// assert_eq!(clean_note(" less salt\nnext year "), Ok(Some("less salt\nnext year")));
/// assert_eq!(clean_note(" "), Ok(None));
/// assert_eq!(clean_note(&"a".repeat(1001)), Err(BadNote::Length));
/// ```
///
/// # Errors
/// [`BadNote`].
pub fn clean_note(note: &str) -> Result<Option<&str>, BadNote> {
    let note = note.trim();
    if note.chars().count() > LONGEST_NOTE {
        Err(BadNote::Length)
    } else if note.chars().any(|letter| letter != '\n' && is_hidden_mark(letter)) {
        Err(BadNote::HiddenMark)
    } else {
        Ok((!note.is_empty()).then_some(note))
    }
}

/// A day outside the years that may be said.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("{0} is not a day to write down here; give one from {FIRST_YEAR}-01-01 to {LAST_YEAR}-12-31")]
pub struct FarDay(pub Date);

/// A day between the years [`FIRST_YEAR`] and [`LAST_YEAR`].
///
/// # Errors
/// [`FarDay`].
pub fn check_day(day: Date) -> Result<Date, FarDay> {
    if (FIRST_YEAR..=LAST_YEAR).contains(&day.year()) { Ok(day) } else { Err(FarDay(day)) }
}
