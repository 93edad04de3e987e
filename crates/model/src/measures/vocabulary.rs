//! One list of words per notion: the enum, its wire word, its wording for people and its parser come from one row.
//!
//! It does not decide which words go together; that is each rule's own business.

/// A word that is not in the list.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("unknown {what} \"{given}\"; use one of: {allowed}")]
pub struct UnknownWord {
    /// What kind of word was expected, e.g. `jar`.
    pub what: &'static str,
    /// The word as given.
    pub given: String,
    /// The words that would do, separated by commas.
    pub allowed: String,
}

/// Declares an enum with one wire word and one plain wording per variant.
#[macro_export]
macro_rules! vocabulary {
    (
        $(#[$meta:meta])*
        $what:literal, $name:ident { $( $(#[$vmeta:meta])* $variant:ident = $word:tt, $label:literal; )+ }
    ) => {
        $(#[$meta])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        pub enum $name {
            $( $(#[$vmeta])* #[serde(rename = $word)] $variant, )+
        }

        impl $name {
            /// Every word, in the order of the list.
            pub const ALL: &[Self] = &[ $( Self::$variant, )+ ];

            /// The word used in data files, the API and the database.
            #[must_use]
            pub const fn word(self) -> &'static str {
                match self { $( Self::$variant => $word, )+ }
            }

            /// The wording a person reads.
            #[must_use]
            pub const fn label(self) -> &'static str {
                match self { $( Self::$variant => $label, )+ }
            }
        }

        impl std::fmt::Display for $name {
            fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
                f.write_str(self.label())
            }
        }

        impl std::str::FromStr for $name {
            type Err = $crate::measures::vocabulary::UnknownWord;

            fn from_str(given: &str) -> Result<Self, Self::Err> {
                Self::ALL.iter().copied().find(|item| item.word() == given).ok_or_else(|| {
                    $crate::measures::vocabulary::UnknownWord {
                        what: $what,
                        given: given.to_owned(),
                        allowed: Self::ALL.iter().map(|item| item.word()).collect::<Vec<_>>().join(", "),
                    }
                })
            }
        }

        impl<'de> serde::Deserialize<'de> for $name {
            fn deserialize<D: serde::Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
                struct Word;
                impl serde::de::Visitor<'_> for Word {
                    type Value = $name;
                    fn expecting(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
                        f.write_str(concat!("a word for ", $what))
                    }
                    fn visit_str<E: serde::de::Error>(self, given: &str) -> Result<$name, E> {
                        given.parse().map_err(E::custom)
                    }
                }
                deserializer.deserialize_str(Word)
            }
        }
    };
}
pub use vocabulary;
