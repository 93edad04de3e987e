//! The kitchen: its height, its units and the containers it counts in.

use std::collections::BTreeMap;

use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::Spoons;
use bodega_model::kitchen::altitudes::AltitudeReason;
use bodega_model::kitchen::ways::{Days, Decimal, HeatIn, HeightIn, HoursIn, Ways};
use bodega_model::measures::ids::ContainerId;
use bodega_model::records::kitchen::{
    Container, JarMeasure, Kitchen, KitchenChange, USUAL_TURNAROUND, Units,
};
use bodega_model::tables::process::Method;
use rusqlite::{Connection, OptionalExtension, params};

use crate::corrections::ToldBy;
use crate::rows::{canner, check_name_free, found, word};
use crate::{Store, StoreError, canners};

impl Store {
    /// One taught container.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn container(&self, id: ContainerId) -> Result<Container, StoreError> {
        let sql = "SELECT id, name, weight_g FROM container WHERE id = ?1";
        found(self.read()?.query_row(sql, [id.0], read_container), "container", id.0)
    }

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
        canners::add(&transaction, "Canner", Method::BoilingWater)?;
        Ok(transaction.commit()?)
    }

    /// The kitchen as it is.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn kitchen(&self) -> Result<Kitchen, StoreError> {
        self.caches.kitchen.ask(self.version()?, (), || read_kitchen(&*self.read()?))
    }

    /// Changes the kitchen. Another altitude is written down with its reason.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] for a canner that is not there; [`StoreError::WhyAltitude`] when jars stand at home that were
    /// put up by another altitude and nobody says whether that one was wrong; [`StoreError::Sqlite`] when the file cannot be
    /// written or a value breaks the schema.
    pub fn change_kitchen(&self, change: &KitchenChange, told: &ToldBy) -> Result<Kitchen, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        if let Some(canner) = change.canner {
            canner::one(&transaction, canner)?;
        }
        if let Some(altitude_ft) = change.altitude_ft {
            say_altitude(&transaction, altitude_ft, change.altitude_reason, told)?;
        }
        transaction.execute(
            "UPDATE kitchen SET name = coalesce(?1, name), altitude_ft = coalesce(?2, altitude_ft),
             units = coalesce(?3, units), turnaround_minutes = coalesce(?4, turnaround_minutes),
             canner_id = coalesce(?5, canner_id), pounds_per_plant = coalesce(?6, pounds_per_plant),
             people = coalesce(?7, people), burners = coalesce(?8, burners), day_ends = coalesce(?9, day_ends),
             break_at = iif(?10, ?11, break_at), spoons = coalesce(?12, spoons),
             hours = coalesce(?13, hours), days = coalesce(?14, days), decimal = coalesce(?15, decimal),
             heat = coalesce(?16, heat), height = coalesce(?17, height)",
            params![
                change.name,
                change.altitude_ft,
                change.units.map(Units::word),
                change.turnaround_minutes,
                change.canner.map(|canner| canner.0),
                change.pounds_per_plant,
                change.people,
                change.burners,
                change.day_ends,
                change.break_at.is_some(),
                change.break_at.flatten(),
                change.spoons.map(Spoons::word),
                change.hours.map(HoursIn::word),
                change.days.map(Days::word),
                change.decimal.map(Decimal::word),
                change.heat.map(HeatIn::word),
                change.height.map(HeightIn::word)
            ],
        )?;
        for (jar, measure) in &change.jar_outsides {
            transaction.execute(
                "INSERT OR REPLACE INTO jar_outside (jar, diameter_mm, height_mm) VALUES (?1, ?2, ?3)",
                params![jar.word(), measure.diameter_mm, measure.height_mm],
            )?;
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
        let connection = self.read()?;
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
        check_name_free(&connection, "container", name, None)?;
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
    pub fn remove_container(&self, id: ContainerId) -> Result<Container, StoreError> {
        let connection = self.lock();
        found(
            connection.query_row(
                "DELETE FROM container WHERE id = ?1 RETURNING id, name, weight_g",
                [id.0],
                read_container,
            ),
            "container",
            id.0,
        )
    }
}

/// Writes down what is said of the altitude when it is another one than before.
fn say_altitude(
    connection: &Connection,
    altitude_ft: f64,
    reason: Option<AltitudeReason>,
    told: &ToldBy,
) -> Result<(), StoreError> {
    let was_ft: Option<f64> =
        connection.query_row("SELECT altitude_ft FROM kitchen", [], |row| row.get(0))?;
    if was_ft == Some(altitude_ft) {
        return Ok(());
    }
    // Nothing was said before that could have been wrong.
    let Some(was_ft) = was_ft else { return Ok(()) };
    // It decides about jars that are out of the canner and still there.
    let stand = "SELECT EXISTS (SELECT 1 FROM jar
        WHERE gone_at IS NULL AND load_id NOT IN (SELECT load_id FROM open_load))";
    let reason = match reason {
        Some(reason) => reason,
        None if connection.query_row(stand, [], |row| row.get(0))? => return Err(StoreError::WhyAltitude),
        None => AltitudeReason::Moved,
    };
    connection.execute(
        "INSERT INTO altitude_said (at, was_ft, altitude_ft, reason, who) VALUES (?1, ?2, ?3, ?4, ?5)",
        params![told.at.0, was_ft, altitude_ft, reason.word(), told.who],
    )?;
    Ok(())
}

fn read_container(row: &rusqlite::Row<'_>) -> rusqlite::Result<Container> {
    Ok(Container { id: ContainerId(row.get("id")?), name: row.get("name")?, weight_g: row.get("weight_g")? })
}

pub(crate) fn read_kitchen(connection: &Connection) -> Result<Kitchen, StoreError> {
    let canners = canner::all(connection)?;
    let sql = "SELECT * FROM kitchen";
    let mut statement = connection.prepare_cached(sql)?;
    let mut rows = statement.query([])?;
    let row = rows.next()?.ok_or_else(|| StoreError::Damaged("there is no kitchen".to_owned()))?;
    let (units, spoons): (String, String) = (row.get("units")?, row.get("spoons")?);
    let chosen: Option<i64> = row.get("canner_id")?;
    let canner = canners.iter().find(|canner| Some(canner.id.0) == chosen).or_else(|| canners.first());
    let units = if units == Units::Metric.word() { Units::Metric } else { Units::Us };
    Ok(Kitchen {
        name: row.get("name")?,
        altitude_ft: row.get("altitude_ft")?,
        spoons: spoons.parse().unwrap_or(Spoons::Us),
        units,
        ways: Ways {
            hours: said(row, "hours")?.unwrap_or(HoursIn::Day),
            days: said(row, "days")?.unwrap_or(Days::DayFirst),
            decimal: said(row, "decimal")?.unwrap_or(Decimal::Point),
            heat: said(row, "heat")?.unwrap_or_else(|| units.usual_heat()),
            height: said(row, "height")?.unwrap_or_else(|| units.usual_height()),
        },
        agent: said(row, "agent")?.unwrap_or(Agent::BottledLemonJuice),
        salt: row.get("salt")?,
        turnaround_minutes: row.get("turnaround_minutes")?,
        pounds_per_plant: row.get("pounds_per_plant")?,
        people: row.get("people")?,
        burners: row.get("burners")?,
        day_ends: row.get("day_ends")?,
        break_at: row.get("break_at")?,
        break_minutes: row.get("break_minutes")?,
        canner: canner.cloned().ok_or_else(|| StoreError::Damaged("there is no canner".to_owned()))?,
        canners,
        jar_outsides: jar_outsides(connection)?,
    })
}

/// A word of the household's; nothing where it said none, or one that is not known.
fn said<Word: std::str::FromStr>(row: &rusqlite::Row<'_>, column: &str) -> rusqlite::Result<Option<Word>> {
    Ok(row.get::<_, Option<String>>(column)?.and_then(|word| word.parse().ok()))
}

fn jar_outsides(connection: &Connection) -> Result<BTreeMap<JarSize, JarMeasure>, StoreError> {
    let mut statement = connection.prepare_cached("SELECT * FROM jar_outside")?;
    let rows = statement.query_map([], |row| {
        let measure = JarMeasure { diameter_mm: row.get("diameter_mm")?, height_mm: row.get("height_mm")? };
        Ok((word(row, "jar")?, measure))
    })?;
    Ok(rows.collect::<Result<_, _>>()?)
}
