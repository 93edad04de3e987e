//! Like jars, and the fillings of a canner that hold them.

use bodega_model::jars::size::JarSize;
use bodega_model::measures::moment::Minutes;

/// Like jars that need the same time.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Group {
    /// Size of jar.
    pub jar: JarSize,
    /// Tested time.
    pub minutes: Minutes,
    /// How many.
    pub count: u32,
}

/// One filling of the canner.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Load {
    /// Index into the groups asked about, and how many of it go in.
    pub jars: Vec<(usize, u32)>,
    /// The longest time among the jars.
    pub minutes: Minutes,
}

/// Loads with the time they take together and the time no grouping can beat.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct LoadPlan {
    /// Longest first.
    pub loads: Vec<Load>,
    /// Sum of the loads' minutes and one turnaround for each.
    pub total: Minutes,
    /// Proven: no grouping takes less. Equal to `total` when the plan is proven shortest.
    pub lower_bound: Minutes,
}
