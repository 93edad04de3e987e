//! Jars, lids, headspace and temperatures.

use bodega_model::jars::kinds::{JarKind, LidState};
use bodega_model::jars::size::{JarSize, TableJar};
use bodega_model::judge::finding::{Code, Finding, Severity};
use bodega_model::measures::words::{short, with_article};
use bodega_model::published::source::Source;
use bodega_model::tables::process::{Caution, Product, headspace as tested_headspace};
use uom::si::length::inch;
use uom::si::thermodynamic_temperature::degree_celsius;

use super::case::{Case, CaseJar};

/// What a measuring eye may miss, in inches: a sixteenth.
const EYE_IN: f64 = 1.0 / 16.0;
/// Most headspace in sauce: many leave ½ in. Common practice, no source.
const SAUCE_MOST_IN: f64 = 0.5;
/// Most that jar, food and water may differ: about 90 °F. Common practice, no source.
pub const THERMAL_GAP_K: f64 = 50.0;

pub(super) fn judge(case: &Case) -> Vec<Finding> {
    [
        none(case),
        kinds(case),
        lids(case),
        other_lids(case),
        rims(case),
        metric(case),
        next_size_up(case),
        skins(case),
        headspace(case),
        gap(case),
    ]
    .into_iter()
    .flatten()
    .collect()
}

fn none(case: &Case) -> Option<Finding> {
    (case.sizes().next().is_none()).then(|| {
        Finding::new(
            Code::NoTestedProcess,
            "No jars are named.",
            "The time and the acid depend on the jar.",
            "Say which jars and how many.",
            Source::usda_guide_3(),
        )
        .untold()
    })
}

/// A jar that is not a canning jar: fragile where it is tolerated, else unsuited.
fn kinds(case: &Case) -> Option<Finding> {
    let is_fragile = |line: &CaseJar| {
        line.kind == Some(JarKind::Packer)
            && matches!(line.jar, JarSize::Pint | JarSize::Quart)
            && !case.is_pressure()
    };
    let others = || {
        let named = |line: &&CaseJar| line.kind.is_some_and(|kind| kind != JarKind::Mason);
        case.jars.iter().flatten().filter(named)
    };
    if let Some(kind) = others().find(|line| !is_fragile(line)).and_then(|line| line.kind) {
        let why = match kind {
            JarKind::WireBail => {
                "Some schools use clip-top jars with their own rubbers; no tested process here covers them."
            }
            JarKind::Packer => {
                "Such glass is thinner: it is tolerated in pints and quarts, in boiling water or steam, and never \
                 under pressure."
            }
            JarKind::Antique | JarKind::Other | JarKind::Mason => {
                "Their glass and necks were not made for the heat and for the lid; they break and fail to seal."
            }
        };
        return Some(Finding::new(
            Code::JarUnsuited,
            format!("There is {} in the batch.", with_article(kind.label())),
            why,
            "Use canning jars with two-piece lids.",
            Source::usda_guide_1(),
        ));
    }
    let fragile = others().next()?.kind?;
    Some(Finding::new(
        Code::JarFragile,
        format!("There is {} in the batch.", with_article(fragile.label())),
        "Its glass is thinner and its rim narrower: more of them break, and more lids fail.",
        "Use a new two-piece lid, no metal tools inside, no sudden heat, and look at its seal with care.",
        Source::usda_guide_1(),
    ))
}

/// Lids that are not the tested two-piece ones. Common practice, no source: the maker's word decides.
fn other_lids(case: &Case) -> Option<Finding> {
    let is_other = |line: &&CaseJar| matches!(line.lid, Some(LidState::OnePiece | LidState::Reusable));
    let lid = case.jars.iter().flatten().find(is_other)?.lid?;
    Some(Finding::new(
        Code::LidOther,
        format!("The lids are {}.", lid.label()),
        "The published processes were tested with two-piece metal lids; whether another one seals by itself is its maker's word.",
        "Follow what came with the lids, and look at every seal with care.",
        Source::common_practice(),
    ))
}

/// Skins on what was tested without. Source: USDA Guide 3, which peels whole and crushed tomatoes, from memory.
fn skins(case: &Case) -> Option<Finding> {
    let peeled = matches!(case.product, Some(Product::Whole | Product::Crushed));
    (peeled && case.skins_on == Some(true)).then(|| {
        Finding::new(
            Code::SkinsOn,
            "The skins were left on.",
            "Whole and crushed tomatoes were tested peeled: skins carry germs, and nobody tested the time with them.",
            "Peel the next ones, or mill them to juice or sauce.",
            Source::usda_guide_3(),
        )
    })
}

fn lids(case: &Case) -> Option<Finding> {
    let jars = || case.jars.iter().flatten().filter(|line| line.lid == Some(LidState::Reused));
    if jars().any(|line| line.kind == Some(JarKind::Packer)) {
        return Some(Finding::new(
            Code::JarUnsuited,
            "A used lid is on a mayonnaise-type jar.",
            "Such a jar is tolerated with a new two-piece lid alone: its rim is narrow, and a used lid has taken another rim's print.",
            "Put new two-piece lids on, or use canning jars.",
            Source::usda_guide_1(),
        ));
    }
    case.jars.iter().flatten().any(|line| line.lid == Some(LidState::Reused)).then(|| {
        Finding::new(
            Code::LidReused,
            "A used lid is on a jar.",
            "The compound of a lid takes the print of one rim; a second time it often fails.",
            "Put a new lid on. Rings may be used again.",
            Source::usda_guide_1(),
        )
    })
}

fn rims(case: &Case) -> Option<Finding> {
    case.jars.iter().flatten().any(|line| line.nicked == Some(true)).then(|| {
        Finding::new(
            Code::RimNicked,
            "A rim has a nick.",
            "The lid lies on the rim alone: where it is nicked, air and what lives in it get in.",
            "Fill another jar, and keep this one for what is not canned.",
            Source::usda_guide_1(),
        )
    })
}

fn metric(case: &Case) -> Option<Finding> {
    let (jar, _) = case.sizes().find(|(jar, _)| matches!(jar.table_jar(), TableJar::CommonPractice(_)))?;
    Some(Finding::new(
        Code::LitreAsQuart,
        Caution::MetricJar(jar).to_string(),
        "A larger jar heats through more slowly, and nobody has tested by how much.",
        "Decide for yourself, or fill quarts and pints.",
        Source::common_practice(),
    ))
}

/// Jars between two sizes: they get the time of the larger, which is longer than they need.
fn next_size_up(case: &Case) -> Option<Finding> {
    let (jar, timed_as) = case.sizes().find_map(|(jar, _)| match jar.table_jar() {
        TableJar::NextSizeUp(timed_as) if case.recipe.is_none() => Some((jar, timed_as)),
        _ => None,
    })?;
    Some(Finding::new(
        Code::NextSizeUp,
        Caution::SmallJar { jar, timed_as }.to_string(),
        "A smaller jar heats through sooner, so the time of a larger one is never too short.",
        "Nothing; the food cooks a little longer.",
        Source::common_practice(),
    ))
}

fn headspace(case: &Case) -> Option<Finding> {
    let given = case.headspace?.get::<inch>();
    let published = match &case.recipe {
        Some(recipe) => recipe.process.as_ref()?.headspace_in,
        None => tested_headspace(case.product?)?.get::<inch>(),
    };
    let most = if case.product == Some(Product::Sauce) { SAUCE_MOST_IN } else { published };
    let (message, why, severity) = if given < published - EYE_IN {
        ("too little", "The food swells, runs under the lid and keeps it from sealing.", Severity::Warn)
    } else if given > most + EYE_IN {
        (
            "too much",
            "The air may not be driven out in the tested time, and the lid seals badly.",
            Severity::Note,
        )
    } else {
        return None;
    };
    let finding = Finding::new(
        Code::Headspace,
        format!("{} in of headspace is {message}: {published} in was tested.", short(given)),
        why,
        "Set it right before the lid goes on.",
        Source::usda_guide_3(),
    );
    Some(finding.lighter(severity))
}

fn gap(case: &Case) -> Option<Finding> {
    let temperatures = &case.temperatures;
    let given: Vec<f64> = [temperatures.jar, temperatures.food, temperatures.water]
        .into_iter()
        .flatten()
        .map(|temperature| temperature.get::<degree_celsius>())
        .collect();
    let (coldest, hottest) =
        given.iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), t| (low.min(*t), high.max(*t)));
    let gap = hottest - coldest;
    (gap > THERMAL_GAP_K).then(|| {
        Finding::new(
            Code::ThermalGap,
            format!("Jar, food and water are {gap:.0} °C ({:.0} °F) apart.", gap * 1.8),
            "Glass breaks when hot meets cold: keep them within about 50 °C (90 °F).",
            "Warm the jars in hot water, or let the food or the canner's water come nearer.",
            Source::common_practice(),
        )
    })
}
