//! Jars on the bench: acid first, then food; later whether the lid holds.

use bodega_core::jars::bench::{JarStep, may_tick};
use bodega_core::jars::size::JarSize;
use bodega_core::measures::ids::{BatchId, JarId, LoadId};
use bodega_core::measures::moment::Moment;
use bodega_core::records::jar::Jar;
use rusqlite::{Connection, params};

use crate::rows::jar::one;
use crate::rows::load;
use crate::{Store, StoreError, lineup};

/// Column of a step.
const fn column(step: JarStep) -> &'static str {
    match step {
        JarStep::Acid => "acid_at",
        JarStep::Salt => "salt_at",
        JarStep::Filled => "filled_at",
        JarStep::Bubbles => "bubbles_at",
        JarStep::Rim => "rim_at",
        JarStep::Lid => "lid_at",
    }
}

/// Assignments that tick a step with all that it implies, or take it back with all that it opens again.
fn assignments(step: JarStep, done: bool) -> String {
    let assign = |step: &JarStep| {
        let column = column(*step);
        if done { format!("{column} = coalesce({column}, ?2)") } else { format!("{column} = nullif(?2, ?2)") }
    };
    let steps = if done { step.implies() } else { step.reopens() };
    steps.iter().map(assign).collect::<Vec<_>>().join(", ")
}

/// Ticks every step of a jar.
pub(crate) fn make_ready(connection: &Connection, jar: JarId, now: Moment) -> Result<(), StoreError> {
    for step in [JarStep::Acid, JarStep::Lid] {
        connection.execute(
            &format!("UPDATE jar SET {} WHERE id = ?1", assignments(step, true)),
            params![jar.0, now.0],
        )?;
    }
    Ok(())
}

impl Store {
    /// Ticks a step of one jar with all before it but the acid, or takes it back with all after it.
    ///
    /// # Errors
    /// [`StoreError::AcidFirst`] when anything else would come before acid; [`StoreError::NotFound`].
    pub fn tick_jar(&self, id: JarId, step: JarStep, done: bool, now: Moment) -> Result<Jar, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let jar = one(&transaction, id)?;
        if done {
            may_tick(&jar, step)?;
        }
        transaction.execute(
            &format!("UPDATE jar SET {} WHERE id = ?1", assignments(step, done)),
            params![id.0, now.0],
        )?;
        let jar = one(&transaction, id)?;
        transaction.commit()?;
        Ok(jar)
    }

    /// Recounts the jars of one batch and size in a load that waits on the bench, because the pot gave more or fewer.
    /// Jars are taken from the end; a filled one is never taken. Jars that the canner does not hold in this load go into
    /// the next waiting one with room, or into a load of their own.
    ///
    /// # Errors
    /// [`StoreError::LoadBegun`] once the load is in the canner; [`StoreError::JarFilled`] when filled jars would have
    /// to go; [`StoreError::CannerFull`] when the canner holds none of that size; [`StoreError::NotFound`].
    pub fn recount(&self, load: LoadId, batch: BatchId, size: JarSize, count: u32) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let found = load::one(&transaction, load)?;
        if found.clock.has_begun() {
            return Err(StoreError::LoadBegun);
        }
        let is_counted = |jar: &Jar| jar.size == size && jar.batch == batch;
        lineup::check_capacity(&found.canner, &[(size, 1)])?;
        let counted: Vec<&Jar> = found.jars.iter().filter(|jar| is_counted(jar)).collect();
        let have = counted.len();
        let want = count as usize;
        for jar in counted.iter().skip(want.min(have)) {
            if jar.filled {
                return Err(StoreError::JarFilled { number: jar.number });
            }
            transaction.execute("DELETE FROM jar WHERE id = ?1", [jar.id.0])?;
        }
        for _ in have..want {
            let into = lineup::with_room(&transaction, load, size)?;
            lineup::set_out(&transaction, batch, into, size)?;
        }
        Ok(transaction.commit()?)
    }

    /// Ticks a step, with all before it but the acid, of every jar of a load that has its acid. Returns how many jars
    /// that were.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be written.
    pub fn tick_load(&self, load: LoadId, step: JarStep, now: Moment) -> Result<usize, StoreError> {
        let sql = format!(
            "UPDATE jar SET {} WHERE load_id = ?1 AND (?3 OR acid_at IS NOT NULL)",
            assignments(step, true)
        );
        Ok(self.lock().execute(&sql, params![load.0, now.0, step == JarStep::Acid])?)
    }
}
