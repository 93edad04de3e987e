//! Lots as rows.

use bodega_model::ledger::food::Told;
use bodega_model::measures::ids::{BatchId, LotId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::lot::Lot;
use rusqlite::{Connection, Row};

use super::{found, moment, optional_word, row_of, word};
use crate::StoreError;

pub(crate) const SELECT: &str = "SELECT lot.*, left_g, code AS from_code,
        (SELECT coalesce(sum(weight_g), 0) FROM food_move
         WHERE food_move.lot_id = lot.id AND food = 'water' AND undone_at IS NULL) AS poured_g,
        EXISTS (SELECT 1 FROM food_move WHERE to_lot = lot.id) AS moved_in
     FROM lot JOIN lot_left ON lot_left.lot_id = lot.id LEFT JOIN batch ON batch.id = from_batch";

pub(crate) fn read(row: &Row<'_>) -> rusqlite::Result<Lot> {
    Ok(Lot {
        id: LotId(row.get("id")?),
        name: row.get("name")?,
        note: row.get("note")?,
        food: word(row, "food")?,
        added_at: Moment(row.get("added_at")?),
        told: told(row)?,
        from_batch: row.get::<_, Option<i64>>("from_batch")?.map(BatchId),
        from_code: row.get("from_code")?,
        moved_in: row.get("moved_in")?,
        chilled_at: moment(row, "chilled_at")?,
        thawed_at: moment(row, "thawed_at")?,
        poured_g: row.get("poured_g")?,
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

/// How much it was, as it was told by volume.
fn told(row: &Row<'_>) -> rusqlite::Result<Option<Told>> {
    let amount: Option<f64> = row.get("amount")?;
    let measure = optional_word(row, "measure")?;
    Ok(amount.zip(measure).map(|(amount, measure)| Told { amount, measure }))
}

/// One lot that is on the line.
pub(crate) fn on_line(connection: &Connection, id: LotId) -> Result<Lot, StoreError> {
    let sql = format!("{SELECT} WHERE lot.id = ?1 AND lot.removed_at IS NULL");
    found(row_of(connection, &sql, [id.0], read), "lot on the line", id.0)
}

/// One lot, removed or not.
pub(crate) fn one(connection: &Connection, id: LotId) -> Result<Lot, StoreError> {
    found(row_of(connection, &format!("{SELECT} WHERE lot.id = ?1"), [id.0], read), "lot", id.0)
}
