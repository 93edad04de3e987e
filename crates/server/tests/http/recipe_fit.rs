//! A recipe's own page is its first judge over HTTP: what is in it, what it is printed for, where, and what goes into each jar.

use actix_web::http::Method;
use actix_web::web;
use bodega::state::Shared;
use serde_json::{Value, json};

use crate::common::{empty, fetch, patch, post, put, send};

async fn get(shared: &web::Data<Shared>, path: &str) -> Value {
    send(shared, Method::GET, path, String::new()).await.1
}

async fn at(feet: u32) -> web::Data<Shared> {
    let shared = empty();
    patch(&shared, "/api/kitchen", json!({"altitude_ft": feet})).await;
    shared
}

/// Reads lines as the page does and answers what they ask: the parts, each ticked.
async fn lines(shared: &web::Data<Shared>, text: &str, answers: &[(usize, Value)]) -> Vec<Value> {
    let (status, read) = post(shared, "/api/recipes/read", json!({ "text": text })).await;
    assert_eq!(status, 200, "{read}");
    let line = |(place, line): (usize, &Value)| {
        let mut part = json!({"name": line["name"], "amount": line["amount"], "unit": line["unit"],
            "role": line["role"], "group": line["group"]});
        if !line["per"].is_null() {
            part["per"] = line["per"].clone();
        }
        for (_, answer) in answers.iter().filter(|(of, _)| *of == place) {
            for (field, value) in answer.as_object().unwrap() {
                part[field] = value.clone();
            }
        }
        json!({"part": part, "preparation": line["preparation"], "ticked": true})
    };
    read["lines"].as_array().unwrap().iter().enumerate().map(line).collect()
}

fn text(lines: &[Value], jar: &str, altitude: &str) -> Value {
    let times = json!([{"jar": jar, "method": "boiling_water", "minutes": 40,
        "up_to_ft": if altitude == "nothing" { Value::Null } else { json!(1000) }}]);
    json!({"name": "From the page", "kind": "guide", "title": "County kitchen booklet", "edition": "2014", "page": "12",
        "lines": lines, "makes": {"jar": jar, "low": 6, "high": 7}, "process_ticked": true,
        "process": {"pack": "hot", "headspace_in": 0.5, "altitude": altitude, "times": times}})
}

async fn written(shared: &web::Data<Shared>, text: &Value) -> Value {
    let (status, made) = post(shared, "/api/recipes", json!({ "text": text })).await;
    assert_eq!(status, 201, "{made}");
    made
}

async fn begin(shared: &web::Data<Shared>) -> (u16, Value) {
    post(shared, "/api/recipes/1/batches", json!({"factor": 1})).await
}

fn says(value: &Value) -> String {
    value.to_string()
}

#[actix_web::test]
async fn onions_and_garlic_without_acid_are_stopped_on_the_page_in_the_plan_and_before_the_jars() {
    let shared = at(500).await;
    let lines = lines(&shared, "6 lb tomatoes\n6 cups onions\n1 cup garlic", &[]).await;
    let made = written(&shared, &text(&lines, "pint", "bands")).await;
    assert_eq!(
        (&made["stands"]["standing"], &made["stands"]["ruling"]),
        (&json!("not_for_jars"), &json!("not_fine"))
    );
    assert_eq!(
        (&made["stands"]["findings"][0]["code"], &made["stands"]["acid"]),
        (&json!("recipe_untested"), &Value::Null)
    );
    let plan = post(&shared, "/api/recipes/1/plan", json!({"factor": 1})).await.1;
    assert_eq!(plan["stands"], made["stands"], "the plan says the same");
    let (status, problem) = begin(&shared).await;
    assert_eq!((status, &problem["code"]), (409, &json!("not_canned")));
    assert!(says(&problem["detail"]).contains("No acid is in it"), "{problem}");
    // Its bowls are set out all the same, for the refrigerator, and never say that it may be canned.
    post(&shared, "/api/recipes/1/bowls", json!({"factor": 1})).await;
    let full = patch(&shared, "/api/bowls/1", json!({"as_planned": true})).await.1;
    assert_eq!(full["may_can"]["ruling"], "not_fine", "{full}");
    assert!(says(&full["may_can"]["says"]).contains("freezer"));
    for more in
        ["1 lb ground beef", "1 cup flour", "4 egg yolks", "1 cup heavy cream", "2 Tbsp tomato powder"]
    {
        let all = format!("6 lb tomatoes\n1 cup vinegar 5 %\n{more}");
        let lines = self::lines(&shared, &all, &[]).await;
        let kept = put(&shared, "/api/recipes/1", text(&lines, "pint", "bands")).await.1;
        assert_eq!(kept["stands"]["standing"], "not_for_jars", "{more}: {kept}");
        // Whatever a client calls it.
        let mut called = lines.clone();
        called[2]["part"]["role"] = json!("free");
        let kept = put(&shared, "/api/recipes/1", text(&called, "pint", "bands")).await.1;
        assert_eq!(kept["stands"]["standing"], "not_for_jars", "{more} as a spice");
        let parts: Vec<&Value> = called.iter().map(|line| &line["part"]).collect();
        let (_, seen) = post(&shared, "/api/compute/recipe", json!({"base": {"parts": parts}})).await;
        assert_eq!(seen["verdict"], "unsafe", "{more}: {seen}");
    }
}

#[actix_web::test]
async fn a_packet_with_one_time_holds_at_sea_level_and_nobody_can_tell_above() {
    let packet = [(1, json!({"packet": {"tomatoes_lb": 6, "acid": "inside"}}))];
    for (feet, ruling) in [(1000, "fine"), (6500, "cannot_tell")] {
        let shared = at(feet).await;
        let lines = lines(&shared, "6 lb tomatoes\n1 packet salsa mix", &packet).await;
        let made = written(&shared, &text(&lines, "pint", "nothing")).await;
        assert_eq!(made["stands"]["ruling"], ruling, "{made}");
        let plan = post(&shared, "/api/recipes/1/plan", json!({"factor": 2})).await.1;
        if feet == 1000 {
            assert_eq!(plan["jars"]["lines"][0]["option"]["minutes"], 40);
            assert_eq!(begin(&shared).await.0, 201);
            continue;
        }
        assert_eq!(plan["refusal"]["code"], "altitude_not_said", "{plan}");
        let (status, problem) = begin(&shared).await;
        assert_eq!(status, 409);
        assert!(says(&problem["detail"]).contains("nothing of altitude"), "{problem}");
    }
    // A band without an end is no answer.
    let shared = at(500).await;
    let lines = lines(&shared, "6 lb tomatoes\n1 packet salsa mix", &packet).await;
    let mut open = text(&lines, "pint", "bands");
    open["process"]["times"][0]["up_to_ft"] = Value::Null;
    let (status, problem) = post(&shared, "/api/recipes", json!({ "text": open })).await;
    assert_eq!((status, &problem["field"]), (422, &json!("text.process.times[0].up_to_ft")));
    // Nor is a packet whose label nobody read, nor one short.
    let unread = self::lines(&shared, "6 lb tomatoes\n1 packet salsa mix", &[]).await;
    let made = written(&shared, &text(&unread, "pint", "nothing")).await;
    assert_eq!(
        (&made["stands"]["ruling"], &made["line_asks"][0]["about"]),
        (&json!("cannot_tell"), &json!("packet"))
    );
    put(&shared, "/api/recipes/1", text(&lines, "pint", "nothing")).await;
    post(&shared, "/api/recipes/1/bowls", json!({"factor": 2})).await;
    let amounts = json!([{"place": 0, "amount": 13}, {"place": 1, "amount": 2}]);
    let short = patch(&shared, "/api/bowls/1", json!({ "amounts": amounts })).await.1;
    assert_eq!(short["may_can"]["ruling"], "not_fine", "{short}");
    assert_eq!(short["ways_back"][0][0]["says"], "add 1 packet of salsa mix");
    let enough = patch(&shared, "/api/bowls/1", json!({"amounts": [{"place": 1, "amount": 3}]})).await.1;
    assert_eq!(enough["may_can"]["ruling"], "fine", "{enough}");
}

#[actix_web::test]
async fn acid_for_each_jar_is_asked_kept_ticked_and_counted() {
    let shared = at(500).await;
    let page = "14 lb tomatoes\n1 cup onion\n2 Tbsp bottled lemon juice per quart";
    let read = post(&shared, "/api/recipes/read", json!({ "text": page })).await.1;
    assert_eq!((&read["lines"][2]["per"], &read["lines"][2]["per_jar"]), (&Value::Null, &json!("quart")));
    assert!(says(&read["lines"][2]["asks"]).contains("In every quart, or in the whole batch?"));
    // In the whole batch it is far too little, and that is asked.
    let all = lines(&shared, page, &[(2, json!({"per": "batch"}))]).await;
    let doubtful = written(&shared, &text(&all, "quart", "bands")).await;
    assert_eq!(doubtful["stands"]["ruling"], "cannot_tell");
    assert!(says(&doubtful["stands"]["says"]).contains("Is that all of its acid?"), "{doubtful}");
    let each = lines(&shared, page, &[(2, json!({"per": {"jar": "quart"}}))]).await;
    let made = put(&shared, "/api/recipes/1", text(&each, "quart", "bands")).await.1;
    assert_eq!(
        (&made["stands"]["standing"], &made["says"][2]),
        (&json!("checked"), &json!("2 tablespoons bottled lemon juice in each quart"))
    );
    let half = post(&shared, "/api/recipes/1/scale", json!({"factor": 0.5})).await.1;
    assert_eq!(half["lines"][2]["says"], "2 tablespoons bottled lemon juice in each quart");
    // A recipe file keeps it.
    let (_, file) = fetch(&shared, Method::GET, "/api/recipes/1/recipe.jsonld", String::new()).await;
    let file = String::from_utf8(file).unwrap();
    let again = post(&shared, "/api/recipes/read", json!({ "text": file })).await.1;
    assert_eq!(
        (&again["lines"][2]["per"], &again["lines"][2]["asks"]),
        (&json!({"jar": "quart"}), &json!([]))
    );

    assert_eq!(begin(&shared).await.0, 201);
    let full = patch(&shared, "/api/bowls/1", json!({"as_planned": true})).await.1;
    assert_eq!(full["may_can"]["ruling"], "fine", "{full}");
    let load = get(&shared, "/api/loads/1").await;
    let dose = &load["doses"][0];
    assert_eq!((&dose["to_add"], &dose["acid_name"]), (&json!("2 Tbsp"), &json!("bottled lemon juice")));
    assert_eq!(load["steps"][0]["step"], "acid");
    // Without it no lid goes on.
    let step = async |step: &str| post(&shared, "/api/loads/1/steps", json!({ "step": step })).await;
    step("lid").await;
    assert_eq!(get(&shared, "/api/loads/1").await["jars"][0]["lid"], false);
    for each in ["acid", "filled", "bubbles", "rim", "lid"] {
        assert_eq!(step(each).await.0, 200, "{each}");
    }
    put(
        &shared,
        "/api/loads/1/claims",
        json!({"kind": "mason", "lid": "new", "nicked": false, "covered": true}),
    )
    .await;
    let ready = get(&shared, "/api/loads/1").await;
    assert_eq!(ready["judged"]["ruling"], "fine", "{}", ready["judged"]);
    let event = async |event: &str| {
        let said = json!({"event": event, "water": "well"});
        let said = if event == "jars_in" { said } else { json!({ "event": event }) };
        post(&shared, "/api/loads/1/events", said).await
    };
    assert!(event("jars_in").await.0 < 300);
    assert!(event("boils").await.0 < 300);
    // One of them had no lemon juice: that is a stop of this jar.
    let (status, said) = put(&shared, "/api/undosed", json!({"jars": [1], "undosed": true})).await;
    assert!(status < 300, "{said}");
    let load = get(&shared, "/api/loads/1").await;
    assert_eq!(load["judged"]["ruling"], "not_fine");
    assert!(says(&load["judged"]["findings"]).contains("Jar 1 has no dose of acid."), "{load}");
}

#[actix_web::test]
async fn who_printed_it_is_asked_and_a_friend_is_no_source() {
    let shared = at(500).await;
    let lines = lines(&shared, "5 lb tomatoes\n2 lb peppers\n1 cup vinegar", &[]).await;
    let mut old = text(&lines, "pint", "bands");
    old.as_object_mut().unwrap().remove("kind");
    let made = written(&shared, &old).await;
    assert_eq!(
        (&made["stands"]["standing"], &made["stands"]["missing"][0]),
        (&json!("unchecked"), &json!("Say who printed it."))
    );
    assert_eq!(begin(&shared).await.0, 409);
    old["kind"] = json!("other");
    let kept = put(&shared, "/api/recipes/1", old.clone()).await.1;
    assert_eq!(kept["stands"]["standing"], "not_for_jars");
    old["kind"] = json!("guide");
    put(&shared, "/api/recipes/1", old).await;
    // The strength of its vinegar is asked once, at the bowls.
    assert_eq!(begin(&shared).await.0, 201);
    let full = patch(&shared, "/api/bowls/1", json!({"as_planned": true})).await.1;
    assert_eq!((&full["may_can"]["ruling"], &full["asks_strength"]), (&json!("cannot_tell"), &json!(true)));
    let weak = patch(&shared, "/api/bowls/1", json!({"strength": "weak"})).await.1;
    assert_eq!((&weak["may_can"]["ruling"], &weak["asks_strength"]), (&json!("not_fine"), &json!(false)));
    let five = patch(&shared, "/api/bowls/1", json!({"strength": "five"})).await.1;
    assert_eq!(five["may_can"]["ruling"], "fine", "{five}");
}
