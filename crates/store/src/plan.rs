//! Batches: a plan that was accepted, with the fruit it draws, its jars and its canner loads.

use bodega_core::day::overnight::waits_as_juice;
use bodega_core::judge::records::BatchFacts;
use bodega_core::ledger::page::BatchPage;
use bodega_core::plan::yields::learn::Finished;
use bodega_model::contents::{Added, in_words_or_nothing};
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::{Measured, all_of};
use bodega_model::measures::ids::{BatchId, BowlsId, LotId, RecipeId};
use bodega_model::measures::moment::Moment;
use bodega_model::plan::making::Rest;
use bodega_model::plan::making::Thickness;
use bodega_model::records::batch::{Batch, ByRecipe, Liking, NewBatch, SetOut};
use bodega_model::records::load::{CannerLoad, SharedLoad};
use bodega_model::records::lot::Lot;
use bodega_model::tables::process::Medium;
use jiff::civil::Date;
use rusqlite::{Connection, Transaction, params};

use crate::corrections::{ToldBy, corrected};
use crate::kitchen::read_kitchen;
use crate::pot::{settle_pot, sizes};
use crate::rows::batch::{SELECT, all_lifted, one, read, stored};
use crate::rows::recipe::{any_bowls, check_unused, check_unused_by_others, insert_bowls};
use crate::rows::{ids, lot, row_of};
use crate::{Store, StoreError, assignment, if_readable, ph_bench};

/// Batches, the newest first, that yields are learned from; older ones would count for next to nothing.
const LEARNED_FROM: u32 = 60;

/// Whether a batch on the line other than the first parameter's draws on a lot.
macro_rules! drawn_on_by_others {
    () => {
        "EXISTS (SELECT 1 FROM batch_lot AS other JOIN batch AS drawer ON drawer.id = other.batch_id
            WHERE other.lot_id = lot.id AND other.batch_id <> ?1 AND drawer.removed_at IS NULL)"
    };
}

impl Store {
    /// Tells every batch that was not taken off the line, newest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read; [`StoreError::NotTaken`].
    pub fn all_batches(&self, tell: impl FnMut(Batch) -> std::io::Result<()>) -> Result<(), StoreError> {
        let sql = format!("{SELECT} WHERE removed_at IS NULL ORDER BY batch.id DESC");
        self.look_long(|connection| self.tell(connection.prepare(&sql)?.query_map([], read)?, tell))
    }

    /// Batches that were not taken off the line, newest first: at most so many of those before one, or of all.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batches_before(&self, before: Option<BatchId>, most: u32) -> Result<Vec<Batch>, StoreError> {
        let connection = self.read()?;
        let sql =
            format!("{SELECT} WHERE removed_at IS NULL AND batch.id < ?1 ORDER BY batch.id DESC LIMIT ?2");
        let mut statement = connection.prepare_cached(&sql)?;
        let before = before.map_or(i64::MAX, |before| before.0);
        self.readable(statement.query_map(params![before, most], read)?)
    }

    /// How many batches were not taken off the line.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batch_count(&self) -> Result<u32, StoreError> {
        let sql = "SELECT count(*) FROM batch WHERE removed_at IS NULL";
        self.look_long(|connection| Ok(row_of(connection, sql, [], |row| row.get(0))?))
    }

    /// Fruit that a batch drew: the lot, and grams of it.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batch_lots(&self, batch: BatchId) -> Result<Vec<(Lot, i64)>, StoreError> {
        self.caches.batch_lots.ask(self.version()?, batch, || self.read_batch_lots(batch))
    }

    fn read_batch_lots(&self, batch: BatchId) -> Result<Vec<(Lot, i64)>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection
            .prepare_cached("SELECT lot_id, weight_g FROM batch_lot WHERE batch_id = ?1 ORDER BY lot_id")?;
        let drawn = statement
            .query_map([batch.0], |row| Ok((LotId(row.get(0)?), row.get(1)?)))?
            .collect::<Result<Vec<(LotId, i64)>, _>>()?;
        drawn.into_iter().map(|(lot, grams)| Ok((lot::one(&connection, lot)?, grams))).collect()
    }

    /// Batches that still have jars to process, in the order they were planned.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn open_batches(&self) -> Result<Vec<Batch>, StoreError> {
        self.caches.open_batches.ask(self.version()?, (), || self.read_open_batches())
    }

    fn read_open_batches(&self) -> Result<Vec<Batch>, StoreError> {
        let connection = self.read()?;
        let sql = format!(
            "{SELECT} WHERE removed_at IS NULL AND batch.id IN (
                 SELECT jar.batch_id FROM open_load CROSS JOIN jar ON jar.load_id = open_load.load_id)
             ORDER BY batch.id"
        );
        let mut statement = connection.prepare_cached(&sql)?;
        self.readable(statement.query_map([], read)?)
    }

    /// One batch.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn batch(&self, id: BatchId) -> Result<Batch, StoreError> {
        self.caches.batch.ask(self.version()?, id, || one(&*self.read()?, id))
    }

    /// Accepts a plan: draws the fruit, sets out the jars and the loads, all or nothing.
    ///
    /// # Errors
    /// [`StoreError::Overdrawn`] names the lot that does not hold enough; [`StoreError::NotForJars`] one that is held
    /// or out.
    pub fn add_batch(&self, new: &NewBatch, now: Moment) -> Result<Batch, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let added = accept(&transaction, new, now)?;
        transaction.commit()?;
        Ok(added)
    }

    /// Accepts several plans whose jars go into the canner together, all or nothing.
    ///
    /// # Errors
    /// As [`Self::add_batch`]; [`StoreError::NotTogether`] when the loads are not of all the jars.
    pub fn add_batches(
        &self,
        batches: &[NewBatch],
        loads: &[SharedLoad],
        now: Moment,
    ) -> Result<Vec<Batch>, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let added =
            batches.iter().map(|new| accept(&transaction, new, now)).collect::<Result<Vec<_>, _>>()?;
        let ids: Vec<BatchId> = added.iter().map(|batch| batch.id).collect();
        assignment::share_loads(&transaction, &ids, loads)?;
        let added = ids.iter().map(|id| one(&transaction, *id)).collect::<Result<Vec<_>, _>>()?;
        transaction.commit()?;
        Ok(added)
    }

    /// Batches that were begun on a day, in their order; the day is part of their code.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batches_of(&self, day: Date) -> Result<Vec<BatchId>, StoreError> {
        // A code begins with its day and a hyphen, and what follows a hyphen is a full stop.
        let sql = "SELECT id FROM batch WHERE removed_at IS NULL AND code > ?1 || '-' AND code < ?1 || '.' ORDER BY id";
        let connection = self.read()?;
        let mut statement = connection.prepare_cached(sql)?;
        ids(&mut statement, [day_code(day)], BatchId)
    }

    /// Everything that is written down of a batch's food.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn page(&self, id: BatchId) -> Result<BatchPage, StoreError> {
        Ok(BatchPage {
            batch: self.batch(id)?,
            fruit: self.batch_lots(id)?,
            jars: self.batch_jars(id)?,
            cooks: self.batch_cooks(id)?,
            moves: self.moves(id)?,
        })
    }

    /// What the last batches whose jars are all out of the canner say of the household's yields, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn finished(&self) -> Result<Vec<Finished>, StoreError> {
        let sql = concat!(
            "SELECT id FROM batch WHERE removed_at IS NULL AND ",
            all_lifted!(),
            " ORDER BY id DESC LIMIT ?1"
        );
        self.caches.finished.ask(self.version()?, (), || {
            let last = {
                let connection = self.read()?;
                let mut statement = connection.prepare_cached(sql)?;
                ids(&mut statement, [LEARNED_FROM], BatchId)?
            };
            let pages = last.into_iter().rev().map(|id| Ok::<_, StoreError>(self.page(id)?.finished()));
            Ok(self.readable(pages)?.into_iter().flatten().collect())
        })
    }

    /// Takes a batch off the line, giving its fruit back, or puts it back. Its fruit goes into the freezer, or comes out
    /// of it, when that is said; fruit that another batch draws on stays as it is.
    ///
    /// # Errors
    /// [`StoreError::BatchBegun`] when a jar has been touched; [`StoreError::MovedOn`] when some of its food went elsewhere;
    /// [`StoreError::BelowZero`] when the fruit has gone elsewhere meanwhile.
    pub fn remove_batch(
        &self,
        id: BatchId,
        removed: bool,
        frozen: Option<bool>,
        now: Moment,
    ) -> Result<Batch, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let batch = one(&transaction, id)?;
        if removed {
            check_untouched(&transaction, &batch)?;
            // Its fruit goes back whole, and what was taken of it meanwhile would be there twice.
            let moved = "SELECT EXISTS (SELECT 1 FROM food_move WHERE batch_id = ?1 AND undone_at IS NULL)";
            if transaction.query_row(moved, [id.0], |row| row.get(0))? {
                return Err(StoreError::MovedOn);
            }
        }
        if let (false, Some(bowls)) = (removed, batch.bowls) {
            // Its bowls may be another batch's by now, or put away.
            check_unused_by_others(&transaction, bowls, id)?;
            transaction.execute("UPDATE bowls SET removed_at = NULL WHERE id = ?1", [bowls.0])?;
        }
        if let Some(frozen) = frozen {
            let sql = concat!(
                "UPDATE lot SET frozen = ?2
                 WHERE id IN (SELECT lot_id FROM batch_lot WHERE batch_id = ?1) AND NOT ",
                drawn_on_by_others!()
            );
            transaction.execute(sql, params![id.0, frozen])?;
        }
        transaction
            .execute(
                "UPDATE batch SET removed_at = ?2 WHERE id = ?1",
                params![id.0, removed.then_some(now.0)],
            )
            .map_err(StoreError::from_write)?;
        if removed {
            assignment::hand_over(&transaction, id)?;
        }
        transaction.commit()?;
        Ok(batch)
    }

    /// Whether another batch on the line draws on the same lots.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn shares_fruit(&self, id: BatchId) -> Result<bool, StoreError> {
        let sql = concat!(
            "SELECT EXISTS (SELECT 1 FROM lot JOIN batch_lot ON lot.id = lot_id WHERE batch_id = ?1 AND ",
            drawn_on_by_others!(),
            ")"
        );
        Ok(self.read()?.query_row(sql, [id.0], |row| row.get(0))?)
    }

    /// Writes down that the juice of a batch, or what was cooked of it, waits in the refrigerator, or that it does not.
    ///
    /// # Errors
    /// [`StoreError::NotJuice`] when it is not on its way through the mill; [`StoreError::BatchBegun`] when a jar has been
    /// touched; [`StoreError::OnStove`] while it cooks.
    pub fn chill_batch(&self, id: BatchId, chilled: bool, now: Moment) -> Result<Batch, StoreError> {
        let connection = self.lock();
        let batch = one(&connection, id)?;
        if chilled {
            let cooks = "SELECT count(*), coalesce(sum(ended_at IS NULL), 0) FROM cook
                WHERE batch_id = ?1 AND removed_at IS NULL";
            let (cooks, on_stove): (u32, u32) =
                connection.query_row(cooks, [id.0], |row| Ok((row.get(0)?, row.get(1)?)))?;
            // What was cooked waits whatever it is; what was not must be through the mill.
            if cooks == 0 && !waits_as_juice(batch.product, batch.pack) {
                return Err(StoreError::NotJuice { code: batch.code });
            }
            check_untouched(&connection, &batch)?;
            if on_stove > 0 {
                return Err(StoreError::OnStove { code: batch.code });
            }
        }
        let at = chilled.then_some(now.0);
        connection.execute("UPDATE batch SET chilled_at = ?2 WHERE id = ?1", params![id.0, at])?;
        one(&connection, id)
    }

    /// Writes down what acid was stirred into the pot of a batch, as it was measured out: all of it, nothing when the list is
    /// empty.
    ///
    /// # Errors
    /// [`StoreError::NotFound`]; [`StoreError::NotMeasured`] for a line that cannot be counted.
    pub fn set_pot_dose(&self, id: BatchId, said: &[Measured], now: Moment) -> Result<Batch, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let agent = one(&transaction, id)?.agent;
        let spoons = read_kitchen(&transaction)?.spoons;
        let tsp = all_of(said, agent, spoons)?;
        transaction.execute(
            "UPDATE batch SET pot_dose_tsp = ?2, pot_said = ?3 WHERE id = ?1",
            params![id.0, tsp, stored(tsp.map(|_| said).as_ref())?],
        )?;
        settle_pot(&transaction, id, now)?;
        let batch = one(&transaction, id)?;
        transaction.commit()?;
        Ok(batch)
    }

    /// Names a batch and writes a note beside it; nothing takes either away. A recipe without a name of its own is called as
    /// in the book.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn name_batch(
        &self,
        id: BatchId,
        name: Option<&str>,
        note: Option<&str>,
    ) -> Result<Batch, StoreError> {
        let connection = self.lock();
        let batch = one(&connection, id)?;
        let name = name.or(batch.recipe.as_ref().map(|recipe| recipe.name.as_str()));
        connection
            .execute("UPDATE batch SET name = ?2, note = ?3 WHERE id = ?1", params![id.0, name, note])
            .map_err(StoreError::from_write)?;
        one(&connection, id)
    }

    /// Writes down whether a batch would be made again, or that nobody knows.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn like_batch(&self, id: BatchId, liked: Option<Liking>) -> Result<Batch, StoreError> {
        let connection = self.lock();
        one(&connection, id)?;
        connection
            .execute("UPDATE batch SET liked = ?2 WHERE id = ?1", params![id.0, liked.map(Liking::word)])
            .map_err(StoreError::from_write)?;
        one(&connection, id)
    }

    /// The batches on the line that were made by a recipe, newest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batches_by(&self, recipe: RecipeId, most: u32) -> Result<Vec<Batch>, StoreError> {
        let sql = format!(
            "{SELECT} JOIN bowls ON bowls.id = batch.bowls_id
             WHERE bowls.recipe_id = ?1 AND batch.removed_at IS NULL ORDER BY batch.id DESC LIMIT ?2"
        );
        let connection = self.read()?;
        let mut statement = connection.prepare_cached(&sql)?;
        self.readable(statement.query_map(params![recipe.0, most], read)?)
    }

    /// How many batches on the line were made by a recipe.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn times_made(&self, recipe: RecipeId) -> Result<u32, StoreError> {
        let sql = "SELECT count(*) FROM bowls JOIN batch ON batch.bowls_id = bowls.id
            WHERE bowls.recipe_id = ?1 AND batch.removed_at IS NULL";
        Ok(row_of(&*self.read()?, sql, [recipe.0], |row| row.get(0))?)
    }

    /// Says what else goes into a batch. Once jars of it are out of the canner, what was said before stays in sight.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn set_additions(
        &self,
        id: BatchId,
        additions: &Vec<Added>,
        said: &ToldBy,
    ) -> Result<Batch, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        if let Some(was) = one(&transaction, id)?.additions {
            let about = "what else went in";
            corrected(
                &transaction,
                id,
                said,
                (about, &in_words_or_nothing(&was), &in_words_or_nothing(additions)),
            )?;
        }
        transaction.execute(
            "UPDATE batch SET additions = ?2, additions_asked = 1 WHERE id = ?1",
            params![id.0, stored(Some(additions))?],
        )?;
        let batch = one(&transaction, id)?;
        transaction.commit()?;
        Ok(batch)
    }

    /// What the judge has to know of a batch beside its jars.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn facts(&self, id: BatchId) -> Result<BatchFacts, StoreError> {
        self.caches.facts.ask(self.version()?, id, || facts(&*self.read()?, id))
    }

    /// The same of every batch whose jars stand in a load, as far as it can be read.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn facts_of(&self, load: &CannerLoad) -> Result<Vec<BatchFacts>, StoreError> {
        known(&load.batches(), |batch| self.facts(batch))
    }

    /// Sizes of a batch's jars, with how many there are of each.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batch_sizes(&self, id: BatchId) -> Result<Vec<(JarSize, u32)>, StoreError> {
        self.caches.batch_sizes.ask(self.version()?, id, || sizes(&*self.read()?, id))
    }
}

/// What is known of some batches, as far as it can be read.
pub(crate) fn known(
    batches: &[BatchId],
    facts: impl Fn(BatchId) -> Result<BatchFacts, StoreError>,
) -> Result<Vec<BatchFacts>, StoreError> {
    let known = batches.iter().map(|batch| if_readable(facts(*batch)));
    Ok(known.collect::<Result<Vec<_>, _>>()?.into_iter().flatten().collect())
}

/// What the judge has to know of a batch beside its jars.
pub(crate) fn facts(connection: &Connection, id: BatchId) -> Result<BatchFacts, StoreError> {
    let batch = one(connection, id)?;
    let bowls = batch.bowls.map(|bowls| any_bowls(connection, bowls)).transpose()?;
    let ph = ph_bench::of_batch(connection, &batch)?;
    let sql =
        "SELECT EXISTS (SELECT 1 FROM batch_lot JOIN lot ON lot.id = lot_id WHERE batch_id = ?1 AND frozen)";
    let frozen = row_of(connection, sql, [id.0], |row| row.get(0))?;
    Ok(BatchFacts { sizes: sizes(connection, id)?, batch, bowls, ph, frozen })
}

/// Refuses a batch of which a jar has been touched.
fn check_untouched(connection: &Connection, batch: &Batch) -> Result<(), StoreError> {
    let sql = "SELECT EXISTS (SELECT 1 FROM jar WHERE batch_id = ?1 AND acid_at IS NOT NULL)";
    if connection.query_row(sql, [batch.id.0], |row| row.get(0))? {
        return Err(StoreError::BatchBegun { code: batch.code.clone() });
    }
    Ok(())
}

fn accept(transaction: &Transaction<'_>, new: &NewBatch, now: Moment) -> Result<Batch, StoreError> {
    for draw in &new.draws {
        let lot = lot::one(transaction, draw.lot)?;
        if !lot.condition.can_be_canned() {
            return Err(StoreError::NotForJars { lot: lot.id, condition: lot.condition.label() });
        }
        if lot.left_g < draw.weight_g {
            return Err(StoreError::Overdrawn { lot: lot.id, left_g: lot.left_g, wanted_g: draw.weight_g });
        }
    }
    let bowls = new.recipe.as_ref().map(|by| set_out(transaction, by, now)).transpose()?;
    let id = insert_batch(transaction, new, bowls, now)?;
    for draw in &new.draws {
        transaction.execute(
            "INSERT INTO batch_lot (batch_id, lot_id, weight_g) VALUES (?1, ?2, ?3)",
            params![id.0, draw.lot.0, draw.weight_g],
        )?;
    }
    set_out_jars(transaction, id, new)?;
    one(transaction, id)
}

/// A day as codes of its batches begin.
fn day_code(day: Date) -> String {
    day.strftime("%y%m%d").to_string()
}

/// The bowls of a batch that is made by a recipe.
fn set_out(transaction: &Transaction<'_>, by: &ByRecipe, now: Moment) -> Result<BowlsId, StoreError> {
    match &by.bowls {
        SetOut::There(bowls) => check_unused(transaction, *bowls).map(|()| *bowls),
        SetOut::New { factor, base, empty } => {
            insert_bowls(transaction, by.recipe.recipe, *factor, (base, empty), now)
        }
    }
}

fn insert_batch(
    transaction: &Transaction<'_>,
    new: &NewBatch,
    bowls: Option<BowlsId>,
    now: Moment,
) -> Result<BatchId, StoreError> {
    let day = day_code(new.day);
    // The highest number of the day plus one, counting removed batches: a code is never used twice.
    let number: i64 = transaction.query_row(
        "SELECT coalesce(max(CAST(substr(code, instr(code, '-') + 1) AS INTEGER)), 0) + 1
         FROM batch WHERE code > ?1 || '-' AND code < ?1 || '.'",
        [&day],
        |row| row.get(0),
    )?;
    transaction.execute(
        "INSERT INTO batch (code, product, medium, pack, thickness, method, agent, salt, altitude_ft, planned_at, rest,
             additions, additions_asked, name, recipe, bowls_id)
         VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10, ?11, ?12, 1, ?13, ?14, ?15)",
        params![
            format!("{day}-{number}"),
            new.product.word(),
            new.medium.map(Medium::word),
            new.pack.word(),
            new.thickness.map(Thickness::word),
            new.method.word(),
            new.agent.word(),
            new.salt,
            new.altitude_ft,
            now.0,
            new.rest.map(Rest::word),
            stored(new.additions.as_ref())?,
            new.name,
            stored(new.recipe.as_ref().map(|by| &by.recipe))?,
            bowls.map(|bowls| bowls.0)
        ],
    )?;
    let id = BatchId(transaction.last_insert_rowid());
    if new.recipe.is_none() {
        // What the household reached for is offered first the next time.
        transaction
            .execute("UPDATE kitchen SET agent = ?1, salt = ?2", params![new.agent.word(), new.salt])?;
    }
    Ok(id)
}

fn set_out_jars(transaction: &Transaction<'_>, batch: BatchId, new: &NewBatch) -> Result<(), StoreError> {
    let mut number = 0;
    for (position, load) in (1..).zip(&new.loads) {
        transaction.execute(
            "INSERT INTO canner_load (canner_id, batch_id, position, minutes, psi) VALUES (?1, ?2, ?3, ?4, ?5)",
            params![new.canner.0, batch.0, position, load.minutes.0, load.psi],
        )?;
        let load_id = transaction.last_insert_rowid();
        for (size, _) in load.jars.iter().flat_map(|(size, count)| (0..*count).map(move |jar| (size, jar))) {
            number += 1;
            transaction.execute(
                "INSERT INTO jar (batch_id, load_id, number, size) VALUES (?1, ?2, ?3, ?4)",
                params![batch.0, load_id, number, size.word()],
            )?;
        }
    }
    Ok(())
}
