//! Whether the time, the method and the boil reach the tested process.

use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::{Code, Finding, Fix};
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::words::{capital, with_article};
use bodega_model::published::source::Source;
use bodega_model::recipe::process::NoRecipeTime;
use bodega_model::tables::process;
use bodega_model::tables::process::{
    Medium, Method, Pack, ProcessOption, Product, Query, Refusal, RefusalCode, STEAM_LIMIT, at_pounds,
};
use uom::si::time::minute;

use super::case::{Case, CaseRecipe, Heating, LogEvent, LogLine, OtherJars};
use super::recipe::jar_too_large;

/// Slack for a decimal number of minutes: a tenth of a second.
const SLACK_MIN: f64 = 0.1 / 60.0;

/// The tested time of one jar, as far as it is decided by what was said.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
struct Need {
    jar: JarSize,
    /// Shortest that could be enough.
    least: Minutes,
    /// Longest that could be needed.
    most: Minutes,
}

/// Why a jar has no time.
enum NoTime {
    /// Nothing was tested.
    Refused(Refusal),
    /// The gauge shows less than every tested pressure.
    TooFewPounds(Vec<ProcessOption>),
    /// The recipe's table does not have it.
    Recipe(Box<Finding>),
    /// The recipe has no process.
    NoProcess,
}

/// Where a case is processed: what every look-up shares.
struct Place {
    method: Method,
    /// The kitchen's, or sea level while it is not known: no tested time is shorter anywhere.
    altitude: Altitude,
    is_known: bool,
    psi: Option<f64>,
}

impl Place {
    fn of(case: &Case) -> Option<Self> {
        Some(Self {
            method: case.heating.map_or(Some(Method::BoilingWater), Heating::method)?,
            altitude: case.altitude.or_else(|| Altitude::from_feet(0.0).ok())?,
            is_known: case.altitude.is_some(),
            psi: case.psi,
        })
    }

    /// Where that is, after a time.
    fn says(&self) -> String {
        if self.is_known {
            format!("at {:.0} ft", self.altitude.feet())
        } else {
            "at the least, at any altitude".to_owned()
        }
    }
}

pub(super) fn judge(case: &Case) -> Vec<Finding> {
    let mut found = Vec::new();
    if case.heating == Some(Heating::None) {
        found.push(not_processed());
    }
    if case.altitude.is_none() {
        found.push(altitude_missing());
    }
    if case.product.is_none() && case.recipe.is_none() {
        found.push(product_missing());
    }
    let Some(place) = Place::of(case) else { return found };
    let mut needs = Vec::new();
    for (jar, _) in case.sizes() {
        let need = match (&case.recipe, case.product) {
            (Some(recipe), _) => need_of_recipe(recipe, &place, jar),
            (None, Some(product)) => need(product, case.medium, case.pack, &place, jar),
            (None, None) => return found,
        };
        match need {
            Ok(need) => needs.push(need),
            // That there is none, and what that means, is the recipe's own rule.
            Err(NoTime::NoProcess) => {}
            Err(NoTime::Recipe(finding)) => {
                if !found.contains(&finding) {
                    found.push(*finding);
                }
            }
            Err(NoTime::Refused(refusal)) => {
                if !found.iter().any(|finding: &Finding| finding.message == refusal.message) {
                    found.push(refused(refusal));
                }
            }
            Err(NoTime::TooFewPounds(options)) => {
                if !found.iter().any(|finding: &Finding| finding.code == Code::ProcessShort) {
                    found.push(pounds_short(&place, options));
                }
            }
        }
    }
    let Some(own) = needs.into_iter().max_by_key(|need| need.least) else { return found };
    if own.least < own.most && case.minutes.is_none_or(|given| given.get::<minute>() < f64::from(own.most.0))
    {
        found.push(medium_missing(own).untold());
    }
    let others = case.load.iter().filter_map(|other| other_need(other, &place)).fold(0.0, f64::max);
    found.extend(minutes_short(case, own, others, &place));
    found.extend(boil_short(case, own, others, place.method));
    found.extend(steam_gone(case, f64::from(own.least.0).max(others)));
    found
}

/// The time printed with a recipe.
fn need_of_recipe(recipe: &CaseRecipe, place: &Place, jar: JarSize) -> Result<Need, NoTime> {
    let process = recipe.process.as_ref().ok_or(NoTime::NoProcess)?;
    let time = process.time(jar, place.method, place.altitude).map_err(|why| match why {
        NoRecipeTime::JarTooLarge(jar) => NoTime::Recipe(Box::new(jar_too_large(process, jar))),
        other => NoTime::Recipe(Box::new(no_recipe_time(other))),
    })?;
    match at_pounds(&[time.option], place.psi) {
        Some(option) => Ok(Need { jar, least: option.minutes, most: option.minutes }),
        None => Err(NoTime::TooFewPounds(vec![time.option])),
    }
}

pub(super) fn no_recipe_time(why: NoRecipeTime) -> Finding {
    let finding = Finding::new(
        Code::NoTestedProcess,
        format!("{}.", capital(&why.to_string())),
        "A recipe has the time printed with it, and no other.",
        if why.is_untold() {
            "Look on the page for a table of minutes to add, or ask your local extension office; until then keep the jars in \
             the refrigerator or freeze them."
        } else {
            "Heat it as the recipe says; where its table ends, keep the jars in the refrigerator or freeze them."
        },
        Source::copy_of_recipe(),
    );
    if why.is_untold() { finding.untold() } else { finding }
}

/// The tested time over every pack and medium that fits what was said.
fn need(
    product: Product,
    medium: Option<Medium>,
    pack: Option<Pack>,
    place: &Place,
    jar: JarSize,
) -> Result<Need, NoTime> {
    let media: Vec<Option<Medium>> = match (product, medium) {
        (Product::Whole, None) => Medium::ALL.iter().copied().map(Some).collect(),
        (Product::Whole, given) => vec![given],
        _ => vec![None],
    };
    let packs = pack.map_or_else(|| Pack::ALL.to_vec(), |pack| vec![pack]);
    let (mut times, mut refusals, mut pressures) = (Vec::new(), Vec::new(), Vec::new());
    for medium in media {
        for pack in &packs {
            let query =
                Query { product, medium, pack: *pack, method: place.method, jar, altitude: place.altitude };
            match process::look_up(&query) {
                Ok(tested) => match at_pounds(&tested.options, place.psi) {
                    Some(option) => times.push(option.minutes),
                    None => pressures.extend(tested.options),
                },
                Err(refusal) => refusals.push(refusal),
            }
        }
    }
    match (times.iter().min(), times.iter().max()) {
        (Some(least), Some(most)) => Ok(Need { jar, least: *least, most: *most }),
        _ if !pressures.is_empty() => Err(NoTime::TooFewPounds(pressures)),
        // A process that exists but is too long for steam says more than a pack that was never tested.
        _ => Err(NoTime::Refused(
            refusals
                .iter()
                .find(|refusal| refusal.code != RefusalCode::NoTestedProcess)
                .or_else(|| refusals.first())
                .cloned()
                .unwrap_or_else(|| unreachable!("every combination is either tested or refused")),
        )),
    }
}

/// The time that other jars in the load need; `None` when nobody can tell.
fn other_need(other: &OtherJars, place: &Place) -> Option<f64> {
    let looked_up = other
        .product
        .zip(other.jar)
        .and_then(|(product, jar)| need(product, other.medium, other.pack, place, jar).ok());
    looked_up.map(|need| f64::from(need.most.0)).or_else(|| other.minutes.map(|given| given.get::<minute>()))
}

/// Whether there are other jars in the load whose time nobody can tell.
pub(super) fn unknown_others(case: &Case) -> bool {
    let place = Place::of(case);
    place.is_some_and(|place| case.load.iter().any(|other| other_need(other, &place).is_none()))
}

fn not_processed() -> Finding {
    Finding::new(
        Code::NotProcessed,
        "The filled jars are not processed.",
        "A lid that pulls down on hot food has killed nothing: turning jars over, the oven or a hot fill are not a process.",
        "Process them in boiling water, steam or under pressure, or refrigerate and eat within days.",
        Source::usda_guide_1(),
    )
}

fn altitude_missing() -> Finding {
    Finding::new(
        Code::AltitudeMissing,
        "The altitude is not known.",
        "Water boils cooler the higher you are, and every time depends on it.",
        "Find it under Kitchen: by place, by a boil test, or from a map.",
        Source::usda_guide_3(),
    )
    .with_fix(Fix::FindAltitude)
    .untold()
}

fn product_missing() -> Finding {
    Finding::new(
        Code::NoTestedProcess,
        "The product is not named.",
        "Every time belongs to one product, packed in one way.",
        "Say what the tomatoes became.",
        Source::usda_guide_3(),
    )
    .untold()
}

fn medium_missing(own: Need) -> Finding {
    Finding::new(
        Code::MediumMissing,
        format!(
            "What do the tomatoes lie in? It decides between {} and {} minutes.",
            own.least.0, own.most.0
        ),
        "Whole tomatoes without added liquid, or in juice, heat through far more slowly than in water.",
        "Say water, juice or no liquid.",
        Source::usda_guide_3(),
    )
}

fn refused(refusal: Refusal) -> Finding {
    let steam = refusal.code == RefusalCode::TimeOverSteamLimit;
    let code = if steam { Code::SteamLimit } else { Code::NoTestedProcess };
    let source = if steam { Source::steam_guidance() } else { Source::usda_guide_3() };
    let why = "A time was only ever tested for one product, pack, jar and method; Bodega never makes one up.";
    let finding = Finding::new(code, refusal.message, why, refusal.instead.join(" "), source);
    if steam { finding.with_fix(Fix::UseBoilingWater) } else { finding }
}

fn pounds_short(place: &Place, options: Vec<ProcessOption>) -> Finding {
    let pairs: Vec<String> = options
        .iter()
        .map(|option| format!("{} lb for {} min", option.psi.unwrap_or_default(), option.minutes.0))
        .collect();
    Finding::new(
        Code::ProcessShort,
        format!(
            "{} lb is too little {}: it takes {}.",
            place.psi.unwrap_or_default(),
            place.says(),
            pairs.join(" or ")
        ),
        "The higher the kitchen, the less heat the same pounds give; minutes below the tested pressure do not count.",
        "Raise the pressure to a tested one and count its full time from there.",
        Source::usda_guide_3(),
    )
    .with_fix(Fix::UsePressure { options })
}

fn minutes_short(case: &Case, own: Need, others: f64, place: &Place) -> Vec<Finding> {
    let Some(given) = case.minutes.map(|given| given.get::<minute>()) else { return Vec::new() };
    let mut found = Vec::new();
    if given + SLACK_MIN < f64::from(own.least.0) {
        let from = if place.method.is_pressure() {
            "the moment the pressure is up"
        } else {
            "the full rolling boil"
        };
        found.push(
            Finding::new(
                Code::ProcessShort,
                format!(
                    "{given:.0} min is too short: {} of this needs {} {}.",
                    with_article(own.jar.label()),
                    own.least.0,
                    place.says()
                ),
                "The middle of the jar is the last to get hot. The time depends on product, pack, what the fruit lies \
                 in, jar and altitude; change one and it no longer holds.",
                format!("Count {} minutes from {from}.", own.least.0),
                Source::usda_guide_3(),
            )
            .with_fix(Fix::RaiseTime { minutes: own.least }),
        );
    }
    if given + SLACK_MIN < others {
        found.push(mixed_short(given, others));
    }
    found
}

fn mixed_short(given: f64, others: f64) -> Finding {
    Finding::new(
        Code::MixedLoadShort,
        format!("{given:.0} min is too short for the other jars in the load: they need {others:.0}."),
        "Everything in a canner gets the longest time: lifting the short ones out kills the boil for the rest.",
        format!("Give the whole load {others:.0} minutes, or run the long ones in a load of their own."),
        Source::usda_guide_1(),
    )
}

/// A log of a boil, read in the order of its minutes.
struct Stretches {
    /// Minutes of each stretch that ended, in turn; a second end after an end is a stretch of none.
    ended: Vec<f64>,
    lost: bool,
    /// How many of them had ended when the canner last ran dry; it was filled anew after that.
    dry: Option<usize>,
    runs_on: bool,
}

fn stretches(log: &[LogLine]) -> Stretches {
    let mut in_order: Vec<&LogLine> = log.iter().collect();
    in_order.sort_by(|a, b| a.at.get::<minute>().total_cmp(&b.at.get::<minute>()));
    let (mut since, mut ended, mut lost, mut dry) = (None, Vec::new(), false, None);
    for line in in_order {
        let at = line.at.get::<minute>();
        match line.event {
            LogEvent::In => {}
            LogEvent::Boil => since = since.or(Some(at)),
            LogEvent::Lost | LogEvent::Dry | LogEvent::End => {
                lost |= line.event != LogEvent::End;
                ended.push(since.take().map_or(0.0, |start| at - start));
                if line.event == LogEvent::Dry {
                    dry = Some(ended.len());
                }
            }
        }
    }
    Stretches { ended, lost, dry, runs_on: since.is_some() }
}

/// What a log of a boil says once it is over: the longest unbroken boil in minutes, and whether one was lost. `None` while
/// the boil still runs, or when nothing began.
fn longest_stretch(log: &[LogLine]) -> Option<(f64, Option<Loss>)> {
    let Stretches { ended, lost, dry, runs_on } = stretches(log);
    let loss = match dry {
        Some(_) => Some(Loss::RanDry),
        None => lost.then_some(Loss::Fell),
    };
    (!runs_on && !ended.is_empty()).then(|| (ended.into_iter().fold(0.0, f64::max), loss))
}

/// How a boil was lost.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Loss {
    /// It fell.
    Fell,
    /// The canner ran dry.
    RanDry,
}

/// Minutes of steam in all since the canner was last filled, stretch after stretch, until one was as long as it has to be: what runs on after that harms nothing.
fn steamed_in_all(log: &[LogLine], needed: f64) -> f64 {
    let Stretches { ended, dry, .. } = stretches(log);
    let ended = &ended[dry.unwrap_or(0)..];
    let until =
        ended.iter().position(|stretch| stretch + SLACK_MIN >= needed).map_or(ended.len(), |full| full + 1);
    ended[..until].iter().map(|stretch| stretch.min(needed)).sum()
}

/// A steam canner holds water for so many minutes and cannot be topped up: begun again, they add up. Source: university extension
/// guidance on atmospheric steam canners, 2015, from memory.
fn steam_gone(case: &Case, needed: f64) -> Option<Finding> {
    let limit = f64::from(STEAM_LIMIT.0);
    let all = steamed_in_all(&case.boil, needed);
    (case.heating == Some(Heating::AtmosphericSteam) && all > limit + SLACK_MIN).then(|| {
        Finding::new(
            Code::SteamLimit,
            format!("The canner steamed for {all:.0} minutes in all; its water lasts for {limit:.0}."),
            "A steam canner cannot be topped up: once its water is gone the jars stand in hot air, which heats far less.",
            "Begin again with a full base of water, or process the jars in boiling water.",
            Source::steam_guidance(),
        )
        .with_fix(Fix::UseBoilingWater)
    })
}

/// The words of a process for its log.
struct LogWords {
    was_lost: &'static str,
    lasted: &'static str,
    counts: &'static str,
    back: &'static str,
    again: &'static str,
}

const fn log_words(method: Method) -> LogWords {
    match method {
        Method::BoilingWater => LogWords {
            was_lost: "The boil was lost",
            lasted: "The boil lasted",
            counts: "Only minutes at a full rolling boil count, without a break, from the moment it boils.",
            back: "Bring the boil back",
            again: "Boil",
        },
        Method::AtmosphericSteam => LogWords {
            was_lost: "The steam was lost",
            lasted: "Full steam lasted",
            counts: "Only minutes at full steam count, without a break, from the moment it streams out.",
            back: "Bring the steam back",
            again: "Steam",
        },
        Method::PressureDial | Method::PressureWeighted => LogWords {
            was_lost: "The pressure was lost",
            lasted: "The pressure held for",
            counts: "Only minutes at the full pressure count, without a break, from the moment it is up.",
            back: "Bring the pressure back",
            again: "Hold the pressure for",
        },
    }
}

fn boil_short(case: &Case, own: Need, others: f64, method: Method) -> Option<Finding> {
    let (stretch, lost) = longest_stretch(&case.boil)?;
    let needed = f64::from(own.least.0).max(others);
    if stretch + SLACK_MIN >= needed {
        return None;
    }
    let words = log_words(method);
    if let Some(loss) = lost {
        let was_lost = if loss == Loss::RanDry { "The canner ran dry" } else { words.was_lost };
        return Some(
            Finding::new(
                Code::BoilLost,
                format!(
                    "{was_lost}, and the longest unbroken stretch was {stretch:.0} of {needed:.0} minutes.",
                ),
                "Heat that reached the middle of the jar is gone; minutes before and after a break do not add up.",
                format!("{} and count the full {needed:.0} minutes again from zero.", words.back),
                Source::usda_guide_1(),
            )
            .with_fix(Fix::BringBackBoil),
        );
    }
    // The plan's own minutes may have said so already.
    let said = |needed: f64| case.minutes.is_some_and(|given| given.get::<minute>() + SLACK_MIN < needed);
    if stretch + SLACK_MIN >= f64::from(own.least.0) {
        return (!said(others)).then(|| mixed_short(stretch, others));
    }
    (!said(f64::from(own.least.0))).then(|| lasted_short(stretch, needed, &words))
}

fn lasted_short(held: f64, needed: f64, words: &LogWords) -> Finding {
    Finding::new(
        Code::ProcessShort,
        format!("{} {held:.0} of {needed:.0} minutes.", words.lasted),
        words.counts,
        format!(
            "{} the full {needed:.0} minutes again, or refrigerate the jars and eat them within days.",
            words.again
        ),
        Source::usda_guide_1(),
    )
    .with_fix(Fix::BringBackBoil)
}

/// A clock that ended before the time its load was planned for, whatever the table asks.
pub(super) fn time_not_full(held: Minutes, needed: Minutes, method: Method) -> Finding {
    lasted_short(f64::from(held.0), f64::from(needed.0), &log_words(method))
}
