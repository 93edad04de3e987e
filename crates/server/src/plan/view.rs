//! A batch worked out before anything is cut, as the plan shows it.

use bodega_core::canner::standing::Place;
use bodega_core::judge::records::Judged;
use bodega_core::plan::packs::PackTime;
use bodega_model::contents::Added;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::LotId;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::range::Range;
use bodega_model::plan::making::{Rest, Thickness};
use bodega_model::published::source::Source;
use bodega_model::tables::process::{Medium, Method, Pack, ProcessOption, Product, Refusal};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a person wants to make.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlanRequest {
    /// What it becomes.
    pub product: Product,
    /// For whole tomatoes.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// For sauce.
    pub thickness: Option<Thickness>,
    /// Jar most of it goes into.
    pub jar: JarSize,
    /// Jars by size when the person has decided; `null` lets the plan propose.
    pub jars: Option<Vec<JarCount>>,
    /// Acid of choice.
    pub agent: Agent,
    /// Salt wanted.
    #[serde(default)]
    pub salt: bool,
    /// Where the rest goes that fills no jar.
    pub rest: Option<Rest>,
    /// What else goes in: an empty list for nothing; left out while nobody has said.
    pub additions: Option<Vec<Added>>,
    /// Lots to draw from, all of what is left of each.
    pub lots: Vec<LotId>,
}

/// So many jars of one size.
#[derive(Debug, Clone, Copy, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JarCount {
    /// Size.
    pub jar: JarSize,
    /// How many, 0 to 1,000.
    pub count: u32,
}

/// Like jars of the plan.
#[derive(Debug, Serialize, ToSchema)]
pub struct PlanLine {
    /// Size.
    pub jar: JarSize,
    /// How many.
    pub count: u32,
    /// Acid for one, as measured out.
    pub acid: String,
    /// The same without spoons: `30 mL`.
    pub acid_volume: String,
    /// Salt for one, as measured out.
    pub salt: String,
    /// Ways to run the tested process.
    pub options: Vec<ProcessOption>,
    /// Minutes the same jar would need at sea level, to show what the altitude adds.
    pub sea_level_minutes: Minutes,
    /// What to mind.
    pub cautions: Vec<String>,
    /// Source of the time.
    pub source: Source,
}

/// One canner load of the plan.
#[derive(Debug, Serialize, ToSchema)]
pub struct PlanLoad {
    /// What goes in.
    pub jars: Vec<JarCount>,
    /// Where the jars stand, from above, in the order of the counts.
    pub standing: Vec<Place>,
    /// Length of the canner over its width: 1 for a round one.
    pub stretch: f64,
    /// How long.
    pub minutes: Minutes,
}

/// A plan that can be carried out.
#[derive(Debug, Serialize, ToSchema)]
pub struct PlanAnswer {
    /// What is to be known of what it is made of.
    pub notes: Vec<&'static str>,
    /// Grams of fruit it draws.
    pub weight_g: i64,
    /// Litres of product.
    pub litres: Range<f64>,
    /// Full jars of the main size.
    pub full_jars: Range<u32>,
    /// Jars to set out.
    pub lines: Vec<PlanLine>,
    /// Litres left over after them; negative when the jars hold more than is expected.
    pub left_over_litres: f64,
    /// Acid for all jars, as measured out.
    pub acid_total: String,
    /// Headspace in inches.
    pub headspace_in: f64,
    /// Canner loads.
    pub loads: Vec<PlanLoad>,
    /// Minutes the canner is busy, turnarounds included.
    pub canner_minutes: Minutes,
    /// Whether no other grouping of these jars is shorter.
    pub shortest: bool,
    /// Why they are grouped so, in one line.
    pub why: String,
    /// Source of the yield.
    pub yield_source: Source,
    /// What the cupboard lacks for it, in words.
    pub missing: Vec<String>,
    /// The same jars by every method, side by side.
    pub methods: Vec<MethodView>,
    /// The same food packed in every way that has a tested process, with its minutes.
    pub packs: Vec<PackTime>,
    /// What a quart takes, published and by the household's own batches.
    pub yields: YieldView,
}

/// The plan's jars by one method.
#[derive(Debug, Serialize, ToSchema)]
pub struct MethodView {
    /// The method.
    pub method: Method,
    /// Ways to run it, for the jar that needs longest; empty when there is no tested process.
    pub options: Vec<ProcessOption>,
    /// Why there is none.
    pub refusal: Option<String>,
}

/// Pounds of fruit to a quart.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct YieldView {
    /// As published.
    pub published: Range<f64>,
    /// As the household's batches have moved it; the published range with none.
    pub learned: Range<f64>,
    /// Batches of the household it was learned from.
    pub batches: usize,
}

/// Either a plan or a refusal.
#[derive(Debug, Serialize, ToSchema)]
pub struct PlanPreview {
    /// The altitude it was looked up for, in feet.
    pub altitude_ft: f64,
    /// The plan, when every jar has a tested process.
    pub plan: Option<PlanAnswer>,
    /// Why there is none.
    pub refusal: Option<Refusal>,
    /// What the judge has to say of the plan; `null` when there is none.
    pub judged: Option<Judged>,
}
