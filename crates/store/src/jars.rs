//! Jars on the bench: acid first, then food; later whether the lid holds.

use bodega_core::jar::JarSize;
use bodega_core::moment::Moment;
use rusqlite::{Connection, Row, params};
use serde::{Deserialize, Serialize};

use crate::rows::{found, word};
use crate::{Store, StoreError};

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
