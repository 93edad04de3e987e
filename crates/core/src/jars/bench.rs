//! The bench: the steps of a jar in working order, what one implies, and which load is next.
//!
//! Acid is never implied: somebody must have seen it. It goes in before the food, the order that cannot be forgotten; a jar
//! that has its food already may be said to have it, and gets its acid before its lid. Common practice, no source.

use bodega_model::measures::moment::Minutes;
use bodega_model::measures::vocabulary::vocabulary;
use bodega_model::records::jar::Jar;
use bodega_model::records::load::CannerLoad;
use serde::Serialize;

use crate::jars::doses::{DosedPot, has_acid};
use crate::kettle::goal::{BOIL_BEFORE_FILLING, boils_before_filling};

vocabulary! {
    /// A step on the bench, in working order.
    "step", JarStep {
        /// Acid into the empty jar.
        Acid = "acid", "Acid in";
        /// Salt.
        Salt = "salt", "Salt in";
        /// Food in, to the headspace.
        Filled = "filled", "Filled";
        /// Bubbles out, headspace again.
        Bubbles = "bubbles", "Bubbles out";
        /// Rim wiped.
        Rim = "rim", "Rim wiped";
        /// Lid and ring on.
        Lid = "lid", "Lid on";
    }
}

/// Anything but acid was said of a jar without acid.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error(
    "jar {number} has no acid yet; acid goes in before the food. If the food is in already, say that, then the acid, then the lid"
)]
pub struct AcidFirst {
    /// Number of the jar in its batch.
    pub number: u32,
}

impl JarStep {
    /// Steps that are done when this one is: those before it but the acid (a lid that is on has a wiped rim under it).
    #[must_use]
    pub fn implies(self) -> &'static [Self] {
        let place = self.place();
        &Self::ALL[usize::from(place > 0)..=place]
    }

    /// Steps that are open again when this one is: itself and all that follow it. Without its acid a jar may hold its
    /// food, but a dose that goes in now takes room: bubbles, headspace, rim and lid come again.
    #[must_use]
    pub fn reopens(self) -> &'static [Self] {
        match self {
            Self::Acid => &[Self::Acid, Self::Bubbles, Self::Rim, Self::Lid],
            _ => &Self::ALL[self.place()..],
        }
    }

    fn place(self) -> usize {
        Self::ALL.iter().position(|other| *other == self).unwrap_or_default()
    }

    /// Whether a step is done on a jar; its acid may be in the pot.
    #[must_use]
    pub fn is_done(self, jar: &Jar, pots: &[DosedPot]) -> bool {
        match self {
            Self::Acid => has_acid(jar, pots),
            Self::Salt => jar.salt,
            Self::Filled => jar.filled,
            Self::Bubbles => jar.bubbles,
            Self::Rim => jar.rim,
            Self::Lid => jar.lid,
        }
    }

    /// Whether a jar asks for the step at all: salt only where it is wanted, acid unless it is a part of the recipe.
    #[must_use]
    pub fn is_asked(self, jar: &Jar) -> bool {
        match self {
            Self::Acid => !jar.brings_its_acid(),
            Self::Salt => jar.wants_salt,
            Self::Filled | Self::Bubbles | Self::Rim | Self::Lid => true,
        }
    }
}

/// What was done to a jar last, in words.
#[must_use]
pub fn state_of(jar: &Jar, pots: &[DosedPot]) -> String {
    let last = JarStep::ALL.iter().rfind(|step| step.is_asked(jar) && step.is_done(jar, pots));
    match last {
        None if jar.brings_its_acid() => "empty".to_owned(),
        None => "needs acid".to_owned(),
        Some(_) if !has_acid(jar, pots) => "filled, needs acid".to_owned(),
        Some(JarStep::Acid) if !jar.acid => "acid in the pot".to_owned(),
        Some(step) => step.label().to_lowercase(),
    }
}

/// A step of a load's jars, for the touch that says it of all of them.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BenchStep {
    /// The step.
    pub step: JarStep,
    /// The thing it is about.
    pub thing: &'static str,
    /// What is said when it is done to all.
    pub all: &'static str,
    /// Its key.
    pub key: char,
    /// Jars that have it.
    pub have: usize,
}

/// The letter that works a step of the bench, which means nothing else at any station.
#[must_use]
pub const fn key(step: JarStep) -> char {
    match step {
        JarStep::Acid => 'A',
        JarStep::Salt => 'S',
        JarStep::Filled => 'F',
        JarStep::Bubbles => 'U',
        JarStep::Rim => 'R',
        JarStep::Lid => 'N',
    }
}

/// The steps that some jars ask for, in working order: salt only where somebody wants it.
#[must_use]
pub fn bench_steps(jars: &[Jar], pots: &[DosedPot]) -> Vec<BenchStep> {
    let asked = |step: &&JarStep| jars.iter().any(|jar| step.is_asked(jar));
    let line = |step: &JarStep| {
        let (thing, all) = match step {
            JarStep::Acid => ("Acid", "All acid in"),
            JarStep::Salt => ("Salt", "All salted"),
            JarStep::Filled => ("Food", "All filled"),
            JarStep::Bubbles => ("Bubbles", "All bubbles out"),
            JarStep::Rim => ("Rim", "All rims wiped"),
            JarStep::Lid => ("Lid", "All lids on"),
        };
        BenchStep {
            step: *step,
            thing,
            all,
            key: key(*step),
            have: jars.iter().filter(|jar| step.is_done(jar, pots)).count(),
        }
    };
    JarStep::ALL.iter().filter(asked).map(line).collect()
}

/// The next step of a jar; `None` when it is ready for the canner.
#[must_use]
pub fn next_step(jar: &Jar, pots: &[DosedPot]) -> Option<JarStep> {
    JarStep::ALL.iter().copied().find(|step| step.is_asked(jar) && !step.is_done(jar, pots))
}

/// The last step that was ticked on a jar itself, which is the one to take back; acid in the pot is not the jar's.
#[must_use]
pub fn last_step(jar: &Jar) -> Option<JarStep> {
    JarStep::ALL.iter().copied().rfind(|step| step.is_asked(jar) && step.is_done(jar, &[]))
}

/// Whether a step may be said of a jar; `food_first` says that its food is in before its acid.
///
/// # Errors
/// [`AcidFirst`] for anything but acid, or food that is in already, while the jar has none, of its own or from the pot.
pub fn may_tick(jar: &Jar, step: JarStep, food_first: bool, pots: &[DosedPot]) -> Result<(), AcidFirst> {
    let is_told = step == JarStep::Filled && food_first;
    if step == JarStep::Acid || is_told || has_acid(jar, pots) {
        Ok(())
    } else {
        Err(AcidFirst { number: jar.number })
    }
}

/// The load on the bench: the first that waits and has jars. While a canner is busy a ready load waits beside it, and the
/// next one's jars come to the bench. `None` when nothing waits.
#[must_use]
pub fn next_load(open: &[CannerLoad]) -> Option<&CannerLoad> {
    let waiting = || open.iter().filter(|load| !load.clock.has_begun() && !load.jars.is_empty());
    let is_busy = open.iter().any(|load| load.clock.has_begun());
    let unready = || waiting().find(|load| load.jars.iter().any(|jar| !jar.lid));
    is_busy.then(unready).flatten().or_else(|| waiting().next())
}

/// A process of fewer minutes than these leaves the jars unsterile. Source: USDA Guide 1, from memory.
const STERILIZES: Minutes = Minutes(10);

/// What is said of jars of a recipe whose own process is too short to sterilize them. Source: USDA Guide 1, from memory.
const STERILIZE_FIRST: &str = "This recipe's process is shorter than ten minutes, so its jars are sterilized first: boil them, full of water and \
                               under water, for 10 minutes and a minute more for each 1,000 ft, and fill them hot.";

/// What is said before jars of a load are filled: of juice that waited, and of a recipe whose process is a short one.
#[must_use]
pub fn before_filling(load: &CannerLoad) -> Option<&'static str> {
    let open = || load.jars.iter().filter(|jar| !jar.filled);
    let is_short = |jar: &Jar| load.recipe_of(jar).is_some() && load.clock.required() < STERILIZES;
    if open().any(is_short) {
        return Some(STERILIZE_FIRST);
    }
    open().any(|jar| boils_before_filling(jar.product)).then_some(BOIL_BEFORE_FILLING)
}
