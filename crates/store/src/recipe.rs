//! Recipes of the household, and what stands in the bowls of one.

use bodega_core::measures::ids::{BowlsId, RecipeId};
use bodega_core::measures::moment::Moment;
use bodega_core::recipe::part::Part;
use bodega_core::records::recipe::{Bowls, Recipe, RecipeText};
use rusqlite::{Connection, Row, params};

use crate::rows::{found, from_json, moment, to_json};
use crate::{Store, StoreError};

fn read_recipe(row: &Row<'_>) -> rusqlite::Result<Recipe> {
    Ok(Recipe {
        id: RecipeId(row.get("id")?),
        parent: row.get::<_, Option<i64>>("parent_id")?.map(RecipeId),
        text: from_json(&row.get::<_, String>("text")?)?,
        at: Moment(row.get("at")?),
    })
}

fn read_bowls(row: &Row<'_>) -> rusqlite::Result<Bowls> {
    Ok(Bowls {
        id: BowlsId(row.get("id")?),
        recipe: RecipeId(row.get("recipe_id")?),
        factor: row.get("factor")?,
        base: from_json(&row.get::<_, String>("base")?)?,
        actual: from_json(&row.get::<_, String>("actual")?)?,
        mixed_at: moment(row, "mixed_at")?,
        at: Moment(row.get("at")?),
    })
}

pub(crate) fn one_recipe(connection: &Connection, id: RecipeId) -> Result<Recipe, StoreError> {
    let sql = "SELECT * FROM recipe WHERE id = ?1 AND removed_at IS NULL";
    found(connection.query_row(sql, [id.0], read_recipe), "recipe", id.0)
}

pub(crate) fn one_bowls(connection: &Connection, id: BowlsId) -> Result<Bowls, StoreError> {
    let sql = "SELECT * FROM bowls WHERE id = ?1 AND removed_at IS NULL";
    found(connection.query_row(sql, [id.0], read_bowls), "bowls", id.0)
}

/// Writes down when something was put away; nothing when it is back.
fn put_away(
    connection: &Connection,
    sql: &str,
    (what, id): (&'static str, i64),
    at: Option<Moment>,
) -> Result<(), StoreError> {
    match connection.execute(sql, params![id, at.map(|at| at.0)]).map_err(StoreError::from_write)? {
        0 => Err(StoreError::NotFound { what, id }),
        _ => Ok(()),
    }
}

impl Store {
    /// The household's recipes, newest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn recipes(&self) -> Result<Vec<Recipe>, StoreError> {
        let connection = self.lock();
        let sql = "SELECT * FROM recipe WHERE removed_at IS NULL ORDER BY id DESC";
        let mut statement = connection.prepare_cached(sql)?;
        self.readable(statement.query_map([], read_recipe)?)
    }

    /// One recipe.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn recipe(&self, id: RecipeId) -> Result<Recipe, StoreError> {
        one_recipe(&self.lock(), id)
    }

    /// Writes a recipe down.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when it is a copy of one that is not there.
    pub fn add_recipe(
        &self,
        text: &RecipeText,
        parent: Option<RecipeId>,
        now: Moment,
    ) -> Result<Recipe, StoreError> {
        let connection = self.lock();
        if let Some(parent) = parent {
            one_recipe(&connection, parent)?;
        }
        connection
            .execute(
                "INSERT INTO recipe (parent_id, at, text) VALUES (?1, ?2, ?3)",
                params![parent.map(|parent| parent.0), now.0, to_json(text)?],
            )
            .map_err(StoreError::from_write)?;
        one_recipe(&connection, RecipeId(connection.last_insert_rowid()))
    }

    /// Writes a recipe down anew.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn set_recipe(&self, id: RecipeId, text: &RecipeText) -> Result<Recipe, StoreError> {
        let connection = self.lock();
        one_recipe(&connection, id)?;
        connection
            .execute("UPDATE recipe SET text = ?2 WHERE id = ?1", params![id.0, to_json(text)?])
            .map_err(StoreError::from_write)?;
        one_recipe(&connection, id)
    }

    /// Takes a recipe out of the book, or puts it back; what was made of it stays.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn remove_recipe(&self, id: RecipeId, removed: bool, now: Moment) -> Result<(), StoreError> {
        let sql = "UPDATE recipe SET removed_at = ?2 WHERE id = ?1";
        put_away(&self.lock(), sql, ("recipe", id.0), removed.then_some(now))
    }

    /// The bowls of a recipe that are not put away, newest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn bowls_of(&self, recipe: RecipeId) -> Result<Vec<Bowls>, StoreError> {
        let connection = self.lock();
        let sql = "SELECT * FROM bowls WHERE recipe_id = ?1 AND removed_at IS NULL ORDER BY id DESC";
        let mut statement = connection.prepare_cached(sql)?;
        self.readable(statement.query_map([recipe.0], read_bowls)?)
    }

    /// Sets bowls out for a recipe that is made so many times.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn add_bowls(
        &self,
        recipe: RecipeId,
        factor: f64,
        (base, actual): (&[Part], &[Part]),
        now: Moment,
    ) -> Result<Bowls, StoreError> {
        let connection = self.lock();
        one_recipe(&connection, recipe)?;
        connection
            .execute(
                "INSERT INTO bowls (recipe_id, at, factor, base, actual) VALUES (?1, ?2, ?3, ?4, ?5)",
                params![recipe.0, now.0, factor, to_json(base)?, to_json(actual)?],
            )
            .map_err(StoreError::from_write)?;
        one_bowls(&connection, BowlsId(connection.last_insert_rowid()))
    }

    /// One set of bowls.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn bowls(&self, id: BowlsId) -> Result<Bowls, StoreError> {
        one_bowls(&self.lock(), id)
    }

    /// Changes what is in the bowls, and whether it is mixed, in one step: nobody else's change comes in between.
    ///
    /// # Errors
    /// [`StoreError::NotFound`], or what `change` says.
    pub fn change_bowls<E: From<StoreError>>(
        &self,
        id: BowlsId,
        change: impl FnOnce(Bowls) -> Result<(Vec<Part>, Option<Moment>), E>,
    ) -> Result<Bowls, E> {
        let connection = self.lock();
        let (actual, mixed_at) = change(one_bowls(&connection, id)?)?;
        connection
            .execute(
                "UPDATE bowls SET actual = ?2, mixed_at = ?3 WHERE id = ?1",
                params![id.0, to_json(&actual)?, mixed_at.map(|at| at.0)],
            )
            .map_err(StoreError::from_write)?;
        Ok(one_bowls(&connection, id)?)
    }

    /// Puts bowls away, or sets them out again.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn remove_bowls(&self, id: BowlsId, removed: bool, now: Moment) -> Result<(), StoreError> {
        let sql = "UPDATE bowls SET removed_at = ?2 WHERE id = ?1";
        put_away(&self.lock(), sql, ("bowls", id.0), removed.then_some(now))
    }
}
