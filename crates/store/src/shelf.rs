//! The towel and the shelf: which jars cool, which lids hold, what stands where since when.

use bodega_core::acid::Agent;
use bodega_core::boil_clock::Fate;
use bodega_core::jar::JarSize;
use bodega_core::moment::Moment;
use bodega_core::pantry::{Discard, Leaving};
use bodega_core::process::{Medium, Pack, Product};
use bodega_core::seal::{LidVerdict, Rescue, fridge_until, may_reprocess, window};
use bodega_core::yields::Thickness;
use rusqlite::{Connection, OptionalExtension, Row, params};
use serde::Serialize;

use crate::rows::{found, moment, optional_word, word};
use crate::{CannerLoad, Store, StoreError, loads};

/// A load that cools on the towel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Towel {
    /// The load.
    pub load_id: i64,
    /// Batch code.
    pub code: String,
    /// What is in the jars.
    pub product: Product,
    /// When the jars were lifted.
    pub lifted_at: Moment,
    /// The seals may be checked from here on.
    pub check_from: Moment,
    /// The seals should be checked by then; after it a failed jar is no longer reprocessed.
    pub check_by: Moment,
    /// Jars whose lids were not judged yet, or failed.
    pub jars: Vec<TowelJar>,
}

/// One jar on the towel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TowelJar {
    /// Number of the record.
    pub id: i64,
    /// Its batch.
    pub batch: i64,
    /// Code of its batch.
    pub code: String,
    /// Number in its batch.
    pub number: u32,
    /// Size.
    pub size: JarSize,
    /// What was found at its lid; `null` while nobody has looked.
    pub verdict: Option<LidVerdict>,
    /// When it was judged.
    pub judged_at: Option<Moment>,
    /// What was decided when it failed.
    pub rescue: Option<Rescue>,
    /// Ring off, washed and dry.
    pub tidy: bool,
}

impl TowelJar {
    /// Whether somebody still has to do something about it.
    #[must_use]
    pub fn is_open(&self) -> bool {
        match self.verdict {
            None => true,
            Some(LidVerdict::Holds) => !self.tidy,
            // Broken glass is thrown away with its food; nothing is left to decide.
            Some(LidVerdict::Broken) => false,
            Some(LidVerdict::Failed | LidVerdict::Doubtful) => self.rescue.is_none(),
        }
    }
}

/// A jar that did not seal and is kept cold.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Rescued {
    /// Number of the record.
    pub id: i64,
    /// Code of its batch.
    pub code: String,
    /// Number in its batch.
    pub number: u32,
    /// What is in it.
    pub product: Product,
    /// Where it is.
    pub rescue: Rescue,
    /// When it was put there.
    pub since: Moment,
    /// Until when it is eaten; `null` in the freezer.
    pub until: Option<Moment>,
}

/// Like jars on the shelf.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ShelfGroup {
    /// The batch.
    pub batch: i64,
    /// Batch code.
    pub code: String,
    /// What is in the jars.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Acid in every jar.
    pub agent: Agent,
    /// Size.
    pub size: JarSize,
    /// When the jars came out of the canner.
    pub canned_at: Moment,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// A jar of this batch spoiled: look at every one of these before it is opened, or discard them.
    pub recalled: bool,
    /// How many.
    pub count: u32,
}

/// What to look for on the shelf; absent fields ask for nothing.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct ShelfSearch {
    /// Part of the batch code.
    pub code: Option<String>,
    /// What is in the jars.
    pub product: Option<Product>,
    /// Lifted from this moment on.
    pub from: Option<Moment>,
    /// Lifted before this moment.
    pub before: Option<Moment>,
}

/// How a jar left the shelf.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Gone {
    /// How.
    pub how: Leaving,
    /// Why, when it was thrown away.
    pub why: Option<Discard>,
}

/// Jars out of the canner, with when they were lifted.
const LIFTED: &str = "FROM jar
    JOIN batch ON batch.id = jar.batch_id
    JOIN load_event ON load_event.load_id = jar.load_id AND load_event.event = 'lifted' AND load_event.undone_at IS NULL
    WHERE batch.removed_at IS NULL AND NOT EXISTS (
        SELECT 1 FROM load_event AS broke
        WHERE broke.jar_id = jar.id AND broke.event = 'jar_broken' AND broke.undone_at IS NULL)";

/// Whether a jar had its full time: with its load, or by its own when it was lifted early.
fn is_processed(load: &CannerLoad, jar: i64, now: Moment) -> bool {
    let fate = load.jars.iter().find(|other| other.id == jar).map_or(Fate::Stayed, |jar| load.fate(jar));
    match fate {
        Fate::Stayed => load.clock.is_processed(now),
        Fate::OutInTime => true,
        Fate::OutTooEarly | Fate::Broken => false,
    }
}

impl Store {
    /// Loads on the towel, oldest first; a load leaves when every jar of it is settled.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn towel(&self) -> Result<Vec<Towel>, StoreError> {
        let connection = self.lock();
        let sql = format!(
            "SELECT jar.*, code, product, load_event.at {LIFTED}
             AND gone_at IS NULL AND jar.load_id IN (
                 SELECT load_id FROM jar WHERE gone_at IS NULL AND rescue IS NULL
                 AND (seal IS NULL OR (seal = 'failed' AND seal_detail IS NOT 'broken') OR tidy_at IS NULL))
             ORDER BY load_event.at, jar.load_id, batch.id, number"
        );
        let mut statement = connection.prepare_cached(&sql)?;
        let mut rows = statement.query([])?;
        let mut towels: Vec<Towel> = Vec::new();
        while let Some(row) = rows.next()? {
            let load_id = row.get("load_id")?;
            if towels.last().is_none_or(|towel| towel.load_id != load_id) {
                let lifted_at = Moment(row.get("at")?);
                let (check_from, check_by) = window(lifted_at);
                let (code, product) = (row.get("code")?, word(row, "product")?);
                towels.push(Towel {
                    load_id,
                    code,
                    product,
                    lifted_at,
                    check_from,
                    check_by,
                    jars: Vec::new(),
                });
            }
            if let Some(towel) = towels.last_mut() {
                towel.jars.push(read_towel_jar(row)?);
            }
        }
        towels.retain(|towel| towel.jars.iter().any(TowelJar::is_open));
        Ok(towels)
    }

    /// Records what was found at some lids, or takes it back with `None`; all of them or none.
    ///
    /// # Errors
    /// [`StoreError::NotOnTowel`] while one of them is not out of the canner or no longer there;
    /// [`StoreError::NotProcessed`] when a lid is said to hold on a jar whose boil was too short;
    /// [`StoreError::NotFound`].
    pub fn judge_seals(
        &self,
        jars: &[i64],
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
            let (number, load, _) = lifted(&transaction, *jar)?;
            if verdict == Some(LidVerdict::Holds)
                && !is_processed(&loads::one(&transaction, load)?, *jar, now)
            {
                return Err(StoreError::NotProcessed { number });
            }
            transaction.execute(
                "UPDATE jar SET seal = ?2, seal_detail = ?3, seal_at = ?4, tidy_at = NULL, rescue = NULL,
                 rescue_at = NULL WHERE id = ?1",
                params![jar, seal, detail, seal.map(|_| now.0)],
            )?;
        }
        Ok(transaction.commit()?)
    }

    /// Rings off, washed and dry, for all of the jars or none; or takes it back.
    ///
    /// # Errors
    /// [`StoreError::NotOnTowel`]; [`StoreError::NotFound`].
    pub fn tidy(&self, jars: &[i64], done: bool, now: Moment) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        for jar in jars {
            lifted(&transaction, *jar)?;
            transaction
                .execute("UPDATE jar SET tidy_at = ?2 WHERE id = ?1", params![jar, done.then_some(now.0)])?;
        }
        Ok(transaction.commit()?)
    }

    /// Decides about a jar whose lid failed, or takes that back. To be processed again it goes to the bench in a load
    /// with a new lid to come; the load it was in stays in its history.
    ///
    /// # Errors
    /// [`StoreError::NotFailed`] when its lid did not; [`StoreError::TooLate`] a day after it was lifted;
    /// [`StoreError::NotFound`].
    pub fn rescue(&self, jar: i64, rescue: Option<Rescue>, now: Moment) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        take_rescue_back(&transaction, jar)?;
        let (number, load, lifted_at) = lifted(&transaction, jar)?;
        let Some(rescue) = rescue else { return Ok(transaction.commit()?) };
        let (found, size) = transaction.query_row("SELECT * FROM jar WHERE id = ?1", [jar], |row| {
            Ok((read_verdict(row)?, word(row, "size")?))
        })?;
        let verdict = found.filter(|verdict| !matches!(verdict, LidVerdict::Holds | LidVerdict::Broken));
        let Some(verdict) = verdict else { return Err(StoreError::NotFailed { number }) };
        if rescue != Rescue::Reprocess {
            transaction.execute(
                "UPDATE jar SET rescue = ?2, rescue_at = ?3 WHERE id = ?1",
                params![jar, rescue.word(), now.0],
            )?;
            return Ok(transaction.commit()?);
        }
        if !may_reprocess(verdict, lifted_at, now) {
            return Err(StoreError::TooLate { number });
        }
        let again = loads::with_room(&transaction, load, size)?;
        transaction.execute(
            "INSERT INTO jar_past (jar_id, load_id, judged_at, seal_detail)
             SELECT id, load_id, seal_at, seal_detail FROM jar WHERE id = ?1",
            [jar],
        )?;
        transaction.execute(
            "UPDATE jar SET load_id = ?2, seal = NULL, seal_detail = NULL, seal_at = NULL, rim_at = NULL,
             lid_at = NULL WHERE id = ?1",
            params![jar, again],
        )?;
        Ok(transaction.commit()?)
    }

    /// Jars that did not seal and are kept cold, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn rescued(&self) -> Result<Vec<Rescued>, StoreError> {
        let connection = self.lock();
        let mut statement = connection.prepare_cached(
            "SELECT jar.id, code, number, product, rescue, rescue_at FROM jar JOIN batch ON batch.id = batch_id
             WHERE rescue IS NOT NULL AND gone_at IS NULL AND removed_at IS NULL ORDER BY rescue_at, jar.id",
        )?;
        let rows = statement.query_map([], |row| {
            let (rescue, since) = (word(row, "rescue")?, Moment(row.get("rescue_at")?));
            Ok(Rescued {
                id: row.get("id")?,
                code: row.get("code")?,
                number: row.get("number")?,
                product: word(row, "product")?,
                rescue,
                since,
                until: (rescue == Rescue::Refrigerator).then(|| fridge_until(since)),
            })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Jars on the shelf by product and date, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn shelf(&self, search: &ShelfSearch) -> Result<Vec<ShelfGroup>, StoreError> {
        let connection = self.lock();
        let sql = format!(
            "SELECT batch.id AS batch, code, product, medium, pack, agent, thickness, size,
             min(load_event.at) AS canned_at, count(*) AS count,
             EXISTS (SELECT 1 FROM jar AS bad WHERE bad.batch_id = batch.id AND bad.gone_how = 'discarded'
                 AND bad.gone_why IN ({SPOILED})) AS recalled
             {LIFTED} AND seal = 'holds' AND gone_at IS NULL
             AND (?1 IS NULL OR instr(code, ?1) > 0) AND (?2 IS NULL OR product = ?2)
             AND (?3 IS NULL OR load_event.at >= ?3) AND (?4 IS NULL OR load_event.at < ?4)
             GROUP BY batch.id, size ORDER BY canned_at, batch.id",
            SPOILED = spoiled_words(),
        );
        let mut statement = connection.prepare_cached(&sql)?;
        let given = params![
            search.code,
            search.product.map(Product::word),
            search.from.map(|at| at.0),
            search.before.map(|at| at.0)
        ];
        let groups = statement
            .query_map(given, |row| {
                Ok(ShelfGroup {
                    batch: row.get("batch")?,
                    code: row.get("code")?,
                    product: word(row, "product")?,
                    medium: optional_word(row, "medium")?,
                    pack: word(row, "pack")?,
                    agent: word(row, "agent")?,
                    thickness: optional_word(row, "thickness")?,
                    size: word(row, "size")?,
                    canned_at: Moment(row.get("canned_at")?),
                    count: row.get("count")?,
                    recalled: row.get("recalled")?,
                })
            })?
            .collect::<Result<_, _>>()?;
        Ok(groups)
    }

    /// The next jar of a batch and size that would be taken.
    ///
    /// # Errors
    /// [`StoreError::ShelfEmpty`] when there is none.
    pub fn next_jar(&self, batch: i64, size: JarSize) -> Result<i64, StoreError> {
        let connection = self.lock();
        let jar = connection.query_row(
            "SELECT id FROM jar WHERE batch_id = ?1 AND size = ?2 AND seal = 'holds' AND gone_at IS NULL
             ORDER BY number LIMIT 1",
            params![batch, size.word()],
            |row| row.get(0),
        );
        jar.optional()?.ok_or(StoreError::ShelfEmpty)
    }

    /// A jar leaves the shelf, or the refrigerator or freezer; `None` brings it back.
    ///
    /// # Errors
    /// [`StoreError::NotOnTowel`] while it is not out of the canner; [`StoreError::AlreadyGone`]; [`StoreError::NotFound`].
    pub fn leave(&self, jar: i64, gone: Option<Gone>, now: Moment) -> Result<(), StoreError> {
        let connection = self.lock();
        let (number, _, _) = lifted(&connection, jar)?;
        let left: Option<i64> =
            connection.query_row("SELECT gone_at FROM jar WHERE id = ?1", [jar], |row| row.get(0))?;
        if gone.is_some() && left.is_some() {
            return Err(StoreError::AlreadyGone { number });
        }
        connection.execute(
            "UPDATE jar SET gone_at = ?2, gone_how = ?3, gone_why = ?4 WHERE id = ?1",
            params![
                jar,
                gone.map(|_| now.0),
                gone.map(|gone| gone.how.word()),
                gone.and_then(|gone| gone.why).map(Discard::word)
            ],
        )?;
        Ok(())
    }
}

/// Words of the reasons that make a batch suspect, for SQL.
fn spoiled_words() -> String {
    let words: Vec<String> =
        Discard::ALL.iter().filter(|why| why.is_spoilage()).map(|why| format!("'{}'", why.word())).collect();
    words.join(", ")
}

/// Number and load of a jar that is out of the canner, and when it was lifted.
fn lifted(connection: &Connection, jar: i64) -> Result<(u32, i64, Moment), StoreError> {
    let (number, load): (u32, i64) = found(
        connection.query_row("SELECT number, load_id FROM jar WHERE id = ?1", [jar], |row| {
            Ok((row.get(0)?, row.get(1)?))
        }),
        "jar",
        jar,
    )?;
    let sql = format!("SELECT load_event.at {LIFTED} AND jar.id = ?1");
    let at = connection.query_row(&sql, [jar], |row| row.get(0)).optional()?;
    Ok((number, load, Moment(at.ok_or(StoreError::NotOnTowel { number })?)))
}

/// Brings a jar back from the cold or from the load it was to be processed in again.
fn take_rescue_back(connection: &Connection, jar: i64) -> Result<(), StoreError> {
    connection.execute("UPDATE jar SET rescue = NULL, rescue_at = NULL WHERE id = ?1", [jar])?;
    let past: Option<(i64, i64)> = connection
        .query_row(
            "SELECT jar_past.id, jar.load_id FROM jar_past JOIN jar ON jar.id = jar_id
             WHERE jar_id = ?1 ORDER BY jar_past.id DESC LIMIT 1",
            [jar],
            |row| Ok((row.get(0)?, row.get(1)?)),
        )
        .optional()?;
    let Some((past, load)) = past else { return Ok(()) };
    if loads::one(connection, load)?.clock.has_begun() {
        // A jar that has been through its new load stays with it.
        return Ok(());
    }
    connection.execute(
        "UPDATE jar SET load_id = past.load_id, seal = 'failed', seal_detail = past.seal_detail,
         seal_at = past.judged_at, rim_at = filled_at, lid_at = filled_at
         FROM jar_past AS past WHERE jar.id = ?1 AND past.id = ?2",
        params![jar, past],
    )?;
    connection.execute("DELETE FROM jar_past WHERE id = ?1", [past])?;
    loads::remove_empty(connection, load)
}

/// What was found at a jar's lid.
pub(crate) fn read_verdict(row: &Row<'_>) -> rusqlite::Result<Option<LidVerdict>> {
    let seal: Option<String> = row.get("seal")?;
    let detail: Option<String> = row.get("seal_detail")?;
    Ok(seal.map(|seal| match (seal.as_str(), detail.as_deref()) {
        ("holds", _) => LidVerdict::Holds,
        (_, Some("broken")) => LidVerdict::Broken,
        (_, Some("doubtful")) => LidVerdict::Doubtful,
        _ => LidVerdict::Failed,
    }))
}

fn read_towel_jar(row: &Row<'_>) -> rusqlite::Result<TowelJar> {
    Ok(TowelJar {
        id: row.get("id")?,
        batch: row.get("batch_id")?,
        code: row.get("code")?,
        number: row.get("number")?,
        size: word(row, "size")?,
        verdict: read_verdict(row)?,
        judged_at: moment(row, "seal_at")?,
        rescue: optional_word(row, "rescue")?,
        tidy: row.get::<_, Option<i64>>("tidy_at")?.is_some(),
    })
}
