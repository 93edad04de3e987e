//! Jars on the bench: acid first, then food; later whether the lid holds.

use bodega_core::acid::Agent;
use bodega_core::jar::JarSize;
use bodega_core::moment::Moment;
use bodega_core::process::{Medium, Pack, Product};
use rusqlite::{Connection, Row, params};
use serde::{Deserialize, Serialize};

use crate::rows::{found, moment, optional_word, word};
use crate::{Canner, Store, StoreError, loads};

/// One jar, what it is and what has been done to it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Jar {
    /// Number of the record.
    pub id: i64,
    /// Its batch.
    pub batch: i64,
    /// Code of its batch.
    pub code: String,
    /// Number of the jar in its batch, from 1.
    pub number: u32,
    /// What goes in.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Its acid.
    pub agent: Agent,
    /// Whether salt is wanted.
    pub wants_salt: bool,
    /// Size.
    pub size: JarSize,
    /// Acid is in.
    pub acid: bool,
    /// Salt is in.
    pub salt: bool,
    /// Filled to the headspace.
    pub filled: bool,
    /// Bubbles are out, headspace checked again.
    pub bubbles: bool,
    /// Rim is wiped.
    pub rim: bool,
    /// Lid and ring are on: ready for the canner.
    pub lid: bool,
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

/// A step on the bench, in working order.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum JarStep {
    /// Acid into the empty jar.
    Acid,
    /// Salt.
    Salt,
    /// Food in, to the headspace.
    Filled,
    /// Bubbles out, headspace again.
    Bubbles,
    /// Rim wiped.
    Rim,
    /// Lid and ring on.
    Lid,
}

/// Columns of the steps, in working order.
const STEPS: [(JarStep, &str); 6] = [
    (JarStep::Acid, "acid_at"),
    (JarStep::Salt, "salt_at"),
    (JarStep::Filled, "filled_at"),
    (JarStep::Bubbles, "bubbles_at"),
    (JarStep::Rim, "rim_at"),
    (JarStep::Lid, "lid_at"),
];

/// Assignments that tick a step and all before it (a lid that is on has a wiped rim under it), or take it back with all
/// that follow it. Acid is never implied.
fn assignments(step: JarStep, done: bool) -> String {
    let place = STEPS.iter().position(|(other, _)| *other == step).unwrap_or_default();
    let tick = |(_, column): &(JarStep, &str)| format!("{column} = coalesce({column}, ?2)");
    let clear = |(_, column): &(JarStep, &str)| format!("{column} = nullif(?2, ?2)");
    let columns: Vec<String> = if done {
        STEPS[usize::from(place > 0)..=place].iter().map(tick).collect()
    } else {
        STEPS[place..].iter().map(clear).collect()
    };
    columns.join(", ")
}

fn read(row: &Row<'_>) -> rusqlite::Result<Jar> {
    let is = |column: &str| moment(row, column).map(|at| at.is_some());
    Ok(Jar {
        id: row.get("id")?,
        batch: row.get("batch_id")?,
        code: row.get("code")?,
        number: row.get("number")?,
        product: word(row, "product")?,
        medium: optional_word(row, "medium")?,
        pack: word(row, "pack")?,
        agent: word(row, "agent")?,
        wants_salt: row.get("salt")?,
        size: word(row, "size")?,
        acid: is("acid_at")?,
        salt: is("salt_at")?,
        filled: is("filled_at")?,
        bubbles: is("bubbles_at")?,
        rim: is("rim_at")?,
        lid: is("lid_at")?,
    })
}

const SELECT: &str =
    "SELECT jar.*, code, product, medium, pack, agent, salt FROM jar JOIN batch ON batch.id = batch_id";

/// The jars of one load, in order; those of a batch that was taken off the line are not set out.
pub(crate) fn of_load(connection: &Connection, load: i64) -> Result<Vec<Jar>, StoreError> {
    let mut statement = connection.prepare_cached(&format!(
        "{SELECT} WHERE load_id = ?1 AND (removed_at IS NULL OR batch_id = (SELECT batch_id FROM canner_load WHERE id = ?1))
         ORDER BY batch_id, number"
    ))?;
    Ok(statement.query_map([load], read)?.collect::<Result<_, _>>()?)
}

fn one(connection: &Connection, id: i64) -> Result<Jar, StoreError> {
    found(connection.query_row(&format!("{SELECT} WHERE jar.id = ?1"), [id], read), "jar", id)
}

/// Sets one more jar out for a load; returns its number of the record.
pub(crate) fn set_out(
    connection: &Connection,
    batch: i64,
    load: i64,
    size: JarSize,
) -> Result<i64, StoreError> {
    connection.execute(
        "INSERT INTO jar (batch_id, load_id, number, size)
         SELECT ?1, ?2, coalesce(max(number), 0) + 1, ?3 FROM jar WHERE batch_id = ?1",
        params![batch, load, size.word()],
    )?;
    Ok(connection.last_insert_rowid())
}

/// Ticks every step of a jar.
pub(crate) fn make_ready(connection: &Connection, jar: i64, now: Moment) -> Result<(), StoreError> {
    for step in [JarStep::Acid, JarStep::Lid] {
        connection.execute(
            &format!("UPDATE jar SET {} WHERE id = ?1", assignments(step, true)),
            params![jar, now.0],
        )?;
    }
    Ok(())
}

/// Whether a canner holds these jars in one load.
pub(crate) fn check_capacity(canner: &Canner, sizes: &[(JarSize, u32)]) -> Result<(), StoreError> {
    let share = |(size, count): &(JarSize, u32)| {
        canner.capacity.get(size).map_or(f64::INFINITY, |most| f64::from(*count) / f64::from(*most))
    };
    let in_use = sizes.iter().filter(|(_, count)| *count > 0);
    if in_use.map(share).sum::<f64>() > 1.0 + 1e-9 { Err(StoreError::CannerFull) } else { Ok(()) }
}

impl Store {
    /// Ticks a step of one jar with all before it but the acid, or takes it back with all after it.
    ///
    /// # Errors
    /// [`StoreError::AcidFirst`] when anything else would come before acid; [`StoreError::NotFound`].
    pub fn tick_jar(&self, id: i64, step: JarStep, done: bool, now: Moment) -> Result<Jar, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let jar = one(&transaction, id)?;
        if done && step != JarStep::Acid && !jar.acid {
            return Err(StoreError::AcidFirst { number: jar.number });
        }
        transaction.execute(
            &format!("UPDATE jar SET {} WHERE id = ?1", assignments(step, done)),
            params![id, now.0],
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
    pub fn recount(&self, load: i64, batch: i64, size: JarSize, count: u32) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let found = loads::one(&transaction, load)?;
        if found.clock.has_begun() {
            return Err(StoreError::LoadBegun);
        }
        let is_counted = |jar: &Jar| jar.size == size && jar.batch == batch;
        check_capacity(&found.canner, &[(size, 1)])?;
        let counted: Vec<&Jar> = found.jars.iter().filter(|jar| is_counted(jar)).collect();
        let have = counted.len();
        let want = count as usize;
        for jar in counted.iter().skip(want.min(have)) {
            if jar.filled {
                return Err(StoreError::JarFilled { number: jar.number });
            }
            transaction.execute("DELETE FROM jar WHERE id = ?1", [jar.id])?;
        }
        for _ in have..want {
            let into = loads::with_room(&transaction, load, size)?;
            set_out(&transaction, batch, into, size)?;
        }
        Ok(transaction.commit()?)
    }

    /// Ticks a step, with all before it but the acid, of every jar of a load that has its acid. Returns how many jars
    /// that were.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be written.
    pub fn tick_load(&self, load: i64, step: JarStep, now: Moment) -> Result<usize, StoreError> {
        let sql = format!(
            "UPDATE jar SET {} WHERE load_id = ?1 AND (?3 OR acid_at IS NOT NULL)",
            assignments(step, true)
        );
        Ok(self.lock().execute(&sql, params![load, now.0, step == JarStep::Acid])?)
    }
}
