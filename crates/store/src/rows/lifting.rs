//! When a load came out of its canner: once, whatever its history says.

/// The event that lifted a load, for the `load_event` of a query: the first, because out is out.
macro_rules! lifting {
    () => {
        "load_event.event = 'lifted' AND load_event.undone_at IS NULL AND NOT EXISTS (
            SELECT 1 FROM load_event AS before WHERE before.load_id = load_event.load_id
            AND before.event = 'lifted' AND before.undone_at IS NULL AND before.id < load_event.id)"
    };
}

pub(crate) use lifting;
