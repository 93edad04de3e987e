//! Reads a line of a recipe as people write it: "6 large onions, chopped" is an amount, a measure, a name and what is done to
//! it.
//!
//! What cannot be read for certain is asked, never guessed: a range, a pinch, a tin of no size.

use num_rational::BigRational;
use num_traits::Zero;
use serde::Serialize;

use self::tokens::{Token, Tokens};
use super::measure::{Unit, in_words};
use super::part::Role;
use super::{measure, weights};
use crate::kitchen::ways::Decimal;

mod tokens;

/// A line that was read.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ReadLine {
    /// The line as it was written.
    pub line: String,
    /// How much; `null` when the line does not say.
    pub amount: Option<f64>,
    /// The upper end, when the line gives two.
    pub up_to: Option<f64>,
    /// In which measure; `null` when it is none that can be compared.
    pub unit: Option<Unit>,
    /// Of what.
    pub name: String,
    /// What is done to it.
    pub preparation: Option<String>,
    /// What it does to the acid, when the name says so.
    pub role: Option<Role>,
    /// What it may stand in for.
    pub group: Option<String>,
    /// What has to be said of it, for a person; empty when all of it was read.
    pub asks: Vec<String>,
}

/// Things that are bought in many sizes.
const SIZED: [&str; 8] = ["can", "cans", "tin", "tins", "jar", "jars", "bottle", "bottles"];

/// Amounts that nobody can measure, and measures that say nothing of how much it is.
const VAGUE: [&str; 45] = [
    "pinch",
    "pinches",
    "dash",
    "dashes",
    "handful",
    "handfuls",
    "splash",
    "drizzle",
    "bunch",
    "bunches",
    "knob",
    "dollop",
    "few",
    "some",
    "several",
    "couple",
    "smidgen",
    "drop",
    "drops",
    "bag",
    "bags",
    "box",
    "boxes",
    "carton",
    "cartons",
    "container",
    "containers",
    "inch",
    "inches",
    "in",
    "cm",
    "centimeter",
    "centimeters",
    "centimetre",
    "centimetres",
    "foot",
    "feet",
    "ft",
    "mg",
    "milligram",
    "milligrams",
    "glug",
    "touch",
    "touches",
    "splashes",
];

/// Words between the amount and the name that say nothing of it.
const EMPTY: [&str; 7] = ["of", "about", "approximately", "approx", "heaping", "scant", "level"];

/// How much a line speaks of.
#[derive(Default)]
struct Amount {
    first: Option<BigRational>,
    up_to: Option<BigRational>,
    unit: Option<Unit>,
    /// The same said another way, or the size of each.
    asides: Vec<String>,
    asks: Vec<String>,
}

fn skip_empty(tokens: &mut Tokens) {
    let is_empty = |word: &str| EMPTY.contains(&word.to_lowercase().trim_end_matches(['.', ':']));
    while tokens.word(0).is_some_and(is_empty) {
        tokens.0.remove(0);
    }
}

/// "2", "2 - 3", "1 or 2": a number, and the upper end when two are given.
fn numbers(tokens: &mut Tokens) -> (Option<BigRational>, Option<BigRational>) {
    let Some(first) = tokens.number() else { return (None, None) };
    let is_or = tokens.word(0).is_some_and(|word| word.eq_ignore_ascii_case("or"))
        && matches!(tokens.0.get(1), Some(Token::Number(_)));
    if is_or || tokens.0.first() == Some(&Token::Dash) {
        tokens.0.remove(0);
        let up_to = tokens.number();
        return (Some(first), up_to);
    }
    (Some(first), None)
}

/// One pound four ounces, a cup plus two tablespoons.
fn plus(tokens: &mut Tokens, amount: &mut Amount) {
    let (Some(first), Some(one)) = (&amount.first, amount.unit) else { return };
    let joined = |word: &str| matches!(word.to_lowercase().as_str(), "plus" | "+" | "and");
    let skipped = usize::from(tokens.word(0).is_some_and(joined));
    let mut ahead = Tokens(tokens.0.iter().skip(skipped).cloned().collect());
    let next = ahead.number().filter(|next| !next.is_zero());
    if let Some((next, other)) = next.zip(ahead.unit())
        && other.dimension() == one.dimension()
        && other.size() < one.size()
    {
        amount.first = Some(first + next * other.size() / one.size());
        *tokens = ahead;
    }
}

/// "1 10 oz bag", "2 x 400 g": so many of a size. "14 tablespoons / 200 g": the same said twice.
fn sizes(tokens: &mut Tokens, amount: &mut Amount) {
    let is_by = |word: &str| matches!(word, "x" | "X" | "×" | "/");
    let mut ahead =
        Tokens(tokens.0.iter().skip(usize::from(tokens.word(0).is_some_and(is_by))).cloned().collect());
    if (amount.unit.is_none() || tokens.word(0) == Some("/"))
        && let Some(size) = ahead.number()
        && let Some(of) = ahead.unit()
    {
        amount.asides.push(format!("{}{}", in_words(&size), of.behind(&size)));
        *tokens = ahead;
        if amount.unit.is_none() {
            amount.asks.push("How much is that altogether?".to_owned());
        }
    }
}

/// "1000 or 1"
fn which(numbers: &[BigRational]) -> String {
    numbers.iter().map(in_words).collect::<Vec<_>>().join(" or ")
}

fn amount(tokens: &mut Tokens) -> Amount {
    skip_empty(tokens);
    if let Some(Token::Which(numbers)) = tokens.0.first().cloned() {
        tokens.0.remove(0);
        let unit = tokens.unit();
        let behind = unit.zip(numbers.first()).map(|(unit, number)| unit.behind(number)).unwrap_or_default();
        let asks = vec![format!("Which is it: {}{behind}?", which(&numbers))];
        return Amount { unit, asks, ..Amount::default() };
    }
    let (first, up_to) = numbers(tokens);
    let mut amount = Amount { first, up_to, ..Amount::default() };
    if amount.first.is_none() {
        return amount;
    }
    skip_empty(tokens);
    amount.unit = tokens.unit();
    if amount.unit.is_some() && amount.up_to.is_none() && tokens.0.first() == Some(&Token::Dash) {
        tokens.0.remove(0);
        amount.up_to = tokens.number();
        // In the same measure, or nobody can tell.
        let other = tokens.unit();
        if other.is_some() && other != amount.unit {
            amount.asks.push("Which of the two amounts?".to_owned());
        }
    }
    sizes(tokens, &mut amount);
    plus(tokens, &mut amount);
    skip_empty(tokens);
    amount
}

/// The name, and behind a comma or in brackets what is done to it.
fn name(tokens: Tokens, asides: Vec<String>) -> (String, Option<String>) {
    let (mut name, mut preparation) = (Vec::new(), asides);
    let mut after = false;
    for token in tokens.0 {
        let word = match token {
            Token::Comma => {
                after = true;
                continue;
            }
            Token::Aside(aside) => {
                preparation.push(aside);
                continue;
            }
            Token::Word(word) => word,
            Token::Number(number) => in_words(&number),
            Token::Which(numbers) => which(&numbers),
            Token::Dash => "-".to_owned(),
        };
        if after { preparation.push(word) } else { name.push(word) }
    }
    (name.join(" "), Some(preparation.join(" ")).filter(|text| !text.is_empty()))
}

/// Reads a line as a household writes its numbers.
#[must_use]
pub fn read(line: &str, decimal: Decimal) -> ReadLine {
    let mut tokens = Tokens(tokens::tokens(line, decimal));
    let Amount { first: amount, up_to, mut unit, asides, mut asks } = amount(&mut tokens);
    let (name, preparation) = name(tokens, asides);
    let first = name.split(' ').next().unwrap_or_default().to_lowercase();
    let first = first.trim_end_matches('.');
    let is_vague = VAGUE.contains(&first);
    if amount.is_some() && unit.is_none() && !is_vague && asks.is_empty() {
        unit = Some(Unit::Piece);
    }
    let suggested = weights::kind(&name);
    if name.is_empty() {
        asks.push("What is it?".to_owned());
    } else if !first.starts_with(char::is_alphabetic) {
        asks.push(format!("Is that so: {name}?"));
    }
    match (&amount, &up_to) {
        (None, _) if asks.is_empty() => asks.push(format!("How much {name}?")),
        (None, _) => {}
        (Some(low), Some(high)) => asks.push(format!("{} or {} {name}?", in_words(low), in_words(high))),
        (Some(_), None) if is_vague => asks.push(format!("How much is a {first}?")),
        (Some(_), None) if SIZED.contains(&first) && preparation.is_none() => {
            asks.push(format!("How large is the {first}?"));
        }
        (Some(_), None) => {}
    }
    if suggested.is_none() {
        asks.push(format!("What is {name}: low in acid, acid, a spice?"));
    }
    ReadLine {
        line: line.trim().to_owned(),
        amount: amount.as_ref().map(measure::decimal),
        up_to: up_to.as_ref().map(measure::decimal),
        unit: unit.filter(|_| !is_vague),
        name,
        preparation,
        role: suggested.map(|(role, _)| role),
        group: suggested.and_then(|(_, group)| group.map(str::to_owned)),
        asks,
    }
}
