//! What stands against the jars at home: core's rule, asked of every load that has one and kept in memory until what it was asked
//! about is written again.
//!
//! Whatever is written goes through one connection, which tells of every row. What a row is about decides which loads are asked
//! anew, so that a tick on the bench does not judge a shelf of many years again.

use std::collections::BTreeMap;
use std::sync::{Arc, PoisonError};

use bodega_core::judge::standing::standings;
use bodega_model::judge::standing::JarStanding;
use bodega_model::kitchen::altitudes::AltitudeSaid;
use bodega_model::measures::ids::{BatchId, JarId, LoadId};
use bodega_model::measures::moment::Moment;
use rusqlite::{Connection, OptionalExtension, Row, params};

use crate::error::if_readable;
use crate::plan::{facts, known as known_facts};
use crate::rows::{ids, load, word};
use crate::standings::{AtHome, DECIDING, OfLoad, Written};
use crate::{Store, StoreError};

/// Jars at home, in the three small indexes that hold them: on the shelf, to be settled, in the cold.
const AT_HOME: &str = "SELECT load_id FROM jar INDEXED BY jar_on_shelf
        WHERE seal = 'holds' AND NOT provisional AND undosed_at IS NULL AND gone_at IS NULL
    UNION SELECT load_id FROM jar INDEXED BY jar_unsettled WHERE gone_at IS NULL AND rescue IS NULL
        AND (seal IS NULL OR (seal = 'failed' AND seal_detail IS NOT 'broken') OR tidy_at IS NULL
            OR undosed_at IS NOT NULL)
    UNION SELECT load_id FROM jar INDEXED BY jar_rescued WHERE rescue IS NOT NULL AND gone_at IS NULL
    EXCEPT SELECT load_id FROM open_load";

/// What a row that was written is about.
enum About {
    Load(LoadId),
    Batches(Vec<BatchId>),
    Everything,
}

fn about(connection: &Connection, table: usize, row: i64) -> Result<About, StoreError> {
    let batch_by = |sql: &str| -> Result<About, StoreError> {
        let found: Option<i64> =
            connection.prepare_cached(sql)?.query_row([row], |row| row.get(0)).optional()?;
        // A row that is gone does not say what it was about.
        Ok(found.map_or(About::Everything, |id| About::Batches(vec![BatchId(id)])))
    };
    match DECIDING[table] {
        "canner_load" => Ok(About::Load(LoadId(row))),
        "load_event" => {
            let sql = "SELECT load_id FROM load_event WHERE id = ?1";
            let found: Option<i64> =
                connection.prepare_cached(sql)?.query_row([row], |row| row.get(0)).optional()?;
            Ok(found.map_or(About::Everything, |id| About::Load(LoadId(id))))
        }
        "jar" => batch_by("SELECT batch_id FROM jar WHERE id = ?1"),
        "batch" => Ok(About::Batches(vec![BatchId(row)])),
        "ph_reading" => batch_by("SELECT batch_id FROM ph_reading WHERE id = ?1"),
        "bench_ph" => {
            let sql = "SELECT batch.id FROM bench_ph JOIN batch ON batch.bowls_id = bench_ph.bowls_id
                WHERE bench_ph.id = ?1";
            let mut statement = connection.prepare_cached(sql)?;
            Ok(About::Batches(ids(&mut statement, [row], BatchId)?))
        }
        "bowls" => {
            let mut statement = connection.prepare_cached("SELECT id FROM batch WHERE bowls_id = ?1")?;
            Ok(About::Batches(ids(&mut statement, [row], BatchId)?))
        }
        _ => Ok(About::Everything),
    }
}

/// Leaves out the loads that what was written is about.
fn forget(
    connection: &Connection,
    loads: &mut BTreeMap<LoadId, OfLoad>,
    written: &Written,
) -> Result<(), StoreError> {
    if written.is_all {
        loads.clear();
    }
    for (table, row) in &written.rows {
        match about(connection, *table, *row)? {
            About::Everything => loads.clear(),
            About::Load(id) => drop(loads.remove(&id)),
            About::Batches(batches) => {
                loads.retain(|_, load| !load.batches.iter().any(|batch| batches.contains(batch)));
            }
        }
    }
    Ok(())
}

/// What stands against the jars of one load.
pub(crate) fn of_load(connection: &Connection, id: LoadId) -> Result<Vec<(JarId, JarStanding)>, StoreError> {
    let load = load::one(connection, id)?;
    let facts = known_facts(&load.batches(), |batch| facts(connection, batch))?;
    Ok(standings(&load, &facts, &altitudes(connection)?))
}

/// What stands against one jar.
pub(crate) fn of_jar(connection: &Connection, jar: JarId, load: LoadId) -> Result<JarStanding, StoreError> {
    let found = of_load(connection, load)?.into_iter().find(|(id, _)| *id == jar);
    Ok(found.map_or(JarStanding::CLEAR, |(_, standing)| standing))
}

/// What was said of the kitchen's altitude, oldest first.
pub(crate) fn altitudes(connection: &Connection) -> Result<Vec<AltitudeSaid>, StoreError> {
    let mut statement = connection.prepare_cached("SELECT * FROM altitude_said ORDER BY at, id")?;
    let read = |row: &Row<'_>| {
        Ok(AltitudeSaid {
            at: Moment(row.get("at")?),
            was_ft: row.get("was_ft")?,
            altitude_ft: row.get("altitude_ft")?,
            reason: word(row, "reason")?,
            who: row.get("who")?,
        })
    };
    Ok(statement.query_map(params![], read)?.collect::<Result<_, _>>()?)
}

impl Store {
    /// What stands against every jar at home.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn standings(&self) -> Result<Arc<AtHome>, StoreError> {
        let mut kept = self.standings.0.lock().unwrap_or_else(PoisonError::into_inner);
        let (written, version) = {
            let mut done = self.changes.done.lock().unwrap_or_else(PoisonError::into_inner);
            (std::mem::take(&mut done.0), done.1)
        };
        let is_first = kept.version == 0;
        if !is_first && written.is_empty() {
            return Ok(Arc::clone(&kept));
        }
        let connection = self.read()?;
        let mut loads = kept.loads.clone();
        let refreshed =
            forget(&connection, &mut loads, &written).and_then(|()| self.asked_anew(&connection, loads));
        match refreshed {
            Ok(loads) => {
                let at_home = AtHome::of_loads(version + 1, loads);
                *kept = Arc::new(at_home);
                Ok(Arc::clone(&kept))
            }
            Err(error) => {
                // What was written has still to be looked at by whoever asks next.
                self.changes.done.lock().unwrap_or_else(PoisonError::into_inner).0.is_all = true;
                Err(error)
            }
        }
    }

    /// Every load with jars at home: those that were asked before as they were, the others anew.
    fn asked_anew(
        &self,
        connection: &Connection,
        mut known: BTreeMap<LoadId, OfLoad>,
    ) -> Result<BTreeMap<LoadId, OfLoad>, StoreError> {
        let altitudes = altitudes(connection)?;
        let mut statement = connection.prepare_cached(AT_HOME)?;
        let mut loads = BTreeMap::new();
        for id in ids(&mut statement, [], LoadId)? {
            if let Some(of_load) = known.remove(&id) {
                loads.insert(id, of_load);
                continue;
            }
            let Some(load) = if_readable(load::one(connection, id))? else { continue };
            let facts = known_facts(&load.batches(), |batch| facts(connection, batch))?;
            let jars = standings(&load, &facts, &altitudes);
            let jars = jars.into_iter().map(|(jar, standing)| (jar, Arc::new(standing))).collect();
            loads.insert(id, OfLoad { batches: load.batches(), jars });
        }
        Ok(loads)
    }

    /// What was said of the kitchen's altitude, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn altitudes(&self) -> Result<Vec<AltitudeSaid>, StoreError> {
        altitudes(&*self.read()?)
    }
}
