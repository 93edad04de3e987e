//! Labels over HTTP.

use actix_web::{HttpRequest, HttpResponse, get, web};
use bodega_core::judge::recipe_page::brings_its_acid;
use bodega_core::shelf::label_sheet::{Paper, Shape, Sheet};
use bodega_model::judge::standing::JarStanding;
use bodega_model::measures::ids::JarId;
use bodega_model::measures::limits::{LABEL_GAP, LABEL_SIDE, LABEL_START};
use bodega_model::measures::units::millimetres;
use bodega_model::records::kitchen::Kitchen;
use bodega_store::StoreError;
use serde::Deserialize;
use uom::si::length::millimeter;
use utoipa::IntoParams;

use crate::problem::{ApiError, NameField, Problem};
use crate::shelf::label_drawing::{Drawing, Labelled, MARGIN_MM, Placed, label, rectangle, round, variety};
use crate::shelf::label_pdf::pdf;
use crate::shelf::label_svg::LabelPages;
use crate::state::{Shared, off_thread, read};

/// What to print.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct LabelQuery {
    /// Numbers of the jars' records, separated by commas.
    pub jars: String,
    /// Outline.
    pub shape: Shape,
    /// Paper.
    pub paper: Paper,
    /// Width in millimetres, 25 to 150; the diameter of a round one.
    pub width_mm: f64,
    /// Height in millimetres, 25 to 150; of a round one the same as its width.
    pub height_mm: Option<f64>,
    /// From one label to the next in millimetres, 0 to 30.
    #[serde(default)]
    pub gap_mm: f64,
    /// Position of the first label on a part-used sheet, from 1 by rows.
    pub start: Option<u32>,
}

/// Labels that are drawn at once; a sheet holds twenty or so.
const MOST_LABELS: usize = 400;

/// Pages of a question, drawn.
pub(crate) async fn drawn(
    shared: &web::Data<Shared>,
    query: &LabelQuery,
    host: &str,
) -> Result<Drawing, ApiError> {
    let width = LABEL_SIDE.check(query.width_mm).named("width_mm")?;
    let height = match query.shape {
        Shape::Round => width,
        Shape::Rectangle => LABEL_SIDE.check(query.height_mm.unwrap_or(width)).named("height_mm")?,
    };
    let start = LABEL_START.check(f64::from(query.start.unwrap_or(1))).named("start")?;
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // checked just above
    let start = start as usize;
    let sheet = Sheet {
        paper: query.paper,
        width: millimetres(width),
        height: millimetres(height),
        gap: millimetres(LABEL_GAP.check(query.gap_mm).named("gap_mm")?),
        margin: millimetres(MARGIN_MM),
    };
    let many = query.jars.split(',').count();
    if many > MOST_LABELS {
        let words = format!(
            "{many} labels are more than the {MOST_LABELS} that are drawn at once; ask for them in parts"
        );
        return Err(ApiError::field("jars", words));
    }
    let ids = query
        .jars
        .split(',')
        .map(|id| id.trim().parse().map(JarId))
        .collect::<Result<Vec<_>, _>>()
        .map_err(|_| ApiError::field("jars", "give the jars' numbers, separated by commas"))?;
    let (kitchen, jars) = read(shared, move |shared| {
        let at_home = shared.store.standings()?;
        let with_contents = |id: &JarId| {
            let jar = shared.store.jar(*id)?;
            let lots = shared.store.batch_lots(jar.batch)?;
            let variety = variety(lots.iter().map(|(lot, _)| lot));
            let batch = shared.store.batch(jar.batch)?;
            let standing = if jar.stands() { at_home.of(jar.id) } else { JarStanding::CLEAR };
            let bowls = batch.bowls.map(|bowls| shared.store.any_bowls(bowls)).transpose()?;
            let brings_its_acid = bowls.is_some_and(|bowls| brings_its_acid(&bowls.base));
            Ok(Labelled { standing, batch, variety, brings_its_acid, jar })
        };
        let jars = ids.iter().map(with_contents).collect::<Result<Vec<_>, StoreError>>()?;
        Ok((shared.store.kitchen()?, jars))
    })
    .await?;
    let (query, host) = (query.clone(), host.to_owned());
    off_thread(move || draw(&sheet, &query, &kitchen, &jars, start, &host)).await?
}

/// Draws the labels, which takes its time.
fn draw(
    sheet: &Sheet,
    query: &LabelQuery,
    kitchen: &Kitchen,
    jars: &[Labelled],
    start: usize,
    host: &str,
) -> Result<Drawing, ApiError> {
    let (width, height) = (sheet.width.get::<millimeter>(), sheet.height.get::<millimeter>());
    let (columns, rows) = sheet.grid().map_err(|error| ApiError::field("width_mm", error))?;
    let spots = sheet.spots(jars.len(), start).map_err(|error| ApiError::field("width_mm", error))?;
    let mut pages: Vec<Vec<Placed>> = Vec::new();
    for (one, spot) in jars.iter().zip(spots) {
        let label = label(one, kitchen, host)?;
        let marks = match query.shape {
            Shape::Round => round(label, width),
            Shape::Rectangle => rectangle(label, width, height),
        };
        if pages.len() <= spot.page {
            pages.push(Vec::new());
        }
        if let Some(page) = pages.last_mut() {
            page.push((spot, marks));
        }
    }
    let (wide, high) = query.paper.size();
    Ok(Drawing { pages, columns, rows, paper: (wide.get::<millimeter>(), high.get::<millimeter>()) })
}

/// The address that a label carries: the one that other devices reach, else the one that is asked.
pub(crate) fn host(shared: &Shared, request: &HttpRequest) -> String {
    if let Some(reach) = &shared.network.reach {
        return reach.url.clone();
    }
    let connection = request.connection_info();
    format!("{}://{}", connection.scheme(), connection.host())
}

/// Labels of some jars, one SVG for each page.
#[utoipa::path(params(LabelQuery),
    responses((status = 200, body = LabelPages), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/labels")]
pub async fn get_labels(
    shared: web::Data<Shared>,
    request: HttpRequest,
    query: web::Query<LabelQuery>,
) -> Result<web::Json<LabelPages>, ApiError> {
    let drawing = drawn(&shared, &query, &host(&shared, &request)).await?;
    Ok(web::Json(off_thread(move || LabelPages::of(&drawing)).await?))
}

/// The same labels as one PDF, to the millimetre.
#[utoipa::path(params(LabelQuery),
    responses((status = 200, content_type = "application/pdf"), (status = 404, body = Problem),
        (status = 422, body = Problem)))]
#[get("/api/labels.pdf")]
pub async fn get_labels_pdf(
    shared: web::Data<Shared>,
    request: HttpRequest,
    query: web::Query<LabelQuery>,
) -> Result<HttpResponse, ApiError> {
    let drawing = drawn(&shared, &query, &host(&shared, &request)).await?;
    let bytes = off_thread(move || pdf(&drawing)).await?.map_err(ApiError::Internal)?;
    Ok(HttpResponse::Ok()
        .content_type("application/pdf")
        // A browser draws it with a viewer of its own, which a page's policy would forbid.
        .insert_header(("Content-Security-Policy", "frame-ancestors 'none'"))
        .insert_header(("Content-Disposition", "inline; filename=\"labels.pdf\""))
        .body(bytes))
}
