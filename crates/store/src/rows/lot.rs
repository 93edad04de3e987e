//! Lots as rows.

use bodega_core::measures::ids::LotId;
use bodega_core::records::lot::Lot;
use rusqlite::{Connection, Row};

use super::{found, optional_word, word};
use crate::StoreError;

pub(crate) const SELECT: &str =
    "SELECT lot.id, picked_on, kind, condition, fault, back_on, frozen, weight_g, left_g
                      FROM lot JOIN lot_left ON lot_left.lot_id = lot.id";

pub(crate) fn read(row: &Row<'_>) -> rusqlite::Result<Lot> {
    Ok(Lot {
        id: LotId(row.get("id")?),
        picked_on: word(row, "picked_on")?,
        kind: word(row, "kind")?,
        condition: word(row, "condition")?,
        fault: optional_word(row, "fault")?,
        back_on: optional_word(row, "back_on")?,
        frozen: row.get("frozen")?,
        weight_g: row.get("weight_g")?,
        left_g: row.get("left_g")?,
    })
}

/// One lot, removed or not.
pub(crate) fn one(connection: &Connection, id: LotId) -> Result<Lot, StoreError> {
    found(connection.query_row(&format!("{SELECT} WHERE lot.id = ?1"), [id.0], read), "lot", id.0)
}
