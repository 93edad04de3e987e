//! Jars: on the bench, in the canner, and everything that became of them.

use serde::Serialize;

use crate::jars::acid::Agent;
use crate::jars::ph::{PhSample, Remedy};
use crate::jars::size::JarSize;
use crate::judge::standing::JarStanding;
use crate::measures::ids::{BatchId, JarId, LoadId};
use crate::measures::moment::Moment;
use crate::plan::making::Thickness;
use crate::shelf::leaving::{Discard, History, Leaving};
use crate::tables::process::{Medium, Pack, Product};
use crate::towel::liquid::LiquidLost;
use crate::towel::seal::{LidVerdict, Rescue};

/// One jar, what it is and what has been done to it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Jar {
    /// Number of the record.
    pub id: JarId,
    /// Its batch.
    pub batch: BatchId,
    /// Code of its batch.
    pub code: String,
    /// What its batch is called, when it has a name.
    pub named: Option<String>,
    /// Number of the jar in its batch, from 1.
    pub number: u32,
    /// What goes in.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Its acid.
    pub agent: Agent,
    /// Whether salt is wanted.
    pub wants_salt: bool,
    /// Whether it is of a recipe that puts its acid into each jar.
    pub recipe_doses: bool,
    /// Size.
    pub size: JarSize,
    /// Acid is in: its own dose, seen by somebody, and not found to be missing later.
    pub acid: bool,
    /// When it was found to be without its dose; `null` when it was not.
    pub undosed_at: Option<Moment>,
    /// Liquid that it lost in the canner, and when that was seen; `null` when nobody saw any.
    pub liquid_lost: Option<LiquidLost>,
    /// When somebody saw that.
    pub liquid_lost_at: Option<Moment>,
    /// Salt is in.
    pub salt: bool,
    /// Filled to the headspace.
    pub filled: bool,
    /// Bubbles are out, headspace checked again.
    pub bubbles: bool,
    /// Rim is wiped.
    pub rim: bool,
    /// Lid and ring are on: ready for the canner.
    pub lid: bool,
}

impl Jar {
    /// Whether its acid comes with what is filled in, so that no dose is asked of it: a recipe's, unless that puts it into the jars.
    #[must_use]
    pub const fn brings_its_acid(&self) -> bool {
        self.product.brings_its_acid() && !self.recipe_doses
    }
}

/// How many jars of each size there are, in the order the sizes come.
#[must_use]
pub fn count_sizes<'a>(jars: impl IntoIterator<Item = &'a Jar>) -> Vec<(JarSize, u32)> {
    sum_sizes(jars.into_iter().map(|jar| (jar.size, 1)))
}

/// The same of what is counted already: each size once.
pub fn sum_sizes(counts: impl IntoIterator<Item = (JarSize, u32)>) -> Vec<(JarSize, u32)> {
    let mut sizes: Vec<(JarSize, u32)> = Vec::new();
    for (size, count) in counts {
        match sizes.iter_mut().find(|(other, _)| *other == size) {
            Some((_, sum)) => *sum += count,
            None => sizes.push((size, count)),
        }
    }
    sizes
}

/// A jar with everything that became of it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct JarRecord {
    /// Number of the record.
    pub id: JarId,
    /// Its batch.
    pub batch: BatchId,
    /// Code of its batch.
    pub code: String,
    /// What its batch is called, when it has a name.
    pub named: Option<String>,
    /// Number in its batch.
    pub number: u32,
    /// Size.
    pub size: JarSize,
    /// What is in it.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// Its acid.
    pub agent: Agent,
    /// The load it was processed in.
    pub load: LoadId,
    /// Loads it went through before, oldest first.
    pub earlier_loads: Vec<LoadId>,
    /// When it came out of the canner.
    pub lifted_at: Option<Moment>,
    /// It broke in the canner.
    pub broke: bool,
    /// Its acid went in after its food, before its lid.
    pub acid_after_food: bool,
    /// It was found to be without its dose of acid.
    pub undosed: bool,
    /// Liquid that it lost in the canner; `null` when nobody saw any.
    pub liquid_lost: Option<LiquidLost>,
    /// What was found at its lid.
    pub verdict: Option<LidVerdict>,
    /// When.
    pub judged_at: Option<Moment>,
    /// What was decided when it failed.
    pub rescue: Option<Rescue>,
    /// When that was decided.
    pub rescued_at: Option<Moment>,
    /// Ring off, washed and dry.
    pub tidy: bool,
    /// When it left.
    pub gone_at: Option<Moment>,
    /// How it left.
    pub gone_how: Option<Leaving>,
    /// Why it was thrown away.
    pub gone_why: Option<Discard>,
}

impl JarRecord {
    /// Whether it is kept cold: what stood against it was ended by that, in its time and with its days.
    #[must_use]
    pub const fn is_cold(&self) -> bool {
        matches!(self.rescue, Some(Rescue::Refrigerator | Rescue::Freezer))
    }

    /// Whether what stands against it is still to be told: it is at home, and not in the cold.
    #[must_use]
    pub const fn stands(&self) -> bool {
        self.gone_at.is_none() && !self.is_cold()
    }

    /// Where the jar is, in words: one that something stands against is on no shelf.
    #[must_use]
    pub fn whereabouts(&self, standing: Option<&JarStanding>) -> String {
        match (self.gone_how, self.gone_why) {
            _ if self.broke => "broke in the canner".to_owned(),
            (Some(Leaving::Discarded), Some(why)) => format!("discarded: {}", why.label().to_lowercase()),
            (Some(how), _) => how.label().to_lowercase(),
            (None, _) => self.at_home(standing.and_then(JarStanding::brief)),
        }
    }

    /// Where a jar is that has not left.
    fn at_home(&self, stops: Option<String>) -> String {
        let place = match (self.rescue, self.lifted_at, self.verdict) {
            (Some(Rescue::Refrigerator), ..) => "in the refrigerator",
            (Some(Rescue::Freezer), ..) => "in the freezer",
            (_, None, _) if !self.earlier_loads.is_empty() => "to be processed again",
            (_, None, _) => "on its way",
            _ if self.undosed => "without its acid: not for the shelf",
            _ if let Some(stops) = &stops => return format!("not for the shelf: {stops}"),
            (_, Some(_), None) => "on the towel",
            (_, Some(_), Some(LidVerdict::Holds)) if self.tidy => "on the shelf",
            (_, Some(_), Some(LidVerdict::Holds)) => "sealed, to be washed",
            (_, Some(_), Some(verdict)) => return verdict.label().to_lowercase(),
        };
        place.to_owned()
    }
}

/// A reading of a pH meter.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PhRecord {
    /// When.
    pub at: Moment,
    /// The value.
    pub ph: f64,
    /// What was read; `null` when nobody said, and then the dosed product is meant.
    pub sample: Option<PhSample>,
    /// What was done about an earlier one above the line.
    pub did: Option<Remedy>,
    /// Temperature of the sample in degrees Celsius.
    pub sample_c: Option<f64>,
    /// Whether the meter allows for it.
    pub compensated: Option<bool>,
    /// Whether it was calibrated that day.
    pub calibrated_today: Option<bool>,
}

/// Like jars that were ever on the shelf, and when those left that were eaten or given away.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Stocked {
    /// What is in them.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// Of a recipe, what it is called.
    pub named: Option<String>,
    /// Size.
    pub size: JarSize,
    /// Jars on the shelf now.
    pub on_shelf: u32,
    /// When its jars came and left.
    pub history: History,
}

impl Stocked {
    /// Whether other jars stand with these: the same food in the same size.
    #[must_use]
    pub fn is_like(&self, other: &Self) -> bool {
        (self.product, self.medium, self.pack, self.thickness, self.size)
            == (other.product, other.medium, other.pack, other.thickness, other.size)
            && self.named == other.named
    }
}
