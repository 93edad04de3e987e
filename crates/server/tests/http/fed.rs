//! Every finding can be raised: a rule that nothing feeds is not there. One row a code, with what raises it in the judge's
//! calculator, and the question of a station that asks for it where one does.

use bodega::routes::description_json;
use bodega_model::judge::finding::Code;
use serde_json::{Value, json};

use crate::common::{empty, post};

/// A batch that nothing is wrong with: seven quarts, whole, raw in water, at 500 ft.
fn fine() -> Value {
    json!({
        "product": "whole", "medium": "water", "pack": "raw", "method": "boiling_water", "altitude_ft": 500,
        "minutes": 45, "headspace_in": 0.5, "water_cover_in": 2, "additions": [],
        "jars": [{"jar": "quart", "count": 7, "kind": "mason", "lid": "new", "nicked": false}],
        "acid": {"agent": "bottled_lemon_juice", "source": "bottled", "per_jar_tsp": {"quart": 6}},
        "boil": [{"minute": 0, "event": "in"}, {"minute": 20, "event": "boil"}, {"minute": 65, "event": "end"}],
        "rest_minutes": 5, "seal_check_hours": 13,
    })
}

/// What raises a code, laid over the batch that is fine, and the question of a station that feeds it: method, path, field.
fn raised_by(code: Code) -> (Value, Option<(&'static str, &'static str, &'static str)>) {
    let claims = |field| Some(("put", "/api/loads/{id}/claims", field));
    let lots = |field| Some(("post", "/api/lots", field));
    let ph = |field| Some(("post", "/api/batches/{id}/ph", field));
    let bowls = |field| Some(("patch", "/api/bowls/{id}", field));
    let contents = Some(("put", "/api/batches/{id}/additions", "additions"));
    let event = Some(("post", "/api/loads/{id}/events", "event"));
    let altitude = Some(("patch", "/api/kitchen", "altitude_ft"));
    let jar = |part: Value| {
        let mut line = fine()["jars"][0].clone();
        line.as_object_mut().unwrap().extend(part.as_object().unwrap().clone());
        json!({ "jars": [line] })
    };
    let acid = |part: Value| {
        let mut all = fine()["acid"].clone();
        all.as_object_mut().unwrap().extend(part.as_object().unwrap().clone());
        json!({ "acid": all })
    };
    match code {
        Code::NoAcid => (json!({ "acid": null }), Some(("put", "/api/undosed", "jars"))),
        Code::AcidShort => (acid(json!({"per_jar_tsp": {"quart": 3}})), None),
        Code::FreshCitrus => (acid(json!({"source": "fresh"})), None),
        Code::PotDoseShort => (
            acid(json!({"per_jar_tsp": {}, "pot_dose_tsp": 20})),
            Some(("put", "/api/batches/{id}/pot_dose", "said")),
        ),
        Code::ProcessShort => (json!({ "altitude_ft": 2640 }), altitude),
        Code::NoTestedProcess => (json!({ "medium": "none", "pack": "hot" }), claims("covered")),
        Code::AltitudeMissing => (json!({ "altitude_ft": null }), altitude),
        Code::SteamLimit => (
            json!({ "method": "atmospheric_steam", "altitude_ft": 2640, "minutes": 50 }),
            Some(("patch", "/api/canners/{id}", "method")),
        ),
        Code::BoilLost => (
            json!({"boil": [{"minute": 0, "event": "boil"}, {"minute": 30, "event": "lost"}, {"minute": 65, "event": "end"}]}),
            event,
        ),
        Code::MixedLoadShort => {
            (json!({"load": [{"product": "whole", "medium": "none", "pack": "raw", "jar": "quart"}]}), None)
        }
        Code::NotProcessed => (json!({ "method": "none", "boil": [] }), event),
        Code::JarFragile => (jar(json!({"kind": "packer"})), claims("kind")),
        Code::JarUnsuited => (jar(json!({"kind": "antique"})), claims("kind")),
        Code::RimNicked => (jar(json!({"nicked": true})), claims("nicked")),
        Code::LidReused => (jar(json!({"lid": "reused"})), claims("lid")),
        Code::LidOther => (jar(json!({"lid": "one_piece"})), claims("lid")),
        Code::SkinsOn => (json!({ "skins_on": true }), claims("skins_on")),
        Code::AcidMore => {
            (acid(json!({"per_jar_tsp": {"quart": 12}})), Some(("put", "/api/batches/{id}/pot_dose", "said")))
        }
        Code::LitreAsQuart => (
            json!({"jars": [{"jar": "litre", "count": 7}], "acid": {"agent": "bottled_lemon_juice",
                "source": "bottled", "per_jar_tsp": {"litre": 6.5}}}),
            Some(("post", "/api/plan", "jar")),
        ),
        Code::FrostKilledVine => (json!({"fruit": {"vine": "frost_killed"}}), lots("fault")),
        Code::Overripe => (json!({"fruit": {"ripeness": "overripe"}}), lots("fault")),
        Code::Mouldy => (json!({"fruit": {"damage": "mouldy"}}), lots("fault")),
        Code::Bruised => (json!({"fruit": {"damage": "bruised"}}), lots("fault")),
        Code::Underripe => (json!({"fruit": {"ripeness": "underripe"}}), lots("condition")),
        Code::LowAcidAddition => (json!({"additions": [{"what": "garlic", "cups": 1}]}), contents),
        Code::VegetableRatio => (
            json!({"product": "vegetable_juice", "medium": null, "pack": "hot", "minutes": 40,
                "fruit": {"weight_kg": 10}, "additions": [{"what": "celery", "cups": 4}]}),
            contents,
        ),
        Code::RecipeRatio => (recipe("low_acid", 2.0, "bottled lemon juice", "pint"), bowls("amounts")),
        Code::RecipeUntested => (
            json!({"recipe": {"base": {"parts": [
            {"name": "tomatoes", "amount": 6, "unit": "cup", "role": "tomato"}]}}}),
            Some(("put", "/api/recipes/{id}", "process")),
        ),
        Code::RecipeJar => (
            recipe("free", 1.0, "bottled lemon juice", "half_pint"),
            Some(("post", "/api/recipes/{id}/plan", "jar")),
        ),
        Code::Thickener => (recipe("thickener", 1.0, "bottled lemon juice", "pint"), bowls("add")),
        Code::RecipeSwap => (recipe("free", 1.0, "vinegar 5 %", "pint"), bowls("add")),
        Code::ReprocessLate => {
            (json!({ "reprocess_after_hours": 30 }), Some(("put", "/api/rescues", "rescue")))
        }
        Code::PhHigh => (json!({"ph": {"value": 4.8}}), ph("ph")),
        Code::PhUncalibrated => {
            (json!({"ph": {"value": 4.2, "calibrated_today": false}}), ph("calibrated_today"))
        }
        Code::PhUncompensated => (
            json!({"ph": {"value": 4.2, "temperature_c": 80, "compensated": false, "calibrated_today": true}}),
            ph("compensated"),
        ),
        Code::Headspace => (json!({ "headspace_in": 0.1 }), claims("headspace_in")),
        Code::WaterCover => (json!({ "water_cover_in": 1 }), Some(("put", "/api/loads/{id}/water", "water"))),
        Code::WaterLow => {
            (json!({ "water_cover_in": 0.5 }), Some(("post", "/api/loads/{id}/events", "water")))
        }
        Code::CannerUnsuited => {
            (json!({"canner": {"multi_cooker": true}}), Some(("patch", "/api/canners/{id}", "multi_cooker")))
        }
        Code::GaugeUntested => (
            json!({"product": "crushed", "medium": null, "pack": "hot", "method": "pressure_dial", "psi": 6,
                "minutes": 20, "canner": {"gauge_tested": false}}),
            Some(("patch", "/api/canners/{id}", "gauge_tested_in")),
        ),
        Code::BareBottom => (
            json!({"canner": {"under_jars": "nothing"}}),
            Some(("put", "/api/loads/{id}/under_jars", "under_jars")),
        ),
        Code::LiquidGone => (json!({ "liquid_lost": "half" }), Some(("put", "/api/liquids", "lost"))),
        Code::LiquidLow => (json!({ "liquid_lost": "some" }), Some(("put", "/api/liquids", "lost"))),
        Code::NextSizeUp => (
            json!({"jars": [{"jar": "ml_370", "count": 7}], "acid": {"agent": "bottled_lemon_juice",
                "source": "bottled", "per_jar_tsp": {"ml_370": 2.5}}}),
            Some(("post", "/api/plan", "jar")),
        ),
        Code::ThermalGap => (
            json!({"temperatures_c": {"jar": 15, "food": 90}}),
            Some(("put", "/api/loads/{id}/warmth", "jars_c")),
        ),
        Code::RestShort => (json!({ "rest_minutes": 1 }), event),
        Code::SealCheckEarly => (json!({ "seal_check_hours": 2 }), Some(("put", "/api/seals", "verdict"))),
        Code::RingsOn => (json!({ "rings_on_in_storage": true }), None),
        Code::BottleOld => {
            (acid(json!({"bottle_age_months": 14})), Some(("put", "/api/stock/bottle", "agent")))
        }
        Code::MediumMissing => (json!({ "medium": null }), None),
    }
}

/// A recipe of tomatoes, something and lemon juice, with so much of something and another acid in the bowls.
fn recipe(role: &str, something: f64, acid: &str, jar: &str) -> Value {
    let parts = |something: f64, acid: &str| {
        json!({"parts": [
            {"name": "tomatoes", "amount": 6, "unit": "cup", "role": "tomato"},
            {"name": "something", "amount": something, "unit": "cup", "role": role},
            {"name": acid, "amount": 1, "unit": "cup", "role": "acid"},
        ]})
    };
    let times = json!([{"jar": jar, "method": "boiling_water", "minutes": 20}]);
    json!({"recipe": {"base": parts(1.0, "bottled lemon juice"), "actual": parts(something, acid), "checked": true,
        "process": {"pack": "hot", "headspace_in": 0.5, "times": times}}})
}

async fn codes(with: &Value) -> (u16, Vec<String>) {
    let mut case = fine();
    case.as_object_mut().unwrap().extend(with.as_object().unwrap().clone());
    let (status, answer) = post(&empty(), "/api/compute/audit", case).await;
    let found = answer["findings"].as_array().cloned().unwrap_or_default();
    (status, found.iter().map(|finding| finding["code"].as_str().unwrap_or_default().to_owned()).collect())
}

#[actix_web::test]
async fn every_code_is_fed() {
    assert_eq!(codes(&json!({})).await, (200, Vec::new()), "the batch to begin with is fine");
    let description: Value = serde_json::from_str(&description_json().unwrap()).unwrap();
    for code in Code::ALL {
        let (with, station) = raised_by(*code);
        let (status, found) = codes(&with).await;
        assert!(found.iter().any(|word| word == code.word()), "{code}: {status} {found:?} of {with}");
        let Some((method, path, field)) = station else { continue };
        let body =
            &description["paths"][path][method]["requestBody"]["content"]["application/json"]["schema"];
        let name = body["$ref"].as_str().unwrap_or_default().trim_start_matches("#/components/schemas/");
        let asked = &description["components"]["schemas"][name]["properties"][field];
        assert!(!asked.is_null(), "{code}: {method} {path} does not ask for {field}: {body}");
    }
}
