//! Whether the time, the method and the boil reach the tested process.

use uom::si::time::minute;

use super::case::{Case, Heating, LogEvent, LogLine, OtherJars};
use super::{Code, Finding, Fix};
use crate::jars::size::JarSize;
use crate::kitchen::altitude::Altitude;
use crate::measures::moment::Minutes;
use crate::measures::words::with_article;
use crate::tables::process::{self, Medium, Method, Pack, Product, Query, Refusal, RefusalCode};
use crate::tables::source::Source;

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

pub(super) fn judge(case: &Case) -> Vec<Finding> {
    let mut found = Vec::new();
    if case.heating == Some(Heating::None) {
        found.push(not_processed());
    }
    if case.altitude.is_none() {
        found.push(altitude_missing());
    }
    if case.product.is_none() {
        found.push(product_missing());
    }
    let method = case.heating.map_or(Some(Method::BoilingWater), Heating::method);
    let (Some(method), Some(altitude), Some(product)) = (method, case.altitude, case.product) else {
        return found;
    };
    let mut needs = Vec::new();
    for (jar, _) in case.sizes() {
        match need(product, case.medium, case.pack, method, jar, altitude) {
            Ok(need) => needs.push(need),
            Err(refusal) if found.iter().any(|finding: &Finding| finding.message == refusal.message) => {}
            Err(refusal) => found.push(refused(refusal)),
        }
    }
    let Some(own) = needs.into_iter().max_by_key(|need| need.least) else { return found };
    if own.least < own.most && case.minutes.is_none_or(|given| given.get::<minute>() < f64::from(own.most.0))
    {
        found.push(medium_missing(own));
    }
    let others = case.load.iter().filter_map(|other| other_need(other, method, altitude)).fold(0.0, f64::max);
    found.extend(minutes_short(case, own, others, altitude));
    found.extend(boil_short(case, own, others));
    found
}

/// The tested time over every pack and medium that fits what was said; under pressure the shortest option, because the
/// gauge is not part of the question.
fn need(
    product: Product,
    medium: Option<Medium>,
    pack: Option<Pack>,
    method: Method,
    jar: JarSize,
    altitude: Altitude,
) -> Result<Need, Refusal> {
    let media: Vec<Option<Medium>> = match (product, medium) {
        (Product::Whole, None) => Medium::ALL.iter().copied().map(Some).collect(),
        (Product::Whole, given) => vec![given],
        _ => vec![None],
    };
    let packs = pack.map_or_else(|| Pack::ALL.to_vec(), |pack| vec![pack]);
    let mut times = Vec::new();
    let mut refusals = Vec::new();
    for medium in media {
        for pack in &packs {
            match process::look_up(&Query { product, medium, pack: *pack, method, jar, altitude }) {
                Ok(tested) => times.extend(tested.options.iter().map(|option| option.minutes).min()),
                Err(refusal) => refusals.push(refusal),
            }
        }
    }
    match (times.iter().min(), times.iter().max()) {
        (Some(least), Some(most)) => Ok(Need { jar, least: *least, most: *most }),
        // A process that exists but is too long for steam says more than a pack that was never tested.
        _ => Err(refusals
            .iter()
            .find(|refusal| refusal.code != RefusalCode::NoTestedProcess)
            .or_else(|| refusals.first())
            .cloned()
            .unwrap_or_else(|| unreachable!("every combination is either tested or refused"))),
    }
}

fn other_need(other: &OtherJars, method: Method, altitude: Altitude) -> Option<f64> {
    let looked_up = other
        .product
        .zip(other.jar)
        .and_then(|(product, jar)| need(product, other.medium, other.pack, method, jar, altitude).ok());
    looked_up.map(|need| f64::from(need.most.0)).or_else(|| other.minutes.map(|given| given.get::<minute>()))
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
}

fn product_missing() -> Finding {
    Finding::new(
        Code::NoTestedProcess,
        "The product is not named.",
        "Every time belongs to one product, packed in one way.",
        "Say what the tomatoes became.",
        Source::usda_guide_3(),
    )
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

fn minutes_short(case: &Case, own: Need, others: f64, altitude: Altitude) -> Vec<Finding> {
    let Some(given) = case.minutes.map(|given| given.get::<minute>()) else { return Vec::new() };
    let mut found = Vec::new();
    if given + SLACK_MIN < f64::from(own.least.0) {
        found.push(
            Finding::new(
                Code::ProcessShort,
                format!(
                    "{given:.0} min is too short: {} of this needs {} at {:.0} ft.",
                    with_article(own.jar.label()),
                    own.least.0,
                    altitude.feet()
                ),
                "The middle of the jar is the last to get hot. The time depends on product, pack, what the fruit lies \
                 in, jar and altitude; change one and it no longer holds.",
                format!("Count {} minutes from the full rolling boil.", own.least.0),
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

/// The last unbroken boil of a log: its minutes, once it has ended, and whether a boil was lost before or after it.
fn last_stretch(log: &[LogLine]) -> (Option<f64>, bool) {
    let mut since = None;
    let mut stretch = None;
    let mut lost = false;
    let mut in_order: Vec<&LogLine> = log.iter().collect();
    in_order.sort_by(|a, b| a.at.get::<minute>().total_cmp(&b.at.get::<minute>()));
    for line in in_order {
        let at = line.at.get::<minute>();
        match line.event {
            LogEvent::In => {}
            LogEvent::Boil => {
                if since.is_none() {
                    since = Some(at);
                    stretch = None;
                }
            }
            LogEvent::Lost => {
                lost = true;
                since = None;
                stretch = Some(0.0);
            }
            LogEvent::End => {
                stretch = Some(since.take().map_or(0.0, |start| at - start));
            }
        }
    }
    (stretch, lost)
}

fn boil_short(case: &Case, own: Need, others: f64) -> Option<Finding> {
    let (stretch, lost) = last_stretch(&case.boil);
    let stretch = stretch?;
    let needed = f64::from(own.least.0).max(others);
    if stretch + SLACK_MIN >= needed {
        return None;
    }
    if lost {
        return Some(
            Finding::new(
                Code::BoilLost,
                format!("The boil was lost, and the last unbroken boil lasted {stretch:.0} of {needed:.0} minutes."),
                "Heat that reached the middle of the jar is gone; minutes before and after a break do not add up.",
                format!("Bring the boil back and count the full {needed:.0} minutes again from zero."),
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
    (!said(f64::from(own.least.0))).then(|| {
        Finding::new(
            Code::ProcessShort,
            format!("The boil lasted {stretch:.0} of {needed:.0} minutes."),
            "Only minutes at a full rolling boil count, without a break, from the moment it boils.",
            format!(
                "Boil the full {needed:.0} minutes again, or refrigerate the jars and eat them within days."
            ),
            Source::usda_guide_1(),
        )
        .with_fix(Fix::BringBackBoil)
    })
}
