//! Lots: what waits on the line, of one kind and in one form, drawn down by batches. Most are weigh-ins of fruit; some are juice
//! that another batch gave, or food that came back out of the cold.

use jiff::ToSpan;
use jiff::civil::Date;
use serde::Serialize;

use crate::crates::fruit::{Condition, Fault, Kind};
use crate::ledger::food::{Food, Stuff, Told};
use crate::ledger::keep::{COOKED_KEEPS, FROZEN_MONTHS, JUICE_KEEPS, RIPE_DAYS, TRIM_DAYS, WARM_KEEPS, Wait};
use crate::measures::ids::{BatchId, LotId};
use crate::measures::moment::Moment;
use crate::measures::units::grams;

/// A lot with what is left of it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Lot {
    /// Number of the record.
    pub id: LotId,
    /// What the household calls it: "the yellow ones".
    pub name: Option<String>,
    /// Anything else that is to be remembered of it.
    pub note: Option<String>,
    /// In what form it waits.
    pub food: Food,
    /// When it came onto the line.
    pub added_at: Moment,
    /// How much came, as it was told, when it was measured and not weighed.
    pub told: Option<Told>,
    /// The batch it came from, of what another batch gave.
    pub from_batch: Option<BatchId>,
    /// Code of that batch.
    pub from_code: Option<String>,
    /// Whether it came by a move, from a batch or out of the cold, and so is no harvest.
    pub moved_in: bool,
    /// Since when it is in the refrigerator.
    pub chilled_at: Option<Moment>,
    /// When frozen food thawed.
    pub thawed_at: Option<Moment>,
    /// Grams of clear water that were poured off it.
    pub poured_g: i64,
    /// Day it was picked, bought or frozen, `YYYY-MM-DD`.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    pub picked_on: Date,
    /// Kind of tomato.
    pub kind: Kind,
    /// Condition at sorting.
    pub condition: Condition,
    /// Why it is not for jars.
    pub fault: Option<Fault>,
    /// Day that fruit on the sill is looked at again, `YYYY-MM-DD`.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, format = Date))]
    pub back_on: Option<Date>,
    /// Frozen fruit thaws with free water and slips its skins.
    pub frozen: bool,
    /// Grams weighed in.
    pub weight_g: i64,
    /// Grams that are still there.
    pub left_g: i64,
}

impl Lot {
    /// What it is, as a person reads it: "slicer tomatoes, thawed", "thin juice of 260912-1".
    #[must_use]
    pub fn words(&self) -> String {
        let of = self.from_code.as_ref().map(|code| format!(" of {code}")).unwrap_or_default();
        let state = match (self.frozen, self.thawed_at) {
            (true, Some(_)) => ", thawed",
            (true, None) => ", frozen",
            (false, _) => "",
        };
        if self.food == Food::Fruit && self.kind == Kind::Tomatillo {
            return format!("{}s{of}{state}", self.kind);
        }
        if self.food == Food::Fruit && of.is_empty() {
            return format!("{} {}{state}", self.kind, self.food);
        }
        format!("{}{of}{state}", self.food)
    }

    /// So many grams of it, as a plan counts it.
    #[must_use]
    pub fn stuff(&self, weight_g: i64) -> Stuff {
        #[allow(clippy::cast_precision_loss)] // grams of a lot, far below 2^53
        let share = self.poured_g as f64 / (self.weight_g - self.poured_g).max(1) as f64;
        let mass = grams(weight_g);
        Stuff { food: self.food, kind: self.kind, mass, poured_off: mass * share, frozen: self.frozen }
    }

    /// How long it may wait on the line; `None` for fruit that is not for jars.
    #[must_use]
    pub fn waits(&self) -> Option<Wait> {
        if self.food.spoils_soon() {
            let keeps = match self.food {
                Food::Cooked | Food::Product => COOKED_KEEPS,
                _ => JUICE_KEEPS,
            };
            return Some(match (self.frozen && self.thawed_at.is_none(), self.chilled_at) {
                (true, _) => Wait::day(self.picked_on.saturating_add(FROZEN_MONTHS.months()), "use it"),
                (false, Some(since)) => Wait::moment(since.plus(keeps), "heat it to the boil and can it"),
                (false, None) => Wait::moment(
                    self.thawed_at.unwrap_or(self.added_at).plus(WARM_KEEPS),
                    "can it, or put it into the refrigerator",
                ),
            });
        }
        match (self.condition, self.frozen, self.thawed_at) {
            (Condition::Out, ..) => None,
            (_, true, Some(thawed)) => Some(Wait::moment(thawed.plus(JUICE_KEEPS), "use it, kept cold")),
            (_, true, None) => {
                Some(Wait::day(self.picked_on.saturating_add(FROZEN_MONTHS.months()), "use it"))
            }
            (Condition::Unripe, ..) => self.back_on.map(|day| Wait::day(day, "look at it again")),
            (Condition::Trim, ..) => {
                Some(Wait::day(self.picked_on.saturating_add(TRIM_DAYS.days()), "use it or freeze it"))
            }
            (Condition::FirmRipe, ..) => {
                Some(Wait::day(self.picked_on.saturating_add(RIPE_DAYS.days()), "use it or freeze it"))
            }
        }
    }
}

/// A weigh-in.
#[derive(Debug, Clone, PartialEq)]
pub struct NewLot {
    /// In what form.
    pub food: Food,
    /// How much, as it was told, when it was measured and not weighed.
    pub told: Option<Told>,
    /// Day it was picked, `YYYY-MM-DD`.
    pub picked_on: Date,
    /// Kind of tomato.
    pub kind: Kind,
    /// Condition at sorting.
    pub condition: Condition,
    /// Why it is not for jars.
    pub fault: Option<Fault>,
    /// Day that fruit on the sill is looked at again.
    pub back_on: Option<Date>,
    /// Frozen or fresh.
    pub frozen: bool,
    /// Grams.
    pub weight_g: i64,
}

/// A correction; absent fields stay.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct LotChange {
    /// New kind.
    pub kind: Option<Kind>,
    /// New condition.
    pub condition: Option<Condition>,
    /// New weight in grams.
    pub weight_g: Option<i64>,
    /// Taken off the line, or put back.
    pub removed: Option<bool>,
    /// In the refrigerator, or out of it.
    pub chilled: Option<bool>,
    /// Thawed, or frozen after all.
    pub thawed: Option<bool>,
}
