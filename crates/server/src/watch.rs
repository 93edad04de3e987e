//! Keeps the kitchen's clock beside the wall's, and from one run of the program to the next.

use std::time::Duration;

use actix_web::web;
use bodega_store::{Store, StoreError};

use crate::clock::{Clock, Reading, SLACK_MS};
use crate::live::Topic;
use crate::state::{Shared, off_thread};

/// How often the two clocks are compared.
const LOOKS_EVERY: Duration = Duration::from_secs(1);
/// How often the clock is kept while a canner is on, in looks.
const KEEPS_EVERY: u32 = 10;

/// Which run of the machine this is. Where the system does not say, each start of the program counts as one.
fn run_of_machine() -> String {
    let told = std::fs::read_to_string("/proc/sys/kernel/random/boot_id");
    told.map_or_else(|_| format!("unknown since {}", Reading::now().wall), |id| id.trim().to_owned())
}

/// The clock of a program that starts. After a restart of the machine the loads that counted are marked: nobody timed them.
/// What cannot be read or written stands in the log and is tried again at the next start; the kitchen opens all the same.
#[must_use]
pub fn wake(store: &Store) -> Clock {
    let run = run_of_machine();
    let kept = store.kept_clock().unwrap_or_else(|error| {
        tracing::error!(%error, "the kept clock could not be read");
        None
    });
    let clock = Clock::resumed(kept.as_ref(), &run, Reading::now());
    let went_on = kept.as_ref().is_some_and(|kept| kept.run == run);
    let seen = kept.map(|kept| kept.seen);
    let marked = if went_on { Ok(Vec::new()) } else { store.mark_unwatched(seen, clock.now()) };
    let woken = marked.and_then(|marked| {
        if !marked.is_empty() {
            tracing::warn!(loads = marked.len(), "the machine was off while a canner counted");
        }
        store.keep_clock(&clock.to_keep(&run))
    });
    if let Err(error) = woken {
        tracing::error!(%error, "whether a canner counted while the machine was off could not be written down");
    }
    clock
}

/// Tries whether a disk that refused to write does so again.
async fn try_disk(shared: &web::Data<Shared>, run: &str) {
    let (inner, run) = (shared.clone(), run.to_owned());
    if let Ok(Ok(())) = off_thread(move || inner.store.keep_clock(&inner.clock.to_keep(&run))).await {
        shared.troubles.disk_is_well();
        shared.live.changed(Topic::Everything);
    }
}

/// Compares the kitchen's clock with the wall's as long as the program runs, and keeps it while a canner is on. A step is
/// taken over at once when no canner counts, else when the count is over; until then the line says so.
pub async fn watch(shared: web::Data<Shared>) {
    let run = run_of_machine();
    let mut noted: Option<i64> = None;
    for look in 1_u32.. {
        actix_web::rt::time::sleep(LOOKS_EVERY).await;
        let step = shared.clock.stepped();
        let keeps = shared.clock.follows_the_wall() && look.is_multiple_of(KEEPS_EVERY);
        if shared.troubles.has_disk() {
            try_disk(&shared, &run).await;
        }
        if step.is_none() && !keeps {
            noted = None;
            continue;
        }
        // A step stands until it is taken over, and is written down once.
        let is_new = step.is_some_and(|step| noted.is_none_or(|noted| (step - noted).abs() > SLACK_MS));
        noted = step;
        let (inner, run) = (shared.clone(), run.clone());
        let looked = off_thread(move || -> Result<bool, StoreError> {
            let counts = inner.store.open_loads()?.iter().any(|load| load.clock.has_begun());
            if counts && is_new {
                inner.store.note_clock_set(inner.clock.now())?;
            }
            match step {
                Some(step) if !counts => {
                    inner.clock.take_over(step);
                    inner.store.keep_clock(&inner.clock.to_keep(&run))?;
                    Ok(true)
                }
                _ if counts => inner.store.keep_clock(&inner.clock.to_keep(&run)).map(|()| false),
                _ => Ok(false),
            }
        });
        match looked.await {
            Ok(Ok(true)) => {
                tracing::warn!(?step, "the machine's clock was set; the kitchen's follows");
                shared.live.changed(Topic::Everything);
            }
            Ok(Ok(false)) => {}
            failed => tracing::error!(?failed, "the clock could not be kept"),
        }
    }
}
