//! The household's canners: how each heats, what it holds, what it stands on.

use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::CannerId;
use bodega_model::records::canner::{Canner, CannerChange, USUAL_CAPACITY};
use bodega_model::tables::process::Method;
use rusqlite::{Connection, params};

use crate::rows::canner::one;
use crate::rows::check_name_free;
use crate::rows::load::are_open_for;
use crate::{Store, StoreError};

/// Adds a canner that holds what a usual one holds.
pub(crate) fn add(connection: &Connection, name: &str, method: Method) -> Result<CannerId, StoreError> {
    connection.execute("INSERT INTO canner (name, method) VALUES (?1, ?2)", params![name, method.word()])?;
    let id = CannerId(connection.last_insert_rowid());
    write_capacity(connection, id, USUAL_CAPACITY.map(|(jar, count)| (jar, Some(count))))?;
    Ok(id)
}

fn write_capacity(
    connection: &Connection,
    canner: CannerId,
    capacity: impl IntoIterator<Item = (JarSize, Option<u32>)>,
) -> Result<(), StoreError> {
    for (jar, count) in capacity {
        connection.execute(
            "DELETE FROM canner_capacity WHERE canner_id = ?1 AND jar = ?2",
            params![canner.0, jar.word()],
        )?;
        if let Some(count) = count {
            connection.execute(
                "INSERT INTO canner_capacity (canner_id, jar, count) VALUES (?1, ?2, ?3)",
                params![canner.0, jar.word(), count],
            )?;
        }
    }
    Ok(())
}

impl Store {
    /// One canner.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn canner(&self, id: CannerId) -> Result<Canner, StoreError> {
        one(&*self.read()?, id)
    }

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
    pub fn change_canner(&self, id: CannerId, change: &CannerChange) -> Result<Canner, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let before = one(&transaction, id)?;
        if let Some(name) = &change.name {
            check_name_free(&transaction, "canner", name, Some(id.0))?;
        }
        if change.method.is_some_and(|method| method != before.method) && are_open_for(&transaction, id)? {
            return Err(StoreError::CannerPlanned { name: before.name });
        }
        let pot = change.pot.or(before.pot);
        transaction.execute(
            "UPDATE canner SET name = ?2, method = ?3, inner_diameter_mm = ?4, inner_height_mm = ?5,
             rack_height_mm = ?6, power_w = ?7, burner_mm = ?8, inner_length_mm = ?9, multi_cooker = ?10, gauge_tested_in = ?11
             WHERE id = ?1",
            params![
                id.0,
                change.name.as_ref().unwrap_or(&before.name),
                change.method.unwrap_or(before.method).word(),
                pot.map(|pot| pot.inner_diameter_mm),
                pot.map(|pot| pot.inner_height_mm),
                pot.map(|pot| pot.rack_height_mm),
                change.power_w.or(before.power_w),
                change.burner_mm.or(before.burner_mm),
                pot.and_then(|pot| pot.inner_length_mm),
                change.multi_cooker.unwrap_or(before.multi_cooker),
                change.gauge_tested_in.or(before.gauge_tested_in),
            ],
        )?;
        if let Some(capacity) = &change.capacity {
            write_capacity(&transaction, id, capacity.iter().map(|(jar, count)| (*jar, *count)))?;
        }
        let canner = one(&transaction, id)?;
        transaction.commit()?;
        Ok(canner)
    }
}
