//! The words, numbers and signs of a line.

use bodega_model::kitchen::ways::Decimal;
use bodega_model::measures::amounts::{Unit, ratio};
use num_rational::BigRational;

use crate::kitchen::number::{NumberRead, read_number};

/// A word or a sign of the line.
#[derive(Debug, Clone, PartialEq)]
pub(super) enum Token {
    Number(BigRational),
    /// It could be one of these, in this household.
    Which(Vec<BigRational>),
    Word(String),
    /// From one number to another.
    Dash,
    /// What stands in brackets.
    Aside(String),
    Comma,
}

/// Fractions in one sign.
const GLYPHS: [(char, i64, i64); 18] = [
    ('½', 1, 2),
    ('⅓', 1, 3),
    ('⅔', 2, 3),
    ('¼', 1, 4),
    ('¾', 3, 4),
    ('⅕', 1, 5),
    ('⅖', 2, 5),
    ('⅗', 3, 5),
    ('⅘', 4, 5),
    ('⅙', 1, 6),
    ('⅚', 5, 6),
    ('⅛', 1, 8),
    ('⅜', 3, 8),
    ('⅝', 5, 8),
    ('⅞', 7, 8),
    ('⅐', 1, 7),
    ('⅑', 1, 9),
    ('⅒', 1, 10),
];

/// Numbers that are written out.
const NUMBERS: [(&str, i64); 30] = [
    ("a", 1),
    ("an", 1),
    ("one", 1),
    ("two", 2),
    ("three", 3),
    ("four", 4),
    ("five", 5),
    ("six", 6),
    ("seven", 7),
    ("eight", 8),
    ("nine", 9),
    ("ten", 10),
    ("eleven", 11),
    ("twelve", 12),
    ("thirteen", 13),
    ("fourteen", 14),
    ("fifteen", 15),
    ("sixteen", 16),
    ("seventeen", 17),
    ("eighteen", 18),
    ("nineteen", 19),
    ("twenty", 20),
    ("thirty", 30),
    ("forty", 40),
    ("fifty", 50),
    ("sixty", 60),
    ("seventy", 70),
    ("eighty", 80),
    ("ninety", 90),
    ("hundred", 100),
];

/// Parts of one that are written out.
const SHARES: [(&str, i64); 9] = [
    ("half", 2),
    ("halves", 2),
    ("third", 3),
    ("thirds", 3),
    ("quarter", 4),
    ("quarters", 4),
    ("fourth", 4),
    ("eighth", 8),
    ("eighths", 8),
];

/// A whole number by its word.
fn written(word: &str) -> Option<i64> {
    let word = word.to_lowercase();
    NUMBERS.iter().find(|(name, _)| *name == word).map(|(_, value)| *value)
}

/// A share of one by its word: a third, three quarters.
fn share(word: &str) -> Option<i64> {
    let word = word.to_lowercase();
    SHARES.iter().find(|(name, _)| *name == word).map(|(_, below)| *below)
}

/// Small metric measures of many pages, and millilitres in one.
const MILLILITRES: [(&str, i64); 6] =
    [("dl", 100), ("dls", 100), ("deciliter", 100), ("decilitre", 100), ("cl", 10), ("centilitre", 10)];

/// Words for measures. One letter counts with its case: `T` is a tablespoon, `t` a teaspoon.
fn unit(word: &str) -> Option<Unit> {
    match word.trim_end_matches('.') {
        "T" | "Tb" | "Tbs" => return Some(Unit::Tablespoon),
        "t" => return Some(Unit::Teaspoon),
        _ => {}
    }
    let word = word.to_lowercase();
    Some(match word.trim_end_matches('.') {
        "tsp" | "tsps" | "tspn" | "tspns" | "teaspoon" | "teaspoons" | "teaspoonful" | "teaspoonfuls" => {
            Unit::Teaspoon
        }
        "tbsp" | "tbsps" | "tbspn" | "tbspns" | "tbs" | "tbl" | "tablespoon" | "tablespoons"
        | "tablespoonful" | "tablespoonfuls" => Unit::Tablespoon,
        "floz" | "fl.oz" => Unit::FluidOunce,
        "c" | "cup" | "cups" | "cupful" | "cupfuls" => Unit::Cup,
        "pt" | "pts" | "pint" | "pints" => Unit::Pint,
        "qt" | "qts" | "quart" | "quarts" => Unit::Quart,
        "gal" | "gals" | "gallon" | "gallons" => Unit::Gallon,
        "ml" | "mls" | "milliliter" | "milliliters" | "millilitre" | "millilitres" => Unit::Millilitre,
        "l" | "liter" | "liters" | "litre" | "litres" => Unit::Litre,
        "oz" | "ozs" | "ounce" | "ounces" => Unit::Ounce,
        "lb" | "lbs" | "pound" | "pounds" | "#" => Unit::Pound,
        "g" | "gr" | "gm" | "gms" | "gram" | "grams" | "gramme" | "grammes" => Unit::Gram,
        "kg" | "kgs" | "kilo" | "kilos" | "kilogram" | "kilograms" => Unit::Kilogram,
        "packet" | "packets" | "pack" | "packs" | "package" | "packages" | "pkg" | "pkgs" | "envelope"
        | "envelopes" | "sachet" | "sachets" => Unit::Packet,
        "piece" | "pieces" => Unit::Piece,
        _ => return None,
    })
}

/// A word that is a number, or could be one of two.
fn number(text: &str, decimal: Decimal) -> Option<Token> {
    match text.split_once('/') {
        Some((above, below)) => {
            let (above, below) = (above.trim().parse::<i64>().ok()?, below.trim().parse::<i64>().ok()?);
            (below != 0).then(|| Token::Number(ratio(above, below)))
        }
        None => match read_number(text, decimal) {
            NumberRead::Is(number) => Some(Token::Number(number)),
            NumberRead::Asked(numbers) => Some(Token::Which(numbers)),
            NumberRead::None => None,
        },
    }
}

/// "1.000 g": on a page from elsewhere a thousand, here one. Nobody weighs a gram to its thousandth, so it is asked.
fn thousands(word: &str, rest: &str, decimal: Decimal) -> Option<Token> {
    let (whole, share) = word.split_once('.')?;
    let measure = rest.split_whitespace().next().and_then(unit)?;
    let is_small = matches!(measure, Unit::Gram | Unit::Millilitre) && decimal == Decimal::Point;
    let whole: i64 = whole.parse().ok().filter(|whole| (1..1000).contains(whole))?;
    let share: i64 = share.parse().ok().filter(|_| share.len() == 3 && is_small)?;
    let grouped = ratio(whole * 1000 + share, 1);
    Some(Token::Which(vec![grouped.clone(), grouped / ratio(1000, 1)]))
}

/// Whether a word is a number, a measure or a filler, and no name of anything.
pub(super) fn is_measure_or_number(word: &str) -> bool {
    let is_filler = matches!(
        word,
        "of" | "and" | "&" | "or" | "to" | "-" | "x" | "about" | "+" | "fl" | "heaping" | "scant" | "level"
    );
    is_filler
        || word.is_empty()
        || unit(word).is_some()
        || written(word).is_some()
        || share(word).is_some()
        || MILLILITRES.iter().any(|(name, _)| *name == word)
        || word.starts_with(|sign: char| sign.is_ascii_digit() || GLYPHS.iter().any(|glyph| glyph.0 == sign))
}

/// Puts spaces where people leave them out: "1½", "400g", "2-3", "1/2 -inch".
fn spaced(line: &str) -> String {
    let mut out = String::new();
    let mut line = line.replace('\u{2044}', "/");
    // "&frac12;", as pages write it.
    while let Some((before, rest)) = line.split_once("&frac") {
        let mut signs = rest.chars();
        let fraction = [signs.next(), signs.next()].map(|sign| sign.unwrap_or('0'));
        line = format!("{before} {}/{} {}", fraction[0], fraction[1], signs.as_str().trim_start_matches(';'));
    }
    let signs: Vec<char> = line.chars().collect();
    for (place, sign) in signs.iter().enumerate() {
        let before = place.checked_sub(1).and_then(|place| signs.get(place));
        let after = signs.get(place + 1);
        let digit = |sign: Option<&char>| sign.is_some_and(char::is_ascii_digit);
        match sign {
            '–' | '—' | '-'
                if digit(before)
                    && after.is_some_and(|a| {
                        a.is_ascii_digit() || a.is_whitespace() || GLYPHS.iter().any(|g| g.0 == *a)
                    }) =>
            {
                out.push_str(" - ");
            }
            '–' | '—' => out.push_str(" - "),
            sign if GLYPHS.iter().any(|glyph| glyph.0 == *sign) => {
                let (_, above, below) = GLYPHS.iter().find(|glyph| glyph.0 == *sign).unwrap_or(&GLYPHS[0]);
                out.push_str(&format!(" {above}/{below} "));
            }
            '&' => out.push_str(" & "),
            // Tablespoons/200 g, but not 1/2.
            '/' if !digit(before) => out.push_str(" / "),
            // And3/4.
            sign if sign.is_ascii_digit() && out.to_lowercase().ends_with("and") => {
                out.push(' ');
                out.push(*sign);
            }
            // 400g, 24#.
            sign if (sign.is_alphabetic() || *sign == '#') && digit(before) => {
                out.push(' ');
                out.push(*sign);
            }
            sign => out.push(*sign),
        }
    }
    out
}

/// Where a word ends; a space that holds digits together is none.
fn end_of_word(rest: &str) -> usize {
    let mut before = None;
    for (place, sign) in rest.char_indices() {
        let digit_follows =
            || rest[place + sign.len_utf8()..].starts_with(|next: char| next.is_ascii_digit());
        let holds = matches!(sign, '\u{a0}' | '\u{202f}' | '\u{2009}')
            && before.is_some_and(|before: char| before.is_ascii_digit())
            && digit_follows();
        if (sign.is_whitespace() && !holds) || sign == '(' {
            return place;
        }
        before = Some(sign);
    }
    rest.len()
}

/// The line, word by word.
pub(super) fn tokens(line: &str, decimal: Decimal) -> Vec<Token> {
    let line = spaced(line);
    let mut tokens = Vec::new();
    let mut rest = line.trim().trim_start_matches(['-', '*', '•', '·', '▢', '□']).trim();
    while !rest.is_empty() {
        if let Some(inside) = rest.strip_prefix('(') {
            let (aside, after) = inside.split_once(')').unwrap_or((inside, ""));
            tokens.push(Token::Aside(aside.trim().to_owned()));
            rest = after.trim_start();
            continue;
        }
        if let Some(after) = rest.strip_prefix([',', ';']) {
            tokens.push(Token::Comma);
            rest = after.trim_start();
            continue;
        }
        let end = end_of_word(rest);
        let (word, after) = rest.split_at(end);
        rest = after.trim_start();
        let (word, comma) = match word.strip_suffix([',', ';']) {
            Some(word) => (word, true),
            None => (word, false),
        };
        // "78 g to 104 g".
        let measured = match tokens.last() {
            Some(Token::Number(_)) => true,
            Some(Token::Word(word)) => {
                unit(word).is_some() && matches!(tokens.iter().rev().nth(1), Some(Token::Number(_)))
            }
            _ => false,
        };
        // "three-quarters", "twenty-two".
        let halves: Vec<&str> = word.split('-').collect();
        let is_number = |half: &&str| written(half).is_some() || share(half).is_some();
        if halves.len() == 2 && halves.iter().all(is_number) {
            tokens.extend(halves.iter().map(|half| Token::Word((*half).to_owned())));
        } else if word == "-" || (word.eq_ignore_ascii_case("to") && measured) {
            tokens.push(Token::Dash);
        } else if let Some(either) = thousands(word, rest, decimal) {
            tokens.push(either);
        } else if let Some(number) = number(word, decimal) {
            tokens.push(number);
        } else if !word.is_empty() {
            tokens.push(Token::Word(word.to_owned()));
        }
        if comma {
            tokens.push(Token::Comma);
        }
    }
    tokens
}

/// Tokens that are taken one by one.
pub(super) struct Tokens(pub(super) Vec<Token>);

impl Tokens {
    /// The word at a place, if there is one.
    pub(super) fn word(&self, place: usize) -> Option<&str> {
        match self.0.get(place) {
            Some(Token::Word(word)) => Some(word),
            _ => None,
        }
    }

    /// A word of the tokens that a test holds for.
    fn word_is(&self, place: usize, is: impl Fn(&str) -> bool) -> bool {
        self.word(place).is_some_and(|word| is(&word.to_lowercase()))
    }

    /// A part of one at the front, written out: "half a", "a third of a", "three quarters of a".
    fn written_share(&mut self) -> Option<BigRational> {
        let count = match (self.0.first()?, self.word(0).and_then(share)) {
            (_, Some(_)) => None,
            (Token::Number(number), _) if number.is_integer() => Some(number.clone()),
            (Token::Word(word), _) => Some(ratio(written(word)?, 1)),
            _ => return None,
        };
        let below = self.word(usize::from(count.is_some())).and_then(share)?;
        self.0.drain(..=usize::from(count.is_some()));
        // "Of a cup" is a cup; "of onions" are onions.
        let of = usize::from(self.word_is(0, |word| word == "of"));
        if self.word_is(of, |word| word == "a" || word == "an") {
            self.0.drain(..=of);
        }
        Some(count.unwrap_or_else(|| ratio(1, 1)) / ratio(below, 1))
    }

    /// A number at the front: "1 1/2", "a dozen", "two", "one and a half", "three quarters of a".
    pub(super) fn number(&mut self) -> Option<BigRational> {
        if let Some(share) = self.written_share() {
            return Some(share);
        }
        if self.word_is(0, |word| word == "dozen") {
            self.0.remove(0);
            return Some(ratio(12, 1));
        }
        let mut first = match self.0.first()? {
            Token::Number(number) => number.clone(),
            Token::Word(word) => ratio(written(word)?, 1),
            _ => return None,
        };
        let was_ten = self.word(0).and_then(written).is_some_and(|tens| (20..100).contains(&tens));
        self.0.remove(0);
        if was_ten && let Some(ones) = self.word(0).and_then(written).filter(|ones| *ones < 10) {
            first += ratio(ones, 1);
            self.0.remove(0);
        }
        if let Some(Token::Number(next)) = self.0.first() {
            // One and a half, not one and twelve.
            if *next < ratio(1, 1) && first.is_integer() {
                let sum = first + next;
                self.0.remove(0);
                return Some(sum);
            }
        }
        if self.word_is(0, |word| word == "dozen") {
            self.0.remove(0);
            return Some(first * ratio(12, 1));
        }
        if self.word_is(0, |word| matches!(word, "and" | "&")) {
            let mut ahead = Self(self.0[1..].to_vec());
            if let Some(Token::Number(next)) = ahead.0.first().cloned()
                && next < ratio(1, 1)
            {
                self.0.drain(..2);
                return Some(first + next);
            }
            if let Some(next) = ahead.written_share() {
                self.0 = ahead.0;
                return Some(first + next);
            }
        }
        Some(first)
    }

    /// Whether another amount follows behind a name: "onion + 1 cup pepper", "onions and 3 cloves garlic".
    pub(super) fn names_two(&self) -> bool {
        let joins = |word: &str| matches!(word.to_lowercase().as_str(), "and" | "&" | "+" | "plus" | "with");
        (1..self.0.len()).any(|place| {
            let mut behind = Self(self.0[place + 1..].to_vec());
            self.word(place).is_some_and(joins) && behind.number().is_some()
        })
    }

    /// Decilitres and centilitres at the front: millilitres in one of them.
    pub(super) fn metric(&mut self) -> Option<i64> {
        let word = self.word(0)?.trim_end_matches('.').to_lowercase();
        let (_, millilitres) = MILLILITRES.iter().find(|(name, _)| *name == word)?;
        self.0.remove(0);
        Some(*millilitres)
    }

    /// A measure at the front.
    pub(super) fn unit(&mut self) -> Option<Unit> {
        let word = self.word(0)?;
        let plain = word.to_lowercase();
        if matches!(plain.trim_end_matches('.'), "fl" | "fluid")
            && self.word(1).and_then(unit) == Some(Unit::Ounce)
        {
            self.0.drain(..2);
            return Some(Unit::FluidOunce);
        }
        let found = unit(word)?;
        self.0.remove(0);
        Some(found)
    }
}
