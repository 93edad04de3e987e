//! What came in from the garden: kinds of tomato, their condition, and the containers people count them in.

use crate::measures::units::{BUSHEL_LB, Mass, pounds};
use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// Kind of tomato; decides what the fruit is good for.
    "kind", Kind {
        /// Mostly wall, little juice: sauce, paste, whole.
        Paste = "paste", "paste";
        /// Mostly water: good juice, slow sauce.
        Slicer = "slicer", "slicer";
        /// Small and juicy: juice.
        Cherry = "cherry", "cherry";
        /// More than one kind in the crate.
        Mixed = "mixed", "mixed";
        /// Tomatillos, which are no tomatoes: they go into recipes that have them.
        Tomatillo = "tomatillo", "tomatillo";
    }
}

impl Kind {
    /// Those that are tomatoes.
    pub const TOMATOES: [Self; 4] = [Self::Paste, Self::Slicer, Self::Cherry, Self::Mixed];
}

/// The kind of fruit from several crates: theirs when it is the same, else mixed; `None` of nothing. Tomatillos among others
/// make it theirs, so that nobody cans them as tomatoes.
#[must_use]
pub fn common_kind(kinds: impl IntoIterator<Item = Kind>) -> Option<Kind> {
    kinds.into_iter().reduce(|one, other| match (one, other) {
        (Kind::Tomatillo, _) | (_, Kind::Tomatillo) => Kind::Tomatillo,
        (one, other) if one == other => one,
        _ => Kind::Mixed,
    })
}

vocabulary! {
    /// Condition at sorting; decides whether the lot may go on to jars.
    "condition", Condition {
        /// Firm and ripe: goes on.
        FirmRipe = "firm_ripe", "firm and ripe";
        /// Small blemishes that are cut out after peeling: goes on.
        Trim = "trim", "needs trimming";
        /// Not ripe yet: held on a sill.
        Unripe = "unripe", "not ripe yet";
        /// Soft, mouldy, badly bruised or from a dead vine: not for jars.
        Out = "out", "not for jars";
    }
}

vocabulary! {
    /// Why fruit is not for jars.
    "fault", Fault {
        /// Soft, past its best.
        Overripe = "overripe", "overripe";
        /// Mould.
        Mouldy = "mouldy", "mouldy";
        /// Badly bruised.
        Bruised = "bruised", "bruised";
        /// Picked from a dead or frost-killed vine.
        DeadVine = "dead_vine", "dead vine";
        /// Picked from a vine with blight.
        Blight = "blight", "blighted vine";
    }
}

/// Days on a sill until fruit that is not ripe is looked at again. Common practice, no source.
pub const SILL_DAYS: i64 = 5;

impl Condition {
    /// Whether fruit in this condition may be canned now.
    ///
    /// Soft, mouldy or badly bruised fruit and fruit from frost-killed vines is not canned, because its acidity falls.
    /// Source: USDA Guide 3, from memory.
    #[must_use]
    pub const fn can_be_canned(self) -> bool {
        match self {
            Self::FirmRipe | Self::Trim => true,
            Self::Unripe | Self::Out => false,
        }
    }
}

/// A measure of volume that people count tomatoes in, with its weight of fruit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct KnownContainer {
    /// Name as people say it.
    pub name: &'static str,
    /// Pounds of tomatoes in one of them.
    pub pounds: f64,
}

impl KnownContainer {
    /// Weight of fruit in one container.
    #[must_use]
    pub fn weight(self) -> Mass {
        pounds(self.pounds)
    }
}

/// Containers whose weight is known without teaching. The bushel is published (USDA Guide 3, from memory) and its
/// fractions follow from it; the bucket is common practice, no source.
pub const KNOWN_CONTAINERS: &[KnownContainer] = &[
    KnownContainer { name: "bushel", pounds: BUSHEL_LB },
    KnownContainer { name: "half bushel", pounds: BUSHEL_LB / 2.0 },
    KnownContainer { name: "peck", pounds: BUSHEL_LB / 4.0 },
    KnownContainer { name: "five-gallon bucket", pounds: 15.0 },
];

#[cfg(test)]
mod tests {
    use super::{Kind, common_kind};

    #[test]
    fn tomatillos_are_never_lost_among_tomatoes() {
        assert_eq!(common_kind([]), None);
        assert_eq!(common_kind([Kind::Paste, Kind::Paste]), Some(Kind::Paste));
        assert_eq!(common_kind([Kind::Paste, Kind::Slicer]), Some(Kind::Mixed));
        assert_eq!(common_kind([Kind::Paste, Kind::Tomatillo, Kind::Paste]), Some(Kind::Tomatillo));
    }
}
