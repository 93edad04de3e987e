//! Every text that the core can say, in one file to be read with a canner's ear.

use std::collections::BTreeSet;
use std::fmt::Write;

use crate::recipe_fit;
use bodega_core::canner::moment::{Lacks, Look, Touch, said};
use bodega_core::canner::probe::Suggestion;
use bodega_core::canner::room::NoRoom;
use bodega_core::counter::{Cooking, of_canner, of_kettle, of_lids, of_towel};
use bodega_core::day::overnight::advice;
use bodega_core::figures::{FigureName, KnownFigure, known};
use bodega_core::jars::bench::{JarStep, bench_steps, may_tick, state_of};
use bodega_core::kettle::goal::{Timer, hold_between};
use bodega_core::plan::checklist::{Sheet, Thawed, steps, wash_up};
use bodega_core::plan::split::Resource;
use bodega_core::shelf::pantry::BEFORE_OPENING;
use bodega_core::towel::moment::{TowelFigure, lids, sayings};
use bodega_core::towel::seal::{NoRescue, Wrong, window};
use bodega_core::towel::ways_out::{alarm, ways_out};
use bodega_model::canner::clock::BoilClock;
use bodega_model::canner::events::{BoilEvent, Happened, OutOfOrder};
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::Spoons;
use bodega_model::judge::standing::JarStanding;
use bodega_model::kettle::words::TargetKind;
use bodega_model::kitchen::altitude::{Altitude, NotBoiling};
use bodega_model::kitchen::ways::HeatIn;
use bodega_model::ledger::food::Food;
use bodega_model::measures::ids::LoadId;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::units::celsius;
use bodega_model::measures::vocabulary::UnknownWord;
use bodega_model::plan::making::Making;
use bodega_model::plan::making::Rest;
use bodega_model::plan::making::Thickness;
use bodega_model::records::jar::{Jar, JarRecord};
use bodega_model::records::load::CannerLoad;
use bodega_model::records::towel::{Towel, TowelJar};
use bodega_model::shelf::leaving::{Discard, Leaving};
use bodega_model::tables::process::{
    Caution, Medium, MediumError, Method, Pack, Product, Query, check_medium, look_up,
};
use bodega_model::towel::seal::{LidVerdict, Rescue};

use super::judge::{every_mistake_judged, outlived_a_light_frost};
use super::kitchen::{START, at, jar, load, on_the_towel};

/// A heading and its lines, each once, in the order they first come.
fn part(text: &mut String, heading: &str, lines: impl IntoIterator<Item = String>) {
    writeln!(text, "\n# {heading}").unwrap();
    let mut seen = BTreeSet::new();
    for line in lines.into_iter().filter(|line| seen.insert(line.clone())) {
        writeln!(text, "{line}").unwrap();
    }
}

fn findings() -> Vec<String> {
    let text = |finding: bodega_model::judge::finding::Finding| {
        format!(
            "[{} {}] {}\n    {}\n    {}",
            finding.severity.word(),
            finding.code.word(),
            finding.message,
            finding.why,
            finding.do_now
        )
    };
    every_mistake_judged().into_iter().chain([outlived_a_light_frost()]).map(text).collect()
}

fn queries() -> impl Iterator<Item = Query> {
    let media = [None, Some(Medium::Water), Some(Medium::Juice), Some(Medium::None)];
    let feet = [-1501.0, 0.0, 2500.0, 5000.0, 7000.0, 9000.0, 10_001.0];
    Product::ALL.iter().flat_map(move |product| {
        media.into_iter().filter(move |medium| check_medium(*product, *medium).is_ok()).flat_map(
            move |medium| {
                Pack::ALL.iter().flat_map(move |pack| {
                    Method::ALL.iter().flat_map(move |method| {
                        JarSize::ALL.iter().flat_map(move |jar| {
                            feet.into_iter().map(move |feet| Query {
                                product: *product,
                                medium,
                                pack: *pack,
                                method: *method,
                                jar: *jar,
                                altitude: Altitude::from_feet(feet).unwrap(),
                            })
                        })
                    })
                })
            },
        )
    })
}

fn refusals() -> Vec<String> {
    let refused = queries().filter_map(|query| look_up(&query).err());
    refused.map(|refusal| format!("{} -> {}", refusal.message, refusal.instead.join(" | "))).collect()
}

fn cautions() -> Vec<String> {
    use bodega_core::canner::pot::Crowding::{BoilsOver, LowCover, TooMany, TooTall};
    queries()
        .filter_map(|query| look_up(&query).ok())
        .flat_map(|tested| tested.cautions)
        .map(|caution: Caution| caution.to_string())
        .chain([TooMany, TooTall, BoilsOver, LowCover].map(|crowding| crowding.to_string()))
        .collect()
}

/// A load of a kind of canner at every phase it can reach.
fn phases(method: Method) -> Vec<(&'static str, CannerLoad, i64)> {
    use BoilEvent::{BoilLost, Boils, HeatOff, JarsIn, Lifted, PressureDown, Unwatched, Vents};
    let of = |events: &[(BoilEvent, i64)]| load(method, 50, vec![jar(1, 1, JarSize::Quart)], events);
    let mut all = vec![("waiting", of(&[]), 0), ("heating", of(&[(JarsIn, 0)]), 5)];
    if method.is_pressure() {
        let vents = [(JarsIn, 0), (Vents, 10)];
        let up = [(JarsIn, 0), (Vents, 10), (Boils, 22)];
        let off = [(JarsIn, 0), (Vents, 10), (Boils, 22), (HeatOff, 72)];
        let down = [(JarsIn, 0), (Vents, 10), (Boils, 22), (HeatOff, 72), (PressureDown, 100)];
        let short = [(JarsIn, 0), (Vents, 10), (Boils, 22), (HeatOff, 40), (PressureDown, 60)];
        all.extend([
            ("venting", of(&vents), 15),
            ("vented", of(&vents), 20),
            ("counting", of(&up), 30),
            ("time up", of(&up), 72),
            ("lost", of(&[up[0], up[1], up[2], (BoilLost, 40)]), 41),
            ("unwatched", of(&[up[0], up[1], up[2], (Unwatched, 40)]), 41),
            ("dropping", of(&off), 80),
            ("resting", of(&down), 105),
            ("rested", of(&down), 110),
            ("dropping, short", of(&short[..4]), 45),
            ("rested, short", of(&short), 110),
            ("lifted, short", of(&[short[0], short[1], short[2], short[3], short[4], (Lifted, 70)]), 71),
            ("lifted", of(&[down[0], down[1], down[2], down[3], down[4], (Lifted, 115)]), 116),
        ]);
    } else {
        let boils = [(JarsIn, 0), (Boils, 20)];
        let off = [(JarsIn, 0), (Boils, 20), (HeatOff, 70)];
        all.extend([
            ("counting", of(&boils), 30),
            ("time up", of(&boils), 70),
            ("lost", of(&[boils[0], boils[1], (BoilLost, 40)]), 41),
            ("unwatched", of(&[boils[0], boils[1], (Unwatched, 40)]), 41),
            ("resting", of(&off), 72),
            ("rested", of(&off), 75),
            ("resting, short", of(&[boils[0], boils[1], (HeatOff, 40)]), 41),
            ("rested, short", of(&[boils[0], boils[1], (HeatOff, 40)]), 75),
            ("lifted, short", of(&[boils[0], boils[1], (HeatOff, 40), (Lifted, 46)]), 47),
            ("lifted", of(&[off[0], off[1], off[2], (Lifted, 76)]), 77),
        ]);
    }
    all
}

fn moments() -> Vec<String> {
    let of = |method: Method| {
        phases(method).into_iter().map(move |(phase, load, minute)| {
            let come_up = (phase == "heating").then(|| at(20).since(at(0)));
            let (here, then) = said(&load, come_up, at(minute));
            let words = |touch: &Touch| match touch.lacks {
                None => touch.says.to_owned(),
                Some(Lacks::Until { ends }) => {
                    format!("{} (lacks until minute {})", touch.says, ends.since_ms(START) / 60_000)
                }
                Some(Lacks::All { minutes }) => format!("{} (lacks {} min)", touch.says, minutes.0),
            };
            let mains = here.touches.iter().filter(|touch| touch.look == Look::Main).count();
            assert!(mains <= 1, "{method}, {phase}: one touch leads, or none");
            let touches: Vec<String> = here.touches.iter().map(words).collect();
            let more = [here.good.as_deref(), here.mind, here.call].into_iter().flatten();
            let then = then.map(|then| format!(" => {}", then.words)).unwrap_or_default();
            let at =
                here.at.map(|at| format!(" at minute {}", at.since_ms(START) / 60_000)).unwrap_or_default();
            let state = [(here.boiling, " boiling"), (here.running, " running")];
            let state: String = state.iter().filter(|(is, _)| *is).map(|(_, word)| *word).collect();
            format!(
                "{method}, {phase}{state}{at}: {:?} {} [{}] {}{then}",
                here.figure,
                here.words,
                touches.join(" / "),
                more.collect::<Vec<_>>().join(" | ")
            )
        })
    };
    Method::ALL.iter().copied().flat_map(of).collect()
}

fn out_of_order() -> Vec<String> {
    let of = |method: Method| {
        phases(method).into_iter().flat_map(move |(phase, load, minute)| {
            let after = move |event: &BoilEvent| load.clock.after(*event, None, at(minute)).err();
            let refused: Vec<OutOfOrder> = BoilEvent::ALL.iter().filter_map(after).collect();
            refused.into_iter().map(move |refused| format!("{method}, {phase}: {refused}"))
        })
    };
    Method::ALL.iter().copied().flat_map(of).collect()
}

fn calls() -> Vec<String> {
    let mut all = Vec::new();
    for method in Method::ALL {
        for (_, load, minute) in phases(*method) {
            for suggests in [None, Some(Suggestion::Boils), Some(Suggestion::BoilLost)] {
                all.extend(of_canner(&load, suggests, true, at(minute)));
                all.extend(of_canner(&load, suggests, false, at(minute)));
            }
        }
    }
    for goal in TargetKind::ALL {
        for (since, reads) in [(None, None), (None, Some(90.0)), (Some(at(40)), Some(97.0))] {
            for (heat, is_one) in [(HeatIn::Fahrenheit, true), (HeatIn::Celsius, false)] {
                let timer = goal.starts_with().map(|_| Timer { minutes: 20.0, since });
                let name = "blue kettle".to_owned();
                let cooking = Cooking { name, goal: *goal, timer, finish: at(60), temp: reads.map(celsius) };
                all.extend(of_kettle(&cooking, hold_between(None), heat, is_one, at(0)));
            }
        }
    }
    all.push(of_lids(at(0)));
    all.extend(Wrong::ALL.iter().filter_map(|wrong| of_towel(*wrong, at(0))));
    all.into_iter().map(|call| format!("{}{}", call.text, if call.once { " (once)" } else { "" })).collect()
}

fn bench() -> Vec<String> {
    let mut jar = jar(3, 1, JarSize::Quart);
    let mut all =
        vec![state_of(&jar, &[]), may_tick(&jar, JarStep::Lid, false, &[]).unwrap_err().to_string()];
    jar.wants_salt = true;
    let steps: [fn(&mut Jar); 6] = [
        |jar| jar.acid = true,
        |jar| jar.salt = true,
        |jar| jar.filled = true,
        |jar| jar.bubbles = true,
        |jar| jar.rim = true,
        |jar| jar.lid = true,
    ];
    for step in steps {
        step(&mut jar);
        all.push(state_of(&jar, &[]));
    }
    all.extend(bench_steps(&[jar], &[]).iter().map(|step| format!("{}: {}", step.thing, step.all)));
    all
}

fn whereabouts() -> Vec<String> {
    let jar = on_the_towel();
    let mut all = vec![jar.whereabouts(None)];
    all.extend(LidVerdict::ALL.iter().flat_map(|verdict| {
        [false, true].map(|tidy| {
            let judged = JarRecord { verdict: Some(*verdict), tidy, ..jar.clone() };
            judged.whereabouts(None)
        })
    }));
    let mut change = |with: fn(&mut JarRecord)| {
        let mut other = jar.clone();
        with(&mut other);
        all.push(other.whereabouts(None));
    };
    change(|jar| jar.broke = true);
    change(|jar| jar.undosed = true);
    change(|jar| (jar.undosed, jar.verdict, jar.tidy) = (true, Some(LidVerdict::Holds), true));
    change(|jar| jar.rescue = Some(Rescue::Refrigerator));
    change(|jar| jar.rescue = Some(Rescue::Freezer));
    change(|jar| jar.lifted_at = None);
    change(|jar| {
        jar.lifted_at = None;
        jar.earlier_loads = vec![bodega_model::measures::ids::LoadId(9)];
    });
    change(|jar| jar.gone_how = Some(Leaving::Eaten));
    change(|jar| jar.gone_how = Some(Leaving::Given));
    change(|jar| jar.gone_how = Some(Leaving::Discarded));
    for why in Discard::ALL {
        let mut other = jar.clone();
        (other.gone_how, other.gone_why) = (Some(Leaving::Discarded), Some(*why));
        all.push(other.whereabouts(None));
    }
    all
}

/// Jars that something is wrong with: hot, cooled and late; all of them, some of them, one lid.
fn on_towels() -> Vec<String> {
    use BoilEvent::{Boils, HeatOff, JarsIn, Lifted};
    let towel = |verdict: Option<LidVerdict>| Towel {
        load_id: LoadId(1),
        code: "0904-1".to_owned(),
        product: Product::Whole,
        lifted_at: at(80),
        check_from: window(at(80)).0,
        check_by: window(at(80)).1,
        jars: [1, 2]
            .map(|number| TowelJar {
                product: Product::Whole,
                named: None,
                id: jar(number, 1, JarSize::Quart).id,
                batch: jar(number, 1, JarSize::Quart).batch,
                code: "0904-1".to_owned(),
                number,
                size: JarSize::Quart,
                liquid_lost: None,
                verdict: verdict.filter(|_| number == 1),
                second_look: None,
                judged_at: None,
                rescue: None,
                tidy: false,
                rescued_at: None,
                dosed: true,
                standing: JarStanding::CLEAR,
            })
            .to_vec(),
    };
    let undosed = |verdict, numbers: &[u32]| {
        let mut towel = towel(verdict);
        towel.jars.iter_mut().for_each(|jar| jar.dosed = !numbers.contains(&jar.number));
        towel
    };
    let boiled = |method, off: i64| {
        let events = [(JarsIn, 0), (Boils, 20), (HeatOff, off), (Lifted, 80)];
        let jars = vec![jar(1, 1, JarSize::Quart), jar(2, 1, JarSize::Quart)];
        load(method, 50, jars, &events)
    };
    let one_out = {
        let mut load = boiled(Method::BoilingWater, 70);
        load.clock = BoilClock::replay(
            Method::BoilingWater,
            Minutes(50),
            &[
                (JarsIn, 0, None),
                (Boils, 20, None),
                (BoilEvent::JarOut, 30, Some(load.jars[0].id)),
                (Boils, 31, None),
                (HeatOff, 81, None),
                (Lifted, 86, None),
            ]
            .map(|(event, minute, jar)| Happened { event, at: at(minute), jar }),
        );
        load
    };
    let of_two_sizes = {
        let mut load = boiled(Method::BoilingWater, 70);
        load.jars[1].size = JarSize::Pint;
        load
    };
    let mut all = Vec::new();
    for (name, towel, load) in [
        ("early heat off", towel(None), boiled(Method::BoilingWater, 40)),
        ("early heat off, steam", towel(None), boiled(Method::AtmosphericSteam, 40)),
        ("one out early", towel(None), one_out),
        ("nobody looked", towel(None), boiled(Method::BoilingWater, 70)),
        ("holds", towel(Some(LidVerdict::Holds)), boiled(Method::BoilingWater, 70)),
        ("failed", towel(Some(LidVerdict::Failed)), boiled(Method::BoilingWater, 70)),
        ("doubtful", towel(Some(LidVerdict::Doubtful)), boiled(Method::BoilingWater, 70)),
        ("broken", towel(Some(LidVerdict::Broken)), boiled(Method::BoilingWater, 70)),
        ("one undosed", undosed(Some(LidVerdict::Holds), &[1]), boiled(Method::BoilingWater, 70)),
        ("one undosed of two sizes", undosed(Some(LidVerdict::Holds), &[1]), of_two_sizes),
        ("all undosed", undosed(None, &[1, 2]), boiled(Method::BoilingWater, 70)),
        ("undosed and short", undosed(None, &[2]), boiled(Method::BoilingWater, 40)),
    ] {
        for (when, minute) in [("hot", 90), ("cooled", 300), ("late", 80 + 24 * 60 + 1)] {
            let said = ways_out(&towel, &load, at(minute));
            let is_processed = !said.iter().any(|way| way.wrong == Wrong::Unprocessed);
            let lids = lids(&towel, is_processed);
            let sayings = sayings(&towel, alarm(&towel, &said).as_ref(), &said, &lids);
            all.extend(sayings.iter().map(|said| {
                let figure = match &said.figure {
                    TowelFigure::Word { word } => word,
                    TowelFigure::Clock { .. } => "{clock}",
                };
                let unit = said.unit.as_ref().map(|unit| format!(", {unit}")).unwrap_or_default();
                format!("{name}, {when}: {figure}{unit}: {}", said.words)
            }));
            all.push(format!("{name}, {when}: {} to decide", said.len()));
            for way in &said {
                assert_eq!(way.at.is_some(), way.words.contains("{at}"), "{name}, {when}: {}", way.words);
            }
            all.extend(said.iter().map(|way| {
                let ways: Vec<&str> = way.ways.iter().map(|rescue| rescue.label()).collect();
                let cold = if way.asks_cold { " if kept cold" } else { "" };
                format!(
                    "{name}, {when}: {} of the jars: {} [{}{cold}]",
                    way.jars.len(),
                    way.words,
                    ways.join(" / ")
                )
            }));
        }
    }
    all
}

fn checklists() -> Vec<String> {
    let mut all = Vec::new();
    for (product, medium, pack) in queries().map(|query| (query.product, query.medium, query.pack)) {
        for (method, psi) in
            [(Method::BoilingWater, None), (Method::AtmosphericSteam, None), (Method::PressureDial, Some(11))]
        {
            for (agent, rest) in Agent::ALL.iter().zip([None, Some(Rest::Refrigerator), Some(Rest::Freezer)])
            {
                let thickness = (product == Product::Sauce).then_some(Thickness::Thin);
                let sheet = Sheet {
                    recipe: None,
                    foods: vec![if rest.is_none() { Food::ThinJuice } else { Food::Fruit }],
                    thawed: if rest == Some(Rest::Freezer) { Thawed::All } else { Thawed::Nothing },
                    making: Making { product, medium, pack, thickness },
                    jars: vec![(JarSize::Quart, 7), (JarSize::Pint, 1)],
                    additions: rest.map(|_| Vec::new()),
                    agent: *agent,
                    spoons: Spoons::Us,
                    salt: true,
                    rest,
                    method,
                    loads: vec![(7, Minutes(50), psi), (1, Minutes(40), psi)],
                };
                all.extend(steps(&sheet).into_iter().map(|step| step.text));
            }
        }
    }
    all.extend(Method::ALL.iter().flat_map(|method| wash_up(*method)).map(str::to_owned));
    all
}

fn of_figure(figure: FigureName) -> String {
    let KnownFigure { says, source, sure, .. } = known(figure);
    format!("{}: {says} {} {sure}", figure.label(), source.title)
}

fn labels() -> Vec<String> {
    macro_rules! labels {
        ($($of:path),* $(,)?) => {{
            let mut all = Vec::new();
            $( all.extend(<$of>::ALL.iter().map(|word| format!("{}: {}", stringify!($of), word.label()))); )*
            all
        }};
    }
    use bodega_core::day::work::Work;
    use bodega_core::judge::case::{Damage, Heating, Ingredient, LogEvent, Ripeness, Vine};
    use bodega_core::kettle::finish::Asks;
    use bodega_core::plan::checklist::Station;
    use bodega_core::shelf::label_sheet::{Paper, Shape};
    use bodega_model::canner::cover::{UnderJars, WaterOver};
    use bodega_model::crates::fruit::{Condition, Fault, Kind};
    use bodega_model::jars::kinds::{AcidSource, JarKind, LidState};
    use bodega_model::jars::ph::{PhSample, Remedy};
    use bodega_model::jars::size::Mouth;
    use bodega_model::judge::finding::{Code, Ruling, Severity, Subject};
    use bodega_model::judge::question::Ask;
    use bodega_model::kettle::words::{CookWhat, HeatSetting, KettleHeat, Warmth};
    use bodega_model::ledger::food::{FoodMeasure, FoodPlace};
    use bodega_model::tables::process::RefusalCode;
    use bodega_model::towel::liquid::LiquidLost;
    labels!(
        Asks,
        Warmth,
        Product,
        Medium,
        Pack,
        Method,
        Heating,
        Agent,
        JarSize,
        Mouth,
        JarStep,
        BoilEvent,
        Work,
        Station,
        Rest,
        Thickness,
        Kind,
        Condition,
        Fault,
        Leaving,
        Discard,
        Paper,
        Shape,
        KettleHeat,
        HeatSetting,
        TargetKind,
        CookWhat,
        Food,
        FoodPlace,
        FoodMeasure,
        Severity,
        Subject,
        Code,
        Ask,
        Ruling,
        PhSample,
        Remedy,
        JarKind,
        LidState,
        AcidSource,
        Ripeness,
        Vine,
        Damage,
        Ingredient,
        LiquidLost,
        UnderJars,
        WaterOver,
        LogEvent,
        LidVerdict,
        Rescue,
        RefusalCode,
    )
}

/// What is said of a jar of unknown size, and of water at half time.
fn measured() -> Vec<String> {
    use bodega_core::canner::over::look_again_words;
    use bodega_core::canner::water::unmeasured;
    use bodega_core::jars::unknown::by_water;
    use bodega_model::measures::units::kilograms;
    let of = |method, minutes| load(method, minutes, vec![jar(1, 1, JarSize::Quart)], &[]);
    let mut all: Vec<String> = [0.43, 1.5].map(|kg| by_water(kilograms(kg)).says).to_vec();
    all.extend(look_again_words(&of(Method::BoilingWater, 90)));
    all.extend(
        [(Method::BoilingWater, 90), (Method::BoilingWater, 15), (Method::AtmosphericSteam, 40)]
            .map(|(method, minutes)| unmeasured(&of(method, minutes))),
    );
    all
}

fn errors() -> Vec<String> {
    let unknown: UnknownWord = "bucket".parse::<JarSize>().unwrap_err();
    let mut all = vec![
        unknown.to_string(),
        NoRoom::NotCounted(JarSize::Quart).to_string(),
        NoRoom::TooTall(JarSize::Quart).to_string(),
        NoRoom::TooWide(JarSize::Quart).to_string(),
        NotBoiling(45.0).to_string(),
        MediumError::Missing.to_string(),
        MediumError::NotForProduct.to_string(),
        bodega_core::shelf::label_sheet::NoneFits.to_string(),
        bodega_core::plan::split::NoSplit::PinnedTooMuch.to_string(),
    ];
    all.extend(
        super::limits::all()
            .into_iter()
            .map(|limit| limit.check(limit.max * 2.0 + 1.0).unwrap_err().to_string()),
    );
    let resources = [
        Resource::Fruit(0),
        Resource::Jars(JarSize::Quart),
        Resource::Lids(bodega_model::jars::size::Mouth::Wide),
        Resource::Acid,
        Resource::Canner,
        Resource::Stove,
        Resource::Hands,
    ];
    all.extend(resources.map(|resource| resource.step().to_owned()));
    use NoRescue::{NotCold, NotPutRight, NothingWrong, TooLate, WasItCold};
    all.extend([NothingWrong, NotPutRight, TooLate].map(|reason| reason.to_string()));
    for hours in [2, 24] {
        all.extend([WasItCold { hours }, NotCold { hours }].map(|reason| reason.to_string()));
    }
    for is_cooked in [false, true] {
        all.extend([0, 49].map(|hours| advice(START, is_cooked, START.plus_minutes(hours * 60)).to_owned()));
    }
    all.extend(BEFORE_OPENING.map(str::to_owned));
    all
}

#[test]
fn everything_that_can_be_said() {
    let mut text = String::new();
    part(&mut text, "Findings", findings());
    part(&mut text, "Refusals", refusals());
    part(&mut text, "Cautions", cautions());
    part(&mut text, "At the canner", moments());
    part(&mut text, "Out of order", out_of_order());
    part(&mut text, "Calls", calls());
    part(&mut text, "A recipe's own page", recipe_fit::everything_said());
    part(&mut text, "Bench", bench());
    part(&mut text, "Where a jar is", whereabouts());
    part(&mut text, "On the towel", on_towels());
    part(&mut text, "Checklists", checklists());
    part(&mut text, "Measured", measured());
    part(&mut text, "Errors and advice", errors());
    part(&mut text, "Labels", labels());
    part(
        &mut text,
        "Figures and their sources",
        FigureName::ALL.iter().map(|figure| of_figure(*figure)).collect::<Vec<_>>(),
    );
    for slip in ["a antique", " 1 hours", " 1 minutes", "0 min more", "germ of", " 1 jars", "a igloo", "  ."]
    {
        assert!(!text.contains(slip), "{slip:?} is said");
    }
    insta::assert_snapshot!(text);
}

#[test]
fn a_clock_that_has_begun_says_so_and_gives_its_events_back() {
    let clock = BoilClock::new(Method::BoilingWater, Minutes(45));
    assert!(!clock.has_begun() && clock.happened().is_empty());
    let begun = clock.after(BoilEvent::JarsIn, None, at(3)).unwrap();
    assert!(begun.has_begun());
    assert_eq!(begun.happened().iter().map(|item| item.at).collect::<Vec<_>>(), [at(3)]);
    let longer = begun.retimed(Minutes(50));
    assert_eq!((longer.required(), longer.happened()), (Minutes(50), begun.happened()));
}
