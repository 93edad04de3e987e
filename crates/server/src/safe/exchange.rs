//! Open formats: everything as JSON, jars and batches as CSV, dates as iCalendar, a batch's procedure as schema.org
//! JSON-LD. `docs/formats.md` describes them.

use std::io::Write;

use actix_web::{HttpResponse, get, post, web};
use bodega_core::plan::checklist::{Sheet, steps};
use bodega_core::towel::seal::BEST_MONTHS;
use bodega_model::judge::standing::JarStanding;
use bodega_model::ledger::keep::cold_keeps;
use bodega_model::measures::ids::BatchId;
use bodega_model::measures::moment::Moment;
use bodega_model::measures::units::grams;
use bodega_model::measures::words::{capital, counted};
use bodega_model::records::batch::{Batch, Liking};
use bodega_model::records::jar::JarRecord;
use bodega_model::records::kitchen::Kitchen;
use bodega_model::records::lot::Lot;
use bodega_model::records::moved::ColdFood;
use bodega_model::records::shelf::{ShelfGroup, ShelfSearch};
use bodega_model::records::towel::{Rescued, Towel};
use bodega_model::shelf::leaving::{Discard, Leaving};
use bodega_model::tables::process::{Medium, Pack, Product};
use bodega_model::towel::seal::{LidVerdict, Rescue};
use bodega_store::{Store, StoreError};
use futures_util::StreamExt;
use icalendar::{Calendar, Component, Event};
use jiff::civil::Date;
use serde::Serialize;
use serde_json::{Value, json};
use tempfile::NamedTempFile;
use uom::si::mass::kilogram;
use utoipa::ToSchema;

use crate::clock::{day_after_months, day_of, timestamp};
use crate::live::Topic;
use crate::plan::batches::sheet;
use crate::problem::{ApiError, Problem};
use crate::safe::streamed;
use crate::state::{Shared, change, read};

/// Everything as one JSON document.
#[utoipa::path(responses((status = 200, content_type = "application/json")))]
#[get("/api/export.json")]
pub async fn export_all(shared: web::Data<Shared>) -> HttpResponse {
    let kind = ("application/json", "bodega.json");
    streamed::file(&shared, kind, |shared, mut to| shared.store.export_to(&mut to))
}

/// What was taken in.
#[derive(Debug, Serialize, ToSchema)]
pub struct Taken {
    /// Lots.
    pub lots: usize,
    /// Batches.
    pub batches: u32,
}

/// The largest document, in bytes.
const DOCUMENT_MOST: u64 = 4 << 30;
/// The same, as a person reads it.
const DOCUMENT_MOST_SAID: &str = "4 GB";

/// Writes a body to a file as it comes, whatever its size.
async fn arrive(shared: &web::Data<Shared>, mut body: web::Payload) -> Result<NamedTempFile, ApiError> {
    let mut file = read(shared, |shared| shared.store.arriving_file()).await?;
    let mut arrived = 0_u64;
    while let Some(piece) = body.next().await {
        let piece = piece.map_err(|error| ApiError::NotJson(error.to_string()))?;
        arrived += piece.len() as u64;
        if arrived > DOCUMENT_MOST {
            return Err(ApiError::TooLarge { most: DOCUMENT_MOST_SAID });
        }
        file = read(shared, move |_| {
            file.write_all(&piece).map_err(|cause| StoreError::Directory { cause })?;
            Ok(file)
        })
        .await?;
    }
    Ok(file)
}

/// Takes a document into an empty kitchen, all or nothing; every fault is listed.
#[utoipa::path(request_body(content = Object, content_type = "application/json"),
    responses((status = 200, body = Taken), (status = 409, body = Problem), (status = 413, body = Problem),
        (status = 422, body = Problem)))]
#[post("/api/import.json")]
pub async fn import_all(shared: web::Data<Shared>, body: web::Payload) -> Result<web::Json<Taken>, ApiError> {
    let mut document = arrive(&shared, body).await?;
    let taken = change(&shared, Topic::Everything, move |shared| {
        shared.store.import(document.as_file_mut())?;
        Ok(Taken { lots: shared.store.lots()?.len(), batches: shared.store.batch_count()? })
    });
    Ok(web::Json(taken.await?))
}

fn file(kind: &str, name: &str, body: String) -> HttpResponse {
    HttpResponse::Ok()
        .content_type(format!("{kind}; charset=utf-8"))
        .insert_header(("Content-Disposition", format!("attachment; filename=\"{name}\"")))
        .body(body)
}

fn json_file(kind: &str, name: &str, document: &Value) -> Result<HttpResponse, ApiError> {
    let text =
        serde_json::to_string_pretty(document).map_err(|error| ApiError::Internal(error.to_string()))?;
    Ok(file(kind, name, text))
}

#[derive(Serialize)]
struct JarLine {
    batch: String,
    jar: u32,
    product: Product,
    medium: Option<Medium>,
    pack: Pack,
    size: &'static str,
    acid: &'static str,
    lifted_on: Option<Date>,
    lid: Option<LidVerdict>,
    kept: Option<Rescue>,
    left_on: Option<Date>,
    left: Option<Leaving>,
    why: Option<Discard>,
    name: Option<String>,
    standing: Option<String>,
}

impl From<(JarRecord, Option<String>)> for JarLine {
    fn from((jar, standing): (JarRecord, Option<String>)) -> Self {
        Self {
            batch: jar.code,
            jar: jar.number,
            product: jar.product,
            medium: jar.medium,
            pack: jar.pack,
            size: jar.size.word(),
            acid: jar.agent.word(),
            lifted_on: jar.lifted_at.map(day_of),
            lid: jar.verdict,
            kept: jar.rescue,
            left_on: jar.gone_at.map(day_of),
            left: jar.gone_how,
            why: jar.gone_why,
            name: jar.named,
            standing,
        }
    }
}

/// Every jar as CSV, those at home with what stands against them.
#[utoipa::path(responses((status = 200, content_type = "text/csv")))]
#[get("/api/jars.csv")]
pub async fn export_jars(shared: web::Data<Shared>) -> HttpResponse {
    streamed::csv_file::<_, JarLine>(&shared, "jars.csv", |shared, tell| {
        let at_home = shared.store.standings()?;
        shared.store.all_jars(|jar| {
            let standing = at_home.at_home(jar.id).filter(|_| jar.stands());
            let standing = standing.map(JarStanding::in_a_line);
            tell((jar, standing))
        })
    })
}

#[derive(Serialize)]
struct BatchLine {
    batch: String,
    product: Product,
    medium: Option<Medium>,
    pack: Pack,
    thickness: Option<&'static str>,
    /// Empty, as the next two, when nothing of it is canned.
    method: Option<&'static str>,
    acid: Option<&'static str>,
    altitude_ft: Option<f64>,
    fruit_kg: f64,
    jars: u32,
    jars_lifted: u32,
    name: Option<String>,
    note: Option<String>,
    liked: Option<&'static str>,
}

impl From<Batch> for BatchLine {
    fn from(batch: Batch) -> Self {
        let is_canned = !batch.is_cold();
        Self {
            batch: batch.code,
            product: batch.product,
            medium: batch.medium,
            pack: batch.pack,
            thickness: batch.thickness.map(bodega_model::plan::making::Thickness::word),
            method: is_canned.then(|| batch.method.word()),
            acid: is_canned.then(|| batch.agent.word()),
            altitude_ft: is_canned.then_some(batch.altitude_ft),
            fruit_kg: grams(batch.weight_g).get::<kilogram>(),
            jars: batch.jars,
            jars_lifted: batch.jars_lifted,
            name: batch.name,
            note: batch.note,
            liked: batch.liked.map(Liking::word),
        }
    }
}

/// Every batch as CSV, newest first.
#[utoipa::path(responses((status = 200, content_type = "text/csv")))]
#[get("/api/batches.csv")]
pub async fn export_batches(shared: web::Data<Shared>) -> HttpResponse {
    streamed::csv_file::<_, BatchLine>(&shared, "batches.csv", |shared, tell| shared.store.all_batches(tell))
}

/// A moment as iCalendar writes it, in UTC.
fn utc(moment: Moment) -> String {
    timestamp(moment).strftime("%Y%m%dT%H%M%SZ").to_string()
}

/// An event over a span of time.
fn timed(uid: &str, summary: &str, stamp: &str, span: (Moment, Moment)) -> Event {
    let mut event = Event::new();
    event.uid(uid).summary(summary).add_property("DTSTAMP", stamp);
    event.add_property("DTSTART", utc(span.0)).add_property("DTEND", utc(span.1));
    event.done()
}

/// An event of a whole day, `YYYY-MM-DD`.
fn all_day(uid: &str, summary: &str, stamp: &str, day: Date) -> Event {
    let mut start = icalendar::Property::new("DTSTART", day.strftime("%Y%m%d").to_string());
    start.add_parameter("VALUE", "DATE");
    let mut event = Event::new();
    event.uid(uid).summary(summary).add_property("DTSTAMP", stamp).append_property(start.done());
    event.done()
}

fn calendar_file(name: &str, events: impl IntoIterator<Item = Event>) -> HttpResponse {
    let mut calendar = Calendar::new();
    calendar.name("Bodega");
    calendar.extend(events);
    file("text/calendar", name, calendar.done().to_string())
}

/// Something with a time of its own, for a calendar.
pub(crate) struct Meeting {
    /// Lasting name.
    pub uid: String,
    /// What it is.
    pub summary: String,
    /// From when to when.
    pub span: (Moment, Moment),
}

/// A calendar file of such things.
pub(crate) fn calendar_of(meetings: &[Meeting], now: Moment) -> HttpResponse {
    let stamp = utc(now);
    let events = meetings.iter().map(|meeting| timed(&meeting.uid, &meeting.summary, &stamp, meeting.span));
    calendar_file("day.ics", events)
}

struct Dates {
    towel: Vec<Towel>,
    lots: Vec<Lot>,
    cold: Vec<Rescued>,
    food: Vec<ColdFood>,
    shelf: Vec<ShelfGroup>,
}

fn dates(store: &Store) -> Result<Dates, StoreError> {
    Ok(Dates {
        towel: store.towel()?,
        lots: store.lots()?,
        cold: store.rescued()?,
        food: store.cold_food()?,
        shelf: store.shelf(&ShelfSearch::default())?,
    })
}

fn events(dates: &Dates, now: Moment) -> Vec<Event> {
    let stamp = utc(now);
    let mut calendar = Vec::new();
    for load in &dates.towel {
        let summary =
            format!("Check the lids: batch {}, {}", load.code, counted(load.jars.len() as f64, "jar"));
        let uid = format!("lids-{}@bodega", load.load_id);
        calendar.push(timed(&uid, &summary, &stamp, (load.check_from, load.check_by)));
    }
    for lot in &dates.lots {
        if let Some(day) = &lot.back_on {
            let summary = format!("Look at the {} tomatoes on the sill", lot.kind.label());
            calendar.push(all_day(&format!("sill-{}@bodega", lot.id), &summary, &stamp, *day));
        }
    }
    for jar in &dates.cold {
        if let Some(until) = jar.until {
            let summary = format!("Eat jar {} of batch {} from the refrigerator", jar.number, jar.code);
            calendar.push(all_day(&format!("cold-{}@bodega", jar.id), &summary, &stamp, day_of(until)));
        }
    }
    for food in &dates.food {
        let Some(wait) = cold_keeps(food.food, food.place, food.at) else { continue };
        if let Some(day) = wait.day.or_else(|| wait.moment.map(day_of)) {
            let summary = format!("{}: {} from the {}", capital(&food.words()), wait.what, food.place);
            calendar.push(all_day(&format!("food-{}@bodega", food.id), &summary, &stamp, day));
        }
    }
    for group in &dates.shelf {
        let what = group.product.called(group.named.as_deref());
        let summary = format!("Best before: {what} of batch {}", group.code);
        let uid = format!("best-{}-{}@bodega", group.code, group.size.word());
        calendar.push(all_day(&uid, &summary, &stamp, day_after_months(group.canned_at, BEST_MONTHS)));
    }
    calendar
}

/// Seal checks, days to look at held fruit, until when food in the cold keeps, and best-before days as iCalendar.
#[utoipa::path(responses((status = 200, content_type = "text/calendar")))]
#[get("/api/calendar.ics")]
pub async fn export_calendar(shared: web::Data<Shared>) -> Result<HttpResponse, ApiError> {
    let events = read(&shared, |shared| Ok(events(&dates(&shared.store)?, shared.clock.now()))).await?;
    Ok(calendar_file("bodega.ics", events))
}

fn recipe(
    batch: &Batch,
    fruit: &[(Lot, i64)],
    sheet: &Sheet,
    kitchen: &Kitchen,
    made_on: Option<Date>,
) -> Value {
    let steps: Vec<Value> = steps(sheet)
        .iter()
        .map(|step| json!({"@type": "HowToStep", "name": step.station.label(), "text": step.text}))
        .collect();
    // "tomatoes", or "thin juice" and whatever else it was made of.
    let mut what: Vec<&str> = fruit.iter().map(|(lot, _)| lot.food.label()).collect();
    what.dedup();
    let what = what.join(" and ");
    let fruit_kg = grams(batch.weight_g).get::<kilogram>();
    let jars: Vec<String> =
        sheet.jars.iter().map(|(jar, count)| format!("{count} x {}", jar.word())).collect();
    let (name, ingredients) = match &sheet.recipe {
        Some(recipe) => (batch.name.as_ref().unwrap_or(&recipe.name).as_str(), recipe.parts.clone()),
        None => (
            batch.product.label(),
            vec![
                format!("{fruit_kg:.2} kg {what}"),
                format!("{}, per jar as in the steps", batch.agent.label()),
            ],
        ),
    };
    json!({
        "@context": "https://schema.org",
        "@type": "Recipe",
        "name": format!("{name}, batch {}", batch.code),
        "isBasedOn": sheet.recipe.as_ref().map(|recipe| &recipe.source),
        "author": {"@type": "Organization", "name": kitchen.name},
        "dateCreated": made_on,
        "recipeYield": jars,
        "recipeIngredient": ingredients,
        "recipeInstructions": steps,
        "keywords": "home canning",
    })
}

/// The procedure of a batch as schema.org Recipe, JSON-LD.
#[utoipa::path(params(("id" = i64, Path)),
    responses((status = 200, content_type = "application/ld+json"), (status = 404, body = Problem)))]
#[get("/api/batches/{id}/recipe.jsonld")]
pub async fn export_recipe(
    shared: web::Data<Shared>,
    id: web::Path<BatchId>,
) -> Result<HttpResponse, ApiError> {
    let document = read(&shared, move |shared| {
        let batch = shared.store.batch(*id)?;
        let made_on = shared.store.batch_jars(*id)?.iter().filter_map(|jar| jar.lifted_at).min().map(day_of);
        let fruit = shared.store.batch_lots(*id)?;
        Ok(recipe(&batch, &fruit, &sheet(&shared.store, &batch)?, &shared.store.kitchen()?, made_on))
    });
    json_file("application/ld+json", "recipe.jsonld", &document.await?)
}
