//! Records that cannot be read: each stands on a card of its own, and a person puts it right.
//!
//! A word that this program does not know may come from a newer one, or from a flipped byte. The lists leave such a
//! record out; here it is named with what was stored and the words that would do.

use std::sync::atomic::Ordering;

use bodega_model::canner::events::BoilEvent;
use bodega_model::crates::fruit::{Condition, Fault, Kind};
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::kettle::words::{CookWhat, HeatSetting, KettleHeat, TargetKind};
use bodega_model::ledger::food::{Food, FoodMeasure, FoodPlace};
use bodega_model::plan::making::Rest;
use bodega_model::plan::making::Thickness;
use bodega_model::records::batch::Liking;
use bodega_model::shelf::leaving::{Discard, Leaving};
use bodega_model::tables::process::{Medium, Method, Pack, Product};
use bodega_model::towel::seal::Rescue;
use jiff::civil::Date;
use rusqlite::{Connection, params};
use serde::Serialize;

use crate::{Store, StoreError};

/// A word that would do.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Choice {
    /// As it is stored.
    pub word: &'static str,
    /// As a person reads it.
    pub label: &'static str,
}

/// A record that cannot be read.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BrokenRecord {
    /// Kind of record.
    pub table: &'static str,
    /// Its number.
    pub id: i64,
    /// The field that cannot be read.
    pub field: &'static str,
    /// What stands in it.
    pub stored: String,
    /// The words that would do; empty for a day, `YYYY-MM-DD`.
    pub choices: Vec<Choice>,
}

/// What a field may hold.
enum Holds {
    /// One of these words.
    Word(Vec<Choice>),
    /// A day of the calendar.
    Day,
}

/// A field that is read as a word or a day.
struct Field {
    table: &'static str,
    column: &'static str,
    holds: Holds,
}

/// Fields of one table with the words of a vocabulary each.
macro_rules! fields {
    ($( $table:literal: $( $column:literal = $words:ident ),+; )+) => {
        vec![ $( $( Field {
            table: $table,
            column: $column,
            holds: Holds::Word(
                $words::ALL.iter().map(|word| Choice { word: word.word(), label: word.label() }).collect(),
            ),
        } ),+ ),+ ]
    };
}

fn fields() -> Vec<Field> {
    let mut all = fields! {
        "lot": "kind" = Kind, "condition" = Condition, "fault" = Fault, "food" = Food, "measure" = FoodMeasure;
        "batch": "product" = Product, "medium" = Medium, "pack" = Pack, "thickness" = Thickness,
            "method" = Method, "agent" = Agent, "rest" = Rest, "liked" = Liking;
        "canner": "method" = Method;
        "jar": "size" = JarSize, "rescue" = Rescue, "gone_how" = Leaving, "gone_why" = Discard;
        "load_event": "event" = BoilEvent;
        "kettle": "heat" = KettleHeat;
        "cook": "target" = TargetKind, "setting" = HeatSetting;
        "cook_event": "what" = CookWhat;
        "food_move": "food" = Food, "place" = FoodPlace, "measure" = FoodMeasure;
        "goal": "product" = Product, "medium" = Medium, "pack" = Pack, "thickness" = Thickness, "jar" = JarSize;
    };
    all.extend(["picked_on", "back_on"].map(|column| Field { table: "lot", column, holds: Holds::Day }));
    all
}

impl Field {
    /// What cannot be read, for SQL; words are the program's own.
    fn fault(&self) -> String {
        let column = self.column;
        match &self.holds {
            Holds::Word(words) => {
                let words = words.iter().map(|choice| format!("'{}'", choice.word)).collect::<Vec<_>>();
                format!("{column} NOT IN ({})", words.join(", "))
            }
            // SQLite counts on into the next month, the calendar does not.
            Holds::Day => format!("date({column}) IS NOT {column}"),
        }
    }

    fn accepts(&self, value: &str) -> bool {
        match &self.holds {
            Holds::Word(words) => words.iter().any(|choice| choice.word == value),
            Holds::Day => value.parse::<Date>().is_ok_and(|day| day.to_string() == value),
        }
    }

    fn broken(&self, connection: &Connection) -> Result<Vec<BrokenRecord>, StoreError> {
        let (table, column) = (self.table, self.column);
        let sql = format!(
            "SELECT rowid, {column} FROM {table} WHERE {column} IS NOT NULL AND {} ORDER BY rowid",
            self.fault()
        );
        let choices = match &self.holds {
            Holds::Word(words) => words.clone(),
            Holds::Day => Vec::new(),
        };
        let mut statement = connection.prepare_cached(&sql)?;
        let rows = statement.query_map([], |row| {
            Ok(BrokenRecord {
                table,
                id: row.get(0)?,
                field: column,
                stored: row.get(1)?,
                choices: choices.clone(),
            })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Store {
    /// Records that cannot be read, with what would do. It looks through all of the history, and so only when it never
    /// did or a list has left something out since.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn broken(&self) -> Result<Vec<BrokenRecord>, StoreError> {
        if !self.left_out.swap(false, Ordering::Relaxed) {
            return Ok(Vec::new());
        }
        let connection = self.read()?;
        let mut all = Vec::new();
        for field in fields() {
            all.extend(field.broken(&connection)?);
        }
        self.left_out.fetch_or(!all.is_empty(), Ordering::Relaxed);
        Ok(all)
    }

    /// Puts a field right that cannot be read; one that can be is left alone.
    ///
    /// # Errors
    /// [`StoreError::NotBroken`] when there is no such field or it can be read; [`StoreError::NoSuchWord`] when the word
    /// would not do either.
    pub fn mend(&self, table: &str, id: i64, field: &str, value: &str) -> Result<(), StoreError> {
        let known = fields();
        let found = known.iter().find(|known| known.table == table && known.column == field);
        let Some(found) = found else { return Err(StoreError::NotBroken) };
        if !found.accepts(value) {
            return Err(StoreError::NoSuchWord { value: value.to_owned() });
        }
        let sql = format!("UPDATE {table} SET {field} = ?2 WHERE rowid = ?1 AND {}", found.fault());
        if self.lock().execute(&sql, params![id, value])? == 0 {
            return Err(StoreError::NotBroken);
        }
        Ok(())
    }
}
