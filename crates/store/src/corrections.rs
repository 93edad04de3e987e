//! What was said of jars that are out of the canner and turned out to be wrong. A correction may end a stop, so it stays in sight.

use bodega_model::measures::ids::BatchId;
use bodega_model::measures::moment::Moment;
use bodega_model::records::correction::Correction;
use rusqlite::{Connection, params};

use crate::{Store, StoreError};

/// Who says something, and when.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ToldBy {
    /// When.
    pub at: Moment,
    /// The device, as it is called; `None` for the machine that keeps the records.
    pub who: Option<String>,
}

impl ToldBy {
    /// Said at the machine that keeps the records.
    #[must_use]
    pub const fn here(at: Moment) -> Self {
        Self { at, who: None }
    }
}

/// Writes down that something is said anew of a batch, when jars of it are out of the canner already and it is another thing.
pub(crate) fn corrected(
    connection: &Connection,
    batch: BatchId,
    told: &ToldBy,
    (about, was, says): (&str, &str, &str),
) -> Result<(), StoreError> {
    if was == says {
        return Ok(());
    }
    connection.execute(
        "INSERT INTO correction (at, who, batch_id, about, was, says) SELECT ?1, ?2, ?3, ?4, ?5, ?6
         WHERE EXISTS (SELECT 1 FROM jar WHERE batch_id = ?3 AND load_id NOT IN (SELECT load_id FROM open_load))",
        params![told.at.0, told.who, batch.0, about, was, says],
    )?;
    Ok(())
}

impl Store {
    /// What was corrected of a batch after its jars were out, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn corrections(&self, batch: BatchId) -> Result<Vec<Correction>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection.prepare_cached(
            "SELECT at, who, about, was, says FROM correction WHERE batch_id = ?1 ORDER BY at, id",
        )?;
        let rows = statement.query_map([batch.0], |row| {
            Ok(Correction {
                at: Moment(row.get("at")?),
                who: row.get("who")?,
                about: row.get("about")?,
                was: row.get("was")?,
                says: row.get("says")?,
            })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}
