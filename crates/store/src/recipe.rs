//! Recipes of the household, and what stands in the bowls of one.

use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::{BatchId, BowlsId, RecipeId};
use bodega_model::measures::moment::Moment;
use bodega_model::recipe::part::Part;
use bodega_model::records::recipe::{Bowls, Recipe, RecipeText};
use rusqlite::{Connection, OptionalExtension, params};

use crate::rows::batch::all_lifted;
use crate::rows::recipe::{
    any_bowls, any_recipe, check_done, insert_bowls, one_bowls, one_recipe, read_bowls, read_recipe,
};
use crate::rows::to_json;
use crate::{Store, StoreError};

/// Writes down when something was put away; nothing when it is back.
pub(crate) fn put_away(
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
        let connection = self.read()?;
        let sql = "SELECT * FROM recipe WHERE removed_at IS NULL ORDER BY id DESC";
        let mut statement = connection.prepare_cached(sql)?;
        self.readable(statement.query_map([], read_recipe)?)
    }

    /// One recipe.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn recipe(&self, id: RecipeId) -> Result<Recipe, StoreError> {
        one_recipe(&*self.read()?, id)
    }

    /// One recipe, in the book or taken out of it: what was begun by it goes on.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn any_recipe(&self, id: RecipeId) -> Result<Recipe, StoreError> {
        any_recipe(&*self.read()?, id)
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

    /// The bowls of a recipe that something is still to be done with, newest first: those that are put away, and those whose jars
    /// are all out of the canner, are in its history.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn bowls_of(&self, recipe: RecipeId) -> Result<Vec<Bowls>, StoreError> {
        let connection = self.read()?;
        let sql = concat!(
            "SELECT * FROM bowls WHERE recipe_id = ?1 AND removed_at IS NULL AND NOT EXISTS (
                SELECT 1 FROM batch WHERE bowls_id = bowls.id AND batch.removed_at IS NULL AND ",
            all_lifted!(),
            ") ORDER BY id DESC"
        );
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
        let id = insert_bowls(&connection, recipe, factor, (base, actual), now)?;
        one_bowls(&connection, id)
    }

    /// One set of bowls.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn bowls(&self, id: BowlsId) -> Result<Bowls, StoreError> {
        one_bowls(&*self.read()?, id)
    }

    /// One set of bowls, set out or put away: a batch's record keeps them.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn any_bowls(&self, id: BowlsId) -> Result<Bowls, StoreError> {
        any_bowls(&*self.read()?, id)
    }

    /// The batch on the line that is made from bowls.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batch_of_bowls(&self, id: BowlsId) -> Result<Option<BatchId>, StoreError> {
        let sql = "SELECT id FROM batch WHERE bowls_id = ?1 AND removed_at IS NULL";
        Ok(self.read()?.query_row(sql, [id.0], |row| row.get(0).map(BatchId)).optional()?)
    }

    /// The jars that are set out for bowls, by size; none while no batch is made from them.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn jars_of_bowls(&self, id: BowlsId) -> Result<Vec<(JarSize, u32)>, StoreError> {
        self.batch_of_bowls(id)?.map_or(Ok(Vec::new()), |batch| self.batch_sizes(batch))
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
    /// [`StoreError::NotFound`]; [`StoreError::BowlsTaken`] while a batch on the line is made from them: but for one of which
    /// nothing is canned, once it was told where it went.
    pub fn remove_bowls(&self, id: BowlsId, removed: bool, now: Moment) -> Result<(), StoreError> {
        let connection = self.lock();
        if removed {
            check_done(&connection, id)?;
        }
        let sql = "UPDATE bowls SET removed_at = ?2 WHERE id = ?1";
        put_away(&connection, sql, ("bowls", id.0), removed.then_some(now))
    }
}
