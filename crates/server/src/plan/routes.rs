//! Planning a batch over HTTP: the answer before the work starts, and accepting it.

use actix_web::{post, web};
use bodega_core::plan::judged::judge_plan;
use bodega_model::measures::units::grams;
use bodega_model::records::batch::{Batch, Draw, NewBatch};

use crate::created::Created;
use crate::json::Json;
use crate::live::Topic;
use crate::plan::ground::ground;
use crate::plan::view::{PlanPreview, PlanRequest};
use crate::problem::{ApiError, Problem};
use crate::state::{Shared, change, off_thread};

/// Works a wish out without keeping it.
#[utoipa::path(request_body = PlanRequest,
    responses((status = 200, body = PlanPreview), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/plan")]
pub async fn preview_plan(
    shared: web::Data<Shared>,
    Json(request): Json<PlanRequest>,
) -> Result<web::Json<PlanPreview>, ApiError> {
    let ground = ground(&shared, &request).await?;
    let (altitude_ft, year) = (ground.altitude.feet(), shared.clock.today().year());
    // Many jars of many sizes are put together into loads.
    let preview = off_thread(move || {
        Ok::<_, ApiError>(match ground.work_out()? {
            Ok(plan) => {
                let weight = grams(ground.lots.iter().map(|lot| lot.left_g).sum());
                let additions = request.additions.as_ref();
                let judged = judge_plan(
                    &plan,
                    &ground.wish,
                    ground.bottle_age_months,
                    additions,
                    weight,
                    (&ground.kitchen.canner, year),
                );
                PlanPreview {
                    altitude_ft,
                    plan: Some(ground.answer(plan)),
                    refusal: None,
                    judged: Some(judged),
                }
            }
            Err(refusal) => PlanPreview { altitude_ft, plan: None, refusal: Some(refusal), judged: None },
        })
    });
    Ok(web::Json(preview.await??))
}

/// Accepts a plan: the fruit is drawn, the jars and loads are set out.
#[utoipa::path(request_body = PlanRequest,
    responses((status = 201, body = Batch), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/batches")]
pub async fn accept_plan(
    shared: web::Data<Shared>,
    Json(request): Json<PlanRequest>,
) -> Result<Created<Batch>, ApiError> {
    let ground = ground(&shared, &request).await?;
    let (ground, plan) = off_thread(move || {
        let plan = ground.work_out()?.map_err(|refusal| ApiError::field("jar", refusal.message))?;
        Ok::<_, ApiError>((ground, plan))
    })
    .await??;
    let loads = plan.new_loads();
    if loads.is_empty() {
        return Err(ApiError::field("jars", "the plan fills no jar; take more fruit or a smaller jar"));
    }
    let batch = NewBatch {
        day: shared.clock.today(),
        name: None,
        recipe: None,
        product: request.product,
        medium: request.medium,
        pack: request.pack,
        thickness: request.thickness,
        method: ground.wish.method,
        agent: request.agent,
        salt: request.salt,
        rest: request.rest,
        additions: request.additions,
        altitude_ft: ground.altitude.feet(),
        draws: ground.lots.iter().map(|lot| Draw { lot: lot.id, weight_g: lot.left_g }).collect(),
        loads,
        canner: ground.kitchen.canner.id,
    };
    let body =
        change(&shared, Topic::Everything, move |shared| shared.store.add_batch(&batch, shared.clock.now()))
            .await?;
    Ok(Created { at: format!("/api/batches/{}", body.id), body })
}
