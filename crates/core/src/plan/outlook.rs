//! What the same fruit would be as each product: jars, boiling away, hours, acid, lids; side by side before anything is
//! cut.

use bodega_model::jars::acid;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::ledger::food::{Food, Stuff};
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::range::Range;
use bodega_model::measures::teaspoons::Teaspoons;
use bodega_model::measures::units::{Mass, Time, Volume, in_pounds};
use bodega_model::plan::making::Making;
use bodega_model::tables::process::{Method, Pack, ProcessOption, Product, Query, Refusal, look_up};
use uom::si::ratio::ratio;
use uom::si::time::minute;

use crate::canner::room::Room;
use crate::day::sink;
use crate::kettle::heat::usual_rate;
use crate::plan::stuff::{boiled_away, can_become, volume};
use crate::plan::yields::full_jars;
use crate::plan::yields::learn::Household;

/// Hands-on minutes a jar: acid, filling, rim, lid, lifting. Ours: a place to start from, to be learned.
pub const HANDS_PER_JAR: f64 = 2.0;

/// Hands-on minutes a pound: at the sink, where fruit goes through and juice does not, and stirring at the stove. Ours, to be
/// learned.
#[must_use]
pub fn hands_per_lb(making: &Making, stuff: &Stuff) -> f64 {
    let stirring = match (making.product, making.pack) {
        (Product::Whole, Pack::Raw) | (Product::Juice | Product::VegetableJuice, _) => 0.0,
        _ => 0.2,
    };
    let is_fruit = stuff.food == Food::Fruit;
    let sink = if is_fruit { sink::minutes_per_lb(making.product, stuff.frozen) } else { 0.0 };
    sink + stirring
}

/// Burner minutes a pound before any boiling down: blanching, heating, simmering. Ours, to be learned.
#[must_use]
pub const fn stove_per_lb(making: &Making) -> f64 {
    match (making.product, making.pack) {
        (Product::Whole, Pack::Raw) => 0.4,
        (Product::Crushed, _) => 0.8,
        _ => 0.9,
    }
}

/// Time of one burner.
#[must_use]
pub fn stove_time(making: &Making, stuff: &Stuff) -> Time {
    let under_it = Time::new::<minute>(stove_per_lb(making) * in_pounds(stuff.mass));
    under_it + boiled_away(making, stuff) / usual_rate()
}

/// The kitchen an outlook is for.
#[derive(Debug, Clone, Copy)]
pub struct Ground<'a> {
    /// How the jars are heated.
    pub method: Method,
    /// Height of the kitchen.
    pub altitude: Altitude,
    /// What the canner holds.
    pub room: &'a dyn Room,
    /// Minutes between two loads.
    pub turnaround: Minutes,
    /// Acid of choice.
    pub agent: Agent,
    /// Yields of the household.
    pub household: &'a Household,
}

/// The same fruit as one product.
#[derive(Debug, Clone, PartialEq)]
pub struct Outlook {
    /// What it would be.
    pub making: Making,
    /// In which jars.
    pub jar: JarSize,
    /// The tested process, or why there is none.
    pub process: Result<ProcessOption, Refusal>,
    /// Volume of product.
    pub volume: Range<Volume>,
    /// Full jars.
    pub jars: Range<u32>,
    /// Fruit in one jar.
    pub weight_per_jar: Mass,
    /// Water boiled away.
    pub boiled_away: Volume,
    /// Time of one burner.
    pub stove: Time,
    /// Hands-on minutes.
    pub hands: Minutes,
    /// Canner loads.
    pub loads: u32,
    /// Minutes of the canner, turnarounds included.
    pub canner: Minutes,
    /// Acid for all jars.
    pub acid: Teaspoons,
    /// Household batches that the yield was learned from.
    pub learned_from: usize,
}

/// Works out what would become of what waits as one product in one size of jar; what cannot become it stays on the line.
#[must_use]
pub fn outlook(making: Making, jar: JarSize, waiting: &[Stuff], ground: &Ground<'_>) -> Outlook {
    let stuff: Vec<Stuff> =
        waiting.iter().filter(|stuff| can_become(stuff, making.product)).copied().collect();
    let volume = volume(ground.household, &making, &stuff).unwrap_or(Range {
        low: Volume::default(),
        expected: Volume::default(),
        high: Volume::default(),
    });
    let jars = Range {
        low: full_jars(volume.low, jar),
        expected: full_jars(volume.expected, jar),
        high: full_jars(volume.high, jar),
    };
    let weight = stuff.iter().fold(Mass::default(), |sum, stuff| sum + stuff.mass);
    let query = Query {
        product: making.product,
        medium: making.medium,
        pack: making.pack,
        method: ground.method,
        jar,
        altitude: ground.altitude,
    };
    let process = look_up(&query).map(|tested| tested.options[0]);
    let loads = jars.expected.div_ceil(ground.room.most_of(jar).unwrap_or(1));
    let minutes = process.as_ref().map_or(0, |option| option.minutes.0);
    let at_hand: f64 = stuff.iter().map(|stuff| hands_per_lb(&making, stuff) * in_pounds(stuff.mass)).sum();
    let hands = at_hand + HANDS_PER_JAR * f64::from(jars.expected);
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // minutes of some tonnes of fruit
    let hands = Minutes(hands.ceil() as u32);
    let per_volume = if volume.expected > Volume::default() {
        weight * (jar.volume() / volume.expected).get::<ratio>()
    } else {
        Mass::default()
    };
    Outlook {
        making,
        jar,
        volume,
        jars,
        weight_per_jar: per_volume,
        boiled_away: stuff.iter().fold(Volume::default(), |sum, stuff| sum + boiled_away(&making, stuff)),
        stove: stuff.iter().fold(Time::default(), |sum, stuff| sum + stove_time(&making, stuff)),
        hands,
        loads,
        canner: Minutes(loads * (minutes + ground.turnaround.0)),
        acid: acid::total(ground.agent, &[(jar, jars.expected)]),
        learned_from: stuff
            .iter()
            .filter(|stuff| stuff.food == Food::Fruit)
            .map(|stuff| ground.household.learn(making.product, making.thickness, stuff.kind).batches)
            .max()
            .unwrap_or(0),
        process,
    }
}
