//! Kinds of jars and lids, and where acid comes from.

use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// What kind of jar it is.
    "kind of jar", JarKind {
        /// Made for home canning, with a two-piece lid.
        Mason = "mason", "canning jar";
        /// Held mayonnaise or the like; thinner glass, takes a two-piece lid.
        Packer = "packer", "mayonnaise-type jar";
        /// Old glass, odd necks, zinc caps.
        Antique = "antique", "antique jar";
        /// Glass lid with a rubber ring and a clip.
        WireBail = "wire_bail", "clip-top jar";
        /// Held any other bought food or drink: sauce, pickles, coffee, milk.
        Other = "other", "food jar or bottle";
    }
}

vocabulary! {
    /// Whether the lid has sealed before.
    "lid", LidState {
        /// Never used.
        New = "new", "new";
        /// Used before.
        Reused = "reused", "used before";
        /// In one piece.
        OnePiece = "one_piece", "in one piece";
        /// Made to be used again, with a rubber ring of its own.
        Reusable = "reusable", "reusable, with a rubber ring";
    }
}

vocabulary! {
    /// Where the lemon juice comes from.
    "source of acid", AcidSource {
        /// Bottled, of standard strength.
        Bottled = "bottled", "bottled";
        /// Pressed from fresh fruit.
        Fresh = "fresh", "fresh";
        /// Bottled juice of limes.
        Lime = "lime", "bottled lime juice";
        /// Vinegar that is weaker than 5 %, or home-made.
        Weak = "weak", "weaker than 5 %, or home-made";
    }
}
