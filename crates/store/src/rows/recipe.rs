//! Recipes and bowls as rows.

use bodega_model::measures::ids::{BatchId, BowlsId, RecipeId};
use bodega_model::measures::moment::Moment;
use bodega_model::recipe::part::Part;
use bodega_model::records::recipe::{Bowls, Recipe};
use rusqlite::{Connection, OptionalExtension, Row, params};

use super::{found, from_json, moment, row_of, to_json};
use crate::StoreError;

pub(crate) fn read_recipe(row: &Row<'_>) -> rusqlite::Result<Recipe> {
    Ok(Recipe {
        id: RecipeId(row.get("id")?),
        parent: row.get::<_, Option<i64>>("parent_id")?.map(RecipeId),
        text: from_json(&row.get::<_, String>("text")?)?,
        at: Moment(row.get("at")?),
    })
}

pub(crate) fn read_bowls(row: &Row<'_>) -> rusqlite::Result<Bowls> {
    Ok(Bowls {
        id: BowlsId(row.get("id")?),
        recipe: RecipeId(row.get("recipe_id")?),
        factor: row.get("factor")?,
        base: from_json(&row.get::<_, String>("base")?)?,
        actual: from_json(&row.get::<_, String>("actual")?)?,
        mixed_at: moment(row, "mixed_at")?,
        labels_asked: row.get("labels_asked")?,
        at: Moment(row.get("at")?),
    })
}

pub(crate) fn one_recipe(connection: &Connection, id: RecipeId) -> Result<Recipe, StoreError> {
    let sql = "SELECT * FROM recipe WHERE id = ?1 AND removed_at IS NULL";
    found(row_of(connection, sql, [id.0], read_recipe), "recipe", id.0)
}

/// One recipe, in the book or taken out of it.
pub(crate) fn any_recipe(connection: &Connection, id: RecipeId) -> Result<Recipe, StoreError> {
    found(row_of(connection, "SELECT * FROM recipe WHERE id = ?1", [id.0], read_recipe), "recipe", id.0)
}

/// One set of bowls, set out or put away.
pub(crate) fn any_bowls(connection: &Connection, id: BowlsId) -> Result<Bowls, StoreError> {
    found(row_of(connection, "SELECT * FROM bowls WHERE id = ?1", [id.0], read_bowls), "bowls", id.0)
}

pub(crate) fn one_bowls(connection: &Connection, id: BowlsId) -> Result<Bowls, StoreError> {
    let sql = "SELECT * FROM bowls WHERE id = ?1 AND removed_at IS NULL";
    found(row_of(connection, sql, [id.0], read_bowls), "bowls", id.0)
}

pub(crate) fn insert_bowls(
    connection: &Connection,
    recipe: RecipeId,
    factor: f64,
    (base, actual): (&[Part], &[Part]),
    now: Moment,
) -> Result<BowlsId, StoreError> {
    one_recipe(connection, recipe)?;
    connection
        .execute(
            "INSERT INTO bowls (recipe_id, at, factor, base, actual) VALUES (?1, ?2, ?3, ?4, ?5)",
            params![recipe.0, now.0, factor, to_json(base)?, to_json(actual)?],
        )
        .map_err(StoreError::from_write)?;
    Ok(BowlsId(connection.last_insert_rowid()))
}

/// Refuses bowls that a batch on the line is made from.
pub(crate) fn check_unused(connection: &Connection, bowls: BowlsId) -> Result<(), StoreError> {
    one_bowls(connection, bowls)?;
    check_unused_by_others(connection, bowls, BatchId(0))
}

/// Refuses to put bowls away that a batch on the line is made from; one that set out no jars and of which it was told where it
/// went, is done with them.
pub(crate) fn check_done(connection: &Connection, bowls: BowlsId) -> Result<(), StoreError> {
    one_bowls(connection, bowls)?;
    let sql = "SELECT id FROM batch WHERE bowls_id = ?1 AND removed_at IS NULL
        AND NOT EXISTS (SELECT 1 FROM jar WHERE batch_id = batch.id)
        AND EXISTS (SELECT 1 FROM food_move WHERE batch_id = batch.id AND undone_at IS NULL)";
    let done: Option<BatchId> =
        row_of(connection, sql, [bowls.0], |row| row.get(0).map(BatchId)).optional()?;
    check_unused_by_others(connection, bowls, done.unwrap_or(BatchId(0)))
}

pub(crate) fn check_unused_by_others(
    connection: &Connection,
    bowls: BowlsId,
    batch: BatchId,
) -> Result<(), StoreError> {
    let sql = "SELECT code FROM batch WHERE bowls_id = ?1 AND id <> ?2 AND removed_at IS NULL";
    let code: Option<String> = row_of(connection, sql, [bowls.0, batch.0], |row| row.get(0)).optional()?;
    code.map_or(Ok(()), |code| Err(StoreError::BowlsTaken { code }))
}
