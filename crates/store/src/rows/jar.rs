//! Jars as rows: on the bench, and with everything that became of them.

use bodega_model::measures::ids::{BatchId, JarId, LoadId};
use bodega_model::records::jar::{Jar, JarRecord};
use bodega_model::towel::seal::LidVerdict;
use rusqlite::{Connection, Row};

use super::lifting::lifting;
use super::{found, ids, moment, optional_word, readable, row_of, word};
use crate::StoreError;

const SELECT: &str = "SELECT jar.*, code, name, product, medium, pack, agent, salt,
    coalesce(json_array_length(recipe, '$.doses'), 0) > 0 AS recipe_doses
    FROM jar JOIN batch ON batch.id = batch_id";

fn read(row: &Row<'_>) -> rusqlite::Result<Jar> {
    let is = |column: &str| moment(row, column).map(|at| at.is_some());
    Ok(Jar {
        id: JarId(row.get("id")?),
        batch: BatchId(row.get("batch_id")?),
        code: row.get("code")?,
        named: row.get("name")?,
        number: row.get("number")?,
        product: word(row, "product")?,
        medium: optional_word(row, "medium")?,
        pack: word(row, "pack")?,
        agent: word(row, "agent")?,
        wants_salt: row.get("salt")?,
        recipe_doses: row.get("recipe_doses")?,
        size: word(row, "size")?,
        undosed_at: moment(row, "undosed_at")?,
        acid: is("acid_at")? && !is("undosed_at")? && !row.get::<_, bool>("acid_from_pot")?,
        liquid_lost: optional_word(row, "liquid_lost")?,
        liquid_lost_at: moment(row, "liquid_lost_at")?,
        salt: is("salt_at")?,
        filled: is("filled_at")?,
        bubbles: is("bubbles_at")?,
        rim: is("rim_at")?,
        lid: is("lid_at")?,
    })
}

/// The jars of one load, in order; those of a batch that was taken off the line are not set out.
pub(crate) fn of_load(connection: &Connection, load: LoadId) -> Result<Vec<Jar>, StoreError> {
    let mut statement = connection.prepare_cached(&format!(
        "{SELECT} WHERE load_id = ?1 AND (removed_at IS NULL OR batch_id = (SELECT batch_id FROM canner_load WHERE id = ?1))
         ORDER BY batch_id, number"
    ))?;
    readable(statement.query_map([load.0], read)?)
}

/// One jar on the bench.
pub(crate) fn one(connection: &Connection, id: JarId) -> Result<Jar, StoreError> {
    found(row_of(connection, &format!("{SELECT} WHERE jar.id = ?1"), [id.0], read), "jar", id.0)
}

/// Jars with what became of them.
pub(crate) const RECORDS: &str = concat!(
    "SELECT jar.*, code, name, product, medium, pack, thickness, agent, load_event.at AS lifted_at,
    EXISTS (SELECT 1 FROM load_event AS broke
        WHERE broke.jar_id = jar.id AND broke.event = 'jar_broken' AND broke.undone_at IS NULL) AS broke
    FROM jar JOIN batch ON batch.id = jar.batch_id
    LEFT JOIN load_event ON load_event.load_id = jar.load_id AND ",
    lifting!()
);

/// One of those.
pub(crate) fn read_record(row: &Row<'_>) -> rusqlite::Result<JarRecord> {
    Ok(JarRecord {
        id: JarId(row.get("id")?),
        batch: BatchId(row.get("batch_id")?),
        code: row.get("code")?,
        named: row.get("name")?,
        number: row.get("number")?,
        size: word(row, "size")?,
        product: word(row, "product")?,
        medium: optional_word(row, "medium")?,
        pack: word(row, "pack")?,
        thickness: optional_word(row, "thickness")?,
        agent: word(row, "agent")?,
        load: LoadId(row.get("load_id")?),
        earlier_loads: Vec::new(),
        lifted_at: moment(row, "lifted_at")?,
        broke: row.get("broke")?,
        acid_after_food: moment(row, "acid_at")? > moment(row, "filled_at")?
            && moment(row, "filled_at")?.is_some(),
        undosed: moment(row, "undosed_at")?.is_some(),
        liquid_lost: optional_word(row, "liquid_lost")?,
        verdict: read_verdict(row)?,
        judged_at: moment(row, "seal_at")?,
        rescue: optional_word(row, "rescue")?,
        rescued_at: moment(row, "rescue_at")?,
        tidy: moment(row, "tidy_at")?.is_some(),
        gone_at: moment(row, "gone_at")?,
        gone_how: optional_word(row, "gone_how")?,
        gone_why: optional_word(row, "gone_why")?,
    })
}

/// The same with the loads that it went through before.
pub(crate) fn with_past(connection: &Connection, mut jar: JarRecord) -> Result<JarRecord, StoreError> {
    let mut statement =
        connection.prepare_cached("SELECT load_id FROM jar_past WHERE jar_id = ?1 ORDER BY id")?;
    jar.earlier_loads = ids(&mut statement, [jar.id.0], LoadId)?;
    Ok(jar)
}

/// What was found at a jar's lid.
pub(crate) fn read_verdict(row: &Row<'_>) -> rusqlite::Result<Option<LidVerdict>> {
    let seal: Option<String> = row.get("seal")?;
    let detail: Option<String> = row.get("seal_detail")?;
    Ok(seal.map(|seal| match (seal.as_str(), detail.as_deref()) {
        ("holds", _) => LidVerdict::Holds,
        (_, Some("broken")) => LidVerdict::Broken,
        (_, Some("doubtful")) => LidVerdict::Doubtful,
        _ => LidVerdict::Failed,
    }))
}
