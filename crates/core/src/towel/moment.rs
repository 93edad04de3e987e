//! What the towel's screen says of a load: what keeps its jars off the shelf first, else what is to be done with their lids.
//!
//! Time goes by without a word from the server, so that all of it is said at once: each saying with the moment from which it
//! holds, up to the day after which a failed jar is not processed again.

use bodega_model::measures::ids::JarId;
use bodega_model::measures::moment::Moment;
use bodega_model::records::towel::{Towel, TowelJar};
use bodega_model::towel::seal::LidVerdict;
use serde::Serialize;

use super::ways_out::{Alarm, WaysOut};

/// The figure of a load on the towel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "shows", rename_all = "snake_case")]
pub enum TowelFigure {
    /// A word or two.
    Word {
        /// The words.
        word: &'static str,
    },
    /// The clock time at which something is to be done.
    Clock {
        /// That time.
        at: Moment,
    },
}

/// What the towel says of a load from a moment on.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TowelSaid {
    /// From when on it holds, until the next one does.
    pub from: Moment,
    /// The figure.
    pub figure: TowelFigure,
    /// What stands beside the figure.
    pub unit: Option<String>,
    /// The words; `{at}` and `{day}` stand for the clock time and the day of `at`, `{left}` for what is left until the next saying.
    pub words: String,
    /// A moment in the words.
    pub at: Option<Moment>,
    /// Whether it keeps the jars off the shelf.
    pub bad: bool,
}

/// What is known of one lid.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LidSaid {
    /// The jar.
    pub jar: JarId,
    /// In words: "not checked", "not for the shelf: garlic in it".
    pub words: String,
    /// What stands against the jar in a word, so that its lid says nothing; `null` when nothing does.
    pub stop: Option<&'static str>,
}

/// The lids of a load by what is to be done with them.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Lids {
    /// Each, in the order of the jars.
    pub each: Vec<LidSaid>,
    /// Still to be looked at, or to be looked at a second time.
    pub open: Vec<JarId>,
    /// Sealed, and nothing stands against the jar.
    pub sealed: Vec<JarId>,
    /// The words on the touch that says the open ones hold; `null` while none may be said to.
    pub hold: Option<String>,
}

fn lid(jar: &TowelJar) -> LidSaid {
    let (words, stop) = match (jar.dosed, jar.standing.brief(), jar.verdict) {
        (false, ..) => ("without its acid".to_owned(), Some("no acid")),
        (true, Some(stops), _) => (format!("not for the shelf: {stops}"), Some("stop")),
        (true, None, Some(verdict)) => (verdict.label().to_owned(), None),
        (true, None, None) => ("not checked".to_owned(), None),
    };
    LidSaid { jar: jar.id, words, stop }
}

/// The lids of a load; `processed` is whether every jar of it had its full time.
#[must_use]
pub fn lids(towel: &Towel, processed: bool) -> Lids {
    let good = || towel.jars.iter().filter(|jar| !jar.is_stopped());
    let open: Vec<JarId> =
        good().filter(|jar| jar.verdict.is_none() || jar.second_look.is_some()).map(|jar| jar.id).collect();
    let is_sealed = |jar: &&TowelJar| jar.verdict == Some(LidVerdict::Holds) && jar.second_look.is_none();
    let sealed = good().filter(is_sealed).map(|jar| jar.id).collect();
    let who = if open.len() == towel.jars.len() { "All" } else { "These" };
    let hold = (processed && !open.is_empty()).then(|| format!("{who} {} hold", open.len()));
    Lids { each: towel.jars.iter().map(lid).collect(), open, sealed, hold }
}

/// How a lid is looked at.
const LOOK: &str = "Ring off, press the middle, lift by the lid's edge.";

/// What the towel says of a load, in the order of time; the first holds from the moment it was lifted. Source of the hours: USDA
/// Guide 1, from memory.
#[must_use]
pub fn sayings(towel: &Towel, alarm: Option<&Alarm>, ways_out: &[WaysOut], lids: &Lids) -> Vec<TowelSaid> {
    let word = |word: &'static str, unit: Option<String>, words: &str| TowelSaid {
        from: towel.lifted_at,
        figure: TowelFigure::Word { word },
        unit,
        words: words.to_owned(),
        at: None,
        bad: false,
    };
    if let Some(alarm) = alarm {
        return vec![TowelSaid { bad: true, ..word(alarm.figure, Some(alarm.unit.clone()), &alarm.words) }];
    }
    if lids.open.is_empty() {
        let unit = Some(format!("{} sealed", lids.sealed.len()));
        return vec![if ways_out.is_empty() {
            word("Wash", unit, "Rings off, jars washed and dried, then their labels.")
        } else {
            word("Decide", unit, "Something has to be done with the jars that did not seal.")
        }];
    }
    let again =
        towel.jars.iter().filter(|jar| lids.open.contains(&jar.id)).all(|jar| jar.second_look.is_some());
    let check_from = TowelFigure::Clock { at: towel.check_from };
    let alone = if again {
        let words = "Judged early: a lid may still let go. Look a second time from {at}.";
        TowelSaid {
            figure: check_from,
            at: Some(towel.check_from),
            ..word("", Some("look again".to_owned()), words)
        }
    } else {
        let words = "Leave them alone for {left} more. Lifted at {at}.";
        TowelSaid {
            figure: check_from,
            at: Some(towel.lifted_at),
            ..word("", Some("check the lids".to_owned()), words)
        }
    };
    let now = TowelSaid {
        from: towel.check_from,
        at: Some(towel.check_by),
        ..word("Check now", None, &format!("{LOOK} A failed jar can be done again until {{at}} on {{day}}."))
    };
    let late = TowelSaid {
        from: Moment(towel.check_by.0 + 1),
        ..word(
            "Check now",
            None,
            &format!(
                "{LOOK} The jars came out more than 24 hours ago: one that failed is not processed again, and is eaten or frozen only \
                 if it was kept cold all that time; else discard it without tasting."
            ),
        )
    };
    vec![alone, now, late]
}
