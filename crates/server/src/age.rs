//! How old a touch is that a page kept while it found nobody: the page's own steady clock measured it, so that no clock of
//! a phone has to be right.

use std::future::{Ready, ready};

use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpRequest};
use bodega_model::measures::moment::{Moment, Touched};

use crate::clock::Clock;
use crate::problem::ApiError;

/// Name of the header: milliseconds from the touch to when it was sent.
pub const HEADER: &str = "bodega-age-ms";
/// What is older than a day is not taken: whoever touched it has looked at the stove since.
const OLDEST_MS: i64 = 24 * 60 * 60 * 1000;

/// The age of a touch in milliseconds; none for one that was sent at once.
#[derive(Debug, Clone, Copy)]
pub struct Age(Option<i64>);

impl Age {
    /// When it was touched, by the kitchen's clock.
    #[must_use]
    pub fn touched(self, clock: &Clock) -> Touched {
        let now = clock.now();
        match self.0 {
            None => Touched { at: now, late: false },
            Some(age) => Touched { at: Moment(now.0 - age * i64::from(clock.pace())), late: true },
        }
    }
}

impl FromRequest for Age {
    type Error = ApiError;
    type Future = Ready<Result<Self, ApiError>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        let Some(given) = request.headers().get(HEADER) else { return ready(Ok(Self(None))) };
        let age = given.to_str().ok().and_then(|text| text.parse::<i64>().ok());
        let valid = age.filter(|age| (0..=OLDEST_MS).contains(age));
        ready(valid.map(|age| Self(Some(age))).ok_or_else(|| {
            ApiError::field(
                HEADER,
                "give whole milliseconds from the touch to now, 0 to a day; older is not taken",
            )
        }))
    }
}
