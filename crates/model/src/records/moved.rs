//! Moves of food as they were told: what left a lot, a batch, the refrigerator or the freezer, and where it went.

use serde::Serialize;

use crate::ledger::food::{Food, FoodPlace, Told};
use crate::measures::ids::{BatchId, LotId, MoveId};
use crate::measures::moment::Moment;
use crate::measures::words::counted;
use crate::plan::making::Thickness;
use crate::tables::process::Product;

/// Where it was before.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Source {
    /// A lot that waits on the line.
    Lot(LotId),
    /// A batch, from the sink to the jars.
    Batch(BatchId),
    /// The refrigerator or the freezer, by the move that brought it there.
    Cold(MoveId),
}

/// One move.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Moved {
    /// Number of the record.
    pub id: MoveId,
    /// When.
    pub at: Moment,
    /// The lot it left, if it was one.
    pub from_lot: Option<LotId>,
    /// The batch it left, if it was one.
    pub from_batch: Option<BatchId>,
    /// The move that had brought it into the cold, if it came from there.
    pub from_cold: Option<MoveId>,
    /// What.
    pub food: Food,
    /// Where it went.
    pub place: FoodPlace,
    /// How much, as it was told.
    pub told: Told,
    /// Grams of it.
    pub weight_g: i64,
    /// Packs or jars it was put into, when somebody counted.
    pub packs: Option<u32>,
    /// The lot it became, of what waits for other jars.
    pub to_lot: Option<LotId>,
}

impl Moved {
    /// Where it was before.
    #[must_use]
    pub fn source(&self) -> Option<Source> {
        let lot = self.from_lot.map(Source::Lot);
        lot.or(self.from_batch.map(Source::Batch)).or(self.from_cold.map(Source::Cold))
    }

    /// How much went where: "2 quarts, 3 packs: freezer".
    #[must_use]
    pub fn words(&self) -> String {
        let packs =
            self.packs.map(|packs| format!(", {}", counted(f64::from(packs), "pack"))).unwrap_or_default();
        format!("{}{packs}: {}", self.told.words(), self.place)
    }
}

/// A move to write down.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NewMove {
    /// Where it is.
    pub from: Source,
    /// What.
    pub food: Food,
    /// Where it goes.
    pub place: FoodPlace,
    /// How much, as it was told.
    pub told: Told,
    /// Grams of it.
    pub weight_g: i64,
    /// Packs or jars.
    pub packs: Option<u32>,
}

/// Food in the refrigerator or the freezer, with what is left of it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ColdFood {
    /// The move that brought it there.
    pub id: MoveId,
    /// When.
    pub at: Moment,
    /// What.
    pub food: Food,
    /// Refrigerator or freezer.
    pub place: FoodPlace,
    /// Grams that are left.
    pub left_g: i64,
    /// How much went in, as it was told.
    pub told: Told,
    /// Grams that went in.
    pub weight_g: i64,
    /// Packs that are left, when they were counted.
    pub packs: Option<u32>,
    /// Code of the batch it came from.
    pub code: Option<String>,
    /// What that batch is called; of a recipe, the recipe's name.
    pub named: Option<String>,
    /// What that batch became.
    pub product: Option<Product>,
    /// Of sauce.
    pub thickness: Option<Thickness>,
}

impl ColdFood {
    /// What it is, by its name: "Garden salsa of 260912-3", "thin sauce of 260912-1", "tomatoes".
    #[must_use]
    pub fn words(&self) -> String {
        let Some((code, product)) = self.code.as_ref().zip(self.product) else {
            return self.food.label().to_owned();
        };
        if self.food != Food::Product {
            return format!("{} of {code}", self.food);
        }
        let thickness = self.thickness.map(|thickness| format!("{thickness} ")).unwrap_or_default();
        format!("{thickness}{} of {code}", product.called(self.named.as_deref()))
    }
}
