//! What a split is asked, and what it answers.

use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::LotId;
use bodega_model::measures::moment::Minutes;
use bodega_model::plan::making::Thickness;
use bodega_model::records::load::SharedLoad;
use bodega_model::tables::process::{Medium, Pack, Product};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Hours there are.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Hours {
    /// Minutes of the canner, 0 to 14,400.
    pub canner_minutes: f64,
    /// Minutes of burners, all together, 0 to 14,400.
    pub stove_minutes: f64,
    /// Minutes of hands, all together, 0 to 14,400.
    pub hands_minutes: f64,
}

/// A choice that the person has decided.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Pin {
    /// Place of the choice in the answer.
    pub choice: usize,
    /// Jars of it, 0 to 1,000.
    pub jars: u32,
}

/// What is asked of the split.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SplitRequest {
    /// Lots to share out.
    pub lots: Vec<LotId>,
    /// Acid of choice.
    pub agent: Agent,
    /// Hours there are.
    pub hours: Hours,
    /// What the person has decided.
    #[serde(default)]
    pub pins: Vec<Pin>,
}

/// Fruit of one lot in a share.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct LotShare {
    /// The lot.
    pub lot: LotId,
    /// Grams of it.
    pub weight_g: i64,
}

/// One choice of the split.
#[derive(Debug, Serialize, ToSchema)]
pub struct SplitLine {
    /// Place, for pinning.
    pub choice: usize,
    /// What.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// In which jars.
    pub jar: JarSize,
    /// Jars proposed.
    pub jars: u32,
    /// Jars the shelf asks for.
    pub goal: u32,
    /// Whether the person has decided the number.
    pub pinned: bool,
    /// Tested minutes.
    pub minutes: Minutes,
    /// Fruit it takes.
    pub fruit: Vec<LotShare>,
    /// Litres of thin juice drained off and canned as juice.
    pub drained_l: f64,
}

/// Jars of one choice in a load.
#[derive(Debug, Serialize, ToSchema)]
pub struct LoadShare {
    /// Place of the choice.
    pub choice: usize,
    /// Jars of it.
    pub jars: u32,
}

/// One filling of the canner, of one choice or of several.
#[derive(Debug, Serialize, ToSchema)]
pub struct SplitLoad {
    /// The longest tested minutes among its jars.
    pub minutes: Minutes,
    /// What goes in together.
    pub jars: Vec<LoadShare>,
}

impl SplitLoad {
    pub(crate) fn of(load: &SharedLoad) -> Self {
        let jars = load.jars.iter().map(|(choice, jars)| LoadShare { choice: *choice, jars: *jars });
        Self { minutes: load.minutes, jars: jars.collect() }
    }
}

/// What limits the split.
#[derive(Debug, Serialize, ToSchema)]
pub struct SplitLimit {
    /// What there is too little of, in words.
    pub what: String,
    /// What is tried: `one lid more`.
    pub step: &'static str,
    /// Jars more that it would give.
    pub jars_more: i64,
}

/// The best split.
#[derive(Debug, Serialize, ToSchema)]
pub struct SplitAnswer {
    /// Every choice, in a fixed order.
    pub lines: Vec<SplitLine>,
    /// Jars in all.
    pub jars: u32,
    /// Grams of fruit left over.
    pub left_g: i64,
    /// Minutes of the canner it takes, turnarounds with them.
    pub canner_minutes: u32,
    /// How the jars go into the canner.
    pub loads: Vec<SplitLoad>,
    /// Whether it is proven that no other split is worth more.
    pub proven: bool,
    /// What limits it, the most gainful first.
    pub limits: Vec<SplitLimit>,
    /// Why some of the fruit becomes none of some products, and what would do.
    pub refused: Vec<String>,
}
