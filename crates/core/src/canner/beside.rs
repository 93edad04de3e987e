//! What stands beside a load: jars of something else in the same canner, and filled jars on the bench that wait for it.

use crate::measures::moment::{Minutes, Moment};
use crate::measures::words::counted;
use crate::records::load::CannerLoad;

/// How long a filled jar may wait on the bench. Common practice, no source.
pub const MOST_WAIT: Minutes = Minutes(10);

/// What is said of jars that ride along in a load; `None` when none do.
#[must_use]
pub fn rides_along(load: &CannerLoad) -> Option<String> {
    let also: Vec<String> = load
        .also
        .iter()
        .map(|also| {
            let size = if also.count == 1 { also.size.label().to_owned() } else { also.size.plural() };
            format!("{} {size} ({} min)", also.count, also.minutes.0)
        })
        .collect();
    let longest = load.clock.required();
    (!also.is_empty()).then(|| {
        format!(
            "Also in it: {} of something else, which Bodega neither approves nor times. All of it stays in for the {}: \
             lifting anything out early stops the boil for the rest.",
            also.join(", "),
            counted(f64::from(longest.0), "minute")
        )
    })
}

/// From when on the filled jars of a waiting load have waited too long.
#[must_use]
pub fn waits_too_long_from(load: &CannerLoad) -> Option<Moment> {
    let since = load.filled_since.filter(|_| !load.clock.has_begun())?;
    Some(since.plus(MOST_WAIT))
}
