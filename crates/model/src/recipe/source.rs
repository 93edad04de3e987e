//! Who printed a recipe.

use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// Who printed a recipe.
    "source of a recipe", SourceKind {
        /// A national guide or a university extension, their web pages too.
        Guide = "guide", "a national guide or a university extension";
        /// A publisher's canning book of 1994 or later, a maker's packet or leaflet.
        Maker = "maker", "a canning book of 1994 or later, or a maker's packet or leaflet";
        /// An older or self-published book, any other web page, a video, a friend, family.
        Other = "other", "an older book, any other page, a video, a friend, family";
    }
}
