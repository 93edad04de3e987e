//! The towel: which jars cool, which lids hold, and what is done about one that failed.

use bodega_core::towel::seal::{Cooling, fridge_days, fridge_until, is_provisional, window};
use bodega_model::judge::standing::Mending;
use bodega_model::measures::ids::{BatchId, JarId, LoadId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::towel::{Rescued, Towel, TowelJar};
use bodega_model::towel::seal::{LidVerdict, Rescue};
use rusqlite::{Connection, OptionalExtension, Row, params};

use crate::rows::jar::read_verdict;
use crate::rows::lifting::lifting;
use crate::rows::{found, load, moment, optional_word, word};
use crate::{AtHome, Store, StoreError, assignment, at_home};

/// Jars out of the canner, with when they were lifted.
pub(crate) const LIFTED: &str = concat!(
    "FROM jar
    JOIN batch ON batch.id = jar.batch_id
    JOIN load_event ON load_event.load_id = jar.load_id AND ",
    lifting!(),
    "
    WHERE batch.removed_at IS NULL AND NOT EXISTS (
        SELECT 1 FROM load_event AS broke
        WHERE broke.jar_id = jar.id AND broke.event = 'jar_broken' AND broke.undone_at IS NULL)"
);

impl Store {
    /// Loads on the towel, oldest first; a load leaves when every jar of it is settled.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn towel(&self) -> Result<Vec<Towel>, StoreError> {
        let at_home = self.standings()?;
        self.caches.towel.ask(self.version()?, at_home.version, || self.read_towel(&at_home))
    }

    fn read_towel(&self, at_home: &AtHome) -> Result<Vec<Towel>, StoreError> {
        let connection = self.read()?;
        let sql = format!(
            "SELECT jar.*, code, name, product, load_event.at {LIFTED}
             AND gone_at IS NULL AND jar.load_id IN (
                 SELECT load_id FROM jar WHERE gone_at IS NULL AND rescue IS NULL
                 AND (seal IS NULL OR (seal = 'failed' AND seal_detail IS NOT 'broken') OR tidy_at IS NULL
                     OR undosed_at IS NOT NULL)
                 UNION SELECT value FROM json_each(?1))
             ORDER BY load_event.at, jar.load_id, batch.id, number"
        );
        let mut statement = connection.prepare_cached(&sql)?;
        let rows = statement.query_map([at_home.stopped_loads_json()], |row| {
            Ok((read_towel(row)?, read_towel_jar(row, at_home)?))
        })?;
        let mut towels: Vec<Towel> = Vec::new();
        for (towel, jar) in self.readable(rows)? {
            match towels.last_mut().filter(|last| last.load_id == towel.load_id) {
                Some(last) => last.jars.push(jar),
                None => towels.push(Towel { jars: vec![jar], ..towel }),
            }
        }
        towels.retain(|towel| towel.jars.iter().any(TowelJar::is_open));
        Ok(towels)
    }

    /// Records what was found at some lids, or takes it back with `None`; all of them or none.
    ///
    /// # Errors
    /// [`StoreError::NotOnTowel`] while one of them is not out of the canner or no longer there;
    /// [`StoreError::NotProcessed`] when a lid is said to hold on a jar whose boil was too short,
    /// [`StoreError::NotDosed`] when on one without its acid, [`StoreError::Stopped`] when on one that anything else stands
    /// against;
    /// [`StoreError::NotFound`].
    pub fn judge_seals(
        &self,
        jars: &[JarId],
        verdict: Option<LidVerdict>,
        now: Moment,
    ) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let (seal, detail) = match verdict {
            None => (None, None),
            Some(LidVerdict::Holds) => (Some("holds"), None),
            Some(LidVerdict::Failed) => (Some("failed"), None),
            Some(LidVerdict::Broken) => (Some("failed"), Some("broken")),
            Some(LidVerdict::Doubtful) => (Some("failed"), Some("doubtful")),
        };
        for jar in jars {
            let (number, load, lifted_at) = lifted(&transaction, *jar)?;
            if verdict == Some(LidVerdict::Holds) && !load::one(&transaction, load)?.is_processed(*jar, now) {
                return Err(StoreError::NotProcessed { number });
            }
            if verdict == Some(LidVerdict::Holds) && is_undosed(&transaction, *jar)? {
                return Err(StoreError::NotDosed { number });
            }
            if verdict == Some(LidVerdict::Holds)
                && let Some(says) = at_home::of_jar(&transaction, *jar, load)?.brief()
            {
                return Err(StoreError::Stopped { number, says });
            }
            let provisional = verdict.is_some_and(|verdict| is_provisional(verdict, lifted_at, now));
            transaction.execute(
                "UPDATE jar SET seal = ?2, seal_detail = ?3, seal_at = ?4, provisional = ?5, tidy_at = NULL,
                 rescue = NULL, rescue_at = NULL WHERE id = ?1",
                params![jar.0, seal, detail, seal.map(|_| now.0), provisional],
            )?;
        }
        Ok(transaction.commit()?)
    }

    /// Rings off, washed and dry, for all of the jars or none; or takes it back.
    ///
    /// # Errors
    /// [`StoreError::SecondLook`] while a lid was only judged too early; [`StoreError::NotOnTowel`]; [`StoreError::NotFound`].
    pub fn tidy(&self, jars: &[JarId], done: bool, now: Moment) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        for jar in jars {
            let (number, ..) = lifted(&transaction, *jar)?;
            let sql = "SELECT provisional FROM jar WHERE id = ?1";
            if done && transaction.query_row(sql, [jar.0], |row| row.get(0))? {
                return Err(StoreError::SecondLook { number });
            }
            transaction.execute(
                "UPDATE jar SET tidy_at = ?2 WHERE id = ?1",
                params![jar.0, done.then_some(now.0)],
            )?;
        }
        Ok(transaction.commit()?)
    }

    /// Decides about jars that are not processed or whose lids failed, or takes that back; all of them or none. To be
    /// processed again they go to the bench in a load with new lids to come, or, as long as they are hot, into a load of
    /// their own that can go in at once; the load they were in stays in their history.
    ///
    /// # Errors
    /// [`StoreError::NoRescue`] when nothing is wrong with one, or after more than a day; [`StoreError::NotFound`].
    pub fn rescue(
        &self,
        jars: &[JarId],
        rescue: Option<Rescue>,
        kept_cold: Option<bool>,
        now: Moment,
    ) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let mut hot: Option<LoadId> = None;
        for jar in jars {
            let chilled_at = chilled_at(&transaction, *jar)?;
            take_rescue_back(&transaction, *jar)?;
            let (number, load, lifted_at) = lifted(&transaction, *jar)?;
            let Some(rescue) = rescue else { continue };
            let (verdict, size) =
                transaction.query_row("SELECT * FROM jar WHERE id = ?1", [jar.0], |row| {
                    Ok((read_verdict(row)?, word(row, "size")?))
                })?;
            let was_in = load::one(&transaction, load)?;
            let standing = at_home::of_jar(&transaction, *jar, load)?;
            let cooling = Cooling {
                verdict,
                processed: was_in.is_processed(*jar, now),
                dosed: !is_undosed(&transaction, *jar)?,
                mending: Mending::Nothing,
                lifted_at,
                chilled_at,
            }
            .with(&standing);
            cooling.may(rescue, kept_cold, now).map_err(|reason| StoreError::NoRescue { number, reason })?;
            if rescue != Rescue::Reprocess {
                transaction.execute(
                    "UPDATE jar SET rescue = ?2, rescue_at = ?3 WHERE id = ?1",
                    params![jar.0, rescue.word(), now.0],
                )?;
            } else if cooling.keeps_its_lid(now) {
                let again = match hot {
                    Some(again) => again,
                    None => {
                        let (minutes, psi) = (was_in.clock.required(), was_in.psi);
                        assignment::append(&transaction, was_in.canner.id, was_in.batch.id, minutes, psi)?
                    }
                };
                hot = Some(again);
                move_on(&transaction, *jar, again, true)?;
            } else {
                let again = assignment::with_room(&transaction, load, size)?;
                move_on(&transaction, *jar, again, false)?;
            }
        }
        Ok(transaction.commit()?)
    }

    /// Jars that did not seal and are kept cold, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn rescued(&self) -> Result<Vec<Rescued>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection.prepare_cached(
            "SELECT jar.*, code, product FROM jar JOIN batch ON batch.id = batch_id
             WHERE rescue IS NOT NULL AND gone_at IS NULL AND removed_at IS NULL ORDER BY rescue_at, jar.id",
        )?;
        let rows = statement.query_map([], |row| {
            let (rescue, since) = (word(row, "rescue")?, Moment(row.get("rescue_at")?));
            let days = fridge_days(optional_word(row, "liquid_lost")?);
            Ok(Rescued {
                id: JarId(row.get("id")?),
                code: row.get("code")?,
                number: row.get("number")?,
                product: word(row, "product")?,
                rescue,
                since,
                load: LoadId(row.get("load_id")?),
                verdict: read_verdict(row)?,
                dosed: row.get::<_, Option<i64>>("undosed_at")?.is_none(),
                until: (rescue == Rescue::Refrigerator).then(|| fridge_until(since, days)),
            })
        })?;
        self.readable(rows)
    }
}

/// Number and load of a jar that is out of the canner, and when it was lifted.
pub(crate) fn lifted(connection: &Connection, jar: JarId) -> Result<(u32, LoadId, Moment), StoreError> {
    let (number, load): (u32, LoadId) = found(
        connection.query_row("SELECT number, load_id FROM jar WHERE id = ?1", [jar.0], |row| {
            Ok((row.get(0)?, LoadId(row.get(1)?)))
        }),
        "jar",
        jar.0,
    )?;
    let sql = format!("SELECT load_event.at {LIFTED} AND jar.id = ?1");
    let at = connection.query_row(&sql, [jar.0], |row| row.get(0)).optional()?;
    Ok((number, load, Moment(at.ok_or(StoreError::NotOnTowel { number })?)))
}

/// When a jar was put into the refrigerator.
fn chilled_at(connection: &Connection, jar: JarId) -> Result<Option<Moment>, StoreError> {
    let sql = "SELECT rescue_at FROM jar WHERE id = ?1 AND rescue = 'refrigerator'";
    let at: Option<i64> = connection.query_row(sql, [jar.0], |row| row.get(0)).optional()?;
    Ok(at.map(Moment))
}

/// Whether a jar was found to be without its dose.
fn is_undosed(connection: &Connection, jar: JarId) -> Result<bool, StoreError> {
    let sql = "SELECT undosed_at IS NOT NULL FROM jar WHERE id = ?1";
    Ok(connection.query_row(sql, [jar.0], |row| row.get(0))?)
}

/// Takes a jar on to the load that it is processed again in. One that goes back for its dose comes to the bench without it.
fn move_on(connection: &Connection, jar: JarId, load: LoadId, keeps_its_lid: bool) -> Result<(), StoreError> {
    connection.execute(
        "INSERT INTO jar_past (jar_id, load_id, judged_at, seal_detail, undosed_at, liquid_lost, liquid_lost_at)
         SELECT id, load_id, seal_at, seal_detail, undosed_at, liquid_lost, liquid_lost_at FROM jar WHERE id = ?1",
        [jar.0],
    )?;
    connection.execute(
        "UPDATE jar SET load_id = ?2, seal = NULL, seal_detail = NULL, seal_at = NULL, provisional = 0, tidy_at = NULL,
         liquid_lost = NULL, liquid_lost_at = NULL,
         acid_at = iif(undosed_at IS NULL, acid_at, NULL), acid_from_pot = iif(undosed_at IS NULL, acid_from_pot, 0),
         bubbles_at = iif(undosed_at IS NULL, bubbles_at, NULL), undosed_at = NULL,
         rim_at = CASE WHEN ?3 THEN rim_at END, lid_at = CASE WHEN ?3 THEN lid_at END WHERE id = ?1",
        params![jar.0, load.0, keeps_its_lid],
    )?;
    assignment::look_again(connection, load)
}

/// Brings a jar back from the cold or from the load it was to be processed in again.
fn take_rescue_back(connection: &Connection, jar: JarId) -> Result<(), StoreError> {
    connection.execute("UPDATE jar SET rescue = NULL, rescue_at = NULL WHERE id = ?1", [jar.0])?;
    let past: Option<(i64, LoadId)> = connection
        .query_row(
            "SELECT jar_past.id, jar.load_id FROM jar_past JOIN jar ON jar.id = jar_id
             WHERE jar_id = ?1 ORDER BY jar_past.id DESC LIMIT 1",
            [jar.0],
            |row| Ok((row.get(0)?, LoadId(row.get(1)?))),
        )
        .optional()?;
    let Some((past, load)) = past else { return Ok(()) };
    if load::one(connection, load)?.clock.has_begun() {
        // A jar that has been through its new load stays with it.
        return Ok(());
    }
    connection.execute(
        "UPDATE jar SET load_id = past.load_id, seal = iif(past.judged_at IS NULL, NULL, 'failed'),
         seal_detail = past.seal_detail, seal_at = past.judged_at, undosed_at = past.undosed_at,
         liquid_lost = past.liquid_lost, liquid_lost_at = past.liquid_lost_at,
         acid_at = coalesce(acid_at, filled_at), bubbles_at = filled_at, rim_at = filled_at, lid_at = filled_at
         FROM jar_past AS past WHERE jar.id = ?1 AND past.id = ?2",
        params![jar.0, past],
    )?;
    connection.execute("DELETE FROM jar_past WHERE id = ?1", [past])?;
    assignment::remove_empty(connection, load)
}

/// The towel that a jar lies on, its jars aside.
fn read_towel(row: &Row<'_>) -> rusqlite::Result<Towel> {
    let lifted_at = Moment(row.get("at")?);
    let (check_from, check_by) = window(lifted_at);
    Ok(Towel {
        load_id: LoadId(row.get("load_id")?),
        code: row.get("code")?,
        product: word(row, "product")?,
        lifted_at,
        check_from,
        check_by,
        jars: Vec::new(),
    })
}

fn read_towel_jar(row: &Row<'_>, at_home: &AtHome) -> rusqlite::Result<TowelJar> {
    let id = JarId(row.get("id")?);
    Ok(TowelJar {
        id,
        standing: at_home.of(id),
        batch: BatchId(row.get("batch_id")?),
        code: row.get("code")?,
        product: word(row, "product")?,
        named: row.get("name")?,
        number: row.get("number")?,
        size: word(row, "size")?,
        liquid_lost: optional_word(row, "liquid_lost")?,
        verdict: read_verdict(row)?,
        second_look: second_look(row)?,
        judged_at: moment(row, "seal_at")?,
        rescue: optional_word(row, "rescue")?,
        rescued_at: moment(row, "rescue_at")?,
        tidy: row.get::<_, Option<i64>>("tidy_at")?.is_some(),
        dosed: row.get::<_, Option<i64>>("undosed_at")?.is_none(),
    })
}

/// From when a lid that was judged too early is looked at again.
fn second_look(row: &Row<'_>) -> rusqlite::Result<Option<Moment>> {
    let provisional: bool = row.get("provisional")?;
    Ok(provisional.then_some(window(Moment(row.get("at")?)).0))
}
