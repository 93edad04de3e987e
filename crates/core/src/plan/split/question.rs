//! What is asked of a split, and what it answers.

use bodega_model::jars::size::{JarSize, Mouth};
use bodega_model::ledger::food::Stuff;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::units::{Mass, Volume, pounds};
use bodega_model::plan::making::Making;
use bodega_model::records::load::SharedLoad;

use crate::canner::room::{NoRoom, Room};
use crate::plan::stuff::part_of;
use crate::plan::yields::learn::Household;

/// One product in one jar that fruit may become, with its tested time.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Choice {
    /// What.
    pub making: Making,
    /// In which jar.
    pub jar: JarSize,
    /// Its mouth, which decides the lid.
    pub mouth: Mouth,
    /// Tested minutes.
    pub minutes: Minutes,
    /// At which pressure; only what needs the same goes in together.
    pub psi: Option<u32>,
    /// Acid for a jar, in teaspoons.
    pub acid_tsp: f64,
    /// Jars the shelf asks for.
    pub goal: u32,
    /// How much they are wanted, 1 to 3.
    pub preference: f64,
    /// So many and no other, when the person has decided.
    pub pinned: Option<u32>,
}

/// Something there is only so much of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Resource {
    /// Fruit of a lot, by its place.
    Fruit(usize),
    /// Empty jars of a size.
    Jars(JarSize),
    /// New lids of a mouth.
    Lids(Mouth),
    /// Acid.
    Acid,
    /// Canner.
    Canner,
    /// Burners.
    Stove,
    /// Hands.
    Hands,
}

/// What there is. `None` is as much as it takes.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Stock {
    /// Empty jars by size.
    pub jars: Vec<(JarSize, u32)>,
    /// New lids by mouth.
    pub lids: Vec<(Mouth, u32)>,
    /// Acid in teaspoons.
    pub acid_tsp: Option<f64>,
    /// Minutes of the canner.
    pub canner_minutes: Option<f64>,
    /// Minutes of burners, all together.
    pub stove_minutes: Option<f64>,
    /// Minutes of hands, all together.
    pub hands_minutes: Option<f64>,
}

/// The whole question.
#[derive(Debug, Clone)]
pub struct Question<'a> {
    /// Fruit.
    pub lots: Vec<Stuff>,
    /// What it may become.
    pub choices: Vec<Choice>,
    /// What there is.
    pub stock: Stock,
    /// What the canner has room for.
    pub room: &'a dyn Room,
    /// Minutes between two loads.
    pub turnaround: Minutes,
    /// Yields of the household.
    pub household: &'a Household,
}

/// One choice of the answer.
#[derive(Debug, Clone, PartialEq)]
pub struct Share {
    /// Jars of it.
    pub jars: u32,
    /// Fruit from each lot.
    pub fruit: Vec<Mass>,
    /// Thin juice drained off it and canned as juice.
    pub drained: Volume,
}

/// What limits the day, and what a little more of it would gain.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Limit {
    /// What there is too little of.
    pub resource: Resource,
    /// Jars more, when there is one [step](Resource::step) more of it.
    pub jars_more: i64,
    /// Worth of the answer more.
    pub worth_more: f64,
}

/// The best split.
#[derive(Debug, Clone, PartialEq)]
pub struct Split {
    /// One share for each choice, in their order.
    pub shares: Vec<Share>,
    /// How their jars go into the canner, longest first for each pressure; by the places of the choices.
    pub loads: Vec<SharedLoad>,
    /// Worth of all jars.
    pub worth: f64,
    /// Whether it is proven that no other split is worth more.
    pub proven: bool,
}

/// No split fits.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum NoSplit {
    /// What is pinned needs more than there is.
    #[error("what is pinned does not fit into the fruit, the stock and the hours; let one of them go")]
    PinnedTooMuch,
    /// A jar that the canner does not hold.
    #[error(transparent)]
    NoRoom(#[from] NoRoom),
    /// The solver failed.
    #[error("the split could not be worked out: {0}")]
    Failed(String),
}

impl Resource {
    /// How much more is tried to see what it gains: 10 lb, one jar, one lid, a quart's acid, an hour.
    pub(super) fn add_step(self, question: &mut Question<'_>) {
        const HOUR: f64 = 60.0;
        let stock = &mut question.stock;
        match self {
            Self::Fruit(lot) => {
                let more = question.lots[lot].mass + pounds(10.0);
                question.lots[lot] = part_of(&question.lots[lot], more);
            }
            Self::Jars(jar) => {
                stock.jars.iter_mut().filter(|(size, _)| *size == jar).for_each(|(_, count)| *count += 1);
            }
            Self::Lids(mouth) => {
                stock.lids.iter_mut().filter(|(of, _)| *of == mouth).for_each(|(_, count)| *count += 1);
            }
            Self::Acid => stock.acid_tsp = stock.acid_tsp.map(|tsp| tsp + 6.0),
            Self::Canner => stock.canner_minutes = stock.canner_minutes.map(|minutes| minutes + HOUR),
            Self::Stove => stock.stove_minutes = stock.stove_minutes.map(|minutes| minutes + HOUR),
            Self::Hands => stock.hands_minutes = stock.hands_minutes.map(|minutes| minutes + HOUR),
        }
    }

    /// The step that is tried, in words.
    #[must_use]
    pub const fn step(self) -> &'static str {
        match self {
            Self::Fruit(_) => "10 lb more",
            Self::Jars(_) => "one jar more",
            Self::Lids(_) => "one lid more",
            Self::Acid => "acid for one quart more",
            Self::Canner => "one hour more of the canner",
            Self::Stove => "one burner hour more",
            Self::Hands => "one hour more of hands",
        }
    }
}
