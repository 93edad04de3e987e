//! The household's canners: how each heats, what it holds, what it stands on.

use std::collections::BTreeMap;

use bodega_core::jar::JarSize;
use bodega_core::loads::Capacity;
use bodega_core::process::Method;
use rusqlite::{Connection, Row, params};
use serde::{Deserialize, Serialize};

use crate::rows::{check_name_free, found, word};
use crate::{Store, StoreError, loads};

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
    /// Power of the burner under it in watts, when it is known.
    pub power_w: Option<f64>,
    /// Width of that burner in millimetres, when it is known.
    pub burner_mm: Option<f64>,
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

/// A change to a canner; absent fields stay.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct CannerChange {
    /// New name.
    pub name: Option<String>,
    /// How it heats.
    pub method: Option<Method>,
    /// New inside.
    pub pot: Option<PotSize>,
    /// New capacity, whole.
    pub capacity: Option<BTreeMap<JarSize, u32>>,
    /// Power of its burner in watts.
    pub power_w: Option<f64>,
    /// Width of its burner in millimetres.
    pub burner_mm: Option<f64>,
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

fn read(row: &Row<'_>) -> rusqlite::Result<Canner> {
    let inside: [Option<f64>; 3] =
        [row.get("inner_diameter_mm")?, row.get("inner_height_mm")?, row.get("rack_height_mm")?];
    let pot = match inside {
        [Some(inner_diameter_mm), Some(inner_height_mm), Some(rack_height_mm)] => {
            Some(PotSize { inner_diameter_mm, inner_height_mm, rack_height_mm })
        }
        _ => None,
    };
    Ok(Canner {
        id: row.get("id")?,
        name: row.get("name")?,
        method: word(row, "method")?,
        capacity: BTreeMap::new(),
        pot,
        power_w: row.get("power_w")?,
        burner_mm: row.get("burner_mm")?,
    })
}

fn with_capacity(connection: &Connection, canner: Canner) -> Result<Canner, StoreError> {
    let mut statement =
        connection.prepare_cached("SELECT jar, count FROM canner_capacity WHERE canner_id = ?1")?;
    let capacity = statement
        .query_map([canner.id], |row| Ok((word(row, "jar")?, row.get("count")?)))?
        .collect::<Result<_, _>>()?;
    Ok(Canner { capacity, ..canner })
}

/// Every canner, the first one first.
pub(crate) fn all(connection: &Connection) -> Result<Vec<Canner>, StoreError> {
    let mut statement = connection.prepare_cached("SELECT * FROM canner ORDER BY id")?;
    let canners = statement.query_map([], read)?.collect::<Result<Vec<_>, _>>()?;
    canners.into_iter().map(|canner| with_capacity(connection, canner)).collect()
}

pub(crate) fn one(connection: &Connection, id: i64) -> Result<Canner, StoreError> {
    let canner = found(connection.query_row("SELECT * FROM canner WHERE id = ?1", [id], read), "canner", id)?;
    with_capacity(connection, canner)
}

/// Adds a canner that holds what a usual one holds.
pub(crate) fn add(connection: &Connection, name: &str, method: Method) -> Result<i64, StoreError> {
    connection.execute("INSERT INTO canner (name, method) VALUES (?1, ?2)", params![name, method.word()])?;
    let id = connection.last_insert_rowid();
    write_capacity(connection, id, USUAL_CAPACITY)?;
    Ok(id)
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

impl Store {
    /// Adds a canner.
    ///
    /// # Errors
    /// [`StoreError::NameTaken`] when one is called that already.
    pub fn add_canner(&self, name: &str, method: Method) -> Result<Canner, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        check_name_free(&transaction, "canner", name, None)?;
        let id = add(&transaction, name, method)?;
        let canner = one(&transaction, id)?;
        transaction.commit()?;
        Ok(canner)
    }

    /// Changes a canner.
    ///
    /// # Errors
    /// [`StoreError::NotFound`]; [`StoreError::NameTaken`]; [`StoreError::CannerPlanned`] when its way of heating would
    /// change under loads that were planned for it.
    pub fn change_canner(&self, id: i64, change: &CannerChange) -> Result<Canner, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let before = one(&transaction, id)?;
        if let Some(name) = &change.name {
            check_name_free(&transaction, "canner", name, Some(id))?;
        }
        if change.method.is_some_and(|method| method != before.method)
            && loads::are_open_for(&transaction, id)?
        {
            return Err(StoreError::CannerPlanned { name: before.name });
        }
        let pot = change.pot.or(before.pot);
        transaction.execute(
            "UPDATE canner SET name = ?2, method = ?3, inner_diameter_mm = ?4, inner_height_mm = ?5,
             rack_height_mm = ?6, power_w = ?7, burner_mm = ?8 WHERE id = ?1",
            params![
                id,
                change.name.as_ref().unwrap_or(&before.name),
                change.method.unwrap_or(before.method).word(),
                pot.map(|pot| pot.inner_diameter_mm),
                pot.map(|pot| pot.inner_height_mm),
                pot.map(|pot| pot.rack_height_mm),
                change.power_w.or(before.power_w),
                change.burner_mm.or(before.burner_mm),
            ],
        )?;
        if let Some(capacity) = &change.capacity {
            transaction.execute("DELETE FROM canner_capacity WHERE canner_id = ?1", [id])?;
            write_capacity(&transaction, id, capacity.iter().map(|(jar, count)| (*jar, *count)))?;
        }
        let canner = one(&transaction, id)?;
        transaction.commit()?;
        Ok(canner)
    }
}
