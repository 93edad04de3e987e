//! The doses of a load: what goes into each jar of each batch, and what a dose stirred into the pot leaves to be added.

use bodega_model::jars::acid;
use bodega_model::jars::acid::{Agent, LeastDose};
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::{Spoons, volume_of};
use bodega_model::measures::ids::BatchId;
use bodega_model::recipe::part::Part;
use bodega_model::records::batch::Batch;
use bodega_model::records::jar::Jar;
use bodega_model::records::kitchen::Kitchen;
use bodega_model::records::load::CannerLoad;
use bodega_model::records::recipe::BatchRecipe;
use bodega_model::tables::process::{Product, headspace};
use serde::Serialize;
use uom::si::length::inch;

use crate::jars::salt::salt_per_jar;

/// Dose for one jar of one size of one batch.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Dose {
    /// The batch.
    pub batch: BatchId,
    /// Its code.
    pub code: String,
    /// What goes in.
    pub product: Product,
    /// What its batch is called, when it has a name.
    pub named: Option<String>,
    /// Size.
    pub jar: JarSize,
    /// Jars of it in the load.
    pub count: u32,
    /// Acid of choice.
    pub agent: Agent,
    /// What that is called: a recipe's by its own name.
    pub acid_name: String,
    /// Acid, as measured out: `2 Tbsp`; `null` when it is a part of the recipe.
    pub acid: Option<String>,
    /// Salt, as measured out; `null` when none is wanted.
    pub salt: Option<String>,
    /// Headspace in inches.
    pub headspace_in: f64,
    /// Of acid stirred into the pot: what each of these jars still lacks, `null` when nothing is stirred in or enough is.
    pub still_lacks: Option<String>,
    /// What goes into each jar now: the dose, or what the pot leaves to be added; `null` when the pot has it all.
    pub to_add: Option<String>,
    /// The same without spoons: `30 mL`.
    pub to_add_volume: Option<String>,
    /// What was stirred into its pot: `1¼ cups (296 mL)`; `null` when nothing was.
    pub in_pot: Option<String>,
}

/// Acid stirred into one batch's pot, and all the jars it has to reach.
#[derive(Debug, Clone, PartialEq)]
pub struct DosedPot {
    /// The batch.
    pub batch: BatchId,
    /// Teaspoons that were stirred in.
    pub given_tsp: f64,
    /// Every jar of the batch, in whatever load.
    pub jars: Vec<(JarSize, u32)>,
}

impl DosedPot {
    /// Whether every jar of the batch has its dose from the pot.
    #[must_use]
    pub fn is_enough(&self, agent: Agent) -> bool {
        LeastDose { needed: acid::total(agent, &self.jars), given_tsp: self.given_tsp }.enough()
    }

    /// Teaspoons that a jar still lacks after its share of the pot, in proportion to its dose; `None` when it lacks nothing.
    fn lacks(&self, jar: &Jar) -> Option<f64> {
        let needed = acid::total(jar.agent, &self.jars);
        let short = LeastDose { needed, given_tsp: self.given_tsp }.short_tsp();
        let share = acid::per_jar(jar.agent, jar.size).as_f64() / needed.as_f64();
        (short > 0.0).then_some(short * share)
    }
}

/// Whether a jar has its acid: its own, its share of a pot that was dosed for every jar of its batch, or that of its recipe,
/// which the bowls answer for.
#[must_use]
pub fn has_acid(jar: &Jar, pots: &[DosedPot]) -> bool {
    jar.acid
        || jar.brings_its_acid()
        || pots.iter().any(|pot| pot.batch == jar.batch && pot.is_enough(jar.agent))
}

/// A jar that no dose goes into, as that of a recipe: its acid is a part of it.
fn undosed(jar: &Jar, headspace_in: f64) -> Dose {
    Dose {
        batch: jar.batch,
        code: jar.code.clone(),
        product: jar.product,
        named: jar.named.clone(),
        jar: jar.size,
        count: 1,
        agent: jar.agent,
        acid_name: jar.agent.label().to_owned(),
        acid: None,
        salt: None,
        headspace_in,
        still_lacks: None,
        to_add: None,
        to_add_volume: None,
        in_pot: None,
    }
}

/// A jar of a recipe: what that puts into each of them, or nothing, when its acid is in the pot.
fn by_recipe(jar: &Jar, recipe: &BatchRecipe, spoons: Spoons) -> Dose {
    let plain = undosed(jar, recipe.headspace_in().unwrap_or_default());
    let all: Vec<Part> = recipe.doses_in(jar.size).collect();
    let in_words = |part: &Part| match part.teaspoons() {
        Some(tsp) => spoons.dose(jar.agent, acid::next_eighth(tsp)),
        None => part.amount_in_words(),
    };
    let Some((first, rest)) = all.split_first() else { return plain };
    let more: String = rest.iter().map(|part| format!(" and {} {}", in_words(part), part.name)).collect();
    let amount = in_words(first);
    Dose {
        acid_name: format!("{}{more}", first.name),
        acid: Some(amount.clone()),
        to_add: Some(amount),
        to_add_volume: first.teaspoons().map(|tsp| volume_of(jar.agent, tsp)),
        ..plain
    }
}

/// What each jar of a batch takes of acid, for whoever stands at its kettle; of a recipe its own minutes and headspace too.
#[must_use]
pub fn each_takes(batch: &Batch, jar: JarSize, kitchen: &Kitchen) -> String {
    let Some(recipe) = &batch.recipe else {
        let dose = kitchen.spoons.dose_with_volume(batch.agent, acid::per_jar(batch.agent, jar));
        return format!("each takes {dose} of {}", batch.agent);
    };
    let doses: Vec<String> = recipe.doses_in(jar).map(|dose| dose.says()).collect();
    let acid = if doses.is_empty() { "the acid is in the recipe".to_owned() } else { doses.join(" and ") };
    batch.printed(jar, kitchen.units).into_iter().fold(acid, |acid, printed| format!("{acid}; {printed}"))
}

/// The doses of a load's jars in the household's spoons, by batch, the largest jar first.
#[must_use]
pub fn doses(load: &CannerLoad, pots: &[DosedPot], spoons: Spoons) -> Vec<Dose> {
    let mut lines: Vec<Dose> = Vec::new();
    for jar in &load.jars {
        if let Some(line) = lines.iter_mut().find(|line| line.batch == jar.batch && line.jar == jar.size) {
            line.count += 1;
            continue;
        }
        let Some(headspace) = headspace(jar.product) else {
            lines.extend(load.recipe_of(jar).map(|recipe| by_recipe(jar, recipe, spoons)));
            continue;
        };
        let pot = pots.iter().find(|pot| pot.batch == jar.batch);
        let dose = acid::per_jar(jar.agent, jar.size);
        let label = spoons.dose(jar.agent, dose);
        let missing = pot.and_then(|pot| pot.lacks(jar));
        let lacks = missing.map(|tsp| spoons.total(jar.agent, acid::next_eighth(tsp)));
        let to_add_tsp = if pot.is_some() { missing } else { Some(dose.as_f64()) };
        lines.push(Dose {
            to_add: if pot.is_some() { lacks.clone() } else { Some(label.clone()) },
            to_add_volume: to_add_tsp.map(|tsp| volume_of(jar.agent, tsp)),
            in_pot: pot.map(|pot| spoons.amount_with_volume(jar.agent, pot.given_tsp)),
            acid: Some(label),
            salt: jar.wants_salt.then(|| salt_per_jar(jar.size).label()),
            still_lacks: lacks,
            ..undosed(jar, headspace.get::<inch>())
        });
    }
    lines.sort_by_key(|line| (line.batch, std::cmp::Reverse(line.jar)));
    lines
}
