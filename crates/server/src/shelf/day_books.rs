//! Where a day's food went, over HTTP.

use actix_web::{get, web};
use bodega_core::ledger::balance::{BalanceVerdict, balance};
use bodega_core::ledger::day::{DayPage, Stop};
use bodega_model::measures::ids::BatchId;
use bodega_model::measures::names::check_day;
use bodega_store::StoreError;
use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::clock::start_of;
use crate::problem::{ApiError, Problem};
use crate::shelf::books::in_grams;
use crate::state::{Shared, read};

/// So much went from one stop of the drawing to another.
#[derive(Debug, Serialize, ToSchema)]
pub struct LinkView {
    /// Place of the stop it came from.
    pub from: usize,
    /// Place of the stop it went to.
    pub to: usize,
    /// Grams.
    pub grams: f64,
    /// How far off that may be either way, in grams.
    pub doubt_g: f64,
}

/// A stop of the drawing.
#[derive(Debug, Serialize, ToSchema)]
pub struct StopView {
    /// What it is, in words.
    pub words: String,
    /// The batch, of a batch.
    pub batch: Option<BatchId>,
}

/// Whether a batch of the day adds up.
#[derive(Debug, Serialize, ToSchema)]
pub struct BatchVerdict {
    /// The batch.
    pub batch: BatchId,
    /// What it is called.
    pub name: String,
    /// Whether it adds up.
    pub verdict: BalanceVerdict,
    /// The same in a sentence.
    pub text: String,
}

/// Where a day's food went.
#[derive(Debug, Serialize, ToSchema)]
pub struct DayBooks {
    /// The day, `YYYY-MM-DD`.
    #[schema(value_type = String, format = Date)]
    pub day: Date,
    /// Stops, those that food comes from first.
    pub stops: Vec<StopView>,
    /// What went where.
    pub links: Vec<LinkView>,
    /// The day's batches.
    pub batches: Vec<BatchVerdict>,
}

fn day_books(shared: &Shared, day: Date) -> Result<DayBooks, StoreError> {
    let (from, before) = (start_of(day), start_of(day.tomorrow().unwrap_or(day)));
    let store = &shared.store;
    let page = DayPage {
        batches: store.batches_of(day)?.into_iter().map(|id| store.page(id)).collect::<Result<_, _>>()?,
        lots: store.lots_between(from, before)?,
        moves: store.moves_between(from, before)?,
    };
    let flow = page.flow();
    let stops = flow.stops();
    let place = |stop: &Stop| stops.iter().position(|one| one == stop).unwrap_or_default();
    let links = flow.links.iter().map(|link| LinkView {
        from: place(&link.from),
        to: place(&link.to),
        grams: in_grams(link.figure.mass),
        doubt_g: in_grams(link.figure.doubt),
    });
    let batches = page.batches.iter().map(|page| {
        let books = balance(&page.made(), &page.book());
        BatchVerdict {
            batch: page.batch.id,
            name: page.batch.words(),
            verdict: books.verdict,
            text: books.text,
        }
    });
    let stop = |stop: &Stop| StopView {
        words: stop.words(),
        batch: if let Stop::Batch(id, _) = stop { Some(*id) } else { None },
    };
    Ok(DayBooks {
        day,
        links: links.collect(),
        batches: batches.collect(),
        stops: stops.iter().map(stop).collect(),
    })
}

/// Where a day's food went: what came in, through its batches, to where it is now.
#[utoipa::path(params(("day" = String, Path, format = Date)),
    responses((status = 200, body = DayBooks), (status = 422, body = Problem)))]
#[get("/api/books/{day}")]
pub async fn get_day_books(
    shared: web::Data<Shared>,
    day: web::Path<Date>,
) -> Result<web::Json<DayBooks>, ApiError> {
    check_day(*day).map_err(|error| ApiError::field("day", error))?;
    Ok(web::Json(read(&shared, move |shared| day_books(shared, *day)).await?))
}
