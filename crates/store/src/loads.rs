//! Canner loads and what happened to them; the clock is derived from the events, never stored.

use bodega_core::altitude::Altitude;
use bodega_core::boil_clock::{BoilClock, BoilEvent, Fate, Happened};
use bodega_core::jar::JarSize;
use bodega_core::moment::{Minutes, Moment};
use bodega_core::process::{ProcessOption, Query, Refusal, look_up};
use rusqlite::{Connection, params};
use serde::Serialize;

use crate::rows::{unsigned, word};
use crate::{Batch, Canner, Jar, Store, StoreError, batches, canners, count_sizes, jars};

/// A load with its jars, its batch and its clock.
#[derive(Debug, Clone, PartialEq)]
pub struct CannerLoad {
    /// Number of the record.
    pub id: i64,
    /// Place among the loads of its batch, from 1.
    pub position: u32,
    /// Loads of its batch.
    pub of: u32,
    /// The batch it is counted with; the first of them when it holds jars of several.
    pub batch: Batch,
    /// The canner it goes into.
    pub canner: Canner,
    /// How warm the empty jars are, in degrees Celsius, as somebody judged.
    pub jars_c: Option<f64>,
    /// What a probe in the canner read, oldest first.
    pub readings: Vec<CannerReading>,
    /// Pressure, if it is a pressure process.
    pub psi: Option<u32>,
    /// Its jars.
    pub jars: Vec<Jar>,
    /// Its clock.
    pub clock: BoilClock,
}

/// What a probe in the canner read.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CannerReading {
    /// When.
    pub at: Moment,
    /// Degrees Celsius.
    pub temp_c: f64,
    /// From a simulated probe.
    pub simulated: bool,
}

/// Readings that a load carries with it: the latest, enough to see whether a boil holds.
const LATEST_READINGS: u32 = 40;

/// A load that others are put together into.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct NewGroup {
    /// The batch it is counted with.
    pub batch: i64,
    /// Minutes of the jar that needs longest.
    pub minutes: Minutes,
    /// Its pressure, if any.
    pub psi: Option<u32>,
    /// Its jars.
    pub jars: Vec<i64>,
}

impl CannerLoad {
    /// The tested process of one of its jars by itself.
    ///
    /// # Errors
    /// [`Refusal`] when there is none.
    pub fn own_process(&self, jar: &Jar, altitude: Altitude) -> Result<ProcessOption, Refusal> {
        let query = Query {
            product: jar.product,
            medium: jar.medium,
            pack: jar.pack,
            method: self.batch.method,
            jar: jar.size,
            altitude,
        };
        Ok(look_up(&query)?.options[0])
    }

    /// What became of one of its jars in the canner.
    #[must_use]
    pub fn fate(&self, jar: &Jar) -> Fate {
        let altitude = Altitude::from_feet(self.batch.altitude_ft).ok();
        let own = altitude.and_then(|altitude| self.own_process(jar, altitude).ok());
        self.clock.fate(jar.id, own.map_or(self.clock.required(), |own| own.minutes))
    }
}

/// Loads of batches on the line that are not lifted yet.
macro_rules! open_loads {
    () => {
        "canner_load JOIN batch ON batch.id = batch_id WHERE removed_at IS NULL AND NOT EXISTS (
            SELECT 1 FROM load_event WHERE load_id = canner_load.id AND event = 'lifted' AND undone_at IS NULL)"
    };
}

/// Those loads in working order.
const OPEN: &str = concat!("SELECT canner_load.id FROM ", open_loads!(), " ORDER BY batch_id, position");

/// Whether a canner has any of them.
pub(crate) fn are_open_for(connection: &Connection, canner: i64) -> Result<bool, StoreError> {
    let sql = concat!("SELECT EXISTS (SELECT 1 FROM ", open_loads!(), " AND canner_id = ?1)");
    Ok(connection.query_row(sql, [canner], |row| row.get(0))?)
}

pub(crate) fn one(connection: &Connection, id: i64) -> Result<CannerLoad, StoreError> {
    let sql = "SELECT batch_id, position, minutes, psi, canner_id, jars_c,
        (SELECT count(*) FROM canner_load AS sister WHERE sister.batch_id = canner_load.batch_id) AS of
        FROM canner_load WHERE id = ?1";
    let mut statement = connection.prepare_cached(sql)?;
    let mut rows = statement.query([id])?;
    let row = rows.next()?.ok_or(StoreError::NotFound { what: "load", id })?;
    let batch = batches::one(connection, row.get("batch_id")?)?;
    let required = Minutes(unsigned(row.get("minutes")?, "a load's minutes")?);
    Ok(CannerLoad {
        id,
        position: unsigned(row.get("position")?, "a load's position")?,
        of: unsigned(row.get("of")?, "a batch's loads")?,
        canner: canners::one(connection, row.get("canner_id")?)?,
        jars_c: row.get("jars_c")?,
        readings: readings(connection, id)?,
        psi: row.get::<_, Option<i64>>("psi")?.map(|psi| unsigned(psi, "a load's pressure")).transpose()?,
        jars: jars::of_load(connection, id)?,
        clock: BoilClock::replay(batch.method, required, &happened(connection, id)?)?,
        batch,
    })
}

fn happened(connection: &Connection, load: i64) -> Result<Vec<Happened>, StoreError> {
    let mut statement = connection.prepare_cached(
        "SELECT event, at, jar_id FROM load_event WHERE load_id = ?1 AND undone_at IS NULL ORDER BY id",
    )?;
    let rows = statement.query_map([load], |row| {
        Ok(Happened { event: word(row, "event")?, at: Moment(row.get("at")?), jar: row.get("jar_id")? })
    })?;
    Ok(rows.collect::<Result<_, _>>()?)
}

fn readings(connection: &Connection, load: i64) -> Result<Vec<CannerReading>, StoreError> {
    let mut statement = connection.prepare_cached(
        "SELECT at, temp_c, simulated FROM canner_reading WHERE load_id = ?1 ORDER BY id DESC LIMIT ?2",
    )?;
    let rows = statement.query_map(params![load, LATEST_READINGS], |row| {
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

/// What happened to one jar in the canner.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum JarMoment {
    /// It broke.
    Broken(i64),
    /// It was lifted early.
    Out(i64),
    /// One of this size was put in late, with its acid.
    Added(JarSize),
}

fn write_event(
    connection: &Connection,
    load: CannerLoad,
    event: BoilEvent,
    jar: Option<i64>,
    now: Moment,
) -> Result<CannerLoad, StoreError> {
    let clock = load.clock.after(event, jar, now)?;
    let at = clock.happened().last().map_or(now, |last| last.at);
    connection.execute(
        "INSERT INTO load_event (load_id, event, at, jar_id) VALUES (?1, ?2, ?3, ?4)",
        params![load.id, event.word(), at.0, jar],
    )?;
    Ok(CannerLoad { clock, ..load })
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
        if !load.clock.has_begun() {
            check_ready(&load)?;
            check_canner_free(&transaction, &load)?;
        }
        let load = write_event(&transaction, load, event, None, now)?;
        transaction.commit()?;
        Ok(load)
    }

    /// Records what happened to one jar in the canner.
    ///
    /// # Errors
    /// [`StoreError::WhichJar`] when the jar is not in the load; [`StoreError::CannerFull`] when one more does not fit;
    /// [`StoreError::OutOfOrder`].
    pub fn add_jar_event(&self, id: i64, moment: JarMoment, now: Moment) -> Result<CannerLoad, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let load = one(&transaction, id)?;
        let (event, jar) = match moment {
            JarMoment::Broken(jar) => (BoilEvent::JarBroken, jar),
            JarMoment::Out(jar) => (BoilEvent::JarOut, jar),
            JarMoment::Added(size) => {
                let mut sizes = count_sizes(&load.jars);
                sizes.push((size, 1));
                jars::check_capacity(&load.canner, &sizes)?;
                // Refused before a jar is set out that the clock would not take.
                load.clock.after(BoilEvent::JarAdded, None, now)?;
                let jar = jars::set_out(&transaction, load.batch.id, id, size)?;
                jars::make_ready(&transaction, jar, now)?;
                (BoilEvent::JarAdded, jar)
            }
        };
        let load = CannerLoad { jars: jars::of_load(&transaction, id)?, ..load };
        let gone = load
            .clock
            .happened()
            .iter()
            .any(|item| item.jar == Some(jar) && item.event != BoilEvent::JarAdded);
        if gone || !load.jars.iter().any(|other| other.id == jar) {
            return Err(StoreError::WhichJar);
        }
        let load = write_event(&transaction, load, event, Some(jar), now)?;
        transaction.commit()?;
        Ok(load)
    }

    /// Writes down what a probe in the canner read.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn add_canner_reading(&self, id: i64, reading: &CannerReading) -> Result<CannerLoad, StoreError> {
        let connection = self.lock();
        one(&connection, id)?;
        connection.execute(
            "INSERT INTO canner_reading (load_id, at, temp_c, simulated) VALUES (?1, ?2, ?3, ?4)",
            params![id, reading.at.0, reading.temp_c, reading.simulated],
        )?;
        one(&connection, id)
    }

    /// Says how warm the empty jars on the bench are.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn set_jar_warmth(&self, id: i64, jars_c: f64) -> Result<CannerLoad, StoreError> {
        let connection = self.lock();
        connection.execute("UPDATE canner_load SET jars_c = ?2 WHERE id = ?1", params![id, jars_c])?;
        one(&connection, id)
    }

    /// Puts a waiting load into another canner of the same kind.
    ///
    /// # Errors
    /// [`StoreError::LoadBegun`]; [`StoreError::OtherMethod`]; [`StoreError::CannerFull`]; [`StoreError::NotFound`].
    pub fn move_load(&self, id: i64, canner: i64) -> Result<CannerLoad, StoreError> {
        let connection = self.lock();
        let load = one(&connection, id)?;
        let canner = canners::one(&connection, canner)?;
        if load.clock.has_begun() {
            return Err(StoreError::LoadBegun);
        }
        if canner.method != load.batch.method {
            return Err(StoreError::OtherMethod);
        }
        jars::check_capacity(&canner, &count_sizes(&load.jars))?;
        connection.execute("UPDATE canner_load SET canner_id = ?2 WHERE id = ?1", params![id, canner.id])?;
        one(&connection, id)
    }

    /// Puts the jars of waiting loads together anew, all or nothing.
    ///
    /// # Errors
    /// [`StoreError::NotTogether`] when a load has begun or the groups are not the same jars; [`StoreError::NotFound`].
    pub fn regroup(&self, loads: &[i64], groups: &[NewGroup]) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let before = loads.iter().map(|id| one(&transaction, *id)).collect::<Result<Vec<_>, _>>()?;
        let Some(canner) = before.first().map(|load| load.canner.id) else { return Ok(()) };
        let ids = |mut ids: Vec<i64>| {
            ids.sort_unstable();
            ids
        };
        let had = ids(before.iter().flat_map(|load| load.jars.iter().map(|jar| jar.id)).collect());
        let have = ids(groups.iter().flat_map(|group| group.jars.iter().copied()).collect());
        if had != have || before.iter().any(|load| load.clock.has_begun()) {
            return Err(StoreError::NotTogether);
        }
        for group in groups {
            let load = append(&transaction, canner, group.batch, group.minutes, group.psi)?;
            for jar in &group.jars {
                transaction.execute("UPDATE jar SET load_id = ?2 WHERE id = ?1", [*jar, load])?;
            }
        }
        for load in &before {
            transaction.execute("DELETE FROM canner_load WHERE id = ?1", [load.id])?;
        }
        renumber(&transaction)?;
        Ok(transaction.commit()?)
    }

    /// Loads lifted since a moment, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn lifted_since(&self, since: Moment) -> Result<Vec<CannerLoad>, StoreError> {
        let connection = self.lock();
        let mut statement = connection.prepare_cached(
            "SELECT load_id FROM load_event JOIN canner_load ON canner_load.id = load_id
             JOIN batch ON batch.id = batch_id
             WHERE removed_at IS NULL AND event = 'lifted' AND undone_at IS NULL AND at >= ?1 ORDER BY at, load_id",
        )?;
        let ids = statement.query_map([since.0], |row| row.get(0))?.collect::<Result<Vec<i64>, _>>()?;
        ids.into_iter().map(|id| one(&connection, id)).collect()
    }

    /// The loads that were lifted last, newest first, at most so many.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn last_lifted(&self, most: u32) -> Result<Vec<CannerLoad>, StoreError> {
        let connection = self.lock();
        let mut statement = connection.prepare_cached(
            "SELECT load_id FROM load_event WHERE event = 'lifted' AND undone_at IS NULL
             ORDER BY at DESC, load_id DESC LIMIT ?1",
        )?;
        let ids = statement.query_map([most], |row| row.get(0))?.collect::<Result<Vec<i64>, _>>()?;
        ids.into_iter().map(|id| one(&connection, id)).collect()
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
        let last = load.clock.happened().last();
        if last.is_some_and(|last| last.event == BoilEvent::Lifted) {
            check_canner_free(&transaction, &load)?;
        }
        let added = last.filter(|last| last.event == BoilEvent::JarAdded).and_then(|last| last.jar);
        let changed = transaction.execute(
            "UPDATE load_event SET undone_at = ?2 WHERE id =
             (SELECT max(id) FROM load_event WHERE load_id = ?1 AND undone_at IS NULL)",
            params![id, now.0],
        )?;
        if changed == 0 {
            return Err(StoreError::NothingToUndo);
        }
        if let Some(jar) = added {
            transaction.execute("DELETE FROM jar WHERE id = ?1", [jar])?;
        }
        let load = one(&transaction, id)?;
        transaction.commit()?;
        Ok(load)
    }
}

fn check_ready(load: &CannerLoad) -> Result<(), StoreError> {
    let unready = load.jars.iter().filter(|jar| !jar.lid).count();
    let no_acid = load.jars.iter().filter(|jar| !jar.acid).count();
    if unready == 0 {
        Ok(())
    } else {
        Err(StoreError::JarsNotReady { unready, no_acid, all: load.jars.len() })
    }
}

fn check_canner_free(connection: &Connection, load: &CannerLoad) -> Result<(), StoreError> {
    let mut statement = connection.prepare_cached(OPEN)?;
    let open = statement.query_map([], |row| row.get(0))?.collect::<Result<Vec<i64>, _>>()?;
    for other in open.into_iter().filter(|other| *other != load.id) {
        let other = one(connection, other)?;
        if other.canner.id == load.canner.id && other.clock.has_begun() {
            return Err(StoreError::CannerBusy { position: other.position, code: other.batch.code });
        }
    }
    Ok(())
}

/// Adds a load behind a batch's others; returns its number of the record.
fn append(
    connection: &Connection,
    canner: i64,
    batch: i64,
    minutes: Minutes,
    psi: Option<u32>,
) -> Result<i64, StoreError> {
    connection.execute(
        "INSERT INTO canner_load (canner_id, batch_id, position, minutes, psi)
         SELECT ?1, ?2, coalesce(max(position), 0) + 1, ?3, ?4 FROM canner_load WHERE batch_id = ?2",
        params![canner, batch, minutes.0, psi],
    )?;
    Ok(connection.last_insert_rowid())
}

/// The load that takes one more jar: this one, the next waiting one of its batch and canner with room, or a new one.
pub(crate) fn with_room(connection: &Connection, load: i64, size: JarSize) -> Result<i64, StoreError> {
    let wanted = one(connection, load)?;
    let mut statement = connection
        .prepare_cached("SELECT id FROM canner_load WHERE batch_id = ?1 ORDER BY id <> ?2, position")?;
    let sisters =
        statement.query_map([wanted.batch.id, load], |row| row.get(0))?.collect::<Result<Vec<i64>, _>>()?;
    for id in sisters {
        let sister = one(connection, id)?;
        let mut sizes = count_sizes(&sister.jars);
        sizes.push((size, 1));
        let is_waiting = !sister.clock.has_begun() && sister.canner.id == wanted.canner.id;
        if is_waiting && jars::check_capacity(&sister.canner, &sizes).is_ok() {
            return Ok(id);
        }
    }
    append(connection, wanted.canner.id, wanted.batch.id, wanted.clock.required(), wanted.psi)
}

/// Takes a waiting load away that holds no jar and never held one.
pub(crate) fn remove_empty(connection: &Connection, load: i64) -> Result<(), StoreError> {
    connection.execute(
        "DELETE FROM canner_load WHERE id = ?1 AND NOT EXISTS (SELECT 1 FROM jar WHERE load_id = ?1)
         AND NOT EXISTS (SELECT 1 FROM jar_past WHERE load_id = ?1)
         AND NOT EXISTS (SELECT 1 FROM load_event WHERE load_id = ?1)",
        [load],
    )?;
    Ok(())
}

/// Counts the loads of every batch from 1 again.
fn renumber(connection: &Connection) -> Result<(), StoreError> {
    // By way of far places, because two loads of a batch never share one.
    connection.execute_batch(
        "UPDATE canner_load SET position = position + 1000000;
         UPDATE canner_load SET position = (
             SELECT count(*) FROM canner_load AS other
             WHERE other.batch_id = canner_load.batch_id AND other.id <= canner_load.id);",
    )?;
    Ok(())
}

/// Hands loads that hold other batches' jars over to one of those, when their own batch leaves the line.
pub(crate) fn hand_over(connection: &Connection, batch: i64) -> Result<(), StoreError> {
    connection.execute(
        "UPDATE canner_load SET
             batch_id = (SELECT min(jar.batch_id) FROM jar JOIN batch ON batch.id = jar.batch_id
                 WHERE load_id = canner_load.id AND removed_at IS NULL AND jar.batch_id <> ?1),
             position = position + 1000000
         WHERE batch_id = ?1 AND EXISTS (SELECT 1 FROM jar JOIN batch ON batch.id = jar.batch_id
             WHERE load_id = canner_load.id AND removed_at IS NULL AND jar.batch_id <> ?1)",
        [batch],
    )?;
    renumber(connection)
}
