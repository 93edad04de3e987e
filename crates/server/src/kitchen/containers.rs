//! Containers that the household counts in, over HTTP.

use actix_web::{delete, get, post, web};
use bodega_model::crates::fruit::KNOWN_CONTAINERS;
use bodega_model::measures::ids::ContainerId;
use bodega_model::records::kitchen::Container;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::created::Created;
use crate::json::Json;
use crate::live::Topic;
use crate::named::clean_name;
use crate::problem::{ApiError, Problem};
use crate::state::{Shared, change, read};
use crate::weight::{Weight, grams};

/// A container whose weight is known without teaching.
#[derive(Debug, Serialize, ToSchema)]
pub struct Known {
    /// Name as people say it.
    pub name: &'static str,
    /// Kilograms of tomatoes in one.
    pub weight_kg: f64,
}

/// Containers to count in.
#[derive(Debug, Serialize, ToSchema)]
pub struct Containers {
    /// Known measures.
    pub known: Vec<Known>,
    /// Taught by the household.
    pub taught: Vec<Container>,
}

/// Teaching a container: its name and the weight of one.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ContainerRequest {
    /// Name, 1 to 80 letters.
    pub name: String,
    /// Weight of tomatoes in one.
    pub weight: Weight,
}

/// Containers to count in.
#[utoipa::path(responses((status = 200, body = Containers)))]
#[get("/api/containers")]
pub async fn list_containers(shared: web::Data<Shared>) -> Result<web::Json<Containers>, ApiError> {
    let taught = read(&shared, |shared| shared.store.containers()).await?;
    let known = KNOWN_CONTAINERS
        .iter()
        .map(|known| Known { name: known.name, weight_kg: known.weight().get::<uom::si::mass::kilogram>() })
        .collect();
    Ok(web::Json(Containers { known, taught }))
}

/// Teaches a container.
#[utoipa::path(request_body = ContainerRequest,
    responses((status = 201, body = Container), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/containers")]
pub async fn add_container(
    shared: web::Data<Shared>,
    Json(request): Json<ContainerRequest>,
) -> Result<Created<Container>, ApiError> {
    let name = clean_name(&request.name, "name")?;
    if KNOWN_CONTAINERS.iter().any(|known| known.name == name) {
        return Err(ApiError::field("name", format!("\"{name}\" is known already; give yours another name")));
    }
    let weight_g = grams(request.weight, "weight")?;
    let body =
        change(&shared, Topic::Everything, move |shared| shared.store.add_container(&name, weight_g)).await?;
    Ok(Created { at: format!("/api/containers/{}", body.id), body })
}

/// Forgets a container.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = Container), (status = 404, body = Problem)))]
#[delete("/api/containers/{id}")]
pub async fn remove_container(
    shared: web::Data<Shared>,
    id: web::Path<ContainerId>,
) -> Result<web::Json<Container>, ApiError> {
    Ok(web::Json(change(&shared, Topic::Everything, move |shared| shared.store.remove_container(*id)).await?))
}

/// One taught container.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = Container), (status = 404, body = Problem)))]
#[get("/api/containers/{id}")]
pub async fn get_container(
    shared: web::Data<Shared>,
    id: web::Path<ContainerId>,
) -> Result<web::Json<Container>, ApiError> {
    Ok(web::Json(read(&shared, move |shared| shared.store.container(*id)).await?))
}
