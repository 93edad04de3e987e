//! The shelf: what stands there, how jars leave it, and every jar that was ever filled.

use bodega_core::jars::size::JarSize;
use bodega_core::measures::ids::{BatchId, JarId};
use bodega_core::measures::moment::Moment;
use bodega_core::records::jar::{JarRecord, Stocked};
use bodega_core::records::shelf::{Gone, ShelfGroup, ShelfSearch};
use bodega_core::shelf::pantry::{Discard, History, Leaving};
use bodega_core::tables::process::Product;
use rusqlite::{OptionalExtension, params};

use crate::rows::jar::{RECORDS, read_record, with_past};
use crate::rows::lifting::lifting;
use crate::rows::{found, moment, optional_word, row_of, word};
use crate::towel::lifted;
use crate::{Store, StoreError};

/// A jar that came to the shelf, whether it stands there or not.
macro_rules! held {
    () => {
        "seal = 'holds' AND NOT provisional AND undosed_at IS NULL"
    };
}

/// A jar that stands on the shelf; nobody says of one that it holds before it is out of the canner and whole.
const ON_SHELF: &str = concat!(held!(), " AND gone_at IS NULL");

impl Store {
    /// How many jars stand on the shelf.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn on_shelf(&self) -> Result<u32, StoreError> {
        let sql = format!("SELECT count(*) FROM jar WHERE {ON_SHELF}");
        self.memos
            .on_shelf
            .ask(self.version()?, (), || Ok(row_of(&*self.read()?, &sql, [], |row| row.get(0))?))
    }

    /// Jars on the shelf by product and date, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn shelf(&self, search: &ShelfSearch) -> Result<Vec<ShelfGroup>, StoreError> {
        self.memos.shelf.ask(self.version()?, search.clone(), || self.read_shelf(search))
    }

    fn read_shelf(&self, search: &ShelfSearch) -> Result<Vec<ShelfGroup>, StoreError> {
        let connection = self.read()?;
        let sql = format!(
            "SELECT batch.id AS batch, code, name AS named, product, medium, pack, agent, thickness, size,
             min(load_event.at) AS canned_at, sum(here.count) AS count,
             EXISTS (SELECT 1 FROM jar AS bad WHERE bad.batch_id = batch.id AND bad.gone_how = 'discarded'
                 AND bad.gone_why IN ({SPOILED})) AS recalled
             FROM (SELECT batch_id, size, load_id, count(*) AS count FROM jar WHERE {ON_SHELF}
                   GROUP BY batch_id, size, load_id) AS here
             CROSS JOIN batch ON batch.id = here.batch_id
             JOIN load_event ON load_event.load_id = here.load_id AND {LIFTING}
             WHERE removed_at IS NULL AND (?1 IS NULL OR instr(code, ?1) > 0 OR instr(lower(coalesce(name, '')), lower(?1)) > 0) AND (?2 IS NULL OR product = ?2)
             AND (?3 IS NULL OR load_event.at >= ?3) AND (?4 IS NULL OR load_event.at < ?4)
             GROUP BY batch.id, here.size ORDER BY canned_at, batch.id",
            LIFTING = lifting!(),
            SPOILED = spoiled_words(),
        );
        let mut statement = connection.prepare_cached(&sql)?;
        let given = params![
            search.code,
            search.product.map(Product::word),
            search.from.map(|at| at.0),
            search.before.map(|at| at.0)
        ];
        let groups = statement.query_map(given, |row| {
            Ok(ShelfGroup {
                batch: BatchId(row.get("batch")?),
                code: row.get("code")?,
                product: word(row, "product")?,
                medium: optional_word(row, "medium")?,
                pack: word(row, "pack")?,
                agent: word(row, "agent")?,
                thickness: optional_word(row, "thickness")?,
                named: row.get("named")?,
                size: word(row, "size")?,
                canned_at: Moment(row.get("canned_at")?),
                count: row.get("count")?,
                recalled: row.get("recalled")?,
            })
        })?;
        self.readable(groups)
    }

    /// The next jar of a batch and size that would be taken.
    ///
    /// # Errors
    /// [`StoreError::ShelfEmpty`] when there is none.
    pub fn next_jar(&self, batch: BatchId, size: JarSize) -> Result<JarId, StoreError> {
        let connection = self.read()?;
        let jar = connection.query_row(
            &format!(
                "SELECT id FROM jar WHERE batch_id = ?1 AND size = ?2 AND {ON_SHELF} ORDER BY number LIMIT 1"
            ),
            params![batch.0, size.word()],
            |row| row.get(0).map(JarId),
        );
        jar.optional()?.ok_or(StoreError::ShelfEmpty)
    }

    /// A jar leaves the shelf, or the refrigerator or freezer; `None` brings it back.
    ///
    /// # Errors
    /// [`StoreError::NotOnTowel`] while it is not out of the canner; [`StoreError::AlreadyGone`]; [`StoreError::NotFound`].
    pub fn leave(&self, jar: JarId, gone: Option<Gone>, now: Moment) -> Result<(), StoreError> {
        let connection = self.lock();
        let (number, _, _) = lifted(&connection, jar)?;
        let left: Option<i64> =
            connection.query_row("SELECT gone_at FROM jar WHERE id = ?1", [jar.0], |row| row.get(0))?;
        if gone.is_some() && left.is_some() {
            return Err(StoreError::AlreadyGone { number });
        }
        connection.execute(
            "UPDATE jar SET gone_at = ?2, gone_how = ?3, gone_why = ?4 WHERE id = ?1",
            params![
                jar.0,
                gone.map(|_| now.0),
                gone.map(|gone| gone.how.word()),
                gone.and_then(|gone| gone.why).map(Discard::word)
            ],
        )?;
        Ok(())
    }

    /// What stands on the shelf or left it since a moment, by product and size, with when it came and left.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn stocked(&self, since: Moment) -> Result<Vec<Stocked>, StoreError> {
        self.memos.stocked.ask(self.version()?, since, || self.read_stocked(since))
    }

    fn read_stocked(&self, since: Moment) -> Result<Vec<Stocked>, StoreError> {
        let connection = self.read()?;
        let sql = format!(
            "SELECT product, medium, pack, thickness, iif(product = 'recipe', name, NULL) AS named, here.size AS size,
                 load_event.at AS lifted_at, here.gone_at AS gone_at, here.gone_how AS gone_how, here.count AS count
             FROM (SELECT batch_id, size, load_id, NULL AS gone_at, NULL AS gone_how, count(*) AS count
                   FROM jar WHERE {ON_SHELF} GROUP BY batch_id, size, load_id
                   UNION ALL
                   SELECT batch_id, size, load_id, gone_at, gone_how, count(*) FROM jar
                   WHERE {HELD} AND gone_at > ?1
                   GROUP BY gone_at, batch_id, size, load_id, gone_how) AS here
             CROSS JOIN batch ON batch.id = here.batch_id
             JOIN load_event ON load_event.load_id = here.load_id AND {LIFTING}
             WHERE removed_at IS NULL
             ORDER BY product, medium, pack, thickness, named, here.size, lifted_at",
            HELD = held!(),
            LIFTING = lifting!(),
        );
        let mut statement = connection.prepare_cached(&sql)?;
        let rows = statement.query_map([since.0], |row| {
            let like = Stocked {
                product: word(row, "product")?,
                medium: optional_word(row, "medium")?,
                pack: word(row, "pack")?,
                thickness: optional_word(row, "thickness")?,
                named: row.get("named")?,
                size: word(row, "size")?,
                on_shelf: 0,
                history: History::default(),
            };
            let came = Moment(row.get("lifted_at")?);
            // How the oldest jars left was not always said.
            let how = optional_word(row, "gone_how")?.unwrap_or(Leaving::Discarded);
            let left = moment(row, "gone_at")?.map(|at| (at, how));
            Ok((like, came, left, row.get("count")?))
        })?;
        let mut all: Vec<Stocked> = Vec::new();
        for (like, came, left, count) in self.readable(rows)? {
            if all.last().is_none_or(|last| !last.is_like(&like)) {
                all.push(like);
            }
            if let Some(last) = all.last_mut() {
                last.history.came.push((came, count));
                match left {
                    None => last.on_shelf += count,
                    Some((at, how)) => last.history.left.push((at, how, count)),
                }
            }
        }
        Ok(all)
    }

    /// The jars of a batch with what became of each.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batch_jars(&self, batch: BatchId) -> Result<Vec<JarRecord>, StoreError> {
        let connection = self.read()?;
        let mut statement =
            connection.prepare_cached(&format!("{RECORDS} WHERE jar.batch_id = ?1 ORDER BY number"))?;
        let jars = statement.query_map([batch.0], read_record)?;
        let with_past = |jar: rusqlite::Result<_>| with_past(&connection, jar?);
        self.readable(jars.map(with_past))
    }

    /// Tells every jar of every batch on the line or done, in the order of batches.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read; [`StoreError::NotTaken`].
    pub fn all_jars(&self, tell: impl FnMut(JarRecord) -> std::io::Result<()>) -> Result<(), StoreError> {
        let sql = format!("{RECORDS} WHERE batch.removed_at IS NULL ORDER BY jar.batch_id, number");
        self.look_long(|connection| self.tell(connection.prepare(&sql)?.query_map([], read_record)?, tell))
    }

    /// One jar.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn jar(&self, id: JarId) -> Result<JarRecord, StoreError> {
        let connection = self.read()?;
        let jar = row_of(&connection, &format!("{RECORDS} WHERE jar.id = ?1"), [id.0], read_record);
        with_past(&connection, found(jar, "jar", id.0)?)
    }
}

/// Words of the reasons that make a batch suspect, for SQL.
fn spoiled_words() -> String {
    let words: Vec<String> =
        Discard::ALL.iter().filter(|why| why.is_spoilage()).map(|why| format!("'{}'", why.word())).collect();
    words.join(", ")
}
