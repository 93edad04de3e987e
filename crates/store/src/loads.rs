//! Canner loads and what happened to them; the clock is derived from the events, never stored.

use bodega_core::boil_clock::{BoilClock, BoilEvent, Happened};
use bodega_core::moment::{Minutes, Moment};
use rusqlite::{Connection, params};

use crate::rows::{found, unsigned};
use crate::{Batch, Jar, Store, StoreError, batches, jars};

/// A load with its jars, its batch and its clock.
#[derive(Debug, Clone, PartialEq)]
pub struct CannerLoad {
    /// Number of the record.
    pub id: i64,
    /// Place among the loads of its batch, from 1.
    pub position: u32,
    /// Loads of its batch.
    pub of: u32,
    /// Its batch.
    pub batch: Batch,
    /// Pressure, if it is a pressure process.
    pub psi: Option<u32>,
    /// Its jars.
    pub jars: Vec<Jar>,
    /// Its clock.
    pub clock: BoilClock,
}

const fn event_word(event: BoilEvent) -> &'static str {
    match event {
        BoilEvent::JarsIn => "jars_in",
        BoilEvent::Boils => "boils",
        BoilEvent::BoilLost => "boil_lost",
        BoilEvent::HeatOff => "heat_off",
        BoilEvent::Lifted => "lifted",
    }
}

fn read_event(word: &str, at: i64) -> Result<Happened, StoreError> {
    BoilEvent::ALL
        .into_iter()
        .find(|event| event_word(*event) == word)
        .map(|event| Happened { event, at: Moment(at) })
        .ok_or_else(|| StoreError::Damaged(format!("unknown load event \"{word}\"")))
}

/// Loads of batches on the line that are not lifted yet, in working order.
const OPEN: &str = "SELECT canner_load.id FROM canner_load JOIN batch ON batch.id = batch_id
    WHERE removed_at IS NULL AND NOT EXISTS (
        SELECT 1 FROM load_event WHERE load_id = canner_load.id AND event = 'lifted' AND undone_at IS NULL)
    ORDER BY batch_id, position";

pub(crate) fn one(connection: &Connection, id: i64) -> Result<CannerLoad, StoreError> {
    let sql = "SELECT batch_id, position, minutes, psi,
        (SELECT count(*) FROM canner_load AS sister WHERE sister.batch_id = canner_load.batch_id) AS of
        FROM canner_load WHERE id = ?1";
    let (batch, position, minutes, psi, of): (i64, i64, i64, Option<i64>, i64) = found(
        connection.query_row(sql, [id], |row| {
            Ok((row.get(0)?, row.get(1)?, row.get(2)?, row.get(3)?, row.get(4)?))
        }),
        "load",
        id,
    )?;
    let mut statement = connection.prepare_cached(
        "SELECT event, at FROM load_event WHERE load_id = ?1 AND undone_at IS NULL ORDER BY id",
    )?;
    let stored = statement
        .query_map([id], |row| Ok((row.get::<_, String>(0)?, row.get::<_, i64>(1)?)))?
        .collect::<Result<Vec<_>, _>>()?;
    let happened =
        stored.iter().map(|(word, at)| read_event(word, *at)).collect::<Result<Vec<_>, StoreError>>()?;
    let required = Minutes(unsigned(minutes, "a load's minutes")?);
    Ok(CannerLoad {
        id,
        position: unsigned(position, "a load's position")?,
        of: unsigned(of, "a batch's loads")?,
        batch: batches::one(connection, batch)?,
        psi: psi.map(|psi| unsigned(psi, "a load's pressure")).transpose()?,
        jars: jars::of_load(connection, id)?,
        clock: BoilClock::replay(required, &happened)?,
    })
}

impl Store {
    /// Loads that are still to be lifted, in working order.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn open_loads(&self) -> Result<Vec<CannerLoad>, StoreError> {
        let connection = self.lock();
        let mut statement = connection.prepare_cached(OPEN)?;
        let ids = statement.query_map([], |row| row.get(0))?.collect::<Result<Vec<i64>, _>>()?;
        ids.into_iter().map(|id| one(&connection, id)).collect()
    }

    /// Every load of a batch, lifted ones too.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batch_loads(&self, batch: i64) -> Result<Vec<CannerLoad>, StoreError> {
        let connection = self.lock();
        let mut statement =
            connection.prepare_cached("SELECT id FROM canner_load WHERE batch_id = ?1 ORDER BY position")?;
        let ids = statement.query_map([batch], |row| row.get(0))?.collect::<Result<Vec<i64>, _>>()?;
        ids.into_iter().map(|id| one(&connection, id)).collect()
    }

    /// One load.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn load(&self, id: i64) -> Result<CannerLoad, StoreError> {
        one(&self.lock(), id)
    }

    /// Records what somebody saw or did at the canner. It is on disk when this returns.
    ///
    /// # Errors
    /// [`StoreError::OutOfOrder`] when it does not follow; [`StoreError::JarsNotReady`] when jars would go in without
    /// acid or unfilled; [`StoreError::CannerBusy`] while another load is in.
    pub fn add_event(&self, id: i64, event: BoilEvent, now: Moment) -> Result<CannerLoad, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let load = one(&transaction, id)?;
        if load.clock.happened().is_empty() {
            check_ready(&load)?;
            check_canner_free(&transaction, id)?;
        }
        let clock = load.clock.after(event, now)?;
        let at = clock.happened().last().map_or(now, |last| last.at);
        transaction.execute(
            "INSERT INTO load_event (load_id, event, at) VALUES (?1, ?2, ?3)",
            params![id, event_word(event), at.0],
        )?;
        transaction.commit()?;
        Ok(CannerLoad { clock, ..load })
    }

    /// Gives a load another tested time, after the altitude was corrected; what happened so far stays.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn retime_load(&self, id: i64, minutes: Minutes, psi: Option<u32>) -> Result<CannerLoad, StoreError> {
        let connection = self.lock();
        connection.execute(
            "UPDATE canner_load SET minutes = ?2, psi = ?3 WHERE id = ?1",
            params![id, minutes.0, psi],
        )?;
        one(&connection, id)
    }

    /// Takes the last event of a load back; the record of it stays.
    ///
    /// # Errors
    /// [`StoreError::NothingToUndo`] when nothing has happened; [`StoreError::CannerBusy`] when lifting is taken back
    /// while the next load is in.
    pub fn undo_event(&self, id: i64, now: Moment) -> Result<CannerLoad, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let load = one(&transaction, id)?;
        if load.clock.happened().last().is_some_and(|last| last.event == BoilEvent::Lifted) {
            check_canner_free(&transaction, id)?;
        }
        let changed = transaction.execute(
            "UPDATE load_event SET undone_at = ?2 WHERE id =
             (SELECT max(id) FROM load_event WHERE load_id = ?1 AND undone_at IS NULL)",
            params![id, now.0],
        )?;
        if changed == 0 {
            return Err(StoreError::NothingToUndo);
        }
        let load = one(&transaction, id)?;
        transaction.commit()?;
        Ok(load)
    }
}

fn check_ready(load: &CannerLoad) -> Result<(), StoreError> {
    let unready = load.jars.iter().filter(|jar| !jar.filled).count();
    let no_acid = load.jars.iter().filter(|jar| !jar.acid).count();
    if unready == 0 {
        Ok(())
    } else {
        Err(StoreError::JarsNotReady { unready, no_acid, all: load.jars.len() })
    }
}

fn check_canner_free(connection: &Connection, id: i64) -> Result<(), StoreError> {
    let mut statement = connection.prepare_cached(OPEN)?;
    let open = statement.query_map([], |row| row.get(0))?.collect::<Result<Vec<i64>, _>>()?;
    for other in open.into_iter().filter(|other| *other != id) {
        let other = one(connection, other)?;
        if !other.clock.happened().is_empty() {
            return Err(StoreError::CannerBusy { position: other.position, code: other.batch.code });
        }
    }
    Ok(())
}
