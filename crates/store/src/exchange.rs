//! Everything as one JSON document, out and in. The document is the records themselves, table by table, in the order in
//! which they refer to one another; `docs/formats.md` describes it.

use rusqlite::types::{Value as Stored, ValueRef};
use rusqlite::{Connection, params_from_iter};
use rusqlite_migration::Migrations;
use serde_json::{Map, Value, json};

use crate::mend::BrokenRecord;
use crate::schema::{MIGRATIONS, bring_up};
use crate::{Store, StoreError};

/// What the document says it is.
const FORMAT: &str = "bodega-records";
/// Faults named in one answer.
const MOST_FAULTS: usize = 20;
/// Tables in the order in which they refer to one another, with what orders their rows.
const TABLES: [(&str, &str); 20] = [
    ("canner", "id"),
    ("canner_capacity", "canner_id, jar"),
    ("kitchen", "id"),
    ("jar_outside", "jar"),
    ("container", "id"),
    ("stock", "item"),
    ("goal", "position"),
    ("kettle", "id"),
    ("lot", "id"),
    ("batch", "id"),
    ("batch_lot", "batch_id, lot_id"),
    ("canner_load", "id"),
    ("jar", "id"),
    ("jar_past", "id"),
    ("load_event", "id"),
    ("canner_reading", "id"),
    ("ph_reading", "id"),
    ("cook", "id"),
    ("cook_event", "id"),
    ("day_slip", "block"),
];

/// Version of the document: that of the records.
#[must_use]
pub const fn version() -> usize {
    MIGRATIONS.len()
}

fn out(value: ValueRef<'_>) -> Value {
    match value {
        ValueRef::Null | ValueRef::Blob(_) => Value::Null,
        ValueRef::Integer(number) => json!(number),
        ValueRef::Real(number) => json!(number),
        ValueRef::Text(text) => json!(String::from_utf8_lossy(text)),
    }
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

fn rows_of(connection: &Connection, table: &str, order: &str) -> Result<Vec<Value>, StoreError> {
    let mut statement = connection.prepare(&format!("SELECT * FROM {table} ORDER BY {order}"))?;
    let columns: Vec<String> = statement.column_names().into_iter().map(str::to_owned).collect();
    let mut rows = statement.query([])?;
    let mut found = Vec::new();
    while let Some(row) = rows.next()? {
        let mut line = Map::new();
        for (place, column) in columns.iter().enumerate() {
            line.insert(column.clone(), out(row.get_ref(place)?));
        }
        found.push(Value::Object(line));
    }
    Ok(found)
}

/// Adds one row; says what is wrong with it.
fn add(connection: &Connection, table: &str, row: &Value) -> Result<(), String> {
    let Value::Object(fields) = row else { return Err("is not an object".to_owned()) };
    let mut columns = Vec::new();
    let mut values = Vec::new();
    for (name, value) in fields {
        if !name.chars().all(|letter| letter.is_ascii_lowercase() || letter == '_') {
            return Err(format!("{name:?} is not the name of a field"));
        }
        columns.push(name.as_str());
        values.push(into(value).ok_or_else(|| format!("{name} must be a number, a text or null"))?);
    }
    let marks = vec!["?"; columns.len()].join(", ");
    let sql = format!("INSERT INTO {table} ({}) VALUES ({marks})", columns.join(", "));
    connection.execute(&sql, params_from_iter(values)).map_err(|error| error.to_string())?;
    Ok(())
}

fn fill(connection: &Connection, records: &Map<String, Value>) -> Vec<String> {
    let known = |name: &str| TABLES.iter().any(|(table, _)| *table == name);
    let mut faults: Vec<String> =
        records.keys().filter(|name| !known(name)).map(|name| format!("records.{name} is unknown")).collect();
    for (table, _) in TABLES {
        let rows = match records.get(table) {
            None => continue,
            Some(Value::Array(rows)) => rows,
            Some(_) => {
                faults.push(format!("records.{table} must be a list"));
                continue;
            }
        };
        for (place, row) in rows.iter().enumerate() {
            if let Err(fault) = add(connection, table, row) {
                faults.push(format!("records.{table}[{place}]: {fault}"));
            }
        }
    }
    faults
}

/// Faults of the words and days in the records, which the schema does not check.
fn word_faults(store: &Store) -> Result<Vec<String>, StoreError> {
    let fault = |broken: BrokenRecord| {
        let BrokenRecord { table, id, field, stored, choices } = broken;
        let words = choices.iter().map(|choice| choice.word).collect::<Vec<_>>().join(", ");
        let would_do =
            if words.is_empty() { "a day as 2026-09-12".to_owned() } else { format!("one of: {words}") };
        format!("records.{table}, id {id}: unknown {field} \"{stored}\"; use {would_do}")
    };
    Ok(store.broken()?.into_iter().map(fault).collect())
}

impl Store {
    /// Everything as one document.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn export(&self) -> Result<Value, StoreError> {
        let connection = self.lock();
        let mut records = Map::new();
        for (table, order) in TABLES {
            records.insert(table.to_owned(), Value::Array(rows_of(&connection, table, order)?));
        }
        Ok(json!({"format": FORMAT, "version": version(), "records": records}))
    }

    /// Whether nothing was ever weighed in, planned or cooked here.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn is_empty(&self) -> Result<bool, StoreError> {
        let sql = "SELECT NOT EXISTS (SELECT 1 FROM lot) AND NOT EXISTS (SELECT 1 FROM batch)
            AND NOT EXISTS (SELECT 1 FROM cook)";
        Ok(self.lock().query_row(sql, [], |row| row.get(0))?)
    }

    /// Takes a document in, all or nothing; documents of earlier versions are brought up to date.
    ///
    /// # Errors
    /// [`StoreError::NotEmpty`] when there are records already; [`StoreError::BadDocument`] lists every fault.
    pub fn import(&self, document: &Value) -> Result<(), StoreError> {
        let bad = |faults: Vec<String>| StoreError::BadDocument { faults };
        if !self.is_empty()? {
            return Err(StoreError::NotEmpty);
        }
        if document["format"] != FORMAT {
            return Err(bad(vec![format!("format must be \"{FORMAT}\"")]));
        }
        let version = document["version"].as_u64().and_then(|version| usize::try_from(version).ok());
        let Some(version) = version.filter(|version| (1..=self::version()).contains(version)) else {
            let message =
                format!("version must be 1 to {}; a newer one needs a newer Bodega", self::version());
            return Err(bad(vec![message]));
        };
        let Some(records) = document["records"].as_object() else {
            return Err(bad(vec!["records must be an object of lists".to_owned()]));
        };
        let mut connection = Connection::open_in_memory()?;
        let migrations = Migrations::from_slice(MIGRATIONS);
        let migrated = |error: rusqlite_migration::Error| StoreError::Migration(error.to_string());
        migrations.to_version(&mut connection, version).map_err(migrated)?;
        connection.pragma_update(None, "foreign_keys", true)?;
        let mut faults = fill(&connection, records);
        if faults.is_empty() {
            bring_up(&mut connection).map_err(migrated)?;
            let taken = Self::of(connection, None);
            taken.settle_kitchen()?;
            faults = word_faults(&taken)?;
            if faults.is_empty() {
                return taken.copy_to(self);
            }
        }
        faults.truncate(MOST_FAULTS);
        Err(bad(faults))
    }
}
