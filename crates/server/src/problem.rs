//! Every error a client can see, as RFC 9457 problem details: a stable code, a sentence for a person, and the field.

use std::fmt::Display;

use actix_web::http::StatusCode;
use actix_web::{HttpResponse, ResponseError};
use bodega_core::towel::seal::NoRescue;
use bodega_model::measures::limits::OutOfRange;
use bodega_store::{StoreError, Trouble};
use serde::Serialize;
use utoipa::ToSchema;

/// Problem details (RFC 9457) with our code and field.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Problem {
    /// A stable URI of the kind of problem: `urn:bodega:problem:` and the code.
    pub r#type: String,
    /// The status in words.
    pub title: String,
    /// HTTP status.
    pub status: u16,
    /// What is wrong and what would do.
    pub detail: String,
    /// Stable code.
    pub code: String,
    /// The field it is about, as a path such as `jars[0].count`.
    pub field: Option<String>,
}

/// What the URI of every kind of problem begins with.
const PROBLEMS: &str = "urn:bodega:problem:";

/// An error at the HTTP edge.
#[derive(Debug, thiserror::Error)]
pub enum ApiError {
    /// The body is not JSON.
    #[error("the body is not JSON: {0}")]
    NotJson(String),
    /// A field is missing, of the wrong type, unknown or out of range.
    #[error("{message}")]
    Field {
        /// Path of the field.
        field: String,
        /// What is wrong and what would do.
        message: String,
    },
    /// What was said may be a slip, and is asked about once.
    #[error("{message}")]
    SaySure {
        /// Path of the field.
        field: String,
        /// What it is held against.
        message: String,
    },
    /// The kitchen's altitude is not known, so nothing can be timed.
    #[error(
        "the kitchen's altitude is not known; find it and enter it under Kitchen, every time depends on it"
    )]
    AltitudeMissing,
    /// A recipe that is not canned: no process, or not checked against a copy.
    #[error("{0}")]
    NotCanned(String),
    /// No such address.
    #[error("there is nothing at this address")]
    NoSuchRoute,
    /// An address that does not take the method.
    #[error("this address takes {}", .0.join(" and "))]
    NoSuchMethod(Vec<&'static str>),
    /// Asked for under a name that the server does not go by.
    #[error(
        "Bodega does not go by this name here; open it at the address that it printed when it was started"
    )]
    Misdirected,
    /// A write from another site's page.
    #[error("only a page of this kitchen may change it")]
    OtherSite,
    /// A body that is not said to be what the address takes.
    #[error("send JSON with the content type application/json, or a harvest log with text/csv")]
    NotJsonType,
    /// A device that was not let in.
    #[error("this device is not let in; scan the code in Kitchen on a device that is, or give the passcode")]
    NotLetIn,
    /// A code that does not stand.
    #[error("this code lets nobody in: each does once, for ten minutes; ask for another on a trusted screen")]
    WrongCode,
    /// Not the passcode.
    #[error("this is not the passcode")]
    WrongPasscode,
    /// Somebody who tried too often.
    #[error("too many wrong tries; wait {seconds} s and try again")]
    TooManyTries {
        /// How long, in seconds.
        seconds: u64,
    },
    /// What only the machine that keeps the records may do.
    #[error("this is done at the machine that keeps the records")]
    OnlyHere,
    /// The kitchen is not open to the network.
    #[error("the kitchen is not open to the home network; start it with \"bodega serve --network\"")]
    NoNetwork,
    /// No such device.
    #[error("there is no such device any more")]
    NoSuchDevice,
    /// A body that is larger than its address takes.
    #[error("this is larger than the {most} that are taken here; send less at once")]
    TooLarge {
        /// The most, as a person reads it.
        most: &'static str,
    },
    /// The kitchen waits for a choice about its records.
    #[error("the kitchen is closed, because its records are not whole; open its page and choose")]
    NotOpen,
    /// Work that would have taken longer than anybody waits.
    #[error("{0}")]
    TooLong(String),
    /// The store refused or failed.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// Something that should not happen.
    #[error("{0}")]
    Internal(String),
}

impl ApiError {
    /// An error about one field.
    pub fn field(field: impl Into<String>, message: impl std::fmt::Display) -> Self {
        Self::Field { field: field.into(), message: message.to_string() }
    }

    /// The one mapping from error to status, code and field.
    fn parts(&self) -> (StatusCode, &'static str, Option<String>) {
        match self {
            Self::NotJson(_) => (StatusCode::BAD_REQUEST, "not_json", None),
            Self::Field { field, .. } => (StatusCode::UNPROCESSABLE_ENTITY, "bad_field", Some(field.clone())),
            Self::SaySure { field, .. } => {
                (StatusCode::UNPROCESSABLE_ENTITY, "say_sure", Some(field.clone()))
            }
            Self::AltitudeMissing => {
                (StatusCode::CONFLICT, "altitude_missing", Some("altitude_ft".to_owned()))
            }
            Self::NotCanned(_) => (StatusCode::CONFLICT, "not_canned", None),
            Self::NoSuchRoute => (StatusCode::NOT_FOUND, "no_such_route", None),
            Self::NoSuchMethod(_) => (StatusCode::METHOD_NOT_ALLOWED, "no_such_method", None),
            Self::Misdirected => (StatusCode::MISDIRECTED_REQUEST, "misdirected", Some("Host".to_owned())),
            Self::OtherSite => (StatusCode::FORBIDDEN, "other_site", Some("Origin".to_owned())),
            Self::NotJsonType => {
                (StatusCode::UNSUPPORTED_MEDIA_TYPE, "not_json_type", Some("Content-Type".to_owned()))
            }
            Self::NotLetIn => (StatusCode::UNAUTHORIZED, "not_let_in", None),
            Self::WrongCode => (StatusCode::UNAUTHORIZED, "wrong_code", Some("code".to_owned())),
            Self::WrongPasscode => (StatusCode::UNAUTHORIZED, "wrong_passcode", Some("passcode".to_owned())),
            Self::TooManyTries { .. } => (StatusCode::TOO_MANY_REQUESTS, "too_many_tries", None),
            Self::OnlyHere => (StatusCode::FORBIDDEN, "only_here", None),
            Self::NoNetwork => (StatusCode::CONFLICT, "no_network", None),
            Self::NoSuchDevice => (StatusCode::NOT_FOUND, "no_such_device", Some("id".to_owned())),
            Self::TooLarge { .. } => (StatusCode::PAYLOAD_TOO_LARGE, "too_large", Some("body".to_owned())),
            Self::NotOpen => (StatusCode::SERVICE_UNAVAILABLE, "not_open", None),
            Self::TooLong(_) => (StatusCode::SERVICE_UNAVAILABLE, "too_long", None),
            Self::Internal(_) => (StatusCode::INTERNAL_SERVER_ERROR, "internal", None),
            Self::Store(error) => store_parts(error),
        }
    }

    /// The problem as a client sees it; causes inside the machine stay in the log.
    #[must_use]
    pub fn problem(&self) -> Problem {
        let (status, code, field) = self.parts();
        let detail = if status == StatusCode::INTERNAL_SERVER_ERROR {
            "something went wrong in Bodega itself; nothing was changed, try again".to_owned()
        } else {
            self.to_string()
        };
        Problem {
            r#type: format!("{PROBLEMS}{code}"),
            title: status.canonical_reason().unwrap_or("Error").to_owned(),
            status: status.as_u16(),
            detail,
            code: code.to_owned(),
            field,
        }
    }
}

fn store_parts(error: &StoreError) -> (StatusCode, &'static str, Option<String>) {
    let conflict = |code, field: Option<&str>| (StatusCode::CONFLICT, code, field.map(str::to_owned));
    match error {
        StoreError::NotFound { .. } => (StatusCode::NOT_FOUND, "not_found", Some("id".to_owned())),
        StoreError::Overdrawn { .. } => conflict("lot_overdrawn", Some("weight")),
        StoreError::ColdShort { .. } => conflict("cold_short", Some("told")),
        StoreError::MovedOn => conflict("moved_on", None),
        StoreError::BelowZero => conflict("below_zero", Some("weight")),
        StoreError::NotForJars { .. } => conflict("not_for_jars", Some("lots")),
        StoreError::NotMeasured(not) => {
            let field = format!("said[{}].{}", not.line, not.why.field());
            (StatusCode::UNPROCESSABLE_ENTITY, "not_measured", Some(field))
        }
        StoreError::AcidFirst(_) => conflict("acid_first", Some("step")),
        StoreError::JarsNotReady { .. } => conflict("jars_not_ready", Some("event")),
        StoreError::CannerBusy { .. } => conflict("canner_busy", Some("event")),
        StoreError::OutOfOrder(_) => conflict("out_of_order", Some("event")),
        StoreError::SaidSince { .. } => conflict("said_since", Some("event")),
        StoreError::NothingToUndo => conflict("nothing_to_undo", None),
        StoreError::LidsJudged => conflict("lids_judged", None),
        StoreError::NotTheLast => conflict("not_the_last", None),
        StoreError::BatchBegun { .. } => conflict("batch_begun", None),
        StoreError::BowlsTaken { .. } => conflict("bowls_taken", Some("bowls")),
        StoreError::NotJuice { .. } => conflict("not_juice", Some("chilled")),
        StoreError::OnStove { .. } => conflict("on_stove", Some("chilled")),
        StoreError::NotOnTowel { .. } => conflict("not_on_towel", None),
        StoreError::NotProcessed { .. } => conflict("not_processed", Some("holds")),
        StoreError::NotDosed { .. } => conflict("not_dosed", Some("verdict")),
        StoreError::SayHow(_) => (StatusCode::UNPROCESSABLE_ENTITY, "say_how", Some("how".to_owned())),
        StoreError::Stopped { .. } => conflict("stopped", Some("verdict")),
        StoreError::WhyAltitude => {
            (StatusCode::UNPROCESSABLE_ENTITY, "why_altitude", Some("altitude_reason".to_owned()))
        }
        StoreError::OnBench { .. } => conflict("on_bench", Some("jars")),
        StoreError::PotShort { .. } => conflict("pot_short", Some("jars")),
        StoreError::InRecipe { .. } => conflict("in_recipe", Some("jars")),
        StoreError::NoWaterOver => conflict("no_water_over", Some("water")),
        StoreError::InPot { .. } => conflict("in_pot", Some("jars")),
        StoreError::NoRescue { reason, .. } => match reason {
            NoRescue::NothingWrong => conflict("not_failed", Some("rescue")),
            NoRescue::TooLate => conflict("too_late", Some("rescue")),
            NoRescue::NotPutRight => conflict("not_put_right", Some("rescue")),
            NoRescue::WasItCold { .. } | NoRescue::NotCold { .. } => conflict("kept_cold", Some("kept_cold")),
        },
        StoreError::SecondLook { .. } => conflict("second_look", Some("done")),
        StoreError::ShelfEmpty => conflict("shelf_empty", Some("size")),
        StoreError::AlreadyGone { .. } => conflict("already_gone", Some("jar")),
        StoreError::NotBroken => (StatusCode::NOT_FOUND, "not_broken", Some("field".to_owned())),
        StoreError::NoSuchWord { .. } => {
            (StatusCode::UNPROCESSABLE_ENTITY, "no_such_word", Some("value".to_owned()))
        }
        StoreError::NotEmpty => conflict("not_empty", None),
        StoreError::BadDocument { .. } => {
            (StatusCode::UNPROCESSABLE_ENTITY, "bad_document", Some("records".to_owned()))
        }
        StoreError::NotCounted { .. } => conflict("not_counted", Some("agent")),
        StoreError::KettleBusy => conflict("kettle_busy", Some("kettle")),
        StoreError::LoadBegun => conflict("load_begun", None),
        StoreError::JarFilled { .. } => conflict("jar_filled", Some("count")),
        StoreError::CannerFull => conflict("canner_full", Some("count")),
        StoreError::NoRoom(_) => conflict("no_room", Some("size")),
        StoreError::CannerPlanned { .. } => conflict("canner_planned", Some("method")),
        StoreError::OtherMethod => conflict("other_method", Some("canner")),
        StoreError::NotTogether => conflict("not_together", None),
        StoreError::WhichJar => conflict("which_jar", Some("jar")),
        StoreError::NameTaken { .. } => conflict("name_taken", Some("name")),
        StoreError::InUse { .. } => conflict("in_use", None),
        StoreError::StillWhole { .. } => conflict("still_whole", None),
        StoreError::FileExists { .. } => conflict("file_exists", None),
        StoreError::BadBackup { .. } | StoreError::NotWhole { .. } | StoreError::NoRecords { .. } => {
            (StatusCode::SERVICE_UNAVAILABLE, "records_not_whole", None)
        }
        StoreError::Directory { .. } | StoreError::Sqlite(_) => disk_parts(error),
        StoreError::Newer | StoreError::Migration(_) | StoreError::Damaged(_) | StoreError::NotTaken(_) => {
            (StatusCode::INTERNAL_SERVER_ERROR, "records", None)
        }
    }
}

/// What the disk does is no fault of the program or of who asks.
fn disk_parts(error: &StoreError) -> (StatusCode, &'static str, Option<String>) {
    match error.trouble() {
        Some(Trouble::Full) => (StatusCode::INSUFFICIENT_STORAGE, "disk_full", None),
        Some(Trouble::ReadOnly) => (StatusCode::SERVICE_UNAVAILABLE, "disk_read_only", None),
        Some(Trouble::NotAllowed) => (StatusCode::SERVICE_UNAVAILABLE, "disk_not_allowed", None),
        Some(Trouble::Fails) => (StatusCode::SERVICE_UNAVAILABLE, "disk_fails", None),
        Some(Trouble::Damaged) => (StatusCode::SERVICE_UNAVAILABLE, "records_damaged", None),
        Some(Trouble::Held) => (StatusCode::SERVICE_UNAVAILABLE, "records_held", None),
        None => (StatusCode::INTERNAL_SERVER_ERROR, "records", None),
    }
}

impl ResponseError for ApiError {
    fn status_code(&self) -> StatusCode {
        self.parts().0
    }

    fn error_response(&self) -> HttpResponse {
        let problem = self.problem();
        if problem.status >= 500 {
            tracing::error!(error = ?self, "request failed");
        }
        let mut response = HttpResponse::build(self.status_code());
        if let Self::NoSuchMethod(methods) = self {
            response.insert_header(("Allow", methods.join(", ")));
        }
        if let Self::TooManyTries { seconds } = self {
            response.insert_header(("Retry-After", seconds.to_string()));
        }
        response.content_type("application/problem+json").json(problem)
    }
}

/// Names the field of a value outside its limit.
pub trait NameField<T> {
    /// Turns the error into one about `field`, which is written only then.
    ///
    /// # Errors
    /// [`ApiError::Field`].
    fn named(self, field: impl Display) -> Result<T, ApiError>;
}

impl<T> NameField<T> for Result<T, OutOfRange> {
    fn named(self, field: impl Display) -> Result<T, ApiError> {
        self.map_err(|error| ApiError::field(field.to_string(), error))
    }
}
