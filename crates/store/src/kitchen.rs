//! The kitchen: its height, its units, its canner and the containers it counts in.

use std::collections::BTreeMap;

use bodega_core::jar::JarSize;
use bodega_core::loads::Capacity;
use bodega_core::process::Method;
use rusqlite::{Connection, OptionalExtension, params};
use serde::{Deserialize, Serialize};

use crate::rows::{found, word};
use crate::{Store, StoreError};

/// Units a kitchen reads; records are metric whatever is shown.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Units {
    /// Pounds, quarts, inches, Fahrenheit.
    Us,
    /// Kilograms, litres, millimetres, Celsius.
    Metric,
}

impl Units {
    const fn word(self) -> &'static str {
        match self {
            Self::Us => "us",
            Self::Metric => "metric",
        }
    }
}

/// The kitchen and its canner.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Kitchen {
    /// What the household calls it.
    pub name: String,
    /// Height above sea level in feet; `null` until somebody finds it out, and then nothing is timed.
    pub altitude_ft: Option<f64>,
    /// Units to show.
    pub units: Units,
    /// Minutes from lifting one load to the next one's jars going in.
    pub turnaround_minutes: u32,
    /// The canner in use.
    pub canner: Canner,
}

/// A canner with what it holds.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Canner {
    /// Number of the record.
    pub id: i64,
    /// What the household calls it.
    pub name: String,
    /// How it heats.
    pub method: Method,
    /// Jars that fit when all are of one size.
    #[cfg_attr(feature = "schema", schema(value_type = BTreeMap<String, u32>))]
    pub capacity: BTreeMap<JarSize, u32>,
    /// Its inside, when somebody measured it.
    pub pot: Option<PotSize>,
}

/// A canner from inside, in millimetres.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PotSize {
    /// Inner width.
    pub inner_diameter_mm: f64,
    /// Inner height.
    pub inner_height_mm: f64,
    /// Top of the rack over the bottom.
    pub rack_height_mm: f64,
}

impl Canner {
    /// The capacity in the core's terms.
    #[must_use]
    pub fn capacities(&self) -> Vec<Capacity> {
        self.capacity.iter().map(|(jar, count)| Capacity { jar: *jar, count: *count }).collect()
    }
}

/// A change to the kitchen; absent fields stay.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct KitchenChange {
    /// New name.
    pub name: Option<String>,
    /// New altitude in feet.
    pub altitude_ft: Option<f64>,
    /// New units.
    pub units: Option<Units>,
    /// New turnaround.
    pub turnaround_minutes: Option<u32>,
    /// New inside of the canner.
    pub pot: Option<PotSize>,
    /// New capacity of the canner, whole.
    pub capacity: Option<BTreeMap<JarSize, u32>>,
}

/// A container the household has taught: counted instead of weighed.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Container {
    /// Number of the record.
    pub id: i64,
    /// What the household calls it.
    pub name: String,
    /// Grams of tomatoes in one.
    pub weight_g: i64,
}

/// Jars of each size a usual household canner holds. Quart and pint: USDA Guide 1, from memory; the rest common
/// practice, no source, to be corrected by the person.
const USUAL_CAPACITY: [(JarSize, u32); 6] = [
    (JarSize::HalfPint, 12),
    (JarSize::Pint, 9),
    (JarSize::HalfLitre, 8),
    (JarSize::PintAndHalf, 8),
    (JarSize::Quart, 7),
    (JarSize::Litre, 6),
];

/// Minutes between two loads to begin with; common practice, no source.
const USUAL_TURNAROUND: u32 = 25;

impl Store {
    /// Writes the first kitchen into an empty file.
    pub(crate) fn settle_kitchen(&self) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let there: Option<i64> =
            connection.query_row("SELECT id FROM kitchen", [], |row| row.get(0)).optional()?;
        if there.is_some() {
            return Ok(());
        }
        let transaction = connection.transaction()?;
        transaction.execute(
            "INSERT INTO kitchen (id, name, units, turnaround_minutes) VALUES (1, 'Our kitchen', 'us', ?1)",
            [USUAL_TURNAROUND],
        )?;
        transaction.execute(
            "INSERT INTO canner (id, name, method) VALUES (1, 'Canner', ?1)",
            [Method::BoilingWater.word()],
        )?;
        write_capacity(&transaction, 1, USUAL_CAPACITY)?;
        Ok(transaction.commit()?)
    }

    /// The kitchen as it is.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn kitchen(&self) -> Result<Kitchen, StoreError> {
        read_kitchen(&self.lock())
    }

    /// Changes the kitchen.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be written or a value breaks the schema.
    pub fn change_kitchen(&self, change: &KitchenChange) -> Result<Kitchen, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        transaction.execute(
            "UPDATE kitchen SET name = coalesce(?1, name), altitude_ft = coalesce(?2, altitude_ft),
             units = coalesce(?3, units), turnaround_minutes = coalesce(?4, turnaround_minutes)",
            params![
                change.name,
                change.altitude_ft,
                change.units.map(Units::word),
                change.turnaround_minutes
            ],
        )?;
        if let Some(pot) = &change.pot {
            transaction.execute(
                "UPDATE canner SET inner_diameter_mm = ?1, inner_height_mm = ?2, rack_height_mm = ?3
                 WHERE id = (SELECT min(id) FROM canner)",
                params![pot.inner_diameter_mm, pot.inner_height_mm, pot.rack_height_mm],
            )?;
        }
        if let Some(capacity) = &change.capacity {
            let canner = read_kitchen(&transaction)?.canner;
            transaction.execute("DELETE FROM canner_capacity WHERE canner_id = ?1", [canner.id])?;
            write_capacity(&transaction, canner.id, capacity.iter().map(|(jar, count)| (*jar, *count)))?;
        }
        let kitchen = read_kitchen(&transaction)?;
        transaction.commit()?;
        Ok(kitchen)
    }

    /// Containers the household has taught, by name.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn containers(&self) -> Result<Vec<Container>, StoreError> {
        let connection = self.lock();
        let mut statement =
            connection.prepare_cached("SELECT id, name, weight_g FROM container ORDER BY name")?;
        let rows = statement.query_map([], read_container)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Teaches a container.
    ///
    /// # Errors
    /// [`StoreError::NameTaken`] when one is called that already.
    pub fn add_container(&self, name: &str, weight_g: i64) -> Result<Container, StoreError> {
        let connection = self.lock();
        let taken: Option<i64> = connection
            .query_row("SELECT id FROM container WHERE name = ?1", [name], |row| row.get(0))
            .optional()?;
        if taken.is_some() {
            return Err(StoreError::NameTaken { name: name.to_owned() });
        }
        Ok(connection.query_row(
            "INSERT INTO container (name, weight_g) VALUES (?1, ?2) RETURNING id, name, weight_g",
            params![name, weight_g],
            read_container,
        )?)
    }

    /// Forgets a container; lots counted in it keep their weight.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is none.
    pub fn remove_container(&self, id: i64) -> Result<Container, StoreError> {
        let connection = self.lock();
        found(
            connection.query_row(
                "DELETE FROM container WHERE id = ?1 RETURNING id, name, weight_g",
                [id],
                read_container,
            ),
            "container",
            id,
        )
    }
}

fn read_container(row: &rusqlite::Row<'_>) -> rusqlite::Result<Container> {
    Ok(Container { id: row.get("id")?, name: row.get("name")?, weight_g: row.get("weight_g")? })
}

fn write_capacity(
    connection: &Connection,
    canner: i64,
    capacity: impl IntoIterator<Item = (JarSize, u32)>,
) -> Result<(), StoreError> {
    for (jar, count) in capacity {
        connection.execute(
            "INSERT INTO canner_capacity (canner_id, jar, count) VALUES (?1, ?2, ?3)",
            params![canner, jar.word(), count],
        )?;
    }
    Ok(())
}

pub(crate) fn read_kitchen(connection: &Connection) -> Result<Kitchen, StoreError> {
    let (id, canner_name, method, pot) =
        connection.query_row("SELECT * FROM canner ORDER BY id LIMIT 1", [], |row| {
            let inside: [Option<f64>; 3] =
                [row.get("inner_diameter_mm")?, row.get("inner_height_mm")?, row.get("rack_height_mm")?];
            let pot = match inside {
                [Some(inner_diameter_mm), Some(inner_height_mm), Some(rack_height_mm)] => {
                    Some(PotSize { inner_diameter_mm, inner_height_mm, rack_height_mm })
                }
                _ => None,
            };
            Ok((row.get("id")?, row.get("name")?, word(row, "method")?, pot))
        })?;
    let mut statement =
        connection.prepare_cached("SELECT jar, count FROM canner_capacity WHERE canner_id = ?1")?;
    let capacity = statement
        .query_map([id], |row| Ok((word(row, "jar")?, row.get("count")?)))?
        .collect::<Result<BTreeMap<JarSize, u32>, _>>()?;
    let canner = Canner { id, name: canner_name, method, capacity, pot };
    let sql = "SELECT name, altitude_ft, units, turnaround_minutes FROM kitchen";
    Ok(connection.query_row(sql, [], |row| {
        let units: String = row.get("units")?;
        Ok(Kitchen {
            name: row.get("name")?,
            altitude_ft: row.get("altitude_ft")?,
            units: if units == Units::Metric.word() { Units::Metric } else { Units::Us },
            turnaround_minutes: row.get("turnaround_minutes")?,
            canner,
        })
    })?)
}
