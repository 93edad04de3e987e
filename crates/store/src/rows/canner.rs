//! Canners as rows.

use std::collections::BTreeMap;

use bodega_model::measures::ids::CannerId;
use bodega_model::records::canner::{Canner, PotSize};
use rusqlite::{Connection, Row};

use super::{found, readable, row_of, word};
use crate::StoreError;

fn read(row: &Row<'_>) -> rusqlite::Result<Canner> {
    let inside: [Option<f64>; 3] =
        [row.get("inner_diameter_mm")?, row.get("inner_height_mm")?, row.get("rack_height_mm")?];
    let pot = match inside {
        [Some(inner_diameter_mm), Some(inner_height_mm), Some(rack_height_mm)] => Some(PotSize {
            inner_diameter_mm,
            inner_length_mm: row.get("inner_length_mm")?,
            inner_height_mm,
            rack_height_mm,
        }),
        _ => None,
    };
    Ok(Canner {
        id: CannerId(row.get("id")?),
        name: row.get("name")?,
        method: word(row, "method")?,
        capacity: BTreeMap::new(),
        pot,
        power_w: row.get("power_w")?,
        burner_mm: row.get("burner_mm")?,
        multi_cooker: row.get("multi_cooker")?,
        gauge_tested_in: row.get("gauge_tested_in")?,
    })
}

fn with_capacity(connection: &Connection, canner: Canner) -> Result<Canner, StoreError> {
    let mut statement =
        connection.prepare_cached("SELECT jar, count FROM canner_capacity WHERE canner_id = ?1")?;
    let capacity = statement
        .query_map([canner.id.0], |row| Ok((word(row, "jar")?, row.get("count")?)))?
        .collect::<Result<_, _>>()?;
    Ok(Canner { capacity, ..canner })
}

/// Every canner, the first one first.
pub(crate) fn all(connection: &Connection) -> Result<Vec<Canner>, StoreError> {
    let mut statement = connection.prepare_cached("SELECT * FROM canner ORDER BY id")?;
    let canners = statement.query_map([], read)?;
    readable(canners.map(|canner| with_capacity(connection, canner?)))
}

pub(crate) fn one(connection: &Connection, id: CannerId) -> Result<Canner, StoreError> {
    let canner =
        found(row_of(connection, "SELECT * FROM canner WHERE id = ?1", [id.0], read), "canner", id.0)?;
    with_capacity(connection, canner)
}
