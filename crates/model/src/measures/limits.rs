//! Every bound on what a person may enter, in one table; checks and messages are made from its rows.
//!
//! A bound here says "this is a slip of the finger", not "this is unsafe"; safety belongs to the rules.

/// One row of the table: a name, a unit and an inclusive range.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Limit {
    /// What is measured, as it stands in the message.
    pub name: &'static str,
    /// Unit symbol, empty for a count.
    pub unit: &'static str,
    /// Smallest accepted value.
    pub min: f64,
    /// Largest accepted value.
    pub max: f64,
    /// Why the range ends where it does.
    pub why: &'static str,
}

/// A value outside its [`Limit`]; NaN and infinity are always outside.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("{} is {}{}; give a number from {} to {}{}", limit.name, short(*given), suffix(limit.unit), limit.min, limit.max, suffix(limit.unit))]
pub struct OutOfRange {
    /// The row that was broken.
    pub limit: Limit,
    /// The value as given.
    pub given: f64,
}

/// At most three decimals: a number that was converted need not show all of its digits.
fn short(given: f64) -> f64 {
    (given * 1000.0).round() / 1000.0
}

fn suffix(unit: &str) -> String {
    if unit.is_empty() { String::new() } else { format!(" {unit}") }
}

impl Limit {
    /// The one comparison of a value with a limit.
    ///
    /// ```
    /// use bodega_model::measures::limits::WEIGHT;
    /// assert_eq!(WEIGHT.check(13.6), Ok(13.6));
    /// let error = WEIGHT.check(-3.0).unwrap_err();
    /// assert_eq!(error.to_string(), "weight is -3 kg; give a number from 0.01 to 5000 kg");
    /// assert!(WEIGHT.check(f64::NAN).is_err());
    /// ```
    ///
    /// # Errors
    /// [`OutOfRange`] when the value is outside, NaN or infinite.
    pub fn check(self, given: f64) -> Result<f64, OutOfRange> {
        if given >= self.min && given <= self.max {
            Ok(given)
        } else {
            Err(OutOfRange { limit: self, given })
        }
    }
}

/// Weight of fruit in one lot or one question.
pub const WEIGHT: Limit =
    Limit { name: "weight", unit: "kg", min: 0.01, max: 5000.0, why: "a scale's least step; a lorry load" };
/// Height of the kitchen; wider than any tested process, which is refused separately.
pub const ALTITUDE: Limit = Limit {
    name: "altitude",
    unit: "ft",
    min: -2000.0,
    max: 30000.0,
    why: "lowest and highest dry land, rounded outward",
};
/// A part of a batch that went elsewhere, in whatever measure.
pub const FOOD_AMOUNT: Limit =
    Limit { name: "amount", unit: "", min: 0.01, max: 5000.0, why: "a taste; a lorry load" };
/// Minutes that a kettle simmers or is held hot.
pub const COOK_MINUTES: Limit = Limit {
    name: "minutes",
    unit: "min",
    min: 1.0,
    max: 600.0,
    why: "a minute; the longest day at the stove",
};
/// Packs of food for the freezer, or jars for the refrigerator.
pub const PACKS: Limit =
    Limit { name: "packs", unit: "packs", min: 1.0, max: 1000.0, why: "more than a household freezer holds" };
/// Jars of one size in one question.
pub const JAR_COUNT: Limit =
    Limit { name: "count", unit: "jars", min: 0.0, max: 1000.0, why: "a season's work" };
/// Water that fills a jar of unknown size.
pub const JAR_WATER: Limit =
    Limit { name: "water", unit: "kg", min: 0.02, max: 20.0, why: "a spice glass; a demijohn" };
/// Jars of one size that a canner holds.
pub const CAPACITY: Limit = Limit {
    name: "capacity",
    unit: "jars",
    min: 1.0,
    max: 100.0,
    why: "the largest household canner, twice over",
};
/// Acid stirred into a pot.
pub const POT_DOSE: Limit =
    Limit { name: "pot dose", unit: "tsp", min: 0.0, max: 4000.0, why: "the dose of a thousand quarts" };
/// Acid as it was measured out, in whatever measure.
pub const DOSE_AMOUNT: Limit =
    Limit { name: "amount", unit: "", min: 0.0, max: 20_000.0, why: "the largest pot dose in millilitres" };
/// Jars of something else in a canner.
pub const ALSO_COUNT: Limit = Limit {
    name: "count",
    unit: "jars",
    min: 1.0,
    max: 100.0,
    why: "one; the largest household canner, twice over",
};
/// Minutes that something else needs.
pub const ALSO_MINUTES: Limit =
    Limit { name: "minutes", unit: "min", min: 1.0, max: 1440.0, why: "a minute; a whole day" };
/// Minutes between two loads.
pub const TURNAROUND: Limit =
    Limit { name: "turnaround", unit: "minutes", min: 0.0, max: 240.0, why: "half a working day" };
/// Counted containers in one weigh-in.
pub const CONTAINERS: Limit =
    Limit { name: "containers", unit: "", min: 0.01, max: 500.0, why: "a share of one bag; a lorry load" };
/// Inner width of a pot.
pub const VESSEL_DIAMETER: Limit =
    Limit { name: "inner diameter", unit: "mm", min: 80.0, max: 1000.0, why: "a milk pan; a cauldron" };
/// Inner height of a pot.
pub const VESSEL_HEIGHT: Limit =
    Limit { name: "inner height", unit: "mm", min: 50.0, max: 1000.0, why: "a milk pan; a cauldron" };
/// Height of the rack above the pot's bottom.
pub const RACK_HEIGHT: Limit =
    Limit { name: "rack height", unit: "mm", min: 0.0, max: 200.0, why: "a towel; a tall trivet" };
/// Outer width of a jar.
pub const JAR_DIAMETER: Limit =
    Limit { name: "jar's width", unit: "mm", min: 30.0, max: 300.0, why: "a sample glass; a crock" };
/// Height of a jar with its lid.
pub const JAR_HEIGHT: Limit =
    Limit { name: "jar's height", unit: "mm", min: 30.0, max: 500.0, why: "a sample glass; a crock" };
/// Fruit from one plant.
pub const PLANT_YIELD: Limit = Limit {
    name: "fruit of a plant",
    unit: "lb",
    min: 0.5,
    max: 100.0,
    why: "a bad year in a pot; a greenhouse",
};
/// Hands or burners of a kitchen.
pub const HELP: Limit = Limit { name: "count", unit: "", min: 1.0, max: 20.0, why: "one; a parish hall" };
/// Longest slip.
pub const DAY_SLIP: Limit =
    Limit { name: "minutes", unit: "min", min: -600.0, max: 600.0, why: "ten hours either way" };
/// How many of something.
pub const DAY_RESOURCE: Limit =
    Limit { name: "count", unit: "", min: 0.0, max: 50.0, why: "a hall full of cooks" };
/// Minutes of a task or a day.
pub const DAY_LENGTH: Limit = Limit { name: "minutes", unit: "min", min: 0.0, max: 10_080.0, why: "a week" };
/// Minutes between two tasks.
pub const DAY_LAG: Limit =
    Limit { name: "lag", unit: "min", min: -10_080.0, max: 10_080.0, why: "a week either way" };
/// Time to search.
pub const SEARCH_TIME: Limit =
    Limit { name: "time limit", unit: "ms", min: 1.0, max: 30_000.0, why: "at once; half a minute" };
/// A year on a jar.
pub const SHELF_YEAR: Limit =
    Limit { name: "year", unit: "", min: 1990.0, max: 2200.0, why: "a cellar's depth; far ahead" };
/// Year in which a gauge was tested; that it is not to come is checked against the clock.
pub const GAUGE_YEAR: Limit =
    Limit { name: "year", unit: "", min: 1900.0, max: 2200.0, why: "an old dial; far ahead" };
/// Width or height of a label.
pub const LABEL_SIDE: Limit =
    Limit { name: "label", unit: "mm", min: 25.0, max: 150.0, why: "smaller is not read; larger than a jar" };
/// From one label to the next.
pub const LABEL_GAP: Limit =
    Limit { name: "gap", unit: "mm", min: 0.0, max: 30.0, why: "cut edge to edge; a thumb" };
/// Position on a part-used sheet.
pub const LABEL_START: Limit =
    Limit { name: "start", unit: "", min: 1.0, max: 200.0, why: "the first; a sheet of tiny ones" };
/// A process, a rest or a log of a boil.
pub const MINUTES: Limit = Limit { name: "minutes", unit: "min", min: 0.0, max: 1440.0, why: "a whole day" };
/// Hours on the towel.
pub const HOURS: Limit = Limit { name: "hours", unit: "h", min: 0.0, max: 10_000.0, why: "more than a year" };
/// Pounds on a pressure gauge.
pub const POUNDS: Limit =
    Limit { name: "pounds", unit: "psi", min: 0.0, max: 30.0, why: "no pressure; the end of a gauge" };
/// Leaves of basil in a batch.
pub const LEAVES: Limit =
    Limit { name: "leaves", unit: "leaves", min: 0.0, max: 48_000.0, why: "none; a thousand cups" };
/// Air under the lid.
pub const HEADSPACE: Limit =
    Limit { name: "headspace", unit: "in", min: 0.0, max: 6.0, why: "half of the tallest jar" };
/// Water over the lids.
pub const WATER_COVER: Limit =
    Limit { name: "water over the lids", unit: "in", min: 0.0, max: 20.0, why: "a deep cauldron" };
/// Temperatures in a kitchen.
pub const CELSIUS: Limit =
    Limit { name: "temperature", unit: "°C", min: -30.0, max: 200.0, why: "a freezer; hot fat" };
/// The scale of pH.
pub const PH: Limit = Limit { name: "pH", unit: "", min: 0.0, max: 14.0, why: "the scale ends there" };
/// Months since a bottle was opened.
pub const BOTTLE_AGE: Limit =
    Limit { name: "bottle age", unit: "months", min: 0.0, max: 600.0, why: "a forgotten cellar" };
/// Cups of something added.
pub const ADDITION: Limit =
    Limit { name: "addition", unit: "cups", min: 0.0, max: 1000.0, why: "as much as the tomatoes" };
/// Amount of one part of a recipe, in its own measure.
pub const RECIPE_AMOUNT: Limit =
    Limit { name: "amount", unit: "", min: 0.0, max: 100_000.0, why: "grams of a lorry load" };
/// Tomatoes to one packet of mix.
pub const PACKET_TOMATOES: Limit = Limit {
    name: "tomatoes to a packet",
    unit: "lb",
    min: 0.1,
    max: 100.0,
    why: "a cup of them; a caterer's bag",
};
/// Parts of a recipe.
pub const RECIPE_PARTS: Limit =
    Limit { name: "parts", unit: "", min: 1.0, max: 100.0, why: "one; more than any printed recipe has" };
/// Jars that a recipe fills.
pub const RECIPE_JARS: Limit =
    Limit { name: "jars", unit: "", min: 0.25, max: 1000.0, why: "part of a jar; a lorry load" };
/// Minutes printed with a recipe.
pub const RECIPE_MINUTES: Limit = Limit {
    name: "minutes",
    unit: "min",
    min: 1.0,
    max: 300.0,
    why: "a minute; longer than any tested process",
};
/// How many times a recipe is made.
pub const RECIPE_TIMES: Limit =
    Limit { name: "factor", unit: "", min: 0.01, max: 1000.0, why: "a spoonful; a lorry load" };
/// Degrees north.
pub const LATITUDE: Limit = Limit { name: "latitude", unit: "°", min: -90.0, max: 90.0, why: "the poles" };
/// Degrees east.
pub const LONGITUDE: Limit =
    Limit { name: "longitude", unit: "°", min: -180.0, max: 180.0, why: "once round" };
/// How wrong a thermometer may be.
pub const THERMOMETER_ERROR: Limit = Limit {
    name: "thermometer error",
    unit: "°C",
    min: 0.0,
    max: 3.0,
    why: "beyond it a reading says nothing about the band",
};
/// What a bottle of lemon juice or vinegar holds.
pub const BOTTLE: Limit =
    Limit { name: "bottle", unit: "mL", min: 50.0, max: 20_000.0, why: "a squeeze; a canister" };
/// Jars or lids in the cupboard.
pub const JAR_STOCK: Limit =
    Limit { name: "count", unit: "", min: 0.0, max: 10_000.0, why: "a wholesaler's shelf" };
/// Acid in the cupboard, millilitres or grams.
pub const ACID_STOCK: Limit =
    Limit { name: "amount", unit: "", min: 0.0, max: 100_000.0, why: "a hundred litres or kilograms" };
/// How much a goal is wanted.
pub const PREFERENCE: Limit =
    Limit { name: "preference", unit: "", min: 1.0, max: 3.0, why: "a little, rather, very much" };
/// Minutes of a resource on one day, all of it together.
pub const DAY_MINUTES: Limit =
    Limit { name: "minutes", unit: "min", min: 0.0, max: 14_400.0, why: "ten of them round the clock" };
/// Share of a weigh-in that is ripe.
pub const RIPE_SHARE: Limit =
    Limit { name: "ripe share", unit: "%", min: 0.0, max: 100.0, why: "none of it; all of it" };
/// Soluble solids.
pub const BRIX: Limit = Limit { name: "Brix", unit: "°", min: 0.5, max: 60.0, why: "rain water; syrup" };
/// Soluble solids of what goes into a kettle later.
pub const ADDED_BRIX: Limit = Limit { name: "Brix", unit: "°", min: 0.0, max: 60.0, why: "water; syrup" };
/// What goes into a kettle, when the heat comes on or later.
pub const FILLED_AT: Limit =
    Limit { name: "temperature", unit: "°C", min: -30.0, max: 110.0, why: "out of the freezer; boiling" };
/// Share of the start volume that is left.
pub const FRACTION_LEFT: Limit =
    Limit { name: "fraction left", unit: "", min: 0.02, max: 1.0, why: "burnt; untouched" };
/// What a kettle holds.
pub const KETTLE_VOLUME: Limit =
    Limit { name: "volume", unit: "L", min: 0.05, max: 500.0, why: "a ladle; a cauldron" };
/// Power of a burner.
pub const WATTS: Limit =
    Limit { name: "power", unit: "W", min: 50.0, max: 30_000.0, why: "a candle; a brewery burner" };
/// Share of a burner's power that reaches the water.
pub const EFFICIENCY: Limit =
    Limit { name: "efficiency", unit: "", min: 0.05, max: 1.0, why: "mostly lost; all of it" };
/// Water boiled away.
pub const EVAPORATION: Limit =
    Limit { name: "evaporation", unit: "L/h", min: 0.02, max: 50.0, why: "a slow oven; a brewery burner" };
/// Minutes of a cook-down's log.
pub const LOG_MINUTE: Limit = Limit { name: "minute", unit: "min", min: 0.0, max: 10_000.0, why: "a week" };
/// Depth on a stick; whether it fits the kettle is judged against the kettle.
pub const DEPTH_READ: Limit =
    Limit { name: "depth", unit: "mm", min: 1.0, max: 10_000.0, why: "a wet bottom; a well" };
/// A probe in a kettle.
pub const PROBE: Limit =
    Limit { name: "temperature", unit: "°C", min: 1.0, max: 130.0, why: "ice; under pressure" };
/// A weight as it is read off a scale, in pounds or kilograms; in kilograms it is held against [`WEIGHT`].
pub const WEIGHT_READ: Limit = Limit {
    name: "weight",
    unit: "",
    min: 0.01,
    max: 11_023.0,
    why: "the limits of a lot, in pounds or kilograms",
};
/// Place of a choice in an answer.
pub const CHOICE: Limit = Limit { name: "choice", unit: "", min: 0.0, max: 1000.0, why: "a long list" };
