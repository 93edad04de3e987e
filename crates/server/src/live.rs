//! Live events: every open screen hears what changed, and asks again for that alone.

use tokio::sync::broadcast;

/// Changes a slow screen may fall behind before it is simply told to ask everything again.
const BACKLOG: usize = 64;

/// What a change was about.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Topic {
    /// Anything may be different now.
    Everything,
    /// A reading of a probe in a canner.
    Probe,
    /// A line in a kettle's log that moves no food.
    Reading,
    /// A step on the bench.
    Bench,
    /// Something seen or done at a canner.
    Canner,
    /// Lids, rings and what becomes of jars on the towel.
    Towel,
    /// Jars that leave the shelf or come back.
    Shelf,
    /// A block of the day.
    Day,
    /// A line of a batch's checklist.
    Checklist,
    /// A reading of pH.
    Ph,
    /// What stands in the cupboard.
    Stock,
    /// What the shelf asks for.
    Goals,
    /// Devices of the home network.
    Network,
    /// What the disk refuses.
    Troubles,
}

impl Topic {
    /// The addresses under `/api/`, by their first word, whose answers may be different now; `None` for all of them. A
    /// test changes each thing and looks at every answer.
    #[must_use]
    pub const fn stale(self) -> Option<&'static [&'static str]> {
        Some(match self {
            Self::Everything => return None,
            Self::Probe => &["batches", "counter", "loads", "wash_up"],
            Self::Reading => &["batches", "books", "cooks", "counter", "day", "kettles"],
            // What is said of a pot reaches jars that are out already.
            Self::Bench => &[
                "batches", "cold", "counter", "day", "jars", "labels", "loads", "pantry", "plan", "shelf",
                "towel", "wash_up",
            ],
            Self::Canner => &[
                "batches", "books", "cold", "cooks", "counter", "day", "jars", "kettles", "labels", "loads",
                "pantry", "plan", "recipes", "shelf", "towel", "wash_up",
            ],
            Self::Towel => &[
                "batches", "books", "cold", "counter", "day", "jars", "labels", "loads", "pantry", "plan",
                "shelf", "towel", "wash_up",
            ],
            Self::Shelf => &[
                "batches", "books", "cold", "counter", "jars", "labels", "loads", "pantry", "plan", "shelf",
                "towel", "wash_up",
            ],
            Self::Day => &["counter", "day"],
            Self::Checklist => &["batches"],
            Self::Ph => &[
                "batches", "cold", "counter", "jars", "labels", "loads", "pantry", "ph_bench", "plan",
                "recipes", "shelf", "towel", "wash_up",
            ],
            Self::Stock => &["plan", "recipes", "stock"],
            Self::Goals => &["goals", "plan"],
            Self::Network => &["network"],
            Self::Troubles => &["counter"],
        })
    }
}

/// Tells every open screen about a change.
pub struct Live {
    sender: broadcast::Sender<Topic>,
}

impl Default for Live {
    fn default() -> Self {
        Self { sender: broadcast::channel(BACKLOG).0 }
    }
}

impl Live {
    /// Says that something changed.
    pub fn changed(&self, topic: Topic) {
        // No receiver means no screen is open.
        let _ = self.sender.send(topic);
    }

    /// Hears of every change from now on.
    #[must_use]
    pub fn listen(&self) -> broadcast::Receiver<Topic> {
        self.sender.subscribe()
    }
}
