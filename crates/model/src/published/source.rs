//! Where a figure comes from, so that every answer can open to its source.

use serde::Serialize;

/// A published source, or the plain statement that there is none.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Source {
    /// Title and edition, or "Common practice, no source".
    pub title: String,
    /// True when the figure was recalled from memory of the source and not checked against a copy.
    pub from_memory: bool,
}

impl Source {
    /// USDA *Complete Guide to Home Canning*, 2015 revision, Guide 3; recalled from memory.
    #[must_use]
    pub fn usda_guide_3() -> Self {
        Self::recalled("USDA Complete Guide to Home Canning (AIB 539), 2015 revision, Guide 3")
    }

    /// USDA *Complete Guide to Home Canning*, 2015 revision, Guide 1 (principles); recalled from memory.
    #[must_use]
    pub fn usda_guide_1() -> Self {
        Self::recalled("USDA Complete Guide to Home Canning (AIB 539), 2015 revision, Guide 1")
    }

    /// National Center for Home Food Preservation, tomato paste; recalled from memory.
    #[must_use]
    pub fn nchfp() -> Self {
        Self::recalled("National Center for Home Food Preservation, tomato paste")
    }

    /// 21 CFR 114, acidified foods; recalled from memory.
    #[must_use]
    pub fn cfr_114() -> Self {
        Self::recalled("21 CFR 114, acidified foods")
    }

    /// University extension guidance on atmospheric steam canners, 2015; recalled from memory.
    #[must_use]
    pub fn steam_guidance() -> Self {
        Self::recalled("University extension guidance on atmospheric steam canning, 2015")
    }

    /// Bodega's own reckoning, checked against others' in its documents.
    #[must_use]
    pub fn own_model() -> Self {
        Self { title: "Bodega's own model, checked against other reckonings".to_owned(), from_memory: false }
    }

    /// What people in the trade do, with nothing published behind it.
    #[must_use]
    pub fn common_practice() -> Self {
        Self { title: "Common practice, no source".to_owned(), from_memory: false }
    }

    /// The copy of its source that a recipe was held against, line by line.
    #[must_use]
    pub fn copy_of_recipe() -> Self {
        Self {
            title: "The recipe's own page, held against a copy by the household".to_owned(),
            from_memory: false,
        }
    }

    /// A published source whose figures were recalled from memory.
    #[must_use]
    pub fn recalled(title: &str) -> Self {
        Self { title: title.to_owned(), from_memory: true }
    }
}
