//! A batch by a recipe as it is begun: with jars for the canner, or for the refrigerator, the freezer and the table.

use bodega_core::recipe::bowls::empty;
use bodega_core::recipe::page::parts_of;
use bodega_model::ledger::food::Food;
use bodega_model::measures::ids::{BowlsId, LotId, RecipeId};
use bodega_model::recipe::acids::agent_of;
use bodega_model::recipe::part::Part;
use bodega_model::recipe::per_jar::acid_doses;
use bodega_model::recipe::process::RecipeProcess;
use bodega_model::records::batch::{ByRecipe, Draw, NewBatch, NewLoad, SetOut};
use bodega_model::records::canner::Canner;
use bodega_model::records::lot::Lot;
use bodega_model::records::recipe::{BatchRecipe, RecipeText};
use bodega_model::tables::process::{Pack, Product};
use jiff::civil::Date;

use crate::plan::ground::waiting_lots;
use crate::problem::ApiError;

/// Lots of fruit: of what is milled or cooked, no recipe is made.
pub(crate) fn fruit(all: &[Lot], wanted: &[LotId]) -> Result<Vec<Lot>, ApiError> {
    if wanted.is_empty() {
        return Ok(Vec::new());
    }
    let lots = waiting_lots(all, wanted)?;
    match lots.iter().position(|lot| !matches!(lot.food, Food::Fruit | Food::Bits)) {
        Some(place) => {
            let words =
                format!("{} is not fruit any more; a recipe begins with raw tomatoes", lots[place].words());
            Err(ApiError::field(format!("lots[{place}]"), words))
        }
        None => Ok(lots),
    }
}

/// What a batch by a recipe begins with.
pub(crate) struct Begin<'a> {
    pub(crate) id: RecipeId,
    pub(crate) text: &'a RecipeText,
    /// The process that its jars get; none when nothing of it is canned.
    pub(crate) process: Option<RecipeProcess>,
    pub(crate) canner: &'a Canner,
    pub(crate) altitude_ft: f64,
    pub(crate) draws: Vec<Draw>,
    pub(crate) loads: Vec<NewLoad>,
    pub(crate) factor: f64,
    /// The recipe's parts, so many times.
    pub(crate) scaled: &'a [Part],
    /// Bowls that stand out already.
    pub(crate) bowls: Option<BowlsId>,
}

impl Begin<'_> {
    pub(crate) fn batch(self, day: Date) -> NewBatch {
        let parts = parts_of(self.text);
        let name = self.text.name.trim().to_owned();
        NewBatch {
            day,
            name: Some(name.clone()),
            product: Product::Recipe,
            medium: None,
            pack: self.process.as_ref().map_or(Pack::Hot, |process| process.pack),
            thickness: None,
            method: self.canner.method,
            agent: agent_of(&parts),
            salt: false,
            rest: None,
            additions: Some(Vec::new()),
            altitude_ft: self.altitude_ft,
            draws: self.draws,
            loads: self.loads,
            canner: self.canner.id,
            recipe: Some(ByRecipe {
                recipe: BatchRecipe {
                    recipe: self.id,
                    name,
                    source: self.text.source(),
                    makes: self.text.makes,
                    process: self.process,
                    doses: acid_doses(&parts),
                },
                bowls: match self.bowls {
                    Some(bowls) => SetOut::There(bowls),
                    None => SetOut::New { factor: self.factor, empty: empty(self.scaled), base: parts },
                },
            }),
        }
    }
}
