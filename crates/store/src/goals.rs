//! What the shelf asks for: so many jars of this and of that, and how much they are wanted.

use bodega_model::plan::making::Thickness;
use bodega_model::records::shelf::Goal;
use bodega_model::tables::process::Medium;
use rusqlite::params;

use crate::rows::{optional_word, word};
use crate::{Store, StoreError};

impl Store {
    /// The list, in the person's order.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn goals(&self) -> Result<Vec<Goal>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection.prepare_cached("SELECT * FROM goal ORDER BY position")?;
        let rows = statement.query_map([], |row| {
            Ok(Goal {
                product: word(row, "product")?,
                medium: optional_word(row, "medium")?,
                pack: word(row, "pack")?,
                thickness: optional_word(row, "thickness")?,
                jar: word(row, "jar")?,
                count: row.get("count")?,
                preference: row.get("preference")?,
            })
        })?;
        self.readable(rows)
    }

    /// Replaces the list.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be written or a value breaks the schema.
    pub fn set_goals(&self, goals: &[Goal]) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        transaction.execute("DELETE FROM goal", [])?;
        for goal in goals {
            transaction.execute(
                "INSERT INTO goal (product, medium, pack, thickness, jar, count, preference)
                 VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7)",
                params![
                    goal.product.word(),
                    goal.medium.map(Medium::word),
                    goal.pack.word(),
                    goal.thickness.map(Thickness::word),
                    goal.jar.word(),
                    goal.count,
                    goal.preference
                ],
            )?;
        }
        Ok(transaction.commit()?)
    }
}
