//! The shelf: what stands there, how jars leave it, and every jar that was ever filled.

use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::{BatchId, JarId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::jar::{JarRecord, Stocked};
use bodega_model::records::shelf::{Gone, ShelfGroup, ShelfSearch};
use bodega_model::shelf::leaving::{Discard, History, Leaving};
use bodega_model::tables::process::Product;
use rusqlite::{OptionalExtension, Transaction, named_params, params};

use crate::rows::jar::{RECORDS, read_record, with_past};
use crate::rows::lifting::lifting;
use crate::rows::{found, moment, optional_word, row_of, word};
use crate::towel::lifted;
use crate::{AtHome, Store, StoreError, at_home};

/// A jar that came to the shelf, whether it stands there or not.
macro_rules! held {
    () => {
        "seal = 'holds' AND NOT provisional AND undosed_at IS NULL"
    };
}

/// A jar that stands on the shelf; nobody says of one that it holds before it is out of the canner and whole.
const ON_SHELF: &str = concat!(held!(), " AND gone_at IS NULL");

/// Nothing stands against it.
const NOT_STOPPED: &str = "id NOT IN (SELECT value FROM json_each(:stopped))";

impl Store {
    /// How many jars stand on the shelf. One that something stands against is none of them.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn on_shelf(&self) -> Result<u32, StoreError> {
        let at_home = self.standings()?;
        let sql = format!("SELECT count(*) FROM jar WHERE {ON_SHELF} AND {NOT_STOPPED}");
        self.caches.on_shelf.ask(self.version()?, at_home.version, || {
            let given = named_params! { ":stopped": at_home.stopped_json() };
            Ok(row_of(&*self.read()?, &sql, given, |row| row.get(0))?)
        })
    }

    /// Jars on the shelf by product and date, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn shelf(&self, search: &ShelfSearch) -> Result<Vec<ShelfGroup>, StoreError> {
        let at_home = self.standings()?;
        let question = (search.clone(), at_home.version);
        self.caches.shelf.ask(self.version()?, question, || self.read_shelf(search, &at_home))
    }

    fn read_shelf(&self, search: &ShelfSearch, at_home: &AtHome) -> Result<Vec<ShelfGroup>, StoreError> {
        let connection = self.read()?;
        let sql = format!(
            "SELECT batch.id AS batch, code, name AS named, product, medium, pack, agent, thickness, size,
             min(load_event.at) AS canned_at, sum(here.count) AS count, group_concat(here.one) AS ones,
             EXISTS (SELECT 1 FROM jar AS bad WHERE bad.batch_id = batch.id AND bad.gone_how = 'discarded'
                 AND bad.gone_why IN ({SPOILED})) AS recalled
             FROM (SELECT batch_id, size, load_id, count(*) AS count, max(id) AS one FROM jar
                   WHERE {ON_SHELF} AND {NOT_STOPPED} GROUP BY batch_id, size, load_id) AS here
             CROSS JOIN batch ON batch.id = here.batch_id
             JOIN load_event ON load_event.load_id = here.load_id AND {LIFTING}
             WHERE removed_at IS NULL AND (:code IS NULL OR instr(code, :code) > 0 OR instr(lower(coalesce(name, '')), lower(:code)) > 0)
             AND (:product IS NULL OR product = :product)
             AND (:from IS NULL OR load_event.at >= :from) AND (:before IS NULL OR load_event.at < :before)
             GROUP BY batch.id, here.size ORDER BY canned_at, batch.id",
            LIFTING = lifting!(),
            SPOILED = spoiled_words(),
        );
        let mut statement = connection.prepare_cached(&sql)?;
        let given = named_params! {
            ":stopped": at_home.stopped_json(),
            ":code": search.code,
            ":product": search.product.map(Product::word),
            ":from": search.from.map(|at| at.0),
            ":before": search.before.map(|at| at.0),
        };
        let groups = statement.query_map(given, |row| {
            let ones: String = row.get("ones")?;
            Ok(ShelfGroup {
                open: open_of(at_home, &ones),
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
        let stopped = self.standings()?.stopped_json();
        let connection = self.read()?;
        let jar = connection.query_row(
            &format!(
                "SELECT id FROM jar WHERE batch_id = :batch AND size = :size AND {ON_SHELF} AND {NOT_STOPPED}
                 ORDER BY number LIMIT 1"
            ),
            named_params! { ":batch": batch.0, ":size": size.word(), ":stopped": stopped },
            |row| row.get(0).map(JarId),
        );
        jar.optional()?.ok_or(StoreError::ShelfEmpty)
    }

    /// Jars leave the shelf, the towel, the refrigerator or the freezer, all of them or none; `None` brings them back. What
    /// something stands against leaves to be thrown away, and in no other way, unless it was chilled in time.
    ///
    /// # Errors
    /// [`StoreError::NotOnTowel`] while one is not out of the canner; [`StoreError::AlreadyGone`]; [`StoreError::Stopped`];
    /// [`StoreError::NotFound`].
    pub fn leave(&self, jars: &[JarId], gone: Option<Gone>, now: Moment) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        for jar in jars {
            leave_one(&transaction, *jar, gone, now)?;
        }
        Ok(transaction.commit()?)
    }

    /// What stands on the shelf or left it since a moment, by product and size, with when it came and left.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn stocked(&self, since: Moment) -> Result<Vec<Stocked>, StoreError> {
        let at_home = self.standings()?;
        let question = (since, at_home.version);
        self.caches.stocked.ask(self.version()?, question, || self.read_stocked(since, &at_home))
    }

    fn read_stocked(&self, since: Moment, at_home: &AtHome) -> Result<Vec<Stocked>, StoreError> {
        let connection = self.read()?;
        let sql = format!(
            "SELECT product, medium, pack, thickness, iif(product = 'recipe', name, NULL) AS named, here.size AS size,
                 load_event.at AS lifted_at, here.gone_at AS gone_at, here.gone_how AS gone_how, here.count AS count
             FROM (SELECT batch_id, size, load_id, NULL AS gone_at, NULL AS gone_how, count(*) AS count
                   FROM jar WHERE {ON_SHELF} AND {NOT_STOPPED} GROUP BY batch_id, size, load_id
                   UNION ALL
                   SELECT batch_id, size, load_id, gone_at, gone_how, count(*) FROM jar
                   WHERE {HELD} AND gone_at > :since
                   GROUP BY gone_at, batch_id, size, load_id, gone_how) AS here
             CROSS JOIN batch ON batch.id = here.batch_id
             JOIN load_event ON load_event.load_id = here.load_id AND {LIFTING}
             WHERE removed_at IS NULL
             ORDER BY product, medium, pack, thickness, named, here.size, lifted_at",
            HELD = held!(),
            LIFTING = lifting!(),
        );
        let mut statement = connection.prepare_cached(&sql)?;
        let given = named_params! { ":since": since.0, ":stopped": at_home.stopped_json() };
        let rows = statement.query_map(given, |row| {
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

fn leave_one(
    transaction: &Transaction<'_>,
    jar: JarId,
    gone: Option<Gone>,
    now: Moment,
) -> Result<(), StoreError> {
    let (number, load, _) = lifted(transaction, jar)?;
    let sql = "SELECT gone_at IS NOT NULL, rescue IS NOT NULL FROM jar WHERE id = ?1";
    let (is_gone, is_chilled): (bool, bool) =
        transaction.query_row(sql, [jar.0], |row| Ok((row.get(0)?, row.get(1)?)))?;
    if gone.is_some() && is_gone {
        return Err(StoreError::AlreadyGone { number });
    }
    if !is_chilled
        && gone.is_some_and(|gone| gone.how != Leaving::Discarded)
        && let Some(says) = at_home::of_jar(transaction, jar, load)?.brief()
    {
        return Err(StoreError::Stopped { number, says });
    }
    transaction.execute(
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

/// What is open of like jars on the shelf: one jar speaks for those of its load.
fn open_of(at_home: &AtHome, jars: &str) -> Option<String> {
    let jars = jars.split(',').filter_map(|id| id.parse().ok().map(JarId));
    jars.filter_map(|jar| at_home.at_home(jar)?.open_brief()).next()
}

/// Words of the reasons that make a batch suspect, for SQL.
fn spoiled_words() -> String {
    let words: Vec<String> =
        Discard::ALL.iter().filter(|why| why.is_spoilage()).map(|why| format!("'{}'", why.word())).collect();
    words.join(", ")
}
