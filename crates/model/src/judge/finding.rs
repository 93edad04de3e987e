//! What can be found: codes, how much each weighs, and a finding with its words.

use serde::Serialize;

use crate::measures::moment::Minutes;
use crate::measures::vocabulary::vocabulary;
use crate::published::source::Source;
use crate::tables::process::ProcessOption;

vocabulary! {
    /// How much a finding weighs.
    "severity", Severity {
        /// The jars are not safe or there is no tested process: not ready.
        Stop = "stop", "stop";
        /// Something to put right; the process still holds.
        Warn = "warn", "mind this";
        /// Worth knowing.
        Note = "note", "note";
    }
}

vocabulary! {
    /// The thing a finding stands beside.
    "subject", Subject {
        /// The fruit.
        Fruit = "fruit", "fruit";
        /// Acid in the jars.
        Acid = "acid", "acid";
        /// What else is in the jars.
        Contents = "contents", "what is in the jars";
        /// Jars and lids.
        Jars = "jars", "jars and lids";
        /// The tested process and its time.
        Time = "time", "time";
        /// The canner and its boil.
        Canner = "canner", "canner";
        /// After the canner.
        Towel = "towel", "cooling and storage";
    }
}

/// One row per code: variant, word, severity, subject, and what it says in three words.
macro_rules! codes {
    ($( $(#[$meta:meta])* $variant:ident = $word:tt, $severity:ident, $subject:ident, $label:literal; )+) => {
        vocabulary! {
            /// What can be found; the word is stable.
            "finding code", Code {
                $( $(#[$meta])* $variant = $word, $label; )+
            }
        }

        impl Code {
            /// How much it weighs.
            #[must_use]
            pub const fn severity(self) -> Severity {
                match self { $( Self::$variant => Severity::$severity, )+ }
            }

            /// What it is about.
            #[must_use]
            pub const fn subject(self) -> Subject {
                match self { $( Self::$variant => Subject::$subject, )+ }
            }
        }
    };
}

codes! {
    /// No acid, or none was named.
    NoAcid = "no_acid", Stop, Acid, "no acid";
    /// Less than the published dose in a jar.
    AcidShort = "acid_short", Stop, Acid, "too little acid";
    /// Juice of fresh lemons.
    FreshCitrus = "fresh_citrus", Stop, Acid, "fresh lemon";
    /// The dose in the pot does not cover the jars.
    PotDoseShort = "pot_dose_short", Stop, Acid, "pot dose too small";
    /// Fewer minutes than the tested process.
    ProcessShort = "process_short", Stop, Time, "time too short";
    /// Nothing was ever tested for this.
    NoTestedProcess = "no_tested_process", Stop, Time, "no tested process";
    /// Nothing can be timed without it.
    AltitudeMissing = "altitude_missing", Stop, Time, "altitude not known";
    /// Too long for a canner that cannot be topped up.
    SteamLimit = "steam_limit", Stop, Time, "too long for steam";
    /// The boil broke and the full time was not counted again.
    BoilLost = "boil_lost", Stop, Canner, "boil lost";
    /// Another jar in the load needs longer.
    MixedLoadShort = "mixed_load_short", Stop, Time, "mixed load too short";
    /// Filled, lidded and never heated in the jar.
    NotProcessed = "not_processed", Stop, Time, "not processed";
    /// Thin glass under a two-piece lid.
    JarFragile = "jar_fragile", Warn, Jars, "fragile jar";
    /// Not a jar made for this.
    JarUnsuited = "jar_unsuited", Stop, Jars, "wrong jar";
    /// Fruit from a dead or frost-killed vine.
    FrostKilledVine = "frost_killed_vine", Stop, Fruit, "dead vine";
    /// Too ripe: the acidity has fallen.
    Overripe = "overripe", Stop, Fruit, "overripe";
    /// Mould on the fruit.
    Mouldy = "mouldy", Stop, Fruit, "mouldy";
    /// Something that brings no acid of its own.
    LowAcidAddition = "low_acid_addition", Stop, Contents, "low-acid addition";
    /// Other proportions than the tested recipe's, on the unsafe side.
    RecipeRatio = "recipe_ratio", Stop, Contents, "proportions off";
    /// A recipe without a process of its own, or one that nobody checked against a copy.
    RecipeUntested = "recipe_untested", Stop, Time, "recipe not tested";
    /// A larger jar than the recipe was tested in.
    RecipeJar = "recipe_jar", Stop, Jars, "jar too large";
    /// Flour, starch or the like before canning.
    Thickener = "thickener", Stop, Contents, "thickener";
    /// Something stands for something else in a recipe.
    RecipeSwap = "recipe_swap", Stop, Contents, "swapped";
    /// More vegetables than the tested juice carries.
    VegetableRatio = "vegetable_ratio", Stop, Contents, "too many vegetables";
    /// Later than a day after the first try.
    ReprocessLate = "reprocess_late", Stop, Towel, "too late to process again";
    /// Measured above the line.
    PhHigh = "ph_high", Stop, Acid, "pH too high";
    /// A lid that sealed once.
    LidReused = "lid_reused", Warn, Jars, "used lid";
    /// A lid that is no two-piece lid: its maker's word decides.
    LidOther = "lid_other", Warn, Jars, "another lid";
    /// Skins left on whole or crushed tomatoes.
    SkinsOn = "skins_on", Warn, Contents, "skins left on";
    /// A nick in a rim that a lid has to lie on.
    RimNicked = "rim_nicked", Warn, Jars, "nicked rim";
    /// Too much or too little air under the lid.
    Headspace = "headspace", Warn, Jars, "headspace";
    /// Lids too near the surface.
    WaterCover = "water_cover", Warn, Canner, "more water";
    /// No canner that a process was tested in.
    CannerUnsuited = "canner_unsuited", Stop, Canner, "wrong canner";
    /// Half of a jar's liquid or more was lost in the canner.
    LiquidGone = "liquid_gone", Stop, Towel, "half its liquid gone";
    /// A dial gauge that nobody tested this year.
    GaugeUntested = "gauge_untested", Warn, Canner, "gauge not tested";
    /// Jars on the bare bottom of the pot.
    BareBottom = "bare_bottom", Warn, Canner, "no rack";
    /// Some of a jar's liquid was lost in the canner.
    LiquidLow = "liquid_low", Note, Towel, "liquid lost";
    /// Lids at or out of the surface.
    WaterLow = "water_low", Stop, Canner, "water too low";
    /// Glass that may break.
    ThermalGap = "thermal_gap", Warn, Jars, "hot and cold meet";
    /// The meter was not set today.
    PhUncalibrated = "ph_uncalibrated", Warn, Acid, "pH meter not calibrated";
    /// The sample was not at the meter's temperature.
    PhUncompensated = "ph_uncompensated", Warn, Acid, "pH read hot or cold";
    /// A metric jar on a US jar's time.
    LitreAsQuart = "litre_as_quart", Warn, Jars, "metric jar";
    /// A jar between two sizes, with the time of the larger.
    NextSizeUp = "next_size_up", Note, Jars, "next size's time";
    /// Bruised fruit.
    Bruised = "bruised", Warn, Fruit, "bruised";
    /// Lifted before five minutes.
    RestShort = "rest_short", Note, Canner, "short rest";
    /// A lid judged before it could settle.
    SealCheckEarly = "seal_check_early", Note, Towel, "early check";
    /// Rings hide a lid that let go.
    RingsOn = "rings_on", Note, Towel, "rings on";
    /// Far more than the dose: sour, and safe.
    AcidMore = "acid_more", Note, Acid, "much acid";
    /// Lemon juice that has stood open.
    BottleOld = "bottle_old", Note, Acid, "old bottle";
    /// Fruit that is not ripe.
    Underripe = "underripe", Note, Fruit, "not ripe";
    /// The packing liquid decides the time and was not named.
    MediumMissing = "medium_missing", Note, Time, "packed in what?";
}

/// The way out of a finding, where the program can take it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "way", rename_all = "snake_case")]
pub enum Fix {
    /// Count this many minutes.
    RaiseTime {
        /// The tested time.
        minutes: Minutes,
    },
    /// Use one of these pressures, for its minutes.
    UsePressure {
        /// Tested pairs.
        options: Vec<ProcessOption>,
    },
    /// Find the kitchen's altitude.
    FindAltitude,
    /// Process under water instead.
    UseBoilingWater,
    /// Bring the boil back and count again.
    BringBackBoil,
}

/// Something wrong, or worth knowing.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Finding {
    /// Stable code.
    pub code: Code,
    /// How much it weighs.
    pub severity: Severity,
    /// What it stands beside.
    pub subject: Subject,
    /// What was found, in one sentence.
    pub message: String,
    /// Why it matters.
    pub why: String,
    /// What to do now.
    pub do_now: String,
    /// The way out, where a touch can take it.
    pub fix: Option<Fix>,
    /// Where the rule comes from.
    pub source: Source,
    /// It stands for something that nobody said: the judge cannot tell, which is not fine.
    pub cannot_tell: bool,
    /// Code of the batch it is about, where jars of several batches share a load; `null` when it is about all of them.
    pub batch: Option<String>,
    /// What it found, where that has a name of its own: "garlic".
    pub names: Option<String>,
}

impl Finding {
    /// A finding with the weight and the subject that its code has as a rule.
    pub fn new(
        code: Code,
        message: impl Into<String>,
        why: impl Into<String>,
        do_now: impl Into<String>,
        source: Source,
    ) -> Self {
        Self {
            code,
            severity: code.severity(),
            subject: code.subject(),
            message: message.into(),
            why: why.into(),
            do_now: do_now.into(),
            fix: None,
            source,
            cannot_tell: false,
            batch: None,
            names: None,
        }
    }

    /// In three words, for a label or a list: "garlic in it", "too little acid".
    #[must_use]
    pub fn brief(&self) -> String {
        self.names.as_ref().map_or_else(|| self.code.label().to_owned(), |names| format!("{names} in it"))
    }

    /// Whether it is a stop that somebody told of, and not one that stands for what nobody said.
    #[must_use]
    pub fn is_told_stop(&self) -> bool {
        self.severity == Severity::Stop && !self.cannot_tell
    }

    /// The same, found in something that has a name.
    pub fn naming(self, names: impl Into<String>) -> Self {
        Self { names: Some(names.into()), ..self }
    }

    /// The same, about something else than its code is as a rule.
    pub fn about(self, subject: Subject) -> Self {
        Self { subject, ..self }
    }

    /// Whether another finding says the same, of whichever batch.
    pub fn is_same(&self, other: &Self) -> bool {
        self.code == other.code && self.message == other.message
    }

    /// The same with a way out that a touch can take.
    #[must_use]
    pub fn with_fix(self, fix: Fix) -> Self {
        Self { fix: Some(fix), ..self }
    }

    /// The same, said because something is not known.
    pub fn untold(self) -> Self {
        Self { cannot_tell: true, ..self }
    }

    /// The same, of less weight than its code has as a rule.
    pub fn lighter(self, severity: Severity) -> Self {
        Self { severity, ..self }
    }
}

vocabulary! {
    /// What the judge says of the whole.
    "verdict", Ruling {
        /// Everything that the process depends on is known and right.
        Fine = "fine", "fine";
        /// Something stops it.
        NotFine = "not_fine", "not fine";
        /// Something is missing that the process depends on.
        CannotTell = "cannot_tell", "cannot tell";
    }
}

impl Ruling {
    /// What is found and whether something is still to be said: a known mistake outweighs what is not known.
    pub fn of(findings: &[Finding], is_open: bool) -> Self {
        let untold = |found: &Finding| found.severity == Severity::Stop && found.cannot_tell;
        match (findings.iter().any(Finding::is_told_stop), findings.iter().any(untold) || is_open) {
            (true, _) => Self::NotFine,
            (false, true) => Self::CannotTell,
            (false, false) => Self::Fine,
        }
    }
}
