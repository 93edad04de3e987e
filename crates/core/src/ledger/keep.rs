//! How long what waits may wait, and what goes first.

use jiff::ToSpan;
use jiff::civil::Date;
use serde::Serialize;

use super::food::{Food, FoodPlace};
use crate::crates::fruit::Condition;
use crate::day::overnight::{COOKED_KEEPS, JUICE_KEEPS};
use crate::measures::moment::{Minutes, Moment};
use crate::records::lot::Lot;
use crate::towel::seal::FRIDGE_DAYS;

/// Heated or milled food is chilled, canned or eaten within two hours. Source: USDA Guide 1, from memory.
const WARM_KEEPS: Minutes = Minutes(120);
/// Months that frozen tomatoes keep their quality. Common practice, no source; they stay safe for longer.
const FROZEN_MONTHS: i32 = 12;
/// Days that firm ripe fruit waits in a cool room. Common practice, no source.
const RIPE_DAYS: i32 = 3;
/// Days that fruit with blemishes waits. Common practice, no source.
const TRIM_DAYS: i32 = 1;

/// Room for food to grow as it freezes, in packs made for the freezer. Source: USDA Complete Guide and extension guidance on
/// freezing, from memory.
pub const FREEZER_HEADSPACE: &str = "Leave ½ in (13 mm) of headspace in a pint and 1 in (25 mm) in a quart; in narrow mouths ¾ in (19 mm) and 1½ in \
     (38 mm).";

/// What to do with a recipe that is not canned; the days are [`FRIDGE_DAYS`].
pub const COLD_INSTEAD: &str = "Keep it in the refrigerator and eat it within 4 days, or freeze it.";

/// Until when something waits, and what is then to be done.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Wait {
    /// The last day, when it is a matter of days.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, format = Date))]
    pub day: Option<Date>,
    /// The last moment, when it is a matter of hours.
    pub moment: Option<Moment>,
    /// What to do by then.
    pub what: &'static str,
}

impl Wait {
    const fn day(day: Date, what: &'static str) -> Self {
        Self { day: Some(day), moment: None, what }
    }

    const fn moment(moment: Moment, what: &'static str) -> Self {
        Self { day: None, moment: Some(moment), what }
    }

    /// Whether it has waited too long: after its moment, or when the day after its last day has begun.
    #[must_use]
    pub fn is_over(&self, now: Moment, today: Date) -> bool {
        match (self.moment, self.day) {
            (Some(until), _) => now > until,
            (None, Some(day)) => today > day,
            (None, None) => false,
        }
    }
}

/// How long a lot may wait on the line; `None` for fruit that is not for jars.
#[must_use]
pub fn lot_waits(lot: &Lot) -> Option<Wait> {
    if lot.food.spoils_soon() {
        let keeps = match lot.food {
            Food::Cooked | Food::Product => COOKED_KEEPS,
            _ => JUICE_KEEPS,
        };
        return Some(match (lot.frozen && lot.thawed_at.is_none(), lot.chilled_at) {
            (true, _) => Wait::day(lot.picked_on.saturating_add(FROZEN_MONTHS.months()), "use it"),
            (false, Some(since)) => Wait::moment(since.plus(keeps), "heat it to the boil and can it"),
            (false, None) => Wait::moment(
                lot.thawed_at.unwrap_or(lot.added_at).plus(WARM_KEEPS),
                "can it, or put it into the refrigerator",
            ),
        });
    }
    match (lot.condition, lot.frozen, lot.thawed_at) {
        (Condition::Out, ..) => None,
        (_, true, Some(thawed)) => Some(Wait::moment(thawed.plus(JUICE_KEEPS), "use it, kept cold")),
        (_, true, None) => Some(Wait::day(lot.picked_on.saturating_add(FROZEN_MONTHS.months()), "use it")),
        (Condition::Unripe, ..) => lot.back_on.map(|day| Wait::day(day, "look at it again")),
        (Condition::Trim, ..) => {
            Some(Wait::day(lot.picked_on.saturating_add(TRIM_DAYS.days()), "use it or freeze it"))
        }
        (Condition::FirmRipe, ..) => {
            Some(Wait::day(lot.picked_on.saturating_add(RIPE_DAYS.days()), "use it or freeze it"))
        }
    }
}

/// How long food in the refrigerator or the freezer keeps; `None` for places where nothing keeps.
#[must_use]
pub fn cold_keeps(food: Food, place: FoodPlace, since: Moment) -> Option<Wait> {
    const DAY: i64 = 24 * 60;
    match (place, food) {
        (FoodPlace::Freezer, _) => {
            Some(Wait::moment(since.plus_minutes(i64::from(FROZEN_MONTHS) * 30 * DAY), "use it"))
        }
        (FoodPlace::Refrigerator, Food::Juice | Food::ThinJuice | Food::Bits) => {
            Some(Wait::moment(since.plus(JUICE_KEEPS), "can it, or drink it soon after"))
        }
        (FoodPlace::Refrigerator, Food::Cooked) => {
            Some(Wait::moment(since.plus(COOKED_KEEPS), "heat it to the boil and can it, or eat it"))
        }
        (FoodPlace::Refrigerator, Food::Fruit) => {
            Some(Wait::moment(since.plus_minutes(i64::from(RIPE_DAYS) * DAY), "use it"))
        }
        (FoodPlace::Refrigerator, _) => Some(Wait::moment(since.plus_minutes(FRIDGE_DAYS * DAY), "eat it")),
        _ => None,
    }
}
