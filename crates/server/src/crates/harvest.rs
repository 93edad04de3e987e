//! The harvest log as CSV, out and in. Columns: `picked_on` (YYYY-MM-DD), `kind`, `condition`, `fault`, `back_on`,
//! `state` (fresh or frozen), `weight_kg`. Nothing is imported by half: every bad line is named, and nothing is kept.

use actix_web::{HttpResponse, get, post, web};
use bodega_model::crates::fruit::{Condition, Fault, Kind};
use bodega_model::ledger::food::Food;
use bodega_model::measures::limits::WEIGHT;
use bodega_model::measures::names::check_day;
use bodega_model::measures::units::grams;
use bodega_model::records::lot::{Lot, NewLot};
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use uom::si::mass::kilogram;
use utoipa::ToSchema;

use crate::json::not_read;
use crate::live::Topic;
use crate::problem::{ApiError, Problem};
use crate::safe::streamed::csv_file;
use crate::state::{Shared, change, off_thread};

const G_PER_KG: f64 = 1000.0;
/// The largest harvest log, in bytes.
const LOG_MOST: usize = 16 * 1024 * 1024;
/// The same, as a person reads it.
const LOG_MOST_SAID: &str = "16 MB";
/// Bad lines named in one answer.
const MOST_FAULTS: usize = 20;

#[derive(Debug, Serialize, Deserialize)]
struct Line {
    picked_on: Date,
    kind: Kind,
    condition: Condition,
    fault: Option<Fault>,
    back_on: Option<Date>,
    state: State,
    weight_kg: f64,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
enum State {
    Fresh,
    Frozen,
}

impl From<Lot> for Line {
    fn from(lot: Lot) -> Self {
        Self {
            picked_on: lot.picked_on,
            kind: lot.kind,
            condition: lot.condition,
            fault: lot.fault,
            back_on: lot.back_on,
            state: if lot.frozen { State::Frozen } else { State::Fresh },
            weight_kg: grams(lot.weight_g).get::<kilogram>(),
        }
    }
}

impl Line {
    fn checked(self, today: Date) -> Result<NewLot, String> {
        if self.picked_on > today {
            return Err(format!("picked_on {} has not come yet", self.picked_on));
        }
        for day in std::iter::once(self.picked_on).chain(self.back_on) {
            check_day(day).map_err(|error| error.to_string())?;
        }
        let kg = WEIGHT.check(self.weight_kg).map_err(|error| error.to_string())?;
        if self.fault.is_some() && self.condition != Condition::Out {
            return Err("a fault goes with condition out".to_owned());
        }
        #[allow(clippy::cast_possible_truncation)] // limited to 5,000 kg
        let weight_g = (kg * G_PER_KG).round() as i64;
        Ok(NewLot {
            food: Food::Fruit,
            told: None,
            picked_on: self.picked_on,
            kind: self.kind,
            condition: self.condition,
            fault: self.fault,
            back_on: self.back_on,
            frozen: self.state == State::Frozen,
            weight_g,
        })
    }
}

/// How many lots came in.
#[derive(Debug, Serialize, ToSchema)]
pub struct Imported {
    /// Lots.
    pub lots: usize,
}

/// The harvest log, used up lots too, oldest first.
#[utoipa::path(responses((status = 200, description = "text/csv")))]
#[get("/api/harvest.csv")]
pub async fn export_harvest(shared: web::Data<Shared>) -> HttpResponse {
    csv_file::<_, Line>(&shared, "harvest.csv", |shared, tell| shared.store.harvest(tell))
}

/// Every line as a lot, or every fault with its line.
fn parse(bytes: &[u8], today: Date) -> Result<Vec<NewLot>, ApiError> {
    let mut reader = csv::ReaderBuilder::new().trim(csv::Trim::All).from_reader(bytes);
    let mut lots = Vec::new();
    let mut faults = Vec::new();
    for (place, row) in reader.deserialize::<Line>().enumerate() {
        // Line 1 is the header.
        let line = place + 2;
        match row.map_err(|error| reason(&error)).and_then(|row| row.checked(today)) {
            Ok(lot) => lots.push(lot),
            Err(fault) => faults.push(format!("line {line}: {fault}")),
        }
    }
    if !faults.is_empty() {
        let more = faults.len().saturating_sub(MOST_FAULTS);
        faults.truncate(MOST_FAULTS);
        if more > 0 {
            faults.push(format!("and {more} more"));
        }
        return Err(ApiError::field("body", format!("nothing was imported; {}", faults.join("; "))));
    }
    if lots.is_empty() {
        return Err(ApiError::field("body", "there are no lines under the header"));
    }
    Ok(lots)
}

/// What the reader says, without its own line count.
fn reason(error: &csv::Error) -> String {
    match error.kind() {
        csv::ErrorKind::Deserialize { err, .. } => err.to_string(),
        _ => error.to_string(),
    }
}

/// Adds lots from a harvest log, all of them or none.
#[utoipa::path(request_body(content = String, content_type = "text/csv"),
    responses((status = 200, body = Imported), (status = 413, body = Problem), (status = 422, body = Problem)))]
#[post("/api/harvest.csv")]
pub async fn import_harvest(
    shared: web::Data<Shared>,
    body: web::Payload,
) -> Result<web::Json<Imported>, ApiError> {
    let arrived = body.to_bytes_limited(LOG_MOST).await;
    let body =
        arrived.map_err(|_| ApiError::TooLarge { most: LOG_MOST_SAID })?.map_err(|error| not_read(&error))?;
    let today = shared.clock.today();
    let lots = off_thread(move || parse(&body, today)).await??;
    let added =
        change(&shared, Topic::Everything, move |shared| shared.store.add_lots(&lots, shared.clock.now()))
            .await?;
    Ok(web::Json(Imported { lots: added.len() }))
}
