//! What the judge has to be told before it can tell, as data.

use serde::Serialize;

use crate::measures::ids::BatchId;
use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// Something that the process depends on, in the order of the work.
    "question", Ask {
        /// What the tomatoes became.
        Product = "product", "What did the tomatoes become?";
        /// What whole tomatoes lie in.
        Medium = "medium", "What do the tomatoes lie in: water, juice or no liquid?";
        /// Raw or hot.
        Pack = "pack", "Packed raw or hot?";
        /// What else is in the jars.
        Additions = "additions", "What else goes in: nothing, herbs, vegetables or something else?";
        /// How much of the tomatoes there is.
        Weight = "weight", "How many pounds of tomatoes are the vegetables in?";
        /// What is in the bowls of a recipe.
        Amounts = "amounts", "How much of each part of the recipe is in the bowls?";
        /// The jars.
        Jars = "jars", "Which jars, and how many?";
        /// Which acid.
        Agent = "agent", "Which acid: bottled lemon juice, citric acid or vinegar?";
        /// How much acid.
        Dose = "dose", "How much acid went into each size of jar, or into the pot?";
        /// How the jars are heated.
        Method = "method", "How are the jars heated: boiling water, steam or pressure?";
        /// The height of the kitchen.
        Altitude = "altitude", "How high is the kitchen?";
        /// Minutes.
        Minutes = "minutes", "How many minutes are counted?";
        /// Pounds on the gauge.
        Pounds = "pounds", "How many pounds does the gauge show?";
        /// The card of a load.
        Claims = "claims", "Canning jars, new lids, no nicked rim, filled as asked?";
        /// How much water stood over the lids of a load.
        Water = "water", "How much water stood over the lids while it boiled?";
        /// Other jars in the load.
        OtherJars = "other_jars", "How many minutes do the other jars in the canner need?";
    }
}

impl Ask {
    /// What is missing in a few words, for a label or a list.
    #[must_use]
    pub const fn brief(self) -> &'static str {
        match self {
            Self::Product => "what it is",
            Self::Medium => "what the tomatoes lie in",
            Self::Pack => "raw or hot",
            Self::Additions => "what else went in",
            Self::Weight => "how many pounds of tomatoes",
            Self::Amounts => "how much of each part",
            Self::Jars => "which jars",
            Self::Agent => "which acid",
            Self::Dose => "how much acid",
            Self::Method => "how it was heated",
            Self::Altitude => "the altitude",
            Self::Minutes => "how many minutes",
            Self::Pounds => "how many pounds of pressure",
            Self::Claims => "jars, lids and filling",
            Self::Water => "the water over the lids",
            Self::OtherJars => "the other jars' minutes",
        }
    }
}

/// An open question, in words for a person.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Question {
    /// What it asks for.
    pub ask: Ask,
    /// The question.
    pub says: &'static str,
    /// The batch it is about, when it is about one of the records.
    pub batch: Option<BatchId>,
}
