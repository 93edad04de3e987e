//! Why there is no tested process, and what to do instead.

use serde::Serialize;

use crate::measures::moment::Minutes;
use crate::measures::vocabulary::vocabulary;
use crate::measures::words::capital;
use crate::tables::process::{Method, Pack, Product, Query, STEAM_LIMIT};

vocabulary! {
    /// Reason of a refusal.
    "refusal code", RefusalCode {
        /// Nothing was ever tested for this product, pack, medium and method.
        NoTestedProcess = "no_tested_process", "no tested process";
        /// The product has a tested process, but not in this jar.
        JarNotTested = "jar_not_tested", "jar not tested";
        /// The adjusted time is longer than a steam canner may run.
        TimeOverSteamLimit = "time_over_steam_limit", "too long for steam";
        /// The tables end below (or above) this altitude.
        AltitudeOutOfRange = "altitude_out_of_range", "altitude out of range";
        /// The source says nothing of altitude, and the kitchen is too high for that.
        AltitudeNotSaid = "altitude_not_said", "altitude not said";
    }
}

/// The plain statement that there is no tested process.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Refusal {
    /// Stable code.
    pub code: RefusalCode,
    /// One sentence for a person.
    pub message: String,
    /// What would do, the nearest first.
    pub instead: Vec<String>,
}

impl Refusal {
    /// With these words.
    pub fn new(code: RefusalCode, message: impl Into<String>, instead: &[&str]) -> Self {
        Self { code, message: message.into(), instead: instead.iter().map(|&text| text.to_owned()).collect() }
    }

    pub(crate) fn no_tested_process(query: &Query) -> Self {
        let code = RefusalCode::NoTestedProcess;
        match (query.product, query.pack, query.method) {
            (Product::Recipe, ..) => Self::new(
                code,
                "A recipe has only the time printed with it, and no table has one for it.",
                &[
                    "Follow the process printed with the recipe.",
                    "Keep it in the refrigerator or freeze it when nothing is printed.",
                ],
            ),
            (Product::Paste, Pack::Hot, Method::PressureDial | Method::PressureWeighted) => Self::new(
                code,
                "Paste has no tested pressure process.",
                &["Process half-pints in boiling water.", "Freeze the paste."],
            ),
            (Product::Whole, Pack::Hot, _) => Self::new(
                code,
                "Whole tomatoes without added liquid were only tested packed raw.",
                &["Pack them raw.", "Pack them hot and cover them with water or juice."],
            ),
            (product, Pack::Raw, _) if product != Product::Whole => Self::new(
                code,
                format!("{} is only tested packed hot.", capital(product.label())),
                &["Pack it hot."],
            ),
            (product, ..) => Self::new(
                code,
                format!("There is no tested process for {product} this way."),
                &["Use boiling water.", "Freeze it.", "Ask your local extension office."],
            ),
        }
    }

    pub(super) fn jar_not_tested(query: &Query) -> Self {
        let code = RefusalCode::JarNotTested;
        if query.product == Product::Paste {
            return Self::new(
                code,
                format!("Paste was only tested in half-pints, not in {}.", query.jar.plural()),
                &["Fill half-pints.", "Freeze the paste in any container."],
            );
        }
        debug_assert!(!query.jar.is_canned(), "every other jar has a row to read");
        let jars = capital(&query.jar.plural());
        Self::new(
            code,
            format!("{jars} have no tested process for tomatoes: heat may not reach the middle in time."),
            &["Fill quarts or pints.", "Freeze it in any container."],
        )
    }

    pub(super) fn time_over_steam_limit(minutes: Minutes) -> Self {
        Self::new(
            RefusalCode::TimeOverSteamLimit,
            format!(
                "This needs {} minutes, and a steam canner may run {} at most: its water would boil away.",
                minutes.0, STEAM_LIMIT.0
            ),
            &["Use boiling water, where you can top up.", "Use smaller jars if their time is short enough."],
        )
    }

    pub(super) fn altitude_out_of_range(method: Method) -> Self {
        let message = match method {
            Method::PressureDial => {
                "No dial-gauge pressure was tested at this altitude; the table ends at 8,000 ft (2,438 m)."
            }
            Method::BoilingWater | Method::AtmosphericSteam | Method::PressureWeighted => {
                "No process was tested at this altitude; the tables cover 1,500 ft (457 m) below sea level to 10,000 ft (3,048 m)."
            }
        };
        Self::new(
            RefusalCode::AltitudeOutOfRange,
            message,
            &["Ask your local extension office for a time at your altitude.", "Freeze the tomatoes."],
        )
    }
}
