//! A kitchen's document taken into an empty kitchen: read as a stream into a file of its own, brought up to date and checked
//! there, and taken over in one transaction.

use std::io::{BufReader, Read, Seek};
use std::path::Path;
use std::sync::atomic::Ordering;

use rusqlite::types::Value as Stored;
use rusqlite::{Connection, TransactionBehavior, params_from_iter};
use rusqlite_migration::Migrations;
use serde::de::{DeserializeSeed, Error as _, IgnoredAny, MapAccess, SeqAccess, Visitor};
use serde_json::Value;
use tempfile::{NamedTempFile, TempPath};

use crate::exchange::{FORMAT, TABLES, version};
use crate::files::ARRIVING;
use crate::import_checks::{self, MOST_FAULTS};
use crate::schema::{MIGRATIONS, bring_up, migrated};
use crate::{Store, StoreError};

fn bad(faults: Vec<String>) -> StoreError {
    StoreError::BadDocument { faults }
}

fn not_json(error: &serde_json::Error) -> StoreError {
    bad(vec![format!("it cannot be read as JSON: {error}")])
}

fn into(value: &Value) -> Option<Stored> {
    match value {
        Value::Null => Some(Stored::Null),
        Value::Number(number) => {
            number.as_i64().map(Stored::Integer).or_else(|| number.as_f64().map(Stored::Real))
        }
        Value::String(text) => Some(Stored::Text(text.clone())),
        Value::Bool(_) | Value::Array(_) | Value::Object(_) => None,
    }
}

/// Adds one row; says what is wrong with it.
fn add(connection: &Connection, table: &str, row: &Value) -> Result<(), String> {
    let Value::Object(fields) = row else { return Err("is not an object".to_owned()) };
    let mut columns = Vec::new();
    let mut values = Vec::new();
    for (name, value) in fields {
        if name.is_empty() || !name.chars().all(|letter| letter.is_ascii_lowercase() || letter == '_') {
            return Err(format!("{name:?} is not the name of a field"));
        }
        columns.push(name.as_str());
        values.push(into(value).ok_or_else(|| format!("{name} must be a number, a text or null"))?);
    }
    if columns.is_empty() {
        return Err("has no fields".to_owned());
    }
    let marks = vec!["?"; columns.len()].join(", ");
    let sql = format!("INSERT INTO {table} ({}) VALUES ({marks})", columns.join(", "));
    let added = connection.prepare_cached(&sql).and_then(|mut adds| adds.execute(params_from_iter(values)));
    added.map(drop).map_err(|error| error.to_string())
}

/// What a document says of itself, whatever order its parts stand in.
#[derive(Default)]
struct Head {
    format: Value,
    version: Value,
    has_records: bool,
}

impl<'de> Visitor<'de> for Head {
    type Value = Self;

    fn expecting(&self, out: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        out.write_str("an object")
    }

    fn visit_map<A: MapAccess<'de>>(mut self, mut parts: A) -> Result<Self, A::Error> {
        while let Some(part) = parts.next_key::<String>()? {
            match part.as_str() {
                "format" => self.format = parts.next_value()?,
                "version" => self.version = parts.next_value()?,
                other => {
                    self.has_records |= other == "records";
                    parts.next_value::<IgnoredAny>()?;
                }
            }
        }
        Ok(self)
    }
}

/// The records of a document on their way into a file.
struct Records<'a> {
    connection: &'a Connection,
    faults: &'a mut Vec<String>,
}

/// One table of them.
struct Rows<'a> {
    connection: &'a Connection,
    faults: &'a mut Vec<String>,
    table: &'static str,
}

impl<'de> Visitor<'de> for Records<'_> {
    type Value = ();

    fn expecting(&self, out: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        out.write_str("an object of lists")
    }

    fn visit_map<A: MapAccess<'de>>(self, mut tables: A) -> Result<(), A::Error> {
        while let Some(name) = tables.next_key::<String>()? {
            if let Some((table, _)) = TABLES.iter().find(|(table, _)| *table == name) {
                let rows = Rows { connection: self.connection, faults: &mut *self.faults, table };
                tables.next_value_seed(rows)?;
            } else {
                tables.next_value::<IgnoredAny>()?;
                self.faults.push(format!("records.{name} is unknown"));
            }
        }
        Ok(())
    }
}

impl<'de> DeserializeSeed<'de> for Records<'_> {
    type Value = ();

    fn deserialize<D: serde::Deserializer<'de>>(self, reader: D) -> Result<(), D::Error> {
        reader.deserialize_map(self)
    }
}

impl<'de> DeserializeSeed<'de> for Rows<'_> {
    type Value = ();

    fn deserialize<D: serde::Deserializer<'de>>(self, reader: D) -> Result<(), D::Error> {
        reader.deserialize_seq(self)
    }
}

impl<'de> Visitor<'de> for Rows<'_> {
    type Value = ();

    fn expecting(&self, out: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(out, "records.{} as a list", self.table)
    }

    fn visit_seq<A: SeqAccess<'de>>(self, mut rows: A) -> Result<(), A::Error> {
        let mut place = 0_usize;
        while let Some(row) = rows.next_element::<Value>()? {
            if self.faults.len() < MOST_FAULTS
                && let Err(fault) = add(self.connection, self.table, &row)
            {
                self.faults.push(format!("records.{}[{place}]: {fault}", self.table));
            }
            place += 1;
        }
        Ok(())
    }
}

/// The document with its records, of which the rest is read already.
struct Document<'a>(Records<'a>);

impl<'de> Visitor<'de> for Document<'_> {
    type Value = ();

    fn expecting(&self, out: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        out.write_str("an object")
    }

    fn visit_map<A: MapAccess<'de>>(self, mut parts: A) -> Result<(), A::Error> {
        let mut records = Some(self.0);
        while let Some(part) = parts.next_key::<String>()? {
            if part == "records" {
                let once = records.take().ok_or_else(|| A::Error::custom("records stand in it twice"))?;
                parts.next_value_seed(once)?;
            } else {
                parts.next_value::<IgnoredAny>()?;
            }
        }
        Ok(())
    }
}

/// Which form of the records a document is in.
fn version_of(document: impl Read) -> Result<usize, StoreError> {
    let mut reader = serde_json::Deserializer::from_reader(BufReader::new(document));
    let head = serde::Deserializer::deserialize_map(&mut reader, Head::default())
        .and_then(|head| reader.end().map(|()| head))
        .map_err(|error| not_json(&error))?;
    if head.format != FORMAT {
        return Err(bad(vec![format!("format must be \"{FORMAT}\"")]));
    }
    if !head.has_records {
        return Err(bad(vec!["records must be an object of lists".to_owned()]));
    }
    let said = head.version.as_u64().and_then(|version| usize::try_from(version).ok());
    said.filter(|said| (1..=version()).contains(said)).ok_or_else(|| {
        bad(vec![format!("version must be 1 to {}; a newer one needs a newer Bodega", version())])
    })
}

/// Rows that refer to what is not there.
fn lost_references(connection: &Connection) -> Result<Vec<String>, StoreError> {
    let mut statement = connection.prepare("PRAGMA foreign_key_check")?;
    let fault = |row: &rusqlite::Row<'_>| {
        let (table, id, other): (String, Option<i64>, String) = (row.get(0)?, row.get(1)?, row.get(2)?);
        let which = id.map(|id| format!(", row {id}")).unwrap_or_default();
        Ok(format!("records.{table}{which}: refers to a {other} that is not there"))
    };
    Ok(statement.query_map([], fault)?.take(MOST_FAULTS).collect::<Result<_, _>>()?)
}

/// Reads a document into a file of its own, in today's form and checked.
fn stage(document: &mut (impl Read + Seek), file: &Path) -> Result<(), StoreError> {
    let rewound = |error: std::io::Error| StoreError::Directory { cause: error };
    document.rewind().map_err(rewound)?;
    let version = version_of(&mut *document)?;
    document.rewind().map_err(rewound)?;
    let mut connection = Connection::open(file)?;
    // Nothing depends on this file until it is taken over.
    connection.pragma_update(None, "journal_mode", "MEMORY")?;
    connection.pragma_update(None, "synchronous", "OFF")?;
    Migrations::from_slice(MIGRATIONS).to_version(&mut connection, version).map_err(migrated)?;
    // The tables come in any order; what refers to what is looked at when all are there.
    connection.pragma_update(None, "foreign_keys", false)?;
    let mut faults = Vec::new();
    let transaction = connection.transaction()?;
    let mut reader = serde_json::Deserializer::from_reader(BufReader::new(document));
    let records = Records { connection: &transaction, faults: &mut faults };
    serde::Deserializer::deserialize_map(&mut reader, Document(records)).map_err(|error| not_json(&error))?;
    if faults.is_empty() {
        faults = lost_references(&transaction)?;
    }
    transaction.commit()?;
    if faults.is_empty() {
        bring_up(&mut connection)?;
        let arrived = Store::of(connection, None)?;
        arrived.settle_kitchen()?;
        faults = import_checks::faults(&arrived)?;
    }
    faults.truncate(MOST_FAULTS);
    if faults.is_empty() { Ok(()) } else { Err(bad(faults)) }
}

impl Store {
    /// A file beside the records that is gone when it is dropped, for what arrives.
    ///
    /// # Errors
    /// [`StoreError::Directory`] when it cannot be made.
    pub fn arriving_file(&self) -> Result<NamedTempFile, StoreError> {
        let mut builder = tempfile::Builder::new();
        builder.prefix(ARRIVING);
        let made = match self.directory() {
            Some(directory) => builder.tempfile_in(directory),
            None => builder.tempfile(),
        };
        made.map_err(|cause| StoreError::Directory { cause })
    }

    /// Takes a document into a kitchen in which nothing was ever weighed in, planned or cooked, all or nothing; documents
    /// of earlier versions are brought up to date.
    ///
    /// # Errors
    /// [`StoreError::NotEmpty`] when there are records by the time that it is taken over; [`StoreError::BadDocument`]
    /// lists the faults.
    pub fn import(&self, document: &mut (impl Read + Seek)) -> Result<(), StoreError> {
        if !self.is_empty()? {
            return Err(StoreError::NotEmpty);
        }
        let staged: TempPath = self.arriving_file()?.into_temp_path();
        stage(document, &staged)?;
        self.take_over(&staged)
    }

    /// Takes the records of a staged file over, unless something was written down here meanwhile.
    fn take_over(&self, staged: &Path) -> Result<(), StoreError> {
        let mut connection = self.lock();
        connection.execute("ATTACH ?1 AS arrived", [staged.display().to_string()])?;
        // The old kitchen goes and the new one comes with all that refers to them in one step.
        let done = connection.pragma_update(None, "foreign_keys", false).map_err(StoreError::from);
        let done = done.and_then(|()| {
            let transaction = connection.transaction_with_behavior(TransactionBehavior::Immediate)?;
            if !is_empty(&transaction)? {
                return Err(StoreError::NotEmpty);
            }
            for (table, _) in TABLES.iter().rev() {
                transaction.execute(&format!("DELETE FROM main.{table}"), [])?;
            }
            for (table, _) in TABLES {
                let columns = columns_of(&transaction, table)?;
                let sql =
                    format!("INSERT INTO main.{table} ({columns}) SELECT {columns} FROM arrived.{table}");
                transaction.execute(&sql, [])?;
            }
            Ok(transaction.commit()?)
        });
        connection.pragma_update(None, "foreign_keys", true)?;
        connection.execute("DETACH arrived", [])?;
        self.left_out.store(true, Ordering::Relaxed);
        done
    }

    /// Whether nothing was ever weighed in, planned or cooked here.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn is_empty(&self) -> Result<bool, StoreError> {
        is_empty(&*self.read()?)
    }
}

fn is_empty(connection: &Connection) -> Result<bool, StoreError> {
    let sql = "SELECT NOT EXISTS (SELECT 1 FROM main.lot) AND NOT EXISTS (SELECT 1 FROM main.batch)
        AND NOT EXISTS (SELECT 1 FROM main.cook)";
    Ok(connection.query_row(sql, [], |row| row.get(0))?)
}

/// The columns of a table in one order; an old file has the younger ones elsewhere.
fn columns_of(connection: &Connection, table: &str) -> Result<String, StoreError> {
    let mut statement = connection.prepare("SELECT name FROM pragma_table_info(?1)")?;
    let names = statement.query_map([table], |row| row.get(0))?.collect::<Result<Vec<String>, _>>()?;
    Ok(names.join(", "))
}
