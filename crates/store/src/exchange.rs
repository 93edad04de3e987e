//! Everything as one JSON document. The document is the records themselves, table by table; `docs/formats.md` describes it
//! and [`crate::Store::import`] takes it.

use std::io::Write;

use rusqlite::Connection;
use rusqlite::types::ValueRef;
use serde_json::{Value, json};

use crate::schema::MIGRATIONS;
use crate::{Store, StoreError};

/// What the document says it is.
pub(crate) const FORMAT: &str = "bodega-records";
/// Tables in the order in which they refer to one another, with what orders their rows.
pub(crate) const TABLES: [(&str, &str); 26] = [
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
    ("altitude_said", "id"),
    ("correction", "id"),
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

/// Writes the rows of a table, one after the other: a history is longer than memory.
fn write_rows(
    connection: &Connection,
    table: &str,
    order: &str,
    to: &mut impl Write,
) -> Result<(), StoreError> {
    let mut statement = connection.prepare(&format!("SELECT * FROM {table} ORDER BY {order}"))?;
    let names = statement.column_names().into_iter().map(|name| format!("{}:", json!(name)));
    let columns: Vec<String> = names.collect();
    let mut rows = statement.query([])?;
    let mut before = "";
    while let Some(row) = rows.next()? {
        to.write_all(before.as_bytes())?;
        for (place, column) in columns.iter().enumerate() {
            to.write_all(if place == 0 { b"{" } else { b"," })?;
            to.write_all(column.as_bytes())?;
            serde_json::to_writer(&mut *to, &out(row.get_ref(place)?)).map_err(std::io::Error::from)?;
        }
        to.write_all(b"}")?;
        before = ",";
    }
    Ok(())
}

impl Store {
    /// Writes everything as one document, as it is at one moment.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read; [`StoreError::Directory`] when nobody takes what is written.
    pub fn export_to(&self, to: &mut impl Write) -> Result<(), StoreError> {
        self.look_long(|connection| {
            write!(to, r#"{{"format":"{FORMAT}","version":{},"records":{{"#, version())?;
            for (place, (table, order)) in TABLES.into_iter().enumerate() {
                write!(to, r#"{}"{table}":["#, if place == 0 { "" } else { "," })?;
                write_rows(connection, table, order, to)?;
                to.write_all(b"]")?;
            }
            Ok(to.write_all(b"}}")?)
        })
    }
}
