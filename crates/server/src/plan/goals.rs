//! What the shelf asks for, over HTTP.

use actix_web::{get, put, web};
use bodega_model::measures::limits::{JAR_COUNT, PREFERENCE};
use bodega_model::records::shelf::Goal;
use bodega_model::tables::process::{Product, check_medium};

use crate::json::Json;
use crate::live::Topic;
use crate::plan::ground::check_plain;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, change, read};

/// What the shelf asks for.
#[utoipa::path(responses((status = 200, body = Vec<Goal>)))]
#[get("/api/goals")]
pub async fn get_goals(shared: web::Data<Shared>) -> Result<web::Json<Vec<Goal>>, ApiError> {
    Ok(web::Json(read(&shared, |shared| shared.store.goals()).await?))
}

/// Checks one goal; `field` is where it stands.
pub(crate) fn check_goal(goal: &Goal, field: &str) -> Result<(), ApiError> {
    check_plain(goal.product, &format!("{field}.product"))?;
    check_medium(goal.product, goal.medium)
        .map_err(|error| ApiError::field(format!("{field}.medium"), error))?;
    if (goal.product == Product::Sauce) != goal.thickness.is_some() {
        return Err(ApiError::field(
            format!("{field}.thickness"),
            "thickness goes with sauce, and only with sauce: thin or thick",
        ));
    }
    JAR_COUNT.check(f64::from(goal.count)).named(format_args!("{field}.count"))?;
    PREFERENCE.check(f64::from(goal.preference)).named(format_args!("{field}.preference"))?;
    Ok(())
}

/// Replaces what the shelf asks for.
#[utoipa::path(request_body = Vec<Goal>, responses((status = 200, body = Vec<Goal>), (status = 422, body = Problem)))]
#[put("/api/goals")]
pub async fn set_goals(
    shared: web::Data<Shared>,
    Json(goals): Json<Vec<Goal>>,
) -> Result<web::Json<Vec<Goal>>, ApiError> {
    for (place, goal) in goals.iter().enumerate() {
        check_goal(goal, &format!("[{place}]"))?;
    }
    let kept = change(&shared, Topic::Goals, move |shared| {
        shared.store.set_goals(&goals)?;
        shared.store.goals()
    });
    Ok(web::Json(kept.await?))
}
