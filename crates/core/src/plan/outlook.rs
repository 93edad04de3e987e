//! What the same fruit would be as each product: jars, boiling away, hours, acid, lids; side by side before anything is
//! cut.

use uom::si::ratio::ratio;
use uom::si::time::minute;

use crate::canner::room::Room;
use crate::crates::fruit::Kind;
use crate::day::sink;
use crate::jars::acid::{self, Agent};
use crate::jars::size::JarSize;
use crate::kitchen::altitude::Altitude;
use crate::measures::moment::Minutes;
use crate::measures::teaspoons::Teaspoons;
use crate::measures::units::{Mass, Time, Volume, VolumeRate, in_pounds, in_quarts, litres_per_hour, quarts};
use crate::plan::yields::learn::Household;
use crate::plan::yields::{Range, Thickness, full_jars, pounds_per_quart};
use crate::tables::process::{Medium, Method, Pack, ProcessOption, Product, Query, Refusal, look_up};

/// One thing tomatoes can become: the product with its pack.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Making {
    /// Product.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
}

impl Making {
    const fn new(product: Product, medium: Option<Medium>, pack: Pack, thickness: Option<Thickness>) -> Self {
        Self { product, medium, pack, thickness }
    }

    /// Everything that plain tomatoes become, in the order people think of it.
    pub const ALL: [Self; 9] = [
        Self::new(Product::Whole, Some(Medium::Water), Pack::Raw, None),
        Self::new(Product::Whole, Some(Medium::Water), Pack::Hot, None),
        Self::new(Product::Whole, Some(Medium::Juice), Pack::Hot, None),
        Self::new(Product::Whole, Some(Medium::None), Pack::Raw, None),
        Self::new(Product::Crushed, None, Pack::Hot, None),
        Self::new(Product::Juice, None, Pack::Hot, None),
        Self::new(Product::Sauce, None, Pack::Hot, Some(Thickness::Thin)),
        Self::new(Product::Sauce, None, Pack::Hot, Some(Thickness::Thick)),
        Self::new(Product::Paste, None, Pack::Hot, None),
    ];
}

/// Soluble solids of fresh juice in °Brix, by kind. Common practice, no source: paste types are mostly wall, slicers
/// mostly water.
#[must_use]
pub const fn juice_brix(kind: Kind) -> f64 {
    match kind {
        Kind::Paste => 5.0,
        Kind::Slicer => 4.2,
        Kind::Cherry => 5.5,
        Kind::Mixed => 4.6,
    }
}

/// Water that a wide kettle boils away on a household burner, 2 litres an hour, until the household's own cook-downs say
/// otherwise. Common practice, no source.
#[must_use]
pub fn usual_rate() -> VolumeRate {
    litres_per_hour(2.0)
}

/// Solids of paste to aim at, °Brix; the middle of home paste. Common practice, no source.
const PASTE_BRIX: f64 = 17.0;

/// Share of the juice that is left when fruit of a kind is as thick as the product asks: reduced by a third or by half
/// for paste types (USDA Guide 3, from memory), further for fruit with more water.
#[must_use]
pub fn share_left(making: &Making, kind: Kind) -> f64 {
    let target = match (making.product, making.thickness) {
        (Product::Sauce, Some(Thickness::Thick)) => juice_brix(Kind::Paste) * 2.0,
        (Product::Sauce, _) => juice_brix(Kind::Paste) * 1.5,
        (Product::Paste, _) => PASTE_BRIX,
        _ => return 1.0,
    };
    juice_brix(kind) / target
}

/// Hands and stove for a pound of fruit and for a jar, in minutes. Ours: a place to start from, to be learned.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Effort {
    /// Hands-on minutes a pound: at the sink, and stirring at the stove.
    pub hands_per_lb: f64,
    /// Hands-on minutes a jar: acid, filling, rim, lid, lifting.
    pub hands_per_jar: f64,
    /// Burner minutes a pound before any boiling down: blanching, heating, simmering.
    pub stove_per_lb: f64,
}

/// Hands-on minutes a jar: acid, filling, rim, lid, lifting. Ours: a place to start from, to be learned.
pub const HANDS_PER_JAR: f64 = 2.0;

/// The effort of a making.
#[must_use]
pub fn effort(making: &Making) -> Effort {
    let (stirring, stove_per_lb) = match (making.product, making.pack) {
        (Product::Whole, Pack::Raw) => (0.0, 0.4),
        (Product::Whole, Pack::Hot) => (0.2, 0.9),
        (Product::Crushed, _) => (0.2, 0.8),
        (Product::Juice | Product::VegetableJuice, _) => (0.0, 0.9),
        (Product::Sauce | Product::Paste, _) => (0.2, 0.9),
    };
    Effort {
        hands_per_lb: sink::minutes_per_lb(making.product) + stirring,
        hands_per_jar: HANDS_PER_JAR,
        stove_per_lb,
    }
}

/// Water that boils away on the way to the product.
#[must_use]
pub fn boiled_away(making: &Making, kind: Kind, weight: Mass) -> Volume {
    let juice = in_pounds(weight) / pounds_per_quart(Product::Juice, None).expected;
    quarts(juice * (1.0 - share_left(making, kind)).max(0.0))
}

/// Time of one burner.
#[must_use]
pub fn stove_time(making: &Making, kind: Kind, weight: Mass) -> Time {
    let under_it = Time::new::<minute>(effort(making).stove_per_lb * in_pounds(weight));
    under_it + boiled_away(making, kind, weight) / usual_rate()
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

/// Volume of product from lots of several kinds, each by its own yield.
#[must_use]
pub fn volume(household: &Household, making: &Making, lots: &[(Kind, Mass)]) -> Range<Volume> {
    let mut sum = Range { low: Volume::default(), expected: Volume::default(), high: Volume::default() };
    for (kind, weight) in lots {
        let per_quart = household.learn(making.product, making.thickness, *kind).pounds_per_quart;
        let made = |pounds: f64| quarts(in_pounds(*weight) / pounds);
        sum.low += made(per_quart.high);
        sum.expected += made(per_quart.expected);
        sum.high += made(per_quart.low);
    }
    sum
}

/// Works out what lots would be as one product in one size of jar.
#[must_use]
pub fn outlook(making: Making, jar: JarSize, lots: &[(Kind, Mass)], ground: &Ground<'_>) -> Outlook {
    let volume = volume(ground.household, &making, lots);
    let jars = Range {
        low: full_jars(volume.low, jar),
        expected: full_jars(volume.expected, jar),
        high: full_jars(volume.high, jar),
    };
    let weight = lots.iter().fold(Mass::default(), |sum, (_, weight)| sum + *weight);
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
    let effort = effort(&making);
    let hands = effort.hands_per_lb * in_pounds(weight) + effort.hands_per_jar * f64::from(jars.expected);
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
        boiled_away: lots
            .iter()
            .fold(Volume::default(), |sum, (kind, weight)| sum + boiled_away(&making, *kind, *weight)),
        stove: lots
            .iter()
            .fold(Time::default(), |sum, (kind, weight)| sum + stove_time(&making, *kind, *weight)),
        hands,
        loads,
        canner: Minutes(loads * (minutes + ground.turnaround.0)),
        acid: acid::total(ground.agent, &[(jar, jars.expected)]),
        learned_from: lots
            .iter()
            .map(|(kind, _)| ground.household.learn(making.product, making.thickness, *kind).batches)
            .max()
            .unwrap_or(0),
        process,
    }
}

/// The jar a making is usually put into.
#[must_use]
pub const fn usual_jar(making: &Making) -> JarSize {
    match making.product {
        Product::Paste => JarSize::HalfPint,
        Product::Sauce => JarSize::Pint,
        Product::Whole | Product::Crushed | Product::Juice | Product::VegetableJuice => JarSize::Quart,
    }
}

/// Quarts of product as a plain number, for models that count in quarts.
#[must_use]
pub fn quarts_per_pound(household: &Household, making: &Making, kind: Kind) -> f64 {
    1.0 / household.learn(making.product, making.thickness, kind).pounds_per_quart.expected
}

/// What a jar holds, in quarts.
#[must_use]
pub fn jar_quarts(jar: JarSize) -> f64 {
    in_quarts(jar.volume())
}

#[cfg(test)]
mod tests {
    use super::{Making, boiled_away, share_left};
    use crate::crates::fruit::Kind;
    use crate::measures::units::{in_quarts, pounds};
    use crate::plan::yields::Thickness;
    use crate::tables::process::Product;

    fn sauce(thickness: Thickness) -> Making {
        *Making::ALL.iter().find(|making| making.thickness == Some(thickness)).unwrap()
    }

    #[test]
    fn paste_fruit_is_reduced_as_published_and_slicers_further() {
        // USDA Guide 3, from memory: thin sauce by about one third, thick by one half.
        assert!((share_left(&sauce(Thickness::Thin), Kind::Paste) - 2.0 / 3.0).abs() < 1e-9);
        assert!((share_left(&sauce(Thickness::Thick), Kind::Paste) - 0.5).abs() < 1e-9);
        assert!(share_left(&sauce(Thickness::Thin), Kind::Slicer) < 0.6);
        // 3¼ lb make a quart of juice, so 39 lb make 12 quarts, and a third of them boils away.
        let away = boiled_away(&sauce(Thickness::Thin), Kind::Paste, pounds(39.0));
        assert!((in_quarts(away) - 4.0).abs() < 0.05, "{}", in_quarts(away));
    }

    #[test]
    fn only_sauce_and_paste_are_boiled_down() {
        for making in Making::ALL {
            let away = in_quarts(boiled_away(&making, Kind::Slicer, pounds(10.0)));
            assert_eq!(away > 0.0, matches!(making.product, Product::Sauce | Product::Paste), "{making:?}");
        }
    }
}
