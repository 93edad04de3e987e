//! Records of a made-up kitchen, for every test that needs some.

use std::collections::BTreeMap;

use bodega_core::plan::batch::Wish;
use bodega_model::canner::clock::BoilClock;
use bodega_model::canner::cover::WaterOver;
use bodega_model::canner::events::{BoilEvent, Happened};
use bodega_model::crates::fruit::{Condition, Fault, Kind};
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::Spoons;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::kitchen::ways::{Days, Decimal, HoursIn, Ways};
use bodega_model::ledger::food::Food;
use bodega_model::measures::ids::{BatchId, CannerId, JarId, LoadId, LotId};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::range::Range;
use bodega_model::measures::units::quarts;
use bodega_model::plan::making::Thickness;
use bodega_model::records::batch::Batch;
use bodega_model::records::canner::Canner;
use bodega_model::records::claims::Claims;
use bodega_model::records::jar::{Jar, JarRecord};
use bodega_model::records::kitchen::{Kitchen, Units};
use bodega_model::records::load::CannerLoad;
use bodega_model::records::lot::Lot;
use bodega_model::tables::process::{Medium, Method, Pack, Product};

pub const START: Moment = Moment(1_790_000_000_000);

/// A minute of the day.
pub fn at(minute: i64) -> Moment {
    START.plus_minutes(minute)
}

/// Events without a jar, each with its minute.
pub fn happened(events: &[(BoilEvent, i64)]) -> Vec<Happened> {
    events.iter().map(|(event, minute)| Happened { event: *event, at: at(*minute), jar: None }).collect()
}

/// An empty jar of quartered tomatoes in water, on the bench.
pub fn jar(number: u32, batch: i64, size: JarSize) -> Jar {
    Jar {
        named: None,
        id: JarId(batch * 100 + i64::from(number)),
        batch: BatchId(batch),
        code: format!("0904-{batch}"),
        number,
        product: Product::Whole,
        medium: Some(Medium::Water),
        pack: Pack::Raw,
        agent: Agent::BottledLemonJuice,
        recipe_doses: false,
        wants_salt: false,
        size,
        acid: false,
        undosed_at: None,
        liquid_lost: None,
        liquid_lost_at: None,
        salt: false,
        filled: false,
        bubbles: false,
        rim: false,
        lid: false,
    }
}

/// The same jar, packed with something else.
pub fn packed(jar: Jar, product: Product, medium: Option<Medium>, pack: Pack) -> Jar {
    Jar { product, medium, pack, ..jar }
}

/// The batch of such jars.
pub fn batch(id: i64, method: Method) -> Batch {
    Batch {
        name: None,
        note: None,
        liked: None,
        recipe: None,
        bowls: None,
        id: BatchId(id),
        code: format!("0904-{id}"),
        product: Product::Whole,
        medium: Some(Medium::Water),
        pack: Pack::Raw,
        thickness: None::<Thickness>,
        method,
        agent: Agent::BottledLemonJuice,
        salt: false,
        rest: None,
        altitude_ft: 2000.0,
        weight_g: 10_000,
        jars: 7,
        jars_lifted: 0,
        pot_dose_tsp: None,
        pot_said: Vec::new(),
        additions: Some(Vec::new()),
        additions_asked: true,
        chilled_at: None,
    }
}

/// A canner that holds seven quarts or nine pints.
pub fn canner(method: Method) -> Canner {
    Canner {
        id: CannerId(1),
        name: "Blue canner".to_owned(),
        method,
        capacity: BTreeMap::from([(JarSize::Quart, 7), (JarSize::Pint, 9), (JarSize::HalfPint, 12)]),
        pot: None,
        power_w: None,
        burner_mm: None,
        multi_cooker: false,
        gauge_tested_in: Some(2026),
    }
}

/// A load of jars with what happened to it. Jars that went in had their acid.
pub fn load(method: Method, minutes: u32, mut jars: Vec<Jar>, events: &[(BoilEvent, i64)]) -> CannerLoad {
    jars.iter_mut().for_each(|jar| jar.acid |= !events.is_empty());
    CannerLoad {
        id: LoadId(1),
        position: 1,
        of: 1,
        batch: batch(1, method),
        canner: canner(method),
        jars_c: None,
        claims: Some(Claims::USUAL),
        claims_asked: true,
        water_over: (!events.is_empty()).then_some(WaterOver::Well),
        water_at: None,
        water_asked: true,
        under_jars: None,
        also: Vec::new(),
        filled_since: None,
        readings: Vec::new(),
        psi: None,
        recipes: Vec::new(),
        jars,
        clock: BoilClock::replay(method, Minutes(minutes), &happened(events)),
    }
}

/// A quart on the towel.
pub fn on_the_towel() -> JarRecord {
    JarRecord {
        named: None,
        id: JarId(101),
        batch: BatchId(1),
        code: "0904-1".to_owned(),
        number: 1,
        size: JarSize::Quart,
        product: Product::Whole,
        medium: Some(Medium::Water),
        pack: Pack::Raw,
        thickness: None,
        agent: Agent::BottledLemonJuice,
        load: LoadId(1),
        earlier_loads: Vec::new(),
        lifted_at: Some(START),
        broke: false,
        acid_after_food: false,
        undosed: false,
        liquid_lost: None,
        verdict: None,
        judged_at: None,
        rescue: None,
        rescued_at: None,
        tidy: false,
        gone_at: None,
        gone_how: None,
        gone_why: None,
    }
}

/// Twenty pounds weighed in.
pub fn lot(id: LotId, kind: Kind, condition: Condition, fault: Option<Fault>) -> Lot {
    Lot {
        name: None,
        note: None,
        id,
        food: Food::Fruit,
        added_at: START,
        told: None,
        from_batch: None,
        from_code: None,
        moved_in: false,
        chilled_at: None,
        thawed_at: None,
        poured_g: 0,
        picked_on: jiff::civil::date(2026, 9, 4),
        kind,
        condition,
        fault,
        back_on: None,
        frozen: false,
        weight_g: 9072,
        left_g: 9072,
    }
}

/// Seven quarts of something, in boiling water at 2,000 ft.
pub fn wish(product: Product, medium: Option<Medium>, pack: Pack) -> Wish {
    Wish {
        recipe: None,
        product,
        medium,
        pack,
        method: Method::BoilingWater,
        altitude: Altitude::from_feet(2000.0).unwrap(),
        volume: Range { low: quarts(6.0), expected: quarts(7.2), high: quarts(8.0) },
        agent: Agent::BottledLemonJuice,
        jar: JarSize::Quart,
        mix: None,
    }
}

/// A kitchen at a height, with one canner.
pub fn house(altitude_ft: Option<f64>) -> Kitchen {
    let canner = canner(Method::BoilingWater);
    Kitchen {
        name: "Saltbrook Terrace".to_owned(),
        altitude_ft,
        spoons: Spoons::Us,
        units: Units::Us,
        ways: Ways {
            hours: HoursIn::Day,
            days: Days::DayFirst,
            decimal: Decimal::Point,
            heat: Units::Us.usual_heat(),
            height: Units::Us.usual_height(),
        },
        agent: Agent::BottledLemonJuice,
        salt: false,
        turnaround_minutes: 25,
        pounds_per_plant: 10.0,
        people: 2,
        burners: 4,
        day_ends: 1260,
        break_at: None,
        break_minutes: 30,
        canners: vec![canner.clone()],
        canner,
        jar_outsides: BTreeMap::new(),
    }
}
