//! How long what waits may wait, and what goes first.

use jiff::civil::Date;
use serde::Serialize;

use crate::ledger::food::{Food, FoodPlace};
use crate::measures::moment::{Minutes, Moment};

/// How long milled juice waits in the refrigerator. Common practice, no source.
pub const JUICE_KEEPS: Minutes = Minutes(24 * 60);
/// How long food that was cooked waits in the refrigerator to be heated again and canned: two days. Common practice, no
/// source.
pub const COOKED_KEEPS: Minutes = Minutes(2 * 24 * 60);
/// Days that an unsealed jar is kept in the refrigerator. Common practice, no source: "use within days".
pub const FRIDGE_DAYS: i64 = 4;
/// Heated or milled food is chilled, canned or eaten within two hours. Source: USDA Guide 1, from memory.
pub const WARM_KEEPS: Minutes = Minutes(120);
/// Months that frozen tomatoes keep their quality. Common practice, no source; they stay safe for longer.
pub const FROZEN_MONTHS: i32 = 12;
/// Days that firm ripe fruit waits in a cool room. Common practice, no source.
pub const RIPE_DAYS: i32 = 3;
/// Days that fruit with blemishes waits. Common practice, no source.
pub const TRIM_DAYS: i32 = 1;

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
    pub(crate) const fn day(day: Date, what: &'static str) -> Self {
        Self { day: Some(day), moment: None, what }
    }

    pub(crate) const fn moment(moment: Moment, what: &'static str) -> Self {
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
