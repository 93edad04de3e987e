//! Canner loads: their jars, their batch and what happened to them.

use serde::{Deserialize, Serialize};

use crate::canner::clock::BoilClock;
use crate::canner::cover::{UnderJars, WaterOver};
use crate::canner::events::{BoilEvent, Fate};
use crate::jars::size::JarSize;
use crate::kitchen::altitude::Altitude;
use crate::measures::ids::{BatchId, JarId, LoadId};
use crate::measures::limits::{ALSO_COUNT, ALSO_MINUTES, OutOfRange};
use crate::measures::moment::{Minutes, Moment};
use crate::measures::names::{BadName, clean_name};
use crate::recipe::process::tested;
use crate::records::batch::Batch;
use crate::records::canner::Canner;
use crate::records::claims::Claims;
use crate::records::jar::{Jar, sum_sizes};
use crate::records::recipe::BatchRecipe;
use crate::tables::process::{Medium, Pack, ProcessOption, Query, Refusal, at_pounds};

/// A load with its jars, its batch and its clock.
#[derive(Debug, Clone, PartialEq)]
pub struct CannerLoad {
    /// Number of the record.
    pub id: LoadId,
    /// Place among the loads of its batch, from 1.
    pub position: u32,
    /// Loads of its batch.
    pub of: u32,
    /// The batch it is counted with; the first of them when it holds jars of several.
    pub batch: Batch,
    /// The canner it goes into.
    pub canner: Canner,
    /// How warm the empty jars are, in degrees Celsius, as somebody judged.
    pub jars_c: Option<f64>,
    /// What somebody saw of its jars; `None` while nobody looked.
    pub claims: Option<Claims>,
    /// Whether that is asked of it: loads from before it was asked make no claim and raise no alarm.
    pub claims_asked: bool,
    /// How much water stands over its lids, as somebody saw it last; `None` while nobody was asked.
    pub water_over: Option<WaterOver>,
    /// When somebody looked at it last.
    pub water_at: Option<Moment>,
    /// Whether that is asked of it: loads from before it was asked make no claim and raise no alarm.
    pub water_asked: bool,
    /// What its jars stand on; `None` when nobody said.
    pub under_jars: Option<UnderJars>,
    /// Jars of something else in the same canner.
    pub also: Vec<AlsoIn>,
    /// When the first of its jars was filled.
    pub filled_since: Option<Moment>,
    /// What a probe in the canner read, oldest first.
    pub readings: Vec<CannerReading>,
    /// Pressure, if it is a pressure process.
    pub psi: Option<u32>,
    /// Recipes of the batches whose jars stand in it.
    pub recipes: Vec<(BatchId, BatchRecipe)>,
    /// Its jars.
    pub jars: Vec<Jar>,
    /// Its clock.
    pub clock: BoilClock,
}

impl CannerLoad {
    /// The batches whose jars stand in it, in the order of the jars.
    #[must_use]
    pub fn batches(&self) -> Vec<BatchId> {
        let mut batches: Vec<BatchId> = Vec::new();
        for jar in &self.jars {
            if !batches.contains(&jar.batch) {
                batches.push(jar.batch);
            }
        }
        batches
    }

    /// When it came out of its canner; `None` while it has not.
    #[must_use]
    pub fn lifted_at(&self) -> Option<Moment> {
        let mut happened = self.clock.happened().iter();
        happened.find(|item| item.event == BoilEvent::Lifted).map(|item| item.at)
    }

    /// How long one of its jars had its boil without a break, in milliseconds: what it had before it was lifted by itself, else
    /// what the load had.
    #[must_use]
    pub fn held_ms(&self, jar: &Jar, now: Moment) -> i64 {
        self.clock.held_before(jar.id).unwrap_or_else(|| self.clock.unbroken_ms(now))
    }

    /// The recipe of one of its jars.
    #[must_use]
    pub fn recipe_of(&self, jar: &Jar) -> Option<&BatchRecipe> {
        self.recipes.iter().find(|(batch, _)| *batch == jar.batch).map(|(_, recipe)| recipe)
    }

    /// What a jar lies in, as far as somebody looked.
    #[must_use]
    pub fn medium_of(&self, jar: &Jar) -> Option<Medium> {
        self.claims.map_or(jar.medium, |claims| claims.medium_of(jar))
    }

    /// How a jar was packed, as far as somebody looked.
    #[must_use]
    pub fn pack_of(&self, jar: &Jar) -> Pack {
        self.claims.map_or(jar.pack, |claims| claims.pack_of(jar))
    }

    /// The tested process of one of its jars by itself: under pressure at the load's own pounds, where they reach a tested
    /// pressure, else at the lowest one.
    ///
    /// # Errors
    /// [`Refusal`] when there is none.
    pub fn own_process(&self, jar: &Jar, altitude: Altitude) -> Result<ProcessOption, Refusal> {
        let query = Query {
            product: jar.product,
            medium: self.medium_of(jar),
            pack: self.pack_of(jar),
            method: self.batch.method,
            jar: jar.size,
            altitude,
        };
        let options = tested(&query, self.recipe_of(jar).and_then(|recipe| recipe.process.as_ref()))?.options;
        let at_its_pounds = self.psi.and_then(|psi| at_pounds(&options, Some(f64::from(psi))));
        at_its_pounds.or_else(|| options.first().copied()).ok_or_else(|| Refusal::no_tested_process(&query))
    }

    /// Everything that stands in the canner, by size.
    #[must_use]
    pub fn stands(&self) -> Vec<(JarSize, u32)> {
        self.stands_with(&[])
    }

    /// The same with more jars.
    #[must_use]
    pub fn stands_with(&self, more: &[(JarSize, u32)]) -> Vec<(JarSize, u32)> {
        let own = self.jars.iter().map(|jar| (jar.size, 1));
        let also = self.also.iter().map(|also| (also.size, also.count));
        sum_sizes(own.chain(also).chain(more.iter().copied()))
    }

    /// The tested process of the jar that needs longest: everything in a canner gets the longest time, what rides along
    /// with it too. `None` when it has no jars.
    ///
    /// # Errors
    /// [`Refusal`] of the first jar that has none.
    pub fn longest_process(&self, altitude: Altitude) -> Result<Option<ProcessOption>, Refusal> {
        let own = self.jars.iter().map(|jar| self.own_process(jar, altitude));
        let own = own.collect::<Result<Vec<_>, _>>()?;
        let longest = own.into_iter().max_by_key(|option| option.minutes);
        let also = self.also.iter().map(|also| also.minutes).max();
        Ok(longest.map(|option| ProcessOption {
            minutes: also.map_or(option.minutes, |also| also.max(option.minutes)),
            ..option
        }))
    }

    /// What became of one of its jars in the canner.
    #[must_use]
    pub fn fate(&self, jar: &Jar) -> Fate {
        let altitude = Altitude::from_feet(self.batch.altitude_ft).ok();
        let own = altitude.and_then(|altitude| self.own_process(jar, altitude).ok());
        self.clock.fate(jar.id, own.map_or(self.clock.required(), |own| own.minutes))
    }

    /// Jars that broke or were lifted early.
    #[must_use]
    pub fn gone(&self) -> Vec<GoneJar> {
        let gone = |jar: &Jar| GoneJar { jar: jar.id, number: jar.number, fate: self.fate(jar) };
        self.jars.iter().map(gone).filter(|jar| jar.fate != Fate::Stayed).collect()
    }

    /// Whether a jar had its full time: with the load, or by its own time when it was lifted early.
    #[must_use]
    pub fn is_processed(&self, jar: JarId, now: Moment) -> bool {
        let found = self.jars.iter().find(|other| other.id == jar);
        match found.map_or(Fate::Stayed, |jar| self.fate(jar)) {
            Fate::Stayed => self.clock.is_processed(now),
            Fate::OutInTime => true,
            Fate::OutTooEarly | Fate::Broken => false,
        }
    }
}

/// Like jars of something else that ride along in a load: neither approved nor timed here.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct AlsoIn {
    /// Size.
    pub size: JarSize,
    /// How many, 1 to 1,000.
    pub count: u32,
    /// Minutes that they need by their own recipe, 1 to 1,440.
    pub minutes: Minutes,
    /// What is in them, as the household calls it, 1 to 80 letters; `null` while nobody said.
    #[serde(default)]
    pub name: Option<String>,
    /// How many of them broke in the canner; they stand in it until the others are out.
    #[serde(default)]
    pub broken: u32,
}

/// What is wrong with a line of jars that ride along.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum WrongAlso {
    /// How many there are.
    #[error(transparent)]
    Count(OutOfRange),
    /// What they need.
    #[error(transparent)]
    Minutes(OutOfRange),
    /// What they are called.
    #[error(transparent)]
    Name(BadName),
    /// More broke than there are.
    #[error("{0} of them are there; give 0 to {0}")]
    Broken(u32),
}

impl WrongAlso {
    /// The field that it is about.
    #[must_use]
    pub const fn field(&self) -> &'static str {
        match self {
            Self::Count(_) => "count",
            Self::Minutes(_) => "minutes",
            Self::Name(_) => "name",
            Self::Broken(_) => "broken",
        }
    }
}

impl AlsoIn {
    /// The line as it is kept, its name without space around it.
    ///
    /// # Errors
    /// [`WrongAlso`] names the field.
    pub fn checked(self) -> Result<Self, WrongAlso> {
        ALSO_COUNT.check(f64::from(self.count)).map_err(WrongAlso::Count)?;
        ALSO_MINUTES.check(f64::from(self.minutes.0)).map_err(WrongAlso::Minutes)?;
        if self.broken > self.count {
            return Err(WrongAlso::Broken(self.count));
        }
        let name = self.name.as_deref().map(clean_name).transpose().map_err(WrongAlso::Name)?;
        Ok(Self { name: name.map(str::to_owned), ..self })
    }
}

/// A jar that did not stay with its load.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct GoneJar {
    /// Its record.
    pub jar: JarId,
    /// Its number in its batch.
    pub number: u32,
    /// What became of it.
    pub fate: Fate,
}

/// What a probe in the canner read.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CannerReading {
    /// When.
    pub at: Moment,
    /// Degrees Celsius.
    pub temp_c: f64,
    /// From a simulated probe.
    pub simulated: bool,
}

/// A load that others are put together into.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct NewGroup {
    /// The batch it is counted with.
    pub batch: BatchId,
    /// Minutes of the jar that needs longest.
    pub minutes: Minutes,
    /// Its pressure, if any.
    pub psi: Option<u32>,
    /// Its jars.
    pub jars: Vec<JarId>,
}

/// A load of several batches that are set out together.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct SharedLoad {
    /// Places of the batches, and how many jars of each go in.
    pub jars: Vec<(usize, u32)>,
    /// Minutes of the jar that needs longest.
    pub minutes: Minutes,
    /// Its pressure, if any.
    pub psi: Option<u32>,
}

/// What happened to one jar in the canner.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum JarMoment {
    /// It broke.
    Broken(JarId),
    /// It was lifted early.
    Out(JarId),
    /// One of this size was put in late, with its acid.
    Added(JarSize),
}
