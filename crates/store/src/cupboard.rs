//! What stands in the cupboard: empty jars by size, lids by mouth, acid; counted once, used by batches.

use std::collections::BTreeMap;
use std::collections::btree_map::Entry;

use bodega_model::jars::acid;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::{JarSize, Mouth};
use bodega_model::measures::moment::Moment;
use bodega_model::records::stock::{AcidStock, Cupboard, Item, JarStock, LidStock};
use jiff::civil::Date;
use rusqlite::{Connection, OptionalExtension, params};

use crate::rows::{row_of, word};
use crate::{Store, StoreError};

/// Key of an item's row.
fn key(item: Item) -> String {
    match item {
        Item::Jar(jar) => format!("jar:{}", jar.word()),
        Item::Lid(mouth) => format!("lid:{}", mouth.word()),
        Item::Acid(agent) => format!("acid:{}", agent.word()),
    }
}

struct Count {
    amount: f64,
    mouth: Option<Mouth>,
    opened_on: Option<Date>,
    at: Moment,
}

fn count_of(connection: &Connection, item: Item) -> Result<Option<Count>, StoreError> {
    let sql = "SELECT amount, mouth, opened_on, counted_at FROM stock WHERE item = ?1";
    Ok(row_of(connection, sql, [key(item)], |row| {
        let mouth: Option<String> = row.get("mouth")?;
        Ok(Count {
            amount: row.get("amount")?,
            mouth: mouth.and_then(|mouth| mouth.parse().ok()),
            opened_on: row.get::<_, Option<String>>("opened_on")?.and_then(|day| day.parse().ok()),
            at: Moment(row.get("counted_at")?),
        })
    })
    .optional()?)
}

/// Jars of an agent and a size.
type Taken = (Agent, JarSize, u32);

/// Jars that batches on the line have taken since a moment, by agent and size; counts of one moment are asked for once.
fn taken_since<'a>(
    connection: &Connection,
    since: Moment,
    known: &'a mut BTreeMap<Moment, Vec<Taken>>,
) -> Result<&'a [Taken], StoreError> {
    Ok(match known.entry(since) {
        Entry::Occupied(counted) => counted.into_mut(),
        Entry::Vacant(new) => new.insert(read_taken(connection, since)?),
    })
}

fn read_taken(connection: &Connection, since: Moment) -> Result<Vec<Taken>, StoreError> {
    let mut statement = connection.prepare_cached(
        "SELECT agent, size, count(*) AS count FROM jar JOIN batch ON batch.id = batch_id
         WHERE removed_at IS NULL AND planned_at >= ?1 GROUP BY agent, size",
    )?;
    let rows = statement
        .query_map([since.0], |row| Ok((word(row, "agent")?, word(row, "size")?, row.get("count")?)))?;
    Ok(rows.collect::<Result<_, _>>()?)
}

#[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // counts are limited to whole jars on entry
fn whole(amount: f64) -> u32 {
    amount.round().max(0.0) as u32
}

fn cupboard(connection: &Connection) -> Result<Cupboard, StoreError> {
    let mut known = BTreeMap::new();
    let mut jars = Vec::new();
    for jar in JarSize::ALL.iter().copied().filter(|jar| jar.is_canned()) {
        let count = count_of(connection, Item::Jar(jar))?;
        let used = match &count {
            None => 0,
            Some(count) => taken_since(connection, count.at, &mut known)?
                .iter()
                .filter(|(_, size, _)| *size == jar)
                .map(|(_, _, taken)| taken)
                .sum(),
        };
        let mouth = count.as_ref().and_then(|count| count.mouth).unwrap_or_else(|| jar.usual_mouth());
        jars.push(JarStock { jar, mouth, counted: count.map(|count| whole(count.amount)), used });
    }
    let mouth_of = |size: JarSize| jars.iter().find(|line| line.jar == size).map(|line| line.mouth);
    let mut lids = Vec::new();
    for mouth in Mouth::ALL.iter().copied() {
        let count = count_of(connection, Item::Lid(mouth))?;
        let used = match &count {
            None => 0,
            Some(count) => taken_since(connection, count.at, &mut known)?
                .iter()
                .filter(|(_, size, _)| mouth_of(*size) == Some(mouth))
                .map(|(_, _, taken)| taken)
                .sum(),
        };
        lids.push(LidStock { mouth, counted: count.map(|count| whole(count.amount)), used });
    }
    let mut acids = Vec::new();
    for agent in Agent::ALL.iter().copied() {
        let count = count_of(connection, Item::Acid(agent))?;
        let used = match &count {
            None => 0.0,
            Some(count) => taken_since(connection, count.at, &mut known)?
                .iter()
                .filter(|(taken, _, _)| *taken == agent)
                .map(|(_, size, taken)| acid::measured(agent, acid::per_jar(agent, *size).times(*taken)))
                .sum(),
        };
        let (counted, opened_on) = count.map(|count| (count.amount, count.opened_on)).unzip();
        acids.push(AcidStock { agent, counted, used, opened_on: opened_on.flatten() });
    }
    Ok(Cupboard { jars, lids, acids })
}

impl Store {
    /// Says on which day the bottle in use was opened.
    ///
    /// # Errors
    /// [`StoreError::NotCounted`] while that acid was not measured yet.
    pub fn open_bottle(&self, agent: Agent, day: Date) -> Result<Cupboard, StoreError> {
        let connection = self.lock();
        let sql = "UPDATE stock SET opened_on = ?2 WHERE item = ?1";
        if connection.execute(sql, params![key(Item::Acid(agent)), day.to_string()])? == 0 {
            return Err(StoreError::NotCounted { what: agent.label() });
        }
        cupboard(&connection)
    }

    /// The cupboard as counted, with what batches have taken since.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn cupboard(&self) -> Result<Cupboard, StoreError> {
        self.caches.cupboard.ask(self.version()?, (), || cupboard(&*self.read()?))
    }

    /// Counts something: what is there now, with nothing taken yet.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be written.
    pub fn count_stock(
        &self,
        item: Item,
        amount: f64,
        mouth: Option<Mouth>,
        now: Moment,
    ) -> Result<Cupboard, StoreError> {
        let connection = self.lock();
        connection.execute(
            // Batches planned in the same millisecond were there before the count.
            "INSERT INTO stock (item, amount, mouth, counted_at) VALUES (?1, ?2, ?3, ?4)
             ON CONFLICT (item) DO UPDATE SET amount = ?2, mouth = coalesce(?3, mouth), counted_at = ?4",
            params![key(item), amount, mouth.map(Mouth::word), now.0 + 1],
        )?;
        cupboard(&connection)
    }
}
