//! Recipes over HTTP: the bowls against the recipe, and the judge.

use serde_json::{Value, json};

use crate::common::{empty, post};

fn base() -> Value {
    json!({"parts": [
        {"name": "tomatoes", "amount": 6, "unit": "cup", "role": "tomato"},
        {"name": "peppers", "amount": 3, "unit": "cup", "role": "low_acid", "group": "peppers"},
        {"name": "bottled lemon juice", "amount": 1.5, "unit": "cup", "role": "acid"},
    ]})
}

fn bowls(peppers: Value, lemon: Value) -> Value {
    json!({"parts": [
        {"name": "tomatoes", "amount": 9, "unit": "cup", "role": "tomato"},
        {"name": "peppers", "amount": peppers, "unit": "cup", "role": "low_acid", "group": "peppers"},
        {"name": "bottled lemon juice", "amount": lemon, "unit": "cup", "role": "acid"},
    ]})
}

#[actix_web::test]
async fn proportions_are_compared_and_led_back() {
    let shared = empty();
    let ask = async |actual: Value, mixed: bool| {
        let body = json!({"base": base(), "actual": actual, "factor": 1.5, "mixed": mixed});
        post(&shared, "/api/compute/recipe", body).await
    };
    let (status, fine) = ask(bowls(json!(4.5), json!(2.25)), false).await;
    assert_eq!((status, &fine["verdict"], &fine["safe"]), (200, &json!("safe"), &json!(true)));
    assert_eq!(fine["tomato_factor"], 1.5);
    assert_eq!(fine["ways_back"], json!([]));
    let (_, over) = ask(bowls(json!(6), json!(2.25)), false).await;
    assert_eq!(over["verdict"], "unsafe");
    assert_eq!(over["ways_back"][0][0]["change_amount"], -1.5);
    assert_eq!(over["ways_back"][0][0]["unit"], "cup");
    // A third more peppers carry twelve cups of tomatoes, and those three cups of juice.
    let added: Vec<f64> = over["ways_back"][1]
        .as_array()
        .unwrap()
        .iter()
        .map(|step| step["change_amount"].as_f64().unwrap())
        .collect();
    assert_eq!(added, [3.0, 0.75]);
    let (_, mixed) = ask(bowls(json!(6), json!(2.25)), true).await;
    assert_eq!(mixed["ways_back"].as_array().unwrap().len(), 1);
    let (_, untold) = ask(bowls(Value::Null, json!(2.25)), false).await;
    assert_eq!((&untold["verdict"], &untold["safe"]), (&json!("cannot_tell"), &json!(false)));
    let (status, problem) = ask(bowls(json!(-1), json!(2.25)), false).await;
    assert_eq!((status, &problem["field"]), (422, &json!("actual.parts[1].amount")));
}

#[actix_web::test]
async fn the_judge_knows_a_recipe() {
    let shared = empty();
    let day = |actual: Value, change: &dyn Fn(&mut Value)| {
        let times = |jar: &str| {
            json!([
                {"jar": jar, "method": "boiling_water", "up_to_ft": 1000, "minutes": 15},
                {"jar": jar, "method": "boiling_water", "up_to_ft": 6000, "minutes": 20},
                {"jar": jar, "method": "boiling_water", "minutes": 25},
            ])
        };
        let mut day = json!({
            "method": "boiling_water", "altitude_ft": 2640, "minutes": 20,
            "jars": [{"jar": "pint", "count": 9, "kind": "mason", "lid": "new"}],
            "recipe": {"base": base(), "actual": actual, "checked": true,
                "process": {"pack": "hot", "headspace_in": 0.5, "times": times("pint")}},
        });
        change(&mut day);
        day
    };
    let judged = async |day: Value| {
        let (status, verdict) = post(&shared, "/api/compute/audit", day).await;
        assert_eq!(status, 200, "{verdict}");
        let codes: Vec<String> = verdict["findings"]
            .as_array()
            .unwrap()
            .iter()
            .map(|finding| finding["code"].as_str().unwrap().to_owned())
            .collect();
        (verdict["ruling"].as_str().unwrap().to_owned(), codes.join(" "))
    };
    let right = bowls(json!(4.5), json!(2.25));
    let is = |ruling: &str, codes: &str| (ruling.to_owned(), codes.to_owned());
    let same = |_: &mut Value| {};
    assert_eq!(judged(day(right.clone(), &same)).await, is("fine", ""));
    assert_eq!(judged(day(bowls(json!(6), json!(2.25)), &same)).await, is("not_fine", "recipe_ratio"));
    assert_eq!(judged(day(bowls(json!(4.5), json!(2)), &same)).await, is("not_fine", "recipe_ratio"));
    assert_eq!(judged(day(bowls(json!(4.5), Value::Null), &same)).await, is("cannot_tell", "recipe_ratio"));
    let short = |day: &mut Value| day["minutes"] = json!(15);
    assert_eq!(judged(day(right.clone(), &short)).await, is("not_fine", "process_short"));
    let large = |day: &mut Value| day["jars"][0]["jar"] = json!("quart");
    assert_eq!(judged(day(right.clone(), &large)).await, is("not_fine", "recipe_jar"));
    let metric = |day: &mut Value| day["jars"][0]["jar"] = json!("half_litre");
    assert_eq!(judged(day(right.clone(), &metric)).await, is("fine", "litre_as_quart"));
    let made_up = |day: &mut Value| day["recipe"]["process"] = Value::Null;
    assert_eq!(judged(day(right.clone(), &made_up)).await, is("not_fine", "recipe_untested"));
    let unchecked = |day: &mut Value| day["recipe"]["checked"] = json!(false);
    assert_eq!(judged(day(right.clone(), &unchecked)).await, is("not_fine", "recipe_untested"));
    let steam = |day: &mut Value| day["method"] = json!("atmospheric_steam");
    assert_eq!(judged(day(right.clone(), &steam)).await, is("not_fine", "no_tested_process"));
    let mut flour = right.clone();
    flour["parts"]
        .as_array_mut()
        .unwrap()
        .push(json!({"name": "flour", "amount": 1, "unit": "cup", "role": "thickener"}));
    assert_eq!(judged(day(flour, &same)).await, is("not_fine", "thickener"));
    let mut vinegar = right;
    vinegar["parts"][2]["name"] = json!("vinegar 5 %");
    assert_eq!(judged(day(vinegar, &same)).await, is("not_fine", "recipe_swap recipe_ratio"));
    let unsaid = |day: &mut Value| {
        day["recipe"].as_object_mut().unwrap().remove("actual");
    };
    let (ruling, _) = judged(day(Value::Null, &unsaid)).await;
    assert_eq!(ruling, "cannot_tell");
}
