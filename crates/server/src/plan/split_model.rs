//! The question that the best split is asked, out of the records, and its answer.

use bodega_core::canner::room::Room;
use bodega_core::plan::batch::Wish;
use bodega_core::plan::split::{Choice, NoSplit, Question, Resource, Share, Split, Stock, limits};
use bodega_model::jars::acid;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::limits::{DAY_MINUTES, JAR_COUNT};
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::range::Range;
use bodega_model::plan::making::{Making, usual_jar};
use bodega_model::records::batch::{Draw, NewBatch};
use bodega_model::records::load::SharedLoad;
use bodega_model::tables::process::{ProcessOption, Query, look_up};
use jiff::civil::Date;
use uom::si::mass::gram;
use uom::si::volume::liter;

use crate::plan::compare::refused;
use crate::plan::ground::stuff_of;
use crate::plan::split_view::{
    Hours, LotShare, Pin, SplitAnswer, SplitLimit, SplitLine, SplitLoad, SplitRequest,
};
use crate::plan::table::Table;
use crate::problem::{ApiError, NameField};

/// What a choice of the list is: the goals first, then what else the fruit could be, in its usual jar.
pub(crate) fn choices(table: &Table, agent: Agent, pins: &[Pin]) -> Vec<Choice> {
    let wanted = table.goals.iter().map(|goal| {
        let making =
            Making { product: goal.product, medium: goal.medium, pack: goal.pack, thickness: goal.thickness };
        (making, goal.jar, goal.count, goal.preference)
    });
    let mouth_of = |jar: JarSize| {
        let line = table.cupboard.jars.iter().find(|line| line.jar == jar);
        line.map_or_else(|| jar.usual_mouth(), |line| line.mouth)
    };
    // One way for each product that no goal asks for.
    let others =
        [Making::ALL[0], Making::ALL[4], Making::ALL[5], Making::ALL[6], Making::ALL[7], Making::ALL[8]];
    let others = others
        .into_iter()
        .filter(|making| {
            !table
                .goals
                .iter()
                .any(|goal| goal.product == making.product && goal.thickness == making.thickness)
        })
        .map(|making| (making, usual_jar(&making), 0, 1));
    wanted
        .chain(others)
        .filter_map(|(making, jar, goal, preference)| {
            let query = Query {
                product: making.product,
                medium: making.medium,
                pack: making.pack,
                method: table.kitchen.canner.method,
                jar,
                altitude: table.altitude,
            };
            let ProcessOption { minutes, psi } = look_up(&query).ok()?.options[0];
            table.room.most_of(jar).ok()?;
            Some(Choice {
                making,
                jar,
                mouth: mouth_of(jar),
                minutes,
                psi,
                acid_tsp: acid::per_jar(agent, jar).as_f64(),
                goal,
                preference: f64::from(preference),
                pinned: None,
            })
        })
        .enumerate()
        .map(|(place, choice)| Choice {
            pinned: pins.iter().find(|pin| pin.choice == place).map(|pin| pin.jars),
            ..choice
        })
        .collect()
}

/// Stock and hours as the model counts them; what was never counted does not limit.
pub(crate) fn stock(table: &Table, agent: Agent, hours: Hours) -> Stock {
    let cupboard = &table.cupboard;
    let acid = cupboard.acids.iter().find(|line| line.agent == agent);
    Stock {
        jars: cupboard.jars.iter().filter_map(|line| Some((line.jar, line.left()?))).collect(),
        lids: cupboard.lids.iter().filter_map(|line| Some((line.mouth, line.left()?))).collect(),
        acid_tsp: acid
            .and_then(bodega_model::records::stock::AcidStock::left)
            .map(|left| acid::teaspoons_of(agent, left)),
        canner_minutes: Some(hours.canner_minutes),
        stove_minutes: Some(hours.stove_minutes),
        hands_minutes: Some(hours.hands_minutes),
    }
}

pub(crate) fn question<'a>(table: &'a Table, request: &SplitRequest) -> Result<Question<'a>, ApiError> {
    for (place, pin) in request.pins.iter().enumerate() {
        JAR_COUNT.check(f64::from(pin.jars)).named(format_args!("pins[{place}].jars"))?;
    }
    let hours = request.hours;
    for (minutes, field) in [
        (hours.canner_minutes, "hours.canner_minutes"),
        (hours.stove_minutes, "hours.stove_minutes"),
        (hours.hands_minutes, "hours.hands_minutes"),
    ] {
        DAY_MINUTES.check(minutes).named(field)?;
    }
    let choices = choices(table, request.agent, &request.pins);
    for (place, pin) in request.pins.iter().enumerate() {
        if pin.choice >= choices.len() {
            let message = format!("there are {} choices; give 0 to {}", choices.len(), choices.len() - 1);
            return Err(ApiError::field(format!("pins[{place}].choice"), message));
        }
    }
    Ok(Question {
        lots: stuff_of(&table.lots),
        choices,
        stock: stock(table, request.agent, hours),
        room: &table.room,
        turnaround: Minutes(table.kitchen.turnaround_minutes),
        household: &table.household,
    })
}

pub(crate) fn refuse(error: &NoSplit) -> ApiError {
    match error {
        NoSplit::PinnedTooMuch => ApiError::field("pins", error),
        NoSplit::NoRoom(_) => ApiError::field("capacity", error),
        NoSplit::Failed(_) => ApiError::Internal(error.to_string()),
    }
}

/// Whole grams of each lot in a share; what rounding would take too much of a lot is left in it.
pub(crate) fn fruit_of(table: &Table, share: &Share) -> Vec<LotShare> {
    table
        .lots
        .iter()
        .zip(&share.fruit)
        .filter_map(|(lot, weight)| {
            #[allow(clippy::cast_possible_truncation)] // within the weight of the lot
            let weight_g = (weight.get::<gram>() + 1e-3).floor() as i64;
            (weight_g > 0).then_some(LotShare { lot: lot.id, weight_g: weight_g.min(lot.left_g) })
        })
        .collect()
}

pub(crate) fn name_of(resource: Resource, table: &Table) -> String {
    match resource {
        Resource::Fruit(place) => table.lots[place].words(),
        Resource::Jars(jar) => jar.plural(),
        Resource::Lids(mouth) => format!("{} lids", mouth.label()),
        Resource::Acid => "acid".to_owned(),
        Resource::Canner => "canner hours".to_owned(),
        Resource::Stove => "burner hours".to_owned(),
        Resource::Hands => "hands".to_owned(),
    }
}

pub(crate) fn answer(table: &Table, question: &Question<'_>, found: &Split) -> Result<SplitAnswer, NoSplit> {
    let lines: Vec<SplitLine> = question
        .choices
        .iter()
        .zip(&found.shares)
        .enumerate()
        .map(|(place, (choice, share))| SplitLine {
            choice: place,
            product: choice.making.product,
            medium: choice.making.medium,
            pack: choice.making.pack,
            thickness: choice.making.thickness,
            jar: choice.jar,
            jars: share.jars,
            goal: choice.goal,
            pinned: choice.pinned.is_some(),
            minutes: choice.minutes,
            fruit: if share.jars == 0 { Vec::new() } else { fruit_of(table, share) },
            drained_l: share.drained.get::<liter>(),
        })
        .collect();
    let used: i64 = lines.iter().flat_map(|line| &line.fruit).map(|fruit| fruit.weight_g).sum();
    Ok(SplitAnswer {
        jars: lines.iter().map(|line| line.jars).sum(),
        left_g: table.lots.iter().map(|lot| lot.left_g).sum::<i64>() - used,
        canner_minutes: found.loads.iter().map(|load| load.minutes.0 + question.turnaround.0).sum(),
        loads: found.loads.iter().map(SplitLoad::of).collect(),
        proven: found.proven,
        refused: refusals(table, question),
        limits: limits(question, found)?
            .into_iter()
            .map(|limit| SplitLimit {
                what: name_of(limit.resource, table),
                step: limit.resource.step(),
                jars_more: limit.jars_more,
            })
            .collect(),
        lines,
    })
}

/// What is refused in words of the lots and the products that the split had before it, each once.
fn refusals(table: &Table, question: &Question<'_>) -> Vec<String> {
    let mut all: Vec<String> = Vec::new();
    for choice in &question.choices {
        if let Some(words) = refused(&table.lots, choice.making.product).filter(|words| !all.contains(words))
        {
            all.push(words);
        }
    }
    all
}

/// The loads of the split, by the places of its batches.
pub(crate) fn shared_loads(found: &Split) -> Vec<SharedLoad> {
    let places: Vec<usize> = (0..found.shares.len()).filter(|place| found.shares[*place].jars > 0).collect();
    let of_batch = |(choice, count): &(usize, u32)| Some((places.binary_search(choice).ok()?, *count));
    let load = |load: &SharedLoad| SharedLoad {
        jars: load.jars.iter().filter_map(of_batch).collect(),
        ..load.clone()
    };
    found.loads.iter().map(load).collect()
}

/// One batch of the split, with its jars in loads of their own.
pub(crate) fn batch_of(
    table: &Table,
    choice: &Choice,
    share: &Share,
    agent: Agent,
    day: Date,
) -> Result<NewBatch, NoSplit> {
    let volume = choice.jar.volume() * f64::from(share.jars);
    let wish = Wish {
        product: choice.making.product,
        recipe: None,
        medium: choice.making.medium,
        pack: choice.making.pack,
        method: table.kitchen.canner.method,
        altitude: table.altitude,
        volume: Range { low: volume, expected: volume, high: volume },
        agent,
        jar: choice.jar,
        mix: Some(vec![(choice.jar, share.jars)]),
    };
    let worked =
        bodega_core::plan::batch::work_out(&wish, &table.room, Minutes(table.kitchen.turnaround_minutes))
            .map_err(|error| NoSplit::Failed(error.to_string()))?;
    let draws = fruit_of(table, share);
    Ok(NewBatch {
        day,
        name: None,
        recipe: None,
        product: wish.product,
        medium: wish.medium,
        pack: wish.pack,
        thickness: choice.making.thickness,
        method: wish.method,
        agent,
        salt: false,
        rest: None,
        additions: None,
        altitude_ft: table.altitude.feet(),
        draws: draws.into_iter().map(|fruit| Draw { lot: fruit.lot, weight_g: fruit.weight_g }).collect(),
        loads: worked.new_loads(),
        canner: table.kitchen.canner.id,
    })
}
