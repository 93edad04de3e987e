//! Jars on the bench: acid first, then food; later whether the lid holds.

use bodega_core::jars::bench::{JarStep, may_tick};
use bodega_core::jars::doses::DosedPot;
use bodega_core::jars::size::JarSize;
use bodega_core::measures::ids::{BatchId, JarId, LoadId};
use bodega_core::measures::moment::Moment;
use bodega_core::records::jar::Jar;
use rusqlite::{Connection, params};

use crate::plan::sizes;
use crate::rows::jar::{of_load, one};
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
            tick(&transaction, &jar, step, now)?;
        } else {
            transaction.execute(
                &format!("UPDATE jar SET {} WHERE id = ?1", assignments(step, false)),
                params![id.0, now.0],
            )?;
        }
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
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let mut ticked = 0;
        for jar in of_load(&transaction, load)? {
            match tick(&transaction, &jar, step, now) {
                Ok(()) => ticked += 1,
                Err(StoreError::AcidFirst(_)) => {}
                Err(other) => return Err(other),
            }
        }
        transaction.commit()?;
        Ok(ticked)
    }
}

/// Ticks a step of a jar that has its acid, or the acid itself. Acid that is in the pot is in the jar from the moment it is
/// filled.
fn tick(connection: &Connection, jar: &Jar, step: JarStep, now: Moment) -> Result<(), StoreError> {
    let pot = dosed_pot(connection, jar.batch)?;
    may_tick(jar, step, pot.as_slice())?;
    let acid = assignments(JarStep::Acid, true);
    let steps = match step {
        JarStep::Acid => format!("{acid}, acid_from_pot = 0"),
        _ if jar.acid => assignments(step, true),
        _ => format!("{acid}, acid_from_pot = 1, {}", assignments(step, true)),
    };
    connection.execute(&format!("UPDATE jar SET {steps} WHERE id = ?1"), params![jar.id.0, now.0])?;
    Ok(())
}

/// The pot of a batch, when acid was stirred into it.
fn dosed_pot(connection: &Connection, batch: BatchId) -> Result<Option<DosedPot>, StoreError> {
    let sql = "SELECT pot_dose_tsp FROM batch WHERE id = ?1";
    let given: Option<f64> = connection.query_row(sql, [batch.0], |row| row.get(0))?;
    let Some(given_tsp) = given else { return Ok(None) };
    Ok(Some(DosedPot { batch, given_tsp, jars: sizes(connection, batch)? }))
}
