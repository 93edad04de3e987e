//! Jars on the bench: acid first, then food; later whether the lid holds.

use bodega_core::jars::bench::{JarStep, may_tick};
use bodega_core::jars::doses::has_acid;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::{BatchId, JarId, LoadId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::jar::Jar;
use bodega_model::towel::liquid::LiquidLost;
use rusqlite::{Connection, params};

use crate::corrections::{ToldBy, corrected};
use crate::pot::{dosed_pot, settle_pot};
use crate::rows::jar::{of_load, one};
use crate::rows::{batch as batches, found, load};
use crate::towel::lifted;
use crate::{Store, StoreError, assignment};

/// Column of a step.
const fn column(step: JarStep) -> &'static str {
    match step {
        JarStep::Acid => "acid_at",
        JarStep::Salt => "salt_at",
        JarStep::Filled => "filled_at",
        JarStep::Bubbles => "bubbles_at",
        JarStep::Rim => "rim_at",
        JarStep::Lid => "lid_at",
    }
}

/// Assignments that tick a step with all that it implies, or take it back with all that it opens again.
fn assignments(step: JarStep, done: bool) -> String {
    let assign = |step: &JarStep| {
        let column = column(*step);
        if done { format!("{column} = coalesce({column}, ?2)") } else { format!("{column} = nullif(?2, ?2)") }
    };
    let steps = if done { step.implies() } else { step.reopens() };
    steps.iter().map(assign).collect::<Vec<_>>().join(", ")
}

/// Ticks every step of a jar.
pub(crate) fn make_ready(connection: &Connection, jar: JarId, now: Moment) -> Result<(), StoreError> {
    for step in [JarStep::Acid, JarStep::Lid] {
        connection.execute(
            &format!("UPDATE jar SET {} WHERE id = ?1", assignments(step, true)),
            params![jar.0, now.0],
        )?;
    }
    Ok(())
}

impl Store {
    /// Ticks a step of one jar with all before it but the acid, or takes it back with all after it.
    ///
    /// # Errors
    /// [`StoreError::AcidFirst`] when anything else would come before acid; [`StoreError::LoadBegun`] once the jar is in
    /// the canner; [`StoreError::NotFound`].
    pub fn tick_jar(&self, id: JarId, step: JarStep, done: bool, now: Moment) -> Result<Jar, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        check_on_bench(&transaction, load_of(&transaction, id)?)?;
        let jar = one(&transaction, id)?;
        if done {
            tick(&transaction, &jar, step, false, now)?;
        } else {
            transaction.execute(
                &format!("UPDATE jar SET {} WHERE id = ?1", assignments(step, false)),
                params![id.0, now.0],
            )?;
        }
        let jar = one(&transaction, id)?;
        transaction.commit()?;
        Ok(jar)
    }

    /// Says of a jar that its food is in and its acid is not: the acid comes next, before its lid.
    ///
    /// # Errors
    /// [`StoreError::LoadBegun`] once the jar is in the canner; [`StoreError::NotFound`].
    pub fn fill_before_acid(&self, id: JarId, now: Moment) -> Result<Jar, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        check_on_bench(&transaction, load_of(&transaction, id)?)?;
        tick(&transaction, &one(&transaction, id)?, JarStep::Filled, true, now)?;
        let jar = one(&transaction, id)?;
        transaction.commit()?;
        Ok(jar)
    }

    /// Recounts the jars of one batch and size in a load that waits on the bench, because the pot gave more or fewer.
    /// Jars are taken from the end; a filled one is never taken. Jars that the canner does not hold in this load go into
    /// the next waiting one with room, or into a load of their own.
    ///
    /// # Errors
    /// [`StoreError::LoadBegun`] once the load is in the canner; [`StoreError::JarFilled`] when filled jars would have
    /// to go; [`StoreError::CannerFull`] when the canner holds none of that size; [`StoreError::NotFound`].
    pub fn recount(
        &self,
        load: LoadId,
        batch: BatchId,
        size: JarSize,
        count: u32,
        now: Moment,
    ) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let found = load::one(&transaction, load)?;
        if found.clock.has_begun() {
            return Err(StoreError::LoadBegun);
        }
        // A batch that is not there has no jars.
        batches::one(&transaction, batch)?;
        let is_counted = |jar: &Jar| jar.size == size && jar.batch == batch;
        assignment::check_room(&transaction, &found.canner, &[(size, 1)])?;
        let counted: Vec<&Jar> = found.jars.iter().filter(|jar| is_counted(jar)).collect();
        let have = counted.len();
        let want = count as usize;
        for jar in counted.iter().skip(want.min(have)) {
            if jar.filled {
                return Err(StoreError::JarFilled { number: jar.number });
            }
            transaction.execute("DELETE FROM jar WHERE id = ?1", [jar.id.0])?;
        }
        assignment::set_out_more(&transaction, batch, load, (size, want.saturating_sub(have)))?;
        settle_pot(&transaction, batch, now)?;
        Ok(transaction.commit()?)
    }

    /// Ticks a step, with all before it but the acid, of every jar of a load that has its acid. Returns how many jars
    /// that were.
    ///
    /// # Errors
    /// [`StoreError::LoadBegun`] once the load is in the canner; [`StoreError::Sqlite`] when the file cannot be written.
    pub fn tick_load(&self, load: LoadId, step: JarStep, now: Moment) -> Result<usize, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        check_on_bench(&transaction, load)?;
        let mut ticked = 0;
        for jar in of_load(&transaction, load)? {
            match tick(&transaction, &jar, step, false, now) {
                Ok(()) => ticked += 1,
                Err(StoreError::AcidFirst(_)) => {}
                Err(other) => return Err(other),
            }
        }
        transaction.commit()?;
        Ok(ticked)
    }

    /// Takes back what was ticked on a load's jars at one moment, and nothing else: the ticks of one touch. A jar that is
    /// left without its acid has no lid on.
    ///
    /// # Errors
    /// [`StoreError::LoadBegun`] once the load is in the canner; [`StoreError::NotFound`].
    pub fn untick_load(&self, load: LoadId, at: Moment) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        check_on_bench(&transaction, load)?;
        let nullify = |step: &JarStep| format!("{0} = nullif({0}, ?2)", column(*step));
        let steps = JarStep::ALL.iter().filter(|step| **step != JarStep::Lid);
        let back = steps.map(nullify).collect::<Vec<_>>().join(", ");
        transaction.execute(
            &format!(
                "UPDATE jar SET {back}, acid_from_pot = iif(nullif(acid_at, ?2) IS NULL, 0, acid_from_pot),
                lid_at = iif(nullif(acid_at, ?2) IS NULL, NULL, nullif(lid_at, ?2)) WHERE load_id = ?1"
            ),
            params![load.0, at.0],
        )?;
        Ok(transaction.commit()?)
    }

    /// Says of jars that went into the canner, or are out of it, that their dose of acid is not in them, or takes that
    /// back; all of them or none. They do not count on the shelf, and no lid of theirs is said to hold.
    ///
    /// # Errors
    /// [`StoreError::OnBench`] while the jar is not in the canner, where its tick is taken back; [`StoreError::InPot`] when
    /// the pot has its dose; [`StoreError::InRecipe`] when it is a part of the recipe; [`StoreError::PotShort`] when it has too little and that is to be taken back;
    /// [`StoreError::AlreadyGone`]; [`StoreError::NotFound`].
    pub fn set_undosed(&self, jars: &[JarId], undosed: bool, told: &ToldBy) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        for id in jars {
            let jar = one(&transaction, *id)?;
            let number = jar.number;
            if !load::one(&transaction, load_of(&transaction, *id)?)?.clock.has_begun() {
                return Err(StoreError::OnBench { number });
            }
            check_there(&transaction, &jar)?;
            if jar.brings_its_acid() {
                return Err(StoreError::InRecipe { number });
            }
            if dosed_pot(&transaction, jar.batch)?.is_some_and(|pot| pot.is_enough(jar.agent)) {
                return Err(StoreError::InPot { number });
            }
            let sql = "SELECT acid_from_pot FROM jar WHERE id = ?1";
            if !undosed && transaction.query_row(sql, [id.0], |row| row.get(0))? {
                return Err(StoreError::PotShort { number });
            }
            transaction.execute(
                "UPDATE jar SET undosed_at = iif(?2, coalesce(undosed_at, ?3), NULL) WHERE id = ?1",
                params![id.0, undosed, told.at.0],
            )?;
            if !undosed && jar.undosed_at.is_some() {
                let about = format!("acid of jar {number}");
                corrected(&transaction, jar.batch, told, (&about, "not in it", "in it"))?;
            }
        }
        Ok(transaction.commit()?)
    }

    /// Says how much of their liquid jars lost in the canner, or takes that back with `None`; all of them or none.
    ///
    /// # Errors
    /// [`StoreError::NotOnTowel`] while one is not out of the canner; [`StoreError::AlreadyGone`]; [`StoreError::NotFound`].
    pub fn set_liquid_lost(
        &self,
        jars: &[JarId],
        lost: Option<LiquidLost>,
        told: &ToldBy,
    ) -> Result<(), StoreError> {
        let words = |lost: Option<LiquidLost>| lost.map_or("none of it", LiquidLost::label);
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        for id in jars {
            let jar = one(&transaction, *id)?;
            lifted(&transaction, *id)?;
            check_there(&transaction, &jar)?;
            transaction.execute(
                "UPDATE jar SET liquid_lost = ?2, liquid_lost_at = ?3 WHERE id = ?1",
                params![id.0, lost.map(LiquidLost::word), lost.map(|_| told.at.0)],
            )?;
            // The first time it is seen; what is said otherwise later may end a stop.
            if jar.liquid_lost.is_some() {
                let about = format!("liquid that jar {} lost", jar.number);
                corrected(&transaction, jar.batch, told, (&about, words(jar.liquid_lost), words(lost)))?;
            }
        }
        Ok(transaction.commit()?)
    }
}

/// The load that a jar stands in.
fn load_of(connection: &Connection, jar: JarId) -> Result<LoadId, StoreError> {
    let load = connection.query_row("SELECT load_id FROM jar WHERE id = ?1", [jar.0], |row| row.get(0));
    found(load.map(LoadId), "jar", jar.0)
}

/// Refuses a jar that broke or was discarded: nothing is said of it any more.
fn check_there(connection: &Connection, jar: &Jar) -> Result<(), StoreError> {
    let sql = "SELECT gone_at IS NOT NULL FROM jar WHERE id = ?1";
    let is_gone = connection.query_row(sql, [jar.id.0], |row| row.get(0))?;
    if is_gone { Err(StoreError::AlreadyGone { number: jar.number }) } else { Ok(()) }
}

/// Refuses once a load is in the canner: what was ticked on the bench is not ticked or taken back there in silence.
fn check_on_bench(connection: &Connection, load: LoadId) -> Result<(), StoreError> {
    if load::one(connection, load)?.clock.has_begun() { Err(StoreError::LoadBegun) } else { Ok(()) }
}

/// Ticks a step of a jar that has its acid, or the acid itself. Acid that is in the pot is in the jar from the moment it is
/// filled.
fn tick(
    connection: &Connection,
    jar: &Jar,
    step: JarStep,
    food_first: bool,
    now: Moment,
) -> Result<(), StoreError> {
    let pot = dosed_pot(connection, jar.batch)?;
    may_tick(jar, step, food_first, pot.as_slice())?;
    let acid = assignments(JarStep::Acid, true);
    let steps = match step {
        // What was found to be missing goes in now.
        JarStep::Acid if !jar.acid => "acid_at = ?2, acid_from_pot = 0, undosed_at = NULL".to_owned(),
        JarStep::Acid => acid,
        _ if jar.acid || !has_acid(jar, pot.as_slice()) => assignments(step, true),
        _ => format!("{acid}, acid_from_pot = 1, {}", assignments(step, true)),
    };
    connection.execute(&format!("UPDATE jar SET {steps} WHERE id = ?1"), params![jar.id.0, now.0])?;
    Ok(())
}
