//! Jars on the bench: acid first, then food; later whether the lid holds.

use bodega_core::jar::JarSize;
use bodega_core::moment::Moment;
use rusqlite::{Connection, Row, params};
use serde::{Deserialize, Serialize};

use crate::kitchen::read_kitchen;
use crate::rows::{found, word};
use crate::{Store, StoreError, loads};

/// One jar and what has been done to it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Jar {
    /// Number of the record.
    pub id: i64,
    /// Number of the jar in its batch, from 1.
    pub number: u32,
    /// Size.
    pub size: JarSize,
    /// Acid is in.
    pub acid: bool,
    /// Filled, wiped and capped.
    pub filled: bool,
}

/// How many jars of each size there are, in the order the sizes come.
#[must_use]
pub fn count_sizes<'a>(jars: impl IntoIterator<Item = &'a Jar>) -> Vec<(JarSize, u32)> {
    let mut sizes: Vec<(JarSize, u32)> = Vec::new();
    for jar in jars {
        match sizes.iter_mut().find(|(size, _)| *size == jar.size) {
            Some((_, count)) => *count += 1,
            None => sizes.push((jar.size, 1)),
        }
    }
    sizes
}

/// A step on the bench.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum JarStep {
    /// Acid into the empty jar.
    Acid,
    /// Food in, headspace, bubbles, rim, lid.
    Filled,
}

fn read(row: &Row<'_>) -> rusqlite::Result<Jar> {
    Ok(Jar {
        id: row.get("id")?,
        number: row.get("number")?,
        size: word(row, "size")?,
        acid: row.get::<_, Option<i64>>("acid_at")?.is_some(),
        filled: row.get::<_, Option<i64>>("filled_at")?.is_some(),
    })
}

const SELECT: &str = "SELECT id, number, size, acid_at, filled_at FROM jar";

/// The jars of one load, in order.
pub(crate) fn of_load(connection: &Connection, load: i64) -> Result<Vec<Jar>, StoreError> {
    let mut statement = connection.prepare_cached(&format!("{SELECT} WHERE load_id = ?1 ORDER BY number"))?;
    Ok(statement.query_map([load], read)?.collect::<Result<_, _>>()?)
}

/// Whether the canner holds the other jars and so many of one size.
fn check_capacity(
    connection: &Connection,
    jars: &[Jar],
    size: JarSize,
    count: u32,
) -> Result<(), StoreError> {
    let canner = read_kitchen(connection)?.canner;
    let share = |of: JarSize| canner.capacity.get(&of).map(|most| 1.0 / f64::from(*most)).ok_or(of);
    let others = jars.iter().filter(|jar| jar.size != size).map(|jar| jar.size);
    let mut used = others.map(share).sum::<Result<f64, JarSize>>().unwrap_or(f64::INFINITY);
    used += share(size).map_or(f64::INFINITY, |share| share * f64::from(count));
    if used > 1.0 + 1e-9 {
        return Err(StoreError::CannerFull);
    }
    Ok(())
}

impl Store {
    /// Ticks a step of one jar, or takes the tick back. Taking acid back empties the jar too.
    ///
    /// # Errors
    /// [`StoreError::AcidFirst`] when food would go in before acid; [`StoreError::NotFound`].
    pub fn tick_jar(&self, id: i64, step: JarStep, done: bool, now: Moment) -> Result<Jar, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let jar = found(transaction.query_row(&format!("{SELECT} WHERE id = ?1"), [id], read), "jar", id)?;
        let sql = match (step, done) {
            (JarStep::Filled, true) if !jar.acid => return Err(StoreError::AcidFirst { number: jar.number }),
            (JarStep::Acid, true) => "UPDATE jar SET acid_at = coalesce(acid_at, ?2) WHERE id = ?1",
            (JarStep::Acid, false) => {
                "UPDATE jar SET acid_at = NULL, filled_at = NULL WHERE id = ?1 AND ?2 = ?2"
            }
            (JarStep::Filled, true) => "UPDATE jar SET filled_at = coalesce(filled_at, ?2) WHERE id = ?1",
            (JarStep::Filled, false) => "UPDATE jar SET filled_at = NULL WHERE id = ?1 AND ?2 = ?2",
        };
        transaction.execute(sql, params![id, now.0])?;
        let jar = transaction.query_row(&format!("{SELECT} WHERE id = ?1"), [id], read)?;
        transaction.commit()?;
        Ok(jar)
    }

    /// Recounts the jars of one size in a load that waits on the bench, because the pot gave more or fewer. Jars are taken
    /// from the end; a filled one is never taken.
    ///
    /// # Errors
    /// [`StoreError::LoadBegun`] once the load is in the canner; [`StoreError::JarFilled`] when filled jars would have
    /// to go; [`StoreError::CannerFull`] when the canner does not hold so many; [`StoreError::NotFound`].
    pub fn recount(&self, load: i64, size: JarSize, count: u32) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let found = loads::one(&transaction, load)?;
        if !found.clock.happened().is_empty() {
            return Err(StoreError::LoadBegun);
        }
        check_capacity(&transaction, &found.jars, size, count)?;
        let of_size: Vec<&Jar> = found.jars.iter().filter(|jar| jar.size == size).collect();
        let have = of_size.len();
        let want = count as usize;
        for jar in of_size.iter().skip(want.min(have)) {
            if jar.filled {
                return Err(StoreError::JarFilled { number: jar.number });
            }
            transaction.execute("DELETE FROM jar WHERE id = ?1", [jar.id])?;
        }
        for _ in have..want {
            transaction.execute(
                "INSERT INTO jar (batch_id, load_id, number, size)
                 SELECT ?1, ?2, coalesce(max(number), 0) + 1, ?3 FROM jar WHERE batch_id = ?1",
                params![found.batch.id, load, size.word()],
            )?;
        }
        Ok(transaction.commit()?)
    }

    /// Ticks a step of every jar of a load that is ready for it. Returns how many were ticked.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be written.
    pub fn tick_load(&self, load: i64, step: JarStep, now: Moment) -> Result<usize, StoreError> {
        let sql = match step {
            JarStep::Acid => "UPDATE jar SET acid_at = ?2 WHERE load_id = ?1 AND acid_at IS NULL",
            JarStep::Filled => {
                "UPDATE jar SET filled_at = ?2 WHERE load_id = ?1 AND filled_at IS NULL AND acid_at IS NOT NULL"
            }
        };
        Ok(self.lock().execute(sql, params![load, now.0])?)
    }
}
