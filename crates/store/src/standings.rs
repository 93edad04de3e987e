//! What was answered last about what stands against the jars at home, and what was written since. Nothing of it is ever in the
//! file; [`crate::at_home`] asks core's rule.

use std::collections::{BTreeMap, HashMap};
use std::sync::{Arc, Mutex, PoisonError};

use bodega_model::judge::standing::JarStanding;
use bodega_model::measures::ids::{BatchId, JarId, LoadId};
use rusqlite::Connection;

/// Tables whose rows decide what stands against a jar.
pub(crate) const DECIDING: [&str; 10] = [
    "jar",
    "canner_load",
    "load_event",
    "batch",
    "ph_reading",
    "bench_ph",
    "bowls",
    "altitude_said",
    "canner",
    "canner_capacity",
];

/// Rows that are remembered one by one; when more are written at once, everything is asked anew.
const MOST_ROWS: usize = 5_000;

/// Rows that were written since somebody asked.
#[derive(Debug, Default)]
pub(crate) struct Written {
    pub(crate) rows: Vec<(usize, i64)>,
    pub(crate) is_all: bool,
}

impl Written {
    fn add(&mut self, table: &str, row: i64) {
        let Some(table) = DECIDING.iter().position(|name| *name == table) else { return };
        self.is_all |= self.rows.len() >= MOST_ROWS;
        if !self.is_all && self.rows.last() != Some(&(table, row)) {
            self.rows.push((table, row));
        }
    }

    pub(crate) fn is_empty(&self) -> bool {
        self.rows.is_empty() && !self.is_all
    }

    pub(crate) fn take(&mut self, other: &mut Self) {
        self.rows.append(&mut other.rows);
        self.is_all |= std::mem::take(&mut other.is_all);
    }
}

/// What is written, before and after it is on disk.
#[derive(Debug, Default)]
pub(crate) struct Changes {
    /// By a transaction that is not over.
    open: Mutex<Written>,
    /// On disk, and how often that changed.
    pub(crate) done: Mutex<(Written, u64)>,
}

impl Changes {
    /// Hears of every row that a connection writes.
    pub(crate) fn hear(self: &Arc<Self>, connection: &Connection) -> rusqlite::Result<()> {
        let changes = Arc::clone(self);
        connection.update_hook(Some(move |_, _: &str, table: &str, row| {
            changes.open.lock().unwrap_or_else(PoisonError::into_inner).add(table, row);
        }))
    }

    /// What was written is on disk, or taken back. Called before the connection is given to anybody else.
    pub(crate) fn settle(&self) {
        let mut open = self.open.lock().unwrap_or_else(PoisonError::into_inner);
        if !open.is_empty() {
            let mut done = self.done.lock().unwrap_or_else(PoisonError::into_inner);
            done.0.take(&mut open);
            done.1 += 1;
        }
    }
}

/// What stands against the jars of one load.
#[derive(Debug, Clone)]
pub(crate) struct OfLoad {
    pub(crate) batches: Vec<BatchId>,
    pub(crate) jars: Vec<(JarId, Arc<JarStanding>)>,
}

/// What stands against the jars at home.
#[derive(Debug, Clone, Default)]
pub struct AtHome {
    /// Another one after every change of it.
    pub(crate) version: u64,
    pub(crate) loads: BTreeMap<LoadId, OfLoad>,
    jars: HashMap<JarId, Arc<JarStanding>>,
    stopped: Vec<JarId>,
    /// Loads of which a jar is stopped.
    stopped_loads: Vec<LoadId>,
}

impl AtHome {
    /// What stands against a jar; nothing against one that is not at home, or whose load cannot be read.
    #[must_use]
    pub fn of(&self, jar: JarId) -> JarStanding {
        self.jars.get(&jar).map_or(JarStanding::CLEAR, |standing| standing.as_ref().clone())
    }

    /// The same, when the jar is at home.
    #[must_use]
    pub fn at_home(&self, jar: JarId) -> Option<&JarStanding> {
        self.jars.get(&jar).map(AsRef::as_ref)
    }

    /// Jars that something stands against, as a list for SQL.
    pub(crate) fn stopped_json(&self) -> String {
        json_of(self.stopped.iter().map(|jar| jar.0))
    }

    /// The loads they went through.
    pub(crate) fn stopped_loads_json(&self) -> String {
        json_of(self.stopped_loads.iter().map(|load| load.0))
    }

    /// What stands against the jars of some loads.
    pub(crate) fn of_loads(version: u64, loads: BTreeMap<LoadId, OfLoad>) -> Self {
        let is_stopped = |(_, standing): &&(JarId, Arc<JarStanding>)| standing.is_stopped();
        let stopped_in =
            |load: &OfLoad| load.jars.iter().filter(is_stopped).map(|(jar, _)| *jar).collect::<Vec<_>>();
        let with_stops = loads.iter().filter(|(_, load)| !stopped_in(load).is_empty());
        Self {
            version,
            jars: loads.values().flat_map(|load| load.jars.iter().cloned()).collect(),
            stopped: loads.values().flat_map(stopped_in).collect(),
            stopped_loads: with_stops.map(|(id, _)| *id).collect(),
            loads,
        }
    }
}

fn json_of(numbers: impl Iterator<Item = i64>) -> String {
    format!("[{}]", numbers.map(|number| number.to_string()).collect::<Vec<_>>().join(","))
}

/// The last answer.
#[derive(Default)]
pub(crate) struct Standings(pub(crate) Mutex<Arc<AtHome>>);
