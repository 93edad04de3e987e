//! Canner loads and what happened to them; the clock is derived from the events, never stored.

use bodega_core::canner::beside::{AlsoHow, beside_changed};
use bodega_model::canner::cover::{UnderJars, WaterOver};
use bodega_model::canner::events::{BoilEvent, OutOfOrder};
use bodega_model::measures::ids::{BatchId, CannerId, JarId, LoadId};
use bodega_model::measures::moment::{Moment, Touched};
use bodega_model::records::claims::Claims;
use bodega_model::records::kitchen::Kitchen;
use bodega_model::records::load::{AlsoIn, CannerLoad, CannerReading, JarMoment, NewGroup};
use bodega_model::tables::process::{Method, ProcessOption};
use rusqlite::{Connection, params};

use crate::assignment::{check_canner_free, check_room, put_together, set_out};
use crate::corrections::{ToldBy, corrected};
use crate::jars::make_ready;
use crate::kitchen::read_kitchen;
use crate::pot::settle_pot;
use crate::rows::lifting::lifting;
use crate::rows::load::{OPEN, one};
use crate::rows::{canner, ids, jar, to_json};
use crate::{Store, StoreError};

/// How long a page waits for an answer before it keeps a touch that may have been heard.
const ANSWER_LOST_MS: i64 = 60_000;

fn write_event(
    connection: &Connection,
    load: CannerLoad,
    event: BoilEvent,
    jar: Option<JarId>,
    touched: Touched,
) -> Result<CannerLoad, StoreError> {
    let last = load.clock.last_said();
    if let Some(last) = last.filter(|last| touched.late && last.at > touched.at) {
        // It was heard, and only the answer was lost.
        if last.event == event && last.jar == jar && last.at.since_ms(touched.at) < ANSWER_LOST_MS {
            return Ok(load);
        }
        return Err(StoreError::SaidSince { event: event.says(load.batch.method) });
    }
    let clock = load.clock.after(event, jar, touched.at)?;
    let at = clock.happened().last().map_or(touched.at, |last| last.at);
    connection.execute(
        "INSERT INTO load_event (load_id, event, at, jar_id) VALUES (?1, ?2, ?3, ?4)",
        params![load.id.0, event.word(), at.0, jar.map(|jar| jar.0)],
    )?;
    Ok(CannerLoad { clock, ..load })
}

/// Writes down an event of a whole load; the first of them only of jars that are ready, into a canner that is free.
fn begin(
    connection: &Connection,
    id: LoadId,
    event: BoilEvent,
    touched: Touched,
) -> Result<CannerLoad, StoreError> {
    let load = one(connection, id)?;
    if !load.clock.has_begun() {
        check_ready(&load)?;
        check_room(connection, &load.canner, &load.stands())?;
        check_canner_free(connection, &load)?;
    }
    write_event(connection, load, event, None, touched)
}

fn write_water(connection: &Connection, id: LoadId, water: WaterOver, at: Moment) -> Result<(), StoreError> {
    let sql = "UPDATE canner_load SET water_over = ?2, water_at = ?3 WHERE id = ?1";
    connection.execute(sql, params![id.0, water.word(), at.0])?;
    Ok(())
}

impl Store {
    /// Loads that are still to be lifted, in working order.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn open_loads(&self) -> Result<Vec<CannerLoad>, StoreError> {
        self.caches.open_loads.ask(self.version()?, (), || self.read_open_loads())
    }

    fn read_open_loads(&self) -> Result<Vec<CannerLoad>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection.prepare_cached(OPEN)?;
        let ids = ids(&mut statement, [], LoadId)?;
        self.readable(ids.into_iter().map(|id| one(&connection, id)))
    }

    /// Every load of a batch, lifted ones too.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batch_loads(&self, batch: BatchId) -> Result<Vec<CannerLoad>, StoreError> {
        let connection = self.read()?;
        let mut statement =
            connection.prepare_cached("SELECT id FROM canner_load WHERE batch_id = ?1 ORDER BY position")?;
        let ids = ids(&mut statement, [batch.0], LoadId)?;
        self.readable(ids.into_iter().map(|id| one(&connection, id)))
    }

    /// One load.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn load(&self, id: LoadId) -> Result<CannerLoad, StoreError> {
        self.caches.load.ask(self.version()?, id, || one(&*self.read()?, id))
    }

    /// Records what somebody saw or did at the canner. It is on disk when this returns.
    ///
    /// # Errors
    /// [`StoreError::OutOfOrder`] when it does not follow; [`StoreError::SaidSince`] when it comes late and something else
    /// was said meanwhile; [`StoreError::JarsNotReady`] when jars would go in without acid or unfilled;
    /// [`StoreError::CannerBusy`] while another load is in.
    pub fn add_event(
        &self,
        id: LoadId,
        event: BoilEvent,
        touched: impl Into<Touched>,
    ) -> Result<CannerLoad, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let load = begin(&transaction, id, event, touched.into())?;
        transaction.commit()?;
        Ok(load)
    }

    /// The jars are in, with as much water over their lids as somebody saw: both are written, or neither.
    ///
    /// # Errors
    /// As [`Self::add_event`]; [`StoreError::NoWaterOver`] in steam and under pressure.
    pub fn jars_in(
        &self,
        id: LoadId,
        water: WaterOver,
        touched: impl Into<Touched>,
    ) -> Result<CannerLoad, StoreError> {
        let touched: Touched = touched.into();
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let load = begin(&transaction, id, BoilEvent::JarsIn, touched)?;
        if load.batch.method != Method::BoilingWater {
            return Err(StoreError::NoWaterOver);
        }
        if load.water_over.is_none() || load.water_at.is_none_or(|at| at <= touched.at) {
            write_water(&transaction, id, water, touched.at)?;
        }
        let load = one(&transaction, id)?;
        transaction.commit()?;
        Ok(load)
    }

    /// Says how much water stands over the lids. Once the jars are out of the canner, what was said before stays in sight.
    ///
    /// # Errors
    /// [`StoreError::NoWaterOver`] in steam and under pressure; [`StoreError::NotFound`].
    pub fn set_water(&self, id: LoadId, water: WaterOver, told: &ToldBy) -> Result<CannerLoad, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let load = one(&transaction, id)?;
        if load.batch.method != Method::BoilingWater {
            return Err(StoreError::NoWaterOver);
        }
        if let Some(was) = load.water_over.filter(|_| load.lifted_at().is_some()) {
            for batch in load.batches() {
                let words = ("water over the lids", was.label(), water.label());
                corrected(&transaction, batch, told, words)?;
            }
        }
        write_water(&transaction, id, water, told.at)?;
        let load = one(&transaction, id)?;
        transaction.commit()?;
        Ok(load)
    }

    /// Says what a load's jars stand on.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn set_under_jars(&self, id: LoadId, under: UnderJars) -> Result<CannerLoad, StoreError> {
        let connection = self.lock();
        one(&connection, id)?;
        let sql = "UPDATE canner_load SET under_jars = ?2 WHERE id = ?1";
        connection.execute(sql, params![id.0, under.word()])?;
        one(&connection, id)
    }

    /// Records what happened to one jar in the canner.
    ///
    /// # Errors
    /// [`StoreError::WhichJar`] when the jar is not in the load; [`StoreError::CannerFull`] when one more does not fit;
    /// [`StoreError::OutOfOrder`]; [`StoreError::SaidSince`].
    pub fn add_jar_event(
        &self,
        id: LoadId,
        moment: JarMoment,
        touched: impl Into<Touched>,
    ) -> Result<CannerLoad, StoreError> {
        let touched: Touched = touched.into();
        let now = touched.at;
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let load = one(&transaction, id)?;
        let (event, jar) = match moment {
            JarMoment::Broken(jar) => (BoilEvent::JarBroken, jar),
            JarMoment::Out(jar) => (BoilEvent::JarOut, jar),
            JarMoment::Added(size) => {
                check_room(&transaction, &load.canner, &load.stands_with(&[(size, 1)]))?;
                // Refused before a jar is set out that the clock would not take.
                load.clock.after(BoilEvent::JarAdded, None, now)?;
                let jar = set_out(&transaction, load.batch.id, id, size)?;
                make_ready(&transaction, jar, now)?;
                settle_pot(&transaction, load.batch.id, now)?;
                (BoilEvent::JarAdded, jar)
            }
        };
        let load = CannerLoad { jars: jar::of_load(&transaction, id)?, ..load };
        let gone = load
            .clock
            .happened()
            .iter()
            .any(|item| item.jar == Some(jar) && item.event != BoilEvent::JarAdded);
        if gone || !load.jars.iter().any(|other| other.id == jar) {
            return Err(StoreError::WhichJar);
        }
        let load = write_event(&transaction, load, event, Some(jar), touched)?;
        transaction.commit()?;
        Ok(load)
    }

    /// Writes down what a probe in the canner read.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn add_canner_reading(&self, id: LoadId, reading: &CannerReading) -> Result<CannerLoad, StoreError> {
        let connection = self.lock();
        one(&connection, id)?;
        connection.execute(
            "INSERT INTO canner_reading (load_id, at, temp_c, simulated) VALUES (?1, ?2, ?3, ?4)",
            params![id.0, reading.at.0, reading.temp_c, reading.simulated],
        )?;
        one(&connection, id)
    }

    /// Says how warm the empty jars on the bench are.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn set_jar_warmth(&self, id: LoadId, jars_c: f64) -> Result<CannerLoad, StoreError> {
        let connection = self.lock();
        connection.execute("UPDATE canner_load SET jars_c = ?2 WHERE id = ?1", params![id.0, jars_c])?;
        one(&connection, id)
    }

    /// Says what was seen of a load's jars: its card. Once they are out of the canner, what was said before stays in sight.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn set_claims(&self, id: LoadId, claims: &Claims, told: &ToldBy) -> Result<CannerLoad, StoreError> {
        let text = to_json(claims)?;
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let load = one(&transaction, id)?;
        if let Some(was) = load.claims.filter(|_| load.lifted_at().is_some()) {
            let words = (was.words(&load.jars), claims.words(&load.jars));
            for batch in load.batches() {
                corrected(&transaction, batch, told, ("jars, lids and filling", &words.0, &words.1))?;
            }
        }
        transaction.execute("UPDATE canner_load SET claims = ?2 WHERE id = ?1", params![id.0, text])?;
        let load = one(&transaction, id)?;
        transaction.commit()?;
        Ok(load)
    }

    /// Says what else stands in a load's canner, and gives the load the longest time of all of it. What is lifted out or put in
    /// while the clock counts stops the boil.
    ///
    /// # Errors
    /// [`StoreError::SayHow`] when the clock counts and nobody says how; [`StoreError::CannerFull`] and [`StoreError::NoRoom`]
    /// when it does not fit; [`StoreError::NotFound`].
    pub fn set_also(
        &self,
        id: LoadId,
        also: &[AlsoIn],
        how: Option<AlsoHow>,
        touched: impl Into<Touched>,
    ) -> Result<CannerLoad, StoreError> {
        let text = to_json(also)?;
        let touched: Touched = touched.into();
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let before = one(&transaction, id)?;
        if let Some(event) = beside_changed(&before, also, how, touched.at)? {
            write_event(&transaction, before, event, None, touched)?;
        }
        transaction.execute("UPDATE canner_load SET also = ?2 WHERE id = ?1", params![id.0, text])?;
        let load = one(&transaction, id)?;
        check_room(&transaction, &load.canner, &load.stands())?;
        let altitude = read_kitchen(&transaction)?.altitude();
        // Where nothing can be looked up the time stays; the judge says why.
        let longest = altitude.and_then(|altitude| load.longest_process(altitude).ok().flatten());
        if let Some(longest) = longest {
            let minutes = params![id.0, longest.minutes.0];
            transaction.execute("UPDATE canner_load SET minutes = ?2 WHERE id = ?1", minutes)?;
        }
        let load = one(&transaction, id)?;
        transaction.commit()?;
        Ok(load)
    }

    /// Puts a waiting load into another canner of the same kind.
    ///
    /// # Errors
    /// [`StoreError::LoadBegun`]; [`StoreError::OtherMethod`]; [`StoreError::CannerFull`]; [`StoreError::NotFound`].
    pub fn move_load(&self, id: LoadId, canner: CannerId) -> Result<CannerLoad, StoreError> {
        let connection = self.lock();
        let load = one(&connection, id)?;
        let canner = canner::one(&connection, canner)?;
        if load.clock.has_begun() {
            return Err(StoreError::LoadBegun);
        }
        if canner.method != load.batch.method {
            return Err(StoreError::OtherMethod);
        }
        check_room(&connection, &canner, &load.stands())?;
        connection
            .execute("UPDATE canner_load SET canner_id = ?2 WHERE id = ?1", params![id.0, canner.id.0])?;
        one(&connection, id)
    }

    /// Puts the jars of waiting loads together anew, all or nothing.
    ///
    /// # Errors
    /// [`StoreError::NotTogether`] when a load has begun or the groups are not the same jars; [`StoreError::NotFound`].
    pub fn regroup(&self, loads: &[LoadId], groups: &[NewGroup]) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        put_together(&transaction, loads, groups)?;
        Ok(transaction.commit()?)
    }

    /// Loads lifted since a moment, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn lifted_since(&self, since: Moment) -> Result<Vec<CannerLoad>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection.prepare_cached(concat!(
            "SELECT load_id FROM load_event INDEXED BY load_event_lifted_at CROSS JOIN canner_load
                 ON canner_load.id = load_id JOIN batch ON batch.id = batch_id
                 WHERE removed_at IS NULL AND at >= ?1 AND ",
            lifting!(),
            " ORDER BY at, load_id"
        ))?;
        let ids = ids(&mut statement, [since.0], LoadId)?;
        self.readable(ids.into_iter().map(|id| one(&connection, id)))
    }

    /// The loads that were lifted last, newest first, at most so many.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn last_lifted(&self, most: u32) -> Result<Vec<CannerLoad>, StoreError> {
        self.caches.last_lifted.ask(self.version()?, most, || self.read_last_lifted(most))
    }

    fn read_last_lifted(&self, most: u32) -> Result<Vec<CannerLoad>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection.prepare_cached(concat!(
            "SELECT load_id FROM load_event INDEXED BY load_event_lifted_at WHERE ",
            lifting!(),
            " ORDER BY at DESC, load_id DESC LIMIT ?1"
        ))?;
        let ids = ids(&mut statement, [most], LoadId)?;
        self.readable(ids.into_iter().map(|id| one(&connection, id)))
    }

    /// The loads of one canner that were lifted last, newest first, at most so many.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn last_of_canner(&self, canner: CannerId, most: u32) -> Result<Vec<CannerLoad>, StoreError> {
        self.caches
            .last_of_canner
            .ask(self.version()?, (canner, most), || self.read_last_of_canner(canner, most))
    }

    fn read_last_of_canner(&self, canner: CannerId, most: u32) -> Result<Vec<CannerLoad>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection.prepare_cached(concat!(
            "SELECT id FROM canner_load WHERE canner_id = ?1 AND EXISTS (SELECT 1 FROM load_event
                 WHERE load_id = canner_load.id AND ",
            lifting!(),
            ") ORDER BY id DESC LIMIT ?2"
        ))?;
        let ids = ids(&mut statement, params![canner.0, most], LoadId)?;
        self.readable(ids.into_iter().map(|id| one(&connection, id)))
    }

    /// Gives a load the tested time that `time` finds for it in the kitchen as it is now; what happened so far stays.
    /// Looking up and writing are one change: nobody sees or moves the load between them.
    ///
    /// # Errors
    /// What `time` refuses with; [`StoreError::NotFound`].
    pub fn retime_load<E: From<StoreError>>(
        &self,
        id: LoadId,
        time: impl FnOnce(&CannerLoad, &Kitchen) -> Result<ProcessOption, E>,
        now: Moment,
    ) -> Result<CannerLoad, E> {
        let mut connection = self.lock();
        let transaction = connection.transaction().map_err(StoreError::from)?;
        let load = one(&transaction, id)?;
        let found = time(&load, &read_kitchen(&transaction)?)?;
        if found.psi > load.psi && load.clock.counts_at_pressure() {
            transaction
                .execute(
                    "INSERT INTO load_event (load_id, event, at) VALUES (?1, ?2, ?3)",
                    params![id.0, BoilEvent::PoundsRaised.word(), now.0],
                )
                .map_err(StoreError::from)?;
        }
        transaction
            .execute(
                "UPDATE canner_load SET minutes = ?2, psi = ?3 WHERE id = ?1",
                params![id.0, found.minutes.0, found.psi],
            )
            .map_err(StoreError::from)?;
        let load = one(&transaction, id)?;
        transaction.commit().map_err(StoreError::from)?;
        Ok(load)
    }

    /// Takes the event of a moment back, which must be the last one; the record of it stays. Said twice, it takes back one.
    ///
    /// # Errors
    /// [`StoreError::OutOfOrder`] while nobody said whether the boil held when the machine was off;
    /// [`StoreError::NotTheLast`] when something else was said since; [`StoreError::NothingToUndo`] when nothing happened
    /// then; when lifting is taken back, [`StoreError::CannerBusy`] while the next load is in and
    /// [`StoreError::LidsJudged`] once somebody looked at the lids.
    pub fn undo_event(&self, id: LoadId, at: Moment, now: Moment) -> Result<CannerLoad, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let load = one(&transaction, id)?;
        let last = load.clock.last_said();
        if last.is_none_or(|last| last.at != at) {
            if load.clock.happened().iter().any(|item| item.at == at) {
                return Err(StoreError::NotTheLast);
            }
            let sql = "SELECT EXISTS (SELECT 1 FROM load_event WHERE load_id = ?1 AND at = ?2)";
            let is_back = transaction.query_row(sql, [id.0, at.0], |row| row.get(0))?;
            return if is_back { Ok(load) } else { Err(StoreError::NothingToUndo) };
        }
        if last.is_some_and(|last| last.event == BoilEvent::Unwatched) {
            return Err(OutOfOrder::unwatched().into());
        }
        if last.is_some_and(|last| last.event == BoilEvent::Lifted) {
            check_canner_free(&transaction, &load)?;
            check_untouched_since(&transaction, id)?;
        }
        if last.is_some_and(|last| last.event == BoilEvent::JarsIn) {
            // What was seen over lids that were not in after all was nothing.
            let sql = "UPDATE canner_load SET water_over = NULL, water_at = NULL WHERE id = ?1";
            transaction.execute(sql, [id.0])?;
        }
        let added = last.filter(|last| last.event == BoilEvent::JarAdded).and_then(|last| last.jar);
        transaction.execute(
            "UPDATE load_event SET undone_at = ?2 WHERE id =
             (SELECT max(id) FROM load_event WHERE load_id = ?1 AND undone_at IS NULL AND event <> 'clock_set')",
            params![id.0, now.0],
        )?;
        // Nothing but a note is left of a load that was not in the canner after all.
        transaction.execute(
            "UPDATE load_event SET undone_at = ?2 WHERE load_id = ?1 AND undone_at IS NULL AND NOT EXISTS
             (SELECT 1 FROM load_event WHERE load_id = ?1 AND undone_at IS NULL AND event <> 'clock_set')",
            params![id.0, now.0],
        )?;
        if let Some(jar) = added {
            let batch = jar::one(&transaction, jar)?.batch;
            transaction.execute("DELETE FROM jar WHERE id = ?1", [jar.0])?;
            settle_pot(&transaction, batch, now)?;
        }
        let load = one(&transaction, id)?;
        transaction.commit()?;
        Ok(load)
    }
}

/// Refuses once a lid of a lifted load was judged, or a jar of it went its way: what was found of jars that cooled says
/// nothing of jars that go on boiling.
fn check_untouched_since(connection: &Connection, load: LoadId) -> Result<(), StoreError> {
    let sql = "SELECT EXISTS (SELECT 1 FROM jar WHERE load_id = ?1
        AND (seal IS NOT NULL OR rescue IS NOT NULL OR gone_at IS NOT NULL))";
    if connection.query_row(sql, [load.0], |row| row.get(0))? { Err(StoreError::LidsJudged) } else { Ok(()) }
}

fn check_ready(load: &CannerLoad) -> Result<(), StoreError> {
    let unready = load.jars.iter().filter(|jar| !jar.lid).count();
    let no_acid = load.jars.iter().filter(|jar| !jar.acid && !jar.brings_its_acid()).count();
    if unready == 0 {
        Ok(())
    } else {
        Err(StoreError::JarsNotReady { unready, no_acid, all: load.jars.len() })
    }
}
