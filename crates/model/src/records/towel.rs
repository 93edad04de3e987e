//! Jars on the towel, and those kept cold.

use serde::Serialize;

use crate::jars::size::JarSize;
use crate::judge::standing::JarStanding;
use crate::measures::ids::{BatchId, JarId, LoadId};
use crate::measures::moment::Moment;
use crate::tables::process::Product;
use crate::towel::liquid::LiquidLost;
use crate::towel::seal::{LidVerdict, Rescue};

/// A load that cools on the towel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Towel {
    /// The load.
    pub load_id: LoadId,
    /// Batch code.
    pub code: String,
    /// What is in the jars.
    pub product: Product,
    /// When the jars were lifted.
    pub lifted_at: Moment,
    /// The seals may be checked from here on.
    pub check_from: Moment,
    /// The seals should be checked by then; after it a failed jar is no longer reprocessed.
    pub check_by: Moment,
    /// Jars whose lids were not judged yet, or failed.
    pub jars: Vec<TowelJar>,
}

/// One jar on the towel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TowelJar {
    /// Number of the record.
    pub id: JarId,
    /// Its batch.
    pub batch: BatchId,
    /// Code of its batch.
    pub code: String,
    /// What is in it.
    pub product: Product,
    /// What its batch is called, when it has a name.
    pub named: Option<String>,
    /// Number in its batch.
    pub number: u32,
    /// Size.
    pub size: JarSize,
    /// Liquid that it lost in the canner; `null` when nobody saw any.
    pub liquid_lost: Option<LiquidLost>,
    /// What was found at its lid; `null` while nobody has looked.
    pub verdict: Option<LidVerdict>,
    /// It was judged before the lid could settle, and is looked at a second time from then on.
    pub second_look: Option<Moment>,
    /// When it was judged.
    pub judged_at: Option<Moment>,
    /// What was decided when it failed.
    pub rescue: Option<Rescue>,
    /// When that was decided.
    pub rescued_at: Option<Moment>,
    /// Ring off, washed and dry.
    pub tidy: bool,
    /// Whether its dose of acid is in it.
    pub dosed: bool,
    /// What stands against it.
    pub standing: JarStanding,
}

impl TowelJar {
    /// Whether something stands against it, so that its lid says nothing: its acid is missing, or the judge stops it.
    #[must_use]
    pub fn is_stopped(&self) -> bool {
        !self.dosed || self.standing.is_stopped()
    }

    /// Whether somebody still has to do something about it.
    #[must_use]
    pub fn is_open(&self) -> bool {
        match self.verdict {
            // Broken glass is thrown away with its food; nothing is left to decide.
            Some(LidVerdict::Broken) => false,
            _ if self.is_stopped() => self.rescue.is_none(),
            None => true,
            Some(LidVerdict::Holds) => self.second_look.is_some() || !self.tidy,
            Some(LidVerdict::Failed | LidVerdict::Doubtful) => self.rescue.is_none(),
        }
    }
}

/// A jar that did not seal and is kept cold.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Rescued {
    /// Number of the record.
    pub id: JarId,
    /// Code of its batch.
    pub code: String,
    /// Number in its batch.
    pub number: u32,
    /// What is in it.
    pub product: Product,
    /// Where it is.
    pub rescue: Rescue,
    /// When it was put there.
    pub since: Moment,
    /// Until when it is eaten; `null` in the freezer.
    pub until: Option<Moment>,
    /// The load it came out of.
    pub load: LoadId,
    /// What was found at its lid.
    pub verdict: Option<LidVerdict>,
    /// Whether its dose of acid is in it.
    pub dosed: bool,
}
