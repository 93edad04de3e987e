//! Kettles and cook-downs as rows.

use bodega_model::kettle::contents::Shown;
use bodega_model::measures::ids::{BatchId, CookId, KettleId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::cook::{Cook, CookEvent, Kettle};
use rusqlite::{Connection, Row};

use super::{found, moment, row_of, word};
use crate::StoreError;

pub(crate) fn read_kettle(row: &Row<'_>) -> rusqlite::Result<Kettle> {
    Ok(Kettle {
        id: KettleId(row.get("id")?),
        name: row.get("name")?,
        inner_diameter_mm: row.get("inner_diameter_mm")?,
        top_diameter_mm: row.get("top_diameter_mm")?,
        depth_mm: row.get("depth_mm")?,
        heat: word(row, "heat")?,
        pour_l: row.get("pour_l")?,
        pour_depths_mm: row
            .get::<_, Option<String>>("pour_depths_mm")?
            .iter()
            .flat_map(|text| text.split(' '))
            .filter_map(|depth| depth.parse().ok())
            .collect(),
    })
}

/// One cook-down with its log.
pub(crate) fn one(connection: &Connection, id: CookId) -> Result<Cook, StoreError> {
    let sql = "SELECT cook.id AS cook_id, batch_id, started_at, volume_l, brix, target, target_value, setting, litres_per_hour, ended_at,
        start_c, rate_doubt, thickens, thickens_doubt, kettle.* FROM cook JOIN kettle ON kettle.id = kettle_id WHERE cook.id = ?1";
    let mut cook = found(
        row_of(connection, sql, [id.0], |row| {
            let thickens = row.get::<_, Option<f64>>("thickens")?.zip(row.get("thickens_doubt")?);
            Ok(Cook {
                id: CookId(row.get("cook_id")?),
                kettle: read_kettle(row)?,
                batch: row.get::<_, Option<i64>>("batch_id")?.map(BatchId),
                started_at: Moment(row.get("started_at")?),
                volume_l: row.get("volume_l")?,
                brix: row.get("brix")?,
                target: word(row, "target")?,
                target_value: row.get("target_value")?,
                setting: word(row, "setting")?,
                start_c: row.get("start_c")?,
                litres_per_hour: row.get("litres_per_hour")?,
                shown: row
                    .get::<_, Option<f64>>("rate_doubt")?
                    .map(|rate_doubt| Shown { rate_doubt, thickens }),
                ended_at: moment(row, "ended_at")?,
                log: Vec::new(),
            })
        }),
        "cook-down",
        id.0,
    )?;
    let mut statement = connection.prepare_cached(
        "SELECT at, what, value, simulated, sure, EXISTS (SELECT 1 FROM food_move
             WHERE cook_event_id = cook_event.id AND food_move.undone_at IS NULL) AS booked
         FROM cook_event WHERE cook_id = ?1 AND undone_at IS NULL ORDER BY at, id",
    )?;
    let rows = statement.query_map([id.0], |row| {
        Ok(CookEvent {
            at: Moment(row.get("at")?),
            what: word(row, "what")?,
            value: row.get("value")?,
            simulated: row.get("simulated")?,
            sure: row.get("sure")?,
            booked: row.get("booked")?,
        })
    })?;
    cook.log = rows.collect::<Result<_, _>>()?;
    Ok(cook)
}
