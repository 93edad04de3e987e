//! What a cup and a piece weigh, about: to compare a cup with a pound, and marked as an average wherever it is used.

use std::sync::LazyLock;

use num_rational::BigRational;
use serde::Deserialize;

use crate::measures::amounts::{Dimension, Unit, exact};
use crate::published::reader::{TableError, rows};
use crate::recipe::acids::{Named, named};
use crate::recipe::part::{Part, Role, Side};
use crate::recipe::words::Words;

const FILE: &str = "recipe_weights.csv";
const TEXT: &str = include_str!("../../data/recipe_weights.csv");

#[derive(Debug, Deserialize)]
struct Row {
    words: String,
    cup_g: Option<f64>,
    piece_g: Option<f64>,
    role: Role,
    group: Option<String>,
}

/// What one thing weighs, about.
#[derive(Debug, Clone, PartialEq)]
pub struct Weighs {
    /// With a space on either side.
    words: Vec<String>,
    cup: Option<BigRational>,
    piece: Option<BigRational>,
    role: Role,
    group: Option<String>,
}

static TABLE: LazyLock<Vec<Weighs>> =
    LazyLock::new(|| parse_weights().expect("the table is checked at start"));

/// Parses the averages.
///
/// # Errors
/// A row that does not fit the columns, or a weight that is none.
pub fn parse_weights() -> Result<Vec<Weighs>, TableError> {
    let rows: Vec<Row> = rows(FILE, TEXT)?;
    if rows.iter().any(|row| row.cup_g.is_some_and(|g| g <= 0.0) || row.piece_g.is_some_and(|g| g <= 0.0)) {
        return Err(TableError::new(FILE, "a weight is not above zero"));
    }
    Ok(rows
        .into_iter()
        .map(|row| Weighs {
            words: row.words.split('|').map(|word| Words::of(word).spaced().to_owned()).collect(),
            cup: row.cup_g.map(exact),
            piece: row.piece_g.map(exact),
            role: row.role,
            group: row.group,
        })
        .collect())
}

/// A cup and a piece of something, in grams, about.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Average {
    /// A cup of it.
    pub cup: Option<&'static BigRational>,
    /// One of it.
    pub piece: Option<&'static BigRational>,
}

/// The rows that a name speaks of. The longest words decide: "tomato paste" is no tomato.
fn rows_of(name: &str) -> Vec<&'static Weighs> {
    let name = Words::of(name);
    let longest = |row: &'static Weighs| {
        let named = row.words.iter().filter(|word| name.spaced().contains(word.as_str()));
        named.max_by_key(|word| word.len()).map(|word| (word.as_str(), row))
    };
    let found: Vec<(&str, &'static Weighs)> = TABLE.iter().filter_map(longest).collect();
    let within = |word: &str| found.iter().any(|(other, _)| *other != word && other.contains(word));
    found.iter().filter(|(word, _)| !within(word)).map(|(_, row)| *row).collect()
}

/// What something of this name weighs; a name of two things, "celery or green pepper", weighs what both do, or nobody knows.
#[must_use]
pub fn of(name: &str) -> Option<Average> {
    let rows = rows_of(name);
    let first = rows.first()?;
    let same =
        |a: Option<&'static BigRational>, b: &Option<BigRational>| a.filter(|a| Some(*a) == b.as_ref());
    let one = Average { cup: first.cup.as_ref(), piece: first.piece.as_ref() };
    Some(
        rows.iter().skip(1).fold(one, |one, row| Average {
            cup: same(one.cup, &row.cup),
            piece: same(one.piece, &row.piece),
        }),
    )
}

/// What something of this name is in a recipe, with the group that it may stand in for; none when the name speaks of nothing
/// known, or of things that differ.
#[must_use]
pub fn kind(name: &str) -> Option<(Role, Option<&'static str>)> {
    match named(name) {
        Some(Named::Acid(_)) => return Some((Role::Acid, None)),
        Some(Named::NotAcid { role, .. }) => return Some((role, None)),
        Some(Named::Asked(_)) => return None,
        None => {}
    }
    let rows = rows_of(name);
    let first = rows.first()?;
    let alike = rows.iter().all(|row| row.role == first.role);
    let group = first.group.as_deref().filter(|_| rows.iter().all(|row| row.group == first.group));
    alike.then_some((first.role, group))
}

/// What a name speaks of that is in no jar: "beef" of "beef and onions", "pasta" of "pasta with cheese".
#[must_use]
pub fn never(name: &str) -> Option<Role> {
    let rows = rows_of(name);
    rows.iter().map(|row| row.role).find(|role| role.side() == Side::Never)
}

impl Part {
    fn weighs(&self) -> Option<Average> {
        // Whatever a tomato is called, it is one.
        of(&self.name).or_else(|| if self.role == Role::Tomato { of("tomato") } else { None })
    }

    /// Millilitres by average.
    pub fn millilitres(&self) -> Option<BigRational> {
        let (amount, unit) = self.measured()?;
        let size = amount * unit.size();
        match unit.dimension() {
            Dimension::Volume => Some(size),
            Dimension::Mass => Some(size / self.weighs()?.cup? * Unit::Cup.size()),
            Dimension::Pieces => {
                let weighs = self.weighs()?;
                Some(size * weighs.piece? / weighs.cup? * Unit::Cup.size())
            }
            Dimension::Packets => None,
        }
    }

    /// Grams by average.
    pub fn grams(&self) -> Option<BigRational> {
        let (amount, unit) = self.measured()?;
        let size = amount * unit.size();
        match unit.dimension() {
            Dimension::Mass => Some(size),
            Dimension::Volume => Some(size / Unit::Cup.size() * self.weighs()?.cup?),
            Dimension::Pieces => Some(size * self.weighs()?.piece?),
            Dimension::Packets => None,
        }
    }
}
