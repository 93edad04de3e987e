//! What the shelf asks for: so many jars of this and of that, and how much they are wanted.

use bodega_core::jar::JarSize;
use bodega_core::process::{Medium, Pack, Product};
use bodega_core::yields::Thickness;
use rusqlite::params;
use serde::{Deserialize, Serialize};

use crate::rows::{optional_word, word};
use crate::{Store, StoreError};

/// One line of the list.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Goal {
    /// What.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// In which jars.
    pub jar: JarSize,
    /// How many, 0 to 1,000.
    pub count: u32,
    /// How much they are wanted, 1 to 3.
    pub preference: u32,
}

impl Store {
    /// The list, in the person's order.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn goals(&self) -> Result<Vec<Goal>, StoreError> {
        let connection = self.lock();
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
        Ok(rows.collect::<Result<_, _>>()?)
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
