//! Recipes over HTTP: the bowls against the recipe, and the judge.

use actix_web::http::Method;
use serde_json::{Value, json};

use crate::common::{empty, patch, post, put, send};

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

const SALSA: &str = "4 cups tomatoes, peeled\n2 cups green chiles, chopped\n½ cup jalapenos\n3/4 cup onion, chopped\n\
    4 cloves garlic\n2 cups vinegar 5 %\n1 Tbsp cilantro\n1 1/2 tsp salt\nsome pepper";

#[actix_web::test]
async fn a_recipe_is_read_written_down_checked_scaled_and_made() {
    let shared = empty();
    let (status, read) = post(&shared, "/api/recipes/read", json!({"text": SALSA})).await;
    assert_eq!(status, 200);
    let lines = read["lines"].as_array().unwrap();
    assert!(lines[..8].iter().all(|line| line["asks"] == json!([])), "{lines:#?}");
    assert_eq!(lines[8]["amount"], Value::Null);
    let lines: Vec<Value> = lines[..8]
        .iter()
        .map(|line| {
            let part = json!({"name": line["name"], "amount": line["amount"], "unit": line["unit"],
                "role": line["role"], "group": line["group"]});
            json!({"part": part, "preparation": line["preparation"]})
        })
        .collect();
    let text = json!({"name": "Salsa", "lines": lines, "makes": {"jar": "pint", "low": 4, "high": 4}});
    let (status, made_up) = post(&shared, "/api/recipes", json!({"text": text})).await;
    assert_eq!((status, &made_up["stands"]["standing"]), (201, &json!("no_process")));
    let times = json!([{"jar": "pint", "method": "boiling_water", "up_to_ft": 1000, "minutes": 15},
        {"jar": "pint", "method": "boiling_water", "up_to_ft": 6000, "minutes": 20}]);
    let mut printed = text.clone();
    printed["process"] = json!({"pack": "hot", "headspace_in": 0.5, "times": times});
    printed["title"] = json!("Grandmother's");
    printed["kind"] = json!("guide");
    let (_, named) = put(&shared, "/api/recipes/1", printed.clone()).await;
    assert_eq!(named["stands"]["standing"], "unchecked");
    assert!(named["stands"]["missing"][0].as_str().unwrap().contains("a name, not a source"));
    printed["title"] = json!("County kitchen booklet");
    (printed["edition"], printed["page"]) = (json!("2014"), json!("12"));
    printed["process_ticked"] = json!(true);
    for line in printed["lines"].as_array_mut().unwrap() {
        line["ticked"] = json!(true);
    }
    let (_, checked) = put(&shared, "/api/recipes/1", printed).await;
    assert_eq!(checked["stands"]["standing"], "checked", "{checked:#?}");
    patch(&shared, "/api/kitchen", json!({"altitude_ft": 2640})).await;
    let (_, here) = send(&shared, Method::GET, "/api/recipes/1", String::new()).await;
    assert_eq!((&here["times"][0]["minutes"], &here["altitude_ft"]), (&json!(20), &json!(2640.0)));
    let (_, by_fruit) = post(&shared, "/api/recipes/1/scale", json!({"tomatoes_kg": 2.16})).await;
    assert_eq!(by_fruit["factor"], 3.0);
    let (_, bowls) = post(&shared, "/api/recipes/1/bowls", json!({"factor": 3})).await;
    assert_eq!(bowls["may_can"]["ruling"], "cannot_tell");
    let amounts: Vec<Value> = bowls["planned"]
        .as_array()
        .unwrap()
        .iter()
        .enumerate()
        .map(|(place, line)| json!({"place": place, "amount": line["part"]["amount"]}))
        .collect();
    // One bowl after the other, from whatever page: what another page said stays.
    for amount in &amounts {
        patch(&shared, "/api/bowls/1", json!({"amounts": [amount]})).await;
    }
    let (_, full) = send(&shared, Method::GET, "/api/bowls/1", String::new()).await;
    assert_eq!(full["may_can"]["ruling"], "fine", "{full:#?}");
    let (_, over) = patch(&shared, "/api/bowls/1", json!({"amounts": [{"place": 1, "amount": 8}]})).await;
    assert_eq!(over["may_can"]["ruling"], "not_fine");
    let (_, back) = patch(&shared, "/api/bowls/1", json!({"way": 0})).await;
    assert_eq!(back["may_can"]["ruling"], "fine", "{back:#?}");
    let (status, problem) = patch(&shared, "/api/bowls/1", json!({"way": 0})).await;
    assert_eq!((status, &problem["field"]), (422, &json!("way")));
    let corn = json!({"name": "corn", "amount": 1, "unit": "cup", "role": "low_acid"});
    let (_, more) = patch(&shared, "/api/bowls/1", json!({"add": corn})).await;
    assert_eq!(more["may_can"]["ruling"], "not_fine");
    assert_eq!(more["ways_back"][0][0]["says"], "take out 1 cup of corn");
    let (status, away) = patch(&shared, "/api/bowls/1", json!({"away": true})).await;
    assert_eq!((status, away), (200, Value::Null));
    let (_, none) = send(&shared, Method::GET, "/api/recipes/1/bowls", String::new()).await;
    assert_eq!(none, json!([]));
    let (_, again) = patch(&shared, "/api/bowls/1", json!({"away": false})).await;
    assert_eq!(again["actual"], more["actual"]);
    let (status, _) = patch(&shared, "/api/recipes/1", json!({"removed": true})).await;
    assert_eq!(status, 204);
    let (status, _) = send(&shared, Method::GET, "/api/recipes/1", String::new()).await;
    assert_eq!(status, 404);
    patch(&shared, "/api/recipes/1", json!({"removed": false})).await;
    let (status, _) = send(&shared, Method::GET, "/api/recipes/1", String::new()).await;
    assert_eq!(status, 200);
}

#[actix_web::test]
async fn a_recipe_comes_in_and_goes_out_as_an_open_format() {
    let shared = empty();
    let page = json!({"@graph": [{"@type": "WebPage"}, {"@type": ["Recipe"], "name": "Chile salsa",
        "recipeIngredient": ["5 lb tomatoes", "2 lb chile peppers", "1 lb onions", "1 cup vinegar 5 %"]}]});
    let (_, read) = post(&shared, "/api/recipes/read", json!({"text": page.to_string()})).await;
    assert_eq!((&read["name"], read["lines"].as_array().unwrap().len()), (&json!("Chile salsa"), 4));
    let lines: Vec<Value> = read["lines"]
        .as_array()
        .unwrap()
        .iter()
        .map(|line| {
            json!({"part": {"name": line["name"], "amount": line["amount"], "unit": line["unit"],
                "role": line["role"], "group": line["group"]}})
        })
        .collect();
    let text = json!({"name": read["name"], "lines": lines});
    post(&shared, "/api/recipes", json!({"text": text})).await;
    let (_, out) = send(&shared, Method::GET, "/api/recipes/1/recipe.jsonld", String::new()).await;
    let (_, again) = post(&shared, "/api/recipes/read", json!({"text": out.to_string()})).await;
    assert_eq!(again, read);
    let (status, problem) =
        post(&shared, "/api/recipes/read", json!({"text": "{\"@type\": \"WebPage\"}"})).await;
    assert_eq!((status, &problem["field"]), (422, &json!("text")));
}
