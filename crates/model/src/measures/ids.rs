//! Numbers of records, each of a type of its own, so that a jar cannot be passed for a load.

macro_rules! ids {
    ($( $(#[$meta:meta])* $name:ident; )+) => { $(
        $(#[$meta])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize, serde::Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(transparent)]
        pub struct $name(pub i64);

        impl std::fmt::Display for $name {
            fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
                self.0.fmt(f)
            }
        }
    )+ };
}

ids! {
    /// Number of a lot.
    LotId;
    /// Number of a batch.
    BatchId;
    /// Number of a canner load.
    LoadId;
    /// Number of a jar.
    JarId;
    /// Number of a canner.
    CannerId;
    /// Number of a kettle.
    KettleId;
    /// Number of a cook-down.
    CookId;
    /// Number of a part of a batch that went elsewhere.
    MoveId;
    /// Number of a taught container.
    ContainerId;
    /// Number of a recipe.
    RecipeId;
    /// Number of the bowls of a recipe that is being made.
    BowlsId;
    /// Number of a reading at the pH bench.
    BenchPhId;
}
