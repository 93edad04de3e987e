//! Reads a line of a recipe as people write it: "6 large onions, chopped" is an amount, a measure, a name and what is done to
//! it.
//!
//! What cannot be read for certain is asked, never guessed: a range, a pinch, a tin of no size.

use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::ways::Decimal;
use bodega_model::measures::amounts;
use bodega_model::measures::amounts::{Unit, in_words, ratio};
use bodega_model::recipe::acids::{Named, named};
use bodega_model::recipe::part::{PacketLabel, Part, Per, Role};
use bodega_model::recipe::weights;
use bodega_model::recipe::words::Words;
use num_rational::BigRational;
use num_traits::Zero;
use serde::Serialize;

use self::clauses::{Clauses, clauses};
use self::tokens::{Token, Tokens};
use super::packet::{is_packet, open_questions};
use super::role::role_by_name;

mod clauses;
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
    /// Whether it is for the whole batch or for each jar; `null` when the line can mean either.
    pub per: Option<Per>,
    /// The size of jar that the line names.
    pub per_jar: Option<JarSize>,
    /// What its label says, of a packet that comes out of a recipe file.
    pub packet: Option<PacketLabel>,
    /// What has to be said of it, for a person; empty when all of it was read.
    pub asks: Vec<String>,
}

impl ReadLine {
    /// What it is as a part, as far as it was read; what is still asked stays open.
    #[must_use]
    pub fn part(&self) -> Part {
        Part {
            group: self.group.clone(),
            per: self.per.unwrap_or_default(),
            packet: self.packet,
            ..Part::new(self.name.clone(), self.amount, self.unit, self.role.unwrap_or(Role::Free))
        }
    }

    /// Whether something has to be said before it can be written down; of salt and spices no amount is needed.
    #[must_use]
    pub fn is_open(&self) -> bool {
        if self.name.trim().is_empty() || self.role.is_none() || self.per.is_none() {
            return true;
        }
        let is_free = matches!(self.role, Some(Role::Free | Role::Sugar));
        !is_free && (self.amount.is_none() || self.unit.is_none() || self.up_to.is_some())
    }
}

/// Things that are bought in many sizes.
const SIZED: [&str; 8] = ["can", "cans", "tin", "tins", "jar", "jars", "bottle", "bottles"];

/// Amounts that nobody can measure, and measures that say nothing of how much it is.
const VAGUE: [&str; 74] = [
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
    "bucket",
    "buckets",
    "bowl",
    "bowls",
    "glass",
    "glasses",
    "stick",
    "sticks",
    "head",
    "heads",
    "bulb",
    "bulbs",
    "peck",
    "pecks",
    "bushel",
    "bushels",
    "crate",
    "crates",
    "basket",
    "baskets",
    "lug",
    "lugs",
    "sprig",
    "sprigs",
    "sack",
    "sacks",
    "trug",
    "pan",
    "pot",
];

/// Words between the amount and the name that say nothing of it.
const EMPTY: [&str; 11] = [
    "of",
    "about",
    "approximately",
    "approx",
    "heaping",
    "heaped",
    "rounded",
    "generous",
    "scant",
    "level",
    "full",
];
/// Sizes of a thing, in front of it.
const HOW_LARGE: [&str; 4] = ["large", "medium", "small", "big"];

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
    match (tokens.metric(), &amount.first) {
        (Some(millilitres), Some(first)) => {
            amount.first = Some(first * ratio(millilitres, 1));
            amount.unit = Some(Unit::Millilitre);
        }
        _ => amount.unit = tokens.unit(),
    }
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

/// What a line is of, with what it asks.
struct Kind {
    role: Option<Role>,
    group: Option<&'static str>,
}

/// What something is by its name and by everything that stands around it.
fn kind(part: &Part, all: &str, taste: bool, asks: &mut Vec<String>) -> Kind {
    let asked = |asks: &mut Vec<String>, question: String| {
        asks.push(question);
        Kind { role: None, group: None }
    };
    match named(all) {
        Some(Named::NotAcid { why, .. }) => return asked(asks, why.to_owned()),
        Some(Named::Asked(question)) => return asked(asks, question.to_owned()),
        Some(Named::Acid(_)) | None => {}
    }
    if is_packet(part) {
        asks.extend(open_questions(part));
        return Kind { role: Some(Role::Packet), group: None };
    }
    // Of something that is in no jar the name is enough.
    if let (None, Some(role)) = (weights::kind(&part.name), weights::never(&part.name)) {
        return Kind { role: Some(role), group: None };
    }
    let words = Words::of(&part.name);
    if matches!(words.spaced(), " pepper " | " ground pepper " | " fresh pepper " | " freshly ground pepper ")
    {
        match part.unit {
            Some(Unit::Teaspoon) => return Kind { role: Some(Role::Free), group: None },
            None if taste => return Kind { role: Some(Role::Free), group: None },
            Some(Unit::Tablespoon) | None => {
                return asked(asks, "Which pepper is it: ground, as a spice, or chopped?".to_owned());
            }
            Some(_) => {}
        }
    }
    match weights::kind(&part.name) {
        Some((role, _)) if role != Role::Acid && words.has("or") => {
            asked(asks, format!("Which of them is it: {}?", part.name))
        }
        Some((role, group)) => Kind { role: Some(role), group },
        None => asked(asks, format!("What is {}: low in acid, acid, a spice?", part.name)),
    }
}

/// Whether an amount is for each jar, with what that leaves open.
fn per(said: &Clauses, role: Option<Role>, asks: &mut Vec<String>) -> Option<Per> {
    match (said.per, role) {
        (None, _) | (_, Some(Role::Tomato)) => Some(Per::Batch),
        (Some(jar), Some(Role::Free | Role::Sugar)) => Some(jar.map_or(Per::Batch, Per::Jar)),
        (Some(jar), _) => {
            asks.push(in_each_or_all(jar));
            None
        }
    }
}

/// Whether an amount can be more or less than the line says, on a side that is not safe.
fn is_loose(said: &Clauses, role: Option<Role>) -> bool {
    match role {
        Some(Role::Free | Role::Sugar) => false,
        Some(Role::Acid | Role::Packet) => said.taste || said.scant,
        _ => said.taste || said.more || said.heaped,
    }
}

/// What a written line still asks of its place: its words say that it is for each jar, and nobody said whether it is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct EachJar {
    /// The size of jar that the words name.
    pub jar: Option<JarSize>,
    /// The name without those words.
    pub name: String,
}

/// Whether the name of an acid that was written down for the whole batch says that it is for each jar.
#[must_use]
pub fn each_jar(part: &Part) -> Option<EachJar> {
    let said = clauses(&part.name);
    let is_asked = part.per.is_batch() && role_by_name(part) == Role::Acid;
    said.per.filter(|_| is_asked).map(|jar| EachJar { jar, name: said.line })
}

/// The question that goes with it.
#[must_use]
pub fn in_each_or_all(jar: Option<JarSize>) -> String {
    format!("In every {}, or in the whole batch?", jar.map_or("jar", JarSize::label))
}

/// Reads a line as a household writes its numbers.
#[must_use]
pub fn read(line: &str, decimal: Decimal) -> ReadLine {
    let said = clauses(line);
    let mut tokens = Tokens(tokens::tokens(&said.line, decimal));
    let Amount { first: amount, up_to, mut unit, asides, mut asks } = amount(&mut tokens);
    let is_two = tokens.names_two();
    let (name, preparation) = name(tokens, asides);
    let lower = name.to_lowercase();
    let first = lower.split(' ').find(|word| !HOW_LARGE.contains(word)).unwrap_or_default();
    let first = first.trim_end_matches('.');
    let is_vague = VAGUE.contains(&first);
    let is_sized = SIZED.contains(&first) && amount.is_some();
    if amount.is_some() && unit.is_none() && !is_vague && !is_sized && asks.is_empty() {
        unit = Some(Unit::Piece);
    }
    if name.is_empty() {
        asks.push("What is it?".to_owned());
    } else if !first.starts_with(char::is_alphabetic) {
        asks.push(format!("Is that so: {name}?"));
        unit = None;
    }
    let part = Part::new(name.clone(), amount.as_ref().map(amounts::decimal), unit, Role::NotAllowed);
    let all = preparation.as_ref().map_or_else(|| name.clone(), |done| format!("{name}, {done}"));
    let Kind { role, group } = if is_two {
        asks.push("These are two things: write a line for each.".to_owned());
        unit = None;
        Kind { role: None, group: None }
    } else {
        kind(&part, &all, said.taste, &mut asks)
    };
    let is_unmeasured_spice = amount.is_none() && matches!(role, Some(Role::Free | Role::Sugar));
    match (&amount, &up_to) {
        (None, _) if asks.is_empty() && !is_unmeasured_spice => asks.push(format!("How much {name}?")),
        (None, _) => {}
        (Some(low), Some(high)) => asks.push(format!("{} or {} {name}?", in_words(low), in_words(high))),
        (Some(_), None) if is_vague => asks.push(format!("How much is a {first}?")),
        (Some(_), None) if is_sized => {
            asks.push(format!("How large is the {first}, and how much is that altogether?"))
        }
        (Some(_), None) if unit == Some(Unit::Packet) && role != Some(Role::Packet) => {
            asks.push(format!("How much {name} is in the packet?"));
            unit = None;
        }
        (Some(_), None) => {}
    }
    if amount.is_some() && is_loose(&said, role) {
        asks.push(format!("How much {name} is it, level and at the most?"));
        unit = None;
    }
    let per = per(&said, role, &mut asks);
    ReadLine {
        line: line.trim().to_owned(),
        amount: amount.as_ref().map(amounts::decimal),
        up_to: up_to.as_ref().map(amounts::decimal),
        unit: unit.filter(|_| !is_vague),
        name,
        preparation,
        role,
        group: group.map(str::to_owned),
        per,
        per_jar: said.per.flatten(),
        packet: None,
        asks,
    }
}
