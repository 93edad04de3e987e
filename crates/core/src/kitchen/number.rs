//! A number in digits as a household writes it: which sign stands before its fraction, and which between its thousands.
//!
//! The rule of every field and of everything that is pasted: what could be two numbers here is asked and never chosen. The page
//! reads its fields by the same rule as they are typed; both are held against one table, `tests/data/numbers.json`.

use bodega_model::kitchen::ways::Decimal;
use num_rational::BigRational;

/// What was made of a number.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum NumberRead {
    /// It is this one.
    Is(BigRational),
    /// It could be one of these, in this household.
    Asked(Vec<BigRational>),
    /// It is none.
    None,
}

/// Most digits of a number.
const MOST_DIGITS: usize = 18;

/// A whole part and a fraction in digits.
fn value(whole: &str, share: &str) -> Option<BigRational> {
    // Nobody measures with more digits, and a page that was pasted may have any number of them.
    (whole.len() + share.len() <= MOST_DIGITS).then_some(())?;
    let digits = format!("{whole}{share}").parse().ok()?;
    let tens = format!("1{}", "0".repeat(share.len())).parse().ok()?;
    Some(BigRational::new(digits, tens))
}

fn is_digits(text: &str) -> bool {
    text.bytes().all(|sign| sign.is_ascii_digit())
}

/// Whether digits are grouped by thousands: "1", "234", "567".
fn is_grouped(parts: &[&str]) -> bool {
    let [first, rest @ ..] = parts else { return false };
    (1..=3).contains(&first.len()) && !first.starts_with('0') && rest.iter().all(|part| part.len() == 3)
}

/// A number with one kind of sign in it, once or more often.
fn signed(text: &str, sign: char, decimal: Decimal) -> NumberRead {
    let parts: Vec<&str> = text.split(sign).collect();
    let joined = parts.concat();
    if joined.is_empty() || !is_digits(&joined) {
        return NumberRead::None;
    }
    let is = |found: Option<BigRational>| found.map_or(NumberRead::None, NumberRead::Is);
    let fraction = match parts.as_slice() {
        [whole, share] => value(whole, share),
        _ => None,
    };
    let grouped = value(&joined, "");
    if (sign == ',') == (decimal == Decimal::Comma) {
        return is(fraction);
    }
    if is_grouped(&parts) {
        // A point between thousands is what a phone's keypad gives for the decimal sign as well.
        return match (sign, fraction, grouped) {
            ('.', Some(fraction), Some(grouped)) => NumberRead::Asked(vec![grouped, fraction]),
            (_, _, grouped) => is(grouped),
        };
    }
    match (fraction, grouped) {
        (Some(fraction), Some(grouped)) if !text.ends_with(sign) => {
            // A phone's keypad has a point and no comma: "6.5" is what it says.
            if sign == '.' { NumberRead::Is(fraction) } else { NumberRead::Asked(vec![fraction, grouped]) }
        }
        _ => NumberRead::None,
    }
}

/// A number with both signs in it: the last one is the decimal sign, whatever the household writes.
fn both(text: &str) -> NumberRead {
    let Some(place) = text.rfind(['.', ',']) else { return NumberRead::None };
    let (whole, share) = (&text[..place], &text[place + 1..]);
    let thousands = if text[place..].starts_with('.') { ',' } else { '.' };
    let parts: Vec<&str> = whole.split(thousands).collect();
    let joined = parts.concat();
    let is_one = is_grouped(&parts) && is_digits(&joined) && is_digits(share);
    match value(&joined, share) {
        Some(found) if is_one && !share.is_empty() => NumberRead::Is(found),
        _ => NumberRead::None,
    }
}

/// Reads digits with the signs of a number among them, without a sign before it and without a unit behind it.
///
/// ```
/// use bodega_core::kitchen::number::{NumberRead, read_number};
/// use bodega_model::kitchen::ways::Decimal;
/// use bodega_model::measures::amounts::ratio;
/// assert_eq!(read_number("6,500", Decimal::Point), NumberRead::Is(ratio(6500, 1)));
/// assert_eq!(read_number("6,500", Decimal::Comma), NumberRead::Is(ratio(13, 2)));
/// assert_eq!(read_number("6.500", Decimal::Comma), NumberRead::Asked(vec![ratio(6500, 1), ratio(13, 2)]));
/// ```
#[must_use]
pub fn read_number(text: &str, decimal: Decimal) -> NumberRead {
    // Spaces that hold digits together, and the sign that some write there, are thousands wherever they stand.
    let parts: Vec<&str> = text.split(['\u{a0}', '\u{202f}', '\u{2009}', '\'', '’']).collect();
    let last = parts.last().map(|part| part.split(['.', ',']).next().unwrap_or_default());
    let heads: Vec<&str> = parts.iter().rev().skip(1).rev().copied().chain(last).collect();
    if parts.len() > 1 && !is_grouped(&heads) {
        return NumberRead::None;
    }
    let text = parts.concat();
    match (text.contains('.'), text.contains(',')) {
        (true, true) => both(&text),
        (true, false) => signed(&text, '.', decimal),
        (false, true) => signed(&text, ',', decimal),
        (false, false) if text.is_empty() || !is_digits(&text) => NumberRead::None,
        (false, false) => value(&text, "").map_or(NumberRead::None, NumberRead::Is),
    }
}
