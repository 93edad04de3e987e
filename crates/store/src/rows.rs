//! Records out of rows, and words of the core's vocabularies.

pub(crate) mod batch;
pub(crate) mod canner;
pub(crate) mod cook;
pub(crate) mod jar;
pub(crate) mod lifting;
pub(crate) mod load;
pub(crate) mod lot;
pub(crate) mod recipe;

use std::fmt::Display;
use std::str::FromStr;

use bodega_model::measures::moment::Moment;
use rusqlite::types::Type;
use rusqlite::{Connection, Params, Row, Statement, params};
use serde::Serialize;
use serde::de::DeserializeOwned;

use crate::error::{StoreError, if_readable};

/// A stored word of a vocabulary.
pub(crate) fn word<T>(row: &Row<'_>, column: &str) -> rusqlite::Result<T>
where
    T: FromStr,
    T::Err: std::error::Error + Send + Sync + 'static,
{
    parse(&row.get::<_, String>(column)?)
}

/// A stored word that may be absent.
pub(crate) fn optional_word<T>(row: &Row<'_>, column: &str) -> rusqlite::Result<Option<T>>
where
    T: FromStr,
    T::Err: std::error::Error + Send + Sync + 'static,
{
    row.get::<_, Option<String>>(column)?.as_deref().map(parse).transpose()
}

/// A stored moment that may be absent.
pub(crate) fn moment(row: &Row<'_>, column: &str) -> rusqlite::Result<Option<Moment>> {
    Ok(row.get::<_, Option<i64>>(column)?.map(Moment))
}

fn parse<T>(stored: &str) -> rusqlite::Result<T>
where
    T: FromStr,
    T::Err: std::error::Error + Send + Sync + 'static,
{
    stored
        .parse()
        .map_err(|error: T::Err| rusqlite::Error::FromSqlConversionFailure(0, Type::Text, Box::new(error)))
}

/// Refuses a name that another record of a table has.
///
/// `table` is one of the program's own words, never what somebody typed.
pub(crate) fn check_name_free(
    connection: &Connection,
    table: &str,
    name: &str,
    but: Option<i64>,
) -> Result<(), StoreError> {
    let sql = format!("SELECT EXISTS (SELECT 1 FROM {table} WHERE name = ?1 AND id IS NOT ?2)");
    let taken: bool = connection.query_row(&sql, params![name, but], |row| row.get(0))?;
    if taken { Err(StoreError::NameTaken { name: name.to_owned() }) } else { Ok(()) }
}

/// Numbers of records, each as its own type.
pub(crate) fn ids<T>(
    statement: &mut Statement<'_>,
    given: impl Params,
    of: fn(i64) -> T,
) -> Result<Vec<T>, StoreError> {
    Ok(statement.query_map(given, |row| row.get(0).map(of))?.collect::<Result<_, _>>()?)
}

/// The records of a list that can be read.
pub(crate) fn readable<T, E: Into<StoreError>>(
    read: impl Iterator<Item = Result<T, E>>,
) -> Result<Vec<T>, StoreError> {
    read.filter_map(|one| if_readable(one.map_err(Into::into)).transpose()).collect()
}

/// What is kept as JSON in a field.
pub(crate) fn from_json<T: DeserializeOwned>(text: &str) -> rusqlite::Result<T> {
    serde_json::from_str(text)
        .map_err(|error| rusqlite::Error::FromSqlConversionFailure(0, Type::Text, Box::new(error)))
}

/// As it is kept in a field.
pub(crate) fn to_json<T: Serialize + ?Sized>(value: &T) -> Result<String, StoreError> {
    serde_json::to_string(value).map_err(|error| StoreError::Damaged(error.to_string()))
}

/// One row, by a statement that stays prepared.
pub(crate) fn row_of<T>(
    connection: &Connection,
    sql: &str,
    given: impl Params,
    read: impl FnOnce(&Row<'_>) -> rusqlite::Result<T>,
) -> rusqlite::Result<T> {
    connection.prepare_cached(sql)?.query_row(given, read)
}

/// Turns "no rows" into a named absence.
pub(crate) fn found<T>(
    result: rusqlite::Result<T>,
    what: &'static str,
    id: i64,
) -> Result<T, crate::StoreError> {
    match result {
        Err(rusqlite::Error::QueryReturnedNoRows) => Err(crate::StoreError::NotFound { what, id }),
        other => Ok(other?),
    }
}

/// A number that the schema keeps non-negative.
pub(crate) fn unsigned(value: i64, what: impl Display) -> Result<u32, crate::StoreError> {
    u32::try_from(value).map_err(|_| crate::StoreError::Damaged(format!("{what} is {value}")))
}
