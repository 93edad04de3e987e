//! Automatic backups, as the kitchen shows them.

use std::time::Duration;

use actix_web::{get, web};
use bodega_store::{BackupFile, StoreError};

use crate::live::Topic;
use crate::problem::ApiError;
use crate::state::{Shared, off_thread, read};

/// How often the program looks whether a day has begun.
const LOOKS_EVERY: Duration = Duration::from_secs(30 * 60);
/// How soon a backup that failed is tried again.
const TRIES_AGAIN: Duration = Duration::from_secs(60);

/// Backups that are kept, newest first.
#[utoipa::path(responses((status = 200, body = Vec<BackupFile>)))]
#[get("/api/backups")]
pub async fn list_backups(shared: web::Data<Shared>) -> Result<web::Json<Vec<BackupFile>>, ApiError> {
    Ok(web::Json(read(&shared, |shared| shared.store.backups()).await?))
}

fn keep(shared: &Shared) -> Result<(), StoreError> {
    shared.store.keep_backups(&shared.clock.today().to_string(), &shared.clock.week())
}

/// Looks through records that are too long to be looked through before the first answer.
pub async fn look_through(shared: web::Data<Shared>) {
    let inner = shared.clone();
    match off_thread(move || inner.store.look_through()).await {
        Ok(Ok(None)) => {}
        Ok(Ok(Some(what))) => {
            shared.troubles.damaged(what);
            shared.live.changed(Topic::Troubles);
        }
        failed => tracing::error!(?failed, "the records could not be looked through"),
    }
}

/// Keeps a backup of every day and week while the program runs.
pub async fn keep_daily(shared: web::Data<Shared>) {
    let mut kept_on = None;
    loop {
        let today = shared.clock.today();
        if kept_on == Some(today) {
            actix_web::rt::time::sleep(LOOKS_EVERY).await;
            continue;
        }
        let inner = shared.clone();
        let failed = match off_thread(move || keep(&inner)).await {
            Ok(Ok(())) => None,
            Ok(Err(error)) => Some(error.to_string()),
            Err(error) => Some(error.to_string()),
        };
        if let Some(why) = &failed {
            tracing::error!(why, "the daily backup could not be made");
        }
        let wait = if failed.is_some() { TRIES_AGAIN } else { LOOKS_EVERY };
        // Every backup is looked at whenever one is made, and not every half hour.
        kept_on = failed.is_none().then_some(today);
        if shared.troubles.backup_went(failed) {
            shared.live.changed(Topic::Troubles);
        }
        actix_web::rt::time::sleep(wait).await;
    }
}
