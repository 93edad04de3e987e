//! The judge over HTTP: a batch as planned or recorded, every field optional.

use std::collections::BTreeMap;

use actix_web::{post, web};
use bodega_core::judge::case::CaseCanner;
use bodega_core::judge::case::{
    Case, CaseAcid, CaseFruit, CaseJar, CaseRecipe, Damage, Heating, LogEvent, LogLine, OtherJars, PhReading,
    PhSample, Ripeness, Temperatures, Vine,
};
use bodega_core::judge::records::unknown;
use bodega_core::judge::{Verdict, judge};
use bodega_model::canner::cover::UnderJars;
use bodega_model::contents::Added;
use bodega_model::crates::fruit::Kind;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::kinds::{AcidSource, JarKind, LidState};
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::limits::{
    BOTTLE_AGE, CELSIUS, HEADSPACE, HOURS, JAR_COUNT, Limit, MINUTES, PH, POT_DOSE, POUNDS, RECIPE_JARS,
    WATER_COVER, WEIGHT,
};
use bodega_model::measures::units::{Length, Temperature, Time, kilograms};
use bodega_model::recipe::process::RecipeProcess;
use bodega_model::records::recipe::Makes;
use bodega_model::tables::process::{Medium, Pack, Product, check_medium};
use bodega_model::towel::liquid::LiquidLost;
use serde::Deserialize;
use uom::si::length::inch;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::{hour, minute};
use utoipa::ToSchema;

use crate::compute::recipe::Parts;
use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};

/// A batch as planned or recorded.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AuditRequest {
    /// What the tomatoes became.
    pub product: Option<Product>,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Option<Pack>,
    /// How the jars were heated; judged as boiling water while it is left out, and asked for.
    pub method: Option<Heating>,
    /// Height of the kitchen in feet, -2,000 to 30,000.
    pub altitude_ft: Option<f64>,
    /// Minutes planned or counted, 0 to 1,440.
    pub minutes: Option<f64>,
    /// Pounds on the gauge, 0 to 30; under pressure the minutes are held against the tested time at these pounds.
    pub psi: Option<f64>,
    /// Headspace in inches, 0 to 6.
    pub headspace_in: Option<f64>,
    /// Water over the lids in inches, 0 to 20.
    pub water_cover_in: Option<f64>,
    /// The canner.
    pub canner: Option<AuditCanner>,
    /// Liquid that the jars lost in the canner; left out when none was seen to be.
    pub liquid_lost: Option<LiquidLost>,
    /// The jars.
    pub jars: Option<Vec<AuditJar>>,
    /// The acid; `null` for none.
    pub acid: Option<AuditAcid>,
    /// The fruit.
    pub fruit: Option<AuditFruit>,
    /// What else is in it; an empty list for nothing, left out when nobody can tell.
    pub additions: Option<Vec<Added>>,
    /// Whether skins were left on.
    pub skins_on: Option<bool>,
    /// Temperatures at filling.
    pub temperatures_c: Option<AuditTemperatures>,
    /// The log of the boil.
    pub boil: Option<Vec<AuditLogLine>>,
    /// Other jars in the same load.
    pub load: Option<Vec<AuditOther>>,
    /// Minutes between heat off and lifting, 0 to 1,440.
    pub rest_minutes: Option<f64>,
    /// Hours between lifting and the check of the seals, 0 to 10,000.
    pub seal_check_hours: Option<f64>,
    /// Hours between the first lifting and processing again, 0 to 10,000.
    pub reprocess_after_hours: Option<f64>,
    /// Whether jars that are processed again after more than a day were kept cold all that time.
    pub kept_cold: Option<bool>,
    /// Rings left on in storage.
    pub rings_on_in_storage: Option<bool>,
    /// A pH reading.
    pub ph: Option<AuditPh>,
    /// The recipe, when it is one: its own proportions and process stand for those of plain tomatoes.
    pub recipe: Option<AuditRecipe>,
}

/// A tested recipe and what was made of it.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AuditRecipe {
    /// The recipe, made once.
    pub base: Parts,
    /// What is in the bowls; left out when nobody can tell.
    pub actual: Option<Parts>,
    /// Whether it is mixed already.
    #[serde(default)]
    pub mixed: bool,
    /// What it fills, made once; left out when its source does not say.
    pub makes: Option<Makes>,
    /// The process printed with it; `null` when its source has none.
    pub process: Option<RecipeProcess>,
    /// Whether every line and the minutes were held against a copy of the source.
    pub checked: Option<bool>,
    /// Whether somebody looked through its page for more acid and found none; it matters when there is less than plain
    /// tomatoes would get.
    pub is_all_its_acid: Option<bool>,
    /// Whether what goes into each jar is in these, of a recipe that has such a dose.
    pub dosed: Option<bool>,
}

/// Like jars.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AuditJar {
    /// Size.
    pub jar: JarSize,
    /// How many, 0 to 1,000.
    pub count: u32,
    /// What kind of jar.
    pub kind: Option<JarKind>,
    /// Its lid.
    pub lid: Option<LidState>,
    /// Whether a rim is nicked.
    pub nicked: Option<bool>,
}

/// The acid.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AuditAcid {
    /// Which; asked for while it is left out.
    pub agent: Option<Agent>,
    /// Where it comes from.
    pub source: Option<AcidSource>,
    /// Teaspoons in one jar, by size, 0 to 4,000.
    #[schema(value_type = Option<BTreeMap<String, f64>>)]
    pub per_jar_tsp: Option<BTreeMap<JarSize, f64>>,
    /// Teaspoons stirred into the pot, 0 to 4,000.
    pub pot_dose_tsp: Option<f64>,
    /// Months since the bottle was opened, 0 to 600.
    pub bottle_age_months: Option<f64>,
}

/// The canner.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AuditCanner {
    /// Whether it is an electric multi-cooker.
    pub multi_cooker: Option<bool>,
    /// Quart jars that stand in it, 0 to 1,000.
    pub quarts: Option<u32>,
    /// Whether its dial gauge was tested this year.
    pub gauge_tested: Option<bool>,
    /// What its jars stand on.
    pub under_jars: Option<UnderJars>,
}

/// The fruit.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AuditFruit {
    /// Kind.
    pub kind: Option<Kind>,
    /// Ripeness.
    pub ripeness: Option<Ripeness>,
    /// The vine it came from.
    pub vine: Option<Vine>,
    /// Damage.
    pub damage: Option<Damage>,
    /// Kilograms, 0.01 to 5,000.
    pub weight_kg: Option<f64>,
    /// Frozen and thawed.
    pub frozen: Option<bool>,
}

/// Temperatures in degrees Celsius, -30 to 200.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AuditTemperatures {
    /// Of the empty jar.
    pub jar: Option<f64>,
    /// Of the food.
    pub food: Option<f64>,
    /// Of the canner's water.
    pub water: Option<f64>,
}

/// A line of the boil's log.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AuditLogLine {
    /// Minutes from any common start, 0 to 1,440.
    pub minute: f64,
    /// What happened.
    pub event: LogEvent,
}

/// Other jars in the same load.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AuditOther {
    /// What is in them.
    pub product: Option<Product>,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Option<Pack>,
    /// Size.
    pub jar: Option<JarSize>,
    /// Minutes they need, as far as it is known, 0 to 1,440.
    pub minutes: Option<f64>,
}

/// A pH reading.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AuditPh {
    /// The value, 0 to 14.
    pub value: f64,
    /// What was read: food before its acid, or the dosed product, which is meant when it is left out.
    pub sample: Option<PhSample>,
    /// Temperature of the sample in degrees Celsius, -30 to 200.
    pub temperature_c: Option<f64>,
    /// Whether the meter allows for it.
    pub compensated: Option<bool>,
    /// Whether it was calibrated that day.
    pub calibrated_today: Option<bool>,
}

/// An optional number within its limit.
fn within(given: Option<f64>, limit: Limit, field: &str) -> Result<Option<f64>, ApiError> {
    given.map(|value| limit.check(value).named(field)).transpose()
}

fn celsius(given: Option<f64>, field: &str) -> Result<Option<Temperature>, ApiError> {
    Ok(within(given, CELSIUS, field)?.map(Temperature::new::<degree_celsius>))
}

fn minutes(given: Option<f64>, field: &str) -> Result<Option<Time>, ApiError> {
    Ok(within(given, MINUTES, field)?.map(Time::new::<minute>))
}

fn hours(given: Option<f64>, field: &str) -> Result<Option<Time>, ApiError> {
    Ok(within(given, HOURS, field)?.map(Time::new::<hour>))
}

fn inches(given: Option<f64>, limit: Limit, field: &str) -> Result<Option<Length>, ApiError> {
    Ok(within(given, limit, field)?.map(Length::new::<inch>))
}

impl AuditJar {
    fn checked(self, place: usize) -> Result<CaseJar, ApiError> {
        JAR_COUNT.check(f64::from(self.count)).named(format_args!("jars[{place}].count"))?;
        let Self { jar, count, kind, lid, nicked } = self;
        Ok(CaseJar { jar, count, kind, lid, nicked })
    }
}

impl AuditAcid {
    fn checked(self) -> Result<CaseAcid, ApiError> {
        for (jar, tsp) in self.per_jar_tsp.iter().flatten() {
            POT_DOSE.check(*tsp).named(format_args!("acid.per_jar_tsp.{}", jar.word()))?;
        }
        Ok(CaseAcid {
            agent: self.agent,
            source: self.source,
            per_jar_tsp: self.per_jar_tsp,
            pot_dose_tsp: within(self.pot_dose_tsp, POT_DOSE, "acid.pot_dose_tsp")?,
            bottle_age_months: within(self.bottle_age_months, BOTTLE_AGE, "acid.bottle_age_months")?,
        })
    }
}

impl AuditFruit {
    fn checked(self) -> Result<CaseFruit, ApiError> {
        Ok(CaseFruit {
            kind: self.kind,
            ripeness: self.ripeness,
            vine: self.vine,
            damage: self.damage,
            weight: within(self.weight_kg, WEIGHT, "fruit.weight_kg")?.map(kilograms),
            frozen: self.frozen,
        })
    }
}

impl AuditCanner {
    fn checked(self) -> Result<CaseCanner, ApiError> {
        if let Some(quarts) = self.quarts {
            JAR_COUNT.check(f64::from(quarts)).named("canner.quarts")?;
        }
        let Self { multi_cooker, quarts, gauge_tested, under_jars } = self;
        Ok(CaseCanner { multi_cooker, quarts, gauge_tested, under_jars })
    }
}

impl AuditTemperatures {
    fn checked(self) -> Result<Temperatures, ApiError> {
        Ok(Temperatures {
            jar: celsius(self.jar, "temperatures_c.jar")?,
            food: celsius(self.food, "temperatures_c.food")?,
            water: celsius(self.water, "temperatures_c.water")?,
        })
    }
}

impl AuditPh {
    fn checked(self) -> Result<PhReading, ApiError> {
        Ok(PhReading {
            value: PH.check(self.value).named("ph.value")?,
            sample: self.sample,
            temperature: celsius(self.temperature_c, "ph.temperature_c")?,
            compensated: self.compensated,
            calibrated_today: self.calibrated_today,
        })
    }
}

impl AuditRecipe {
    fn checked(self) -> Result<CaseRecipe, ApiError> {
        for (field, count) in self.makes.iter().flat_map(|makes| [("low", makes.low), ("high", makes.high)]) {
            RECIPE_JARS.check(count).named(format_args!("recipe.makes.{field}"))?;
        }
        if let Some(process) = &self.process {
            process
                .check()
                .map_err(|error| ApiError::field(format!("recipe.process.{}", error.field), &error))?;
        }
        Ok(CaseRecipe {
            base: self.base.checked("recipe.base")?,
            actual: self.actual.map(|actual| actual.checked("recipe.actual")).transpose()?,
            mixed: self.mixed,
            makes: self.makes,
            process: self.process,
            checked: self.checked,
            is_all_its_acid: self.is_all_its_acid,
            dosed: self.dosed,
            labels_asked: true,
        })
    }
}

/// Checks every entry of an optional list.
fn each<In, Out>(
    list: Option<Vec<In>>,
    check: impl Fn(usize, In) -> Result<Out, ApiError>,
) -> Result<Vec<Out>, ApiError> {
    list.into_iter().flatten().enumerate().map(|(place, item)| check(place, item)).collect()
}

impl AuditRequest {
    fn checked(self) -> Result<Case, ApiError> {
        if let (Some(product), Some(medium)) = (self.product, self.medium) {
            check_medium(product, Some(medium)).map_err(|error| ApiError::field("medium", error))?;
        }
        let jars = self.jars.map(|jars| each(Some(jars), |place, jar| jar.checked(place))).transpose()?;
        Ok(Case {
            product: self.product,
            medium: self.medium,
            pack: self.pack,
            heating: self.method,
            altitude: self
                .altitude_ft
                .map(|feet| Altitude::from_feet(feet).named("altitude_ft"))
                .transpose()?,
            minutes: minutes(self.minutes, "minutes")?,
            psi: within(self.psi, POUNDS, "psi")?,
            headspace: inches(self.headspace_in, HEADSPACE, "headspace_in")?,
            water_cover: inches(self.water_cover_in, WATER_COVER, "water_cover_in")?,
            canner: self.canner.map(AuditCanner::checked).transpose()?.unwrap_or_default(),
            liquid_lost: self.liquid_lost,
            jars,
            all_jars: None,
            acid: self.acid.map(AuditAcid::checked).transpose()?,
            fruit: self.fruit.map(AuditFruit::checked).transpose()?.unwrap_or_default(),
            unknown_additions: unknown(self.additions.as_ref()),
            additions: self
                .additions
                .map(|items| {
                    each(Some(items), |place, item| {
                        item.counted().map_err(|error| {
                            ApiError::field(format!("additions[{place}].{}", error.field()), error)
                        })
                    })
                })
                .transpose()?,
            skins_on: self.skins_on,
            temperatures: self
                .temperatures_c
                .map(AuditTemperatures::checked)
                .transpose()?
                .unwrap_or_default(),
            boil: each(self.boil, |place, line: AuditLogLine| {
                let at = MINUTES.check(line.minute).named(format_args!("boil[{place}].minute"))?;
                Ok(LogLine { at: Time::new::<minute>(at), event: line.event })
            })?,
            load: each(self.load, |place, other: AuditOther| {
                Ok(OtherJars {
                    product: other.product,
                    medium: other.medium,
                    pack: other.pack,
                    jar: other.jar,
                    minutes: minutes(other.minutes, &format!("load[{place}].minutes"))?,
                })
            })?,
            rest: minutes(self.rest_minutes, "rest_minutes")?,
            seal_check_after: hours(self.seal_check_hours, "seal_check_hours")?,
            reprocess_after: hours(self.reprocess_after_hours, "reprocess_after_hours")?,
            kept_cold: self.kept_cold,
            rings_on_in_storage: self.rings_on_in_storage,
            ph: self.ph.map(AuditPh::checked).transpose()?,
            recipe: self.recipe.map(AuditRecipe::checked).transpose()?,
        })
    }
}

/// Judges a batch.
#[utoipa::path(request_body = AuditRequest, responses((status = 200, body = Verdict), (status = 422, body = Problem)))]
#[post("/api/compute/audit")]
pub async fn compute_audit(Json(request): Json<AuditRequest>) -> Result<web::Json<Verdict>, ApiError> {
    Ok(web::Json(judge(&request.checked()?)))
}
