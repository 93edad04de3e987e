//! The bounds of every number that is asked for, in the API's description: the same rows of [`bodega_model::measures::limits`]
//! that the handlers check against, so that a form can say them before anything is sent.

use bodega_model::measures::limits::{
    ACID_STOCK, ADDED_BRIX, ADDITION, ALSO_COUNT, ALSO_MINUTES, ALTITUDE, BOTTLE, BOTTLE_AGE, BRIX, CELSIUS,
    CHOICE, COOK_MINUTES, DAY_LAG, DAY_LENGTH, DAY_MINUTES, DAY_RESOURCE, DAY_SLIP, DEPTH_READ, DOSE_AMOUNT,
    EFFICIENCY, EVAPORATION, FILLED_AT, FOOD_AMOUNT, FRACTION_LEFT, GAUGE_YEAR, HEADSPACE, HELP, HOURS,
    JAR_COUNT, JAR_DIAMETER, JAR_HEIGHT, JAR_STOCK, JAR_WATER, KETTLE_VOLUME, LABEL_GAP, LABEL_SIDE,
    LABEL_START, LATITUDE, LEAVES, LOG_MINUTE, LONGITUDE, Limit, MINUTES, PACKET_TOMATOES, PACKS, PH,
    PLANT_YIELD, POT_DOSE, POUNDS, PREFERENCE, PROBE, RACK_HEIGHT, RECIPE_AMOUNT, RECIPE_JARS, RECIPE_TIMES,
    RIPE_SHARE, SEARCH_TIME, SHELF_YEAR, THERMOMETER_ERROR, TURNAROUND, VESSEL_DIAMETER, VESSEL_HEIGHT,
    WATER_COVER, WATTS, WEIGHT, WEIGHT_READ,
};
use serde_json::{Value, json};

/// Fields of one schema with their limits.
type Fields = &'static [(&'static str, Limit)];

/// Every number of every request body.
const OF_SCHEMAS: &[(&str, Fields)] = &[
    ("AcidRequest", &[("bottle_ml", BOTTLE), ("pot_dose_tsp", POT_DOSE)]),
    ("Added", &[("cups", ADDITION), ("leaves", LEAVES), ("amount", RECIPE_AMOUNT)]),
    ("AlsoIn", &[("broken", JAR_COUNT), ("count", ALSO_COUNT), ("minutes", ALSO_MINUTES)]),
    ("JarRequest", &[("water_kg", JAR_WATER)]),
    ("AuditAcid", &[("bottle_age_months", BOTTLE_AGE), ("pot_dose_tsp", POT_DOSE)]),
    ("AuditFruit", &[("weight_kg", WEIGHT)]),
    ("AuditCanner", &[("quarts", JAR_COUNT)]),
    ("AuditJar", &[("count", JAR_COUNT)]),
    ("AuditLogLine", &[("minute", MINUTES)]),
    ("AuditOther", &[("minutes", MINUTES)]),
    ("AuditPh", &[("temperature_c", CELSIUS), ("value", PH)]),
    (
        "AuditRequest",
        &[
            ("altitude_ft", ALTITUDE),
            ("headspace_in", HEADSPACE),
            ("minutes", MINUTES),
            ("psi", POUNDS),
            ("reprocess_after_hours", HOURS),
            ("rest_minutes", MINUTES),
            ("seal_check_hours", HOURS),
            ("water_cover_in", WATER_COVER),
        ],
    ),
    ("FirstRequest", &[("altitude_ft", ALTITUDE), ("weight_kg", WEIGHT)]),
    ("AuditTemperatures", &[("food", CELSIUS), ("jar", CELSIUS), ("water", CELSIUS)]),
    ("PacketLabel", &[("tomatoes_lb", PACKET_TOMATOES)]),
    ("Part", &[("amount", RECIPE_AMOUNT)]),
    ("PrintedTime", &[("psi", POUNDS), ("up_to_ft", ALTITUDE)]),
    ("Makes", &[("high", RECIPE_JARS), ("low", RECIPE_JARS)]),
    ("BowlsRequest", &[("factor", RECIPE_TIMES)]),
    ("BowlAmount", &[("amount", RECIPE_AMOUNT), ("place", CHOICE)]),
    ("BowlsChange", &[("way", CHOICE)]),
    ("ScaleRequest", &[("factor", RECIPE_TIMES), ("jars", RECIPE_JARS), ("tomatoes_kg", WEIGHT)]),
    ("CopyRequest", &[("factor", RECIPE_TIMES)]),
    ("ColdRequest", &[("factor", RECIPE_TIMES)]),
    ("RecipePlanRequest", &[("factor", RECIPE_TIMES)]),
    ("RecipeProcess", &[("headspace_in", HEADSPACE)]),
    ("RecipeRequest", &[("factor", RECIPE_TIMES)]),
    ("BoilTestRequest", &[("boils_at_c", CELSIUS), ("thermometer_error_c", THERMOMETER_ERROR)]),
    ("CalibrationRequest", &[("depths_mm", DEPTH_READ), ("pour_l", KETTLE_VOLUME)]),
    (
        "CannerChangeRequest",
        &[("burner_mm", VESSEL_DIAMETER), ("gauge_tested_in", GAUGE_YEAR), ("power_w", WATTS)],
    ),
    ("CannerRequest", &[("cover_in", WATER_COVER)]),
    (
        "CookEventRequest",
        &[
            ("brix", BRIX),
            ("depth_mm", DEPTH_READ),
            ("add_l", KETTLE_VOLUME),
            ("drain_l", KETTLE_VOLUME),
            ("ladle_l", KETTLE_VOLUME),
            ("mass_kg", WEIGHT),
            ("temp_c", PROBE),
            ("volume_l", KETTLE_VOLUME),
        ],
    ),
    (
        "CookGoal",
        &[
            ("boil_minutes", COOK_MINUTES),
            ("brix", BRIX),
            ("fraction_left", FRACTION_LEFT),
            ("hold_minutes", COOK_MINUTES),
            ("volume_l", KETTLE_VOLUME),
        ],
    ),
    ("CookRequest", &[("brix", BRIX), ("volume_l", KETTLE_VOLUME), ("weight_kg", WEIGHT)]),
    ("CountRequest", &[("count", JAR_STOCK), ("amount", ACID_STOCK)]),
    ("DayAfter", &[("max_lag_minutes", DAY_LAG), ("min_lag_minutes", DAY_LAG)]),
    ("DayRequest", &[("horizon_minutes", DAY_LENGTH), ("time_limit_ms", SEARCH_TIME)]),
    ("DayTask", &[("minutes", DAY_LENGTH)]),
    ("Goal", &[("count", JAR_COUNT), ("preference", PREFERENCE)]),
    (
        "Hours",
        &[("canner_minutes", DAY_MINUTES), ("hands_minutes", DAY_MINUTES), ("stove_minutes", DAY_MINUTES)],
    ),
    ("JarCount", &[("count", JAR_COUNT)]),
    ("JarMeasure", &[("diameter_mm", JAR_DIAMETER), ("height_mm", JAR_HEIGHT)]),
    (
        "KettleAdd",
        &[
            ("brix", ADDED_BRIX),
            ("minute", LOG_MINUTE),
            ("temperature_c", FILLED_AT),
            ("volume_l", KETTLE_VOLUME),
        ],
    ),
    ("KettleDrain", &[("minute", LOG_MINUTE), ("volume_l", KETTLE_VOLUME)]),
    ("KettleDrive", &[("efficiency", EFFICIENCY), ("litres_per_hour", EVAPORATION), ("watts", WATTS)]),
    (
        "KettleReading",
        &[
            ("brix", BRIX),
            ("depth_mm", DEPTH_READ),
            ("mass_kg", WEIGHT),
            ("minute", LOG_MINUTE),
            ("temperature_c", PROBE),
            ("volume_l", KETTLE_VOLUME),
        ],
    ),
    ("KettlePour", &[("depth_mm", DEPTH_READ), ("volume_l", KETTLE_VOLUME)]),
    ("KettleRequest", &[("altitude_ft", ALTITUDE)]),
    ("KettleStart", &[("brix", BRIX), ("temperature_c", FILLED_AT), ("volume_l", KETTLE_VOLUME)]),
    ("KettleTarget", &[("brix", BRIX), ("fraction_left", FRACTION_LEFT), ("volume_l", KETTLE_VOLUME)]),
    (
        "KettleVessel",
        &[
            ("depth_mm", VESSEL_HEIGHT),
            ("inner_diameter_mm", VESSEL_DIAMETER),
            ("top_diameter_mm", VESSEL_DIAMETER),
        ],
    ),
    (
        "KitchenRequest",
        &[
            ("altitude_ft", ALTITUDE),
            ("break_at", MINUTES),
            ("burners", HELP),
            ("day_ends", MINUTES),
            ("people", HELP),
            ("pounds_per_plant", PLANT_YIELD),
            ("turnaround_minutes", TURNAROUND),
        ],
    ),
    ("LoadLine", &[("count", JAR_COUNT)]),
    ("LoadsRequest", &[("altitude_ft", ALTITUDE), ("turnaround_minutes", TURNAROUND)]),
    ("LotRequest", &[("ripe_percent", RIPE_SHARE)]),
    (
        "Needs",
        &[
            ("burners", DAY_RESOURCE),
            ("canners", DAY_RESOURCE),
            ("kettles", DAY_RESOURCE),
            ("people", DAY_RESOURCE),
        ],
    ),
    ("Measured", &[("amount", DOSE_AMOUNT), ("bottle_ml", BOTTLE)]),
    ("FoodMoveRequest", &[("packs", PACKS)]),
    (
        "NewKettleRequest",
        &[
            ("depth_mm", VESSEL_HEIGHT),
            ("inner_diameter_mm", VESSEL_DIAMETER),
            ("top_diameter_mm", VESSEL_DIAMETER),
        ],
    ),
    ("BenchPhRequest", &[("ph", PH), ("sample_c", CELSIUS)]),
    ("SampleRequest", &[("sample_c", CELSIUS)]),
    ("PhRequest", &[("ph", PH), ("sample_c", CELSIUS)]),
    ("Pin", &[("choice", CHOICE), ("jars", JAR_COUNT)]),
    (
        "PotSize",
        &[
            ("inner_diameter_mm", VESSEL_DIAMETER),
            ("inner_height_mm", VESSEL_HEIGHT),
            ("inner_length_mm", VESSEL_DIAMETER),
            ("rack_height_mm", RACK_HEIGHT),
        ],
    ),
    ("ProcessRequest", &[("altitude_ft", ALTITUDE)]),
    ("ReadingRequest", &[("temp_c", PROBE)]),
    ("RecountRequest", &[("count", JAR_COUNT)]),
    ("RetimeRequest", &[("psi", POUNDS)]),
    ("SlipRequest", &[("minutes", DAY_SLIP)]),
    ("Claims", &[("headspace_in", HEADSPACE), ("water_c", CELSIUS)]),
    ("WarmthRequest", &[("jars_c", CELSIUS)]),
    ("Told", &[("amount", FOOD_AMOUNT)]),
    ("Weight", &[("value", WEIGHT_READ)]),
    ("YieldRequest", &[("weight_kg", WEIGHT)]),
];

/// Every number in the question of an address.
const OF_QUERIES: Fields = &[
    ("width_mm", LABEL_SIDE),
    ("height_mm", LABEL_SIDE),
    ("gap_mm", LABEL_GAP),
    ("start", LABEL_START),
    ("lat", LATITUDE),
    ("lon", LONGITUDE),
    ("year", SHELF_YEAR),
];

/// Writes a limit into the schema of a number, or of the numbers of a list.
fn bound(schema: &mut Value, limit: Limit) {
    let number = if schema["items"].is_object() { &mut schema["items"] } else { schema };
    number["minimum"] = json!(limit.min);
    number["maximum"] = json!(limit.max);
    if !limit.unit.is_empty() {
        number["x-unit"] = json!(limit.unit);
    }
}

/// The parts of a schema that may hold a field: itself, and what it is made of.
fn parts(schema: &mut Value) -> Vec<&mut Value> {
    let Value::Object(fields) = schema else { return Vec::new() };
    let mut found = Vec::new();
    for (name, value) in fields.iter_mut() {
        match (name.as_str(), value) {
            ("properties", properties) => found.push(properties),
            ("allOf" | "oneOf", Value::Array(list)) => {
                found.extend(list.iter_mut().filter_map(|part| part.get_mut("properties")));
            }
            _ => {}
        }
    }
    found
}

/// Writes every bound into the API's description.
pub fn describe(description: &mut Value) {
    for (schema, fields) in OF_SCHEMAS {
        for part in parts(&mut description["components"]["schemas"][schema]) {
            for (field, limit) in *fields {
                if let Some(found) = part.get_mut(field) {
                    bound(found, *limit);
                }
            }
        }
    }
    let Some(paths) = description["paths"].as_object_mut() else { return };
    let operations = paths.values_mut().filter_map(Value::as_object_mut).flat_map(|path| path.values_mut());
    let parameters = operations.filter_map(|operation| operation.get_mut("parameters")?.as_array_mut());
    for parameter in parameters.flatten() {
        let found = OF_QUERIES.iter().find(|(name, _)| parameter["name"] == *name);
        if let Some((_, limit)) = found.filter(|_| parameter["in"] == "query") {
            bound(&mut parameter["schema"], *limit);
        }
    }
}
