//! A batch as planned or recorded: everything the judge may be told, all of it optional.

use std::collections::BTreeMap;

use bodega_model::canner::cover::UnderJars;
use bodega_model::crates::fruit::Kind;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::kinds::{AcidSource, JarKind, LidState};
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::units::{Length, Mass, Temperature, Time};
use bodega_model::measures::vocabulary::vocabulary;
use bodega_model::recipe::part::Part;
use bodega_model::recipe::process::RecipeProcess;
use bodega_model::records::recipe::Makes;
use bodega_model::tables::process::{Medium, Method, Pack, Product};
use bodega_model::towel::liquid::LiquidLost;

pub use bodega_model::contents::{Addition, Ingredient};
pub use bodega_model::jars::ph::PhSample;

vocabulary! {
    /// How the filled jars were heated, if at all.
    "method", Heating {
        /// Jars under boiling water.
        BoilingWater = "boiling_water", "boiling water";
        /// Jars in steam without pressure.
        AtmosphericSteam = "atmospheric_steam", "steam, no pressure";
        /// Pressure canner with a dial gauge.
        PressureDial = "pressure_dial", "pressure, dial gauge";
        /// Pressure canner with a weighted gauge.
        PressureWeighted = "pressure_weighted", "pressure, weighted gauge";
        /// Not heated in the jar: open kettle, upside down, oven.
        None = "none", "not processed";
    }
}

impl Heating {
    /// The method with a tested process, or `None` when the jars were not heated.
    #[must_use]
    pub const fn method(self) -> Option<Method> {
        match self {
            Self::BoilingWater => Some(Method::BoilingWater),
            Self::AtmosphericSteam => Some(Method::AtmosphericSteam),
            Self::PressureDial => Some(Method::PressureDial),
            Self::PressureWeighted => Some(Method::PressureWeighted),
            Self::None => None,
        }
    }
}

impl From<Method> for Heating {
    fn from(method: Method) -> Self {
        match method {
            Method::BoilingWater => Self::BoilingWater,
            Method::AtmosphericSteam => Self::AtmosphericSteam,
            Method::PressureDial => Self::PressureDial,
            Method::PressureWeighted => Self::PressureWeighted,
        }
    }
}

vocabulary! {
    /// How ripe the fruit is.
    "ripeness", Ripeness {
        /// Firm and ripe.
        FirmRipe = "firm_ripe", "firm and ripe";
        /// Not ripe yet.
        Underripe = "underripe", "not ripe yet";
        /// Soft, past its best.
        Overripe = "overripe", "overripe";
    }
}

vocabulary! {
    /// State of the vine when the fruit was picked.
    "vine", Vine {
        /// Alive.
        Living = "living", "living";
        /// Killed by frost.
        FrostKilled = "frost_killed", "killed by frost";
        /// Dead of something else.
        Dead = "dead", "dead";
        /// With blight.
        Blighted = "blighted", "blighted";
        /// Alive after a light frost.
        LightFrost = "light_frost", "living after a light frost";
    }
}

vocabulary! {
    /// Damage to the fruit.
    "damage", Damage {
        /// None.
        None = "none", "none";
        /// Small spots that are cut out.
        Blemish = "blemish", "blemishes";
        /// Bruised.
        Bruised = "bruised", "bruised";
        /// Mould.
        Mouldy = "mouldy", "mouldy";
    }
}

vocabulary! {
    /// A line in the log of a boil.
    "boil event", LogEvent {
        /// Jars went in.
        In = "in", "jars in";
        /// A full rolling boil.
        Boil = "boil", "it boils";
        /// The boil was lost.
        Lost = "lost", "boil lost";
        /// The canner ran dry, which ends it too.
        Dry = "dry", "ran dry";
        /// Heat off.
        End = "end", "heat off";
    }
}

/// Like jars.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct CaseJar {
    /// Size.
    pub jar: JarSize,
    /// How many.
    pub count: u32,
    /// What kind of jar.
    pub kind: Option<JarKind>,
    /// Its lid.
    pub lid: Option<LidState>,
    /// Whether a rim is nicked.
    pub nicked: Option<bool>,
}

/// The acid as given.
#[derive(Debug, Clone, PartialEq)]
pub struct CaseAcid {
    /// Which; `None` while nobody said.
    pub agent: Option<Agent>,
    /// Where it comes from.
    pub source: Option<AcidSource>,
    /// Teaspoons in one jar, by size.
    pub per_jar_tsp: Option<BTreeMap<JarSize, f64>>,
    /// Teaspoons stirred into the pot.
    pub pot_dose_tsp: Option<f64>,
    /// Months since the bottle was opened.
    pub bottle_age_months: Option<f64>,
}

/// The fruit as it was sorted.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct CaseFruit {
    /// Kind.
    pub kind: Option<Kind>,
    /// Ripeness.
    pub ripeness: Option<Ripeness>,
    /// The vine it came from.
    pub vine: Option<Vine>,
    /// Damage.
    pub damage: Option<Damage>,
    /// Weight, raw.
    pub weight: Option<Mass>,
    /// Frozen and thawed.
    pub frozen: Option<bool>,
}

/// Temperatures when the jars went in.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Temperatures {
    /// Of the empty jar.
    pub jar: Option<Temperature>,
    /// Of the food.
    pub food: Option<Temperature>,
    /// Of the canner's water.
    pub water: Option<Temperature>,
}

/// One line of a boil log.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LogLine {
    /// When, from any common start.
    pub at: Time,
    /// What.
    pub event: LogEvent,
}

/// Other jars in the same canner load.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OtherJars {
    /// What is in them.
    pub product: Option<Product>,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Option<Pack>,
    /// Size.
    pub jar: Option<JarSize>,
    /// The time they need, as far as the person knows; used when the rest does not say.
    pub minutes: Option<Time>,
}

/// A reading of a pH meter.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PhReading {
    /// The value.
    pub value: f64,
    /// What it was read of; the dosed product when it was not said.
    pub sample: Option<PhSample>,
    /// Temperature of the sample.
    pub temperature: Option<Temperature>,
    /// Whether the meter allows for it.
    pub compensated: Option<bool>,
    /// Whether it was calibrated that day.
    pub calibrated_today: Option<bool>,
}

/// What is known of the canner.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct CaseCanner {
    /// Whether it is an electric multi-cooker; `None` when nobody said.
    pub multi_cooker: Option<bool>,
    /// Quart jars that stand in it; `None` when nobody said.
    pub quarts: Option<u32>,
    /// Whether its dial gauge was tested this year; `None` when nobody said.
    pub gauge_tested: Option<bool>,
    /// What its jars stand on; `None` when nobody said.
    pub under_jars: Option<UnderJars>,
}

/// Everything that was said about a batch.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Case {
    /// What the tomatoes became.
    pub product: Option<Product>,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Option<Pack>,
    /// How the jars were heated; judged as boiling water while it was not said.
    pub heating: Option<Heating>,
    /// Height of the kitchen.
    pub altitude: Option<Altitude>,
    /// Minutes planned or counted.
    pub minutes: Option<Time>,
    /// Pounds on the gauge, under pressure.
    pub psi: Option<f64>,
    /// Air left under the lid.
    pub headspace: Option<Length>,
    /// Water over the lids.
    pub water_cover: Option<Length>,
    /// The canner.
    pub canner: CaseCanner,
    /// Liquid that the jars lost in the canner; `None` when none was seen to be.
    pub liquid_lost: Option<LiquidLost>,
    /// The batch's jars; `None` when nothing was said.
    pub jars: Option<Vec<CaseJar>>,
    /// Every jar of the batch, when more are than stand here: what was said of the whole batch is shared by all of them.
    pub all_jars: Option<Vec<(JarSize, u32)>>,
    /// The acid; `None` when there is none.
    pub acid: Option<CaseAcid>,
    /// The fruit.
    pub fruit: CaseFruit,
    /// What else is in it; empty for nothing, `None` when nobody said.
    pub additions: Option<Vec<Addition>>,
    /// What else is in it that has no word here, by its name.
    pub unknown_additions: Vec<String>,
    /// Whether skins were left on; `None` when nobody said.
    pub skins_on: Option<bool>,
    /// Temperatures at filling.
    pub temperatures: Temperatures,
    /// The log of the boil.
    pub boil: Vec<LogLine>,
    /// Other jars in the load.
    pub load: Vec<OtherJars>,
    /// Rest with the lid off before lifting.
    pub rest: Option<Time>,
    /// From lifting to the check of the seals.
    pub seal_check_after: Option<Time>,
    /// From the first lifting to processing again.
    pub reprocess_after: Option<Time>,
    /// Whether jars found after a day were kept cold all that time.
    pub kept_cold: Option<bool>,
    /// Rings left on in storage.
    pub rings_on_in_storage: Option<bool>,
    /// A pH reading.
    pub ph: Option<PhReading>,
    /// The recipe, when it is one: its own proportions and process stand for those of plain tomatoes.
    pub recipe: Option<CaseRecipe>,
}

/// A tested recipe and what was made of it.
#[derive(Debug, Clone, PartialEq)]
pub struct CaseRecipe {
    /// The recipe, made once.
    pub base: Vec<Part>,
    /// What is in the bowls; `None` while nobody said.
    pub actual: Option<Vec<Part>>,
    /// Whether it is mixed, so that nothing can be taken out.
    pub mixed: bool,
    /// What it fills, made once; `None` when the source does not say.
    pub makes: Option<Makes>,
    /// Its own process; `None` when the source has none.
    pub process: Option<RecipeProcess>,
    /// Whether every line and the minutes were held against a copy; `None` when nobody said.
    pub checked: Option<bool>,
    /// Whether somebody looked for more acid on its page and found none; `None` when nobody said.
    pub is_all_its_acid: Option<bool>,
    /// Whether what goes into each jar is in these; `None` while nobody said.
    pub dosed: Option<bool>,
    /// Whether the strength of vinegar and the labels of packets were asked at all.
    pub labels_asked: bool,
}

impl Case {
    /// Whether the jars are heated under pressure.
    #[must_use]
    pub fn is_pressure(&self) -> bool {
        self.heating.and_then(Heating::method).is_some_and(Method::is_pressure)
    }

    /// How many jars there are.
    #[must_use]
    pub fn jar_count(&self) -> u32 {
        self.sizes().map(|(_, count)| count).sum()
    }

    /// Every jar of the batch, those that stand elsewhere too.
    #[must_use]
    pub fn jars_of_batch(&self) -> Vec<(JarSize, u32)> {
        self.all_jars.clone().unwrap_or_else(|| self.sizes().collect())
    }

    /// Sizes and counts, jars of no count left out.
    pub fn sizes(&self) -> impl Iterator<Item = (JarSize, u32)> + '_ {
        self.jars.iter().flatten().filter(|line| line.count > 0).map(|line| (line.jar, line.count))
    }
}
