//! Which jars stand in which waiting load: finding room for one more, counting places again, handing loads over.

use bodega_core::canner::room::Room;
use bodega_core::canner::room::room_of;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::{BatchId, CannerId, JarId, LoadId};
use bodega_model::measures::moment::Minutes;
use bodega_model::records::canner::Canner;
use bodega_model::records::load::{CannerLoad, NewGroup, SharedLoad};
use rusqlite::{Connection, Transaction, params};

use crate::StoreError;
use crate::kitchen::read_kitchen;
use crate::rows::load::{OPEN, one};
use crate::rows::{ids, readable};

/// Sets one more jar out for a load; returns its number of the record.
pub(crate) fn set_out(
    connection: &Connection,
    batch: BatchId,
    load: LoadId,
    size: JarSize,
) -> Result<JarId, StoreError> {
    connection.execute(
        "INSERT INTO jar (batch_id, load_id, number, size)
         SELECT ?1, ?2, coalesce(max(number), 0) + 1, ?3 FROM jar WHERE batch_id = ?1",
        params![batch.0, load.0, size.word()],
    )?;
    let jar = JarId(connection.last_insert_rowid());
    look_again(connection, load)?;
    Ok(jar)
}

/// Takes the card off a load that waits: another jar has come to it, which nobody has looked at.
pub(crate) fn look_again(connection: &Connection, load: LoadId) -> Result<(), StoreError> {
    connection.execute(
        "UPDATE canner_load SET claims = NULL WHERE id = ?1
         AND NOT EXISTS (SELECT 1 FROM load_event WHERE load_id = ?1 AND undone_at IS NULL)",
        [load.0],
    )?;
    Ok(())
}

/// Whether a canner holds these jars in one load, as the household counted and measured.
pub(crate) fn check_room(
    connection: &Connection,
    canner: &Canner,
    sizes: &[(JarSize, u32)],
) -> Result<(), StoreError> {
    let room = room_of(canner, &read_kitchen(connection)?.outsides());
    for (size, _) in sizes.iter().filter(|(_, count)| *count > 0) {
        room.most_of(*size)?;
    }
    if room.holds(sizes) { Ok(()) } else { Err(StoreError::CannerFull) }
}

/// Refuses while another load is in the canner.
pub(crate) fn check_canner_free(connection: &Connection, load: &CannerLoad) -> Result<(), StoreError> {
    let mut statement = connection.prepare_cached(OPEN)?;
    let open = ids(&mut statement, [], LoadId)?;
    let others = open.into_iter().filter(|other| *other != load.id);
    for other in readable(others.map(|other| one(connection, other)))? {
        if other.canner.id == load.canner.id && other.clock.has_begun() {
            return Err(StoreError::CannerBusy { position: other.position, code: other.batch.code });
        }
    }
    Ok(())
}

/// Adds a load behind a batch's others; returns its number of the record.
pub(crate) fn append(
    connection: &Connection,
    canner: CannerId,
    batch: BatchId,
    minutes: Minutes,
    psi: Option<u32>,
) -> Result<LoadId, StoreError> {
    connection.execute(
        "INSERT INTO canner_load (canner_id, batch_id, position, minutes, psi)
         SELECT ?1, ?2, coalesce(max(position), 0) + 1, ?3, ?4 FROM canner_load WHERE batch_id = ?2",
        params![canner.0, batch.0, minutes.0, psi],
    )?;
    Ok(LoadId(connection.last_insert_rowid()))
}

/// A load and the waiting ones of its batch and canner that are like it, itself first.
fn alike(connection: &Connection, wanted: &CannerLoad) -> Result<Vec<CannerLoad>, StoreError> {
    let mut statement = connection
        .prepare_cached("SELECT id FROM canner_load WHERE batch_id = ?1 ORDER BY id <> ?2, position")?;
    let sisters = ids(&mut statement, [wanted.batch.id.0, wanted.id.0], LoadId)?;
    let sisters = readable(sisters.into_iter().map(|id| one(connection, id)))?.into_iter();
    let is_alike = |sister: &CannerLoad| {
        !sister.clock.has_begun() && sister.canner.id == wanted.canner.id && sister.psi == wanted.psi
    };
    Ok(sisters.filter(is_alike).collect())
}

/// Whether a load takes so many more jars of a size.
fn takes(connection: &Connection, load: &CannerLoad, size: JarSize, more: u32) -> bool {
    check_room(connection, &load.canner, &load.stands_with(&[(size, more)])).is_ok()
}

/// Gives a load the time of the jars that come to it, when they need longer.
fn lengthen(connection: &Connection, load: &CannerLoad, required: Minutes) -> Result<(), StoreError> {
    if load.clock.required() < required {
        connection
            .execute("UPDATE canner_load SET minutes = ?2 WHERE id = ?1", params![load.id.0, required.0])?;
    }
    Ok(())
}

/// The load that takes one more jar: this one, the next waiting one of its batch and canner with room, or a new one. A
/// jar that needs longer than the load it goes into gives that load its own time.
pub(crate) fn with_room(connection: &Connection, load: LoadId, size: JarSize) -> Result<LoadId, StoreError> {
    let wanted = one(connection, load)?;
    for sister in alike(connection, &wanted)? {
        if takes(connection, &sister, size, 1) {
            lengthen(connection, &sister, wanted.clock.required())?;
            return Ok(sister.id);
        }
    }
    append(connection, wanted.canner.id, wanted.batch.id, wanted.clock.required(), wanted.psi)
}

/// Sets more jars of a size out for a batch: in this load, then in the waiting ones of the same canner, then in new ones.
/// Each load is asked once how many it takes, because a thousand jars may be counted in one touch.
pub(crate) fn set_out_more(
    connection: &Connection,
    batch: BatchId,
    load: LoadId,
    (size, count): (JarSize, usize),
) -> Result<(), StoreError> {
    let wanted = one(connection, load)?;
    let mut left = count;
    for sister in alike(connection, &wanted)? {
        let most = u32::try_from(left).unwrap_or(u32::MAX);
        let taken = (1..=most).take_while(|more| takes(connection, &sister, size, *more)).last().unwrap_or(0);
        if taken > 0 {
            lengthen(connection, &sister, wanted.clock.required())?;
        }
        for _ in 0..taken {
            set_out(connection, batch, sister.id, size)?;
        }
        left -= taken as usize;
    }
    let full = room_of(&wanted.canner, &read_kitchen(connection)?.outsides()).most_of(size)?.max(1) as usize;
    while left > 0 {
        let new = append(connection, wanted.canner.id, wanted.batch.id, wanted.clock.required(), wanted.psi)?;
        for _ in 0..left.min(full) {
            set_out(connection, batch, new, size)?;
        }
        left = left.saturating_sub(full);
    }
    Ok(())
}

/// Takes a waiting load away that holds no jar and never held one.
pub(crate) fn remove_empty(connection: &Connection, load: LoadId) -> Result<(), StoreError> {
    connection.execute(
        "DELETE FROM canner_load WHERE id = ?1 AND NOT EXISTS (SELECT 1 FROM jar WHERE load_id = ?1)
         AND NOT EXISTS (SELECT 1 FROM jar_past WHERE load_id = ?1)
         AND NOT EXISTS (SELECT 1 FROM load_event WHERE load_id = ?1)",
        [load.0],
    )?;
    Ok(())
}

/// Counts the loads of some batches from 1 again.
pub(crate) fn renumber(connection: &Connection, batches: &[BatchId]) -> Result<(), StoreError> {
    // By way of far places, because two loads of a batch never share one.
    let mut away = connection
        .prepare_cached("UPDATE canner_load SET position = position + 1000000 WHERE batch_id = ?1")?;
    let mut back = connection.prepare_cached(
        "UPDATE canner_load SET position = (
             SELECT count(*) FROM canner_load AS other
             WHERE other.batch_id = canner_load.batch_id AND other.id <= canner_load.id)
         WHERE batch_id = ?1",
    )?;
    for batch in batches {
        away.execute([batch.0])?;
        back.execute([batch.0])?;
    }
    Ok(())
}

/// Hands loads that hold other batches' jars over to one of those, when their own batch leaves the line.
pub(crate) fn hand_over(connection: &Connection, batch: BatchId) -> Result<(), StoreError> {
    let mut statement = connection.prepare_cached(
        "UPDATE canner_load SET
             batch_id = (SELECT min(jar.batch_id) FROM jar JOIN batch ON batch.id = jar.batch_id
                 WHERE load_id = canner_load.id AND removed_at IS NULL AND jar.batch_id <> ?1),
             position = position + 1000000
         WHERE batch_id = ?1 AND EXISTS (SELECT 1 FROM jar JOIN batch ON batch.id = jar.batch_id
             WHERE load_id = canner_load.id AND removed_at IS NULL AND jar.batch_id <> ?1)
         RETURNING batch_id",
    )?;
    let mut touched = ids(&mut statement, [batch.0], BatchId)?;
    touched.push(batch);
    renumber(connection, &touched)
}

/// Puts the jars of batches that were just set out into shared loads, each batch's in their order.
///
/// # Errors
/// [`StoreError::NotTogether`] when the loads are not of all the jars.
pub(crate) fn share_loads(
    transaction: &Transaction<'_>,
    batches: &[BatchId],
    loads: &[SharedLoad],
) -> Result<(), StoreError> {
    let mut before: Vec<LoadId> = Vec::new();
    let mut waiting: Vec<std::vec::IntoIter<JarId>> = Vec::new();
    for batch in batches {
        let mut set_out = transaction.prepare_cached("SELECT id FROM canner_load WHERE batch_id = ?1")?;
        before.extend(ids(&mut set_out, [batch.0], LoadId)?);
        let mut jars =
            transaction.prepare_cached("SELECT id FROM jar WHERE batch_id = ?1 ORDER BY number")?;
        waiting.push(ids(&mut jars, [batch.0], JarId)?.into_iter());
    }
    let group = |load: &SharedLoad| {
        let mut jars: Vec<JarId> = Vec::new();
        for (place, count) in &load.jars {
            let of_batch = waiting.get_mut(*place).ok_or(StoreError::NotTogether)?;
            jars.extend(of_batch.take(*count as usize));
        }
        let (first, _) = load.jars.first().ok_or(StoreError::NotTogether)?;
        Ok(NewGroup { batch: batches[*first], minutes: load.minutes, psi: load.psi, jars })
    };
    let groups = loads.iter().map(group).collect::<Result<Vec<_>, StoreError>>()?;
    put_together(transaction, &before, &groups)
}

/// Puts the jars of waiting loads together anew.
///
/// # Errors
/// [`StoreError::NotTogether`] when a load has begun or the groups are not the same jars.
pub(crate) fn put_together(
    transaction: &Transaction<'_>,
    loads: &[LoadId],
    groups: &[NewGroup],
) -> Result<(), StoreError> {
    let before = loads.iter().map(|id| one(transaction, *id)).collect::<Result<Vec<_>, _>>()?;
    let Some(canner) = before.first().map(|load| load.canner.id) else { return Ok(()) };
    let sorted = |mut ids: Vec<JarId>| {
        ids.sort_unstable();
        ids
    };
    let had = sorted(before.iter().flat_map(|load| load.jars.iter().map(|jar| jar.id)).collect());
    let have = sorted(groups.iter().flat_map(|group| group.jars.iter().copied()).collect());
    if had != have || before.iter().any(|load| load.clock.has_begun()) {
        return Err(StoreError::NotTogether);
    }
    for group in groups {
        let load = append(transaction, canner, group.batch, group.minutes, group.psi)?;
        for jar in &group.jars {
            transaction.execute("UPDATE jar SET load_id = ?2 WHERE id = ?1", [jar.0, load.0])?;
        }
    }
    for load in &before {
        transaction.execute("DELETE FROM canner_load WHERE id = ?1", [load.id.0])?;
    }
    let mut touched: Vec<BatchId> = before.iter().map(|load| load.batch.id).collect();
    touched.extend(groups.iter().map(|group| group.batch));
    touched.sort_unstable();
    touched.dedup();
    renumber(transaction, &touched)
}
