//! Live events: every open screen hears that something changed and asks again.

use tokio::sync::broadcast;

/// Changes a slow screen may fall behind before it is simply told to ask again.
const BACKLOG: usize = 16;

/// Tells every open screen about a change.
pub struct Live {
    pub(crate) sender: broadcast::Sender<()>,
}

impl Default for Live {
    fn default() -> Self {
        Self { sender: broadcast::channel(BACKLOG).0 }
    }
}

impl Live {
    /// Says that records changed.
    pub fn changed(&self) {
        // No receiver means no screen is open.
        let _ = self.sender.send(());
    }
}
