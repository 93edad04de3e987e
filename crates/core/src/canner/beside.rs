//! What stands beside a load: jars of something else in the same canner, and filled jars on the bench that wait for it.

use bodega_model::canner::events::{BoilEvent, Phase};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::vocabulary::vocabulary;
use bodega_model::measures::words::counted;
use bodega_model::records::jar::sum_sizes;
use bodega_model::records::load::{AlsoIn, CannerLoad};
use bodega_model::tables::process::Method;

vocabulary! {
    /// Why other jars than before stand in a canner that counts.
    "how", AlsoHow {
        /// They were lifted out under way: the boil stops for it.
        LiftedNow = "lifted_now", "lifted out just now";
        /// They were put in under way: the boil stops for it.
        PutInNow = "put_in_now", "put in just now";
        /// It was said wrongly before; nobody opened the canner.
        SaidWrongly = "said_wrongly", "it was said wrongly before";
    }
}

/// Why a change of what rides along is not written down.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error(
    "the clock counts: say whether they were lifted out or put in just now, which stops the boil for every jar and starts the \
     time again, or whether it was said wrongly before"
)]
pub struct SayHow;

/// What happens to the boil of a load when something else rides along than before: nothing while it does not count, or when it
/// was only said wrongly. A lid that is opened for a jar stops the boil, whoever's jar it is.
///
/// # Errors
/// [`SayHow`] when the clock counts and other jars stand there without a word of how.
pub fn beside_changed(
    load: &CannerLoad,
    also: &[AlsoIn],
    how: Option<AlsoHow>,
    now: Moment,
) -> Result<Option<BoilEvent>, SayHow> {
    let counts = |also: &[AlsoIn]| sum_sizes(also.iter().map(|also| (also.size, also.count)));
    let phase = load.clock.phase(now);
    if !matches!(phase, Phase::Counting { .. } | Phase::Unwatched { .. })
        || counts(&load.also) == counts(also)
    {
        return Ok(None);
    }
    // A closed canner was opened for it, and nobody watched it meanwhile: either is a boil that was lost.
    let in_sight = load.batch.method == Method::BoilingWater && matches!(phase, Phase::Counting { .. });
    let opened = |event| if in_sight { event } else { BoilEvent::BoilLost };
    match how.ok_or(SayHow)? {
        AlsoHow::LiftedNow => Ok(Some(opened(BoilEvent::JarOut))),
        AlsoHow::PutInNow => Ok(Some(opened(BoilEvent::JarAdded))),
        AlsoHow::SaidWrongly => Ok(None),
    }
}

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
            let name = also.name.as_deref().unwrap_or("something else");
            let broken = match also.broken {
                0 => String::new(),
                1 if also.count == 1 => ", broken".to_owned(),
                broken => format!(", {broken} broken"),
            };
            format!("{} {size} of {name} ({} min{broken})", also.count, also.minutes.0)
        })
        .collect();
    let longest = load.clock.required();
    (!also.is_empty()).then(|| {
        format!(
            "Also in it: {}, which Bodega neither approves nor times. All of it stays in for the {}: lifting anything out \
             early stops the boil for the rest.",
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
