//! What a document must keep to, as the API asks it of everybody: words, days, names, numbers.

use bodega_model::measures::ids::{BatchId, BowlsId, LoadId, RecipeId};
use bodega_model::measures::limits::{
    ACID_STOCK, ALTITUDE, BRIX, CELSIUS, DAY_SLIP, EVAPORATION, FILLED_AT, FOOD_AMOUNT, JAR_DIAMETER,
    JAR_HEIGHT, KETTLE_VOLUME, Limit, PACKS, PH, PLANT_YIELD, POT_DOSE, POUNDS, PROBE, RACK_HEIGHT,
    RECIPE_TIMES, VESSEL_DIAMETER, VESSEL_HEIGHT, WATTS, WEIGHT,
};
use bodega_model::measures::names::{FIRST_YEAR, LAST_YEAR, clean_name};
use bodega_model::records::load::AlsoIn;
use rusqlite::Connection;

use crate::mend::BrokenRecord;
use crate::rows::recipe::{one_bowls, one_recipe};
use crate::rows::{batch, load};
use crate::{Store, StoreError};

/// Faults named in one answer.
pub(crate) const MOST_FAULTS: usize = 20;

/// A number that is stored, how many of its units make one of the limit's, and its limit.
type Number = (&'static str, &'static str, f64, Limit);

const NUMBERS: [Number; 37] = [
    ("kitchen", "altitude_ft", 1.0, ALTITUDE),
    ("kitchen", "pounds_per_plant", 1.0, PLANT_YIELD),
    ("canner", "inner_diameter_mm", 1.0, VESSEL_DIAMETER),
    ("canner", "inner_length_mm", 1.0, VESSEL_DIAMETER),
    ("canner", "inner_height_mm", 1.0, VESSEL_HEIGHT),
    ("canner", "rack_height_mm", 1.0, RACK_HEIGHT),
    ("canner", "power_w", 1.0, WATTS),
    ("canner", "burner_mm", 1.0, VESSEL_DIAMETER),
    ("jar_outside", "diameter_mm", 1.0, JAR_DIAMETER),
    ("jar_outside", "height_mm", 1.0, JAR_HEIGHT),
    ("stock", "amount", 1.0, ACID_STOCK),
    ("kettle", "inner_diameter_mm", 1.0, VESSEL_DIAMETER),
    ("kettle", "top_diameter_mm", 1.0, VESSEL_DIAMETER),
    ("kettle", "depth_mm", 1.0, VESSEL_HEIGHT),
    // Whatever was left of something may have become a lot, been moved or been drawn.
    ("lot", "weight_g", 1000.0, Limit { min: 0.0, ..WEIGHT }),
    ("batch", "altitude_ft", 1.0, ALTITUDE),
    ("batch", "pot_dose_tsp", 1.0, POT_DOSE),
    ("batch_lot", "weight_g", 1000.0, Limit { min: 0.0, ..WEIGHT }),
    ("canner_load", "psi", 1.0, POUNDS),
    ("canner_load", "jars_c", 1.0, CELSIUS),
    ("canner_reading", "temp_c", 1.0, PROBE),
    ("ph_reading", "ph", 1.0, PH),
    ("ph_reading", "sample_c", 1.0, CELSIUS),
    ("cook", "volume_l", 1.0, KETTLE_VOLUME),
    ("cook", "brix", 1.0, BRIX),
    ("cook", "start_c", 1.0, FILLED_AT),
    ("cook", "litres_per_hour", 1.0, EVAPORATION),
    ("food_move", "amount", 1.0, Limit { min: 0.0, ..FOOD_AMOUNT }),
    ("food_move", "packs", 1.0, PACKS),
    ("lot", "amount", 1.0, Limit { min: 0.0, ..FOOD_AMOUNT }),
    ("container", "weight_g", 1000.0, WEIGHT),
    ("day_slip", "minutes", 1.0, DAY_SLIP),
    ("bowls", "factor", 1.0, RECIPE_TIMES),
    ("bench_ph", "ph", 1.0, PH),
    ("bench_ph", "sample_c", 1.0, CELSIUS),
    ("altitude_said", "was_ft", 1.0, ALTITUDE),
    ("altitude_said", "altitude_ft", 1.0, ALTITUDE),
];

/// Names that people gave.
const NAMES: [&str; 6] = ["kitchen", "canner", "container", "kettle", "lot", "batch"];

/// Days and moments outside these years are none that a person wrote down.
fn of_years(connection: &Connection) -> Result<Vec<String>, StoreError> {
    let mut statement = connection.prepare(
        r"SELECT m.name, c.name, c.type FROM sqlite_master m JOIN pragma_table_info(m.name) c WHERE m.type = 'table'
         AND (c.name IN ('at', 'picked_on', 'back_on', 'opened_on') OR c.name LIKE '%\_at' ESCAPE '\')
         AND NOT (m.name = 'kitchen')",
    )?;
    let columns = statement.query_map([], |row| Ok((row.get(0)?, row.get(1)?, row.get(2)?)))?;
    let mut faults = Vec::new();
    for found in columns {
        let (table, column, kind): (String, String, String) = found?;
        let shown = if kind == "INTEGER" {
            format!("strftime('%Y', {column} / 1000, 'unixepoch')")
        } else {
            format!("substr({column}, 1, 4)")
        };
        let sql = format!(
            "SELECT {column} FROM {table} WHERE {column} IS NOT NULL
             AND coalesce(CAST({shown} AS INTEGER), 0) NOT BETWEEN {FIRST_YEAR} AND {LAST_YEAR} LIMIT {MOST_FAULTS}"
        );
        let mut statement = connection.prepare(&sql)?;
        let said = statement.query_map([], |row| row.get::<_, rusqlite::types::Value>(0))?;
        for value in said {
            faults.push(format!(
                "records.{table}: {column} {} is not between the years {FIRST_YEAR} and {LAST_YEAR}",
                shown_value(&value?)
            ));
        }
    }
    Ok(faults)
}

fn shown_value(value: &rusqlite::types::Value) -> String {
    use rusqlite::types::Value;
    match value {
        Value::Integer(number) => number.to_string(),
        Value::Real(number) => number.to_string(),
        Value::Text(text) => format!("\"{text}\""),
        Value::Null | Value::Blob(_) => "nothing".to_owned(),
    }
}

fn of_numbers(connection: &Connection) -> Result<Vec<String>, StoreError> {
    let mut faults = Vec::new();
    for (table, column, units, limit) in NUMBERS {
        let sql = format!(
            "SELECT {column} FROM {table} WHERE {column} IS NOT NULL AND {column} NOT BETWEEN ?1 AND ?2 LIMIT {MOST_FAULTS}"
        );
        let mut statement = connection.prepare(&sql)?;
        for stored in
            statement.query_map([limit.min * units, limit.max * units], |row| row.get::<_, f64>(0))?
        {
            if let Err(error) = limit.check(stored? / units) {
                faults.push(format!("records.{table}: {column}: {error}"));
            }
        }
    }
    Ok(faults)
}

fn of_names(connection: &Connection) -> Result<Vec<String>, StoreError> {
    let mut faults = Vec::new();
    for table in NAMES {
        let mut statement =
            connection.prepare(&format!("SELECT id, name FROM {table} WHERE name IS NOT NULL"))?;
        let names = statement.query_map([], |row| Ok((row.get::<_, i64>(0)?, row.get::<_, String>(1)?)))?;
        for found in names {
            let (id, name) = found?;
            if let Err(error) = clean_name(&name) {
                faults.push(format!("records.{table}, id {id}: name: {error}"));
            }
        }
    }
    Ok(faults)
}

/// What stands in a record as a list of its own.
fn of_lists(connection: &Connection) -> Result<Vec<String>, StoreError> {
    let ids = |sql: &str| -> Result<Vec<i64>, StoreError> {
        Ok(connection.prepare(sql)?.query_map([], |row| row.get(0))?.collect::<Result<_, _>>()?)
    };
    let mut faults = Vec::new();
    for id in
        ids("SELECT id FROM batch WHERE additions IS NOT NULL OR pot_said IS NOT NULL OR recipe IS NOT NULL")?
    {
        match batch::one(connection, BatchId(id)) {
            Err(error) => faults.push(format!("records.batch, id {id}: {error}")),
            Ok(read) => {
                for (place, added) in read.additions.iter().flatten().enumerate() {
                    if let Err(error) = added.counted() {
                        faults.push(format!("records.batch, id {id}: additions[{place}]: {error}"));
                    }
                }
            }
        }
    }
    for id in ids("SELECT id FROM canner_load")? {
        if let Err(error) = load::one(connection, LoadId(id)) {
            faults.push(format!("records.canner_load, id {id}: {error}"));
        }
    }
    for id in ids("SELECT id FROM recipe WHERE removed_at IS NULL")? {
        let checked = one_recipe(connection, RecipeId(id))
            .map_err(|error| error.to_string())
            .and_then(|recipe| recipe.text.check().map_err(|error| format!("{}: {error}", error.field)));
        if let Err(error) = checked {
            faults.push(format!("records.recipe, id {id}: {error}"));
        }
    }
    for id in ids("SELECT id FROM bowls WHERE removed_at IS NULL")? {
        if let Err(error) = one_bowls(connection, BowlsId(id)) {
            faults.push(format!("records.bowls, id {id}: {error}"));
        }
    }
    let mut statement = connection.prepare("SELECT id, also FROM canner_load WHERE also <> '[]'")?;
    for found in statement.query_map([], |row| Ok((row.get::<_, i64>(0)?, row.get::<_, String>(1)?)))? {
        let (id, also) = found?;
        let read = serde_json::from_str::<Vec<AlsoIn>>(&also).map_err(|error| error.to_string());
        let checked = read.and_then(|lines| {
            lines.into_iter().try_for_each(|line| line.checked().map(drop).map_err(|error| error.to_string()))
        });
        if let Err(error) = checked {
            faults.push(format!("records.canner_load, id {id}: also: {error}"));
        }
    }
    Ok(faults)
}

/// Words and days that nobody knows.
fn of_words(store: &Store) -> Result<Vec<String>, StoreError> {
    let fault = |broken: BrokenRecord| {
        let BrokenRecord { table, id, field, stored, choices } = broken;
        let words = choices.iter().map(|choice| choice.word).collect::<Vec<_>>().join(", ");
        let would_do =
            if words.is_empty() { "a day as 2026-09-12".to_owned() } else { format!("one of: {words}") };
        format!("records.{table}, id {id}: unknown {field} \"{stored}\"; use {would_do}")
    };
    Ok(store.broken()?.into_iter().map(fault).collect())
}

/// Every fault of records that arrived, up to [`MOST_FAULTS`] of a kind.
pub(crate) fn faults(arrived: &Store) -> Result<Vec<String>, StoreError> {
    let mut faults = of_words(arrived)?;
    let connection = arrived.lock();
    faults.extend(of_numbers(&connection)?);
    faults.extend(of_years(&connection)?);
    faults.extend(of_names(&connection)?);
    if faults.is_empty() {
        faults.extend(of_lists(&connection)?);
    }
    Ok(faults)
}
