//! Acid per jar, in all, and a pot dose held against the jars.

use actix_web::{post, web};
use bodega_model::jars::acid;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::volume_of;
use bodega_model::measures::limits::{BOTTLE, JAR_COUNT, POT_DOSE};
use bodega_model::measures::units::millilitres;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::json::Json;
use crate::plan::view::JarCount;
use crate::problem::{ApiError, NameField, Problem};

/// Millilitres in a common bottle of lemon juice, 15 fl oz. Common practice, no source.
const BOTTLE_ML: f64 = 443.6;

/// What is asked.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AcidRequest {
    /// Which acid.
    pub agent: Agent,
    /// Jars to be filled.
    pub jars: Vec<JarCount>,
    /// Teaspoons stirred into the pot, 0 to 4,000; `null` when each jar is dosed.
    pub pot_dose_tsp: Option<f64>,
    /// Millilitres in a bottle of lemon juice or vinegar, 50 to 20,000; 15 fl oz when left out.
    pub bottle_ml: Option<f64>,
}

/// Dose of like jars.
#[derive(Debug, Serialize, ToSchema)]
pub struct AcidLine {
    /// Size.
    pub jar: JarSize,
    /// How many.
    pub count: u32,
    /// Teaspoons for one.
    pub per_jar_tsp: f64,
    /// As measured out: `2 Tbsp`.
    pub label: String,
    /// Millilitres for one.
    pub per_jar_ml: f64,
    /// Grams for one; `null` for liquids.
    pub per_jar_g: Option<f64>,
    /// The same in words, rounded up: `7.4 mL`.
    pub volume: String,
}

/// What the same jars would need of an agent.
#[derive(Debug, Serialize, ToSchema)]
pub struct AgentTotal {
    /// Which acid.
    pub agent: Agent,
    /// Teaspoons in all.
    pub total_tsp: f64,
    /// As measured out.
    pub total_label: String,
    /// Millilitres in all.
    pub total_ml: f64,
    /// Grams in all; `null` for liquids.
    pub total_g: Option<f64>,
    /// The same in words, rounded up: `26 mL, 26 g`.
    pub total_volume: String,
    /// Bottles that hold it; `null` for citric acid.
    pub bottles: Option<u32>,
}

/// A dose stirred into the pot.
#[derive(Debug, Serialize, ToSchema)]
pub struct PotAnswer {
    /// Teaspoons these jars need.
    pub needed_tsp: f64,
    /// Teaspoons stirred in.
    pub given_tsp: f64,
    /// Whether that is enough.
    pub enough: bool,
    /// Teaspoons missing.
    pub short_tsp: f64,
}

/// The doses.
#[derive(Debug, Serialize, ToSchema)]
pub struct AcidAnswer {
    /// One line for each line asked.
    pub jars: Vec<AcidLine>,
    /// Teaspoons in all.
    pub total_tsp: f64,
    /// As measured out: `1¼ cups`.
    pub total_label: String,
    /// Every agent for the same jars, side by side.
    pub agents: Vec<AgentTotal>,
    /// The pot dose judged.
    pub pot_dose: Option<PotAnswer>,
}

/// Works out the acid.
#[utoipa::path(request_body = AcidRequest, responses((status = 200, body = AcidAnswer), (status = 422, body = Problem)))]
#[post("/api/compute/acid")]
pub async fn compute_acid(Json(request): Json<AcidRequest>) -> Result<web::Json<AcidAnswer>, ApiError> {
    for (place, line) in request.jars.iter().enumerate() {
        JAR_COUNT.check(f64::from(line.count)).named(format_args!("jars[{place}].count"))?;
    }
    let jars: Vec<(JarSize, u32)> = request.jars.iter().map(|line| (line.jar, line.count)).collect();
    let bottle = millilitres(BOTTLE.check(request.bottle_ml.unwrap_or(BOTTLE_ML)).named("bottle_ml")?);
    let agents = Agent::ALL
        .iter()
        .map(|agent| {
            let total = acid::total(*agent, &jars);
            AgentTotal {
                agent: *agent,
                total_tsp: total.as_f64(),
                total_label: total.total_label(),
                total_ml: total.millilitres(),
                total_g: acid::grams(*agent, total),
                total_volume: volume_of(*agent, total.as_f64()),
                bottles: acid::bottles(*agent, total, bottle),
            }
        })
        .collect();
    let needed = acid::total(request.agent, &jars);
    let pot_dose = match request.pot_dose_tsp {
        None => None,
        Some(given) => {
            let given_tsp = POT_DOSE.check(given).named("pot_dose_tsp")?;
            let dose = acid::LeastDose { needed, given_tsp };
            Some(PotAnswer {
                needed_tsp: needed.as_f64(),
                given_tsp,
                enough: dose.enough(),
                short_tsp: dose.short_tsp(),
            })
        }
    };
    Ok(web::Json(AcidAnswer {
        jars: jars
            .into_iter()
            .map(|(jar, count)| {
                let dose = acid::per_jar(request.agent, jar);
                AcidLine {
                    jar,
                    count,
                    per_jar_tsp: dose.as_f64(),
                    label: dose.label(),
                    per_jar_ml: dose.millilitres(),
                    per_jar_g: acid::grams(request.agent, dose),
                    volume: volume_of(request.agent, dose.as_f64()),
                }
            })
            .collect(),
        agents,
        total_tsp: needed.as_f64(),
        total_label: needed.total_label(),
        pot_dose,
    }))
}
