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
use crate::rows::{found, moment, optional_word, word};
use crate::towel::{LIFTED, lifted};
use crate::{Store, StoreError};

impl Store {
    /// Jars on the shelf by product and date, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn shelf(&self, search: &ShelfSearch) -> Result<Vec<ShelfGroup>, StoreError> {
        let connection = self.lock();
        let sql = format!(
            "SELECT batch.id AS batch, code, name AS named, product, medium, pack, agent, thickness, size,
             min(load_event.at) AS canned_at, count(*) AS count,
             EXISTS (SELECT 1 FROM jar AS bad WHERE bad.batch_id = batch.id AND bad.gone_how = 'discarded'
                 AND bad.gone_why IN ({SPOILED})) AS recalled
             {LIFTED} AND seal = 'holds' AND NOT provisional AND undosed_at IS NULL AND gone_at IS NULL
             AND (?1 IS NULL OR instr(code, ?1) > 0 OR instr(lower(coalesce(name, '')), lower(?1)) > 0) AND (?2 IS NULL OR product = ?2)
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
        let connection = self.lock();
        let jar = connection.query_row(
            "SELECT id FROM jar WHERE batch_id = ?1 AND size = ?2 AND seal = 'holds' AND NOT provisional AND undosed_at IS NULL AND gone_at IS NULL
             ORDER BY number LIMIT 1",
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

    /// What was ever shelved, by product and size, with when it left.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn stocked(&self) -> Result<Vec<Stocked>, StoreError> {
        let connection = self.lock();
        let mut statement = connection.prepare_cached(concat!(
            "SELECT product, medium, pack, thickness, iif(product = 'recipe', name, NULL) AS named, size, load_event.at AS lifted_at, gone_at, gone_how
             FROM jar JOIN batch ON batch.id = jar.batch_id
             JOIN load_event ON load_event.load_id = jar.load_id AND ",
            lifting!(),
            "
             WHERE removed_at IS NULL AND seal = 'holds' AND NOT provisional AND undosed_at IS NULL
             ORDER BY product, medium, pack, thickness, named, size, lifted_at"
        ))?;
        let rows = statement.query_map([], |row| {
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
            Ok((like, came, moment(row, "gone_at")?, optional_word::<Leaving>(row, "gone_how")?))
        })?;
        let mut all: Vec<Stocked> = Vec::new();
        for (like, came, gone_at, how) in self.readable(rows)? {
            if all.last().is_none_or(|last| !last.is_like(&like)) {
                all.push(like);
            }
            if let Some(last) = all.last_mut() {
                last.history.came.push(came);
                match gone_at {
                    None => last.on_shelf += 1,
                    // How the oldest jars left was not always said.
                    Some(at) => last.history.left.push((at, how.unwrap_or(Leaving::Discarded))),
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
        let connection = self.lock();
        let mut statement =
            connection.prepare_cached(&format!("{RECORDS} WHERE jar.batch_id = ?1 ORDER BY number"))?;
        let jars = statement.query_map([batch.0], read_record)?;
        let with_past = |jar: rusqlite::Result<_>| with_past(&connection, jar?);
        self.readable(jars.map(with_past))
    }

    /// Every jar of every batch on the line or done, in the order of batches.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn all_jars(&self) -> Result<Vec<JarRecord>, StoreError> {
        let sql = format!("{RECORDS} WHERE batch.removed_at IS NULL ORDER BY jar.batch_id, number");
        self.look_long(|connection| self.readable(connection.prepare(&sql)?.query_map([], read_record)?))
    }

    /// One jar.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn jar(&self, id: JarId) -> Result<JarRecord, StoreError> {
        let connection = self.lock();
        let jar = connection.query_row(&format!("{RECORDS} WHERE jar.id = ?1"), [id.0], read_record);
        with_past(&connection, found(jar, "jar", id.0)?)
    }
}

/// Words of the reasons that make a batch suspect, for SQL.
fn spoiled_words() -> String {
    let words: Vec<String> =
        Discard::ALL.iter().filter(|why| why.is_spoilage()).map(|why| format!("'{}'", why.word())).collect();
    words.join(", ")
}
