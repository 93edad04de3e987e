//! The schema, one step after the other.

use rusqlite::Connection;
use rusqlite_migration::{M, Migrations};

use crate::error::StoreError;

/// Go up only: there is no way down, a newer file is refused instead.
pub(crate) const MIGRATIONS: &[M<'static>] = &[
    M::up(include_str!("../migrations/01-first-kitchen.sql")),
    M::up(include_str!("../migrations/02-harvest-and-stock.sql")),
    M::up(include_str!("../migrations/03-kettles-and-canner.sql")),
    M::up(include_str!("../migrations/04-heat-settings.sql")),
    M::up(include_str!("../migrations/05-bench-and-canners.sql")),
    M::up(include_str!("../migrations/06-towel-and-shelf.sql")),
    M::up(include_str!("../migrations/07-the-day.sql")),
    M::up(include_str!("../migrations/08-doubt-kept.sql")),
    M::up(include_str!("../migrations/09-sink-and-night.sql")),
    M::up(include_str!("../migrations/10-what-else.sql")),
    M::up(include_str!("../migrations/11-acid-in-its-order.sql")),
    M::up(include_str!("../migrations/12-the-card.sql")),
    M::up(include_str!("../migrations/13-whose-spoons.sql")),
    M::up(include_str!("../migrations/14-what-stands-beside.sql")),
    M::up(include_str!("../migrations/15-the-clock-kept.sql")),
    M::up(include_str!("../migrations/16-where-it-went.sql")),
    M::up(include_str!("../migrations/17-moves-of-food.sql")),
    M::up(include_str!("../migrations/18-how-it-began.sql")),
    M::up(include_str!("../migrations/19-recipes.sql")),
    M::up(include_str!("../migrations/20-batches-of-recipes.sql")),
    M::up(include_str!("../migrations/21-the-household-s-ways.sql")),
    M::up(include_str!("../migrations/22-what-is-open.sql")),
    M::up(include_str!("../migrations/23-what-stands-against-a-jar.sql")),
    M::up(include_str!("../migrations/24-water-canner-liquid.sql")),
    M::up(include_str!("../migrations/25-recipes-judged.sql")),
    M::up(include_str!("../migrations/26-what-a-recipe-became.sql")),
];

/// What a step said.
pub(crate) fn migrated(error: rusqlite_migration::Error) -> StoreError {
    match error {
        rusqlite_migration::Error::MigrationDefinition(_) => StoreError::Newer,
        rusqlite_migration::Error::RusqliteError { err, .. } => StoreError::Sqlite(err),
        other => StoreError::Migration(other.to_string()),
    }
}

/// Brings a kitchen up to date.
///
/// # Errors
/// [`StoreError::Newer`], [`StoreError::Migration`], or what SQLite says.
pub(crate) fn bring_up(connection: &mut Connection) -> Result<(), StoreError> {
    // A table that is rebuilt is dropped for a moment, and must not take along what refers to it.
    connection.pragma_update(None, "foreign_keys", false)?;
    Migrations::from_slice(MIGRATIONS).to_latest(connection).map_err(migrated)?;
    connection.pragma_update(None, "foreign_keys", true)?;
    Ok(())
}
