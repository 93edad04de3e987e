//! The words of a name, for rules that look for one.

use crate::recipe::part::plain;

/// A name as words with a space on either side, lower case, without signs and accents.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Words(String);

impl Words {
    /// The words of a name.
    pub fn of(name: &str) -> Self {
        let plain = plain(name);
        let spaced: String =
            plain.chars().map(|sign| if sign.is_alphanumeric() { sign } else { ' ' }).collect();
        Self(format!(" {} ", spaced.split_whitespace().collect::<Vec<_>>().join(" ")))
    }

    /// Whether a word, or several in this order, are among them.
    pub fn has(&self, word: &str) -> bool {
        self.0.contains(&format!(" {word} "))
    }

    /// Whether one of these is.
    pub fn has_any(&self, words: &[&str]) -> bool {
        words.iter().any(|word| self.has(word))
    }

    /// The text, with a space on either side of each word.
    pub fn spaced(&self) -> &str {
        &self.0
    }
}
