//! Canner loads as rows; the clock is derived from the events, never stored.

use bodega_model::canner::clock::BoilClock;
use bodega_model::canner::events::Happened;
use bodega_model::measures::ids::{BatchId, CannerId, JarId, LoadId};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::records::load::{CannerLoad, CannerReading};
use rusqlite::{Connection, params};

use super::{batch, canner, jar, optional_word, row_of, unsigned, word};
use crate::StoreError;

/// Readings that a load carries with it: the latest, enough to see whether a boil holds.
const LATEST_READINGS: u32 = 40;

/// Loads of batches on the line that are not lifted yet.
macro_rules! open_loads {
    () => {
        "open_load CROSS JOIN canner_load ON canner_load.id = open_load.load_id
            JOIN batch ON batch.id = batch_id WHERE removed_at IS NULL"
    };
}

/// Those loads in working order.
pub(crate) const OPEN: &str =
    concat!("SELECT canner_load.id FROM ", open_loads!(), " ORDER BY batch_id, position");

/// Whether a canner has any of them.
pub(crate) fn are_open_for(connection: &Connection, canner: CannerId) -> Result<bool, StoreError> {
    let sql = concat!("SELECT EXISTS (SELECT 1 FROM ", open_loads!(), " AND canner_id = ?1)");
    Ok(row_of(connection, sql, [canner.0], |row| row.get(0))?)
}

pub(crate) fn one(connection: &Connection, id: LoadId) -> Result<CannerLoad, StoreError> {
    let sql = "SELECT batch_id, position, minutes, psi, canner_id, jars_c, claims, claims_asked, also, water_over, water_at,
        water_asked, under_jars,
        (SELECT min(filled_at) FROM jar WHERE load_id = canner_load.id) AS filled_since,
        (SELECT count(*) FROM canner_load AS sister WHERE sister.batch_id = canner_load.batch_id) AS of
        FROM canner_load WHERE id = ?1";
    let mut statement = connection.prepare_cached(sql)?;
    let mut rows = statement.query([id.0])?;
    let row = rows.next()?.ok_or(StoreError::NotFound { what: "load", id: id.0 })?;
    let batch = batch::one(connection, BatchId(row.get("batch_id")?))?;
    let jars = jar::of_load(connection, id)?;
    let mut by_recipe: Vec<BatchId> =
        jars.iter().filter(|jar| jar.product.brings_its_acid()).map(|jar| jar.batch).collect();
    by_recipe.dedup();
    let required = Minutes(unsigned(row.get("minutes")?, "a load's minutes")?);
    Ok(CannerLoad {
        id,
        position: unsigned(row.get("position")?, "a load's position")?,
        of: unsigned(row.get("of")?, "a batch's loads")?,
        canner: canner::one(connection, CannerId(row.get("canner_id")?))?,
        jars_c: row.get("jars_c")?,
        // A card that cannot be read is no card: it is asked for again.
        claims: row.get::<_, Option<String>>("claims")?.and_then(|text| serde_json::from_str(&text).ok()),
        claims_asked: row.get("claims_asked")?,
        water_over: optional_word(row, "water_over")?,
        water_at: row.get::<_, Option<i64>>("water_at")?.map(Moment),
        water_asked: row.get("water_asked")?,
        under_jars: optional_word(row, "under_jars")?,
        also: serde_json::from_str(&row.get::<_, String>("also")?).unwrap_or_default(),
        filled_since: row.get::<_, Option<i64>>("filled_since")?.map(Moment),
        readings: readings(connection, id)?,
        psi: row.get::<_, Option<i64>>("psi")?.map(|psi| unsigned(psi, "a load's pressure")).transpose()?,
        recipes: batch::recipes(connection, by_recipe)?,
        jars,
        clock: BoilClock::replay(batch.method, required, &happened(connection, id)?),
        batch,
    })
}

fn happened(connection: &Connection, load: LoadId) -> Result<Vec<Happened>, StoreError> {
    let mut statement = connection.prepare_cached(
        "SELECT event, at, jar_id FROM load_event WHERE load_id = ?1 AND undone_at IS NULL ORDER BY id",
    )?;
    let rows = statement.query_map([load.0], |row| {
        Ok(Happened {
            event: word(row, "event")?,
            at: Moment(row.get("at")?),
            jar: row.get::<_, Option<i64>>("jar_id")?.map(JarId),
        })
    })?;
    Ok(rows.collect::<Result<_, _>>()?)
}

fn readings(connection: &Connection, load: LoadId) -> Result<Vec<CannerReading>, StoreError> {
    let mut statement = connection.prepare_cached(
        "SELECT at, temp_c, simulated FROM canner_reading WHERE load_id = ?1 ORDER BY id DESC LIMIT ?2",
    )?;
    let rows = statement.query_map(params![load.0, LATEST_READINGS], |row| {
        Ok(CannerReading {
            at: Moment(row.get("at")?),
            temp_c: row.get("temp_c")?,
            simulated: row.get("simulated")?,
        })
    })?;
    let mut latest = rows.collect::<Result<Vec<_>, _>>()?;
    latest.reverse();
    Ok(latest)
}
