//! The towel and the shelf: which jars cool, which lids hold, what stands where since when.

use bodega_core::acid::Agent;
use bodega_core::altitude::Altitude;
use bodega_core::boil_clock::Fate;
use bodega_core::jar::JarSize;
use bodega_core::moment::Moment;
use bodega_core::process::{Medium, Pack, Product, Query, look_up};
use bodega_core::seal::window;
use rusqlite::params;
use serde::Serialize;

use crate::rows::{found, optional_word, word};
use crate::{CannerLoad, Store, StoreError, loads};

/// A load that cools on the towel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Towel {
    /// The load.
    pub load_id: i64,
    /// Batch code.
    pub code: String,
    /// What is in the jars.
    pub product: Product,
    /// When the jars were lifted.
    pub lifted_at: Moment,
    /// The seals may be checked from here on.
    pub check_from: Moment,
    /// The seals should be checked by then; after it a failed jar is no longer reprocessed.
    pub check_by: Moment,
    /// Jars whose lids were not judged yet, or failed.
    pub jars: Vec<TowelJar>,
}

/// One jar on the towel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TowelJar {
    /// Number of the record.
    pub id: i64,
    /// Number in its batch.
    pub number: u32,
    /// Size.
    pub size: JarSize,
    /// `true` holds, `false` failed, `null` not judged yet.
    pub holds: Option<bool>,
    /// When it was judged.
    pub judged_at: Option<Moment>,
}

/// Like jars on the shelf.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ShelfGroup {
    /// Batch code.
    pub code: String,
    /// What is in the jars.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Acid in every jar.
    pub agent: Agent,
    /// Size.
    pub size: JarSize,
    /// When the jars came out of the canner.
    pub canned_at: Moment,
    /// How many.
    pub count: u32,
}

/// Jars out of the canner, with when they were lifted.
const LIFTED: &str = "FROM jar
    JOIN batch ON batch.id = jar.batch_id
    JOIN load_event ON load_event.load_id = jar.load_id AND load_event.event = 'lifted' AND load_event.undone_at IS NULL
    WHERE batch.removed_at IS NULL AND NOT EXISTS (
        SELECT 1 FROM load_event AS broke
        WHERE broke.jar_id = jar.id AND broke.event = 'jar_broken' AND broke.undone_at IS NULL)";

/// Whether a jar had its full time: with its load, or by its own when it was lifted early.
fn is_processed(load: &CannerLoad, jar: i64, now: Moment) -> bool {
    let own = load.jars.iter().find(|other| other.id == jar).and_then(|jar| {
        let altitude = Altitude::from_feet(load.batch.altitude_ft).ok()?;
        let method = load.batch.method;
        let query = Query {
            product: jar.product,
            medium: jar.medium,
            pack: jar.pack,
            method,
            jar: jar.size,
            altitude,
        };
        Some(look_up(&query).ok()?.options[0].minutes)
    });
    match load.clock.fate(jar, own.unwrap_or_else(|| load.clock.required())) {
        Fate::Stayed => load.clock.is_processed(now),
        Fate::OutInTime => true,
        Fate::OutTooEarly | Fate::Broken => false,
    }
}

impl Store {
    /// Loads on the towel, oldest first; a load leaves when every lid holds.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn towel(&self) -> Result<Vec<Towel>, StoreError> {
        let connection = self.lock();
        let sql = format!(
            "SELECT jar.id, number, size, seal, seal_at, jar.load_id, code, product, load_event.at {LIFTED}
             AND jar.load_id IN (SELECT load_id FROM jar WHERE seal IS NULL OR seal = 'failed')
             ORDER BY load_event.at, jar.load_id, batch.id, number"
        );
        let mut statement = connection.prepare_cached(&sql)?;
        let mut rows = statement.query([])?;
        let mut towels: Vec<Towel> = Vec::new();
        while let Some(row) = rows.next()? {
            let load_id = row.get("load_id")?;
            let lifted_at = Moment(row.get("at")?);
            if towels.last().is_none_or(|towel| towel.load_id != load_id) {
                let (check_from, check_by) = window(lifted_at);
                let (code, product) = (row.get("code")?, word(row, "product")?);
                towels.push(Towel {
                    load_id,
                    code,
                    product,
                    lifted_at,
                    check_from,
                    check_by,
                    jars: Vec::new(),
                });
            }
            let seal: Option<String> = row.get("seal")?;
            if let Some(towel) = towels.last_mut() {
                towel.jars.push(TowelJar {
                    id: row.get("id")?,
                    number: row.get("number")?,
                    size: word(row, "size")?,
                    holds: seal.map(|seal| seal == "holds"),
                    judged_at: row.get::<_, Option<i64>>("seal_at")?.map(Moment),
                });
            }
        }
        Ok(towels)
    }

    /// Records for some jars whether their lids hold, or takes the judgement back with `None`; all of them or none.
    ///
    /// # Errors
    /// [`StoreError::NotOnTowel`] while one of them is not out of the canner; [`StoreError::NotProcessed`] when a lid is
    /// said to hold on a jar whose boil was too short; [`StoreError::NotFound`].
    pub fn judge_seals(&self, jars: &[i64], holds: Option<bool>, now: Moment) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let seal = holds.map(|holds| if holds { "holds" } else { "failed" });
        for jar in jars {
            let (number, load): (u32, i64) = found(
                transaction.query_row("SELECT number, load_id FROM jar WHERE id = ?1", [jar], |row| {
                    Ok((row.get(0)?, row.get(1)?))
                }),
                "jar",
                *jar,
            )?;
            let sql = format!("SELECT count(*) {LIFTED} AND jar.id = ?1");
            if transaction.query_row(&sql, [jar], |row| row.get::<_, i64>(0))? == 0 {
                return Err(StoreError::NotOnTowel { number });
            }
            if holds == Some(true) && !is_processed(&loads::one(&transaction, load)?, *jar, now) {
                return Err(StoreError::NotProcessed { number });
            }
            transaction.execute(
                "UPDATE jar SET seal = ?2, seal_at = ?3 WHERE id = ?1",
                params![jar, seal, seal.map(|_| now.0)],
            )?;
        }
        Ok(transaction.commit()?)
    }

    /// Jars on the shelf by product and date, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn shelf(&self) -> Result<Vec<ShelfGroup>, StoreError> {
        let connection = self.lock();
        let sql = format!(
            "SELECT code, product, medium, pack, agent, size, min(load_event.at) AS canned_at, count(*) AS count {LIFTED}
             AND seal = 'holds' GROUP BY batch.id, size ORDER BY canned_at, batch.id"
        );
        let mut statement = connection.prepare_cached(&sql)?;
        let groups = statement
            .query_map([], |row| {
                Ok(ShelfGroup {
                    code: row.get("code")?,
                    product: word(row, "product")?,
                    medium: optional_word(row, "medium")?,
                    pack: word(row, "pack")?,
                    agent: word(row, "agent")?,
                    size: word(row, "size")?,
                    canned_at: Moment(row.get("canned_at")?),
                    count: row.get("count")?,
                })
            })?
            .collect::<Result<_, _>>()?;
        Ok(groups)
    }
}
