//! Everything as one JSON document. The document is the records themselves, table by table; `docs/formats.md` describes it
//! and [`crate::Store::import`] takes it.

use rusqlite::Connection;
use rusqlite::types::ValueRef;
use serde_json::{Map, Value, json};

use crate::schema::MIGRATIONS;
use crate::{Store, StoreError};

/// What the document says it is.
pub(crate) const FORMAT: &str = "bodega-records";
/// Tables in the order in which they refer to one another, with what orders their rows.
pub(crate) const TABLES: [(&str, &str); 24] = [
    ("canner", "id"),
    ("canner_capacity", "canner_id, jar"),
    ("kitchen", "id"),
    ("jar_outside", "jar"),
    ("container", "id"),
    ("stock", "item"),
    ("goal", "position"),
    ("kettle", "id"),
    ("lot", "id"),
    ("recipe", "id"),
    ("bowls", "id"),
    ("batch", "id"),
    ("batch_lot", "batch_id, lot_id"),
    ("food_move", "id"),
    ("canner_load", "id"),
    ("jar", "id"),
    ("jar_past", "id"),
    ("load_event", "id"),
    ("canner_reading", "id"),
    ("ph_reading", "id"),
    ("cook", "id"),
    ("cook_event", "id"),
    ("day_slip", "block"),
    ("bench_ph", "id"),
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

impl Store {
    /// Everything as one document.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn export(&self) -> Result<Value, StoreError> {
        self.look_long(|connection| {
            let mut records = Map::new();
            for (table, order) in TABLES {
                records.insert(table.to_owned(), Value::Array(rows_of(connection, table, order)?));
            }
            Ok(json!({"format": FORMAT, "version": version(), "records": records}))
        })
    }
}
